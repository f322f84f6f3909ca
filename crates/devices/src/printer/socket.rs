//! The printer's socket: takes the bytes of a PDF until the host has said all, prints its pages, and says so.

use std::io::{self, Read, Write};
use std::net::{TcpListener, TcpStream};
use std::sync::atomic::{AtomicBool, Ordering};
use std::time::Duration;

use super::{PrintedSheet, Printer, raster};

/// Largest file that is taken, bytes.
const LARGEST: u64 = 256 << 20;

/// Most pages of a file.
const MOST_PAGES: usize = 500;

/// How long a host may say nothing.
const SILENCE: Duration = Duration::from_secs(20);

/// Serves a printer until told that it is over; each sheet goes to `tray`, and errs in its own way.
///
/// # Errors
/// That the listener cannot be used.
pub fn serve(
    listener: &TcpListener,
    printer: &Printer,
    tray: &mut dyn FnMut(PrintedSheet),
    is_over: &AtomicBool,
) -> io::Result<()> {
    listener.set_nonblocking(true)?;
    let mut printed = 0;
    while !is_over.load(Ordering::Relaxed) {
        match listener.accept() {
            Ok((stream, _)) => {
                // A host that goes away has its sheets all the same.
                let _ = served(stream, printer, tray, &mut printed);
            }
            Err(error) if error.kind() == io::ErrorKind::WouldBlock => {
                std::thread::sleep(Duration::from_millis(20));
            }
            Err(error) => return Err(error),
        }
    }
    Ok(())
}

fn served(
    mut stream: TcpStream,
    printer: &Printer,
    tray: &mut dyn FnMut(PrintedSheet),
    printed: &mut u64,
) -> io::Result<()> {
    stream.set_nonblocking(false)?;
    stream.set_read_timeout(Some(SILENCE))?;
    let mut pdf = Vec::new();
    Read::by_ref(&mut stream).take(LARGEST + 1).read_to_end(&mut pdf)?;
    if pdf.len() as u64 > LARGEST {
        return stream.write_all(b"failed the file is too large\n");
    }
    let pages = match raster::page_count(&pdf) {
        Ok(pages) => pages.min(MOST_PAGES),
        Err(error) => return stream.write_all(format!("failed {error}\n").as_bytes()),
    };
    for page in 0..pages {
        let own = Printer { seed: printer.seed.wrapping_add(*printed), ..printer.clone() };
        match own.print(&pdf, page) {
            Ok(sheet) => tray(sheet),
            Err(error) => return stream.write_all(format!("failed {error}\n").as_bytes()),
        }
        *printed += 1;
        stream.write_all(format!("printed {} of {pages}\n", page + 1).as_bytes())?;
    }
    stream.write_all(b"done\n")
}
