//! Typefaces of makers' own: TrueType and OpenType files, kept as they come; WOFF 2 unpacked.

use std::borrow::Cow;

use aptum_core::blob::{BlobId, Origin};
use aptum_core::face::Text;
use aptum_core::lettering::{FontBytes, OwnTypeface};
use sha2::{Digest, Sha256};
use thiserror::Error;
use ttf_parser::{Face, RawFace, name_id};

/// Largest font that is taken, in bytes, packed and unpacked.
pub const LARGEST: usize = 16 << 20;

/// The media type of fonts (RFC 8081).
pub const MEDIA: &str = "font/sfnt";

/// Why bytes are no typeface that can be used.
#[derive(Debug, Clone, PartialEq, Eq, Error)]
pub enum FontError {
    /// No bytes at all.
    #[error("the file is empty: choose a TTF, OTF or WOFF2")]
    Empty,
    /// More bytes than are taken.
    #[error("the typeface has {0} bytes: up to {LARGEST}; leave out what is not set in it")]
    TooLarge(usize),
    /// Something else.
    #[error(
        "the file is no typeface (TTF, OTF, WOFF2), whatever its name says: choose one of these"
    )]
    Other,
    /// Cut off or damaged.
    #[error("the typeface is damaged or cut off ({0}): take it again from where it came")]
    Damaged(String),
    /// No outlines of letters.
    #[error("the typeface holds no outlines of letters: choose one that does")]
    NoOutlines,
}

/// True where bytes begin as a font file does (ISO/IEC 14496-22, 4.5; WOFF 2, 3).
#[must_use]
pub fn is_font(bytes: &[u8]) -> bool {
    let head = bytes.get(..4);
    head.is_some_and(|head| {
        matches!(head, b"\0\x01\0\0" | b"OTTO" | b"true" | b"ttcf" | b"wOF2" | b"wOFF")
    })
}

/// Tells that a font can be read, and the name of its family.
///
/// # Errors
/// [`FontError`].
pub fn look_at(bytes: &[u8]) -> Result<String, FontError> {
    if bytes.is_empty() {
        return Err(FontError::Empty);
    }
    if bytes.len() > LARGEST {
        return Err(FontError::TooLarge(bytes.len()));
    }
    if !is_font(bytes) || bytes.starts_with(b"wOF") {
        return Err(FontError::Other);
    }
    let raw = RawFace::parse(bytes, 0).map_err(|error| FontError::Damaged(error.to_string()))?;
    let ends = raw
        .table_records
        .into_iter()
        .map(|table| u64::from(table.offset) + u64::from(table.length));
    if ends.max().is_some_and(|end| end > bytes.len() as u64) {
        return Err(FontError::Damaged("its end is missing".to_owned()));
    }
    let face = Face::parse(bytes, 0).map_err(|error| FontError::Damaged(error.to_string()))?;
    let tables = face.tables();
    if tables.glyf.is_none() && tables.cff.is_none() && tables.cff2.is_none() {
        return Err(FontError::NoOutlines);
    }
    let name = |id: u16| {
        face.names().into_iter().filter(|name| name.name_id == id).find_map(|name| name.to_string())
    };
    let ids = [name_id::FULL_NAME, name_id::TYPOGRAPHIC_FAMILY, name_id::FAMILY];
    let plain = |name: String| -> String {
        name.chars().filter(|c| !c.is_control()).take(100).collect::<String>().trim().to_owned()
    };
    if !can_be_set(bytes) {
        return Err(FontError::Damaged("words cannot be set in it".to_owned()));
    }
    let found = ids.into_iter().filter_map(name).map(plain).find(|name| !name.is_empty());
    Ok(found.unwrap_or_else(|| "Typeface".to_owned()))
}

/// Words that are set in a font before anybody relies on it: ligatures, marks, right to left.
const TRIAL: &str = "Office fjord ÄÖÜ éè 0123 \u{5d0}\u{5d1} \u{627}\u{644} \u{928}\u{92e}";

/// True where the shaper sets words in it to their end. It trusts what the file says of itself, so it is tried on a
/// thread of its own.
fn can_be_set(bytes: &[u8]) -> bool {
    let bytes = FontBytes(Some(bytes.into()));
    let blob = BlobId(hex::encode(Sha256::digest(bytes.0.as_deref().unwrap_or_default())));
    let tried = std::thread::spawn(move || {
        let own = OwnTypeface { blob, origin: Origin::default(), bytes };
        let text = Text { own_typeface: Some(own), ..Text::new(TRIAL) };
        text.set([100.0, 50.0]).em.is_finite()
    });
    tried.join().unwrap_or(false)
}

/// A font as it is kept, and the name of its family.
///
/// # Errors
/// [`FontError`].
pub fn brought(bytes: &[u8]) -> Result<(String, Cow<'_, [u8]>), FontError> {
    if bytes.len() > LARGEST {
        return Err(FontError::TooLarge(bytes.len()));
    }
    let kept = if bytes.starts_with(b"wOF2") {
        let unpacked = wuff::decompress_woff2(bytes);
        Cow::Owned(unpacked.map_err(|_| FontError::Damaged("it cannot be unpacked".to_owned()))?)
    } else {
        Cow::Borrowed(bytes)
    };
    Ok((look_at(&kept)?, kept))
}

#[cfg(test)]
mod tests {
    use aptum_core::lettering::Typeface;

    use super::*;

    #[test]
    fn a_font_is_told_by_its_bytes_and_its_own_name() {
        let bytes = Typeface::plain().bytes();
        let (name, kept) = brought(bytes).unwrap();
        assert!(name.starts_with("Atkinson Hyperlegible Next"), "{name}");
        assert_eq!(&*kept, bytes);
    }

    #[test]
    fn what_is_no_typeface_is_refused_in_words() {
        let refused = |bytes: &[u8]| brought(bytes).unwrap_err();
        assert_eq!(refused(b""), FontError::Empty);
        assert_eq!(refused(b"\x89PNG and so on"), FontError::Other);
        assert_eq!(refused(b"wOFF\0\x01\0\0"), FontError::Other);
        assert!(matches!(refused(b"wOF2\0\x01\0\0 and no more"), FontError::Damaged(_)));
        assert!(matches!(refused(b"OTTO\0\x09 and no more"), FontError::Damaged(_)));
        let cut = &Typeface::plain().bytes()[..900];
        assert_eq!(refused(cut), FontError::Damaged("its end is missing".to_owned()));
        assert_eq!(refused(&vec![0; LARGEST + 1]), FontError::TooLarge(LARGEST + 1));
    }
}
