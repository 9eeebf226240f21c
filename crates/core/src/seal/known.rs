//! Films under seals that were computed, kept from gate to gate: most gates of a studio look at the
//! same coats again.

use crate::film::{Course, FilmState, Grid, HORIZON_S};
use crate::picture::{CoatFault, LaidCoat, films_after};
use crate::planner::{Plan, coats_of, same_support};
use crate::readiness::{Bed, Calendar, FitAir, pinned};
use crate::studio::{Studio, StudioHours, daylight};
use crate::time::{full_minute, instant, minutes_s, seconds, whole_seconds};
use chrono::{DateTime, Duration, Utc};
use std::collections::HashMap;
use std::sync::Arc;

/// How long ago a varnish coat may have been laid to be looked at as still wet [days]. [practice]
const WET_DAYS: i64 = 3;

/// How far ahead an hour is looked for in which everything holds [days]. [practice] a season after the
/// longest cure that is waited for
const LOOK_AHEAD_DAYS: i64 = 520;

/// A stretch of time.
pub(super) type Span = (DateTime<Utc>, DateTime<Utc>);

/// Something that is known of a row of coats.
type Known<T> = (Vec<LaidCoat>, T);

/// What was done on a picture and when, in order of time.
type History = Vec<(DateTime<Utc>, usize)>;

/// A picture after what was, or will be, done on it.
#[derive(Debug, Clone)]
struct KnownBed {
    history: History,
    coats: Vec<LaidCoat>,
    bed: Bed,
}

/// The studio around its pictures, and what it was made for.
#[derive(Debug, Clone)]
struct KnownStudio {
    made_for: (StudioHours, Option<daylight::Place>, f64, i64),
    pins: Vec<(i64, i64)>,
    calendar: Calendar,
}

/// What is known of the films of one studio in one air. Whoever holds it has it [turned](Self::turn_to) to each version
/// of the studio; what changes with neither the air nor the size of a picture it tells by what was done.
#[derive(Debug, Clone, Default)]
pub struct KnownFilms {
    beds: HashMap<usize, KnownBed>,
    /// By picture: from when to when each of its sealing coats lies wet.
    wet: HashMap<usize, Known<Vec<Span>>>,
    /// A picture as it is now: another air begins only there.
    begun: Option<(usize, KnownBed)>,
    around: Option<KnownStudio>,
    /// When the room is fit, from a moment on.
    fit: Option<(i64, Arc<FitAir>)>,
}

impl KnownFilms {
    /// Takes over another version of the studio: all is forgotten where its air or what it is painted on is another.
    pub fn turn_to(&mut self, old: &Studio, new: &Studio) {
        let same = old.dries_like(new)
            && old.pictures.len() == new.pictures.len()
            && (0..new.pictures.len()).all(|p| same_support(old, new, p));
        if !same {
            *self = Self::default();
        }
    }

    /// What is known where the air is another from `now` on: how picture `p`, with `history`, is now.
    pub(super) fn begun_at(
        &mut self,
        studio: &Studio,
        p: usize,
        history: &[(DateTime<Utc>, usize)],
        now: DateTime<Utc>,
    ) -> Result<Self, CoatFault> {
        let past: History = history.iter().filter(|(at, _)| *at <= now).copied().collect();
        let mut bed = Bed::after(studio, p, Grid::PLANNING, &past)?;
        bed.wait_until(studio, now)?;
        let coats = coats_of_history(studio, p, &past)?;
        let begun = Some((p, KnownBed { history: past, coats, bed }));
        Ok(Self { begun, wet: self.wet.clone(), around: self.around.clone(), ..Self::default() })
    }

    /// Picture `p` after `history`.
    pub(super) fn bed(
        &mut self,
        studio: &Studio,
        p: usize,
        history: History,
    ) -> Result<&mut Bed, CoatFault> {
        let coats = coats_of_history(studio, p, &history)?;
        let same = |k: &KnownBed| k.history == history && k.coats == coats;
        let known = match self.beds.remove(&p).filter(same) {
            Some(known) => known,
            None => {
                let bed = self.played(studio, p, (&history, &coats))?;
                KnownBed { history, coats, bed }
            }
        };
        Ok(&mut self.beds.entry(p).insert_entry(known).into_mut().bed)
    }

    /// Picture `p` after `history`, from where it is known to be now, if it is.
    fn played(
        &self,
        studio: &Studio,
        p: usize,
        (history, coats): (&History, &[LaidCoat]),
    ) -> Result<Bed, CoatFault> {
        let begun = self.begun.as_ref().filter(|(q, known)| {
            *q == p && history.starts_with(&known.history) && coats.starts_with(&known.coats)
        });
        let Some((_, known)) = begun else {
            return Bed::after(studio, p, Grid::PLANNING, history);
        };
        let mut bed = known.bed.clone();
        bed.turn_to(studio);
        for (at, i) in &history[known.history.len()..] {
            bed.finish(studio, *i, *at)?;
        }
        Ok(bed)
    }

    /// The hours of `studio` from `now` on, with pinned work of others than picture `p` taken out, and
    /// when its room is fit.
    pub(super) fn around(
        &mut self,
        studio: &Studio,
        p: usize,
        now: DateTime<Utc>,
    ) -> (Calendar, Arc<FitAir>) {
        let from = full_minute(whole_seconds(now));
        let made_for = (studio.hours.clone(), studio.daylight, studio.setup_min, from);
        let others = pinned(studio, from).into_iter();
        let others = others.filter(|pin| pin.at.0 != p && pin.shares.is_none());
        let pins: Vec<_> = others.map(|pin| pin.stretch).collect();
        let fit = match &self.fit {
            Some((known, fit)) if *known == from => fit.clone(),
            _ => Arc::new(FitAir::new(&studio.air, from)),
        };
        self.fit = Some((from, fit.clone()));
        if let Some(known) =
            self.around.as_ref().filter(|k| k.made_for == made_for && k.pins == pins)
        {
            return (known.calendar.clone(), fit);
        }
        let to = from + LOOK_AHEAD_DAYS * 86_400;
        let set_up = minutes_s(studio.setup_min);
        let mut calendar = Calendar::new(&studio.hours, studio.daylight, (from, to), set_up);
        for stretch in &pins {
            calendar.reserve(*stretch);
        }
        self.around = Some(KnownStudio { made_for, pins, calendar: calendar.clone() });
        (calendar, fit)
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
                        let films = films_after(other, coats, &studio.futures())?;
                        let mut dry = instant(coat.at);
                        for film in films {
                            let there = reaches(studio, (q, coats), film, FilmState::TouchDry)?;
                            dry = dry.max(there.unwrap_or(DateTime::<Utc>::MAX_UTC));
                        }
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
    mut film: Course,
    state: FilmState,
) -> Result<Option<DateTime<Utc>>, CoatFault> {
    let until = film.time() + HORIZON_S;
    let top = coats.last().map_or(usize::MAX, |c| c.step);
    let cannot = |e| studio.pictures[p].fault(top, e);
    film.advance(until, Some(state)).map_err(cannot)?;
    Ok(film.film().events().at(state).map(instant))
}

/// The coats of picture `p` after `history`, in order of time.
fn coats_of_history(
    studio: &Studio,
    p: usize,
    history: &[(DateTime<Utc>, usize)],
) -> Result<Vec<LaidCoat>, CoatFault> {
    let mut coats = Vec::new();
    for (at, i) in history {
        coats.extend(studio.pictures[p].coat_at(&studio.materials, *i, seconds(*at))?);
    }
    Ok(coats)
}
