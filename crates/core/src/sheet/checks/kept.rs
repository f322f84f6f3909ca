//! A kept layout: copies that lie outside, too near each other, or that belong to an earlier form.

use super::{Scene, rows_again};
use crate::check::{Check, Drawing, Sense, Stage, State};
use crate::geometry::path_text;
use crate::sheet::{MOST_PAIRS, standing};

/// So many copies are shown at a fault; their number says how many there are.
const MOST_DRAWN: usize = 24;

impl Scene<'_> {
    pub(super) fn kept(&self) -> Vec<Check> {
        let Some(kept) = &self.job.sheet.kept else { return Vec::new() };
        let blanks = self.ground.cards.len();
        if kept.blanks != blanks {
            let check = Check::yes_or_no(
                "kept",
                Stage::Sheet,
                "Kept layout",
                State::Attention,
                [
                    format!("of {} blanks", kept.blanks),
                    format!("the job has {blanks}"),
                    "rows and columns are shown instead".to_owned(),
                ],
            );
            return vec![check.remedy(rows_again())];
        }
        let standing = standing(self.ground, &self.layout.runs, self.job.sheet.spacing);
        let drawn = |numbers: &[(usize, usize)]| {
            numbers.iter().take(MOST_DRAWN).fold(String::new(), |all, (run, at)| {
                let placement = self.layout.runs[*run].placements[*at];
                let blank = self.ground.blanks().nth(placement.part);
                let outline = blank.map(|(piece, at)| &piece.flat.parts[at].outline);
                all + &outline.map_or_else(String::new, |it| path_text(&placement.place(it)))
            })
        };
        let outside = u32::try_from(standing.outside.len()).unwrap_or(u32::MAX);
        let mut checks = vec![
            Check::count(
                "outside",
                Stage::Sheet,
                "Outside the windows",
                (outside, Sense::AtMost, 0),
                match outside {
                    0 => "all lie inside".to_owned(),
                    1 => "one copy cannot be cut or printed whole".to_owned(),
                    more => format!("{more} copies cannot be cut or printed whole"),
                },
            )
            .at(Drawing::Sheet, drawn(&standing.outside))
            .remedy(rows_again()),
        ];
        let mut apart = self.length(
            "apart",
            "Nearest neighbours",
            (standing.nearest.min(1000.0), Sense::AtLeast, self.job.sheet.spacing),
        );
        if !standing.overlapping.is_empty() {
            apart.verdict = match standing.overlapping.len() {
                1 => "one pair overlaps".to_owned(),
                MOST_PAIRS => format!("{MOST_PAIRS} pairs overlap, and more"),
                more => format!("{more} pairs overlap"),
            };
            apart.state = State::Broken;
        }
        let pairs = if standing.overlapping.is_empty() {
            standing.pair.into_iter().collect()
        } else {
            standing.overlapping.clone()
        };
        let pairs: Vec<_> = pairs.into_iter().take(MOST_DRAWN / 2).collect();
        let places: Vec<(usize, usize)> =
            pairs.iter().flat_map(|(run, one, other)| [(*run, *one), (*run, *other)]).collect();
        if standing.nearest.is_finite() || !standing.overlapping.is_empty() {
            checks.push(apart.at(Drawing::Sheet, drawn(&places)).remedy(rows_again()));
        }
        checks
    }
}
