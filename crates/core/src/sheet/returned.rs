//! Registration marks found again in a drawing that comes back from elsewhere: how it was scaled, turned and shifted
//! against the page that they were made for.

use kurbo::{Affine, BezPath, PathEl, Point, Shape, Vec2};

use super::Marks;
use crate::lines::Lines;
use crate::units::INCH;

/// What the marks of a page say of a drawing that holds them.
#[derive(Debug, Clone, PartialEq)]
pub struct Returned {
    /// From units of the file to mm on the page.
    pub to_page: Affine,
    /// How many times too large the file is where it states its unit; its own unit in mm where it does not.
    pub scale: f64,
    /// How far it is turned with the clock, degrees.
    pub turn: f64,
    /// How far the page's middle was shifted, mm.
    pub shift: Vec2,
    /// The greatest distance of a mark from where it should be, once all that is put right, mm.
    pub worst: f64,
    /// The greatest distance as the file is, mm; `None` where it does not say how long its units are.
    pub as_it_is: Option<f64>,
    /// Which lines are the marks'.
    pub lines: Vec<usize>,
}

/// Why marks are not found.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum NotFound {
    /// The page has none.
    NoMarks,
    /// Fewer shapes than the marks have look like theirs.
    TooFew(usize),
    /// Shapes like them lie otherwise than they do.
    Elsewhere,
}

/// A mark is accepted that lies no farther off, mm.
pub const ACCEPTED: f64 = 0.1;

/// How nearly what is found is a mark.
#[derive(Debug, Clone, Copy)]
pub struct Likeness {
    /// How much the shape may differ, as a share of the square of its length by its area.
    form: f64,
    /// How much the area may differ, as a share.
    area: f64,
    /// Ways in which marks may lie are the same where they are off by no more, mm.
    off: f64,
}

impl Likeness {
    /// Of lines, which are where they were drawn.
    pub const DRAWN: Self = Self { form: 0.03, area: 0.12, off: 1e-6 };
    /// Of edges seen in pixels, which round corners and blur.
    pub const SEEN: Self = Self { form: 0.12, area: 0.25, off: 0.02 };
}

/// How far marks may lie off while they are searched for, as a share of the distance between them.
const SOUGHT: f64 = 0.01;

/// Shapes like the marks that are looked at.
const MOST_LIKE: usize = 400;

/// A closed shape, measured.
#[derive(Debug, Clone, Copy)]
struct Measured {
    /// The middle of its area.
    middle: Point,
    area: f64,
    /// What stays when it is scaled, turned and moved: the square of its length by its area.
    form: f64,
}

fn measured(path: &BezPath) -> Option<Measured> {
    let (mut area, mut length) = (0.0, 0.0);
    let mut moment = Vec2::ZERO;
    for ring in crate::geometry::flattened_to(path, fine(path)) {
        for (a, b) in ring.iter().zip(ring.iter().cycle().skip(1)) {
            let cross = a.to_vec2().cross(b.to_vec2());
            area += cross / 2.0;
            moment += (a.to_vec2() + b.to_vec2()) * (cross / 6.0);
            length += a.distance(*b);
        }
    }
    (area.abs() > 0.0 && length > 0.0).then(|| Measured {
        middle: (moment / area).to_point(),
        area: area.abs(),
        form: length * length / area.abs(),
    })
}

fn fine(path: &BezPath) -> f64 {
    let bounds = path.bounding_box();
    (bounds.width().max(bounds.height()) * 1e-5).max(1e-9)
}

/// Finds the marks of a page in a drawing.
///
/// # Errors
/// [`NotFound`].
pub fn find_marks(marks: &Marks, lines: &Lines, like: Likeness) -> Result<Returned, NotFound> {
    // A cross is several areas, of which each must be there.
    let areas = marks.marks.iter().flat_map(|mark| crate::geometry::contours(&mark.ink));
    let wanted: Vec<Measured> = areas.filter_map(|area| measured(&area)).collect();
    if wanted.len() < 2 {
        return Err(NotFound::NoMarks);
    }
    let found: Vec<(usize, Measured)> = lines
        .lines
        .iter()
        .enumerate()
        .filter(|(_, line)| line.path.elements().last() == Some(&PathEl::ClosePath))
        .filter_map(|(number, line)| {
            let own = measured(&line.path)?;
            let is_like = wanted.iter().any(|mark| (own.form / mark.form - 1.0).abs() < like.form);
            is_like.then_some((number, own))
        })
        .take(MOST_LIKE)
        .collect();
    if found.len() < wanted.len() {
        return Err(NotFound::TooFew(found.len()));
    }
    // The two marks that lie farthest apart tell most; all others must follow from them.
    let pairs = (0..wanted.len()).flat_map(|a| (a + 1..wanted.len()).map(move |b| (a, b)));
    let far = pairs.max_by(|one, other| {
        let apart = |(a, b): (usize, usize)| wanted[a].middle.distance(wanted[b].middle);
        apart(*one).total_cmp(&apart(*other))
    });
    let Some((first, second)) = far else { return Err(NotFound::NoMarks) };
    let mut best: Option<(f64, f64, Vec<usize>)> = None;
    for (one_at, (_, one)) in found.iter().enumerate() {
        for (other_at, (_, other)) in found.iter().enumerate() {
            let Some(to_page) = (one_at != other_at)
                .then(|| {
                    similarity(
                        [one.middle, other.middle],
                        [wanted[first].middle, wanted[second].middle],
                    )
                })
                .flatten()
            else {
                continue;
            };
            let larger = to_page.determinant().abs();
            let is_as_large = |own: &Measured, mark: &Measured| {
                (own.area * larger / mark.area - 1.0).abs() < like.area
            };
            if !is_as_large(one, &wanted[first]) || !is_as_large(other, &wanted[second]) {
                continue;
            }
            let is_like = |own: &Measured, mark: &Measured| {
                is_as_large(own, mark) && (own.form / mark.form - 1.0).abs() < like.form
            };
            let Some(matched) = matched(&wanted, &found, to_page, &is_like) else { continue };
            let off = worst(&wanted, &found, &matched, to_page);
            let turn = turn_of(to_page).abs();
            // Marks that look alike either way round lie as they did.
            let is_better = best.as_ref().is_none_or(|(known, turned, _)| {
                off + like.off < known * 0.5
                    || (off < known * 2.0 + like.off && turn < turned - 1.0)
            });
            if is_better {
                best = Some((off, turn, matched));
            }
        }
    }
    let Some((.., matched)) = best else { return Err(NotFound::Elsewhere) };
    let to_page = fitted(&wanted, &found, &matched);
    let stated = lines.unit;
    let as_it_is = stated.map(|unit| worst(&wanted, &found, &matched, Affine::scale(unit)));
    let scale = to_page.determinant().abs().sqrt();
    let middle = wanted.iter().fold(Vec2::ZERO, |sum, mark| sum + mark.middle.to_vec2())
        / f64::from(u32::try_from(wanted.len()).unwrap_or(1));
    // Where the marks' middle lies once only the scale is put right.
    let own = matched.iter().fold(Vec2::ZERO, |sum, at| sum + found[*at].1.middle.to_vec2())
        / f64::from(u32::try_from(matched.len()).unwrap_or(1));
    Ok(Returned {
        to_page,
        scale: stated.map_or(scale, |unit| unit / scale),
        turn: -turn_of(to_page),
        shift: own * scale - middle,
        worst: worst(&wanted, &found, &matched, to_page),
        as_it_is,
        lines: lines_of(marks, lines, to_page),
    })
}

/// The scale, turn and shift that bring two places to two others.
fn similarity(from: [Point; 2], to: [Point; 2]) -> Option<Affine> {
    let (own, other) = (from[1] - from[0], to[1] - to[0]);
    let long = own.hypot2();
    if long < 1e-18 {
        return None;
    }
    let (a, b) = (own.dot(other) / long, own.cross(other) / long);
    let turned = Affine::new([a, b, -b, a, 0.0, 0.0]);
    Some(Affine::translate(to[0] - turned * from[0]) * turned)
}

fn turn_of(to_page: Affine) -> f64 {
    let [a, b, ..] = to_page.as_coeffs();
    b.atan2(a).to_degrees()
}

/// For each mark the shape that lies where it should, no shape for two.
fn matched(
    wanted: &[Measured],
    found: &[(usize, Measured)],
    to_page: Affine,
    is_like: &dyn Fn(&Measured, &Measured) -> bool,
) -> Option<Vec<usize>> {
    let span = wanted.iter().map(|mark| mark.middle.distance(wanted[0].middle)).fold(0.0, f64::max);
    let mut taken: Vec<usize> = Vec::with_capacity(wanted.len());
    for mark in wanted {
        let near = found.iter().enumerate();
        let near = near.filter(|(at, (_, own))| !taken.contains(at) && is_like(own, mark));
        let near = near.map(|(at, (_, own))| ((to_page * own.middle).distance(mark.middle), at));
        let (off, at) = near.min_by(|one, other| one.0.total_cmp(&other.0))?;
        if off > SOUGHT * span {
            return None;
        }
        taken.push(at);
    }
    Some(taken)
}

/// The similarity with the least sum of squares (Umeyama 1991, in the plane, without mirroring).
fn fitted(wanted: &[Measured], found: &[(usize, Measured)], matched: &[usize]) -> Affine {
    let pairs: Vec<(Point, Point)> =
        matched.iter().zip(wanted).map(|(at, mark)| (found[*at].1.middle, mark.middle)).collect();
    let number = f64::from(u32::try_from(pairs.len().max(1)).unwrap_or(1));
    let mean = |of: &dyn Fn(&(Point, Point)) -> Point| {
        pairs.iter().fold(Vec2::ZERO, |sum, pair| sum + of(pair).to_vec2()) / number
    };
    let (from, to) = (mean(&|pair| pair.0), mean(&|pair| pair.1));
    let (mut dot, mut cross, mut long) = (0.0, 0.0, 0.0);
    for (own, mark) in &pairs {
        let (own, mark) = (own.to_vec2() - from, mark.to_vec2() - to);
        dot += own.dot(mark);
        cross += own.cross(mark);
        long += own.hypot2();
    }
    let (a, b) = (dot / long.max(1e-18), cross / long.max(1e-18));
    let turned = Affine::new([a, b, -b, a, 0.0, 0.0]);
    Affine::translate(to - (turned * from.to_point()).to_vec2()) * turned
}

fn worst(
    wanted: &[Measured],
    found: &[(usize, Measured)],
    matched: &[usize],
    to_page: Affine,
) -> f64 {
    let off = matched.iter().zip(wanted);
    off.map(|(at, mark)| (to_page * found[*at].1.middle).distance(mark.middle)).fold(0.0, f64::max)
}

/// The lines that lie within the marks and their signs.
fn lines_of(marks: &Marks, lines: &Lines, to_page: Affine) -> Vec<usize> {
    let signs = marks.sign.iter().map(|sign| sign.place);
    let boxes: Vec<_> = marks
        .marks
        .iter()
        .map(|mark| mark.ink.bounding_box())
        .chain(signs)
        .map(|own| own.inflate(ACCEPTED * 5.0, ACCEPTED * 5.0))
        .collect();
    let is_mark = |path: &BezPath| {
        let own = (to_page * path.clone()).bounding_box();
        boxes.iter().any(|around| around.contains_rect(own))
    };
    let lines = lines.lines.iter().enumerate();
    lines.filter(|(_, line)| is_mark(&line.path)).map(|(number, _)| number).collect()
}

/// Units in which drawings are written and read, to the inch, with what they are called.
const UNITS: [(f64, &str); 6] = [
    (72.0, "72 to the inch"),
    (90.0, "90 to the inch"),
    (96.0, "96 to the inch"),
    (300.0, "300 to the inch"),
    (INCH, "mm"),
    (1.0, "inches"),
];

/// How near a scale must be to that of two units for these to be named, as a share.
const NAMED: f64 = 0.001;

/// Which mistake with units makes a file so many times too large, in words; `None` where none does.
#[must_use]
pub fn unit_mistake(scale: f64) -> Option<String> {
    if (scale - 1.0).abs() < NAMED {
        return None;
    }
    let pairs = UNITS.iter().flat_map(|drawn| UNITS.iter().map(move |read| (drawn, read)));
    let found = pairs.filter(|((drawn, _), (read, _))| (drawn / read / scale - 1.0).abs() < NAMED);
    let mut words =
        found.map(|((_, drawn), (_, read))| format!("drawn at {drawn}, read at {read}"));
    words.next()
}
