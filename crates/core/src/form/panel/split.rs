//! Cutting a panel tree in two: at a crease, or across a panel. Each time a join flap is left on the part
//! that stays, and the other part becomes a tree of its own.

use kurbo::{Affine, BezPath, Point, Shape, Vec2};

use super::{Hinge, Joint, Line, Panel, Side};

/// Ends nearer than this, mm, are one point.
const SAME: f64 = 1e-9;

/// A side that runs less steeply than this towards a hinge cannot be shortened with it.
const SLANT: f64 = 0.05;

/// A cut keeps so many radii away from a rounded corner, so that its rounding stays what it was.
const ROUNDING: f64 = 3.0;

/// Where one tree is joined to a panel of another.
#[derive(Debug, Clone, PartialEq)]
pub struct Joined {
    /// The panel that it is joined to.
    pub panel: String,
    /// The joint's two ends in that panel's frame.
    pub ends: [Point; 2],
    /// Degrees from flat to closed.
    pub fold: f64,
}

/// What was cut off a tree.
#[derive(Debug, Clone)]
pub struct CutOff {
    /// Its first panel, all of whose sides are drawn.
    pub root: Panel,
    /// Where it belongs.
    pub joined: Joined,
}

/// Makes the join flap for a joint of so many mm.
pub type JoinFlap<'a> = dyn Fn(f64) -> Panel + 'a;

impl Panel {
    /// Cuts off the panel of that name at its crease, with all that hangs on it. The join flap is creased one
    /// caliper further in, so that the part that is glued onto it comes to lie where it lay before the cut.
    ///
    /// `None` where there is no such panel, or its crease is curved, slit, perforated or folded over layers.
    pub fn cut_off(&mut self, name: &str, caliper: f64, flap: &JoinFlap<'_>) -> Option<CutOff> {
        let own = self.sides.iter().position(|side| match side {
            Side::Hinge(hinge) => hinge.panel.name == name,
            _ => false,
        });
        let Some(at) = own else {
            return self.sides.iter_mut().find_map(|side| match side {
                Side::Hinge(hinge) => hinge.panel.cut_off(name, caliper, flap),
                _ => None,
            });
        };
        let Side::Hinge(hinge) = &self.sides[at] else { return None };
        let is_plain = hinge.joint == Joint::Crease { slit: 0.0 }
            && hinge.curve.is_none()
            && hinge.lift == 0.0
            && hinge.fold > 1.0
            && hinge.fold < 179.0;
        if !is_plain {
            return None;
        }
        let (a, b, fold) = (hinge.from, hinge.to, hinge.fold);
        let away = outwards(a, b);
        let back = caliper / fold.to_radians().sin();
        let (first, before, from) = self.set_back_start(at, a, away, back)?;
        let (last, after, to) = self.set_back_end(at, b, away, back)?;
        let join = Side::Hinge(Box::new(Hinge {
            from,
            to,
            fold,
            lift: 0.0,
            joint: Joint::Crease { slit: 0.0 },
            curve: None,
            panel: flap((to - from).hypot()),
        }));
        let new = before.into_iter().chain([join]).chain(after);
        let old: Vec<Side> = self.sides.splice(first..last, new).collect();
        let mut root = old.into_iter().find_map(|side| match side {
            Side::Hinge(hinge) => Some(hinge.panel),
            _ => None,
        })?;
        root.sides.push(Side::Cut { to: Point::ZERO, radius: 0.0 });
        let joined = Joined { panel: self.name.clone(), ends: [a, b], fold };
        Some(CutOff { root, joined })
    }

    /// Where the hinge begins when it is set back: which sides it replaces from, what comes before it, and its
    /// new start.
    fn set_back_start(
        &self,
        hinge: usize,
        a: Point,
        away: Vec2,
        back: f64,
    ) -> Option<(usize, Vec<Side>, Point)> {
        let to = a - away * back;
        let step = vec![Side::Cut { to, radius: 0.0 }];
        let mut first = hinge;
        while let Some(before) = first.checked_sub(1) {
            let start = before.checked_sub(1).map_or(Point::ZERO, |index| self.sides[index].end());
            match &self.sides[before] {
                Side::Cut { .. } if (a - start).hypot() < SAME => first = before,
                Side::Cut { .. } => {
                    let way = a - start;
                    let rise = way.dot(away);
                    if rise <= back * 1.01 || rise < SLANT * way.hypot() {
                        return Some((first, step, to));
                    }
                    let to = a - way * (back / rise);
                    return Some((before, vec![Side::Cut { to, radius: 0.0 }], to));
                }
                Side::Hinge(_) => return Some((first, step, to)),
                Side::Curve { .. } | Side::Seam { .. } => return None,
            }
        }
        Some((first, step, to))
    }

    /// As [`set_back_start`](Self::set_back_start) at the hinge's end.
    fn set_back_end(
        &self,
        hinge: usize,
        b: Point,
        away: Vec2,
        back: f64,
    ) -> Option<(usize, Vec<Side>, Point)> {
        let from = b - away * back;
        let step = vec![Side::Cut { to: b, radius: 0.0 }];
        let mut last = hinge + 1;
        loop {
            match self.sides.get(last) {
                Some(Side::Cut { to, .. }) if (*to - b).hypot() < SAME => last += 1,
                Some(Side::Cut { to, .. }) => {
                    let way = *to - b;
                    let fall = -way.dot(away);
                    if fall <= back * 1.01 || fall < SLANT * way.hypot() {
                        return Some((last, step, from));
                    }
                    return Some((last, Vec::new(), b + way * (back / fall)));
                }
                Some(Side::Hinge(_)) | None => return Some((last, step, from)),
                Some(Side::Curve { .. } | Side::Seam { .. }) => return None,
            }
        }
    }

    /// Cuts this panel in two where `height` of its points is `at`; the half with the hinge stays and carries
    /// the join flap, one caliper behind the other half, which is called `second`.
    ///
    /// `None` where the line meets anything but two straight cuts, or lines that lie on the panel.
    pub fn cut_across(
        &mut self,
        height: &dyn Fn(Point) -> f64,
        caliper: f64,
        flap: &JoinFlap<'_>,
        second: &str,
    ) -> Option<CutOff> {
        let [(up, from), (down, to)] = self.crossings(height)?;
        let sides = self.lines.iter().map(|line| side_of(&line.path, height));
        let beyond: Vec<bool> = sides.collect::<Option<_>>()?;
        let along = (to - from).normalize();
        let away = outwards(from, to);
        if height(from + away) <= 0.0 {
            return None;
        }
        let map = Affine::new([along.x, along.y, away.x, away.y, from.x, from.y]).inverse();

        let mut root = Self::new(second, self.role);
        root.sides
            .push(Side::Cut { to: map * self.sides[up].end(), radius: self.sides[up].radius() });
        root.sides.extend(self.sides[up + 1..down].iter().map(|side| side.moved(map)));
        root.sides.push(Side::Cut { to: map * to, radius: 0.0 });
        root.sides.push(Side::Cut { to: Point::ZERO, radius: 0.0 });
        let mut lines = Vec::new();
        for (line, beyond) in std::mem::take(&mut self.lines).into_iter().zip(beyond) {
            if beyond {
                root.lines.push(Line { kind: line.kind, path: map * line.path });
            } else {
                lines.push(line);
            }
        }
        self.lines = lines;

        let join = Side::Hinge(Box::new(Hinge {
            from,
            to,
            fold: 0.0,
            lift: caliper,
            joint: Joint::Bend,
            curve: None,
            panel: flap((to - from).hypot()),
        }));
        let rest = Side::Cut { to: self.sides[down].end(), radius: self.sides[down].radius() };
        let first = Side::Cut { to: from, radius: 0.0 };
        self.sides.splice(up..=down, [first, join, rest]);
        let joined = Joined { panel: self.name.clone(), ends: [from, to], fold: 0.0 };
        Some(CutOff { root, joined })
    }

    /// The two cuts at which the panel's boundary goes up through the line and comes down again.
    fn crossings(&self, height: &dyn Fn(Point) -> f64) -> Option<[(usize, Point); 2]> {
        let mut start = Point::ZERO;
        let mut found = Vec::new();
        for (index, side) in self.sides.iter().enumerate() {
            let end = side.end();
            let (here, there) = (height(start), height(end));
            if (here >= 0.0) != (there >= 0.0) {
                let Side::Cut { radius, .. } = side else { return None };
                let at = start.lerp(end, here / (here - there));
                let before = index.checked_sub(1).map_or(0.0, |before| self.sides[before].radius());
                let room = (at - start).hypot() - ROUNDING * before;
                if room < 0.0 || (end - at).hypot() < ROUNDING * radius {
                    return None;
                }
                found.push((index, at));
            }
            if let Side::Curve { a, b, .. } = side
                && [*a, *b].iter().any(|point| (height(*point) >= 0.0) != (here >= 0.0))
            {
                return None;
            }
            start = end;
        }
        found.try_into().ok()
    }
}

impl Side {
    const fn radius(&self) -> f64 {
        match self {
            Self::Cut { radius, .. } => *radius,
            _ => 0.0,
        }
    }

    fn moved(&self, map: Affine) -> Self {
        match self {
            Self::Cut { to, radius } => Self::Cut { to: map * *to, radius: *radius },
            Self::Curve { a, b, to } => Self::Curve { a: map * *a, b: map * *b, to: map * *to },
            Self::Seam { to, kind } => Self::Seam { to: map * *to, kind: *kind },
            Self::Hinge(hinge) => Self::Hinge(Box::new(Hinge {
                from: map * hinge.from,
                to: map * hinge.to,
                curve: hinge.curve.map(|points| points.map(|point| map * point)),
                ..(**hinge).clone()
            })),
        }
    }
}

/// Out of a panel whose boundary runs from `a` to `b`.
fn outwards(a: Point, b: Point) -> Vec2 {
    let along = (b - a).normalize();
    Vec2::new(-along.y, along.x)
}

/// True for a path beyond the line, false for one before it, `None` for one that meets it.
fn side_of(path: &BezPath, height: &dyn Fn(Point) -> f64) -> Option<bool> {
    let box_ = path.bounding_box();
    let corners = [
        Point::new(box_.x0, box_.y0),
        Point::new(box_.x1, box_.y0),
        Point::new(box_.x1, box_.y1),
        Point::new(box_.x0, box_.y1),
    ];
    let beyond = corners.iter().filter(|corner| height(**corner) > 0.0).count();
    match beyond {
        0 => Some(false),
        4 => Some(true),
        _ => None,
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::form::{Role, flaps};

    fn join(long: f64) -> Panel {
        flaps::glue_flap("Join flap", long, 6.0)
    }

    /// A 40 × 30 base with a 20 mm wall on its far side.
    fn base() -> Panel {
        let wall = Panel::new("Wall", Role::Face).cut(0.0, 20.0).cut(40.0, 20.0).cut(40.0, 0.0);
        Panel::new("Base", Role::Face)
            .cut(0.0, 30.0)
            .hinge(40.0, 30.0, 90.0, wall)
            .cut(40.0, 0.0)
            .cut(0.0, 0.0)
    }

    #[test]
    fn a_panel_that_is_cut_off_keeps_its_size_and_the_other_gives_a_caliper() {
        let mut base = base();
        let off = base.cut_off("Wall", 0.5, &join).unwrap();
        assert_eq!((off.joined.panel.as_str(), off.joined.fold), ("Base", 90.0));
        let wall = off.root.unfold(Affine::IDENTITY);
        assert!((wall.outline.area().abs() - 800.0).abs() < 1e-9);
        let rest = base.unfold(Affine::IDENTITY);
        let flap = rest.panels[1].outline.area().abs();
        assert!((rest.outline.area().abs() - 40.0 * 29.5 - flap).abs() < 1e-9);
        assert!((rest.outline.bounding_box().height() - 35.5).abs() < 1e-9);
        assert_eq!(rest.strokes.len(), 1, "one crease: {:?}", rest.strokes);
    }

    #[test]
    fn a_panel_cut_across_is_two_that_make_the_same_area() {
        let mut base = base();
        let off = base.cut_across(&|p| p.y - 12.0, 0.5, &join, "Base, second half").unwrap();
        let (first, second) = (base.unfold(Affine::IDENTITY), off.root.unfold(Affine::IDENTITY));
        let flap = first.panels.iter().find(|panel| panel.name == "Join flap").unwrap();
        assert_eq!(flap.hang.unwrap().lift, 0.5);
        let all = first.outline.area().abs() + second.outline.area().abs();
        assert!((all - flap.outline.area().abs() - 40.0 * 50.0).abs() < 1e-9, "{all}");
        // The wall went with the second half, which still has its crease.
        assert!(second.panels.iter().any(|panel| panel.name == "Wall"));
        assert_eq!((first.strokes.len(), second.strokes.len()), (0, 1));
    }

    #[test]
    fn what_meets_a_hinge_a_curve_or_a_line_is_not_cut() {
        // Square to the base's far side the cut would run through the wall's crease.
        assert!(base().cut_across(&|p| p.x - 20.0, 0.5, &join, "Half").is_none());
        let hole = crate::geometry::circle(Point::new(20.0, 12.0), 3.0);
        let mut holed = base().with(crate::LineKind::Cut, hole);
        assert!(holed.cut_across(&|p| p.y - 12.0, 0.5, &join, "Half").is_none());
        assert!(holed.cut_across(&|p| p.y - 22.0, 0.5, &join, "Half").is_some());
        let mut over = Panel::new("Base", Role::Face)
            .cut(0.0, 30.0)
            .hinge_over(40.0, 30.0, 180.0, 0.5, Panel::new("Back", Role::Face).cut(0.0, 9.0))
            .cut(40.0, 0.0)
            .cut(0.0, 0.0);
        assert!(over.cut_off("Back", 0.5, &join).is_none());
        assert!(base().cut_off("Roof", 0.5, &join).is_none());
    }
}
