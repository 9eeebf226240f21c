//! Colours on pictures of the demo.

use super::Studio;
use serde_json::{Value, json};
use sqlx::MySqlPool;
use ulvek_core::colour::Lab;
use ulvek_core::mix::Swatch;
use ulvek_store::MIGRATIONS;

fn lab(hex: &Value) -> Lab {
    Lab::of(Swatch::from_hex(hex.as_str().unwrap()).unwrap())
}

/// Path of the colours of Sleet (30 x 40 cm).
async fn path(studio: &Studio) -> String {
    let key = studio.demo().await;
    format!("/api/pictures/{}/colour", studio.picture(&key, "Sleet").await)
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_cup_shows_its_glaze_over_the_cards_the_picture_and_a_ladder(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let path = path(&studio).await;
    let mix =
        json!([{ "material": "fluid-pb15", "parts": 1 }, { "material": "glazing", "parts": 29 }]);
    let seen =
        studio.post(&path, &json!({ "mix": mix, "wet_film_um": 40, "step": "s5" })).await.json();
    assert_eq!(seen["cards"], json!(["#f4f3f0", "#1c1c1e"]));
    assert!(lab(&seen["over_white"]).l > lab(&seen["over_black"]).l + 30.0);
    assert_eq!(seen["hides_in"], Value::Null);
    assert!(seen["covers"].as_f64().unwrap() < 0.1);
    let rows = seen["ladder"].as_array().unwrap();
    assert_eq!(
        rows.iter().map(|r| r["seen"].as_array().unwrap().len()).collect::<Vec<_>>(),
        [8; 5]
    );
    for row in rows {
        let deeper: Vec<f64> = row["seen"].as_array().unwrap().iter().map(|s| lab(s).l).collect();
        assert!(deeper.windows(2).all(|pair| pair[1] <= pair[0]), "{deeper:?}");
    }
    // It lies on the yellow glaze over grey: the bare rung is what the strata show there.
    let face = &seen["face"]["seen"];
    assert!(lab(&face[0]).b > 3.0 && lab(&face[7]).b < -5.0, "{face}");
    // Wanted as three coats look: three come nearest.
    let mut wish = json!({ "mix": mix, "wet_film_um": 40, "step": "s5" });
    wish["wanted"] = face[3].clone();
    let told = studio.post(&path, &wish).await.json();
    assert_eq!(
        (&told["nearest"]["coats"], &told["nearest"]["said"]),
        (&json!(3), &json!("no difference to be seen"))
    );
    // A paint without readings is said, and goes on as its swatch.
    let unknown = json!({ "mix": [{ "material": "moonlight", "parts": 1 }], "wet_film_um": 40 });
    assert_eq!(
        studio.post(&path, &unknown).await.problem(422),
        "mix: no material \"moonlight\" is on the shelf"
    );
    let thin = json!({ "mix": mix, "wet_film_um": 0 });
    assert!(studio.post(&path, &thin).await.problem(422).starts_with("wet_film_um: wet film"));
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_mix_is_found_for_a_colour_for_a_lacking_paint_and_against_a_cast(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let path = format!("{}/match", path(&studio).await);
    let ask = |more: Value| {
        let mut ask = json!({ "wet_film_um": 60, "step": "s5" });
        ask.as_object_mut().unwrap().extend(more.as_object().unwrap().clone());
        ask
    };
    let found = studio.post(&path, &ask(json!({ "colour": "#7a5a48" }))).await.json();
    assert_eq!(found["wanted"], "#7a5a48");
    assert!(found["found"][0]["apart"].as_f64().unwrap() < 1.0, "{found}");
    assert_eq!(found["found"][0]["said"], "no difference to be seen");
    let like = studio.post(&path, &ask(json!({ "like": "slow-pb29" }))).await.json();
    let named = |found: &Value, id: &str| {
        let mixes = found["found"].as_array().unwrap();
        mixes.iter().any(|f| f["mix"].as_array().unwrap().iter().any(|p| p["material"] == id))
    };
    assert!(named(&like, "heavy-pb29") && !named(&like, "slow-pb29"), "{like}");
    let neutral = ask(json!({ "neutral": true, "medium": "glazing" }));
    let out = studio.post(&path, &neutral).await.json();
    let cast = |hex: &Value| lab(hex).a.hypot(lab(hex).b);
    assert!(cast(&out["found"][0]["seen"]) < cast(&out["under"]), "{out}");
    for (more, said) in [
        (json!({}), "colour: say one thing to look for: a colour, a material, or no cast"),
        (
            json!({ "colour": "#7a5a48", "neutral": true }),
            "colour: say one thing to look for: a colour, a material, or no cast",
        ),
        (
            json!({ "colour": "#7a5a48", "medium": "water" }),
            "medium: \"water\" is no medium of the shelf",
        ),
        (json!({ "colour": "brown" }), "colour: \"brown\" is not a colour; write it as in #c4923e"),
    ] {
        assert_eq!(studio.post(&path, &ask(more)).await.problem(422), said);
    }
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn values_of_a_photograph_are_mixed_with_the_amount_their_share_takes(pool: MySqlPool) {
    let studio = Studio::on(pool);
    let path = path(&studio).await;
    // Half black, a third grey, a sixth white.
    let mut png = std::io::Cursor::new(Vec::new());
    let grey = |x| [20, 20, 20, 128, 128, 235][x as usize / 100];
    image::RgbImage::from_fn(600, 400, |x, _| image::Rgb([grey(x); 3]))
        .write_to(&mut png, image::ImageFormat::Png)
        .unwrap();
    let photographs = path.replace("/colour", "/photographs");
    let photograph = studio.bring(&photographs, png.into_inner()).await.json()["id"].clone();
    let ask = json!({ "dark": [{ "material": "heavy-pbk9", "parts": 1 }], "count": 3, "wet_film_um": 100,
        "photograph": photograph });
    let values = studio.post(&format!("{path}/values"), &ask).await.json();
    let of = |name: &str| -> Vec<f64> {
        values.as_array().unwrap().iter().map(|v| v[name].as_f64().unwrap()).collect()
    };
    let shares: Vec<f64> =
        values.as_array().unwrap().iter().map(|v| v["patch"]["share"].as_f64().unwrap()).collect();
    for (share, wanted) in shares.iter().zip([0.5, 1.0 / 3.0, 1.0 / 6.0]) {
        assert!((share - wanted).abs() < 0.01, "{shares:?}");
    }
    // 30 x 40 cm at 100 um are 12 ml, of which 15 % are lost in cup and brush.
    for (ml, share) in of("ml").iter().zip(&shares) {
        assert!((ml - 12.0 / 0.85 * share).abs() < 1e-9, "{ml}");
    }
    // The middle value is the photograph's, not half way.
    let middle = values[1]["patch"]["l"].as_f64().unwrap();
    assert!((of("l")[1] - middle).abs() < 2.0, "{values}");
    assert_eq!(values[2]["mix"][0]["material"], "heavy-pw6");
    let mut many = ask;
    many["count"] = json!(12);
    let refused = studio.post(&format!("{path}/values"), &many).await.problem(422);
    assert_eq!(refused, "count: give 3 to 9 values");
}
