//! Drawings of lines and areas: SVG, and pages of PDF, kept as plain SVG that holds nothing but what is drawn.

use std::sync::{Arc, LazyLock};

use aptum_core::lettering::SHELF;
use hayro_svg::hayro_interpret::InterpreterSettings;
use hayro_svg::hayro_interpret::hayro_syntax::{LoadPdfError, Pdf};
use hayro_svg::{RenderCache, SvgRenderSettings};
use resvg::usvg::{self, Options, Tree, WriteOptions, fontdb};

use crate::picture::PictureError;

/// Largest drawing that is taken, in bytes.
pub const LARGEST: usize = 16 << 20;

/// Most nodes of a drawing.
pub const MOST_NODES: u32 = 100_000;

/// Elements within each other, at most: what draws them calls itself for each.
pub const DEEPEST: usize = 300;

/// What is followed from reference to reference may go deeper than it looks: so much stack is there for it, bytes.
const STACK: usize = 512 << 20;

/// Largest plain drawing that is kept, in bytes.
const LARGEST_KEPT: usize = 48 << 20;

/// A side of a drawing in its own units, of which the longer has so many: only their ratio counts.
const FINENESS: f64 = 60_000.0;

/// What kind of drawing some bytes are.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum DrawingFile {
    /// SVG (W3C SVG 1.1 and 2).
    Svg,
    /// PDF (ISO 32000).
    Pdf,
}

impl DrawingFile {
    /// Tells by the first bytes.
    #[must_use]
    pub fn of(bytes: &[u8]) -> Option<Self> {
        let head = &bytes[..bytes.len().min(4096)];
        let has = |word: &[u8]| head.windows(word.len()).any(|own| own == word);
        let text = head.strip_prefix(b"\xef\xbb\xbf").unwrap_or(head);
        let first = text.iter().find(|byte| !byte.is_ascii_whitespace());
        if has(b"%PDF-") {
            Some(Self::Pdf)
        } else if first == Some(&b'<') && has(b"<svg") {
            Some(Self::Svg)
        } else {
            None
        }
    }
}

/// A drawing as it is kept.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Drawing {
    /// Plain SVG: paths, colours, clips and the pictures within it, in this file alone.
    pub svg: String,
    /// Its sides, of which only the ratio counts.
    pub sides: [u32; 2],
}

/// Brings a drawing in: page `page` (from 1) of a PDF, or an SVG.
///
/// # Errors
/// [`PictureError`] for what cannot be read, is locked, or has too many nodes.
pub fn brought(bytes: &[u8], file: DrawingFile, page: usize) -> Result<Drawing, PictureError> {
    if bytes.len() > LARGEST {
        return Err(PictureError::LargeDrawing(bytes.len()));
    }
    let read = || match file {
        DrawingFile::Svg => plain(text_of(bytes)?),
        DrawingFile::Pdf => plain(&page_of(bytes, page)?.0),
    };
    let unreadable = || PictureError::Damaged("it cannot be followed".to_owned());
    let drawing = std::thread::scope(|scope| {
        let reader = std::thread::Builder::new().stack_size(STACK).spawn_scoped(scope, read);
        reader.map_err(|_| unreadable())?.join().map_err(|_| unreadable())?
    })?;
    if drawing.svg.len() > LARGEST_KEPT {
        return Err(PictureError::LargeDrawing(drawing.svg.len()));
    }
    Ok(drawing)
}

/// The text of an SVG.
pub(crate) fn text_of(bytes: &[u8]) -> Result<&str, PictureError> {
    std::str::from_utf8(bytes).map_err(|error| {
        PictureError::Damaged(format!("byte {} is not UTF-8", error.valid_up_to() + 1))
    })
}

/// A kept drawing, read again.
///
/// # Errors
/// [`PictureError::Damaged`].
pub fn tree(svg: &str) -> Result<Tree, PictureError> {
    tree_with(svg, Options::default())
}

/// The same, read with some options.
pub(crate) fn tree_with(svg: &str, own: Options<'_>) -> Result<Tree, PictureError> {
    if depth(svg) > DEEPEST {
        return Err(PictureError::TooDeep);
    }
    let options = roxmltree::ParsingOptions { allow_dtd: true, nodes_limit: MOST_NODES };
    let document = roxmltree::Document::parse_with_options(svg, options).map_err(|error| {
        if matches!(error, roxmltree::Error::NodesLimitReached) {
            return PictureError::TooManyNodes;
        }
        PictureError::Damaged(error.to_string())
    })?;
    let mut reader =
        Options { font_family: "sans-serif".to_owned(), fontdb: Arc::clone(&FONTS), ..own };
    // Nothing outside the file is ever looked for.
    reader.image_href_resolver.resolve_string = Box::new(|_, _| None);
    Tree::from_xmltree(&document, &reader).map_err(|error| match error {
        // What is used again and again counts each time.
        usvg::Error::ElementsLimitReached
        | usvg::Error::ParsingFailed(roxmltree::Error::NodesLimitReached) => {
            PictureError::TooManyNodes
        }
        other => PictureError::Damaged(other.to_string()),
    })
}

/// What a kept drawing consists of; filters have primitives of their own.
const PLAIN: [&str; 15] = [
    "svg",
    "defs",
    "g",
    "path",
    "image",
    "use",
    "linearGradient",
    "radialGradient",
    "stop",
    "clipPath",
    "mask",
    "pattern",
    "filter",
    "title",
    "desc",
];

/// Looks whether a drawing, such as one out of an archive, has nothing in it but what is drawn.
///
/// # Errors
/// [`PictureError::Other`] where something in it could move, run or fetch; as [`tree`].
pub fn look_at_plain(svg: &str) -> Result<(), PictureError> {
    tree(svg)?;
    let document = roxmltree::Document::parse(svg).map_err(|_| PictureError::Other)?;
    let is_plain = |node: roxmltree::Node<'_, '_>| {
        let name = node.tag_name().name();
        let is_known = PLAIN.contains(&name) || name.starts_with("fe") && name != "feImage";
        is_known
            && node.attributes().all(|own| match own.name() {
                "href" => own.value().starts_with('#') || own.value().starts_with("data:image/"),
                name => !name.starts_with("on"),
            })
    };
    let mut elements = document.descendants().filter(roxmltree::Node::is_element);
    if elements.all(is_plain) { Ok(()) } else { Err(PictureError::Other) }
}

/// The sides of a kept drawing, by its head.
#[must_use]
pub fn sides(svg: &str) -> Option<[u32; 2]> {
    let end = svg.find('>')?;
    let head = format!("{}/>", svg[..end].trim_end_matches('/'));
    let document = roxmltree::Document::parse(&head).ok()?;
    let side = |name: &str| document.root_element().attribute(name)?.parse::<f64>().ok();
    ratio(side("width")?, side("height")?)
}

fn ratio(width: f64, height: f64) -> Option<[u32; 2]> {
    let scale = FINENESS / width.max(height);
    let side = |length: f64| (length * scale).round().max(1.0);
    let is_sound = width > 0.0 && height > 0.0 && scale.is_finite();
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "1 to 60,000")]
    is_sound.then(|| [side(width) as u32, side(height) as u32])
}

/// An SVG with words turned to outlines, references followed, and nothing left that could move, run or fetch.
fn plain(svg: &str) -> Result<Drawing, PictureError> {
    let tree = tree(svg)?;
    if tree.root().children().is_empty() {
        return Err(PictureError::Damaged("nothing is drawn in it".to_owned()));
    }
    let svg =
        tree.to_string(&WriteOptions { indent: usvg::Indent::None, ..WriteOptions::default() });
    if depth(&svg) > DEEPEST {
        return Err(PictureError::TooDeep);
    }
    let size = tree.size();
    let sides = ratio(f64::from(size.width()), f64::from(size.height()));
    let sides = sides.ok_or_else(|| PictureError::Damaged("it has no size".to_owned()))?;
    Ok(Drawing { svg, sides })
}

/// A page of a PDF, turned into an SVG, and how many points its unit is (`UserUnit`, ISO 32000-1, 7.7.3.3).
pub(crate) fn page_of(bytes: &[u8], page: usize) -> Result<(String, f64), PictureError> {
    let pdf = Pdf::new(bytes.to_vec()).map_err(|error| match error {
        LoadPdfError::Decryption(_) => PictureError::Locked,
        LoadPdfError::Invalid => PictureError::Damaged("no PDF that can be read".to_owned()),
    })?;
    let pages = pdf.pages();
    let found = page.checked_sub(1).and_then(|at| pages.get(at));
    let found = found.ok_or_else(|| PictureError::NoPage(page, pages.len()))?;
    let (width, height) = found.render_dimensions();
    if !(width > 0.0 && height > 0.0) {
        return Err(PictureError::Damaged(format!("page {page} has no size")));
    }
    let cache = RenderCache::new();
    let (reading, drawing) = (InterpreterSettings::default(), SvgRenderSettings::default());
    let unit = found.raw().get::<f32>(b"UserUnit").map_or(1.0, f64::from);
    let unit = if (1e-3..=1e4).contains(&unit) { unit } else { 1.0 };
    Ok((hayro_svg::convert(found, &cache, &reading, &drawing), unit))
}

/// How many elements lie within each other at most, counted before anything calls itself for each.
fn depth(xml: &str) -> usize {
    let bytes = xml.as_bytes();
    let (mut at, mut now, mut most) = (0, 0usize, 0);
    while let Some(open) = bytes[at..].iter().position(|byte| *byte == b'<').map(|step| at + step) {
        let rest = &bytes[open..];
        let end = |mark: &[u8]| {
            rest.windows(mark.len())
                .position(|own| own == mark)
                .map(|step| open + step + mark.len())
        };
        let next = match rest.get(1) {
            _ if rest.starts_with(b"<!--") => end(b"-->"),
            _ if rest.starts_with(b"<![CDATA[") => end(b"]]>"),
            Some(b'!' | b'?') => Some(open + 2),
            Some(b'/') => {
                now = now.saturating_sub(1);
                end(b">")
            }
            _ => {
                // A tag ends at the first “>” outside of quotes.
                let mut quote = None;
                let close = rest.iter().position(|byte| match (quote, byte) {
                    (None, b'>') => true,
                    (None, b'"' | b'\'') => {
                        quote = Some(*byte);
                        false
                    }
                    (Some(own), byte) if own == *byte => {
                        quote = None;
                        false
                    }
                    _ => false,
                });
                if close.is_some_and(|close| rest[close - 1] != b'/') {
                    now += 1;
                    most = most.max(now);
                }
                close.map(|close| open + close + 1)
            }
        };
        let Some(next) = next else { break };
        at = next;
    }
    most
}

/// The shelf's typefaces, for words in drawings that are no outlines.
static FONTS: LazyLock<Arc<fontdb::Database>> = LazyLock::new(|| {
    let mut fonts = fontdb::Database::new();
    let mut family_of = |id: &str| -> Option<String> {
        let typeface = SHELF.iter().find(|typeface| typeface.id == id)?;
        let before = fonts.len();
        fonts.load_font_data(typeface.bytes().to_vec());
        Some(fonts.faces().nth(before)?.families.first()?.0.clone())
    };
    let kinds = ["plain", "bookish", "typed", "script", "poster"].map(&mut family_of);
    let [plain, bookish, typed, script, poster] = kinds.map(Option::unwrap_or_default);
    for typeface in SHELF {
        if !["plain", "bookish", "typed", "script", "poster"].contains(&typeface.id) {
            fonts.load_font_data(typeface.bytes().to_vec());
        }
    }
    fonts.set_sans_serif_family(plain);
    fonts.set_serif_family(bookish);
    fonts.set_monospace_family(typed);
    fonts.set_cursive_family(script);
    fonts.set_fantasy_family(poster);
    Arc::new(fonts)
});

#[cfg(test)]
mod tests {
    use super::*;

    fn refused(svg: &str) -> String {
        brought(svg.as_bytes(), DrawingFile::Svg, 1).unwrap_err().to_string()
    }

    #[test]
    fn what_is_kept_holds_nothing_but_what_is_drawn() {
        let svg = r##"<?xml version="1.0"?><!DOCTYPE svg [<!ENTITY blue "#123456">]>
            <svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" viewBox="0 0 30 20">
            <script>alert(1)</script><style>rect { fill: &blue; }</style>
            <image xlink:href="file:///etc/passwd" width="3" height="3"/>
            <image href="http://example.org/a.png" width="3" height="3"/>
            <a href="javascript:alert(1)"><rect width="9" height="9" onclick="alert(1)"/></a>
            <text x="2" y="15" font-family="Nowhere">Fennel</text>
            <foreignObject><b>no</b></foreignObject></svg>"##;
        let drawing = brought(svg.as_bytes(), DrawingFile::Svg, 1).unwrap();
        assert_eq!(drawing.sides, [60_000, 40_000]);
        assert_eq!(sides(&drawing.svg), Some(drawing.sides));
        for word in ["script", "alert", "http://example", "file:", "href", "<text", "<b", "DOCTYPE"]
        {
            assert!(!drawing.svg.contains(word), "{word} in {}", drawing.svg);
        }
        assert!(drawing.svg.contains("#123456"), "{}", drawing.svg);
        assert!(drawing.svg.matches("<path").count() >= 2, "the words are outlines");
        // Kept, it is what it was.
        look_at_plain(&drawing.svg).unwrap();
        assert_eq!(look_at_plain(svg), Err(PictureError::Other));
        // Written again it may differ in words, such as −0 for 0, and be taken all the same.
        let mask = r##"<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><mask id="m"><rect width="9"
            height="9" fill="white" opacity=".5"/></mask><g mask="url(#m)"><circle cx="20" cy="20" r="20"/></g>
            <image width="9" height="9" href="data:image/png;base64,iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=="/></svg>"##;
        let kept = brought(mask.as_bytes(), DrawingFile::Svg, 1).unwrap().svg;
        look_at_plain(&kept).unwrap();
        assert!(kept.contains("<image"));
    }

    #[test]
    fn what_is_no_drawing_is_refused_with_its_reason() {
        let svg =
            |inside: &str| format!(r#"<svg xmlns="http://www.w3.org/2000/svg">{inside}</svg>"#);
        assert!(refused(&svg(&"<g/>".repeat(100_001))).contains("100000 nodes"));
        assert!(refused(&svg("")).contains("nothing is drawn"));
        assert!(
            refused(&svg(&format!("{}<rect/>{}", "<g>".repeat(20_000), "</g>".repeat(20_000))))
                .contains("more than 300 deep")
        );
        assert_eq!(depth("<a b='>' c=\"/>\"><!-- <a><a> --><b/><c><d></d></c></a>"), 3);
        assert!(refused("<svg><rect").contains("damaged"));
        assert!(refused("<svg/>").contains("damaged"));
        // Each level uses the one below ten times: ten million rectangles.
        let levels: String = (1..8)
            .map(|k| {
                format!("<g id='a{k}'>{}</g>", format!("<use href='#a{}'/>", k - 1).repeat(10))
            })
            .collect();
        let bomb =
            format!("<defs><rect id='a0' width='1' height='1'/>{levels}</defs><use href='#a7'/>");
        assert!(refused(&svg(&bomb)).contains("100000 nodes"));
        let laugh = r#"<!DOCTYPE svg [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;&a;&a;&a;&a;&a;&a;">
            <!ENTITY c "&b;&b;&b;&b;&b;&b;&b;&b;&b;&b;"><!ENTITY d "&c;&c;&c;&c;&c;&c;&c;&c;&c;&c;">]>
            <svg xmlns="http://www.w3.org/2000/svg"><title>&d;&d;&d;&d;&d;&d;&d;&d;</title></svg>"#;
        assert!(brought(laugh.as_bytes(), DrawingFile::Svg, 1).is_err());
        let pdf = |bytes: &[u8]| brought(bytes, DrawingFile::Pdf, 1).unwrap_err().to_string();
        assert!(
            pdf(b"%PDF-1.7\nnothing").contains("damaged")
                || pdf(b"%PDF-1.7\nnothing").contains("page")
        );
    }
}
