//! Making the piece as another structure with the same inside.

use super::{Way, WayKind, misfit_piece, piece_fits, way, with_form};
use crate::error::{Change, Remedy};
use crate::form::Form;
use crate::form::catalogue::CATALOGUE;
use crate::job::Job;
use crate::memory::Memory;
use crate::workshop::Workshop;

/// Other structures that are offered at most.
const STRUCTURES: usize = 3;

/// Other structures with the same inside whose blank is smaller and fits, the smallest first.
pub(super) fn other_structures(job: &Job, workshop: &Workshop, memory: &dyn Memory) -> Vec<Way> {
    let Some((number, form, caliper)) = misfit_piece(job, workshop, memory) else {
        return Vec::new();
    };
    let (Some(own), Ok(flat)) = (form.structure(), form.draw(caliper, job.unit)) else {
        return Vec::new();
    };
    let inside = form.inside(caliper);
    // Boxes hold what boxes hold: length, width and height must all be there.
    let keys: Vec<&str> = inside.iter().map(|(key, _)| key.as_str()).collect();
    if !["length", "width", "height"].iter().all(|key| keys.contains(key)) {
        return Vec::new();
    }
    let mut found: Vec<(f64, Way)> = CATALOGUE
        .iter()
        .filter(|other| other.id != own.id)
        .filter_map(|other| {
            let figures: Vec<(&str, f64)> =
                inside.iter().map(|(key, side)| (key.as_str(), *side)).collect();
            let form = Form::new(other.id, &figures);
            let same = form.inside(caliper);
            let holds = |(key, side): &(String, f64)| {
                same.iter().any(|(other, value)| other == key && (value - side).abs() < 0.01)
            };
            if !inside.iter().all(holds) {
                return None;
            }
            let drawn = form.draw(caliper, job.unit).ok()?;
            if drawn.area() >= flat.area() && drawn.parts.len() <= flat.parts.len() {
                return None;
            }
            let (changed, path) = with_form(job, number, form);
            if !piece_fits(&changed, workshop, memory, number) {
                return None;
            }
            let mut changes = vec![Change::new(&format!("{path}form.structure"), other.id)];
            changes.push(Change::new(&format!("{path}form.basis"), "inside"));
            for (key, side) in &inside {
                changes.push(Change::new(&format!("{path}form.{key}"), *side));
            }
            let blanks = if drawn.parts.len() > 1 {
                format!(", in {} blanks", drawn.parts.len())
            } else {
                String::new()
            };
            let text =
                format!("Make it as {} with the same inside{blanks}", other.name.to_lowercase());
            Some((drawn.area(), way(WayKind::Structure, changed, Remedy { text, changes })))
        })
        .collect();
    found.sort_by(|(a, _), (b, _)| a.total_cmp(b));
    found.into_iter().take(STRUCTURES).map(|(_, way)| way).collect()
}
