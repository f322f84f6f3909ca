//! A cutter on a socket: told in HP-GL, stopped, held, and failing.

use std::io::{BufRead, BufReader, Write};
use std::net::{TcpListener, TcpStream};
use std::sync::atomic::{AtomicBool, Ordering};
use std::time::Duration;

use aptum_core::geometry::Point;
use aptum_core::rehearsal::{Day, Loading};
use aptum_devices::cutter::{Bed, Cutter, Fault, Settings, State, serve};

use crate::page::{angles, loaded, page, printed};

/// A host that speaks with the machine.
struct Host {
    stream: TcpStream,
    lines: BufReader<TcpStream>,
}

impl Host {
    fn say(&mut self, text: &str) {
        self.stream.write_all(text.as_bytes()).unwrap();
    }

    fn hear(&mut self) -> String {
        let mut line = String::new();
        self.lines.read_line(&mut line).unwrap();
        line.trim_end().to_owned()
    }
}

/// Starts a machine, and does something with it and a host.
fn with(cutter: &Cutter, act: impl FnOnce(&mut Host)) {
    let listener = TcpListener::bind(("127.0.0.1", 0)).unwrap();
    let at = listener.local_addr().unwrap();
    let over = AtomicBool::new(false);
    std::thread::scope(|threads| {
        let served = threads.spawn(|| serve(&listener, cutter, &over));
        let stream = TcpStream::connect(at).unwrap();
        stream.set_read_timeout(Some(Duration::from_secs(60))).unwrap();
        let lines = BufReader::new(stream.try_clone().unwrap());
        let done = std::panic::catch_unwind(std::panic::AssertUnwindSafe(|| {
            act(&mut Host { stream, lines });
        }));
        over.store(true, Ordering::Relaxed);
        served.join().unwrap().unwrap();
        if let Err(panic) = done {
            std::panic::resume_unwind(panic);
        }
    });
}

/// What a page of Letter with the four angles is told as: places in units of 0.025 mm from the lower left corner.
fn asked() -> String {
    let mut text = String::from("IN;AP8636,11176;AR480;");
    for mark in angles() {
        let (x, y) = (mark.at.x * 40.0, (279.4 - mark.at.y) * 40.0);
        let (sx, sy) = mark.arms;
        text += &format!("AM{x:.2},{y:.2},1,400,40,0,{sx},{sy};");
    }
    text + "AF;"
}

#[test]
fn a_square_is_cut_where_it_was_printed() {
    let sheet = printed(&page(&angles()), Day::Bad, 5);
    let loading = Loading { shift: [2.0, -1.0], turn: 1.4, ..Loading::default() };
    let (bed, truth) = loaded(&sheet, &loading);
    let cutter = Cutter::new(Settings::default());
    cutter.load(bed);
    with(&cutter, |host| {
        host.say(&asked());
        assert!(host.hear().starts_with("found shift "));
        // 100 mm to the right of the corner and 50 up, a square of 40 mm.
        host.say("SP1;PU4000,2000;PD5600,2000,5600,3600,4000,3600,4000,2000;PU;AO;");
        assert_eq!(host.hear(), "done");
    });
    let cuts = cutter.cuts();
    assert_eq!(cuts.len(), 1);
    let corners = [(100.0, 50.0), (140.0, 50.0), (140.0, 90.0), (100.0, 90.0), (100.0, 50.0)];
    for (own, (x, y)) in cuts[0].line.iter().zip(corners) {
        let meant = truth(Point::new(x, 279.4 - y));
        assert!(own.distance(meant) < 0.25, "{own} {meant}");
    }
}

#[test]
fn it_holds_goes_on_and_stops() {
    let cutter = Cutter::new(Settings { speed: Some(100.0), ..Settings::default() });
    with(&cutter, |host| {
        host.say("IN;AP8000,8000;PU0,0;PD400,0;PD4000,0;PU;PU0,40;PD4000,40;PU;");
        std::thread::sleep(Duration::from_millis(200));
        host.say("\u{1b}.H\u{1b}.O");
        assert_eq!(host.hear(), "state held");
        let before = cutter.cuts();
        std::thread::sleep(Duration::from_millis(400));
        assert_eq!(cutter.cuts(), before);
        host.say("\u{1b}.G\u{1b}.O");
        assert_eq!(host.hear(), "state working");
        host.say("\u{1b}.K\u{1b}.O");
        assert_eq!(host.hear(), "state stopped");
        std::thread::sleep(Duration::from_millis(300));
        // What comes late of the old work is not done.
        host.say("PD2000,2000;PU;");
        host.say("IN;PU0,0;PD40,0;PU;AO;");
        assert_eq!(host.hear(), "done");
    });
    assert!(cutter.cuts().iter().all(|own| own.line.iter().all(|at| at.x < 101.0)));
    assert!(cutter.cuts().last().unwrap().line.len() == 2);
}

/// A stop in the middle of one long command ends it, wherever it comes.
#[test]
fn a_stop_ends_a_line_of_many_places() {
    let cutter = Cutter::new(Settings { speed: Some(2000.0), ..Settings::default() });
    let mut line = String::from("IN;AP8000,8000;PU0,0;PD");
    for at in 1..=4000 {
        line += &format!("{}{},{}", if at > 1 { "," } else { "" }, at % 200 * 40, at / 20);
    }
    line += ";PU;";
    with(&cutter, |host| {
        host.say(&line);
        std::thread::sleep(Duration::from_millis(150));
        host.say("\u{1b}.K\u{1b}.O");
        assert_eq!(host.hear(), "state stopped");
        std::thread::sleep(Duration::from_millis(200));
        let cut = cutter.cuts();
        std::thread::sleep(Duration::from_millis(300));
        assert_eq!(cutter.cuts(), cut, "it goes on");
        assert!(cut.iter().map(|own| own.line.len()).sum::<usize>() < 3900);
    });
}

#[test]
fn what_goes_wrong_is_said() {
    let squares = "PU0,0;PD400,0;PU;PU0,40;PD400,40;PU;PU0,80;PD400,80;PU;";
    for (fault, words) in [
        (Fault::NoPaper, "failed no paper"),
        (Fault::Jam, "failed jam"),
        (Fault::CoverOpen, "failed cover open"),
    ] {
        let cutter = Cutter::new(Settings { fault: Some((fault, 2)), ..Settings::default() });
        with(&cutter, |host| {
            host.say(&format!("IN;AP8000,8000;{squares}"));
            assert_eq!(host.hear(), words);
        });
        assert_eq!(cutter.cuts().len(), 2);
        assert_eq!(cutter.state(), State::Failed(fault));
    }
    let gone = Cutter::new(Settings { fault: Some((Fault::CutOff, 1)), ..Settings::default() });
    with(&gone, |host| {
        host.say(&format!("IN;AP8000,8000;{squares}"));
        // Nothing more is heard once the connection ended.
        let _ = host.hear();
        assert_eq!(host.hear(), "");
    });
    assert_eq!(gone.cuts().len(), 1);
    // Who calls next is not told of what went wrong with another.
    with(&gone, |host| {
        host.say("IN;AP8000,8000;AO;");
        assert_eq!(host.hear(), "done");
    });
}

#[test]
fn an_empty_bed_and_another_host_are_refused() {
    let cutter = Cutter::new(Settings::default());
    with(&cutter, |host| {
        host.say(&asked());
        assert_eq!(host.hear(), "refused no sheet lies on the bed");
        let at = host.stream.peer_addr().unwrap();
        let mut line = String::new();
        BufReader::new(TcpStream::connect(at).unwrap()).read_line(&mut line).unwrap();
        assert_eq!(line, "taken\n");
    });
    cutter.load(Bed::empty());
    assert_eq!(cutter.state(), State::Ready);
}

/// Bytes that mean nothing do nothing, and are no reason to fall over.
#[test]
fn noise_is_passed_over() {
    let mut random = fastrand::Rng::with_seed(3);
    let cutter = Cutter::new(Settings::default());
    with(&cutter, |host| {
        for _ in 0..200 {
            let noise: Vec<u8> = (0..random.usize(1..200)).map(|_| random.u8(32..127)).collect();
            host.stream.write_all(&noise).unwrap();
        }
        host.say(";\u{1b}.K;IN;PU0,0;PD400,400;PU;AO;");
        loop {
            if host.hear() == "done" {
                break;
            }
        }
    });
    assert!(!cutter.cuts().is_empty());
}
