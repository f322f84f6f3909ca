//! The demo's jobs with a figure or two set to something else: none is too much for core, and what is said to help does.

use std::cell::Cell;

use aptum_core::job::{FieldChange, with_edits};
use aptum_core::{Check, Job, Prepared, State, Workshop, prepare};
use proptest::prelude::*;
use proptest::test_runner::{Config, TestRunner};
use serde_json::Value;

fn workshop() -> Workshop {
    serde_json::from_str(include_str!("../../../../demo/workshop.json")).unwrap()
}

/// Those that need nothing beside their records: pictures and drawings are not at hand here.
fn jobs(workshop: &Workshop) -> Vec<Value> {
    let folder = concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo/jobs");
    let files = std::fs::read_dir(folder).unwrap().map(|file| file.unwrap().path());
    let mut files: Vec<_> = files.collect();
    files.sort();
    let read = |path| serde_json::from_slice::<Value>(&std::fs::read(path).unwrap()).unwrap();
    let is_whole = |job: &Value| {
        serde_json::from_value(job.clone()).is_ok_and(|job: Job| prepare(&job, workshop).is_ok())
    };
    files.into_iter().map(read).filter(is_whole).collect()
}

/// Where the figures and switches of a job are.
fn figures(value: &Value, at: &str, found: &mut Vec<String>) {
    match value {
        Value::Object(fields) => {
            // A kept layout is as it was made.
            for (name, inner) in fields.iter().filter(|(name, _)| *name != "kept") {
                figures(inner, &format!("{at}/{name}"), found);
            }
        }
        Value::Array(items) => {
            for (place, inner) in items.iter().enumerate() {
                figures(inner, &format!("{at}/{place}"), found);
            }
        }
        Value::Number(_) | Value::Bool(_) => found.push(at.to_owned()),
        _ => {}
    }
}

fn shake(value: &mut Value, by: f64) {
    let other = match &*value {
        Value::Bool(is) => Value::Bool(!*is),
        Value::Number(number) if number.is_u64() => {
            let whole = (number.as_f64().unwrap() * by).round().clamp(0.0, 4000.0);
            Value::from(format!("{whole}").parse::<u64>().unwrap())
        }
        Value::Number(number) => Value::from((number.as_f64().unwrap() * by * 1e3).round() / 1e3),
        other => other.clone(),
    };
    *value = other;
}

fn missing(check: &Check) -> f64 {
    check.gauge.map_or(f64::INFINITY, |gauge| (gauge.value - gauge.bound).abs())
}

fn same<'a>(prepared: &'a Prepared, check: &Check) -> Option<&'a Check> {
    let broken = prepared.checks.iter().filter(|other| other.state == State::Broken);
    broken.into_iter().find(|other| other.id == check.id && other.label == check.label)
}

#[test]
fn whatever_is_set_to_something_else_is_told_with_what_helps() {
    let workshop = workshop();
    let jobs = jobs(&workshop);
    assert!(jobs.len() > 15, "{}", jobs.len());
    let shakes = prop::collection::vec((0.0..1.0f64, 0.05..4.0f64), 1..4);
    let mut runner = TestRunner::new(Config { cases: 150, ..Config::default() });
    let (helped, refused) = (Cell::new(0), Cell::new(0));
    let outcome = runner.run(&(0..jobs.len(), shakes), |(which, shakes)| {
        let mut value = jobs[which].clone();
        let mut places = Vec::new();
        figures(&value, "", &mut places);
        for (share, by) in shakes {
            let place = share * f64::from(u32::try_from(places.len()).unwrap());
            let at = &places[format!("{}", place.floor()).parse::<usize>().unwrap()];
            shake(value.pointer_mut(at).unwrap(), by);
        }
        let Ok(job) = serde_json::from_value::<Job>(value) else { return Ok(()) };
        match prepare(&job, &workshop) {
            Err(errors) => {
                prop_assert!(!errors.is_empty());
                for error in errors {
                    prop_assert!(!error.message.is_empty() && !error.remedy.text.is_empty());
                    let edits: Vec<FieldChange> =
                        error.remedy.changes.iter().map(FieldChange::from).collect();
                    if edits.is_empty() {
                        continue;
                    }
                    let mended = with_edits(&job, &edits).unwrap();
                    // What it names is right then; other figures may still be wrong.
                    let still = prepare(&mended, &workshop).err().into_iter().flatten();
                    let mut same = still
                        .filter(|own| own.field == error.field && own.message == error.message);
                    prop_assert!(same.next().is_none(), "{}: {error:?}", job.name);
                    refused.set(refused.get() + 1);
                }
            }
            Ok(prepared) => {
                for check in prepared.checks.iter().filter(|check| check.state == State::Broken) {
                    for remedy in check.remedies.iter().filter(|own| !own.changes.is_empty()) {
                        let edits: Vec<FieldChange> =
                            remedy.changes.iter().map(FieldChange::from).collect();
                        let mended = with_edits(&job, &edits).unwrap();
                        let after = prepare(&mended, &workshop);
                        prop_assert!(
                            after.is_ok(),
                            "{}: {} → {}",
                            job.name,
                            check.label,
                            remedy.text
                        );
                        let after = after.unwrap();
                        let less = same(&after, check).is_none_or(|still| {
                            missing(still) < missing(check) || still.value_text != check.value_text
                        });
                        prop_assert!(
                            less,
                            "{}: {} ({}) → {} does not help",
                            job.name,
                            check.label,
                            check.value_text,
                            remedy.text
                        );
                        helped.set(helped.get() + 1);
                    }
                }
            }
        }
        Ok(())
    });
    outcome.unwrap();
    assert!(helped.get() > 30 && refused.get() > 10, "{helped:?} {refused:?}");
}
