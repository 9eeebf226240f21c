//! A mix: shape, reading and writing.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ulvek_core::mix::{Mix, Part};
use utoipa::ToSchema;

/// Parts of one material, by volume.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PartDoc {
    /// The material's name on the shelf.
    pub material: String,
    /// How many parts.
    pub parts: f64,
}

/// Writes a mix.
pub fn mix_doc(mix: &Mix) -> Vec<PartDoc> {
    mix.iter().map(|p| PartDoc { material: p.material.clone(), parts: p.parts }).collect()
}

/// Reads a mix; whether it may be is the check's to say.
pub fn read_mix(mix: &[PartDoc]) -> Mix {
    mix.iter().map(|p| Part { material: p.material.clone(), parts: p.parts }).collect()
}
