//! Which files a job has, and what each is called.

use aptum_core::face::Side;
use aptum_core::units::Unit;
use aptum_formats::pdf::TICKET_PAGE;
use rocket::serde::json::Json;
use rocket::{State, get};
use schemars::JsonSchema;
use serde::Serialize;
use ts_rs::TS;

use super::found;
use crate::api::Problem;
use crate::api::preview::page_text;
use crate::desk::Desk;
use crate::language::Language;
use crate::output::{Output, OutputKind, cutter_of, outputs};

/// A file that can be downloaded.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct FileInfo {
    /// Its name.
    name: String,
    /// Its address below `/api/jobs/<id>/`.
    path: String,
    /// What it is, in words.
    title: String,
    /// What is in it.
    note: String,
    /// The piece it is of, in a job of several.
    piece: Option<String>,
    /// Its pages, 1 for a cut file.
    pages: u32,
    /// How many pages, in words, and how large where they are no sheets; empty for what has none.
    pages_text: String,
    /// What it is for, as it is listed under.
    purpose: &'static str,
    /// For a file of a sheet, the first and the last of the sheets that are all alike.
    sheets: Option<[u32; 2]>,
}

/// True for files of all sheets together.
pub(super) const fn is_of_sheets(kind: OutputKind) -> bool {
    matches!(
        kind,
        OutputKind::Print
            | OutputKind::Plates
            | OutputKind::HandCut
            | OutputKind::Steps
            | OutputKind::PrintSteps
            | OutputKind::Ticket
            | OutputKind::MarksSvg
            | OutputKind::MarksPdf
            | OutputKind::MarksPng(_)
    )
}

/// Such as “7 pages”, and of what is printed on its own paper how large they are.
fn pages_text(output: &Output, unit: Unit) -> String {
    let many = if output.pages == 1 { "" } else { "s" };
    match output.kind {
        OutputKind::Ticket => {
            format!("{} page{many}, {}", output.pages, page_text(TICKET_PAGE, unit))
        }
        _ if output.name.ends_with(".pdf") => format!("{} page{many}", output.pages),
        _ => String::new(),
    }
}

/// Which files the job has. None of them is built for that; sheets that are cut alike are named once.
#[get("/jobs/<id>/files")]
pub async fn list(desk: &State<Desk>, id: i32) -> Result<Json<Vec<FileInfo>>, Problem> {
    desk.slow(move |store| {
        let (job, workshop, prepared) = found(store, id)?;
        let cutter = cutter_of(&job, &workshop);
        let several = prepared.pieces.len() > 1;
        let name = |piece: usize| {
            prepared.pieces.get(piece).filter(|_| several).map(|piece| piece.name.clone())
        };
        let mut outputs = outputs(&prepared, cutter);
        outputs.sort_by_key(|output| output.kind.purpose());
        let info = outputs.into_iter().map(|output| {
            let (title, note, piece, sheets) = match output.kind {
                OutputKind::Print => ("Print file", "art and marks, no lines", None, None),
                OutputKind::Plates => (
                    "Print file, ink by ink",
                    "a page for each ink, all with the same marks",
                    None,
                    None,
                ),
                OutputKind::HandCut => {
                    ("Hand-cut file", "lines by kind, with a legend, no marks", None, None)
                }
                OutputKind::Cut(sheets) => ("Cut file", "lines only, in mm", None, Some(sheets)),
                OutputKind::CutDxf(sheets) => {
                    ("Cut file as DXF", "a layer for each operation", None, Some(sheets))
                }
                OutputKind::Machine(sheets, _, Language::Hpgl) => {
                    ("Cut file as HP-GL", "as its cutter takes it", None, Some(sheets))
                }
                OutputKind::Machine(sheets, _, Language::Gcode) => {
                    ("Cut file as G-code", "as its cutter takes it", None, Some(sheets))
                }
                OutputKind::Steps => (
                    "Lines as processing steps",
                    "a layer and an ink for each kind of line, in register with the print",
                    None,
                    None,
                ),
                OutputKind::PrintSteps => {
                    ("Print and lines in one", "the same over art and marks", None, None)
                }
                OutputKind::Ticket => (
                    "Job ticket",
                    "one page to lay with the work: pictures, sizes, settings, order, counts",
                    None,
                    None,
                ),
                OutputKind::MarksSvg => {
                    ("Marks as SVG", "alone, to lay under art made elsewhere", None, None)
                }
                OutputKind::MarksPdf => ("Marks as PDF", "the same", None, None),
                OutputKind::MarksPng(_) => ("Marks as PNG", "the same in pixels", None, None),
                OutputKind::SheetPng(sheets, Side::Front, _) => {
                    ("Printed sheet as PNG", "as it is printed", None, Some(sheets))
                }
                OutputKind::SheetPng(sheets, Side::Back, _) => {
                    ("Back of the sheet as PNG", "as it is seen from behind", None, Some(sheets))
                }
                OutputKind::ArtPdf(piece) => {
                    ("Art as PDF", "what is printed, alone, with its bleed", name(piece), None)
                }
                OutputKind::ArtSvg(piece, Side::Back) => {
                    ("Back’s art as SVG", "as it is seen from behind", name(piece), None)
                }
                OutputKind::ArtPng(piece, Side::Back, _) => {
                    ("Back’s art as PNG", "the same in pixels, on nothing", name(piece), None)
                }
                OutputKind::ArtSvg(piece, _) => {
                    ("Art as SVG", "what is printed, alone, with its bleed", name(piece), None)
                }
                OutputKind::ArtPng(piece, ..) => {
                    ("Art as PNG", "the same in pixels, on nothing", name(piece), None)
                }
                OutputKind::FlatDxf(piece) => {
                    ("Flat as DXF", "a layer for each kind of line", name(piece), None)
                }
                OutputKind::FlatFold(piece) => {
                    ("Flat as FOLD", "creases with their angles", name(piece), None)
                }
                OutputKind::FoldedSvg(piece) => {
                    ("Folded piece as SVG", "closed, with its face, to show it", name(piece), None)
                }
                OutputKind::FoldedPng(piece) => {
                    ("Folded piece as PNG", "the same in pixels, on nothing", name(piece), None)
                }
                OutputKind::FoldedGltf(piece) => {
                    ("Folded piece as glTF", "closed, in metres", name(piece), None)
                }
                OutputKind::FoldedObj(piece) => {
                    ("Folded piece as OBJ", "closed, in mm", name(piece), None)
                }
            };
            let path = match sheets {
                Some([first, _]) if matches!(output.kind, OutputKind::SheetPng(..)) => {
                    let is_back = matches!(output.kind, OutputKind::SheetPng(_, Side::Back, _));
                    format!("sheet-png/{first}{}", if is_back { "?back=true" } else { "" })
                }
                Some([first, _]) if matches!(output.kind, OutputKind::CutDxf(_)) => {
                    format!("cut-dxf/{first}")
                }
                Some([first, _]) => match output.kind {
                    OutputKind::Machine(_, loading, language) => {
                        let route = match language {
                            Language::Hpgl => "cut-hpgl",
                            Language::Gcode => "cut-gcode",
                        };
                        format!("{route}/{first}?loading={}", loading + 1)
                    }
                    _ => format!("cut/{first}"),
                },
                None if is_of_sheets(output.kind) => output.name.clone(),
                None => format!("piece/{}", output.name),
            };
            FileInfo {
                pages_text: pages_text(&output, job.unit),
                purpose: output.kind.purpose().name(),
                path,
                title: title.to_owned(),
                note: note.to_owned(),
                piece,
                pages: output.pages,
                sheets,
                name: output.name,
            }
        });
        Ok(Json(info.collect()))
    })
    .await
}
