//! The steps of a run, made from the job's own plan: what is printed how, what is waited for, how each sheet is loaded, which
//! tool goes where, what is cut, and what is looked at.

mod cutting;

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::Serialize;
#[cfg(feature = "api")]
use ts_rs::TS;

use crate::job::Job;
use crate::prepare::Prepared;
use crate::records::Records;
use crate::run::printing::{minutes_text, print_minutes, print_recipe};
use crate::units::measure;
use crate::workshop::{Printer, Stock, TurnsAbout, Workshop};

/// What kind of step it is, and so which drawing goes with it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum StepKind {
    /// The sheets are printed.
    Print,
    /// The printed scale is measured.
    Measure,
    /// Ink dries, film is laid on, sheets are trimmed.
    Prepare,
    /// A tool is put in.
    Tool,
    /// A sheet is laid into the machine.
    Load,
    /// It is cut.
    Cut,
    /// It is looked at before it is taken out.
    Look,
    /// Pieces are taken out and counted.
    Count,
}

/// A step.
#[derive(Debug, Clone, PartialEq)]
pub struct RunStep {
    /// What it is known by: it stays when others come and go.
    pub id: String,
    /// What kind it is.
    pub kind: StepKind,
    /// What is done, in a few words.
    pub title: String,
    /// What is to be known, line by line.
    pub says: Vec<String>,
    /// How often it is done: once, for each sheet, or for each strip of a roll.
    pub times: u32,
    /// For how many sheets it is done at once.
    pub each: u32,
    /// For how many in all.
    pub sheets: u32,
    /// In which loading of the sheet, from 0; for steps at the cutter.
    pub loading: usize,
}

/// What steps are made from.
#[derive(Debug, Clone, Copy)]
pub struct Ground<'a> {
    /// The job.
    pub job: &'a Job,
    /// The same, prepared.
    pub prepared: &'a Prepared,
    /// Its workshop.
    pub workshop: &'a Workshop,
}

/// Ink on what is laminated rests so long (common practice: overnight, 8 h at least).
const REST: &str = "overnight, 8 hours at least";

/// Every step of a run, in order. Empty where no copy fits.
#[must_use]
pub fn steps(ground: &Ground<'_>) -> Vec<RunStep> {
    let Ok(records) = Records::of(ground.job, ground.workshop) else { return Vec::new() };
    let own = Making { ground, records };
    let sheets = ground.prepared.layout.sheets();
    if sheets == 0 {
        return Vec::new();
    }
    let mut steps = Vec::new();
    if ground.prepared.is_printed() {
        own.printing(&mut steps, sheets);
    }
    match own.records.cutter {
        Some(cutter) => own.cutting(&mut steps, cutter, sheets),
        None => own.by_hand(&mut steps, sheets),
    }
    let pieces = ground.prepared.layout.laid;
    let mut count = step("count", StepKind::Count, "Take the pieces out and count them", 1)
        .says(format!(
            "{} should be there. Weed the waste first, then bend nicks until they give.",
            many(pieces, "piece")
        ))
        .says("Count bad ones by what was wrong with them: the Logbook keeps it.");
    for piece in ground.job.pieces.iter().filter(|own| own.spares > 0 || own.pack > 0) {
        let mut words = format!("{}: {} wanted", ground.job.title(piece), piece.copies);
        if piece.spares > 0 {
            words.push_str(&format!(", {} made", many(piece.spares, "spare")));
        }
        if piece.pack > 0 {
            words.push_str(&format!(", in packs of {}", piece.pack));
        }
        count = count.says(format!("{words}."));
    }
    steps.push(count);
    steps
}

fn step(id: &str, kind: StepKind, title: &str, times: u32) -> RunStep {
    let (id, title) = (id.to_owned(), title.to_owned());
    RunStep { id, kind, title, says: Vec::new(), times, each: 1, sheets: times, loading: 0 }
}

impl RunStep {
    fn says(mut self, words: impl Into<String>) -> Self {
        self.says.push(words.into());
        self
    }

    /// Done once for so many sheets of a roll.
    fn in_strips(mut self, of: u32) -> Self {
        (self.each, self.times) = (of, self.sheets.div_ceil(of));
        self
    }

    fn in_loading(mut self, loading: usize) -> Self {
        self.loading = loading;
        self
    }
}

struct Making<'a> {
    ground: &'a Ground<'a>,
    records: Records<'a>,
}

impl Making<'_> {
    fn show(&self, mm: f64) -> String {
        measure(mm, self.ground.job.unit)
    }

    /// The card of the sheets: of the first piece that lies on one.
    fn stock(&self) -> Option<&Stock> {
        let piece =
            self.ground.prepared.pieces.iter().find(|piece| !piece.laid_parts().is_empty())?;
        self.ground.workshop.stocks.get(&piece.job_piece.stock)
    }

    fn printing(&self, steps: &mut Vec<RunStep>, sheets: u32) {
        let prepared = self.ground.prepared;
        let page = prepared.windows.page;
        let printer: Option<&Printer> = self.records.printer;
        let name = printer.map_or("the printer", |own| own.name.as_str());
        let title = format!("Print {} on {name}", many(sheets, "sheet"));
        let mut print = step("print", StepKind::Print, &title, 1)
            .says(format!(
                "Paper {} × {}{}, {}.",
                self.show(page.width()),
                self.show(page.height()),
                self.stock().map_or_else(String::new, |stock| format!(", {}", stock.name)),
                if page.width() > page.height() { "landscape" } else { "portrait" },
            ))
            .says("In the print dialog choose “actual size” or 100 %, never “fit to page”.");
        if prepared.has_backs() {
            let edge = match printer.map(|own| own.turns_about).unwrap_or_default() {
                TurnsAbout::LongEdge => "longer",
                TurnsAbout::ShortEdge => "shorter",
            };
            print = print.says(format!("Choose two-sided, turned about the {edge} edge."));
        }
        print = self.as_it_worked(print);
        let strip = self.in_a_row();
        if let Some(length) = self.strip().filter(|_| strip > 1) {
            print = print.says(format!(
                "From the roll, {strip} sheets in a row: cut it off after every {}.",
                self.show(length)
            ));
        }
        if self.stock().is_some_and(|stock| stock.mirrored) {
            print =
                print.says("The sheets are mirrored already: mirror nothing in the print dialog.");
        }
        steps.push(print);
        let scale = prepared.notes.iter().flatten().find_map(crate::sheet::Notes::scale);
        if let Some(scale) = scale {
            steps.push(step("measure", StepKind::Measure, "Measure the printed scale", 1).says(
                format!("It should be {} long. Type in what the ruler says.", self.show(scale)),
            ));
        }
        let Some(laminate) = self.stock().and_then(|stock| stock.laminate) else { return };
        steps.push(
            step("rest", StepKind::Prepare, "Let the prints rest", 1)
                .says(format!("Ink gives off gas that lifts the film: {REST}.")),
        );
        let mut laid = step("laminate", StepKind::Prepare, "Laminate the sheets", 1)
            .says(format!("Film of {}.", self.show(laminate.thickness)));
        if !laminate.clear_to_eye {
            laid = laid.says("The eye does not read through it: leave the marks uncovered.");
        }
        steps.push(laid);
        if let Some(cutter) = self.records.cutter.filter(|own| own.lead > 0.0 || own.tail > 0.0) {
            steps.push(step("trim", StepKind::Prepare, "Trim the film", 1).says(format!(
                "Leave {} before the first marks and {} behind the last: {} holds the sheet there.",
                self.show(cutter.lead),
                self.show(cutter.tail),
                cutter.name,
            )));
        }
    }

    /// What the printer is told for this card, as it worked before.
    fn as_it_worked(&self, print: RunStep) -> RunStep {
        let Some(recipe) = print_recipe(self.ground) else {
            return print.says("No printing recipe yet for this card on this printer: keep what works in the Workshop.");
        };
        let mut print = print.says(capital(&format!("{}.", recipe.settings.words().join(", "))));
        if let Some(minutes) = print_minutes(self.ground) {
            print = print.says(format!("It takes about {}.", minutes_text(minutes)));
        }
        if !recipe.note.is_empty() {
            print = print.says(recipe.note.clone());
        }
        print
    }

    /// How many sheets of a roll lie in a row; 1 where it is no roll.
    fn in_a_row(&self) -> u32 {
        if self.stock().is_some_and(|stock| stock.roll.is_some()) {
            self.ground.job.sheet.in_a_row.max(1)
        } else {
            1
        }
    }

    /// How long a strip of a roll is, mm: what the cutter needs ahead, the sheets, what it needs behind.
    fn strip(&self) -> Option<f64> {
        self.stock()?.roll?;
        let page = self.ground.prepared.windows.page;
        let (lead, tail) = self.records.cutter.map_or((0.0, 0.0), |own| (own.lead, own.tail));
        Some(page.height().mul_add(f64::from(self.in_a_row()), lead + tail))
    }
}

/// Such as “3 sheets”.
fn many(count: u32, what: &str) -> String {
    if count == 1 { format!("1 {what}") } else { format!("{count} {what}s") }
}

fn capital(word: &str) -> String {
    let mut letters = word.chars();
    letters.next().map_or_else(String::new, |first| first.to_uppercase().chain(letters).collect())
}
