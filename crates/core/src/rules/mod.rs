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
use crate::picture::{LaidCoat, Picture, SetAside, Step, Timeline, follow};
use crate::studio::{Material, MaterialKind, StudioDocument};
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};

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
    document: &'a StudioDocument,
    picture: &'a Picture,
    laid: Timeline,
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
        let all: f64 = step.mix.iter().map(|p| p.parts).sum();
        let some: f64 = step
            .mix
            .iter()
            .filter(|p| self.document.material(&p.material).is_some_and(&which))
            .map(|p| p.parts)
            .sum();
        if all > 0.0 { some / all } else { 0.0 }
    }

    /// The state of the laid stack at `t` [s], by the events of the coat that is on top then;
    /// `None` while nothing is laid.
    fn laid_state_at(&self, t: f64) -> Option<FilmState> {
        let top = self.laid.coats.iter().rfind(|c| c.coat.at <= t)?;
        let reached = |state: &FilmState| top.events.at(*state).is_some_and(|at| at <= t);
        Some(FilmState::REACHED.into_iter().filter(reached).max().unwrap_or(FilmState::Workable))
    }

    fn holds(&self, step: &Step, kind: &MaterialKind) -> bool {
        self.share(step, |m| m.kind == *kind) > 0.0
    }

    fn is_slow(&self, step: &Step) -> bool {
        self.share(step, Material::is_slow_paint) > 0.0
    }
}

/// The coats of a picture that are laid, in order of time, as the film model takes them.
pub fn laid_coats(document: &StudioDocument, picture: &Picture) -> Vec<LaidCoat> {
    let mut coats: Vec<LaidCoat> = picture
        .steps
        .iter()
        .enumerate()
        .filter_map(|(step, s)| {
            let at = s.laid_at?.timestamp_micros() as f64 / 1e6;
            let (um, mix) = document.coat(s).ok()??;
            Some(LaidCoat { step, at, wet_m: um * 1e-6, mix })
        })
        .collect();
    coats.sort_by(|a, b| a.at.total_cmp(&b.at));
    coats
}

/// Every finding at the moment `now`, the heaviest first and those set aside last.
pub fn check(document: &StudioDocument, now: DateTime<Utc>) -> Vec<Finding> {
    check_with(document, now, |p, coats| {
        let picture = &document.pictures[p];
        let until = coats.last().map_or(0.0, |c| c.at + HORIZON_S);
        let size = (picture.absorbs_um * 1e-6, picture.shorter_side_m());
        follow(size, &coats, &document.air, Grid::PLANNING, (until, 0), |_| false)
    })
}

/// The same, with the laid coats of a picture followed by `followed` to the horizon.
pub(crate) fn check_with(
    document: &StudioDocument,
    now: DateTime<Utc>,
    mut followed: impl FnMut(usize, Vec<LaidCoat>) -> Timeline,
) -> Vec<Finding> {
    let mut findings = Vec::new();
    for (p, picture) in document.pictures.iter().enumerate() {
        let laid = followed(p, laid_coats(document, picture));
        let scene = Scene { document, picture, laid, now };
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
    findings
}

#[cfg(test)]
mod tests;
