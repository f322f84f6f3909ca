//! The odds: what a thousand sheets come to, each printed with its own errors and found by its marks.

use kurbo::{Affine, Point, Rect, Vec2};
#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use super::day::normal;
use super::verdict::{Edge, Worn, quantile};
use super::{CutLine, Day, fit};
use crate::geometry::along;
use crate::workshop::Margins;

/// Most places that are looked at on a sheet.
const MOST_PLACES: usize = 400;

/// Past this far nobody asks for bleed, mm.
const MOST_BLEED: f64 = 5.0;

/// Bars of the distribution.
const BARS: usize = 40;

/// How sure a bound is.
const SURE: f64 = 0.95;

/// What the odds are asked of.
pub struct OddsAsk<'a> {
    /// The page.
    pub page: Rect,
    /// The printer's margins.
    pub margins: Margins,
    /// What the printer does.
    pub day: Day,
    /// Where the marks are printed on the page; none where the sheet is found by its edge.
    pub marks: Vec<Point>,
    /// How far the eye errs, the standard deviation along each axis, mm.
    pub eye: f64,
    /// The lines of a sheet; only the edges are looked at.
    pub lines: &'a [CutLine],
    /// Its copies.
    pub copies: &'a [Worn<'a>],
    /// What seeds the first sheet.
    pub seed: u64,
}

/// How many sheets, and how many of them went wrong.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Tries {
    /// All sheets.
    pub tried: u32,
    /// Those that went wrong.
    pub wrong: u32,
}

/// What a number of tries can say of a share.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Chance {
    /// The share that went wrong.
    pub share: f64,
    /// At 95 % it is under this.
    pub at_most: f64,
}

/// What so many sheets come to.
#[derive(Debug, Clone, PartialEq)]
pub struct Odds {
    /// Sheets that show white.
    pub white: Tries,
    /// The worst place of half of the sheets is within this, mm.
    pub typical: f64,
    /// And of 99 in a hundred, mm.
    pub p99: f64,
    /// The worst place of all of them, mm.
    pub worst: f64,
    /// How many sheets have their worst place between equal steps from 0 to `worst`.
    pub bars: Vec<u32>,
}

impl Tries {
    /// The share that went wrong, and under what it is at 95 % (Clopper and Pearson 1934, one-sided): none of n wrong means
    /// under 1 − 0.05^(1/n).
    #[must_use]
    pub fn chance(self) -> Chance {
        let Self { tried, wrong } = self;
        if tried == 0 {
            return Chance { share: 0.0, at_most: 1.0 };
        }
        let share = f64::from(wrong) / f64::from(tried);
        if wrong >= tried {
            return Chance { share, at_most: 1.0 };
        }
        let (mut least, mut most) = (share, 1.0);
        for _ in 0..50 {
            let middle = f64::midpoint(least, most);
            if at_most(wrong, tried, middle) > 1.0 - SURE {
                least = middle;
            } else {
                most = middle;
            }
        }
        Chance { share, at_most: most }
    }
}

/// How likely it is that no more than `wrong` of `tried` are wrong when each is with that chance.
fn at_most(wrong: u32, tried: u32, chance: f64) -> f64 {
    let (log, other) = (chance.ln(), (-chance).ln_1p());
    let mut ways = 0.0_f64;
    let mut sum = 0.0;
    for own in 0..=wrong {
        if own > 0 {
            ways += (f64::from(tried - own + 1) / f64::from(own)).ln();
        }
        sum += (ways + f64::from(own) * log + f64::from(tried - own) * other).exp();
    }
    sum
}

/// A place that is looked at on every sheet.
struct Place {
    at: Point,
    outwards: Vec2,
    /// How far out the cut may fall until white shows; none where there is no ink to end.
    bleed: Option<f64>,
}

/// So many sheets; `goes_on` is told how many are done, and says whether to go on. What was done until then counts.
#[must_use]
pub fn odds(ask: &OddsAsk<'_>, sheets: u32, goes_on: &mut dyn FnMut(u32) -> bool) -> Odds {
    let places = places(ask);
    let (mut worst, mut white) = (Vec::new(), 0);
    let mut random = fastrand::Rng::with_seed(ask.seed);
    for sheet in 0..sheets {
        if sheet % 500 == 0 && !goes_on(sheet) {
            break;
        }
        let printed = ask.day.print(ask.page, &ask.margins, random.u64(..)).misfeed;
        let print = printed.affine(ask.page);
        let truth = |at: Point| print * (at + printed.bow(at, ask.page));
        let seen: Vec<(Point, Point)> = ask
            .marks
            .iter()
            .map(|at| {
                let off = Vec2::new(normal(&mut random), normal(&mut random)) * ask.eye;
                (*at, truth(*at) + off)
            })
            .collect();
        let cut = fit(&seen).map_or(Affine::IDENTITY, |fit| fit.affine);
        let back = print.inverse();
        let (mut own_worst, mut is_white) = (0.0_f64, false);
        for place in &places {
            let at = place.at + printed.bow(place.at, ask.page);
            let off = back * (cut * place.at) - at;
            own_worst = own_worst.max(off.hypot());
            is_white |= place.bleed.is_some_and(|bleed| off.dot(place.outwards) > bleed);
        }
        worst.push(own_worst);
        white += u32::from(is_white);
    }
    let most = worst.iter().copied().fold(0.0, f64::max);
    let mut bars = vec![0; BARS];
    for own in &worst {
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "a share")]
        let bar = (own / most.max(1e-9) * BARS as f64) as usize;
        bars[bar.min(BARS - 1)] += 1;
    }
    let tried = u32::try_from(worst.len()).unwrap_or(u32::MAX);
    Odds {
        white: Tries { tried, wrong: white },
        typical: quantile(worst.clone(), 0.5),
        p99: quantile(worst, 0.99),
        worst: most,
        bars,
    }
}

/// Places spread evenly over all edges.
fn places(ask: &OddsAsk<'_>) -> Vec<Place> {
    let edges = ask.lines.iter().filter(|line| line.is_edge);
    let long: f64 = edges
        .clone()
        .map(|line| line.meant.windows(2).map(|two| two[0].distance(two[1])).sum::<f64>())
        .sum();
    let step = (long / MOST_PLACES as f64).max(0.5);
    let mut places = Vec::new();
    for line in edges {
        let Some(copy) = line.copy.and_then(|at| ask.copies.get(at)) else { continue };
        for (at, way, _) in along(&line.meant, step) {
            let Some(edge) = Edge::of(copy, at, way) else { continue };
            let bleed = edge.is_inked.then(|| edge.bleed(copy, at, MOST_BLEED));
            places.push(Place { at, outwards: edge.outwards, bleed });
        }
    }
    places
}

#[cfg(test)]
mod tests {
    use super::*;

    /// None of 1,000 wrong is under 0.3 % at 95 % (the rule of three; published, Hanley and Lippman-Hand 1983). Bounds of
    /// Clopper and Pearson beside it as scipy.stats.beta.ppf(0.95, wrong + 1, tried - wrong) gives them.
    #[test]
    fn bounds_are_those_of_the_binomial_distribution() {
        let bound = |wrong, tried| Tries { tried, wrong }.chance().at_most;
        for (wrong, tried, expected) in [
            (0, 1000, 0.002_991_249_5),
            (4, 1000, 0.009_129_952_6),
            (1, 10, 0.394_163_302_4),
            (50, 100, 0.586_378_285_4),
            (10_000, 10_000, 1.0),
        ] {
            let own = bound(wrong, tried);
            assert!((own - expected).abs() < 1e-9, "{wrong} of {tried}: {own}");
        }
    }
}
