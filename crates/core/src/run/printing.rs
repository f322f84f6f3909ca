//! How a job's sheets are printed, and how long that takes.

use super::Ground;
use crate::workshop::PrintRecipe;

/// The printing recipe for the card of the first piece that lies on sheets, on the job's printer.
#[must_use]
pub fn print_recipe<'a>(ground: &Ground<'a>) -> Option<&'a PrintRecipe> {
    let piece = ground.prepared.pieces.iter().find(|own| !own.laid_parts().is_empty())?;
    let printer = ground.job.sheet.printer.as_ref().filter(|_| ground.prepared.is_printed())?;
    PrintRecipe::of(ground.workshop, &piece.job_piece.stock, printer)
}

/// How long all sheets take to print, minutes, where that is known; backs take as long again.
#[must_use]
pub fn print_minutes(ground: &Ground<'_>) -> Option<f64> {
    let sides = if ground.prepared.has_backs() { 2.0 } else { 1.0 };
    Some(print_recipe(ground)?.minutes? * f64::from(ground.prepared.layout.sheets()) * sides)
}

/// Such as “4 min” or “1 h 05 min”.
#[must_use]
pub fn minutes_text(minutes: f64) -> String {
    let whole = minutes.ceil().clamp(1.0, 1e6);
    let (hours, rest) = ((whole / 60.0).floor(), whole % 60.0);
    if hours < 1.0 { format!("{whole} min") } else { format!("{hours} h {rest:02} min") }
}

#[cfg(test)]
mod tests {
    use super::minutes_text;

    #[test]
    fn times_are_told_in_whole_minutes_never_too_short() {
        let told = [0.2, 1.0, 4.3, 59.5, 60.0, 65.0, 125.1].map(minutes_text);
        assert_eq!(
            told,
            ["1 min", "1 min", "5 min", "1 h 00 min", "1 h 00 min", "1 h 05 min", "2 h 06 min"]
        );
    }
}
