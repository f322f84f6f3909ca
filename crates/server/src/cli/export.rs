//! `aptum export`: the files that the page gives, or every job as an archive.

use std::error::Error;
use std::fs::File;
use std::io::{self, BufWriter, Write};
use std::path::Path;
use std::process::ExitCode;

use aptum_formats::archive::JobFile;
use aptum_formats::svg::MarksInCut;
use aptum_formats::svg::SvgUnits;

use super::find::Found;
use crate::language::machine_name;
use crate::output::{Desired, OutputKind, cutter_of, outputs};
use crate::store::rescue;

pub(super) fn export(found: &Found, out: &Path, marks: MarksInCut) -> Result<(), Box<dyn Error>> {
    let Found { job, prepared, workshop, blobs } = found;
    if prepared.layout.laid == 0 {
        return Err(format!("no copy of “{}” fits its sheet: see aptum check", job.name).into());
    }
    let desired = Desired { job, prepared, workshop, marks, units: SvgUnits::Mm, blobs: &**blobs };
    for output in outputs(prepared, cutter_of(job, workshop))
        .into_iter()
        .filter(|own| !own.kind.is_picture() && desired.held_by(own.kind).is_none())
    {
        // Sheets that are cut alike are a file each here: they lie beside each other in a folder.
        match output.kind {
            OutputKind::Cut([first, last]) => {
                for sheet in first..=last {
                    let kind = OutputKind::Cut([sheet, sheet]);
                    write(out, &format!("cut-{sheet}.svg"), |file| desired.write(kind, file))?;
                }
            }
            OutputKind::CutDxf([first, last]) => {
                for sheet in first..=last {
                    let kind = OutputKind::CutDxf([sheet, sheet]);
                    write(out, &format!("cut-{sheet}.dxf"), |file| desired.write(kind, file))?;
                }
            }
            OutputKind::Machine([first, last], loading, language) => {
                for sheet in first..=last {
                    let kind = OutputKind::Machine([sheet, sheet], loading, language);
                    let name = machine_name(sheet, loading, language);
                    write(out, &name, |file| desired.write(kind, file))?;
                }
            }
            kind => write(out, &output.name, |file| desired.write(kind, file))?,
        }
    }
    Ok(())
}

/// Every job that can be read as an archive, with the records that can be; exit code 1 when one cannot.
pub(super) fn all(data: &Path, out: &Path) -> Result<ExitCode, Box<dyn Error>> {
    let found = rescue(data)?;
    let mut code = ExitCode::SUCCESS;
    for (id, job) in found.jobs {
        match job {
            Ok(job) => {
                let safe: String = job
                    .name
                    .chars()
                    .map(|c| if c.is_ascii_alphanumeric() { c.to_ascii_lowercase() } else { '-' })
                    .take(60)
                    .collect();
                let bytes = JobFile::new(&job, &found.workshop).to_archive(&found.blobs)?;
                write(out, &format!("{id}-{safe}.aptum"), |file| file.write_all(&bytes))?;
            }
            Err(why) => {
                let _ = writeln!(std::io::stderr(), "aptum: {why}");
                code = ExitCode::FAILURE;
            }
        }
    }
    Ok(code)
}

/// Whole or not at all: a full disk must not leave half a file under the right name.
fn write(
    out: &Path,
    name: &str,
    bytes: impl FnOnce(&mut dyn Write) -> io::Result<()>,
) -> Result<(), Box<dyn Error>> {
    std::fs::create_dir_all(out).map_err(|error| format!("{}: {error}", out.display()))?;
    let path = out.join(name);
    let part = out.join(format!("{name}.part"));
    let whole = || {
        let mut file = BufWriter::new(File::create(&part)?);
        bytes(&mut file)?;
        file.into_inner()?.sync_all()?;
        std::fs::rename(&part, &path)
    };
    whole().map_err(|error| format!("{}: {error}", path.display()))?;
    writeln!(std::io::stdout(), "{}", path.display())?;
    Ok(())
}
