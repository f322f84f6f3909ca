//! Aptum's server: the store, the JSON API, the embedded front end and the command line.

pub mod api;
pub mod assets;
pub mod background;
mod brought;
pub mod cli;
pub mod demo;
pub mod desk;
pub mod gate;
pub mod language;
pub mod output;
pub mod printed;
pub mod rehearsing;
pub mod sending;
pub mod serve;
pub mod shelf;
pub mod standins;
pub mod store;
