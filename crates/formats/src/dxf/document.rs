//! A DXF document of version R2000 (AC1015): every section, table and handle that the format asks for, and
//! nothing else.

use std::fmt::{Display, UpperHex, Write};

use aptum_core::geometry::Rect;

/// What a document has around its entities.
pub(super) struct Document<'a> {
    /// In millimetres.
    pub bounds: Rect,
    pub layers: &'a [Layer],
}

/// A layer with its colour index.
pub(super) struct Layer {
    pub name: String,
    pub colour: u8,
}

/// Handles given to what every document has; entities count on from [`FIRST_ENTITY`].
mod handle {
    pub const TABLES: [(&str, u32); 9] = [
        ("VPORT", 0x8),
        ("LTYPE", 0x5),
        ("LAYER", 0x2),
        ("STYLE", 0x3),
        ("VIEW", 0x6),
        ("UCS", 0x7),
        ("APPID", 0x9),
        ("DIMSTYLE", 0xA),
        ("BLOCK_RECORD", 0x1),
    ];
    pub const ROOT: u32 = 0xC;
    pub const GROUPS: u32 = 0xD;
    pub const LAYOUTS: u32 = 0x1A;
    pub const LINE_TYPES: [(&str, u32); 3] =
        [("ByBlock", 0x14), ("ByLayer", 0x15), ("Continuous", 0x16)];
    pub const VIEWPORT: u32 = 0x10;
    pub const STYLE: u32 = 0x11;
    pub const APPID: u32 = 0x12;
    pub const DIMENSION_STYLE: u32 = 0x27;
    /// A block's name, its record, its start, its end and its layout.
    pub const BLOCKS: [(&str, &str, [u32; 4]); 2] = [
        ("*Model_Space", "Model", [0x1F, 0x20, 0x21, 0x22]),
        ("*Paper_Space", "Layout1", [0x1B, 0x1C, 0x1D, 0x1E]),
    ];
    pub const LAYER_ZERO: u32 = 0x13;
    pub const FIRST_LAYER: u32 = 0x40;
    pub const FIRST_ENTITY: u32 = 0x100;
}

/// Text, pair by pair: a group code and its value.
#[derive(Default)]
pub(super) struct Pairs(String);

impl Pairs {
    /// One pair.
    pub fn put(&mut self, code: u16, value: impl Display) -> &mut Self {
        // Writing to a string cannot fail.
        let _ = write!(self.0, "{code:>3}\r\n{value}\r\n");
        self
    }

    /// A number to a millionth, without an exponent.
    pub fn number(&mut self, code: u16, value: f64) -> &mut Self {
        let text = format!("{value:.6}");
        let text = text.trim_end_matches('0');
        let text = if text.ends_with('.') { format!("{text}0") } else { text.to_owned() };
        self.put(code, if text == "-0.0" { "0.0" } else { &text })
    }

    /// Begins an entity on a layer, with its subclass; its own pairs follow.
    pub fn entity(&mut self, number: usize, kind: &str, layer: &str, subclass: &str) {
        self.put(0, kind).handle(5, handle::FIRST_ENTITY as usize + number);
        self.handle(330, handle::BLOCKS[0].2[0]).put(100, "AcDbEntity").put(8, layer);
        self.put(100, subclass);
    }

    pub fn as_bytes(&self) -> &[u8] {
        self.0.as_bytes()
    }

    fn handle(&mut self, code: u16, handle: impl UpperHex) -> &mut Self {
        self.put(code, format!("{handle:X}"))
    }

    fn numbers(&mut self, numbers: &[(u16, f64)]) -> &mut Self {
        for (code, value) in numbers {
            self.number(*code, *value);
        }
        self
    }
}

impl Document<'_> {
    /// What comes before the entities, of which there are `most` at most.
    pub fn before_entities(&self, most: usize) -> Vec<u8> {
        let mut out = Pairs::default();
        let Rect { x0, y0, x1, y1 } = self.bounds;
        section(&mut out, "HEADER", |out| {
            out.put(9, "$ACADVER").put(1, "AC1015");
            out.put(9, "$DWGCODEPAGE").put(3, "ANSI_1252");
            out.put(9, "$INSBASE").numbers(&[(10, 0.0), (20, 0.0), (30, 0.0)]);
            out.put(9, "$EXTMIN").numbers(&[(10, x0), (20, y0), (30, 0.0)]);
            out.put(9, "$EXTMAX").numbers(&[(10, x1), (20, y1), (30, 0.0)]);
            // Metric, millimetres.
            out.put(9, "$MEASUREMENT").put(70, 1);
            out.put(9, "$INSUNITS").put(70, 4);
            out.put(9, "$HANDSEED").handle(5, handle::FIRST_ENTITY as usize + most + 1);
        });
        section(&mut out, "CLASSES", |_| {});
        section(&mut out, "TABLES", |out| self.tables(out));
        section(&mut out, "BLOCKS", blocks);
        out.put(0, "SECTION").put(2, "ENTITIES");
        out.0.into_bytes()
    }

    /// What comes after them.
    pub fn after_entities(&self) -> Vec<u8> {
        let mut out = Pairs::default();
        out.put(0, "ENDSEC");
        let Rect { x0, y0, x1, y1 } = self.bounds;
        section(&mut out, "OBJECTS", |out| objects(out, [x0, y0, x1, y1]));
        out.put(0, "EOF");
        out.0.into_bytes()
    }

    fn tables(&self, out: &mut Pairs) {
        for (name, head) in handle::TABLES {
            let mut entries = Pairs::default();
            let mut count = 0;
            let mut entry = |own: u32, subclass: &str, fill: &dyn Fn(&mut Pairs)| {
                count += 1;
                // A dimension style's handle has a code of its own.
                let code = if name == "DIMSTYLE" { 105 } else { 5 };
                entries.put(0, name).handle(code, own).handle(330, head);
                entries.put(100, "AcDbSymbolTableRecord").put(100, subclass);
                fill(&mut entries);
            };
            match name {
                "VPORT" => entry(handle::VIEWPORT, "AcDbViewportTableRecord", &viewport),
                "LTYPE" => {
                    for (kind, own) in handle::LINE_TYPES {
                        entry(own, "AcDbLinetypeTableRecord", &|out| {
                            out.put(2, kind).put(70, 0).put(3, "").put(72, 65).put(73, 0);
                            out.number(40, 0.0);
                        });
                    }
                }
                "LAYER" => {
                    let zero = Layer { name: "0".to_owned(), colour: 7 };
                    let all = std::iter::once(&zero).chain(self.layers);
                    let handles = std::iter::once(handle::LAYER_ZERO).chain(handle::FIRST_LAYER..);
                    for (Layer { name, colour }, own) in all.zip(handles) {
                        entry(own, "AcDbLayerTableRecord", &|out| {
                            out.put(2, name).put(70, 0).put(62, colour).put(6, "Continuous");
                        });
                    }
                }
                "STYLE" => entry(handle::STYLE, "AcDbTextStyleTableRecord", &|out| {
                    out.put(2, "Standard").put(70, 0);
                    out.numbers(&[(40, 0.0), (41, 1.0), (50, 0.0)]).put(71, 0);
                    out.number(42, 2.5).put(3, "txt").put(4, "");
                }),
                "APPID" => entry(handle::APPID, "AcDbRegAppTableRecord", &|out| {
                    out.put(2, "ACAD").put(70, 0);
                }),
                "DIMSTYLE" => entry(handle::DIMENSION_STYLE, "AcDbDimStyleTableRecord", &|out| {
                    out.put(2, "Standard").put(70, 0);
                }),
                "BLOCK_RECORD" => {
                    for (block, _, [record, .., layout]) in handle::BLOCKS {
                        entry(record, "AcDbBlockTableRecord", &|out| {
                            out.put(2, block).handle(340, layout);
                        });
                    }
                }
                // No views and no coordinate systems of one's own.
                _ => {}
            }
            out.put(0, "TABLE").put(2, name).handle(5, head).put(330, 0);
            out.put(100, "AcDbSymbolTable").put(70, count);
            if name == "DIMSTYLE" {
                out.put(100, "AcDbDimStyleTable");
            }
            out.0.push_str(&entries.0);
            out.put(0, "ENDTAB");
        }
    }
}

fn section(out: &mut Pairs, name: &str, fill: impl FnOnce(&mut Pairs)) {
    out.put(0, "SECTION").put(2, name);
    fill(out);
    out.put(0, "ENDSEC");
}

/// Model and paper, without anything in them.
fn blocks(out: &mut Pairs) {
    for (name, _, [record, start, end, _]) in handle::BLOCKS {
        let paper = name == "*Paper_Space";
        for (kind, own, subclass) in
            [("BLOCK", start, "AcDbBlockBegin"), ("ENDBLK", end, "AcDbBlockEnd")]
        {
            out.put(0, kind).handle(5, own).handle(330, record).put(100, "AcDbEntity");
            if paper {
                out.put(67, 1);
            }
            out.put(8, "0").put(100, subclass);
            if kind == "BLOCK" {
                out.put(2, name).put(70, 0);
                out.numbers(&[(10, 0.0), (20, 0.0), (30, 0.0)]).put(3, name).put(1, "");
            }
        }
    }
}

/// The view a drawing opens with.
fn viewport(out: &mut Pairs) {
    out.put(2, "*Active").put(70, 0);
    out.numbers(&[(10, 0.0), (20, 0.0), (11, 1.0), (21, 1.0), (12, 150.0), (22, 100.0)]);
    out.numbers(&[(13, 0.0), (23, 0.0), (14, 10.0), (24, 10.0), (15, 10.0), (25, 10.0)]);
    out.numbers(&[(16, 0.0), (26, 0.0), (36, 1.0), (17, 0.0), (27, 0.0), (37, 0.0)]);
    out.numbers(&[(40, 300.0), (41, 1.5), (42, 50.0), (43, 0.0), (44, 0.0), (50, 0.0), (51, 0.0)]);
    out.put(71, 0).put(72, 100).put(73, 1).put(74, 3).put(75, 0).put(76, 0).put(77, 0).put(78, 0);
}

/// The dictionaries, and the layouts of model and paper.
fn objects(out: &mut Pairs, [left, bottom, right, top]: [f64; 4]) {
    let mut dictionary = |own: u32, owner: u32, entries: &[(&str, u32)]| {
        out.put(0, "DICTIONARY").handle(5, own).handle(330, owner);
        out.put(100, "AcDbDictionary").put(281, 1);
        for (name, entry) in entries {
            out.put(3, *name).handle(350, *entry);
        }
    };
    dictionary(
        handle::ROOT,
        0,
        &[("ACAD_GROUP", handle::GROUPS), ("ACAD_LAYOUT", handle::LAYOUTS)],
    );
    dictionary(handle::GROUPS, handle::ROOT, &[]);
    let layouts = handle::BLOCKS.map(|(_, layout, [.., own])| (layout, own));
    dictionary(handle::LAYOUTS, handle::ROOT, &layouts);
    for (order, (_, layout, [record, _, _, own])) in handle::BLOCKS.into_iter().enumerate() {
        out.put(0, "LAYOUT").handle(5, own).handle(330, handle::LAYOUTS);
        out.put(100, "AcDbPlotSettings").put(1, "").put(4, "A3").put(6, "");
        out.numbers(&[(40, 7.5), (41, 20.0), (42, 7.5), (43, 20.0), (44, 420.0), (45, 297.0)]);
        out.numbers(&[(46, 0.0), (47, 0.0), (48, 0.0), (49, 0.0), (140, 0.0), (141, 0.0)]);
        out.numbers(&[(142, 1.0), (143, 1.0)]);
        out.put(70, if order == 0 { 1024 } else { 0 }).put(72, 1).put(73, 0).put(74, 5);
        out.put(7, "").put(75, 16).number(147, 1.0).numbers(&[(148, 0.0), (149, 0.0)]);
        out.put(100, "AcDbLayout").put(1, layout).put(70, 1).put(71, order);
        out.numbers(&[(10, 0.0), (20, 0.0), (11, 420.0), (21, 297.0)]);
        out.numbers(&[(12, 0.0), (22, 0.0), (32, 0.0)]);
        out.numbers(&[(14, left), (24, bottom), (34, 0.0), (15, right), (25, top), (35, 0.0)]);
        out.numbers(&[(146, 0.0), (13, 0.0), (23, 0.0), (33, 0.0)]);
        out.numbers(&[(16, 1.0), (26, 0.0), (36, 0.0), (17, 0.0), (27, 1.0), (37, 0.0)]);
        out.put(76, 0).handle(330, record);
    }
}
