//! Drawings from elsewhere: read, divided into panels, mended; and the tool path of a full sheet with its HP-GL.
#![allow(clippy::unwrap_used, missing_docs, reason = "a bench")]

use std::fmt::Write;
use std::sync::Arc;

use aptum_core::blob::{BlobId, Origin};
use aptum_core::form::{Form, LineDrawing, ReadLines};
use aptum_core::geometry::Rect;
use aptum_core::lines::{LineMend, Lines, guessed};
use aptum_core::memory::Forgetful;
use aptum_core::tooling::{Bed, ToolPath};
use aptum_core::units::Unit;
use aptum_core::workshop::{Dialect, Workshop};
use aptum_core::{Job, prepare};
use aptum_formats::hpgl::hpgl;
use aptum_formats::lines::brought;
use divan::{Bencher, black_box};

fn main() {
    divan::main();
}

/// So many lines and arcs, as a drawing program writes them.
fn dxf(entities: usize) -> String {
    let mut text = String::from("0\nSECTION\n2\nENTITIES\n");
    for at in 0..entities {
        let (x, y) = ((at % 200) as f64 * 5.0, (at / 200) as f64 * 5.0);
        if at % 4 == 0 {
            write!(text, "0\nARC\n8\nCUT\n10\n{x}\n20\n{y}\n40\n2\n50\n10\n51\n200\n").unwrap();
        } else {
            let (right, down) = (x + 3.0, y + 1.0);
            write!(text, "0\nLINE\n8\nCUT\n10\n{x}\n20\n{y}\n11\n{right}\n21\n{down}\n").unwrap();
        }
    }
    text.push_str("0\nENDSEC\n0\nEOF\n");
    text
}

fn of(lines: Lines) -> LineDrawing {
    let mut own = LineDrawing::new(BlobId("0".repeat(64)), Origin::default(), guessed(&lines));
    own.read = ReadLines(Some(Arc::new(lines)));
    own
}

/// Figure to reach, with what follows: under 1 s.
#[divan::bench(sample_count = 10)]
fn dxf_of_20000_entities_read(bencher: Bencher<'_, '_>) {
    let text = dxf(20_000);
    bencher.bench_local(|| black_box(brought(text.as_bytes(), 1).unwrap()));
}

#[divan::bench(sample_count = 10)]
fn its_20000_lines_drawn(bencher: Bencher<'_, '_>) {
    let mut own = of(brought(dxf(20_000).as_bytes(), 1).unwrap());
    own.scale = Some(aptum_core::lines::Scale::Each { mm: 1.0 });
    let form = Form::of_drawing(own);
    bencher.bench_local(|| black_box(form.draw(0.3, Unit::Mm)));
}

/// A panel with 2,000 openings and as many slits, the narrowest bridge among them.
#[divan::bench(sample_count = 10)]
fn openings_of_a_panel_drawn(bencher: Bencher<'_, '_>) {
    let mut svg = String::from(
        "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"1000mm\" height=\"500mm\" viewBox=\"0 0 1000 500\"><g id=\"cut\"><path d=\"M0 0H1000V500H0Z\" fill=\"none\" stroke=\"red\"/>",
    );
    for at in 0..2000 {
        let (x, y) = (at % 100 * 10 + 4, at / 100 * 25 + 6);
        write!(svg, "<circle cx=\"{x}\" cy=\"{y}\" r=\"2\" fill=\"none\" stroke=\"red\"/>")
            .unwrap();
        write!(svg, "<path d=\"M{x} {}h3\" stroke=\"red\"/>", y + 9).unwrap();
    }
    svg.push_str("</g></svg>");
    let form = Form::of_drawing(of(brought(svg.as_bytes(), 1).unwrap()));
    bencher.bench_local(|| black_box(form.draw(0.3, Unit::Mm)));
}

/// A sheet with 1,980 creases. Figure to reach: under 300 ms.
#[divan::bench(sample_count = 10)]
fn panels_of_2000_creases(bencher: Bencher<'_, '_>) {
    let mut svg = String::from(
        "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"1200mm\" height=\"1200mm\" viewBox=\"0 0 1200 1200\"><g id=\"cut\"><path d=\"M0 0H1200V1200H0Z\" fill=\"none\" stroke=\"red\"/></g><g id=\"crease\">",
    );
    for at in 1..=44 {
        for part in 0..45 {
            let (along, from) = (f64::from(at) * 26.0, f64::from(part) * 26.0);
            write!(svg, "<path d=\"M{from} {along}h26\" stroke=\"blue\"/>").unwrap();
        }
    }
    svg.push_str("</g></svg>");
    let form = Form::of_drawing(of(brought(svg.as_bytes(), 1).unwrap()));
    bencher.bench_local(|| black_box(form.draw(0.3, Unit::Mm)));
}

#[divan::bench]
fn a_node_of_5000_moved(bencher: Bencher<'_, '_>) {
    let corners: Vec<String> = (0..5000)
        .map(|at| f64::from(at) * 0.001_256)
        .map(|angle| format!("{:.4} {:.4}", 100.0 * angle.cos(), 100.0 * angle.sin()))
        .collect();
    let svg = format!(
        "<svg xmlns=\"http://www.w3.org/2000/svg\"><path d=\"M{}Z\" fill=\"none\" stroke=\"red\"/></svg>",
        corners.join("L")
    );
    let lines = brought(svg.as_bytes(), 1).unwrap();
    let step = [LineMend::Move { line: 0, node: 2500, to: [3.0, 4.0] }];
    bencher.bench_local(|| black_box(lines.mended(&step)));
}

/// A sheet of 2 × 2 m with up to 250 cartons. Figures to reach: under 1 s, and the HP-GL under 100 ms.
fn full() -> (Job, Workshop) {
    let workshop: Workshop =
        serde_json::from_str(include_str!("../../../demo/workshop.json")).unwrap();
    let mut job: Job =
        serde_json::from_str(include_str!("../../../demo/jobs/tomato-carton.json")).unwrap();
    (job.sheet.size.width, job.sheet.size.height) = (2000.0, 2000.0);
    (job.sheet.cutter, job.sheet.printer, job.sheet.marks) = (None, None, None);
    job.pieces[0].face = None;
    job.pieces[0].copies = 250;
    (job, workshop)
}

#[divan::bench(sample_count = 5)]
fn tool_path_of_a_full_sheet(bencher: Bencher<'_, '_>) {
    let (job, workshop) = full();
    let prepared = prepare(&job, &workshop).unwrap();
    let plan = prepared.plan(&job.tooling, &prepared.layout.runs[0].placements);
    let cutter = workshop.cutters.values().find(|cutter| cutter.pace.is_some());
    let bed = Bed {
        plan: &plan,
        placements: &prepared.layout.runs[0].placements,
        page: prepared.windows.page,
        window: &prepared.windows.cut,
    };
    let operations = &prepared.operations;
    bencher.bench_local(|| black_box(ToolPath::of(bed, operations, &job.tooling, cutter)));
}

#[divan::bench(sample_count = 20)]
fn hpgl_of_a_full_sheet(bencher: Bencher<'_, '_>) {
    let (job, workshop) = full();
    let prepared = prepare(&job, &workshop).unwrap();
    let path = prepared.tool_path(&job, &workshop, 0, &Forgetful).unwrap();
    let dialect: &Dialect =
        workshop.cutters.values().find_map(|cutter| cutter.dialect.as_ref()).unwrap();
    let page: Rect = prepared.windows.page;
    bencher.bench_local(|| {
        let mut bytes = Vec::new();
        hpgl(&path, 0, dialect, page, &mut bytes).unwrap();
        black_box(bytes)
    });
}
