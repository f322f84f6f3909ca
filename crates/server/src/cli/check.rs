//! `aptum check`: every limit, as a table.

use std::error::Error;
use std::io::Write;
use std::process::ExitCode;

use aptum_core::State;

use super::find::Found;

pub(super) fn check(found: &Found) -> Result<ExitCode, Box<dyn Error>> {
    let Found { job, prepared, .. } = found;
    let mut out = std::io::stdout().lock();
    writeln!(out, "{} ({})", job.name, prepared.code)?;
    let rows: Vec<[String; 4]> = prepared
        .checks
        .iter()
        .map(|check| {
            let state = match check.state {
                State::Fits => "fits",
                State::Attention => "attention",
                State::Broken => "BROKEN",
            };
            [
                state.to_owned(),
                check.label.clone(),
                format!("{} {}", check.value_text, check.bound_text),
                check.verdict.clone(),
            ]
        })
        .collect();
    let width =
        |column: usize| rows.iter().map(|row| row[column].chars().count()).max().unwrap_or(0);
    let widths = [width(0), width(1), width(2)];
    for (row, check) in rows.iter().zip(&prepared.checks) {
        let [state, label, limit, verdict] = row;
        writeln!(
            out,
            "{state:<0$}  {label:<1$}  {limit:<2$}  {verdict}",
            widths[0], widths[1], widths[2]
        )?;
        for remedy in &check.remedies {
            writeln!(out, "{:<1$}  → {2}", "", widths[0], remedy.text)?;
        }
    }
    let broken = prepared.worst() == State::Broken;
    Ok(if broken { ExitCode::FAILURE } else { ExitCode::SUCCESS })
}
