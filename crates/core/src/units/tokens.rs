//! What stands in an entry: numbers, fractions, units and signs.

use super::length::LengthError;
use super::{CALIPER_POINT, INCH};

/// What `pt` means.
#[derive(Clone, Copy, PartialEq)]
pub(super) enum Points {
    Unknown,
    Caliper,
}

/// What a token is.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) enum Kind {
    Number(f64),
    /// One of the fractions that are a character of their own.
    Fraction(f64),
    /// Millimetres in the unit.
    Unit(f64),
    Sign(char),
}

/// What was typed, piece by piece.
#[derive(Debug, Clone)]
pub(super) struct Token {
    pub kind: Kind,
    pub text: String,
    /// True where nothing stands before it but what it belongs to.
    pub is_glued: bool,
}

/// Millimetres in a foot.
pub(super) const FOOT: f64 = 12.0 * INCH;

/// The fractions that are a character of their own.
const FRACTIONS: [(char, f64); 13] = [
    ('½', 1.0 / 2.0),
    ('⅓', 1.0 / 3.0),
    ('⅔', 2.0 / 3.0),
    ('¼', 1.0 / 4.0),
    ('¾', 3.0 / 4.0),
    ('⅕', 1.0 / 5.0),
    ('⅖', 2.0 / 5.0),
    ('⅗', 3.0 / 5.0),
    ('⅘', 4.0 / 5.0),
    ('⅛', 1.0 / 8.0),
    ('⅜', 3.0 / 8.0),
    ('⅝', 5.0 / 8.0),
    ('⅞', 7.0 / 8.0),
];

/// Takes an entry apart.
pub(super) fn tokens(text: &str, points: Points) -> Result<Vec<Token>, LengthError> {
    let mut rest = text.trim();
    let mut tokens: Vec<Token> = Vec::new();
    let mut is_glued = false;
    while let Some(first) = rest.chars().next() {
        if first.is_whitespace() {
            rest = &rest[first.len_utf8()..];
            is_glued = false;
            continue;
        }
        let (kind, taken) = match first {
            '0'..='9' | '.' | ',' => number(rest)?,
            '+' | '-' | '*' | '/' | '(' | ')' => (Kind::Sign(first), 1),
            '−' | '–' => (Kind::Sign('-'), first.len_utf8()),
            '×' | '·' => (Kind::Sign('*'), first.len_utf8()),
            '⁄' | '∕' | '÷' => (Kind::Sign('/'), first.len_utf8()),
            '"' | '″' | '”' | '“' => (Kind::Unit(INCH), first.len_utf8()),
            '\'' | '′' | '’' | '‘' => {
                // Two strokes are an inch, typed as two feet would be.
                let second = rest[first.len_utf8()..].chars().next();
                match second.filter(|second| "\'′’‘".contains(*second)) {
                    Some(second) => (Kind::Unit(INCH), first.len_utf8() + second.len_utf8()),
                    None => (Kind::Unit(FOOT), first.len_utf8()),
                }
            }
            _ => match FRACTIONS.iter().find(|(known, _)| *known == first) {
                Some((_, value)) => (Kind::Fraction(*value), first.len_utf8()),
                None => word(rest, points)?,
            },
        };
        tokens.push(Token { kind, text: rest[..taken].to_owned(), is_glued });
        rest = &rest[taken..];
        is_glued = true;
    }
    Ok(tokens)
}

/// A number with at most one point or comma.
fn number(rest: &str) -> Result<(Kind, usize), LengthError> {
    let is_part = |c: char| c.is_ascii_digit() || c == '.' || c == ',';
    let end = rest.find(|c: char| !is_part(c)).unwrap_or(rest.len());
    let typed = &rest[..end];
    if let Some((whole, decimals)) = typed.split_once(',') {
        // “1,234” is a thousand here and a little over one there; “0,125” and “1234,5” are neither.
        let grouped = decimals.split([',', '.']).next().is_some_and(|group| group.len() == 3)
            && (1..=3).contains(&whole.len())
            && !whole.starts_with('0')
            && !whole.contains('.');
        if grouped {
            return Err(LengthError::Ambiguous {
                text: typed.to_owned(),
                grouped: typed.replace(',', ""),
                other: format!("{whole}.{}", decimals.replace([',', '.'], "")),
            });
        }
    }
    let value = typed.replace(',', ".").parse::<f64>();
    let value = value.map_err(|_| LengthError::Unknown(typed.to_owned()))?;
    Ok((Kind::Number(value), end))
}

/// A unit, or a word that is not understood: all of it, so that it is recognised.
fn word(rest: &str, points: Points) -> Result<(Kind, usize), LengthError> {
    let first = rest.chars().next().map_or(0, char::len_utf8);
    let letters = rest.find(|c: char| !c.is_alphabetic()).unwrap_or(rest.len()).max(first);
    let unit = match rest[..letters].to_lowercase().as_str() {
        "mm" => 1.0,
        "cm" => 10.0,
        "m" => 1000.0,
        // The micro sign, the Greek letter, and what stands for either.
        "µm" | "μm" | "um" => 0.001,
        "in" | "inch" | "inches" => INCH,
        "ft" | "foot" | "feet" => FOOT,
        "thou" => INCH / 1000.0,
        "pt" | "pts" if points == Points::Caliper => CALIPER_POINT,
        _ => {
            let ends = |c: char| c.is_whitespace() || "+-*/()−–×".contains(c);
            let end = rest.find(ends).unwrap_or(rest.len()).max(letters);
            return Err(LengthError::Unknown(rest[..end].to_owned()));
        }
    };
    // “2 in.” is an abbreviation.
    let after = rest[letters..].chars().nth(1);
    let is_dotted = rest[letters..].starts_with('.') && !after.is_some_and(|c| c.is_ascii_digit());
    Ok((Kind::Unit(unit), letters + usize::from(is_dotted)))
}
