//! Who may come in, and what an answer may look like to whom.

use super::Studio;
use axum::body::Body;
use axum::http::Method;
use serde_json::{Value, json};
use sqlx::MySqlPool;
use ulvek_store::MIGRATIONS;

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_name_that_was_made_to_resolve_here_reads_and_writes_nothing(pool: MySqlPool) {
    let studio = Studio::on(pool);
    for host in ["evil.example", "evil.example:4880", "127.0.0.1.evil.example"] {
        for method in [Method::GET, Method::POST] {
            let path = if method == Method::GET { "/api/studios" } else { "/api/studios/demo" };
            let answer = studio.ask(method, path, &[("host", host)], Body::empty()).await;
            assert!(answer.problem(421).contains("host name"), "{host}");
        }
        let page = studio.ask(Method::GET, "/", &[("host", host)], Body::empty()).await;
        assert_eq!(page.status, 421, "the page neither");
    }
    for host in ["localhost:4880", "[::1]:4880", "192.0.2.7"] {
        let answer =
            studio.ask(Method::GET, "/api/studios", &[("host", host)], Body::empty()).await;
        assert_eq!(answer.status, 200, "{host}");
    }
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_page_of_another_site_changes_nothing_by_whatever_it_sends(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let post = async |headers: &[(&str, &str)]| {
        studio.ask(Method::POST, "/api/studios/demo", headers, Body::empty()).await.status.as_u16()
    };
    assert_eq!(post(&[("sec-fetch-site", "cross-site")]).await, 403);
    assert_eq!(post(&[("sec-fetch-site", "same-site")]).await, 403, "another port is another site");
    assert_eq!(post(&[("origin", "null")]).await, 403);
    let settings = Body::from(json!({}).to_string());
    let form = [("content-type", "text/plain")];
    let said = studio.ask(Method::POST, "/api/studios", &form, settings).await.problem(415);
    assert_eq!(said, "This address reads application/json only (Content-Type).");
    assert_eq!(studio.get("/api/studios").await.json(), json!([]), "nothing came of all that");
    assert_eq!(post(&[("sec-fetch-site", "same-origin")]).await, 201);
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn what_is_no_json_what_goes_on_after_it_and_what_does_not_fit_are_told_apart(
    pool: MySqlPool,
) {
    let studio = Studio::on(pool);
    let key = studio.demo().await;
    let undo = format!("/api/studios/{key}/undo");
    let send =
        async |body: &str| studio.send(Method::POST, &undo, Body::from(body.to_owned())).await;
    let cut = send("{\"version\": 1").await.problem(400);
    assert_eq!(cut, "What was sent cannot be read: it ends too soon, line 1, column 13.");
    let more = send("{\"version\": 1} {\"version\": 2}").await.problem(400);
    assert_eq!(more, "What was sent cannot be read: it is not JSON, line 1, column 16.");
    assert_eq!(
        send("{\"version\": \"1\"}").await.problem(422),
        "version: must be a whole number, not \"1\""
    );
    let week = studio.get(&format!("/api/studios/{key}/week?from=soon")).await.problem(422);
    assert!(week.starts_with("from: ") && !week.contains("eserialize"), "{week}");
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn asking_again_costs_nothing_as_long_as_nothing_changed(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let key = studio.demo().await;
    let path = format!("/api/studios/{key}/outlook");
    let first = studio.get(&path).await;
    assert_eq!(first.headers["cache-control"], "no-cache", "kept, and asked about");
    let mark = first.headers["etag"].to_str().unwrap().to_owned();
    // Within the minute; over its end another answer is right too, so it is looked at again.
    let minute = |answer: &Value| answer["now"].as_str().unwrap()[..16].to_owned();
    let note = json!({ "what": { "kind": "noted" }, "words": "new bulbs" });
    for told in [None, Some(&note)] {
        if let Some(note) = told {
            assert_eq!(studio.post(&format!("/api/studios/{key}/daybook"), note).await.status, 200);
        }
        let again =
            studio.ask(Method::GET, &path, &[("if-none-match", &mark)], Body::empty()).await;
        if again.status == 304 {
            assert!(again.bytes.is_empty());
        } else {
            assert_ne!(minute(&again.json()), minute(&first.json()));
        }
    }
    let picture = studio.picture(&key, "Two carboys").await;
    let stored = studio.get(&format!("/api/pictures/{picture}")).await.json();
    let mut edit =
        json!({ "version": stored["version"], "label": "rename", "picture": stored["picture"] });
    edit["picture"]["title"] = json!("Two bottles");
    assert_eq!(studio.put(&format!("/api/pictures/{picture}"), &edit).await.status, 200);
    let after = studio.ask(Method::GET, &path, &[("if-none-match", &mark)], Body::empty()).await;
    assert_eq!(after.status, 200);
    assert!(after.text().contains("Two bottles"), "an edit is seen at once");
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn what_is_made_says_where_it_is_and_a_missing_file_is_no_page(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let made = studio.post("/api/studios/demo", &Value::Null).await;
    let at = made.headers["location"].to_str().unwrap().to_owned();
    assert_eq!(studio.get(&at).await.json()["id"], made.json()["id"]);
    assert_eq!(studio.get("/favicon.ico").await.problem(404), "There is no such file here.");
}
