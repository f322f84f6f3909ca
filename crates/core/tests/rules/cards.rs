//! Cards that hold other pieces: where copies lie, what is cut and printed, and what is said where they have no room.

use std::f64::consts::PI;
use std::sync::Mutex;

use aptum_core::check::{Check, State};
use aptum_core::error::Setting;
use aptum_core::face::{Coverage, Face, Ink, Layer, LayerKind, List, Text};
use aptum_core::form::{Form, Gathered, GatheredFacts, MemberPlace};
use aptum_core::gathering::CloseTogether;
use aptum_core::geometry::{Rect, Region, Shape as _};
use aptum_core::id::PieceId;
use aptum_core::job::{JobPiece, Turning, with_field};
use aptum_core::sheet::SheetRun;
use aptum_core::sheet::nest::{Found, ToTheEnd, Watch};
use aptum_core::{Job, LineKind, Prepared, Workshop, prepare};
use geo::{BooleanOps, Distance, Euclidean, Polygon};
use proptest::prelude::*;

fn workshop() -> Workshop {
    serde_json::from_str(include_str!("../../../../demo/workshop.json")).unwrap()
}

/// A structure with its figures, and how many of it.
type Label<'a> = (&'a str, &'a [(&'a str, f64)], u32);

/// Labels and a card around them, on stock with a liner.
fn job(labels: &[Label<'_>], change: impl FnOnce(&mut Gathered)) -> Job {
    let mut job: Job =
        serde_json::from_str(include_str!("../../../../demo/jobs/tomato-carton.json")).unwrap();
    let workshop = workshop();
    let (id, stock) = workshop.stocks.iter().find(|(_, stock)| stock.liner.is_some()).unwrap();
    job.sheet.size = stock.sheets[0].clone();
    job.pieces = labels
        .iter()
        .enumerate()
        .map(|(at, (structure, figures, _))| {
            let piece =
                JobPiece::new(&format!("p{}", at + 1), Form::new(structure, figures), &id.0);
            JobPiece { name: Some(format!("Label {}", at + 1)), ..piece }
        })
        .collect();
    let mut card = job.card_of_pieces().unwrap();
    let own = card.form.gathered_mut().unwrap();
    for (member, (.., count)) in own.members.iter_mut().zip(labels) {
        member.count = *count;
    }
    change(own);
    job.pieces.push(card);
    job
}

fn facts(prepared: &Prepared) -> &GatheredFacts {
    prepared.pieces.last().unwrap().flat.gathered.as_ref().unwrap()
}

fn check<'a>(prepared: &'a Prepared, id: &str) -> &'a Check {
    prepared.checks.iter().find(|check| check.id.starts_with(id)).unwrap()
}

/// The copies as polygons, by a flattening of their own.
fn polygons(facts: &GatheredFacts) -> Vec<Polygon> {
    let copies = facts.copies.iter();
    copies
        .map(|copy| {
            let mut points = Vec::new();
            let outline = copy.at * facts.held[copy.member].outline.clone();
            for segment in outline.segments() {
                use kurbo::ParamCurve as _;
                points.extend((0..24).map(|step| {
                    let at = segment.eval(f64::from(step) / 24.0);
                    (at.x, at.y)
                }));
            }
            Polygon::new(points.into(), Vec::new())
        })
        .collect()
}

/// The least distance between two copies, below 0 where two have area in common.
fn least_gap(facts: &GatheredFacts) -> f64 {
    let all = polygons(facts);
    let mut least = f64::INFINITY;
    for (at, one) in all.iter().enumerate() {
        for other in &all[at + 1..] {
            use geo::Area;
            let shared = one.intersection(other).unsigned_area();
            least = least.min(if shared > 1e-6 { -shared } else { Euclidean.distance(one, other) });
        }
    }
    least
}

const THREE: [Label<'static>; 3] = [
    ("label-round", &[("width", 30.0)], 4),
    ("label-oval", &[("width", 50.0), ("height", 25.0)], 3),
    ("label-star", &[("width", 24.0), ("points", 6.0)], 5),
];

#[test]
fn copies_lie_in_rows_and_the_card_is_as_large_as_they_need() {
    let job = job(&THREE, |_| {});
    let prepared = prepare(&job, &workshop()).unwrap();
    let card = prepared.pieces.last().unwrap();
    let part = &card.flat.parts[0];
    let own = facts(&prepared);
    assert_eq!(own.copies.len(), 12);
    assert_eq!(own.left, [0, 0, 0]);
    assert!((least_gap(own) - 3.0).abs() < 0.05, "{}", least_gap(own));
    let all = own.copies.iter().map(|copy| copy.bounds).reduce(|a, b| a.union(b)).unwrap();
    for (have, want) in [
        (all.x0, 5.0),
        (all.y0, 5.0),
        (part.bounds.x1 - all.x1, 5.0),
        (part.bounds.y1 - all.y1, 5.0),
    ] {
        assert!((have - want).abs() < 1e-3, "{all:?} in {:?}", part.bounds);
    }
    // All stickers to the liner, the card through it.
    let kissed = part.strokes.iter().filter(|stroke| stroke.kind == LineKind::KissCut);
    assert_eq!(kissed.count(), 12);
    assert_eq!(part.edge, LineKind::Cut);
    let area: f64 = part.strokes.iter().map(|stroke| stroke.path.area().abs()).sum();
    let star = 6.0 * 12.0 * (12.0 - 4.8) * (PI / 6.0).sin();
    let round = 4.0 * PI * 225.0 + 3.0 * PI * 25.0 * 12.5;
    assert!(area > round && area < round + 5.0 * 12.0 * 12.0 * PI, "{area} {round} {star}");
    assert_eq!(check(&prepared, "card-copies").state, State::Fits);
    // The sheets hold cards, and nothing of what these hold.
    assert_eq!(prepared.blanks().count(), 1);
    assert_eq!(prepared.layout.laid, 1);
    assert!(prepared.checks.iter().all(|check| check.state < State::Broken), "{:?}", {
        let broken = prepared.checks.iter().filter(|check| check.state == State::Broken);
        broken.map(|check| (&check.id, &check.verdict)).collect::<Vec<_>>()
    });
}

#[test]
fn a_card_wears_what_its_pieces_wear_on_every_copy() {
    let mut job = job(&THREE, |_| {});
    let colour = |colour: &str| {
        let kind = LayerKind::Colour { colour: colour.to_owned(), coverage: Coverage::Flaps };
        Some(Face::new(1.0, vec![Layer::new("l1", kind)]))
    };
    job.pieces[0].face = colour("#aa3311");
    job.pieces[1].face = colour("#335577");
    job.pieces[3].face = colour("#eeeedd");
    let prepared = prepare(&job, &workshop()).unwrap();
    let art = &prepared.pieces[3].arts[0];
    let area = |wanted: &str| -> Vec<f64> {
        let areas = art.layers.iter().filter_map(|inked| match &inked.ink {
            Ink::Area { path, colour, .. } if colour == wanted => Some(path.area().abs()),
            _ => None,
        });
        areas.collect()
    };
    // With a bleed of 1 mm around, since 3 mm lie between two.
    let round = area("#aa3311");
    assert_eq!(round.len(), 4);
    assert!(round.iter().all(|area| (area / (PI * 256.0) - 1.0).abs() < 2e-3), "{round:?}");
    assert_eq!(area("#335577").len(), 3);
    // The card's own lies below.
    assert!(matches!(&art.layers[0].ink, Ink::Area { colour, .. } if colour == "#eeeedd"));
    // Closer together, bleed goes halfway.
    let changed = with_field(&job, "pieces.p4.form.gathered.gap", 0.8.into()).unwrap();
    let prepared = prepare(&changed, &workshop()).unwrap();
    assert!((prepared.pieces[0].arts[0].bleed - 0.4).abs() < 1e-9);
    // Another colour of a member is seen on the card.
    let changed = with_field(&job, "pieces.p1.face.layers.l1.colour", "#112233".into()).unwrap();
    let prepared = prepare(&changed, &workshop()).unwrap();
    assert!(
        prepared.pieces[3].arts[0]
            .layers
            .iter()
            .any(|inked| matches!(&inked.ink, Ink::Area { colour, .. } if colour == "#112233"))
    );
}

#[test]
fn what_has_no_room_is_counted_and_the_way_out_works() {
    let job = job(&THREE, |card| {
        card.width = Some(120.0);
        card.height = Some(60.0);
    });
    let prepared = prepare(&job, &workshop()).unwrap();
    let own = facts(&prepared);
    let left: u32 = own.left.iter().sum();
    assert!(left > 0);
    assert_eq!(own.copies.len() + left as usize, 12);
    let broken = check(&prepared, "card-copies");
    assert_eq!(broken.state, State::Broken);
    assert!(broken.verdict.contains("without room"), "{}", broken.verdict);
    let change = &broken.remedies[0].changes[0];
    assert_eq!(change.value, Setting::Standard);
    let mended = with_field(&job, &change.field, serde_json::Value::Null).unwrap();
    let prepared = prepare(&mended, &workshop()).unwrap();
    assert_eq!(facts(&prepared).left, [0, 0, 0]);
    // Narrower than the widest of them: the width that would do is offered.
    let narrow = with_field(&mended, "pieces.p4.form.gathered.width", 40.0.into()).unwrap();
    let prepared = prepare(&narrow, &workshop()).unwrap();
    let broken = check(&prepared, "card-copies");
    assert!(broken.remedies[0].text.contains("60 mm wide"), "{:?}", broken.remedies);
}

#[test]
fn copies_by_hand_stay_and_the_others_lie_in_rows_below_them() {
    let place = |piece: &str, x: f64, y: f64, turn: f64| MemberPlace {
        piece: PieceId(piece.to_owned()),
        x,
        y,
        turn,
    };
    let by_hand = |places: Vec<MemberPlace>| job(&THREE, |card| card.places = places);
    let job = by_hand(vec![place("p2", 20.0, 32.0, 90.0), place("p1", 60.0, 22.0, 0.0)]);
    let prepared = prepare(&job, &workshop()).unwrap();
    let own = facts(&prepared);
    assert_eq!(own.copies.len(), 12);
    // An oval of 50 by 25 on its end.
    let first = own.copies[0].bounds;
    let wanted = Rect::new(7.5, 7.0, 32.5, 57.0);
    assert!(
        (first.x0 - wanted.x0).abs() < 1e-2 && (first.y1 - wanted.y1).abs() < 1e-2,
        "{first:?}"
    );
    let rows = own.copies.iter().filter(|copy| copy.place.is_none());
    assert!(rows.clone().all(|copy| copy.bounds.y0 >= first.y1 + 3.0 - 1e-6));
    assert_eq!(rows.count(), 10);
    assert_eq!(check(&prepared, "card-gap").state, State::Fits);

    // In each other, and over the edge: both are said, and rows are the way out.
    let bad = by_hand(vec![place("p1", 12.0, 32.0, 0.0), place("p1", 30.0, 32.0, 0.0)]);
    let prepared = prepare(&bad, &workshop()).unwrap();
    assert_eq!(check(&prepared, "card-gap").verdict, "they lie in each other");
    assert_eq!(check(&prepared, "card-gap").state, State::Broken);
    assert_eq!(check(&prepared, "card-margin").state, State::Broken);
    let change = &check(&prepared, "card-margin").remedies[0].changes[0];
    let rows = with_field(&bad, &change.field, serde_json::Value::Null).unwrap();
    assert_eq!(facts(&prepare(&rows, &workshop()).unwrap()).copies[0].place, None);
}

#[test]
fn close_together_takes_less_card_than_rows() {
    // Triangles turned by half nest; in rows each takes its bounds.
    let stars: [Label<'_>; 2] = [
        ("label-star", &[("width", 40.0), ("points", 3.0), ("corner", 8.0)], 14),
        ("label-round", &[("width", 16.0)], 10),
    ];
    let mut job = job(&stars, |card| card.width = Some(150.0));
    let prepared = prepare(&job, &workshop()).unwrap();
    let rows = facts(&prepared).needed;
    let drawn = prepared.pieces.last().unwrap().job_piece.form.gathered().unwrap().clone();
    let close = |turning| CloseTogether::new(&drawn, turning).unwrap();
    let places = close(Turning::Free).search(&ToTheEnd);
    assert_eq!(places.len(), 24);
    assert_eq!(places, close(Turning::Free).search(&ToTheEnd), "the same again");
    job.pieces[2].form.gathered_mut().unwrap().places = places;
    let prepared = prepare(&job, &workshop()).unwrap();
    let own = facts(&prepared);
    assert!(own.copies.iter().all(|copy| copy.place.is_some()));
    assert!(least_gap(own) > 3.0 - 0.02, "{}", least_gap(own));
    assert!(own.needed[1] < 0.9 * rows[1], "{:?} and {rows:?}", own.needed);
    assert!(
        prepared
            .checks
            .iter()
            .all(|check| !check.id.starts_with("card-") || check.state == State::Fits),
        "{:?}",
        prepared.checks
    );
    let upright = close(Turning::Upright).search(&ToTheEnd);
    assert!(upright.iter().all(|place| place.turn == 0.0));
}

/// Keeps every layout that it is told of, and ends the search after so many.
struct Seen {
    layouts: Mutex<Vec<Vec<SheetRun>>>,
    most: usize,
}

impl Watch for Seen {
    fn go_on(&self) -> bool {
        self.layouts.lock().unwrap().len() < self.most
    }

    fn found(&self, found: &Found<'_>) {
        self.layouts.lock().unwrap().push(found.runs.to_vec());
    }
}

/// Whoever looks on sees nothing that could not be cut, and may say when it is enough.
#[test]
fn every_layout_on_the_way_to_close_together_is_one_to_cut() {
    let stars: [Label<'_>; 2] = [
        ("label-star", &[("width", 38.0), ("points", 5.0), ("corner", 2.0)], 9),
        ("label-oval", &[("width", 30.0), ("height", 18.0)], 8),
    ];
    let job = job(&stars, |card| card.width = Some(170.0));
    let prepared = prepare(&job, &workshop()).unwrap();
    let drawn = prepared.pieces.last().unwrap().job_piece.form.gathered().unwrap().clone();
    let close = CloseTogether::new(&drawn, Turning::Quarter).unwrap();
    let all = Seen { layouts: Mutex::default(), most: usize::MAX };
    let last = close.search(&all);
    let layouts = all.layouts.into_inner().unwrap();
    assert!(!layouts.is_empty());
    let laid = |places: Vec<MemberPlace>| {
        let mut job = job.clone();
        job.pieces[2].form.gathered_mut().unwrap().places = places;
        prepare(&job, &workshop()).unwrap()
    };
    for runs in &layouts {
        let places = close.places(runs);
        let count = places.len();
        let prepared = laid(places);
        let own = facts(&prepared);
        assert!(least_gap(own) > 3.0 - 0.02, "{count}: {}", least_gap(own));
        assert!(check(&prepared, "card-margin").state == State::Fits, "{count}");
    }
    // The last is the lowest of those that hold them all.
    let height = |places: Vec<MemberPlace>| facts(&laid(places)).needed[1];
    let whole = layouts.iter().map(|runs| close.places(runs)).filter(|own| own.len() == 17);
    let lowest = whole.map(&height).fold(f64::MAX, f64::min);
    assert_eq!(last.len(), 17);
    assert!(height(last) <= lowest + 1e-6, "{lowest}");

    let first = Seen { layouts: Mutex::default(), most: 1 };
    let kept = close.search(&first);
    assert_eq!(kept, close.places(&layouts[0]), "ended at once, the first is kept");
}

#[test]
fn a_card_holds_flat_pieces_of_its_own_job_once() {
    let told = |change: &dyn Fn(&mut Job)| -> String {
        let mut job = job(&THREE, |_| {});
        change(&mut job);
        let errors = prepare(&job, &workshop()).unwrap_err();
        assert!(errors.iter().all(|error| error.field.starts_with("pieces.")), "{errors:?}");
        errors[0].message.clone()
    };
    let members = |job: &mut Job, change: &dyn Fn(&mut Gathered)| {
        change(job.pieces.last_mut().unwrap().form.gathered_mut().unwrap());
    };
    let gone = told(&|job| {
        job.pieces.remove(0);
    });
    assert!(gone.contains("“p1”"), "{gone}");
    let twice = told(&|job| members(job, &|card| card.members[1] = card.members[0].clone()));
    assert!(twice.contains("lies on a card already"), "{twice}");
    let folded = told(&|job| job.pieces[0].form = Form::new("straight-tuck", &[]));
    assert!(folded.contains("is folded"), "{folded}");
    let itself = told(&|job| members(job, &|card| card.members[0].piece = PieceId("p4".into())));
    assert!(itself.contains("is a card itself"), "{itself}");
    let many = told(&|job| members(job, &|card| card.members[0].count = 9_999));
    assert!(many.contains("it holds 1 to 500"), "{many}");
    let far = told(&|job| {
        members(job, &|card| {
            let piece = PieceId("p1".into());
            card.places = vec![MemberPlace { piece, x: f64::NAN, y: 0.0, turn: 0.0 }];
        });
    });
    assert!(far.contains("10 m away"), "{far}");
    // A piece that a card holds already is held by no other.
    let job = job(&THREE, |_| {});
    assert!(job.card_of_pieces().is_none());
    assert_eq!(job.holder(&PieceId("p2".into())), Some((3, 3)));
}

#[test]
fn the_copies_of_a_list_wear_their_rows() {
    let mut job = job(&[("label", &[("width", 40.0), ("height", 20.0)], 3)], |_| {});
    let rows = ["Ada", "Bo", "Cato"].map(|name| vec![name.to_owned()]).to_vec();
    let columns = vec!["Name".to_owned()];
    job.pieces[0].list = Some(List { columns, rows, ..List::default() });
    let words = Layer::new("l1", LayerKind::Text(Text::new("{Name}")));
    job.pieces[0].face = Some(Face::new(0.0, vec![words]));
    let prepared = prepare(&job, &workshop()).unwrap();
    let words: Vec<f64> = prepared.pieces[1].arts[0]
        .layers
        .iter()
        .filter_map(|inked| match &inked.ink {
            Ink::Area { path, .. } => Some(path.bounding_box().width()),
            _ => None,
        })
        .collect();
    assert_eq!(words.len(), 3);
    assert!((words[0] - words[1]).abs() > 1.0, "each its own words: {words:?}");
    let rows = check(&prepared, "rows");
    assert_eq!((rows.state, rows.bound_text.as_str()), (State::Fits, "for 3 copies"));
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(40))]

    /// Whatever is asked for, nothing is lost, and what lies on the card lies within its margin and apart.
    #[test]
    fn rows_keep_their_distance(
        counts in prop::array::uniform3(0u32..9),
        gap in 0.0..12.0f64,
        width in prop::option::of(40.0..300.0f64),
        height in prop::option::of(40.0..300.0f64),
        margin in 0.5..20.0f64,
        hole in prop::sample::select(vec![0.0, 6.0]),
    ) {
        prop_assume!(counts.iter().sum::<u32>() > 0);
        let job = job(&THREE, |card| {
            for (member, count) in card.members.iter_mut().zip(counts) {
                member.count = count;
            }
            (card.gap, card.width, card.height) = (gap, width, height);
            (card.card.margin, card.card.hole) = (margin, hole);
        });
        let prepared = prepare(&job, &workshop()).unwrap();
        let own = facts(&prepared);
        for (at, count) in counts.iter().enumerate() {
            let laid = own.copies.iter().filter(|copy| copy.member == at).count();
            prop_assert_eq!(laid + own.left[at] as usize, *count as usize);
        }
        let card = prepared.pieces.last().unwrap().flat.parts[0].bounds;
        let head = if hole > 0.0 { hole + margin } else { 0.0 };
        let room = Rect::new(card.x0 + margin, card.y0 + margin + head, card.x1 - margin, card.y1 - margin);
        for copy in &own.copies {
            prop_assert!(room.inflate(1e-3, 1e-3).contains_rect(copy.bounds), "{:?} in {room:?}", copy.bounds);
        }
        if own.copies.len() > 1 {
            prop_assert!(least_gap(own) > gap - 0.02, "{} for {gap}", least_gap(own));
        }
        if width.is_none() && height.is_none() {
            prop_assert_eq!(own.left.iter().sum::<u32>(), 0);
            let stickers: f64 = own.copies.iter().map(|copy| Region::rect(copy.bounds).area()).sum();
            prop_assert!(stickers <= card.area());
        }
    }
}
