//! What a job says of how its lines are worked.

use std::collections::BTreeMap;

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Deserializer, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use crate::LineKind;
use crate::error::{Faults, InputError, Remedy};
use crate::id::PieceId;
use crate::stroke::Perforation;
use crate::units::{Unit, measure};
use crate::workshop::{Force, RecordId, Told};

/// What is said of each operation, in which order they run, and how pieces are held.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Tooling {
    /// What is said of the operations that are not done as they come, or that are split off.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub operations: BTreeMap<OperationId, OperationSay>,
    /// The operations in the order in which they run, where that is not the trade's; those that are not in it come where
    /// they would without it.
    #[serde(default, deserialize_with = "list_or_none", skip_serializing_if = "Vec::is_empty")]
    pub order: Vec<OperationId>,
    /// The copy that is worked first in each operation.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub first: Option<Pin>,
    /// The copy that is worked last in each operation.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub last: Option<Pin>,
    /// Uncut places that hold pieces in the sheet; `None` leaves them to the carrier.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub nicks: Option<Nicks>,
    /// Outlines that are cut and tied in turn, to be torn; not together with nicks.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub perforated: Option<Perforation>,
    /// Cuts in the waste, so that it comes off in parts.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub weeding: Option<Weeding>,
}

/// What names an operation: a kind of line, such as `cut`, or a share of its lines, such as `cut@edge` for the outlines of
/// blanks, `cut@edge=kraft-300` for those on that card, `cut@p1` for what is on a piece, or `cut@=kraft-300` for what is
/// on that card where it is not the job's first.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(transparent)]
pub struct OperationId(pub String);

/// Which lines of a kind an operation works.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Share {
    /// All that no other operation works.
    Rest,
    /// All of it that is on another card than the first, where the job is made of several: each is worked its own way.
    Card(RecordId),
    /// The outlines of blanks, of all cards whose outlines have no operation of their own.
    Edge,
    /// The outlines of blanks of a card.
    EdgeOn(RecordId),
    /// Those of a piece.
    Piece(PieceId),
    /// Those of a layer and a colour of a drawing from elsewhere.
    Drawn(String),
}

impl OperationId {
    /// The operation of a share of a kind.
    #[must_use]
    pub fn new(kind: LineKind, share: &Share) -> Self {
        Self(match share {
            Share::Rest => kind.id().to_owned(),
            Share::Card(stock) => format!("{}@={stock}", kind.id()),
            Share::Edge => format!("{}@edge", kind.id()),
            Share::EdgeOn(stock) => format!("{}@edge={stock}", kind.id()),
            Share::Piece(piece) => format!("{}@{piece}", kind.id()),
            Share::Drawn(group) => format!("{}@:{group}", kind.id()),
        })
    }

    /// What it is called in files: letters, digits and hyphens alone. A sheet is of one card, which goes without saying.
    #[must_use]
    pub fn in_files(&self) -> String {
        let own = self.0.split_once('=').map_or(self.0.as_str(), |(own, _)| own);
        own.trim_end_matches('@').replace('@', "-").replace(':', "")
    }

    /// The kind and the share that it names; `None` where it names none.
    #[must_use]
    pub fn parts(&self) -> Option<(LineKind, Share)> {
        let (kind, share) = match self.0.split_once('@') {
            None => (self.0.as_str(), Share::Rest),
            Some((kind, "edge")) => (kind, Share::Edge),
            Some((kind, own)) => {
                let share = if let Some(group) = own.strip_prefix(':') {
                    Share::Drawn(group.to_owned())
                } else if let Some(stock) = own.strip_prefix('=') {
                    Share::Card(RecordId::from(stock))
                } else if let Some(stock) = own.strip_prefix("edge=") {
                    Share::EdgeOn(RecordId::from(stock))
                } else {
                    Share::Piece(PieceId::from(own))
                };
                (kind, share)
            }
        };
        let kind = LineKind::IN_ORDER.into_iter().find(|own| own.id() == kind)?;
        let is_sound = match &share {
            Share::Piece(piece) => piece.is_sound(),
            Share::Drawn(group) => PieceId::from(group.as_str()).is_sound(),
            Share::Card(stock) | Share::EdgeOn(stock) => stock.is_sound(),
            Share::Rest | Share::Edge => true,
        };
        (kind != LineKind::Guide && is_sound).then_some((kind, share))
    }
}

impl Share {
    /// Whether it is of the outlines of blanks.
    #[must_use]
    pub const fn is_edge(&self) -> bool {
        matches!(self, Self::Edge | Self::EdgeOn(_))
    }

    /// Whether it is what no other operation works, of all cards or of one.
    #[must_use]
    pub const fn is_rest(&self) -> bool {
        matches!(self, Self::Rest | Self::Card(_))
    }
}

impl From<LineKind> for OperationId {
    fn from(kind: LineKind) -> Self {
        Self::new(kind, &Share::Rest)
    }
}

/// When an operation is done.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum Moment {
    /// Before anything is printed.
    BeforePrint,
    /// After colour, before white and varnish that lie over it.
    BetweenInks,
    /// When all is printed.
    #[default]
    AfterPrint,
}

/// How reverse creases are made.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum Reverse {
    /// Pressed from the front like the others.
    Pressed,
    /// Cut to part of the depth from the front: it opens there when it is folded.
    Scored,
    /// Cut and tied in turn.
    Perforated,
    /// Pressed from behind: the sheet is turned over.
    FromBehind,
}

/// What is said of an operation.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct OperationSay {
    /// True where it is not done.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub off: bool,
    /// The station, by its name; `None` takes the first that holds the tool.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub station: Option<String>,
    /// The force, in the machine's unit; `None` takes the recipe's, or leaves it to the machine.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub force: Option<Force>,
    /// The speed, mm/s; `None` takes the recipe's, or leaves it to the machine.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub speed: Option<f64>,
    /// How often the tool goes along each line, 1 to 20; `None` takes the recipe's, or once.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub passes: Option<u32>,
    /// The blade's depth, in the station's steps; `None` takes the recipe's, or leaves it as it is.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub depth: Option<f64>,
    /// When it is done; `None` when all is printed.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub when: Option<Moment>,
    /// How it is done, of reverse creases; `None` presses them from the front.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub reverse: Option<Reverse>,
}

/// A copy on the sheet.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Pin {
    /// Of which piece.
    pub piece: PieceId,
    /// Which of its copies on the first of the sheets that are alike, from 1.
    pub copy: u32,
}

/// Uncut places in the outlines of pieces.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Nicks {
    /// How wide each is, mm; 0.1 to 5.
    pub width: f64,
    /// How many each outline has, 1 to 40.
    pub count: u32,
    /// At most so far from one to the next, mm, whatever their number; 5 to 1000.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub every: Option<f64>,
    /// True where they may lie on edges that are seen when the piece is closed; otherwise so many in an outline lie on
    /// flaps and glue flaps, as long as these hold them all.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub seen: bool,
}

impl Default for Nicks {
    /// Four of 0.4 mm (common practice), off the edges that are seen.
    fn default() -> Self {
        Self { width: 0.4, count: 4, every: None, seen: false }
    }
}

/// Cuts in the waste.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Weeding {
    /// How far the frame lies from the pieces, mm; 1 to 50.
    pub frame: f64,
    /// True where lines between the pieces divide what is in the frame.
    pub lines: bool,
}

impl Default for Weeding {
    /// A frame 3 mm around, and lines between (common practice).
    fn default() -> Self {
        Self { frame: 3.0, lines: true }
    }
}

/// `null`, as a field is set back, is the trade's order.
fn list_or_none<'de, D: Deserializer<'de>>(from: D) -> Result<Vec<OperationId>, D::Error> {
    Ok(Option::deserialize(from)?.unwrap_or_default())
}

/// Most operations that anything is said of.
const MOST: usize = 40;

impl Tooling {
    /// True where nothing is said.
    #[must_use]
    pub fn is_standard(&self) -> bool {
        *self == Self::default()
    }

    /// What is said of an operation.
    #[must_use]
    pub fn of(&self, id: &OperationId) -> OperationSay {
        self.operations.get(id).cloned().unwrap_or_default()
    }

    /// The same where a card goes by another id.
    pub fn rename_card(&mut self, from: &RecordId, to: &RecordId) {
        let named = |id: &OperationId| match id.parts() {
            Some((kind, Share::Card(stock))) if stock == *from => {
                OperationId::new(kind, &Share::Card(to.clone()))
            }
            Some((kind, Share::EdgeOn(stock))) if stock == *from => {
                OperationId::new(kind, &Share::EdgeOn(to.clone()))
            }
            _ => id.clone(),
        };
        self.operations = std::mem::take(&mut self.operations)
            .into_iter()
            .map(|(id, say)| (named(&id), say))
            .collect();
        self.order.iter_mut().for_each(|id| *id = named(id));
    }

    pub(super) fn validate(&self, unit: Unit, faults: &mut Faults) {
        if self.operations.len() > MOST || self.order.len() > MOST {
            let count = self.operations.len().max(self.order.len());
            faults.add(InputError::new(
                "tooling.operations",
                format!("{count} operations are told of: a job has up to {MOST}"),
                f64::from(u32::try_from(count).unwrap_or(u32::MAX)),
                Remedy::advice("Leave out those that the job does not have"),
            ));
            return;
        }
        for id in self.operations.keys().chain(&self.order) {
            if id.parts().is_none() {
                let shown: String = id.0.chars().take(40).collect();
                faults.add(InputError::plain(
                    "tooling.operations",
                    format!("“{shown}” is no operation"),
                    Remedy::advice("Name a kind of line, such as cut, or a share of it, such as cut@edge or cut@p1"),
                ));
            }
        }
        for (id, say) in &self.operations {
            let Some((kind, _)) = id.parts() else { continue };
            let field = |name: &str| format!("tooling.operations.{}.{name}", id.0);
            let label = |what: &str| format!("The {what} of {}", kind.name());
            let OperationSay { force, speed, passes, depth, .. } = *say;
            Told { force, speed, passes, depth }.validate(&field, &label, unit, faults);
        }
        self.holding(unit, faults);
    }

    fn holding(&self, unit: Unit, faults: &mut Faults) {
        let show = |mm: f64| measure(mm, unit);
        if let Some(nicks) = &self.nicks {
            faults.range("tooling.nicks.width", "A nick", nicks.width, 0.1..=5.0, show);
            let count = f64::from(nicks.count);
            faults.range("tooling.nicks.count", "Nicks", count, 1.0..=40.0, |own| format!("{own}"));
            if let Some(every) = nicks.every {
                let name = "The way from nick to nick";
                faults.range("tooling.nicks.every", name, every, 5.0..=1000.0, show);
            }
        }
        if let Some(pattern) = &self.perforated {
            let name = "A cut of the perforated outline";
            faults.range("tooling.perforated.cut", name, pattern.cut, 0.3..=100.0, show);
            let name = "A tie of the perforated outline";
            faults.range("tooling.perforated.tie", name, pattern.tie, 0.1..=20.0, show);
            if self.nicks.is_some() {
                faults.add(InputError::plain(
                    "tooling.perforated",
                    "Outlines are perforated and have nicks: it is one or the other",
                    Remedy {
                        text: "Leave the nicks out".to_owned(),
                        changes: vec![crate::error::Change {
                            field: "tooling.nicks".to_owned(),
                            value: crate::error::Setting::Standard,
                        }],
                    },
                ));
            }
        }
        if let Some(weeding) = &self.weeding {
            let name = "The weeding frame’s distance";
            faults.range("tooling.weeding.frame", name, weeding.frame, 1.0..=50.0, show);
        }
    }
}
