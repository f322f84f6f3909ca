//! Drawings that were damaged on the way: bytes flipped, cut out, doubled, put together from others, figures that are
//! none. Each is read, or refused in words; `APTUM_MUTANTS` says how many each reader is given.

use std::time::{Duration, Instant};

use aptum_formats::lines::{brought, kept, look_at};

/// Given to each reader in an ordinary run.
const USUAL: u64 = 300;

/// A reader that takes longer hangs, where many are tried.
const HANG: Duration = Duration::from_secs(2);

/// What a drawing is made of, and what none should be.
const TOKENS: [&str; 22] = [
    "1e300",
    "-1e300",
    "NaN",
    "inf",
    "0",
    "-0",
    "1e-300",
    "99999999999999999999",
    "M0 0",
    "L1e9 1e9",
    "Z",
    "<use href=\"#a\"/>",
    "<g id=\"a\">",
    "</g>",
    "transform=\"scale(0)\"",
    "\n  0\nSECTION\n",
    "\n  0\nINSERT\n",
    "\n 42\n1e300\n",
    "\"edges_vertices\":[[0,99999]]",
    "[null,null]",
    "stream\n",
    "endobj\n",
];

/// A general-purpose generator of random numbers (xorshift64*, Vigna 2016).
struct Random(u64);

impl Random {
    fn next(&mut self) -> u64 {
        self.0 ^= self.0 >> 12;
        self.0 ^= self.0 << 25;
        self.0 ^= self.0 >> 27;
        self.0.wrapping_mul(0x2545_F491_4F6C_DD1D)
    }

    fn below(&mut self, most: usize) -> usize {
        usize::try_from(self.next() % u64::try_from(most.max(1)).unwrap()).unwrap()
    }
}

/// Whole files, by who reads them.
fn corpus() -> [(&'static str, Vec<Vec<u8>>); 5] {
    let svg = include_bytes!("../../../../demo/drawings/seedling-tray.svg").to_vec();
    let fold = include_bytes!("../../../../demo/drawings/fold-out-star.fold").to_vec();
    let of_table = |name: &str| std::fs::read(crate::drawings::folder().join(name)).unwrap();
    let pdf = include_bytes!("broken/small.pdf").to_vec();
    let small = br##"<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="20mm" viewBox="0 0 40 20">
        <defs><clipPath id="c"><circle cx="9" cy="9" r="6"/></clipPath>
        <symbol id="s" viewBox="0 0 10 10"><path d="M1 1h8v8z" stroke="red"/></symbol></defs>
        <style>.k{stroke:#00f;stroke-width:0}</style><g id="cut" transform="rotate(9) skewX(4)">
        <path class="k" d="M0 0c1 2 3 4 5 6s7 8 9 1q2 3 4 5t6 7a5 4 30 1 0 9 9z"/></g>
        <g clip-path="url(#c)"><rect width="30" height="20"/></g><use href="#s" width="12" height="9"/>
        <text x="3" y="9">Fen</text></svg>"##
        .to_vec();
    let read = kept(&brought(&small, 1).unwrap());
    let dxf = ["old.dxf", "millimetres.dxf", "inches.dxf"].map(of_table);
    [
        ("SVG", vec![svg, small, of_table("transforms.svg")]),
        ("PDF", vec![pdf]),
        ("DXF", dxf.to_vec()),
        ("FOLD", vec![fold]),
        ("kept lines", vec![read]),
    ]
}

/// A file of one's own, damaged, with parts of any.
fn mutated(random: &mut Random, own: &[Vec<u8>], all: &[&Vec<u8>]) -> Vec<u8> {
    let mut bytes = own[random.below(own.len())].clone();
    for _ in 0..=random.below(6) {
        let at = random.below(bytes.len());
        let long = random.below(40).min(bytes.len() - at);
        match random.below(6) {
            0 => bytes[at] ^= 1 << random.below(8),
            1 => drop(bytes.drain(at..at + long)),
            2 => {
                let again = bytes[at..at + long].to_vec();
                for _ in 0..=random.below(20) {
                    bytes.splice(at..at, again.iter().copied());
                }
            }
            3 => {
                drop(
                    bytes.splice(at..at + long.min(8), TOKENS[random.below(TOKENS.len())].bytes()),
                );
            }
            4 => {
                let other = all[random.below(all.len())];
                let from = random.below(other.len());
                let part = &other[from..(from + random.below(400)).min(other.len())];
                drop(bytes.splice(at..at, part.iter().copied()));
            }
            _ => bytes.truncate(at.max(1)),
        }
        if bytes.is_empty() {
            bytes.push(b'<');
        }
    }
    bytes
}

#[test]
fn damaged_drawings_are_read_or_refused_in_words() {
    let told = std::env::var("APTUM_MUTANTS").ok().and_then(|count| count.parse::<u64>().ok());
    let seed = std::env::var("PROPTEST_RNG_SEED").ok().and_then(|seed| seed.parse().ok());
    let mut random = Random(seed.unwrap_or(20_261_129u64) | 1);
    let corpus = corpus();
    let all: Vec<&Vec<u8>> = corpus.iter().flat_map(|(_, files)| files).collect();
    for (reader, own) in &corpus {
        damaged(reader, told, || mutated(&mut random, own, &all));
    }
}

fn damaged(reader: &str, told: Option<u64>, mut next: impl FnMut() -> Vec<u8>) {
    let mut read = 0;
    for _ in 0..told.unwrap_or(USUAL) {
        let bytes = next();
        let since = Instant::now();
        let told_to_look = bytes.starts_with(b"{\"drawing_lines\"");
        let seen = if told_to_look { look_at(&bytes) } else { brought(&bytes, 1) };
        let took = since.elapsed();
        // Where few are tried, other tests may hold this one up.
        let shown = || String::from_utf8_lossy(&bytes).into_owned();
        assert!(told.is_none() || took < HANG, "{reader}, {took:?}: {}", shown());
        match seen {
            Ok(lines) => {
                lines.checked().unwrap();
                read += 1;
            }
            Err(error) => {
                let said = error.to_string();
                assert!(said.len() > 10 && said.chars().count() < 600, "{said}");
            }
        }
    }
    assert!(read > 0, "{reader}: some are only a little damaged");
}
