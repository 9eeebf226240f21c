//! Edits: versions, conflicts, undo, and all or nothing.

use super::Studio;
use axum::body::Body;
use axum::http::Method;
use serde_json::json;
use sqlx::MySqlPool;
use ulvek_store::MIGRATIONS;

#[sqlx::test(migrator = "MIGRATIONS")]
async fn of_two_edits_on_one_version_the_second_is_refused_with_both_versions(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let key = studio.demo().await;
    let path = format!("/api/pictures/{}", studio.picture(&key, "Storm glass").await);
    let read = studio.get(&path).await.json();
    let mut picture = read["picture"].clone();
    picture["title"] = json!("Storm glass, first tab");
    let edit = |title: &str| {
        let mut picture = picture.clone();
        picture["title"] = json!(title);
        json!({ "version": read["version"], "label": "rename", "picture": picture })
    };
    assert_eq!(studio.put(&path, &edit("Storm glass, first tab")).await.status, 200);
    let second = studio.put(&path, &edit("Storm glass, second tab")).await;
    second.problem(409);
    assert_eq!(second.json()["given_version"], 1);
    assert_eq!(second.json()["current_version"], 2);
    let kept = studio.get(&path).await.json();
    assert_eq!(kept["picture"]["title"], "Storm glass, first tab");
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn an_edit_is_undone_and_redone_and_a_new_one_ends_the_redo(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let key = studio.demo().await;
    let path = format!("/api/pictures/{}", studio.picture(&key, "Storm glass").await);
    let first = studio.get(&path).await.json();
    assert_eq!(first["history"], json!({ "undo": null, "redo": null }));
    let mut picture = first["picture"].clone();
    picture["steps"].as_array_mut().unwrap().pop();
    let edit = json!({ "version": 1, "label": "delete Varnish 2", "picture": picture });
    let edited = studio.put(&path, &edit).await.json();
    assert_eq!(edited["history"]["undo"], "delete Varnish 2");
    let undone = studio.post(&format!("{path}/undo"), &json!({ "version": 2 })).await.json();
    assert_eq!(undone["picture"], first["picture"]);
    assert_eq!(undone["history"], json!({ "undo": null, "redo": "delete Varnish 2" }));
    let redone = studio.post(&format!("{path}/redo"), &json!({ "version": 3 })).await.json();
    assert_eq!(redone["picture"], edited["picture"]);
    studio.post(&format!("{path}/undo"), &json!({ "version": 4 })).await;
    let again = json!({ "version": 5, "label": "shorten", "picture": picture });
    let last = studio.put(&path, &again).await.json();
    assert_eq!(last["history"], json!({ "undo": "shorten", "redo": null }));
    studio.post(&format!("{path}/redo"), &json!({ "version": 6 })).await.problem(409);
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_picture_taken_away_comes_back_whole(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let key = studio.demo().await;
    let path = format!("/api/pictures/{}", studio.picture(&key, "Fog lamp").await);
    let before = studio.get(&path).await.json();
    let stale = studio.send(Method::DELETE, &format!("{path}?version=9"), Body::empty()).await;
    stale.problem(409);
    let gone = studio.send(Method::DELETE, &format!("{path}?version=1"), Body::empty()).await;
    assert_eq!(gone.status, 204);
    studio.get(&path).await.problem(404);
    let away = async || studio.get(&format!("/api/studios/{key}/pictures/away")).await.json();
    assert_eq!(away().await[0]["title"], before["picture"]["title"]);
    let back = studio.post(&format!("{path}/restore"), &json!(null)).await.json();
    assert_eq!(back["picture"], before["picture"]);
    assert_eq!(away().await, json!([]));
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn settings_carry_a_version_too_and_leave_the_pictures_alone(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let key = studio.demo().await;
    let path = format!("/api/studios/{key}");
    let read = studio.get(&path).await.json();
    let mut edit = json!({ "version": 1, "label": "one hour less", "studio": read["studio"] });
    edit["studio"]["hours"] = json!([{ "day": "sat", "from": "10:00", "to": "24:00" }]);
    let saved = studio.put(&path, &edit).await.json();
    assert_eq!(saved["studio"]["hours"][0]["to"], "24:00");
    studio.put(&path, &edit).await.problem(409);
    let undone = studio.post(&format!("{path}/undo"), &json!({ "version": 2 })).await.json();
    assert_eq!(undone["studio"], read["studio"]);
    let document = studio.get(&format!("{path}/document")).await.json();
    assert_eq!(document["pictures"].as_array().unwrap().len(), 6);
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn what_is_exported_is_imported_as_the_same_studio(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let key = studio.demo().await;
    let out = studio.get(&format!("/api/studios/{key}/document")).await;
    let schema: serde_json::Value =
        serde_json::from_str(include_str!("../../../../docs/formats/studio.schema.json")).unwrap();
    let broken: Vec<String> = jsonschema::validator_for(&schema)
        .unwrap()
        .iter_errors(&out.json())
        .map(|e| format!("{}: {e}", e.instance_path))
        .collect();
    assert!(broken.is_empty(), "the export breaks the published schema: {broken:?}");
    let made = studio.post("/api/studios/import", &out.json()).await;
    assert_eq!(made.status, 201, "{}", made.text());
    let again = made.json()["id"].as_str().unwrap().to_owned();
    assert_ne!(again, key);
    assert_eq!(studio.get(&format!("/api/studios/{again}/document")).await.json(), out.json());
}
