//! The drawing board, the spec card and the way between views, as hands use them.

use std::time::Duration;

use aptum_e2e::{App, Browser};
use fantoccini::Locator;
use fantoccini::actions::{InputSource, MouseActions, PointerAction, WheelAction, WheelActions};
use fantoccini::key::Key;

const TOMATO: u32 = 3;
const MAP: u32 = 2;

async fn open(app: &App, browser: &Browser, job: u32, stage: &str) {
    browser.go(&format!("{}/jobs/{job}/{stage}", app.address)).await;
    browser.see(".fit-row .fit-stage").await;
}

/// Scale and shift of the drawing.
async fn view(browser: &Browser) -> (f64, f64, f64) {
    let transform = browser.see(".board-paper > g").await.attr("transform").await.unwrap().unwrap();
    let numbers: Vec<f64> = transform
        .split(|c: char| !(c.is_ascii_digit() || c == '.' || c == '-' || c == 'e'))
        .filter_map(|number| number.parse().ok())
        .collect();
    (numbers[2], numbers[0], numbers[1])
}

#[tokio::test(flavor = "multi_thread")]
async fn the_wheel_zooms_to_the_pointer_a_drag_moves_and_a_double_click_fits() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, TOMATO, "form").await;
    let fitted = view(&browser).await;
    // The board's svg starts below the top bar, at y = 64.
    let pointer = (500_i32, 400_i32);
    let wheel = WheelActions::new("wheel".to_owned()).then(WheelAction::Scroll {
        duration: None,
        x: i64::from(pointer.0),
        y: i64::from(pointer.1),
        delta_x: 0,
        delta_y: -300,
    });
    browser.client.perform_actions(wheel).await.unwrap();
    // The browser may tell of the turn in several parts; all of it zooms by e^0.45.
    let zoomed = seen(&browser, |own| own.0 > 1.56 * fitted.0).await;
    let under = |(scale, x, y): (f64, f64, f64)| {
        ((f64::from(pointer.0) - x) / scale, (f64::from(pointer.1) - 64.0 - y) / scale)
    };
    let (before, after) = (under(fitted), under(zoomed));
    assert!(
        (before.0 - after.0).abs() < 0.3 && (before.1 - after.1).abs() < 0.3,
        "{before:?} {after:?}"
    );

    browser.drag((500.0, 400.0), (560.0, 430.0)).await;
    let is_moved = |own: (f64, f64, f64)| {
        (own.1 - zoomed.1 - 60.0).abs() < 1.5 && (own.2 - zoomed.2 - 30.0).abs() < 1.5
    };
    seen(&browser, is_moved).await;
    browser.click("Fit").await;
    seen(&browser, |own| own == fitted).await;
}

/// The view once it is as expected: the page draws what the pointer did some frames later.
async fn seen(browser: &Browser, expected: impl Fn((f64, f64, f64)) -> bool) -> (f64, f64, f64) {
    let start = std::time::Instant::now();
    loop {
        let own = view(browser).await;
        if expected(own) {
            return own;
        }
        assert!(start.elapsed() < Duration::from_secs(20), "{own:?}");
        tokio::time::sleep(Duration::from_millis(50)).await;
    }
}

#[tokio::test(flavor = "multi_thread")]
async fn the_pointer_is_told_what_lies_under_it() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, TOMATO, "form").await;
    let (scale, x, y) = view(&browser).await;
    let over = async |mm: (f64, f64)| {
        let mouse = MouseActions::new("mouse".to_owned()).then(PointerAction::MoveTo {
            duration: Some(Duration::from_millis(30)),
            x: mm.0 * scale + x,
            y: mm.1 * scale + y + 64.0,
        });
        browser.client.perform_actions(mouse).await.unwrap();
    };
    // 36 × 14 × 52 inside: glue 13, then the front, then the side; the flat's middle is the back.
    over((6.0, 52.0)).await;
    browser.read(".board-hint", "Glue flap").await;
    over((30.0, 52.0)).await;
    browser.read(".board-hint", "Front").await;
    over((57.0, 52.0)).await;
    browser.read(".board-hint", "Right side").await;
    over((82.0, 5.0)).await;
    browser.read(".board-hint", "Top tuck").await;
    assert!(browser.see(".panel.hovered").await.attr("d").await.unwrap().is_some());
}

#[tokio::test(flavor = "multi_thread")]
async fn a_name_is_scrubbed_a_default_comes_back_and_the_figure_in_hand_is_shown() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, MAP, "form").await;
    browser.choose("Unit", "mm").await;
    browser.shows("Tuck flap", "15.88").await;
    browser.click("default").await;
    browser.settled().await;
    browser.shows("Tuck flap", "12").await;

    let label = browser.client.find(Locator::XPath("//label[.='Dust flaps']")).await.unwrap();
    let (x, y, ..) = label.rectangle().await.unwrap();
    let before: f64 = browser.value("Dust flaps").await.parse().unwrap();
    browser.drag((x + 4.0, y + 8.0), (x + 4.0 - 20.0, y + 8.0)).await;
    browser.settled().await;
    let after: f64 = browser.value("Dust flaps").await.parse().unwrap();
    assert!((before - after - 5.0).abs() < 0.011, "4 px a millimetre: {before} → {after}");

    browser.field("Glue flap").await.click().await.unwrap();
    browser.read(".dimensions .lit", "13").await;
    browser.read(".sketch", "Width of the flap that joins the first wall to the last").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn what_takes_room_can_be_switched_off_and_on() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, TOMATO, "sheet").await;
    let count =
        async |selector: &str| browser.client.find_all(Locator::Css(selector)).await.unwrap().len();
    assert_eq!(count(".taken-keep-clear").await, 3);
    browser.click("keep-clear").await;
    assert_eq!(count(".taken-keep-clear").await, 0);
    assert_eq!(count(".taken-printer-margin").await, 1);
    browser.click("cut window").await;
    assert_eq!(count(".board .cut-window[d]").await, 0);
    browser.click("keep-clear").await;
    assert_eq!(count(".taken-keep-clear").await, 3);
}

#[tokio::test(flavor = "multi_thread")]
async fn a_sheet_may_have_a_size_of_its_own() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, TOMATO, "sheet").await;
    browser.choose("Sheet", "own size").await;
    browser.enter("Width", "10 in").await;
    browser.read(".spec-subtitle", "own size portrait, 254 × 420 mm").await;
    browser.write("Height", "4").await;
    browser
        .read(".problems", "The sheet’s height is 4 mm: it must lie between 50 mm and 2000 mm")
        .await;
    browser.press(&char::from(Key::Escape).to_string()).await;
    browser.see(".board-wrap:not(.is-stale)").await;
    browser.click("on its side").await;
    browser.read(".spec-subtitle", "420 × 254 mm").await;
    browser.choose("Sheet", "A4").await;
    browser.read(".spec-subtitle", "A4 landscape, 297 × 210 mm").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn marks_that_the_eye_cannot_read_are_said_and_mended() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, TOMATO, "sheet").await;
    browser.choose("Cutter", "Desk cutter, 12 in").await;
    browser.read(".fit-row", "the eye reads angles").await;
    browser.click("Shape of the marks").await;
    browser.click("Use Four angles, ¼ in").await;
    browser.settled().await;
    browser.see(".taken-sign").await;
    assert!(!browser.text(".fit-row").await.contains("not readable"));
    browser.choose("Marks", "none").await;
    browser.read(".fit-row", "finds a printed sheet by its marks").await;
    browser.choose("Cutter", "by hand").await;
    browser.see(".board-wrap:not(.is-stale)").await;
    browser.read(".fit-sum", "0 broken").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn names_addresses_and_the_back_button() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, TOMATO, "form").await;
    let name = browser.see(".job-name").await;
    let all = format!("{}a{}", char::from(Key::Control), char::from(Key::Null));
    name.send_keys(&format!("{all}Beefsteak carton{}", char::from(Key::Enter))).await.unwrap();
    browser.settled().await;
    assert_eq!(browser.client.title().await.unwrap(), "Beefsteak carton · Aptum");
    // An empty name is no name.
    name.send_keys(&format!("{all}{}{}", char::from(Key::Delete), char::from(Key::Enter)))
        .await
        .unwrap();
    assert_eq!(name.prop("value").await.unwrap().unwrap(), "Beefsteak carton");

    browser.click("Sheet").await;
    browser.read(".spec-card h2", "7 sheets").await;
    browser.click("Run").await;
    browser.see(".run-cut").await;
    browser.client.back().await.unwrap();
    browser.read(".spec-card h2", "7 sheets").await;
    browser.client.back().await.unwrap();
    browser.read(".spec-card h2", "Straight-tuck carton").await;

    for (address, selector) in [
        ("/jobs/3/nonsense", ".spec-card"),
        ("/nowhere/at/all", ".tickets"),
        ("/jobs/3", ".spec-card"),
    ] {
        browser.go(&format!("{}{address}", app.address)).await;
        browser.see(selector).await;
    }
    browser.go(&format!("{}/jobs/99/form", app.address)).await;
    browser.read(".alert", "there is no job 99").await;
    browser.click("All jobs").await;
    browser.read(".tickets", "Beefsteak carton").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn colour_and_coverage_change_what_is_printed() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, TOMATO, "face").await;
    browser.click("Colour").await;
    browser.click("Colour #dfe8d6").await;
    browser.settled().await;
    browser.see(".board path[fill='#dfe8d6']").await;
    browser.enter("Bleed", "3").await;
    browser.read(".fit-row", "held back by the neighbour’s").await;
    browser.click("flaps too").await;
    browser.settled().await;
    browser.click("Take Colour off").await;
    browser.settled().await;
    browser
        .until("return document.querySelector('.board .bleed').getAttribute('d')", |d| *d == "")
        .await;
    browser.see(".board path[fill='#22302f']").await;
    browser.click("Sheet").await;
    browser.read(".spec-card h2", "7 sheets").await;
}
