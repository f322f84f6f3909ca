//! Where the layers of a face lie in the drawing of the whole piece, what they are drawn to when they are moved, and
//! how several are lined up.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use super::safe::safe_distance;
use super::{Face, Layer, LayerKind, List, PictureSize, ShapeSize, TextSize, Uprights};
use crate::error::Change;
use crate::form::Flat;
use crate::geometry::{Affine, Point, Rect};
use crate::id::LayerId;

/// A layer where it lies.
#[derive(Debug, Clone, PartialEq)]
pub struct PlacedLayer {
    /// Which layer.
    pub id: LayerId,
    /// Its middle in the drawing of the whole, mm.
    pub centre: Point,
    /// How far it is turned there, degrees clockwise.
    pub turn: f64,
    /// Width and height as it is read, mm.
    pub size: [f64; 2],
    /// What it takes in the drawing, upright, mm.
    pub bounds: Rect,
    /// What its area takes there.
    pub area: Rect,
}

/// How several layers are lined up.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum LineUp {
    /// Their left sides.
    Left,
    /// Their middles, across.
    Centre,
    /// Their right sides.
    Right,
    /// Their upper sides.
    Top,
    /// Their middles, down.
    Middle,
    /// Their lower sides.
    Bottom,
    /// With equal gaps across.
    GapsAcross,
    /// With equal gaps down.
    GapsDown,
    /// As wide as the first.
    Widths,
    /// As high as the first.
    Heights,
}

impl Face {
    /// Where each layer lies that has a place of its own on panels that are there, as the copy of a row has it.
    #[must_use]
    pub fn placed(
        &self,
        list: Option<(&List, usize)>,
        flat: &Flat,
        uprights: &Uprights,
    ) -> Vec<PlacedLayer> {
        self.layers.iter().filter_map(|layer| self.place_of(layer, list, flat, uprights)).collect()
    }

    fn place_of(
        &self,
        layer: &Layer,
        list: Option<(&List, usize)>,
        flat: &Flat,
        uprights: &Uprights,
    ) -> Option<PlacedLayer> {
        let lying = layer.lying()?;
        let mut parts = flat.parts.iter();
        let (part, area) = parts.find_map(|part| Some((part, lying.area(part, uprights)?)))?;
        let filled = list.and_then(|(list, row)| list.of_row(layer, row));
        let room = area.room();
        let size = match &filled.as_deref().unwrap_or(layer).kind {
            LayerKind::Picture(picture) => picture.sides(room, self.bleed),
            LayerKind::Text(text) => text.set(room).size,
            LayerKind::Shape(shape) => shape.sides(room),
            LayerKind::Pattern(_) => room,
            LayerKind::Colour { .. } | LayerKind::PanelNames => return None,
        };
        let place = Affine::translate(part.at) * lying.place(&area);
        let [width, height] = size;
        let own = Rect::from_center_size(Point::ZERO, (width, height));
        Some(PlacedLayer {
            id: layer.id.clone(),
            centre: place * Point::ZERO,
            turn: area.upright + lying.turn,
            size,
            bounds: place.transform_rect_bbox(own),
            area: area.region.bounds()? + part.at,
        })
    }

    /// The changes that line layers up, below the piece's path; those that are locked stay where they are.
    #[must_use]
    pub fn lined_up(&self, placed: &[PlacedLayer], ids: &[LayerId], how: LineUp) -> Vec<Change> {
        let find = |id: &LayerId| {
            let layer = self.layers.iter().find(|layer| layer.id == *id)?;
            Some((layer, placed.iter().find(|placed| placed.id == *id)?))
        };
        let mut chosen: Vec<(&Layer, &PlacedLayer)> = ids.iter().filter_map(find).collect();
        let Some((_, first)) = chosen.first().copied() else { return Vec::new() };
        let all = chosen.iter().fold(first.bounds, |all, (_, own)| all.union(own.bounds));
        let is_across = matches!(
            how,
            LineUp::Left | LineUp::Centre | LineUp::Right | LineUp::GapsAcross | LineUp::Widths
        );
        let mut changes = Vec::new();
        let mut shift = |layer: &Layer, by: f64| {
            let Some(lying) = layer.lying().filter(|_| !layer.locked && by.abs() > 1e-9) else {
                return;
            };
            let (name, from) = if is_across { ("x", lying.x) } else { ("y", lying.y) };
            changes.push(Change::new(&layer.field(name), rounded(from + by)));
        };
        match how {
            LineUp::Left
            | LineUp::Centre
            | LineUp::Right
            | LineUp::Top
            | LineUp::Middle
            | LineUp::Bottom => {
                for (layer, PlacedLayer { bounds, .. }) in &chosen {
                    let by = match how {
                        LineUp::Left => all.x0 - bounds.x0,
                        LineUp::Right => all.x1 - bounds.x1,
                        LineUp::Top => all.y0 - bounds.y0,
                        LineUp::Bottom => all.y1 - bounds.y1,
                        LineUp::Centre => all.center().x - bounds.center().x,
                        _ => all.center().y - bounds.center().y,
                    };
                    shift(layer, by);
                }
            }
            LineUp::GapsAcross | LineUp::GapsDown => {
                let side = |own: &PlacedLayer| {
                    let Rect { x0, y0, x1, y1 } = own.bounds;
                    if is_across { (x0, x1) } else { (y0, y1) }
                };
                chosen.sort_by(|(_, a), (_, b)| {
                    let middle = |own: &PlacedLayer| side(own).0 + side(own).1;
                    middle(a).total_cmp(&middle(b))
                });
                let taken: f64 = chosen.iter().map(|(_, own)| side(own).1 - side(own).0).sum();
                let (from, to) = if is_across { (all.x0, all.x1) } else { (all.y0, all.y1) };
                #[expect(clippy::cast_precision_loss, reason = "40 layers at most")]
                let gap = (to - from - taken) / (chosen.len() - 1).max(1) as f64;
                let mut next = from;
                for (layer, own) in &chosen {
                    shift(layer, next - side(own).0);
                    next += side(own).1 - side(own).0 + gap;
                }
            }
            LineUp::Widths | LineUp::Heights => {
                let axis = usize::from(!is_across);
                let others = chosen.iter().filter(|(layer, _)| !layer.locked);
                for (layer, own) in others.filter(|(_, own)| own.size[axis] > 1e-6) {
                    changes.extend(sized(layer, own.size, axis, first.size[axis]));
                }
            }
        }
        changes
    }
}

/// The changes that give a layer a side of so many mm.
fn sized(layer: &Layer, size: [f64; 2], axis: usize, to: f64) -> Vec<Change> {
    let field = layer.field("size");
    let share = to / size[axis];
    if (share - 1.0).abs() < 1e-9 {
        return Vec::new();
    }
    let sides = |kept: [f64; 2]| {
        let mut sides = kept;
        sides[axis] = to;
        vec![
            Change::new(&format!("{field}.by"), "sides"),
            Change::new(&format!("{field}.mm.0"), rounded(sides[0])),
            Change::new(&format!("{field}.mm.1"), rounded(sides[1])),
        ]
    };
    match &layer.kind {
        LayerKind::Picture(picture) if matches!(picture.size, PictureSize::Sides(_)) => sides(size),
        LayerKind::Picture(_) => vec![
            Change::new(&format!("{field}.by"), if axis == 0 { "width" } else { "height" }),
            Change::new(&format!("{field}.mm"), rounded(to)),
        ],
        LayerKind::Shape(shape) if matches!(shape.size, ShapeSize::Sides(_)) => sides(size),
        LayerKind::Text(text) => match text.size {
            TextSize::Points(value) | TextSize::Em(value) | TextSize::Capitals(value) => {
                vec![Change::new(&format!("{field}.value"), rounded(value * share))]
            }
            TextSize::Area => Vec::new(),
        },
        _ => Vec::new(),
    }
}

impl PlacedLayer {
    /// What its middle is drawn to when it is moved, across and down in the drawing, mm: its area's middle, its edges
    /// and its safe margins; the middles and sides of others.
    #[must_use]
    pub fn snaps(&self, others: &[Self]) -> [Vec<f64>; 2] {
        let axis = |low: fn(&Rect) -> f64, high: fn(&Rect) -> f64| {
            let half = (high(&self.bounds) - low(&self.bounds)) / 2.0;
            let safe = safe_distance(self.area);
            let (from, to) = (low(&self.area), high(&self.area));
            let mut found = vec![
                (from + to) / 2.0,
                from + half,
                to - half,
                from + safe + half,
                to - safe - half,
            ];
            for other in others.iter().filter(|other| other.id != self.id) {
                let (from, to) = (low(&other.bounds), high(&other.bounds));
                found.extend([(from + to) / 2.0, from + half, to - half, to + half, from - half]);
            }
            found.sort_by(f64::total_cmp);
            found.dedup_by(|a, b| (*a - *b).abs() < 1e-6);
            found
        };
        [axis(|rect| rect.x0, |rect| rect.x1), axis(|rect| rect.y0, |rect| rect.y1)]
    }
}

fn rounded(mm: f64) -> f64 {
    (mm * 1000.0).round() / 1000.0
}
