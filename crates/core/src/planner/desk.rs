//! What was planned and followed of one studio, kept from question to question: who asks again, or
//! asks something else of the same studio, or changed one picture of it, is answered from what is
//! known, and only the rest is computed.

use super::Plan;
use super::films::Films;
use super::known_plan::{Planner, carried};
use super::outlook::{CoatOutlook, FilmMoment, coats_of, decorate, film_line};
use super::parallel::{in_parallel, threads};
use super::problem::Problem;
use super::ready::{ReadyOutcome, planned_on, ready_after};
use super::ways::{DateWay, date_ways};
use crate::film::{FilmState, Grid, HORIZON_S};
use crate::picture::{CoatFault, LaidCoat, ReadyBy, Timeline, follow, follow_on, on_top};
use crate::readiness::{Bed, followed, history};
use crate::studio::{OrderEntry, Studio};
use crate::time::{DAY_S, full_minute, minutes, seconds, whole_seconds};
use chrono::{DateTime, NaiveDate, Utc};
use std::collections::HashMap;
use std::sync::Arc;

/// How far a last coat is followed whose end nobody asks for [s]: until it sets. [practice] two days
const SOON_S: f64 = 2.0 * DAY_S;

/// Pictures whose strata are kept. [practice] those that a painter goes through, some 200 kB each
const MOST_STRATA: usize = 12;

/// A plan and what belongs to it.
#[derive(Debug, Clone)]
struct Planned {
    /// The minute it was made for, and the last one it still holds for [s of the epoch].
    holds: (i64, i64),
    plan: Arc<Plan>,
    order: Arc<Vec<OrderEntry>>,
    earliest: Option<Arc<Vec<Option<DateTime<Utc>>>>>,
    ready: Option<Arc<Vec<ReadyOutcome>>>,
}

/// The films of one picture, as they were followed for a row of coats.
#[derive(Debug, Clone)]
struct Followed {
    coats: Vec<LaidCoat>,
    line: Arc<Timeline>,
}

/// The film of one picture as a line, and what it was drawn for.
#[derive(Debug, Clone)]
struct Drawn {
    coats: Vec<LaidCoat>,
    to: (u64, usize),
    moments: Arc<Vec<FilmMoment>>,
}

/// The films at each place of one picture, once they were drawn, and what for.
#[derive(Debug, Clone)]
pub struct Strata {
    picture: usize,
    coats: Vec<LaidCoat>,
    to: (u64, usize),
    line: Option<Arc<Timeline>>,
}

impl Strata {
    /// Draws them where they are not known: the coats, laid and planned, each followed on its own too, and the film at
    /// each place. Away from the desk, since whoever looked may go before it is done.
    ///
    /// # Errors
    /// [`CoatFault`] when a coat cannot be computed.
    pub fn drawn(
        &mut self,
        studio: &Studio,
    ) -> Result<(Vec<CoatOutlook>, Arc<Timeline>), CoatFault> {
        let p = self.picture;
        let line = match self.line.take() {
            Some(known) => known,
            None => {
                let (on, to) = (Grid::PLANNING, (f64::from_bits(self.to.0), self.to.1));
                let (picture, futures) = (&studio.pictures[p], studio.futures());
                Arc::new(follow(picture, &self.coats, &futures, on, to, |_| true)?)
            }
        };
        self.line = Some(line.clone());
        let laid = studio.laid_coats(p)?.len();
        Ok((decorate(studio, p, line.coats.clone(), laid), line))
    }
}

/// What becomes of `coats` of picture `p`, laid and those of `plan`. What the planner followed is not followed again.
fn line_of(
    studio: &Studio,
    films: &Films,
    plan: &Plan,
    (p, coats): (usize, &[LaidCoat]),
) -> Result<Timeline, CoatFault> {
    let picture = &studio.pictures[p];
    let laid = studio.laid_coats(p)?.len();
    let last = coats.last().map_or(0.0, |c| c.at);
    // A last coat that is planned is followed to its end only where its day is asked for.
    let asked = coats.len() == laid || (picture.due.is_some() && !picture.is_packed());
    let until = last + if asked { HORIZON_S } else { SOON_S };
    let tops = on_top(&coats[..laid]);
    let known = followed(&films.played().along(p, &planned_on(plan, p)));
    let on = (Grid::PLANNING, &known[..]);
    follow_on(picture, coats, &studio.futures(), on, (until, 0), |n| tops.contains(&n))
}

/// What the moment at which picture `p` is ready by `plan` hangs on, its air and its support aside.
fn ready_key(studio: &Studio, plan: &Plan, p: usize) -> Result<ReadyKey, CoatFault> {
    let picture = &studio.pictures[p];
    Ok(ReadyKey {
        history: history(picture, planned_on(plan, p)),
        coats: coats_of(studio, p, plan)?,
        finish: plan.pictures.iter().find(|o| o.picture == p).and_then(|o| o.finish),
        due: picture.due,
        ready_by: picture.ready_by,
        packed: picture.is_packed(),
    })
}

/// Whether picture `p` is the same thing to paint on in both: same name, size and ground.
pub(crate) fn same_support(a: &Studio, b: &Studio, p: usize) -> bool {
    let of = |d: &Studio| {
        let picture = &d.pictures[p];
        let packed = (picture.due.is_some(), picture.is_packed());
        (picture.id.clone(), picture.ground, picture.width_cm, picture.height_cm, packed)
    };
    of(a) == of(b)
}

/// What the moment at which a picture is ready hangs on.
#[derive(Debug, Clone, PartialEq)]
struct ReadyKey {
    coats: Vec<LaidCoat>,
    history: Vec<(DateTime<Utc>, usize)>,
    finish: Option<DateTime<Utc>>,
    due: Option<NaiveDate>,
    ready_by: ReadyBy,
    packed: bool,
}

/// What is known of a studio.
#[derive(Debug, Clone)]
pub struct Desk {
    studio: Arc<Studio>,
    films: Films,
    planned: Option<Planned>,
    /// The plan that was made last, also of an earlier version.
    last: Option<Arc<Plan>>,
    /// By picture.
    followed: HashMap<usize, Followed>,
    drawn: HashMap<usize, Drawn>,
    /// Of one picture each, those that were looked at last at the end.
    strata: Vec<Strata>,
    /// By picture: its laid coats, a day [days of the epoch], and what of slow volatile it held then.
    slow: HashMap<usize, (Vec<LaidCoat>, i64, f64)>,
    /// By picture: when it is ready, and by what.
    ready_known: HashMap<usize, (ReadyKey, ReadyOutcome)>,
}

impl Desk {
    /// An empty desk for `studio`.
    pub fn new(studio: Arc<Studio>) -> Self {
        let films = Films::new(&studio);
        Self {
            studio,
            films,
            planned: None,
            last: None,
            followed: HashMap::new(),
            drawn: HashMap::new(),
            strata: Vec::new(),
            slow: HashMap::new(),
            ready_known: HashMap::new(),
        }
    }

    /// The studio.
    pub fn studio(&self) -> Arc<Studio> {
        self.studio.clone()
    }

    /// Takes over another version of the studio; what did not change stays known.
    pub fn turn_to(&mut self, studio: Arc<Studio>) {
        let old = std::mem::replace(&mut self.studio, studio);
        let new = &self.studio;
        if old == *new {
            return;
        }
        self.planned = None;
        self.films.turn_to(&old, new);
        if !old.dries_like(new) || old.pictures.len() > new.pictures.len() {
            self.followed.clear();
            self.drawn.clear();
            self.strata.clear();
            self.slow.clear();
            self.ready_known.clear();
            return;
        }
        let same = |p: usize| same_support(&old, new, p);
        self.followed.retain(|p, _| same(*p));
        self.drawn.retain(|p, _| same(*p));
        self.strata.retain(|s| same(s.picture));
        self.slow.retain(|p, _| same(*p));
        self.ready_known.retain(|p, _| same(*p));
    }

    /// The plan from `from` on. One that was made earlier holds as long as none of its work was to
    /// begin meanwhile.
    pub fn plan(&mut self, from: DateTime<Utc>) -> Arc<Plan> {
        self.planned(from).plan.clone()
    }

    /// When each picture is ready by that plan, as its painter means it.
    ///
    /// # Errors
    /// [`CoatFault`] when a coat cannot be computed.
    pub fn ready(&mut self, from: DateTime<Utc>) -> Result<Arc<Vec<ReadyOutcome>>, CoatFault> {
        let studio = self.studio.clone();
        let plan = self.plan(from);
        if let Some(known) = self.planned.as_ref().and_then(|p| p.ready.clone()) {
            return Ok(known);
        }
        let keys = (0..studio.pictures.len()).map(|p| ready_key(&studio, &plan, p));
        let keys = keys.collect::<Result<Vec<_>, _>>()?;
        let (films, known) = (&self.films, &self.ready_known);
        let outcome = |p: usize| {
            let known = known.get(&p).filter(|(key, _)| *key == keys[p]);
            let bed = |planned: &[_]| films.played().bed_after(&studio, p, planned);
            Some(known.map_or_else(
                || ready_after(&studio, &plan, p, bed),
                |(_, as_it_was)| Ok(*as_it_was),
            ))
        };
        let all = in_parallel(keys.len(), threads(), outcome);
        let all = all.into_iter().collect::<Result<Vec<_>, _>>()?;
        self.ready_known = keys.into_iter().zip(all.iter().copied()).enumerate().collect();
        let all = Arc::new(all);
        if let Some(planned) = &mut self.planned {
            planned.ready = Some(all.clone());
        }
        Ok(all)
    }

    /// The order of work of that plan.
    pub fn order(&mut self, from: DateTime<Utc>) -> Arc<Vec<OrderEntry>> {
        self.planned(from).order.clone()
    }

    /// The earliest that each picture is ready, were it the only one.
    pub fn earliest(&mut self, from: DateTime<Utc>) -> Arc<Vec<Option<DateTime<Utc>>>> {
        if let Some(known) = &self.planned(from).earliest {
            return known.clone();
        }
        let studio = self.studio.clone();
        let found = self.with_planner(&studio, from, |planner| {
            (0..studio.pictures.len()).map(|p| planner.earliest_finish(p)).collect()
        });
        let found: Arc<Vec<_>> = Arc::new(found);
        if let Some(planned) = &mut self.planned {
            planned.earliest = Some(found.clone());
        }
        found
    }

    /// Ways to finish picture `p` earlier, see [`date_ways`]; `told` hears how many of how many are planned.
    pub fn ways(
        &mut self,
        p: usize,
        from: DateTime<Utc>,
        told: impl Fn(usize, usize) + Sync,
    ) -> Vec<DateWay> {
        let studio = self.studio.clone();
        self.with_planner(&studio, from, |planner| date_ways(planner, p, from, told))
    }

    fn planned(&mut self, from: DateTime<Utc>) -> &Planned {
        let minute = full_minute(whole_seconds(from));
        let known = self.planned.take();
        let holds = |p: &Planned| (p.holds.0..=p.holds.1).contains(&minute);
        let planned = match known.filter(holds) {
            Some(known) => known,
            None => self.make(from, minute),
        };
        self.planned.insert(planned)
    }

    fn make(&mut self, from: DateTime<Utc>, minute: i64) -> Planned {
        let studio = self.studio.clone();
        if let Some(last) = &self.last {
            self.films.keep_along(last);
        }
        self.films.tidy(&studio);
        self.films.forget_finishes();
        let (plan, order) =
            self.with_planner(&studio, from, |planner| (planner.plan(), planner.order()));
        let set_up = minutes(studio.setup_min);
        let begins = plan.steps.iter().filter_map(|s| s.sittings.first()).map(|s| s.from).min();
        let until = begins.map_or(minute, |at| (at - set_up).timestamp());
        let plan = Arc::new(plan);
        self.last = Some(plan.clone());
        Planned {
            holds: (minute, until.max(minute)),
            plan,
            order: Arc::new(order),
            earliest: None,
            ready: None,
        }
    }

    /// Lends the known films to a planner. A computation that is given up takes them with it.
    fn with_planner<T>(
        &mut self,
        studio: &Studio,
        from: DateTime<Utc>,
        work: impl FnOnce(&mut Planner<'_>) -> T,
    ) -> T {
        let films = std::mem::replace(&mut self.films, Films::none());
        let problem = Problem::new(studio, from);
        let films = if films.knows(studio) { films } else { Films::new(studio) };
        let own = &studio.order;
        let order = (!own.is_empty()).then(|| carried(own, &problem));
        let mut planner = Planner::begin(problem, films, order);
        let found = work(&mut planner);
        self.films = planner.into_films();
        found
    }

    /// What becomes of the coats of picture `p`, at `now`.
    ///
    /// # Errors
    /// [`CoatFault`] when a coat cannot be computed.
    pub fn outlook(&mut self, p: usize, now: DateTime<Utc>) -> Result<Vec<CoatOutlook>, CoatFault> {
        let studio = self.studio.clone();
        let laid = studio.laid_coats(p)?.len();
        let line = self.line(p, now)?;
        Ok(decorate(&studio, p, line.until(seconds(now)).coats, laid))
    }

    /// The strata of picture `p` as they are asked for: up to `frames` moments of the film at each place up to
    /// `until` [s], with what is known of them.
    ///
    /// # Errors
    /// [`CoatFault`] when a coat cannot be computed.
    pub fn strata(
        &mut self,
        p: usize,
        now: DateTime<Utc>,
        (until, frames): (f64, usize),
    ) -> Result<Strata, CoatFault> {
        let plan = self.plan(now);
        let coats = coats_of(&self.studio, p, &plan)?;
        let to = (until.to_bits(), frames);
        let known = self.strata.iter().find(|s| s.picture == p && s.coats == coats && s.to == to);
        let line = known.and_then(|known| known.line.clone());
        Ok(Strata { picture: p, coats, to, line })
    }

    /// Keeps strata that were drawn, and forgets those that were kept longest.
    pub fn keep_strata(&mut self, strata: &Strata) {
        self.strata.retain(|s| s.picture != strata.picture);
        self.strata.push(strata.clone());
        if self.strata.len() > MOST_STRATA {
            self.strata.remove(0);
        }
    }

    /// The coats of picture `p`, laid and planned at `now`, each until the next.
    ///
    /// # Errors
    /// [`CoatFault`] when a coat cannot be computed.
    pub fn line(&mut self, p: usize, now: DateTime<Utc>) -> Result<Arc<Timeline>, CoatFault> {
        let plan = self.plan(now);
        let coats = coats_of(&self.studio, p, &plan)?;
        if let Some(known) = self.followed.get(&p).filter(|f| f.coats == coats) {
            return Ok(known.line.clone());
        }
        let line = Arc::new(line_of(&self.studio, &self.films, &plan, (p, &coats))?);
        self.followed.insert(p, Followed { coats, line: line.clone() });
        Ok(line)
    }

    /// Slow volatile per volume of solids in the whole laid stack of picture `p`, where there is most of it,
    /// on the day of `now`.
    ///
    /// # Errors
    /// [`CoatFault`] when a coat cannot be computed.
    pub fn slow_in_all(&mut self, p: usize, now: DateTime<Utc>) -> Result<f64, CoatFault> {
        let coats = self.studio.laid_coats(p)?;
        let day = now.timestamp().div_euclid(DAY_S as i64);
        if let Some((.., slow)) =
            self.slow.get(&p).filter(|(known, then, _)| *known == coats && *then == day)
        {
            return Ok(*slow);
        }
        let mut bed = self.bed(p, now)?;
        bed.wait_until(&self.studio, now)?;
        let slow = bed.slow_in_all();
        self.slow.insert(p, (coats, day, slow));
        Ok(slow)
    }

    /// When picture `p` as it is at `now` reaches `state` and all before it, if it does within the horizon
    /// and anything is laid.
    ///
    /// # Errors
    /// [`CoatFault`] when a coat cannot be computed.
    pub fn reaches(
        &mut self,
        (p, state): (usize, FilmState),
        now: DateTime<Utc>,
    ) -> Result<Option<DateTime<Utc>>, CoatFault> {
        let mut bed = self.bed(p, now)?;
        if bed.done.last_coat().is_none() { Ok(None) } else { bed.reaches(&self.studio, state) }
    }

    /// Picture `p` with what is laid on it.
    fn bed(&mut self, p: usize, now: DateTime<Utc>) -> Result<Bed, CoatFault> {
        self.plan(now);
        match self.films.played().along(p, &[]).first() {
            Some(bed) => Ok((*bed).clone()),
            None => Bed::new(&self.studio, p, Grid::PLANNING),
        }
    }

    /// Follows what of the pictures is not known yet, several at a time: whoever asks for all of them needs
    /// not wait for one after the other.
    ///
    /// # Errors
    /// [`CoatFault`] when a coat cannot be computed.
    pub fn follow_all(&mut self, now: DateTime<Utc>) -> Result<(), CoatFault> {
        let plan = self.plan(now);
        let mut unknown = Vec::new();
        for p in 0..self.studio.pictures.len() {
            let coats = coats_of(&self.studio, p, &plan)?;
            if self.followed.get(&p).is_none_or(|f| f.coats != coats) {
                unknown.push((p, coats));
            }
        }
        let (studio, films) = (&self.studio, &self.films);
        let lines = in_parallel(unknown.len(), threads(), |n| {
            let (p, coats) = &unknown[n];
            Some(line_of(studio, films, &plan, (*p, coats)))
        });
        for ((p, coats), line) in unknown.into_iter().zip(lines) {
            self.followed.insert(p, Followed { coats, line: Arc::new(line?) });
        }
        Ok(())
    }

    /// The film of picture `p` as a line through time, up to `until` [s], in up to `frames` moments.
    ///
    /// # Errors
    /// [`CoatFault`] when a coat cannot be computed.
    pub fn film_line(
        &mut self,
        p: usize,
        now: DateTime<Utc>,
        (until, frames): (f64, usize),
    ) -> Result<Arc<Vec<FilmMoment>>, CoatFault> {
        let plan = self.plan(now);
        let coats = coats_of(&self.studio, p, &plan)?;
        let to = (until.to_bits(), frames);
        let known = self.drawn.get(&p).filter(|d| d.coats == coats && d.to == to);
        if let Some(known) = known {
            return Ok(known.moments.clone());
        }
        let moments = Arc::new(film_line(&self.studio, p, &plan, (until, frames))?);
        self.drawn.insert(p, Drawn { coats, to, moments: moments.clone() });
        Ok(moments)
    }
}
