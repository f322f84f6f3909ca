//! Lines of FOLD (1.0 to 1.2): the edges of a crease pattern, by what they are assigned.

use std::collections::{BTreeMap, BTreeSet};

use aptum_core::geometry::{Affine, BezPath, PathSeg, Point, Rect, Shape as _};
use aptum_core::lines::{Group, Line, Lines, LinesError, Look, MOST_LINES, ToldFolding};
use kurbo::ParamCurveNearest as _;
use rstar::RTree;
use rstar::primitives::{GeomWithData, Rectangle};
use serde::Deserialize;

use super::ReadError;

#[derive(Deserialize)]
struct Frame {
    #[serde(default)]
    vertices_coords: Vec<Vec<f64>>,
    #[serde(default)]
    edges_vertices: Vec<[usize; 2]>,
    #[serde(default)]
    edges_assignment: Vec<String>,
    #[serde(default)]
    frame_unit: Option<String>,
    #[serde(default, rename = "edges_foldAngle")]
    angles: Vec<Option<f64>>,
    #[serde(default, rename = "aptum:lines")]
    exact: Vec<Exact>,
    #[serde(default, rename = "aptum:folding")]
    folding: ToldFolding,
}

/// A line as it runs, of a kind, which FOLD has no place for.
#[derive(Deserialize)]
struct Exact {
    kind: String,
    path: String,
}

/// An edge whose ends are no farther from a line, in the file's units, lies on it.
const ON: f64 = 0.03;

/// How far a curve stands off its chord at most, as a share of the chord.
const MOST_BOW: f64 = 0.25;

/// Reads the edges of a crease pattern.
pub(super) fn lines(bytes: &[u8]) -> Result<Lines, ReadError> {
    let damaged = |message: String| ReadError::Damaged(message.chars().take(200).collect());
    let text = std::str::from_utf8(bytes).map_err(|error| damaged(error.to_string()))?;
    let frame: Frame = serde_json::from_str(text.trim_start_matches('\u{feff}'))
        .map_err(|error| damaged(format!("as FOLD, {error}")))?;
    if frame.edges_vertices.len() > MOST_LINES {
        return Err(LinesError::TooMany.into());
    }
    let place = |at: usize| -> Result<Point, ReadError> {
        let known = frame.vertices_coords.get(at);
        let known = known.ok_or_else(|| damaged(format!("it has no vertex {at}")))?;
        match known.as_slice() {
            [x, y] => Ok(Point::new(*x, -*y)),
            [x, y, z] if z.abs() < 1e-9 => Ok(Point::new(*x, -*y)),
            _ => Err(damaged("it is a folded piece, not its crease pattern".to_owned())),
        }
    };
    if !frame.exact.is_empty() {
        return exact(&frame, &place);
    }
    let mut drawn = Vec::new();
    for (at, [from, to]) in frame.edges_vertices.iter().enumerate() {
        let assigned = frame.edges_assignment.get(at).map_or("U", String::as_str);
        let mut path = BezPath::new();
        path.move_to(place(*from)?);
        path.line_to(place(*to)?);
        let group =
            Group { layer: name(assigned).to_owned(), colour: String::new(), look: Look::Stroke };
        drawn.push((group, path));
    }
    let mut lines = Lines::gathered(unit(frame.frame_unit.as_deref()), drawn, 0, 0)?;
    // Lines keep their order, unless one has no length.
    if lines.lines.len() == frame.edges_vertices.len() {
        let told = frame.angles.iter().enumerate();
        lines.angles = told
            .filter_map(|(at, own)| Some((at, (*own)?)))
            .filter(|(at, own)| *at < lines.lines.len() && own.abs() <= 180.0)
            .collect();
    }
    Ok(lines)
}

/// The lines as they run, with the angles of the edges that lie on them.
fn exact(
    frame: &Frame,
    place: &dyn Fn(usize) -> Result<Point, ReadError>,
) -> Result<Lines, ReadError> {
    let damaged = |at: usize| {
        ReadError::Damaged(format!(
            "line {} of aptum:lines is no path: write the file anew",
            at + 1
        ))
    };
    if frame.exact.len() > MOST_LINES {
        return Err(LinesError::TooMany.into());
    }
    let down = Affine::scale_non_uniform(1.0, -1.0);
    let mut drawn = Vec::new();
    for (at, line) in frame.exact.iter().enumerate() {
        let path = BezPath::from_svg(&line.path).map_err(|_| damaged(at))?;
        let layer: String = line.kind.chars().filter(|own| !own.is_control()).take(40).collect();
        let group = Group { layer, colour: String::new(), look: Look::Stroke };
        drawn.push((group, down * path));
    }
    let mut lines = Lines::gathered(unit(frame.frame_unit.as_deref()), drawn, 0, 0)?;
    let folds = lines.lines.iter().enumerate().filter(|(_, line)| {
        let layer = lines.groups.get(line.group).map_or("", |group| group.layer.as_str());
        !matches!(layer, "cut" | "kiss-cut" | "guide")
    });
    let folds: Vec<(usize, Rect, Vec<PathSeg>)> = folds
        .map(|(at, line)| {
            let around = line.path.bounding_box().inflate(ON, ON);
            (at, around, line.path.segments().collect())
        })
        .collect();
    let places = folds.iter().enumerate().map(|(own, (_, around, _))| {
        let corners = Rectangle::from_corners([around.x0, around.y0], [around.x1, around.y1]);
        GeomWithData::new(corners, own)
    });
    let places = RTree::bulk_load(places.collect());
    let mut told: BTreeMap<usize, Vec<([Point; 2], f64)>> = BTreeMap::new();
    let mut bends: Vec<([Point; 2], f64)> = Vec::new();
    for (edge, [from, to]) in frame.edges_vertices.iter().enumerate() {
        let Some(Some(angle)) = frame.angles.get(edge) else { continue };
        if angle.abs() > 180.0 {
            continue;
        }
        let ends = [place(*from)?, place(*to)?];
        let mut there: Vec<usize> =
            places.locate_all_at_point(&[ends[0].x, ends[0].y]).map(|own| own.data).collect();
        there.sort_unstable();
        let on = there.into_iter().map(|own| &folds[own]).find(|(_, around, segments)| {
            let near = |at: Point, reach: f64| {
                segments.iter().any(|own| own.nearest(at, 1e-6).distance_sq <= reach * reach)
            };
            // A curve stands off the edge that is its chord.
            let off = ON.max(MOST_BOW * ends[0].distance(ends[1]));
            around.contains(ends[1])
                && ends.iter().all(|end| near(*end, ON))
                && near(ends[0].midpoint(ends[1]), off)
        });
        match on {
            Some((at, ..)) => told.entry(*at).or_default().push((ends, *angle)),
            // Where no line is drawn the card bends of itself.
            None if angle.abs() > 0.0 => bends.push((ends, *angle)),
            None => {}
        }
    }
    let is_straight: BTreeSet<usize> = folds
        .iter()
        .filter(|(.., segments)| segments.iter().all(|own| matches!(own, PathSeg::Line(_))))
        .map(|(at, ..)| *at)
        .collect();
    for (at, edges) in told {
        let Some((_, first)) = edges.first() else { continue };
        if edges.len() == 1 || !is_straight.contains(&at) {
            lines.angles.push((at, *first));
            continue;
        }
        // A straight line at which several panels hang has an angle for each.
        for (number, (ends, angle)) in edges.into_iter().enumerate() {
            let path = straight(ends);
            if number == 0 {
                lines.lines[at].path = path;
                lines.angles.push((at, angle));
            } else {
                let like = lines.lines[at].clone();
                lines.lines.push(Line { path, ..like });
                lines.angles.push((lines.lines.len() - 1, angle));
            }
        }
    }
    if !bends.is_empty() {
        let group = lines.groups.len();
        let layer = "bend".to_owned();
        lines.groups.push(Group { layer, colour: String::new(), look: Look::Stroke });
        for (ends, angle) in bends {
            lines.angles.push((lines.lines.len(), angle));
            lines.lines.push(Line { group, path: straight(ends), width: 0.0, told: None });
        }
    }
    lines.folding = frame.folding.clone().placed(|[x, y]| [x, -y]).sound();
    lines.checked()?;
    Ok(lines)
}

fn straight([from, to]: [Point; 2]) -> BezPath {
    let mut path = BezPath::new();
    path.move_to(from);
    path.line_to(to);
    path
}

/// What edges are (FOLD 1.2, edges_assignment).
fn name(assigned: &str) -> &'static str {
    match assigned {
        "B" | "b" => "boundary",
        "M" | "m" => "mountain",
        "V" | "v" => "valley",
        "C" | "c" => "cut",
        "F" | "f" => "flat",
        "J" | "j" => "join",
        _ => "unassigned",
    }
}

/// A unit in mm (FOLD 1.2, frame_unit); `unit` is none.
fn unit(name: Option<&str>) -> Option<f64> {
    Some(match name? {
        "mm" => 1.0,
        "cm" => 10.0,
        "m" => 1000.0,
        "um" => 0.001,
        "in" => 25.4,
        "pt" => 25.4 / 72.0,
        _ => return None,
    })
}
