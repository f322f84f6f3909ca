//! Sheets as people lay them: nested, by hand, with other marks, and made to fit.

use std::time::{Duration, Instant};

use aptum_e2e::{App, Browser};
use fantoccini::Locator;
use fantoccini::key::Key;

const RUNNER_BEAN: u32 = 4;
const TOMATO: u32 = 3;
const SPRING_SET: u32 = 18;

async fn open(app: &App, browser: &Browser, job: u32) {
    browser.go(&format!("{}/jobs/{job}/sheet", app.address)).await;
    browser.see(".fit-row .fit-stage").await;
}

async fn count(browser: &Browser, selector: &str) -> usize {
    browser.client.find_all(Locator::Css(selector)).await.unwrap().len()
}

/// Where the copies lie in the cut file of the first sheet: the starts of its cuts, mm.
async fn cuts(browser: &Browser) -> Vec<(f64, f64)> {
    browser.settled().await;
    browser.click("Run").await;
    browser.read(".files", "Cut file").await;
    let svg = String::from_utf8(browser.download("Cut file", "cut-1.svg").await).unwrap();
    browser.click("Sheet").await;
    browser.see(".copies").await;
    let file = roxmltree::Document::parse(&svg).unwrap();
    let cut = file.descendants().find(|node| node.attribute("id") == Some("cut")).unwrap();
    let starts = cut.descendants().filter_map(|node| node.attribute("d"));
    starts
        .map(|path| {
            let numbers = path[1..].split(|c: char| c == ' ' || c.is_ascii_alphabetic());
            let mut numbers = numbers.map(|number| number.parse::<f64>().unwrap());
            (numbers.next().unwrap(), numbers.next().unwrap())
        })
        .collect()
}

/// The middle of a copy on the screen.
async fn middle(browser: &Browser, copy: u32) -> (f64, f64) {
    let place = browser
        .run(&format!(
            "const box = document.querySelector('[data-copy=\"{copy}\"] use').getBoundingClientRect();\
             return [box.x + box.width / 2, box.y + box.height / 2]"
        ))
        .await;
    (place[0].as_f64().unwrap(), place[1].as_f64().unwrap())
}

#[tokio::test(flavor = "multi_thread")]
async fn several_pieces_are_nested_onto_one_sheet_and_undo_brings_two_back() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, SPRING_SET).await;
    browser.read(".spec-card h2", "2 sheets").await;
    browser.click("Time and seed of the search").await;
    browser.enter("Seconds at most", "300").await;
    browser.click("Nest").await;
    browser.read(".nest-progress", "1 sheet, 20 blanks").await;
    browser.click("Stop, keep the best").await;
    browser.read(".lay-note", "1 sheet, 20 blanks").await;
    browser.read(".spec-card h2", "1 sheet").await;
    browser.read(".lay-made", "nested").await;
    browser.read(".fit-sum", "0 broken").await;
    browser.settled().await;
    assert_eq!(count(&browser, ".board .copy").await, 20);
    // It is there again after a reload, and its files are made from it.
    browser.client.refresh().await.unwrap();
    browser.read(".spec-card h2", "1 sheet").await;
    browser.click("Run").await;
    browser.read(".files", "sheet 1").await;
    assert!(!browser.text(".files").await.contains("sheet 2"));
    browser.click("Sheet").await;
    browser.click("Undo").await;
    browser.read(".spec-card h2", "2 sheets").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_search_is_stopped_and_a_second_one_is_refused_meanwhile() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, SPRING_SET).await;
    browser.click("Time and seed of the search").await;
    browser.enter("Seconds at most", "100").await;
    browser.click("fill the sheets").await;
    browser.settled().await;
    browser.click("Nest").await;
    browser.read(".nest-progress", "1 sheet").await;

    let first = browser.client.window().await.unwrap();
    let second = browser.client.new_window(true).await.unwrap().handle;
    browser.client.switch_to_window(second).await.unwrap();
    open(&app, &browser, SPRING_SET).await;
    browser.click("Nest").await;
    browser.read(".lay-trouble", "has been nesting for").await;
    browser.read(".lay-trouble", "stop that, or wait for it").await;
    browser.read(".spec-card h2", "2 sheets").await;

    browser.client.switch_to_window(first).await.unwrap();
    browser.click("Stop, keep the best").await;
    browser.read(".lay-note", "You stopped the search").await;
    browser.read(".spec-card h2", "1 sheet").await;
    // The job is free for another run at once.
    browser.enter("Seconds at most", "1").await;
    browser.settled().await;
    browser.click("Nest").await;
    browser.read(".lay-note", "after").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn copies_are_dragged_nudged_turned_locked_and_taken_off() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, TOMATO).await;
    let copies = u32::try_from(count(&browser, ".board .copy").await).unwrap();
    let before = cuts(&browser).await;
    let from = middle(&browser, copies - 1).await;
    browser.drag(from, (from.0 + 30.0, from.1 + 12.0)).await;
    browser.read(".lay-made", "by hand").await;
    browser.read(".hand-sum", "1 copy").await;
    browser.settled().await;
    let dragged = cuts(&browser).await;
    let moved: Vec<usize> = (0..before.len()).filter(|at| before[*at] != dragged[*at]).collect();
    assert!(!moved.is_empty() && moved.len() < before.len(), "one copy: {moved:?}");

    // By keyboard: the first copy is chosen, ten steps of a tenth and one of ten.
    browser.see(".board-paper").await.click().await.unwrap();
    browser.press("]").await;
    browser.read(".hand-sum", "1 copy").await;
    browser.press(&format!("{}{}", char::from(Key::Shift), char::from(Key::Right))).await;
    browser.press(&char::from(Key::Down).to_string()).await;
    // Both arrive, one after the other.
    let start = Instant::now();
    let nudged = loop {
        let nudged = cuts(&browser).await;
        let steps: Vec<(f64, f64)> = dragged
            .iter()
            .zip(&nudged)
            .map(|(a, b)| (b.0 - a.0, b.1 - a.1))
            .filter(|step| step.0.abs() + step.1.abs() > 1e-3)
            .collect();
        let is_there = |(x, y): &(f64, f64)| (x - 10.0).abs() < 1e-3 && (y - 1.0).abs() < 1e-3;
        if !steps.is_empty() && steps.iter().all(is_there) {
            break nudged;
        }
        assert!(start.elapsed() < Duration::from_secs(60), "{steps:?}");
        tokio::time::sleep(Duration::from_millis(100)).await;
    };

    browser.see(".board-paper").await.click().await.unwrap();
    browser.press("]").await;
    browser.press("l").await;
    browser.see(".handled.is-locked").await;
    browser.press(&char::from(Key::Right).to_string()).await;
    browser.settled().await;
    assert_eq!(cuts(&browser).await, nudged, "a locked copy stays");
    browser.see(".board-paper").await.click().await.unwrap();
    browser.press("[").await;
    browser.press(&char::from(Key::Delete).to_string()).await;
    browser.settled().await;
    browser.read(".fit-row", "missing in the kept layout").await;
    browser.click("Rows and columns").await;
    browser.read(".lay-made", "rows and columns").await;
    browser.settled().await;
    assert_eq!(cuts(&browser).await, before);
}

#[tokio::test(flavor = "multi_thread")]
async fn many_are_chosen_aligned_and_repeated() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, SPRING_SET).await;
    browser.see(".board-paper").await.click().await.unwrap();
    browser.press(&format!("{}a", char::from(Key::Control))).await;
    browser.read(".hand-sum", "13 copies").await;
    browser.click("Bottom edges").await;
    browser.read(".fit-row", "pairs overlap").await;
    browser.settled().await;
    browser.click("Undo").await;
    browser.read(".lay-made", "rows and columns").await;
    let at = middle(&browser, 0).await;
    browser.drag(at, at).await;
    browser.read(".hand-sum", "1 copy").await;
    browser.click("Repeat").await;
    browser.enter("gap across", "1 in").await;
    browser.see(".hand-grid button[type=submit]").await.click().await.unwrap();
    browser.read(".hand-sum", "2 copies").await;
    browser.settled().await;
    assert_eq!(count(&browser, ".board .copy").await, 14);
}

#[tokio::test(flavor = "multi_thread")]
async fn a_locked_copy_stays_when_the_rest_is_nested_again_and_sheets_are_filled() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, SPRING_SET).await;
    // So few that filling the sheet has room for more at once, however slow the machine.
    browser.enter("Plant tag", "2").await;
    browser.read(".spec-card h2", "1 sheet").await;
    browser.settled().await;
    let before = cuts(&browser).await;
    browser.see(".board-paper").await.click().await.unwrap();
    browser.press("]").await;
    // Away from where rows and columns have it, and locked there.
    browser.press(&format!("{}{}", char::from(Key::Shift), char::from(Key::Down))).await;
    browser.press("l").await;
    browser.see(".handled.is-locked").await;
    browser.settled().await;
    let moved = cuts(&browser).await;
    let stood: Vec<(f64, f64)> =
        moved.iter().filter(|start| !before.contains(start)).copied().collect();
    assert!(!stood.is_empty());
    browser.click("Time and seed of the search").await;
    browser.enter("Seconds at most", "3").await;
    browser.click("fill the sheets").await;
    browser.settled().await;
    browser.click("Nest").await;
    browser.read(".lay-note", "after").await;
    browser.settled().await;
    browser.read(".fit-sum", "0 broken").await;
    let nested = cuts(&browser).await;
    assert!(stood.iter().all(|start| nested.contains(start)), "{stood:?} of {nested:?}");
    browser.see(".handled.is-locked").await;
    let laid: Vec<u32> = browser
        .run("return [...document.querySelectorAll('.piece-note')].map(note => parseInt(note.textContent))")
        .await
        .as_array()
        .unwrap()
        .iter()
        .map(|count| u32::try_from(count.as_u64().unwrap()).unwrap())
        .collect();
    assert!(laid.iter().zip([4, 2, 4]).all(|(laid, wanted)| *laid >= wanted), "{laid:?}");
    assert!(laid.iter().sum::<u32>() > 10, "more than was wanted: {laid:?}");
}

#[tokio::test(flavor = "multi_thread")]
async fn ways_to_fit_are_shown_with_drawings_and_one_is_carried_out() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, RUNNER_BEAN).await;
    browser.read(".misfit-note", "It does not fit anywhere").await;
    browser.click("Ways to fit").await;
    browser.read(".ways-sum", "each one tried").await;
    assert!(count(&browser, ".way .small-sheet").await >= 4);
    browser.read(".ways-pane", "the largest of this shape that fits").await;
    browser.read(".ways-pane", "Use A3 upright").await;
    let words = "Do it: Use A3 upright";
    browser.see(&format!("[aria-label='{words}']")).await.click().await.unwrap();
    browser.read(".spec-subtitle", "A3 portrait").await;
    browser.read(".fit-sum", "0 broken").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn of_several_pieces_that_fit_nowhere_the_one_in_question_is_named() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, 18).await;
    // Neither the carton nor the bookmark goes onto a card of 60 × 110 mm.
    browser.choose("Sheet", "own size").await;
    browser.enter("Width", "60").await;
    browser.enter("Height", "110").await;
    browser.click("Ways to fit").await;
    browser.read(".ways-sum", "for “Straight-tuck carton”, each one tried").await;
    browser.read(".ways-sum", "One more fits nowhere: it comes next").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_piece_in_two_parts_fits_folds_and_is_put_together_again() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, RUNNER_BEAN).await;
    browser.click("Ways to fit").await;
    browser.read(".ways-pane", "Make it in two parts").await;
    browser.see("[aria-label^='Do it: Make it in two parts, cut at the crease']").await;
    browser
        .run("document.querySelector(\"[aria-label^='Do it: Make it in two parts, cut at the crease']\").click()")
        .await;
    browser.read(".fit-sum", "0 broken").await;
    browser.settled().await;
    browser.click("Form").await;
    browser.read(".spec-card", "second part").await;
    browser.read(".fit-row", "Glue lies flat").await;
    browser.write("Join flap", &format!("2{}", char::from(Key::Enter))).await;
    browser.read(".problems", "must lie between 5 mm and 60 mm").await;
    browser.enter("Join flap", "15 mm").await;
    browser.read(".fit-sum", "0 broken").await;
    browser.click("Keep it in one piece").await;
    browser.settled().await;
    assert!(!browser.text(".spec-card").await.contains("second part"));
}

#[tokio::test(flavor = "multi_thread")]
async fn marks_are_compared_and_the_best_are_added_and_used() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, TOMATO).await;
    browser.click("Compare marks, find the best").await;
    browser.read(".marks-table", "Three dots, 10 mm").await;
    browser.read(".marks-table", "not readable").await;
    assert_eq!(count(&browser, ".marks-table tbody tr").await, 3);
    browser.click("Find the best marks").await;
    browser.read(".marks-table .is-best", "Best marks: Reading-room cutter").await;
    browser.read(".marks-table .is-best", "cm²").await;
    browser.click("Add and use").await;
    browser.settled().await;
    browser.read(".fit-sum", "0 broken").await;
    let best = "return [...document.querySelectorAll('select')].some(list => list.value.startsWith('best-marks'))";
    browser.until(best, |is| *is == serde_json::json!(true)).await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_piece_is_added_shaped_and_shares_the_sheets() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, TOMATO).await;
    browser.click("add a piece").await;
    browser.read(".piece-row:nth-of-type(2)", "Tag 1").await;
    browser.settled().await;
    browser.see(".piece-row:nth-of-type(2) .piece-note button").await.click().await.unwrap();
    browser.read(".spec-card h2", "Clipped").await;
    browser.enter("Width", "25").await;
    browser.settled().await;
    // The carton is as it was.
    browser.see(".piece-picker button:first-child").await.click().await.unwrap();
    browser.read(".spec-card h2", "Straight-tuck carton").await;
    browser.click("Sheet").await;
    browser.read(".fit-row", "Tag 1: Copies").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_record_in_use_says_so_before_a_change_reaches_its_jobs() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, TOMATO).await;
    browser.read(".fit-row", "of 281 mm").await;
    browser.go(&format!("{}/workshop/cutters/reading-room-cutter", app.address)).await;
    browser.read(".spec-card h2", "Reading-room cutter").await;
    let drawn = browser.text(".record-legend").await;
    browser.write("Left", &format!("2 cm{}", char::from(Key::Enter))).await;
    browser.read(".held", "jobs use this").await;
    browser.read(".held", "Spring table set").await;
    assert_ne!(browser.text(".record-legend").await, drawn, "the drawing follows");
    open(&app, &browser, TOMATO).await;
    browser.read(".fit-row", "of 281 mm").await;

    browser.go(&format!("{}/workshop/cutters/reading-room-cutter", app.address)).await;
    browser.write("Left", &format!("20{}", char::from(Key::Enter))).await;
    browser.click("Change it for all").await;
    browser.settled().await;
    open(&app, &browser, TOMATO).await;
    browser.read(".fit-row", "of 269 mm").await;

    browser.go(&format!("{}/workshop/cutters/reading-room-cutter", app.address)).await;
    browser.click("Copy").await;
    browser.read(".spec-card h2", "Reading-room cutter, A3 (copy)").await;
    browser.read(".spec-subtitle", "No job uses it").await;
    browser.write("Right", &format!("900{}", char::from(Key::Enter))).await;
    browser.read(".problems", "must lie between 0 mm and 500 mm").await;
    browser.click("Set it to 500 mm").await;
    browser.read(".problems", "left and right take").await;
    browser.enter("Right", "9").await;
    browser.settled().await;
    browser.click("retired").await;
    browser.read(".record-link.is-retired", "retired").await;
    // Pressed three times before the first is answered.
    let undo = "const undo = [...document.querySelectorAll('button')].find((own) => own.textContent === 'Undo'); \
                for (const _ of [1, 2, 3]) undo.click()";
    browser.run(undo).await;
    // The copy is undone, here and in the data.
    browser
        .until("return document.querySelectorAll('.record-link').length", |seen| *seen == 4)
        .await;
    browser.client.refresh().await.unwrap();
    browser.see(".record-drawing").await;
    assert_eq!(count(&browser, ".record-link").await, 4);
}

#[tokio::test(flavor = "multi_thread")]
async fn in_a_job_in_inches_copies_are_measured_repeated_and_compared_in_inches() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, SPRING_SET).await;
    browser.click("Form").await;
    browser.choose("Unit", "in").await;
    browser.click("Sheet").await;
    browser.see(".copies").await;
    browser.see(".board-paper").await.click().await.unwrap();
    browser.press("]").await;
    browser.press(&char::from(Key::Down).to_string()).await;
    browser.read(".hand-sum", " in ").await;
    browser.settled().await;
    // An inch between them, as the cut file has it.
    let before = cuts(&browser).await;
    browser.see(".board-paper").await.click().await.unwrap();
    browser.press("]").await;
    browser.click("Repeat").await;
    browser.enter("gap down", "1 1/2").await;
    browser.shows("gap down", "1 1/2").await;
    browser.see(".hand-grid input[type=number]").await.click().await.unwrap();
    browser.press(&format!("{}a{}1", char::from(Key::Control), char::from(Key::Null))).await;
    browser
        .press(&format!(
            "{}{}a{}2",
            char::from(Key::Tab),
            char::from(Key::Control),
            char::from(Key::Null)
        ))
        .await;
    browser.see(".hand-grid button[type=submit]").await.click().await.unwrap();
    browser.read(".hand-sum", "2 copies").await;
    browser.settled().await;
    let after = cuts(&browser).await;
    let new: Vec<(f64, f64)> =
        after.iter().filter(|start| !before.contains(start)).copied().collect();
    assert!(!new.is_empty(), "one copy more: {after:?}");
    // The marks are compared in the job’s unit too.
    browser.click("Compare marks, find the best").await;
    browser.read(".marks-about", " in across and ").await;
    browser.read(".marks-table", " in²").await;
    assert!(!browser.text(".marks-about").await.contains("mm"));
}

#[tokio::test(flavor = "multi_thread")]
async fn closing_the_page_in_the_middle_of_nesting_keeps_the_layout_before_and_frees_the_job() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, SPRING_SET).await;
    browser.click("Time and seed of the search").await;
    browser.enter("Seconds at most", "100").await;
    browser.click("fill the sheets").await;
    let before = cuts(&browser).await;
    browser.click("Nest").await;
    browser.read(".nest-progress", "sheet").await;
    browser.client.refresh().await.unwrap();
    browser.read(".spec-card h2", "2 sheets").await;
    browser.read(".lay-made", "rows and columns").await;
    browser.settled().await;
    assert_eq!(cuts(&browser).await, before);
    // Nothing goes on that would refuse another search.
    browser.click("Time and seed of the search").await;
    browser.enter("Seconds at most", "1").await;
    browser.click("Nest").await;
    browser.read(".lay-note", "after").await;
    browser.read(".lay-made", "nested").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_second_window_is_told_of_a_layout_by_hand_and_undo_takes_it_back_step_by_step() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, TOMATO).await;
    let first = browser.client.window().await.unwrap();
    let second = browser.client.new_window(true).await.unwrap().handle;
    browser.client.switch_to_window(second).await.unwrap();
    open(&app, &browser, TOMATO).await;
    let laid = cuts(&browser).await;
    let mut stations = vec![laid];
    for key in [Key::Right, Key::Down] {
        browser.see(".board-paper").await.click().await.unwrap();
        browser.press("]").await;
        browser.press(&char::from(key).to_string()).await;
        browser.settled().await;
        let now = cuts(&browser).await;
        assert!(!stations.contains(&now), "{key:?} moves it");
        stations.push(now);
    }
    for station in stations.iter().rev().skip(1) {
        browser.click("Undo").await;
        assert_eq!(&cuts(&browser).await, station);
    }
    browser.read(".lay-made", "rows and columns").await;
    browser.click("Redo").await;
    browser.read(".lay-made", "by hand").await;

    // The first window knows of none of it; it is told before it overwrites anything.
    browser.client.switch_to_window(first).await.unwrap();
    browser.see(".board-paper").await.click().await.unwrap();
    browser.press("]").await;
    browser.press(&char::from(Key::Left).to_string()).await;
    browser.read(".modal", "Another window has changed “Tomato seed carton”").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_sheet_is_laid_out_by_keyboard_alone() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, TOMATO).await;
    let before = cuts(&browser).await;
    let (enter, control) = (char::from(Key::Enter).to_string(), char::from(Key::Control));
    browser.tab_to(".board-paper").await;
    browser.press(&format!("{control}a")).await;
    browser.read(".hand-sum", "6 copies").await;
    browser.press(&char::from(Key::Escape).to_string()).await;
    browser.press("]]").await;
    browser.read(".hand-sum", "1 copy").await;
    browser.tab_to("[aria-label='Bottom edges']").await;
    browser.press(&enter).await;
    browser.read(".lay-made", "by hand").await;
    browser.tab_to("[aria-label='Turn by degrees']").await;
    browser.press(&format!("{control}a{}12,5{enter}", char::from(Key::Null))).await;
    // The turn is there once it is saved, not once the page is quiet.
    browser
        .until(
            "return fetch('/api/jobs/3').then(answer => answer.json()).then(open => \
              open.job.sheet.kept.runs[0].placements.map(at => at.turn % 90).filter(turn => turn))",
            |odd| *odd == serde_json::json!([12.5]),
        )
        .await;
    browser.tab_to(".lay-more").await;
    browser.press(&enter).await;
    browser.press(&char::from(Key::Tab).to_string()).await;
    browser.press(&format!("{control}a{}120{enter}", char::from(Key::Null))).await;
    let budget = "return fetch('/api/jobs/3').then(answer => answer.json()).then(open => open.job.sheet.search.budget)";
    browser.until(budget, |seconds| *seconds == 120 || *seconds == 120.0).await;
    // Nesting is started and stopped by the same key, on a button that keeps the focus.
    browser.tab_to(".lay-buttons .btn-primary").await;
    browser.press(&enter).await;
    browser.read(".nest-progress", "sheet").await;
    browser.press(&enter).await;
    browser.read(".lay-note", "after").await;
    browser.settled().await;
    browser.tab_to(".board-paper").await;
    for _ in 0..4 {
        browser.press(&format!("{control}z")).await;
        browser.settled().await;
    }
    browser.read(".lay-made", "rows and columns").await;
    assert_eq!(cuts(&browser).await, before);
}

#[tokio::test(flavor = "multi_thread")]
async fn ten_thousand_copies_are_laid_and_more_are_refused_with_the_number() {
    let (app, browser) = (App::start(), Browser::open().await);
    open(&app, &browser, TOMATO).await;
    browser.write("Copies wanted", &format!("20000{}", char::from(Key::Enter))).await;
    browser.read(".problems", "20000").await;
    browser.read(".spec-card h2", "7 sheets").await;
    browser.see(".problems button").await.click().await.unwrap();
    browser.settled().await;
    browser.shows("Copies wanted", "10000").await;
    // Six on a sheet in rows and columns.
    browser.read(".spec-card h2", "1667 sheets").await;
    browser.nest_for("120").await;
    browser.read(".nest-progress", "10000 blanks").await;
    browser.click("Stop, keep the best").await;
    browser.read(".lay-note", "10000 blanks").await;
    browser.settled().await;
    browser.read(".fit-sum", "0 broken").await;
    let sheets = browser.text(".spec-card h2").await;
    let sheets: u32 = sheets.split(' ').next().unwrap().parse().unwrap();
    assert!(sheets <= 1667, "{sheets}");
}
