//! The log: what was done on a picture.

use super::wire::{Laid, LearnedOut, LogOut, Retouched, Touched, TouchedOut};
use crate::extract::{Body, Key};
use crate::problem::Problem;
use crate::routes::picture::handlers::{Bench, done};
use crate::routes::picture::wire::PictureOut;
use crate::routes::view::{Of, view};
use crate::state::App;
use axum::Json;
use axum::extract::State;
use axum::http::HeaderMap;
use axum::response::Response;
use ulvek_core::deeds::{self, Deed, LaidFilm, log};
use ulvek_core::picture::TouchTest;
use ulvek_core::quantity::Fault;

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

/// Keeps what a fingertip felt on a coat: the plan moves at once, and says what moved.
#[utoipa::path(post, operation_id = "picture_touched", path = "/api/pictures/{id}/touched", tag = "pictures", params(("id" = Uuid, Path)),
    request_body = Touched,
    responses((status = 200, body = TouchedOut)))]
pub async fn touched(
    State(app): State<App>,
    Key(id): Key,
    Body(touched): Body<Touched>,
) -> Result<Json<TouchedOut>, Problem> {
    let (picture, moves) = done(&app, (id, touched.version), move |bench| {
        let test = TouchTest {
            at: touched.at.unwrap_or(bench.now),
            step: touched.step,
            felt: touched.felt,
        };
        let deed = deeds::touch(&bench.studio, bench.p, test, bench.now)?;
        moved(bench, deed)
    })
    .await?;
    Ok(Json(TouchedOut { picture, moves }))
}

/// Puts a test right, or takes it back; the plan moves as if it had been so from the beginning.
#[utoipa::path(post, operation_id = "picture_retouched", path = "/api/pictures/{id}/retouched", tag = "pictures", params(("id" = Uuid, Path)),
    request_body = Retouched,
    responses((status = 200, body = TouchedOut)))]
pub async fn retouched(
    State(app): State<App>,
    Key(id): Key,
    Body(asked): Body<Retouched>,
) -> Result<Json<TouchedOut>, Problem> {
    let (picture, moves) = done(&app, (id, asked.version), move |bench| {
        let (old, new) = (asked.test.read(), asked.instead.map(|doc| doc.read()));
        let deed = deeds::retouch(&bench.studio, bench.p, (&old, new), bench.now)?;
        moved(bench, deed)
    })
    .await?;
    Ok(Json(TouchedOut { picture, moves }))
}

/// How a studio differs from the book, by its touch tests: what was predicted, what was seen.
#[utoipa::path(get, operation_id = "studio_learned", path = "/api/studios/{id}/learned", tag = "computed", params(("id" = Uuid, Path)),
    responses((status = 200, body = LearnedOut), (status = 304, description = "nothing changed")))]
pub async fn learned(
    State(app): State<App>,
    Key(id): Key,
    headers: HeaderMap,
) -> Result<Response, Problem> {
    view(&app, Of::Studio(id), &headers, "learned".into(), |scene| {
        let stored = &scene.loaded.stored;
        let mut studio = stored.studio.clone();
        let learned = studio.learn();
        Ok(LearnedOut::of(stored, &learned))
    })
    .await
}

/// What `deed` moves in the studio that it is done in.
fn moved(bench: &Bench, deed: Deed) -> Result<(Deed, Vec<String>), Fault> {
    let mut after = bench.studio.clone();
    after.pictures[bench.p] = deed.picture.clone();
    after.learn();
    let moves = deeds::what_moves(&bench.studio, &after, bench.p, bench.now)?;
    Ok((deed, moves))
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
