//! What a drawing from elsewhere came to, as the page shows it.

use aptum_core::error::{Change, Setting};
use aptum_core::form::{Doubles, DrawingFacts, LineDrawing};
use aptum_core::geometry::{Affine, BezPath, Shape as _, Vec2, path_text};
use aptum_core::lines::{Look, Meaning, PER_INCH, Scale};
use aptum_core::units::{Unit, measure, product};
use schemars::JsonSchema;
use serde::Serialize;
use ts_rs::TS;

/// Most characters of the lines of one row.
const LONGEST: usize = 400_000;

/// A drawing from elsewhere.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct DrawingView {
    /// Where the file's origin lies in the drawing, mm, and how long a unit of it is.
    at: [f64; 2],
    unit: f64,
    /// True where somebody, or the file, has said how long a unit is.
    is_scaled: bool,
    /// The ways in which its units may be read, with the size that results.
    scales: Vec<ScaleView>,
    /// Its lines, by layer, colour and look.
    rows: Vec<RowView>,
    /// Where the card bends of itself, as a path on the drawing of the whole.
    bends: String,
    /// What lines may be, in the order in which that is offered.
    meanings: Vec<MeaningView>,
    /// How many lines lie on others.
    doubles: usize,
    /// What was put in order.
    order: Vec<TidyView>,
    /// What each step of mending came to.
    mended: Vec<MendView>,
    /// Ends of what is cut that are joined to nothing.
    loose: Vec<[f64; 2]>,
    /// The creases at which its panels hang; none where nothing folds.
    creases: Vec<CreaseView>,
    /// The panels themselves.
    panels: Vec<DrawnPanelView>,
    /// Words that are letters, and pictures, which are no lines.
    words: usize,
    pictures: usize,
}

/// A panel of a drawing.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct DrawnPanelView {
    name: String,
    /// A place on it, in units of the file: what it is told apart by.
    at: [f64; 2],
    /// Which of the names that are told is its.
    told_by: Option<usize>,
}

/// A crease at which a panel hangs.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct CreaseView {
    /// The panel, and the one on which it hangs.
    name: String,
    on: String,
    /// Its middle, in units of the file: what it is told apart by.
    at: [f64; 2],
    /// Its ends in the drawing, mm.
    ends: [[f64; 2]; 2],
    /// How far it folds, degrees; above 0 away from the printed side.
    degrees: f64,
    /// Which of the folds that are told says so.
    told_by: Option<usize>,
}

/// What was put in order.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct TidyView {
    /// In words.
    words: String,
    /// What leaves it as it was; none where nothing can.
    undo: Option<Change>,
}

/// What a step of mending came to.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct MendView {
    /// What was done, or why it could not be.
    words: String,
    is_done: bool,
}

/// What lines may be.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct MeaningView {
    meaning: Meaning,
    name: &'static str,
}

/// A way in which a drawing's units may be read.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct ScaleView {
    scale: Scale,
    /// In words.
    name: String,
    /// The size of the drawing then.
    size_text: String,
    /// How that compares with the job's sheet; empty where it lies on it as it is.
    on_sheet: &'static str,
    /// True for the one that is chosen.
    is_chosen: bool,
}

/// Lines of one layer that look alike.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct RowView {
    /// What a line key knows it by.
    id: String,
    layer: String,
    colour: String,
    look: Look,
    look_name: String,
    /// How many lines, and how they look.
    count_text: String,
    /// How long they are together.
    length_text: String,
    /// What they are; none where nobody has said so.
    meaning: Option<Meaning>,
    /// The lines, in the drawing; empty where they are too many to be shown.
    path: String,
    /// Around them: left, top, width, height.
    bounds: [f64; 4],
}

/// The view of a drawing whose blank lies at `at` in the drawing of the whole.
pub fn drawing(
    own: &LineDrawing,
    facts: &DrawingFacts,
    sheet: [f64; 2],
    at: Vec2,
    unit: Unit,
) -> DrawingView {
    let to = Affine::translate(at) * facts.to_blank;
    let mut paths: Vec<BezPath> = vec![BezPath::new(); facts.lines.groups.len()];
    for line in &facts.lines.lines {
        paths[line.group].extend(line.path.iter());
    }
    let rows = facts.lines.groups.iter().zip(&facts.groups).zip(paths);
    let rows = rows.map(|((group, (count, length)), path)| {
        let path = to * path;
        let bounds = path.bounding_box();
        let bounds = [bounds.x0, bounds.y0, bounds.width(), bounds.height()];
        let path = path_text(&path);
        RowView {
            id: group.id(),
            layer: group.layer.clone(),
            colour: group.colour.clone(),
            look: group.look,
            look_name: group.look.name().to_owned(),
            count_text: group.look.counted(*count),
            length_text: measure(*length, unit),
            meaning: own.key.meaning(group),
            bounds,
            path: if path.len() > LONGEST { String::new() } else { path },
        }
    });
    let origin = to.translation();
    let mut bends = BezPath::new();
    facts.bends.iter().for_each(|path| bends.extend((Affine::translate(at) * path.clone()).iter()));
    DrawingView {
        at: [origin.x, origin.y],
        unit: facts.unit,
        is_scaled: facts.is_scaled,
        scales: scales(own, facts, sheet, unit),
        rows: rows.collect(),
        meanings: Meaning::ALL.map(|meaning| MeaningView { meaning, name: meaning.name() }).into(),
        bends: path_text(&bends),
        doubles: facts.doubles,
        order: order(own, facts),
        mended: facts
            .lines
            .mended
            .iter()
            .map(|own| {
                let length = own.length.map(|length| measure(length * facts.unit, unit));
                let words = own.words.replacen("{}", &length.unwrap_or_default(), 1);
                MendView { words, is_done: own.is_done }
            })
            .collect(),
        loose: facts.loose.iter().take(500).map(|own| [own.x + at.x, own.y + at.y]).collect(),
        creases: facts
            .creases
            .iter()
            .map(|own| CreaseView {
                name: own.name.clone(),
                on: own.on.clone(),
                at: own.at,
                ends: own.ends.map(|end| [end.x + at.x, end.y + at.y]),
                degrees: own.degrees,
                told_by: own.told_by,
            })
            .collect(),
        panels: facts
            .panels
            .iter()
            .map(|own| DrawnPanelView { name: own.name.clone(), at: own.at, told_by: own.told_by })
            .collect(),
        words: facts.lines.words,
        pictures: facts.lines.pictures,
    }
}

fn scales(own: &LineDrawing, facts: &DrawingFacts, sheet: [f64; 2], unit: Unit) -> Vec<ScaleView> {
    let stated = facts.lines.unit;
    let chosen = own.scale.or_else(|| stated.map(|_| Scale::Stated));
    let bounds = facts.bounds;
    let mut all: Vec<(Scale, String)> = Vec::new();
    if stated.is_some() {
        all.push((Scale::Stated, "as the file says".to_owned()));
    }
    all.extend(PER_INCH.map(|count| (Scale::PerInch { count }, format!("{count} to the inch"))));
    all.push((Scale::Each { mm: 1.0 }, "each a millimetre".to_owned()));
    all.push((Scale::Each { mm: 25.4 }, "each an inch".to_owned()));
    if let Some(known @ Scale::Known { mm, .. }) = own.scale {
        all.push((known, format!("{} that is known", measure(mm, unit))));
    }
    let view = |(scale, name): (Scale, String)| {
        let mm = scale.unit(stated)?;
        let size = [bounds.width() * mm, bounds.height() * mm];
        let fits = |[width, height]: [f64; 2]| width <= sheet[0] && height <= sheet[1];
        let on_sheet = match (fits(size), fits([size[1], size[0]])) {
            (true, _) => "",
            (false, true) => "turned on the sheet",
            (false, false) => "larger than the sheet",
        };
        let size_text = product(&size, unit);
        let is_chosen = chosen == Some(scale);
        Some(ScaleView { scale, name, size_text, on_sheet, is_chosen })
    };
    all.into_iter().filter_map(view).collect()
}

fn order(own: &LineDrawing, facts: &DrawingFacts) -> Vec<TidyView> {
    let counted = |count: usize, one: &str, many: &str, undo: Option<Change>| {
        let words = match count {
            0 => return None,
            1 => format!("1 {one}"),
            count => format!("{count} {many}"),
        };
        Some(TidyView { words, undo })
    };
    let off = |name: &str, value: Setting| {
        Some(Change { value, ..Change::new(&format!("form.drawing.{name}"), 0.0) })
    };
    let passes = match own.doubles {
        Some(Doubles::Once) => off("doubles", Setting::from("passes")),
        _ => None,
    };
    let lines = &facts.lines;
    [
        counted(
            facts.joined,
            "loose end joined",
            "loose ends joined",
            off("join", Setting::from(0.0)),
        ),
        counted(facts.closed, "line closed", "lines closed", None),
        counted(
            facts.arcs,
            "arc drawn as short sides is an arc",
            "arcs drawn as short sides are arcs",
            off("arcs", Setting::from(false)),
        ),
        counted(facts.doubles, "line lies on another", "lines lie on others", passes),
        counted(
            facts.crumbs,
            "crumb left out",
            "crumbs left out",
            off("crumb", Setting::from(0.0)),
        ),
        counted(
            facts.beside,
            "line beside the outline left out",
            "lines beside the outline left out",
            None,
        ),
        counted(lines.words, "text in letters", "texts in letters", None),
        counted(lines.pictures, "picture, not traced", "pictures, not traced", None),
    ]
    .into_iter()
    .flatten()
    .collect()
}
