//! One sheet's copies under an act.

use kurbo::{Point, Rect, Vec2};

use super::FAR;
use super::act::{Act, AlignTo, Arrange, Direction};
use super::snap::{Guides, Lines};
use crate::sheet::Ground;
use crate::sheet::{Piece, Placement, rotation};

/// One sheet's copies.
pub(super) struct Table<'a> {
    pub ground: &'a Ground,
    pub blanks: &'a [&'a Piece],
    pub window: Rect,
    pub placements: &'a mut Vec<Placement>,
}

impl Table<'_> {
    fn bounds(&self, at: usize) -> Rect {
        let place = &self.placements[at];
        self.blanks
            .get(place.part)
            .map_or(Rect::ZERO, |blank| blank.outline().transformed(place.transform()).bounds())
    }

    fn together(&self, chosen: &[usize]) -> Option<Rect> {
        chosen.iter().map(|at| self.bounds(*at)).reduce(|all, next| all.union(next))
    }

    fn shift(&mut self, at: usize, by: Vec2) {
        self.placements[at].x += by.x;
        self.placements[at].y += by.y;
    }

    /// Does it; the copies that are chosen then, and what they were drawn to.
    pub(super) fn act(&mut self, ask: &Arrange, spacing: f64, page: Rect) -> (Vec<usize>, Guides) {
        let mut chosen = ask.chosen.clone();
        chosen.sort_unstable();
        chosen.dedup();
        let movable: Vec<usize> =
            chosen.iter().copied().filter(|at| !self.placements[*at].locked).collect();
        let mut guides = Vec::new();
        match ask.what {
            Act::Move { x, y, snap } => {
                let mut by = Vec2::new(x, y);
                if let Some(bounds) = self.together(&movable).filter(|_| snap > 0.0) {
                    let bounds = bounds + by;
                    let neighbours = self.neighbours(bounds, &movable);
                    let lines = Lines { window: self.window, page, neighbours, spacing };
                    let (more, drawn) = lines.draw(bounds, snap);
                    by += more;
                    guides = drawn;
                }
                movable.iter().for_each(|at| self.shift(*at, by));
            }
            Act::Turn { degrees } => self.turn(&movable, degrees),
            Act::Align { to } => {
                let target =
                    if chosen.len() > 1 { self.together(&chosen) } else { Some(self.window) };
                if let Some(target) = target {
                    for at in movable {
                        let own = self.bounds(at);
                        self.shift(at, aligned(own, target, to));
                    }
                }
            }
            Act::Distribute { along } => self.distribute(&chosen, along),
            Act::Grid { columns, rows, across, down } => {
                self.repeat(&mut chosen, (columns, rows), Vec2::new(across, down));
            }
            Act::Lock => chosen.iter().for_each(|at| self.placements[*at].locked = true),
            Act::Unlock => chosen.iter().for_each(|at| self.placements[*at].locked = false),
            Act::Remove => {
                let mut at = 0;
                self.placements.retain(|_| {
                    at += 1;
                    chosen.binary_search(&(at - 1)).is_err()
                });
                chosen.clear();
            }
            Act::Add { ref piece, ref part } => {
                let Some(part) = self.ground.number(piece, part) else { return (chosen, guides) };
                chosen = vec![self.placements.len()];
                let place = self.blanks[part].centred(0.0, self.window.center());
                self.placements.push(Placement { part, ..place });
            }
        }
        (chosen, guides)
    }

    /// Bounds of the copies near some bounds, those that move with them aside.
    fn neighbours(&self, bounds: Rect, moving: &[usize]) -> Vec<Rect> {
        let near = bounds.inflate(FAR, FAR);
        (0..self.placements.len())
            .filter(|at| moving.binary_search(at).is_err())
            .map(|at| self.bounds(at))
            .filter(|other| other.intersect(near).area() > 0.0)
            .collect()
    }

    fn turn(&mut self, chosen: &[usize], degrees: f64) {
        let Some(middle) = self.together(chosen).map(|bounds| bounds.center()) else { return };
        let turn = rotation(degrees);
        for at in chosen {
            let place = &mut self.placements[*at];
            let from = Point::new(place.x, place.y) - middle;
            let to = (turn * from.to_point()).to_vec2();
            place.x = middle.x + to.x;
            place.y = middle.y + to.y;
            place.turn = (place.turn + degrees).rem_euclid(360.0);
        }
    }

    /// Repeats the chosen copies in columns and rows with gaps between; the new ones are chosen as well.
    fn repeat(&mut self, chosen: &mut Vec<usize>, (columns, rows): (u32, u32), gaps: Vec2) {
        let Some(bounds) = self.together(chosen) else { return };
        let pitch = Vec2::new(bounds.width() + gaps.x, bounds.height() + gaps.y);
        let originals: Vec<Placement> = chosen.iter().map(|at| self.placements[*at]).collect();
        let cells = (0..rows).flat_map(|row| (0..columns).map(move |column| (column, row)));
        for (column, row) in cells.skip(1) {
            let by = Vec2::new(pitch.x * f64::from(column), pitch.y * f64::from(row));
            for place in &originals {
                chosen.push(self.placements.len());
                let (x, y) = (place.x + by.x, place.y + by.y);
                self.placements.push(Placement { x, y, copy: 0, locked: false, ..*place });
            }
        }
    }

    fn distribute(&mut self, chosen: &[usize], along: Direction) {
        if chosen.len() < 3 {
            return;
        }
        let span = |bounds: Rect| match along {
            Direction::Across => (bounds.x0, bounds.x1),
            Direction::Down => (bounds.y0, bounds.y1),
        };
        let mut order: Vec<(usize, (f64, f64))> =
            chosen.iter().map(|at| (*at, span(self.bounds(*at)))).collect();
        order.sort_by(|(_, a), (_, b)| (a.0 + a.1).total_cmp(&(b.0 + b.1)));
        let first = order[0].1.0;
        let last = order[order.len() - 1].1.1;
        let filled: f64 = order.iter().map(|(_, (from, to))| to - from).sum();
        let gaps = f64::from(u32::try_from(order.len() - 1).unwrap_or(1));
        let gap = (last - first - filled) / gaps;
        let mut next = first;
        for (at, (from, to)) in order {
            let by = next - from;
            next += to - from + gap;
            if !self.placements[at].locked {
                self.shift(
                    at,
                    match along {
                        Direction::Across => Vec2::new(by, 0.0),
                        Direction::Down => Vec2::new(0.0, by),
                    },
                );
            }
        }
    }
}

fn aligned(own: Rect, target: Rect, to: AlignTo) -> Vec2 {
    match to {
        AlignTo::Left => Vec2::new(target.x0 - own.x0, 0.0),
        AlignTo::Middle => Vec2::new(target.center().x - own.center().x, 0.0),
        AlignTo::Right => Vec2::new(target.x1 - own.x1, 0.0),
        AlignTo::Top => Vec2::new(0.0, target.y0 - own.y0),
        AlignTo::Centre => Vec2::new(0.0, target.center().y - own.center().y),
        AlignTo::Bottom => Vec2::new(0.0, target.y1 - own.y1),
    }
}
