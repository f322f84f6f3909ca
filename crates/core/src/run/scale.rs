//! What the length of the printed scale says, measured with a ruler.

use kurbo::{Rect, Size};
#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use crate::workshop::Margins;

/// What the printer did.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum ScaleSays {
    /// It printed true, as well as a ruler can tell.
    True,
    /// A little off, as printers are: the marks allow for that.
    Nearly,
    /// The page was fitted between its margins.
    FitToPage,
    /// The page was made for A4 and fitted onto Letter.
    OnLetter,
    /// The page was made for Letter and fitted onto A4.
    OnA4,
    /// It is off by so much that no cut from it can be true, for none of these reasons.
    Wrong,
}

/// What a ruler tells of a length, mm.
const RULER: f64 = 0.35;

/// Scales that a cutter allows for.
const ALLOWED: f64 = 0.02;

/// How near to a known mistake it must be, as a share.
const NEAR: f64 = 0.004;

/// Letter (ANSI/ASME Y14.1) and A4 (ISO 216), mm.
const LETTER: Size = Size::new(215.9, 279.4);
const A4: Size = Size::new(210.0, 297.0);

/// Says what became of a scale of `asked` mm that measures `measured` mm on a page printed with these margins.
#[must_use]
pub fn scale_says(measured: f64, asked: f64, page: Rect, margins: &Margins) -> ScaleSays {
    if !(measured > 0.0 && asked > 0.0) {
        return ScaleSays::Wrong;
    }
    if (measured - asked).abs() <= RULER {
        return ScaleSays::True;
    }
    let share = measured / asked;
    let fitted = |room: Size| (room.width / page.width()).min(room.height / page.height());
    let is_near = |other: f64| (share - other).abs() <= NEAR && (1.0 - other).abs() > NEAR;
    let on = |paper: Size| {
        let paper =
            if page.width() > page.height() { Size::new(paper.height, paper.width) } else { paper };
        let inside = margins.inside(Rect::from_origin_size((0.0, 0.0), paper));
        is_near(fitted(inside.size())) || is_near(fitted(paper))
    };
    let is_of = |own: Size| {
        let (short, long) = (page.width().min(page.height()), page.width().max(page.height()));
        (short - own.width).abs() < 1.0 && (long - own.height).abs() < 1.0
    };
    if is_near(fitted(margins.inside(page).size())) {
        ScaleSays::FitToPage
    } else if is_of(A4) && on(LETTER) {
        ScaleSays::OnLetter
    } else if is_of(LETTER) && on(A4) {
        ScaleSays::OnA4
    } else if (share - 1.0).abs() <= ALLOWED {
        ScaleSays::Nearly
    } else {
        ScaleSays::Wrong
    }
}

impl ScaleSays {
    /// In words, with what to do.
    #[must_use]
    pub const fn words(self) -> &'static str {
        match self {
            Self::True => "printed true",
            Self::Nearly => {
                "a little off, as printers are: the cutter allows for that by the marks"
            }
            Self::FitToPage => "fitted to the page: print again, and choose “actual size”",
            Self::OnLetter => {
                "fitted onto Letter: put A4 into the tray, choose “actual size”, and print again"
            }
            Self::OnA4 => {
                "fitted onto A4: put Letter into the tray, choose “actual size”, and print again"
            }
            Self::Wrong => {
                "no printer errs by so much: choose “actual size” and 100 %, and print again"
            }
        }
    }

    /// True where the sheet can be cut.
    #[must_use]
    pub const fn can_be_cut(self) -> bool {
        matches!(self, Self::True | Self::Nearly)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn page(size: Size) -> Rect {
        Rect::from_origin_size((0.0, 0.0), size)
    }

    /// A scale of 100 mm on Letter between quarter-inch margins becomes 94.1, A4 on Letter without margins 94.1 too (derived:
    /// 8 / 8.5, 279.4 / 297), on Letter between quarter-inch margins 89.8; Letter on A4 97.3.
    #[test]
    fn classic_mistakes_are_told_apart() {
        let quarter = Margins::all(6.35);
        let says =
            |mm: f64, size: Size, margins: &Margins| scale_says(mm, 100.0, page(size), margins);
        assert_eq!(says(100.2, LETTER, &quarter), ScaleSays::True);
        assert_eq!(says(99.5, LETTER, &quarter), ScaleSays::Nearly);
        assert_eq!(says(94.1, LETTER, &quarter), ScaleSays::FitToPage);
        assert_eq!(says(89.8, A4, &quarter), ScaleSays::OnLetter);
        assert_eq!(says(94.1, A4, &Margins::all(0.0)), ScaleSays::OnLetter);
        assert_eq!(says(97.3, LETTER, &quarter), ScaleSays::OnA4);
        assert_eq!(says(88.0, LETTER, &quarter), ScaleSays::Wrong);
        for nothing in [0.0, 200.0, -4.0, f64::NAN] {
            assert_eq!(says(nothing, LETTER, &quarter), ScaleSays::Wrong);
        }
    }

    /// A bad scale that is no classic mistake is not taken for one.
    #[test]
    fn a_printer_that_errs_is_not_blamed_on_a_setting() {
        for tenth in 0..39 {
            let mm = 98.1 + f64::from(tenth) / 10.0;
            let says = scale_says(mm, 100.0, page(LETTER), &Margins::all(6.35));
            assert!(says.can_be_cut(), "{mm}: {says:?}");
        }
    }
}
