//! Laying a lattice into the windows.

use kurbo::{Affine, Point, Rect, Vec2};

use super::{Lattice, count};
use crate::geometry::Outline;
use crate::sheet::Windows;
use crate::sheet::nest::shape::{Pose, Shape};
use crate::sheet::rotation;

/// Starts that are tried across and along.
const STARTS: usize = 6;

/// Tells whether a pose lies inside the windows, from bounds alone where nothing bites into them.
pub(super) struct Fits<'a> {
    shape: &'a Shape,
    windows: &'a Windows,
}

impl<'a> Fits<'a> {
    pub(super) const fn new(shape: &'a Shape, windows: &'a Windows) -> Self {
        Self { shape, windows }
    }

    /// The outlines in one turn, to be tried in many places.
    fn turned(&self, turn: f64) -> (Outline, Vec<Outline>) {
        let affine: Affine = rotation(turn);
        let prints = self.shape.prints.iter().map(|print| print.transformed(affine)).collect();
        (self.shape.outline.transformed(affine), prints)
    }

    fn holds(&self, (outline, prints): &(Outline, Vec<Outline>), at: Point) -> bool {
        self.windows.cut.holds(outline, at.x, at.y)
            && prints.iter().all(|print| self.windows.print.holds(print, at.x, at.y))
    }
}

/// The most copies that the lattice has inside the windows, over several starts.
pub(super) fn lay(lattice: &Lattice, windows: &Windows, fits: &Fits<'_>) -> Vec<Pose> {
    let base = windows.cut.base;
    let base = if lattice.upright { Rect::new(base.y0, base.x0, base.y1, base.x1) } else { base };
    let mut turned: Vec<(f64, _)> = Vec::new();
    for (row, _) in &lattice.rows {
        for (turn, _) in &row.copies {
            if !turned.iter().any(|(known, _): &(f64, _)| known == turn) {
                turned.push((*turn, fits.turned(*turn)));
            }
        }
    }
    let outline = |turn: f64| {
        let found = turned.iter().find(|(known, _)| *known == turn);
        found.map_or(&turned[0].1, |(_, outlines)| outlines)
    };
    let period = lattice.rows[0].0.period;
    let reach = {
        let bounds = outline(lattice.rows[0].0.copies[0].0).0.bounds();
        if lattice.upright { Rect::new(bounds.y0, bounds.x0, bounds.y1, bounds.x1) } else { bounds }
    };
    let fall: f64 = lattice.rows.iter().map(|(_, by)| by.y).sum();
    let mut best: Vec<Pose> = Vec::new();
    for (across, down) in (0..STARTS).flat_map(|x| (0..STARTS).map(move |y| (x, y))) {
        // The first starts put the first copy into the corner.
        let start = Vec2::new(
            base.x0 - reach.x0 + period * count(across) / count(STARTS),
            base.y0 - reach.y0 + fall * count(down) / count(STARTS),
        );
        let mut laid: Vec<Pose> = Vec::new();
        let (mut x, mut y) = (0.0, 0.0);
        let mut number = 0;
        while start.y + y - fall < base.y1 + reach.height() {
            let (row, _) = &lattice.rows[number % lattice.rows.len()];
            for (turn, by) in &row.copies {
                let outlines = outline(*turn);
                let first =
                    ((base.x0 - reach.width() * 1.5 - start.x - x - by.x) / row.period).floor();
                let last =
                    ((base.x1 + reach.width() * 1.5 - start.x - x - by.x) / row.period).ceil();
                let mut repeat = first;
                while repeat <= last {
                    let at = start + *by + Vec2::new(x + repeat * row.period, y - fall);
                    let at = if lattice.upright { Point::new(at.y, at.x) } else { at.to_point() };
                    if fits.holds(outlines, at) {
                        laid.push(Pose { at, turn: turn.rem_euclid(360.0) });
                    }
                    repeat += 1.0;
                }
            }
            number += 1;
            let (_, by) = &lattice.rows[number % lattice.rows.len()];
            x += by.x;
            y += by.y;
        }
        if laid.len() > best.len() {
            best = laid;
        }
    }
    best
}
