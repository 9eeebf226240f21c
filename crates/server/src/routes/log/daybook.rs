//! The day book of a studio: what happened that is about no picture.

use super::told::ToldDoc;
use super::wire::LogOut;
use crate::extract::{Body, Once};
use crate::formats::{HappeningDoc, Moment};
use crate::problem::Problem;
use crate::reading::load;
use crate::resolved::InStudio;
use crate::state::{App, Held};
use axum::Json;
use axum::extract::State;
use chrono::{DateTime, Utc};
use serde::Deserialize;
use std::sync::Arc;
use ulvek_core::deeds::{Told, daybook};
use ulvek_core::quantity::Fault;
use ulvek_core::studio::Studio;
use utoipa::ToSchema;
use uuid::Uuid;

/// Something that happened in the studio.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ToldThere {
    /// When; the moment this arrives when not said.
    #[serde(default)]
    pub at: Option<Moment>,
    /// What: `noted`, `misted` or `session`.
    pub what: ToldDoc,
    /// The material it is about, by its name on the shelf.
    #[serde(default)]
    pub material: Option<String>,
    /// What the painter writes.
    #[serde(default)]
    pub words: String,
}

/// An entry of the day book that is put right or taken back.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RetoldThere {
    /// The entry as it is kept.
    pub entry: HappeningDoc,
    /// What stands there instead; nothing takes it back.
    #[serde(default)]
    pub instead: Option<ToldThere>,
}

impl ToldThere {
    fn read(self, now: DateTime<Utc>) -> Told {
        Told {
            at: self.at.map_or(now, Moment::utc),
            step: None,
            material: self.material,
            place: String::new(),
            words: self.words.trim().replace("\r\n", "\n"),
            what: self.what.read(),
        }
    }
}

/// A transaction in which the shelf of a studio stays as it is, and the studio.
async fn held(app: &mut App, id: Uuid) -> Result<(Held<'_>, Arc<Studio>), Problem> {
    let loaded = load(app, id).await?;
    let mut tx = app.begin().await?;
    if ulvek_store::hold_ground(&mut tx, id).await? != loaded.state.ground() {
        return Err(Problem::in_the_way());
    }
    Ok((tx, loaded.studio.clone()))
}

/// Everything that was entered of the studio about no picture, in the order of entry, corrections among it.
#[utoipa::path(get, operation_id = "studio_daybook", path = "/api/studios/{id}/daybook", tag = "pictures", params(("id" = Uuid, Path)),
    responses((status = 200, body = [LogOut])))]
pub async fn daybook_of(
    State(mut app): State<App>,
    InStudio(id): InStudio,
) -> Result<Json<Vec<LogOut>>, Problem> {
    let mut tx = app.reading().await?;
    ulvek_store::studio_state(&mut tx, id).await?;
    let log = ulvek_store::daybook_of(&mut tx, id).await?;
    tx.commit().await?;
    Ok(Json(log.into_iter().map(LogOut::from).collect()))
}

/// Keeps what happened in the studio that is about no picture: a session, the palette misted, a note about a
/// material.
#[utoipa::path(post, operation_id = "studio_happened", path = "/api/studios/{id}/daybook", tag = "pictures",
    params(("id" = Uuid, Path), ("idempotency-key" = Option<Uuid>, Header)),
    request_body = ToldThere,
    responses((status = 200, body = HappeningDoc)))]
pub async fn enter(
    State(mut app): State<App>,
    InStudio(id): InStudio,
    Once(entry): Once,
    Body(told): Body<ToldThere>,
) -> Result<Json<HappeningDoc>, Problem> {
    let now = app.clock.now();
    let (mut tx, studio) = held(&mut app, id).await?;
    if let Some(entry) = entry
        && ulvek_store::was_sent(&mut tx, entry, ("daybook", id), now).await?
    {
        return Err(Problem::kept_already());
    }
    let new = daybook::enter(&studio, &told.read(now), now)?;
    let shelf = studio.materials.as_slice();
    ulvek_store::enter_in_daybook(&mut tx, id, (&new, shelf), now).await?;
    tx.commit().await?;
    Ok(Json(HappeningDoc::of(&new, studio.hours.zone())))
}

/// Puts an entry of the day book right, or takes it back.
#[utoipa::path(post, operation_id = "studio_retold", path = "/api/studios/{id}/daybook/retold", tag = "pictures", params(("id" = Uuid, Path)),
    request_body = RetoldThere,
    responses((status = 200, body = Option<HappeningDoc>)))]
pub async fn retold(
    State(mut app): State<App>,
    InStudio(id): InStudio,
    Body(asked): Body<RetoldThere>,
) -> Result<Json<Option<HappeningDoc>>, Problem> {
    let now = app.clock.now();
    let (mut tx, studio) = held(&mut app, id).await?;
    let old = asked.entry.read();
    let instead = asked.instead.map(|instead| instead.read(now));
    let instead = instead.map(|told| daybook::put_right(&studio, &old, &told, now)).transpose()?;
    let told = instead.as_ref().map(|new| (new, studio.materials.as_slice()));
    if !ulvek_store::put_right_in_daybook(&mut tx, id, &old, told, now).await? {
        return Err(Fault::new("entry", "that entry is not kept any more").into());
    }
    tx.commit().await?;
    Ok(Json(instead.map(|new| HappeningDoc::of(&new, studio.hours.zone()))))
}
