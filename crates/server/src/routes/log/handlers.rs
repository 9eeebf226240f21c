//! The log: what was done on a picture.

use super::found::{Bring, BroughtOut, LogPage, LogQuery};
use super::planned::Before;
use super::told::{HappenedOut, Retold, Told};
use super::wire::{AgainstOut, Laid, LearnedOut, LogOut, Retouched, Touched, TouchedOut};
use crate::compute::aside;
use crate::desks::Desks;
use crate::extract::{Asked, Body, Once, Raw};
use crate::formats::{HappeningDoc, Moment, read_log, write_log};
use crate::problem::Problem;
use crate::reading::{load, load_around};
use crate::resolved::{InPicture, InStudio};
use crate::routes::picture::handlers::{Bench, done, done_once};
use crate::routes::picture::wire::PictureOut;
use crate::routes::view::{Of, view};
use crate::state::App;
use axum::Json;
use axum::extract::State;
use axum::http::{HeaderMap, header};
use axum::response::{IntoResponse, Response};
use std::sync::Arc;
use ulvek_core::deeds::{self, Deed, log};
use ulvek_core::picture::TouchTest;
use ulvek_core::quantity::Fault;
use ulvek_store::LogAsked;

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
    let too_early = aside(&mut app, move || deeds::too_early(&loaded.studio, p, &entry)).await??;
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
    let desks = app.desks.clone();
    let (picture, (entry, said, moves)) =
        done_once(&mut app, (once, "happened"), (id, told.version), move |bench| {
            let told = told.read(bench.now);
            let zone = bench.studio.hours.zone();
            let (deed, new, said) = deeds::happen(&bench.studio, bench.p, &told, bench.now)?;
            // A note moves nothing.
            let before = &bench.studio.pictures[bench.p];
            if (&before.steps, &before.tests) == (&deed.picture.steps, &deed.picture.tests) {
                return Ok((deed, (HappeningDoc::of(&new, zone), said, Vec::new())));
            }
            let (deed, moves) = moved(&desks, bench, deed)?;
            Ok((deed, (HappeningDoc::of(&new, zone), said, moves)))
        })
        .await?;
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
        aside(&mut app, move || {
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
    let desks = app.desks.clone();
    let (picture, moves) =
        done_once(&mut app, (once, "touched"), (id, touched.version), move |bench| {
            let test = TouchTest {
                at: touched.at.map_or(bench.now, Moment::utc),
                step: touched.step,
                felt: touched.felt,
            };
            let deed = deeds::touch(&bench.studio, bench.p, test, bench.now)?;
            moved(&desks, bench, deed)
        })
        .await?;
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
    let desks = app.desks.clone();
    let (picture, moves) = done(&mut app, (id, asked.version), move |bench| {
        let (old, new) = (asked.test.read(), asked.instead.map(|doc| doc.read()));
        let deed = deeds::retouch(&bench.studio, bench.p, (&old, new), bench.now)?;
        moved(&desks, bench, deed)
    })
    .await?;
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
    view(&mut app, Of::Studio(id), &headers, "learned".into(), |scene| {
        let stored = &scene.loaded.stored;
        let mut studio = stored.studio.clone();
        let learned = studio.learn();
        Ok(LearnedOut::of(stored, &learned))
    })
    .await
}

/// What `deed` moves in the studio that it is done in, and what a test that it brings says.
fn moved(desks: &Desks, bench: &Bench, deed: Deed) -> Result<(Deed, Vec<String>), Fault> {
    let mut after = bench.studio.as_ref().clone();
    after.pictures[bench.p] = deed.picture.clone();
    let learned = after.learn();
    let known = &bench.studio.pictures[bench.p].tests;
    let brought = deed.picture.tests.iter().find(|test| !known.contains(test));
    let found = brought.map(|test| (test, &learned));
    let both = (bench.studio.clone(), Arc::new(after));
    let moves = desks.at_both(bench.studio_id, both, |before, after| {
        deeds::what_moves(before, after, bench.p, found, bench.now)
    });
    Ok((deed, moves?))
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
