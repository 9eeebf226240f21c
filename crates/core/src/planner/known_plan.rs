//! The best plan that is known, with its order of work and its films: what every search goes on from.

use super::bound::{Rests, bound};
use super::decode::{Order, Schedule};
use super::dispatch::better_by_rule;
use super::films::Films;
use super::held_back::HeldBack;
use super::on_purpose::hold_back;
use super::played::Judged;
use super::problem::Problem;
use super::score::Score;
use super::{Objective, Plan, Request, finish::plan_of};
use crate::cancel;
use crate::studio::{OrderEntry, Studio};
use chrono::{DateTime, Utc};
use std::collections::HashMap;

/// How far a search is.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct SearchProgress {
    /// Orders tried.
    pub tried: u64,
    /// Steps placed with their films computed anew: what takes the time.
    pub films: u64,
    /// The best plan so far.
    pub best: Objective,
    /// What no plan is better than, see [`Planner::bound`].
    pub bound: Objective,
    /// What `best` is compared by.
    pub(super) score: Score,
}

/// A plan, its order and what waits on purpose in it.
pub(super) type Stands = (Schedule, Order, Vec<HeldBack>);

/// Plans a studio, and goes on to better plans as long as one likes.
///
/// It always holds a whole plan. The same document, start, seed and number of tries give the same
/// plan. What was computed of films is kept from plan to plan.
///
/// ```
/// # use ulvek_core::{air::*, planner::*, studio::*};
/// # let hours = StudioHours::try_new(chrono_tz::UTC, vec![], vec![]).unwrap();
/// # let air = AirSeries::constant(Air::try_new(21.0, 0.5, 0.15).unwrap());
/// let studio = Studio::new("Room", hours, air);
/// let from = "2027-01-04T08:00:00Z".parse().unwrap();
/// let mut planner = Planner::new(Request { studio: &studio, from });
/// planner.improve(7, 1000, |_| true);
/// assert_eq!(planner.plan().objective.weighted_days_late, 0.0);
/// ```
#[derive(Debug, Clone)]
pub struct Planner<'a> {
    pub(super) problem: Problem<'a>,
    pub(super) films: Films,
    pub(super) best: Schedule,
    pub(super) order: Order,
    /// What no plan is better than.
    proved: Option<Score>,
    /// What nothing that was seen is better than, and how many films were known when it was computed.
    bound: Option<(u64, Score)>,
    pub(super) tried: u64,
    /// Steps read from lags when an order may be played with rough films again.
    pub(super) due: u64,
    /// The same with its films.
    pub(super) films_due: u64,
}

impl<'a> Planner<'a> {
    /// The best of a few simple plans: of what can start first, of simple rules, or of the studio's own order.
    pub fn new(request: Request<'a>) -> Self {
        let problem = Problem::new(request.studio, request.from);
        let films = Films::new(request.studio);
        let own = &request.studio.order;
        let order = (!own.is_empty()).then(|| carried(own, &problem));
        Self::begin(problem, films, order)
    }

    /// Plans another version of the studio with the same order of work, wherever the steps are
    /// the same. Films of pictures that did not change are not computed again.
    pub fn turn_to<'b>(self, studio: &'b Studio, from: DateTime<Utc>) -> Planner<'b> {
        let own = self.order();
        self.turned((studio, from), &own)
    }

    /// The same as that version would be planned by itself: what comes out is what that studio shows.
    pub(super) fn plan_anew<'b>(self, studio: &'b Studio, from: DateTime<Utc>) -> Planner<'b> {
        self.turned((studio, from), &studio.order)
    }

    fn turned<'b>(
        self,
        (studio, from): (&'b Studio, DateTime<Utc>),
        turns: &[OrderEntry],
    ) -> Planner<'b> {
        let Self { problem: old, mut films, .. } = self;
        films.turn_to(old.studio, studio);
        let problem = Problem::new(studio, from);
        let order = (!turns.is_empty()).then(|| carried(turns, &problem));
        Planner::begin(problem, films, order)
    }

    pub(super) fn begin(mut problem: Problem<'a>, mut films: Films, order: Option<Order>) -> Self {
        // What was given up may have left them judged otherwise.
        films.judged = Judged::Films;
        let mut best = Schedule::first_come(&problem, &mut films);
        let mut known = best.order(&problem);
        if order.is_none() {
            (best, known) = better_by_rule(&problem, &mut films, (best, known));
        }
        if let Some(order) = order.filter(|o| *o != known) {
            let limit = best.score;
            let played = Schedule::play(&problem, &mut films, &order, Some(&limit));
            if let Some(schedule) = played {
                (best, known) = (schedule, order);
            }
        }
        let best = hold_back(&mut problem, &mut films, &known, best);
        Self {
            problem,
            films,
            best,
            order: known,
            proved: None,
            bound: None,
            tried: 0,
            due: 0,
            films_due: 0,
        }
    }

    /// Gives back the films that it was lent.
    pub(super) fn into_films(self) -> Films {
        self.films.without_rough()
    }

    /// The best plan so far.
    pub fn plan(&self) -> Plan {
        plan_of(&self.problem, &self.best)
    }

    /// What no plan of this studio beats.
    pub fn bound(&mut self) -> Objective {
        let (problem, films) = (&self.problem, &mut self.films);
        (*self.proved.get_or_insert_with(|| bound(problem, films, Rests::Proved))).into()
    }

    /// What nothing that was seen beats, computed again when films were computed since: a lag may have come out
    /// shorter.
    fn least(&mut self) -> Score {
        // A search that was given up may have left it at lags.
        self.films.judged = Judged::Films;
        if let Some((made, known)) = self.bound
            && made == self.films.made()
        {
            return known;
        }
        let found = bound(&self.problem, &mut self.films, Rests::Seen);
        self.bound = Some((self.films.made(), found));
        found
    }

    /// The bound as it was last computed: looked at at every try, it is not made anew for it.
    fn known_least(&mut self) -> Score {
        match self.bound {
            Some((_, known)) => known,
            None => self.least(),
        }
    }

    /// Whether nothing that is known of could be better than the plan.
    pub fn is_at_bound(&mut self) -> bool {
        let known = self.known_least();
        self.reaches(&known) && {
            let bound = self.least();
            self.reaches(&bound)
        }
    }

    fn reaches(&self, bound: &Score) -> bool {
        let best = &self.best.score;
        best.blocked == bound.blocked
            && best.late <= bound.late
            && best.past_tubs == 0
            && best.sum <= bound.sum
            && best.set_ups <= bound.set_ups
    }

    pub(super) const fn studio(&self) -> &'a Studio {
        self.problem.studio
    }

    /// The earliest that picture `p` is ready: were it the only one, or in any plan that was tried.
    pub fn earliest_finish(&mut self, p: usize) -> Option<DateTime<Utc>> {
        let order = Order::by_picture(&self.problem, &[p]);
        Schedule::play(&self.problem, &mut self.films, &order, None)?;
        self.films.earliest_finish(p).map(crate::time::whole_instant)
    }

    /// Steps still to do.
    pub fn steps_left(&self) -> usize {
        self.problem.steps_left()
    }

    /// Orders tried so far.
    pub const fn tried(&self) -> u64 {
        self.tried
    }

    /// The order of work of the best plan.
    pub fn order(&self) -> Vec<OrderEntry> {
        let mut seen = vec![0_usize; self.order.inner.len()];
        let mut turns = Vec::with_capacity(self.order.turns.len());
        for p in self.order.turns.iter().map(|p| *p as usize) {
            if let Some(i) = self.order.inner[p].get(seen[p]) {
                let picture = self.problem.picture(p);
                let step = picture.steps[*i as usize].id.clone();
                turns.push(OrderEntry { picture: picture.id.clone(), step });
            }
            seen[p] += 1;
        }
        turns
    }

    /// How far the search is.
    pub fn progress(&mut self) -> SearchProgress {
        let bound = self.bound();
        SearchProgress {
            tried: self.tried,
            films: self.films.made(),
            best: self.best.score.into(),
            bound,
            score: self.best.score,
        }
    }

    /// The score of an order, by lags or by films; `None` when it is worse than `limit`.
    pub(super) fn judge(
        &mut self,
        order: &Order,
        judged: Judged,
        limit: Option<&Score>,
    ) -> Option<Score> {
        self.films.judged = judged;
        let played = Schedule::play(&self.problem, &mut self.films, order, limit);
        self.films.judged = Judged::Films;
        played.map(|schedule| schedule.score)
    }

    pub(super) fn take_if_better(&mut self, order: &Order) {
        let limit = self.best.score;
        let played = Schedule::play(&self.problem, &mut self.films, order, Some(&limit));
        if let Some(schedule) = played.filter(|s| s.score.beats(&limit)) {
            self.best = schedule;
            self.order = order.clone();
        }
    }

    /// Its plan, and what that hangs on.
    pub(super) fn stands(&self) -> Stands {
        (self.best.clone(), self.order.clone(), self.problem.held_back())
    }

    /// Looks anew for what waits on purpose in the order that was found, so that whoever begins with it comes to this
    /// very plan; the plan `before` is kept where that is the better one.
    pub(super) fn settle(&mut self, before: Stands) {
        // A search that was given up keeps what it has.
        if self.order == before.1 || cancel::current().is_cancelled() {
            return;
        }
        self.films.judged = Judged::Films;
        self.problem.hold_back(&[]);
        if let Some(plain) = Schedule::play(&self.problem, &mut self.films, &self.order, None) {
            self.best = hold_back(&mut self.problem, &mut self.films, &self.order, plain);
        }
        if before.0.score.beats(&self.best.score) {
            (self.best, self.order) = (before.0, before.1);
            self.problem.hold_back(&before.2);
        }
    }
}

/// The order of work `turns` for `new`: steps that are still there stay in their order, others
/// come right after the step before them in their picture.
pub(super) fn carried(turns: &[OrderEntry], new: &Problem<'_>) -> Order {
    let pictures: Vec<usize> = (0..new.tasks.len()).collect();
    let fresh = Order::by_picture(new, &pictures);
    let known: HashMap<(&str, &str), usize> =
        turns.iter().enumerate().map(|(n, t)| ((t.picture.as_str(), t.step.as_str()), n)).collect();
    let rank = |p: usize, i: usize| {
        let picture = new.picture(p);
        known.get(&(picture.id.as_str(), picture.steps[i].id.as_str())).copied()
    };
    let mut ranked: Vec<(usize, u32)> = Vec::new();
    for p in pictures {
        let mut at = 0;
        for i in &fresh.inner[p] {
            at = rank(p, *i as usize).map_or(at, |r| r.max(at));
            ranked.push((at, p as u32));
        }
    }
    ranked.sort();
    Order { turns: ranked.into_iter().map(|(_, p)| p).collect(), inner: fresh.inner }
}

/// The plan at once: of what can start first and the studio's own order of work, the better.
pub fn plan(request: Request<'_>) -> Plan {
    Planner::new(request).plan()
}
