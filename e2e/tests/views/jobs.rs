//! What a user does with the demo's jobs, in the page.

use aptum_e2e::{App, Browser};
use fantoccini::Locator;
use fantoccini::key::Key;
use lopdf::Document;

const RUNNER_BEAN: u32 = 4;
const TOMATO: u32 = 3;
const MAP: u32 = 2;
const DIBBER: u32 = 1;

async fn open(app: &App, browser: &Browser, job: u32, stage: &str) {
    browser.go(&format!("{}/jobs/{job}/{stage}", app.address)).await;
    browser.see(".fit-row .fit-stage").await;
}

fn key(key: Key) -> String {
    char::from(key).to_string()
}

/// Width and height of a PDF page in mm.
fn page(pdf: &Document) -> (f64, f64) {
    let id = pdf.get_pages()[&1];
    let media = pdf.get_dictionary(id).unwrap().get(b"MediaBox").unwrap().as_array().unwrap();
    let mm = |index: usize| f64::from(media[index].as_float().unwrap()) * 25.4 / 72.0;
    (mm(2), mm(3))
}

#[tokio::test(flavor = "multi_thread")]
async fn the_list_shows_each_job_with_its_flat_its_sheets_and_its_state() {
    let (app, browser) = (App::start(), Browser::open().await);
    browser.go(&app.address).await;
    browser.read(".tickets", "Tomato seed carton").await;
    // What is still to be worked out comes while the list is shown.
    let drawn = "return [...document.querySelectorAll('.ticket')].filter(own => own.querySelector('.small-blank')).length";
    browser.until(drawn, |drawn| drawn == 34).await;
    let tickets = browser.client.find_all(Locator::Css(".ticket")).await.unwrap();
    assert_eq!(tickets.len(), 34);
    for ticket in &tickets {
        let flat = ticket.find(Locator::Css(".small-blank")).await.unwrap();
        assert!(flat.attr("d").await.unwrap().unwrap().starts_with('M'));
    }
    browser.read(".ticket-broken", "Runner bean carton").await;
    browser.read(".tickets", "40 copies on 7 sheets").await;
    browser.click("Tomato seed carton").await;
    browser.read(".spec-card", "Straight-tuck carton").await;

    // Into the bin and back.
    browser.client.back().await.unwrap();
    browser.click("Put Dibber carton into the bin").await;
    browser.read(".binned", "“Dibber carton” is in the bin").await;
    assert!(!browser.text(".tickets").await.contains("Dibber"));
    browser.click("Bring it back").await;
    browser.read(".tickets", "Dibber carton").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn the_flat_follows_each_keystroke_and_undo_reaches_back_past_a_power_cut() {
    let (mut app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, TOMATO, "form").await;
    browser.shows("Length", "36").await;

    // Without Enter: drawn, not saved. 2 7/16 in = 61.9125 mm, and t = 0.3556 mm on top.
    browser.write("Length", "2 7/16 in").await;
    browser.read(".dimensions", "62.27").await;
    assert_eq!(browser.text(".saving").await, "draft");
    browser.press(&key(Key::Enter)).await;
    browser.settled().await;
    browser.enter("Length", "44").await;
    browser.shows("Length", "44").await;

    app.kill_and_restart();
    browser.client.refresh().await.unwrap();
    browser.see(".fit-row .fit-stage").await;
    browser.shows("Length", "44").await;
    browser.click("Undo").await;
    browser.read(".dimensions", "62.27").await;
    browser.click("Undo").await;
    browser.read(".dimensions", "36.36").await;
    browser.click("Redo").await;
    browser.read(".dimensions", "62.27").await;
    browser.shows("Length", "61.91").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_bad_entry_keeps_its_text_says_what_is_wrong_and_changes_nothing() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, TOMATO, "form").await;
    browser.write("Width", &format!("14 apples{}", char::from(Key::Enter))).await;
    browser.read(".problems", "“apples” is not understood").await;
    browser.shows("Width", "14 apples").await;
    browser.press(&key(Key::Escape)).await;
    browser.shows("Width", "14").await;

    // 10 km: the last good drawing stays and is marked as old, and the remedy is one click away.
    browser.write("Height", "10000000").await;
    browser.read(".problems", "it must lie between 5 mm and 2000 mm").await;
    browser.read(".stale-note", "The last good drawing").await;
    browser.read(".dimensions", "52.36").await;
    browser.press(&key(Key::Escape)).await;
    browser.see(".board-wrap:not(.is-stale)").await;
    browser.shows("Height", "52").await;

    browser.write("Glue flap", "0").await;
    browser.click("Set it to 3 mm").await;
    browser.settled().await;
    browser.see(".board-wrap:not(.is-stale)").await;
    browser.read(".fit-row", "5 mm short").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn figures_are_measured_three_ways_and_in_any_unit() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, MAP, "form").await;
    // Outside 2 × 3/4 × 2 3/4 in, as the maker measured.
    browser.shows("Length", "2").await;
    browser.shows("Width", "3/4").await;
    let blank = browser.text(".board-paper .dimensions").await;
    browser.click("inside").await;
    browser.settled().await;
    // 0.28 mm card: three calipers less across, 49.96 mm.
    browser.read(".spec-card", "Outside").await;
    browser.shows("Length", "1.967").await;
    assert_eq!(browser.text(".board-paper .dimensions").await, blank, "the same piece");
    browser.choose("Unit", "mm").await;
    browser.see(".board-wrap:not(.is-stale)").await;
    browser.shows("Length", "49.96").await;
    // Thicker card makes a larger blank for the same inside.
    browser.choose("Stock", "White board 14 pt").await;
    browser.read(".spec-card", "0.3556 mm").await;
    browser.shows("Length", "49.96").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_broken_limit_points_to_its_place_and_its_remedy_mends_it() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, RUNNER_BEAN, "form").await;
    browser.read(".fit-sum", "2 broken").await;
    browser.click("Blank across").await;
    browser.read(".remedies", "214.2 of 195.9 mm").await;
    assert!(browser.client.current_url().await.unwrap().path().ends_with("/sheet"));
    browser.see(".place").await;
    browser.see(".misfit-outside").await;
    // What the limit means is a click away.
    browser.click("The working window").await;
    browser.read(".handbook article", "The working window").await;
    browser.client.back().await.unwrap();
    browser.click("Blank across").await;
    browser.click("Use A3 upright").await;
    browser.read(".fit-sum", "0 broken").await;
    browser.read(".spec-subtitle", "A3 portrait, 297 × 420 mm").await;
    browser.click("Undo").await;
    browser.read(".fit-sum", "2 broken").await;
    browser.click("Make it 65.1 × 36.1 × 99.5 mm inside").await;
    browser.read(".fit-sum", "0 broken").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn the_files_are_what_the_page_says() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, TOMATO, "run").await;
    browser.read(".files", "sheets 1 to 6, all alike").await;
    browser.read(".files", "7 pages").await;
    // The ticket has a page of its own.
    browser.read(".files", "1 page, 210 × 297 mm").await;
    browser.see(".run-printed .marks").await;
    browser.see(".run-cut .line.crease").await;
    let code = browser.text(".spec-card h2").await;

    let print = Document::load_mem(&browser.download("Print file", "print.pdf").await).unwrap();
    assert_eq!(print.get_pages().len(), 7);
    let (width, height) = page(&print);
    assert!((width - 297.0).abs() < 0.01 && (height - 420.0).abs() < 0.01);
    let hand =
        Document::load_mem(&browser.download("Hand-cut file", "hand-cut.pdf").await).unwrap();
    assert_eq!(hand.get_pages().len(), 7);

    let svg = String::from_utf8(browser.download("Cut file", "cut-1.svg").await).unwrap();
    let file = roxmltree::Document::parse(&svg).unwrap();
    let has = |id: &str| file.descendants().any(|node| node.attribute("id") == Some(id));
    assert!(has("cut") && has("crease") && has("page") && !has("marks"));
    let title = file.descendants().find(|node| node.has_tag_name("title")).unwrap().text().unwrap();
    assert!(code.contains(title.rsplit(' ').next().unwrap()), "{title} {code}");

    browser.see("#with-marks").await.click().await.unwrap();
    browser.read(".spec-card", "In a group of their own").await;
    let svg = String::from_utf8(browser.download("Cut file", "cut-1.svg").await).unwrap();
    assert!(svg.contains("id=\"marks\""));
}

#[tokio::test(flavor = "multi_thread")]
async fn a_job_that_is_only_cut_loses_its_marks_and_its_printed_page() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, TOMATO, "sheet").await;
    browser.see(".taken-keep-clear").await;
    open(&app, &browser, TOMATO, "face").await;
    browser.click("only cut").await;
    browser.settled().await;
    browser.read(".spec-card h2", "Only cut").await;
    browser.click("Sheet").await;
    browser.read(".spec-card", "Only cut: no printer and no marks").await;
    let gone =
        browser.client.find_all(Locator::Css(".taken-keep-clear, .taken-printer-margin")).await;
    assert!(gone.unwrap().is_empty());
    browser.click("Run").await;
    browser.see(".run-cut").await;
    browser.read(".files", "Cut file").await;
    assert!(!browser.text(".files").await.contains("Print file"));
    assert!(browser.client.find(Locator::Css(".run-printed")).await.is_err());
}

#[tokio::test(flavor = "multi_thread")]
async fn copies_and_spacing_make_sheets() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, DIBBER, "sheet").await;
    browser.read(".spec-card h2", "2 sheets").await;
    browser.enter("Copies wanted", "5").await;
    browser.read(".spec-card h2", "3 sheets").await;
    browser.click("sheet 3").await;
    assert_eq!(browser.client.find_all(Locator::Css(".board .copy")).await.unwrap().len(), 1);
    browser.write("Copies wanted", "many").await;
    browser.read(".problems", "“many” is not a whole number").await;
    browser.press(&key(Key::Escape)).await;
    browser.write("Copies wanted", "20000").await;
    browser.read(".problems", "it must lie between 1 and 10000").await;
    browser.press(&key(Key::Enter)).await;
    browser.shows("Copies wanted", "20000").await;
    browser.click("Set it to 10000").await;
    browser.read(".spec-card h2", "5000 sheets").await;
    browser.enter("Between pieces", "0").await;
    browser.read(".fit-row", "neighbours share their cuts").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_second_window_is_told_and_keeps_its_own_as_a_copy() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, TOMATO, "form").await;
    let first = browser.client.window().await.unwrap();
    let second = browser.client.new_window(true).await.unwrap().handle;
    browser.client.switch_to_window(second.clone()).await.unwrap();
    open(&app, &browser, TOMATO, "form").await;
    browser.enter("Length", "40").await;

    browser.client.switch_to_window(first).await.unwrap();
    browser.write("Length", &format!("50{}", char::from(Key::Enter))).await;
    browser.read(".modal", "Another window has changed “Tomato seed carton”").await;
    browser.click("Keep mine as a copy").await;
    browser.see(".fit-row .fit-stage").await;
    let wait = browser.client.wait().at_most(std::time::Duration::from_secs(10));
    let copy = Locator::Css(".job-name[value='Tomato seed carton (copy)']");
    wait.for_element(copy).await.expect("the copy is opened");
    browser.shows("Length", "50").await;
    open(&app, &browser, TOMATO, "form").await;
    browser.shows("Length", "40").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn everything_goes_by_keyboard() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, TOMATO, "form").await;
    browser.field("Length").await.click().await.unwrap();
    browser.press(&key(Key::Up).repeat(2)).await;
    browser.read(".dimensions", "38.36").await;
    browser.settled().await;
    // Steps in a row are one change.
    let length = "return fetch('/api/jobs/3').then(answer => answer.json()).then(open => open.job.pieces[0].form.length)";
    browser.until(length, |length| *length == 38).await;
    browser.client.refresh().await.unwrap();
    browser.see(".fit-row .fit-stage").await;
    browser.shows("Length", "38").await;
    browser.see(".board-paper").await.click().await.unwrap();
    let keys = format!("{}z", char::from(Key::Control));
    browser.press(&keys).await;
    browser.read(".dimensions", "36.36").await;
    browser.press(&format!("{}3", char::from(Key::Alt))).await;
    browser.read(".spec-card h2", "7 sheets").await;
    browser.see(".board-paper").await.click().await.unwrap();
    let before = browser.see(".board-paper > g").await.attr("transform").await.unwrap();
    browser.press("+").await;
    let after = browser.see(".board-paper > g").await.attr("transform").await.unwrap();
    assert_ne!(before, after);
    browser.press("0").await;
    assert_eq!(browser.see(".board-paper > g").await.attr("transform").await.unwrap(), before);
    browser.press("?").await;
    browser.read(".modal", "Shortcuts").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_job_goes_out_as_an_archive_and_comes_back() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, MAP, "run").await;
    let bytes = browser.download("Job archive", "job.aptum").await;
    let (good, bad) = (browser.scratch("map.aptum"), browser.scratch("bad.aptum"));
    std::fs::write(&good, &bytes).unwrap();
    std::fs::write(&bad, &bytes[..bytes.len() / 2]).unwrap();

    browser.go(&app.address).await;
    browser.read(".tickets", "Allotment map carton").await;
    let input = browser.see("input[type=file]").await;
    input.send_keys(&bad.to_string_lossy()).await.unwrap();
    browser.read(".alert", "the file is damaged or not an Aptum job").await;
    assert_eq!(browser.client.find_all(Locator::Css(".ticket")).await.unwrap().len(), 34);
    input.send_keys(&good.to_string_lossy()).await.unwrap();
    browser.read(".spec-card", "Straight-tuck carton").await;
    browser.shows("Width", "3/4").await;
    browser.client.find(Locator::Css(".brand-name")).await.unwrap().click().await.unwrap();
    browser.see(".tickets li:nth-child(35)").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn the_server_away_is_said_and_nothing_typed_is_lost() {
    let (mut app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, TOMATO, "form").await;
    let address = app.address.clone();
    browser.run(&format!(
        "window.realFetch = window.fetch; window.fetch = (url, init) => \
         init?.method === 'PUT' ? Promise.reject(new TypeError('{address} is away')) : window.realFetch(url, init);"
    ))
    .await;
    browser.write("Length", &format!("47{}", char::from(Key::Enter))).await;
    browser.read(".trouble", "Nothing you see is lost").await;
    browser.shows("Length", "47").await;
    browser.read(".saving", "not saved").await;
    app.kill_and_restart();
    browser.run("window.fetch = window.realFetch").await;
    browser.click("Try again").await;
    browser.settled().await;
    browser.client.refresh().await.unwrap();
    browser.see(".fit-row .fit-stage").await;
    browser.shows("Length", "47").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn what_does_not_fit_has_nothing_to_download_until_it_does() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, RUNNER_BEAN, "run").await;
    browser.read(".files", "No copy fits, so there is nothing to print or cut yet").await;
    assert!(!browser.text(".files").await.contains("Print file"));
    browser.click("Sheet").await;
    browser.read(".misfit-note", "It does not fit anywhere").await;
    browser.choose("Sheet", "A3").await;
    browser.see(".board-wrap:not(.is-stale)").await;
    browser.click("Run").await;
    browser.read(".files", "Print file").await;
    let print = Document::load_mem(&browser.download("Print file", "print.pdf").await).unwrap();
    let (width, height) = page(&print);
    assert!((width - 297.0).abs() < 0.01 && (height - 420.0).abs() < 0.01);
}

#[tokio::test(flavor = "multi_thread")]
async fn cut_by_hand_there_are_no_marks_and_the_lines_are_printed() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, TOMATO, "sheet").await;
    browser.choose("Cutter", "by hand").await;
    browser.see(".board-wrap:not(.is-stale)").await;
    assert!(browser.client.find(Locator::Css(".taken-keep-clear")).await.is_err());
    browser.click("Run").await;
    browser.read(".run-cut figcaption", "by the knife").await;
    assert!(browser.client.find(Locator::Css("#with-marks")).await.is_err());
    let bytes = browser.download("Hand-cut file", "hand-cut.pdf").await;
    let hand = Document::load_mem(&bytes).unwrap();
    let id = hand.get_pages()[&1];
    let preferences = hand.catalog().unwrap().get(b"ViewerPreferences").unwrap().as_dict().unwrap();
    assert_eq!(preferences.get(b"PrintScaling").unwrap().as_name().unwrap(), b"None");
    let content = String::from_utf8_lossy(&hand.get_page_content(id)).into_owned();
    assert!(content.contains(" d\n"), "dashes in the legend");
}

#[tokio::test(flavor = "multi_thread")]
async fn no_view_has_barriers_or_scrolls_as_a_page() {
    let (app, browser) = (App::start(), Browser::open().await);
    for (width, height) in [(1280, 800), (1024, 768), (3840, 2160)] {
        browser.resize(width, height).await;
        for stage in ["form", "face", "sheet", "run"] {
            open(&app, &browser, TOMATO, stage).await;
            let room = browser
                .run("const e = document.documentElement; return [e.scrollWidth - innerWidth, e.scrollHeight - innerHeight]")
                .await;
            assert_eq!(room.to_string(), "[0,0]", "{stage} at {width} × {height}");
        }
    }
    browser.resize(1280, 800).await;
    for (job, stage) in [
        (TOMATO, "form"),
        (TOMATO, "face"),
        (TOMATO, "sheet"),
        (TOMATO, "run"),
        (RUNNER_BEAN, "sheet"),
    ] {
        open(&app, &browser, job, stage).await;
        if job == RUNNER_BEAN {
            browser.click("Blank across").await;
            browser.see(".remedies").await;
        }
        assert_eq!(browser.barriers().await, "", "{stage}");
    }
    browser.go(&app.address).await;
    browser.see(".ticket").await;
    assert_eq!(browser.barriers().await, "", "the list");
    browser.go(&format!("{}/new", app.address)).await;
    browser.see(".structure").await;
    assert_eq!(browser.barriers().await, "", "the catalogue");
}

/// Each ticket that is seen wears the face of its job: the picture of it is there and can be drawn.
#[tokio::test(flavor = "multi_thread")]
async fn tickets_wear_their_faces() {
    let (app, browser) = (App::start(), Browser::open().await);
    browser.go(&app.address).await;
    browser.see(".ticket image").await;
    let drawn = "const image = document.querySelector('.ticket image').getAttribute('href'); \
                 return fetch(image).then(answer => answer.text()).then(async text => { \
                 const picture = new Image(); picture.src = image; await picture.decode(); \
                 return [text.includes('<path'), picture.naturalWidth > 0]; })";
    browser.until(drawn, |drawn| *drawn == serde_json::json!([true, true])).await;
    // What folds is shown closed, beside its flat.
    let closed = "return [...document.querySelectorAll('.ticket')] \
         .filter(own => { const seen = own.querySelector('.is-folded img'); \
             return seen?.naturalWidth > 100 && own.querySelector('.small-blank'); }) \
         .map(own => own.querySelector('img').alt)";
    let named = |all: &serde_json::Value, name: &str| {
        all.as_array().is_some_and(|all| all.iter().any(|own| own == name))
    };
    browser.until(closed, |all| named(all, "Seedling tray, closed")).await;
    let all = browser.run(closed).await;
    assert!(!named(&all, "Leaf tag, closed"), "a tag lies flat: {all}");
}

/// A term leads to its page, and the search finds pages by any of their words.
#[tokio::test(flavor = "multi_thread")]
async fn the_handbook_explains_the_words_of_the_trade() {
    let (app, browser) = (App::start(), Browser::open().await);
    browser.go(&format!("{}/jobs/3/tooling", app.address)).await;
    browser.see(".operation").await;
    browser.click("Holding").await;
    browser.read("article h2", "Nicks").await;
    browser.write("Find in the handbook", "fit to page ruler").await;
    browser.read(".handbook-desk nav", "Print at 100 %").await;
    browser.click("Print at 100 %").await;
    browser.read("article", "classic reason why a cut misses").await;
    browser.see("article svg").await;
    assert_eq!(browser.barriers().await, "");
    browser.write("Find in the handbook", "zebra").await;
    browser.read(".handbook-desk nav", "No page has all of these words").await;
    // Every page leads only to pages that are there.
    browser.go(&format!("{}/handbook", app.address)).await;
    browser.see(".handbook-desk nav a").await;
    let script = "return [...document.querySelectorAll('.handbook-desk nav a')].map(own => own.getAttribute('href'))";
    let pages = browser.run(script).await;
    let pages: Vec<&str> =
        pages.as_array().unwrap().iter().map(|own| own.as_str().unwrap()).collect();
    assert!(pages.len() >= 20);
    for page in &pages {
        let link = format!(".handbook-desk nav a[href=\"{page}\"]");
        browser.run(&format!("document.querySelector('{link}').click()")).await;
        browser.see(&format!("{link}[aria-current]")).await;
        let script = "return [...document.querySelectorAll('.handbook-see a')].map(own => own.getAttribute('href'))";
        for other in browser.run(script).await.as_array().unwrap() {
            assert!(pages.contains(&other.as_str().unwrap()), "{page} leads to {other}");
        }
    }
}

/// The server is on the same machine: nothing waits for a network that is gone.
#[tokio::test(flavor = "multi_thread")]
async fn work_goes_on_when_the_machine_loses_its_network() {
    let (app, browser) = (App::start(), Browser::open().await);
    browser.go(&app.address).await;
    browser.see(".ticket").await;
    browser.run("window.dispatchEvent(new Event('offline'))").await;
    browser.click("Tomato seed carton").await;
    browser.read(".fit-row", "Smallest flap").await;
    browser.enter("Length", "40").await;
    browser.settled().await;
    browser.click("Aptum").await;
    browser.click("Workshop").await;
    browser.see(".record-drawing").await;
    browser.click("Copy").await;
    browser.read(".spec-card h2", "(copy)").await;
    browser.click("Undo").await;
    let is_there = "return document.body.textContent.includes('(copy)')";
    browser.until(is_there, |seen| *seen == false).await;
}
