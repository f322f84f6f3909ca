//! What neighbours leave each other, and how copies lie to the grain.

use super::Scene;
use crate::check::{Check, Drawing, Sense, Stage, State};
use crate::error::Remedy;
use crate::form::Axis;
use crate::geometry::path_text;
use crate::prepare::grain_runs_down;
use crate::sheet::Turning;

/// Card left between pieces holds them while they are cut: 2 to 3 mm (common practice).
const SPACING: f64 = 2.0;

impl Scene<'_> {
    pub(super) fn neighbours(&self) -> Vec<Check> {
        if self.job.sheet.copies < 2 {
            return Vec::new();
        }
        let spacing = self.job.sheet.spacing;
        let pair = self.layout.runs.first().map(|run| {
            let places = run.placements.iter().take(2);
            places.fold(String::new(), |all, placement| {
                let outline = &self.ground.flat.parts[placement.part].outline;
                all + &path_text(&placement.place(outline))
            })
        });
        let place = |check: Check| match &pair {
            Some(path) => check.at(Drawing::Sheet, path.clone()),
            None => check,
        };
        let mut check =
            self.length("spacing", "Between pieces", (spacing, Sense::AtLeast, SPACING));
        if check.state == State::Broken {
            check.state = State::Attention;
            check.verdict = if spacing == 0.0 {
                "neighbours share their cuts".to_owned()
            } else {
                "little card left to hold them".to_owned()
            };
        }
        let mut checks = vec![place(check.remedy(Remedy::set(
            format!("Set the spacing to {}", self.show(SPACING)),
            "sheet.spacing",
            SPACING,
        )))];
        let bleed =
            self.job.face.as_ref().filter(|face| face.colour.is_some()).map(|face| face.bleed);
        if let Some(bleed) = bleed.filter(|bleed| *bleed > 0.0) {
            let held = self.ground.arts.first().map_or(0.0, |art| art.bleed);
            let mut check =
                self.length("bleed", "Bleed between pieces", (held, Sense::AtLeast, bleed));
            if check.state == State::Broken {
                check.state = State::Attention;
                check.verdict = "held back by the neighbour’s".to_owned();
            }
            checks.push(place(
                check
                    .remedy(Remedy::set(
                        format!("Set the spacing to {}", self.show(2.0 * bleed)),
                        "sheet.spacing",
                        2.0 * bleed,
                    ))
                    .remedy(Remedy::set(
                        format!("Set the bleed to {}", self.show(held)),
                        "face.bleed",
                        held,
                    )),
            ));
        }
        checks
    }

    /// Main folds crack less along the grain (common practice).
    pub(super) fn grain(&self) -> Option<Check> {
        // What lies flat has no folds, and a solid has them in every direction.
        if self.ground.flat.folding.steps.is_empty() || self.ground.flat.folds == Axis::Both {
            return None;
        }
        let down = grain_runs_down(&self.job.sheet, self.records.stock.grain)?;
        let run = self.layout.runs.first()?;
        let along = self.ground.flat.folds == Axis::Along;
        let crossing = run
            .placements
            .iter()
            .filter(|placement| (along == placement.turn.is_multiple_of(2)) != down)
            .count();
        let total = run.placements.len();
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
        Some(check.remedies(|| match self.job.sheet.turning {
            Turning::Grain => Vec::new(),
            _ => vec![Remedy::set("Turn copies only along the grain", "sheet.turning", "grain")],
        }))
    }
}
