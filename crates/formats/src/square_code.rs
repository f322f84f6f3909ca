//! The sheet's code as a square one (ISO/IEC 18004), which an eye reads: its letters, a stroke, and the sheet's number.

use aptum_core::geometry::{BezPath, Rect, Shape};
use aptum_core::sheet::MODULE;
use qrcodegen::{DataTooLong, QrCode, QrCodeEcc, QrSegment, Version};

/// What a sheet's code says.
#[must_use]
pub fn square_words(code: &str, sheet: u32) -> String {
    format!("{code}/{sheet}")
}

/// The dark modules of a sheet's code, in the middle of its place. Empty where the words are too many for it.
#[must_use]
pub fn square_code(place: Rect, code: &str, sheet: u32) -> BezPath {
    modules(place, code, sheet).unwrap_or_default()
}

fn modules(place: Rect, code: &str, sheet: u32) -> Result<BezPath, DataTooLong> {
    let words = QrSegment::make_segments(&square_words(code, sheet));
    // The smallest, of 21 modules a side, with the mask that the standard chooses.
    let (medium, version, mask) = (QrCodeEcc::Medium, Version::new(1), None);
    let own = QrCode::encode_segments_advanced(&words, medium, version, version, mask, false)?;
    let side = own.size();
    let start = place.center()
        - aptum_core::geometry::Vec2::new(1.0, 1.0) * (f64::from(side) * MODULE / 2.0);
    let mut path = BezPath::new();
    for row in 0..side {
        let y = start.y + f64::from(row) * MODULE;
        let mut column = 0;
        while column < side {
            // Neighbours in a row are one rectangle.
            let mut end = column;
            while own.get_module(end, row) {
                end += 1;
            }
            if end > column {
                let (x, to) = (f64::from(column) * MODULE, f64::from(end) * MODULE);
                path.extend(Rect::new(start.x + x, y, start.x + to, y + MODULE).path_elements(0.1));
            }
            column = end + 1;
        }
    }
    Ok(path)
}

#[cfg(test)]
mod tests {
    use super::*;

    /// Version 1 has 21 modules a side (ISO/IEC 18004; from memory), and a finder of seven in three corners.
    #[test]
    fn the_code_fills_its_place_but_for_the_clear_space() {
        let place = Rect::new(10.0, 20.0, 21.6, 31.6);
        let path = square_code(place, "K7Q4M", 3);
        let bounds = path.bounding_box();
        assert!((bounds.width() - 8.4).abs() < 1e-9 && (bounds.height() - 8.4).abs() < 1e-9);
        assert!(bounds.center().distance(place.center()) < 1e-9);
        // The first row begins with a finder's seven.
        assert!(
            (path
                .subpaths()
                .next()
                .map(|own| {
                    let own = BezPath::from_vec(own.to_vec()).bounding_box();
                    own.width()
                })
                .unwrap()
                - 2.8)
                .abs()
                < 1e-9
        );
    }

    #[test]
    fn every_number_of_a_sheet_has_room() {
        assert!(!square_code(Rect::new(0.0, 0.0, 12.0, 12.0), "ZZZZZ", 10_000).is_empty());
    }
}
