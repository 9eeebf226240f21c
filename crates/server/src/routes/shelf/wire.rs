//! What is said of shelves.

use crate::formats::{MaterialDoc, Moment, TubDoc, WayDoc};
use crate::routes::shared::HistoryOut;
use serde::{Deserialize, Serialize};
use ulvek_core::picture::SMALL_CM;
use ulvek_core::quantity::{Fault, Side};
use utoipa::ToSchema;

/// On what size of picture a way of working is asked for; a small one where nothing is said.
#[derive(Deserialize)]
pub struct WaysAsked {
    /// [cm].
    width_cm: Option<f64>,
    /// [cm].
    height_cm: Option<f64>,
}

impl WaysAsked {
    /// Width and height [cm].
    ///
    /// # Errors
    /// The side that is out of range.
    pub fn size(&self) -> Result<(f64, f64), Fault> {
        let side = |name: &str, asked: Option<f64>, usual: f64| {
            Side::RANGE.check(asked.unwrap_or(usual)).map_err(|why| Fault::new(name, why))
        };
        Ok((
            side("width_cm", self.width_cm, SMALL_CM.0)?,
            side("height_cm", self.height_cm, SMALL_CM.1)?,
        ))
    }
}

/// A material with what is computed of it.
#[derive(Serialize, ToSchema)]
pub struct ShelfMaterial {
    /// The material.
    pub material: MaterialDoc,
    /// What is left of it [ml], when its stock is kept.
    #[schema(required)]
    pub left_ml: Option<f64>,
    /// Whether a picture, a tub or a way uses it: then it can be put away, but not taken out.
    pub used: bool,
    /// How its pigments stand light, as a painter says it, when all of them are known.
    #[schema(required)]
    pub lightfastness: Option<&'static str>,
    /// What can hurt about it, in plain words: what was noted, and what is known of such a thing.
    #[schema(required)]
    pub hurts: Option<String>,
}

/// A tub with what is computed of it.
#[derive(Serialize, ToSchema)]
pub struct ShelfTub {
    /// The tub.
    pub tub: TubDoc,
    /// What is left in it [ml].
    pub left_ml: f64,
    /// The last moment it is good for.
    pub last_good: Moment,
    /// `good`, `past` or `spoiled`.
    pub condition: String,
    /// What was found in it, when it is spoiled.
    #[schema(required)]
    pub trouble: Option<String>,
    /// Whether a picture was or is to be painted from it.
    pub used: bool,
}

/// A shelf.
#[derive(Serialize, ToSchema)]
pub struct ShelfOut {
    /// Its version.
    pub version: i64,
    /// What can be undone and redone.
    pub history: HistoryOut,
    /// Paints, mediums, varnishes.
    pub materials: Vec<ShelfMaterial>,
    /// Pre-mixed colour.
    pub tubs: Vec<ShelfTub>,
    /// Own ways of working.
    pub ways: Vec<WayDoc>,
}

/// A shelf after an edit.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ShelfEdit {
    /// The version the edit was made on.
    pub version: i64,
    /// What the edit did, for undo.
    pub label: String,
    /// Paints, mediums, varnishes.
    pub materials: Vec<MaterialDoc>,
    /// Pre-mixed colour.
    pub tubs: Vec<TubDoc>,
    /// Own ways of working.
    pub ways: Vec<WayDoc>,
}
