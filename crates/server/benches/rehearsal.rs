//! A rehearsal in its parts: the print, the search for marks, the whole, the odds; and a sheet sent while others work.
#![allow(clippy::unwrap_used, clippy::cast_possible_truncation, reason = "a bench")]

use std::time::{Duration, Instant};

use aptum::demo;
use aptum::rehearsing::Stage;
use aptum::store::Store;
use aptum_core::geometry::Point;
use aptum_core::rehearsal::{Day, Loading, OddsAsk, odds};
use aptum_core::workshop::MarkShape;
use aptum_core::{Job, Prepared, Workshop, prepare};
use aptum_devices::cutter::{Asked, AskedMark, Bed, Eye, MarkKind, find};
use aptum_devices::printer::Printer;
use aptum_formats::pdf::print_pdf;

/// Jobs by their numbers in the demo: one with pictures, one with words and colours.
const JOBS: [(i32, &str); 2] = [(17, "bulb box, pictures"), (3, "tomato carton")];

fn main() {
    let data = tempfile::TempDir::new().unwrap();
    let store = Store::open(data.path()).unwrap();
    demo::start_jobs(&store).unwrap();
    let workshop = store.workshop().unwrap();
    for (id, name) in JOBS {
        let job = store.job(id).unwrap().job;
        println!("{name}, {} × {} mm", job.sheet.size.width, job.sheet.size.height);
        parts(&job, &workshop, &store);
    }
    let status = std::fs::read_to_string("/proc/self/status").unwrap_or_default();
    let most = status.lines().find(|line| line.starts_with("VmHWM")).unwrap_or("VmHWM: unknown");
    println!("{:<32} {:>14}   to reach: 400 MB", "most memory", most[6..].trim());
}

fn parts(job: &Job, workshop: &Workshop, store: &Store) {
    let prepared: Prepared = prepare(job, workshop).unwrap();
    let stage = Stage { job, prepared: &prepared, workshop, blobs: store, sheet: 1 };
    let mut pdf = Vec::new();
    print_pdf(job, &prepared, store, &mut pdf).unwrap();
    let card = [255, 255, 255];
    let printer = Printer { margins: stage.margins(), ppi: 300.0, day: Day::Usual, seed: 1, card };
    let start = Instant::now();
    let sheet = printer.print(&pdf, 0).unwrap();
    show("  printed at 300 ppi", start.elapsed(), "1 s");

    let loading = Loading { shift: [2.0, -1.0], turn: 1.0, ..Loading::default() };
    let bed = Bed::new(&sheet.picture, loading.affine(sheet.printing.paper));
    let set = &workshop.mark_sets[job.sheet.marks.as_ref().unwrap()];
    let (kind, size, stroke) = match set.mark {
        MarkShape::Dot { diameter } => (MarkKind::Dot, diameter, 1.0),
        MarkShape::Angle { arm, stroke } => (MarkKind::Angle, arm, stroke),
        MarkShape::Cross { arm, stroke } => (MarkKind::Cross, arm, stroke),
    };
    let middle = prepared.windows.page.center();
    let inwards = |at: Point| ((middle.x - at.x).signum(), (middle.y - at.y).signum());
    let marks = prepared.marks.marks.iter().map(|own| {
        let (at, arms) = (own.reference, inwards(own.reference));
        AskedMark { at, kind, size, stroke, is_odd: false, arms }
    });
    let asked = Asked {
        page: prepared.windows.page,
        marks: marks.collect(),
        reach: 14.0,
        ..Asked::default()
    };
    let start = Instant::now();
    let found = find(&mut Eye::new(&bed), &asked).is_ok();
    show(
        if found { "  marks found and fitted" } else { "  MARKS REFUSED" },
        start.elapsed(),
        "200 ms",
    );

    let start = Instant::now();
    let done = stage.rehearse(Day::Usual, 1, &loading, 300.0).unwrap();
    let what = if done.refused.is_none() { "  rehearsed" } else { "  REFUSED" };
    show(what, start.elapsed(), "2 s");

    let own = stage.on_sheet().unwrap();
    let (lines, copies) = (own.meant(), stage.worn(own.run));
    let ask = OddsAsk {
        page: prepared.windows.page,
        margins: stage.margins(),
        day: Day::Usual,
        marks: prepared.marks.marks.iter().map(|mark| mark.reference).collect(),
        eye: 0.01,
        lines: &lines,
        copies: &copies,
        seed: 1,
    };
    let start = Instant::now();
    let done = odds(&ask, 10_000, &mut |_| true);
    show("  10,000 sampled sheets", start.elapsed(), "2 s");
    assert_eq!(done.white.tried, 10_000);
}

fn show(what: &str, time: Duration, bound: &str) {
    println!("{what:<32} {:>11.2} ms   to reach: {bound}", time.as_secs_f64() * 1e3);
}
