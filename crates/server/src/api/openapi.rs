//! The OpenAPI 3.1 document: the routes by hand, the schemas from the types.

use aptum_core::{Job, Workshop};
use schemars::generate::{SchemaGenerator, SchemaSettings};
use serde_json::{Map, Value, json};

use super::Problem;
use super::catalogue::{AtHand, CatalogueEntry};
use super::files::FileInfo;
use super::fold::{FoldAsk, FoldMoment, FoldView};
use super::jobs::{JobChange, JobStep, OpenJob};
use super::lengths::{LengthEntry, ReadLength};
use super::meta::Meta;
use super::preview::Preview;
use super::summaries::JobSummary;

/// What a request or an answer carries.
enum Body {
    Nothing,
    Json(Value),
    Bytes(&'static str),
}

/// The document.
#[must_use]
pub fn document() -> Value {
    let mut schemas = SchemaSettings::draft2020_12()
        .with(|settings| settings.definitions_path = "/components/schemas".into())
        .into_generator();
    let paths = paths(&mut schemas);
    let components: Map<String, Value> = schemas.take_definitions(true);
    json!({
        "openapi": "3.1.0",
        "info": {
            "title": "Aptum",
            "version": env!("CARGO_PKG_VERSION"),
            "description": "Dielines that fit, fold and cut true. Lengths are in mm, y points down. \
                            Errors are problem details (RFC 9457).",
            "license": { "name": "MIT OR Apache-2.0" }
        },
        "paths": paths,
        "components": { "schemas": components }
    })
}

fn paths(schemas: &mut SchemaGenerator) -> Value {
    let mut json = |schema: fn(&mut SchemaGenerator) -> schemars::Schema| {
        Body::Json(schema(schemas).to_value())
    };
    let job = json(SchemaGenerator::subschema_for::<Job>);
    let mut of = |name: &str| match name {
        "Workshop" => json(SchemaGenerator::subschema_for::<Workshop>),
        "Meta" => json(SchemaGenerator::subschema_for::<Meta>),
        "JobSummary" => json(SchemaGenerator::subschema_for::<Vec<JobSummary>>),
        "OpenJob" => json(SchemaGenerator::subschema_for::<OpenJob>),
        "JobChange" => json(SchemaGenerator::subschema_for::<JobChange>),
        "JobStep" => json(SchemaGenerator::subschema_for::<JobStep>),
        "Preview" => json(SchemaGenerator::subschema_for::<Preview>),
        "AtHand" => json(SchemaGenerator::subschema_for::<AtHand>),
        "Catalogue" => json(SchemaGenerator::subschema_for::<Vec<CatalogueEntry>>),
        "FoldAsk" => json(SchemaGenerator::subschema_for::<FoldAsk>),
        "FoldMoment" => json(SchemaGenerator::subschema_for::<FoldMoment>),
        "FoldView" => json(SchemaGenerator::subschema_for::<FoldView>),
        "FoldedDrawing" => json(SchemaGenerator::subschema_for::<aptum_core::fold::FoldedDrawing>),
        "LengthEntry" => json(SchemaGenerator::subschema_for::<LengthEntry>),
        "ReadLength" => json(SchemaGenerator::subschema_for::<ReadLength>),
        "FileInfo" => json(SchemaGenerator::subschema_for::<Vec<FileInfo>>),
        _ => json(SchemaGenerator::subschema_for::<Problem>),
    };
    let Body::Json(problem) = of("Problem") else { return Value::Null };
    let copy = |body: &Body| match body {
        Body::Json(schema) => Body::Json(schema.clone()),
        Body::Bytes(kind) => Body::Bytes(kind),
        Body::Nothing => Body::Nothing,
    };
    let (open, step) = (of("OpenJob"), of("JobStep"));
    let routes: Vec<(&str, &str, &str, Body, Body)> = vec![
        (
            "/api/meta",
            "get",
            "Units, sheet sizes and a job to start from",
            Body::Nothing,
            of("Meta"),
        ),
        ("/api/workshop", "get", "The workshop's records", Body::Nothing, of("Workshop")),
        (
            "/api/openapi.json",
            "get",
            "This document",
            Body::Nothing,
            Body::Json(json!({ "type": "object" })),
        ),
        (
            "/api/jobs",
            "get",
            "All jobs, the one changed last first",
            Body::Nothing,
            of("JobSummary"),
        ),
        ("/api/jobs", "post", "Adds a job", copy(&job), copy(&open)),
        (
            "/api/jobs/import",
            "post",
            "Adds a job from an archive or its JSON, 16 MiB at most",
            Body::Bytes("application/octet-stream"),
            copy(&open),
        ),
        ("/api/jobs/{id}", "get", "Opens a job", Body::Nothing, copy(&open)),
        (
            "/api/jobs/{id}",
            "put",
            "Saves a change; 409 when the job was changed elsewhere meanwhile",
            of("JobChange"),
            copy(&open),
        ),
        ("/api/jobs/{id}", "delete", "Puts a job into the bin", Body::Nothing, Body::Nothing),
        ("/api/jobs/{id}/undo", "post", "Goes back one change", copy(&step), copy(&open)),
        ("/api/jobs/{id}/redo", "post", "Goes forward one change", step, copy(&open)),
        ("/api/jobs/{id}/unbin", "post", "Takes a job out of the bin", Body::Nothing, open),
        (
            "/api/jobs/{id}/files",
            "get",
            "The job's files with their sizes",
            Body::Nothing,
            of("FileInfo"),
        ),
        (
            "/api/jobs/{id}/print.pdf",
            "get",
            "The print file, at 100 %",
            Body::Nothing,
            Body::Bytes("application/pdf"),
        ),
        (
            "/api/jobs/{id}/hand-cut.pdf",
            "get",
            "Lines by kind, for cutting by hand",
            Body::Nothing,
            Body::Bytes("application/pdf"),
        ),
        (
            "/api/jobs/{id}/cut/{number}",
            "get",
            "The cut file of a sheet; marks=included adds the marks",
            Body::Nothing,
            Body::Bytes("image/svg+xml"),
        ),
        (
            "/api/jobs/{id}/piece/{name}",
            "get",
            "The piece as flat.dxf, flat.fold, folded.gltf or folded.obj",
            Body::Nothing,
            Body::Bytes("application/octet-stream"),
        ),
        (
            "/api/jobs/{id}/job.aptum",
            "get",
            "The job as an archive",
            Body::Nothing,
            Body::Bytes("application/zip"),
        ),
        ("/api/preview", "post", "Prepares a job that need not be saved", job, of("Preview")),
        (
            "/api/catalogue",
            "post",
            "Every structure, drawn at the size at hand",
            of("AtHand"),
            of("Catalogue"),
        ),
        ("/api/fold", "post", "A form's plates and folding steps", of("FoldAsk"), of("FoldView")),
        (
            "/api/folded",
            "post",
            "A flat-shaded drawing of a form at a moment of its folding",
            of("FoldMoment"),
            of("FoldedDrawing"),
        ),
        (
            "/api/lengths",
            "post",
            "Reads a length as people type it",
            of("LengthEntry"),
            of("ReadLength"),
        ),
    ];
    let mut paths = Map::new();
    for (path, method, summary, takes, gives) in routes {
        let entry = paths.entry(path).or_insert_with(|| json!({}));
        entry[method] = operation(path, summary, &takes, &gives, &problem);
    }
    Value::Object(paths)
}

fn operation(path: &str, summary: &str, takes: &Body, gives: &Body, problem: &Value) -> Value {
    let mut parameters: Vec<Value> = path
        .split('/')
        .filter_map(|part| part.strip_prefix('{')?.strip_suffix('}'))
        .map(|name| {
            let kind = if name == "name" { "string" } else { "integer" };
            json!({ "name": name, "in": "path", "required": true, "schema": { "type": kind } })
        })
        .collect();
    if path.ends_with("{number}") {
        parameters
            .push(json!({ "name": "marks", "in": "query", "schema": { "enum": ["included"] } }));
    }
    let mut operation = json!({
        "summary": summary,
        "parameters": parameters,
        "responses": {
            "200": { "description": "Done" },
            "default": {
                "description": "What is wrong, with the number and the remedy",
                "content": { "application/problem+json": { "schema": problem } }
            }
        }
    });
    if let Some(content) = content(gives) {
        operation["responses"]["200"]["content"] = content;
    }
    if let Some(content) = content(takes) {
        operation["requestBody"] = json!({ "required": true, "content": content });
    }
    operation
}

fn content(body: &Body) -> Option<Value> {
    match body {
        Body::Nothing => None,
        Body::Json(schema) => Some(json!({ "application/json": { "schema": schema } })),
        Body::Bytes(kind) => {
            let mut content = json!({});
            content[*kind] = json!({ "schema": { "type": "string", "format": "binary" } });
            Some(content)
        }
    }
}
