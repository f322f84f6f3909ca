//! From a convex solid to its net.
//!
//! Faces are the solid's at the middle of the card, so that edges meet there. A tab is creased where
//! its own plane, one caliper inside its mate's, meets the face it hangs on: t/sin ψ from the edge, ψ
//! being the turn from face to face. Faces are walked clockwise as seen from outside.
//!
//! Each glued edge has one tab. Which of its two faces carries it is chosen so that tabs do not crowd on
//! the face they are glued to; where two still meet at a corner of it, each keeps to its own side of the
//! corner's bisector, and none reaches past the middle between its edge and another that has one.

use std::collections::BTreeMap;

use nalgebra::{Point3, Vector3};

use crate::form::design::{Blank, Design, Edge, Move, Must, Stand, Step};
use crate::form::{Axis, Panel, Role, flaps};
use crate::geometry::{Point, Vec2};

/// A convex solid, or one that lacks some faces.
pub struct Solid {
    /// Its corners, mm.
    pub corners: Vec<[f64; 3]>,
    /// Each face's name and its corners, clockwise seen from outside.
    pub faces: Vec<(String, Vec<usize>)>,
    /// The face each hangs on; `None` for the first, which everything hangs on.
    pub hangs_on: Vec<Option<usize>>,
}

/// How a solid's net is made.
pub struct Net<'a> {
    /// The solid.
    pub solid: &'a Solid,
    /// The caliper.
    pub t: f64,
    /// Depth of the tabs; they are shorter where their edge is.
    pub tab: f64,
    /// Edges that show a figure: its key, the face, and the edge's two corners.
    pub spans: Vec<(&'static str, usize, [usize; 2])>,
}

/// A tab's ends lean in by this, degrees, or less where the mate's edge is near.
const LEAN: f64 = 45.0;

/// Tabs on one face keep this far from the line midway between them, mm.
const PLAY: f64 = 0.15;

/// Degrees by which tabs are bent in past their closed angle while the faces are folded up.
const PAST: f64 = 45.0;

/// The tip keeps a third of the hinge, so that it still holds.
const NARROWEST_TIP: f64 = 0.34;

struct Side {
    /// The face on the other side, if there is one.
    other: Option<usize>,
    /// How far the edge is drawn in, for a tab's crease.
    inset: f64,
    has_tab: bool,
    /// The number at a glued edge.
    number: usize,
}

/// A face in its own frame: where its hinge's corner is the origin.
struct Face {
    corners: Vec<Point>,
    /// The corners once edges with tabs are drawn in.
    drawn: Vec<Point>,
    sides: Vec<Side>,
}

impl Net<'_> {
    /// The design: one blank, tabs folded first, then the faces closed in one go.
    #[must_use]
    pub fn design(&self, stand: Stand) -> Design {
        let faces = self.faces();
        let root = self.panel(&faces, 0, None);
        let mut design = Design::new(vec![Blank::upwards("Net", root)], stand).folds(Axis::Both);
        let (mut tabs, mut walls) = (Vec::new(), Vec::new());
        for (index, face) in faces.iter().enumerate() {
            if index > 0 {
                walls.push(self.name(index));
            }
            for (place, side) in face.sides.iter().enumerate() {
                let Some(other) = side.other.filter(|_| side.number > 0) else { continue };
                let count = face.corners.len();
                let edge = |of: &[Point], shift: Vec2| {
                    let (a, b) = (of[place] - shift, of[(place + 1) % count] - shift);
                    Edge::new(self.name(index), (a.x, a.y), (b.x, b.y))
                };
                let shift = self.shift(&faces, index);
                design.mates.push((edge(&face.drawn, shift), side.number));
                if side.has_tab {
                    let tab = tab_name(side.number);
                    tabs.push((tab.clone(), self.turn(index, other)));
                    design.musts.push(Must::Glue(tab, self.name(other), 0.0));
                } else {
                    // The free edge lies in the middle of the card whose tab it is glued to.
                    design.musts.push(Must::Reach(edge(&face.drawn, shift), self.name(other), 0.0));
                }
            }
        }
        for (key, face, corners) in &self.spans {
            let loop_ = self.loop_of(*face);
            let shift = self.shift(&faces, *face);
            let end = |corner: usize| {
                let place = loop_.iter().position(|known| *known == corner).unwrap_or(0);
                let at = faces[*face].corners[place] - shift;
                (at.x, at.y)
            };
            design = design.span(key, self.name(*face), end(corners[0]), end(corners[1]));
        }
        // Tabs are bent in past their angle, so that they slip inside their mates.
        let mut steps = Vec::new();
        let mut up =
            Step::close("Fold the faces up and glue edge to edge, by their numbers", walls);
        if !tabs.is_empty() {
            let bent = tabs.iter().map(|(tab, turn)| (tab.clone(), (turn + PAST).min(170.0)));
            steps.push(Step::turn("Fold the tabs in", bent));
            up.moves.extend(tabs.into_iter().map(|(tab, _)| Move::Close(tab)));
        }
        steps.push(up);
        design.steps(steps)
    }

    fn name(&self, face: usize) -> String {
        self.solid.faces[face].0.clone()
    }

    fn corner(&self, index: usize) -> Point3<f64> {
        Point3::from(self.solid.corners[index])
    }

    fn normal(&self, face: usize) -> Vector3<f64> {
        let loop_ = &self.solid.faces[face].1;
        let count = loop_.len();
        let sum = (0..count).fold(Vector3::zeros(), |sum: Vector3<f64>, index| {
            let (a, b) = (self.corner(loop_[index]), self.corner(loop_[(index + 1) % count]));
            sum + b.coords.cross(&a.coords)
        });
        sum.normalize()
    }

    /// Degrees by which one face is turned from another.
    fn turn(&self, one: usize, other: usize) -> f64 {
        self.normal(one).dot(&self.normal(other)).clamp(-1.0, 1.0).acos().to_degrees()
    }

    /// The face that has the edge from `b` to `a`, and where in its loop.
    fn across(&self, a: usize, b: usize) -> Option<(usize, usize)> {
        self.solid.faces.iter().enumerate().find_map(|(face, (_, loop_))| {
            let count = loop_.len();
            (0..count)
                .find(|place| loop_[*place] == b && loop_[(place + 1) % count] == a)
                .map(|place| (face, place))
        })
    }

    /// A face's loop from the corner where its hinge starts: the hinge is its last side.
    fn loop_of(&self, face: usize) -> Vec<usize> {
        let loop_ = &self.solid.faces[face].1;
        let count = loop_.len();
        let start = self.solid.hangs_on[face]
            .and_then(|parent| {
                (0..count).find(|place| {
                    self.across(loop_[*place], loop_[(place + 1) % count])
                        .is_some_and(|(other, _)| other == parent)
                })
            })
            .map_or(0, |hinge| (hinge + 1) % count);
        loop_.iter().cycle().skip(start).take(count).copied().collect()
    }

    /// True where the edge is a crease of the net.
    fn is_hinge(&self, one: usize, other: usize) -> bool {
        self.solid.hangs_on[one] == Some(other) || self.solid.hangs_on[other] == Some(one)
    }

    /// For each glued edge, by its corners in order, the face that carries its tab: the earlier face of
    /// the two, unless another choice leaves fewer tabs beside each other on one face.
    fn carriers(&self) -> BTreeMap<[usize; 2], usize> {
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

    fn faces(&self) -> Vec<Face> {
        let carriers = self.carriers();
        let mut number = 0;
        let mut numbers = BTreeMap::new();
        let count = self.solid.faces.len();
        let mut faces: Vec<Face> = Vec::with_capacity(count);
        for face in 0..count {
            let loop_ = self.loop_of(face);
            let long = loop_.len();
            let (first, last) = (self.corner(loop_[0]), self.corner(loop_[long - 1]));
            let along = (last - first).normalize();
            let away = self.normal(face).cross(&along);
            let corners: Vec<Point> = loop_
                .iter()
                .map(|corner| self.corner(*corner) - first)
                .map(|v| Point::new(v.dot(&along), v.dot(&away)))
                .collect();
            let sides: Vec<Side> = (0..long)
                .map(|place| {
                    let (a, b) = (loop_[place], loop_[(place + 1) % long]);
                    let other = self.across(a, b).map(|(other, _)| other);
                    let Some(mate) = other.filter(|other| !self.is_hinge(face, *other)) else {
                        return Side { other, inset: 0.0, has_tab: false, number: 0 };
                    };
                    let key = [a.min(b), a.max(b)];
                    let number = *numbers.entry(key).or_insert_with(|| {
                        number += 1;
                        number
                    });
                    let has_tab = carriers[&key] == face;
                    let slant = self.turn(face, mate).to_radians().sin().max(0.2);
                    let inset = if has_tab { self.t / slant } else { 0.0 };
                    Side { other, inset, has_tab, number }
                })
                .collect();
            let drawn = drawn_in(&corners, &sides);
            faces.push(Face { corners, drawn, sides });
        }
        faces
    }

    /// Where along its hinge's edge a child's hinge starts and ends, in the child's own frame.
    fn hinge(faces: &[Face], parent: &Face, place: usize, child: usize) -> [f64; 2] {
        let next = (place + 1) % parent.corners.len();
        let start = parent.corners[place];
        let along = (parent.corners[next] - start).normalize();
        let on = |point: Point| (point - start).dot(along);
        let face = &faces[child];
        let (first, last) = (face.drawn[0].x, face.drawn[face.drawn.len() - 1].x);
        [on(parent.drawn[place]).max(first), on(parent.drawn[next]).min(last)]
    }

    /// The shift of a face's frame: its origin is where its hinge starts.
    fn shift(&self, faces: &[Face], face: usize) -> Vec2 {
        let Some(parent) = self.solid.hangs_on[face] else { return faces[0].drawn[0].to_vec2() };
        let place = faces[parent].sides.iter().position(|side| side.other == Some(face));
        place.map_or(Vec2::ZERO, |place| {
            Vec2::new(Self::hinge(faces, &faces[parent], place, face)[0], 0.0)
        })
    }

    fn panel(&self, faces: &[Face], face: usize, hung: Option<[f64; 2]>) -> Panel {
        let own = &faces[face];
        let count = own.corners.len();
        let shift = hung.map_or(own.drawn[0].to_vec2(), |[start, _]| Vec2::new(start, 0.0));
        let at = |point: Point| point - shift;
        let first = at(own.drawn[0]);
        let mut panel = Panel::new(self.name(face), Role::Face).cut(first.x, first.y);
        let last = if hung.is_some() { count - 1 } else { count };
        for place in 0..last {
            let side = &own.sides[place];
            let end = at(own.drawn[(place + 1) % count]);
            let child = side.other.filter(|other| self.solid.hangs_on[*other] == Some(face));
            if let Some(child) = child {
                let span = Self::hinge(faces, own, place, child);
                let (from, to) = (own.corners[place], own.corners[(place + 1) % count]);
                let along = (to - from).normalize();
                let (start, stop) = (at(from + along * span[0]), at(from + along * span[1]));
                panel = panel.cut(start.x, start.y).hinge(
                    stop.x,
                    stop.y,
                    self.turn(face, child),
                    self.panel(faces, child, Some(span)),
                );
                panel = panel.cut(end.x, end.y);
            } else if let Some(mate) = side.other.filter(|_| side.has_tab) {
                let start = panel.end();
                let tab = self.tab(faces, (face, place), mate);
                let along = (end - start).normalize();
                let (from, to) = (start + along * tab.back[0], end - along * tab.back[1]);
                panel = panel.cut_on(from.x, from.y).hinge(
                    to.x,
                    to.y,
                    self.turn(face, mate),
                    tab.panel(side.number),
                );
                panel = panel.cut_on(end.x, end.y);
            } else {
                panel = panel.cut(end.x, end.y);
            }
        }
        match hung {
            Some([start, stop]) => panel.cut(stop - start, 0.0),
            None => panel.cut(0.0, 0.0),
        }
    }

    /// The tab at a side of a face, glued to `mate`.
    fn tab(&self, faces: &[Face], (face, place): (usize, usize), mate: usize) -> Tab {
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

    /// A face's angle at one of its corners, degrees.
    fn angle(&self, corner: usize, face: usize) -> f64 {
        let loop_ = &self.solid.faces[face].1;
        let count = loop_.len();
        let Some(place) = loop_.iter().position(|other| *other == corner) else { return 0.0 };
        let here = self.corner(corner);
        let before = self.corner(loop_[(place + count - 1) % count]) - here;
        let after = self.corner(loop_[(place + 1) % count]) - here;
        before.angle(&after).to_degrees()
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
struct Tab {
    /// Length of its crease, mm.
    hinge: f64,
    /// How far it reaches, mm.
    deep: f64,
    /// How its two ends lean, radians from the crease.
    lean: [f64; 2],
    /// How far its crease stays back from the ends of its edge, mm.
    back: [f64; 2],
}

impl Tab {
    fn panel(&self, number: usize) -> Panel {
        let [first, last] = self.lean.map(|lean| self.deep / lean.tan());
        Panel::new(tab_name(number), Role::Glue)
            .set_by("tab")
            .cut(first, self.deep)
            .cut(self.hinge - last, self.deep)
            .cut(self.hinge, 0.0)
    }
}

/// The corners where neighbouring sides, drawn in, cross.
fn drawn_in(corners: &[Point], sides: &[Side]) -> Vec<Point> {
    let count = corners.len();
    let line = |place: usize| {
        let (a, b) = (corners[place], corners[(place + 1) % count]);
        let along = (b - a).normalize();
        // The card lies to the right of the walk.
        let inwards = Vec2::new(along.y, -along.x);
        (a + inwards * sides[place].inset, along)
    };
    (0..count)
        .map(|place| {
            let ((a, one), (b, two)) = (line((place + count - 1) % count), line(place));
            let cross = one.cross(two);
            if cross.abs() < 1e-9 { b } else { a + one * ((b - a).cross(two) / cross) }
        })
        .collect()
}

fn tab_name(number: usize) -> String {
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
