//! Reading a sheet: all its marks, the fit through them, and whether it is the sheet that was meant, the right way round.

use aptum_core::geometry::{Affine, Point, Rect, Vec2};
use aptum_core::rehearsal::{Fit, fit, normal};

use super::eye::{Eye, View};
use super::mark::AskedMark;
use super::search::{Pose, rotated, search};

/// What is asked of a sheet; places on the page, mm.
#[derive(Debug, Clone, PartialEq)]
pub struct Asked {
    /// The page.
    pub page: Rect,
    /// Marks that must be there, the first one first.
    pub marks: Vec<AskedMark>,
    /// Marks that must not be there.
    pub absent: Vec<AskedMark>,
    /// What is printed beside the first mark.
    pub sign: Option<Rect>,
    /// How far it searches around where marks should lie, mm.
    pub reach: f64,
    /// How far from the first mark the eye begins, mm.
    pub start: Vec2,
    /// The code that the sheet must carry.
    pub code: Option<AskedCode>,
}

/// A square code.
#[derive(Debug, Clone, PartialEq)]
pub struct AskedCode {
    /// Where it is printed.
    pub place: Rect,
    /// What it must say.
    pub code: String,
    /// The first sheet that it may name.
    pub first: u32,
    /// The last.
    pub last: u32,
}

impl Default for Asked {
    fn default() -> Self {
        Self {
            page: Rect::ZERO,
            marks: Vec::new(),
            absent: Vec::new(),
            sign: None,
            reach: 12.0,
            start: Vec2::ZERO,
            code: None,
        }
    }
}

/// Why a sheet is not cut.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
pub enum Refusal {
    /// Nothing lies there.
    #[error("no sheet lies on the bed")]
    NoSheet,
    /// A mark was not found.
    #[error("mark {number} of {count} is not within {reach:.0} mm of where it should lie")]
    NoMark {
        /// Which, from 1.
        number: usize,
        /// Of how many.
        count: usize,
        /// How far it searched, mm.
        reach: f64,
    },
    /// Marks that cannot tell how it lies.
    #[error("three marks that do not lie in a line are needed, and {0} were asked for")]
    FewMarks(usize),
    /// A mark is where none should be.
    #[error("the sheet lies the wrong way round: there is a mark where none should be")]
    WrongWay,
    /// The sign is missing, or is at the other end.
    #[error(
        "the sheet lies the wrong way round, or is another one: the sign beside its first mark is missing"
    )]
    NoSign,
    /// The size is wrong.
    #[error("the sheet was printed at {across:.1} × {along:.1} %: 98 to 102 % can be cut")]
    Size {
        /// Per cent across.
        across: f64,
        /// Per cent along.
        along: f64,
    },
    /// The marks do not agree.
    #[error("the marks do not agree: one lies {0:.2} mm off the others")]
    Apart(f64),
    /// The code cannot be read.
    #[error("the sheet’s code cannot be read: it should be {0}")]
    NoCode(String),
    /// It is another code.
    #[error("the sheet says {seen}, and the cut is for {asked}")]
    OtherCode {
        /// What it says.
        seen: String,
        /// What it should say.
        asked: String,
    },
}

/// How a sheet lies.
#[derive(Debug, Clone, PartialEq)]
pub struct Found {
    /// Where each mark was seen on the bed.
    pub seen: Vec<Point>,
    /// The fit through them: from the page to the bed.
    pub fit: Fit,
    /// What its code says, where it was to be read.
    pub code: Option<String>,
    /// How often the eye looked.
    pub looks: u32,
}

/// Once two marks are known, the others lie so near to where they are expected, mm.
const NEAR: f64 = 3.0;

/// How far the marks' scale may be from true.
const SCALES: std::ops::RangeInclusive<f64> = 0.98..=1.02;

/// Farthest that a mark may lie off the fit, mm: farther, it is no distortion of paper.
const APART: f64 = 0.6;

/// Finds a sheet's marks and checks that it is the one.
///
/// # Errors
/// Why it is not cut.
pub fn find(eye: &mut Eye<'_>, asked: &Asked) -> Result<Found, Refusal> {
    let count = asked.marks.len();
    if count < 3 {
        return Err(Refusal::FewMarks(count));
    }
    let mut seen: Vec<Pose> = Vec::new();
    for (at, mark) in asked.marks.iter().enumerate() {
        let (from, reach) = expected(asked, &seen, at);
        let found = search(eye, mark, from, reach);
        let mut pose = found.ok_or(Refusal::NoMark { number: at + 1, count, reach })?;
        // The same sheet is set the same way: what is rehearsed again comes out again.
        let mut random = fastrand::Rng::with_seed(pose.at.x.to_bits() ^ pose.at.y.to_bits());
        pose.at += Vec2::new(normal(&mut random), normal(&mut random)) * eye.hand;
        seen.push(pose);
    }
    let pairs: Vec<(Point, Point)> =
        asked.marks.iter().zip(&seen).map(|(mark, pose)| (mark.at, pose.at)).collect();
    let fit = fit(&pairs).map_err(|few| Refusal::FewMarks(few.0))?;
    if !SCALES.contains(&fit.across) || !SCALES.contains(&fit.along) {
        return Err(Refusal::Size { across: fit.across * 100.0, along: fit.along * 100.0 });
    }
    let apart = fit.residuals.iter().copied().fold(0.0, f64::max);
    if apart > APART {
        return Err(Refusal::Apart(apart));
    }
    for mark in &asked.absent {
        if search(eye, mark, fit.affine * mark.at, 1.0).is_some() {
            return Err(Refusal::WrongWay);
        }
    }
    if let Some(sign) = asked.sign {
        sign_stands(eye, &fit, sign)?;
    }
    let code = asked.code.as_ref().map(|code| read_code(eye, &fit, code)).transpose()?;
    Ok(Found { seen: seen.iter().map(|own| own.at).collect(), fit, code, looks: eye.looks })
}

/// Where the next mark should lie after those that were seen, and how far around it is looked for.
fn expected(asked: &Asked, seen: &[Pose], at: usize) -> (Point, f64) {
    let own = asked.marks[at].at;
    match seen {
        [] => (own + asked.start, asked.reach),
        [first] => {
            // Arms and bars tell a turn by themselves, well enough to begin near the next mark.
            let to_next = own - asked.marks[0].at;
            (first.at + rotated(to_next, first.turn), asked.reach)
        }
        [first, second, ..] => {
            // What two marks tell: a shift, a turn and one scale.
            let (a, b) = (asked.marks[0].at, asked.marks[1].at);
            let (meant, is) = (b - a, second.at - first.at);
            let turn = is.atan2() - meant.atan2();
            let scale = is.hypot() / meant.hypot().max(1e-9);
            let placed = Affine::translate(first.at.to_vec2())
                * Affine::rotate(turn)
                * Affine::scale(scale)
                * Affine::translate(-a.to_vec2());
            (placed * own, NEAR)
        }
    }
}

/// Share of a sign's place that must be dark.
const INKED: f64 = 0.03;

fn sign_stands(eye: &mut Eye<'_>, fit: &Fit, sign: Rect) -> Result<(), Refusal> {
    if dark_share(eye, fit, sign) < INKED { Err(Refusal::NoSign) } else { Ok(()) }
}

/// The share of a place that is dark beside the lightest of it.
fn dark_share(eye: &mut Eye<'_>, fit: &Fit, place: Rect) -> f64 {
    let view = eye.look(fit.affine * place.center());
    let mut seen = Vec::new();
    let (across, along) = (place.width() / 40.0, place.height() / 20.0);
    for y in 0..20 {
        for x in 0..40 {
            let at = Point::new(
                place.x0 + (f64::from(x) + 0.5) * across,
                place.y0 + (f64::from(y) + 0.5) * along,
            );
            seen.extend(view.light(fit.affine * at));
        }
    }
    let lightest = seen.iter().copied().fold(0.0, f64::max);
    let dark = seen.iter().filter(|light| **light < lightest * 0.55).count();
    dark as f64 / seen.len().max(1) as f64
}

/// Modules of a square code a side (ISO/IEC 18004, version 1), and with the clear space.
const MODULES: usize = 21;
const WITH_CLEAR: f64 = 29.0;

/// How far the code is looked for from where it should be, in modules: the paper's bow moves it by less than one.
const OFF: [f64; 5] = [0.0, -0.25, 0.25, -0.5, 0.5];

/// Reads the square code where it should be.
fn read_code(eye: &mut Eye<'_>, fit: &Fit, asked: &AskedCode) -> Result<String, Refusal> {
    let view = eye.look(fit.affine * asked.place.center());
    let module = asked.place.width() / WITH_CLEAR;
    let offs = OFF.iter().flat_map(|y| OFF.iter().map(move |x| Vec2::new(*x, *y) * module));
    let read = |off: Vec2| {
        let start = asked.place.origin() + Vec2::new(module, module) * 4.0 + off;
        decoded(&lights(&view, fit, start, module)?)
    };
    let words = offs.map(read).find_map(|words| words);
    let wanted = || asked.code.clone();
    let seen = words.ok_or_else(|| Refusal::NoCode(wanted()))?;
    let other = || Refusal::OtherCode { seen: plain(&seen), asked: wanted() };
    let (code, sheet) = seen.split_once('/').ok_or_else(other)?;
    let sheet: u32 = sheet.parse().map_err(|_| other())?;
    if code == asked.code && (asked.first..=asked.last).contains(&sheet) {
        Ok(seen)
    } else {
        Err(other())
    }
}

/// How light each module is: the mean of its middle, so that blur and grain matter little.
fn lights(view: &View, fit: &Fit, start: Point, module: f64) -> Option<Vec<f64>> {
    let mut all = Vec::with_capacity(MODULES * MODULES);
    for row in 0..MODULES {
        for column in 0..MODULES {
            let mut sum = 0.0;
            for part in 0..9 {
                let (x, y) = (f64::from(part % 3) - 1.0, f64::from(part / 3) - 1.0);
                let at = Vec2::new(column as f64 + 0.5 + x * 0.2, row as f64 + 0.5 + y * 0.2);
                sum += view.light(fit.affine * (start + at * module))?;
            }
            all.push(sum / 9.0);
        }
    }
    Some(all)
}

/// What modules say, each drawn as a square of a few pixels.
fn decoded(lights: &[f64]) -> Option<String> {
    const EACH: usize = 4;
    let (lightest, darkest) = lights
        .iter()
        .fold((0.0_f64, 255.0_f64), |own, light| (own.0.max(*light), own.1.min(*light)));
    let mid = f64::midpoint(lightest, darkest);
    if lightest - darkest < 30.0 {
        return None;
    }
    let side = (MODULES + 8) * EACH;
    let mut picture = rqrr::PreparedImage::prepare_from_bitmap(side, side, |x, y| {
        let (column, row) = ((x / EACH).wrapping_sub(4), (y / EACH).wrapping_sub(4));
        column < MODULES && row < MODULES && lights[row * MODULES + column] < mid
    });
    picture.detect_grids().into_iter().find_map(|grid| Some(grid.decode().ok()?.1))
}

/// What a code says, as far as it can be said again.
fn plain(words: &str) -> String {
    words.chars().filter(|own| own.is_ascii_graphic()).take(24).collect()
}
