//! What is computed from a studio: outlook, strata, calendar, and the log that moves the plan.

use super::{NOW, Studio};
use chrono::{DateTime, Utc};
use icalendar::{Calendar, Component};
use serde_json::{Value, json};
use sqlx::MySqlPool;
use ulvek_store::MIGRATIONS;

fn time(value: &Value) -> DateTime<Utc> {
    value.as_str().unwrap().parse().unwrap()
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn the_demo_has_a_coat_drying_now_and_a_date_in_danger(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let key = studio.demo().await;
    let outlook = studio.get(&format!("/api/studios/{key}/outlook")).await.json();
    let pictures = outlook["pictures"].as_array().unwrap();
    let of = |title: &str| {
        pictures.iter().find(|p| p["title"].as_str().unwrap().starts_with(title)).unwrap()
    };
    let now: DateTime<Utc> = NOW.parse().unwrap();
    let last = |p: &Value| {
        p["coats"].as_array().unwrap().iter().rfind(|c| c["planned"] == false).unwrap().clone()
    };
    assert!(time(&last(of("Two carboys"))["if_left"]["paintable_at"]) > now, "still drying");
    assert!(of("Sleet")["days_late"].as_i64().unwrap() > 0, "will not make its date");
    assert!(time(&last(of("Lamp row"))["seal_from"]) < now, "ready to seal");
    assert_eq!(of("Ship's lantern")["plan"][0]["title"], "Varnish 2", "between varnish coats");
    assert_eq!(of("Storm glass")["done"], 1, "just begun");
    assert_eq!(of("Fog lamp")["plan"].as_array().unwrap().len(), 0, "finished");
    for p in pictures.iter().filter(|p| !p["title"].as_str().unwrap().starts_with("Sleet")) {
        assert_eq!(p["days_late"], 0, "{}", p["title"]);
    }
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_thicker_coat_logged_later_moves_the_plan(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let key = studio.demo().await;
    let id = studio.picture(&key, "Two carboys").await;
    let next = async || {
        let strata = studio.get(&format!("/api/pictures/{id}/strata")).await.json();
        let detail =
            strata["outlook"]["plan"].as_array().unwrap().iter().find(|s| s["step"] == "s9");
        time(&detail.unwrap()["waits_for"]["film_ready"])
    };
    let log = |version: i64, film: Value| {
        let mut entry = json!({ "version": version, "step": "s8", "at": "2027-01-14T16:30:00Z" });
        entry.as_object_mut().unwrap().extend(film.as_object().unwrap().clone());
        entry
    };
    let path = format!("/api/pictures/{id}/laid");
    assert_eq!(studio.post(&path, &log(1, json!({}))).await.status, 200);
    let thin = next().await;
    studio.post(&format!("/api/pictures/{id}/undo"), &json!({ "version": 2 })).await;
    // 40 x 50 cm: 20 ml on 0.2 m2 are 100 um.
    let thick = studio.post(&path, &log(3, json!({ "amount_ml": 20 }))).await.json();
    assert_eq!(thick["picture"]["steps"][7]["wet_film_um"], 100.0);
    assert!(next().await > thin);
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn the_calendar_has_one_event_for_each_sitting_and_alarms_when_the_film_is_ready(
    pool: MySqlPool,
) {
    let studio = Studio::on(pool);
    let key = studio.demo().await;
    let outlook = studio.get(&format!("/api/studios/{key}/outlook")).await.json();
    let plans = || {
        let pictures = outlook["pictures"].as_array().unwrap().iter();
        pictures.flat_map(|p| p["plan"].as_array().unwrap().clone())
    };
    let sittings: usize = plans().map(|s| s["sittings"].as_array().unwrap().len()).sum();
    let answer = studio.get(&format!("/api/studios/{key}/plan.ics")).await;
    assert_eq!(answer.headers["content-type"], "text/calendar; charset=utf-8");
    let text = answer.text();
    // An independent reader: the parser of the icalendar crate.
    let calendar: Calendar = text.parse().unwrap();
    let events: Vec<_> = calendar.components.iter().filter_map(|c| c.as_event()).collect();
    // The days that open pictures are due, with what is said of them, stand beside the sittings.
    let open = outlook["pictures"].as_array().unwrap().iter();
    let dated = open.filter(|p| !p["due"].is_null() && !p["plan"].as_array().unwrap().is_empty());
    let dated: Vec<&Value> = dated.map(|p| &p["date"]["said"]).collect();
    let (days, events): (Vec<_>, Vec<_>) =
        events.into_iter().partition(|e| e.get_summary().unwrap().ends_with(": due"));
    let said: Vec<Value> = days.iter().map(|e| json!(e.get_description().unwrap())).collect();
    assert!(days.len() == 5 && dated == said.iter().collect::<Vec<_>>(), "{said:?}");
    assert_eq!(events.len(), sittings);
    let uids: std::collections::HashSet<_> = events.iter().map(|e| e.get_uid().unwrap()).collect();
    assert_eq!(uids.len(), sittings, "every event has an id of its own");
    assert!(events.iter().all(|e| e.get_start().is_some() && e.get_end().is_some()));
    assert!(text.contains("DESCRIPTION:Two carboys\\, north window: paintable"), "{text}");
    assert!(text.contains("DESCRIPTION:Two carboys\\, north window: ready to seal"));
    assert!(text.lines().all(|l| l.trim_end_matches('\r').len() <= 75), "RFC 5545, 3.1: folded");
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_picture_of_200_coats_is_followed(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let key = studio.demo().await;
    let mut document = studio.get(&format!("/api/studios/{key}/document")).await.json();
    let start: DateTime<Utc> = "2026-06-01T10:00:00Z".parse().unwrap();
    let steps: Vec<Value> = (0..200)
        .map(|i| {
            json!({ "id": format!("c{i}"), "kind": "glaze", "hands_on_min": 20, "wet_film_um": 30,
                    "mix": [{ "material": "glazing", "parts": 9 }, { "material": "fluid-pv19", "parts": 1 }],
                    "laid_at": start + chrono::Duration::days(i) })
        })
        .collect();
    document["pictures"] = json!([{ "id": "many", "title": "Two hundred coats", "width_cm": 20,
                                    "height_cm": 20, "steps": steps }]);
    let made = studio.post("/api/studios/import", &document).await.json();
    let id = studio.picture(made["id"].as_str().unwrap(), "Two hundred").await;
    let strata = studio.get(&format!("/api/pictures/{id}/strata")).await;
    assert_eq!(strata.status, 200);
    assert_eq!(strata.json()["films"].as_array().unwrap().len(), 200);
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn each_section_of_a_picture_is_shown_by_itself_and_the_slowest_first(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let key = studio.demo().await;
    let now: DateTime<Utc> = NOW.parse().unwrap();
    let coat = |id: &str, um: i64, section: Option<&str>, hours_ago: i64| {
        json!({ "id": id, "kind": "pass", "hands_on_min": 20, "wet_film_um": um, "section": section,
                "mix": [{ "material": "heavy-pb29", "parts": 1 }],
                "laid_at": now - chrono::Duration::hours(hours_ago) })
    };
    let steps = json!([
        coat("all", 40, None, 50),
        coat("thick", 150, Some("left"), 3),
        coat("thin", 30, Some("right"), 2)
    ]);
    let mut document = studio.get(&format!("/api/studios/{key}/document")).await.json();
    document["pictures"] =
        json!([{ "id": "p", "title": "Panes", "width_cm": 20, "height_cm": 20, "steps": steps }]);
    let made = studio.post("/api/studios/import", &document).await.json();
    let id = studio.picture(made["id"].as_str().unwrap(), "Panes").await;
    let strata = async |query: &str| studio.get(&format!("/api/pictures/{id}/strata{query}")).await;
    let first = strata("").await.json();
    assert_eq!(first["outlook"]["top"], "thick", "the last one is dry sooner");
    let coats = first["outlook"]["coats"].as_array().unwrap();
    assert!(coats.iter().all(|coat| coat["on_top"] == true), "each lies on top somewhere");
    let place = |section: Value, slowest: bool| json!({ "section": section, "slowest": slowest });
    let places =
        [place(Value::Null, false), place(json!("left"), true), place(json!("right"), false)];
    assert_eq!(first["places"], json!(places));
    assert_eq!((&first["place"], &first["shown"]), (&json!(1), &json!([0, 1])));
    assert_eq!(strata("?section=right").await.json()["shown"], json!([0, 2]));
    assert_eq!(strata("?section=").await.json()["shown"], json!([0]));
    let said = strata("?section=middle").await.problem(422);
    assert!(said.contains("nothing lies on \"middle\""), "{said}");
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_touch_is_a_row_of_the_log_moves_the_plan_and_is_taken_back_without_a_trace_in_it(
    pool: MySqlPool,
) {
    let studio = Studio::on(pool);
    let key = studio.demo().await;
    let id = studio.picture(&key, "Sleet").await;
    let learned = async || studio.get(&format!("/api/studios/{key}/learned")).await.json();
    let paintable = async || {
        let strata = studio.get(&format!("/api/pictures/{id}/strata")).await.json();
        let coats = strata["outlook"]["coats"].as_array().unwrap().clone();
        coats.iter().rfind(|c| c["planned"] == false).unwrap()["if_left"]["paintable_at"].clone()
    };
    assert_eq!(learned().await, json!({ "sentences": [], "tests": [], "unused": [] }));
    let before = paintable().await;
    let touched = format!("/api/pictures/{id}/touched");
    let felt = json!({ "version": 1, "step": "s4", "felt": "tacky" });
    let answer = studio.post(&touched, &felt).await.json();
    assert!(answer["moves"].as_array().unwrap().len() > 1, "{answer}");
    let after = paintable().await;
    assert!(time(&after) > time(&before), "{after} after {before}");
    let known = learned().await;
    assert_eq!(
        (&known["tests"][0]["reached"], &known["tests"][0]["state"]),
        (&json!(false), &json!("touch_dry"))
    );
    // The same version again is a conflict, and what cannot be felt is refused at its place.
    studio.post(&touched, &felt).await.problem(409);
    let early = json!({ "version": 2, "step": "s4", "felt": "dry", "at": "2027-01-01T10:00:00Z" });
    assert!(studio.post(&touched, &early).await.problem(422).contains("was not on yet"));
    let test = answer["picture"]["picture"]["tests"][0].clone();
    let back = json!({ "version": 2, "test": test });
    studio.post(&format!("/api/pictures/{id}/retouched"), &back).await.json();
    assert_eq!(paintable().await, before);
    let log = studio.get(&format!("/api/pictures/{id}/log")).await.json();
    let kinds: Vec<&str> =
        log.as_array().unwrap().iter().map(|e| e["kind"].as_str().unwrap()).collect();
    assert!(kinds.ends_with(&["touched", "taken_back"]), "{kinds:?}");
    // In one of ten futures it is there before the likely time, in nine of ten by a later one.
    let spread = studio.get(&format!("/api/pictures/{id}/spread")).await.json();
    let times: Vec<_> = spread["coats"][0]["states"]
        .as_array()
        .unwrap()
        .iter()
        .map(|s| time(&s["paintable_at"]))
        .collect();
    assert!(times.is_sorted() && times[0] < times[2], "{times:?}");
}
