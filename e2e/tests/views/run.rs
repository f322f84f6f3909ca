//! Run, the bin, and what must hold on every page: links that open, lines that are seen, work that is not lost.

use std::collections::HashMap;

use aptum_e2e::{App, Browser};
use fantoccini::Locator;
use fantoccini::key::Key;
use serde_json::{Value, json};

const TOMATO: u32 = 3;
const SPRING_SET: u32 = 18;

async fn open(app: &App, browser: &Browser, job: u32, stage: &str) {
    browser.go(&format!("{}/jobs/{job}/{stage}", app.address)).await;
    browser.see(".fit-row .fit-stage").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn every_file_of_a_job_with_three_pieces_opens() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, SPRING_SET, "run").await;
    browser.read(".files", "All of them").await;
    let answers = browser
        .run(
            "return Promise.all([...document.querySelectorAll('.files a')].map(async link => \
              { const answer = await fetch(link.href.replace('ppi=300', 'ppi=40')); \
                return [link.parentElement.textContent, answer.status, (await answer.blob()).size]; }))",
        )
        .await;
    let answers = answers.as_array().unwrap();
    assert!(answers.len() > 12, "{answers:?}");
    let mut texts = HashMap::new();
    for answer in answers {
        assert_eq!(answer[1], 200, "{answer}");
        assert!(answer[2].as_u64().unwrap() > 100, "{answer}");
        *texts.entry(answer[0].as_str().unwrap()).or_insert(0) += 1;
    }
    assert!(texts.values().all(|count| *count == 1), "each is told apart: {texts:?}");
    let zip = browser.download("All of them", "files.zip").await;
    assert!(zip.starts_with(b"PK"));
}

struct Picture {
    width: usize,
    pixels: Vec<[u8; 3]>,
}

impl Picture {
    fn read(bytes: &[u8]) -> Self {
        let mut reader = png::Decoder::new(std::io::Cursor::new(bytes)).read_info().unwrap();
        let mut buffer = vec![0; reader.output_buffer_size().unwrap()];
        let info = reader.next_frame(&mut buffer).unwrap();
        let step = info.color_type.samples();
        let pixels =
            buffer[..info.buffer_size()].chunks(step).map(|p| [p[0], p[1], p[2]]).collect();
        Self { width: info.width as usize, pixels }
    }

    fn within(&self, [x, y, width, height]: [usize; 4]) -> Vec<[u8; 3]> {
        (y..y + height)
            .flat_map(|row| self.pixels[row * self.width + x..row * self.width + x + width].iter())
            .copied()
            .collect()
    }
}

/// Relative luminance of sRGB (published: WCAG 2.2).
fn luminance(colour: [u8; 3]) -> f64 {
    let [r, g, b] = colour.map(|part| {
        let part = f64::from(part) / 255.0;
        if part <= 0.04045 { part / 12.92 } else { ((part + 0.055) / 1.055).powf(2.4) }
    });
    0.2126 * r + 0.7152 * g + 0.0722 * b
}

/// Contrast of two colours, 1 to 21 (published: WCAG 2.2).
fn contrast(one: [u8; 3], other: [u8; 3]) -> f64 {
    let (a, b) = (luminance(one), luminance(other));
    (a.max(b) + 0.05) / (a.min(b) + 0.05)
}

fn ground(pixels: &[[u8; 3]]) -> [u8; 3] {
    let mut counts: HashMap<[u8; 3], usize> = HashMap::new();
    pixels.iter().for_each(|pixel| *counts.entry(*pixel).or_default() += 1);
    counts.into_iter().max_by_key(|(_, count)| *count).unwrap().0
}

async fn place(browser: &Browser, selector: &str) -> [usize; 4] {
    let script = format!(
        "const r = document.querySelector(`{selector}`).getBoundingClientRect(); \
         return [r.x, r.y, r.width, r.height].map(Math.floor)"
    );
    let found = browser.run(&script).await;
    [0, 1, 2, 3].map(|at| usize::try_from(found[at].as_u64().unwrap()).unwrap())
}

/// Each kind of line, drawn through `<use>` as copies are, at least 3 to 1 against what lies behind; words 4.5 to 1:
/// measured on what is painted.
#[tokio::test(flavor = "multi_thread")]
async fn lines_and_words_stand_out_from_what_lies_behind() {
    const KINDS: [&str; 6] =
        ["cut", "kiss-cut", "score", "crease", "reverse-crease", "perforation"];
    let (app, browser) = (App::start(), Browser::open().await);
    for (stage, board) in [("run", ".run-cut svg"), ("sheet", ".board-paper")] {
        open(&app, &browser, TOMATO, stage).await;
        // What is there is seen.
        let picture = Picture::read(&browser.picture().await);
        let seen = picture.within(place(&browser, board).await);
        let behind = ground(&seen);
        let lines = seen.iter().filter(|pixel| contrast(**pixel, behind) >= 3.0).count();
        assert!(lines > 1500, "{stage}: {lines} pixels of lines are seen");
        // And so is every other kind: a thick sample of it instead of the page's first copies.
        for kind in KINDS {
            let script = format!(
                "const svg = document.querySelector('{board}'); \
                 svg.querySelectorAll('.sample').forEach(old => old.remove()); \
                 const [x, y, w, h] = svg.viewBox.baseVal?.width \
                   ? [svg.viewBox.baseVal.x, svg.viewBox.baseVal.y, svg.viewBox.baseVal.width, svg.viewBox.baseVal.height] \
                   : [0, 0, svg.clientWidth, svg.clientHeight]; \
                 const host = svg.querySelector('.page').parentElement; \
                 const page = svg.querySelector('.page').getBBox(); \
                 const line = document.createElementNS('http://www.w3.org/2000/svg', 'g'); \
                 line.innerHTML = `<defs><path id='sample' class='line {kind}' \
                   style='stroke-width:24px;stroke-dasharray:none' \
                   d='M${{page.x + page.width * 0.2}} ${{page.y + page.height * 0.5}}H${{page.x + page.width * 0.8}}'/></defs>\
                   <use href='#sample' class='sample'/>`; \
                 line.classList.add('sample'); host.append(line); return true"
            );
            browser.run(&script).await;
            let picture = Picture::read(&browser.picture().await);
            let [x, y, width, height] = place(&browser, "use.sample").await;
            let inside = picture.within([x + width / 4, y + height / 2, width / 2, 1]);
            let line = ground(&inside);
            let page = place(&browser, &format!("{board} .page")).await;
            let behind = ground(&picture.within(page));
            let got = contrast(line, behind);
            assert!(got >= 3.0, "{stage}: {kind} {line:?} on {behind:?} is {got:.1} to 1");
        }
    }
    open(&app, &browser, TOMATO, "run").await;
    for words in [".run-cut figcaption", ".run-printed figcaption", ".files li"] {
        let picture = Picture::read(&browser.picture().await);
        let seen = picture.within(place(&browser, words).await);
        let behind = ground(&seen);
        let most = seen.iter().map(|pixel| contrast(*pixel, behind)).fold(1.0, f64::max);
        assert!(most >= 4.5, "{words}: {most:.1} to 1");
    }
}

#[tokio::test(flavor = "multi_thread")]
async fn the_bin_is_a_page_of_its_own() {
    let (app, browser) = (App::start(), Browser::open().await);
    browser.go(&app.address).await;
    browser.see(".ticket").await;
    let sought = browser.see("[aria-label='Find a job']").await;
    sought.send_keys("seed tomato").await.unwrap();
    let count = "return document.querySelectorAll('.ticket').length";
    browser.until(count, |count| *count == 1).await;
    browser.see("[aria-label^='Copy ']").await.click().await.unwrap();
    browser.until(count, |count| *count == 2).await;
    browser.read(".tickets", "Tomato seed carton, copy").await;
    browser
        .see("[aria-label='Put Tomato seed carton, copy into the bin']")
        .await
        .click()
        .await
        .unwrap();
    browser.until(count, |count| *count == 1).await;
    browser.go(&format!("{}/bin", app.address)).await;
    browser.read(".bin-list", "Tomato seed carton, copy").await;
    assert_eq!(browser.barriers().await, "");
    browser.click("Bring it back").await;
    browser.read(".empty", "Nothing is in the bin").await;
    browser.go(&app.address).await;
    browser.read(".tickets", "Tomato seed carton, copy").await;
    browser
        .see("[aria-label='Put Tomato seed carton, copy into the bin']")
        .await
        .click()
        .await
        .unwrap();
    browser.read(".binned", "is in the bin").await;
    browser.go(&format!("{}/bin", app.address)).await;
    browser.click("Empty the bin").await;
    browser.see(".modal-footer .btn-primary").await.click().await.unwrap();
    browser.read(".empty", "Nothing is in the bin").await;
    let jobs = "return fetch('/api/jobs').then(answer => answer.json()).then(jobs => jobs.length)";
    browser.until(jobs, |count| *count == 34).await;
}

/// A search that ends after the job was changed offers what it found; it writes nothing over.
#[tokio::test(flavor = "multi_thread")]
async fn a_nest_never_overwrites_what_was_changed_meanwhile() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, SPRING_SET, "sheet").await;
    browser.nest_for("120").await;
    browser.read(".nest-progress", "sheet").await;
    browser.enter("Between pieces", "3").await;
    browser.settled().await;
    browser.click("Stop, keep the best").await;
    browser.read(".lay-note", "You changed it meanwhile").await;
    browser.read(".lay-made", "rows and columns").await;
    let spacing = "return fetch('/api/jobs/18').then(answer => answer.json()).then(open => [open.job.sheet.spacing, open.job.sheet.kept])";
    browser.until(spacing, |seen| *seen == json!([3, null]) || *seen == json!([3.0, null])).await;
    browser.click("Take this layout").await;
    browser.read(".lay-made", "nested").await;
}

/// The first save answers late; the second change is what stays.
#[tokio::test(flavor = "multi_thread")]
async fn saves_that_are_slow_come_in_the_order_of_the_changes() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, TOMATO, "form").await;
    browser
        .run(
            "const real = window.fetch; let slow = true; \
             window.fetch = async (path, init) => { \
               if (init?.method === 'PUT' && slow) { slow = false; await new Promise(done => setTimeout(done, 1500)); } \
               return real(path, init); }; return true",
        )
        .await;
    browser.enter("Length", "38").await;
    browser.enter("Length", "40").await;
    let length = "return fetch('/api/jobs/3').then(answer => answer.json()).then(open => [open.version, open.job.pieces[0].form.length])";
    browser.until(length, |seen| *seen == json!([3, 40]) || *seen == json!([3, 40.0])).await;
    browser.settled().await;
    browser.shows("Length", "40").await;
}

/// An error while something is drawn leaves the page and the job standing.
#[tokio::test(flavor = "multi_thread")]
async fn what_cannot_be_drawn_does_not_blank_the_page() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, TOMATO, "form").await;
    browser
        .run(
            "const real = window.fetch; \
             window.fetch = async (path, init) => { \
               const answer = await real(path, init); \
               if (!String(path).endsWith('/preview')) return answer; \
               const seen = await answer.json(); seen.pieces[0].flat.view.lines = null; \
               return new Response(JSON.stringify(seen)); }; return true",
        )
        .await;
    browser.field("Length").await.click().await.unwrap();
    // Typed, it is tried and not saved: what is saved would take the place of what cannot be drawn.
    browser.press("41").await;
    browser.read(".message-page", "cannot be drawn").await;
    browser.see(".route .station").await;
    browser.click("Back to what is saved").await;
    browser.see(".board-paper").await;
    browser.read(".saving", "saved").await;
    let open = browser.run("return fetch('/api/jobs/3').then(answer => answer.json())").await;
    assert!(open["job"]["pieces"][0]["form"]["length"].as_f64().is_some(), "{open}");
}

/// One of a group is in the tab order, and arrow keys go on from there; copies have names.
#[tokio::test(flavor = "multi_thread")]
async fn groups_and_copies_go_by_arrow_keys() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, TOMATO, "form").await;
    browser.tab_to("[aria-label='Measured'] [aria-checked='true']").await;
    browser.press(&char::from(Key::Right).to_string()).await;
    let chosen = "return document.activeElement.textContent + document.activeElement.getAttribute('aria-checked')";
    browser.until(chosen, |text| *text == "outsidetrue").await;
    let stops = "return [...document.querySelectorAll('[aria-label=Measured] button')].filter(b => b.tabIndex === 0).length";
    assert_eq!(browser.run(stops).await, 1);
    open(&app, &browser, SPRING_SET, "form").await;
    browser.tab_to("[role=tab][aria-selected=true]").await;
    browser.press(&char::from(Key::Right).to_string()).await;
    let tab = "return document.querySelector('[role=tab][aria-selected=true]').id + ' ' + document.querySelector('[role=tabpanel]').getAttribute('aria-labelledby')";
    browser.until(tab, |text| *text == "piece-tab-p2 piece-tab-p2").await;
    open(&app, &browser, TOMATO, "sheet").await;
    browser.tab_to(".board-paper").await;
    browser.press("]").await;
    let active = "const at = document.querySelector('.board-paper').getAttribute('aria-activedescendant'); \
                  return document.getElementById(at)?.getAttribute('aria-label')";
    let name = browser.until(active, Value::is_string).await;
    assert!(name.as_str().unwrap().contains("copy 1"), "{name}");
    assert_eq!(browser.barriers().await, "");
}

/// Held against the light, each back lies behind its copy.
#[tokio::test(flavor = "multi_thread")]
async fn backs_are_shown_where_the_turned_sheet_has_them() {
    let (app, browser) = (App::start(), Browser::open().await);
    browser.go(&format!("{}/jobs/14/run", app.address)).await;
    browser.see("[aria-label='What will be printed on the back'] .copy").await;
    // Left, right and top of every copy, from the left of its page.
    let copies = |view: &str| {
        format!(
            "const sheet = document.querySelector(\"[aria-label^='What will be printed{view}']\"); \
             const page = sheet.querySelector('.page').getBoundingClientRect(); \
             return [page.width, [...sheet.querySelectorAll('.copy')].map(copy => {{ \
             const box = copy.getBoundingClientRect(); \
             return [box.left - page.left, box.right - page.left, box.top - page.top]; }})]"
        )
    };
    let (front, back) = (browser.run(&copies(":")).await, browser.run(&copies(" on")).await);
    let boxes = |view: &serde_json::Value| -> Vec<Vec<f64>> {
        let boxes = view[1].as_array().unwrap().iter();
        boxes
            .map(|own| own.as_array().unwrap().iter().map(|n| n.as_f64().unwrap()).collect())
            .collect()
    };
    let width = front[0].as_f64().unwrap();
    let (front, back) = (boxes(&front), boxes(&back));
    assert_eq!((front.len(), back.len()), (6, 6));
    for (front, back) in front.iter().zip(&back) {
        // About the longer edge of an upright page left and right change places; the bleeds differ by the turning.
        let off = [back[0] - (width - front[1]), back[1] - (width - front[0]), back[2] - front[2]];
        assert!(off.iter().all(|px| px.abs() < 4.0), "{front:?} {back:?}");
    }
    browser.read(".spec-card", "turned about the longer edge").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn art_that_was_made_elsewhere_comes_back_with_the_marks_and_is_cut() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, TOMATO, "run").await;
    browser.settled().await;
    let marks = String::from_utf8(browser.download("Marks as SVG", "marks.svg").await).unwrap();
    // A program that takes 96 to the inch for 72 writes everything 4/3 too large.
    let grown = |name: &str, text: &str| {
        let at = text.find(&format!("{name}=\"")).unwrap() + name.len() + 2;
        let end = at + text[at..].find("mm").unwrap();
        let side: f64 = text[at..end].parse().unwrap();
        format!("{}{}{}", &text[..at], side * 4.0 / 3.0, &text[end..])
    };
    let own = "<path d=\"M80 90H130V130H80Z\" fill=\"none\" stroke=\"#c00\"/></svg>";
    let drawn = grown("height", &grown("width", &marks)).replace("</svg>", own);
    let file = std::env::temp_dir().join(format!("aptum-returned-{}.svg", std::process::id()));
    std::fs::write(&file, drawn).unwrap();
    let field = Locator::Css("input[aria-label='File with the marks']");
    let field = browser.client.find(field).await.unwrap();
    field.send_keys(file.to_str().unwrap()).await.unwrap();
    browser.read(".spec-card", "1.3333 times too large").await;
    browser.read(".spec-card", "drawn at 96 to the inch, read at 72 to the inch").await;
    assert_eq!(browser.barriers().await, "");

    browser.click("Cut its lines").await;
    browser.read(".top", "Tomato seed carton, returned").await;
    let place = "return fetch('/api/jobs/' + location.pathname.split('/')[2]) \
                 .then(answer => answer.json()) \
                 .then(open => open.job.sheet.kept.runs[0].placements[0])";
    let at = browser.run(place).await;
    assert!((at["x"].as_f64().unwrap() - 80.0).abs() < 0.02, "{at}");
    assert!((at["y"].as_f64().unwrap() - 90.0).abs() < 0.02, "{at}");
    std::fs::remove_file(file).unwrap();
}

#[tokio::test(flavor = "multi_thread")]
async fn a_cutter_is_told_how_it_is_spoken_to_and_its_jobs_have_the_file() {
    let (app, browser) = (App::start(), Browser::open().await);
    browser.go(&format!("{}/workshop/cutters/potting-shed-flatbed", app.address)).await;
    browser.see(".record-drawing").await;
    // A copy is no job's yet.
    browser.click("Copy").await;
    browser.read(".spec-card h2", "(copy)").await;
    browser.choose("Takes", "HP-GL").await;
    browser.enter("Units in a millimetre", "100").await;
    let kept = "return fetch('/api/workshop').then(answer => answer.json()) \
                .then(own => Object.values(own.cutters).find(own => own.name.includes('(copy)')).dialect ?? {})";
    browser.until(kept, |own| own["units"] == 100.0).await;
    assert_eq!(browser.barriers().await, "");
    // A command without a place for its number is refused in words, and stays as it was.
    browser.write("Chooses a station", &format!("SP{}", char::from(Key::Enter))).await;
    browser.read(".problems", "is no command").await;
    browser.enter("Chooses a station", "TO{};").await;
    browser.until(kept, |own| own["station"] == "TO{};").await;

    open(&app, &browser, TOMATO, "sheet").await;
    browser.choose("Cutter", "Potting-shed flatbed (copy)").await;
    browser.click("Run").await;
    let text = browser.download("Cut file as HP-GL", "cut-1.hpgl").await;
    assert!(String::from_utf8(text).unwrap().contains("TO1;"));
}
