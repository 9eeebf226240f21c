//! The bench scale: what a cup weighs, and how much of it went onto the picture.

use super::amounts::CupError;
use crate::mix::{Material, Mix};
use crate::quantity::{Grams, OutOfRange, WetFilm};

/// What the scale says about a coat.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Weighed {
    /// Mix that left the cup [ml].
    pub ml: f64,
    /// Wet film it gave [um].
    pub wet_film_um: f64,
}

/// Wet film thickness [um] when `ml` of mix end up on an area [m2].
///
/// # Errors
/// [`OutOfRange`] when that is no film: nothing on it, or more than half a centimetre.
pub fn film_um(ml: f64, area_m2: f64) -> Result<f64, OutOfRange> {
    // 1 ml over 1 m2 is 1 um.
    WetFilm::try_new(ml / area_m2).map(WetFilm::get)
}

/// The real film of a coat from the cup's weight before and after [g], brush and cup included both
/// times: what is missing is on the picture.
///
/// # Errors
/// [`CupError::Heavier`] when the cup did not get lighter, [`CupError::Range`] when a weight or
/// the film is out of its range, [`CupError::Mix`] when a density is not known.
pub fn weighed(
    area_m2: f64,
    mix: &Mix,
    shelf: &[Material],
    (before_g, after_g): (f64, f64),
) -> Result<Weighed, CupError> {
    let (before, after) = (Grams::try_new(before_g)?.get(), Grams::try_new(after_g)?.get());
    if after >= before {
        return Err(CupError::Heavier);
    }
    let ml = (before - after) / mix.density_g_ml(shelf)?;
    Ok(Weighed { ml, wet_film_um: film_um(ml, area_m2)? })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::mix::starter_shelf;

    #[test]
    fn an_amount_on_an_area_is_a_thickness() {
        // Mass balance: 1 ml spread over 1 m2 is 1 um.
        assert!((film_um(20.0, 0.2).unwrap() - 100.0).abs() < 1e-9);
        assert!((film_um(2.0, 0.05).unwrap() - 40.0).abs() < 1e-9);
        assert!(film_um(0.0, 0.2).is_err());
        assert!(film_um(5.0, 0.0).is_err(), "no area, no film");
    }

    #[test]
    fn the_missing_mass_is_the_film() {
        // m = rho V: heavy paint of 1.30 g/ml; 13 g less is 10 ml, on 0.2 m2 a film of 50 um.
        let shelf = starter_shelf().unwrap();
        let mix = Mix::one("heavy-pb29");
        let film = weighed(0.2, &mix, &shelf, (61.5, 48.5)).unwrap();
        assert!((film.ml - 10.0).abs() < 1e-12 && (film.wet_film_um - 50.0).abs() < 1e-9);
        assert_eq!(weighed(0.2, &mix, &shelf, (48.5, 61.5)), Err(CupError::Heavier));
        let broken = weighed(0.2, &mix, &shelf, (f64::NAN, 1.0));
        assert!(matches!(broken, Err(CupError::Range(_))));
    }

    #[test]
    fn a_mix_weighs_what_its_parts_weigh() {
        // 9 ml at 1.03 and 1 ml at 1.18 g/ml: 10.45 g in 10 ml.
        let mix = Mix::of(&[("glazing", 9.0), ("fluid-pv19", 1.0)]);
        assert!((mix.density_g_ml(&starter_shelf().unwrap()).unwrap() - 1.045).abs() < 1e-12);
    }
}
