//! The limits of layers that differ from row to row of a list: the worst row's, with its name.

use super::checks::Laid;
use super::{Layer, LayerKind, List, Motif, Pattern};
use crate::check::{Check, Sense, Stage, State};
use crate::error::Remedy;

/// Words in braces that are no column's name.
pub(super) fn unknown_columns(layer: &Layer, list: &List) -> Option<Check> {
    let text = match &layer.kind {
        LayerKind::Text(text) => list.unknown(&text.words).join(", "),
        LayerKind::Pattern(Pattern { motif_of: Motif::Word { words, .. }, .. }) => {
            list.unknown(words).join(", ")
        }
        LayerKind::Picture(picture) => {
            picture.column.iter().filter(|name| !list.has(name)).cloned().collect()
        }
        _ => String::new(),
    };
    let shown: String = text.chars().take(60).collect();
    let texts = [shown, "a column’s name".to_owned(), format!("{} has no such column", list.name)];
    let id = format!("column-{}", layer.id);
    let label = format!("Columns of {}", layer.title());
    let check = Check::yes_or_no(&id, Stage::Face, &label, State::Attention, texts);
    let names = list.columns.join(", ");
    let advice = Remedy::advice(format!("Name one of its columns: {names}"));
    (!text.is_empty()).then(|| check.remedy(advice))
}

impl Laid<'_> {
    /// Of each limit the row that stands worst, and how many rows do not keep it.
    pub fn rows(&self, list: &List) -> Vec<Check> {
        let mut worst: Vec<(Check, usize, usize)> = Vec::new();
        let mut missing = Vec::new();
        for row in 0..list.rows.len() {
            let Some(layer) = list.of_row(self.layer, row) else {
                missing.push(row);
                continue;
            };
            for check in self.checks(&layer) {
                let fails = usize::from(check.state != State::Fits);
                match worst.iter_mut().find(|(known, ..)| known.id == check.id) {
                    None => worst.push((check, row, fails)),
                    Some((known, at, count)) => {
                        *count += fails;
                        if is_worse(&check, known) {
                            (*known, *at) = (check, row);
                        }
                    }
                }
            }
        }
        let told = |(check, row, fails): (Check, usize, usize)| {
            let words = match fails {
                0 => return Check { label: format!("{}, every row", check.label), ..check },
                fails => {
                    format!("{} in {}{}", check.verdict, list.told(row), more_rows(fails - 1))
                }
            };
            check.saying(words)
        };
        let mut checks: Vec<Check> = worst.into_iter().map(told).collect();
        if let (LayerKind::Picture(picture), [first, ..]) = (&self.layer.kind, missing.as_slice()) {
            let cell = list.cell(picture.column.as_deref().unwrap_or_default(), *first);
            let texts = [
                format!("{} missing", missing.len()),
                "one for each row".to_owned(),
                format!("no picture is called “{cell}” in {}", list.told(*first)),
            ];
            let check = self.yes_or_no("pictures", "Pictures of", State::Broken, texts);
            checks.push(check.remedy(Remedy::advice("Bring the pictures in beside the list")));
        }
        checks
    }
}

/// So many rows beside one that was named.
pub(super) fn more_rows(count: usize) -> String {
    match count {
        0 => String::new(),
        1 => ", and 1 more row".to_owned(),
        more => format!(", and {more} more rows"),
    }
}

/// True where a limit stands worse than the same of another row.
fn is_worse(one: &Check, other: &Check) -> bool {
    let short = |check: &Check| {
        check.gauge.map_or(0.0, |gauge| match gauge.sense {
            Sense::AtLeast => gauge.bound - gauge.value,
            Sense::AtMost => gauge.value - gauge.bound,
        })
    };
    one.state > other.state || one.state == other.state && short(one) > short(other) + 1e-9
}
