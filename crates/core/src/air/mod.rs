//! The room: moist air, heat and mass transfer at the picture, and air over time.

mod mass_transfer;
mod moment;
mod psychrometrics;
mod room;
mod series;

pub use mass_transfer::{Transfer, heat_transfer_coefficient};
pub use moment::{Air, ORDINARY_M_S, RoomChange, SPEEDS};
pub(crate) use psychrometrics::GAS_CONSTANT;
pub use psychrometrics::{
    KELVIN, dew_point_c, humidity_ratio, saturation_pressure_pa, vapour_concentration_kg_m3,
    wet_bulb_c,
};
pub use room::{Room, RoomHour};
pub use series::{AirSeries, Deviation};
