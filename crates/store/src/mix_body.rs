//! How a mix is written into JSON columns.

use ulvek_core::mix::{Mix, Part};

/// Parts of a mix: material and how many.
pub(crate) type MixBody = Vec<(String, f64)>;

pub(crate) fn mix_body(mix: &Mix) -> MixBody {
    mix.iter().map(|p| (p.material.clone(), p.parts)).collect()
}

pub(crate) fn mix_of(mix: MixBody) -> Mix {
    mix.into_iter().map(|(material, parts)| Part { material, parts }).collect()
}
