//! What stages made lately, by their keys, within a budget of bytes: what is opened, saved or downloaded has mostly
//! been made a moment ago, and a change of the sheet or the face folds no carton.

use std::borrow::Cow;
use std::sync::{Arc, LazyLock};

use aptum_core::blob::Blobs;
use aptum_core::form::{Form, Traced};
use aptum_core::memory::{Key, Made, Memory, Weighty, recalled};
use aptum_core::tooling::{CutPlan, ToolPath};
use aptum_core::trace::Seen;
use aptum_core::{InputError, Job, Prepared, Workshop, prepare_with};
use aptum_formats::{lines, trace};
use quick_cache::sync::{Cache, DefaultLifecycle};
use quick_cache::{DefaultHashBuilder, OptionsBuilder, Weighter};
use serde::{Serialize, Serializer};
use serde_json::value::{RawValue, to_raw_value};

/// So much is kept, bytes; what has not been asked for the longest goes.
const BUDGET: u64 = 96 << 20;

/// About how many results that is.
const USUAL: usize = 1000;

#[derive(Clone)]
struct Bytes;

impl Weighter<Key, Made> for Bytes {
    fn weight(&self, _: &Key, made: &Made) -> u64 {
        u64::try_from(made.weight).unwrap_or(u64::MAX).max(1)
    }
}

/// The shelf.
struct Shelf(Cache<Key, Made, Bytes>);

static SHELF: LazyLock<Shelf> = LazyLock::new(|| {
    // In one piece, so that what is large finds room: of eight each would take an eighth of the budget.
    let options = OptionsBuilder::new()
        .shards(1)
        // What is new may take most of it: a large drawing is one result of each stage, asked for once more at once.
        .hot_allocation(0.3)
        .estimated_items_capacity(USUAL)
        .weight_capacity(BUDGET)
        .build()
        .unwrap_or_else(|error| unreachable!("a capacity is told: {error}"));
    let (hasher, life) = (DefaultHashBuilder::default(), DefaultLifecycle::default());
    Shelf(Cache::with_options(options, Bytes, hasher, life))
});

/// What remembers for all that the server does.
#[must_use]
pub fn shelf() -> &'static dyn Memory {
    &*SHELF
}

impl Memory for Shelf {
    /// Who asks for what is being made waits for it.
    fn recall(
        &self,
        key: Key,
        make: &dyn Fn() -> Result<Made, Vec<InputError>>,
    ) -> Result<Made, Vec<InputError>> {
        self.0.get_or_insert_with(&key, make)
    }
}

/// What [`prepare_with`] makes of a job; no stage is made again that was made lately from the same.
///
/// # Errors
/// As [`prepare_with`].
pub fn prepared(
    job: &Job,
    workshop: &Workshop,
    blobs: &dyn Blobs,
) -> Result<Prepared, Vec<InputError>> {
    prepare_with(&furnished(job, blobs), workshop, &*SHELF)
}

/// A job with what its pieces are made from that lies in blobs; what was found in pictures lately is not looked for again.
#[must_use]
pub fn furnished<'a>(job: &'a Job, blobs: &dyn Blobs) -> Cow<'a, Job> {
    trace::furnished(job, blobs, &*SHELF)
}

/// What a page is shown, as the JSON that it is sent as.
#[derive(Debug, Clone)]
pub struct Written(Arc<RawValue>);

impl Weighty for Written {
    fn weight(&self) -> usize {
        self.0.get().len()
    }
}

impl Serialize for Written {
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        self.0.serialize(serializer)
    }
}

/// A view as it is sent, made anew or remembered; `view` names it, and `input` is all that it is made from. `None`
/// where it has no JSON form.
pub fn written<T: Serialize>(
    view: &'static str,
    input: &impl Serialize,
    make: impl Fn() -> T,
) -> Option<Written> {
    let made = recalled(&*SHELF, view, input, || {
        to_raw_value(&make()).map(|own| Written(own.into())).map_err(|error| {
            tracing::error!("the {view} cannot be written: {error}");
            Vec::new()
        })
    });
    made.ok().map(|(_, written)| Written::clone(&written))
}

/// A form by itself with the lines that it is drawn from.
#[must_use]
pub fn with_lines(mut form: Form, blobs: &dyn Blobs) -> Form {
    lines::read_into(&mut form, blobs, &*SHELF);
    form
}

/// The picture of an outline as its trace sees it, on `most` pixels at most; `None` where it is missing.
#[must_use]
pub fn seen(traced: &Traced, blobs: &dyn Blobs, most: usize) -> Option<Arc<Seen>> {
    trace::seen(traced, blobs, &*SHELF, Some(most))
}

/// The path of the tools on a run of a job's sheets; `None` where there is no such run.
#[must_use]
pub fn tool_path(
    prepared: &Prepared,
    job: &Job,
    workshop: &Workshop,
    run: usize,
) -> Option<Arc<ToolPath>> {
    prepared.tool_path(job, workshop, run, &*SHELF)
}

/// The cut plan of a run of a job's sheets; `None` where there is no such run.
#[must_use]
pub fn planned(prepared: &Prepared, job: &Job, run: usize) -> Option<Arc<CutPlan>> {
    prepared.planned(&job.tooling, run, &*SHELF)
}
