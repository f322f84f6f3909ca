//! The routes of tooling, rehearsal and the run: whatever has to do with machines.

use aptum_core::logbook::LogEntry;

use crate::api::corrections::{CorrectionAsk, CorrectionView};
use crate::api::jobs::OpenJob;
use crate::api::logbook::{LogChange, LogbookView};
use crate::api::odds::OddsAsk;
use crate::api::queue::{QueueAsk, QueueOrder, QueueView, RowsAsk};
use crate::api::rehearsal::{RehearsalAsk, RehearsalView};
use crate::api::runs::{FreezeAsk, RunAsk, RunView};
use crate::api::sending::{SendAsk, WishAsk};
use crate::api::tooling::{ToolingAsk, ToolingView};
use crate::api::trial::{TrialAsk, TrialView};

use super::routes::{Body, Route, json, route};

/// Those of machines, and of what was tried on them.
pub(super) const OF_MACHINES: &[Route] = &[
    route(
        ("post", "/api/tooling"),
        "What the tools do on a run of a job's sheets: operations in order, where each runs and when",
        json::<ToolingAsk>(),
        json::<ToolingView>(),
    ),
    route(
        ("get", "/api/jobs/{id}/cut-hpgl/{number}"),
        "The tool path of a sheet as HP-GL, in its cutter's dialect; of one of its `loading`s, from 1",
        Body::Nothing,
        Body::Bytes("application/vnd.hp-hpgl"),
    ),
    route(
        ("get", "/api/jobs/{id}/cut-gcode/{number}"),
        "The same as G-code",
        Body::Nothing,
        Body::Bytes("text/plain"),
    ),
    route(
        ("post", "/api/rehearsal"),
        "Prints a sheet and cuts it, on the machines that ship with Aptum",
        json::<RehearsalAsk>(),
        json::<RehearsalView>(),
    ),
    route(
        ("get", "/api/rehearsal/{id}/sheet.png"),
        "The picture of a sheet that was rehearsed lately",
        Body::Nothing,
        Body::Bytes("image/png"),
    ),
    route(
        ("post", "/api/odds"),
        "What many sheets come to: events progress, then done",
        json::<OddsAsk>(),
        Body::Bytes("text/event-stream"),
    ),
    route(
        ("get", "/api/queue"),
        "Sheets that were printed, machine by machine, in the order in which they are cut",
        Body::Nothing,
        json::<QueueView>(),
    ),
    route(
        ("put", "/api/queue"),
        "Puts prints into an order",
        json::<QueueOrder>(),
        json::<QueueView>(),
    ),
    route(
        ("post", "/api/queue"),
        "Prints the sheets of several jobs and puts them in, all or none",
        json::<QueueAsk>(),
        json::<QueueView>(),
    ),
    route(
        ("post", "/api/queue/rows"),
        "Makes a job for each row of a job's list, prints their sheets and puts them in, all or none",
        json::<RowsAsk>(),
        json::<QueueView>(),
    ),
    route(
        ("get", "/api/prints/{id}/picture.png"),
        "A small picture of the first sheet of a print",
        Body::Nothing,
        Body::Bytes("image/png"),
    ),
    route(
        ("post", "/api/prints/{id}/job"),
        "The job as it was printed, as a job of its own",
        Body::Nothing,
        json::<OpenJob>(),
    ),
    route(
        ("get", "/api/jobs/{id}/run"),
        "The prints of a job, and how the run of the newest stands",
        Body::Nothing,
        json::<RunView>(),
    ),
    route(
        ("post", "/api/jobs/{id}/prints"),
        "Freezes what is printed: the job with all that it names, and the print file's bytes",
        json::<FreezeAsk>(),
        json::<RunView>(),
    ),
    route(
        ("put", "/api/prints/{id}/run"),
        "Changes a run by one thing: a step ticked or taken back, pieces counted, the scale measured, held, stopped",
        json::<RunAsk>(),
        json::<RunView>(),
    ),
    route(
        ("get", "/api/prints/{id}/print.pdf"),
        "The file that went to the printer",
        Body::Nothing,
        Body::Bytes("application/pdf"),
    ),
    route(
        ("get", "/api/prints/{id}/machine/{sheet}"),
        "What the machine is sent for one `loading` of a printed sheet, from 1: HP-GL, or G-code with gcode=true",
        Body::Nothing,
        Body::OneOf(&["application/vnd.hp-hpgl", "text/plain"]),
    ),
    route(
        ("post", "/api/prints/{id}/print"),
        "Sends what was printed to its printer over TCP, which says how many sheets came out",
        Body::Nothing,
        json::<String>(),
    ),
    route(
        ("post", "/api/corrections"),
        "What two places tell where a cut was measured against the print, and what to send instead",
        json::<CorrectionAsk>(),
        json::<CorrectionView>(),
    ),
    route(
        ("post", "/api/prints/{id}/send"),
        "Sends a printed sheet to its cutter over TCP: events progress, then done",
        json::<SendAsk>(),
        Body::Bytes("text/event-stream"),
    ),
    route(
        ("put", "/api/prints/{id}/send"),
        "Holds the cutter, lets it go on, or stops it",
        json::<WishAsk>(),
        json::<bool>(),
    ),
    route(
        ("post", "/api/trial"),
        "The next ladder of test cuts for an operation, with what was tried so far",
        json::<TrialAsk>(),
        json::<TrialView>(),
    ),
    route(
        ("get", "/api/jobs/{id}/trial/{language}"),
        "The file that cuts a ladder: test.hpgl, test.nc or test.svg, with `operation`, `varied`, `values`, `run` and `on`",
        Body::Nothing,
        Body::OneOf(&["application/vnd.hp-hpgl", "text/plain", "image/svg+xml"]),
    ),
    route(
        ("get", "/api/logbook"),
        "What was tried, the newest first; `text` finds entries that have all its words",
        Body::Nothing,
        json::<LogbookView>(),
    ),
    route(("post", "/api/logbook"), "Adds an entry", json::<LogEntry>(), json::<i32>()),
    route(
        ("put", "/api/logbook/{id}"),
        "Says what came of an entry after all",
        json::<LogChange>(),
        Body::Nothing,
    ),
    route(("delete", "/api/logbook/{id}"), "Takes an entry out", Body::Nothing, Body::Nothing),
];
