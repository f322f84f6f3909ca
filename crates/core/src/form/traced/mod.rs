//! A form whose outline is traced from a picture: the border around it, what is mended by hand, a hole to hang it by.

mod border;
mod card;
mod checks;
mod eye;
mod figures;
mod mend;
mod narrow;

use std::sync::Arc;

use kurbo::{Affine, BezPath, Rect};
#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Deserializer, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

pub use border::{Border, HoleRule, HoleSay};
pub use card::StickerCard;
pub use eye::Eye;
pub use mend::Mend;

use super::{Flat, Part, PlacedPanel, Role, drafting};
use crate::LineKind;
use crate::blob::{BlobId, Origin};
use crate::error::{Faults, InputError, Remedy, Setting};
use crate::geometry::{Region, fine_region, redrawn};
use crate::memory::Weighty;
use crate::stroke::{Stroke, StrokeSource};
use crate::trace::{Trace, TraceError, Tracing};
use crate::units::{Unit, measure};

/// The panel that a traced piece has.
pub const OUTLINE: &str = "Outline";

/// What a layer lies on to be where the picture was that the outline was traced from.
pub const PICTURE: &str = "Picture";

/// How wide a picture may be, mm.
const WIDTH: std::ops::RangeInclusive<f64> = 3.0..=2000.0;

/// An outline that is traced from a picture.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Traced {
    /// The picture.
    pub picture: BlobId,
    /// Its width and height in pixels, the right way up.
    pub pixels: [u32; 2],
    /// True for a drawing of lines and areas.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub drawn: bool,
    /// What is known of where it comes from.
    #[serde(default)]
    pub origin: Origin,
    /// How wide the whole picture is, mm; 3 to 2000.
    pub width: f64,
    /// What of it counts as inside, and how its edge is followed.
    #[serde(default)]
    pub trace: Trace,
    /// What is mended by hand, one after the other; up to 200.
    #[serde(default, deserialize_with = "standard", skip_serializing_if = "Vec::is_empty")]
    pub mends: Vec<Mend>,
    /// How far from what was traced the cut runs.
    #[serde(default)]
    pub border: Border,
    /// A hole to hang it by.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub eye: Option<Eye>,
    /// A card around the outlines, cut through; they themselves are cut to its liner.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub card: Option<StickerCard>,
    /// What was found in the picture; `None` until somebody looks.
    #[serde(skip)]
    #[cfg_attr(feature = "api", ts(skip), schemars(skip))]
    pub found: Found,
}

/// What was found in a picture: no part of what the user decides, so all are alike.
#[derive(Debug, Clone, Default)]
pub struct Found(pub Option<Arc<Looked>>);

impl PartialEq for Found {
    fn eq(&self, _: &Self) -> bool {
        true
    }
}

/// The outlines of a picture, or why there are none.
#[derive(Debug, Clone)]
pub struct Looked(pub Result<Tracing, TraceError>);

impl Weighty for Looked {
    fn weight(&self) -> usize {
        self.0.as_ref().map_or(200, |tracing| 3000 + 60 * tracing.nodes)
    }
}

/// What a traced outline came to, for whoever sets it up.
#[derive(Debug, Clone)]
pub struct TracedFacts {
    /// What was found.
    pub looked: Arc<Looked>,
    /// The line that was traced, in the blank's coordinates.
    pub line: BezPath,
    /// What is cut around it, in the blank's coordinates, and whether each is a hole.
    pub cut: Vec<(BezPath, bool)>,
    /// Where the whole picture lies, in the blank's coordinates.
    pub picture: Rect,
    /// How many separate outlines are cut.
    pub outlines: usize,
    /// The least border at which they are one, mm; none where they are, or cannot be.
    pub one_from: Option<f64>,
    /// Ends of curves in all that is cut.
    pub nodes: usize,
    /// Mends that no longer make sense, by their places.
    pub dropped: Vec<usize>,
    /// The narrowest place of the piece, mm, and where it is.
    pub narrowest: Option<(f64, kurbo::Point, kurbo::Point)>,
}

/// With how many pixels a drawing's longer side is drawn to be traced.
const DRAWN: u32 = 1600;

/// Most mends of one outline.
const MOST_MENDS: usize = 200;

impl Traced {
    /// An outline of a picture, so wide, as it is found by itself.
    #[must_use]
    pub fn new(picture: BlobId, pixels: [u32; 2], width: f64, trace: Trace) -> Self {
        Self {
            picture,
            pixels,
            drawn: false,
            origin: Origin::default(),
            width,
            trace,
            mends: Vec::new(),
            border: Border::default(),
            eye: None,
            card: None,
            found: Found::default(),
        }
    }

    /// How large the whole picture is, mm.
    #[must_use]
    pub fn sides(&self) -> [f64; 2] {
        let [across, along] = self.pixels.map(|count| f64::from(count.max(1)));
        [self.width, self.width * along / across]
    }

    /// How many pixels of it are looked at: of a drawing as many as it is drawn with for that.
    #[must_use]
    pub fn looked_at(&self) -> [u32; 2] {
        if !self.drawn {
            return self.pixels;
        }
        let longest = self.pixels[0].max(self.pixels[1]).max(1);
        let side = |count: u32| {
            let pixels = u64::from(count) * u64::from(DRAWN) / u64::from(longest);
            u32::try_from(pixels).unwrap_or(DRAWN).max(1)
        };
        self.pixels.map(side)
    }

    /// Checks every figure.
    ///
    /// # Errors
    /// All that are out of range.
    pub fn checked(&self, unit: Unit) -> Result<(), Vec<InputError>> {
        let mut faults = Faults::default();
        self.validate(unit, &mut faults);
        faults.or(())
    }

    fn validate(&self, unit: Unit, faults: &mut Faults) {
        let show = |mm: f64| measure(mm, unit);
        faults.range("form.traced.width", "The picture’s width", self.width, WIDTH, show);
        self.trace.validate(&|field| format!("form.traced.trace.{field}"), unit, faults);
        self.border.validate(unit, faults);
        if let Some(eye) = &self.eye {
            eye.validate(unit, faults);
        }
        if let Some(card) = &self.card {
            card.validate(unit, faults);
        }
        if self.mends.len() > MOST_MENDS || !self.mends.iter().all(Mend::is_sound) {
            faults.add(InputError::plain(
                "form.traced.mends",
                format!(
                    "{} corrections by hand, or one beside the picture: up to {MOST_MENDS} on it",
                    self.mends.len()
                ),
                Remedy::set("Leave them out", "form.traced.mends", Setting::Standard),
            ));
        }
        self.origin.validate("form.traced.origin", faults);
        if !self.picture.is_sound() || self.pixels.iter().any(|side| !(1..=60_000).contains(side)) {
            faults.add(InputError::plain(
                "form.traced.picture",
                "The outline names no picture of a usable size",
                Remedy::advice("Bring the picture in again"),
            ));
        }
    }

    /// Its blank, and what it came to.
    ///
    /// # Errors
    /// Figures out of range, a picture that is missing or has no edge to follow, a border that leaves nothing.
    pub(super) fn draft(&self, unit: Unit) -> Result<(Part, TracedFacts), Vec<InputError>> {
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
        let mut cut = self.border.around(&mended.region);
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
            Some(card) => card.part(&cut_lines, bounds + shift.translation()),
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

    /// The flat of its blanks.
    pub(super) fn flat(
        &self,
        parts: Vec<Part>,
        facts: TracedFacts,
        caliper: f64,
        unit: Unit,
    ) -> Flat {
        let mut flat = Flat::of(parts);
        flat.dimensions = drafting::dimensions(&[], &flat, unit);
        flat.figures = figures::figures(self, unit);
        flat.checks = checks::checks(self, &facts, &flat, caliper, unit);
        flat.traced = Some(facts);
        flat
    }
}

/// A field that is set back to its standard carries nothing.
fn standard<'de, D, T>(from: D) -> Result<T, D::Error>
where
    D: Deserializer<'de>,
    T: Deserialize<'de> + Default,
{
    Ok(Option::deserialize(from)?.unwrap_or_default())
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
    part.panels = vec![panel(OUTLINE, part.outline.clone())];
    part
}

/// A panel that hangs on nothing.
fn panel(name: &str, outline: BezPath) -> PlacedPanel {
    PlacedPanel {
        name: name.to_owned(),
        role: Role::Face,
        figure: None,
        strip_of: None,
        soft: Vec::new(),
        outline,
        frame: Affine::IDENTITY,
        hang: None,
        reach: None,
    }
}
