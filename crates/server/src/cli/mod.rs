//! The command line.

mod check;
mod devices;
mod export;
mod find;

use std::error::Error;
use std::io::Write;
use std::net::{IpAddr, Ipv4Addr};
use std::path::PathBuf;
use std::process::ExitCode;
use std::sync::Arc;

use clap::{Args, Parser, Subcommand};

use crate::background::in_background;
use crate::gate::Guard;
use crate::serve::{Listen, server};
use crate::store::Store;
use crate::{api, demo};

/// Dielines that fit, fold and cut true.
#[derive(Debug, Parser)]
#[command(name = "aptum", version)]
struct Cli {
    /// Say what happens, on standard error; twice for more
    #[arg(short, long, action = clap::ArgAction::Count, global = true)]
    verbose: u8,
    #[command(subcommand)]
    command: Command,
}

#[derive(Debug, Subcommand)]
enum Command {
    /// Serve the page and the API from the data directory
    Serve(Serve),
    /// The same with the demo's jobs, in a data directory of its own
    Demo(Serve),
    /// Write a job's files into a folder, or every job as an archive
    Export {
        /// An archive, a job file, or the name of a job in the data directory
        #[arg(required_unless_present = "all")]
        job: Option<String>,
        /// Every job that can still be read, each as an archive: also from a damaged data file
        #[arg(long, conflicts_with = "job")]
        all: bool,
        /// The folder; it is made if it is missing
        #[arg(long)]
        out: PathBuf,
        /// Put the registration marks into the cut files too
        #[arg(long)]
        marks: bool,
        #[command(flatten)]
        data: DataDirectory,
    },
    /// Print a job's checks as a table; exit code 1 when one is broken
    Check {
        /// An archive, a job file, or the name of a job in the data directory
        job: String,
        #[command(flatten)]
        data: DataDirectory,
    },
    /// Copy the data file, also while it is served
    Backup {
        /// Where the copy goes
        file: PathBuf,
        #[command(flatten)]
        data: DataDirectory,
    },
    /// Put a copy in the place of the data file, which is kept beside it
    Restore {
        /// The copy
        file: PathBuf,
        #[command(flatten)]
        data: DataDirectory,
    },
    /// Stand-ins for a printer and a cutter, reached over TCP as real ones are
    Devices(devices::Devices),
    /// Print the API's types in TypeScript
    Types,
}

#[derive(Debug, Args)]
struct Serve {
    /// The address to listen on
    #[arg(long, default_value_t = IpAddr::V4(Ipv4Addr::LOCALHOST))]
    host: IpAddr,
    /// The port; 0 takes a free one
    #[arg(long, default_value_t = 4870)]
    port: u16,
    /// A further host name by which the server may be asked for; may be given several times
    #[arg(long = "name", value_name = "HOST")]
    names: Vec<String>,
    /// A file with the passphrase that others are asked for; without one it is made and printed
    #[arg(long, value_name = "FILE")]
    passphrase_file: Option<PathBuf>,
    #[command(flatten)]
    data: DataDirectory,
}

#[derive(Debug, Args)]
struct DataDirectory {
    /// Where jobs and the workshop are kept [default: aptum in the user's data folder]
    #[arg(long = "data", env = "APTUM_DATA", value_name = "DIR")]
    directory: Option<PathBuf>,
}

impl DataDirectory {
    /// The folder that was named, or `aptum` in the user's data folder.
    fn path(&self) -> PathBuf {
        self.directory.clone().unwrap_or_else(|| dirs::data_dir().unwrap_or_default().join("aptum"))
    }
}

/// Runs a command; the exit code is 0 when all is well, 1 when a check is broken, 2 on an error.
#[must_use]
pub fn run() -> ExitCode {
    let cli = Cli::parse();
    let level = match cli.verbose {
        0 => tracing::Level::WARN,
        1 => tracing::Level::INFO,
        _ => tracing::Level::DEBUG,
    };
    let log = tracing_subscriber::fmt().with_max_level(level).with_writer(std::io::stderr);
    log.with_target(false).with_ansi(false).init();
    match execute(cli.command) {
        Ok(code) => code,
        Err(error) => {
            let _ = writeln!(std::io::stderr(), "aptum: {error}");
            ExitCode::from(2)
        }
    }
}

fn execute(command: Command) -> Result<ExitCode, Box<dyn Error>> {
    match command {
        Command::Serve(serve) => {
            let store = Store::open(&serve.data.path())?;
            demo::start_workshop(&store)?;
            listen(store, &serve)
        }
        Command::Demo(serve) => {
            let store = Store::open(&serve.data.path())?;
            demo::start_jobs(&store)?;
            // What waits in the queue comes while the first page is looked at already.
            let queue = Store::open(&serve.data.path())?;
            in_background(move || demo::start_prints(&queue))?;
            // Another demo may have them: then they are that one's.
            let _ = demo::start_machines(&store);
            listen(store, &serve)
        }
        Command::Export { job: Some(job), out, marks, data, .. } => {
            let word = marks.then_some("included");
            export::export(&find::find(&job, &data)?, &out, crate::output::marks_wanted(word))?;
            Ok(ExitCode::SUCCESS)
        }
        Command::Export { job: None, out, data, .. } => export::all(&data.path(), &out),
        Command::Backup { file, data } => {
            crate::store::backup(&data.path(), &file)?;
            writeln!(std::io::stdout(), "{}", file.display())?;
            Ok(ExitCode::SUCCESS)
        }
        Command::Restore { file, data } => {
            let kept = crate::store::restore(&file, &data.path())?;
            let mut out = std::io::stdout();
            writeln!(out, "{} is the data file now", file.display())?;
            if let Some(kept) = kept {
                writeln!(out, "the one before is kept as {}", kept.display())?;
            }
            Ok(ExitCode::SUCCESS)
        }
        Command::Check { job, data } => check::check(&find::find(&job, &data)?),
        Command::Devices(own) => devices::devices(&own),
        Command::Types => {
            write!(std::io::stdout(), "{}", api::typescript())?;
            Ok(ExitCode::SUCCESS)
        }
    }
}

/// Who keeps the door of a server that others can reach.
fn guard(store: &Store, serve: &Serve) -> Result<Guard, Box<dyn Error>> {
    let salt = store.fact("salt", || Guard::make_salt().unwrap_or_default())?;
    let (passphrase, is_made) = match &serve.passphrase_file {
        Some(file) => {
            let text = std::fs::read_to_string(file)
                .map_err(|error| format!("{}: {error}", file.display()))?;
            (text.lines().next().unwrap_or_default().trim().to_owned(), false)
        }
        None => (Guard::make_passphrase()?, true),
    };
    let guard = Guard::new(&passphrase, &salt)?;
    let mut out = std::io::stderr();
    if is_made {
        let _ = writeln!(out, "The passphrase is {passphrase} until Aptum is started anew.");
        let _ =
            writeln!(out, "Keep one of your own in a file, and name it with --passphrase-file.");
    }
    if !serve.host.is_loopback() {
        let _ = writeln!(
            out,
            "Others can reach this server, and what goes over the network is not encrypted: passphrase and\n\
             jobs can be read on the way. In a network you do not trust, let Aptum listen on loopback and\n\
             put a proxy with a certificate before it, which passes on the Host header; name its host with --name."
        );
    }
    Ok(guard)
}

fn listen(store: Store, serve: &Serve) -> Result<ExitCode, Box<dyn Error>> {
    let guard = if serve.host.is_loopback() && serve.passphrase_file.is_none() {
        None
    } else {
        Some(Arc::new(guard(&store, serve)?))
    };
    let listen =
        Listen { address: serve.host, port: serve.port, names: serve.names.clone(), guard };
    let launched = rocket::execute(server(store, listen).launch());
    match launched {
        Ok(_) => Ok(ExitCode::SUCCESS),
        Err(error) => {
            // Rocket's error panics when it is dropped unread.
            let words = format!("{}", error.kind());
            Err(format!(
                "cannot listen at {} ({words}): choose another with --port",
                std::net::SocketAddr::new(serve.host, serve.port)
            )
            .into())
        }
    }
}
