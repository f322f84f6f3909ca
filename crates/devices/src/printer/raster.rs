//! Pages of a PDF as pixels.

use aptum_core::geometry::Rect;
use hayro::hayro_interpret::InterpreterSettings;
use hayro::hayro_syntax::Pdf;
use hayro::{PixmapSettings, RenderCache, RenderSettings, render};

use crate::Picture;

/// Why nothing was printed.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
pub enum PrinterError {
    /// The bytes are no PDF.
    #[error("the printer cannot read the file: it takes PDF")]
    NoPdf,
    /// There are fewer pages.
    #[error("the file has {pages} pages, and no page {asked}")]
    NoPage {
        /// What was asked for, from 1.
        asked: usize,
        /// How many there are.
        pages: usize,
    },
    /// No such paper is made.
    #[error("the page is {width:.0} × {height:.0} mm: the printer takes 10 to 3000 mm each way")]
    NoPaper {
        /// Across, mm.
        width: f64,
        /// Along, mm.
        height: f64,
    },
}

/// Millimetres in a unit of user space (ISO 32000: 1/72 in).
const USER_UNIT: f64 = 25.4 / 72.0;

/// The size of a page, from 0, mm.
///
/// # Errors
/// As for printing.
pub fn page_size(pdf: &[u8], number: usize) -> Result<Rect, PrinterError> {
    let pdf = Pdf::new(pdf.to_vec()).map_err(|_| PrinterError::NoPdf)?;
    let pages = pdf.pages();
    let page =
        pages.get(number).ok_or(PrinterError::NoPage { asked: number + 1, pages: pages.len() })?;
    let (width, height) = page.render_dimensions();
    let [width, height] = [width, height].map(|side| f64::from(side) * USER_UNIT);
    if ![width, height].iter().all(|side| (10.0..=3000.0).contains(side)) {
        return Err(PrinterError::NoPaper { width, height });
    }
    Ok(Rect::new(0.0, 0.0, width, height))
}

/// How many pages a file has.
pub(super) fn page_count(pdf: &[u8]) -> Result<usize, PrinterError> {
    let pdf = Pdf::new(pdf.to_vec()).map_err(|_| PrinterError::NoPdf)?;
    Ok(pdf.pages().len())
}

/// A page on white, at so many pixels in a millimetre.
pub(super) fn drawn(pdf: &[u8], number: usize, fine: f64) -> Result<Picture, PrinterError> {
    let pdf = Pdf::new(pdf.to_vec()).map_err(|_| PrinterError::NoPdf)?;
    let pages = pdf.pages();
    let page =
        pages.get(number).ok_or(PrinterError::NoPage { asked: number + 1, pages: pages.len() })?;
    #[expect(clippy::cast_possible_truncation, reason = "a scale of a few units")]
    let scale = (fine * USER_UNIT) as f32;
    let fineness = PixmapSettings { x_scale: scale, y_scale: scale, ..PixmapSettings::default() };
    let (reading, drawing) = (InterpreterSettings::default(), RenderSettings::default());
    let pixmap = render(page, &RenderCache::new(), &reading, &drawing, &fineness);
    let on_white = |channel: u8, alpha: u8| channel.saturating_add(255 - alpha);
    let pixels = pixmap
        .data()
        .iter()
        .map(|own| [on_white(own.r, own.a), on_white(own.g, own.a), on_white(own.b, own.a)]);
    Ok(Picture {
        width: pixmap.width().into(),
        height: pixmap.height().into(),
        fine,
        pixels: pixels.collect(),
    })
}
