//! A list that fills copies: the first copy wears its first row, the next the next.

use std::borrow::Cow;

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use super::cover::KnownCover;
use super::layer::{Layer, LayerKind};
use super::motif::Motif;
use super::pattern::Pattern;
use super::picture::PlacedPicture;
use crate::blob::BlobId;
use crate::error::{Faults, InputError, Remedy};

/// A list: columns with names, and a row for each copy.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct List {
    /// The name of the file that it came from.
    pub name: String,
    /// What its columns are called, 1 to 40, each name once.
    pub columns: Vec<String>,
    /// Its rows, up to 2,000, a cell for each column.
    pub rows: Vec<Vec<String>>,
    /// The pictures that its cells name.
    #[serde(default)]
    pub pictures: Vec<NamedPicture>,
}

/// A picture that cells name.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct NamedPicture {
    /// The name of its file.
    pub name: String,
    /// Its bytes.
    pub blob: BlobId,
    /// Its width and height in pixels, the right way up.
    pub pixels: [u32; 2],
    /// True for a drawing of lines and areas.
    #[serde(default)]
    pub drawn: bool,
    /// Where it covers what lies below.
    #[serde(skip)]
    #[cfg_attr(feature = "api", schemars(skip), ts(skip))]
    pub cover: KnownCover,
}

/// Most columns, rows and pictures of a list, and most characters of a cell.
pub const MOST_COLUMNS: usize = 40;
/// Most rows.
pub const MOST_ROWS: usize = 2000;
const MOST_PICTURES: usize = 200;
const LONGEST_CELL: usize = 1000;

impl List {
    /// True where all that its pictures are judged by is here.
    #[must_use]
    pub fn is_furnished(&self) -> bool {
        self.pictures.iter().all(|picture| picture.cover.0.is_some())
    }

    /// A row in words: its number, from 1, and its first cell.
    #[must_use]
    pub fn told(&self, row: usize) -> String {
        let cell = self.rows.get(row).and_then(|cells| cells.iter().find(|cell| !cell.is_empty()));
        let shown: String = cell.into_iter().flat_map(|cell| cell.chars()).take(24).collect();
        format!("row {} (“{shown}”)", row + 1)
    }

    /// A cell; nothing where the list has no such column or row.
    #[must_use]
    pub fn cell(&self, column: &str, row: usize) -> &str {
        let at = self.columns.iter().position(|own| is_same(own, column));
        at.and_then(|at| self.rows.get(row)?.get(at)).map_or("", |cell| cell.trim())
    }

    /// True where it has a column of that name.
    #[must_use]
    pub fn has(&self, column: &str) -> bool {
        self.columns.iter().any(|own| is_same(own, column))
    }

    /// The words with the row's cells in the place of the columns' names in braces. Names in braces that are no
    /// column's stay as they are; past the last row all cells are empty. Lines that become empty are left out.
    #[must_use]
    pub fn filled(&self, words: &str, row: usize) -> String {
        let line = |line: &str| -> Option<String> {
            let mut filled = String::new();
            let mut has_cells = false;
            for piece in pieces(line) {
                match piece {
                    Piece::Named(name) if self.has(name) => {
                        has_cells = true;
                        filled.push_str(self.cell(name, row));
                    }
                    Piece::Named(name) => filled.push_str(&format!("{{{name}}}")),
                    Piece::Plain(words) => filled.push_str(words),
                }
            }
            (!has_cells || !filled.trim().is_empty()).then_some(filled)
        };
        words.split('\n').filter_map(line).collect::<Vec<_>>().join("\n")
    }

    /// The columns that words name in braces and the list does not have.
    #[must_use]
    pub fn unknown<'a>(&self, words: &'a str) -> Vec<&'a str> {
        named(words).filter(|name| !self.has(name)).collect()
    }

    /// The picture that a cell names, by its file's name with or without its ending.
    #[must_use]
    pub fn picture(&self, cell: &str) -> Option<&NamedPicture> {
        let stem = |name: &str| -> String {
            name.rsplit_once('.').map_or(name, |(stem, _)| stem).trim().to_lowercase()
        };
        let by_name = self.pictures.iter().find(|picture| is_same(&picture.name, cell));
        by_name.or_else(|| self.pictures.iter().find(|picture| stem(&picture.name) == stem(cell)))
    }

    /// True where a layer differs from row to row.
    #[must_use]
    pub fn fills(&self, layer: &Layer) -> bool {
        match &layer.kind {
            LayerKind::Text(text) => named(&text.words).any(|name| self.has(name)),
            LayerKind::Picture(picture) => picture.column.is_some(),
            LayerKind::Pattern(Pattern { motif_of: Motif::Word { words, .. }, .. }) => {
                named(words).any(|name| self.has(name))
            }
            _ => false,
        }
    }

    /// A layer as a row has it; `None` where that row leaves it empty.
    #[must_use]
    pub fn of_row<'a>(&self, layer: &'a Layer, row: usize) -> Option<Cow<'a, Layer>> {
        if !self.fills(layer) {
            return Some(Cow::Borrowed(layer));
        }
        let kind = match &layer.kind {
            LayerKind::Text(text) => {
                let words = self.filled(&text.words, row);
                let words = (row < self.rows.len()).then_some(words)?;
                LayerKind::Text(super::Text { words, ..text.clone() })
            }
            LayerKind::Picture(picture) => {
                let cell = self.cell(picture.column.as_deref()?, row);
                let NamedPicture { blob, pixels, drawn, cover, .. } = self.picture(cell)?.clone();
                LayerKind::Picture(PlacedPicture { blob, pixels, drawn, cover, ..picture.clone() })
            }
            LayerKind::Pattern(pattern) => {
                let mut pattern = pattern.clone();
                if let Motif::Word { words, .. } = &mut pattern.motif_of {
                    *words = (row < self.rows.len()).then(|| self.filled(words, row))?;
                }
                LayerKind::Pattern(pattern)
            }
            other => other.clone(),
        };
        Some(Cow::Owned(Layer { kind, ..layer.clone() }))
    }

    pub(crate) fn validate(&self, faults: &mut Faults) {
        let count = |number: usize| f64::from(u32::try_from(number).unwrap_or(u32::MAX));
        let sizes = [
            ("list.columns", "columns", self.columns.len(), 1..=MOST_COLUMNS),
            ("list.rows", "rows", self.rows.len(), 0..=MOST_ROWS),
            ("list.pictures", "pictures", self.pictures.len(), 0..=MOST_PICTURES),
        ];
        for (field, what, number, range) in sizes {
            if !range.contains(&number) {
                faults.add(InputError::new(
                    field,
                    format!(
                        "The list has {number} {what}: it has {} to {}",
                        range.start(),
                        range.end()
                    ),
                    count(number),
                    Remedy::advice("Bring in a part of it, and make a second job of the rest"),
                ));
                return;
            }
        }
        for (at, name) in self.columns.iter().enumerate() {
            let twice = self.columns[..at].iter().any(|other| is_same(other, name));
            let unsound = name.trim().is_empty() || name.contains(['{', '}', '\n']);
            if twice || unsound || name.chars().count() > 80 {
                let shown: String = name.chars().take(40).collect();
                faults.add(InputError::plain(
                    &format!("list.columns.{at}"),
                    format!("“{shown}” names no column of its own"),
                    Remedy::advice("Give each column a name of 1 to 80 characters, without braces"),
                ));
            }
        }
        for (at, row) in self.rows.iter().enumerate() {
            if row.len() != self.columns.len() {
                faults.add(InputError::new(
                    &format!("list.rows.{at}"),
                    format!(
                        "Row {} has {} cells for {} columns",
                        at + 1,
                        row.len(),
                        self.columns.len()
                    ),
                    count(row.len()),
                    Remedy::advice("Give each row a cell for each column"),
                ));
                return;
            }
            let long = row.iter().map(|cell| cell.chars().count()).max().unwrap_or(0);
            let bad = row
                .iter()
                .flat_map(|cell| cell.chars())
                .any(|c| c.is_control() && !matches!(c, '\n' | '\t'));
            if long > LONGEST_CELL || bad {
                faults.add(InputError::new(
                    &format!("list.rows.{at}"),
                    format!(
                        "Row {} has a cell of {long} characters, or some that cannot be shown",
                        at + 1
                    ),
                    count(long),
                    Remedy::advice(format!("Use up to {LONGEST_CELL} characters in a cell")),
                ));
                return;
            }
        }
        for (at, picture) in self.pictures.iter().enumerate() {
            let sides = picture.pixels.iter().all(|side| (1..=60_000).contains(side));
            if !picture.blob.is_sound() || !sides || picture.name.chars().count() > 300 {
                faults.add(InputError::plain(
                    &format!("list.pictures.{at}"),
                    format!("Picture {} of the list is named by no SHA-256", at + 1),
                    Remedy::advice("Bring the picture in again"),
                ));
            }
        }
    }
}

enum Piece<'a> {
    Plain(&'a str),
    Named(&'a str),
}

/// Words, and what stands in braces between them.
fn pieces(words: &str) -> Vec<Piece<'_>> {
    let mut found = Vec::new();
    let mut rest = words;
    while let Some(open) = rest.find('{') {
        let Some(close) = rest[open..].find('}').map(|at| open + at) else { break };
        // The innermost pair counts.
        let open = rest[..close].rfind('{').unwrap_or(open);
        found.push(Piece::Plain(&rest[..open]));
        found.push(Piece::Named(&rest[open + 1..close]));
        rest = &rest[close + 1..];
    }
    found.push(Piece::Plain(rest));
    found
}

/// What stands in braces.
fn named(words: &str) -> impl Iterator<Item = &str> {
    pieces(words).into_iter().filter_map(|piece| match piece {
        Piece::Named(name) => Some(name),
        Piece::Plain(_) => None,
    })
}

/// Names are told apart by more than spaces around them and capitals.
fn is_same(one: &str, other: &str) -> bool {
    one.trim().to_lowercase() == other.trim().to_lowercase()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::face::Text;

    fn list() -> List {
        let row = |cells: [&str; 3]| cells.map(str::to_owned).to_vec();
        List {
            name: "guests.csv".into(),
            columns: row(["Name", "Table", "Picture"]),
            rows: vec![row(["Ottilie {x}", "4", "Fern.PNG"]), row(["Bram", "", "moss"])],
            pictures: vec![NamedPicture {
                name: "fern.png".into(),
                blob: BlobId("0".repeat(64)),
                pixels: [40, 30],
                drawn: false,
                cover: KnownCover::default(),
            }],
        }
    }

    #[test]
    fn cells_stand_where_their_columns_are_named() {
        let list = list();
        assert_eq!(list.filled("Dear { name },", 1), "Dear Bram,");
        assert_eq!(list.filled("{Name}\nTable {Table}", 0), "Ottilie {x}\nTable 4");
        assert_eq!(list.filled("{Name}\n{Table}\nend", 1), "Bram\nend", "an empty line goes");
        assert_eq!(list.filled("{Nmae} {Name", 0), "{Nmae} {Name");
        assert_eq!(list.filled("a {b {Table} c}", 0), "a {b 4 c}");
        assert_eq!(list.unknown("{Name} {Nmae}"), ["Nmae"]);
    }

    #[test]
    fn a_row_has_its_words_and_its_picture() {
        let list = list();
        let text = Layer::new("l1", LayerKind::Text(Text::new("{Name}")));
        let words = |row: usize| match list.of_row(&text, row)?.into_owned().kind {
            LayerKind::Text(text) => Some(text.words),
            _ => None,
        };
        assert_eq!(words(1).as_deref(), Some("Bram"));
        assert_eq!(words(2), None, "there are two rows");
        assert!(list.picture("FERN").is_some() && list.picture("moss").is_none());
        let plain = Layer::new("l2", LayerKind::Text(Text::new("for all")));
        assert!(!list.fills(&plain) && list.of_row(&plain, 99).is_some());
    }
}
