//! What was lost, taken for another, or taken down once and must not be again.

use super::Studio;
use axum::body::Body;
use axum::http::Method;
use serde_json::{Value, json};
use sqlx::MySqlPool;
use ulvek_store::MIGRATIONS;

async fn document(studio: &Studio, key: &str) -> Value {
    studio.get(&format!("/api/studios/{key}/document")).await.json()
}

/// An edit of the picture at `path` as it is stored, changed by `change`.
async fn edited(studio: &Studio, path: &str, change: impl FnOnce(&mut Value)) -> Value {
    let stored = studio.get(path).await.json();
    let mut edit =
        json!({ "version": stored["version"], "label": "edit", "picture": stored["picture"] });
    change(&mut edit["picture"]);
    edit
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_log_replaces_its_own_span_and_no_later_reading(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let key = studio.demo().await;
    let before = document(&studio, &key).await["air"]["hourly"].as_array().unwrap().clone();
    assert!(before.len() > 200);
    let csv = "at,temperature_c,relative_humidity\n\
               2026-12-10T10:00:00Z,19.5,0.44\n2026-12-10T11:00:00Z,19.7,0.45\n";
    let version = studio.get(&format!("/api/studios/{key}")).await.json()["version"].clone();
    let edit = json!({ "version": version, "source": "readings", "csv": csv });
    let answer = studio.put(&format!("/api/studios/{key}/air"), &edit).await;
    assert_eq!(answer.status, 200, "{}", answer.text());
    let after = document(&studio, &key).await["air"]["hourly"].as_array().unwrap().clone();
    for reading in &before {
        assert!(after.contains(reading), "{reading} is gone");
    }
    assert_eq!(after.len(), before.len() + 3, "two readings, and what is usual again after them");
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn of_two_who_name_a_photograph_the_second_is_told_and_it_goes_with_its_picture(
    pool: MySqlPool,
) {
    let studio = Studio::on(pool);
    let key = studio.demo().await;
    let b = studio.picture(&key, "Sleet").await;
    let mut png = std::io::Cursor::new(Vec::new());
    image::RgbImage::new(30, 20).write_to(&mut png, image::ImageFormat::Png).unwrap();
    let at = format!("/api/pictures/{b}/photographs?caption=B");
    let kept = studio.bring(&at, png.into_inner()).await.json();
    let photograph = kept["id"].as_str().unwrap();
    let words =
        |caption: &str| json!({ "version": 1, "taken_at": kept["taken_at"], "caption": caption });
    let one = format!("/api/photographs/{photograph}");
    assert_eq!(studio.put(&one, &words("first")).await.json()["version"], 2);
    let stale = studio.put(&one, &words("second")).await;
    assert!(stale.problem(409).contains("version 1, version 2 is stored"), "{}", stale.text());
    let away = studio.send(Method::DELETE, &format!("{one}?version=1"), Body::empty()).await;
    away.problem(409);
    let listed = studio.get(&format!("/api/pictures/{b}/photographs")).await.json();
    assert!(listed.as_array().unwrap().iter().any(|f| f["caption"] == "first"), "{listed}");
    // With its picture it is away, and comes back with it.
    let version = studio.get(&format!("/api/pictures/{b}")).await.json()["version"].clone();
    let away = format!("/api/pictures/{b}?version={version}");
    assert_eq!(studio.send(Method::DELETE, &away, Body::empty()).await.status, 204);
    let pixels = format!("/api/photographs/{photograph}/small");
    studio.get(&pixels).await.problem(404);
    studio.post(&format!("/api/pictures/{b}/restore"), &Value::Null).await;
    assert_eq!(studio.get(&pixels).await.status, 200);
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn what_was_exported_can_be_imported_also_after_things_went_and_came_back(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let key = studio.demo().await;
    let picture = studio.picture(&key, "Two carboys").await;
    let path = format!("/api/pictures/{picture}");
    // Only this picture uses a material, goes away, and the material after it.
    let shelf_path = format!("/api/studios/{key}/shelf");
    let shelf = async |own: bool| {
        let shelf = studio.get(&shelf_path).await.json();
        let mut edit = super::shelf::edit(&shelf, "shelf");
        let materials = edit["materials"].as_array_mut().unwrap();
        materials.retain(|m| m["id"] != "own");
        if own {
            let mut one = materials[0].clone();
            one["id"] = json!("own");
            materials.push(one);
        }
        studio.put(&shelf_path, &edit).await
    };
    let answer = shelf(true).await;
    assert_eq!(answer.status, 200, "{}", answer.text());
    let edit = edited(&studio, &path, |p| {
        let open = p["steps"].as_array_mut().unwrap().iter_mut().find(|s| {
            s["laid_at"].is_null()
                && s["mix"].as_array().is_some_and(|m| !m.is_empty())
                && s["tub"].is_null()
        });
        open.unwrap()["mix"] = json!([{ "material": "own", "parts": 1 }]);
    })
    .await;
    let answer = studio.put(&path, &edit).await;
    assert_eq!(answer.status, 200, "{}", answer.text());
    let version = answer.json()["version"].clone();
    let away = format!("{path}?version={version}");
    assert_eq!(studio.send(Method::DELETE, &away, Body::empty()).await.status, 204);
    assert_eq!(shelf(false).await.status, 200);
    let refused = studio.post(&format!("{path}/restore"), &Value::Null).await.problem(422);
    assert!(refused.contains("no material \"own\" is on the shelf"), "{refused}");
    studio.get(&path).await.problem(404);
    let exported = document(&studio, &key).await;
    let again = studio.post("/api/studios/import", &exported).await;
    assert_eq!(again.status, 201, "{}", again.text());
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_studio_never_grows_past_what_can_be_imported(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let key = studio.demo().await;
    let mut whole = document(&studio, &key).await;
    let bare = json!({ "title": "Small", "width_cm": 10, "height_cm": 10, "weight": 1,
                       "ground": { "absorbs_um": 0 }, "steps": [] });
    let pictures = whole["pictures"].as_array_mut().unwrap();
    while pictures.len() < 500 {
        let mut one = bare.clone();
        one["id"] = json!(format!("p{}", pictures.len()));
        pictures.push(one);
    }
    let hour = |n: i64| {
        let at = "2005-01-01T00:00:00Z".parse::<chrono::DateTime<chrono::Utc>>().unwrap();
        json!({ "at": at + chrono::Duration::hours(n), "temperature_c": 20, "relative_humidity": 0.5 })
    };
    whole["air"]["hourly"] = (0..90_000).map(hour).collect();
    let full = studio.post("/api/studios/import", &whole).await.json()["id"].clone();
    let full = full.as_str().unwrap();
    let mut one = bare.clone();
    one["id"] = json!("more");
    let refused = studio.post(&format!("/api/studios/{full}/pictures"), &one).await.problem(422);
    assert_eq!(refused, "a studio holds at most 500 pictures");
    let csv = "at,temperature_c,relative_humidity\n2026-12-10T10:00:00Z,19.5,0.44\n";
    let edit = json!({ "version": 1, "source": "readings", "csv": csv });
    let refused = studio.put(&format!("/api/studios/{full}/air"), &edit).await.problem(422);
    assert!(
        refused.ends_with("with it the studio has 90003 readings; at most 90000 are taken"),
        "{refused}"
    );
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn dates_out_of_the_table_are_refused_at_every_door_and_those_at_its_ends_bear(
    pool: MySqlPool,
) {
    let studio = Studio::on(pool);
    let key = studio.demo().await;
    let picture = studio.picture(&key, "Two carboys").await;
    let path = format!("/api/pictures/{picture}");
    let refused = async |change: fn(&mut Value)| {
        let edit = edited(&studio, &path, change).await;
        studio.put(&path, &edit).await.problem(422)
    };
    assert_eq!(
        refused(|p| p["due"] = json!("9999-12-31")).await,
        "due: must be from 2000-01-01 to 2099-12-31, not 9999-12-31"
    );
    let laid = refused(|p| p["steps"][0]["laid_at"] = json!("0026-01-04T10:00:00Z")).await;
    assert!(laid.starts_with("picture.steps[0].laid_at: must be from 2000-01-01"), "{laid}");
    let log = json!({ "version": 1, "step": "s1", "at": "0026-01-04T10:00:00Z" });
    studio.post(&format!("{path}/laid"), &log).await.problem(422);
    studio.get(&format!("/api/studios/{key}/week?from=9999-12-31")).await.problem(422);
    let csv = "at,temperature_c,relative_humidity\n0026-12-10T10:00:00Z,19.5,0.44\n";
    let edit = json!({ "version": 1, "source": "readings", "csv": csv });
    let said = studio.put(&format!("/api/studios/{key}/air"), &edit).await.problem(422);
    assert!(said.starts_with("csv: line 2: the time must be from"), "{said}");
    let mut whole = document(&studio, &key).await;
    whole["studio"]["closed"] = json!([{ "from": "2027-01-01", "to": "9999-01-03" }]);
    let said = studio.post("/api/studios/import", &whole).await.problem(422);
    assert!(said.starts_with("studio.closed[0].to: must be"), "{said}");

    // The ends of the table: a picture begun in 2000, due in 2099, is answered for.
    whole["studio"]["closed"] = json!([]);
    whole["pictures"][0]["due"] = json!("2099-12-31");
    whole["pictures"][0]["steps"][0]["laid_at"] = json!("2000-01-01T00:00:00Z");
    let far = studio.post("/api/studios/import", &whole).await;
    assert_eq!(far.status, 201, "{}", far.text());
    let far = far.json()["id"].as_str().unwrap().to_owned();
    for view in ["outlook", "season", "gates", "week", "shelf", "air", "plan.ics", "document"] {
        let answer = studio.get(&format!("/api/studios/{far}/{view}")).await;
        assert_eq!(answer.status, 200, "{view}: {}", answer.text());
    }
    let outlook = studio.get(&format!("/api/studios/{far}/outlook")).await.json();
    let first = outlook["pictures"][0]["id"].as_str().unwrap();
    for view in ["strata", "gate", "record"] {
        let answer = studio.get(&format!("/api/pictures/{first}/{view}")).await;
        assert_eq!(answer.status, 200, "{view}: {}", answer.text());
    }
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_name_is_one_line_and_a_calendar_holds_what_is_planned_and_nothing_else(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let key = studio.demo().await;
    let stored = studio.get(&format!("/api/studios/{key}")).await.json();
    let mut settings = stored["studio"].clone();
    for name in ["A\r\nEND:VCALENDAR", "A\u{7}", "A\u{202e}B", "A\u{2028}B"] {
        settings["name"] = json!(name);
        let edit = json!({ "version": 1, "label": "rename", "studio": settings });
        let said = studio.put(&format!("/api/studios/{key}"), &edit).await.problem(422);
        assert_eq!(said, "studio.name: must be one line without control characters");
    }
    settings["name"] = stored["studio"]["name"].clone();
    let edit = json!({ "version": 1, "label": "a\nb", "studio": settings });
    let said = studio.put(&format!("/api/studios/{key}"), &edit).await.problem(422);
    assert!(said.starts_with("label: "), "{said}");

    let other = studio.demo().await;
    let calendar =
        async |key: &str| studio.get(&format!("/api/studios/{key}/plan.ics")).await.text();
    let (one, two, again) = (calendar(&key).await, calendar(&other).await, calendar(&key).await);
    let lines = |text: &str, name: &str| -> Vec<String> {
        text.lines().filter(|l| l.starts_with(name)).map(str::to_owned).collect()
    };
    assert_eq!(lines(&one, "PRODID").len(), 1, "RFC 5545, 3.6: once");
    assert_eq!(lines(&one, "UID"), lines(&again, "UID"), "the same from plan to plan");
    let mut ids = lines(&one, "UID");
    assert!(ids.len() > 5);
    ids.extend(lines(&two, "UID"));
    let all = ids.len();
    ids.sort();
    ids.dedup();
    assert_eq!(ids.len(), all, "of events and alarms, in every studio");
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_studio_is_taken_away_and_brought_back_whole(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let key = studio.demo().await;
    let before = document(&studio, &key).await;
    let picture = studio.picture(&key, "Two carboys").await;
    let away = async |version: i64| {
        let path = format!("/api/studios/{key}?version={version}");
        studio.send(Method::DELETE, &path, Body::empty()).await
    };
    away(7).await.problem(409);
    assert_eq!(away(1).await.status, 204);
    assert_eq!(studio.get("/api/studios").await.json(), json!([]));
    let listed = studio.get("/api/studios?taken_away=true").await.json();
    assert_eq!(listed[0]["id"], key);
    studio.get(&format!("/api/studios/{key}/outlook")).await.problem(404);
    studio.get(&format!("/api/pictures/{picture}")).await.problem(404);
    away(2).await.problem(404);
    let back = studio.post(&format!("/api/studios/{key}/restore"), &Value::Null).await;
    assert_eq!(back.status, 200, "{}", back.text());
    assert_eq!(document(&studio, &key).await, before);
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn edits_that_lock_each_other_out_all_go_through_or_conflict(pool: MySqlPool) {
    let studio = std::sync::Arc::new(Studio::on(pool));
    let key = studio.demo().await;
    let [a, b] = [studio.picture(&key, "Two carboys").await, studio.picture(&key, "Sleet").await];
    // Two drafts that touch the same two pictures in opposite order, again and again.
    let mut lost = 0;
    for _ in 0..10 {
        let draft = async |ids: [&str; 2]| {
            let mut pictures = Vec::new();
            for id in ids {
                let stored = studio.get(&format!("/api/pictures/{id}")).await.json();
                pictures.push(
                    json!({ "id": id, "version": stored["version"], "picture": stored["picture"] }),
                );
            }
            json!({ "label": "both", "draft": { "pictures": pictures } })
        };
        let (one, two) = (draft([&a, &b]).await, draft([&b, &a]).await);
        let accept = |draft: Value| {
            let (studio, key) = (studio.clone(), key.clone());
            async move { studio.post(&format!("/api/studios/{key}/season/accept"), &draft).await }
        };
        let (one, two) = tokio::join!(accept(one), accept(two));
        let mut statuses = [one.status.as_u16(), two.status.as_u16()];
        statuses.sort_unstable();
        assert_eq!(statuses, [200, 409], "{} {}", one.text(), two.text());
        lost += 1;
    }
    assert_eq!(lost, 10);
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn connections_outlive_those_who_hang_up(pool: MySqlPool) {
    let studio = Studio::on(pool.clone());
    let key = studio.demo().await;
    let (view, steps) = (format!("/api/studios/{key}/outlook"), 60);
    for step in 0..steps {
        // Each hangs up a little later: before, between and in the middle of answers of the database.
        let patience = std::time::Duration::from_micros(250 * step);
        let _ = tokio::time::timeout(patience, studio.get(&view)).await;
    }
    // Every connection there is answers what it is asked, not what another was asked before.
    let mut held = Vec::new();
    for number in 0..i64::from(pool.options().get_max_connections()) {
        let mut connection = pool.acquire().await.unwrap();
        let said: i64 =
            sqlx::query_scalar("SELECT ?").bind(number).fetch_one(&mut *connection).await.unwrap();
        assert_eq!(said, number);
        held.push(connection);
    }
}
