//! The figures of a traced outline on its spec card.

use super::{Traced, card, eye};
use crate::form::{Figure, FigureKind};
use crate::trace::DETAIL;
use crate::units::{Unit, format_length, measure};

/// What the spec card shows of it, in order.
pub(super) fn figures(traced: &Traced, unit: Unit) -> Vec<Figure> {
    let [width, _] = traced.sides();
    let pixel = width / f64::from(traced.looked_at()[0]);
    let length =
        |field: &str, label: &str, note: &str, value: f64, standard: f64, range: [f64; 2]| {
            let show = |mm: f64| measure(mm, unit);
            Figure {
                field: format!("form.traced.{field}"),
                label: label.to_owned(),
                note: note.to_owned(),
                kind: if field == "width" { FigureKind::Size } else { FigureKind::Length },
                value,
                text: format_length(value, unit),
                standard,
                own: (value - standard).abs() > 1e-12,
                range,
                range_text: format!("{} to {}", show(range[0]), show(range[1])),
            }
        };
    let detail = traced.trace.detail.unwrap_or((DETAIL * pixel).max(0.005));
    let mut all = vec![
        length(
            "width",
            "Picture’s width",
            "Of the whole picture; its height follows.",
            width,
            width,
            [3.0, 2000.0],
        ),
        Figure {
            own: traced.trace.detail.is_some(),
            ..length(
                "trace.detail",
                "Detail",
                "How far the line may stray from the picture’s edge: more is smoother, with fewer nodes.",
                detail,
                (DETAIL * pixel).max(0.005),
                [0.005, 5.0],
            )
        },
        length(
            "trace.gap",
            "Close gaps up to",
            "Gaps and bays that are narrower are bridged.",
            traced.trace.gap,
            0.0,
            [0.0, 20.0],
        ),
        length(
            "border.distance",
            "Border",
            "From what was traced to the cut, outwards; below 0 inwards, so that no white shows.",
            traced.border.distance,
            0.0,
            [-20.0, 50.0],
        ),
        length(
            "border.inner",
            "Inner corners",
            "The least radius of inner corners of the cut; 0 leaves them as they are.",
            traced.border.inner,
            0.0,
            [0.0, 20.0],
        ),
    ];
    if let Some(own) = &traced.eye {
        all.push(length(
            "eye.diameter",
            "Hole",
            "Its diameter.",
            own.diameter,
            eye::diameter(),
            [1.0, 50.0],
        ));
        all.push(length(
            "eye.edge",
            "Card around it",
            "Between the hole and the edge.",
            own.edge,
            eye::edge(),
            [1.0, 50.0],
        ));
        all.push(length(
            "eye.x",
            "From the middle",
            "To the right; below 0 to the left.",
            own.x,
            0.0,
            [-2000.0, 2000.0],
        ));
    }
    if let Some(own) = &traced.card {
        all.push(length(
            "card.margin",
            "Margin",
            "Card beside the outermost stickers.",
            own.margin,
            card::margin(),
            [0.5, 100.0],
        ));
        all.push(length(
            "card.corner",
            "Corners",
            "Radius of the card’s corners.",
            own.corner,
            card::corner(),
            [0.0, 50.0],
        ));
        all.push(length(
            "card.heading",
            "Heading",
            "Room for words above the stickers.",
            own.heading,
            0.0,
            [0.0, 200.0],
        ));
        all.push(length(
            "card.hole",
            "Hang hole",
            "Its diameter; 0 leaves it out.",
            own.hole,
            0.0,
            [0.0, 20.0],
        ));
    }
    all
}
