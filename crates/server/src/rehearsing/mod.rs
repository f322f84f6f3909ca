//! A rehearsal: a sheet is printed and cut by the machines that ship with Aptum, through their own doors, and looked at
//! afterwards.

mod pictures;
mod printing;
mod talk;

use std::io;
use std::net::TcpListener;
use std::sync::Arc;
use std::sync::atomic::{AtomicBool, Ordering};
use std::time::Duration;

use aptum_core::blob::Blobs;
use aptum_core::geometry::{Affine, Point, Vec2};
use aptum_core::rehearsal::{CutLine, Day, Loading, Worn};
use aptum_core::tooling::{CutPlan, ToolPath};
use aptum_core::workshop::{AllowedBy, Cutter, Dialect, Finds, Margins, MarkSet, Tool};
use aptum_core::{Job, Prepared, Workshop};
use aptum_devices::Picture;
use aptum_devices::cutter::{Bed, Cut, Cutter as Machine, Found, Settings, serve};
use aptum_devices::printer::{PrintedSheet, Printer, PrinterError};
use aptum_formats::asking::{Asking, ask_marks};
use aptum_formats::hpgl::hpgl;
use aptum_formats::pdf::print_pdf;

use crate::shelf::{planned, tool_path};

pub use pictures::Pictures;
pub use printing::{PrintError, print_at};
pub use talk::{Talk, TalkError, Wish};

/// How far around each mark a cutter searches, mm.
pub const REACH: f64 = 14.0;

/// How far a hand errs that sets crosshairs, mm (common practice).
pub const HAND: f64 = 0.1;

/// Why there was no rehearsal.
#[derive(Debug, thiserror::Error)]
pub enum NoRehearsal {
    /// There is no such sheet.
    #[error("The job has {0} sheets, no more")]
    NoSheet(u32),
    /// Nothing says how it is cut.
    #[error("No cutter is chosen: choose one in Sheet")]
    NoCutter,
    /// It needs marks, and there are none.
    #[error("{0} goes by marks, and the sheet has none: choose a mark set in Sheet")]
    NoMarks(String),
    /// It scans the page.
    #[error(
        "{0} scans the page and finds outlines by itself: what it makes of a print is seen on it alone"
    )]
    Scans(String),
    /// The printer said no.
    #[error(transparent)]
    Printer(#[from] PrinterError),
    /// The cutter did.
    #[error(transparent)]
    Talk(#[from] TalkError),
    /// A file could not be written.
    #[error("The files for the rehearsal could not be made: {0}")]
    Io(#[from] io::Error),
}

/// A sheet of a job, and what it is rehearsed with.
pub struct Stage<'a> {
    /// The job.
    pub job: &'a Job,
    /// The same, prepared.
    pub prepared: &'a Prepared,
    /// Its workshop.
    pub workshop: &'a Workshop,
    /// Its pictures.
    pub blobs: &'a dyn Blobs,
    /// Which sheet, from 1.
    pub sheet: u32,
}

/// What came of it.
pub struct Rehearsed {
    /// The sheet as it was printed.
    pub printed: PrintedSheet,
    /// Where it lay on the bed.
    pub place: Affine,
    /// How the cutter found it; `None` where it goes by the sheet's edge.
    pub found: Option<Found>,
    /// Why it cut nothing; `None` where it did.
    pub refused: Option<String>,
    /// Lines as they were meant, and as they were cut.
    pub lines: Vec<CutLine>,
}

/// A sheet of a run, its plan and its path.
pub struct OnSheet<'a> {
    /// Which run of sheets.
    pub run: usize,
    /// Its first sheet, from 1.
    first: u32,
    /// Its last.
    last: u32,
    plan: Arc<CutPlan>,
    path: Arc<ToolPath>,
    cutter: &'a Cutter,
}

impl<'a> Stage<'a> {
    /// The sheet with its path.
    ///
    /// # Errors
    /// That there is none, or nothing to cut it with.
    pub fn on_sheet(&self) -> Result<OnSheet<'a>, NoRehearsal> {
        let Self { job, prepared, workshop, .. } = self;
        let none = || NoRehearsal::NoSheet(prepared.layout.sheets());
        let cutter = job.sheet.cutter.as_ref().and_then(|id| workshop.cutters.get(id));
        let cutter = cutter.ok_or(NoRehearsal::NoCutter)?;
        let (run, [first, last]) = prepared.layout.run_of(self.sheet).ok_or_else(none)?;
        let plan = planned(prepared, job, run).ok_or_else(none)?;
        let path = tool_path(prepared, job, workshop, run).ok_or_else(none)?;
        Ok(OnSheet { run, first, last, plan, path, cutter })
    }

    /// The marks that the cutter goes by; `None` where it goes by none.
    ///
    /// # Errors
    /// That it needs some, or finds the sheet in a way that nobody can stand in for.
    pub fn marks(&self, cutter: &Cutter) -> Result<Option<&'a MarkSet>, NoRehearsal> {
        if cutter.finds == Finds::Scan {
            return Err(NoRehearsal::Scans(cutter.name.clone()));
        }
        // What is not printed lies as it was laid, and needs none.
        if !cutter.finds.by_marks() || !self.prepared.is_printed() {
            return Ok(None);
        }
        let set = self.job.sheet.marks.as_ref().and_then(|id| self.workshop.mark_sets.get(id));
        let set = set.filter(|_| self.prepared.marks.marks.len() > 2);
        set.map(Some).ok_or_else(|| NoRehearsal::NoMarks(cutter.name.clone()))
    }

    /// The printer's margins on the page as it is drawn.
    #[must_use]
    pub fn margins(&self) -> Margins {
        let (page, inside) = (self.prepared.windows.page, self.prepared.windows.printable);
        Margins {
            lead: inside.y0 - page.y0,
            trail: page.y1 - inside.y1,
            left: inside.x0 - page.x0,
            right: page.x1 - inside.x1,
        }
    }

    /// The copies of the sheet, as they are judged.
    #[must_use]
    pub fn worn(&self, run: usize) -> Vec<Worn<'a>> {
        let blanks: Vec<_> = self.prepared.blanks().collect();
        let places = self.prepared.layout.runs.get(run).map(|run| run.placements.as_slice());
        let places = places.unwrap_or_default().iter();
        places
            .filter_map(|at| {
                let blank = blanks.get(at.part)?;
                let ink = blank.art.map(|art| &art.to_edge);
                let outline = &blank.part.outline;
                let ink = ink.filter(|ink| !ink.elements().is_empty());
                Some(Worn { transform: at.transform(), outline, ink })
            })
            .collect()
    }

    /// Prints the sheet, lays it on the cutter's bed, and has it cut.
    ///
    /// # Errors
    /// Why there was no rehearsal. A cutter that refuses the sheet is no error.
    pub fn rehearse(
        &self,
        day: Day,
        seed: u64,
        loading: &Loading,
        ppi: f64,
    ) -> Result<Rehearsed, NoRehearsal> {
        let own = self.on_sheet()?;
        let set = self.marks(own.cutter)?;
        let mut pdf = Vec::new();
        print_pdf(self.job, self.prepared, self.blobs, &mut pdf)?;
        let card = self.card(own.run);
        let printer = Printer { margins: self.margins(), ppi, day, seed, card };
        let sides = if self.prepared.has_backs() { 2 } else { 1 };
        let page = (self.sheet.saturating_sub(1) * sides) as usize;
        let printed = printer.print(&pdf, page)?;
        drop(pdf);
        let place = loading.affine(printed.printing.paper);
        let dialect = own.cutter.dialect.clone().unwrap_or_default();
        let machine = Machine::new(own.settings(&dialect));
        machine.load(Bed::new(&printed.picture, place));
        let sent = Sent { stage: self, own: &own, set, dialect: &dialect, loading };
        let (mut cuts, mut refused, mut turn) = (Vec::new(), None, 0);
        for at in own.loadings() {
            if refused.is_some() {
                break;
            }
            if own.is_behind(at) {
                cuts.extend(sent.behind(at, &printed, card)?);
                continue;
            }
            let before = machine.cuts().len();
            refused = spoken(&machine, &sent, at, Some(turn))?;
            turn += 1;
            cuts.extend(machine.cuts().into_iter().skip(before));
        }
        let found = machine.found();
        let lines = own.lines(&cuts, dialect.passes.is_empty());
        Ok(Rehearsed { printed, place, found, refused, lines })
    }

    /// The colour of the card, as the printer's paper has it.
    fn card(&self, run: usize) -> [u8; 3] {
        let place = self.prepared.layout.runs.get(run).and_then(|run| run.placements.first());
        let blank = place.and_then(|at| self.prepared.blanks().nth(at.part));
        let stock = blank.map(|blank| &self.prepared.pieces[blank.piece].job_piece.stock);
        let colour = stock.and_then(|id| self.workshop.stocks.get(id)).map(|stock| &stock.colour);
        let digits = colour.and_then(|own| u32::from_str_radix(own.strip_prefix('#')?, 16).ok());
        let [_, red, green, blue] = digits.unwrap_or(0x00ff_ffff).to_be_bytes();
        [red, green, blue]
    }
}

impl OnSheet<'_> {
    /// The cutter.
    #[must_use]
    pub const fn cutter(&self) -> &Cutter {
        self.cutter
    }

    /// Lines as they are meant, with nothing cut yet.
    #[must_use]
    pub fn meant(&self) -> Vec<CutLine> {
        self.path.stretches.iter().filter_map(|own| self.line(own.stroke, &own.line, &[])).collect()
    }

    fn settings(&self, dialect: &Dialect) -> Settings {
        let knife = self.cutter.knife;
        let trails = self
            .path
            .worked
            .iter()
            .filter(|own| !own.operation.is_off)
            .map(|own| if own.operation.tool == Tool::DragKnife { knife.offset } else { 0.0 });
        Settings {
            units: dialect.units,
            origin: dialect.origin,
            swapped: dialect.swapped,
            offsets: trails.collect(),
            allows: knife.allowed_by == AllowedBy::Machine,
            hand: if self.cutter.finds == Finds::Crosshairs { HAND } else { 0.0 },
            is_attended: true,
            ..Settings::default()
        }
    }

    /// The loadings of the sheet, in their order.
    fn loadings(&self) -> std::ops::Range<usize> {
        let worked = self.path.worked.iter().filter(|own| !own.operation.is_off);
        0..worked.map(|own| own.operation.loading + 1).max().unwrap_or(0)
    }

    /// True for a loading with the sheet's back up.
    fn is_behind(&self, loading: usize) -> bool {
        let mut worked = self.path.worked.iter().map(|own| &own.operation);
        worked.any(|own| own.loading == loading && !own.is_off && own.is_from_behind())
    }

    /// Each line with what was cut of it: one follows the other in both.
    fn lines(&self, cuts: &[Cut], is_sent_again: bool) -> Vec<CutLine> {
        let mut cuts = cuts.iter();
        let mut lines = Vec::new();
        for loading in self.loadings() {
            for own in self.path.of_loading(loading) {
                let passes = self.path.worked[own.operation].operation.passes.max(1);
                if !is_sent_again && !(own.pass - 1).is_multiple_of(passes) {
                    continue;
                }
                let Some(cut) = cuts.next() else { return lines };
                lines.extend(self.line(own.stroke, &own.line, &cut.line));
            }
        }
        lines
    }

    fn line(&self, stroke: Option<usize>, meant: &[Point], cut: &[Point]) -> Option<CutLine> {
        let stroke = self.plan.strokes.get(stroke?)?;
        let (copy, is_edge) = (stroke.copy, stroke.is_edge);
        Some(CutLine { copy, is_edge, meant: meant.to_vec(), cut: cut.to_vec() })
    }
}

/// What a machine is sent.
struct Sent<'a> {
    stage: &'a Stage<'a>,
    own: &'a OnSheet<'a>,
    set: Option<&'a MarkSet>,
    dialect: &'a Dialect,
    loading: &'a Loading,
}

/// Sends the work of one loading to a machine on a socket of its own; why it was refused, if it was. `turn` counts the loadings in
/// which it looks for marks; in others it goes by the sheet's edge.
fn spoken(
    machine: &Machine,
    sent: &Sent<'_>,
    loading: usize,
    turn: Option<usize>,
) -> Result<Option<String>, NoRehearsal> {
    let listener = TcpListener::bind(("127.0.0.1", 0))?;
    let address = listener.local_addr()?.to_string();
    let is_over = AtomicBool::new(false);
    std::thread::scope(|threads| {
        threads.spawn(|| serve(&listener, machine, &is_over));
        let said = sent.to(&address, loading, turn);
        is_over.store(true, Ordering::Relaxed);
        said
    })
}

impl Sent<'_> {
    fn to(
        &self,
        address: &str,
        loading: usize,
        turn: Option<usize>,
    ) -> Result<Option<String>, NoRehearsal> {
        let page = self.stage.prepared.windows.page;
        let mut talk = Talk::with(address, Arc::default())?;
        let mut file = Vec::new();
        hpgl(&self.own.path, loading, self.dialect, page, &mut file)?;
        talk.say(b"IN;")?;
        talk.say(self.asking(turn).as_bytes())?;
        if self.set.is_some() && turn.is_some() {
            match talk.hear(Duration::from_secs(60))? {
                Some(line) if line.starts_with("found ") => {}
                Some(line) => {
                    let why = line.strip_prefix("refused ").unwrap_or(&line);
                    return Ok(Some(why.to_owned()));
                }
                None => return Err(TalkError::Silent.into()),
            }
        }
        // The sheet was found: what begins a file would make the machine forget that.
        let body = file.strip_prefix(b"IN;").unwrap_or(&file);
        talk.send(body, &mut |_| {})?;
        talk.finish()?;
        Ok(None)
    }

    /// Works a loading with the sheet's back up, where no mark is to be seen: it lies to the stop, as well as it was laid in. Gives
    /// the cuts as they lie from the front.
    fn behind(
        &self,
        at: usize,
        printed: &PrintedSheet,
        card: [u8; 3],
    ) -> Result<Vec<Cut>, NoRehearsal> {
        let (picture, paper) = (&printed.picture, printed.printing.paper);
        let bare = Picture::plain(picture.width, picture.height, picture.fine, card);
        let place = self.loading.affine(paper);
        let machine = Machine::new(Settings { hand: 0.0, ..self.own.settings(self.dialect) });
        machine.load(Bed::new(&bare, place));
        spoken(&machine, self, at, None)?;
        let over = Affine::new([-1.0, 0.0, 0.0, 1.0, paper.x0 + paper.x1, 0.0]);
        let seen = place * over * place.inverse();
        let cuts = machine.cuts().into_iter();
        let front =
            cuts.map(|own| Cut { line: own.line.iter().map(|at| seen * *at).collect(), ..own });
        Ok(front.collect())
    }

    /// What tells of the sheet; the eye's wrong start is put right once it was found.
    fn asking(&self, turn: Option<usize>) -> String {
        let Self { stage, own, set, dialect, loading } = self;
        let page = stage.prepared.windows.page;
        let (Some(set), Some(turn)) = (set, turn) else {
            let unit = dialect.units;
            return format!("AP{:.0},{:.0};", page.width() * unit, page.height() * unit);
        };
        let start =
            if turn == 0 { Vec2::new(loading.start[0], loading.start[1]) } else { Vec2::ZERO };
        let (prepared, run, reach) = (stage.prepared, own.run, REACH);
        let sheets = [own.first, own.last];
        ask_marks(&Asking { prepared, set, run, sheets, reach, start }, dialect)
    }
}
