//! Jobs as earlier versions wrote them, brought to today's shape before they are read.

use serde::Deserialize;
use serde_json::{Map, Value, json};

use crate::form::Form;
use crate::units::Unit;

/// The shape of jobs that is written.
pub const SHAPE: u32 = 4;

/// A job of an earlier shape as today's; what has today's shape stays as it is.
///
/// Shape 1 had one piece at the top and the further ones as `companions`, and kept the first one's copies with the
/// sheet; a face had one colour, or none, and either the panels' names or not; a kept layout said how many blanks the
/// job had, not which. What came later is read as it is: in shape 2 a picture named one panel and not a list of them, in
/// shape 3 no piece had a list and every picture was whole.
#[must_use]
pub fn brought_up(job: Value) -> Value {
    let mut job = match job {
        Value::Object(fields) if !fields.contains_key("pieces") && fields.contains_key("form") => {
            Value::Object(from_one_piece(fields))
        }
        other => other,
    };
    let count = job.pointer("/sheet/kept/blanks").and_then(Value::as_u64);
    if let Some(count) = count {
        let blanks = named_blanks(&job, usize::try_from(count).unwrap_or(0).min(1000));
        job["sheet"]["kept"]["blanks"] = blanks;
    }
    job
}

/// Names for the blanks of a kept layout that said only how many there were.
fn named_blanks(job: &Value, count: usize) -> Value {
    let pieces = job["pieces"].as_array().into_iter().flatten();
    let known = pieces.flat_map(|piece| {
        let form = Form::deserialize(&piece["form"]).ok();
        // Which blanks a form has does not depend on the card.
        let flat = form.and_then(|form| form.draw(0.3, Unit::Mm).ok());
        let parts = flat.map_or_else(Vec::new, |flat| flat.parts);
        parts.into_iter().map(move |part| json!({ "piece": piece["id"], "part": part.id }))
    });
    let gone = (0..count).map(|at| json!({ "piece": "gone", "part": format!("blank-{at}") }));
    known.chain(gone).take(count).collect()
}

fn from_one_piece(mut job: Map<String, Value>) -> Map<String, Value> {
    let mut take = |name: &str| job.remove(name).unwrap_or(Value::Null);
    let (form, stock, face) = (take("form"), take("stock"), take("face"));
    let companions = take("companions");
    let copies = job.get_mut("sheet").and_then(Value::as_object_mut);
    let copies = copies.and_then(|sheet| sheet.remove("copies")).unwrap_or(Value::Null);
    let first = json!({
        "id": "p1", "name": null, "form": form, "stock": stock, "face": layered(&face), "copies": copies,
    });
    let others = companions.as_array().into_iter().flatten().enumerate().map(|(at, other)| {
        let mut other = other.clone();
        other["id"] = format!("p{}", at + 2).into();
        other["face"] = layered(&other["face"]);
        other
    });
    let pieces = std::iter::once(first).chain(others).collect();
    job.insert("pieces".to_owned(), Value::Array(pieces));
    job
}

/// A colour and the panels' names as layers; `null` where nothing was printed.
fn layered(face: &Value) -> Value {
    if face.is_null() {
        return Value::Null;
    }
    let mut layers = Vec::new();
    if !face["colour"].is_null() {
        layers.push(json!({
            "id": "l1", "kind": "colour", "colour": face["colour"], "coverage": face["coverage"],
        }));
    }
    if face["captions"] == "names" {
        layers.push(json!({ "id": "l2", "kind": "panel-names" }));
    }
    json!({ "bleed": face["bleed"], "layers": layers })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::job::Job;

    #[test]
    fn one_piece_and_its_companions_become_a_list() {
        let old = json!({
            "name": "Carton and tag", "unit": "in",
            "form": { "structure": "straight-tuck", "basis": "inside", "length": 60 },
            "stock": "card",
            "face": { "colour": "#f0d9cf", "captions": "names", "coverage": "flaps", "bleed": 1.5 },
            "sheet": {
                "size": { "name": "A4", "width": 210, "height": 297 }, "printer": null, "cutter": null,
                "marks": null, "copies": 7, "spacing": 2,
                "kept": { "made": "by-hand", "blanks": 2, "runs": [
                    { "sheets": 1, "stock": null, "placements": [{ "x": 1, "y": 2, "turn": 0 }] },
                    { "sheets": 1, "stock": "kraft", "placements": [{ "part": 1, "x": 1, "y": 2, "turn": 0 }] }
                ] }
            },
            "companions": [{
                "name": "Tag", "form": { "structure": "tag", "basis": "inside" }, "stock": "kraft",
                "face": null, "copies": 9
            }]
        });
        let job: Job = serde_json::from_value(brought_up(old)).unwrap();
        let known = |at: usize| (job.pieces[at].id.0.as_str(), job.pieces[at].copies);
        assert_eq!((known(0), known(1)), (("p1", 7), ("p2", 9)));
        assert_eq!(job.pieces[0].own_name(), "Straight-tuck carton");
        assert_eq!(job.pieces[1].own_name(), "Tag");
        let face = job.pieces[0].face.as_ref().unwrap();
        assert_eq!((face.bleed, face.colour(), face.layers.len()), (1.5, Some("#f0d9cf"), 2));
        assert!(job.pieces[1].face.is_none());
        let kept = job.sheet.kept.as_ref().unwrap();
        let named: Vec<(&str, &str)> = kept
            .blanks
            .iter()
            .map(|blank| (blank.piece.0.as_str(), blank.part.0.as_str()))
            .collect();
        assert_eq!(named, [("p1", "carton"), ("p2", "tag")]);
        assert!(kept.blanks.iter().all(|blank| blank.outline.is_none()));
        let again = brought_up(serde_json::to_value(&job).unwrap());
        assert_eq!(serde_json::from_value::<Job>(again).unwrap(), job);
    }
}
