//! The workshop as people keep it: every kind of record made, changed, retired and used.

use aptum_e2e::{App, Browser};
use fantoccini::Locator;
use fantoccini::key::Key;

const TOMATO: u32 = 3;

async fn record(app: &App, browser: &Browser, path: &str) {
    browser.go(&format!("{}/workshop/{path}", app.address)).await;
    browser.see(".record-drawing").await;
}

async fn sheet(app: &App, browser: &Browser, job: u32) {
    browser.go(&format!("{}/jobs/{job}/sheet", app.address)).await;
    browser.see(".fit-row .fit-stage").await;
}

/// Clicks one of a few choices that stand side by side.
async fn choose_of_few(browser: &Browser, words: &str) {
    let choice = format!("//*[@role='radio'][normalize-space(.)='{words}']");
    browser.client.find(Locator::XPath(&choice)).await.unwrap().click().await.unwrap();
}

/// What a list offers.
async fn offered(browser: &Browser, label: &str) -> String {
    browser.field(label).await.text().await.unwrap()
}

#[tokio::test(flavor = "multi_thread")]
async fn a_first_record_of_every_kind_is_drawn_named_and_undone() {
    let (app, browser) = (App::start(), Browser::open().await);
    for (kind, one) in [
        ("stocks", "stock"),
        ("printers", "printer"),
        ("cutters", "cutter"),
        ("carriers", "carrier"),
        ("mark_sets", "mark set"),
    ] {
        browser.go(&format!("{}/workshop/{kind}", app.address)).await;
        browser.see(".record-drawing").await;
        let all = browser.client.find_all(Locator::Css(".record-link")).await.unwrap().len();
        browser.click(&format!("New {one}")).await;
        browser.read(".spec-subtitle", "No job uses it").await;
        browser.see(".record-drawing .drawn").await;
        browser.enter("Name", &format!("Potting {one} № 7")).await;
        browser.read(".record-link[aria-current=page]", "№ 7").await;
        // A reload shows the same record.
        browser.client.refresh().await.unwrap();
        browser.read(".spec-card h2", &format!("Potting {one} № 7")).await;
        browser.click("Remove").await;
        let gone = format!(
            "return document.querySelectorAll('.record-link').length === {all} \
             && !document.querySelector('.record-list').textContent.includes('№ 7')"
        );
        let mut tries = 0;
        while browser.run(&gone).await != serde_json::Value::Bool(true) {
            tries += 1;
            assert!(tries < 100, "{kind}: {}", browser.text(".record-list").await);
            tokio::time::sleep(std::time::Duration::from_millis(50)).await;
        }
        browser.click("Undo").await;
        browser.read(".record-list", "№ 7").await;
    }
}

#[tokio::test(flavor = "multi_thread")]
async fn a_retired_record_leaves_the_lists_and_stays_in_its_jobs() {
    let (app, browser) = (App::start(), Browser::open().await);
    record(&app, &browser, "mark_sets/four-crosses").await;
    browser.click("Copy").await;
    browser.read(".spec-card h2", "Four open crosses, coded (copy)").await;
    sheet(&app, &browser, TOMATO).await;
    assert!(offered(&browser, "Marks").await.contains("coded (copy)"));
    browser.go(&format!("{}/workshop/mark_sets", app.address)).await;
    browser.click("Four open crosses, coded (copy)").await;
    browser.read(".spec-card h2", "(copy)").await;
    browser.click("retired").await;
    browser.read(".record-link.is-retired", "Four open crosses, coded (copy)").await;
    sheet(&app, &browser, TOMATO).await;
    assert!(!offered(&browser, "Marks").await.contains("coded (copy)"));

    // One that jobs use is held first, and stays in them when it is let go.
    record(&app, &browser, "mark_sets/three-dots").await;
    choose_of_few(&browser, "retired").await;
    browser.read(".held", "jobs use this").await;
    browser.click("Change it for all").await;
    browser.settled().await;
    sheet(&app, &browser, TOMATO).await;
    assert!(offered(&browser, "Marks").await.contains("Three dots"), "its job still names it");
    browser.read(".fit-sum", "0 broken").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn stock_takes_weights_points_and_prices_as_people_write_them() {
    let (app, browser) = (App::start(), Browser::open().await);
    record(&app, &browser, "stocks/ivory-cover-80").await;
    browser.click("Copy").await;
    browser.read(".spec-subtitle", "No job uses it").await;
    browser.enter("Caliper", "12pt").await;
    browser.shows("Caliper", "0.3048").await;
    // 80 lb cover, 20 × 26 in, is 216 g/m² in basis weight tables (common practice).
    browser.enter("Grammage", "80 lb cover").await;
    assert!(browser.value("Grammage").await.starts_with("216"));
    browser.write("Caliper", &format!("9 mm{}", char::from(Key::Enter))).await;
    browser.read(".problems", "must lie between").await;
    browser.read(".spec-card", "not saved").await;
    browser.client.refresh().await.unwrap();
    browser.see(".record-drawing").await;
    browser.shows("Caliper", "0.3048").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_second_window_sees_that_a_record_has_changed_and_loses_nothing() {
    let (app, browser) = (App::start(), Browser::open().await);
    record(&app, &browser, "carriers/desk-carrier-12").await;
    let first = browser.client.window().await.unwrap();
    let second = browser.client.new_window(true).await.unwrap().handle;
    browser.client.switch_to_window(second).await.unwrap();
    record(&app, &browser, "carriers/desk-carrier-12").await;
    browser.enter("Name", "Tacky carrier, renewed").await;
    // The first one shows it as soon as it is looked at again, before anything is written over it.
    browser.client.switch_to_window(first).await.unwrap();
    browser.read(".spec-card h2", "Tacky carrier, renewed").await;
    browser.enter("Width", "340").await;
    browser.client.refresh().await.unwrap();
    browser.read(".spec-card h2", "Tacky carrier, renewed").await;
    browser.shows("Width", "340").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_carrier_is_chosen_on_the_sheet_and_its_hatch_is_named_and_switched() {
    let (app, browser) = (App::start(), Browser::open().await);
    sheet(&app, &browser, TOMATO).await;
    browser.choose("Carrier", "Tacky carrier, 12 × 12 in").await;
    browser.read(".legend", "carrier").await;
    browser.see(".board .taken-carrier").await;
    browser.click("carrier").await;
    let gone = browser.client.find_all(Locator::Css(".board .taken-carrier")).await.unwrap();
    assert!(gone.is_empty(), "switched off");
    browser.click("carrier").await;
    browser.see(".board .taken-carrier").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn what_another_spacing_would_change_is_shown_and_done() {
    let (app, browser) = (App::start(), Browser::open().await);
    sheet(&app, &browser, TOMATO).await;
    browser.click("What would change it").await;
    browser.see(".order-choices button").await;
    browser.read(".order-choices", "between pieces").await;
    browser.click("5 mm between pieces").await;
    browser.settled().await;
    browser.shows("Between pieces", "5").await;
}

/// How far a dialog has faded in.
const SHOWN: &str = "return getComputedStyle(document.querySelector('.modal')).opacity";

#[tokio::test(flavor = "multi_thread")]
async fn the_new_views_have_no_barriers() {
    let (app, browser) = (App::start(), Browser::open().await);
    for path in ["stocks/kraft-300", "cutters/reading-room-cutter", "mark_sets/three-dots"] {
        record(&app, &browser, path).await;
        assert_eq!(browser.barriers().await, "", "{path}");
    }
    sheet(&app, &browser, 18).await;
    browser.see(".board-paper").await.click().await.unwrap();
    browser.press("]").await;
    browser.see(".hand-tools").await;
    assert_eq!(browser.barriers().await, "", "copies by hand");
    browser.click("Compare marks, find the best").await;
    browser.see(".marks-table tbody tr").await;
    browser.until(SHOWN, |opacity| *opacity == "1").await;
    assert_eq!(browser.barriers().await, "", "marks compared");
    sheet(&app, &browser, 4).await;
    browser.click("Ways to fit").await;
    browser.read(".ways-sum", "each one tried").await;
    // It has slid in.
    browser.see(".offcanvas.show:not(.showing)").await;
    assert_eq!(browser.barriers().await, "", "ways to fit");
}

#[tokio::test(flavor = "multi_thread")]
async fn a_change_that_waits_outlives_a_look_elsewhere_and_a_reload() {
    let (app, browser) = (App::start(), Browser::open().await);
    record(&app, &browser, "stocks/kraft-300").await;
    let caliper = browser.value("Caliper").await;
    browser.write("Caliper", &format!("0.45{}", char::from(Key::Enter))).await;
    browser.read(".held", "use this").await;
    browser.read(".record-link[aria-current=page]", "not saved").await;
    browser.click("Ivory cover 80 lb").await;
    browser.read(".spec-card h2", "Ivory cover 80 lb").await;
    browser.client.refresh().await.unwrap();
    browser.read(".record-list", "not saved").await;
    record(&app, &browser, "stocks/kraft-300").await;
    browser.read(".held", "use this").await;
    browser.shows("Caliper", "0.45").await;

    // Kept as a copy, it leaves the record as it was.
    browser.click("Keep as a copy").await;
    browser.read(".spec-card h2", "(copy)").await;
    browser.shows("Caliper", "0.45").await;
    record(&app, &browser, "stocks/kraft-300").await;
    assert_eq!(browser.value("Caliper").await, caliper);
    assert!(!browser.text(".record-list").await.contains("not saved"));
}

#[tokio::test(flavor = "multi_thread")]
async fn undo_shows_the_record_that_it_changed() {
    let (app, browser) = (App::start(), Browser::open().await);
    record(&app, &browser, "carriers/desk-carrier-12").await;
    browser.enter("Width", "350").await;
    browser.settled().await;
    browser.click("Stock").await;
    browser.read(".record-about", "Card and paper").await;
    browser.click("Undo").await;
    browser.read(".record-about", "What holds the sheet").await;
    browser.read(".record-link[aria-current=page]", "Tacky carrier").await;
    assert_ne!(browser.value("Width").await, "350");
    browser.click("Redo").await;
    browser.shows("Width", "350").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn the_workshop_speaks_inches_and_remembers_it() {
    let (app, browser) = (App::start(), Browser::open().await);
    record(&app, &browser, "printers").await;
    browser.click("New printer").await;
    browser.read(".spec-subtitle", "No job uses it").await;
    choose_of_few(&browser, "in").await;
    browser.enter("Width", "13").await;
    browser.read(".record-left", "in × ").await;
    browser.client.refresh().await.unwrap();
    browser.shows("Width", "13").await;
    browser.write("Width", &format!("1{}", char::from(Key::Enter))).await;
    browser.read(".problems", "between 1.969 in and 78.74 in").await;
    choose_of_few(&browser, "mm").await;
    browser.read(".problems", "between 50 mm and 2000 mm").await;
}
