//! What matters stays clear of cuts and creases: how far it does, and where or how large it would.

use kurbo::{ParamCurve as _, ParamCurveNearest as _, Vec2};

use super::checks::Laid;
use super::{LayerKind, PlacedPicture, Shape, ShapeSize, Text};
use crate::check::{Check, Drawing, Sense, Stage};
use crate::error::{Change, Remedy};
use crate::form::Part;
use crate::geometry::{Affine, BezPath, Point, Rect, Region, gap, path_text};
use crate::units::measure;

/// What matters stays so far from cuts and creases, mm: on most pieces, and on areas of which a side is smaller than
/// the last of these (common practice).
const SAFE: f64 = 3.0;
const SAFE_ON_SMALL: f64 = 1.5;
const SMALL: f64 = 30.0;

/// Past its area by less than this, mm², a layer is not past it.
const PAST: f64 = 0.05;

/// Places are told to the micrometre: so much farther away, mm, what is moved stays clear of rounding.
const ROUNDING: f64 = 2e-3;

/// Places that are tried across an area, and along it.
const TRIED: u32 = 9;

/// Sizes that are tried, each of them so much of the one before.
const SIZES: u32 = 7;
const SMALLER: f64 = 0.85;

/// Nothing is made smaller than this share of itself.
const LEAST_SHARE: f64 = 0.1;

/// How far what matters stays from the edges of an area, mm.
pub(super) fn safe_distance(area: Rect) -> f64 {
    if area.width().min(area.height()) < SMALL { SAFE_ON_SMALL } else { SAFE }
}

/// What an area leaves for what matters.
struct Room {
    own: Region,
    edges: BezPath,
    bounds: Rect,
    /// So far from its edges, mm.
    bound: f64,
}

impl Room {
    fn new(area: &Region, part: &Part) -> Option<Self> {
        let openings = part.openings().map(Region::inside);
        let own = openings.fold(area.clone(), |own, opening| own.minus(&opening));
        let bounds = own.bounds()?;
        Some(Self { edges: own.to_path(), bounds, bound: safe_distance(bounds), own })
    }

    fn is_past(&self, around: &BezPath) -> bool {
        Region::inside(around).minus(&self.own).area() > PAST
    }

    /// How far the corner that lies farthest outside is from the edges, mm.
    fn overhang(&self, around: &BezPath) -> f64 {
        let corners = kurbo::Shape::path_segments(around, 1e-3).map(|side| side.start());
        let off = |corner: Point| {
            let edges = self.edges.segments().map(|edge| edge.nearest(corner, 1e-6).distance_sq);
            edges.fold(f64::INFINITY, f64::min).sqrt()
        };
        corners.filter(|corner| !self.own.holds(*corner)).map(off).fold(0.0, f64::max)
    }

    /// True for what is far enough from every edge.
    fn keeps(&self, around: &BezPath) -> bool {
        let own = kurbo::Shape::bounding_box(around);
        // What is quickly seen to be too near an edge is not looked at closely.
        let within = self.free().inflate(1e-6, 1e-6).contains_rect(own);
        let corners =
            || kurbo::Shape::path_segments(around, 1e-3).all(|side| self.own.holds(side.start()));
        within
            && corners()
            && !self.is_past(around)
            && gap(around, &self.edges) >= self.bound + ROUNDING / 2.0
    }

    /// Where its box may lie.
    fn free(&self) -> Rect {
        self.bounds.inset(-self.bound - ROUNDING)
    }

    /// How far what lies within `around` has to go, mm: the nearest of several places.
    fn move_of(&self, around: &BezPath) -> Option<Vec2> {
        let own = kurbo::Shape::bounding_box(around);
        let room = self.free();
        let (across, along) = (room.width() - own.width(), room.height() - own.height());
        if across < 0.0 || along < 0.0 {
            return None;
        }
        let aside = |low: f64, high: f64, least: f64, most: f64| {
            (least - low).max(0.0) - (high - most).max(0.0)
        };
        let straight = Vec2::new(
            aside(own.x0, own.x1, room.x0, room.x1),
            aside(own.y0, own.y1, room.y0, room.y1),
        );
        let share = |at: u32| f64::from(at) / f64::from(TRIED - 1);
        let grid = (0..TRIED * TRIED).map(|at| {
            let place = Point::new(across * share(at % TRIED), along * share(at / TRIED));
            room.origin() + place.to_vec2() - own.origin()
        });
        let mut moves: Vec<Vec2> = grid.collect();
        moves.sort_by(|one, other| one.hypot2().total_cmp(&other.hypot2()));
        let keeps = |by: &Vec2| self.keeps(&(Affine::translate(*by) * around.clone()));
        std::iter::once(straight).chain(moves).find(keeps)
    }
}

impl Laid<'_> {
    /// How far what lies within `around` stays from cuts and creases. What goes past its area on purpose is left out,
    /// unless it is `vital`.
    pub(super) fn safe(&self, around: &BezPath, is_vital: bool) -> Option<Check> {
        let room = Room::new(&self.area.region, self.part)?;
        let is_past = room.is_past(around);
        if is_past && !is_vital {
            return None;
        }
        let value = if is_past { 0.0 } else { gap(around, &room.edges) };
        // A picture that fills its panel to the edge is meant to.
        if value < 1e-3 && !is_vital {
            return None;
        }
        let label = format!("{} to the edge", self.layer.title());
        let limit = (value, Sense::AtLeast, room.bound);
        let mut check = Check::length(&self.id("safe"), Stage::Face, &label, limit, self.unit);
        // Of several rows that run past it the one that does so farthest stands worst.
        if let Some(gauge) = check.gauge.as_mut().filter(|_| is_past) {
            gauge.value = -room.overhang(around);
        }
        let check = check
            .softened(if is_past { "runs past its panel" } else { "may be cut or folded away" })
            .at(Drawing::Flat, path_text(&(Affine::translate(self.part.at) * around.clone())));
        let check = check.remedies(|| {
            self.moved(&room, around).into_iter().chain(self.smaller(&room, around)).collect()
        });
        Some(if check.remedies.is_empty() {
            check.remedy(Remedy::advice("Shorten it, lay it on a larger panel, or take it away"))
        } else {
            check
        })
    }

    /// Where it is clear of all edges, as large as it is.
    fn moved(&self, room: &Room, around: &BezPath) -> Option<Remedy> {
        let changes = self.changes_to(room.move_of(around)?)?;
        Some(Remedy { text: "Move it away from the edge".to_owned(), changes })
    }

    fn changes_to(&self, by: Vec2) -> Option<Vec<Change>> {
        let lying = self.layer.lying()?;
        let to = |from: f64, by: f64| ((from + by) * 1000.0).round() / 1000.0;
        Some(vec![
            Change::new(&self.layer.field("x"), to(lying.x, by.x)),
            Change::new(&self.layer.field("y"), to(lying.y, by.y)),
        ])
    }

    /// How large it is clear of all edges: in the middle, or else somewhere.
    fn smaller(&self, room: &Room, around: &BezPath) -> Option<Remedy> {
        let own = kurbo::Shape::bounding_box(around);
        let free = room.free();
        let most = (free.width() / own.width()).min(free.height() / own.height()).min(1.0);
        let mut share = most * 0.98;
        for _ in 0..SIZES {
            if share < LEAST_SHARE {
                return None;
            }
            let middle = self.place.translation().to_point();
            let smaller = Affine::scale_about(share, middle) * around.clone();
            let centred = Affine::translate(self.area.middle - middle) * smaller.clone();
            let by = if room.keeps(&centred) {
                Some(self.area.middle - middle)
            } else {
                room.move_of(&smaller)
            };
            let made = by.and_then(|by| {
                let (text, size) = self.sized(share)?;
                let is_middle = (self.area.middle - middle - by).hypot() < 1e-6;
                let place = if is_middle { "in the middle" } else { "clear of the edge" };
                let changes = size.into_iter().chain(self.changes_to(by)?).collect();
                Some(Remedy { text: format!("{text}, {place}"), changes })
            });
            if made.is_some() {
                return made;
            }
            share *= SMALLER;
        }
        None
    }

    /// What makes the layer so much smaller, or a little more; in words, too.
    fn sized(&self, share: f64) -> Option<(String, Vec<Change>)> {
        let size = self.layer.field("size");
        let down = |value: f64| (value * 10.0).floor() / 10.0;
        let set = |by: &str, name: &str, value: f64| {
            vec![
                Change::new(&format!("{size}.by"), by),
                Change::new(&format!("{size}.{name}"), value),
            ]
        };
        match &self.layer.kind {
            LayerKind::Text(text) => {
                let points = down(self.points(text) * share);
                Some((format!("Set it in {points} pt"), set("points", "value", points)))
            }
            // What an outline was traced from is as wide as that says.
            LayerKind::Picture(picture) if self.area.frame.is_none() && share < 0.98 => {
                let wide = down(self.sides(picture)[0] * share).max(1.0);
                let text = format!("Print it {} wide", measure(wide, self.unit));
                Some((text, set("width", "mm", wide)))
            }
            LayerKind::Shape(Shape { size: ShapeSize::Sides(sides), .. }) if share < 0.98 => {
                let [wide, high] = sides.map(|side| down(side * share).max(0.1));
                let text = format!("Make it {} wide", measure(wide, self.unit));
                let changes = vec![
                    Change::new(&format!("{size}.mm.0"), wide),
                    Change::new(&format!("{size}.mm.1"), high),
                ];
                Some((text, changes))
            }
            _ => None,
        }
    }

    fn points(&self, text: &Text) -> f64 {
        text.set(self.area.room()).em / super::POINT
    }

    fn sides(&self, picture: &PlacedPicture) -> [f64; 2] {
        picture.sides(self.area.room(), self.bleed)
    }
}
