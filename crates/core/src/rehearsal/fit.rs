//! What marks tell of how a sheet lies: the shift, the turn and the two scales that fit them best; with four marks the
//! skew too.

use kurbo::{Affine, Point, Vec2};

/// Fewer marks than the unknowns ask for: three for shift, turn and two scales.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
#[error(
    "{0} marks are found, and they tell nothing of turn and scales: three are needed that do not lie in a line"
)]
pub struct LeastMarks(pub usize);

/// The best fit through marks.
#[derive(Debug, Clone, PartialEq)]
pub struct Fit {
    /// From where they were meant to lie to where they lie.
    pub affine: Affine,
    /// Clockwise, as seen, degrees.
    pub turn: f64,
    /// What a millimetre across becomes.
    pub across: f64,
    /// What a millimetre along becomes.
    pub along: f64,
    /// How far the sides lean from a right angle, degrees; told by four marks only.
    pub skew: Option<f64>,
    /// How far each mark lies off the fit, mm.
    pub residuals: Vec<f64>,
}

impl Fit {
    /// Where the middle of what was fitted has gone, mm.
    #[must_use]
    pub fn shift(&self, about: Point) -> Vec2 {
        self.affine * about - about
    }
}

/// Fits pairs of where a mark was meant to lie and where it lies, by least squares. Three pairs give shift, turn and two
/// scales: five unknowns from six equations. Four and more give the skew too.
///
/// For three, with both sets taken about their means, `|S p − Rᵀq|²` falls apart into one scale for x and one for y, and what
/// is left to be made largest over the turn is a quadratic form in its cosine and sine: the greater eigenvector of a
/// matrix of two rows.
///
/// # Errors
/// [`LeastMarks`] for fewer than three, or for marks in a line.
pub fn fit(pairs: &[(Point, Point)]) -> Result<Fit, LeastMarks> {
    let few = LeastMarks(pairs.len());
    if pairs.len() < 3 {
        return Err(few);
    }
    let count = pairs.len() as f64;
    let mean = |of: fn(&(Point, Point)) -> Point| {
        pairs.iter().map(|pair| of(pair).to_vec2()).fold(Vec2::ZERO, |sum, own| sum + own) / count
    };
    let (from, to) = (mean(|pair| pair.0), mean(|pair| pair.1));
    let about: Vec<(Vec2, Vec2)> =
        pairs.iter().map(|(p, q)| (p.to_vec2() - from, q.to_vec2() - to)).collect();
    let sum = |of: &dyn Fn(Vec2, Vec2) -> f64| about.iter().map(|(p, q)| of(*p, *q)).sum::<f64>();
    let (xx, yy, xy) = (sum(&|p, _| p.x * p.x), sum(&|p, _| p.y * p.y), sum(&|p, _| p.x * p.y));
    if xx * yy - xy * xy <= 1e-9 * (xx + yy) * (xx + yy) {
        return Err(few);
    }
    let cross = [
        [sum(&|p, q| p.x * q.x), sum(&|p, q| p.x * q.y)],
        [sum(&|p, q| p.y * q.x), sum(&|p, q| p.y * q.y)],
    ];
    let linear =
        if pairs.len() == 3 { turned_and_scaled(cross, xx, yy) } else { free(cross, xx, yy, xy) };
    let [a, b, c, d] = linear;
    let moved = to - Vec2::new(a * from.x + c * from.y, b * from.x + d * from.y);
    let affine = Affine::new([a, b, c, d, moved.x, moved.y]);
    let turn = b.atan2(a);
    let across = a.hypot(b);
    // The second column, turned back: its share along x is the lean.
    let (cos, sin) = (turn.cos(), turn.sin());
    let (lean, along) = (c * cos + d * sin, d * cos - c * sin);
    let skew = (pairs.len() > 3).then(|| (-lean / across).atan().to_degrees());
    let residuals = pairs.iter().map(|(p, q)| (affine * *p).distance(*q)).collect();
    Ok(Fit { affine, turn: turn.to_degrees(), across, along, skew, residuals })
}

/// Turn and two scales, as the columns of a matrix.
fn turned_and_scaled([[a, b], [d, e]]: [[f64; 2]; 2], xx: f64, yy: f64) -> [f64; 4] {
    let (top, side) = (a * a / xx + e * e / yy, a * b / xx - e * d / yy);
    let foot = b * b / xx + d * d / yy;
    let turn = 0.5 * (2.0 * side).atan2(top - foot);
    let (mut cos, mut sin) = (turn.cos(), turn.sin());
    // The same axis has two directions; scales are positive in one.
    if cos * a + sin * b < 0.0 {
        (cos, sin) = (-cos, -sin);
    }
    let (across, along) = ((cos * a + sin * b) / xx, (cos * e - sin * d) / yy);
    [across * cos, across * sin, -along * sin, along * cos]
}

/// Any two columns.
fn free([[a, b], [d, e]]: [[f64; 2]; 2], xx: f64, yy: f64, xy: f64) -> [f64; 4] {
    let det = xx * yy - xy * xy;
    [
        (a * yy - d * xy) / det,
        (b * yy - e * xy) / det,
        (d * xx - a * xy) / det,
        (e * xx - b * xy) / det,
    ]
}

#[cfg(test)]
mod tests {
    use kurbo::Rect;
    use proptest::prelude::*;

    use super::super::{Misfeed, Stretch};
    use super::*;

    const LETTER: Rect = Rect::new(0.0, 0.0, 215.9, 279.4);

    const MARKS: [Point; 4] = [
        Point::new(6.35, 273.05),
        Point::new(6.35, 6.35),
        Point::new(209.55, 6.35),
        Point::new(209.55, 273.05),
    ];

    proptest! {
        /// What has no bow is found again, whichever marks are missing.
        #[test]
        fn a_misfeed_is_found_again(
            dx in -3.0..3.0f64, dy in -3.0..3.0f64, turn in -2.0..2.0f64, across in 0.99..1.01f64,
            along in 0.93..1.01f64, skew in -0.1..0.1f64, missing in 0..5usize,
        ) {
            let skew = if missing == 4 { skew } else { 0.0 };
            let own = Misfeed { shift: [dx, dy], turn, across, along, skew, stretch: Stretch::default() };
            let seen: Vec<(Point, Point)> = (0..4)
                .filter(|at| *at != missing)
                .map(|at| (MARKS[at], own.place(MARKS[at], LETTER)))
                .collect();
            let fit = fit(&seen).unwrap();
            prop_assert!((fit.turn - turn).abs() < 1e-9);
            prop_assert!((fit.across - across).abs() < 1e-9);
            prop_assert!((fit.along - along).abs() < 1e-9, "{} {along}", fit.along);
            prop_assert!((fit.skew.unwrap_or(0.0) - skew).abs() < 1e-9);
            let shift = fit.shift(LETTER.center());
            prop_assert!((shift - Vec2::new(dx, dy)).hypot() < 1e-9);
            prop_assert!(fit.residuals.iter().all(|own| *own < 1e-9));
        }

        /// No turn and no scale beside the one found is better, whatever the marks say.
        #[test]
        fn nothing_beside_it_is_better(
            off in prop::array::uniform6(-0.5..0.5f64), turn in -0.01..0.01f64, across in -0.003..0.003f64,
            along in -0.003..0.003f64,
        ) {
            let seen: Vec<(Point, Point)> = (0..3)
                .map(|at| (MARKS[at], MARKS[at] + Vec2::new(off[2 * at], off[2 * at + 1])))
                .collect();
            let best = fit(&seen).unwrap();
            let miss = |affine: Affine| {
                // The shift that suits it best.
                let left: Vec<Vec2> = seen.iter().map(|(p, q)| *q - affine * *p).collect();
                let mean = left.iter().fold(Vec2::ZERO, |sum, own| sum + *own) / 3.0;
                left.iter().map(|own| (*own - mean).hypot2()).sum::<f64>()
            };
            let beside = Affine::rotate(best.turn.to_radians() + turn)
                * Affine::scale_non_uniform(best.across + across, best.along + along);
            prop_assert!(miss(best.affine) <= miss(beside) + 1e-12);
        }
    }

    #[test]
    fn marks_in_a_line_tell_too_little() {
        let line: Vec<(Point, Point)> =
            [0.0, 1.0, 2.0].map(|x| (Point::new(x, x), Point::new(x, x))).to_vec();
        assert_eq!(fit(&line), Err(LeastMarks(3)));
        assert_eq!(fit(&line[..2]), Err(LeastMarks(2)));
    }
}
