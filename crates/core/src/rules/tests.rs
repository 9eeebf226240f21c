//! Each rule speaks where it should and is silent where it should not.

use super::*;
use crate::air::{Air, AirSeries};
use crate::mix::{Finish, Part, starter_shelf};
use crate::picture::{Carrier, Purpose, StepKind, Strokes, VarnishChoice};
use crate::quantity::Sure;
use crate::studio::StudioHours;

/// The moment the checks are made at.
fn now() -> DateTime<Utc> {
    "2027-01-05T10:00:00Z".parse().unwrap()
}

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
    let found = check(&studio(steps, celsius, humidity), now()).unwrap();
    let mut found: Vec<_> = found.iter().map(|f| (f.rule, f.step)).collect();
    found.sort_unstable();
    found
}

/// A studio without hours, with one picture of `steps` in a room of `celsius` and `humidity`.
fn studio(steps: Vec<Step>, celsius: f64, humidity: f64) -> Studio {
    Studio {
        materials: starter_shelf().unwrap(),
        pictures: vec![Picture::new("p", (30.0, 40.0), steps)],
        // The table of docs/model/drying.md is plain.
        sure: Sure::BRISK,
        ..Studio::new(
            "Test room",
            StudioHours::try_new(chrono_tz::UTC, vec![], vec![]).unwrap(),
            AirSeries::constant(Air::try_new(celsius, humidity, 0.15).unwrap()),
        )
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
    // docs/trade.md: up to about 15 % of the wet mix [memory].
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
    // docs/trade.md: no sound film below about 9-10 C; varnish under 65-70 % [memory].
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
    assert_eq!(
        said(steps, 21.0, 0.5),
        [("dust-and-spray", 1), ("planned-on-wet", 1), ("toxic-dust", 1)]
    );
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
    // docs/model/drying.md: heavy 100 um on a sealed ground is ready to wrap after 4022 min; 80 um earlier.
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
    let mut studio = studio(vec![long], 21.0, 0.5);
    studio.hours = StudioHours::try_new(chrono_tz::UTC, vec![hours], vec![]).unwrap();
    assert!(names(&studio).contains(&"session-too-short"));
    studio.pictures[0].steps[0].hands_on_min = 50.0;
    assert!(!names(&studio).contains(&"session-too-short"));
    // Hours that meet are one session.
    studio.pictures[0].steps[0].hands_on_min = 100.0;
    let more = crate::studio::OpenHours { from: time(11), to: time(12), ..hours };
    studio.hours = StudioHours::try_new(chrono_tz::UTC, vec![hours, more], vec![]).unwrap();
    assert!(!names(&studio).contains(&"session-too-short"));
}

#[test]
fn a_coat_that_sets_before_it_is_done_is_laid_in_areas() {
    let glaze = |minutes| Step {
        hands_on_min: minutes,
        ..step(StepKind::Glaze, &[("glazing", 9.0), ("fluid-pv19", 1.0)], None)
    };
    let open = |day| crate::studio::OpenHours {
        day,
        from: chrono::NaiveTime::MIN,
        to: crate::studio::MIDNIGHT,
    };
    let said_of = |step| {
        let mut studio = studio(vec![step], 21.0, 0.5);
        let week = vec![open(chrono::Weekday::Tue), open(chrono::Weekday::Wed)];
        studio.hours = StudioHours::try_new(chrono_tz::UTC, week, vec![]).unwrap();
        check(&studio, now()).unwrap().into_iter().map(|f| f.what).collect::<Vec<_>>()
    };
    let said = |minutes| said_of(glaze(minutes));
    // docs/model/drying.md: a glaze of 40 um sets after some 16 minutes; an hour of glazing is too long for it.
    let found = said(60.0);
    assert!(found.len() == 1 && found[0].starts_with("You plan 60 min"), "{found:?}");
    assert!(found[0].contains("areas of about 20 × 15 cm"), "{found:?}");
    // Twelve hours of it: a patch no hand could lay is not named.
    let long = said(720.0);
    assert!(long.iter().any(|what| what.contains("too soon for any patch")), "{long:?}");
    assert_eq!(said(10.0), [] as [String; 0]);
    // No retarder goes into a varnish: nothing of it is said there.
    let varnish =
        Step { hands_on_min: 60.0, ..step(StepKind::Varnish, &[("varnish-gloss", 1.0)], None) };
    assert!(!said_of(varnish).iter().any(|what| what.contains("it sets after")));
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
    // PY150 is a nickel complex (Colour Index): docs/trade.md has nickel among the pigments.
    let nickel = &[("fluid-py150", 1.0)];
    let steps = vec![step(StepKind::Pass, nickel, None), step(StepKind::Sanding, &[], None)];
    assert_eq!(said(steps, 21.0, 0.5), [("dust-and-spray", 1), ("toxic-dust", 1)]);
    let spray = vec![step(StepKind::Airbrush, nickel, None)];
    assert_eq!(said(spray, 21.0, 0.5), [("dust-and-spray", 0), ("toxic-dust", 0)]);
    let earth = vec![step(StepKind::Airbrush, &[("heavy-py42", 1.0)], None)];
    assert_eq!(said(earth, 21.0, 0.5), [("dust-and-spray", 0)]);
}

#[test]
fn one_coat_of_varnish_is_noted_and_solvent_wants_care() {
    let steps = vec![step(StepKind::Photograph, &[], None), step(StepKind::Varnish, VARNISH, None)];
    let mut studio = studio(steps, 21.0, 0.5);
    let rules = |studio: &Studio| -> Vec<&str> {
        check(studio, now()).unwrap().iter().map(|f| f.rule).collect()
    };
    assert_eq!(rules(&studio), ["one-varnish-coat"]);
    let gloss = studio.materials.iter_mut().find(|m| m.id == "varnish-gloss").unwrap();
    gloss.kind = MaterialKind::SolventVarnish;
    assert_eq!(rules(&studio), ["one-varnish-coat", "solvent-varnish"]);
}

#[test]
fn a_studio_that_lays_an_isolation_coat_is_reminded_of_it() {
    let sealed = |kinds: &[StepKind]| {
        let mut steps = vec![step(StepKind::Photograph, &[], None)];
        steps.extend(kinds.iter().map(|kind| step(*kind, VARNISH, None)));
        let mut studio = studio(steps, 21.0, 0.5);
        studio.schools.isolation_coat = true;
        check(&studio, now()).unwrap().iter().map(|f| (f.rule, f.step)).collect::<Vec<_>>()
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
        assert!((rule.remedy)().ends_with('.') && !rule.provenance.is_empty(), "{}", rule.id);
    }
}

/// The rules that speak in a document, by name.
fn names(studio: &Studio) -> Vec<&'static str> {
    check(studio, now()).unwrap().iter().map(|f| f.rule).collect()
}

#[test]
fn a_tub_is_looked_into_once_its_last_good_day_is_past() {
    use crate::mix::Stock;
    use crate::studio::{Tightness, Tub, TubCheck, TubTrouble};
    let mut pass = step(StepKind::Pass, PAINT, None);
    pass.tub = Some("t".into());
    let mut studio = studio(vec![pass], 21.0, 0.5);
    // [practice] days on a covered damp palette, weeks in an airtight tub
    let mixed_at = now() - chrono::Duration::days(4);
    let tub = |tightness| Tub {
        id: "t".into(),
        name: "Lamp glow".into(),
        mix: studio.pictures[0].steps[0].mix.clone(),
        mixed_at,
        mixed_ml: 30.0,
        level: Stock { ml: 30.0, at: mixed_at },
        tightness,
        keeps_days: None,
        checks: vec![],
        archived: false,
    };
    let (mut palette, airtight) = (tub(Tightness::Palette), tub(Tightness::Airtight));
    studio.tubs = vec![airtight];
    assert_eq!(names(&studio), [] as [&str; 0]);
    studio.tubs = vec![palette.clone()];
    assert_eq!(names(&studio), ["tub-out-of-date"]);
    let look = |found: &[TubTrouble]| TubCheck { at: now(), found: found.to_vec() };
    palette.checks = vec![look(&[])];
    studio.tubs = vec![palette.clone()];
    assert_eq!(names(&studio), [] as [&str; 0], "looked into today, and good");
    palette.checks.push(look(&[TubTrouble::Mould]));
    studio.tubs = vec![palette];
    assert_eq!(names(&studio), ["tub-spoiled"]);
}

#[test]
fn thin_broken_coats_are_kept_from_water() {
    let sponged = vec![step(StepKind::Sponge, PAINT, None)];
    assert_eq!(said(sponged, 21.0, 0.5), [("dust-and-spray", 0), ("wet-sponge", 0)]);
    let mist = &[("fluid-pv19", 2.0), ("water", 8.0)];
    let mut steps = vec![step(StepKind::Pass, PAINT, None), step(StepKind::Airbrush, mist, None)];
    let found = said(steps.clone(), 21.0, 0.5);
    assert!(found.contains(&("mist-on-setting-coat", 1)), "{found:?}");
    // [practice] unless the surface is fully dry
    steps[1].needs = Some(crate::picture::Need::DryThrough);
    assert!(!said(steps, 21.0, 0.5).contains(&("mist-on-setting-coat", 1)));
}

#[test]
fn student_paint_hides_in_two_to_three_coats_where_strong_paint_does_in_one() {
    // docs/trade.md, Mixing. [practice]
    let coat = |paint: &'static str| step(StepKind::Underpainting, &[(paint, 1.0)], None);
    let weak = "student-pr254";
    assert_eq!(said(vec![coat(weak)], 21.0, 0.5), [("too-few-coats-to-hide", 0)]);
    assert_eq!(said(vec![coat(weak), coat(weak)], 21.0, 0.5), []);
    assert_eq!(said(vec![coat("heavy-pr254")], 21.0, 0.5), []);
}

#[test]
fn varnish_is_built_with_gloss_and_given_its_time() {
    let varnish = |m: &'static str, laid| step(StepKind::Varnish, &[(m, 1.0)], laid);
    let photo = || step(StepKind::Photograph, &[], None);
    let planned =
        |first, second| said(vec![photo(), varnish(first, None), varnish(second, None)], 21.0, 0.5);
    // docs/trade.md: build with gloss, finish with one matte coat. [practice]
    assert_eq!(planned("varnish-gloss", "varnish-matte"), []);
    assert_eq!(planned("varnish-matte", "varnish-matte"), [("matte-built-up", 2)]);
    // docs/trade.md: three to four days between water-borne and solvent. [practice]
    assert_eq!(planned("varnish-gloss", "solvent-gloss"), [("solvent-varnish", 2)]);
    let over_water = |second| {
        let first = varnish("varnish-gloss", Some("2027-01-01T10:00:00Z"));
        let found = said(vec![photo(), first, varnish("solvent-gloss", Some(second))], 21.0, 0.5);
        found.iter().filter(|(rule, _)| *rule == "solvent-over-water-borne").count()
    };
    assert_eq!(over_water("2027-01-03T10:00:00Z"), 1);
    assert_eq!(over_water("2027-01-04T10:00:00Z"), 0);
    // docs/trade.md: two coats an hour to a day apart. [practice]
    let laid = |second| {
        let first = varnish("varnish-gloss", Some("2027-01-05T10:00:00Z"));
        let both = vec![photo(), first, varnish("varnish-gloss", Some(second))];
        said(both, 21.0, 0.5)
            .into_iter()
            .filter(|(rule, _)| *rule == "varnish-coats-too-close")
            .count()
    };
    assert_eq!(laid("2027-01-05T10:50:00Z"), 1);
    assert_eq!((laid("2027-01-05T11:00:00Z"), laid("2027-01-06T10:00:00Z")), (0, 0));
    let mut part = varnish("varnish-gloss", None);
    part.share_of_area = 0.9;
    let found = said(vec![photo(), part, varnish("varnish-gloss", None)], 21.0, 0.5);
    assert_eq!(found, [("edges-left-out", 1)]);
}

#[test]
fn a_film_that_is_soft_on_the_day_is_said() {
    let pass = step(StepKind::Pass, PAINT, Some("2027-01-01T10:00:00Z"));
    let mut studio = studio(vec![pass], 21.0, 0.5);
    // docs/model/drying.md: heavy paint is ready to wrap after some four days.
    let due = |day| chrono::NaiveDate::from_ymd_opt(2027, 1, day);
    studio.pictures[0].due = due(2);
    assert_eq!(names(&studio), ["soft-on-the-day"]);
    studio.pictures[0].due = due(8);
    assert_eq!(names(&studio), [] as [&str; 0]);
}

#[test]
fn a_pictures_own_school_and_a_labels_own_limit_count() {
    use crate::mix::Thinning;
    use crate::picture::ThinningChoice;
    let cup = step(StepKind::Glaze, &[("fluid-pv19", 8.0), ("water", 2.0)], None);
    let mut studio = studio(vec![cup], 21.0, 0.5);
    assert_eq!(names(&studio), ["thinned-with-water"]);
    let own = ThinningChoice { school: Thinning::WaterAllowed, reason: "a wash".into() };
    studio.pictures[0].thinning = Some(own);
    assert_eq!(names(&studio), [] as [&str; 0]);
    let paint = studio.materials.iter_mut().find(|m| m.id == "fluid-pv19").unwrap();
    paint.most_water = Some(0.10);
    assert_eq!(names(&studio), ["thinned-with-water"]);
}

#[test]
fn an_underbound_film_and_a_large_cup_are_said() {
    let thin = &[("heavy-pw6", 1.0), ("pigment", 2.0)];
    let mut studio = studio(vec![step(StepKind::Pass, thin, None)], 21.0, 0.5);
    let paste = crate::mix::Composition::try_new(0.5, 0.5, 0.0).unwrap();
    let mut pigment = Material::new("pigment", "Pigment paste", MaterialKind::Paint, paste);
    pigment.binder = Some(0.0);
    studio.materials.push(pigment);
    assert_eq!(names(&studio), ["underbound-film"]);
    studio.pictures[0].width_cm = 300.0;
    studio.pictures[0].height_cm = 200.0;
    assert!(names(&studio).contains(&"large-cup"));
}

#[test]
fn what_was_set_aside_keeps_its_reason_and_comes_last() {
    let cup = |retarder: f64| {
        step(StepKind::Glaze, &[("glazing", 100.0 - retarder), ("retarder", retarder)], None)
    };
    let mut second = cup(17.0);
    second.id = "second".into();
    let mut studio = studio(vec![cup(16.0), second], 21.0, 0.5);
    studio.pictures[0].set_aside = vec![SetAside {
        rule: "too-much-retarder".into(),
        step: studio.pictures[0].steps[0].id.clone(),
        reason: "a test panel".into(),
        at: now(),
    }];
    let found: Vec<_> = check(&studio, now())
        .unwrap()
        .into_iter()
        .map(|f| (f.step, f.set_aside.map(|a| a.reason)))
        .collect();
    assert_eq!(found, [(1, None), (0, Some("a test panel".into()))]);
}

#[test]
fn a_sealed_stack_that_is_soft_below_is_said_until_it_is_wrapped() {
    // docs/model/drying.md: what lies deeper than 60 um leaves too slowly to harm a seal, and is no closed gate.
    let thick = |film: f64| {
        let deep = Step {
            wet_film_um: Some(film),
            ..step(StepKind::Pass, &[("slow-pbr7", 1.0)], Some("2026-12-01T10:00:00Z"))
        };
        let thin = step(StepKind::Pass, PAINT, Some("2026-12-08T10:00:00Z"));
        let varnish = step(StepKind::Varnish, VARNISH, Some("2027-01-04T10:00:00Z"));
        said(vec![deep, thin, varnish], 21.0, 0.5)
    };
    assert!(thick(1500.0).contains(&("soft-underneath", 2)), "{:?}", thick(1500.0));
    assert!(!thick(30.0).iter().any(|(rule, _)| *rule == "soft-underneath"), "{:?}", thick(30.0));
}

/// What is said by rule `id` of a picture with `steps`, in an ordinary room.
fn words(id: &str, steps: Vec<Step>) -> Vec<String> {
    words_in(id, &studio(steps, 21.0, 0.5))
}

fn words_in(id: &str, studio: &Studio) -> Vec<String> {
    let found = check(studio, now()).unwrap();
    found.into_iter().filter(|f| f.rule == id).map(|f| f.what).collect()
}

#[test]
fn a_sanding_names_every_poisonous_coat_it_reaches_whatever_the_order_of_the_list() {
    let umber =
        |name: &str, laid| Step { name: Some(name.into()), ..step(StepKind::Pass, PAINT, laid) };
    let steps = vec![
        umber("dark", Some("2027-01-01T10:00:00Z")),
        step(StepKind::Sanding, &[], None),
        umber("edges", Some("2027-01-02T10:00:00Z")),
    ];
    let found = words("toxic-dust", steps);
    assert!(
        found[0].starts_with("The dust of dark is poisonous: it holds PBr7 (manganese)"),
        "{found:?}"
    );
    assert!(found[1].starts_with("The dust of edges is poisonous"), "{found:?}");
    let splatter = vec![step(StepKind::Sponge, PAINT, None)];
    assert!(words("dust-and-spray", splatter)[0].contains("droplets of PBr7 (manganese)"));
}

#[test]
fn a_photograph_older_than_the_last_paint_is_no_photograph_before_the_gloss() {
    let pictured = |photographed: &str| {
        vec![
            step(StepKind::Pass, PAINT, Some("2027-01-02T10:00:00Z")),
            step(StepKind::Photograph, &[], Some(photographed)),
            step(StepKind::Varnish, VARNISH, None),
        ]
    };
    let early = words("no-photograph-before-gloss", pictured("2027-01-01T10:00:00Z"));
    assert!(early[0].starts_with("The photograph is older than"), "{early:?}");
    assert_eq!(words("no-photograph-before-gloss", pictured("2027-01-03T10:00:00Z")), [""; 0]);
}

#[test]
fn varnish_that_was_laid_too_damp_is_found() {
    let steps = || {
        vec![
            step(StepKind::Pass, PAINT, Some("2026-12-20T10:00:00Z")),
            step(StepKind::Varnish, VARNISH, Some("2027-01-04T10:00:00Z")),
        ]
    };
    let found = words_in("air-for-varnish", &studio(steps(), 21.0, 0.75));
    assert_eq!(found, ["While it was wet 75 % is too damp for varnish: look for cloudy places."]);
    assert_eq!(words("air-for-varnish", steps()), [""; 0]);
}

#[test]
fn what_slows_is_judged_by_what_it_is_made_of_and_not_by_its_name() {
    let own = |id: &str, [solids, water, slow]: [f64; 3]| {
        let mix = crate::mix::Composition::try_new(solids, water, slow).unwrap();
        Material::new(id, id, MaterialKind::Medium, mix)
    };
    let with = |steps| {
        let mut studio = studio(steps, 21.0, 0.5);
        studio.materials.push(own("additive", [0.0, 0.2, 0.8]));
        studio.materials.push(own("open-medium", [0.36, 0.36, 0.28]));
        studio
    };
    let cup = step(StepKind::Glaze, &[("glazing", 80.0), ("additive", 20.0)], None);
    assert_eq!(words_in("too-much-retarder", &with(vec![cup])).len(), 1);
    let both = step(StepKind::Glaze, &[("open-medium", 90.0), ("additive", 10.0)], None);
    assert_eq!(words_in("retarder-with-slow-paint", &with(vec![both])).len(), 1);
    // A fast coat over one with a fifth of retarder.
    let fast = vec![
        step(StepKind::Pass, &[("heavy-pb29", 80.0), ("retarder", 20.0)], None),
        step(StepKind::Pass, PAINT, None),
    ];
    assert_eq!(words("fast-over-slow", fast).len(), 1);
}

#[test]
fn a_tub_that_will_be_past_when_it_is_used_is_found() {
    let mixed_at = now() - chrono::Duration::days(1);
    let tub = |keeps_days| crate::studio::Tub {
        id: "grey".into(),
        name: "Grey".into(),
        mix: crate::mix::Mix::of(PAINT),
        mixed_at,
        mixed_ml: 20.0,
        level: crate::mix::Stock { ml: 20.0, at: mixed_at },
        tightness: crate::studio::Tightness::Airtight,
        keeps_days: Some(keeps_days),
        checks: Vec::new(),
        archived: false,
    };
    let of = |keeps_days| {
        let later = now() + chrono::Duration::days(5);
        let coat = Step {
            tub: Some("grey".into()),
            not_before: Some(later),
            ..step(StepKind::Pass, PAINT, None)
        };
        let mut studio = studio(vec![coat], 21.0, 0.5);
        studio.tubs = vec![tub(keeps_days)];
        words_in("tub-out-of-date", &studio).len()
    };
    assert_eq!((of(3.0), of(30.0)), (1, 0));
}

#[test]
fn varnish_is_thin_last_and_holds_nothing_slow() {
    let varnish =
        |um: f64| Step { wet_film_um: Some(um), ..step(StepKind::Varnish, VARNISH, None) };
    let misused = |steps| words("varnish-misused", steps);
    assert!(misused(vec![varnish(120.0)])[0].starts_with("At 120 µm wet"));
    assert_eq!(misused(vec![varnish(50.0)]), [""; 0]);
    assert_eq!(misused(vec![step(StepKind::Glaze, VARNISH, None)]).len(), 1);
    let slowed = [("varnish-gloss", 9.0), ("retarder", 1.0)];
    assert_eq!(misused(vec![step(StepKind::Varnish, &slowed, None)]).len(), 1);
    let sanded = vec![
        step(StepKind::Varnish, VARNISH, Some("2027-01-01T10:00:00Z")),
        step(StepKind::Sanding, &[], None),
    ];
    assert_eq!(misused(sanded).len(), 1);
}

#[test]
fn the_last_coat_of_varnish_has_the_sheen_that_was_chosen() {
    let last = |medium: &str, purpose, finish| {
        let coat = |m: &str| step(StepKind::Varnish, &[(m, 1.0)], None);
        let mut studio = studio(vec![coat("varnish-gloss"), coat(medium)], 21.0, 0.5);
        studio.pictures[0].seal.choice = Some(VarnishChoice {
            carrier: Carrier::WaterBorne,
            finish,
            purpose,
            coats: 2,
            isolation: false,
            isolation_reason: None,
            strokes: Strokes::Crossed,
            edge_cm: 2.0,
        });
        words_in("sheen-not-kept", &studio).len()
    };
    assert_eq!(last("varnish-matte", Purpose::HighGloss, Finish::Gloss), 1);
    assert_eq!(last("varnish-matte", Purpose::Hung, Finish::Satin), 1);
    assert_eq!(last("varnish-matte", Purpose::Hung, Finish::Matte), 0);
    assert_eq!(last("varnish-gloss", Purpose::HighGloss, Finish::Gloss), 0);
}

#[test]
fn an_isolation_coat_covers_the_face_and_does_not_stay_open() {
    let coat = |medium: &str, share_of_area| Step {
        share_of_area,
        ..step(StepKind::IsolationCoat, &[(medium, 1.0)], None)
    };
    let found = |coat| words("isolation-incomplete", vec![coat]).len();
    assert_eq!(found(coat("gloss-medium", 1.0)), 0);
    assert_eq!(found(coat("gloss-medium", 0.4)), 1);
    assert_eq!(found(coat("glazing", 1.0)), 1);
}

#[test]
fn the_fifth_coat_of_matte_medium_and_an_unsealed_drawing_are_found() {
    let veil = || step(StepKind::Glaze, &[("matte-medium", 9.0), ("fluid-pv19", 1.0)], None);
    assert_eq!(words("matte-built-up", (0..4).map(|_| veil()).collect()), [""; 0]);
    assert_eq!(words("matte-built-up", (0..5).map(|_| veil()).collect()).len(), 1);
    let drawn = |next| vec![step(StepKind::Drawing, &[], None), next];
    assert_eq!(words("drawing-unsealed", drawn(step(StepKind::Pass, PAINT, None))).len(), 1);
    let sealed = step(StepKind::SealDrawing, &[("matte-medium", 1.0)], None);
    assert_eq!(words("drawing-unsealed", drawn(sealed)), [""; 0]);
}
