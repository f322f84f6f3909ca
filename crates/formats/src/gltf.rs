//! The folded piece as glTF 2.0 in one file, its buffer embedded.
//!
//! A node and a mesh for each panel, with three materials: printed side, other side, cut edges. glTF
//! measures in metres and has `y` up; the piece stands as it is used.

use aptum_core::fold::{FoldModel, Pose, panel_mesh, stood};
use base64::Engine;
use base64::engine::general_purpose::STANDARD;
use serde_json::{Value, json};

use crate::line_style::rgb;

const FLOAT: u32 = 5126;
const UNSIGNED_INT: u32 = 5125;
const ARRAY_BUFFER: u32 = 34962;
const ELEMENT_ARRAY_BUFFER: u32 = 34963;

/// Metres in a millimetre.
const METRE: f64 = 0.001;

/// The closed piece, its printed side in `printed` and its other side in `card` (both `#rrggbb`).
#[must_use]
pub fn folded_gltf(name: &str, model: &FoldModel, printed: &str, card: &str) -> String {
    let pose = Pose::at(model, model.closed());
    let mut file = File::default();
    let (mut nodes, mut meshes) = (Vec::new(), Vec::new());
    for (index, panel) in model.panels.iter().enumerate() {
        let mesh = panel_mesh(panel, model.caliper);
        let mut primitives = Vec::new();
        for (material, faces) in [&mesh.printed, &mesh.back, &mesh.edges].into_iter().enumerate() {
            // Each triangle has corners of its own, so that its edges stay sharp.
            let corners: Vec<[f64; 3]> = faces
                .iter()
                .flatten()
                .map(|corner| stood(model, &pose, index, mesh.points[*corner as usize]))
                .map(|point| point.map(|mm| mm * METRE))
                .collect();
            if corners.is_empty() {
                continue;
            }
            let indices = (0..u32::try_from(corners.len()).unwrap_or(u32::MAX)).collect::<Vec<_>>();
            primitives.push(json!({
                "attributes": { "POSITION": file.positions(&corners), "NORMAL": file.normals(&corners) },
                "indices": file.indices(&indices),
                "material": material,
            }));
        }
        nodes.push(json!({ "name": panel.name, "mesh": meshes.len() }));
        meshes.push(json!({ "name": panel.name, "primitives": primitives }));
    }
    let material = |name: &str, colour: &str| {
        let [red, green, blue] = rgb(colour).map(linear);
        json!({
            "name": name,
            "pbrMetallicRoughness": {
                "baseColorFactor": [red, green, blue, 1.0],
                "metallicFactor": 0.0,
                "roughnessFactor": 0.9,
            },
        })
    };
    let data = STANDARD.encode(&file.bytes);
    json!({
        "asset": { "version": "2.0", "generator": "Aptum" },
        "scene": 0,
        "scenes": [{ "name": name, "nodes": (0..nodes.len()).collect::<Vec<_>>() }],
        "nodes": nodes,
        "meshes": meshes,
        "materials": [material("printed", printed), material("card", card), material("edge", card)],
        "accessors": file.accessors,
        "bufferViews": file.views,
        "buffers": [{
            "byteLength": file.bytes.len(),
            "uri": format!("data:application/octet-stream;base64,{data}"),
        }],
    })
    .to_string()
}

/// sRGB to linear light (IEC 61966-2-1).
fn linear(value: f32) -> f32 {
    if value <= 0.04045 { value / 12.92 } else { ((value + 0.055) / 1.055).powf(2.4) }
}

#[derive(Default)]
struct File {
    bytes: Vec<u8>,
    views: Vec<Value>,
    accessors: Vec<Value>,
}

#[expect(clippy::cast_possible_truncation, reason = "glTF stores 32-bit floats")]
const fn real(value: f64) -> f32 {
    value as f32
}

impl File {
    fn view(&mut self, data: &[u8], target: u32) -> usize {
        let start = self.bytes.len();
        self.bytes.extend_from_slice(data);
        self.views.push(json!({
            "buffer": 0, "byteOffset": start, "byteLength": data.len(), "target": target,
        }));
        self.views.len() - 1
    }

    fn vectors(&mut self, vectors: &[[f32; 3]], bounds: Value) -> usize {
        let data: Vec<u8> = vectors.iter().flatten().flat_map(|v| v.to_le_bytes()).collect();
        let view = self.view(&data, ARRAY_BUFFER);
        let mut accessor = json!({
            "bufferView": view, "componentType": FLOAT, "count": vectors.len(), "type": "VEC3",
        });
        if let (Some(accessor), Value::Object(bounds)) = (accessor.as_object_mut(), bounds) {
            accessor.extend(bounds);
        }
        self.accessors.push(accessor);
        self.accessors.len() - 1
    }

    fn positions(&mut self, corners: &[[f64; 3]]) -> usize {
        let corners: Vec<[f32; 3]> = corners.iter().map(|corner| corner.map(real)).collect();
        let bound = |start: f32, pick: fn(f32, f32) -> f32| {
            corners.iter().fold([start; 3], |all, corner| {
                [0, 1, 2].map(|axis: usize| pick(all[axis], corner[axis]))
            })
        };
        let (least, most) = (bound(f32::MAX, f32::min), bound(f32::MIN, f32::max));
        self.vectors(&corners, json!({ "min": least, "max": most }))
    }

    /// A normal for each corner: its triangle's.
    fn normals(&mut self, corners: &[[f64; 3]]) -> usize {
        let normals: Vec<[f32; 3]> = corners
            .chunks_exact(3)
            .flat_map(|three| {
                let edge =
                    |to: usize| [0, 1, 2].map(|axis: usize| three[to][axis] - three[0][axis]);
                let (a, b) = (edge(1), edge(2));
                let cross = [
                    a[1] * b[2] - a[2] * b[1],
                    a[2] * b[0] - a[0] * b[2],
                    a[0] * b[1] - a[1] * b[0],
                ];
                let length = cross.iter().map(|v| v * v).sum::<f64>().sqrt();
                // A triangle of no area has no normal of its own; any unit vector is valid.
                let unit = if length > 0.0 { cross.map(|v| v / length) } else { [0.0, 0.0, 1.0] };
                [unit.map(real); 3]
            })
            .collect();
        self.vectors(&normals, json!({}))
    }

    fn indices(&mut self, indices: &[u32]) -> usize {
        let data: Vec<u8> = indices.iter().flat_map(|index| index.to_le_bytes()).collect();
        let view = self.view(&data, ELEMENT_ARRAY_BUFFER);
        self.accessors.push(json!({
            "bufferView": view, "componentType": UNSIGNED_INT, "count": indices.len(), "type": "SCALAR",
        }));
        self.accessors.len() - 1
    }
}
