//! A kept layout: copies that lie outside, too near each other, or that belong to an earlier form.

use super::{Scene, nested_again, rows_again};
use crate::check::{Check, Drawing, Sense, Stage, State};
use crate::geometry::path_text;
use crate::sheet::{MOST_PAIRS, Named, standing};

/// So many copies are shown at a fault; their number says how many there are.
const MOST_DRAWN: usize = 24;

impl Scene<'_> {
    pub(super) fn kept(&self) -> Vec<Check> {
        let Some(kept) = &self.job.sheet.kept else { return Vec::new() };
        let Some(named) = Named::of(kept, self.ground) else {
            let check = Check::yes_or_no(
                "kept",
                Stage::Sheet,
                "Kept layout",
                State::Attention,
                [
                    "of other pieces".to_owned(),
                    "of these".to_owned(),
                    "rows and columns are shown instead".to_owned(),
                ],
            );
            return vec![check.remedy(rows_again())];
        };
        let standing = standing(self.ground, &self.layout.runs, self.job.sheet.spacing);
        let drawn = |numbers: &[(usize, usize)]| {
            numbers.iter().take(MOST_DRAWN).fold(String::new(), |all, (run, at)| {
                let placement = self.layout.runs[*run].placements[*at];
                let blank = self.ground.blanks().nth(placement.part);
                let outline = blank.map(|(piece, at)| &piece.laid_parts()[at].outline);
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
        checks.push(self.made_for(&named));
        checks
    }

    /// Whether the layout was made for what the job's pieces are now.
    fn made_for(&self, named: &Named) -> Check {
        let names = |numbers: &[usize]| {
            let names = numbers.iter().filter_map(|number| self.ground.blanks().nth(*number));
            let names: Vec<String> = names
                .map(|(piece, at)| match piece.flat.parts.as_slice() {
                    [_] => self.job.title(&piece.drawn.job_piece).to_owned(),
                    parts => parts[at].name.clone(),
                })
                .take(3)
                .collect();
            let more = if numbers.len() > names.len() { " and others" } else { "" };
            format!("{}{more}", names.join(", "))
        };
        let Named { changed, new, gone, .. } = named;
        let verdict = if !new.is_empty() {
            format!("{} came later and is not on it", names(new))
        } else if !changed.is_empty() {
            format!("{} has another outline since", names(changed))
        } else if *gone > 0 {
            "copies of what is gone are left out".to_owned()
        } else {
            "made for these pieces".to_owned()
        };
        let is_current = new.is_empty() && changed.is_empty() && *gone == 0;
        let (state, value) =
            if is_current { (State::Fits, "current") } else { (State::Attention, "older") };
        let check = Check::yes_or_no(
            "kept",
            Stage::Sheet,
            "Kept layout",
            state,
            [value.to_owned(), "current".to_owned(), verdict],
        );
        if is_current { check } else { check.remedy(nested_again()).remedy(rows_again()) }
    }
}
