//! How a shelf is written into its JSON column.

use crate::StoreError;
use crate::mix_body::{MixBody, mix_body, mix_of};
use crate::picture_body::StepBody;
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};
use ulvek_core::mix::{
    Composition, Drawdown, Finish, Line, Material, MaterialKind, Opacity, Stock, Swatch, Tint,
};
use ulvek_core::quantity::Pace;
use ulvek_core::studio::{OwnWay, Studio, Tightness, Tub, TubCheck, TubTrouble};

/// Materials, tubs and own ways of working.
#[derive(Serialize, Deserialize)]
pub(crate) struct ShelfBody {
    materials: Vec<MaterialBody>,
    #[serde(default)]
    tubs: Vec<TubBody>,
    #[serde(default)]
    ways: Vec<WayBody>,
}

#[derive(Serialize, Deserialize)]
struct MaterialBody {
    id: String,
    name: String,
    kind: String,
    solids: f64,
    water: f64,
    glycol: f64,
    #[serde(default)]
    spirit: f64,
    binder: Option<f64>,
    density_g_ml: Option<f64>,
    swatch: Option<String>,
    #[serde(default)]
    drawdown: Option<DrawdownBody>,
    #[serde(default)]
    tint: Option<TintBody>,
    #[serde(default)]
    colour_source: Option<String>,
    #[serde(default = "own_pace")]
    pace: f64,
    #[serde(default)]
    line: Option<Line>,
    #[serde(default)]
    opacity: Option<Opacity>,
    #[serde(default)]
    finish: Option<Finish>,
    #[serde(default)]
    pigments: Vec<String>,
    #[serde(default)]
    hazards: Option<String>,
    #[serde(default)]
    most_retarder: Option<f64>,
    #[serde(default)]
    most_water: Option<f64>,
    #[serde(default)]
    slow_volatility: Option<f64>,
    #[serde(default)]
    stock: Option<Stock>,
    #[serde(default)]
    source: Option<String>,
    #[serde(default)]
    archived: bool,
}

#[derive(Serialize, Deserialize)]
struct DrawdownBody {
    over_white: [u8; 3],
    over_black: [u8; 3],
    dry_um: f64,
    cards: [[u8; 3]; 2],
}

#[derive(Serialize, Deserialize)]
struct TintBody {
    colour: [u8; 3],
    white: String,
    white_parts: f64,
}

impl TintBody {
    fn of(tint: &Tint) -> Self {
        Self { colour: tint.colour.0, white: tint.white.clone(), white_parts: tint.white_parts }
    }

    fn into_tint(self) -> Tint {
        Tint { colour: Swatch(self.colour), white: self.white, white_parts: self.white_parts }
    }
}

/// Pace of a material stored before paces were kept: the model's own.
const fn own_pace() -> f64 {
    1.0
}

#[derive(Serialize, Deserialize)]
struct TubBody {
    id: String,
    name: String,
    mix: MixBody,
    mixed_at: DateTime<Utc>,
    mixed_ml: f64,
    level: Stock,
    tightness: Tightness,
    keeps_days: Option<f64>,
    checks: Vec<(DateTime<Utc>, Vec<TubTrouble>)>,
    archived: bool,
}

#[derive(Serialize, Deserialize)]
struct WayBody {
    id: String,
    name: String,
    why: String,
    steps: Vec<StepBody>,
}

impl DrawdownBody {
    const fn of(d: &Drawdown) -> Self {
        Self {
            over_white: d.over_white.0,
            over_black: d.over_black.0,
            dry_um: d.dry_um,
            cards: [d.cards.0.0, d.cards.1.0],
        }
    }

    const fn into_drawdown(self) -> Drawdown {
        Drawdown {
            over_white: Swatch(self.over_white),
            over_black: Swatch(self.over_black),
            dry_um: self.dry_um,
            cards: (Swatch(self.cards[0]), Swatch(self.cards[1])),
        }
    }
}

impl MaterialBody {
    fn of(m: &Material) -> Self {
        Self {
            id: m.id.clone(),
            name: m.name.clone(),
            kind: m.kind.word().to_owned(),
            solids: m.composition.solids(),
            water: m.composition.water(),
            glycol: m.composition.glycol(),
            spirit: m.composition.spirit(),
            binder: m.binder,
            density_g_ml: m.density_g_ml,
            swatch: m.swatch.map(Swatch::to_hex),
            drawdown: m.drawdown.as_ref().map(DrawdownBody::of),
            tint: m.tint.as_ref().map(TintBody::of),
            colour_source: m.colour_source.clone(),
            pace: m.composition.pace(),
            line: m.line,
            opacity: m.opacity,
            finish: m.finish,
            pigments: m.pigments.clone(),
            hazards: m.hazards.clone(),
            most_retarder: m.most_retarder,
            most_water: m.most_water,
            slow_volatility: m.slow_volatility,
            stock: m.stock,
            source: m.source.clone(),
            archived: m.archived,
        }
    }

    fn into_material(self) -> Result<Material, StoreError> {
        let unreadable = |e: String| StoreError::Unreadable(format!("material {}: {e}", self.id));
        let composition =
            Composition::of_shares([self.solids, self.water, self.glycol, self.spirit])
                .map_err(|e| unreadable(e.to_string()))?
                .with_pace(Pace::try_new(self.pace).map_err(|e| unreadable(e.to_string()))?);
        Ok(Material {
            learned: None,
            composition,
            kind: MaterialKind::from_word(&self.kind),
            swatch: self.swatch.as_deref().and_then(Swatch::from_hex),
            drawdown: self.drawdown.map(DrawdownBody::into_drawdown),
            tint: self.tint.map(TintBody::into_tint),
            colour_source: self.colour_source,
            id: self.id,
            name: self.name,
            binder: self.binder,
            density_g_ml: self.density_g_ml,
            line: self.line,
            opacity: self.opacity,
            finish: self.finish,
            pigments: self.pigments,
            hazards: self.hazards,
            most_retarder: self.most_retarder,
            most_water: self.most_water,
            slow_volatility: self.slow_volatility,
            stock: self.stock,
            source: self.source,
            archived: self.archived,
        })
    }
}

impl TubBody {
    fn of(t: &Tub) -> Self {
        Self {
            id: t.id.clone(),
            name: t.name.clone(),
            mix: mix_body(&t.mix),
            mixed_at: t.mixed_at,
            mixed_ml: t.mixed_ml,
            level: t.level,
            tightness: t.tightness,
            keeps_days: t.keeps_days,
            checks: t.checks.iter().map(|c| (c.at, c.found.clone())).collect(),
            archived: t.archived,
        }
    }

    fn into_tub(self) -> Tub {
        Tub {
            id: self.id,
            name: self.name,
            mix: mix_of(self.mix),
            mixed_at: self.mixed_at,
            mixed_ml: self.mixed_ml,
            level: self.level,
            tightness: self.tightness,
            keeps_days: self.keeps_days,
            checks: self.checks.into_iter().map(|(at, found)| TubCheck { at, found }).collect(),
            archived: self.archived,
        }
    }
}

impl ShelfBody {
    pub fn of(studio: &Studio) -> Self {
        Self {
            materials: studio.materials.iter().map(MaterialBody::of).collect(),
            tubs: studio.tubs.iter().map(TubBody::of).collect(),
            ways: studio
                .ways
                .iter()
                .map(|w| WayBody {
                    id: w.id.clone(),
                    name: w.name.clone(),
                    why: w.why.clone(),
                    steps: w.steps.iter().map(StepBody::of).collect(),
                })
                .collect(),
        }
    }

    /// Puts the shelf into `studio`.
    pub fn fill(mut self, studio: &mut Studio) -> Result<(), StoreError> {
        studio.materials = into_materials(std::mem::take(&mut self.materials))?;
        studio.tubs = self.tubs.into_iter().map(TubBody::into_tub).collect();
        studio.ways = self
            .ways
            .into_iter()
            .map(|w| OwnWay {
                id: w.id,
                name: w.name,
                why: w.why,
                steps: w.steps.into_iter().map(StepBody::into_step).collect(),
            })
            .collect();
        Ok(())
    }

    /// The materials alone.
    pub fn into_materials(self) -> Result<Vec<Material>, StoreError> {
        into_materials(self.materials)
    }
}

fn into_materials(bodies: Vec<MaterialBody>) -> Result<Vec<Material>, StoreError> {
    bodies.into_iter().map(MaterialBody::into_material).collect()
}
