//! Fits through marks, against those of scipy's least squares (tools/reference/fits.py; the table names the version).

use aptum_core::geometry::Point;
use aptum_core::rehearsal::fit;
use serde::Deserialize;

#[derive(Deserialize)]
struct Table {
    marks: Vec<[f64; 2]>,
    cases: Vec<Case>,
}

#[derive(Deserialize)]
struct Case {
    /// Where the marks were seen.
    seen: Vec<[f64; 2]>,
    /// Where the best fit puts them.
    places: Vec<[f64; 2]>,
    /// Its turn, degrees.
    turn: f64,
}

#[test]
fn fits_are_those_of_another_solver() {
    let table: Table = serde_json::from_str(include_str!("../reference/fits.json")).unwrap();
    let point = |own: &[f64; 2]| Point::new(own[0], own[1]);
    assert!(table.cases.len() >= 50);
    for case in &table.cases {
        let pairs: Vec<(Point, Point)> = table
            .marks
            .iter()
            .zip(&case.seen)
            .map(|(mark, seen)| (point(mark), point(seen)))
            .collect();
        let own = fit(&pairs).unwrap();
        for ((mark, _), place) in pairs.iter().zip(&case.places) {
            let off = (own.affine * *mark).distance(point(place));
            assert!(off < 1e-6, "{} marks: {off}", pairs.len());
        }
        assert!((own.turn - case.turn).abs() < 1e-5, "{} {}", own.turn, case.turn);
    }
}
