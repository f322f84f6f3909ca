//! What files for machines share: how a sheet lies in one of its loadings, and where the machine waits.

use aptum_core::geometry::{Affine, Rect};
use aptum_core::tooling::{Before, ToolPath};

/// From the front of the sheet to what the machine sees in a loading: left and right change places where its back is up.
#[must_use]
pub fn seen_as(path: &ToolPath, loading: usize, page: Rect) -> Affine {
    let mut own = path.worked.iter().map(|own| &own.operation);
    let is_behind = own.any(|own| own.loading == loading && !own.is_off && own.is_from_behind());
    if is_behind {
        Affine::new([-1.0, 0.0, 0.0, 1.0, page.x0 + page.x1, 0.0])
    } else {
        Affine::IDENTITY
    }
}

/// True where a person does something before the machine goes on. A sheet is loaded before its file is sent.
#[must_use]
pub fn stands_still(before: Before) -> bool {
    before != Before::Load
}
