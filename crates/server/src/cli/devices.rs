//! `aptum devices`: the printer and the cutter that ship with Aptum, each at its own address.

use std::error::Error;
use std::io::Write;
use std::process::ExitCode;
use std::sync::Arc;
use std::sync::atomic::AtomicBool;

use aptum_core::rehearsal::Day;
use aptum_core::workshop::Corner;
use aptum_devices::cutter::Settings;
use aptum_devices::printer::PPI;
use clap::{Args, ValueEnum};

use crate::standins::{Setup, Standing};

/// How the machines are set up.
#[derive(Debug, Args)]
pub struct Devices {
    /// The cutter's port on loopback; 0 takes a free one
    #[arg(long, default_value_t = 4890)]
    cutter: u16,
    /// The printer's port on loopback; 0 takes a free one
    #[arg(long, default_value_t = 4891)]
    printer: u16,
    /// The cutter's units in a millimetre
    #[arg(long, default_value_t = 40.0)]
    units: f64,
    /// The corner of the page from which the cutter counts
    #[arg(long, value_enum, default_value_t = From::BottomLeft)]
    origin: From,
    /// The cutter's x runs along the feed
    #[arg(long)]
    swapped: bool,
    /// How fast the cutter moves, mm/s; 0 as fast as it is told
    #[arg(long, default_value_t = 150.0)]
    pace: f64,
    /// What the printer does to its sheets
    #[arg(long, value_enum, default_value_t = What::Usual)]
    day: What,
    /// By which it errs: the same number, the same errors
    #[arg(long, default_value_t = 1)]
    seed: u64,
    /// Pixels in an inch that the printer prints: 300 or 600
    #[arg(long, default_value_t = PPI[0], value_parser = fineness)]
    ppi: u32,
}

fn fineness(text: &str) -> Result<u32, String> {
    let known = text.parse().ok().filter(|ppi| PPI.contains(ppi));
    known.ok_or_else(|| format!("the printer prints {} or {} pixels in an inch", PPI[0], PPI[1]))
}

#[derive(Debug, Clone, Copy, ValueEnum)]
enum From {
    TopLeft,
    TopRight,
    BottomRight,
    BottomLeft,
}

#[derive(Debug, Clone, Copy, ValueEnum)]
enum What {
    True,
    Usual,
    Bad,
    FitToPage,
    OtherPaper,
    Clipped,
    WrongWay,
}

/// Serves both until the process ends.
pub fn devices(own: &Devices) -> Result<ExitCode, Box<dyn Error>> {
    let units = if (1.0..=1000.0).contains(&own.units) { own.units } else { 40.0 };
    let cutter = Settings {
        units,
        origin: match own.origin {
            From::TopLeft => Corner::TopLeft,
            From::TopRight => Corner::TopRight,
            From::BottomRight => Corner::BottomRight,
            From::BottomLeft => Corner::BottomLeft,
        },
        swapped: own.swapped,
        speed: (own.pace > 0.0).then_some(own.pace),
        is_attended: true,
        ..Settings::default()
    };
    let day = match own.day {
        What::True => Day::True,
        What::Usual => Day::Usual,
        What::Bad => Day::Bad,
        What::FitToPage => Day::FitToPage,
        What::OtherPaper => Day::OtherPaper,
        What::Clipped => Day::Clipped,
        What::WrongWay => Day::WrongWay,
    };
    let standing =
        Standing::at(own.cutter, own.printer, Setup { cutter, day, seed: own.seed, ppi: own.ppi })
            .map_err(|error| {
                format!("cannot listen ({error}): choose other ports with --cutter and --printer")
            })?;
    let [cutter, printer] = standing.addresses()?;
    let mut out = std::io::stdout();
    let _ = writeln!(out, "The cutter listens at {cutter}");
    let _ = writeln!(out, "The printer listens at {printer}");
    let _ = out.flush();
    standing.serve(&Arc::new(AtomicBool::new(false)))?;
    Ok(ExitCode::SUCCESS)
}
