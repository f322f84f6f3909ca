//! The short code that names what is printed and cut, so that a sheet and its cut can be matched.
//!
//! Two jobs whose sheets are the same to a ten-thousandth of a millimetre have the same code, whatever else
//! differs; whatever changes a printed or a cut line changes it.

use kurbo::{BezPath, PathEl, Point};

/// Digits of Crockford's base 32: no I, L, O or U to misread.
const DIGITS: &[u8; 32] = b"0123456789ABCDEFGHJKMNPQRSTVWXYZ";

/// What makes two sheets differ, gathered bit by bit: FNV-1a, 64 bit, fixed by its definition, unlike the
/// standard library's hashes.
pub(crate) struct SheetCode(u64);

/// What the code looks like before it is known.
pub const NO_CODE: &str = "00000";

impl SheetCode {
    pub fn new() -> Self {
        Self(0xcbf2_9ce4_8422_2325)
    }

    pub fn text(&mut self, text: &str) {
        for byte in text.bytes().chain([0]) {
            self.0 = (self.0 ^ u64::from(byte)).wrapping_mul(0x0100_0000_01b3);
        }
    }

    /// A length, an angle or a count, to a ten-thousandth.
    pub fn number(&mut self, value: f64) {
        // What rounding decides must not: the same sheet worked out twice is the same to far less.
        let tidy = (value * 1e4).round() + 0.0;
        for byte in tidy.to_bits().to_le_bytes() {
            self.0 = (self.0 ^ u64::from(byte)).wrapping_mul(0x0100_0000_01b3);
        }
    }

    pub fn path(&mut self, path: &BezPath) {
        for element in path.elements() {
            let (letter, points): (&str, &[Point]) = match element {
                PathEl::MoveTo(a) => ("M", &[*a]),
                PathEl::LineTo(a) => ("L", &[*a]),
                PathEl::QuadTo(a, b) => ("Q", &[*a, *b]),
                PathEl::CurveTo(a, b, c) => ("C", &[*a, *b, *c]),
                PathEl::ClosePath => ("Z", &[]),
            };
            self.text(letter);
            for point in points {
                self.number(point.x);
                self.number(point.y);
            }
        }
        self.text("");
    }

    /// Five characters; two contents share them by chance once in 33 million.
    pub fn finish(self) -> String {
        // The low bits of such a hash depend on few of what went in: fold the high ones down.
        let mut hash = self.0;
        hash ^= hash >> 32;
        hash = hash.wrapping_mul(0x9e37_79b9_7f4a_7c15);
        let digit = |place: u32| usize::from((hash >> (12 + 5 * place)).to_le_bytes()[0] & 31);
        (0..5).map(|place| char::from(DIGITS[digit(place)])).collect()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn code(numbers: &[f64]) -> String {
        let mut code = SheetCode::new();
        numbers.iter().for_each(|number| code.number(*number));
        code.finish()
    }

    #[test]
    fn a_code_follows_the_content() {
        assert_eq!(code(&[60.0, 30.0]), code(&[60.0, 30.0 + 1e-9]));
        assert_ne!(code(&[60.0, 30.0]), code(&[60.0, 30.1]));
        assert_eq!(code(&[0.0]), code(&[-0.0]));
        assert!(code(&[1.0]).chars().all(|c| c.is_ascii_alphanumeric()));
        assert_eq!(code(&[]).len(), 5);
    }

    /// Of 20,000 contents that differ by a millimetre about six pairs share a code by chance (derived:
    /// n²/2 ÷ 32⁵).
    #[test]
    fn codes_are_spread() {
        let all: std::collections::BTreeSet<String> =
            (0..20_000u32).map(|number| code(&[f64::from(number)])).collect();
        assert!(all.len() > 19_970, "{}", all.len());
    }
}
