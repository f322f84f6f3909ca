//! Parts of the server by themselves: what is answered from memory, how answers are sent and layouts are kept.

use std::collections::BTreeSet;
use std::io::Write as _;
use std::sync::Arc;

use aptum::assets::takes_gzip;
use aptum::sending::{HEARTBEAT, PIECE, READY, pipe};
use aptum::shelf::prepared;
use aptum::store::parts::{LONGEST, split};
use aptum_core::Job;
use aptum_core::blob::NoBlobs;
use aptum_core::workshop::Workshop;
use rocket::tokio::io::AsyncReadExt;
use rocket::tokio::sync::{OwnedSemaphorePermit, Semaphore};
use rocket::tokio::task::spawn_blocking;

#[test]
fn gzip_is_taken_where_it_is_allowed() {
    for header in ["gzip", "deflate, gzip;q=0.5", "*", "GZIP", "br;q=1, *;q=0.1"] {
        assert!(takes_gzip(header), "{header}");
    }
    for header in ["", "br", "gzip;q=0", "gzip;q=0, *", "*;q=0", "gzipped", "gzip;q=none"] {
        assert!(!takes_gzip(header), "{header}");
    }
}

fn tomato() -> (Job, Workshop) {
    (
        serde_json::from_str(include_str!("../../../../demo/jobs/tomato-carton.json")).unwrap(),
        serde_json::from_str(include_str!("../../../../demo/workshop.json")).unwrap(),
    )
}

#[test]
fn only_the_same_job_with_the_same_records_is_answered_from_the_shelf() {
    let (job, workshop) = tomato();
    let first = prepared(&job, &workshop, &NoBlobs).unwrap();
    assert!(Arc::ptr_eq(&first.laid, &prepared(&job, &workshop, &NoBlobs).unwrap().laid));

    let mut more = job.clone();
    more.pieces[0].copies += 1;
    let more = prepared(&more, &workshop, &NoBlobs).unwrap();
    assert_eq!(more.layout.laid, first.layout.laid + 1);
    assert!(Arc::ptr_eq(&first.pieces[0].faced, &more.pieces[0].faced));

    let mut thicker = workshop.clone();
    thicker.stocks.get_mut(&job.pieces[0].stock).unwrap().caliper += 0.1;
    let thicker = prepared(&job, &thicker, &NoBlobs).unwrap();
    assert_ne!(thicker.first().flat.sizes.outside, first.first().flat.sizes.outside);
}

#[test]
fn a_refused_job_is_refused_again() {
    let (mut job, workshop) = tomato();
    job.pieces[0].form.chosen_mut().unwrap().figures.insert("length".into(), Some(-1.0));
    assert_eq!(
        prepared(&job, &workshop, &NoBlobs).unwrap_err(),
        prepared(&job, &workshop, &NoBlobs).unwrap_err()
    );
}

fn layout(moved: Option<usize>) -> String {
    let place = |at: usize| {
        let x = if moved == Some(at) { 1.25 } else { 0.0 } + at as f64 * 3.17;
        format!("{{\"part\":0,\"x\":{x},\"y\":{},\"turn\":0.0,\"locked\":false}}", at % 100)
    };
    (0..10_000).map(place).collect::<Vec<_>>().join(",")
}

#[test]
fn a_move_changes_a_part_or_two_wherever_it_is() {
    let before = layout(None);
    let known: BTreeSet<&str> = split(&before).into_iter().collect();
    assert_eq!(split(&before).concat(), before);
    assert!((20..400).contains(&known.len()), "{} parts", known.len());
    for moved in [0, 1, 4711, 9_999] {
        let after = layout(Some(moved));
        let new: usize =
            split(&after).into_iter().filter(|part| !known.contains(part)).map(str::len).sum();
        assert!(new <= 2 * LONGEST, "{new} bytes for copy {moved}");
    }
}

async fn lane() -> (Arc<Semaphore>, OwnedSemaphorePermit) {
    let lane = Arc::new(Semaphore::new(1));
    let turn = lane.clone().acquire_owned().await.unwrap();
    (lane, turn)
}

#[rocket::async_test]
async fn what_is_written_is_read_to_its_end() {
    let (_, turn) = lane().await;
    let (mut outlet, mut body) = pipe(turn);
    let whole: Vec<u8> = (0..10 * PIECE).map(|at| u8::try_from(at % 251).unwrap()).collect();
    let written = whole.clone();
    let made = spawn_blocking(move || {
        written.chunks(1000).try_for_each(|some| outlet.write_all(some))?;
        outlet.finish()
    });
    let mut read = Vec::new();
    body.read_to_end(&mut read).await.unwrap();
    assert_eq!(read, whole);
    made.await.unwrap().unwrap();
}

#[rocket::async_test]
async fn a_reader_who_lags_holds_no_turn_and_one_who_has_gone_ends_the_work() {
    let (lane, turn) = lane().await;
    let (mut outlet, body) = pipe(turn);
    let made = spawn_blocking(move || {
        let mut pieces = 0;
        while outlet.write_all(&[7; PIECE]).is_ok() {
            pieces += 1;
        }
        pieces
    });
    let _turn = lane.acquire().await.unwrap();
    drop(body);
    assert_eq!(made.await.unwrap(), READY);
}

#[rocket::async_test]
async fn work_hears_that_nobody_waits_any_more_and_its_white_space_is_json_all_the_same() {
    let (_, turn) = lane().await;
    let (mut outlet, mut body) = pipe(turn);
    assert!(outlet.is_awaited());
    let made = spawn_blocking(move || {
        std::thread::sleep(HEARTBEAT * 2);
        assert!(outlet.is_awaited());
        serde_json::to_writer(&mut outlet, &[1, 2]).unwrap();
        outlet.finish()
    });
    let mut read = Vec::new();
    body.read_to_end(&mut read).await.unwrap();
    assert_eq!(read[0], b' ');
    assert_eq!(serde_json::from_slice::<Vec<u8>>(&read).unwrap(), [1, 2]);
    made.await.unwrap().unwrap();

    let (_, turn) = lane().await;
    let (mut outlet, body) = pipe(turn);
    drop(body);
    assert!(!outlet.is_awaited());
}

#[rocket::async_test]
async fn what_ends_early_is_not_taken_for_whole() {
    let (_, turn) = lane().await;
    let (mut outlet, mut body) = pipe(turn);
    outlet.write_all(b"half").unwrap();
    drop(outlet);
    assert!(body.read_to_end(&mut Vec::new()).await.is_err());
}
