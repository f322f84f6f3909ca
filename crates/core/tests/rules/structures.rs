//! What single structures promise: allowances, positions, rules of the trade.

use aptum_core::fold::{FoldModel, Pose};
use aptum_core::form::catalogue::CATALOGUE;
use aptum_core::form::{Flat, Form};
use aptum_core::geometry::{Rect, Shape};
use aptum_core::units::Unit;
use aptum_core::{Check, LineKind, State};

const CARD: f64 = 0.4;

fn draw(id: &str, figures: &[(&str, f64)]) -> Flat {
    Form::new(id, figures).draw(CARD, Unit::Mm).unwrap()
}

fn check<'a>(flat: &'a Flat, id: &str) -> &'a Check {
    flat.checks.iter().find(|check| check.id == id).unwrap()
}

fn bounds(flat: &Flat, panel: &str) -> Rect {
    flat.panel(panel).unwrap().bounding_box()
}

fn near(got: f64, want: f64) {
    assert!((got - want).abs() < 1e-6, "{got} instead of {want}");
}

/// The whole catalogue at its defaults, to be read in review.
#[test]
fn the_catalogue_as_a_table() {
    let table: String = CATALOGUE
        .iter()
        .map(|structure| {
            let flat = draw(structure.id, &[]);
            let blanks: Vec<String> = flat
                .parts
                .iter()
                .map(|part| format!("{:.2} × {:.2}", part.bounds.width(), part.bounds.height()))
                .collect();
            let panels: usize = flat.parts.iter().map(|part| part.panels.len()).sum();
            format!(
                "{} | {} | {} panels | {} steps | {:.0} mm²\n",
                structure.id,
                blanks.first().unwrap(),
                panels,
                flat.folding.as_ref().unwrap().steps.len(),
                flat.area()
            )
        })
        .collect();
    insta::assert_snapshot!(table);
}

/// Common practice: a lid's inside is its base's outside and a clearance each side.
#[test]
fn a_lid_goes_over_its_base_with_the_clearance() {
    let flat = draw("lid-and-base", &[("length", 80.0), ("width", 60.0), ("clearance", 0.7)]);
    // Across: the lid's base is its inside and one caliper; its inside is 60 + 2t + 2 × 0.7.
    let lid = bounds(&flat, "Lid base");
    near(lid.height(), 60.0 + 2.0 * CARD + 1.4 + CARD);
    // Along: room between the lid's own flaps is the base outside, 80 + 4t, and 2 × 0.7.
    near(lid.width(), 80.0 + 4.0 * CARD + 1.4 + 3.0 * CARD);
}

#[test]
fn a_sleeve_is_as_long_as_its_tray_and_goes_round_it() {
    let flat = draw("sleeve-and-tray", &[("length", 90.0), ("width", 60.0), ("height", 24.0)]);
    let top = bounds(&flat, "Sleeve top");
    near(top.height(), 90.0 + 4.0 * CARD);
    near(top.width(), 60.0 + 2.0 * CARD + 2.0 * 0.5 + CARD);
    near(bounds(&flat, "Sleeve right side").width(), 24.0 + CARD + 0.5 + CARD);
}

/// Derived: n tabs and the n − 1 gaps between them take the whole edge, from left to right.
#[test]
fn index_tabs_stand_side_by_side() {
    for (id, count) in [("index-tabs", 5u8), ("index-tabs", 3), ("index-tabs-side", 4)] {
        let figures =
            [("width", 120.0), ("height", 80.0), ("count", f64::from(count)), ("gap", 1.0)];
        let flat = draw(id, &figures);
        assert_eq!(flat.parts.len(), usize::from(count));
        let long = if id == "index-tabs" { 120.0 } else { 80.0 };
        let count = f64::from(count);
        let wide = (long - (count - 1.0)) / count;
        for (position, part) in flat.parts.iter().enumerate() {
            let points: Vec<_> =
                part.outline.elements().iter().filter_map(|element| element.end_point()).collect();
            // The foot of the tab lies on the leaf's edge, 11 mm inside the bounds.
            let foot: Vec<f64> = if id == "index-tabs" {
                points.iter().filter(|p| (p.y - 11.0).abs() < 1e-9).map(|p| p.x).collect()
            } else {
                points.iter().filter(|p| (p.x - 120.0).abs() < 1e-9).map(|p| p.y).collect()
            };
            let from = (wide + 1.0) * position as f64;
            let to = from + wide;
            for want in [from, to] {
                assert!(
                    foot.iter().any(|at| (at - want).abs() < 1e-9),
                    "{id} {position}: {foot:?} {want}"
                );
            }
        }
    }
}

#[test]
fn more_leaves_than_positions_start_over_at_the_first() {
    let flat = draw("index-tabs", &[("width", 120.0), ("count", 4.0), ("leaves", 6.0)]);
    assert_eq!(flat.parts.len(), 6);
    let middle = |part: usize| flat.parts[part].labels[0].centre.x;
    // Four tabs of (120 − 3 × 1) / 4 = 29.25, flush with both sides of the leaf.
    near(middle(0), 14.625);
    near(middle(3), 105.375);
    near(middle(4), middle(0));
    near(middle(5), middle(1));
}

#[test]
fn a_tag_is_as_large_as_was_asked_for() {
    for structure in CATALOGUE.iter().filter(|structure| structure.id.starts_with("tag")) {
        for (width, height) in [(41.0, 83.0), (66.0, 40.0), (41.0, 41.0)] {
            if structure.id == "tag-fold-over" {
                continue;
            }
            let height = if structure.id == "tag-round" { width } else { height };
            let flat = draw(structure.id, &[("width", width), ("height", height), ("hole", 0.0)]);
            near(flat.parts[0].bounds.width(), width);
            near(flat.parts[0].bounds.height(), height);
        }
    }
}

/// Common practice: at least a hole's width of card round it.
#[test]
fn holes_know_the_strength_rule() {
    for id in ["tag", "tag-rounded", "tag-round", "tag-arch", "bookmark", "tag-fold-over"] {
        let weak = draw(id, &[("hole", 5.0), ("edge", 3.0)]);
        assert_eq!(check(&weak, "hole-edge").state, State::Broken, "{id}");
        assert_eq!(check(&weak, "hole-edge").remedies[0].changes[0].field, "form.edge");
        let sound = draw(id, &[("hole", 5.0), ("edge", 6.5)]);
        assert_eq!(check(&sound, "hole-edge").state, State::Fits, "{id}");
        let without = draw(id, &[("hole", 0.0)]);
        assert!(without.checks.iter().all(|check| check.id != "hole-edge"));
    }
    // Under a point the nearest edge is the slanted one.
    let pointed =
        draw("tag-pointed", &[("hole", 5.0), ("edge", 5.0), ("corner", 15.0), ("width", 40.0)]);
    assert_eq!(check(&pointed, "hole-edge").state, State::Broken);
}

#[test]
fn a_tag_may_have_a_ring_a_slot_and_a_stub() {
    let ring = draw("tag", &[("ring", 4.0), ("hole", 5.0)]);
    assert_eq!(ring.parts[1].name, "Ring");
    near((ring.parts[1].bounds.width() * 1e3).round() / 1e3, 13.0);
    assert_eq!(ring.parts[1].openings().count(), 1);
    let slot = draw("tag", &[("slot", 14.0), ("hole", 4.0)]);
    let hole = slot.parts[0].openings().next().unwrap().bounding_box();
    assert!((hole.width() - 14.0).abs() < 1e-3 && (hole.height() - 4.0).abs() < 1e-3);
    let stub = draw("tag", &[("height", 75.0), ("stub", 20.0)]);
    near(stub.parts[0].bounds.height(), 95.0);
    let torn: Vec<_> =
        stub.strokes().into_iter().filter(|l| l.kind == LineKind::Perforation).collect();
    assert_eq!(torn.len(), 1);
    near(torn[0].path.bounding_box().y0, 75.0);
}

#[test]
fn scallops_come_out_even_and_bulge_by_a_quarter() {
    let flat = draw("tag-scalloped", &[("width", 40.0), ("height", 60.0), ("corner", 8.0)]);
    // Each side bulges 2 mm out of a rectangle of 36 × 56: four or five across, seven along. The valleys
    // lie on it.
    let valleys = flat.parts[0].outline.elements().iter().filter_map(|element| element.end_point());
    let across = valleys.filter(|at| (at.y - 2.0).abs() < 1e-9).count();
    // Either corner, the valleys between, and the closing of the path at the foot's left.
    assert!((5..=6).contains(&across), "{across}");
    near(flat.bounds.width(), 40.0);
}

/// The triangle of a tent card: its base angle from cos β = d / 2h, by trigonometry.
#[test]
fn a_tent_card_stands_on_its_foot() {
    let (h, d) = (80.0f64, 48.0f64);
    let flat = draw("tent-card", &[("height", h), ("depth", d)]);
    let model = FoldModel::new(&flat, CARD).unwrap();
    let ridge = model.panels[model.index("Back").unwrap()].fold;
    let apex = 2.0 * (d / 2.0 / h).asin().to_degrees();
    near(ridge, 180.0 - apex);
    let pose = Pose::at(&model, model.closed());
    let front = model.index("Front").unwrap();
    let glue = model.index("Glue flap").unwrap();
    let between = pose.normal(front).dot(&pose.normal(glue)).abs();
    near(between, 1.0);
}

#[test]
fn a_snap_locks_tongue_goes_through_the_notch() {
    let flat =
        draw("snap-lock", &[("length", 72.0), ("width", 60.0), ("height", 90.0), ("lock", 8.0)]);
    let depth = |panel: &str| {
        let part = &flat.parts[0];
        part.panels.iter().find(|known| known.name == panel).unwrap().reach.unwrap()
    };
    // Back flap and tongue reach past the middle of the base, (60 + t) / 2, by the lock.
    near(depth("Base back flap"), 30.2 + 8.0);
    near(depth("Base front flap"), 30.2 + 8.0);
    assert!(depth("Base right flap") < (72.0 - 24.0) / 2.0);
}

#[test]
fn a_mailers_locks_stand_in_its_slots() {
    let flat = draw("roll-over-mailer", &[("locks", 12.0)]);
    assert_eq!(flat.parts[0].openings().count(), 4);
    for slot in flat.parts[0].openings() {
        let bounds = slot.bounding_box();
        assert!(bounds.height() >= 12.0 && bounds.width() > CARD);
    }
    assert_eq!(draw("roll-over-mailer", &[("locks", 0.0)]).parts[0].openings().count(), 0);
}

/// A circle's chord and sagitta: the pillow's creases run in by half its depth in the middle.
#[test]
fn a_pillows_crease_runs_in_by_half_its_depth() {
    let flat =
        draw("pillow", &[("width", 70.0), ("length", 95.0), ("depth", 20.0), ("glue", 10.0)]);
    let creases = flat.strokes().into_iter().filter(|line| {
        line.kind == LineKind::Crease
            && line.path.elements().len() == 2
            && matches!(line.path.elements()[1], aptum_core::geometry::PathEl::CurveTo(..))
    });
    let front = flat.panel("Front 1").unwrap().bounding_box();
    let deepest = creases
        .map(|line| line.path.bounding_box())
        .filter(|bounds| bounds.x1 <= front.x0 + 70.0 + 1e-6 && bounds.y1 < front.center().y)
        .map(|bounds| bounds.y1)
        .fold(f64::MIN, f64::max);
    let end = front.y0;
    assert!((deepest - end - 10.0).abs() < 0.02, "{}", deepest - end);
    assert!(flat.folding.as_ref().unwrap().ruling < 0.2);
}

#[test]
fn card_too_thick_and_figures_of_another_structure_are_told_apart() {
    // What a tag has no use for waits for a structure that has.
    let tag = Form::new("tag", &[("width", 40.0), ("length", -5.0)]);
    assert!(tag.draw(CARD, Unit::Mm).is_ok());
    let thick = Form::new("four-corner-tray", &[("height", 6.0)]).draw(2.0, Unit::Mm).unwrap_err();
    assert!(thick[0].message.contains("too thick"), "{}", thick[0].message);
}
