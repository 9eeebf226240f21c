//! The season: drafts, odds, ways, one transaction for all that is accepted, searches.

use super::Studio;
use serde_json::{Value, json};
use sqlx::MySqlPool;
use ulvek_store::MIGRATIONS;

async fn open(pool: MySqlPool) -> (Studio, String, String) {
    let studio = Studio::on(pool);
    let key = studio.demo().await;
    let season = format!("/api/studios/{key}/season");
    (studio, key, season)
}

fn picture<'a>(season: &'a Value, title: &str) -> &'a Value {
    let all = season["pictures"].as_array().unwrap();
    all.iter().find(|p| p["title"].as_str().unwrap().starts_with(title)).unwrap()
}

/// A draft that pins a step of the picture whose title begins so.
async fn pinned(studio: &Studio, key: &str, title: &str, step: &str, at: &str) -> Value {
    let id = studio.picture(key, title).await;
    let stored = studio.get(&format!("/api/pictures/{id}")).await.json();
    let mut doc = stored["picture"].clone();
    let steps = doc["steps"].as_array_mut().unwrap();
    steps.iter_mut().find(|s| s["name"] == step).unwrap()["pinned_at"] = json!(at);
    json!({ "pictures": [{ "id": id, "version": stored["version"], "picture": doc }] })
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_way_to_the_date_is_tried_accepted_and_taken_back_as_one_change(pool: MySqlPool) {
    let (studio, _, path) = open(pool).await;
    let before = studio.get(&path).await.json();
    let sleet = picture(&before, "Sleet");
    assert!(sleet["days_late"].as_i64().unwrap() > 0);
    let ways = studio.post_long(&format!("{path}/ways"), &json!({ "picture": sleet["id"] })).await;
    let ways = ways.json();
    let in_time = |w: &&Value| w["days_late"] == 0;
    let way = ways.as_array().unwrap().iter().find(in_time).unwrap().clone();
    assert!(way["risk"].as_str().unwrap().ends_with('.'));
    let tried = studio.post(&format!("{path}/what-if"), &way["draft"]).await.json();
    assert_eq!(picture(&tried, "Sleet")["days_late"], 0);
    assert_eq!(picture(&tried, "Sleet")["finish"], way["finish"]);
    let untouched = studio.get(&path).await.json();
    assert_eq!(picture(&untouched, "Sleet")["version"], 1, "a draft stores nothing");
    let accept = json!({ "label": "a way to the date", "draft": way["draft"] });
    let kept = studio.post(&format!("{path}/accept"), &accept).await;
    assert_eq!(kept.status, 200, "{}", kept.text());
    assert_eq!(picture(&studio.get(&path).await.json(), "Sleet")["days_late"], 0);
    let undone = studio.post(&format!("{path}/undo"), &kept.json()).await;
    assert_eq!(undone.status, 200, "{}", undone.text());
    let after = studio.get(&path).await.json();
    assert_eq!(picture(&after, "Sleet")["finish"], sleet["finish"]);
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_draft_of_which_one_part_is_stale_is_kept_not_at_all(pool: MySqlPool) {
    let (studio, key, path) = open(pool).await;
    let at = "2027-01-16T12:00:00+01:00";
    let mut draft = pinned(&studio, &key, "Sleet", "Lightest strokes", at).await;
    let other = pinned(&studio, &key, "Storm glass", "First colour", at).await;
    let mut second = other["pictures"][0].clone();
    second["version"] = json!(7);
    draft["pictures"].as_array_mut().unwrap().push(second);
    let accept = json!({ "label": "two pins", "draft": draft });
    let refused = studio.post(&format!("{path}/accept"), &accept).await;
    refused.problem(409);
    let season = studio.get(&path).await.json();
    assert_eq!(picture(&season, "Sleet")["version"], 1, "nothing of it was kept");
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn pins_lost_days_and_an_order_of_work_move_the_plan(pool: MySqlPool) {
    let (studio, key, path) = open(pool).await;
    let at = "2027-01-18T18:00:00+01:00";
    let draft = pinned(&studio, &key, "Sleet", "Lightest strokes", at).await;
    let tried = studio.post(&format!("{path}/what-if"), &draft).await.json();
    let work = picture(&tried, "Sleet")["work"].as_array().unwrap();
    let pinned = work.iter().find(|w| w["title"] == "Lightest strokes").unwrap();
    assert_eq!(pinned["from"], "2027-01-18T17:00:00Z");
    let stored = studio.get(&format!("/api/studios/{key}")).await.json();
    let mut settings = stored["studio"].clone();
    settings["closed"] = json!([{ "from": "2027-01-14", "to": "2027-02-25" }]);
    let lost = json!({ "studio": { "version": 1, "studio": settings } });
    let without = studio.post(&format!("{path}/what-if"), &lost).await.json();
    let late = &without["objective"]["weighted_days_late"];
    assert!(late.as_f64().unwrap() > 20.0, "{late}");
    let first = without["pictures"].as_array().unwrap().iter().flat_map(|p| {
        p["work"].as_array().unwrap().iter().map(|w| w["from"].as_str().unwrap().to_owned())
    });
    assert!(first.min().unwrap().as_str() > "2027-02-26");
    // A date on a day off hangs on the last hours before it.
    let sleet = picture(&without, "Sleet");
    assert_eq!(sleet["last_hours"]["to"], "2027-01-13T20:00:00Z");
    // Another time zone: the same hours on its clocks.
    let mut moved = stored["studio"].clone();
    moved["time_zone"] = json!("America/New_York");
    let moved = json!({ "studio": { "version": 1, "studio": moved } });
    let elsewhere = studio.post(&format!("{path}/what-if"), &moved).await.json();
    assert_eq!(elsewhere["time_zone"], "America/New_York");
    let evening = json!({ "from": "2027-01-14T22:00:00Z", "to": "2027-01-15T02:00:00Z" });
    assert!(elsewhere["sessions"].as_array().unwrap().contains(&evening));
    let mut no_such = draft.clone();
    no_such["pictures"][0]["id"] = json!("01a211d8-233d-722a-b74e-6b948b6b4cbb");
    let refused = studio.post(&format!("{path}/what-if"), &no_such).await;
    assert_eq!(refused.problem(422), "draft.pictures[0].id: the studio has no such picture");
    let mut thin = draft;
    thin["pictures"][0]["picture"]["steps"][4]["wet_film_um"] = json!(0);
    let refused = studio.post(&format!("{path}/what-if"), &thin).await;
    assert_eq!(
        refused.problem(422),
        "draft.pictures[0].picture.steps[4].wet_film_um: wet film thickness must be from 1 to \
         5000 µm, not 0 µm"
    );
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_search_is_begun_watched_and_stopped_and_its_order_can_be_kept(pool: MySqlPool) {
    let (studio, key, path) = open(pool).await;
    let path = format!("{path}/search");
    assert_eq!(studio.get(&path).await.json(), Value::Null);
    assert_eq!(
        studio.post(&path, &json!({ "seconds": 0 })).await.problem(422),
        "seconds: must be above 0 and at most 600, not 0"
    );
    let begun = studio.post(&path, &json!({ "seconds": 600 })).await;
    assert_eq!(begun.status, 202, "{}", begun.text());
    assert_eq!(
        studio.post(&path, &json!({ "seconds": 5 })).await.problem(409),
        "A search is running already; stop it first."
    );
    let stopped = studio.send(axum::http::Method::DELETE, &path, axum::body::Body::empty()).await;
    assert_eq!(stopped.status, 204);
    // The stream ends with the search; its last event is the result.
    let told = studio.get(&format!("{path}/events")).await.text();
    let last = told.lines().rfind(|l| l.starts_with("data: ")).unwrap();
    let end: Value = serde_json::from_str(last.trim_start_matches("data: ")).unwrap();
    assert_eq!(end["running"], false);
    let late = |o: &Value| o["weighted_days_late"].as_f64().unwrap();
    assert!(late(&end["best"]) <= late(&end["start"]) && late(&end["bound"]) <= late(&end["best"]));
    let stored = studio.get(&format!("/api/studios/{key}")).await.json();
    let mut settings = stored["studio"].clone();
    settings["order"] = end["order"].clone();
    let draft = json!({ "studio": { "version": 1, "studio": settings } });
    let accept = json!({ "label": "a better order of work", "draft": draft });
    let base = path.trim_end_matches("/search");
    assert_eq!(studio.post(&format!("{base}/accept"), &accept).await.status, 200);
    let season = studio.get(base).await.json();
    let sum = |o: &Value| o["sum_of_finish_min"].as_f64().unwrap();
    // A minute or two passed on the application's clock meanwhile.
    assert!((sum(&season["objective"]) - sum(&end["best"])).abs() < 60.0);
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn the_week_sheet_says_what_to_mix_and_the_calendar_too(pool: MySqlPool) {
    let (studio, key, _) = open(pool).await;
    let week = studio.get(&format!("/api/studios/{key}/week?from=2027-01-14")).await.json();
    assert_eq!(week["days"].as_array().unwrap().len(), 7);
    let all =
        || week["days"].as_array().unwrap().iter().flat_map(|d| d["work"].as_array().unwrap());
    let glaze = all().find(|w| w["title"] == "Glaze 3").unwrap();
    // 40 x 50 cm at 40 um are 8 ml; 15 % stay in cup and brush: C1V1 shares of 9.4 ml.
    let cup = "Mix 9.4 ml: 8.9 ml Glazing liquid + 0.47 ml Phthalo blue PB15:3, fluid, 9 drops.";
    assert_eq!(glaze["cup"], cup);
    let calendar = studio.get(&format!("/api/studios/{key}/plan.ics")).await.text();
    let unfolded = calendar.replace("\r\n ", "").replace("\\,", ",");
    assert!(unfolded.contains(cup), "{unfolded}");
    let humid = |work: &&Value| {
        work["beside"][0].as_str().is_some_and(|said| said.starts_with("Humidifier on from "))
    };
    assert!(all().any(|work| humid(&work)), "{week}");
    assert!(unfolded.contains("DESCRIPTION:Humidifier on"));
    // Half an hour before it varnish is laid on another picture: nothing raises the air.
    let pass = all().find(|w| w["title"] == "Lighter").unwrap();
    assert!(!humid(&pass), "{pass}");
    let refused = studio.get(&format!("/api/studios/{key}/week?from=soon")).await;
    assert!(refused.problem(422).contains("from"));
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn odds_are_those_of_120_futures_and_react_to_a_day(pool: MySqlPool) {
    let (studio, _, path) = open(pool).await;
    let odds = studio.post_long(&format!("{path}/odds"), &json!({})).await.json();
    assert_eq!(odds["futures"], 120);
    for p in odds["pictures"].as_array().unwrap() {
        assert!(p["day_10"].as_str() <= p["day_50"].as_str());
        assert!(p["day_50"].as_str() <= p["day_90"].as_str());
        // A date is said with its odds, and as it stands by them.
        let (share, date) = (p["on_day"].as_f64().unwrap(), &p["date"]);
        if date["standing"] != "done" {
            let told = p["told"].as_str().unwrap();
            assert!(date["said"].as_str().unwrap().ends_with(&format!(": {told}.")), "{date}");
            assert_eq!(date["standing"] == "late", share < 0.45, "{share}: {date}");
        }
    }
    // The demo's late picture: a day more is worth telling.
    let sleet = &odds["pictures"][1];
    assert_eq!(sleet["date"]["standing"], "late", "{sleet}");
    assert!(sleet["beside"].as_str().unwrap().starts_with("A day earlier "), "{sleet}");
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn what_belongs_to_another_studio_or_was_changed_since_is_not_taken_back(pool: MySqlPool) {
    let (studio, key, path) = open(pool).await;
    let other = studio.demo().await;
    let foreign = studio.picture(&other, "Sleet").await;
    let mine = studio.picture(&key, "Sleet").await;
    let stored = studio.get(&format!("/api/pictures/{mine}")).await.json();
    let mut heavier = stored["picture"].clone();
    heavier["weight"] = json!(3);
    let draft = json!({ "pictures": [{ "id": mine, "version": 1, "picture": heavier }] });
    let accept = json!({ "label": "weigh it more", "draft": draft });
    let kept = studio.post(&format!("{path}/accept"), &accept).await.json();
    assert_eq!(kept, json!({ "pictures": [{ "id": mine, "version": 2 }] }));
    // One that belongs elsewhere takes none of them back.
    let mut both = kept.clone();
    both["pictures"].as_array_mut().unwrap().push(json!({ "id": foreign, "version": 1 }));
    studio.post(&format!("{path}/undo"), &both).await.problem(404);
    let still = studio.get(&format!("/api/pictures/{mine}")).await.json();
    assert_eq!((&still["version"], &still["picture"]["weight"]), (&json!(2), &json!(3.0)));
    // Nor is it taken back over an edit that came after.
    let edit = json!({ "version": 2, "label": "rename", "picture": stored["picture"] });
    assert_eq!(studio.put(&format!("/api/pictures/{mine}"), &edit).await.status, 200);
    studio.post(&format!("{path}/undo"), &kept).await.problem(409);
    // The draft is refused whole when its settings are: nothing of the picture is kept.
    let settings = studio.get(&format!("/api/studios/{key}")).await.json();
    let mut hours = settings["studio"].clone();
    hours["hours"] = json!([{ "day": "sat", "from": "16:00", "to": "10:00" }]);
    let draft = json!({
        "studio": { "version": 1, "studio": hours },
        "pictures": [{ "id": mine, "version": 3, "picture": heavier }] });
    let refused =
        studio.post(&format!("{path}/accept"), &json!({ "label": "both", "draft": draft })).await;
    assert!(refused.problem(422).starts_with("draft.studio.studio.hours[0]: "));
    let after = studio.get(&format!("/api/pictures/{mine}")).await.json();
    assert_eq!(after["version"], 3);
}
