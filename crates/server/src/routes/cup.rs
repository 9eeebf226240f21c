//! The cup: what a mix takes, what it allows, and what it would do on the picture now.

use super::season::asked;
use super::view::{Of, answer};
use super::wire::instant;
use crate::compute::Lane;
use crate::extract::{Body, Key};
use crate::formats::{PartDoc, mix_doc};
use crate::problem::Problem;
use crate::state::App;
use axum::extract::State;
use axum::response::Response;
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};
use ulvek_core::cup::{
    Amount, Change, CupError, IfLaid, Limit, LimitKind, MOST_CUPS, Pour, Unit, adjust, amounts,
    if_laid, limits, loss_of, on_picture_ml, pour_ml, reach, round_to, series, surface_of, turn,
};
use ulvek_core::film::FilmState;
use ulvek_core::picture::{Part, Picture};
use ulvek_core::quantity::{Millilitres, OutOfRange, Parts};
use ulvek_core::studio::StudioDocument;
use utoipa::ToSchema;

/// Smallest and largest measure a cup is rounded to [ml]. [practice] a drop to a spoon
const MEASURES: std::ops::RangeInclusive<f64> = 0.01..=50.0;
/// Most turns in one question. [practice] what a hand does before the answer is there
const MOST_TURNS: usize = 200;
/// Most parts in a cup. [practice]
const MOST_PARTS: usize = 50;

/// A cup that is asked about.
#[derive(Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CupAsk {
    /// What is in it, parts by volume.
    pub mix: Vec<PartDoc>,
    /// What was turned since, in order; the others follow each turn.
    #[serde(default)]
    pub turns: Vec<Turn>,
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
}

/// One number of the recipe that was set.
#[derive(Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Turn {
    /// Which part, from 0.
    pub part: usize,
    /// What it is counted in.
    pub unit: TurnUnit,
    /// How much.
    pub value: f64,
    /// Size of the cup it was set in [ml]; the cup of this question when not said.
    #[serde(default)]
    pub of_ml: Option<f64>,
}

/// What a part is counted in.
#[derive(Clone, Copy, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum TurnUnit {
    /// Parts: the others keep theirs.
    Parts,
    /// Percent of the cup.
    Percent,
    /// Millilitres in a cup of the same size.
    Ml,
    /// Grams in a cup of the same size.
    Grams,
    /// Drops in a cup of the same size.
    Drops,
}

impl From<TurnUnit> for Unit {
    fn from(unit: TurnUnit) -> Self {
        match unit {
            TurnUnit::Parts => Self::Parts,
            TurnUnit::Percent => Self::Percent,
            TurnUnit::Ml => Self::Ml,
            TurnUnit::Grams => Self::Grams,
            TurnUnit::Drops => Self::Drops,
        }
    }
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
}

/// A limit of the mix.
#[derive(Serialize, ToSchema)]
pub struct CupLimit {
    /// `retarder`, `water` or `binder`.
    pub what: String,
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
    /// `thinner`, `stronger` or `slower`.
    pub change: String,
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
    /// Whether it has to wait for the film below.
    pub waits: bool,
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

/// Computes a cup for a picture: amounts, limits, and what it would do if laid as soon as that is
/// safe. Stores nothing.
#[utoipa::path(post, path = "/api/pictures/{id}/cup", tag = "computed", params(("id" = Uuid, Path)),
    request_body = CupAsk, responses((status = 200, body = CupOut)))]
pub async fn cup(
    State(app): State<App>,
    Key(id): Key,
    Body(ask): Body<CupAsk>,
) -> Result<Response, Problem> {
    let question = asked(&format!("cup {id}"), &ask)?;
    answer(&app, (Of::Picture(id), Lane::Quick), question, move |scene| {
        let document = &scene.loaded.stored.document;
        make(document, &document.pictures[scene.loaded.place_of(id)?], scene.now, &ask)
    })
    .await
}

/// A row of cups from light to strong, each with what a coat of it would do. Stores nothing.
#[utoipa::path(post, path = "/api/pictures/{id}/cup/series", tag = "computed", params(("id" = Uuid, Path)),
    request_body = SeriesAsk, responses((status = 200, body = [SeriesCup])))]
pub async fn cup_series(
    State(app): State<App>,
    Key(id): Key,
    Body(ask): Body<SeriesAsk>,
) -> Result<Response, Problem> {
    let question = asked(&format!("series {id}"), &ask)?;
    answer(&app, (Of::Picture(id), Lane::Quick), question, move |scene| {
        let document = &scene.loaded.stored.document;
        make_series(document, &document.pictures[scene.loaded.place_of(id)?], scene.now, &ask)
    })
    .await
}

fn refuse(error: &CupError) -> Problem {
    let place = match error {
        CupError::Range(OutOfRange { range, .. }) if range.name == "wet film thickness" => {
            "wet_film_um"
        }
        CupError::Range(_) => "share_of_area",
        CupError::AllLost => "loss",
        CupError::TooSmall(_) => "total_ml",
        _ => "mix",
    };
    Problem::refused(place, error.to_string())
}

/// The mix as asked, with every turn made.
fn turned(document: &StudioDocument, ask: &CupAsk, total_ml: f64) -> Result<Vec<Part>, Problem> {
    if ask.mix.len() > MOST_PARTS || ask.turns.len() > MOST_TURNS {
        return Err(Problem::refused("mix", format!("at most {MOST_PARTS} parts fit into a cup")));
    }
    let mut mix = Vec::with_capacity(ask.mix.len());
    for (i, part) in ask.mix.iter().enumerate() {
        let parts = Parts::try_new(part.parts)
            .map_err(|e| Problem::refused(format!("mix[{i}].parts"), e.to_string()))?;
        mix.push(Part { material: part.material.clone(), parts: parts.get() });
    }
    for t in &ask.turns {
        let of_ml = t.of_ml.unwrap_or(total_ml);
        mix = turn(&mix, (t.part, t.unit.into(), t.value), of_ml, &document.materials)
            .map_err(|e| Problem::refused(format!("mix[{}]", t.part), e.to_string()))?;
    }
    Ok(mix)
}

fn make(
    document: &StudioDocument,
    picture: &Picture,
    now: DateTime<Utc>,
    ask: &CupAsk,
) -> Result<CupOut, Problem> {
    if !MEASURES.contains(&ask.measure_ml) {
        return Err(Problem::refused("measure_ml", "a measure must be from 0.01 to 50 ml"));
    }
    let mut pour = Pour {
        area_m2: picture.area_m2(),
        share_of_area: ask.share_of_area,
        wet_film_um: ask.wet_film_um,
        loss: ask.loss,
    };
    // The coat is checked first, whichever way the size of the cup is said.
    let mut total_ml = pour_ml(&pour).map_err(|e| refuse(&e))?;
    if let Some(whole) = ask.total_ml {
        pour.loss = loss_of(&pour, whole).map_err(|e| refuse(&e))?;
        total_ml = whole;
    }
    let mix = turned(document, ask, total_ml)?;
    let cup = amounts(&mix, total_ml, &document.materials).map_err(|e| refuse(&e))?;
    let composition =
        document.composition(&mix).map_err(|e| Problem::refused("mix", e.to_string()))?;
    let rounded = round_to(&cup, ask.measure_ml);
    let at = now.timestamp_micros() as f64 / 1e6;
    let laid = if_laid(document, picture, at, ask.wet_film_um, composition);
    let reaches = |state| laid.as_ref().and_then(|l| l.events.at(state)).map(instant);
    let short = match &ask.have {
        None => None,
        Some(have) => Some(short(&mix, have, &pour)?),
    };
    Ok(CupOut {
        total_ml,
        on_picture_ml: on_picture_ml(&pour),
        loss: pour.loss,
        parts: parts_out(&mix, &cup, &rounded.ml),
        rounding_share: rounded.worst_share,
        rounding_ml: rounded.more_ml,
        limits: limits_out(document, picture, &mix),
        laid_at: laid.as_ref().map(|l| instant(l.at)),
        waits: laid.as_ref().is_none_or(|l| l.at > at),
        working_min: working_min(laid.as_ref()),
        touch_dry_at: reaches(FilmState::TouchDry),
        paintable_at: reaches(FilmState::Paintable),
        offers: offers(&mix, document),
        short,
        hazards: hazards(document, &mix),
    })
}

fn make_series(
    document: &StudioDocument,
    picture: &Picture,
    now: DateTime<Utc>,
    ask: &SeriesAsk,
) -> Result<Vec<SeriesCup>, Problem> {
    if !(1..=MOST_CUPS).contains(&ask.cups) {
        let reason = format!("a series has from 1 to {MOST_CUPS} cups, not {}", ask.cups);
        return Err(Problem::refused("cups", reason));
    }
    let ml = Millilitres::try_new(ask.ml).map_err(|e| Problem::refused("ml", e.to_string()))?.get();
    if ask.strong == ask.thin {
        return Err(Problem::refused("thin", "a series needs two different materials"));
    }
    let row = series((&ask.strong, &ask.thin), (ask.from, ask.to), ask.cups)
        .map_err(|e| Problem::refused("from", e.to_string()))?;
    let at = now.timestamp_micros() as f64 / 1e6;
    row.into_iter()
        .map(|mix| {
            let cup = amounts(&mix, ml, &document.materials).map_err(|e| refuse(&e))?;
            let composition =
                document.composition(&mix).map_err(|e| Problem::refused("mix", e.to_string()))?;
            let film = ulvek_core::quantity::WetFilm::try_new(ask.wet_film_um)
                .map_err(|e| refuse(&CupError::Range(e)))?;
            let laid = if_laid(document, picture, at, film.get(), composition);
            let exact: Vec<f64> = cup.iter().map(|a| a.ml).collect();
            Ok(SeriesCup {
                mix: mix_doc(&mix),
                parts: parts_out(&mix, &cup, &exact),
                limits: limits_out(document, picture, &mix),
                working_min: working_min(laid.as_ref()),
                paintable_at: laid
                    .as_ref()
                    .and_then(|l| l.events.at(FilmState::Paintable))
                    .map(instant),
            })
        })
        .collect()
}

fn working_min(laid: Option<&IfLaid>) -> Option<f64> {
    laid.and_then(IfLaid::working_min)
}

fn parts_out(mix: &[Part], cup: &[Amount], rounded_ml: &[f64]) -> Vec<CupPart> {
    mix.iter()
        .zip(cup)
        .zip(rounded_ml)
        .map(|((part, a), rounded_ml)| CupPart {
            material: a.material.clone(),
            parts: part.parts,
            share: a.share,
            ml: a.ml,
            grams: a.grams,
            drops: a.drops,
            rounded_ml: *rounded_ml,
        })
        .collect()
}

fn hazards(document: &StudioDocument, mix: &[Part]) -> Vec<String> {
    let mut found: Vec<String> = Vec::new();
    for part in mix.iter().filter(|p| p.parts > 0.0) {
        let Some(material) = document.material(&part.material) else { continue };
        if let Some(hazard) = &material.hazards {
            let said = format!("{}: {hazard}", material.name);
            if !found.contains(&said) {
                found.push(said);
            }
        }
    }
    found
}

fn short(mix: &[Part], have: &Have, pour: &Pour) -> Result<CupShort, Problem> {
    let far = reach(mix, &have.material, have.ml, pour).map_err(|e| {
        let reason = match e {
            CupError::Unknown(name) => format!("the mix has no \"{name}\""),
            other => other.to_string(),
        };
        Problem::refused("have", reason)
    })?;
    Ok(CupShort {
        total_ml: far.total_ml,
        wet_film_um: far.wet_film_um,
        share_of_area: far.share_of_area,
        enough: far.enough,
    })
}

fn limits_out(document: &StudioDocument, picture: &Picture, mix: &[Part]) -> Vec<CupLimit> {
    let school = document.thinning(picture);
    limits(mix, &document.materials, surface_of(picture), school).iter().map(limit_out).collect()
}

fn limit_out(limit: &Limit) -> CupLimit {
    let (what, why) = match limit.kind {
        LimitKind::Retarder => ("retarder", "above that the film can stay soft [memory]"),
        LimitKind::Water if limit.limit == 0.0 => {
            ("water", "in your school a coat is thinned with medium only [practice]")
        }
        LimitKind::Water => ("water", "above that the film can lift or crack [memory]"),
        LimitKind::Binder => ("binder", "below that the dry film is underbound [memory]"),
    };
    CupLimit {
        what: what.into(),
        share: limit.share,
        limit: limit.limit,
        kept: limit.kept,
        why: why.into(),
    }
}

fn offers(mix: &[Part], document: &StudioDocument) -> Vec<CupOffer> {
    [("thinner", Change::Thinner), ("stronger", Change::Stronger), ("slower", Change::Slower)]
        .into_iter()
        .map(|(change, how)| CupOffer {
            change: change.into(),
            mix: adjust(mix, &document.materials, how).map(|parts| {
                let rounded = |p: f64| (p * 1e4).round() / 1e4;
                parts
                    .into_iter()
                    .map(|p| PartDoc { material: p.material, parts: rounded(p.parts) })
                    .collect()
            }),
        })
        .collect()
}
