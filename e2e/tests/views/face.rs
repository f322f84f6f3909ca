//! Pictures as people bring them in: chosen, dropped, pasted, moved, and printed.

use aptum_e2e::{App, Browser};
use fantoccini::Locator;
use fantoccini::key::Key;
use lopdf::Document;
use serde_json::{Value, json};

const TOMATO: u32 = 3;
const LETTUCE: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/../demo/pictures/lettuce.png");

async fn open(app: &App, browser: &Browser) {
    browser.go(&format!("{}/jobs/{TOMATO}/face", app.address)).await;
    browser.see(".fit-row .fit-stage").await;
}

/// Sends a file to the field that the button opens.
async fn choose(browser: &Browser, file: &str) {
    let field = browser.client.find(Locator::Css("input[type=file]")).await.unwrap();
    field.send_keys(file).await.unwrap();
}

/// The layers as they are stored.
const LAYERS: &str = "return fetch('/api/jobs/3').then(answer => answer.json()) \
                      .then(open => open.job.pieces[0].face?.layers)";

/// The pictures of a PDF, those that are masks left out, by width and height.
fn pictures(pdf: &[u8]) -> Vec<(i64, i64)> {
    let pdf = Document::load_mem(pdf).unwrap();
    let streams = pdf.objects.values().filter_map(|object| object.as_stream().ok());
    streams
        .filter(|stream| {
            stream.dict.get(b"Subtype").is_ok_and(|kind| kind.as_name().unwrap() == b"Image")
                && stream.dict.get(b"ColorSpace").unwrap().as_name().unwrap() == b"DeviceRGB"
        })
        .map(|stream| {
            let side = |name: &[u8]| stream.dict.get(name).unwrap().as_i64().unwrap();
            (side(b"Width"), side(b"Height"))
        })
        .collect()
}

#[tokio::test(flavor = "multi_thread")]
async fn a_picture_is_chosen_sized_nudged_printed_once_and_undone() {
    let (mut app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser).await;
    let file = std::fs::canonicalize(LETTUCE).unwrap();
    choose(&browser, file.to_str().unwrap()).await;
    browser.see(".board image").await;
    browser.settled().await;
    browser.read(".fit-row", "Sharpness of lettuce.png").await;
    browser.click("lettuce.png").await;
    browser.enter("Width", "1 in").await;
    browser.shows("Height", "25.4").await;
    browser.read(".fit-row", "720 at least 200 ppi").await;

    let handle = browser.see(".handles rect").await;
    handle.send_keys(&char::from(Key::Right).to_string()).await.unwrap();
    browser.settled().await;
    browser.enter("Below middle", "-4").await;
    let layer = browser.run(LAYERS).await[2].clone();
    let place = (layer["x"].as_f64(), layer["y"].as_f64(), &layer["size"]);
    assert_eq!(place, (Some(1.0), Some(-4.0), &json!({ "by": "width", "mm": 25.4 })));

    // What was acknowledged is there after a power cut.
    app.kill_and_restart();
    open(&app, &browser).await;
    browser.see(".board image").await;
    browser.click("Run").await;
    browser.read(".files", "Print file").await;
    let pdf = browser.download("Print file", "print.pdf").await;
    assert_eq!(pictures(&pdf), [(720, 720)], "once, for forty copies");

    open(&app, &browser).await;
    for _ in 0..4 {
        browser.click("Undo").await;
    }
    browser.until(LAYERS, |layers| layers.as_array().is_some_and(|all| all.len() == 2)).await;
    browser.until("return document.querySelector('.board image')", Value::is_null).await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_picture_is_dropped_on_the_panel_under_the_pointer_and_pasted_on_the_chosen_one() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser).await;
    let transfer = "const bytes = await (await fetch('/api/blobs/dbf73befbe1681d9592235a4bd9f6c13ac540dd2f8f6cfc67b2d9445822c35b8')).blob(); \
                    const held = new DataTransfer(); held.items.add(new File([bytes], 'salad.png', { type: 'image/png' }));";
    let drop = format!(
        "return (async () => {{ {transfer} \
         const panel = document.querySelector('[data-panel=Back]'); const box = panel.getBoundingClientRect(); \
         panel.dispatchEvent(new DragEvent('drop', {{ bubbles: true, cancelable: true, dataTransfer: held, \
         clientX: box.x + box.width / 2, clientY: box.y + box.height / 2 }})); }})()"
    );
    browser.run(&drop).await;
    browser.read(".layers", "salad.png").await;
    browser.settled().await;
    browser.choose("on", "Front").await;
    let paste = format!(
        "return (async () => {{ {transfer} \
         document.body.dispatchEvent(new ClipboardEvent('paste', {{ bubbles: true, clipboardData: held }})); }})()"
    );
    browser.run(&paste).await;
    browser
        .until("return document.querySelectorAll('.board image').length", |count| *count == 2)
        .await;
    browser.settled().await;
    let layers = browser.run(LAYERS).await;
    let panels: Vec<&str> = layers.as_array().unwrap()[2..]
        .iter()
        .map(|layer| layer["panels"][0].as_str().unwrap())
        .collect();
    assert_eq!(panels, ["Back", "Front"]);
    // One goes by its handle, the other by its row.
    let handle = browser.see(".handles rect[aria-label='Move salad.png on Back']").await;
    handle.send_keys(&char::from(Key::Delete).to_string()).await.unwrap();
    browser
        .until("return document.querySelectorAll('.board image').length", |count| *count == 1)
        .await;
    browser.click("Take salad.png off").await;
    browser
        .until("return document.querySelectorAll('.board image').length", |count| *count == 0)
        .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn what_is_no_picture_is_said_beside_the_button_and_the_face_stays() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser).await;
    let file = browser.scratch("tomato.png");
    std::fs::write(&file, b"no picture at all").unwrap();
    choose(&browser, file.to_str().unwrap()).await;
    browser.read(".lay-trouble", "tomato.png: The file is no picture").await;
    assert_eq!(browser.run(LAYERS).await.as_array().unwrap().len(), 2);
}

#[tokio::test(flavor = "multi_thread")]
async fn layers_are_added_ordered_and_taken_off() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser).await;
    browser.click("Print Colour later").await;
    let kinds = |layers: &Value| -> Vec<String> {
        let all = layers.as_array().into_iter().flatten();
        all.map(|layer| layer["kind"].as_str().unwrap().to_owned()).collect()
    };
    browser.until(LAYERS, |layers| kinds(layers) == ["panel-names", "colour"]).await;
    browser.click("Take Panel names off").await;
    browser.until(LAYERS, |layers| kinds(layers) == ["colour"]).await;
    browser.click("Add panel names").await;
    browser.until(LAYERS, |layers| kinds(layers) == ["colour", "panel-names"]).await;
    browser.click("only cut").await;
    browser.read(".spec-card h2", "Only cut").await;
    browser.settled().await;
    // The second layer of a face that is not there yet takes nothing of the first away.
    let quickly = "for (const name of ['Add text', 'Add panel names', 'Add shape']) \
         [...document.querySelectorAll('button')].find(own => own.ariaLabel === name || own.textContent === name).click()";
    browser.run(quickly).await;
    browser.until(LAYERS, |layers| kinds(layers) == ["text", "panel-names", "shape"]).await;
    browser.settled().await;
}

/// How many pieces of outline the layers of that colour have on the board.
fn drawn(colour: &str) -> String {
    format!(
        "return [...document.querySelectorAll('.board path[fill=\"{colour}\"]')] \
         .map(path => (path.getAttribute('d').match(/M/g) ?? []).length).reduce((a, b) => a + b, 0)"
    )
}

#[tokio::test(flavor = "multi_thread")]
async fn words_are_typed_set_and_placed_and_printed_as_outlines() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser).await;
    browser.click("Add text").await;
    browser.until(LAYERS, |layers| layers[2]["kind"] == "text").await;
    browser.click("Words").await;
    let words = browser.see(".words textarea").await;
    words.clear().await.unwrap();
    words.send_keys("Tomato\nsow in March").await.unwrap();
    browser.until(LAYERS, |layers| layers[2]["words"] == "Tomato\nsow in March").await;
    browser.click("Stencil, Saira Stencil One").await;
    browser.until(LAYERS, |layers| layers[2]["typeface"] == "stencil").await;
    browser.click("points").await;
    browser.enter("Points", "14").await;
    browser.read(".layers", "14.0 pt, 2 lines").await;
    browser.read(".fit-row", "Size of Tomato").await;
    browser.enter("Turned", "90").await;
    browser.enter("Below middle", "-5").await;
    browser.settled().await;
    let layer = browser.run(LAYERS).await[2].clone();
    assert_eq!(layer["size"], json!({ "by": "points", "value": 14 }));
    assert_eq!((layer["turn"].as_f64(), layer["y"].as_f64()), (Some(90.0), Some(-5.0)));

    // Its panel is chosen on the key plan; there it is read the right way round.
    browser.see(".key-plan path[aria-label=Top]").await.click().await.unwrap();
    browser.until(LAYERS, |layers| layers[2]["panels"] == json!(["Top"])).await;
    browser.read(".fit-row", "Tomato to the edge").await;
    assert!(browser.run(&drawn("#22302f")).await.as_u64().unwrap() > 15);
    assert_eq!(browser.barriers().await, "");

    browser.click("left out").await;
    browser.until(LAYERS, |layers| layers[2]["hidden"] == true).await;
    browser.click("Undo").await;
    browser.until(LAYERS, |layers| layers[2]["hidden"].is_null()).await;
    browser.click("copy").await;
    browser.until(LAYERS, |layers| layers.as_array().is_some_and(|all| all.len() == 4)).await;
}

#[tokio::test(flavor = "multi_thread")]
async fn shapes_and_patterns_are_drawn_from_their_figures() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser).await;
    browser.click("Add pattern").await;
    browser.until(&drawn("#8fae7c"), |dots| dots.as_u64().is_some_and(|dots| dots > 60)).await;
    browser.click("Pattern").await;
    browser.choose("Motif", "star").await;
    browser.enter("Pitch across", "1/2 in").await;
    browser.until(LAYERS, |layers| layers[2]["grid"]["value"][0] == 12.7).await;
    browser.click("Add shape").await;
    browser.until(LAYERS, |layers| layers[3]["kind"] == "shape").await;
    browser.click("Shape").await;
    browser.click("follows the edge").await;
    browser.enter("In from the edge", "500").await;
    browser.settled().await;
    browser.enter("In from the edge", "2.5").await;
    browser.until(LAYERS, |layers| layers[3]["size"] == json!({ "by": "inset", "mm": 2.5 })).await;
}

/// Words and pictures are repeated in place of a figure; the print file has the picture once.
#[tokio::test(flavor = "multi_thread")]
async fn patterns_repeat_words_and_pictures() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser).await;
    browser.click("Add pattern").await;
    browser.until(LAYERS, |layers| layers[2]["kind"] == "pattern").await;
    browser.click("Pattern").await;
    browser.choose("Motif", "word").await;
    browser.until(LAYERS, |layers| layers[2]["motif_of"]["of"] == "word").await;
    let all = format!("{}a{}", char::from(Key::Control), char::from(Key::Null));
    let words = browser.see(".words textarea").await;
    words.send_keys(&format!("{all}Dill")).await.unwrap();
    browser.until(LAYERS, |layers| layers[2]["motif_of"]["words"] == "Dill").await;
    browser.read(".fit-row", "Size of Pattern").await;

    let field = "input[aria-label='Picture to repeat']";
    let field = browser.client.find(Locator::Css(field)).await.unwrap();
    let file = std::fs::canonicalize(LETTUCE).unwrap();
    field.send_keys(file.to_str().unwrap()).await.unwrap();
    let layers = browser.until(LAYERS, |layers| layers[2]["motif_of"]["of"] == "picture").await;
    assert_eq!(layers[2]["motif"], json!([14, 14]));
    let shown = "return document.querySelectorAll('.board image').length";
    browser.until(shown, |shown| shown.as_u64().is_some_and(|shown| shown >= 6)).await;
    browser.read(".fit-row", "Sharpness of Pattern").await;
    // Back to a figure: nothing is left of the picture.
    browser.choose("Motif", "heart").await;
    browser.until(LAYERS, |layers| layers[2]["motif_of"]["of"] != "picture").await;
    browser.click("Undo").await;
    browser.until(LAYERS, |layers| layers[2]["motif_of"]["of"] == "picture").await;
    browser.settled().await;
    browser.click("Run").await;
    browser.read(".files", "Print file").await;
    let pdf = browser.download("Print file", "print.pdf").await;
    assert_eq!(pictures(&pdf), [(720, 720)], "once, however often it is seen");
}

/// A leaf on white, loses its white, a speck and a corner, and is printed so.
#[tokio::test(flavor = "multi_thread")]
async fn a_picture_is_cleaned_up_in_steps_that_can_be_switched_off() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser).await;
    let file = browser.scratch("leaf.png");
    let pixel = |at: usize| {
        let (x, y) = (at % 400, at / 400);
        if (100..300).contains(&x) && (80..220).contains(&y) {
            [40, 120, 60]
        } else if (20..24).contains(&x) && (20..24).contains(&y) {
            [90, 90, 90]
        } else {
            [252, 255, 251]
        }
    };
    let pixels: Vec<u8> = (0..400 * 300).flat_map(pixel).collect();
    let mut coded = png::Encoder::new(std::fs::File::create(&file).unwrap(), 400, 300);
    coded.set_color(png::ColorType::Rgb);
    coded.write_header().unwrap().write_image_data(&pixels).unwrap();
    choose(&browser, file.to_str().unwrap()).await;
    browser.see(".board image").await;
    browser.settled().await;
    browser.click("leaf.png").await;
    browser.click("clean up").await;
    // The steps come faster than they are saved.
    let slowly = "const now = window.fetch; \
                  window.fetch = (to, how) => how?.method === 'PUT' \
                  ? new Promise(go => setTimeout(go, 1500)).then(() => now(to, how)) : now(to, how); return 1";
    browser.run(slowly).await;
    browser.click("drop the background").await;
    browser.read(".rework-steps", "Drop the background").await;
    tokio::time::sleep(std::time::Duration::from_millis(700)).await;
    browser.click("erase specks").await;
    browser.read(".rework-steps", "Erase specks").await;
    let first = |layers: &Value| layers[2]["reworked"]["steps"].is_array();
    browser.until(LAYERS, first).await;
    browser.click("crop to what is left").await;
    let layer = browser.until(LAYERS, |layers| layers[2]["pixels"] == json!([200, 140])).await;
    let kept = &layer[2];
    assert_ne!(kept["blob"], kept["reworked"]["from"]);
    assert_eq!(kept["reworked"]["pixels"], json!([400, 300]));
    // The eraser takes the right half of it.
    browser.click("erase a rectangle").await;
    let before = "const box = document.querySelector('.rework-picture svg image').getBoundingClientRect(); \
                  return [box.x, box.y, box.width, box.height]";
    let at = browser.run(before).await;
    let [x, y, width, height] = [0, 1, 2, 3].map(|k| at[k].as_f64().unwrap());
    browser.drag((x + width / 2.0, y + 2.0), (x + width - 2.0, y + height - 2.0)).await;
    let half = |layers: &Value| {
        layers[2]["pixels"][0].as_u64().is_some_and(|wide| (95..=105).contains(&wide))
    };
    browser.until(LAYERS, half).await;
    browser.see("#rework-3").await.click().await.unwrap();
    browser.until(LAYERS, |layers| layers[2]["pixels"] == json!([200, 140])).await;
    browser.click("Back to the flat").await;
    browser.settled().await;
    browser.click("Run").await;
    browser.read(".files", "Print file").await;
    let pdf = browser.download("Print file", "print.pdf").await;
    assert_eq!(pictures(&pdf), [(200, 140)]);
    // What was brought in is held, and comes back.
    open(&app, &browser).await;
    browser.click("leaf.png").await;
    browser.click("clean up").await;
    for step in ["Drop the background", "Erase specks", "Crop to what is left", "Erase a rectangle"]
    {
        browser.click(&format!("Take away: {step}")).await;
    }
    browser.read(".rework-none", "printed as it came").await;
    let plain = |layers: &Value| {
        layers[2]["reworked"].is_null() && layers[2]["pixels"] == json!([400, 300])
    };
    browser.until(LAYERS, plain).await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_part_of_a_drawing_is_left_out_moved_and_coloured() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser).await;
    let file = browser.scratch("bed.svg");
    let svg = "<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 40 20'>\
               <rect width='20' height='20' fill='#335577'/><circle cx='30' cy='10' r='8' fill='#aa3311'/></svg>";
    std::fs::write(&file, svg).unwrap();
    choose(&browser, file.to_str().unwrap()).await;
    browser.read(".layers", "a drawing, sharp at any size").await;
    browser.settled().await;
    browser.click("bed.svg").await;
    browser.click("change its parts").await;
    browser.read(".rework-new", "2 parts").await;
    browser
        .see(".drawn-part[aria-label='Part 2']")
        .await
        .send_keys(&char::from(Key::Enter).to_string())
        .await
        .unwrap();
    browser.read(".rework-steps", "Part 2").await;
    let steps = |hidden: bool| {
        move |layers: &Value| {
            let step = &layers[2]["reworked"]["steps"][0];
            step["part"] == 1 && (step["hidden"] == true) == hidden
        }
    };
    browser.until(LAYERS, steps(true)).await;
    browser.see("#part-0").await.click().await.unwrap();
    browser.until(LAYERS, steps(false)).await;
    let down = browser.see(".rework-figures label:nth-of-type(2) input").await;
    down.send_keys("\u{e009}a\u{e000}25\u{e007}").await.unwrap();
    browser.until(LAYERS, |layers| layers[2]["reworked"]["steps"][0]["moved"][1] == 0.25).await;
    browser.settled().await;
    let body = "return fetch('/api/jobs/3').then(answer => answer.json()) \
                .then(open => fetch('/api/blobs/' + open.job.pieces[0].face.layers[2].blob)).then(answer => answer.text())";
    // A quarter of 20.
    browser
        .until(body, |svg| svg.as_str().is_some_and(|svg| svg.contains("matrix(1 0 0 1 0 5)")))
        .await;
}

/// A bookmark printed on both sides: words on its back in a typeface of one's own.
#[tokio::test(flavor = "multi_thread")]
async fn a_back_is_printed_in_a_typeface_of_ones_own() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser).await;
    browser.click("both sides").await;
    browser.click("back 0").await;
    browser.read(".spec-card", "Seen from behind").await;
    browser.click("Add text").await;
    browser.until(LAYERS, |layers| layers[2]["side"] == "back").await;
    browser.settled().await;
    browser.click("Words").await;
    let file = browser.scratch("hand.ttf");
    let fonts =
        concat!(env!("CARGO_MANIFEST_DIR"), "/../crates/core/fonts/PatrickHand-Regular.ttf");
    std::fs::copy(fonts, &file).unwrap();
    let bring = Locator::Css("input[aria-label='Typeface file']");
    browser.client.find(bring).await.unwrap().send_keys(file.to_str().unwrap()).await.unwrap();
    let own = |layers: &Value| layers[2]["own_typeface"]["origin"]["name"] == "Patrick Hand";
    browser.until(LAYERS, own).await;
    browser.click("front 2").await;
    browser.read(".layers", "Panel names").await;
    browser.settled().await;
    let json = browser.scratch("no.ttf");
    std::fs::write(&json, "no typeface").unwrap();
    browser.click("back 1").await;
    browser.click("Words").await;
    browser.client.find(bring).await.unwrap().send_keys(json.to_str().unwrap()).await.unwrap();
    browser.read(".own-typeface", "no.ttf: The file is no typeface (TTF, OTF, WOFF2)").await;
    browser.click("Run").await;
    browser.read(".files", "Print file").await;
    let pdf = browser.download("Print file", "print.pdf").await;
    let sheets = "return fetch('/api/jobs/3').then(answer => answer.json()) \
                  .then(open => open.preview.sheet.view.sheets)";
    let sheets = browser.run(sheets).await.as_u64().unwrap();
    let pages = Document::load_mem(&pdf).unwrap().get_pages().len();
    assert_eq!(pages as u64, 2 * sheets);
}

/// Varnish over colour over white: seen one by one on the board, printed as plates.
#[tokio::test(flavor = "multi_thread")]
async fn inks_are_looked_at_one_by_one_and_printed_a_page_each() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser).await;
    browser.click("Add shape").await;
    browser.until(LAYERS, |layers| layers[2]["kind"] == "shape").await;
    browser.click("Shape").await;
    browser.choose("Printed in", "raised varnish").await;
    browser.until(LAYERS, |layers| layers[2]["finish"]["in"] == "raised").await;
    browser.settled().await;
    browser.enter("Passes, 1 to 20", "3").await;
    browser.until(LAYERS, |layers| layers[2]["finish"]["passes"] == 3).await;
    browser.click("under colour").await;
    browser.settled().await;
    let shown = |class: &str| format!("return document.querySelectorAll('.board .{class}').length");
    browser.until(&shown("ink-raised"), |count| *count == 1).await;
    browser.until(&shown("ink-white"), |count| *count == 1).await;
    browser.click("raised varnish").await;
    browser.until(&shown("is-plate"), |count| *count == 1).await;
    browser.until(&shown("ink-colour"), |count| *count == 0).await;
    browser.click("together").await;
    browser.until(&shown("ink-colour"), |count| count.as_u64() > Some(0)).await;
    assert_eq!(browser.barriers().await, "");
    browser.click("Run").await;
    browser.read(".files", "Print file, ink by ink").await;
    let whole = browser.download("Print file", "print.pdf").await;
    let plates = browser.download("Print file, ink by ink", "print-inks.pdf").await;
    let pages = |pdf: &[u8]| Document::load_mem(pdf).unwrap().get_pages().len();
    assert_eq!(pages(&plates), 3 * pages(&whole));
}

/// Clear card shines through colour with no white beneath it, on the sheet as on the face.
#[tokio::test(flavor = "multi_thread")]
async fn clear_card_shines_through_colour_on_face_and_sheet() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser).await;
    let thin = "return document.querySelectorAll('.board .ink-colour[opacity]').length";
    browser.until(thin, |count| *count == 0).await;
    let clear = "const state = await (await fetch('/api/workshop/state')).json(); \
                 const open = await (await fetch('/api/jobs/3')).json(); \
                 const id = open.job.pieces[0].stock; \
                 const record = { ...state.workshop.stocks[id], kind: 'stocks', shine: 'clear' }; \
                 const answer = await fetch('/api/workshop/records/' + id, { method: 'PUT', \
                   headers: { 'Content-Type': 'application/json' }, \
                   body: JSON.stringify({ version: state.version, record }) }); \
                 return answer.status";
    assert_eq!(browser.run(clear).await, 200);
    browser.go(&format!("{}/jobs/3/face", app.address)).await;
    browser.until(thin, |count| count.as_u64() > Some(0)).await;
    browser.click("Sheet").await;
    browser.see(".board .copy").await;
    browser.until(thin, |count| count.as_u64() > Some(0)).await;
    browser.click("Face").await;
    // The fit strip has a button with the same words, and may be there first.
    browser.see("[role=radiogroup][aria-label='White beneath']").await;
    browser.click("under colour").await;
    browser.until(thin, |count| *count == 0).await;
    browser.click("Sheet").await;
    browser.see(".board .copy").await;
    browser.until(thin, |count| *count == 0).await;
}

/// The strips of a curved panel are one panel to whoever lays something on it.
#[tokio::test(flavor = "multi_thread")]
async fn a_curved_panel_is_chosen_whole() {
    let (app, browser) = (App::start(), Browser::open().await);
    browser.go(&format!("{}/jobs/10/face", app.address)).await;
    browser.see("#picture-panel option").await;
    let faces = "return [...document.querySelectorAll('#picture-panel option')].map(own => own.value).join()";
    assert_eq!(browser.run(faces).await, "Front,Back");
    browser.click("Add text").await;
    let last = "return fetch('/api/jobs/10').then(answer => answer.json()) \
                .then(open => open.job.pieces[0].face.layers.at(-1).panels.join())";
    browser.until(last, |panels| *panels == "Front").await;
    browser.settled().await;
    browser.click("Words").await;
    let back = "document.querySelector('.key-plan.is-open [aria-label=\"Back\"]') \
                .dispatchEvent(new MouseEvent('click', { bubbles: true }))";
    browser.see(".key-plan.is-open [aria-label='Back']").await;
    browser.run(back).await;
    browser.until(last, |panels| *panels == "Back").await;
    browser.settled().await;
    assert_eq!(browser.barriers().await, "");
}
