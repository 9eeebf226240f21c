//! What becomes of the times that a painter pins steps to.

use crate::readiness::{Calendar, Pinned, Stretch, Task, pinned};
use crate::studio::Studio;

/// What became of a pinned time.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Pin {
    /// The step is done then.
    Kept,
    /// It is done then, outside the studio's hours.
    OutsideHours,
    /// It is done then, without the daylight that the studio keeps to.
    InTheDark,
    /// It is not: another step is pinned to that time (picture and step).
    Shared(usize, usize),
    /// It is not: it may not be done yet then, or no longer lies ahead.
    NotThen,
}

impl Pin {
    /// What is to be said of it; `None` where it is kept and nothing is odd about it.
    pub fn said(&self, studio: &Studio) -> Option<String> {
        match self {
            Self::Kept => None,
            Self::OutsideHours => Some("Pinned outside your hours".into()),
            Self::InTheDark => Some("Pinned to a time without daylight".into()),
            Self::Shared(p, i) => {
                let picture = &studio.pictures[*p];
                let (step, title) = (picture.steps[*i].called(), &picture.title);
                Some(format!("Not when it is pinned: {step} of {title} is pinned to that time"))
            }
            Self::NotThen => Some("Not when it is pinned: it may not be done yet then".into()),
        }
    }
}

/// A step that is pinned: its picture and number.
type At = (usize, usize);

/// Which pins can be kept beside each other, the earlier first, and what they are.
#[derive(Debug, Clone, Default)]
pub(super) struct Pins(Vec<(At, Stretch, Pin)>);

impl Pins {
    /// Looks over the pinned times of `studio` from `from` on; one that shares time with another is taken from
    /// its task.
    pub fn of(
        studio: &Studio,
        tasks: &mut [Vec<Option<Task>>],
        (calendar, from): (&Calendar, i64),
    ) -> Self {
        let mut kept: Vec<(At, Stretch, Pin)> = Vec::new();
        for Pinned { at: (p, i), stretch, shares } in pinned(studio, from) {
            let Some(task) = &mut tasks[p][i] else { continue };
            let pin = match shares {
                Some((q, k)) => {
                    task.pinned = None;
                    Pin::Shared(q, k)
                }
                None if !calendar.is_open(stretch) => Pin::OutsideHours,
                None if task.by_daylight && !calendar.is_light(stretch) => Pin::InTheDark,
                None => Pin::Kept,
            };
            kept.push(((p, i), stretch, pin));
        }
        Self(kept)
    }

    /// Stretches that are kept free for pinned work.
    pub fn reserved(&self) -> impl Iterator<Item = Stretch> + '_ {
        self.0.iter().filter(|(.., pin)| !matches!(pin, Pin::Shared(..))).map(|(_, s, _)| *s)
    }

    /// When the step is not to be done before, because it was pinned to a time that it cannot have.
    pub fn after(&self, at: At) -> Option<i64> {
        let mine = self.0.iter().find(|(other, ..)| *other == at)?;
        matches!(mine.2, Pin::Shared(..)).then_some(mine.1.0)
    }

    /// What became of the pin of a step that begins at `begins` [s of the epoch].
    pub fn stood(&self, at: At, begins: i64) -> Pin {
        match self.0.iter().find(|(other, ..)| *other == at) {
            Some((_, _, pin @ Pin::Shared(..))) => pin.clone(),
            Some((_, stretch, pin)) if stretch.0 == begins => pin.clone(),
            _ => Pin::NotThen,
        }
    }
}
