//! White edges: card that shows white where colour ends at a cut, or where a back lies off its front.

use super::Scene;
use crate::check::{Check, Sense, Stage, State};
use crate::error::Remedy;
use crate::face::{LayerKind, Separation};
use crate::workshop::Shine;

/// Colour goes past the cut by 1 to 3 mm, so that no white shows when the cut is off (common practice).
const LEAST_BLEED: f64 = 1.0;

impl Scene<'_> {
    /// Words that are printed mirrored, to be read once they are transferred.
    pub(super) fn mirrored_words(&self) -> Vec<Check> {
        let pieces = self.ground.pieces.iter().zip(&self.records.stocks);
        let checks = pieces.filter(|(_, stock)| stock.mirrored).filter_map(|(drawn, stock)| {
            let piece = &drawn.drawn.job_piece;
            let face = piece.face.as_ref()?;
            let has_words = face.layers.iter().any(|layer| {
                let is_text = matches!(layer.kind, LayerKind::Text(_) | LayerKind::PanelNames);
                is_text && !layer.hidden && !layer.only_shown
            });
            let texts = [
                "mirrored".to_owned(),
                "read right in the end".to_owned(),
                format!("on the sheet they read backwards until {} is transferred", stock.name),
            ];
            let (id, label) = ("mirrored-words", "Words");
            let check = Check::yes_or_no(id, Stage::Face, label, State::Attention, texts);
            let advice = "Choose another card where this one stays what is looked at";
            let check = check.remedy(Remedy::advice(advice));
            has_words.then(|| check.of_piece(piece, self.ground.is_alone()))
        });
        checks.collect()
    }

    /// Whether white lies beneath colour, and beneath marks, on card through which something shines.
    pub(super) fn white_beneath(&self) -> Vec<Check> {
        let pieces = self.ground.pieces.iter().zip(&self.records.stocks);
        let shining = pieces.filter(|(_, stock)| stock.shine != Shine::Opaque);
        let mut checks = Vec::new();
        let is_alone = self.ground.is_alone();
        for (drawn, stock) in shining {
            let piece = &drawn.drawn.job_piece;
            let Some(face) = &piece.face else { continue };
            let has = |wanted: Separation| {
                drawn.arts.iter().any(|art| art.separations().any(|own| own == wanted))
            };
            let why = match stock.shine {
                Shine::Reflective => "the card’s gloss shines through colour",
                Shine::Clear | Shine::Opaque => "what lies behind shines through colour",
            };
            let ask = |id: &str, label: &str, field: &str, remedy: &str| {
                let texts = ["none".to_owned(), "beneath".to_owned(), why.to_owned()];
                let check = Check::yes_or_no(id, Stage::Face, label, State::Attention, texts);
                check.remedy(Remedy::set(remedy, field, true)).of_piece(piece, is_alone)
            };
            if has(Separation::Colour) && !has(Separation::White) {
                let remedy = "Put white beneath it";
                checks.push(ask("white", "White under colour", "face.white.on", remedy));
            }
            if !self.ground.marks.marks.is_empty() && !face.white.under_marks {
                let (label, remedy) = ("White under marks", "Put white beneath the marks");
                checks.push(ask("white-marks", label, "face.white.under_marks", remedy));
            }
        }
        checks
    }

    /// Whether what is printed behind goes as far past the cuts as turning the sheet may be off.
    pub(super) fn backs(&self) -> Vec<Check> {
        let error = self.records.printer.map_or(0.0, |printer| printer.turning_error);
        let checks = self.ground.pieces.iter().filter_map(|drawn| {
            let back = drawn.back.as_ref()?;
            let reaching = back.arts.iter().filter(|art| !art.to_edge.elements().is_empty());
            let held = reaching.map(|art| art.bleed).reduce(f64::min)?;
            let limit = (held, Sense::AtLeast, error);
            let label = "Back past the cut";
            let check = Check::length("back-bleed", Stage::Face, label, limit, self.job.unit)
                .softened("white may show where the back lies off the front");
            let spacing = 2.0 * error;
            let text = format!("Set the spacing to {}", self.show(spacing));
            let check = check.remedy(Remedy::set(text, "sheet.spacing", spacing));
            Some(check.of_piece(&drawn.drawn.job_piece, self.ground.is_alone()))
        });
        checks.collect()
    }

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
