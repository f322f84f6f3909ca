//! Writes the flats that `tools/reference/tables.py` judges with other libraries: outlines as JSON, and DXF.

use std::error::Error;
use std::path::Path;

use aptum_core::form::Form;
use aptum_core::form::catalogue::CATALOGUE;
use aptum_core::geometry::flattened;
use aptum_core::job::JobPiece;
use aptum_core::{Job, Workshop, prepare};
use aptum_formats::dxf::flat_dxf;
use serde_json::json;

fn main() -> Result<(), Box<dyn Error>> {
    let folder = std::env::args().nth(1).ok_or("give a folder to write to")?;
    let folder = Path::new(&folder);
    std::fs::create_dir_all(folder)?;
    let workshop: Workshop = serde_json::from_str(include_str!("../../../demo/workshop.json"))?;
    let job: Job = serde_json::from_str(include_str!("../../../demo/jobs/tomato-carton.json"))?;
    let mut outlines = serde_json::Map::new();
    for structure in CATALOGUE {
        let stock = &job.pieces[0].stock.0;
        let piece = JobPiece::new("p1", Form::new(structure.id, &[]), stock);
        let job = Job { pieces: vec![piece], ..job.clone() };
        let prepared =
            prepare(&job, &workshop).map_err(|errors| format!("{}: {errors:?}", structure.id))?;
        let rings: Vec<Vec<[f64; 2]>> = prepared
            .first()
            .flat
            .parts
            .iter()
            .flat_map(|part| flattened(&part.outline))
            .map(|ring| ring.into_iter().map(|point| [point.x, point.y]).collect())
            .collect();
        outlines.insert(structure.id.to_owned(), json!(rings));
        let mut file = std::fs::File::create(folder.join(format!("{}.dxf", structure.id)))?;
        flat_dxf(prepared.first(), &mut file)?;
    }
    std::fs::write(folder.join("outlines.json"), serde_json::to_string(&outlines)?)?;
    Ok(())
}
