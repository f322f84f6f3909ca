//! What is said of a sheet that was rehearsed.

use aptum_core::check::{Check, Sense, Stage, State as Standing};
use aptum_core::geometry::{Affine, BezPath, Point, path_text};
use aptum_core::rehearsal::{Fit, Verdict, fit};
use aptum_core::units::{INCH, Unit, measure};
use aptum_core::{Job, Prepared};
use schemars::JsonSchema;
use serde::Serialize;
use ts_rs::TS;

use crate::rehearsing::Rehearsed;

use super::{bound_of, fine, has_bleed, standing};

/// A sheet that was rehearsed.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct RehearsalView {
    /// Under which number its picture is given out.
    picture: Option<u32>,
    /// The paper, mm.
    paper: [f64; 2],
    /// From the paper to the cutter's bed.
    lying: [f64; 6],
    /// From the paper back to the page that was printed on it.
    back: [f64; 6],
    /// What came of it, in a few words.
    title: String,
    /// The same in a sentence or two.
    words: String,
    state: Standing,
    /// What would help; none where all is well.
    advice: Option<String>,
    /// How the sheet lay, as the cutter solved it and as it was.
    rows: Vec<LayRow>,
    /// Where the cutter saw the marks, on the bed, mm.
    seen: Vec<[f64; 2]>,
    /// How far cuts fell from the print, on the page.
    hairs: Vec<Hair>,
    /// Where the tip ran, on the page, SVG path data.
    cut: String,
    pieces: Vec<PieceRow>,
    checks: Vec<Check>,
}

/// A figure of how a sheet lay.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct LayRow {
    label: String,
    /// As the cutter solved it, a dash where it did not, and as it was.
    text: String,
}

/// A place of a line, and how far from it the cut fell, mm.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct Hair {
    at: [f64; 2],
    off: [f64; 2],
    state: Standing,
}

/// How a copy was cut.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct PieceRow {
    name: String,
    worst_text: String,
    typical_text: String,
    /// How much of its edge shows white; empty where none does.
    white_text: String,
    state: Standing,
}

/// Most places that are shown.
const MOST_HAIRS: usize = 3000;

/// What a view is told from.
pub(super) struct Told<'a> {
    pub job: &'a Job,
    pub prepared: &'a Prepared,
    pub made: &'a Rehearsed,
    pub judged: &'a Verdict,
    pub run: usize,
}

impl Told<'_> {
    fn show(&self, mm: f64) -> String {
        fine(mm, self.job.unit)
    }

    pub fn view(&self, picture: Option<u64>) -> RehearsalView {
        let Self { made, judged, .. } = self;
        let paper = made.printed.printing.paper;
        let bound = bound_of(self.prepared);
        let worst = judged.worst().map_or(0.0, |own| own.off.hypot());
        let white = judged.white();
        let (title, state) = match (&made.refused, white > 0.0, standing(worst, bound)) {
            (Some(_), _, _) => ("Refused", Standing::Broken),
            (_, true, _) => ("Shows white", Standing::Broken),
            (.., Standing::Broken) => ("Cuts astray", Standing::Broken),
            (.., Standing::Attention) => ("Cuts, but not well", Standing::Attention),
            (.., Standing::Fits) => ("Cuts true", Standing::Fits),
        };
        let standing = |off: f64, is_white: bool| {
            if is_white { Standing::Broken } else { standing(off, bound) }
        };
        let each = judged.samples.len().div_ceil(MOST_HAIRS).max(1);
        let hairs = judged.samples.iter().step_by(each).map(|own| Hair {
            at: [own.at.x, own.at.y],
            off: [own.off.x, own.off.y],
            state: standing(own.off.hypot(), own.is_white),
        });
        let pieces = judged.pieces.iter().map(|own| PieceRow {
            name: self.name(own.copy),
            worst_text: self.show(own.worst),
            typical_text: self.show(own.typical),
            white_text: if own.white > 0.0 { self.show(own.white) } else { String::new() },
            state: standing(own.worst, own.white > 0.0),
        });
        let found = made.found.as_ref();
        RehearsalView {
            picture: picture.and_then(|own| u32::try_from(own).ok()),
            paper: [paper.width(), paper.height()],
            lying: made.place.as_coeffs(),
            back: self.back().as_coeffs(),
            title: title.to_owned(),
            words: self.words(worst, white, bound),
            state,
            advice: self.advice(white, worst > bound),
            rows: self.rows(),
            seen: found.map_or(&[][..], |own| &own.seen).iter().map(|at| [at.x, at.y]).collect(),
            hairs: hairs.collect(),
            cut: self.cut(),
            pieces: pieces.collect(),
            checks: self.checks(worst, white, bound),
        }
    }

    fn name(&self, copy: usize) -> String {
        let places = &self.prepared.layout.runs[self.run].placements;
        let Some(at) = places.get(copy) else { return String::new() };
        let blank = self.prepared.blanks().nth(at.part);
        let name = blank.map_or("", |blank| self.prepared.pieces[blank.piece].name.as_str());
        if places.len() == 1 { name.to_owned() } else { format!("{name} {}", at.copy) }
    }

    fn words(&self, worst: f64, white: f64, bound: f64) -> String {
        if let Some(why) = &self.made.refused {
            return format!("The cutter did not begin: {why}.");
        }
        let at = self.judged.worst().and_then(|own| own.copy).map(|copy| self.name(copy));
        let at = at.map_or_else(String::new, |name| format!(" at {name}"));
        let worst = format!(
            "Worst {}{at}, half of it within {}.",
            self.show(worst),
            self.show(self.judged.within(0.5))
        );
        if white > 0.0 {
            format!("{worst} White shows along {}.", self.show(white))
        } else if self.prepared.is_printed() {
            let bound_text = measure(bound, self.job.unit);
            let bleeds = has_bleed(self.prepared);
            match (bleeds, self.judged.worst().is_some_and(|own| own.off.hypot() > bound)) {
                (true, false) => format!("{worst} The bleed of {bound_text} covers it."),
                (true, true) => format!("{worst} That is more than the bleed of {bound_text}."),
                (false, false) => format!("{worst} No ink ends at an edge, so no white can show."),
                (false, true) => {
                    format!("{worst} No white can show, but more than {bound_text} is seen.")
                }
            }
        } else {
            format!("{worst} Nothing is printed, so nothing else can be off.")
        }
    }

    /// What would help.
    fn advice(&self, white: f64, is_astray: bool) -> Option<String> {
        if let Some(why) = &self.made.refused {
            let help = if why.contains("printed at") {
                "Print again at 100 %: “actual size”, never “fit to page”"
            } else if why.contains("wrong way round") || why.contains("sign") {
                "Turn the sheet by half a turn: its first mark belongs where the drawing shows it"
            } else if why.contains("not within") {
                "Lay the sheet nearer to its corner, begin nearer to the first mark, and see that no mark was clipped or printed smaller"
            } else if why.contains("code") || why.contains("the cut is for") {
                "Take the sheet whose code belongs to this job, and lay it in with its head ahead and its print up"
            } else {
                "Print the sheet again"
            };
            return Some(help.to_owned());
        }
        if white > 0.0 {
            return Some(format!("A bleed of {} would cover it", self.show(self.covering())));
        }
        is_astray.then(|| {
            "Choose marks that the cutter’s eye reads, so that it finds the sheet".to_owned()
        })
    }

    /// The bleed under which nothing of this sheet would have shown, to the next half millimetre.
    fn covering(&self) -> f64 {
        let worst = self.judged.samples.iter().filter(|own| own.is_white);
        let worst = worst.map(|own| own.off.hypot()).fold(0.0, f64::max);
        ((worst * 2.0).floor() + 1.0) / 2.0
    }

    /// From the paper to the page, but for the bow.
    fn back(&self) -> Affine {
        let own = self.printed();
        if own.determinant().abs() < 1e-9 { Affine::IDENTITY } else { own.inverse() }
    }

    /// From the page to the paper, but for the bow.
    fn printed(&self) -> Affine {
        let printing = &self.made.printed.printing;
        let lies = printing.misfeed.affine(self.made.printed.page);
        if printing.is_turned_round {
            Affine::rotate_about(std::f64::consts::PI, printing.paper.center()) * lies
        } else {
            lies
        }
    }

    fn rows(&self) -> Vec<LayRow> {
        let page = self.made.printed.page;
        let truth = self.made.place * self.printed();
        let corners =
            [(page.x0, page.y0), (page.x1, page.y0), (page.x1, page.y1), (page.x0, page.y1)];
        let pairs: Vec<(Point, Point)> =
            corners.map(Point::from).into_iter().map(|at| (at, truth * at)).collect();
        let solved = self.made.found.as_ref().map(|found| &found.fit);
        let Ok(was) = fit(&pairs) else { return Vec::new() };
        let row = |label: &str, unit: &str, say: &dyn Fn(&Fit) -> String| {
            let solved = solved.map_or_else(|| "–".to_owned(), say);
            LayRow { label: label.to_owned(), text: format!("{solved} / {}{unit}", say(&was)) }
        };
        let middle = page.center();
        let (per, unit) = match self.job.unit {
            Unit::In => (INCH, " in"),
            Unit::Mm | Unit::Cm => (1.0, " mm"),
        };
        let places = if self.job.unit == Unit::In { 4 } else { 2 };
        let length = |mm: f64| format!("{:.places$}", mm / per);
        let mut rows = vec![
            row("To the right", unit, &|fit| length(fit.shift(middle).x)),
            row("Down", unit, &|fit| length(fit.shift(middle).y)),
            row("Turn", "°", &|fit| format!("{:.3}", fit.turn)),
            row("Scale across", " %", &|fit| format!("{:.2}", fit.across * 100.0)),
            row("Scale along", " %", &|fit| format!("{:.2}", fit.along * 100.0)),
        ];
        if solved.is_some_and(|fit| fit.skew.is_some()) {
            rows.push(row("Skew", "°", &|fit| format!("{:.3}", fit.skew.unwrap_or(0.0))));
        }
        if let Some(solved) = solved.filter(|fit| fit.residuals.len() > 3) {
            let off = solved.residuals.iter().copied().fold(0.0, f64::max);
            rows.push(LayRow { label: "A mark off the fit by".to_owned(), text: self.show(off) });
        }
        let bow = self.made.printed.printing.misfeed.stretch;
        let bow = bow.across.abs().max(bow.along.abs());
        rows.push(LayRow { label: "Bow, which no fit tells".to_owned(), text: self.show(bow) });
        rows
    }

    /// What was cut, on the page.
    fn cut(&self) -> String {
        let (printing, page) = (&self.made.printed.printing, self.made.printed.page);
        let back = self.made.place.inverse();
        let mut path = BezPath::new();
        for line in &self.made.lines {
            for (at, point) in line.cut.iter().enumerate() {
                let place = if self.prepared.is_printed() {
                    printing.origin(back * *point, page)
                } else {
                    *point
                };
                if at == 0 { path.move_to(place) } else { path.line_to(place) }
            }
        }
        path_text(&path)
    }

    fn checks(&self, worst: f64, white: f64, bound: f64) -> Vec<Check> {
        let unit = self.job.unit;
        let stage = Stage::Rehearsal;
        let mut checks = Vec::new();
        let texts =
            |value: &str, bound: &str, verdict: &str| [value, bound, verdict].map(str::to_owned);
        let count = self.prepared.marks.marks.len();
        if let Some(why) = &self.made.refused {
            let texts = texts("refused", "cut", why);
            checks.push(Check::yes_or_no(
                "rehearsal-cut",
                stage,
                "The sheet",
                Standing::Broken,
                texts,
            ));
            return checks;
        }
        let limit = (worst, Sense::AtMost, bound);
        checks.push(Check::length("rehearsal-worst", stage, "Cut against print", limit, unit));
        if let Some(found) = &self.made.found {
            let seen = u32::try_from(found.seen.len()).unwrap_or(u32::MAX);
            let all = u32::try_from(count).unwrap_or(u32::MAX);
            let says = format!("after {} looks", found.looks);
            checks.push(Check::count(
                "rehearsal-marks",
                stage,
                "Marks read",
                (seen, Sense::AtLeast, all),
                says,
            ));
            let code = found.code.is_some();
            let (state, texts) = match (code, self.prepared.square_codes.get(self.run)) {
                (true, _) => (Standing::Fits, texts("read", "by the eye", "it is the right sheet")),
                (_, Some(Some(_))) => (Standing::Attention, texts("not read", "by the eye", "")),
                _ => (
                    Standing::Attention,
                    texts(
                        "no room",
                        "by the eye",
                        "nothing tells this sheet from another with the same marks",
                    ),
                ),
            };
            checks.push(Check::yes_or_no("rehearsal-code", stage, "Code", state, texts));
        }
        if self.prepared.is_printed() {
            let state = if white > 0.0 { Standing::Broken } else { Standing::Fits };
            let shown = if white > 0.0 { self.show(white) } else { "none".to_owned() };
            let says = if white > 0.0 { "white shows" } else { "ink reaches past every cut" };
            let texts = texts(&shown, "along the edges", says);
            checks.push(Check::yes_or_no("rehearsal-white", stage, "White edges", state, texts));
        }
        checks
    }
}
