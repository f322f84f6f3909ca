//! Colours of DXF by their numbers.

/// A colour by its number (DXF reference): six pure ones, black for what is drawn in ink on paper, hues in steps of 15°
/// in five darknesses, paler where it is odd, and greys.
pub(super) fn of_index(index: u8) -> String {
    let rgb = match index {
        1 => [255, 0, 0],
        2 => [255, 255, 0],
        3 => [0, 255, 0],
        4 => [0, 255, 255],
        5 => [0, 0, 255],
        6 => [255, 0, 255],
        8 => [65, 65, 65],
        9 => [128, 128, 128],
        250..=255 => [[51u8, 91, 132, 173, 214, 255][usize::from(index) - 250]; 3],
        10..=249 => {
            let hue = f64::from(index / 10 - 1) * 15.0;
            let value = [1.0, 0.65, 0.5, 0.3, 0.15][usize::from(index % 10 / 2)];
            let pale = if index % 2 == 1 { 0.5 } else { 0.0 };
            let channel = |shift: f64| {
                let away = ((hue - shift + 540.0).rem_euclid(360.0) - 180.0).abs();
                let share = ((120.0 - away) / 60.0).clamp(0.0, 1.0);
                let share = pale + (1.0 - pale) * share;
                #[expect(
                    clippy::cast_possible_truncation,
                    clippy::cast_sign_loss,
                    reason = "0 to 255"
                )]
                let byte = (255.0 * value * share) as u8;
                byte
            };
            [channel(0.0), channel(120.0), channel(240.0)]
        }
        _ => [0, 0, 0],
    };
    format!("#{}", hex::encode(rgb))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn colours_are_those_of_the_reference() {
        // 10, 12, 21, 30, 91, 150 as the reference's table lists them (from memory).
        for (index, wanted) in
            [(1, "#ff0000"), (10, "#ff0000"), (30, "#ff7f00"), (150, "#007fff"), (255, "#ffffff")]
        {
            assert_eq!(of_index(index), wanted, "{index}");
        }
    }
}
