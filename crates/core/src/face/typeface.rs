//! The shelf of typefaces that ship with the program, of different characters, each under the SIL Open Font License
//! 1.1 (`fonts/`, with their licences).

use std::sync::LazyLock;

use parley::FontContext;
use parley::fontique::{Collection, CollectionOptions};

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

/// Every typeface of the shelf, each registered under its id, and nothing of the machine's own.
pub(super) fn context() -> FontContext {
    static ALL: LazyLock<FontContext> = LazyLock::new(|| {
        let options = CollectionOptions { shared: false, system_fonts: false };
        let mut context =
            FontContext { collection: Collection::new(options), ..FontContext::default() };
        for typeface in SHELF {
            let name = parley::fontique::FontInfoOverride {
                family_name: Some(typeface.id),
                ..Default::default()
            };
            context.collection.register_fonts(typeface.bytes.to_vec().into(), Some(name));
        }
        context
    });
    ALL.clone()
}
