//! Reading what people type into length fields.

use aptum_core::units::{Unit, format_length, parse_caliper, parse_length};
use rocket::post;
use rocket::serde::json::Json;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ts_rs::TS;

use super::Problem;
use super::body::Body;

/// What a length measures, which decides the units that are understood.
#[derive(Debug, Clone, Copy, Default, Deserialize, JsonSchema, TS)]
#[serde(rename_all = "kebab-case")]
pub enum Measured {
    /// A length in mm, cm, m or in.
    #[default]
    Length,
    /// A card's thickness, also in caliper points (pt).
    Caliper,
}

/// An entry as it was typed.
#[derive(Debug, Deserialize, JsonSchema, TS)]
pub struct LengthEntry {
    /// Such as `2 7/16 in` or `8.5in - 2*0.25in`.
    text: String,
    /// What a bare number is in.
    unit: Unit,
    /// What it measures.
    #[serde(default)]
    measured: Measured,
}

/// An entry that was understood.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct ReadLength {
    /// Millimetres.
    mm: f64,
    /// The length as a field shows it.
    text: String,
}

/// Reads a length.
#[post("/lengths", data = "<entry>")]
pub fn read(entry: Body<LengthEntry>) -> Result<Json<ReadLength>, Problem> {
    let LengthEntry { text, unit, measured } = entry.0;
    let read = match measured {
        Measured::Length => parse_length(&text, unit),
        Measured::Caliper => parse_caliper(&text, unit),
    };
    let mm = read.map_err(|error| Problem::entry("text", error.to_string()))?;
    Ok(Json(ReadLength { mm, text: format_length(mm, unit) }))
}
