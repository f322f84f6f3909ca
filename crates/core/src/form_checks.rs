//! Every limit of a piece's form, those of the flat and those of its folding, each with a way out that
//! works: a figure that is set back to what it may be, or else the size that rules the piece out.

use std::collections::BTreeMap;

use crate::check::{Check, State};
use crate::error::{Change, Remedy, Setting};
use crate::fold::{FoldModel, fold_checks};
use crate::form::{Figure, FigureKind, Flat, Form};
use crate::units::{Unit, measure};

/// Sizes that are tried, as shares of what was asked for, the nearest first.
const SHARES: [f64; 12] = [1.08, 0.9, 1.25, 0.75, 1.6, 0.55, 2.2, 0.4, 3.5, 0.25, 6.0, 10.0];

/// The same where one size is made larger and another smaller.
const LARGER: [f64; 4] = [1.6, 2.5, 4.0, 8.0];
const SMALLER: [f64; 4] = [0.7, 0.45, 0.25, 0.12];

/// Halvings between a size that is ruled out and one that is not.
const HALVINGS: u32 = 6;

/// Sizes are offered in steps of this, mm.
const STEP: f64 = 0.1;

/// The limits of a form that was drawn as `flat` and folds as `model`.
#[must_use]
pub fn form_checks(
    form: &Form,
    flat: &Flat,
    model: Option<&FoldModel>,
    caliper: f64,
    unit: Unit,
) -> Vec<Check> {
    let mut checks = limits(flat, model, unit);
    let broken = |check: &&mut Check| check.state == State::Broken;
    // Remedies of an outline are found with it; only a structure's figures are tried here.
    if form.chosen().is_none() || !checks.iter().any(|check| check.state == State::Broken) {
        return checks;
    }
    let before = checks.iter().filter(|check| check.state == State::Broken);
    let before = before.map(|check| check.id.clone()).collect();
    let mut trial = Trial { form, caliper, unit, before, known: BTreeMap::new() };
    let is_plain = form.chosen().is_none_or(|chosen| chosen.add_ons.is_empty());
    for check in checks.iter_mut().filter(broken) {
        let mut remedies = std::mem::take(&mut check.remedies);
        remedies
            .retain(|remedy| remedy.changes.is_empty() || trial.mends(&check.id, &remedy.changes));
        if remedies.iter().all(|remedy| remedy.changes.is_empty()) {
            let figures = &flat.figures;
            let other = trial.back(&check.id, figures).or_else(|| {
                let size = is_plain.then(|| trial.size(&check.id, figures))?;
                size.or_else(|| trial.both(&check.id, figures))
            });
            remedies.splice(0..0, other);
        }
        check.remedies = remedies;
    }
    checks
}

/// The limits of a flat and of its folding, with the remedies that these know.
pub(crate) fn limits(flat: &Flat, model: Option<&FoldModel>, unit: Unit) -> Vec<Check> {
    let folding = model.map_or_else(Vec::new, |model| fold_checks(flat, model, unit));
    flat.checks.iter().cloned().chain(folding).collect()
}

/// Other figures, drawn and folded to see what is broken then.
struct Trial<'a> {
    form: &'a Form,
    caliper: f64,
    unit: Unit,
    /// What is broken as it is.
    before: Vec<String>,
    /// What was found, by the figures that were changed.
    known: BTreeMap<Vec<(String, u64)>, Option<Vec<String>>>,
}

impl Trial<'_> {
    /// True where the piece can be drawn with these changes, and the check is not broken then, nor anything
    /// else that was not.
    fn mends(&mut self, id: &str, changes: &[Change]) -> bool {
        let mut figures = Vec::new();
        for change in changes {
            let Some(key) = change.field.strip_prefix("form.") else { return true };
            let value = match change.value {
                Setting::Number(value) => Some(value),
                Setting::Standard => None,
                Setting::Text(_) | Setting::Switch(_) => return true,
            };
            figures.push((key.to_owned(), value));
        }
        let key: Vec<(String, u64)> = figures
            .iter()
            .map(|(key, value)| (key.clone(), value.map_or(u64::MAX, f64::to_bits)))
            .collect();
        let (form, caliper, unit) = (self.form, self.caliper, self.unit);
        let broken = self.known.entry(key).or_insert_with(|| {
            let mut form = form.clone();
            form.chosen_mut()?.figures.extend(figures);
            let flat = form.draw(caliper, unit).ok()?;
            let checks = limits(&flat, FoldModel::new(&flat, caliper).as_ref(), unit);
            let broken = checks.into_iter().filter(|check| check.state == State::Broken);
            Some(broken.map(|check| check.id).collect())
        });
        let before = &self.before;
        broken
            .as_ref()
            .is_some_and(|now| now.iter().all(|known| known != id && before.contains(known)))
    }

    /// One of the flaps that were asked for set back to what is usual, or all of them.
    fn back(&mut self, id: &str, figures: &[Figure]) -> Option<Remedy> {
        let own = own_flaps(figures);
        let one = own.iter().find_map(|figure| {
            let changes = vec![usual(figure)];
            let text = format!("Set the {} back to what is usual", figure.label.to_lowercase());
            self.mends(id, &changes).then_some(Remedy { text, changes })
        });
        one.or_else(|| {
            let changes: Vec<Change> = own.iter().map(|own| usual(own)).collect();
            let text = "Set the flaps back to what is usual".to_owned();
            (own.len() > 1 && self.mends(id, &changes)).then_some(Remedy { text, changes })
        })
    }

    /// All flaps set back to what is usual, and the size that rules the piece out even then.
    fn both(&self, id: &str, figures: &[Figure]) -> Option<Remedy> {
        let own = own_flaps(figures);
        let mut form = self.form.clone();
        for figure in &own {
            let key = figure.field.strip_prefix("form.")?;
            form.chosen_mut()?.figures.remove(key);
        }
        let (caliper, unit, before) = (self.caliper, self.unit, self.before.clone());
        let mut usually = Trial { form: &form, caliper, unit, before, known: BTreeMap::new() };
        let size = (!own.is_empty()).then(|| usually.size(id, figures))??;
        let text = format!("{}, with the flaps that are usual", size.text);
        let changes = own.iter().map(|own| usual(own)).chain(size.changes).collect();
        Some(Remedy { text, changes })
    }

    /// The size that rules the piece out, set to the nearest that does not; all sizes at once where no
    /// single one helps, and else one made larger and another smaller.
    fn size(&mut self, id: &str, figures: &[Figure]) -> Option<Remedy> {
        let sizes: Vec<&Figure> =
            figures.iter().filter(|figure| figure.kind == FigureKind::Size).collect();
        self.alike(id, sizes.clone()).or_else(|| self.apart(id, &sizes))
    }

    /// One size made larger and another smaller.
    fn apart(&mut self, id: &str, sizes: &[&Figure]) -> Option<Remedy> {
        let shares = || LARGER.iter().flat_map(|more| SMALLER.map(|less| (*more, less)));
        let pairs = || sizes.iter().flat_map(|one| sizes.iter().map(move |other| (one, other)));
        let parted = pairs().filter(|(one, other)| one.field != other.field);
        let all = parted.flat_map(|pair| shares().map(move |shares| (pair, shares)));
        all.into_iter().find_map(|((one, other), (more, less))| {
            let changes = [scaled(&[*one], more), scaled(&[*other], less)].concat();
            self.mends(id, &changes).then(|| {
                let named = self.named(&[*one, *other], &changes);
                let text = format!("Make the {} or more, the {} or less", named[0], named[1]);
                Remedy { text, changes }
            })
        })
    }

    /// What the sizes are set to, in words.
    fn named(&self, sizes: &[&Figure], changes: &[Change]) -> Vec<String> {
        let named = sizes.iter().zip(changes).map(|(figure, change)| {
            let Setting::Number(value) = change.value else { return String::new() };
            format!("{} {}", figure.label.to_lowercase(), measure(value, self.unit))
        });
        named.collect()
    }

    /// One size, or all alike.
    fn alike(&mut self, id: &str, sizes: Vec<&Figure>) -> Option<Remedy> {
        let mut groups: Vec<Vec<&Figure>> = sizes.iter().map(|size| vec![*size]).collect();
        if sizes.len() > 1 {
            groups.push(sizes);
        }
        let (share, group) = SHARES.into_iter().find_map(|share| {
            let helps = |group: &&Vec<&Figure>| self.mends(id, &scaled(group, share));
            Some((share, groups.iter().find(helps)?))
        })?;
        let (mut good, mut bad) = (share, 1.0);
        for _ in 0..HALVINGS {
            let middle = f64::midpoint(good, bad);
            let helps = self.mends(id, &scaled(group, middle));
            *(if helps { &mut good } else { &mut bad }) = middle;
        }
        let changes = scaled(group, good);
        let named = self.named(group, &changes);
        let bound = if good > 1.0 { "or more" } else { "or less" };
        Some(Remedy { text: format!("Make the {} {bound}", named.join(", ")), changes })
    }
}

/// Figures of flaps, slits and plays that were asked for.
fn own_flaps(figures: &[Figure]) -> Vec<&Figure> {
    let is_size = |figure: &Figure| matches!(figure.kind, FigureKind::Size | FigureKind::Count);
    figures.iter().filter(|figure| figure.own && !is_size(figure)).collect()
}

fn usual(figure: &Figure) -> Change {
    Change::new(&figure.field, Setting::Standard)
}

/// Sizes as shares of what they are, away from that to a round figure, within their ranges.
fn scaled(sizes: &[&Figure], share: f64) -> Vec<Change> {
    let round = |value: f64| {
        let steps = value / STEP;
        (if share > 1.0 { steps.ceil() } else { steps.floor() }) * STEP
    };
    sizes
        .iter()
        .map(|figure| {
            let [low, high] = figure.range;
            // To the micrometre, so that a decimal step is written as one.
            let value = (round(figure.value * share) * 1e3).round() / 1e3;
            Change::new(&figure.field, value.max(low).min(high))
        })
        .collect()
}
