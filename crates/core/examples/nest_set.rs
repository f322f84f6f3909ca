//! Nests a set of shapes from a JSON file and prints what came of it, for `tools/reference/nesting.py`.
//!
//! `nest_set SET.json SECONDS [SEED]`. The file holds `width` and `height` of the window in mm, `spacing`,
//! `turns` in degrees, and `items`: each with its `points` and how many are wanted.

use std::sync::OnceLock;
use std::sync::atomic::{AtomicU64, Ordering};
use std::time::{Duration, Instant};

use aptum_core::geometry::{Point, Region, polygon};
use aptum_core::sheet::nest::{Found, NestAsk, NestBlank, Turns, Watch, nest};
use aptum_core::sheet::{Amount, Machines, Marks, Orientation, Piece, SheetRun};
use serde::Deserialize;

#[derive(Deserialize)]
struct Set {
    width: f64,
    height: f64,
    spacing: f64,
    turns: Vec<f64>,
    items: Vec<Item>,
}

#[derive(Deserialize)]
struct Item {
    points: Vec<(f64, f64)>,
    wanted: u32,
}

struct Clock {
    start: Instant,
    budget: Duration,
    first: OnceLock<Duration>,
    moves: AtomicU64,
}

impl Watch for Clock {
    fn go_on(&self) -> bool {
        self.moves.fetch_add(1, Ordering::Relaxed);
        self.start.elapsed() < self.budget
    }

    fn found(&self, found: &Found<'_>) {
        let _ = self.first.set(self.start.elapsed());
        if std::env::var_os("NEST_TRACE").is_some() {
            let copies: usize = found.runs.iter().map(|run| run.placements.len()).sum();
            eprintln!(
                "{:6.2} s  {} sheets, {copies} places",
                self.start.elapsed().as_secs_f64(),
                found.runs.len()
            );
        }
    }
}

fn main() {
    let arguments: Vec<String> = std::env::args().collect();
    let [_, file, seconds, ..] = arguments.as_slice() else {
        eprintln!("nest_set SET.json SECONDS [SEED]");
        std::process::exit(2);
    };
    let text = std::fs::read_to_string(file).expect("the set can be read");
    let set: Set = serde_json::from_str(&text).expect("the set is as described");
    let paths: Vec<_> = set
        .items
        .iter()
        .map(|item| {
            polygon(&item.points.iter().map(|(x, y)| Point::new(*x, *y)).collect::<Vec<_>>())
        })
        .collect();
    let pieces: Vec<Piece> =
        paths.iter().map(|path| Piece::new(path, &Region::empty()).expect("a polygon")).collect();
    let page = aptum_core::geometry::Rect::new(0.0, 0.0, set.width, set.height);
    let windows = Machines::default().windows(page, Orientation::Portrait, &Marks::default());
    let ask = NestAsk {
        blanks: pieces
            .iter()
            .zip(&set.items)
            .enumerate()
            .map(|(number, (piece, item))| NestBlank {
                number,
                piece,
                turns: Turns::These(set.turns.clone()),
                wanted: item.wanted,
            })
            .collect(),
        windows: &windows,
        spacing: set.spacing,
        locked: Vec::new(),
        amount: Amount::Wanted,
        seed: arguments.get(3).and_then(|seed| seed.parse().ok()).unwrap_or(1),
        effort: u64::MAX,
    };
    let budget = Duration::from_secs_f64(seconds.parse().expect("seconds"));
    let clock =
        Clock { start: Instant::now(), budget, first: OnceLock::new(), moves: AtomicU64::new(0) };
    let nested = nest(&ask, &clock);
    let foot = |run: &SheetRun| {
        let ends = run.placements.iter().map(|at| {
            use aptum_core::geometry::Shape;
            at.place(&paths[at.part]).bounding_box().y1
        });
        ends.fold(0.0, f64::max)
    };
    let sheets: u32 = nested.runs.iter().map(|run| run.sheets).sum();
    let first_copies: usize = nested.runs.first().map_or(0, |run| run.placements.len());
    let feet: Vec<f64> = nested.runs.iter().map(foot).collect();
    println!(
        "{}",
        serde_json::json!({
            "sheets": sheets,
            "on_first": first_copies,
            "feet": feet,
            "missing": nested.missing,
            "first_after": clock.first.get().map(|first| first.as_secs_f64()),
            "moves": clock.moves.load(Ordering::Relaxed),
            "seconds": clock.start.elapsed().as_secs_f64(),
        })
    );
}
