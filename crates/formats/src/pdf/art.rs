//! A piece's art alone, at true size.

use std::io::{self, Write};

use aptum_core::PreparedPiece;
use aptum_core::blob::Blobs;
use aptum_core::face::{Separation, Side, ink_colour};
use aptum_core::geometry::Affine;

use super::copies::draw;
use super::{Canvas, Document, Page, Show};

/// A page for each blank, as large as its bounds with the bleed around, and then for their backs: what is the same on
/// every copy, and what the first row of its list brings.
///
/// # Errors
/// What writing to `out` says.
pub fn art_pdf(piece: &PreparedPiece, blobs: &dyn Blobs, out: &mut dyn Write) -> io::Result<()> {
    let mut document = Document::new(&piece.name, out)?;
    let (inks, words) = (Separation::ALL.to_vec(), ink_colour());
    let show = Show { side: Side::Front, inks, words, in_black: false, reach: 0.0 };
    let front = piece.flat.parts.iter().zip(&piece.arts);
    let back = piece.back.iter().flat_map(|back| back.flat.parts.iter().zip(&back.arts));
    for (part, art) in front.chain(back) {
        let bounds = part.bounds.inflate(art.bleed, art.bleed);
        let mut inks: Vec<_> = art.inks(0).collect();
        inks.sort_by_key(|inked| inked.finish.separation());
        let (drawing, needs) = draw(&mut document, inks.into_iter(), &show, blobs)?;
        let own = document.drawing("art", &drawing, bounds, &needs)?;
        let mut canvas = Canvas::new();
        canvas.place("art", Affine::translate(-bounds.origin().to_vec2()));
        let media = bounds - bounds.origin().to_vec2();
        let trim = media.inset(-art.bleed);
        let contents = vec![document.content(&canvas.finish(), media.height())?];
        document.page(&Page { media, trim, bleed: media, contents, own: vec![own] })?;
    }
    document.finish()
}
