//! The cut file: SVG in millimetres with the page's frame and nothing but plain shapes.

use std::fmt::Write;

use aptum_core::geometry::path_text;
use aptum_core::{Job, LineKind, Prepared};

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

/// The cut file of sheet `number` (from 1); `None` when there are fewer sheets.
///
/// One group per kind of line, its id the kind's name and `data-iso19593-1` its processing step;
/// what is pressed comes before what is cut. The page's frame is the group `guide`.
#[must_use]
pub fn cut_svg(job: &Job, prepared: &Prepared, number: u32, marks: MarksInCut) -> Option<String> {
    let placements = prepared.layout.each_sheet().nth(number.checked_sub(1)? as usize)?;
    let page = prepared.windows.page;
    let (width, height) = (tidy(page.width()), tidy(page.height()));
    let mut svg = format!(
        "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{width}mm\" height=\"{height}mm\" \
         viewBox=\"0 0 {width} {height}\">\n<title>{}, sheet {number} of {}, {}</title>\n",
        escape(&job.name),
        prepared.layout.sheets(),
        prepared.code
    );
    open(&mut svg, LineKind::Guide);
    line(
        &mut svg,
        format_args!("<rect id=\"page\" x=\"0\" y=\"0\" width=\"{width}\" height=\"{height}\"/>"),
    );
    line(&mut svg, format_args!("</g>"));
    let plan = prepared.plan(placements);
    for kind in LineKind::IN_ORDER {
        let mut strokes = plan.of_kind(kind).peekable();
        if strokes.peek().is_none() {
            continue;
        }
        open(&mut svg, kind);
        for stroke in strokes {
            line(&mut svg, format_args!("<path d=\"{}\"/>", path_text(stroke)));
        }
        line(&mut svg, format_args!("</g>"));
    }
    if marks == MarksInCut::Included {
        line(&mut svg, format_args!("<g id=\"marks\" fill=\"#000000\" stroke=\"none\">"));
        for mark in &prepared.marks.marks {
            line(&mut svg, format_args!("<path d=\"{}\"/>", path_text(&mark.ink)));
        }
        line(&mut svg, format_args!("</g>"));
    }
    svg.push_str("</svg>\n");
    Some(svg)
}

fn open(svg: &mut String, kind: LineKind) {
    let style = line_style(kind);
    let step = kind
        .processing_step()
        .map(|step| format!(" data-iso19593-1=\"{step}\""))
        .unwrap_or_default();
    line(
        svg,
        format_args!(
            "<g id=\"{}\"{step} fill=\"none\" stroke=\"{}\" stroke-width=\"{}\">",
            kind.id(),
            style.colour,
            style.width
        ),
    );
}

/// One line of a file held in memory; writing to it cannot fail.
fn line(svg: &mut String, text: std::fmt::Arguments<'_>) {
    let _ = svg.write_fmt(text);
    svg.push('\n');
}

fn tidy(mm: f64) -> f64 {
    (mm * 1e4).round() / 1e4
}

fn escape(text: &str) -> String {
    text.replace('&', "&amp;").replace('<', "&lt;").replace('>', "&gt;")
}
