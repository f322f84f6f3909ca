//! What holds pieces in their sheet and what divides the waste: nicks, perforated outlines, weeding lines.

use aptum_core::LineKind;
use aptum_core::check::State;
use aptum_core::form::catalogue::CATALOGUE;
use aptum_core::form::{Form, Role};
use aptum_core::geometry::{BezPath, Point, Rect, Shape, circle, flattened_to, polygon};
use aptum_core::job::{JobPiece, Nicks, Weeding};
use aptum_core::stroke::Perforation;
use aptum_core::tooling::{ToolPath, nick_places, weeding, without_nicks};
use aptum_core::units::Unit;
use aptum_core::{Job, prepare};
use kurbo::{ParamCurve, ParamCurveNearest};
use proptest::prelude::*;

use super::tooling::{job, path, workshop};

fn long(line: &[Point]) -> f64 {
    line.windows(2).map(|pair| pair[0].distance(pair[1])).sum()
}

/// How far tools go along lines of the job, the turning of the blade in the waste not counted.
fn cut(path: &ToolPath, kind: LineKind) -> f64 {
    let own = path.stretches.iter().filter(|own| own.stroke.is_some());
    own.filter(|own| path.worked[own.operation].operation.kind == kind)
        .map(|own| long(&own.line))
        .sum()
}

fn labels(width: f64, height: f64, copies: u32) -> Job {
    let mut job = job("plant-tag");
    job.sheet.kept = None;
    let figures = [("width", width), ("height", height), ("rounding", 0.0)];
    job.pieces = vec![JobPiece::new("p1", Form::new("label-rounded", &figures), "kraft-300")];
    job.pieces[0].copies = copies;
    job
}

#[test]
fn nicks_leave_what_they_are_asked_to() {
    let square = Rect::new(0.0, 0.0, 30.0, 30.0).to_path(0.1);
    let ring: f64 = 120.0;
    for count in 1..=9 {
        let form =
            Form::new("label-rounded", &[("width", 30.0), ("height", 30.0), ("rounding", 0.0)]);
        let flat = form.draw(0.3, Unit::Mm).unwrap();
        let nicks = Nicks { width: 0.4, count, every: None, seen: false };
        let places = nick_places(&flat.parts[0], &nicks);
        assert_eq!(places.len(), count as usize);
        let parts = without_nicks(&square, &places, 0.4);
        assert_eq!(parts.len(), count as usize);
        let cut: f64 =
            parts.iter().flat_map(|part| flattened_to(part, 0.01)).map(|part| long(&part)).sum();
        assert!((cut - (ring - 0.4 * f64::from(count))).abs() < 1e-6, "{count}: {cut}");
        // None at a corner.
        for place in &places {
            let corner = [(0.0, 0.0), (30.0, 0.0), (30.0, 30.0), (0.0, 30.0)]
                .map(|corner| Point::from(corner).distance(*place));
            assert!(corner.iter().all(|far| *far > 2.1), "{place:?}");
        }
    }
    // A round has no straight stretch: its nicks lie evenly.
    let places = [Point::new(10.0, 0.0), Point::new(-10.0, 0.0)];
    let parts = without_nicks(&circle(Point::ZERO, 10.0), &places, 1.0);
    let cut: f64 =
        parts.iter().flat_map(|part| flattened_to(part, 0.001)).map(|part| long(&part)).sum();
    assert!((cut - (20.0 * std::f64::consts::PI - 2.0)).abs() < 0.01, "{cut}");
}

/// On every structure: nicks lie on the outline, off its corners and off the ends of creases, and no two are one.
#[test]
fn nicks_lie_on_straight_stretches_of_every_structure() {
    for structure in CATALOGUE.iter() {
        let flat = Form::new(structure.id, &[]).draw(0.3, Unit::Mm).unwrap();
        for part in flat.parts.iter().filter(|part| part.edge == LineKind::Cut) {
            let places =
                nick_places(part, &Nicks { width: 0.4, count: 6, every: None, seen: false });
            let rings = flattened_to(&part.outline, 0.01);
            let around: f64 = rings.iter().map(|ring| long(ring)).sum();
            assert!(places.len() >= 6 || around < 60.0, "{}: {}", structure.id, places.len());
            for (at, place) in places.iter().enumerate() {
                let near = rings.iter().flat_map(|ring| {
                    let closed = ring.iter().chain(ring.first());
                    let closed: Vec<Point> = closed.copied().collect();
                    closed.windows(2).map(|two| off(*place, two)).collect::<Vec<_>>()
                });
                assert!(near.fold(f64::INFINITY, f64::min) < 0.02, "{}", structure.id);
                for other in &places[at + 1..] {
                    assert!(place.distance(*other) > 0.8, "{}: {place:?} {other:?}", structure.id);
                }
                let hinges = part.strokes.iter().filter(|own| own.kind == LineKind::Crease);
                for hinge in hinges.flat_map(|own| flattened_to(&own.path, 0.01)) {
                    for end in [hinge[0], *hinge.last().unwrap()] {
                        assert!(
                            end.distance(*place) > 0.45,
                            "{}: a nick at a crease",
                            structure.id
                        );
                    }
                }
            }
        }
    }
}

fn off(at: Point, two: &[Point]) -> f64 {
    let along = two[1] - two[0];
    let share = ((at - two[0]).dot(along) / along.hypot2().max(1e-18)).clamp(0.0, 1.0);
    (two[0] + along * share).distance(at)
}

#[test]
fn touching_copies_are_cut_apart_once_and_nicks_hold_them() {
    let workshop = workshop();
    let mut job = labels(40.0, 30.0, 6);
    job.sheet.spacing = 0.0;
    let (_, whole) = path(&job, &workshop);
    assert!(whole.left_out >= 30.0, "copies that touch share their edges: {}", whole.left_out);
    let touching = cut(&whole, LineKind::Cut);
    job.tooling.nicks = Some(Nicks { width: 0.5, count: 4, every: None, seen: false });
    let (_, held) = path(&job, &workshop);
    let open = touching - cut(&held, LineKind::Cut);
    // Shared edges carry the nicks of both, which lie on each other where the copies are alike.
    assert!(open > 6.0 * 4.0 * 0.5 * 0.5 && open < 6.0 * 4.0 * 0.5 + 1e-6, "{open}");

    job.sheet.spacing = 3.0;
    let (_, held) = path(&job, &workshop);
    job.tooling.nicks = None;
    let (_, bare) = path(&job, &workshop);
    let open = cut(&bare, LineKind::Cut) - cut(&held, LineKind::Cut);
    assert!((open - 6.0 * 4.0 * 0.5).abs() < 1e-6, "{open}");
    // At a distance: 140 mm around, at most 20 apart, are seven.
    job.tooling.nicks = Some(Nicks { width: 0.5, count: 1, every: Some(20.0), seen: false });
    let (_, held) = path(&job, &workshop);
    let open = cut(&bare, LineKind::Cut) - cut(&held, LineKind::Cut);
    assert!((open - 6.0 * 7.0 * 0.5).abs() < 1e-6, "{open}");
}

#[test]
fn an_outline_can_be_perforated_but_not_nicked_too() {
    let workshop = workshop();
    let mut job = labels(40.0, 30.0, 2);
    let (_, bare) = path(&job, &workshop);
    job.tooling.perforated = Some(Perforation { cut: 3.0, tie: 1.0 });
    let (_, torn) = path(&job, &workshop);
    let share = cut(&torn, LineKind::Cut) / cut(&bare, LineKind::Cut);
    assert!((share - 0.75).abs() < 0.02, "three parts of four are cut: {share}");
    job.tooling.nicks = Some(Nicks::default());
    let error = prepare(&job, &workshop).unwrap_err().remove(0);
    assert_eq!(error.field, "tooling.perforated");
}

#[test]
fn nicks_that_an_outline_has_no_room_for_are_told() {
    let workshop = workshop();
    let mut job = labels(10.0, 8.0, 2);
    job.tooling.nicks = Some(Nicks { width: 5.0, count: 8, every: None, seen: false });
    let prepared = prepare(&job, &workshop).unwrap();
    let said = prepared.checks.iter().find(|check| check.id == "tooling-nicks").unwrap();
    assert_eq!(said.state, State::Broken);
    assert_eq!(said.remedies[0].changes[0].field, "tooling.nicks.count");
    let job = aptum_core::job::with_changes(&job, &said.remedies[0].changes).unwrap();
    let prepared = prepare(&job, &workshop).unwrap();
    let said = prepared.checks.iter().find(|check| check.id == "tooling-nicks").unwrap();
    assert_eq!(said.state, State::Fits, "{said:?}");
}

#[test]
fn a_weeding_frame_that_leaves_the_window_is_told() {
    let workshop = workshop();
    let mut job = labels(40.0, 30.0, 200);
    job.tooling.weeding = Some(Weeding { frame: 3.0, lines: true });
    let said = |job: &Job| {
        let prepared = prepare(job, &workshop).unwrap();
        prepared.checks.iter().find(|check| check.id == "tooling-weeding").cloned().unwrap()
    };
    job.tooling.weeding = Some(Weeding { frame: 50.0, lines: true });
    let past = said(&job);
    assert_eq!(past.state, State::Broken, "{past:?}");
    let eased = aptum_core::job::with_changes(&job, &past.remedies[0].changes).unwrap();
    let eased = match eased.tooling.weeding {
        Some(_) => said(&eased).state,
        None => State::Fits,
    };
    assert_eq!(eased, State::Fits);
}

fn pieces() -> impl Strategy<Value = Vec<Rect>> {
    let one = (0.0..180.0f64, 0.0..250.0f64, 5.0..40.0f64, 5.0..40.0f64)
        .prop_map(|(x, y, wide, high)| Rect::new(x, y, x + wide, y + high));
    prop::collection::vec(one, 1..30)
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(200))]

    /// No cut in the waste crosses a piece, and none leaves the frame.
    #[test]
    fn weeding_lines_cross_no_piece(boxes in pieces(), frame in 1.0..10.0f64) {
        let outlines: Vec<BezPath> = boxes.iter().map(|own| own.to_path(0.1)).collect();
        let cuts = weeding(&outlines, &Weeding { frame, lines: true });
        let around = cuts.iter().find(|cut| cut.name == "weeding-frame").unwrap().path.bounding_box();
        for own in &boxes {
            prop_assert!(around.contains_rect(*own));
            for line in cuts.iter().filter(|cut| cut.name != "weeding-frame") {
                let along = line.path.bounding_box();
                // A straight line along an axis meets a box only where its own bounds do.
                let meets = along.x0 < own.x1 && along.x1 > own.x0 && along.y0 < own.y1 && along.y1 > own.y0;
                prop_assert!(!meets, "{along:?} {own:?}");
                prop_assert!(around.inflate(1e-9, 1e-9).contains_rect(along));
            }
        }
    }
}

#[test]
fn rows_and_columns_are_divided_between() {
    let outlines: Vec<BezPath> = (0..12)
        .map(|at| {
            let (x, y) = (f64::from(at % 3) * 50.0, f64::from(at / 3) * 40.0);
            Rect::new(x, y, x + 45.0, y + 35.0).to_path(0.1)
        })
        .collect();
    let cuts = weeding(&outlines, &Weeding { frame: 3.0, lines: true });
    // Twelve parts take eleven lines, each through one part; and the frame.
    assert_eq!(cuts.len(), 12);
}

/// Diamonds that reach between each other: no straight line passes from side to side.
#[test]
fn waste_is_divided_where_no_straight_line_passes() {
    let (wide, high) = (30.0, 40.0);
    let diamond = |x: f64, y: f64| {
        let ends = [(0.0, -high), (wide, 0.0), (0.0, high), (-wide, 0.0)];
        polygon(&ends.map(|(dx, dy)| Point::new(x + 0.5 * dx, y + 0.5 * dy)))
    };
    let outlines: Vec<BezPath> = (0..20)
        .map(|at| {
            let (column, row) = (f64::from(at % 4), f64::from(at / 4));
            let shift = if at / 4 % 2 == 0 { 0.0 } else { 0.5 * (wide + 8.0) };
            diamond(column * (wide + 8.0) + shift, row * (0.5 * high + 4.0))
        })
        .collect();
    let cuts = weeding(&outlines, &Weeding { frame: 5.0, lines: true });
    let lines: Vec<[Point; 2]> = cuts
        .iter()
        .filter(|cut| cut.name != "weeding-frame")
        .map(|cut| {
            let segment = cut.path.segments().next().unwrap();
            [segment.eval(0.0), segment.eval(1.0)]
        })
        .collect();
    // One to the left and one to the right of each.
    assert_eq!(lines.len(), 40);
    for [from, to] in lines {
        for outline in &outlines {
            let near = (0..=200).map(|at| from.lerp(to, f64::from(at) / 200.0));
            let gap = near.map(|at| {
                let sides = outline.segments().map(|side| side.nearest(at, 1e-6).distance_sq);
                sides.fold(f64::INFINITY, f64::min).sqrt()
            });
            assert!(gap.fold(f64::INFINITY, f64::min) > 0.35, "{from} {to}");
            assert_eq!(outline.winding(from.midpoint(to)), 0);
        }
    }
}

/// What lies in another's opening has no waste about it that could be told from the other's card.
#[test]
fn a_piece_in_anothers_opening_gets_no_lines() {
    let outlines = [
        Rect::new(0.0, 0.0, 60.0, 60.0).to_path(0.1),
        Rect::new(20.0, 20.0, 40.0, 40.0).to_path(0.1),
        Rect::new(30.0, 50.0, 90.0, 90.0).to_path(0.1),
    ];
    let cuts = weeding(&outlines, &Weeding { frame: 4.0, lines: true });
    for cut in cuts.iter().filter(|cut| cut.name != "weeding-frame") {
        let within = Rect::new(0.0, 0.0, 60.0, 60.0);
        assert!(within.intersect(cut.path.bounding_box().inflate(0.0, 1e-3)).area() < 1e-9);
    }
}

/// Nicks keep off the edges that are seen of the closed piece, as long as its flaps hold them all.
#[test]
fn nicks_keep_off_edges_that_are_seen() {
    let flat = job("tomato-carton").pieces[0].form.draw(0.3, Unit::Mm).unwrap();
    let part = &flat.parts[0];
    let flaps = part.panels.iter().filter(|panel| panel.role != Role::Face);
    let sides: Vec<[Point; 2]> = flaps
        .flat_map(|panel| flattened_to(&panel.outline, 0.01))
        .flat_map(|ring| {
            let mut next = ring.clone();
            next.rotate_left(1);
            ring.into_iter().zip(next).map(|(one, other)| [one, other]).collect::<Vec<_>>()
        })
        .collect();
    let is_on_flap = |at: &Point| {
        sides.iter().any(|[one, other]| {
            // On a side where the way over the place is no longer than the side.
            at.distance(*one) + at.distance(*other) - one.distance(*other) < 1e-3
        })
    };
    for count in [1, 4, 12] {
        let nicks = Nicks { count, ..Nicks::default() };
        let places = nick_places(part, &nicks);
        assert_eq!(places.len(), count as usize);
        assert!(places.iter().all(is_on_flap), "{count}: {places:?}");
    }
    let anywhere = nick_places(part, &Nicks { count: 12, seen: true, ..Nicks::default() });
    assert!(anywhere.iter().any(|at| !is_on_flap(at)));
    // At a distance from each other they go all around, and a tag is all seen: there they lie as evenly as ever.
    let every = nick_places(part, &Nicks { every: Some(20.0), ..Nicks::default() });
    assert!(every.iter().any(|at| !is_on_flap(at)));
    let tag = labels(40.0, 30.0, 1).pieces[0].form.draw(0.3, Unit::Mm).unwrap();
    assert_eq!(nick_places(&tag.parts[0], &Nicks::default()).len(), 4);
}
