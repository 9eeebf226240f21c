//! The cup: what a mix takes, what it allows, and what it would do on the picture now. And the bench
//! scale, simulated: it shows what it is told lies on it.

use super::wire::{CupAsk, CupOut, ScaleLoad, ScaleOut, SeriesAsk, SeriesCup};
use crate::compute::Lane;
use crate::extract::Body;
use crate::instruments::Scale;
use crate::problem::Problem;
use crate::resolved::{InPicture, InStudio};
use crate::routes::view::{Scene, answer, asked};
use crate::state::App;
use axum::Json;
use axum::extract::State;
use axum::response::Response;
use std::sync::PoisonError;
use ulvek_core::planner::cup_place;
use ulvek_core::studio::CupPlace;
use uuid::Uuid;

/// Computes a cup for a picture: amounts, limits, and what it would do if laid as soon as that is
/// safe. Stores nothing.
#[utoipa::path(post, path = "/api/pictures/{id}/cup", tag = "computed", params(("id" = Uuid, Path)),
    request_body = CupAsk, responses((status = 200, body = CupOut)))]
pub async fn cup(
    State(mut app): State<App>,
    InPicture { id, studio }: InPicture,
    Body(ask): Body<CupAsk>,
) -> Result<Response, Problem> {
    let question = asked(&format!("cup {id}"), &ask)?;
    answer(&mut app, (studio, Lane::Quick), question, move |scene| {
        let place = place(scene, id, ask.step.as_deref())?;
        let cup = scene.loaded.studio.cupful(scene.loaded.place_of(id)?, &ask.read(), &place)?;
        Ok(CupOut::of(&cup))
    })
    .await
}

/// Where, when and on what a cup for the step called `step` is laid.
fn place(scene: &Scene, id: Uuid, step: Option<&str>) -> Result<CupPlace, Problem> {
    let (studio, now) = (&scene.loaded.studio, scene.now);
    let p = scene.loaded.place_of(id)?;
    let Some(step) = step else { return Ok(CupPlace::now(studio, p, None, now)?) };
    let i = studio.pictures[p].step_called(step)?;
    let plan = || scene.app.desks.at(&scene.loaded, |desk| desk.plan(now));
    Ok(cup_place(studio, plan, (p, i), now)?)
}

/// A row of cups from light to strong, each with what a coat of it would do. Stores nothing.
#[utoipa::path(post, path = "/api/pictures/{id}/cup/series", tag = "computed", params(("id" = Uuid, Path)),
    request_body = SeriesAsk, responses((status = 200, body = [SeriesCup])))]
pub async fn cup_series(
    State(mut app): State<App>,
    InPicture { id, studio }: InPicture,
    Body(ask): Body<SeriesAsk>,
) -> Result<Response, Problem> {
    let question = asked(&format!("series {id}"), &ask)?;
    answer(&mut app, (studio, Lane::Quick), question, move |scene| {
        let studio = &scene.loaded.studio;
        let place = place(scene, id, ask.step.as_deref())?;
        let row = studio.series(scene.loaded.place_of(id)?, &ask.read(), &place)?;
        let cup = |c: &ulvek_core::studio::SeriesCup| {
            SeriesCup::of(&c.mix, &c.amounts, &c.limits, c.laid.as_ref())
        };
        Ok(row.iter().map(cup).collect::<Vec<_>>())
    })
    .await
}

/// What the scale of `studio` shows after `act`.
fn with(
    app: &App,
    studio: Uuid,
    act: impl FnOnce(&mut Scale) -> Result<(), Problem>,
) -> Result<Json<ScaleOut>, Problem> {
    let mut scales = app.scales.lock().unwrap_or_else(PoisonError::into_inner);
    let scale = scales.entry(studio).or_default();
    act(scale)?;
    Ok(Json(ScaleOut {
        shows_g: scale.shows_g(),
        load_g: scale.load_g(),
        by: scale.by().map(str::to_owned),
    }))
}

/// What the scale shows now.
#[utoipa::path(get, operation_id = "scale_read", path = "/api/studios/{id}/scale", tag = "instruments", params(("id" = Uuid, Path)),
    responses((status = 200, body = ScaleOut)))]
pub async fn scale_read(
    State(app): State<App>,
    InStudio(id): InStudio,
) -> Result<Json<ScaleOut>, Problem> {
    with(&app, id, |_| Ok(()))
}

/// Puts something onto the simulated scale in place of what was there.
#[utoipa::path(put, operation_id = "scale_load", path = "/api/studios/{id}/scale", tag = "instruments", params(("id" = Uuid, Path)), request_body = ScaleLoad,
    responses((status = 200, body = ScaleOut)))]
pub async fn scale_load(
    State(app): State<App>,
    InStudio(id): InStudio,
    Body(load): Body<ScaleLoad>,
) -> Result<Json<ScaleOut>, Problem> {
    with(&app, id, |scale| {
        scale.put(load.load_g, None).map_err(|e| Problem::refused("load_g", e.to_string()))
    })
}

/// Sets the scale to zero with what lies on it.
#[utoipa::path(post, operation_id = "scale_tare", path = "/api/studios/{id}/scale/tare", tag = "instruments", params(("id" = Uuid, Path)),
    responses((status = 200, body = ScaleOut)))]
pub async fn scale_tare(
    State(app): State<App>,
    InStudio(id): InStudio,
) -> Result<Json<ScaleOut>, Problem> {
    with(&app, id, |scale| {
        scale.tare();
        Ok(())
    })
}
