//! The files of a prepared job, the same for the page and for the command line.

use aptum_core::{Job, Prepared, Workshop};
use aptum_formats::dxf::flat_dxf;
use aptum_formats::fold::flat_fold;
use aptum_formats::gltf::folded_gltf;
use aptum_formats::obj::folded_obj;
use aptum_formats::pdf::{hand_cut_pages, hand_cut_pdf, print_pdf};
use aptum_formats::svg::{MarksInCut, cut_svg};

/// A file in memory.
pub struct OutputFile {
    /// Its name.
    pub name: String,
    /// Its bytes.
    pub bytes: Vec<u8>,
    /// Its pages.
    pub pages: u32,
}

/// The print PDF, unless the job is only cut.
#[must_use]
pub fn print(job: &Job, prepared: &Prepared) -> Option<OutputFile> {
    let bytes = print_pdf(job, prepared)?;
    Some(OutputFile { name: "print.pdf".to_owned(), bytes, pages: prepared.layout.sheets().max(1) })
}

/// The hand-cut PDF.
#[must_use]
pub fn hand_cut(job: &Job, prepared: &Prepared) -> OutputFile {
    let bytes = hand_cut_pdf(job, prepared);
    OutputFile { name: "hand-cut.pdf".to_owned(), bytes, pages: hand_cut_pages(prepared) }
}

/// The cut SVG of sheet `number`, from 1.
#[must_use]
pub fn cut(job: &Job, prepared: &Prepared, number: u32, marks: MarksInCut) -> Option<OutputFile> {
    let svg = cut_svg(job, prepared, number, marks)?;
    Some(OutputFile { name: format!("cut-{number}.svg"), bytes: svg.into_bytes(), pages: 1 })
}

/// The pieces themselves: each one's flat, and, where it folds, the closed piece in its card's colour. The
/// files of further pieces carry the piece's number.
pub fn pieces<'a>(
    job: &'a Job,
    prepared: &'a Prepared,
    workshop: &'a Workshop,
) -> impl Iterator<Item = OutputFile> + 'a {
    job.pieces().zip(&prepared.pieces).enumerate().flat_map(|(at, (piece, drawn))| {
        let number = if at == 0 { String::new() } else { format!("{}-", at + 1) };
        let file = |name: &str, bytes: Vec<u8>| OutputFile {
            name: format!("{number}{name}"),
            bytes,
            pages: 1,
        };
        let card = workshop.stocks.get(piece.stock).map_or("#ffffff", |stock| &stock.colour);
        let printed = piece.face.and_then(|face| face.colour.as_deref()).unwrap_or(card);
        let mut files = vec![
            file("flat.dxf", flat_dxf(drawn)),
            file("flat.fold", flat_fold(piece.name, drawn).into_bytes()),
        ];
        if !drawn.fold.is_flat() {
            let gltf = folded_gltf(piece.name, drawn, printed, card);
            files.push(file("folded.gltf", gltf.into_bytes()));
            files.push(file("folded.obj", folded_obj(drawn).into_bytes()));
        }
        files
    })
}

/// Every file, one after the other so that they need not be in memory together.
pub fn all<'a>(
    job: &'a Job,
    prepared: &'a Prepared,
    workshop: &'a Workshop,
    marks: MarksInCut,
) -> impl Iterator<Item = OutputFile> + 'a {
    let cuts =
        (1..=prepared.layout.sheets()).filter_map(move |number| cut(job, prepared, number, marks));
    print(job, prepared)
        .into_iter()
        .chain([hand_cut(job, prepared)])
        .chain(cuts)
        .chain(pieces(job, prepared, workshop))
}

/// Marks go into a cut file only on request: `included`.
#[must_use]
pub fn marks_wanted(word: Option<&str>) -> MarksInCut {
    if word == Some("included") { MarksInCut::Included } else { MarksInCut::LeftOut }
}
