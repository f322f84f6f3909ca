//! `make shots`: a current picture of each main view, from the demo's data.

use std::path::Path;

use aptum_e2e::{App, Browser};

#[tokio::main]
async fn main() {
    let folder = Path::new(env!("CARGO_MANIFEST_DIR")).join("../docs/screenshots");
    let (app, browser) = (App::start(), Browser::open().await);
    let save = async |name: &str| {
        let picture = browser.picture().await;
        std::fs::write(folder.join(name), picture).expect("the picture can be written");
        println!("docs/screenshots/{name}");
    };
    browser.go(&app.address).await;
    browser.see(".ticket").await;
    save("jobs.png").await;
    for (job, stage, name) in [
        (3, "form", "form.png"),
        (3, "face", "face.png"),
        (3, "sheet", "sheet.png"),
        (3, "run", "run.png"),
    ] {
        browser.go(&format!("{}/jobs/{job}/{stage}", app.address)).await;
        browser.see(".fit-row").await;
        save(name).await;
    }
    browser.go(&format!("{}/jobs/4/form", app.address)).await;
    browser.click("Blank across").await;
    browser.see(".remedies").await;
    save("remedies.png").await;
}
