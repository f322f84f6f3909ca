//! Lines of FOLD (1.0 to 1.2): the edges of a crease pattern, by what they are assigned.

use aptum_core::geometry::{BezPath, Point};
use aptum_core::lines::{Group, Lines, LinesError, Look, MOST_LINES};
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
}

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
