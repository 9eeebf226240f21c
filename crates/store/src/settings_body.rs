//! How the settings of a studio are written into a JSON column.

use crate::StoreError;
use chrono::{NaiveDate, NaiveTime, Weekday};
use chrono_tz::Tz;
use serde::{Deserialize, Serialize};
use ulvek_core::air::AirSeries;
use ulvek_core::mix::Thinning;
use ulvek_core::quantity::Sure;
use ulvek_core::studio::{
    Closed, OpenHours, OrderEntry, Schools, Studio, StudioHours, USUALLY_MISSED, Waiting, daylight,
};

#[derive(Clone, Serialize, Deserialize)]
pub(crate) struct SettingsBody {
    name: String,
    time_zone: Tz,
    hours: Vec<(Weekday, NaiveTime, NaiveTime)>,
    closed: Vec<(NaiveDate, NaiveDate)>,
    flat_places: u32,
    setup_min: f64,
    thinning: Thinning,
    waiting: Waiting,
    fresh_eyes: bool,
    isolation_coat: bool,
    /// Share of 1.
    #[serde(default = "usually")]
    sure: f64,
    /// Share of 1.
    #[serde(default = "one_in_twenty")]
    missed_sessions: f64,
    /// Latitude and longitude [deg].
    #[serde(default)]
    daylight: Option<(f64, f64)>,
    /// Picture and step of each turn.
    #[serde(default)]
    order: Vec<(String, String)>,
}

fn usually() -> f64 {
    Sure::USUAL.get()
}

fn one_in_twenty() -> f64 {
    USUALLY_MISSED
}

impl SettingsBody {
    pub fn of(studio: &Studio) -> Self {
        Self {
            name: studio.name.clone(),
            time_zone: studio.hours.zone(),
            hours: studio.hours.weekly().iter().map(|h| (h.day, h.from, h.to)).collect(),
            closed: studio.hours.closed().iter().map(|c| (c.from, c.to)).collect(),
            flat_places: studio.flat_places,
            setup_min: studio.setup_min,
            thinning: studio.schools.thinning,
            waiting: studio.schools.waiting,
            fresh_eyes: studio.schools.fresh_eyes,
            isolation_coat: studio.schools.isolation_coat,
            sure: studio.sure.get(),
            missed_sessions: studio.missed_sessions,
            daylight: studio.daylight.map(|p| (p.latitude(), p.longitude())),
            order: studio.order.iter().map(|t| (t.picture.clone(), t.step.clone())).collect(),
        }
    }

    pub const fn zone(&self) -> Tz {
        self.time_zone
    }

    pub fn name(&self) -> &str {
        &self.name
    }

    /// The studio with `air`, an empty shelf and no pictures.
    pub fn into_studio(self, air: AirSeries) -> Result<Studio, StoreError> {
        let weekly =
            self.hours.into_iter().map(|(day, from, to)| OpenHours { day, from, to }).collect();
        let closed = self.closed.into_iter().map(|(from, to)| Closed { from, to }).collect();
        let hours = StudioHours::try_new(self.time_zone, weekly, closed)
            .map_err(|(_, e)| StoreError::Unreadable(e.to_string()))?;
        let daylight = self
            .daylight
            .map(|(latitude, longitude)| daylight::Place::try_new(latitude, longitude))
            .transpose()
            .map_err(|e| StoreError::Unreadable(e.to_string()))?;
        let order =
            self.order.into_iter().map(|(picture, step)| OrderEntry { picture, step }).collect();
        let sure = Sure::try_new(self.sure).map_err(|e| StoreError::Unreadable(e.to_string()))?;
        Ok(Studio {
            sure,
            daylight,
            order,
            flat_places: self.flat_places,
            setup_min: self.setup_min,
            missed_sessions: self.missed_sessions,
            schools: Schools {
                thinning: self.thinning,
                waiting: self.waiting,
                fresh_eyes: self.fresh_eyes,
                isolation_coat: self.isolation_coat,
            },
            ..Studio::new(self.name, hours, air)
        })
    }
}
