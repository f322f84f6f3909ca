//! What flaps are where nothing is asked of them: the trade's rules over all sizes, and the shapes that let them fold.

use aptum_core::form::{Flat, Form};
use aptum_core::geometry::{BezPath, Region, Shape as _};
use aptum_core::units::Unit;
use proptest::prelude::*;

const CARD: f64 = 0.4;

fn carton(length: f64, width: f64, height: f64) -> Flat {
    let sizes = [("length", length), ("width", width), ("height", height)];
    Form::new("straight-tuck", &sizes).draw(CARD, Unit::Mm).unwrap()
}

fn figure(flat: &Flat, key: &str) -> f64 {
    let field = format!("form.{key}");
    flat.figures.iter().find(|figure| figure.field == field).unwrap().value
}

fn panel(flat: &Flat, name: &str) -> BezPath {
    flat.panel(name).unwrap_or_else(|| {
        let names: Vec<&str> = flat.panels().map(|(panel, _)| panel.name.as_str()).collect();
        panic!("no {name} among {names:?}")
    })
}

/// How wide a panel is across its reach, a little within the nearer and the farther end.
fn widths(path: &BezPath, upright: bool) -> [f64; 2] {
    let bounds = path.bounding_box();
    let across = |share: f64| {
        let strip = if upright {
            let y = bounds.y0 + share * bounds.height();
            kurbo::Rect::new(bounds.x0 - 1.0, y - 0.05, bounds.x1 + 1.0, y + 0.05)
        } else {
            let x = bounds.x0 + share * bounds.width();
            kurbo::Rect::new(x - 0.05, bounds.y0 - 1.0, x + 0.05, bounds.y1 + 1.0)
        };
        Region::inside(path).intersection(&Region::rect(strip)).area() / 0.1
    };
    [across(0.01), across(0.99)]
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(60))]

    /// Common practice: a tuck is a quarter of the width it closes, 12 to 20 mm; a glue flap is 13 mm wide; dust flaps
    /// are as long as the closing panel is wide, and do not meet.
    #[test]
    fn flaps_of_roomy_cartons_are_those_of_the_trade(
        length in 50.0..160.0f64,
        width in 30.0..90.0f64,
        height in 60.0..200.0f64,
    ) {
        let flat = carton(length, width, height);
        let tuck = figure(&flat, "tuck");
        prop_assert!((tuck - (width / 4.0).clamp(12.0, 20.0)).abs() < 1e-9, "{tuck}");
        prop_assert!((figure(&flat, "glue") - 13.0).abs() < 1e-9, "{}", figure(&flat, "glue"));
        let dust = figure(&flat, "dust");
        prop_assert!(dust <= width + 1e-9 && dust >= 12.0, "{dust}");
        prop_assert!(2.0 * dust < length, "{dust} twice in {length}");
    }

    /// A low or slim carton has smaller ones, which still fit into it.
    #[test]
    fn flaps_of_small_cartons_fit_into_them(
        length in 12.0..40.0f64,
        width in 10.0..30.0f64,
        height in 12.0..40.0f64,
    ) {
        let sizes = [("length", length), ("width", width), ("height", height)];
        let Ok(flat) = Form::new("straight-tuck", &sizes).draw(CARD, Unit::Mm) else { return Ok(()) };
        prop_assert!(figure(&flat, "tuck") <= height, "a tuck is no deeper than the carton");
        prop_assert!(figure(&flat, "glue") <= width + 1e-9, "a glue flap lies on its wall");
        prop_assert!(2.0 * figure(&flat, "dust") <= length + 1e-9, "dust flaps do not meet");
    }

    /// Flaps taper so that they find their way in: a glue flap by 15° at each end, a dust flap by 5° at each side (common
    /// practice).
    #[test]
    fn flaps_taper_as_the_trade_has_them(
        length in 50.0..140.0f64,
        width in 30.0..80.0f64,
        height in 60.0..180.0f64,
    ) {
        let flat = carton(length, width, height);
        let glue = panel(&flat, "Glue flap");
        let reach = figure(&flat, "glue");
        let [one, other] = widths(&glue, false);
        let (root, tip) = (one.max(other), one.min(other));
        // Between 1 and 99 of a hundred of its reach.
        let taper = 2.0 * reach * 0.98 * 15f64.to_radians().tan();
        prop_assert!((root - tip - taper).abs() < 0.1, "{root} {tip} {taper}");
        prop_assert!(root <= height + 2.0 * CARD + 1e-6, "no longer than its wall");
        for name in ["Top left dust flap", "Base right dust flap"] {
            let dust = panel(&flat, name);
            let whole = dust.bounding_box();
            let share = Region::inside(&dust).area() / whole.area();
            // Less than its box, by both leans and both rounded corners; not by half.
            prop_assert!((0.6..0.99).contains(&share), "{name}: {share}");
        }
        // A tuck's corners are rounded by half its depth, or a quarter of its hinge.
        let tuck = panel(&flat, "Top tuck");
        let whole = tuck.bounding_box();
        let (long, deep) = (whole.width().max(whole.height()), whole.width().min(whole.height()));
        let radius = (deep / 2.0).min(long / 4.0);
        let gone = whole.area() - Region::inside(&tuck).area();
        let corners = 2.0 * radius * radius * (1.0 - std::f64::consts::FRAC_PI_4);
        prop_assert!((gone - corners).abs() < 0.05 * corners + 0.2, "{gone} instead of {corners}");
    }
}

/// The same size gives the same flaps in every unit.
#[test]
fn units_change_what_is_said_and_not_what_is_cut() {
    let sizes = [("length", 63.5), ("width", 25.4), ("height", 101.6)];
    let [mm, inch] = [Unit::Mm, Unit::In]
        .map(|unit| Form::new("straight-tuck", &sizes).draw(CARD, unit).unwrap());
    assert_eq!(mm.parts[0].outline, inch.parts[0].outline);
    for (one, other) in mm.figures.iter().zip(&inch.figures) {
        assert_eq!(
            (&one.field, one.value, one.standard),
            (&other.field, other.value, other.standard)
        );
    }
}
