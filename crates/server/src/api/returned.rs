//! A file that comes back from elsewhere with a job's marks in it: measured against them, put right, and taken.

use aptum_core::Job;
use aptum_core::blob::Origin;
use aptum_core::face::{Lying, PlacedPicture};
use aptum_core::form::{LineDrawing, ReadLines};
use aptum_core::geometry::Rect;
use aptum_core::lines::{Lines, guessed};
use aptum_core::returned::{ReturnedArt, job_of_lines, job_with_art, lines_on_page};
use aptum_core::sheet::{ACCEPTED, Likeness, NotFound, Returned, find_marks, unit_mistake};
use aptum_core::units::{INCH, Unit, measure};
use aptum_formats::content::Content;
use aptum_formats::lines::{LARGEST, brought, frame, kept};
use aptum_formats::picture::{Coding, Picture};
use aptum_formats::trace::{dark_in, is_of_pixels};
use rocket::FromFormField;
use rocket::data::{Data, ToByteUnit};
use rocket::serde::json::Json;
use rocket::{State, post};
use schemars::JsonSchema;
use serde::Serialize;
use std::sync::Arc;
use ts_rs::TS;

use super::Problem;
use crate::desk::Desk;
use crate::shelf::prepared;

/// What becomes of the file.
#[derive(Debug, Clone, Copy, PartialEq, Eq, FromFormField)]
pub enum TakenAs {
    /// It is only measured.
    Look,
    /// Its lines are cut.
    Lines,
    /// It is printed on the job's own pieces.
    Print,
    /// Its lines are cut, and it is printed on what they enclose.
    Both,
}

/// What the marks in it say of a file.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct ReturnedView {
    /// How large it is against what it should be, in words.
    scale_text: String,
    /// Which mistake with units explains that; `None` where none does, or it is right.
    mistake: Option<String>,
    turn_text: String,
    shift_text: String,
    /// How far the worst mark is off as the file is; `None` where that cannot be told.
    as_it_is_text: Option<String>,
    /// The same once all is put right.
    worst_text: String,
    /// True where no mark is off by more than is accepted, once all is put right.
    is_accepted: bool,
    /// True where nothing has to be put right.
    is_right: bool,
    /// Lines beside the marks.
    lines: usize,
    /// True where it can be printed: a picture, SVG, PDF.
    has_art: bool,
    /// The job that it makes; `None` where it was only measured.
    job: Option<Job>,
}

/// A file as it came back.
struct File {
    kind: FileKind,
    lines: Lines,
    /// Its frame in its units, where it can be printed.
    frame: Option<Rect>,
}

/// What a file is made of.
#[derive(Clone, Copy, PartialEq, Eq)]
enum FileKind {
    Lines,
    Pixels,
}

impl File {
    fn read(bytes: &[u8], page: usize) -> Result<Self, Problem> {
        if is_of_pixels(bytes) {
            let (lines, frame) = dark_in(bytes)?;
            return Ok(Self { kind: FileKind::Pixels, lines, frame: Some(frame) });
        }
        let lines = brought(bytes, page)?;
        Ok(Self { kind: FileKind::Lines, lines, frame: frame(bytes, page) })
    }

    /// How nearly its shapes are those of marks.
    const fn likeness(&self) -> Likeness {
        match self.kind {
            FileKind::Lines => Likeness::DRAWN,
            FileKind::Pixels => Likeness::SEEN,
        }
    }
}

/// A scale that differs by less is right, as a share.
const SAME_SCALE: f64 = 2e-4;

impl ReturnedView {
    fn new(found: &Returned, file: &File, unit: Unit) -> Self {
        let lines = match file.kind {
            FileKind::Pixels => 0,
            FileKind::Lines => file.lines.lines.len().saturating_sub(found.lines.len()),
        };
        let show = |mm: f64| measure(mm, unit);
        let is_large = (found.scale - 1.0).abs() > SAME_SCALE;
        let (scale_text, mistake) = if file.lines.unit.is_some() {
            let times = match found.scale {
                _ if !is_large => "right".to_owned(),
                scale if scale > 1.0 => format!("{scale:.4} times too large"),
                scale => format!("{:.4} times too small", 1.0 / scale),
            };
            (times, unit_mistake(found.scale))
        } else {
            // The file says nothing; the marks say how many of its units an inch has.
            let units = match file.kind {
                FileKind::Pixels => "pixels",
                FileKind::Lines => "units",
            };
            (format!("{:.3} {units} to the inch", INCH / found.scale), None)
        };
        let is_turned = found.turn.abs() > 0.005;
        let shift = found.shift;
        Self {
            scale_text,
            mistake,
            turn_text: if is_turned {
                format!(
                    "{:.2}° {}",
                    found.turn.abs(),
                    if found.turn > 0.0 { "with the clock" } else { "against the clock" }
                )
            } else {
                "not turned".to_owned()
            },
            shift_text: if shift.hypot() > 0.02 {
                format!("{} right, {} down", show(shift.x), show(shift.y))
            } else {
                "in its place".to_owned()
            },
            as_it_is_text: found.as_it_is.map(show),
            worst_text: measure(found.worst, Unit::Mm),
            is_accepted: found.worst <= ACCEPTED,
            is_right: found.as_it_is.is_some_and(|off| off <= ACCEPTED),
            lines,
            has_art: file.frame.is_some(),
            job: None,
        }
    }
}

/// Measures a file against the marks of a job's sheets; with `how` its lines, its print or both become a job.
#[post("/jobs/<id>/returned?<name>&<page>&<how>", data = "<bytes>")]
pub async fn returned(
    desk: &State<Desk>,
    id: i32,
    name: Option<String>,
    page: Option<usize>,
    how: Option<TakenAs>,
    bytes: Data<'_>,
) -> Result<Json<ReturnedView>, Problem> {
    let bytes = bytes
        .open((LARGEST + 1).bytes())
        .into_bytes()
        .await
        .map_err(|error| Problem::missing(format!("The file did not arrive: {error}")))?;
    let bytes = bytes.into_inner();
    let (how, page) = (how.unwrap_or(TakenAs::Look), page.unwrap_or(1));
    let name: String = name.unwrap_or_default().chars().filter(|own| !own.is_control()).collect();
    let origin = Origin { name: name.chars().take(200).collect(), ..Origin::default() };
    let read = desk
        .picture(move |store| {
            let job = store.job(id)?.job;
            let workshop = store.workshop()?;
            let prepared = prepared(&job, &workshop, store)?;
            let file = File::read(&bytes, page)?;
            let found = find_marks(&prepared.marks, &file.lines, file.likeness())
                .map_err(|why| not_found(why, file.kind))?;
            let view = ReturnedView::new(&found, &file, job.unit);
            if how != TakenAs::Look && !view.is_accepted {
                return Err(Problem::drawing(422, format!(
                    "A mark lies {} from where it should, more than {ACCEPTED} mm, also once the file is put right: it was stretched, or a mark was moved. Export it anew with the marks untouched",
                    view.worst_text
                )));
            }
            if file.kind == FileKind::Pixels && matches!(how, TakenAs::Lines | TakenAs::Both) {
                return Err(Problem::drawing(422, "A picture has no lines to cut: print it on the pieces, or start a job from it to trace it".to_owned()));
            }
            let own = lines_on_page(&file.lines, &found);
            let picture = match (how, file.frame) {
                (TakenAs::Print | TakenAs::Both, Some(frame)) => {
                    let (picture, kept) = Picture::brought(&bytes, page)?;
                    Some((picture, kept.into_owned(), frame))
                }
                (TakenAs::Print, None) => {
                    return Err(Problem::drawing(422, "Only pictures, SVG and PDF are printed: take its lines, or save it as one of these".to_owned()));
                }
                _ => None,
            };
            Ok((job, workshop, prepared, found, own, picture, view))
        })
        .await?;
    let (job, workshop, prepared, found, lines, picture, mut view) = read;
    if how == TakenAs::Look {
        return Ok(Json(view));
    }
    desk.write(move |store| {
        let art = match picture {
            Some((picture, bytes, frame)) => {
                let blob = store.add_blob(Content::Picture(picture), &bytes)?;
                let mut placed = PlacedPicture::new(blob, picture.pixels, Lying::default());
                placed.drawn = picture.coding == Coding::Svg;
                placed.origin = origin.clone();
                Some(ReturnedArt { picture: placed, frame })
            }
            None => None,
        };
        let made = if how == TakenAs::Print {
            art.map(|art| job_with_art(&job, &prepared, &found, &art)).unwrap_or(job)
        } else {
            let key = guessed(&lines);
            lines.checked().map_err(|error| Problem::drawing(422, error.to_string()))?;
            let blob = store.add_blob(Content::Lines, &kept(&lines))?;
            let mut drawing = LineDrawing::new(blob, origin, key);
            drawing.read = ReadLines(Some(Arc::new(lines)));
            job_of_lines(&job, &workshop, &found, drawing, art.as_ref())?
        };
        view.job = Some(made);
        Ok(Json(view))
    })
    .await
}

fn not_found(why: NotFound, kind: FileKind) -> Problem {
    let words = match why {
        NotFound::NoMarks => {
            "This job’s sheets have no marks to measure by: choose marks on Sheet first".to_owned()
        }
        NotFound::TooFew(found) if kind == FileKind::Pixels => format!(
            "Too few of this job’s marks are in the picture, {found} of their shapes: keep them black with nothing over them, and save it with 150 pixels to the inch or more"
        ),
        NotFound::TooFew(found) => format!(
            "Too few of this job’s marks are in the file, {found} of their shapes: keep the marks as areas, in one page, when it is exported"
        ),
        NotFound::Elsewhere => {
            "Shapes like this job’s marks are in the file, but not as they lie on its sheets: is it another job’s, or were marks moved?".to_owned()
        }
    };
    Problem::drawing(422, words)
}
