//! Form as hands use it: the catalogue, figures, add-ons, the folded piece, and the files of a piece.

use std::time::Duration;

use aptum_e2e::{App, Browser};
use fantoccini::Locator;
use fantoccini::actions::{InputSource, MOUSE_BUTTON_LEFT, MouseActions, PointerAction};
use fantoccini::key::Key;

const TOMATO: u32 = 3;
const BULB_BOX: u32 = 17;
const MONTH_TABS: u32 = 16;

/// How many cuts there are within the outline: those of a kind are one path.
const CUTS: &str = "const cuts = [...document.querySelectorAll('.flat .line.cut:not(.outline)')]; \
    return cuts.map(own => own.getAttribute('d')).join('').split('M').length - 1";

async fn open(app: &App, browser: &Browser, job: u32) {
    browser.go(&format!("{}/jobs/{job}/form", app.address)).await;
    browser.see(".fit-row .fit-stage").await;
}

async fn count(browser: &Browser, selector: &str) -> usize {
    browser.client.find_all(Locator::Css(selector)).await.unwrap().len()
}

#[tokio::test(flavor = "multi_thread")]
async fn a_structure_is_found_by_its_use_and_made() {
    let (app, browser) = (App::start(), Browser::open().await);
    browser.go(&app.address).await;
    browser.click("New job").await;
    browser.read(".catalogue-search", "55 of 55 structures").await;
    let search = browser.see("input[type=search]").await;
    search.send_keys("spaceship").await.unwrap();
    browser.read(".catalogue", "Nothing is called or used for").await;
    browser.click("Show all").await;
    search.send_keys("drawer").await.unwrap();
    browser.read(".catalogue-search", "3 of 55 structures").await;
    browser.click("Sleeve and tray").await;
    browser.read(".spec-card", "Sleeve and tray").await;
    browser.read(".fit-sum", "0 broken").await;
    browser.enter("Length", "8.5in - 6 in").await;
    browser.shows("Length", "63.5").await;
    // Two blanks, each with its size.
    browser.read(".spec-card", "Sleeve").await;
    assert_eq!(count(&browser, ".flat clipPath").await, 2);
}

#[tokio::test(flavor = "multi_thread")]
async fn another_structure_keeps_the_size_and_undo_brings_the_first_back() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, TOMATO).await;
    browser.click("Change").await;
    browser.read(".modal", "at the size at hand").await;
    browser.read(".modal .structure.is-chosen", "Straight-tuck carton").await;
    browser.click("Reverse-tuck carton").await;
    browser.read(".spec-card", "Reverse-tuck carton").await;
    browser.settled().await;
    browser.shows("Length", "36").await;
    browser.shows("Height", "52").await;
    browser.click("Undo").await;
    browser.read(".spec-card", "Straight-tuck carton").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_figure_in_conflict_says_with_which_and_the_last_good_drawing_stays() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, TOMATO).await;
    let before = browser.see(".line.outline").await.attr("d").await.unwrap();
    browser.write("Slit lock", &format!("20{}", char::from(Key::Enter))).await;
    browser.read(".problems", "with length at 36 mm").await;
    browser.see(".board-wrap.is-stale").await;
    browser.read(".stale-note", "The last good drawing").await;
    assert_eq!(browser.see(".line.outline").await.attr("d").await.unwrap(), before);
    browser.click("Set it to").await;
    browser.settled().await;
    browser.see(".board-wrap:not(.is-stale)").await;
    browser.shows("Slit lock", "11.67").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn the_piece_folds_step_by_step_by_slider_buttons_and_keys() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, BULB_BOX).await;
    browser.see(".fold-canvas").await;
    browser.read(".fold-step", "9/9 Close the top").await;
    browser.click("Step back").await;
    browser.read(".fold-step", "8/9 Set the top’s tuck behind the wall").await;
    let slider = browser.see(".fold-range input").await;
    slider.send_keys(&char::from(Key::Home).to_string()).await.unwrap();
    browser.read(".fold-step", "Flat").await;
    browser.click("Step on").await;
    browser.read(".fold-step", "1/9 Fold the glue flap in").await;
    // It plays on by itself to the end; what passes on the way may be gone before it is read.
    browser.click("Play").await;
    browser.read(".fold-step", "9/9 Close the top").await;
    // The view turns by keys, and what is drawn changes.
    let canvas = browser.see(".fold-canvas").await;
    let before = canvas.screenshot().await.unwrap();
    canvas.send_keys(&char::from(Key::Right).to_string()).await.unwrap();
    let start = std::time::Instant::now();
    while canvas.screenshot().await.unwrap() == before {
        assert!(start.elapsed() < Duration::from_secs(20), "the view turns");
    }
    browser.click("inner face").await;
    browser.see(".fold-tools [aria-checked=true]").await;
    assert_eq!(browser.barriers().await, "");
}

#[tokio::test(flavor = "multi_thread")]
async fn pointing_at_a_panel_in_one_view_lights_it_in_the_other() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, BULB_BOX).await;
    browser.see(".fold-canvas").await;
    browser.read(".fold-step", "Close the top").await;
    tokio::time::sleep(Duration::from_millis(600)).await;
    let canvas = browser.see(".fold-canvas").await;
    let (x, y, width, height) = canvas.rectangle().await.unwrap();
    // Low on the left of the middle lies the front, beside its window.
    let over = MouseActions::new("mouse".to_owned()).then(PointerAction::MoveTo {
        duration: Some(Duration::from_millis(50)),
        x: x + width * 0.35,
        y: y + height * 0.62,
    });
    browser.client.perform_actions(over).await.unwrap();
    browser.read(".fold-lit", "Front").await;
    assert_eq!(count(&browser, ".panel.hovered").await, 1);
}

#[tokio::test(flavor = "multi_thread")]
async fn a_window_is_added_dragged_refused_at_an_edge_and_mended() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, TOMATO).await;
    browser.see(".add-on-new").await;
    browser.click("Add").await;
    browser.settled().await;
    browser.read(".add-on", "Front window").await;
    browser.shows("Right of middle", "0").await;
    let cuts = browser.run(CUTS).await;

    let handle = browser.see(".handles rect").await;
    let (x, y, width, height) = handle.rectangle().await.unwrap();
    let (x, y) = (x + width / 2.0, y + height / 2.0);
    let at =
        |x: f64, y: f64| PointerAction::MoveTo { duration: Some(Duration::from_millis(60)), x, y };
    let drag = MouseActions::new("mouse".to_owned())
        .then(at(x, y))
        .then(PointerAction::Down { button: MOUSE_BUTTON_LEFT })
        .then(at(x, y - 10.0))
        .then(at(x, y - 20.0))
        .then(PointerAction::Up { button: MOUSE_BUTTON_LEFT });
    browser.client.perform_actions(drag).await.unwrap();
    browser.settled().await;
    let along: f64 = browser.value("Below middle").await.parse().unwrap();
    assert!(along < -3.0, "{along}");
    assert_eq!(browser.run(CUTS).await, cuts, "it moved");

    // Over the crease: refused, and the way out is offered.
    browser.write("Right of middle", &format!("15{}", char::from(Key::Enter))).await;
    browser.read(".problems", "meets a crease, an edge or another cut on Front").await;
    browser.see(".board-wrap.is-stale").await;
    browser.click("Move it to").await;
    browser.settled().await;
    browser.see(".board-wrap:not(.is-stale)").await;

    // It stays with its panel when the size changes, and goes when it is taken off.
    browser.enter("Height", "80").await;
    browser.settled().await;
    assert_eq!(browser.value("Below middle").await.parse::<f64>().unwrap(), along);
    browser.click("Take Window off Front").await;
    browser.settled().await;
    assert_eq!(count(&browser, ".add-on").await, 0);
}

#[tokio::test(flavor = "multi_thread")]
async fn a_backing_layer_makes_sheets_of_its_own_card() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, TOMATO).await;
    browser.click("second card").await;
    browser.settled().await;
    browser.enter("Border", "2").await;
    browser.settled().await;
    browser.read(".spec-card", "Backing layer").await;
    browser.click("Sheet").await;
    browser.read(".sheet-list", "Kraft card").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn without_webgl_the_folded_piece_is_drawn_flat_shaded() {
    let (app, browser) = (App::start(), Browser::open().await);
    browser.go(&app.address).await;
    browser.see(".ticket").await;
    browser.run("HTMLCanvasElement.prototype.getContext = () => null").await;
    browser.click("Bulb box with a window").await;
    browser.see(".fold-view > .folded-picture").await;
    let closed = count(&browser, ".folded-face").await;
    let shown =
        async || browser.run("return document.querySelector('.folded-picture').innerHTML").await;
    let first = shown().await;
    browser.click("Step back").await;
    browser.read(".fold-step", "8/9").await;
    let start = std::time::Instant::now();
    while shown().await == first {
        assert!(start.elapsed() < Duration::from_secs(10), "the drawing follows the slider");
        tokio::time::sleep(Duration::from_millis(50)).await;
    }
    assert!(closed > 10);
}

#[tokio::test(flavor = "multi_thread")]
async fn the_piece_goes_out_as_dxf_fold_gltf_and_obj() {
    let (app, browser) = (App::start(), Browser::open().await);
    browser.go(&format!("{}/jobs/{BULB_BOX}/run", app.address)).await;
    browser.read(".files", "Folded piece as glTF").await;
    let dxf = browser.download("Flat as DXF", "flat.dxf").await;
    let dxf = String::from_utf8_lossy(&dxf).into_owned();
    // The window's arch and rounded corners are arcs: group 42 is the bulge of a polyline's corner.
    assert!(dxf.contains("LWPOLYLINE") && dxf.contains("\n 42\r\n") && dxf.contains("crease"));
    let read = |bytes: Vec<u8>| serde_json::from_slice::<serde_json::Value>(&bytes).unwrap();
    let fold = read(browser.download("Flat as FOLD", "flat.fold").await);
    assert_eq!(fold["frame_unit"], "mm");
    let model = read(browser.download("Folded piece as glTF", "folded.gltf").await);
    assert_eq!(model["asset"]["version"], "2.0");
    let names: Vec<_> =
        model["nodes"].as_array().unwrap().iter().map(|node| &node["name"]).collect();
    assert!(names.iter().any(|name| **name == "Base front flap"));
    let object = browser.download("Folded piece as OBJ", "folded.obj").await;
    assert!(String::from_utf8_lossy(&object).contains("\no Front\n"));
}

#[tokio::test(flavor = "multi_thread")]
async fn tabs_carry_the_words_that_are_typed() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, MONTH_TABS).await;
    browser.read(".mates", "Sep").await;
    let words = browser.see("textarea.labels").await;
    words.click().await.unwrap();
    let all = format!("{}a{}", char::from(Key::Control), char::from(Key::Null));
    words.send_keys(&format!("{all}Sow\nDig\nEat")).await.unwrap();
    browser.read(".mates", "Dig").await;
    browser.see(".spec-title h2").await.click().await.unwrap();
    browser.settled().await;
    browser.client.refresh().await.unwrap();
    // What has no words has its number.
    browser.read(".mates", "12").await;
    browser.read(".mates", "Dig").await;
    browser.click("Face").await;
    browser.see(".board path[fill='#22302f']").await;
}
