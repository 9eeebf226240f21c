//! Air, place and hours: from when a sealing coat can lie undisturbed until it is touch-dry.

use super::air::first_fault;
use super::conditions::{Condition, ConditionId, Standing, minutes};
use super::gate::Look;
use crate::film::{Film, FilmState, Grid, HORIZON_S};
use crate::planner::{instant, seconds};
use chrono::{DateTime, Duration, Utc};

/// How far ahead an hour is looked for in which everything holds [days]. [practice] a season
const LOOK_AHEAD_DAYS: i64 = 120;
/// Minutes that are added to what the film model says, for a room that is not quite as computed:
/// the air must stay fit that much longer. [practice]
const MARGIN_MIN: i64 = 10;
/// Rounds in which the time to touch-dry and the hour that depends on it are brought together.
const ROUNDS: usize = 4;

/// A coat to be laid: how long hands are on it, until it sets and until it is touch-dry [s].
#[derive(Clone, Copy)]
pub(super) struct Laying {
    pub(super) hands_on: i64,
    pub(super) setting: i64,
    pub(super) touch_dry: i64,
}

impl Look<'_> {
    /// How the coat would behave, laid at `at` over the film.
    fn laying(&self, film: Option<&Film>, at: DateTime<Utc>) -> Option<Laying> {
        let step = self.step();
        let (um, mix) = self.document.coat(step).ok()??;
        let mut film = film.cloned().unwrap_or_else(|| {
            let size = (self.picture.absorbs_um * 1e-6, self.picture.shorter_side_m());
            Film::new(size.0, size.1, Grid::PLANNING, seconds(at))
        });
        let at = film.time().max(seconds(at));
        film.advance(&self.document.air, at, None);
        film.lay(um * 1e-6, mix);
        film.advance(&self.document.air, at + HORIZON_S, Some(FilmState::TouchDry));
        let after = |state| film.events().at(state).map(|t| (t - at).ceil() as i64);
        Some(Laying {
            hands_on: (step.hands_on_min * 60.0).round() as i64,
            setting: after(FilmState::Setting)?,
            touch_dry: after(FilmState::TouchDry)?,
        })
    }

    /// From the first stroke at `at` until nothing can fall into it any more [s].
    fn span(at: DateTime<Utc>, laying: Laying) -> (f64, f64) {
        let wet = laying.hands_on.max(laying.setting) + laying.touch_dry + MARGIN_MIN * 60;
        (seconds(at), seconds(at) + wet as f64)
    }

    pub(super) fn air(
        &self,
        film: Option<&Film>,
        ready: Option<DateTime<Utc>>,
    ) -> (Condition, Option<Laying>) {
        let id = ConditionId::Air;
        let at = ready.unwrap_or(self.now).max(self.now);
        let Some(laying) = self.laying(film, at) else {
            let evidence = "What is in the cup gives no film that dries.".into();
            return (Condition { id, standing: Standing::Against, evidence, from: None }, None);
        };
        let air = self.document.air.at(seconds(at));
        let minutes = (Self::span(at, laying).1 - seconds(at)) / 60.0;
        let range = format!(
            "18-24 °C and 30-65 % for the {minutes:.0} minutes until it is touch-dry. [memory]"
        );
        let condition = match first_fault(&self.document.air, Self::span(at, laying)) {
            None => {
                let evidence = format!(
                    "{:.0} °C and {:.0} %; wanted are {range}",
                    air.celsius,
                    air.humidity * 100.0
                );
                let standing = Standing::Holds;
                Condition { id, standing, evidence, from: Some(at) }
            }
            Some((_, fault)) => {
                let from = self.fit_from(at, laying);
                let evidence = format!("{fault}; wanted are {range}");
                let standing = if from.is_some() { Standing::Waits } else { Standing::Against };
                Condition { id, standing, evidence, from }
            }
        };
        (condition, Some(laying))
    }

    /// The first moment from `at` on at which the air is fit for the whole span.
    fn fit_from(&self, at: DateTime<Utc>, laying: Laying) -> Option<DateTime<Utc>> {
        let air = &self.document.air;
        let mut t = seconds(at);
        loop {
            match first_fault(air, Self::span(instant(t), laying)) {
                None => return Some(instant(t)),
                Some((fault_at, _)) => t = air.next_change(fault_at)?,
            }
        }
    }

    pub(super) fn flat_place(
        &self,
        ready: Option<DateTime<Utc>>,
        laying: Option<Laying>,
    ) -> Condition {
        let id = ConditionId::FlatPlace;
        let all = self.document.flat_places as usize;
        if all == 0 {
            let evidence = "The studio has no place where wet work can lie flat.".into();
            return Condition { id, standing: Standing::Against, evidence, from: None };
        }
        let at = ready.unwrap_or(self.now).max(self.now);
        let held = self.taken.iter().filter(|(a, b)| *a <= at && at < *b).count();
        let when = if at > self.now { "then" } else { "now" };
        let evidence = format!("{held} of {all} places hold wet varnish {when}.");
        let from = self.free_from(at, laying);
        let standing = match from {
            Some(free) if free == at => Standing::Holds,
            Some(_) => Standing::Waits,
            None => Standing::Against,
        };
        Condition { id, standing, evidence, from }
    }

    /// The first moment from `at` on at which a place is free for the whole span.
    fn free_from(&self, at: DateTime<Utc>, laying: Option<Laying>) -> Option<DateTime<Utc>> {
        let all = self.document.flat_places as usize;
        let mut at = at;
        loop {
            let until = laying.map_or(at, |l| instant(Self::span(at, l).1));
            // Most places taken at once within the span: counted where one begins to be.
            let overlap: Vec<_> =
                self.taken.iter().filter(|(a, b)| *a < until && *b > at).collect();
            let starts = overlap.iter().map(|(a, _)| (*a).max(at));
            let most = starts
                .map(|s| overlap.iter().filter(|(a, b)| *a <= s && s < *b).count())
                .max()
                .unwrap_or(0);
            if most < all {
                return Some(at);
            }
            at = overlap.iter().map(|(_, b)| *b).min().filter(|b| *b < DateTime::<Utc>::MAX_UTC)?;
        }
    }

    /// The first moment from `ready` on, within the studio's hours, at which air and place hold.
    pub(super) fn earliest(
        &self,
        film: Option<&Film>,
        ready: DateTime<Utc>,
        laying: Laying,
    ) -> Option<(DateTime<Utc>, Laying)> {
        let ready = ready.max(self.now);
        let until = ready + Duration::days(LOOK_AHEAD_DAYS);
        let sessions = self.document.hours.sessions(self.now, until);
        let set_up = minutes(self.document.setup_min);
        let mut laying = laying;
        let mut found = None;
        for _ in 0..ROUNDS {
            let work = Duration::seconds(laying.hands_on);
            found = sessions.iter().find_map(|s| {
                let mut at = ready.max(s.from + set_up);
                loop {
                    if at + work > s.to {
                        return None;
                    }
                    let fit = self.fit_from(at, laying)?;
                    let free = self.free_from(fit, Some(laying))?;
                    if free == at {
                        return Some(at);
                    }
                    at = free;
                }
            });
            let Some(at) = found else { break };
            let Some(then) = self.laying(film, at) else { break };
            if then.touch_dry <= laying.touch_dry {
                return Some((at, then));
            }
            // It dries more slowly there than was taken: look again with that.
            laying = then;
        }
        found.map(|at| (at, laying))
    }
}
