//! Lines of SVG against resvg's rendering: areas that are drawn are those that are read, whatever transform, unit, use,
//! symbol or clip they come through.

use aptum_core::geometry::{BezPath, Region, Shape as _};
use aptum_core::lines::Look;
use aptum_formats::lines::brought;
use proptest::prelude::*;
use resvg::tiny_skia::{Pixmap, Transform};
use resvg::usvg::{Options, Tree};

/// Pixels to a unit of the drawing.
const FINE: f32 = 8.0;

/// What resvg paints, in square units of the drawing.
fn painted(svg: &str) -> f64 {
    let tree = Tree::from_str(svg, &Options::default()).unwrap();
    let size = tree.size();
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "small pictures")]
    let side = |length: f32| (length * FINE).ceil() as u32;
    let mut pixels = Pixmap::new(side(size.width()), side(size.height())).unwrap();
    resvg::render(&tree, Transform::from_scale(FINE, FINE), &mut pixels.as_mut());
    let alpha: f64 = pixels.pixels().iter().map(|pixel| f64::from(pixel.alpha()) / 255.0).sum();
    alpha / f64::from(FINE * FINE)
}

/// What the areas come to that are read, those of one colour together.
fn read(svg: &str) -> f64 {
    let lines = brought(svg.as_bytes(), 1).unwrap();
    let seen = |own: &Look| matches!(own, Look::Fill | Look::Words);
    let mut all = BezPath::new();
    for line in lines.lines.iter().filter(|line| seen(&lines.groups[line.group].look)) {
        all.extend(line.path.iter());
    }
    Region::inside(&all).united().area()
}

fn same(svg: &str, body: &str) {
    let (painted, read) = (painted(svg), read(svg));
    assert!(
        (painted - read).abs() < 0.01 * painted + 0.5,
        "{painted} painted, {read} read: {body}"
    );
}

fn drawing(body: &str) -> String {
    format!(
        r#"<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="100" height="100">{body}</svg>"#
    )
}

#[test]
fn what_is_read_is_what_is_painted() {
    for body in [
        r#"<rect x="10" y="10" width="30" height="20" rx="6"/>"#,
        r#"<g transform="translate(50 50) rotate(30) scale(1.5 .8)"><ellipse rx="20" ry="9"/></g>"#,
        r##"<defs><path id="a" d="M0 0h20v10h-20z"/></defs><use href="#a" x="30" y="5" transform="rotate(20)"/>"##,
        r##"<defs><symbol id="s" viewBox="0 0 10 10"><circle cx="5" cy="5" r="5"/></symbol></defs>
            <use href="#s" x="20" y="30" width="40" height="40"/>"##,
        r##"<defs><g id="g" transform="skewX(15)"><rect width="20" height="20"/></g></defs>
            <g transform="translate(20 10)"><use xlink:href="#g" transform="scale(2)"/></g>"##,
        r#"<svg x="20" y="20" width="50" height="50" viewBox="0 0 5 5"><circle cx="2.5" cy="2.5" r="2"/></svg>"#,
        r#"<style>.k { fill: #123456 }</style><polygon class="k" points="10,10 90,20 50,80"/>"#,
        r#"<rect x="0.2in" y="10mm" width="2cm" height="20pt"/>"#,
        r#"<text x="10" y="60" font-size="40">Fen</text>"#,
    ] {
        let svg = drawing(body);
        if body.contains("<text") {
            // Letters are set in the program's own typefaces, which resvg does not have here.
            assert!(read(&svg) > 200.0, "{}", read(&svg));
        } else {
            same(&svg, body);
        }
    }
}

#[test]
fn what_a_clip_hides_of_a_stroke_is_hidden() {
    let body = r##"<clipPath id="c"><circle cx="50" cy="50" r="30"/></clipPath>
        <g clip-path="url(#c)"><path d="M0 50H100" stroke="#000" fill="none"/></g>"##;
    let lines = brought(drawing(body).as_bytes(), 1).unwrap();
    let long = |wanted: Look| -> f64 {
        let own = lines.lines.iter().filter(|line| lines.groups[line.group].look == wanted);
        own.map(|line| line.path.bounding_box().width()).sum()
    };
    assert!((long(Look::Stroke) - 60.0).abs() < 0.1, "{}", long(Look::Stroke));
    assert!((long(Look::Clipped) - 40.0).abs() < 0.1, "{}", long(Look::Clipped));
    // A clip on a clip leaves what both leave.
    let body = r##"<clipPath id="d"><rect width="50" height="100"/></clipPath>
        <clipPath id="c" clip-path="url(#d)"><circle cx="50" cy="50" r="30"/></clipPath>
        <g clip-path="url(#c)"><path d="M0 50H100" stroke="#000" fill="none"/></g>"##;
    let lines = brought(drawing(body).as_bytes(), 1).unwrap();
    let seen = lines.lines.iter().filter(|line| lines.groups[line.group].look == Look::Stroke);
    let long: f64 = seen.map(|line| line.path.bounding_box().width()).sum();
    assert!((long - 30.0).abs() < 0.1, "{long}");
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(40))]

    /// Whatever transforms lie over each other, on groups and on uses.
    #[test]
    fn transforms_over_each_other_are_those_of_the_rendering(
        turns in prop::array::uniform3(-180.0..180.0f64),
        sizes in prop::array::uniform3(0.6..1.5f64),
        skew in -35.0..35.0f64,
        at in (-6.0..6.0f64, -6.0..6.0f64),
        used in any::<bool>(),
    ) {
        let [a, b, c] = turns;
        let [k, l, m] = sizes;
        let thing = if used {
            format!(r##"<defs><path id="p" d="M-6 -4L9 -3L2 8Z"/></defs><use href="#p" x="{}" y="{}" transform="rotate({c}) scale({m})"/>"##, at.0, at.1)
        } else {
            format!(r#"<path transform="rotate({c}) scale({m}) translate({} {})" d="M-6 -4L9 -3L2 8Z"/>"#, at.0, at.1)
        };
        let body = format!(
            r#"<g transform="translate(50 50) rotate({a}) scale({k})"><g transform="skewX({skew}) rotate({b}) scale(1 {l})">{thing}</g></g>"#
        );
        same(&drawing(&body), &body);
    }
}

/// The icons of a general package (heroicons, MIT), as `make web` installs it.
fn icons(kind: &str) -> Vec<(String, String)> {
    let folder = std::path::Path::new(env!("CARGO_MANIFEST_DIR"))
        .join("../../web/node_modules/heroicons/24")
        .join(kind);
    let files = std::fs::read_dir(&folder)
        .unwrap_or_else(|error| panic!("{}: {error}: run `make web` first", folder.display()));
    let icons = files.map(|file| {
        let path = file.unwrap().path();
        (path.display().to_string(), std::fs::read_to_string(path).unwrap())
    });
    icons.collect()
}

/// Every icon of areas is read, and what is read is what is painted.
#[test]
fn icons_of_areas_are_read_as_they_are_painted() {
    let all = icons("solid");
    assert!(all.len() > 300, "{}", all.len());
    for (name, svg) in all {
        let lines = brought(svg.as_bytes(), 1).unwrap_or_else(|error| panic!("{name}: {error}"));
        let mut path = BezPath::new();
        lines.lines.iter().for_each(|line| path.extend(line.path.iter()));
        let painted = painted(&svg);
        // Which rule fills an area is the file's affair.
        let areas = [Region::alternating(&path), Region::wound(&path), Region::inside(&path)];
        let off = areas.iter().map(|own| (own.area() - painted).abs()).fold(f64::MAX, f64::min);
        assert!(off < 0.01 * painted + 0.3, "{name}: {painted} painted, {off} off");
    }
}

/// A line that is smaller is there for its round ends alone: a dot.
const DOT: f64 = 0.05;

/// Every icon of strokes is read with their widths: what these cover is what is painted.
#[test]
fn icons_of_strokes_are_read_with_their_widths() {
    let style = |width: f64| {
        let round = kurbo::Stroke::new(width).with_join(kurbo::Join::Round);
        round.with_caps(kurbo::Cap::Round)
    };
    let all = icons("outline");
    assert!(all.len() > 300, "{}", all.len());
    for (name, svg) in all {
        let lines = brought(svg.as_bytes(), 1).unwrap_or_else(|error| panic!("{name}: {error}"));
        let strokes = lines.lines.iter().map(|line| {
            let bounds = line.path.bounding_box();
            if bounds.width().max(bounds.height()) < DOT {
                let dot = kurbo::Circle::new(bounds.center(), line.width / 2.0);
                return Region::wound(&dot.to_path(0.001));
            }
            let drawn = style(line.width);
            let path =
                kurbo::stroke(line.path.iter(), &drawn, &kurbo::StrokeOpts::default(), 0.005);
            Region::wound(&path)
        });
        let covered = strokes.fold(Region::empty(), |all, own| all.union(&own)).area();
        let painted = painted(&svg);
        assert!(
            (covered - painted).abs() < 0.02 * painted + 0.5,
            "{name}: {painted} painted, {covered} covered"
        );
    }
}
