//! Marks compared and the best marks, over many machines: whatever is offered can be printed, read and told apart.

use aptum_core::check::State;
use aptum_core::geometry::{Rect, Region, Vec2, polygon};
use aptum_core::memory::Forgetful;
use aptum_core::sheet::{
    Machines, MarkChoice, Orientation, best_marks, compare_marks, place_marks,
};
use aptum_core::units::Unit;
use aptum_core::workshop::{
    Corner, DistanceFrom, EyeRange, Finds, Keeping, MarkSet, MarkShapeName, RecordId, Tell,
    Workshop,
};
use aptum_core::{Job, prepare};
use proptest::prelude::*;

fn workshop() -> Workshop {
    serde_json::from_str(include_str!("../../../../demo/workshop.json")).unwrap()
}

fn tomato() -> Job {
    serde_json::from_str(include_str!("../../../../demo/jobs/tomato-carton.json")).unwrap()
}

/// The marks of a set where they stand on the job's page.
fn bounds(job: &Job, workshop: &Workshop, set: &MarkSet) -> Vec<Rect> {
    let machines = Machines {
        printer: job.sheet.printer.as_ref().and_then(|id| workshop.printers.get(id)),
        ..Machines::default()
    };
    let page = job.sheet.page();
    let printable = machines.printable(page, job.sheet.orientation);
    place_marks(set, page, printable, "00000").marks.iter().map(|mark| mark.bounds).collect()
}

fn readable(choice: &MarkChoice) -> bool {
    choice.state != State::Broken
}

#[test]
fn a_retired_set_is_compared_only_while_the_job_uses_it() {
    let (mut job, mut workshop) = (tomato(), workshop());
    let used = job.sheet.marks.clone().unwrap();
    for set in workshop.mark_sets.values_mut() {
        set.keeping = Keeping::Retired;
    }
    let left: Vec<_> = compare_marks(&job, &workshop, &Forgetful, || true)
        .into_iter()
        .map(|choice| choice.id)
        .collect();
    assert_eq!(left, [Some(used)]);
    job.sheet.marks = None;
    assert!(compare_marks(&job, &workshop, &Forgetful, || true).is_empty());
}

#[test]
fn the_search_ends_when_it_is_told_to_and_keeps_what_it_has() {
    let (job, workshop) = (tomato(), workshop());
    assert!(best_marks(&job, &workshop, &Forgetful, |_| false).is_none());
    let mut asked = 0;
    let some = best_marks(&job, &workshop, &Forgetful, |_| {
        asked += 1;
        asked <= 5
    });
    assert_eq!(asked, 6);
    let all = best_marks(&job, &workshop, &Forgetful, |_| true).unwrap();
    let some = some.unwrap();
    assert!((readable(&some), some.per_sheet) <= (readable(&all), all.per_sheet));
}

/// Geometry: the eye needs its space around each mark, so more of it never leaves more room; and marks nearer to
/// the edge never take more of the cut window than the same marks farther in do of the whole page.
#[test]
fn wider_keep_clears_leave_less() {
    let (job, mut workshop) = (tomato(), workshop());
    let id = job.sheet.marks.clone().unwrap();
    let mut before = f64::INFINITY;
    for keep_clear in [0.0, 1.0, 3.0, 8.0, 20.0] {
        workshop.mark_sets.get_mut(&id).unwrap().keep_clear = keep_clear;
        let choices = compare_marks(&job, &workshop, &Forgetful, || true);
        let own = choices.iter().find(|choice| choice.id.as_ref() == Some(&id)).unwrap();
        assert!(own.usable <= before + 1e-6, "{keep_clear}: {} of {before}", own.usable);
        before = own.usable;
    }
    // A dot of 5 mm with 20 mm around it takes more than a disc's quarter from its corner.
    assert!(before < job.sheet.page().area() - 3.0 * 22.5 * 22.5);
}

#[test]
fn crosshairs_get_crosses_or_angles_of_the_size_in_use() {
    let (job, mut workshop) = (tomato(), workshop());
    workshop.cutters.get_mut(job.sheet.cutter.as_ref().unwrap()).unwrap().finds = Finds::Crosshairs;
    let in_use = &workshop.mark_sets[job.sheet.marks.as_ref().unwrap()];
    let best = best_marks(&job, &workshop, &Forgetful, |_| true).unwrap();
    assert_ne!(best.set.mark.name(), MarkShapeName::Dot, "nobody sets a crosshair on a blot");
    assert!((best.set.mark.extent() - in_use.mark.extent()).abs() < 1e-9);
    assert!((best.set.keep_clear - in_use.keep_clear).abs() < 1e-9);
}

fn eye() -> impl Strategy<Value = EyeRange> {
    let shapes = prop::sample::subsequence(
        vec![MarkShapeName::Angle, MarkShapeName::Dot, MarkShapeName::Cross],
        1..=3,
    );
    (shapes, 1.0..20.0f64, 0.0..20.0f64, 0.0..8.0f64).prop_map(
        |(shapes, smallest, edge, keep_clear)| EyeRange { shapes, smallest, edge, keep_clear },
    )
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(6))]

    /// Whatever the eye reads and the printer prints: the best marks are of a shape and size that it knows, on
    /// what is printed and not nearer to the edge than it reads, a sheet turned by half shows, and no set of the
    /// workshop that can be read leaves more.
    #[test]
    fn the_best_marks_keep_to_what_is_read_and_printed(
        eye in eye(), sides in (0.0..12.0f64, 0.0..12.0f64, 0.0..12.0f64, 0.0..12.0f64),
        landscape in any::<bool>(), to_marks in 0.0..3.0f64,
    ) {
        let (mut job, mut workshop) = (tomato(), workshop());
        job.sheet.orientation = if landscape { Orientation::Landscape } else { Orientation::Portrait };
        job.sheet.to_marks = to_marks;
        let printer = workshop.printers.get_mut(job.sheet.printer.as_ref().unwrap()).unwrap();
        let margins = &mut printer.margins;
        (margins.lead, margins.trail, margins.left, margins.right) = sides;
        let printer = printer.clone();
        let cutter = workshop.cutters.get_mut(job.sheet.cutter.as_ref().unwrap()).unwrap();
        cutter.finds = Finds::Eye(eye.clone());
        let best = best_marks(&job, &workshop, &Forgetful, |_| true);
        prop_assert!(best.is_some());
        let best = best.unwrap();
        prop_assert!(best.set.validate(Unit::Mm).is_ok());
        prop_assert!(eye.shapes.contains(&best.set.mark.name()));
        prop_assert!(best.set.mark.extent() >= eye.smallest && best.set.keep_clear >= eye.keep_clear);
        let page = job.sheet.page();
        let machines = Machines { printer: Some(&printer), ..Machines::default() };
        let printable = machines.printable(page, job.sheet.orientation).inflate(1e-6, 1e-6);
        let seen = page.inset(-eye.edge).inflate(1e-6, 1e-6);
        let all = bounds(&job, &workshop, &best.set);
        for mark in &all {
            prop_assert_eq!(printable.union(*mark), printable, "printed whole");
            prop_assert_eq!(seen.union(*mark), seen, "read whole");
        }
        // Turned by half about the page's middle, the marks do not fall on themselves, or something beside them
        // is printed that tells.
        let turned: Vec<Rect> = all
            .iter()
            .map(|mark| Rect::from_points(
                (page.center() - (mark.origin() - page.center())).to_vec2().to_point(),
                page.center() - (Vec2::new(mark.x1, mark.y1) - page.center().to_vec2()),
            ))
            .collect();
        let falls = |mark: &Rect| all.iter().any(|own| (own.center() - mark.center()).hypot() < 0.5
            && (own.width() - mark.width()).abs() < 0.1);
        prop_assert!(matches!(best.set.tell, Tell::Numeral | Tell::SheetCode) || !turned.iter().all(falls));
        for choice in compare_marks(&job, &workshop, &Forgetful, || true).iter().filter(|choice| readable(choice)) {
            prop_assert!(!readable(&best) || best.per_sheet >= choice.per_sheet, "{}", choice.set.name);
        }
    }

    /// What a comparison says of a set is what the job has when it uses it: window by polygon algebra of its own,
    /// copies by laying them.
    #[test]
    fn a_comparison_tells_what_a_job_with_the_set_has(
        across in 4.0..30.0f64, along in 4.0..30.0f64, keep_clear in 0.0..6.0f64,
        first in prop::sample::select(Corner::ALL.to_vec()), from_print in any::<bool>(),
    ) {
        let (mut job, mut workshop) = (tomato(), workshop());
        let id = RecordId::from("tried-here");
        let like = workshop.mark_sets[job.sheet.marks.as_ref().unwrap()].clone();
        let from = if from_print { DistanceFrom::PrintableEdge } else { DistanceFrom::PaperEdge };
        let set = MarkSet { across, along, keep_clear, first, from, ..like };
        workshop.mark_sets.insert(id.clone(), set.clone());
        let choices = compare_marks(&job, &workshop, &Forgetful, || true);
        let choice = choices.iter().find(|choice| choice.id.as_ref() == Some(&id)).unwrap();
        job.sheet.marks = Some(id);
        let prepared = prepare(&job, &workshop).unwrap();
        prop_assert_eq!((choice.per_sheet, choice.sheets), (prepared.layout.per_sheet, prepared.layout.sheets()));
        prop_assert!((choice.usable - prepared.windows.cut.region.area()).abs() < 1e-6);
        let marks = prepared.checks.iter().filter(|check| check.id.starts_with("marks-"));
        let worst = marks.map(|check| check.state).max().unwrap();
        prop_assert_eq!(readable(choice), worst != State::Broken, "{:?}", choice.trouble);
        // Nothing of the window lies nearer to a dot than its keep-clear.
        for mark in bounds(&job, &workshop, &set) {
            let radius = mark.width() / 2.0 + keep_clear - 0.02;
            let corner = |at: u32| mark.center() + radius * Vec2::from_angle(f64::from(at).to_radians());
            let disc = Region::inside(&polygon(&(0..360).step_by(4).map(corner).collect::<Vec<_>>()));
            let both = disc.intersection(&prepared.windows.cut.region).area();
            prop_assert!(both < 1e-3, "{both} mm² of the keep-clear");
        }
    }
}
