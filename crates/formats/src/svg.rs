//! The cut file: SVG in millimetres with the page's frame and nothing but plain shapes.

use std::fmt::Write;

use aptum_core::geometry::{BezPath, path_text};
use aptum_core::sheet::{Placement, cut_once};
use aptum_core::{Job, LineKind, Prepared};

use crate::line_style::line_style;
use crate::pdf::lines_by_kind;

/// Whether registration marks go into the cut file. Other programs would cut them.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum MarksInCut {
    /// Left out.
    #[default]
    LeftOut,
    /// In a group of their own, `marks`.
    Included,
}

/// Copies this far apart, mm, share no edge.
const LEAST_SPACING: f64 = 0.01;

/// The cut file of sheet `number` (from 1); `None` when there are fewer sheets.
///
/// One group per kind of line, its id the kind's name and `data-iso19593-1` its processing step;
/// what is pressed comes before what is cut. Edges that touching copies share are cut once. The page's frame is the group `guide`.
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
    let parts: Vec<_> = prepared.blanks().map(|blank| lines_by_kind(blank.part)).collect();
    for kind in LineKind::IN_ORDER {
        let placed: Vec<BezPath> = placements
            .iter()
            .filter_map(|placement| Some((parts.get(placement.part)?.get(&kind)?, placement)))
            .flat_map(|(path, placement)| subpaths(path, *placement))
            .collect();
        if placed.is_empty() {
            continue;
        }
        // Only copies that may touch share edges.
        let shares =
            matches!(kind, LineKind::Cut | LineKind::KissCut) && job.sheet.spacing < LEAST_SPACING;
        let placed = if shares { cut_once(placed) } else { placed };
        open(&mut svg, kind);
        for part in placed {
            line(&mut svg, format_args!("<path d=\"{}\"/>", path_text(&part)));
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

/// Each stroke as an element of its own, as machines take them.
fn subpaths(path: &BezPath, placement: Placement) -> Vec<BezPath> {
    let placed = placement.place(path);
    placed.subpaths().map(|part| BezPath::from_vec(part.to_vec())).collect()
}

fn tidy(mm: f64) -> f64 {
    (mm * 1e4).round() / 1e4
}

fn escape(text: &str) -> String {
    text.replace('&', "&amp;").replace('<', "&lt;").replace('>', "&gt;")
}
