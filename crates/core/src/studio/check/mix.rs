//! What a mix may be.

use super::{each, number};
use crate::mix::{Material, Mix, find};
use crate::quantity::{Checked, Fault, Parts};

/// Holds that the parts of a mix are on the shelf and may be.
pub(super) fn check_mix(mix: &Mix, shelf: &[Material]) -> Checked {
    each("mix", mix, |part| {
        if find(shelf, &part.material).is_none() {
            let why = format!("no material \"{}\" is on the shelf", part.material);
            return Err(Fault::new("material", why));
        }
        number("parts", Parts::RANGE, part.parts)
    })
}
