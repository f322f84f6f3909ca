//! The checks of a piece as they stand among those of a job.

use std::cmp::Ordering;

use crate::blob::Blobs;
use crate::check::{Check, Drawing, Stage, State};
use crate::error::{Change, Remedy, Setting};
use crate::face::{LayerKind, Motif, Pattern};
use crate::job::{Job, JobPiece};

impl Check {
    /// The same as a check of one of a job's pieces, which are told apart where there are several.
    #[must_use]
    pub fn of_piece(mut self, piece: &JobPiece, is_alone: bool) -> Self {
        if !is_alone {
            self.id = format!("{}-{}", self.id, piece.id);
            self.label = format!("{}: {}", piece.own_name(), self.label);
        }
        let path = piece.path();
        self.remedies = self.remedies.into_iter().map(|remedy| remedy.below(&path)).collect();
        if let Some(place) = self.place.as_mut().filter(|place| place.drawing == Drawing::Flat) {
            place.piece = Some(piece.id.clone());
        }
        self
    }
}

/// Each row of a list has its copy, and each copy its row.
pub(crate) fn rows_check(piece: &JobPiece, copies: u32) -> Option<Check> {
    let face = piece.face.as_ref()?;
    let list = piece
        .list
        .as_ref()
        .filter(|list| face.layers.iter().any(|layer| !layer.hidden && list.fills(layer)))?;
    let rows = u32::try_from(list.rows.len()).unwrap_or(u32::MAX);
    let counted = |count: u32, what: &str| match count {
        1 => format!("one {what}"),
        _ => format!("{count} {}", if what == "copy" { "copies" } else { "rows" }),
    };
    let (state, verdict) = match copies.cmp(&rows) {
        Ordering::Equal => (State::Fits, "a copy for each row".to_owned()),
        Ordering::Less => {
            let (first, last) = (copies + 1, rows);
            let which = if first == last {
                format!("row {last}")
            } else {
                format!("rows {first} to {last}")
            };
            (State::Broken, format!("{which} of {} without a copy", list.name))
        }
        Ordering::Greater => {
            let over = counted(copies - rows, "copy");
            (State::Attention, format!("{over} without a row: its words stay empty"))
        }
    };
    let texts = [counted(rows, "row"), format!("for {}", counted(copies, "copy")), verdict];
    let check = Check::yes_or_no("rows", Stage::Face, "Rows and copies", state, texts);
    let remedy = Remedy::set(
        format!("Make {}", counted(rows.max(1), "copy")),
        "copies",
        f64::from(rows.max(1)),
    );
    let spares = Change::new("spares", 0.0);
    let remedy = if piece.spares > 0 {
        Remedy { changes: [remedy.changes, vec![spares]].concat(), ..remedy }
    } else {
        remedy
    };
    Some(check.remedy(remedy))
}

/// A check for each picture and each typeface whose bytes are not there: pictures are left out, words are set in
/// another typeface, and the rest works.
#[must_use]
pub fn missing_blobs(job: &Job, blobs: &dyn Blobs) -> Vec<Check> {
    let is_alone = job.pieces.len() == 1;
    let mut found = Vec::new();
    for piece in &job.pieces {
        for layer in piece.face.iter().flat_map(|face| &face.layers) {
            let (blob, label, name, remedy) = match &layer.kind {
                LayerKind::Picture(picture) => (&picture.blob, "Picture", layer.title(), None),
                LayerKind::Pattern(Pattern { motif_of: Motif::Picture(picture), .. }) => {
                    (&picture.blob, "Picture", picture.origin.name.as_str(), None)
                }
                _ => {
                    let Some((own, field)) = layer.own_typeface() else { continue };
                    let shelf = "Set it in one of the shelf";
                    let remedy = Remedy::set(shelf, &layer.field(field), Setting::Standard);
                    (&own.blob, "Typeface", own.origin.name.as_str(), Some(remedy))
                }
            };
            if blobs.holds(blob) {
                continue;
            }
            let texts = [
                "missing".to_owned(),
                format!("“{name}”"),
                "its bytes are not in this data".to_owned(),
            ];
            let id = format!("{}-{}", label.to_lowercase(), layer.id);
            let check = Check::yes_or_no(&id, Stage::Face, label, State::Broken, texts);
            let remedy = remedy.unwrap_or_else(|| {
                Remedy::advice(format!("Bring “{name}” in again, or take it off"))
            });
            found.push(check.remedy(remedy).of_piece(piece, is_alone));
        }
    }
    found
}
