//! Rehearsal and Run as a user goes through them: a sheet that errs, odds, a frozen print, its steps, and the machines that
//! ship with Aptum.

use aptum_e2e::{App, Browser, Machines};

const TOMATO: u32 = 3;

#[tokio::test(flavor = "multi_thread")]
async fn a_sheet_is_rehearsed_on_a_good_and_on_a_bad_day() {
    let (app, browser) = (App::start(), Browser::open().await);
    browser.go(&format!("{}/jobs/{TOMATO}/rehearsal", app.address)).await;
    browser.read(".spec-card h2", "Cuts true").await;
    browser.see(".rehearsal-board image").await;
    browser.read(".fit-row", "Cut against print").await;
    browser.read(".fit-row", "it is the right sheet").await;
    browser.read(".fit-row", "none along the edges").await;
    assert_eq!(browser.barriers().await, "");
    browser.choose("The printer does", "fit to page").await;
    browser.read(".spec-card h2", "Refused").await;
    browser.read(".spec-card", "actual size").await;
    browser.choose("The printer does", "a bad day").await;
    browser.read(".spec-card h2", "Cuts true").await;
    browser.click("1,000").await;
    browser.read(".spec-card", "None wrong of 1,000: at 95 %, under 0.30 %").await;
    browser.see(".odds-gauge rect").await;
    // Loaded the wrong way round it is refused.
    browser.click("behind").await;
    browser.read(".spec-card h2", "Refused").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn sheets_are_printed_and_the_run_goes_on_where_it_was_after_a_power_cut() {
    let (mut app, browser) = (App::start(), Browser::open().await);
    let open = async |app: &App| {
        browser.go(&format!("{}/jobs/{TOMATO}/run", app.address)).await;
    };
    open(&app).await;
    // Run has no limits of its own, and those of earlier stages are not in its way.
    browser.see(".fit-stage").await;
    assert_eq!(
        browser
            .run("return document.querySelectorAll('.fit-fold[aria-expanded=true]').length")
            .await,
        0
    );
    browser.click("Print these sheets").await;
    browser.read(".run-step h2", "Print 7 sheets").await;
    let pdf = browser.download("The print file", "print.pdf").await;
    assert!(pdf.starts_with(b"%PDF"));
    browser.click("Printed").await;
    browser.read(".run-step h2", "Measure").await;
    browser.enter("The scale of 100 mm measures", "97.4").await;
    browser.read(".run-scale", "fitted to the page").await;
    browser.enter("The scale of 100 mm measures", "99.9").await;
    browser.read(".run-scale", "printed true").await;
    browser.click("Measured").await;
    browser.read(".run-step h2", "into Right").await;
    app.kill_and_restart();
    open(&app).await;
    browser.read(".run-step h2", "into Right").await;
    for (done, next) in [
        ("Done", "into Left"),
        ("Done", "Load the sheet"),
        ("Loaded", "Work the sheet"),
        ("Cut", "Look before"),
        ("It is through", "Load the sheet"),
    ] {
        browser.click(done).await;
        browser.read(".run-step h2", next).await;
    }
    browser.read(".run-count", "sheet 2 of 7").await;
    assert_eq!(browser.barriers().await, "");
    // A change of what is printed is said at once.
    browser.go(&format!("{}/jobs/{TOMATO}/sheet", app.address)).await;
    browser.enter("Between pieces", "8").await;
    browser.settled().await;
    browser.click("Run").await;
    browser.read(".run-differs", "was printed before the change").await;
    browser.click("Stop for good").await;
    browser.read(".run-hold", "Stopped for good").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_sheet_goes_to_the_printer_and_the_cutter_over_tcp() {
    let machines = Machines::start(&["--swapped", "--pace", "0"]);
    let (app, browser) = (App::start(), Browser::open().await);
    browser.go(&app.address).await;
    for (kind, id, address) in [
        ("cutters", "reading-room-cutter", &machines.cutter),
        ("printers", "back-room-inkjet", &machines.printer),
    ] {
        let script = format!(
            "return fetch('/api/workshop/state').then(own => own.json()).then(({{ version, workshop }}) => \
             fetch('/api/workshop/records/{id}', {{ method: 'PUT', headers: {{ 'Content-Type': 'application/json' }}, \
             body: JSON.stringify({{ version, unit: 'mm', record: {{ ...workshop.{kind}['{id}'], kind: '{kind}', \
             address: '{address}' }} }}) }})).then(own => own.status)"
        );
        assert_eq!(browser.run(&script).await, 200);
    }
    browser.go(&format!("{}/jobs/{TOMATO}/run", app.address)).await;
    browser.click("Print these sheets").await;
    browser.click("Send to Back-room inkjet").await;
    browser.read(".run-note", "7 pages came out of the printer").await;
    browser.click("Printed").await;
    browser.enter("The scale of 100 mm measures", "100").await;
    browser.read(".run-scale", "printed true").await;
    let on =
        [("Measured", "into Right"), ("Done", "into Left"), ("Done", "Load"), ("Loaded", "Work")];
    for (done, next) in on {
        browser.click(done).await;
        browser.read(".run-step h2", next).await;
    }
    browser.click("Send sheet 1 to").await;
    browser.read(".run-note", "The sheet is cut.").await;
}

/// A pupil's tag is made, counted, and found again in the Logbook, from where a way leads back to it.
#[tokio::test(flavor = "multi_thread")]
async fn pieces_are_counted_and_the_logbook_leads_back_to_the_job() {
    let (app, browser) = (App::start(), Browser::open().await);
    browser.go(&format!("{}/queue", app.address)).await;
    browser.click("Plant tag: Basil").await;
    // How it is printed is known from the last time.
    browser.read(".run-step", "Paper type plain, heavy").await;
    browser.read(".run-step", "It takes about 2 min").await;
    browser.click("Printed").await;
    browser.enter("The scale of 100 mm measures", "100").await;
    browser.read(".run-scale", "printed true").await;
    for (done, next) in [
        ("Measured", "into Left"),
        ("Done", "Load the sheet"),
        ("Loaded", "Work the sheet"),
        ("Cut", "Look before"),
        ("It is through", "count them"),
    ] {
        browser.click(done).await;
        browser.read(".run-step h2", next).await;
    }
    browser.read(".run-counts", "1 wanted, 1 missing: 1 more sheet to print").await;
    browser.enter("torn or moved", "1").await;
    browser.enter("Good pieces", "1").await;
    browser.read(".run-counts", "all there").await;
    browser.click("Counted").await;
    browser.read(".run-count", "All is done").await;
    browser.go(&format!("{}/logbook?text=torn", app.address)).await;
    browser.read(".logbook-table", "1 good, 1 torn or moved").await;
    browser.read(".logbook-table", "paper type plain, heavy").await;
    browser.see(".logbook-picture img").await;
    assert_eq!(browser.barriers().await, "");
    browser.click("The job as it was then").await;
    browser.read(".top", "Plant tag: Basil, as printed").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_job_is_made_for_each_row_of_a_list() {
    let (app, browser) = (App::start(), Browser::open().await);
    browser.go(&format!("{}/queue", app.address)).await;
    browser.click("Thirty plant tags: a job for each of 30 rows").await;
    browser.read(".queue-machine", "Thirty plant tags: Tomato").await;
    let jobs = "return fetch('/api/jobs').then(answer => answer.json()).then(jobs => jobs.length)";
    browser.until(jobs, |count| *count == 64).await;
}

#[tokio::test(flavor = "multi_thread")]
async fn jobs_wait_at_their_machine_in_the_order_that_is_chosen() {
    let (app, browser) = (App::start(), Browser::open().await);
    browser.go(&format!("{}/queue", app.address)).await;
    browser.read(".queue-machine li.is-next", "Swap-prize box with lid").await;
    browser.see("#queue-5").await;
    for job in ["#queue-3", "#queue-5"] {
        browser.see(job).await.click().await.unwrap();
    }
    browser.click("Print 2 together").await;
    browser.read(".queue-machine", "Garlic clove hexagon").await;
    for _ in 0..16 {
        let first = "return document.querySelector('.queue-machine li.is-next').textContent";
        let name = browser.run(first).await;
        if name.as_str().unwrap().contains("Garlic") {
            break;
        }
        let before =
            browser.run("return document.querySelector('.queue-machine ol').textContent").await;
        browser.click("Garlic clove hexagon earlier").await;
        let now = "return document.querySelector('.queue-machine ol').textContent";
        browser.until(now, |now| *now != before).await;
    }
    browser.read(".queue-machine li.is-next", "Garlic clove hexagon").await;
    assert_eq!(browser.barriers().await, "");
    browser.click("Garlic clove hexagon").await;
    browser.read(".run-step h2", "Print").await;
}
