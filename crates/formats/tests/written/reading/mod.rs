//! Reads PDF pages back with lopdf: where ink lies on the page, in mm from its top left corner.

use kurbo::{Affine, BezPath, Rect, Shape};
use lopdf::content::Content;
use lopdf::{Dictionary, Document, Object};

/// A painted path.
pub struct Ink {
    /// In mm, y down.
    pub path: BezPath,
    /// `g` for one-ink fills, `rg` for coloured fills, `S` for strokes.
    pub how: &'static str,
}

pub fn open(bytes: &[u8]) -> Document {
    Document::load_mem(bytes).unwrap()
}

fn number(object: &Object) -> f64 {
    f64::from(object.as_float().unwrap())
}

/// A page box in mm, y down from the page's top.
pub fn page_box(pdf: &Document, page: u32, name: &[u8]) -> Rect {
    let id = pdf.get_pages()[&page];
    let page = pdf.get_dictionary(id).unwrap();
    let read = |name: &[u8]| -> Vec<f64> {
        page.get(name).unwrap().as_array().unwrap().iter().map(number).collect()
    };
    let (media, found) = (read(b"MediaBox"), read(name));
    let mm = |points: f64| points * 25.4 / 72.0;
    Rect::new(mm(found[0]), mm(media[3] - found[3]), mm(found[2]), mm(media[3] - found[1]))
}

/// Everything painted on a page.
pub fn ink(pdf: &Document, page: u32) -> Vec<Ink> {
    let id = pdf.get_pages()[&page];
    let height = page_box(pdf, page, b"MediaBox").height();
    let to_mm =
        Affine::translate((0.0, height)) * Affine::scale_non_uniform(25.4 / 72.0, -25.4 / 72.0);
    let resources = pdf.get_dictionary(id).unwrap().get(b"Resources").unwrap().as_dict().unwrap();
    let mut painted = Vec::new();
    let content = pdf.get_page_content(id);
    paint(pdf, &content, resources, to_mm, &mut painted);
    painted
}

fn paint(
    pdf: &Document,
    bytes: &[u8],
    resources: &Dictionary,
    start: Affine,
    painted: &mut Vec<Ink>,
) {
    let mut state = vec![start];
    let (mut path, mut fill) = (BezPath::new(), "g");
    for operation in Content::decode(bytes).unwrap().operations {
        let n: Vec<f64> =
            operation.operands.iter().filter_map(|o| o.as_float().ok().map(f64::from)).collect();
        let now = *state.last().unwrap();
        match operation.operator.as_str() {
            "q" => state.push(now),
            "Q" => {
                state.pop();
            }
            "cm" => {
                *state.last_mut().unwrap() =
                    now * Affine::new([n[0], n[1], n[2], n[3], n[4], n[5]]);
            }
            "m" => path.move_to((n[0], n[1])),
            "l" => path.line_to((n[0], n[1])),
            "c" => path.curve_to((n[0], n[1]), (n[2], n[3]), (n[4], n[5])),
            "h" => path.close_path(),
            "g" => fill = "g",
            "rg" => fill = "rg",
            "f" | "S" => {
                let how = if operation.operator == "f" { fill } else { "S" };
                painted.push(Ink { path: now * std::mem::take(&mut path), how });
            }
            "Do" => {
                let name = operation.operands[0].as_name().unwrap();
                let drawings = resources.get(b"XObject").unwrap().as_dict().unwrap();
                let id = drawings.get(name).unwrap().as_reference().unwrap();
                let stream = pdf.get_object(id).unwrap().as_stream().unwrap();
                paint(pdf, &stream.decompressed_content().unwrap(), resources, now, painted);
            }
            _ => {}
        }
    }
}

/// The bounds of all paths painted in one way.
pub fn bounds(painted: &[Ink], how: &str, choose: impl Fn(&Rect) -> bool) -> Rect {
    painted
        .iter()
        .filter(|ink| ink.how == how)
        .map(|ink| ink.path.bounding_box())
        .filter(|rect| choose(rect))
        .reduce(|all, next| all.union(next))
        .unwrap()
}
