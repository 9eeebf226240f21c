//! What is computed from a studio: outlook, strata, calendar, week. Nothing of it is stored.

use super::wire::{
    AirOut, CalendarAsked, CoatOut, FilmOut, FindingOut, Outlook, PictureOutlook, PlaceOut,
    PlannedOut, PrepareOut, SectionOut, ShortageOut, Spread, SpreadOut, StatesOut, Strata,
    StrataAsked, Week, WeekAsked, WeekDate, WeekDay, WeekWork,
};
use crate::compute::Lane;
use crate::desks::Loaded;
use crate::extract::Asked;
use crate::formats::calendar;
use crate::problem::Problem;
use crate::reading::load;
use crate::resolved::{InPicture, InStudio};
use crate::routes::shared::SpanOut;
use crate::routes::view::{Scene, key_of, view};
use crate::state::App;
use axum::extract::State;
use axum::http::{HeaderMap, header};
use axum::response::{IntoResponse, Response};
use chrono::{DateTime, Days, Duration, DurationRound, NaiveDate, Utc};
use ulvek_core::colour::Tubes;
use ulvek_core::evening::{Preparation, preparations};
use ulvek_core::film::HORIZON_S;
use ulvek_core::picture::{Frame, Stack};
use ulvek_core::planner::{
    CoatOutlook, Plan, ReadyOutcome, SPREAD, agenda, promise, shortages, slowest_top,
    spread as spread_of,
};
use ulvek_core::quantity::{Fault, check_day};
use ulvek_core::rules::{Finding, check_at};
use ulvek_core::studio::{Shortage, Studio};
use ulvek_core::time::{instant, seconds};
use ulvek_store::StoredStudio;

/// What the rail shows of the past [days]. [practice]
const RAIL_PAST_DAYS: i64 = 1;
/// What it shows of the future [days]. [practice]
const RAIL_AHEAD_DAYS: i64 = 8;
/// Moments of the film that strata keep, spread over the coats. [practice]
const STRATA_FRAMES: usize = 600;
/// How long strata go on after the last coat [days]. [practice]
const STRATA_AFTER_DAYS: i64 = 4;
/// Days on a week sheet.
const WEEK_DAYS: u64 = 7;

/// How far from now hours are shown as a background: nothing is followed farther.
pub(in crate::routes) const fn hours_shown() -> Duration {
    Duration::seconds(HORIZON_S as i64)
}

/// A studio as it stands now: what dries, what may be touched, what to do next.
#[utoipa::path(get, path = "/api/studios/{id}/outlook", tag = "computed", params(("id" = Uuid, Path)),
    responses((status = 200, body = Outlook), (status = 304, description = "nothing changed")))]
pub async fn outlook(
    State(mut app): State<App>,
    InStudio(id): InStudio,
    headers: HeaderMap,
) -> Result<Response, Problem> {
    view(&mut app, id, &headers, "outlook".into(), make_outlook).await
}

fn make_outlook(scene: &Scene) -> Result<Outlook, Problem> {
    let (stored, now) = (&scene.loaded.stored, scene.now);
    let studio = &stored.studio;
    let from = now - Duration::days(RAIL_PAST_DAYS);
    let to = now + Duration::days(RAIL_AHEAD_DAYS);
    let tubes = studio.tubes();
    scene.app.desks.at(&scene.loaded, |desk| {
        let made = desk.plan(now);
        let (findings, ready) = (check_at(desk, now)?, desk.ready(now)?);
        let mut pictures = Vec::with_capacity(studio.pictures.len());
        for p in 0..studio.pictures.len() {
            let coats = desk.outlook(p, now)?;
            let picture = (p, &ready[p], now);
            pictures.push(picture_outlook(
                &scene.loaded,
                &tubes,
                picture,
                &made,
                &findings,
                &coats,
            )?);
        }
        Ok(Outlook {
            unread: scene.loaded.stored.unread.iter().map(|row| row.what.clone()).collect(),
            now,
            time_zone: studio.hours.zone().name().to_owned(),
            sessions: sessions(studio, from, to),
            air: hourly(studio, from, to),
            pictures,
            shortages: short(stored, &made),
            prepare: prepare(&scene.loaded, &made, now),
        })
    })
}

/// What to prepare for what is planned in the coming hours.
fn prepare(loaded: &Loaded, made: &Plan, now: DateTime<Utc>) -> Vec<PrepareOut> {
    let (stored, studio) = (&loaded.stored, &loaded.studio);
    let taken: Vec<_> = stored.pictures.iter().map(|p| loaded.taken(p.id)).collect();
    let out = |p: Preparation| PrepareOut {
        by: p.by,
        picture: stored.pictures[p.picture].id,
        picture_title: studio.pictures[p.picture].title.clone(),
        said: p.said,
    };
    preparations(studio, made, &taken, now).into_iter().map(out).collect()
}

/// What planned work runs short of, with the sitting at which it does.
fn short(stored: &StoredStudio, made: &Plan) -> Vec<ShortageOut> {
    let studio = &stored.studio;
    let out = |(short, at): (Shortage, Option<DateTime<Utc>>)| {
        let (p, i) = short.at;
        ShortageOut {
            of: short.of,
            name: short.name,
            tub: short.tub,
            left_ml: short.left_ml,
            needs_ml: short.needs_ml,
            picture: stored.pictures[p].id,
            picture_title: studio.pictures[p].title.clone(),
            title: studio.pictures[p].steps[i].called(),
            at,
        }
    };
    shortages(studio, made).into_iter().map(out).collect()
}

pub(in crate::routes) fn sessions(
    studio: &Studio,
    from: DateTime<Utc>,
    to: DateTime<Utc>,
) -> Vec<SpanOut> {
    studio.hours.sessions(from, to).into_iter().map(|s| SpanOut::new((s.from, s.to))).collect()
}

/// The room at every full hour.
fn hourly(studio: &Studio, from: DateTime<Utc>, to: DateTime<Utc>) -> Vec<AirOut> {
    let mut at = from.duration_trunc(Duration::hours(1)).unwrap_or(from);
    let mut found = Vec::new();
    while at <= to {
        let air = studio.air.at(seconds(at));
        found.push(AirOut { at, temperature_c: air.celsius, relative_humidity: air.humidity });
        at += Duration::hours(1);
    }
    found
}

fn picture_outlook(
    loaded: &Loaded,
    tubes: &Tubes,
    (p, ready, now): (usize, &ReadyOutcome, DateTime<Utc>),
    made: &Plan,
    findings: &[Finding],
    coats: &[CoatOutlook],
) -> Result<PictureOutlook, Problem> {
    let stored = &loaded.stored;
    let studio = &stored.studio;
    let picture = &studio.pictures[p];
    let key = stored.pictures[p].id;
    let shots = loaded.photographs.iter().filter(|shot| shot.picture_id == key);
    let mine = made.steps.iter().filter(|s| s.picture == p);
    let found = findings.iter().filter(|f| f.picture == p);
    let own = picture.own_colours(tubes, &steps_of(coats))?;
    let top = slowest_top(coats, seconds(now)).map(|n| coats[n].history.coat.step);
    let coats = coats.iter().zip(own).map(|(coat, own)| CoatOut::of(picture, coat, own));
    Ok(PictureOutlook {
        id: key,
        version: stored.pictures[p].version,
        title: picture.title.clone(),
        photograph: shots.max_by_key(|shot| shot.taken_at).map(|shot| shot.id),
        width_cm: picture.width_cm,
        height_cm: picture.height_cm,
        due: picture.due,
        finish: ready.at,
        days_late: ready.days_late,
        date: promise(studio, p, ready, None, now).into(),
        ready_by: picture.ready_by,
        ready_said: picture.ready_by.said_of_day(picture.is_packed()).into(),
        steps: picture.steps.len(),
        done: picture.steps.iter().filter(|s| s.laid_at.is_some()).count(),
        coats: coats.collect(),
        top: top.map(|step| picture.steps[step].id.clone()),
        plan: mine.map(|s| PlannedOut::of(s, studio)).collect(),
        findings: found.map(|f| FindingOut::of(f, picture)).collect(),
    })
}

/// The steps of coats, in their order.
fn steps_of(coats: &[CoatOutlook]) -> Vec<usize> {
    coats.iter().map(|c| c.history.coat.step).collect()
}

/// The film of one picture over time, laid and planned, placed among the studio's other pictures: at its
/// slowest place, or at the one that is asked for.
#[utoipa::path(get, path = "/api/pictures/{id}/strata", tag = "computed",
    params(("id" = Uuid, Path), ("section" = Option<String>, Query)),
    responses((status = 200, body = Strata), (status = 304, description = "nothing changed")))]
pub async fn strata(
    State(mut app): State<App>,
    InPicture { id, studio }: InPicture,
    Asked(asked): Asked<StrataAsked>,
    headers: HeaderMap,
) -> Result<Response, Problem> {
    let question = format!("strata {id} {:?}", asked.section);
    view(&mut app, studio, &headers, question, move |scene| {
        let of = |p| make_strata(scene, p, asked.section.as_deref());
        scene.loaded.place_of(id).and_then(of)
    })
    .await
}

/// When the coats of one picture reach their states in one, five and nine of ten futures.
#[utoipa::path(get, path = "/api/pictures/{id}/spread", tag = "computed", params(("id" = Uuid, Path)),
    responses((status = 200, body = Spread), (status = 304, description = "nothing changed")))]
pub async fn spread(
    State(mut app): State<App>,
    InPicture { id, studio }: InPicture,
    headers: HeaderMap,
) -> Result<Response, Problem> {
    let question = format!("spread {id}");
    view(&mut app, studio, &headers, question, move |scene| {
        scene.loaded.place_of(id).and_then(|p| make_spread(scene, p))
    })
    .await
}

fn make_spread(scene: &Scene, p: usize) -> Result<Spread, Problem> {
    let studio = &scene.loaded.stored.studio;
    let plan = scene.app.desks.at(&scene.loaded, |desk| desk.plan(scene.now));
    let coats = spread_of(studio, p, &plan)?.into_iter().map(|(step, events)| {
        let step = &studio.pictures[p].steps[step];
        SpreadOut {
            step: step.id.clone(),
            title: step.called(),
            states: events.iter().map(StatesOut::from).collect(),
        }
    });
    Ok(Spread { shares: SPREAD.to_vec(), coats: coats.collect() })
}

fn make_strata(scene: &Scene, p: usize, section: Option<&str>) -> Result<Strata, Problem> {
    let (stored, now) = (&scene.loaded.stored, scene.now);
    let studio = &stored.studio;
    let (made, findings, ready) = scene
        .app
        .desks
        .at(&scene.loaded, |desk| (desk.plan(now), check_at(desk, now), desk.ready(now)));
    let (findings, ready) = (findings?, ready?);
    let planned_end = made
        .steps
        .iter()
        .filter(|s| s.picture == p)
        .filter_map(|s| s.sittings.last().map(|x| x.to))
        .max();
    let laid_end = studio.pictures[p].steps.iter().filter_map(|s| s.laid_at).max();
    let last = planned_end.max(laid_end).unwrap_or(now).max(now);
    // On full hours: what was drawn is known again a minute later.
    let until = last.duration_trunc(Duration::hours(1)).unwrap_or(last);
    let until = until + Duration::hours(1) + Duration::days(STRATA_AFTER_DAYS);
    let asked = (seconds(until), STRATA_FRAMES);
    let mut strata = scene.app.desks.at(&scene.loaded, |desk| desk.strata(p, now, asked))?;
    let (coats, line) = strata.drawn(studio)?;
    scene.app.desks.at(&scene.loaded, |desk| desk.keep_strata(&strata));
    let stacks = &line.stacks;
    let first = coats.first().map_or(now, |c| instant(c.history.coat.at));
    let from = (first.min(now) - Duration::days(1)).max(now - hours_shown());
    let to = until.min(now + hours_shown());
    let tubes = studio.tubes();
    let picture = &studio.pictures[p];
    // The last laid coat of each place: the picture waits for one of them, where they are not the same.
    let laid = |step: &usize| picture.steps[*step].laid_at.is_some();
    let top_of = |stack: &Stack| stack.coats.iter().map(|c| c.coat.step).rfind(laid);
    let top = slowest_top(&coats, seconds(now)).map(|n| coats[n].history.coat.step);
    let waits = |stack: &Stack| top.is_some() && top_of(stack) == top;
    let alike = stacks.iter().all(waits);
    let place_of = |stack: &Stack| SectionOut {
        section: picture.section_at(stack.place).map(str::to_owned),
        slowest: !alike && waits(stack),
    };
    let places: Vec<SectionOut> = stacks.iter().map(place_of).collect();
    let place = match section {
        // Of those that lie alike the one on which most is still to come.
        None => (0..stacks.len())
            .filter(|n| top.is_none() || waits(&stacks[*n]))
            .max_by_key(|n| stacks[*n].coats.len())
            .unwrap_or_default(),
        Some(name) => places
            .iter()
            .position(|place| place.section.as_deref().unwrap_or_default() == name)
            .ok_or_else(|| Fault::new("section", format!("nothing lies on \"{name}\"")))?,
    };
    let lie: Vec<usize> =
        stacks.get(place).map_or(vec![], |s| s.coats.iter().map(|c| c.coat.step).collect());
    let shown: Vec<usize> =
        (0..coats.len()).filter(|n| lie.contains(&coats[*n].history.coat.step)).collect();
    let frames = stacks.get(place).map_or(&[][..], |stack| &stack.frames);
    let face = picture.places(&tubes, &lie)?;
    Ok(Strata {
        now,
        outlook: picture_outlook(
            &scene.loaded,
            &tubes,
            (p, &ready[p], now),
            &made,
            &findings,
            &coats,
        )?,
        face: face.iter().map(PlaceOut::of).collect(),
        untold: picture.untold(&tubes),
        absorbs_um: picture.ground.absorbs_um,
        sessions: sessions(studio, from, to),
        films: films(shown.len(), frames),
        places,
        place,
        shown,
        frames: frames.iter().map(|f| instant(f.at)).collect(),
    })
}

fn films(coats: usize, frames: &[Frame]) -> Vec<FilmOut> {
    (0..coats)
        .map(|n| {
            let from = frames.iter().position(|f| f.coats.len() > n).unwrap_or(frames.len());
            let views = || frames[from..].iter().map(|f| &f.coats[n]);
            FilmOut {
                from,
                um: views().map(|v| (v.thickness_m * 1e8).round() as f32 / 100.0).collect(),
                state: views().map(|v| v.state).collect(),
            }
        })
        .collect()
}

/// The plan as iCalendar (RFC 5545): one event per sitting, alarms for "paintable" and "ready to
/// seal", and the day each picture is due with what the plan says of it. Subscribe to this address, or download it.
#[utoipa::path(get, path = "/api/studios/{id}/plan.ics", tag = "computed",
    params(("id" = Uuid, Path), ("picture" = Option<Uuid>, Query)),
    responses((status = 200, content_type = "text/calendar", body = String)))]
pub async fn plan_calendar(
    State(mut app): State<App>,
    InStudio(id): InStudio,
    Asked(asked): Asked<CalendarAsked>,
) -> Result<impl IntoResponse, Problem> {
    let question = format!("calendar {:?}", asked.picture);
    let loaded = load(&mut app, id).await?;
    let now = app.clock.now();
    let key = key_of(&loaded, now, &question);
    let scene = Scene { app: app.clone(), loaded, now };
    let text = app.computing().ask(key, Lane::View, move || {
        let stored = &scene.loaded.stored;
        let (made, ready) =
            scene.app.desks.at(&scene.loaded, |desk| (desk.plan(now), desk.ready(now)));
        let studio = &stored.studio;
        let wanted = |p: usize| asked.picture.is_none_or(|only| stored.pictures[p].id == only);
        let mut made = made.as_ref().clone();
        made.steps.retain(|s| wanted(s.picture));
        let open = |p: &usize| studio.pictures[*p].steps.iter().any(|s| s.laid_at.is_none());
        let text = ready.map(|ready| {
            let all = (0..studio.pictures.len()).filter(|p| wanted(*p) && open(p));
            let said = |p| (p, promise(studio, p, &ready[p], None, now).said);
            let dates: Vec<_> = all.map(said).collect();
            calendar(stored.id, studio, (&made, &dates), now)
        });
        let size = text.as_ref().map_or(0, |text| u32::try_from(text.len()).unwrap_or(u32::MAX));
        (size, text)
    });
    let text = text.await?.as_ref().clone()?;
    let headers = [
        (header::CONTENT_TYPE, "text/calendar; charset=utf-8"),
        (header::CONTENT_DISPOSITION, "inline; filename=\"ulvek.ics\""),
        (header::CACHE_CONTROL, "no-cache"),
    ];
    Ok((headers, text))
}

/// Seven days of work with the cups to mix, from a day or from today.
#[utoipa::path(get, operation_id = "week", path = "/api/studios/{id}/week", tag = "season",
    params(("id" = Uuid, Path), ("from" = Option<NaiveDate>, Query)),
    responses((status = 200, body = Week), (status = 304, description = "nothing changed")))]
pub async fn week(
    State(mut app): State<App>,
    InStudio(id): InStudio,
    Asked(asked): Asked<WeekAsked>,
    headers: HeaderMap,
) -> Result<Response, Problem> {
    if let Some(day) = asked.from {
        check_day(day).map_err(|e| Fault::new("from", e))?;
    }
    let from = asked.from;
    view(&mut app, id, &headers, format!("week {from:?}"), move |scene| {
        let (stored, now) = (&scene.loaded.stored, scene.now);
        let studio = &stored.studio;
        let (made, findings, ready) = scene
            .app
            .desks
            .at(&scene.loaded, |desk| (desk.plan(now), check_at(desk, now), desk.ready(now)));
        let (findings, ready) = (findings?, ready?);
        let open = |p: &usize| studio.pictures[*p].steps.iter().any(|s| s.laid_at.is_none());
        let dates = (0..studio.pictures.len()).filter(open).map(|p| WeekDate {
            id: stored.pictures[p].id,
            title: studio.pictures[p].title.clone(),
            date: promise(studio, p, &ready[p], None, now).into(),
        });
        let from = from.unwrap_or_else(|| studio.hours.day(now));
        let days = (0..WEEK_DAYS)
            .filter_map(|n| from.checked_add_days(Days::new(n)))
            .map(|day| week_day(stored, &made, &findings, day));
        Ok(Week {
            now,
            studio: studio.name.clone(),
            time_zone: studio.hours.zone().name().to_owned(),
            days: days.collect(),
            dates: dates.collect(),
        })
    })
    .await
}

fn week_day(stored: &StoredStudio, made: &Plan, findings: &[Finding], day: NaiveDate) -> WeekDay {
    let studio = &stored.studio;
    let (from, to) = (studio.hours.start_of(day), studio.hours.end_of(day));
    let mut entries = agenda(studio, made);
    entries.retain(|entry| entry.from >= from && entry.from < to);
    entries.sort_by_key(|entry| entry.from);
    let work = entries.iter().map(|entry| {
        let mine = |f: &&Finding| f.picture == entry.picture && f.step == entry.step;
        let heeded = findings.iter().filter(mine).filter(|f| f.set_aside.is_none());
        let care = heeded.map(|f| f.what.clone()).collect();
        WeekWork::of(entry, studio, stored.pictures[entry.picture].id, care)
    });
    WeekDay { day, sessions: sessions(studio, from, to), work: work.collect() }
}
