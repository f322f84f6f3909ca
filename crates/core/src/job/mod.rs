//! A job: its pieces, what is printed on them, and how their copies go onto sheets.

mod each_row;
mod fields;
mod layout;
pub mod older;
mod piece;
mod placement;
mod plan;
mod tooling;

use std::borrow::Cow;

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

pub use fields::{Doing, FieldChange, FieldError, with_changes, with_edits, with_field};
pub(crate) use layout::number_copies;
pub use layout::{LaidBlank, SheetRun};
pub use piece::JobPiece;
pub use placement::{Placement, rotation};
pub use plan::{Amount, Kept, MOST_PLACED, Made, Orientation, Search, SheetPlan, Turning};
pub use tooling::{
    Moment, Nicks, OperationId, OperationSay, Pin, Reverse, Share, Tooling, Weeding,
};

use crate::blob::{BlobId, Blobs};
use crate::error::{Faults, InputError, Remedy};
use crate::face::{Face, LayerKind, Motif, Pattern};
use crate::form::{Form, Gathered};
use crate::id::PieceId;
use crate::units::Unit;
use crate::workshop::{RecordId, RecordKind, check_name};

/// Everything the user decides about a job.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Job {
    /// Its name in lists.
    pub name: String,
    /// The unit in which its lengths are shown.
    #[serde(default)]
    pub unit: Unit,
    /// What is made, 1 to 12 pieces that share the sheets, such as a carton and the tag that goes with it.
    pub pieces: Vec<JobPiece>,
    /// How copies go onto sheets.
    pub sheet: SheetPlan,
    /// How its lines are worked.
    #[serde(default, skip_serializing_if = "Tooling::is_standard")]
    pub tooling: Tooling,
}

/// Most pieces of a job.
const MOST_PIECES: usize = 12;

impl Job {
    /// What a piece goes by: in a job of one, by the job's name.
    #[must_use]
    pub fn title<'a>(&'a self, piece: &'a JobPiece) -> &'a str {
        if self.pieces.len() == 1 { &self.name } else { piece.own_name() }
    }

    /// A hang tag in the card and the colours of the others, to be changed into whatever goes with them.
    #[must_use]
    pub fn another_piece(&self) -> JobPiece {
        let form = Form::new("tag-clipped", &[("width", 40.0), ("height", 80.0)]);
        let first = self.pieces.first();
        let new = JobPiece::new(&self.free_id(), form, "");
        JobPiece {
            name: Some(format!("Tag {}", self.pieces.len())),
            stock: first.map_or(new.stock.clone(), |first| first.stock.clone()),
            face: first.and_then(|first| first.face.as_ref()).map(Face::colours),
            copies: first.map_or(1, |first| first.copies),
            ..new
        }
    }

    /// The card that holds a piece: which of the job's, and how many copies it holds.
    #[must_use]
    pub fn holder(&self, id: &PieceId) -> Option<(usize, u32)> {
        let mut cards = self.pieces.iter().enumerate();
        cards.find_map(|(at, piece)| Some((at, piece.form.gathered()?.holds(id)?)))
    }

    /// True where a card could hold a piece: it stays flat, and no card holds it yet.
    #[must_use]
    pub fn is_free(&self, piece: &JobPiece) -> bool {
        piece.form.stays_flat() && self.holder(&piece.id).is_none()
    }

    /// A card that holds what of the job's pieces a card can hold; `None` where there is nothing of it.
    #[must_use]
    pub fn card_of_pieces(&self) -> Option<JobPiece> {
        let free: Vec<&JobPiece> = self.pieces.iter().filter(|piece| self.is_free(piece)).collect();
        let first = free.first()?;
        let card = Form::of_pieces(Gathered::of(free.iter().map(|piece| piece.id.clone())));
        let card = JobPiece::new(&self.free_id(), card, &first.stock.0);
        Some(JobPiece { name: Some("Sticker card".to_owned()), ..card })
    }

    fn free_id(&self) -> String {
        let taken = |id: &str| self.pieces.iter().any(|piece| piece.id.0 == id);
        let mut number = self.pieces.len() + 1;
        while taken(&format!("p{number}")) {
            number += 1;
        }
        format!("p{number}")
    }

    /// The pieces with one for each motif of a traced picture instead of one for all of them.
    ///
    /// # Errors
    /// A piece that is not there, is not traced, or has one motif only; more pieces than a job has.
    pub fn motifs_apart(&self, id: &PieceId) -> Result<Vec<JobPiece>, Vec<InputError>> {
        let none = |message: String| {
            vec![InputError::plain("pieces", message, Remedy::advice("Choose a traced piece"))]
        };
        let at = self.pieces.iter().position(|piece| piece.id == *id);
        let at = at.ok_or_else(|| none(format!("There is no piece “{}”", id.shown())))?;
        let piece = &self.pieces[at];
        let traced = piece.form.traced();
        let looked = traced.and_then(|own| Some((own, own.found.0.as_ref()?.0.as_ref().ok()?)));
        let (traced, tracing) =
            looked.ok_or_else(|| none(format!("“{}” has no outline", piece.own_name())))?;
        let places = tracing.places(traced.sides());
        let room = MOST_PIECES + 1 - self.pieces.len();
        if places.len() < 2 || places.len() > room {
            return Err(vec![InputError::new(
                "pieces",
                format!("The picture has {} motifs: 2 to {room} become pieces", places.len()),
                f64::from(u32::try_from(places.len()).unwrap_or(u32::MAX)),
                Remedy::advice(
                    "Leave out small ones, or close gaps between those that belong together",
                ),
            )]);
        }
        let mut pieces = self.pieces.clone();
        let own = pieces.remove(at);
        for (number, place) in places.into_iter().enumerate() {
            let mut motif = own.clone();
            if number > 0 {
                let taken = |id: &str| pieces.iter().any(|piece| piece.id.0 == id);
                let free = (1..)
                    .map(|number| format!("p{number}"))
                    .find(|id| !taken(id) && *id != own.id.0);
                motif.id = PieceId(free.unwrap_or_default());
            }
            motif.name =
                Some(format!("{} {}", self.title(&own), number + 1).chars().take(80).collect());
            if let Some(traced) = motif.form.traced_mut() {
                traced.trace.around = Some(place);
            }
            pieces.insert(at + number, motif);
        }
        Ok(pieces)
    }

    /// The records of the workshop that it names, by kind and id.
    #[must_use]
    pub fn records(&self) -> Vec<(RecordKind, &RecordId)> {
        let plan = &self.sheet;
        let machines = [
            (RecordKind::Printers, &plan.printer),
            (RecordKind::Cutters, &plan.cutter),
            (RecordKind::Carriers, &plan.carrier),
            (RecordKind::MarkSets, &plan.marks),
        ];
        let machines = machines.into_iter().filter_map(|(kind, id)| Some((kind, id.as_ref()?)));
        let stocks = self.pieces.iter().flat_map(|piece| {
            let backing = piece.form.backing.as_ref().map(|backing| &backing.stock);
            [Some(&piece.stock), backing].into_iter().flatten()
        });
        stocks.map(|id| (RecordKind::Stocks, id)).chain(machines).collect()
    }

    /// The same records, to be changed.
    pub fn records_mut(&mut self) -> Vec<(RecordKind, &mut RecordId)> {
        let plan = &mut self.sheet;
        let machines = [
            (RecordKind::Printers, &mut plan.printer),
            (RecordKind::Cutters, &mut plan.cutter),
            (RecordKind::Carriers, &mut plan.carrier),
            (RecordKind::MarkSets, &mut plan.marks),
        ];
        let machines = machines.into_iter().filter_map(|(kind, id)| Some((kind, id.as_mut()?)));
        let stocks = self.pieces.iter_mut().flat_map(|piece| {
            let backing = piece.form.backing.as_mut().map(|backing| &mut backing.stock);
            [Some(&mut piece.stock), backing].into_iter().flatten()
        });
        stocks.map(|id| (RecordKind::Stocks, id)).chain(machines).collect()
    }

    /// The blobs that it names; one may come more than once.
    pub fn blobs(&self) -> impl Iterator<Item = &BlobId> {
        let faces = self.pieces.iter().filter_map(|piece| piece.face.as_ref());
        let fonts = faces.clone().flat_map(Face::own_typefaces).map(|own| &own.blob);
        let layers = faces.flat_map(|face| &face.layers);
        let worn = layers.filter_map(|layer| match &layer.kind {
            LayerKind::Picture(picture) => Some((&picture.blob, picture.reworked.as_ref())),
            LayerKind::Pattern(Pattern { motif_of: Motif::Picture(picture), .. }) => {
                Some((&picture.blob, None))
            }
            _ => None,
        });
        let worn = worn.flat_map(|(blob, reworked)| [Some(blob), reworked.map(|own| &own.from)]);
        let lists = self.pieces.iter().filter_map(|piece| piece.list.as_ref());
        let listed = lists.flat_map(|list| &list.pictures).map(|picture| &picture.blob);
        let traced = self.pieces.iter().filter_map(|piece| piece.form.traced());
        let traced = traced.map(|traced| &traced.picture);
        let drawn = self.pieces.iter().flat_map(|piece| piece.form.drawn_lines());
        let drawn = drawn.map(|(lines, _)| lines);
        worn.flatten().chain(fonts).chain(listed).chain(traced).chain(drawn)
    }

    /// The job with the bytes of the typefaces that are its maker's own.
    #[must_use]
    pub fn with_fonts(&self, blobs: &dyn Blobs) -> Cow<'_, Self> {
        let named = |piece: &JobPiece| piece.face.iter().any(|face| !face.has_fonts());
        if !self.pieces.iter().any(named) {
            return Cow::Borrowed(self);
        }
        let mut job = self.clone();
        let faces = job.pieces.iter_mut().filter_map(|piece| piece.face.as_mut());
        faces.for_each(|face| face.find_fonts(blobs));
        Cow::Owned(job)
    }

    /// True when something is printed on any piece.
    #[must_use]
    pub fn is_printed(&self) -> bool {
        self.pieces.iter().any(|piece| piece.face.is_some())
    }

    /// Checks what holds for any workshop.
    ///
    /// # Errors
    /// Every figure out of range.
    pub fn validate(&self) -> Result<(), Vec<InputError>> {
        let mut faults = Faults::default();
        check_name("name", &self.name, &mut faults);
        if self.pieces.is_empty() || self.pieces.len() > MOST_PIECES {
            let count = self.pieces.len();
            faults.add(InputError::new(
                "pieces",
                format!("The job has {count} pieces: it has 1 to {MOST_PIECES}"),
                f64::from(u32::try_from(count).unwrap_or(u32::MAX)),
                Remedy::advice("Add one, or make a second job of some of them"),
            ));
            return faults.or(());
        }
        for (at, piece) in self.pieces.iter().enumerate() {
            let twice = self.pieces[..at].iter().any(|other| other.id == piece.id);
            if twice || !piece.id.is_sound() {
                faults.add(InputError::plain(
                    "pieces",
                    format!("“{}” names no piece of its own", piece.id.shown()),
                    Remedy::advice(
                        "Give each piece an id of 1 to 24 small letters, digits and hyphens",
                    ),
                ));
                continue;
            }
            piece.validate(self.unit, &mut faults);
            self.validate_members(piece, &mut faults);
        }
        self.sheet.validate(self.unit, &mut faults);
        self.tooling.validate(self.unit, &mut faults);
        faults.or(())
    }

    /// The job with nothing printed on its pieces.
    pub(crate) fn bare(&self) -> Self {
        let mut job = self.clone();
        for piece in &mut job.pieces {
            (piece.face, piece.list) = (None, None);
        }
        job
    }

    /// A card holds pieces of the job that stay flat, each on one card only.
    fn validate_members(&self, card: &JobPiece, faults: &mut Faults) {
        let Some(gathered) = card.form.gathered() else { return };
        for (at, member) in gathered.members.iter().enumerate() {
            let id = &member.piece;
            let piece = self.pieces.iter().find(|piece| piece.id == *id);
            let twice = gathered.members[..at].iter().any(|other| other.piece == *id);
            let elsewhere = || self.holder(id).is_some_and(|(at, _)| self.pieces[at].id != card.id);
            let what = match piece {
                None => format!("The card holds “{}”, which is no piece of this job", id.shown()),
                Some(piece) if piece.form.gathered().is_some() => {
                    format!("“{}” is a card itself: no card holds it", piece.own_name())
                }
                Some(piece) if twice || elsewhere() => {
                    format!("“{}” lies on a card already", piece.own_name())
                }
                Some(piece) if !piece.form.stays_flat() => format!(
                    "“{}” is folded or has layers: a card holds what stays flat",
                    piece.own_name()
                ),
                Some(_) => continue,
            };
            faults.add(InputError::plain(
                &format!("{}form.gathered.members", card.path()),
                what,
                Remedy::advice("Take it off the card"),
            ));
        }
    }
}
