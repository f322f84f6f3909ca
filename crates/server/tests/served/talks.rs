//! Talks with cutters that are none, say nothing, or go away.

use std::io::{Read, Write};
use std::net::{TcpListener, TcpStream};
use std::sync::Arc;
use std::sync::atomic::Ordering;
use std::thread::JoinHandle;
use std::time::{Duration, Instant};

use aptum::rehearsing::{PrintError, Talk, TalkError, Wish, print_at};

/// Somebody who listens, and does this with who calls.
fn somebody(act: impl FnOnce(TcpStream) + Send + 'static) -> (String, JoinHandle<()>) {
    let listener = TcpListener::bind(("127.0.0.1", 0)).unwrap();
    let address = listener.local_addr().unwrap().to_string();
    let thread = std::thread::spawn(move || act(listener.accept().unwrap().0));
    (address, thread)
}

/// Answers every question for room, and gathers what else comes.
fn roomy(mut stream: TcpStream, room: &str, mut heard: impl FnMut(&[u8]) -> Option<&'static str>) {
    let mut bytes = [0; 65_536];
    while let Ok(count) = stream.read(&mut bytes) {
        if count == 0 {
            return;
        }
        let asked = bytes[..count].windows(3).filter(|own| own == b"\x1b.B").count();
        for _ in 0..asked {
            stream.write_all(format!("room {room}\n").as_bytes()).unwrap();
        }
        if let Some(answer) = heard(&bytes[..count]) {
            stream.write_all(answer.as_bytes()).unwrap();
        }
    }
}

fn called(address: &str) -> Result<Talk, TalkError> {
    Talk::with(address, Arc::default())
}

#[test]
fn another_program_is_no_cutter() {
    let (address, thread) = somebody(|mut stream| {
        let mut bytes = [0; 10];
        let _ = stream.read(&mut bytes);
        stream.write_all(b"SSH-2.0-something\r\n").unwrap();
    });
    let said = called(&address).unwrap_err();
    assert!(matches!(said, TalkError::Nonsense(_)), "{said}");
    assert!(said.to_string().contains("SSH-2.0-something"));
    thread.join().unwrap();
    // One that never ends a line is not listened to for ever.
    let (address, thread) = somebody(|mut stream| {
        let _ = stream.write_all(&[b'x'; 100_000]);
    });
    let said = called(&address).unwrap_err();
    assert!(matches!(said, TalkError::Nonsense(_)), "{said}");
    assert!(said.to_string().len() < 200);
    thread.join().unwrap();
}

#[test]
fn one_that_closes_and_one_that_is_taken_are_told_apart() {
    let (address, thread) = somebody(drop);
    assert!(matches!(called(&address), Err(TalkError::Ended)));
    thread.join().unwrap();
    let (address, thread) = somebody(|mut stream| {
        stream.write_all(b"taken\n").unwrap();
        let _ = stream.read(&mut [0; 10]);
    });
    assert!(matches!(called(&address), Err(TalkError::Taken)));
    thread.join().unwrap();
    assert!(matches!(called("127.0.0.1:1"), Err(TalkError::Nobody(_))));
    assert!(matches!(called("no such name:9100"), Err(TalkError::Nobody(_))));
}

#[test]
fn a_cutter_that_says_nothing_is_not_waited_for_for_ever() {
    let (address, thread) = somebody(|mut stream| {
        let _ = stream.read_to_end(&mut Vec::new());
    });
    let began = Instant::now();
    assert!(matches!(called(&address), Err(TalkError::Silent)));
    assert!(began.elapsed() < Duration::from_secs(30));
    thread.join().unwrap();
}

/// No more is sent than the machine says it has room for.
#[test]
fn a_small_machine_is_not_flooded() {
    let (address, thread) = somebody(|stream| {
        let mut since = 0;
        roomy(stream, "5000", |bytes| {
            let asked = bytes.windows(3).any(|own| own == b"\x1b.B");
            since = if asked { 0 } else { since + bytes.len() };
            assert!(since <= 5000, "{since} bytes came at once");
            bytes.ends_with(b"AO;").then_some("done\n")
        });
    });
    let mut talk = called(&address).unwrap();
    let mut told = Vec::new();
    talk.send(&[b'x'; 40_000], &mut |sent| told.push(sent)).unwrap();
    assert!(told.len() >= 8 && told.is_sorted(), "{told:?}");
    talk.finish().unwrap();
    drop(talk);
    thread.join().unwrap();
}

#[test]
fn a_stop_is_said_to_the_machine_and_ends_the_talk() {
    let (address, thread) = somebody(|stream| {
        let mut all = Vec::new();
        roomy(stream, "5000", |bytes| {
            all.extend_from_slice(bytes);
            None
        });
        let said: Vec<u8> =
            all.windows(3).filter(|own| own.starts_with(b"\x1b.")).map(|own| own[2]).collect();
        let held = said.iter().position(|own| *own == b'H').unwrap();
        let went_on = said.iter().position(|own| *own == b'G').unwrap();
        assert!(held < went_on && said.last() == Some(&b'K'), "{said:?}");
    });
    let wish = Arc::new(Wish::default());
    let mut talk = Talk::with(&address, Arc::clone(&wish)).unwrap();
    let mut turn = 0;
    let stopped = talk.send(&[b'x'; 200_000], &mut |_| {
        turn += 1;
        wish.is_held.store(turn == 2, Ordering::Relaxed);
        wish.is_stopped.store(turn == 5, Ordering::Relaxed);
    });
    assert!(matches!(stopped, Err(TalkError::Stopped)));
    drop(talk);
    thread.join().unwrap();
}

#[test]
fn what_fails_while_it_works_is_said() {
    for (line, words) in [("failed jam\n", "jam"), ("failed cover open\n", "cover open")] {
        let (address, thread) = somebody(move |stream| {
            roomy(stream, "65536", |bytes| bytes.ends_with(b"AO;").then_some(line));
        });
        let mut talk = called(&address).unwrap();
        talk.send(b"PU0,0;PD10,10;", &mut |_| {}).unwrap();
        let said = talk.finish().unwrap_err();
        assert!(said.to_string().contains(words), "{said}");
        drop(talk);
        thread.join().unwrap();
    }
}

#[test]
fn a_printer_that_stops_or_goes_away_is_said() {
    let (address, thread) = somebody(|mut stream| {
        let _ = stream.read_to_end(&mut Vec::new());
        stream.write_all(b"printed 1 of 3\nfailed out of paper\n").unwrap();
    });
    let said = print_at(&address, b"%PDF").unwrap_err();
    assert!(said.to_string().contains("out of paper"), "{said}");
    thread.join().unwrap();
    let (address, thread) = somebody(|mut stream| {
        let _ = stream.read_to_end(&mut Vec::new());
        stream.write_all(b"printed 1 of 3\n").unwrap();
    });
    assert!(matches!(print_at(&address, b"%PDF"), Err(PrintError::Ended)));
    thread.join().unwrap();
    assert!(matches!(print_at("127.0.0.1:1", b"%PDF"), Err(PrintError::Nobody(_))));
}
