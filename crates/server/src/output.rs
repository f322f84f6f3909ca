//! The files of a prepared job, the same for the page and for the command line.

use aptum_core::{Job, Prepared};
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

/// Every file, one after the other so that they need not be in memory together.
pub fn all<'a>(
    job: &'a Job,
    prepared: &'a Prepared,
    marks: MarksInCut,
) -> impl Iterator<Item = OutputFile> + 'a {
    let cuts =
        (1..=prepared.layout.sheets()).filter_map(move |number| cut(job, prepared, number, marks));
    print(job, prepared).into_iter().chain([hand_cut(job, prepared)]).chain(cuts)
}

/// Marks go into a cut file only on request: `included`.
#[must_use]
pub fn marks_wanted(word: Option<&str>) -> MarksInCut {
    if word == Some("included") { MarksInCut::Included } else { MarksInCut::LeftOut }
}
