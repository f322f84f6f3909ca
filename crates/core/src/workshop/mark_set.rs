//! Mark sets: named arrangements of registration marks.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use super::{Keeping, check_name};
use crate::error::{Faults, InputError, Remedy};
use crate::units::{Unit, measure};

/// A corner of the sheet, seen from its printed side with its top edge up.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum Corner {
    /// Top left.
    TopLeft,
    /// Top right.
    TopRight,
    /// Bottom right.
    BottomRight,
    /// Bottom left.
    BottomLeft,
}

impl Corner {
    /// Clockwise from the top left.
    pub const ALL: [Self; 4] = [Self::TopLeft, Self::TopRight, Self::BottomRight, Self::BottomLeft];

    /// The corner across the sheet.
    #[must_use]
    pub const fn opposite(self) -> Self {
        match self {
            Self::TopLeft => Self::BottomRight,
            Self::TopRight => Self::BottomLeft,
            Self::BottomRight => Self::TopLeft,
            Self::BottomLeft => Self::TopRight,
        }
    }

    /// Which way is inwards from here: the signs of x and y.
    #[must_use]
    pub const fn inwards(self) -> (f64, f64) {
        match self {
            Self::TopLeft => (1.0, 1.0),
            Self::TopRight => (-1.0, 1.0),
            Self::BottomRight => (-1.0, -1.0),
            Self::BottomLeft => (1.0, -1.0),
        }
    }

    /// In words.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Self::TopLeft => "top left",
            Self::TopRight => "top right",
            Self::BottomRight => "bottom right",
            Self::BottomLeft => "bottom left",
        }
    }
}

/// The shape of each mark, mm.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(tag = "shape", rename_all = "kebab-case")]
pub enum MarkShape {
    /// A corner angle, its arms pointing inwards along the edges.
    Angle {
        /// Length of each arm, measured outside.
        arm: f64,
        /// Width of the stroke.
        stroke: f64,
    },
    /// A filled dot.
    Dot {
        /// Diameter.
        diameter: f64,
    },
    /// A cross that leaves its middle open.
    Cross {
        /// From end to end.
        arm: f64,
        /// Width of the stroke.
        stroke: f64,
    },
}

/// A mark's shape without its sizes.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum MarkShapeName {
    /// Corner angles.
    Angle,
    /// Filled dots.
    Dot,
    /// Open crosses.
    Cross,
}

impl MarkShapeName {
    /// In the plural, in words.
    #[must_use]
    pub const fn plural(self) -> &'static str {
        match self {
            Self::Angle => "angles",
            Self::Dot => "dots",
            Self::Cross => "crosses",
        }
    }
}

impl MarkShape {
    /// The shape's name.
    #[must_use]
    pub const fn name(&self) -> MarkShapeName {
        match self {
            Self::Angle { .. } => MarkShapeName::Angle,
            Self::Dot { .. } => MarkShapeName::Dot,
            Self::Cross { .. } => MarkShapeName::Cross,
        }
    }

    /// Width and height of the mark, mm: its arm or diameter.
    #[must_use]
    pub const fn extent(&self) -> f64 {
        match self {
            Self::Angle { arm, .. } | Self::Cross { arm, .. } => *arm,
            Self::Dot { diameter } => *diameter,
        }
    }
}

/// From what a mark set's distances count.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum DistanceFrom {
    /// The sheet's edge.
    PaperEdge,
    /// The edge of what the printer can print.
    PrintableEdge,
}

/// What tells a sheet that was turned by 180°.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum Tell {
    /// Three marks: the missing one tells.
    MissingMark,
    /// The mark across from the first differs.
    OddMark,
    /// The sheet's code is printed beside the first mark.
    SheetCode,
    /// A “1” is printed beside the first mark.
    Numeral,
}

/// A mark set. Distances are measured to the nearest part of each mark.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct MarkSet {
    /// Its name in lists.
    pub name: String,
    /// The shape of each mark.
    pub mark: MarkShape,
    /// The mark that is read first.
    pub first: Corner,
    /// What tells a turned sheet. With a missing mark there are three, otherwise four.
    pub tell: Tell,
    /// Distance from the left and right edges, mm.
    pub across: f64,
    /// Distance from the top and bottom edges, mm.
    pub along: f64,
    /// From which edges.
    pub from: DistanceFrom,
    /// Clear space the eye needs around each mark, mm.
    pub keep_clear: f64,
    /// Where it stands in lists.
    #[serde(default)]
    pub keeping: Keeping,
}

impl MarkSet {
    /// The corners that carry a mark, the first one first, then clockwise. The missing one of
    /// three lies across from the first.
    pub fn corners(&self) -> impl Iterator<Item = Corner> + '_ {
        let start = Corner::ALL.iter().position(|corner| *corner == self.first).unwrap_or(0);
        (0..4)
            .map(move |step| Corner::ALL[(start + step) % 4])
            .filter(|corner| self.tell != Tell::MissingMark || *corner != self.first.opposite())
    }

    /// How many marks, of which shape and size, and where they stand, in words and a unit.
    #[must_use]
    pub fn summary(&self, unit: Unit) -> String {
        let count = match self.tell {
            Tell::MissingMark => "three",
            Tell::OddMark => "four, one odd",
            Tell::SheetCode => "four and the sheet’s code",
            Tell::Numeral => "four and a “1”",
        };
        let from = match self.from {
            DistanceFrom::PaperEdge => "the edge",
            DistanceFrom::PrintableEdge => "the printable edge",
        };
        let show = |length: f64| measure(length, unit);
        format!(
            "{count}; {} of {}, {} across and {} along from {from}",
            self.mark.name().plural(),
            show(self.mark.extent()),
            show(self.across),
            show(self.along)
        )
    }

    /// # Errors
    /// Every figure out of range, and arms too short for their stroke.
    pub fn validate(&self, unit: Unit) -> Result<(), Vec<InputError>> {
        let show = |length: f64| measure(length, unit);
        let mut faults = Faults::default();
        check_name("name", &self.name, &mut faults);
        faults.range("across", "The distance across", self.across, 0.0..=500.0, show);
        faults.range("along", "The distance along", self.along, 0.0..=500.0, show);
        faults.range("keep_clear", "The keep-clear", self.keep_clear, 0.0..=50.0, show);
        match self.mark {
            MarkShape::Dot { diameter } => {
                faults.range("mark.diameter", "The dot’s diameter", diameter, 1.0..=50.0, show);
            }
            MarkShape::Angle { arm, stroke } | MarkShape::Cross { arm, stroke } => {
                faults.range("mark.arm", "The arm", arm, 2.0..=100.0, show);
                faults.range("mark.stroke", "The stroke", stroke, 0.1..=10.0, show);
                if stroke > arm / 4.0 {
                    faults.add(InputError::new(
                        "mark.stroke",
                        format!("A stroke of {} fills arms of {}", show(stroke), show(arm)),
                        stroke,
                        Remedy::set(
                            format!("Set it to a quarter of the arm, {}", show(arm / 4.0)),
                            "mark.stroke",
                            arm / 4.0,
                        ),
                    ));
                }
            }
        }
        faults.or(())
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn three() -> MarkSet {
        MarkSet {
            name: "Three".into(),
            mark: MarkShape::Dot { diameter: 5.0 },
            first: Corner::TopRight,
            tell: Tell::MissingMark,
            across: 10.0,
            along: 12.7,
            from: DistanceFrom::PaperEdge,
            keep_clear: 2.0,
            keeping: Keeping::Kept,
        }
    }

    #[test]
    fn a_summary_speaks_the_users_unit() {
        assert_eq!(
            three().summary(Unit::Mm),
            "three; dots of 5 mm, 10 mm across and 12.7 mm along from the edge"
        );
        let set = MarkSet {
            mark: MarkShape::Cross { arm: 12.7, stroke: 0.5 },
            tell: Tell::OddMark,
            across: 25.4,
            from: DistanceFrom::PrintableEdge,
            ..three()
        };
        assert_eq!(
            set.summary(Unit::In),
            "four, one odd; crosses of 1/2 in, 1 in across and 1/2 in along from the printable edge"
        );
    }

    #[test]
    fn three_marks_leave_out_the_one_across_from_the_first() {
        let set = three();
        let corners: Vec<_> = set.corners().collect();
        assert_eq!(corners, [Corner::TopRight, Corner::BottomRight, Corner::TopLeft]);
        let four = MarkSet { tell: Tell::Numeral, ..set };
        assert_eq!(four.corners().count(), 4);
    }
}
