//! Add-ons: openings, notches, slits and tear strips on a panel.
//!
//! An add-on's place counts from the middle of its panel, so that it stays with the panel when
//! sizes change. One that would meet a crease, an edge or another cut is refused, with the distance.

mod bridges;
mod checks;
mod notch;
mod own;
mod place;
mod shape;

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

pub use own::{CutOut, Cutting, OwnShape};

pub(super) use checks::checks;
pub(super) use notch::notch;
pub(super) use place::place;

use crate::error::{Faults, InputError, Remedy};
use crate::units::{Unit, measure};

/// What is added.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum AddOnKind {
    /// A window with square corners.
    WindowRectangle,
    /// A round window, as wide as given.
    WindowRound,
    /// An elliptic window.
    WindowOval,
    /// A window with a round head.
    WindowArch,
    /// A heart.
    WindowHeart,
    /// A round hole to hang the piece by.
    HangHole,
    /// A bay in a free edge, to take hold of what lies within.
    ThumbNotch,
    /// A long hole with round ends, to carry by.
    HandHole,
    /// A single cut in which a corner or a tongue catches.
    SlitLock,
    /// Two perforations across the panel, to tear it open.
    TearStrip,
    /// A narrow opening for a tongue or a cord.
    Slot,
    /// A flap cut on three sides.
    Tongue,
    /// Words cut out; their capitals are as high as given.
    Words,
    /// The closed lines of a drawing cut out, as wide as given.
    Drawing,
}

impl AddOnKind {
    /// Every kind, in the order in which they are offered.
    pub const ALL: [Self; 14] = [
        Self::WindowRectangle,
        Self::WindowRound,
        Self::WindowOval,
        Self::WindowArch,
        Self::WindowHeart,
        Self::HangHole,
        Self::ThumbNotch,
        Self::HandHole,
        Self::SlitLock,
        Self::TearStrip,
        Self::Slot,
        Self::Tongue,
        Self::Words,
        Self::Drawing,
    ];

    /// The trade's name.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Self::WindowRectangle => "Window",
            Self::WindowRound => "Round window",
            Self::WindowOval => "Oval window",
            Self::WindowArch => "Arched window",
            Self::WindowHeart => "Heart window",
            Self::HangHole => "Hang hole",
            Self::ThumbNotch => "Thumb notch",
            Self::HandHole => "Hand hole",
            Self::SlitLock => "Slit lock",
            Self::TearStrip => "Tear strip",
            Self::Slot => "Slot",
            Self::Tongue => "Tongue",
            Self::Words => "Words cut out",
            Self::Drawing => "Drawing cut out",
        }
    }

    /// Width and height that one starts with, mm (common practice).
    #[must_use]
    pub const fn standard(self) -> [f64; 2] {
        match self {
            Self::WindowRectangle => [20.0, 15.0],
            Self::WindowRound | Self::WindowHeart => [18.0, 18.0],
            Self::WindowOval => [24.0, 16.0],
            Self::WindowArch => [18.0, 26.0],
            Self::HangHole => [6.0, 6.0],
            Self::ThumbNotch => [18.0, 8.0],
            Self::HandHole => [70.0, 24.0],
            Self::SlitLock => [14.0, 1.0],
            Self::TearStrip => [10.0, 8.0],
            Self::Slot => [16.0, 1.5],
            Self::Tongue => [15.0, 12.0],
            Self::Words => [30.0, 10.0],
            Self::Drawing => [30.0, 30.0],
        }
    }

    /// Which of width and height it has.
    #[must_use]
    pub const fn measures(self) -> [bool; 2] {
        match self {
            Self::WindowRound | Self::HangHole | Self::SlitLock | Self::Drawing => [true, false],
            Self::TearStrip | Self::Words => [false, true],
            _ => [true, true],
        }
    }
}

/// Something added to a panel.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct AddOn {
    /// What it is.
    pub kind: AddOnKind,
    /// The panel, by its name.
    pub panel: String,
    /// From the panel's middle to the right in the flat, mm.
    pub across: f64,
    /// From the panel's middle down in the flat, mm.
    pub along: f64,
    /// Its width in the flat, mm.
    pub width: f64,
    /// Its height in the flat, mm; of a tear strip, between the perforations; of words, that of their capitals.
    pub height: f64,
    /// Length of a tear strip's cuts, mm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub cut: Option<f64>,
    /// Length of a tear strip's ties, mm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tie: Option<f64>,
    /// What is cut out, of words and drawings.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub own: Option<OwnShape>,
}

/// Card to leave between an add-on and anything else, mm (common practice).
const CARD: f64 = 2.0;

/// Rounding of positions that are offered, mm.
const OFFERED: f64 = 10.0;

impl AddOn {
    /// The job's field of one of its figures.
    fn field(index: usize, name: &str) -> String {
        format!("form.add_ons.{index}.{name}")
    }

    /// True when its figures can be worked with; notes what is wrong.
    fn in_range(&self, index: usize, faults: &mut Faults, unit: Unit) -> bool {
        let before = faults.count();
        let name = self.kind.name();
        for (key, value, range) in [
            ("across", self.across, -2000.0..=2000.0),
            ("along", self.along, -2000.0..=2000.0),
            ("width", self.width, 0.5..=2000.0),
            ("height", self.height, 0.5..=2000.0),
            ("cut", self.cut.unwrap_or(1.0), 0.5..=20.0),
            ("tie", self.tie.unwrap_or(1.0), 0.3..=20.0),
        ] {
            let label = format!("{name}, {key},");
            faults.range(&Self::field(index, key), &label, value, range, |mm| measure(mm, unit));
        }
        let needs_own = matches!(self.kind, AddOnKind::Words | AddOnKind::Drawing);
        match &self.own {
            Some(own) => own.validate(self.kind, index, faults, unit),
            None if needs_own => faults.add(own::nothing(self.kind, index)),
            None => {}
        }
        faults.count() == before
    }

    /// Its panel is not there.
    fn missing(&self, index: usize) -> InputError {
        let panel: String = self.panel.chars().take(40).collect();
        InputError::plain(
            &Self::field(index, "panel"),
            format!("{} is on “{panel}”, which this structure does not have", self.kind.name()),
            Remedy::advice("Choose another panel for it, or take it away"),
        )
    }
}
