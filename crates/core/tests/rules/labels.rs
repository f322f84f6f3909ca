//! Labels: their areas as geometry handbooks give them, closed and simple over all their figures, cut to the liner where
//! there is one.

use std::f64::consts::PI;

use aptum_core::form::{Family, Form, catalogue::CATALOGUE};
use aptum_core::geometry::{Rect, Shape};
use aptum_core::units::Unit;
use aptum_core::{Job, LineKind, Workshop, prepare};
use proptest::prelude::*;

/// Area and bounds of the outline.
fn drawn(structure: &str, figures: &[(&str, f64)]) -> (f64, Rect) {
    let flat = Form::new(structure, figures).draw(0.2, Unit::Mm).unwrap();
    assert_eq!(flat.parts.len(), 1);
    let part = &flat.parts[0];
    assert_eq!(part.region().parts(), 1, "{structure}: one piece");
    assert!(
        (part.region().area() - part.outline.area().abs()).abs() < 0.02 * part.area(),
        "{structure}: simple"
    );
    (part.outline.area().abs(), part.outline.bounding_box())
}

#[test]
fn areas_are_those_of_the_handbook() {
    let near = |structure: &str, figures: &[(&str, f64)], wanted: f64| {
        let (area, _) = drawn(structure, figures);
        // Quarter circles as cubics err by parts of ten thousand.
        assert!((area / wanted - 1.0).abs() < 1e-3, "{structure}: {area} instead of {wanted}");
    };
    near("label", &[("width", 60.0), ("height", 40.0)], 2400.0);
    let rounded = 60.0 * 40.0 - (4.0 - PI) * 25.0;
    near("label-rounded", &[("width", 60.0), ("height", 40.0), ("corner", 5.0)], rounded);
    // As round as it can be: a stadium.
    let stadium = 20.0 * 40.0 + PI * 400.0;
    near("label-rounded", &[("width", 60.0), ("height", 40.0), ("corner", 20.0)], stadium);
    near("label-round", &[("width", 50.0)], PI * 625.0);
    near("label-oval", &[("width", 60.0), ("height", 40.0)], PI * 600.0);
    let arch = 40.0 * 40.0 + PI * 400.0 / 2.0;
    near("label-arched", &[("width", 40.0), ("height", 60.0)], arch);
    // Both ends lose a triangle.
    near("label-ribbon", &[("width", 90.0), ("height", 20.0), ("corner", 8.0)], 1800.0 - 160.0);
    // Two triangles for each point, between radii of 25 and 20 that lie half a step apart.
    for points in [3.0, 5.0, 12.0, 60.0f64] {
        let star = points * 25.0 * 20.0 * (PI / points).sin();
        near("label-star", &[("width", 50.0), ("points", points), ("corner", 5.0)], star);
    }
}

#[test]
fn a_star_has_as_many_points_as_are_wanted() {
    for points in [3.0, 8.0, 31.0f64] {
        let figures = [("width", 50.0), ("points", points), ("corner", 6.0)];
        let flat = Form::new("label-star", &figures).draw(0.2, Unit::Mm).unwrap();
        let sides = flat.parts[0].outline.segments().count();
        assert!((f64::from(u32::try_from(sides).unwrap()) - 2.0 * points).abs() < 1e-9);
    }
}

#[test]
fn labels_are_kissed_on_a_liner_and_cut_through_on_card() {
    let workshop: Workshop =
        serde_json::from_str(include_str!("../../../../demo/workshop.json")).unwrap();
    let mut job: Job =
        serde_json::from_str(include_str!("../../../../demo/jobs/tomato-carton.json")).unwrap();
    let labels = CATALOGUE.iter().filter(|own| own.family == Family::Labels);
    assert_eq!(labels.clone().count(), 7);
    for structure in labels {
        job.pieces[0].form = Form::new(structure.id, structure.presets[0].figures);
        for (id, stock) in &workshop.stocks {
            job.pieces[0].stock = id.clone();
            job.sheet.size = stock.sheets[0].clone();
            for through in [false, true] {
                job.pieces[0].form.through = through;
                let prepared = prepare(&job, &workshop).unwrap();
                let edge = prepared.first().flat.parts[0].edge;
                let kissed = stock.liner.is_some() && !through;
                assert_eq!(edge, if kissed { LineKind::KissCut } else { LineKind::Cut });
            }
        }
    }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(48))]

    /// As large as was asked for, whatever the shape.
    #[test]
    fn labels_are_as_large_as_was_asked_for(width in 10.0..300.0f64, ratio in 0.3..2.5f64) {
        let height = (width * ratio).clamp(6.0, 400.0);
        for id in ["label", "label-rounded", "label-oval", "label-ribbon"] {
            let (area, bounds) = drawn(id, &[("width", width), ("height", height)]);
            prop_assert!((bounds.width() - width).abs() < 1e-3 * width, "{id}: {bounds:?}");
            prop_assert!((bounds.height() - height).abs() < 1e-3 * height, "{id}: {bounds:?}");
            prop_assert!(area <= width * height + 1e-6);
        }
        let (area, bounds) = drawn("label-round", &[("width", width)]);
        prop_assert!((bounds.width() - bounds.height()).abs() < 1e-3 * width);
        prop_assert!((area / (PI * width * width / 4.0) - 1.0).abs() < 1e-3);
    }
}
