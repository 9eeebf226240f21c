//! Films under seals that were computed, kept from gate to gate: most gates of a studio look at the
//! same coats again.

use crate::film::{Film, FilmState, HORIZON_S};
use crate::picture::{CoatFault, LaidCoat, film_after};
use crate::planner::{Plan, coats_of};
use crate::studio::Studio;
use crate::time::{instant, seconds};
use chrono::{DateTime, Duration, Utc};
use std::collections::HashMap;

/// How long ago a varnish coat may have been laid to be looked at as still wet [days]. [practice]
const WET_DAYS: i64 = 3;

/// A stretch of time.
pub(super) type Span = (DateTime<Utc>, DateTime<Utc>);

/// Something that is known of a row of coats.
type Known<T> = (Vec<LaidCoat>, T);

/// What is known of the films of one studio in one air. Whoever holds it forgets it when the air or
/// the size of a picture changes; everything else it tells by the coats.
#[derive(Debug, Clone, Default)]
pub struct KnownFilms {
    /// By picture: right after the last of these coats.
    films: HashMap<usize, Known<Option<Film>>>,
    reached: HashMap<(usize, FilmState), Known<Option<DateTime<Utc>>>>,
    /// By picture: from when to when each of its sealing coats lies wet.
    wet: HashMap<usize, Known<Vec<Span>>>,
    /// The coats that lie on a picture, as they are now: another air begins only there.
    begun: Option<(usize, Vec<LaidCoat>, Film)>,
}

impl KnownFilms {
    /// Forgets all.
    pub fn clear(&mut self) {
        *self = Self::default();
    }

    /// What is known where the air is another from `now` on: how picture `p` is now.
    pub(super) fn begun_at(
        &mut self,
        studio: &Studio,
        p: usize,
        coats: &[LaidCoat],
        now: DateTime<Utc>,
    ) -> Result<Self, CoatFault> {
        let now = seconds(now);
        let laid: Vec<LaidCoat> = coats.iter().take_while(|c| c.at <= now).copied().collect();
        let picture = &studio.pictures[p];
        let mut begun = None;
        if let Some(mut film) = film_after(picture, &laid, &studio.air)? {
            let top = laid.last().map_or(usize::MAX, |c| c.step);
            film.advance(&studio.air, now, None).map_err(|e| picture.fault(top, e))?;
            begun = Some((p, laid, film));
        }
        Ok(Self { begun, ..Self::default() })
    }

    /// The film of picture `p` after `coats`.
    pub(super) fn after(
        &mut self,
        studio: &Studio,
        p: usize,
        coats: &[LaidCoat],
    ) -> Result<Option<Film>, CoatFault> {
        if let Some((_, film)) = self.films.get(&p).filter(|(known, _)| known == coats) {
            return Ok(film.clone());
        }
        let begun = self.begun.as_ref().filter(|(q, laid, _)| *q == p && coats.starts_with(laid));
        let film = match begun {
            Some((_, laid, film)) => {
                let mut film = film.clone();
                for coat in &coats[laid.len()..] {
                    studio.pictures[p].lay(&mut film, coat, &studio.air)?;
                }
                Some(film)
            }
            None => film_after(&studio.pictures[p], coats, &studio.air)?,
        };
        self.films.insert(p, (coats.to_vec(), film.clone()));
        Ok(film)
    }

    /// When that film reaches `state`, if nothing more is laid on it.
    pub(super) fn reaches(
        &mut self,
        studio: &Studio,
        (p, coats): (usize, &[LaidCoat]),
        state: FilmState,
    ) -> Result<Option<DateTime<Utc>>, CoatFault> {
        if let Some((_, at)) = self.reached.get(&(p, state)).filter(|(known, _)| known == coats) {
            return Ok(*at);
        }
        let film = self.after(studio, p, coats)?;
        let at = reaches(studio, (p, coats), film, state)?;
        self.reached.insert((p, state), (coats.to_vec(), at));
        Ok(at)
    }

    /// Stretches in which pictures other than `p` lie flat with wet varnish, as laid and as planned.
    pub(super) fn taken_places(
        &mut self,
        studio: &Studio,
        p: usize,
        plan: &Plan,
        now: DateTime<Utc>,
    ) -> Result<Vec<Span>, CoatFault> {
        let mut found = Vec::new();
        for q in (0..studio.pictures.len()).filter(|q| *q != p) {
            let other = &studio.pictures[q];
            if !other.steps.iter().any(|s| s.kind.seals()) {
                continue;
            }
            let coats = coats_of(studio, q, plan)?;
            if self.wet.get(&q).is_none_or(|(known, _)| *known != coats) {
                let mut spans = Vec::new();
                for (n, coat) in coats.iter().enumerate() {
                    if other.steps[coat.step].kind.seals() {
                        let coats = &coats[..=n];
                        let film = film_after(other, coats, &studio.air)?;
                        let dry = reaches(studio, (q, coats), film, FilmState::TouchDry)?;
                        let dry = dry.unwrap_or(DateTime::<Utc>::MAX_UTC);
                        spans.push((instant(coat.at), dry));
                    }
                }
                self.wet.insert(q, (coats, spans));
            }
            if let Some((_, spans)) = self.wet.get(&q) {
                let wet = |span: &&Span| span.0 + Duration::days(WET_DAYS) >= now;
                found.extend(spans.iter().filter(wet));
            }
        }
        Ok(found)
    }
}

/// When `film`, that of picture `p` after `coats`, reaches `state`.
fn reaches(
    studio: &Studio,
    (p, coats): (usize, &[LaidCoat]),
    film: Option<Film>,
    state: FilmState,
) -> Result<Option<DateTime<Utc>>, CoatFault> {
    let Some(mut film) = film else { return Ok(None) };
    let until = film.time() + HORIZON_S;
    let top = coats.last().map_or(usize::MAX, |c| c.step);
    let cannot = |e| studio.pictures[p].fault(top, e);
    film.advance(&studio.air, until, Some(state)).map_err(cannot)?;
    Ok(film.events().at(state).map(instant))
}
