//! Reading lengths as people type them: `62`, `6.2cm`, `2 7/16 in`, `8.5in - 2*0.25in`.

use thiserror::Error;

use super::{CALIPER_POINT, INCH, Unit};

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
    #[error("“{0}” is not understood: use numbers, mm, cm or in, and + - * /")]
    Unknown(String),
    /// The entry stops where a number should stand.
    #[error("a number is missing after “{0}”")]
    Unfinished(String),
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
/// Fractions (`7/16`), mixed numbers (`2 7/16`), sums, and products with a plain number are
/// understood. Units are `mm`, `cm`, `m`, `in`, `inch`, `inches` and `"`.
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

#[derive(Clone, Copy, PartialEq)]
enum Points {
    Unknown,
    Caliper,
}

#[derive(Debug, Clone, PartialEq)]
enum Token {
    Number(f64),
    /// Millimetres in the unit.
    Unit(f64),
    Sign(char),
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
        let mut sum = 0.0;
        let mut sign = 1.0;
        if let Some(first) = self.take_sign("+-") {
            sign = if first == '-' { -1.0 } else { 1.0 };
        }
        loop {
            let term = self.product()?;
            sum += sign * if term.length { term.value } else { term.value * self.bare };
            match self.take_sign("+-") {
                Some('-') => sign = -1.0,
                Some(_) => sign = 1.0,
                None if self.at == self.tokens.len() => break,
                None => return Err(LengthError::Unknown(self.describe())),
            }
        }
        if sum.is_finite() { Ok(tidy(sum)) } else { Err(LengthError::NotFinite) }
    }

    fn product(&mut self) -> Result<Quantity, LengthError> {
        let mut product = self.quantity()?;
        while let Some(sign) = self.take_sign("*/") {
            let next = self.quantity()?;
            if sign == '*' {
                if product.length && next.length {
                    return Err(LengthError::Area);
                }
                product = Quantity {
                    value: product.value * next.value,
                    length: product.length || next.length,
                };
            } else if next.value == 0.0 || (next.length && product.length) {
                return Err(LengthError::BadDivisor);
            } else {
                // In “7/16 in” the unit belongs to the fraction as a whole.
                let unit = if next.length { self.last_unit() } else { 1.0 };
                product = Quantity {
                    value: product.value / (next.value / unit) * unit,
                    length: product.length || next.length,
                };
            }
        }
        Ok(product)
    }

    fn quantity(&mut self) -> Result<Quantity, LengthError> {
        let Some(Token::Number(mut value)) = self.tokens.get(self.at).cloned() else {
            return Err(match self.at.checked_sub(1) {
                Some(_) if self.at == self.tokens.len() => {
                    self.at -= 1;
                    LengthError::Unfinished(self.describe())
                }
                _ => LengthError::Unknown(self.describe()),
            });
        };
        self.at += 1;
        // A mixed number: a whole number, a space, and a fraction.
        if let [Token::Number(over), Token::Sign('/'), Token::Number(under), ..] =
            &self.tokens[self.at..]
        {
            if *under == 0.0 {
                return Err(LengthError::BadDivisor);
            }
            value += over / under;
            self.at += 3;
        }
        let unit = match self.tokens.get(self.at) {
            Some(Token::Unit(unit)) => {
                self.at += 1;
                Some(*unit)
            }
            _ => None,
        };
        Ok(Quantity { value: value * unit.unwrap_or(1.0), length: unit.is_some() })
    }

    fn last_unit(&self) -> f64 {
        match self.tokens.get(self.at.wrapping_sub(1)) {
            Some(Token::Unit(unit)) => *unit,
            _ => 1.0,
        }
    }

    fn take_sign(&mut self, any_of: &str) -> Option<char> {
        match self.tokens.get(self.at) {
            Some(Token::Sign(sign)) if any_of.contains(*sign) => {
                self.at += 1;
                Some(*sign)
            }
            _ => None,
        }
    }

    fn describe(&self) -> String {
        match self.tokens.get(self.at) {
            Some(Token::Number(number)) => number.to_string(),
            Some(Token::Unit(unit)) => Unit::ALL
                .iter()
                .find(|known| known.millimetres().to_bits() == unit.to_bits())
                .map_or("a unit", |known| known.name())
                .to_owned(),
            Some(Token::Sign(sign)) => sign.to_string(),
            None => "the end".to_owned(),
        }
    }
}

/// Takes away the last digits of binary noise, so that 8.5 in − 0.5 in is 203.2 mm.
fn tidy(mm: f64) -> f64 {
    let rounded = (mm * 1e9).round() / 1e9;
    if rounded.is_finite() { rounded } else { mm }
}

fn tokens(text: &str, points: Points) -> Result<Vec<Token>, LengthError> {
    let mut rest = text.trim();
    let mut tokens = Vec::new();
    while let Some(first) = rest.chars().next() {
        let taken = match first {
            _ if first.is_whitespace() => first.len_utf8(),
            '0'..='9' | '.' | ',' => {
                let end = rest
                    .find(|c: char| !(c.is_ascii_digit() || c == '.' || c == ','))
                    .unwrap_or(rest.len());
                let number = rest[..end].replace(',', ".");
                let value = number
                    .parse::<f64>()
                    .map_err(|_| LengthError::Unknown(rest[..end].to_owned()))?;
                tokens.push(Token::Number(value));
                end
            }
            '+' | '-' | '*' | '/' => {
                tokens.push(Token::Sign(first));
                1
            }
            '−' | '–' => {
                tokens.push(Token::Sign('-'));
                first.len_utf8()
            }
            '×' => {
                tokens.push(Token::Sign('*'));
                first.len_utf8()
            }
            '"' | '″' | '”' => {
                tokens.push(Token::Unit(INCH));
                first.len_utf8()
            }
            _ => {
                let end = rest.find(|c: char| !c.is_alphabetic()).unwrap_or(rest.len());
                let word = &rest[..end.max(first.len_utf8())];
                tokens.push(Token::Unit(unit_word(word, points)?));
                word.len()
            }
        };
        rest = &rest[taken..];
    }
    Ok(tokens)
}

fn unit_word(word: &str, points: Points) -> Result<f64, LengthError> {
    match word.to_lowercase().as_str() {
        "mm" => Ok(1.0),
        "cm" => Ok(10.0),
        "m" => Ok(1000.0),
        "in" | "inch" | "inches" => Ok(INCH),
        "pt" | "pts" if points == Points::Caliper => Ok(CALIPER_POINT),
        _ => Err(LengthError::Unknown(word.to_owned())),
    }
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
            ("5 +", LengthError::Unfinished("+".into())),
            ("2in * 3in", LengthError::Area),
            ("5/0", LengthError::BadDivisor),
            ("14 pt", LengthError::Unknown("pt".into())),
            ("5 5", LengthError::Unknown("5".into())),
            ("mm", LengthError::Unknown("mm".into())),
            ("💥", LengthError::Unknown("💥".into())),
        ] {
            assert_eq!(parse_length(text, Unit::Mm), Err(error), "{text}");
        }
        assert_eq!(parse_length(&"1".repeat(121), Unit::Mm), Err(LengthError::TooLong(121)));
        let huge = format!("{0}*{0}*{0}*{0}", "9".repeat(29));
        assert!(parse_length(&huge, Unit::Mm).is_ok_and(f64::is_finite));
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
