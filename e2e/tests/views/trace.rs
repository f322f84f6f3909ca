//! A picture becomes a sticker: dropped on the list of jobs, its outline found, its border set, mended by hand, cut.

use aptum_e2e::{App, Browser};
use fantoccini::Locator;

const BEE: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/../demo/pictures/bee.png");

/// The vegetable stickers of the demo.
const STICKERS: u32 = 20;

const TRACED: &str = "return fetch('/api/jobs/' + location.pathname.split('/')[2]) \
                      .then(answer => answer.json()).then(open => open.job.pieces[0].form.traced)";

async fn number(browser: &Browser, label: &str) -> f64 {
    let script = format!(
        "const row = [...document.querySelectorAll('.row-result')] \
         .find(own => own.firstChild.textContent === '{label}'); \
         return row ? parseFloat(row.lastChild.textContent) : -1"
    );
    browser.run(&script).await.as_f64().unwrap()
}

#[tokio::test(flavor = "multi_thread")]
async fn a_picture_becomes_a_sticker() {
    let (app, browser) = (App::start(), Browser::open().await);
    browser.go(&app.address).await;
    browser.see(".tickets").await;
    let file = std::fs::canonicalize(BEE).unwrap();
    let field = Locator::Css("input[aria-label='Picture']");
    let field = browser.client.find(field).await.unwrap();
    field.send_keys(file.to_str().unwrap()).await.unwrap();
    browser.see(".picture-start").await;
    browser.write("Picture’s width", "40").await;
    browser.press("\u{e004}").await;
    browser.click("Find its outline").await;
    browser.see(".threshold").await;
    browser.settled().await;
    let traced = browser.run(TRACED).await;
    assert_eq!(traced["trace"]["by"], "transparency");
    assert_eq!(
        (traced["width"].as_f64(), traced["border"]["distance"].as_f64()),
        (Some(40.0), Some(2.0))
    );
    assert_eq!(browser.barriers().await, "");

    // The threshold by keys: nothing is kept but what is asked for, and it goes back by itself.
    let gauge = browser.see(".threshold svg").await;
    gauge.click().await.unwrap();
    browser.press("\u{e014}").await;
    browser.until(TRACED, |own| own["trace"]["threshold"].is_number()).await;
    browser.click("by itself").await;
    browser.until(TRACED, |own| own["trace"]["threshold"].is_null()).await;

    // A wider border has fewer bends and more card.
    let before = browser.text(".spec-card").await;
    browser.enter("Border", "4").await;
    browser.until(TRACED, |own| own["border"]["distance"] == 4.0).await;
    browser.settled().await;
    assert_ne!(browser.text(".spec-card").await, before);
    assert!(number(&browser, "Separate outlines").await >= 1.0);

    // By hand: an antenna is cut off, and comes back.
    browser.click("close a bay").await;
    let tool = browser.see(".trace-tool").await;
    let (x, y, width, height) = tool.rectangle().await.unwrap();
    let (middle, down) = (x + width / 2.0, y + height / 2.0);
    browser.drag((middle - 60.0, down - 90.0), (middle + 40.0, down - 90.0)).await;
    browser.until(TRACED, |own| own["mends"].as_array().is_some_and(|all| all.len() == 1)).await;
    browser.read(".fit-row", "Corrections").await;
    browser.click("Undo").await;
    browser.until(TRACED, |own| own["mends"].as_array().is_none_or(Vec::is_empty)).await;

    // A border is printed beneath the picture, and ends before the cut.
    browser.click("in a colour").await;
    let layers = "return fetch('/api/jobs/' + location.pathname.split('/')[2]) \
        .then(answer => answer.json()).then(open => open.job.pieces[0].face.layers)";
    browser.until(layers, |own| own[0]["id"] == "printed-border").await;
    browser.enter("Ends before the cut", "0.8").await;
    browser.until(layers, |own| own[0]["size"]["mm"] == 0.8).await;
    browser.settled().await;

    // What the machine gets: one closed line in few curves, cut to the liner.
    let id = browser.run("return location.pathname.split('/')[2]").await;
    browser.go(&format!("{}/jobs/{}/run", app.address, id.as_str().unwrap())).await;
    browser.settled().await;
    let svg = String::from_utf8(browser.download("Cut file", "cut-1.svg").await).unwrap();
    let document = roxmltree::Document::parse(&svg).unwrap();
    let paths: Vec<&str> = document.descendants().filter_map(|node| node.attribute("d")).collect();
    assert_eq!(paths.len(), 1, "{svg}");
    let curves = paths[0].matches(['C', 'L']).count();
    assert!(paths[0].ends_with('Z') && (10..120).contains(&curves), "{curves} curves");
    assert!(svg.contains("kiss"), "{svg}");
}

#[tokio::test(flavor = "multi_thread")]
async fn stickers_are_kissed_on_a_card_that_is_cut_through() {
    let (app, browser) = (App::start(), Browser::open().await);
    browser.go(&format!("{}/jobs/{STICKERS}/form", app.address)).await;
    browser.see(".threshold").await;
    browser.read(".fit-row", "Stickers").await;
    assert!((number(&browser, "Separate outlines").await - 6.0).abs() < 1.5);
    let kissed = "return fetch('/api/jobs/20').then(answer => answer.json()).then(open => \
        open.preview.pieces[0].flat.view.lines.find(line => line.kind === 'kiss-cut').path)";
    let kissed = browser.run(kissed).await;
    assert!(kissed.as_str().unwrap().matches('M').count() >= 4, "{kissed}");
    // The card goes, and the stickers are pieces of their own.
    browser.click("none").await;
    browser.settled().await;
    browser.click("a piece each").await;
    let pieces = "return fetch('/api/jobs/20').then(answer => answer.json()) \
                  .then(open => open.job.pieces.length)";
    browser.until(pieces, |count| count.as_u64().is_some_and(|count| count >= 4)).await;
    assert_eq!(browser.barriers().await, "");
}
