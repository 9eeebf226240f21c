//! The shelf, its tubs, and the scale beside it.

use super::Studio;
use serde_json::{Value, json};
use sqlx::MySqlPool;
use ulvek_store::MIGRATIONS;

/// The shelf as an edit would send it.
pub(super) fn edit(shelf: &Value, label: &str) -> Value {
    let list = |name: &str, of: &str| {
        shelf[name].as_array().unwrap().iter().map(|e| e[of].clone()).collect::<Vec<_>>()
    };
    json!({ "version": shelf["version"], "label": label, "materials": list("materials", "material"),
            "tubs": list("tubs", "tub"), "ways": shelf["ways"] })
}

fn find<'a>(list: &'a mut Value, id: &str) -> &'a mut Value {
    list.as_array_mut().unwrap().iter_mut().find(|e| e["id"] == id).unwrap()
}

async fn open(pool: MySqlPool) -> (Studio, String, String) {
    let studio = Studio::on(pool);
    let key = studio.demo().await;
    let path = format!("/api/studios/{key}/shelf");
    (studio, key, path)
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn an_entry_of_ones_own_is_kept_undone_and_redone(pool: MySqlPool) {
    let (studio, _, path) = open(pool).await;
    let first = studio.get(&path).await.json();
    let mut more = edit(&first, "add Dusk violet");
    more["materials"].as_array_mut().unwrap().push(json!({
        "id": "own-1", "name": "Dusk violet PV15", "kind": "paint", "line": "fluid", "solids": 0.36,
        "water": 0.59, "glycol": 0.05, "pace": 1.3, "opacity": "transparent", "pigments": ["PV15"],
        "most_water": 0.2, "source": "its data sheet" }));
    let kept = studio.put(&path, &more).await;
    assert_eq!(kept.status, 200, "{}", kept.text());
    let last = kept.json()["materials"].as_array().unwrap().last().unwrap().clone();
    assert_eq!((&last["material"]["pace"], &last["used"]), (&json!(1.3), &json!(false)));
    studio.put(&path, &edit(&first, "an older edit")).await.problem(409);
    let undone = studio.post(&format!("{path}/undo"), &json!({ "version": 2 })).await.json();
    assert_eq!(undone["materials"], first["materials"]);
    let redone = studio.post(&format!("{path}/redo"), &json!({ "version": 3 })).await.json();
    assert_eq!(redone["materials"].as_array().unwrap().last().unwrap(), &last);
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn what_a_picture_uses_is_put_away_and_not_taken_out(pool: MySqlPool) {
    let (studio, _, path) = open(pool).await;
    let shelf = studio.get(&path).await.json();
    let mut without = edit(&shelf, "take glazing out");
    without["materials"].as_array_mut().unwrap().retain(|m| m["id"] != "glazing");
    let refused = studio.put(&path, &without).await;
    // The tub of lamp glow needs it first.
    assert_eq!(
        refused.problem(422),
        "tubs[0].mix[0].material: no material \"glazing\" is on the shelf"
    );
    without["tubs"] = json!([]);
    let refused = studio.put(&path, &without).await.problem(422);
    assert!(refused.contains("\"glazing\" is used in Glaze 1 of \"Two carboys"), "{refused}");
    assert_eq!(studio.get(&path).await.json(), shelf, "nothing was changed");
    let mut away = edit(&shelf, "put glazing away");
    find(&mut away["materials"], "glazing")["archived"] = json!(true);
    assert_eq!(studio.put(&path, &away).await.status, 200);
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_shelf_that_does_not_fit_is_refused_with_place_and_reason(pool: MySqlPool) {
    let (studio, _, path) = open(pool).await;
    let shelf = studio.get(&path).await.json();
    let refused = async |list: &str, i: usize, field: &str, value: Value| {
        let mut wrong = edit(&shelf, "wrong");
        wrong[list][i][field] = value;
        studio.put(&path, &wrong).await.problem(422)
    };
    let place = "materials[0].pace: pace must be from 0.1 to 10, not 40";
    assert_eq!(refused("materials", 0, "pace", json!(40)).await, place);
    let binder = refused("materials", 0, "most_water", json!(2)).await;
    assert_eq!(binder, "materials[0].most_water: share must be from 0 to 100 %, not 200 %");
    let line = refused("materials", 0, "line", json!("oil")).await;
    assert!(line.starts_with("materials[0].line: \"oil\" is not one of \"heavy\""), "{line}");
    let tub = refused("tubs", 0, "mix", json!([{ "material": "glazing", "parts": 0 }])).await;
    assert_eq!(tub, "tubs[0].mix: the mix sums to nothing: give at least one part of something");
    let days = refused("tubs", 0, "keeps_days", json!(-1)).await;
    assert_eq!(days, "tubs[0].keeps_days: days it keeps must be from 0 to 3650 days, not -1 days");
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_coat_from_a_tub_lowers_it_until_the_log_is_taken_back(pool: MySqlPool) {
    let (studio, key, shelf_path) = open(pool).await;
    let id = studio.picture(&key, "Storm glass").await;
    let path = format!("/api/pictures/{id}");
    let read = studio.get(&path).await.json();
    let mut picture = read["picture"].clone();
    let i = picture["steps"]
        .as_array()
        .unwrap()
        .iter()
        .position(|s| s["laid_at"].is_null() && s["mix"].is_array())
        .unwrap();
    let step = &mut picture["steps"][i];
    step["tub"] = json!("fog-grey");
    let wrong = json!({ "version": 1, "label": "from the tub", "picture": picture });
    let refused = studio.put(&path, &wrong).await.problem(422);
    assert!(refused.ends_with("the mix is not what is in the tub \"Fog grey\""), "{refused}");
    let step = &mut picture["steps"][i];
    step["mix"] = json!([{ "material": "heavy-grey6", "parts": 75 }, { "material": "matte-medium", "parts": 25 }]);
    step["wet_film_um"] = json!(100);
    step["share_of_area"] = json!(1);
    let name = step["id"].clone();
    let from_tub = json!({ "version": 1, "label": "from the tub", "picture": picture });
    assert_eq!(studio.put(&path, &from_tub).await.status, 200);
    let level = async || {
        let shelf = studio.get(&shelf_path).await.json();
        shelf["tubs"][1]["left_ml"].as_f64().unwrap()
    };
    assert!((level().await - 25.0).abs() < 1e-9);
    let laid = json!({ "version": 2, "step": name, "at": "2027-01-14T16:30:00Z" });
    let logged = studio.post(&format!("{path}/laid"), &laid).await;
    assert_eq!(logged.status, 200, "{}", logged.text());
    // 30 x 30 cm at 100 um are 9 ml; with 15 % lost the coat takes 10.588 ml.
    assert!((level().await - (25.0 - 9.0 / 0.85)).abs() < 1e-6);
    studio.post(&format!("{path}/undo"), &json!({ "version": 3 })).await;
    assert!((level().await - 25.0).abs() < 1e-9, "undoing the log gives it back");
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn the_scale_tells_how_thick_a_coat_really_is(pool: MySqlPool) {
    let (studio, key, _) = open(pool).await;
    let scale = format!("/api/studios/{key}/scale");
    let elsewhere = studio.demo().await;
    studio.put(&scale, &json!({ "load_g": 24.0 })).await;
    studio.post(&format!("{scale}/tare"), &Value::Null).await;
    let other = studio.get(&format!("/api/studios/{elsewhere}/scale")).await.json();
    assert_eq!(other["load_g"], 0.0, "each studio has a scale of its own");
    let shows = studio.put(&scale, &json!({ "load_g": 34.444 })).await.json();
    assert!((shows["shows_g"].as_f64().unwrap() - 10.44).abs() < 1e-9);
    let heavy = studio.put(&scale, &json!({ "load_g": 9000 })).await.problem(422);
    assert_eq!(heavy, "load_g: the scale carries from 0 to 500 g, not 9000 g");
    let id = studio.picture(&key, "Two carboys").await;
    let path = format!("/api/pictures/{id}");
    let mut picture = studio.get(&path).await.json()["picture"].clone();
    let laid =
        json!({ "version": 1, "step": "s8", "at": "2027-01-14T16:30:00Z", "cup_after_g": 30.0 });
    let refused = studio.post(&format!("{path}/laid"), &laid).await.problem(422);
    assert!(refused.contains("was not weighed before the coat"), "{refused}");
    picture["steps"][7]["cup_g"] = json!(34.0);
    let weighed = json!({ "version": 1, "label": "weigh the cup", "picture": picture });
    assert_eq!(studio.put(&path, &weighed).await.status, 200);
    let after = |grams: f64| json!({ "version": 2, "step": "s8", "at": "2027-01-14T16:30:00Z", "cup_after_g": grams });
    let refused = studio.post(&format!("{path}/laid"), &after(35.0)).await.problem(422);
    assert_eq!(refused, "cup_after_g: the cup must weigh less after the coat than before it");
    // Glaze 3 is 95 : 5 glazing liquid at 1.03 and fluid paint at 1.18 g/ml: 1.0375 g/ml. 8.3 g
    // are 8 ml, on 40 x 50 cm a film of 40 um.
    let logged = studio.post(&format!("{path}/laid"), &after(34.0 - 8.3)).await.json();
    let um = logged["picture"]["steps"][7]["wet_film_um"].as_f64().unwrap();
    assert!((um - 40.0).abs() < 1e-6, "{um}");
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn what_runs_short_is_said_before_it_does(pool: MySqlPool) {
    let (studio, key, path) = open(pool).await;
    let outlook = format!("/api/studios/{key}/outlook");
    let shelf = studio.get(&path).await.json();
    let mut short = edit(&shelf, "count the glazing liquid");
    find(&mut short["materials"], "glazing")["stock"] =
        json!({ "ml": 5, "at": "2027-01-14T16:34:00Z" });
    assert_eq!(studio.put(&path, &short).await.status, 200);
    let said = studio.get(&outlook).await.json()["shortages"].clone();
    let glazing = said.as_array().unwrap().iter().find(|s| s["of"] == "glazing").unwrap();
    assert_eq!(glazing["left_ml"], 5.0);
    assert!(glazing["needs_ml"].as_f64().unwrap() > 5.0 && !glazing["at"].is_null());
    find(&mut short["materials"], "glazing")["stock"]["ml"] = json!(5000);
    short["version"] = json!(2);
    assert_eq!(studio.put(&path, &short).await.status, 200);
    let said = studio.get(&outlook).await.json()["shortages"].clone();
    assert!(!said.as_array().unwrap().iter().any(|s| s["of"] == "glazing"), "{said}");
}
