//! The limits of a card that holds other pieces.

use kurbo::{Affine, BezPath, Rect, Shape};

use super::{Gathered, GatheredFacts};
use crate::check::{Check, Drawing, Sense, Stage, State};
use crate::error::{Remedy, Setting};
use crate::form::Flat;
use crate::geometry::{Outline, path_text};
use crate::units::{Unit, measure};

/// So little is no difference, mm: lines are flattened where they are looked at.
const NOISE: f64 = 0.01;

/// A length as it is compared with what was asked for.
fn about(value: f64, asked: f64) -> f64 {
    if (value - asked).abs() < NOISE { asked } else { value }
}

pub(super) fn checks(
    gathered: &Gathered,
    facts: &GatheredFacts,
    flat: &Flat,
    unit: Unit,
) -> Vec<Check> {
    let mut checks = vec![copies(gathered, facts, unit)];
    if facts.copies.iter().any(|copy| copy.place.is_some()) {
        checks.extend(between(gathered, facts, flat, unit));
        checks.extend(margin(gathered, facts, flat, unit));
    }
    checks
}

/// Whether every copy has room.
fn copies(gathered: &Gathered, facts: &GatheredFacts, unit: Unit) -> Check {
    let all: u32 = gathered.members.iter().map(|member| member.count).sum();
    let left: u32 = facts.left.iter().sum();
    let named = facts.held.iter().zip(&facts.left).filter(|(_, left)| **left > 0);
    let verdict = named
        .map(|(own, left)| format!("{left} × {} without room", own.name))
        .collect::<Vec<_>>()
        .join(", ");
    let texts = [
        (all - left).to_string(),
        format!("of {all}"),
        if left == 0 { "all on the card".to_owned() } else { verdict },
    ];
    let state = if left == 0 { State::Fits } else { State::Broken };
    let mut check = Check::yes_or_no("card-copies", Stage::Form, "On the card", state, texts);
    if left == 0 {
        return check;
    }
    let [width, height] = facts.needed;
    if gathered.width.is_some_and(|own| own < width - NOISE) {
        check = check.remedy(Remedy::set(
            format!("Make the card {} wide", measure(width, unit)),
            "form.gathered.width",
            width,
        ));
    }
    if gathered.height.is_some() {
        check = check.remedy(Remedy::set(
            format!("Make the card as high as they need: {}", measure(height, unit)),
            "form.gathered.height",
            Setting::Standard,
        ));
    }
    check
}

/// The least card between two copies.
fn between(gathered: &Gathered, facts: &GatheredFacts, flat: &Flat, unit: Unit) -> Option<Check> {
    let outlines: Vec<Vec<Outline>> =
        facts.copies.iter().map(|copy| facts.held[copy.member].outlines(copy.at)).collect();
    let mut order: Vec<usize> = (0..facts.copies.len()).collect();
    order.sort_by(|one, other| {
        facts.copies[*one].bounds.x0.total_cmp(&facts.copies[*other].bounds.x0)
    });
    let mut least: Option<(f64, usize, usize)> = None;
    for (at, one) in order.iter().enumerate() {
        for other in &order[at + 1..] {
            let most = least.map_or(gathered.gap + 1.0, |(gap, ..)| gap);
            if facts.copies[*other].bounds.x0 > facts.copies[*one].bounds.x1 + most {
                break;
            }
            let pairs = outlines[*one]
                .iter()
                .flat_map(|own| outlines[*other].iter().map(move |their| (own, their)));
            let gap = pairs.filter_map(|(own, their)| own.clearance(their, most)).reduce(f64::min);
            if let Some(gap) = gap.filter(|gap| *gap < most) {
                least = Some((gap, *one, *other));
            }
        }
    }
    let (gap, one, other) = least?;
    let value = (about(gap.max(0.0), gathered.gap), Sense::AtLeast, gathered.gap);
    let mut check = Check::length("card-gap", Stage::Form, "Between stickers", value, unit);
    if gap < 0.0 {
        check.state = State::Broken;
        check.verdict = "they lie in each other".to_owned();
    } else if check.state == State::Broken {
        check = check.softened("closer than asked");
    }
    if check.state != State::Fits {
        check = check.remedy(in_rows());
    }
    let mut place = BezPath::new();
    for at in [one, other] {
        place.extend(facts.copies[at].bounds.path_elements(0.1));
    }
    place.apply_affine(Affine::translate(flat.parts.first()?.at));
    Some(check.at(Drawing::Flat, path_text(&place)))
}

/// Whether all lie within the card's margin.
fn margin(gathered: &Gathered, facts: &GatheredFacts, flat: &Flat, unit: Unit) -> Option<Check> {
    let part = flat.parts.first()?;
    let beside = |own: Rect| {
        let card = part.bounds;
        [own.x0 - card.x0, own.y0 - card.y0, card.x1 - own.x1, card.y1 - own.y1]
            .into_iter()
            .fold(f64::INFINITY, f64::min)
    };
    let least = facts
        .copies
        .iter()
        .map(|copy| (beside(copy.bounds), copy))
        .min_by(|one, other| one.0.total_cmp(&other.0))?;
    let (gap, copy) = least;
    let value = (about(gap, gathered.card.margin), Sense::AtLeast, gathered.card.margin);
    let mut check = Check::length("card-margin", Stage::Form, "Card’s margin", value, unit);
    if gap >= 0.0 && check.state == State::Broken {
        check = check.softened("in the card’s margin");
    }
    if check.state != State::Fits {
        check = check.remedy(in_rows());
    }
    let place = copy.bounds + part.at;
    Some(check.at(Drawing::Flat, path_text(&place.to_path(0.1))))
}

fn in_rows() -> Remedy {
    Remedy::set("Lay them in rows", "form.gathered.places", Setting::Standard)
}
