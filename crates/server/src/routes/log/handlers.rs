//! The log: what was done on a picture.

use super::wire::{Laid, LogOut};
use crate::extract::{Body, Key};
use crate::problem::Problem;
use crate::routes::picture::handlers::done;
use crate::routes::picture::wire::PictureOut;
use crate::state::App;
use axum::Json;
use axum::extract::State;
use ulvek_core::deeds::{self, LaidFilm, log};

/// Logs a coat that was laid, or a step that was done: the plan moves from what really happened.
#[utoipa::path(post, operation_id = "picture_laid", path = "/api/pictures/{id}/laid", tag = "pictures", params(("id" = Uuid, Path)),
    request_body = Laid,
    responses((status = 200, body = PictureOut)))]
pub async fn laid(
    State(app): State<App>,
    Key(id): Key,
    Body(laid): Body<Laid>,
) -> Result<Json<PictureOut>, Problem> {
    let anyway = laid.anyway.map(|reason| reason.trim().to_owned()).filter(|r| !r.is_empty());
    let (answer, ()) = done(&app, (id, laid.version), move |bench| {
        let entry = deeds::Laid {
            step: laid.step,
            at: laid.at.unwrap_or(bench.now),
            film: LaidFilm {
                wet_film_um: laid.wet_film_um,
                amount_ml: laid.amount_ml,
                cup_after_g: laid.cup_after_g,
            },
            anyway,
        };
        let shots = &bench.photographs;
        Ok((log(&bench.studio, bench.p, &entry, shots, bench.now)?, ()))
    })
    .await?;
    Ok(Json(answer))
}

/// Everything that was entered of a picture, in the order of entry, corrections among it.
#[utoipa::path(get, operation_id = "picture_log", path = "/api/pictures/{id}/log", tag = "pictures", params(("id" = Uuid, Path)),
    responses((status = 200, body = [LogOut])))]
pub async fn read(State(app): State<App>, Key(id): Key) -> Result<Json<Vec<LogOut>>, Problem> {
    let mut tx = app.reading().await?;
    ulvek_store::load_picture(&mut tx, id).await?;
    let log = ulvek_store::log_of(&mut tx, id).await?;
    tx.commit().await?;
    Ok(Json(log.into_iter().map(LogOut::from).collect()))
}
