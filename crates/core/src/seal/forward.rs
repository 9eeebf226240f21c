//! What would bring the gate forward, and what is risked with it.

use super::air::remedies;
use super::conditions::ConditionId;
use super::gate::{Gate, gate_among};
use super::known::KnownFilms;
use super::look::Look;
use super::varnish::{choice_of, with_varnish};
use crate::air::Air;
use crate::mix::MaterialKind;
use crate::picture::{Carrier, CoatFault, StepKind, VarnishChoice};
use crate::planner::{DateWayKind, Plan, rooms};
use crate::readiness::{DAMPEST, air_faults};
use crate::studio::{OpenHours, Studio, StudioHours, Waiting};
use crate::time::{minutes_between, seconds};
use chrono::{DateTime, NaiveTime, Utc, Weekday};

/// The least that is worth saying [min]. [practice]
const WORTH_MIN: f64 = 60.0;
/// Hours in which one may be asked to work outside the studio's own [h]. [practice]
const AWAKE: (u32, u32) = (8, 21);

/// A change that opens the gate earlier.
#[derive(Debug, Clone, PartialEq)]
pub struct Forward {
    /// What is changed, in words.
    pub what: String,
    /// What is risked or lost.
    pub risk: String,
    /// The earliest hour then.
    pub earliest: DateTime<Utc>,
    /// How much earlier that is [min].
    pub gain_min: f64,
}

/// Changes that let the next sealing coat of picture `p` go on earlier, those that gain most first.
/// The present gate is `present`; work that is still to come below the seal is taken as `plan`
/// has it, and so is wet varnish of other pictures.
///
/// # Errors
/// [`CoatFault`] when a coat of the studio cannot be computed.
pub fn forward(
    studio: &Studio,
    p: usize,
    (plan, photographs): (&Plan, &[DateTime<Utc>]),
    present: &Gate,
    now: DateTime<Utc>,
    known: &mut KnownFilms,
) -> Result<Vec<Forward>, CoatFault> {
    let (Some(step), Some((was, _))) = (present.step, present.earliest) else {
        return Ok(Vec::new());
    };
    let taken = known.taken_places(studio, p, plan, now)?;
    let history = Look::history_below(studio, (p, step), plan);
    let begun = known.begun_at(studio, p, &history, now)?;
    let mut found = Vec::new();
    for (what, risk, changed) in changes(studio, p, step, now) {
        let among = (plan, photographs, taken.as_slice());
        let other = if changed.air == studio.air {
            gate_among(&changed, p, among, now, known)?
        } else {
            gate_among(&changed, p, among, now, &mut begun.clone())?
        };
        let Some((earliest, _)) = other.earliest else { continue };
        let gain_min = minutes_between(earliest, was);
        if gain_min >= WORTH_MIN {
            found.push(Forward { what, risk, earliest, gain_min });
        }
    }
    found.sort_by(|a, b| b.gain_min.total_cmp(&a.gain_min));
    Ok(found)
}

fn changes(
    studio: &Studio,
    p: usize,
    step: usize,
    now: DateTime<Utc>,
) -> Vec<(String, String, Studio)> {
    let mut found = Vec::new();
    let shorter = match studio.schools.waiting {
        Waiting::Patient => Some((Waiting::Standard, "Wait as the standard school does")),
        Waiting::Standard => Some((Waiting::Brisk, "Wait as the brisk school does")),
        Waiting::Brisk => None,
    };
    if let Some((waiting, what)) = shorter {
        let mut changed = studio.clone();
        changed.schools.waiting = waiting;
        found.push((what.to_owned(), DateWayKind::ShorterWait.risk().to_owned(), changed));
    }
    for (kind, what, room) in rooms(studio, now) {
        let mut changed = studio.clone();
        changed.air = studio.air.changed_from(seconds(now), &room);
        found.push((what, kind.risk().to_owned(), changed));
    }
    if let Some((what, changed)) = fit_air(studio, now) {
        let risk = "A machine to run and to watch; measure beside the picture, not at the machine.";
        found.push((what, risk.to_owned(), changed));
    }
    if let Some(changed) = any_hour(studio) {
        let what = format!("Varnish at any hour from {} to {}:00", AWAKE.0, AWAKE.1);
        found.push((what, "An evening or a morning outside your hours.".into(), changed));
    }
    let picture = &studio.pictures[p];
    let solvent = studio.holds(&picture.steps[step], &MaterialKind::SolventVarnish);
    if solvent && picture.steps[step].kind == StepKind::Varnish {
        let choice = VarnishChoice {
            carrier: Carrier::WaterBorne,
            isolation_reason: Some("as it was".into()),
            ..choice_of(studio, picture)
        };
        if let Ok(varnish) = choice.plan(studio, picture) {
            let mut changed = studio.clone();
            changed.pictures[p] = with_varnish(picture, &choice, &varnish);
            let what = "Water-borne varnish instead of solvent".to_owned();
            found.push((what, Carrier::WaterBorne.effect().to_owned(), changed));
        }
    }
    found
}

/// The room brought into the range of varnish at every hour that is not, with words for the worst.
fn fit_air(studio: &Studio, now: DateTime<Utc>) -> Option<(String, Studio)> {
    let from = seconds(now);
    let fit = |air: &Air| remedies(air).first().map_or(*air, |r| r.after);
    let ahead = studio.air.readings().iter().filter(|(t, _)| *t >= from).map(|(_, a)| a);
    let worst = ahead
        .chain([studio.air.at(from), studio.air.usual()])
        .filter(|air| !air_faults(air).is_empty())
        .max_by(|a, b| (a.humidity - DAMPEST).abs().total_cmp(&(b.humidity - DAMPEST).abs()))?;
    let remedy = remedies(worst).into_iter().next()?;
    let mut changed = studio.clone();
    changed.air = studio.air.mapped_from(from, fit);
    Some((format!("Make the air fit: {remedy}"), changed))
}

/// The studio open every day of the week, as long as one is awake.
fn any_hour(studio: &Studio) -> Option<Studio> {
    let hour = |h| NaiveTime::from_hms_opt(h, 0, 0);
    let (from, to) = (hour(AWAKE.0)?, hour(AWAKE.1)?);
    let mut weekly = studio.hours.weekly().to_vec();
    let mut day = Weekday::Mon;
    for _ in 0..7 {
        weekly.push(OpenHours { day, from, to });
        day = day.succ();
    }
    let mut changed = studio.clone();
    changed.hours = StudioHours::try_new(studio.hours.zone(), weekly, Vec::new()).ok()?;
    Some(changed)
}

impl Gate {
    /// The condition that is over last, of those that time brings.
    pub fn holds_longest(&self) -> Option<ConditionId> {
        self.against().filter(|c| c.from.is_some()).max_by_key(|c| c.from).map(|c| c.id)
    }
}
