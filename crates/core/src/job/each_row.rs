//! A job for each row of a list: thirty names on one net, each on a sheet of its own.

use super::{Job, JobPiece};
use crate::face::List;

/// Longest name that is made of a job's and a row's, characters.
const LONGEST: usize = 80;

impl Job {
    /// How many rows its longest list has that it wears; 0 where it has none.
    #[must_use]
    pub fn rows(&self) -> usize {
        self.pieces.iter().filter_map(worn).map(|list| list.rows.len()).max().unwrap_or(0)
    }

    /// It for one row, from 0: each piece that wears a list makes one copy for that row, and no spares; what was laid by hand is laid
    /// anew. `None` where there is no such row.
    #[must_use]
    pub fn of_row(&self, row: usize) -> Option<Self> {
        let names: Vec<&String> =
            self.pieces.iter().find_map(worn)?.rows.get(row)?.iter().collect();
        let name = names.into_iter().find(|own| !own.trim().is_empty());
        let mut own = self.clone();
        own.sheet.kept = None;
        for piece in &mut own.pieces {
            let Some(list) = worn(piece).cloned() else { continue };
            let rows = list.rows.get(row).cloned().into_iter().collect();
            piece.list = Some(List { rows, ..list });
            (piece.copies, piece.spares) = (1, 0);
        }
        let which = name.map_or_else(|| format!("row {}", row + 1), Clone::clone);
        // Cells may hold line ends, which a name may not.
        let which: String =
            which.chars().map(|own| if own.is_control() { ' ' } else { own }).collect();
        own.name = format!("{}: {}", self.name, which.trim()).chars().take(LONGEST).collect();
        Some(own)
    }
}

/// The list that fills something of a piece's face.
fn worn(piece: &JobPiece) -> Option<&List> {
    let (face, list) = (piece.face.as_ref()?, piece.list.as_ref()?);
    face.layers.iter().any(|layer| !layer.hidden && list.fills(layer)).then_some(list)
}
