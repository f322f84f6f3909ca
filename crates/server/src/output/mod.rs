//! The files of a prepared job, the same for the page and for the command line: first what there is, then each
//! when it is asked for.

mod purpose;

use std::io::{self, Write};
use std::sync::Arc;

use aptum_core::blob::Blobs;
use aptum_core::check::{Check, Stage, State};
use aptum_core::face::{Art, Face, Side};
use aptum_core::tooling::{ToolPath, path_checks};
use aptum_core::workshop::Cutter;
use aptum_core::{Job, Prepared, PreparedPiece, Workshop};
use aptum_formats::art::{USUAL_PPI, art_svg, most_ppi, png, sheet_svg};
use aptum_formats::dxf::{flat_dxf, sheet_dxf};
use aptum_formats::fold::flat_fold;
use aptum_formats::folded::{folded_png, folded_svg};
use aptum_formats::gltf::folded_gltf;
use aptum_formats::marks::marks_svg;
use aptum_formats::obj::folded_obj;
use aptum_formats::pdf::{
    StepsWith, art_pdf, hand_cut_pdf, marks_pdf, plates, plates_pdf, print_pdf, steps_pdf,
    ticket_pdf,
};
use aptum_formats::svg::{MarksInCut, SvgUnits, cut_svg};

use crate::language::{Language, machine_name};
use crate::shelf::tool_path;

/// A file that a job has.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Output {
    /// Its name.
    pub name: String,
    /// Its pages.
    pub pages: u32,
    /// What it is.
    pub kind: OutputKind,
}

/// What a file is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum OutputKind {
    /// Art and marks.
    Print,
    /// The same, a page for each ink.
    Plates,
    /// Lines for a hand.
    HandCut,
    /// The lines of a sheet, and of those after it that are cut alike: the first and the last.
    Cut([u32; 2]),
    /// The same as DXF.
    CutDxf([u32; 2]),
    /// What its cutter is sent for one loading of a sheet, from 0, in its language.
    Machine([u32; 2], usize, Language),
    /// The lines of all sheets as processing steps.
    Steps,
    /// The same over art and marks.
    PrintSteps,
    /// One page to lay with the work.
    Ticket,
    /// The marks alone, as SVG.
    MarksSvg,
    /// The same as PDF.
    MarksPdf,
    /// The same as PNG, with the pixels in an inch.
    MarksPng(u32),
    /// The printed side of a sheet, and of those after it that are printed alike, as PNG: the first and the last, and
    /// the pixels in an inch.
    SheetPng([u32; 2], Side, u32),
    /// The art of a piece alone, as PDF; which piece, from 0.
    ArtPdf(usize),
    /// The art of a piece alone, as SVG.
    ArtSvg(usize, Side),
    /// The art of a piece alone, as PNG, with the pixels in an inch.
    ArtPng(usize, Side, u32),
    /// A piece laid flat, as DXF; which piece, from 0.
    FlatDxf(usize),
    /// A piece laid flat, as FOLD.
    FlatFold(usize),
    /// A piece closed, with what is printed on it, as SVG.
    FoldedSvg(usize),
    /// The same as PNG.
    FoldedPng(usize),
    /// A piece closed, as glTF.
    FoldedGltf(usize),
    /// A piece closed, as OBJ.
    FoldedObj(usize),
}

impl OutputKind {
    /// True for pictures, which are drawn only where they are asked for one by one.
    #[must_use]
    pub const fn is_picture(self) -> bool {
        matches!(
            self,
            Self::SheetPng(..) | Self::ArtPng(..) | Self::MarksPng(_) | Self::FoldedPng(_)
        )
    }
}

/// How often each sheet is loaded; 0 where nothing is worked.
#[must_use]
pub fn loadings(prepared: &Prepared) -> usize {
    let worked = prepared.operations.iter().filter(|own| !own.is_off);
    worked.map(|own| own.loading + 1).max().unwrap_or(0)
}

/// The cutter of a job.
#[must_use]
pub fn cutter_of<'a>(job: &Job, workshop: &'a Workshop) -> Option<&'a Cutter> {
    workshop.cutters.get(job.sheet.cutter.as_ref()?)
}

/// Every file that the job has, on its cutter.
#[must_use]
pub fn outputs(prepared: &Prepared, cutter: Option<&Cutter>) -> Vec<Output> {
    let sheets = prepared.layout.sheets();
    let file = |name: String, pages, kind| Output { name, pages, kind };
    let mut all = Vec::new();
    if prepared.is_printed() {
        let sides = if prepared.has_backs() { 2 } else { 1 };
        all.push(file("print.pdf".to_owned(), sides * sheets.max(1), OutputKind::Print));
        let plates = u32::try_from(plates(prepared)).unwrap_or(u32::MAX);
        if plates > sides && sheets > 0 {
            let name = "print-inks.pdf".to_owned();
            all.push(file(name, plates.saturating_mul(sheets), OutputKind::Plates));
        }
    }
    if sheets > 0 {
        all.push(file("steps.pdf".to_owned(), sheets, OutputKind::Steps));
        if prepared.is_printed() {
            all.push(file("print-steps.pdf".to_owned(), sheets, OutputKind::PrintSteps));
        }
    }
    if sheets > 0 {
        all.push(file("ticket.pdf".to_owned(), 1, OutputKind::Ticket));
    }
    let pages = prepared.hand_cut_pages();
    all.push(file("hand-cut.pdf".to_owned(), pages, OutputKind::HandCut));
    for [first, last] in prepared.layout.ranges().filter(|[first, last]| first <= last) {
        if prepared.is_printed() {
            let page = prepared.windows.page;
            let ppi = USUAL_PPI.min(most_ppi(page.width(), page.height()));
            // Where each copy wears a row of its own, no two sheets are alike.
            let rows = |art: Option<&Art>| art.is_some_and(|art| !art.by_row.is_empty());
            let differ = prepared.blanks().any(|blank| rows(blank.art) || rows(blank.back));
            let ranges: Vec<[u32; 2]> = if differ {
                (first..=last).map(|sheet| [sheet, sheet]).collect()
            } else {
                vec![[first, last]]
            };
            for range in ranges {
                let name = format!("print-{}.png", range[0]);
                all.push(file(name, 1, OutputKind::SheetPng(range, Side::Front, ppi)));
                if prepared.has_backs() {
                    let name = format!("print-{}-back.png", range[0]);
                    all.push(file(name, 1, OutputKind::SheetPng(range, Side::Back, ppi)));
                }
            }
        }
        all.push(file(format!("cut-{first}.svg"), 1, OutputKind::Cut([first, last])));
        all.push(file(format!("cut-{first}.dxf"), 1, OutputKind::CutDxf([first, last])));
        // A machine gets nothing while a limit of its work is broken.
        let is_sound = prepared.broken(Stage::Tooling).is_none();
        for language in Language::ALL {
            if !cutter.is_some_and(|cutter| is_sound && language.is_taken_by(cutter)) {
                continue;
            }
            for loading in 0..loadings(prepared) {
                let name = machine_name(first, loading, language);
                all.push(file(name, 1, OutputKind::Machine([first, last], loading, language)));
            }
        }
    }
    if !prepared.marks.marks.is_empty() {
        let page = prepared.windows.page;
        all.push(file("marks.svg".to_owned(), 1, OutputKind::MarksSvg));
        all.push(file("marks.pdf".to_owned(), 1, OutputKind::MarksPdf));
        let ppi = USUAL_PPI.min(most_ppi(page.width(), page.height()));
        all.push(file("marks.png".to_owned(), 1, OutputKind::MarksPng(ppi)));
    }
    for (piece, drawn) in prepared.pieces.iter().enumerate() {
        // The files of further pieces carry the piece's number.
        let number = if piece == 0 { String::new() } else { format!("{}-", piece + 1) };
        let mut add = |name: &str, kind| all.push(file(format!("{number}{name}"), 1, kind));
        if !drawn.arts.is_empty() {
            add("art.pdf", OutputKind::ArtPdf(piece));
            add("art.svg", OutputKind::ArtSvg(piece, Side::Front));
            let bounds = drawn.flat.bounds;
            let ppi = USUAL_PPI.min(most_ppi(bounds.width() + 20.0, bounds.height() + 20.0));
            add("art.png", OutputKind::ArtPng(piece, Side::Front, ppi));
            if drawn.back.is_some() {
                add("art-back.svg", OutputKind::ArtSvg(piece, Side::Back));
                add("art-back.png", OutputKind::ArtPng(piece, Side::Back, ppi));
            }
        }
        add("flat.dxf", OutputKind::FlatDxf(piece));
        let Some(fold) = &drawn.formed.fold else { continue };
        add("flat.fold", OutputKind::FlatFold(piece));
        if !fold.is_flat() {
            add("folded.svg", OutputKind::FoldedSvg(piece));
            add("folded.png", OutputKind::FoldedPng(piece));
            add("folded.gltf", OutputKind::FoldedGltf(piece));
            add("folded.obj", OutputKind::FoldedObj(piece));
        }
    }
    all
}

/// A prepared job, whose files can be written.
pub struct Desired<'a> {
    /// The job.
    pub job: &'a Job,
    /// The same, prepared.
    pub prepared: &'a Prepared,
    /// The records it uses, among others.
    pub workshop: &'a Workshop,
    /// Whether marks go into the cut files.
    pub marks: MarksInCut,
    /// What cut files in SVG are written in.
    pub units: SvgUnits,
    /// Where the pictures are.
    pub blobs: &'a dyn Blobs,
}

impl Desired<'_> {
    /// What keeps a file from a machine: its path leaves where cuts may lie.
    #[must_use]
    pub fn held_by(&self, kind: OutputKind) -> Option<Check> {
        let OutputKind::Machine([sheet, _], ..) = kind else { return None };
        let (path, cutter) = (self.path(sheet)?, cutter_of(self.job, self.workshop));
        let window = &self.prepared.windows.cut;
        let mut checks = path_checks(&path, cutter, window, self.job.unit).into_iter();
        checks.find(|check| check.state == State::Broken)
    }

    /// The path of the tools on a sheet, from 1.
    fn path(&self, sheet: u32) -> Option<Arc<ToolPath>> {
        let (run, _) = self.prepared.layout.run_of(sheet)?;
        tool_path(self.prepared, self.job, self.workshop, run)
    }

    /// The colour of the card that a piece is made of.
    fn card(&self, piece: &PreparedPiece) -> &str {
        let stock = self.workshop.stocks.get(&piece.job_piece.stock);
        stock.map_or("#ffffff", |stock| stock.colour.as_str())
    }

    /// Writes one of the job's [`outputs`].
    ///
    /// # Errors
    /// What `out` says, or that the job has no such file.
    pub fn write(&self, kind: OutputKind, out: &mut dyn Write) -> io::Result<()> {
        let Self { job, prepared, blobs, .. } = self;
        let none = || io::Error::new(io::ErrorKind::NotFound, "the job has no such file");
        let piece = |at: usize| prepared.pieces.get(at).ok_or_else(none);
        match kind {
            OutputKind::Print => print_pdf(job, prepared, *blobs, out),
            OutputKind::Plates => plates_pdf(job, prepared, *blobs, out),
            OutputKind::HandCut => hand_cut_pdf(job, prepared, *blobs, out),
            OutputKind::Cut([sheet, _]) => {
                let svg = cut_svg(job, prepared, sheet, self.marks, self.units).ok_or_else(none)?;
                out.write_all(svg.as_bytes())
            }
            OutputKind::CutDxf([sheet, _]) => {
                sheet_dxf(job, prepared, sheet, out).ok_or_else(none)?
            }
            OutputKind::Machine([sheet, _], loading, language) => {
                let path = self.path(sheet).ok_or_else(none)?;
                let cutter = cutter_of(job, self.workshop).ok_or_else(none)?;
                language.write(&path, loading, cutter, prepared.windows.page, out)
            }
            OutputKind::Steps => steps_pdf(job, prepared, StepsWith::Nothing, *blobs, out),
            OutputKind::PrintSteps => steps_pdf(job, prepared, StepsWith::Art, *blobs, out),
            OutputKind::Ticket => ticket_pdf(job, prepared, self.workshop, out),
            OutputKind::MarksSvg => out.write_all(marks_svg(job, prepared).as_bytes()),
            OutputKind::MarksPdf => marks_pdf(job, prepared, out),
            OutputKind::MarksPng(ppi) => {
                out.write_all(&png(&marks_svg(job, prepared), ppi.into(), true)?)
            }
            OutputKind::SheetPng([sheet, _], side, ppi) => {
                let svg = sheet_svg(job, prepared, sheet, side, *blobs).ok_or_else(none)?;
                out.write_all(&png(&svg, ppi.into(), true)?)
            }
            OutputKind::ArtPdf(at) => art_pdf(piece(at)?, *blobs, out),
            OutputKind::ArtSvg(at, side) => {
                out.write_all(art_svg(piece(at)?, side, *blobs).as_bytes())
            }
            OutputKind::ArtPng(at, side, ppi) => {
                out.write_all(&png(&art_svg(piece(at)?, side, *blobs), ppi.into(), false)?)
            }
            OutputKind::FlatDxf(at) => flat_dxf(piece(at)?, out),
            OutputKind::FlatFold(at) => {
                let drawn = piece(at)?;
                let fold = drawn.formed.fold.as_ref().ok_or_else(none)?;
                out.write_all(flat_fold(&drawn.name, &drawn.flat, fold).as_bytes())
            }
            OutputKind::FoldedSvg(at) => {
                let drawn = piece(at)?;
                let svg = folded_svg(drawn, self.card(drawn), *blobs).ok_or_else(none)?;
                out.write_all(svg.as_bytes())
            }
            OutputKind::FoldedPng(at) => {
                let drawn = piece(at)?;
                let png = folded_png(drawn, self.card(drawn), *blobs)?.ok_or_else(none)?;
                out.write_all(&png)
            }
            OutputKind::FoldedGltf(at) => {
                let drawn = piece(at)?;
                let fold = drawn.formed.fold.as_ref().ok_or_else(none)?;
                let card = self.card(drawn);
                let face = drawn.job_piece.face.as_ref();
                let printed = face.and_then(Face::colour).unwrap_or(card);
                out.write_all(folded_gltf(&drawn.name, fold, printed, card).as_bytes())
            }
            OutputKind::FoldedObj(at) => {
                let fold = piece(at)?.formed.fold.as_ref().ok_or_else(none)?;
                out.write_all(folded_obj(fold).as_bytes())
            }
        }
    }
}

/// Units to the inch in which cut files are written on request: `72`, `90`, `96`, `300`.
#[must_use]
pub fn units_wanted(word: Option<&str>) -> Option<SvgUnits> {
    match word {
        None | Some("mm") => Some(SvgUnits::Mm),
        Some(count) => {
            let count: f64 = count.parse().ok()?;
            aptum_core::lines::PER_INCH.contains(&count).then_some(SvgUnits::PerInch(count))
        }
    }
}

/// Marks go into a cut file only on request: `included`.
#[must_use]
pub fn marks_wanted(word: Option<&str>) -> MarksInCut {
    if word == Some("included") { MarksInCut::Included } else { MarksInCut::LeftOut }
}
