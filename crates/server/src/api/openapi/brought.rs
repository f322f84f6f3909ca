//! The routes of what is brought in and made of it: pictures, outlines, drawings, cards, typefaces, lists.

use aptum_core::Job;
use aptum_core::error::Change;
use aptum_core::job::JobPiece;
use aptum_core::lines::LineKey;

use crate::api::blobs::BlobView;
use crate::api::drawings::{BroughtDrawing, KeptKey, KeyAsk};
use crate::api::fonts::FontView;
use crate::api::gathered::CloseAsk;
use crate::api::layers::LineUpAsk;
use crate::api::lengths::{LengthEntry, ReadLength};
use crate::api::lines::{FreeAsk, FreedView, PickAsk, PickedView};
use crate::api::lists::{ListView, RowAsk};
use crate::api::preview::FaceView;
use crate::api::rework::{DrawingParts, ReworkAsk};
use crate::api::traces::{ApartAsk, PictureStart, TraceAsk, TraceLook};

use super::routes::{Body, Route, json, route};

/// Those of what is brought in.
pub(super) const OF_WHAT_IS_BROUGHT: &[Route] = &[
    route(
        ("post", "/api/blobs"),
        "Keeps a picture, up to 64 MiB: PNG and JPEG as they come, WebP, TIFF, GIF and BMP as PNG, SVG and a `page` of a PDF as plain SVG",
        Body::Bytes("application/octet-stream"),
        json::<BlobView>(),
    ),
    route(
        ("get", "/api/blobs/{id}"),
        "The bytes of a picture",
        Body::Nothing,
        Body::OneOf(&["image/png", "image/jpeg", "image/svg+xml", "font/sfnt"]),
    ),
    route(
        ("get", "/api/blobs/{id}/parts"),
        "The parts of a drawing that is kept",
        Body::Nothing,
        json::<DrawingParts>(),
    ),
    route(
        ("post", "/api/pictures"),
        "Makes a picture from one that is kept: its background dropped, specks erased, cropped; parts of a drawing changed",
        json::<ReworkAsk>(),
        json::<BlobView>(),
    ),
    route(
        ("post", "/api/traces"),
        "Traces a picture roughly, while a threshold is moved: what counts as inside, and what is found",
        json::<TraceAsk>(),
        json::<TraceLook>(),
    ),
    route(
        ("post", "/api/traces/start"),
        "The job that a picture starts: its outline with a border, and the picture in it",
        json::<PictureStart>(),
        json::<Job>(),
    ),
    route(
        ("post", "/api/traces/apart"),
        "The pieces of a job with one for each motif of a traced picture",
        json::<ApartAsk>(),
        json::<Vec<JobPiece>>(),
    ),
    route(
        ("post", "/api/drawings"),
        "Reads the lines of a drawing, up to 32 MiB: SVG, DXF, FOLD, or a `page` of a PDF; `name` is the file’s",
        Body::Bytes("application/octet-stream"),
        json::<BroughtDrawing>(),
    ),
    route(
        ("get", "/api/keys"),
        "The line keys of all jobs with drawings",
        Body::Nothing,
        json::<Vec<KeptKey>>(),
    ),
    route(
        ("post", "/api/lines/pick"),
        "A line of a drawing, with its nodes: by its number, or the nearest to a place",
        json::<PickAsk>(),
        json::<Option<PickedView>>(),
    ),
    route(
        ("post", "/api/drawings/free"),
        "Makes a drawing of a structure's lines, which folds as that did",
        json::<FreeAsk>(),
        json::<FreedView>(),
    ),
    route(
        ("post", "/api/keys"),
        "What a line key says of another drawing’s lines: by their layers, or by colours that differ by up to ΔE 6",
        json::<KeyAsk>(),
        json::<LineKey>(),
    ),
    route(
        ("post", "/api/cards/close"),
        "Places of what a card holds, close together: events found, then done",
        json::<CloseAsk>(),
        Body::Bytes("text/event-stream"),
    ),
    route(
        ("post", "/api/fonts"),
        "Keeps a typeface of one’s own, up to 16 MiB: TTF and OTF as they come, WOFF2 unpacked",
        Body::Bytes("application/octet-stream"),
        json::<FontView>(),
    ),
    route(
        ("post", "/api/lists"),
        "Reads a list (CSV), up to 8 MiB; `name`, `coding`, `separator` and `head` say how, or it is found",
        Body::Bytes("text/csv"),
        json::<ListView>(),
    ),
    route(
        ("post", "/api/layers/line-up"),
        "The changes that line several layers up, space them or make them as large as the first",
        json::<LineUpAsk>(),
        json::<Vec<Change>>(),
    ),
    route(
        ("post", "/api/row"),
        "What the copy of a row of a piece’s list wears",
        json::<RowAsk>(),
        json::<FaceView>(),
    ),
    route(
        ("post", "/api/lengths"),
        "Reads a length as people type it",
        json::<LengthEntry>(),
        json::<ReadLength>(),
    ),
];
