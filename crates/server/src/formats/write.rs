//! From the checked document back to the written one.

use super::FORMAT;
use super::document::{
    AirDoc, ClosedDoc, Document, GroundDoc, HourDoc, HourlyDoc, MaterialDoc, PartDoc, PictureDoc,
    SchoolsDoc, StepDoc, StudioDoc,
};
use chrono::{DateTime, FixedOffset, NaiveTime, Timelike, Utc};
use chrono_tz::Tz;
use ulvek_core::air::Air;
use ulvek_core::picture::{Picture, Step};
use ulvek_core::studio::{Material, StudioDocument};

/// Writes a whole studio; times in the studio's own zone.
pub fn write_document(document: &StudioDocument) -> Document {
    let zone = document.hours.zone();
    let (studio, air) = studio_doc(document);
    Document {
        format: FORMAT.to_owned(),
        studio,
        air,
        materials: document.materials.iter().map(material_doc).collect(),
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
    };
    (studio, air)
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

/// Writes a material.
pub fn material_doc(material: &Material) -> MaterialDoc {
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
    }
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
    }
}

fn step_doc(step: &Step, zone: Tz) -> StepDoc {
    StepDoc {
        id: step.id.clone(),
        kind: step.kind,
        name: step.name.clone(),
        hands_on_min: step.hands_on_min,
        wet_film_um: step.wet_film_um,
        mix: step
            .mix
            .iter()
            .map(|p| PartDoc { material: p.material.clone(), parts: p.parts })
            .collect(),
        share_of_area: Some(step.share_of_area),
        splittable: Some(step.splittable),
        after: step.after.clone(),
        needs: step.needs,
        not_before: step.not_before.map(|t| local(t, zone)),
        earliest_gap_min: step.earliest_gap_min,
        laid_at: step.laid_at.map(|t| local(t, zone)),
    }
}
