//! Lines as areas: united, taken from each other, what they have in common, and strokes as outlines.

use kurbo::simplify::{SimplifyOptLevel, SimplifyOptions, simplify_bezpath};
use kurbo::{
    Affine, BezPath, Join, ParamCurve, ParamCurveNearest, PathEl, Shape, Stroke, StrokeOpts,
};

use super::said::Refusal;
use crate::geometry::{Region, redrawn_as};

/// The algebra of areas works on a drawing of this size, mm, whatever its units are.
const SIZE: f64 = 200.0;

/// How areas are put together.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Act {
    Unite,
    Subtract,
    Intersect,
}

/// The outlines of what two sets of closed lines make; each set by itself takes away what lies inside the one around it.
pub fn put_together(act: Act, kept: &BezPath, other: &BezPath) -> Result<Vec<BezPath>, Refusal> {
    let mut all = kept.clone();
    all.extend(other.iter());
    let bounds = all.bounding_box();
    let large = Affine::scale(SIZE / bounds.width().max(bounds.height()).max(1e-9));
    let small = large.inverse();
    let area = |path: &BezPath| Region::alternating(&(large * path.clone()));
    let (one, two) = (area(kept), area(other));
    let made = match act {
        Act::Unite => one.union(&two),
        Act::Subtract => one.minus(&two),
        Act::Intersect => one.intersection(&two),
    };
    if made.is_empty() {
        return Err("nothing would be left".into());
    }
    let drawn = redrawn_as(&made, &(large * all));
    Ok(drawn.into_iter().map(|(path, _)| small * path).collect())
}

/// The outlines around all that closed lines enclose, without holes.
pub fn silhouette(paths: &BezPath) -> Result<Vec<BezPath>, Refusal> {
    let bounds = paths.bounding_box();
    let scale = SIZE / bounds.width().max(bounds.height()).max(1e-9);
    let (large, small) = (Affine::scale(scale), Affine::scale(1.0 / scale));
    let drawn = large * paths.clone();
    let area = Region::inside(&drawn);
    if area.is_empty() {
        return Err("nothing is enclosed".into());
    }
    let outer = redrawn_as(&area, &drawn).into_iter().filter(|(_, is_hole)| !is_hole);
    Ok(outer.map(|(path, _)| small * path).collect())
}

/// The outline of a stroke of a width, with round joins and ends.
pub fn outlined(path: &BezPath, width: f64) -> Result<Vec<BezPath>, Refusal> {
    let bounds = path.bounding_box();
    let scale = SIZE / (bounds.width().max(bounds.height()) + width).max(1e-9);
    let (large, small) = (Affine::scale(scale), Affine::scale(1.0 / scale));
    let style = Stroke::new(width * scale).with_join(Join::Round);
    let drawn = kurbo::stroke(large * path.clone(), &style, &StrokeOpts::default(), 0.005);
    let area = Region::wound(&drawn);
    if area.is_empty() {
        return Err("the stroke covers nothing".into());
    }
    Ok(redrawn_as(&area, &drawn).into_iter().map(|(path, _)| small * path).collect())
}

/// A line with fewer nodes that strays no farther than so much, and how far it strays.
pub fn simplified(path: &BezPath, within: f64) -> (BezPath, f64) {
    let is_closed = path.elements().last() == Some(&PathEl::ClosePath);
    let options =
        SimplifyOptions::default().opt_level(SimplifyOptLevel::Optimize).angle_thresh(CORNER);
    // The fit measures the middle between both lines: half of what is allowed keeps well within it.
    let mut best = (path.clone(), 0.0);
    for share in [0.9, 0.5, 0.25, 0.1] {
        let mut fitted =
            simplify_bezpath(path.elements().iter().copied(), within * share, &options);
        if is_closed && fitted.elements().last() != Some(&PathEl::ClosePath) {
            fitted.close_path();
        }
        let off = deviation(path, &fitted);
        if off <= within && fitted.elements().len() < best.0.elements().len() {
            best = (fitted, off);
            break;
        }
    }
    best
}

/// A turn from which on a vertex is a corner that stays, radians.
const CORNER: f64 = 0.3;

/// Places on each segment from which the deviation is measured.
const PLACES: u32 = 12;

/// How far a line strays from another, from places on each to the other.
fn deviation(one: &BezPath, other: &BezPath) -> f64 {
    let off = |from: &BezPath, to: &BezPath| {
        let to: Vec<_> = to.segments().collect();
        let places = from.segments().flat_map(|segment| {
            (0..PLACES).map(move |at| segment.eval(f64::from(at) / f64::from(PLACES)))
        });
        let far = places.map(|at| {
            let near = to.iter().map(|segment| segment.nearest(at, 1e-6).distance_sq);
            near.min_by(f64::total_cmp).unwrap_or(0.0)
        });
        far.max_by(f64::total_cmp).unwrap_or(0.0).sqrt()
    };
    off(one, other).max(off(other, one))
}
