//! Jobs as they were last prepared: what is opened, saved or downloaded has mostly been prepared a moment ago.

use std::collections::VecDeque;
use std::sync::{Arc, Mutex, PoisonError};

use aptum_core::{InputError, Job, Prepared, Workshop, prepare};

/// So many are kept; the one that has not been asked for the longest goes.
const MOST: usize = 24;

/// A job with what was made of it.
struct Kept {
    job: Job,
    workshop: Workshop,
    prepared: Arc<Prepared>,
}

static KEPT: Mutex<VecDeque<Kept>> = Mutex::new(VecDeque::new());

/// What [`prepare`] makes of a job; kept, so that the same job with the same records is not prepared again.
///
/// # Errors
/// As [`prepare`].
pub fn prepared(job: &Job, workshop: &Workshop) -> Result<Arc<Prepared>, Vec<InputError>> {
    let shelf = || KEPT.lock().unwrap_or_else(PoisonError::into_inner);
    {
        let mut kept = shelf();
        let at = kept.iter().position(|kept| kept.job == *job && kept.workshop == *workshop);
        if let Some(found) = at.and_then(|at| kept.remove(at)) {
            let prepared = found.prepared.clone();
            kept.push_front(found);
            return Ok(prepared);
        }
    }
    let prepared = Arc::new(prepare(job, workshop)?);
    let new = Kept { job: job.clone(), workshop: workshop.clone(), prepared: prepared.clone() };
    let mut kept = shelf();
    kept.push_front(new);
    kept.truncate(MOST);
    Ok(prepared)
}

#[cfg(test)]
#[allow(clippy::unwrap_used)]
mod tests {
    use super::*;

    #[test]
    fn only_the_same_job_with_the_same_records_is_answered_from_the_shelf() {
        let workshop: Workshop =
            serde_json::from_str(include_str!("../../../demo/workshop.json")).unwrap();
        let job: Job =
            serde_json::from_str(include_str!("../../../demo/jobs/tomato-carton.json")).unwrap();
        let first = prepared(&job, &workshop).unwrap();
        assert!(Arc::ptr_eq(&first, &prepared(&job, &workshop).unwrap()));

        let mut more = job.clone();
        more.pieces[0].copies += 1;
        let more = prepared(&more, &workshop).unwrap();
        assert_eq!(more.layout.laid, first.layout.laid + 1);

        let mut thicker = workshop.clone();
        thicker.stocks.get_mut(&job.pieces[0].stock).unwrap().caliper += 0.1;
        let thicker = prepared(&job, &thicker).unwrap();
        assert_ne!(thicker.first().flat.sizes.outside, first.first().flat.sizes.outside);
    }
}
