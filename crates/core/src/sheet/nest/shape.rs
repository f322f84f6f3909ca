//! Blanks as the search sees them: turned about their middle, grown by half the spacing.

use jagua_rs::geometry::fail_fast::SPSurrogateConfig;
use jagua_rs::geometry::geo_traits::TransformableFrom;
use jagua_rs::geometry::primitives::{Point as JPoint, SPolygon};
use jagua_rs::geometry::shape_modification::{ShapeModifyMode, simplify_shape};
use jagua_rs::geometry::{DTransformation, Transformation};
use kurbo::{Affine, Point, Rect, Vec2};

use super::NestBlank;
use crate::geometry::{Outline, Region, polygon};
use crate::sheet::Placement;
use crate::sheet::rotation;

/// How a blank may be turned while it is laid.
#[derive(Debug, Clone, PartialEq)]
pub enum Turns {
    /// By these angles in degrees.
    These(Vec<f64>),
    /// By any angle.
    Any,
}

/// Where a blank lies: its middle, and its turn in degrees.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct Pose {
    pub at: Point,
    pub turn: f64,
}

impl Pose {
    pub(super) fn transformation(self) -> Transformation {
        #[expect(clippy::cast_possible_truncation, reason = "a sheet is a few hundred mm")]
        let [x, y, turn] = [self.at.x, self.at.y, self.turn.to_radians()].map(|v| v as f32);
        DTransformation::new(turn, (x, y)).compose()
    }
}

/// A blank, ready for the search. All its outlines lie about its middle.
pub(super) struct Shape {
    /// Its number among all blanks.
    pub number: usize,
    /// How it may be turned.
    pub turns: Turns,
    /// Its middle in its own coordinates.
    middle: Vec2,
    /// Grown by half the spacing: where these meet, neighbours are too near.
    pub room: SPolygon,
    /// What must lie in the cut window.
    pub cut: Held,
    /// What must lie in the print window.
    pub printed: Vec<Held>,
    /// The exact outline.
    pub outline: Outline,
    /// Its exact printed areas.
    pub prints: Vec<Outline>,
    /// Its exact outline grown by half the spacing.
    pub grown: Outline,
    /// Area of the blank, mm².
    pub area: f64,
}

/// An outline that must lie in a window.
#[derive(Clone)]
pub(super) struct Held {
    pub shape: SPolygon,
    /// The corners of its hull, which alone decide its bounds.
    hull: Vec<Point>,
}

impl Held {
    /// `None` for what is no simple polygon. Circles inside it are only worked out for windows that something
    /// `bites` into.
    fn new(outline: &Outline, bites: bool) -> Option<Self> {
        let mut shape = simple(outline)?;
        if bites {
            shape.generate_surrogate(POLES).ok()?;
        }
        let hull = hull(&shape);
        Some(Self { shape, hull })
    }

    /// Its bounds where a pose has it.
    pub(super) fn bounds(&self, pose: Pose) -> Rect {
        let (sin, cos) = pose.turn.to_radians().sin_cos();
        let mut bounds = Rect::new(f64::MAX, f64::MAX, f64::MIN, f64::MIN);
        for point in &self.hull {
            let x = point.x * cos - point.y * sin;
            let y = point.x * sin + point.y * cos;
            bounds.x0 = bounds.x0.min(x);
            bounds.y0 = bounds.y0.min(y);
            bounds.x1 = bounds.x1.max(x);
            bounds.y1 = bounds.y1.max(y);
        }
        bounds + pose.at.to_vec2()
    }
}

fn hull(shape: &SPolygon) -> Vec<Point> {
    jagua_rs::geometry::convex_hull::convex_hull_indices(shape)
        .into_iter()
        .map(|at| shape.vertex(at))
        .map(|point| Point::new(f64::from(point.0), f64::from(point.1)))
        .collect()
}

/// Grown outlines are held this much smaller, mm, so that what just touches does not meet.
pub(super) const HAIR: f64 = 0.001;

/// Simplifying may add this share of a shape's area to what it keeps clear.
const SIMPLIFIED: f32 = 0.000_5;

/// Circles inside a shape that stand for it when overlaps are weighed.
const POLES: SPSurrogateConfig = SPSurrogateConfig {
    n_pole_limits: [(14, 0.0), (10, 0.75), (7, 0.88)],
    ff_pole_area_ratio: 0.6,
    n_ff_piers: 0,
};

impl Shape {
    /// `None` for an outline that is no simple polygon. `bites` says whether anything bites into the windows.
    pub(super) fn new(blank: &NestBlank<'_>, spacing: f64, bites: bool) -> Option<Self> {
        let outline = blank.piece.outline();
        let middle = outline.bounds().center().to_vec2();
        let about = |outline: &Outline| outline.transformed(Affine::translate(-middle));
        let outline = about(outline);
        let region = Region::inside(&polygon(outline.points()));
        let area = region.area();
        let room = region.kept_clear(spacing / 2.0);
        let grown = Outline::new(room.outer_rings().into_iter().next()?)?;
        let exact = simple(&less(&room, HAIR).unwrap_or_else(|| grown.clone()))?;
        let mut room = simplify_shape(&exact, ShapeModifyMode::Inflate, SIMPLIFIED);
        room.generate_surrogate(POLES).ok()?;
        let cut = Held::new(&outline, bites)?;
        let prints: Vec<Outline> = blank.piece.printed().iter().map(about).collect();
        // Slivers without an inside print nothing that counts.
        let printed = prints.iter().filter_map(|print| Held::new(print, bites)).collect();
        Some(Self {
            number: blank.number,
            turns: blank.turns.clone(),
            middle,
            room,
            cut,
            printed,
            outline,
            prints,
            grown,
            area,
        })
    }

    /// The placement that a pose comes to.
    pub(super) fn placement(&self, pose: Pose) -> Placement {
        let shift = pose.at.to_vec2() - (rotation(pose.turn) * self.middle.to_point()).to_vec2();
        let (x, y, turn) = (shift.x, shift.y, pose.turn);
        Placement { part: self.number, x, y, turn, ..Placement::default() }
    }

    /// The pose that a placement comes to.
    pub(super) fn pose(&self, at: &Placement) -> Pose {
        Pose { at: at.transform() * self.middle.to_point(), turn: at.turn }
    }

    /// Half its width and height when turned.
    pub(super) fn reach(&self, turn: f64) -> Rect {
        self.outline.transformed(rotation(turn)).bounds()
    }

    /// A turn it may have.
    pub(super) fn any_turn(&self, rng: &mut fastrand::Rng) -> f64 {
        match &self.turns {
            Turns::These(turns) => turns[rng.usize(0..turns.len())],
            // Upright is worth a try of its own.
            Turns::Any if rng.bool() => f64::from(rng.u32(0..4)) * 90.0,
            Turns::Any => rng.f64() * 360.0,
        }
    }
}

/// A shape moved to a pose, into one that has been moved before.
pub(super) fn moved(into: &mut SPolygon, base: &SPolygon, pose: Pose) {
    into.transform_from(base, &pose.transformation());
}

/// A region held smaller on every side; `None` where nothing or more than one part is left.
fn less(region: &Region, by: f64) -> Option<Outline> {
    let mut rings = region.shrunk(by).outer_rings().into_iter();
    let ring = rings.next()?;
    if rings.next().is_some() {
        return None;
    }
    Outline::new(ring)
}

/// Corners nearer than this to the one before may cross each other in single precision, mm: none is left out
/// where that goes well, and as few as do no harm where it does not.
const CLOSE: [f64; 4] = [0.0, 0.001, 0.003, 0.008];

/// An outline as the search holds it; `None` for what crosses itself or has no area.
pub(super) fn simple(outline: &Outline) -> Option<SPolygon> {
    CLOSE.iter().find_map(|close| simple_but(outline, *close))
}

#[expect(clippy::cast_possible_truncation, reason = "a sheet is a few hundred mm")]
fn simple_but(outline: &Outline, close: f64) -> Option<SPolygon> {
    let mut kept: Vec<Point> = Vec::new();
    let mut points: Vec<JPoint> = Vec::new();
    for point in outline.points() {
        let next = JPoint(point.x as f32, point.y as f32);
        let is_close = |other: Option<&Point>| other.is_some_and(|at| at.distance(*point) < close);
        if !is_close(kept.last()) && !is_close(kept.first()) && !points.contains(&next) {
            kept.push(*point);
            points.push(next);
        }
    }
    SPolygon::new(points).ok()
}
