//! The painter's free time while a plan is being made. Times are seconds of the Unix epoch.

use super::blocked::Blocked;
use super::task::{Bench, Task};
use crate::studio::{Session, StudioHours, daylight};
use crate::time::{MINUTE_S, Stretch, whole_instant};
use std::sync::Arc;

/// Shortest piece of a step that is split [s]: 20 minutes, docs/planning.md.
const SHORTEST_PIECE_S: i64 = 20 * 60;

#[derive(Debug, Clone, Copy)]
struct Gap {
    from: i64,
    to: i64,
    /// What was on the bench right before, in the same session.
    bench: Option<Bench>,
}

/// Room for a piece of work in a gap [s of the epoch].
#[derive(Debug, Clone, Copy)]
struct Room {
    from: i64,
    to: i64,
    /// Whether a set-up comes before it.
    set_up: bool,
}

impl Room {
    const fn length(self) -> i64 {
        self.to - self.from
    }
}

/// Where a step would go.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Slot {
    /// Its sittings, in order.
    pub sittings: Vec<Stretch>,
    /// Changes of picture or mix that it takes.
    pub set_ups: u32,
}

impl Slot {
    /// Start of the first sitting.
    pub fn from(&self) -> i64 {
        self.sittings.first().map_or(i64::MAX, |s| s.0)
    }

    /// End of the last sitting.
    pub fn to(&self) -> i64 {
        self.sittings.last().map_or(i64::MAX, |s| s.1)
    }
}

/// Free time, as gaps in sessions.
#[derive(Debug, Clone)]
pub struct Calendar {
    /// Gaps in order up to somewhere behind the last work.
    near: Vec<Gap>,
    /// All gaps as they were before any work was placed; from `untouched` on they come after the near ones. Copies
    /// of the calendar, of which a search makes many, share them.
    all: Arc<[Gap]>,
    untouched: usize,
    /// Daylight of the days ahead, when the studio keeps to it.
    light: Arc<[Stretch]>,
    /// Longest session, and the longest stretch of daylight in one [s].
    longest: (i64, i64),
    set_up: i64,
}

impl Calendar {
    /// The free time of `hours` from `from` to `to`, with `set_up` [s] for a change of work.
    pub fn new(
        hours: &StudioHours,
        light: Option<daylight::Place>,
        (from, to): Stretch,
        set_up: i64,
    ) -> Self {
        let whole = |from: i64| {
            let sessions = hours.sessions(whole_instant(from), whole_instant(to)).into_iter();
            let stretch = |s: Session| (s.from.timestamp(), s.to.timestamp());
            sessions.map(stretch).map(|(from, to)| Gap { from, to, bench: None })
        };
        let usual: Vec<Gap> = whole(from - 14 * 86_400).collect();
        let mut days: Vec<Stretch> = Vec::new();
        if let Some(place) = light {
            for gap in &usual {
                let mut day = hours.day(whole_instant(gap.from));
                while day <= hours.day(whole_instant(gap.to)) {
                    days.push(place.light_of(day));
                    let Some(next) = day.succ_opt() else { break };
                    day = next;
                }
            }
            days.sort_unstable();
            days.dedup();
        }
        let (near, all) = (Vec::new(), whole(from).collect());
        let found = Self { near, all, untouched: 0, light: days.into(), longest: (0, 0), set_up };
        let most = |by_daylight: bool| {
            let rooms = usual.iter().flat_map(|gap| found.rooms(gap, i64::MIN, (0, by_daylight)));
            rooms.map(Room::length).max().unwrap_or(0)
        };
        let longest = (most(false), if light.is_some() { most(true) } else { 0 });
        Self { longest, ..found }
    }

    /// Takes out the sessions that do not happen, those for which `missed` says so, in order of time.
    pub fn without(&mut self, mut missed: impl FnMut() -> bool) {
        self.set(self.gaps().filter(|_| !missed()).copied().collect());
    }

    /// Where in `gap` one could work, not before `ready`, after a set-up of `set_up` [s].
    fn rooms(
        &self,
        gap: &Gap,
        ready: i64,
        (set_up, by_daylight): (i64, bool),
    ) -> impl Iterator<Item = Room> + '_ {
        let (from, to) = (ready.max(gap.from + set_up), gap.to);
        let days: &[Stretch] = if by_daylight {
            &self.light[self.light.partition_point(|(_, fall)| *fall <= from)..]
        } else {
            &[(i64::MIN, i64::MAX)]
        };
        let in_day = move |(rise, fall): &Stretch| Room {
            from: from.max(*rise),
            to: to.min(*fall),
            set_up: set_up > 0,
        };
        let near = days.iter().take_while(move |(rise, _)| *rise < to);
        near.map(in_day).filter(|room| room.to >= room.from)
    }

    /// The first place for `task` not before `ready`.
    ///
    /// # Errors
    /// [`Blocked`] when there is none.
    pub fn find(&self, ready: i64, task: &Task) -> Result<Slot, Blocked> {
        let needed = task.hands_on;
        let shortest = if task.splittable { needed.min(SHORTEST_PIECE_S) } else { needed };
        let most = usize::try_from(needed / shortest.max(1)).unwrap_or(1);
        let mut rooms: Vec<Room> = Vec::new();
        for gap in self.gaps_from(ready) {
            let set_up = self.set_up_in(gap, task.bench);
            for room in self.rooms(gap, ready, (set_up, task.by_daylight)) {
                if room.length() < shortest {
                    continue;
                }
                if most <= 1 && room.length() >= needed {
                    let sittings = vec![(room.from, room.from + needed)];
                    return Ok(Slot { sittings, set_ups: u32::from(room.set_up) });
                }
                if let Some(slot) = pieces(&rooms, room, (needed, shortest)) {
                    return Ok(slot);
                }
                rooms.push(room);
                if rooms.len() > most {
                    // Of more rooms than there can be pieces the shortest is never used.
                    let least = (0..rooms.len()).rev().min_by_key(|n| rooms[*n].length());
                    least.map(|n| rooms.remove(n));
                }
            }
        }
        Err(self.nowhere(task, shortest))
    }

    /// Why there is no place for `task`, whose shortest piece is `shortest` [s].
    fn nowhere(&self, task: &Task, shortest: i64) -> Blocked {
        let longest = if task.by_daylight { self.longest.1 } else { self.longest.0 };
        let at_once = shortest + self.set_up;
        let minutes = |s: i64| s as f64 / MINUTE_S;
        match longest {
            _ if self.longest.0 == 0 => Blocked::NoHours,
            longest if task.by_daylight && shortest > longest => {
                Blocked::TooLittleDaylight { needed: minutes(shortest), longest: minutes(longest) }
            }
            longest if !task.by_daylight && at_once > longest => {
                Blocked::TooLong { needed: minutes(at_once), longest: minutes(longest) }
            }
            _ => Blocked::NoHours,
        }
    }

    /// Takes the slot out of the free time.
    pub fn take(&mut self, slot: &Slot, bench: Bench) {
        for sitting in &slot.sittings {
            // Gaps up to the sitting come near.
            let reached = self.far().partition_point(|g| g.to < sitting.1) + 1;
            if self.near.last().is_none_or(|g| g.to < sitting.1) && reached <= self.far().len() {
                let all = Arc::clone(&self.all);
                self.near.extend_from_slice(&all[self.untouched..self.untouched + reached]);
                self.untouched += reached;
            }
            let i = self.near.partition_point(|g| g.to < sitting.1);
            let Some(gap) = self.near.get(i).copied().filter(|g| g.from <= sitting.0) else {
                continue;
            };
            let set_up = self.set_up_in(&gap, bench);
            let after = Gap { from: sitting.1, bench: Some(bench), ..gap };
            let before = Gap { to: sitting.0 - set_up, ..gap };
            // Idle time before work that goes on without set-up stays idle: anything put there
            // would make that set-up necessary.
            let keeps_bench = before.bench.is_some_and(|b| b.serves(bench));
            let kept = (before.to > before.from && !keeps_bench).then_some(before);
            self.near
                .splice(i..=i, kept.into_iter().chain((after.to > after.from).then_some(after)));
        }
    }

    /// Keeps `stretch`, with a set-up before it, free of everything else.
    pub fn reserve(&mut self, stretch: Stretch) {
        let (from, to) = (stretch.0 - self.set_up, stretch.1);
        let cut = |gap: &Gap| {
            let parts =
                [Gap { to: gap.to.min(from), ..*gap }, Gap { from: gap.from.max(to), ..*gap }];
            parts.into_iter().filter(|g| g.to > g.from)
        };
        self.set(self.gaps().flat_map(cut).collect());
    }

    /// The free stretches, for the bound: (from, to) in order.
    pub fn free(&self) -> impl Iterator<Item = Stretch> + '_ {
        self.gaps().map(|g| (g.from, g.to))
    }

    /// Whether `stretch` lies within one session.
    pub fn is_open(&self, stretch: Stretch) -> bool {
        self.gaps_from(stretch.1).next().is_some_and(|g| g.from <= stretch.0)
    }

    /// Whether `stretch` lies in the light of one day; always, where nobody keeps to daylight.
    pub fn is_light(&self, stretch: Stretch) -> bool {
        let i = self.light.partition_point(|(_, fall)| *fall < stretch.1);
        self.light.is_empty() || self.light.get(i).is_some_and(|(rise, _)| *rise <= stretch.0)
    }

    /// These gaps, and no work placed yet.
    fn set(&mut self, gaps: Vec<Gap>) {
        self.near.clear();
        self.all = gaps.into();
        self.untouched = 0;
    }

    /// The gaps after the near ones.
    fn far(&self) -> &[Gap] {
        &self.all[self.untouched..]
    }

    fn gaps(&self) -> impl Iterator<Item = &Gap> {
        self.near.iter().chain(self.far())
    }

    /// The gaps that do not end before `ready`.
    fn gaps_from(&self, ready: i64) -> impl Iterator<Item = &Gap> {
        let from = |gaps: &[Gap]| gaps.partition_point(|gap| gap.to < ready);
        self.near[from(&self.near)..].iter().chain(&self.far()[from(self.far())..])
    }

    fn set_up_in(&self, gap: &Gap, bench: Bench) -> i64 {
        match gap.bench {
            Some(before) if before.serves(bench) => 0,
            _ => self.set_up,
        }
    }
}

/// `needed` [s] of work in pieces of at least `shortest`, the last of them in `last`, the others in
/// some of `earlier`; `None` when it does not fit. It ends as soon as it can, in as few pieces as
/// that takes, each as long as the rest allows.
fn pieces(earlier: &[Room], last: Room, (needed, shortest): (i64, i64)) -> Option<Slot> {
    let mut longest: Vec<usize> = (0..earlier.len()).collect();
    longest.sort_by_key(|n| std::cmp::Reverse(earlier[*n].length()));
    let most = usize::try_from(needed / shortest.max(1)).unwrap_or(1).max(1) - 1;
    let mut before = 0;
    let mut best: Option<(i64, usize)> = None;
    // With n rooms, anything from n shortest pieces to all their time can be worked.
    for n in 0..=most.min(earlier.len()) {
        before += if n > 0 { earlier[longest[n - 1]].length() } else { 0 };
        let end = (needed - before).max(shortest);
        if end <= last.length() && best.is_none_or(|(known, _)| end < known) {
            best = Some((end, n));
        }
    }
    let (end, n) = best?;
    let mut taken: Vec<usize> = longest[..n].to_vec();
    taken.sort_unstable();
    let mut left = needed - end;
    let mut slot = Slot::default();
    let mut sit = |room: Room, piece: i64| {
        slot.sittings.push((room.from, room.from + piece));
        slot.set_ups += u32::from(room.set_up);
    };
    for (k, t) in taken.into_iter().enumerate() {
        // What comes between keeps its shortest pieces.
        let piece = earlier[t].length().min(left - (n - k - 1) as i64 * shortest);
        sit(earlier[t], piece);
        left -= piece;
    }
    sit(last, end);
    Some(slot)
}

#[cfg(test)]
mod tests {
    use super::super::fit_air::AirWanted;
    use super::*;
    use crate::studio::OpenHours;
    use chrono::{NaiveTime, Weekday};

    const MON: i64 = 1_798_416_000; // 2026-12-28T00:00:00Z, a Monday

    fn every_day(from: (u32, u32), to: (u32, u32), light: Option<daylight::Place>) -> Calendar {
        let time = |(h, m)| NaiveTime::from_hms_opt(h, m, 0).unwrap();
        let days = (0..7).map(|n| OpenHours {
            day: Weekday::try_from(n).unwrap(),
            from: time(from),
            to: time(to),
        });
        let hours = StudioHours::try_new(chrono_tz::UTC, days.collect(), vec![]).unwrap();
        Calendar::new(&hours, light, (MON, MON + 30 * 86_400), 600)
    }

    fn minutes(slot: &Slot) -> Vec<i64> {
        slot.sittings.iter().map(|(from, to)| (to - from) / 60).collect()
    }

    fn task(minutes: i64, splittable: bool) -> Task {
        Task {
            hands_on: minutes * 60,
            splittable,
            bench: Bench { picture: 0, mix: 1 },
            air: AirWanted::Any,
            lays: true,
            seals: false,
            by_daylight: false,
            last_good: None,
            pinned: None,
            held_back: 0,
            own_set_up: true,
            refused: None,
            below: vec![],
        }
    }

    #[test]
    fn work_is_cut_so_that_no_piece_is_left_too_short() {
        // docs/planning.md: 65 minutes in sessions of 40 (ten of them set-up) are 25 + 20 + 20.
        let calendar = every_day((10, 0), (10, 40), None);
        let cut = |m| calendar.find(MON, &task(m, true)).map(|slot| minutes(&slot));
        assert_eq!(cut(65), Ok(vec![25, 20, 20]));
        assert_eq!(cut(95), Ok(vec![30, 25, 20, 20]));
        assert_eq!(cut(60), Ok(vec![30, 30]));
        assert_eq!(cut(25), Ok(vec![25]));
        // 35 minutes are too long for one session and too short for two.
        assert!(cut(35).is_err());
        assert!(matches!(
            calendar.find(MON, &task(35, false)),
            Err(Blocked::TooLong { longest, .. }) if longest == 40.0
        ));
    }

    #[test]
    fn work_near_and_far_is_taken_out_of_the_same_gaps() {
        let mut calendar = every_day((9, 0), (17, 0), None);
        let mut near = calendar.clone();
        near.near = near.all.to_vec();
        near.untouched = near.near.len();
        // Days in no order, some of them filled to the end, some from the end on.
        for n in 0..90_i64 {
            let ready = MON + n * 11 % 28 * 86_400 + n * 7 % 17 * 3600;
            let task = task(20 + n * 13 % 9 * 35, n % 3 == 0);
            let slot = calendar.find(ready, &task);
            assert_eq!(slot, near.find(ready, &task), "work {n}");
            let Ok(slot) = slot else { continue };
            for of in [&mut calendar, &mut near] {
                of.take(&slot, Bench { picture: n as u32 % 4, mix: n as u32 % 2 });
            }
            assert!(calendar.free().eq(near.free()), "after work {n}");
        }
        let (near, all) = (calendar.near.len(), calendar.all.len());
        assert!(
            near > 20 && calendar.untouched > 20,
            "{near} near of {all}, {}",
            calendar.untouched
        );
    }

    #[test]
    fn one_session_of_many_days_has_a_stretch_of_light_in_each() {
        // At the equator the sun is up from about six to six.
        let place = daylight::Place::try_new(0.0, 0.0).unwrap();
        let time = NaiveTime::MIN;
        let days = (0..7).map(|n| OpenHours {
            day: Weekday::try_from(n).unwrap(),
            from: time,
            to: crate::studio::MIDNIGHT,
        });
        let hours = StudioHours::try_new(chrono_tz::UTC, days.collect(), vec![]).unwrap();
        let calendar = Calendar::new(&hours, Some(place), (MON, MON + 30 * 86_400), 600);
        let by_light = Task { by_daylight: true, ..task(300, false) };
        let late = MON + 15 * 3600;
        let slot = calendar.find(late, &by_light).unwrap();
        assert!((MON + 29 * 3600..MON + 31 * 3600).contains(&slot.from()), "next morning");
        assert_eq!(calendar.find(late, &task(300, false)).unwrap().from(), late);
    }
}
