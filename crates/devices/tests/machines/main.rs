//! The machines that ship with Aptum, told what real ones are told, and looked at afterwards.

#![allow(clippy::unwrap_used, reason = "a test fails by panicking")]

mod marks;
mod page;
mod told;
