//! The checks of a piece as they stand among those of a job.

use crate::blob::Blobs;
use crate::check::{Check, Drawing, Stage, State};
use crate::error::Remedy;
use crate::face::LayerKind;
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

/// A check for each picture whose bytes are not there: it is left out of everything, and the rest works.
#[must_use]
pub fn missing_pictures(job: &Job, blobs: &dyn Blobs) -> Vec<Check> {
    let is_alone = job.pieces.len() == 1;
    let mut found = Vec::new();
    for piece in &job.pieces {
        for layer in piece.face.iter().flat_map(|face| &face.layers) {
            let LayerKind::Picture(picture) = &layer.kind else { continue };
            if blobs.holds(&picture.blob) {
                continue;
            }
            let check = Check::yes_or_no(
                &format!("picture-{}", layer.id),
                Stage::Face,
                "Picture",
                State::Broken,
                [
                    "missing".to_owned(),
                    format!("“{}”", layer.title()),
                    "its bytes are not in this data".to_owned(),
                ],
            );
            let remedy =
                Remedy::advice(format!("Bring “{}” in again, or take it off", layer.title()));
            found.push(check.remedy(remedy).of_piece(piece, is_alone));
        }
    }
    found
}
