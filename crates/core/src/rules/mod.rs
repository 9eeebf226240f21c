//! Rules of the trade and of safety: a slice of rules, one file each.

mod cold_room;
mod damp_for_varnish;
mod damp_room;
mod drawing_unsealed;
mod dust;
mod edges_left_out;
mod highlights_early;
mod isolation;
mod laid_on_wet;
mod large_cup;
mod matte_built_up;
mod mist_on_setting;
mod no_isolation_coat;
mod one_varnish_coat;
mod over_varnish;
mod photograph_first;
mod pin_not_kept;
mod planned_on_wet;
mod retarder_share;
mod retarder_with_slow;
mod sanded_early;
mod sealed_early;
mod session_too_short;
mod sets_first;
mod sheen_not_kept;
mod signed_late;
mod slow_under_fast;
mod soft_on_the_day;
mod soft_underneath;
mod solvent;
mod solvent_over_water;
mod too_few_to_hide;
mod too_thick;
mod toxic_dust;
mod tub_past;
mod tub_spoiled;
mod underbound;
mod varnish_misused;
mod varnish_on_varnish;
mod waits_for_air;
mod water_over_solvent;
mod water_share;
mod wet_sponge;
mod wrapped_early;

use crate::film::FilmState;
use crate::mix::{Material, MaterialKind};
use crate::picture::{CoatFault, CoatHistory, Picture, SetAside, Stack, Step, Timeline, meet};
use crate::planner::{Desk, Plan, PlannedStep};
use crate::readiness::{AirFault, AirWanted, Blocked, Calendar, FitAir, WaitReason};
use crate::studio::Studio;
use crate::time::minutes_s;
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};
use std::collections::HashMap;
use std::sync::Arc;

/// How far ahead the hours are looked at for what is too long for them [days]. [practice] the longest
/// night of the year is in it
const LOOK_AHEAD_DAYS: i64 = 366;

/// By how much a coat may lie before its time without a word [s]: two minutes. [practice] A coat that is logged just
/// as it was planned is told the same time to the minute by films that were followed otherwise
const TOLERANCE_S: f64 = 120.0;

/// How much a finding weighs.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum Severity {
    /// Good to know.
    Note,
    /// Think again.
    Caution,
    /// This will hurt the picture or a person.
    Stop,
}

/// A rule: its texts, where it comes from, and its check.
pub struct Rule {
    /// Its name, kept for good.
    pub id: &'static str,
    /// How much it weighs.
    pub severity: Severity,
    /// What to do instead, in one sentence.
    pub remedy: fn() -> String,
    /// Where the rule and its numbers come from.
    pub provenance: &'static str,
    /// Calls `say(step, what)` for every step of the picture that breaks it.
    check: fn(&Scene<'_>, &mut dyn FnMut(usize, String)),
}

/// Every rule.
pub const RULES: &[Rule] = &[
    laid_on_wet::RULE,
    planned_on_wet::RULE,
    over_varnish::RULE,
    water_over_solvent::RULE,
    sanded_early::RULE,
    sealed_early::RULE,
    wrapped_early::RULE,
    soft_underneath::RULE,
    retarder_share::RULE,
    retarder_with_slow::RULE,
    slow_under_fast::RULE,
    water_share::RULE,
    too_thick::RULE,
    session_too_short::RULE,
    sets_first::RULE,
    pin_not_kept::RULE,
    cold_room::RULE,
    waits_for_air::RULE,
    damp_room::RULE,
    damp_for_varnish::RULE,
    highlights_early::RULE,
    photograph_first::RULE,
    signed_late::RULE,
    no_isolation_coat::RULE,
    one_varnish_coat::RULE,
    toxic_dust::RULE,
    dust::RULE,
    solvent::RULE,
    tub_past::RULE,
    tub_spoiled::RULE,
    wet_sponge::RULE,
    mist_on_setting::RULE,
    underbound::RULE,
    too_few_to_hide::RULE,
    matte_built_up::RULE,
    solvent_over_water::RULE,
    varnish_on_varnish::RULE,
    edges_left_out::RULE,
    soft_on_the_day::RULE,
    large_cup::RULE,
    varnish_misused::RULE,
    sheen_not_kept::RULE,
    isolation::RULE,
    drawing_unsealed::RULE,
];

/// A rule broken, and where.
#[derive(Debug, Clone, PartialEq)]
pub struct Finding {
    /// The rule's name.
    pub rule: &'static str,
    /// How much it weighs.
    pub severity: Severity,
    /// Index of the picture.
    pub picture: usize,
    /// Index of the step.
    pub step: usize,
    /// What is wrong.
    pub what: String,
    /// What to do.
    pub remedy: String,
    /// Where the rule comes from.
    pub provenance: &'static str,
    /// The painter's word on it, when it was set aside.
    pub set_aside: Option<SetAside>,
}

/// What a check looks at: one picture in its studio.
struct Scene<'a> {
    studio: &'a Studio,
    /// Index of the picture.
    p: usize,
    picture: &'a Picture,
    /// The coats that are laid and those of the plan, in order of time.
    line: Arc<Timeline>,
    plan: &'a Plan,
    /// Slow volatile in the whole stack, where it is sealed and not wrapped yet [-].
    slow_in_all: Option<f64>,
    /// The room and the hours from now on, for all pictures.
    around: &'a Around,
    now: DateTime<Utc>,
}

/// What is the same for every picture.
struct Around {
    fit: FitAir,
    calendar: Calendar,
    /// Where each step of each picture stands in the plan.
    planned: HashMap<(usize, usize), usize>,
}

impl Scene<'_> {
    /// The steps with their indices.
    fn steps(&self) -> impl Iterator<Item = (usize, &Step)> {
        self.picture.steps.iter().enumerate()
    }

    /// The steps still to do.
    fn to_do(&self) -> impl Iterator<Item = (usize, &Step)> {
        self.steps().filter(|(_, s)| s.laid_at.is_none())
    }

    /// Those of `coats` that are laid.
    fn of_laid<'c>(
        &self,
        coats: &'c [CoatHistory],
    ) -> impl DoubleEndedIterator<Item = &'c CoatHistory> {
        coats.iter().filter(|c| self.picture.steps[c.coat.step].laid_at.is_some())
    }

    /// The coats that are laid, in order of time.
    fn laid(&self) -> Vec<&CoatHistory> {
        self.of_laid(&self.line.coats).collect()
    }

    /// Share of the mix of `step` made of materials for which `which` holds.
    fn share(&self, step: &Step, which: impl Fn(&Material) -> bool) -> f64 {
        step.mix.share_where(&self.studio.materials, which)
    }

    /// The state of what is laid at `t` [s], at its slowest place, by the events of the coat that is on
    /// top there then; `None` while nothing is laid.
    fn laid_state_at(&self, t: f64) -> Option<FilmState> {
        let of = |stack: &Stack| {
            let top = self.of_laid(&stack.coats).rfind(|c| c.coat.at <= t)?;
            let reached = |state: &FilmState| top.events.at(*state).is_some_and(|at| at <= t);
            let state = FilmState::REACHED.into_iter().filter(reached).max();
            Some(state.unwrap_or(FilmState::Workable))
        };
        self.line.stacks.iter().filter_map(of).min()
    }

    /// Step `i` in the plan.
    fn planned(&self, i: usize) -> Option<&PlannedStep> {
        Some(&self.plan.steps[*self.around.planned.get(&(self.p, i))?])
    }

    /// When step `i` begins: as it was laid, or as it is planned.
    fn begins(&self, i: usize) -> Option<DateTime<Utc>> {
        let planned = || self.planned(i)?.sittings.first().map(|s| s.from);
        self.picture.steps[i].laid_at.or_else(planned)
    }

    /// A moment as the studio says it.
    fn said_at(&self, at: DateTime<Utc>) -> String {
        at.with_timezone(&self.studio.hours.zone()).format("%a %-d %B, %H:%M").to_string()
    }

    /// What keeps the room from being fit for step `i`, still to come, and until when; `None` as the
    /// end when it is never fit as it is kept.
    fn unfit(&self, i: usize) -> Option<(AirFault, Option<DateTime<Utc>>)> {
        let planned = self.planned(i);
        match planned.and_then(|s| s.blocked.as_ref()) {
            Some(Blocked::Air { fault, .. }) => return Some((*fault, None)),
            // What cannot be placed at all is looked at in the room as it is kept.
            Some(_) => {
                let wanted = AirWanted::of(self.studio, &self.picture.steps[i]);
                let fault = wanted.faults(self.studio.air.usual());
                return fault.first().map(|fault| (*fault, None));
            }
            None => {}
        }
        let wait = planned?.wait.as_ref().filter(|w| w.reason == WaitReason::Air)?;
        let last = wait.until.timestamp() - 1;
        let wanted = AirWanted::of(self.studio, &self.picture.steps[i]);
        let near = (last - 3600, last + 1);
        let (fault, _) = self.around.fit.fault(wanted, near)?;
        Some((fault, Some(wait.until)))
    }

    fn holds(&self, step: &Step, kind: &MaterialKind) -> bool {
        self.studio.holds(step, kind)
    }

    /// The coats of paint in the cups, laid or still to come, that are there when step `i` begins, at its place.
    fn under(&self, i: usize) -> Vec<usize> {
        let begins = self.begins(i);
        let mine = self.picture.lies_at(i);
        let there = |n: &usize| {
            let step = &self.picture.steps[*n];
            let before = match (self.begins(*n), begins) {
                _ if step.laid_at.is_some() && self.picture.steps[i].laid_at.is_none() => true,
                (Some(other), Some(own)) => other < own,
                // Neither in the plan nor done: the order of the list is all that is known.
                _ => *n < i,
            };
            *n != i && before && !step.mix.is_empty() && meet(mine, self.picture.lies_at(*n))
        };
        (0..self.picture.steps.len()).filter(there).collect()
    }

    fn is_slow(&self, step: &Step) -> bool {
        self.share(step, Material::is_slow) > 0.0
    }
}

/// Every finding at the moment `now`, the heaviest first and those set aside last.
///
/// # Errors
/// [`CoatFault`] when a coat cannot be computed.
pub fn check(studio: &Studio, now: DateTime<Utc>) -> Result<Vec<Finding>, CoatFault> {
    check_at(&mut Desk::new(Arc::new(studio.clone())), now)
}

/// The same from what a desk knows of plan and films.
///
/// # Errors
/// [`CoatFault`] when a coat cannot be computed.
pub fn check_at(desk: &mut Desk, now: DateTime<Utc>) -> Result<Vec<Finding>, CoatFault> {
    let studio = desk.studio();
    let studio = studio.as_ref();
    let plan = desk.plan(now);
    desk.follow_all(now)?;
    let from = now.timestamp();
    let light = studio.daylight;
    let ahead = (from, from + LOOK_AHEAD_DAYS * 86_400);
    let planned = plan.steps.iter().enumerate().map(|(n, s)| ((s.picture, s.step), n)).rev();
    let around = Around {
        planned: planned.collect(),
        fit: FitAir::new(&studio.air, from),
        calendar: Calendar::new(&studio.hours, light, ahead, minutes_s(studio.setup_min)),
    };
    let mut findings = Vec::new();
    for (p, picture) in studio.pictures.iter().enumerate() {
        let line = desk.line(p, now)?;
        let (plan, around, slow_in_all) = (plan.as_ref(), &around, None);
        let mut scene = Scene { studio, p, picture, line, plan, slow_in_all, around, now };
        // Once it is wrapped and away nothing is done about it any more.
        let sealed = scene.laid().last().is_some_and(|c| picture.steps[c.coat.step].kind.seals());
        if sealed && !picture.is_packed() {
            scene.slow_in_all = Some(desk.slow_in_all(p, now)?);
        }
        for rule in RULES {
            (rule.check)(&scene, &mut |step, what| {
                let name = &picture.steps[step].id;
                let aside =
                    picture.set_aside.iter().rfind(|a| a.rule == rule.id && a.step == *name);
                findings.push(Finding {
                    set_aside: aside.cloned(),
                    rule: rule.id,
                    severity: rule.severity,
                    picture: p,
                    step,
                    what,
                    remedy: (rule.remedy)(),
                    provenance: rule.provenance,
                });
            });
        }
    }
    findings
        .sort_by_key(|f| (f.set_aside.is_some(), std::cmp::Reverse(f.severity), f.picture, f.step));
    Ok(findings)
}

#[cfg(test)]
mod tests;
