//! The command line.

mod check;
mod export;
mod find;

use std::error::Error;
use std::net::{IpAddr, Ipv4Addr};
use std::path::PathBuf;
use std::process::ExitCode;

use clap::{Args, Parser, Subcommand};

use crate::serve::{Listen, server};
use crate::store::Store;
use crate::{api, demo};

/// Dielines that fit, fold and cut true.
#[derive(Debug, Parser)]
#[command(name = "aptum", version)]
struct Cli {
    #[command(subcommand)]
    command: Command,
}

#[derive(Debug, Subcommand)]
enum Command {
    /// Serve the page and the API from the data directory
    Serve(Serve),
    /// The same with the demo's jobs, in a data directory of its own
    Demo(Serve),
    /// Write a job's files into a folder
    Export {
        /// An archive, a job file, or the name of a job in the data directory
        job: String,
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
    /// The folder that was named, or `aptum` below `XDG_DATA_HOME` or `~/.local/share`.
    fn path(&self) -> PathBuf {
        self.directory.clone().unwrap_or_else(|| {
            std::env::var_os("XDG_DATA_HOME")
                .map(PathBuf::from)
                .or_else(|| std::env::home_dir().map(|home| home.join(".local/share")))
                .unwrap_or_default()
                .join("aptum")
        })
    }

    fn open(&self) -> Result<Store, Box<dyn Error>> {
        let store = Store::open(&self.path())?;
        demo::start_workshop(&store)?;
        Ok(store)
    }
}

/// Runs a command; the exit code is 0 when all is well, 1 when a check is broken, 2 on an error.
#[must_use]
pub fn run() -> ExitCode {
    match execute(Cli::parse().command) {
        Ok(code) => code,
        Err(error) => {
            eprintln!("aptum: {error}");
            ExitCode::from(2)
        }
    }
}

fn execute(command: Command) -> Result<ExitCode, Box<dyn Error>> {
    match command {
        Command::Serve(serve) => listen(serve.data.open()?, &serve),
        Command::Demo(serve) => {
            let store = serve.data.open()?;
            demo::start_jobs(&store)?;
            listen(store, &serve)
        }
        Command::Export { job, out, marks, data } => {
            let word = marks.then_some("included");
            export::export(&find::find(&job, &data)?, &out, crate::output::marks_wanted(word))?;
            Ok(ExitCode::SUCCESS)
        }
        Command::Check { job, data } => check::check(&find::find(&job, &data)?),
        Command::Types => {
            print!("{}", api::typescript());
            Ok(ExitCode::SUCCESS)
        }
    }
}

fn listen(store: Store, serve: &Serve) -> Result<ExitCode, Box<dyn Error>> {
    let listen = Listen { address: serve.host, port: serve.port };
    let launched = rocket::execute(server(store, &listen).launch());
    match launched {
        Ok(_) => Ok(ExitCode::SUCCESS),
        Err(error) => {
            // Rocket's error panics when it is dropped unread.
            let words = format!("{}", error.kind());
            Err(format!(
                "cannot listen at {}:{} ({words}): choose another with --port",
                serve.host, serve.port
            )
            .into())
        }
    }
}
