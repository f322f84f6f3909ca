//! How near marks are found to where they lie, over many misfeeds: `misfeeds SHEETS` writes a table. Each sheet is printed with a
//! shift, a turn, two scales and a bow of its own, and laid in askew.

use std::fmt::Write;

use aptum_core::geometry::Rect;
use aptum_core::rehearsal::{Day, Loading, Misfeed, Printing, Stretch};
use aptum_core::workshop::Margins;
use aptum_devices::cutter::{Asked, AskedMark, Bed, Eye, MarkKind, find};
use aptum_devices::printer::Printer;

const LETTER: Rect = Rect::new(0.0, 0.0, 215.9, 279.4);

/// A card and what is done to it: its name, its colour, grain as a share of black, blur in mm.
const CARDS: [(&str, [u8; 3], f64, f64); 3] = [
    ("clean", [255, 255, 255], 0.0, 0.0),
    ("grain and blur", [250, 248, 244], 0.06, 0.08),
    ("kraft, grain and blur", [178, 140, 98], 0.06, 0.08),
];

fn main() {
    let sheets = std::env::args().nth(1).and_then(|own| own.parse().ok()).unwrap_or(1000);
    println!(
        "| marks | card | sheets | not found | half within, mm | 99 of 100 within, mm | worst, mm |"
    );
    println!("|---|---|---|---|---|---|---|");
    for (name, marks) in [("angles", angles()), ("dots", dots()), ("crosses", crosses())] {
        let pdf = page(&marks);
        for (card, colour, grain, blur) in CARDS {
            let mut all = Vec::new();
            let mut missed = 0;
            for seed in 0..sheets {
                match worst(&pdf, &marks, colour, (grain, blur), seed) {
                    Some(own) => all.push(own),
                    None => missed += 1,
                }
            }
            all.sort_by(f64::total_cmp);
            let at = |share: f64| {
                #[expect(
                    clippy::cast_possible_truncation,
                    clippy::cast_sign_loss,
                    reason = "a share"
                )]
                let place = (share * (all.len().max(1) - 1) as f64).round() as usize;
                all.get(place).copied().unwrap_or(f64::NAN)
            };
            println!(
                "| {name} | {card} | {sheets} | {missed} | {:.4} | {:.4} | {:.4} |",
                at(0.5),
                at(0.99),
                at(1.0),
            );
        }
    }
}

/// The mark that was found farthest from where it lies, mm; `None` where the sheet was refused.
fn worst(
    pdf: &[u8],
    marks: &[AskedMark],
    card: [u8; 3],
    (grain, blur): (f64, f64),
    seed: u64,
) -> Option<f64> {
    let mut random = fastrand::Rng::with_seed(seed);
    let mut within = |most: f64| (random.f64() * 2.0 - 1.0) * most;
    let misfeed = Misfeed {
        shift: [within(1.0), within(1.0)],
        turn: within(0.3),
        across: 1.0 + within(0.005),
        along: 1.0 + within(0.005),
        skew: within(0.02),
        stretch: Stretch { across: within(0.1), along: within(0.1) },
    };
    let printing =
        Printing { paper: LETTER, misfeed, is_turned_round: false, free: 0.0, grain, blur };
    let loading = Loading {
        shift: [within(2.0), within(2.0)],
        turn: within(1.7),
        start: [within(1.0), within(1.0)],
        is_turned_round: false,
    };
    let printer = Printer { margins: Margins::all(1.0), ppi: 300.0, day: Day::True, seed, card };
    let sheet = printer.print_as(pdf, 0, printing).ok()?;
    let place = loading.affine(LETTER);
    let bed = Bed::new(&sheet.picture, place);
    let asked = Asked { page: LETTER, marks: marks.to_vec(), reach: 14.0, ..Asked::default() };
    let found = find(&mut Eye::new(&bed), &asked).ok()?;
    let off = marks.iter().zip(&found.seen);
    let off = off.map(|(mark, seen)| (place * printing.place(mark.at, LETTER)).distance(*seen));
    Some(off.fold(0.0, f64::max))
}

fn around(inset: f64, kind: MarkKind, size: f64, stroke: f64) -> Vec<AskedMark> {
    let at = LETTER.inset(-inset);
    [
        ((at.x0, at.y1), (1.0, -1.0)),
        ((at.x0, at.y0), (1.0, 1.0)),
        ((at.x1, at.y0), (-1.0, 1.0)),
        ((at.x1, at.y1), (-1.0, -1.0)),
    ]
    .map(|(at, arms)| AskedMark { at: at.into(), kind, size, stroke, is_odd: false, arms })
    .to_vec()
}

/// A quarter of an inch from the edges, arms of 10 mm and strokes of 1 mm (common practice).
fn angles() -> Vec<AskedMark> {
    around(6.35, MarkKind::Angle, 10.0, 1.0)
}

/// 5 mm across and 10 mm from the edges (common practice).
fn dots() -> Vec<AskedMark> {
    around(12.5, MarkKind::Dot, 5.0, 1.0)
}

fn crosses() -> Vec<AskedMark> {
    around(14.0, MarkKind::Cross, 8.0, 0.5)
}

/// A page of Letter with these marks, as a PDF.
fn page(marks: &[AskedMark]) -> Vec<u8> {
    let mut content = String::from("0 0 0 rg\n");
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
        let (sx, sy) = mark.arms;
        match mark.kind {
            MarkKind::Angle => area(
                &[(0.0, 0.0), (s, 0.0), (s, w), (w, w), (w, s), (0.0, s)]
                    .map(|(u, v)| (x + sx * u, y + sy * v)),
            ),
            MarkKind::Dot => {
                let ring = (0..720).map(|at| f64::from(at).to_radians() / 2.0);
                let ring = ring.map(|a| (x + s / 2.0 * a.cos(), y + s / 2.0 * a.sin()));
                area(&ring.collect::<Vec<_>>());
            }
            MarkKind::Cross => {
                let gap = w.max(s / 6.0);
                for (dx, dy) in [(1.0, 0.0), (0.0, 1.0), (-1.0, 0.0), (0.0, -1.0)] {
                    let place = |t: f64, side: f64| {
                        (x + dx * t - side * dy * w / 2.0, y + dy * t + side * dx * w / 2.0)
                    };
                    let half = s / 2.0;
                    area(&[place(gap, 1.0), place(half, 1.0), place(half, -1.0), place(gap, -1.0)]);
                }
            }
        }
    }
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
