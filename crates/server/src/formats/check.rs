//! From the written document to the checked one, with the place and the reason of a refusal.

use super::check_shelf::check_shelf;
use super::document::{AirDoc, Document, PartDoc, PictureDoc, StepDoc, StudioDoc};
use super::seal_doc::{check_ahead, check_seal};
use super::texts::{a_day, line, moment, moment_if};
use chrono::{NaiveTime, Weekday};
use chrono_tz::Tz;
use std::collections::HashSet;
use thiserror::Error;
use ulvek_core::air::{Air, AirSeries};
use ulvek_core::cup::CupError;
use ulvek_core::picture::{Part, Picture, SetAside, Step, ThinningChoice, check_chain};
use ulvek_core::quantity::{
    Absorbency, AirSpeed, Celsius, Grams, Latitude, Minutes, OutOfRange, Parts, RelativeHumidity,
    Share, Side, Weight, WetFilm,
};
use ulvek_core::seal::SealRecord;
use ulvek_core::studio::{
    Closed, HoursError, Material, OpenHours, RoomAhead, Schools, StudioDocument, StudioHours, Turn,
    daylight,
};

/// Most pictures in a studio. [practice]
pub(crate) const MOST_PICTURES: usize = 500;
/// Most steps on a picture. [practice]
pub(super) const MOST_STEPS: usize = 500;
/// Most readings of the air: ten years of hours. [practice]
pub(crate) const MOST_READINGS: usize = 90_000;
/// Most findings set aside on a picture. [practice]
const MOST_ASIDE: usize = 1000;
/// Most entries of an order of work: every step of the most pictures. [practice]
const MOST_TURNS: usize = MOST_PICTURES * MOST_STEPS;
/// Most closed times. [practice] holidays of ten years
const MOST_CLOSED: usize = 1000;
/// Most stretches of hours in a week. [practice]
const MOST_HOURS: usize = 100;
/// Most flat places. [practice]
const MOST_PLACES: u32 = 1000;

/// Why input was not taken: a place in it, and a reason.
#[derive(Debug, Clone, PartialEq, Eq, Error)]
#[error("{}", if .path.is_empty() { .reason.clone() } else { format!("{}: {}", .path, .reason) })]
pub struct Refusal {
    /// The place, as in `pictures[0].steps[2].wet_film_um`; empty for the whole.
    pub path: String,
    /// The reason, in one sentence.
    pub reason: String,
}

impl Refusal {
    /// A refusal of `path` for `reason`.
    pub fn new(path: impl Into<String>, reason: impl Into<String>) -> Self {
        Self { path: path.into(), reason: reason.into() }
    }
}

pub(super) type Checked<T> = Result<T, Refusal>;

/// Checks a number by its quantity and returns it.
pub(super) fn number<Q>(
    path: &str,
    value: f64,
    make: fn(f64) -> Result<Q, OutOfRange>,
    get: fn(Q) -> f64,
) -> Checked<f64> {
    make(value).map(get).map_err(|e| Refusal::new(path, e.to_string()))
}

macro_rules! quantity {
    ($kind:ident, $path:expr, $value:expr) => {
        $crate::formats::check::number(&$path, $value, $kind::try_new, $kind::get)
    };
}
pub(super) use quantity;

pub(super) fn at_most(path: &str, count: usize, most: usize, what: &str) -> Checked<()> {
    if count > most {
        return Err(Refusal::new(path, format!("has {count} {what}; at most {most} are taken")));
    }
    Ok(())
}

pub(super) fn unique<'a>(base: &str, ids: impl Iterator<Item = &'a str>) -> Checked<()> {
    let mut seen = HashSet::new();
    for (i, id) in ids.enumerate() {
        if !seen.insert(id) {
            let path = format!("{base}[{i}].id");
            return Err(Refusal::new(path, format!("\"{id}\" is used twice")));
        }
    }
    Ok(())
}

/// Checks a whole document.
///
/// # Errors
/// [`Refusal`] of the first place that does not fit.
pub fn check_document(document: &Document) -> Checked<StudioDocument> {
    at_most("pictures", document.pictures.len(), MOST_PICTURES, "pictures")?;
    let mut checked = check_studio(&document.studio, &document.air)?;
    check_shelf("", &document.materials, &document.tubs, &document.ways, &mut checked)?;
    for (i, picture) in document.pictures.iter().enumerate() {
        let path = format!("pictures[{i}]");
        checked.pictures.push(check_picture(&path, picture, &checked)?);
    }
    unique("pictures", document.pictures.iter().map(|p| p.id.as_str()))?;
    Ok(checked)
}

/// Checks the settings of a studio; shelf and pictures are left empty.
///
/// # Errors
/// [`Refusal`] of the first place that does not fit.
pub fn check_studio(studio: &StudioDoc, air: &AirDoc) -> Checked<StudioDocument> {
    let zone: Tz = studio.time_zone.parse().map_err(|_| {
        let reason =
            format!("\"{}\" is not a time zone; write it as in Europe/Oslo", studio.time_zone);
        Refusal::new("studio.time_zone", reason)
    })?;
    let mut weekly = Vec::new();
    for (i, hours) in studio.hours.iter().enumerate() {
        let path = format!("studio.hours[{i}]");
        weekly.push(OpenHours {
            day: weekday(&format!("{path}.day"), &hours.day)?,
            from: clock(&format!("{path}.from"), &hours.from)?,
            to: clock(&format!("{path}.to"), &hours.to)?,
        });
    }
    at_most("studio.closed", studio.closed.len(), MOST_CLOSED, "closed times")?;
    at_most("studio.hours", studio.hours.len(), MOST_HOURS, "hours")?;
    let mut closed = Vec::with_capacity(studio.closed.len());
    for (i, c) in studio.closed.iter().enumerate() {
        let at = |field: &str| format!("studio.closed[{i}].{field}");
        closed.push(Closed { from: a_day(&at("from"), c.from)?, to: a_day(&at("to"), c.to)? });
    }
    let hours = StudioHours::try_new(zone, weekly, closed).map_err(|(i, e)| {
        let list = if matches!(e, HoursError::Order { .. }) { "hours" } else { "closed" };
        Refusal::new(format!("studio.{list}[{i}]"), e.to_string())
    })?;
    if studio.flat_places > MOST_PLACES {
        let reason = format!("must be from 0 to {MOST_PLACES}, not {}", studio.flat_places);
        return Err(Refusal::new("studio.flat_places", reason));
    }
    let daylight = match &studio.daylight {
        None => None,
        Some(place) => Some(
            daylight::Place::try_new(place.latitude_deg, place.longitude_deg)
                .map_err(|e| Refusal::new(daylight_path(&e), e.to_string()))?,
        ),
    };
    at_most("studio.order", studio.order.len(), MOST_TURNS, "turns")?;
    let order = studio
        .order
        .iter()
        .map(|t| Turn { picture: t.picture.clone(), step: t.step.clone() })
        .collect();
    Ok(StudioDocument {
        daylight,
        order,
        room: match &air.ahead {
            None => RoomAhead::default(),
            Some(ahead) => check_ahead("air.ahead", ahead)?,
        },
        flat_places: studio.flat_places,
        setup_min: quantity!(Minutes, "studio.setup_min", studio.setup_min)?,
        schools: Schools {
            thinning: studio.schools.thinning,
            waiting: studio.schools.waiting,
            fresh_eyes: studio.schools.fresh_eyes,
            isolation_coat: studio.schools.isolation_coat,
        },
        ..StudioDocument::new(line("studio.name", &studio.name)?, hours, check_air(air)?)
    })
}

fn daylight_path(error: &OutOfRange) -> &'static str {
    if error.range == *Latitude::RANGE {
        "studio.daylight.latitude_deg"
    } else {
        "studio.daylight.longitude_deg"
    }
}

fn weekday(path: &str, word: &str) -> Checked<Weekday> {
    match word {
        "mon" => Ok(Weekday::Mon),
        "tue" => Ok(Weekday::Tue),
        "wed" => Ok(Weekday::Wed),
        "thu" => Ok(Weekday::Thu),
        "fri" => Ok(Weekday::Fri),
        "sat" => Ok(Weekday::Sat),
        "sun" => Ok(Weekday::Sun),
        _ => Err(Refusal::new(path, format!("\"{word}\" is not a day; mon to sun are"))),
    }
}

/// Reads `HH:MM`; `24:00` is the last second of the day.
fn clock(path: &str, text: &str) -> Checked<NaiveTime> {
    if text == "24:00" {
        return NaiveTime::from_hms_opt(23, 59, 59).ok_or_else(|| Refusal::new(path, "no time"));
    }
    NaiveTime::parse_from_str(text, "%H:%M")
        .map_err(|_| Refusal::new(path, format!("\"{text}\" is not a time; write it as in 09:30")))
}

/// Checks the parts of a mix.
///
/// # Errors
/// [`Refusal`] of the first part that does not fit.
pub(super) fn check_mix(path: &str, mix: &[PartDoc], shelf: &[Material]) -> Checked<Vec<Part>> {
    let mut checked = Vec::with_capacity(mix.len());
    for (i, part) in mix.iter().enumerate() {
        let place = format!("{path}[{i}]");
        if !shelf.iter().any(|m| m.id == part.material) {
            let reason = format!("no material \"{}\" is on the shelf", part.material);
            return Err(Refusal::new(format!("{place}.material"), reason));
        }
        let parts = quantity!(Parts, format!("{place}.parts"), part.parts)?;
        checked.push(Part { material: part.material.clone(), parts });
    }
    Ok(checked)
}

/// Whether two mixes have the same materials in the same ratio.
fn same_mix(a: &[Part], b: &[Part]) -> bool {
    let whole = |mix: &[Part]| mix.iter().map(|p| p.parts).sum::<f64>();
    let share = |mix: &[Part], of: &str| {
        mix.iter().filter(|p| p.material == of).map(|p| p.parts).sum::<f64>() / whole(mix)
    };
    // Parts as typed are rounded: a hair is the same mix.
    a.iter().chain(b).all(|p| (share(a, &p.material) - share(b, &p.material)).abs() < 1e-3)
}

fn check_air(air: &AirDoc) -> Checked<AirSeries> {
    at_most("air.hourly", air.hourly.len(), MOST_READINGS, "readings")?;
    let reading = |path: &str, celsius: f64, humidity: f64, speed: f64| {
        Ok::<_, Refusal>(Air {
            celsius: quantity!(Celsius, format!("{path}.temperature_c"), celsius)?,
            humidity: quantity!(RelativeHumidity, format!("{path}.relative_humidity"), humidity)?,
            speed_m_s: quantity!(AirSpeed, format!("{path}.air_speed_m_s"), speed)?,
        })
    };
    let base = reading("air", air.temperature_c, air.relative_humidity, air.air_speed_m_s)?;
    let mut readings = Vec::with_capacity(air.hourly.len());
    for (i, hour) in air.hourly.iter().enumerate() {
        let speed = hour.air_speed_m_s.unwrap_or(base.speed_m_s);
        let path = format!("air.hourly[{i}]");
        let at = moment(&format!("{path}.at"), hour.at)?.timestamp_micros() as f64 / 1e6;
        readings.push((at, reading(&path, hour.temperature_c, hour.relative_humidity, speed)?));
    }
    Ok(AirSeries::new(base, readings))
}

/// Checks a picture against the shelf its mixes use.
///
/// # Errors
/// [`Refusal`] of the first place that does not fit.
pub fn check_picture(path: &str, doc: &PictureDoc, shelf: &StudioDocument) -> Checked<Picture> {
    let at =
        |field: &str| if path.is_empty() { field.to_owned() } else { format!("{path}.{field}") };
    at_most(&at("steps"), doc.steps.len(), MOST_STEPS, "steps")?;
    let mut steps = Vec::with_capacity(doc.steps.len());
    for (i, step) in doc.steps.iter().enumerate() {
        steps.push(check_step(&at(&format!("steps[{i}]")), step, shelf)?);
    }
    let picture = Picture {
        id: line(&at("id"), &doc.id)?,
        title: line(&at("title"), &doc.title)?,
        width_cm: quantity!(Side, at("width_cm"), doc.width_cm)?,
        height_cm: quantity!(Side, at("height_cm"), doc.height_cm)?,
        weight: quantity!(Weight, at("weight"), doc.weight)?,
        due: doc.due.map(|day| a_day(&at("due"), day)).transpose()?,
        absorbs_um: quantity!(Absorbency, at("ground.absorbs_um"), doc.ground.absorbs_um)?,
        steps,
        thinning: match &doc.thinning {
            None => None,
            Some(own) => Some(ThinningChoice {
                school: own.school,
                reason: line(&at("thinning.reason"), &own.reason)?,
            }),
        },
        set_aside: {
            at_most(&at("set_aside"), doc.set_aside.len(), MOST_ASIDE, "findings")?;
            let mut aside = Vec::with_capacity(doc.set_aside.len());
            for (i, one) in doc.set_aside.iter().enumerate() {
                let place = |field: &str| at(&format!("set_aside[{i}].{field}"));
                aside.push(SetAside {
                    rule: line(&place("rule"), &one.rule)?,
                    step: line(&place("step"), &one.step)?,
                    reason: line(&place("reason"), &one.reason)?,
                    at: moment(&place("at"), one.at)?,
                });
            }
            aside
        },
        seal: match &doc.seal {
            None => SealRecord::default(),
            Some(seal) => check_seal(&at("seal"), seal)?,
        },
    };
    check_chain(&picture)
        .map_err(|e| Refusal::new(at(&format!("steps[{}]", e.step())), e.to_string()))?;
    Ok(picture)
}

pub(super) fn check_step(path: &str, doc: &StepDoc, shelf: &StudioDocument) -> Checked<Step> {
    let at = |field: &str| format!("{path}.{field}");
    let mix = check_mix(&at("mix"), &doc.mix, &shelf.materials)?;
    if let Some(id) = &doc.tub {
        let place = at("tub");
        let tub = shelf
            .tub(id)
            .ok_or_else(|| Refusal::new(&place, format!("no tub \"{id}\" is on the shelf")))?;
        if !same_mix(&tub.mix, &mix) {
            let reason = format!("the mix is not what is in the tub \"{}\"", tub.name);
            return Err(Refusal::new(place, reason));
        }
    }
    let step = Step {
        id: line(&at("id"), &doc.id)?,
        kind: doc.kind,
        name: doc.name.as_deref().map(|n| line(&at("name"), n)).transpose()?,
        hands_on_min: quantity!(Minutes, at("hands_on_min"), doc.hands_on_min)?,
        wet_film_um: match doc.wet_film_um {
            None => None,
            Some(um) => Some(quantity!(WetFilm, at("wet_film_um"), um)?),
        },
        mix,
        share_of_area: match doc.share_of_area {
            None => 1.0,
            Some(share) => quantity!(Share, at("share_of_area"), share)?,
        },
        splittable: doc.splittable.unwrap_or_else(|| doc.kind.usually_splittable()),
        after: doc.after.clone(),
        needs: doc.needs,
        not_before: moment_if(&at("not_before"), doc.not_before)?,
        pinned_at: moment_if(&at("pinned_at"), doc.pinned_at)?,
        earliest_gap_min: match doc.earliest_gap_min {
            None => None,
            Some(min) => Some(quantity!(Minutes, at("earliest_gap_min"), min)?),
        },
        laid_at: moment_if(&at("laid_at"), doc.laid_at)?,
        tub: doc.tub.clone(),
        loss: match doc.loss {
            None => None,
            Some(loss) => Some(quantity!(Share, at("loss"), loss)?),
        },
        cup_g: match doc.cup_g {
            None => None,
            Some(grams) => Some(quantity!(Grams, at("cup_g"), grams)?),
        },
    };
    if step.loss.is_some_and(|loss| loss >= 1.0) {
        return Err(Refusal::new(at("loss"), CupError::AllLost.to_string()));
    }
    let whole = StudioDocument::coat_from(&shelf.materials, &step);
    whole.map_err(|e| {
        let field = if step.wet_film_um.is_none() { "wet_film_um" } else { "mix" };
        Refusal::new(at(field), e.to_string())
    })?;
    Ok(step)
}
