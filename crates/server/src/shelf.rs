//! What was made lately: jobs as they were last prepared, since what is opened, saved or downloaded has mostly been
//! prepared a moment ago; and forms in their cards, so that a change of the sheet or the face folds no carton.

use std::collections::VecDeque;
use std::sync::{Arc, Mutex, PoisonError};

use aptum_core::formed::{FormKey, Formed, Memory};
use aptum_core::{InputError, Job, Prepared, Workshop, prepare_with};

/// So many are kept; the one that has not been asked for the longest goes.
const MOST: usize = 24;

/// A job with what was made of it.
struct Kept {
    job: Job,
    workshop: Workshop,
    prepared: Arc<Prepared>,
}

/// So many forms are kept.
const MOST_FORMS: usize = 96;

/// Forms in their cards, the one asked for last first.
struct Forms;

static FORMS: Mutex<VecDeque<(FormKey, Arc<Formed>)>> = Mutex::new(VecDeque::new());

impl Memory for Forms {
    fn formed(&self, key: FormKey) -> Result<Arc<Formed>, Vec<InputError>> {
        let shelf = || FORMS.lock().unwrap_or_else(PoisonError::into_inner);
        {
            let mut kept = shelf();
            let at = kept.iter().position(|(known, _)| *known == key);
            if let Some(found) = at.and_then(|at| kept.remove(at)) {
                let formed = found.1.clone();
                kept.push_front(found);
                return Ok(formed);
            }
        }
        let formed = Arc::new(Formed::new(&key)?);
        let mut kept = shelf();
        kept.push_front((key, formed.clone()));
        kept.truncate(MOST_FORMS);
        Ok(formed)
    }
}

static KEPT: Mutex<VecDeque<Kept>> = Mutex::new(VecDeque::new());

/// What [`prepare_with`] makes of a job; kept, so that the same job with the same records is not prepared again.
///
/// # Errors
/// As [`prepare_with`].
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
    let prepared = Arc::new(prepare_with(job, workshop, &Forms)?);
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
