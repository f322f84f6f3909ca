//! Operations: what is done along the lines of each kind, or of a share of them, in the order of work; with which tool in
//! which station, with which settings, and what a person does before.

use std::collections::{BTreeMap, BTreeSet};
use std::sync::Arc;

use super::plan::{CutPlan, PlannedStroke};
use crate::LineKind;
use crate::id::PieceId;
use crate::job::{Moment, OperationId, OperationSay, Reverse, Share, Tooling};
use crate::workshop::{Cutter, DepthSetting, Force, Keeping, Recipe, RecordId, Stock, Tool};

/// Lines that operations cannot tell apart.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord)]
pub struct LineClass {
    /// What happens along them.
    pub kind: LineKind,
    /// True for the blanks' own outlines.
    pub is_edge: bool,
    /// The piece that they are on.
    pub piece: PieceId,
    /// The layer and colour of a drawing that they are of.
    pub drawn: Option<Arc<str>>,
    /// The card that it is made of.
    pub stock: RecordId,
}

/// What works the lines: the cutter, and what is known of working with it.
#[derive(Debug, Clone, Copy)]
pub struct Machine<'a> {
    /// Which cutter it is.
    pub id: &'a RecordId,
    /// The cutter.
    pub cutter: &'a Cutter,
    /// The workshop's recipes.
    pub recipes: &'a BTreeMap<RecordId, Recipe>,
}

/// What a person does before an operation.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Before {
    /// Loads the sheet, as it lies now.
    Load,
    /// Puts the tool into the station.
    Tool,
    /// Turns the blade to its depth.
    Depth,
    /// Puts the cap for the depth on.
    Cap,
}

/// A figure of an operation.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Setting {
    /// The force.
    Force,
    /// The speed.
    Speed,
    /// The passes.
    Passes,
    /// The blade's depth.
    Depth,
}

/// What is done along the lines of a kind, or of a share of them.
#[derive(Debug, Clone, PartialEq)]
pub struct Operation {
    /// What it is known by.
    pub id: OperationId,
    /// The kind.
    pub kind: LineKind,
    /// Which lines of the kind.
    pub share: Share,
    /// What it is done with.
    pub tool: Tool,
    /// Which of the cutter's stations holds that; `None` where none does.
    pub station: Option<usize>,
    /// The force; `None` leaves it to the machine.
    pub force: Option<Force>,
    /// The speed, mm/s; `None` leaves it to the machine.
    pub speed: Option<f64>,
    /// How often the tool goes along each line.
    pub passes: u32,
    /// The blade's depth, in the station's steps; `None` leaves it as it is.
    pub depth: Option<f64>,
    /// True where it is not done.
    pub is_off: bool,
    /// When it is done.
    pub when: Moment,
    /// How reverse creases are made.
    pub reverse: Reverse,
    /// In which loading of the sheet it is done, from 0.
    pub loading: usize,
    /// What is done before it.
    pub before: Vec<Before>,
    /// The cards that it works.
    pub stocks: BTreeSet<RecordId>,
    /// The pieces of its card, where the job is made of several and it works those of one.
    pub pieces: BTreeSet<PieceId>,
    /// What that card is called.
    pub card: Option<String>,
    /// The recipe that it goes by.
    pub recipe: Option<RecordId>,
    /// Which figures the job says otherwise than the recipe.
    pub differs: Vec<Setting>,
}

impl Operation {
    /// True where the sheet lies with its back up.
    #[must_use]
    pub fn is_from_behind(&self) -> bool {
        self.kind == LineKind::ReverseCrease && self.reverse == Reverse::FromBehind
    }

    /// What it is called.
    #[must_use]
    pub fn name(&self) -> String {
        let kind = self.kind.name();
        let own = match &self.share {
            Share::Rest | Share::Card(_) => kind.to_owned(),
            Share::Edge | Share::EdgeOn(_) => format!("{kind}, outlines"),
            Share::Piece(piece) => format!("{kind}, {piece}"),
            Share::Drawn(group) => format!("{kind}, {group}"),
        };
        match &self.card {
            Some(card) => format!("{own}, {card}"),
            None => own,
        }
    }
}

/// The tool for a kind of line.
#[must_use]
pub const fn tool_for(kind: LineKind, reverse: Reverse) -> Tool {
    match (kind, reverse) {
        (LineKind::ReverseCrease, Reverse::Scored | Reverse::Perforated) => Tool::DragKnife,
        (LineKind::Crease | LineKind::ReverseCrease, _) => Tool::Creaser,
        _ => Tool::DragKnife,
    }
}

/// The operation that works lines, among those of a job; `None` where none does. Lines that are on no piece, as in the
/// waste, lie on the card of the piece `beside` them.
fn operation_of(
    operations: &[Operation],
    kind: LineKind,
    is_edge: bool,
    (piece, beside): (Option<&PieceId>, Option<&PieceId>),
    drawn: Option<&str>,
) -> Option<usize> {
    let is_on_card = |own: &Operation| {
        own.card.is_none() || piece.or(beside).is_some_and(|id| own.pieces.contains(id))
    };
    let fits = |own: &Operation| match &own.share {
        Share::Rest => Some(0),
        Share::Card(_) => is_on_card(own).then_some(1),
        Share::Edge => is_edge.then_some(2),
        Share::EdgeOn(_) => (is_edge && is_on_card(own)).then_some(3),
        Share::Piece(id) => (piece == Some(id)).then_some(4),
        Share::Drawn(group) => (drawn == Some(group.as_str())).then_some(5),
    };
    let own = operations.iter().enumerate().filter(|(_, own)| own.kind == kind);
    own.filter_map(|(at, own)| Some((fits(own)?, at))).max_by_key(|own| own.0).map(|own| own.1)
}

/// The operation of a planned stroke.
#[must_use]
pub fn works(operations: &[Operation], stroke: &PlannedStroke, plan: &CutPlan) -> Option<usize> {
    let piece = |own: &PlannedStroke| own.copy.and_then(|_| plan.pieces.get(own.blank));
    let own = piece(stroke);
    // A sheet is of one card.
    let beside = if own.is_some() { None } else { plan.strokes.iter().find_map(piece) };
    operation_of(operations, stroke.kind, stroke.is_edge, (own, beside), stroke.drawn.as_deref())
}

/// The cards that lines of a kind are on, as the pieces come: where there are several, each is worked its own way.
struct Cards<'a> {
    in_order: Vec<&'a RecordId>,
    classes: &'a BTreeSet<LineClass>,
    stocks: &'a BTreeMap<RecordId, Stock>,
}

impl<'a> Cards<'a> {
    fn of(
        of_kind: &[&'a LineClass],
        classes: &'a BTreeSet<LineClass>,
        stocks: &'a BTreeMap<RecordId, Stock>,
    ) -> Self {
        let named: BTreeSet<&RecordId> = of_kind.iter().map(|class| &class.stock).collect();
        let mut cards = Self { in_order: Vec::new(), classes, stocks };
        let mut in_order: Vec<&RecordId> = named.into_iter().collect();
        in_order.sort_by_key(|stock| cards.pieces(stock).min());
        cards.in_order = in_order;
        cards
    }

    fn pieces(&self, stock: &RecordId) -> impl Iterator<Item = &'a PieceId> + use<'a> {
        let stock = stock.clone();
        self.classes.iter().filter(move |class| class.stock == stock).map(|class| &class.piece)
    }

    /// What is not split off, of each: what is said of the kind is said of the first.
    fn rests(&self) -> impl Iterator<Item = Share> {
        let others = self.in_order.iter().skip(1);
        std::iter::once(Share::Rest).chain(others.map(|stock| Share::Card((*stock).clone())))
    }

    /// An operation with the card that it is of, where there are several; `None` where that card has no such lines.
    fn told(&self, own: Operation) -> Option<Operation> {
        let (first, others) = self.in_order.split_first()?;
        let card: &RecordId = match &own.share {
            Share::Rest => first,
            Share::Card(stock) => others.iter().find(|other| **other == stock)?,
            Share::EdgeOn(stock) => self.in_order.iter().find(|card| **card == stock)?,
            Share::Edge | Share::Piece(_) | Share::Drawn(_) => return Some(own),
        };
        if others.is_empty() {
            return Some(own);
        }
        let name = self.stocks.get(card).map_or_else(|| card.0.clone(), |own| own.name.clone());
        Some(Operation { pieces: self.pieces(card).cloned().collect(), card: Some(name), ..own })
    }
}

/// The operations for the lines of a job, in the order in which they run, on cards that `stocks` names.
#[must_use]
pub fn operations(
    classes: &BTreeSet<LineClass>,
    stocks: &BTreeMap<RecordId, Stock>,
    tooling: &Tooling,
    machine: Option<Machine<'_>>,
) -> Vec<Operation> {
    let mut all: Vec<Operation> = Vec::new();
    for kind in LineKind::IN_ORDER.into_iter().filter(|kind| *kind != LineKind::Guide) {
        let of_kind: Vec<&LineClass> = classes.iter().filter(|own| own.kind == kind).collect();
        let cards = Cards::of(&of_kind, classes, stocks);
        let split = tooling.operations.keys().filter_map(|id| id.parts());
        let split = split.filter(|(own, share)| *own == kind && !share.is_rest());
        let split = split.map(|(_, share)| share).chain(cards.rests());
        let mut shares: Vec<Share> = split.collect();
        // What is split off comes before the rest, and what lies inside before outlines.
        shares.sort_by_key(|share| (share.is_edge(), share.is_rest()));
        let begun = shares.into_iter().filter_map(|share| cards.told(begun(kind, share, tooling)));
        let mut begun: Vec<Operation> = begun.collect();
        // Each with the lines that it works; one without any is none.
        for class in of_kind {
            let (drawn, piece) = (class.drawn.as_deref(), Some(&class.piece));
            if let Some(at) = operation_of(&begun, kind, class.is_edge, (piece, None), drawn) {
                begun[at].stocks.insert(class.stock.clone());
            }
        }
        all.extend(begun.into_iter().filter(|own| !own.stocks.is_empty()));
    }
    all.sort_by_key(|own| (own.when, !own.is_from_behind()));
    rearrange(&mut all, &tooling.order);
    // What comes before the print comes before it, whatever the order says.
    all.sort_by_key(|own| own.when);
    if let Some(machine) = machine {
        all.iter_mut().for_each(|own| furnish(own, &tooling.of(&own.id), machine));
    }
    prepare_each(&mut all, machine.map(|machine| machine.cutter));
    all
}

/// An operation before anybody knows what works it.
fn begun(kind: LineKind, share: Share, tooling: &Tooling) -> Operation {
    let id = OperationId::new(kind, &share);
    let say = tooling.of(&id);
    let reverse = say.reverse.unwrap_or(Reverse::Pressed);
    Operation {
        kind,
        share,
        tool: tool_for(kind, reverse),
        station: None,
        force: say.force,
        speed: say.speed,
        passes: say.passes.unwrap_or(1).max(1),
        depth: say.depth,
        is_off: say.off,
        when: say.when.unwrap_or_default(),
        reverse,
        loading: 0,
        before: Vec::new(),
        stocks: BTreeSet::new(),
        pieces: BTreeSet::new(),
        card: None,
        recipe: None,
        differs: Vec::new(),
        id,
    }
}

/// Puts those that an order names into its order, in the places that they have together.
fn rearrange(all: &mut [Operation], order: &[OperationId]) {
    let mut named: Vec<Operation> = Vec::new();
    for id in order {
        let is_new = !named.iter().any(|own| own.id == *id);
        named.extend(all.iter().find(|own| is_new && own.id == *id).cloned());
    }
    let places: Vec<usize> =
        (0..all.len()).filter(|at| named.iter().any(|own| own.id == all[*at].id)).collect();
    for (place, own) in places.into_iter().zip(named) {
        all[place] = own;
    }
}

/// The station and the recipe of an operation.
fn furnish(own: &mut Operation, say: &OperationSay, machine: Machine<'_>) {
    let stations = &machine.cutter.stations;
    let holds = |at: &usize| stations.get(*at).is_some_and(|each| each.tools.contains(&own.tool));
    own.station = match &say.station {
        Some(name) => stations.iter().position(|each| each.name == *name).filter(holds),
        None => (0..stations.len()).find(holds),
    };
    let mut stocks = own.stocks.iter();
    let (Some(stock), None) = (stocks.next(), stocks.next()) else { return };
    let Some((id, recipe)) = recipe_for(machine, stock, own.tool, own.kind) else { return };
    own.recipe = Some(id.clone());
    let mut differs = Vec::new();
    let mut note = |is_other: bool, setting: Setting| {
        if is_other {
            differs.push(setting);
        }
    };
    note(say.force.is_some() && say.force != recipe.force, Setting::Force);
    note(say.speed.is_some() && say.speed != recipe.speed, Setting::Speed);
    note(say.passes.is_some_and(|passes| passes != recipe.passes), Setting::Passes);
    note(say.depth.is_some() && say.depth != recipe.depth, Setting::Depth);
    own.differs = differs;
    own.force = say.force.or(recipe.force);
    own.speed = say.speed.or(recipe.speed);
    own.passes = say.passes.unwrap_or(recipe.passes).max(1);
    own.depth = say.depth.or(recipe.depth);
}

/// The recipe for a kind of line: those at hand first, of these the one that worked last.
#[must_use]
pub fn recipe_for<'a>(
    machine: Machine<'a>,
    stock: &RecordId,
    tool: Tool,
    kind: LineKind,
) -> Option<(&'a RecordId, &'a Recipe)> {
    let fitting = machine.recipes.iter().filter(|(_, own)| {
        own.keeping.is_offered()
            && own.stock == *stock
            && own.cutter == *machine.id
            && own.tool == tool
            && own.line == kind
    });
    fitting.max_by(|(one_id, one), (other_id, other)| {
        let near = |own: &Recipe| own.keeping == Keeping::AtHand;
        near(one)
            .cmp(&near(other))
            .then_with(|| one.worked.cmp(&other.worked))
            .then_with(|| other_id.cmp(one_id))
    })
}

/// Loadings, and what a person does before each operation.
fn prepare_each(all: &mut [Operation], cutter: Option<&Cutter>) {
    let mut lies: Option<(Moment, bool)> = None;
    let mut loading = 0;
    let count = cutter.map_or(0, |cutter| cutter.stations.len());
    let mut held: Vec<Option<Tool>> = vec![None; count];
    let mut deep: Vec<Option<f64>> = vec![None; count];
    for own in all {
        let now = (own.when, own.is_from_behind());
        own.loading = loading;
        if own.is_off {
            continue;
        }
        if lies.is_some_and(|before| before != now) {
            loading += 1;
            own.loading = loading;
            own.before.push(Before::Load);
        }
        lies = Some(now);
        let Some(at) = own.station else { continue };
        let Some(station) = cutter.and_then(|cutter| cutter.stations.get(at)) else { continue };
        if held[at].is_some_and(|before| before != own.tool) {
            own.before.push(Before::Tool);
            deep[at] = None;
        }
        held[at] = Some(own.tool);
        if let (Some(before), Some(depth)) = (deep[at], own.depth)
            && (before - depth).abs() > 1e-9
        {
            match station.depth {
                DepthSetting::Stepped => own.before.push(Before::Depth),
                DepthSetting::Cap => own.before.push(Before::Cap),
                DepthSetting::Itself | DepthSetting::Fixed => {}
            }
        }
        deep[at] = own.depth.or(deep[at]);
    }
}
