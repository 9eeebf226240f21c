//! The studio document: what is written can be read again, and what does not fit is named.
#![allow(clippy::unwrap_used, clippy::panic)]

mod photograph;

use chrono::{DateTime, Utc};
use proptest::prelude::*;
use serde_json::{Value, json};
use ulvek_core::studio::Schools;
use ulvek_server::demo::demo_studio;
use ulvek_server::formats::{Document, json_schema, read_document};
use ulvek_testkit::full_studio;

fn second(s: i64) -> DateTime<Utc> {
    DateTime::from_timestamp(1_700_000_000 + s, 0).unwrap()
}

proptest! {
    #![proptest_config(ProptestConfig { failure_persistence: None, ..ProptestConfig::with_cases(64) })]

    #[test]
    fn every_studio_that_is_written_is_read_as_the_same(studio in full_studio()) {
        let bytes = serde_json::to_vec(&Document::of(&studio)).unwrap();
        let again = read_document(&bytes).map_err(|e| TestCaseError::fail(e.to_string()))?;
        prop_assert_eq!(again, studio);
    }

    #[test]
    fn a_document_cut_anywhere_is_refused_and_never_taken_in_part(share in 0.0f64..1.0) {
        let demo = demo_studio(second(0)).unwrap();
        let bytes = serde_json::to_vec(&Document::of(&demo)).unwrap();
        let cut = (bytes.len() as f64 * share) as usize;
        prop_assert!(read_document(&bytes[..cut.min(bytes.len() - 1)]).is_err());
    }
}

/// The demo with the value at a JSON pointer replaced.
fn broken(pointer: &str, value: Value) -> String {
    let demo = demo_studio(second(0)).unwrap();
    let mut document = serde_json::to_value(Document::of(&demo)).unwrap();
    *document.pointer_mut(pointer).unwrap() = value;
    read_document(document.to_string().as_bytes()).unwrap_err().to_string()
}

#[test]
fn every_number_out_of_its_range_is_named_with_its_limits() {
    for (pointer, value, said) in [
        (
            "/air/temperature_c",
            json!(80),
            "air.temperature_c: temperature must be from -10 to 50 °C, not 80 °C",
        ),
        (
            "/air/relative_humidity",
            json!(-0.1),
            "air.relative_humidity: relative humidity must be from 0 to 100 %, not -10 %",
        ),
        (
            "/air/air_speed_m_s",
            json!(99),
            "air.air_speed_m_s: air speed must be from 0 to 10 m/s, not 99 m/s",
        ),
        (
            "/air/hourly/3/relative_humidity",
            json!(1.01),
            "air.hourly[3].relative_humidity: relative humidity must be from 0 to 100 %, not 101 %",
        ),
        (
            "/studio/setup_min",
            json!(-1),
            "studio.setup_min: minutes must be from 0 to 525600 min, not -1 min",
        ),
        (
            "/studio/flat_places",
            json!(5000),
            "studio.flat_places: must be from 0 to 1000, not 5000",
        ),
        (
            "/studio/hours/0/from",
            json!("9 am"),
            "studio.hours[0].from: \"9 am\" is not a time; write it as in 09:30",
        ),
        (
            "/studio/hours/0/day",
            json!("Monday"),
            "studio.hours[0].day: \"Monday\" is not a day; mon to sun are",
        ),
        (
            "/studio/hours/0/to",
            json!("10:00"),
            "studio.hours[0]: the hours must end after they begin, not run from 17:00:00 to 10:00:00",
        ),
        ("/studio/name", json!("  "), "studio.name: must not be empty"),
        (
            "/materials/0/solids",
            json!(0.9),
            "materials[0]: solids, water, glycol and spirit must sum to 1, not 1.480",
        ),
        (
            "/materials/0/binder",
            json!(0.9),
            "materials[0].binder: is more than the solids it is a part of",
        ),
        (
            "/materials/0/density_g_ml",
            json!(0),
            "materials[0].density_g_ml: density must be from 0.5 to 5 g/ml, not 0 g/ml",
        ),
        (
            "/materials/0/swatch",
            json!("red"),
            "materials[0].swatch: \"red\" is not a colour; write it as in #c4923e",
        ),
        ("/materials/1/id", json!("heavy-pw6"), "materials[1].id: \"heavy-pw6\" is used twice"),
        (
            "/pictures/0/width_cm",
            json!(0),
            "pictures[0].width_cm: side must be from 1 to 1000 cm, not 0 cm",
        ),
        (
            "/pictures/0/weight",
            json!(0),
            "pictures[0].weight: weight must be from 0.01 to 1000, not 0",
        ),
        (
            "/pictures/0/ground/absorbs_um",
            json!(-1),
            "pictures[0].ground.absorbs_um: what the ground absorbs must be from 0 to 1000 µm of water, not -1 µm of water",
        ),
        (
            "/pictures/0/steps/0/share_of_area",
            json!(2),
            "pictures[0].steps[0].share_of_area: share must be from 0 to 100 %, not 200 %",
        ),
        (
            "/pictures/0/steps/0/mix/0/material",
            json!("moonlight"),
            "pictures[0].steps[0].mix[0].material: no material \"moonlight\" is on the shelf",
        ),
        (
            "/pictures/0/steps/0/wet_film_um",
            json!(null),
            "pictures[0].steps[0].wet_film_um: a tone coat needs a wet film thickness",
        ),
        ("/pictures/0/steps/0/mix", json!([]), "pictures[0].steps[0].mix: a tone coat needs a mix"),
        (
            "/pictures/0/steps/1/id",
            json!("s1"),
            "pictures[0].steps[1]: another step is already called \"s1\"",
        ),
    ] {
        assert_eq!(broken(pointer, value), said);
    }
}

#[test]
fn the_schema_refuses_what_the_reader_refuses_of_a_field() {
    let schema = jsonschema::validator_for(&ulvek_server::formats::json_schema()).unwrap();
    let both = |document: &Value| {
        (schema.is_valid(document), read_document(document.to_string().as_bytes()).is_ok())
    };
    let demo = demo_studio(second(1_800_000_000)).unwrap();
    let whole = serde_json::to_value(Document::of(&demo)).unwrap();
    assert_eq!(both(&whole), (true, true));
    for (pointer, values) in [
        (
            "/studio/name",
            vec![json!(""), json!("  "), json!("a\nb"), json!("x".repeat(201)), json!("Ä")],
        ),
        ("/studio/setup_min", vec![json!(-1), json!(1e9), json!(0)]),
        ("/studio/hours/0/day", vec![json!("caturday"), json!("sun")]),
        ("/studio/hours/0/from", vec![json!("25:00"), json!("9 o'clock"), json!("09:30")]),
        ("/air/temperature_c", vec![json!(-80), json!(200), json!("warm"), json!(18)]),
        ("/air/relative_humidity", vec![json!(1.2), json!(-0.1), json!(0.4)]),
        ("/materials/0/solids", vec![json!(2), json!(-0.1)]),
        ("/pictures/0/width_cm", vec![json!(0), json!(5000), json!(30)]),
        ("/pictures/0/weight", vec![json!(0), json!(2000), json!(2)]),
        (
            "/pictures/0/due",
            vec![json!("9999-12-31"), json!("1999-12-31"), json!("2099-12-31"), json!(null)],
        ),
        ("/pictures/0/title", vec![json!("\u{202e}"), json!(7), json!("Glass")]),
        ("/pictures/0/steps/0/kind", vec![json!("stroke"), json!("tone")]),
        ("/pictures/0/steps/0/wet_film_um", vec![json!(0), json!(1e6), json!(60)]),
        ("/pictures/0/steps/0/hands_on_min", vec![json!(-5), json!(1e7), json!(30)]),
        (
            "/pictures/0/steps/0/laid_at",
            vec![json!("0026-01-04T10:00:00Z"), json!("2027-01-04T09:00:00Z")],
        ),
        ("/pictures/0/steps/0/mix/0/parts", vec![json!(-1), json!(1e12), json!(2)]),
    ] {
        for value in values {
            let mut changed = whole.clone();
            *changed.pointer_mut(pointer).unwrap() = value.clone();
            let (by_schema, by_reader) = both(&changed);
            assert_eq!(by_schema, by_reader, "{pointer} = {value}: schema, reader");
        }
    }
}

#[test]
fn a_wrong_type_a_wrong_word_and_an_unknown_field_are_refused_at_their_place() {
    assert!(
        broken("/pictures/0/steps/0/kind", json!("stroke"))
            .starts_with("pictures[0].steps[0].kind: \"stroke\" is not one of \"ground\"")
    );
    assert!(broken("/pictures/0/due", json!("soon")).starts_with("pictures[0].due: "));
    assert!(
        broken("/pictures/0/title", json!(7))
            .starts_with("pictures[0].title: must be a text, not 7")
    );
    assert!(
        broken("/studio/schools/waiting", json!("never"))
            .starts_with("studio.schools.waiting: \"never\" is not one of")
    );
    assert!(
        broken("/studio", json!({ "nam": "x" }))
            .starts_with("studio.nam: \"nam\" is not known here")
    );
    assert_eq!(
        read_document(b"{}").unwrap_err().to_string(),
        "format: is missing; \"ulvek.studio/1\" is read"
    );
}

#[test]
fn what_a_document_may_leave_out_has_the_default_its_schema_names() {
    let least = json!({
        "format": "ulvek.studio/1",
        "studio": { "name": "Bare room", "time_zone": "UTC" },
        "air": { "temperature_c": 21, "relative_humidity": 0.5 },
        "pictures": [{ "id": "p", "title": "p", "width_cm": 20, "height_cm": 30,
                       "steps": [{ "id": "s", "kind": "drawing", "hands_on_min": 30 }] }]
    });
    let studio = read_document(least.to_string().as_bytes()).unwrap();
    assert_eq!((studio.flat_places, studio.setup_min), (1, 10.0));
    assert_eq!(studio.schools, Schools::default());
    assert_eq!(studio.air.usual().speed_m_s, 0.15);
    let picture = &studio.pictures[0];
    assert_eq!((picture.weight, picture.ground.absorbs_um, picture.due), (1.0, 0.0, None));
    assert!(picture.steps[0].splittable, "a drawing may be split unless it says otherwise");
    let schema = json_schema();
    let default = |pointer: &str| schema.pointer(pointer).cloned().unwrap();
    assert_eq!(default("/$defs/StudioDoc/properties/flat_places/default"), json!(1));
    assert_eq!(default("/$defs/StudioDoc/properties/setup_min/default"), json!(10.0));
    assert_eq!(default("/$defs/AirDoc/properties/air_speed_m_s/default"), json!(0.15));
}
