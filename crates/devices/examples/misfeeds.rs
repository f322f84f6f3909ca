//! How near marks are found to where they lie, over many misfeeds, and whether a wrong sheet is ever taken for the right one:
//! `misfeeds SHEETS` writes two tables. Each sheet is printed with a shift, a turn, two scales and a bow of its own, and laid in askew.

use std::sync::atomic::{AtomicU64, Ordering};
use std::sync::{Mutex, PoisonError};

use aptum_core::geometry::Rect;
use aptum_core::rehearsal::{Day, Loading, Misfeed, Printing, Stretch};
use aptum_core::workshop::Margins;
use aptum_devices::cutter::{Asked, AskedCode, AskedMark, Bed, Eye, find};
use aptum_devices::printer::Printer;

#[path = "../tests/machines/page.rs"]
#[allow(dead_code, clippy::unwrap_used, reason = "the pages of the tests, which need more of it")]
mod page;

use page::{LETTER, angles, coded_page, crosses, dots, page as drawn};

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
            let each = each_of(sheets, &|seed| worst(&pdf, &marks, colour, (grain, blur), seed));
            let mut all: Vec<f64> = each.iter().copied().flatten().collect();
            let missed = each.len() - all.len();
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
    println!("\n| sheet in the cutter | sheets | taken | refused |");
    println!("|---|---|---|---|");
    for sheet in Wrong::ALL {
        let each = each_of(sheets, &|seed| sheet.is_taken(seed));
        let taken = each.iter().filter(|own| **own).count();
        println!("| {} | {sheets} | {taken} | {} |", sheet.name(), each.len() - taken);
    }
}

/// What comes of each seed, two at a time.
fn each_of<T: Send>(sheets: u64, make: &(dyn Fn(u64) -> T + Sync)) -> Vec<T> {
    let (next, all) = (AtomicU64::new(0), Mutex::new(Vec::new()));
    std::thread::scope(|threads| {
        for _ in 0..2 {
            threads.spawn(|| {
                loop {
                    let seed = next.fetch_add(1, Ordering::Relaxed);
                    if seed >= sheets {
                        return;
                    }
                    let own = make(seed);
                    all.lock().unwrap_or_else(PoisonError::into_inner).push(own);
                }
            });
        }
    });
    all.into_inner().unwrap_or_else(PoisonError::into_inner)
}

/// How a sheet is printed and laid in, the same for a seed.
fn askew(seed: u64, grain: f64, blur: f64) -> (Printing, Loading) {
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
    (printing, loading)
}

/// The mark that was found farthest from where it lies, mm; `None` where the sheet was refused.
fn worst(
    pdf: &[u8],
    marks: &[AskedMark],
    card: [u8; 3],
    (grain, blur): (f64, f64),
    seed: u64,
) -> Option<f64> {
    let (printing, loading) = askew(seed, grain, blur);
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

/// Where the code stands, at the foot of the sheet.
const CODE: Rect = Rect::new(90.0, 262.0, 101.6, 273.6);

/// The sheet that lies in the cutter, while sheets 1 to 3 of K7Q4M are asked for.
#[derive(Clone, Copy, PartialEq, Eq)]
enum Wrong {
    /// The right one.
    Right,
    /// Another job's, its code one letter away.
    OtherJob,
    /// Another sheet of the same job, which is cut otherwise.
    OtherSheet,
    /// The right one, by half a turn.
    Round,
    /// One with its marks elsewhere.
    OtherMarks,
    /// One with the same marks and no code.
    NoCode,
}

impl Wrong {
    const ALL: [Self; 6] = [
        Self::Right,
        Self::OtherJob,
        Self::OtherSheet,
        Self::Round,
        Self::OtherMarks,
        Self::NoCode,
    ];

    const fn name(self) -> &'static str {
        match self {
            Self::Right => "the right one",
            Self::OtherJob => "another job’s, its code one letter away",
            Self::OtherSheet => "another sheet of the job",
            Self::Round => "the right one, by half a turn",
            Self::OtherMarks => "one with its marks 5 mm further in",
            Self::NoCode => "one with the same marks and no code",
        }
    }

    fn is_taken(self, seed: u64) -> bool {
        let marks = angles();
        let further = |mut mark: AskedMark| {
            mark.at += aptum_core::geometry::Vec2::new(5.0 * mark.arms.0, 5.0 * mark.arms.1);
            mark
        };
        let code = |words| coded_page(&marks, Some((words, CODE)));
        let pdf = match self {
            Self::Right | Self::Round => code("K7Q4M/2"),
            Self::OtherJob => code("K7Q4N/2"),
            Self::OtherSheet => code("K7Q4M/4"),
            Self::NoCode => drawn(&marks),
            Self::OtherMarks => {
                let moved: Vec<AskedMark> = marks.iter().cloned().map(further).collect();
                coded_page(&moved, Some(("K7Q4M/2", CODE)))
            }
        };
        let (printing, loading) = askew(seed, 0.06, 0.08);
        let loading = Loading { is_turned_round: self == Self::Round, ..loading };
        let (margins, card) = (Margins::all(1.0), [250, 248, 244]);
        let printer = Printer { margins, ppi: 300.0, day: Day::True, seed, card };
        let Ok(sheet) = printer.print_as(&pdf, 0, printing) else { return false };
        let bed = Bed::new(&sheet.picture, loading.affine(LETTER));
        let code = AskedCode { place: CODE, code: "K7Q4M".to_owned(), first: 1, last: 3 };
        let asked =
            Asked { page: LETTER, marks, reach: 14.0, code: Some(code), ..Asked::default() };
        find(&mut Eye::new(&bed), &asked).is_ok()
    }
}
