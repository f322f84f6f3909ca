//! Perforations as the separate cuts that they are: dash styles get lost on the way to a machine.

use kurbo::{BezPath, Point};

/// Lengths that are cut and that tie, in turn, mm.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Perforation {
    /// Length of each cut.
    pub cut: f64,
    /// Length of each tie.
    pub tie: f64,
}

impl Perforation {
    /// 3 mm cut, 1 mm tie: tears cleanly and holds in use (common practice).
    pub const STANDARD: Self = Self { cut: 3.0, tie: 1.0 };
}

/// Most ties in one perforation; a longer one is cut through to its end.
const MOST: f64 = 20_000.0;

/// The cuts of a perforation from `from` to `to`, one subpath each. Between its ends, cuts and ties are as
/// long as the pattern says. It begins and ends with a cut, so that a tear starts by itself; what does not
/// divide goes to those two in equal parts, so that they are shorter or longer than the others by a
/// quarter of the pitch at most. A line no longer than a tie is cut through.
#[must_use]
pub fn perforated(from: Point, to: Point, pattern: Perforation) -> BezPath {
    let mut path = BezPath::new();
    let length = (to - from).hypot();
    let Perforation { cut, tie } = pattern;
    if !(length > 0.0 && cut > 0.0 && tie >= 0.0) {
        return path;
    }
    let pitch = cut + tie;
    // Whole pitches between the two end cuts, so that those come out nearest to a cut's length.
    let pitches = ((length - tie - 2.0 * cut) / pitch).round().clamp(0.0, MOST);
    let end = (length - tie - pitches * pitch) / 2.0;
    let mut add = |start: f64, stop: f64| {
        path.move_to(from.lerp(to, start / length));
        path.line_to(from.lerp(to, stop / length));
    };
    if end <= 0.0 {
        add(0.0, length);
        return path;
    }
    add(0.0, end);
    let mut start = end + tie;
    while start + cut < length - end {
        add(start, start + cut);
        start += pitch;
    }
    add(length - end, length);
    path
}

#[cfg(test)]
mod tests {
    use super::*;
    use kurbo::{ParamCurve, ParamCurveArclen};
    use proptest::prelude::*;

    fn lengths(length: f64, cut: f64, tie: f64) -> (Vec<f64>, Vec<f64>) {
        let from = Point::new(2.0, 1.0);
        let to = from + kurbo::Vec2::new(0.6, 0.8) * length;
        let cuts: Vec<_> = perforated(from, to, Perforation { cut, tie }).segments().collect();
        assert!(cuts[0].start().distance(from) < 1e-9);
        assert!(cuts[cuts.len() - 1].end().distance(to) < 1e-9);
        let ties = cuts.windows(2).map(|two| two[0].end().distance(two[1].start())).collect();
        (cuts.iter().map(|cut| cut.arclen(1e-9)).collect(), ties)
    }

    #[test]
    fn what_does_not_divide_goes_to_both_ends() {
        let near = |got: &[f64], want: &[f64]| {
            assert_eq!(got.len(), want.len(), "{got:?}");
            assert!(got.iter().zip(want).all(|(a, b)| (a - b).abs() < 1e-9), "{got:?}");
        };
        let (cuts, ties) = lengths(20.0, 10.0, 2.0);
        near(&cuts, &[9.0, 9.0]);
        near(&ties, &[2.0]);
        let (cuts, ties) = lengths(50.0, 3.0, 1.0);
        assert_eq!((cuts.len(), ties.len()), (13, 12));
        near(&cuts[..2], &[2.5, 3.0]);
        // Too short for a tie.
        near(&lengths(0.8, 3.0, 1.0).0, &[0.8]);
        assert_eq!(perforated(Point::ZERO, Point::ZERO, Perforation::STANDARD).elements().len(), 0);
    }

    proptest! {
        #[test]
        fn cuts_and_ties_are_as_typed(
            length in 0.5..2000.0f64,
            cut in 0.3..20.0f64,
            tie in 0.3..20.0f64,
        ) {
            let (cuts, ties) = lengths(length, cut, tie);
            prop_assert!(ties.iter().all(|got| (got - tie).abs() < 1e-7));
            let (first, last) = (cuts[0], cuts[cuts.len() - 1]);
            prop_assert!((first - last).abs() < 1e-7);
            if cuts.len() > 2 {
                prop_assert!(cuts[1..cuts.len() - 1].iter().all(|got| (got - cut).abs() < 1e-7));
                prop_assert!((first - cut).abs() <= (cut + tie) / 4.0 + 1e-7);
            }
        }
    }
}
