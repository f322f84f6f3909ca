//! What slides over something or goes round it.

pub mod belly_band;
pub mod pillow;
pub mod sleeve_and_tray;
