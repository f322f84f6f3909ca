//! The glue tabs of a net.
//!
//! Each glued edge has one tab. Which of its two faces carries it is chosen so that tabs do not crowd on
//! the face they are glued to; where two still meet at a corner of it, each keeps to its own side of the
//! corner's bisector, and none reaches past the middle between its edge and another that has one.

use std::collections::BTreeMap;

use super::net::{Face, Net};
use crate::form::{Panel, Role, flaps};
use crate::geometry::Vec2;

/// A tab's ends lean in by this, degrees, or less where the mate's edge is near.
const LEAN: f64 = 45.0;

/// Tabs on one face keep this far from the line midway between them, mm.
const PLAY: f64 = 0.15;

/// The tip keeps a third of the hinge, so that it still holds.
const NARROWEST_TIP: f64 = 0.34;

impl Net<'_> {
    /// For each glued edge, by its corners in order, the face that carries its tab: the earlier face of
    /// the two, unless another choice leaves fewer tabs beside each other on one face.
    pub(super) fn carriers(&self) -> BTreeMap<[usize; 2], usize> {
        let mut carriers = BTreeMap::new();
        let mut others = BTreeMap::new();
        for (face, (_, loop_)) in self.solid.faces.iter().enumerate() {
            for (a, b) in loop_.iter().zip(loop_.iter().cycle().skip(1)) {
                let mate = self.across(*a, *b).map(|(mate, _)| mate);
                let Some(mate) = mate.filter(|mate| !self.is_hinge(face, *mate)) else { continue };
                let edge = [*a.min(b), *a.max(b)];
                carriers.insert(edge, face.min(mate));
                others.insert(edge, face.max(mate));
            }
        }
        let mut cost = self.crowding(&carriers);
        let edges: Vec<[usize; 2]> = carriers.keys().copied().collect();
        // Each round turns at least one tab over and costs less, so there are few.
        loop {
            let before = cost;
            for edge in &edges {
                let (one, other) = (carriers[edge], others[edge]);
                carriers.insert(*edge, other);
                let turned = self.crowding(&carriers);
                if turned < cost {
                    others.insert(*edge, one);
                    cost = turned;
                } else {
                    carriers.insert(*edge, one);
                }
            }
            if cost == before {
                return carriers;
            }
        }
    }

    /// How many pairs of tabs meet at a corner of the face that they are glued to, where it is too narrow
    /// for both.
    fn crowding(&self, carriers: &BTreeMap<[usize; 2], usize>) -> usize {
        let on = |face: usize| {
            let loop_ = &self.solid.faces[face].1;
            let takes: Vec<bool> = loop_
                .iter()
                .zip(loop_.iter().cycle().skip(1))
                .map(|(a, b)| carriers.get(&[*a.min(b), *a.max(b)]).is_some_and(|by| *by != face))
                .collect();
            let count = loop_.len();
            let narrow = |place: &usize| {
                let (next, corner) = ((place + 1) % count, loop_[(place + 1) % count]);
                takes[*place] && takes[next] && self.angle(corner, face) < 2.0 * LEAN - 1e-6
            };
            (0..count).filter(narrow).count()
        };
        (0..self.solid.faces.len()).map(on).sum()
    }

    /// The tab at a side of a face, glued to `mate`.
    pub(super) fn tab(&self, faces: &[Face], (face, place): (usize, usize), mate: usize) -> Tab {
        let (own, target) = (&faces[face], &faces[mate]);
        let next = (place + 1) % own.corners.len();
        let loop_ = self.loop_of(face);
        let ends = [loop_[place], loop_[next]];
        let hinge = own.drawn[place].distance(own.drawn[next]);
        // How far inside the mate's edge the tab's crease lies, in the mate's plane.
        let turn = self.turn(face, mate).to_radians();
        let off = -own.sides[place].inset * turn.cos();
        // Where the crease's ends lie along the edge, from its ends.
        let along = (own.corners[next] - own.corners[place]).normalize();
        let x = [
            (own.drawn[place] - own.corners[place]).dot(along),
            (own.corners[next] - own.drawn[next]).dot(along),
        ];
        let theirs = self.loop_of(mate);
        let long = theirs.len();
        let at = |corner: usize| theirs.iter().position(|known| *known == corner).unwrap_or(0);
        // The mate has the edge the other way round: its sides before and after.
        let neighbours = [(at(ends[0])) % long, (at(ends[1]) + long - 1) % long];
        let takes_tab = |side: usize| target.sides[side].number > 0 && !target.sides[side].has_tab;
        // What bridges the gap to the mate at an obtuse edge is not glued: the tab is longer by that.
        let deep = self.tab + (-off).max(0.0);
        let mut tab = Tab { hinge, deep, lean: [0.0; 2], back: [0.0; 2] };
        for end in 0..2 {
            let lean = self.lean(ends[end], mate);
            let inside = self.angle(ends[end], mate);
            tab.lean[end] = lean.to_radians();
            if takes_tab(neighbours[end]) {
                tab.lean[end] = tab.lean[end].min((inside / 2.0).to_radians());
                let half = (inside / 2.0).to_radians();
                let clear = (PLAY + off * half.cos()) / half.sin() - x[end];
                tab.back[end] = clear.clamp(0.0, hinge / 4.0);
            }
        }
        tab.hinge -= tab.back[0] + tab.back[1];
        let slopes = tab.lean.map(|lean| 1.0 / lean.tan());
        let most = tab.hinge * (1.0 - NARROWEST_TIP) / (slopes[0] + slopes[1]);
        tab.deep = tab.deep.min(most);
        // The mate's other sides, and what is glued along them.
        let corner = |place: usize| target.corners[place % long];
        let (a, b) = (corner(at(ends[0])), corner(at(ends[1])));
        let u = (b - a).normalize();
        let inwards = Vec2::new(-u.y, u.x);
        let starts = [
            a + u * (x[0] + tab.back[0]) + inwards * off,
            b - u * (x[1] + tab.back[1]) + inwards * off,
        ];
        let ways = [inwards + u * slopes[0], inwards - u * slopes[1]];
        for side in (0..long)
            .filter(|side| !neighbours.contains(side) && target.sides[*side].other != Some(face))
        {
            let (p, q) = (corner(side), corner(side + 1));
            let way = (q - p).normalize();
            let from_side = Vec2::new(way.y, -way.x);
            for (start, going) in starts.iter().zip(ways) {
                let (gap, nearer) = ((*start - p).dot(from_side), going.dot(from_side));
                // Half way to a side that has a tab too, and not quite to any other.
                let (room, rate) = if takes_tab(side) {
                    (gap - off - 2.0 * PLAY, nearer - 1.0)
                } else {
                    (gap - self.t - PLAY, nearer)
                };
                if rate < -1e-9 {
                    tab.deep = tab.deep.min((room / -rate).max(0.1));
                }
            }
        }
        tab
    }

    /// How steeply a tab's end may lean at a corner: inside the mate's own angle there, and inside the
    /// gap that the flat leaves.
    fn lean(&self, corner: usize, mate: usize) -> f64 {
        let all: f64 = (0..self.solid.faces.len()).map(|face| self.angle(corner, face)).sum();
        let gap = (360.0 - all).max(10.0);
        LEAN.min(gap * 0.8).min(self.angle(corner, mate) * 0.85)
    }
}

/// A tab: a trapezoid on its crease.
pub(super) struct Tab {
    /// Length of its crease, mm.
    hinge: f64,
    /// How far it reaches, mm.
    deep: f64,
    /// How its two ends lean, radians from the crease.
    lean: [f64; 2],
    /// How far its crease stays back from the ends of its edge, mm.
    pub back: [f64; 2],
}

impl Tab {
    pub fn panel(&self, number: usize) -> Panel {
        let [first, last] = self.lean.map(|lean| self.deep / lean.tan());
        Panel::new(tab_name(number), Role::Glue)
            .set_by("tab")
            .cut(first, self.deep)
            .cut(self.hinge - last, self.deep)
            .cut(self.hinge, 0.0)
    }
}

pub(super) fn tab_name(number: usize) -> String {
    format!("Tab {number}")
}

/// Tabs may be as deep as this, mm.
const DEEPEST: f64 = 30.0;

/// The figure of the tabs' depth.
pub const TAB: crate::form::Param = crate::form::Param::length(
    "tab",
    ["Tabs", "Depth of the glue tabs; shorter where an edge is short."],
    |f| flaps::usual(10.0, DEEPEST, f.t),
    |_| crate::form::Bounds::new(flaps::FLAP[0], DEEPEST),
);
