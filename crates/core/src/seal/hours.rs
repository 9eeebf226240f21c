//! Air, place and hours: from when a sealing coat can lie undisturbed until it is touch-dry.

use super::conditions::{Condition, ConditionId, Standing};
use super::look::Look;
use crate::film::{Diverged, Film, FilmState, Grid, HORIZON_S};
use crate::picture::CoatFault;
use crate::readiness::first_fault;
use crate::time::{MINUTE_S, minutes, minutes_s};
use crate::time::{instant, seconds};
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
    fn laying(&self, film: Option<&Film>, at: DateTime<Utc>) -> Result<Option<Laying>, CoatFault> {
        let step = self.step();
        let shelf = &self.studio.materials;
        let Some(coat) = self.picture.coat_at(shelf, self.i, seconds(at))? else {
            return Ok(None);
        };
        let bare = || self.picture.bare(Grid::PLANNING, coat.at);
        let mut film = film.cloned().unwrap_or_else(bare);
        let cannot = |e: Diverged| self.picture.fault(self.i, e);
        let at = film.time().max(coat.at);
        film.advance(&self.studio.air, at, None).map_err(cannot)?;
        film.lay(coat.wet_m, coat.mix);
        let until = at + HORIZON_S;
        film.advance(&self.studio.air, until, Some(FilmState::TouchDry)).map_err(cannot)?;
        let after = |state| film.events().at(state).map(|t| (t - at).ceil() as i64);
        let hands_on = minutes_s(step.hands_on_min);
        let laying = |(setting, touch_dry)| Laying { hands_on, setting, touch_dry };
        Ok(after(FilmState::Setting).zip(after(FilmState::TouchDry)).map(laying))
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
    ) -> Result<(Condition, Option<Laying>), CoatFault> {
        let id = ConditionId::Air;
        let at = ready.unwrap_or(self.now).max(self.now);
        let Some(laying) = self.laying(film, at)? else {
            let evidence = "What is in the cup gives no film that dries.".into();
            let condition = Condition { id, standing: Standing::Against, evidence, from: None };
            return Ok((condition, None));
        };
        let air = self.studio.air.at(seconds(at));
        let minutes = (Self::span(at, laying).1 - seconds(at)) / MINUTE_S;
        let range = format!(
            "18-24 °C and 30-65 % for the {minutes:.0} minutes until it is touch-dry. [memory]"
        );
        let condition = match first_fault(&self.studio.air, Self::span(at, laying)) {
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
        Ok((condition, Some(laying)))
    }

    /// The first moment from `at` on at which the air is fit for the whole span.
    fn fit_from(&self, at: DateTime<Utc>, laying: Laying) -> Option<DateTime<Utc>> {
        let air = &self.studio.air;
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
        let all = self.studio.flat_places as usize;
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
        let all = self.studio.flat_places as usize;
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
    ) -> Result<Option<(DateTime<Utc>, Laying)>, CoatFault> {
        let ready = ready.max(self.now);
        let until = ready + Duration::days(LOOK_AHEAD_DAYS);
        let sessions = self.studio.hours.sessions(self.now, until);
        let set_up = minutes(self.studio.setup_min);
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
            let Some(then) = self.laying(film, at)? else { break };
            if then.touch_dry <= laying.touch_dry {
                return Ok(Some((at, then)));
            }
            // It dries more slowly there than was taken: look again with that.
            laying = then;
        }
        Ok(found.map(|at| (at, laying)))
    }
}
