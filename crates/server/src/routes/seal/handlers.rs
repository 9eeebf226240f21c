//! The gate, the varnish plan, the bench and the record sheet.

use super::wire::{
    ConditionOut, ForwardOut, GateBrief, GateOut, GatesOut, MendedOut, PurposeOut, SealedOut,
    SheetAsked, SheetOut, TroubleFoundIn, TroubleOut, VarnishAsked, VarnishEdit, VarnishOut,
};
use crate::extract::{Asked, Body};
use crate::formats::{ChoiceDoc, PictureDoc, RecordDoc};
use crate::problem::Problem;
use crate::reading::load_around;
use crate::resolved::{InPicture, InStudio};
use crate::routes::photograph::wire::PhotographOut;
use crate::routes::picture::handlers::{Bench, done};
use crate::routes::picture::wire::PictureOut;
use crate::routes::shared::OnVersion;
use crate::routes::view::{Scene, view};
use crate::state::App;
use axum::Json;
use axum::extract::State;
use axum::http::{HeaderMap, HeaderValue, header};
use axum::response::Response;
use ulvek_core::deeds::{find_trouble, inspect, settle_varnish};
use ulvek_core::picture::{CoatFault, Purpose, SealTrouble};
use ulvek_core::quantity::Fault;
use ulvek_core::seal::{PACKING, bench_sheet, choice_of, forward, gate_with, removal};
use ulvek_store::Rendition;

/// Whether each picture of a studio may be sealed, and when.
#[utoipa::path(get, operation_id = "gates", path = "/api/studios/{id}/gates", tag = "seal", params(("id" = Uuid, Path)),
    responses((status = 200, body = GatesOut), (status = 304, description = "nothing changed")))]
pub async fn gates(
    State(mut app): State<App>,
    InStudio(id): InStudio,
    headers: HeaderMap,
) -> Result<Response, Problem> {
    view(&mut app, id, &headers, "gates".into(), |scene| {
        let (stored, now) = (&scene.loaded.stored, scene.now);
        let studio = &stored.studio;
        let mut pictures = scene.app.desks.at_gate(&scene.loaded, |desk, known| {
            let made = desk.plan(now);
            let one = |p: usize| {
                let key = stored.pictures[p].id;
                let taken = scene.loaded.taken(key);
                let gate = gate_with(studio, p, (&made, &taken), now, known)?;
                Ok((gate.turn(), GateBrief::of(&studio.pictures[p], key, &gate)))
            };
            (0..studio.pictures.len()).map(one).collect::<Result<Vec<_>, CoatFault>>()
        })?;
        pictures.sort_by_key(|(turn, _)| *turn);
        let pictures = pictures.into_iter().map(|(_, brief)| brief).collect();
        Ok(GatesOut { now, time_zone: studio.hours.zone().name().to_owned(), pictures })
    })
    .await
}

/// Everything about sealing one picture: its gate, what would bring it forward, its varnish plan,
/// the bench sheet of the next coat, and what comes after.
#[utoipa::path(get, operation_id = "gate", path = "/api/pictures/{id}/gate", tag = "seal", params(("id" = Uuid, Path)),
    responses((status = 200, body = GateOut), (status = 304, description = "nothing changed")))]
pub async fn gate_of(
    State(mut app): State<App>,
    InPicture { id, studio }: InPicture,
    headers: HeaderMap,
) -> Result<Response, Problem> {
    let question = format!("gate {id}");
    view(&mut app, studio, &headers, question, move |scene| {
        scene.loaded.place_of(id).and_then(|p| make_gate(scene, p))
    })
    .await
}

fn make_gate(scene: &Scene, p: usize) -> Result<GateOut, Problem> {
    let (stored, now) = (&scene.loaded.stored, scene.now);
    let studio = &stored.studio;
    let picture = &studio.pictures[p];
    let key = stored.pictures[p].id;
    let shots = scene.loaded.taken(key);
    let (coats, found, sooner) =
        scene.app.desks.at_gate(&scene.loaded, |desk, known| -> Result<_, CoatFault> {
            let made = desk.plan(now);
            let found = gate_with(studio, p, (&made, &shots), now, known)?;
            let sooner = forward(studio, p, (&made, &shots), &found, now, known)?;
            Ok((desk.outlook(p, now)?, found, sooner))
        })?;
    let photographs = scene.loaded.photographs.iter().filter(|f| f.picture_id == key);
    let choice = choice_of(studio, picture);
    let varnish = choice.as_it_stands().plan(studio, picture);
    let sheet = match (&varnish, found.step) {
        (Ok(plan), Some(i)) => Some(bench_sheet(studio, (picture, i), (&choice, plan), &found)),
        _ => None,
    };
    let seal = PictureDoc::of(picture, studio.hours.zone()).seal.unwrap_or_default();
    let purpose = |p: &Purpose| PurposeOut { purpose: *p, coats: p.usual_coats() };
    Ok(GateOut {
        now,
        time_zone: studio.hours.zone().name().to_owned(),
        version: stored.pictures[p].version,
        brief: GateBrief::of(picture, key, &found),
        step: found.step.map(|i| picture.steps[i].id.clone()),
        conditions: found.conditions.iter().map(ConditionOut::of).collect(),
        forward: sooner.into_iter().map(ForwardOut::from).collect(),
        no_varnish: varnish.as_ref().err().map(ToString::to_string),
        varnish: varnish.ok().map(|plan| VarnishOut::of(studio, &choice, &plan)),
        choice: ChoiceDoc::of(&choice),
        purposes: Purpose::WORDS.iter().map(|(_, p)| purpose(p)).collect(),
        habit_isolation: studio.schools.isolation_coat,
        sheet: sheet.as_ref().map(SheetOut::of),
        sealed: SealedOut::all(picture, &coats),
        advice: SealTrouble::WORDS.iter().map(|(_, t)| TroubleOut::from(*t)).collect(),
        inspected_at: picture.seal.inspected_at,
        anyway: seal.anyway,
        troubles: seal.troubles,
        packing: PACKING.iter().map(|line| (*line).to_owned()).collect(),
        removal: removal(studio, picture).to_string(),
        photographs: photographs.map(PhotographOut::from).collect(),
    })
}

/// What a choice of varnish would come to on a picture; nothing is changed.
#[utoipa::path(post, operation_id = "varnish_preview", path = "/api/pictures/{id}/varnish/preview", tag = "seal", params(("id" = Uuid, Path)),
    request_body = VarnishAsked,
    responses((status = 200, body = VarnishOut)))]
pub async fn varnish_preview(
    State(mut app): State<App>,
    InPicture { id, .. }: InPicture,
    Body(asked): Body<VarnishAsked>,
) -> Result<Json<VarnishOut>, Problem> {
    let choice = asked.choice.read();
    let loaded = load_around(&mut app, id).await?;
    let picture = &loaded.studio.pictures[loaded.place_of(id)?];
    let plan = choice
        .plan(&loaded.studio, picture)
        .map_err(|e| Fault::new(e.place(), &e).within("choice"))?;
    Ok(Json(VarnishOut::of(&loaded.studio, &choice, &plan)))
}

/// Settles on a varnish: its coats take the place of the sealing coats that are still to come.
#[utoipa::path(put, operation_id = "varnish_save", path = "/api/pictures/{id}/varnish", tag = "seal", params(("id" = Uuid, Path)),
    request_body = VarnishEdit,
    responses((status = 200, body = PictureOut)))]
pub async fn varnish_save(
    State(mut app): State<App>,
    InPicture { id, .. }: InPicture,
    Body(edit): Body<VarnishEdit>,
) -> Result<Json<PictureOut>, Problem> {
    let choice = edit.choice.read();
    let (answer, ()) = done(&mut app, (id, edit.version), move |bench| {
        Ok((settle_varnish(&bench.studio, bench.p, &choice)?, ()))
    })
    .await?;
    Ok(Json(answer))
}

/// Says that the surface was dusted and looked over just now.
#[utoipa::path(post, operation_id = "inspected", path = "/api/pictures/{id}/inspected", tag = "seal", params(("id" = Uuid, Path)),
    request_body = OnVersion,
    responses((status = 200, body = PictureOut)))]
pub async fn inspected(
    State(mut app): State<App>,
    InPicture { id, .. }: InPicture,
    Body(on): Body<OnVersion>,
) -> Result<Json<PictureOut>, Problem> {
    let looked = |bench: &Bench| Ok((inspect(bench.picture(), bench.now), ()));
    let (answer, ()) = done(&mut app, (id, on.version), looked).await?;
    Ok(Json(answer))
}

/// Keeps trouble found on a sealing coat, and changes the coats to come as it asks.
#[utoipa::path(post, operation_id = "trouble_found", path = "/api/pictures/{id}/troubles", tag = "seal", params(("id" = Uuid, Path)),
    request_body = TroubleFoundIn,
    responses((status = 200, body = MendedOut)))]
pub async fn trouble_found(
    State(mut app): State<App>,
    InPicture { id, .. }: InPicture,
    Body(found): Body<TroubleFoundIn>,
) -> Result<Json<MendedOut>, Problem> {
    let (picture, changed) = done(&mut app, (id, found.version), move |bench| {
        let what = (found.step.as_str(), found.trouble);
        find_trouble(&bench.studio, bench.p, what, bench.now)
    })
    .await?;
    Ok(Json(MendedOut { version: picture.version, changed }))
}

/// The record sheet of a picture: materials, coats, dates, varnish and how it comes off. With
/// `file=true` it is a file to keep, with the photographs in it.
#[utoipa::path(get, operation_id = "record", path = "/api/pictures/{id}/record", tag = "seal",
    params(("id" = Uuid, Path), ("file" = Option<bool>, Query)),
    responses((status = 200, body = RecordDoc)))]
pub async fn record(
    State(mut app): State<App>,
    InPicture { id, .. }: InPicture,
    Asked(asked): Asked<SheetAsked>,
) -> Result<(HeaderMap, Json<RecordDoc>), Problem> {
    let mut conn = app.reading().await?;
    let picture = ulvek_store::load_picture(&mut conn, id).await?;
    let stored = ulvek_store::load_studio(&mut conn, picture.studio).await?;
    let photographs = ulvek_store::photographs_of(&mut conn, id).await?;
    let mut pixels = Vec::new();
    if asked.file {
        for photograph in &photographs {
            let small = Rendition::Small;
            pixels.push(ulvek_store::load_rendition(&mut conn, photograph.id, small).await?);
        }
    }
    conn.commit().await?;
    let p = stored.pictures.iter().position(|s| s.id == id);
    let p = p.ok_or_else(|| Problem::not_found("such picture"))?;
    let shown: Vec<_> = photographs.iter().enumerate().map(|(n, f)| (f, pixels.get(n))).collect();
    let sheet = RecordDoc::of(&stored.studio, p, &shown, app.clock.now());
    let mut headers = HeaderMap::new();
    if asked.file {
        let disposition = HeaderValue::from_static("attachment; filename=\"record.json\"");
        headers.insert(header::CONTENT_DISPOSITION, disposition);
    }
    Ok((headers, Json(sheet)))
}
