//! What was learned, in sentences.

use super::{Account, Learned, OF_80, SlowCoat};
use crate::film::{FilmState, UPTAKE_SPREAD};
use crate::picture::TouchTest;
use crate::quantity::Factor;
use crate::studio::Studio;
use crate::time::{lasting, lasting_between};

/// Factors closer to 1 than this are as the book says [-]. [practice]
const AS_THE_BOOK: f64 = 0.05;
/// Share of its first spread below which something is told of the uptake [-]. [practice]
const TOLD_FROM: f64 = 0.97;

/// How a time compares with the book's, with the middle 80 % of what may be.
pub fn said_of(factor: &Factor) -> String {
    let (median, low, high) = (factor.median(), factor.at(-OF_80), factor.at(OF_80));
    let between = format!("{low:.1} to {high:.1} times");
    if (median - 1.0).abs() < AS_THE_BOOK {
        format!("in about the time of the book ({between}, as far as is known)")
    } else {
        format!("in {median:.1} times the time of the book ({between}, as far as is known)")
    }
}

/// Slowness from which it is told, either way [-]. [practice]
const SLOW_TOLD: f64 = 1.1;

impl Account {
    /// What it says where the finger found something else than eight times of ten.
    fn far(&self) -> Option<String> {
        let (soon, late) = self.within_min;
        let unlike = if self.reached { self.seen_min < soon } else { self.seen_min > late };
        let state = match self.state {
            FilmState::Setting => "set",
            FilmState::TouchDry => "touch-dry",
            _ => "dry through",
        };
        let found = if self.reached { "already was" } else { "was not yet" };
        unlike.then(|| {
            format!(
                "That is not what was expected: to be {state} after {}, and it {found} after {}.",
                lasting_between(soon, late),
                lasting(self.seen_min)
            )
        })
    }
}

impl SlowCoat {
    /// Whether it is worth a word.
    fn is_told(&self) -> bool {
        self.times >= SLOW_TOLD || self.times <= 1.0 / SLOW_TOLD
    }
}

impl Learned {
    /// What is to be said of one `test` on picture `p` of `studio`, beside what it teaches: that it is far
    /// from what was expected, and what follows for its coat.
    pub fn of_test(&self, studio: &Studio, p: usize, test: &TouchTest) -> Vec<String> {
        let account = self.accounts.iter().find(|a| a.picture == p && a.test == *test);
        let far = account.and_then(Account::far);
        let step = studio.pictures[p].steps.iter().position(|s| s.id == test.step);
        let slow = self.slow.iter().find(|s| s.picture == p && Some(s.step) == step);
        let waits = slow.filter(|slow| slow.is_told()).map(|slow| {
            match (slow.doubted, slow.times > 1.0) {
                (true, _) => format!(
                    "Did the finger touch this coat? It is taken to dry {:.0} times slower, and no more than that.",
                    slow.times
                ),
                (_, true) => {
                    "For this coat the finger counts: it is taken to dry that much slower.".to_owned()
                }
                _ => "For this coat the finger counts: it is taken to be that far.".to_owned(),
            }
        });
        let again = far.as_ref().map(|_| "Touch it again before you paint over it.".to_owned());
        far.into_iter().chain(waits).chain(again).collect()
    }

    /// What it says of the room, of its grounds, and of each material that was tested in `studio`, in sentences.
    pub fn sentences(&self, studio: &Studio) -> Vec<String> {
        if self.accounts.is_empty() {
            return Vec::new();
        }
        let room = format!("Your room dries {}.", said_of(&self.habit.pace));
        let materials = self.materials.iter().filter_map(|(id, factor)| {
            let name = &studio.material(id)?.name;
            Some(format!("{name} by itself dries {}.", said_of(factor)))
        });
        let uptake = &self.habit.uptake;
        let known = uptake.sd < UPTAKE_SPREAD * TOLD_FROM;
        let (median, low, high) = (uptake.median(), uptake.at(-OF_80), uptake.at(OF_80));
        let ground = known.then(|| {
            format!(
                "Your grounds take up {median:.1} times what the book says (between {low:.1} and {high:.1}, as \
                 far as is known)."
            )
        });
        let slow = self.slow.iter().filter(|coat| coat.is_told()).map(|coat| {
            let picture = &studio.pictures[coat.picture];
            let title = picture.steps[coat.step].called();
            format!(
                "{title} of {} dries {} than this: a finger found it {}.",
                picture.title,
                if coat.times > 1.0 { "slower" } else { "sooner" },
                if coat.times > 1.0 { "less far" } else { "further" },
            )
        });
        std::iter::once(room).chain(ground).chain(materials).chain(slow).collect()
    }
}
