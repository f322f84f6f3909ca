//! Labels: words on index tabs, flags and folders.

use super::design::LabelSpot;
use super::{Label, Part};
use crate::error::{Faults, InputError, Remedy};

/// Most labels on one piece, and most characters in one.
const MOST: [usize; 2] = [60, 40];

/// Puts the words onto their spots; a spot without words has its number.
pub(super) fn place(
    words: &[String],
    spots: &[LabelSpot],
    parts: &mut [Part],
    faults: &mut Faults,
) {
    let too_many = words.len() > MOST[0];
    let longest = words.iter().map(|text| text.chars().count()).max().unwrap_or(0);
    if too_many || longest > MOST[1] {
        let (what, number) =
            if too_many { ("labels", words.len()) } else { ("characters in a label", longest) };
        faults.add(InputError::new(
            "form.labels",
            format!("There are {number} {what}: at most {}", MOST[usize::from(!too_many)]),
            f64::from(u32::try_from(number).unwrap_or(u32::MAX)),
            Remedy::advice("Shorten the list, or the words"),
        ));
        return;
    }
    for (index, spot) in spots.iter().enumerate() {
        let found = parts.iter_mut().find_map(|part| {
            let frame = part.panels.iter().find(|panel| panel.name == spot.panel)?.frame;
            Some((part, frame))
        });
        let Some((part, frame)) = found else { continue };
        let given = words.get(index).map(|text| text.trim()).filter(|text| !text.is_empty());
        part.labels.push(Label {
            panel: spot.panel.clone(),
            text: given.map_or_else(|| (index + 1).to_string(), ToOwned::to_owned),
            centre: frame * spot.centre,
            size: spot.size,
        });
    }
}

#[cfg(test)]
mod tests {
    use crate::form::Form;
    use crate::units::Unit;

    fn tabs(labels: &[&str]) -> Form {
        let sizes = [("count", 4.0), ("width", 120.0), ("height", 80.0)];
        let mut form = Form::new("index-tabs", &sizes);
        let words = labels.iter().map(|text| (*text).to_owned());
        form.chosen_mut().unwrap().labels = words.collect();
        form
    }

    #[test]
    fn each_leaf_carries_its_words_in_the_middle_of_its_tab() {
        let flat = tabs(&["Spring", " ", "Autumn"]).draw(0.3, Unit::Mm).unwrap();
        let labels: Vec<_> = flat.parts.iter().map(|part| &part.labels[0]).collect();
        let words: Vec<_> = labels.iter().map(|label| label.text.as_str()).collect();
        assert_eq!(words, ["Spring", "2", "Autumn", "4"]);
        for (index, label) in labels.iter().enumerate() {
            // Four tabs of 29.25 mm and a gap of 1 between them, 11 above the leaf.
            let middle = 14.625 + 30.25 * f64::from(u32::try_from(index).unwrap());
            assert!((label.centre.x - middle).abs() < 1e-9 && (label.centre.y - 5.5).abs() < 1e-9);
        }
    }

    #[test]
    fn too_many_and_too_long_are_refused_with_the_number() {
        for words in [vec!["x"; 61], vec!["xxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxx"]] {
            let error = tabs(&words).draw(0.3, Unit::Mm).unwrap_err().remove(0);
            assert_eq!(error.field, "form.labels");
            assert!(error.message.contains("at most"), "{}", error.message);
        }
    }
}
