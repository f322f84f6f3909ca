//! What a printer does to a sheet: how it usually errs, how it errs on a bad day, and the classic mistakes.

use fastrand::Rng;
use kurbo::{Affine, Point, Rect, Vec2};
#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use super::{Misfeed, Stretch};
use crate::error::{Faults, InputError};
use crate::units::{Unit, measure};
use crate::workshop::Margins;

/// What the printer does.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum Day {
    /// Nothing: every millimetre is one, and lies where it should.
    True,
    /// A little of everything, as real printers do.
    #[default]
    Usual,
    /// Much of everything.
    Bad,
    /// The page is made smaller, until it fits between the printer's margins.
    FitToPage,
    /// Other paper is in the tray: A4 for Letter, Letter for everything else; the page fills as much of it as it can.
    OtherPaper,
    /// It leaves half an inch free at each side, whatever its record says.
    Clipped,
    /// The sheet came out with its foot where its head should be.
    WrongWay,
}

/// How the sheet is put into the cutter.
#[derive(Debug, Clone, Copy, Default, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(default)]
pub struct Loading {
    /// To the right and down, mm, -20 to 20.
    pub shift: [f64; 2],
    /// Clockwise as seen, degrees, -5 to 5.
    pub turn: f64,
    /// True where its foot lies where its head should.
    pub is_turned_round: bool,
    /// How far from the first mark the eye begins, to the right and down, mm, -20 to 20.
    pub start: [f64; 2],
}

/// What came of printing a page.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Printing {
    /// The paper, from its own upper left corner.
    pub paper: Rect,
    /// How the page lies on it.
    pub misfeed: Misfeed,
    /// True where the page lies on it by half a turn.
    pub is_turned_round: bool,
    /// What the printer leaves free of ink at each side of the paper, mm.
    pub free: f64,
    /// How much darker or lighter each pixel may be, as a share of black.
    pub grain: f64,
    /// Radius of the blur, mm.
    pub blur: f64,
}

/// Letter (ANSI/ASME Y14.1) and A4 (ISO 216), mm.
const LETTER: Vec2 = Vec2::new(215.9, 279.4);
const A4: Vec2 = Vec2::new(210.0, 297.0);

/// What a careless driver leaves free at each side, mm (half an inch; common practice).
const CLIPPED: f64 = 12.7;

impl Day {
    /// Every one.
    pub const ALL: [Self; 7] = [
        Self::Usual,
        Self::Bad,
        Self::True,
        Self::FitToPage,
        Self::OtherPaper,
        Self::Clipped,
        Self::WrongWay,
    ];

    /// In words.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Self::True => "nothing at all",
            Self::Usual => "a little of everything",
            Self::Bad => "a bad day",
            Self::FitToPage => "fit to page",
            Self::OtherPaper => "other paper in the tray",
            Self::Clipped => "margins clipped",
            Self::WrongWay => "fed the wrong way round",
        }
    }

    /// How far it errs, from the seed: standard deviations of shift (mm), turn (degrees), scales, skew (degrees) and bow (mm).
    /// Printed scales of office printers lie within 0.3 % of true and differ along and across the feed (common practice).
    const fn spread(self) -> [f64; 5] {
        match self {
            Self::True => [0.0; 5],
            Self::Bad => [1.2, 0.7, 0.002, 0.03, 0.08],
            _ => [0.4, 0.15, 0.001, 0.01, 0.03],
        }
    }

    /// What comes of printing a page with a printer's margins, the same for a seed.
    #[must_use]
    pub fn print(self, page: Rect, margins: &Margins, seed: u64) -> Printing {
        let mut random = Rng::with_seed(seed);
        let [shift, turn, scale, skew, bow] = self.spread();
        let mut normal = |by: f64| by * normal(&mut random).clamp(-2.5, 2.5);
        let mut misfeed = Misfeed {
            shift: [normal(shift), normal(shift)],
            turn: normal(turn),
            across: 1.0 + normal(scale),
            along: 1.0 + normal(scale),
            skew: normal(skew),
            stretch: Stretch { across: normal(bow), along: normal(bow) },
        };
        let mut paper = Rect::from_origin_size((0.0, 0.0), page.size());
        if self == Self::OtherPaper {
            paper = Rect::from_origin_size((0.0, 0.0), other_paper(page).to_size());
        }
        if matches!(self, Self::FitToPage | Self::OtherPaper) {
            let window = margins.inside(paper);
            let scale = (window.width() / page.width()).min(window.height() / page.height());
            misfeed.across *= scale;
            misfeed.along *= scale;
            let moved = window.center() - page.center();
            misfeed.shift[0] += moved.x;
            misfeed.shift[1] += moved.y;
        }
        let (grain, blur) = match self {
            Self::True => (0.0, 0.0),
            Self::Bad => (0.06, 0.08),
            _ => (0.02, 0.04),
        };
        let is_turned_round = self == Self::WrongWay;
        let free = if self == Self::Clipped { CLIPPED } else { 0.0 };
        Printing { paper, misfeed, is_turned_round, free, grain, blur }
    }
}

/// The paper that is in the tray by mistake.
fn other_paper(page: Rect) -> Vec2 {
    let is_letter = |own: Vec2| (own - LETTER).hypot() < 1.0;
    let size = Vec2::new(page.width(), page.height());
    let lying = Vec2::new(size.y, size.x);
    match (is_letter(size), is_letter(lying)) {
        (true, _) => A4,
        (_, true) => Vec2::new(A4.y, A4.x),
        _ if size.x > size.y => Vec2::new(LETTER.y, LETTER.x),
        _ => LETTER,
    }
}

/// One from the normal distribution (Box and Muller 1958).
#[must_use]
pub fn normal(random: &mut Rng) -> f64 {
    let (radius, angle) = (1.0 - random.f64(), random.f64() * std::f64::consts::TAU);
    (-2.0 * radius.ln()).sqrt() * angle.cos()
}

impl Printing {
    /// Where a point of the page is printed on the paper.
    #[must_use]
    pub fn place(&self, at: Point, page: Rect) -> Point {
        let at = self.misfeed.place(at, page);
        if self.is_turned_round { self.paper.center() + (self.paper.center() - at) } else { at }
    }

    /// Which point of the page is printed there.
    #[must_use]
    pub fn origin(&self, at: Point, page: Rect) -> Point {
        let at = if self.is_turned_round {
            self.paper.center() + (self.paper.center() - at)
        } else {
            at
        };
        self.misfeed.origin(at, page)
    }
}

impl Loading {
    /// # Errors
    /// Every figure out of range.
    pub fn validate(&self, unit: Unit) -> Result<(), Vec<InputError>> {
        let mut faults = Faults::default();
        let show = |mm: f64| measure(mm, unit);
        let named = [
            ("loading.shift.0", "The shift to the right", self.shift[0]),
            ("loading.shift.1", "The shift down", self.shift[1]),
            ("loading.start.0", "The eye’s start to the right", self.start[0]),
            ("loading.start.1", "The eye’s start downwards", self.start[1]),
        ];
        for (field, what, value) in named {
            faults.range(field, what, value, -20.0..=20.0, show);
        }
        faults.range("loading.turn", "The turn", self.turn, -5.0..=5.0, |own| format!("{own}°"));
        faults.or(())
    }

    /// From the sheet to the cutter's bed, on which it should lie with its upper left corner at the bed's.
    #[must_use]
    pub fn affine(&self, paper: Rect) -> Affine {
        let half = if self.is_turned_round { 180.0 } else { 0.0 };
        Affine::translate((self.shift[0], self.shift[1]))
            * Affine::rotate_about((self.turn + half).to_radians(), paper.center())
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn page(size: Vec2) -> Rect {
        Rect::from_origin_size((0.0, 0.0), size.to_size())
    }

    /// Letter between margins of a quarter of an inch becomes 8 / 8.5 of itself; A4 on Letter without margins
    /// 279.4 / 297, Letter on A4 210 / 215.9 (derived).
    #[test]
    fn fitting_scales_are_those_of_arithmetic() {
        let quarter = Margins::all(6.35);
        let scale = |day: Day, size: Vec2, margins: &Margins| {
            let all: Vec<f64> =
                (0..200).map(|seed| day.print(page(size), margins, seed).misfeed.across).collect();
            all.iter().sum::<f64>() / 200.0
        };
        let near = |one: f64, two: f64| (one - two).abs() < 4e-4;
        assert!(near(scale(Day::FitToPage, LETTER, &quarter), 8.0 / 8.5));
        assert!(near(scale(Day::OtherPaper, A4, &Margins::all(0.0)), 279.4 / 297.0));
        assert!(near(scale(Day::OtherPaper, LETTER, &Margins::all(0.0)), 210.0 / 215.9));
    }

    #[test]
    fn a_seed_gives_the_same_sheet_and_another_one_another() {
        let own = |seed| Day::Bad.print(page(A4), &Margins::all(5.0), seed).misfeed;
        assert_eq!(own(3), own(3));
        assert_ne!(own(3), own(4));
        let nothing = Day::True.print(page(A4), &Margins::all(5.0), 9);
        assert_eq!(nothing.place(Point::new(3.0, 4.0), page(A4)), Point::new(3.0, 4.0));
    }

    #[test]
    fn what_is_loaded_the_wrong_way_round_lies_in_the_same_place() {
        let turned = Loading { is_turned_round: true, ..Loading::default() };
        let corner = turned.affine(page(A4)) * page(A4).origin();
        assert!((corner - A4.to_point()).hypot() < 1e-9);
    }
}
