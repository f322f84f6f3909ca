//! What is done to a picture or a drawing before it is printed: steps that stay editable and can be switched off.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use super::layer::{colour_fault, is_off};
use crate::blob::BlobId;
use crate::error::{Faults, InputError, Remedy, Setting};

/// Most steps of a picture.
pub const MOST_STEPS: usize = 200;

/// Most of them that look at every pixel and its neighbours.
const MOST_WHOLE: usize = 20;

/// Most points of one stroke of the eraser.
const MOST_POINTS: usize = 500;

/// Widest soft edge, in pixels.
pub const SOFTEST: f64 = 100.0;

/// How a picture was made from the one that was brought in.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Reworked {
    /// The picture that was brought in.
    pub from: BlobId,
    /// Its width and height in pixels, the right way up.
    pub pixels: [u32; 2],
    /// What is done to it, one after the other; up to 200.
    pub steps: Vec<ReworkStep>,
}

/// One step of it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct ReworkStep {
    /// True where it is left out for now.
    #[serde(default, skip_serializing_if = "is_off")]
    pub off: bool,
    /// What it does.
    #[serde(flatten)]
    #[cfg_attr(feature = "api", ts(flatten))]
    pub act: Rework,
}

/// What a step does. Places are shares of the sides of the picture that was brought in, from its top left.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case", tag = "kind")]
pub enum Rework {
    /// What is like the background becomes clear.
    Background {
        /// Where it begins.
        from: Reach,
        /// What it is like, as `#rrggbb`; `None` is found.
        #[serde(default)]
        colour: Option<String>,
        /// How far a colour may be off in the channel where it is furthest off, per cent of all there is, 0 to 100.
        tolerance: f64,
        /// How wide the edge of what is left fades, in pixels, 0 to 100.
        soft: f64,
    },
    /// Spots that hang together and have fewer pixels become clear.
    Specks {
        /// So many pixels.
        under: u32,
    },
    /// A rectangle becomes clear.
    Rectangle {
        /// Two of its corners that lie opposite.
        corners: [[f64; 2]; 2],
    },
    /// What lies along a stroke becomes clear.
    Stroke {
        /// What it runs through; up to 500.
        points: Vec<[f64; 2]>,
        /// Its width, as a share of the picture's longer side, up to 0.5.
        width: f64,
    },
    /// What is clear around the rest is cut away, last of all.
    Crop,
    /// One part of a drawing, in the order in which they are drawn.
    Part {
        /// Its number, from 0.
        part: u32,
        /// True where it is left out.
        #[serde(default, skip_serializing_if = "is_off")]
        hidden: bool,
        /// How far it is moved, as shares of the drawing's sides.
        #[serde(default)]
        moved: [f64; 2],
        /// The colour that it has instead of its own, as `#rrggbb`.
        #[serde(default)]
        colour: Option<String>,
    },
}

/// Where a background begins.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case", tag = "by", content = "at")]
pub enum Reach {
    /// At the picture's edges, as far as it hangs together.
    Edges,
    /// At a point, as far as it hangs together.
    Point([f64; 2]),
    /// Wherever it is.
    Everywhere,
}

impl Rework {
    /// What it goes by in messages.
    #[must_use]
    pub const fn name(&self) -> &'static str {
        match self {
            Self::Background { .. } => "Drop the background",
            Self::Specks { .. } => "Erase specks",
            Self::Rectangle { .. } => "Erase a rectangle",
            Self::Stroke { .. } => "Erase along a stroke",
            Self::Crop => "Crop to what is left",
            Self::Part { .. } => "Change a part",
        }
    }

    /// True for what looks at every pixel and its neighbours.
    const fn is_of_whole(&self) -> bool {
        matches!(self, Self::Background { .. } | Self::Specks { .. })
    }

    /// True for what is done to the parts of a drawing.
    #[must_use]
    pub const fn is_of_drawing(&self) -> bool {
        matches!(self, Self::Part { .. })
    }
}

impl Reworked {
    /// The acts that are not switched off.
    pub fn acts(&self) -> impl Iterator<Item = &Rework> {
        self.steps.iter().filter(|step| !step.off).map(|step| &step.act)
    }

    /// Checks every figure.
    ///
    /// # Errors
    /// All that are out of range.
    pub fn checked(&self) -> Result<(), Vec<InputError>> {
        let mut faults = Faults::default();
        self.validate(&|below: &str| below.to_owned(), &mut faults);
        faults.or(())
    }

    pub(super) fn validate(&self, field: &dyn Fn(&str) -> String, faults: &mut Faults) {
        let anew =
            || Remedy::set("Take the picture as it came", &field("reworked"), Setting::Standard);
        let sides = self.pixels.iter().all(|count| (1..=60_000).contains(count));
        if !self.from.is_sound() || !sides {
            let words = "The picture that a cleaned one was made from is not named";
            faults.add(InputError::plain(&field("reworked.from"), words, anew()));
        }
        if self.steps.len() > MOST_STEPS {
            let count = self.steps.len();
            faults.add(InputError::new(
                &field("reworked.steps"),
                format!("The picture has {count} steps: it has up to {MOST_STEPS}"),
                f64::from(u32::try_from(count).unwrap_or(u32::MAX)),
                Remedy::advice("Take some steps away"),
            ));
            return;
        }
        let whole = self.steps.iter().filter(|step| step.act.is_of_whole()).count();
        if whole > MOST_WHOLE {
            faults.add(InputError::new(
                &field("reworked.steps"),
                format!(
                    "{whole} steps drop backgrounds and erase specks: up to {MOST_WHOLE} of the picture’s steps do"
                ),
                f64::from(u32::try_from(whole).unwrap_or(u32::MAX)),
                Remedy::advice("Take some of them away, or give one more tolerance"),
            ));
            return;
        }
        for (at, step) in self.steps.iter().enumerate() {
            let field = |below: &str| field(&format!("reworked.steps.{at}.{below}"));
            step.act.validate(&field, faults);
        }
    }
}

impl Rework {
    fn validate(&self, field: &dyn Fn(&str) -> String, faults: &mut Faults) {
        let plain = |value: f64| format!("{value}");
        let mut inside = |below: &str, points: &[[f64; 2]]| {
            let off = points.iter().flatten().find(|share| !(-1.0..=2.0).contains(*share));
            if let Some(share) = off {
                let words = format!("{}: a place lies far beside the picture", self.name());
                let remedy = Remedy::advice("Point at a place in the picture");
                faults.add(InputError::new(&field(below), words, *share, remedy));
            }
        };
        match self {
            Self::Background { from, colour, tolerance, soft } => {
                if let Reach::Point(at) = from {
                    inside("from.at", &[*at]);
                }
                if let Some(colour) = colour {
                    colour_fault(&field("colour"), colour, faults);
                }
                let words = "The tolerance, per cent,";
                faults.range(&field("tolerance"), words, *tolerance, 0.0..=100.0, plain);
                let words = "The width of the soft edge, in pixels,";
                faults.range(&field("soft"), words, *soft, 0.0..=SOFTEST, plain);
            }
            Self::Specks { under } => {
                let words = "The size under which specks are erased, in pixels,";
                faults.range(&field("under"), words, f64::from(*under), 1.0..=1e6, plain);
            }
            Self::Rectangle { corners } => inside("corners", corners),
            Self::Stroke { points, width } => {
                inside("points", points);
                let words = "The width of the stroke, as a share of the longer side,";
                faults.range(&field("width"), words, *width, 0.0005..=0.5, plain);
                if points.is_empty() || points.len() > MOST_POINTS {
                    let count = points.len();
                    faults.add(InputError::new(
                        &field("points"),
                        format!("The stroke has {count} points: 1 to {MOST_POINTS}"),
                        f64::from(u32::try_from(count).unwrap_or(u32::MAX)),
                        Remedy::advice("Draw it in several strokes"),
                    ));
                }
            }
            Self::Crop => {}
            Self::Part { moved, colour, .. } => {
                inside("moved", &[*moved]);
                if let Some(colour) = colour {
                    colour_fault(&field("colour"), colour, faults);
                }
            }
        }
    }
}
