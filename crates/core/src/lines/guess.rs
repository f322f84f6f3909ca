//! What lines may be, by the names of their layers and by how they lie.

use kurbo::{PathEl, Shape};

use super::{Group, LineKey, Lines, Look, Meaning};

/// Words in names of layers, the first that fits counts: English, German, French, Spanish.
const WORDS: [(&str, Meaning); 33] = [
    ("reverse", Meaning::ReverseCrease),
    ("mountain", Meaning::Crease),
    ("valley", Meaning::ReverseCrease),
    ("kiss", Meaning::KissCut),
    ("perf", Meaning::Perforation),
    ("crease", Meaning::Crease),
    ("fold", Meaning::Crease),
    ("rill", Meaning::Crease),
    ("falz", Meaning::Crease),
    ("pli", Meaning::Crease),
    ("pliegue", Meaning::Crease),
    ("bend", Meaning::Bend),
    ("score", Meaning::Score),
    ("ritz", Meaning::Score),
    ("print", Meaning::Printed),
    ("druck", Meaning::Printed),
    ("art", Meaning::Printed),
    ("text", Meaning::Printed),
    ("boundary", Meaning::Cut),
    ("outline", Meaning::Cut),
    ("contour", Meaning::Cut),
    ("kontur", Meaning::Cut),
    ("flat", Meaning::LeftOut),
    ("join", Meaning::LeftOut),
    ("bleed", Meaning::LeftOut),
    ("guide", Meaning::LeftOut),
    ("dimension", Meaning::LeftOut),
    ("note", Meaning::LeftOut),
    ("die", Meaning::Cut),
    ("cut", Meaning::Cut),
    ("knife", Meaning::Cut),
    ("schnitt", Meaning::Cut),
    ("coupe", Meaning::Cut),
];

/// What a drawing's lines may be. What cannot be told by a name has no meaning, but where there are no names at all the
/// colour of the outermost closed line is that of the cut.
#[must_use]
pub fn guessed(lines: &Lines) -> LineKey {
    let seen = |group: &&Group| matches!(group.look, Look::Stroke | Look::Hairline | Look::Fill);
    let mut key = LineKey::default();
    for group in lines.groups.iter().filter(seen) {
        let layer = group.layer.to_lowercase();
        if let Some((_, meaning)) = WORDS.iter().find(|(word, _)| has_word(&layer, word)) {
            key.0.insert(group.id(), *meaning);
        }
    }
    let hidden = |group: &&Group| matches!(group.look, Look::Unseen | Look::Clipped);
    for group in lines.groups.iter().filter(hidden) {
        key.0.insert(group.id(), Meaning::LeftOut);
    }
    let is_told = key.0.values().any(|meaning| *meaning == Meaning::Cut);
    if !is_told && let Some(group) = outermost(lines) {
        key.0.entry(group.id()).or_insert(Meaning::Cut);
    }
    key
}

/// A word at the beginning of a word: “cuts”, “Cut-lines”, and not “shortcut”.
fn has_word(name: &str, word: &str) -> bool {
    name.match_indices(word)
        .any(|(at, _)| name[..at].chars().next_back().is_none_or(|before| !before.is_alphabetic()))
}

/// The group of the closed line around the most.
fn outermost(lines: &Lines) -> Option<&Group> {
    let bounds = lines.bounds();
    let closed = lines.lines.iter().filter(|line| {
        let is_closed = line.path.elements().last() == Some(&PathEl::ClosePath);
        let group = &lines.groups[line.group];
        is_closed && matches!(group.look, Look::Stroke | Look::Hairline | Look::Fill)
    });
    let area = |line: &&super::Line| line.path.bounding_box().area();
    let most = closed.max_by(|one, other| area(one).total_cmp(&area(other)))?;
    // A small closed thing in a corner says nothing.
    (area(&most) > 0.5 * bounds.area()).then(|| &lines.groups[most.group])
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn words_count_at_the_beginning_of_words_only() {
        for (name, word, wanted) in
            [("cut", "cut", true), ("inner cuts", "cut", true), ("shortcut", "cut", false)]
        {
            assert_eq!(has_word(name, word), wanted, "{name}");
        }
    }
}
