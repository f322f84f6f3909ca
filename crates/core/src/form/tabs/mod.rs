//! Index tabs, page flags and folders.

pub mod flag;
pub mod folder;
pub mod index;
