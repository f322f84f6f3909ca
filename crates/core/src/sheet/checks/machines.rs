//! The sheet in the printer and in the cutter, and the card in the cutter.

use kurbo::Rect;

use super::{Scene, outline};
use crate::check::{Check, Drawing, Sense};
use crate::error::Remedy;
use crate::sheet::Orientation;
use crate::workshop::Cutter;

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
        if let Some(cutter) = self.records.cutter {
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
            (page.height() <= cutter.width && page.width() <= cutter.length)
                .then(|| Remedy::set("Turn the sheet", "sheet.orientation", flipped))
                .into_iter()
                .chain([Remedy::advice("Choose a smaller sheet or a larger cutter")])
                .collect()
        };
        let caliper = self.records.stock.caliper;
        let thinner = || {
            self.workshop
                .stocks
                .iter()
                .filter(|(_, stock)| stock.caliper <= cutter.thickest)
                .max_by(|(_, a), (_, b)| a.caliper.total_cmp(&b.caliper))
                .map(|(id, stock)| {
                    let text = format!("Use {}, {}", stock.name, self.show(stock.caliper));
                    Remedy::set(text, "stock", id.0.as_str())
                })
                .into_iter()
                .chain([Remedy::advice(format!(
                    "{} cuts up to {}",
                    cutter.name,
                    self.show(cutter.thickest)
                ))])
                .collect()
        };
        vec![
            self.length(
                "cutter-width",
                "Cutter, across",
                (page.width(), Sense::AtMost, cutter.width),
            )
            .at(Drawing::Sheet, outline(page))
            .remedies(turned),
            self.length(
                "cutter-length",
                "Cutter, along",
                (page.height(), Sense::AtMost, cutter.length),
            )
            .at(Drawing::Sheet, outline(page))
            .remedies(turned),
            self.length("caliper", "Card thickness", (caliper, Sense::AtMost, cutter.thickest))
                .remedies(thinner),
        ]
    }
}
