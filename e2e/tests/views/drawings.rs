//! A drawing from another program becomes a piece: dropped, its scale told, its lines named, folded, cut.

use aptum_e2e::{App, Browser};
use fantoccini::Locator;
use serde_json::Value;

const TRAY: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/../demo/drawings/seedling-tray.svg");

const OPEN: &str = "return fetch('/api/jobs/' + location.pathname.split('/')[2]) \
                    .then(answer => answer.json())";

fn drawing(open: &Value) -> &Value {
    &open["job"]["pieces"][0]["form"]["drawing"]
}

fn view(open: &Value) -> &Value {
    &open["preview"]["pieces"][0]["flat"]["view"]
}

async fn choose(browser: &Browser, name: &str, value: &str) {
    let script = format!(
        "const list = document.querySelector('select[aria-label=\"{name}\"]'); \
         const set = Object.getOwnPropertyDescriptor(HTMLSelectElement.prototype, 'value').set; \
         set.call(list, '{value}'); list.dispatchEvent(new Event('change', {{ bubbles: true }}))"
    );
    browser.run(&script).await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_drawing_without_units_is_asked_about_folded_and_cut() {
    let (app, browser) = (App::start(), Browser::open().await);
    browser.go(&app.address).await;
    browser.see(".tickets").await;
    let file = std::fs::canonicalize(TRAY).unwrap();
    let field = Locator::Css("input[aria-label='Picture']");
    let field = browser.client.find(field).await.unwrap();
    field.send_keys(file.to_str().unwrap()).await.unwrap();
    browser.click("Take its lines").await;
    browser.read(".fit-row", "the file does not say how large it is").await;
    assert_eq!(browser.barriers().await, "");
    browser.until(OPEN, |open| drawing(open)["scale"].is_null()).await;

    // It was drawn at 72 to the inch: the base is four inches wide.
    let seventy_two = "[...document.querySelectorAll('.scales label')] \
        .find(own => own.textContent.startsWith('72')).querySelector('input').click()";
    browser.run(seventy_two).await;
    browser.until(OPEN, |open| drawing(open)["scale"]["count"] == 72.0).await;
    browser.read(".fit-row", "its scale is told").await;
    let open = browser.run(OPEN).await;
    let width = view(&open)["size"][0].as_f64().unwrap();
    assert!((width - 6.0 * 25.4).abs() < 0.2, "six inches over all: {width}");

    // Doubles are an accident here; the leaf is printed.
    browser.click("an accident").await;
    browser.until(OPEN, |open| drawing(open)["doubles"] == "once").await;
    choose(&browser, "What leaf is", "printed").await;
    browser
        .until(OPEN, |open| {
            drawing(open)["key"].as_object().unwrap().values().any(|own| own == "printed")
        })
        .await;

    // Nine panels: the base, four walls and four tabs, of which each lies on a wall.
    browser
        .until(OPEN, |open| view(open)["drawing"]["creases"].as_array().unwrap().len() == 8)
        .await;
    browser.read(".fold-pane", "Fold").await;

    // One crease folds otherwise, and another panel stays.
    browser.enter("Panel 2 on panel 1", "60").await;
    browser.until(OPEN, |open| drawing(open)["folds"][0]["degrees"] == 60.0).await;
    browser.click("all as drawn").await;
    browser.until(OPEN, |open| drawing(open)["folds"].as_array().is_none_or(Vec::is_empty)).await;

    // The machine gets the outline once, the hole and four creases, and nothing of the leaf.
    let id = browser.run("return location.pathname.split('/')[2]").await;
    browser.go(&format!("{}/jobs/{}/run", app.address, id.as_str().unwrap())).await;
    browser.settled().await;
    let svg = String::from_utf8(browser.download("Cut file", "cut-1.svg").await).unwrap();
    let document = roxmltree::Document::parse(&svg).unwrap();
    let paths = document.descendants().filter(|node| node.has_attribute("d")).count();
    assert_eq!(paths, 6, "{svg}");
}

/// The seedling tray of the demo.
const DEMO: u32 = 24;

/// Presses at a place of the page.
async fn press(browser: &Browser, at: (f64, f64)) {
    browser.drag(at, at).await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_known_dimension_settles_the_scale_and_another_panel_stays() {
    let (app, browser) = (App::start(), Browser::open().await);
    browser.go(&format!("{}/jobs/{DEMO}/form", app.address)).await;
    browser.read(".spec-card", "How large it is").await;
    let before = browser.run(OPEN).await;

    browser.click("from place to place").await;
    browser.see(".trace-tool").await;
    press(&browser, (200.0, 300.0)).await;
    press(&browser, (400.0, 300.0)).await;
    browser.see(".measured polyline").await;
    browser.enter("Is really", "50").await;
    let open = browser.until(OPEN, |open| drawing(open)["scale"]["by"] == "known").await;
    let scale = &drawing(&open)["scale"];
    assert_eq!(scale["mm"], 50.0);
    let (units, unit) = (scale["units"].as_f64().unwrap(), view(&open)["drawing"]["unit"].as_f64());
    assert!((units * unit.unwrap() - 50.0).abs() < 1e-6, "{scale}");
    browser.click("Undo").await;
    browser.until(OPEN, |open| drawing(open)["scale"]["by"] == "per-inch").await;

    // The wall at the top stays, and the base folds away from it.
    let first = |open: &Value| view(open)["panels"][0]["size"].clone();
    browser.click("another panel stays").await;
    browser.see(".trace-tool").await;
    let label = "const own = [...document.querySelectorAll('.board text')] \
        .find(own => own.textContent === 'Panel 2').getBoundingClientRect(); \
        return [own.x + own.width / 2, own.y + own.height / 2]";
    let at = browser.run(label).await;
    press(&browser, (at[0].as_f64().unwrap(), at[1].as_f64().unwrap())).await;
    let after = browser.until(OPEN, |open| drawing(open)["root"].is_array()).await;
    assert_ne!(first(&before), first(&after));
    assert_eq!(view(&after)["drawing"]["creases"].as_array().unwrap().len(), 8);
    assert_eq!(browser.barriers().await, "");

    // What is wrong in words stays in words: a length that is none, a fold that is none.
    browser.write("Join ends up to", "99").await;
    browser.press("\u{e007}").await;
    browser.read(".spec-card", "5 mm").await;
}

/// The stencil of the demo.
const STENCIL: u32 = 26;

#[tokio::test(flavor = "multi_thread")]
async fn words_are_cut_out_of_a_panel_and_held_by_bridges() {
    let (app, browser) = (App::start(), Browser::open().await);
    browser.go(&format!("{}/jobs/{STENCIL}/form", app.address)).await;
    browser.read(".spec-card", "Added to panels").await;
    let cut_outs = |open: &Value| view(open)["cut_outs"].clone();
    let before = browser.run(OPEN).await;
    assert_eq!(cut_outs(&before)[0]["islands"], "");

    // Its middle of a D falls out once the bridges go, and the fit strip puts them back.
    browser.click("SEED").await;
    browser.click("fall out").await;
    browser.until(OPEN, |open| cut_outs(open)[0]["islands"] != "").await;
    browser.read(".fit-row", "falls out with what is around it").await;
    assert_eq!(browser.barriers().await, "");
    browser.click("held by bridges").await;
    browser.until(OPEN, |open| cut_outs(open)[0]["islands"] == "").await;

    // Other words, and a drawing beside them.
    let text = Locator::Css(".words textarea");
    let text = browser.client.find(text).await.unwrap();
    text.clear().await.unwrap();
    text.send_keys("PEA").await.unwrap();
    let told = "return fetch('/api/jobs/' + location.pathname.split('/')[2]) \
        .then(answer => answer.json()) \
        .then(open => open.job.pieces[0].form.add_ons[0].own.cutting.words)";
    browser.until(told, |words| words == "PEA").await;
    let id = browser.run("return location.pathname.split('/')[2]").await;
    browser.go(&format!("{}/jobs/{}/run", app.address, id.as_str().unwrap())).await;
    browser.settled().await;
    let svg = String::from_utf8(browser.download("Cut file", "cut-1.svg").await).unwrap();
    assert!(svg.matches(" d=\"").count() > 12, "{svg}");
}

#[tokio::test(flavor = "multi_thread")]
async fn lines_are_mended_by_hand_and_a_step_is_taken_back() {
    let (app, browser) = (App::start(), Browser::open().await);
    browser.go(&format!("{}/jobs/{DEMO}/form", app.address)).await;
    browser.read(".spec-card", "How large it is").await;
    browser.click("mend lines").await;
    browser.see(".trace-tool").await;
    // The middle of a line that is cut, on the screen.
    let middle = "const own = [...document.querySelectorAll('.board path.cut, .board .line.cut')] \
        .find(own => own.getTotalLength); const at = own.getPointAtLength(own.getTotalLength() / 2); \
        const to = at.matrixTransform(own.getScreenCTM()); return [to.x, to.y]";
    let at = browser.run(middle).await;
    press(&browser, (at[0].as_f64().unwrap(), at[1].as_f64().unwrap())).await;
    browser.read(".spec-card", "nodes,").await;
    let nodes = "return document.querySelectorAll('.picked-line rect').length";
    let count = browser.run(nodes).await.as_u64().unwrap();
    assert!(count >= 2, "{count}");
    assert_eq!(browser.barriers().await, "");

    browser.click("put a node in").await;
    browser.until(OPEN, |open| drawing(open)["mends"][0]["step"] == "add-node").await;
    browser.until(nodes, |now| now.as_u64() == Some(count + 1)).await;

    // A node by keyboard: a nudge of a tenth of a millimetre.
    browser.run("document.querySelector('.picked-line rect').focus()").await;
    browser.press("\u{e014}").await;
    let open = browser.until(OPEN, |open| drawing(open)["mends"][1]["step"] == "move").await;
    assert_eq!(drawing(&open)["mends"].as_array().unwrap().len(), 2);
    browser.click("take back").await;
    browser.until(OPEN, |open| drawing(open)["mends"].as_array().unwrap().len() == 1).await;

    // A line of one's own by figures.
    browser.choose("Add", "rectangle").await;
    browser.click("add it").await;
    let open = browser.until(OPEN, |open| drawing(open)["mends"][1]["step"] == "add").await;
    assert_eq!(view(&open)["drawing"]["mended"][1]["is_done"], true);
}

#[tokio::test(flavor = "multi_thread")]
async fn a_carton_is_set_free_after_a_word_and_undone() {
    let (app, browser) = (App::start(), Browser::open().await);
    browser.go(&format!("{}/jobs/3/form", app.address)).await;
    browser.read(".spec-card", "Lines of its own").await;
    let panels = |open: &Value| view(open)["panels"].as_array().unwrap().len();
    let before = panels(&browser.run(OPEN).await);
    browser.click("Set free").await;
    browser.read(".modal", "Undo brings them back").await;
    assert_eq!(browser.barriers().await, "");
    browser.run("document.querySelector('.modal .btn-primary').click()").await;
    let open = browser.until(OPEN, |open| drawing(open)["names"].is_array()).await;
    assert_eq!(panels(&open), before);
    browser.read(".spec-card", "By hand").await;
    browser.click("Undo").await;
    browser.until(OPEN, |open| open["job"]["pieces"][0]["form"]["structure"].is_string()).await;
}
