//! Lines as processing steps (ISO 19593-1, from memory), read back by a general PDF library, and cut files by operation.

use aptum_core::blob::NoBlobs;
use aptum_core::geometry::BezPath;
use aptum_core::job::{OperationId, OperationSay, Share};
use aptum_core::workshop::Workshop;
use aptum_core::{Job, LineKind, Prepared, prepare};
use aptum_formats::pdf::{StepsWith, print_pdf, steps_pdf};
use aptum_formats::svg::{MarksInCut, SvgUnits, cut_svg};
use lopdf::content::Content;
use lopdf::{Dictionary, Document, Object};

fn prepared(name: &str, with: impl Fn(&mut Job)) -> (Job, Prepared) {
    let mut workshop: Workshop =
        serde_json::from_str(include_str!("../../../../demo/workshop.json")).unwrap();
    workshop.recipes.clear();
    let file = format!("{}/../../demo/jobs/{name}.json", env!("CARGO_MANIFEST_DIR"));
    let mut job: Job = serde_json::from_str(&std::fs::read_to_string(file).unwrap()).unwrap();
    with(&mut job);
    let prepared = prepare(&job, &workshop).unwrap();
    (job, prepared)
}

fn steps(job: &Job, prepared: &Prepared, with: StepsWith) -> Document {
    let mut bytes = Vec::new();
    steps_pdf(job, prepared, with, &NoBlobs, &mut bytes).unwrap();
    Document::load_mem(&bytes).unwrap()
}

/// A dictionary below another, through references.
fn below<'a>(pdf: &'a Document, own: &'a Dictionary, name: &[u8]) -> &'a Dictionary {
    let found = own.get(name).unwrap();
    match found {
        Object::Reference(id) => pdf.get_dictionary(*id).unwrap(),
        other => other.as_dict().unwrap(),
    }
}

fn name<'a>(own: &'a Dictionary, key: &[u8]) -> &'a str {
    std::str::from_utf8(own.get(key).unwrap().as_name().unwrap()).unwrap()
}

#[test]
fn each_kind_is_a_group_that_says_what_it_is_and_an_ink_that_overprints() {
    let (job, prepared) = prepared("tomato-carton", |_| {});
    let pdf = steps(&job, &prepared, StepsWith::Nothing);
    let catalog = pdf.catalog().unwrap();
    let groups = below(&pdf, catalog, b"OCProperties").get(b"OCGs").unwrap().as_array().unwrap();
    let told: Vec<(String, String)> = groups
        .iter()
        .map(|group| {
            let group = pdf.get_dictionary(group.as_reference().unwrap()).unwrap();
            assert_eq!(name(group, b"Type"), "OCG");
            let metadata = below(&pdf, group, b"GTS_Metadata");
            let group = name(metadata, b"GTS_ProcStepsGroup").to_owned();
            (group, name(metadata, b"GTS_ProcStepsType").to_owned())
        })
        .collect();
    let structural = |step: &str| ("Structural".to_owned(), step.to_owned());
    assert_eq!(told, [structural("Creasing"), structural("Cutting")]);

    let pages = pdf.get_pages();
    assert_eq!(pages.len(), prepared.layout.sheets() as usize);
    let page = *pages.values().next().unwrap();
    let resources = below(&pdf, pdf.get_dictionary(page).unwrap(), b"Resources");
    // What is drawn between the marks of a group, in which ink.
    let content = Content::decode(&pdf.get_page_content(page)).unwrap();
    let mut inside: Option<String> = None;
    let mut drawn = Vec::new();
    for operation in &content.operations {
        let first = operation.operands.last().and_then(|own| own.as_name().ok());
        match operation.operator.as_str() {
            "BDC" => {
                let group = String::from_utf8(first.unwrap().to_vec()).unwrap();
                assert!(below(&pdf, resources, b"Properties").has(group.as_bytes()), "{group}");
                inside = Some(group);
            }
            "EMC" => inside = None,
            "Do" => {
                let group = inside.clone().expect("every line belongs to a group");
                let forms = below(&pdf, resources, b"XObject");
                let form = forms.get(first.unwrap()).unwrap().as_reference().unwrap();
                let form = pdf.get_object(form).unwrap().as_stream().unwrap();
                let own = below(&pdf, &form.dict, b"Resources");
                let spaces = below(&pdf, own, b"ColorSpace");
                let (_, space) = spaces.iter().next().unwrap();
                let space = pdf.get_object(space.as_reference().unwrap()).unwrap();
                let space = space.as_array().unwrap();
                assert_eq!(space[0].as_name().unwrap(), b"Separation");
                let ink = String::from_utf8(space[1].as_name().unwrap().to_vec()).unwrap();
                let (_, state) = below(&pdf, own, b"ExtGState").iter().next().unwrap();
                let state = state.as_dict().unwrap();
                assert!(state.get(b"OP").unwrap().as_bool().unwrap(), "it overprints");
                let lines = Content::decode(&form.decompressed_content().unwrap()).unwrap();
                let fills = ["f", "F", "f*", "B"];
                assert!(!lines.operations.iter().any(|own| fills.contains(&own.operator.as_str())));
                assert!(lines.operations.iter().any(|own| own.operator == "S"));
                drawn.push((group, ink));
            }
            _ => {}
        }
    }
    let pair = |group: &str, ink: &str| (group.to_owned(), ink.to_owned());
    assert_eq!(drawn, [pair("crease", "Crease"), pair("cut", "Cut")]);
}

/// Lines alone, lines over art, and the print file lie in register: the same pages, and the same art beneath.
#[test]
fn the_steps_lie_in_register_with_the_print() {
    let (job, prepared) = prepared("tomato-carton", |_| {});
    let alone = steps(&job, &prepared, StepsWith::Nothing);
    let together = steps(&job, &prepared, StepsWith::Art);
    let mut bytes = Vec::new();
    print_pdf(&job, &prepared, &NoBlobs, &mut bytes).unwrap();
    let print = Document::load_mem(&bytes).unwrap();
    let boxes = |pdf: &Document| -> Vec<Object> {
        let pages = pdf.get_pages();
        pages
            .values()
            .map(|id| pdf.get_dictionary(*id).unwrap().get(b"MediaBox").unwrap().clone())
            .collect()
    };
    assert_eq!(boxes(&alone), boxes(&print));
    assert_eq!(boxes(&together), boxes(&print));
    let first = |pdf: &Document| {
        let page = *pdf.get_pages().values().next().unwrap();
        Content::decode(&pdf.get_page_content(page)).unwrap().operations
    };
    let (all, art) = (first(&together), first(&print));
    let operators = |of: &[lopdf::content::Operation]| -> Vec<String> {
        of.iter().map(|own| own.operator.clone()).collect()
    };
    assert_eq!(operators(&all[..art.len()]), operators(&art), "art and marks first, as printed");
    assert!(operators(&all[art.len()..]).contains(&"BDC".to_owned()));
}

#[test]
fn cut_files_have_a_group_for_each_operation_in_its_order() {
    let edge = OperationId::new(LineKind::Cut, &Share::Edge);
    let (job, prepared) = prepared("seedling-carrier", |job| {
        let three = OperationSay { passes: Some(3), ..OperationSay::default() };
        job.tooling.operations.insert(edge.clone(), three);
        let off = OperationSay { off: true, ..OperationSay::default() };
        job.tooling.operations.insert(LineKind::Crease.into(), off);
    });
    let svg = cut_svg(&job, &prepared, 1, MarksInCut::LeftOut, SvgUnits::Mm).unwrap();
    let file = roxmltree::Document::parse(&svg).unwrap();
    let groups: Vec<_> = file.descendants().filter(|own| own.has_tag_name("g")).collect();
    let ids: Vec<&str> = groups.iter().filter_map(|own| own.attribute("id")).collect();
    assert!(!ids.contains(&"crease"), "what is switched off is not in it: {ids:?}");
    assert_eq!(ids[ids.len() - 2..], ["cut", "cut-edge"]);
    assert_eq!(groups.last().unwrap().attribute("data-passes"), Some("3"));
    let outlines = groups.last().unwrap().descendants().filter_map(|own| own.attribute("d"));
    let outlines: Vec<BezPath> = outlines.map(|own| BezPath::from_svg(own).unwrap()).collect();
    assert_eq!(outlines.len(), prepared.layout.runs[0].placements.len());

    let mut bytes = Vec::new();
    aptum_formats::dxf::sheet_dxf(&job, &prepared, 1, &mut bytes).unwrap().unwrap();
    let drawing = dxf::Drawing::load(&mut bytes.as_slice()).unwrap();
    let mut layers: Vec<String> = drawing.entities().map(|own| own.common.layer.clone()).collect();
    layers.dedup();
    assert_eq!(layers, ["reverse-crease", "cut", "cut-edge"]);
}
