//! Stages remember: what does not change is not made again.

use std::collections::HashMap;
use std::sync::Mutex;

use aptum_core::form::Form;
use aptum_core::job::with_field;
use aptum_core::memory::{Key, Made, Memory};
use aptum_core::sheet::ruled_out;
use aptum_core::{InputError, Job, State, Workshop, prepare, prepare_with};

use crate::drawings::drawing;

#[derive(Default)]
struct Notebook {
    kept: Mutex<HashMap<Key, Made>>,
    made: Mutex<Vec<&'static str>>,
}

impl Notebook {
    /// What was made since it was last asked.
    fn made(&self) -> Vec<&'static str> {
        let mut made = std::mem::take(&mut *self.made.lock().unwrap());
        made.dedup();
        made
    }
}

impl Memory for Notebook {
    fn recall(
        &self,
        key: Key,
        make: &dyn Fn() -> Result<Made, Vec<InputError>>,
    ) -> Result<Made, Vec<InputError>> {
        if let Some(made) = self.kept.lock().unwrap().get(&key) {
            return Ok(made.clone());
        }
        let made = make()?;
        self.made.lock().unwrap().push(made.stage);
        self.kept.lock().unwrap().insert(key, made.clone());
        Ok(made)
    }
}

fn tomato() -> (Job, Workshop) {
    (
        serde_json::from_str(include_str!("../../../../demo/jobs/tomato-carton.json")).unwrap(),
        serde_json::from_str(include_str!("../../../../demo/workshop.json")).unwrap(),
    )
}

#[test]
fn a_stage_is_made_again_only_when_what_it_reads_changes() {
    let (job, workshop) = tomato();
    let notebook = Notebook::default();
    let made = |job: &Job, workshop: &Workshop| {
        prepare_with(job, workshop, &notebook).unwrap();
        notebook.made()
    };
    assert_eq!(made(&job, &workshop), ["formed", "faced", "laid"]);
    assert_eq!(made(&job, &workshop), [""; 0]);

    let set = |field: &str, value: serde_json::Value| with_field(&job, field, value).unwrap();
    let bleed = job.pieces[0].face.as_ref().unwrap().bleed;
    let wide = 2.0 * bleed + 3.0;
    assert_eq!(made(&set("pieces.p1.copies", 7.into()), &workshop), ["laid"]);
    assert_eq!(made(&set("sheet.turning", "upright".into()), &workshop), ["laid"]);
    let spaced = set("sheet.spacing", wide.into());
    made(&spaced, &workshop);
    let more = with_field(&spaced, "sheet.spacing", (wide + 1.0).into()).unwrap();
    assert_eq!(made(&more, &workshop), ["laid"], "bleed that has room does not change");
    let colour = set("pieces.p1.face.layers.l1.colour", "#123456".into());
    assert_eq!(made(&colour, &workshop), ["faced", "laid"]);
    let longer = set("pieces.p1.form.length", 77.0.into());
    assert_eq!(made(&longer, &workshop), ["formed", "faced", "laid"]);

    let mut nearer = workshop.clone();
    let marks = nearer.mark_sets.get_mut(job.sheet.marks.as_ref().unwrap()).unwrap();
    marks.across += 1.0;
    assert_eq!(made(&job, &nearer), ["laid"], "marks fold no carton and draw no face");
}

/// A piece that fits nowhere is tried on every other sheet, and drawn for none of them.
#[test]
fn ways_to_fit_draw_a_drawing_no_second_time() {
    let (mut job, workshop) = tomato();
    let square = [("cut", "M0 0H900V900H0Z"), ("crease", "M450 0V900")];
    job.pieces[0].form = Form::of_drawing(drawing(&square));
    job.pieces[0].face = None;
    let notebook = Notebook::default();
    let prepared = prepare_with(&job, &workshop, &notebook).unwrap();
    let across = prepared.checks.iter().find(|check| check.id == "blank-across").unwrap();
    assert_eq!(across.state, State::Broken);
    assert_eq!(notebook.made(), ["formed", "faced", "laid"]);
    assert!(!ruled_out(&job, &workshop, &notebook).is_empty());
    assert_eq!(notebook.made(), [""; 0]);
}

/// What is remembered is what would be made.
#[test]
fn a_job_from_memory_is_the_same_job() {
    let (job, workshop) = tomato();
    let notebook = Notebook::default();
    prepare_with(&job, &workshop, &notebook).unwrap();
    let other = with_field(&job, "pieces.p1.face.layers.l1.colour", "#123456".into()).unwrap();
    let told = prepare_with(&other, &workshop, &notebook).unwrap();
    let made = prepare(&other, &workshop).unwrap();
    assert_eq!((&told.code, &told.checks), (&made.code, &made.checks));
    assert_eq!(told.layout, made.layout);
    let plan = told.planned(&job.tooling, 0, &notebook).unwrap();
    assert_eq!(*plan, made.plan(&job.tooling, &made.layout.runs[0].placements));
    assert!(told.planned(&job.tooling, 99, &notebook).is_none());
}
