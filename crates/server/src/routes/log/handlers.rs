//! The log: what was done on a picture.

use super::found::{Bring, BroughtOut, LogPage, LogQuery};
use super::planned::Before;
use super::told::{HappenedOut, Retold, Told};
use super::wire::{AgainstOut, Laid, LearnedOut, LogOut, Retouched, Touched, TouchedOut};
use crate::compute::{Answer, Lane, Progress};
use crate::desks::Loaded;
use crate::extract::{Asked, Body, Once, Raw};
use crate::formats::{HappeningDoc, Moment, read_log, write_log};
use crate::problem::Problem;
use crate::reading::{load, load_around};
use crate::resolved::{InPicture, InStudio};
use crate::routes::picture::handlers::{done, done_once};
use crate::routes::picture::wire::PictureOut;
use crate::routes::view::{key_of, view};
use crate::state::App;
use axum::Json;
use axum::extract::State;
use axum::http::{HeaderMap, header};
use axum::response::{IntoResponse, Response};
use std::sync::Arc;
use std::time::Duration;
use ulvek_core::deeds::{self, log};
use ulvek_core::picture::TouchTest;
use ulvek_core::quantity::Fault;
use ulvek_store::LogAsked;
use uuid::Uuid;

/// Entries of a table at most. [practice] a long life of evenings
const MOST_IN_TABLE: u32 = 200_000;

/// Logs a coat that was laid, or a step that was done: the plan moves from what really happened.
#[utoipa::path(post, operation_id = "picture_laid", path = "/api/pictures/{id}/laid", tag = "pictures",
    params(("id" = Uuid, Path), ("idempotency-key" = Option<Uuid>, Header)),
    request_body = Laid,
    responses((status = 200, body = PictureOut)))]
pub async fn laid(
    State(mut app): State<App>,
    InPicture { id, .. }: InPicture,
    once: Once,
    Body(laid): Body<Laid>,
) -> Result<Json<PictureOut>, Problem> {
    let (answer, before) = done_once(&mut app, (once, "laid"), (id, laid.version), move |bench| {
        let entry = laid.read(bench.now);
        let shots = &bench.photographs;
        let deed = log(&bench.studio, bench.p, &entry, shots, bench.now)?;
        Ok((deed, Before::of(bench, &entry)))
    })
    .await?;
    if let Some(before) = before {
        // It takes a plan: whoever logs a coat does not wait for it.
        tokio::spawn(before.keep_planned(app, (answer.studio, id)));
    }
    Ok(Json(answer))
}

/// What the film says against a coat as it is about to be logged or put right; nothing is kept.
#[utoipa::path(post, operation_id = "picture_laid_preview", path = "/api/pictures/{id}/laid/preview", tag = "pictures", params(("id" = Uuid, Path)),
    request_body = Laid,
    responses((status = 200, body = AgainstOut)))]
pub async fn laid_preview(
    State(mut app): State<App>,
    InPicture { id, .. }: InPicture,
    Body(laid): Body<Laid>,
) -> Result<Json<AgainstOut>, Problem> {
    let entry = laid.read(app.clock.now());
    let loaded = load_around(&mut app, id).await?;
    let p = loaded.place_of(id)?;
    let too_early = app.aside(move || deeds::too_early(&loaded.studio, p, &entry)).await??;
    Ok(Json(AgainstOut { too_early }))
}

/// Keeps what happened on a picture beside its coats: a note, a coat wiped off, sanding, what went wrong. What
/// to do now, what was changed and what moves is said.
#[utoipa::path(post, operation_id = "picture_happened", path = "/api/pictures/{id}/happened", tag = "pictures",
    params(("id" = Uuid, Path), ("idempotency-key" = Option<Uuid>, Header)),
    request_body = Told,
    responses((status = 200, body = HappenedOut)))]
pub async fn happened(
    State(mut app): State<App>,
    InPicture { id, .. }: InPicture,
    once: Once,
    Body(told): Body<Told>,
) -> Result<Json<HappenedOut>, Problem> {
    let before = load_around(&mut app, id).await?;
    let (picture, (entry, said)) =
        done_once(&mut app, (once, "happened"), (id, told.version), move |bench| {
            let told = told.read(bench.now);
            let zone = bench.studio.hours.zone();
            let (deed, new, said) = deeds::happen(&bench.studio, bench.p, &told, bench.now)?;
            Ok((deed, (HappeningDoc::of(&new, zone), said)))
        })
        .await?;
    let moves = moves_since(&mut app, before, id).await;
    Ok(Json(HappenedOut { picture, entry, said, moves }))
}

/// Puts right what is said of an entry, or takes it back.
#[utoipa::path(post, operation_id = "picture_retold", path = "/api/pictures/{id}/retold", tag = "pictures", params(("id" = Uuid, Path)),
    request_body = Retold,
    responses((status = 200, body = PictureOut)))]
pub async fn retold(
    State(mut app): State<App>,
    InPicture { id, .. }: InPicture,
    Body(asked): Body<Retold>,
) -> Result<Json<PictureOut>, Problem> {
    let (answer, ()) = done(&mut app, (id, asked.version), move |bench| {
        let old = asked.entry.read();
        let instead = asked.instead.map(|instead| instead.read(&old));
        let told = (&old, instead.as_ref());
        Ok((deeds::retell(&bench.studio, bench.p, told, bench.now)?, ()))
    })
    .await?;
    Ok(Json(answer))
}

/// The log of a studio, all pictures, the last done first: what stands and fits to what is looked for.
#[utoipa::path(get, operation_id = "studio_log", path = "/api/studios/{id}/log", tag = "pictures",
    params(("id" = Uuid, Path), ("words" = Option<String>, Query), ("picture" = Option<Uuid>, Query),
           ("kind" = Option<String>, Query), ("material" = Option<String>, Query),
           ("from" = Option<DateTime<Utc>>, Query), ("to" = Option<DateTime<Utc>>, Query),
           ("skip" = Option<u32>, Query), ("take" = Option<u32>, Query)),
    responses((status = 200, body = LogPage)))]
pub async fn search(
    State(mut app): State<App>,
    InStudio(id): InStudio,
    Asked(asked): Asked<LogQuery>,
) -> Result<Json<LogPage>, Problem> {
    let asked = asked.read()?;
    // Kept in memory as long as nothing of it changes: reading 20 000 entries anew takes longest.
    let loaded = load(&mut app, id).await?;
    let mut reading = app.reading().await?;
    let found = ulvek_store::search_log(&mut reading, id, &asked).await?;
    reading.commit().await?;
    Ok(Json(LogPage::of(&loaded.stored, found)))
}

/// The log of a studio as a table (RFC 4180): what stands and fits to what is looked for.
#[utoipa::path(get, operation_id = "studio_log_table", path = "/api/studios/{id}/log.csv", tag = "pictures",
    params(("id" = Uuid, Path), ("words" = Option<String>, Query), ("picture" = Option<Uuid>, Query),
           ("kind" = Option<String>, Query), ("material" = Option<String>, Query),
           ("from" = Option<DateTime<Utc>>, Query), ("to" = Option<DateTime<Utc>>, Query)),
    responses((status = 200, content_type = "text/csv", body = String)))]
pub async fn table(
    State(mut app): State<App>,
    InStudio(id): InStudio,
    Asked(asked): Asked<LogQuery>,
) -> Result<impl IntoResponse, Problem> {
    let asked = LogAsked { page: (0, MOST_IN_TABLE), ..asked.read()? };
    let mut reading = app.reading().await?;
    let stored = ulvek_store::load_studio(&mut reading, id).await?;
    let found = ulvek_store::search_log(&mut reading, id, &asked).await?;
    reading.commit().await?;
    let zone = stored.studio.hours.zone();
    let page = LogPage::of(&stored, found);
    let text = write_log(page.entries.iter().map(|entry| entry.row(zone)));
    let text = text.map_err(|_| Problem::internal())?;
    let headers = [
        (header::CONTENT_TYPE, "text/csv; charset=utf-8"),
        (header::CONTENT_DISPOSITION, "attachment; filename=\"log.csv\""),
    ];
    Ok((headers, text))
}

/// Looks at a table of notes and troubles, and keeps its good rows when that is asked for: all of them at
/// once. Every bad row is told with its line and the reason.
#[utoipa::path(post, operation_id = "studio_log_bring", path = "/api/studios/{id}/log.csv", tag = "pictures",
    params(("id" = Uuid, Path), ("keep" = Option<bool>, Query)),
    request_body(content = String, content_type = "application/octet-stream"),
    responses((status = 200, body = BroughtOut)))]
pub async fn bring(
    State(mut app): State<App>,
    InStudio(id): InStudio,
    Asked(asked): Asked<Bring>,
    Raw(bytes): Raw,
) -> Result<Json<BroughtOut>, Problem> {
    let text = String::from_utf8(bytes.to_vec())
        .map_err(|_| Problem::refused("csv", "the file is not a table in UTF-8"))?;
    let now = app.clock.now();
    let loaded = load(&mut app, id).await?;
    let stored = &loaded.stored;
    let (after, answer) = {
        let studio = loaded.studio.clone();
        app.aside(move || {
            let lines = read_log(&text, &studio, studio.hours.zone())?;
            let good: Vec<_> = lines.iter().filter_map(|l| l.told.as_ref().ok().cloned()).collect();
            let (after, kept) = deeds::happen_all(&studio, &good, now);
            Ok::<_, Fault>((after, BroughtOut::of(&lines, kept, asked.keep)))
        })
        .await??
    };
    if asked.keep {
        let mut tx = app.begin().await?;
        if ulvek_store::hold_ground(&mut tx, id).await? != loaded.state.ground() {
            return Err(Problem::in_the_way());
        }
        let before = &stored.studio.pictures;
        for (p, picture) in after.pictures.iter().enumerate().filter(|(p, a)| **a != before[*p]) {
            let (key, version) = (stored.pictures[p].id, stored.pictures[p].version);
            let label = "bring a table of entries";
            ulvek_store::save_picture(&mut tx, key, version, picture, label, now).await?;
        }
        tx.commit().await?;
    }
    Ok(Json(answer))
}

/// Keeps what a fingertip felt on a coat: the plan moves at once, and says what moved.
#[utoipa::path(post, operation_id = "picture_touched", path = "/api/pictures/{id}/touched", tag = "pictures",
    params(("id" = Uuid, Path), ("idempotency-key" = Option<Uuid>, Header)),
    request_body = Touched,
    responses((status = 200, body = TouchedOut)))]
pub async fn touched(
    State(mut app): State<App>,
    InPicture { id, .. }: InPicture,
    once: Once,
    Body(touched): Body<Touched>,
) -> Result<Json<TouchedOut>, Problem> {
    let before = load_around(&mut app, id).await?;
    let (picture, ()) =
        done_once(&mut app, (once, "touched"), (id, touched.version), move |bench| {
            let test = TouchTest {
                at: touched.at.map_or(bench.now, Moment::utc),
                step: touched.step,
                felt: touched.felt,
            };
            Ok((deeds::touch(&bench.studio, bench.p, test, bench.now)?, ()))
        })
        .await?;
    let moves = moves_since(&mut app, before, id).await;
    Ok(Json(TouchedOut { picture, moves }))
}

/// Puts a test right, or takes it back; the plan moves as if it had been so from the beginning.
#[utoipa::path(post, operation_id = "picture_retouched", path = "/api/pictures/{id}/retouched", tag = "pictures", params(("id" = Uuid, Path)),
    request_body = Retouched,
    responses((status = 200, body = TouchedOut)))]
pub async fn retouched(
    State(mut app): State<App>,
    InPicture { id, .. }: InPicture,
    Body(asked): Body<Retouched>,
) -> Result<Json<TouchedOut>, Problem> {
    let before = load_around(&mut app, id).await?;
    let (picture, ()) = done(&mut app, (id, asked.version), move |bench| {
        let (old, new) = (asked.test.read(), asked.instead.map(|doc| doc.read()));
        Ok((deeds::retouch(&bench.studio, bench.p, (&old, new), bench.now)?, ()))
    })
    .await?;
    let moves = moves_since(&mut app, before, id).await;
    Ok(Json(TouchedOut { picture, moves }))
}

/// How a studio differs from the book, by its touch tests: what was predicted, what was seen.
#[utoipa::path(get, operation_id = "studio_learned", path = "/api/studios/{id}/learned", tag = "computed", params(("id" = Uuid, Path)),
    responses((status = 200, body = LearnedOut), (status = 304, description = "nothing changed")))]
pub async fn learned(
    State(mut app): State<App>,
    InStudio(id): InStudio,
    headers: HeaderMap,
) -> Result<Response, Problem> {
    view(&mut app, id, &headers, "learned".into(), |scene| {
        Ok(LearnedOut::of(&scene.loaded.stored, &scene.loaded.learned))
    })
    .await
}

/// How long whoever enters something waits to hear what it moves [ms]: it is kept already. [practice] A build for
/// tests computes some twenty times slower.
const MOVES_MS: u64 = if cfg!(debug_assertions) { 30_000 } else { 600 };
/// What is said when that takes longer.
const STILL_COUNTED: &str =
    "What this moves is still being worked out: the plan shows it in a moment.";

/// What an entry about picture `id` moved in its studio, which was as `before`, and what a test that it brought
/// says. In a large studio that takes longer than a painter waits; the plan then shows it. The entry is kept, so
/// whatever goes wrong here is no refusal of it.
async fn moves_since(app: &mut App, before: Arc<Loaded>, id: Uuid) -> Vec<String> {
    counted(app, before, id).await.unwrap_or_else(|problem| {
        tracing::warn!(?problem, "what an entry moves is not worked out");
        vec![STILL_COUNTED.to_owned()]
    })
}

async fn counted(app: &mut App, before: Arc<Loaded>, id: Uuid) -> Result<Vec<String>, Problem> {
    let after = load_around(app, id).await?;
    let (was, is) = (before.place_of(id)?, after.place_of(id)?);
    let (old, new) = (&before.studio.pictures[was], &after.studio.pictures[is]);
    // A note moves nothing.
    if (&old.steps, &old.tests) == (&new.steps, &new.tests) || was != is {
        return Ok(Vec::new());
    }
    let now = app.clock.now();
    let key = key_of(&after, now, &format!("moves {id}"));
    let desks = app.desks.clone();
    let work = move |_: &Progress| {
        let known = &before.studio.pictures[was].tests;
        let tests = &after.studio.pictures[is].tests;
        let found =
            tests.iter().find(|test| !known.contains(test)).map(|test| (test, &after.learned));
        let moves = desks.at_both((&before, &after), |before, after| {
            deeds::what_moves(before, after, is, found, now)
        });
        (0, moves)
    };
    let patience = Duration::from_millis(MOVES_MS);
    match app.computing().ask_or_leave(patience, (key, Lane::View), work).await? {
        Answer::Ready(moves) => Ok(moves.as_ref().clone()?),
        Answer::Going(_) => Ok(vec![STILL_COUNTED.to_owned()]),
    }
}

/// Everything that was entered of a picture, in the order of entry, corrections among it.
#[utoipa::path(get, operation_id = "picture_log", path = "/api/pictures/{id}/log", tag = "pictures", params(("id" = Uuid, Path)),
    responses((status = 200, body = [LogOut])))]
pub async fn read(
    State(mut app): State<App>,
    InPicture { id, .. }: InPicture,
) -> Result<Json<Vec<LogOut>>, Problem> {
    let mut tx = app.reading().await?;
    ulvek_store::load_picture(&mut tx, id).await?;
    let log = ulvek_store::log_of(&mut tx, id).await?;
    tx.commit().await?;
    Ok(Json(log.into_iter().map(LogOut::from).collect()))
}
