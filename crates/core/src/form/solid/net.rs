//! From a convex solid to its net.
//!
//! Faces are the solid's at the middle of the card, so that edges meet there. A tab is creased where
//! its own plane, one caliper inside its mate's, meets the face it hangs on: t/sin ψ from the edge, ψ
//! being the turn from face to face. Faces are walked clockwise as seen from outside.

use std::collections::BTreeMap;

use nalgebra::{Point3, Vector3};

use super::tabs::tab_name;
use crate::form::design::{Blank, Design, Edge, Move, Must, Stand, Step};
use crate::form::{Axis, Panel, Role};
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

/// Degrees by which tabs are bent in past their closed angle while the faces are folded up.
const PAST: f64 = 45.0;

pub(super) struct Side {
    /// The face on the other side, if there is one.
    pub other: Option<usize>,
    /// How far the edge is drawn in, for a tab's crease.
    pub inset: f64,
    pub has_tab: bool,
    /// The number at a glued edge.
    pub number: usize,
}

/// A face in its own frame: where its hinge's corner is the origin.
pub(super) struct Face {
    pub corners: Vec<Point>,
    /// The corners once edges with tabs are drawn in.
    pub drawn: Vec<Point>,
    pub sides: Vec<Side>,
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
    pub(super) fn turn(&self, one: usize, other: usize) -> f64 {
        self.normal(one).dot(&self.normal(other)).clamp(-1.0, 1.0).acos().to_degrees()
    }

    /// The face that has the edge from `b` to `a`, and where in its loop.
    pub(super) fn across(&self, a: usize, b: usize) -> Option<(usize, usize)> {
        self.solid.faces.iter().enumerate().find_map(|(face, (_, loop_))| {
            let count = loop_.len();
            (0..count)
                .find(|place| loop_[*place] == b && loop_[(place + 1) % count] == a)
                .map(|place| (face, place))
        })
    }

    /// A face's loop from the corner where its hinge starts: the hinge is its last side.
    pub(super) fn loop_of(&self, face: usize) -> Vec<usize> {
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
    pub(super) fn is_hinge(&self, one: usize, other: usize) -> bool {
        self.solid.hangs_on[one] == Some(other) || self.solid.hangs_on[other] == Some(one)
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

    /// A face's angle at one of its corners, degrees.
    pub(super) fn angle(&self, corner: usize, face: usize) -> f64 {
        let loop_ = &self.solid.faces[face].1;
        let count = loop_.len();
        let Some(place) = loop_.iter().position(|other| *other == corner) else { return 0.0 };
        let here = self.corner(corner);
        let before = self.corner(loop_[(place + count - 1) % count]) - here;
        let after = self.corner(loop_[(place + 1) % count]) - here;
        before.angle(&after).to_degrees()
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
