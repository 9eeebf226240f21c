//! The cup: what a mix takes, what it allows, and what it would do on the picture now.

use super::wire::instant;
use crate::extract::{Body, Key};
use crate::formats::PartDoc;
use crate::problem::Problem;
use crate::state::{App, compute};
use axum::Json;
use axum::extract::State;
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};
use ulvek_core::cup::{
    Change, CupError, Limit, LimitKind, Pour, Surface, adjust, amounts, if_laid, limits, most_from,
    pour_ml, round_to,
};
use ulvek_core::film::FilmState;
use ulvek_core::picture::{Part, Picture};
use ulvek_core::quantity::{OutOfRange, Parts};
use ulvek_core::studio::StudioDocument;
use utoipa::ToSchema;

/// Smallest and largest measure a cup is rounded to [ml]. [practice] a drop to a spoon
const MEASURES: std::ops::RangeInclusive<f64> = 0.01..=50.0;

/// A cup that is asked about.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CupAsk {
    /// What is in it, parts by volume.
    pub mix: Vec<PartDoc>,
    /// Wet film of the coat [um].
    pub wet_film_um: f64,
    /// Share of the picture's area it covers.
    pub share_of_area: f64,
    /// Share of the cup that stays in cup and brush.
    pub loss: f64,
    /// What the bench can measure [ml].
    pub measure_ml: f64,
    /// A material of which there is only so much.
    #[serde(default)]
    pub have: Option<Have>,
}

/// What is left of a material.
#[derive(Deserialize, ToSchema)]
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
}

/// Computes a cup for a picture: amounts, limits, and what it would do if laid as soon as that is
/// safe. Stores nothing.
#[utoipa::path(post, path = "/api/pictures/{id}/cup", tag = "computed", params(("id" = Uuid, Path)),
    request_body = CupAsk,
    responses((status = 200, body = CupOut), (status = 404, body = Problem), (status = 422, body = Problem)))]
pub async fn cup(
    State(app): State<App>,
    Key(id): Key,
    Body(ask): Body<CupAsk>,
) -> Result<Json<CupOut>, Problem> {
    let mut conn = app.pool.acquire().await?;
    let stored = ulvek_store::load_picture(&mut conn, id).await?;
    let studio = ulvek_store::load_studio(&mut conn, stored.studio).await?;
    drop(conn);
    let now = app.clock.now();
    let picture = stored.picture;
    compute(move || make(&studio.document, &picture, now, &ask)).await?.map(Json)
}

fn refuse(error: &CupError) -> Problem {
    let place = match error {
        CupError::Range(OutOfRange { range, .. }) if range.name == "wet film thickness" => {
            "wet_film_um"
        }
        CupError::Range(_) => "share_of_area",
        CupError::AllLost => "loss",
        CupError::Nothing | CupError::Unknown(_) => "mix",
    };
    Problem::refused(place, error.to_string())
}

fn make(
    document: &StudioDocument,
    picture: &Picture,
    now: DateTime<Utc>,
    ask: &CupAsk,
) -> Result<CupOut, Problem> {
    let mut mix = Vec::with_capacity(ask.mix.len());
    for (i, part) in ask.mix.iter().enumerate() {
        let parts = Parts::try_new(part.parts)
            .map_err(|e| Problem::refused(format!("mix[{i}].parts"), e.to_string()))?;
        mix.push(Part { material: part.material.clone(), parts: parts.get() });
    }
    if !MEASURES.contains(&ask.measure_ml) {
        return Err(Problem::refused("measure_ml", "a measure must be from 0.01 to 50 ml"));
    }
    let pour = Pour {
        area_m2: picture.area_m2(),
        share_of_area: ask.share_of_area,
        wet_film_um: ask.wet_film_um,
        loss: ask.loss,
    };
    let total_ml = pour_ml(&pour).map_err(|e| refuse(&e))?;
    let cup = amounts(&mix, total_ml, &document.materials).map_err(|e| refuse(&e))?;
    let composition =
        document.composition(&mix).map_err(|e| Problem::refused("mix", e.to_string()))?;
    let rounded = round_to(&cup, ask.measure_ml);
    let at = now.timestamp_micros() as f64 / 1e6;
    let laid = if_laid(document, picture, at, ask.wet_film_um, composition);
    let reaches = |state| laid.as_ref().and_then(|l| l.events.at(state));
    let bare = picture.steps.iter().all(|s| s.laid_at.is_none() || s.mix.is_empty());
    let surface =
        if bare && picture.absorbs_um > 0.0 { Surface::Absorbent } else { Surface::Sealed };
    let school = document.schools.thinning;
    let short = match &ask.have {
        None => None,
        Some(have) => Some(short(&mix, have, &pour, total_ml)?),
    };
    Ok(CupOut {
        total_ml,
        on_picture_ml: total_ml * (1.0 - ask.loss),
        parts: cup
            .iter()
            .zip(&rounded.ml)
            .map(|(a, rounded_ml)| CupPart {
                material: a.material.clone(),
                share: a.share,
                ml: a.ml,
                grams: a.grams,
                drops: a.drops,
                rounded_ml: *rounded_ml,
            })
            .collect(),
        rounding_share: rounded.worst_share,
        rounding_ml: rounded.more_ml,
        limits: limits(&mix, &document.materials, surface, school).iter().map(limit_out).collect(),
        laid_at: laid.as_ref().map(|l| instant(l.at)),
        waits: laid.as_ref().is_none_or(|l| l.at > at),
        working_min: reaches(FilmState::Setting)
            .zip(laid.as_ref())
            .map(|(t, laid)| (t - laid.at) / 60.0),
        touch_dry_at: reaches(FilmState::TouchDry).map(instant),
        paintable_at: reaches(FilmState::Paintable).map(instant),
        offers: offers(&mix, document),
        short,
    })
}

fn short(mix: &[Part], have: &Have, pour: &Pour, total_ml: f64) -> Result<CupShort, Problem> {
    let most = most_from(mix, &have.material, have.ml).map_err(|e| {
        let reason = match e {
            CupError::Unknown(name) => format!("the mix has no \"{name}\""),
            other => other.to_string(),
        };
        Problem::refused("have", reason)
    })?;
    let reach = (most / total_ml).min(1.0);
    Ok(CupShort {
        total_ml: most.min(total_ml),
        wet_film_um: pour.wet_film_um * reach,
        share_of_area: pour.share_of_area * reach,
        enough: most >= total_ml,
    })
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
