//! What neighbours leave each other, and how copies lie to the grain.

use super::Scene;
use crate::check::{Check, Drawing, Sense, Stage, State};
use crate::error::Remedy;
use crate::form::Axis;
use crate::geometry::path_text;
use crate::sheet::Turning;
use crate::sheet::{OnGround, grain_runs_down};

/// Card left between pieces holds them while they are cut: 2 to 3 mm (common practice).
const SPACING: f64 = 2.0;

impl Scene<'_> {
    pub(super) fn neighbours(&self) -> Vec<Check> {
        if matches!(self.job.pieces.as_slice(), [alone] if alone.made() < 2) {
            return Vec::new();
        }
        let spacing = self.job.sheet.spacing;
        let pair = self.layout.runs.first().map(|run| {
            let places = run.placements.iter().take(2);
            places.fold(String::new(), |all, placement| {
                let blank = self.ground.blanks().nth(placement.part);
                let outline = blank.map(|(piece, at)| &piece.laid_parts()[at].outline);
                all + &outline.map_or_else(String::new, |it| path_text(&placement.place(it)))
            })
        });
        let place = |check: Check| match &pair {
            Some(path) => check.at(Drawing::Sheet, path.clone()),
            None => check,
        };
        let verdict = if spacing == 0.0 {
            "neighbours share their cuts"
        } else {
            "little card left to hold them"
        };
        let limit = (spacing, Sense::AtLeast, SPACING);
        let check = self.length("spacing", "Between pieces", limit).softened(verdict);
        let mut checks = vec![place(check.remedy(Remedy::set(
            format!("Set the spacing to {}", self.show(SPACING)),
            "sheet.spacing",
            SPACING,
        )))];
        // What the widest bleed of all asks for mends every piece at once.
        let coloured = |piece: &OnGround| {
            let face = piece.drawn.job_piece.face.as_ref().filter(|_| piece.reaches_cuts());
            face.map(|face| face.bleed).filter(|bleed| *bleed > 0.0)
        };
        let widest = self.ground.on_sheets().filter_map(coloured).fold(0.0, f64::max);
        for drawn in self.ground.on_sheets() {
            let Some(bleed) = coloured(drawn) else { continue };
            let held = drawn.arts.iter().map(|art| art.bleed).fold(bleed, f64::min);
            let limit = (held, Sense::AtLeast, bleed);
            let check = self
                .length("bleed", "Bleed between pieces", limit)
                .softened("held back by the neighbour’s")
                .remedy(Remedy::set(
                    format!("Set the spacing to {}", self.show(2.0 * widest)),
                    "sheet.spacing",
                    2.0 * widest,
                ))
                .remedy(Remedy::set(
                    format!("Set the bleed to {}", self.show(held)),
                    "face.bleed",
                    held,
                ));
            checks.push(place(check).of_piece(&drawn.drawn.job_piece, self.ground.is_alone()));
        }
        checks
    }

    /// Main folds crack less along the grain (common practice).
    pub(super) fn grain(&self) -> Vec<Check> {
        let pieces = self.ground.pieces.iter().enumerate();
        pieces.filter_map(|(number, piece)| self.grain_of(number, piece)).collect()
    }

    fn grain_of(&self, number: usize, piece: &OnGround) -> Option<Check> {
        // What lies flat has no folds, and a solid has them in every direction.
        let folding = piece.flat.folding.as_ref().filter(|folding| !folding.steps.is_empty())?;
        if folding.main == Axis::Both {
            return None;
        }
        let down = grain_runs_down(&self.job.sheet, self.records.stocks.get(number)?.grain)?;
        let along = folding.main == Axis::Along;
        let own = piece.first..piece.first + piece.blanks.len();
        let runs = self.layout.runs.iter();
        let run =
            runs.clone().find(|run| run.placements.iter().any(|at| own.contains(&at.part)))?;
        let placements = || run.placements.iter().filter(|at| own.contains(&at.part));
        let crossing = placements()
            .filter(|placement| (along == placement.quarters().is_multiple_of(2)) != down)
            .count();
        let total = placements().count();
        let state = if crossing == 0 { State::Fits } else { State::Attention };
        let text = if crossing == 0 { "along" } else { "across" };
        let verdict = if crossing == 0 {
            "main folds follow it".to_owned()
        } else {
            format!("{crossing} of {total} fold across it and may crack")
        };
        let check = Check::yes_or_no(
            "grain",
            Stage::Sheet,
            "Folds to the grain",
            state,
            [text.to_owned(), "best along".to_owned(), verdict],
        );
        let check = check.remedies(|| match self.job.sheet.turning {
            Turning::Grain => Vec::new(),
            _ => vec![Remedy::set("Turn copies only along the grain", "sheet.turning", "grain")],
        });
        Some(check.of_piece(&piece.drawn.job_piece, self.ground.is_alone()))
    }
}
