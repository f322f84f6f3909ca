//! Putting openings, slits and strips onto their panels, and refusing those that meet something.

use kurbo::{Affine, BezPath, PathSeg, Point, Shape, Vec2};

use super::{AddOn, AddOnKind, CARD, CutOut, OFFERED};
use crate::LineKind;
use crate::error::{Change, Faults, InputError, Remedy};
use crate::form::Part;
use crate::geometry::between;
use crate::geometry::{Outline, flattened, gap};
use crate::stroke::{Perforation, Stroke, StrokeSource};
use crate::units::{Unit, measure};

/// Puts every other add-on on its panel, and refuses those that meet something.
pub(in crate::form) fn place(
    add_ons: &[AddOn],
    parts: &mut [Part],
    faults: &mut Faults,
    unit: Unit,
) -> Vec<CutOut> {
    let mut cut_outs = Vec::new();
    let mut sought = 0;
    for (index, add_on) in add_ons.iter().enumerate() {
        if add_on.kind == AddOnKind::ThumbNotch || !add_on.in_range(index, faults, unit) {
            continue;
        }
        let found = parts.iter_mut().enumerate().find_map(|(at, part)| {
            let panel = part.panels.iter().find(|panel| panel.name == add_on.panel)?;
            let outline = panel.outline.clone();
            Some((at, part, outline))
        });
        let Some((at, part, outline)) = found else {
            faults.add(add_on.missing(index));
            continue;
        };
        if add_on.kind == AddOnKind::TearStrip {
            match tear_strip(add_on, index, &outline) {
                Some(strokes) => part.strokes.extend(strokes),
                None => faults.add(off_the_panel(add_on, index, &outline, unit)),
            }
            continue;
        }
        let taken = match add_on.own.as_ref().map(|own| (own, own.taken(add_on, index))) {
            Some((_, Err(error))) => {
                faults.add(error);
                continue;
            }
            Some((own, Ok(taken))) => Some((own, taken)),
            None => None,
        };
        let shape = taken.as_ref().map_or_else(|| add_on.path(), |(_, taken)| taken.path.clone());
        let put = |across: f64, along: f64, share: f64| {
            let middle = outline.bounding_box().center();
            let at = middle + Vec2::new(across, along);
            Affine::translate(at.to_vec2()) * Affine::scale(share) * shape.clone()
        };
        let path = put(add_on.across, add_on.along, 1.0);
        let left = clearance(&path, &outline, part, 0.0);
        if left < CARD - 1e-6 {
            sought += 1;
            let fits = |across, along, share| {
                sought <= MOST_SOUGHT
                    && clearance(&put(across, along, share), &outline, part, CARD) >= CARD
            };
            faults.add(refused(add_on, index, left, unit, fits));
            // What is refused is no reason to refuse the next.
            continue;
        }
        let source = StrokeSource::AddOn(index);
        let Some((own, taken)) = taken else {
            part.strokes.push(Stroke::new(format!("add-on-{index}"), LineKind::Cut, path, source));
            continue;
        };
        let middle = outline.bounding_box().center() + Vec2::new(add_on.across, add_on.along);
        let mut cut_out = own.cut(&taken, Affine::translate(middle.to_vec2()));
        (cut_out.add_on, cut_out.part) = (index, at);
        for (number, cut) in cut_out.cuts.iter().enumerate() {
            let id = format!("add-on-{index}-{number}");
            part.strokes.push(Stroke::new(id, LineKind::Cut, cut.clone(), source.clone()));
        }
        cut_outs.push(cut_out);
    }
    cut_outs
}

/// A way out is worked out for so many refused add-ons: the others are looked at again when these are mended.
const MOST_SOUGHT: u32 = 4;

/// The two perforations across the panel, from edge to edge.
fn tear_strip(add_on: &AddOn, index: usize, outline: &BezPath) -> Option<Vec<Stroke>> {
    let middle = outline.bounding_box().center().y + add_on.along;
    let pattern = Perforation {
        cut: add_on.cut.unwrap_or(Perforation::STANDARD.cut),
        tie: add_on.tie.unwrap_or(Perforation::STANDARD.tie),
    };
    let ring = flattened(outline).into_iter().next()?;
    [("upper", middle - add_on.height / 2.0), ("lower", middle + add_on.height / 2.0)]
        .into_iter()
        .map(|(which, y)| {
            let next = ring.iter().cycle().skip(1);
            let mut hits: Vec<f64> = ring
                .iter()
                .zip(next)
                .filter(|(a, b)| (a.y > y) != (b.y > y))
                .map(|(a, b)| a.x + (b.x - a.x) * (y - a.y) / (b.y - a.y))
                .collect();
            hits.sort_by(f64::total_cmp);
            let (from, to) = (*hits.first()?, *hits.last()?);
            let line = kurbo::Line::new(Point::new(from, y), Point::new(to, y));
            let path = BezPath::from_path_segments(std::iter::once(PathSeg::Line(line)));
            let (id, source) = (format!("add-on-{index}-{which}"), StrokeSource::AddOn(index));
            Some(Stroke::new(id, LineKind::Perforation, path, source).with_pattern(pattern))
        })
        .collect()
}

fn off_the_panel(add_on: &AddOn, index: usize, outline: &BezPath, unit: Unit) -> InputError {
    let high = outline.bounding_box().height();
    // Card on both sides of a strip, as round any opening.
    let most = ((high - 2.0 * CARD) * OFFERED).floor() / OFFERED;
    let set = |key: &str, value: f64| Change::new(&AddOn::field(index, key), value);
    let remedy = if add_on.height <= most {
        Remedy { text: "Put it in the middle".to_owned(), changes: vec![set("along", 0.0)] }
    } else if most >= 0.5 {
        Remedy {
            text: format!("Make it {} high, in the middle", measure(most, unit)),
            changes: vec![set("along", 0.0), set("height", most)],
        }
    } else {
        Remedy::advice("Choose a higher panel for it, or take it away")
    };
    InputError::new(
        &AddOn::field(index, "along"),
        format!(
            "{} of {} leaves {}, which is {} high",
            add_on.kind.name(),
            measure(add_on.height, unit),
            add_on.panel,
            measure(high, unit)
        ),
        add_on.along,
        remedy,
    )
}

/// The least distance to the panel's sides and to other lines; negative where it leaves the panel. Once one
/// is nearer than `enough` the others are not looked at.
fn clearance(path: &BezPath, outline: &BezPath, part: &Part, enough: f64) -> f64 {
    let own = path.bounding_box();
    let mut least = f64::MAX;
    for other in part.strokes.iter().map(|stroke| &stroke.path).chain([outline]) {
        // Boxes are never further apart than what they hold.
        let theirs = other.bounding_box();
        if between(own, theirs) < least {
            least = least.min(gap(path, other));
        }
        if least < enough {
            return least;
        }
    }
    let points: Vec<Point> = flattened(path).into_iter().flatten().collect();
    let panel = Outline::of_path(outline);
    let is_inside = |point: &Point| panel.as_ref().is_some_and(|panel| panel.holds(*point));
    let is_free = |stroke: &Stroke| {
        !stroke.is_closed()
            || Outline::of_path(&stroke.path)
                .is_none_or(|hole| !points.iter().any(|point| hole.holds(*point)))
    };
    if points.iter().all(is_inside) && part.strokes.iter().all(is_free) { least } else { -least }
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
    // Towards the middle one way, and only then both.
    let (across, along) = (add_on.across, add_on.along);
    let ways: [fn(f64) -> [f64; 2]; 3] = [|s| [s, 1.0], |s| [1.0, s], |s| [s, s]];
    let nearer = ways.into_iter().find_map(|way| {
        let mut tried = (round(across), round(along));
        (1..=40).map(|step| way(1.0 - f64::from(step) / 40.0)).find_map(|[right, down]| {
            let at = (round(across * right), round(along * down));
            if at == std::mem::replace(&mut tried, at) {
                return None;
            }
            fits(at.0, at.1, 1.0).then_some(at)
        })
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
        let (width, height) = (down(add_on.width).max(0.5), down(add_on.height).max(0.5));
        let [has_width, has_height] = add_on.kind.measures();
        let sizes = [("width", width, has_width), ("height", height, has_height)];
        let sizes = sizes.into_iter().filter(|(.., is_had)| *is_had);
        let shown: Vec<String> = sizes
            .clone()
            .map(|(key, mm, _)| {
                format!("{} {}", show(mm), if key == "width" { "wide" } else { "high" })
            })
            .collect();
        let mut changes = vec![set("across", 0.0), set("along", 0.0)];
        changes.extend(sizes.map(|(key, mm, _)| set(key, mm)));
        Remedy { text: format!("Make it {}, in the middle", shown.join(", ")), changes }
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
