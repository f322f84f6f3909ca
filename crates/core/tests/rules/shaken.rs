//! The demo's jobs with a figure or two set to something else: none is too much for core, and what is said to help does.

use std::cell::Cell;

use aptum_core::form::catalogue::CATALOGUE;
use aptum_core::form::{FigureKind, Form};
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

/// What a check has become, where it is no better.
fn still<'a>(prepared: &'a Prepared, check: &Check) -> Option<&'a Check> {
    let mut bad = prepared.checks.iter().filter(|other| other.state >= check.state);
    bad.find(|other| other.id == check.id && other.label == check.label)
}

/// Makes sure that each remedy that is offered can be done, and does some good; how many there were.
fn remedies_help(
    job: &Job,
    workshop: &Workshop,
    prepared: &Prepared,
) -> Result<u32, TestCaseError> {
    let mut count = 0;
    for check in prepared.checks.iter().filter(|check| check.state != State::Fits) {
        for remedy in check.remedies.iter().filter(|own| !own.changes.is_empty()) {
            let edits: Vec<FieldChange> = remedy.changes.iter().map(FieldChange::from).collect();
            let told = format!(
                "{}: {} ({}) → {}",
                job.pieces[0].form.chosen().map_or(job.name.as_str(), |own| &own.structure),
                check.label,
                check.value_text,
                remedy.text
            );
            let after = prepare(&with_edits(job, &edits).unwrap(), workshop);
            prop_assert!(after.is_ok(), "{told}: {:?}", after.err());
            let after = after.unwrap();
            let less = still(&after, check).is_none_or(|still| {
                missing(still) < missing(check) || still.value_text != check.value_text
            });
            prop_assert!(less, "{told} does not help");
            count += 1;
        }
    }
    Ok(count)
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
                helped.set(helped.get() + remedies_help(&job, &workshop, &prepared)?);
            }
        }
        Ok(())
    });
    outcome.unwrap();
    assert!(helped.get() > 30 && refused.get() > 2, "{helped:?} {refused:?}");
}

/// Any structure of the catalogue, a few of its figures somewhere in their ranges, in any card of the workshop.
#[test]
fn what_is_offered_for_any_piece_helps() {
    let workshop = workshop();
    let plain: Job =
        serde_json::from_str(include_str!("../../../../demo/jobs/tomato-carton.json")).unwrap();
    let stocks: Vec<_> = workshop.stocks.keys().cloned().collect();
    let figures = prop::collection::vec((0.0..1.0f64, 0.0..=1.0f64), 1..4);
    let any = (0..CATALOGUE.len(), figures, 0..stocks.len(), 1..60u32);
    let mut runner = TestRunner::new(Config { cases: 300, ..Config::default() });
    let helped = Cell::new(0);
    let outcome = runner.run(&any, |(structure, figures, stock, copies)| {
        let structure = CATALOGUE[structure];
        let mut job = plain.clone();
        job.sheet.kept = None;
        let piece = &mut job.pieces[0];
        (piece.form, piece.copies) = (Form::new(structure.id, &[]), copies);
        piece.stock = stocks[stock].clone();
        let caliper = workshop.stocks[&piece.stock].caliper;
        for (which, share) in figures {
            let Ok(flat) = piece.form.draw(caliper, job.unit) else { continue };
            let count = f64::from(u32::try_from(flat.figures.len()).unwrap());
            let at = format!("{}", (which * count).floor()).parse::<usize>().unwrap();
            let figure = &flat.figures[at];
            let [low, high] = figure.range;
            // Sizes that desks hold.
            let high = high.min(3.0 * figure.value + 20.0).max(low);
            let value = low + (high - low) * share;
            let value = if figure.kind == FigureKind::Count { value.round() } else { value };
            let key = figure.field.strip_prefix("form.").unwrap().to_owned();
            piece.form.chosen_mut().unwrap().figures.insert(key, Some(value));
        }
        let Ok(prepared) = prepare(&job, &workshop) else { return Ok(()) };
        // Nobody is left without a way out of what is broken.
        for check in prepared.checks.iter().filter(|check| check.state == State::Broken) {
            prop_assert!(!check.remedies.is_empty(), "{}: {check:?}", structure.id);
        }
        helped.set(helped.get() + remedies_help(&job, &workshop, &prepared)?);
        Ok(())
    });
    outcome.unwrap();
    assert!(helped.get() > 100, "{helped:?}");
}
