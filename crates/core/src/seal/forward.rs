//! What would bring the gate forward, and what is risked with it.

use super::air::{DAMPEST, air_faults, remedies};
use super::conditions::ConditionId;
use super::gate::{Gate, Look, gate_among};
use super::known::KnownFilms;
use super::varnish::{Carrier, choice_of, with_varnish};
use crate::air::{Air, AirSeries};
use crate::picture::StepKind;
use crate::planner::{Plan, WayKind, rooms};
use crate::studio::{MaterialKind, OpenHours, StudioDocument, StudioHours, Waiting};
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
pub fn forward(
    document: &StudioDocument,
    p: usize,
    (plan, photographs): (&Plan, &[DateTime<Utc>]),
    present: &Gate,
    now: DateTime<Utc>,
    known: &mut KnownFilms,
) -> Vec<Forward> {
    let (Some(step), Some((was, _))) = (present.step, present.earliest) else { return Vec::new() };
    let taken = known.taken_places(document, p, plan, now);
    let coats = Look::coats_below(document, (p, step), plan);
    let begun = known.begun_at(document, p, &coats, now);
    let mut found = Vec::new();
    for (what, risk, changed) in changes(document, p, step, now) {
        let among = (plan, photographs, taken.as_slice());
        let other = if changed.air == document.air {
            gate_among(&changed, p, among, now, known)
        } else {
            gate_among(&changed, p, among, now, &mut begun.clone())
        };
        let Some((earliest, _)) = other.earliest else { continue };
        let gain_min = (was - earliest).num_seconds() as f64 / 60.0;
        if gain_min >= WORTH_MIN {
            found.push(Forward { what, risk, earliest, gain_min });
        }
    }
    found.sort_by(|a, b| b.gain_min.total_cmp(&a.gain_min));
    found
}

fn changes(
    document: &StudioDocument,
    p: usize,
    step: usize,
    now: DateTime<Utc>,
) -> Vec<(String, String, StudioDocument)> {
    let mut found = Vec::new();
    let shorter = match document.schools.waiting {
        Waiting::Patient => Some((Waiting::Standard, "Wait as the standard school does")),
        Waiting::Standard => Some((Waiting::Brisk, "Wait as the brisk school does")),
        Waiting::Brisk => None,
    };
    if let Some((waiting, what)) = shorter {
        let mut changed = document.clone();
        changed.schools.waiting = waiting;
        found.push((what.to_owned(), WayKind::ShorterWait.risk().to_owned(), changed));
    }
    for (kind, what, mut changed) in rooms(document) {
        // What is past stays as it was: the room can be changed from now on.
        changed.air = from_now(&document.air, &changed.air, now);
        found.push((what, kind.risk().to_owned(), changed));
    }
    if let Some((what, changed)) = fit_air(document, now) {
        let risk = "A machine to run and to watch; measure beside the picture, not at the machine.";
        found.push((what, risk.to_owned(), changed));
    }
    if let Some(changed) = any_hour(document) {
        let what = format!("Varnish at any hour from {} to {}:00", AWAKE.0, AWAKE.1);
        found.push((what, "An evening or a morning outside your hours.".into(), changed));
    }
    let picture = &document.pictures[p];
    let solvent = document.holds(&picture.steps[step], &MaterialKind::SolventVarnish);
    if solvent && picture.steps[step].kind == StepKind::Varnish {
        let choice = super::VarnishChoice {
            carrier: Carrier::WaterBorne,
            isolation_reason: Some("as it was".into()),
            ..choice_of(document, picture)
        };
        if let Ok(varnish) = choice.plan(document, picture) {
            let mut changed = document.clone();
            changed.pictures[p] = with_varnish(picture, &choice, &varnish);
            let what = "Water-borne varnish instead of solvent".to_owned();
            found.push((what, Carrier::WaterBorne.effect().to_owned(), changed));
        }
    }
    found
}

/// The air of `before` until `now`, and of `after` from then on.
fn from_now(before: &AirSeries, after: &AirSeries, now: DateTime<Utc>) -> AirSeries {
    let now = now.timestamp() as f64;
    let past = before.readings().iter().filter(|(t, _)| *t < now).copied();
    let to_come = after.readings().iter().filter(|(t, _)| *t > now).copied();
    let readings = past.chain([(now, *after.at(now))]).chain(to_come).collect();
    AirSeries::new(*before.usual(), readings)
}

/// The room brought into the range of varnish at every hour that is not, with words for the worst.
fn fit_air(document: &StudioDocument, now: DateTime<Utc>) -> Option<(String, StudioDocument)> {
    let from = now.timestamp() as f64;
    let fit = |air: &Air| remedies(air).first().map_or(*air, |r| r.after);
    let ahead = document.air.readings().iter().filter(|(t, _)| *t >= from).map(|(_, a)| a);
    let worst = ahead
        .chain([document.air.at(from), document.air.usual()])
        .filter(|air| !air_faults(air).is_empty())
        .max_by(|a, b| (a.humidity - DAMPEST).abs().total_cmp(&(b.humidity - DAMPEST).abs()))?;
    let remedy = remedies(worst).into_iter().next()?;
    let said: Vec<String> = remedy.actions.iter().map(ToString::to_string).collect();
    let mut changed = document.clone();
    let readings = document
        .air
        .readings()
        .iter()
        .map(|(t, air)| (*t, if *t >= from { fit(air) } else { *air }))
        .collect();
    let all = AirSeries::new(fit(document.air.usual()), readings);
    changed.air = from_now(&document.air, &all, now);
    Some((format!("Make the air fit: {}", said.join(", then ")), changed))
}

/// The studio open every day of the week, as long as one is awake.
fn any_hour(document: &StudioDocument) -> Option<StudioDocument> {
    let hour = |h| NaiveTime::from_hms_opt(h, 0, 0);
    let (from, to) = (hour(AWAKE.0)?, hour(AWAKE.1)?);
    let mut weekly = document.hours.weekly().to_vec();
    let mut day = Weekday::Mon;
    for _ in 0..7 {
        weekly.push(OpenHours { day, from, to });
        day = day.succ();
    }
    let mut changed = document.clone();
    changed.hours = StudioHours::try_new(document.hours.zone(), weekly, Vec::new()).ok()?;
    Some(changed)
}

impl Gate {
    /// The condition that is over last, of those that time brings.
    pub fn holds_longest(&self) -> Option<ConditionId> {
        self.against().filter(|c| c.from.is_some()).max_by_key(|c| c.from).map(|c| c.id)
    }
}
