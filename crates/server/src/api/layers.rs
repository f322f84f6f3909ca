//! Several layers of a face at once.

use aptum_core::Job;
use aptum_core::error::Change;
use aptum_core::face::{LineUp, Side};
use aptum_core::id::{LayerId, PieceId};
use rocket::serde::json::Json;
use rocket::{State, post};
use schemars::JsonSchema;
use serde::Deserialize;
use ts_rs::TS;

use super::Problem;
use super::body::Body;
use crate::desk::Desk;
use crate::shelf::prepared;

/// Which layers are lined up, and how.
#[derive(Debug, Deserialize, JsonSchema, TS)]
pub struct LineUpAsk {
    job: Job,
    piece: PieceId,
    /// The first says how large.
    layers: Vec<LayerId>,
    how: LineUp,
}

/// The changes that line layers up.
#[post("/layers/line-up", data = "<ask>")]
pub async fn line_up(
    desk: &State<Desk>,
    ask: Body<LineUpAsk>,
) -> Result<Json<Vec<Change>>, Problem> {
    desk.quick(move |store| {
        let LineUpAsk { job, piece, layers, how } = ask.0;
        let prepared = prepared(&job, &*store.workshop()?, store)?;
        let found = prepared.pieces.iter().find(|own| own.job_piece.id == piece);
        let Some((found, face)) = found.and_then(|own| Some((own, own.job_piece.face.as_ref()?)))
        else {
            let id = piece.shown();
            return Err(Problem::missing(format!("The job has no printed piece “{id}”")));
        };
        let uprights = &found.formed.uprights;
        let mut placed = face.side(Side::Front).placed(None, &found.flat, uprights);
        if let Some(back) = &found.back {
            placed.extend(face.side(Side::Back).placed(None, &back.flat, &uprights.mirrored()));
        }
        let changes = face.lined_up(&placed, &layers, how);
        let path = found.job_piece.path();
        Ok(Json(changes.into_iter().map(|change| change.below(&path)).collect()))
    })
    .await
}
