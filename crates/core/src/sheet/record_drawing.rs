//! A drawing of each record of the workshop: what a machine leaves of a sheet, and what takes the rest.

use kurbo::{Affine, BezPath, Point, Rect, Shape, Vec2};
#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::Serialize;
#[cfg(feature = "api")]
use ts_rs::TS;

use super::{Machines, Marks, Orientation, SheetSize, Taken, TakenBy, place_marks, standard_sizes};
use crate::geometry::{circle, path_text, polygon};
use crate::tooling::{trial_pattern, trial_size};
use crate::units::{Unit, measure};
use crate::workshop::{
    Carrier, Corner, Cutter, Finds, Force, Grain, LiesInTray, MarkSet, PrintRecipe, Printer,
    Recipe, Record, Stock,
};

/// A record, drawn.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct RecordDrawing {
    /// Width and height of all of it, mm.
    pub size: [f64; 2],
    /// What is drawn, from below.
    pub parts: Vec<DrawnPart>,
}

/// A part of a record's drawing.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct DrawnPart {
    /// What it is.
    pub what: DrawnAs,
    /// What takes the room, for an area that something takes.
    pub by: Option<TakenBy>,
    /// Its name, for the pointer.
    pub name: String,
    /// SVG path data, mm.
    pub path: String,
}

/// What a part of a record's drawing is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum DrawnAs {
    /// A sheet of paper or card.
    Sheet,
    /// The outline of something larger: the largest sheet, the carrier.
    Frame,
    /// What is taken from the sheet.
    Taken,
    /// Ink.
    Ink,
    /// Which way fibres run, or which corner is first.
    Sign,
    /// What is left.
    Window,
}

impl DrawnPart {
    fn new(what: DrawnAs, name: impl Into<String>, path: &BezPath) -> Self {
        Self { what, by: None, name: name.into(), path: path_text(path) }
    }

    fn taken(taken: &Taken) -> Self {
        Self { by: Some(taken.by), ..Self::new(DrawnAs::Taken, taken.name.clone(), &taken.path) }
    }
}

fn rect(rect: Rect) -> BezPath {
    rect.to_path(0.1)
}

/// Draws a record whose figures are sound; lengths in its names are written in `unit`.
#[must_use]
pub fn draw_record(record: &Record, unit: Unit) -> RecordDrawing {
    let show = |length: f64| measure(length, unit);
    match record {
        Record::Stocks(stock) => draw_stock(stock, show),
        Record::Printers(printer) => draw_printer(printer, show),
        Record::Cutters(cutter) => draw_cutter(cutter, show),
        Record::Carriers(carrier) => draw_carrier(carrier, show),
        Record::MarkSets(set) => draw_marks(set, show),
        Record::Recipes(recipe) => draw_recipe(recipe),
        Record::PrintRecipes(recipe) => draw_print_recipe(recipe),
    }
}

/// The pattern of its test cut, four times as large, on a scrap.
fn draw_recipe(recipe: &Recipe) -> RecordDrawing {
    let size = trial_size(1) * 4.0;
    let scrap = Rect::new(0.0, 0.0, size.x * 2.0, size.y * 1.5);
    let place = Affine::translate((size.x * 0.5, size.y * 0.25)) * Affine::scale(4.0);
    let mut parts = vec![DrawnPart::new(DrawnAs::Sheet, "a scrap", &rect(scrap))];
    let settings = recipe.force.map_or_else(|| "the machine’s own force".to_owned(), Force::text);
    let name = format!("{}: {settings}", recipe.line.name());
    parts.extend(
        trial_pattern(recipe.line)
            .into_iter()
            .map(|(_, path)| DrawnPart::new(DrawnAs::Frame, name.clone(), &(place * path))),
    );
    RecordDrawing { size: [scrap.width(), scrap.height()], parts }
}

/// A sheet as it lies in the tray.
fn draw_print_recipe(recipe: &PrintRecipe) -> RecordDrawing {
    let page = sample(f64::INFINITY, f64::INFINITY);
    let tray = page.inset(20.0);
    let (page, tray) = (page + Vec2::new(20.0, 20.0), tray - Vec2::new(tray.x0, tray.y0));
    let words = recipe.settings.words().join(", ");
    let mut parts = vec![
        DrawnPart::new(DrawnAs::Frame, "the tray", &rect(tray)),
        DrawnPart::new(DrawnAs::Sheet, words, &rect(page)),
    ];
    if recipe.settings.lies == LiesInTray::FaceUp {
        let print = page.inset(-15.0);
        parts.push(DrawnPart::new(DrawnAs::Ink, "what is printed", &rect(print)));
    }
    RecordDrawing { size: [tray.width(), tray.height()], parts }
}

/// A4, or so much of it as goes in.
fn sample(width: f64, length: f64) -> Rect {
    let [a4_width, a4_height] = standard_sizes()
        .into_iter()
        .find(|size| size.name == "A4")
        .map_or([width, length], |size| [size.width, size.height]);
    Rect::new(0.0, 0.0, a4_width.min(width), a4_height.min(length))
}

/// The sizes it is kept in, one in the other, with the way of the fibres.
fn draw_stock(stock: &Stock, show: impl Fn(f64) -> String) -> RecordDrawing {
    let mut sizes: Vec<&SheetSize> = stock.sheets.iter().collect();
    sizes.sort_by(|a, b| (b.width * b.height).total_cmp(&(a.width * a.height)));
    let (width, height) = sizes.iter().fold((50.0_f64, 50.0_f64), |(width, height), size| {
        (width.max(size.width), height.max(size.height))
    });
    let mut parts: Vec<DrawnPart> = Vec::new();
    for (at, size) in sizes.iter().enumerate() {
        let sheet = Rect::new(0.0, 0.0, size.width, size.height);
        let what = if at == 0 { DrawnAs::Sheet } else { DrawnAs::Frame };
        let name = format!("{}, {} × {}", size.name, show(size.width), show(size.height));
        parts.push(DrawnPart::new(what, name, &rect(sheet)));
    }
    if let Some(roll) = stock.roll {
        let lost = [
            Rect::new(0.0, 0.0, roll.side, height),
            Rect::new(width - roll.side, 0.0, width, height),
        ];
        for side in lost {
            let name = format!("{} lost at the roll’s side", show(roll.side));
            parts.push(DrawnPart {
                by: Some(TakenBy::RollSides),
                ..DrawnPart::new(DrawnAs::Taken, name, &rect(side))
            });
        }
    }
    if stock.grain != Grain::Unknown {
        let down = (stock.grain == Grain::Long) == (height >= width);
        let mut fibres = BezPath::new();
        for line in 1..=9 {
            let share = f64::from(line) / 10.0;
            // Fibres are of different lengths.
            let (from, to) = (0.08 + 0.06 * f64::from(line % 3), 0.9 - 0.07 * f64::from(line % 4));
            let ends = if down {
                [(share * width, from * height), (share * width, to * height)]
            } else {
                [(from * width, share * height), (to * width, share * height)]
            };
            fibres.move_to(ends[0]);
            fibres.line_to(ends[1]);
        }
        parts.push(DrawnPart::new(DrawnAs::Sign, "the grain runs this way", &fibres));
    }
    RecordDrawing { size: [width, height], parts }
}

/// A4 as it lies in the printer, what it cannot print on, and the largest sheet it takes.
fn draw_printer(printer: &Printer, show: impl Fn(f64) -> String) -> RecordDrawing {
    let page = sample(printer.width, printer.length);
    let largest = Rect::new(0.0, 0.0, printer.width, printer.length);
    let machines = Machines { printer: Some(printer), ..Machines::default() };
    let windows = machines.windows(page, Orientation::Portrait, &Marks::default());
    let largest_name = format!("largest sheet, {} × {}", show(printer.width), show(printer.length));
    let page_name = format!("a sheet of {} × {}", show(page.width()), show(page.height()));
    let mut parts = vec![
        DrawnPart::new(DrawnAs::Frame, largest_name, &rect(largest)),
        DrawnPart::new(DrawnAs::Sheet, page_name, &rect(page)),
    ];
    parts.extend(windows.taken.iter().map(DrawnPart::taken));
    let left = format!(
        "prints {} × {}",
        show(windows.printable.width()),
        show(windows.printable.height())
    );
    parts.push(DrawnPart::new(DrawnAs::Window, left, &rect(windows.printable)));
    RecordDrawing { size: [printer.width, printer.length], parts }
}

/// The largest sheet in the cutter (a roll is cut off), what rollers take, the lead and the tail, where the eye
/// reads nothing, and the corner in which the blade starts.
fn draw_cutter(cutter: &Cutter, show: impl Fn(f64) -> String) -> RecordDrawing {
    let page = Rect::new(0.0, 0.0, cutter.width, cutter.length.min(cutter.width * 2.0));
    let whole = Cutter { length: page.height(), ..cutter.clone() };
    let machines = Machines { cutter: Some(&whole), ..Machines::default() };
    let windows = machines.windows(page, Orientation::Portrait, &Marks::default());
    let name = format!("takes sheets of up to {} × {}", show(cutter.width), show(cutter.length));
    let mut parts = vec![DrawnPart::new(DrawnAs::Sheet, name, &rect(page))];
    parts.extend(windows.taken.iter().map(DrawnPart::taken));
    let mut take = |by, name: String, area: Rect| {
        if area.area() > 0.0 {
            let part = DrawnPart::new(DrawnAs::Taken, name, &rect(area));
            parts.push(DrawnPart { by: Some(by), ..part });
        }
    };
    let reach = windows.cut.base;
    take(
        TakenBy::LeadTail,
        format!("lead of {} before the marks", show(cutter.lead)),
        Rect { y1: cutter.lead.min(page.y1), ..page },
    );
    take(
        TakenBy::LeadTail,
        format!("tail of {} behind the marks", show(cutter.tail)),
        Rect { y0: (page.y1 - cutter.tail).max(0.0), ..page },
    );
    if let Finds::Eye(eye) = &cutter.finds {
        let edge = eye.edge;
        let name = format!("its eye reads no marks within {} of the edge", show(edge));
        for strip in [
            Rect { y1: edge, ..page },
            Rect { y0: page.y1 - edge, ..page },
            Rect::new(page.x0, edge, edge, page.y1 - edge),
            Rect::new(page.x1 - edge, edge, page.x1, page.y1 - edge),
        ] {
            take(TakenBy::Eye, name.clone(), strip);
        }
    }
    parts.push(DrawnPart::new(
        DrawnAs::Window,
        format!("reaches {} × {}", show(reach.width()), show(reach.height())),
        &rect(reach),
    ));
    let start = match cutter.start {
        Corner::TopLeft => reach.origin(),
        Corner::TopRight => Point::new(reach.x1, reach.y0),
        Corner::BottomRight => Point::new(reach.x1, reach.y1),
        Corner::BottomLeft => Point::new(reach.x0, reach.y1),
    };
    let (x, y) = cutter.start.inwards();
    let arrow = page.width() / 14.0;
    let corner = |dx: f64, dy: f64| start + Vec2::new(x * dx, y * dy) * arrow;
    let sign = polygon(&[start, corner(1.0, 0.3), corner(0.3, 1.0)]);
    parts.push(DrawnPart::new(
        DrawnAs::Sign,
        format!("its blade starts {}", cutter.start.name()),
        &sign,
    ));
    RecordDrawing { size: [page.width(), page.height()], parts }
}

fn draw_carrier(carrier: &Carrier, show: impl Fn(f64) -> String) -> RecordDrawing {
    let whole = Rect::new(0.0, 0.0, carrier.width, carrier.length);
    let corner = (carrier.border.left, carrier.border.lead);
    let held = Rect::from_origin_size(corner, carrier.holds());
    let mut border = rect(whole);
    border.extend(rect(held).reverse_subpaths());
    let parts = vec![
        DrawnPart::new(
            DrawnAs::Sheet,
            format!("{} × {} over all", show(carrier.width), show(carrier.length)),
            &rect(whole),
        ),
        DrawnPart {
            by: Some(TakenBy::Carrier),
            ..DrawnPart::new(DrawnAs::Taken, "does not hold here", &border)
        },
        DrawnPart::new(
            DrawnAs::Window,
            format!("holds {} × {}", show(held.width()), show(held.height())),
            &rect(held),
        ),
    ];
    RecordDrawing { size: [carrier.width, carrier.length], parts }
}

/// The marks on A4, with their keep-clear and a ring about the first.
fn draw_marks(set: &MarkSet, show: impl Fn(f64) -> String) -> RecordDrawing {
    let page = sample(f64::INFINITY, f64::INFINITY);
    let marks = place_marks(set, page, page, "K7Q4M");
    let name = format!("a sheet of {} × {}", show(page.width()), show(page.height()));
    let mut parts = vec![DrawnPart::new(DrawnAs::Sheet, name, &rect(page))];
    for mark in &marks.marks {
        parts.push(DrawnPart {
            by: Some(TakenBy::KeepClear),
            ..DrawnPart::new(
                DrawnAs::Taken,
                format!("keep-clear of the {} mark", mark.corner.name()),
                &mark.keep_clear.to_path(),
            )
        });
    }
    for mark in &marks.marks {
        let name = format!("the {} mark", mark.corner.name());
        parts.push(DrawnPart::new(DrawnAs::Ink, name, &mark.ink));
    }
    if let Some(sign) = &marks.sign {
        let part = DrawnPart::new(DrawnAs::Taken, format!("“{}”", sign.text), &rect(sign.place));
        parts.push(DrawnPart { by: Some(TakenBy::Sign), ..part });
    }
    if let Some(first) = marks.marks.first() {
        let radius = first.bounds.width().hypot(first.bounds.height()) / 2.0 + set.keep_clear + 4.0;
        let ring = circle(first.bounds.center(), radius);
        parts.push(DrawnPart::new(DrawnAs::Sign, "the mark that is read first", &ring));
    }
    RecordDrawing { size: [page.width(), page.height()], parts }
}
