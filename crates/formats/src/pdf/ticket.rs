//! The job ticket: one page to lay with the work. What it is, how large, on what, with which settings, in which order, and room to
//! count.

use std::io::{self, Write};

use aptum_core::geometry::{Affine, BezPath, Point, Rect, Shape};
use aptum_core::lettering::{Anchor, letter};
use aptum_core::run::{Ground, StepKind, minutes_text, print_minutes, print_recipe, steps};
use aptum_core::units::measure;
use aptum_core::{Job, Prepared, Workshop};

use super::{Canvas, Document, Page};
use crate::line_style::{LineStyle, line_style};
use crate::square_code::square_code;

/// A4 (ISO 216), mm.
/// Its page, whatever the sheets are: A4 (ISO 216).
pub const TICKET_PAGE: Rect = Rect::new(0.0, 0.0, 210.0, 297.0);

/// Left and right of what is written, mm.
const LEFT: f64 = 15.0;
const RIGHT: f64 = 195.0;

const RULE: LineStyle = LineStyle { colour: "#000000", width: 0.2, dash: &[] };
const THIN: LineStyle = LineStyle { colour: "#000000", width: 0.1, dash: &[] };

/// Capital heights, mm: the name, headings, and what is read.
const NAME: f64 = 5.5;
const HEAD: f64 = 2.4;
const TEXT: f64 = 2.0;

/// From line to line, mm.
const LINE: f64 = 5.0;

/// Longest line, in characters: about what fits in the width.
const LONGEST: usize = 112;

/// The ticket of a job.
///
/// # Errors
/// What writing to `out` says.
pub fn ticket_pdf(
    job: &Job,
    prepared: &Prepared,
    workshop: &Workshop,
    out: &mut dyn Write,
) -> io::Result<()> {
    let mut document = Document::new(&format!("{}, job ticket", job.name), out)?;
    let mut ticket = Ticket { canvas: Canvas::new(), y: 26.0 };
    ticket.words(&job.name, LEFT, NAME);
    ticket.y += 7.0;
    ticket.words(&format!("Job ticket · sheet code {}", prepared.code), LEFT, HEAD);
    let code = Rect::new(RIGHT - 11.6, 15.0, RIGHT, 26.6);
    ticket.canvas.fill_black(&square_code(code, &prepared.code, 0));
    ticket.y += 4.0;
    ticket.rule();
    ticket.pictures(prepared);
    ticket.pieces(job, prepared, workshop);
    ticket.machines(job, prepared, workshop);
    ticket.order(job, prepared, workshop);
    ticket.counts(prepared);
    let contents = vec![document.content(&ticket.canvas.finish(), TICKET_PAGE.height())?];
    document.page(&Page {
        media: TICKET_PAGE,
        trim: TICKET_PAGE,
        bleed: TICKET_PAGE,
        contents,
        own: Vec::new(),
    })?;
    document.finish()
}

struct Ticket {
    canvas: Canvas,
    /// The base of the next line.
    y: f64,
}

/// What is written above the foot's table, mm.
const FOOT: f64 = 258.0;

impl Ticket {
    fn words(&mut self, text: &str, x: f64, height: f64) {
        let mut shown: String = text.chars().take(LONGEST).collect();
        if shown.len() < text.len() {
            shown.push('…');
        }
        self.canvas.fill_black(&letter(&shown, Point::new(x, self.y), height, Anchor::Start));
    }

    fn rule(&mut self) {
        let mut path = BezPath::new();
        path.move_to((LEFT, self.y));
        path.line_to((RIGHT, self.y));
        self.canvas.stroke(&path, RULE);
        self.y += 6.5;
    }

    fn heading(&mut self, text: &str) {
        self.y += 2.0;
        self.words(text, LEFT, HEAD);
        self.y += 2.0;
        self.rule();
    }

    /// A line, unless the page is full.
    fn line(&mut self, what: &str, says: &str) {
        if self.y > FOOT {
            return;
        }
        self.words(what, LEFT, TEXT);
        self.words(says, LEFT + 34.0, TEXT);
        self.y += LINE;
    }

    /// The first piece laid flat, and the first sheet.
    fn pictures(&mut self, prepared: &Prepared) {
        let top = self.y - 3.0;
        let flat = &prepared.first().flat;
        let mut lines = Vec::new();
        for part in &flat.parts {
            lines.push((part.outline.clone(), line_style(part.edge)));
            let own = part.strokes.iter();
            lines.extend(own.map(|own| (own.path.clone(), line_style(part.kind(own.kind)))));
        }
        self.picture(&lines, Rect::new(LEFT, top, 100.0, top + 62.0));
        let mut sheet = prepared.windows.page.to_path(0.1);
        let blanks: Vec<_> = prepared.blanks().collect();
        for at in prepared.layout.runs.first().map_or(&[][..], |run| &run.placements) {
            if let Some(blank) = blanks.get(at.part) {
                sheet.extend(at.transform() * blank.part.outline.clone());
            }
        }
        prepared.marks.marks.iter().for_each(|mark| sheet.extend(mark.ink.iter()));
        self.picture(&[(sheet, THIN)], Rect::new(110.0, top, RIGHT, top + 62.0));
        self.y = top + 70.0;
    }

    /// A drawing, as large as it can be in a place.
    fn picture(&mut self, lines: &[(BezPath, LineStyle)], place: Rect) {
        let bounds = lines.iter().map(|own| own.0.bounding_box()).reduce(|all, own| all.union(own));
        let bounds = bounds.unwrap_or(place);
        let scale = (place.width() / bounds.width().max(1e-6))
            .min(place.height() / bounds.height().max(1e-6));
        let moved = Affine::translate(place.center().to_vec2())
            * Affine::scale(scale)
            * Affine::translate(-bounds.center().to_vec2());
        for (path, style) in lines {
            self.canvas.stroke(&(moved * path.clone()), *style);
        }
    }

    fn pieces(&mut self, job: &Job, prepared: &Prepared, workshop: &Workshop) {
        self.heading("What is made");
        let show = |mm: f64| measure(mm, job.unit);
        for piece in prepared.pieces.iter().take(8) {
            let bounds = piece.flat.bounds;
            let stock =
                workshop.stocks.get(&piece.job_piece.stock).map_or("", |own| own.name.as_str());
            let spares = match (piece.job_piece.spares, piece.job_piece.pack) {
                (0, 0) => String::new(),
                (spares, 0) => format!(" and {spares} spare"),
                (0, pack) => format!(" in packs of {pack}"),
                (spares, pack) => format!(" and {spares} spare, in packs of {pack}"),
            };
            self.line(
                &piece.name.chars().take(22).collect::<String>(),
                &format!(
                    "{} × {} flat, {} copies{spares}, {stock}",
                    show(bounds.width()),
                    show(bounds.height()),
                    piece.job_piece.copies,
                ),
            );
        }
        let page = prepared.windows.page;
        let sheets = prepared.layout.sheets();
        self.line(
            "Sheets",
            &format!("{sheets} of {} × {}", show(page.width()), show(page.height())),
        );
    }

    fn machines(&mut self, job: &Job, prepared: &Prepared, workshop: &Workshop) {
        self.heading("On what");
        let plan = &job.sheet;
        let printer = plan.printer.as_ref().and_then(|id| workshop.printers.get(id));
        if let Some(own) = printer.filter(|_| prepared.is_printed()) {
            self.line("Printer", &format!("{}, at 100 %, “actual size”", own.name));
            let ground = Ground { job, prepared, workshop };
            if let Some(recipe) = print_recipe(&ground) {
                self.line("", &recipe.settings.words().join(", "));
            }
            if let Some(minutes) = print_minutes(&ground) {
                self.line("", &format!("about {}", minutes_text(minutes)));
            }
        }
        match plan.cutter.as_ref().and_then(|id| workshop.cutters.get(id)) {
            Some(own) => self.line("Cutter", &own.name),
            None => self.line("Cutter", "by hand"),
        }
        if let Some(own) = plan.carrier.as_ref().and_then(|id| workshop.carriers.get(id)) {
            self.line("Carrier", &own.name);
        }
        if let Some(own) = plan.marks.as_ref().and_then(|id| workshop.mark_sets.get(id)) {
            self.line("Marks", &format!("{}, the first {}", own.name, own.first.name()));
        }
    }

    fn order(&mut self, job: &Job, prepared: &Prepared, workshop: &Workshop) {
        self.heading("In this order");
        for (at, step) in steps(&Ground { job, prepared, workshop }).iter().enumerate() {
            let times =
                if step.times > 1 { format!(", {} times", step.times) } else { String::new() };
            self.tick_box();
            self.line(&format!("     {}", at + 1), &format!("{}{times}", step.title));
            // Settings are what is looked up on a ticket; the rest is said on the screen.
            if step.kind == StepKind::Cut {
                for says in &step.says {
                    self.line("", says);
                }
            }
        }
    }

    fn tick_box(&mut self) {
        if self.y <= FOOT {
            let own = Rect::from_origin_size((LEFT, self.y - 2.6), (3.0, 3.0));
            self.canvas.stroke(&own.to_path(0.1), THIN);
        }
    }

    /// Room to write counts into.
    fn counts(&mut self, prepared: &Prepared) {
        self.y = 268.0;
        self.rule();
        let should = format!("{} should be there", prepared.layout.laid);
        for (x, what) in
            [(LEFT, "Good pieces"), (LEFT + 60.0, "Bad pieces"), (LEFT + 120.0, "Date and name")]
        {
            self.words(what, x, TEXT);
            let line = Rect::new(x, self.y + 9.0, x + 50.0, self.y + 9.0);
            self.canvas.stroke(&line.to_path(0.1), THIN);
        }
        self.y += 13.0;
        self.words(&should, LEFT, TEXT);
    }
}
