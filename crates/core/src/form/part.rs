//! A blank as it is drawn: its outline, its lines and its panels.

use std::cell::OnceCell;

use kurbo::{Affine, BezPath, PathEl, Rect, Shape, Vec2};
use rstar::RTree;
use rstar::primitives::{GeomWithData, Rectangle};

use super::PlacedPanel;
use super::design::Blank;
use super::flat::Label;
use super::panel::Joined;
use crate::LineKind;
use crate::geometry::{Outline, Region, contours};
use crate::id::{PartId, StrokeId};
use crate::stroke::{Stroke, StrokeSource};
use crate::workshop::RecordId;

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
        inside.chain([Stroke::new(StrokeId::EDGE, self.edge, outline, StrokeSource::Edge)])
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
        let boxes = closed.iter().enumerate().map(|(at, (_, own))| {
            let corners = ([own.x0, own.y0], [own.x1, own.y1]);
            GeomWithData::new(Rectangle::from_corners(corners.0, corners.1), at)
        });
        let boxes = RTree::bulk_load(boxes.collect());
        let areas: Vec<OnceCell<Option<Outline>>> = vec![OnceCell::new(); closed.len()];
        let is_outer = |path: &BezPath, own: Rect| {
            let start = path.elements().first().and_then(PathEl::end_point).unwrap_or_default();
            !boxes.locate_all_at_point(&[start.x, start.y]).any(|near| {
                let (other, around) = closed[near.data];
                let area = || areas[near.data].get_or_init(|| Outline::of_path(other)).as_ref();
                around != own
                    && around.contains_rect(own)
                    && area().is_some_and(|other| other.holds(start))
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
