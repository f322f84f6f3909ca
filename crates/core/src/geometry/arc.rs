//! Arcs of circles, which paths have as cubics.

use kurbo::{CubicBez, ParamCurve, Point, Vec2};

/// The arc that rounds the corner at `corner` between `before` and `after`: where it starts, its
/// two control points and where it ends. The radius shrinks to what half of either side allows.
///
/// The cubic of an arc of angle φ has handles of 4/3·tan(φ/4) radii; for a right angle it strays
/// from the circle by 2.7·10⁻⁴ radii.
#[must_use]
pub fn rounded(before: Point, corner: Point, after: Point, radius: f64) -> Option<[Point; 4]> {
    let (into, out) = (corner - before, after - corner);
    let (long_in, long_out) = (into.hypot(), out.hypot());
    if radius <= 0.0 || long_in < 1e-9 || long_out < 1e-9 {
        return None;
    }
    let turn = into.cross(out).atan2(into.dot(out)).abs();
    if !(1e-6..=std::f64::consts::PI - 1e-6).contains(&turn) {
        return None;
    }
    let reach = (turn / 2.0).tan();
    let trim = (radius * reach).min(long_in / 2.0).min(long_out / 2.0);
    let handle = 4.0 / 3.0 * (turn / 4.0).tan() * trim / reach;
    let (into, out) = (into / long_in, out / long_out);
    let (start, end) = (corner - into * trim, corner + out * trim);
    Some([start, start + into * handle, end - out * handle, end])
}

/// The arc from `from` to `to` that rises `rise` mm over the middle of the chord, to its left in a
/// frame whose second axis is a quarter turn on from the first; negative rises to the right. As cubics:
/// two control points and an end each, a quarter circle at most.
#[must_use]
pub fn arc(from: Point, to: Point, rise: f64) -> Vec<[Point; 3]> {
    let chord = to - from;
    let half = chord.hypot() / 2.0;
    if half < 1e-9 || rise.abs() < 1e-9 {
        return vec![[from.lerp(to, 1.0 / 3.0), from.lerp(to, 2.0 / 3.0), to]];
    }
    // tan(sweep / 4) = rise / half, from the chord and the sagitta of a circle.
    let sweep = 4.0 * (rise / half).atan();
    let left = Vec2::new(-chord.y, chord.x) / (2.0 * half);
    let centre = from + chord / 2.0 + left * (rise - half / (sweep / 2.0).sin());
    let parts = (sweep.abs() / std::f64::consts::FRAC_PI_2).ceil().clamp(1.0, 4.0);
    let step = -sweep / parts;
    let handle = 4.0 / 3.0 * (step / 4.0).tan();
    let spoke = |index: f64| {
        let (sin, cos) = (step * index).sin_cos();
        let first = from - centre;
        Vec2::new(first.x * cos - first.y * sin, first.x * sin + first.y * cos)
    };
    let quarter = |v: Vec2| Vec2::new(-v.y, v.x);
    let mut cubics = Vec::new();
    let mut index = 0.0;
    while index < parts {
        let (a, b) = (spoke(index), spoke(index + 1.0));
        let end = if index + 1.0 < parts { centre + b } else { to };
        cubics.push([centre + a + quarter(a) * handle, centre + b - quarter(b) * handle, end]);
        index += 1.0;
    }
    cubics
}

/// How far a cubic that counts as an arc strays from one, mm: less than any machine shows.
const LIKE_AN_ARC: f64 = 0.002;

/// The same for one that has the handles of an arc, which it was meant to be.
const MEANT_AS_ARC: f64 = 0.02;

/// Through which angle a cubic turns on its circle, radians, above 0 where `x` turns towards `y`; `None` where it is no arc.
#[must_use]
pub fn turn_of(cubic: &CubicBez) -> Option<f64> {
    if let Some(turn) = meant_turn(cubic) {
        return Some(turn);
    }
    let half = cubic.eval(0.5);
    let middle = middle_of(&[cubic.p0, half, cubic.p3])?;
    let radius = middle.distance(half);
    let mut turned = 0.0;
    let mut before = cubic.p0 - middle;
    for step in 1..=8 {
        let here = cubic.eval(f64::from(step) / 8.0) - middle;
        let turn = angle(before, here);
        // On the circle, and always the same way round.
        if (here.hypot() - radius).abs() > LIKE_AN_ARC || turn * turned < 0.0 {
            return None;
        }
        turned += turn;
        before = here;
    }
    Some(turned)
}

/// The angle of a cubic whose handles are even and as long as an arc's of that angle, to a thousandth: 4/3·tan(φ/4) radii.
/// It strays from the arc by 2.7·10⁻⁴ radii where φ is a right angle, and by the sixth power of φ elsewhere.
fn meant_turn(cubic: &CubicBez) -> Option<f64> {
    const EVEN: f64 = 1e-4;
    let (into, chord, out) = (cubic.p1 - cubic.p0, cubic.p3 - cubic.p0, cubic.p3 - cubic.p2);
    let turn = angle(into, out);
    let is_even = (angle(into, chord) - angle(chord, out)).abs() < EVEN
        && (into.hypot() - out.hypot()).abs() < EVEN * into.hypot();
    if !is_even || !(1e-3..2.0).contains(&turn.abs()) {
        return None;
    }
    let radius = chord.hypot() / (2.0 * (turn.abs() / 2.0).sin());
    let handle = 4.0 / 3.0 * (turn.abs() / 4.0).tan() * radius;
    let strays = 2.8e-4 * (turn.abs() / std::f64::consts::FRAC_PI_2).powi(6) * radius;
    let is_arc = (into.hypot() - handle).abs() < 1e-3 * handle && strays < MEANT_AS_ARC;
    is_arc.then_some(turn)
}

/// From one way to another, radians.
fn angle(from: Vec2, to: Vec2) -> f64 {
    from.cross(to).atan2(from.dot(to))
}

/// The middle of the circle through three points; `None` where they lie on a line.
#[must_use]
pub fn middle_of([a, b, c]: &[Point; 3]) -> Option<Point> {
    let (ab, ac) = (*b - *a, *c - *a);
    let twice = 2.0 * ab.cross(ac);
    if twice.abs() < 1e-12 {
        return None;
    }
    let (one, two) = (ab.hypot2(), ac.hypot2());
    let off = Vec2::new(ac.y * one - ab.y * two, ab.x * two - ac.x * one) / twice;
    Some(*a + off)
}

#[cfg(test)]
mod tests {
    use kurbo::{BezPath, Shape};
    use proptest::prelude::*;

    use super::*;

    #[test]
    fn a_rounded_corner_is_an_arc_that_touches_both_sides() {
        let [start, _, _, end] =
            rounded(Point::new(0.0, 10.0), Point::ZERO, Point::new(10.0, 0.0), 4.0).unwrap();
        assert!((start - Point::new(0.0, 4.0)).hypot() < 1e-9);
        assert!((end - Point::new(4.0, 0.0)).hypot() < 1e-9);
        let [start, ..] =
            rounded(Point::new(0.0, 10.0), Point::ZERO, Point::new(10.0, 0.0), 99.0).unwrap();
        assert!((start.y - 5.0).abs() < 1e-9, "the radius shrinks to half a side");
        assert!(rounded(Point::ZERO, Point::new(1.0, 0.0), Point::new(2.0, 0.0), 1.0).is_none());
    }

    /// r² (φ − sin φ) / 2, the area of a circle's segment, from any geometry handbook.
    #[test]
    fn an_arc_has_its_rise_and_its_area() {
        for (rise, half) in [(1.0, 10.0f64), (10.0, 10.0), (14.0, 10.0), (-3.0, 10.0)] {
            let (from, to) = (Point::new(-half, 0.0), Point::new(half, 0.0));
            let mut path = BezPath::new();
            path.move_to(from);
            for [a, b, end] in arc(from, to, rise) {
                path.curve_to(a, b, end);
            }
            path.close_path();
            let radius = (half * half + rise * rise) / (2.0 * f64::abs(rise));
            let sweep = 4.0 * (f64::abs(rise) / half).atan();
            let area = radius * radius * (sweep - sweep.sin()) / 2.0;
            assert!((path.area().abs() - area).abs() < 1e-3 * area, "{rise}");
            let bounds = path.bounding_box();
            let top = if rise > 0.0 { bounds.y1 } else { bounds.y0 };
            assert!((top - rise).abs() < 1e-2, "{rise}: {bounds:?}");
        }
    }

    proptest! {
        /// An arc that is drawn as cubics turns through its angle, by its rise (the quarter angle's tangent is the rise
        /// over half the chord: any geometry handbook), and the other way round when it is drawn backwards.
        #[test]
        fn cubics_of_arcs_are_known_again(rise in -30.0..30.0f64, half in 0.5..20.0f64, way in 0.0..6.2f64) {
            prop_assume!(rise.abs() > 0.01);
            let to = Vec2::from_angle(way) * half;
            let from = Point::new(120.0, 80.0) - to;
            let pieces = arc(from, from + to * 2.0, rise);
            let mut start = from;
            let mut turned = 0.0;
            for [one, two, end] in pieces {
                let cubic = CubicBez::new(start, one, two, end);
                start = end;
                let radius = (half * half + rise * rise) / (2.0 * rise.abs());
                let Some(turn) = turn_of(&cubic) else {
                    prop_assert!(radius * 2.8e-4 > MEANT_AS_ARC, "{radius}");
                    return Ok(());
                };
                let back = turn_of(&CubicBez::new(cubic.p3, cubic.p2, cubic.p1, cubic.p0)).unwrap();
                prop_assert!((turn + back).abs() < 1e-9);
                turned += turn;
            }
            let wanted = -4.0 * (rise / half).atan();
            prop_assert!((turned - wanted).abs() < 1e-6, "{turned} for {wanted}");
        }
    }

    #[test]
    fn what_bends_otherwise_is_no_arc() {
        let cubic = |all: [(f64, f64); 4]| CubicBez::new(all[0], all[1], all[2], all[3]);
        assert_eq!(
            turn_of(&cubic([(0.0, 0.0), (10.0, 10.0), (20.0, -10.0), (30.0, 0.0)])),
            None,
            "to both sides"
        );
        assert_eq!(
            turn_of(&cubic([(0.0, 0.0), (1.0, 0.0), (2.0, 0.0), (3.0, 0.0)])),
            None,
            "straight"
        );
        assert_eq!(
            turn_of(&cubic([(0.0, 0.0), (0.0, 8.0), (30.0, 12.0), (30.0, 0.0)])),
            None,
            "lopsided"
        );
        assert_eq!(
            turn_of(&cubic([(0.0, 0.0), (9.0, 9.0), (-9.0, 9.0), (0.0, 0.0)])),
            None,
            "a loop"
        );
    }
}
