//! The cut file: SVG in millimetres with the page's frame and nothing but plain shapes.

use aptum_core::geometry::{Affine, BezPath, path_text};
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
/// One group per kind of line, its id the kind's name and `data-iso19593-1` its processing step;
/// what is pressed comes before what is cut. The page's frame is the group `guide`.
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
        .add(group(LineKind::Guide, units).add(frame.set("width", width).set("height", height)));
    let plan = prepared.plan(placements);
    for kind in LineKind::IN_ORDER {
        let mut strokes = plan.of_kind(kind).peekable();
        if strokes.peek().is_some() {
            let path =
                |stroke: &BezPath| Path::new().set("d", path_text(&(scale * stroke.clone())));
            document = document.add(strokes.map(path).fold(group(kind, units), Group::add));
        }
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

fn group(kind: LineKind, units: SvgUnits) -> Group {
    let style = line_style(kind);
    let group = Group::new()
        .set("id", kind.id())
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
