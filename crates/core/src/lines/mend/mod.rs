//! Lines that are mended by hand: steps that stay a list, each of which can be taken back. Places and lengths are in
//! units of the file. Lines keep their numbers: one that is deleted is empty, and what is new comes after all others.

mod areas;
mod chain;
mod nodes;

use std::collections::BTreeSet;

use kurbo::{Arc, BezPath, Ellipse, ParamCurveArclen, Point, Rect, Shape, Vec2};
#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

pub use chain::Chain;

use super::{Group, Line, Lines, Look, MOST_LINES, Meaning};
use areas::Act;
use nodes::Refusal;

/// Most steps of one drawing.
pub const MOST_MENDS: usize = 1000;

/// Most lines that one step names.
const MOST_NAMED: usize = 2000;

/// How far out a place may lie, in units of the file.
const FARTHEST: f64 = 1e8;

/// A step of mending.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case", tag = "step")]
pub enum LineMend {
    /// Lines become what they are not by their layer and colour.
    Meaning {
        /// Which.
        lines: Vec<usize>,
        /// What they are.
        meaning: Meaning,
    },
    /// Lines are taken out.
    Delete {
        /// Which.
        lines: Vec<usize>,
    },
    /// A node goes elsewhere.
    Move {
        /// Which.
        line: usize,
        /// Its node.
        node: usize,
        /// Where it goes.
        to: [f64; 2],
    },
    /// The handle with which a curve leaves a node, or comes to it, goes elsewhere.
    Bend {
        /// Which.
        line: usize,
        /// Its node.
        node: usize,
        /// True for the one with which the curve leaves it.
        leaves: bool,
        /// Where it goes.
        to: [f64; 2],
    },
    /// A node is put in at a share of a segment.
    AddNode {
        /// Which.
        line: usize,
        /// Its segment.
        segment: usize,
        /// How far along it, 0 to 1.
        share: f64,
    },
    /// A node is taken out.
    DropNode {
        /// Which.
        line: usize,
        /// Its node.
        node: usize,
    },
    /// A node becomes a corner.
    Corner {
        /// Which.
        line: usize,
        /// Its node.
        node: usize,
    },
    /// A node becomes smooth.
    Smooth {
        /// Which.
        line: usize,
        /// Its node.
        node: usize,
    },
    /// A line is parted at a node.
    Split {
        /// Which.
        line: usize,
        /// Its node.
        node: usize,
    },
    /// The ends of a line, or of two lines, are joined.
    Join {
        /// Which.
        line: usize,
        /// The other line; none closes it.
        with: Option<usize>,
    },
    /// A segment runs straight.
    Straighten {
        /// Which.
        line: usize,
        /// Its segment.
        segment: usize,
    },
    /// A corner is rounded.
    Round {
        /// Which.
        line: usize,
        /// Its node.
        node: usize,
        /// How large the arc is.
        radius: f64,
    },
    /// The part of a line at a place goes, as far as another line.
    Trim {
        /// Which.
        line: usize,
        /// A place on the part that goes.
        at: [f64; 2],
        /// The line at which it ends.
        to: usize,
    },
    /// Lines have fewer nodes, and stray no farther than so much.
    Simplify {
        /// Which.
        lines: Vec<usize>,
        /// How far they may stray.
        within: f64,
    },
    /// A stroke becomes its outline.
    Outline {
        /// Which.
        lines: Vec<usize>,
        /// How wide the stroke is.
        width: f64,
    },
    /// Closed lines become the outline of all that they enclose.
    Unite {
        /// Which.
        lines: Vec<usize>,
        /// The others.
        with: Vec<usize>,
    },
    /// What the second lines enclose is taken away from what the first do.
    Subtract {
        /// What is kept.
        lines: Vec<usize>,
        /// What is taken away from it.
        with: Vec<usize>,
    },
    /// What both enclose.
    Intersect {
        /// Which.
        lines: Vec<usize>,
        /// The others.
        with: Vec<usize>,
    },
    /// Closed lines of a row become the outline of all that they enclose, without what lies inside.
    Silhouette {
        /// The row, as a line key knows it.
        row: String,
    },
    /// A line more.
    Add {
        /// What is added.
        figure: AddedLine,
        /// What it is.
        meaning: Meaning,
    },
}

/// A line that is added by figures.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case", tag = "figure")]
pub enum AddedLine {
    /// From place to place.
    Line {
        /// Where it begins.
        from: [f64; 2],
        /// Where it ends.
        to: [f64; 2],
    },
    /// From its top left corner, width and height.
    Rectangle {
        /// Where it lies.
        at: [f64; 2],
        /// Width and height.
        size: [f64; 2],
    },
    /// About its middle, width and height.
    Ellipse {
        /// Where it lies.
        at: [f64; 2],
        /// Width and height.
        size: [f64; 2],
    },
    /// About its middle, from an angle through an angle, degrees with the clock from the right.
    Arc {
        /// Where it lies.
        at: [f64; 2],
        /// How large the arc is.
        radius: f64,
        /// Where it begins, degrees.
        from: f64,
        /// How far it goes, degrees.
        through: f64,
    },
}

/// What a step came to.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct MendSaid {
    /// What was done, or why it could not be.
    pub words: String,
    /// True where it could be done.
    pub is_done: bool,
}

impl Lines {
    /// The lines after steps, in order, and what each of these came to. A step that cannot be taken changes nothing.
    #[must_use]
    pub fn mended(&self, mends: &[LineMend]) -> Self {
        let mut lines = self.clone();
        for mend in mends {
            let said = match lines.take(mend) {
                Ok(words) => MendSaid { words, is_done: true },
                Err(words) => MendSaid { words, is_done: false },
            };
            lines.mended.push(said);
        }
        lines
    }

    fn chain(&self, line: usize) -> Result<Chain, Refusal> {
        let path = &self.lines.get(line).ok_or("that line is not there")?.path;
        Chain::of(path).ok_or_else(|| "that line was taken out".to_owned())
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
                return Err(format!("the drawing would have more than {MOST_LINES} lines"));
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
                return Err("one of the lines is open: join its ends first".to_owned());
            }
            all.extend(chain.path().iter());
        }
        Ok(all)
    }

    fn take(&mut self, mend: &LineMend) -> Result<String, Refusal> {
        use LineMend as M;
        let one =
            |own: &mut Self, line: usize, change: &dyn Fn(Chain) -> Result<Chain, Refusal>| {
                let changed = change(own.chain(line)?)?;
                own.put(line, &changed);
                Ok::<usize, Refusal>(changed.nodes())
            };
        let says = |words: &str| Ok(words.to_owned());
        match mend {
            M::Meaning { lines, meaning } => {
                for (line, _) in self.chains(lines)? {
                    self.lines[line].told = Some(*meaning);
                }
                Ok(format!("{} {}", counted(lines.len()), meaning.name()))
            }
            M::Delete { lines } => {
                for (line, _) in self.chains(lines)? {
                    self.lines[line].path = BezPath::new();
                }
                Ok(format!("{} taken out", counted(lines.len())))
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
                    return Err("a line is joined to another, or closed".to_owned());
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
                    return Err("a line is trimmed to another".to_owned());
                }
                let parts = nodes::trimmed(&self.chain(*line)?, place(*at)?, &self.chain(*to)?)?;
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
                Ok(format!("outline of {}", counted(lines.len())))
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

    fn simplify(&mut self, lines: &[usize], within: f64) -> Result<String, Refusal> {
        let (mut before, mut after, mut off) = (0, 0, 0.0f64);
        for (line, own) in self.chains(lines)? {
            let (path, far) = areas::simplified(&own.path(), within);
            let Some(made) = Chain::of(&path) else { continue };
            before += own.nodes();
            after += made.nodes();
            off = off.max(far);
            self.put(line, &made);
        }
        Ok(format!("{before} nodes are {after}, {off:.3} units off at most"))
    }

    fn together(
        &mut self,
        act: Act,
        lines: &[usize],
        with: &[usize],
        words: &str,
    ) -> Result<String, Refusal> {
        if lines.iter().any(|line| with.contains(line)) {
            return Err("a line is on both sides".to_owned());
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
        Ok(format!("{words}: {outlines}"))
    }

    fn silhouette(&mut self, row: &str) -> Result<String, Refusal> {
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
        Ok(format!("{} closed are {many}, nothing inside", counted(closed.len())))
    }

    fn add(&mut self, figure: &AddedLine, meaning: Meaning) -> Result<String, Refusal> {
        let path = figure.path()?;
        let group =
            Group { layer: BY_HAND.to_owned(), colour: String::new(), look: Look::Hairline };
        let known = self.groups.iter().position(|own| *own == group);
        let group = known.unwrap_or_else(|| {
            self.groups.push(group);
            self.groups.len() - 1
        });
        if self.lines.len() >= MOST_LINES {
            return Err(format!("the drawing would have more than {MOST_LINES} lines"));
        }
        self.lines.push(Line { group, path, width: 0.0, told: Some(meaning) });
        Ok(format!("{} added", figure.name()))
    }
}

/// The layer of lines that were added.
const BY_HAND: &str = "added by hand";

impl AddedLine {
    const fn name(&self) -> &'static str {
        match self {
            Self::Line { .. } => "line",
            Self::Rectangle { .. } => "rectangle",
            Self::Ellipse { .. } => "ellipse",
            Self::Arc { .. } => "arc",
        }
    }

    fn path(&self) -> Result<BezPath, Refusal> {
        let closed = |mut path: BezPath| {
            if path.elements().last() != Some(&kurbo::PathEl::ClosePath) {
                path.close_path();
            }
            path
        };
        Ok(match self {
            Self::Line { from, to } => {
                let (from, to) = (place(*from)?, place(*to)?);
                length(from.distance(to))?;
                let mut path = BezPath::new();
                path.move_to(from);
                path.line_to(to);
                path
            }
            Self::Rectangle { at, size } => {
                let size = (length(size[0])?, length(size[1])?);
                closed(Rect::from_origin_size(place(*at)?, size).to_path(0.1))
            }
            Self::Ellipse { at, size } => {
                let radii = Vec2::new(length(size[0])?, length(size[1])?) / 2.0;
                let fine = radii.x.max(radii.y) * 1e-5;
                closed(Ellipse::new(place(*at)?, radii, 0.0).to_path(fine))
            }
            Self::Arc { at, radius, from, through } => {
                let radius = length(*radius)?;
                let is_turn = |degrees: &f64| degrees.abs() <= 360.0;
                if !is_turn(from) || !is_turn(through) || through.abs() < 0.01 {
                    return Err("an arc goes through 0.01 to 360 degrees".to_owned());
                }
                let arc = Arc::new(
                    place(*at)?,
                    (radius, radius),
                    from.to_radians(),
                    through.to_radians(),
                    0.0,
                );
                let path = arc.to_path(radius * 1e-5);
                if through.abs() > 359.99 { closed(path) } else { path }
            }
        })
    }
}

fn place(at: [f64; 2]) -> Result<Point, Refusal> {
    if at.iter().all(|own| own.abs() <= FARTHEST) {
        Ok(Point::new(at[0], at[1]))
    } else {
        Err("that place is nowhere near the drawing".to_owned())
    }
}

fn length(own: f64) -> Result<f64, Refusal> {
    if own > 1e-9 && own <= FARTHEST { Ok(own) } else { Err("a length is above 0".to_owned()) }
}

fn named(lines: &[usize]) -> Result<&[usize], Refusal> {
    if lines.is_empty() || lines.len() > MOST_NAMED {
        return Err(format!("{} are named: 1 to {MOST_NAMED}", counted(lines.len())));
    }
    Ok(lines)
}

fn counted(lines: usize) -> String {
    if lines == 1 { "1 line".to_owned() } else { format!("{lines} lines") }
}

/// A line that was pressed, for tools to work on.
#[derive(Debug, Clone, PartialEq)]
pub struct Picked {
    /// Its number.
    pub line: usize,
    /// What runs between its nodes.
    pub chain: Chain,
    /// How long it is.
    pub length: f64,
    /// Where the place is nearest by which it was found: its segment, and how far along that, 0 to 1.
    pub near: Option<(usize, f64)>,
}

impl Lines {
    /// A line by its number.
    #[must_use]
    pub fn picked(&self, line: usize) -> Option<Picked> {
        let chain = self.chain(line).ok()?;
        let length = chain.segments.iter().map(|own| own.arclen(1e-6)).sum();
        Some(Picked { line, chain, length, near: None })
    }

    /// The line nearest to a place, within a reach.
    #[must_use]
    pub fn nearest(&self, at: Point, reach: f64) -> Option<Picked> {
        use kurbo::ParamCurveNearest;
        let near = self.lines.iter().enumerate().filter_map(|(number, line)| {
            let around = line.path.control_box().inflate(reach, reach);
            if !around.contains(at) {
                return None;
            }
            let far = line.path.segments().map(|own| own.nearest(at, 1e-6).distance_sq);
            Some((far.min_by(f64::total_cmp)?, number))
        });
        let (far, number) = near.min_by(|one, other| one.0.total_cmp(&other.0))?;
        let mut found = self.picked(number).filter(|_| far.sqrt() <= reach)?;
        let segments = found.chain.segments.iter().map(|own| own.nearest(at, 1e-6));
        let near = segments
            .enumerate()
            .min_by(|one, other| one.1.distance_sq.total_cmp(&other.1.distance_sq));
        found.near = near.map(|(segment, near)| (segment, near.t));
        Some(found)
    }
}
