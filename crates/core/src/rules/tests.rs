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
    let document = StudioDocument {
        name: "Test room".into(),
        hours: StudioHours::try_new(chrono_tz::UTC, vec![], vec![]).unwrap(),
        flat_places: 1,
        setup_min: 10.0,
        schools: Schools::default(),
        air: AirSeries::constant(Air::try_new(celsius, humidity, 0.15).unwrap()),
        materials: starter_shelf().unwrap(),
        pictures: vec![Picture::new("p", (30.0, 40.0), steps)],
    };
    let mut found: Vec<_> = check(&document).iter().map(|f| (f.rule, f.step)).collect();
    found.sort_unstable();
    found
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
    let steps =
        || vec![step(StepKind::Photograph, &[], None), step(StepKind::Varnish, VARNISH, None)];
    assert_eq!(said(steps(), 21.0, 0.8), [("air-for-varnish", 1)]);
    assert_eq!(said(steps(), 21.0, 0.6), []);
}

#[test]
fn order_before_the_gate_is_held() {
    let steps =
        vec![step(StepKind::Varnish, VARNISH, None), step(StepKind::Signature, PAINT, None)];
    assert_eq!(
        said(steps, 21.0, 0.5),
        [("no-photograph-before-gloss", 0), ("signed-after-varnish", 1)]
    );
}

#[test]
fn care_for_people_stands_at_the_step() {
    assert_eq!(said(vec![step(StepKind::Sanding, &[], None)], 21.0, 0.5), [("dust-and-spray", 0)]);
}
