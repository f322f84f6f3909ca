//! The limits of a face.

use super::bleed::ends_at_cut;
use super::cover::clear_at_cut;
use super::lying::Area;
use super::row_checks::unknown_columns;
use super::upright::Uprights;
use super::{Face, Layer, LayerKind, List, Pattern, PlacedPicture, Shape, Text};
use crate::check::{Check, Gauge, Sense, Stage, State};
use crate::error::{Change, Remedy, Setting};
use crate::form::{Flat, Part, Role};
use crate::geometry::{Affine, BezPath, Point, Rect, polygon};
use crate::lettering::SHELF;
use crate::units::{INCH, Unit, measure};

/// Pixels in an inch that print without being seen, those under which a picture is to be looked at, and those under
/// which it is broken (common practice).
const SHARP: f64 = 300.0;
const SOFT: f64 = 200.0;
const COARSE: f64 = 100.0;

/// The smallest type that is read without trouble, points, and the thinnest line that prints, mm (common practice).
const SMALLEST_TYPE: f64 = 5.0;
const THINNEST: f64 = 0.1;

/// A layer where it lies.
pub(super) struct Laid<'a> {
    pub layer: &'a Layer,
    pub(super) part: &'a Part,
    pub(super) area: Area,
    pub(super) place: Affine,
    pub(super) unit: Unit,
    pub(super) bleed: f64,
}

/// The limits of a face on its flat; of layers that differ from row to row, the worst row's.
pub(crate) fn face_checks(
    face: &Face,
    list: Option<&List>,
    flat: &Flat,
    uprights: &Uprights,
    unit: Unit,
) -> Vec<Check> {
    let mut checks = Vec::new();
    for layer in face.layers.iter().filter(|layer| !layer.hidden) {
        if let Some(list) = list {
            checks.extend(unknown_columns(layer, list));
        }
        let Some(lying) = layer.lying() else { continue };
        let found = flat.parts.iter().find_map(|part| Some((part, lying.area(part, uprights)?)));
        let Some((part, area)) = found else {
            checks.push(nowhere(layer, &lying.panels, flat));
            continue;
        };
        let place = lying.place(&area);
        let laid = Laid { layer, part, area, place, unit, bleed: face.bleed };
        match list.filter(|list| list.fills(layer)) {
            Some(list) => checks.extend(laid.rows(list)),
            None => checks.extend(laid.checks(layer)),
        }
        checks.extend(ends_at_cut(face, layer, part, uprights, unit));
        checks.extend(clear_at_cut(face, list, layer, part, uprights, unit));
        checks.extend(laid.on_glue(&lying.panels));
    }
    checks
}

/// A layer on panels that the piece does not have.
fn nowhere(layer: &Layer, panels: &[String], flat: &Flat) -> Check {
    let state = [
        "nowhere".to_owned(),
        format!("on the {}", panels.first().map_or("flat", String::as_str).to_lowercase()),
        "the piece has no such panel".to_owned(),
    ];
    let label = format!("Place of {}", layer.title());
    let id = format!("panel-{}", layer.id);
    let check = Check::yes_or_no(&id, Stage::Face, &label, State::Broken, state);
    let faces = flat.panels().filter(|(panel, _)| panel.role == Role::Face);
    let mut names: Vec<&str> = faces.map(|(panel, _)| panel.shown_name()).collect();
    names.dedup();
    check.remedies(|| {
        names
            .into_iter()
            .take(4)
            .map(|name| {
                let field = layer.field("panels.0");
                Remedy::set(format!("Lay it on the {}", name.to_lowercase()), &field, name)
            })
            .collect()
    })
}

impl Laid<'_> {
    /// The limits of what the layer is.
    pub fn checks(&self, layer: &Layer) -> Vec<Check> {
        let room = self.area.room();
        match &layer.kind {
            LayerKind::Picture(picture) => {
                let sharpness = (!picture.drawn).then(|| self.sharpness(picture));
                let sides = picture.sides(room, self.bleed);
                // How far an outline keeps from the picture that it was traced from is said with its border.
                let is_traced = self.area.frame.is_some();
                let safe = (!is_traced).then(|| self.safe(&self.square(sides), false)).flatten();
                sharpness.into_iter().chain(safe).collect()
            }
            LayerKind::Text(text) => self.text(text),
            LayerKind::Shape(shape) => self.shape(shape),
            LayerKind::Pattern(pattern) => {
                let bounds = self.area.region.bounds().unwrap_or(Rect::ZERO);
                let many = pattern.too_many(&layer.field("grid"), room, bounds);
                let check = many.map(|error| {
                    let texts = ["too many motifs".to_owned(), String::new(), error.message];
                    self.yes_or_no("motifs", "Motifs of", State::Broken, texts).remedy(error.remedy)
                });
                check.into_iter().chain(self.motif(pattern)).collect()
            }
            LayerKind::Colour { .. } | LayerKind::PanelNames => Vec::new(),
        }
    }

    pub(super) fn id(&self, of: &str) -> String {
        format!("{of}-{}", self.layer.id)
    }

    pub fn yes_or_no(&self, of: &str, label: &str, state: State, texts: [String; 3]) -> Check {
        let label = format!("{label} {}", self.layer.title());
        Check::yes_or_no(&self.id(of), Stage::Face, &label, state, texts)
    }

    /// A rectangle about the layer's middle, where it lies on the blank.
    fn square(&self, [width, height]: [f64; 2]) -> BezPath {
        let (x, y) = (width / 2.0, height / 2.0);
        self.place * polygon(&[(-x, -y), (x, -y), (x, y), (-x, y)].map(Point::from))
    }

    /// The limits of what a pattern repeats.
    fn motif(&self, pattern: &Pattern) -> Vec<Check> {
        let mut checks: Vec<Check> =
            pattern.ppi().map(|ppi| self.resolution(ppi)).into_iter().collect();
        if let Some(text) = pattern.motif_of.text() {
            checks.extend(self.lacking(&text, |id| self.shelf_changes("motif_of.typeface", id)));
        }
        if let Some(em) = pattern.em() {
            let larger = SMALLEST_TYPE * super::POINT / em;
            let [width, height] = pattern.motif.map(|side| (side * larger * 10.0).ceil() / 10.0);
            checks.push(self.type_size(em / super::POINT).remedy(Remedy {
                text: format!("Make the motif {} wide", measure(width, self.unit)),
                changes: vec![
                    Change::new(&self.layer.field("motif.0"), width),
                    Change::new(&self.layer.field("motif.1"), height),
                ],
            }));
        }
        checks
    }

    /// How finely pixels are printed.
    fn resolution(&self, ppi: f64) -> Check {
        let (state, verdict) = if ppi >= SHARP {
            (State::Fits, "sharp at this size".to_owned())
        } else if ppi >= SOFT {
            (State::Fits, format!("fine at arm’s length; {SHARP:.0} is right"))
        } else if ppi >= COARSE {
            (State::Attention, format!("looks soft: {SHARP:.0} is right"))
        } else {
            (State::Broken, format!("its pixels are seen: {SHARP:.0} is right"))
        };
        Check {
            id: self.id("ppi"),
            stage: Stage::Face,
            label: format!("Sharpness of {}", self.layer.title()),
            state,
            gauge: Some(Gauge { value: ppi, bound: SOFT, sense: Sense::AtLeast }),
            value_text: format!("{ppi:.0}"),
            bound_text: format!("at least {SOFT:.0} ppi"),
            verdict,
            place: None,
            remedies: Vec::new(),
        }
        .remedy(Remedy::advice("Bring in a larger original"))
    }

    fn sharpness(&self, picture: &PlacedPicture) -> Check {
        let size = self.layer.field("size");
        let widest = picture.seen_pixels()[0] / SOFT * INCH;
        let widest = (widest * 10.0).floor() / 10.0;
        let mut check = self.resolution(picture.ppi(self.area.room(), self.bleed));
        let smaller = Remedy {
            text: format!(
                "Print it {} wide, as wide as its pixels allow",
                measure(widest, self.unit)
            ),
            // What an outline was traced from is as wide as that says.
            changes: if self.area.frame.is_some() {
                vec![Change::new("form.traced.width", widest.max(3.0))]
            } else {
                vec![
                    Change::new(&format!("{size}.by"), "width"),
                    Change::new(&format!("{size}.mm"), widest.max(1.0)),
                ]
            },
        };
        if !check.remedies.is_empty() {
            check.remedies.insert(0, smaller);
        }
        check
    }

    /// How large type is, points.
    fn type_size(&self, points: f64) -> Check {
        Check {
            id: self.id("type"),
            stage: Stage::Face,
            label: format!("Size of {}", self.layer.title()),
            state: if points >= SMALLEST_TYPE - 1e-9 { State::Fits } else { State::Attention },
            gauge: Some(Gauge { value: points, bound: SMALLEST_TYPE, sense: Sense::AtLeast }),
            value_text: format!("{points:.1}"),
            bound_text: format!("at least {SMALLEST_TYPE} pt"),
            verdict: if points >= SMALLEST_TYPE {
                "easily read".to_owned()
            } else {
                "hard to read, and fine strokes fill in".to_owned()
            },
            place: None,
            remedies: Vec::new(),
        }
    }

    /// What sets the layer's words in a typeface of the shelf, named by the field `typeface`.
    fn shelf_changes(&self, typeface: &str, id: &str) -> Vec<Change> {
        let own = self.layer.own_typeface();
        let own = own.map(|(_, own)| Change::new(&self.layer.field(own), Setting::Standard));
        [Change::new(&self.layer.field(typeface), id)].into_iter().chain(own).collect()
    }

    fn text(&self, text: &Text) -> Vec<Check> {
        let set = text.set(self.area.room());
        let points = set.em / super::POINT;
        let lacking = self.lacking(text, |id| self.shelf_changes("typeface", id));
        let mut checks: Vec<Check> = lacking.into_iter().collect();
        if set.is_cramped {
            let texts = [
                "too large".to_owned(),
                "all lines".to_owned(),
                "the circle has no room for some lines".to_owned(),
            ];
            let check = self.yes_or_no("circle", "Circle of", State::Broken, texts);
            checks.push(check.remedy(Remedy::set(
                "Run it straight",
                &self.layer.field("round"),
                Setting::Standard,
            )));
        }
        if set.path.elements().is_empty() {
            return checks;
        }
        let field = self.layer.field("size");
        checks.push(self.type_size(points).remedy(Remedy {
            text: format!("Set it in {SMALLEST_TYPE} pt"),
            changes: vec![
                Change::new(&format!("{field}.by"), "points"),
                Change::new(&format!("{field}.value"), SMALLEST_TYPE),
            ],
        }));
        let bounds = kurbo::Shape::bounding_box(&set.path);
        checks.extend(self.safe(&(self.place * kurbo::Shape::to_path(&bounds, 1e-3)), true));
        checks
    }

    /// Characters that the typeface lacks, and what sets it in another.
    fn lacking(&self, text: &Text, set_in: impl Fn(&str) -> Vec<Change>) -> Option<Check> {
        let lacking = text.lacking();
        if lacking.is_empty() {
            return None;
        }
        let shown: Vec<String> = lacking.iter().take(8).map(char::to_string).collect();
        let texts = [
            format!("{} missing", lacking.len()),
            format!("all in {}", text.typeface_name()),
            format!("it has no {}", shown.join(" ")),
        ];
        let check = self.yes_or_no("letters", "Letters of", State::Broken, texts);
        let others =
            SHELF.iter().filter(|other| other.font().lacking(&text.words).is_empty()).take(3);
        Some(check.remedies(|| {
            others
                .map(|other| {
                    let text =
                        format!("Set it in {}, which has them", other.character.to_lowercase());
                    Remedy { text, changes: set_in(other.id) }
                })
                .collect()
        }))
    }

    fn shape(&self, shape: &Shape) -> Vec<Check> {
        let mut checks = Vec::new();
        if shape.line.is_some() {
            let limit = (shape.thickness, Sense::AtLeast, THINNEST);
            let label = format!("Line of {}", self.layer.title());
            checks.push(
                Check::length(&self.id("line"), Stage::Face, &label, limit, self.unit)
                    .softened("may not print")
                    .remedy(Remedy::set(
                        format!("Make it {} thick", measure(THINNEST, self.unit)),
                        &self.layer.field("thickness"),
                        THINNEST,
                    )),
            );
        }
        if let super::ShapeSize::Sides(sides) = shape.size {
            checks.extend(self.safe(&self.square(sides), false));
        }
        checks
    }

    /// Ink on what is glued keeps glue from holding (common practice).
    fn on_glue(&self, panels: &[String]) -> Option<Check> {
        let glued = self.part.panels.iter().find(|panel| {
            panel.role == Role::Glue
                && panels.iter().any(|name| panel.goes_by(name))
                && !self.layer.only_shown
        })?;
        let texts = [
            "printed".to_owned(),
            "bare".to_owned(),
            format!("glue holds badly on the {}", glued.name.to_lowercase()),
        ];
        let check = self.yes_or_no("glue", "Glue under", State::Attention, texts);
        Some(check.remedy(Remedy::advice("Take the glued panel out of its area")))
    }
}
