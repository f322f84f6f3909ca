//! Lines of SVG, and of pages of PDF that were turned into it.

use std::collections::HashSet;

use aptum_core::geometry::{Affine, BezPath, Rect, Region};
use aptum_core::lines::{Group, Lines, Look};
use resvg::usvg::{self, ImageKind, Node, Options, Paint, tiny_skia_path::PathSegment};

use super::ReadError;
use super::clip::clipped;
use crate::drawing;

/// A pixel of the web, mm (CSS Values and Units 4: 96 to the inch).
const PIXEL: f64 = 25.4 / 96.0;

/// A point of PDF, mm (ISO 32000: 72 to the inch).
const POINT: f64 = 25.4 / 72.0;

/// Written instead of a stroke's width of nothing, which would be dropped.
const NO_WIDTH: &str = "0.000011";

/// Strokes that are narrower have no width.
const HAIR: f32 = 0.001;

/// A line so far off its page, as a part of the longer side, still lies on the edge: places have seven digits.
const EDGE: f64 = 1e-4;

/// Units of lengths that are known on paper.
const REAL: [&str; 6] = ["mm", "cm", "in", "pt", "pc", "Q"];

/// Gives everything a stroke, so that nothing is dropped for having none.
const ALL_SEEN: &str = "* { stroke: #000000; stroke-width: 1 }";

/// Reads the lines of an SVG.
pub(super) fn lines(text: &str) -> Result<Lines, ReadError> {
    let unit = states_size(text)?.then_some(PIXEL);
    let hairs = rewritten(text, "stroke-width", |value| {
        let number = value.trim_end_matches(|own: char| own.is_ascii_alphabetic() || own == '%');
        (number.parse::<f64>() == Ok(0.0)).then_some(NO_WIDTH)
    });
    let mut drawn = Drawn::default();
    drawn.all(&drawing::tree(&hairs)?);
    // Once more with everything shown: what was not there before is not to be seen.
    let shown = rewritten(text, "display", |value| (value == "none").then_some("inline"));
    let shown = rewritten(&shown, "visibility", |value| {
        ["hidden", "collapse"].contains(&value).then_some("visible")
    });
    let shown = rewritten(&shown, "stroke", |value| (value == "none").then_some("#000000"));
    let all = Options { style_sheet: Some(ALL_SEEN.to_owned()), ..Options::default() };
    let mut everything = Drawn::default();
    everything.all(&drawing::tree_with(&shown, all)?);
    let known: HashSet<String> = drawn.lines.iter().map(|(_, path, _)| rounded(path)).collect();
    let unseen = everything.lines.into_iter().filter(|(group, path, _)| {
        let is_line = !matches!(group.look, Look::Words | Look::Clipped);
        is_line && !known.contains(&rounded(path))
    });
    let unseen = unseen.map(|(group, path, _)| {
        let group = Group { colour: String::new(), look: Look::Unseen, ..group };
        (group, path, 0.0)
    });
    drawn.lines.extend(unseen.collect::<Vec<_>>());
    drawn.gathered(unit)
}

/// Reads the lines of a page whose unit is so many points.
pub(super) fn page(svg: &str, unit: f64) -> Result<Lines, ReadError> {
    let mut drawn = Drawn::default();
    drawn.all(&drawing::tree(svg)?);
    drawn.gathered(Some(POINT * unit))
}

/// True where the file says how large it is on paper: both sides in real units.
fn states_size(text: &str) -> Result<bool, ReadError> {
    let options = roxmltree::ParsingOptions { allow_dtd: true, nodes_limit: drawing::MOST_NODES };
    let document = roxmltree::Document::parse_with_options(text, options)
        .map_err(|error| ReadError::Damaged(error.to_string()))?;
    let is_real = |name: &str| {
        let value = document.root_element().attribute(name).unwrap_or_default().trim();
        REAL.iter().any(|unit| value.ends_with(unit))
    };
    Ok(is_real("width") && is_real("height"))
}

/// A text in which values that stand for `name`, as an attribute or in a style, are others.
fn rewritten<'a>(text: &str, name: &str, change: impl Fn(&str) -> Option<&'a str>) -> String {
    let mut out = String::with_capacity(text.len());
    let mut rest = text;
    while let Some(at) = rest.find(name) {
        let is_word = rest[..at]
            .chars()
            .next_back()
            .is_none_or(|before| !before.is_alphanumeric() && before != '-' && before != '_');
        let (before, after) = rest.split_at(at + name.len());
        out.push_str(before);
        rest = after;
        let value = after.trim_start();
        let Some(value) = value.strip_prefix([':', '=']).filter(|_| is_word) else { continue };
        let value = value.trim_start().trim_start_matches(['"', '\'']);
        let value = value.trim_start();
        let length = value
            .find(|own: char| own.is_whitespace() || ['"', '\'', ';', '}', '<', '!'].contains(&own))
            .unwrap_or(value.len());
        if let Some(new) = change(&value[..length]) {
            let skipped = after.len() - value.len();
            out.push_str(&after[..skipped]);
            out.push_str(new);
            rest = &value[length..];
        }
    }
    out.push_str(rest);
    out
}

/// A path as it is compared with another.
fn rounded(path: &BezPath) -> String {
    let mut text = String::new();
    for element in path.elements() {
        if let Some(end) = element.end_point() {
            text.push_str(&format!("{:.3} {:.3},", end.x, end.y));
        }
    }
    text
}

#[derive(Default)]
struct Drawn {
    lines: Vec<(Group, BezPath, f64)>,
    words: usize,
    pictures: usize,
}

impl Drawn {
    fn gathered(self, unit: Option<f64>) -> Result<Lines, ReadError> {
        Ok(Lines::gathered_wide(unit, self.lines, self.words, self.pictures)?)
    }

    /// The lines of a drawing; what lies off its page is as hidden as by a clip.
    fn all(&mut self, tree: &usvg::Tree) {
        let (wide, high) = (f64::from(tree.size().width()), f64::from(tree.size().height()));
        let slack = wide.max(high) * EDGE;
        let page = Rect::new(-slack, -slack, wide + slack, high + slack);
        self.group(tree.root(), "", Some(&Region::rect(page)), Affine::IDENTITY);
    }

    /// The lines of a group; the outermost one with a name is their layer.
    fn group(&mut self, group: &usvg::Group, layer: &str, clip: Option<&Region>, to: Affine) {
        let to = to * affine(group.transform());
        let own = clip_of(group, to);
        let both = match (&own, clip) {
            (Some(own), Some(clip)) => Some(own.intersection(clip)),
            (own, clip) => own.as_ref().or(clip).cloned(),
        };
        let layer = if layer.is_empty() { group.id() } else { layer };
        for node in group.children() {
            match node {
                Node::Group(inner) => self.group(inner, layer, both.as_ref(), to),
                Node::Path(path) => self.path(path, layer, both.as_ref(), None, to),
                Node::Text(text) => {
                    self.words += 1;
                    self.words(text.flattened(), layer, both.as_ref(), to);
                }
                Node::Image(image) => match image.kind() {
                    ImageKind::SVG(within) => self.words(within.root(), layer, both.as_ref(), to),
                    _ => self.pictures += 1,
                },
            }
        }
    }

    /// What is drawn in letters, or in a drawing within the drawing.
    fn words(&mut self, group: &usvg::Group, layer: &str, clip: Option<&Region>, to: Affine) {
        let to = to * affine(group.transform());
        for node in group.children() {
            match node {
                Node::Group(inner) => self.words(inner, layer, clip, to),
                Node::Path(path) => self.path(path, layer, clip, Some(Look::Words), to),
                Node::Text(_) | Node::Image(_) => {}
            }
        }
    }

    fn path(
        &mut self,
        path: &usvg::Path,
        layer: &str,
        clip: Option<&Region>,
        look: Option<Look>,
        to: Affine,
    ) {
        let line = placed(path.data(), to);
        let of = |paint: &Paint| match paint {
            Paint::Color(own) => format!("#{:02x}{:02x}{:02x}", own.red, own.green, own.blue),
            _ => String::new(),
        };
        let (seen, colour) = match (path.is_visible(), path.stroke(), path.fill()) {
            (false, ..) | (_, None, None) => (Look::Unseen, String::new()),
            (_, Some(stroke), _) if stroke.width().get() < HAIR => {
                (Look::Hairline, of(stroke.paint()))
            }
            (_, Some(stroke), _) => (Look::Stroke, of(stroke.paint())),
            (_, None, Some(fill)) => (Look::Fill, of(fill.paint())),
        };
        let group = Group { layer: layer.to_owned(), colour, look: look.unwrap_or(seen) };
        let scale = to.determinant().abs().sqrt();
        let width = path
            .stroke()
            .filter(|_| group.look == Look::Stroke)
            .map_or(0.0, |stroke| f64::from(stroke.width().get()) * scale);
        let Some(clip) = clip else {
            self.lines.push((group, line, width));
            return;
        };
        for part in aptum_core::geometry::contours(&line) {
            let (seen, hidden) = clipped(&part, clip);
            if !hidden.elements().is_empty() {
                self.lines.push((Group { look: Look::Clipped, ..group.clone() }, hidden, 0.0));
            }
            if !seen.elements().is_empty() {
                self.lines.push((group.clone(), seen, width));
            }
        }
    }
}

// Places are taken step by step: those that usvg tells from the drawing's origin turn a `use` twice.

/// What a group's clip leaves, where it has one; `to` takes the group's places to the drawing's.
fn clip_of(group: &usvg::Group, to: Affine) -> Option<Region> {
    let clip = group.clip_path()?;
    let left = |clip: &usvg::ClipPath| {
        let mut all = Region::empty();
        paths(clip.root(), to * affine(clip.transform()), &mut |path, rule| {
            let own = match rule {
                usvg::FillRule::NonZero => Region::painted(&path),
                usvg::FillRule::EvenOdd => Region::alternating(&path),
            };
            all = all.union(&own);
        });
        all
    };
    let own = left(clip);
    Some(clip.clip_path().map_or_else(|| own.clone(), |further| own.intersection(&left(further))))
}

fn paths(group: &usvg::Group, to: Affine, each: &mut dyn FnMut(BezPath, usvg::FillRule)) {
    let to = to * affine(group.transform());
    for node in group.children() {
        match node {
            Node::Group(inner) => paths(inner, to, each),
            Node::Path(path) => {
                let rule = path.fill().map_or(usvg::FillRule::NonZero, usvg::Fill::rule);
                each(placed(path.data(), to), rule);
            }
            Node::Text(text) => paths(text.flattened(), to, each),
            Node::Image(_) => {}
        }
    }
}

fn affine(own: usvg::Transform) -> Affine {
    Affine::new([own.sx, own.ky, own.kx, own.sy, own.tx, own.ty].map(f64::from))
}

fn placed(data: &usvg::tiny_skia_path::Path, to: Affine) -> BezPath {
    let point = |own: usvg::tiny_skia_path::Point| (f64::from(own.x), f64::from(own.y));
    let mut path = BezPath::new();
    for segment in data.segments() {
        match segment {
            PathSegment::MoveTo(to) => path.move_to(point(to)),
            PathSegment::LineTo(to) => path.line_to(point(to)),
            PathSegment::QuadTo(a, to) => path.quad_to(point(a), point(to)),
            PathSegment::CubicTo(a, b, to) => path.curve_to(point(a), point(b), point(to)),
            PathSegment::Close => path.close_path(),
        }
    }
    to * path
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn values_are_rewritten_where_they_stand_for_a_name() {
        let svg = r##"<a stroke-width="0" style="stroke-width: 0px;fill:none" my-stroke-width="0" stroke-width='2'/>"##;
        let own = rewritten(svg, "stroke-width", |value| (value.starts_with('0')).then_some("9"));
        assert_eq!(
            own,
            r##"<a stroke-width="9" style="stroke-width: 9;fill:none" my-stroke-width="0" stroke-width='2'/>"##
        );
    }

    #[test]
    fn looks_layers_and_units_are_told_apart() {
        let svg = r##"<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="50mm" viewBox="0 0 100 50">
            <clipPath id="c"><rect width="10" height="50"/></clipPath>
            <g id="Cut"><path d="M0 0H100V50H0Z" fill="none" stroke="#f00" stroke-width="0"/></g>
            <g id="Folds"><g id="inner"><path d="M50 0V50" stroke="blue"/></g></g>
            <path d="M1 1H5V5H1Z" fill="#0a0"/>
            <path d="M60 1H65V5H60Z" display="none" stroke="red"/>
            <path d="M70 1H75V5H70Z" fill="none"/>
            <g clip-path="url(#c)"><path d="M5 20H25" stroke="#000"/></g>
            <text x="20" y="40">Fen</text></svg>"##;
        let own = lines(svg).unwrap();
        assert_eq!((own.unit, own.words), (Some(PIXEL), 1));
        let have = |layer: &str, colour: &str, look: Look| {
            let wanted = Group { layer: layer.into(), colour: colour.into(), look };
            let at = own.groups.iter().position(|group| *group == wanted);
            own.lines.iter().filter(|line| Some(line.group) == at).count()
        };
        assert_eq!(have("Cut", "#ff0000", Look::Hairline), 1, "{:?}", own.groups);
        assert_eq!(have("Folds", "#0000ff", Look::Stroke), 1);
        assert_eq!(have("", "#00aa00", Look::Fill), 1);
        assert_eq!(have("", "", Look::Unseen), 2);
        assert_eq!(have("", "#000000", Look::Clipped), 1);
        assert_eq!(have("", "#000000", Look::Stroke), 1);
        assert!(have("", "#000000", Look::Words) >= 3);
        assert!((own.bounds().width() * PIXEL - 100.0).abs() < 1e-3);
        let plain = svg.replace("100mm", "100").replace("50mm", "50");
        assert_eq!(lines(&plain).unwrap().unit, None);
    }
}
