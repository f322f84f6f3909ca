//! A pattern: a motif again and again over an area, cut off where the area ends.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use super::figures::Outlined;
use super::layer::colour_fault;
use super::lying::Lying;
use super::motif::Motif;
use super::shape::{points_fault, usual_points};
use crate::error::{Faults, InputError, Remedy};
use crate::geometry::{Affine, BezPath, Outline, Point, Rect, Region, flattened};
use crate::units::{Unit, measure};

/// How far motifs stand from each other.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case", tag = "by", content = "value")]
pub enum Grid {
    /// From middle to middle, across and down, mm.
    Pitch([f64; 2]),
    /// So many columns and rows over the area.
    Count([u32; 2]),
}

/// A pattern.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Pattern {
    /// Where it lies.
    #[serde(flatten)]
    #[cfg_attr(feature = "api", ts(flatten))]
    pub lying: Lying,
    /// What comes again and again.
    #[serde(default, skip_serializing_if = "Motif::is_figure")]
    pub motif_of: Motif,
    /// Its figure, where it is one.
    #[serde(default)]
    pub figure: Outlined,
    /// Corners of a polygon, points of a star; 3 to 60.
    #[serde(default = "usual_points")]
    pub points: u32,
    /// As `#rrggbb`.
    pub colour: String,
    /// The motif's width and height, mm; of stripes, their thickness is the height.
    pub motif: [f64; 2],
    /// How far motifs stand from each other.
    pub grid: Grid,
    /// True where every second row stands half a pitch aside.
    #[serde(default)]
    pub staggered: bool,
    /// True where every second row is turned round.
    #[serde(default)]
    pub turning: bool,
}

/// A motif's sides and the pitch, mm; columns and rows.
const SIDE: std::ops::RangeInclusive<f64> = 0.2..=500.0;
const COUNT: std::ops::RangeInclusive<f64> = 1.0..=200.0;

impl Pattern {
    /// Dots at a pitch of 8 mm, staggered.
    #[must_use]
    pub fn dots(colour: &str) -> Self {
        Self {
            lying: Lying::default(),
            motif_of: Motif::Figure,
            figure: Outlined::Ellipse,
            points: usual_points(),
            colour: colour.to_owned(),
            motif: [2.5, 2.5],
            grid: Grid::Pitch([8.0, 7.0]),
            staggered: true,
            turning: false,
        }
    }

    /// From middle to middle in an area of so much room, mm.
    #[must_use]
    pub fn pitch(&self, room: [f64; 2]) -> [f64; 2] {
        match self.grid {
            Grid::Pitch(pitch) => pitch,
            Grid::Count([columns, rows]) => {
                [room[0] / f64::from(columns.max(1)), room[1] / f64::from(rows.max(1))]
            }
        }
    }

    /// How many motifs cover so much, at most.
    #[must_use]
    pub fn motifs(&self, room: [f64; 2], covered: Rect) -> f64 {
        let [across, down] = self.pitch(room).map(|pitch| pitch.max(1e-3));
        (covered.width() / across + 3.0) * (covered.height() / down + 3.0)
    }

    /// True for stripes, which run through.
    fn is_striped(&self) -> bool {
        self.motif_of.is_figure() && self.figure == Outlined::Line
    }

    /// The motifs within `area`, in the layer's coordinates; what lies across its edge is cut off there. Columns and
    /// rows are counted over `room` and go on at the same pitch beyond. Nothing where there would be too many, or where
    /// they are pictures.
    pub(super) fn print(&self, area: &Region, room: [f64; 2]) -> BezPath {
        let mut all = BezPath::new();
        let Some(bounds) = area.bounds() else { return all };
        let is_striped = self.is_striped();
        let unit = if is_striped {
            let long = 2.0 * (bounds.width() + bounds.x0.abs().max(bounds.x1.abs()));
            Affine::scale_non_uniform(long, self.motif[1]) * Outlined::Rectangle.unit(4)
        } else {
            self.outline()
        };
        if unit.elements().is_empty() {
            return all;
        }
        for (at, lies) in self.places(area, room) {
            let motif = at * unit.clone();
            match lies {
                Lies::Inside if !is_striped => all.extend(motif),
                _ => all.extend(Region::painted(&motif).intersection(area).to_path()),
            }
        }
        all
    }

    /// The pictures within `area`, in the layer's coordinates: where each one's unit square lies, and what is seen of
    /// it.
    pub(super) fn pictures(&self, area: &Region, room: [f64; 2]) -> Vec<(Affine, BezPath)> {
        let Some((_, fitted)) = self.pictured() else { return Vec::new() };
        let square = fitted * Affine::translate((0.5, 0.5)) * Outlined::Rectangle.unit(4);
        let seen = |(at, lies): (Affine, Lies)| {
            let whole = at * square.clone();
            let seen = match lies {
                Lies::Inside => whole,
                _ => Region::inside(&whole).intersection(area).to_path(),
            };
            (!seen.elements().is_empty()).then(|| (at * fitted, seen))
        };
        self.places(area, room).into_iter().filter_map(seen).collect()
    }

    /// Where motifs about the origin go that are seen within `area`; nowhere where there would be too many.
    fn places(&self, area: &Region, room: [f64; 2]) -> Vec<(Affine, Lies)> {
        let Some(bounds) = area.bounds() else { return Vec::new() };
        if self.motifs(room, bounds) > self.most() {
            return Vec::new();
        }
        let mut places = Vec::new();
        let pitch = self.pitch(room);
        let rings = flattened(&area.to_path()).into_iter().filter_map(Outline::new);
        let rings: Vec<Outline> = rings.collect();
        let is_striped = self.is_striped();
        let [width, height] = self.motif;
        let reach = 0.5 * width.hypot(height);
        // The first motif's middle: half a pitch in where columns are counted, else the area's middle.
        let start = |at: usize| match self.grid {
            Grid::Pitch(_) => 0.0,
            Grid::Count(counts) => {
                if counts[at].is_multiple_of(2) {
                    pitch[at] / 2.0
                } else {
                    0.0
                }
            }
        };
        let steps = |low: f64, high: f64, pitch: f64| {
            let (from, to) = ((low / pitch).floor() - 1.0, (high / pitch).ceil() + 1.0);
            (0..=whole(to - from)).map(move |step| from + f64::from(step))
        };
        for row in steps(bounds.y0 - start(1), bounds.y1 - start(1), pitch[1]) {
            let is_odd = row.rem_euclid(2.0) == 1.0;
            let aside = if self.staggered && is_odd { pitch[0] / 2.0 } else { 0.0 };
            let turn = if self.turning && is_odd { std::f64::consts::PI } else { 0.0 };
            let y = row * pitch[1] + start(1);
            let columns: Vec<f64> = if is_striped {
                vec![0.0]
            } else {
                steps(bounds.x0 - start(0), bounds.x1 - start(0), pitch[0])
                    .map(|column| column * pitch[0] + start(0) + aside)
                    .collect()
            };
            for x in columns {
                let lies = lies(&rings, Point::new(x, y), reach);
                if is_striped || lies != Lies::Outside {
                    places.push((Affine::translate((x, y)) * Affine::rotate(turn), lies));
                }
            }
        }
        places
    }

    pub(super) fn validate(&self, field: &dyn Fn(&str) -> String, unit: Unit, faults: &mut Faults) {
        let show = |mm: f64| measure(mm, unit);
        for (at, words) in ["The motif’s width", "The motif’s height"].iter().enumerate() {
            faults.range(&field(&format!("motif.{at}")), words, self.motif[at], SIDE, show);
        }
        match self.grid {
            Grid::Pitch(pitch) => {
                for (at, words) in ["The pitch across", "The pitch down"].iter().enumerate() {
                    faults.range(&field(&format!("grid.value.{at}")), words, pitch[at], SIDE, show);
                }
            }
            Grid::Count(counts) => {
                for (at, words) in
                    ["The number of columns", "The number of rows"].iter().enumerate()
                {
                    let value = f64::from(counts[at]);
                    let field = field(&format!("grid.value.{at}"));
                    faults.range(&field, words, value, COUNT, |count| format!("{count}"));
                }
            }
        }
        self.motif_of.validate(field, faults);
        points_fault(&field("points"), self.points, faults);
        colour_fault(&field("colour"), &self.colour, faults);
    }

    /// What is wrong with the pattern on so large an area: more motifs than are drawn.
    pub(super) fn too_many(
        &self,
        field: &str,
        room: [f64; 2],
        covered: Rect,
    ) -> Option<InputError> {
        let (count, most) = (self.motifs(room, covered), self.most());
        let [across, down] = self.pitch(room);
        let more = (count / most).sqrt() * 1.1;
        (count > most).then(|| {
            InputError::new(
                field,
                format!(
                    "The pattern has about {count:.0} motifs: up to {most:.0} of them are drawn"
                ),
                count,
                Remedy::advice(format!(
                    "Set it at a pitch of {:.1} × {:.1} mm or more",
                    across * more,
                    down * more
                )),
            )
        })
    }
}

#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Lies {
    Inside,
    Across,
    Outside,
}

/// How what reaches so far about a point lies to an area.
fn lies(rings: &[Outline], at: Point, reach: f64) -> Lies {
    let edges = || rings.iter().flat_map(Outline::edges);
    if edges().any(|(a, b)| to_segment(at, a, b) < reach) {
        return Lies::Across;
    }
    // Within a hole a point lies in two rings.
    let within = rings.iter().filter(|ring| ring.holds(at)).count();
    if within % 2 == 1 { Lies::Inside } else { Lies::Outside }
}

fn to_segment(at: Point, a: Point, b: Point) -> f64 {
    let along = b - a;
    let share = ((at - a).dot(along) / along.hypot2().max(1e-18)).clamp(0.0, 1.0);
    at.distance(a + along * share)
}

#[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "few")]
fn whole(count: f64) -> u32 {
    count.max(0.0) as u32
}
