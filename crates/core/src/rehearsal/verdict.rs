//! The verdict: where the cut fell against the print, and where white would show.

use kurbo::{Affine, BezPath, Point, Shape, Vec2};

use crate::geometry::{along, nearest};

/// How far apart places are that are looked at along a line, mm.
const STEP: f64 = 2.0;

/// How far inside its edge a piece is looked at for ink, mm.
const INSIDE: f64 = 0.05;

/// A line as it was meant and as it was cut.
#[derive(Debug, Clone)]
pub struct CutLine {
    /// The copy that it is a line of, by its place among the sheet's.
    pub copy: Option<usize>,
    /// True where it is a part of that copy's outline.
    pub is_edge: bool,
    /// Where it was to run on the page, mm.
    pub meant: Vec<Point>,
    /// Where the tip ran on the bed, mm.
    pub cut: Vec<Point>,
}

/// A copy on the page.
#[derive(Debug, Clone)]
pub struct Worn<'a> {
    /// From its blank to the page.
    pub transform: Affine,
    /// Its outline, on the blank.
    pub outline: &'a BezPath,
    /// What is printed past that outline with ink, on the blank; `None` where nothing is.
    pub ink: Option<&'a BezPath>,
}

/// A place on a line.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Sample {
    /// The copy.
    pub copy: Option<usize>,
    /// Where it was meant to be cut, on the page.
    pub at: Point,
    /// How far from there the cut fell against the print, mm on the page.
    pub off: Vec2,
    /// True where the card shows between the ink and the cut.
    pub is_white: bool,
    /// How much of the line it stands for, mm.
    pub long: f64,
}

/// How a copy was cut.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct PieceVerdict {
    /// The copy, by its place among the sheet's.
    pub copy: usize,
    /// Farthest that a cut fell from where the print has it, mm.
    pub worst: f64,
    /// Half of its places are nearer than this, mm.
    pub typical: f64,
    /// Length of its edge along which white shows, mm.
    pub white: f64,
}

/// How a sheet was cut.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Verdict {
    /// Places along the lines.
    pub samples: Vec<Sample>,
    /// Its copies, in their order.
    pub pieces: Vec<PieceVerdict>,
}

impl Verdict {
    /// The place that was cut farthest from the print.
    #[must_use]
    pub fn worst(&self) -> Option<&Sample> {
        self.samples.iter().max_by(|one, two| one.off.hypot().total_cmp(&two.off.hypot()))
    }

    /// The distance that this share of the places keeps to, mm; a share of 0.5 is the median.
    #[must_use]
    pub fn within(&self, share: f64) -> f64 {
        quantile(self.samples.iter().map(|own| own.off.hypot()).collect(), share)
    }

    /// Length of edges along which white shows, mm.
    #[must_use]
    pub fn white(&self) -> f64 {
        self.pieces.iter().map(|own| own.white).sum()
    }
}

#[expect(
    clippy::cast_possible_truncation,
    clippy::cast_sign_loss,
    reason = "a share of a count is between 0 and it"
)]
pub(super) fn quantile(mut all: Vec<f64>, share: f64) -> f64 {
    all.sort_unstable_by(f64::total_cmp);
    let at = (share.clamp(0.0, 1.0) * all.len().saturating_sub(1) as f64).round() as usize;
    all.get(at).copied().unwrap_or(0.0)
}

/// Judges lines: `print` says where a point of the page was printed on the bed.
#[must_use]
pub fn verdict(lines: &[CutLine], copies: &[Worn<'_>], print: &dyn Fn(Point) -> Point) -> Verdict {
    let mut samples = Vec::new();
    for line in lines.iter().filter(|line| line.cut.len() > 1) {
        for (at, way, long) in along(&line.meant, STEP) {
            // The page's frame where it is printed: a tenth of a millimetre each way.
            let here = print(at);
            let (right, down) = (
                (print(at + Vec2::new(0.1, 0.0)) - here) / 0.1,
                (print(at + Vec2::new(0.0, 0.1)) - here) / 0.1,
            );
            let frame = Affine::new([right.x, right.y, down.x, down.y, 0.0, 0.0]);
            if frame.determinant().abs() < 1e-9 {
                continue;
            }
            let off = nearest(&line.cut, here) - here;
            let off = (frame.inverse() * off.to_point()).to_vec2();
            let copy = line.copy.and_then(|at| copies.get(at)).filter(|_| line.is_edge);
            let is_white = copy.is_some_and(|copy| shows_white(copy, at, way, off));
            samples.push(Sample { copy: line.copy, at, off, is_white, long });
        }
    }
    let pieces = (0..copies.len()).filter_map(|copy| {
        let own = samples.iter().filter(|own| own.copy == Some(copy));
        let misses: Vec<f64> = own.clone().map(|own| own.off.hypot()).collect();
        (!misses.is_empty()).then(|| PieceVerdict {
            copy,
            worst: misses.iter().copied().fold(0.0, f64::max),
            typical: quantile(misses, 0.5),
            white: own.filter(|own| own.is_white).map(|own| own.long).sum(),
        })
    });
    let pieces = pieces.collect();
    Verdict { samples, pieces }
}

/// True where a piece is inked up to its edge, and the cut fell outside of where the ink ends.
fn shows_white(copy: &Worn<'_>, at: Point, way: Vec2, off: Vec2) -> bool {
    let Some(ink) = copy.ink else { return false };
    let Some(edge) = Edge::of(copy, at, way) else { return false };
    let outwards = off.dot(edge.outwards);
    edge.is_inked && outwards > 0.0 && {
        let cut = copy.transform.inverse() * (at + edge.outwards * outwards);
        ink.winding(cut) == 0
    }
}

/// A place of a copy's edge.
#[derive(Debug, Clone, Copy)]
pub(super) struct Edge {
    /// Away from the piece, of length 1.
    pub outwards: Vec2,
    /// True where the piece is inked just inside of it.
    pub is_inked: bool,
}

impl Edge {
    /// `None` where the line has no way, or the piece lies on both sides or none.
    pub fn of(copy: &Worn<'_>, at: Point, way: Vec2) -> Option<Self> {
        let side = Vec2::new(way.y, -way.x) / way.hypot();
        if !side.is_finite() {
            return None;
        }
        let back = copy.transform.inverse();
        let is_inside = |at: Point| copy.outline.winding(back * at) != 0;
        let (one, other) = (is_inside(at + side * INSIDE), is_inside(at - side * INSIDE));
        if one == other {
            return None;
        }
        let outwards = if one { -side } else { side };
        let inside = back * (at - outwards * INSIDE);
        let is_inked = copy.ink.is_some_and(|ink| ink.winding(inside) != 0);
        Some(Self { outwards, is_inked })
    }

    /// How far out the ink goes from a place, up to `most`, mm.
    pub fn bleed(&self, copy: &Worn<'_>, at: Point, most: f64) -> f64 {
        let Some(ink) = copy.ink else { return 0.0 };
        let back = copy.transform.inverse();
        let (mut least, mut past) = (0.0, most);
        if ink.winding(back * (at + self.outwards * most)) != 0 {
            return most;
        }
        for _ in 0..8 {
            let middle = f64::midpoint(least, past);
            if ink.winding(back * (at + self.outwards * middle)) == 0 {
                past = middle;
            } else {
                least = middle;
            }
        }
        least
    }
}

#[cfg(test)]
mod tests {
    use kurbo::Rect;

    use super::*;

    /// A square of 20 mm in the middle of nowhere, inked so far past its edge.
    fn square(bleed: f64) -> (BezPath, BezPath, Vec<Point>) {
        let own = Rect::new(0.0, 0.0, 20.0, 20.0);
        let corners = [(0.0, 0.0), (20.0, 0.0), (20.0, 20.0), (0.0, 20.0), (0.0, 0.0)];
        let line = corners.map(Point::from).to_vec();
        (own.to_path(0.1), own.inflate(bleed, bleed).to_path(0.1), line)
    }

    fn judged(bleed: f64, by: Vec2) -> Verdict {
        let (outline, ink, meant) = square(bleed);
        let worn = Worn { transform: Affine::IDENTITY, outline: &outline, ink: Some(&ink) };
        let cut = meant.iter().map(|at| *at + by).collect();
        let line = CutLine { copy: Some(0), is_edge: true, meant, cut };
        verdict(&[line], &[worn], &|at| at)
    }

    /// A square cut so far to the right is off by that much on two sides and not at all along the others, and shows a side of white
    /// where the bleed is less.
    #[test]
    fn white_shows_where_the_bleed_ends() {
        let covered = judged(0.5, Vec2::new(0.3, 0.0));
        assert!((covered.pieces[0].worst - 0.3).abs() < 1e-9);
        assert!(covered.white() < 1e-9);
        let bare = judged(0.2, Vec2::new(0.3, 0.0));
        assert!((bare.white() - 20.0).abs() < 2.1, "{}", bare.white());
        assert!(bare.samples.iter().filter(|own| own.is_white).all(|own| own.at.x > 19.9));
    }

    #[test]
    fn what_is_printed_askew_and_cut_so_is_true() {
        let (outline, ink, meant) = square(0.0);
        let worn = Worn { transform: Affine::IDENTITY, outline: &outline, ink: Some(&ink) };
        let askew = Affine::translate((5.0, 1.0)) * Affine::rotate(0.03) * Affine::scale(0.97);
        let cut = meant.iter().map(|at| askew * *at).collect();
        let line = CutLine { copy: Some(0), is_edge: true, meant, cut };
        let own = verdict(&[line], &[worn], &|at| askew * at);
        assert!(own.worst().unwrap().off.hypot() < 1e-9);
    }
}
