//! Add-ons: openings, notches, slits and tear strips on a panel.
//!
//! An add-on's place counts from the middle of its panel, so that it stays with the panel when
//! sizes change. One that would meet a crease, an edge or another cut is refused, with the distance.

use std::f64::consts::PI;

use kurbo::{Affine, BezPath, Ellipse, Point, Rect, RoundedRect, Shape};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ts_rs::TS;

use super::design::Design;
use super::panel::{Perforation, perforated};
use super::{Line, Part};
use crate::LineKind;
use crate::error::{Change, Faults, InputError, Remedy};
use crate::geometry::{Outline, flattened, gap, heart};
use crate::units::{Unit, measure};

/// What is added.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, JsonSchema, TS)]
#[serde(rename_all = "kebab-case")]
pub enum AddOnKind {
    /// A window with square corners.
    WindowRectangle,
    /// A round window, as wide as given.
    WindowRound,
    /// An elliptic window.
    WindowOval,
    /// A window with a round head.
    WindowArch,
    /// A heart.
    WindowHeart,
    /// A round hole to hang the piece by.
    HangHole,
    /// A bay in a free edge, to take hold of what lies within.
    ThumbNotch,
    /// A long hole with round ends, to carry by.
    HandHole,
    /// A single cut in which a corner or a tongue catches.
    SlitLock,
    /// Two perforations across the panel, to tear it open.
    TearStrip,
    /// A narrow opening for a tongue or a cord.
    Slot,
    /// A flap cut on three sides.
    Tongue,
}

impl AddOnKind {
    /// Every kind, in the order in which they are offered.
    pub const ALL: [Self; 12] = [
        Self::WindowRectangle,
        Self::WindowRound,
        Self::WindowOval,
        Self::WindowArch,
        Self::WindowHeart,
        Self::HangHole,
        Self::ThumbNotch,
        Self::HandHole,
        Self::SlitLock,
        Self::TearStrip,
        Self::Slot,
        Self::Tongue,
    ];

    /// The trade's name.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Self::WindowRectangle => "Window",
            Self::WindowRound => "Round window",
            Self::WindowOval => "Oval window",
            Self::WindowArch => "Arched window",
            Self::WindowHeart => "Heart window",
            Self::HangHole => "Hang hole",
            Self::ThumbNotch => "Thumb notch",
            Self::HandHole => "Hand hole",
            Self::SlitLock => "Slit lock",
            Self::TearStrip => "Tear strip",
            Self::Slot => "Slot",
            Self::Tongue => "Tongue",
        }
    }

    /// Width and height that one starts with, mm (common practice).
    #[must_use]
    pub const fn standard(self) -> [f64; 2] {
        match self {
            Self::WindowRectangle => [20.0, 15.0],
            Self::WindowRound | Self::WindowHeart => [18.0, 18.0],
            Self::WindowOval => [24.0, 16.0],
            Self::WindowArch => [18.0, 26.0],
            Self::HangHole => [6.0, 6.0],
            Self::ThumbNotch => [18.0, 8.0],
            Self::HandHole => [70.0, 24.0],
            Self::SlitLock => [14.0, 1.0],
            Self::TearStrip => [10.0, 8.0],
            Self::Slot => [16.0, 1.5],
            Self::Tongue => [15.0, 12.0],
        }
    }

    /// Which of width and height it has.
    #[must_use]
    pub const fn measures(self) -> [bool; 2] {
        match self {
            Self::WindowRound | Self::HangHole | Self::SlitLock => [true, false],
            Self::TearStrip => [false, true],
            _ => [true, true],
        }
    }
}

/// Something added to a panel.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema, TS)]
pub struct AddOn {
    /// What it is.
    pub kind: AddOnKind,
    /// The panel, by its name.
    pub panel: String,
    /// From the panel's middle to the right in the flat, mm.
    pub across: f64,
    /// From the panel's middle down in the flat, mm.
    pub along: f64,
    /// Its width in the flat, mm.
    pub width: f64,
    /// Its height in the flat, mm; of a tear strip, between the perforations.
    pub height: f64,
    /// Length of a tear strip's cuts, mm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub cut: Option<f64>,
    /// Length of a tear strip's ties, mm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tie: Option<f64>,
}

/// Card to leave between an add-on and anything else, mm (common practice).
const CARD: f64 = 2.0;

/// Rounding of positions that are offered, mm.
const OFFERED: f64 = 10.0;

impl AddOn {
    /// Its path around a middle at the origin.
    fn path(&self) -> BezPath {
        let (w, h) = (self.width, self.height);
        let middle = |w: f64, h: f64| Rect::from_center_size(Point::ZERO, (w, h));
        match self.kind {
            AddOnKind::WindowRectangle | AddOnKind::Slot => middle(w, h).to_path(0.1),
            AddOnKind::WindowRound | AddOnKind::HangHole => {
                crate::geometry::circle(Point::ZERO, w / 2.0)
            }
            AddOnKind::WindowOval => {
                Ellipse::new(Point::ZERO, (w / 2.0, h / 2.0), 0.0).to_path(1e-4)
            }
            AddOnKind::WindowArch => arch(w, h),
            AddOnKind::WindowHeart => heart(w, h),
            AddOnKind::HandHole => {
                RoundedRect::from_rect(middle(w, h), w.min(h) / 2.0).to_path(1e-4)
            }
            AddOnKind::SlitLock => line(&[(-w / 2.0, 0.0), (w / 2.0, 0.0)]),
            AddOnKind::Tongue => {
                let radius = (w / 3.0).min(h / 2.0);
                let k = radius * 4.0 / 3.0 * (PI / 8.0).tan();
                let (x, y) = (w / 2.0, h / 2.0);
                let mut path = BezPath::new();
                path.move_to((-x, -y));
                path.line_to((-x, y - radius));
                path.curve_to((-x, y - radius + k), (-x + radius - k, y), (-x + radius, y));
                path.line_to((x - radius, y));
                path.curve_to((x - radius + k, y), (x, y - radius + k), (x, y - radius));
                path.line_to((x, -y));
                path
            }
            AddOnKind::ThumbNotch | AddOnKind::TearStrip => BezPath::new(),
        }
    }

    fn field(index: usize, name: &str) -> String {
        format!("form.add_ons.{index}.{name}")
    }

    fn in_range(&self, index: usize, faults: &mut Faults, unit: Unit) -> bool {
        let before = faults.count();
        let name = self.kind.name();
        for (key, value, range) in [
            ("across", self.across, -2000.0..=2000.0),
            ("along", self.along, -2000.0..=2000.0),
            ("width", self.width, 0.5..=2000.0),
            ("height", self.height, 0.5..=2000.0),
            ("cut", self.cut.unwrap_or(1.0), 0.5..=20.0),
            ("tie", self.tie.unwrap_or(1.0), 0.3..=20.0),
        ] {
            let label = format!("{name}, {key},");
            faults.range(&Self::field(index, key), &label, value, range, |mm| measure(mm, unit));
        }
        faults.count() == before
    }

    fn missing(&self, index: usize) -> InputError {
        let panel: String = self.panel.chars().take(40).collect();
        InputError::plain(
            &Self::field(index, "panel"),
            format!("{} is on “{panel}”, which this structure does not have", self.kind.name()),
            Remedy::advice("Choose another panel for it, or take it away"),
        )
    }
}

fn arch(w: f64, h: f64) -> BezPath {
    let radius = (w / 2.0).min(h);
    let k = 4.0 / 3.0 * (PI / 8.0).tan();
    let (x, y) = (w / 2.0, h / 2.0);
    let spring = -y + radius;
    let mut path = BezPath::new();
    path.move_to((-x, y));
    path.line_to((-x, spring));
    path.curve_to((-x, spring - k * radius), (-k * x, -y), (0.0, -y));
    path.curve_to((k * x, -y), (x, spring - k * radius), (x, spring));
    path.line_to((x, y));
    path.close_path();
    path
}

fn line(points: &[(f64, f64)]) -> BezPath {
    let mut path = BezPath::new();
    for (index, point) in points.iter().enumerate() {
        if index == 0 {
            path.move_to(*point);
        } else {
            path.line_to(*point);
        }
    }
    path
}

/// Cuts thumb notches into the free edges of their panels, before the tree is laid flat.
pub(super) fn notch(add_ons: &[AddOn], design: &mut Design, faults: &mut Faults, unit: Unit) {
    for (index, add_on) in add_ons.iter().enumerate() {
        if add_on.kind != AddOnKind::ThumbNotch || !add_on.in_range(index, faults, unit) {
            continue;
        }
        let mut found = None;
        for (number, blank) in design.blanks.iter().enumerate() {
            let part = Part::of(blank);
            if let Some(placed) = part.panels.iter().find(|panel| panel.name == add_on.panel) {
                let middle = placed.outline.bounding_box().center();
                let wanted = middle + kurbo::Vec2::new(add_on.across, add_on.along);
                found = Some((number, placed.frame.inverse() * wanted));
            }
        }
        let panel = found.and_then(|(number, at)| {
            design.blanks[number].root.find_mut(&add_on.panel).map(|panel| (panel, at))
        });
        let Some((panel, at)) = panel else {
            faults.add(add_on.missing(index));
            continue;
        };
        let needs = add_on.width + 2.0 * CARD;
        let cuts = panel.cuts();
        let longest = cuts.iter().map(|(_, a, b)| a.distance(*b)).fold(0.0, f64::max);
        let nearest = cuts
            .into_iter()
            .filter(|(_, a, b)| a.distance(*b) >= needs)
            .min_by(|one, other| beside(at, one).total_cmp(&beside(at, other)));
        let Some((side, a, b)) = nearest else {
            faults.add(InputError::new(
                &AddOn::field(index, "width"),
                format!(
                    "{} has no free edge of {} for a thumb notch of {}: its longest is {}",
                    add_on.panel,
                    measure(needs, unit),
                    measure(add_on.width, unit),
                    measure(longest, unit)
                ),
                add_on.width,
                if longest - 2.0 * CARD > 1.0 {
                    let width = ((longest - 2.0 * CARD) * OFFERED).floor() / OFFERED;
                    Remedy::set(
                        format!("Make it {} wide", measure(width, unit)),
                        &AddOn::field(index, "width"),
                        width,
                    )
                } else {
                    Remedy::advice("Choose a panel with a free edge")
                },
            ));
            continue;
        };
        let long = a.distance(b);
        let half = add_on.width / 2.0;
        let middle = ((at - a).dot(b - a) / long).clamp(half + CARD, long - half - CARD);
        let (start, end) = (a.lerp(b, (middle - half) / long), a.lerp(b, (middle + half) / long));
        panel.notch(side, start, end, add_on.height.min(half));
    }
}

fn beside(at: Point, (_, a, b): &(usize, Point, Point)) -> f64 {
    let along = *b - *a;
    let share = ((at - *a).dot(along) / along.hypot2().max(1e-12)).clamp(0.0, 1.0);
    (*a + along * share).distance(at)
}

/// Puts every other add-on on its panel, and refuses those that meet something.
pub(super) fn place(add_ons: &[AddOn], parts: &mut [Part], faults: &mut Faults, unit: Unit) {
    for (index, add_on) in add_ons.iter().enumerate() {
        if add_on.kind == AddOnKind::ThumbNotch || !add_on.in_range(index, faults, unit) {
            continue;
        }
        let found = parts.iter_mut().find_map(|part| {
            let panel = part.panels.iter().find(|panel| panel.name == add_on.panel)?;
            let outline = panel.outline.clone();
            Some((part, outline))
        });
        let Some((part, outline)) = found else {
            faults.add(add_on.missing(index));
            continue;
        };
        if add_on.kind == AddOnKind::TearStrip {
            match tear_strip(add_on, &outline) {
                Some(lines) => part.lines.extend(lines),
                None => faults.add(off_the_panel(add_on, index, &outline, unit)),
            }
            continue;
        }
        let put = |across: f64, along: f64, share: f64| {
            let middle = outline.bounding_box().center();
            let at = middle + kurbo::Vec2::new(across, along);
            Affine::translate(at.to_vec2()) * Affine::scale(share) * add_on.path()
        };
        let path = put(add_on.across, add_on.along, 1.0);
        let room = |path: &BezPath| clearance(path, &outline, part);
        let left = room(&path);
        if left < CARD - 1e-6 {
            let fits = |across, along, share| room(&put(across, along, share)) >= CARD;
            faults.add(refused(add_on, index, left, unit, fits));
        }
        part.lines.push(Line { kind: LineKind::Cut, path });
    }
}

/// The two perforations across the panel, from edge to edge.
fn tear_strip(add_on: &AddOn, outline: &BezPath) -> Option<Vec<Line>> {
    let middle = outline.bounding_box().center().y + add_on.along;
    let pattern = Perforation {
        cut: add_on.cut.unwrap_or(Perforation::STANDARD.cut),
        tie: add_on.tie.unwrap_or(Perforation::STANDARD.tie),
    };
    let ring = flattened(outline).into_iter().next()?;
    [middle - add_on.height / 2.0, middle + add_on.height / 2.0]
        .into_iter()
        .map(|y| {
            let next = ring.iter().cycle().skip(1);
            let mut hits: Vec<f64> = ring
                .iter()
                .zip(next)
                .filter(|(a, b)| (a.y > y) != (b.y > y))
                .map(|(a, b)| a.x + (b.x - a.x) * (y - a.y) / (b.y - a.y))
                .collect();
            hits.sort_by(f64::total_cmp);
            let (from, to) = (*hits.first()?, *hits.last()?);
            let path = perforated(Point::new(from, y), Point::new(to, y), pattern);
            Some(Line { kind: LineKind::Perforation, path })
        })
        .collect()
}

fn off_the_panel(add_on: &AddOn, index: usize, outline: &BezPath, unit: Unit) -> InputError {
    let height = outline.bounding_box().height();
    InputError::new(
        &AddOn::field(index, "along"),
        format!(
            "{} of {} leaves {}, which is {} high",
            add_on.kind.name(),
            measure(add_on.height, unit),
            add_on.panel,
            measure(height, unit)
        ),
        add_on.along,
        Remedy::set("Put it in the middle", &AddOn::field(index, "along"), 0.0),
    )
}

/// The least distance to the panel's sides and to other lines; negative where it leaves the panel.
fn clearance(path: &BezPath, outline: &BezPath, part: &Part) -> f64 {
    let lines = part.lines.iter().map(|line| &line.path);
    let least = lines.chain([outline]).map(|other| gap(path, other)).fold(f64::MAX, f64::min);
    let points: Vec<Point> = flattened(path).into_iter().flatten().collect();
    let panel = Outline::of_path(outline);
    let is_inside = |point: &Point| panel.as_ref().is_some_and(|panel| panel.holds(*point));
    let is_free = |line: &Line| {
        line.path.elements().last() != Some(&kurbo::PathEl::ClosePath)
            || Outline::of_path(&line.path)
                .is_none_or(|hole| !points.iter().any(|point| hole.holds(*point)))
    };
    if points.iter().all(is_inside) && part.lines.iter().all(is_free) { least } else { -least }
}

fn refused(
    add_on: &AddOn,
    index: usize,
    left: f64,
    unit: Unit,
    fits: impl Fn(f64, f64, f64) -> bool,
) -> InputError {
    let name = add_on.kind.name();
    let show = |mm| measure(mm, unit);
    let message = if left <= 0.0 {
        format!("{name} meets a crease, an edge or another cut on {}", add_on.panel)
    } else {
        format!(
            "{name} is {} from a crease, an edge or another cut on {}",
            show(left),
            add_on.panel
        )
    };
    let round = |mm: f64| (mm * OFFERED).round() / OFFERED;
    let nearer = (1..=20).map(|step| 1.0 - f64::from(step) / 20.0).find_map(|share| {
        let (across, along) = (round(add_on.across * share), round(add_on.along * share));
        fits(across, along, 1.0).then_some((across, along))
    });
    let set = |key: &str, value: f64| Change::new(&AddOn::field(index, key), value);
    let remedy = if let Some((across, along)) = nearer {
        Remedy {
            text: format!("Move it to {} × {} from the middle", show(across), show(along)),
            changes: vec![set("across", across), set("along", along)],
        }
    } else if let Some(share) =
        (1..40).map(|step| 1.0 - f64::from(step) / 40.0).find(|share| fits(0.0, 0.0, *share))
    {
        let down = |mm: f64| ((mm * share) * OFFERED).floor() / OFFERED;
        let (width, height) = (down(add_on.width), down(add_on.height));
        Remedy {
            text: format!("Make it {} × {}, in the middle", show(width), show(height)),
            changes: vec![
                set("across", 0.0),
                set("along", 0.0),
                set("width", width.max(0.5)),
                set("height", height.max(0.5)),
            ],
        }
    } else {
        Remedy::advice("Choose a larger panel for it, or take it away")
    };
    InputError::new(
        &AddOn::field(index, "across"),
        format!("{message}: it must keep {}", show(CARD)),
        left.max(0.0),
        remedy,
    )
}
