//! A copy for each row: a list brought in, its columns put into words, its rows stepped through and changed.

use aptum_e2e::{App, Browser};
use fantoccini::Locator;
use lopdf::Document;
use serde_json::{Value, json};

/// The plant tag with an eyelet, whose third layer says “Dill”.
const TAG: u32 = 15;

const PIECE: &str = "return fetch('/api/jobs/15').then(answer => answer.json()) \
                     .then(open => open.job.pieces[0])";

const LIST: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/../demo/lists/plant-tags.csv");

async fn open(app: &App, browser: &Browser) {
    browser.go(&format!("{}/jobs/{TAG}/face", app.address)).await;
    browser.see(".fit-row .fit-stage").await;
}

async fn bring(browser: &Browser, file: &str) {
    let field = Locator::Css("input[aria-label='List file']");
    browser.client.find(field).await.unwrap().send_keys(file).await.unwrap();
}

#[tokio::test(flavor = "multi_thread")]
async fn thirty_tags_are_made_from_a_list() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser).await;
    let file = std::fs::canonicalize(LIST).unwrap();
    bring(&browser, file.to_str().unwrap()).await;
    browser.read(".row-steps", "row 1 of 30").await;
    browser.settled().await;
    browser.click("Dill").await;
    browser.click("Put Plant in").await;
    browser.until(PIECE, |piece| piece["face"]["layers"][1]["words"] == "Dill{Plant}").await;
    let words = browser.see(".words textarea").await;
    words.clear().await.unwrap();
    words.send_keys("{Plant}").await.unwrap();
    browser.until(PIECE, |piece| piece["face"]["layers"][1]["words"] == "{Plant}").await;
    browser.read(".fit-row", "Rows and copies").await;
    let piece = browser.run(PIECE).await;
    assert_eq!(piece["copies"], 30);
    assert_eq!(piece["list"]["rows"].as_array().unwrap().len(), 30);

    // Another row is drawn otherwise.
    let drawn = "return [...document.querySelectorAll('.board .flat g[clip-path] path')] \
                 .map(path => path.getAttribute('d')).join(' ').length";
    let first = browser.run(drawn).await;
    browser.click("The next row").await;
    browser.read(".row-steps", "row 2 of 30").await;
    browser.until(drawn, move |now| *now != first).await;

    // A cell is changed in the table; undo brings it back.
    browser.click("open the table").await;
    browser.click("The next row").await;
    browser.read(".row-steps", "row 3 of 30").await;
    let cell = browser.see("input[aria-label='Plant of copy 2']").await;
    cell.click().await.unwrap();
    browser.read(".row-steps", "row 2 of 30").await;
    cell.clear().await.unwrap();
    cell.send_keys("Chioggia beet\u{e007}").await.unwrap();
    browser.until(PIECE, |piece| piece["list"]["rows"][1][0] == "Chioggia beet").await;
    browser.settled().await;
    browser.click("Undo").await;
    browser.until(PIECE, |piece| piece["list"]["rows"][1][0] == "Beetroot").await;

    // Each copy is its own in the print file: a drawing for each row that is printed.
    browser.go(&format!("{}/jobs/{TAG}/run", app.address)).await;
    browser.read(".files", "Print file").await;
    let pdf = browser.download("Print file", "print.pdf").await;
    let pdf = Document::load_mem(&pdf).unwrap();
    let mut rows = std::collections::BTreeSet::new();
    for page in pdf.get_pages().values() {
        let (own, _) = pdf.get_page_resources(*page).unwrap();
        let drawings = own.unwrap().get(b"XObject").unwrap().as_dict().unwrap();
        rows.extend(
            drawings
                .iter()
                .filter(|(name, _)| name.starts_with(b"row"))
                .map(|(name, _)| name.clone()),
        );
    }
    assert_eq!(rows.len(), 30);
}

#[tokio::test(flavor = "multi_thread")]
async fn a_list_that_was_read_wrongly_is_read_again() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser).await;
    let file = browser.scratch("gäste.csv");
    std::fs::write(&file, b"Ottilie;4\nBj\xf6rn;5\n").unwrap();
    bring(&browser, file.to_str().unwrap()).await;
    browser.read(".spec-card", "2 rows, 2 columns").await;
    browser.settled().await;
    let list = browser.run(PIECE).await["list"].clone();
    assert_eq!(list["rows"], json!([["Ottilie", "4"], ["Björn", "5"]]));
    browser.click("names columns").await;
    browser.until(PIECE, |piece| piece["list"]["columns"] == json!(["Ottilie", "4"])).await;
    browser.settled().await;
    browser.click("is a copy").await;
    browser.until(PIECE, |piece| piece["copies"] == 2).await;
    browser.settled().await;
    let bad = browser.scratch("photo.csv");
    std::fs::write(&bad, b"\x89PNG\r\n\x1a\n\0\0\0\x0dIHDR").unwrap();
    bring(&browser, bad.to_str().unwrap()).await;
    browser.read(".lay-trouble", "photo.csv: This is no text").await;
    browser.click("take the list off").await;
    browser.until(PIECE, |piece| piece.get("list").is_none_or(Value::is_null)).await;
}

#[tokio::test(flavor = "multi_thread")]
async fn several_layers_are_lined_up_held_together_and_named() {
    let (app, browser) = (App::start(), Browser::open().await);
    browser.go(&format!("{}/jobs/19/face", app.address)).await;
    browser.see(".fit-row .fit-stage").await;
    let layers = "return fetch('/api/jobs/19').then(answer => answer.json()) \
                  .then(open => open.job.pieces[0].face.layers)";
    browser.click("{Note}").await;
    browser.enter("Right of middle", "6").await;
    browser.until(layers, |layers| layers[5]["x"] == 6.0).await;
    browser.settled().await;
    browser.click("Choose {Plant} with others").await;
    browser.read(".several", "2 layers in hand").await;
    browser.click("middles across").await;
    browser.until(layers, |layers| layers[5]["x"] == layers[3]["x"]).await;
    browser.settled().await;
    browser.click("hold together").await;
    browser
        .until(layers, |layers| {
            layers[3]["group"] == layers[5]["group"] && layers[3]["group"].is_string()
        })
        .await;
    browser.settled().await;
    browser.click("put down").await;
    browser.click("Seeds").await;
    browser.enter("Name", "Leaves").await;
    browser.until(layers, |layers| layers[1]["name"] == "Leaves").await;
}

/// Dragged near to the middle of its tag, a layer is drawn to it exactly; its row is dragged to another place in the list.
#[tokio::test(flavor = "multi_thread")]
async fn a_layer_is_drawn_to_the_middle_and_dragged_into_another_order() {
    let (app, browser) = (App::start(), Browser::open().await);
    browser.go(&format!("{}/jobs/19/face", app.address)).await;
    browser.see(".fit-row .fit-stage").await;
    let layers = "return fetch('/api/jobs/19').then(answer => answer.json()) \
                  .then(open => open.job.pieces[0].face.layers)";
    browser.click("{Plant}").await;
    browser.enter("Right of middle", "7").await;
    browser.until(layers, |layers| layers[3]["x"] == 7.0).await;
    browser.settled().await;
    let handle = "const box = document.querySelector(\"[aria-label='Move {Plant} on Tag']\").getBoundingClientRect(); \
                  const scale = document.querySelector('[data-panel=Tag]').getBoundingClientRect().width / 40; \
                  return [box.x + box.width / 2, box.y + box.height / 2, scale]";
    let at = browser.run(handle).await;
    let [x, y, scale] = [0, 1, 2].map(|k| at[k].as_f64().unwrap());
    // Half a millimetre short of the middle, where it was before.
    browser.drag((x, y), (x - 6.5 * scale, y)).await;
    browser.until(layers, |layers| layers[3]["x"].as_f64().is_some_and(|x| x.abs() < 1e-6)).await;
    browser.settled().await;
    let drop = "const rows = [...document.querySelectorAll('.layer')]; const held = new DataTransfer(); \
                const told = (row, what) => row.dispatchEvent(new DragEvent(what, { bubbles: true, cancelable: true, dataTransfer: held })); \
                told(rows[6].querySelector('header'), 'dragstart'); told(rows[2], 'dragover'); told(rows[2], 'drop');";
    browser.run(drop).await;
    browser.until(layers, |layers| layers[2]["id"] == "l7").await;
    let order = browser.run(layers).await;
    let ids: Vec<&str> =
        order.as_array().unwrap().iter().map(|layer| layer["id"].as_str().unwrap()).collect();
    assert_eq!(ids, ["l1", "l2", "l7", "l3", "l4", "l5", "l6"]);
}

/// The second page of a PDF, brought in as a drawing that stays one.
#[tokio::test(flavor = "multi_thread")]
async fn a_page_of_a_pdf_is_chosen() {
    let (app, browser) = (App::start(), Browser::open().await);
    // Three sheets of tags are a PDF at hand.
    browser.go(&format!("{}/jobs/19/run", app.address)).await;
    browser.read(".files", "Print file").await;
    let pdf = browser.download("Print file", "print.pdf").await;
    let file = browser.scratch("tags.pdf");
    std::fs::write(&file, &pdf).unwrap();
    open(&app, &browser).await;
    let bring = Locator::Css("input[aria-label='Picture file']");
    let page = browser.see("#picture-page").await;
    page.clear().await.unwrap();
    page.send_keys("9").await.unwrap();
    browser.client.find(bring).await.unwrap().send_keys(file.to_str().unwrap()).await.unwrap();
    browser.read(".lay-trouble", "The PDF has no page 9: it has 3").await;
    let page = browser.see("#picture-page").await;
    page.send_keys("\u{e009}a\u{e000}2").await.unwrap();
    browser.client.find(bring).await.unwrap().send_keys(file.to_str().unwrap()).await.unwrap();
    let drawn = |piece: &Value| {
        let layers = piece["face"]["layers"].as_array().unwrap();
        layers.iter().any(|layer| layer["drawn"] == true && layer["origin"]["name"] == "tags.pdf")
    };
    browser.until(PIECE, drawn).await;
    browser.read(".layers", "a drawing, sharp at any size").await;
}
