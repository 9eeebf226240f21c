//! Each rule speaks where it should and is silent where it should not.

use super::*;
use crate::air::{Air, AirSeries};
use crate::picture::{Part, StepKind};
use crate::studio::{Schools, StudioHours, starter_shelf};

fn step(kind: StepKind, mix: &[(&str, f64)], laid: Option<&str>) -> Step {
    let name = format!("{kind:?}-{}-{}", mix.len(), laid.unwrap_or("planned"));
    Step {
        mix: mix.iter().map(|(m, parts)| Part { material: (*m).into(), parts: *parts }).collect(),
        laid_at: laid.map(|t| t.parse().unwrap()),
        ..Step::usual(name, kind)
    }
}

/// The rules that speak for a picture with `steps` in a room of `celsius` and `humidity`.
fn said(steps: Vec<Step>, celsius: f64, humidity: f64) -> Vec<(&'static str, usize)> {
    let found = check(&studio(steps, celsius, humidity));
    let mut found: Vec<_> = found.iter().map(|f| (f.rule, f.step)).collect();
    found.sort_unstable();
    found
}

/// A studio without hours, with one picture of `steps` in a room of `celsius` and `humidity`.
fn studio(steps: Vec<Step>, celsius: f64, humidity: f64) -> StudioDocument {
    StudioDocument {
        name: "Test room".into(),
        hours: StudioHours::try_new(chrono_tz::UTC, vec![], vec![]).unwrap(),
        flat_places: 1,
        setup_min: 10.0,
        schools: Schools::default(),
        air: AirSeries::constant(Air::try_new(celsius, humidity, 0.15).unwrap()),
        materials: starter_shelf().unwrap(),
        pictures: vec![Picture::new("p", (30.0, 40.0), steps)],
    }
}

const PAINT: &[(&str, f64)] = &[("heavy-pbr7", 1.0)];
const VARNISH: &[(&str, f64)] = &[("varnish-gloss", 1.0)];

#[test]
fn a_sound_picture_gets_no_finding() {
    let steps = vec![
        step(StepKind::Pass, PAINT, Some("2027-01-01T10:00:00Z")),
        step(
            StepKind::Glaze,
            &[("glazing", 90.0), ("fluid-pv19", 10.0)],
            Some("2027-01-02T10:00:00Z"),
        ),
        step(StepKind::Photograph, &[], None),
        step(StepKind::Varnish, VARNISH, None),
        step(StepKind::Varnish, VARNISH, None),
    ];
    assert_eq!(said(steps, 21.0, 0.5), []);
}

#[test]
fn a_coat_laid_ten_minutes_after_another_is_found() {
    let steps = vec![
        step(StepKind::Pass, PAINT, Some("2027-01-01T10:00:00Z")),
        step(StepKind::Pass, PAINT, Some("2027-01-01T10:10:00Z")),
    ];
    assert_eq!(said(steps, 21.0, 0.5), [("laid-on-wet", 1)]);
}

#[test]
fn retarder_is_held_to_15_percent_by_volume() {
    // work.md: up to about 15 % of the wet mix [memory].
    let cup = |retarder: f64| {
        step(StepKind::Glaze, &[("glazing", 100.0 - retarder), ("retarder", retarder)], None)
    };
    assert_eq!(said(vec![cup(15.0)], 21.0, 0.5), []);
    assert_eq!(said(vec![cup(16.0)], 21.0, 0.5), [("too-much-retarder", 0)]);
}

#[test]
fn slow_paint_wants_neither_retarder_nor_a_fast_coat_over_it() {
    let steps = vec![
        step(StepKind::Pass, &[("slow-pb29", 9.0), ("retarder", 1.0)], None),
        step(StepKind::Pass, PAINT, None),
    ];
    assert_eq!(said(steps, 21.0, 0.5), [("fast-over-slow", 1), ("retarder-with-slow-paint", 0)]);
}

#[test]
fn a_glaze_thinned_with_water_is_found_in_the_medium_only_school() {
    let cup = step(StepKind::Glaze, &[("fluid-pv19", 9.0), ("water", 1.0)], None);
    assert_eq!(said(vec![cup], 21.0, 0.5), [("thinned-with-water", 0)]);
}

#[test]
fn a_cold_room_and_a_damp_room_are_found() {
    // work.md: no sound film below about 9-10 C; varnish under 65-70 % [memory].
    assert_eq!(said(vec![step(StepKind::Pass, PAINT, None)], 8.0, 0.5), [("room-too-cold", 0)]);
    let varnish = || step(StepKind::Varnish, VARNISH, None);
    let steps = || vec![step(StepKind::Photograph, &[], None), varnish(), varnish()];
    assert_eq!(said(steps(), 21.0, 0.8), [("air-for-varnish", 1)]);
    assert_eq!(said(steps(), 21.0, 0.6), []);
}

#[test]
fn order_before_the_gate_is_held() {
    let steps =
        vec![step(StepKind::Varnish, VARNISH, None), step(StepKind::Signature, PAINT, None)];
    assert_eq!(
        said(steps, 21.0, 0.5),
        [("no-photograph-before-gloss", 0), ("one-varnish-coat", 0), ("signed-after-varnish", 1)]
    );
}

#[test]
fn care_for_people_stands_at_the_step() {
    assert_eq!(said(vec![step(StepKind::Sanding, &[], None)], 21.0, 0.5), [("dust-and-spray", 0)]);
}

#[test]
fn a_coat_that_is_let_onto_a_wet_one_is_found() {
    let mut wet = step(StepKind::Glaze, &[("glazing", 9.0), ("fluid-pv19", 1.0)], None);
    wet.needs = Some(crate::picture::Need::TouchDry);
    let steps = vec![step(StepKind::Pass, PAINT, None), wet];
    assert_eq!(said(steps, 21.0, 0.5), [("planned-on-wet", 1)]);
    // Sealing a drawing at once is usual.
    let steps = vec![
        step(StepKind::Tone, PAINT, None),
        step(StepKind::Drawing, &[], None),
        step(StepKind::SealDrawing, &[("matte-medium", 1.0)], None),
    ];
    assert_eq!(said(steps, 21.0, 0.5), []);
}

#[test]
fn sanding_waits_until_the_stack_is_dry_through() {
    let sanded = |at: &str| {
        let steps = vec![
            step(StepKind::Pass, PAINT, Some("2027-01-01T10:00:00Z")),
            step(StepKind::Sanding, &[], Some(at)),
        ];
        said(steps, 21.0, 0.5)
    };
    // [practice] still overnight before sanding
    assert_eq!(sanded("2027-01-01T14:00:00Z"), [("sanded-early", 1)]);
    assert_eq!(sanded("2027-01-02T14:00:00Z"), []);
    let mut early = step(StepKind::Sanding, &[], None);
    early.needs = Some(crate::picture::Need::Paintable);
    let steps = vec![step(StepKind::Pass, PAINT, None), early];
    assert_eq!(said(steps, 21.0, 0.5), [("dust-and-spray", 1), ("sanded-early", 1)]);
}

#[test]
fn varnish_before_the_cure_or_the_school_is_found() {
    let sealed = |at: &str| {
        let steps = vec![
            step(StepKind::Glaze, PAINT, Some("2027-01-01T10:00:00Z")),
            step(StepKind::Photograph, &[], Some("2027-01-01T20:00:00Z")),
            step(StepKind::Varnish, VARNISH, Some(at)),
            step(StepKind::Varnish, VARNISH, None),
        ];
        said(steps, 21.0, 0.5)
    };
    assert_eq!(sealed("2027-01-01T21:00:00Z"), [("sealed-early", 2)], "not cured");
    // [practice] the standard school waits three days and more
    assert_eq!(sealed("2027-01-03T10:00:00Z"), [("sealed-early", 2)], "cured, but too soon");
    assert_eq!(sealed("2027-01-04T11:00:00Z"), []);
}

#[test]
fn wrapping_waits_until_the_face_may_be_touched() {
    let wrapped = |at: &str| {
        let steps = vec![
            step(StepKind::Pass, PAINT, Some("2027-01-01T10:00:00Z")),
            step(StepKind::Pack, &[], Some(at)),
        ];
        said(steps, 21.0, 0.5)
    };
    assert_eq!(wrapped("2027-01-02T10:00:00Z"), [("wrapped-early", 1)]);
    // drying.md: heavy 100 um on a sealed ground is ready to wrap after 5376 min; 80 um earlier.
    assert_eq!(wrapped("2027-01-05T10:00:00Z"), []);
}

#[test]
fn a_very_thick_coat_and_hours_that_are_too_short_are_found() {
    let mut thick = step(StepKind::Pass, PAINT, None);
    thick.wet_film_um = Some(300.0);
    assert_eq!(said(vec![thick], 21.0, 0.5), [("very-thick-coat", 0)]);
    let time = |h| chrono::NaiveTime::from_hms_opt(h, 0, 0).unwrap();
    let hours =
        crate::studio::OpenHours { day: chrono::Weekday::Sat, from: time(10), to: time(11) };
    let mut long = step(StepKind::Glaze, &[("glazing", 9.0), ("fluid-pv19", 1.0)], None);
    long.hands_on_min = 51.0;
    let mut document = studio(vec![long], 21.0, 0.5);
    document.hours = StudioHours::try_new(chrono_tz::UTC, vec![hours], vec![]).unwrap();
    assert_eq!(check(&document)[0].rule, "session-too-short");
    document.pictures[0].steps[0].hands_on_min = 50.0;
    assert_eq!(check(&document), []);
}

#[test]
fn a_damp_room_is_found_before_the_next_paint() {
    let pass = || vec![step(StepKind::Pass, PAINT, None)];
    assert_eq!(said(pass(), 21.0, 0.8), [("room-too-damp", 0)]);
    assert_eq!(said(pass(), 21.0, 0.7), []);
}

#[test]
fn highlights_come_after_blocking_in() {
    let white = &[("heavy-pw6", 1.0)];
    let steps = |first, second| vec![step(first, white, None), step(second, PAINT, None)];
    let early = steps(StepKind::Detail, StepKind::Underpainting);
    assert_eq!(said(early, 21.0, 0.5), [("highlights-too-early", 0)]);
    let late = steps(StepKind::Underpainting, StepKind::Detail);
    assert_eq!(said(late, 21.0, 0.5), []);
}

#[test]
fn pigments_that_must_not_become_dust_stop_sanding_and_spraying() {
    // PY150 is a nickel complex (Colour Index): work.md has nickel among the pigments.
    let nickel = &[("fluid-py150", 1.0)];
    let steps = vec![step(StepKind::Pass, nickel, None), step(StepKind::Sanding, &[], None)];
    assert_eq!(said(steps, 21.0, 0.5), [("dust-and-spray", 1), ("toxic-dust", 1)]);
    let spray = vec![step(StepKind::Airbrush, nickel, None)];
    assert_eq!(said(spray, 21.0, 0.5), [("dust-and-spray", 0), ("toxic-dust", 0)]);
    let earth = vec![step(StepKind::Airbrush, PAINT, None)];
    assert_eq!(said(earth, 21.0, 0.5), [("dust-and-spray", 0)]);
}

#[test]
fn one_coat_of_varnish_is_noted_and_solvent_wants_care() {
    let steps = vec![step(StepKind::Photograph, &[], None), step(StepKind::Varnish, VARNISH, None)];
    let mut document = studio(steps, 21.0, 0.5);
    let rules = |document: &StudioDocument| -> Vec<&str> {
        check(document).iter().map(|f| f.rule).collect()
    };
    assert_eq!(rules(&document), ["one-varnish-coat"]);
    let gloss = document.materials.iter_mut().find(|m| m.id == "varnish-gloss").unwrap();
    gloss.kind = MaterialKind::SolventVarnish;
    assert_eq!(rules(&document), ["one-varnish-coat", "solvent-varnish"]);
}

#[test]
fn a_studio_that_lays_an_isolation_coat_is_reminded_of_it() {
    let sealed = |kinds: &[StepKind]| {
        let mut steps = vec![step(StepKind::Photograph, &[], None)];
        steps.extend(kinds.iter().map(|kind| step(*kind, VARNISH, None)));
        let mut document = studio(steps, 21.0, 0.5);
        document.schools.isolation_coat = true;
        check(&document).iter().map(|f| (f.rule, f.step)).collect::<Vec<_>>()
    };
    let (isolation, varnish) = (StepKind::IsolationCoat, StepKind::Varnish);
    assert_eq!(sealed(&[varnish, varnish]), [("no-isolation-coat", 1)]);
    assert_eq!(sealed(&[isolation, varnish, varnish]), []);
}

#[test]
fn every_rule_has_its_own_name_and_whole_texts() {
    let mut names: Vec<&str> = RULES.iter().map(|r| r.id).collect();
    names.sort_unstable();
    names.dedup();
    assert_eq!(names.len(), RULES.len());
    for rule in RULES {
        assert!(rule.remedy.ends_with('.') && !rule.provenance.is_empty(), "{}", rule.id);
    }
}
