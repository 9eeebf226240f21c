//! From the checked document back to the written one.

use super::FORMAT;
use super::document::{
    AirDoc, ClosedDoc, DaylightDoc, Document, GroundDoc, HourDoc, HourlyDoc, PartDoc, PictureDoc,
    SchoolsDoc, SetAsideDoc, StepDoc, StudioDoc, ThinningDoc, TurnDoc,
};
use super::seal_doc::{ahead_doc, seal_doc};
use super::shelf_doc::{MaterialDoc, StockDoc, TubCheckDoc, TubDoc, WayDoc};
use chrono::{DateTime, FixedOffset, NaiveTime, Timelike, Utc};
use chrono_tz::Tz;
use ulvek_core::air::Air;
use ulvek_core::picture::{Part, Picture, Step};
use ulvek_core::studio::{Material, OwnWay, Stock, StudioDocument, Tub, Turn};

/// Writes a whole studio; times in the studio's own zone.
pub fn write_document(document: &StudioDocument) -> Document {
    let zone = document.hours.zone();
    let (studio, air) = studio_doc(document);
    Document {
        format: FORMAT.to_owned(),
        studio,
        air,
        materials: document.materials.iter().map(|m| material_doc(m, zone)).collect(),
        tubs: document.tubs.iter().map(|t| tub_doc(t, zone)).collect(),
        ways: document.ways.iter().map(|w| way_doc(w, zone)).collect(),
        pictures: document.pictures.iter().map(|p| picture_doc(p, zone)).collect(),
    }
}

/// Writes the settings of a studio.
pub fn studio_doc(document: &StudioDocument) -> (StudioDoc, AirDoc) {
    let zone = document.hours.zone();
    let usual = document.air.usual();
    let hourly =
        document.air.readings().iter().map(|(at, air)| hourly_doc(*at, air, zone)).collect();
    let studio = StudioDoc {
        name: document.name.clone(),
        time_zone: zone.name().to_owned(),
        hours: document
            .hours
            .weekly()
            .iter()
            .map(|h| HourDoc {
                day: h.day.to_string().to_lowercase(),
                from: clock(h.from),
                to: clock(h.to),
            })
            .collect(),
        closed: document
            .hours
            .closed()
            .iter()
            .map(|c| ClosedDoc { from: c.from, to: c.to })
            .collect(),
        flat_places: document.flat_places,
        setup_min: document.setup_min,
        daylight: document
            .daylight
            .map(|p| DaylightDoc { latitude_deg: p.latitude(), longitude_deg: p.longitude() }),
        order: document.order.iter().map(turn_doc).collect(),
        schools: SchoolsDoc {
            thinning: document.schools.thinning,
            waiting: document.schools.waiting,
            fresh_eyes: document.schools.fresh_eyes,
            isolation_coat: document.schools.isolation_coat,
        },
    };
    let air = AirDoc {
        temperature_c: usual.celsius,
        relative_humidity: usual.humidity,
        air_speed_m_s: usual.speed_m_s,
        hourly,
        ahead: ahead_doc(&document.room, zone),
    };
    (studio, air)
}

/// Writes one entry of an order of work.
pub fn turn_doc(turn: &Turn) -> TurnDoc {
    TurnDoc { picture: turn.picture.clone(), step: turn.step.clone() }
}

fn clock(time: NaiveTime) -> String {
    if time.num_seconds_from_midnight() == 86_399 {
        return "24:00".to_owned();
    }
    time.format("%H:%M").to_string()
}

fn hourly_doc(at: f64, air: &Air, zone: Tz) -> HourlyDoc {
    let micros = (at * 1e6).round() as i64;
    let at = DateTime::<Utc>::from_timestamp_micros(micros).unwrap_or_default();
    HourlyDoc {
        at: local(at, zone),
        temperature_c: air.celsius,
        relative_humidity: air.humidity,
        air_speed_m_s: Some(air.speed_m_s),
    }
}

/// An instant with the offset of the studio's zone.
pub(crate) fn local(at: DateTime<Utc>, zone: Tz) -> DateTime<FixedOffset> {
    at.with_timezone(&zone).fixed_offset()
}

/// Writes a material; times in `zone`.
pub fn material_doc(material: &Material, zone: Tz) -> MaterialDoc {
    let pace = material.composition.pace();
    MaterialDoc {
        id: material.id.clone(),
        name: material.name.clone(),
        kind: material.kind.word().to_owned(),
        solids: material.composition.solids(),
        water: material.composition.water(),
        glycol: material.composition.glycol(),
        binder: material.binder,
        density_g_ml: material.density_g_ml,
        swatch: material.swatch.map(|s| s.to_hex()),
        // The model's own pace goes without saying.
        pace: if pace.to_bits() == 1.0f64.to_bits() { None } else { Some(pace) },
        line: material.line,
        opacity: material.opacity,
        finish: material.finish,
        pigments: material.pigments.clone(),
        hazards: material.hazards.clone(),
        most_retarder: material.most_retarder,
        most_water: material.most_water,
        stock: material.stock.as_ref().map(|s| stock_doc(s, zone)),
        source: material.source.clone(),
        archived: material.archived,
    }
}

fn stock_doc(stock: &Stock, zone: Tz) -> StockDoc {
    StockDoc { ml: stock.ml, at: local(stock.at, zone) }
}

/// Writes a tub; times in `zone`.
pub fn tub_doc(tub: &Tub, zone: Tz) -> TubDoc {
    TubDoc {
        id: tub.id.clone(),
        name: tub.name.clone(),
        mix: mix_doc(&tub.mix),
        mixed_at: local(tub.mixed_at, zone),
        mixed_ml: tub.mixed_ml,
        level: Some(stock_doc(&tub.level, zone)),
        tightness: tub.tightness,
        keeps_days: tub.keeps_days,
        checks: tub
            .checks
            .iter()
            .map(|c| TubCheckDoc { at: local(c.at, zone), found: c.found.clone() })
            .collect(),
        archived: tub.archived,
    }
}

/// Writes a way of working; times in `zone`.
pub fn way_doc(way: &OwnWay, zone: Tz) -> WayDoc {
    WayDoc {
        id: way.id.clone(),
        name: way.name.clone(),
        why: way.why.clone(),
        steps: way.steps.iter().map(|s| step_doc(s, zone)).collect(),
    }
}

/// Writes a mix.
pub fn mix_doc(mix: &[Part]) -> Vec<PartDoc> {
    mix.iter().map(|p| PartDoc { material: p.material.clone(), parts: p.parts }).collect()
}

/// Writes a picture; times in `zone`.
pub fn picture_doc(picture: &Picture, zone: Tz) -> PictureDoc {
    PictureDoc {
        id: picture.id.clone(),
        title: picture.title.clone(),
        width_cm: picture.width_cm,
        height_cm: picture.height_cm,
        weight: picture.weight,
        due: picture.due,
        ground: GroundDoc { absorbs_um: picture.absorbs_um },
        steps: picture.steps.iter().map(|s| step_doc(s, zone)).collect(),
        thinning: picture
            .thinning
            .as_ref()
            .map(|t| ThinningDoc { school: t.school, reason: t.reason.clone() }),
        set_aside: picture
            .set_aside
            .iter()
            .map(|a| SetAsideDoc {
                rule: a.rule.clone(),
                step: a.step.clone(),
                reason: a.reason.clone(),
                at: local(a.at, zone),
            })
            .collect(),
        seal: seal_doc(&picture.seal, zone),
    }
}

/// Writes a step; times in `zone`.
pub fn step_doc(step: &Step, zone: Tz) -> StepDoc {
    StepDoc {
        id: step.id.clone(),
        kind: step.kind,
        name: step.name.clone(),
        hands_on_min: step.hands_on_min,
        wet_film_um: step.wet_film_um,
        mix: mix_doc(&step.mix),
        share_of_area: Some(step.share_of_area),
        splittable: Some(step.splittable),
        after: step.after.clone(),
        needs: step.needs,
        not_before: step.not_before.map(|t| local(t, zone)),
        earliest_gap_min: step.earliest_gap_min,
        pinned_at: step.pinned_at.map(|t| local(t, zone)),
        laid_at: step.laid_at.map(|t| local(t, zone)),
        tub: step.tub.clone(),
        loss: step.loss,
        cup_g: step.cup_g,
    }
}
