//! Outlines from pictures: what is said of bad ones, corrections by hand, holes to hang them by, a piece for each motif.

use aptum_core::blob::BlobId;
use aptum_core::check::State;
use aptum_core::error::Setting;
use aptum_core::form::{Eye, Flat, Form, Found, Looked, Mend, StickerCard, Traced};
use aptum_core::geometry::{BezPath, Point, Rect, Region, Shape, circle, polygon};
use aptum_core::job::with_edits;
use aptum_core::pixels::Pixels;
use aptum_core::trace::{InsideBy, Outlined, Seen, Trace, TraceError, Tracing, View};
use aptum_core::units::Unit;
use aptum_core::{Check, Job, LineKind};
use proptest::prelude::*;

use crate::borders::traced;

/// A picture of so many pixels, each as told.
fn picture(width: usize, height: usize, pixel: impl Fn(usize, usize) -> [u8; 4]) -> Pixels {
    let raw = (0..height).flat_map(|y| (0..width).flat_map(move |x| [(x, y)]));
    let raw = raw.flat_map(|(x, y)| pixel(x, y)).collect();
    Pixels::new(width, height, raw).unwrap()
}

fn look(pixels: &Pixels, how: &Trace, width: f64) -> Result<Tracing, TraceError> {
    let sides = pixels.sides().map(|side| u32::try_from(side).unwrap());
    let view = View::of(sides, how, width, None);
    Tracing::of(&Seen::new(pixels, &how.by, view).unwrap(), how, width)
}

const CLEAR: [u8; 4] = [0; 4];
const INK: [u8; 4] = [30, 60, 40, 255];

/// Covered where one of some discs is; a pixel at an edge in part.
fn discs(side: usize, all: &[(f64, f64, f64)]) -> Pixels {
    picture(side, side, |x, y| {
        let (x, y) = (real(x) + 0.5, real(y) + 0.5);
        let over =
            |(cx, cy, r): &(f64, f64, f64)| (r - (x - cx).hypot(y - cy) + 0.5).clamp(0.0, 1.0);
        let most = all.iter().map(over).fold(0.0, f64::max);
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "0 to 255")]
        let alpha = (most * 255.0).round() as u8;
        [INK[0], INK[1], INK[2], alpha]
    })
}

#[expect(clippy::cast_precision_loss, reason = "pixels")]
fn real(count: usize) -> f64 {
    count as f64
}

fn form(tracing: Tracing, pixels: &Pixels, width: f64) -> Form {
    let sides = pixels.sides().map(|side| u32::try_from(side).unwrap());
    let mut own = Traced::new(BlobId("0".repeat(64)), sides, width, Trace::default());
    own.found = Found(Some(Looked(Ok(tracing)).into()));
    Form::of_picture(own)
}

fn check<'a>(checks: &'a [Check], id: &str) -> &'a Check {
    checks.iter().find(|check| check.id == id).unwrap_or_else(|| {
        panic!("{id} among {:?}", checks.iter().map(|check| &check.id).collect::<Vec<_>>())
    })
}

#[test]
fn pictures_that_show_nothing_or_everything_are_told() {
    let how = Trace::default();
    let clear = picture(60, 40, |_, _| CLEAR);
    assert_eq!(look(&clear, &how, 50.0), Err(TraceError::Even));
    let dark = Trace { by: InsideBy::Darkness, threshold: Some(0.9), ..how.clone() };
    let grey = picture(60, 40, |x, _| if x < 30 { [120, 120, 120, 255] } else { [250; 4] });
    let Err(TraceError::Nothing { proposed }) = look(&grey, &dark, 50.0) else { panic!("nothing") };
    let again = Trace { threshold: Some(proposed), ..dark };
    assert_eq!(look(&grey, &again, 50.0).unwrap().outlines.len(), 1, "the remedy works");

    let full = picture(60, 40, |_, _| INK);
    let tracing = look(&full, &how, 60.0).unwrap();
    assert!(tracing.swallows());
    let area = tracing.outlines[0].outer.area();
    assert!((area - 2400.0).abs() < 2.0, "up to the picture's edge: {area}");
    let flat = form(tracing, &full, 60.0).draw(0.3, Unit::Mm).unwrap();
    assert_eq!(check(&flat.checks, "trace-inside").state, State::Broken);

    let dot = picture(1, 1, |_, _| INK);
    assert!(look(&dot, &Trace { least: 0.0, ..how.clone() }, 10.0).is_ok());
    let small = discs(100, &[(50.0, 50.0, 3.0)]);
    let lost = look(&small, &Trace { least: 50.0, ..how }, 30.0);
    let Err(TraceError::AllTooSmall { largest }) = lost else { panic!("{lost:?}") };
    let true_area = std::f64::consts::PI * 9.0 * 0.09;
    assert!((largest - true_area).abs() < 0.05 * true_area, "{largest}");
}

#[test]
fn noise_is_bounded_and_told() {
    let mut seed = 7u32;
    let mut values = Vec::new();
    for _ in 0..600 * 600 {
        seed = seed.wrapping_mul(1_664_525).wrapping_add(1_013_904_223);
        values.push(u8::try_from(seed >> 24).unwrap());
    }
    let noise = picture(600, 600, |x, y| {
        let own = values[y * 600 + x];
        [own, own, own, 255]
    });
    let how = Trace { by: InsideBy::Darkness, least: 0.0, ..Trace::default() };
    let tracing = look(&noise, &how, 100.0).unwrap();
    assert_eq!(tracing.outlines.len(), aptum_core::trace::MOST_OUTLINES);
    assert!(tracing.too_many > 1000, "{}", tracing.too_many);
    let flat = form(tracing, &noise, 100.0).draw(0.3, Unit::Mm).unwrap();
    let crumbs = check(&flat.checks, "trace-crumbs");
    assert_eq!(crumbs.state, State::Broken);
    assert!(!crumbs.remedies.is_empty());
}

#[test]
fn a_texture_is_told_and_so_are_holes_that_are_too_many() {
    // A comb with teeth two pixels wide: one outline of more points than are followed.
    let comb = picture(900, 800, |x, y| if y < 20 || x % 4 < 2 { INK } else { CLEAR });
    let how = Trace { least: 0.0, holes: true, ..Trace::default() };
    let tracing = look(&comb, &how, 120.0).unwrap();
    assert_eq!((tracing.outlines.len(), tracing.coarse), (1, 1));
    let mut traced = form(tracing, &comb, 120.0);
    traced.traced_mut().unwrap().trace.holes = true;
    let flat = traced.draw(0.3, Unit::Mm).unwrap();
    let motifs = check(&flat.checks, "trace-crumbs");
    assert_eq!(motifs.state, State::Attention);
    assert_eq!(motifs.verdict, "1 is too fine to be followed");
    assert!(motifs.remedies.iter().any(|own| own.text.contains("without holes")), "{motifs:?}");

    // A sieve of 10,000 holes: none is followed, and all are told.
    let sieve =
        picture(
            900,
            900,
            |x, y| if x % 9 < 4 && y % 9 < 4 && x > 8 && y > 8 { CLEAR } else { INK },
        );
    let tracing = look(&sieve, &how, 200.0).unwrap();
    assert_eq!((tracing.outlines.len(), tracing.outlines[0].holes.len()), (1, 0));
    assert_eq!(tracing.left_out, 99 * 99);
    let flat = form(tracing, &sieve, 200.0).draw(0.3, Unit::Mm).unwrap();
    let motifs = check(&flat.checks, "trace-crumbs");
    assert_eq!(motifs.state, State::Attention);
    assert!(!motifs.remedies.is_empty());
}

#[test]
fn parts_gaps_and_one_motif_of_several() {
    let pixels = discs(400, &[(100.0, 100.0, 60.0), (240.0, 100.0, 60.0), (200.0, 300.0, 70.0)]);
    let all = look(&pixels, &Trace::default(), 100.0).unwrap();
    assert_eq!(all.outlines.len(), 3);
    // The first two are 20 px, 5 mm, apart.
    let joined = look(&pixels, &Trace { gap: 8.0, ..Trace::default() }, 100.0).unwrap();
    assert_eq!(joined.outlines.len(), 2);
    let apart = look(&pixels, &Trace { gap: 4.6, ..Trace::default() }, 100.0).unwrap();
    assert_eq!(apart.outlines.len(), 3);
    // What closes a gap moves no line elsewhere: discs of 15 and 17.5 mm keep their area.
    let area = |own: &Outlined| own.outer.area().abs();
    for tracing in [&joined, &apart] {
        let least = tracing.outlines.iter().map(area).fold(f64::INFINITY, f64::min);
        let wanted = if tracing.outlines.len() == 2 { 17.5 } else { 15.0f64 };
        let wanted = wanted.powi(2) * std::f64::consts::PI;
        assert!((least / wanted - 1.0).abs() < 0.002, "{least} for {wanted}");
    }
    let around = Trace { around: Some([0.5, 0.75]), ..Trace::default() };
    let one = look(&pixels, &around, 100.0).unwrap();
    assert_eq!(one.outlines.len(), 1);
    let bounds = one.outlines[0].outer.bounding_box();
    assert!((bounds.center() - Point::new(50.0, 75.0)).hypot() < 0.05, "{bounds:?}");
    let part = Trace { part: Some([0.0, 0.0, 0.44, 0.5]), ..Trace::default() };
    let one = look(&pixels, &part, 100.0).unwrap();
    assert_eq!(one.outlines.len(), 1);
    assert!(
        (one.outlines[0].outer.bounding_box().center() - Point::new(25.0, 25.0)).hypot() < 0.05
    );
    // Places of motifs lie in them.
    for ([x, y], own) in all.places([100.0, 100.0]).iter().zip(&all.outlines) {
        assert!(Region::inside(&own.outer).holds(Point::new(x * 100.0, y * 100.0)));
    }
}

#[test]
fn a_ring_has_a_hole_where_holes_are_followed() {
    let pixels = picture(300, 300, |x, y| {
        let off = (real(x) - 149.5).hypot(real(y) - 149.5);
        if (60.0..120.0).contains(&off) { INK } else { CLEAR }
    });
    let holes = |holes| look(&pixels, &Trace { holes, ..Trace::default() }, 60.0).unwrap();
    assert!(holes(false).outlines[0].holes.is_empty());
    let ring = holes(true);
    let [own] = ring.outlines.as_slice() else { panic!("one ring") };
    let [hole] = own.holes.as_slice() else { panic!("one hole") };
    assert!(own.outer.area() > 0.0 && hole.area() < 0.0, "with the clock, and against it");
    let (outer, inner) = (Region::inside(&own.outer), Region::inside(hole));
    assert!(inner.minus(&outer).is_empty());
    let wanted = std::f64::consts::PI * 144.0;
    assert!((inner.area() - wanted).abs() < 0.01 * wanted, "{}", inner.area());
}

#[test]
fn corrections_stay_where_they_make_sense_and_are_dropped_where_not() {
    let square =
        polygon(&[(20.0, 20.0), (80.0, 20.0), (80.0, 80.0), (20.0, 80.0)].map(Point::from));
    let mut own = traced(vec![Outlined { outer: square, holes: Vec::new() }]);
    let area = |own: &Traced| {
        let flat = Form::of_picture(own.clone()).draw(0.3, Unit::Mm).unwrap();
        (flat.parts[0].area(), flat.traced.unwrap().dropped)
    };
    own.mends = vec![Mend::Push { at: [0.8, 0.2], by: [0.1, 0.0] }];
    // A triangle of 10 × 60 is gained.
    assert!((area(&own).0 - 3900.0).abs() < 0.01);
    own.mends.push(Mend::Fill { points: vec![[0.2, 0.5], [0.1, 0.5]], width: 0.1 });
    let bar = 50.0 + std::f64::consts::PI * 25.0 / 2.0 + 50.0;
    assert!((area(&own).0 - 3900.0 - bar).abs() < 0.3, "{}", area(&own).0);
    own.mends.push(Mend::Cut { points: vec![[0.15, 0.4], [0.15, 0.6]], width: 0.02 });
    let (left, dropped) = area(&own);
    assert!(left < 3900.0 + 60.0 && dropped.is_empty(), "the crumb is gone: {left}");
    // A node that is far off, a bay that is full, a smoothing of nothing.
    own.mends.push(Mend::Drop { at: [0.5, 0.5] });
    own.mends.push(Mend::Fill { points: vec![[0.5, 0.5]], width: 0.05 });
    own.mends.push(Mend::Smooth { at: [0.5, 0.5], within: 0.05 });
    assert_eq!(area(&own).1, [3, 4, 5]);
    let flat = Form::of_picture(own.clone()).draw(0.3, Unit::Mm).unwrap();
    assert_eq!(check(&flat.checks, "trace-mends").state, State::Attention);
    // Two that cross: the second finds the line as the first left it, and is dropped where it would cross itself.
    own.mends = vec![
        Mend::Push { at: [0.8, 0.2], by: [-0.5, 0.5] },
        Mend::Push { at: [0.2, 0.2], by: [0.5, 0.3] },
    ];
    let (_, dropped) = area(&own);
    assert_eq!(dropped, [1]);
}

#[test]
fn a_node_that_is_taken_away_leaves_its_neighbours() {
    let disc = circle(Point::new(50.0, 50.0), 20.0);
    let nodes = disc.segments().count();
    let mut own = traced(vec![Outlined { outer: disc.clone(), holes: Vec::new() }]);
    for element in disc.elements().iter().filter_map(kurbo_end) {
        own.mends = vec![Mend::Drop { at: [element.x / 100.0, element.y / 100.0] }];
        let flat = Form::of_picture(own.clone()).draw(0.3, Unit::Mm).unwrap();
        let facts = flat.traced.as_ref().unwrap();
        assert!(facts.dropped.is_empty(), "{element:?}");
        assert_eq!(facts.nodes, nodes - 1);
        assert!((flat.parts[0].area() / (400.0 * std::f64::consts::PI) - 1.0).abs() < 0.1);
    }
}

fn kurbo_end(element: &aptum_core::geometry::PathEl) -> Option<Point> {
    use aptum_core::geometry::PathEl;
    match element {
        PathEl::MoveTo(end) | PathEl::CurveTo(_, _, end) => Some(*end),
        _ => None,
    }
}

#[test]
fn a_hole_to_hang_it_by_keeps_its_distance_from_the_edge() {
    let disc = circle(Point::new(50.0, 50.0), 30.0);
    for (tab, x) in [(false, 0.0), (true, 0.0), (true, 6.0)] {
        let mut own = traced(vec![Outlined { outer: disc.clone(), holes: Vec::new() }]);
        own.eye = Some(Eye { diameter: 4.0, edge: 3.0, x, tab });
        let flat = Form::of_picture(own).draw(0.3, Unit::Mm).unwrap();
        let part = &flat.parts[0];
        let hole: Vec<&BezPath> = part.openings().collect();
        assert_eq!(hole.len(), 1);
        let gap = aptum_core::geometry::gap(hole[0], &part.outline);
        // Under a round head, or beside a tab's neck, it may be a little nearer than straight above.
        assert!((2.6..3.05).contains(&gap), "{gap} with tab {tab} at {x}");
        assert_eq!(part.region().parts(), 1);
        assert_eq!(flat.bounds.height() > 60.5, tab);
    }
}

#[test]
fn what_a_knife_cannot_do_is_told() {
    // Two plates with a stay of 0.6 mm between them, and a notch that ends sharp.
    let outline = [
        (10.0, 10.0),
        (40.0, 10.0),
        (40.0, 29.7),
        (60.0, 29.7),
        (60.0, 10.0),
        (90.0, 10.0),
        (90.0, 50.0),
        (60.0, 50.0),
        (60.0, 30.3),
        (40.0, 30.3),
        (40.0, 50.0),
        (10.0, 50.0),
    ];
    let mut own =
        traced(vec![Outlined { outer: polygon(&outline.map(Point::from)), holes: Vec::new() }]);
    let checks = |own: &Traced| Form::of_picture(own.clone()).draw(0.3, Unit::Mm).unwrap().checks;
    let found = checks(&own);
    let stay = check(&found, "narrowest-stay");
    assert_eq!(stay.state, State::Attention);
    assert!((stay.gauge.unwrap().value - 0.6).abs() < 0.01);
    assert_eq!(check(&found, "inner-corner").gauge.unwrap().value, 0.0);
    assert_eq!(check(&found, "trace-border").state, State::Attention);
    own.border.inner = 0.6;
    let found = checks(&own);
    let value = check(&found, "inner-corner").gauge.unwrap().value;
    assert!((0.5..0.75).contains(&value), "{value}");
    own.border.distance = 2.0;
    assert_eq!(check(&checks(&own), "narrowest-stay").state, State::Fits);
}

#[test]
fn a_sticker_card_is_cut_through_around_outlines_that_are_not() {
    let squares = [10.0, 40.0].map(|x| {
        let outer = Rect::new(x, 20.0, x + 20.0, 60.0).to_path(0.1);
        Outlined { outer, holes: Vec::new() }
    });
    let mut own = traced(squares.to_vec());
    own.card = Some(StickerCard { margin: 5.0, corner: 3.0, heading: 12.0, hole: 6.0 });
    let mut job: Job =
        serde_json::from_str(include_str!("../../../../demo/jobs/tomato-carton.json")).unwrap();
    let workshop: aptum_core::Workshop =
        serde_json::from_str(include_str!("../../../../demo/workshop.json")).unwrap();
    job.pieces[0].form = Form::of_picture(own);
    job.pieces[0].face = None;
    let lined =
        |has: bool| workshop.stocks.iter().find(|(_, stock)| stock.liner.is_some() == has).unwrap();
    for has in [true, false] {
        let (id, stock) = lined(has);
        job.pieces[0].stock = id.clone();
        job.sheet.size = stock.sheets[0].clone();
        let prepared = aptum_core::prepare(&job, &workshop).unwrap();
        let part = &prepared.first().flat.parts[0];
        // 50 × 40 of stickers, 5 all around, 12 for words, and 6 with a margin for the hole.
        assert!(
            (part.bounds.width() - 60.0).abs() < 1e-6 && (part.bounds.height() - 73.0).abs() < 1e-6
        );
        assert_eq!(part.edge, LineKind::Cut);
        let kissed = part.strokes.iter().filter(|own| own.kind == LineKind::KissCut).count();
        assert_eq!(kissed, 2);
        let plan = prepared.plan(&job.tooling, &prepared.layout.runs[0].placements);
        let kinds: Vec<LineKind> = plan.strokes.iter().map(|own| own.kind).collect();
        assert!(kinds.is_sorted(), "stickers before the card that frees them");
        let state = if has { State::Fits } else { State::Broken };
        assert_eq!(check(&prepared.checks, "liner").state, state);
    }
}

#[test]
fn a_job_takes_its_motifs_apart_and_names_its_picture() {
    let squares = [10.0, 40.0, 70.0].map(|x| {
        let outer = Rect::new(x, 20.0, x + 20.0, 60.0).to_path(0.1);
        Outlined { outer, holes: Vec::new() }
    });
    let mut job: Job =
        serde_json::from_str(include_str!("../../../../demo/jobs/tomato-carton.json")).unwrap();
    job.pieces[0].form = Form::of_picture(traced(squares.to_vec()));
    let id = job.pieces[0].id.clone();
    let pieces = job.motifs_apart(&id).unwrap();
    assert_eq!(pieces.len(), 3);
    let arounds: Vec<f64> =
        pieces.iter().map(|own| own.form.traced().unwrap().trace.around.unwrap()[0]).collect();
    assert!(arounds.iter().zip([0.2, 0.5, 0.8]).all(|(a, b)| (a - b).abs() < 1e-6), "{arounds:?}");
    assert_eq!(job.blobs().filter(|own| own.0.starts_with('0')).count(), 1);
    // What is found is no part of the job: it comes back the same without.
    let text = serde_json::to_string(&job).unwrap();
    let again: Job = serde_json::from_str(&text).unwrap();
    assert_eq!(again, job);
    assert!(again.pieces[0].form.traced().unwrap().found.0.is_none());
    let errors = again.pieces[0].form.draw(0.3, Unit::Mm).unwrap_err();
    assert_eq!(errors[0].field, "form.traced.picture");
    // Fields go by their paths.
    let path = format!("pieces.{id}.form.traced.border.distance");
    let changed = with_edits(&job, &[aptum_core::job::FieldChange::set(&path, 3.0)]).unwrap();
    assert!((changed.pieces[0].form.traced().unwrap().border.distance - 3.0).abs() < 1e-12);
}

#[test]
fn every_figure_goes_back_to_its_standard() {
    let outer = Rect::new(10.0, 10.0, 70.0, 60.0).to_path(0.1);
    let mut own = traced(vec![Outlined { outer, holes: Vec::new() }]);
    own.trace.gap = 1.0;
    own.trace.least = 3.0;
    own.border.distance = 2.5;
    own.border.inner = 1.0;
    own.mends = vec![Mend::Drop { at: [0.5, 0.5] }];
    own.eye = Some(Eye { diameter: 6.0, edge: 5.0, x: 2.0, tab: true });
    own.card = Some(StickerCard { margin: 9.0, corner: 1.0, heading: 8.0, hole: 4.0 });
    let mut job: Job =
        serde_json::from_str(include_str!("../../../../demo/jobs/tomato-carton.json")).unwrap();
    job.pieces[0].form = Form::of_picture(own.clone());
    let figures = job.pieces[0].form.draw(0.3, Unit::Mm).unwrap().figures;
    let set_back = |field: &str| {
        let path = format!("pieces.{}.{field}", job.pieces[0].id);
        let change = aptum_core::job::FieldChange::set(&path, serde_json::Value::Null);
        let mut changed = with_edits(&job, &[change]).unwrap();
        changed.pieces[0].form.traced_mut().unwrap().found = own.found.clone();
        changed.pieces[0].form.clone()
    };
    let mut gone_back = 0;
    for figure in figures.iter().filter(|figure| figure.field != "form.traced.width") {
        let form = set_back(&figure.field);
        let flat = form.draw(0.3, Unit::Mm).unwrap_or_else(|errors| panic!("{errors:?}"));
        let now = flat.figures.iter().find(|own| own.field == figure.field).unwrap();
        assert!((now.value - figure.standard).abs() < 1e-12, "{}: {}", figure.field, now.value);
        assert!(!now.own, "{}", figure.field);
        gone_back += 1;
    }
    assert_eq!(gone_back, 11);
    assert!(set_back("form.traced.mends").traced().unwrap().mends.is_empty());
    let least = set_back("form.traced.trace.least").traced().unwrap().trace.least;
    assert!((least - 0.5).abs() < 1e-12, "{least}");
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(24))]

    /// Discs anywhere: as many outlines as they make, of their area, closed, simple, with the clock, inside the frame.
    #[test]
    fn outlines_of_discs_are_theirs(
        discs_at in prop::collection::vec((40.0..260.0f64, 40.0..260.0f64, 12.0..38.0f64), 1..5),
        width in 20.0..200.0f64,
    ) {
        let pixels = discs(300, &discs_at);
        let tracing = look(&pixels, &Trace { least: 0.0, holes: true, ..Trace::default() }, width).unwrap();
        let scale = width / 300.0;
        let shapes = discs_at.iter().map(|(x, y, r)| Region::inside(&circle(Point::new(x * scale, y * scale), r * scale)));
        let whole = shapes.fold(Region::empty(), |all, own| all.union(&own));
        let mut found = Region::empty();
        for own in &tracing.outlines {
            prop_assert!(own.outer.area() > 0.0);
            let region = Region::inside(&own.outer);
            prop_assert!(region.parts() == 1);
            let frame = tracing.frame.inflate(0.01, 0.01);
            prop_assert!(frame.union(own.outer.bounding_box()) == frame);
            let holes = own.holes.iter().fold(Region::empty(), |all, hole| all.union(&Region::inside(hole)));
            prop_assert!(holes.minus(&region).area() < 1e-6);
            found = found.union(&region.minus(&holes));
        }
        // Where discs nearly touch, a pixel decides.
        let off = whole.minus(&found).area() + found.minus(&whole).area();
        prop_assert!(off < 0.012 * whole.area() + 12.0 * scale * scale, "{off} of {}", whole.area());
        // Where two meet the notch runs on to where their edges do, which pixels round off.
        prop_assert!(tracing.deviation.0 < 2.5 * tracing.pixel, "{:?}", tracing.deviation);
    }
}

#[test]
fn what_is_too_small_to_weed_is_told_with_the_area_that_leaves_it_out() {
    // Half a millimetre to a pixel: a disc of 60 mm, one of 12 mm, and one of 2 mm.
    let pixels = discs(200, &[(70.0, 100.0, 60.0), (180.0, 30.0, 12.0), (180.0, 100.0, 2.0)]);
    let draw = |least: f64, border: f64| {
        let how = Trace { least, ..Trace::default() };
        let tracing = look(&pixels, &how, 100.0).unwrap();
        let mut form = form(tracing, &pixels, 100.0);
        let own = form.traced_mut().unwrap();
        own.trace = how;
        own.border.distance = border;
        form.draw(0.3, Unit::Mm).unwrap()
    };
    for (border, wide) in [(0.0, 2.0), (0.25, 2.5)] {
        let flat = draw(1.0, border);
        let small = check(&flat.checks, "smallest-piece");
        assert_eq!(small.state, State::Attention);
        let across = small.gauge.unwrap();
        assert!((across.value - wide).abs() < 0.2 && across.bound == 3.0, "{across:?}");
        let Setting::Number(least) = small.remedies[0].changes[0].value else {
            panic!("{small:?}")
        };
        // Of the motif, whatever its border: more than its π mm², and far less than the next one's 36 π.
        assert!((3.1..5.0).contains(&least), "{least}");
        let flat = draw(least, border);
        let next = check(&flat.checks, "smallest-piece");
        assert_eq!(next.state, State::Fits, "{next:?}");
        let wide = next.gauge.unwrap().value;
        assert!((wide - 12.0 - 2.0 * border).abs() < 0.1, "{next:?}");
    }
}

/// A hole that is too small to be weeded goes by its own area, and nothing else does.
#[test]
fn a_hole_that_is_too_small_to_weed_is_closed_by_its_remedy() {
    let pixels = picture(200, 200, |x, y| {
        let far = |cx: f64, cy: f64| (real(x) + 0.5 - cx).hypot(real(y) + 0.5 - cy);
        let is_ink = far(100.0, 100.0) < 90.0 && far(60.0, 100.0) > 2.3 && far(140.0, 100.0) > 12.0;
        if is_ink { INK } else { CLEAR }
    });
    let draw = |least: f64| {
        let how = Trace { least, holes: true, ..Trace::default() };
        let tracing = look(&pixels, &how, 100.0).unwrap();
        let mut form = form(tracing, &pixels, 100.0);
        let own = form.traced_mut().unwrap();
        own.trace = how;
        own.border.distance = 0.0;
        form.draw(0.3, Unit::Mm).unwrap()
    };
    let holes = |flat: &Flat| flat.parts[0].openings().count();
    let flat = draw(1.0);
    assert_eq!(holes(&flat), 2);
    let small = check(&flat.checks, "smallest-piece");
    assert_eq!(small.state, State::Attention, "{small:?}");
    let Setting::Number(least) = small.remedies[0].changes[0].value else { panic!("{small:?}") };
    let flat = draw(least);
    assert_eq!(holes(&flat), 1, "the large one stays");
    assert_eq!(check(&flat.checks, "smallest-piece").state, State::Fits);
}

#[test]
fn where_no_threshold_would_do_another_way_to_tell_what_is_inside_is_offered() {
    // Opaque all over: by transparency everything is inside, whatever the threshold.
    let pixels = picture(120, 120, |x, y| {
        let far = (real(x) - 60.0).hypot(real(y) - 60.0);
        if far < 40.0 { INK } else { [250, 250, 250, 255] }
    });
    let told = |how: Trace| {
        let tracing = look(&pixels, &how, 60.0).unwrap();
        let mut form = form(tracing, &pixels, 60.0);
        form.traced_mut().unwrap().trace = how;
        let flat = form.draw(0.3, Unit::Mm).unwrap();
        check(&flat.checks, "trace-inside").clone()
    };
    let clear = Trace { by: InsideBy::Transparency, threshold: Some(0.2), ..Trace::default() };
    let found = told(clear.clone());
    assert_eq!(found.state, State::Broken);
    let first = &found.remedies[0].changes[0];
    assert_eq!(first.field, "form.traced.trace.by", "{:?}", found.remedies);
    let by = InsideBy::Background { colour: None };
    assert_eq!(told(Trace { by, threshold: None, ..clear }).state, State::Fits);
    // Where the threshold is to blame it is set by itself.
    let dark = Trace { by: InsideBy::Darkness, threshold: Some(0.01), ..Trace::default() };
    let found = told(dark.clone());
    assert_eq!(found.state, State::Broken);
    assert_eq!(found.remedies[0].changes[0].field, "form.traced.trace.threshold");
    assert_eq!(told(Trace { threshold: None, ..dark }).state, State::Fits);
}

/// What is offered for a sharp inner corner is always more than what it was rounded to.
#[test]
fn inner_corners_are_rounded_further_until_a_blade_gets_round() {
    // Where two discs meet: a corner that is as sharp as can be.
    let pixels = discs(300, &[(100.0, 150.0, 80.0), (205.0, 150.0, 80.0)]);
    let how = Trace::default();
    let tracing = look(&pixels, &how, 60.0).unwrap();
    let mut form = form(tracing, &pixels, 60.0);
    form.traced_mut().unwrap().border.distance = 0.0;
    for round in 0..6 {
        let flat = form.draw(0.3, Unit::Mm).unwrap();
        let found = check(&flat.checks, "inner-corner");
        if found.state == State::Fits {
            assert!(round > 0, "{found:?}");
            return;
        }
        let Setting::Number(to) = found.remedies[0].changes[0].value else { panic!("{found:?}") };
        let inner = &mut form.traced_mut().unwrap().border.inner;
        assert!(to >= 0.8 && to > *inner, "{to} after {inner}");
        *inner = to;
    }
    panic!("it is never wide enough");
}
