//! From figures to lines, windows, copies and checks.
#![allow(clippy::unwrap_used, missing_docs, reason = "a bench")]

use aptum_core::fold::{FoldModel, fold_checks};
use aptum_core::form::Form;
use aptum_core::form::catalogue::CATALOGUE;
use aptum_core::geometry::Region;
use aptum_core::sheet::{Piece, place_marks, rows_and_columns};
use aptum_core::units::Unit;
use aptum_core::{Job, Workshop, prepare};
use divan::{Bencher, black_box};

fn main() {
    divan::main();
}

fn workshop() -> Workshop {
    serde_json::from_str(include_str!("../../../demo/workshop.json")).unwrap()
}

const TOMATO: &str = include_str!("../../../demo/jobs/tomato-carton.json");
const RUNNER_BEAN: &str = include_str!("../../../demo/jobs/runner-bean-carton.json");

fn carton(length: f64, width: f64, height: f64) -> Form {
    Form::new("straight-tuck", &[("length", length), ("width", width), ("height", height)])
}

/// Figure to reach: under 0.2 ms.
#[divan::bench]
fn carton_to_lines() {
    let carton = carton(black_box(60.0), 30.0, 90.0);
    black_box(carton.draw(0.4, Unit::Mm).unwrap());
}

/// Figure to reach: under 2 ms.
#[divan::bench]
fn window_and_layout(bencher: Bencher<'_, '_>) {
    let (job, workshop): (Job, Workshop) = (serde_json::from_str(TOMATO).unwrap(), workshop());
    let records = aptum_core::records::Records::of(&job, &workshop).unwrap();
    let flat = job.pieces[0].form.draw(records.stock().caliper, job.unit).unwrap();
    let art = job.pieces[0].face.as_ref().unwrap().print(
        None,
        &flat.parts[0],
        &aptum_core::face::Uprights::default(),
        1.0,
    );
    let page = job.sheet.page();
    bencher.bench_local(|| {
        let machines = records.machines();
        let printable = machines.printable(page, job.sheet.orientation);
        let marks = place_marks(records.marks.unwrap(), page, printable, "");
        let windows = machines.windows(page, job.sheet.orientation, &marks);
        let piece = Piece::new(&flat.parts[0].outline, &art.printed).unwrap();
        black_box(rows_and_columns(&piece, &windows, &[0.0, 90.0, 180.0, 270.0], 2.0, 40))
    });
}

/// Small pieces, hundreds of them on a sheet: the layout's worst case.
#[divan::bench]
fn layout_of_hundreds(bencher: Bencher<'_, '_>) {
    let (job, workshop): (Job, Workshop) = (serde_json::from_str(TOMATO).unwrap(), workshop());
    let prepared = prepare(&job, &workshop).unwrap();
    let flat = carton(6.0, 5.0, 6.0).draw(0.1, Unit::Mm).unwrap();
    let piece = Piece::new(&flat.parts[0].outline, &Region::empty()).unwrap();
    bencher.bench_local(|| {
        black_box(rows_and_columns(
            &piece,
            &prepared.windows,
            &[0.0, 90.0, 180.0, 270.0],
            1.0,
            1000,
        ))
    });
}

#[divan::bench]
fn whole_job_that_fits(bencher: Bencher<'_, '_>) {
    whole_job(bencher, TOMATO);
}

/// Ways to fit are tried out too.
#[divan::bench]
fn whole_job_that_does_not_fit(bencher: Bencher<'_, '_>) {
    whole_job(bencher, RUNNER_BEAN);
}

fn whole_job(bencher: Bencher<'_, '_>, job: &str) {
    let (job, workshop): (Job, Workshop) = (serde_json::from_str(job).unwrap(), workshop());
    bencher.bench_local(|| black_box(prepare(&job, &workshop).unwrap()));
}

fn structures() -> impl Iterator<Item = &'static str> {
    CATALOGUE.iter().map(|structure| structure.id)
}

/// Figure to reach, any structure from parameters to lines and folded panels: under 0.5 ms at the
/// median, 2 ms at the worst.
#[divan::bench(args = structures())]
fn structure_to_lines_and_plates(bencher: Bencher<'_, '_>, structure: &str) {
    let form = Form::new(structure, &[]);
    bencher.bench_local(|| {
        let flat = form.draw(black_box(0.4), Unit::Mm).unwrap();
        black_box(FoldModel::new(&flat, 0.4).unwrap())
    });
}

/// Figure to reach: under 10 ms.
#[divan::bench(args = structures())]
fn all_fold_checks(bencher: Bencher<'_, '_>, structure: &str) {
    let flat = Form::new(structure, &[]).draw(0.4, Unit::Mm).unwrap();
    let model = FoldModel::new(&flat, 0.4).unwrap();
    bencher.bench_local(|| black_box(fold_checks(&flat, &model, Unit::Mm)));
}

/// 10,000 tags on sheets of so many mm a side. Figure to reach on 2 × 2 m: under 300 ms.
#[divan::bench(args = [1000.0, 2000.0], sample_count = 5)]
fn ten_thousand_tags(bencher: Bencher<'_, '_>, side: f64) {
    let (mut job, workshop): (Job, Workshop) = (serde_json::from_str(TOMATO).unwrap(), workshop());
    job.pieces[0].form =
        Form::new("tag-rounded", &[("width", 15.0), ("height", 18.0), ("hole", 3.0)]);
    job.sheet.size = aptum_core::sheet::SheetSize { name: "Own".into(), width: side, height: side };
    (job.sheet.printer, job.sheet.cutter, job.sheet.marks) = (None, None, None);
    job.pieces[0].copies = 10_000;
    bencher.bench_local(|| black_box(prepare(&job, &workshop).unwrap()));
}

/// 60 holes stacked on each other, all but the first refused. Figure to reach: under 20 ms.
#[divan::bench]
fn refused_add_ons(bencher: Bencher<'_, '_>) {
    let mut form = carton(60.0, 30.0, 90.0);
    form.chosen_mut().unwrap().add_ons = (0..60)
        .map(|_| aptum_core::form::AddOn {
            kind: aptum_core::form::AddOnKind::WindowRound,
            panel: "Front".to_owned(),
            across: 0.0,
            along: 0.0,
            width: 12.0,
            height: 12.0,
            cut: None,
            tie: None,
            own: None,
        })
        .collect();
    bencher.bench_local(|| black_box(form.draw(0.4, Unit::Mm).unwrap_err()));
}
