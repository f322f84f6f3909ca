//! Puts lines from standard input into order: `{"from": [x, y], "lines": [[[x, y], …], …]}`, closed where the first point
//! comes again at the end. Writes the travel in mm, the order, and how long that took in ms. For comparisons.

use std::io::Read;
use std::time::Instant;

use aptum_core::geometry::Point;
use aptum_core::tooling::{Group, Strand, order, travel};
use serde::Deserialize;

#[derive(Deserialize)]
struct Asked {
    from: [f64; 2],
    lines: Vec<Vec<[f64; 2]>>,
}

fn main() -> Result<(), Box<dyn std::error::Error>> {
    let mut text = String::new();
    std::io::stdin().read_to_string(&mut text)?;
    let asked: Asked = serde_json::from_str(&text)?;
    let strands: Vec<Strand> = asked
        .lines
        .into_iter()
        .map(|line| {
            let points: Vec<Point> = line.into_iter().map(|[x, y]| Point::new(x, y)).collect();
            let is_closed = points.len() > 2 && points.first() == points.last();
            Strand { points, is_closed }
        })
        .collect();
    let from = Point::new(asked.from[0], asked.from[1]);
    let began = Instant::now();
    let turns = order(&strands, from, &|_| Group::Between);
    let took = began.elapsed().as_secs_f64() * 1000.0;
    let far = travel(&strands, &turns, from);
    let order: Vec<usize> = turns.iter().map(|turn| turn.strand).collect();
    println!("{}", serde_json::json!({ "travel": far, "order": order, "ms": took }));
    Ok(())
}
