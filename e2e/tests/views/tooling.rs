//! Tooling as a user works it: operations, the path, holding, test cuts, recipes and the Logbook.

use aptum_e2e::{App, Browser};
use fantoccini::key::Key;

const TOMATO: u32 = 3;
const PLANT_TAG: u32 = 15;
const CARRIER: u32 = 9;

async fn open(app: &App, browser: &Browser, id: u32) {
    browser.go(&format!("{}/jobs/{id}/tooling", app.address)).await;
    browser.see(".operation").await;
    browser.settled().await;
}

/// The figure beside an operation's name.
async fn time(browser: &Browser, at: usize) -> String {
    let script = format!(
        "return document.querySelectorAll('.operation')[{at}].querySelector('.btn .figure').textContent"
    );
    browser.run(&script).await.as_str().unwrap().to_owned()
}

#[tokio::test(flavor = "multi_thread")]
async fn a_recipe_is_followed_and_what_differs_from_it_is_shown() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, TOMATO).await;
    browser.click("cut").await;
    browser.read(".recipe", "Cut white board").await;
    browser.shows("Force, g", "420").await;
    browser.enter("Force, g", "450").await;
    browser.read(".recipe em", "force 450 g, not 420 g").await;
    browser.click("As the recipe says").await;
    browser.settled().await;
    browser.shows("Force, g", "420").await;
    // More than the cutter has is said in the strip, and its remedy sets it.
    browser.write("Force, g", &format!("900{}", char::from(Key::Enter))).await;
    browser.read(".fit-row", "400 g more than the cutter has").await;
    browser.click("Greatest force").await;
    browser.click("Set cut to 500 g").await;
    browser.settled().await;
    browser.shows("Force, g", "500").await;
    assert_eq!(browser.barriers().await, "");
}

/// A piece of another card: rows of its own, with a recipe of its own, which say where they are worked.
#[tokio::test(flavor = "multi_thread")]
async fn each_card_has_rows_and_recipes_of_its_own() {
    let (app, browser) = (App::start(), Browser::open().await);
    let add = format!(
        "const open = await (await fetch('{0}/api/jobs/{TOMATO}')).json(); \
         const value = {{ form: {{ structure: 'straight-tuck', basis: 'inside' }}, stock: 'kraft-300', face: null, copies: 4 }}; \
         const answer = await fetch('{0}/api/jobs/{TOMATO}', {{ method: 'PUT', \
           headers: {{ 'Content-Type': 'application/json' }}, \
           body: JSON.stringify({{ version: open.version, changes: [{{ field: 'pieces', doing: 'add', value }}] }}) }}); \
         return answer.status",
        app.address
    );
    open(&app, &browser, TOMATO).await;
    assert_eq!(browser.run(&add).await, 200);
    open(&app, &browser, TOMATO).await;
    let rows = "return [...document.querySelectorAll('.operation > .btn')].map(own => \
                [...own.children].slice(1).map(part => part.textContent).join(': '))";
    browser
        .until(rows, |rows| {
            let said: Vec<&str> =
                rows.as_array().unwrap().iter().filter_map(|own| own.as_str()).collect();
            let [crease, other_crease, cut, other_cut] = said.as_slice() else { return false };
            crease.starts_with("crease, White board")
                && *other_crease == "crease, Kraft card 300 g/m²: other sheets"
                && cut.starts_with("cut, White board")
                && *other_cut == "cut, Kraft card 300 g/m²: other sheets"
        })
        .await;
    browser.click("cut, White board").await;
    browser.read(".recipe", "Cut white board").await;
    browser.shows("Force, g", "420").await;
    browser.enter("Force, g", "430").await;
    browser.settled().await;
    browser.click("cut, Kraft").await;
    browser
        .until("return document.querySelector('.recipe')?.textContent ?? ''", |own| {
            !own.as_str().unwrap().contains("white board")
        })
        .await;
    let said = format!(
        "return fetch('/api/jobs/{TOMATO}').then(own => own.json()).then(open => open.job.tooling.operations)"
    );
    let said = browser.run(&said).await;
    assert_eq!(said["cut"]["force"]["amount"], 430.0, "{said}");
    assert!(said.get("cut@=kraft-300").is_none(), "{said}");
    assert_eq!(browser.barriers().await, "");
}

#[tokio::test(flavor = "multi_thread")]
async fn operations_are_split_moved_and_put_back_by_a_remedy() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, CARRIER).await;
    let names = "return [...document.querySelectorAll('.operation > .btn b')].map(own => own.textContent).join()";
    let before = browser.run(names).await;
    assert!(before.as_str().unwrap().ends_with("cut"), "{before}");
    let row = "document.querySelectorAll('.operation > .btn')";
    browser.run(&format!("{row}[{row}.length - 1].click()")).await;
    browser.click("Split off outlines").await;
    browser.settled().await;
    browser
        .until(names, |own| own.as_str().is_some_and(|own| own.ends_with("cut,cut, outlines")))
        .await;
    // The outline before all else frees the pieces too early.
    browser.run(&format!("{row}[{row}.length - 1].click()")).await;
    // One step after the other, before the first is answered.
    for _ in 0..3 {
        browser.click("Earlier").await;
    }
    browser.settled().await;
    browser
        .until(names, |own| own.as_str().is_some_and(|own| own.starts_with("cut, outlines,")))
        .await;
    browser.read(".fit-row", "on pieces that are cut free").await;
    browser.click("Order of work").await;
    browser.click("Cut last, as usual").await;
    browser.settled().await;
    browser
        .until(names, |own| own.as_str().is_some_and(|own| own.ends_with("cut,cut, outlines")))
        .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn the_path_is_played_pointed_at_and_held_by_nicks() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, TOMATO).await;
    browser.see(".tool-path .done").await;
    let total = browser.text(".spec-card h2").await;
    browser.run("document.querySelectorAll('.hits path')[3].dispatchEvent(new PointerEvent('pointerover', { bubbles: true }))").await;
    browser.read(".pointed-line", "crease 4 of").await;
    // From the beginning: nothing is done yet, then the tool runs.
    browser.click("Play").await;
    browser.see(".tool-now").await;
    browser.click("Stop").await;
    let moment = "return Number(document.querySelector('.timeline input').value)";
    let stopped = browser.run(moment).await;
    assert!(stopped.as_f64().unwrap() < 60.0, "{stopped} of {total}");

    let long = "return [...document.querySelectorAll('.row-result')].find(own => own.textContent.includes('Tools down')).textContent";
    let before = browser.run(long).await;
    browser.choose("Held by", "nicks in their outlines").await;
    browser.until(long, |own| *own != before).await;
    browser.enter("In each outline", "6").await;
    browser.read(".fit-row", "Nicks").await;
    let undo = time(&browser, 1).await;
    browser.click("Undo").await;
    browser.click("Undo").await;
    browser.settled().await;
    browser.until(long, |own| *own == before).await;
    assert_ne!(time(&browser, 1).await, undo, "nicks lift the tool");
}

/// The demo's ladder is half way: its rungs are tapped until it is settled, then it is a recipe that the job goes by.
#[tokio::test(flavor = "multi_thread")]
async fn a_ladder_is_tapped_until_it_is_a_recipe() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, PLANT_TAG).await;
    browser.click("cut").await;
    browser.click("Test cut").await;
    browser.read(".ladder-advice", "Narrower").await;
    let file = String::from_utf8(browser.download("As HP-GL", "test.hpgl").await).unwrap();
    assert!(file.contains("FS320;") || file.contains("FS315;"), "{file}");
    let state = "return { settled: !!document.querySelector('.is-settled'), \
                 rungs: [...document.querySelectorAll('.rungs li b')].map(own => own.textContent) }";
    for _ in 0..20 {
        let now = browser.run(state).await;
        if now["settled"] == true {
            break;
        }
        let rungs = now["rungs"].as_array().unwrap();
        let first = rungs[0].as_str().unwrap();
        let grams: f64 = first.trim_end_matches(" g").parse().unwrap();
        let tap = if grams >= 360.0 { "just-right" } else { "not-through" };
        let tried = "return document.querySelectorAll('.tried').length";
        let before = browser.run(tried).await.as_u64().unwrap();
        browser.run(&format!("document.querySelector('.rungs li .outcome-{tap}').click()")).await;
        browser.until(tried, |own| own.as_u64() == Some(before + 1)).await;
        browser.settled().await;
    }
    browser.read(".ladder-advice", "360 g it is").await;
    browser.click("Keep as a recipe").await;
    browser.read(".spec-card", "the job goes by it now").await;
    browser.go(&format!("{}/workshop/recipes", app.address)).await;
    browser.read(".record-list", "cut on Kraft card").await;
    browser.go(&format!("{}/logbook?text=360+g", app.address)).await;
    browser.read(".logbook-table", "just right").await;
    assert_eq!(browser.barriers().await, "");
}

#[tokio::test(flavor = "multi_thread")]
async fn the_logbook_is_searched_noted_in_and_leads_to_its_jobs() {
    let (app, browser) = (App::start(), Browser::open().await);
    browser.go(&app.address).await;
    browser.click("Logbook").await;
    browser.read(".logbook-sum", "entries").await;
    browser.write("Find in the Logbook", "jar label").await;
    browser.read(".logbook-sum", " of ").await;
    browser.read(".logbook-table", "into the liner").await;
    assert!(!browser.text(".logbook-table").await.contains("Kraft"));
    let note = "document.querySelector('.logbook-table .row-text')";
    let label = browser.run(&format!("return {note}.labels[0].textContent")).await;
    browser.write(label.as_str().unwrap(), &format!("New blade{}", char::from(Key::Enter))).await;
    let kept =
        "return fetch('/api/logbook?text=blade').then(own => own.json()).then(own => own.found)";
    browser.until(kept, |own| own == 1).await;
    browser.client.refresh().await.unwrap();
    browser.until(&format!("return {note}?.value"), |own| own == "New blade").await;
    browser.write("Find in the Logbook", "tomato").await;
    browser.click("Tomato seed carton").await;
    browser.read(".top", "Tomato seed carton").await;
    assert_eq!(browser.barriers().await, "");
}

#[tokio::test(flavor = "multi_thread")]
async fn tooling_shows_the_work_in_order_and_what_is_said_of_it_reaches_the_machine() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, TOMATO).await;
    browser.read(".spec-card", "Operations, in order").await;
    browser.see(".timeline input").await;
    browser.see(".tool-path .done").await;
    assert_eq!(browser.barriers().await, "");
    let done = "return document.querySelectorAll('.tool-path .done').length";
    let all = browser.run(done).await.as_u64().unwrap();
    assert!(all > 0, "{all}");

    // The moment is moved by keys: a part of the work is done then.
    browser.run("document.querySelector('.timeline input').focus()").await;
    browser.press(&Key::Home.to_string()).await;
    browser.until(done, |count| count == 0).await;

    let says = "return fetch('/api/jobs/' + location.pathname.split('/')[2]) \
                .then(answer => answer.json()).then(open => open.job.tooling ?? {})";
    browser.click("crease").await;
    browser.click("off").await;
    browser.until(says, |own| own["operations"]["crease"]["off"] == true).await;
    browser.read(".fit-row", "Switched off").await;
    browser.choose("Held by", "nicks in their outlines").await;
    browser.until(says, |own| own["nicks"]["count"] == 4).await;

    // What is switched off is not sent.
    browser.click("Run").await;
    browser.settled().await;
    let text = browser.download("Cut file as HP-GL", "cut-1.hpgl").await;
    let text = String::from_utf8(text).unwrap();
    assert!(text.contains("SP1;") && !text.contains("SP2;"), "{text}");
}
