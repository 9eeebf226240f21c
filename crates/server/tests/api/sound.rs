//! What a second attack found: moments no clock shows, keys of another studio, rows that cannot be read.

use super::Studio;
use axum::body::Body;
use axum::http::Method;
use serde_json::{Value, json};
use sqlx::MySqlPool;
use ulvek_store::MIGRATIONS;

/// A moment that RFC 3339 allows and no clock shows.
const LEAP: &str = "2026-11-30T10:59:60Z";

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_leap_second_is_refused_at_every_door_and_the_studio_goes_on(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let key = studio.demo().await;
    let id = studio.picture(&key, "Two carboys").await;
    let version = studio.get(&format!("/api/pictures/{id}")).await.json()["version"].clone();
    let noted = json!({ "kind": "noted" });
    let bodies = [
        (format!("/api/studios/{key}/daybook"), json!({ "at": LEAP, "what": noted, "words": "x" })),
        (
            format!("/api/studios/{key}/daybook"),
            json!({ "what": { "kind": "session", "until": LEAP } }),
        ),
        (
            format!("/api/pictures/{id}/happened"),
            json!({ "version": version, "at": LEAP, "what": noted, "words": "x" }),
        ),
        (
            format!("/api/pictures/{id}/laid"),
            json!({ "version": version, "step": "s8", "at": LEAP }),
        ),
        (
            format!("/api/pictures/{id}/touched"),
            json!({ "version": version, "step": "s7", "at": LEAP, "felt": "dry" }),
        ),
        (
            format!("/api/studios/{key}/air/typed"),
            json!({ "version": 1, "at": LEAP, "temperature_c": 20.0, "relative_humidity": 0.5 }),
        ),
    ];
    for (path, body) in bodies {
        let said = studio.post(&path, &body).await.problem(422);
        assert!(said.ends_with("must have seconds from 00 to 59, not 60"), "{path}: {said}");
    }
    let csv = format!(
        "at,picture,what,words\n{LEAP},Two carboys,noted,x\n2026-11-30 10:59:60,Two carboys,noted,x\n"
    );
    let looked =
        studio.bring(&format!("/api/studios/{key}/log.csv?keep=true"), csv.into_bytes()).await;
    let bad = looked.json()["bad"].as_array().map_or(0, Vec::len);
    assert_eq!(bad, 2, "{}", looked.text());
    for query in
        ["from=-0001-01-01T00:00:00Z", "to=2026-11-30T10:59:60Z", "from=0000-00-00T00:00:00Z"]
    {
        studio.get(&format!("/api/studios/{key}/log?{query}")).await.problem(422);
    }
    for view in ["outlook", "season", "gates", "log", "daybook", "document"] {
        let answer = studio.get(&format!("/api/studios/{key}/{view}")).await;
        assert_eq!(answer.status, 200, "{view}: {}", answer.text());
    }
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_row_that_cannot_be_read_is_named_and_every_view_goes_on(pool: MySqlPool) {
    let studio = Studio::on(pool.clone());
    let key = studio.demo().await;
    sqlx::query("UPDATE log_entry SET body = '{}' WHERE kind = 'laid' ORDER BY number LIMIT 1")
        .execute(&pool)
        .await
        .unwrap();
    let outlook = studio.get(&format!("/api/studios/{key}/outlook")).await.json();
    let unread = outlook["unread"].as_array().unwrap();
    assert_eq!(unread.len(), 1);
    assert!(unread[0].as_str().unwrap().contains("of the log of"), "{unread:?}");
    for view in ["season", "gates", "log", "log.csv", "document", "shelf", "week"] {
        let answer = studio.get(&format!("/api/studios/{key}/{view}")).await;
        assert_eq!(answer.status, 200, "{view}: {}", answer.text());
    }
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn nothing_of_another_studio_or_of_one_that_was_taken_away_is_seen_or_changed(
    pool: MySqlPool,
) {
    let studio = Studio::on(pool);
    let (mine, other) = (studio.demo().await, studio.demo().await);
    let my_picture = studio.picture(&mine, "Two carboys").await;
    let theirs = studio.picture(&other, "Lamp row").await;
    let shots = studio.get(&format!("/api/pictures/{theirs}/photographs")).await.json();
    let shot = shots[0]["id"].as_str().unwrap();
    let dark = json!([{ "material": "fluid-pb15", "parts": 1 }]);
    let values = json!({ "dark": dark, "count": 5, "photograph": shot, "wet_film_um": 60 });
    let path = format!("/api/pictures/{my_picture}/colour/values");
    let said = studio.post(&path, &values).await.problem(422);
    assert_eq!(said, "photograph: the studio has no such photograph");

    let away = format!("/api/studios/{other}?version=1");
    assert_eq!(studio.send(Method::DELETE, &away, Body::empty()).await.status, 204);
    for path in ["", "/log", "/photographs", "/strata", "/gate", "/record", "/usual-steps"] {
        studio.get(&format!("/api/pictures/{theirs}{path}")).await.problem(404);
    }
    for path in ["", "/outlook", "/log", "/daybook", "/scale", "/instruments", "/season/search"] {
        studio.get(&format!("/api/studios/{other}{path}")).await.problem(404);
    }
    for path in ["whole", "small", "colour?at=0.5,0.5"] {
        studio.get(&format!("/api/photographs/{shot}/{path}")).await.problem(404);
    }
    let away = format!("/api/pictures/{theirs}?version=1");
    studio.send(Method::DELETE, &away, Body::empty()).await.problem(404);
    studio.post(&format!("/api/photographs/{shot}/restore"), &Value::Null).await.problem(404);
    // It is all there again with the studio.
    assert_eq!(
        studio.post(&format!("/api/studios/{other}/restore"), &Value::Null).await.status,
        200
    );
    assert_eq!(studio.get(&format!("/api/pictures/{theirs}/log")).await.status, 200);
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn an_id_that_was_used_on_one_picture_loses_nothing_on_another(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let key = studio.demo().await;
    let own = "01946c7e-0000-7000-8000-000000000001";
    for title in ["Two carboys", "Lamp row"] {
        let id = studio.picture(&key, title).await;
        let path = format!("/api/pictures/{id}");
        let version = studio.get(&path).await.json()["version"].clone();
        let note = json!({ "version": version, "words": "quiet", "what": { "kind": "noted" } });
        let headers = [("content-type", "application/json"), ("idempotency-key", own)];
        let body = Body::from(note.to_string());
        let kept = studio.ask(Method::POST, &format!("{path}/happened"), &headers, body).await;
        assert_eq!(kept.status, 200, "{title}: {}", kept.text());
    }
    let log = studio.get(&format!("/api/studios/{key}/log?words=quiet")).await.json();
    assert_eq!(log["of"], 2);
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn new_words_on_a_photograph_are_seen_by_the_gate_at_once(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let key = studio.demo().await;
    let id = studio.picture(&key, "Lamp row").await;
    let gate = async || studio.get(&format!("/api/pictures/{id}/gate")).await.json();
    let shot = gate().await["photographs"][0].clone();
    let edit = json!({ "version": shot["version"], "taken_at": shot["taken_at"], "step": shot["step"],
        "caption": "other words" });
    let path = format!("/api/photographs/{}", shot["id"].as_str().unwrap());
    assert_eq!(studio.put(&path, &edit).await.status, 200);
    assert_eq!(gate().await["photographs"][0]["caption"], "other words");
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn eight_who_add_a_picture_and_four_instruments_at_once_are_all_served(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let key = studio.demo().await;
    let picture = |n: usize| json!({ "id": "x", "title": format!("Lamp {n}"), "width_cm": 20, "height_cm": 20 });
    let pictures = format!("/api/studios/{key}/pictures");
    let mut made = Vec::new();
    for n in 0..8 {
        let (router, path, body) = (studio.router.clone(), pictures.clone(), picture(n));
        made.push(tokio::spawn(async move { Studio { router }.post(&path, &body).await.status }));
    }
    for one in made {
        assert_eq!(one.await.unwrap(), 201);
    }
    let mut sent = Vec::new();
    for _ in 0..4 {
        let (_, token) = studio.instrument(&key, "hygrometer").await;
        let router = studio.router.clone();
        sent.push(tokio::spawn(async move {
            let studio = Studio { router };
            let mut all = Vec::new();
            for minute in 0..25 {
                let body = json!({ "readings": [{ "at": format!("2027-01-14T16:{minute:02}:00Z"),
                    "temperature_c": 20.0, "relative_humidity": 0.5 }] });
                // The scheme is written in any case.
                let token = format!("bearer {token}");
                let headers = [("content-type", "application/json"), ("authorization", &token)];
                let body = Body::from(body.to_string());
                let path = "/api/instruments/readings";
                all.push(studio.ask(Method::POST, path, &headers, body).await.status.as_u16());
            }
            all
        }));
    }
    for one in sent {
        assert_eq!(one.await.unwrap(), [200; 25]);
    }
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_question_is_at_most_a_megabyte_and_a_room_changes_within_what_machines_do(
    pool: MySqlPool,
) {
    let studio = Studio::on(pool);
    let key = studio.demo().await;
    let path = format!("/api/studios/{key}/season/what-if");
    let long = json!({ "pictures": [], "x": "y".repeat(1_100_000) });
    let said = studio.post(&path, &long).await.problem(413);
    assert!(said.contains("1 MB"), "{said}");
    let room = json!({ "version": 1, "warmer_k": 0.0, "damper": 0.6, "least_speed_m_s": 0.15 });
    let said = studio.post(&path, &json!({ "pictures": [], "room": room })).await.problem(422);
    assert!(said.starts_with("draft.room.damper: change of humidity must be"), "{said}");
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn what_an_instrument_is_refused_uses_no_allowance_and_it_is_told_when_to_come_again(
    pool: MySqlPool,
) {
    let studio = Studio::on(pool);
    let key = studio.demo().await;
    let (_, token) = studio.instrument(&key, "hygrometer").await;
    let send = async |celsius: f64| {
        let one = json!({ "at": "2027-01-14T16:00:00Z", "temperature_c": celsius, "relative_humidity": 0.5 });
        studio.sends(&token, &json!({ "readings": vec![one; 2000] })).await
    };
    for _ in 0..3 {
        // Two thousand that cannot be, three times.
        assert_eq!(send(999.0).await.json()["taken"], 0);
    }
    assert_eq!(send(20.0).await.status, 200, "the allowance is still there");
    let flood = send(20.0).await;
    flood.problem(429);
    let after: u64 = flood.headers["retry-after"].to_str().unwrap().parse().unwrap();
    assert!(
        (150..=201).contains(&after),
        "1000 of 2000 are left, 5 come back each second: {after}"
    );
}
