//! What a painter is told of each sitting: what to mix, why not before, what to do beside it, what rings.

use chrono::{DateTime, Duration, NaiveTime, Utc, Weekday};
use ulvek_core::air::{Air, AirSeries};
use ulvek_core::mix::{Mix, Part, starter_shelf};
use ulvek_core::picture::{Picture, Step, StepKind};
use ulvek_core::planner::{AgendaEntry, MIST_EVERY, Request, agenda, plan};
use ulvek_core::studio::{OpenHours, Studio, StudioHours};

fn monday() -> DateTime<Utc> {
    "2027-01-04T08:00:00Z".parse().unwrap()
}

fn mix(parts: &[(&str, f64)]) -> Mix {
    let part =
        |(material, parts): &(&str, f64)| Part { material: (*material).into(), parts: *parts };
    parts.iter().map(part).collect()
}

/// A step of `minutes` with 60 um of `parts` over the whole picture.
fn step(kind: StepKind, minutes: f64, parts: &[(&str, f64)]) -> Step {
    Step {
        mix: mix(parts),
        hands_on_min: minutes,
        wet_film_um: (!parts.is_empty()).then_some(60.0),
        share_of_area: 1.0,
        splittable: false,
        ..Step::usual(kind.word().replace(' ', "-"), kind)
    }
}

/// One picture of 30 by 40 cm; hours from nine to five on every day, in air of this humidity.
fn studio(humidity: f64, steps: Vec<Step>) -> Studio {
    let time = |h| NaiveTime::from_hms_opt(h, 0, 0).unwrap();
    let hours = (0..7).map(|n| OpenHours {
        day: Weekday::try_from(n).unwrap(),
        from: time(9),
        to: time(17),
    });
    Studio {
        materials: starter_shelf().unwrap(),
        pictures: vec![Picture { title: "Lamp".into(), ..Picture::new("p", (30.0, 40.0), steps) }],
        ..Studio::new(
            "Room",
            StudioHours::try_new(chrono_tz::UTC, hours.collect(), vec![]).unwrap(),
            AirSeries::constant(Air::try_new(21.0, humidity, 0.15).unwrap()),
        )
    }
}

fn told(studio: &Studio) -> Vec<AgendaEntry> {
    agenda(studio, &plan(Request { studio, from: monday() }))
}

#[test]
fn the_cup_is_told_in_a_line_with_what_stays_in_cup_and_brush() {
    let studio = studio(
        0.5,
        vec![
            step(StepKind::Tone, 20.0, &[("heavy-pbr7", 1.0)]),
            step(StepKind::Glaze, 20.0, &[("glazing", 9.0), ("fluid-pb15", 1.0)]),
            step(StepKind::Photograph, 10.0, &[]),
        ],
    );
    let told = told(&studio);
    // 60 um on 1 200 cm2 are 7.2 ml; with 15 % that stay in cup and brush (common practice) 8.47.
    let tone = told[0].cup.as_deref().unwrap();
    assert!(tone.starts_with("Take 8.5 ml ") && tone.contains("PBr7"), "{tone}");
    let glaze = told[1].cup.as_deref().unwrap();
    assert!(glaze.starts_with("Mix 8.5 ml: 7.6 ml ") && glaze.contains(" + 0.85 ml "), "{glaze}");
    assert!(glaze.ends_with(", 17 drops."), "less than a millilitre is counted: {glaze}");
    assert_eq!(told[2].cup, None, "nothing is mixed for a photograph");
    assert_eq!(told[0].because, None, "nothing is waited for at first");
    assert!(told[1].because.is_some(), "the glaze waits for the tone");
}

#[test]
fn a_long_wet_session_in_dry_air_wants_damp_air_and_a_misted_palette() {
    let long = |kind| step(kind, 60.0, &[("heavy-pb29", 1.0)]);
    let first = |humidity, step| told(&studio(humidity, vec![step])).remove(0);
    let dry = first(0.35, long(StepKind::Pass));
    let on = dry.from - Duration::hours(1);
    assert_eq!(
        dry.beside,
        [
            format!("Humidifier on from {}.", on.format("%H:%M")),
            format!("Mist the palette, not the picture, every {} min.", MIST_EVERY.num_minutes()),
        ]
    );
    let rings: Vec<_> = dry.alarms.iter().map(|a| (a.name, a.at)).collect();
    assert_eq!(rings, [("humidifier", on)]);
    // Damp air needs no help, a short session none, and varnish is not laid in damp air.
    assert!(first(0.6, long(StepKind::Pass)).beside.is_empty());
    assert!(first(0.35, step(StepKind::Pass, 30.0, &[("heavy-pb29", 1.0)])).beside.is_empty());
    let varnish = step(StepKind::Varnish, 60.0, &[("varnish-gloss", 1.0)]);
    assert!(first(0.35, varnish).beside.is_empty());
}

#[test]
fn what_a_step_waits_for_rings_when_the_film_is_there_and_not_when_the_hours_are() {
    let studio = studio(
        0.6,
        vec![
            step(StepKind::Tone, 20.0, &[("heavy-pbr7", 1.0)]),
            step(StepKind::Glaze, 20.0, &[("glazing", 9.0), ("fluid-pb15", 1.0)]),
            step(StepKind::Varnish, 20.0, &[("varnish-gloss", 1.0)]),
        ],
    );
    let told = told(&studio);
    let of = |n: usize| told.iter().find(|e| e.step == n).unwrap();
    for (n, state) in [(1, "paintable"), (2, "ready to seal")] {
        let [alarm] = &of(n).alarms[..] else { panic!("{:?}", of(n).alarms) };
        assert_eq!((alarm.name, alarm.said.as_str()), ("ready", format!("Lamp: {state}").as_str()));
        assert!(alarm.at <= of(n).from && alarm.at > of(n - 1).to, "{n}: {alarm:?}");
    }
}

#[test]
fn a_step_in_several_sittings_is_told_once() {
    let split = Step { splittable: true, ..step(StepKind::Pass, 900.0, &[("heavy-pb29", 1.0)]) };
    let told = told(&studio(0.35, vec![split]));
    // Fifteen hours in days of eight, ten minutes of each for the set-up.
    assert_eq!(told.len(), 2);
    assert!(told.iter().enumerate().all(|(n, e)| (e.n, e.of) == (n, 2)));
    assert!(told[0].cup.is_some() && !told[0].beside.is_empty());
    let rest = &told[1];
    assert!(rest.cup.is_none() && rest.beside.is_empty() && rest.alarms.is_empty());
    let worked: i64 = told.iter().map(|e| (e.to - e.from).num_minutes()).sum();
    assert_eq!(worked, 900);
}

#[test]
fn nothing_raises_the_air_while_varnish_is_wet_or_an_hour_before() {
    let long = || step(StepKind::Pass, 60.0, &[("heavy-pb29", 1.0)]);
    let told_at = |varnished: Option<DateTime<Utc>>| {
        let mut studio = studio(0.4, vec![long()]);
        let mut seal = step(StepKind::Varnish, 20.0, &[("varnish-gloss", 1.0)]);
        seal.laid_at = varnished;
        let paint = Step {
            laid_at: Some(monday() - Duration::days(20)),
            ..step(StepKind::Tone, 20.0, &[("heavy-pbr7", 1.0)])
        };
        studio.pictures.push(Picture::new("q", (30.0, 40.0), vec![paint, seal]));
        told(&studio).into_iter().filter(|entry| entry.picture == 0).flat_map(|e| e.beside).count()
    };
    // The pass is at nine o'clock, the humidifier would run from eight.
    assert_eq!(told_at(Some(monday() - Duration::hours(12))), 2);
    assert_eq!(told_at(Some(monday() - Duration::hours(1))), 0, "wet until nine");
    assert_eq!(told_at(None), 0, "its varnish is planned for the same morning");
}
