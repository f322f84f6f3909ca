//! The sheets of a run: what the machine is sent for each, and how each lies in it.

use aptum_core::Prepared;
use aptum_core::geometry::{BezPath, path_text};
use aptum_core::sheet::SheetRun;
use aptum_core::workshop::Corner;
use schemars::JsonSchema;
use serde::Serialize;
use ts_rs::TS;

use crate::language::{Language, machine_name};
use crate::output::{cutter_of, loadings};
use crate::printed::Printed;

/// A file for the machine.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct MachineFile {
    /// The first sheet that it is for, and the last: they are cut alike.
    sheets: [u32; 2],
    name: String,
    /// Below `/api/prints/…/`.
    path: String,
}

/// A sheet as it is laid into the machine.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct SheetLies {
    /// The first sheet that lies so, and the last.
    sheets: [u32; 2],
    /// mm.
    page: [f64; 2],
    /// The marks, SVG path data.
    marks: String,
    /// The pieces' outlines.
    outlines: String,
    /// Where the first mark is; none without marks.
    first: Option<[f64; 2]>,
    /// The corner in which the blade starts.
    start: Option<Corner>,
}

/// The runs of sheets that are cut alike: which, the first sheet and the last.
fn alike(prepared: &Prepared) -> impl Iterator<Item = (&SheetRun, [u32; 2])> {
    prepared.layout.runs.iter().zip(prepared.layout.ranges()).filter(|(run, _)| run.sheets > 0)
}

/// A file for each loading of sheets that are cut alike, in each language that the cutter takes.
pub(super) fn files(printed: &Printed) -> Vec<MachineFile> {
    let Printed { job, workshop, prepared, .. } = printed;
    let cutter = cutter_of(job, workshop);
    let mut files = Vec::new();
    for (_, sheets) in alike(prepared) {
        for language in Language::ALL {
            if !cutter.is_some_and(|cutter| language.is_taken_by(cutter)) {
                continue;
            }
            for loading in 0..loadings(prepared) {
                let gcode = if language == Language::Gcode { "&gcode=true" } else { "" };
                files.push(MachineFile {
                    sheets,
                    name: machine_name(sheets[0], loading, language),
                    path: format!("machine/{}?loading={}{gcode}", sheets[0], loading + 1),
                });
            }
        }
    }
    files
}

/// How they lie, run by run.
pub(super) fn lies(printed: &Printed) -> Vec<SheetLies> {
    let Printed { job, workshop, prepared, .. } = printed;
    let page = prepared.windows.page;
    let mut marks = BezPath::new();
    prepared.marks.marks.iter().for_each(|own| marks.extend(own.ink.iter()));
    let marks = path_text(&marks);
    let blanks: Vec<_> = prepared.blanks().collect();
    let own = alike(prepared).map(|(run, sheets)| {
        let mut outlines = BezPath::new();
        for at in &run.placements {
            if let Some(blank) = blanks.get(at.part) {
                outlines.extend(at.transform() * blank.part.outline.clone());
            }
        }
        SheetLies {
            sheets,
            page: [page.width(), page.height()],
            marks: marks.clone(),
            outlines: path_text(&outlines),
            first: prepared.marks.marks.first().map(|own| [own.reference.x, own.reference.y]),
            start: cutter_of(job, workshop).map(|own| own.start),
        }
    });
    own.collect()
}
