//! Areas for polygon algebra: curves flattened to within [`FLATTENING`](crate::geometry::FLATTENING).

mod filled;
mod rolled;
#[cfg(test)]
mod tests;

use geo::algorithm::buffer::{BufferStyle, LineJoin};
use geo::orient::{Direction, Orient};
use geo::{
    AffineOps, Area, BooleanOps, BoundingRect, Buffer, Coord, CoordsIter, LineString, MultiPolygon,
    Polygon, Simplify, unary_union,
};
use kurbo::{BezPath, Point, Rect, Vec2};

/// One of the rings of a region, its last point not repeating the first.
#[derive(Debug, Clone, PartialEq)]
pub struct Ring {
    /// Its corners.
    pub points: Vec<Point>,
    /// True for a hole.
    pub is_hole: bool,
}

/// An area of any number of parts, with holes. Outer rings and holes are closed and do not cross.
#[derive(Debug, Clone, PartialEq)]
pub struct Region(MultiPolygon<f64>);

impl Region {
    /// No area.
    #[must_use]
    pub fn empty() -> Self {
        Self(MultiPolygon::new(Vec::new()))
    }

    /// A rectangle; one of no area gives the empty region.
    #[must_use]
    pub fn rect(rect: Rect) -> Self {
        if rect.width() <= 0.0 || rect.height() <= 0.0 {
            return Self::empty();
        }
        Self(
            geo::Rect::new(Coord { x: rect.x0, y: rect.y0 }, Coord { x: rect.x1, y: rect.y1 })
                .to_polygon()
                .into(),
        )
    }

    /// Its separate parts, each by itself.
    pub fn each(&self) -> impl Iterator<Item = Self> + '_ {
        self.0.iter().map(|part| Self(part.clone().into()))
    }

    /// Polygons that do not cross, each by its rings: the outer one, then its holes.
    #[must_use]
    pub fn of_rings<R: Iterator<Item = Vec<Point>>>(polygons: impl Iterator<Item = R>) -> Self {
        let line = |ring: Vec<Point>| -> LineString<f64> {
            ring.into_iter().map(|point| Coord { x: point.x, y: point.y }).collect()
        };
        let polygon = |mut rings: R| {
            let outer = rings.next().map(line)?;
            Some(Polygon::new(outer, rings.map(line).collect()))
        };
        let all = MultiPolygon::new(polygons.filter_map(polygon).collect());
        Self(all.orient(Direction::Default))
    }

    /// The same, parts that overlap or lie in each other made one.
    #[must_use]
    pub fn united(&self) -> Self {
        Self(unary_union(&self.0.0))
    }

    /// True where the point lies in it.
    #[must_use]
    pub fn holds(&self, at: Point) -> bool {
        let inside = |ring: &LineString<f64>| {
            ring.lines().fold(false, |inside, line| {
                let (a, b) = (line.start, line.end);
                let crosses = (a.y > at.y) != (b.y > at.y)
                    && at.x < (b.x - a.x) * (at.y - a.y) / (b.y - a.y) + a.x;
                inside != crosses
            })
        };
        self.0.iter().any(|part| inside(part.exterior()) && !part.interiors().iter().any(inside))
    }

    /// Where its outer edge is highest on a line straight down at `x`.
    #[must_use]
    pub fn top_at(&self, x: f64) -> Option<f64> {
        let lines = self.0.iter().flat_map(|part| part.exterior().lines());
        let crossing = lines.filter_map(|line| {
            let (a, b) = (line.start, line.end);
            ((a.x > x) != (b.x > x)).then(|| a.y + (b.y - a.y) * (x - a.x) / (b.x - a.x))
        });
        crossing.min_by(f64::total_cmp)
    }

    /// The same without the part that has the least area.
    #[must_use]
    pub fn without_smallest(&self) -> Self {
        let areas = self.0.iter().map(Area::unsigned_area).enumerate();
        let least = areas.min_by(|one, other| one.1.total_cmp(&other.1)).map(|(at, _)| at);
        let kept = self.0.iter().enumerate().filter(|(at, _)| Some(*at) != least);
        Self(MultiPolygon::new(kept.map(|(_, part)| part.clone()).collect()))
    }

    /// What lies in either.
    #[must_use]
    pub fn union(&self, other: &Self) -> Self {
        if self.is_empty() {
            return other.clone();
        }
        Self(self.0.union(&other.0))
    }

    /// What lies in both.
    #[must_use]
    pub fn intersection(&self, other: &Self) -> Self {
        Self(self.0.intersection(&other.0))
    }

    /// What lies in this and not in the other.
    #[must_use]
    pub fn minus(&self, other: &Self) -> Self {
        if other.is_empty() {
            return self.clone();
        }
        Self(self.0.difference(&other.0))
    }

    /// Moved, turned or mirrored.
    #[must_use]
    pub fn transformed(&self, affine: kurbo::Affine) -> Self {
        let [a, b, c, d, e, f] = affine.as_coeffs();
        let moved = self.0.affine_transform(&geo::AffineTransform::new(a, c, e, b, d, f));
        Self(moved.orient(Direction::Default))
    }

    /// Grown by `distance` mm on every side, with sharp corners kept sharp.
    #[must_use]
    pub fn grown(&self, distance: f64) -> Self {
        if distance <= 0.0 || self.is_empty() {
            return self.clone();
        }
        let style = BufferStyle::new(distance).line_join(LineJoin::Miter(0.2));
        Self(self.0.buffer_with_style(style))
    }

    /// Grown by `distance` mm on every side, with outer corners rounded.
    #[must_use]
    pub fn rounded_out(&self, distance: f64) -> Self {
        if distance <= 0.0 || self.is_empty() {
            return self.clone();
        }
        Self(self.0.buffer_with_style(BufferStyle::new(distance).line_join(round(distance))))
    }

    /// Grown by `distance` mm, or held smaller where it is below 0, with corners as `join` says.
    #[must_use]
    pub fn bordered(&self, distance: f64, join: crate::geometry::Join) -> Self {
        if distance == 0.0 || self.is_empty() {
            return self.clone();
        }
        let corners: usize = self.0.iter().map(CoordsIter::coords_count).sum();
        if join == crate::geometry::Join::Round && corners > MANY {
            return rolled::bordered(self, distance)
                .unwrap_or_else(|| self.simplified(STRAY).buffered(distance, join));
        }
        self.buffered(distance, join)
    }

    /// As [`bordered`](Self::bordered), by the algebra of areas: what the many corners' arcs overlap takes it long.
    fn buffered(&self, distance: f64, join: crate::geometry::Join) -> Self {
        let join = match join {
            crate::geometry::Join::Round => round(distance),
            crate::geometry::Join::Mitred => LineJoin::Miter(0.4),
            crate::geometry::Join::Bevelled => LineJoin::Bevel,
        };
        Self(self.0.buffer_with_style(BufferStyle::new(distance).line_join(join)))
    }

    /// With as few corners as keep its edge within `tolerance` mm (Douglas and Peucker 1973).
    #[must_use]
    pub fn simplified(&self, tolerance: f64) -> Self {
        Self(self.0.simplify(tolerance)).union(&Self::empty())
    }

    /// Held smaller by `distance` mm on every side, with inner corners rounded.
    #[must_use]
    pub fn rounded_in(&self, distance: f64) -> Self {
        if distance <= 0.0 || self.is_empty() {
            return self.clone();
        }
        Self(self.0.buffer_with_style(BufferStyle::new(-distance).line_join(round(distance))))
    }

    /// Held smaller by `distance` mm on every side.
    #[must_use]
    pub fn shrunk(&self, distance: f64) -> Self {
        if distance <= 0.0 || self.is_empty() {
            return self.clone();
        }
        let style = BufferStyle::new(-distance).line_join(LineJoin::Miter(0.2));
        Self(self.0.buffer_with_style(style))
    }

    /// The region in parts without holes, cut upright through the middle of each hole.
    #[must_use]
    pub fn simple_parts(&self) -> Vec<Vec<Point>> {
        let mut parts = Vec::new();
        for polygon in &self.0 {
            let whole = Self(polygon.clone().into());
            match polygon.interiors().first().and_then(|hole| hole.bounding_rect()) {
                None => parts.push(ring_points(polygon.exterior())),
                Some(hole) => {
                    let Some(bounds) = whole.bounds() else { continue };
                    let middle = f64::midpoint(hole.min().x, hole.max().x);
                    let left = Rect { x1: middle, ..bounds };
                    let right = Rect { x0: middle, ..bounds };
                    for half in [left, right] {
                        parts.extend(whole.intersection(&Self::rect(half)).simple_parts());
                    }
                }
            }
        }
        parts
    }

    /// Everything nearer than `distance` mm, and a little more at corners: straight edges move out by just
    /// that, and each corner by the fewest straight lines that its arc lies within.
    #[must_use]
    pub fn kept_clear(&self, distance: f64) -> Self {
        if distance <= 0.0 || self.is_empty() {
            return self.clone();
        }
        let mut parts: Vec<Polygon<f64>> = self.0.orient(Direction::Default).0;
        for polygon in &self.0 {
            beside(&mut parts, &ring_points(polygon.exterior()), distance, 1.0);
            for hole in polygon.interiors() {
                beside(&mut parts, &ring_points(hole), distance, -1.0);
            }
        }
        Self(unary_union(&parts))
    }

    /// Area in mm².
    #[must_use]
    pub fn area(&self) -> f64 {
        self.0.unsigned_area()
    }

    /// True without any part.
    #[must_use]
    pub fn is_empty(&self) -> bool {
        self.0.0.is_empty()
    }

    /// Number of separate parts.
    #[must_use]
    pub fn parts(&self) -> usize {
        self.0.0.len()
    }

    /// The smallest upright rectangle around it.
    #[must_use]
    pub fn bounds(&self) -> Option<Rect> {
        self.0
            .bounding_rect()
            .map(|rect| Rect::new(rect.min().x, rect.min().y, rect.max().x, rect.max().y))
    }

    /// The outer rings, each a closed polygon without its last point repeated.
    #[must_use]
    pub fn outer_rings(&self) -> Vec<Vec<Point>> {
        self.0.iter().map(|part| ring_points(part.exterior())).collect()
    }

    /// Every ring, each outer one before its holes.
    pub fn rings(&self) -> impl Iterator<Item = Ring> + '_ {
        self.0.iter().flat_map(|part| {
            let outer = Ring { points: ring_points(part.exterior()), is_hole: false };
            let holes = part
                .interiors()
                .iter()
                .map(|ring| Ring { points: ring_points(ring), is_hole: true });
            std::iter::once(outer).chain(holes)
        })
    }

    /// Every ring, outer and holes, as closed subpaths.
    #[must_use]
    pub fn to_path(&self) -> BezPath {
        let mut path = BezPath::new();
        for part in &self.0 {
            for ring in std::iter::once(part.exterior()).chain(part.interiors()) {
                for element in crate::geometry::polygon(&ring_points(ring)) {
                    path.push(element);
                }
            }
        }
        path
    }

    /// The polygons themselves, for other geometry libraries.
    #[must_use]
    pub const fn polygons(&self) -> &MultiPolygon<f64> {
        &self.0
    }
}

/// From so many corners on a round border is that of a disc that rolls along them.
const MANY: usize = 1500;

/// How far what has many corners may be simplified, mm.
const STRAY: f64 = 1e-3;

/// Arcs of chords that stray from them by a thousandth of a millimetre.
fn round(distance: f64) -> LineJoin<f64> {
    LineJoin::Round(chord(distance))
}

/// By how much a chord of such an arc turns, radians.
fn chord(distance: f64) -> f64 {
    (8e-3 / distance.abs()).sqrt().clamp(0.01, 0.05)
}

/// The strip beside each edge of a ring, and the corner of each vertex: outside the ring where `out` is 1, inside
/// it where it is -1.
fn beside(parts: &mut Vec<Polygon<f64>>, ring: &[Point], distance: f64, out: f64) {
    let count = ring.len();
    let mut add = |points: &[Point]| {
        let line = points.iter().map(|point| Coord { x: point.x, y: point.y }).collect();
        let polygon = Polygon::new(LineString::new(line), Vec::new());
        // All one way round, as a union of many needs them.
        parts.push(polygon.orient(Direction::Default));
    };
    // The outside lies to the right of a ring that runs with the clock turned back.
    let turning: f64 =
        (0..count).map(|at| ring[at].to_vec2().cross(ring[(at + 1) % count].to_vec2())).sum();
    let side = if turning > 0.0 { out } else { -out };
    for at in 0..count {
        let (before, here, next) =
            (ring[(at + count - 1) % count], ring[at], ring[(at + 1) % count]);
        let (into, onward) = ((here - before).normalize(), (next - here).normalize());
        let normal = |along: Vec2| Vec2::new(along.y, -along.x) * (side * distance);
        add(&[here, next, next + normal(onward), here + normal(onward)]);
        let bend = into.cross(onward).atan2(into.dot(onward)) * side;
        if bend <= 1e-9 {
            continue;
        }
        // Tangents of the corner's arc, no further apart than a right angle.
        let (first, last) = (normal(into), normal(onward));
        let halves = if bend > std::f64::consts::FRAC_PI_2 { 2.0 } else { 1.0 };
        let reach = (bend / (2.0 * halves)).tan();
        let mut corner = vec![here, here + first];
        if halves < 2.0 {
            corner.push(here + first + into * (reach * distance));
        } else {
            let middle = (first + last).normalize() * distance;
            let along = Vec2::new(-middle.y, middle.x) * side;
            corner.push(here + middle - along * reach);
            corner.push(here + middle + along * reach);
        }
        corner.push(here + last);
        add(&corner);
    }
}

fn ring_points(ring: &LineString<f64>) -> Vec<Point> {
    let mut points: Vec<Point> = ring.coords().map(|c| Point::new(c.x, c.y)).collect();
    if points.len() > 1 && points.first() == points.last() {
        points.pop();
    }
    points
}
