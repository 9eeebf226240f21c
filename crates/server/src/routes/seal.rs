//! The gate, the varnish plan and the bench.

use super::photographs::{PhotographOut, photograph_out};
use super::pictures::{reread, with_studio};
use super::seal_wire::{
    ConditionOut, ForwardOut, GateBrief, GateOut, GatesOut, MendedOut, PurposeOut, SealedOut,
    SheetLineOut, SheetOut, TroubleFoundIn, TroubleOut, VarnishAsked, VarnishCoatOut, VarnishEdit,
    VarnishOut,
};
use super::view::{Of, Scene, view};
use super::wire::{OnVersion, PictureOut, SpanOut, instant};
use crate::desks::load_around;
use crate::extract::{Body, Key};
use crate::formats::{check_choice, choice_doc, picture_doc};
use crate::problem::Problem;
use crate::state::{App, commit};
use axum::Json;
use axum::extract::State;
use axum::http::HeaderMap;
use axum::response::Response;
use chrono::{DateTime, Utc};
use ulvek_core::film::FilmState;
use ulvek_core::picture::Picture;
use ulvek_core::planner::{CoatOutlook, Request, plan};
use ulvek_core::seal::{
    Condition, Gate, PACKING, Purpose, SealTrouble, Sheet, SheetLine, TroubleFound, VarnishChoice,
    VarnishError, VarnishPlan, bench_sheet, choice_of, forward, gate, gate_with, removal,
    with_varnish,
};
use ulvek_core::studio::StudioDocument;
use ulvek_store::{Photograph, StoredStudio};

fn condition_out(condition: &Condition) -> ConditionOut {
    ConditionOut {
        id: condition.id,
        asks: condition.id.asks().to_owned(),
        standing: condition.standing,
        evidence: condition.evidence.clone(),
        from: condition.from,
    }
}

fn brief(stored: &StoredStudio, p: usize, gate: &Gate) -> GateBrief {
    let picture = &stored.document.pictures[p];
    GateBrief {
        picture: stored.pictures[p].id,
        title: picture.title.clone(),
        due: picture.due,
        stage: gate.stage,
        coat: gate.step.map(|i| picture.steps[i].title().to_owned()),
        between: gate.between,
        against: gate.against().map(condition_out).collect(),
        earliest: gate.earliest.map(|(from, to)| SpanOut { from, to }),
        wrap_from: gate.wrap_from,
    }
}

/// Whether each picture of a studio may be sealed, and when.
#[utoipa::path(get, operation_id = "gates", path = "/api/studios/{id}/gates", tag = "seal", params(("id" = Uuid, Path)),
    responses((status = 200, body = GatesOut), (status = 304, description = "nothing changed")))]
pub async fn gates(
    State(app): State<App>,
    Key(id): Key,
    headers: HeaderMap,
) -> Result<Response, Problem> {
    view(&app, Of::Studio(id), &headers, "gates".into(), |scene| {
        let (stored, now) = (&scene.loaded.stored, scene.now);
        let document = &stored.document;
        let pictures = scene.app.desks.at_gate(&scene.loaded, |desk, known| {
            let made = desk.plan(now);
            let mut one = |p: usize| {
                let taken = scene.loaded.taken(stored.pictures[p].id);
                brief(stored, p, &gate_with(document, p, (&made, &taken), now, known))
            };
            (0..document.pictures.len()).map(&mut one).collect()
        });
        Ok(GatesOut { now, time_zone: document.hours.zone().name().to_owned(), pictures })
    })
    .await
}

/// Everything about sealing one picture: its gate, what would bring it forward, its varnish plan,
/// the bench sheet of the next coat, and what comes after.
#[utoipa::path(get, operation_id = "gate", path = "/api/pictures/{id}/gate", tag = "seal", params(("id" = Uuid, Path)),
    responses((status = 200, body = GateOut), (status = 304, description = "nothing changed")))]
pub async fn gate_of(
    State(app): State<App>,
    Key(id): Key,
    headers: HeaderMap,
) -> Result<Response, Problem> {
    let question = format!("gate {id}");
    view(&app, Of::Picture(id), &headers, question, move |scene| {
        scene.loaded.place_of(id).map(|p| make_gate(scene, p))
    })
    .await
}

fn make_gate(scene: &Scene, p: usize) -> GateOut {
    let (stored, now) = (&scene.loaded.stored, scene.now);
    let document = &stored.document;
    let picture = &document.pictures[p];
    let key = stored.pictures[p].id;
    let shots = scene.loaded.taken(key);
    let (coats, found, sooner) = scene.app.desks.at_gate(&scene.loaded, |desk, known| {
        let made = desk.plan(now);
        let found = gate_with(document, p, (&made, &shots), now, known);
        let sooner = forward(document, p, (&made, &shots), &found, now, known);
        (desk.outlook(p, now), found, sooner)
    });
    let photographs = scene.loaded.photographs.iter().filter(|f| f.picture_id == key);
    let choice = choice_of(document, picture);
    // A choice that nobody has made yet owes no reason.
    let asked = VarnishChoice {
        isolation_reason: choice
            .isolation_reason
            .clone()
            .or_else(|| Some("as it is planned".into())),
        ..choice.clone()
    };
    let varnish = asked.plan(document, picture);
    let sheet = match (&varnish, found.step) {
        (Ok(plan), Some(i)) => Some(bench_sheet(document, (picture, i), (&choice, plan), &found)),
        _ => None,
    };
    let doc = picture_doc(picture, document.hours.zone());
    let seal = doc.seal.unwrap_or_default();
    GateOut {
        now,
        time_zone: document.hours.zone().name().to_owned(),
        version: stored.pictures[p].version,
        brief: brief(stored, p, &found),
        step: found.step.map(|i| picture.steps[i].id.clone()),
        conditions: found.conditions.iter().map(condition_out).collect(),
        forward: sooner
            .into_iter()
            .map(|f| ForwardOut {
                what: f.what,
                risk: f.risk,
                earliest: f.earliest,
                gain_min: f.gain_min,
            })
            .collect(),
        no_varnish: varnish.as_ref().err().map(ToString::to_string),
        varnish: varnish.ok().map(|plan| varnish_out(document, &choice, &plan)),
        choice: choice_doc(&choice),
        purposes: Purpose::WORDS
            .iter()
            .map(|(_, purpose)| PurposeOut { purpose: *purpose, coats: purpose.usual_coats() })
            .collect(),
        habit_isolation: document.schools.isolation_coat,
        sheet: sheet.as_ref().map(sheet_out),
        sealed: sealed(document, p, &coats),
        advice: SealTrouble::WORDS.iter().map(|(_, t)| trouble_out(*t)).collect(),
        inspected_at: picture.seal.inspected_at,
        anyway: seal.anyway,
        troubles: seal.troubles,
        packing: PACKING.iter().map(|line| (*line).to_owned()).collect(),
        removal: removal(document, picture).to_string(),
        photographs: photographs.map(photograph_out).collect::<Vec<PhotographOut>>(),
    }
}

/// The sealing coats that are on, with when they set and are touch-dry.
fn sealed(document: &StudioDocument, p: usize, coats: &[CoatOutlook]) -> Vec<SealedOut> {
    let picture = &document.pictures[p];
    coats
        .iter()
        .filter(|c| !c.planned && picture.steps[c.history.coat.step].kind.seals())
        .map(|c| {
            let step = &picture.steps[c.history.coat.step];
            let states = &c.history.if_left;
            SealedOut {
                step: step.id.clone(),
                title: step.title().to_owned(),
                at: instant(c.history.coat.at),
                setting_at: states.at(FilmState::Setting).map(instant),
                touch_dry_at: states.at(FilmState::TouchDry).map(instant),
            }
        })
        .collect()
}

fn varnish_out(
    document: &StudioDocument,
    choice: &VarnishChoice,
    plan: &VarnishPlan,
) -> VarnishOut {
    let coats = plan.coats.iter().zip(&plan.gaps).zip(&plan.strokes);
    let coats = coats.map(|((step, gap), strokes)| VarnishCoatOut {
        title: step.title().to_owned(),
        material: step
            .mix
            .first()
            .and_then(|p| document.material(&p.material))
            .map(|m| m.name.clone())
            .unwrap_or_default(),
        wet_film_um: step.wet_film_um,
        gap: gap.clone(),
        strokes: strokes.clone(),
    });
    VarnishOut {
        choice: choice_doc(choice),
        coats: coats.collect(),
        pour_ml: plan.pour_ml,
        edges_ml: plan.edges_ml,
        brush_cm: plan.brush_cm,
        areas: plan.areas.clone(),
        carrier_effect: choice.carrier.effect().to_owned(),
        finish_effect: choice.finish.effect().to_owned(),
        isolation: plan.isolation.to_owned(),
        usual_coats: choice.purpose.usual_coats(),
    }
}

fn trouble_out(trouble: SealTrouble) -> TroubleOut {
    TroubleOut {
        trouble,
        looks_like: trouble.looks_like().to_owned(),
        while_wet: trouble.while_wet().to_owned(),
        when_set: trouble.when_set().to_owned(),
    }
}

fn sheet_out(sheet: &Sheet) -> SheetOut {
    let lines = |of: &[SheetLine]| {
        of.iter().map(|l| SheetLineOut { what: l.what.clone(), care: l.care }).collect()
    };
    SheetOut {
        preparation: lines(&sheet.preparation),
        application: lines(&sheet.application),
        inspection: sheet.inspection.iter().map(|t| trouble_out(*t)).collect(),
        stop_after_min: sheet.stop_after_min,
        touch_dry_min: sheet.touch_dry_min,
    }
}

/// The field of a choice that an error is about.
fn place(error: &VarnishError) -> &'static str {
    match error {
        VarnishError::NotOnShelf(..) => "choice.finish",
        VarnishError::NoMedium | VarnishError::IsolationTooLate => "choice.isolation",
        VarnishError::NoReason(_) => "choice.isolation_reason",
        VarnishError::Coats(_) | VarnishError::FewerThanLaid { .. } => "choice.coats",
        VarnishError::Edge(_) => "choice.edge_cm",
        VarnishError::WaterOverSolvent => "choice.carrier",
        VarnishError::Cup(_) => "choice",
    }
}

fn planned(
    document: &StudioDocument,
    picture: &Picture,
    choice: &VarnishChoice,
) -> Result<VarnishPlan, Problem> {
    choice.plan(document, picture).map_err(|e| Problem::refused(place(&e), e.to_string()))
}

/// What a choice of varnish would come to on a picture; nothing is changed.
#[utoipa::path(post, operation_id = "varnish_preview", path = "/api/pictures/{id}/varnish/preview", tag = "seal", params(("id" = Uuid, Path)),
    request_body = VarnishAsked,
    responses((status = 200, body = VarnishOut)))]
pub async fn varnish_preview(
    State(app): State<App>,
    Key(id): Key,
    Body(asked): Body<VarnishAsked>,
) -> Result<Json<VarnishOut>, Problem> {
    let choice = check_choice("choice", &asked.choice)?;
    let loaded = load_around(&app, id).await?;
    let document = &loaded.stored.document;
    let plan = planned(document, &document.pictures[loaded.place_of(id)?], &choice)?;
    Ok(Json(varnish_out(document, &choice, &plan)))
}

/// Settles on a varnish: its coats take the place of the sealing coats that are still to come.
#[utoipa::path(put, operation_id = "varnish_save", path = "/api/pictures/{id}/varnish", tag = "seal", params(("id" = Uuid, Path)),
    request_body = VarnishEdit,
    responses((status = 200, body = PictureOut)))]
pub async fn varnish_save(
    State(app): State<App>,
    Key(id): Key,
    Body(edit): Body<VarnishEdit>,
) -> Result<Json<PictureOut>, Problem> {
    let choice = check_choice("choice", &edit.choice)?;
    let mut tx = super::pictures::with_shelf_held(&app, id).await?;
    let (stored, document) = with_studio(&mut tx, id).await?;
    let plan = planned(&document, &stored.picture, &choice)?;
    let changed = with_varnish(&stored.picture, &choice, &plan);
    let now = app.clock.now();
    let label = "settle on a varnish";
    ulvek_store::save_picture(&mut tx, id, edit.version, &changed, label, now).await?;
    let answer = reread(&mut tx, id).await?;
    commit(tx).await?;
    Ok(answer)
}

/// Says that the surface was dusted and looked over just now.
#[utoipa::path(post, operation_id = "inspected", path = "/api/pictures/{id}/inspected", tag = "seal", params(("id" = Uuid, Path)),
    request_body = OnVersion,
    responses((status = 200, body = PictureOut)))]
pub async fn inspected(
    State(app): State<App>,
    Key(id): Key,
    Body(on): Body<OnVersion>,
) -> Result<Json<PictureOut>, Problem> {
    let now = app.clock.now();
    let mut tx = app.begin().await?;
    let mut picture = ulvek_store::load_picture(&mut tx, id).await?.picture;
    picture.seal.inspected_at = Some(now);
    let label = "look the surface over";
    ulvek_store::save_picture(&mut tx, id, on.version, &picture, label, now).await?;
    let answer = reread(&mut tx, id).await?;
    commit(tx).await?;
    Ok(answer)
}

/// Keeps trouble found on a sealing coat, and changes the coats to come as it asks.
#[utoipa::path(post, operation_id = "trouble_found", path = "/api/pictures/{id}/troubles", tag = "seal", params(("id" = Uuid, Path)),
    request_body = TroubleFoundIn,
    responses((status = 200, body = MendedOut)))]
pub async fn trouble_found(
    State(app): State<App>,
    Key(id): Key,
    Body(found): Body<TroubleFoundIn>,
) -> Result<Json<MendedOut>, Problem> {
    let now = app.clock.now();
    let mut tx = super::pictures::with_shelf_held(&app, id).await?;
    let (stored, document) = with_studio(&mut tx, id).await?;
    let picture = stored.picture;
    let on = |s: &ulvek_core::picture::Step| s.id == found.step;
    let laid = picture.steps.iter().position(|s| on(s) && s.laid_at.is_some() && s.kind.seals());
    let Some(i) = laid else {
        let reason = format!("the picture has no sealing coat \"{}\" that is laid", found.step);
        return Err(Problem::refused("step", reason));
    };
    let (mut picture, changed) = found
        .trouble
        .mend(&document, &picture, i)
        .map_err(|e| Problem::refused("trouble", e.to_string()))?;
    picture.seal.troubles.push(TroubleFound { at: now, step: found.step, trouble: found.trouble });
    let label = format!("find a {} on the varnish", found.trouble.word());
    let version =
        ulvek_store::save_picture(&mut tx, id, found.version, &picture, &label, now).await?;
    commit(tx).await?;
    Ok(Json(MendedOut { version, changed }))
}

/// Holds the gate for a sealing coat `i` that is said to have been laid at `at`: what did not hold
/// then, in words. `document` has the picture at `p` as it was before that coat.
pub(super) fn against(
    document: &StudioDocument,
    (p, i): (usize, usize),
    photographs: &[Photograph],
    at: DateTime<Utc>,
) -> Vec<String> {
    let mut before = document.clone();
    // What was laid later did not lie there then.
    for step in &mut before.pictures[p].steps {
        step.laid_at = step.laid_at.filter(|laid| *laid <= at);
    }
    before.pictures[p].steps[i].laid_at = None;
    // Only this picture decides; coats of others still hold flat places.
    let made = plan(Request { document: &before, from: at });
    let shots: Vec<_> = photographs.iter().map(|f| f.taken_at).collect();
    let found = gate(&before, p, (&made, &shots), at);
    if found.step != Some(i) {
        return vec!["A sealing coat that comes before it is not laid yet".into()];
    }
    found.against().map(|c| c.id.asks().to_owned()).collect()
}
