//! The headless commands as a process: output, messages, exit status.

use serde_json::{Value, json};
use std::io::Write;
use std::process::{Command, Output, Stdio};

/// Runs `ulvek` with `input` on standard input.
fn ulvek(arguments: &[&str], input: &str) -> Output {
    let mut child = Command::new(env!("CARGO_BIN_EXE_ulvek"))
        .args(arguments)
        .stdin(Stdio::piped())
        .stdout(Stdio::piped())
        .stderr(Stdio::piped())
        .spawn()
        .unwrap();
    let _ = child.stdin.take().unwrap().write_all(input.as_bytes());
    child.wait_with_output().unwrap()
}

fn document() -> Value {
    json!({
        "format": "ulvek.studio/1",
        "studio": {
            "name": "Test room", "time_zone": "Europe/Oslo",
            "hours": [{ "day": "sat", "from": "10:00", "to": "16:00" }],
            "closed": [{ "from": "2027-01-01", "to": "2027-01-03" }],
            "flat_places": 2, "setup_min": 10,
            "schools": { "thinning": "medium_only", "waiting": "standard", "fresh_eyes": true, "isolation_coat": false }
        },
        "air": { "temperature_c": 21.0, "relative_humidity": 0.50, "air_speed_m_s": 0.15 },
        "materials": [{ "id": "heavy", "name": "Heavy paint", "kind": "paint", "solids": 0.42, "water": 0.53, "glycol": 0.05 }],
        "pictures": [{
            "id": "p1", "title": "Lantern row", "width_cm": 40, "height_cm": 50, "due": "2027-01-08",
            "ground": { "absorbs_um": 0 },
            "steps": [
                { "id": "s1", "kind": "tone", "hands_on_min": 25, "wet_film_um": 100, "mix": [{ "material": "heavy", "parts": 1 }],
                  "laid_at": "2027-01-04T10:00:00+01:00" },
                { "id": "s2", "kind": "glaze", "hands_on_min": 40, "wet_film_um": 40, "mix": [{ "material": "heavy", "parts": 1 }] }
            ]
        }]
    })
}

fn answer(output: &Output) -> Value {
    assert_eq!(output.status.code(), Some(0), "{}", String::from_utf8_lossy(&output.stderr));
    serde_json::from_slice(&output.stdout).unwrap()
}

#[test]
fn simulate_prints_the_reference_times_of_the_first_row() {
    let out = answer(&ulvek(
        &["simulate", "-", "--fine", "--at", "2027-01-04T10:30:00+01:00"],
        &document().to_string(),
    ));
    let coat = &out["pictures"][0]["coats"][0];
    let minutes = |name: &str| {
        let at: chrono::DateTime<chrono::Utc> = coat[name].as_str().unwrap().parse().unwrap();
        let laid: chrono::DateTime<chrono::Utc> =
            coat["laid_at"].as_str().unwrap().parse().unwrap();
        (at - laid).num_seconds() as f64 / 60.0
    };
    // The reference table: heavy 100 um, sealed ground, within 4 % or 2 min.
    for (name, want) in [
        ("setting_at", 27.8),
        ("touch_dry_at", 38.0),
        ("paintable_at", 46.9),
        ("dry_through_at", 1000.0),
        ("ready_to_seal_at", 1938.0),
        ("ready_to_wrap_at", 4022.0),
    ] {
        assert!(
            (minutes(name) - want).abs() <= (0.04 * want).max(2.0),
            "{name}: {}",
            minutes(name)
        );
    }
    assert_eq!(out["pictures"][0]["film"]["coats"][0]["state"], "setting");
}

#[test]
fn plan_places_the_next_step_into_the_next_hours_with_its_wait() {
    let out = answer(&ulvek(
        &["plan", "-", "--from", "2027-01-04T12:00:00+01:00"],
        &document().to_string(),
    ));
    let step = &out["steps"][0];
    assert_eq!(
        step["sittings"][0],
        json!({ "from": "2027-01-09T10:10:00+01:00", "to": "2027-01-09T10:50:00+01:00" })
    );
    assert_eq!(step["waits_for"]["state"], "paintable");
    assert_eq!(step["waits_for"]["of"], "s1");
    assert_eq!(out["pictures"][0]["days_late"], 1);
    // What counts is when it is ready: safe to wrap, days after the last coat.
    let ready_late = out["pictures"][0]["ready_days_late"].as_f64().unwrap();
    assert!(ready_late > 1.0, "{ready_late}");
    assert_eq!(out["objective"]["weighted_days_late"], ready_late);
    let said = out["pictures"][0]["said"].as_str().unwrap();
    assert!(said.contains("; due 8 January: "), "{said}");
}

#[test]
fn check_exits_with_1_when_a_rule_says_stop() {
    let mut cold = document();
    cold["air"]["temperature_c"] = json!(8);
    let out = ulvek(&["check", "-"], &cold.to_string());
    assert_eq!(out.status.code(), Some(1));
    let findings: Value = serde_json::from_slice(&out.stdout).unwrap();
    assert_eq!(findings["findings"][0]["rule"], "room-too-cold");
    let mut short = document();
    short["pictures"][0]["steps"][1]["hands_on_min"] = json!(3);
    short["pictures"][0]["due"] = Value::Null;
    assert_eq!(answer(&ulvek(&["check", "-"], &short.to_string())), json!({ "findings": [] }));
}

#[test]
fn bad_input_exits_with_2_and_one_line_naming_the_place() {
    let mut bad = document();
    bad["pictures"][0]["steps"][1]["wet_film_um"] = json!(0);
    for (input, place) in [
        (bad.to_string(), "pictures[0].steps[1].wet_film_um: "),
        (document().to_string()[..300].to_owned(), "it ends too soon, line 1, column 300"),
        (document().to_string().replace("studio/1", "studio/2"), "format: is \"ulvek.studio/2\""),
        (" ".repeat(50_000_000), "larger than 16 MB"),
    ] {
        let mut child = Command::new(env!("CARGO_BIN_EXE_ulvek"))
            .args(["simulate", "-"])
            .stdin(Stdio::piped())
            .stdout(Stdio::piped())
            .stderr(Stdio::piped())
            .spawn()
            .unwrap();
        // A document that is too large is not read to its end.
        let _ = child.stdin.take().unwrap().write_all(input.as_bytes());
        let out = child.wait_with_output().unwrap();
        assert_eq!(out.status.code(), Some(2));
        let said = String::from_utf8(out.stderr).unwrap();
        assert_eq!(said.lines().count(), 1, "{said}");
        assert!(said.contains(place), "{said}");
        assert!(out.stdout.is_empty());
    }
    let gone = ulvek(&["simulate", "/nonexistent.json"], "");
    assert_eq!(gone.status.code(), Some(2));
}

#[test]
fn plan_searches_samples_and_is_the_same_each_time() {
    let mut two = document();
    let mut other = two["pictures"][0].clone();
    other["id"] = json!("p2");
    two["pictures"].as_array_mut().unwrap().push(other);
    let args = ["plan", "-", "--from", "2027-01-09T08:00:00Z", "--sampled", "50"];
    let out = answer(&ulvek(&args, &two.to_string()));
    assert_eq!(out, answer(&ulvek(&args, &two.to_string())), "no clock decides");
    let odds = out["pictures"][0]["odds"].as_f64().unwrap();
    assert!(odds > 0.0 && odds < 1.0, "no date is certain: {odds}");
    assert!(out["pictures"][0]["likely"].as_str() <= out["pictures"][0]["ready"].as_str());
    let value = |o: &str, n: &str| out[o][n].as_f64().unwrap();
    for name in ["weighted_days_late", "sum_of_finish_min"] {
        assert!(value("bound", name) <= value("objective", name), "{out}");
    }
    assert_eq!(out["pictures"][1]["held_by"][0]["step"], "s2");
    let refused = ulvek(&["plan", "-", "--seconds", "0"], &two.to_string());
    assert_eq!(refused.status.code(), Some(2));
}

#[test]
fn two_hundred_pictures_no_hours_and_long_steps_get_a_plain_answer() {
    let mut many = document();
    let one = many["pictures"][0].clone();
    let copies = (0..200).map(|n| {
        let mut copy = one.clone();
        copy["id"] = json!(format!("p{n}"));
        copy
    });
    many["pictures"] = copies.collect();
    let args = ["plan", "-", "--from", "2027-01-09T08:00:00Z", "--seconds", "1"];
    let out = answer(&ulvek(&args, &many.to_string()));
    let finishes = out["pictures"].as_array().unwrap().iter().filter(|p| p["finish"].is_string());
    assert_eq!(finishes.count(), 200);
    let mut none = document();
    none["studio"]["hours"] = json!([]);
    let out = answer(&ulvek(&args, &none.to_string()));
    let said = out["steps"][0]["cannot_be_placed"].as_str().unwrap();
    assert!(said.contains("no hours"), "{said}");
    let mut circle = document();
    circle["pictures"][0]["steps"][0]["after"] = json!(["s2"]);
    let out = ulvek(&args, &circle.to_string());
    assert_eq!(out.status.code(), Some(2));
    assert!(String::from_utf8(out.stderr).unwrap().contains("in a circle"));
}

#[test]
fn colour_prints_what_is_seen_after_each_coat_and_says_what_is_not_known() {
    let mut document = document();
    let out = ulvek(&["colour", "-"], &document.to_string());
    let said = String::from_utf8(out.stderr.clone()).unwrap();
    assert!(
        said.contains("Heavy paint: it has not been read over a white and a black card"),
        "{said}"
    );
    let clear = answer(&out);
    let picture = &clear["pictures"][0];
    // CIE L*a*b* of sRGB 244, 243, 240 under D65: IEC 61966-2-1 and CIE 015.
    assert_eq!(picture["ground"]["srgb"], "#f4f3f0");
    for (part, wanted) in [95.8, -0.2, 1.6].iter().enumerate() {
        let got = picture["ground"]["lab"][part].as_f64().unwrap();
        assert!((got - wanted).abs() < 0.15, "{}", picture["ground"]);
    }
    document["materials"][0]["over_white"] = json!("#26348c");
    document["materials"][0]["over_black"] = json!("#121430");
    document["pictures"][0]["ground"]["colour"] = json!("#808080");
    let out = answer(&ulvek(&["colour", "-", "--picture", "p1"], &document.to_string()));
    let coats = out["pictures"][0]["coats"].as_array().unwrap();
    assert_eq!(coats.iter().map(|c| &c["step"]).collect::<Vec<_>>(), ["s1", "s2"]);
    assert!(
        coats[1]["lab"][2].as_f64().unwrap() < -20.0 && coats[1]["covers"].as_f64().unwrap() < 0.5
    );
    for (place, wrong, said) in [
        ("over_black", json!("#ffffff"), "the paint is darker over the white card"),
        ("over_black", json!("black"), "\"black\" is not a colour"),
        ("over_white", Value::Null, "over_white: is missing: a paint is told by both cards"),
        ("cards", json!(["#000000", "#ffffff"]), "the white card is not lighter"),
        ("swatch_dry_um", json!(0), "the dry thickness of a swatch"),
        ("tint", json!({ "colour": "#8080a0", "white": "snow" }), "there is no \"snow\" on the"),
    ] {
        let mut broken = document.clone();
        broken["materials"][0][place] = wrong;
        let out = ulvek(&["colour", "-"], &broken.to_string());
        let message = String::from_utf8(out.stderr).unwrap();
        assert_eq!(out.status.code(), Some(2), "{message}");
        assert!(message.contains("materials[0]") && message.contains(said), "{message}");
    }
    // Equal readings are kept: the paint is drawn as it was seen, and that is said.
    document["materials"][0]["over_black"] = json!("#26348c");
    let out = ulvek(&["colour", "-"], &document.to_string());
    assert!(String::from_utf8(out.stderr.clone()).unwrap().contains("cannot be told"));
    let seen = answer(&out)["pictures"][0]["coats"][1]["srgb"].clone();
    assert_eq!(seen, "#26348c");
    let none = ulvek(&["colour", "-", "--picture", "p9"], &document.to_string());
    assert_eq!(none.status.code(), Some(2));
}

#[test]
fn new_prints_an_empty_studio_that_the_other_commands_read() {
    let out = ulvek(&["new", "--name", "Loft", "--time-zone", "Europe/Oslo"], "");
    let document = answer(&out);
    assert_eq!(document["studio"]["name"], "Loft");
    assert!(document["materials"].as_array().unwrap().len() > 30, "the starter shelf");
    let plan = answer(&ulvek(&["plan", "-"], &document.to_string()));
    assert_eq!(plan["steps"], json!([]));
    let refused = ulvek(&["new", "--time-zone", "Nowhere"], "");
    assert_eq!(refused.status.code(), Some(2));
    assert!(String::from_utf8_lossy(&refused.stderr).contains("there is no time zone \"Nowhere\""));
}
