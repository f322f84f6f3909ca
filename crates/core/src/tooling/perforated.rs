//! Perforations as the separate cuts that they are: dash styles get lost on the way to a machine.

use kurbo::{BezPath, ParamCurve, ParamCurveArclen, PathSeg};

use crate::stroke::Perforation;

/// Most ties in one perforation; a longer one is cut through to its end.
const MOST: f64 = 20_000.0;

/// Arc lengths are exact to this, mm.
const EXACT: f64 = 1e-6;

/// The cuts of a perforation along a path, one subpath each. Between the ends of a stretch, cuts and ties are as
/// long as the pattern says. It begins and ends with a cut, so that a tear starts by itself; what does not
/// divide goes to those two in equal parts, so that they are shorter or longer than the others by a
/// quarter of the pitch at most. A stretch no longer than a tie is cut through.
#[must_use]
pub fn perforated(path: &BezPath, pattern: Perforation) -> BezPath {
    let mut cuts = BezPath::new();
    for stretch in path.subpaths() {
        let segments: Vec<(PathSeg, f64)> = BezPath::from_vec(stretch.to_vec())
            .segments()
            .map(|segment| (segment, segment.arclen(EXACT)))
            .collect();
        let length = segments.iter().map(|(_, long)| long).sum();
        for (from, to) in spans(length, pattern) {
            cuts.extend(between(&segments, from, to));
        }
    }
    cuts
}

/// From where to where a stretch of that length is cut, mm along it.
fn spans(length: f64, pattern: Perforation) -> Vec<(f64, f64)> {
    let Perforation { cut, tie } = pattern;
    if !(length > 0.0 && cut > 0.0 && tie >= 0.0) {
        return Vec::new();
    }
    let pitch = cut + tie;
    // Whole pitches between the two end cuts, so that those come out nearest to a cut's length.
    let pitches = ((length - tie - 2.0 * cut) / pitch).round().clamp(0.0, MOST);
    let end = (length - tie - pitches * pitch) / 2.0;
    if end <= 0.0 {
        return vec![(0.0, length)];
    }
    let mut spans = vec![(0.0, end)];
    let mut start = end + tie;
    while start + cut < length - end {
        spans.push((start, start + cut));
        start += pitch;
    }
    spans.push((length - end, length));
    spans
}

/// What of a stretch lies between two lengths along it.
pub(super) fn between(segments: &[(PathSeg, f64)], from: f64, to: f64) -> BezPath {
    let mut at = 0.0;
    let mut parts = Vec::new();
    for (segment, long) in segments {
        let (start, stop) = ((from - at).max(0.0), (to - at).min(*long));
        if stop - start > EXACT {
            let share = |mm: f64| match segment {
                PathSeg::Line(_) => mm / long,
                _ if mm <= 0.0 => 0.0,
                _ if mm >= *long => 1.0,
                curve => curve.inv_arclen(mm, EXACT),
            };
            parts.push(segment.subsegment(share(start)..share(stop)));
        }
        at += long;
    }
    BezPath::from_path_segments(parts.into_iter())
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::geometry::circle;
    use kurbo::Point;
    use proptest::prelude::*;

    fn line(from: Point, to: Point) -> BezPath {
        BezPath::from_path_segments(std::iter::once(PathSeg::Line(kurbo::Line::new(from, to))))
    }

    fn lengths(length: f64, cut: f64, tie: f64) -> (Vec<f64>, Vec<f64>) {
        let from = Point::new(2.0, 1.0);
        let to = from + kurbo::Vec2::new(0.6, 0.8) * length;
        let cuts: Vec<_> =
            perforated(&line(from, to), Perforation { cut, tie }).segments().collect();
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
        let nothing = perforated(&line(Point::ZERO, Point::ZERO), Perforation::STANDARD);
        assert_eq!(nothing.elements().len(), 0);
    }

    /// A circle of 20 mm: its length by 2πr.
    #[test]
    fn a_curve_is_perforated_along_its_length() {
        let cuts = perforated(&circle(Point::ZERO, 20.0), Perforation { cut: 4.0, tie: 1.5 });
        let length = |path: &BezPath| kurbo::Shape::perimeter(path, 1e-9);
        let cuts: Vec<BezPath> =
            cuts.subpaths().map(|cut| BezPath::from_vec(cut.to_vec())).collect();
        for cut in &cuts[1..cuts.len() - 1] {
            assert!((length(cut) - 4.0).abs() < 1e-4, "{}", length(cut));
        }
        let ties = f64::from(u32::try_from(cuts.len() - 1).unwrap()) * 1.5;
        let whole: f64 = cuts.iter().map(length).sum();
        assert!((whole + ties - std::f64::consts::TAU * 20.0).abs() < 0.01, "{whole}");
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
