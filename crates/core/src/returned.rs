//! A file that comes back with a job's marks in it: its lines and its art where they belong on the sheet.

use kurbo::{Affine, Rect};

use crate::face::{Face, Layer, LayerKind, Lying, PictureSize, PlacedPicture, Uprights};
use crate::form::{Form, LineDrawing, Part};
use crate::geometry::OutlineId;
use crate::id::LayerId;
use crate::job::{Job, JobPiece, Kept, LaidBlank, Made, Placement, SheetRun};
use crate::lines::Lines;
use crate::prepare::Prepared;
use crate::sheet::{Returned, SheetPlan};
use crate::units::Unit;
use crate::{InputError, Workshop};

/// The name of the layer that comes back.
const LAYER: &str = "From outside";

/// Bleed of a face that is made for what comes back, mm (common practice).
const BLEED: f64 = 1.0;

/// Art that comes back: a picture, and where its frame lies in the file.
#[derive(Debug, Clone)]
pub struct ReturnedArt {
    /// The picture, placed nowhere yet.
    pub picture: PlacedPicture,
    /// Its frame, in units of the file.
    pub frame: Rect,
}

/// The lines of a file in mm on the page, without the marks.
#[must_use]
pub fn lines_on_page(lines: &Lines, found: &Returned) -> Lines {
    let mut own = lines.clone();
    own.unit = Some(1.0);
    own.angles.clear();
    let scale = found.to_page.determinant().abs().sqrt();
    let kept = own.lines.into_iter().enumerate().filter(|(at, _)| !found.lines.contains(at));
    own.lines = kept
        .map(|(_, mut line)| {
            line.path = found.to_page * line.path;
            line.width *= scale;
            line
        })
        .collect();
    own
}

/// A job of the lines that came back, on a sheet of the job that they were drawn for, where they lie there; with the art
/// on them, if there is some.
///
/// # Errors
/// Lines that make no blank.
pub fn job_of_lines(
    job: &Job,
    workshop: &Workshop,
    found: &Returned,
    drawing: LineDrawing,
    art: Option<&ReturnedArt>,
) -> Result<Job, Vec<InputError>> {
    let first = &job.pieces[0];
    let caliper = workshop.stocks.get(&first.stock).map_or(0.3, |stock| stock.caliper);
    let mut piece = JobPiece { face: None, list: None, ..first.clone() };
    piece.name = None;
    (piece.copies, piece.spares) = (1, 0);
    piece.form = Form::of_drawing(drawing);
    let flat = piece.form.draw(caliper, Unit::Mm)?;
    let part = &flat.parts[0];
    let to_blank = flat.drawing.as_ref().map_or(Affine::IDENTITY, |facts| facts.to_blank);
    if let Some(art) = art {
        let layer = placed(art, found, to_blank, 0.0, part, "l1");
        piece.face = Some(Face::new(BLEED, vec![layer]));
    }
    let shift = to_blank.translation();
    let at = Placement { part: 0, copy: 1, x: -shift.x, y: -shift.y, turn: 0.0, locked: false };
    let blank = LaidBlank {
        piece: piece.id.clone(),
        part: part.id.clone(),
        outline: Some(OutlineId::of(&part.outline)),
    };
    let runs = vec![SheetRun { sheets: 1, placements: vec![at] }];
    let kept = Some(Kept { made: Made::ByHand, blanks: vec![blank], runs });
    Ok(Job {
        name: format!("{}, returned", job.name).chars().take(80).collect(),
        pieces: vec![piece],
        sheet: SheetPlan { kept, ..job.sheet.clone() },
        ..job.clone()
    })
}

/// The job with the art that came back on its pieces, as it lies over the first sheet: each piece's first copy there says
/// where.
#[must_use]
pub fn job_with_art(job: &Job, prepared: &Prepared, found: &Returned, art: &ReturnedArt) -> Job {
    let mut job = job.clone();
    let blanks: Vec<_> = prepared.blanks().collect();
    let first = prepared.layout.runs.first();
    let placements = first.map_or(&[] as &[_], |run| run.placements.as_slice());
    for (number, piece) in job.pieces.iter_mut().enumerate() {
        let own = placements.iter().find_map(|at| {
            let blank = blanks.get(at.part).filter(|blank| blank.piece == number)?;
            Some((at, blank.part))
        });
        let Some((at, part)) = own else { continue };
        let mut face = piece.face.take().unwrap_or_else(|| Face::new(BLEED, Vec::new()));
        let is_taken = |id: &str| face.layers.iter().any(|layer| layer.id.0 == id);
        let id = (1..).map(|count| format!("l{count}")).find(|id| !is_taken(id));
        let id = id.unwrap_or_default();
        face.layers.push(placed(art, found, at.transform().inverse(), at.turn, part, &id));
        piece.face = Some(face);
    }
    job
}

/// The art as a layer on all of a blank, where it lies on the page; the blank itself is turned there.
fn placed(
    art: &ReturnedArt,
    found: &Returned,
    to_blank: Affine,
    turned: f64,
    part: &Part,
    id: &str,
) -> Layer {
    let scale = found.to_page.determinant().abs().sqrt();
    let middle = to_blank * (found.to_page * art.frame.center());
    let mut lying = Lying::default();
    let area = lying.area(part, &Uprights::default());
    let own = area.map_or_else(|| part.bounds.center(), |area| area.middle);
    (lying.x, lying.y) = (middle.x - own.x, middle.y - own.y);
    lying.turn = -found.turn - turned;
    let mut picture = art.picture.clone();
    picture.size = PictureSize::Sides([art.frame.width() * scale, art.frame.height() * scale]);
    picture.lying = lying;
    let mut layer = Layer::new(id, LayerKind::Picture(picture));
    layer.id = LayerId(id.to_owned());
    layer.name = Some(LAYER.to_owned());
    layer
}
