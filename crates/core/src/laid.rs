//! The third stage: copies on sheets, with everything that is printed beside them, and the limits of the sheets.

use std::collections::BTreeSet;
use std::sync::Arc;

use serde::Serialize;

use crate::LineKind;
use crate::check::{Check, Stage, State};
use crate::error::{InputError, Remedy};
use crate::face::{Art, Finish, Ink, Inked};
use crate::form::Part;
use crate::geometry::{Affine, BezPath, Rect, Vec2};
use crate::id::PieceId;
use crate::job::Job;
use crate::memory::{Key, Memory, Weighty, recalled};
use crate::records::Records;
use crate::sheet::{Drawn, Ground};
use crate::sheet::{
    FreeRoom, Layout, Marks, Misfit, NO_CODE, Notes, Order, Orientation, Placement, SQUARE,
    SheetCode, SheetPlan, Windows, lay, least_notes, legend_size, misfit, order, place_notes,
    sheet_checks,
};
use crate::units::{Unit, measure};
use crate::workshop::{RecordId, Workshop};

/// Copies on sheets.
#[derive(Debug, Clone)]
pub struct Laid {
    /// The page's marks.
    pub marks: Marks,
    /// Where print and cuts may lie.
    pub windows: Windows,
    /// From the front of the page to its back, as that is seen from behind.
    pub turned: Affine,
    /// The copies on their sheets.
    pub layout: Layout,
    /// How the piece misses, when not one copy fits.
    pub misfit: Option<Misfit>,
    /// Room for scale and code, for each run of sheets.
    pub notes: Vec<Option<Notes>>,
    /// Room for the legend of lines printed by kind, for each run of sheets.
    pub legends: Vec<Option<Rect>>,
    /// Room for the same code as a square one that an eye reads, for each run of sheets.
    pub square_codes: Vec<Option<Rect>>,
    /// The code that names exactly what is printed and cut.
    pub code: String,
    /// Which way round the page is.
    pub orientation: Orientation,
    /// The limits of the sheets.
    pub sheet_checks: Vec<Check>,
    /// What the whole order comes to.
    pub order: Order,
}

/// What a layout is made from: all that [`Laid::new`] reads.
#[derive(Debug, Serialize)]
struct LayInput<'a> {
    unit: Unit,
    sheet: &'a SheetPlan,
    pieces: Vec<LayPiece<'a>>,
    /// The ways to make it fit look at everything that the workshop has.
    workshop: &'a Workshop,
}

/// What a layout reads of a piece.
#[derive(Debug, Serialize)]
struct LayPiece<'a> {
    id: &'a PieceId,
    title: &'a str,
    stock: &'a RecordId,
    copies: u32,
    faced: Key,
}

impl Laid {
    /// The layout of these pieces, made anew or remembered, and under which key.
    ///
    /// # Errors
    /// What memory says of it; laying says nothing of its own.
    pub(crate) fn made(
        job: &Job,
        workshop: &Workshop,
        records: &Records<'_>,
        drawn: &[Drawn],
        memory: &dyn Memory,
    ) -> Result<(Key, Arc<Self>), Vec<InputError>> {
        let pieces = drawn.iter().map(|piece| LayPiece {
            id: &piece.job_piece.id,
            title: job.title(&piece.job_piece),
            stock: &piece.job_piece.stock,
            copies: piece.job_piece.made(),
            faced: piece.face_key,
        });
        let (unit, sheet) = (job.unit, &job.sheet);
        let input = LayInput { unit, sheet, pieces: pieces.collect(), workshop };
        recalled(memory, "laid", &input, || {
            let ground = Ground::of(job, records, drawn.to_vec());
            Ok(Self::new(job, workshop, records, ground, memory))
        })
    }

    fn new(
        job: &Job,
        workshop: &Workshop,
        records: &Records<'_>,
        mut ground: Ground,
        memory: &dyn Memory,
    ) -> Self {
        let plan = &job.sheet;
        let layout = lay(plan, &ground);
        let (piece, at) = ground.critical();
        let misfit = (!ground.holds(piece, at) && plan.kept.is_none()).then(|| {
            let outline = &piece.laid_parts()[at].outline;
            let miss = misfit(&piece.blanks[at], outline, &ground.windows, &piece.turns);
            Misfit { placement: Placement { part: piece.first + at, ..miss.placement }, ..miss }
        });
        let blanks: Vec<Vec<&BezPath>> = ground
            .blanks()
            .map(|(piece, at)| blank_paths(&piece.laid_parts()[at], piece.laid_arts().get(at)))
            .collect();
        let sheets = layout.sheets();
        let kinds: BTreeSet<LineKind> =
            ground.blanks().flat_map(|(piece, at)| piece.flat.parts[at].kinds()).collect();
        // An eye that goes by marks also reads the code.
        let is_read = job.is_printed() && !ground.marks.marks.is_empty();
        let mut square_codes = Vec::new();
        let (notes, legends): (Vec<Option<Notes>>, Vec<Option<Rect>>) = layout
            .runs
            .iter()
            .map(|run| {
                let mut room = FreeRoom::new(&ground.windows, &blanks, &run.placements);
                let notes = place_notes(&mut room, job.unit, sheets);
                let legend = room.take(legend_size(kinds.len()));
                square_codes.push(is_read.then(|| room.take(Vec2::new(SQUARE, SQUARE))).flatten());
                (notes, legend)
            })
            .unzip();
        let turned = records.printer.map(|printer| printer.turns_about).unwrap_or_default();
        let turned = turned.turned(ground.windows.page);
        let code = code_of(job.unit, &ground, turned, &layout, &notes);
        if let Some(sign) = ground.marks.sign.as_mut().filter(|sign| sign.text == NO_CODE) {
            sign.text.clone_from(&code);
        }
        let mut sheet_checks =
            sheet_checks(job, workshop, records, &ground, &layout, misfit.as_ref(), memory);
        sheet_checks.extend(notes_check(job, &layout, &notes));
        let order = order(workshop, &ground, &layout);
        let Ground { marks, windows, .. } = ground;
        let orientation = plan.orientation;
        Self {
            marks,
            windows,
            turned,
            layout,
            misfit,
            notes,
            legends,
            square_codes,
            code,
            orientation,
            sheet_checks,
            order,
        }
    }
}

impl Weighty for Laid {
    fn weight(&self) -> usize {
        let places: usize = self.layout.runs.iter().map(|run| run.placements.len()).sum();
        let drawn: usize = self
            .sheet_checks
            .iter()
            .map(|check| 1000 + check.place.as_ref().map_or(0, |place| place.path.len()))
            .sum();
        size_of::<Placement>() * places + drawn + 20_000
    }
}

/// What a blank takes on a sheet: its outline, and what is printed past it.
pub(crate) fn blank_paths<'a>(part: &'a Part, art: Option<&'a Art>) -> Vec<&'a BezPath> {
    let art = art.map(|art| &art.to_edge).filter(|area| !area.elements().is_empty());
    std::iter::once(&part.outline).chain(art).collect()
}

/// The code that names what is printed and cut: every line, all ink, where copies lie, and nothing else.
fn code_of(
    unit: Unit,
    ground: &Ground,
    turned: Affine,
    layout: &Layout,
    notes: &[Option<Notes>],
) -> String {
    let mut code = SheetCode::new();
    code.number(ground.windows.page.width());
    code.number(ground.windows.page.height());
    if ground.marks_on_white() {
        code.text("marks on white");
    }
    for mark in &ground.marks.marks {
        code.path(&mark.ink);
    }
    if let Some(sign) = &ground.marks.sign {
        code.text(&sign.text);
    }
    for (piece, at) in ground.blanks() {
        let part = &piece.laid_parts()[at];
        code.text(part.edge.id());
        code.path(&part.outline);
        for stroke in &part.strokes {
            code.text(part.kind(stroke.kind).id());
            code.path(&stroke.path);
            if let Some(pattern) = stroke.pattern {
                code.number(pattern.cut);
                code.number(pattern.tie);
            }
        }
        if let Some(art) = piece.laid_arts().get(at) {
            art.all().for_each(|inked| ink(&mut code, inked));
        }
        if let Some(art) = piece.back.as_ref().and_then(|back| back.arts.get(at)) {
            code.text("back");
            turned.as_coeffs().into_iter().for_each(|number| code.number(number));
            art.all().for_each(|inked| ink(&mut code, inked));
        }
    }
    for (run, notes) in layout.runs.iter().zip(notes) {
        code.number(f64::from(run.sheets));
        for at in &run.placements {
            code.text(&at.part.to_string());
            [at.x, at.y, at.turn].into_iter().for_each(|number| code.number(number));
        }
        if let Some(notes) = notes {
            code.number(notes.place.x0);
            code.number(notes.place.y0);
            code.text(if notes.turned { "turned" } else { "upright" });
            if let Some(scale) = notes.scale() {
                code.text(&measure(scale, unit));
            }
        }
    }
    code.finish()
}

/// Everything of a layer that shows.
fn ink(code: &mut SheetCode, inked: &Inked) {
    match &inked.ink {
        Ink::Area { path, colour, running, clip } => {
            code.text(colour);
            if let Some(running) = running {
                code.text(&running.to);
                for end in running.ends {
                    code.number(end.x);
                    code.number(end.y);
                }
            }
            code.path(path);
            if let Some(clip) = clip {
                code.path(clip);
            }
        }
        Ink::Words { path } => {
            code.text("words");
            code.path(path);
        }
        Ink::Picture { blob, place, clip, choke } => {
            code.text(&blob.0);
            if *choke != 0.0 {
                code.number(*choke);
            }
            place.as_coeffs().into_iter().for_each(|number| code.number(number));
            code.path(clip);
        }
    }
    if inked.finish != Finish::Colour {
        code.text(inked.finish.separation().name());
        if let Finish::Raised { passes } = inked.finish {
            code.number(passes.into());
        }
    }
    if inked.opacity < 1.0 {
        code.number(inked.opacity);
    }
}

/// A printed sheet without its code cannot be told from another; one without a scale cannot be measured.
fn notes_check(job: &Job, layout: &Layout, notes: &[Option<Notes>]) -> Option<Check> {
    if !job.is_printed() || notes.is_empty() {
        return None;
    }
    let least = least_notes(layout.sheets());
    let show = |mm| measure(mm, job.unit);
    let bare = notes.iter().filter(|notes| notes.is_none()).count();
    let unscaled = notes.iter().flatten().filter(|notes| notes.scale().is_none()).count();
    let (state, value, verdict) = match (bare, unscaled) {
        (0, 0) => (State::Fits, "both", "beside the pieces".to_owned()),
        (0, _) => (State::Attention, "the code alone", "no room for a scale".to_owned()),
        _ => (
            State::Attention,
            "left out",
            format!("{} × {} are free nowhere", show(least.x + 2.0), show(least.y + 2.0)),
        ),
    };
    let check = Check::yes_or_no(
        "notes",
        Stage::Sheet,
        "Scale and code",
        state,
        [value.to_owned(), "on each sheet".to_owned(), verdict],
    );
    Some(check.remedy(Remedy::advice(format!(
        "Leave {} × {} free on the sheet: take a larger one, or lay fewer copies on it by hand",
        show(least.x + 2.0),
        show(least.y + 2.0)
    ))))
}
