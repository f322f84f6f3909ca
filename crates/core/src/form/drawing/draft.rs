//! From lines and what they mean to a blank.

use std::collections::{BTreeMap, HashMap};
use std::sync::Arc;

use kurbo::{Affine, BezPath, ParamCurveArclen, PathEl, Point, Rect, Shape};

use super::{Doubles, DrawingFacts, LineDrawing, PrintedLine};
use crate::LineKind;
use crate::error::{Faults, InputError, Remedy};
use crate::form::{Part, PlacedPanel};
use crate::geometry::Outline;
use crate::lines::{Lines, Meaning, around_stroke, copies, is_as_long, joined, with_arcs};
use crate::stroke::{Perforation, Stroke, StrokeSource};
use crate::units::Unit;

/// The panel of a drawing that is not folded.
const WHOLE: &str = "Drawing";

/// Separate outlines of one blank, at most; what is more is cut, and belongs to no blank.
const MOST_OUTER: usize = 500;

/// Loose ends between which the least gap is looked for.
const MOST_LOOSE: usize = 2000;

impl LineDrawing {
    /// Its blank, and what it came to.
    ///
    /// # Errors
    /// Figures out of range, a drawing that is missing or of no size.
    pub(in crate::form) fn draft(
        &self,
        unit: Unit,
    ) -> Result<(Part, DrawingFacts), Vec<InputError>> {
        let mut faults = Faults::default();
        self.validate(unit, &mut faults);
        faults.or(())?;
        let lines = self.read.0.clone().ok_or_else(|| {
            vec![InputError::plain(
                "form.drawing.lines",
                format!("The drawing “{}” is not here", self.origin.name),
                Remedy::advice("Bring it in again, or take the job from where the drawing is"),
            )]
        })?;
        let bounds = lines.bounds();
        let (mm, is_scaled) = self.unit(&lines, bounds)?;
        let sorted = Sorted::of(self, &lines, mm);
        Ok(sorted.blank(lines, bounds, mm, is_scaled))
    }
}

/// Lines in mm by what they are, put in order.
struct Sorted {
    /// The lines of each kind, with how often each is drawn.
    kinds: BTreeMap<LineKind, Vec<(BezPath, u32)>>,
    /// What is worked once more, and how often.
    again: BTreeMap<LineKind, Vec<(BezPath, u32)>>,
    printed: Vec<PrintedLine>,
    /// Where the card bends of itself.
    bends: Vec<BezPath>,
    groups: Vec<(usize, f64)>,
    joined: usize,
    closed: usize,
    crumbs: usize,
    doubles: usize,
    loose: Vec<Point>,
    unnamed: usize,
    arcs: usize,
    from: Origins,
}

/// Of which group the lines are on which a place lies that was drawn: places to a thousandth of a millimetre.
#[derive(Default)]
struct Origins {
    at: HashMap<(i64, i64), (usize, Vec<usize>)>,
    slugs: Vec<Arc<str>>,
}

impl Origins {
    #[expect(clippy::cast_possible_truncation, reason = "a drawing is within metres")]
    fn place(at: Point) -> (i64, i64) {
        ((at.x * 1e3).round() as i64, (at.y * 1e3).round() as i64)
    }

    fn note(&mut self, path: &BezPath, group: usize) {
        for at in path.elements().iter().filter_map(PathEl::end_point) {
            // Most places are of one group, for which nothing is set aside.
            let (first, more) = self.at.entry(Self::place(at)).or_insert((group, Vec::new()));
            if *first != group && !more.contains(&group) {
                more.push(group);
            }
        }
    }

    /// The group of which most places of a line are, the first where several are.
    fn group(&self, path: &BezPath) -> Option<Arc<str>> {
        let mut counts = vec![0_usize; self.slugs.len()];
        for at in path.elements().iter().filter_map(PathEl::end_point) {
            if let Some((first, more)) = self.at.get(&Self::place(at)) {
                counts[*first] += 1;
                more.iter().for_each(|group| counts[*group] += 1);
            }
        }
        let most = counts.iter().copied().max().filter(|most| *most > 0)?;
        let at = counts.iter().position(|count| *count == most)?;
        self.slugs.get(at).map(Arc::clone)
    }
}

impl Sorted {
    fn of(drawing: &LineDrawing, lines: &Lines, mm: f64) -> Self {
        let meanings: Vec<Option<Meaning>> =
            lines.groups.iter().map(|group| drawing.key.meaning(group)).collect();
        let mut own = Self {
            kinds: BTreeMap::new(),
            again: BTreeMap::new(),
            printed: Vec::new(),
            bends: Vec::new(),
            groups: vec![(0, 0.0); lines.groups.len()],
            joined: 0,
            closed: 0,
            crumbs: 0,
            doubles: 0,
            loose: Vec::new(),
            unnamed: 0,
            arcs: 0,
            from: Origins {
                slugs: lines.groups.iter().map(|group| group.slug().into()).collect(),
                at: HashMap::new(),
            },
        };
        let mut is_open = vec![false; lines.groups.len()];
        let mut by_kind: BTreeMap<LineKind, Vec<BezPath>> = BTreeMap::new();
        for line in lines.lines.iter().filter(|line| !line.path.elements().is_empty()) {
            let path = Affine::scale(mm) * line.path.clone();
            let group = &mut own.groups[line.group];
            group.0 += 1;
            group.1 += path.segments().map(|segment| segment.arclen(0.01)).sum::<f64>();
            let Some(meaning) = line.told.or(meanings[line.group]) else {
                is_open[line.group] = true;
                continue;
            };
            let width = line.width * mm;
            if meaning.is_printed() {
                let colour = lines.groups[line.group].colour.clone();
                own.printed.push(PrintedLine { path: path.clone(), colour, width });
            }
            if meaning == Meaning::Bend {
                own.bends.push(path.clone());
            }
            if let Some(kind) = meaning.kind() {
                own.from.note(&path, line.group);
                let paths = by_kind.entry(kind).or_default();
                if meaning == Meaning::PrintedAndCutAround {
                    paths.extend(around_stroke(&path, width));
                } else {
                    paths.push(path);
                }
            }
        }
        own.unnamed = is_open.into_iter().filter(|is_open| *is_open).count();
        for (kind, mut paths) in by_kind {
            let before = paths.len();
            paths.retain(|path| is_as_long(path, drawing.crumb));
            own.crumbs += before - paths.len();
            let once = copies(paths);
            own.doubles += once.doubles;
            let again: Vec<(BezPath, u32)> = once
                .lines
                .iter()
                .filter(|(_, count)| *count > 1 && drawing.doubles == Some(Doubles::Passes))
                .map(|(path, count)| (path.clone(), count - 1))
                .collect();
            let paths = once.lines.into_iter().map(|(path, _)| path).collect();
            // Creases that meet at a corner are two.
            let straight_on = !matches!(kind, LineKind::Cut | LineKind::KissCut);
            let done = joined(paths, drawing.join, drawing.crumb, straight_on);
            own.joined += done.joined;
            own.closed += done.closed;
            own.crumbs += done.crumbs;
            if kind == LineKind::Cut {
                own.loose.extend(done.loose);
            }
            let mut drawn = done.lines;
            if drawing.arcs {
                let (with_arcs, arcs) = with_arcs(drawn);
                (drawn, own.arcs) = (with_arcs, own.arcs + arcs);
            }
            let worked = own.kinds.entry(kind).or_default();
            worked.extend(drawn.into_iter().map(|path| (path, 1)));
            // Where a line lies on another the tool comes again.
            if !again.is_empty() {
                own.again.insert(kind, again);
            }
        }
        own
    }

    /// The blank of lines that lie within bounds, in units of the file.
    fn blank(
        mut self,
        lines: Arc<Lines>,
        within: Rect,
        mm: f64,
        is_scaled: bool,
    ) -> (Part, DrawingFacts) {
        // What is kissed around is the outline where nothing is cut through.
        let edge = [LineKind::Cut, LineKind::KissCut].into_iter().find_map(|kind| {
            let outer = self.take_outer(kind);
            (!outer.elements().is_empty()).then_some((kind, outer))
        });
        for (kind, again) in std::mem::take(&mut self.again) {
            self.kinds.entry(kind).or_default().extend(again);
        }
        let is_closed = edge.is_some();
        let all = Affine::scale(mm).transform_rect_bbox(within);
        let (kind, outline) = edge.unwrap_or_else(|| {
            // A frame that is not cut, so that what there is can be seen and mended.
            (LineKind::Guide, all.inflate(0.5, 0.5).to_path(0.1))
        });
        let bounds = outline.bounding_box();
        let shift = Affine::translate((-bounds.x0, -bounds.y0));
        let mut part = Part::plain(WHOLE, outline);
        part.edge = kind;
        // A frame is no kiss cut on a liner either.
        part.edge_through = kind == LineKind::Guide;
        let mut beside = 0;
        for (kind, paths) in &self.kinds {
            for (number, (path, times)) in paths.iter().enumerate() {
                let source = self
                    .from
                    .group(path)
                    .map_or_else(|| StrokeSource::Panel(WHOLE.to_owned()), StrokeSource::Drawn);
                let path = shift * path.clone();
                let own = path.bounding_box();
                let shared = own.inflate(1e-6, 1e-6).intersect(part.bounds);
                if is_closed && (shared.width() <= 0.0 || shared.height() <= 0.0) {
                    beside += 1;
                    continue;
                }
                let id = format!("{}-{}", kind.id(), number + 1);
                let mut stroke = Stroke::new(id, *kind, path, source);
                stroke.times = *times;
                if *kind == LineKind::Perforation {
                    stroke = stroke.with_pattern(Perforation::STANDARD);
                }
                part.strokes.push(stroke);
            }
        }
        part.panels = vec![PlacedPanel::plain(WHOLE, part.outline.clone())];
        let gap = (!is_closed).then(|| least_gap(&self.loose)).flatten();
        let facts = DrawingFacts {
            bounds: within,
            unit: mm,
            is_scaled,
            to_blank: shift * Affine::scale(mm),
            groups: self.groups,
            is_closed,
            joined: self.joined,
            closed: self.closed,
            crumbs: self.crumbs,
            doubles: self.doubles,
            beside,
            loose: self.loose.iter().map(|point| shift * *point).collect(),
            gap,
            printed: self
                .printed
                .into_iter()
                .map(|own| PrintedLine { path: shift * own.path, ..own })
                .collect(),
            bends: self.bends.into_iter().map(|path| shift * path).collect(),
            arcs: self.arcs,
            unnamed: self.unnamed,
            creases: Vec::new(),
            panels: Vec::new(),
            dead_ends: 0,
            curved: 0,
            apart: 0,
            lines,
        };
        (part, facts)
    }

    /// Takes the closed lines of a kind that lie in no other of it.
    fn take_outer(&mut self, kind: LineKind) -> BezPath {
        let mut outer = BezPath::new();
        let Some(paths) = self.kinds.remove(&kind) else { return outer };
        let is_ring = |path: &BezPath| {
            path.elements().last() == Some(&PathEl::ClosePath) && path.area().abs() > 1.0
        };
        let (rings, mut rest): (Vec<_>, Vec<_>) =
            paths.into_iter().partition(|(path, _)| is_ring(path));
        let mut rings: Vec<_> = rings.into_iter().map(|own| (own.0.area().abs(), own)).collect();
        rings.sort_by(|(one, _), (other, _)| other.total_cmp(one));
        let mut known: Vec<(Rect, Outline)> = Vec::new();
        for (_, (path, times)) in rings {
            let bounds = path.bounding_box();
            let start = path.elements().first().and_then(PathEl::end_point).unwrap_or_default();
            let is_inside = known.iter().any(|(around, ring)| {
                around.inflate(1e-6, 1e-6).contains_rect(bounds) && ring.holds(start)
            });
            match (!is_inside && known.len() < MOST_OUTER)
                .then(|| Outline::of_path(&path))
                .flatten()
            {
                Some(ring) => {
                    outer.extend(path.iter());
                    known.push((bounds, ring));
                }
                None => rest.push((path, times)),
            }
        }
        // A line that comes from outside of all of them and closes nothing was meant to go around them.
        let around = outer.bounding_box().inflate(1e-3, 1e-3);
        let is_open = |path: &BezPath| path.elements().last() != Some(&PathEl::ClosePath);
        let strays = rest
            .iter()
            .any(|(path, _)| is_open(path) && !around.contains_rect(path.bounding_box()));
        if strays {
            let rings = crate::geometry::contours(&outer).into_iter();
            rest.extend(rings.map(|ring| (ring, 1)));
            outer = BezPath::new();
        }
        if !rest.is_empty() {
            self.kinds.insert(kind, rest);
        }
        outer
    }
}

/// The least distance between two loose ends, those of one line apart.
fn least_gap(loose: &[Point]) -> Option<f64> {
    let ends = &loose[..loose.len().min(MOST_LOOSE)];
    let pairs = ends
        .iter()
        .enumerate()
        .flat_map(|(at, one)| ends[at + 1..].iter().map(move |other| one.distance(*other)));
    pairs.filter(|gap| *gap > 0.0).reduce(f64::min)
}
