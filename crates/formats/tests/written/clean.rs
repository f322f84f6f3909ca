//! Backgrounds and specks, against scikit-image's flood fill, threshold and labelling on pictures that its package ships
//! (`tools/reference/flooding.py`).

use std::path::Path;

use aptum_core::blob::BlobId;
use aptum_core::face::{Reach, Rework, ReworkStep, Reworked};
use aptum_formats::rework::reworked;
use serde_json::Value;
use sha2::{Digest, Sha256};

fn folder() -> std::path::PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).join("tests/reference")
}

/// What is left of a picture, a byte, 0 or 1, for each pixel.
fn left(bytes: &[u8], acts: Vec<Rework>) -> Vec<u8> {
    let steps = acts.into_iter().map(|act| ReworkStep { off: false, act }).collect();
    let how = Reworked { from: BlobId("0".repeat(64)), pixels: [1, 1], steps };
    let (picture, kept) = reworked(bytes, &how).unwrap();
    let pixels = picture.decoded(&kept).unwrap().into_rgba8();
    pixels.pixels().map(|pixel| u8::from(pixel.0[3] > 0)).collect()
}

fn is_as_told(mask: &[u8], told: &Value) -> bool {
    let count = mask.iter().filter(|own| **own == 1).count();
    told["count"] == count && told["sha256"] == hex::encode(Sha256::digest(mask))
}

#[test]
fn backgrounds_and_specks_are_what_scikit_image_finds() {
    let table = std::fs::read(folder().join("flooding.json")).unwrap();
    let table: Value = serde_json::from_slice(&table).unwrap();
    let cases = table["cases"].as_array().unwrap();
    assert!(cases.len() >= 30);
    let mut compared = 0;
    for case in cases {
        let bytes = std::fs::read(folder().join(case["picture"].as_str().unwrap())).unwrap();
        let sides = image::load_from_memory(&bytes).unwrap();
        let at =
            |axis: usize, side: u32| (case["seed"][axis].as_f64().unwrap() + 0.5) / f64::from(side);
        let seed = [at(0, sides.width()), at(1, sides.height())];
        // Half a step more than so many of 255.
        let tolerance = (case["tolerance"].as_f64().unwrap() + 0.5) / 2.55;
        let drop = |from: Reach, colour: Option<String>| Rework::Background {
            from,
            colour,
            tolerance: tolerance.min(100.0),
            soft: 0.0,
        };
        let dropped = |mut mask: Vec<u8>| {
            mask.iter_mut().for_each(|own| *own = 1 - *own);
            mask
        };
        if case["joined"]["count"].as_u64() == Some(u64::from(sides.width() * sides.height())) {
            continue;
        }
        let joined = drop(Reach::Point(seed), None);
        let mask = dropped(left(&bytes, vec![joined.clone()]));
        assert!(is_as_told(&mask, &case["joined"]), "{case:#}");
        compared += 1;
        for specks in case["specks"].as_array().unwrap() {
            if specks["count"] == 0 {
                continue;
            }
            let under = u32::try_from(specks["under"].as_u64().unwrap()).unwrap();
            let mask = left(&bytes, vec![joined.clone(), Rework::Specks { under }]);
            assert!(is_as_told(&mask, specks), "{case:#}");
        }
        let pixel = |axis: usize| u32::try_from(case["seed"][axis].as_u64().unwrap()).unwrap();
        let [red, green, blue] = sides.to_rgb8().get_pixel(pixel(0), pixel(1)).0;
        let colour = format!("#{red:02x}{green:02x}{blue:02x}");
        if case["everywhere"]["count"].as_u64() != Some(u64::from(sides.width() * sides.height())) {
            let mask = dropped(left(&bytes, vec![drop(Reach::Everywhere, Some(colour))]));
            assert!(is_as_told(&mask, &case["everywhere"]), "{case:#}");
        }
    }
    assert!(compared >= 26, "all but those that leave nothing: {compared}");
}
