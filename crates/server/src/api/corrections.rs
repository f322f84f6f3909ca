//! When it cut a little off: what two places tell, and what is sent instead from then on.

use aptum_core::run::{Cause, MeasuredPlace, told};
use aptum_core::units::Unit;
use aptum_core::workshop::Correction;
use rocket::serde::json::Json;
use rocket::{State, post};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ts_rs::TS;

use super::Problem;
use super::body::Body;
use crate::desk::Desk;

/// Two places where a cut was measured.
#[derive(Debug, Deserialize, JsonSchema, TS)]
pub struct CorrectionAsk {
    unit: Unit,
    near: MeasuredPlace,
    far: MeasuredPlace,
}

/// What they tell.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct CorrectionView {
    cause: Cause,
    words: String,
    correction: Correction,
}

/// Tells a shift from a turn and a scale, and what to send instead.
#[post("/corrections", data = "<ask>")]
pub async fn correct(
    desk: &State<Desk>,
    ask: Body<CorrectionAsk>,
) -> Result<Json<CorrectionView>, Problem> {
    desk.quick(move |store| {
        let CorrectionAsk { unit, near, far } = ask.0;
        let told = told(near, far, &store.today()?, unit)?;
        let words = format!("It is {}.", told.cause.words());
        Ok(Json(CorrectionView { cause: told.cause, words, correction: told.correction }))
    })
    .await
}
