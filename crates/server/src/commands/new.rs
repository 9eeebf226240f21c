//! `ulvek new`: an empty studio to begin with by hand.

use super::CommandError;
use crate::formats::Document;
use serde_json::Value;
use ulvek_core::air::{Air, AirSeries, ORDINARY_M_S};
use ulvek_core::mix::starter_shelf;
use ulvek_core::quantity::Fault;
use ulvek_core::studio::{Studio, StudioHours};

/// The room that a new studio begins with, on the page too: temperature [C] and relative humidity [-]. [practice]
const ROOM: (f64, f64) = (20.0, 0.50);

/// The document of a studio called `name` with the starter shelf, an ordinary room, and no hours or pictures yet.
///
/// # Errors
/// [`CommandError::Refused`] when the name or the time zone cannot be.
pub fn new(name: &str, time_zone: &str) -> Result<Value, CommandError> {
    let refused = |path: &str, why: String| CommandError::Refused {
        path: path.to_owned(),
        fault: Fault::new("", why),
    };
    let zone: chrono_tz::Tz = time_zone
        .parse()
        .map_err(|_| refused("--time-zone", format!("there is no time zone \"{time_zone}\"")))?;
    let hours = StudioHours::try_new(zone, Vec::new(), Vec::new())
        .map_err(|(_, why)| refused("--time-zone", why.to_string()))?;
    let materials = starter_shelf().map_err(|why| refused("the starter shelf", why.to_string()))?;
    let (celsius, humidity) = ROOM;
    let air = Air::try_new(celsius, humidity, ORDINARY_M_S)
        .map_err(|why| refused("the usual room", why.to_string()))?;
    let studio = Studio { materials, ..Studio::new(name, hours, AirSeries::constant(air)) };
    studio.check().map_err(|fault| CommandError::Refused { path: "--name".into(), fault })?;
    serde_json::to_value(Document::of(&studio))
        .map_err(|why| refused("the document", why.to_string()))
}
