//! The one law against what was once seen: a table of studios in which planner, gate, rules and log each
//! judged for themselves, and what must hold in every studio.
#![allow(clippy::unwrap_used, clippy::panic)]

mod plans;
mod properties;
mod sections;

use chrono::{DateTime, Duration, NaiveTime, Utc, Weekday};
use proptest::prelude::*;
use std::sync::Arc;
use ulvek_core::air::{Air, AirSeries};
use ulvek_core::deeds::find_trouble;
use ulvek_core::film::{FilmState, Grid, HORIZON_S};
use ulvek_core::mix::{Mix, starter_shelf};
use ulvek_core::picture::{Need, Picture, SealTrouble, Step, StepKind, follow};
use ulvek_core::planner::{Aim, Pin, Plan, Request, SEED, date_ways, odds, plan, ready};
use ulvek_core::planner::{Blocked, DateWayKind, Desk, PlannedStep, Planner};
use ulvek_core::readiness::{
    Around, Bed, Calendar, FitAir, Ready, Stretch, Task, Verdict, WaitReason, first_place, history,
    may_lay,
};
use ulvek_core::rules::check;
use ulvek_core::seal::{ConditionId, Gate, Stage, gate};
use ulvek_core::studio::{MIDNIGHT, OpenHours, Studio, StudioHours, Waiting};
use ulvek_core::time::DAY_S;

fn utc(text: &str) -> DateTime<Utc> {
    text.parse().unwrap()
}

/// A Monday morning.
fn now() -> DateTime<Utc> {
    utc("2027-01-04T08:00:00Z")
}

#[rustfmt::skip]
const WEEK: [Weekday; 7] = [
    Weekday::Mon, Weekday::Tue, Weekday::Wed, Weekday::Thu,
    Weekday::Fri, Weekday::Sat, Weekday::Sun,
];

fn hours(from: u32, to: NaiveTime) -> StudioHours {
    let from = NaiveTime::from_hms_opt(from, 0, 0).unwrap();
    let open = WEEK.map(|day| OpenHours { day, from, to });
    StudioHours::try_new(chrono_tz::UTC, open.to_vec(), vec![]).unwrap()
}

fn room(celsius: f64, humidity: f64) -> AirSeries {
    AirSeries::constant(Air::try_new(celsius, humidity, 0.15).unwrap())
}

fn studio(steps: Vec<Step>) -> Studio {
    Studio {
        materials: starter_shelf().unwrap(),
        flat_places: 2,
        pictures: vec![Picture::new("p", (30.0, 40.0), steps)],
        ..Studio::new("Room", hours(9, NaiveTime::from_hms_opt(17, 0, 0).unwrap()), room(21.0, 0.5))
    }
}

fn coat(id: &str, kind: StepKind, material: &str) -> Step {
    let mix = if kind.leaves_film() { Mix::one(material) } else { Mix::default() };
    Step { mix, hands_on_min: 20.0, splittable: false, ..Step::usual(id, kind) }
}

fn paint(id: &str) -> Step {
    coat(id, StepKind::Pass, "heavy-pb29")
}

fn varnish(id: &str) -> Step {
    coat(id, StepKind::Varnish, "varnish-gloss")
}

fn laid(step: Step, days_ago: i64) -> Step {
    Step { laid_at: Some(now() - Duration::days(days_ago)), ..step }
}

fn planned(studio: &Studio) -> Plan {
    plan(Request { studio, from: now() })
}

/// When step `id` of the first picture begins.
fn begins(studio: &Studio, id: &str) -> DateTime<Utc> {
    let made = planned(studio);
    let i = studio.pictures[0].place_of(id).unwrap();
    let step = made.steps.iter().find(|s| (s.picture, s.step) == (0, i)).unwrap();
    step.sittings.first().unwrap_or_else(|| panic!("{id}: {:?}", step.blocked)).from
}

fn blocked(studio: &Studio, id: &str) -> Option<Blocked> {
    let i = studio.pictures[0].place_of(id).unwrap();
    let made = planned(studio);
    made.steps.iter().find(|s| (s.picture, s.step) == (0, i)).unwrap().blocked.clone()
}

fn look(studio: &Studio, at: DateTime<Utc>) -> Gate {
    gate(studio, 0, (&planned(studio), &[]), at).unwrap()
}

fn found(studio: &Studio, rule: &str) -> bool {
    check(studio, now()).unwrap().iter().any(|f| f.rule == rule)
}

/// What was seen, the studio that showed it, and what holds now.
type Row = (&'static str, fn() -> Studio, fn(&Studio) -> bool);

/// Days from the last paint to the first varnish [d].
fn wait_days(studio: &Studio) -> f64 {
    let made = planned(studio);
    let end = |id: &str| {
        let i = studio.pictures[0].place_of(id).unwrap();
        let of = made.steps.iter().find(|s| s.step == i);
        studio.pictures[0].steps[i].laid_at.or(of.and_then(|s| s.sittings.last()).map(|s| s.to))
    };
    (begins(studio, "v1") - end("paint").unwrap()).num_minutes() as f64 / 1440.0
}

fn needs(need: Need) -> Studio {
    studio(vec![paint("paint"), Step { needs: Some(need), ..varnish("v1") }, varnish("v2")])
}

const ADVICE: &[Row] = &[
    (
        "a need that was said dropped every waiting time: varnish 92 minutes after paint",
        || needs(Need::DryThrough),
        |s| wait_days(s) >= 3.0,
    ),
    (
        "even the kind's own need did, and the stricter one",
        || needs(Need::ReadyToWrap),
        |s| wait_days(s) >= 3.0 && wait_days(&needs(Need::ReadyToSeal)) >= 3.0,
    ),
    (
        "a need of nothing let varnish onto wet paint without a word",
        || needs(Need::Nothing),
        |s| wait_days(s) >= 3.0 && found(s, "planned-on-wet"),
    ),
    (
        "slow-drying paint was sealed after two days",
        || {
            let slow = coat("paint", StepKind::Pass, "slow-pb29");
            studio(vec![slow, Step { needs: Some(Need::ReadyToSeal), ..varnish("v1") }])
        },
        |s| wait_days(s) >= 14.0,
    ),
    (
        "spirit varnish 57 minutes after water-borne",
        || {
            let spirit = coat("v2", StepKind::Varnish, "solvent-gloss");
            let spirit = Step { needs: Some(Need::Paintable), ..spirit };
            studio(vec![laid(paint("paint"), 30), laid(varnish("v1"), 1), spirit])
        },
        |s| begins(s, "v2") >= s.pictures[0].steps[1].laid_at.unwrap() + Duration::days(3),
    ),
    (
        "the gate forgot the school when paint lies over a seal",
        || {
            let mut studio = studio(vec![
                laid(paint("paint"), 30),
                laid(varnish("v1"), 20),
                laid(paint("over"), 1),
                varnish("v2"),
            ]);
            studio.pictures[0].paint_over_seal = true;
            studio.schools.waiting = Waiting::Patient;
            studio
        },
        |s| {
            let floor = s.pictures[0].steps[2].laid_at.unwrap() + Duration::days(14);
            begins(s, "v2") >= floor && look(s, now()).earliest.unwrap().0 == begins(s, "v2")
        },
    ),
    (
        "a drawing was sealed ten minutes after a wet tone",
        || {
            let drawing = Step { after: Some(vec![]), ..coat("drawing", StepKind::Drawing, "") };
            let seal = coat("seal", StepKind::SealDrawing, "matte-medium");
            studio(vec![
                coat("tone", StepKind::Tone, "slow-pb29"),
                drawing,
                Step { after: Some(vec!["drawing".into(), "tone".into()]), ..seal },
            ])
        },
        |s| begins(s, "seal") > begins(s, "tone") + Duration::hours(2),
    ),
    (
        "a glaze whose after names the tone was planned on top of the varnish",
        || {
            let glaze = coat("glaze", StepKind::Glaze, "glazing");
            let glaze = Step { after: Some(vec!["paint".into()]), ..glaze };
            studio(vec![paint("paint"), varnish("v1"), glaze])
        },
        |s| begins(s, "glaze") < begins(s, "v1"),
    ),
    (
        "paint over varnish raised no finding, and was planned",
        || studio(vec![laid(paint("paint"), 30), laid(varnish("v1"), 20), paint("over")]),
        |s| {
            matches!(blocked(s, "over"), Some(Blocked::OverSeal { .. }))
                && found(s, "paint-over-varnish")
        },
    ),
    (
        "water-borne varnish over spirit raised none either",
        || {
            let spirit = coat("v1", StepKind::Varnish, "solvent-gloss");
            studio(vec![laid(paint("paint"), 60), laid(spirit, 30), varnish("v2")])
        },
        |s| {
            matches!(blocked(s, "v2"), Some(Blocked::Product(_)))
                && found(s, "water-borne-over-solvent")
        },
    ),
    (
        "with readings of 4 to 6 C it was painted, and every rule was silent",
        || {
            let cold = |h: i64| {
                let at = (now() + Duration::hours(h)).timestamp() as f64;
                (at, Air::try_new(5.0, 0.5, 0.15).unwrap())
            };
            let mut studio = studio(vec![paint("paint")]);
            studio.air = AirSeries::new(*studio.air.usual(), (0..30).map(cold).collect());
            studio
        },
        |s| begins(s, "paint") >= now() + Duration::hours(30) && found(s, "waits-for-air"),
    ),
    (
        "a room kept at 8 C was painted in",
        || Studio { air: room(8.0, 0.5), ..studio(vec![paint("paint")]) },
        |s| matches!(blocked(s, "paint"), Some(Blocked::Air { .. })) && found(s, "room-too-cold"),
    ),
    (
        "in 15 C and 75 % it was varnished in time, with odds of 1.0",
        || {
            let mut studio = studio(vec![laid(paint("paint"), 30), varnish("v1")]);
            studio.air = room(15.0, 0.75);
            studio.pictures[0].due = Some((now() + Duration::days(30)).date_naive());
            studio
        },
        |s| {
            let due = s.pictures[0].due.unwrap();
            let request = Request { studio: s, from: now() };
            let sampled = odds(request, (&[], &[]), SEED, (8, 1), Aim::Finish, |_| {});
            matches!(blocked(s, "v1"), Some(Blocked::Air { .. }))
                && found(s, "air-for-varnish")
                && sampled[0].by(due) == 0.0
        },
    ),
    (
        "the last hourly reading stood for 400 days",
        || {
            let mut studio = studio(vec![laid(paint("paint"), 30), varnish("v1")]);
            let damp = Air::try_new(21.0, 0.9, 0.15).unwrap();
            studio.air =
                AirSeries::new(*studio.air.usual(), vec![(now().timestamp() as f64, damp)]);
            studio
        },
        |s| begins(s, "v1") < now() + Duration::hours(3),
    ),
    (
        "a photograph taken half-way held for the last paint",
        || studio(vec![laid(paint("paint"), 30), laid(paint("later"), 20), varnish("v1")]),
        |s| {
            let closes = |days: i64| {
                let shot = [now() - Duration::days(days)];
                let found = gate(s, 0, (&planned(s), &shot), now()).unwrap();
                found.against().any(|c| c.id == ConditionId::Photograph)
            };
            closes(25) && !closes(15)
        },
    ),
    (
        "a look over the surface never expired",
        || studio(vec![laid(paint("paint"), 30), varnish("v1")]),
        |s| {
            let closes = |hours: i64| {
                let mut seen = s.clone();
                seen.pictures[0].seal.inspected_at = Some(now() - Duration::hours(hours));
                look(&seen, now()).against().any(|c| c.id == ConditionId::Surface)
            };
            closes(25) && !closes(23)
        },
    ),
    (
        "after a drip the plan said tonight and the gate tomorrow",
        || studio(vec![laid(paint("paint"), 30), laid(varnish("v1"), 0), varnish("v2")]),
        |s| {
            let (deed, _) = find_trouble(s, 0, ("v1", SealTrouble::Drip), now()).unwrap();
            let mended = Studio { pictures: vec![deed.picture], ..s.clone() };
            let next = begins(&mended, "v2");
            next.date_naive() > now().date_naive()
                && look(&mended, now()).earliest.map(|(from, _)| from) == Some(next)
        },
    ),
    (
        "ready, and the gate: nothing touches the face before the ninth",
        || {
            let mut studio = studio(vec![laid(paint("paint"), 30), varnish("v1")]);
            studio.pictures[0].due = Some(now().date_naive());
            studio
        },
        |s| {
            let made = planned(s);
            let safe = ready(s, &made, 0).unwrap();
            let mut done = s.clone();
            done.pictures[0].steps[1].laid_at = made.steps[0].sittings.last().map(|x| x.to);
            let later = now() + Duration::days(1);
            let curing =
                gate(&done, 0, (&plan(Request { studio: &done, from: later }), &[]), later);
            safe.days_late.unwrap() > 0
                && safe.at == curing.unwrap().wrap_from
                && found(s, "soft-on-the-day")
        },
    ),
];

#[test]
fn no_advice_ruins_a_picture() {
    for (seen, studio, holds) in ADVICE {
        assert!(holds(&studio()), "{seen}");
    }
}
