//! With what sheets were really cut, which the Logbook keeps.

use serde::{Deserialize, Deserializer, Serialize};

use crate::job::OperationId;
use crate::prepare::Prepared;
use crate::workshop::Force;

/// With what an operation was really done.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Sent {
    /// Which.
    pub operation: OperationId,
    /// None where it was left to the machine.
    pub force: Option<Force>,
    /// mm/s.
    pub speed: Option<f64>,
    /// How often along each line.
    pub passes: u32,
    /// The station's step.
    pub depth: Option<f64>,
}

/// With what the sheets in a row were cut that were cut alike.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct SheetsSent {
    /// The first sheet and the last, from 1.
    pub sheets: [u32; 2],
    /// What was done on them.
    pub operations: Vec<Sent>,
}

/// With what each sheet was cut, in their order. Only the last sheet is told of in what earlier versions kept.
#[derive(Debug, Clone, Default, PartialEq, Serialize)]
#[serde(transparent)]
pub struct AllSent(pub Vec<SheetsSent>);

impl<'de> Deserialize<'de> for AllSent {
    fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
        #[derive(Deserialize)]
        #[serde(untagged)]
        enum Known {
            Each(Vec<SheetsSent>),
            Last { sheet: u32, operations: Vec<Sent> },
        }
        Ok(Self(match Known::deserialize(deserializer)? {
            Known::Each(all) => all,
            Known::Last { sheet, operations } => {
                vec![SheetsSent { sheets: [sheet, sheet], operations }]
            }
        }))
    }
}

impl AllSent {
    /// True where it is known with what a sheet was cut.
    #[must_use]
    pub fn tells_of(&self, sheet: u32) -> bool {
        self.0.iter().any(|own| (own.sheets[0]..=own.sheets[1]).contains(&sheet))
    }

    /// Notes with what a sheet was cut; what was known of it goes.
    pub fn note(&mut self, sheet: u32, operations: Vec<Sent>) {
        let mut all = vec![SheetsSent { sheets: [sheet, sheet], operations }];
        for own in self.0.drain(..) {
            let [first, last] = own.sheets;
            for sheets in [[first, last.min(sheet.saturating_sub(1))], [first.max(sheet + 1), last]]
            {
                if sheets[0] <= sheets[1] {
                    all.push(SheetsSent { sheets, operations: own.operations.clone() });
                }
            }
        }
        all.sort_by_key(|own| own.sheets[0]);
        all.dedup_by(|next, own| {
            let is_on = own.sheets[1] + 1 == next.sheets[0] && own.operations == next.operations;
            if is_on {
                own.sheets[1] = next.sheets[1];
            }
            is_on
        });
        self.0 = all;
    }

    /// Sheets after `last` were not cut after all.
    pub fn go_back_to(&mut self, last: u32) {
        self.0.retain(|own| own.sheets[0] <= last);
        if let Some(own) = self.0.last_mut() {
            own.sheets[1] = own.sheets[1].min(last);
        }
    }
}

/// With what a sheet, from 1, is cut in a loading as the job stands now.
#[must_use]
pub fn sent(prepared: &Prepared, sheet: u32, loading: usize) -> Vec<Sent> {
    let run = prepared.layout.run_of(sheet).map(|(run, _)| &prepared.layout.runs[run]);
    let card = run.and_then(|run| prepared.card_of(run));
    let done = prepared.operations.iter().filter(|own| {
        let is_on_it = card.is_none_or(|card| own.stocks.contains(card));
        own.loading == loading && is_on_it && !own.is_off && own.station.is_some()
    });
    done.map(|own| Sent {
        operation: own.id.clone(),
        force: own.force,
        speed: own.speed,
        passes: own.passes,
        depth: own.depth,
    })
    .collect()
}
