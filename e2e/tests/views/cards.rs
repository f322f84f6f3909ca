//! A sticker card of several pieces: how many of each, in rows, close together and by hand, and what the machine gets.

use aptum_e2e::{App, Browser};
use fantoccini::Locator;
use fantoccini::key::Key;

/// The jar stickers of the demo; its last piece is the card.
const JAR: u32 = 23;

const CARD: &str = "return fetch('/api/jobs/' + location.pathname.split('/')[2]) \
                    .then(answer => answer.json()).then(open => open.job.pieces.at(-1).form.gathered)";

const SEEN: &str = "return fetch('/api/jobs/' + location.pathname.split('/')[2]) \
                    .then(answer => answer.json()).then(open => open.preview.pieces.at(-1).flat.view)";

async fn cut_lines(browser: &Browser, app: &App) -> String {
    browser.go(&format!("{}/jobs/{JAR}/run", app.address)).await;
    browser.settled().await;
    String::from_utf8(browser.download("Cut file", "cut-1.svg").await).unwrap()
}

fn kissed(svg: &str) -> usize {
    let document = roxmltree::Document::parse(svg).unwrap();
    let is_kiss = |node: &roxmltree::Node<'_, '_>| {
        node.ancestors().any(|own| own.attribute("id").is_some_and(|id| id.contains("kiss")))
    };
    document.descendants().filter(|node| node.has_attribute("d") && is_kiss(node)).count()
}

#[tokio::test(flavor = "multi_thread")]
async fn stickers_of_several_pieces_are_gathered_on_a_card() {
    let (app, browser) = (App::start(), Browser::open().await);
    browser.go(&format!("{}/jobs/{JAR}/form?piece=p5", app.address)).await;
    browser.read(".spec-card", "On the card").await;
    assert_eq!(browser.barriers().await, "");
    let before = browser.run(SEEN).await;
    assert_eq!(before["gathered"]["copies"].as_array().unwrap().len(), 13);

    // More of one: the rows and the card grow with it.
    browser.enter("Tomato", "9").await;
    browser.until(CARD, |card| card["members"][1]["count"] == 9).await;
    let more = browser.run(SEEN).await;
    assert_eq!(more["gathered"]["copies"].as_array().unwrap().len(), 18);
    assert!(more["size"][1].as_f64() > before["size"][1].as_f64(), "{}", more["size"]);

    // A height that does not hold them is said, with the way out.
    browser.enter("Card’s height", "100").await;
    browser.read(".fit-row", "without room").await;
    browser.enter("Tomato", "4").await;
    browser.click("without room").await;
    browser.click("Make the card as high as they need").await;
    browser.until(CARD, |card| card["height"].is_null()).await;

    // Close together it is lower than in rows.
    browser.click("close together").await;
    browser.until(CARD, |card| card["places"].as_array().is_some_and(|all| all.len() == 13)).await;
    browser.settled().await;
    let close = browser.run(SEEN).await;
    assert!(close["size"][1].as_f64() <= before["size"][1].as_f64(), "{}", close["size"]);

    // One is nudged and turned by keys.
    let own = &close["gathered"]["copies"][0]["place"];
    let handle = Locator::Css(".handles rect");
    browser.client.find(handle).await.unwrap().click().await.unwrap();
    browser.press(&char::from(Key::Right).to_string()).await;
    let x = own["x"].as_f64().unwrap();
    browser
        .until(CARD, |card| {
            card["places"][0]["x"].as_f64().is_some_and(|to| (to - x - 1.0).abs() < 0.06)
        })
        .await;
    browser.press("r").await;
    browser.until(CARD, |card| card["places"][0]["turn"] == 90.0).await;
    browser.click("in rows").await;
    browser.until(CARD, |card| card["places"].as_array().is_none_or(Vec::is_empty)).await;

    // Each of them to the liner, the card through it, and nothing beside.
    let svg = cut_lines(&browser, &app).await;
    assert_eq!(kissed(&svg), 13, "{svg}");
}

#[tokio::test(flavor = "multi_thread")]
async fn a_card_is_made_of_the_pieces_at_hand() {
    let (app, browser) = (App::start(), Browser::open().await);
    browser.go(&format!("{}/jobs/{JAR}/form?piece=p5", app.address)).await;
    browser.click("take off: Carrot").await;
    browser.until(CARD, |card| card["members"].as_array().is_some_and(|all| all.len() == 3)).await;
    browser.settled().await;
    // What lies on no card is laid by itself, and may be put on another.
    browser.click("Sheet").await;
    browser.read(".spec-card", "Tomato: on Jar sticker card").await;
    browser.click("a sticker card").await;
    browser
        .until(CARD, |card| {
            card["members"].as_array().is_some_and(|all| all.len() == 1)
                && card["members"][0]["piece"] == "p3"
        })
        .await;
    browser.read(".spec-card", "Carrot: on Sticker card").await;
    browser.click("remove").await;
    browser.read(".spec-card", "Carrot").await;
}

/// Layouts are shown as they are found; whoever has seen enough keeps the last, and what is changed by hand meanwhile
/// stays.
#[tokio::test(flavor = "multi_thread")]
async fn laying_close_is_shown_as_it_goes_and_gives_way_to_hands() {
    let (app, browser) = (App::start(), Browser::open().await);
    browser.go(&format!("{}/jobs/{JAR}/form?piece=p5", app.address)).await;
    browser.enter("Tomato", "60").await;
    browser.until(CARD, |card| card["members"][1]["count"] == 60).await;
    browser.settled().await;
    browser.choose("Close together", "turned freely").await;
    let laid = |card: &serde_json::Value| card["places"].as_array().map_or(0, Vec::len);

    browser.click("close together").await;
    browser.read(".laid-acts", "enough").await;
    browser.read(".spec-card", "by their places").await;
    browser.click("enough").await;
    browser.read(".laid-acts", "close together").await;
    let kept = browser.until(CARD, |card| laid(card) > 40).await;

    // A number that is entered in the middle is not written over, nor are the places.
    browser.click("close together").await;
    browser.read(".laid-acts", "enough").await;
    browser.enter("Tomato", "59").await;
    browser.read(".lay-trouble", "You changed the card meanwhile").await;
    browser.read(".laid-acts", "close together").await;
    browser.settled().await;
    let then = browser.until(CARD, |card| card["members"][1]["count"] == 59).await;
    assert!(laid(&then) > 40, "{then}");
    assert!(laid(&kept) <= 72, "{kept}");
}
