//! How near marks are found to where they lie, over many misfeeds: `misfeeds SHEETS` writes a table. Each sheet is printed with a
//! shift, a turn, two scales and a bow of its own, and laid in askew.

use aptum_core::rehearsal::{Day, Loading, Misfeed, Printing, Stretch};
use aptum_core::workshop::Margins;
use aptum_devices::cutter::{Asked, AskedMark, Bed, Eye, find};
use aptum_devices::printer::Printer;

#[path = "../tests/machines/page.rs"]
#[allow(dead_code, clippy::unwrap_used, reason = "the pages of the tests, which need more of it")]
mod page;

use page::{LETTER, angles, crosses, dots, page as drawn};

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
        let pdf = drawn(&marks);
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
