//! Art that ends just at a cut: a cut that strays lays bare card beside it.

use super::printer::Printer;
use super::{Face, Layer, LayerKind, PictureSize, ShapeSize, Uprights};
use crate::check::{Check, Drawing, Stage, State};
use crate::error::{Change, Remedy};
use crate::form::Part;
use crate::geometry::{Affine, path_text};
use crate::units::{Unit, measure};

/// What comes nearer to a cut than this, mm, is meant to reach it.
const AT_CUT: f64 = 0.05;

/// Less than this of a strip is missing to nobody, mm².
const LEAST: f64 = 0.5;

/// A check for a layer that reaches a cut and does not go past it by the bleed; where a colour lies below, that does.
pub(super) fn ends_at_cut(
    face: &Face,
    layer: &Layer,
    part: &Part,
    uprights: &Uprights,
    unit: Unit,
) -> Option<Check> {
    // What an outline was traced from ends where it says; how far from the cut is a matter of its border.
    let ends_itself = layer.only_shown || layer.is_traced(part);
    if face.bleed <= 0.0 || ends_itself || face.is_on_colour(layer) {
        return None;
    }
    let remedy = match &layer.kind {
        LayerKind::Picture(picture) if !matches!(picture.size, PictureSize::Covering) => {
            Remedy::set(
                "Go on past the cut with the picture mirrored",
                &layer.field("beyond.by"),
                "mirrored",
            )
        }
        LayerKind::Shape(shape) if !matches!(shape.size, ShapeSize::Inset(inset) if inset < 0.0) => {
            Remedy {
                text: format!("Go past the edge by {}", measure(face.bleed, unit)),
                changes: vec![
                    Change::new(&layer.field("size.by"), "inset"),
                    Change::new(&layer.field("size.mm"), -face.bleed),
                ],
            }
        }
        _ => return None,
    };
    let seen = Printer::new(face, layer, part, uprights, face.bleed)?.put(&layer.kind).seen?;
    let blank = part.region();
    let at_cut = seen.intersection(&blank).minus(&blank.shrunk(AT_CUT));
    if at_cut.is_empty() {
        return None;
    }
    // The strip past the cut beside what reaches it, its corners left out.
    let wanted = at_cut.grown(face.bleed).minus(&blank.grown(AT_CUT));
    let missing = wanted.minus(&seen.grown(AT_CUT));
    if missing.area() < LEAST {
        return None;
    }
    let texts = [
        "ends at the cut".to_owned(),
        format!("past it by {}", measure(face.bleed, unit)),
        "bare card shows where a cut strays".to_owned(),
    ];
    let label = format!("Bleed of {}", layer.title());
    let id = format!("ends-{}", layer.id);
    let place = Affine::translate(part.at) * missing.to_path();
    let check = Check::yes_or_no(&id, Stage::Face, &label, State::Attention, texts);
    Some(check.at(Drawing::Flat, path_text(&place)).remedy(remedy))
}
