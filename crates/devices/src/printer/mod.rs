//! The printer: takes a print file, and gives back a picture of the sheet as it came out.

mod raster;
mod roughen;
mod socket;

use aptum_core::geometry::{Point, Rect};
use aptum_core::rehearsal::{Day, Printing};
use aptum_core::workshop::Margins;

pub use raster::{PrinterError, page_size};
pub use socket::serve;

use crate::Picture;

/// Most pixels of a sheet, Letter and A4 at 600 in an inch; larger ones are printed less finely.
const MOST_PIXELS: f64 = 35e6;

/// Pixels in an inch that it may print.
pub const PPI: [u32; 2] = [300, 600];

/// A printer.
#[derive(Debug, Clone)]
pub struct Printer {
    /// What it cannot print on, of the sheet as it is drawn: `lead` is its top.
    pub margins: Margins,
    /// Pixels in an inch.
    pub ppi: f64,
    /// What it does to the sheet.
    pub day: Day,
    /// By which it errs: the same seed, the same errors.
    pub seed: u64,
    /// The colour of the card.
    pub card: [u8; 3],
}

/// A sheet that was printed.
#[derive(Debug, Clone)]
pub struct PrintedSheet {
    /// What it looks like, from the upper left corner of the paper.
    pub picture: Picture,
    /// What was done to it: to be looked at only afterwards.
    pub printing: Printing,
    /// The page of the file, mm.
    pub page: Rect,
}

impl Printer {
    /// Prints a page of a PDF, from 0.
    ///
    /// # Errors
    /// That the file cannot be read, has no such page, or asks for a page of no size.
    pub fn print(&self, pdf: &[u8], number: usize) -> Result<PrintedSheet, PrinterError> {
        let page = page_size(pdf, number)?;
        self.print_as(pdf, number, self.day.print(page, &self.margins, self.seed))
    }

    /// The same with what is done to it chosen.
    ///
    /// # Errors
    /// As [`print`](Self::print).
    pub fn print_as(
        &self,
        pdf: &[u8],
        number: usize,
        printing: Printing,
    ) -> Result<PrintedSheet, PrinterError> {
        let page = page_size(pdf, number)?;
        let paper = printing.paper;
        let fine = (self.ppi.clamp(72.0, 600.0) / 25.4)
            .min((MOST_PIXELS / paper.area().max(page.area())).sqrt());
        let drawn = raster::drawn(pdf, number, fine)?;
        let ink = self.margins.inside(paper).intersect(paper.inset(-printing.free));
        let mut picture = moved(&drawn, page, &printing, ink, self.card);
        roughen::blur(&mut picture, printing.blur);
        roughen::grain(&mut picture, printing.grain, self.seed);
        Ok(PrintedSheet { picture, printing, page })
    }
}

#[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "a page in pixels")]
fn pixels(mm: f64, fine: f64) -> usize {
    (mm * fine).round().max(1.0) as usize
}

/// Where pixels of the paper come from is worked out at every so many of them, and between by straight lines: the bow is so slow
/// that these stray by 10⁻⁵ mm.
const CELL: usize = 16;

/// The page as it comes to lie on the paper: each pixel of the paper looks up what was printed there. Ink darkens the card.
fn moved(drawn: &Picture, page: Rect, printing: &Printing, ink: Rect, card: [u8; 3]) -> Picture {
    let paper = printing.paper;
    let (width, height) = (pixels(paper.width(), drawn.fine), pixels(paper.height(), drawn.fine));
    let mut sheet = Picture::plain(width, height, drawn.fine, card);
    let origin = |x: usize, y: usize| {
        let place = Point::new((x as f64 + 0.5) / drawn.fine, (y as f64 + 0.5) / drawn.fine);
        printing.origin(place, page)
    };
    // Only what the printer reaches takes ink.
    let reached = |from: f64, to: f64, most: usize| {
        #[expect(
            clippy::cast_possible_truncation,
            clippy::cast_sign_loss,
            reason = "a page in pixels"
        )]
        let own = |mm: f64| ((mm * drawn.fine - 0.5).ceil().max(0.0) as usize).min(most);
        own(from)..own(to)
    };
    let (columns, rows) = (reached(ink.x0, ink.x1, width), reached(ink.y0, ink.y1, height));
    let cells = width.div_ceil(CELL) + 1;
    let band = |pixels: &mut [[u8; 3]], top: usize| {
        let nodes =
            |y: usize| -> Vec<Point> { (0..cells).map(|at| origin(at * CELL, y)).collect() };
        let (upper, lower) = (nodes(top), nodes(top + CELL));
        for (at, line) in pixels.chunks_mut(width).enumerate() {
            if !rows.contains(&(top + at)) {
                continue;
            }
            let down = at as f64 / CELL as f64;
            for x in columns.clone() {
                let (cell, right) = (x / CELL, (x % CELL) as f64 / CELL as f64);
                let left_edge = upper[cell].lerp(lower[cell], down);
                let right_edge = upper[cell + 1].lerp(lower[cell + 1], down);
                let from = left_edge.lerp(right_edge, right);
                line[x] = inked(drawn, from, card);
            }
        }
    };
    // Two threads, a band each in turn.
    let mut bands: Vec<(usize, &mut [[u8; 3]])> =
        sheet.pixels.chunks_mut(width * CELL).enumerate().collect();
    let half = bands.len() / 2;
    let mut rest = bands.split_off(half);
    std::thread::scope(|threads| {
        threads.spawn(|| bands.iter_mut().for_each(|(at, own)| band(own, *at * CELL)));
        rest.iter_mut().for_each(|(at, own)| band(own, *at * CELL));
    });
    sheet
}

/// What a place of the page makes of the card.
fn inked(drawn: &Picture, from: Point, card: [u8; 3]) -> [u8; 3] {
    let (x, y) = (from.x * drawn.fine - 0.5, from.y * drawn.fine - 0.5);
    let (left, top) = (x.floor(), y.floor());
    if !(left >= 0.0 && top >= 0.0) {
        return card;
    }
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "not negative")]
    let (column, row) = (left as usize, top as usize);
    if column + 1 >= drawn.width || row + 1 >= drawn.height {
        return card;
    }
    let at = row * drawn.width + column;
    let [a, b] = [drawn.pixels[at], drawn.pixels[at + 1]];
    let [c, d] = [drawn.pixels[at + drawn.width], drawn.pixels[at + drawn.width + 1]];
    if a == b && a == c && a == d {
        return if a == [255; 3] { card } else { darkened(a.map(f64::from), card) };
    }
    let (right, down) = (x - left, y - top);
    darkened(
        std::array::from_fn(|at| {
            let upper = f64::from(a[at]) * (1.0 - right) + f64::from(b[at]) * right;
            let lower = f64::from(c[at]) * (1.0 - right) + f64::from(d[at]) * right;
            upper * (1.0 - down) + lower * down
        }),
        card,
    )
}

#[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "0 to 255")]
fn darkened(ink: [f64; 3], card: [u8; 3]) -> [u8; 3] {
    std::array::from_fn(|at| (ink[at] * f64::from(card[at]) / 255.0).round() as u8)
}
