//! Registration marks on the page: exact shapes, the space they need, and what tells a sheet that
//! lies the wrong way round.

use kurbo::{BezPath, Point, Rect, Shape, Vec2};

use crate::geometry::{Region, circle, polygon};
use crate::workshop::{Corner, DistanceFrom, MarkSet, MarkShape, Tell};

/// Height of the sign beside the first mark, mm.
const SIGN_HEIGHT: f64 = 3.5;

/// Clear space around the sign, mm.
const SIGN_CLEAR: f64 = 0.5;

/// A registration mark on the page.
#[derive(Debug, Clone)]
pub struct PlacedMark {
    /// The corner it stands in.
    pub corner: Corner,
    /// The inked area, filled.
    pub ink: BezPath,
    /// The point that is measured: an angle's outer corner, a dot's or cross's middle.
    pub reference: Point,
    /// Its bounds.
    pub bounds: Rect,
    /// What must stay free around it, the mark itself included.
    pub keep_clear: Region,
}

/// Text beside the first mark.
#[derive(Debug, Clone, PartialEq)]
pub struct Sign {
    /// A “1” or the sheet's code.
    pub text: String,
    /// Where it stands.
    pub place: Rect,
}

/// A page's marks.
#[derive(Debug, Clone, Default)]
pub struct Marks {
    /// The first one first, then clockwise.
    pub marks: Vec<PlacedMark>,
    /// What is printed beside the first.
    pub sign: Option<Sign>,
}

/// White reaches so far around a mark that lies on it, mm (common practice: what an eye needs to find its edges).
const AROUND: f64 = 3.0;

impl Marks {
    /// What lies around each mark, where it is printed on white.
    #[must_use]
    pub fn grounds(&self) -> Vec<Rect> {
        let around = |mark: &PlacedMark| mark.ink.bounding_box().inflate(AROUND, AROUND);
        self.marks.iter().map(around).collect()
    }
}

impl Sign {
    /// What must stay free for it.
    #[must_use]
    pub fn keep_clear(&self) -> Region {
        Region::rect(self.place.inflate(SIGN_CLEAR, SIGN_CLEAR))
    }
}

impl Marks {
    /// Everything that must stay free.
    pub fn keep_clear(&self) -> impl Iterator<Item = Region> + '_ {
        let sign = self.sign.iter().map(Sign::keep_clear);
        self.marks.iter().map(|mark| mark.keep_clear.clone()).chain(sign)
    }

    /// The rectangle that the marks span, outside to outside.
    #[must_use]
    pub fn span(&self) -> Option<Rect> {
        self.marks.iter().map(|mark| mark.bounds).reduce(|all, next| all.union(next))
    }
}

/// Places a mark set on a page; `code` is what a sheet code would say.
#[must_use]
pub fn place_marks(set: &MarkSet, page: Rect, printable: Rect, code: &str) -> Marks {
    let edges = match set.from {
        DistanceFrom::PaperEdge => page,
        DistanceFrom::PrintableEdge => printable,
    };
    let outer = edges.inset((-set.across, -set.along));
    let marks = set
        .corners()
        .map(|corner| {
            let odd = set.tell == Tell::OddMark && corner == set.first.opposite();
            place(set, corner, at_corner(outer, corner), odd)
        })
        .collect();
    let text = match set.tell {
        Tell::Numeral => Some("1".to_owned()),
        Tell::SheetCode => Some(code.to_owned()),
        Tell::MissingMark | Tell::OddMark => None,
    };
    let sign = text.map(|text| {
        let place = sign_place(set, at_corner(outer, set.first), &text);
        Sign { text, place }
    });
    Marks { marks, sign }
}

const fn at_corner(rect: Rect, corner: Corner) -> Point {
    match corner {
        Corner::TopLeft => Point::new(rect.x0, rect.y0),
        Corner::TopRight => Point::new(rect.x1, rect.y0),
        Corner::BottomRight => Point::new(rect.x1, rect.y1),
        Corner::BottomLeft => Point::new(rect.x0, rect.y1),
    }
}

/// The odd one is told apart by ink that its fellows lack or have: an angle's arms are half as
/// long, a dot is a ring, a cross is closed.
fn place(set: &MarkSet, corner: Corner, outer: Point, odd: bool) -> PlacedMark {
    let (sx, sy) = corner.inwards();
    let inward = |x: f64, y: f64| outer + Vec2::new(sx * x, sy * y);
    let (ink, reference, keep_clear) = match set.mark {
        MarkShape::Angle { arm, stroke } => {
            let arm = if odd { arm / 2.0 } else { arm };
            let ink = polygon(&[
                outer,
                inward(arm, 0.0),
                inward(arm, stroke),
                inward(stroke, stroke),
                inward(stroke, arm),
                inward(0.0, arm),
            ]);
            let clear = Region::inside(&ink).grown(set.keep_clear);
            (ink, outer, clear)
        }
        MarkShape::Dot { diameter } => {
            let (centre, radius) = (inward(diameter / 2.0, diameter / 2.0), diameter / 2.0);
            let mut ink = circle(centre, radius);
            if odd {
                // Drawn the other way round, so that it is a hole under either fill rule.
                ink.extend(circle(centre, radius / 2.0).reverse_subpaths());
            }
            let clear = Region::inside(&circle(centre, radius + set.keep_clear));
            (ink, centre, clear)
        }
        MarkShape::Cross { arm, stroke } => {
            let centre = inward(arm / 2.0, arm / 2.0);
            let gap = if odd { 0.0 } else { stroke.max(arm / 6.0) };
            let mut ink = BezPath::new();
            for side in [
                Vec2::new(1.0, 0.0),
                Vec2::new(0.0, 1.0),
                Vec2::new(-1.0, 0.0),
                Vec2::new(0.0, -1.0),
            ] {
                let wide = Vec2::new(-side.y, side.x) * (stroke / 2.0);
                let (near, far) = (centre + side * gap, centre + side * (arm / 2.0));
                ink.extend(polygon(&[near - wide, far - wide, far + wide, near + wide]));
            }
            let bounds = Rect::from_center_size(centre, (arm, arm));
            (ink, centre, Region::rect(bounds.inflate(set.keep_clear, set.keep_clear)))
        }
    };
    let bounds = ink.bounding_box();
    PlacedMark { corner, ink, reference, bounds, keep_clear }
}

/// Inside an angle's elbow; beside a dot or a cross.
fn sign_place(set: &MarkSet, outer: Point, text: &str) -> Rect {
    let characters = f64::from(u32::try_from(text.chars().count()).unwrap_or(u32::MAX));
    let size = Vec2::new(characters * SIGN_HEIGHT * 0.75, SIGN_HEIGHT);
    let (sx, sy) = set.first.inwards();
    let (x, y) = match set.mark {
        MarkShape::Angle { stroke, .. } => {
            let clear = stroke + set.keep_clear + SIGN_CLEAR;
            (clear, clear)
        }
        MarkShape::Dot { .. } | MarkShape::Cross { .. } => {
            let extent = set.mark.extent();
            (extent + set.keep_clear + SIGN_CLEAR, (extent - SIGN_HEIGHT) / 2.0)
        }
    };
    let near = outer + Vec2::new(sx * x, sy * y);
    Rect::from_points(near, near + Vec2::new(sx * size.x, sy * size.y))
}

#[cfg(test)]
mod tests {
    use super::*;

    fn set(mark: MarkShape, tell: Tell) -> MarkSet {
        MarkSet {
            name: "Test".into(),
            mark,
            first: Corner::BottomLeft,
            tell,
            across: 6.35,
            along: 6.35,
            from: DistanceFrom::PaperEdge,
            keep_clear: 2.0,
            keeping: crate::workshop::Keeping::Kept,
        }
    }

    const LETTER: Rect = Rect::new(0.0, 0.0, 215.9, 279.4);

    /// Common practice: angles ¼ in from the edges of Letter span 8 × 10.5 in.
    #[test]
    fn angles_of_practice_span_eight_by_ten_and_a_half_inches() {
        let set = set(MarkShape::Angle { arm: 10.0, stroke: 1.0 }, Tell::Numeral);
        let marks = place_marks(&set, LETTER, LETTER, "");
        let span = marks.span().unwrap();
        assert!((span.width() - 203.2).abs() < 1e-9);
        assert!((span.height() - 266.7).abs() < 1e-9);
        assert_eq!(marks.marks[0].corner, Corner::BottomLeft);
        for mark in &marks.marks {
            // Two arms of 10 × 1 mm that share a square millimetre.
            assert!((mark.ink.area().abs() - 19.0).abs() < 1e-9);
        }
    }

    #[test]
    fn something_tells_a_turned_sheet() {
        let angle = MarkShape::Angle { arm: 10.0, stroke: 1.0 };
        for (mark, tell) in [
            (angle, Tell::MissingMark),
            (angle, Tell::OddMark),
            (angle, Tell::Numeral),
            (angle, Tell::SheetCode),
            (MarkShape::Dot { diameter: 5.0 }, Tell::OddMark),
            (MarkShape::Dot { diameter: 5.0 }, Tell::Numeral),
            (MarkShape::Cross { arm: 8.0, stroke: 0.5 }, Tell::OddMark),
            (MarkShape::Cross { arm: 8.0, stroke: 0.5 }, Tell::SheetCode),
        ] {
            let marks = place_marks(&set(mark, tell), LETTER, LETTER, "K7Q4M");
            let ink = |turned: bool| {
                let half = kurbo::Affine::rotate_about(std::f64::consts::PI, LETTER.center());
                let all = marks.marks.iter().fold(Region::empty(), |all, mark| {
                    let path = if turned { half * mark.ink.clone() } else { mark.ink.clone() };
                    // Evenodd by hand: a ring's hole counts as white.
                    let rings: Vec<_> =
                        path.subpaths().map(|p| BezPath::from_vec(p.to_vec())).collect();
                    let solid =
                        rings.iter().fold(Region::empty(), |a, r| a.union(&Region::inside(r)));
                    let holes = rings
                        .iter()
                        .filter(|r| r.area() * rings[0].area() < 0.0)
                        .fold(Region::empty(), |a, r| a.union(&Region::inside(r)));
                    all.union(&solid.minus(&holes))
                });
                let sign = marks.sign.iter().fold(Region::empty(), |all, sign| {
                    let corner =
                        if turned { half.transform_rect_bbox(sign.place) } else { sign.place };
                    all.union(&Region::rect(corner))
                });
                all.union(&sign)
            };
            let (upright, turned) = (ink(false), ink(true));
            let differs = upright.minus(&turned).area() + turned.minus(&upright).area();
            assert!(differs > 1.0, "{mark:?} {tell:?}: {differs} mm² differ");
        }
    }

    #[test]
    fn the_sign_stands_clear_of_its_mark() {
        for mark in [
            MarkShape::Angle { arm: 10.0, stroke: 1.0 },
            MarkShape::Dot { diameter: 5.0 },
            MarkShape::Cross { arm: 8.0, stroke: 0.5 },
        ] {
            let marks = place_marks(&set(mark, Tell::SheetCode), LETTER, LETTER, "K7Q4M");
            let sign = Region::rect(marks.sign.clone().unwrap().place);
            for mark in &marks.marks {
                assert!(sign.intersection(&mark.keep_clear).area() < 1e-6);
            }
        }
    }
}
