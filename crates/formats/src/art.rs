//! What is printed, as SVG at true size and as PNG: a sheet, or a piece's art alone.

use std::io;

use aptum_core::blob::{BlobId, Blobs};
use aptum_core::face::{Art, Ink, Inked, Running, Separation, Side, ink_colour};
use aptum_core::form::Part;
use aptum_core::geometry::{Affine, BezPath, Rect, path_text};
use aptum_core::lettering::letter_into;
use aptum_core::units::INCH;
use aptum_core::{Job, Prepared, PreparedPiece};
use base64::Engine;
use base64::engine::general_purpose::STANDARD;
use resvg::tiny_skia::{Pixmap, Transform};
use svg::Document;
use svg::node::element::{
    ClipPath, Definitions, Group, Image, LinearGradient, Path, Stop, Title, Use,
};

use crate::drawing;
use crate::pdf::{code_ink, scale_rule, scale_words};
use crate::picture::{Coding, Picture};

/// Pixels in an inch of a PNG, where nothing else is said, and those that can be asked for.
pub const USUAL_PPI: u32 = 300;
/// What is offered.
pub const OFFERED_PPI: [u32; 3] = [150, USUAL_PPI, 600];
/// What can be asked for.
pub const PPI: std::ops::RangeInclusive<u32> = 36..=1200;

/// Most pixels of a PNG.
const MOST_PIXELS: f64 = 64e6;

/// The art of one side of a piece laid flat as it is seen, in mm, with its bleed around it: what is the same on every copy, and what the first
/// row of its list brings.
#[must_use]
pub fn art_svg(piece: &PreparedPiece, side: Side, blobs: &dyn Blobs) -> String {
    let mut drawing = Drawing::new(blobs);
    let mut whole = Group::new();
    for (part, art) in arts(piece, side) {
        let moved = Group::new().set("transform", matrix(Affine::translate(part.at)));
        let inks = drawing.inks(art.inks(0));
        whole = whole.add(inks.into_iter().fold(moved, Group::add));
    }
    let bounds = art_bounds(piece, side).unwrap_or(Rect::new(0.0, 0.0, 1.0, 1.0));
    drawing.finish(&piece.name, bounds, whole)
}

/// The blanks of a piece with what is printed on one side of each, as that is seen.
pub(crate) fn arts(piece: &PreparedPiece, side: Side) -> impl Iterator<Item = (&Part, &Art)> {
    let (flat, arts) = match (side, &piece.back) {
        (Side::Back, Some(back)) => (&back.flat, back.arts.as_slice()),
        (Side::Back, None) => (&piece.flat, &[][..]),
        (Side::Front, _) => (&piece.flat, piece.arts.as_slice()),
    };
    flat.parts.iter().zip(arts)
}

/// What the art of a side takes in the drawing of its flat, bleed included, mm; `None` where nothing is printed.
#[must_use]
pub fn art_bounds(piece: &PreparedPiece, side: Side) -> Option<Rect> {
    let taken =
        arts(piece, side).map(|(part, art)| part.bounds.inflate(art.bleed, art.bleed) + part.at);
    taken.reduce(|all, next| all.union(next))
}

/// What is printed on one side of sheet `number` (from 1) as it is seen, in mm; `None` when there are fewer sheets. Marks, the
/// scale and the code are on the front alone.
#[must_use]
pub fn sheet_svg(
    job: &Job,
    prepared: &Prepared,
    number: u32,
    side: Side,
    blobs: &dyn Blobs,
) -> Option<String> {
    let (run, [first, _]) = prepared.layout.run_of(number)?;
    let sheet = number - first;
    let own = prepared.layout.runs.get(run)?;
    let mut drawing = Drawing::new(blobs);
    let blanks: Vec<_> = prepared.blanks().collect();
    let arts: Vec<Option<&Art>> = blanks.iter().map(|blank| blank.art_on(side)).collect();
    for (part, art) in arts.iter().enumerate() {
        for level in 0..=art.map_or(0, |art| art.by_row.len()) {
            let inks = art.map_or(&[][..], |art| art.level(level));
            let group = Group::new().set("id", format!("part{part}-{level}"));
            let inks = drawing.inks(inks.iter().filter(|inked| inked.is_printed));
            drawing.shared.push(inks.into_iter().fold(group, Group::add));
        }
    }
    let mut whole = Group::new();
    for at in &own.placements {
        let Some(art) = arts.get(at.part).copied().flatten() else { continue };
        let place = prepared.transform(side, blanks[at.part].part, at);
        let mut copy = Group::new().set("transform", matrix(place));
        let row = own.copy(at, sheet).saturating_sub(1) as usize;
        for level in 0..=art.by_row.len() {
            copy = copy.add(Use::new().set("href", format!("#part{}-{level}", at.part)));
            let worn = art.by_row.get(level).and_then(|layer| layer.rows.get(row));
            let worn = worn.into_iter().flatten().filter(|inked| inked.is_printed);
            copy = drawing.inks(worn).into_iter().fold(copy, Group::add);
        }
        whole = whole.add(copy);
    }
    let title = format!("{}, sheet {number}", job.name);
    if side == Side::Back {
        return Some(drawing.finish(&title, prepared.windows.page, whole));
    }
    let mut black = BezPath::new();
    prepared.marks.marks.iter().for_each(|mark| black.extend(mark.ink.iter()));
    if let Some(sign) = &prepared.marks.sign {
        black.extend(letter_into(&sign.text, sign.place));
    }
    let mut rule = BezPath::new();
    if let Some(notes) = prepared.notes.get(run).and_then(Option::as_ref) {
        rule.extend(scale_rule(notes));
        black.extend(scale_words(notes, job.unit));
    }
    black.extend(code_ink(prepared, run, number));
    let lined = path(&rule).set("fill", "none").set("stroke", "#000000").set("stroke-width", 0.15);
    let whole = whole.add(path(&black).set("fill", "#000000")).add(lined);
    Some(drawing.finish(&title, prepared.windows.page, whole))
}

/// The most pixels in an inch at which a PNG of so many mm is drawn.
#[must_use]
pub fn most_ppi(width: f64, height: f64) -> u32 {
    let most = (MOST_PIXELS / (width * height).max(1.0)).sqrt() * INCH;
    #[expect(
        clippy::cast_possible_truncation,
        clippy::cast_sign_loss,
        reason = "8000 · 25.4 at most"
    )]
    let most = most.floor() as u32;
    most.min(*PPI.end())
}

/// An SVG in mm as a PNG of so many pixels in an inch, on white or on nothing.
///
/// # Errors
/// A drawing of more pixels than are drawn ([`most_ppi`]).
pub fn png(svg: &str, ppi: f64, is_on_white: bool) -> io::Result<Vec<u8>> {
    let tree = drawing::tree(svg).map_err(io::Error::other)?;
    // A user unit of the tree is 1/96 inch (CSS Values 4, 5.2).
    let scale = ppi / 96.0;
    let [width, height] = [tree.size().width(), tree.size().height()].map(f64::from);
    let pixels = width * height * scale * scale;
    if pixels > MOST_PIXELS * 1.01 {
        let millions = pixels / 1e6;
        return Err(io::Error::other(format!("{millions:.0} million pixels are too many to draw")));
    }
    #[expect(
        clippy::cast_possible_truncation,
        clippy::cast_sign_loss,
        reason = "within MOST_PIXELS"
    )]
    let side = |length: f64| (length * scale).round().max(1.0) as u32;
    let (across, along) = (side(width), side(height));
    let mut pixmap =
        Pixmap::new(across, along).ok_or_else(|| io::Error::other("no room for the picture"))?;
    if is_on_white {
        pixmap.fill(resvg::tiny_skia::Color::WHITE);
    }
    #[expect(clippy::cast_possible_truncation, reason = "a ratio near the scale")]
    let fit = |pixels: u32, length: f64| (f64::from(pixels) / length) as f32;
    resvg::render(
        &tree,
        Transform::from_scale(fit(across, width), fit(along, height)),
        &mut pixmap.as_mut(),
    );
    let mut coded = Vec::new();
    let mut encoder = png::Encoder::new(&mut coded, across, along);
    encoder.set_color(png::ColorType::Rgba);
    encoder.set_depth(png::BitDepth::Eight);
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "within PPI")]
    let metre = (ppi * 1000.0 / INCH).round() as u32;
    encoder.set_pixel_dims(Some(png::PixelDimensions {
        xppu: metre,
        yppu: metre,
        unit: png::Unit::Meter,
    }));
    let flat: Vec<u8> = pixmap
        .pixels()
        .iter()
        .flat_map(|pixel| {
            let own = pixel.demultiply();
            [own.red(), own.green(), own.blue(), own.alpha()]
        })
        .collect();
    let mut writer = encoder.write_header().map_err(io::Error::other)?;
    writer.write_image_data(&flat).map_err(io::Error::other)?;
    writer.finish().map_err(io::Error::other)?;
    Ok(coded)
}

/// A drawing in the making.
pub(crate) struct Drawing<'a> {
    blobs: &'a dyn Blobs,
    pub(crate) shared: Vec<Group>,
    clips: Vec<ClipPath>,
    gradients: Vec<LinearGradient>,
    pictures: Vec<(BlobId, Image)>,
}

impl<'a> Drawing<'a> {
    pub(crate) const fn new(blobs: &'a dyn Blobs) -> Self {
        Self {
            blobs,
            shared: Vec::new(),
            clips: Vec::new(),
            gradients: Vec::new(),
            pictures: Vec::new(),
        }
    }

    /// Layers, the first undermost; varnish, which is clear, and pictures whose bytes are missing are left out.
    pub(crate) fn inks<'i>(&mut self, layers: impl Iterator<Item = &'i Inked>) -> Vec<Group> {
        let mut layers: Vec<_> =
            layers.filter(|inked| inked.finish.separation() <= Separation::Colour).collect();
        layers.sort_by_key(|inked| inked.finish.separation());
        layers.into_iter().filter_map(|inked| self.ink(inked)).collect()
    }

    fn ink(&mut self, inked: &Inked) -> Option<Group> {
        let mut group = Group::new();
        if inked.opacity < 1.0 {
            group = group.set("opacity", inked.opacity);
        }
        match &inked.ink {
            Ink::Area { path: own, colour, running, clip } => {
                let fill = running.as_ref().map(|running| self.running(colour, running));
                let inner = path(own).set("fill", fill.unwrap_or_else(|| colour.clone()));
                Some(self.clipped(group, clip.as_ref()).add(inner))
            }
            Ink::Words { path: own } => Some(group.add(path(own).set("fill", ink_colour()))),
            Ink::Picture { blob, place, clip, .. } => {
                let number = self.picture(blob)?;
                let inner = Use::new()
                    .set("href", format!("#picture{number}"))
                    .set("transform", matrix(*place));
                Some(self.clipped(group, Some(clip)).add(inner))
            }
        }
    }

    /// What fills with a colour that runs into another.
    fn running(&mut self, colour: &str, running: &Running) -> String {
        let name = format!("running{}", self.gradients.len());
        let [from, to] = running.ends;
        let stop = |at: u8, colour: &str| Stop::new().set("offset", at).set("stop-color", colour);
        let gradient = LinearGradient::new()
            .set("id", name.as_str())
            .set("gradientUnits", "userSpaceOnUse")
            .set("x1", from.x)
            .set("y1", from.y)
            .set("x2", to.x)
            .set("y2", to.y)
            .add(stop(0, colour))
            .add(stop(1, &running.to));
        self.gradients.push(gradient);
        format!("url(#{name})")
    }

    pub(crate) fn clipped(&mut self, group: Group, clip: Option<&BezPath>) -> Group {
        let Some(clip) = clip else { return group };
        let name = format!("clip{}", self.clips.len());
        let group = group.set("clip-path", format!("url(#{name})"));
        self.clips.push(ClipPath::new().set("id", name).add(path(clip)));
        group
    }

    /// The number of a picture, in the file once.
    fn picture(&mut self, blob: &BlobId) -> Option<usize> {
        if let Some(at) = self.pictures.iter().position(|(known, _)| known == blob) {
            return Some(at);
        }
        let bytes = self.blobs.bytes(blob)?;
        let picture = Picture::head(&bytes).ok()?;
        let (media, bytes) = match picture.coding {
            // What looks at Exif and what does not shall show the same.
            Coding::Jpeg if !picture.is_upright() => ("image/png", picture.turned(&bytes).ok()?),
            coding => (coding.media(), bytes.to_vec()),
        };
        let at = self.pictures.len();
        let image = Image::new()
            .set("id", format!("picture{at}"))
            .set("width", 1)
            .set("height", 1)
            .set("preserveAspectRatio", "none")
            .set("href", format!("data:{media};base64,{}", STANDARD.encode(bytes)));
        self.pictures.push((blob.clone(), image));
        Some(at)
    }

    pub(crate) fn finish(self, title: &str, bounds: Rect, whole: Group) -> String {
        let (width, height) = (tidy(bounds.width()), tidy(bounds.height()));
        let pictures = self.pictures.into_iter().map(|(_, image)| image);
        let shared = pictures.fold(Definitions::new(), Definitions::add);
        let shared = self.gradients.into_iter().fold(shared, Definitions::add);
        let shared = self.clips.into_iter().fold(shared, Definitions::add);
        let shared = self.shared.into_iter().fold(shared, Definitions::add);
        Document::new()
            .set("width", format!("{width}mm"))
            .set("height", format!("{height}mm"))
            .set("viewBox", (tidy(bounds.x0), tidy(bounds.y0), width, height))
            .add(Title::new(title))
            .add(shared)
            .add(whole)
            .to_string()
    }
}

pub(crate) fn path(own: &BezPath) -> Path {
    Path::new().set("d", path_text(own))
}

pub(crate) fn matrix(affine: Affine) -> String {
    let [a, b, c, d, e, f] = affine.as_coeffs();
    format!("matrix({a} {b} {c} {d} {e} {f})")
}

fn tidy(mm: f64) -> f64 {
    (mm * 1e4).round() / 1e4
}
