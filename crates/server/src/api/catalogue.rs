//! The catalogue as the page shows it: each structure small, flat and folded, at the size at hand.

use aptum_core::LineKind;
use aptum_core::fold::{FoldModel, FoldedDrawing, draw_folded};
use aptum_core::form::catalogue::CATALOGUE;
use aptum_core::form::{Family, Flat, Form, Structure};
use aptum_core::geometry::{BezPath, path_text};
use aptum_core::units::{Unit, measure, product};
use rocket::serde::json::Json;
use rocket::{State, post};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ts_rs::TS;

use super::Problem;
use super::body::Body;
use crate::desk::Desk;
use aptum_core::workshop::RecordId;

/// What is at hand: sizes and figures that the structures are shown with, and the card.
#[derive(Debug, Deserialize, JsonSchema, TS)]
pub struct AtHand {
    form: Form,
    stock: RecordId,
    unit: Unit,
}

/// An ordinary size of a structure.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct PresetView {
    /// What it is for.
    name: String,
    /// Its sizes as text.
    text: String,
    /// The form with this size and every other figure at its default.
    form: Form,
}

/// A structure of the catalogue.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct CatalogueEntry {
    id: String,
    name: String,
    family: Family,
    /// The family's name.
    family_name: String,
    about: String,
    uses: Vec<String>,
    /// Ordinary sizes.
    presets: Vec<PresetView>,
    /// The form that choosing it gives: at the size at hand, or an ordinary one where that cannot be
    /// made.
    form: Form,
    /// Its sizes as text.
    size_text: String,
    /// True when it is shown at the size at hand.
    is_at_hand: bool,
    flat: SmallFlat,
    folded: FoldedDrawing,
}

/// A flat, small: outlines and creases as SVG path data.
#[derive(Debug, Clone, Serialize, JsonSchema, TS)]
pub struct SmallFlat {
    /// Width and height, mm.
    pub size: [f64; 2],
    /// The blanks and what is cut out of them.
    pub outline: String,
    /// Creases and perforations.
    pub creases: String,
    /// The stock's colour.
    pub colour: String,
}

impl SmallFlat {
    /// A small drawing of a flat.
    pub fn new(flat: &Flat, colour: &str) -> Self {
        let mut creases = BezPath::new();
        let mut cuts = flat.outline();
        for line in flat.strokes() {
            let into = if line.kind == LineKind::Cut { &mut cuts } else { &mut creases };
            into.extend(line.path.iter());
        }
        Self {
            size: [flat.bounds.width(), flat.bounds.height()],
            outline: path_text(&cuts),
            creases: path_text(&creases),
            colour: colour.to_owned(),
        }
    }
}

/// Every structure, drawn at the size at hand.
#[post("/catalogue", data = "<hand>")]
pub async fn catalogue(
    desk: &State<Desk>,
    hand: Body<AtHand>,
) -> Result<Json<Vec<CatalogueEntry>>, Problem> {
    desk.quick(move |store| {
        let workshop = store.workshop()?;
        let stock = workshop.stocks.get(&hand.0.stock);
        let (caliper, colour) =
            stock.map_or((0.3, "#fdfdfa"), |stock| (stock.caliper, stock.colour.as_str()));
        let entries =
            CATALOGUE.iter().filter_map(|structure| entry(structure, &hand.0, caliper, colour));
        Ok(Json(entries.collect()))
    })
    .await
}

/// A structure's figures in words, such as `60 × 30 × 90 mm` or `5 × 127 × 76 mm`.
pub fn size_text(flat: &Flat, unit: Unit) -> String {
    match flat.sizes.inside.as_slice() {
        [alone] => measure(*alone, unit),
        sizes => product(sizes, unit),
    }
}

fn entry(
    structure: &'static Structure,
    hand: &AtHand,
    caliper: f64,
    colour: &str,
) -> Option<CatalogueEntry> {
    let AtHand { form, unit, .. } = hand;
    let ordinary = |at: usize| Form::new(structure.id, structure.presets[at].figures);
    // Inside sizes go over to the other structure; flaps follow its own defaults.
    let sizes: Vec<(String, f64)> = form.inside(caliper);
    let shared: Vec<(&str, f64)> = sizes
        .iter()
        .filter(|(key, _)| structure.param(key).is_some())
        .map(|(key, value)| (key.as_str(), *value))
        .collect();
    let same = form.chosen().is_some_and(|chosen| chosen.structure == structure.id);
    let mut wanted = if same { form.clone() } else { Form::new(structure.id, &shared) };
    let drawn = (same || !shared.is_empty()).then(|| wanted.draw(caliper, *unit).ok()).flatten();
    let is_at_hand = drawn.is_some();
    let flat = match drawn {
        Some(flat) => flat,
        None => {
            wanted = ordinary(0);
            wanted.draw(caliper, *unit).ok()?
        }
    };
    let model = FoldModel::new(&flat, caliper)?;
    let presets = (0..structure.presets.len())
        .map(|at| {
            let form = ordinary(at);
            let text = form
                .draw(caliper, *unit)
                .map_or_else(|_| String::new(), |flat| size_text(&flat, *unit));
            PresetView { name: structure.presets[at].name.to_owned(), text, form }
        })
        .collect();
    Some(CatalogueEntry {
        id: structure.id.to_owned(),
        name: structure.name.to_owned(),
        family: structure.family,
        family_name: structure.family.name().to_owned(),
        about: structure.about.to_owned(),
        uses: structure.uses.iter().map(|word| (*word).to_owned()).collect(),
        presets,
        form: wanted,
        size_text: size_text(&flat, *unit),
        is_at_hand,
        folded: draw_folded(&model, model.closed()),
        flat: SmallFlat::new(&flat, colour),
    })
}
