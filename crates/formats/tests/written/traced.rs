//! Outlines from pictures, against shapes that another rasteriser drew and pictures that scikit-image ships
//! (`tools/reference/tracing.py`).

use std::path::Path;

use aptum_core::Job;
use aptum_core::face::Ink;
use aptum_core::geometry::{Point, Rect, Shape, flattened_to};
use aptum_core::memory::Forgetful;
use aptum_core::pixels::Pixels;
use aptum_core::trace::{InsideBy, Seen, Trace, Tracing, View};
use aptum_formats::trace::furnished;
use serde::Deserialize;

use crate::files::DemoPictures;

#[derive(Deserialize)]
struct Table {
    drawn: Vec<Drawn>,
    found: Vec<Dark>,
}

/// A shape, its places in px.
#[derive(Deserialize)]
struct Drawn {
    file: String,
    side: f64,
    area: f64,
    holes: usize,
    corners: usize,
    outline: Vec<(f64, f64)>,
    is_clean: bool,
}

/// What is dark in a picture.
#[derive(Deserialize)]
struct Dark {
    file: String,
    /// From 0 to 255: what is not lighter is inside.
    threshold: u8,
    inside: usize,
    /// How many points scikit-image's contours have.
    points: usize,
}

fn table() -> Table {
    serde_json::from_slice(&read("tracing.json")).unwrap()
}

fn read(file: &str) -> Vec<u8> {
    let folder = Path::new(env!("CARGO_MANIFEST_DIR")).join("tests/reference");
    std::fs::read(folder.join(file)).unwrap()
}

fn pixels(file: &str) -> Pixels {
    let picture = image::load_from_memory(&read(&format!("traced/{file}"))).unwrap().into_rgba8();
    let (width, height) = (picture.width() as usize, picture.height() as usize);
    Pixels::new(width, height, picture.into_raw()).unwrap()
}

/// A tracing in px.
fn traced(pixels: &Pixels, how: &Trace) -> Tracing {
    let sides = pixels.sides().map(|side| u32::try_from(side).unwrap());
    let width = f64::from(sides[0]);
    let view = View::of(sides, how, width, None);
    Tracing::of(&Seen::new(pixels, &how.by, view).unwrap(), how, width).unwrap()
}

fn off(point: Point, ring: &[Point]) -> f64 {
    let next = ring.iter().skip(1).chain(ring.first());
    let sides = ring.iter().zip(next).map(|(a, b)| {
        let along = *b - *a;
        let share = ((point - *a).dot(along) / along.hypot2().max(1e-18)).clamp(0.0, 1.0);
        (*a + along * share).distance(point)
    });
    sides.fold(f64::INFINITY, f64::min)
}

#[test]
fn shapes_are_found_to_a_part_of_a_pixel_with_their_corners() {
    let table = table();
    assert_eq!(table.drawn.len(), 36);
    for case in table.drawn {
        let by = if case.is_clean {
            InsideBy::Transparency
        } else {
            InsideBy::Background { colour: None }
        };
        let how = Trace { by, holes: true, least: 30.0, ..Trace::default() };
        let tracing = traced(&pixels(&case.file), &how);
        let [own] = tracing.outlines.as_slice() else {
            panic!("{}: {} outlines", case.file, tracing.outlines.len())
        };
        assert_eq!(own.holes.len(), case.holes, "{}", case.file);
        let area = own.outer.area() + own.holes.iter().map(Shape::area).sum::<f64>();
        // A leaf is an eighth as wide as it is long: its line is as true as others' beside a smaller area.
        let is_leaf = case.file.starts_with("leaf");
        let most = match (case.is_clean, is_leaf) {
            (true, true) => 2e-3,
            (true, false) => 1e-3,
            (false, _) => 5e-3,
        };
        assert!((area / case.area - 1.0).abs() < most, "{}: {area} of {}", case.file, case.area);
        // Both ways: nothing is missing, and nothing stands out.
        let shape: Vec<Point> = case.outline.iter().map(|own| Point::from(*own)).collect();
        let line = flattened_to(&own.outer, 0.01).swap_remove(0);
        // Where sides meet at 20° or 30° noise moves the tip along them six or four times as far as the sides themselves.
        let reach = match (case.is_clean, case.file.split('-').next()) {
            (true, _) => 0.6,
            (_, Some("thorns" | "leaf")) => 3.6,
            _ => 1.4,
        };
        let (there, back) = (
            line.iter().map(|point| off(*point, &shape)).fold(0.0, f64::max),
            shape.iter().map(|point| off(*point, &line)).fold(0.0, f64::max),
        );
        assert!(there < reach && back < reach, "{}: {there} and {back} px", case.file);
        if case.is_clean {
            assert_eq!(tracing.corners.len(), case.corners, "{}", case.file);
            assert!(
                tracing.nodes <= case.corners.max(5) * 2 + 6,
                "{}: {}",
                case.file,
                tracing.nodes
            );
        }
        assert!(case.side > 100.0);
    }
}

/// What is reached on pictures without shades at their edges (horse) and with textures (clock, coins): how much of what
/// is inside for either is for both, and how many times fewer nodes than points.
#[test]
fn what_is_dark_is_what_scikit_image_finds_with_far_fewer_nodes() {
    for case in table().found {
        let pixels = pixels(&case.file);
        let [width, height] = pixels.sides();
        // Half a level more, so that both sides of the threshold agree.
        let threshold = 1.0 - (f64::from(case.threshold) + 0.5) / 255.0;
        let how = Trace {
            by: InsideBy::Darkness,
            threshold: Some(threshold),
            holes: true,
            least: 2.0,
            ..Trace::default()
        };
        let tracing = traced(&pixels, &how);
        let rings: Vec<Vec<Point>> = tracing
            .outlines
            .iter()
            .flat_map(|own| std::iter::once(&own.outer).chain(&own.holes))
            .flat_map(|path| flattened_to(path, 0.02))
            .collect();
        let (mut both, mut either, mut inside) = (0u32, 0u32, 0usize);
        for y in 0..height {
            let hits = crossings(&rings, f64::from(u32::try_from(y).unwrap()) + 0.5);
            for x in 0..width {
                let at = f64::from(u32::try_from(x).unwrap()) + 0.5;
                let ours = hits.iter().filter(|hit| **hit < at).count() % 2 == 1;
                let theirs = pixels.raw()[(y * width + x) * 4] <= case.threshold;
                inside += usize::from(theirs);
                both += u32::from(ours && theirs);
                either += u32::from(ours || theirs);
            }
        }
        assert_eq!(inside, case.inside);
        let overlap = f64::from(both) / f64::from(either);
        let fewer = case.points / tracing.nodes;
        let (least, nodes) = match case.file.as_str() {
            "horse.png" => (0.995, 30),
            "clock.png" => (0.99, 8),
            _ => (0.9, 1),
        };
        assert!(overlap >= least && fewer >= nodes, "{}: {overlap:.4}, 1/{fewer}", case.file);
    }
}

/// What is out of its range is told and not looked for: a gap of a kilometre would take a day to close.
#[test]
fn nothing_is_traced_with_figures_out_of_their_range() {
    let mut job: Job =
        serde_json::from_str(include_str!("../../../../demo/jobs/bee-topper.json")).unwrap();
    let workshop = serde_json::from_str(include_str!("../../../../demo/workshop.json")).unwrap();
    job.pieces[0].form.traced_mut().unwrap().trace.gap = 1e6;
    let job = furnished(&job, &DemoPictures, &Forgetful).into_owned();
    assert!(job.pieces[0].form.traced().unwrap().found.0.is_none());
    let errors = aptum_core::prepare(&job, &workshop).unwrap_err();
    assert!(errors[0].field.ends_with("form.traced.trace.gap"), "{errors:?}");
}

#[test]
fn the_picture_is_printed_where_it_was_traced_and_cut_around() {
    let job: Job =
        serde_json::from_str(include_str!("../../../../demo/jobs/bee-topper.json")).unwrap();
    let workshop = serde_json::from_str(include_str!("../../../../demo/workshop.json")).unwrap();
    let bare = aptum_core::prepare(&job, &workshop).unwrap_err();
    assert!(bare[0].message.contains("bee.png"), "a picture that is missing is named");
    for (distance, width) in [(3.0, 62.0), (-0.4, 35.0)] {
        let mut job = job.clone();
        let traced = job.pieces[0].form.traced_mut().unwrap();
        (traced.border.distance, traced.width, traced.border.inner) = (distance, width, 0.0);
        let job = furnished(&job, &DemoPictures, &Forgetful).into_owned();
        let prepared = aptum_core::prepare(&job, &workshop).unwrap();
        let piece = prepared.first();
        let part = &piece.flat.parts[0];
        let frame = part.picture.unwrap();
        assert!((frame.width() - width).abs() < 1e-9);
        let places: Vec<Rect> = piece.arts[0]
            .all()
            .filter_map(|own| match &own.ink {
                Ink::Picture { place, .. } => {
                    Some(place.transform_rect_bbox(Rect::new(0.0, 0.0, 1.0, 1.0)))
                }
                _ => None,
            })
            .collect();
        let [place] = places.as_slice() else { panic!("one picture") };
        let off = (place.origin() - frame.origin()).hypot() + (place.x1 - frame.x1).abs();
        assert!(off < 1e-6, "{place:?} instead of {frame:?}");
        // The cut keeps its distance from what is painted.
        let line = &piece.flat.traced.as_ref().unwrap().line;
        let gap = aptum_core::geometry::gap(line, &part.outline);
        assert!((gap - distance.abs()).abs() < 0.03, "{gap}");
    }
}

/// Where lines cross a row.
fn crossings(rings: &[Vec<Point>], y: f64) -> Vec<f64> {
    let sides =
        rings.iter().flat_map(|ring| ring.iter().zip(ring.iter().skip(1).chain(ring.first())));
    sides
        .filter(|(a, b)| (a.y > y) != (b.y > y))
        .map(|(a, b)| a.x + (b.x - a.x) * (y - a.y) / (b.y - a.y))
        .collect()
}
