//! Requests drawn from the OpenAPI document: some as they should be, some with a part of them turned into something else.

use rand::Rng as _;
use rand::seq::IndexedRandom as _;
use rand_chacha::ChaCha8Rng;
use serde_json::{Map, Value, json};

use super::client::demo_jobs;

/// A request.
#[derive(Clone, Debug)]
pub struct Drawn {
    /// Its method.
    pub method: String,
    /// The path in the document.
    pub route: String,
    /// The path and query that are asked.
    pub path: String,
    /// The kind of its body and its bytes.
    pub body: Option<(String, Vec<u8>)>,
}

/// What requests are drawn from.
pub struct Requests {
    document: Value,
    /// Methods and paths.
    routes: Vec<(String, String)>,
    jobs: Vec<Value>,
    /// Ids of jobs that are there.
    pub ids: Vec<String>,
}

/// What nobody should send.
const NONSENSE: [&str; 9] =
    ["none", "", "..%2F..%2Fetc", "%00", "%F0%9F%93%B7", "-1", "999999999999999999999", "%22%3E%3Cx", "a%20b"];

impl Requests {
    /// From a document.
    pub fn of(document: Value) -> Self {
        let mut routes = Vec::new();
        for (path, operations) in document["paths"].as_object().into_iter().flatten() {
            // A restore takes back what the others are told.
            let methods = operations.as_object().into_iter().flatten().filter(|_| !path.ends_with("{name}/restore"));
            routes.extend(methods.map(|(method, _)| (method.to_uppercase(), path.clone())));
        }
        Self { document, routes, jobs: demo_jobs(), ids: Vec::new() }
    }

    /// One of them.
    pub fn draw(&self, rng: &mut ChaCha8Rng) -> Drawn {
        let (method, route) = self.routes.choose(rng).expect("routes").clone();
        let operation = &self.document["paths"][&route][method.to_lowercase()];
        let mut path = route.clone();
        let mut query = Vec::new();
        for parameter in operation["parameters"].as_array().into_iter().flatten() {
            let name = parameter["name"].as_str().unwrap_or_default();
            let value = self.parameter(name, parameter, rng);
            match parameter["in"].as_str() {
                Some("path") => path = path.replace(&format!("{{{name}}}"), &value),
                _ if parameter["required"] == true || rng.random_bool(0.5) => query.push(format!("{name}={value}")),
                _ => {}
            }
        }
        if rng.random_bool(0.03) {
            query.push("unknown=1".to_owned());
        }
        if !query.is_empty() {
            path = format!("{path}?{}", query.join("&"));
        }
        let content = operation["requestBody"]["content"].as_object();
        let body = content.and_then(|content| content.iter().next()).map(|(kind, of)| {
            let bytes = if kind == "application/json" {
                let mut body = self.value(&of["schema"], rng, 0);
                if rng.random_bool(0.6) {
                    spoil(&mut body, rng);
                }
                body.to_string().into_bytes()
            } else {
                self.file(rng)
            };
            let kind = if rng.random_bool(0.02) { "text/plain".to_owned() } else { kind.clone() };
            (kind, bytes)
        });
        Drawn { method, route, path, body }
    }

    fn parameter(&self, name: &str, parameter: &Value, rng: &mut ChaCha8Rng) -> String {
        if rng.random_bool(0.25) {
            return (*NONSENSE.choose(rng).expect("some")).to_owned();
        }
        match name {
            "id" => self.ids.choose(rng).cloned().unwrap_or_else(|| "none".to_owned()),
            "setup" => "doorway".to_owned(),
            "based_on" | "number" => rng.random_range(1..6).to_string(),
            "text" => "Kotka".to_owned(),
            _ => match self.value(&parameter["schema"], rng, 0) {
                Value::String(text) => text,
                other => other.to_string(),
            },
        }
    }

    /// A value as a schema describes it; setups, kits and jobs are those of the demo data.
    fn value(&self, schema: &Value, rng: &mut ChaCha8Rng, depth: usize) -> Value {
        let job = self.jobs.choose(rng).expect("jobs");
        if let Some(name) = schema["$ref"].as_str().and_then(|to| to.rsplit('/').next()) {
            return match name {
                "Job" => job.clone(),
                "Kit" => job["kit"].clone(),
                "Setup" => job["setups"].as_array().and_then(|all| all.choose(rng)).cloned().unwrap_or_default(),
                "Camera" | "Lens" => job["kit"][if name == "Lens" { "lenses" } else { "cameras" }][0].clone(),
                _ => self.value(&self.document["components"]["schemas"][name], rng, depth + 1),
            };
        }
        for choices in ["oneOf", "anyOf", "allOf"] {
            if let Some(choice) = schema[choices].as_array().and_then(|all| all.choose(rng)) {
                return self.value(choice, rng, depth + 1);
            }
        }
        if let Some(one) = schema["enum"].as_array().and_then(|all| all.choose(rng)) {
            return one.clone();
        }
        let kinds: Vec<&str> = match &schema["type"] {
            Value::String(kind) => vec![kind],
            Value::Array(kinds) => kinds.iter().filter_map(Value::as_str).collect(),
            _ => vec!["null"],
        };
        match *kinds.choose(rng).unwrap_or(&"null") {
            "object" => {
                let required: Vec<&str> =
                    schema["required"].as_array().into_iter().flatten().filter_map(Value::as_str).collect();
                let properties = schema["properties"].as_object().into_iter().flatten();
                let mut object = Map::new();
                for (name, of) in properties {
                    if required.contains(&name.as_str()) || (depth < 6 && rng.random_bool(0.4)) {
                        object.insert(name.clone(), self.value(of, rng, depth + 1));
                    }
                }
                Value::Object(object)
            }
            "array" => (0..rng.random_range(0..3)).map(|_| self.value(&schema["items"], rng, depth + 1)).collect(),
            "integer" => json!(rng.random_range(1..6)),
            "number" => {
                let (least, most) = (schema["minimum"].as_f64(), schema["maximum"].as_f64());
                let (least, most) = (least.unwrap_or(0.0), most.unwrap_or(100.0));
                json!(if most > least { rng.random_range(least..most) } else { least })
            }
            "boolean" => json!(rng.random_bool(0.5)),
            "string" => schema["examples"][0].as_str().map_or_else(|| json!("2026-08-29"), |one| json!(one)),
            _ => Value::Null,
        }
    }

    fn file(&self, rng: &mut ChaCha8Rng) -> Vec<u8> {
        let kit = json!({ "format": "tolva-kit", "format_version": 4, "kit": self.jobs[0]["kit"] }).to_string();
        let whole = match rng.random_range(0..5) {
            0 => kit,
            1 => "kind,id,field,value\nstands,mine,name,Mine\nstands,mine,highest_m,2\n".to_owned(),
            2 => "<gpx><wpt lat=\"60\" lon=\"25\"/></gpx>".to_owned(),
            3 => "{\"type\":\"Point\",\"coordinates\":[25,60]}".to_owned(),
            _ => (0..200).map(|_| char::from(rng.random_range(0..128_u8))).collect(),
        };
        let mut bytes = whole.into_bytes();
        if rng.random_bool(0.5) {
            let at = rng.random_range(0..bytes.len());
            bytes[at] = rng.random();
            bytes.truncate(rng.random_range(1..=bytes.len()));
        }
        bytes
    }
}

/// The pointers to everything in a value.
fn places(of: &Value, at: &str, found: &mut Vec<String>) {
    found.push(at.to_owned());
    let escaped = |name: &str| name.replace('~', "~0").replace('/', "~1");
    match of {
        Value::Object(fields) => {
            fields.iter().for_each(|(name, part)| places(part, &format!("{at}/{}", escaped(name)), found));
        }
        Value::Array(parts) => parts.iter().enumerate().for_each(|(i, part)| places(part, &format!("{at}/{i}"), found)),
        _ => {}
    }
}

/// Turns a part of a value into something else.
fn spoil(value: &mut Value, rng: &mut ChaCha8Rng) {
    for _ in 0..rng.random_range(1..4) {
        let mut all = Vec::new();
        places(value, "", &mut all);
        let at = all.choose(rng).expect("a place").clone();
        let Some(part) = value.pointer_mut(&at) else { continue };
        match rng.random_range(0..9) {
            0 => *part = Value::Null,
            1 => *part = json!([[part.clone()]]),
            2 => *part = json!("\u{0}\u{202e}"),
            3 => *part = json!(rng.random_range(-1e4..1e4)),
            4 => *part = json!(1e300),
            5 => *part = json!("x".repeat(rng.random_range(1..5000))),
            6 => {
                if let Value::Array(items) = part
                    && let Some(first) = items.first().cloned()
                {
                    items.extend(vec![first; rng.random_range(1..300)]);
                }
            }
            7 => {
                if let Value::Object(fields) = part {
                    fields.insert("unknown".to_owned(), json!(1));
                }
            }
            _ => {
                if let Value::Object(fields) = part
                    && let Some(name) = fields.keys().next().cloned()
                {
                    fields.remove(&name);
                }
            }
        }
    }
}
