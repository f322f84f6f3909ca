//! The figures of a traced outline on its spec card.

use super::{Traced, WIDTH, border, eye};
use crate::form::{Figure, FigureKind};
use crate::trace::{DETAIL, DETAILS, GAPS};
use crate::units::Unit;

/// What the spec card shows of it, in order.
pub(super) fn figures(traced: &Traced, unit: Unit) -> Vec<Figure> {
    let length = |(field, value): (&str, f64), standard, range, words| {
        Figure::length(&format!("form.traced.{field}"), value, standard, range, words, unit)
    };
    let [width, _] = traced.sides();
    // By itself a line strays a part of a pixel.
    let pixel = width / f64::from(traced.looked_at()[0]);
    let standard = (DETAIL * pixel).max(*DETAILS.start());
    let detail = traced.trace.detail.unwrap_or(standard);
    let words = ["Picture’s width", "Of the whole picture; its height follows."];
    let whole = Figure { kind: FigureKind::Size, ..length(("width", width), width, WIDTH, words) };
    let words = [
        "Detail",
        "How far the line may stray from the picture’s edge: more is smoother, with fewer nodes.",
    ];
    let strays = length(("trace.detail", detail), standard, DETAILS, words);
    let strays = Figure { own: traced.trace.detail.is_some(), ..strays };
    let words = ["Close gaps up to", "Gaps and bays that are narrower are bridged."];
    let gap = length(("trace.gap", traced.trace.gap), 0.0, GAPS, words);
    let own = &traced.border;
    let words = [
        "Border",
        "From what was traced to the cut, outwards; below 0 inwards, so that no white shows.",
    ];
    let distance = length(("border.distance", own.distance), 0.0, border::DISTANCE, words);
    let words = [
        "Inner corners",
        "The least radius of inner corners of the cut; 0 leaves them as they are.",
    ];
    let inner = length(("border.inner", own.inner), 0.0, border::INNER, words);
    let mut all = vec![whole, strays, gap, distance, inner];
    if let Some(own) = &traced.eye {
        let words = ["Hole", "Its diameter."];
        all.push(length(("eye.diameter", own.diameter), eye::diameter(), eye::ROUND, words));
        let words = ["Card around it", "Between the hole and the edge."];
        all.push(length(("eye.edge", own.edge), eye::edge(), eye::ROUND, words));
        let words = ["From the middle", "To the right; below 0 to the left."];
        all.push(length(("eye.x", own.x), 0.0, eye::ACROSS, words));
    }
    if let Some(own) = &traced.card {
        all.extend(own.figures("form.traced.card", unit));
    }
    all
}
