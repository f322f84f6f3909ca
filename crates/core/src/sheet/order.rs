//! What a whole order comes to: sheets, card used and left over, cost.

use crate::sheet::Ground;
use crate::sheet::Layout;
use crate::workshop::{RecordId, Workshop};

/// A whole order.
#[derive(Debug, Clone, PartialEq)]
pub struct Order {
    /// Share of the sheets that becomes pieces, 0 to 1.
    pub used: f64,
    /// What is left over, in mm² over all sheets.
    pub waste: f64,
    /// One for each card, the job's own first.
    pub cards: Vec<CardOrder>,
}

/// What is needed of one card.
#[derive(Debug, Clone, PartialEq)]
pub struct CardOrder {
    /// Which card.
    pub stock: RecordId,
    /// How many sheets of it.
    pub sheets: u32,
    /// What they cost and in which currency, where that is known.
    pub cost: Option<(f64, String)>,
}

impl Order {
    /// What all cards cost, where every one has a price in the same currency.
    #[must_use]
    pub fn cost(&self) -> Option<(f64, String)> {
        let mut costs = self.cards.iter().map(|card| card.cost.clone());
        let first = costs.next()??;
        costs.try_fold(first, |(sum, currency), next| {
            next.filter(|(_, other)| *other == currency).map(|(cost, _)| (sum + cost, currency))
        })
    }
}

pub(crate) fn order(workshop: &Workshop, ground: &Ground, layout: &Layout) -> Order {
    let page = ground.windows.page.area();
    let sheets = |card: &RecordId| -> u32 {
        layout.runs.iter().filter(|run| ground.card_of(run) == card).map(|run| run.sheets).sum()
    };
    let cards: Vec<CardOrder> = ground
        .each_card()
        .into_iter()
        .map(|stock| (stock, sheets(stock)))
        .filter(|(_, sheets)| *sheets > 0)
        .map(|(stock, sheets)| {
            let record = workshop.stocks.get(stock);
            let cost = record.and_then(|record| {
                let currency = record.price.as_ref()?.currency.clone();
                Some((record.cost(page)? * f64::from(sheets), currency))
            });
            CardOrder { stock: stock.clone(), sheets, cost }
        })
        .collect();
    let area = f64::from(layout.sheets()) * page;
    let numbered = ground.blanks().map(|(piece, at)| (piece.first + at, &piece.flat.parts[at]));
    let pieces: f64 =
        numbered.map(|(number, part)| f64::from(layout.count(number)) * part.area()).sum();
    Order { used: if area > 0.0 { pieces / area } else { 0.0 }, waste: area - pieces, cards }
}
