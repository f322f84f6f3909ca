//! A sheet with its copies, as a page can show it.

use aptum_core::face::Art;
use aptum_core::geometry::{BezPath, Rect, path_text};
use aptum_core::lettering::letter_into;
use aptum_core::sheet::{Layout, Order, Placement, SheetRun, TakenBy};
use aptum_core::units::{Unit, format_length, measure, measure_area};
use aptum_core::workshop::RecordId;
use aptum_core::{Job, Prepared};
use aptum_formats::pdf::{code_ink, scale_rule, scale_words};
use schemars::JsonSchema;
use serde::Serialize;
use ts_rs::TS;

use super::face::{InkedView, worn_by};

/// A part of the page that something takes.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct TakenView {
    by: TakenBy,
    name: String,
    /// SVG path data, mm.
    path: String,
}

/// The scale and the code printed beside the pieces.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct NotesView {
    /// The ruled line, as SVG path data, mm.
    rule: String,
    /// What it measures and the sheet's code, as outlines.
    words: String,
    /// What the scale measures, as text, where there is one.
    scale_text: Option<String>,
}

/// A copy that fits nowhere.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct MisfitView {
    placement: Placement,
    /// What of it lies outside the cut window, as SVG path data.
    outside: String,
}

/// A sheet with its copies.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct SheetView {
    /// Width and height of the page, mm.
    page: [f64; 2],
    page_text: String,
    /// SVG path data of the windows, mm.
    print_window: String,
    cut_window: String,
    taken: Vec<TakenView>,
    /// SVG path data of the marks and the sign beside the first.
    marks: String,
    layout: Layout,
    /// From the front of the page to its back, as that is seen from behind: an SVG matrix.
    turned: [f64; 6],
    /// What each copy of a run's first sheet wears of its own, run by run; none where no copy differs, and none past
    /// the first thousand.
    worn: Vec<Vec<Vec<InkedView>>>,
    /// Where a copy would lie, when not one fits.
    misfit: Option<MisfitView>,
    sheets: u32,
    /// One for each run of the layout.
    notes: Vec<Option<NotesView>>,
    /// Share of the sheets that becomes pieces, as text.
    order: OrderView,
}

/// What the whole order comes to, as text.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct OrderView {
    /// Share of the sheets that becomes pieces.
    yield_text: String,
    waste_text: String,
    /// What all cards cost together, where that is known.
    cost_text: Option<String>,
    /// One for each card.
    cards: Vec<CardView>,
}

/// What is needed of one card.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct CardView {
    stock: RecordId,
    sheets: u32,
    cost_text: Option<String>,
}

pub(in crate::api) fn money((amount, currency): (f64, String)) -> String {
    format!("{amount:.2} {currency}")
}

/// An order as text.
pub fn order_view(order: &Order, unit: Unit) -> OrderView {
    OrderView {
        yield_text: format!("{:.0} %", order.used * 100.0),
        waste_text: measure_area(order.waste, unit),
        cost_text: order.cost().map(money),
        cards: order
            .cards
            .iter()
            .map(|card| CardView {
                stock: card.stock.clone(),
                sheets: card.sheets,
                cost_text: card.cost.clone().map(money),
            })
            .collect(),
    }
}

/// So many copies are shown with what is their own.
const MOST_WORN: usize = 1000;

fn worn(prepared: &Prepared) -> Vec<Vec<Vec<InkedView>>> {
    let arts: Vec<Option<&Art>> = prepared.blanks().map(|blank| blank.art).collect();
    if arts.iter().flatten().all(|art| art.by_row.is_empty()) {
        return Vec::new();
    }
    let mut left = MOST_WORN;
    let mut of_run = |run: &SheetRun| -> Vec<Vec<InkedView>> {
        let shown = run.placements.iter().take(left);
        left -= shown.len();
        let own = shown.map(|at| {
            let art = arts.get(at.part).copied().flatten();
            art.map_or_else(Vec::new, |art| worn_by(art, at.copy.saturating_sub(1) as usize))
        });
        own.collect()
    };
    prepared.layout.runs.iter().map(&mut of_run).collect()
}

/// The sheets of a prepared job.
pub fn sheet(job: &Job, prepared: &Prepared) -> SheetView {
    let windows = &prepared.windows;
    let sheets = prepared.layout.sheets();
    let mut marks = BezPath::new();
    for mark in &prepared.marks.marks {
        marks.extend(mark.ink.iter());
    }
    if let Some(sign) = &prepared.marks.sign {
        marks.extend(letter_into(&sign.text, sign.place));
    }
    SheetView {
        page: [windows.page.width(), windows.page.height()],
        page_text: page_text(windows.page, job.unit),
        print_window: path_text(&windows.print.region.to_path()),
        cut_window: path_text(&windows.cut.region.to_path()),
        taken: windows
            .taken
            .iter()
            .map(|taken| TakenView {
                by: taken.by,
                name: taken.name.clone(),
                path: path_text(&taken.path),
            })
            .collect(),
        marks: path_text(&marks),
        layout: prepared.layout.clone(),
        turned: prepared.turned.as_coeffs(),
        worn: worn(prepared),
        misfit: prepared.misfit.as_ref().map(|misfit| MisfitView {
            placement: misfit.placement,
            outside: path_text(&misfit.outside.to_path()),
        }),
        sheets,
        notes: prepared
            .notes
            .iter()
            .zip(prepared.layout.ranges())
            .enumerate()
            .map(|(run, (notes, [first, _]))| {
                notes.map(|notes| {
                    let mut words = scale_words(&notes, job.unit);
                    words.extend(code_ink(prepared, run, first));
                    NotesView {
                        rule: path_text(&scale_rule(&notes)),
                        words: path_text(&words),
                        scale_text: notes.scale().map(|scale| measure(scale, job.unit)),
                    }
                })
            })
            .collect(),
        order: order_view(&prepared.order, job.unit),
    }
}

/// Such as “210 × 297 mm”.
pub(in crate::api) fn page_text(page: Rect, unit: Unit) -> String {
    format!("{} × {}", format_length(page.width(), unit), measure(page.height(), unit))
}
