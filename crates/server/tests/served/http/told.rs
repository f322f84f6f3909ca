//! What is asked and answered is what the OpenAPI document says: every test that asks over HTTP looks after it.

use std::collections::HashMap;
use std::sync::{Arc, LazyLock, Mutex};

use aptum::api::openapi::document;
use jsonschema::Validator;
use rocket::http::Method;
use serde_json::{Value, json};

static DOCUMENT: LazyLock<Value> = LazyLock::new(document);

/// What has been made of the document's schemas, by where they stand in it.
static KNOWN: LazyLock<Mutex<HashMap<String, Arc<Validator>>>> = LazyLock::new(Mutex::default);

/// Most bytes that are looked through: what is as long says the same thing many times.
const MOST: usize = 200_000;

/// Makes sure that what was asked with, and answered as JSON, is as described.
pub fn as_described(method: Method, path: &str, asked: &Value, status: u16, answer: &Value) {
    let path = path.split('?').next().unwrap_or(path);
    let Some(template) = template(path) else { return };
    let at = |inside: &str| {
        let (template, method) = (template.replace('/', "~1"), method.as_str().to_lowercase());
        format!("/paths/{template}/{method}/{inside}/content/application~1json/schema")
    };
    if status == 200 {
        look(&at("requestBody"), asked, path);
        look(&at("responses/200"), answer, path);
    } else if status >= 400 {
        let problem = at("responses/default").replace("~1json", "~1problem+json");
        look(&problem, answer, path);
    }
}

/// The path as it is written in the document, of several that match the one with the fewest names left open.
fn template(path: &str) -> Option<&'static str> {
    let parts: Vec<&str> = path.split('/').collect();
    let is_open = |part: &&str| part.starts_with('{');
    let fits = |template: &&str| {
        let own: Vec<&str> = template.split('/').collect();
        own.len() == parts.len()
            && own.iter().zip(&parts).all(|(own, part)| is_open(own) || own == part)
    };
    let all = DOCUMENT["paths"].as_object()?.keys().map(String::as_str);
    all.filter(fits).min_by_key(|template| template.split('/').filter(is_open).count())
}

fn look(place: &str, value: &Value, path: &str) {
    let Some(schema) = DOCUMENT.pointer(place) else { return };
    if value.is_null() || value.to_string().len() > MOST {
        return;
    }
    let validator = KNOWN.lock().unwrap().get(place).cloned();
    let validator = validator.unwrap_or_else(|| {
        let whole = json!({ "allOf": [schema], "components": DOCUMENT["components"] });
        let made = Arc::new(jsonschema::validator_for(&whole).unwrap());
        KNOWN.lock().unwrap().insert(place.to_owned(), made.clone());
        made
    });
    let faults: Vec<String> = validator
        .iter_errors(value)
        .take(3)
        .map(|error| {
            let told: String = error.to_string().chars().take(300).collect();
            format!("{}: {told}", error.instance_path())
        })
        .collect();
    assert!(faults.is_empty(), "{path} is not as {place} says: {faults:#?}");
}

#[test]
fn what_is_not_as_described_is_noticed() {
    let looked = |status: u16, answer: Value| {
        std::panic::catch_unwind(|| {
            as_described(Method::Get, "/api/jobs/3", &Value::Null, status, &answer);
        })
    };
    assert!(looked(200, json!({ "id": "three" })).is_err(), "an answer without a job");
    assert!(looked(404, json!({ "errors": 7 })).is_err(), "trouble without words");
    assert_eq!(template("/api/jobs/import"), Some("/api/jobs/import"));
    assert_eq!(template("/api/jobs/7"), Some("/api/jobs/{id}"));
    assert_eq!(template("/api/nothing/of/the/kind"), None);
}
