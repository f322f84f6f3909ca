//! What a cutter needs that scans the page and finds the outlines by itself: ink that stands out from the card, up to every
//! outline; ink apart from ink; and nothing to cut that is no outline of the print.

use kurbo::{BezPath, ParamCurveNearest, PathEl, PathSeg, Point, Shape};

use super::Scene;
use crate::LineKind;
use crate::check::{Check, Sense, Stage, State};
use crate::error::Remedy;
use crate::face::{Art, Ink};
use crate::form::Part;
use crate::sheet::OnGround;
use crate::workshop::Finds;

/// Ink is told from card at so many to one (common practice), as WCAG 2.2 reckons contrast.
const TOLD_APART: f64 = 2.0;

/// Two outlines nearer than this run into one (common practice), mm.
const LEAST_APART: f64 = 1.0;

impl Scene<'_> {
    pub(super) fn scanned(&self) -> Vec<Check> {
        let scans = self.records.cutter.is_some_and(|cutter| cutter.finds == Finds::Scan);
        if !scans {
            return Vec::new();
        }
        let pieces = self.ground.on_sheets();
        let mut checks: Vec<Check> = pieces
            .flat_map(|piece| {
                let own = [self.stands_out(piece), self.without_outline(piece)];
                own.map(|check| {
                    check.map(|own| own.of_piece(&piece.drawn.job_piece, self.ground.is_alone()))
                })
            })
            .flatten()
            .collect();
        checks.extend(self.inks_apart());
        checks
    }

    /// Ink meets every outline, and stands out from the card.
    fn stands_out(&self, piece: &OnGround) -> Option<Check> {
        let number = self.ground.pieces.iter().position(|own| own.first == piece.first)?;
        let card = &self.records.stocks.get(number)?.colour;
        let seen: Vec<Seen> = piece
            .laid_parts()
            .iter()
            .enumerate()
            .flat_map(|(at, part)| around(part, piece.laid_arts().get(at), card))
            .collect();
        let bare = seen.iter().any(|own| matches!(own, Seen::Bare));
        let told = seen.iter().filter_map(|own| match own {
            Seen::Contrast(ratio) => Some(*ratio),
            _ => None,
        });
        let faintest = told.reduce(f64::min).filter(|own| {
            *own < TOLD_APART || !seen.iter().any(|own| matches!(own, Seen::Picture))
        });
        let label = "Outline to be scanned";
        let bound = format!("at least {TOLD_APART} to 1");
        let (state, value, verdict) = match (bare, faintest) {
            (true, _) => (
                State::Broken,
                "no ink".to_owned(),
                "at an outline, so the scan finds nothing there".to_owned(),
            ),
            (false, Some(own)) if own < TOLD_APART => (
                State::Broken,
                format!("{own:.1} to 1"),
                "the ink hardly differs from the card".to_owned(),
            ),
            (false, Some(own)) => {
                (State::Fits, format!("{own:.1} to 1"), "it stands out from the card".to_owned())
            }
            (false, None) => (
                State::Attention,
                "a picture".to_owned(),
                "look that it differs from the card all around".to_owned(),
            ),
        };
        let check =
            Check::yes_or_no("scan-contrast", Stage::Sheet, label, state, [value, bound, verdict]);
        Some(if state == State::Broken {
            check
                .remedy(Remedy::advice("Lay a dark colour under the whole piece on Face"))
                .remedy(Remedy::advice("Choose a cutter that goes by marks"))
        } else {
            check
        })
    }

    /// Lines inside that are no outline of the print: a scan does not find them.
    fn without_outline(&self, piece: &OnGround) -> Option<Check> {
        let inside = piece
            .laid_parts()
            .iter()
            .flat_map(|part| &part.strokes)
            .filter(|stroke| stroke.kind != LineKind::Guide);
        let count = inside.count();
        let texts = [
            count.to_string(),
            "found by a scan: none".to_owned(),
            if count == 0 {
                "only outlines are cut".to_owned()
            } else {
                "lines inside are no outline of the print: work them by hand".to_owned()
            },
        ];
        let state = if count == 0 { State::Fits } else { State::Attention };
        Some(Check::yes_or_no("scan-inside", Stage::Sheet, "Lines inside", state, texts))
    }

    /// Ink runs a bleed past the cut: two outlines are told apart when two bleeds of card are left between their inks.
    fn inks_apart(&self) -> Option<Check> {
        let several = self.layout.runs.iter().any(|run| run.placements.len() > 1);
        if !several {
            return None;
        }
        let bleed = self
            .ground
            .on_sheets()
            .flat_map(|piece| piece.laid_arts().iter().map(|art| art.bleed))
            .fold(0.0, f64::max);
        let needed = (2.0 * bleed).max(LEAST_APART);
        let left = self.job.sheet.spacing - 2.0 * bleed;
        let wanted = needed + 2.0 * bleed;
        let check =
            self.length("scan-apart", "Between inks", (left.max(0.0), Sense::AtLeast, needed));
        Some(check.remedy(Remedy::set(
            format!("Set the spacing to {}", self.show(wanted)),
            "sheet.spacing",
            wanted,
        )))
    }
}

/// What a scan sees just inside an outline.
enum Seen {
    /// A colour, so many times lighter or darker than the card.
    Contrast(f64),
    /// A picture: nobody knows which colour it has there.
    Picture,
    /// Card.
    Bare,
}

/// Places of an outline that are looked at.
const PLACES: usize = 64;

/// What a scan sees around a blank.
fn around(part: &Part, art: Option<&Art>, card: &str) -> Vec<Seen> {
    let Some(art) = art else { return vec![Seen::Bare] };
    let mut outline: Vec<Point> = Vec::new();
    kurbo::flatten(part.outline.iter(), 0.1, |element| match element {
        PathEl::MoveTo(to) | PathEl::LineTo(to) => outline.push(to),
        _ => (),
    });
    let every = outline.len().div_ceil(PLACES).max(1);
    // Corners alone would look at no straight side: the middles of what lies between are looked at too.
    let middles = outline.windows(2).map(|two| two[0].midpoint(two[1]));
    let places: Vec<Point> = outline.iter().copied().chain(middles).step_by(every).collect();
    places.into_iter().map(|place| seen(art, place, card)).collect()
}

/// What is printed uppermost at a place.
fn seen(art: &Art, place: Point, card: &str) -> Seen {
    let holds = |path: &BezPath| path.winding(place) != 0 || touches(path, place);
    let printed = art.layers.iter().rev().filter(|own| own.is_printed && own.opacity > 0.0);
    for own in printed {
        match &own.ink {
            Ink::Area { path, colour, running, clip } => {
                if !holds(path) || clip.as_ref().is_some_and(|clip| !holds(clip)) {
                    continue;
                }
                let to = running.as_ref().map(|own| own.to.as_str());
                let ratios = [Some(colour.as_str()), to].into_iter().flatten();
                let ratio = ratios.map(|own| contrast(own, card)).fold(f64::INFINITY, f64::min);
                // What shines through takes its share of the difference.
                return Seen::Contrast((ratio - 1.0).mul_add(own.opacity, 1.0));
            }
            Ink::Picture { clip, .. } if holds(clip) => return Seen::Picture,
            Ink::Picture { .. } | Ink::Words { .. } => {}
        }
    }
    Seen::Bare
}

/// True on the very line, where nothing is bled.
fn touches(path: &BezPath, place: Point) -> bool {
    let near = |segment: PathSeg| segment.nearest(place, 1e-3).distance_sq < 1e-4;
    path.segments().any(near)
}

/// How much lighter one colour is than the other, 1 to 21 (contrast ratio of WCAG 2.2).
fn contrast(one: &str, other: &str) -> f64 {
    let (one, other) = (luminance(one), luminance(other));
    (one.max(other) + 0.05) / (one.min(other) + 0.05)
}

/// Relative luminance of WCAG 2.2, 0 to 1, of `#rrggbb`; what is no such colour counts as black.
fn luminance(colour: &str) -> f64 {
    let mut bytes = [0_u8; 3];
    let digits = colour.strip_prefix('#').unwrap_or_default();
    if hex::decode_to_slice(digits, &mut bytes).is_err() {
        return 0.0;
    }
    let linear = |byte: u8| {
        let own = f64::from(byte) / 255.0;
        if own <= 0.04045 { own / 12.92 } else { ((own + 0.055) / 1.055).powf(2.4) }
    };
    let [red, green, blue] = bytes.map(linear);
    0.2126_f64.mul_add(red, 0.7152_f64.mul_add(green, 0.0722 * blue))
}

#[cfg(test)]
mod tests {
    use super::contrast;

    /// Worked pairs that are quoted with the definition: black on white 21, #767676 on white 4.54, red on white 4.0.
    #[test]
    fn contrast_is_that_of_the_published_pairs() {
        for (colour, ratio) in
            [("#000000", 21.0), ("#767676", 4.54), ("#ff0000", 4.0), ("#ffffff", 1.0)]
        {
            assert!((contrast(colour, "#ffffff") - ratio).abs() < 0.005, "{colour}");
        }
    }
}
