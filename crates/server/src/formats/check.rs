//! From the written document to the checked one, with the place and the reason of a refusal.

use super::document::{AirDoc, Document, MaterialDoc, PictureDoc, StepDoc, StudioDoc};
use chrono::{NaiveTime, Utc, Weekday};
use chrono_tz::Tz;
use std::collections::HashSet;
use thiserror::Error;
use ulvek_core::air::{Air, AirSeries};
use ulvek_core::film::Composition;
use ulvek_core::picture::{Part, Picture, Step, check_chain};
use ulvek_core::quantity::{
    Absorbency, AirSpeed, Celsius, Density, Minutes, OutOfRange, Parts, RelativeHumidity, Share,
    Side, Weight, WetFilm,
};
use ulvek_core::studio::{
    Closed, HoursError, Material, MaterialKind, OpenHours, Schools, StudioDocument, StudioHours,
    Swatch,
};

/// Most pictures in a studio. [practice]
const MOST_PICTURES: usize = 500;
/// Most steps on a picture. [practice]
const MOST_STEPS: usize = 500;
/// Most readings of the air: ten years of hours. [practice]
const MOST_READINGS: usize = 90_000;
/// Longest text of one line. [practice]
const MOST_LETTERS: usize = 200;
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

type Checked<T> = Result<T, Refusal>;

/// Checks a number by its quantity and returns it.
fn number<Q>(
    path: &str,
    value: f64,
    make: fn(f64) -> Result<Q, OutOfRange>,
    get: fn(Q) -> f64,
) -> Checked<f64> {
    make(value).map(get).map_err(|e| Refusal::new(path, e.to_string()))
}

macro_rules! quantity {
    ($kind:ident, $path:expr, $value:expr) => {
        number(&$path, $value, $kind::try_new, $kind::get)
    };
}

fn line(path: &str, text: &str) -> Checked<String> {
    let text = text.trim();
    if text.is_empty() {
        return Err(Refusal::new(path, "must not be empty"));
    }
    let letters = text.chars().count();
    if letters > MOST_LETTERS {
        return Err(Refusal::new(
            path,
            format!("has {letters} letters; at most {MOST_LETTERS} fit"),
        ));
    }
    Ok(text.to_owned())
}

fn at_most(path: &str, count: usize, most: usize, what: &str) -> Checked<()> {
    if count > most {
        return Err(Refusal::new(path, format!("has {count} {what}; at most {most} are taken")));
    }
    Ok(())
}

fn unique<'a>(base: &str, ids: impl Iterator<Item = &'a str>) -> Checked<()> {
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
    for (i, material) in document.materials.iter().enumerate() {
        checked.materials.push(check_material(&format!("materials[{i}]"), material)?);
    }
    unique("materials", document.materials.iter().map(|m| m.id.as_str()))?;
    for (i, picture) in document.pictures.iter().enumerate() {
        let path = format!("pictures[{i}]");
        checked.pictures.push(check_picture(&path, picture, &checked.materials)?);
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
    let closed = studio.closed.iter().map(|c| Closed { from: c.from, to: c.to }).collect();
    let hours = StudioHours::try_new(zone, weekly, closed).map_err(|(i, e)| {
        let list = if matches!(e, HoursError::Order { .. }) { "hours" } else { "closed" };
        Refusal::new(format!("studio.{list}[{i}]"), e.to_string())
    })?;
    if studio.flat_places > MOST_PLACES {
        let reason = format!("must be from 0 to {MOST_PLACES}, not {}", studio.flat_places);
        return Err(Refusal::new("studio.flat_places", reason));
    }
    Ok(StudioDocument {
        name: line("studio.name", &studio.name)?,
        hours,
        flat_places: studio.flat_places,
        setup_min: quantity!(Minutes, "studio.setup_min", studio.setup_min)?,
        schools: Schools {
            thinning: studio.schools.thinning,
            waiting: studio.schools.waiting,
            fresh_eyes: studio.schools.fresh_eyes,
            isolation_coat: studio.schools.isolation_coat,
        },
        air: check_air(air)?,
        materials: Vec::new(),
        pictures: Vec::new(),
    })
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

fn check_air(air: &AirDoc) -> Checked<AirSeries> {
    at_most("air.hourly", air.hourly.len(), MOST_READINGS, "readings")?;
    let reading = |path: &str, celsius: f64, humidity: f64, speed: f64| {
        Ok(Air {
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
        let at = hour.at.timestamp_micros() as f64 / 1e6;
        readings.push((at, reading(&path, hour.temperature_c, hour.relative_humidity, speed)?));
    }
    Ok(AirSeries::new(base, readings))
}

fn check_material(path: &str, material: &MaterialDoc) -> Checked<Material> {
    let swatch = match &material.swatch {
        None => None,
        Some(hex) => Some(Swatch::from_hex(hex).ok_or_else(|| {
            let reason = format!("\"{hex}\" is not a colour; write it as in #c4923e");
            Refusal::new(format!("{path}.swatch"), reason)
        })?),
    };
    let composition = Composition::try_new(material.solids, material.water, material.glycol)
        .map_err(|e| Refusal::new(path, e.to_string()))?;
    let binder = match material.binder {
        None => None,
        Some(binder) => {
            let place = format!("{path}.binder");
            let share = quantity!(Share, place, binder)?;
            // The document rounds to two digits, so the binder may pass the solids by a hair.
            if share > composition.solids() + 0.011 {
                return Err(Refusal::new(place, "is more than the solids it is a part of"));
            }
            Some(share)
        }
    };
    let density_g_ml = match material.density_g_ml {
        None => None,
        Some(density) => Some(quantity!(Density, format!("{path}.density_g_ml"), density)?),
    };
    Ok(Material {
        binder,
        density_g_ml,
        id: line(&format!("{path}.id"), &material.id)?,
        name: line(&format!("{path}.name"), &material.name)?,
        kind: MaterialKind::from_word(&line(&format!("{path}.kind"), &material.kind)?),
        composition,
        swatch,
    })
}

/// Checks a picture against the shelf its mixes use.
///
/// # Errors
/// [`Refusal`] of the first place that does not fit.
pub fn check_picture(path: &str, doc: &PictureDoc, shelf: &[Material]) -> Checked<Picture> {
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
        due: doc.due,
        absorbs_um: quantity!(Absorbency, at("ground.absorbs_um"), doc.ground.absorbs_um)?,
        steps,
    };
    check_chain(&picture)
        .map_err(|e| Refusal::new(at(&format!("steps[{}]", e.step())), e.to_string()))?;
    Ok(picture)
}

fn check_step(path: &str, doc: &StepDoc, shelf: &[Material]) -> Checked<Step> {
    let at = |field: &str| format!("{path}.{field}");
    let mut mix = Vec::with_capacity(doc.mix.len());
    for (i, part) in doc.mix.iter().enumerate() {
        let place = at(&format!("mix[{i}]"));
        if !shelf.iter().any(|m| m.id == part.material) {
            let reason = format!("no material \"{}\" is on the shelf", part.material);
            return Err(Refusal::new(format!("{place}.material"), reason));
        }
        let parts = quantity!(Parts, format!("{place}.parts"), part.parts)?;
        mix.push(Part { material: part.material.clone(), parts });
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
        not_before: doc.not_before.map(|t| t.with_timezone(&Utc)),
        earliest_gap_min: match doc.earliest_gap_min {
            None => None,
            Some(min) => Some(quantity!(Minutes, at("earliest_gap_min"), min)?),
        },
        laid_at: doc.laid_at.map(|t| t.with_timezone(&Utc)),
    };
    let whole = StudioDocument::coat_from(shelf, &step);
    whole.map_err(|e| {
        let field = if step.wet_film_um.is_none() { "wet_film_um" } else { "mix" };
        Refusal::new(at(field), e.to_string())
    })?;
    Ok(step)
}
