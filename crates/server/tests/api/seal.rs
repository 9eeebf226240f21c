//! The gate and what goes through it, photographs, and the air ahead.

use super::{Answer, Studio};
use axum::body::Body;
use axum::http::Method;
use serde_json::{Value, json};
use sqlx::MySqlPool;
use ulvek_store::MIGRATIONS;

async fn open(pool: MySqlPool, title: &str) -> (Studio, String, String) {
    let studio = Studio::on(pool);
    let key = studio.demo().await;
    let picture = studio.picture(&key, title).await;
    (studio, key, format!("/api/pictures/{picture}"))
}

async fn gate(studio: &Studio, path: &str) -> Value {
    studio.get(&format!("{path}/gate")).await.json()
}

fn against(gate: &Value) -> Vec<&str> {
    let list = gate["brief"]["against"].as_array().unwrap();
    list.iter().map(|c| c["id"].as_str().unwrap()).collect()
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn the_demo_has_a_picture_at_every_stage_of_the_gate(pool: MySqlPool) {
    let (studio, key, _) = open(pool, "Lamp row").await;
    let gates = studio.get(&format!("/api/studios/{key}/gates")).await.json();
    let stage = |title: &str| {
        let all = gates["pictures"].as_array().unwrap();
        let found = all.iter().find(|g| g["title"].as_str().unwrap().starts_with(title)).unwrap();
        (found["stage"].clone(), found["between"].clone())
    };
    assert_eq!(stage("Lamp row"), (json!("open"), json!(false)));
    assert_eq!(stage("Ship's lantern"), (json!("closed"), json!(true)));
    assert_eq!(stage("Two carboys"), (json!("closed"), json!(false)));
    assert_eq!(stage("Fog lamp"), (json!("wrapped"), json!(false)));
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_closed_gate_lets_a_coat_through_only_with_a_reason_that_stays(pool: MySqlPool) {
    let (studio, _, path) = open(pool, "Ship's lantern").await;
    let closed = gate(&studio, &path).await;
    assert_eq!(against(&closed), ["surface"]);
    let (version, step) = (&closed["version"], &closed["step"]);
    let lay = json!({ "version": version, "step": step });
    let laid = format!("{path}/laid");
    let refused = studio.post(&laid, &lay).await;
    assert_eq!(
        refused.problem(422),
        "anyway: the gate is closed: the surface was not looked over within a day; to seal it anyway, say why"
    );
    // Not through the back door of an edit either.
    let stored = studio.get(&path).await.json();
    let mut picture = stored["picture"].clone();
    let steps = picture["steps"].as_array_mut().unwrap();
    let last = steps.iter_mut().rfind(|s| s["kind"] == "varnish").unwrap();
    last["laid_at"] = json!("2027-01-14T16:30:00Z");
    let edit = json!({ "version": version, "label": "log it by hand", "picture": picture });
    assert!(studio.put(&path, &edit).await.problem(422).contains("the gate is closed"));
    assert_eq!(studio.get(&path).await.json(), stored, "nothing was changed");

    let anyway = json!({ "version": version, "step": step, "anyway": "the van is at the door" });
    let logged = studio.post(&laid, &anyway).await;
    assert_eq!(logged.status, 200, "{}", logged.text());
    let after = gate(&studio, &path).await;
    assert_eq!(after["brief"]["stage"], "curing");
    assert_eq!(after["anyway"][0]["reason"], "the van is at the door");
    // An edit that leaves the record out does not take it away.
    let stored = studio.get(&path).await.json();
    let mut picture = stored["picture"].clone();
    picture.as_object_mut().unwrap().remove("seal");
    let edit = json!({ "version": stored["version"], "label": "forget it", "picture": picture });
    let kept = studio.put(&path, &edit).await.json();
    assert_eq!(
        kept["picture"]["seal"]["anyway"][0]["against"][0],
        "the surface was not looked over within a day"
    );
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_draft_slips_no_coat_through_the_gate(pool: MySqlPool) {
    let (studio, key, path) = open(pool, "Two carboys").await;
    let stored = studio.get(&path).await.json();
    let mut picture = stored["picture"].clone();
    let steps = picture["steps"].as_array_mut().unwrap();
    let varnish = steps.iter_mut().find(|s| s["kind"] == "varnish").unwrap();
    varnish["laid_at"] = json!("2027-01-14T16:30:00Z");
    let change = json!({ "id": stored["id"], "version": stored["version"], "picture": picture });
    let accept = json!({ "label": "a way", "draft": { "pictures": [change] } });
    let said = studio.post(&format!("/api/studios/{key}/season/accept"), &accept).await;
    assert!(said.problem(422).contains("the gate is closed: the last coat is not on"));
    assert_eq!(studio.get(&path).await.json(), stored);
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_coat_of_yesterday_is_judged_by_the_gate_of_yesterday(pool: MySqlPool) {
    let (studio, _, path) = open(pool, "Lamp row").await;
    let open = gate(&studio, &path).await;
    let lay = |at: &str| json!({ "version": open["version"], "step": open["step"], "at": at });
    // It was looked over two hours ago; three hours ago nobody had.
    let too_soon = lay("2027-01-14T13:30:00Z");
    let said = studio.post(&format!("{path}/laid"), &too_soon).await.problem(422);
    assert!(said.contains("the surface was not looked over within a day"), "{said}");
    let an_hour_ago = studio.post(&format!("{path}/laid"), &lay("2027-01-14T15:30:00Z")).await;
    assert_eq!(an_hour_ago.status, 200, "{}", an_hour_ago.text());
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn looking_it_over_opens_the_gate_and_trouble_changes_the_plan(pool: MySqlPool) {
    let (studio, _, path) = open(pool, "Ship's lantern").await;
    let closed = gate(&studio, &path).await;
    let seen = json!({ "version": closed["version"] });
    assert_eq!(studio.post(&format!("{path}/inspected"), &seen).await.status, 200);
    studio.post(&format!("{path}/inspected"), &seen).await.problem(409);
    let open = gate(&studio, &path).await;
    assert_eq!(open["brief"]["stage"], "open");
    let on = open["sealed"][0]["step"].clone();
    let found = json!({ "version": open["version"], "step": on, "trouble": "drip" });
    let mended = studio.post(&format!("{path}/troubles"), &found).await.json();
    assert_eq!(mended["changed"][0], "Varnish 2 waits until this coat is dry right through.");
    let waits = gate(&studio, &path).await;
    assert_eq!(waits["troubles"][0]["trouble"], "drip");
    let wrong = json!({ "version": waits["version"], "step": "s1", "trouble": "drip" });
    let said = studio.post(&format!("{path}/troubles"), &wrong).await.problem(422);
    assert_eq!(said, "step: the picture has no sealing coat \"s1\" that is laid");
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_varnish_is_settled_on_and_undone_as_one_change(pool: MySqlPool) {
    let (studio, _, path) = open(pool, "Lamp row").await;
    let before = gate(&studio, &path).await;
    let mut choice = before["choice"].clone();
    choice["purpose"] = json!("handled");
    choice["coats"] = json!(5);
    choice["finish"] = json!("matte");
    let asked = json!({ "choice": choice });
    let plan = studio.post(&format!("{path}/varnish/preview"), &asked).await.json();
    assert_eq!(plan["coats"].as_array().unwrap().len(), 6, "five and a sealer");
    choice["isolation"] = json!(true);
    let edit = json!({ "version": before["version"], "choice": choice });
    let said = studio.put(&format!("{path}/varnish"), &edit).await.problem(422);
    assert_eq!(said, "choice.isolation_reason: say why: your studio lays no isolation coat");
    choice["isolation_reason"] = json!("it is a tray");
    let edit = json!({ "version": before["version"], "choice": choice });
    let kept = studio.put(&format!("{path}/varnish"), &edit).await.json();
    let kinds: Vec<_> = kept["picture"]["steps"]
        .as_array()
        .unwrap()
        .iter()
        .map(|s| s["kind"].as_str().unwrap())
        .filter(|k| ["isolation_coat", "varnish"].contains(k))
        .collect();
    assert_eq!(kinds.len(), 7);
    assert_eq!(kinds[0], "isolation_coat");
    let back = json!({ "version": kept["version"] });
    let undone = studio.post(&format!("{path}/undo"), &back).await.json();
    assert!(undone["picture"]["seal"].get("choice").is_none());
    assert_eq!(gate(&studio, &path).await["step"], before["step"]);
}

async fn bring(studio: &Studio, path: &str, bytes: Vec<u8>) -> Answer {
    studio.bring(&format!("{path}/photographs?caption=Seen"), bytes).await
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_photograph_is_kept_named_taken_away_and_brought_back(pool: MySqlPool) {
    let (studio, _, path) = open(pool, "Two carboys").await;
    let mut png = std::io::Cursor::new(Vec::new());
    image::RgbImage::new(30, 20).write_to(&mut png, image::ImageFormat::Png).unwrap();
    let kept = bring(&studio, &path, png.into_inner()).await;
    assert_eq!(kept.status, 201, "{}", kept.text());
    let photograph = kept.json();
    assert_eq!((&photograph["width"], &photograph["caption"]), (&json!(30), &json!("Seen")));
    let key = photograph["id"].as_str().unwrap();
    let pixels = studio.get(&format!("/api/photographs/{key}/small")).await;
    assert_eq!(pixels.headers["content-type"], "image/jpeg");
    assert_eq!(pixels.headers["x-content-type-options"], "nosniff");
    let words = json!({ "version": 1, "taken_at": photograph["taken_at"], "step": "s3", "caption": "North window" });
    let named = studio.put(&format!("/api/photographs/{key}"), &words).await.json();
    assert_eq!((&named["step"], &named["caption"]), (&json!("s3"), &json!("North window")));
    let future = json!({ "version": 2, "taken_at": "2028-01-01T00:00:00Z" });
    studio.put(&format!("/api/photographs/{key}"), &future).await.problem(422);
    let gone = studio
        .send(Method::DELETE, &format!("/api/photographs/{key}?version=2"), Body::empty())
        .await;
    assert_eq!(gone.status, 204);
    studio.get(&format!("/api/photographs/{key}/whole")).await.problem(404);
    let back = studio.post(&format!("/api/photographs/{key}/restore"), &Value::Null).await;
    assert_eq!(back.json()["caption"], "North window");
    // Of what is refused nothing is kept.
    let said = bring(&studio, &path, b"MZ\x90 not a picture".to_vec()).await.problem(422);
    assert!(said.ends_with("whatever its name says: it is a program"), "{said}");
    let all = studio.get(&format!("{path}/photographs")).await.json();
    assert_eq!(all.as_array().unwrap().len(), 1);
    let large = bring(&studio, &path, vec![0; 17 * 1024 * 1024]).await;
    assert!(large.problem(413).contains("16 MB"));
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn readings_forecast_and_a_constant_room_are_taken_in(pool: MySqlPool) {
    let (studio, key, _) = open(pool, "Lamp row").await;
    let path = format!("/api/studios/{key}/air");
    let first = studio.get(&path).await.json();
    assert_eq!(first["hours"].as_array().unwrap().len(), 240);
    let take = |version: &Value, source: &str, csv: Option<&str>| json!({ "version": version, "source": source, "csv": csv });
    let damp = "at,temperature_c,relative_humidity_percent\n\
                2027-01-14 18:00,20.0,78\n2027-01-15 18:00,20.0,50\n2027-01-16 18:00,20.0,50\n";
    let taken = studio.put(&path, &take(&first["version"], "readings", Some(damp))).await;
    assert_eq!(taken.status, 200, "{}", taken.text());
    let air = studio.get(&path).await.json();
    assert_eq!(air["source"], "readings");
    let fit = |air: &Value, n: usize| air["hours"][n]["fit"].clone();
    // 17:00 now; from 18:00 it is damp for a day.
    assert_eq!(
        (fit(&air, 0), fit(&air, 1), fit(&air, 25)),
        (json!(true), json!(false), json!(true))
    );
    let help = air["days"][1]["good"].as_array().unwrap();
    assert_eq!(help[0]["from"], "2027-01-15T17:00:00Z", "after the damp, 18:00 in Oslo");

    let bad = take(&air["version"], "readings", Some("at,temperature_c\nnow,2\n"));
    let said = studio.put(&path, &bad).await.problem(422);
    assert!(said.contains("no column \"relative_humidity\""), "{said}");
    let constant = take(&air["version"], "constant", None);
    assert_eq!(studio.put(&path, &constant).await.status, 200);
    let air = studio.get(&path).await.json();
    assert!(air["hours"].as_array().unwrap()[1..].iter().all(|h| h["fit"] == true));
    studio.put(&path, &constant).await.problem(409);
    let mut cold = take(&air["version"], "forecast", None);
    cold["room"] = json!({ "held_c": null, "warmer_k": 2.0, "lag_h": 3.0, "changes_per_h": 2.0,
                           "moisture_g_m3_h": 1.0 });
    assert_eq!(studio.put(&path, &cold).await.status, 200);
    let air = studio.get(&path).await.json();
    assert!(air["days"][4]["remedies"][0].as_str().unwrap().contains("heating to"), "{air}");
    cold["version"] = air["version"].clone();
    cold["room"]["lag_h"] = json!(0.0);
    assert!(studio.put(&path, &cold).await.problem(422).starts_with("room.lag_h: lag of the room"));
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn the_record_sheet_says_what_is_in_it_and_carries_its_photographs(pool: MySqlPool) {
    let (studio, _, path) = open(pool, "Fog lamp").await;
    let sheet = studio.get(&format!("{path}/record")).await.json();
    assert_eq!(sheet["format"], "ulvek.record/1");
    assert_eq!(sheet["to_come"], json!([]));
    assert!(sheet["removal"].as_str().unwrap().contains("water-borne acrylic"));
    assert!(sheet["photographs"][0].get("jpeg_base64").is_none());
    let file = studio.get(&format!("{path}/record?file=true")).await;
    assert!(file.headers["content-disposition"].to_str().unwrap().starts_with("attachment"));
    let sheet = file.json();
    let schema: Value =
        serde_json::from_str(include_str!("../../../../docs/formats/record.schema.json")).unwrap();
    let validator = jsonschema::validator_for(&schema).unwrap();
    let faults: Vec<_> = validator.iter_errors(&sheet).map(|e| e.to_string()).collect();
    assert!(faults.is_empty(), "{faults:?}");
    // FF D8 FF in Base64: a JPEG.
    assert!(sheet["photographs"][0]["jpeg_base64"].as_str().unwrap().starts_with("/9j/"));
}
