//! The languages that machines are spoken to in.

use std::io::{self, Write};

use aptum_core::geometry::Rect;
use aptum_core::tooling::ToolPath;
use aptum_core::workshop::Cutter;
use aptum_formats::gcode::gcode;
use aptum_formats::hpgl::hpgl;

/// What a machine is spoken to in.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Language {
    /// HP-GL, in the cutter's dialect.
    Hpgl,
    /// G-code (ISO 6983).
    Gcode,
}

impl Language {
    /// Both.
    pub const ALL: [Self; 2] = [Self::Hpgl, Self::Gcode];

    /// How files in it end.
    #[must_use]
    pub const fn ending(self) -> &'static str {
        match self {
            Self::Hpgl => "hpgl",
            Self::Gcode => "nc",
        }
    }

    /// True where a cutter takes it.
    #[must_use]
    pub const fn is_taken_by(self, cutter: &Cutter) -> bool {
        match self {
            Self::Hpgl => cutter.dialect.is_some(),
            Self::Gcode => cutter.gcode.is_some(),
        }
    }

    /// Writes what is done in one loading of a sheet.
    ///
    /// # Errors
    /// What `out` says, or that the cutter does not take it.
    pub fn write(
        self,
        path: &ToolPath,
        loading: usize,
        cutter: &Cutter,
        page: Rect,
        out: &mut dyn Write,
    ) -> io::Result<()> {
        let none = || io::Error::new(io::ErrorKind::NotFound, "the cutter does not take it");
        match self {
            Self::Hpgl => {
                let dialect = cutter.dialect.as_ref().ok_or_else(none)?;
                hpgl(path, loading, dialect, page, out)
            }
            Self::Gcode => gcode(path, loading, cutter, page, out),
        }
    }
}

/// The name of a file for a machine.
#[must_use]
pub fn machine_name(sheet: u32, loading: usize, language: Language) -> String {
    let again = if loading == 0 { String::new() } else { format!("-loading-{}", loading + 1) };
    format!("cut-{sheet}{again}.{}", language.ending())
}
