//! The painter's free time while a plan is being made. Times are seconds of the Unix epoch.

use super::Blocked;
use super::task::{Bench, Task};
use crate::studio::{StudioHours, daylight};
use crate::time::{MINUTE_S, whole_instant};

/// Shortest piece of a step that is split [s]: 20 minutes, planning.md.
const SHORTEST_PIECE_S: i64 = 20 * 60;

/// One stretch of hands-on work [s of the epoch].
pub(super) type Stretch = (i64, i64);

#[derive(Debug, Clone, Copy)]
struct Gap {
    from: i64,
    to: i64,
    /// Daylight of that session, when the studio keeps to it.
    light: Stretch,
    /// What was on the bench right before, in the same session.
    bench: Option<Bench>,
}

/// Where a step would go.
#[derive(Debug, Clone, PartialEq, Default)]
pub(super) struct Slot {
    pub sittings: Vec<Stretch>,
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
pub(super) struct Calendar {
    gaps: Vec<Gap>,
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
        let lit = |s: Stretch| match light {
            None => s,
            Some(place) => {
                let (rise, fall) = place.light_of(hours.day(whole_instant(s.0)));
                (s.0.max(rise), s.1.min(fall))
            }
        };
        let whole = |from: i64| {
            hours.sessions(whole_instant(from), whole_instant(to)).into_iter().map(|s| {
                let s = (s.from.timestamp(), s.to.timestamp());
                Gap { from: s.0, to: s.1, light: lit(s), bench: None }
            })
        };
        let longest = whole(from - 14 * 86_400).fold((0, 0), |(a, b), gap| {
            (a.max(gap.to - gap.from), b.max(gap.light.1 - gap.light.0))
        });
        Self { gaps: whole(from).collect(), longest, set_up }
    }

    /// The first place for `task` not before `ready`.
    pub fn find(&self, ready: i64, task: &Task) -> Result<Slot, Blocked> {
        let needed = task.hands_on;
        let shortest = if task.splittable { needed.min(SHORTEST_PIECE_S) } else { needed };
        let mut left = needed;
        let mut slot = Slot::default();
        let first = self.gaps.partition_point(|gap| gap.to < ready);
        for gap in &self.gaps[first..] {
            let set_up = self.set_up_in(gap, task.bench);
            let mut from = ready.max(gap.from + set_up);
            let mut to = gap.to;
            if task.by_daylight {
                from = from.max(gap.light.0);
                to = to.min(gap.light.1);
            }
            let room = to - from;
            if room < shortest.min(left) || room < 0 {
                continue;
            }
            let mut piece = room.min(left);
            if piece < left {
                // What remains must itself be a piece that is long enough.
                piece = piece.min(left - shortest);
                if piece < shortest {
                    continue;
                }
            }
            slot.sittings.push((from, from + piece));
            slot.set_ups += u32::from(set_up > 0);
            left -= piece;
            if left <= 0 {
                return Ok(slot);
            }
        }
        let longest = if task.by_daylight { self.longest.1 } else { self.longest.0 };
        let at_once = shortest + self.set_up;
        Err(match longest {
            _ if self.longest.0 == 0 => Blocked::NoHours,
            longest if task.by_daylight && shortest > longest => Blocked::TooLittleDaylight {
                needed: shortest as f64 / 60.0,
                longest: longest as f64 / MINUTE_S,
            },
            longest if !task.by_daylight && at_once > longest => Blocked::TooLong {
                needed: at_once as f64 / MINUTE_S,
                longest: longest as f64 / MINUTE_S,
            },
            _ => Blocked::NoHours,
        })
    }

    /// Takes the slot out of the free time.
    pub fn take(&mut self, slot: &Slot, bench: Bench) {
        for sitting in &slot.sittings {
            let i = self.gaps.partition_point(|g| g.to < sitting.1);
            let Some(gap) = self.gaps.get(i).copied().filter(|g| g.from <= sitting.0) else {
                continue;
            };
            let set_up = self.set_up_in(&gap, bench);
            let after = Gap { from: sitting.1, bench: Some(bench), ..gap };
            let before = Gap { to: sitting.0 - set_up, ..gap };
            // Idle time before work that goes on without set-up stays idle: anything put there
            // would make that set-up necessary.
            let keeps_bench = before.bench.is_some_and(|b| b.serves(bench));
            let kept = (before.to > before.from && !keeps_bench).then_some(before);
            self.gaps
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
        self.gaps = self.gaps.iter().flat_map(cut).collect();
    }

    /// The free stretches, for the bound: (from, to) in order.
    pub fn free(&self) -> impl Iterator<Item = Stretch> + '_ {
        self.gaps.iter().map(|g| (g.from, g.to))
    }

    fn set_up_in(&self, gap: &Gap, bench: Bench) -> i64 {
        match gap.bench {
            Some(before) if before.serves(bench) => 0,
            _ => self.set_up,
        }
    }
}
