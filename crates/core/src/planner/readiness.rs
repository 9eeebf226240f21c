//! When a picture is ready for its next step: the film, and the floors of the schools.

use super::calendar::seconds_of;
use super::problem::Known;
use super::{Blocked, Wait, WaitReason};
use crate::film::{Composition, Film, FilmState, Grid, HORIZON_S};
use crate::picture::Need;
use crate::studio::{MaterialKind, Slowed, StudioDocument, Waiting};
use chrono::{DateTime, Duration, TimeZone, Utc};

/// Shortest wait between two varnish coats [min]. [practice] an hour at least
const VARNISH_GAP_MIN: i64 = 60;
/// Shortest wait from a water-borne sealing coat to a solvent varnish over it. [practice] three to
/// four days; three is the floor
pub const SOLVENT_GAP: Duration = Duration::days(3);

/// What was done on a picture, and when.
#[derive(Debug, Clone)]
pub(super) struct Done {
    /// Index of the picture.
    picture: usize,
    /// When each step was, or will be, done.
    ends: Vec<Option<DateTime<Utc>>>,
    pub last_coat: Option<usize>,
    last_painted: Option<DateTime<Utc>>,
    slowed: Slowed,
    /// Coats there are, and their times summed [s of the epoch].
    coats: (i64, i64),
}

impl Done {
    fn nothing(document: &StudioDocument, picture: usize) -> Self {
        Self {
            picture,
            ends: vec![None; document.pictures[picture].steps.len()],
            last_coat: None,
            last_painted: None,
            slowed: Slowed::No,
            coats: (0, 0),
        }
    }

    /// When the last coat was laid.
    pub fn last_laid(&self) -> Option<DateTime<Utc>> {
        self.ends[self.last_coat?]
    }

    /// Mean age of the coats when the last one was laid [s].
    pub fn mean_age(&self) -> i64 {
        let (count, sum) = self.coats;
        self.last_laid().map_or(0, |at| at.timestamp() - sum / count.max(1))
    }

    /// Marks step `i` as done at `at`; `leaves_film` when it lays a coat.
    pub fn mark(&mut self, document: &StudioDocument, i: usize, at: DateTime<Utc>, film: bool) {
        self.ends[i] = Some(at);
        if !film {
            return;
        }
        self.last_coat = Some(i);
        self.coats = (self.coats.0 + 1, self.coats.1 + at.timestamp());
        let step = &document.pictures[self.picture].steps[i];
        if !step.kind.seals() {
            self.last_painted = Some(at);
            self.slowed = self.slowed.max(document.slowed_by(step));
        }
    }

    /// From when step `i`, which stands on `below`, may start, and why; `film_ready` says when the
    /// film alone is.
    pub fn ready(
        &self,
        document: &StudioDocument,
        (i, below): (usize, &[usize]),
        film_ready: Option<DateTime<Utc>>,
    ) -> (Option<DateTime<Utc>>, Option<Wait>) {
        let picture = &document.pictures[self.picture];
        let step = &picture.steps[i];
        let need = picture.needs(i);
        let ended = below.iter().filter_map(|b| self.ends[*b].map(|end| (end, *b))).max();
        let mut waits = Latest::default();
        if let (Some(at), Some(coat)) = (film_ready, self.last_coat) {
            waits.push(at, WaitReason::Film, coat);
        }
        if let Some((end, of)) = ended {
            if let Some(gap) = step.earliest_gap_min {
                waits.push(end + Duration::seconds(seconds_of(gap)), WaitReason::Gap, of);
            }
            let fresh = document.schools.fresh_eyes
                && step.kind.is_glaze()
                && picture.steps[of].kind.blocks_in();
            if fresh {
                waits.push(next_day(document, end), WaitReason::FreshEyes, of);
            }
            if let Some(at) = step.not_before {
                waits.push(at, WaitReason::NotBefore, of);
            }
            waits.push(end, WaitReason::Order, of);
        }
        if step.kind.seals() && step.needs.is_none_or(|n| n == Need::ReadyToSeal) {
            self.sealing_floor(document, i, &mut waits);
        }
        let earliest = step.not_before.filter(|_| ended.is_none());
        let Some((until, reason, of)) = waits.0 else { return (earliest, None) };
        let since = self.ends[of].unwrap_or(until);
        let lag_min = (until - since).num_seconds() as f64 / 60.0;
        (Some(until), Some(Wait { reason, state: need, of, until, lag_min, film_ready }))
    }

    /// The floors before a sealing coat: the school's after paint, the gap after varnish.
    fn sealing_floor(&self, document: &StudioDocument, i: usize, waits: &mut Latest) {
        let Some(coat) = self.last_coat else { return };
        let Some(laid) = self.ends[coat] else { return };
        let waiting = document.schools.waiting;
        let steps = &document.pictures[self.picture].steps;
        if steps[coat].kind.seals() {
            let until = between_varnish(document, laid);
            waits.push(until, WaitReason::BetweenVarnish, coat);
            let solvent = |i: usize| document.holds(&steps[i], &MaterialKind::SolventVarnish);
            if solvent(i) && !solvent(coat) {
                waits.push(laid + SOLVENT_GAP, WaitReason::SolventOverWater, coat);
            }
        } else if let Some(painted) = self.last_painted {
            let reason = match self.slowed {
                Slowed::No => WaitReason::School,
                Slowed::Retarder => WaitReason::Retarder,
                Slowed::SlowPaint => WaitReason::SlowPaint,
            };
            waits.push(painted + waiting.floor(self.slowed), reason, coat);
        }
    }
}

/// The wait that is over last; of equal ones the one named last.
#[derive(Default)]
struct Latest(Option<(DateTime<Utc>, WaitReason, usize)>);

impl Latest {
    fn push(&mut self, at: DateTime<Utc>, reason: WaitReason, of: usize) {
        if self.0.is_none_or(|(known, ..)| at >= known) {
            self.0 = Some((at, reason, of));
        }
    }
}

/// One picture with its film while it is being planned.
#[derive(Debug, Clone)]
pub(super) struct Bed {
    pub done: Done,
    /// The film right after its last coat, and the same run ahead to find states.
    laid: Film,
    ahead: Film,
}

impl Bed {
    /// Picture `p` with what is already laid on it.
    pub fn new(document: &StudioDocument, p: usize, grid: Grid) -> Known<Self> {
        let picture = &document.pictures[p];
        let mut history: Vec<(DateTime<Utc>, usize)> = picture
            .steps
            .iter()
            .enumerate()
            .filter_map(|(i, s)| s.laid_at.map(|at| (at, i)))
            .collect();
        history.sort();
        let start = history.first().map_or(0.0, |(at, _)| seconds(*at));
        let film = Film::new(picture.absorbs_um * 1e-6, picture.shorter_side_m(), grid, start);
        let mut bed = Self { done: Done::nothing(document, p), laid: film.clone(), ahead: film };
        for (at, i) in history {
            bed.finish(document, i, at)?;
        }
        Ok(bed)
    }

    /// Marks step `i` as done at `at` and lays its coat, if it leaves one.
    pub fn finish(&mut self, document: &StudioDocument, i: usize, at: DateTime<Utc>) -> Known<()> {
        let step = &document.pictures[self.done.picture].steps[i];
        let coat = document.coat(step).map_err(|e| (i, Blocked::Coat(e.to_string())))?;
        self.done.mark(document, i, at, coat.is_some());
        if let Some((um, mix)) = coat {
            self.lay(document, at, um, mix);
        }
        Ok(())
    }

    fn lay(&mut self, document: &StudioDocument, at: DateTime<Utc>, um: f64, mix: Composition) {
        let t = seconds(at);
        if self.ahead.time() <= t {
            self.laid = self.ahead.clone();
        }
        self.laid.advance(&document.air, t, None);
        self.laid.lay(um * 1e-6, mix);
        self.ahead = self.laid.clone();
    }

    /// When the film reaches `state`, if it does within the horizon.
    pub fn reaches(
        &mut self,
        document: &StudioDocument,
        state: FilmState,
    ) -> Option<DateTime<Utc>> {
        let until = self.laid.time() + HORIZON_S;
        self.ahead.advance(&document.air, until, Some(state));
        self.ahead.events().at(state).map(instant)
    }

    /// When the film is ready for step `i`; `None` when nothing is asked of it.
    pub fn film_ready(
        &mut self,
        document: &StudioDocument,
        i: usize,
    ) -> Result<Option<DateTime<Utc>>, Blocked> {
        let need = document.pictures[self.done.picture].needs(i);
        match need.state().filter(|_| self.done.last_coat.is_some()) {
            None => Ok(None),
            Some(state) => self.reaches(document, state).map(Some).ok_or(Blocked::NeverReady(need)),
        }
    }
}

/// From when a varnish coat may follow one laid at `laid`: the brisk school waits an hour, the
/// others until the next day.
pub fn between_varnish(document: &StudioDocument, laid: DateTime<Utc>) -> DateTime<Utc> {
    let hour = laid + Duration::minutes(VARNISH_GAP_MIN);
    match document.schools.waiting {
        Waiting::Brisk => hour,
        Waiting::Standard | Waiting::Patient => hour.max(next_day(document, laid)),
    }
}

/// The beginning of the day after `after`.
fn next_day(document: &StudioDocument, after: DateTime<Utc>) -> DateTime<Utc> {
    let hours = &document.hours;
    let day = hours.day(after);
    day.succ_opt().map_or(after, |next| hours.start_of(next))
}

/// Seconds of the Unix epoch.
pub(crate) fn seconds(at: DateTime<Utc>) -> f64 {
    at.timestamp_micros() as f64 / 1e6
}

/// The instant `t` seconds after the Unix epoch, to the second, never early.
pub(crate) fn instant(t: f64) -> DateTime<Utc> {
    Utc.timestamp_opt(t.ceil() as i64, 0).single().unwrap_or(DateTime::<Utc>::MAX_UTC)
}
