//! One layer of a face.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use crate::blob::{BlobId, Origin};
use crate::error::{Faults, InputError, Remedy};
use crate::id::LayerId;
use crate::units::{Unit, measure};
use crate::workshop::{check_name, is_colour};

/// Which panels carry print.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum Coverage {
    /// What is seen of the closed piece; flaps stay bare and may leave the printable area.
    Faces,
    /// Everything but the glue flap.
    Flaps,
}

/// How large a picture is: one side, the other follows from its pixels.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case", tag = "by", content = "mm")]
pub enum PictureSize {
    /// As large as its panel holds it whole.
    Panel,
    /// So wide, mm.
    Width(f64),
    /// So high, mm.
    Height(f64),
}

/// A picture on a panel.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct PlacedPicture {
    /// Its bytes.
    pub blob: BlobId,
    /// Its width and height in pixels, the right way up.
    pub pixels: [u32; 2],
    /// What is known of where it comes from.
    #[serde(default)]
    pub origin: Origin,
    /// The panel on which it lies, by its name; what goes past the panel is not printed.
    pub panel: String,
    /// From the panel's middle to the picture's, to the right as the flat shows it, mm.
    #[serde(default)]
    pub x: f64,
    /// The same downwards, mm.
    #[serde(default)]
    pub y: f64,
    /// How large it is.
    pub size: PictureSize,
}

/// What a layer is.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case", tag = "kind")]
pub enum LayerKind {
    /// A flat colour.
    Colour {
        /// As `#rrggbb`.
        colour: String,
        /// The panels it covers.
        coverage: Coverage,
    },
    /// The panels' names, or the words of their labels.
    PanelNames,
    /// A picture on one panel.
    Picture(PlacedPicture),
}

/// One layer of a face.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Layer {
    /// What it is known by.
    pub id: LayerId,
    /// Its name in the list; `None` goes by what it is.
    #[serde(default)]
    pub name: Option<String>,
    /// What it is.
    #[serde(flatten)]
    pub kind: LayerKind,
}

/// How far from its panel's middle a picture may lie, mm.
const FARTHEST: f64 = 5000.0;

/// The least and the greatest side of a picture, mm.
const SIDE: std::ops::RangeInclusive<f64> = 1.0..=5000.0;

impl Layer {
    /// A flat colour on the outer panels.
    #[must_use]
    pub fn colour(id: &str, colour: &str) -> Self {
        let kind = LayerKind::Colour { colour: colour.to_owned(), coverage: Coverage::Faces };
        Self { id: id.into(), name: None, kind }
    }

    /// The panels' names.
    #[must_use]
    pub fn panel_names(id: &str) -> Self {
        Self { id: id.into(), name: None, kind: LayerKind::PanelNames }
    }

    /// What it goes by in lists.
    #[must_use]
    pub fn title(&self) -> &str {
        let own = match &self.kind {
            LayerKind::Colour { .. } => "Colour",
            LayerKind::PanelNames => "Panel names",
            LayerKind::Picture(picture) if picture.origin.name.is_empty() => "Picture",
            LayerKind::Picture(picture) => &picture.origin.name,
        };
        self.name.as_deref().unwrap_or(own)
    }

    /// The path of one of its fields in the piece.
    #[must_use]
    pub fn field(&self, below: &str) -> String {
        format!("face.layers.{}.{below}", self.id)
    }

    pub(super) fn validate(&self, unit: Unit, faults: &mut Faults) {
        if let Some(name) = &self.name {
            check_name(&self.field("name"), name, faults);
        }
        match &self.kind {
            LayerKind::Colour { colour, .. } => {
                if !is_colour(colour) {
                    let field = self.field("colour");
                    faults.add(InputError::plain(
                        &field,
                        format!(
                            "“{}” is not a colour",
                            colour.chars().take(20).collect::<String>()
                        ),
                        Remedy::set("Use white, #ffffff", &field, "#ffffff"),
                    ));
                }
            }
            LayerKind::PanelNames => {}
            LayerKind::Picture(picture) => self.validate_picture(picture, unit, faults),
        }
    }

    fn validate_picture(&self, picture: &PlacedPicture, unit: Unit, faults: &mut Faults) {
        let show = |mm: f64| measure(mm, unit);
        if !picture.blob.is_sound() {
            faults.add(InputError::plain(
                &self.field("blob"),
                "The picture is named by no SHA-256",
                Remedy::advice("Bring the picture in again"),
            ));
        }
        if picture.pixels.iter().any(|count| !(1..=60_000).contains(count)) {
            let [across, along] = picture.pixels;
            faults.add(InputError::new(
                &self.field("pixels"),
                format!("The picture has {across} × {along} pixels: each side has 1 to 60000"),
                f64::from(across.max(along)),
                Remedy::advice("Bring the picture in again"),
            ));
        }
        if picture.panel.chars().count() > 80 {
            faults.add(InputError::plain(
                &self.field("panel"),
                "The panel’s name has more than 80 characters",
                Remedy::advice("Choose one of the piece’s panels"),
            ));
        }
        for (name, value) in [("x", picture.x), ("y", picture.y)] {
            let words = "The picture’s distance from the panel’s middle";
            faults.range(&self.field(name), words, value, -FARTHEST..=FARTHEST, show);
        }
        match picture.size {
            PictureSize::Panel => {}
            PictureSize::Width(mm) => {
                faults.range(&self.field("size.mm"), "The picture’s width", mm, SIDE, show);
            }
            PictureSize::Height(mm) => {
                faults.range(&self.field("size.mm"), "The picture’s height", mm, SIDE, show);
            }
        }
        picture.origin.validate(&self.field("origin"), faults);
    }
}
