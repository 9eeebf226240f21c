//! Films under seals that were computed, kept from gate to gate: most gates of a studio look at the
//! same coats again.

use crate::film::{Film, FilmState, HORIZON_S};
use crate::picture::{LaidCoat, film_after};
use crate::planner::{Plan, coats_of, instant, seconds};
use crate::studio::StudioDocument;
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
        document: &StudioDocument,
        p: usize,
        coats: &[LaidCoat],
        now: DateTime<Utc>,
    ) -> Self {
        let now = seconds(now);
        let laid: Vec<LaidCoat> = coats.iter().take_while(|c| c.at <= now).copied().collect();
        let begun = film_after(&document.pictures[p], &laid, &document.air).map(|mut film| {
            film.advance(&document.air, now, None);
            (p, laid, film)
        });
        Self { begun, ..Self::default() }
    }

    /// The film of picture `p` after `coats`.
    pub(super) fn after(
        &mut self,
        document: &StudioDocument,
        p: usize,
        coats: &[LaidCoat],
    ) -> Option<Film> {
        if let Some((_, film)) = self.films.get(&p).filter(|(known, _)| known == coats) {
            return film.clone();
        }
        let begun = self.begun.as_ref().filter(|(q, laid, _)| *q == p && coats.starts_with(laid));
        let film = match begun {
            Some((_, laid, film)) => {
                let mut film = film.clone();
                for coat in &coats[laid.len()..] {
                    film.advance(&document.air, coat.at, None);
                    film.lay(coat.wet_m, coat.mix);
                }
                Some(film)
            }
            None => film_after(&document.pictures[p], coats, &document.air),
        };
        self.films.insert(p, (coats.to_vec(), film.clone()));
        film
    }

    /// When that film reaches `state`, if nothing more is laid on it.
    pub(super) fn reaches(
        &mut self,
        document: &StudioDocument,
        (p, coats): (usize, &[LaidCoat]),
        state: FilmState,
    ) -> Option<DateTime<Utc>> {
        if let Some((_, at)) = self.reached.get(&(p, state)).filter(|(known, _)| known == coats) {
            return *at;
        }
        let at = self.after(document, p, coats).and_then(|film| reaches(document, film, state));
        self.reached.insert((p, state), (coats.to_vec(), at));
        at
    }

    /// Stretches in which pictures other than `p` lie flat with wet varnish, as laid and as planned.
    pub(super) fn taken_places(
        &mut self,
        document: &StudioDocument,
        p: usize,
        plan: &Plan,
        now: DateTime<Utc>,
    ) -> Vec<Span> {
        let mut found = Vec::new();
        for q in (0..document.pictures.len()).filter(|q| *q != p) {
            let other = &document.pictures[q];
            if !other.steps.iter().any(|s| s.kind.seals()) {
                continue;
            }
            let coats = coats_of(document, q, plan);
            if self.wet.get(&q).is_none_or(|(known, _)| *known != coats) {
                let mut spans = Vec::new();
                for (n, coat) in coats.iter().enumerate() {
                    if other.steps[coat.step].kind.seals() {
                        let film = film_after(other, &coats[..=n], &document.air);
                        let dry = film.and_then(|f| reaches(document, f, FilmState::TouchDry));
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
        found
    }
}

fn reaches(document: &StudioDocument, mut film: Film, state: FilmState) -> Option<DateTime<Utc>> {
    film.advance(&document.air, film.time() + HORIZON_S, Some(state));
    film.events().at(state).map(instant)
}
