//! How the copies of a layout stand: inside their windows or not, and how near to each other.

use kurbo::Vec2;

use super::rotation;
use super::{Placement, SheetRun, Windows};
use crate::geometry::{Affine, Outline};
use crate::sheet::Ground;
use crate::sheet::Piece;

/// What is found on all sheets. A copy is named by its run and its place in it.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Standing {
    /// Copies that leave a window.
    pub outside: Vec<(usize, usize)>,
    /// Pairs that overlap: the run, and both copies; no more than [`MOST_PAIRS`] are looked for.
    pub overlapping: Vec<(usize, usize, usize)>,
    /// The least distance between two copies, mm; infinite where none is near.
    pub nearest: f64,
    /// The pair it is between.
    pub pair: Option<(usize, usize, usize)>,
}

/// So many overlapping pairs are found before the search ends: a heap of thousands has millions.
pub(crate) const MOST_PAIRS: usize = 1000;

/// Distances beyond the spacing by more than this are not measured, mm.
const BEYOND: f64 = 3.0;

/// A hundredth of a millimetre: what a search may be off by.
pub(super) const TOLERANCE: f64 = 0.01;

pub(crate) fn standing(ground: &Ground, runs: &[SheetRun], spacing: f64) -> Standing {
    let blanks: Vec<&Piece> = ground.blanks().map(|(piece, at)| &piece.blanks[at]).collect();
    let mut found = Standing { nearest: f64::INFINITY, ..Standing::default() };
    for (number, run) in runs.iter().enumerate() {
        let placed: Vec<Option<Outline>> =
            run.placements.iter().map(|at| outline_at(&blanks, at)).collect();
        for (at, placement) in run.placements.iter().enumerate() {
            let blank = blanks.get(placement.part);
            if blank.is_some_and(|blank| !inside(blank, placement, &ground.windows)) {
                found.outside.push((number, at));
            }
        }
        let mut order: Vec<usize> = (0..placed.len()).filter(|at| placed[*at].is_some()).collect();
        let bounds = |at: usize| placed[at].as_ref().map_or(kurbo::Rect::ZERO, Outline::bounds);
        order.sort_by(|a, b| bounds(*a).x0.total_cmp(&bounds(*b).x0));
        for (rank, one) in order.iter().enumerate() {
            let reach = spacing + BEYOND;
            let near = order[rank + 1..]
                .iter()
                .take_while(|other| bounds(**other).x0 <= bounds(*one).x1 + reach);
            for other in near {
                let (Some(a), Some(b)) = (&placed[*one], &placed[*other]) else { continue };
                if found.overlapping.len() >= MOST_PAIRS {
                    return found;
                }
                let least = found.nearest.min(reach);
                match a.clearance(b, least) {
                    Some(gap) if gap < 0.0 => found.overlapping.push((number, *one, *other)),
                    Some(gap) if gap < found.nearest => {
                        found.nearest = gap;
                        found.pair = Some((number, *one, *other));
                    }
                    _ => {}
                }
            }
        }
    }
    // What a search leaves short of the spacing by its tolerance counts as kept.
    if found.nearest < spacing && found.nearest > spacing - TOLERANCE {
        found.nearest = spacing;
    }
    found
}

/// A blank where a placement has it.
pub(super) fn outline_at(blanks: &[&Piece], at: &Placement) -> Option<Outline> {
    Some(blanks.get(at.part)?.outline().transformed(at.transform()))
}

/// True when a blank lies in its windows by no more than the tolerance outside.
pub(super) fn inside(blank: &Piece, at: &Placement, windows: &Windows) -> bool {
    let turn = Affine::translate(Vec2::ZERO) * rotation(at.turn);
    let lies = |outline: &Outline, window: &super::Window| {
        let turned = outline.transformed(turn);
        // Held a hair smaller about its middle, so that touching the edge is inside.
        let middle = turned.bounds().center().to_vec2();
        let size = turned.bounds().width().max(turned.bounds().height()).max(1e-9);
        let share = (1.0 - 2.0 * TOLERANCE / size).max(0.0);
        let about = Affine::translate(middle) * Affine::scale(share) * Affine::translate(-middle);
        window.holds(&turned.transformed(about), at.x, at.y)
    };
    lies(blank.outline(), &windows.cut)
        && blank.printed().iter().all(|area| lies(area, &windows.print))
}

#[cfg(test)]
mod tests {
    use geo::{Area, BooleanOps, Distance, Euclidean};
    use proptest::prelude::*;

    use super::*;
    use crate::form::Form;
    use crate::memory::Forgetful;
    use crate::records::Records;
    use crate::sheet::Machines;
    use crate::workshop::Workshop;
    use crate::{Job, sheet};

    const SIZE: (f64, f64) = (38.0, 92.0);

    fn job(spacing: f64) -> Job {
        let mut job: Job =
            serde_json::from_str(include_str!("../../../../demo/jobs/plant-tag.json")).unwrap();
        job.pieces[0].form =
            Form::new("tag", &[("width", SIZE.0), ("height", SIZE.1), ("hole", 0.0)]);
        job.pieces[0].face = None;
        job.sheet = sheet::SheetPlan { cutter: None, printer: None, marks: None, ..job.sheet };
        job.sheet.spacing = spacing;
        job
    }

    /// The tag where a placement has it, by trigonometry of its own.
    fn placed(at: &Placement) -> geo::Polygon<f64> {
        let (sin, cos) = at.turn.to_radians().sin_cos();
        let corners = [(0.0, 0.0), (SIZE.0, 0.0), SIZE, (0.0, SIZE.1)];
        let ring = corners.map(|(x, y)| (at.x + x * cos - y * sin, at.y + x * sin + y * cos));
        geo::Polygon::new(ring.to_vec().into(), Vec::new())
    }

    proptest! {
        #![proptest_config(ProptestConfig::with_cases(150))]

        /// Judged by geo: what is outside, what overlaps, and how near the nearest two are. Within a few hundredths
        /// of a millimetre either answer is right.
        #[test]
        fn copies_stand_as_geo_sees_them(
            places in prop::collection::vec((-20.0..290.0f64, -20.0..410.0f64, 0.0..360.0f64), 2..9),
            spacing in 0.0..4.0f64,
        ) {
            let workshop: Workshop =
                serde_json::from_str(include_str!("../../../../demo/workshop.json")).unwrap();
            let job = job(spacing);
            let records = Records::of(&job, &workshop).unwrap();
            let ground = Ground::new(&job, &records, &Forgetful).unwrap();
            prop_assert_eq!(ground.windows.cut.base, Machines::default().windows(
                job.sheet.page(), job.sheet.orientation, &sheet::Marks::default()).cut.base);
            let placements: Vec<Placement> = places
                .iter()
                .map(|(x, y, turn)| Placement { x: *x, y: *y, turn: *turn, ..Placement::default() })
                .collect();
            let runs = [SheetRun { sheets: 1, placements: placements.clone() }];
            let found = standing(&ground, &runs, spacing);
            let copies: Vec<_> = placements.iter().map(placed).collect();
            let (width, height) = (job.sheet.size.width, job.sheet.size.height);
            for (number, copy) in copies.iter().enumerate() {
                let room = copy.exterior().coords().map(|corner| {
                    corner.x.min(corner.y).min(width - corner.x).min(height - corner.y)
                });
                let room = room.fold(f64::INFINITY, f64::min);
                let is_outside = found.outside.contains(&(0, number));
                prop_assert!(room.abs() < 0.05 || is_outside == (room < 0.0), "{room}: {is_outside}");
            }
            let mut nearest = f64::INFINITY;
            let mut touches = false;
            for (number, one) in copies.iter().enumerate() {
                for (other_number, other) in copies.iter().enumerate().skip(number + 1) {
                    let common = one.intersection(other).unsigned_area();
                    let said = found.overlapping.iter().any(|(_, a, b)| {
                        (*a.min(b), *a.max(b)) == (number, other_number)
                    });
                    if common > 0.5 {
                        prop_assert!(said, "{common} mm² in common");
                    }
                    let gap = Euclidean.distance(one, other);
                    if gap > 0.01 {
                        prop_assert!(!said, "{gap} mm apart");
                        nearest = nearest.min(gap);
                    } else {
                        touches |= !said;
                    }
                }
            }
            let is_measured = nearest < spacing + BEYOND - 0.02;
            if touches {
                // Within a hundredth of a millimetre either answer is right; both are nearly nothing.
                prop_assert!(found.nearest < 0.022, "{} though two touch", found.nearest);
            } else if is_measured {
                prop_assert!((found.nearest - nearest).abs() < 0.011, "{} of {nearest}", found.nearest);
            } else {
                prop_assert!(found.nearest > spacing + BEYOND - 0.05, "{} of {nearest}", found.nearest);
            }
        }
    }

    #[test]
    fn what_a_search_leaves_short_by_a_hundredth_counts_as_kept() {
        let workshop: Workshop =
            serde_json::from_str(include_str!("../../../../demo/workshop.json")).unwrap();
        let job = job(2.0);
        let records = Records::of(&job, &workshop).unwrap();
        let ground = Ground::new(&job, &records, &Forgetful).unwrap();
        let nearest = |gap: f64| {
            let at = |x: f64| Placement { x, y: 50.0, turn: 0.0, ..Placement::default() };
            let placements = vec![at(50.0), at(50.0 + SIZE.0 + gap)];
            standing(&ground, &[SheetRun { sheets: 1, placements }], 2.0).nearest
        };
        assert_eq!(nearest(1.995), 2.0);
        assert!((nearest(1.98) - 1.98).abs() < 1e-9);
        assert!((nearest(2.5) - 2.5).abs() < 1e-9);
        assert!(nearest(40.0).is_infinite());
    }
}
