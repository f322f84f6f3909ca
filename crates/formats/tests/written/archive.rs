//! Job files: what is written is read, and what is not a job file is refused in words.

use std::io::{Cursor, Write};

use aptum_core::blob::NoBlobs;
use aptum_core::job::OperationId;
use aptum_core::{Job, LineKind, Workshop};
use aptum_formats::archive::{ArchiveError, JobFile, LARGEST_FILE, LARGEST_JOB};
use proptest::prelude::*;
use zip::ZipWriter;
use zip::write::SimpleFileOptions;

fn file() -> JobFile {
    let workshop: Workshop =
        serde_json::from_str(include_str!("../../../../demo/workshop.json")).unwrap();
    let job: Job =
        serde_json::from_str(include_str!("../../../../demo/jobs/tomato-carton.json")).unwrap();
    JobFile::new(&job, &workshop)
}

fn zipped(entries: &[(&str, &[u8])]) -> Vec<u8> {
    let mut zip = ZipWriter::new(Cursor::new(Vec::new()));
    for (name, bytes) in entries {
        zip.start_file(*name, SimpleFileOptions::default()).unwrap();
        zip.write_all(bytes).unwrap();
    }
    zip.finish().unwrap().into_inner()
}

#[test]
fn an_archive_and_its_json_read_back_with_only_the_records_used() {
    let file = file();
    assert_eq!(JobFile::read(&file.to_archive(&NoBlobs).unwrap()).unwrap(), file);
    assert_eq!(JobFile::read(file.to_json().as_bytes()).unwrap(), file);
    let counts = [
        file.workshop.stocks.len(),
        file.workshop.printers.len(),
        file.workshop.cutters.len(),
        file.workshop.mark_sets.len(),
    ];
    assert_eq!(counts, [1, 1, 1, 1]);
}

/// The documented form of `job.json`, to be read in review.
#[test]
fn the_form_of_a_job_file() {
    insta::assert_snapshot!(file().to_json());
}

#[test]
fn a_job_brings_its_records_and_spares_those_of_the_same_name() {
    let file = file();
    let (job, new) = file.clone().adopt(&Workshop::default());
    assert_eq!((&job, &new), (&file.job, &file.workshop));

    let (job, new) = file.clone().adopt(&file.workshop);
    assert_eq!((job, new), (file.job.clone(), Workshop::default()));

    let mut own = file.workshop.clone();
    own.stocks.values_mut().for_each(|stock| stock.caliper = 0.5);
    let mut told = file.clone();
    told.job.tooling.operations.insert(OperationId("cut@=white-14pt".into()), Default::default());
    told.job.tooling.order = vec![OperationId("cut@=white-14pt".into()), LineKind::Crease.into()];
    let (job, new) = told.adopt(&own);
    assert_eq!(job.pieces[0].stock.0, "white-14pt-2");
    // What is said of how it is worked goes with it.
    let told: Vec<&str> = job.tooling.operations.keys().map(|id| id.0.as_str()).collect();
    assert_eq!(told, ["cut@=white-14pt-2"]);
    assert_eq!(job.tooling.order[0].0, "cut@=white-14pt-2");
    assert_eq!(job.tooling.order[1], LineKind::Crease.into());
    assert_eq!(new.stocks.len(), 1);
    assert!(new.printers.is_empty());
}

#[test]
fn what_is_not_a_job_file_is_refused_in_words() {
    let good = file().to_json();
    let cases: Vec<(Vec<u8>, &str)> = vec![
        (vec![0; LARGEST_FILE + 1], "at most 167772160"),
        (b"nonsense".to_vec(), "damaged"),
        (b"PK\x03\x04 and then nothing".to_vec(), "damaged"),
        (zipped(&[("readme.txt", b"hello")]), "“readme.txt”"),
        (
            zipped(&[("job.json", good.as_bytes()), ("assets/../../etc/passwd", b"x")]),
            "no part of a job",
        ),
        (zipped(&[("job.json", good.as_bytes()), ("../job.json", b"x")]), "no part of a job"),
        (zipped(&[("job.json", good.as_bytes()), ("/etc/passwd", b"x")]), "no part of a job"),
        (zipped(&[("assets/a.png", b"x")]), "damaged"),
        (
            zipped(&[("job.json", &vec![b' '; usize::try_from(LARGEST_JOB).unwrap() + 1])]),
            "unpacks to more",
        ),
        (good.replace("aptum-job", "other").into_bytes(), "“other”"),
        (good.replace("\"version\": 4", "\"version\": 99").into_bytes(), "newer Aptum"),
        (good.replace("\"caliper\"", "\"calliper\"").into_bytes(), "damaged"),
        (good.replace("0.3556", "1e999").into_bytes(), "damaged"),
    ];
    for (bytes, words) in cases {
        let error = JobFile::read(&bytes).unwrap_err().to_string();
        assert!(error.contains(words), "{error}");
    }
    let many: Vec<(String, &[u8])> =
        (0..201).map(|n| (format!("assets/{n}"), b"x".as_slice())).collect();
    let many: Vec<(&str, &[u8])> =
        many.iter().map(|(name, bytes)| (name.as_str(), *bytes)).collect();
    assert!(matches!(JobFile::read(&zipped(&many)), Err(ArchiveError::TooMany(201))));
}

#[test]
fn a_truncated_archive_is_damaged_wherever_it_was_cut() {
    let whole = file().to_archive(&NoBlobs).unwrap();
    for cut in (0..whole.len()).step_by(37) {
        assert!(JobFile::read(&whole[..cut]).is_err(), "cut at {cut}");
    }
}

proptest! {
    #[test]
    fn no_bytes_make_it_panic(mut bytes in proptest::collection::vec(any::<u8>(), 0..400), zip: bool) {
        if zip { bytes.splice(0..0, *b"PK\x03\x04"); }
        prop_assert!(JobFile::read(&bytes).is_err());
    }

    #[test]
    fn a_flipped_byte_never_panics(at in any::<proptest::sample::Index>(), bit in 0..8u8) {
        let mut bytes = file().to_archive(&NoBlobs).unwrap();
        let at = at.index(bytes.len());
        bytes[at] ^= 1 << bit;
        let _ = JobFile::read(&bytes);
    }
}

/// An archive of the program before pieces were a list.
#[test]
fn an_archive_with_one_piece_at_the_top_is_read() {
    let bytes = include_bytes!("../../../server/tests/older/one-piece.aptum");
    let file = JobFile::read(bytes).unwrap();
    let known: Vec<(&str, u32)> =
        file.job.pieces.iter().map(|piece| (piece.id.0.as_str(), piece.copies)).collect();
    assert_eq!(known, [("p1", 4), ("p2", 12), ("p3", 4)]);
    let prepared = aptum_core::prepare(&file.job, &file.workshop).unwrap();
    let places = |runs: &[aptum_core::sheet::SheetRun]| -> Vec<(usize, f64, f64)> {
        runs.iter().flat_map(|run| &run.placements).map(|at| (at.part, at.x, at.y)).collect()
    };
    let kept = file.job.sheet.kept.as_ref().unwrap();
    assert_eq!(places(&prepared.layout.runs), places(&kept.runs));
    // Written again it has today's shape.
    let again = JobFile::read(&file.to_archive(&NoBlobs).unwrap()).unwrap();
    assert_eq!(again, file);
}

/// An archive of the program before pieces had lists, with words and a picture on its face.
#[test]
fn an_archive_with_layers_alone_is_read() {
    let bytes = include_bytes!("../../../server/tests/older/layers.aptum");
    let file = JobFile::read(bytes).unwrap();
    let piece = &file.job.pieces[0];
    assert!(piece.list.is_none() && file.assets.len() == 1);
    let pictures =
        piece.face.iter().flat_map(|face| &face.layers).filter_map(|layer| match &layer.kind {
            aptum_core::face::LayerKind::Picture(picture) => Some(picture),
            _ => None,
        });
    let pictures: Vec<_> = pictures.collect();
    assert_eq!(pictures.len(), 1);
    assert_eq!(
        (pictures[0].crop, pictures[0].drawn, pictures[0].mirrored),
        ([0.0; 4], false, false)
    );
    assert!(file.assets.contains_key(&pictures[0].blob));
    assert!(aptum_core::prepare(&file.job, &file.workshop).is_ok());
}
