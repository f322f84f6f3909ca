//! What is said of openings of one's own.

use kurbo::{Affine, BezPath};

use super::{CutOut, own};
use crate::check::{Check, Drawing, Stage, State};
use crate::error::{Change, Remedy};
use crate::form::Flat;
use crate::form::checks::NARROWEST_BRIDGE;
use crate::geometry::path_text;
use crate::units::{Unit, measure};

/// What falls out beside what is cut out, and what is left out of a drawing.
pub(in crate::form) fn checks(flat: &Flat, unit: Unit) -> Vec<Check> {
    if flat.cut_outs.is_empty() {
        return Vec::new();
    }
    let islands: usize = flat.cut_outs.iter().map(|own| own.islands.len()).sum();
    let bridges: usize = flat.cut_outs.iter().map(|own| own.bridges).sum();
    let (state, value, verdict) = match islands {
        0 if bridges > 0 => {
            (State::Fits, "none".to_owned(), format!("{bridges} bridges hold them"))
        }
        0 => (State::Fits, "none".to_owned(), "nothing is cut all around".to_owned()),
        1 => (State::Attention, "1".to_owned(), "falls out with what is around it".to_owned()),
        more => {
            (State::Attention, more.to_string(), "fall out with what is around them".to_owned())
        }
    };
    let texts = [value, "islands".to_owned(), verdict];
    let mut check = Check::yes_or_no("islands", Stage::Form, "Islands", state, texts);
    if islands > 0 {
        let loose = flat.cut_outs.iter().filter(|own| !own.islands.is_empty());
        let changes = loose
            .clone()
            .map(|own| Change::new(&own::field(own.add_on, "bridge"), NARROWEST_BRIDGE));
        let text = format!("Put in bridges of {}", measure(NARROWEST_BRIDGE, unit));
        let mut places = BezPath::new();
        for own in loose.clone() {
            let at = flat
                .parts
                .get(own.part)
                .map_or(Affine::IDENTITY, |part| Affine::translate(part.at));
            for island in &own.islands {
                places.extend((at * island.clone()).iter());
            }
        }
        check = check
            .remedy(Remedy { text, changes: changes.collect() })
            .at(Drawing::Flat, path_text(&places));
    }
    let open: usize = flat.cut_outs.iter().map(|own| own.open).sum();
    let left_out = (open > 0).then(|| {
        let texts = [
            open.to_string(),
            "lines of drawings that are not closed".to_owned(),
            "left out".to_owned(),
        ];
        Check::yes_or_no("cut-out-open", Stage::Form, "Open lines", State::Attention, texts).remedy(
            Remedy::advice("Close them in the drawing, or bring it in as a form of its own"),
        )
    });
    [check].into_iter().chain(left_out).collect()
}

impl CutOut {
    /// Its middle and its size, in the blank's coordinates.
    #[must_use]
    pub fn size(&self) -> [f64; 2] {
        [self.bounds.width(), self.bounds.height()]
    }
}
