//! How lines are worked: the path, its times, and the knife that trails.

use aptum_core::check::State;
use aptum_core::error::Setting;
use aptum_core::form::Form;
use aptum_core::form::catalogue::CATALOGUE;
use aptum_core::geometry::{Point, Vec2, flattened_to};
use aptum_core::job::{JobPiece, OperationSay};
use aptum_core::memory::Forgetful;
use aptum_core::tooling::{Stretch, ToolPath, axis_way, overcut, trailed};
use aptum_core::units::Unit;
use aptum_core::workshop::{AllowedBy, Force, ForceUnit, RecordId, Tool, Workshop};
use aptum_core::{Job, LineKind, Prepared, prepare};
use proptest::prelude::*;

/// The demo's records without its recipes, so that what is not said is left to the machine.
pub fn workshop() -> Workshop {
    let mut workshop: Workshop =
        serde_json::from_str(include_str!("../../../../demo/workshop.json")).unwrap();
    workshop.recipes.clear();
    // Its blade is led by Aptum.
    let cutter = workshop.cutters.get_mut(&RecordId::from("reading-room-cutter")).unwrap();
    cutter.knife.allowed_by = AllowedBy::Aptum;
    workshop
}

pub fn job(name: &str) -> Job {
    let folder = concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo/jobs/");
    serde_json::from_str(&std::fs::read_to_string(format!("{folder}{name}.json")).unwrap()).unwrap()
}

pub fn path(job: &Job, workshop: &Workshop) -> (Prepared, ToolPath) {
    let prepared = prepare(job, workshop).unwrap();
    let path = prepared.tool_path(job, workshop, 0, &Forgetful).unwrap().as_ref().clone();
    (prepared, path)
}

/// Where a tip runs that hangs `offset` behind an axis: each small step pulls it towards the axis, which is all that a
/// trailing wheel or blade does (a tractrix). Integrated in steps of 0.005 mm.
fn trailing_tip(way: &[Point], offset: f64, begins: Point) -> Vec<Point> {
    let mut tip = begins;
    let mut tips = vec![tip];
    for pair in way.windows(2) {
        let long = pair[0].distance(pair[1]);
        #[expect(
            clippy::cast_possible_truncation,
            clippy::cast_sign_loss,
            reason = "a sheet’s length"
        )]
        let steps = (long / 0.005).ceil().max(1.0) as u32;
        for step in 1..=steps {
            let axis = pair[0].lerp(pair[1], f64::from(step) / f64::from(steps));
            let behind = tip - axis;
            tip = axis + behind.normalize() * offset;
            tips.push(tip);
        }
    }
    tips
}

/// The greatest distance of points from a line.
fn off(points: &[Point], line: &[Point]) -> f64 {
    let far = |at: &Point| {
        let near = line.windows(2).map(|pair| {
            let along = pair[1] - pair[0];
            let share = ((*at - pair[0]).dot(along) / along.hypot2().max(1e-18)).clamp(0.0, 1.0);
            (pair[0] + along * share).distance(*at)
        });
        near.fold(f64::INFINITY, f64::min)
    };
    points.iter().map(far).fold(0.0, f64::max)
}

const SQUARE: [Point; 5] = [
    Point::new(0.0, 0.0),
    Point::new(30.0, 0.0),
    Point::new(30.0, 30.0),
    Point::new(0.0, 30.0),
    Point::new(0.0, 0.0),
];

/// A blade that is led along the line itself misses a square corner by about two thirds of its offset (derived: the lag of
/// a tractrix round a right angle); with swivels it misses nothing.
#[test]
fn a_trailing_tip_gets_round_corners_only_with_swivels() {
    let offset = 0.25;
    // Where the line itself is sent, the tip hangs behind its first point.
    let tips = trailing_tip(&SQUARE, offset, SQUARE[0] - Vec2::new(offset, 0.0));
    let corner = tips.iter().map(|tip| tip.distance(SQUARE[1])).fold(f64::INFINITY, f64::min);
    assert!((corner / offset - 0.66).abs() < 0.1, "{}", corner / offset);

    // What is drawn of it is the same to a hundredth of a millimetre.
    let drawn = trailed(&SQUARE, offset);
    let missed = drawn.iter().map(|tip| tip.distance(SQUARE[1])).fold(f64::INFINITY, f64::min);
    assert!((missed - corner).abs() < 0.02, "{missed} for {corner}");

    let (way, _) = axis_way(&SQUARE, offset, Vec2::new(1.0, 0.0));
    let tips = trailing_tip(&way, offset, SQUARE[0]);
    assert!(off(&tips, &SQUARE) < 0.01, "{}", off(&tips, &SQUARE));
    let reached = SQUARE[1..4].iter().all(|at| tips.iter().any(|tip| tip.distance(*at) < 0.01));
    assert!(reached, "and reaches every corner");
}

#[test]
fn every_piece_of_the_catalogue_is_cut_true_with_swivels() {
    let offset = 0.25;
    for structure in CATALOGUE.iter() {
        let flat = Form::new(structure.id, &[]).draw(0.3, Unit::Mm).unwrap();
        for part in &flat.parts {
            for ring in flattened_to(&part.outline, 0.01) {
                let line: Vec<Point> = ring.iter().copied().chain(ring.first().copied()).collect();
                let first = (line[1] - line[0]).normalize();
                let (way, _) = axis_way(&line, offset, first);
                let worst = off(&trailing_tip(&way, offset, line[0]), &line);
                assert!(worst < 0.03, "{}: {worst}", structure.id);
            }
        }
    }
}

#[test]
fn a_closed_cut_goes_past_where_it_began() {
    let past = overcut(&SQUARE, 1.5);
    assert_eq!(past.len(), 6);
    assert!((past[5].distance(Point::new(1.5, 0.0))) < 1e-9);
    let far = overcut(&SQUARE, 35.0);
    assert!(far.last().unwrap().distance(Point::new(30.0, 5.0)) < 1e-9);
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(120))]

    /// The blade follows any line, however it lay before.
    #[test]
    fn the_tip_follows_any_line(
        corners in prop::collection::vec((0.0..60.0f64, 0.0..60.0f64), 2..12),
        offset in 0.1..0.6f64,
        heading in 0.0..std::f64::consts::TAU,
    ) {
        let line: Vec<Point> = corners.iter().map(|(x, y)| Point::new(*x, *y)).collect();
        prop_assume!(line.windows(2).all(|pair| pair[0].distance(pair[1]) > 1.0));
        let (way, lies) = axis_way(&line, offset, Vec2::new(heading.cos(), heading.sin()));
        prop_assert!(off(&trailing_tip(&way, offset, line[0]), &line) < 0.03);
        let last = line[line.len() - 1] - line[line.len() - 2];
        prop_assert!((lies - last.normalize()).hypot() < 1e-9);
    }
}

#[test]
fn each_line_is_worked_as_often_as_it_is_asked() {
    let (mut job, workshop) = (job("tomato-carton"), workshop());
    let (prepared, once) = path(&job, &workshop);
    let plan = prepared.plan(&job.tooling, &prepared.layout.runs[0].placements);
    let lines = |path: &ToolPath, kind: LineKind| {
        let own = path.stretches.iter();
        let own = own.filter(|own| own.stroke.is_some());
        own.filter(|own| path.worked[own.operation].operation.kind == kind).count()
    };
    for kind in [LineKind::Crease, LineKind::Cut] {
        assert_eq!(lines(&once, kind), plan.of_kind(kind).count(), "{kind:?}");
    }
    // A blade that Aptum leads is turned once in the waste before its first cut.
    let leads: Vec<&Stretch> = once.stretches.iter().filter(|own| own.stroke.is_none()).collect();
    assert_eq!(leads.len(), 1);
    let (lead, outline) = (leads[0].line[0], &prepared.windows.cut);
    assert!(outline.base.contains(lead));
    let kinds: Vec<LineKind> = once.worked.iter().map(|own| own.operation.kind).collect();
    assert_eq!(kinds, [LineKind::Crease, LineKind::Cut], "what presses first");

    let three = OperationSay { passes: Some(3), speed: Some(20.0), ..OperationSay::default() };
    job.tooling.operations.insert(LineKind::Cut.into(), three);
    let (_, thrice) = path(&job, &workshop);
    assert_eq!(lines(&thrice, LineKind::Cut), 3 * lines(&once, LineKind::Cut));
    assert!(thrice.seconds.unwrap() > 3.0 * once.seconds.unwrap());
    let ends = thrice
        .stretches
        .windows(2)
        .all(|pair| pair[1].begins >= pair[0].begins + pair[0].takes - 1e-9);
    assert!(ends, "one after the other");

    let off = OperationSay { off: true, ..OperationSay::default() };
    job.tooling.operations.insert(LineKind::Crease.into(), off);
    let (prepared, left) = path(&job, &workshop);
    assert_eq!(lines(&left, LineKind::Crease), 0);
    let said = prepared.checks.iter().find(|check| check.id == "tooling-off").unwrap();
    assert_eq!(said.state, State::Attention);
}

#[test]
fn stations_forces_and_stops_are_looked_at() {
    let (mut job, mut workshop) = (job("tomato-carton"), workshop());
    let id = RecordId("desk-cutter".to_owned());
    job.sheet.cutter = Some(id.clone());
    let said = |job: &Job, workshop: &Workshop, id: &str| {
        let prepared = prepare(job, workshop).unwrap();
        prepared.checks.iter().find(|check| check.id == id).cloned()
    };
    // One holder for both: the creaser goes out for the knife.
    let stop = said(&job, &workshop, "tooling-stops").unwrap();
    assert!(stop.verdict.contains("before cut"), "{stop:?}");
    let hard = OperationSay {
        force: Some(Force { amount: 99.0, unit: ForceUnit::Steps }),
        ..OperationSay::default()
    };
    job.tooling.operations.insert(LineKind::Cut.into(), hard);
    let force = said(&job, &workshop, "tooling-force").unwrap();
    assert_eq!(
        (force.state, &force.remedies[0].changes[0].value),
        (State::Broken, &Setting::Number(33.0))
    );
    workshop.cutters.get_mut(&id).unwrap().stations[0].tools = vec![Tool::DragKnife];
    let stations = said(&job, &workshop, "tooling-stations").unwrap();
    assert_eq!(stations.state, State::Broken);
    assert!(stations.verdict.contains("creaser"), "{stations:?}");
    let wrong = OperationSay { passes: Some(0), ..OperationSay::default() };
    job.tooling.operations.insert(LineKind::Cut.into(), wrong);
    let error = prepare(&job, &workshop).unwrap_err().remove(0);
    assert_eq!(error.field, "tooling.operations.cut.passes");
}

/// A straight way of 100 mm at 100 mm/s and 1000 mm/s² takes 1.1 s from rest to rest (s/v + v/a, any handbook of mechanics).
#[test]
fn times_are_those_of_mechanics() {
    let (job, mut workshop) = (job("plant-tag"), workshop());
    let id = job.sheet.cutter.clone().unwrap();
    let cutter = workshop.cutters.get_mut(&id).unwrap();
    cutter.knife.allowed_by = AllowedBy::Machine;
    let pace = cutter.pace.as_mut().unwrap();
    (pace.working, pace.travel, pace.acceleration, pace.lift) = (100.0, 100.0, 1000.0, 0.0);
    let (_, path) = path(&job, &workshop);
    for own in &path.stretches {
        let straight = own.line.len() == 2;
        if straight {
            let far = own.line[0].distance(own.line[1]);
            let wanted = if far >= 10.0 { far / 100.0 + 0.1 } else { 2.0 * (far / 1000.0).sqrt() };
            assert!((own.takes - wanted).abs() < 1e-9);
        }
        let round: f64 = own.line.windows(2).map(|pair| pair[0].distance(pair[1])).sum();
        assert!(own.takes >= round / 100.0, "{} for {round}", own.takes);
    }
    assert!(path.seconds.unwrap() > 1.0);
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(24))]

    /// Every line of a sheet is worked once for each pass that is asked, or its kind is off; the tool is nowhere twice at
    /// once, and what frees a piece comes after all else.
    #[test]
    fn every_line_is_worked_as_often_as_it_is_asked_or_its_kind_is_off(
        which in 0..CATALOGUE.len(),
        copies in 1..5u32,
        passes in 1..4u32,
        off in any::<bool>(),
        spacing in prop_oneof![Just(0.0), 1.0..6.0f64],
    ) {
        let workshop = workshop();
        let mut job = job("tomato-carton");
        job.pieces = vec![JobPiece::new("p1", Form::new(CATALOGUE[which].id, &[]), "kraft-300")];
        job.pieces[0].copies = copies;
        (job.sheet.size.width, job.sheet.size.height) = (900.0, 1200.0);
        (job.sheet.marks, job.sheet.printer, job.sheet.spacing) = (None, None, spacing);
        let cut = OperationSay { passes: Some(passes), ..OperationSay::default() };
        let crease = OperationSay { off, ..OperationSay::default() };
        job.tooling.operations = [(LineKind::Cut.into(), cut), (LineKind::Crease.into(), crease)].into();
        let prepared = prepare(&job, &workshop).unwrap();
        let Some(run) = prepared.layout.runs.first() else { return Ok(()) };
        let plan = prepared.plan(&job.tooling, &run.placements);
        let path = prepared.tool_path(&job, &workshop, 0, &Forgetful).unwrap();
        let long = |line: &[Point]| -> f64 {
            line.windows(2).map(|pair| pair[0].distance(pair[1])).sum()
        };
        for worked in &path.worked {
            let kind = worked.operation.kind;
            let own = path.stretches.iter().filter(|own| {
                own.stroke.is_some() && path.worked[own.operation].operation.kind == kind
            });
            let done: f64 = own.map(|own| long(&own.line)).sum();
            let mut asked = 0.0;
            for stroke in plan.strokes.iter().filter(|stroke| stroke.kind == kind) {
                for mut ring in flattened_to(&stroke.path, 0.01) {
                    if stroke.path.to_svg().trim_end().ends_with('Z') {
                        ring.push(ring[0]);
                    }
                    asked += long(&ring) * f64::from(stroke.times);
                }
            }
            let times = if worked.operation.is_off { 0.0 } else { f64::from(worked.operation.passes) };
            prop_assert!((done - asked * times).abs() < 1e-6 * asked.max(1.0), "{kind:?}: {done} of {asked}");
        }
        for pair in path.stretches.windows(2) {
            prop_assert!(pair[1].begins >= pair[0].begins + pair[0].takes - 1e-9);
            prop_assert!(pair[1].operation >= pair[0].operation);
        }
        if let Some(last) = path.stretches.last() {
            prop_assert_eq!(path.worked[last.operation].operation.kind, *prepared.kinds().last().unwrap());
        }
    }
}
