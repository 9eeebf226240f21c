//! The room: moist air, heat and mass transfer at the picture, and air over time.

mod instrument;
mod mass_transfer;
mod measured;
mod moment;
mod origin;
mod psychrometrics;
mod room;
mod series;

pub use instrument::{AHEAD, InstrumentKind, LATEST, untimely};
pub use mass_transfer::{Transfer, heat_transfer_coefficient};
pub use measured::{Doubt, Measured, MeasuredHour, doubts, hours_of, off_by};
pub use moment::{Air, ORDINARY_M_S, RoomChange, SPEEDS};
pub use origin::Origin;
pub(crate) use psychrometrics::GAS_CONSTANT;
pub use psychrometrics::{
    KELVIN, dew_point_c, humidity_ratio, saturation_pressure_pa, vapour_concentration_kg_m3,
    wet_bulb_c,
};
pub use room::{Room, RoomHour};
pub use series::{AirSeries, Deviation};
