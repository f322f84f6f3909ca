//! Steps taken: each changes the lines, or nothing and says why.

use std::collections::BTreeSet;

use kurbo::BezPath;

use super::added::AddedLine;
use super::areas::{self, Act};
use super::chain::Chain;
use super::nodes;
use super::said::{Refusal, Said};
use super::step::LineMend;
use super::trim::trimmed;
use super::{MendSaid, counted, length, named, place};
use crate::lines::{Group, Line, Lines, Look, MOST_LINES, Meaning};

/// The layer of lines that were added.
const BY_HAND: &str = "added by hand";

impl Lines {
    /// The lines after steps, in order, and what each of these came to. A step that cannot be taken changes nothing.
    #[must_use]
    pub fn mended(&self, mends: &[LineMend]) -> Self {
        let told = |Said { words, length }: Said, is_done| MendSaid { words, length, is_done };
        let mut lines = self.clone();
        for mend in mends {
            let said = match lines.take(mend) {
                Ok(said) => told(said, true),
                Err(said) => told(said, false),
            };
            lines.mended.push(said);
        }
        lines
    }

    pub(super) fn chain(&self, line: usize) -> Result<Chain, Refusal> {
        let path = &self.lines.get(line).ok_or("that line is not there")?.path;
        Chain::of(path).ok_or_else(|| "that line was taken out".into())
    }

    fn put(&mut self, line: usize, chain: &Chain) {
        self.lines[line].path = chain.path();
    }

    /// More lines that are what another is.
    fn push(
        &mut self,
        like: usize,
        paths: impl IntoIterator<Item = BezPath>,
    ) -> Result<(), Refusal> {
        let like = self.lines[like].clone();
        for path in paths {
            if self.lines.len() >= MOST_LINES {
                return Err(format!("the drawing would have more than {MOST_LINES} lines").into());
            }
            self.lines.push(Line { path, ..like.clone() });
        }
        Ok(())
    }

    /// Several lines with their numbers, each once.
    fn chains(&self, lines: &[usize]) -> Result<Vec<(usize, Chain)>, Refusal> {
        let lines: BTreeSet<usize> = named(lines)?.iter().copied().collect();
        lines.into_iter().map(|line| Ok((line, self.chain(line)?))).collect()
    }

    /// All of several lines as one path.
    fn paths(&self, lines: &[usize]) -> Result<BezPath, Refusal> {
        let mut all = BezPath::new();
        for (_, chain) in self.chains(lines)? {
            if !chain.is_closed {
                return Err("one of the lines is open: join its ends first".into());
            }
            all.extend(chain.path().iter());
        }
        Ok(all)
    }

    fn take(&mut self, mend: &LineMend) -> Result<Said, Refusal> {
        use LineMend as M;
        let one =
            |own: &mut Self, line: usize, change: &dyn Fn(Chain) -> Result<Chain, Refusal>| {
                let changed = change(own.chain(line)?)?;
                own.put(line, &changed);
                Ok::<usize, Refusal>(changed.nodes())
            };
        let says = |words: &str| Ok(words.into());
        match mend {
            M::Meaning { lines, meaning } => {
                for (line, _) in self.chains(lines)? {
                    self.lines[line].told = Some(*meaning);
                }
                Ok(format!("{} {}", counted(lines.len()), meaning.name()).into())
            }
            M::Delete { lines } => {
                for (line, _) in self.chains(lines)? {
                    self.lines[line].path = BezPath::new();
                }
                Ok(format!("{} taken out", counted(lines.len())).into())
            }
            M::Move { line, node, to } => {
                let to = place(*to)?;
                one(self, *line, &|own| nodes::moved(own, *node, to))?;
                says("node moved")
            }
            M::Bend { line, node, leaves, to } => {
                let to = place(*to)?;
                one(self, *line, &|own| nodes::bent(own, *node, *leaves, to))?;
                says("curve bent")
            }
            M::AddNode { line, segment, share } => {
                one(self, *line, &|own| nodes::added(own, *segment, *share))?;
                says("node put in")
            }
            M::DropNode { line, node } => {
                one(self, *line, &|own| nodes::dropped(own, *node))?;
                says("node taken out")
            }
            M::Corner { line, node } => {
                one(self, *line, &|own| nodes::cornered(own, *node))?;
                says("node made a corner")
            }
            M::Smooth { line, node } => {
                one(self, *line, &|own| nodes::smoothed(own, *node))?;
                says("node made smooth")
            }
            M::Straighten { line, segment } => {
                one(self, *line, &|own| nodes::straightened(own, *segment))?;
                says("made straight")
            }
            M::Round { line, node, radius } => {
                let radius = length(*radius)?;
                one(self, *line, &|own| nodes::rounded(own, *node, radius))?;
                says("corner rounded")
            }
            M::Split { line, node } => {
                let parts = nodes::split(self.chain(*line)?, *node)?;
                self.replace(*line, &parts)?;
                says("parted")
            }
            M::Join { line, with } => {
                let own = self.chain(*line)?;
                let other = with.map(|with| self.chain(with)).transpose()?;
                if *with == Some(*line) {
                    return Err("a line is joined to another, or closed".into());
                }
                let joined = nodes::joined_ends(own, other)?;
                self.put(*line, &joined);
                if let Some(with) = with {
                    self.lines[*with].path = BezPath::new();
                }
                says(if with.is_some() { "joined" } else { "closed" })
            }
            M::Trim { line, at, to } => {
                if line == to {
                    return Err("a line is trimmed to another".into());
                }
                let parts = trimmed(&self.chain(*line)?, place(*at)?, &self.chain(*to)?)?;
                self.replace(*line, &parts)?;
                says("trimmed")
            }
            M::Simplify { lines, within } => self.simplify(lines, length(*within)?),
            M::Outline { lines, width } => {
                let width = length(*width)?;
                let drawn = self
                    .chains(lines)?
                    .into_iter()
                    .map(|(line, own)| Ok((line, areas::outlined(&own.path(), width)?)));
                // All or none.
                for (line, drawn) in drawn.collect::<Result<Vec<_>, Refusal>>()? {
                    self.replace_paths(line, drawn)?;
                }
                Ok(format!("outline of {}", counted(lines.len())).into())
            }
            M::Unite { lines, with } => self.together(Act::Unite, lines, with, "united"),
            M::Subtract { lines, with } => self.together(Act::Subtract, lines, with, "taken away"),
            M::Intersect { lines, with } => self.together(Act::Intersect, lines, with, "in common"),
            M::Silhouette { row } => self.silhouette(row),
            M::Add { figure, meaning } => self.add(figure, *meaning),
        }
    }

    /// A line becomes several: the first in its place.
    fn replace(&mut self, line: usize, parts: &[Chain]) -> Result<(), Refusal> {
        self.replace_paths(line, parts.iter().map(Chain::path).collect())
    }

    fn replace_paths(&mut self, line: usize, paths: Vec<BezPath>) -> Result<(), Refusal> {
        let mut paths = paths.into_iter();
        self.lines[line].path = paths.next().unwrap_or_default();
        self.push(line, paths)
    }

    fn simplify(&mut self, lines: &[usize], within: f64) -> Result<Said, Refusal> {
        let (mut before, mut after, mut off) = (0, 0, 0.0f64);
        for (line, own) in self.chains(lines)? {
            let (path, far) = areas::simplified(&own.path(), within);
            let Some(made) = Chain::of(&path) else { continue };
            before += own.nodes();
            after += made.nodes();
            off = off.max(far);
            self.put(line, &made);
        }
        Ok(Said::of(&format!("{before} nodes are {after}, {{}} off at most"), off))
    }

    fn together(
        &mut self,
        act: Act,
        lines: &[usize],
        with: &[usize],
        words: &str,
    ) -> Result<Said, Refusal> {
        if lines.iter().any(|line| with.contains(line)) {
            return Err("a line is on both sides".into());
        }
        let (kept, other) = (self.paths(lines)?, self.paths(with)?);
        let drawn = areas::put_together(act, &kept, &other)?;
        let first = *lines.first().ok_or("no line is named")?;
        for line in lines.iter().chain(with).filter(|line| **line != first) {
            self.lines[*line].path = BezPath::new();
        }
        let outlines = drawn.len();
        self.replace_paths(first, drawn)?;
        let outlines =
            if outlines == 1 { "1 outline".to_owned() } else { format!("{outlines} outlines") };
        Ok(format!("{words}: {outlines}").into())
    }

    fn silhouette(&mut self, row: &str) -> Result<Said, Refusal> {
        let group = self.groups.iter().position(|group| group.id() == row);
        let group = group.ok_or("that row is not there")?;
        let closed: Vec<usize> = (0..self.lines.len())
            .filter(|at| self.lines[*at].group == group)
            .filter(|at| self.chain(*at).is_ok_and(|own| own.is_closed))
            .collect();
        let first = *closed.first().ok_or("nothing in that row is closed")?;
        let mut all = BezPath::new();
        for at in &closed {
            all.extend(self.lines[*at].path.iter());
        }
        let drawn = areas::silhouette(&all)?;
        for at in &closed {
            self.lines[*at].path = BezPath::new();
        }
        let outlines = drawn.len();
        self.replace_paths(first, drawn)?;
        let many =
            if outlines == 1 { "1 outline".to_owned() } else { format!("{outlines} outlines") };
        Ok(format!("{} closed are {many}, nothing inside", counted(closed.len())).into())
    }

    fn add(&mut self, figure: &AddedLine, meaning: Meaning) -> Result<Said, Refusal> {
        let path = figure.path()?;
        let group =
            Group { layer: BY_HAND.to_owned(), colour: String::new(), look: Look::Hairline };
        let known = self.groups.iter().position(|own| *own == group);
        let group = known.unwrap_or_else(|| {
            self.groups.push(group);
            self.groups.len() - 1
        });
        if self.lines.len() >= MOST_LINES {
            return Err(format!("the drawing would have more than {MOST_LINES} lines").into());
        }
        self.lines.push(Line { group, path, width: 0.0, told: Some(meaning) });
        Ok(format!("{} added", figure.name()).into())
    }
}
