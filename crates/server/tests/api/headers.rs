//! Headers, and documents that must follow the code.

use super::Studio;
use sqlx::MySqlPool;
use ulvek_store::MIGRATIONS;

#[sqlx::test(migrator = "MIGRATIONS")]
async fn every_answer_allows_only_the_application_itself_and_carries_a_request_id(pool: MySqlPool) {
    let studio = Studio::on(pool);
    for path in ["/api/health", "/api/nothing", "/assets/gone.js", "/"] {
        let headers = studio.get(path).await.headers;
        let policy = headers["content-security-policy"].to_str().unwrap();
        assert!(policy.starts_with("default-src 'none'; script-src 'self';"), "{policy}");
        assert!(!policy.contains("http"), "no other host: {policy}");
        assert_eq!(headers["x-content-type-options"], "nosniff");
        assert!(headers.contains_key("x-request-id"));
    }
    let api = studio.get("/api/health").await.headers;
    assert_eq!(api["cache-control"], "no-store");
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_page_of_another_site_may_look_but_not_edit(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let send = async |method: &str, origin: &str| {
        let request = axum::http::Request::builder()
            .method(method)
            .uri(if method == "POST" { "/api/studios/demo" } else { "/api/studios" })
            .header("host", "127.0.0.1:4880")
            .header("origin", origin)
            .body(axum::body::Body::empty())
            .unwrap();
        tower::ServiceExt::oneshot(studio.router.clone(), request).await.unwrap().status().as_u16()
    };
    assert_eq!(send("POST", "http://elsewhere.example").await, 403);
    assert_eq!(send("POST", "null").await, 403);
    assert_eq!(send("POST", "http://127.0.0.1:4880").await, 201);
    assert_eq!(send("GET", "http://elsewhere.example").await, 200);
    assert_eq!(studio.get("/api/studios").await.json().as_array().unwrap().len(), 1);
}

/// `scripts/generate.sh` writes them again.
#[test]
fn the_committed_documents_are_those_of_the_code() {
    let openapi = ulvek_server::web::openapi();
    let committed: serde_json::Value =
        serde_json::from_str(include_str!("../../../../web/src/api/openapi.json")).unwrap();
    assert_eq!(openapi, committed, "openapi.json is stale: run scripts/generate.sh");
    let schema: serde_json::Value =
        serde_json::from_str(include_str!("../../../../docs/formats/studio.schema.json")).unwrap();
    assert_eq!(ulvek_server::formats::json_schema(), schema, "run scripts/generate.sh");
    let schema: serde_json::Value =
        serde_json::from_str(include_str!("../../../../docs/formats/record.schema.json")).unwrap();
    assert_eq!(ulvek_server::formats::record_schema(), schema, "run scripts/generate.sh");
}

#[test]
fn the_openapi_document_describes_every_route_once() {
    let openapi = ulvek_server::web::openapi();
    assert_eq!(openapi["openapi"], "3.1.0");
    let mut ids = std::collections::HashSet::new();
    for (path, item) in openapi["paths"].as_object().unwrap() {
        for (method, operation) in item.as_object().unwrap() {
            let id = operation["operationId"].as_str().unwrap();
            assert!(ids.insert(id.to_owned()), "{method} {path}: {id} twice");
            assert!(
                !operation["summary"].as_str().unwrap_or_default().is_empty(),
                "{method} {path}"
            );
        }
    }
    assert!(ids.len() >= 20);
}
