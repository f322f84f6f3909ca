//! Pictures of sheets.

/// A picture with a scale.
#[derive(Debug, Clone, PartialEq)]
pub struct Picture {
    /// Across, pixels.
    pub width: usize,
    /// Along, pixels.
    pub height: usize,
    /// Pixels in a millimetre.
    pub fine: f64,
    /// Red, green and blue, row after row.
    pub pixels: Vec<[u8; 3]>,
}

impl Picture {
    /// All of one colour.
    #[must_use]
    pub fn plain(width: usize, height: usize, fine: f64, colour: [u8; 3]) -> Self {
        Self { width, height, fine, pixels: vec![colour; width * height] }
    }
}

/// How light a colour is, 0 to 255 (Rec. 601).
#[must_use]
pub fn lightness([red, green, blue]: [f64; 3]) -> f64 {
    0.299 * red + 0.587 * green + 0.114 * blue
}
