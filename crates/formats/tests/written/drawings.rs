//! Drawings from elsewhere, read: against ezdxf and svgpathtools, and what is said of bad ones.

use std::collections::BTreeMap;

use aptum_core::lines::{Group, Lines, Look};
use aptum_formats::lines::{ReadError, brought, kept, look_at};
use kurbo::ParamCurveArclen;

pub fn folder() -> std::path::PathBuf {
    std::path::Path::new(env!("CARGO_MANIFEST_DIR")).join("tests/reference/drawings")
}

/// How long the lines are, in their units, by what their group is told by.
fn lengths_by(lines: &Lines, told: impl Fn(&Group) -> String) -> BTreeMap<String, f64> {
    let mut all = BTreeMap::new();
    for line in &lines.lines {
        let long: f64 = line.path.segments().map(|own| own.arclen(1e-7)).sum();
        *all.entry(told(&lines.groups[line.group])).or_insert(0.0) += long;
    }
    all
}

fn lengths(lines: &Lines) -> BTreeMap<String, f64> {
    lengths_by(lines, |group| group.layer.clone())
}

/// Made by `tools/reference/drawings.py`: ezdxf 1.4 and svgpathtools.
#[test]
fn lengths_and_sizes_are_those_that_general_libraries_find() {
    let table = std::fs::read_to_string(folder().join("drawings.json")).unwrap();
    let table: serde_json::Value = serde_json::from_str(&table).unwrap();
    let files = table["files"].as_array().unwrap();
    assert_eq!(files.len(), 5);
    for file in files {
        let name = file["file"].as_str().unwrap();
        let lines = brought(&std::fs::read(folder().join(name)).unwrap(), 1).unwrap();
        match file["unit"].as_f64() {
            Some(unit) => assert!((lines.unit.unwrap() - unit).abs() < 1e-12, "{name}"),
            None => assert_eq!(lines.unit, None, "{name}"),
        }
        if let Some(count) = file["count"].as_u64() {
            assert_eq!(lines.lines.len() as u64, count, "{name}");
        }
        // 0.02 mm, or as many units where these are larger.
        let most = 0.02 / lines.unit.unwrap_or(1.0).min(1.0);
        let found = lengths(&lines);
        let wanted = file["length"].as_object().unwrap();
        assert_eq!(found.len(), wanted.len(), "{name}: {found:?}");
        for (layer, length) in wanted {
            let (own, length) = (found[layer], length.as_f64().unwrap());
            assert!((own - length).abs() < most, "{name}, {layer}: {own} for {length}");
        }
        let bounds = lines.bounds();
        for (own, side) in [bounds.width(), bounds.height()].iter().zip([0, 1]) {
            let wanted = file["size"][side].as_f64().unwrap();
            assert!((own - wanted).abs() < most, "{name}: {own} for {wanted}");
        }
    }
}

#[test]
fn what_is_kept_reads_back_the_same() {
    let lines = brought(&std::fs::read(folder().join("millimetres.dxf")).unwrap(), 1).unwrap();
    let bytes = kept(&lines);
    assert_eq!(look_at(&bytes).unwrap(), lines);
    assert_eq!(aptum_formats::content::Content::of(&bytes).unwrap().extension(), "json");
    assert!(look_at(&bytes[..bytes.len() / 2]).is_err());
    let far = String::from_utf8(bytes).unwrap().replacen("\"M", "\"M1e300 0L", 1);
    assert!(look_at(far.as_bytes()).is_err());
}

/// A page of 300 × 200 units with a line from 10 to 110 of them, and what else its dictionary says.
fn page(say: impl FnOnce(&mut pdf_writer::writers::Page)) -> Vec<u8> {
    use pdf_writer::{Content, Finish, Pdf, Rect, Ref};
    let mut pdf = Pdf::new();
    let [catalog, pages, page, content] = [1, 2, 3, 4].map(Ref::new);
    pdf.catalog(catalog).pages(pages);
    pdf.pages(pages).kids([page]).count(1);
    let mut own = pdf.page(page);
    own.parent(pages).media_box(Rect::new(0.0, 0.0, 300.0, 200.0)).contents(content);
    say(&mut own);
    own.finish();
    let mut drawn = Content::new();
    drawn.set_stroke_rgb(1.0, 0.0, 0.0).move_to(10.0, 10.0).line_to(110.0, 10.0).stroke();
    pdf.stream(content, &drawn.finish());
    pdf.finish()
}

/// ISO 32000-1, 7.7.3.3 and 8.3.2.3: units of 1/72 in, or of so many of these as the page says.
#[test]
fn a_page_has_lines_in_points_or_in_units_of_its_own() {
    for (user_unit, points) in [(None, 1.0), (Some(2.5), 2.5), (Some(-3.0), 1.0)] {
        let unit = |own: &mut pdf_writer::writers::Page| {
            if let Some(unit) = user_unit {
                own.pair(pdf_writer::Name(b"UserUnit"), unit);
            }
        };
        let lines = brought(&page(unit), 1).unwrap();
        let long: f64 = lengths(&lines).values().sum::<f64>() * lines.unit.unwrap();
        assert!((long - 100.0 * points * 25.4 / 72.0).abs() < 1e-3, "{user_unit:?}: {long}");
        let (group, bounds) = (&lines.groups[0], lines.bounds());
        assert_eq!((group.colour.as_str(), group.look), ("#ff0000", Look::Stroke));
        assert!((bounds.y0 - 190.0).abs() < 1e-3, "{bounds:?}");
    }
}

/// ISO 32000-1, 14.11.2.1: a page is clipped to its crop box. SVG 2, 8.2: and a drawing to its view box.
#[test]
fn what_lies_off_the_page_is_hidden() {
    let cropped = page(|own| {
        own.crop_box(pdf_writer::Rect::new(0.0, 0.0, 70.0, 100.0));
    });
    let drawn = r#"<svg xmlns="http://www.w3.org/2000/svg" width="70mm" height="10mm" viewBox="0 0 70 10">
        <path d="M10 5H110" stroke="red"/><path d="M0 0H70V10H0Z" stroke="red" fill="none"/></svg>"#;
    for (bytes, edge, per_unit) in
        [(cropped, 0.0, 1.0), (drawn.as_bytes().to_vec(), 160.0, 96.0 / 25.4)]
    {
        let lines = lengths_by(&brought(&bytes, 1).unwrap(), |group| group.look.name().to_owned());
        let [seen, hidden] =
            [Look::Stroke, Look::Clipped].map(|look| lines[look.name()] / per_unit);
        assert!((seen - 60.0 - edge).abs() < 0.05 && (hidden - 40.0).abs() < 0.05, "{lines:?}");
    }
}

/// SVG 2 and CSS Masking 1, 14.3.2: a clip's own rule says whether a ring leaves its inside open.
#[test]
fn what_a_clips_hole_hides_is_hidden() {
    let against = "M10 10H90V50H10Z M40 20V40H60V20Z";
    let along = "M10 10H90V50H10Z M40 20H60V40H40Z";
    for (ring, rule, open) in [
        (against, "nonzero", true),
        (along, "nonzero", false),
        (along, "evenodd", true),
        (against, "evenodd", true),
    ] {
        let svg = format!(
            r#"<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="60mm" viewBox="0 0 100 60">
            <clipPath id="c"><path d="{ring}" clip-rule="{rule}"/></clipPath>
            <g clip-path="url(#c)"><path d="M0 30H100" stroke="red"/></g></svg>"#
        );
        let lines =
            lengths_by(&brought(svg.as_bytes(), 1).unwrap(), |group| group.look.name().to_owned());
        let seen = lines[Look::Stroke.name()] * 25.4 / 96.0;
        let wanted = if open { 60.0 } else { 80.0 };
        assert!((seen - wanted).abs() < 0.05, "{ring} {rule}: {seen}");
    }
}

#[test]
fn a_crease_pattern_says_what_its_edges_are() {
    let fold = br#"{ "file_spec": 1.2, "frame_unit": "cm", "vertices_coords": [[0,0],[10,0],[10,10],[0,10]],
        "edges_vertices": [[0,1],[1,2],[2,3],[3,0],[0,2]], "edges_assignment": ["B","B","B","B","V"],
        "edges_foldAngle": [null,null,null,null,120] }"#;
    let lines = brought(fold, 1).unwrap();
    assert_eq!((lines.unit, lines.lines.len()), (Some(10.0), 5));
    assert_eq!(lines.angles, [(4, 120.0)]);
    let layers: Vec<&str> = lines.groups.iter().map(|own| own.layer.as_str()).collect();
    assert_eq!(layers, ["boundary", "valley"]);
    let folded = br#"{"vertices_coords": [[0,0,0],[1,0,5]], "edges_vertices": [[0,1]]}"#;
    assert!(brought(folded, 1).unwrap_err().to_string().contains("folded piece"));
}

fn said(bytes: &[u8]) -> String {
    brought(bytes, 1).unwrap_err().to_string()
}

fn dxf(entities: &str, blocks: &str) -> Vec<u8> {
    let blocks = if blocks.is_empty() {
        String::new()
    } else {
        format!("0\nSECTION\n2\nBLOCKS\n{blocks}0\nENDSEC\n")
    };
    format!("{blocks}0\nSECTION\n2\nENTITIES\n{entities}0\nENDSEC\n0\nEOF\n").into_bytes()
}

#[test]
fn what_brings_no_lines_is_refused_with_the_way_out() {
    assert!(said(b"%!PS-Adobe-3.0 EPSF-3.0\n").contains("save it as PDF or SVG"));
    assert!(said(b"hello").contains("SVG, DXF, PDF or FOLD"));
    assert!(said(b"").contains("no drawing of lines"));
    let png = include_bytes!("../../../../demo/pictures/bee.png");
    assert!(said(png).contains("trace it"));
    let pixels = br#"<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><image width="9" height="9"
        href="data:image/png;base64,iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=="/></svg>"#;
    assert!(
        said(pixels).contains("no lines, 0 words and 1 picture: start a job"),
        "{}",
        said(pixels)
    );
    assert_eq!(brought(&vec![b' '; (32 << 20) + 1], 1), Err(ReadError::Large((32 << 20) + 1)));
    assert!(
        said(b"{\"vertices_coords\": [[0,0]], \"edges_vertices\": [[0,7]]}").contains("vertex 7")
    );
    assert!(said(&dxf("", "")).contains("no lines"));
    let far = "0\nLINE\n8\n0\n10\n1e300\n20\n0\n11\n5\n21\n5\n";
    assert!(said(&dxf(far, "")).contains("units away"), "{}", said(&dxf(far, "")));
}

#[test]
fn blocks_in_themselves_and_bombs_of_them_end() {
    let insert = |name: &str| format!("0\nINSERT\n8\n0\n2\n{name}\n10\n0\n20\n0\n");
    let block = |name: &str, inner: &str| {
        format!("0\nBLOCK\n8\n0\n2\n{name}\n70\n0\n10\n0\n20\n0\n{inner}0\nENDBLK\n8\n0\n")
    };
    let own = dxf(&insert("A"), &block("A", &insert("A")));
    assert!(said(&own).contains("in themselves"), "{}", said(&own));
    // Ten blocks, each of ten of the one before: ten thousand million lines.
    let line = "0\nLINE\n8\n0\n10\n0\n20\n0\n11\n5\n21\n5\n";
    let mut blocks = block("B0", line);
    for at in 1..=10 {
        blocks.push_str(&block(&format!("B{at}"), &insert(&format!("B{}", at - 1)).repeat(10)));
    }
    let bomb = dxf(&insert("B10"), &blocks);
    assert!(said(&bomb).contains("100000 lines"), "{}", said(&bomb));
}

/// Widths as the DXF reference tells them: a line's weight in hundredths of a millimetre, its layer's where it has none, a polyline's own
/// width in the drawing's units.
#[test]
fn strokes_of_a_dxf_have_widths() {
    let header = "0\nSECTION\n2\nHEADER\n9\n$ACADVER\n1\nAC1015\n9\n$INSUNITS\n70\n1\n0\nENDSEC\n";
    let layers = "0\nSECTION\n2\nTABLES\n0\nTABLE\n2\nLAYER\n70\n1\n0\nLAYER\n2\nFine\n70\n0\n62\n7\n6\nCONTINUOUS\n370\n35\n0\nENDTAB\n0\nENDSEC\n";
    let line = |layer: &str, weight: &str, y: u32| {
        format!("0\nLINE\n8\n{layer}\n{weight}10\n0\n20\n{y}\n11\n4\n21\n{y}\n")
    };
    let own = line("Fine", "370\n70\n", 0) + &line("Fine", "", 1) + &line("Other", "", 2);
    let wide = "0\nLWPOLYLINE\n8\nFine\n90\n2\n70\n0\n43\n0.125\n10\n0\n20\n3\n10\n4\n20\n3\n";
    let file = format!("{header}{layers}{}", String::from_utf8(dxf(&(own + wide), "")).unwrap());
    let lines = brought(file.as_bytes(), 1).unwrap();
    // An inch is the unit.
    assert_eq!(lines.unit, Some(25.4));
    let widths: Vec<f64> = lines.lines.iter().map(|own| own.width * 25.4).collect();
    for (width, expected) in widths.iter().zip([0.7, 0.35, 0.0, 3.175]) {
        assert!((width - expected).abs() < 1e-9, "{widths:?}");
    }
    // Where nobody knows the unit, nobody knows how wide a millimetre is.
    let silent = brought(&dxf(&line("0", "370\n70\n", 0), ""), 1).unwrap();
    assert_eq!((silent.unit, silent.lines[0].width), (None, 0.0));
}

/// Each crease keeps the angle that its own edge tells, however many there are and in whatever order the edges stand.
#[test]
fn thousands_of_creases_of_a_fold_file_keep_their_own_angles() {
    const SIDE: usize = 60;
    let mut random = fastrand::Rng::with_seed(5);
    let (mut places, mut paths, mut angles) = (Vec::new(), Vec::new(), Vec::new());
    for at in 0..SIDE * SIDE {
        // Next to each other, some of them so near that their boxes touch.
        let [x, y] = [(at % SIDE) as f64 * 2.0, (at / SIDE) as f64 * 2.0];
        let to = [x + random.f64() * 2.0, y + 0.5 + random.f64()];
        places.extend([[x, y], to]);
        paths.push(format!("M{x} {y}L{} {}", to[0], to[1]));
        angles.push(random.f64() * 340.0 - 170.0);
    }
    let mut order: Vec<usize> = (0..paths.len()).collect();
    random.shuffle(&mut order);
    let lines: Vec<_> =
        paths.iter().map(|path| serde_json::json!({ "kind": "crease", "path": path })).collect();
    let file = serde_json::json!({
        "file_spec": 1.2, "frame_unit": "mm", "vertices_coords": places,
        "edges_vertices": order.iter().map(|at| [2 * at, 2 * at + 1]).collect::<Vec<_>>(),
        "edges_assignment": vec!["V"; order.len()],
        "edges_foldAngle": order.iter().map(|at| angles[*at]).collect::<Vec<_>>(),
        "aptum:lines": lines,
    });
    let read = brought(file.to_string().as_bytes(), 1).unwrap();
    assert_eq!((read.lines.len(), read.angles.len()), (angles.len(), angles.len()));
    for (line, angle) in &read.angles {
        assert!((angle - angles[*line]).abs() < 1e-9, "line {line}");
    }
}
