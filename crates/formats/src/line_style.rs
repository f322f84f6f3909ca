//! How each kind of line looks on paper: by colour and by dash, so that it survives a
//! black-and-white print and a colour-blind reader.

use aptum_core::LineKind;

/// Colour, width and dash of a line.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct LineStyle {
    /// `#rrggbb`.
    pub colour: &'static str,
    /// Width in mm.
    pub width: f64,
    /// Lengths of dashes and gaps in mm; empty for a solid line.
    pub dash: &'static [f64],
}

/// The style of a kind.
#[must_use]
pub const fn line_style(kind: LineKind) -> LineStyle {
    let (colour, width, dash): (_, _, &'static [f64]) = match kind {
        LineKind::Cut => ("#22302f", 0.35, &[]),
        LineKind::KissCut => ("#7a4e91", 0.2, &[]),
        LineKind::Score => ("#96690f", 0.3, &[4.0, 1.0, 0.6, 1.0]),
        LineKind::Crease => ("#1b6470", 0.3, &[4.0, 1.5]),
        LineKind::ReverseCrease => ("#1b6470", 0.3, &[4.0, 1.0, 0.6, 1.0, 0.6, 1.0]),
        LineKind::Perforation => ("#22302f", 0.35, &[0.6, 1.0]),
        LineKind::Guide => ("#5b6764", 0.1, &[]),
    };
    LineStyle { colour, width, dash }
}

/// Red, green and blue of `#rrggbb`, 0 to 1 each; black for anything else.
#[must_use]
pub fn rgb(colour: &str) -> [f32; 3] {
    let mut parts = [0; 3];
    // What cannot be read is left black.
    let _read = hex::decode_to_slice(colour.trim_start_matches('#'), &mut parts);
    parts.map(|part| f32::from(part) / 255.0)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn no_two_kinds_look_alike_without_colour() {
        let styles: Vec<_> = LineKind::IN_ORDER.map(line_style).to_vec();
        for (index, a) in styles.iter().enumerate() {
            for b in &styles[index + 1..] {
                assert!(a.dash != b.dash || (a.width - b.width).abs() > 0.05, "{a:?} {b:?}");
            }
        }
        assert_eq!(rgb("#ff8000"), [1.0, 128.0 / 255.0, 0.0]);
        assert_eq!(rgb("#é"), [0.0; 3]);
    }
}
