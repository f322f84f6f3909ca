//! Runs: their steps, how they go on, what is counted and still missing, and with what sheets were really cut.

use std::collections::BTreeMap;

use aptum_core::check::{Check, State};
use aptum_core::job::OperationId;
use aptum_core::run::{
    AllSent, Bad, Counted, Ground, NoChange, Progress, RunChange, RunStep, Sent, SheetsSent,
    StepKind, pieces_stand, print_minutes, print_recipe, steps,
};
use aptum_core::workshop::{
    Force, ForceUnit, Keeping, PrintProcess, PrintRecipe, RecordId, Roll, Workshop,
};
use aptum_core::{Job, Prepared, prepare};
use proptest::prelude::*;

use crate::tooling::job;

fn demo() -> Workshop {
    serde_json::from_str(include_str!("../../../../demo/workshop.json")).unwrap()
}

/// A job with all that its run is made from.
struct Stand {
    job: Job,
    prepared: Prepared,
    workshop: Workshop,
}

impl Stand {
    fn new(job: Job, workshop: Workshop) -> Self {
        let prepared = prepare(&job, &workshop).unwrap();
        Self { job, prepared, workshop }
    }

    fn demo(name: &str) -> Self {
        Self::new(job(name), demo())
    }

    fn ground(&self) -> Ground<'_> {
        Ground { job: &self.job, prepared: &self.prepared, workshop: &self.workshop }
    }

    fn steps(&self) -> Vec<RunStep> {
        steps(&self.ground())
    }

    fn check(&self, id: &str) -> Option<&Check> {
        self.prepared.checks.iter().find(|check| check.id == id)
    }
}

fn count(piece: &str, good: u32, bad: &[(Bad, u32)]) -> RunChange {
    let counted = Counted { good, bad: bad.iter().copied().collect() };
    RunChange::Count { piece: piece.into(), counted }
}

#[test]
fn the_steps_of_a_printed_carton() {
    let own = Stand::demo("tomato-carton").steps();
    let told: Vec<String> =
        own.iter().map(|step| format!("{} × {}: {}", step.times, step.id, step.title)).collect();
    insta::assert_snapshot!(told.join("\n"));
    // The tool goes in before the sheet, the look comes before it is taken out.
    let at = |kind: StepKind| own.iter().position(|step| step.kind == kind).unwrap();
    assert!(at(StepKind::Print) < at(StepKind::Load) && at(StepKind::Tool) < at(StepKind::Load));
    assert!(at(StepKind::Cut) < at(StepKind::Look) && at(StepKind::Look) < at(StepKind::Count));
}

/// What differs from cutter to cutter is said in its own words.
#[test]
fn each_way_to_find_the_sheet_has_its_own_words() {
    let (mut job, mut workshop) = (job("tomato-carton"), demo());
    let id = RecordId::from("reading-room-cutter");
    for (by, words) in [
        (r#"{"by":"crosshairs"}"#, "Set the crosshairs on each mark"),
        (r#"{"by":"scan"}"#, "outlines must be closed"),
        (r#"{"by":"printed-itself"}"#, "leave it in"),
        (r#"{"by":"sheet-edge"}"#, "Against the stop"),
    ] {
        workshop.cutters.get_mut(&id).unwrap().finds = serde_json::from_str(by).unwrap();
        let all = Stand::new(job.clone(), workshop.clone()).steps();
        let load = all.iter().find(|step| step.kind == StepKind::Load).unwrap();
        assert!(load.says.iter().any(|own| own.contains(words)), "{words}: {:?}", load.says);
    }
    job.sheet.cutter = None;
    let by_hand = Stand::new(job, workshop).steps();
    assert!(by_hand.iter().any(|step| step.title == "Cut by hand"));
}

#[test]
fn every_demo_job_that_is_cut_has_steps_with_names_of_their_own() {
    for name in ["garlic-hexagon", "seedling-carrier", "month-tabs", "table-sign"] {
        let all = Stand::demo(name).steps();
        let names: std::collections::BTreeSet<&String> = all.iter().map(|step| &step.id).collect();
        assert_eq!(names.len(), all.len(), "{name}");
        assert!(all.iter().all(|step| step.times > 0 && !step.title.is_empty()));
        assert_eq!(all.last().unwrap().kind, StepKind::Count, "{name}");
    }
}

/// Each sheet is loaded, cut and looked at before the next one.
#[test]
fn sheets_go_round_one_after_the_other() {
    let stand = Stand::demo("tomato-carton");
    let all = stand.steps();
    let mut run = Progress::default();
    let mut order = Vec::new();
    while let Some(step) = run.next(&all).map(|step| step.id.clone()) {
        run.change(&RunChange::Tick { step: step.clone() }, &stand.ground(), "").unwrap();
        order.push(step);
    }
    let told = order.join(" ");
    let round = "load-0 cut-0 look-0";
    assert!(told.contains(&[round; 7].join(" ")), "{told}");
    assert!(told.starts_with("print measure tool-0") && told.ends_with("look-0 count"), "{told}");
}

#[test]
fn what_cannot_be_done_changes_nothing() {
    let stand = Stand::demo("tomato-carton");
    let mut run = Progress::default();
    let tick = |id: &str| RunChange::Tick { step: id.to_owned() };
    run.change(&tick("print"), &stand.ground(), "10:00").unwrap();
    let before = run.clone();
    assert!(matches!(
        run.change(&tick("print"), &stand.ground(), "10:01"),
        Err(NoChange::Already(_))
    ));
    assert!(matches!(run.change(&tick("saw"), &stand.ground(), "10:01"), Err(NoChange::NoStep(_))));
    let back = RunChange::Back { step: "count".to_owned() };
    assert!(matches!(run.change(&back, &stand.ground(), ""), Err(NoChange::NotYet(_))));
    for mm in [0.0, -3.0, f64::NAN, 1e9] {
        assert!(run.change(&RunChange::Measure { mm }, &stand.ground(), "").is_err());
    }
    let many = count("p1", u32::MAX, &[(Bad::Torn, 5)]);
    assert!(matches!(run.change(&many, &stand.ground(), ""), Err(NoChange::Count(_))));
    let nobodys = count("p7", 1, &[]);
    assert!(matches!(run.change(&nobodys, &stand.ground(), ""), Err(NoChange::NoPiece(_))));
    assert_eq!(run, before);
    run.change(&RunChange::Hold, &stand.ground(), "").unwrap();
    assert_eq!(run.change(&tick("measure"), &stand.ground(), ""), Err(NoChange::Held));
    run.change(&RunChange::Stop, &stand.ground(), "").unwrap();
    assert_eq!(run.change(&RunChange::Resume, &stand.ground(), ""), Err(NoChange::Stopped));
    // What was made until then is still counted.
    let four = count("p1", 4, &[(Bad::Torn, 1), (Bad::Fold, 0)]);
    run.change(&four, &stand.ground(), "").unwrap();
    assert_eq!((run.counted().good, run.counted().bad()), (4, 1));
}

/// Every step ticked, the names of the steps in the order in which they come.
fn order_of(stand: &Stand) -> Vec<String> {
    let (all, mut run, mut order) = (stand.steps(), Progress::default(), Vec::new());
    while let Some(step) = run.next(&all).map(|step| step.id.clone()) {
        run.change(&RunChange::Tick { step: step.clone() }, &stand.ground(), "").unwrap();
        order.push(step);
    }
    order
}

/// Of a roll, so many sheets are loaded at once; each of them is still cut and looked at.
#[test]
fn sheets_of_a_roll_are_loaded_in_strips() {
    let (mut job, mut workshop) = (job("tomato-carton"), demo());
    let stock = workshop.stocks.get_mut(&job.pieces[0].stock).unwrap();
    stock.roll = Some(Roll { side: 5.0 });
    job.sheet.in_a_row = 3;
    let stand = Stand::new(job, workshop);
    let sheets = stand.prepared.layout.sheets();
    assert_eq!(sheets, 7);
    let order = order_of(&stand);
    let count = |id: &str| order.iter().filter(|own| *own == id).count();
    assert_eq!((count("load-0"), count("cut-0"), count("look-0")), (3, 7, 7));
    let told = order.join(" ");
    let strip = "load-0 cut-0 look-0 cut-0 look-0 cut-0 look-0";
    assert!(told.contains(&format!("{strip} {strip} load-0 cut-0 look-0 count")), "{told}");
    // What is fed is the sheets and what the cutter holds before and behind them.
    let page = stand.prepared.windows.page.height();
    let cutter = &stand.workshop.cutters[stand.job.sheet.cutter.as_ref().unwrap()];
    let length = page.mul_add(3.0, cutter.lead + cutter.tail);
    let load = stand.steps().into_iter().find(|own| own.id == "load-0").unwrap();
    let words = aptum_core::units::measure(length, stand.job.unit);
    assert!(load.says.iter().any(|own| own.contains(&format!("Feed {words}"))), "{:?}", load.says);
}

/// Spares are laid beside what is wanted; what came out says what is still missing, on how many sheets, and how many packs are whole.
#[test]
fn spares_are_made_and_what_is_missing_is_told() {
    let mut job = job("tomato-carton");
    job.pieces[0].copies = 6;
    let without = Stand::new(job.clone(), demo());
    (job.pieces[0].spares, job.pieces[0].pack) = (2, 4);
    let stand = Stand::new(job, demo());
    assert_eq!((without.prepared.layout.laid, stand.prepared.layout.laid), (6, 8));
    assert_eq!(stand.check("copies").unwrap().state, State::Fits);
    let mut run = Progress::default();
    let told = |run: &Progress| pieces_stand(&stand.job, &stand.prepared, run)[0].1.clone();
    assert_eq!((told(&run).wanted, told(&run).made, told(&run).missing), (6, 8, 6));
    run.change(&count("p1", 5, &[(Bad::Torn, 3)]), &stand.ground(), "").unwrap();
    let own = told(&run);
    let per_sheet = stand.prepared.layout.per_sheet;
    assert_eq!((own.missing, own.sheets, own.packs), (1, 1_u32.div_ceil(per_sheet), Some((1, 1))));
    run.change(&count("p1", 7, &[(Bad::Torn, 1)]), &stand.ground(), "").unwrap();
    assert_eq!((told(&run).missing, told(&run).sheets, told(&run).packs), (0, 0, Some((1, 3))));
    let mut many = stand.job.clone();
    (many.pieces[0].copies, many.pieces[0].spares) = (9_990, 11);
    let error = many.validate().unwrap_err().remove(0);
    assert_eq!(error.field, "pieces.p1.spares");
}

/// The Logbook is told what was really sent when a sheet was cut, whatever the job says afterwards.
#[test]
fn a_tick_notes_with_what_a_sheet_was_cut() {
    let mut stand = Stand::demo("tomato-carton");
    let mut run = Progress::default();
    let tick = RunChange::Tick { step: "cut-0".to_owned() };
    run.change(&tick, &stand.ground(), "").unwrap();
    let last = |run: &Progress| run.sent["cut-0"].0.last().unwrap().clone();
    let first = last(&run);
    assert_eq!(first.sheets, [1, 1]);
    let done = stand.prepared.operations.iter().filter(|own| !own.is_off);
    assert_eq!(first.operations.len(), done.count());
    // Another force, told by nobody but the tick.
    let id = first.operations.last().unwrap().operation.clone();
    let force = Some(Force { amount: 123.0, unit: ForceUnit::Grams });
    stand.job.tooling.operations.entry(id.clone()).or_default().force = force;
    let stand = Stand::new(stand.job, stand.workshop);
    run.change(&tick, &stand.ground(), "").unwrap();
    let second = last(&run);
    assert_eq!((second.sheets, second.operations.last().unwrap().force), ([2, 2], force));
    // What went over the wire for the third says so before its tick, and stays.
    run.note_sent("cut-0", 3, first.operations.clone());
    run.change(&tick, &stand.ground(), "").unwrap();
    assert_eq!(last(&run).operations, first.operations);
    // Taken back, it was not cut so: the next tick says with what it was.
    let back = RunChange::Back { step: "cut-0".to_owned() };
    run.change(&back, &stand.ground(), "").unwrap();
    run.change(&tick, &stand.ground(), "").unwrap();
    let third = last(&run);
    assert_eq!(
        (third.sheets, third.operations.last().unwrap().force),
        ([2, 3], force),
        "as the second"
    );
    // Each setting is kept, and back to the first sheet only the first is known.
    assert_eq!(run.sent["cut-0"].0, [first.clone(), third]);
    let kept = serde_json::to_value(&run).unwrap();
    assert_eq!(serde_json::from_value::<Progress>(kept).unwrap(), run);
    run.change(&back, &stand.ground(), "").unwrap();
    run.change(&back, &stand.ground(), "").unwrap();
    assert_eq!(run.sent["cut-0"].0, std::slice::from_ref(&first));
    // Earlier versions kept the last sheet alone.
    let [sheet, _] = first.sheets;
    let older = serde_json::json!({ "sent": { "cut-0": { "sheet": sheet, "operations": first.operations } } });
    assert_eq!(serde_json::from_value::<Progress>(older).unwrap().sent["cut-0"].0, [first]);
}

proptest! {
    /// Sheets that are sent out of their order, some again: as a list of one setting a sheet would have it.
    #[test]
    fn what_is_noted_of_a_sheet_stays_whatever_is_sent_besides(
        noted in proptest::collection::vec((1..12_u32, 1..3_u32), 1..30),
    ) {
        let mut own = AllSent::default();
        let mut list = BTreeMap::new();
        for (sheet, passes) in noted {
            let (force, speed, depth) = (None, None, None);
            let operation = OperationId("cut".to_owned());
            own.note(sheet, vec![Sent { operation, force, speed, passes, depth }]);
            list.insert(sheet, passes);
        }
        let mut told = BTreeMap::new();
        for each in &own.0 {
            for sheet in each.sheets[0]..=each.sheets[1] {
                prop_assert!(own.tells_of(sheet));
                prop_assert!(told.insert(sheet, each.operations[0].passes).is_none(), "{} twice", sheet);
            }
        }
        prop_assert_eq!(&told, &list);
        let is_one = |pair: &[SheetsSent]| {
            pair[0].sheets[1] + 1 == pair[1].sheets[0] && pair[0].operations == pair[1].operations
        };
        prop_assert!(!own.0.windows(2).any(is_one), "those in a row are kept as one");
    }
}

fn print_recipe_of(stand: &Stand, name: &str, worked: &str) -> PrintRecipe {
    PrintRecipe {
        name: name.to_owned(),
        stock: stand.job.pieces[0].stock.clone(),
        printer: stand.job.sheet.printer.clone().unwrap(),
        settings: aptum_core::workshop::PrintSettings {
            media: "heavy matt".to_owned(),
            ..Default::default()
        },
        minutes: Some(2.0),
        worked: Some(worked.to_owned()),
        note: String::new(),
        keeping: Keeping::Kept,
    }
}

/// The printing recipe that is at hand comes first, then the one that worked last; another card's never.
#[test]
fn sheets_are_printed_as_it_worked_last() {
    let mut stand = Stand::demo("tomato-carton");
    stand.workshop.print_recipes.clear();
    let print =
        |stand: &Stand| stand.steps().into_iter().find(|own| own.kind == StepKind::Print).unwrap();
    assert!(print(&stand).says.iter().any(|own| own.contains("No printing recipe yet")));
    assert_eq!(print_minutes(&stand.ground()), None);
    let id = |name: &str| RecordId::from(name);
    let older = print_recipe_of(&stand, "older", "2026-09-01");
    let newer = print_recipe_of(&stand, "newer", "2026-11-01");
    let other =
        PrintRecipe { stock: id("grey-board-1"), ..print_recipe_of(&stand, "other", "2026-12-01") };
    for (name, own) in [("a", &newer), ("b", &older), ("c", &other)] {
        assert_eq!(own.validate(), Ok(()));
        stand.workshop.print_recipes.insert(id(name), own.clone());
    }
    assert_eq!(print_recipe(&stand.ground()).unwrap().name, "newer");
    stand.workshop.print_recipes.get_mut(&id("b")).unwrap().keeping = Keeping::AtHand;
    assert_eq!(print_recipe(&stand.ground()).unwrap().name, "older");
    assert!(print(&stand).says.iter().any(|own| own.contains("Paper type heavy matt")));
    // Seven sheets of two minutes a side.
    assert_eq!(print_minutes(&stand.ground()), Some(14.0));
    assert!(print(&stand).says.iter().any(|own| own == "It takes about 14 min."));
    let long = PrintRecipe { minutes: Some(500.0), ..older.clone() };
    assert_eq!(long.validate().unwrap_err()[0].field, "minutes");
    let mut loud = older;
    loud.settings.tray = "x".repeat(61);
    assert_eq!(loud.validate().unwrap_err()[0].field, "settings.tray");
}

/// A card for inkjets alone is not printed on a laser printer; the way out is a printer that it takes.
#[test]
fn a_card_takes_its_kind_of_printer() {
    let mut stand = Stand::demo("tomato-carton");
    assert!(stand.check("print-process").is_none());
    let stock = stand.workshop.stocks.get_mut(&stand.job.pieces[0].stock).unwrap();
    stock.takes = Some(PrintProcess::Laser);
    let wrong = Stand::new(stand.job.clone(), stand.workshop.clone());
    let check = wrong.check("print-process").unwrap();
    assert_eq!(check.state, State::Broken);
    let changes = &check.remedies[0].changes;
    assert_eq!(changes[0].field, "sheet.printer");
    let mended = aptum_core::job::with_changes(&wrong.job, changes).unwrap();
    let right = Stand::new(mended, wrong.workshop.clone());
    assert_eq!(right.check("print-process").unwrap().state, State::Fits);
}

/// A cutter that scans needs ink that differs from the card all around, and card between inks.
#[test]
fn a_scan_finds_only_what_stands_out() {
    let scanned = |colour: &str, spacing: f64| {
        let (mut job, mut workshop) = (job("thirty-plant-tags"), demo());
        let cutter = workshop.cutters.get_mut(job.sheet.cutter.as_ref().unwrap()).unwrap();
        cutter.finds = serde_json::from_str(r#"{"by":"scan"}"#).unwrap();
        workshop.stocks.get_mut(&job.pieces[0].stock).unwrap().colour = "#ffffff".to_owned();
        let face = job.pieces[0].face.as_mut().unwrap();
        face.layers.truncate(1);
        let own = serde_json::json!({ "id": "l1", "kind": "colour", "colour": colour, "coverage": "flaps" });
        face.layers[0] = serde_json::from_value(own).unwrap();
        face.bleed = 1.0;
        job.sheet.spacing = spacing;
        Stand::new(job, workshop)
    };
    // #767676 on white is 4.54 to 1, #eeeeee 1.16 (WCAG 2.2's formula; the first is quoted with it).
    let dark = scanned("#767676", 5.0);
    let contrast = dark.check("scan-contrast").unwrap();
    assert_eq!((contrast.state, contrast.value_text.as_str()), (State::Fits, "4.5 to 1"));
    let faint = scanned("#eeeeee", 5.0);
    let contrast = faint.check("scan-contrast").unwrap();
    assert_eq!((contrast.state, contrast.value_text.as_str()), (State::Broken, "1.2 to 1"));
    // A hole is an outline of the print, too: nothing is left to be worked by hand but what is no outline.
    let inside = dark.check("scan-inside").unwrap();
    assert_eq!(inside.state == State::Fits, inside.value_text == "0");
    // Bleeds of 1 mm leave 1 mm of 3 between the inks, and 2 are needed.
    assert_eq!(dark.check("scan-apart").unwrap().state, State::Fits);
    let near = scanned("#767676", 3.0);
    let apart = near.check("scan-apart").unwrap();
    assert_eq!(apart.state, State::Broken);
    let mended = aptum_core::job::with_changes(&near.job, &apart.remedies[0].changes).unwrap();
    let mended = Stand::new(mended, near.workshop.clone());
    assert_eq!(mended.check("scan-apart").unwrap().state, State::Fits);
    // Bare card has nothing that a scan could find.
    let (mut bare, workshop) = (dark.job.clone(), dark.workshop.clone());
    let layer = &mut bare.pieces[0].face.as_mut().unwrap().layers[0];
    layer.hidden = true;
    assert_eq!(Stand::new(bare, workshop).check("scan-contrast").unwrap().state, State::Broken);
}

/// A job for each row: one copy of the piece that wears the list, its words alone, a name of its own.
#[test]
fn each_row_of_a_list_becomes_a_job() {
    let all = job("thirty-plant-tags");
    assert_eq!(all.rows(), 30);
    let third = all.of_row(2).unwrap();
    assert_eq!(third.name, "Thirty plant tags: Borage");
    assert_eq!((third.pieces[0].copies, third.rows()), (1, 1));
    assert_eq!(third.pieces[0].list.as_ref().unwrap().rows[0][0], "Borage");
    assert_eq!(third.validate(), Ok(()));
    assert!(all.of_row(30).is_none());
    assert!(job("tomato-carton").of_row(0).is_none());
    let mut lines = all;
    lines.pieces[0].list.as_mut().unwrap().rows[0][0] = "two\nlines".repeat(20);
    let own = lines.of_row(0).unwrap();
    assert!(own.validate().is_ok() && own.name.chars().count() <= 80, "{}", own.name);
}

proptest! {
    /// Whatever is ticked and taken back: a step is never done more often than it is asked for, and while one is left there is a next
    /// one that is not done yet.
    #[test]
    fn a_run_never_overtakes_itself(doings in prop::collection::vec((0usize..12, any::<bool>()), 1..80)) {
        let stand = Stand::demo("tomato-carton");
    let all = stand.steps();
        let mut run = Progress::default();
        for (at, is_tick) in doings {
            let step = all[at % all.len()].id.clone();
            let change = if is_tick { RunChange::Tick { step } } else { RunChange::Back { step } };
            let _ = run.change(&change, &stand.ground(), "10:00");
            prop_assert!(all.iter().all(|step| run.times(&step.id) <= step.times));
        }
        let is_left = all.iter().any(|step| run.times(&step.id) < step.times);
        let next = run.next(&all);
        prop_assert_eq!(next.is_some(), is_left);
        prop_assert!(next.is_none_or(|step| run.times(&step.id) < step.times));
    }
}

/// A run over sheets of two cards tells of each by its name; a tool that stays in its station is not said to be changed.
#[test]
fn a_run_over_two_cards_tells_them_apart() {
    let changed = |step: &RunStep| step.says.iter().any(|own| own.contains("changed during"));
    let mut job = job("tomato-carton");
    let alone = Stand::new(job.clone(), demo());
    let stations = |stand: &Stand| -> Vec<RunStep> {
        stand.steps().into_iter().filter(|own| own.kind == StepKind::Tool).collect()
    };
    let before: Vec<(String, bool)> =
        stations(&alone).iter().map(|own| (own.title.clone(), changed(own))).collect();
    let tag = aptum_core::form::Form::new("tag-clipped", &[]);
    job.pieces.push(aptum_core::job::JobPiece::new("p2", tag, "kraft-300"));
    job.sheet.kept = None;
    let stand = Stand::new(job, demo());
    let cut = stand.steps().into_iter().find(|own| own.kind == StepKind::Cut).unwrap();
    let lines_of = |words: &str| cut.says.iter().filter(|own| own.starts_with(words)).count();
    assert_eq!(
        (lines_of("cut, White board 14 pt: "), lines_of("cut, Kraft card 300 g/m²: ")),
        (1, 1)
    );
    let after: Vec<(String, bool)> =
        stations(&stand).iter().map(|own| (own.title.clone(), changed(own))).collect();
    assert_eq!(after, before, "the same tools in the same stations, changed as before");
    // What each card is cut with is noted under its own operation.
    let layout = &stand.prepared.layout;
    for [first, last] in layout.ranges() {
        let (run, _) = layout.run_of(last).unwrap();
        assert_eq!(layout.run_of(first).unwrap().0, run);
        let of_tag = layout.runs[run].placements[0].part == 1;
        let sent = aptum_core::run::sent(&stand.prepared, last, 0);
        let ids = sent.iter().map(|own| own.operation.0.as_str());
        let cuts: Vec<&str> = ids.filter(|own| own.starts_with("cut")).collect();
        assert_eq!(cuts, [if of_tag { "cut@=kraft-300" } else { "cut" }]);
    }
    assert!(layout.run_of(0).is_none() && layout.run_of(layout.sheets() + 1).is_none());
}
