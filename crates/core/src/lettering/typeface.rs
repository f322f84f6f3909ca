//! Typefaces: the shelf of those that ship with the program, of different characters, each under the SIL Open Font
//! License 1.1 (`fonts/`, with their licences), and the maker's own.

use std::fmt;
use std::sync::{Arc, LazyLock};

use parley::FontContext;
use parley::fontique::{Blob, Collection, CollectionOptions, FontInfoOverride};
#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use crate::blob::{BlobId, Origin};

/// A typeface of the shelf.
#[derive(Debug, Clone, Copy)]
pub struct Typeface {
    /// What layers name it by.
    pub id: &'static str,
    /// Its character, in a word or two.
    pub character: &'static str,
    /// The family, and the style of it that is here.
    pub family: &'static str,
    bytes: &'static [u8],
}

macro_rules! shelf {
    ($($id:literal, $character:literal, $family:literal, $file:literal;)*) => {
        /// Every typeface, the plainest first.
        pub static SHELF: &[Typeface] = &[$(Typeface {
            id: $id,
            character: $character,
            family: $family,
            bytes: include_bytes!(concat!("../../fonts/", $file)),
        },)*];
    };
}

shelf! {
    "plain", "Plain", "Atkinson Hyperlegible Next", "AtkinsonHyperlegibleNext-Regular.ttf";
    "sturdy", "Sturdy", "Rubik Medium", "Rubik-Medium.ttf";
    "round", "Round", "Fredoka SemiBold", "Fredoka-SemiBold.ttf";
    "narrow", "Narrow", "Barlow Condensed SemiBold", "BarlowCondensed-SemiBold.ttf";
    "bookish", "Bookish", "Lora", "Lora-Regular.ttf";
    "fine", "Fine", "Cormorant Garamond SemiBold", "CormorantGaramond-SemiBold.ttf";
    "slab", "Slab", "Zilla Slab SemiBold", "ZillaSlab-SemiBold.ttf";
    "poster", "Poster", "Abril Fatface", "AbrilFatface-Regular.ttf";
    "typed", "Typed", "Courier Prime", "CourierPrime-Regular.ttf";
    "hand", "Hand", "Patrick Hand", "PatrickHand-Regular.ttf";
    "tall-hand", "Tall hand", "Amatic SC Bold", "AmaticSC-Bold.ttf";
    "script", "Script", "Dancing Script Bold", "DancingScript-Bold.ttf";
    "stencil", "Stencil", "Saira Stencil One", "SairaStencilOne-Regular.ttf";
}

impl Typeface {
    /// The typeface of that id.
    #[must_use]
    pub fn find(id: &str) -> Option<&'static Self> {
        SHELF.iter().find(|typeface| typeface.id == id)
    }

    /// The first of the shelf.
    #[must_use]
    pub fn plain() -> &'static Self {
        &SHELF[0]
    }

    /// The font file.
    #[must_use]
    pub const fn bytes(&self) -> &'static [u8] {
        self.bytes
    }

    /// As words are set in it.
    #[must_use]
    pub const fn font(&self) -> Font<'static> {
        Font { name: self.id, bytes: self.bytes, own: None }
    }
}

/// A typeface of the maker's own, a TrueType or OpenType file.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct OwnTypeface {
    /// Its bytes.
    pub blob: BlobId,
    /// What is known of where it comes from; its name is that of the family.
    #[serde(default)]
    pub origin: Origin,
    /// Its bytes, once they were asked for.
    #[serde(skip)]
    #[cfg_attr(feature = "api", schemars(skip), ts(skip))]
    pub bytes: FontBytes,
}

/// The bytes of a font, where they are here. What they are is told by the blob that names them.
#[derive(Clone, Default)]
pub struct FontBytes(pub Option<Arc<[u8]>>);

impl PartialEq for FontBytes {
    fn eq(&self, other: &Self) -> bool {
        self.0.is_some() == other.0.is_some()
    }
}

impl fmt::Debug for FontBytes {
    fn fmt(&self, out: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(out, "{} bytes", self.0.as_ref().map_or(0, |bytes| bytes.len()))
    }
}

impl OwnTypeface {
    /// As words are set in it; `None` where its bytes are not here.
    #[must_use]
    pub fn font(&self) -> Option<Font<'_>> {
        let bytes = self.bytes.0.as_ref()?;
        Some(Font { name: &self.blob.0, bytes, own: Some(bytes) })
    }
}

/// What words are set in.
#[derive(Debug, Clone, Copy)]
pub struct Font<'a> {
    /// What the shaper knows it by.
    pub(super) name: &'a str,
    pub(super) bytes: &'a [u8],
    /// The same, where it is not of the shelf.
    own: Option<&'a Arc<[u8]>>,
}

impl Font<'_> {
    /// Those of the characters that it has no sign for; spaces and what is not seen need none.
    #[must_use]
    pub fn lacking(&self, words: &str) -> Vec<char> {
        let Ok(face) = ttf_parser::Face::parse(self.bytes, 0) else { return Vec::new() };
        let unseen = |c: char| {
            c.is_whitespace()
                || c.is_control()
                || matches!(c, '\u{200b}'..='\u{200f}' | '\u{fe00}'..='\u{fe0f}')
        };
        words.chars().filter(|c| !unseen(*c) && face.glyph_index(*c).is_none()).collect()
    }
}

/// Most typefaces of makers' own that one shaper holds.
const MOST_OWN: usize = 8;

/// The typefaces that a shaper knows.
pub(super) struct Fonts {
    pub context: FontContext,
    own: Vec<String>,
}

impl Fonts {
    /// Those of the shelf.
    pub fn new() -> Self {
        Self { context: context(), own: Vec::new() }
    }

    /// Makes one known that is not of the shelf.
    pub fn meet(&mut self, font: &Font<'_>) {
        let Some(bytes) = font.own else { return };
        if self.own.iter().any(|known| known == font.name) {
            return;
        }
        if self.own.len() >= MOST_OWN {
            *self = Self::new();
        }
        let name = FontInfoOverride { family_name: Some(font.name), ..Default::default() };
        self.context.collection.register_fonts(Blob::new(Arc::new(bytes.clone())), Some(name));
        self.own.push(font.name.to_owned());
    }
}

/// Every typeface of the shelf, each registered under its id, and nothing of the machine's own.
fn context() -> FontContext {
    static ALL: LazyLock<FontContext> = LazyLock::new(|| {
        let options = CollectionOptions { shared: false, system_fonts: false };
        let mut context =
            FontContext { collection: Collection::new(options), ..FontContext::default() };
        for typeface in SHELF {
            let name = FontInfoOverride { family_name: Some(typeface.id), ..Default::default() };
            context.collection.register_fonts(typeface.bytes.to_vec().into(), Some(name));
        }
        context
    });
    ALL.clone()
}
