//! Requests made up from the OpenAPI document: whatever is sent, the answer is one that is declared,
//! no fault of the program, and a problem says so by its type.

use super::Studio;
use axum::body::Body;
use axum::http::Method;
use rand::rngs::StdRng;
use rand::{Rng, SeedableRng};
use serde_json::{Map, Value, json};
use sqlx::MySqlPool;
use ulvek_store::MIGRATIONS;

/// Requests made of each operation; `ULVEK_FUZZ` says another number.
const EACH: usize = 24;

/// Values by the schemas of one document, most of them as they should be.
struct Maker<'a> {
    document: &'a Value,
    draw: StdRng,
    /// Names that mean something in the studio.
    names: Vec<String>,
}

impl Maker<'_> {
    fn chance(&mut self, of: f64) -> bool {
        self.draw.random_bool(of)
    }

    fn pick<'b, T>(&mut self, of: &'b [T]) -> &'b T {
        &of[self.draw.random_range(0..of.len())]
    }

    fn anything(&mut self) -> Value {
        let odd = [
            json!(null),
            json!(true),
            json!(-1),
            json!(1e300),
            json!(0.1),
            json!(""),
            json!([]),
            json!({}),
            json!("\u{0}"),
            json!("x".repeat(5000)),
            json!(["a"]),
            json!(i64::MIN),
        ];
        self.pick(&odd).clone()
    }

    fn make(&mut self, schema: &Value, depth: usize) -> Value {
        if self.chance(0.02) {
            return self.anything();
        }
        if let Some(name) = schema["$ref"].as_str() {
            let place = name.trim_start_matches('#');
            let found = self.document.pointer(place).cloned().unwrap_or_default();
            return self.make(&found, depth);
        }
        for any in ["oneOf", "anyOf", "allOf"] {
            if let Some(of) = schema[any].as_array() {
                let one = self.pick(of).clone();
                return self.make(&one, depth);
            }
        }
        if let Some(words) = schema["enum"].as_array() {
            return self.pick(words).clone();
        }
        let kind = match &schema["type"] {
            Value::String(kind) => kind.clone(),
            Value::Array(kinds) => self.pick(kinds).as_str().unwrap_or_default().to_owned(),
            _ => String::new(),
        };
        match kind.as_str() {
            "string" => json!(self.text(schema["format"].as_str().unwrap_or_default())),
            "integer" => {
                let some = [0_i64, 1, 1, 1, 2, 3, 7, -1, 255, 1_000_000, i64::MAX];
                json!(self.pick(&some))
            }
            "number" => {
                let some = [0.0, 1.0, 0.5, 0.05, 10.0, 21.0, 40.0, 90.0, -1.0, 1e9, 1e-9, f64::MAX];
                json!(self.pick(&some))
            }
            "boolean" => json!(self.chance(0.5)),
            "array" => {
                let count = if depth > 4 { 0 } else { self.draw.random_range(0..4) };
                (0..count).map(|_| self.make(&schema["items"], depth + 1)).collect()
            }
            "object" => self.object(schema, depth),
            "null" => Value::Null,
            _ => self.anything(),
        }
    }

    fn object(&mut self, schema: &Value, depth: usize) -> Value {
        let mut made = Map::new();
        let required = schema["required"].as_array().cloned().unwrap_or_default();
        let properties = schema["properties"].as_object().cloned().unwrap_or_default();
        for (name, of) in &properties {
            let needed = required.iter().any(|r| r == name);
            if self.chance(if needed { 0.99 } else { 0.4 }) {
                made.insert(name.clone(), self.make(of, depth + 1));
            }
        }
        if self.chance(0.02) {
            made.insert("surprise".into(), json!(1));
        }
        Value::Object(made)
    }

    fn text(&mut self, format: &str) -> String {
        let of = |list: &[&str]| list.iter().map(|s| (*s).to_owned()).collect::<Vec<_>>();
        let some = match format {
            "uuid" | "binary" => self.names.clone(),
            "date" => of(&["2027-01-20", "2027-02-30", "2100-01-01", "1999-12-31", "2099-12-31"]),
            "date-time" => of(&[
                "2027-01-14T16:00:00Z",
                "2027-01-10T10:00:00+01:00",
                "2000-01-01T00:00:00Z",
                "2099-12-31T23:59:59Z",
                "0001-01-01T00:00:00Z",
                "2027-01-14T99:00:00Z",
            ]),
            _ => [
                of(&[
                    "s1",
                    "heavy-pb29",
                    "glazing",
                    "Europe/Oslo",
                    "mon",
                    "10:00",
                    "24:00",
                    "Ä ö",
                    "a\nb",
                    "\u{202e}",
                    "#c4923e",
                    "' OR 1=1 --",
                    "<script>",
                    "PB29",
                ]),
                self.names.clone(),
            ]
            .concat(),
        };
        self.pick(&some).clone()
    }
}

fn encoded(text: &str) -> String {
    text.bytes()
        .map(|b| {
            if b.is_ascii_alphanumeric() { char::from(b).to_string() } else { format!("%{b:02X}") }
        })
        .collect()
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn no_request_is_a_fault_of_the_program_and_every_answer_is_declared(pool: MySqlPool) {
    let each = std::env::var("ULVEK_FUZZ").ok().and_then(|n| n.parse().ok()).unwrap_or(EACH);
    let (studio, app) = Studio::with_app(pool);
    let key = studio.demo().await;
    let picture = studio.picture(&key, "Two carboys").await;
    let photographs = studio.get(&format!("/api/pictures/{picture}/photographs")).await.json();
    let photograph = photographs[0]["id"].as_str().unwrap_or(&key).to_owned();
    let whole = studio.get(&format!("/api/studios/{key}/document")).await.json();
    let document = ulvek_server::web::openapi();
    let names = vec![
        key.clone(),
        picture.clone(),
        photograph,
        uuid::Uuid::nil().to_string(),
        "not a key".into(),
    ];
    let mut maker = Maker { document: &document, draw: StdRng::seed_from_u64(27), names };
    let mut tried = 0;
    for (path, item) in document["paths"].as_object().unwrap() {
        for (method, operation) in item.as_object().unwrap() {
            // Streams that go on as long as a search, or the application, does.
            if ["search_events", "air_live"].iter().any(|id| operation["operationId"] == *id) {
                continue;
            }
            for _ in 0..each {
                let mut at = path.clone();
                while let Some(from) = at.find('{') {
                    let to = from + at[from..].find('}').unwrap();
                    let usual = if path.starts_with("/api/studios") { &key } else { &picture };
                    let name = if maker.chance(0.8) {
                        usual.clone()
                    } else {
                        maker.pick(&maker.names.clone()).clone()
                    };
                    at.replace_range(from..=to, &encoded(&name));
                }
                let mut query = Vec::new();
                for parameter in operation["parameters"].as_array().unwrap_or(&Vec::new()) {
                    if parameter["in"] == "query" && maker.chance(0.6) {
                        let value = maker.make(&parameter["schema"], 0);
                        let text = value.as_str().map_or_else(|| value.to_string(), str::to_owned);
                        query.push(format!(
                            "{}={}",
                            parameter["name"].as_str().unwrap(),
                            encoded(&text)
                        ));
                    }
                }
                if !query.is_empty() {
                    at = format!("{at}?{}", query.join("&"));
                }
                let content = operation["requestBody"]["content"].as_object();
                let (kind, body) = match content.and_then(|c| c.iter().next()) {
                    None => ("application/json", String::new()),
                    Some((kind, _)) if kind != "application/json" => {
                        (kind.as_str(), maker.text(""))
                    }
                    Some((kind, of)) => {
                        let mut made = maker.make(&of["schema"], 0);
                        // A document from nothing fits hardly ever: a whole one with one thing changed.
                        if path.ends_with("/import") && maker.chance(0.8) {
                            let one = made;
                            made = whole.clone();
                            if let (Value::Object(made), Value::Object(one)) = (&mut made, one) {
                                made.extend(
                                    one.into_iter().filter(|(name, _)| name != "format").take(1),
                                );
                            }
                        }
                        (kind.as_str(), made.to_string())
                    }
                };
                let cut = maker.chance(0.03);
                let body = if cut { body.chars().take(body.len() / 2).collect() } else { body };
                let kind = if maker.chance(0.02) { "text/plain" } else { kind };
                let verb: Method = method.to_uppercase().parse().unwrap();
                let answer = studio
                    .ask(verb, &at, &[("content-type", kind)], Body::from(body.clone()))
                    .await;
                let status = answer.status.as_u16();
                let said = || format!("{method} {at} {body}\n{status} {}", answer.text());
                assert!(status < 500, "{}", said());
                assert!(
                    operation["responses"].get(status.to_string()).is_some(),
                    "undeclared: {}",
                    said()
                );
                if status >= 400 {
                    assert_eq!(
                        answer.headers["content-type"],
                        "application/problem+json",
                        "{}",
                        said()
                    );
                    let detail = answer.json()["detail"].as_str().unwrap().to_owned();
                    // Whole words: the sentence may repeat a key that was sent, and one can end in "f64".
                    let mut words = detail.split(|c: char| !c.is_alphanumeric());
                    let of_program = ["struct", "serde", "deserialize", "i64", "f64"];
                    assert!(
                        !detail.contains('`') && !words.any(|word| of_program.contains(&word)),
                        "a word of the program: {}",
                        said()
                    );
                }
                tried += 1;
            }
        }
    }
    app.end_computations();
    assert!(tried > 40 * each, "{tried}");
}
