//! A piece closed, with what is printed on it, as a drawing: to show it before there is one.

use std::io;

use aptum_core::PreparedPiece;
use aptum_core::blob::Blobs;
use aptum_core::face::Side;
use aptum_core::fold::draw_folded;
use aptum_core::form::Part;
use aptum_core::geometry::{Affine, BezPath, Rect};
use aptum_core::pixels::rgb;
use aptum_core::units::INCH;
use svg::node::element::{Group, Path, Use};

use crate::art::{Drawing, arts, matrix, png};

/// What shade turns card and ink into.
const SHADE: &str = "#6f6554";

/// How much of the light the unprinted side gives back.
const INSIDE: f64 = 0.84;

/// The lines between panels.
const LINE: &str = "#22302f";

/// Room around the piece, as a share of its greater side.
const ROOM: f64 = 0.02;

/// Pixels of the greater side of a picture of it.
const PIXELS: f64 = 1600.0;

/// The closed piece as a picture on nothing, its greater side 1600 pixels long; `None` of a piece that does not fold.
///
/// # Errors
/// What the drawing of pixels says.
pub fn folded_png(
    piece: &PreparedPiece,
    card: &str,
    blobs: &dyn Blobs,
) -> io::Result<Option<Vec<u8>>> {
    let Some((svg, bounds)) = drawn(piece, card, blobs) else { return Ok(None) };
    let ppi = PIXELS * INCH / bounds.width().max(bounds.height()).max(1.0);
    png(&svg, ppi, false).map(Some)
}

/// The closed piece in mm, as if it stood before the eye at its size, in card of a colour; `None` of a piece that
/// does not fold.
///
/// A copy that wears a row of a list wears its first.
#[must_use]
pub fn folded_svg(piece: &PreparedPiece, card: &str, blobs: &dyn Blobs) -> Option<String> {
    drawn(piece, card, blobs).map(|(svg, _)| svg)
}

fn drawn(piece: &PreparedPiece, card: &str, blobs: &dyn Blobs) -> Option<(String, Rect)> {
    let model = piece.formed.fold.as_ref().filter(|fold| !fold.is_flat())?;
    let folded = draw_folded(model, model.closed());
    let mut drawing = Drawing::new(blobs);
    let mut worn = |side: Side| -> Vec<Affine> {
        let blanks: Vec<_> = arts(piece, side).collect();
        let mut turned = Vec::new();
        for (number, (part, art)) in blanks.into_iter().enumerate() {
            let inks = drawing.inks(art.inks(0));
            let group = Group::new().set("id", name(side, number));
            drawing.shared.push(inks.into_iter().fold(group, Group::add));
            turned.push(turn(side, part));
        }
        turned
    };
    let (front, back) = (worn(Side::Front), worn(Side::Back));
    let [x, y, width, height] = folded.bounds;
    let line = 0.003 * width.max(height);
    let shape = |own: &str| Path::new().set("d", own).set("stroke-linejoin", "round");
    let mut whole = Group::new();
    for face in &folded.faces {
        let light = face.light * if face.is_inside { INSIDE } else { 1.0 };
        let dark = tidy(1.0 - light);
        // A line of its own colour closes the seam to the next face.
        let shaded = mixed(card, SHADE, dark);
        let bare = shape(&face.face).set("fill", shaded.as_str()).set("stroke", shaded.as_str());
        whole = whole.add(bare.set("stroke-width", line / 2.0));
        let (side, turned) =
            if face.is_inside { (Side::Back, &back) } else { (Side::Front, &front) };
        if let Some(turned) = turned.get(face.part) {
            let art = Use::new()
                .set("href", format!("#{}", name(side, face.part)))
                .set("transform", matrix(face.lies * *turned));
            let clip = BezPath::from_svg(&face.face).unwrap_or_default();
            let printed = drawing.clipped(Group::new(), Some(&clip));
            let card = shape(&face.face).set("fill", card);
            let shade = shape(&face.face).set("fill", SHADE).set("fill-opacity", dark);
            whole = whole.add(printed.add(card).add(art).add(shade));
        }
        let sides = shape(&face.sides).set("fill", "none").set("stroke", LINE);
        whole = whole.add(sides.set("stroke-width", line));
    }
    let room = ROOM * width.max(height);
    let bounds = Rect::new(x, y, x + width, y + height).inflate(room, room);
    Some((drawing.finish(&piece.name, bounds, whole), bounds))
}

fn name(side: Side, part: usize) -> String {
    let side = if side == Side::Back { "back" } else { "front" };
    format!("{side}{part}")
}

/// From the drawing of a side of a blank to the blank as it is seen from the printed side.
fn turn(side: Side, part: &Part) -> Affine {
    if side == Side::Back { part.turned_over() } else { Affine::IDENTITY }
}

/// A share of the way from one colour to another, as they are coded.
fn mixed(from: &str, to: &str, share: f64) -> String {
    let [from, to] = [from, to].map(|colour| rgb(colour).unwrap_or([255; 3]));
    let code: String = from
        .iter()
        .zip(to)
        .map(|(from, to)| {
            let way = f64::from(*from) + (f64::from(to) - f64::from(*from)) * share;
            #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "0 to 255")]
            let way = way.round().clamp(0.0, 255.0) as u8;
            format!("{way:02x}")
        })
        .collect();
    format!("#{code}")
}

fn tidy(share: f64) -> f64 {
    (share * 1e4).round() / 1e4
}
