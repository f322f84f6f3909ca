//! The short code that names what was printed, so that a sheet and its cut can be matched.

use serde::Serialize;

/// Digits of Crockford's base 32: no I, L, O or U to misread.
const DIGITS: &[u8; 32] = b"0123456789ABCDEFGHJKMNPQRSTVWXYZ";

/// Five characters from everything that shapes the sheet. The same content always gives the same
/// code; two contents share one by chance once in 33 million.
#[must_use]
pub fn sheet_code(content: &impl Serialize) -> String {
    // Content without maps keyed by numbers always has a JSON form.
    let json = serde_json::to_string(content).unwrap_or_default();
    // FNV-1a, 64 bit: fixed by its definition, unlike the standard library's hashes.
    let hash = json.bytes().fold(0xcbf2_9ce4_8422_2325_u64, |hash, byte| {
        (hash ^ u64::from(byte)).wrapping_mul(0x0100_0000_01b3)
    });
    let digit = |place: u32| usize::from((hash >> (12 + 5 * place)).to_le_bytes()[0] & 31);
    (0..5).map(|place| char::from(DIGITS[digit(place)])).collect()
}

#[cfg(test)]
mod tests {
    use super::sheet_code;

    #[test]
    fn a_code_follows_the_content() {
        assert_eq!(sheet_code(&"beans"), sheet_code(&"beans"));
        assert_ne!(sheet_code(&(60.0, 30.0)), sheet_code(&(60.0, 30.1)));
        assert!(sheet_code(&1).chars().all(|c| c.is_ascii_alphanumeric()));
        assert_eq!(sheet_code(&1).len(), 5);
    }
}
