//! The demo studio: an invented painter's north-light room in the invented harbour town of
//! Varnholt, with six small pictures for an invented winter show. All dates hang on "now".

use chrono::{DateTime, Duration, NaiveTime, Timelike, Utc, Weekday};
use thiserror::Error;
use ulvek_core::air::{Air, AirSeries, Origin};
use ulvek_core::mix::{Material, Mix, Stock, starter_shelf};
use ulvek_core::picture::{Picture, SMALL_CM, SealRecord, Step, WAYS, usual_ground};
use ulvek_core::quantity::OutOfRange;
use ulvek_core::studio::{
    AirSource, HoursError, OpenHours, RoomAhead, Studio, StudioHours, Tightness, Tub, TubCheck,
    TubTrouble,
};
use ulvek_core::time::HOUR_S;

/// Why the demo cannot be made; a test holds that it can.
#[derive(Debug, Error)]
pub enum DemoError {
    /// An hour does not exist.
    #[error("an hour of the demo does not exist")]
    Hour,
    /// Hours do not fit.
    #[error(transparent)]
    Hours(#[from] HoursError),
    /// Air out of range.
    #[error(transparent)]
    Air(#[from] OutOfRange),
    /// The starter shelf is broken.
    #[error(transparent)]
    Shelf(#[from] ulvek_core::mix::MixError),
    /// A photograph cannot be drawn.
    #[error("a photograph of the demo cannot be drawn")]
    Photograph,
    /// A photograph cannot be kept.
    #[error(transparent)]
    Store(#[from] ulvek_store::StoreError),
    /// A way of working is missing.
    #[error("no way of working \"{0}\"")]
    Way(&'static str),
}

/// Title, way, size [cm], water the ground takes up [um], days to the due date, and hours ago at
/// which the first steps were done.
struct Sketch {
    id: &'static str,
    title: &'static str,
    way: &'static str,
    size: (f64, f64),
    absorbs_um: f64,
    due_in: i64,
    done_h_ago: &'static [f64],
}

const SKETCHES: &[Sketch] = &[
    Sketch {
        id: "carboys",
        title: "Two carboys, north window",
        way: "greys_then_colour",
        size: (40.0, 50.0),
        absorbs_um: 12.0,
        due_in: 82,
        done_h_ago: &[198.0, 173.0, 171.0, 150.0, 122.0, 51.0, 1.0],
    },
    Sketch {
        id: "sleet",
        title: "Sleet, tram wires",
        way: "mid_to_light",
        size: (30.0, 40.0),
        absorbs_um: 12.0,
        due_in: 19,
        done_h_ago: &[149.0, 126.0, 98.0, 5.5],
    },
    Sketch {
        id: "lamps",
        title: "Lamp row, harbour steps",
        way: "dark_glazes_first",
        size: (24.0, 30.0),
        absorbs_um: 6.0,
        due_in: 18,
        done_h_ago: &[525.0, 502.0, 500.0, 478.0, 454.0, 429.0, 406.0, 333.0, 309.0, 50.0],
    },
    Sketch {
        id: "lantern",
        title: "Ship's lantern, unlit",
        way: "white_under_glow",
        size: (20.0, 20.0),
        absorbs_um: 6.0,
        due_in: 16,
        done_h_ago: &[
            790.0, 766.0, 764.0, 742.0, 718.0, 694.0, 670.0, 646.0, 598.0, 574.0, 142.0, 26.0,
        ],
    },
    Sketch {
        id: "storm-glass",
        title: "Storm glass on the sill",
        way: "six_step",
        size: (30.0, 30.0),
        absorbs_um: 12.0,
        due_in: 60,
        done_h_ago: &[27.0],
    },
    Sketch {
        id: "fog-lamp",
        title: "Fog lamp at four",
        way: "back_to_front",
        size: (24.0, 36.0),
        absorbs_um: 12.0,
        due_in: 12,
        done_h_ago: &[
            2870.0, 2846.0, 2844.0, 2798.0, 2774.0, 2726.0, 2678.0, 2630.0, 2606.0, 2300.0, 2276.0,
            2252.0, 75.0,
        ],
    },
];

/// The demo studio as it would be at `now`.
///
/// # Errors
/// [`DemoError`] when its own tables do not fit together.
pub fn demo_studio(now: DateTime<Utc>) -> Result<Studio, DemoError> {
    let now = now.with_nanosecond(0).unwrap_or(now);
    let zone = chrono_tz::Europe::Oslo;
    let time = |h| NaiveTime::from_hms_opt(h, 0, 0).ok_or(DemoError::Hour);
    let mut weekly = Vec::new();
    for day in [Weekday::Mon, Weekday::Tue, Weekday::Wed, Weekday::Thu, Weekday::Fri] {
        weekly.push(OpenHours { day, from: time(17)?, to: time(21)? });
    }
    for day in [Weekday::Sat, Weekday::Sun] {
        weekly.push(OpenHours { day, from: time(10)?, to: time(16)? });
    }
    let today = now.with_timezone(&zone).date_naive();
    let mut pictures = Vec::new();
    for sketch in SKETCHES {
        let mut seal = SealRecord::default();
        if sketch.id == "lamps" {
            seal.inspected_at = Some(now - Duration::hours(2));
        }
        pictures.push(Picture {
            seal,
            title: sketch.title.into(),
            due: Some(today + Duration::days(sketch.due_in)),
            ground: usual_ground(sketch.absorbs_um),
            ground_colour: Picture::GROUND_COLOUR,
            ..Picture::new(sketch.id, sketch.size, steps(sketch, now)?)
        });
    }
    let hours = StudioHours::try_new(zone, weekly, Vec::new()).map_err(|(_, e)| e)?;
    Ok(Studio {
        flat_places: 2,
        materials: shelf(now)?,
        tubs: tubs(now),
        room: RoomAhead {
            source: AirSource::Forecast,
            taken_at: Some(now),
            ..RoomAhead::default()
        },
        pictures,
        ..Studio::new("North-light room, Varnholt", hours, room(now)?)
    })
}

/// The starter shelf with some of it counted a while ago.
fn shelf(now: DateTime<Utc>) -> Result<Vec<Material>, DemoError> {
    let mut shelf = starter_shelf()?;
    let counted = now - Duration::days(30);
    for (id, ml) in [
        ("glazing", 90.0),
        ("matte-medium", 120.0),
        ("gloss-medium", 60.0),
        ("heavy-pw6", 45.0),
        ("heavy-pbr7", 40.0),
        ("fluid-pb15", 25.0),
        ("fluid-py150", 20.0),
        ("varnish-gloss", 60.0),
        ("varnish-matte", 30.0),
        ("retarder", 50.0),
    ] {
        if let Some(material) = shelf.iter_mut().find(|m| m.id == id) {
            material.stock = Some(Stock { ml, at: counted });
        }
    }
    Ok(shelf)
}

/// Colour mixed ahead: one that keeps, one to be looked into, one that is lost.
fn tubs(now: DateTime<Utc>) -> Vec<Tub> {
    let tub = |id: &str, name: &str, parts: &[(&str, f64)], days, ml, tightness| {
        let mixed_at = now - Duration::days(days);
        Tub {
            id: id.into(),
            name: name.into(),
            mix: mix(parts),
            mixed_at,
            mixed_ml: ml,
            level: Stock { ml, at: mixed_at },
            tightness,
            keeps_days: None,
            checks: Vec::new(),
            archived: false,
        }
    };
    let glow = tub(
        "lamp-glow",
        "Lamp glow",
        &[("glazing", 90.0), ("fluid-py150", 10.0)],
        6,
        40.0,
        Tightness::Airtight,
    );
    let fog = tub(
        "fog-grey",
        "Fog grey",
        &[("heavy-grey6", 3.0), ("matte-medium", 1.0)],
        8,
        25.0,
        Tightness::Leaky,
    );
    let mut dusk = tub(
        "dusk",
        "Dusk blue",
        &[("heavy-pb29", 2.0), ("heavy-pbk9", 1.0)],
        24,
        20.0,
        Tightness::Airtight,
    );
    let looked = now - Duration::days(2);
    dusk.checks.push(TubCheck { at: looked, found: vec![TubTrouble::Mould] });
    vec![glow, fog, dusk]
}

/// Hours of the demo's forecast.
const AHEAD_H: i64 = 10 * 24;
/// When its wet front is over the harbour [h from now].
const FRONT_H: i64 = 150;

/// Readings of the simulated hygrometer and forecast: cooler and damper at night.
fn room(now: DateTime<Utc>) -> Result<AirSeries, DemoError> {
    let usual = Air::try_new(20.4, 0.47, 0.15)?;
    let hour = now.timestamp().div_euclid(3600);
    let mut readings = Vec::new();
    for h in hour - 48..hour + AHEAD_H {
        let day = std::f64::consts::TAU * (h.rem_euclid(24) as f64 - 15.0) / 24.0;
        let week = std::f64::consts::TAU * (h - hour) as f64 / (5.0 * 24.0);
        // A wet front that goes through towards the end of the week.
        let front = (-((h - hour - FRONT_H) as f64 / 20.0).powi(2)).exp();
        let air = Air::try_new(
            20.4 + 0.9 * day.cos(),
            0.47 - 0.04 * day.cos() + 0.05 * week.sin() + 0.24 * front,
            0.15,
        )?;
        let origin = if h < hour { Origin::Measured } else { Origin::Forecast };
        readings.push((h as f64 * HOUR_S, air, origin));
    }
    // After the forecast the room is as usual.
    readings.push(((hour + AHEAD_H) as f64 * HOUR_S, usual, Origin::Usual));
    Ok(AirSeries::of(usual, readings))
}

fn steps(sketch: &Sketch, now: DateTime<Utc>) -> Result<Vec<Step>, DemoError> {
    let way = WAYS.iter().find(|w| w.id == sketch.way).ok_or(DemoError::Way(sketch.way))?;
    // As long as their painter takes for a small picture.
    let mut steps = way.steps_on(SMALL_CM);
    if sketch.id == "sleet" {
        // The picture that will not make its date unless something changes: a retarded glaze, and
        // slow-drying paint in the coat to come.
        steps[4].mix = mix(&[("slow-pbr7", 2.0), ("heavy-grey3", 1.0)]);
        steps[3].mix = mix(&[("glazing", 76.5), ("fluid-py150", 8.5), ("retarder", 15.0)]);
    }
    if sketch.id == "carboys" {
        // The glaze that is drying now was kept open for a soft edge.
        steps[6].mix = mix(&[("glazing", 90.0), ("fluid-pv19", 5.0), ("retarder", 5.0)]);
        steps[5].tub = Some("lamp-glow".into());
    }
    if sketch.id == "storm-glass" {
        // Glass and sill are painted each for itself, and dry beside each other.
        for (i, section, share_of_area) in [(2, "glass", 0.6), (3, "sill", 0.4)] {
            steps[i].section = Some(section.into());
            steps[i].share_of_area = share_of_area;
        }
    }
    for (step, hours) in steps.iter_mut().zip(sketch.done_h_ago) {
        step.laid_at = Some(now - Duration::seconds((hours * HOUR_S) as i64));
    }
    Ok(steps)
}

fn mix(parts: &[(&str, f64)]) -> Mix {
    Mix::of(parts)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::formats::Document;
    use ulvek_core::rules::{Severity, check};

    #[test]
    fn the_demo_is_a_sound_document_on_any_day() {
        for day in ["2026-03-29T00:30:00Z", "2026-10-25T01:30:00Z", "2028-02-29T12:00:00Z"] {
            let demo = demo_studio(day.parse().unwrap()).unwrap();
            let again = Document::of(&demo).read().unwrap();
            assert_eq!((again.check(), &again.pictures), (Ok(()), &demo.pictures));
            let stops: Vec<_> = check(&demo, day.parse().unwrap())
                .unwrap()
                .into_iter()
                .filter(|f| f.severity == Severity::Stop)
                .collect();
            assert_eq!(stops, [], "the demo breaks no rule that stops");
        }
    }
}
