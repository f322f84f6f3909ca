//! The sheet in the printer and in the cutter, and the card in the cutter.

use kurbo::Rect;

use super::{Scene, outline};
use crate::check::{Check, Drawing, Sense, Stage, State};
use crate::error::{Change, Remedy, Setting};
use crate::job::JobPiece;
use crate::sheet::ways::{on_sheet, ways_round};
use crate::sheet::{Orientation, SheetSize};
use crate::workshop::{Cutter, Finds, PrintableSide, RecordId, Stock};

impl Scene<'_> {
    pub(super) fn machines(&self) -> Vec<Check> {
        let page = self.ground.windows.page;
        let mut checks = Vec::new();
        if let Some(printer) = self.records.printer {
            let (short, long) = (page.width().min(page.height()), page.width().max(page.height()));
            for (id, name, value, bound) in [
                ("printer-width", "Printer, across", short, printer.width),
                ("printer-length", "Printer, along", long, printer.length),
            ] {
                checks.push(
                    self.length(id, name, (value, Sense::AtMost, bound))
                        .at(Drawing::Sheet, outline(page))
                        .remedy(Remedy::advice(format!(
                            "Choose a sheet that is no wider than {} and no longer than {}, or another printer",
                            self.show(printer.width),
                            self.show(printer.length)
                        ))),
                );
            }
        }
        checks.extend(self.cards_of_no_such_size(page));
        checks.extend(self.stock_that_takes_no_print());
        checks.extend(self.stock_for_another_printer());
        checks.extend(self.backs_that_take_no_print());
        if let Some(cutter) = self.records.cutter {
            checks.extend(self.film_over_marks(cutter));
            checks.extend(self.cutter(cutter, page));
        }
        checks
    }

    fn cutter(&self, cutter: &Cutter, page: Rect) -> Vec<Check> {
        let turned = || {
            let flipped = match self.job.sheet.orientation {
                Orientation::Portrait => "landscape",
                Orientation::Landscape => "portrait",
            };
            (self.records.carrier.is_none()
                && page.height() <= cutter.width
                && page.width() <= cutter.length)
                .then(|| Remedy::set("Turn the sheet", "sheet.orientation", flipped))
                .into_iter()
                .chain([Remedy::advice("Choose a smaller sheet or a larger cutter")])
                .collect()
        };
        let cards = self.records.cards(self.job);
        let caliper = cards.iter().map(|(_, stock)| stock.thickness()).fold(0.0, f64::max);
        // Every card that is too thick is replaced at once.
        let instead = |id: &RecordId| -> Vec<Change> {
            let thick = cards.iter().filter(|(_, stock)| stock.thickness() > cutter.thickest);
            thick.map(|(field, _)| Change::new(field, id.0.as_str())).collect()
        };
        let thinner = || {
            self.workshop
                .stocks
                .iter()
                .filter(|(_, stock)| {
                    stock.thickness() <= cutter.thickest && stock.keeping.is_offered()
                })
                .max_by(|(_, a), (_, b)| a.thickness().total_cmp(&b.thickness()))
                .map(|(id, stock)| {
                    let text = format!("Use {}, {}", stock.name, self.show(stock.thickness()));
                    Remedy { text, changes: instead(id) }
                })
                .into_iter()
                .chain([Remedy::advice(format!(
                    "{} cuts up to {}",
                    cutter.name,
                    self.show(cutter.thickest)
                ))])
                .collect()
        };
        // On a carrier it is the carrier that goes through.
        let (across, along) = self
            .records
            .carrier
            .map_or((page.width(), page.height()), |carrier| (carrier.width, carrier.length));
        vec![
            self.length("cutter-width", "Cutter, across", (across, Sense::AtMost, cutter.width))
                .at(Drawing::Sheet, outline(page))
                .remedies(turned),
            self.length("cutter-length", "Cutter, along", (along, Sense::AtMost, cutter.length))
                .at(Drawing::Sheet, outline(page))
                .remedies(turned),
            self.length("caliper", "Card thickness", (caliper, Sense::AtMost, cutter.thickest))
                .remedies(thinner),
        ]
    }

    /// Card that takes another kind of printer: heat melts it, or toner does not hold.
    fn stock_for_another_printer(&self) -> Vec<Check> {
        let Some(printer) = self.records.printer else { return Vec::new() };
        let Some(process) = printer.process else { return Vec::new() };
        let cards = self.records.cards(self.job);
        let mut named: Vec<&str> = Vec::new();
        let mut checks = Vec::new();
        for (_, stock) in cards {
            let Some(takes) = stock.takes else { continue };
            if named.contains(&stock.name.as_str()) {
                continue;
            }
            named.push(&stock.name);
            let fits = takes == process;
            let state = if fits { State::Fits } else { State::Broken };
            let verdict = if fits {
                format!("{} is one", printer.name)
            } else {
                format!("{} is {}", printer.name, process.name())
            };
            let texts = [stock.name.clone(), format!("{} only", takes.name()), verdict];
            let check = Check::yes_or_no(
                "print-process",
                Stage::Sheet,
                "Printer for the card",
                state,
                texts,
            );
            let others = self
                .workshop
                .printers
                .iter()
                .filter(|(_, own)| own.process == Some(takes) && own.keeping.is_offered());
            checks.push(if fits {
                check
            } else {
                check.remedies(|| {
                    let other = others.map(|(id, own)| {
                        Remedy::set(
                            format!("Print on {}", own.name),
                            "sheet.printer",
                            id.0.as_str(),
                        )
                    });
                    other.chain([Remedy::advice("Choose a card that takes this printer")]).collect()
                })
            });
        }
        checks
    }

    /// Card that is not kept in sheets from which the page could be cut.
    fn cards_of_no_such_size(&self, page: Rect) -> Vec<Check> {
        let sides = |width: f64, height: f64| (width.min(height), width.max(height));
        let (short, long) = sides(page.width(), page.height());
        let mut named: Vec<&str> = Vec::new();
        let mut checks = Vec::new();
        for (_, stock) in self.records.cards(self.job) {
            let is_enough = |size: &SheetSize| {
                let (across, along) = sides(size.width, size.height);
                across >= short - 0.01 && along >= long - 0.01
            };
            let largest = stock
                .sheets
                .iter()
                .max_by(|a, b| (a.width * a.height).total_cmp(&(b.width * b.height)));
            let Some(largest) = largest else { continue };
            if stock.sheets.iter().any(is_enough) || named.contains(&stock.name.as_str()) {
                continue;
            }
            named.push(&stock.name);
            let name = &self.job.sheet.size.name;
            let check = Check::yes_or_no(
                &format!("card-size-{}", named.len()),
                Stage::Sheet,
                "Card in this size",
                State::Attention,
                [
                    largest.name.clone(),
                    "at most".to_owned(),
                    format!("{} is not kept as large as {name}", stock.name),
                ],
            );
            checks.push(check.remedies(|| {
                ways_round(largest)
                    .map(|(orientation, id, words)| {
                        let (_, mut changes) = on_sheet(self.job, largest, orientation, id);
                        if self.job.sheet.kept.is_some() {
                            changes.push(Change::new("sheet.kept", Setting::Standard));
                        }
                        Remedy { text: format!("Use {}{words}", largest.name), changes }
                    })
                    .collect()
            }));
        }
        checks
    }

    /// Card that takes no print, under a piece that is printed.
    fn stock_that_takes_no_print(&self) -> Option<Check> {
        let pieces = self.job.pieces.iter().zip(&self.records.stocks);
        let bare: Vec<_> = pieces
            .filter(|(piece, _)| piece.face.is_some())
            .filter(|(_, stock)| stock.printable == PrintableSide::Neither)
            .map(|(piece, stock)| (format!("{}stock", piece.path()), stock))
            .collect();
        let (_, stock) = bare.first()?;
        let check = Check::yes_or_no(
            "stock-printable",
            Stage::Sheet,
            "Card takes print",
            State::Broken,
            [
                "neither side".to_owned(),
                "does".to_owned(),
                format!("{} cannot be printed", stock.name),
            ],
        );
        let others = self.workshop.stocks.iter().filter(|(_, other)| {
            other.printable != PrintableSide::Neither && other.keeping.is_offered()
        });
        Some(check.remedies(|| {
            others
                .map(|(id, other)| Remedy {
                    text: format!("Use {}", other.name),
                    changes: bare
                        .iter()
                        .map(|(field, _)| Change::new(field, id.0.as_str()))
                        .collect(),
                })
                .collect()
        }))
    }

    /// Card of which only the face takes print, or that is transferred, under a piece that is printed on both sides.
    fn backs_that_take_no_print(&self) -> Option<Check> {
        let both = |piece: &JobPiece| piece.face.as_ref().is_some_and(|face| face.both_sides);
        let mut pieces = self.job.pieces.iter().zip(&self.records.stocks);
        let (piece, stock) = pieces.find(|(piece, stock)| {
            both(piece) && (stock.printable == PrintableSide::Face || stock.mirrored)
        })?;
        let texts = [
            "the face only".to_owned(),
            "takes print too".to_owned(),
            if stock.mirrored {
                format!("{} is transferred: its back is not seen, and not printed", stock.name)
            } else {
                format!("the back of {} cannot be printed", stock.name)
            },
        ];
        let check = Check::yes_or_no(
            "back-printable",
            Stage::Sheet,
            "Back of the card",
            State::Broken,
            texts,
        );
        let field = format!("{}face.both_sides", piece.path());
        Some(check.remedy(Remedy::set("Print the front alone", &field, false)))
    }

    /// A film that the cutter's eye does not read through.
    fn film_over_marks(&self, cutter: &Cutter) -> Option<Check> {
        let Finds::Eye(_) = cutter.finds else { return None };
        let films = |stock: &&&Stock| stock.laminate.is_some_and(|film| !film.clear_to_eye);
        let stock = self.records.stocks.iter().find(films)?;
        if !self.job.is_printed() {
            return None;
        }
        let check = Check::yes_or_no(
            "marks-under-film",
            Stage::Sheet,
            "Marks under the film",
            State::Attention,
            [
                "covered".to_owned(),
                "are clear to the eye".to_owned(),
                format!("{} has a film that the eye may not read through", stock.name),
            ],
        );
        Some(
            check.remedy(Remedy::advice("Keep the film off the marks, or lay it on after cutting")),
        )
    }
}
