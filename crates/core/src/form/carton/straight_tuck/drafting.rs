//! What a drafter adds to the carton's flat: dimensions, and the limits met in it.

use kurbo::{Point, Rect, Shape};

use super::Parts;
use crate::check::{Check, Drawing, Sense, Stage};
use crate::error::Remedy;
use crate::form::carton::flaps;
use crate::form::{Axis, Dimension, Flat};
use crate::geometry::path_text;
use crate::units::{Unit, measure};

impl Parts {
    pub(super) fn dimensions(&self, flat: &Flat, unit: Unit) -> Vec<Dimension> {
        let bounds = |name: &str| flat.panel(name).map_or(Rect::ZERO, |p| p.outline.bounding_box());
        let (front, side, tuck) = (bounds("Front"), bounds("Right side"), bounds("Top tuck"));
        let (dust, glue) = (bounds("Top right dust flap"), bounds("Glue flap"));
        let base = |from: f64, to: f64, y: f64| {
            Dimension::new(Axis::Across, Point::new(from, y), Point::new(to, y), 0, unit)
        };
        let left = |x: f64, from: f64, to: f64, tier| {
            Dimension::new(Axis::Along, Point::new(x, from), Point::new(x, to), tier, unit)
        };
        let all = flat.bounds;
        vec![
            base(glue.x0, front.x0, glue.y1).of("form.glue"),
            base(front.x0, front.x1, front.y1).of("form.length"),
            base(side.x0, side.x1, side.y1).of("form.width"),
            left(front.x0, side.y0, side.y1, 0).of("form.height"),
            left(tuck.x0, tuck.y0, tuck.y1, 0).of("form.tuck"),
            left(dust.x0, dust.y0, dust.y1, 1).of("form.dust"),
            Dimension::new(
                Axis::Across,
                Point::new(all.x0, all.y1),
                Point::new(all.x1, all.y1),
                1,
                unit,
            ),
            Dimension::new(
                Axis::Along,
                Point::new(all.x0, all.y0),
                Point::new(all.x0, all.y1),
                2,
                unit,
            ),
        ]
    }

    pub(super) fn checks(&self, flat: &Flat, unit: Unit) -> Vec<Check> {
        let [length, width, height] = self.inside;
        let show = |value| measure(value, unit);
        let outline =
            |name: &str| flat.panel(name).map_or(String::new(), |p| path_text(&p.outline));
        let (smallest, name, field, place) = [
            (self.glue, "glue flap", "form.glue", "Glue flap"),
            (self.dust, "dust flaps", "form.dust", "Top right dust flap"),
            (self.tuck, "tuck flap", "form.tuck", "Top tuck"),
        ]
        .into_iter()
        .fold((f64::MAX, "", "", ""), |least, next| if next.0 < least.0 { next } else { least });
        let limit = |id, label, value, bound| {
            Check::length(id, Stage::Form, label, (value, Sense::AtMost, bound), unit)
        };
        vec![
            Check::length(
                "smallest-flap",
                Stage::Form,
                "Smallest flap",
                (smallest, Sense::AtLeast, flaps::SMALLEST_FLAP),
                unit,
            )
            .at(Drawing::Flat, outline(place))
            .remedy(Remedy::set(
                format!("Make the {name} {} wide", show(flaps::SMALLEST_FLAP)),
                field,
                flaps::SMALLEST_FLAP,
            )),
            limit("tucks", "Both tuck flaps", 2.0 * self.tuck, height)
                .at(Drawing::Flat, outline("Top tuck"))
                .remedy(Remedy::set(
                    format!("Shorten the tuck flaps to {}", show(height / 2.0)),
                    "form.tuck",
                    height / 2.0,
                )),
            limit("dust-flaps", "Both dust flaps", 2.0 * self.dust, length)
                .at(Drawing::Flat, outline("Top right dust flap"))
                .remedy(Remedy::set(
                    format!("Shorten the dust flaps to {}", show(length / 2.0)),
                    "form.dust",
                    length / 2.0,
                )),
            limit("glue-flap", "Glue flap", self.glue, width)
                .at(Drawing::Flat, outline("Glue flap"))
                .remedy(Remedy::set(
                    format!("Narrow the glue flap to {}", show(width)),
                    "form.glue",
                    width,
                )),
        ]
    }
}
