//! What a pattern repeats: a figure, a word or a picture.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use super::layer::is_off;
use super::pattern::Pattern;
use super::text::{Text, TextSize, own_typeface_faults};
use crate::blob::{BlobId, Origin};
use crate::error::{Faults, InputError, Remedy};
use crate::geometry::{Affine, BezPath, Shape};
use crate::lettering::{OwnTypeface, Typeface};
use crate::units::INCH;

/// What a pattern repeats.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case", tag = "of")]
pub enum Motif {
    /// The pattern's figure.
    #[default]
    Figure,
    /// A word, as large as the motif holds it.
    Word {
        /// Up to 60 characters; columns of the list in braces.
        words: String,
        /// The id of a typeface of the shelf.
        typeface: String,
        /// A typeface of one's own, which goes before it where it is here.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        own_typeface: Option<OwnTypeface>,
    },
    /// A picture or a drawing, as large as the motif holds it whole.
    Picture(MotifPicture),
}

/// A picture that a pattern repeats.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct MotifPicture {
    /// Its bytes.
    pub blob: BlobId,
    /// Its width and height in pixels, the right way up.
    pub pixels: [u32; 2],
    /// True for a drawing of lines and areas, sharp at any size.
    #[serde(default, skip_serializing_if = "is_off")]
    pub drawn: bool,
    /// What is known of where it comes from.
    #[serde(default)]
    pub origin: Origin,
}

/// Most characters of a word.
const MOST_CHARACTERS: usize = 60;

/// Most motifs on a blank; most of them where they are pictures; and most elements of all their outlines.
const MOST: f64 = 20_000.0;
const MOST_PICTURES: f64 = 1_000.0;
const MOST_ELEMENTS: f64 = 400_000.0;

impl Motif {
    /// True for the pattern's figure, as most are.
    pub(super) fn is_figure(&self) -> bool {
        *self == Self::Figure
    }

    /// The words and what they are set in; `None` where it is no word.
    pub(super) fn text(&self) -> Option<Text> {
        let Self::Word { words, typeface, own_typeface } = self else { return None };
        // Any size: it is made as large as the motif.
        let size = TextSize::Em(10.0);
        Some(Text {
            typeface: typeface.clone(),
            own_typeface: own_typeface.clone(),
            size,
            ..Text::new(words)
        })
    }

    /// The typeface of its maker's own that it is set in.
    pub(super) const fn own_typeface(&self) -> Option<&OwnTypeface> {
        match self {
            Self::Word { own_typeface, .. } => own_typeface.as_ref(),
            Self::Figure | Self::Picture(_) => None,
        }
    }

    pub(super) fn validate(&self, field: &dyn Fn(&str) -> String, faults: &mut Faults) {
        match self {
            Self::Figure => {}
            Self::Word { words, typeface, own_typeface } => {
                let count = words.chars().count();
                if count > MOST_CHARACTERS || words.chars().any(char::is_control) {
                    faults.add(InputError::new(
                        &field("motif_of.words"),
                        format!(
                            "The motif has {count} characters: it is a line of up to {MOST_CHARACTERS}"
                        ),
                        f64::from(u32::try_from(count).unwrap_or(u32::MAX)),
                        Remedy::advice("Take a shorter word, or lay a text of several lines"),
                    ));
                }
                if Typeface::find(typeface).is_none() {
                    let name: String = typeface.chars().take(40).collect();
                    let field = field("motif_of.typeface");
                    faults.add(InputError::plain(
                        &field,
                        format!("There is no typeface “{name}”"),
                        Remedy::set("Set it in the plain one", &field, "plain"),
                    ));
                }
                if let Some(own) = own_typeface {
                    own_typeface_faults(own, &field("motif_of.own_typeface"), faults);
                }
            }
            Self::Picture(picture) => {
                let [across, along] = picture.pixels;
                let is_sound = [across, along].iter().all(|count| (1..=60_000).contains(count));
                if !picture.blob.is_sound() || !is_sound {
                    faults.add(InputError::plain(
                        &field("motif_of"),
                        format!("The motif names no picture of {across} × {along} pixels"),
                        Remedy::advice("Bring the picture in again"),
                    ));
                }
                picture.origin.validate(&field("motif_of.origin"), faults);
            }
        }
    }
}

impl MotifPicture {
    /// From its unit square to a motif of so much room about the origin, whole and as large as that holds it.
    fn fitted(&self, [width, height]: [f64; 2]) -> Affine {
        let [across, along] = self.pixels.map(|count| f64::from(count.max(1)));
        let scale = (width / across).min(height / along);
        Affine::scale_non_uniform(across * scale, along * scale) * Affine::translate((-0.5, -0.5))
    }
}

impl Pattern {
    /// The outline of a motif about the origin; none of a picture.
    pub(super) fn outline(&self) -> BezPath {
        let [width, height] = self.motif;
        match self.motif_of.text() {
            None => Affine::scale_non_uniform(width, height) * self.figure.unit(self.points),
            Some(text) => {
                let path = text.set([width, height]).path;
                let bounds = path.bounding_box();
                if bounds.width() <= 0.0 || bounds.height() <= 0.0 {
                    return BezPath::new();
                }
                let scale = (width / bounds.width()).min(height / bounds.height());
                Affine::scale(scale) * Affine::translate(-bounds.center().to_vec2()) * path
            }
        }
    }

    /// From the unit square of the picture that is repeated to a motif about the origin.
    pub(super) fn pictured(&self) -> Option<(&MotifPicture, Affine)> {
        match &self.motif_of {
            Motif::Picture(picture) => Some((picture, picture.fitted(self.motif))),
            Motif::Figure | Motif::Word { .. } => None,
        }
    }

    /// Pixels in an inch of the picture that is repeated; `None` where it is drawn, or there is none.
    #[must_use]
    pub fn ppi(&self) -> Option<f64> {
        let (picture, fitted) = self.pictured()?;
        let width = fitted.as_coeffs()[0];
        (!picture.drawn).then(|| f64::from(picture.pixels[0]) / width * INCH)
    }

    /// How high the type of the word is, mm; `None` where it is no word.
    #[must_use]
    pub fn em(&self) -> Option<f64> {
        let text = self.motif_of.text()?;
        let set = text.set(self.motif);
        let (from, to) = (set.path.bounding_box().height(), self.outline().bounding_box().height());
        (from > 0.0).then(|| set.em * to / from)
    }

    /// Most motifs of its kind on a blank.
    pub(super) fn most(&self) -> f64 {
        match &self.motif_of {
            Motif::Figure => MOST,
            Motif::Picture(_) => MOST_PICTURES,
            Motif::Word { .. } => {
                let elements = self.outline().elements().len();
                (MOST_ELEMENTS / (elements.max(1) as f64)).clamp(100.0, MOST)
            }
        }
    }
}
