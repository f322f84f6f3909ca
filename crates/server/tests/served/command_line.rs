//! `aptum export` and `aptum check`, against the demo's data and against job files.

use std::process::{Command, Output};

use aptum::store::Store;
use aptum::{demo, output};
use aptum_core::blob::NoBlobs;
use aptum_core::memory::Forgetful;
use aptum_core::sheet::nest::{Found, Watch};
use aptum_core::{Job, prepare};
use aptum_formats::archive::JobFile;
use aptum_formats::svg::MarksInCut;
use aptum_formats::svg::SvgUnits;
use tempfile::TempDir;

fn aptum(arguments: &[&str]) -> Output {
    Command::new(env!("CARGO_BIN_EXE_aptum")).args(arguments).output().unwrap()
}

fn data() -> TempDir {
    let folder = TempDir::new().unwrap();
    demo::start_jobs(&Store::open(folder.path()).unwrap()).unwrap();
    folder
}

#[test]
fn export_writes_the_files_that_the_page_gives() {
    let (data, out) = (data(), TempDir::new().unwrap());
    let (folder, target) = (data.path().to_str().unwrap(), out.path().join("new/folder"));
    let done = aptum(&[
        "export",
        "Tomato seed carton",
        "--data",
        folder,
        "--out",
        target.to_str().unwrap(),
    ]);
    assert!(done.status.success(), "{}", String::from_utf8_lossy(&done.stderr));

    let store = Store::open(data.path()).unwrap();
    let job: Job = store.job(3).unwrap().job;
    let prepared = prepare(&job, &store.workshop().unwrap()).unwrap();
    let workshop = store.workshop().unwrap();
    let mut names = Vec::new();
    let marks = MarksInCut::LeftOut;
    let (job, prepared, workshop, blobs) = (&job, &prepared, &workshop, &NoBlobs);
    let desired = output::Desired { job, prepared, workshop, marks, units: SvgUnits::Mm, blobs };
    for file in output::outputs(prepared, output::cutter_of(job, workshop))
        .into_iter()
        .filter(|file| !file.kind.is_picture())
    {
        let bytes = std::fs::read(target.join(&file.name)).unwrap();
        let mut made = Vec::new();
        desired.write(file.kind, &mut made).unwrap();
        assert!(bytes == made, "{}", file.name);
        names.push(file.name);
    }
    // Print, its steps with and without art, hand-cut and the ticket, the marks, the full sheets and the last one three times, the art, the flat twice and the closed piece three times; in the
    // folder each of the seven sheets has files of its own.
    assert_eq!(names.len(), 5 + 2 + 6 + 7);
    let written = std::fs::read_dir(&target).unwrap().count();
    assert_eq!(written, 5 + 2 + 21 + 7, "nothing else is left");

    // The same from an archive, on a machine without that data.
    let archive = out.path().join("job.aptum");
    std::fs::write(
        &archive,
        JobFile::new(job, &store.workshop().unwrap()).to_archive(&NoBlobs).unwrap(),
    )
    .unwrap();
    let again = out.path().join("again");
    let done =
        aptum(&["export", archive.to_str().unwrap(), "--out", again.to_str().unwrap(), "--marks"]);
    assert!(done.status.success(), "{}", String::from_utf8_lossy(&done.stderr));
    let print = |folder: &std::path::Path| std::fs::read(folder.join("print.pdf")).unwrap();
    assert!(print(&again) == print(&target));
    assert!(std::fs::read_to_string(again.join("cut-1.svg")).unwrap().contains("id=\"marks\""));
}

#[test]
fn check_prints_a_table_and_its_exit_code_says_whether_something_is_broken() {
    let data = data();
    let folder = data.path().to_str().unwrap();
    let fits = aptum(&["check", "Dibber carton", "--data", folder]);
    assert_eq!(fits.status.code(), Some(0));
    insta::assert_snapshot!(String::from_utf8(fits.stdout).unwrap());
    let broken = aptum(&["check", "Runner bean carton", "--data", folder]);
    assert_eq!(broken.status.code(), Some(1));
    let table = String::from_utf8(broken.stdout).unwrap();
    // However wide the columns are.
    let plain = table.split_whitespace().collect::<Vec<_>>().join(" ");
    assert!(plain.contains("BROKEN Blank across") && table.contains("→ Use A3 upright"), "{table}");
}

/// Goes by the first layout of a search.
struct FirstAlone;

impl Watch for FirstAlone {
    fn go_on(&self) -> bool {
        false
    }

    fn found(&self, _: &Found<'_>) {}
}

#[test]
fn a_job_of_several_pieces_is_checked_piece_by_piece_and_its_layout_goes_out() {
    let (data, out) = (data(), TempDir::new().unwrap());
    let folder = data.path().to_str().unwrap();
    let checked = aptum(&["check", "Spring table set", "--data", folder]);
    assert_eq!(checked.status.code(), Some(0));
    let table = String::from_utf8(checked.stdout).unwrap();
    for piece in ["Straight-tuck carton: Copies", "Plant tag: Copies", "Sowing bookmark: Copies"] {
        assert!(table.contains(piece), "{piece} in\n{table}");
    }

    // Two sheets in rows and columns; nested they are one, and the archive keeps that.
    let store = Store::open(data.path()).unwrap();
    let workshop = store.workshop().unwrap();
    let mut job = store.job(18).unwrap().job;
    let sheets = |job: &Job, folder: &str| {
        let archive = out.path().join("set.aptum");
        std::fs::write(&archive, JobFile::new(job, &workshop).to_archive(&NoBlobs).unwrap())
            .unwrap();
        let target = out.path().join(folder);
        let done = aptum(&["export", archive.to_str().unwrap(), "--out", target.to_str().unwrap()]);
        assert!(done.status.success(), "{}", String::from_utf8_lossy(&done.stderr));
        let names = std::fs::read_dir(&target).unwrap();
        names
            .map(|file| file.unwrap().file_name().into_string().unwrap())
            .filter(|name| name.starts_with("cut-") && name.ends_with(".svg"))
            .count()
    };
    assert_eq!(sheets(&job, "rows"), 2);
    job.sheet.turning = aptum_core::sheet::Turning::Quarter;
    let nested = aptum_core::nest_job(&job, &workshop, &Forgetful, &FirstAlone).unwrap();
    job.sheet.kept = Some(nested.kept);
    let laid = prepare(&job, &workshop).unwrap().layout.each_sheet().count();
    assert_eq!(sheets(&job, "nested"), laid);
}

#[test]
fn what_cannot_be_done_is_said_with_exit_code_2() {
    let (data, out) = (data(), TempDir::new().unwrap());
    let folder = data.path().to_str().unwrap();
    let bad = out.path().join("bad.aptum");
    std::fs::write(&bad, "PK nonsense").unwrap();
    let out = out.path().to_str().unwrap();
    for (arguments, words) in [
        (vec!["check", "Nobody’s carton", "--data", folder], "no file and no job named"),
        (vec!["check", bad.to_str().unwrap()], "damaged"),
        (vec!["export", "Runner bean carton", "--data", folder, "--out", out], "no copy of"),
        (vec!["check", "x", "--data", "/proc/none"], "no file and no job named"),
        (vec!["serve", "--data", "/proc/none"], "cannot be written"),
    ] {
        let done = aptum(&arguments);
        let said = String::from_utf8(done.stderr).unwrap();
        assert_eq!(done.status.code(), Some(2), "{arguments:?}: {said}");
        assert!(said.contains(words), "{said}");
    }
}
