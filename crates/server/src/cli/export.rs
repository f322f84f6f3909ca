//! `aptum export`: the files that the page gives.

use std::error::Error;
use std::path::Path;

use aptum_formats::svg::MarksInCut;

use super::find::Found;
use crate::output;

pub(super) fn export(found: &Found, out: &Path, marks: MarksInCut) -> Result<(), Box<dyn Error>> {
    let Found { job, prepared, workshop } = found;
    if prepared.layout.laid == 0 {
        return Err(format!("no copy of “{}” fits its sheet: see aptum check", job.name).into());
    }
    std::fs::create_dir_all(out).map_err(|error| format!("{}: {error}", out.display()))?;
    for file in output::all(job, prepared, workshop, marks) {
        let path = out.join(&file.name);
        // Whole or not at all: a full disk must not leave half a file under the right name.
        let part = out.join(format!("{}.part", file.name));
        std::fs::write(&part, &file.bytes)
            .and_then(|()| std::fs::rename(&part, &path))
            .map_err(|error| format!("{}: {error}", path.display()))?;
        println!("{}", path.display());
    }
    Ok(())
}
