//! Orders worked out by hand: sheets, yield, waste and cost.

use aptum_core::form::Form;
use aptum_core::sheet::{Amount, Kept, LaidBlank, Made, Placement, SheetRun, Turning};
use aptum_core::workshop::{Price, RecordId, Roll, Stock, Workshop};
use aptum_core::{Job, Prepared, prepare};
use proptest::prelude::*;

fn workshop() -> Workshop {
    serde_json::from_str(include_str!("../../../../demo/workshop.json")).unwrap()
}

/// Plain tags of 50 × 90 mm, only cut and without a cutter, so that the whole of a sheet of 210 × 297 mm is free.
fn tags(copies: u32) -> Job {
    let mut job: Job =
        serde_json::from_str(include_str!("../../../../demo/jobs/tomato-carton.json")).unwrap();
    job.pieces[0].form = Form::new("tag", &[("width", 50.0), ("height", 90.0), ("hole", 0.0)]);
    job.pieces[0].face = None;
    job.sheet.printer = None;
    job.sheet.cutter = None;
    job.sheet.carrier = None;
    job.sheet.marks = None;
    job.pieces[0].copies = copies;
    job.sheet.spacing = 2.0;
    job.sheet.turning = Turning::Upright;
    (job.sheet.size.width, job.sheet.size.height) = (210.0, 297.0);
    job
}

fn priced(amount: f64, currency: &str) -> Workshop {
    let mut workshop = workshop();
    let stock = workshop.stocks.get_mut(&tags(1).pieces[0].stock).unwrap();
    stock.price = Some(Price { amount, currency: currency.into() });
    workshop
}

fn made(job: &Job, workshop: &Workshop) -> Prepared {
    prepare(job, workshop).unwrap()
}

/// Arithmetic: four of 50 with 2 between fill 206 of 210 mm, three of 90 fill 274 of 297 mm: twelve a sheet.
/// Thirty are two full sheets and six on a third; the pieces cover 30 · 4500 of 3 · 62370 mm².
#[test]
fn thirty_tags_take_three_sheets() {
    let job = tags(30);
    let prepared = made(&job, &workshop());
    assert_eq!((prepared.layout.per_sheet, prepared.layout.sheets()), (12, 3));
    let counts: Vec<(u32, usize)> =
        prepared.layout.runs.iter().map(|run| (run.sheets, run.placements.len())).collect();
    assert_eq!(counts, [(2, 12), (1, 6)]);
    let order = &prepared.order;
    assert!((order.used - 135_000.0 / 187_110.0).abs() < 1e-9, "{}", order.used);
    assert!((order.waste - 52_110.0).abs() < 1e-6, "{}", order.waste);
}

#[test]
fn a_filled_order_has_no_short_last_sheet() {
    let mut job = tags(30);
    job.sheet.amount = Amount::FillSheets;
    let prepared = made(&job, &workshop());
    assert_eq!((prepared.layout.laid, prepared.layout.sheets()), (36, 3));
    assert!((prepared.order.used - 36.0 * 4500.0 / 187_110.0).abs() < 1e-9);
}

/// A price stands for a sheet of the stock’s first size; another size costs its share of the area.
#[test]
fn sheets_of_another_size_cost_their_share() {
    let workshop = priced(0.8, "€");
    let first = &workshop.stocks[&tags(1).pieces[0].stock].sheets[0];
    let whole = first.width * first.height;
    let mut job = tags(12);
    let (cost, _) = made(&job, &workshop).order.cost().unwrap();
    assert!((cost - 0.8 * 62_370.0 / whole).abs() < 1e-9, "{cost}");
    (job.sheet.size.width, job.sheet.size.height) = (first.width, first.height);
    let order = made(&job, &workshop).order.clone();
    assert!((order.cost().unwrap().0 - 0.8 * f64::from(order.cards[0].sheets)).abs() < 1e-9);
}

#[test]
fn two_cards_are_two_lines_and_one_sum_only_in_one_currency() {
    let mut job = tags(12);
    let other = RecordId::from("second-card");
    job.pieces.push(
        serde_json::from_value(serde_json::json!({
            "id": "p2", "name": "Label", "stock": "second-card", "face": null, "copies": 5,
            "form": { "structure": "tag", "basis": "inside", "width": 100, "height": 140, "hole": 0 },
        }))
        .unwrap(),
    );
    let mut workshop = priced(1.0, "€");
    let own = workshop.stocks[&job.pieces[0].stock].clone();
    let second = Stock { price: Some(Price { amount: 2.0, currency: "€".into() }), ..own };
    workshop.stocks.insert(other.clone(), second);
    let order = made(&job, &workshop).order.clone();
    let lines: Vec<(&str, u32)> =
        order.cards.iter().map(|card| (card.stock.0.as_str(), card.sheets)).collect();
    // Two across and two down of 100 × 140 with 2 between: four on a sheet of 210 × 297.
    assert_eq!(lines, [(job.pieces[0].stock.0.as_str(), 1), ("second-card", 2)]);
    let share = {
        let first = &workshop.stocks[&other].sheets[0];
        62_370.0 / (first.width * first.height)
    };
    assert!((order.cost().unwrap().0 - share * (1.0 + 2.0 * 2.0)).abs() < 1e-9);
    workshop.stocks.get_mut(&other).unwrap().price.as_mut().unwrap().currency = "£".into();
    assert_eq!(made(&job, &workshop).order.cost(), None, "pounds are not added to euros");
    workshop.stocks.get_mut(&other).unwrap().price = None;
    let order = made(&job, &workshop).order.clone();
    assert_eq!(order.cost(), None);
    assert!(order.cards[0].cost.is_some() && order.cards[1].cost.is_none());
}

#[test]
fn a_rolls_sides_take_room_and_cost_all_the_same() {
    let mut workshop = priced(1.0, "€");
    let free = made(&tags(12), &workshop);
    workshop.stocks.get_mut(&tags(1).pieces[0].stock).unwrap().roll = Some(Roll { side: 20.0 });
    let rolled = made(&tags(12), &workshop);
    // 170 mm hold three across.
    assert_eq!((free.layout.per_sheet, rolled.layout.per_sheet), (12, 9));
    let cost = |prepared: &Prepared| prepared.order.cost().unwrap().0;
    assert!((cost(&rolled) - 2.0 * cost(&free)).abs() < 1e-9);
}

#[test]
fn a_kept_layout_is_counted_as_it_is() {
    let mut job = tags(5);
    let at = |x: f64, y: f64| Placement { x, y, turn: 0.0, ..Placement::default() };
    let run = |sheets, placements| SheetRun { sheets, placements };
    job.sheet.kept = Some(Kept {
        made: Made::ByHand,
        blanks: vec![LaidBlank::any("p1", "tag")],
        runs: vec![run(3, vec![at(0.0, 0.0), at(60.0, 0.0)]), run(1, vec![at(0.0, 0.0)])],
    });
    let prepared = made(&job, &workshop());
    assert_eq!((prepared.layout.laid, prepared.layout.sheets()), (7, 4));
    assert!((prepared.order.used - 7.0 * 4500.0 / (4.0 * 62_370.0)).abs() < 1e-9);
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(40))]

    /// Whatever is ordered: no copy is lost, only the last sheets are not full, sheets are as few as whole sheets
    /// can be, and what becomes pieces and what is left over are the card that is bought.
    #[test]
    fn an_order_adds_up(
        width in 25.0..120.0f64, height in 40.0..180.0f64, copies in 1..400u32, spacing in 0.0..6.0f64,
    ) {
        let mut job = tags(copies);
        job.pieces[0].form = Form::new("tag", &[("width", width), ("height", height), ("hole", 0.0)]);
        job.sheet.spacing = spacing;
        let prepared = made(&job, &workshop());
        let layout = &prepared.layout;
        let rows = |side: f64, piece: f64| ((side + spacing + 1e-9) / (piece + spacing)).floor();
        let full = rows(210.0, width) * rows(297.0, height);
        prop_assert!(f64::from(layout.per_sheet) >= full, "{} of {full}", layout.per_sheet);
        prop_assert_eq!(layout.laid, copies);
        prop_assert_eq!(layout.sheets(), copies.div_ceil(layout.per_sheet));
        let card = f64::from(layout.sheets()) * 62_370.0;
        let order = &prepared.order;
        prop_assert!((order.used * card + order.waste - card).abs() < 1e-6 * card);
        prop_assert!((order.used * card - f64::from(copies) * width * height).abs() < 1e-6 * card);
    }
}
