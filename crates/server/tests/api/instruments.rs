//! Instruments that send over HTTP with a token of their own, and the air that is made of it.

use super::{Answer, NOW, Studio};
use axum::body::Body;
use axum::http::Method;
use chrono::{DateTime, TimeDelta, Utc};
use serde_json::{Value, json};
use sqlx::MySqlPool;
use tokio_stream::StreamExt;
use ulvek_store::MIGRATIONS;

fn now() -> DateTime<Utc> {
    NOW.parse().unwrap()
}

/// A room of that air each minute from `from` minutes before now on.
fn minutes(from: i64, count: i64, celsius: f64, humidity: f64) -> Value {
    let reading = |m: i64| {
        json!({
            "at": now() - TimeDelta::minutes(from - m),
            "temperature_c": celsius + 0.1 * (m % 3) as f64, "relative_humidity": humidity,
        })
    };
    (0..count).map(reading).collect::<Vec<_>>().into()
}

impl Studio {
    pub async fn instrument(&self, key: &str, kind: &str) -> (String, String) {
        let new = json!({ "kind": kind, "name": "North wall" });
        let added = self.post(&format!("/api/studios/{key}/instruments"), &new).await.json();
        let text = |of: &str| added[of].as_str().unwrap().to_owned();
        (text("id"), text("token"))
    }

    pub async fn sends(&self, token: &str, body: &Value) -> Answer {
        let bearer = format!("Bearer {token}");
        let headers = [("content-type", "application/json"), ("authorization", bearer.as_str())];
        let body = Body::from(body.to_string());
        self.ask(Method::POST, "/api/instruments/readings", &headers, body).await
    }

    async fn hour(&self, key: &str, back: i64) -> Value {
        let air = format!("/api/studios/{key}/air/past?from=");
        let from = (now() - TimeDelta::hours(back)).to_rfc3339().replace("+00:00", "Z");
        let to = (now() - TimeDelta::hours(back) + TimeDelta::minutes(1)).to_rfc3339();
        let past = self.get(&format!("{air}{from}&to={}", to.replace("+00:00", "Z"))).await.json();
        json!([past["points"][0]["temperature_c"][1], past["origins"][0]["origin"]])
    }
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn what_a_hygrometer_sends_is_the_air_of_its_hours_and_can_be_taken_back(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let key = studio.demo().await;
    let (id, token) = studio.instrument(&key, "hygrometer").await;
    let before = studio.hour(&key, 3).await;
    let sent = json!({ "readings": minutes(300, 240, 16.0, 0.62) });
    let taken = studio.sends(&token, &sent).await.json();
    assert_eq!((&taken["taken"], &taken["known"]), (&json!(240), &json!(0)));
    // Sending twice changes nothing.
    assert_eq!(studio.sends(&token, &sent).await.json()["known"], 240);
    assert_eq!(studio.hour(&key, 3).await, json!([16.0, "measured"]));
    // Undoing what the painter did with the air leaves what was measured.
    let air = studio.get(&format!("/api/studios/{key}/air")).await.json();
    let edit = json!({ "version": air["version"], "source": "constant" });
    let kept = studio.put(&format!("/api/studios/{key}/air"), &edit).await.json();
    let on = json!({ "version": kept["air"]["version"] });
    let undone = studio.post(&format!("/api/studios/{key}/air/undo"), &on).await.json();
    assert_eq!(studio.hour(&key, 3).await, json!([16.0, "measured"]));
    // Taken back the hour is what was known before; given back it is measured again.
    let mut version = undone["air"]["version"].clone();
    let span = |give: bool, version: &Value| {
        json!({
            "version": version, "from": now() - TimeDelta::hours(5), "to": now(), "give": give,
        })
    };
    let path = format!("/api/studios/{key}/air/taken-back");
    for (give, hour) in [(false, before), (true, json!([16.0, "measured"]))] {
        let back = studio.post(&path, &span(give, &version)).await;
        version = back.json()["air"]["version"].clone();
        assert_eq!(studio.hour(&key, 3).await, hour, "{}", back.text());
    }
    let again = studio.post(&path, &span(true, &version)).await;
    assert!(again.problem(422).contains("none that was taken back"));
    // Taken away it opens nothing any more; what it sent stays.
    let instrument = format!("/api/studios/{key}/instruments/{id}");
    assert_eq!(studio.send(Method::DELETE, &instrument, Body::empty()).await.status, 204);
    assert!(studio.sends(&token, &sent).await.problem(401).contains("token"));
    assert_eq!(studio.hour(&key, 3).await, json!([16.0, "measured"]));
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn nonsense_the_future_and_a_flood_are_refused_and_said(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let key = studio.demo().await;
    let (_, token) = studio.instrument(&key, "hygrometer").await;
    studio.sends("ulvek_unknown", &json!({ "grams": 1.0 })).await.problem(401);
    assert!(studio.sends(&token, &json!({ "grams": 1.0 })).await.problem(422).contains("readings"));
    let at = |d: TimeDelta| now() + d;
    let bad = json!({ "readings": [
        { "at": at(TimeDelta::hours(1)), "temperature_c": 20.0, "relative_humidity": 0.5 },
        { "at": at(TimeDelta::days(-8)), "temperature_c": 20.0, "relative_humidity": 0.5 },
        { "at": now(), "temperature_c": 999.0, "relative_humidity": 0.5 },
        { "at": now(), "temperature_c": 20.0, "relative_humidity": 0.5 },
    ] });
    let taken = studio.sends(&token, &bad).await.json();
    let paths: Vec<&str> =
        taken["refused"].as_array().unwrap().iter().filter_map(|r| r["path"].as_str()).collect();
    assert_eq!(paths, ["readings[0].at", "readings[1].at", "readings[2]"], "{taken}");
    assert_eq!(taken["taken"], 1);
    let list = studio.get(&format!("/api/studios/{key}/instruments")).await.json();
    let said = list["instruments"][0]["faults"].to_string();
    assert!(said.contains("was not taken") && said.contains("°C"), "{said}");
    // A forecast with a hole is none.
    let (_, forecaster) = studio.instrument(&key, "forecast").await;
    let hour = |h: i64| json!({ "at": format!("2027-01-14T{h}:00:00Z"), "temperature_c": 3, "relative_humidity": 0.9 });
    let holed = studio.sends(&forecaster, &json!({ "hours": [hour(17), hour(19)] })).await;
    assert!(holed.problem(422).starts_with("hours[1]: it does not follow"), "{}", holed.text());
    // Ten thousand at once, and then as fast as can be.
    let flood = json!({ "readings": minutes(2000, 2000, 20.0, 0.5) });
    let mut answers = Vec::new();
    for _ in 0..3 {
        answers.push(studio.sends(&token, &flood).await);
    }
    let last = answers.pop().unwrap();
    assert!(last.problem(429).contains("5 in a second"), "{}", last.text());
    assert!(last.headers.contains_key("retry-after"));
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn silence_a_stuck_sensor_and_a_drift_are_said(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let key = studio.demo().await;
    let (_, token) = studio.instrument(&key, "hygrometer").await;
    let faults = async || {
        let list = studio.get(&format!("/api/studios/{key}/instruments")).await.json();
        list["instruments"][0]["faults"].to_string()
    };
    assert!(faults().await.contains("Nothing was heard of it yet"));
    studio.sends(&token, &json!({ "readings": minutes(600, 570, 20.0, 0.6) })).await;
    let said = faults().await;
    assert!(said.contains("since 14 January 17:03"), "{said}");
    // What the painter reads off another one, an hour ago, is drier by far.
    let air = studio.get(&format!("/api/studios/{key}/air")).await.json();
    let typed = json!({
        "version": air["version"], "at": now() - TimeDelta::hours(1),
        "temperature_c": 20.0, "relative_humidity": 0.5,
    });
    let path = format!("/api/studios/{key}/air/typed");
    assert_eq!(studio.post(&path, &typed).await.status, 200);
    let said = faults().await;
    assert!(said.contains("10.0 % damper than what you read 14 January 16:34"), "{said}");
    let stale = studio.post(&path, &typed).await;
    assert!(stale.problem(409).contains("edited elsewhere"));
    // The same to the last digit for eight hours.
    let (_, other) = studio.instrument(&key, "hygrometer").await;
    let stuck: Vec<Value> = (0..480)
        .map(|m| json!({ "at": now() - TimeDelta::minutes(480 - m), "temperature_c": 19.3, "relative_humidity": 0.47 }))
        .collect();
    studio.sends(&other, &json!({ "readings": stuck })).await;
    let list = studio.get(&format!("/api/studios/{key}/instruments")).await.json();
    let said = list["instruments"][1]["faults"].to_string();
    assert!(said.contains("the same since 14 January 09:34"), "{said}");
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_page_that_listens_hears_a_reading_when_it_comes(pool: MySqlPool) {
    let (studio, app) = Studio::with_app(pool);
    let key = studio.demo().await;
    let (_, token) = studio.instrument(&key, "hygrometer").await;
    let news = app.live.listen().unwrap();
    let mut stream = tokio_stream::wrappers::BroadcastStream::new(news);
    studio.sends(&token, &json!({ "readings": minutes(70, 70, 16.0, 0.6) })).await;
    let heard = stream.next().await.unwrap().unwrap();
    assert_eq!(heard.studio.to_string(), key);
    assert!(heard.plan && heard.relative_humidity == Some(0.6), "{heard:?}");
    app.live.end();
    assert!(stream.next().await.is_none(), "streams end with the application");
    // Of no studio nothing can be heard.
    let nothing = format!("/api/studios/{}/air/live", uuid::Uuid::nil());
    assert!(studio.get(&nothing).await.problem(404).contains("studio"));
}
