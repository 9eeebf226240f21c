//! What happened on pictures of the demo: entered, found again, put right.

use super::Studio;
use chrono::{DateTime, Utc};
use serde_json::{Value, json};
use sqlx::MySqlPool;
use ulvek_store::MIGRATIONS;

async fn of(studio: &Studio, path: &str, words: &str) -> Value {
    studio.get(&format!("{path}?words={}", words.replace(' ', "%20"))).await.json()
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn what_happened_changes_the_plan_and_is_found_again_by_its_words(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let key = studio.demo().await;
    let id = studio.picture(&key, "Two carboys").await;
    let path = format!("/api/pictures/{id}");
    let picture = studio.get(&path).await.json();
    let steps = picture["picture"]["steps"].as_array().unwrap();
    let laid = steps.iter().rev().find(|s| !s["laid_at"].is_null()).unwrap();
    let streaks = json!({
        "version": picture["version"], "step": laid["id"], "place": "lower left glass",
        "words": "too dry a brush", "what": { "kind": "trouble", "trouble": "streaks" },
    });
    let told = studio.post(&format!("{path}/happened"), &streaks).await.json();
    assert!(told["said"][0].as_str().unwrap().starts_with("Wipe it off evenly"), "{told}");
    // Twice the same, and on a version that has passed.
    let twice = studio.post(&format!("{path}/happened"), &streaks).await;
    assert_eq!(twice.status.as_u16(), 409);
    let log = format!("/api/studios/{key}/log");
    for words in ["lower", "streaks", "dry brush", "carboys left"] {
        let found = of(&studio, &log, words).await;
        assert_eq!((&found["of"], &found["some"]), (&json!(1), &json!(false)), "{words}: {found}");
        assert_eq!(found["entries"][0]["place"], "lower left glass");
    }
    // A number counts with the word beside it.
    let third = of(&studio, &log, "carboys glaze 2").await;
    let all = of(&studio, &log, "carboys glaze").await;
    assert!(third["of"].as_u64() < all["of"].as_u64(), "{third}");
    let titles = third["entries"].as_array().unwrap().iter().map(|e| &e["step_title"]);
    assert!(titles.clone().count() > 0 && titles.clone().all(|t| t == "Glaze 2"), "{third}");
    let backwards = of(&studio, &log, "7 glaze").await;
    assert!(backwards["some"] == true && backwards["of"].as_u64() > Some(0), "{backwards}");
    // A question in words: no entry has all of them.
    let asked = of(&studio, &log, "which streaks did I find under the moon").await;
    assert_eq!(
        (&asked["some"], &asked["entries"][0]["entry"]["kind"]),
        (&json!(true), &json!("trouble"))
    );
    // Where was a pigment used: by its Colour Index name, and by the material.
    let pigment = of(&studio, &log, "PB29").await;
    assert!(pigment["of"].as_u64().unwrap() > 0);
    let entries = pigment["entries"].as_array().unwrap();
    assert!(
        entries.iter().any(|e| e["mix"].as_str().is_some_and(|m| m.contains("PB29"))),
        "{pigment}"
    );
    let used = studio.get(&format!("{log}?material=heavy-pb29")).await.json();
    assert!(used["of"].as_u64().unwrap() > 0);
    assert_eq!(studio.get(&format!("{log}?material=heavy-pb2")).await.json()["of"], 0);
    assert_eq!(studio.get(&format!("{log}?words=%20&kind=noted")).await.json()["of"], 0);
    assert!(studio.get(&format!("{log}?take=0")).await.problem(422).starts_with("take: "));

    // Put right, and found by its new words only.
    let entry = &told["entry"];
    let instead = json!({ "at": entry["at"], "place": "upper rim", "words": "" });
    let right =
        json!({ "version": told["picture"]["version"], "entry": entry, "instead": instead });
    let kept = studio.post(&format!("{path}/retold"), &right).await.json();
    assert_eq!(of(&studio, &log, "brush").await["of"], 0);
    assert_eq!(of(&studio, &log, "rim").await["of"], 1);
    let none = json!({ "version": kept["version"], "entry": entry });
    let refused = studio.post(&format!("{path}/retold"), &none).await.problem(422);
    assert_eq!(refused, "entry: that entry is not kept any more");
    // Every entry stays in the history, the one that was put right among it.
    let all = studio.get(&format!("{path}/log")).await.json();
    let troubles: Vec<&Value> =
        all.as_array().unwrap().iter().filter(|e| e["kind"] == "trouble").collect();
    assert_eq!(troubles.len(), 2);
    assert_eq!(troubles[1]["corrects"], troubles[0]["number"]);
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_coat_is_put_right_in_place_and_what_that_breaks_is_said_before(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let key = studio.demo().await;
    let id = studio.picture(&key, "Two carboys").await;
    let path = format!("/api/pictures/{id}");
    let picture = studio.get(&path).await.json();
    let steps = picture["picture"]["steps"].as_array().unwrap();
    let laid: Vec<&Value> =
        steps.iter().filter(|s| s["wet_film_um"].is_number() && !s["laid_at"].is_null()).collect();
    let (below, top) = (laid[laid.len() - 2], laid[laid.len() - 1]);
    // The coat below, put right to five minutes before the one on it.
    let at = chrono::DateTime::parse_from_rfc3339(top["laid_at"].as_str().unwrap()).unwrap();
    let late = at - chrono::Duration::minutes(5);
    let entry = json!({ "version": picture["version"], "step": below["id"], "at": late, "wet_film_um": 90 });
    let said = studio.post(&format!("{path}/laid/preview"), &entry).await.json();
    assert!(said["too_early"].to_string().contains("would lie on"), "{said}");
    let same = json!({ "version": picture["version"], "step": top["id"], "at": top["laid_at"] });
    let said = studio.post(&format!("{path}/laid/preview"), &same).await.json();
    assert_eq!(said["too_early"], json!([]));
    let mix = json!([{ "material": "heavy-py42", "parts": 1.0 }]);
    let kept = json!({ "version": picture["version"], "step": top["id"], "at": top["laid_at"], "mix": mix, "wet_film_um": 33 });
    let after = studio.post(&format!("{path}/laid"), &kept).await.json();
    let steps = after["picture"]["steps"].as_array().unwrap();
    let step = steps.iter().find(|s| s["id"] == top["id"]).unwrap();
    assert_eq!((&step["mix"], &step["wet_film_um"]), (&mix, &json!(33.0)));
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_swatch_that_was_made_is_kept_beside_the_prediction_and_starts_the_next(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let key = studio.demo().await;
    let id = studio.picture(&key, "Sleet").await;
    let path = format!("/api/pictures/{id}");
    let mix =
        json!([{ "material": "fluid-pb15", "parts": 1 }, { "material": "glazing", "parts": 9 }]);
    let ask = json!({ "mix": mix, "wet_film_um": 40, "step": "s5" });
    let book = studio.post(&format!("{path}/colour"), &ask).await.json();
    let version = studio.get(&path).await.json()["version"].clone();
    let swatch = |white: &str, black: &str| {
        json!({ "version": version, "step": "s5", "what": { "kind": "swatch", "mix": mix,
            "wet_film_um": 40, "over_white": white, "over_black": black } })
    };
    let refused = studio.post(&format!("{path}/happened"), &swatch("#101010", "#a0a0a0")).await;
    assert!(refused.problem(422).starts_with("over_white: the paint is darker"));
    studio.post(&format!("{path}/happened"), &swatch("#a9c4d8", "#1d2530")).await.json();
    let seen = studio.post(&format!("{path}/colour"), &ask).await.json();
    assert_eq!(seen["over_white"], "#a9c4d8");
    assert_eq!(seen["seen"]["predicted"][0], book["over_white"]);
    assert!(seen["seen"]["apart"].as_f64().unwrap() > 2.0);
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_table_is_looked_at_first_and_its_good_rows_are_kept_all_at_once(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let key = studio.demo().await;
    let path = format!("/api/studios/{key}/log.csv");
    let title = "Two carboys, north window";
    let table = format!(
        "at,picture,what,place,words\r\n\
         2027-01-14 10:00,\"{title}\",noted,sill,\"cold light, \"\"pewter\"\"\"\r\n\
         2027-01-14 10:00,Moonlight,noted,,\"two\nlines\"\r\n\
         yesterday,\"{title}\",noted,,x\r\n\
         2027-01-14 10:05,\"{title}\",laid,,x\r\n\
         2030-01-14 10:05,\"{title}\",noted,,ahead\r\n\
         2027-01-14 10:07,\"{title}\",noted\r\n"
    );
    let looked = studio.bring(&path, table.clone().into()).await.json();
    let lines: Vec<u64> =
        looked["bad"].as_array().unwrap().iter().map(|b| b["line"].as_u64().unwrap()).collect();
    assert_eq!((&looked["good"], &looked["kept"]), (&json!(1), &json!(false)), "{looked}");
    // A text of two lines is one row: the next one begins a line later.
    assert_eq!(lines, [3, 5, 6, 7, 8], "{looked}");
    let log = format!("/api/studios/{key}/log");
    assert_eq!(of(&studio, &log, "pewter").await["of"], 0, "nothing is kept yet");
    studio.bring(&format!("{path}?keep=true"), table.clone().into()).await.json();
    let found = of(&studio, &log, "pewter").await;
    assert_eq!(found["entries"][0]["entry"]["words"], "cold light, \"pewter\"");
    // Sent twice it changes nothing.
    let again = studio.bring(&format!("{path}?keep=true"), table.into()).await.json();
    assert_eq!(again["good"], 0);
    // Taken out, it is read again: the same note, which is there already.
    let out = studio.get(&format!("{path}?kind=noted")).await.text();
    assert!(out.starts_with("at,entered_at,picture,what,step,"), "{out}");
    let back = studio.bring(&path, out.into_bytes()).await.json();
    assert!(back["bad"][0]["why"].as_str().unwrap().contains("kept already"), "{back}");
    let other = studio.bring(&path, b"date;amount\n1;2\n".to_vec()).await;
    assert!(other.problem(422).starts_with("csv: line 1 has no column \"at\""));
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn an_entry_that_is_sent_twice_is_kept_once(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let key = studio.demo().await;
    let id = studio.picture(&key, "Two carboys").await;
    let path = format!("/api/pictures/{id}/happened");
    let send = async |own: &str, version: i64| {
        let note = json!({ "version": version, "words": "quiet", "what": { "kind": "noted" } });
        let headers = [("content-type", "application/json"), ("idempotency-key", own)];
        let body = axum::body::Body::from(note.to_string());
        studio.ask(axum::http::Method::POST, &path, &headers, body).await
    };
    let own = "01946c7e-0000-7000-8000-000000000001";
    let version =
        studio.get(&format!("/api/pictures/{id}")).await.json()["version"].as_i64().unwrap();
    assert_eq!(send(own, version).await.json()["picture"]["version"], version + 1);
    // The page heard no answer, and sends it again; also on the version that is stored now.
    for on in [version, version + 1] {
        assert!(send(own, on).await.problem(409).contains("kept already"));
    }
    // One that was refused is not kept: it may be sent again.
    let other = "01946c7e-0000-7000-8000-000000000002";
    assert!(send(other, version).await.problem(409).contains("edited elsewhere"));
    assert_eq!(send(other, version + 1).await.status, 200);
    assert!(send("no id", version).await.problem(422).contains("UUID"));
    let log = studio.get(&format!("/api/studios/{key}/log?words=quiet")).await.json();
    assert_eq!(log["of"], 2);
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn the_day_book_keeps_what_is_about_no_picture(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let key = studio.demo().await;
    let book = format!("/api/studios/{key}/daybook");
    let log = format!("/api/studios/{key}/log");
    let (began, ended) = ("2027-01-14T15:00:00Z", "2027-01-14T16:20:00Z");
    let session = json!({ "at": began, "what": { "kind": "session", "until": ended }, "words": "good light" });
    let kept = studio.post(&book, &session).await.json();
    assert_eq!(kept["what"]["kind"], "session");
    let note =
        json!({ "what": { "kind": "noted" }, "material": "glazing", "words": "skinned over" });
    assert_eq!(studio.post(&book, &note).await.status, 200);
    assert_eq!(studio.post(&book, &json!({ "what": { "kind": "misted" } })).await.status, 200);
    // Found by its words, by its material and by its kind, and under no picture.
    let found = of(&studio, &log, "good light").await;
    assert_eq!(
        (&found["of"], &found["entries"][0]["picture"], &found["entries"][0]["entry"]["until"]),
        (&json!(1), &Value::Null, &json!(ended))
    );
    assert_eq!(studio.get(&format!("{log}?material=glazing&kind=noted")).await.json()["of"], 1);
    let carboys = studio.picture(&key, "Two carboys").await;
    assert_eq!(studio.get(&format!("{log}?picture={carboys}&kind=misted")).await.json()["of"], 0);
    // Put right, and by who still sees the old one; taken back; all of it stays in the record.
    let longer =
        json!({ "at": began, "what": { "kind": "session", "until": "2027-01-14T16:30:00Z" } });
    let right = json!({ "entry": kept, "instead": longer });
    let kept_now = studio.post(&format!("{book}/retold"), &right).await.json();
    assert!(studio.post(&format!("{book}/retold"), &right).await.problem(422).contains("any more"));
    let back = json!({ "entry": kept_now });
    assert_eq!(studio.post(&format!("{book}/retold"), &back).await.json(), Value::Null);
    assert_eq!(studio.get(&format!("{log}?kind=session")).await.json()["of"], 0);
    assert_eq!(studio.get(&book).await.json().as_array().unwrap().len(), 5);
    // It goes with the studio.
    let document = studio.get(&format!("/api/studios/{key}/document")).await.json();
    assert_eq!(document["happened"].as_array().unwrap().len(), 2);
    // What cannot be: in the future, backwards, about a coat, or on a picture.
    let future =
        json!({ "at": ended, "what": { "kind": "session", "until": "2027-01-14T23:00:00Z" } });
    assert!(studio.post(&book, &future).await.problem(422).starts_with("until: "));
    let backwards = json!({ "at": ended, "what": { "kind": "session", "until": began } });
    assert!(studio.post(&book, &backwards).await.problem(422).starts_with("until: "));
    let wiped = json!({ "what": { "kind": "wiped_off" } });
    assert!(studio.post(&book, &wiped).await.problem(422).starts_with("what: "));
    let on_picture = json!({ "version": 1, "at": began, "what": session["what"] });
    let answer = studio.post(&format!("/api/pictures/{carboys}/happened"), &on_picture).await;
    assert!(answer.problem(422).starts_with("what: "));
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn what_was_planned_stands_beside_what_was_done(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let key = studio.demo().await;
    let id = studio.picture(&key, "Two carboys").await;
    let laid = |version: i64, at: &str, um: f64| json!({ "version": version, "step": "s8", "at": at, "wet_film_um": um });
    let path = format!("/api/pictures/{id}");
    let answer = studio.post(&format!("{path}/laid"), &laid(1, "2027-01-14T16:30:00Z", 41.0)).await;
    assert_eq!(answer.status, 200);
    let entry = async || {
        loop {
            let log = studio.get(&format!("/api/studios/{key}/log?picture={id}&kind=laid")).await;
            let entry = log.json()["entries"][0]["entry"].clone();
            assert_eq!(entry["step"], "s8");
            if !entry["planned_at"].is_null() {
                return entry;
            }
            tokio::task::yield_now().await;
        }
    };
    let first = entry().await;
    let planned: DateTime<Utc> = first["planned_at"].as_str().unwrap().parse().unwrap();
    assert!(planned > "2027-01-13T00:00:00Z".parse::<DateTime<Utc>>().unwrap(), "{first}");
    assert_eq!((&first["wet_film_um"], &first["planned_um"]), (&json!(41.0), &json!(40.0)));
    // Put right, it stays what was planned then.
    let version = studio.get(&path).await.json()["version"].as_i64().unwrap();
    let right = laid(version, "2027-01-14T16:25:00Z", 44.0);
    assert_eq!(studio.post(&format!("{path}/laid"), &right).await.status, 200);
    let second = entry().await;
    assert_eq!(second["wet_film_um"], 44.0);
    assert_eq!(
        (&second["planned_at"], &second["planned_um"]),
        (&first["planned_at"], &first["planned_um"])
    );
    // Undone to before it was laid and done again it is the same coat, and what was planned is known still.
    for deed in ["undo", "undo", "redo", "redo"] {
        let version = studio.get(&path).await.json()["version"].as_i64().unwrap();
        let deed = format!("{path}/{deed}");
        assert_eq!(studio.post(&deed, &json!({ "version": version })).await.status, 200);
    }
    let log = studio.get(&format!("/api/studios/{key}/log?picture={id}&kind=laid")).await.json();
    let third = &log["entries"][0]["entry"];
    assert_eq!((&third["step"], &third["wet_film_um"]), (&json!("s8"), &json!(44.0)));
    assert_eq!(
        (&third["planned_at"], &third["planned_um"]),
        (&first["planned_at"], &first["planned_um"])
    );
}
