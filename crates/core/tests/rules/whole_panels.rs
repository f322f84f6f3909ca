//! Panels as layers lie on them.

use aptum_core::form::catalogue::CATALOGUE;
use aptum_core::form::panel::{meant, whole_panels};
use aptum_core::form::{Flat, Form, Role};
use aptum_core::geometry::Shape;
use aptum_core::units::Unit;

fn flat(structure: &str) -> Flat {
    Form::new(structure, &[]).draw(0.3, Unit::Mm).unwrap()
}

#[test]
fn every_panel_is_in_one_whole_panel_with_its_area() {
    for structure in CATALOGUE {
        let flat = flat(structure.id);
        let whole = whole_panels(&flat);
        let names: Vec<&str> =
            whole.iter().flat_map(|own| own.names.iter().map(String::as_str)).collect();
        for (panel, _) in flat.panels() {
            let own = names.iter().filter(|name| **name == panel.name).count();
            assert_eq!(own, 1, "{}: {}", structure.id, panel.name);
        }
        let area: f64 = whole.iter().map(|own| own.area).sum();
        let parts: f64 = flat.panels().map(|(_, own)| own.area().abs()).sum();
        assert!((area - parts).abs() < 1e-6 * parts, "{}", structure.id);
        let faces = || whole.iter().filter(|own| own.role == Role::Face);
        let largest = faces().map(|own| own.area).fold(0.0, f64::max);
        let meant = meant(&whole);
        assert_eq!(meant.is_some(), faces().count() > 0, "{}", structure.id);
        assert!(meant.is_none_or(|own| own.area * 1.05 >= largest), "{}", structure.id);
    }
}

/// Front and back of a carton and of a pillow pack differ by the card's thickness, if at all: the front is meant.
#[test]
fn what_differs_by_the_cards_thickness_does_not_decide() {
    for structure in ["straight-tuck", "pillow"] {
        let whole = whole_panels(&flat(structure));
        assert_eq!(meant(&whole).unwrap().name, "Front", "{structure}");
    }
}
