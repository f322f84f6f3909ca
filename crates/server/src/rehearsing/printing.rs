//! Speaking with a printer over TCP: it takes a print file, and says what came out.

use std::io::{BufRead, BufReader, Read, Write};
use std::net::{Shutdown, TcpStream, ToSocketAddrs};
use std::time::Duration;

/// Why nothing, or not all, was printed.
#[derive(Debug, thiserror::Error)]
pub enum PrintError {
    /// Nobody answers there.
    #[error(
        "No printer answers at {0}: see that it is switched on and that the address in its record is right"
    )]
    Nobody(String),
    /// The connection ended.
    #[error(
        "The connection to the printer ended: see what lies in its tray before you print again"
    )]
    Ended,
    /// It failed, and how.
    #[error("The printer stopped: {0}")]
    Failed(String),
}

/// How long a printer may say nothing, once it has the file.
const SILENCE: Duration = Duration::from_secs(180);

/// Sends a file; says how many sheets came out.
///
/// # Errors
/// [`PrintError`].
pub fn print_at(address: &str, pdf: &[u8]) -> Result<String, PrintError> {
    let nobody = || PrintError::Nobody(address.to_owned());
    let place = address.to_socket_addrs().map_err(|_| nobody())?.next().ok_or_else(nobody)?;
    let mut stream =
        TcpStream::connect_timeout(&place, Duration::from_secs(3)).map_err(|_| nobody())?;
    let ended = |_| PrintError::Ended;
    stream.set_write_timeout(Some(SILENCE)).map_err(ended)?;
    stream.set_read_timeout(Some(SILENCE)).map_err(ended)?;
    stream.write_all(pdf).map_err(ended)?;
    stream.shutdown(Shutdown::Write).map_err(ended)?;
    let mut printed = 0_u32;
    // A printer says little.
    for line in BufReader::new(stream.take(1 << 20)).lines() {
        let line = line.map_err(ended)?;
        if let Some(why) = line.strip_prefix("failed ") {
            return Err(PrintError::Failed(why.chars().take(200).collect()));
        }
        if line.starts_with("printed ") {
            printed += 1;
        }
        if line == "done" {
            let sheets =
                if printed == 1 { "1 page".to_owned() } else { format!("{printed} pages") };
            return Ok(format!("{sheets} came out of the printer"));
        }
    }
    Err(PrintError::Ended)
}
