//! The files of a prepared job, the same for the page and for the command line.

use aptum_core::{Job, Prepared};
use aptum_formats::dxf::flat_dxf;
use aptum_formats::fold::flat_fold;
use aptum_formats::gltf::folded_gltf;
use aptum_formats::obj::folded_obj;
use aptum_formats::pdf::{hand_cut_pdf, print_pdf};
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
    OutputFile { name: "hand-cut.pdf".to_owned(), bytes, pages: prepared.layout.sheets().max(1) }
}

/// The cut SVG of sheet `number`, from 1.
#[must_use]
pub fn cut(job: &Job, prepared: &Prepared, number: u32, marks: MarksInCut) -> Option<OutputFile> {
    let svg = cut_svg(job, prepared, number, marks)?;
    Some(OutputFile { name: format!("cut-{number}.svg"), bytes: svg.into_bytes(), pages: 1 })
}

/// The piece itself: its flat, and, where it folds, the closed piece in card of `colour`.
pub fn piece<'a>(
    job: &'a Job,
    prepared: &'a Prepared,
    colour: &'a str,
) -> impl Iterator<Item = OutputFile> + 'a {
    let folds = !prepared.fold.is_flat();
    let file = |name: &str, bytes: Vec<u8>| OutputFile { name: name.to_owned(), bytes, pages: 1 };
    let flat = [
        file("flat.dxf", flat_dxf(prepared)),
        file("flat.fold", flat_fold(&job.name, prepared).into_bytes()),
    ];
    let printed = job.face.as_ref().and_then(|face| face.colour.as_deref()).unwrap_or(colour);
    let folded = folds.then(|| {
        [
            file("folded.gltf", folded_gltf(&job.name, prepared, printed, colour).into_bytes()),
            file("folded.obj", folded_obj(prepared).into_bytes()),
        ]
    });
    flat.into_iter().chain(folded.into_iter().flatten())
}

/// Every file, one after the other so that they need not be in memory together.
pub fn all<'a>(
    job: &'a Job,
    prepared: &'a Prepared,
    colour: &'a str,
    marks: MarksInCut,
) -> impl Iterator<Item = OutputFile> + 'a {
    let cuts =
        (1..=prepared.layout.sheets()).filter_map(move |number| cut(job, prepared, number, marks));
    print(job, prepared)
        .into_iter()
        .chain([hand_cut(job, prepared)])
        .chain(cuts)
        .chain(piece(job, prepared, colour))
}

/// Marks go into a cut file only on request: `included`.
#[must_use]
pub fn marks_wanted(word: Option<&str>) -> MarksInCut {
    if word == Some("included") { MarksInCut::Included } else { MarksInCut::LeftOut }
}
