//! The API's types in TypeScript, generated from the Rust ones.

use std::any::TypeId;
use std::collections::{BTreeMap, HashSet};

use aptum_core::arrange::Arranged;
use aptum_core::sheet::RecordDrawing;
use aptum_core::workshop::RecordKind;
use aptum_core::{Job, Workshop};
use ts_rs::{Config, TS, TypeVisitor};

use super::Problem;
use super::blobs::BlobView;
use super::catalogue::{AtHand, CatalogueEntry};
use super::corrections::{CorrectionAsk, CorrectionView};
use super::drawings::{BroughtDrawing, KeptKey, KeyAsk};
use super::files::FileInfo;
use super::fitting::{MarkChoiceView, MarksProgress, OrderChoice, WayView, WaysDone};
use super::fold::{FoldAsk, FoldMoment, FoldView};
use super::fonts::FontView;
use super::gathered::CloseAsk;
use super::jobs::{BinnedJob, JobChange, JobStep, OpenJob};
use super::layers::LineUpAsk;
use super::lengths::{LengthEntry, ReadLength};
use super::lines::{FreeAsk, FreedView, PickAsk, PickedView};
use super::lists::{ListView, RowAsk};
use super::logbook::{LogChange, LogbookView};
use super::meta::Meta;
use super::nesting::{ArrangeAsk, NestProgress, NestTrouble};
use super::odds::{OddsAsk, OddsProgress, OddsView};
use super::preview::{Draft, PlanAsk, PlannedLines, Preview};
use super::queue::{QueueAsk, QueueOrder, QueueView, RowsAsk};
use super::rehearsal::{RehearsalAsk, RehearsalView};
use super::returned::ReturnedView;
use super::rework::{DrawingParts, ReworkAsk};
use super::runs::{FreezeAsk, RunAsk, RunView};
use super::sending::{SendAsk, SendEnd, SendProgress, WishAsk};
use super::summaries::JobSummary;
use super::tooling::{ToolingAsk, ToolingView};
use super::traces::{ApartAsk, PictureStart, TraceAsk, TraceLook};
use super::trial::{TrialAsk, TrialView};
use super::workshop::{RecordEntry, RecordSketch, WorkshopState, WorkshopStep};
use crate::gate::guard::PassphraseEntry;

/// Declarations of every type that the API takes or gives, in alphabetical order.
#[must_use]
pub fn typescript() -> String {
    let mut types = Declarations::default();
    types.visit::<Job>();
    types.visit::<Workshop>();
    types.visit::<Meta>();
    types.visit::<JobSummary>();
    types.visit::<OpenJob>();
    types.visit::<BinnedJob>();
    types.visit::<PassphraseEntry>();
    types.visit::<JobChange>();
    types.visit::<JobStep>();
    types.visit::<Preview>();
    types.visit::<Draft>();
    types.visit::<PlanAsk>();
    types.visit::<PlannedLines>();
    types.visit::<AtHand>();
    types.visit::<CatalogueEntry>();
    types.visit::<FoldAsk>();
    types.visit::<FoldMoment>();
    types.visit::<FoldView>();
    types.visit::<LengthEntry>();
    types.visit::<ReadLength>();
    types.visit::<FileInfo>();
    types.visit::<WorkshopState>();
    types.visit::<RecordEntry>();
    types.visit::<RecordSketch>();
    types.visit::<WorkshopStep>();
    types.visit::<RecordKind>();
    types.visit::<RecordDrawing>();
    types.visit::<NestProgress>();
    types.visit::<NestTrouble>();
    types.visit::<ArrangeAsk>();
    types.visit::<Arranged>();
    types.visit::<MarkChoiceView>();
    types.visit::<MarksProgress>();
    types.visit::<WayView>();
    types.visit::<WaysDone>();
    types.visit::<OrderChoice>();
    types.visit::<BlobView>();
    types.visit::<FontView>();
    types.visit::<ReworkAsk>();
    types.visit::<DrawingParts>();
    types.visit::<TraceAsk>();
    types.visit::<TraceLook>();
    types.visit::<PictureStart>();
    types.visit::<ApartAsk>();
    types.visit::<CloseAsk>();
    types.visit::<BroughtDrawing>();
    types.visit::<ReturnedView>();
    types.visit::<FreeAsk>();
    types.visit::<FreedView>();
    types.visit::<ToolingAsk>();
    types.visit::<ToolingView>();
    types.visit::<RehearsalAsk>();
    types.visit::<RehearsalView>();
    types.visit::<OddsAsk>();
    types.visit::<OddsProgress>();
    types.visit::<OddsView>();
    types.visit::<QueueView>();
    types.visit::<QueueOrder>();
    types.visit::<QueueAsk>();
    types.visit::<RowsAsk>();
    types.visit::<RunView>();
    types.visit::<RunAsk>();
    types.visit::<CorrectionAsk>();
    types.visit::<CorrectionView>();
    types.visit::<FreezeAsk>();
    types.visit::<SendAsk>();
    types.visit::<SendProgress>();
    types.visit::<SendEnd>();
    types.visit::<WishAsk>();
    types.visit::<TrialAsk>();
    types.visit::<TrialView>();
    types.visit::<LogbookView>();
    types.visit::<LogChange>();
    types.visit::<PickAsk>();
    types.visit::<PickedView>();
    types.visit::<KeptKey>();
    types.visit::<KeyAsk>();
    types.visit::<ListView>();
    types.visit::<RowAsk>();
    types.visit::<LineUpAsk>();
    types.visit::<Problem>();
    let mut text = "// Generated from the Rust types by `make types`. Do not edit.\n".to_owned();
    for declaration in types.found.values() {
        text.push_str("\nexport ");
        text.push_str(declaration);
        text.push('\n');
    }
    text
}

#[derive(Default)]
struct Declarations {
    seen: HashSet<TypeId>,
    found: BTreeMap<String, String>,
}

impl TypeVisitor for Declarations {
    fn visit<T: TS + 'static + ?Sized>(&mut self) {
        if !self.seen.insert(TypeId::of::<T>()) {
            return;
        }
        let config = Config::default();
        // Only types of our own have a file to go to.
        if T::output_path().is_some() {
            self.found.insert(T::ident(&config), T::decl(&config));
        }
        T::visit_dependencies(self);
        T::visit_generics(self);
    }
}
