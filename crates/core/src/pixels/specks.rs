//! Spots that hang together, corners included.

use std::ops::Range;

use super::Pixels;

impl Pixels {
    /// Makes spots of fewer than `under` pixels clear.
    pub(super) fn drop_specks(&mut self, under: usize) {
        let mut spots = Spots::default();
        let mut above: Range<usize> = 0..0;
        let mut starts = Vec::new();
        for row in self.all().chunks_exact(self.width) {
            let first = spots.runs.len();
            let mut at = 0;
            while let Some(step) = row[at..].iter().position(|pixel| pixel[3] > 0) {
                let from = at + step;
                at = row[from..].iter().position(|own| own[3] == 0).map_or(row.len(), |n| from + n);
                spots.add(from..at);
            }
            spots.join(above, first);
            above = first..spots.runs.len();
            starts.push(first);
        }
        starts.push(spots.runs.len());
        let size = spots.sizes();
        let width = self.width;
        for (row, ends) in self.all_mut().chunks_exact_mut(width).zip(starts.windows(2)) {
            for run in ends[0]..ends[1] {
                if size[run] < under {
                    row[spots.runs[run].clone()].iter_mut().for_each(|pixel| pixel[3] = 0);
                }
            }
        }
    }
}

/// Stretches of rows, and which of them hang together.
#[derive(Default)]
struct Spots {
    runs: Vec<Range<usize>>,
    parent: Vec<usize>,
}

impl Spots {
    fn add(&mut self, run: Range<usize>) {
        self.parent.push(self.runs.len());
        self.runs.push(run);
    }

    /// Joins the runs from `first` on with those of the row above that they touch.
    fn join(&mut self, above: Range<usize>, first: usize) {
        let mut upper = above.start;
        for lower in first..self.runs.len() {
            let own = self.runs[lower].clone();
            while upper < above.end && self.runs[upper].end < own.start {
                upper += 1;
            }
            let mut next = upper;
            while next < above.end && self.runs[next].start <= own.end {
                let (a, b) = (self.root(lower), self.root(next));
                self.parent[a.max(b)] = a.min(b);
                next += 1;
            }
        }
    }

    fn root(&mut self, mut run: usize) -> usize {
        while self.parent[run] != run {
            self.parent[run] = self.parent[self.parent[run]];
            run = self.parent[run];
        }
        run
    }

    /// How many pixels the spot of each run has.
    fn sizes(&mut self) -> Vec<usize> {
        let mut size = vec![0; self.runs.len()];
        for run in 0..self.runs.len() {
            let root = self.root(run);
            size[root] += self.runs[run].len();
        }
        (0..self.runs.len()).map(|run| size[self.root(run)]).collect()
    }
}
