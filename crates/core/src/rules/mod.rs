//! Rules of the trade and of safety: a slice of rules, one file each.

mod cold_room;
mod damp_for_varnish;
mod damp_room;
mod dust;
mod edges_left_out;
mod highlights_early;
mod laid_on_wet;
mod large_cup;
mod matte_built_up;
mod mist_on_setting;
mod no_isolation_coat;
mod one_varnish_coat;
mod photograph_first;
mod planned_on_wet;
mod retarder_share;
mod retarder_with_slow;
mod sanded_early;
mod sealed_early;
mod session_too_short;
mod signed_late;
mod slow_under_fast;
mod soft_on_the_day;
mod solvent;
mod solvent_over_water;
mod too_few_to_hide;
mod too_thick;
mod toxic_dust;
mod tub_past;
mod tub_spoiled;
mod underbound;
mod varnish_on_varnish;
mod water_share;
mod wet_sponge;
mod wrapped_early;

use crate::film::{FilmState, Grid, HORIZON_S};
use crate::mix::{Material, MaterialKind};
use crate::picture::{CoatFault, Picture, SetAside, Step, Timeline, follow};
use crate::planner::Desk;
use crate::studio::Studio;
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};
use std::sync::Arc;

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
    pub remedy: &'static str,
    /// Where the rule and its numbers come from.
    pub provenance: &'static str,
    /// Calls `say(step, what)` for every step of the picture that breaks it.
    check: fn(&Scene<'_>, &mut dyn FnMut(usize, String)),
}

/// Every rule.
pub const RULES: &[Rule] = &[
    laid_on_wet::RULE,
    planned_on_wet::RULE,
    sanded_early::RULE,
    sealed_early::RULE,
    wrapped_early::RULE,
    retarder_share::RULE,
    retarder_with_slow::RULE,
    slow_under_fast::RULE,
    water_share::RULE,
    too_thick::RULE,
    session_too_short::RULE,
    cold_room::RULE,
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
    pub remedy: &'static str,
    /// Where the rule comes from.
    pub provenance: &'static str,
    /// The painter's word on it, when it was set aside.
    pub set_aside: Option<SetAside>,
}

/// What a check looks at: one picture in its studio.
struct Scene<'a> {
    studio: &'a Studio,
    picture: &'a Picture,
    laid: Arc<Timeline>,
    now: DateTime<Utc>,
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

    /// Share of the mix of `step` made of materials for which `which` holds.
    fn share(&self, step: &Step, which: impl Fn(&Material) -> bool) -> f64 {
        step.mix.share_where(&self.studio.materials, which)
    }

    /// The state of the laid stack at `t` [s], by the events of the coat that is on top then;
    /// `None` while nothing is laid.
    fn laid_state_at(&self, t: f64) -> Option<FilmState> {
        let top = self.laid.coats.iter().rfind(|c| c.coat.at <= t)?;
        let reached = |state: &FilmState| top.events.at(*state).is_some_and(|at| at <= t);
        Some(FilmState::REACHED.into_iter().filter(reached).max().unwrap_or(FilmState::Workable))
    }

    fn holds(&self, step: &Step, kind: &MaterialKind) -> bool {
        self.studio.holds(step, kind)
    }

    fn is_slow(&self, step: &Step) -> bool {
        self.share(step, Material::is_slow_paint) > 0.0
    }
}

/// Every finding at the moment `now`, the heaviest first and those set aside last.
///
/// # Errors
/// [`CoatFault`] when a laid coat cannot be computed.
pub fn check(studio: &Studio, now: DateTime<Utc>) -> Result<Vec<Finding>, CoatFault> {
    findings(studio, now, |p| {
        let picture = &studio.pictures[p];
        let coats = studio.laid_coats(p)?;
        let until = coats.last().map_or(0.0, |c| c.at + HORIZON_S);
        let line = follow(picture, &coats, &studio.air, Grid::PLANNING, (until, 0), |_| false)?;
        Ok(Arc::new(line))
    })
}

/// The same from what a desk knows of the films.
///
/// # Errors
/// [`CoatFault`] when a laid coat cannot be computed.
pub fn check_at(desk: &mut Desk, now: DateTime<Utc>) -> Result<Vec<Finding>, CoatFault> {
    findings(&desk.studio(), now, |p| desk.laid(p))
}

/// Every finding, with the laid coats of a picture followed by `followed` to the horizon.
fn findings(
    studio: &Studio,
    now: DateTime<Utc>,
    mut followed: impl FnMut(usize) -> Result<Arc<Timeline>, CoatFault>,
) -> Result<Vec<Finding>, CoatFault> {
    let mut findings = Vec::new();
    for (p, picture) in studio.pictures.iter().enumerate() {
        let scene = Scene { studio, picture, laid: followed(p)?, now };
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
                    remedy: rule.remedy,
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
