//! The job ticket: one page with everything on it, whatever the job.

use aptum_core::{Job, Workshop, prepare};
use aptum_formats::pdf::ticket_pdf;
use lopdf::content::Content;
use lopdf::{Document, Object};

fn workshop() -> Workshop {
    serde_json::from_str(include_str!("../../../../demo/workshop.json")).unwrap()
}

fn ticket(job: &Job, workshop: &Workshop) -> Document {
    let mut bytes = Vec::new();
    ticket_pdf(job, &prepare(job, workshop).unwrap(), workshop, &mut bytes).unwrap();
    Document::load_mem(&bytes).unwrap()
}

/// Every place that a path of the page goes to, mm from its lower left corner.
fn places(ticket: &Document) -> Vec<(f32, f32)> {
    let (_, page) = ticket.get_pages().into_iter().next().unwrap();
    let content = Content::decode(&ticket.get_page_content(page)).unwrap();
    let mut matrix = [1.0_f32, 0.0, 0.0, 1.0, 0.0, 0.0];
    let mut places = Vec::new();
    for own in content.operations {
        let told: Vec<f32> = own.operands.iter().filter_map(|own| own.as_float().ok()).collect();
        match own.operator.as_str() {
            "cm" => matrix = told.try_into().unwrap(),
            "m" | "l" => {
                let [a, b, c, d, e, f] = matrix;
                let (x, y) = (told[0], told[1]);
                let unit = 25.4 / 72.0;
                places.push(((a * x + c * y + e) * unit, (b * x + d * y + f) * unit));
            }
            _ => {}
        }
    }
    places
}

#[test]
fn a_ticket_is_one_page_and_nothing_on_it_is_cut_off() {
    let workshop = workshop();
    for text in [
        include_str!("../../../../demo/jobs/tomato-carton.json"),
        include_str!("../../../../demo/jobs/spring-table-set.json"),
        include_str!("../../../../demo/jobs/garlic-hexagon.json"),
    ] {
        let mut job: Job = serde_json::from_str(text).unwrap();
        (job.pieces[0].spares, job.pieces[0].pack) = (3, 5);
        let ticket = ticket(&job, &workshop);
        let pages = ticket.get_pages();
        assert_eq!(pages.len(), 1, "{}", job.name);
        let page = ticket.get_dictionary(pages[&1]).unwrap();
        let media = page.get(b"MediaBox").and_then(Object::as_array).unwrap();
        let media: Vec<f32> = media.iter().filter_map(|own| own.as_float().ok()).collect();
        assert!((media[2] - 595.28).abs() < 0.01 && (media[3] - 841.89).abs() < 0.01, "{media:?}");
        let places = places(&ticket);
        assert!(places.len() > 2000, "{}: {} places", job.name, places.len());
        let is_on = |(x, y): &(f32, f32)| (5.0..=205.0).contains(x) && (5.0..=292.0).contains(y);
        let off: Vec<_> = places.iter().filter(|own| !is_on(own)).take(3).collect();
        assert!(off.is_empty(), "{}: {off:?}", job.name);
    }
}

/// What the work is done with stands on it: it differs where a setting does.
#[test]
fn a_ticket_tells_the_settings() {
    let (workshop, mut other) = (workshop(), workshop());
    let job: Job =
        serde_json::from_str(include_str!("../../../../demo/jobs/tomato-carton.json")).unwrap();
    let plain = places(&ticket(&job, &workshop)).len();
    for own in other.print_recipes.values_mut() {
        own.settings.media = "another, much longer name of a paper".to_owned();
    }
    assert!(places(&ticket(&job, &other)).len() > plain);
    other.print_recipes.clear();
    assert!(places(&ticket(&job, &other)).len() < plain);
    let mut spared = job;
    spared.pieces[0].spares = 2;
    assert!(places(&ticket(&spared, &workshop)).len() > plain);
}
