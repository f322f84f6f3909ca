//! How smoothly a copy is dragged on a sheet with 500 of them.
#![allow(clippy::unwrap_used, missing_docs, reason = "a bench")]

use std::time::Duration;

use aptum_e2e::{App, Browser};
use fantoccini::actions::{InputSource, MOUSE_BUTTON_LEFT, MouseActions, PointerAction};

/// Puts 500 small tags onto job 3's sheet.
const FIVE_HUNDRED: &str = "
    const done = arguments[0];
    fetch('/api/jobs/3').then(answer => answer.json()).then(({ version, job }) => {
        job.pieces[0].form = { structure: 'tag', width: 12, height: 16, hole: 0 };
        job.sheet = { ...job.sheet, copies: 500, spacing: 1, kept: null };
        return fetch('/api/jobs/3', { method: 'PUT', body: JSON.stringify({ version, job }) });
    }).then(answer => answer.text().then(text => done([answer.status, text])));";

const COUNT_FRAMES: &str = "
    window.frames = [];
    const frame = now => { window.frames.push(now); requestAnimationFrame(frame); };
    requestAnimationFrame(frame);";

#[tokio::main]
async fn main() {
    let (app, browser) = (App::start(), Browser::open().await);
    browser.go(&app.address).await;
    let made = browser.client.execute_async(FIVE_HUNDRED, Vec::new()).await.unwrap();
    assert_eq!(made[0], 200, "{made}");
    browser.go(&format!("{}/jobs/3/sheet", app.address)).await;
    browser.see(".board .copy").await;
    let place = browser
        .run(
            "const box = document.querySelector('[data-copy=\"40\"] use').getBoundingClientRect();\
             return [document.querySelectorAll('.board .copy').length, box.x + 3, box.y + 3]",
        )
        .await;
    let (x, y) = (place[1].as_f64().unwrap(), place[2].as_f64().unwrap());
    let to = |x: f64, y: f64, milliseconds: u64| PointerAction::MoveTo {
        duration: Some(Duration::from_millis(milliseconds)),
        x,
        y,
    };
    browser.run(COUNT_FRAMES).await;
    let mouse = MouseActions::new("mouse".to_owned())
        .then(to(x, y, 50))
        .then(PointerAction::Down { button: MOUSE_BUTTON_LEFT })
        .then(to(x + 180.0, y + 120.0, 1500))
        .then(to(x + 20.0, y + 200.0, 1500))
        .then(PointerAction::Up { button: MOUSE_BUTTON_LEFT });
    browser.client.perform_actions(mouse).await.unwrap();
    let frames = browser.run("return window.frames").await;
    let times: Vec<f64> = frames.as_array().unwrap().iter().filter_map(|t| t.as_f64()).collect();
    let seconds = (times[times.len() - 1] - times[0]) / 1000.0;
    let mut gaps: Vec<f64> = times.windows(2).map(|pair| pair[1] - pair[0]).collect();
    gaps.sort_by(f64::total_cmp);
    println!("dragging one of {} copies", place[0]);
    println!(
        "  frames a second, mean   {:>6.1}   to reach: 30",
        (times.len() - 1) as f64 / seconds
    );
    println!("  slowest frame of 20     {:>6.1} ms", gaps[gaps.len() * 19 / 20]);
}
