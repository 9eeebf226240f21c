//! What a coat would do if it were laid now.

use crate::film::{Composition, Events, Film, FilmState, Grid, HORIZON_S};
use crate::picture::Picture;
use crate::rules::laid_coats;
use crate::studio::StudioDocument;

/// The states a coat of `wet_um` [um] would reach over the film of `picture` if it were laid at
/// `at` [s], up to paintable: that is what a painter waits for at the cup.
pub fn if_laid(
    document: &StudioDocument,
    picture: &Picture,
    at: f64,
    wet_um: f64,
    mix: Composition,
) -> Events {
    let coats = laid_coats(document, picture);
    let start = coats.first().map_or(at, |c| c.at.min(at));
    let mut film =
        Film::new(picture.absorbs_um * 1e-6, picture.shorter_side_m(), Grid::PLANNING, start);
    for coat in coats.iter().filter(|c| c.at <= at) {
        film.advance(&document.air, coat.at, None);
        film.lay(coat.wet_m, coat.mix);
    }
    film.advance(&document.air, at, None);
    film.lay(wet_um * 1e-6, mix);
    film.advance(&document.air, at + HORIZON_S, Some(FilmState::Paintable));
    film.events().clone()
}
