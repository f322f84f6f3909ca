//! The OpenAPI 3.1 document: the routes by hand, the schemas from the types.

mod brought;
mod machines;
mod routes;

use rocket::get;
use rocket::serde::json::Json;
use schemars::generate::{SchemaGenerator, SchemaSettings};
use serde_json::{Map, Value, json};

use self::brought::OF_WHAT_IS_BROUGHT;
use self::machines::OF_MACHINES;
use self::routes::{Body, OF_JOBS, Route};
use super::Problem;

/// The document, as it is served.
#[get("/openapi.json")]
pub fn served() -> Json<Value> {
    Json(document())
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
    let problem = schemas.subschema_for::<Problem>().to_value();
    let mut paths = Map::new();
    for route in OF_JOBS.iter().chain(OF_MACHINES).chain(OF_WHAT_IS_BROUGHT) {
        let entry = paths.entry(route.path).or_insert_with(|| json!({}));
        entry[route.method] = operation(route, schemas, &problem);
    }
    Value::Object(paths)
}

fn operation(route: &Route, schemas: &mut SchemaGenerator, problem: &Value) -> Value {
    let path = route.path;
    let mut parameters: Vec<Value> = path
        .split('/')
        .filter_map(|part| part.strip_prefix('{')?.strip_suffix('}'))
        .map(|name| {
            let named = name == "name" || path.starts_with("/api/workshop");
            let kind = if named { "string" } else { "integer" };
            json!({ "name": name, "in": "path", "required": true, "schema": { "type": kind } })
        })
        .collect();
    if path.ends_with("{number}") || path.ends_with("files.zip") {
        parameters
            .push(json!({ "name": "marks", "in": "query", "schema": { "enum": ["included"] } }));
    }
    if path.ends_with("{kind}/{id}") {
        parameters.push(json!({
            "name": "version", "in": "query", "required": true, "schema": { "type": "integer" }
        }));
    }
    let mut operation = json!({
        "summary": route.summary,
        "parameters": parameters,
        "responses": {
            "200": { "description": "Done" },
            "default": {
                "description": "What is wrong, with the number and the remedy",
                "content": { "application/problem+json": { "schema": problem } }
            }
        }
    });
    if let Some(content) = content(&route.gives, schemas) {
        operation["responses"]["200"]["content"] = content;
    }
    if let Some(content) = content(&route.takes, schemas) {
        operation["requestBody"] = json!({ "required": true, "content": content });
    }
    operation
}

fn bytes(kinds: &[&str]) -> Value {
    let mut content = json!({});
    for kind in kinds {
        content[*kind] = json!({ "schema": { "type": "string", "format": "binary" } });
    }
    content
}

fn content(body: &Body, schemas: &mut SchemaGenerator) -> Option<Value> {
    match body {
        Body::Nothing => None,
        Body::Json(schema) => {
            let schema = schema(schemas).to_value();
            Some(json!({ "application/json": { "schema": schema } }))
        }
        Body::Bytes(kind) => Some(bytes(&[*kind])),
        Body::OneOf(kinds) => Some(bytes(kinds)),
    }
}
