//! What the outline of a picture came to, as the page shows it.

use aptum_core::blob::BlobId;
use aptum_core::form::{Traced, TracedFacts};
use aptum_core::geometry::{Affine, BezPath, PathEl, Vec2, path_text};
use aptum_core::trace::Tracing;
use aptum_core::units::{Unit, measure};
use schemars::JsonSchema;
use serde::Serialize;
use ts_rs::TS;

/// Most nodes and corners that are shown.
const MOST_SHOWN: usize = 1500;

/// The outline of a picture.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct TracedView {
    /// The picture.
    picture: BlobId,
    /// Where all of it lies in the drawing: left, top, width, height, mm.
    at: [f64; 4],
    /// The line that was traced, before its border.
    line: String,
    /// What is cut around it.
    cut: String,
    /// Ends of curves of that, mm.
    nodes: Vec<[f64; 2]>,
    /// How many these are.
    node_count: usize,
    /// Where the line strays most from the picture's edge, mm.
    strays_at: [f64; 2],
    /// What was found, in words.
    found: FoundView,
    /// How many separate outlines are cut.
    outlines: usize,
    /// The least border at which they are one, mm, and as text.
    one_from: Option<f64>,
    one_from_text: Option<String>,
    /// How far before the cut a printed border ends at first, mm.
    printed_ends: f64,
    /// Corrections by hand that no longer fit, by their places.
    dropped: Vec<usize>,
}

/// What was found in a picture.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct FoundView {
    /// From which share on a pixel is inside.
    threshold: f64,
    /// The threshold that is found by itself.
    proposed: f64,
    /// How many pixels there are at each of 64 values, as shares of the most.
    histogram: Vec<f64>,
    /// Separate motifs.
    motifs: usize,
    /// Holes in them.
    holes: usize,
    /// Spots and holes that were too small.
    left_out: usize,
    /// How far the line strays from the picture's edge.
    strays_text: String,
    /// The least radius of its bends.
    radius_text: String,
    /// How long it is.
    length_text: String,
    corners: usize,
}

impl FoundView {
    /// Of a tracing.
    pub fn new(tracing: &Tracing, unit: Unit) -> Self {
        let most = tracing.histogram.iter().copied().fold(1e-9, f64::max);
        Self {
            threshold: tracing.threshold,
            proposed: tracing.proposed,
            // Small ones are to be seen beside great ones.
            histogram: tracing.histogram.iter().map(|share| (share / most).sqrt()).collect(),
            motifs: tracing.outlines.len() + tracing.too_many,
            holes: tracing.outlines.iter().map(|own| own.holes.len()).sum(),
            left_out: tracing.left_out,
            strays_text: measure(tracing.deviation.0, unit),
            radius_text: tracing
                .radius
                .map_or_else(|| "none".to_owned(), |(radius, _)| measure(radius, unit)),
            length_text: measure(tracing.length, unit),
            corners: tracing.corners.len(),
        }
    }
}

/// The view of an outline whose blank lies at `at` in the drawing.
pub fn traced(traced: &Traced, facts: &TracedFacts, at: Vec2, unit: Unit) -> Option<TracedView> {
    let tracing = facts.looked.0.as_ref().ok()?;
    let picture = facts.picture + at;
    let place = Affine::translate(picture.origin().to_vec2());
    let strays = place * tracing.deviation.1;
    let mut cut = BezPath::new();
    facts.cut.iter().for_each(|(path, _)| cut.extend(path.iter()));
    let ends = cut.elements().iter().filter_map(|element| match element {
        PathEl::MoveTo(end) | PathEl::LineTo(end) | PathEl::CurveTo(_, _, end) => Some(*end + at),
        PathEl::QuadTo(..) | PathEl::ClosePath => None,
    });
    Some(TracedView {
        picture: traced.picture.clone(),
        at: [picture.x0, picture.y0, picture.width(), picture.height()],
        line: path_text(&(Affine::translate(at) * facts.line.clone())),
        cut: path_text(&(Affine::translate(at) * cut.clone())),
        nodes: ends.take(MOST_SHOWN).map(|end| [end.x, end.y]).collect(),
        node_count: facts.nodes,
        strays_at: [strays.x, strays.y],
        found: FoundView::new(tracing, unit),
        outlines: facts.outlines,
        one_from: facts.one_from,
        one_from_text: facts.one_from.map(|mm| measure(mm, unit)),
        // Half of the border stays the card's, half is printed.
        printed_ends: (traced.border.distance * 50.0).round() / 100.0,
        dropped: facts.dropped.clone(),
    })
}
