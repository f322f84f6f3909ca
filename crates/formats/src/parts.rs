//! The parts of a kept drawing, one by one: its paths and the pictures within it, in the order in which they are drawn.

use std::collections::BTreeMap;
use std::fmt::Write as _;
use std::ops::Range;

use aptum_core::face::Rework;
use resvg::tiny_skia::{Path, PathSegment, Transform};
use resvg::usvg::{Group, Node, Paint};
use roxmltree::Document;

use crate::drawing;
use crate::rework::ReworkError;

/// Most parts of which an outline is told.
pub const MOST_TOLD: usize = 2000;

/// Most segments of an outline that is told; of longer ones the box around them is.
const MOST_SEGMENTS: usize = 2000;

/// Most segments of all outlines that are told.
const MOST_SEGMENTS_IN_ALL: usize = 200_000;

/// The parts of a drawing.
#[derive(Debug, Clone, PartialEq)]
pub struct Parts {
    /// Its width and height in its own units.
    pub sides: [f64; 2],
    /// Its parts, the first drawn first.
    pub parts: Vec<Part>,
}

/// One of them.
#[derive(Debug, Clone, PartialEq)]
pub struct Part {
    /// Its outline as SVG path data, in the drawing's own units.
    pub path: String,
    /// Left, top, right and bottom, as shares of the drawing's sides.
    pub bounds: [f64; 4],
    /// Its colour as `#rrggbb`: that of its area, or else of its line; `None` where it runs, or is a picture.
    pub colour: Option<String>,
    /// True for a picture within the drawing.
    pub is_picture: bool,
}

/// The parts of a kept drawing.
///
/// # Errors
/// [`ReworkError`].
pub fn of(svg: &str) -> Result<Parts, ReworkError> {
    let tree = drawing::tree(svg)?;
    let sides = [f64::from(tree.size().width()), f64::from(tree.size().height())];
    let mut found = Vec::new();
    let mut room = MOST_SEGMENTS_IN_ALL;
    leaves(tree.root(), &mut |node| {
        let bounds = node.abs_stroke_bounding_box();
        let [left, top, right, bottom] =
            [bounds.left(), bounds.top(), bounds.right(), bounds.bottom()].map(f64::from);
        let boxed = || format!("M{left} {top}H{right}V{bottom}H{left}Z");
        let (path, colour) = match node {
            Node::Path(path) => {
                let outline = path.data().clone().transform(path.abs_transform());
                let told = outline.filter(|outline| outline.len() <= MOST_SEGMENTS.min(room));
                room -= told.as_ref().map_or(0, Path::len);
                let paint = path
                    .fill()
                    .map(resvg::usvg::Fill::paint)
                    .or_else(|| path.stroke().map(resvg::usvg::Stroke::paint));
                let colour = match paint {
                    Some(Paint::Color(own)) => {
                        Some(format!("#{:02x}{:02x}{:02x}", own.red, own.green, own.blue))
                    }
                    _ => None,
                };
                (told.map_or_else(boxed, |outline| path_data(&outline)), colour)
            }
            _ => (boxed(), None),
        };
        found.push(Part {
            path,
            bounds: [left / sides[0], top / sides[1], right / sides[0], bottom / sides[1]],
            colour,
            is_picture: matches!(node, Node::Image(_)),
        });
    });
    Ok(Parts { sides, parts: found })
}

/// A kept drawing with some of its parts changed.
pub(crate) fn changed<'a>(
    svg: &str,
    acts: impl Iterator<Item = &'a Rework>,
) -> Result<String, ReworkError> {
    let tree = drawing::tree(svg)?;
    let mut turns: Vec<Transform> = Vec::new();
    leaves(tree.root(), &mut |node| turns.push(node.abs_transform()));
    let document = Document::parse(svg).map_err(|_| ReworkError::NoParts)?;
    let elements: Vec<roxmltree::Node<'_, '_>> =
        document.descendants().filter(|node| is_drawn(*node)).collect();
    if elements.len() != turns.len() {
        return Err(ReworkError::NoParts);
    }
    let mut changes: BTreeMap<usize, (bool, [f64; 2], Option<&str>)> = BTreeMap::new();
    for act in acts {
        let Rework::Part { part, hidden, moved, colour } = act else { continue };
        let at = *part as usize;
        if at >= elements.len() {
            return Err(ReworkError::NoPart(*part, elements.len()));
        }
        if colour.is_some() && elements[at].tag_name().name() == "image" {
            return Err(ReworkError::NoColour(*part));
        }
        let change = changes.entry(at).or_default();
        change.0 |= hidden;
        change.1 = [change.1[0] + moved[0], change.1[1] + moved[1]];
        change.2 = colour.as_deref().or(change.2);
    }
    if changes.values().filter(|(hidden, ..)| *hidden).count() == elements.len() {
        return Err(ReworkError::NothingLeft);
    }
    let size = tree.size();
    let mut kept = svg.to_owned();
    // From the end, so that what comes before stays where it is.
    for (at, (hidden, [x, y], colour)) in changes.into_iter().rev() {
        let element = elements[at];
        let range = element.range();
        if hidden {
            kept.replace_range(range, "");
            continue;
        }
        let mut own = svg[range.clone()].to_owned();
        if let Some(colour) = colour {
            for inside in painted(element).into_iter().rev() {
                own.replace_range(inside.start - range.start..inside.end - range.start, colour);
            }
        }
        if [x, y] != [0.0, 0.0] {
            let by = [x * f64::from(size.width()), y * f64::from(size.height())];
            let [x, y] = within(turns[at], by);
            own = format!(r#"<g transform="matrix(1 0 0 1 {x} {y})">{own}</g>"#);
        }
        kept.replace_range(range, &own);
    }
    drawing::tree(&kept)?;
    Ok(kept)
}

/// A shift of what is seen, in the coordinates of a group that lies as `turn` says.
fn within(turn: Transform, [x, y]: [f64; 2]) -> [f64; 2] {
    let [sx, ky, kx, sy] = [turn.sx, turn.ky, turn.kx, turn.sy].map(f64::from);
    let area = sx * sy - kx * ky;
    if area == 0.0 {
        return [0.0, 0.0];
    }
    [(x * sy - y * kx) / area, (y * sx - x * ky) / area]
}

/// Where an element says what it is painted with.
fn painted(element: roxmltree::Node<'_, '_>) -> Vec<Range<usize>> {
    let is_paint = |own: &roxmltree::Attribute<'_, '_>| {
        matches!(own.name(), "fill" | "stroke") && own.value() != "none"
    };
    element.attributes().filter(is_paint).map(|own| own.range_value()).collect()
}

/// True for what is drawn where it stands, and not only where something refers to it.
fn is_drawn(node: roxmltree::Node<'_, '_>) -> bool {
    let is_apart = |node: roxmltree::Node<'_, '_>| {
        ["defs", "clipPath", "mask", "pattern"].contains(&node.tag_name().name())
    };
    matches!(node.tag_name().name(), "path" | "image") && !node.ancestors().any(is_apart)
}

fn leaves(group: &Group, told: &mut dyn FnMut(&Node)) {
    for node in group.children() {
        match node {
            Node::Group(group) => leaves(group, told),
            Node::Text(text) => leaves(text.flattened(), told),
            Node::Path(_) | Node::Image(_) => told(node),
        }
    }
}

fn path_data(path: &Path) -> String {
    let mut data = String::new();
    for segment in path.segments() {
        let _ = match segment {
            PathSegment::MoveTo(p) => write!(data, "M{} {}", p.x, p.y),
            PathSegment::LineTo(p) => write!(data, "L{} {}", p.x, p.y),
            PathSegment::QuadTo(c, p) => write!(data, "Q{} {} {} {}", c.x, c.y, p.x, p.y),
            PathSegment::CubicTo(c, d, p) => {
                write!(data, "C{} {} {} {} {} {}", c.x, c.y, d.x, d.y, p.x, p.y)
            }
            PathSegment::Close => write!(data, "Z"),
        };
    }
    data
}
