//! A structure laid flat: one or more blanks side by side.

use kurbo::{Affine, BezPath, Point, Rect, Vec2};
#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::Serialize;
#[cfg(feature = "api")]
use ts_rs::TS;

use super::add_on::CutOut;
use super::design::{Edge, Must, Stand, Step};
use super::drafting;
use super::drawing::DrawingFacts;
use super::gathered::GatheredFacts;
use super::part::Part;
use super::traced::TracedFacts;
use super::{Axis, Dimension, Figure, PlacedPanel};
use crate::check::Check;
use crate::stroke::Stroke;

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
    use crate::geometry::Region;
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
