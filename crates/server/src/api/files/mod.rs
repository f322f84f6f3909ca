//! The files of a job, made from its current revision.

use std::io::Write;
use std::sync::Arc;

use aptum_core::check::{Check, Stage};
use aptum_core::face::Side;
use aptum_core::workshop::Cutter;
use aptum_core::{Job, Prepared, Workshop};
use aptum_formats::archive::JobFile;
use aptum_formats::art::{PPI, USUAL_PPI, most_ppi};
use aptum_formats::svg::SvgUnits;
use rocket::request::FromParam;
use rocket::{State, get};
use zip::ZipWriter;
use zip::write::SimpleFileOptions;

mod download;
mod listed;

pub use download::Download;
pub use listed::{FileInfo, list};

use download::Named;
use listed::is_of_sheets;

use super::Problem;
use crate::desk::Desk;
use crate::language::{Language, machine_name};
use crate::output::{
    Desired, OutputKind, cutter_of, loadings, marks_wanted, outputs, units_wanted,
};
use crate::shelf;
use crate::store::Store;

fn found(store: &Store, id: i32) -> Result<(Job, Arc<Workshop>, Prepared), Problem> {
    let job = store.job(id)?.job;
    let workshop = store.workshop()?;
    let prepared = shelf::prepared(&job, &workshop, store)?;
    Ok((job, workshop, prepared))
}

/// Marks left out, in mm.
const PLAIN: (Option<String>, SvgUnits) = (None, SvgUnits::Mm);

/// Makes one file, or says what there is instead.
async fn one(
    desk: &Desk,
    id: i32,
    (marks, units): (Option<String>, SvgUnits),
    choose: impl FnOnce(&Prepared, Option<&Cutter>) -> Result<(String, OutputKind), Problem>
    + Send
    + 'static,
) -> Result<Download, Problem> {
    let file = desk.file(move |store| {
        let (job, workshop, prepared) = found(store, id)?;
        let (file, kind) = choose(&prepared, cutter_of(&job, &workshop))?;
        let marks = marks_wanted(marks.as_deref());
        let named = Named { job: job.name.clone(), file };
        let blobs = store.clone();
        let desired = {
            let (job, workshop, blobs) = (&job, &*workshop, &*blobs);
            Desired { job, prepared: &prepared, workshop, marks, units, blobs }
        };
        if let Some(broken) = desired.held_by(kind) {
            return Err(held(&broken));
        }
        Ok((named, move |out: &mut dyn Write| {
            let (job, workshop, blobs) = (&job, &*workshop, &*blobs);
            Desired { job, prepared: &prepared, workshop, marks, units, blobs }.write(kind, out)
        }))
    });
    file.await.map(Download::new)
}

/// The print PDF.
#[get("/jobs/<id>/print.pdf")]
pub async fn print(desk: &State<Desk>, id: i32) -> Result<Download, Problem> {
    one(desk, id, PLAIN, |prepared, _| {
        if prepared.is_printed() {
            return Ok(("print.pdf".to_owned(), OutputKind::Print));
        }
        Err(Problem::missing("This job is only cut: switch its printed face on to print it"))
    })
    .await
}

/// The print, a page for each ink.
#[get("/jobs/<id>/print-inks.pdf")]
pub async fn plates(desk: &State<Desk>, id: i32) -> Result<Download, Problem> {
    one(desk, id, PLAIN, |prepared, cutter| {
        let all = outputs(prepared, cutter);
        if all.iter().any(|output| output.kind == OutputKind::Plates) {
            return Ok(("print-inks.pdf".to_owned(), OutputKind::Plates));
        }
        Err(Problem::missing(if prepared.layout.sheets() == 0 {
            "No copy lies on a sheet, so there is nothing to print ink by ink: make one fit first"
        } else {
            "This job is printed in colour alone: print.pdf holds all of it"
        }))
    })
    .await
}

/// The hand-cut PDF.
#[get("/jobs/<id>/hand-cut.pdf")]
pub async fn hand_cut(desk: &State<Desk>, id: i32) -> Result<Download, Problem> {
    one(desk, id, PLAIN, |_, _| Ok(("hand-cut.pdf".to_owned(), OutputKind::HandCut))).await
}

/// The cut SVG of one sheet; with `marks=included` the registration marks go in too.
#[get("/jobs/<id>/cut/<number>?<marks>&<units>")]
pub async fn cut(
    desk: &State<Desk>,
    id: i32,
    number: u32,
    marks: Option<String>,
    units: Option<String>,
) -> Result<Download, Problem> {
    let told = units_wanted(units.as_deref()).ok_or_else(|| {
        Problem::missing("Cut files are written in mm, or with 72, 90, 96 or 300 units to the inch")
    })?;
    one(desk, id, (marks, told), move |prepared, _| {
        on_sheet(prepared, number)?;
        let in_units =
            units.filter(|units| units != "mm").map(|units| format!("-{units}-per-inch"));
        let name = format!("cut-{number}{}.svg", in_units.unwrap_or_default());
        Ok((name, OutputKind::Cut([number, number])))
    })
    .await
}

/// The registration marks alone, and the lines of all sheets as processing steps.
#[get("/jobs/<id>/<name>", rank = 5)]
pub async fn of_sheets(desk: &State<Desk>, id: i32, name: SheetsFile) -> Result<Download, Problem> {
    one(desk, id, PLAIN, move |prepared, cutter| {
        let found = outputs(prepared, cutter).into_iter().find(|output| output.name == name.0);
        let found = found.ok_or_else(|| {
            Problem::missing("This job’s sheets have no such file: without marks there are none alone, without print no art")
        })?;
        Ok((found.name, found.kind))
    })
    .await
}

/// What files of all sheets are called that are made in no other way.
pub struct SheetsFile(String);

impl<'r> FromParam<'r> for SheetsFile {
    type Error = &'r str;

    fn from_param(name: &'r str) -> Result<Self, Self::Error> {
        ["marks.svg", "marks.pdf", "marks.png", "steps.pdf", "print-steps.pdf", "ticket.pdf"]
            .contains(&name)
            .then(|| Self(name.to_owned()))
            .ok_or(name)
    }
}

/// The printed side of one sheet as PNG, or its back, with 300 pixels in an inch or as many as are asked for.
#[get("/jobs/<id>/sheet-png/<number>?<ppi>&<back>")]
pub async fn sheet_png(
    desk: &State<Desk>,
    id: i32,
    number: u32,
    ppi: Option<u32>,
    back: Option<bool>,
) -> Result<Download, Problem> {
    let ppi = ppi.unwrap_or(USUAL_PPI);
    one(desk, id, PLAIN, move |prepared, _| {
        on_sheet(prepared, number)?;
        if !PPI.contains(&ppi) {
            let (least, most) = (PPI.start(), PPI.end());
            let words = format!("{ppi} pixels in an inch: ask for {least} to {most}");
            return Err(Problem::picture(422, words));
        }
        let page = prepared.windows.page;
        let most = most_ppi(page.width(), page.height());
        if ppi > most {
            let words = format!(
                "The sheet is too large for {ppi} pixels in an inch: ask for {most} or fewer"
            );
            return Err(Problem::picture(422, words));
        }
        let (side, word) =
            if back == Some(true) { (Side::Back, "-back") } else { (Side::Front, "") };
        if side == Side::Back && !prepared.has_backs() {
            return Err(Problem::missing("Nothing is printed on the backs of these sheets"));
        }
        let name = format!("print-{number}{word}.png");
        Ok((name, OutputKind::SheetPng([number, number], side, ppi)))
    })
    .await
}

/// The cut DXF of one sheet.
#[get("/jobs/<id>/cut-dxf/<number>")]
pub async fn cut_dxf(desk: &State<Desk>, id: i32, number: u32) -> Result<Download, Problem> {
    one(desk, id, PLAIN, move |prepared, _| {
        on_sheet(prepared, number)?;
        Ok((format!("cut-{number}.dxf"), OutputKind::CutDxf([number, number])))
    })
    .await
}

/// The tool path of one sheet in HP-GL; of one of its loadings, from 1.
#[get("/jobs/<id>/cut-hpgl/<number>?<loading>")]
pub async fn cut_hpgl(
    desk: &State<Desk>,
    id: i32,
    number: u32,
    loading: Option<usize>,
) -> Result<Download, Problem> {
    for_machine(desk, id, number, loading, Language::Hpgl).await
}

/// The same in G-code.
#[get("/jobs/<id>/cut-gcode/<number>?<loading>")]
pub async fn cut_gcode(
    desk: &State<Desk>,
    id: i32,
    number: u32,
    loading: Option<usize>,
) -> Result<Download, Problem> {
    for_machine(desk, id, number, loading, Language::Gcode).await
}

/// Why a machine gets nothing yet.
pub(super) fn held(broken: &Check) -> Problem {
    let remedy = broken.remedies.first().map_or("", |own| own.text.as_str());
    Problem::held(format!(
        "Nothing is written for the machine yet. {}: {}. {remedy}",
        broken.label, broken.verdict
    ))
}

/// What a machine gets; nothing while a limit of its work is broken.
async fn for_machine(
    desk: &Desk,
    id: i32,
    number: u32,
    loading: Option<usize>,
    language: Language,
) -> Result<Download, Problem> {
    one(desk, id, PLAIN, move |prepared, cutter| {
        on_sheet(prepared, number)?;
        if !cutter.is_some_and(|cutter| language.is_taken_by(cutter)) {
            return Err(Problem::missing(
                "The job’s cutter does not take this: say in the Workshop how it is spoken to, or use the SVG or DXF",
            ));
        }
        if let Some(broken) = prepared.broken(Stage::Tooling) {
            return Err(held(broken));
        }
        let (loading, all) = (loading.unwrap_or(1), loadings(prepared));
        if !(1..=all).contains(&loading) {
            return Err(Problem::missing(format!(
                "There is no loading {loading}: each sheet is loaded {all} times"
            )));
        }
        let kind = OutputKind::Machine([number, number], loading - 1, language);
        Ok((machine_name(number, loading - 1, language), kind))
    })
    .await
}

/// Refuses a sheet that is not there.
fn on_sheet(prepared: &Prepared, number: u32) -> Result<(), Problem> {
    let sheets = prepared.layout.sheets();
    if (1..=sheets).contains(&number) {
        return Ok(());
    }
    Err(Problem::missing(format!("There is no sheet {number}: the job has {sheets}")))
}

/// A piece itself, flat or folded.
#[get("/jobs/<id>/piece/<name>")]
pub async fn piece(desk: &State<Desk>, id: i32, name: String) -> Result<Download, Problem> {
    one(desk, id, PLAIN, move |prepared, cutter| {
        let all = outputs(prepared, cutter).into_iter().filter(|output| {
            !is_of_sheets(output.kind)
                && !matches!(
                    output.kind,
                    OutputKind::Cut(_)
                        | OutputKind::CutDxf(_)
                        | OutputKind::Machine(..)
                        | OutputKind::SheetPng(..)
                )
        });
        let names: Vec<String> = all.clone().map(|output| output.name).collect();
        let output = all.into_iter().find(|output| output.name == name);
        let output = output.ok_or_else(|| {
            Problem::missing(format!("The files of the job’s pieces are {}", names.join(", ")))
        })?;
        Ok((output.name, output.kind))
    })
    .await
}

/// Every file of the job in one zip, and the job's archive; sheets that are cut alike are in it once.
#[get("/jobs/<id>/files.zip?<marks>")]
pub async fn all(desk: &State<Desk>, id: i32, marks: Option<String>) -> Result<Download, Problem> {
    let file = desk.file(move |store| {
        let (job, workshop, prepared) = found(store, id)?;
        let marks = marks_wanted(marks.as_deref());
        let archive = JobFile::new(&job, &workshop).to_archive(&**store)?;
        let named = Named { job: job.name.clone(), file: "files.zip".to_owned() };
        let blobs = store.clone();
        Ok((named, move |out: &mut dyn Write| {
            let (job, workshop, blobs) = (&job, &*workshop, &*blobs);
            let units = SvgUnits::Mm;
            let desired = Desired { job, prepared: &prepared, workshop, marks, units, blobs };
            let mut zip = ZipWriter::new_stream(out);
            for output in outputs(&prepared, cutter_of(job, workshop))
                .into_iter()
                .filter(|own| !own.kind.is_picture() && desired.held_by(own.kind).is_none())
            {
                zip.start_file(output.name, SimpleFileOptions::default())?;
                desired.write(output.kind, &mut zip)?;
            }
            zip.start_file("job.aptum", SimpleFileOptions::default())?;
            zip.write_all(&archive)?;
            zip.finish().map(drop).map_err(Into::into)
        }))
    });
    file.await.map(Download::new)
}

/// The job as an archive.
#[get("/jobs/<id>/job.aptum")]
pub async fn archive(desk: &State<Desk>, id: i32) -> Result<Download, Problem> {
    let file = desk.file(move |store| {
        let job = store.job(id)?.job;
        let bytes = JobFile::new(&job, &*store.workshop()?).to_archive(&**store)?;
        let named = Named { job: job.name, file: "job.aptum".to_owned() };
        Ok((named, move |out: &mut dyn Write| out.write_all(&bytes)))
    });
    file.await.map(Download::new)
}
