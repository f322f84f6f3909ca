//! Machines that ship with Aptum and stand in for real ones: a printer and a cutter. They are reached only as real ones are:
//! the printer gets the bytes of a PDF and gives back a picture of a sheet; the cutter gets that picture as what lies on its
//! bed, and HP-GL over a socket. What they did with it is seen by looking, afterwards.

pub mod cutter;
mod picture;
pub mod printer;

pub use picture::Picture;
