//! The second stage: a form in its card with what is printed on it, as layouts see it.

use std::sync::Arc;

use serde::Serialize;

use crate::LineKind;
use crate::blank::Piece;
use crate::check::{Check, Stage, State};
use crate::error::{InputError, Remedy};
use crate::face::{Art, Face, List, Side, Uprights, face_checks};
use crate::form::{Flat, Part};
use crate::formed::{Formed, flat_weight};
use crate::geometry::{Affine, OutlineId, Region};
use crate::memory::{ELEMENT, Key, Memory, Weighty, recalled};
use crate::units::Unit;

/// A form with its face.
#[derive(Debug, Clone)]
pub struct Faced {
    /// It laid flat, its edges as its card has them cut.
    pub flat: Flat,
    /// What is printed on each of its blanks; none where nothing is printed.
    pub arts: Vec<Art>,
    /// It as it lies on sheets, where it is printed mirrored: the same, left and right exchanged.
    pub mirrored: Option<Seen>,
    /// What is printed behind, where something is to be.
    pub back: Option<Seen>,
    /// Its blanks as layouts see them; none where a card holds it.
    pub blanks: Vec<Piece>,
    /// Which outlines these have.
    pub outlines: Vec<OutlineId>,
    /// The limits of the face.
    pub checks: Vec<Check>,
}

/// A piece seen from behind, or in a mirror.
#[derive(Debug, Clone)]
pub struct Seen {
    /// It laid flat, as it is seen so.
    pub flat: Flat,
    /// What is printed on each of its blanks, as it is seen so.
    pub arts: Vec<Art>,
}

/// What a face is made from: all that [`Faced::new`] reads.
#[derive(Debug, Clone, Copy, Serialize)]
pub struct FaceInput<'a> {
    /// The form in its card, by its key.
    pub form: Key,
    /// What is printed; `None` leaves it bare.
    pub face: Option<&'a Face>,
    /// False where a typeface of its words or a picture is missing: words are set in another then, and it is not known
    /// where pictures are clear.
    pub is_furnished: bool,
    /// The list whose rows its copies wear.
    pub list: Option<&'a List>,
    /// How far print goes past cuts, mm: its bleed, or what neighbours leave of it.
    pub bleed: f64,
    /// How far the back goes past cuts, mm: the same, and how far turning may be off. None without a back.
    pub back_bleed: Option<f64>,
    /// What those that it holds are known by, with their faces.
    pub held: &'a [Key],
    /// True where another piece holds it, so that it lies on no sheet of its own.
    pub is_held: bool,
    /// True where it is printed mirrored.
    pub mirrored: bool,
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
        held: &[Arc<Faced>],
        memory: &dyn Memory,
    ) -> Result<(Key, Arc<Faced>), Vec<InputError>> {
        recalled(memory, "faced", self, || Faced::new(self, formed, held))
    }
}

impl Faced {
    /// Prints a face on a form, and on a card the faces of what it holds.
    ///
    /// # Errors
    /// A blank without an outline.
    pub fn new(
        input: &FaceInput<'_>,
        formed: &Formed,
        held: &[Arc<Self>],
    ) -> Result<Self, Vec<InputError>> {
        let mut flat = formed.flat.clone();
        for (part, on_liner) in flat.parts.iter_mut().zip(input.on_liner) {
            part.on_liner = *on_liner;
            if part.on_liner && !input.through && !part.edge_through {
                part.edge = LineKind::KissCut;
            }
        }
        let print = |face: &Face, flat: &Flat, uprights: &Uprights, bleed: f64| -> Vec<Art> {
            let parts = flat.parts.iter();
            parts.map(|part| face.print(input.list, part, uprights, bleed)).collect()
        };
        let front = input.face.map(|face| face.side(Side::Front));
        let mut arts = front
            .as_ref()
            .map_or_else(Vec::new, |face| print(face, &flat, &formed.uprights, input.bleed));
        if let Some(drawing) = flat.drawing.as_ref().filter(|own| !own.printed.is_empty()) {
            if arts.is_empty() {
                arts.push(Art::bare(0.0));
            }
            arts[0].underlay(&drawing.printed, &flat.parts[0].outline);
        }
        if let Some(gathered) = &flat.gathered {
            let worn: Vec<(&Art, usize, Affine)> = gathered
                .copies
                .iter()
                .filter_map(|copy| Some((held.get(copy.member)?.arts.first()?, copy.copy, copy.at)))
                .collect();
            if let (true, Some((first, ..))) = (arts.is_empty(), worn.first()) {
                arts.push(Art::bare(first.bleed));
            }
            // What a card holds lies over what is printed on the card itself.
            if let Some(art) = arts.first_mut() {
                art.wear(worn.into_iter());
            }
        }
        let mut checks = front.as_ref().map_or_else(Vec::new, |face| {
            face_checks(face, input.list, &flat, &formed.uprights, input.unit)
        });
        checks.extend(kisses_without_liner(&flat));
        let behind = input.face.zip(input.back_bleed);
        let back = behind.map(|(face, bleed)| {
            let face = Face { bleed: face.bleed.max(bleed), ..face.side(Side::Back) };
            let (flat, uprights) = (flat.mirrored(), formed.uprights.mirrored());
            let own = face_checks(&face, input.list, &flat, &uprights, input.unit);
            // The drawing shows the front.
            checks.extend(own.into_iter().map(|check| Check { place: None, ..check }));
            let arts = print(&face, &flat, &uprights, bleed);
            Seen { flat, arts }
        });
        let printed = |at: usize, part: &Part| -> Region {
            let front = arts.get(at).map_or_else(Region::empty, |art| art.printed.clone());
            let Some(art) = back.as_ref().and_then(|back| back.arts.get(at)) else { return front };
            front.union(&art.printed.transformed(part.turned_over()))
        };
        let mirrored = input.mirrored.then(|| {
            let turned = arts.iter().zip(&flat.parts);
            let arts = turned.map(|(art, part)| art.mirrored(part.turned_over())).collect();
            Seen { flat: flat.mirrored(), arts }
        });
        let parts = flat.parts.iter().enumerate();
        let outlined: Vec<Piece> = parts
            .filter_map(|(at, part)| match &mirrored {
                Some(Seen { flat, .. }) => {
                    let printed = printed(at, part).transformed(part.turned_over());
                    Piece::new(&flat.parts[at].outline, &printed)
                }
                None => Piece::new(&part.outline, &printed(at, part)),
            })
            .collect();
        if outlined.len() < flat.parts.len() || outlined.is_empty() {
            return Err(vec![no_outline()]);
        }
        let blanks = if input.is_held { Vec::new() } else { outlined };
        let mut faced = Self { flat, arts, mirrored, back, blanks, outlines: Vec::new(), checks };
        faced.outlines =
            faced.laid_parts().iter().map(|part| OutlineId::of(&part.outline)).collect();
        Ok(faced)
    }
}

impl Faced {
    /// Its blanks as they lie on sheets; none of what a card holds.
    #[must_use]
    pub fn laid_parts(&self) -> &[Part] {
        let parts = &self.mirrored.as_ref().map_or(&self.flat, |own| &own.flat).parts;
        &parts[..self.blanks.len()]
    }

    /// What is printed on each of them there.
    #[must_use]
    pub fn laid_arts(&self) -> &[Art] {
        self.mirrored.as_ref().map_or(&self.arts, |own| &own.arts)
    }

    /// True where something of it is printed up to a cut, so that its bleed counts.
    #[must_use]
    pub fn reaches_cuts(&self) -> bool {
        self.arts.iter().any(|art| !art.to_edge.elements().is_empty())
    }
}

impl Weighty for Faced {
    fn weight(&self) -> usize {
        let behind = self.back.iter().chain(&self.mirrored).flat_map(|seen| &seen.arts);
        let arts: usize = self.arts.iter().chain(behind).map(Art::elements).sum();
        // An outline is held flattened too.
        2 * flat_weight(&self.flat) + 2 * ELEMENT * arts + 1000 * self.checks.len()
    }
}

/// What is cut to the liner where there is none.
fn kisses_without_liner(flat: &Flat) -> Option<Check> {
    let part = flat
        .parts
        .iter()
        .find(|part| part.strokes.iter().any(|stroke| stroke.kind == LineKind::KissCut))?;
    let texts =
        |verdict: &str| ["kiss cut".to_owned(), "to the liner".to_owned(), verdict.to_owned()];
    let check =
        |state, verdict| Check::yes_or_no("liner", Stage::Form, "Stickers", state, texts(verdict));
    Some(if part.on_liner {
        check(State::Fits, "the card has a liner")
    } else {
        check(State::Broken, "this card has no liner: they fall out")
            .remedy(Remedy::advice("Choose a stock with a liner"))
    })
}

fn no_outline() -> InputError {
    InputError::plain(
        "form",
        "A blank has no outline",
        Remedy::advice("Give the piece a length, a width and a height"),
    )
}
