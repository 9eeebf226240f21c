//! The colour of transparent coats: what is seen before it is painted.
//!
//! A colour of a screen becomes the smoothest reflectance that looks like it ([`reconstruct`]); the
//! surface is taken off ([`Inside`]). Two readings of a paint, over a white and a black card, give its
//! absorption and scattering ([`Optics`]); its tint with white tells how strong it is. Both add up in a
//! mix by volume of solids ([`Tubes`]); coats lie over coats by Kubelka-Munk. Differences are CIEDE2000.
//! A screen is not paint: readings of the starter shelf are from memory, and a spectrum told from three
//! numbers is one of many.

mod cards;
mod coats;
mod matching;
mod observer;
mod paint;
mod photographed;
mod reconstruct;
mod seen;
mod shelf;
mod spectrum;
mod surface;
mod tint;
mod told;
mod values;

pub use cards::{grey, ground, usual_cards};
pub use coats::{UNDERPAINTINGS, even_values};
pub use matching::{Found, MOST_PAINTS, Means, Target, Wish, matches};
pub use paint::{Optics, Untold};
pub use photographed::{Spot, SwatchRead, read_swatch};
pub use reconstruct::reconstruct;
pub use seen::{Lab, Seen};
pub use shelf::{Mixed, Told, Tubes, told_by_tint};
pub use spectrum::{BANDS, Spectrum};
pub use surface::{Inside, veil};
pub use values::{EARLY, Patch, Spacing, VALUES, Value, value_string, values_of};
