//! The catalogue: every structure, in the order in which they are shown.

use super::structure::Structure;
use super::{bookmark, carton, label, packet, sleeve, solid, tabs, tag, tray};

/// Every structure. A new one is a file with its definition and a line here.
pub const CATALOGUE: &[&Structure] = &[
    &carton::straight_tuck::STRUCTURE,
    &carton::reverse_tuck::STRUCTURE,
    &carton::snap_lock::STRUCTURE,
    &carton::crash_lock::STRUCTURE,
    &carton::seal_end::STRUCTURE,
    &carton::gable::STRUCTURE,
    &carton::petals::STRUCTURE,
    &packet::pyramid_tie::STRUCTURE,
    &tray::four_corner::STRUCTURE,
    &tray::lid_and_base::STRUCTURE,
    &tray::mailer::STRUCTURE,
    &tray::tapered::TRAY,
    &tray::tapered::CUP,
    &sleeve::sleeve_and_tray::STRUCTURE,
    &sleeve::pillow::STRUCTURE,
    &sleeve::belly_band::STRUCTURE,
    &solid::platonic::CUBE,
    &solid::platonic::CUBOID,
    &solid::platonic::TETRAHEDRON,
    &solid::platonic::OCTAHEDRON,
    &solid::platonic::DODECAHEDRON,
    &solid::platonic::ICOSAHEDRON,
    &solid::prism::STRUCTURE,
    &solid::pyramid::STRUCTURE,
    &packet::envelope::STRUCTURE,
    &packet::tent_card::STRUCTURE,
    &packet::header_card::STRUCTURE,
    &tag::plain::SQUARE,
    &tag::plain::ROUNDED,
    &tag::plain::CLIPPED,
    &tag::plain::POINTED,
    &tag::plain::SCALLOPED,
    &tag::plain::ROUND,
    &tag::plain::OVAL,
    &tag::plain::TICKET,
    &tag::plain::ARCH,
    &tag::fold_over::STRUCTURE,
    &bookmark::plain::PLAIN,
    &bookmark::plain::ROUNDED,
    &bookmark::plain::POINTED,
    &bookmark::plain::SWALLOW,
    &bookmark::fold_over::STRUCTURE,
    &bookmark::corner_pocket::STRUCTURE,
    &bookmark::page_clip::STRUCTURE,
    &label::plain::RECTANGLE,
    &label::plain::ROUNDED,
    &label::plain::ROUND,
    &label::plain::OVAL,
    &label::plain::ARCHED,
    &label::plain::RIBBON,
    &label::plain::STAR,
    &tabs::index::TOP,
    &tabs::index::SIDE,
    &tabs::flag::STRUCTURE,
    &tabs::folder::STRUCTURE,
];

/// The structure of that id.
#[must_use]
pub fn find(id: &str) -> Option<&'static Structure> {
    CATALOGUE.iter().find(|structure| structure.id == id).copied()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::form::Form;
    use crate::units::Unit;

    #[test]
    fn ids_are_unique_and_every_structure_has_sizes_to_start_from() {
        for (index, structure) in CATALOGUE.iter().enumerate() {
            assert!(CATALOGUE[..index].iter().all(|other| other.id != structure.id));
            assert!(
                !structure.presets.is_empty() && !structure.uses.is_empty(),
                "{}",
                structure.id
            );
            let mut keys: Vec<_> = structure.params.iter().map(|param| param.key).collect();
            keys.sort_unstable();
            keys.dedup();
            assert_eq!(keys.len(), structure.params.len(), "{}", structure.id);
        }
    }

    #[test]
    fn every_preset_can_be_drawn_and_names_known_figures() {
        for structure in CATALOGUE {
            for preset in structure.presets {
                assert!(preset.figures.iter().all(|(key, _)| structure.param(key).is_some()));
                let form = Form::new(structure.id, preset.figures);
                let flat = form.draw(0.3, Unit::Mm);
                assert!(flat.is_ok(), "{} {}: {flat:?}", structure.id, preset.name);
            }
        }
    }
}
