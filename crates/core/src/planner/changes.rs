//! What can be changed to make a date: the work, the room or the waiting; one thing, or several together.

use super::Plan;
use super::change::{Change, DateWayKind};
use super::extra_session::extra_session;
use crate::air::RoomChange;
use crate::mix::{Material, MaterialKind};
use crate::picture::{Picture, ReadyBy, Step, StepKind};
use crate::quantity::Weight;
use crate::readiness::{DAMPEST, DRIEST as LEAST_HUMID, WARM, air_faults};
use crate::studio::{OrderEntry, Studio, Waiting};
use crate::time::seconds;
use chrono::{DateTime, Utc};

/// Part of a planned film that a thinner coat keeps [-]. [practice] a quarter less
const THINNER: f64 = 0.75;
/// How much warmer a room is easily made [C]. [practice]
const WARMER_C: f64 = 3.0;
/// The warmest a room is made [C]: what varnish stands. [memory]
const WARMEST_C: f64 = *WARM.end();
/// How much drier a dehumidifier makes a room [-]. [practice]
const DRIER: f64 = 0.10;
/// The driest a room is made [-]: below it palettes skin. [practice]
const DRIEST: f64 = 0.35;
/// How far inside the range of varnish a room is brought [C]. [practice] it is never quite even
const INSIDE_C: f64 = 1.0;
/// How far inside it is brought [-]. [practice] likewise
const INSIDE: f64 = 0.05;
/// Air over the picture from a fan [m/s]; docs/model/drying.md. [memory]
const FAN: f64 = 1.0;

/// Every change that can be made, with its words.
pub(super) fn changes<'a>(
    studio: &Studio,
    picture: &Picture,
    p: usize,
    present: &Plan,
    from: DateTime<Utc>,
) -> Vec<Change<'a>> {
    let mut found = changes_of_steps(studio, p);
    let all = if studio.pictures.len() > 1 { ", for every picture" } else { "" };
    for (kind, what, room) in rooms(studio, from) {
        found.push(Change::of_room(kind, format!("{what}{all}"), seconds(from), room));
    }
    let seals = |s: &Step| s.kind.seals() && s.laid_at.is_none();
    if let Some((what, room)) = fit_air(studio).filter(|_| picture.steps.iter().any(seals)) {
        found.push(Change::of_room(
            DateWayKind::FitAir,
            format!("{what}{all}"),
            seconds(from),
            room,
        ));
    }
    found.extend(extra_session(studio, picture, p, present, from));
    found.extend(shorter_wait(studio));
    found.extend(first(studio, p));
    found
}

/// Changes of the coats of picture `p` that are still to come.
fn changes_of_steps<'a>(studio: &Studio, p: usize) -> Vec<Change<'a>> {
    type Edit = fn(&Studio, &mut Picture) -> bool;
    let ways: [(DateWayKind, &str, Edit); 9] = [
        (DateWayKind::NoRetarder, "No retarder in the coats to come", |studio, picture| {
            keep_retarder(studio, picture, 0.0)
        }),
        (DateWayKind::LessRetarder, "Half the retarder in the coats to come", |studio, picture| {
            keep_retarder(studio, picture, 0.5)
        }),
        (DateWayKind::OrdinaryPaint, "Ordinary paint for the slow-drying", |studio, picture| {
            ordinary_for_slow(studio, &mut picture.steps)
        }),
        (DateWayKind::ThinnerCoats, "Coats a quarter thinner", |_, picture| thinner_coats(picture)),
        (DateWayKind::OneGlazeFewer, "One glaze fewer", |_, picture| {
            let glaze = |s: &Step| s.laid_at.is_none() && s.kind == StepKind::Glaze;
            let last = picture.steps.iter().rposition(glaze);
            last.is_some_and(|i| picture.take_out(i).is_some())
        }),
        (DateWayKind::OneVarnishCoat, "One varnish coat only", |_, picture| {
            one_varnish_coat(picture)
        }),
        (DateWayKind::NoIsolationCoat, "No isolation coat", |_, picture| {
            take_out_all(picture, StepKind::IsolationCoat)
        }),
        (DateWayKind::VarnishLater, "Varnish it after it was handed over", |_, picture| {
            let varnished =
                picture.steps.iter().any(|s| s.kind == StepKind::Varnish && s.laid_at.is_some());
            !varnished && take_out_all(picture, StepKind::Varnish)
        }),
        (
            DateWayKind::Unwrapped,
            "Hand it over unwrapped: ready means its last coat is on",
            |_, picture| {
                let wrapped = picture.ready_by == ReadyBy::Wrapped;
                picture.ready_by = ReadyBy::Sealed;
                wrapped
            },
        ),
    ];
    let change = |(kind, what, edit): (DateWayKind, &str, Edit)| {
        Change::new(kind, what, move |studio: &Studio| {
            let mut changed = studio.clone();
            edit(studio, &mut changed.pictures[p]).then_some(changed)
        })
    };
    ways.into_iter().map(change).filter(|change| change.made(studio).is_some()).collect()
}

/// Takes the steps of `kind` that are still to come out; whether there were any.
pub(super) fn take_out_all(picture: &mut Picture, kind: StepKind) -> bool {
    let mut any = false;
    while let Some(i) = picture.steps.iter().position(|s| s.kind == kind && s.laid_at.is_none()) {
        any |= picture.take_out(i).is_some();
    }
    any
}

/// Keeps a share of the retarder in the coats to come; whether there was any.
fn keep_retarder(studio: &Studio, picture: &mut Picture, keep: f64) -> bool {
    let is_retarder =
        |id: &str| studio.material(id).is_some_and(|m| m.kind == MaterialKind::Retarder);
    let mut any = false;
    for step in picture.steps.iter_mut().filter(|s| s.laid_at.is_none() && s.tub.is_none()) {
        for part in step.mix.iter_mut().filter(|x| is_retarder(&x.material)) {
            part.parts *= keep;
            any = true;
        }
        step.mix.retain(|x| x.parts > 0.0);
    }
    any
}

/// Thins the painted coats to come; whether there are any.
fn thinner_coats(picture: &mut Picture) -> bool {
    let mut any = false;
    let to_come = |s: &&mut Step| s.laid_at.is_none() && !s.kind.seals();
    for step in picture.steps.iter_mut().filter(to_come) {
        if let Some(um) = &mut step.wet_film_um {
            *um = (*um * THINNER).max(1.0);
            any = true;
        }
    }
    any
}

/// Takes varnish coats to come out until the last one is left, whose finish was chosen; whether any was.
fn one_varnish_coat(picture: &mut Picture) -> bool {
    let varnish = |s: &Step| s.kind == StepKind::Varnish;
    let mut any = false;
    loop {
        let last = picture.steps.iter().rposition(varnish);
        let spare = |(i, s): (usize, &Step)| varnish(s) && s.laid_at.is_none() && Some(i) != last;
        let Some(i) = picture.steps.iter().enumerate().position(spare) else { return any };
        any |= picture.take_out(i).is_some();
    }
}

/// The next shorter school of waiting before varnish.
fn shorter_wait<'a>(studio: &Studio) -> Option<Change<'a>> {
    let (waiting, words) = match studio.schools.waiting {
        Waiting::Patient => (Waiting::Standard, "the standard instead of the patient"),
        Waiting::Standard => (Waiting::Brisk, "the brisk instead of the standard"),
        Waiting::Brisk => return None,
    };
    let all = if studio.pictures.len() > 1 { ", for every picture" } else { "" };
    let what = format!("Wait before varnish as {words} school{all}");
    Some(Change::new(DateWayKind::ShorterWait, what, move |studio: &Studio| {
        let mut changed = studio.clone();
        changed.schools.waiting = waiting;
        Some(changed)
    }))
}

/// Picture `p` before the others, when there are any.
fn first<'a>(studio: &Studio, p: usize) -> Option<Change<'a>> {
    let several = studio.pictures.len() > 1;
    several.then(|| {
        Change::new(DateWayKind::First, "This picture before the others", move |studio: &Studio| {
            let picture = &studio.pictures[p];
            let mut changed = studio.clone();
            let to_do = picture.steps.iter().filter(|s| s.laid_at.is_none());
            changed.order = to_do
                .map(|s| OrderEntry { picture: picture.id.clone(), step: s.id.clone() })
                .chain(studio.order.iter().filter(|t| t.picture != picture.id).cloned())
                .collect();
            changed.pictures[p].weight = (picture.weight * 4.0).min(Weight::RANGE.max);
            Some(changed)
        })
    })
}

/// Replaces slow-drying paint by ordinary paint of the same pigments, where the shelf has it.
fn ordinary_for_slow(studio: &Studio, steps: &mut [Step]) -> bool {
    let ordinary = |slow: &Material| {
        studio.materials.iter().find(|m| {
            m.kind == MaterialKind::Paint
                && !m.is_slow_paint()
                && !m.archived
                && !m.pigments.is_empty()
                && m.pigments == slow.pigments
        })
    };
    let mut any = false;
    for step in steps.iter_mut().filter(|s| s.laid_at.is_none() && s.tub.is_none()) {
        for part in step.mix.iter_mut() {
            let slow = studio.material(&part.material).filter(|m| m.is_slow_paint());
            if let Some(other) = slow.and_then(ordinary) {
                part.material.clone_from(&other.id);
                any = true;
            }
        }
    }
    any
}

/// The room as it is usually kept brought into the range of varnish, where it is not.
pub(super) fn fit_air(studio: &Studio) -> Option<(String, RoomChange)> {
    let usual = studio.air.usual();
    let celsius = usual.celsius.clamp(WARM.start() + INSIDE_C, WARM.end() - INSIDE_C);
    let humidity = usual.humidity.clamp(LEAST_HUMID + INSIDE, DAMPEST - INSIDE);
    if air_faults(usual).is_empty() {
        return None;
    }
    let change = RoomChange {
        warmer_k: celsius - usual.celsius,
        damper: humidity - usual.humidity,
        ..RoomChange::default()
    };
    let what = format!("The room fit for varnish: {celsius:.0} °C, {:.0} %", humidity * 100.0);
    Some((what, change))
}

/// The room warmer, drier, or with a fan from `from` on: each with its words.
pub(crate) fn rooms(
    studio: &Studio,
    from: DateTime<Utc>,
) -> Vec<(DateWayKind, String, RoomChange)> {
    let now = *studio.air.at(seconds(from));
    let usual = *studio.air.usual();
    let warm = (usual.celsius + WARMER_C).min(WARMEST_C.max(usual.celsius));
    let dry = (usual.humidity - DRIER).max(DRIEST.min(usual.humidity));
    let none = RoomChange::default();
    let all = [
        (
            DateWayKind::WarmerRoom,
            format!("The room at {warm:.0} °C"),
            RoomChange { warmer_k: warm - usual.celsius, ..none },
        ),
        (
            DateWayKind::DrierRoom,
            format!("The room at {:.0} % humidity", dry * 100.0),
            RoomChange { damper: dry - usual.humidity, ..none },
        ),
        (
            DateWayKind::Fan,
            "A fan that moves the room's air over the work".into(),
            RoomChange { least_speed_m_s: FAN, ..none },
        ),
    ];
    all.into_iter()
        .filter(|(_, _, change)| [now, usual].iter().any(|air| change.of(air) != *air))
        .collect()
}
