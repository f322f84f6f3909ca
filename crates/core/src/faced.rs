//! The second stage: a form in its card with what is printed on it, as layouts see it.

use std::sync::Arc;

use serde::Serialize;

use crate::LineKind;
use crate::blank::Piece;
use crate::check::Check;
use crate::error::{InputError, Remedy};
use crate::face::{Art, Face, List, face_checks};
use crate::form::Flat;
use crate::formed::{Formed, flat_weight};
use crate::geometry::{OutlineId, Region};
use crate::memory::{ELEMENT, Key, Memory, Weighty, recalled};
use crate::units::Unit;

/// A form with its face.
#[derive(Debug, Clone)]
pub struct Faced {
    /// It laid flat, its edges as its card has them cut.
    pub flat: Flat,
    /// What is printed on each of its blanks; none where nothing is printed.
    pub arts: Vec<Art>,
    /// Its blanks as layouts see them.
    pub blanks: Vec<Piece>,
    /// Which outlines these have.
    pub outlines: Vec<OutlineId>,
    /// The limits of the face.
    pub checks: Vec<Check>,
}

/// What a face is made from: all that [`Faced::new`] reads.
#[derive(Debug, Clone, Copy, Serialize)]
pub struct FaceInput<'a> {
    /// The form in its card, by its key.
    pub form: Key,
    /// What is printed; `None` leaves it bare.
    pub face: Option<&'a Face>,
    /// The list whose rows its copies wear.
    pub list: Option<&'a List>,
    /// How far print goes past cuts, mm: its bleed, or what neighbours leave of it.
    pub bleed: f64,
    /// Which of the blanks lie on a liner.
    pub on_liner: &'a [bool],
    /// True where such blanks are cut through it all the same.
    pub through: bool,
    /// The unit of the texts.
    pub unit: Unit,
}

impl FaceInput<'_> {
    /// What it makes, made anew or remembered, and under which key.
    ///
    /// # Errors
    /// As [`Faced::new`].
    pub fn made(
        &self,
        formed: &Formed,
        memory: &dyn Memory,
    ) -> Result<(Key, Arc<Faced>), Vec<InputError>> {
        recalled(memory, "faced", self, || Faced::new(self, formed))
    }
}

impl Faced {
    /// Prints a face on a form.
    ///
    /// # Errors
    /// A blank without an outline.
    pub fn new(input: &FaceInput<'_>, formed: &Formed) -> Result<Self, Vec<InputError>> {
        let mut flat = formed.flat.clone();
        for (part, on_liner) in flat.parts.iter_mut().zip(input.on_liner) {
            part.on_liner = *on_liner;
            if part.on_liner && !input.through {
                part.edge = LineKind::KissCut;
            }
        }
        let print = |face: &Face| -> Vec<Art> {
            let parts = flat.parts.iter();
            let print = |part| face.print(input.list, part, &formed.uprights, input.bleed);
            parts.map(print).collect()
        };
        let arts = input.face.map_or_else(Vec::new, print);
        let bare = Region::empty();
        let printed = |at: usize| arts.get(at).map_or(&bare, |art| &art.printed);
        let parts = flat.parts.iter().enumerate();
        let blanks: Vec<Piece> =
            parts.filter_map(|(at, part)| Piece::new(&part.outline, printed(at))).collect();
        if blanks.len() < flat.parts.len() || blanks.is_empty() {
            return Err(vec![no_outline()]);
        }
        let outlines = flat.parts.iter().map(|part| OutlineId::of(&part.outline)).collect();
        let checks = input.face.map_or_else(Vec::new, |face| {
            face_checks(face, input.list, &flat, &formed.uprights, input.unit)
        });
        Ok(Self { flat, arts, blanks, outlines, checks })
    }
}

impl Faced {
    /// True where something of it is printed up to a cut, so that its bleed counts.
    #[must_use]
    pub fn reaches_cuts(&self) -> bool {
        self.arts.iter().any(|art| !art.to_edge.elements().is_empty())
    }
}

impl Weighty for Faced {
    fn weight(&self) -> usize {
        let arts: usize = self.arts.iter().map(Art::elements).sum();
        // An outline is held flattened too.
        2 * flat_weight(&self.flat) + 2 * ELEMENT * arts + 1000 * self.checks.len()
    }
}

fn no_outline() -> InputError {
    InputError::plain(
        "form",
        "A blank has no outline",
        Remedy::advice("Give the piece a length, a width and a height"),
    )
}
