//! What every operation of the OpenAPI document has in common: the problems it may answer with, and
//! a description for every answer. Said once, here, so that no handler can forget one.

use serde_json::{Map, Value, json};

/// What an operation has that decides which problems it may have.
struct Operation {
    changes: bool,
    has_key: bool,
    has_body: bool,
    /// Whether it is for instruments, which have a token.
    by_token: bool,
}

/// A status, when it may come, and what it says.
type Declared = (u16, fn(&Operation) -> bool, &'static str);

/// The problems an operation may answer with.
const PROBLEMS: &[Declared] = &[
    (400, |_| true, "What was sent cannot be read at all."),
    (401, |o| o.by_token, "No token, or one that is not known."),
    (403, |o| o.changes, "It comes from a page of another site."),
    (404, |o| o.has_key, "There is no such thing here."),
    (409, |o| o.changes, "Another edit came first; nothing was changed."),
    (413, |o| o.has_body, "More than is taken."),
    (415, |o| o.has_body, "A body of a kind that is not read here."),
    (421, |_| true, "A host name that the application does not answer to."),
    (422, |_| true, "Something in it does not fit; the place and the reason are said."),
    (429, |_| true, "More is asked at once than can be computed; ask again after Retry-After."),
    (500, |_| true, "A fault of the program."),
    (503, |_| true, "The database does not answer, or the answer took too long."),
    (507, |o| o.changes, "The disk is full; nothing was changed."),
];

/// `document` with all that its operations have in common.
pub fn completed(document: utoipa::openapi::OpenApi) -> Value {
    let mut document = serde_json::to_value(document).unwrap_or_default();
    let Some(paths) = document.get_mut("paths").and_then(Value::as_object_mut) else {
        return document;
    };
    for (path, item) in paths {
        let Some(item) = item.as_object_mut() else { continue };
        for (method, operation) in item.iter_mut() {
            let Some(operation) = operation.as_object_mut() else { continue };
            let is = Operation {
                changes: method != "get",
                has_key: path.contains('{'),
                has_body: operation.contains_key("requestBody"),
                by_token: path == "/api/instruments/readings",
            };
            if let Some(responses) = operation.get_mut("responses").and_then(Value::as_object_mut) {
                complete(responses, &is);
            }
        }
    }
    document
}

fn complete(responses: &mut Map<String, Value>, operation: &Operation) {
    responses.retain(|status, _| !status.starts_with(['4', '5']));
    for (status, response) in responses.iter_mut() {
        let said = response["description"].as_str().unwrap_or_default();
        if said.is_empty() {
            response["description"] = match status.as_str() {
                "201" => "It was made; Location says where it is.",
                "202" => "It goes on.",
                "204" => "It is done.",
                _ => "The answer.",
            }
            .into();
        }
    }
    for (status, _, description) in PROBLEMS.iter().filter(|(_, may, _)| may(operation)) {
        let problem = json!({
            "description": description,
            "content": {
                "application/problem+json": { "schema": { "$ref": "#/components/schemas/Problem" } }
            }
        });
        responses.insert(status.to_string(), problem);
    }
}
