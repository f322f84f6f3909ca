//! Puts lines from standard input into order: `{"from": [x, y], "lines": [[[x, y], …], …]}`, closed where the first point
//! comes again at the end. Writes the travel in mm, the order, and how long that took in ms; with `"runs": N` also the
//! shortest travel of N runs with other seeds, each ten times as long. For comparisons.

use std::io::Read;
use std::time::Instant;

use aptum_core::geometry::Point;
use aptum_core::tooling::{Effort, Group, Strand, order, order_with, travel};
use serde::Deserialize;

#[derive(Deserialize)]
struct Asked {
    from: [f64; 2],
    lines: Vec<Vec<[f64; 2]>>,
    #[serde(default)]
    runs: u64,
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
    let Effort { tries, work, .. } = Effort::USUAL;
    let longer = (1..=asked.runs).map(|seed| {
        let effort = Effort { tries: 10 * tries, work: 10 * work, seed };
        travel(&strands, &order_with(&strands, from, &|_| Group::Between, effort), from)
    });
    let best = longer.reduce(f64::min);
    println!("{}", serde_json::json!({ "travel": far, "order": order, "ms": took, "best": best }));
    Ok(())
}
