//! The cup of a coat on a picture of the demo.

use super::Studio;
use serde_json::{Value, json};
use sqlx::MySqlPool;
use ulvek_store::MIGRATIONS;

fn ask(mix: Value) -> Value {
    json!({ "mix": mix, "wet_film_um": 40, "share_of_area": 1, "loss": 0.2, "measure_ml": 0.5 })
}

fn glaze(medium: f64, paint: f64, retarder: f64) -> Value {
    json!([{ "material": "glazing", "parts": medium }, { "material": "fluid-pv19", "parts": paint },
           { "material": "retarder", "parts": retarder }])
}

/// Path of the cup of Two carboys (40 x 50 cm).
async fn path(studio: &Studio) -> String {
    let key = studio.demo().await;
    format!("/api/pictures/{}/cup", studio.picture(&key, "Two carboys").await)
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_cup_holds_what_the_area_takes_and_retarder_makes_it_slower(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let path = path(&studio).await;
    let plain = studio.post(&path, &ask(glaze(90.0, 10.0, 0.0))).await.json();
    // 0.2 m2 at 40 um are 8 ml on the picture; a fifth is lost, so 10 ml are mixed.
    assert!((plain["total_ml"].as_f64().unwrap() - 10.0).abs() < 1e-9);
    assert!((plain["on_picture_ml"].as_f64().unwrap() - 8.0).abs() < 1e-9);
    assert!((plain["parts"][0]["ml"].as_f64().unwrap() - 9.0).abs() < 1e-9);
    assert_eq!(plain["parts"][1]["rounded_ml"], 1.0);
    assert!(plain["limits"].as_array().unwrap().iter().all(|l| l["kept"] == true));
    // Glaze 2 is still drying: the coat is laid when that one is paintable.
    assert_eq!(plain["waits"], true);
    assert!(
        plain["laid_at"].as_str().unwrap().starts_with("2027-01-14T17:41"),
        "{}",
        plain["laid_at"]
    );
    let slow = studio.post(&path, &ask(glaze(76.5, 8.5, 15.0))).await.json();
    let min = |cup: &Value| cup["working_min"].as_f64().unwrap();
    assert!(min(&slow) > min(&plain) + 2.0, "{} and {}", min(&slow), min(&plain));
    assert!(slow["paintable_at"].as_str() > plain["paintable_at"].as_str());
    let offer = slow["offers"].as_array().unwrap().iter().find(|o| o["change"] == "slower");
    assert_eq!(offer.unwrap()["mix"], Value::Null, "the limit of retarder is reached");
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn limits_that_are_broken_are_said_with_their_reason(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let path = path(&studio).await;
    let soft = studio.post(&path, &ask(glaze(70.0, 10.0, 20.0))).await.json();
    let broken: Vec<&Value> =
        soft["limits"].as_array().unwrap().iter().filter(|l| l["kept"] == false).collect();
    assert_eq!(broken.len(), 1);
    assert_eq!((&broken[0]["what"], &broken[0]["limit"]), (&json!("retarder"), &json!(0.15)));
    assert!(broken[0]["why"].as_str().unwrap().contains("stay soft"));
    let watered =
        json!([{ "material": "fluid-pv19", "parts": 9 }, { "material": "water", "parts": 1 }]);
    // Only a glaze is never thinned with water: s8 is one.
    let mut of_a_glaze = ask(watered);
    of_a_glaze["step"] = json!("s8");
    let thin = studio.post(&path, &of_a_glaze).await.json();
    assert!(
        thin["limits"]
            .as_array()
            .unwrap()
            .iter()
            .any(|l| l["what"] == "water" && l["kept"] == false)
    );
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn eight_millilitres_of_medium_solve_the_other_way_round(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let path = path(&studio).await;
    let mut asked = ask(glaze(90.0, 10.0, 0.0));
    asked["have"] = json!({ "material": "glazing", "ml": 4.5 });
    let short = studio.post(&path, &asked).await.json()["short"].clone();
    assert_eq!(short["enough"], false);
    for (field, want) in [("total_ml", 5.0), ("wet_film_um", 20.0), ("share_of_area", 0.5)] {
        assert!((short[field].as_f64().unwrap() - want).abs() < 1e-9, "{field}: {short}");
    }
    asked["have"]["ml"] = json!(50);
    assert_eq!(studio.post(&path, &asked).await.json()["short"]["enough"], true);
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn what_makes_no_cup_is_refused_at_its_place(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let path = path(&studio).await;
    let mut cases =
        vec![(ask(glaze(0.0, 0.0, 0.0)), "mix"), (ask(glaze(-1.0, 1.0, 0.0)), "mix[0].parts")];
    for (field, bad) in
        [("wet_film_um", 0.0), ("share_of_area", 1.5), ("loss", 1.0), ("measure_ml", 0.0)]
    {
        let mut asked = ask(glaze(90.0, 10.0, 0.0));
        asked[field] = json!(bad);
        cases.push((asked, field));
    }
    let mut unknown = ask(glaze(90.0, 10.0, 0.0));
    unknown["mix"][0]["material"] = json!("moonlight");
    cases.push((unknown, "mix"));
    let mut other = ask(glaze(90.0, 10.0, 0.0));
    other["have"] = json!({ "material": "water", "ml": 3 });
    cases.push((other, "have"));
    for (asked, place) in cases {
        let refused = studio.post(&path, &asked).await;
        let said = refused.problem(422);
        assert_eq!(refused.json()["path"], place, "{said}");
    }
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn any_number_of_the_recipe_can_be_turned_and_the_others_follow(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let path = path(&studio).await;
    let turn = async |turns: Value| {
        let mut asked = ask(glaze(90.0, 10.0, 0.0));
        asked["turns"] = turns;
        studio.post(&path, &asked).await
    };
    let ml = |cup: &Value, i: usize| cup["parts"][i]["ml"].as_f64().unwrap();
    // A cup of 10 ml: 0.5 ml of paint is 5 %, the medium makes up the rest.
    let light = turn(json!([{ "part": 1, "unit": "ml", "value": 0.5 }])).await.json();
    assert!((ml(&light, 0) - 9.5).abs() < 1e-9 && (ml(&light, 1) - 0.5).abs() < 1e-9);
    // 1.18 g/ml: 1.18 g are 1 ml again; then 20 drops of retarder are another.
    let turns = json!([{ "part": 1, "unit": "grams", "value": 1.18 },
                       { "part": 2, "unit": "drops", "value": 20 }]);
    let mixed = turn(turns).await.json();
    assert!((ml(&mixed, 2) - 1.0).abs() < 1e-9 && (ml(&mixed, 1) - 0.9).abs() < 1e-9);
    assert!((mixed["parts"][0]["parts"].as_f64().unwrap() - 81.0).abs() < 1e-9);
    let over = turn(json!([{ "part": 0, "unit": "ml", "value": 11 }])).await.problem(422);
    assert_eq!(over, "mix[0]: that is more than the whole cup; mix a larger one, or take less");
    let mut larger = ask(glaze(90.0, 10.0, 0.0));
    larger["total_ml"] = json!(16);
    let cup = studio.post(&path, &larger).await.json();
    assert!((cup["loss"].as_f64().unwrap() - 0.5).abs() < 1e-9);
    larger["total_ml"] = json!(7);
    let small = studio.post(&path, &larger).await.problem(422);
    assert!(small.starts_with("total_ml: that is less than the 8.0 ml"), "{small}");
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_dilution_series_goes_from_light_to_strong(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let path = format!("{}/series", path(&studio).await);
    let row = json!({ "strong": "fluid-pv19", "thin": "glazing", "from": 0.05, "to": 0.30, "cups": 6,
                      "ml": 10, "wet_film_um": 40 });
    let cups = studio.post(&path, &row).await.json();
    let paint: Vec<f64> = cups
        .as_array()
        .unwrap()
        .iter()
        .map(|c| (c["parts"][1]["ml"].as_f64().unwrap() * 100.0).round() / 100.0)
        .collect();
    assert_eq!(paint, [0.5, 1.0, 1.5, 2.0, 2.5, 3.0]);
    assert!(cups[0]["working_min"].as_f64().unwrap() > cups[5]["working_min"].as_f64().unwrap());
    let mut many = row.clone();
    many["cups"] = json!(13);
    let refused = studio.post(&path, &many).await.problem(422);
    assert_eq!(refused, "cups: a series has from 1 to 12 cups, not 13");
    many["cups"] = json!(2);
    many["thin"] = json!("fluid-pv19");
    assert!(studio.post(&path, &many).await.problem(422).starts_with("thin: "));
}
