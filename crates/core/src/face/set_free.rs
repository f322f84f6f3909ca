//! A face on a form that becomes lines of its own.

use super::{Face, LayerKind, PictureSize};
use crate::form::{OUTLINE, PICTURE, Part};

impl Face {
    /// What is printed on a blank that has no picture of its own any more: layers that lay on the picture that an outline
    /// was traced from lie on all of the blank, where they did, as large as they were.
    #[must_use]
    pub fn set_free(&self, part: &Part) -> Self {
        let mut face = self.clone();
        for layer in &mut face.layers {
            let is_on =
                |lying: &super::Lying, name: &str| lying.panels.iter().any(|own| own == name);
            let Some(lying) = layer.lying_mut() else { continue };
            if is_on(lying, OUTLINE) {
                lying.panels.clear();
            }
            let frame = part.picture.filter(|_| is_on(lying, PICTURE));
            let Some(frame) = frame else { continue };
            lying.panels.clear();
            let off = frame.center() - part.bounds.center();
            lying.x += off.x;
            lying.y += off.y;
            if let LayerKind::Picture(picture) = &mut layer.kind
                && matches!(picture.size, PictureSize::Panel | PictureSize::Covering)
            {
                picture.size = PictureSize::Width(frame.width());
            }
        }
        face
    }
}
