//! Sealing against the trade's own numbers (docs/trade.md, "Sealing"), and what must hold of any gate.
#![allow(clippy::unwrap_used, clippy::expect_used, clippy::panic)]

mod fit_air;
mod record;
mod the_gate;
mod varnish;

use chrono::{DateTime, Duration, NaiveTime, Utc, Weekday};
use proptest::prelude::*;
use ulvek_core::air::{Air, AirSeries, Origin, humidity_ratio, vapour_concentration_kg_m3};
use ulvek_core::mix::{Finish, Mix, Part, starter_shelf};
use ulvek_core::picture::{
    Carrier, Need, Picture, Purpose, SealTrouble, Step, StepKind, Strokes, VarnishChoice,
};
use ulvek_core::planner::{Request, plan};
use ulvek_core::quantity::Sure;
use ulvek_core::readiness::{WaitReason, air_faults};
use ulvek_core::seal::{
    Action, ConditionId, Gate, KnownFilms, Removal, Stage, Standing, VarnishError, bench_sheet,
    choice_of, forward, gate, good_hours, remedies, removal, varnish_days, with_varnish,
};
use ulvek_core::studio::{OpenHours, Slowed, Studio, StudioHours, Waiting};

fn utc(text: &str) -> DateTime<Utc> {
    text.parse().unwrap()
}

fn now() -> DateTime<Utc> {
    utc("2027-01-14T12:00:00Z")
}

fn air(celsius: f64, humidity: f64) -> Air {
    Air::try_new(celsius, humidity, 0.15).unwrap()
}

fn coat(id: &str, kind: StepKind, material: &str, hours_ago: Option<f64>) -> Step {
    Step {
        mix: Mix::one(material),
        laid_at: hours_ago.map(|h| now() - Duration::seconds((h * 3600.0) as i64)),
        ..Step::usual(id, kind)
    }
}

fn done(id: &str, kind: StepKind, hours_ago: f64) -> Step {
    Step { mix: Mix::default(), wet_film_um: None, ..coat(id, kind, "heavy-pw6", Some(hours_ago)) }
}

/// A thin ordinary picture, signed and photographed, with two varnish coats to come.
fn ready() -> Studio {
    let open = |day| OpenHours {
        day,
        from: NaiveTime::from_hms_opt(10, 0, 0).unwrap(),
        to: NaiveTime::from_hms_opt(16, 0, 0).unwrap(),
    };
    let week = [
        Weekday::Mon,
        Weekday::Tue,
        Weekday::Wed,
        Weekday::Thu,
        Weekday::Fri,
        Weekday::Sat,
        Weekday::Sun,
    ];
    let hours = StudioHours::try_new(chrono_tz::UTC, week.map(open).into(), vec![]).unwrap();
    let steps = vec![
        coat("paint", StepKind::Pass, "heavy-pbr7", Some(500.0)),
        coat("sign", StepKind::Signature, "fluid-pb15", Some(400.0)),
        done("photo", StepKind::Photograph, 300.0),
        coat("v1", StepKind::Varnish, "varnish-gloss", None),
        coat("v2", StepKind::Varnish, "varnish-matte", None),
    ];
    let mut picture = Picture::new("p", (40.0, 50.0), steps);
    picture.seal.inspected_at = Some(now() - Duration::hours(1));
    Studio {
        materials: starter_shelf().unwrap(),
        pictures: vec![picture],
        ..Studio::new("Test room", hours, AirSeries::constant(air(20.5, 0.48)))
    }
}

fn look(studio: &Studio) -> Gate {
    let plan = plan(Request { studio, from: now() });
    gate(studio, 0, (&plan, &[]), now()).unwrap()
}

fn standing(gate: &Gate, id: ConditionId) -> Standing {
    gate.conditions.iter().find(|c| c.id == id).unwrap().standing
}

/// What closes the gate after `change`, and how.
fn closed_by(change: impl FnOnce(&mut Studio)) -> Vec<(ConditionId, Standing)> {
    let mut studio = ready();
    change(&mut studio);
    look(&studio).against().map(|c| (c.id, c.standing)).collect()
}
