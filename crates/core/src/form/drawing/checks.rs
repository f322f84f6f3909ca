//! The limits of a drawing from elsewhere.

use kurbo::{BezPath, Circle, Shape};

use super::{DrawingFacts, JOINS, LineDrawing};
use crate::check::{Check, Drawing, Stage, State};
use crate::error::Remedy;
use crate::form::Flat;
use crate::geometry::path_text;
use crate::units::{Unit, measure};

/// Most loose ends that are shown.
const MOST_SHOWN: usize = 200;

pub(super) fn checks(
    drawing: &LineDrawing,
    facts: &DrawingFacts,
    flat: &Flat,
    unit: Unit,
) -> Vec<Check> {
    let mut checks = vec![scale(facts, unit), outline(facts, flat, unit), meaning(facts)];
    checks.extend(doubles(drawing, facts));
    checks.extend(beside(facts));
    checks.extend(dead_ends(facts));
    checks.extend(curved(facts));
    if facts.is_closed {
        checks.extend(crate::form::checks::narrowest_bridge(flat, unit));
    }
    checks
}

fn scale(facts: &DrawingFacts, unit: Unit) -> Check {
    let bounds = facts.bounds;
    let size = format!(
        "{} × {}",
        measure(bounds.width() * facts.unit, unit),
        measure(bounds.height() * facts.unit, unit)
    );
    let (state, verdict) = if facts.is_scaled {
        (State::Fits, "its scale is told")
    } else {
        (State::Broken, "the file does not say how large it is")
    };
    let texts = [size, "of the whole drawing".to_owned(), verdict.to_owned()];
    Check::yes_or_no("drawing-scale", Stage::Form, "Scale", state, texts)
        .remedy(Remedy::advice("Choose how large it is, or tell a dimension that you know"))
}

fn outline(facts: &DrawingFacts, flat: &Flat, unit: Unit) -> Check {
    let loose = facts.loose.len();
    let (state, value, verdict) = if facts.is_closed {
        let verdict = if loose == 0 {
            "nothing loose".to_owned()
        } else {
            format!("{loose} ends of slits in it")
        };
        (State::Fits, "closed", verdict)
    } else if loose > 0 {
        (State::Broken, "open", format!("{loose} ends meet nothing"))
    } else {
        (State::Broken, "none", "nothing closed is cut".to_owned())
    };
    let texts = [value.to_owned(), "line around it".to_owned(), verdict];
    let mut check = Check::yes_or_no("drawing-outline", Stage::Form, "Outline", state, texts);
    if facts.is_closed {
        return check;
    }
    if let Some(gap) = facts.gap.filter(|gap| gap * 1.05 <= *JOINS.end()) {
        let over = (gap * 1.05 * 100.0).ceil() / 100.0;
        let text = format!("Join ends that are up to {} apart", measure(over, unit));
        check = check.remedy(Remedy::set(text, "form.drawing.join", over));
    }
    check = check.remedy(Remedy::advice("Say which lines are cut, or close the outline"));
    let Some(part) = flat.parts.first() else { return check };
    let mut places = BezPath::new();
    for at in facts.loose.iter().take(MOST_SHOWN) {
        places.extend(Circle::new(*at + part.at, 1.5).path_elements(0.1));
    }
    check.at(Drawing::Flat, path_text(&places))
}

fn meaning(facts: &DrawingFacts) -> Check {
    let all = facts.groups.len();
    let state = if facts.unnamed == 0 { State::Fits } else { State::Attention };
    let verdict = match facts.unnamed {
        0 => "all are told".to_owned(),
        1 => "one has no meaning: it is not cut".to_owned(),
        count => format!("{count} have no meaning: they are not cut"),
    };
    let texts = [(all - facts.unnamed).to_string(), format!("of {all} rows"), verdict];
    Check::yes_or_no("drawing-key", Stage::Form, "Line key", state, texts)
        .remedy(Remedy::advice("Say of each row what it is, or that it is left out"))
}

fn doubles(drawing: &LineDrawing, facts: &DrawingFacts) -> Option<Check> {
    if facts.doubles == 0 {
        return None;
    }
    let state = if drawing.doubles.is_some() { State::Fits } else { State::Attention };
    let verdict = match drawing.doubles {
        None => "an accident, or more passes?",
        Some(super::Doubles::Once) => "each is worked once",
        Some(super::Doubles::Passes) => "each is worked as often",
    };
    let texts = [facts.doubles.to_string(), "lie on another line".to_owned(), verdict.to_owned()];
    let check = Check::yes_or_no("drawing-doubles", Stage::Form, "Doubles", state, texts);
    let set = |text: &str, value: &str| Remedy::set(text, "form.drawing.doubles", value);
    Some(
        check
            .remedy(set("An accident: work each once", "once"))
            .remedy(set("Work each as often as it is drawn", "passes")),
    )
}

fn beside(facts: &DrawingFacts) -> Option<Check> {
    let lines = if facts.beside == 1 { "line" } else { "lines" };
    let texts = [
        facts.beside.to_string(),
        format!("{lines} beside the outline"),
        "left out: they belong to no piece".to_owned(),
    ];
    let label = "Beside it";
    let check = Check::yes_or_no("drawing-beside", Stage::Form, label, State::Attention, texts);
    (facts.beside > 0).then(|| {
        check.remedy(Remedy::advice("Say that what they belong to is cut, or leave their row out"))
    })
}

/// Creases that stop before they reach anything, and panels that hang on nothing.
fn dead_ends(facts: &DrawingFacts) -> Option<Check> {
    if facts.dead_ends + facts.apart == 0 {
        return None;
    }
    let verdict = match facts.apart {
        0 => "nothing folds there".to_owned(),
        1 => "one panel hangs on no other".to_owned(),
        count => format!("{count} panels hang on no other"),
    };
    let texts = [facts.dead_ends.to_string(), "end in nowhere".to_owned(), verdict];
    let label = "Creases";
    let check = Check::yes_or_no("drawing-ends", Stage::Form, label, State::Attention, texts);
    Some(check.remedy(Remedy::advice("Draw them up to the outline, or to another crease")))
}

/// Curved creases, at which no flat panels can fold.
fn curved(facts: &DrawingFacts) -> Option<Check> {
    if facts.curved == 0 {
        return None;
    }
    let creases = if facts.curved == 1 { "crease is a curve" } else { "creases are curves" };
    let texts = [
        facts.curved.to_string(),
        creases.to_owned(),
        "shown folded straight from end to end".to_owned(),
    ];
    let label = "Curved creases";
    let check = Check::yes_or_no("drawing-curves", Stage::Form, label, State::Attention, texts);
    let advice = "Draw straight lines across the bowed panels, up to the crease, and say that the card bends there";
    Some(check.remedy(Remedy::advice(advice)))
}
