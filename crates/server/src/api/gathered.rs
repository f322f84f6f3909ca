//! Cards that hold other pieces: these laid close together.

use aptum_core::Job;
use aptum_core::form::MemberPlace;
use aptum_core::gathering::close_together;
use aptum_core::id::PieceId;
use aptum_core::job::Turning;
use rocket::serde::json::Json;
use rocket::{State, post};
use schemars::JsonSchema;
use serde::Deserialize;
use ts_rs::TS;

use super::Problem;
use super::body::Body;
use crate::desk::Desk;
use crate::shelf::prepared;

/// A job, its card, and how what lies on it may be turned.
#[derive(Debug, Deserialize, JsonSchema, TS)]
pub struct CloseAsk {
    job: Job,
    piece: PieceId,
    turning: Turning,
}

/// Places of a card's copies, close together.
#[post("/cards/close", data = "<ask>")]
pub async fn close(
    desk: &State<Desk>,
    ask: Body<CloseAsk>,
) -> Result<Json<Vec<MemberPlace>>, Problem> {
    let CloseAsk { job, piece, turning } = ask.0;
    desk.slow(move |store| {
        let prepared = prepared(&job, &*store.workshop()?, store)?;
        let drawn = prepared.pieces.iter().find(|own| own.job_piece.id == piece);
        let card = drawn.and_then(|own| own.job_piece.form.gathered());
        let card = card.ok_or_else(|| {
            Problem::missing(format!("“{}” is no card that holds other pieces", piece.shown()))
        })?;
        Ok(Json(close_together(card, turning)))
    })
    .await
}
