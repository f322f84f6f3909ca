//! Nesting, judged by geo’s distances and polygon algebra, of which the search uses neither.

use std::sync::atomic::{AtomicU32, Ordering};

use aptum_core::geometry::{BezPath, Outline, Point, Rect, Region, circle, polygon};
use aptum_core::sheet::nest::{Found, NestAsk, NestBlank, Nested, ToTheEnd, Turns, Watch, nest};
use aptum_core::sheet::{
    Amount, Machines, Marks, Orientation, Piece, Placement, SheetRun, Window, Windows,
    rows_and_columns,
};
use geo::{Distance, Euclidean};
use proptest::prelude::*;

const INCH: f64 = 25.4;
const QUARTERS: [f64; 4] = [0.0, 90.0, 180.0, 270.0];

fn bare(width: f64, height: f64) -> Windows {
    let page = Rect::new(0.0, 0.0, width, height);
    Machines::default().windows(page, Orientation::Portrait, &Marks::default())
}

/// A window with parts taken out of it.
fn bitten(width: f64, height: f64, bites: &[Rect]) -> Windows {
    let windows = bare(width, height);
    let mut cut = windows.cut.clone();
    for bite in bites {
        let bite = Region::rect(*bite);
        cut = Window {
            obstacles: cut.obstacles.into_iter().chain(Outline::of_region(&bite)).collect(),
            region: cut.region.minus(&bite),
            ..cut
        };
    }
    Windows { cut, ..windows }
}

fn shape(points: &[(f64, f64)]) -> BezPath {
    polygon(&points.iter().map(|(x, y)| Point::new(*x, *y)).collect::<Vec<_>>())
}

fn tee() -> BezPath {
    shape(&[
        (0.0, 0.0),
        (50.0, 0.0),
        (50.0, 14.0),
        (32.0, 14.0),
        (32.0, 44.0),
        (18.0, 44.0),
        (18.0, 14.0),
        (0.0, 14.0),
    ])
}

fn ell() -> BezPath {
    shape(&[(0.0, 0.0), (60.0, 0.0), (60.0, 14.0), (14.0, 14.0), (14.0, 40.0), (0.0, 40.0)])
}

struct Case {
    paths: Vec<BezPath>,
    wanted: Vec<u32>,
    turns: Turns,
    windows: Windows,
    spacing: f64,
    effort: u64,
    seed: u32,
    amount: Amount,
    locked: Vec<SheetRun>,
}

impl Case {
    fn new(windows: Windows, pieces: &[(BezPath, u32)]) -> Self {
        Self {
            paths: pieces.iter().map(|(path, _)| path.clone()).collect(),
            wanted: pieces.iter().map(|(_, wanted)| *wanted).collect(),
            turns: Turns::These(QUARTERS.to_vec()),
            windows,
            spacing: 2.0,
            effort: 400,
            seed: 1,
            amount: Amount::Wanted,
            locked: Vec::new(),
        }
    }

    fn nest_watched(&self, watch: &dyn Watch) -> Nested {
        let pieces: Vec<Piece> =
            self.paths.iter().map(|path| Piece::new(path, &Region::empty()).unwrap()).collect();
        let ask = NestAsk {
            blanks: pieces
                .iter()
                .zip(&self.wanted)
                .enumerate()
                .map(|(number, (piece, wanted))| NestBlank {
                    number,
                    piece,
                    turns: self.turns.clone(),
                    wanted: *wanted,
                })
                .collect(),
            windows: &self.windows,
            spacing: self.spacing,
            locked: self.locked.clone(),
            amount: self.amount,
            seed: self.seed,
            effort: self.effort,
        };
        nest(&ask, watch)
    }

    fn nest(&self) -> Nested {
        let nested = self.nest_watched(&ToTheEnd);
        self.judge(&nested);
        nested
    }

    /// Nothing overlaps, keeps too little distance or lies outside, by more than 0.01 mm; nothing is lost.
    fn judge(&self, nested: &Nested) {
        for run in &nested.runs {
            let copies: Vec<Region> = run
                .placements
                .iter()
                .map(|at| Region::inside(&at.place(&self.paths[at.part])))
                .collect();
            let window = self.windows.cut.region.kept_clear(0.01);
            for (at, copy) in copies.iter().enumerate() {
                // The algebra leaves slivers some nanometres wide along edges, which are no part of it.
                let outside = copy.minus(&window).shrunk(0.000_1).area();
                assert!(outside < 1e-9, "{outside} mm² outside: {:?}", run.placements[at]);
                for other in &copies[at + 1..] {
                    let (one, other) = (copy.polygons(), other.polygons());
                    let gap = Euclidean.distance(one, other);
                    assert!(gap >= self.spacing - 0.01, "{gap} mm apart");
                    if gap == 0.0 {
                        let common = copy.intersection(&Region::inside(&path_of(other))).area();
                        assert!(common < 0.01 * copy.bounds().unwrap().width(), "{common} mm²");
                    }
                }
            }
        }
        for (number, wanted) in self.wanted.iter().enumerate() {
            let laid: u32 = nested.runs.iter().map(|run| run.sheets * run.count(number)).sum();
            let missing = nested.missing[number];
            match self.amount {
                Amount::Wanted => assert_eq!(laid + missing, *wanted),
                Amount::FillSheets => assert!(laid + missing >= *wanted),
            }
        }
    }
}

fn path_of(polygons: &geo::MultiPolygon<f64>) -> BezPath {
    let mut path = BezPath::new();
    for part in polygons {
        let ring: Vec<Point> = part.exterior().coords().map(|c| Point::new(c.x, c.y)).collect();
        path.extend(polygon(&ring).iter());
    }
    path
}

fn sheets(nested: &Nested) -> u32 {
    nested.runs.iter().map(|run| run.sheets).sum()
}

fn on_first(nested: &Nested) -> usize {
    nested.runs[0].placements.len()
}

/// Arithmetic: staggered rows of discs are √3/2 of their pitch apart, so that 100 × 100 holds eleven rows of ten
/// and nine in turn where rows and columns hold 100; and rounds of 1.5 in, 2 mm apart, in a desktop machine’s
/// window on Letter (6.75 × 9.25 in, common practice) are 21 to a sheet where rows and columns hold 20.
#[test]
fn discs_lie_in_staggered_rows() {
    for (radius, spacing, window, fits) in [
        (5.0, 0.0, (100.1, 100.1), 105),
        (0.75 * INCH, 2.0, (6.75 * INCH, 9.25 * INCH), 21),
        (0.75 * INCH, 1.27, (6.75 * INCH, 9.25 * INCH), 24),
    ] {
        let disc = circle(Point::new(radius, radius), radius);
        let mut case = Case::new(bare(window.0, window.1), &[(disc, 500)]);
        case.spacing = spacing;
        case.effort = 0;
        let nested = case.nest();
        assert!(on_first(&nested) >= fits, "{radius}: {}", on_first(&nested));
        // No packing is denser than π/√12 (Thue 1910), counted with the half spacing around each disc.
        let rim = radius + spacing / 2.0;
        let area = (window.0 + spacing) * (window.1 + spacing);
        let most = area * std::f64::consts::PI / 12_f64.sqrt() / (std::f64::consts::PI * rim * rim);
        assert!(f64::from(u32::try_from(on_first(&nested)).unwrap()) <= most);
    }
}

/// Common practice: what rows and columns hold, nesting holds too.
#[test]
fn the_counts_of_practice_hold() {
    for (width, height, fits) in [(6.0, 5.86, 1), (4.5, 4.4, 2), (4.0, 6.0, 2)] {
        let piece = shape(&[
            (0.0, 0.0),
            (width * INCH, 0.0),
            (width * INCH, height * INCH),
            (0.0, height * INCH),
        ]);
        let case = Case::new(bare(6.75 * INCH, 9.25 * INCH), &[(piece, 10)]);
        assert_eq!(on_first(&case.nest()), fits, "{width} × {height} in");
    }
}

/// Arithmetic: two equal right triangles make a rectangle, so 100 × 100 holds 2 × 5 × 2 of 50 × 20.
#[test]
fn shapes_interlock() {
    let triangle = shape(&[(0.0, 0.0), (50.0, 0.0), (0.0, 20.0)]);
    let mut case = Case::new(bare(100.0, 100.0), &[(triangle, 40)]);
    case.spacing = 0.0;
    case.effort = 0;
    assert_eq!(on_first(&case.nest()), 20);
    // Tees interlock where their bounds do not.
    let mut tees = Case::new(bare(190.0, 260.0), &[(tee(), 99)]);
    tees.effort = 0;
    let piece = Piece::new(&tee(), &Region::empty()).unwrap();
    let rows = rows_and_columns(&piece, &tees.windows, &QUARTERS, 2.0, 99).per_sheet as usize;
    assert!(on_first(&tees.nest()) >= rows + 4, "{rows} in rows");
}

#[test]
fn the_same_seed_gives_the_same_layout_and_more_effort_never_a_worse_one() {
    let pieces = [(tee(), 9), (ell(), 9), (circle(Point::new(12.0, 12.0), 12.0), 8)];
    let mut case = Case::new(bare(190.0, 200.0), &pieces);
    let (once, again) = (case.nest(), case.nest());
    assert_eq!(once, again);
    assert!(once.is_complete);
    case.effort = 0;
    let first = case.nest();
    let foot = |nested: &Nested| {
        let run = nested.runs.last().unwrap();
        let ends = run.placements.iter().map(|at| {
            use aptum_core::geometry::Shape;
            at.place(&case.paths[at.part]).bounding_box().y1
        });
        (sheets(nested), ends.fold(0.0, f64::max))
    };
    assert!(foot(&once) <= foot(&first), "{:?} {:?}", foot(&once), foot(&first));
    case.seed = 2;
    case.effort = 400;
    assert_ne!(case.nest().runs, once.runs);
}

struct StopAfter(AtomicU32, AtomicU32);

impl Watch for StopAfter {
    fn go_on(&self) -> bool {
        self.0
            .fetch_update(Ordering::Relaxed, Ordering::Relaxed, |left| left.checked_sub(1))
            .is_ok()
    }

    fn found(&self, found: &Found<'_>) {
        assert!(!found.runs.is_empty() && (0.0..=1.0).contains(&found.done));
        self.1.fetch_add(1, Ordering::Relaxed);
    }
}

#[test]
fn a_search_that_is_stopped_keeps_what_it_has() {
    let case = Case::new(bare(190.0, 200.0), &[(tee(), 9), (ell(), 9)]);
    let watch = StopAfter(AtomicU32::new(30), AtomicU32::new(0));
    let nested = case.nest_watched(&watch);
    case.judge(&nested);
    assert_eq!(nested.missing, [0, 0]);
    assert!(!nested.is_complete);
    assert!(watch.1.load(Ordering::Relaxed) >= 1, "somebody was told");
}

#[test]
fn locked_copies_stay_and_the_others_keep_off() {
    let locked = [
        Placement { x: 70.0, y: 80.0, turn: 33.0, locked: true, ..Placement::default() },
        Placement { part: 1, x: 20.0, y: 20.0, turn: 0.0, locked: true, ..Placement::default() },
    ];
    let mut case = Case::new(bare(190.0, 200.0), &[(tee(), 8), (ell(), 8)]);
    case.locked = vec![SheetRun { sheets: 1, placements: locked.to_vec() }];
    let nested = case.nest();
    assert_eq!(nested.missing, [0, 0]);
    for at in &locked {
        let kept =
            nested.runs[0].placements.iter().find(|other| other.locked && other.part == at.part);
        let kept = kept.unwrap();
        assert!((kept.x - at.x).abs() < 1e-9 && (kept.y - at.y).abs() < 1e-9);
        assert_eq!(kept.turn, at.turn);
    }
}

#[test]
fn a_window_in_several_parts_is_used_in_all_of_them() {
    // A bar across the middle leaves two parts, a block in one of them a hole.
    let bites = [Rect::new(0.0, 95.0, 150.0, 105.0), Rect::new(60.0, 30.0, 90.0, 60.0)];
    let case = Case::new(bitten(150.0, 200.0, &bites), &[(tee(), 10)]);
    let nested = case.nest();
    let run = &nested.runs[0];
    let above = run.placements.iter().filter(|at| at.y < 95.0).count();
    assert!(above >= 2 && run.placements.len() - above >= 3, "{:?}", run.placements);
    let none =
        Case::new(bitten(100.0, 100.0, &[Rect::new(-1.0, -1.0, 101.0, 101.0)]), &[(tee(), 3)]);
    assert_eq!(none.nest().missing, [3]);
}

#[test]
fn what_fits_nowhere_is_missing_and_the_rest_is_laid() {
    let huge = shape(&[(0.0, 0.0), (400.0, 0.0), (400.0, 30.0), (0.0, 30.0)]);
    let nested = Case::new(bare(190.0, 200.0), &[(huge, 2), (ell(), 5)]).nest();
    assert_eq!(nested.missing, [2, 0]);
    let page = Rect::new(0.0, 0.0, 0.0, 100.0);
    let windows = Machines::default().windows(page, Orientation::Portrait, &Marks::default());
    assert_eq!(Case::new(windows, &[(ell(), 5)]).nest().missing, [5], "a window without area");
}

#[test]
fn ten_thousand_copies_are_a_few_kinds_of_sheets() {
    let mut case = Case::new(bare(190.0, 260.0), &[(tee(), 10_000), (ell(), 10_000)]);
    case.effort = 40;
    let nested = case.nest();
    assert_eq!(nested.missing, [0, 0]);
    assert!(nested.runs.len() < 12, "{} kinds", nested.runs.len());
    let mut alone = Case::new(bare(190.0, 260.0), &[(tee(), 10_000)]);
    alone.effort = 0;
    assert!(alone.nest().runs.len() <= 2);
}

#[test]
fn filled_sheets_hold_more_than_was_wanted() {
    let mut case = Case::new(bare(190.0, 200.0), &[(tee(), 2), (ell(), 1)]);
    case.amount = Amount::FillSheets;
    case.effort = 100;
    let nested = case.nest();
    assert_eq!(sheets(&nested), 1);
    assert!(nested.runs[0].count(0) > 4 && nested.runs[0].count(1) > 4);
}

#[test]
fn the_last_sheet_is_filled_also_when_pressing_has_emptied_another() {
    // A lattice has 25 of these on a sheet; one more fits when they are pressed.
    let mut case = Case::new(bare(190.0, 260.0), &[(tee(), 26)]);
    case.effort = 0;
    assert_eq!(sheets(&case.nest()), 2);
    case.effort = 4000;
    assert_eq!(sheets(&case.nest()), 1);
    case.amount = Amount::FillSheets;
    let nested = case.nest();
    assert_eq!(sheets(&nested), 1);
    assert!(on_first(&nested) > 26, "{}", on_first(&nested));
}

#[test]
fn art_keeps_inside_what_the_printer_prints() {
    let windows = bare(200.0, 200.0);
    let inner = Rect::new(20.0, 20.0, 180.0, 180.0);
    let print = Window { base: inner, obstacles: Vec::new(), region: Region::rect(inner) };
    let windows = Windows { print, ..windows };
    // A strip whose right half is printed: only its bare half may leave the print window.
    let strip = shape(&[(0.0, 0.0), (80.0, 0.0), (80.0, 20.0), (0.0, 20.0)]);
    let art = Region::rect(Rect::new(40.0, 0.0, 80.0, 20.0));
    let piece = Piece::new(&strip, &art).unwrap();
    let ask = NestAsk {
        blanks: vec![NestBlank {
            number: 0,
            piece: &piece,
            turns: Turns::These(vec![0.0, 180.0]),
            wanted: 30,
        }],
        windows: &windows,
        spacing: 1.0,
        locked: Vec::new(),
        amount: Amount::Wanted,
        seed: 1,
        effort: 200,
    };
    let nested = nest(&ask, &ToTheEnd);
    let bounds: Vec<Rect> = nested.runs[0]
        .placements
        .iter()
        .map(|at| at.transform().transform_rect_bbox(Rect::new(40.0, 0.0, 80.0, 20.0)))
        .collect();
    assert!(bounds.len() >= 14, "{}", bounds.len());
    assert!(
        bounds.iter().all(|art| inner.inflate(0.01, 0.01).union(*art) == inner.inflate(0.01, 0.01))
    );
}

/// A star-shaped polygon with so many corners.
fn star(radii: &[f64], size: f64) -> BezPath {
    let step = std::f64::consts::TAU / f64::from(u32::try_from(radii.len()).unwrap());
    let points: Vec<(f64, f64)> = radii
        .iter()
        .zip(0_u32..)
        .map(|(radius, at)| {
            let (sin, cos) = (f64::from(at) * step).sin_cos();
            (size * radius * cos, size * radius * sin)
        })
        .collect();
    shape(&points)
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(40))]
    /// Over random pieces, windows, bites, spacings and ways of turning: judged in `Case::judge`.
    #[test]
    fn no_copy_overlaps_or_lies_outside(
        shapes in prop::collection::vec((prop::collection::vec(0.35..1.0f64, 5..12), 8.0..30.0f64, 1..7u32), 1..4),
        width in 90.0..220.0f64, height in 90.0..260.0f64,
        bites in prop::collection::vec((0.0..1.0f64, 0.0..1.0f64, 5.0..40.0f64, 5.0..40.0f64), 0..3),
        spacing in prop_oneof![Just(0.0), 0.2..5.0f64],
        free in any::<bool>(), seed in 0..1000u32,
    ) {
        let bites: Vec<Rect> = bites
            .iter()
            .map(|(x, y, w, h)| Rect::from_origin_size((x * width, y * height), (*w, *h)))
            .collect();
        let pieces: Vec<(BezPath, u32)> =
            shapes.iter().map(|(radii, size, wanted)| (star(radii, *size), *wanted)).collect();
        let mut case = Case::new(bitten(width, height, &bites), &pieces);
        case.spacing = spacing;
        case.seed = seed;
        case.effort = 60;
        if free {
            case.turns = Turns::Any;
        }
        case.nest();
    }

    /// One piece: never fewer on a sheet than rows and columns hold, and only turned as is allowed.
    #[test]
    fn nesting_never_holds_fewer_than_rows_and_columns(
        radii in prop::collection::vec(0.35..1.0f64, 5..12), size in 8.0..40.0f64,
        width in 80.0..220.0f64, height in 80.0..260.0f64, spacing in 0.0..5.0f64,
        turns in prop::sample::select(vec![vec![0.0], vec![0.0, 180.0], QUARTERS.to_vec()]),
    ) {
        let path = star(&radii, size);
        let mut case = Case::new(bare(width, height), &[(path.clone(), 2000)]);
        case.turns = Turns::These(turns.clone());
        case.spacing = spacing;
        case.effort = 0;
        let nested = case.nest();
        let piece = Piece::new(&path, &Region::empty()).unwrap();
        let rows = rows_and_columns(&piece, &case.windows, &turns, spacing, 1).per_sheet as usize;
        prop_assert!(nested.runs.first().map_or(0, |run| run.placements.len()) >= rows);
        for at in nested.runs.iter().flat_map(|run| &run.placements) {
            prop_assert!(turns.iter().any(|turn| (turn - at.turn).abs() < 1e-9));
        }
    }
}
