//! What a coat would do if it were laid now.

use super::coats::{CoatFault, LaidCoat};
use super::model::Picture;
use super::place::{PlaceId, meet};
use super::timeline::films_after;
use crate::film::{Course, Diverged, Events, FilmState, Futures, Grid, HORIZON_S};
use crate::mix::Composition;
use crate::time::MINUTE_S;
use std::sync::Arc;

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
        self.events.at(FilmState::Setting).map(|t| (t - self.at) / MINUTE_S)
    }
}

/// A coat of `wet_um` [um] at `place` over `coats` (in order of time) of `picture`, laid at `now` [s] or,
/// where that would lift a coat below, as soon as it is paintable. `None` when the film below never gets
/// there. Coats later than `now` are not there yet. What lies all over does as where it is laid last.
///
/// # Errors
/// [`CoatFault`] when the film cannot be followed.
pub fn if_laid(
    picture: &Picture,
    coats: &[LaidCoat],
    futures: &Arc<Futures>,
    now: f64,
    (place, wet_um, mix): (PlaceId, f64, Composition),
) -> Result<Option<IfLaid>, CoatFault> {
    let there: Vec<LaidCoat> =
        coats.iter().filter(|c| c.at <= now && meet(place, c.place)).copied().collect();
    let top = there.last().map_or(usize::MAX, |c| c.step);
    let cannot = |e: Diverged| picture.fault(top, e);
    let mut below: Option<(f64, Course)> = None;
    for film in films_after(picture, &there, futures)? {
        // The run ahead ends with the step in which it becomes paintable; the coat is laid earlier.
        let mut ahead = film.clone();
        ahead.advance(now + HORIZON_S, Some(FilmState::Paintable)).map_err(cannot)?;
        let events = ahead.events().map_err(cannot)?;
        let Some(safe) = events.at(FilmState::Paintable) else { return Ok(None) };
        if below.as_ref().is_none_or(|(known, _)| safe >= *known) {
            below = Some((safe, film));
        }
    }
    let bare = || (now, picture.bare(Grid::PLANNING, now, futures));
    let (safe, mut film) = below.unwrap_or_else(bare);
    let at = safe.max(now);
    film.lay(at, wet_um * 1e-6, mix).map_err(cannot)?;
    film.advance(at + HORIZON_S, Some(FilmState::Paintable)).map_err(cannot)?;
    Ok(Some(IfLaid { at, events: film.events().map_err(cannot)? }))
}

#[cfg(test)]
mod tests {
    use super::super::kind::StepKind;
    use super::super::model::Step;
    use super::super::place::REST;
    use super::*;
    use crate::air::{Air, AirSeries};
    use crate::mix::{Mix, starter_shelf};
    use crate::time::MINUTE_S;

    #[test]
    fn it_is_laid_when_the_coat_below_is_paintable_and_not_before() {
        // One heavy coat laid at 0 s of 1970 on a sealed panel.
        let step = Step {
            mix: Mix::one("heavy-pb29"),
            wet_film_um: Some(100.0),
            laid_at: chrono::DateTime::from_timestamp(0, 0),
            ..Step::usual("s1", StepKind::Pass)
        };
        let shelf = starter_shelf().unwrap();
        let mix = step.mix.composition(&shelf).unwrap();
        let picture = Picture::new("p", (40.0, 50.0), vec![step]);
        let coats = picture.laid_coats(&shelf).unwrap();
        let air = AirSeries::constant(Air::try_new(21.0, 0.5, 0.15).unwrap());
        let plain = Arc::new(Futures::plain(air));
        let lay = |now| if_laid(&picture, &coats, &plain, now, (REST, 40.0, mix)).unwrap().unwrap();
        // docs/model/drying.md: heavy 100 um is paintable after 46.9 min.
        assert!((lay(600.0).at / MINUTE_S - 46.9).abs() < 2.0);
        assert_eq!(lay(86_400.0).at, 86_400.0, "a day later at once");
        let states = lay(86_400.0);
        assert!(states.events.at(FilmState::Setting).unwrap() > states.at);
    }
}
