//! What lines of a drawing are to be: the line key.

use std::collections::BTreeMap;

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use super::Group;
use crate::LineKind;

/// What becomes of lines that look alike.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum Meaning {
    /// Nothing: they are no part of the piece.
    LeftOut,
    /// They are printed and not cut.
    Printed,
    /// They are printed, and cut along their middle.
    PrintedAndCut,
    /// They are printed, and cut along the outer edge of their stroke.
    PrintedAndCutAround,
    /// Pressed; the panel folds away from the printed side.
    Crease,
    /// Pressed; the panel folds towards the printed side.
    ReverseCrease,
    /// Nothing is done along them: the card bends there of itself, and what lies beside them are strips of one curved panel.
    Bend,
    /// Cut to part of the depth.
    Score,
    /// Cut through the face, not the liner.
    KissCut,
    /// Cut and tied in turn.
    Perforation,
    /// Cut through.
    Cut,
}

impl Meaning {
    /// All of them, what frees a piece first.
    pub const ALL: [Self; 11] = [
        Self::Cut,
        Self::KissCut,
        Self::Perforation,
        Self::Crease,
        Self::ReverseCrease,
        Self::Score,
        Self::Bend,
        Self::PrintedAndCut,
        Self::PrintedAndCutAround,
        Self::Printed,
        Self::LeftOut,
    ];

    /// Its name in running text.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match (self, self.kind()) {
            (Self::PrintedAndCut, _) => "printed and cut",
            (Self::PrintedAndCutAround, _) => "printed, cut around",
            (_, Some(kind)) => kind.name(),
            (Self::Bend, None) => "the card bends",
            (Self::Printed, None) => "printed only",
            (_, None) => "left out",
        }
    }

    /// True for what is printed.
    #[must_use]
    pub const fn is_printed(self) -> bool {
        matches!(self, Self::Printed | Self::PrintedAndCut | Self::PrintedAndCutAround)
    }

    /// What lines of a kind are, and the colour they have in a drawing of their own.
    #[must_use]
    pub const fn of(kind: LineKind) -> (Self, &'static str) {
        match kind {
            LineKind::Guide => (Self::LeftOut, "#8a8f86"),
            LineKind::Crease => (Self::Crease, "#1f6f8b"),
            LineKind::ReverseCrease => (Self::ReverseCrease, "#7a4f9a"),
            LineKind::Score => (Self::Score, "#2f7d4f"),
            LineKind::KissCut => (Self::KissCut, "#b8860b"),
            LineKind::Perforation => (Self::Perforation, "#c2571a"),
            LineKind::Cut => (Self::Cut, "#b3261e"),
        }
    }

    /// The kind of line that it is worked as; none of what is only printed, bends of itself or is left out.
    #[must_use]
    pub const fn kind(self) -> Option<LineKind> {
        Some(match self {
            Self::LeftOut | Self::Printed | Self::Bend => return None,
            Self::Crease => LineKind::Crease,
            Self::ReverseCrease => LineKind::ReverseCrease,
            Self::Score => LineKind::Score,
            Self::KissCut => LineKind::KissCut,
            Self::Perforation => LineKind::Perforation,
            Self::Cut | Self::PrintedAndCut | Self::PrintedAndCutAround => LineKind::Cut,
        })
    }
}

/// What each group of lines is, by what it is known by. What it does not name has no meaning, and is never cut.
#[derive(Debug, Clone, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(transparent)]
pub struct LineKey(pub BTreeMap<String, Meaning>);

impl FromIterator<(String, Meaning)> for LineKey {
    fn from_iter<T: IntoIterator<Item = (String, Meaning)>>(rows: T) -> Self {
        Self(rows.into_iter().collect())
    }
}

impl LineKey {
    /// What lines of a group are.
    #[must_use]
    pub fn meaning(&self, group: &Group) -> Option<Meaning> {
        self.0.get(&group.id()).copied()
    }

    /// What it says of the groups of another drawing: the same layer and colour, the same layer, or a colour that differs
    /// by no more than `tolerance` (ΔE, CIE 1976); of lines that look alike.
    #[must_use]
    pub fn applied(&self, groups: &[Group], tolerance: f64) -> Self {
        // Layer, colour and look, as groups have them in their ids.
        let parts = |id: &str| -> Option<[String; 3]> {
            let mut parts = id.rsplitn(3, '|').map(str::to_owned);
            let (look, colour, layer) = (parts.next()?, parts.next()?, parts.next()?);
            Some([layer, colour, look])
        };
        let all: Vec<([String; 3], Meaning)> =
            self.0.iter().filter_map(|(id, meaning)| Some((parts(id)?, *meaning))).collect();
        let found = groups.iter().filter_map(|group| {
            let exact = self.meaning(group);
            let own = parts(&group.id())?;
            // What is hidden says nothing of what is seen.
            let known = all.iter().filter(|(id, _)| id[2] == own[2]);
            let known: Vec<(&str, &str, Meaning)> =
                known.map(|(id, meaning)| (id[0].as_str(), id[1].as_str(), *meaning)).collect();
            let by_layer = || {
                let named = known.iter().find(|(layer, ..)| {
                    !layer.is_empty() && layer.eq_ignore_ascii_case(&group.layer)
                });
                named.map(|(.., meaning)| *meaning)
            };
            let by_colour = || {
                let near = known.iter().filter_map(|(_, colour, meaning)| {
                    Some((difference(colour, &group.colour)?, *meaning))
                });
                let nearest = near.min_by(|one, other| one.0.total_cmp(&other.0))?;
                (nearest.0 <= tolerance).then_some(nearest.1)
            };
            Some((group.id(), exact.or_else(by_layer).or_else(by_colour)?))
        });
        Self(found.collect())
    }
}

/// How different two colours look: the distance in CIE L*a*b* (CIE 1976, from sRGB under D65). `None` where one is none.
fn difference(one: &str, other: &str) -> Option<f64> {
    let (one, other) = (lab(one)?, lab(other)?);
    Some(one.iter().zip(other).map(|(a, b)| (a - b).powi(2)).sum::<f64>().sqrt())
}

fn lab(colour: &str) -> Option<[f64; 3]> {
    let digits = colour.strip_prefix('#').filter(|digits| digits.len() == 6)?;
    let value = u32::from_str_radix(digits, 16).ok()?;
    let linear = |shift: u32| {
        let share = f64::from((value >> shift) & 0xff) / 255.0;
        if share <= 0.040_45 { share / 12.92 } else { ((share + 0.055) / 1.055).powf(2.4) }
    };
    let [r, g, b] = [16, 8, 0].map(linear);
    let white = [0.950_489, 1.0, 1.088_84];
    let xyz = [
        0.412_390_8 * r + 0.357_584_3 * g + 0.180_480_8 * b,
        0.212_639_0 * r + 0.715_168_7 * g + 0.072_192_3 * b,
        0.019_330_8 * r + 0.119_194_8 * g + 0.950_532_2 * b,
    ];
    let [x, y, z] = [0, 1, 2].map(|at| {
        let share: f64 = xyz[at] / white[at];
        if share > 216.0 / 24_389.0 {
            share.cbrt()
        } else {
            (24_389.0 / 27.0 * share + 16.0) / 116.0
        }
    });
    Some([116.0 * y - 16.0, 500.0 * (x - y), 200.0 * (y - z)])
}

#[cfg(test)]
mod tests {
    use super::super::Look;
    use super::*;

    fn group(layer: &str, colour: &str) -> Group {
        Group { layer: layer.to_owned(), colour: colour.to_owned(), look: Look::Stroke }
    }

    /// L*a*b* of sRGB primaries under D65 as colour handbooks list them: red 53.24, 80.09, 67.20; blue 32.30, 79.19,
    /// -107.86 (Lindbloom's table, from memory).
    #[test]
    fn colours_are_as_far_apart_as_tables_say() {
        let near = |colour: &str, wanted: [f64; 3]| {
            let own = lab(colour).unwrap();
            assert!(own.iter().zip(wanted).all(|(a, b)| (a - b).abs() < 0.05), "{own:?}");
        };
        near("#ff0000", [53.24, 80.09, 67.20]);
        near("#0000ff", [32.30, 79.19, -107.86]);
        near("#ffffff", [100.0, 0.0, 0.0]);
        assert_eq!(difference("#00ff00", ""), None);
    }

    #[test]
    fn a_key_is_applied_by_layer_and_by_a_colour_that_shifted() {
        let mut key = LineKey::default();
        key.0.insert(group("Rand", "#ff0000").id(), Meaning::Cut);
        key.0.insert(group("", "#0000ff").id(), Meaning::Crease);
        let others = [
            group("Rand", "#ff0000"),
            group("rand", "#123456"),
            group("7", "#0a08fb"),
            group("8", "#00ff00"),
        ];
        let own = key.applied(&others, 6.0);
        let found: Vec<Option<Meaning>> = others.iter().map(|one| own.meaning(one)).collect();
        assert_eq!(
            found,
            [Some(Meaning::Cut), Some(Meaning::Cut), Some(Meaning::Crease), None],
            "what is near nothing has no meaning"
        );
        assert_eq!(key.applied(&others, 0.5).meaning(&others[2]), None);
    }
}
