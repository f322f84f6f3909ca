//! Reading what people type into length fields.

use aptum_core::units::{Unit, format_length, parse_caliper, parse_grammage, parse_length};
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
    /// A mass in g/m², or a basis weight such as “80 lb cover”.
    Grammage,
    /// An amount of money.
    Amount,
    /// An angle in degrees.
    Angle,
    /// A whole number.
    Count,
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
    /// Millimetres; degrees or a count where those were asked for.
    mm: f64,
    /// The length as a field shows it.
    text: String,
}

/// Reads a length.
#[post("/lengths", data = "<entry>")]
pub fn read(entry: Body<LengthEntry>) -> Result<Json<ReadLength>, Problem> {
    let LengthEntry { text, unit, measured } = entry.0;
    let read = match measured {
        Measured::Length => Some(parse_length(&text, unit)),
        Measured::Caliper => Some(parse_caliper(&text, unit)),
        Measured::Grammage => return grammage(&text),
        Measured::Angle | Measured::Count | Measured::Amount => None,
    };
    let read = match read {
        Some(read) => read,
        None => return plain_number(&text, measured),
    };
    let mm = read.map_err(|error| Problem::entry("text", error.to_string()))?;
    Ok(Json(ReadLength { mm, text: format_length(mm, unit) }))
}

fn grammage(text: &str) -> Result<Json<ReadLength>, Problem> {
    let value = parse_grammage(text).map_err(|error| Problem::entry("text", error.to_string()))?;
    let tidy = (value * 100.0).round() / 100.0;
    Ok(Json(ReadLength { mm: tidy, text: tidy.to_string() }))
}

/// A number that is no length: degrees, or a count.
fn plain_number(text: &str, measured: Measured) -> Result<Json<ReadLength>, Problem> {
    let digits = text.trim().trim_end_matches('°').trim().replace(',', ".");
    let is_short = digits.len() <= 12;
    // Nothing that is entered is larger; digits without end help nobody.
    let value = digits.parse::<f64>().ok().filter(|value| is_short && value.abs() <= 1e6);
    let shown: String = text.chars().take(40).collect();
    let value = value.ok_or_else(|| {
        Problem::entry(
            "text",
            format!("“{shown}” is not a number up to a million: type one such as 12"),
        )
    })?;
    if matches!(measured, Measured::Count) && value.fract() != 0.0 {
        let whole = value.round();
        return Err(Problem::entry(
            "text",
            format!("“{shown}” is not a whole number: type {whole}"),
        ));
    }
    let tidy = (value * 100.0).round() / 100.0;
    Ok(Json(ReadLength { mm: value, text: tidy.to_string() }))
}
