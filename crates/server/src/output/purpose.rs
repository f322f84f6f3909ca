//! What files are for, which is what they are listed under.

use super::OutputKind;

/// What a file is for; in the order in which files are listed.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum Purpose {
    /// The printer's.
    Print,
    /// The cutter's.
    Cut,
    /// A hand's, and the table's.
    Hand,
    /// Whoever prints or cuts elsewhere.
    Finisher,
    /// What is drawn in another program.
    Marks,
    /// Sheets to be looked at.
    Sheets,
    /// Each piece by itself.
    Pieces,
}

impl Purpose {
    /// What such files are listed under.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Self::Print => "To print",
            Self::Cut => "To cut",
            Self::Hand => "By hand, and to lay with the work",
            Self::Finisher => "For a finisher",
            Self::Marks => "Marks for art made elsewhere",
            Self::Sheets => "Sheets as pictures",
            Self::Pieces => "Pieces by themselves",
        }
    }
}

impl OutputKind {
    /// What it is for.
    #[must_use]
    pub const fn purpose(self) -> Purpose {
        match self {
            Self::Print | Self::Plates => Purpose::Print,
            Self::Cut(_) | Self::CutDxf(_) | Self::Machine(..) => Purpose::Cut,
            Self::HandCut | Self::Ticket => Purpose::Hand,
            Self::Steps | Self::PrintSteps => Purpose::Finisher,
            Self::MarksSvg | Self::MarksPdf | Self::MarksPng(_) => Purpose::Marks,
            Self::SheetPng(..) => Purpose::Sheets,
            Self::ArtPdf(_)
            | Self::ArtSvg(..)
            | Self::ArtPng(..)
            | Self::FlatDxf(_)
            | Self::FlatFold(_)
            | Self::FoldedSvg(_)
            | Self::FoldedPng(_)
            | Self::FoldedGltf(_)
            | Self::FoldedObj(_) => Purpose::Pieces,
        }
    }
}
