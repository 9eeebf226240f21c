//! Bad input gets one clear sentence with its place, and changes nothing.

use super::Studio;
use axum::body::Body;
use axum::http::Method;
use serde_json::{Value, json};
use sqlx::MySqlPool;
use ulvek_store::MIGRATIONS;

/// The demo as a document, changed by `change`.
async fn changed(studio: &Studio, change: impl Fn(&mut Value)) -> Value {
    let key = studio.demo().await;
    let mut document = studio.get(&format!("/api/studios/{key}/document")).await.json();
    change(&mut document);
    document
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_document_that_does_not_fit_is_refused_at_its_place(pool: MySqlPool) {
    let studio = Studio::on(pool);
    type Change = fn(&mut Value);
    let cases: [(Change, &str, &str); 9] = [
        (|d| d["format"] = json!("ulvek.studio/9"), "format", "only \"ulvek.studio/1\" is read"),
        (
            |d| d["pictures"][0]["steps"][0]["wet_film_um"] = json!(0),
            "pictures[0].steps[0].wet_film_um",
            "must be from 1 to 5000 µm, not 0 µm",
        ),
        (
            |d| d["pictures"][0]["steps"][0]["wet_film_um"] = json!(-5),
            "pictures[0].steps[0].wet_film_um",
            "not -5 µm",
        ),
        (
            |d| d["pictures"][0]["steps"][0]["mix"] = json!([{"material": "glazing", "parts": 0}]),
            "pictures[0].steps[0].mix",
            "sums to nothing",
        ),
        (
            |d| d["air"]["relative_humidity"] = json!(1.4),
            "air.relative_humidity",
            "must be from 0 to 100 %, not 140 %",
        ),
        (
            |d| d["pictures"][0]["steps"][1]["laid_at"] = json!("2020-01-01T10:00:00Z"),
            "pictures[0].steps[1]",
            ", before tone below it",
        ),
        (
            |d| d["pictures"][0]["steps"][2]["after"] = json!(["s2", "s4"]),
            "pictures[0].steps",
            "in a circle",
        ),
        (
            |d| d["studio"]["time_zone"] = json!("Sea/Varnholt"),
            "studio.time_zone",
            "not a time zone",
        ),
        (
            |d| d["pictures"][0]["wdth"] = json!(3),
            "pictures[0].wdth",
            "\"wdth\" is not known here; known are",
        ),
    ];
    for (change, path, reason) in cases {
        let document = changed(&studio, change).await;
        let before = studio.get("/api/studios").await.json().as_array().unwrap().len();
        let refused = studio.post("/api/studios/import", &document).await;
        let said = refused.problem(422);
        let place = refused.json()["path"].as_str().unwrap_or_default().to_owned();
        assert!(place.starts_with(path), "{place} instead of {path}: {said}");
        assert!(said.contains(reason), "{said}");
        let after = studio.get("/api/studios").await.json().as_array().unwrap().len();
        assert_eq!(before, after, "nothing of a refused document is kept");
    }
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_truncated_and_a_huge_document_are_refused(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let whole = changed(&studio, |_| {}).await.to_string();
    let half = Body::from(whole[..whole.len() / 2].to_owned());
    let said = studio.send(Method::POST, "/api/studios/import", half).await.problem(400);
    assert!(said.starts_with("What was sent cannot be read: it "), "{said}");
    let huge = Body::from(vec![b' '; 50_000_000]);
    let said = studio.send(Method::POST, "/api/studios/import", huge).await.problem(413);
    assert!(said.contains("16 MB"), "{said}");
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_due_date_in_the_past_and_a_log_from_the_future_are_refused(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let key = studio.demo().await;
    let picture = json!({ "id": "x", "title": "Late lamp", "width_cm": 20, "height_cm": 20, "due": "2027-01-13" });
    let said = studio.post(&format!("/api/studios/{key}/pictures"), &picture).await.problem(422);
    assert!(said.contains("13 January 2027 is in the past; today is 14 January"), "{said}");
    let path = format!("/api/pictures/{}/laid", studio.picture(&key, "Two carboys").await);
    let log = |step: &str, at: &str| json!({ "version": 1, "step": step, "at": at });
    let said = studio.post(&path, &log("s8", "2027-01-14T19:00:00Z")).await.problem(422);
    assert!(said.contains("in the future"), "{said}");
    let said = studio.post(&path, &log("s8", "2027-01-14T10:00:00Z")).await.problem(422);
    assert!(said.contains("before Glaze 2 below it"), "{said}");
    let said = studio.post(&path, &log("s9", "2027-01-14T16:30:00Z")).await.problem(422);
    assert!(said.ends_with("is laid, but Glaze 3 below it is not"), "{said}");
    let mut amount = log("s8", "2027-01-14T16:30:00Z");
    amount["amount_ml"] = json!(0);
    let refused = studio.post(&path, &amount).await;
    refused.problem(422);
    assert_eq!(refused.json()["path"], "amount_ml");
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn unknown_addresses_methods_and_keys_are_told_apart(pool: MySqlPool) {
    let studio = Studio::on(pool);
    studio.get("/api/nothing").await.problem(404);
    studio.get("/api/studios/no-key").await.problem(404);
    studio.get("/api/pictures/01a2107c-e212-757c-bcdf-42721f846f23").await.problem(404);
    studio.put("/api/studios", &json!({})).await.problem(405);
    studio.get("/assets/gone.js").await.problem(404);
}

#[tokio::test]
async fn without_a_database_every_answer_is_a_plain_503() {
    let pool = ulvek_store::pool("mysql://nobody:x@127.0.0.1:9/none").unwrap();
    let studio = Studio::on(pool);
    for path in ["/api/health", "/api/studios"] {
        let said = studio.get(path).await.problem(503);
        assert!(said.contains("database does not answer"), "{said}");
        assert!(!said.contains("127.0.0.1"), "nothing of the inside is told: {said}");
    }
}
