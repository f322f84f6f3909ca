//! Operations as users arrange them: recipes, splits, orders, depths, moments and units, each with what is said of it.

use std::sync::Arc;

use aptum_core::blob::{BlobId, Origin};
use aptum_core::check::{Check, State};
use aptum_core::form::{Form, LineDrawing, ReadLines};
use aptum_core::geometry::BezPath;
use aptum_core::job::{Moment, OperationId, OperationSay, Reverse, Share};
use aptum_core::lines::{Group, LineKey, Lines, Look, Meaning};
use aptum_core::tooling::{Before, Setting, works};
use aptum_core::workshop::{
    DepthSetting, Force, ForceUnit, Keeping, Recipe, RecordId, Tool, Workshop,
};
use aptum_core::{Job, LineKind, Prepared, prepare};

use super::tooling::{job, path, workshop};

fn recipe(job: &Job, line: LineKind, force: Force) -> Recipe {
    Recipe {
        name: format!("{} of mine", line.name()),
        stock: job.pieces[0].stock.clone(),
        cutter: job.sheet.cutter.clone().unwrap(),
        tool: if line == LineKind::Crease { Tool::Creaser } else { Tool::DragKnife },
        line,
        force: Some(force),
        speed: Some(40.0),
        passes: 2,
        depth: None,
        worked: Some("2026-10-12".to_owned()),
        note: String::new(),
        keeping: Keeping::Kept,
    }
}

fn prepared(job: &Job, workshop: &Workshop) -> Prepared {
    prepare(job, workshop).unwrap()
}

fn said(job: &Job, workshop: &Workshop, id: &str) -> Option<Check> {
    prepared(job, workshop).checks.into_iter().find(|check| check.id == id)
}

const fn grams(amount: f64) -> Force {
    Force { amount, unit: ForceUnit::Grams }
}

#[test]
fn a_recipe_applies_by_itself_where_it_matches() {
    let (mut job, mut workshop) = (job("tomato-carton"), workshop());
    workshop.recipes.clear();
    let bare = prepared(&job, &workshop);
    let of = |prepared: &Prepared, kind: LineKind| {
        prepared.operations.iter().find(|own| own.kind == kind).cloned().unwrap()
    };
    assert_eq!((of(&bare, LineKind::Cut).force, of(&bare, LineKind::Cut).recipe), (None, None));

    let id = |name: &str| RecordId::from(name);
    workshop.recipes.insert(id("old"), recipe(&job, LineKind::Cut, grams(150.0)));
    let newer = Recipe {
        worked: Some("2026-11-01".to_owned()),
        ..recipe(&job, LineKind::Cut, grams(210.0))
    };
    workshop.recipes.insert(id("newer"), newer.clone());
    let other = Recipe { stock: id("grey-board-1"), ..newer.clone() };
    workshop.recipes.insert(id("a-board"), other);
    let own = of(&prepared(&job, &workshop), LineKind::Cut);
    assert_eq!(
        (own.force, own.passes, own.recipe.clone()),
        (Some(grams(210.0)), 2, Some(id("newer")))
    );
    assert_eq!(of(&prepared(&job, &workshop), LineKind::Crease).recipe, None, "it is for cuts");

    // One at hand goes before one that worked later; a retired one before none.
    workshop.recipes.get_mut(&id("old")).unwrap().keeping = Keeping::AtHand;
    assert_eq!(of(&prepared(&job, &workshop), LineKind::Cut).recipe, Some(id("old")));
    workshop.recipes.get_mut(&id("old")).unwrap().keeping = Keeping::Retired;
    assert_eq!(of(&prepared(&job, &workshop), LineKind::Cut).recipe, Some(id("newer")));

    // What the job says goes before the recipe, and is told.
    let say =
        OperationSay { force: Some(grams(250.0)), speed: Some(40.0), ..OperationSay::default() };
    job.tooling.operations.insert(LineKind::Cut.into(), say);
    let own = of(&prepared(&job, &workshop), LineKind::Cut);
    assert_eq!((own.force, own.passes), (Some(grams(250.0)), 2));
    assert_eq!(own.differs, [Setting::Force], "the speed is the recipe's");

    // Another cutter knows nothing of it.
    job.sheet.cutter = Some(id("desk-cutter"));
    job.tooling.operations.clear();
    assert_eq!(of(&prepared(&job, &workshop), LineKind::Cut).recipe, None);
}

#[test]
fn a_force_is_never_taken_for_one_of_another_unit() {
    let (mut job, workshop) = (job("tomato-carton"), workshop());
    // A bare number was in newtons when it was kept.
    let kept: OperationSay = serde_json::from_str(r#"{ "force": 1.5 }"#).unwrap();
    assert_eq!(kept.force, Some(Force::newtons(1.5)));
    job.tooling.operations.insert(LineKind::Cut.into(), kept);
    let own = said(&job, &workshop, "tooling-force-unit").unwrap();
    assert_eq!(own.state, State::Broken);
    assert!(own.value_text.contains("1.5 N") && own.bound_text.contains('g'), "{own:?}");
    let job = aptum_core::job::with_changes(&job, &own.remedies[0].changes).unwrap();
    assert!(said(&job, &workshop, "tooling-force-unit").is_none());
}

#[test]
fn the_outline_can_be_split_off_and_ordered() {
    let (mut job, workshop) = (job("seedling-carrier"), workshop());
    let whole = prepared(&job, &workshop);
    let ids = |prepared: &Prepared| -> Vec<String> {
        prepared.operations.iter().map(|own| own.id.0.clone()).collect()
    };
    assert_eq!(ids(&whole).last().unwrap(), "cut");
    let edge = OperationId::new(LineKind::Cut, &Share::Edge);
    let three = OperationSay { passes: Some(3), ..OperationSay::default() };
    job.tooling.operations.insert(edge.clone(), three);
    let (split, path) = path(&job, &workshop);
    let names = ids(&split);
    assert_eq!(names[names.len() - 2..], ["cut", "cut@edge"], "what lies inside first");
    let plan = split.plan(&job.tooling, &split.layout.runs[0].placements);
    for stretch in path.stretches.iter().filter(|own| own.stroke.is_some()) {
        let operation = &path.worked[stretch.operation].operation;
        let stroke = &plan.strokes[stretch.stroke.unwrap()];
        if operation.kind == LineKind::Cut {
            assert_eq!(stroke.is_edge, operation.share == Share::Edge);
            assert!(stretch.pass <= operation.passes);
        }
    }
    // A crease after the cut is refused; its remedy puts it back.
    job.tooling.order = vec!["cut@edge", "cut", "crease"]
        .into_iter()
        .map(|id| OperationId(id.to_owned()))
        .collect();
    let wrong = said(&job, &workshop, "tooling-sequence").unwrap();
    assert_eq!(wrong.state, State::Broken, "{wrong:?}");
    assert_eq!(ids(&prepared(&job, &workshop))[0], "cut@edge");
    // What is cut inside the outlines may come first: it frees nothing.
    let mut inner = job.clone();
    let order = ["cut", "crease", "reverse-crease", "cut@edge"];
    inner.tooling.order = order.into_iter().map(|id| OperationId(id.to_owned())).collect();
    assert!(said(&inner, &workshop, "tooling-sequence").is_none());
    job.tooling.order.push(OperationId("cut".to_owned()));
    assert_eq!(prepared(&job, &workshop).operations.len(), split.operations.len(), "none twice");
    let job = aptum_core::job::with_changes(&job, &wrong.remedies[0].changes).unwrap();
    assert!(said(&job, &workshop, "tooling-sequence").is_none());
}

#[test]
fn ids_of_operations_are_read_as_they_are_written() {
    for kind in LineKind::IN_ORDER.into_iter().filter(|kind| *kind != LineKind::Guide) {
        for share in
            [Share::Rest, Share::Edge, Share::EdgeOn("kraft".into()), Share::Piece("p12".into())]
        {
            let id = OperationId::new(kind, &share);
            assert_eq!(id.parts(), Some((kind, share)));
        }
    }
    for wrong in ["", "guide", "cut@", "cut@edge=", "cut@P1!", "saw", "@edge"] {
        assert_eq!(OperationId(wrong.to_owned()).parts(), None, "{wrong}");
    }
    let (mut job, workshop) = (job("tomato-carton"), workshop());
    job.tooling.order = vec![OperationId("saw".to_owned())];
    assert_eq!(prepare(&job, &workshop).unwrap_err()[0].field, "tooling.operations");
    job.tooling.order = vec![OperationId("cut".to_owned()); 41];
    assert!(prepare(&job, &workshop).unwrap_err()[0].message.contains("41"));
}

/// Kiss cut and through cut in one station: the way that the plan takes follows from how the station gets its depth. The
/// example is one machine's: depth 3, force 5 and 22 (common practice).
#[test]
fn two_depths_in_one_station_follow_from_the_station() {
    let (mut job, mut workshop) = (job("vegetable-stickers"), workshop());
    let id = job.sheet.cutter.clone().unwrap();
    workshop.recipes.clear();
    let cutter = workshop.cutters.get_mut(&id).unwrap();
    (cutter.force, cutter.force_unit) = (Some(33.0), ForceUnit::Steps);
    let steps = |amount: f64| Some(Force { amount, unit: ForceUnit::Steps });
    // The stickers are a traced picture's; a carton with a kissed slit stands in where no picture is at hand.
    job.pieces[0].form = aptum_core::form::Form::new("label-round", &[]);
    job.sheet.kept = None;
    let kinds: Vec<LineKind> =
        prepared(&job, &workshop).operations.iter().map(|own| own.kind).collect();
    assert_eq!(kinds, [LineKind::KissCut], "labels on a liner are kissed");
    job.pieces.push(aptum_core::job::JobPiece::new(
        "p2",
        aptum_core::form::Form::new("tag-clipped", &[]),
        "kraft-300",
    ));
    job.pieces[1].copies = 1;

    let ways = |workshop: &Workshop, job: &Job| said(job, workshop, "tooling-depth").unwrap();
    assert_eq!(ways(&workshop, &job).state, State::Attention, "nothing tells them apart");
    let say = |force: f64, depth: Option<f64>| OperationSay {
        force: steps(force),
        depth,
        ..OperationSay::default()
    };
    job.tooling.operations.insert(LineKind::KissCut.into(), say(5.0, Some(3.0)));
    job.tooling.operations.insert(LineKind::Cut.into(), say(22.0, Some(3.0)));
    let one = ways(&workshop, &job);
    assert_eq!((one.state, one.value_text.as_str()), (State::Fits, "one depth"));

    job.tooling.operations.insert(LineKind::KissCut.into(), say(5.0, Some(1.0)));
    let set = |workshop: &mut Workshop, how: DepthSetting| {
        let stations = &mut workshop.cutters.get_mut(&id).unwrap().stations;
        stations.iter_mut().for_each(|own| own.depth = how);
    };
    let before = |job: &Job, workshop: &Workshop| {
        let prepared = prepared(job, workshop);
        prepared.operations.iter().find(|own| own.kind == LineKind::Cut).unwrap().before.clone()
    };
    for (how, state, stop) in [
        (DepthSetting::Fixed, State::Broken, vec![]),
        (DepthSetting::Stepped, State::Fits, vec![Before::Depth]),
        (DepthSetting::Cap, State::Fits, vec![Before::Cap]),
        (DepthSetting::Itself, State::Fits, vec![]),
    ] {
        set(&mut workshop, how);
        assert_eq!(ways(&workshop, &job).state, state, "{how:?}");
        assert_eq!(before(&job, &workshop), stop, "{how:?}");
    }
}

#[test]
fn what_comes_before_the_print_is_a_loading_of_its_own() {
    let (mut job, workshop) = (job("tomato-carton"), workshop());
    assert!(said(&job, &workshop, "tooling-loadings").is_none());
    let first = OperationSay { when: Some(Moment::BeforePrint), ..OperationSay::default() };
    job.tooling.operations.insert(LineKind::Crease.into(), first.clone());
    let (prepared, path) = path(&job, &workshop);
    let loadings: Vec<usize> = prepared.operations.iter().map(|own| own.loading).collect();
    assert_eq!(loadings, [0, 1]);
    assert_eq!(path.of_loading(0).count() + path.of_loading(1).count(), path.stretches.len());
    let told = said(&job, &workshop, "tooling-loadings").unwrap();
    assert_eq!(told.state, State::Attention, "no mark is printed yet: {told:?}");
    // Whatever order is asked for, what is cut before the print comes before it.
    job.tooling.order = vec![LineKind::Cut.into(), LineKind::Crease.into()];
    assert_eq!(self::prepared(&job, &workshop).operations[0].kind, LineKind::Crease);
    job.tooling.operations.clear();
    job.tooling.operations.insert(LineKind::Cut.into(), first);
    let wrong = said(&job, &workshop, "tooling-sequence").unwrap();
    assert_eq!(wrong.state, State::Broken);
    let job = aptum_core::job::with_changes(&job, &wrong.remedies[0].changes).unwrap();
    assert!(said(&job, &workshop, "tooling-sequence").is_none(), "its remedy mends it");
}

#[test]
fn reverse_creases_are_made_in_the_way_that_is_asked() {
    let workshop = workshop();
    let folder = concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo/jobs");
    let mut jobs = std::fs::read_dir(folder).unwrap().filter_map(|file| {
        serde_json::from_str::<Job>(&std::fs::read_to_string(file.ok()?.path()).ok()?).ok()
    });
    let has = |job: &Job| {
        prepare(job, &workshop).is_ok_and(|own| own.kinds().contains(&LineKind::ReverseCrease))
    };
    let mut job = jobs.find(has).unwrap();
    let long = |job: &Job, kind: LineKind| {
        let (prepared, path) = path(job, &workshop);
        let at = prepared.operations.iter().position(|own| own.kind == kind).unwrap();
        (prepared.operations[at].clone(), path.worked[at].length)
    };
    let (pressed, all) = long(&job, LineKind::ReverseCrease);
    assert_eq!(pressed.tool, Tool::Creaser);
    let mut with = |how: Reverse| {
        let say = OperationSay { reverse: Some(how), ..OperationSay::default() };
        job.tooling.operations.insert(LineKind::ReverseCrease.into(), say);
        long(&job, LineKind::ReverseCrease)
    };
    assert_eq!(with(Reverse::Scored).0.tool, Tool::DragKnife);
    let (torn, part) = with(Reverse::Perforated);
    assert_eq!(torn.tool, Tool::DragKnife);
    assert!(part < 0.95 * all, "{part} of {all} is cut");
    let (behind, _) = with(Reverse::FromBehind);
    assert!(behind.is_from_behind() && behind.loading == 0, "its back is up first");
    let rest = prepared(&job, &workshop);
    assert!(rest.operations.iter().any(|own| own.loading == 1));
}

/// A through cut goes into what lies beneath: a carrier is asked for where the bed does not bear it.
#[test]
fn a_carrier_is_asked_for_where_the_bed_bears_no_cuts() {
    let (job, mut workshop) = (job("tomato-carton"), workshop());
    let id = job.sheet.cutter.clone().unwrap();
    assert_eq!(said(&job, &workshop, "tooling-bed").unwrap().state, State::Fits);
    workshop.cutters.get_mut(&id).unwrap().bears_cuts = false;
    let bed = said(&job, &workshop, "tooling-bed").unwrap();
    assert_eq!(bed.state, State::Attention);
    assert!(bed.remedies.iter().any(|own| own.text.contains("carrier")), "{bed:?}");
}

#[test]
fn recipes_are_checked() {
    let (job, mut workshop) = (job("tomato-carton"), workshop());
    let good = recipe(&job, LineKind::Cut, grams(100.0));
    let wrong = [
        Recipe { passes: 0, ..good.clone() },
        Recipe { passes: 1000, ..good.clone() },
        Recipe { speed: Some(-1.0), ..good.clone() },
        Recipe { force: Some(grams(0.0)), ..good.clone() },
        Recipe { depth: Some(f64::NAN), ..good.clone() },
        Recipe { line: LineKind::Guide, ..good.clone() },
        Recipe { worked: Some("12.10.26".to_owned()), ..good.clone() },
        Recipe { note: "x".repeat(401), ..good.clone() },
        Recipe { stock: RecordId(String::new()), ..good.clone() },
    ];
    for own in wrong {
        workshop.recipes.insert("wrong".into(), own.clone());
        assert!(workshop.validate(aptum_core::units::Unit::Mm).is_err(), "{own:?}");
    }
    workshop.recipes.insert("wrong".into(), good);
    workshop.validate(aptum_core::units::Unit::Mm).unwrap();
}

/// Lines of a drawing can be worked apart by their layer and colour: each share with its own settings, the rest with the kind's.
#[test]
fn lines_of_a_drawing_are_split_by_layer_and_colour() {
    let (mut job, workshop) = (job("tomato-carton"), workshop());
    let group = |layer: &str, colour: &str| Group {
        layer: layer.to_owned(),
        colour: colour.to_owned(),
        look: Look::Stroke,
    };
    let drawn = [
        (group("Edge", "#000000"), "M0 0L80 0L80 60L0 60Z"),
        (group("Windows", "#FF0000"), "M10 10L30 10L30 30L10 30Z"),
        (group("Windows", "#FF0000"), "M40 10L60 10L60 30L40 30Z"),
        (group("Slots", "#0000ff"), "M10 45L70 45"),
        (group("Slots", "#00ff00"), "M10 50L70 50"),
    ];
    let key: LineKey = drawn.iter().map(|(own, _)| (own.id(), Meaning::Cut)).collect();
    let lines = drawn.map(|(own, path)| (own, BezPath::from_svg(path).unwrap()));
    let lines = Lines::gathered(Some(1.0), lines, 0, 0).unwrap();
    let mut own = LineDrawing::new(BlobId("0".repeat(64)), Origin::default(), key);
    own.read = ReadLines(Some(Arc::new(lines)));
    job.pieces[0].form = Form::of_drawing(own);
    job.pieces[0].face = None;
    let id = OperationId("cut@:windows-ff0000".to_owned());
    assert_eq!(id.parts(), Some((LineKind::Cut, Share::Drawn("windows-ff0000".to_owned()))));
    assert_eq!(id.in_files(), "cut-windows-ff0000");
    let say = OperationSay { force: Some(grams(99.0)), ..OperationSay::default() };
    job.tooling.operations.insert(id.clone(), say);
    let done = prepared(&job, &workshop);
    let at =
        |wanted: &OperationId| done.operations.iter().position(|own| own.id == *wanted).unwrap();
    assert_eq!(done.operations[at(&id)].force, Some(grams(99.0)));
    let rest = at(&OperationId::from(LineKind::Cut));
    let plan = done.plan(&job.tooling, &done.layout.runs[0].placements);
    let worked = |slug: Option<&str>| -> Vec<usize> {
        let own = plan.strokes.iter().filter(|own| own.drawn.as_deref() == slug);
        own.filter_map(|own| works(&done.operations, own, &plan)).collect()
    };
    let windows = worked(Some("windows-ff0000"));
    assert!(!windows.is_empty() && windows.len().is_multiple_of(2));
    assert!(windows.iter().all(|own| *own == at(&id)));
    let slots = worked(Some("slots-0000ff"));
    assert_eq!(slots.len() * 2, windows.len());
    assert!(slots.iter().chain(&worked(None)).all(|own| *own == rest));
    // A share that names no lines of the drawing is no operation, and one of nonsense is refused.
    let gone = OperationId("cut@:gone-123456".to_owned());
    job.tooling.operations.insert(gone.clone(), OperationSay::default());
    assert!(prepared(&job, &workshop).operations.iter().all(|own| own.id != gone));
    assert_eq!(OperationId("cut@:Not Sound".to_owned()).parts(), None);
}

/// A job of two cards: each is worked by the recipe of its own. What was said while there was one card stays with it.
#[test]
fn each_card_of_a_job_is_worked_by_its_own_recipe() {
    let (mut job, mut workshop) = (job("tomato-carton"), workshop());
    let first = job.pieces[0].stock.clone();
    let second = workshop.stocks.keys().find(|id| **id != first).unwrap().clone();
    workshop.recipes.clear();
    let id = |name: &str| RecordId::from(name);
    let of_first = recipe(&job, LineKind::Cut, grams(150.0));
    let of_second = Recipe { stock: second.clone(), force: Some(grams(90.0)), ..of_first.clone() };
    workshop.recipes.insert(id("one"), of_first);
    workshop.recipes.insert(id("two"), of_second);
    assert!(prepared(&job, &workshop).operations.iter().all(|own| own.share == Share::Rest));

    let tag = Form::new("tag-clipped", &[]);
    job.pieces.push(aptum_core::job::JobPiece::new("p2", tag, second.0.as_str()));
    job.sheet.kept = None;
    job.tooling.weeding = Some(aptum_core::job::Weeding::default());
    let cut_one = OperationId::from(LineKind::Cut);
    let cut_two = OperationId::new(LineKind::Cut, &Share::Card(second.clone()));
    assert_eq!(cut_two.parts(), Some((LineKind::Cut, Share::Card(second.clone()))));
    assert_eq!(OperationId("cut@=No Card".to_owned()).parts(), None);
    assert_eq!(cut_two.in_files(), "cut");
    let find = |done: &Prepared, id: &OperationId| {
        done.operations.iter().find(|own| own.id == *id).cloned().unwrap()
    };
    let done = prepared(&job, &workshop);
    let shown = |own: &aptum_core::tooling::Operation| (own.force, own.recipe.clone());
    assert_eq!(shown(&find(&done, &cut_one)), (Some(grams(150.0)), Some(id("one"))));
    assert_eq!(shown(&find(&done, &cut_two)), (Some(grams(90.0)), Some(id("two"))));
    // The tag has no creases: those are on one card, and one operation.
    let creases = done.operations.iter().filter(|own| own.kind == LineKind::Crease);
    assert!(creases.map(|own| &own.share).eq([&Share::Rest]));

    // Every line of a sheet, also those in its waste, is worked as its card is.
    let mut seen = Vec::new();
    for run in &done.layout.runs {
        let plan = done.plan(&job.tooling, &run.placements);
        let on = plan.strokes.iter().find_map(|own| own.copy.map(|_| &plan.pieces[own.blank]));
        let card = if on.unwrap().0 == "p2" { &second } else { &first };
        seen.push(card.clone());
        for stroke in &plan.strokes {
            let own = &done.operations[works(&done.operations, stroke, &plan).unwrap()];
            assert!(own.stocks.contains(card), "{:?} on {card}", own.id);
        }
        assert!(plan.strokes.iter().any(|own| own.copy.is_none()), "lines in the waste");
    }
    seen.dedup();
    assert_eq!(seen.len(), 2);

    let named: Vec<String> =
        done.operations.iter().map(aptum_core::tooling::Operation::name).collect();
    let [one, two] = [&first, &second].map(|id| format!("cut, {}", workshop.stocks[id].name));
    assert!(named.contains(&one) && named.contains(&two), "{named:?}");

    // What is said of one is said of it alone, and taken back it goes by its recipe.
    let shown = |own: aptum_core::tooling::Operation| (own.passes, own.speed, own.is_off);
    let say = OperationSay { passes: Some(4), speed: Some(11.0), ..OperationSay::default() };
    job.tooling.operations.insert(cut_one.clone(), say);
    let done = prepared(&job, &workshop);
    assert_eq!(shown(find(&done, &cut_one)), (4, Some(11.0), false));
    assert_eq!(shown(find(&done, &cut_two)), (2, Some(40.0), false));
    let say = OperationSay { passes: Some(1), off: true, ..OperationSay::default() };
    job.tooling.operations.insert(cut_two.clone(), say);
    let done = prepared(&job, &workshop);
    assert_eq!(shown(find(&done, &cut_one)), (4, Some(11.0), false));
    assert_eq!(shown(find(&done, &cut_two)), (1, Some(40.0), true));

    let order = |own: &[OperationId]| -> Vec<String> {
        let mut job = job.clone();
        job.tooling.order = own.to_vec();
        prepared(&job, &workshop).operations.iter().map(|own| own.id.0.clone()).collect()
    };
    let turned = order(&[cut_two.clone(), cut_one.clone()]);
    let at = |id: &OperationId| turned.iter().position(|own| *own == id.0).unwrap();
    assert!(at(&cut_two) < at(&cut_one), "{turned:?}");
    // A cut frees what is on its own card alone.
    let is_warned = |own: &[OperationId]| {
        let mut job = job.clone();
        job.tooling.operations.clear();
        job.tooling.order = own.to_vec();
        said(&job, &workshop, "tooling-sequence").is_some()
    };
    let crease = OperationId::from(LineKind::Crease);
    assert!(!is_warned(&[cut_two.clone(), crease.clone(), cut_one.clone()]));
    assert!(is_warned(&[cut_one.clone(), crease.clone(), cut_two.clone()]));

    // Outlines are split off card by card, and one without any is none.
    job.tooling.operations.clear();
    let edge_one = OperationId::new(LineKind::Cut, &Share::EdgeOn(job.pieces[0].stock.clone()));
    let edge_two = OperationId::new(LineKind::Cut, &Share::EdgeOn(second.clone()));
    assert_eq!(
        (edge_two.in_files().as_str(), edge_one.in_files().as_str()),
        ("cut-edge", "cut-edge")
    );
    job.tooling
        .operations
        .insert(edge_two.clone(), OperationSay { passes: Some(3), ..OperationSay::default() });
    let done = prepared(&job, &workshop);
    assert_eq!(
        find(&done, &edge_two).name(),
        format!("cut, outlines, {}", workshop.stocks[&second].name)
    );
    assert_eq!(shown(find(&done, &edge_two)), (3, Some(40.0), false));
    assert!(done.operations.iter().all(|own| own.id != edge_one));
    let works_edges = |job: &Job, done: &Prepared, piece: &str| -> OperationId {
        let mut ids: Vec<OperationId> = Vec::new();
        for run in &done.layout.runs {
            let plan = done.plan(&job.tooling, &run.placements);
            let on = |own: &&aptum_core::tooling::PlannedStroke| {
                own.is_edge && own.copy.is_some() && plan.pieces[own.blank].0 == piece
            };
            for stroke in plan.strokes.iter().filter(on) {
                ids.push(
                    done.operations[works(&done.operations, stroke, &plan).unwrap()].id.clone(),
                );
            }
        }
        ids.dedup();
        assert_eq!(ids.len(), 1, "{ids:?}");
        ids.remove(0)
    };
    assert_eq!(works_edges(&job, &done, &job.pieces[0].id.0), cut_one);
    assert_eq!(works_edges(&job, &done, "p2"), edge_two);
    job.tooling.operations.insert(edge_one.clone(), OperationSay::default());
    let done = prepared(&job, &workshop);
    assert_eq!(works_edges(&job, &done, &job.pieces[0].id.0), edge_one);
    assert_eq!(works_edges(&job, &done, "p2"), edge_two);
    // Those of all cards are worked together where nothing else is said of one.
    let edges = OperationId::new(LineKind::Cut, &Share::Edge);
    job.tooling.operations.remove(&edge_one);
    job.tooling.operations.insert(edges.clone(), OperationSay::default());
    let of_both = prepared(&job, &workshop);
    assert_eq!(works_edges(&job, &of_both, &job.pieces[0].id.0), edges);
    assert_eq!(works_edges(&job, &of_both, "p2"), edge_two);
    job.tooling.operations.remove(&edge_two);
    let of_both = prepared(&job, &workshop);
    assert_eq!(works_edges(&job, &of_both, "p2"), edges);
    assert_eq!(find(&of_both, &edges).stocks.len(), 2);
    job.tooling.operations.insert(edge_two.clone(), OperationSay::default());
    assert_eq!(find(&done, &edge_two).stocks, std::collections::BTreeSet::from([second.clone()]));
    // It stays with its card where that goes by another id.
    job.tooling.rename_card(&second, &id("other-card"));
    assert!(job.tooling.operations.contains_key(&OperationId("cut@edge=other-card".to_owned())));
    job.tooling.operations.clear();

    // One card again: one operation, with what was said of it.
    job.tooling
        .operations
        .insert(cut_one, OperationSay { passes: Some(4), ..OperationSay::default() });
    job.pieces.pop();
    let done = prepared(&job, &workshop);
    let cuts: Vec<_> = done.operations.iter().filter(|own| own.kind == LineKind::Cut).collect();
    assert_eq!((cuts.len(), cuts[0].name().as_str(), cuts[0].passes), (1, "cut", 4));
}
