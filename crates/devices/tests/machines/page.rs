//! Pages with marks, written as a PDF by hand: what Aptum's own writers make is tested elsewhere.

use std::fmt::Write;

use aptum_core::geometry::{Affine, Point, Rect};
use aptum_core::rehearsal::{Day, Loading};
use aptum_core::workshop::Margins;
use aptum_devices::cutter::{Asked, AskedMark, Bed, MarkKind};
use aptum_devices::printer::{PrintedSheet, Printer};

pub const LETTER: Rect = Rect::new(0.0, 0.0, 215.9, 279.4);

/// Angles of 10 mm a quarter of an inch from the edges, the first at the lower left (common practice).
pub fn angles() -> Vec<AskedMark> {
    let at = LETTER.inset(-6.35);
    [
        ((at.x0, at.y1), (1.0, -1.0)),
        ((at.x0, at.y0), (1.0, 1.0)),
        ((at.x1, at.y0), (-1.0, 1.0)),
        ((at.x1, at.y1), (-1.0, -1.0)),
    ]
    .map(|(at, arms)| mark(MarkKind::Angle, 10.0, 1.0, at.into(), arms))
    .to_vec()
}

/// Dots of 5 mm, 10 mm from the edges.
pub fn dots() -> Vec<AskedMark> {
    let at = LETTER.inset(-12.5);
    [(at.x0, at.y1), (at.x0, at.y0), (at.x1, at.y0), (at.x1, at.y1)]
        .map(|at| mark(MarkKind::Dot, 5.0, 1.0, at.into(), (1.0, 1.0)))
        .to_vec()
}

/// Open crosses of 8 mm, 10 mm from the edges.
pub fn crosses() -> Vec<AskedMark> {
    let at = LETTER.inset(-14.0);
    [(at.x0, at.y1), (at.x0, at.y0), (at.x1, at.y0), (at.x1, at.y1)]
        .map(|at| mark(MarkKind::Cross, 8.0, 0.5, at.into(), (1.0, 1.0)))
        .to_vec()
}

const fn mark(kind: MarkKind, size: f64, stroke: f64, at: Point, arms: (f64, f64)) -> AskedMark {
    AskedMark { at, kind, size, stroke, is_odd: false, arms }
}

pub fn asked(marks: Vec<AskedMark>) -> Asked {
    Asked { page: LETTER, marks, ..Asked::default() }
}

/// A page with these marks and some art between them.
pub fn page(marks: &[AskedMark]) -> Vec<u8> {
    coded_page(marks, None)
}

/// The same with a square code.
pub fn coded_page(marks: &[AskedMark], code: Option<(&str, Rect)>) -> Vec<u8> {
    let mut content = String::from("0.2 0.45 0.4 rg 170 220 270 360 re f\n0 0 0 rg\n");
    let unit = 72.0 / 25.4;
    let mut area = |points: &[(f64, f64)]| {
        for (at, (x, y)) in points.iter().enumerate() {
            let (x, y) = (x * unit, (LETTER.y1 - y) * unit);
            let _ = write!(content, "{x:.5} {y:.5} {} ", if at == 0 { "m" } else { "l" });
        }
        content.push_str("h f\n");
    };
    for mark in marks {
        let (x, y, s, w) = (mark.at.x, mark.at.y, mark.size, mark.stroke);
        match mark.kind {
            MarkKind::Angle => {
                let (sx, sy) = mark.arms;
                let own = [(0.0, 0.0), (s, 0.0), (s, w), (w, w), (w, s), (0.0, s)];
                area(&own.map(|(u, v)| (x + sx * u, y + sy * v)));
            }
            MarkKind::Dot => {
                let ring: Vec<_> = (0..720)
                    .map(|at| f64::from(at).to_radians() / 2.0)
                    .map(|a| (x + s / 2.0 * a.cos(), y + s / 2.0 * a.sin()))
                    .collect();
                area(&ring);
            }
            MarkKind::Cross => {
                let gap = w.max(s / 6.0);
                for (dx, dy) in [(1.0, 0.0), (0.0, 1.0), (-1.0, 0.0), (0.0, -1.0)] {
                    let (wx, wy) = (-dy * w / 2.0, dx * w / 2.0);
                    let place =
                        |t: f64, side: f64| (x + dx * t + side * wx, y + dy * t + side * wy);
                    area(&[
                        place(gap, 1.0),
                        place(s / 2.0, 1.0),
                        place(s / 2.0, -1.0),
                        place(gap, -1.0),
                    ]);
                }
            }
        }
    }
    if let Some((words, place)) = code {
        use qrcode::{Color, EcLevel, QrCode, Version};
        let own = QrCode::with_version(words, Version::Normal(1), EcLevel::M).unwrap();
        for (at, colour) in own.to_colors().into_iter().enumerate() {
            if colour == Color::Dark {
                let (column, row) = ((at % 21) as f64, (at / 21) as f64);
                let (x, y) = (place.x0 + 1.6 + column * 0.4, place.y0 + 1.6 + row * 0.4);
                area(&[(x, y), (x + 0.4, y), (x + 0.4, y + 0.4), (x, y + 0.4)]);
            }
        }
    }
    pdf(&content)
}

/// A PDF of one Letter page.
fn pdf(content: &str) -> Vec<u8> {
    let parts = [
        "<< /Type /Catalog /Pages 2 0 R >>".to_owned(),
        "<< /Type /Pages /Kids [3 0 R] /Count 1 >>".to_owned(),
        "<< /Type /Page /Parent 2 0 R /MediaBox [0 0 612 792] /Contents 4 0 R /Resources << >> >>"
            .to_owned(),
        format!("<< /Length {} >>\nstream\n{content}endstream", content.len()),
    ];
    let mut file = String::from("%PDF-1.7\n");
    let mut places = Vec::new();
    for (at, part) in parts.iter().enumerate() {
        places.push(file.len());
        let _ = write!(file, "{} 0 obj\n{part}\nendobj\n", at + 1);
    }
    let start = file.len();
    file.push_str("xref\n0 5\n0000000000 65535 f \n");
    for place in places {
        let _ = writeln!(file, "{place:010} 00000 n ");
    }
    let _ = write!(file, "trailer << /Size 5 /Root 1 0 R >>\nstartxref\n{start}\n%%EOF");
    file.into_bytes()
}

/// Printed on white card.
pub fn printed(pdf: &[u8], day: Day, seed: u64) -> PrintedSheet {
    printer(day, seed).print(pdf, 0).unwrap()
}

pub fn printer(day: Day, seed: u64) -> Printer {
    Printer { margins: Margins::all(1.0), ppi: 300.0, day, seed, card: [250, 248, 244] }
}

/// The sheet on the bed, and where the page's points really lie there.
pub fn loaded(sheet: &PrintedSheet, loading: &Loading) -> (Bed, impl Fn(Point) -> Point + use<>) {
    let place: Affine = loading.affine(sheet.printing.paper);
    let (printing, page) = (sheet.printing, sheet.page);
    (Bed::new(&sheet.picture, place), move |at| place * printing.place(at, page))
}
