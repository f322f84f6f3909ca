//! The files of a prepared job, the same for the page and for the command line: first what there is, then each
//! when it is asked for.

use aptum_core::{Job, Prepared, Workshop};
use aptum_formats::dxf::flat_dxf;
use aptum_formats::fold::flat_fold;
use aptum_formats::gltf::folded_gltf;
use aptum_formats::obj::folded_obj;
use aptum_formats::pdf::{hand_cut_pages, hand_cut_pdf, print_pdf};
use aptum_formats::svg::{MarksInCut, cut_svg};

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
    /// Lines for a hand.
    HandCut,
    /// The lines of a sheet, and of those after it that are cut alike: the first and the last.
    Cut([u32; 2]),
    /// A piece laid flat, as DXF; which piece, from 0.
    FlatDxf(usize),
    /// A piece laid flat, as FOLD.
    FlatFold(usize),
    /// A piece closed, as glTF.
    FoldedGltf(usize),
    /// A piece closed, as OBJ.
    FoldedObj(usize),
}

/// Every file that the job has.
#[must_use]
pub fn outputs(prepared: &Prepared) -> Vec<Output> {
    let sheets = prepared.layout.sheets();
    let file = |name: String, pages, kind| Output { name, pages, kind };
    let mut all = Vec::new();
    if prepared.is_printed() {
        all.push(file("print.pdf".to_owned(), sheets.max(1), OutputKind::Print));
    }
    let pages = hand_cut_pages(prepared);
    all.push(file("hand-cut.pdf".to_owned(), pages, OutputKind::HandCut));
    let mut first = 1;
    for run in prepared.layout.runs.iter().filter(|run| run.sheets > 0) {
        let last = first + run.sheets - 1;
        all.push(file(format!("cut-{first}.svg"), 1, OutputKind::Cut([first, last])));
        first = last + 1;
    }
    for (piece, drawn) in prepared.pieces.iter().enumerate() {
        // The files of further pieces carry the piece's number.
        let number = if piece == 0 { String::new() } else { format!("{}-", piece + 1) };
        let mut add = |name: &str, kind| all.push(file(format!("{number}{name}"), 1, kind));
        add("flat.dxf", OutputKind::FlatDxf(piece));
        add("flat.fold", OutputKind::FlatFold(piece));
        if !drawn.fold.is_flat() {
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
}

impl Desired<'_> {
    /// The bytes of a file; `None` for one that the job does not have.
    #[must_use]
    pub fn write(&self, kind: OutputKind) -> Option<Vec<u8>> {
        let Self { job, prepared, .. } = self;
        match kind {
            OutputKind::Print => print_pdf(job, prepared),
            OutputKind::HandCut => Some(hand_cut_pdf(job, prepared)),
            OutputKind::Cut([sheet, _]) => {
                cut_svg(job, prepared, sheet, self.marks).map(String::into_bytes)
            }
            OutputKind::FlatDxf(piece) => Some(flat_dxf(prepared.pieces.get(piece)?)),
            OutputKind::FlatFold(at) => {
                let name = job.pieces().nth(at)?.name.to_owned();
                Some(flat_fold(&name, prepared.pieces.get(at)?).into_bytes())
            }
            OutputKind::FoldedGltf(at) => {
                let (piece, drawn) = (job.pieces().nth(at)?, prepared.pieces.get(at)?);
                let card = self.workshop.stocks.get(piece.stock);
                let card = card.map_or("#ffffff", |stock| &stock.colour);
                let printed = piece.face.and_then(|face| face.colour.as_deref()).unwrap_or(card);
                Some(folded_gltf(piece.name, drawn, printed, card).into_bytes())
            }
            OutputKind::FoldedObj(piece) => {
                Some(folded_obj(prepared.pieces.get(piece)?).into_bytes())
            }
        }
    }
}

/// Marks go into a cut file only on request: `included`.
#[must_use]
pub fn marks_wanted(word: Option<&str>) -> MarksInCut {
    if word == Some("included") { MarksInCut::Included } else { MarksInCut::LeftOut }
}
