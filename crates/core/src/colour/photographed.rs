//! A paint read from a photograph of its swatch: four places, put right by the bare card.

use super::seen::Lab;
use crate::mix::{Drawdown, Swatch};
use crate::quantity::Fault;
use palette::{LinSrgb, Srgb};

/// Share of a spot's points that may be blown out [-]. [practice]
const BLOWN: f64 = 0.02;
/// A channel that the camera could not count any more. [practice]
const FULL: u8 = 254;
/// Light by which the bare white half must outshine the black one [-, linear]. [practice] A tenth of white.
const CARDS_APART: f64 = 0.1;
/// Light above the bare white half that is noise [-, linear]. [practice]
const NOISE: f64 = 0.03;

/// One place of a photograph.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Spot {
    light: [f64; 3],
    /// Its mean colour, of light.
    pub colour: Swatch,
    /// How far its points lie from that in the mean (CIEDE2000).
    pub spread: f64,
    blown: f64,
}

impl Spot {
    /// The place with these points; `None` without any.
    pub fn of(points: &[Swatch]) -> Option<Self> {
        let n = points.len() as f64;
        if points.is_empty() {
            return None;
        }
        let mut light = [0.0; 3];
        for point in points {
            for (sum, part) in light.iter_mut().zip(linear(*point)) {
                *sum += part / n;
            }
        }
        let colour = on_screen(light);
        let mean = Lab::of(colour);
        let spread = points.iter().map(|p| Lab::of(*p).apart(mean)).sum::<f64>() / n;
        let blown = points.iter().filter(|p| p.0.iter().any(|part| *part >= FULL));
        Some(Self { light, colour, spread, blown: blown.count() as f64 / n })
    }
}

/// A swatch as it was read from a photograph.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct SwatchRead {
    /// The paint over the white half, as over the usual white card.
    pub over_white: Swatch,
    /// The paint over the black half, as over the usual black card.
    pub over_black: Swatch,
    /// The paint in white, where that lies beside them.
    pub tint: Option<Swatch>,
    /// How uneven they are, the largest (CIEDE2000, mean of a spot).
    pub uneven_by: f64,
}

/// Above this a spot is uneven (CIEDE2000, mean). [practice] three is seen at a glance
const UNEVEN: f64 = 3.0;

impl SwatchRead {
    /// Whether the film was too uneven to be read there.
    pub fn is_uneven(&self) -> bool {
        self.uneven_by > UNEVEN
    }
}

/// Reads a paint from four places of one photograph: the bare white and the bare black half of a card
/// `[white, black]`, the paint over each `[over_white, over_black]`, and its tint where there is one. The bare halves set exposure and
/// white balance: in linear light each channel is stretched so that they become [`Drawdown::CARDS`].
///
/// # Errors
/// [`Fault`] naming the place (`white`, `black`, `over_white`, `over_black`, `tint`) that cannot be.
pub fn read_swatch(
    bare: [&Spot; 2],
    paint: [&Spot; 2],
    tint: Option<&Spot>,
) -> Result<SwatchRead, Fault> {
    let [white, black] = bare;
    if white.blown > BLOWN {
        let why = "the white half is overexposed: photograph it darker, in even light";
        return Err(Fault::new("white", why));
    }
    if (0..3).any(|c| white.light[c] - black.light[c] < CARDS_APART) {
        let why =
            "the bare white half is hardly lighter than the black one: were the places swapped?";
        return Err(Fault::new("white", why));
    }
    let [known_white, known_black] = [Drawdown::CARDS.0, Drawdown::CARDS.1].map(linear);
    let right = |spot: &Spot| -> [f64; 3] {
        std::array::from_fn(|c| {
            let share = (spot.light[c] - black.light[c]) / (white.light[c] - black.light[c]);
            known_black[c] + share * (known_white[c] - known_black[c])
        })
    };
    let read = paint.map(right);
    let tinted = tint.map(right);
    let places = [("over_white", Some(read[0])), ("over_black", Some(read[1])), ("tint", tinted)];
    for (place, light) in places.into_iter().filter_map(|(place, light)| Some((place, light?))) {
        // A bright yellow may be over the card in one channel, and is darker all the same.
        if brightness(light) > brightness(known_white) + NOISE {
            let why = "the paint is lighter there than the bare white half: the light is uneven, \
                       or it glares";
            return Err(Fault::new(place, why));
        }
    }
    let [over_white, over_black] = read.map(on_screen);
    if Lab::of(over_white).l < Lab::of(over_black).l {
        let why = "the paint is darker over the white half than over the black one: were the places \
                   swapped?";
        return Err(Fault::new("over_white", why));
    }
    let uneven_by = paint.into_iter().chain(tint).map(|spot| spot.spread).fold(0.0, f64::max);
    Ok(SwatchRead { over_white, over_black, tint: tinted.map(on_screen), uneven_by })
}

/// How bright light is to the eye beside full white [-]: Y of sRGB's primaries, IEC 61966-2-1.
fn brightness([r, g, b]: [f64; 3]) -> f64 {
    0.2126 * r + 0.7152 * g + 0.0722 * b
}

fn linear(swatch: Swatch) -> [f64; 3] {
    let light: LinSrgb<f64> = Srgb::from(swatch.0).into_linear();
    [light.red, light.green, light.blue]
}

fn on_screen(light: [f64; 3]) -> Swatch {
    let [r, g, b] = light.map(|part| part.clamp(0.0, 1.0));
    let rgb: Srgb<f64> = Srgb::from_linear(LinSrgb::new(r, g, b));
    Swatch([rgb.red, rgb.green, rgb.blue].map(|part| (part * 255.0).round() as u8))
}
