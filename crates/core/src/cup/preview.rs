//! What a coat would do if it were laid now.

use crate::film::{Composition, Events, Film, FilmState, Grid, HORIZON_S};
use crate::picture::{Picture, film_after};
use crate::rules::laid_coats;
use crate::studio::StudioDocument;

/// A coat laid at the first moment it is safe, and what becomes of it.
#[derive(Debug, Clone, PartialEq)]
pub struct IfLaid {
    /// When it is laid [s]: now, or as soon as the film below is paintable.
    pub at: f64,
    /// The states it reaches, up to paintable: that is what a painter waits for at the cup.
    pub events: Events,
}

impl IfLaid {
    /// Minutes the coat can be worked: from laying to setting.
    pub fn working_min(&self) -> Option<f64> {
        self.events.at(FilmState::Setting).map(|t| (t - self.at) / 60.0)
    }
}

/// A coat of `wet_um` [um] over the film of `picture`, laid at `now` [s] or, where that would lift
/// the coat below, as soon as it is paintable. `None` when the film below never gets there.
pub fn if_laid(
    document: &StudioDocument,
    picture: &Picture,
    now: f64,
    wet_um: f64,
    mix: Composition,
) -> Option<IfLaid> {
    let mut coats = laid_coats(document, picture);
    coats.retain(|c| c.at <= now);
    let mut film = film_after(picture, &coats, &document.air).unwrap_or_else(|| {
        let (absorbs_m, length_m) = (picture.absorbs_um * 1e-6, picture.shorter_side_m());
        Film::new(absorbs_m, length_m, Grid::PLANNING, now)
    });
    film.advance(&document.air, now, None);
    if film.stack().coats() > 0 && film.events().at(FilmState::Paintable).is_none() {
        // The run ahead ends with the step in which it becomes paintable; the coat is laid earlier.
        let mut ahead = film.clone();
        ahead.advance(&document.air, now + HORIZON_S, Some(FilmState::Paintable));
        let safe = ahead.events().at(FilmState::Paintable)?;
        film.advance(&document.air, safe, None);
    }
    let at = film.time();
    film.lay(wet_um * 1e-6, mix);
    film.advance(&document.air, at + HORIZON_S, Some(FilmState::Paintable));
    Some(IfLaid { at, events: film.events().clone() })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::air::{Air, AirSeries};
    use crate::picture::{Part, Step, StepKind};
    use crate::studio::{StudioHours, starter_shelf};

    /// One heavy coat laid at 0 s of 1970 on a sealed panel.
    fn studio() -> StudioDocument {
        let step = Step {
            mix: vec![Part { material: "heavy-pb29".into(), parts: 1.0 }],
            wet_film_um: Some(100.0),
            laid_at: chrono::DateTime::from_timestamp(0, 0),
            ..Step::usual("s1", StepKind::Pass)
        };
        StudioDocument {
            materials: starter_shelf().unwrap(),
            pictures: vec![Picture::new("p", (40.0, 50.0), vec![step])],
            ..StudioDocument::new(
                "Test room",
                StudioHours::try_new(chrono_tz::UTC, vec![], vec![]).unwrap(),
                AirSeries::constant(Air::try_new(21.0, 0.5, 0.15).unwrap()),
            )
        }
    }

    #[test]
    fn it_is_laid_when_the_coat_below_is_paintable_and_not_before() {
        let document = studio();
        let mix = document.composition(&document.pictures[0].steps[0].mix).unwrap();
        let lay = |now| if_laid(&document, &document.pictures[0], now, 40.0, mix).unwrap();
        // drying.md: heavy 100 um is paintable after 50.7 min.
        assert!((lay(600.0).at / 60.0 - 50.7).abs() < 5.0);
        assert_eq!(lay(86_400.0).at, 86_400.0, "a day later at once");
        let states = lay(86_400.0);
        assert!(states.events.at(FilmState::Setting).unwrap() > states.at);
    }
}
