//! Quantities with their allowed ranges: one table makes every check and every message.

mod dates;
mod factor;
mod fault;
mod range;
mod text;

pub use dates::{DateOutOfRange, FIRST_DAY, LAST_DAY, MomentFault, check_day, check_moment};
pub use factor::Factor;
pub use fault::{Checked, Fault, at_most};
pub use range::{OutOfRange, RANGES, Range};
pub use text::{LONGEST_TEXT, MOST_LETTERS, check_line, check_text};

/// Declares a checked quantity: a newtype that can only be made inside its range.
macro_rules! quantity {
    ($(#[$doc:meta])* $name:ident, $range:ident) => {
        $(#[$doc])*
        #[derive(Debug, Clone, Copy, PartialEq, PartialOrd)]
        pub struct $name(f64);

        impl $name {
            /// The range this quantity is checked against.
            pub const RANGE: &'static Range = &range::$range;

            /// Makes the quantity from a number in the unit of its range.
            ///
            /// # Errors
            /// [`OutOfRange`] when the number is not finite or outside the range.
            pub fn try_new(value: f64) -> Result<Self, OutOfRange> {
                Self::RANGE.check(value).map(Self)
            }

            /// The number, in the unit of the range.
            pub const fn get(self) -> f64 {
                self.0
            }
        }
    };
}

quantity!(
    /// Wet film thickness of a coat as laid, in micrometres.
    ///
    /// ```
    /// use ulvek_core::quantity::WetFilm;
    /// assert_eq!(WetFilm::try_new(40.0).unwrap().get(), 40.0);
    /// assert!(WetFilm::try_new(0.0).is_err());
    /// ```
    WetFilm, WET_FILM
);
quantity!(
    /// How long mixed colour keeps, in days.
    KeepsDays, KEEPS
);
quantity!(
    /// Depth of an edge that is varnished too, in centimetres.
    Edge, EDGE
);
quantity!(
    /// Room temperature on the Celsius scale.
    Celsius, TEMPERATURE
);
quantity!(
    /// Relative humidity as a fraction of 1.
    RelativeHumidity, HUMIDITY
);
quantity!(
    /// How much warmer a room is made, in kelvin.
    WarmerBy, WARMER_BY
);
quantity!(
    /// How much damper a room is made, in relative humidity as a fraction of 1.
    DamperBy, DAMPER_BY
);
quantity!(
    /// Speed of the air over the picture, m/s.
    AirSpeed, AIR_SPEED
);
quantity!(
    /// Share of a volume or an area, as a fraction of 1.
    Share, SHARE
);
quantity!(
    /// The share of futures in which a state is reached by the time that is said, as a fraction of 1.
    Sure, SURE
);
quantity!(
    /// The share of planned sessions that do not happen, as a fraction of 1.
    Missed, MISSED
);
quantity!(
    /// Parts of one material in a mix, by volume.
    Parts, PARTS
);
quantity!(
    /// A side of a picture, in centimetres.
    Side, SIDE
);
quantity!(
    /// Minutes of hands-on work, set-up or waiting.
    Minutes, MINUTES
);
quantity!(
    /// Water that a ground can take up, in micrometres of water.
    Absorbency, ABSORBENCY
);
quantity!(
    /// Delay with which a ground drinks, in seconds.
    GroundDelay, GROUND_DELAY
);
quantity!(
    /// Weight of a picture against the others when dates compete.
    Weight, WEIGHT
);
quantity!(
    /// Density of a material, in grams per millilitre.
    Density, DENSITY
);
quantity!(
    /// Factor on every time of a material's drying, beside what its composition says.
    Pace, PACE
);
quantity!(
    /// A volume on the bench, in millilitres.
    Millilitres, MILLILITRES
);
quantity!(
    /// A mass on the bench scale, in grams.
    Grams, GRAMS
);
quantity!(
    /// Latitude in degrees, north positive.
    Latitude, LATITUDE
);
quantity!(
    /// How much warmer than outside an unheated room is, in kelvin.
    Warmth, WARMTH
);
quantity!(
    /// How slowly a room's temperature follows the outside, in hours.
    LagHours, LAG
);
quantity!(
    /// Air that a room changes with the outside, times per hour.
    AirChanges, AIR_CHANGES
);
quantity!(
    /// Water given off in a room, in grams per cubic metre and hour.
    Moisture, MOISTURE
);
quantity!(
    /// Longitude in degrees, east positive.
    Longitude, LONGITUDE
);

impl Sure {
    /// Brisk hands: as often later as earlier; docs/model/drying.md.
    pub const BRISK: Self = Self(0.5);
    /// Nine of ten; docs/model/drying.md.
    pub const USUAL: Self = Self(0.9);
    /// Careful hands; docs/model/drying.md.
    pub const CAREFUL: Self = Self(0.95);
}

/// How sure one may want to be, with its words; docs/model/drying.md.
pub const SURES: [(f64, &str); 3] = [
    (Sure::BRISK.0, "Brisk: as often later as earlier"),
    (Sure::USUAL.0, "Usual: by then in nine of ten cases"),
    (Sure::CAREFUL.0, "Careful: by then in nineteen of twenty cases"),
];
