//! The bench scale: what a cup weighs, and how much of it went onto the picture.

use super::amounts::{CupError, amounts};
use crate::picture::{Part, Picture};
use crate::quantity::Grams;
use crate::studio::Material;

/// What the scale says about a coat.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Weighed {
    /// Mix that left the cup [ml].
    pub ml: f64,
    /// Wet film it gave [um].
    pub wet_film_um: f64,
}

/// Density of a mix [g/ml]: mass over volume, volumes taken to add up.
///
/// # Errors
/// [`CupError::Grams`] when a material does not say its density; as [`amounts`] otherwise.
pub fn density_g_ml(mix: &[Part], shelf: &[Material]) -> Result<f64, CupError> {
    let mut sum = 0.0;
    for amount in amounts(mix, 1.0, shelf)? {
        sum += amount.grams.ok_or_else(|| {
            let name = shelf.iter().find(|m| m.id == amount.material).map(|m| m.name.clone());
            CupError::Grams(name.unwrap_or(amount.material))
        })?;
    }
    Ok(sum)
}

/// The real film of a coat from the cup's weight before and after [g], brush and cup included both
/// times: what is missing is on the picture.
///
/// # Errors
/// [`CupError::Heavier`] when the cup did not get lighter, [`CupError::Range`] when a weight or
/// the film is out of its range, [`CupError::Grams`] when a density is not known.
pub fn weighed(
    picture: &Picture,
    share_of_area: f64,
    mix: &[Part],
    shelf: &[Material],
    (before_g, after_g): (f64, f64),
) -> Result<Weighed, CupError> {
    let (before, after) = (Grams::try_new(before_g)?.get(), Grams::try_new(after_g)?.get());
    if after >= before {
        return Err(CupError::Heavier);
    }
    let ml = (before - after) / density_g_ml(mix, shelf)?;
    Ok(Weighed { ml, wet_film_um: picture.film_from_amount_um(ml, share_of_area)? })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::studio::starter_shelf;

    #[test]
    fn the_missing_mass_is_the_film() {
        // m = rho V: heavy paint of 1.30 g/ml; 13 g less is 10 ml, on 0.2 m2 a film of 50 um.
        let shelf = starter_shelf().unwrap();
        let mix = [Part { material: "heavy-pb29".into(), parts: 1.0 }];
        let picture = Picture::new("p", (40.0, 50.0), vec![]);
        let film = weighed(&picture, 1.0, &mix, &shelf, (61.5, 48.5)).unwrap();
        assert!((film.ml - 10.0).abs() < 1e-12 && (film.wet_film_um - 50.0).abs() < 1e-9);
        let heavier = weighed(&picture, 1.0, &mix, &shelf, (48.5, 61.5));
        assert_eq!(heavier, Err(CupError::Heavier));
        assert!(matches!(
            weighed(&picture, 1.0, &mix, &shelf, (f64::NAN, 1.0)),
            Err(CupError::Range(_))
        ));
    }

    #[test]
    fn a_mix_weighs_what_its_parts_weigh() {
        // 9 ml at 1.03 and 1 ml at 1.18 g/ml: 10.45 g in 10 ml.
        let shelf = starter_shelf().unwrap();
        let mix = [("glazing", 9.0), ("fluid-pv19", 1.0)]
            .map(|(m, parts)| Part { material: m.into(), parts });
        assert!((density_g_ml(&mix, &shelf).unwrap() - 1.045).abs() < 1e-12);
    }
}
