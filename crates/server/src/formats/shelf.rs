//! The shelf: materials, tubs and own ways of working; shape, reading and writing.

use super::fields::{Hex, few_lines, line};
use super::mix::{PartDoc, mix_doc, read_mix};
use super::moment::Moment;
use super::picture::StepDoc;
use super::words;
use chrono_tz::Tz;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ulvek_core::mix::{
    Composition, Drawdown, Finish, Line, Material, MaterialKind, Opacity, Stock, Tint,
};
use ulvek_core::quantity::{Checked, Fault, Pace};
use ulvek_core::studio::{OwnWay, Studio, Tightness, Tub, TubCheck, TubTrouble};
use utoipa::ToSchema;

/// A material on the shelf.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MaterialDoc {
    /// Its name in mixes.
    pub id: String,
    /// What the painter calls it.
    pub name: String,
    /// `paint`, `medium`, `retarder`, `water`, `primer`, `varnish`, `solvent_varnish`, or another
    /// word of the studio's own.
    pub kind: String,
    /// Polymer and pigment, volume fraction.
    pub solids: f64,
    /// Water, volume fraction.
    #[serde(default)]
    pub water: f64,
    /// Slow volatile (retarder, humectant, coalescent), volume fraction.
    #[serde(default)]
    pub glycol: f64,
    /// Spirit of a spirit-borne varnish, volume fraction; then no water and no slow volatile.
    #[serde(default, skip_serializing_if = "is_nothing")]
    pub spirit: f64,
    /// Polymer alone, volume fraction of the wet material; at most the solids.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub binder: Option<f64>,
    /// Density [g/ml]; without it the cup gives no grams.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub density_g_ml: Option<f64>,
    /// Colour to draw it with, `#rrggbb`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schemars(with = "Option<String>")]
    #[schema(value_type = Option<String>)]
    pub swatch: Option<Hex>,
    /// Its colour over a white card, `#rrggbb`; with `over_black`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schemars(with = "Option<String>")]
    #[schema(value_type = Option<String>)]
    pub over_white: Option<Hex>,
    /// Its colour over a black card, `#rrggbb`; with `over_white`. A medium without them is clear.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schemars(with = "Option<String>")]
    #[schema(value_type = Option<String>)]
    pub over_black: Option<Hex>,
    /// Dry thickness of that swatch [um]; 30 when not said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub swatch_dry_um: Option<f64>,
    /// The cards, white and black, `#rrggbb`; `#f4f3f0` and `#1c1c1e` when not said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schemars(with = "Option<[String; 2]>")]
    #[schema(value_type = Option<[String; 2]>)]
    pub cards: Option<[Hex; 2]>,
    /// How strong it is in white; beside its colour over the two cards.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tint: Option<TintDoc>,
    /// Where these readings come from, when not from where its numbers do.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub colour_source: Option<String>,
    /// Factor on every time of its drying, beside what its composition says; 1 when not said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub pace: Option<f64>,
    /// The line a paint belongs to.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schemars(schema_with = "words::json::line")]
    #[schema(schema_with = words::api::line)]
    pub line: Option<Line>,
    /// How much it hides.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schemars(schema_with = "words::json::opacity")]
    #[schema(schema_with = words::api::opacity)]
    pub opacity: Option<Opacity>,
    /// The sheen of a medium or varnish.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schemars(schema_with = "words::json::finish")]
    #[schema(schema_with = words::api::finish)]
    pub finish: Option<Finish>,
    /// Pigments by Colour Index Generic Name, e.g. `PB29`.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub pigments: Vec<String>,
    /// What can hurt, in plain words.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub hazards: Option<String>,
    /// Most retarder a mix with it stands, volume fraction, when less than usual.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub most_retarder: Option<f64>,
    /// Most added water a mix with it stands on a sealed surface, volume fraction, likewise.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub most_water: Option<f64>,
    /// How volatile its slow volatile is beside propylene glycol; as it (1) when not said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub slow_volatility: Option<f64>,
    /// How much there is of it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub stock: Option<StockDoc>,
    /// Where its numbers come from.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub source: Option<String>,
    /// Put away: kept for the coats it was used in, not offered any more.
    #[serde(default, skip_serializing_if = "is_false")]
    pub archived: bool,
}

/// A paint in white, laid until it hides: what tells how strong it is in a mix.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TintDoc {
    /// How it looks, `#rrggbb`.
    #[schemars(with = "String")]
    #[schema(value_type = String)]
    pub colour: Hex,
    /// The white, by its name on the shelf; it is read over two cards itself.
    pub white: String,
    /// Parts of that white to one of the paint, by volume as they come from the tube.
    #[serde(default = "usual_parts")]
    pub white_parts: f64,
}

const fn usual_parts() -> f64 {
    Tint::USUAL_PARTS
}

#[expect(clippy::trivially_copy_pass_by_ref, reason = "serde passes a reference")]
fn is_nothing(value: &f64) -> bool {
    *value == 0.0
}

#[expect(clippy::trivially_copy_pass_by_ref, reason = "serde passes a reference")]
const fn is_false(value: &bool) -> bool {
    !*value
}

/// An amount that was there at a moment; what was laid since is taken off.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct StockDoc {
    /// How much there was [ml].
    pub ml: f64,
    /// When.
    pub at: Moment,
}

/// A tub of pre-mixed colour.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TubDoc {
    /// Its name within the studio.
    pub id: String,
    /// What the painter calls it.
    pub name: String,
    /// What is in it, parts by volume.
    pub mix: Vec<PartDoc>,
    /// When it was mixed.
    pub mixed_at: Moment,
    /// How much was mixed [ml].
    pub mixed_ml: f64,
    /// How much there was when it was last measured; what was mixed when not said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub level: Option<StockDoc>,
    /// Its container.
    #[schemars(schema_with = "words::json::tightness")]
    #[schema(schema_with = words::api::tightness)]
    pub tightness: Tightness,
    /// Days it keeps, when the painter knows better than the container.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub keeps_days: Option<f64>,
    /// Looks into it.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub checks: Vec<TubCheckDoc>,
    /// Put away: empty or thrown out.
    #[serde(default, skip_serializing_if = "is_false")]
    pub archived: bool,
}

/// A look into a tub.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TubCheckDoc {
    /// When.
    pub at: Moment,
    /// What was found; nothing when it is good.
    #[serde(default)]
    #[schemars(schema_with = "words::json::troubles")]
    #[schema(schema_with = words::api::troubles)]
    pub found: Vec<TubTrouble>,
}

/// A painter's own way of working.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct WayDoc {
    /// Its name within the studio.
    pub id: String,
    /// What the painter calls it.
    pub name: String,
    /// Why one works like this.
    pub why: String,
    /// Its steps, none of them laid.
    pub steps: Vec<StepDoc>,
}

/// A shelf as it was read: what stands on it, and nothing else of a studio.
pub type ShelfRead = (Vec<Material>, Vec<Tub>, Vec<OwnWay>);

/// Reads a shelf; whether it may be is the check's to say.
///
/// # Errors
/// [`Fault`] of the first place that cannot be read.
pub fn read_shelf(
    materials: &[MaterialDoc],
    tubs: &[TubDoc],
    ways: &[WayDoc],
) -> Checked<ShelfRead> {
    let mut read = Vec::with_capacity(materials.len());
    for (i, material) in materials.iter().enumerate() {
        read.push(material.read().map_err(|f| f.within(&format!("materials[{i}]")))?);
    }
    Ok((read, tubs.iter().map(TubDoc::read).collect(), ways.iter().map(WayDoc::read).collect()))
}

/// `studio` with the shelf that was read.
pub fn with_shelf(studio: Studio, (materials, tubs, ways): ShelfRead) -> Studio {
    Studio { materials, tubs, ways, ..studio }
}

impl MaterialDoc {
    /// Writes a material; times in `zone`.
    pub fn of(material: &Material, zone: Tz) -> Self {
        let pace = material.composition.pace();
        let drawdown = material.drawdown;
        let unusual = drawdown.filter(|d| d.cards != Drawdown::CARDS);
        Self {
            id: material.id.clone(),
            name: material.name.clone(),
            kind: material.kind.word().to_owned(),
            solids: material.composition.solids(),
            water: material.composition.water(),
            glycol: material.composition.glycol(),
            spirit: material.composition.spirit(),
            binder: material.binder,
            density_g_ml: material.density_g_ml,
            swatch: material.swatch.map(Hex),
            over_white: drawdown.map(|d| Hex(d.over_white)),
            over_black: drawdown.map(|d| Hex(d.over_black)),
            swatch_dry_um: drawdown.map(|d| d.dry_um),
            cards: unusual.map(|d| [Hex(d.cards.0), Hex(d.cards.1)]),
            tint: material.tint.as_ref().map(TintDoc::of),
            // The model's own pace goes without saying.
            pace: if pace.to_bits() == 1.0f64.to_bits() { None } else { Some(pace) },
            line: material.line,
            opacity: material.opacity,
            finish: material.finish,
            pigments: material.pigments.clone(),
            hazards: material.hazards.clone(),
            most_retarder: material.most_retarder,
            most_water: material.most_water,
            slow_volatility: material.slow_volatility,
            stock: material.stock.as_ref().map(|s| StockDoc::of(s, zone)),
            colour_source: material.colour_source.clone(),
            source: material.source.clone(),
            archived: material.archived,
        }
    }

    /// The material.
    ///
    /// # Errors
    /// [`Fault`] of the first place that cannot be read.
    pub fn read(&self) -> Checked<Material> {
        let pace = Pace::try_new(self.pace.unwrap_or(1.0)).map_err(|e| Fault::new("pace", e))?;
        let composition =
            Composition::of_shares([self.solids, self.water, self.glycol, self.spirit])
                .map_err(|e| Fault::new("", e))?
                .with_pace(pace);
        Ok(Material {
            learned: None,
            id: line(&self.id),
            name: line(&self.name),
            kind: MaterialKind::from_word(&line(&self.kind)),
            composition,
            binder: self.binder,
            density_g_ml: self.density_g_ml,
            swatch: self.swatch.map(|hex| hex.0),
            drawdown: self.drawdown()?,
            tint: self.tint.as_ref().map(TintDoc::read),
            line: self.line,
            opacity: self.opacity,
            finish: self.finish,
            pigments: self.pigments.iter().map(|p| line(p)).collect(),
            hazards: few_lines(self.hazards.as_deref()),
            most_retarder: self.most_retarder,
            most_water: self.most_water,
            slow_volatility: self.slow_volatility,
            stock: self.stock.as_ref().map(StockDoc::read),
            colour_source: few_lines(self.colour_source.as_deref()),
            source: few_lines(self.source.as_deref()),
            archived: self.archived,
        })
    }
}

impl MaterialDoc {
    /// How it looks over two cards, when that is said.
    fn drawdown(&self) -> Checked<Option<Drawdown>> {
        let (over_white, over_black) = match (self.over_white, self.over_black) {
            (Some(Hex(white)), Some(Hex(black))) => (white, black),
            (None, None) if self.swatch_dry_um.is_none() && self.cards.is_none() => {
                return Ok(None);
            }
            (white, _) => {
                let missing = if white.is_some() { "over_black" } else { "over_white" };
                return Err(Fault::new(missing, "is missing: a paint is told by both cards"));
            }
        };
        Ok(Some(Drawdown {
            over_white,
            over_black,
            dry_um: self.swatch_dry_um.unwrap_or(Drawdown::USUAL_DRY_UM),
            cards: self.cards.map_or(Drawdown::CARDS, |[white, black]| (white.0, black.0)),
        }))
    }
}

impl TintDoc {
    fn of(tint: &Tint) -> Self {
        Self { colour: Hex(tint.colour), white: tint.white.clone(), white_parts: tint.white_parts }
    }

    fn read(&self) -> Tint {
        Tint { colour: self.colour.0, white: line(&self.white), white_parts: self.white_parts }
    }
}

impl StockDoc {
    fn of(stock: &Stock, zone: Tz) -> Self {
        Self { ml: stock.ml, at: Moment::local(stock.at, zone) }
    }

    fn read(&self) -> Stock {
        Stock { ml: self.ml, at: self.at.utc() }
    }
}

impl TubDoc {
    /// Writes a tub; times in `zone`.
    pub fn of(tub: &Tub, zone: Tz) -> Self {
        let look =
            |c: &TubCheck| TubCheckDoc { at: Moment::local(c.at, zone), found: c.found.clone() };
        Self {
            id: tub.id.clone(),
            name: tub.name.clone(),
            mix: mix_doc(&tub.mix),
            mixed_at: Moment::local(tub.mixed_at, zone),
            mixed_ml: tub.mixed_ml,
            level: Some(StockDoc::of(&tub.level, zone)),
            tightness: tub.tightness,
            keeps_days: tub.keeps_days,
            checks: tub.checks.iter().map(look).collect(),
            archived: tub.archived,
        }
    }

    /// The tub; whether it may be is the check's to say.
    pub fn read(&self) -> Tub {
        let full = Stock { ml: self.mixed_ml, at: self.mixed_at.utc() };
        let look = |c: &TubCheckDoc| TubCheck { at: c.at.utc(), found: c.found.clone() };
        let mut checks: Vec<TubCheck> = self.checks.iter().map(look).collect();
        checks.sort_by_key(|c| c.at);
        Tub {
            id: line(&self.id),
            name: line(&self.name),
            mix: read_mix(&self.mix),
            mixed_at: full.at,
            mixed_ml: self.mixed_ml,
            level: self.level.as_ref().map_or(full, StockDoc::read),
            tightness: self.tightness,
            keeps_days: self.keeps_days,
            checks,
            archived: self.archived,
        }
    }
}

impl WayDoc {
    /// Writes a way of working; times in `zone`.
    pub fn of(way: &OwnWay, zone: Tz) -> Self {
        Self {
            id: way.id.clone(),
            name: way.name.clone(),
            why: way.why.clone(),
            steps: way.steps.iter().map(|s| StepDoc::of(s, zone)).collect(),
        }
    }

    /// The way of working; whether it may be is the check's to say.
    pub fn read(&self) -> OwnWay {
        OwnWay {
            id: line(&self.id),
            name: line(&self.name),
            why: line(&self.why),
            steps: self.steps.iter().map(StepDoc::read).collect(),
        }
    }
}
