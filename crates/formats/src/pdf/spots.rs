//! Inks that are no mixture of others: white and varnishes, each a separation (ISO 32000-1, 8.6.6.4).

use std::io;

use aptum_core::LineKind;
use aptum_core::blob::BlobId;
use aptum_core::face::Separation;
use image::DynamicImage;
use pdf_writer::{Filter, Name};
use resvg::tiny_skia::{Pixmap, Transform};

use super::choke::choked;
use super::document::{Document, Image, Shared};
use super::images::{quick, signed};
use crate::drawing;
use crate::line_style::{line_style, rgb};
use crate::picture::{Coding, Picture};

/// The longer side of a drawing's silhouette, in pixels.
const SILHOUETTE: f32 = 2000.0;

/// What an ink looks like where there is none of it: cyan, magenta, yellow, black.
const fn look(separation: Separation) -> [f32; 4] {
    match separation {
        Separation::White => [0.08, 0.02, 0.02, 0.0],
        Separation::Colour => [0.0, 0.0, 0.0, 1.0],
        Separation::Varnish => [0.16, 0.0, 0.06, 0.0],
        Separation::Raised => [0.26, 0.08, 0.0, 0.0],
    }
}

impl Document<'_> {
    /// The colour space of a spot ink, in the file once.
    pub fn spot(&mut self, separation: Separation) -> io::Result<Shared> {
        let name = format!("spot{}", separation as u8);
        if let Some(id) = self.spots.get(&separation) {
            return Ok((name, *id));
        }
        let id = self.id();
        self.object(id, |chunk| {
            let space = chunk.color_space(id);
            let mut spot = space.separation(Name(separation.name().as_bytes()));
            spot.alternate_color_space().device_cmyk();
            let mut tint = spot.tint_exponential();
            tint.domain([0.0, 1.0]).n(1.0);
            tint.c0([0.0; 4]).c1(look(separation));
        })?;
        self.spots.insert(separation, id);
        Ok((name, id))
    }

    /// The colour space of a kind of line, in the file once: nothing that a press would mix.
    pub fn line_ink(&mut self, kind: LineKind) -> io::Result<Shared> {
        let name = format!("line{}", kind as u8);
        if let Some(id) = self.lines.get(&kind) {
            return Ok((name, *id));
        }
        let id = self.id();
        // Words of the trade, with capitals, as inks are named.
        let mut words = kind.name().to_owned();
        if let Some(first) = words.get_mut(..1) {
            first.make_ascii_uppercase();
        }
        let [red, green, blue] = rgb(line_style(kind).colour);
        self.object(id, |chunk| {
            let space = chunk.color_space(id);
            let mut spot = space.separation(Name(words.as_bytes()));
            spot.alternate_color_space().device_cmyk();
            let mut tint = spot.tint_exponential();
            tint.domain([0.0, 1.0]).n(1.0);
            tint.c0([0.0; 4]).c1([1.0 - red, 1.0 - green, 1.0 - blue, 0.0]);
        })?;
        self.lines.insert(kind, id);
        Ok((name, id))
    }

    /// What a picture covers, in one ink, or in black, choked by shares of its sides as it is seen; `None` where it cannot be read.
    pub fn silhouette(
        &mut self,
        blob: &BlobId,
        bytes: &[u8],
        separation: Option<Separation>,
        choke: [f64; 2],
    ) -> io::Result<Option<Image>> {
        // In steps that no pixel shows.
        let key = (blob.clone(), separation, choke.map(thousandths));
        if let Some(known) = self.silhouettes.get(&key) {
            return Ok(Some(known.clone()));
        }
        let Some(([width, height], alpha, upright)) = covered(bytes) else { return Ok(None) };
        let alpha = if upright[0] == 0.0 {
            choked([width, height], alpha, [choke[1], choke[0]])
        } else {
            choked([width, height], alpha, choke)
        };
        let space = separation.map(|own| self.spot(own)).transpose()?;
        let (id, mask) = (self.id(), self.id());
        self.object(id, |chunk| {
            let full = if separation.is_some() { [255] } else { [0] };
            let mut image = chunk.image_xobject(id, &full);
            image.width(1).height(1).bits_per_component(8).s_mask(mask);
            match &space {
                Some((_, space)) => {
                    image.pair(Name(b"ColorSpace"), *space);
                }
                None => image.color_space().device_gray(),
            }
        })?;
        let packed = quick(&alpha);
        self.object(mask, |chunk| {
            let mut image = chunk.image_xobject(mask, &packed);
            image.filter(Filter::FlateDecode);
            image.width(signed(width)).height(signed(height)).bits_per_component(8);
            image.color_space().device_gray();
        })?;
        let name = format!("silhouette{}", self.silhouettes.len());
        let image = Image { name, id, upright };
        self.silhouettes.insert(key, image.clone());
        Ok(Some(image))
    }
}

#[expect(clippy::cast_possible_truncation, reason = "a share of a side")]
fn thousandths(share: f64) -> i64 {
    (share * 1e5).round() as i64
}

/// How much each pixel of a picture covers, and what turns its unit square the right way up.
fn covered(bytes: &[u8]) -> Option<([u32; 2], Vec<u8>, [f64; 6])> {
    let picture = Picture::head(bytes).ok()?;
    match picture.coding {
        Coding::Jpeg => Some(([1, 1], vec![255], picture.upright())),
        Coding::Png => {
            let pixels = picture.decoded(bytes).ok()?;
            if !pixels.color().has_alpha() {
                return Some(([1, 1], vec![255], picture.upright()));
            }
            let sides = [pixels.width(), pixels.height()];
            let alpha = DynamicImage::from(pixels.into_rgba8()).into_bytes();
            let alpha = alpha.iter().skip(3).step_by(4).copied().collect();
            Some((sides, alpha, picture.upright()))
        }
        Coding::Svg => {
            let tree = drawing::tree(std::str::from_utf8(bytes).ok()?).ok()?;
            let size = tree.size();
            let scale = SILHOUETTE / size.width().max(size.height());
            let sides = size.to_int_size().scale_by(scale)?;
            let mut pixmap = Pixmap::new(sides.width(), sides.height())?;
            let fit = Transform::from_scale(
                single(sides.width()) / size.width(),
                single(sides.height()) / size.height(),
            );
            resvg::render(&tree, fit, &mut pixmap.as_mut());
            let alpha = pixmap.pixels().iter().map(|pixel| pixel.alpha()).collect();
            Some(([sides.width(), sides.height()], alpha, picture.upright()))
        }
    }
}

#[expect(clippy::cast_precision_loss, reason = "some thousand pixels")]
const fn single(count: u32) -> f32 {
    count as f32
}
