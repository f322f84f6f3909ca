//! Reading lengths as people type them: `62`, `6.2cm`, `2 7/16 in`, `8.5in - 2*0.25in`.

use thiserror::Error;

use super::tokens::{FOOT, Kind, Points, Token, tokens};
use super::{INCH, Unit};

/// The longest entry that is read; a sum of a dozen terms is shorter.
const LONGEST_ENTRY: usize = 120;

/// Why an entry is not a length.
#[derive(Debug, Clone, PartialEq, Error)]
pub enum LengthError {
    /// Nothing was typed.
    #[error("nothing is entered: type a length such as 62, 6.2 cm or 2 7/16 in")]
    Empty,
    /// More characters than any length needs.
    #[error("the entry has {0} characters: a length takes at most {LONGEST_ENTRY}")]
    TooLong(usize),
    /// Something that is neither a number, a unit nor an operator.
    #[error("“{0}” is not understood: use numbers, mm, cm or in, and + - * / ( )")]
    Unknown(String),
    /// The entry stops where a number should stand.
    #[error("a number is missing after “{0}”")]
    Unfinished(String),
    /// A sign or a unit stands where a number should.
    #[error("a number is missing before “{0}”")]
    NoNumber(String),
    /// Digits that may be grouped by thousands or have decimals.
    #[error("“{text}” may mean {grouped} or {other}: type one of these")]
    Ambiguous {
        /// What was typed.
        text: String,
        /// Read as grouped by thousands.
        grouped: String,
        /// Read otherwise.
        other: String,
    },
    /// Two numbers without anything between them.
    #[error("nothing stands between “{0}” and “{1}”: put a sign there, or a unit behind each")]
    SideBySide(String, String),
    /// A length with two units.
    #[error("one “{0}” too many: a length has one unit")]
    TwoUnits(String),
    /// A bracket without its fellow.
    #[error("a bracket is not closed, or not opened: each ( has its )")]
    Bracket,
    /// A length times a length is an area.
    #[error("two lengths are multiplied: leave the unit off one of them")]
    Area,
    /// A division by zero or by a length.
    #[error("a length can only be divided by a plain number other than 0")]
    BadDivisor,
    /// The result cannot be held.
    #[error("the result is too large to be a length")]
    NotFinite,
}

/// Reads a length in millimetres; a number without a unit is in `unit`.
///
/// Fractions (`7/16`, `½`), mixed numbers (`2 7/16`, `2-7/16`, `2½`), feet and inches (`3' 2"`), sums, brackets,
/// and products with a plain number are understood. Units are `mm`, `cm`, `m`, `µm`, `in`, `inch`, `inches`, `"`,
/// `''`, `ft`, `'` and `thou`. A comma is a decimal point; digits that may be grouped by thousands
/// (`1,234`, `1 000`) are asked about.
///
/// # Errors
/// [`LengthError`] names what could not be read. The range of the result is the caller's affair.
///
/// ```
/// use aptum_core::units::{Unit, parse_length};
/// assert_eq!(parse_length("8.5in - 2*0.25in", Unit::Mm), Ok(203.2));
/// ```
pub fn parse_length(text: &str, unit: Unit) -> Result<f64, LengthError> {
    Reader::new(text, unit.millimetres(), Points::Unknown)?.read()
}

/// Reads a card thickness in millimetres. As [`parse_length`], and `pt` is a caliper point
/// (0.001 in), which is what board is sold by; elsewhere `pt` would be ambiguous.
///
/// # Errors
/// As [`parse_length`].
pub fn parse_caliper(text: &str, unit: Unit) -> Result<f64, LengthError> {
    Reader::new(text, unit.millimetres(), Points::Caliper)?.read()
}

/// A number, and whether a unit has made it a length (in mm).
#[derive(Clone, Copy)]
struct Quantity {
    value: f64,
    length: bool,
}

struct Reader {
    tokens: Vec<Token>,
    at: usize,
    bare: f64,
}

impl Reader {
    fn new(text: &str, bare: f64, points: Points) -> Result<Self, LengthError> {
        let length = text.chars().count();
        if length > LONGEST_ENTRY {
            return Err(LengthError::TooLong(length));
        }
        let tokens = tokens(text, points)?;
        if tokens.is_empty() {
            return Err(LengthError::Empty);
        }
        Ok(Self { tokens, at: 0, bare })
    }

    fn read(mut self) -> Result<f64, LengthError> {
        let sum = self.sum()?;
        if let Some(token) = self.tokens.get(self.at) {
            let before = self.at.checked_sub(1).map_or("", |at| self.tokens[at].text.as_str());
            return Err(match token.kind {
                Kind::Sign(')') => LengthError::Bracket,
                Kind::Unit(_) => LengthError::TwoUnits(token.text.clone()),
                _ => LengthError::SideBySide(before.to_owned(), token.text.clone()),
            });
        }
        let mm = if sum.length { sum.value } else { sum.value * self.bare };
        if mm.is_finite() { Ok(tidy(mm)) } else { Err(LengthError::NotFinite) }
    }

    /// Terms added up. Plain numbers beside lengths are in the unit of the field.
    fn sum(&mut self) -> Result<Quantity, LengthError> {
        let mut terms = Vec::new();
        let mut sign = if self.take_sign("+-") == Some('-') { -1.0 } else { 1.0 };
        loop {
            let Quantity { value, length } = self.product()?;
            terms.push(Quantity { value: sign * value, length });
            match self.take_sign("+-") {
                Some('-') => sign = -1.0,
                Some(_) => sign = 1.0,
                None => break,
            }
        }
        let length = terms.iter().any(|term| term.length);
        let value = |term: &Quantity| {
            if length && !term.length { term.value * self.bare } else { term.value }
        };
        Ok(Quantity { value: terms.iter().map(value).sum(), length })
    }

    fn product(&mut self) -> Result<Quantity, LengthError> {
        let mut product = self.factor()?;
        while let Some(sign) = self.take_sign("*/") {
            let next = self.factor()?;
            if sign == '*' {
                if product.length && next.length {
                    return Err(LengthError::Area);
                }
                let length = product.length || next.length;
                product = Quantity { value: product.value * next.value, length };
            } else if next.value == 0.0 || next.length {
                return Err(LengthError::BadDivisor);
            } else {
                product.value /= next.value;
            }
        }
        Ok(product)
    }

    fn factor(&mut self) -> Result<Quantity, LengthError> {
        if self.take_sign("(").is_none() {
            return self.quantity();
        }
        let Quantity { value, length } = self.sum()?;
        if self.take_sign(")").is_none() {
            return Err(LengthError::Bracket);
        }
        match self.take_unit()? {
            Some((_, text)) if length => Err(LengthError::TwoUnits(text)),
            Some((unit, _)) => Ok(Quantity { value: value * unit, length: true }),
            None => Ok(Quantity { value, length }),
        }
    }

    /// A number with its unit; feet may have inches after them.
    fn quantity(&mut self) -> Result<Quantity, LengthError> {
        let value = self.number()?;
        let Some((unit, _)) = self.take_unit()? else {
            return Ok(Quantity { value, length: false });
        };
        let mut value = value * unit;
        let is_foot = unit.to_bits() == FOOT.to_bits();
        if is_foot && matches!(self.kind(0), Some(Kind::Number(_) | Kind::Fraction(_))) {
            let (before, here) = (self.text(-1), self.text(0));
            let inches = self.number()?;
            match self.take_unit()? {
                Some((unit, _)) if unit.to_bits() == INCH.to_bits() => value += inches * unit,
                _ => return Err(LengthError::SideBySide(before, here)),
            }
        }
        Ok(Quantity { value, length: true })
    }

    /// A plain number, a fraction, or a whole number with a fraction after it.
    fn number(&mut self) -> Result<f64, LengthError> {
        let whole = match self.kind(0) {
            Some(Kind::Fraction(value)) => {
                self.at += 1;
                return Ok(value);
            }
            Some(Kind::Number(value)) => value,
            Some(_) => return Err(LengthError::NoNumber(self.text(0))),
            None => return Err(LengthError::Unfinished(self.text(-1))),
        };
        self.at += 1;
        if let Some(Kind::Fraction(part)) = self.kind(0) {
            self.at += 1;
            return Ok(whole + part);
        }
        // “2-7/16” without spaces is two and seven sixteenths; with spaces it is a difference.
        let is_joined = self.kind(0) == Some(Kind::Sign('-'))
            && whole.fract() == 0.0
            && (0..4).all(|ahead| self.is_glued(ahead))
            && matches!(self.fraction(1), Some((over, under)) if over < under);
        if is_joined {
            self.at += 1;
        }
        if let Some((over, under)) = self.fraction(0) {
            if under == 0.0 {
                return Err(LengthError::BadDivisor);
            }
            self.at += 3;
            return Ok(whole + over / under);
        }
        if let (Some(Kind::Sign('/')), Some(Kind::Number(under))) = (self.kind(0), self.kind(1)) {
            if under == 0.0 {
                return Err(LengthError::BadDivisor);
            }
            self.at += 2;
            return Ok(whole / under);
        }
        if let Some(Kind::Number(_)) = self.kind(0) {
            let (first, second) = (self.text(-1), self.text(0));
            let digits = |text: &str| text.chars().all(|c| c.is_ascii_digit());
            // Digits grouped by thousands.
            if second.len() == 3 && digits(&second) && digits(&first) && first.len() <= 3 {
                return Err(LengthError::Ambiguous {
                    text: format!("{first} {second}"),
                    grouped: format!("{first}{second}"),
                    other: format!("{first}.{second}"),
                });
            }
            return Err(LengthError::SideBySide(first, second));
        }
        Ok(whole)
    }

    /// The fraction of two numbers so many tokens ahead.
    fn fraction(&self, ahead: usize) -> Option<(f64, f64)> {
        match (self.kind(ahead), self.kind(ahead + 1), self.kind(ahead + 2)) {
            (Some(Kind::Number(over)), Some(Kind::Sign('/')), Some(Kind::Number(under))) => {
                Some((over, under))
            }
            _ => None,
        }
    }

    fn kind(&self, ahead: usize) -> Option<Kind> {
        self.tokens.get(self.at + ahead).map(|token| token.kind)
    }

    fn is_glued(&self, ahead: usize) -> bool {
        self.tokens.get(self.at + ahead).is_some_and(|token| token.is_glued)
    }

    /// What was typed so many tokens ahead, or behind.
    fn text(&self, ahead: isize) -> String {
        let at = self.at.checked_add_signed(ahead);
        let token = at.and_then(|at| self.tokens.get(at));
        token.map_or_else(|| "the start".to_owned(), |token| token.text.clone())
    }

    fn take_unit(&mut self) -> Result<Option<(f64, String)>, LengthError> {
        let Some(Kind::Unit(unit)) = self.kind(0) else { return Ok(None) };
        let text = self.text(0);
        self.at += 1;
        match self.kind(0) {
            Some(Kind::Unit(_)) => Err(LengthError::TwoUnits(self.text(0))),
            _ => Ok(Some((unit, text))),
        }
    }

    fn take_sign(&mut self, any_of: &str) -> Option<char> {
        match self.kind(0) {
            Some(Kind::Sign(sign)) if any_of.contains(sign) => {
                self.at += 1;
                Some(sign)
            }
            _ => None,
        }
    }
}

/// Takes away the last digits of binary noise, so that 8.5 in − 0.5 in is 203.2 mm.
fn tidy(mm: f64) -> f64 {
    let rounded = (mm * 1e9).round() / 1e9;
    if rounded.is_finite() { rounded } else { mm }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::units::format_length;
    use proptest::prelude::*;

    /// 1 in = 25.4 mm and a caliper point = 0.001 in, both by definition.
    #[test]
    fn people_write_lengths_in_many_ways() {
        for (text, unit, mm) in [
            ("62", Unit::Mm, 62.0),
            ("6.2cm", Unit::Mm, 62.0),
            ("6,2 cm", Unit::In, 62.0),
            ("2 7/16 in", Unit::Mm, 61.9125),
            ("2.4375\"", Unit::Mm, 61.9125),
            ("7/16", Unit::In, 11.1125),
            ("7/16in", Unit::Mm, 11.1125),
            ("1 m", Unit::Mm, 1000.0),
            ("8.5in - 2*0.25in", Unit::Mm, 203.2),
            ("2 × 1 1/2 inches + 3mm", Unit::Mm, 79.2),
            ("11in/2", Unit::Mm, 139.7),
            ("-5", Unit::Cm, -50.0),
            ("1 − 0.5", Unit::In, 12.7),
            // Written together it is a mixed number, apart a difference.
            ("2-7/16 in", Unit::Mm, 61.9125),
            ("2 - 7/16 in", Unit::In, 39.6875),
            ("8.5-7/16in", Unit::In, 204.7875),
            ("10-4", Unit::Mm, 6.0),
            ("½ in", Unit::Mm, 12.7),
            ("2½\"", Unit::Mm, 63.5),
            ("2 ¾ in", Unit::Mm, 69.85),
            ("1⁄4 in", Unit::Mm, 6.35),
            ("3' 2\"", Unit::Mm, 965.2),
            ("3 ft 2 1/2 in", Unit::Mm, 977.9),
            ("3′", Unit::Mm, 914.4),
            ("2''", Unit::Mm, 50.8),
            ("2 in.", Unit::Mm, 50.8),
            ("2in. + 1mm", Unit::Mm, 51.8),
            ("(8.5 - 2*0.25) in", Unit::Mm, 203.2),
            ("2 * (3 + 4mm)", Unit::Mm, 14.0),
            ("(6)", Unit::Cm, 60.0),
            ("14 thou", Unit::Mm, 0.3556),
            ("350 µm", Unit::Mm, 0.35),
            ("350 μm", Unit::Mm, 0.35),
            ("+5", Unit::Mm, 5.0),
            ("0,125", Unit::Mm, 0.125),
            ("1234,5", Unit::Mm, 1234.5),
        ] {
            assert_eq!(parse_length(text, unit), Ok(mm), "{text}");
        }
        assert_eq!(parse_caliper("14 pt", Unit::Mm), Ok(0.3556));
    }

    #[test]
    fn what_is_not_a_length_says_why() {
        for (text, error) in [
            ("", LengthError::Empty),
            ("   ", LengthError::Empty),
            ("abc", LengthError::Unknown("abc".into())),
            ("6.2.1", LengthError::Unknown("6.2.1".into())),
            ("5 apples", LengthError::Unknown("apples".into())),
            ("12mmm", LengthError::Unknown("mmm".into())),
            ("12 x4y", LengthError::Unknown("x4y".into())),
            ("12 mm mm", LengthError::TwoUnits("mm".into())),
            ("(2 in) mm", LengthError::TwoUnits("mm".into())),
            ("3' 2", LengthError::SideBySide("'".into(), "2".into())),
            ("(2 + 3", LengthError::Bracket),
            ("2 + 3)", LengthError::Bracket),
            ("2 ** 3", LengthError::NoNumber("*".into())),
            ("5 +", LengthError::Unfinished("+".into())),
            ("2in * 3in", LengthError::Area),
            ("5/0", LengthError::BadDivisor),
            ("14 pt", LengthError::Unknown("pt".into())),
            ("5 5", LengthError::SideBySide("5".into(), "5".into())),
            ("mm", LengthError::NoNumber("mm".into())),
            ("💥", LengthError::Unknown("💥".into())),
        ] {
            assert_eq!(parse_length(text, Unit::Mm), Err(error), "{text}");
        }
        assert_eq!(parse_length(&"1".repeat(121), Unit::Mm), Err(LengthError::TooLong(121)));
        let huge = format!("{0}*{0}*{0}*{0}", "9".repeat(29));
        assert!(parse_length(&huge, Unit::Mm).is_ok_and(f64::is_finite));
    }

    /// Digits that people group by thousands are asked about, never read in silence.
    #[test]
    fn grouped_digits_are_asked_about() {
        for (text, grouped, other) in [
            ("1,234", "1234", "1.234"),
            ("12,500 mm", "12500", "12.500"),
            ("1 000", "1000", "1.000"),
            ("1,234.5", "1234.5", "1.2345"),
        ] {
            match parse_length(text, Unit::Mm) {
                Err(LengthError::Ambiguous { grouped: one, other: two, .. }) => {
                    assert_eq!((one.as_str(), two.as_str()), (grouped, other), "{text}");
                }
                read => panic!("{text}: {read:?}"),
            }
        }
    }

    proptest! {
        #[test]
        fn what_is_written_reads_back(mm in 0.0..5000.0f64, which in 0..3usize) {
            let unit = Unit::ALL[which];
            let back = parse_length(&format_length(mm, unit), unit).unwrap();
            // Half of the last decimal shown, 0.001 in at the coarsest.
            prop_assert!((back - mm).abs() <= 0.0005 * INCH + 1e-9, "{mm} → {back}");
        }

        #[test]
        fn no_entry_makes_it_panic(text in "\\PC{0,140}") {
            let _ = parse_length(&text, Unit::Mm);
            let _ = parse_caliper(&text, Unit::In);
        }
    }
}
