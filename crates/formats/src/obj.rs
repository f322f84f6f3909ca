//! The folded piece as Wavefront OBJ in millimetres, an object for each panel, the card's thickness
//! included. `y` is up as the piece stands.

use std::fmt::Write;

use aptum_core::fold::{FoldModel, Pose, panel_mesh, stood};

/// The closed piece.
#[must_use]
pub fn folded_obj(model: &FoldModel) -> String {
    let pose = Pose::at(model, model.closed());
    let mut text = "# millimetres, y up\n".to_owned();
    let mut before = 1;
    for (index, panel) in model.panels.iter().enumerate() {
        let mesh = panel_mesh(panel, model.caliper);
        let name: String =
            panel.name.chars().map(|c| if c.is_whitespace() { '-' } else { c }).collect();
        // Writing to a string cannot fail.
        let _ = writeln!(text, "o {name}");
        for point in &mesh.points {
            let [x, y, z] = stood(model, &pose, index, *point);
            let _ = writeln!(text, "v {x:.4} {y:.4} {z:.4}");
        }
        for [a, b, c] in mesh.printed.iter().chain(&mesh.back).chain(&mesh.edges) {
            let _ = writeln!(text, "f {} {} {}", a + before, b + before, c + before);
        }
        before += u32::try_from(mesh.points.len()).unwrap_or(u32::MAX);
    }
    text
}
