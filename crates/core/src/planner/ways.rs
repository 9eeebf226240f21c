//! Ways to make a date: changes of the work, the room or the waiting, each planned anew and ranked by
//! what it gains for the least harm.

use super::parallel::in_parallel;
use super::{Plan, Planner, holds};
use crate::air::RoomChange;
use crate::mix::{Material, MaterialKind};
use crate::picture::{Picture, Step, StepKind};
use crate::quantity::Weight;
use crate::studio::{OrderEntry, Studio, Waiting};
use crate::time::{minutes_between, seconds};
use chrono::{DateTime, Duration, NaiveTime, TimeZone, Utc};
use std::sync::atomic::{AtomicUsize, Ordering};

/// Part of a planned film that a thinner coat keeps [-]. [practice] a quarter less
const THINNER: f64 = 0.75;
/// How much warmer a room is easily made [C]. [practice]
const WARMER_C: f64 = 3.0;
/// The warmest a room is made [C]; comfortable and safe for paint. [practice]
const WARMEST_C: f64 = 25.0;
/// How much drier a dehumidifier makes a room [-]. [practice]
const DRIER: f64 = 0.10;
/// The driest a room is made [-]: below it palettes skin. [practice]
const DRIEST: f64 = 0.35;
/// Air over the picture from a fan [m/s]; drying.md. [memory]
const FAN: f64 = 1.0;
/// Earliest and latest hour of an extra session [h]. [practice]
const EXTRA_HOURS: (u32, u32) = (8, 21);
/// Orders tried for each way of a studio of up to [`FEW_STEPS`] steps. [practice] a few tenths of a
/// second; a try takes as long as there are steps, so of more there are fewer
const TRIES: u64 = 150;
/// Orders tried for each way at least. [practice]
const LEAST_TRIES: u64 = 5;
/// Steps up to which every try is made. [practice]
const FEW_STEPS: u64 = 20;
/// A step that waits for hours this long is worth an extra session [min]. [practice]
const WORTH_MIN: f64 = 60.0;

/// What is changed.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum DateWayKind {
    /// No retarder in the coats still to come.
    NoRetarder,
    /// Half the retarder.
    LessRetarder,
    /// Ordinary paint of the same pigment for slow-drying paint.
    OrdinaryPaint,
    /// Thinner coats.
    ThinnerCoats,
    /// One glaze fewer.
    OneGlazeFewer,
    /// A warmer room.
    WarmerRoom,
    /// A drier room.
    DrierRoom,
    /// A fan over the work.
    Fan,
    /// An extra session outside the hours.
    ExtraSession,
    /// A shorter wait before varnish.
    ShorterWait,
    /// One varnish coat instead of several.
    OneVarnishCoat,
    /// This picture before the others.
    First,
}

impl DateWayKind {
    /// Harm: 1 little, 5 much; decides among ways that gain alike. [practice]
    pub const fn harm(self) -> u8 {
        match self {
            Self::WarmerRoom | Self::DrierRoom | Self::Fan | Self::First => 1,
            Self::ExtraSession | Self::LessRetarder => 2,
            Self::NoRetarder | Self::OrdinaryPaint | Self::ThinnerCoats => 3,
            Self::OneGlazeFewer | Self::OneVarnishCoat => 4,
            Self::ShorterWait => 5,
        }
    }

    /// What is risked or lost, in a sentence.
    pub const fn risk(self) -> &'static str {
        match self {
            Self::NoRetarder => "The coats set sooner: less time to blend, mist instead.",
            Self::LessRetarder => "The coats set somewhat sooner.",
            Self::OrdinaryPaint => "It sets in minutes, not hours: no long blending in that coat.",
            Self::ThinnerCoats => "Each coat covers and colours a quarter less.",
            Self::OneGlazeFewer => "The colour stays less deep than planned.",
            Self::WarmerRoom => "The palette dries faster too; keep the wet edge misted.",
            Self::DrierRoom => "The palette dries faster too; back to the usual air for varnish.",
            Self::Fan => "It moves dust: never over wet varnish, and not straight at the face.",
            Self::ExtraSession => "An evening or a day off of yours.",
            Self::ShorterWait => {
                "Varnish over paint that still gives off water or glycol can cloud or stay soft. \
                 The computed cure still counts."
            }
            Self::OneVarnishCoat => "Thinner protection, and missed places show.",
            Self::First => "Other pictures get your hours later.",
        }
    }
}

/// A way to make a date, planned.
#[derive(Debug, Clone)]
pub struct DateWay {
    /// What is changed.
    pub kind: DateWayKind,
    /// The change in words, with its numbers.
    pub what: String,
    /// What is done to the room, when that is it.
    pub room: Option<RoomChange>,
    /// The studio with the change.
    pub studio: Studio,
    /// Its plan.
    pub plan: Plan,
    /// Minutes by which the picture is finished earlier.
    pub gain_min: f64,
    /// Days late that are left.
    pub days_late: i64,
    /// Weighted days by which the other pictures become later (negative: less late).
    pub others_later: f64,
}

/// One change that could be made.
#[derive(Clone)]
struct Change {
    kind: DateWayKind,
    what: String,
    changed: Studio,
    room: Option<RoomChange>,
}

/// Ways to finish picture `p` earlier: those that meet its date first, then the least harmful, then
/// those that gain most. `planner` holds the present plan.
/// `told` hears how many of how many were planned.
pub fn date_ways(
    planner: &Planner<'_>,
    p: usize,
    from: DateTime<Utc>,
    told: impl Fn(usize, usize) + Sync,
) -> Vec<DateWay> {
    let studio = planner.studio();
    let present = planner.plan();
    let Some(picture) = studio.pictures.get(p) else { return Vec::new() };
    let all = changes(studio, picture, p, &present, from);
    let (of, done) = (all.len(), AtomicUsize::new(0));
    let threads = std::thread::available_parallelism().map_or(1, usize::from);
    let mut found = in_parallel(of, threads, |n| {
        let way = date_way(planner, (p, &present), all[n].clone(), from);
        told(done.fetch_add(1, Ordering::Relaxed) + 1, of);
        way
    });
    found.sort_by(|a, b| {
        (a.days_late > 0)
            .cmp(&(b.days_late > 0))
            .then((a.others_later > 0.0).cmp(&(b.others_later > 0.0)))
            .then(a.kind.harm().cmp(&b.kind.harm()))
            .then(b.gain_min.total_cmp(&a.gain_min))
    });
    found
}

/// What comes of one change; nothing when the picture is not ready on an earlier day.
fn date_way(
    planner: &Planner<'_>,
    (p, present): (usize, &Plan),
    Change { kind, what, mut changed, room }: Change,
    from: DateTime<Utc>,
) -> Option<DateWay> {
    let studio = planner.studio();
    let picture = &studio.pictures[p];
    let (plan, order) = {
        let mut other = planner.clone().turn_to(&changed, from);
        let at_once = other.plan();
        // Nothing late is left to gain.
        if at_once.objective.weighted_days_late > 0.0 {
            let steps = (other.steps_left() as u64).max(1);
            let tries = (TRIES * FEW_STEPS / steps).clamp(LEAST_TRIES, TRIES);
            other.refine(p as u64, tries, |_| true);
        }
        let searched = other.plan();
        let gains = searched.objective.weighted_days_late < at_once.objective.weighted_days_late;
        if gains { (searched, Some(other.order())) } else { (at_once, None) }
    };
    // The order of work belongs to the way only where the gain hangs on it.
    if let Some(order) = order {
        changed.order = order;
    }
    let (was, is) = (present.pictures.get(p)?, &plan.pictures[p]);
    let finish = is.finish?;
    let gain_min = was.finish.map_or(f64::INFINITY, |was| minutes_between(finish, was));
    let day = |at| studio.hours.day(at);
    if was.finish.is_some_and(|was| day(finish) >= day(was)) {
        return None;
    }
    let mine = |plan: &Plan| picture.weight * plan.pictures[p].days_late.unwrap_or(0) as f64;
    let others_later = (plan.objective.weighted_days_late - mine(&plan))
        - (present.objective.weighted_days_late - mine(present));
    let days_late = is.days_late.unwrap_or(0);
    Some(DateWay { kind, what, room, plan, gain_min, days_late, others_later, studio: changed })
}

/// Every change that can be made, with its words.
fn changes(
    studio: &Studio,
    picture: &Picture,
    p: usize,
    present: &Plan,
    from: DateTime<Utc>,
) -> Vec<Change> {
    let mut found = changes_of_steps(studio, p);
    for (kind, what, room) in rooms(studio, from) {
        let mut changed = studio.clone();
        changed.air = studio.air.changed_from(seconds(from), &room);
        found.push(Change { kind, what, changed, room: Some(room) });
    }
    if let Some((what, changed)) = extra_session(studio, picture, p, present, from) {
        found.push(Change { kind: DateWayKind::ExtraSession, what, changed, room: None });
    }
    found.extend(shorter_wait(studio));
    found.extend(first(studio, p));
    found
}

/// Changes of the coats of picture `p` that are still to come.
fn changes_of_steps(studio: &Studio, p: usize) -> Vec<Change> {
    type Way<'a> = (DateWayKind, &'a str, &'a dyn Fn(&mut Picture) -> bool);
    let ways: [Way<'_>; 6] = [
        (DateWayKind::NoRetarder, "No retarder in the coats to come", &|picture| {
            keep_retarder(studio, picture, 0.0)
        }),
        (DateWayKind::LessRetarder, "Half the retarder in the coats to come", &|picture| {
            keep_retarder(studio, picture, 0.5)
        }),
        (DateWayKind::OrdinaryPaint, "Ordinary paint for the slow-drying", &|picture| {
            ordinary_for_slow(studio, &mut picture.steps)
        }),
        (DateWayKind::ThinnerCoats, "Coats a quarter thinner", &thinner_coats),
        (DateWayKind::OneGlazeFewer, "One glaze fewer", &|picture| {
            let glaze = |s: &Step| s.laid_at.is_none() && s.kind == StepKind::Glaze;
            let last = picture.steps.iter().rposition(glaze);
            last.is_some_and(|i| picture.take_out(i).is_some())
        }),
        (DateWayKind::OneVarnishCoat, "One varnish coat only", &one_varnish_coat),
    ];
    let mut found = Vec::new();
    for (kind, what, change) in ways {
        let mut changed = studio.clone();
        if change(&mut changed.pictures[p]) {
            found.push(Change { kind, what: what.into(), changed, room: None });
        }
    }
    found
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

/// Takes varnish coats to come out until one is left; whether any was.
fn one_varnish_coat(picture: &mut Picture) -> bool {
    let varnish = |s: &&Step| s.kind == StepKind::Varnish;
    let mut any = false;
    while picture.steps.iter().filter(varnish).count() > 1 {
        let spare = |s: &Step| s.laid_at.is_none() && varnish(&s);
        let Some(spare) = picture.steps.iter().rposition(spare) else { break };
        any = picture.take_out(spare).is_some();
    }
    any
}

/// The next shorter school of waiting before varnish.
fn shorter_wait(studio: &Studio) -> Option<Change> {
    let (waiting, words) = match studio.schools.waiting {
        Waiting::Patient => (Waiting::Standard, "the standard instead of the patient"),
        Waiting::Standard => (Waiting::Brisk, "the brisk instead of the standard"),
        Waiting::Brisk => return None,
    };
    let mut changed = studio.clone();
    changed.schools.waiting = waiting;
    let what = format!("Wait before varnish as {words} school");
    Some(Change { kind: DateWayKind::ShorterWait, what, changed, room: None })
}

/// Picture `p` before the others, when there are any.
fn first(studio: &Studio, p: usize) -> Option<Change> {
    if studio.pictures.len() < 2 {
        return None;
    }
    let picture = &studio.pictures[p];
    let mut changed = studio.clone();
    let to_do = picture.steps.iter().filter(|s| s.laid_at.is_none());
    changed.order = to_do
        .map(|s| OrderEntry { picture: picture.id.clone(), step: s.id.clone() })
        .chain(studio.order.iter().filter(|t| t.picture != picture.id).cloned())
        .collect();
    changed.pictures[p].weight = (picture.weight * 4.0).min(Weight::RANGE.max);
    let what = "This picture before the others".into();
    Some(Change { kind: DateWayKind::First, what, changed, room: None })
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

/// The step that waits longest for hours, done outside them as soon as it may be.
fn extra_session(
    studio: &Studio,
    picture: &Picture,
    p: usize,
    present: &Plan,
    from: DateTime<Utc>,
) -> Option<(String, Studio)> {
    let link = holds(studio, present, p, from)
        .into_iter()
        .filter(|link| link.idle_min >= WORTH_MIN)
        .max_by(|a, b| a.idle_min.total_cmp(&b.idle_min))?;
    let ready = link.wait.as_ref().map_or(from, |w| w.until.max(from));
    let zone = studio.hours.zone();
    let needed = Duration::minutes(picture.steps[link.step].hands_on_min.ceil() as i64);
    // The next full quarter of an hour in which one is awake.
    let mut at = ready + Duration::minutes(studio.setup_min.ceil() as i64);
    at += Duration::seconds((-at.timestamp()).rem_euclid(15 * 60));
    let local = at.with_timezone(&zone);
    let hour = |day: chrono::NaiveDate, h: u32| {
        let time = NaiveTime::from_hms_opt(h, 0, 0)?;
        Some(zone.from_local_datetime(&day.and_time(time)).earliest()?.with_timezone(&Utc))
    };
    let day = local.date_naive();
    if at < hour(day, EXTRA_HOURS.0)? {
        at = hour(day, EXTRA_HOURS.0)?;
    } else if at + needed > hour(day, EXTRA_HOURS.1)? {
        at = hour(day.succ_opt()?, EXTRA_HOURS.0)?;
    }
    if at >= link.from {
        return None;
    }
    let mut changed = studio.clone();
    let step = &mut changed.pictures[p].steps[link.step];
    step.pinned_at = Some(at);
    let said = at.with_timezone(&zone).format("%a %-d %b %H:%M");
    Some((format!("An extra session {said} for {}", step.title()), changed))
}
