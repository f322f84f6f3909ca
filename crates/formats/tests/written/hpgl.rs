//! HP-GL and G-code, read back by small readers of their own: every cut within half a step of the path, no pen down in travel, tools in
//! their order, nothing outside the sheet.

use aptum_core::geometry::{Point, Rect};
use aptum_core::job::{Moment, OperationSay};
use aptum_core::memory::Forgetful;
use aptum_core::tooling::ToolPath;
use aptum_core::workshop::{AllowedBy, Corner, Dialect, Force, ForceUnit, RecordId, Workshop};
use aptum_core::{Job, LineKind, Prepared, prepare};
use aptum_formats::gcode::gcode;
use aptum_formats::hpgl::hpgl;

fn prepared(with: impl Fn(&mut Job)) -> (Job, Workshop, Prepared) {
    let mut workshop: Workshop =
        serde_json::from_str(include_str!("../../../../demo/workshop.json")).unwrap();
    workshop.recipes.clear();
    let led = workshop.cutters.get_mut(&RecordId::from("reading-room-cutter")).unwrap();
    led.knife.allowed_by = AllowedBy::Aptum;
    let mut job: Job =
        serde_json::from_str(include_str!("../../../../demo/jobs/tomato-carton.json")).unwrap();
    with(&mut job);
    let prepared = prepare(&job, &workshop).unwrap();
    (job, workshop, prepared)
}

fn written(path: &ToolPath, dialect: &Dialect, page: Rect) -> String {
    let mut text = Vec::new();
    hpgl(path, 0, dialect, page, &mut text).unwrap();
    String::from_utf8(text).unwrap()
}

/// What a pen does that takes HP-GL: stations as they are chosen, lines with the pen down, other commands as they come.
#[derive(Default)]
struct Drawn {
    stations: Vec<i64>,
    lines: Vec<(i64, Vec<(i64, i64)>)>,
    other: Vec<String>,
}

fn read(text: &str) -> Drawn {
    let mut drawn = Drawn::default();
    let (mut station, mut here) = (0, (0, 0));
    let mut line: Option<Vec<(i64, i64)>> = None;
    for command in text.split(';').map(str::trim).filter(|own| !own.is_empty()) {
        let (name, rest) = command.split_at(2);
        let numbers: Vec<i64> =
            rest.split(',').filter(|own| !own.is_empty()).map(|own| own.parse().unwrap()).collect();
        let places = numbers.chunks_exact(2).map(|pair| (pair[0], pair[1]));
        match name {
            "PU" => {
                drawn.lines.extend(line.take().map(|own| (station, own)));
                here = places.fold(here, |_, place| place);
            }
            "PD" => {
                let own = line.get_or_insert_with(|| vec![here]);
                own.extend(places);
                here = *own.last().unwrap();
            }
            "SP" => {
                station = numbers[0];
                drawn.stations.push(station);
            }
            _ => drawn.other.push(command.to_owned()),
        }
    }
    assert!(line.is_none(), "the pen is up at the end");
    drawn
}

fn dialect(origin: Corner, swapped: bool) -> Dialect {
    let (station, force, speed) = ("SP{};".to_owned(), "FS{};".to_owned(), "VS{};".to_owned());
    let (depth, passes) = (String::new(), String::new());
    Dialect { units: 40.0, origin, swapped, station, force, speed, depth, passes, marks: false }
}

#[test]
fn what_is_written_is_the_path_within_half_a_step() {
    let (job, workshop, prepared) = prepared(|job| {
        let force = Some(Force { amount: 102.0, unit: ForceUnit::Grams });
        let say = OperationSay { force, speed: Some(80.0), ..OperationSay::default() };
        job.tooling.operations.insert(LineKind::Cut.into(), say);
    });
    let path = prepared.tool_path(&job, &workshop, 0, &Forgetful).unwrap();
    let page = prepared.windows.page;
    for origin in [Corner::TopLeft, Corner::TopRight, Corner::BottomRight, Corner::BottomLeft] {
        for swapped in [false, true] {
            let text = written(&path, &dialect(origin, swapped), page);
            let drawn = read(&text);
            assert_eq!(drawn.lines.len(), path.stretches.len());
            for ((_, line), stretch) in drawn.lines.iter().zip(&path.stretches) {
                let back = |(x, y): (i64, i64)| {
                    let (x, y) = if swapped { (y, x) } else { (x, y) };
                    let (x, y) = (x as f64 / 40.0, y as f64 / 40.0);
                    Point::new(
                        if matches!(origin, Corner::TopLeft | Corner::BottomLeft) {
                            x
                        } else {
                            page.x1 - x
                        },
                        if matches!(origin, Corner::TopLeft | Corner::TopRight) {
                            y
                        } else {
                            page.y1 - y
                        },
                    )
                };
                // Each point of the way is one of those that are sent.
                for at in &stretch.way {
                    let near = line.iter().any(|own| {
                        let own = back(*own);
                        (own.x - at.x).abs() <= 0.0126 && (own.y - at.y).abs() <= 0.0126
                    });
                    assert!(near, "{at:?}");
                }
                assert!(line.iter().all(|own| page.inflate(0.3, 0.3).contains(back(*own))));
            }
            // Creased first, then cut, each with its station; then the pen is put away.
            assert_eq!(drawn.stations, [2, 1, 0]);
            // The force is told in the machine's own unit; 80 mm/s are 8 cm/s.
            assert!(drawn.other.contains(&"FS102".to_owned()), "{:?}", drawn.other);
            assert!(drawn.other.contains(&"VS8".to_owned()));
        }
    }
}

#[test]
fn what_is_switched_off_is_not_sent_and_a_change_of_tool_is_waited_for() {
    let (job, workshop, prepared) = prepared(|job| {
        let off = OperationSay { off: true, ..OperationSay::default() };
        job.tooling.operations.insert(LineKind::Crease.into(), off);
    });
    let path = prepared.tool_path(&job, &workshop, 0, &Forgetful).unwrap();
    let drawn = read(&written(&path, &dialect(Corner::TopLeft, false), prepared.windows.page));
    assert_eq!(drawn.stations, [1, 0]);
    assert!(!drawn.other.contains(&"NR".to_owned()));

    let (job, workshop, prepared) = self::prepared(|job| {
        job.sheet.cutter = Some(aptum_core::workshop::RecordId("desk-cutter".to_owned()));
    });
    let path = prepared.tool_path(&job, &workshop, 0, &Forgetful).unwrap();
    assert!(!path.stretches.is_empty());
    let drawn = read(&written(&path, &dialect(Corner::TopLeft, false), prepared.windows.page));
    assert_eq!(drawn.other.iter().filter(|own| *own == "NR").count(), 1, "{:?}", drawn.other);
}

/// Whatever lies on its sheets: no job of the demo sends a machine off the sheet.
#[test]
fn no_job_of_the_demo_leaves_its_sheet() {
    let workshop: Workshop =
        serde_json::from_str(include_str!("../../../../demo/workshop.json")).unwrap();
    let folder = concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo/jobs");
    let mut written_jobs = 0;
    for file in std::fs::read_dir(folder).unwrap() {
        let text = std::fs::read_to_string(file.unwrap().path()).unwrap();
        let job: Job = serde_json::from_str(&text).unwrap();
        // Jobs of pictures and drawings are prepared with these.
        let Ok(prepared) = prepare(&job, &workshop) else { continue };
        let page = prepared.windows.page;
        for run in 0..prepared.layout.runs.len() {
            let path = prepared.tool_path(&job, &workshop, run, &Forgetful).unwrap();
            let drawn = read(&written(&path, &dialect(Corner::TopLeft, false), page));
            assert_eq!(drawn.lines.len(), path.stretches.len(), "{}", job.name);
            // The axis goes round corners at most half a millimetre beyond them.
            #[expect(clippy::cast_possible_truncation, reason = "a sheet’s sides")]
            let most = |long: f64| ((long + 0.5) * 40.0).ceil() as i64;
            for (x, y) in drawn.lines.iter().flat_map(|(_, line)| line) {
                assert!((-20..=most(page.width())).contains(x), "{}: {x}", job.name);
                assert!((-20..=most(page.height())).contains(y), "{}: {y}", job.name);
            }
            written_jobs += usize::from(!path.stretches.is_empty());
        }
    }
    assert!(written_jobs > 15, "{written_jobs}");
}

#[test]
fn a_machine_that_repeats_by_itself_gets_each_line_once() {
    let (job, workshop, prepared) = prepared(|job| {
        let say = OperationSay { passes: Some(3), ..OperationSay::default() };
        job.tooling.operations.insert(LineKind::Cut.into(), say);
    });
    let path = prepared.tool_path(&job, &workshop, 0, &Forgetful).unwrap();
    let own = dialect(Corner::TopLeft, false);
    let page = prepared.windows.page;
    assert_eq!(read(&written(&path, &own, page)).lines.len(), path.stretches.len());
    let repeats = Dialect { passes: "RP{};".to_owned(), ..own };
    let drawn = read(&written(&path, &repeats, page));
    let once = path.stretches.iter().filter(|own| own.pass == 1).count();
    assert_eq!(drawn.lines.len(), once);
    assert!(drawn.other.contains(&"RP3".to_owned()), "{:?}", drawn.other);
}

#[test]
fn each_loading_is_a_file_of_its_own() {
    let (job, workshop, prepared) = prepared(|job| {
        let before = OperationSay { when: Some(Moment::BeforePrint), ..OperationSay::default() };
        job.tooling.operations.insert(LineKind::Crease.into(), before);
    });
    let path = prepared.tool_path(&job, &workshop, 0, &Forgetful).unwrap();
    let page = prepared.windows.page;
    let mut texts = Vec::new();
    for loading in 0..2 {
        let mut text = Vec::new();
        hpgl(&path, loading, &dialect(Corner::TopLeft, false), page, &mut text).unwrap();
        texts.push(read(&String::from_utf8(text).unwrap()));
    }
    assert_eq!((&texts[0].stations[..], &texts[1].stations[..]), (&[2, 0][..], &[1, 0][..]));
    let all = texts[0].lines.len() + texts[1].lines.len();
    assert_eq!(all, path.stretches.len(), "each line in one of them");
    assert!(!texts[1].other.contains(&"NR".to_owned()), "it is loaded before it is sent");
}

/// A line with how deep it goes, place by place.
type Deep = Vec<(f64, f64, f64)>;

/// What a machine does that takes G-code: where it is while its tool is down, in millimetres.
fn read_gcode(text: &str) -> (Vec<Deep>, usize) {
    let (mut at, mut lines, mut stops) = ((0.0, 0.0, 0.0), Vec::new(), 0);
    let mut line = Deep::new();
    for row in text.lines().filter(|row| !row.starts_with(['%', '('])) {
        let words: Vec<(char, f64)> = row
            .split(' ')
            .map(|word| (word.chars().next().unwrap(), word[1..].parse().unwrap()))
            .collect();
        let has = |letter: char, number: f64| words.contains(&(letter, number));
        stops += usize::from(has('M', 0.0));
        if !has('G', 0.0) && !has('G', 1.0) {
            continue;
        }
        for (letter, number) in &words {
            match letter {
                'X' => at.0 = *number,
                'Y' => at.1 = *number,
                'Z' => at.2 = *number,
                _ => {}
            }
        }
        if has('G', 1.0) {
            assert!(at.2 <= 0.0, "it works below the face of the card: {row}");
            line.push(at);
        } else {
            assert!(
                at.2 > 0.0 || line.is_empty() || row.contains('Z'),
                "no travel while down: {row}"
            );
            if !line.is_empty() {
                lines.push(std::mem::take(&mut line));
            }
        }
    }
    assert!(line.is_empty());
    (lines, stops)
}

#[test]
fn g_code_is_the_path_from_the_lower_left_corner() {
    let (job, mut workshop, prepared) = prepared(|job| {
        let say = OperationSay { depth: Some(0.8), ..OperationSay::default() };
        job.tooling.operations.insert(LineKind::Cut.into(), say);
    });
    let id = job.sheet.cutter.clone().unwrap();
    workshop.cutters.get_mut(&id).unwrap().gcode = Some(aptum_core::workshop::Gcode::default());
    let path = prepared.tool_path(&job, &workshop, 0, &Forgetful).unwrap();
    let page = prepared.windows.page;
    let mut text = Vec::new();
    gcode(&path, 0, &workshop.cutters[&id], page, &mut text).unwrap();
    let text = String::from_utf8(text).unwrap();
    assert!(text.starts_with("%\nG21\nG90\n"), "millimetres, absolute");
    let (lines, stops) = read_gcode(&text);
    assert_eq!((lines.len(), stops), (path.stretches.len(), 0));
    for (line, stretch) in lines.iter().zip(&path.stretches) {
        assert_eq!(line.len(), stretch.way.len());
        let kind = path.worked[stretch.operation].operation.kind;
        let deep = if kind == LineKind::Cut { -0.8 } else { -0.5 };
        for ((x, y, z), at) in line.iter().zip(&stretch.way) {
            assert!((x - at.x).abs() <= 0.0006 && (page.y1 - y - at.y).abs() <= 0.0006);
            assert!((z - deep).abs() < 1e-9);
        }
    }
}
