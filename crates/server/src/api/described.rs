//! What every route has in common, put into the OpenAPI document once: its tag, the problems any request may meet, and the
//! calculators with their fields.

use std::collections::BTreeMap;

use serde_json::{Map, Value, json};
use tolva_calculators::{CalculatorOffer, offered};

/// What each part of the API is about, by the first part of its paths.
const TAGS: [(&str, &[&str]); 11] = [
    ("jobs", &["jobs", "next-job", "upgrade", "edit-job"]),
    ("frames", &["frames", "watched", "stand-in", "beliefs"]),
    ("drills", &["drills"]),
    ("kit", &["kit"]),
    ("backups", &["backups"]),
    (
        "plan",
        &[
            "solve",
            "dials",
            "alternatives",
            "conventions",
            "colour",
            "look",
            "day",
            "day-plan",
            "pack",
            "run",
            "shots",
            "falling",
            "proof",
        ],
    ),
    ("place and hour", &["places", "moment", "forecast"]),
    ("devices", &["meter", "trigger"]),
    ("phones", &["phones", "me"]),
    ("calculators", &["calculators"]),
    ("app", &["start", "preferences", "read", "say", "openapi.json"]),
];

/// What a request carries or does, and with it the problems it may meet.
#[derive(Clone, Copy, PartialEq, Eq)]
enum Has {
    Body,
    Query,
    Path,
    Effect,
}

/// The problems any request may meet that has something of this; all of them where nothing is named.
const PROBLEMS: [(&str, &[Has], &str); 10] = [
    ("400", &[Has::Body, Has::Query, Has::Path], "The request cannot be understood"),
    ("403", &[], "Not from here, or the data file was opened for reading only"),
    ("404", &[Has::Path], "There is no such thing"),
    ("408", &[Has::Body], "The body was not sent in time"),
    ("413", &[Has::Body], "The body is too large"),
    ("415", &[Has::Body], "The body is of another kind"),
    ("422", &[Has::Body, Has::Query, Has::Path], "A field is wrong: says which, and what is allowed"),
    ("500", &[], "A fault of Tolva’s own, or of the data file"),
    ("503", &[], "Too much at once, or the data file is locked: try again in a moment"),
    ("507", &[Has::Effect], "The disk is full: nothing was saved"),
];

/// The document with all that.
pub fn whole(mut document: Value) -> Value {
    typed_calculators(&mut document);
    let paths = document.get_mut("paths").and_then(Value::as_object_mut);
    for (path, operations) in paths.into_iter().flatten() {
        for (method, operation) in operations.as_object_mut().into_iter().flatten() {
            let Some(operation) = operation.as_object_mut() else { continue };
            describe(path, method, operation);
        }
    }
    document
}

fn describe(path: &str, method: &str, operation: &mut Map<String, Value>) {
    let part = path.trim_start_matches("/api/v1/").split('/').next().unwrap_or_default();
    let tag = TAGS.iter().find(|(_, parts)| parts.contains(&part)).map_or("app", |(tag, _)| tag);
    operation.insert("tags".to_owned(), json!([tag]));
    let parameters = operation.get("parameters").and_then(Value::as_array);
    let in_query = parameters.is_some_and(|all| all.iter().any(|one| one["in"] == "query"));
    let stored = ["jobs", "kit", "preferences", "backups", "frames", "watched", "phones", "drills"].contains(&part);
    let has = |what: &Has| match what {
        Has::Body => operation.contains_key("requestBody"),
        Has::Query => in_query,
        Has::Path => path.contains('{'),
        Has::Effect => stored && method != "get",
    };
    let meets = PROBLEMS.iter().filter(|(_, of, _)| of.is_empty() || of.iter().any(has));
    let meets: Vec<_> = meets.map(|(status, _, description)| (*status, problem(description))).collect();
    if let Some(responses) = operation.get_mut("responses").and_then(Value::as_object_mut) {
        for (status, problem) in meets {
            responses.entry(status).or_insert(problem);
        }
        // In order, whichever way they came in.
        let sorted: BTreeMap<String, Value> = std::mem::take(responses).into_iter().collect();
        responses.extend(sorted);
    }
}

fn problem(description: &str) -> Value {
    let schema = json!({ "$ref": "#/components/schemas/ProblemDocument" });
    json!({ "description": description, "content": { "application/problem+json": { "schema": schema } } })
}

/// Each calculator by its name, beside the path for any: what is asked and what is given.
fn typed_calculators(document: &mut Value) {
    let Some(paths) = document.get_mut("paths").and_then(Value::as_object_mut) else { return };
    for offer in offered() {
        let path = format!("/api/v1/calculators/{}", offer.name);
        if !paths.contains_key(&path) {
            paths.insert(path, json!({ "post": typed(&offer) }));
        }
    }
}

fn typed(offer: &CalculatorOffer) -> Value {
    let field = |name: &str, unit: &str| {
        let unit = if unit.is_empty() { String::new() } else { format!(", in {unit}") };
        format!("{name}{unit}.")
    };
    let asked = offer.asked.iter().map(|asked| {
        let mut schema = json!({ "description": field(&asked.name, &asked.unit), "examples": [asked.usual] });
        if asked.least.is_some() || asked.usual.is_number() {
            schema["type"] = json!("number");
            if let (Some(least), Some(most)) = (asked.least, asked.most) {
                (schema["minimum"], schema["maximum"]) = (json!(least), json!(most));
            }
        } else {
            schema["type"] = json!("string");
            if !asked.choices.is_empty() {
                schema["enum"] = json!(asked.choices);
            }
        }
        (asked.field.clone(), schema)
    });
    let needed: Vec<&str> =
        offer.asked.iter().filter(|asked| !asked.optional).map(|asked| asked.field.as_str()).collect();
    let given = offer
        .given
        .iter()
        .map(|given| (given.field.clone(), json!({ "description": field(&given.name, &given.unit) })));
    json!({
        "summary": offer.title,
        "description": offer.says,
        "x-rights": "look",
        "operationId": format!("sum_{}", offer.name.replace('-', "_")),
        "requestBody": { "required": true, "content": { "application/json": { "schema": {
            "type": "object", "properties": asked.collect::<Map<_, _>>(), "required": needed, "additionalProperties": false,
        } } } },
        "responses": { "200": { "description": "The sum, with its workings", "content": { "application/json": {
            "schema": { "type": "object", "properties": given.collect::<Map<_, _>>() },
        } } } },
    })
}
