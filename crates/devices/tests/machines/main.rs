//! The machines that ship with Aptum, told what real ones are told, and looked at afterwards.

mod marks;
mod page;
mod told;
