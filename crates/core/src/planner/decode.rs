//! From an order of work to times: each turn takes the first place that is free and not too early.

use super::films::Films;
use super::played::{Judged, Played};
use super::problem::{Known, Problem};
use super::score::Score;
use crate::cancel::give_up_if_cancelled;
use crate::film::HORIZON_S;
use crate::readiness::{Blocked, Calendar, Found, Ready, Slot, Stretch, Task, Wait, first_place};
use crate::time::{full_minute, whole_seconds};
use std::cmp::{Ordering, Reverse};
use std::collections::BinaryHeap;

/// Whose turn it is, one entry for each step still to do, and in which order each picture's come.
#[derive(Debug, Clone, PartialEq, Eq, Default)]
pub struct Order {
    pub(super) turns: Vec<u32>,
    pub(super) inner: Vec<Vec<u32>>,
}

/// A step in its place.
#[derive(Debug, Clone)]
pub(super) struct Placed {
    pub picture: usize,
    pub step: usize,
    pub slot: Slot,
    pub wait: Option<Wait>,
    pub holds: Option<Stretch>,
}

/// One picture on its way.
#[derive(Debug, Clone)]
pub(super) struct PictureProgress {
    pub film: Option<Played>,
    /// Which of the inner order is next.
    pub next: usize,
    /// Steps done, in this plan or before.
    done: Vec<bool>,
    /// End of the last step placed [s of the epoch].
    pub end: i64,
    /// When it is ready, once its last step is placed [s of the epoch]; nothing when it never is.
    pub ready: Option<i64>,
}

/// What a place for a step is looked for with.
struct PlaceQuery<'a> {
    task: &'a Task,
    film: &'a Played,
    /// Not before [s of the epoch].
    from: i64,
    ready: Ready,
}

/// What a picture offers to do next, by how many steps were taken when that was looked at.
enum Offer {
    /// It starts then [s of the epoch] or later.
    AtLeast(i64, Option<usize>),
    /// It is done in this place.
    Found(Placed, usize),
}

impl Offer {
    /// When it starts at the earliest [s of the epoch].
    fn from(&self) -> i64 {
        match self {
            Self::AtLeast(from, _) => *from,
            Self::Found(placed, _) => placed.slot.from(),
        }
    }
}

/// A plan as far as it is made.
#[derive(Debug, Clone)]
pub(super) struct Schedule {
    calendar: Calendar,
    pub progress: Vec<PictureProgress>,
    held: Vec<Stretch>,
    /// What was placed, where it was judged by films.
    pub placed: Vec<Placed>,
    pub blocked: Vec<(usize, usize, Blocked)>,
    pub score: Score,
}

impl Schedule {
    /// Nothing placed yet.
    pub fn new(problem: &Problem<'_>, films: &Films) -> Self {
        let mut schedule = Self {
            calendar: problem.calendar.clone(),
            progress: Vec::new(),
            held: films.held().collect(),
            placed: Vec::new(),
            blocked: Vec::new(),
            score: Score::default(),
        };
        for (p, tasks) in problem.tasks.iter().enumerate() {
            let film = films.root(p);
            let done = tasks.iter().map(Option::is_none).collect();
            let progress =
                PictureProgress { film: None, next: 0, done, end: problem.from, ready: None };
            schedule.progress.push(progress);
            match film {
                Ok(film) => schedule.progress[p].film = Some(film),
                Err((step, why)) => schedule.block(p, step, why),
            }
        }
        schedule
    }

    /// Gives up picture `p` at `step`.
    pub fn block(&mut self, p: usize, step: usize, why: Blocked) {
        self.progress[p].film = None;
        self.score.blocked += 1;
        self.blocked.push((p, step, why));
    }

    /// Steps of picture `p` that nothing stands in the way of but time.
    pub fn open(&self, problem: &Problem<'_>, p: usize) -> Vec<usize> {
        let progress = &self.progress[p];
        if progress.film.is_none() {
            return Vec::new();
        }
        let open = |i: &usize| {
            !progress.done[*i]
                && problem.task(p, *i).is_some_and(|t| t.below.iter().all(|b| progress.done[*b]))
        };
        (0..progress.done.len()).filter(open).collect()
    }

    /// Whether `placed` would still be found where it is.
    pub fn still_free(&self, problem: &Problem<'_>, placed: &Placed) -> bool {
        let Some(task) = problem.task(placed.picture, placed.step) else { return false };
        let airy = problem.air.always(task.air);
        if placed.holds.is_some() || task.pinned.is_some() || !airy {
            return false;
        }
        let until = placed.wait.as_ref().map_or(problem.from, |w| whole_seconds(w.until));
        let ready = full_minute(until.max(self.progress[placed.picture].end));
        self.calendar.find(ready, task).is_ok_and(|slot| slot == placed.slot)
    }

    /// The first place for a step; wet sealing coats also need a flat place until touch-dry.
    pub fn place(
        &self,
        problem: &Problem<'_>,
        films: &mut Films,
        (p, i): (usize, usize),
    ) -> Result<Placed, Blocked> {
        let asked = self.asked(problem, films, (p, i))?;
        let around = problem.around(&self.calendar, &self.held);
        let wet = |end, state| films.wet(problem, asked.film, ((p, i), end), state);
        let found = first_place(asked.task, &around, (asked.from, asked.ready), wet)?;
        let Found { slot, wait, holds } = found;
        Ok(Placed { picture: p, step: i, slot, wait, holds })
    }

    /// When a step starts at the earliest [s of the epoch], which is not before `known`: as if its coat dried at once,
    /// so that no film is followed.
    fn place_at_the_earliest(
        &self,
        problem: &Problem<'_>,
        films: &mut Films,
        (p, i): (usize, usize),
        known: i64,
    ) -> Result<i64, Blocked> {
        let mut asked = self.asked(problem, films, (p, i))?;
        if asked.task.pinned.is_none() {
            asked.from = asked.from.max(known);
        }
        let around = problem.around(&self.calendar, &self.held);
        let dry_at_once = |end, _| Ok(Some(end));
        let found = first_place(asked.task, &around, (asked.from, asked.ready), dry_at_once)?;
        Ok(found.slot.from())
    }

    /// What a place for a step is looked for with.
    fn asked<'a>(
        &'a self,
        problem: &'a Problem<'_>,
        films: &mut Films,
        (p, i): (usize, usize),
    ) -> Result<PlaceQuery<'a>, Blocked> {
        let progress = &self.progress[p];
        let (Some(task), Some(film)) = (problem.task(p, i), &progress.film) else {
            return Err(Blocked::Below);
        };
        if !task.below.iter().all(|b| progress.done[*b]) {
            return Err(Blocked::Below);
        }
        if let Some(why) = &task.refused {
            return Err(why.clone());
        }
        let mut ready = films.ready(problem, film, (p, i))?;
        if task.held_back > 0 && films.judged != Judged::Floors {
            let could = ready.at.unwrap_or(progress.end).max(progress.end);
            ready.waits_on_purpose(could + task.held_back);
        }
        // One picture has one film: its steps are done in the order they are placed.
        let pinned = problem.pins.after((p, i)).unwrap_or(progress.end);
        let from = ready.at.unwrap_or(progress.end).max(progress.end).max(pinned);
        Ok(PlaceQuery { task, film, from, ready })
    }

    /// Takes the place, and goes on to the film after it.
    pub fn take(&mut self, problem: &Problem<'_>, films: &mut Films, placed: Placed) {
        let Placed { picture: p, step: i, .. } = placed;
        let Some(task) = problem.task(p, i) else { return };
        self.calendar.take(&placed.slot, task.bench);
        self.held.extend(placed.holds);
        self.score.set_ups += placed.slot.set_ups;
        let end = placed.slot.to();
        self.score.past_tubs += u32::from(task.last_good.is_some_and(|good| end > good));
        let progress = &mut self.progress[p];
        progress.done[i] = true;
        progress.next += 1;
        progress.end = end;
        let last = progress.done.iter().all(|done| *done);
        let wraps = problem.wraps(p);
        let went: Known<Option<i64>> = match &mut progress.film {
            // What becomes of a finished picture's film changes no plan, but for the day it is safe to wrap.
            Some(film) if !last || wraps => {
                films.go_on(problem, film, (p, i), end).and_then(|()| {
                    if last { films.safe(problem, film, (p, end)) } else { Ok(None) }
                })
            }
            _ => Ok(last.then_some(end)),
        };
        if matches!(films.judged, Judged::Films | Judged::Floors) {
            self.placed.push(placed);
        }
        let ready = match went {
            Ok(ready) => ready,
            Err((step, why)) => {
                self.block(p, step, why);
                None
            }
        };
        if last {
            self.progress[p].ready = ready;
            // What is never ready counts as the longest that is looked for.
            let ready = ready.unwrap_or(end + HORIZON_S as i64);
            let days = problem.days_late(p, ready) as f64;
            self.score.late += problem.picture(p).weight * days;
            self.score.sum += ready - problem.from;
            films.note_finish(p, ready);
        }
    }

    /// Plays `order` to its end; `None` when it becomes worse than `limit` on the way.
    pub fn play(
        problem: &Problem<'_>,
        films: &mut Films,
        order: &Order,
        limit: Option<&Score>,
    ) -> Option<Self> {
        let mut schedule = Self::new(problem, films);
        let mut turns = order.turns.iter();
        turns
            .all(|turn| schedule.turn(problem, films, (order, *turn as usize), limit))
            .then_some(schedule)
    }

    /// Goes on by the next step of picture `p`, if there is one; false when it is worse than `limit` then.
    pub fn turn(
        &mut self,
        problem: &Problem<'_>,
        films: &mut Films,
        (order, p): (&Order, usize),
        limit: Option<&Score>,
    ) -> bool {
        give_up_if_cancelled();
        let progress = &self.progress[p];
        let Some(i) = order.inner[p].get(progress.next).map(|i| *i as usize) else { return true };
        if progress.film.is_none() {
            return true;
        }
        match self.place(problem, films, (p, i)) {
            Ok(placed) => self.take(problem, films, placed),
            Err(why) => self.block(p, i, why),
        }
        limit.is_none_or(|limit| self.score.compare(limit) != Ordering::Greater)
    }

    /// Plays whatever can start first, to the end: the constructive plan. Taken hours never bring another offer
    /// forward: one is only made anew when it is the first of all, and its film only followed when it is the first
    /// without it too.
    pub fn first_come(problem: &Problem<'_>, films: &mut Films) -> Self {
        let mut schedule = Self::new(problem, films);
        let mut taken = 0;
        let mut offers: Vec<Option<Offer>> =
            (0..schedule.progress.len()).map(|p| schedule.next_offer(problem, p)).collect();
        let due = |p: usize| problem.picture(p).due.unwrap_or(chrono::NaiveDate::MAX);
        let turn = |offer: &Offer, p: usize| Reverse((offer.from(), due(p), p));
        let begun = offers.iter().enumerate();
        let mut first: BinaryHeap<_> =
            begun.filter_map(|(p, offer)| Some(turn(offer.as_ref()?, p))).collect();
        while let Some(Reverse((.., p))) = first.pop() {
            give_up_if_cancelled();
            let before = offers[p].take();
            let known = before.as_ref().map_or(i64::MIN, Offer::from);
            let now = match before {
                Some(Offer::Found(placed, when))
                    if when == taken || schedule.still_free(problem, &placed) =>
                {
                    schedule.take(problem, films, placed);
                    taken += 1;
                    schedule.next_offer(problem, p)
                }
                Some(Offer::AtLeast(_, when)) if when == Some(taken) => {
                    schedule.offer(problem, films, p).map(|found| Offer::Found(found, taken))
                }
                _ => schedule.offer_at_the_earliest(problem, films, p, (known, taken)),
            };
            first.extend(now.as_ref().map(|offer| turn(offer, p)));
            offers[p] = now;
        }
        schedule
    }

    /// The next offer of picture `p`, before it is looked at.
    fn next_offer(&self, problem: &Problem<'_>, p: usize) -> Option<Offer> {
        let open = self.open(problem, p);
        (!open.is_empty()).then_some(Offer::AtLeast(self.progress[p].end, None))
    }

    /// When a step of picture `p` can start at the earliest, which is not before `known`; a step that cannot be placed
    /// blocks it.
    fn offer_at_the_earliest(
        &mut self,
        problem: &Problem<'_>,
        films: &mut Films,
        p: usize,
        (known, taken): (i64, usize),
    ) -> Option<Offer> {
        let mut first = None;
        for i in self.open(problem, p) {
            match self.place_at_the_earliest(problem, films, (p, i), known) {
                Ok(from) => first = Some(first.map_or(from, |other: i64| other.min(from))),
                Err(why) => {
                    self.block(p, i, why);
                    return None;
                }
            }
        }
        first.map(|from| Offer::AtLeast(from, Some(taken)))
    }

    /// The step of picture `p` that can start first, in its place; a step that cannot be placed blocks it.
    fn offer(&mut self, problem: &Problem<'_>, films: &mut Films, p: usize) -> Option<Placed> {
        let mut first: Option<Placed> = None;
        for i in self.open(problem, p) {
            match self.place(problem, films, (p, i)) {
                Ok(found) => {
                    if first.as_ref().is_none_or(|o| found.slot.from() < o.slot.from()) {
                        first = Some(found);
                    }
                }
                Err(why) => {
                    self.block(p, i, why);
                    return None;
                }
            }
        }
        first
    }

    /// The order that this plan was placed in, with what was not placed at the end.
    pub fn order(&self, problem: &Problem<'_>) -> Order {
        let mut order = Order { turns: Vec::new(), inner: vec![Vec::new(); problem.tasks.len()] };
        let mut placed: Vec<&Placed> = self.placed.iter().collect();
        placed.sort_by_key(|p| p.slot.from());
        for at in placed {
            order.turns.push(at.picture as u32);
            order.inner[at.picture].push(at.step as u32);
        }
        for (p, tasks) in problem.tasks.iter().enumerate() {
            for (i, task) in tasks.iter().enumerate() {
                if task.is_some() && !order.inner[p].contains(&(i as u32)) {
                    order.turns.push(p as u32);
                    order.inner[p].push(i as u32);
                }
            }
        }
        order
    }
}

impl Order {
    /// Each picture's steps in an order that keeps what stands on what, pictures one after another.
    pub(super) fn by_picture(problem: &Problem<'_>, pictures: &[usize]) -> Self {
        let mut order = Order { turns: Vec::new(), inner: vec![Vec::new(); problem.tasks.len()] };
        for p in pictures {
            let tasks = &problem.tasks[*p];
            let mut left: Vec<usize> = (0..tasks.len()).filter(|i| tasks[*i].is_some()).collect();
            while !left.is_empty() {
                let free = |i: &usize| {
                    tasks[*i].as_ref().is_some_and(|t| !t.below.iter().any(|b| left.contains(b)))
                };
                // In a circle nothing is free: it is then placed as it comes, and said to be blocked.
                let at = left.iter().position(free).unwrap_or(0);
                order.inner[*p].push(left.remove(at) as u32);
                order.turns.push(*p as u32);
            }
        }
        order
    }

    /// The same steps of each picture, `pictures` begun one after another: the next one `after` so many steps [-] of
    /// the one before, at its pace.
    pub(super) fn staggered(&self, pictures: &[usize], after: f64) -> Self {
        let mut turns: Vec<(f64, u32)> = Vec::with_capacity(self.turns.len());
        for (rank, p) in pictures.iter().enumerate() {
            let begins = after * rank as f64;
            turns.extend((0..self.inner[*p].len()).map(|k| (begins + k as f64, *p as u32)));
        }
        turns.sort_by(|a, b| a.0.total_cmp(&b.0));
        Self { turns: turns.into_iter().map(|(_, p)| p).collect(), inner: self.inner.clone() }
    }

    /// How many turns it has in common with `other` from the first on.
    pub(super) fn same_turns(&self, other: &Self) -> usize {
        if self.inner != other.inner {
            return 0;
        }
        self.turns.iter().zip(&other.turns).take_while(|(a, b)| a == b).count()
    }

    /// Whether the steps of picture `p` keep what stands on what.
    pub(super) fn keeps(&self, problem: &Problem<'_>, p: usize) -> bool {
        let inner = &self.inner[p];
        inner.iter().enumerate().all(|(n, i)| {
            problem
                .task(p, *i as usize)
                .is_some_and(|t| !t.below.iter().any(|b| inner[n + 1..].contains(&(*b as u32))))
        })
    }
}

#[cfg(test)]
mod tests {
    use super::super::beginnings::tests::studio;
    use super::super::known_plan::Planner;
    use super::*;

    /// Every offer made anew with its films after each step, and the first one taken.
    fn first_come_plainly(problem: &Problem<'_>, films: &mut Films) -> Schedule {
        let mut schedule = Schedule::new(problem, films);
        loop {
            let pictures = 0..schedule.progress.len();
            let offers: Vec<Placed> =
                pictures.filter_map(|p| schedule.offer(problem, films, p)).collect();
            let due = |p: usize| problem.picture(p).due.unwrap_or(chrono::NaiveDate::MAX);
            let first =
                offers.into_iter().min_by_key(|o| (o.slot.from(), due(o.picture), o.picture));
            let Some(placed) = first else { return schedule };
            schedule.take(problem, films, placed);
        }
    }

    #[test]
    fn what_can_start_first_is_found_without_following_what_does_not() {
        let (studio, from) = studio();
        let problem = Problem::new(&studio, from);
        let [mut lazy, mut plain] = [Films::new(&studio), Films::new(&studio)];
        let placed = |schedule: Schedule| {
            let at = |p: &Placed| (p.picture, p.step, p.slot.clone(), p.wait.clone(), p.holds);
            schedule.placed.iter().map(at).collect::<Vec<_>>()
        };
        let found = placed(Schedule::first_come(&problem, &mut lazy));
        assert_eq!(found, placed(first_come_plainly(&problem, &mut plain)));
        assert!(lazy.made() < plain.made(), "{} films, plainly {}", lazy.made(), plain.made());
    }

    #[test]
    fn what_lies_along_a_plan_is_kept_when_the_rest_is_cleared() {
        let (studio, from) = studio();
        let mut planner = Planner::new(super::super::Request { studio: &studio, from });
        let order = Order::by_picture(&planner.problem, &[3, 1, 0, 5, 4, 2]);
        planner.judge(&order, Judged::Films, None);
        let plan = planner.plan();
        let made = planner.films.made();
        planner.films.clear_beside(&plan, 0);
        let known = planner.order.clone();
        assert_eq!(planner.judge(&known, Judged::Films, None), Some(planner.best.score));
        assert_eq!(planner.films.made(), made, "nothing along the plan is followed again");
        planner.judge(&order, Judged::Films, None);
        assert!(planner.films.made() > made, "what lay beside it is");
    }

    #[test]
    fn pictures_begin_all_at_once_a_little_after_one_another_or_one_after_the_other() {
        let whole = Order { turns: vec![2, 2, 0, 0, 1, 1], inner: vec![vec![0, 1]; 3] };
        let turns = |after: f64| whole.staggered(&[2, 0, 1], after).turns;
        assert_eq!(turns(0.0), [2, 0, 1, 2, 0, 1]);
        assert_eq!(turns(0.5), [2, 0, 2, 1, 0, 1]);
        assert_eq!(turns(2.0), whole.turns);
    }
}
