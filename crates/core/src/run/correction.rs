//! When it cut a little off: what two measured places tell, and the correction that follows.

use kurbo::{Affine, Point, Vec2};
#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use crate::error::{Faults, InputError};
use crate::units::{Unit, measure};
use crate::workshop::Correction;

/// A place where a cut was measured against the print.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct MeasuredPlace {
    /// Where on the page, mm.
    pub at: [f64; 2],
    /// How far to the right and down of where it should be the cut fell, mm, -5 to 5.
    pub off: [f64; 2],
}

/// What is wrong, most likely.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum Cause {
    /// Nothing that a ruler can tell.
    Nothing,
    /// The same everywhere.
    Shift,
    /// It grows across the line between the places.
    Turn,
    /// It grows along it.
    Scale,
    /// Both.
    Both,
}

/// What two places tell.
#[derive(Debug, Clone, PartialEq)]
pub struct Told {
    /// What is wrong.
    pub cause: Cause,
    /// What is sent instead, from now on.
    pub correction: Correction,
}

/// What an eye tells with a ruler or a loupe, mm.
const TELLS: f64 = 0.15;

/// Nearer together than this, two places tell nothing of turn and scale, mm.
const APART: f64 = 40.0;

/// What the places tell. A shift is what both have in common; a turn and one scale are what is left, as two points give them
/// exactly. Without places far apart only the shift is told.
///
/// # Errors
/// Figures out of range.
pub fn told(
    near: MeasuredPlace,
    far: MeasuredPlace,
    day: &str,
    unit: Unit,
) -> Result<Told, Vec<InputError>> {
    let mut faults = Faults::default();
    let show = |mm: f64| measure(mm, unit);
    for (name, own) in [("near", near), ("far", far)] {
        for (axis, off) in own.off.into_iter().enumerate() {
            let way = if axis == 0 { "right" } else { "down" };
            let what = format!("What was measured at the {name} place, {way}");
            faults.range(&format!("{name}.off.{axis}"), &what, off, -5.0..=5.0, show);
        }
        for (axis, at) in own.at.into_iter().enumerate() {
            let what = format!("The {name} place");
            faults.range(&format!("{name}.at.{axis}"), &what, at, -10.0..=5000.0, show);
        }
    }
    faults.or(())?;
    let point = |own: [f64; 2]| Point::new(own[0], own[1]);
    let (a, b) = (point(near.at), point(far.at));
    let (fell_a, fell_b) =
        (a + Vec2::from((near.off[0], near.off[1])), b + Vec2::from((far.off[0], far.off[1])));
    let (meant, is) = (b - a, fell_b - fell_a);
    let mean = ((fell_a - a) + (fell_b - b)) / 2.0;
    let differs = is - meant;
    let along = if meant.hypot() > 1e-9 { meant / meant.hypot() } else { Vec2::new(1.0, 0.0) };
    let (grows, swings) = (differs.dot(along), differs.cross(along));
    let is_far = meant.hypot() >= APART;
    let cause = match (grows.abs() > TELLS && is_far, swings.abs() > TELLS && is_far) {
        (true, true) => Cause::Both,
        (true, false) => Cause::Scale,
        (false, true) => Cause::Turn,
        _ if mean.hypot() > TELLS / 2.0 => Cause::Shift,
        _ => Cause::Nothing,
    };
    let turn = match cause {
        Cause::Turn | Cause::Both => is.atan2() - meant.atan2(),
        _ => 0.0,
    };
    let scale = match cause {
        Cause::Scale | Cause::Both => is.hypot() / meant.hypot(),
        _ => 1.0,
    };
    let about = a.midpoint(b);
    // From where it was meant to where it fell, and back.
    let fell = Affine::translate(about.to_vec2() + mean)
        * Affine::rotate(turn)
        * Affine::scale(scale)
        * Affine::translate(-about.to_vec2());
    let correction = Correction { sent: fell.inverse().as_coeffs(), day: day.to_owned() };
    Ok(Told { cause, correction })
}

impl Cause {
    /// In words, with what is likely.
    #[must_use]
    pub const fn words(self) -> &'static str {
        match self {
            Self::Nothing => "nothing that can be told: it cuts true",
            Self::Shift => {
                "a shift that is the same everywhere: the eye or the crosshairs stand a little off the blade"
            }
            Self::Turn => "a turn: the sheet slipped on its carrier, or a mark was read wrong",
            Self::Scale => {
                "a scale: the paper stretched after it was printed, or the marks were read wrong"
            }
            Self::Both => {
                "a turn and a scale: see first that every mark was read, and cut another sheet"
            }
        }
    }
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;

    fn at(x: f64, y: f64, fell: Affine) -> MeasuredPlace {
        let off = fell * Point::new(x, y) - Point::new(x, y);
        MeasuredPlace { at: [x, y], off: [off.x, off.y] }
    }

    proptest! {
        /// What is sent after a correction falls where it was meant, at both places.
        #[test]
        fn a_correction_undoes_what_was_measured(
            dx in -1.0..1.0f64, dy in -1.0..1.0f64, turn in -0.008..0.008f64, scale in 0.992..1.008f64,
        ) {
            let fell = Affine::translate((dx, dy)) * Affine::rotate(turn) * Affine::scale(scale);
            let (near, far) = (at(20.0, 20.0, fell), at(180.0, 240.0, fell));
            prop_assume!(near.off.iter().chain(&far.off).all(|own| own.abs() < 5.0));
            let told = told(near, far, "2026-10-12", Unit::Mm).unwrap();
            for own in [near, far] {
                let point = Point::new(own.at[0], own.at[1]);
                let left = (fell * Affine::new(told.correction.sent) * point - point).hypot();
                prop_assert!(left < 0.2, "{left} {:?}", told.cause);
            }
        }
    }

    #[test]
    fn causes_are_told_apart() {
        let cause = |fell: Affine| {
            told(at(20.0, 20.0, fell), at(180.0, 240.0, fell), "", Unit::Mm).unwrap().cause
        };
        assert_eq!(cause(Affine::translate((0.5, -0.2))), Cause::Shift);
        assert_eq!(cause(Affine::translate((0.02, 0.0))), Cause::Nothing);
        let middle = Point::new(100.0, 130.0);
        assert_eq!(cause(Affine::rotate_about(0.004, middle)), Cause::Turn);
        let grown = Affine::translate(middle.to_vec2())
            * Affine::scale(1.003)
            * Affine::translate(-middle.to_vec2());
        assert_eq!(cause(grown), Cause::Scale);
        // Two places side by side tell no turn.
        let fell = Affine::rotate_about(0.01, middle);
        let near = told(at(20.0, 20.0, fell), at(30.0, 20.0, fell), "", Unit::Mm).unwrap();
        assert_eq!(near.cause, Cause::Shift);
    }
}
