//! A rehearsal of what is pressed from behind: the sheet lies with its back up, and goes by its edge.

use std::path::Path;

use aptum::demo;
use aptum::rehearsing::Stage;
use aptum::store::Store;
use aptum_core::LineKind;
use aptum_core::geometry::{Point, Vec2};
use aptum_core::job::{OperationId, OperationSay, Reverse};
use aptum_core::prepare;
use aptum_core::rehearsal::{CutLine, Day, Loading};

/// The gable carton, whose gusset is creased the other way.
const GABLE: i32 = 9;

/// Its lines as they were meant and cut, those that were pressed from behind first.
fn cut(loading: &Loading) -> [Vec<CutLine>; 2] {
    let folder = tempfile::TempDir::new().unwrap();
    let store = opened(folder.path());
    let workshop = store.workshop().unwrap();
    let mut job = store.job(GABLE).unwrap().job;
    let say = OperationSay { reverse: Some(Reverse::FromBehind), ..OperationSay::default() };
    job.tooling.operations.insert(OperationId::from(LineKind::ReverseCrease), say);
    let prepared = prepare(&job, &workshop).unwrap();
    assert!(prepared.operations.iter().any(|own| own.is_from_behind()));
    let (workshop, blobs) = (&*workshop, &store);
    let stage = Stage { job: &job, prepared: &prepared, workshop, blobs, sheet: 1 };
    let done = stage.rehearse(Day::True, 1, loading, 300.0).unwrap();
    assert_eq!(done.refused, None);
    let plan = prepared.plan(&job.tooling, &prepared.layout.runs[0].placements);
    let reverse = plan.strokes.iter().filter(|own| own.kind == LineKind::ReverseCrease).count();
    assert!(reverse > 0 && reverse < done.lines.len());
    let mut lines = done.lines;
    let front = lines.split_off(reverse);
    [lines, front]
}

fn opened(folder: &Path) -> Store {
    let store = Store::open(folder).unwrap();
    demo::start_jobs(&store).unwrap();
    store
}

/// How far the beginning of each line lies off where the page has it, on the bed.
fn off(lines: &[CutLine], place: impl Fn(Point) -> Point) -> Vec<Vec2> {
    lines.iter().map(|own| own.cut[0] - place(own.meant[0])).collect()
}

#[test]
fn what_is_pressed_from_behind_lies_where_it_should_and_goes_by_the_edge() {
    let [behind, front] = cut(&Loading::default());
    let all = off(&behind, |at| at).into_iter().chain(off(&front, |at| at));
    for own in all {
        assert!(own.hypot() < 0.1, "{own:?}");
    }
    // Laid in 0.8 mm to the right and 0.3 down: marks find that, the edge does not. The tool meets the back too far to the left and too
    // far up, which is too far to the right and up as the front is seen.
    let shift = Vec2::new(0.8, 0.3);
    let loading = Loading { shift: [shift.x, shift.y], ..Loading::default() };
    let [behind, front] = cut(&loading);
    for own in off(&front, |at| at + shift) {
        assert!(own.hypot() < 0.1, "{own:?}");
    }
    let expected = Vec2::new(0.8, -0.3);
    for own in off(&behind, |at| at + shift) {
        assert!((own - expected).hypot() < 0.1, "{own:?}");
    }
}
