//! From what was found in a picture to a blank: corrections, the border, a hole, a sticker card.

use kurbo::{Affine, BezPath, Rect};

use super::{OUTLINE, Traced, TracedFacts, border, mend, narrow};
use crate::LineKind;
use crate::error::{InputError, Remedy, Setting};
use crate::form::{Part, PlacedPanel};
use crate::geometry::{Region, fine_region, redrawn};
use crate::stroke::{Stroke, StrokeSource};
use crate::trace::TraceError;
use crate::units::{Unit, measure};

impl Traced {
    /// Its blank, and what it came to.
    ///
    /// # Errors
    /// Figures out of range, a picture that is missing or has no edge to follow, a border that leaves nothing.
    pub(in crate::form) fn draft(
        &self,
        unit: Unit,
    ) -> Result<(Part, TracedFacts), Vec<InputError>> {
        self.checked(unit)?;
        let Some(looked) = self.found.0.clone() else {
            return Err(vec![InputError::plain(
                "form.traced.picture",
                format!("The picture “{}” that is traced is not here", self.origin.name),
                Remedy::advice("Bring it in again, or take the job from where the picture is"),
            )]);
        };
        let tracing = looked.0.as_ref().map_err(|error| vec![self.nothing(error)])?;
        let pushed = mend::moved_nodes(tracing, &self.mends, self.sides());
        let groups = pushed.outlines.iter();
        let region = fine_region(groups.map(|own| std::iter::once(&own.outer).chain(&own.holes)));
        let mended = mend::mended(region, &self.mends, self.sides());
        let mut dropped = pushed.dropped;
        dropped.extend(mended.dropped);
        dropped.sort_unstable();
        // What nothing changes keeps its own curves.
        let is_changed = mended.is_changed || !self.border.is_none() || self.eye.is_some();
        let mut cut = self.border.around(&mended.region, self.sides());
        let one_from = border::one_from(&mended.region, &cut, &self.border);
        if let Some(eye) = &self.eye {
            cut = eye.unite(cut);
        }
        cut = self.border.rounded(cut);
        if cut.is_empty() {
            return Err(vec![self.nothing_left(&mended.region, unit)]);
        }
        let rings = if is_changed {
            redrawn(&cut)
        } else {
            pushed
                .outlines
                .iter()
                .flat_map(|own| {
                    let holes = own.holes.iter().map(|hole| (hole.clone(), true));
                    std::iter::once((own.outer.clone(), false)).chain(holes)
                })
                .collect()
        };
        let narrowest = narrow::narrowest(&cut);
        let bounds = cut.bounds().unwrap_or(Rect::ZERO);
        let bounds = self.card.as_ref().map_or(bounds, |card| card.around(bounds));
        let shift = Affine::translate((-bounds.x0, -bounds.y0));
        let nodes = rings.iter().map(|(path, _)| path.segments().count()).sum();
        let cut_lines: Vec<(BezPath, bool)> =
            rings.into_iter().map(|(path, is_hole)| (shift * path, is_hole)).collect();
        let mut part = match &self.card {
            Some(card) => stickers(card.part(bounds + shift.translation()), &cut_lines),
            None => part(&cut_lines),
        };
        if let Some((id, path)) = self.eye.as_ref().and_then(|eye| eye.hole(&cut)) {
            let kind = if self.card.is_some() { LineKind::KissCut } else { LineKind::Cut };
            part.strokes.push(Stroke::new(id, kind, shift * path, StrokeSource::Edge));
        }
        let [width, height] = self.sides();
        let facts = TracedFacts {
            line: shift * tracing.path(),
            cut: cut_lines,
            picture: Rect::new(0.0, 0.0, width, height) + shift.translation(),
            outlines: cut.parts(),
            one_from,
            nodes,
            dropped,
            narrowest: narrowest.map(|(gap, from, to)| (gap, shift * from, shift * to)),
            looked,
        };
        part.picture = Some(facts.picture);
        Ok((part, facts))
    }

    fn nothing(&self, error: &TraceError) -> InputError {
        let field = "form.traced.trace.threshold";
        let remedy = match error {
            TraceError::Nothing { proposed } => Remedy::set(
                format!("Set the threshold by itself: {:.0} %", proposed * 100.0),
                field,
                Setting::Standard,
            ),
            TraceError::AllTooSmall { largest } => Remedy::set(
                format!("Keep what has {:.2} mm² and more", largest * 0.9),
                "form.traced.trace.least",
                (largest * 0.9).max(0.0),
            ),
            TraceError::Even => Remedy::advice(
                "Tell what is inside in another way, or take a picture with a background that differs from it",
            ),
        };
        InputError::plain(field, error.to_string(), remedy)
    }

    fn nothing_left(&self, region: &Region, unit: Unit) -> InputError {
        let least = border::eaten_at(region, self.border.join);
        let most = (-least * 0.9 * 100.0).ceil() / 100.0;
        InputError::new(
            "form.traced.border.distance",
            format!(
                "A border of {} inwards leaves nothing: the last of it goes at {}",
                measure(-self.border.distance, unit),
                measure(least, unit)
            ),
            self.border.distance,
            Remedy::set(
                format!("Set it to {}", measure(most, unit)),
                "form.traced.border.distance",
                most,
            ),
        )
    }
}

/// The blank: all outer lines are its outline, all holes are cut.
fn part(cut: &[(BezPath, bool)]) -> Part {
    let mut outline = BezPath::new();
    for (path, _) in cut.iter().filter(|(_, is_hole)| !is_hole) {
        outline.extend(path.iter());
    }
    let mut part = Part::plain(OUTLINE, outline);
    let holes = cut.iter().filter(|(_, is_hole)| *is_hole).enumerate();
    part.strokes = holes
        .map(|(number, (path, _))| {
            let id = format!("hole-{}", number + 1);
            Stroke::new(id, LineKind::Cut, path.clone(), StrokeSource::Edge)
        })
        .collect();
    part.panels = vec![PlacedPanel::plain(OUTLINE, part.outline.clone())];
    part
}

/// A card with what is cut on it to the liner.
fn stickers(mut card: Part, cut: &[(BezPath, bool)]) -> Part {
    let mut stickers = BezPath::new();
    for (number, (path, is_hole)) in cut.iter().enumerate() {
        let id = format!("{}-{}", if *is_hole { "hole" } else { "sticker" }, number + 1);
        card.strokes.push(Stroke::new(id, LineKind::KissCut, path.clone(), StrokeSource::Edge));
        if !is_hole {
            stickers.extend(path.iter());
        }
    }
    card.panels.push(PlacedPanel::plain(OUTLINE, stickers));
    card
}
