//! The cut file: SVG in millimetres with the page's frame and nothing but plain shapes.

use aptum_core::geometry::{Affine, BezPath, Rect, path_text};
use aptum_core::tooling::{Operation, Stretch, Trial, works};
use aptum_core::units::INCH;
use aptum_core::{Job, LineKind, Prepared};
use svg::Document;
use svg::node::element::{Group, Path, Rectangle, Title};

use crate::line_style::line_style;

/// Whether registration marks go into the cut file. Other programs would cut them.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum MarksInCut {
    /// Left out.
    #[default]
    LeftOut,
    /// In a group of their own, `marks`.
    Included,
}

/// What a cut file is written in.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub enum SvgUnits {
    /// Millimetres, and it says so.
    #[default]
    Mm,
    /// Bare units of which an inch has so many, for programs that ignore what a file says.
    PerInch(f64),
}

impl SvgUnits {
    /// How many of them a millimetre has.
    fn to_mm(self) -> f64 {
        match self {
            Self::Mm => 1.0,
            Self::PerInch(count) => count / INCH,
        }
    }

    /// What a length says of its unit.
    const fn word(self) -> &'static str {
        match self {
            Self::Mm => "mm",
            Self::PerInch(_) => "",
        }
    }
}

/// The cut file of sheet `number` (from 1); `None` when there are fewer sheets.
///
/// One group per operation in their order, its id the operation's name and `data-iso19593-1` its processing step;
/// what is pressed comes before what is cut, and what is switched off is left out. The page's frame is the group `guide`.
#[must_use]
pub fn cut_svg(
    job: &Job,
    prepared: &Prepared,
    number: u32,
    marks: MarksInCut,
    units: SvgUnits,
) -> Option<String> {
    let scale = Affine::scale(units.to_mm());
    let placements = prepared.layout.each_sheet().nth(number.checked_sub(1)? as usize)?;
    let page = prepared.windows.page;
    let (width, height): (f64, f64) =
        [page.width(), page.height()].map(|mm| tidy(mm * units.to_mm())).into();
    let (name, sheets, code) = (&job.name, prepared.layout.sheets(), &prepared.code);
    let frame = Rectangle::new().set("id", "page").set("x", 0).set("y", 0);
    let mut document = Document::new()
        .set("width", format!("{width}{}", units.word()))
        .set("height", format!("{height}{}", units.word()))
        .set("viewBox", (0, 0, width, height))
        .add(Title::new(format!("{name}, sheet {number} of {sheets}, {code}")))
        .add(
            group(LineKind::Guide, "guide", units)
                .add(frame.set("width", width).set("height", height)),
        );
    let plan = prepared.plan(&job.tooling, placements);
    let operations = &prepared.operations;
    let by: Vec<_> = plan.strokes.iter().map(|own| works(operations, own, &plan)).collect();
    for (at, operation) in operations.iter().enumerate().filter(|(_, own)| !own.is_off) {
        let own = plan.strokes.iter().zip(&by).filter(|(_, by)| **by == Some(at));
        let mut strokes = own.map(|(stroke, _)| &stroke.path).peekable();
        if strokes.peek().is_some() {
            let path =
                |stroke: &BezPath| Path::new().set("d", path_text(&(scale * stroke.clone())));
            let own = group(operation.kind, &operation.id.in_files(), units);
            document = document.add(strokes.map(path).fold(told(own, operation), Group::add));
        }
    }
    // The outline of what is not cut at all is still to be seen.
    let guides: Vec<&BezPath> = plan.of_kind(LineKind::Guide).collect();
    if !guides.is_empty() {
        let path = |stroke: &BezPath| Path::new().set("d", path_text(&(scale * stroke.clone())));
        let own = group(LineKind::Guide, "guides", units);
        document = document.add(guides.into_iter().map(path).fold(own, Group::add));
    }
    if marks == MarksInCut::Included {
        let own = Group::new().set("id", "marks").set("fill", "#000000").set("stroke", "none");
        let ink = prepared
            .marks
            .marks
            .iter()
            .map(|mark| Path::new().set("d", path_text(&(scale * mark.ink.clone()))));
        document = document.add(ink.fold(own, Group::add));
    }
    Some(document.to_string())
}

/// The ladder of a test cut: a group for each rung, which says what it is cut with; the page's frame keeps the position.
#[must_use]
pub fn trial_svg(trial: &Trial, page: Rect) -> String {
    let (width, height) = (tidy(page.width()), tidy(page.height()));
    let frame = Rectangle::new().set("x", 0).set("y", 0).set("width", width).set("height", height);
    let units = SvgUnits::Mm;
    let mut document = Document::new()
        .set("width", format!("{width}mm"))
        .set("height", format!("{height}mm"))
        .set("viewBox", (0, 0, width, height))
        .add(group(LineKind::Guide, "guide", units).add(frame));
    for (number, worked) in trial.path.worked.iter().enumerate() {
        let operation = &worked.operation;
        let own = group(operation.kind, &format!("rung-{}", number + 1), units);
        let lines = trial
            .path
            .stretches
            .iter()
            .filter(|own| own.operation == number && own.pass == 1 && own.stroke.is_some());
        let path = |stretch: &Stretch| {
            let mut line = BezPath::new();
            for (at, point) in stretch.line.iter().enumerate() {
                if at == 0 { line.move_to(*point) } else { line.line_to(*point) }
            }
            Path::new().set("d", path_text(&line))
        };
        document = document.add(lines.map(path).fold(told(own, operation), Group::add));
    }
    document.to_string()
}

/// What is said of an operation, for programs that read it.
fn told(group: Group, operation: &Operation) -> Group {
    let say = |group: Group, name: &str, text: Option<String>| match text {
        Some(text) => group.set(format!("data-{name}"), text),
        None => group,
    };
    let group = say(group, "force", operation.force.map(|force| force.text()));
    let group = say(group, "speed", operation.speed.map(|speed| format!("{speed} mm/s")));
    let passes = (operation.passes > 1).then(|| operation.passes.to_string());
    say(say(group, "passes", passes), "depth", operation.depth.map(|depth| depth.to_string()))
}

fn group(kind: LineKind, id: &str, units: SvgUnits) -> Group {
    let style = line_style(kind);
    let group = Group::new()
        .set("id", id)
        .set("fill", "none")
        .set("stroke", style.colour)
        .set("stroke-width", tidy(style.width * units.to_mm()));
    match kind.processing_step() {
        Some(step) => group.set("data-iso19593-1", step),
        None => group,
    }
}

fn tidy(mm: f64) -> f64 {
    (mm * 1e4).round() / 1e4
}
