//! White edges: card that shows white where colour ends at a cut.

use super::Scene;
use crate::check::{Check, Sense, Stage};
use crate::error::Remedy;

/// Colour goes past the cut by 1 to 3 mm, so that no white shows when the cut is off (common practice).
const LEAST_BLEED: f64 = 1.0;

impl Scene<'_> {
    /// Whether colour goes far enough past the cuts of card whose edges show white.
    pub(super) fn white_edges(&self) -> Vec<Check> {
        let pieces = self.ground.pieces.iter().enumerate();
        let checks = pieces.filter_map(|(number, drawn)| {
            let face = drawn.drawn.job_piece.face.as_ref().filter(|_| drawn.reaches_cuts())?;
            if !self.records.stocks.get(number)?.white_edges {
                return None;
            }
            let held = drawn.arts.first().map_or(0.0, |art| art.bleed);
            let limit = (held, Sense::AtLeast, LEAST_BLEED);
            let mut check = Check::length(
                "white-edges",
                Stage::Face,
                "Bleed past the cut",
                limit,
                self.job.unit,
            )
            .softened("white may show along the cut");
            if face.bleed < LEAST_BLEED {
                let text = format!("Set the bleed to {}", self.show(LEAST_BLEED));
                check = check.remedy(Remedy::set(text, "face.bleed", LEAST_BLEED));
            }
            if held < face.bleed {
                let spacing = 2.0 * LEAST_BLEED;
                let text = format!("Set the spacing to {}", self.show(spacing));
                check = check.remedy(Remedy::set(text, "sheet.spacing", spacing));
            }
            Some(check.of_piece(&drawn.drawn.job_piece, self.ground.is_alone()))
        });
        checks.collect()
    }
}
