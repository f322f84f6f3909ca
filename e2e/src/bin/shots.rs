//! `make shots`: a current picture of each main view, from the demo's data. With an address and a file
//! it takes that picture alone.

use std::path::Path;
use std::time::Duration;

use aptum_e2e::{App, Browser};

#[tokio::main]
async fn main() {
    let folder = Path::new(env!("CARGO_MANIFEST_DIR")).join("../docs/screenshots");
    let (app, browser) = (App::start(), Browser::open().await);
    let save = async |file: &Path| {
        // The folded piece is loaded by itself and then drawn.
        tokio::time::sleep(Duration::from_millis(1500)).await;
        std::fs::write(file, browser.picture().await).expect("the picture can be written");
        println!("{}", file.display());
    };
    let go = async |path: &str| {
        browser.go(&format!("{}{path}", app.address)).await;
        let shown = if path.starts_with("/jobs/") {
            ".fit-row"
        } else if path.starts_with("/workshop/") {
            ".record-drawing"
        } else if path == "/logbook" {
            ".logbook-table"
        } else if path == "/" {
            ".ticket"
        } else {
            "main h1"
        };
        browser.see(shown).await;
        // Jobs with traced pictures come after the list.
        let left = "return document.body.textContent.includes('being worked out')";
        browser.until(left, |left| left == false).await;
    };
    let wanted: Vec<String> = std::env::args().skip(1).collect();
    if !wanted.is_empty() {
        for pair in wanted.chunks_exact(2) {
            go(&pair[0]).await;
            save(Path::new(&pair[1])).await;
        }
        return;
    }
    for (path, name) in [
        ("/", "jobs.png"),
        ("/new", "catalogue.png"),
        ("/jobs/17/form", "form.png"),
        ("/jobs/17/face", "face.png"),
        ("/jobs/21/form", "trace.png"),
        ("/jobs/23/form?piece=p5", "stickers.png"),
        ("/jobs/24/form", "drawing.png"),
        ("/jobs/3/sheet", "sheet.png"),
        ("/jobs/3/tooling", "tooling.png"),
        ("/jobs/3/run", "run.png"),
        ("/jobs/11/run", "run-step.png"),
        ("/workshop/cutters/reading-room-cutter", "workshop-cutter.png"),
        ("/logbook", "logbook.png"),
    ] {
        go(path).await;
        save(&folder.join(name)).await;
    }
    go("/jobs/4/form").await;
    browser.click("Blank across").await;
    browser.see(".remedies").await;
    save(&folder.join("remedies.png")).await;

    go("/jobs/19/face").await;
    browser.click("open the table").await;
    browser.see(".list-table").await;
    browser.click("The next row").await;
    browser.settled().await;
    save(&folder.join("merge.png")).await;

    go("/jobs/15/face").await;
    browser.click("seedling.png").await;
    browser.click("clean up").await;
    browser.see(".rework-steps").await;
    browser.run("document.querySelector('.spec-card').scrollTop = 0").await;
    save(&folder.join("clean.png")).await;

    go("/jobs/17/rehearsal").await;
    browser.choose("The printer does", "a bad day").await;
    browser.read(".rehearsal-desk figcaption", "a bad day").await;
    browser.click("1,000").await;
    browser.see(".odds-gauge").await;
    browser.see(".rehearsal-desk:not(.is-stale) image").await;
    browser.run("document.querySelector('.spec-card').scrollTop = 0").await;
    save(&folder.join("rehearsal.png")).await;
    go("/jobs/4/sheet").await;
    browser.click("Ways to fit").await;
    browser.see(".way .small-sheet").await;
    save(&folder.join("ways.png")).await;
    go("/jobs/15/tooling").await;
    browser.see(".operation").await;
    browser.click("cut").await;
    browser.click("Test cut").await;
    browser.see(".rungs li").await;
    save(&folder.join("test-cut.png")).await;
}
