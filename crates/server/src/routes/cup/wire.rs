//! What is asked and said of cups, and of the scale.

use crate::formats::{PartDoc, mix_doc, read_mix, words};
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};
use ulvek_core::cup::{Amount, Change, Reach, Unit};
use ulvek_core::film::FilmState;
use ulvek_core::mix::{Limit, LimitKind, Mix, Part};
use ulvek_core::picture::IfLaid;
use ulvek_core::studio::{CupAsked, Cupful, SeriesAsked, Turn};
use ulvek_core::time::instant;
use utoipa::ToSchema;

/// A cup that is asked about.
#[derive(Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CupAsk {
    /// What is in it, parts by volume.
    pub mix: Vec<PartDoc>,
    /// What was turned since, in order; the others follow each turn.
    #[serde(default)]
    pub turns: Vec<TurnDoc>,
    /// Wet film of the coat [um].
    pub wet_film_um: f64,
    /// Share of the picture's area it covers.
    pub share_of_area: f64,
    /// Share of the cup that stays in cup and brush.
    pub loss: f64,
    /// The whole cup [ml], instead of the loss: what is more than the coat takes is lost.
    #[serde(default)]
    pub total_ml: Option<f64>,
    /// What the bench can measure [ml].
    pub measure_ml: f64,
    /// A material of which there is only so much.
    #[serde(default)]
    pub have: Option<Have>,
    /// The step it is for: judged where, when and on what that will be laid.
    #[serde(default)]
    pub step: Option<String>,
}

/// One number of the recipe that was set.
#[derive(Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TurnDoc {
    /// Which part, from 0.
    pub part: usize,
    /// What it is counted in.
    #[schema(schema_with = words::api::unit)]
    pub unit: Unit,
    /// How much.
    pub value: f64,
    /// Size of the cup it was set in [ml]; the cup of this question when not said.
    #[serde(default)]
    pub of_ml: Option<f64>,
}

/// What is left of a material.
#[derive(Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Have {
    /// Its name on the shelf.
    pub material: String,
    /// How much [ml].
    pub ml: f64,
}

/// How much of one material goes in.
#[derive(Serialize, ToSchema)]
pub struct CupPart {
    /// Its name on the shelf.
    pub material: String,
    /// How many parts.
    pub parts: f64,
    /// Share of the cup by volume.
    pub share: f64,
    /// Volume [ml].
    pub ml: f64,
    /// Mass [g], when its density is known.
    #[schema(required)]
    pub grams: Option<f64>,
    /// Drops of a bench pipette, 20 to the millilitre.
    pub drops: f64,
    /// Volume in whole measures [ml].
    pub rounded_ml: f64,
    /// What is left of it when the cup's turn comes [ml], when its stock is kept.
    #[schema(required)]
    pub left_ml: Option<f64>,
}

/// A limit of the mix.
#[derive(Serialize, ToSchema)]
pub struct CupLimit {
    /// What is limited.
    #[schema(schema_with = words::api::limit)]
    pub what: LimitKind,
    /// The share the mix has, when its materials say it.
    #[schema(required)]
    pub share: Option<f64>,
    /// The most it may have; of the binder, the least.
    pub limit: f64,
    /// Whether it is kept.
    pub kept: bool,
    /// What happens beyond it.
    pub why: String,
}

/// A change of the mix that keeps its limits.
#[derive(Serialize, ToSchema)]
pub struct CupOffer {
    /// What it does.
    #[schema(schema_with = words::api::change)]
    pub change: Change,
    /// The mix after it, parts of 100; `null` when it cannot be made.
    #[schema(required)]
    pub mix: Option<Vec<PartDoc>>,
}

/// How far a material that is short goes.
#[derive(Serialize, ToSchema)]
pub struct CupShort {
    /// The most that can be mixed [ml].
    pub total_ml: f64,
    /// The film it gives on the same area [um].
    pub wet_film_um: f64,
    /// Or the share of the picture it covers at the same film; 1 when it is enough.
    pub share_of_area: f64,
    /// Whether it is enough.
    pub enough: bool,
}

/// What is known of a cup.
#[derive(Serialize, ToSchema)]
pub struct CupOut {
    /// Volume to mix [ml].
    pub total_ml: f64,
    /// What of it ends on the picture [ml].
    pub on_picture_ml: f64,
    /// Share of the cup that stays in cup and brush.
    pub loss: f64,
    /// The parts, in the order of the mix.
    pub parts: Vec<CupPart>,
    /// Largest change of a part's share by rounding.
    pub rounding_share: f64,
    /// What rounding adds to the whole [ml].
    pub rounding_ml: f64,
    /// Limits of the mix on this picture in this studio's school.
    pub limits: Vec<CupLimit>,
    /// When it is laid for what follows: now, or as soon as the film below is paintable; `null`
    /// when that never comes.
    #[schema(required)]
    pub laid_at: Option<DateTime<Utc>>,
    /// Whether it has to wait.
    pub waits: bool,
    /// Why, as a sentence without its end: what the plan says of the step.
    #[schema(required)]
    pub because: Option<String>,
    /// Minutes it can be worked from then.
    #[schema(required)]
    pub working_min: Option<f64>,
    /// When it is touch-dry.
    #[schema(required)]
    pub touch_dry_at: Option<DateTime<Utc>>,
    /// When it may be painted over.
    #[schema(required)]
    pub paintable_at: Option<DateTime<Utc>>,
    /// Changes that keep the limits.
    pub offers: Vec<CupOffer>,
    /// How far the material goes that is short.
    #[schema(required)]
    pub short: Option<CupShort>,
    /// What can hurt about what is in it, in plain words.
    pub hazards: Vec<String>,
}

/// A dilution series that is asked about.
#[derive(Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SeriesAsk {
    /// The material whose share rises.
    pub strong: String,
    /// The material that makes up the rest.
    pub thin: String,
    /// Share of the strong one in the first cup.
    pub from: f64,
    /// And in the last.
    pub to: f64,
    /// How many cups.
    pub cups: usize,
    /// Volume of each [ml].
    pub ml: f64,
    /// Wet film of a coat of them [um].
    pub wet_film_um: f64,
    /// The step they are for.
    #[serde(default)]
    pub step: Option<String>,
}

/// One cup of a series.
#[derive(Serialize, ToSchema)]
pub struct SeriesCup {
    /// What is in it, parts of 100.
    pub mix: Vec<PartDoc>,
    /// How much of each goes in.
    pub parts: Vec<CupPart>,
    /// Its limits.
    pub limits: Vec<CupLimit>,
    /// Minutes a coat of it can be worked.
    #[schema(required)]
    pub working_min: Option<f64>,
    /// When a coat of it may be painted over.
    #[schema(required)]
    pub paintable_at: Option<DateTime<Utc>>,
}

impl CupAsk {
    /// The question; whether it can be answered is the core's to say.
    pub fn read(&self) -> CupAsked {
        let turn =
            |t: &TurnDoc| Turn { part: t.part, unit: t.unit, value: t.value, of_ml: t.of_ml };
        CupAsked {
            mix: read_mix(&self.mix),
            turns: self.turns.iter().map(turn).collect(),
            wet_film_um: self.wet_film_um,
            share_of_area: self.share_of_area,
            loss: self.loss,
            total_ml: self.total_ml,
            measure_ml: self.measure_ml,
            have: self.have.as_ref().map(|h| (h.material.clone(), h.ml)),
        }
    }
}

fn reaches(laid: Option<&IfLaid>, state: FilmState) -> Option<DateTime<Utc>> {
    laid.and_then(|l| l.events.at(state)).map(instant)
}

impl CupOut {
    /// What is known of a cup.
    pub fn of(cup: &Cupful) -> Self {
        let laid = cup.laid.as_ref();
        let offer = |(change, mix): &(Change, Option<Mix>)| CupOffer {
            change: *change,
            mix: mix.as_ref().map(mix_doc),
        };
        Self {
            total_ml: cup.total_ml,
            on_picture_ml: cup.on_picture_ml,
            loss: cup.loss,
            parts: CupPart::all(&cup.mix, &cup.amounts, (&cup.rounded.ml, &cup.left_ml)),
            rounding_share: cup.rounded.worst_share,
            rounding_ml: cup.rounded.more_ml,
            limits: cup.limits.iter().map(CupLimit::of).collect(),
            laid_at: laid.map(|l| instant(l.at)),
            waits: cup.waits,
            because: cup.because.clone(),
            working_min: laid.and_then(IfLaid::working_min),
            touch_dry_at: reaches(laid, FilmState::TouchDry),
            paintable_at: reaches(laid, FilmState::Paintable),
            offers: cup.offers.iter().map(offer).collect(),
            short: cup.short.as_ref().map(CupShort::of),
            hazards: cup.hazards.clone(),
        }
    }
}

impl CupPart {
    fn all(
        mix: &Mix,
        amounts: &[Amount],
        (rounded_ml, left_ml): (&[f64], &[Option<f64>]),
    ) -> Vec<Self> {
        let left_ml = left_ml.iter().copied().chain(std::iter::repeat(None));
        let parts = mix.iter().zip(amounts).zip(rounded_ml).zip(left_ml);
        type Row<'a> = (((&'a Part, &'a Amount), &'a f64), Option<f64>);
        let one = |(((part, a), rounded_ml), left_ml): Row<'_>| Self {
            left_ml,
            material: a.material.clone(),
            parts: part.parts,
            share: a.share,
            ml: a.ml,
            grams: a.grams,
            drops: a.drops,
            rounded_ml: *rounded_ml,
        };
        parts.map(one).collect()
    }
}

impl CupLimit {
    fn of(limit: &Limit) -> Self {
        Self {
            what: limit.kind,
            share: limit.share,
            limit: limit.limit,
            kept: limit.kept,
            why: limit.why().into(),
        }
    }
}

impl CupShort {
    fn of(reach: &Reach) -> Self {
        Self {
            total_ml: reach.total_ml,
            wet_film_um: reach.wet_film_um,
            share_of_area: reach.share_of_area,
            enough: reach.enough,
        }
    }
}

impl SeriesAsk {
    /// The question; whether it can be answered is the core's to say.
    pub fn read(&self) -> SeriesAsked {
        SeriesAsked {
            strong: self.strong.clone(),
            thin: self.thin.clone(),
            from: self.from,
            to: self.to,
            cups: self.cups,
            ml: self.ml,
            wet_film_um: self.wet_film_um,
        }
    }
}

impl SeriesCup {
    /// One cup of a series.
    pub fn of(mix: &Mix, amounts: &[Amount], limits: &[Limit], laid: Option<&IfLaid>) -> Self {
        let exact: Vec<f64> = amounts.iter().map(|a| a.ml).collect();
        Self {
            mix: mix_doc(mix),
            parts: CupPart::all(mix, amounts, (&exact, &[])),
            limits: limits.iter().map(CupLimit::of).collect(),
            working_min: laid.and_then(IfLaid::working_min),
            paintable_at: reaches(laid, FilmState::Paintable),
        }
    }
}

/// What the scale shows.
#[derive(Serialize, ToSchema)]
pub struct ScaleOut {
    /// What it shows [g].
    pub shows_g: f64,
    /// What lies on it [g], as it was told.
    pub load_g: f64,
    /// The instrument that sent it; a stand-in shows what it was told by hand.
    #[schema(required)]
    pub by: Option<String>,
}

/// What is put onto the simulated scale.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ScaleLoad {
    /// All that lies on it [g].
    pub load_g: f64,
}
