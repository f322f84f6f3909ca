//! Lists: values between commas, semicolons or tabs (RFC 4180), in the codings in which spreadsheets write them.

use aptum_core::face::{List, MOST_COLUMNS, MOST_ROWS};
use csv::ReaderBuilder;
use encoding_rs::{Encoding, UTF_8, UTF_16BE, UTF_16LE, WINDOWS_1252};
use thiserror::Error;

/// Largest list that is taken, in bytes.
pub const LARGEST: usize = 8 << 20;

/// Why a list is not taken.
#[derive(Debug, Error)]
pub enum ListError {
    /// No bytes.
    #[error("the list is empty: save it again from its spreadsheet, with a row for each copy")]
    Empty,
    /// Too many bytes.
    #[error("the list has {0} bytes: up to {LARGEST}; bring in a part of it")]
    TooLarge(usize),
    /// Too many rows.
    #[error(
        "the list has {0} rows: up to {MOST_ROWS} fill copies; cut it into several files, a job each"
    )]
    TooManyRows(usize),
    /// Too many columns.
    #[error("the list has {0} columns: up to {MOST_COLUMNS}; leave out those that are not printed")]
    TooManyColumns(usize),
    /// No text, such as a picture or a spreadsheet's own file.
    #[error("this is no text, though lists are: save it from its spreadsheet as CSV")]
    NoText,
    /// Not in the coding that was told.
    #[error("byte {0} is not {1}: choose another coding, or let it be found")]
    Coding(usize, &'static str),
    /// Not readable as a table.
    #[error("row {0} cannot be read: look for a quote that is not closed")]
    Row(u64),
}

/// How characters are coded.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Coding {
    /// UTF-8.
    Utf8,
    /// UTF-16 (its bytes' order by its mark, or else as found).
    Utf16,
    /// Windows-1252.
    Windows1252,
}

impl Coding {
    /// All of them.
    pub const ALL: [Self; 3] = [Self::Utf8, Self::Utf16, Self::Windows1252];

    /// Its name.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Self::Utf8 => "UTF-8",
            Self::Utf16 => "UTF-16",
            Self::Windows1252 => "Windows-1252",
        }
    }
}

/// What is told of a list; what is not is found.
#[derive(Debug, Clone, Copy, Default)]
pub struct Told {
    /// How characters are coded.
    pub coding: Option<Coding>,
    /// What stands between cells.
    pub separator: Option<char>,
    /// True where the first row names the columns.
    pub has_head: Option<bool>,
}

/// A list that was read, and how.
#[derive(Debug, Clone, PartialEq)]
pub struct ReadList {
    /// The list.
    pub list: List,
    /// How its characters are coded.
    pub coding: Coding,
    /// What stands between its cells.
    pub separator: char,
    /// True where its first row names the columns.
    pub has_head: bool,
}

/// What can stand between cells.
pub const SEPARATORS: [char; 3] = [',', ';', '\t'];

/// Reads a list.
///
/// # Errors
/// [`ListError`].
pub fn read(bytes: &[u8], name: &str, told: Told) -> Result<ReadList, ListError> {
    if bytes.is_empty() {
        return Err(ListError::Empty);
    }
    if bytes.len() > LARGEST {
        return Err(ListError::TooLarge(bytes.len()));
    }
    let (text, coding) = text(bytes, told.coding)?;
    let separator = told.separator.unwrap_or_else(|| separator(&text));
    let mut rows = table(&text, separator, usize::MAX)?;
    rows.retain(|row| row.iter().any(|cell| !cell.trim().is_empty()));
    let width = rows.iter().map(Vec::len).max().ok_or(ListError::Empty)?;
    if width > MOST_COLUMNS {
        return Err(ListError::TooManyColumns(width));
    }
    rows.iter_mut().for_each(|row| row.resize(width, String::new()));
    let has_head = told.has_head.unwrap_or_else(|| is_head(&rows));
    let head = if has_head { rows.remove(0) } else { vec![String::new(); width] };
    if rows.len() > MOST_ROWS {
        return Err(ListError::TooManyRows(rows.len()));
    }
    let name = name.chars().filter(|c| !c.is_control()).take(120).collect();
    let list = List { name, columns: columns(&head), rows, pictures: Vec::new() };
    Ok(ReadList { list, coding, separator, has_head })
}

fn text(bytes: &[u8], told: Option<Coding>) -> Result<(String, Coding), ListError> {
    let marked = Encoding::for_bom(bytes);
    let is_zero = |at: usize| bytes.iter().skip(at).step_by(2).filter(|byte| **byte == 0).count();
    // Half of the bytes of plain words in UTF-16 are zero.
    let half = bytes.len() / 5;
    let wide = if is_zero(0) > half {
        Some(UTF_16BE)
    } else if is_zero(1) > half {
        Some(UTF_16LE)
    } else {
        None
    };
    let encoding = match (told, marked) {
        (None, Some((marked, _))) => marked,
        (None, None) if wide.is_some() => wide.unwrap_or(UTF_16LE),
        (None, None) if std::str::from_utf8(bytes).is_ok() => UTF_8,
        (None, None) => WINDOWS_1252,
        (Some(Coding::Utf8), _) => UTF_8,
        (Some(Coding::Windows1252), _) => WINDOWS_1252,
        (Some(Coding::Utf16), Some((marked, _))) if marked != UTF_8 => marked,
        (Some(Coding::Utf16), _) => wide.unwrap_or(UTF_16LE),
    };
    let coding = match encoding {
        found if found == UTF_8 => Coding::Utf8,
        found if found == WINDOWS_1252 => Coding::Windows1252,
        _ => Coding::Utf16,
    };
    let (text, _) = encoding.decode_with_bom_removal(bytes);
    if let Some(at) = text.find('\u{fffd}').filter(|_| coding != Coding::Windows1252) {
        return Err(ListError::Coding(at + 1, coding.name()));
    }
    let is_plain = |c: char| !c.is_control() || matches!(c, '\n' | '\r' | '\t');
    if text.chars().any(|c| !is_plain(c) && !('\u{80}'..='\u{9f}').contains(&c)) {
        return Err(ListError::NoText);
    }
    Ok((text.into_owned(), coding))
}

/// What cuts the first rows into the same number of cells, the more the better.
fn separator(text: &str) -> char {
    let count = |separator: char| -> usize {
        let Ok(rows) = table(text, separator, 20) else { return 0 };
        let widths = rows.iter().map(Vec::len);
        let (least, most) = (widths.clone().min().unwrap_or(0), widths.max().unwrap_or(0));
        // Rows of different lengths speak against it, though less than rows that it never cuts.
        match (least, most) {
            (_, 0 | 1) => 0,
            _ if least == most => 2 * most,
            _ => least + usize::from(least > 1),
        }
    };
    let best = SEPARATORS.into_iter().max_by_key(|separator| {
        (count(*separator), std::cmp::Reverse(SEPARATORS.iter().position(|own| own == separator)))
    });
    best.unwrap_or(',')
}

fn table(text: &str, separator: char, most: usize) -> Result<Vec<Vec<String>>, ListError> {
    let mut reader = ReaderBuilder::new()
        .has_headers(false)
        .flexible(true)
        .delimiter(u8::try_from(separator).unwrap_or(b','))
        .from_reader(text.as_bytes());
    let mut rows = Vec::new();
    for record in reader.records().take(most) {
        let record = record.map_err(|error| {
            ListError::Row(error.position().map_or(0, |position| position.line()))
        })?;
        let cell = |cell: &str| cell.replace("\r\n", "\n").replace('\r', "\n");
        rows.push(record.iter().map(cell).collect());
    }
    Ok(rows)
}

/// Words that stand over columns of names, where there is no more to go by.
const HEADS: [&str; 16] = [
    "name",
    "names",
    "first name",
    "last name",
    "guest",
    "guests",
    "word",
    "words",
    "text",
    "title",
    "plant",
    "file",
    "picture",
    "number",
    "no",
    "label",
];

/// True where the first row names the columns, the last ones perhaps left out: words, none a figure, none twice.
fn is_head(rows: &[Vec<String>]) -> bool {
    let Some((head, others)) = rows.split_first() else { return false };
    let named = head.iter().rposition(|cell| !cell.trim().is_empty()).map_or(0, |last| last + 1);
    if 2 * named <= head.len() {
        return false;
    }
    let head = &head[..named];
    let is_word = |cell: &String| {
        let cell = cell.trim();
        !cell.is_empty() && cell.replace(',', ".").parse::<f64>().is_err()
    };
    let twice = head.iter().enumerate().any(|(at, cell)| head[..at].contains(cell));
    if !head.iter().all(is_word) || twice || others.is_empty() {
        return false;
    }
    match head {
        [one] if rows[0].len() == 1 => HEADS.contains(&one.trim().to_lowercase().as_str()),
        _ => true,
    }
}

/// A name of its own for each column.
fn columns(head: &[String]) -> Vec<String> {
    let mut names: Vec<String> = Vec::new();
    for (at, cell) in head.iter().enumerate() {
        let plain: String =
            cell.chars().map(|c| if "{}\n".contains(c) { ' ' } else { c }).collect();
        let plain: String = plain.trim().chars().take(70).collect();
        let base = if plain.is_empty() { format!("Column {}", at + 1) } else { plain };
        let taken =
            |name: &String| names.iter().any(|own| own.to_lowercase() == name.to_lowercase());
        let further = (2..).map(|number| format!("{base} {number}"));
        let free = std::iter::once(base.clone()).chain(further).find(|name| !taken(name));
        names.push(free.unwrap_or(base));
    }
    names
}

#[cfg(test)]
mod tests {
    use super::*;

    fn found(bytes: &[u8]) -> ReadList {
        read(bytes, "guests.csv", Told::default()).unwrap()
    }

    #[test]
    fn coding_and_separator_are_found() {
        let text = "Name;Ort\r\nÄnne;Öd, oben\r\n\"Zoë \"\"Z\"\"\";\"zwei\nZeilen\"\r\n";
        let wide = |order: fn(u16) -> [u8; 2], mark: &[u8]| -> Vec<u8> {
            mark.iter().copied().chain(text.encode_utf16().flat_map(order)).collect()
        };
        let narrow: Vec<u8> = text.chars().map(|c| u8::try_from(u32::from(c)).unwrap()).collect();
        let cases = [
            (text.as_bytes().to_vec(), Coding::Utf8),
            ([b"\xef\xbb\xbf", text.as_bytes()].concat(), Coding::Utf8),
            (wide(u16::to_le_bytes, b"\xff\xfe"), Coding::Utf16),
            (wide(u16::to_be_bytes, b"\xfe\xff"), Coding::Utf16),
            (wide(u16::to_le_bytes, b""), Coding::Utf16),
            (narrow, Coding::Windows1252),
        ];
        for (bytes, coding) in cases {
            let read = found(&bytes);
            assert_eq!((read.coding, read.separator, read.has_head), (coding, ';', true));
            assert_eq!(read.list.columns, ["Name", "Ort"]);
            assert_eq!(read.list.rows, [["Änne", "Öd, oben"], ["Zoë \"Z\"", "zwei\nZeilen"]]);
        }
        assert_eq!(found(b"a\tb\n1\t2\n").separator, '\t');
        assert_eq!(found(b"a,b\n1,\"2;3;4\"\n").separator, ',');
    }

    #[test]
    fn columns_have_names_of_their_own() {
        let read = found("Ottilie\nBram 🌿\n".as_bytes());
        assert!(!read.has_head, "one column of names");
        assert_eq!((read.list.columns[0].as_str(), read.list.rows.len()), ("Column 1", 2));
        assert!(found(b"name\nOttilie\n").has_head);
        assert!(!found(b"1,2\n3,4\n").has_head);
        let told = Told { has_head: Some(true), ..Told::default() };
        let read = super::read(b"{a},a,A,\n1,2,3,4", "x", told).unwrap();
        assert_eq!(read.list.columns, ["a", "a 2", "A 3", "Column 4"]);
        assert_eq!(found(b"a,b\n1\n,,\n1,2,3\n").list.rows, [["1", "", ""], ["1", "2", "3"]]);
    }

    #[test]
    fn what_is_no_list_is_refused_with_its_number() {
        let refused = |bytes: &[u8], told: Told| read(bytes, "x", told).unwrap_err().to_string();
        let none = Told::default();
        assert!(refused(b"", none).contains("empty"));
        assert!(refused(b"\n \n", none).contains("empty"));
        assert!(refused(b"\x89PNG\r\n\x1a\n\0\0\0\x0dIHDR", none).contains("no text"));
        let long = "x\n".repeat(MOST_ROWS + 1);
        assert!(refused(long.as_bytes(), none).contains("2001 rows"));
        let wide = "x,".repeat(MOST_COLUMNS);
        assert!(refused(wide.as_bytes(), none).contains("41 columns"));
        let utf8 = Told { coding: Some(Coding::Utf8), ..none };
        assert!(refused(b"a\xe4b", utf8).contains("byte 2 is not UTF-8"));
    }
}
