//! A structure laid flat: one or more blanks side by side.

use kurbo::{Affine, BezPath, PathEl, Point, Rect, Shape, Vec2};
#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::Serialize;
#[cfg(feature = "api")]
use ts_rs::TS;

use super::add_on::CutOut;
use super::design::{Blank, Edge, Must, Stand, Step};
use super::drafting;
use super::drawing::DrawingFacts;
use super::gathered::GatheredFacts;
use super::panel::Joined;
use super::traced::TracedFacts;
use super::{Axis, Dimension, Figure, PlacedPanel};
use crate::LineKind;
use crate::check::Check;
use crate::geometry::{Outline, Region, contours};
use crate::id::PartId;
use crate::stroke::{Stroke, StrokeSource};
use crate::workshop::RecordId;

/// The finished dimensions in the three ways of measuring, mm, one entry for each size.
#[derive(Debug, Clone, Default, PartialEq, Serialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Sizes {
    /// The figures' keys, such as `length`.
    pub keys: Vec<String>,
    /// The room inside.
    pub inside: Vec<f64>,
    /// Between creases.
    pub crease: Vec<f64>,
    /// Over everything.
    pub outside: Vec<f64>,
}

/// A label where it stands on a blank.
#[derive(Debug, Clone, PartialEq)]
pub struct Label {
    /// The panel that carries it.
    pub panel: String,
    /// The words.
    pub text: String,
    /// Their middle, in the blank's coordinates.
    pub centre: Point,
    /// The room they have, across and along, mm.
    pub size: [f64; 2],
}

/// One blank, seen from its printed side, its bounds' top left corner at the origin.
#[derive(Debug, Clone)]
pub struct Part {
    /// What it is known by among the piece's blanks.
    pub id: PartId,
    /// Its name, such as “Lid”.
    pub name: String,
    /// The card it is cut from, where that is not the job's.
    pub stock: Option<RecordId>,
    /// What its cuts are: through, or through the face only where it lies on a liner.
    pub edge: LineKind,
    /// True where its card lies on a liner.
    pub on_liner: bool,
    /// True where its edge is cut through the liner whatever else is.
    pub edge_through: bool,
    /// The blank: closed cuts, one around each of the parts that lie and stay together; none inside another.
    pub outline: BezPath,
    /// Creases, slits, holes and everything else inside the blank.
    pub strokes: Vec<Stroke>,
    /// The panels.
    pub panels: Vec<PlacedPanel>,
    /// Where it is joined to another blank before either is folded.
    pub joined: Option<Joined>,
    /// The labels on them.
    pub labels: Vec<Label>,
    /// The blank's bounds.
    pub bounds: Rect,
    /// Where it lies in the drawing of the whole.
    pub at: Vec2,
    /// Where the picture lies that it was traced from.
    pub picture: Option<Rect>,
}

impl Part {
    /// Lays a blank flat.
    #[must_use]
    pub fn of(blank: &Blank) -> Self {
        let tree = blank.root.unfold(blank.frame);
        let bounds = tree.outline.bounding_box();
        let shift = Affine::translate((-bounds.x0, -bounds.y0));
        let panel = |panel: PlacedPanel| PlacedPanel {
            outline: shift * panel.outline,
            frame: shift * panel.frame,
            ..panel
        };
        Self {
            id: PartId::of_name(&blank.name),
            name: blank.name.clone(),
            stock: None,
            edge: LineKind::Cut,
            on_liner: false,
            edge_through: false,
            outline: shift * tree.outline,
            strokes: tree.strokes.into_iter().map(|stroke| stroke.moved(shift)).collect(),
            panels: tree.panels.into_iter().map(panel).collect(),
            joined: blank.joined.clone(),
            labels: Vec::new(),
            bounds: Rect::new(0.0, 0.0, bounds.width(), bounds.height()),
            at: Vec2::ZERO,
            picture: None,
        }
    }

    /// The blank as it is seen from behind: left and right change places. Labels are left out: they stand on the front.
    #[must_use]
    pub fn mirrored(&self) -> Self {
        let turned = self.turned_over();
        let panel = |panel: &PlacedPanel| PlacedPanel {
            outline: turned * panel.outline.clone(),
            frame: turned * panel.frame,
            ..panel.clone()
        };
        Self {
            outline: turned * self.outline.clone(),
            strokes: self.strokes.iter().map(|stroke| stroke.clone().moved(turned)).collect(),
            panels: self.panels.iter().map(panel).collect(),
            labels: Vec::new(),
            picture: self.picture.map(|own| turned.transform_rect_bbox(own)),
            ..self.clone()
        }
    }

    /// Where a point of the blank lies when it is seen from behind, and the other way round.
    #[must_use]
    pub fn turned_over(&self) -> Affine {
        Affine::new([-1.0, 0.0, 0.0, 1.0, self.bounds.x0 + self.bounds.x1, 0.0])
    }

    /// An outline without panels: what is laid behind or between.
    #[must_use]
    pub fn plain(name: &str, outline: BezPath) -> Self {
        let bounds = outline.bounding_box();
        let shift = Affine::translate((-bounds.x0, -bounds.y0));
        Self {
            id: PartId::of_name(name),
            name: name.to_owned(),
            stock: None,
            edge: LineKind::Cut,
            on_liner: false,
            edge_through: false,
            outline: shift * outline,
            strokes: Vec::new(),
            panels: Vec::new(),
            joined: None,
            labels: Vec::new(),
            bounds: Rect::new(0.0, 0.0, bounds.width(), bounds.height()),
            at: Vec2::ZERO,
            picture: None,
        }
    }

    /// Every stroke: what lies inside it, then its edge.
    pub fn all_strokes(&self) -> impl Iterator<Item = Stroke> {
        let inside = self
            .strokes
            .iter()
            .map(|stroke| Stroke { kind: self.kind(stroke.kind), ..stroke.clone() });
        let outline = self.outline.clone();
        inside.chain([Stroke::new("edge", self.edge, outline, StrokeSource::Edge)])
    }

    /// What a line of that kind is on this blank.
    #[must_use]
    pub fn kind(&self, drawn: LineKind) -> LineKind {
        if drawn == LineKind::Cut { self.edge } else { drawn }
    }

    /// The kinds of its lines, its edge's too; some may come more than once.
    pub fn kinds(&self) -> impl Iterator<Item = LineKind> {
        self.strokes.iter().map(|stroke| self.kind(stroke.kind)).chain([self.edge])
    }

    /// The card of one such blank in mm², what is cut out of it taken off.
    #[must_use]
    pub fn area(&self) -> f64 {
        let holes: f64 = self.openings().map(|path| path.area().abs()).sum();
        contours(&self.outline).iter().map(|contour| contour.area().abs()).sum::<f64>() - holes
    }

    /// What is cut out: closed cuts inside the blank, without those that lie in another and fall out with it.
    pub fn openings(&self) -> impl Iterator<Item = &BezPath> {
        let closed = self
            .strokes
            .iter()
            .filter(|stroke| stroke.kind == LineKind::Cut && stroke.is_closed())
            .map(|stroke| (&stroke.path, stroke.path.bounding_box()));
        let closed: Vec<(&BezPath, Rect)> = closed.collect();
        let is_outer = |path: &BezPath, own: Rect| {
            let start = path.elements().first().and_then(PathEl::end_point).unwrap_or_default();
            !closed.iter().any(|(other, around)| {
                *around != own
                    && around.contains_rect(own)
                    && Outline::of_path(other).is_some_and(|other| other.holds(start))
            })
        };
        let outer: Vec<&BezPath> = closed
            .iter()
            .filter(|(path, own)| is_outer(path, *own))
            .map(|(path, _)| *path)
            .collect();
        outer.into_iter()
    }

    /// The blank as an area.
    #[must_use]
    pub fn region(&self) -> Region {
        Region::inside(&self.outline)
    }
}

/// How a flat becomes a piece.
#[derive(Debug, Clone)]
pub struct Folding {
    /// The way its main folds run, which should be the grain's.
    pub main: Axis,
    /// The steps, in order.
    pub steps: Vec<Step>,
    /// What must hold in the end.
    pub musts: Vec<Must>,
    /// How it stands.
    pub stand: Stand,
    /// How far strips lie from the curve they stand for, mm.
    pub ruling: f64,
}

/// A form laid flat. Its blanks and their bounds are there whatever it is drawn from, the rest where its source
/// has it.
#[derive(Debug, Clone)]
pub struct Flat {
    /// Its blanks.
    pub parts: Vec<Part>,
    /// The bounds of the drawing of the whole.
    pub bounds: Rect,
    /// Drafted dimensions, in the drawing of the whole.
    pub dimensions: Vec<Dimension>,
    /// The figures that made it.
    pub figures: Vec<Figure>,
    /// Its sizes in three ways.
    pub sizes: Sizes,
    /// What it holds, mm³.
    pub volume: Option<f64>,
    /// How it folds.
    pub folding: Option<Folding>,
    /// Numbers at mating edges: where, in the drawing of the whole, and the number.
    pub mates: Vec<(kurbo::Point, usize)>,
    /// Limits met in the form itself.
    pub checks: Vec<Check>,
    /// What the outline of a picture came to.
    pub traced: Option<TracedFacts>,
    /// What lies on a card that holds other pieces.
    pub gathered: Option<GatheredFacts>,
    /// What a drawing from elsewhere came to.
    pub drawing: Option<DrawingFacts>,
    /// Openings of one's own.
    pub cut_outs: Vec<CutOut>,
}

impl Flat {
    /// Blanks set side by side, with nothing else.
    #[must_use]
    pub fn of(mut parts: Vec<Part>) -> Self {
        Self {
            bounds: arrange(&mut parts),
            parts,
            dimensions: Vec::new(),
            figures: Vec::new(),
            sizes: Sizes::default(),
            volume: None,
            folding: None,
            mates: Vec::new(),
            checks: Vec::new(),
            traced: None,
            gathered: None,
            drawing: None,
            cut_outs: Vec::new(),
        }
    }

    /// Numbers sides that meet when it is folded.
    pub fn number_joints(&mut self, joints: &[[Edge; 2]]) {
        let numbered = joints.iter().enumerate();
        let edges: Vec<(Edge, usize)> = numbered
            .flat_map(|(at, pair)| pair.iter().map(move |edge| (edge.clone(), at + 1)))
            .collect();
        self.mates = drafting::mates(&edges, &self.parts);
    }

    /// It as it is seen from behind, without dimensions.
    #[must_use]
    pub fn mirrored(&self) -> Self {
        let parts = self.parts.iter().map(|part| Part {
            at: Vec2::new(
                self.bounds.x0 + self.bounds.x1 - part.at.x - part.bounds.width(),
                part.at.y,
            ),
            ..part.mirrored()
        });
        Self {
            parts: parts.collect(),
            dimensions: Vec::new(),
            figures: Vec::new(),
            mates: Vec::new(),
            checks: Vec::new(),
            ..self.clone()
        }
    }

    /// Cuts round the blanks, in the drawing of the whole.
    #[must_use]
    pub fn outline(&self) -> BezPath {
        self.parts.iter().fold(BezPath::new(), |mut all, part| {
            all.extend(Affine::translate(part.at) * part.outline.clone());
            all
        })
    }

    /// All other lines, in the drawing of the whole.
    #[must_use]
    pub fn strokes(&self) -> Vec<Stroke> {
        let moved = |part: &Part, stroke: &Stroke| stroke.clone().moved(Affine::translate(part.at));
        self.parts
            .iter()
            .flat_map(|part| part.strokes.iter().map(move |stroke| moved(part, stroke)))
            .collect()
    }

    /// The panels with the paths of their outlines in the drawing of the whole.
    pub fn panels(&self) -> impl Iterator<Item = (&PlacedPanel, BezPath)> {
        self.parts.iter().flat_map(|part| {
            let moved = Affine::translate(part.at);
            part.panels.iter().map(move |panel| (panel, moved * panel.outline.clone()))
        })
    }

    /// The outline of the panel of that name, in the drawing of the whole.
    #[must_use]
    pub fn panel(&self, name: &str) -> Option<BezPath> {
        self.panels().find(|(panel, _)| panel.name == name).map(|(_, outline)| outline)
    }

    /// The way its main folds run; both where nothing is folded.
    #[must_use]
    pub fn main_folds(&self) -> Axis {
        self.folding.as_ref().map_or(Axis::Both, |folding| folding.main)
    }

    /// Card in one piece, all blanks, mm².
    #[must_use]
    pub fn area(&self) -> f64 {
        self.parts.iter().map(Part::area).sum()
    }
}

/// Room between blanks in the drawing of the whole, mm.
const BETWEEN: f64 = 12.0;

/// Sets the blanks side by side, in rows about as wide as all are high.
fn arrange(parts: &mut [Part]) -> Rect {
    let area: f64 = parts.iter().map(|part| part.bounds.area() * 1.4).sum();
    let widest = parts.iter().map(|part| part.bounds.width()).fold(0.0, f64::max);
    let width = (area * 1.6).sqrt().max(widest);
    let (mut x, mut y, mut row) = (0.0, 0.0, 0.0f64);
    let mut all = Rect::ZERO;
    for part in parts {
        if x > 0.0 && x + part.bounds.width() > width + 1e-9 {
            (x, y, row) = (0.0, y + row + BETWEEN, 0.0);
        }
        part.at = Vec2::new(x, y);
        all = all.union(part.bounds + part.at);
        x += part.bounds.width() + BETWEEN;
        row = row.max(part.bounds.height());
    }
    all
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::form::Form;
    use crate::units::Unit;

    #[test]
    fn blanks_lie_beside_each_other_and_never_overlap() {
        for (id, count) in [("index-tabs", 12.0), ("index-tabs", 7.0), ("lid-and-base", 0.0)] {
            let flat = Form::new(id, &[("count", count)]).draw(0.4, Unit::Mm).unwrap();
            let places: Vec<Rect> = flat.parts.iter().map(|part| part.bounds + part.at).collect();
            for (index, one) in places.iter().enumerate() {
                assert!(flat.bounds.contains_rect(*one));
                for other in &places[index + 1..] {
                    assert_eq!(one.intersect(*other).area(), 0.0, "{id}");
                }
            }
        }
    }

    #[test]
    fn a_blank_of_several_contours_is_one_thing_that_is_laid_and_nothing_folds() {
        let square = |x: f64, side: f64| {
            crate::geometry::polygon(&[
                Point::new(x, 0.0),
                Point::new(x + side, 0.0),
                Point::new(x + side, side),
                Point::new(x, side),
            ])
        };
        // The second runs the other way round.
        let mut both = square(0.0, 10.0);
        both.extend(square(30.0, 20.0).reverse_subpaths());
        let part = Part::plain("Two letters", both);
        assert!((part.area() - 500.0).abs() < 1e-9);
        assert!((part.region().area() - 500.0).abs() < 1e-9);
        let laid = crate::blank::Piece::new(&part.outline, &Region::empty()).unwrap();
        let hull = Region::inside(&crate::geometry::polygon(laid.outline().points()));
        assert!(
            (hull.area() - 850.0).abs() < 1e-9,
            "nothing else may lie between: {}",
            hull.area()
        );

        let flat = Flat::of(vec![part]);
        assert_eq!((flat.bounds.width(), flat.bounds.height()), (50.0, 20.0));
        assert!(crate::fold::FoldModel::new(&flat, 0.3).is_none());
        assert_eq!(flat.main_folds(), Axis::Both);
        assert!(crate::form_checks::limits(&flat, None, Unit::Mm).is_empty());
    }

    #[test]
    fn the_card_of_a_piece_leaves_out_its_openings() {
        let plain = Form::new("tag", &[("hole", 0.0)]).draw(0.4, Unit::Mm).unwrap();
        let holed = Form::new("tag", &[("hole", 6.0)]).draw(0.4, Unit::Mm).unwrap();
        let hole = std::f64::consts::PI * 9.0;
        assert!((plain.area() - holed.area() - hole).abs() < 1e-2);
        assert!((plain.area() - 45.0 * 75.0).abs() < 1e-9);
    }
}
