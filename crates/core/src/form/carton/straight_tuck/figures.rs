//! The carton's figures: ranges, defaults, and what contradicts what.

use super::{CLEARANCE, FLAP, INSIDE, Parts, StraightTuck, THICKEST_WALL, allowance};
use crate::error::{Faults, InputError, Remedy};
use crate::form::Figure;
use crate::form::carton::flaps;
use crate::units::{Unit, format_length, measure};

impl StraightTuck {
    /// The parts' sizes, once every figure is known to be drawable.
    pub(super) fn parts(&self, t: f64, unit: Unit) -> Result<Parts, Vec<InputError>> {
        let mut faults = Faults::default();
        let show = |value| measure(value, unit);
        let calipers = allowance(self.basis);
        let words = [
            ("form.length", "Length", "Across the front."),
            ("form.width", "Width", "From front to back."),
            ("form.height", "Height", "Between the two closures."),
        ];
        for axis in 0..3 {
            let (field, name, _) = words[axis];
            let [lowest, highest] = INSIDE.map(|inside| inside + calipers[axis] * t);
            faults.range(field, name, self.given()[axis], lowest..=highest, show);
        }
        let clearance = self.clearance.unwrap_or(CLEARANCE);
        faults.range("form.clearance", "Clearance", clearance, 0.0..=5.0, show);
        if !faults.is_empty() {
            return faults.or(Parts::default());
        }

        let inside @ [length, width, height] = self.inside(t);
        let (thinnest, axis) = (0..3)
            .map(|axis| (inside[axis], axis))
            .fold((f64::MAX, 0), |least, next| if next.0 < least.0 { next } else { least });
        if t > thinnest * THICKEST_WALL {
            let least = t / THICKEST_WALL + calipers[axis] * t;
            faults.add(InputError::new(
                words[axis].0,
                format!(
                    "Card of {} is too thick for a piece that is {} inside: it may be at most {}",
                    show(t),
                    show(thinnest),
                    show(thinnest * THICKEST_WALL)
                ),
                t,
                Remedy::set(
                    format!("Set the {} to {}", words[axis].1.to_lowercase(), show(least)),
                    words[axis].0,
                    least,
                ),
            ));
            return faults.or(Parts::default());
        }

        let dust_hinge = width - t - 2.0 * clearance;
        let tuck_hinge = length - 2.0 * clearance;
        let limit = |flap: f64| [FLAP[0], flap.clamp(FLAP[0], FLAP[1])];
        let named = |words, set, standard: f64, range: [f64; 2]| {
            Figure::with_standard(words, set, standard.clamp(range[0], range[1]), range, unit)
        };
        let flap_figures = [
            named(
                ("form.tuck", "Tuck flap", "From the tuck’s crease to its edge, behind the front."),
                self.tuck,
                flaps::tuck_standard(width),
                FLAP,
            ),
            named(
                (
                    "form.dust",
                    "Dust flaps",
                    "How far they reach in from the sides, under the closing panel.",
                ),
                self.dust,
                flaps::dust_standard(length, width, clearance),
                limit(flaps::dust_limit(dust_hinge)),
            ),
            named(
                ("form.glue", "Glue flap", "Width of the flap that joins front and left side."),
                self.glue,
                flaps::GLUE_STANDARD,
                limit(flaps::glue_limit(height)),
            ),
            named(
                (
                    "form.slit",
                    "Slit lock",
                    "Cut in from each end of the tuck’s crease; the dust flaps catch in it.",
                ),
                self.slit,
                flaps::slit_standard(tuck_hinge),
                [0.0, tuck_hinge / 3.0],
            ),
            named(
                ("form.clearance", "Clearance", "Play of what tucks in, on each side."),
                self.clearance,
                CLEARANCE,
                [0.0, 5.0],
            ),
        ];
        for figure in &flap_figures {
            let [lowest, highest] = figure.range;
            faults.range(&figure.field, &figure.label, figure.value, lowest..=highest, show);
        }
        if dust_hinge < FLAP[0] || tuck_hinge < FLAP[0] {
            faults.add(InputError::new(
                "form.clearance",
                format!(
                    "A clearance of {} leaves no dust flap or tuck in {} × {} inside",
                    show(clearance),
                    format_length(length, unit),
                    show(width)
                ),
                clearance,
                Remedy::set("Set it to 0", "form.clearance", 0.0),
            ));
        }
        let [tuck, dust, glue, slit, _] = flap_figures.each_ref().map(|figure| figure.value);
        let mut figures: Vec<Figure> = (0..3)
            .map(|axis| {
                let range = INSIDE.map(|inside| inside + calipers[axis] * t);
                Figure::given(words[axis], self.given()[axis], range, unit)
            })
            .collect();
        figures.extend(flap_figures);
        faults.or(Parts { t, inside, clearance, tuck, dust, glue, slit, figures })
    }
}
