//! Rings put in order: gaps closed, what is too small left out, holes with what they lie in.

use kurbo::{Point, Rect};

use super::rings::area;
use super::{Trace, TraceError};
use crate::geometry::{Join, Region, Ring};

/// A ring and the holes in it.
pub(super) struct Group {
    pub outer: Vec<Point>,
    pub holes: Vec<Vec<Point>>,
    area: f64,
}

impl Group {
    /// How many points the one of its rings has that has most.
    pub fn longest(&self) -> usize {
        self.holes.iter().map(Vec::len).fold(self.outer.len(), usize::max)
    }

    /// How many points its rings have.
    pub fn points(&self) -> usize {
        self.outer.len() + self.holes.iter().map(Vec::len).sum::<usize>()
    }
}

pub(super) struct Tidied {
    /// The largest first.
    pub groups: Vec<Group>,
    /// How many outlines were not looked at, since larger ones are too many already.
    pub too_many: usize,
    /// How many spots and holes were too small, or holes too many.
    pub left_out: usize,
}

/// Puts rings in order. `pixel` is how large a pixel is, mm; `around` is where the only outline that is taken lies.
pub(super) fn tidy(
    found: Vec<Vec<Point>>,
    how: &Trace,
    pixel: f64,
    around: Option<Point>,
) -> Result<Tidied, TraceError> {
    let least = (how.least / (pixel * pixel)).max(0.5);
    let largest = found.iter().map(|ring| area(ring)).fold(0.0, f64::max);
    let mut left_out = 0;
    let mut keep = |ring: &Vec<Point>| {
        let is_kept = area(ring).abs() >= least;
        left_out += usize::from(!is_kept);
        is_kept
    };
    let mut rings = found;
    let gap = how.gap / pixel;
    if gap > 0.0 {
        // Crumbs may lie near enough to be joined to something, but so many are noise.
        if rings.len() > MOST_JOINED {
            rings.retain(&mut keep);
        }
        rings = closed(rings, gap);
    }
    rings.retain(keep);
    let mut too_many = 0;
    if rings.len() > MOST_RINGS {
        rings.sort_by(|one, other| area(other).abs().total_cmp(&area(one).abs()));
        let least: Vec<_> = rings.drain(MOST_RINGS..).collect();
        too_many = least.iter().filter(|ring| area(ring) > 0.0).count();
        left_out += least.len() - too_many;
        // What lies in what among noise says nothing, and takes long to find out.
        let before = rings.len();
        rings.retain(|ring| area(ring) > 0.0);
        left_out += before - rings.len();
    }
    let mut groups = grouped(rings);
    if groups.is_empty() {
        return Err(TraceError::AllTooSmall { largest: largest * pixel * pixel });
    }
    if !how.holes && too_many == 0 {
        groups = without_inner(groups);
    }
    if let Some(around) = around {
        let off = |group: &Group| {
            if holds(&group.outer, around) {
                return 0.0;
            }
            group.outer.iter().map(|point| point.distance(around)).fold(f64::INFINITY, f64::min)
        };
        let nearest = groups.into_iter().min_by(|one, other| off(one).total_cmp(&off(other)));
        groups = nearest.into_iter().collect();
    }
    Ok(Tidied { groups, too_many, left_out })
}

/// Most rings that are put in order; the largest are.
const MOST_RINGS: usize = 4000;

/// Most rings between which gaps are closed.
const MOST_JOINED: usize = 5000;

/// Outer rings with the holes in them, the largest first.
fn grouped(rings: Vec<Vec<Point>>) -> Vec<Group> {
    let (outer, holes): (Vec<_>, Vec<_>) = rings.into_iter().partition(|ring| area(ring) > 0.0);
    let mut groups: Vec<Group> = outer
        .into_iter()
        .map(|outer| Group { area: area(&outer), outer, holes: Vec::new() })
        .collect();
    groups.sort_by(|one, other| other.area.total_cmp(&one.area));
    let boxes: Vec<Rect> = groups.iter().map(|group| bounds(&group.outer)).collect();
    for hole in holes {
        let at = hole[0];
        // The smallest that holds it comes last.
        let own = (0..groups.len()).rev().find(|index| {
            boxes[*index].inflate(0.1, 0.1).contains(at) && holds(&groups[*index].outer, at)
        });
        if let Some(own) = own {
            groups[own].holes.push(hole);
        }
    }
    groups
}

/// Leaves out the holes and what lies in them.
fn without_inner(groups: Vec<Group>) -> Vec<Group> {
    let boxes: Vec<Rect> = groups.iter().map(|group| bounds(&group.outer)).collect();
    let is_inner: Vec<bool> = (0..groups.len())
        .map(|at| {
            let point = groups[at].outer[0];
            (0..at).any(|other| boxes[other].contains(point) && holds(&groups[other].outer, point))
        })
        .collect();
    let outer = groups.into_iter().zip(is_inner).filter(|(_, is_inner)| !is_inner);
    outer.map(|(own, _)| Group { holes: Vec::new(), ..own }).collect()
}

/// A group without hairs and cracks thinner than a pixel: shrunk by half of one, grown by one, and shrunk again.
pub(super) fn opened(group: &Group) -> Vec<Group> {
    let rings = std::iter::once(group.outer.clone()).chain(group.holes.iter().cloned());
    let region = Region::of_rings(std::iter::once(rings));
    let clean = region.union(&Region::empty());
    let grown = |region: &Region, by: f64| region.bordered(by, Join::Bevelled);
    let opened = grown(&grown(&grown(&clean, -0.5), 1.0), -0.5);
    grouped(with_the_clock(&opened)).into_iter().filter(|group| group.area > 1.0).collect()
}

/// How far a line may stray while gaps are closed, px: each point of a ring grown by far more than lies between them meets
/// all its neighbours.
const STRAY: f64 = 0.2;

/// How far inside of the line what closes gaps stays, px, so that it moves the line nowhere else.
const WITHIN: f64 = 1.0;

/// The rings once gaps up to a width are closed: grown by half of it, and shrunk again. What closes them stays inside of
/// the line elsewhere, which is not moved.
fn closed(rings: Vec<Vec<Point>>, gap: f64) -> Vec<Vec<Point>> {
    let all = Region::of_rings(
        grouped(rings).into_iter().map(|group| std::iter::once(group.outer).chain(group.holes)),
    );
    let plain = all.simplified(STRAY);
    // A round that is shrunk by as much as it was grown runs through one point again and again.
    let grown = plain.rounded_out(gap / 2.0).simplified(STRAY);
    let closing = grown.rounded_in(gap / 2.0 + WITHIN);
    with_the_clock(&closing.union(&all))
}

/// The rings of a region as a picture's run: outer ones with the clock, holes against it.
fn with_the_clock(region: &Region) -> Vec<Vec<Point>> {
    let turned = |mut ring: Ring| {
        if (area(&ring.points) < 0.0) != ring.is_hole {
            ring.points.reverse();
        }
        ring.points
    };
    region.rings().map(turned).collect()
}

fn bounds(ring: &[Point]) -> Rect {
    ring.iter().fold(Rect::from_points(ring[0], ring[0]), |all, point| all.union_pt(*point))
}

fn holds(ring: &[Point], at: Point) -> bool {
    let next = ring.iter().skip(1).chain(ring.first());
    ring.iter().zip(next).fold(false, |inside, (a, b)| {
        let crosses =
            (a.y > at.y) != (b.y > at.y) && at.x < (b.x - a.x) * (at.y - a.y) / (b.y - a.y) + a.x;
        inside != crosses
    })
}
