//! Outlines from pictures: what counts as inside, the line around it to a part of a pixel, and that line in as few curves
//! as a knife likes.
//!
//! ```text
//! Pixels ──inside──▶ values ──rings──▶ points ──tidy──▶ fewer rings ──corners, curves──▶ outlines
//! ```

mod corners;
mod curves;
mod dark;
mod deviation;
mod drawn;
mod inside;
mod rings;
mod seen;
mod settings;
mod tidy;

use kurbo::{
    Affine, BezPath, ParamCurveCurvature, ParamCurveDeriv, PathSeg, Point, Rect, Shape, Vec2,
};
use thiserror::Error;

pub use dark::dark_edges;
pub use seen::{Seen, View, likely};
pub use settings::{DETAILS, GAPS, InsideBy, Trace};

use curves::Fitted;
use drawn::{MOST_OPENED, as_they_are, fitted, thinned};
use inside::LEVELS;

/// Most outlines that are drawn; the largest are.
pub const MOST_OUTLINES: usize = 400;

/// Most points of edges that are drawn in curves, those of the largest outlines: a picture of 12 megapixels full of motifs
/// has half as many, and what has more is a texture.
const MOST_FITTED: usize = 200_000;

/// How far a line may stray from the picture's edge where nobody says, px.
pub const DETAIL: f64 = 0.35;

/// One outline with the holes in it.
#[derive(Debug, Clone, PartialEq)]
pub struct Outlined {
    /// Around it, with the clock.
    pub outer: BezPath,
    /// In it, against the clock.
    pub holes: Vec<BezPath>,
}

/// What was found in a picture; lengths in mm, places from the picture's top left corner.
#[derive(Debug, Clone, PartialEq)]
pub struct Tracing {
    /// What is around, the largest first.
    pub outlines: Vec<Outlined>,
    /// The part of the picture that was looked at.
    pub frame: Rect,
    /// From which value on a pixel is inside, 0 to 1.
    pub threshold: f64,
    /// The threshold that is found by itself.
    pub proposed: f64,
    /// How many pixels there are at each of 64 values, as shares of all.
    pub histogram: Vec<f64>,
    /// The share of the frame that is inside.
    pub share: f64,
    /// Spots and holes that were too small, and holes that were too many.
    pub left_out: usize,
    /// Outlines that were too many.
    pub too_many: usize,
    /// Outlines that were drawn through some of their points only, since they are too fine: a texture.
    pub coarse: usize,
    /// Ends of curves in all outlines and holes.
    pub nodes: usize,
    /// Corners among them, and where they are.
    pub corners: Vec<Point>,
    /// How long all lines are.
    pub length: f64,
    /// The least radius of a bend, and where it is; corners aside.
    pub radius: Option<(f64, Point)>,
    /// How far a line strays from the picture's edge at most, and where.
    pub deviation: (f64, Point),
    /// How large a pixel that was looked at is.
    pub pixel: f64,
}

/// Why there is no outline.
#[derive(Debug, Clone, PartialEq, Error)]
pub enum TraceError {
    /// Nothing is inside.
    #[error("Nothing in the picture counts as inside at this threshold")]
    Nothing {
        /// The threshold that would find something.
        proposed: f64,
    },
    /// Everything that is inside is smaller than what is left out.
    #[error(
        "All that counts as inside is smaller than what is left out: the largest has {largest:.2} mm²"
    )]
    AllTooSmall {
        /// mm².
        largest: f64,
    },
    /// The whole picture has one value.
    #[error("The picture is the same all over: there is no edge in it to follow")]
    Even,
}

impl Tracing {
    /// Traces a picture that is `width` mm wide.
    ///
    /// # Errors
    /// [`TraceError`].
    pub fn of(seen: &Seen, how: &Trace, width: f64) -> Result<Self, TraceError> {
        let Seen { inside, proposed, view: View { sides: [across, along], part, step } } = seen;
        let (across, along, step, proposed) = (*across, *along, *step, *proposed);
        let pixel = width / real(across);
        let threshold = seen.threshold(how);
        let counts = inside.histogram();
        let total = inside.values.len();
        let above = inside.values.iter().filter(|value| **value >= threshold).count();
        if above == 0 {
            let is_even = counts.iter().filter(|count| **count > 0).count() < 2;
            let proposed = f64::from(proposed);
            return Err(if is_even { TraceError::Even } else { TraceError::Nothing { proposed } });
        }
        let pixel = pixel * real(step);
        let found = rings::rings(inside, threshold);
        let around = how.around.map(|[x, y]| {
            let (x, y) = (x * real(across) - real(part[0]), y * real(along) - real(part[1]));
            Point::new(x / real(step), y / real(step))
        });
        let mut tidied = tidy::tidy(found, how, pixel, around)?;
        tidied.too_many += tidied.groups.len().saturating_sub(MOST_OUTLINES);
        tidied.groups.truncate(MOST_OUTLINES);
        for group in &mut tidied.groups {
            for ring in std::iter::once(&mut group.outer).chain(&mut group.holes) {
                rings::refine(inside, threshold, ring);
            }
        }
        let tolerance = how.detail.map_or(DETAIL, |mm| (mm / pixel).max(0.1));
        let corner = Vec2::new(real(part[0]), real(part[1])) * (pixel / real(step));
        let place = Affine::translate(corner) * Affine::scale(pixel);
        let mut tracing = Self {
            outlines: Vec::new(),
            frame: place.transform_rect_bbox(Rect::new(
                0.0,
                0.0,
                real(part[2] - part[0]) / real(step),
                real(part[3] - part[1]) / real(step),
            )),
            threshold: f64::from(threshold),
            proposed: f64::from(proposed),
            histogram: counts
                .chunks(LEVELS / 64)
                .map(|four| f64::from(four.iter().sum::<u32>()) / real(total))
                .collect(),
            share: real(above) / real(total),
            left_out: tidied.left_out,
            too_many: tidied.too_many,
            coarse: 0,
            nodes: 0,
            corners: Vec::new(),
            length: 0.0,
            radius: None,
            deviation: (0.0, Point::ZERO),
            pixel,
        };
        // Noise is told and need not be neat.
        let is_noise = tidied.too_many > MOST_OUTLINES;
        let mut points = 0;
        for group in &tidied.groups {
            points += group.points();
            if is_noise || points > MOST_FITTED {
                tracing.put_thinned(group, 200, place);
            } else {
                tracing.add(group, tolerance, place);
            }
        }
        tracing.too_many += tracing.outlines.len().saturating_sub(MOST_OUTLINES);
        tracing.outlines.truncate(MOST_OUTLINES);
        if tracing.outlines.is_empty() {
            return Err(TraceError::AllTooSmall { largest: 0.0 });
        }
        Ok(tracing)
    }

    /// All lines as one path.
    #[must_use]
    pub fn path(&self) -> BezPath {
        let all =
            self.outlines.iter().flat_map(|own| std::iter::once(&own.outer).chain(&own.holes));
        all.fold(BezPath::new(), |mut path, own| {
            path.extend(own.iter());
            path
        })
    }

    /// A place inside each outline, as shares of the picture's sides.
    #[must_use]
    pub fn places(&self, [width, height]: [f64; 2]) -> Vec<[f64; 2]> {
        let within = |own: &Outlined| {
            let bounds = own.outer.bounding_box();
            let line = crate::geometry::flattened_to(&own.outer, 0.05);
            let ring = line.first()?;
            // The widest stretch on a row through the middle, or near to it.
            let y = bounds.y0 + bounds.height() * 0.503;
            let next = ring.iter().skip(1).chain(ring.first());
            let mut hits: Vec<f64> = ring
                .iter()
                .zip(next)
                .filter(|(a, b)| (a.y > y) != (b.y > y))
                .map(|(a, b)| a.x + (b.x - a.x) * (y - a.y) / (b.y - a.y))
                .collect();
            hits.sort_by(f64::total_cmp);
            let widest = hits
                .chunks_exact(2)
                .max_by(|one, other| (one[1] - one[0]).total_cmp(&(other[1] - other[0])))?;
            Some([f64::midpoint(widest[0], widest[1]) / width, y / height])
        };
        self.outlines.iter().filter_map(within).collect()
    }

    /// True where what is inside is all but the whole frame: the threshold takes in the background.
    #[must_use]
    pub fn swallows(&self) -> bool {
        let [outline] = self.outlines.as_slice() else { return false };
        let bounds = outline.outer.bounding_box();
        let (own, frame) = (outline.outer.area().abs(), self.frame.area());
        own > 0.97 * frame && bounds.area() > 0.99 * frame
    }

    /// True where at this threshold all but the whole picture would be inside.
    #[must_use]
    pub fn would_swallow(&self, threshold: f64) -> bool {
        let levels = f64::from(u32::try_from(self.histogram.len()).unwrap_or(u32::MAX));
        let from = threshold * levels;
        let each = self.histogram.iter().zip((0..).map(f64::from));
        each.filter(|(_, level)| *level + 0.5 >= from).map(|(share, _)| share).sum::<f64>() > 0.97
    }

    fn add(&mut self, group: &tidy::Group, tolerance: f64, place: Affine) {
        if let Some(fitted) = fitted(group, tolerance) {
            self.put(group, fitted, place);
            return;
        }
        if group.points() > MOST_OPENED {
            self.put_thinned(group, 4000, place);
            return;
        }
        // Hairs and cracks thinner than a pixel are no line for a knife.
        for own in tidy::opened(group) {
            let drawn = fitted(&own, tolerance).unwrap_or_else(|| as_they_are(&own));
            self.put(&own, drawn, place);
        }
    }

    fn put_thinned(&mut self, group: &tidy::Group, most: usize, place: Affine) {
        self.coarse += usize::from(group.longest() > most);
        self.put(group, thinned(group, most), place);
    }

    fn put(&mut self, group: &tidy::Group, fitted: Vec<Fitted>, place: Affine) {
        if fitted.is_empty() {
            return;
        }
        let rings = || std::iter::once(&group.outer).chain(&group.holes);
        // Holes may have been lost on the way.
        let pairs = if fitted.len() == 1 + group.holes.len() { fitted.len() } else { 1 };
        for (ring, own) in rings().zip(&fitted).take(pairs) {
            let (off, at) = deviation::deviation(&own.path, ring);
            let off = off * self.pixel;
            if off > self.deviation.0 {
                self.deviation = (off, place * at);
            }
        }
        let mut paths = Vec::new();
        for Fitted { path, corners } in fitted {
            let path = place * path;
            self.corners.extend(corners.into_iter().map(|corner| place * corner));
            self.nodes += path.segments().count();
            self.length += path.perimeter(1e-3);
            for (radius, at) in path.segments().filter_map(least_radius) {
                if self.radius.is_none_or(|(least, _)| radius < least) {
                    self.radius = Some((radius, at));
                }
            }
            paths.push(path);
        }
        let outer = paths.remove(0);
        self.outlines.push(Outlined { outer, holes: paths });
    }
}

/// The least radius within a curve, and where it is.
fn least_radius(segment: PathSeg) -> Option<(f64, Point)> {
    let PathSeg::Cubic(cubic) = segment else { return None };
    let steps = (1..16).map(|at| f64::from(at) / 16.0);
    let bends = steps.map(|t| {
        let first = kurbo::ParamCurve::eval(&cubic.deriv(), t).to_vec2().hypot();
        let bend = if first > 1e-9 { cubic.curvature(t).abs() } else { 0.0 };
        (bend, kurbo::ParamCurve::eval(&cubic, t))
    });
    let (bend, at) = bends.max_by(|one, other| one.0.total_cmp(&other.0))?;
    (bend > 1e-9).then(|| (1.0 / bend, at))
}

#[expect(clippy::cast_precision_loss, reason = "counts of pixels")]
const fn real(count: usize) -> f64 {
    count as f64
}
