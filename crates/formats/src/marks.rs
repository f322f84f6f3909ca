//! The registration marks of a page alone, to be laid under art that is made elsewhere: SVG, PDF, PNG.

use aptum_core::geometry::path_text;
use aptum_core::lettering::letter_into;
use aptum_core::{Job, Prepared};
use svg::Document;
use svg::node::element::{Group, Path, Title};

/// The marks as SVG in mm on a page of its size, filled black.
#[must_use]
pub fn marks_svg(job: &Job, prepared: &Prepared) -> String {
    let page = prepared.windows.page;
    let own = Group::new().set("id", "marks").set("fill", "#000000").set("stroke", "none");
    let marks = prepared.marks.marks.iter().map(|mark| mark.ink.clone());
    let sign = prepared.marks.sign.iter().map(|sign| letter_into(&sign.text, sign.place));
    let ink = marks.chain(sign).map(|ink| Path::new().set("d", path_text(&ink)));
    Document::new()
        .set("width", format!("{}mm", page.width()))
        .set("height", format!("{}mm", page.height()))
        .set("viewBox", (0, 0, page.width(), page.height()))
        .add(Title::new(format!("Registration marks of {}: keep them where they are", job.name)))
        .add(ink.fold(own, Group::add))
        .to_string()
}
