//! Force, in the unit in which a machine is told it. Units are never turned into each other.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Deserializer, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

/// What a machine counts its force in.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum ForceUnit {
    /// Newtons.
    #[default]
    Newtons,
    /// Grams.
    Grams,
    /// Its own steps, which say nothing about another machine's.
    Steps,
}

impl ForceUnit {
    /// How it is written behind a number.
    #[must_use]
    pub const fn symbol(self) -> &'static str {
        match self {
            Self::Newtons => "N",
            Self::Grams => "g",
            Self::Steps => "steps",
        }
    }

    /// The finest difference that is worth trying.
    #[must_use]
    pub const fn finest(self) -> f64 {
        match self {
            Self::Newtons => 0.05,
            Self::Grams => 5.0,
            Self::Steps => 1.0,
        }
    }
}

/// A force.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Force {
    /// How many.
    pub amount: f64,
    /// Of what.
    pub unit: ForceUnit,
}

impl Force {
    /// A force in newtons.
    #[must_use]
    pub const fn newtons(amount: f64) -> Self {
        Self { amount, unit: ForceUnit::Newtons }
    }

    /// Such as “1.9 N” or “12 steps”.
    #[must_use]
    pub fn text(self) -> String {
        format!("{} {}", (self.amount * 1000.0).round() / 1000.0, self.unit.symbol())
    }
}

impl<'de> Deserialize<'de> for Force {
    /// A number by itself is in newtons: so it was kept before machines had units of their own.
    fn deserialize<D: Deserializer<'de>>(from: D) -> Result<Self, D::Error> {
        #[derive(Deserialize)]
        #[serde(untagged)]
        enum Kept {
            Newtons(f64),
            Told { amount: f64, unit: ForceUnit },
        }
        Ok(match Kept::deserialize(from)? {
            Kept::Newtons(amount) => Self::newtons(amount),
            Kept::Told { amount, unit } => Self { amount, unit },
        })
    }
}
