//! The painter's free time while a plan is being made.

use super::{Blocked, Sitting};
use crate::studio::{Session, StudioHours};
use chrono::{DateTime, Duration, Utc};

/// Shortest piece of a step that is split [min], planning.md.
const SHORTEST_PIECE_MIN: i64 = 20;

/// What was last on the bench: picture and mix. Work on the same needs no new set-up.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Bench {
    pub picture: usize,
    pub mix: Vec<(String, f64)>,
}

impl Bench {
    /// Whether `next` can go on without a set-up: the same mix, or the same picture without one.
    fn serves(&self, next: &Bench) -> bool {
        self.mix == next.mix && (!self.mix.is_empty() || self.picture == next.picture)
    }
}

#[derive(Debug, Clone)]
struct Gap {
    from: DateTime<Utc>,
    to: DateTime<Utc>,
    /// What was on the bench right before, in the same session.
    bench: Option<Bench>,
}

/// Where a step would go.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Slot {
    pub sittings: Vec<Sitting>,
    pub set_ups: u32,
}

/// Free time, as gaps in sessions.
#[derive(Debug, Clone)]
pub(super) struct Calendar {
    gaps: Vec<Gap>,
    longest: Duration,
    set_up: Duration,
}

impl Calendar {
    pub fn new(
        hours: &StudioHours,
        from: DateTime<Utc>,
        to: DateTime<Utc>,
        set_up_min: f64,
    ) -> Self {
        let whole = hours.sessions(from - Duration::days(14), to);
        let longest = whole.iter().map(|s| s.to - s.from).max().unwrap_or_default();
        let gaps = hours
            .sessions(from, to)
            .into_iter()
            .map(|Session { from, to }| Gap { from, to, bench: None })
            .collect();
        Self { gaps, longest, set_up: minutes(set_up_min) }
    }

    /// The first place for `hands_on_min` of work not before `ready`.
    pub fn find(
        &self,
        ready: DateTime<Utc>,
        hands_on_min: f64,
        splittable: bool,
        bench: &Bench,
    ) -> Result<Slot, Blocked> {
        let needed = minutes(hands_on_min);
        let shortest =
            if splittable { needed.min(Duration::minutes(SHORTEST_PIECE_MIN)) } else { needed };
        let mut left = needed;
        let mut slot = Slot { sittings: Vec::new(), set_ups: 0 };
        let first = self.gaps.partition_point(|gap| gap.to < ready);
        for gap in &self.gaps[first..] {
            let set_up = self.set_up_in(gap, bench);
            let from = ready.max(gap.from + set_up);
            let room = gap.to - from;
            if room < shortest.min(left) || room < Duration::zero() {
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
            slot.sittings.push(Sitting { from, to: from + piece });
            slot.set_ups += u32::from(set_up > Duration::zero());
            left -= piece;
            if left <= Duration::zero() {
                return Ok(slot);
            }
        }
        if self.longest == Duration::zero() {
            return Err(Blocked::NoHours);
        }
        let at_once = shortest + self.set_up;
        if at_once > self.longest {
            return Err(Blocked::TooLong {
                needed: at_once.num_seconds() as f64 / 60.0,
                longest: self.longest.num_seconds() as f64 / 60.0,
            });
        }
        Err(Blocked::NoHours)
    }

    /// Takes the slot out of the free time.
    pub fn take(&mut self, slot: &Slot, bench: &Bench) {
        for sitting in &slot.sittings {
            let Some(i) =
                self.gaps.iter().position(|g| g.from <= sitting.from && sitting.to <= g.to)
            else {
                continue;
            };
            let gap = self.gaps[i].clone();
            let set_up = self.set_up_in(&gap, bench);
            let after = Gap { from: sitting.to, to: gap.to, bench: Some(bench.clone()) };
            let before = Gap { from: gap.from, to: sitting.from - set_up, bench: gap.bench };
            // Idle time before work that goes on without set-up stays idle: anything put there
            // would make that set-up necessary.
            let keeps_bench = before.bench.as_ref().is_some_and(|b| b.serves(bench));
            let kept = (before.to > before.from && !keeps_bench).then_some(before);
            self.gaps
                .splice(i..=i, kept.into_iter().chain((after.to > after.from).then_some(after)));
        }
    }

    fn set_up_in(&self, gap: &Gap, bench: &Bench) -> Duration {
        match &gap.bench {
            Some(before) if before.serves(bench) => Duration::zero(),
            _ => self.set_up,
        }
    }
}

/// Minutes as a duration, to the second.
pub(super) fn minutes(min: f64) -> Duration {
    Duration::seconds((min * 60.0).round() as i64)
}
