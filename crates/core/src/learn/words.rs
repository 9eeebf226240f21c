//! What was learned, in sentences.

use super::{Learned, OF_80};
use crate::film::UPTAKE_SPREAD;
use crate::quantity::Factor;
use crate::studio::Studio;

/// Factors closer to 1 than this are as the book says [-]. [practice]
const AS_THE_BOOK: f64 = 0.05;
/// Share of its first spread below which something is told of the uptake [-]. [practice]
const TOLD_FROM: f64 = 0.97;

/// How a time compares with the book's, with the middle 80 % of what may be.
pub fn said_of(factor: &Factor) -> String {
    let (median, low, high) = (factor.median(), factor.at(-OF_80), factor.at(OF_80));
    let between = format!("between {low:.1} and {high:.1} times the book");
    if (median - 1.0).abs() < AS_THE_BOOK {
        format!("about as the book says ({between}, as far as is known)")
    } else if median > 1.0 {
        format!("{median:.1} times slower than the book ({between}, as far as is known)")
    } else {
        format!("{:.1} times faster than the book ({between}, as far as is known)", 1.0 / median)
    }
}

impl Learned {
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
        std::iter::once(room).chain(ground).chain(materials).collect()
    }
}
