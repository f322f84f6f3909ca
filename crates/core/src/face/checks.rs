//! The limits of a face.

use super::{Face, Layer, LayerKind, PlacedPicture};
use crate::check::{Check, Gauge, Sense, Stage, State};
use crate::error::{Change, Remedy};
use crate::form::{Flat, PlacedPanel, Role};
use crate::units::{INCH, Unit, measure};

/// Pixels in an inch that print without being seen, and those under which a picture is to be looked at (common
/// practice).
const SHARP: f64 = 300.0;
const SOFT: f64 = 200.0;

/// The limits of a face on its flat.
pub(crate) fn face_checks(face: &Face, flat: &Flat, unit: Unit) -> Vec<Check> {
    let layers = face.layers.iter();
    layers
        .filter_map(|layer| match &layer.kind {
            LayerKind::Picture(picture) => {
                let panel = flat.panels().find(|(panel, _)| panel.name == picture.panel);
                Some(match panel {
                    Some((panel, _)) => sharpness(layer, picture, panel, unit),
                    None => nowhere(layer, picture, flat),
                })
            }
            _ => None,
        })
        .collect()
}

/// A picture on a panel that the piece does not have.
fn nowhere(layer: &Layer, picture: &PlacedPicture, flat: &Flat) -> Check {
    let state = [
        "nowhere".to_owned(),
        format!("on the {}", picture.panel.to_lowercase()),
        "the piece has no such panel".to_owned(),
    ];
    let label = format!("Place of {}", layer.title());
    let id = format!("panel-{}", layer.id);
    let check = Check::yes_or_no(&id, Stage::Face, &label, State::Broken, state);
    let faces = flat.panels().filter(|(panel, _)| panel.role == Role::Face).take(4);
    check.remedies(|| {
        faces
            .map(|(panel, _)| {
                let field = layer.field("panel");
                Remedy::set(
                    format!("Lay it on the {}", panel.name.to_lowercase()),
                    &field,
                    panel.name.as_str(),
                )
            })
            .collect()
    })
}

fn sharpness(layer: &Layer, picture: &PlacedPicture, panel: &PlacedPanel, unit: Unit) -> Check {
    let (size, ppi) = (layer.field("size"), picture.ppi(panel));
    let (state, verdict) = if ppi >= SHARP {
        (State::Fits, "sharp at this size".to_owned())
    } else if ppi >= SOFT {
        (State::Fits, format!("fine at arm’s length; {SHARP:.0} is right"))
    } else {
        (State::Attention, format!("looks soft: {SHARP:.0} is right"))
    };
    let widest = f64::from(picture.pixels[0]) / SOFT * INCH;
    let widest = (widest * 10.0).floor() / 10.0;
    Check {
        id: format!("ppi-{}", layer.id),
        stage: Stage::Face,
        label: format!("Sharpness of {}", layer.title()),
        state,
        gauge: Some(Gauge { value: ppi, bound: SOFT, sense: Sense::AtLeast }),
        value_text: format!("{ppi:.0}"),
        bound_text: format!("at least {SOFT:.0} ppi"),
        verdict,
        place: None,
        remedies: Vec::new(),
    }
    .remedy(Remedy {
        text: format!("Print it {} wide, as wide as its pixels allow", measure(widest, unit)),
        changes: vec![
            Change::new(&format!("{size}.by"), "width"),
            Change::new(&format!("{size}.mm"), widest.max(1.0)),
        ],
    })
    .remedy(Remedy::advice("Bring in a larger original"))
}
