//! What holds a picture most: the one thing without which it would be ready soonest. A wait that stands last is often
//! not it; so each is taken away in turn, and the picture planned again.

use super::changes::{fit_air, take_out_all};
use super::decode::Schedule;
use super::films::Films;
use super::parallel::{in_parallel, threads};
use super::problem::Problem;
use super::{Plan, Request, plan};
use crate::mix::{Line, Material, MaterialKind};
use crate::picture::{ReadyBy, StepKind};
use crate::studio::{MIDNIGHT, OpenHours, Studio, StudioHours, Waiting};
use crate::time::{DAY_S, seconds, whole_seconds};
use chrono::{DateTime, NaiveTime, Utc, Weekday};

/// By how much sooner the picture must be ready without it [days]. [practice] less is the next morning anyway
const WORTH_DAYS: f64 = 1.0;

/// What holds a picture most.
#[derive(Debug, Clone, PartialEq)]
pub struct Cause {
    /// What it is, as in "held by ...".
    pub what: String,
    /// By how much sooner the picture would be ready without it [days].
    pub sooner_days: f64,
}

impl Cause {
    /// In a sentence.
    pub fn said(&self) -> String {
        let days = self.sooner_days.round();
        let s = if days > 1.0 { "s" } else { "" };
        format!("Most of all by {}: it could be ready {days:.0} day{s} sooner.", self.what)
    }
}

/// What holds picture `p` most by `made`, the plan from `from` on; nothing where no one thing holds it by a day.
pub fn cause(studio: &Studio, made: &Plan, p: usize, from: DateTime<Utc>) -> Option<Cause> {
    let ready = |plan: &Plan| plan.pictures.iter().find(|o| o.picture == p)?.ready;
    let at = ready(made).map(whole_seconds)?;
    let one = Studio { pictures: vec![studio.pictures[p].clone()], ..studio.clone() };
    // Coats that wait on purpose may make it ready sooner than alone without them.
    let alone = ready_alone(&one, from)?.min(at);
    let less = without(&one, from);
    let gains = in_parallel(less.len(), threads(), |n| {
        let (what, studio) = &less[n];
        Some((what.clone(), alone - ready_alone(studio, from)?))
    });
    let mut gains: Vec<(String, i64)> = gains;
    // A place to lie flat is short only beside other pictures; where it explains them, it is what is said.
    let mut others = at - alone;
    let seals = studio.pictures[p].steps.iter().any(|s| s.kind.seals() && s.laid_at.is_none());
    let places = u32::try_from(studio.pictures.len()).unwrap_or(u32::MAX);
    if seals && studio.flat_places < places {
        let studio = Studio { flat_places: places, ..studio.clone() };
        if let Some(sooner) = ready(&plan(Request { studio: &studio, from })).map(whole_seconds) {
            gains.push(("too few places to lie flat".into(), at - sooner));
            others = sooner - alone;
        }
    }
    gains.push(("your other pictures".into(), others));
    let worth = |(what, gain): (String, i64)| {
        let sooner_days = gain as f64 / DAY_S;
        (sooner_days >= WORTH_DAYS).then_some(Cause { what, sooner_days })
    };
    let most = gains.into_iter().max_by_key(|(_, gain)| *gain).and_then(worth);
    // Every picture waits for its wrapping: that is said where nothing else holds it.
    most.or_else(|| {
        let gain = alone - ready_alone(&unwrapped(&one), from)?;
        worth(("the wait until it is safe to wrap".into(), gain))
    })
}

/// The studio of one picture that is ready when its last coat is on.
fn unwrapped(studio: &Studio) -> Studio {
    let mut open = studio.clone();
    open.pictures[0].ready_by = ReadyBy::Sealed;
    take_out_all(&mut open.pictures[0], StepKind::Pack);
    open
}

/// When the only picture of `studio` is ready [s of the epoch].
fn ready_alone(studio: &Studio, from: DateTime<Utc>) -> Option<i64> {
    let problem = Problem::new(studio, from);
    Schedule::first_come(&problem, &mut Films::new(studio)).progress[0].ready
}

/// The studio of one picture, each time without one thing that can hold it.
fn without(studio: &Studio, from: DateTime<Utc>) -> Vec<(String, Studio)> {
    let mut all: Vec<(String, Studio)> = Vec::new();
    let mut less = |what: &str, edit: &dyn Fn(&mut Studio)| {
        let mut changed = studio.clone();
        edit(&mut changed);
        if changed != *studio {
            all.push((what.into(), changed));
        }
    };
    less("your hours", &|s| {
        let (from, to) = (NaiveTime::MIN, MIDNIGHT);
        let day = |n| Weekday::try_from(n).ok().map(|day| OpenHours { day, from, to });
        let week = (0..7).filter_map(day).collect();
        if let Ok(hours) = StudioHours::try_new(s.hours.zone(), week, Vec::new()) {
            s.hours = hours;
        }
        s.daylight = None;
    });
    less("the days you set for its steps", &|s| {
        for step in &mut s.pictures[0].steps {
            (step.not_before, step.pinned_at) = (None, None);
        }
    });
    let school = match studio.schools.waiting {
        Waiting::Patient => "the patient school of waiting before varnish",
        _ => "the wait before varnish",
    };
    less(school, &|s| s.schools.waiting = Waiting::Brisk);
    less("the night before colour is looked at again", &|s| s.schools.fresh_eyes = false);
    less("air that is unfit for varnish", &|s| {
        if let Some((_, room)) = fit_air(s) {
            s.air = s.air.changed_from(seconds(from), &room);
        }
    });
    less("slow-drying paint and retarder", &quick);
    all
}

/// Takes slow-drying paint and retarder out of every coat, laid ones too.
fn quick(studio: &mut Studio) {
    let of = |id: &str, is: fn(&Material) -> bool| studio.material(id).is_some_and(is);
    let paint = |m: &&Material| m.kind == MaterialKind::Paint && m.line == Some(Line::Heavy);
    let ordinary = studio.materials.iter().find(|m| paint(m) && !m.is_slow_paint());
    let mut steps = studio.pictures[0].steps.clone();
    for step in &mut steps {
        let was = step.mix.clone();
        step.mix.retain(|part| !of(&part.material, |m| m.kind == MaterialKind::Retarder));
        for part in step.mix.iter_mut() {
            if let Some(other) = ordinary.filter(|_| of(&part.material, Material::is_slow_paint)) {
                part.material.clone_from(&other.id);
            }
        }
        if step.mix != was {
            (step.tub, step.slowed) = (None, None);
        }
    }
    studio.pictures[0].steps = steps;
}
