//! Labels and stickers: kiss cut on a liner, or through on card.

pub mod plain;
