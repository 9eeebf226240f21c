//! The settings of a studio: shape, reading and writing.

use super::fields::line;
use super::words;
use chrono::{NaiveDate, NaiveTime, Weekday};
use chrono_tz::Tz;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ulvek_core::air::AirSeries;
use ulvek_core::mix::Thinning;
use ulvek_core::quantity::{Checked, Fault, Latitude, Sure};
use ulvek_core::studio::{
    Closed, HoursError, MIDNIGHT, OpenHours, OrderEntry, Schools, Studio, StudioHours,
    USUALLY_MISSED, Waiting, daylight,
};
use utoipa::ToSchema;

/// Hours, places and schools of a studio.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct StudioDoc {
    /// What the painter calls it.
    pub name: String,
    /// IANA name of the time zone, e.g. `Europe/Oslo`.
    pub time_zone: String,
    /// Weekly hours; none means that nothing can be planned.
    #[serde(default)]
    pub hours: Vec<HourDoc>,
    /// Days off.
    #[serde(default)]
    pub closed: Vec<ClosedDoc>,
    /// Places where wet work can lie flat; 1 when not said.
    #[serde(default = "one_place")]
    pub flat_places: u32,
    /// Minutes to change picture or mix; 10 when not said.
    #[serde(default = "ten_minutes")]
    pub setup_min: f64,
    /// Where the studio stands, when colour is judged by daylight only.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub daylight: Option<DaylightDoc>,
    /// The painter's schools.
    #[serde(default)]
    pub schools: SchoolsDoc,
    /// Share of the futures in which a time that is said must hold, 0.5 to 0.99; 0.9 when not said.
    #[serde(default = "usually")]
    pub sure: f64,
    /// Share of the sessions that do not happen, 0 to 0.9: the odds of a date count with it; 0.05 when not
    /// said.
    #[serde(default = "one_in_twenty")]
    pub missed_sessions: f64,
    /// The order of work that was settled on; without it, what can start first comes first.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub order: Vec<OrderEntryDoc>,
}

/// Where the studio stands: between sunrise and sunset there colour may be judged.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DaylightDoc {
    /// Degrees, north positive.
    pub latitude_deg: f64,
    /// Degrees, east positive.
    pub longitude_deg: f64,
}

/// One entry of an order of work.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OrderEntryDoc {
    /// The picture's `id`.
    pub picture: String,
    /// The step's `id`.
    pub step: String,
}

const fn one_place() -> u32 {
    1
}

const fn usually() -> f64 {
    Sure::USUAL.get()
}

const fn one_in_twenty() -> f64 {
    USUALLY_MISSED
}

const fn ten_minutes() -> f64 {
    10.0
}

/// Hours on one day of the week.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct HourDoc {
    /// `mon` to `sun`.
    pub day: String,
    /// Start, `HH:MM`, local time.
    pub from: String,
    /// End, `HH:MM`, local time; `24:00` is the end of the day.
    pub to: String,
}

/// Days off, first and last included.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ClosedDoc {
    /// First day off.
    pub from: NaiveDate,
    /// Last day off.
    pub to: NaiveDate,
}

/// The painter's schools; what is not said is the studio's usual: medium only, standard waiting,
/// fresh eyes, no isolation coat.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct SchoolsDoc {
    /// How paint is made thinner.
    #[schemars(schema_with = "words::json::thinning")]
    #[schema(schema_with = words::api::thinning)]
    pub thinning: Thinning,
    /// How long to wait before varnish.
    #[schemars(schema_with = "words::json::waiting")]
    #[schema(schema_with = words::api::waiting)]
    pub waiting: Waiting,
    /// A night between blocking in and glazing.
    pub fresh_eyes: bool,
    /// A clear permanent coat between paint and removable varnish.
    pub isolation_coat: bool,
}

impl Default for SchoolsDoc {
    fn default() -> Self {
        let usual = ulvek_core::studio::Schools::default();
        Self {
            thinning: usual.thinning,
            waiting: usual.waiting,
            fresh_eyes: usual.fresh_eyes,
            isolation_coat: usual.isolation_coat,
        }
    }
}

/// Days of the week as they are written.
pub(super) const DAYS: [(&str, Weekday); 7] = [
    ("mon", Weekday::Mon),
    ("tue", Weekday::Tue),
    ("wed", Weekday::Wed),
    ("thu", Weekday::Thu),
    ("fri", Weekday::Fri),
    ("sat", Weekday::Sat),
    ("sun", Weekday::Sun),
];

impl StudioDoc {
    /// Writes the settings of a studio.
    pub fn of(studio: &Studio) -> Self {
        let hours = &studio.hours;
        Self {
            name: studio.name.clone(),
            time_zone: hours.zone().name().to_owned(),
            hours: hours.weekly().iter().map(HourDoc::of).collect(),
            closed: hours.closed().iter().map(|c| ClosedDoc { from: c.from, to: c.to }).collect(),
            flat_places: studio.flat_places,
            setup_min: studio.setup_min,
            daylight: studio
                .daylight
                .map(|p| DaylightDoc { latitude_deg: p.latitude(), longitude_deg: p.longitude() }),
            order: studio.order.iter().map(OrderEntryDoc::of).collect(),
            sure: studio.sure.get(),
            missed_sessions: studio.missed_sessions,
            schools: SchoolsDoc {
                thinning: studio.schools.thinning,
                waiting: studio.schools.waiting,
                fresh_eyes: studio.schools.fresh_eyes,
                isolation_coat: studio.schools.isolation_coat,
            },
        }
    }

    /// The studio in `air`, with these settings and nothing else; whether they may be is the check's to
    /// say.
    ///
    /// # Errors
    /// [`Fault`] of the first place that cannot be read.
    pub fn read(&self, air: AirSeries) -> Checked<Studio> {
        let zone: Tz = self.time_zone.parse().map_err(|_| {
            let why =
                format!("\"{}\" is not a time zone; write it as in Europe/Oslo", self.time_zone);
            Fault::new("studio.time_zone", why)
        })?;
        let mut weekly = Vec::with_capacity(self.hours.len());
        for (i, hours) in self.hours.iter().enumerate() {
            weekly.push(hours.read().map_err(|f| f.within(&format!("studio.hours[{i}]")))?);
        }
        let closed = self.closed.iter().map(|c| Closed { from: c.from, to: c.to }).collect();
        let hours = StudioHours::try_new(zone, weekly, closed).map_err(|(i, e)| {
            let list = if matches!(e, HoursError::Order { .. }) { "hours" } else { "closed" };
            Fault::new(format!("studio.{list}[{i}]"), e)
        })?;
        let daylight = self.daylight.as_ref().map(DaylightDoc::read).transpose()?;
        let sure = Sure::try_new(self.sure).map_err(|e| Fault::new("studio.sure", e))?;
        Ok(Studio {
            sure,
            daylight,
            order: self.order.iter().map(OrderEntryDoc::read).collect(),
            flat_places: self.flat_places,
            setup_min: self.setup_min,
            missed_sessions: self.missed_sessions,
            schools: Schools {
                thinning: self.schools.thinning,
                waiting: self.schools.waiting,
                fresh_eyes: self.schools.fresh_eyes,
                isolation_coat: self.schools.isolation_coat,
            },
            ..Studio::new(line(&self.name), hours, air)
        })
    }
}

impl DaylightDoc {
    fn read(&self) -> Checked<daylight::Place> {
        daylight::Place::try_new(self.latitude_deg, self.longitude_deg).map_err(|e| {
            let field = if e.range == *Latitude::RANGE { "latitude_deg" } else { "longitude_deg" };
            Fault::new(format!("studio.daylight.{field}"), e)
        })
    }
}

impl OrderEntryDoc {
    /// Writes one entry of an order of work.
    pub fn of(entry: &OrderEntry) -> Self {
        Self { picture: entry.picture.clone(), step: entry.step.clone() }
    }

    fn read(&self) -> OrderEntry {
        OrderEntry { picture: self.picture.clone(), step: self.step.clone() }
    }
}

impl HourDoc {
    fn of(hours: &OpenHours) -> Self {
        let day = DAYS.iter().find(|(_, day)| *day == hours.day).map_or("", |(word, _)| word);
        Self { day: day.to_owned(), from: clock(hours.from), to: clock(hours.to) }
    }

    fn read(&self) -> Checked<OpenHours> {
        let day = DAYS.iter().find(|(word, _)| *word == self.day).ok_or_else(|| {
            Fault::new("day", format!("\"{}\" is not a day; mon to sun are", self.day))
        })?;
        let time = |field, text| read_clock(text).map_err(|f| f.within(field));
        Ok(OpenHours { day: day.1, from: time("from", &self.from)?, to: time("to", &self.to)? })
    }
}

fn clock(time: NaiveTime) -> String {
    if time == MIDNIGHT {
        return "24:00".to_owned();
    }
    time.format("%H:%M").to_string()
}

/// Reads `HH:MM`; `24:00` is the end of the day.
fn read_clock(text: &str) -> Checked<NaiveTime> {
    if text == "24:00" {
        return Ok(MIDNIGHT);
    }
    NaiveTime::parse_from_str(text, "%H:%M")
        .map_err(|_| Fault::new("", format!("\"{text}\" is not a time; write it as in 09:30")))
}
