//! The piece as it will stand, with what is printed on it.

use aptum_core::face::PictureSize;
use aptum_formats::folded::{folded_png, folded_svg};
use image::{DynamicImage, ImageFormat, Rgb, RgbImage};

use crate::pictures::{coded, with_picture};

/// A picture on the front, seen in parallel from 32° to its side and 24° above: by the cosines and sines of these
/// angles (descriptive geometry, common practice).
#[test]
fn a_picture_on_the_front_stands_where_the_front_is_seen() {
    let magenta = RgbImage::from_pixel(40, 30, Rgb([255, 0, 255]));
    let bytes = coded(&DynamicImage::ImageRgb8(magenta), ImageFormat::Png);
    let (_, prepared, hand) = with_picture(&bytes, PictureSize::Width(20.0));
    let (width, height) = (20.0, 15.0);
    let png = folded_png(prepared.first(), "#fdfdfa", &hand).unwrap().unwrap();
    let seen = image::load_from_memory(&png).unwrap().to_rgba8();
    assert_eq!(seen.width().max(seen.height()), 1600);
    let svg = folded_svg(prepared.first(), "#fdfdfa", &hand).unwrap();
    let tall: f64 =
        svg.split("height=\"").nth(1).unwrap().split("mm").next().unwrap().parse().unwrap();
    let fine = f64::from(seen.height()) / tall;
    let of_it = |pixel: &image::Rgba<u8>| {
        let [red, green, blue, _] = pixel.0.map(i32::from);
        red - green > 90 && blue - green > 90
    };
    let found: Vec<(u32, u32)> = seen
        .enumerate_pixels()
        .filter(|(.., pixel)| of_it(pixel))
        .map(|(x, y, _)| (x, y))
        .collect();
    let (round, above) = (32f64.to_radians(), 24f64.to_radians());
    let area = found.len() as f64 / fine / fine;
    let expected = width * height * round.cos() * above.cos();
    assert!((area - expected).abs() < 0.02 * expected, "{area} for {expected} mm²");
    let span = |all: &mut dyn Iterator<Item = u32>| {
        let (least, most) = all.fold((u32::MAX, 0), |(a, b), own| (a.min(own), b.max(own)));
        f64::from(most + 1 - least) / fine
    };
    let across = span(&mut found.iter().map(|(x, _)| *x));
    let along = span(&mut found.iter().map(|(_, y)| *y));
    assert!((across - width * round.cos()).abs() < 0.15, "{across}");
    let expected = height * above.cos() + width * round.sin() * above.sin();
    assert!((along - expected).abs() < 0.15, "{along} for {expected}");
}
