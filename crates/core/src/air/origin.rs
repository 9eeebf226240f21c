//! Where what is known of the air comes from.

use crate::words::words;

words! {
    /// Where a stretch of the room's air is from.
    Origin {
        /// Nowhere: the room as it is usually kept.
        Usual = "constant",
        /// A forecast of the outside, through the room.
        Forecast = "forecast",
        /// A table of readings that the painter brought.
        Table = "readings",
        /// A reading that the painter typed.
        Typed = "typed",
        /// An instrument in the room.
        Measured = "measured",
    }
}

impl Origin {
    /// What painters call it.
    pub const fn said(self) -> &'static str {
        match self {
            Self::Usual => "the room as it is usually kept",
            Self::Forecast => "the forecast, followed by the room",
            Self::Table => "readings you brought",
            Self::Typed => "a reading you typed",
            Self::Measured => "the hygrometer",
        }
    }
}
