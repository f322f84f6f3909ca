//! Which lines of an operation could be worked by themselves.

use std::collections::BTreeSet;
use std::sync::Arc;

use aptum_core::id::PieceId;
use aptum_core::job::{OperationId, Share};
use aptum_core::lines::Group;
use aptum_core::tooling::Operation;
use aptum_core::workshop::RecordId;
use aptum_core::{PreparedBlank, PreparedPiece};
use schemars::JsonSchema;
use serde::Serialize;
use ts_rs::TS;

use super::told::Told;

/// Most layers and colours that are offered to be split off.
const MOST_SHARES: usize = 24;

/// A share of an operation's lines.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct ShareView {
    id: OperationId,
    name: String,
}

impl Told<'_> {
    /// What could be split off: outlines from what is cut inside them, those of a card from those of others, and the
    /// pieces of a job of several.
    pub(super) fn shares(&self, own: &Operation) -> Vec<ShareView> {
        let on_card = own.card.as_ref().and(own.stocks.first());
        let edge = match &own.share {
            Share::Rest | Share::Card(_) => {
                on_card.map_or(Share::Edge, |stock| Share::EdgeOn(stock.clone()))
            }
            Share::Edge if own.stocks.len() > 1 => return self.edges_by_card(own),
            _ => return Vec::new(),
        };
        let is_on_it = |piece: &PieceId| own.pieces.is_empty() || own.pieces.contains(piece);
        let on_it =
            |blank: &PreparedBlank<'_>| is_on_it(&self.prepared.pieces[blank.piece].job_piece.id);
        let blanks: Vec<_> = self.prepared.blanks().filter(on_it).collect();
        let has = |inside: bool| {
            blanks.iter().any(|blank| {
                let part = blank.part;
                if inside {
                    part.strokes.iter().any(|stroke| part.kind(stroke.kind) == own.kind)
                } else {
                    part.edge == own.kind
                }
            })
        };
        let mut shares = Vec::new();
        if has(true) && has(false) {
            shares.push(edge);
        }
        if self.prepared.pieces.len() > 1 {
            let with = |piece: &&PreparedPiece| {
                is_on_it(&piece.job_piece.id)
                    && piece
                        .laid_parts()
                        .iter()
                        .any(|part| part.kinds().any(|kind| kind == own.kind))
            };
            let pieces: Vec<_> = self.prepared.pieces.iter().filter(with).collect();
            if pieces.len() > 1 {
                shares.extend(pieces.iter().map(|piece| Share::Piece(piece.job_piece.id.clone())));
            }
        }
        // Lines of a drawing go by their layer and colour, where there is more than one.
        let drawn: BTreeSet<&Arc<str>> = blanks
            .iter()
            .flat_map(|blank| {
                let of_kind = blank.part.strokes.iter();
                of_kind.filter(|stroke| blank.part.kind(stroke.kind) == own.kind)
            })
            .filter_map(|stroke| stroke.source.drawn())
            .collect();
        let others = has(false)
            || blanks.iter().any(|blank| {
                let of_kind = blank.part.strokes.iter();
                of_kind
                    .filter(|stroke| blank.part.kind(stroke.kind) == own.kind)
                    .any(|stroke| stroke.source.drawn().is_none())
            });
        if drawn.len() > 1 || others {
            shares.extend(
                drawn.into_iter().take(MOST_SHARES).map(|own| Share::Drawn(own.to_string())),
            );
        }
        let known = &self.job.tooling.operations;
        shares
            .into_iter()
            .map(|share| {
                let id = OperationId::new(own.kind, &share);
                let name = match &share {
                    Share::Piece(piece) => {
                        let mut all = self.prepared.pieces.iter();
                        let found = all.find(|own| own.job_piece.id == *piece);
                        found.map_or_else(|| piece.0.clone(), |own| own.name.clone())
                    }
                    Share::Drawn(group) => self.group(group),
                    Share::Edge | Share::EdgeOn(_) | Share::Card(_) | Share::Rest => {
                        "outlines".to_owned()
                    }
                };
                ShareView { id, name }
            })
            .filter(|share| !known.contains_key(&share.id))
            .collect()
    }

    /// The outlines of each card, of an operation that works those of several.
    fn edges_by_card(&self, own: &Operation) -> Vec<ShareView> {
        let view = |stock: &RecordId| ShareView {
            id: OperationId::new(own.kind, &Share::EdgeOn(stock.clone())),
            name: self
                .workshop
                .stocks
                .get(stock)
                .map_or_else(|| stock.0.clone(), |own| own.name.clone()),
        };
        own.stocks.iter().map(view).collect()
    }

    /// What lines of a drawing are called, by their layer and colour.
    pub(super) fn group(&self, slug: &str) -> String {
        let drawings = self.prepared.pieces.iter().filter_map(|own| own.flat.drawing.as_ref());
        let mut groups = drawings.flat_map(|own| &own.lines.groups);
        groups.find(|own| own.slug() == slug).map_or_else(|| slug.to_owned(), Group::name)
    }
}
