//! Cards that hold other pieces: these laid close together.

use std::time::Duration;

use aptum_core::Job;
use aptum_core::gathering::CloseTogether;
use aptum_core::id::PieceId;
use aptum_core::job::Turning;
use aptum_core::sheet::nest::{Found, Watch};
use rocket::{State, post};
use schemars::JsonSchema;
use serde::Deserialize;
use ts_rs::TS;

use super::Problem;
use super::body::Body;
use super::tasks::{Events, Pace, Sender, Tasks};
use crate::desk::Desk;
use crate::shelf::prepared;

/// A job, its card, and how what lies on it may be turned.
#[derive(Debug, Deserialize, JsonSchema, TS)]
pub struct CloseAsk {
    job: Job,
    piece: PieceId,
    turning: Turning,
}

/// No card is searched for longer.
const LONGEST: Duration = Duration::from_secs(60);

struct Following<'a> {
    sender: &'a Sender,
    close: &'a CloseTogether<'a>,
    pace: Pace,
}

impl Watch for Following<'_> {
    fn go_on(&self) -> bool {
        self.sender.goes_on()
    }

    fn found(&self, found: &Found<'_>) {
        self.pace.send(|| self.sender.send("found", &self.close.places(found.runs)));
    }
}

/// Places of a card's copies, close together: `found` events with the best so far, then one `done`.
#[post("/cards/close", data = "<ask>")]
pub async fn close(
    desk: &State<Desk>,
    tasks: &State<Tasks>,
    ask: Body<CloseAsk>,
) -> Result<Events, Problem> {
    let CloseAsk { job, piece, turning } = ask.0;
    let card = desk
        .slow(move |store| {
            let prepared = prepared(&job, &*store.workshop()?, store)?;
            let drawn = prepared.pieces.iter().find(|own| own.job_piece.id == piece);
            drawn.and_then(|own| own.job_piece.form.gathered()).cloned().ok_or_else(|| {
                Problem::missing(format!("“{}” is no card that holds other pieces", piece.shown()))
            })
        })
        .await?;
    tasks.run(None, LONGEST, move |sender| {
        let places = CloseTogether::new(&card, turning).map_or_else(Vec::new, |close| {
            close.search(&Following { sender, close: &close, pace: Pace::default() })
        });
        sender.send("done", &places);
    })
}
