//! Groups of rings as lines that do not cross, whatever it takes.

use kurbo::{BezPath, Point, Shape};

use super::curves::{Fitted, fit};
use super::tidy;
use crate::geometry::{Region, Ring};

/// Lines that cross more often are no edge of anything.
const MOST_CROSSINGS: usize = 200;

/// How often lines that cross are drawn anew.
const TRIES: usize = 6;

/// The rings of a group as lines that do not cross: near where they would they follow their points. `None` where these
/// cross themselves.
pub(super) fn fitted(group: &tidy::Group, tolerance: f64) -> Option<Vec<Fitted>> {
    let rings: Vec<&Vec<Point>> = std::iter::once(&group.outer).chain(&group.holes).collect();
    let mut bad: Vec<Vec<Point>> = vec![Vec::new(); rings.len()];
    let mut all: Vec<Fitted> = rings.iter().map(|ring| fit(ring, tolerance, &[], false)).collect();
    for tried in 0..TRIES {
        let flat: Vec<Vec<Point>> = all.iter().map(|own| flattened(&own.path)).collect();
        let crossing = crate::geometry::crossings(&flat);
        if crossing.is_empty() {
            return Some(all);
        }
        if crossing.len() > MOST_CROSSINGS {
            return None;
        }
        let mut again: Vec<usize> = crossing.iter().map(|(ring, _)| *ring).collect();
        crossing.into_iter().for_each(|(ring, at)| bad[ring].push(at));
        again.sort_unstable();
        again.dedup();
        for ring in again {
            all[ring] = fit(rings[ring], tolerance, &bad[ring], tried > 2);
        }
    }
    None
}

/// Most points of a group that is drawn in curves whatever it takes: more that cross are a texture.
pub(super) const MOST_OPENED: usize = 1500;

/// The rings of a group from point to point, with fewer of them the more there are.
pub(super) fn thinned(group: &tidy::Group, most: usize) -> Vec<Fitted> {
    let thin = |ring: &Vec<Point>| -> Vec<Point> {
        let step = ring.len().div_ceil(most).max(1);
        ring.iter().step_by(step).copied().collect()
    };
    let rings = std::iter::once(&group.outer).chain(&group.holes).map(thin);
    let region = Region::of_rings(std::iter::once(rings.filter(|ring| ring.len() > 3))).united();
    let path = |ring: Ring| (crate::geometry::polygon(&ring.points), ring.is_hole);
    let rings: Vec<(BezPath, bool)> = region.rings().map(path).collect();
    // The largest, and the holes that follow it.
    let outer = rings.iter().enumerate().filter(|(_, own)| !own.1);
    let largest =
        outer.max_by(|(_, one), (_, other)| one.0.area().abs().total_cmp(&other.0.area().abs()));
    let from = largest.map_or(0, |(at, _)| at);
    let own = rings.into_iter().skip(from).enumerate();
    let own = own.take_while(|(at, ring)| *at == 0 || ring.1).map(|(_, ring)| ring.0);
    own.map(|path| Fitted { path, corners: Vec::new() }).collect()
}

/// The rings of a group from point to point.
pub(super) fn as_they_are(group: &tidy::Group) -> Vec<Fitted> {
    let rings = std::iter::once(&group.outer).chain(&group.holes);
    rings.map(|ring| Fitted { path: crate::geometry::polygon(ring), corners: Vec::new() }).collect()
}

/// A closed line as points, to a fiftieth of a pixel.
fn flattened(path: &BezPath) -> Vec<Point> {
    crate::geometry::flattened_to(path, 0.02).into_iter().next().unwrap_or_default()
}
