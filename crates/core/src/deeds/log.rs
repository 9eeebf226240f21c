//! Logging what was done: the plan moves from what really happened.

use super::Deed;
use crate::cup::{film_um, weighed};
use crate::film::Grid;
use crate::mix::Mix;
use crate::picture::{Picture, SealAnyway, Step, check_chain};
use crate::quantity::{Fault, WetFilm, check_line, check_moment};
use crate::readiness::{AirWanted, Bed, NotReady, Wait, WaitReason, history};
use crate::seal::{against, closed_gate};
use crate::studio::Studio;
use crate::time::{minutes_s, told, whole_seconds};
use chrono::{DateTime, Duration, Utc};

/// How far ahead of the application's clock a painter's clock may go [s]. [practice]
pub const CLOCKS_APART_S: i64 = 120;

/// How thick a coat really was; as planned when nothing is said.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct LaidFilm {
    /// Its wet thickness [um].
    pub wet_film_um: Option<f64>,
    /// Or how much mix went onto the picture [ml].
    pub amount_ml: Option<f64>,
    /// Or what the cup weighs now, brush and all [g]; it was weighed before the coat.
    pub cup_after_g: Option<f64>,
}

/// A coat that was laid, or a step that was done.
#[derive(Debug, Clone, PartialEq)]
pub struct Laid {
    /// The step's name within the picture.
    pub step: String,
    /// When it was there.
    pub at: DateTime<Utc>,
    /// How thick it was.
    pub film: LaidFilm,
    /// What was in the cup, when it was something else than planned.
    pub mix: Option<Mix>,
    /// Why a sealing coat was laid although the gate was closed.
    pub anyway: Option<String>,
}

/// Logs `laid` on picture `p` of `studio`. `photographs` are the times at which pictures of it were
/// taken. A sealing coat that goes through a closed gate needs its reason, which is kept.
///
/// # Errors
/// [`Fault`] naming the field of `laid` that does not fit.
pub fn log(
    studio: &Studio,
    p: usize,
    laid: &Laid,
    photographs: &[DateTime<Utc>],
    now: DateTime<Utc>,
) -> Result<Deed, Fault> {
    check_moment(laid.at).map_err(|e| Fault::new("at", e))?;
    laid.anyway.as_deref().map_or(Ok(()), |reason| check_line("anyway", reason))?;
    let i = studio.pictures[p].step_called(&laid.step)?;
    let was = studio.pictures[p].steps[i].laid_at;
    let mut after = as_laid(studio, (p, i), laid)?;
    let title = after.pictures[p].steps[i].called();
    let label = format!("{} {title}", if was.is_some() { "put right" } else { "log" });
    if laid.at > now + Duration::seconds(CLOCKS_APART_S) {
        return Err(Fault::new("at", "a coat cannot have been laid in the future"));
    }
    check_tub(studio, &after.pictures[p].steps[i]).map_err(|why| Fault::new("at", why))?;
    let picture = &mut after.pictures[p];
    check_chain(picture).map_err(|e| Fault::new("at", e))?;
    // A coat that is put right to a later time went through the gate already.
    if picture.steps[i].kind.seals() && was.is_none_or(|was| laid.at < was) {
        let against = against(&after, (p, i), photographs, laid.at)?;
        match &laid.anyway {
            _ if against.is_empty() => {}
            Some(reason) => after.pictures[p].seal.anyway.push(SealAnyway {
                at: laid.at,
                step: laid.step.clone(),
                reason: reason.clone(),
                against,
            }),
            None => return Err(Fault::new("anyway", closed_gate(&against))),
        }
    }
    after.check_picture(p)?;
    Ok(Deed { picture: after.pictures.swap_remove(p), label })
}

/// `studio` with coat `i` of picture `p` as it was `laid`, unchecked.
fn as_laid(studio: &Studio, (p, i): (usize, usize), laid: &Laid) -> Result<Studio, Fault> {
    let mut after = studio.clone();
    let step = &mut after.pictures[p].steps[i];
    if let Some(mix) = &laid.mix {
        if !step.kind.leaves_film() {
            return Err(Fault::new("mix", format!("{} leaves no film", step.called())));
        }
        // What was in the cup is not the tub's any more.
        step.tub = step.tub.take().filter(|_| step.mix.same_as(mix));
        step.mix.clone_from(mix);
    }
    let film = really(&after, &after.pictures[p], i, &laid.film)?;
    let step = &mut after.pictures[p].steps[i];
    step.laid_at = Some(laid.at);
    step.wet_film_um = film;
    Ok(after)
}

/// What the law says against `laid`, a sentence each: the coat goes onto one that is not ready for it, it comes before
/// a waiting time is over or in air that is not fit, or a later one would have gone onto it too early. Nothing is
/// changed.
///
/// # Errors
/// [`Fault`] naming the field of `laid` that does not fit.
pub fn too_early(studio: &Studio, p: usize, laid: &Laid) -> Result<Vec<String>, Fault> {
    let before = &studio.pictures[p];
    let i = before.step_called(&laid.step)?;
    let after = as_laid(studio, (p, i), laid)?;
    after.check_picture(p)?;
    let zone = studio.hours.zone();
    let mut said = Vec::new();
    let picture = &after.pictures[p];
    for (at, n) in history(picture, std::iter::empty()) {
        let touched = n == i || at > laid.at;
        let Some(early) = touched.then(|| onto(&after, p, (n, at))).transpose()?.flatten() else {
            continue;
        };
        let (title, below) = (picture.steps[n].called(), picture.steps[early.below].called());
        let until = early.until.map_or("never is ready for it".to_owned(), |until| {
            format!("is ready for it from {}", told(until, zone))
        });
        // Only what this entry brings about.
        if n == i {
            said.push(format!("{below} lies below {title} and {until}"));
        } else if before.steps[n].laid_at == Some(at) && onto(studio, p, (n, at))?.is_none() {
            let when = at.with_timezone(&zone).format("%A %-d %B, %H:%M");
            said.push(format!("{title}, done {when}, would lie on {below}, which {until}"));
        }
    }
    // A seal goes through its gate, which says all of this.
    if !picture.steps[i].kind.seals() {
        said.extend(other_reasons(&after, p, (i, laid.at))?);
    }
    Ok(said)
}

/// What beside the film speaks against step `i` as it is done at `at`: waiting times and the air.
fn other_reasons(
    studio: &Studio,
    p: usize,
    (i, at): (usize, DateTime<Utc>),
) -> Result<Vec<String>, Fault> {
    let picture = &studio.pictures[p];
    let zone = studio.hours.zone();
    let mut done = history(picture, std::iter::empty());
    done.retain(|(t, other)| *t < at && *other != i);
    let bed = Bed::after(studio, p, Grid::PLANNING, &done)?;
    let mut said = Vec::new();
    bed.done.waits(studio, (i, &picture.below()[i]), None, |until, reason, of| {
        // What it comes after is on: only what was done before is looked at.
        if until > at && reason != WaitReason::Order {
            let state = bed.done.needs(studio, i);
            let wait = Wait { reason, state, of, until, lag_min: 0.0, film_ready: None };
            said.push(format!("{}, until {}", wait.said(picture), told(until, zone)));
        }
    });
    let step = &picture.steps[i];
    let begun = whole_seconds(at) - minutes_s(step.hands_on_min);
    let wanted = AirWanted::of(studio, step);
    if let Some(fault) = wanted.fault_in(&studio.air, (begun, whole_seconds(at))) {
        said.push(format!("{fault} for {}: {}", wanted.what(), wanted.remedy()));
    }
    Ok(said)
}

/// A coat that something was done on too early.
struct TooEarly {
    below: usize,
    until: Option<DateTime<Utc>>,
}

/// What step `n`, done at `at`, was done on too early.
fn onto(
    studio: &Studio,
    p: usize,
    (n, at): (usize, DateTime<Utc>),
) -> Result<Option<TooEarly>, Fault> {
    let mut done = history(&studio.pictures[p], std::iter::empty());
    done.retain(|(t, other)| *t < at && *other != n);
    let mut bed = Bed::after(studio, p, Grid::PLANNING, &done)?;
    let Some(below) = bed.done.under(studio, n) else { return Ok(None) };
    match bed.film_ready(studio, n) {
        Ok(Some(film)) if film.at > at => {
            Ok(Some(TooEarly { below: film.of, until: Some(film.at) }))
        }
        Err(NotReady::Never(_)) => Ok(Some(TooEarly { below, until: None })),
        Err(NotReady::Fault(fault)) => Err(fault.into()),
        Ok(_) => Ok(None),
    }
}

/// Holds that a coat was not laid before its tub was mixed; the sentence says when that was.
pub(super) fn check_tub(studio: &Studio, step: &Step) -> Result<(), String> {
    let tub = step.tub.as_deref().and_then(|id| studio.tub(id));
    match (tub, step.laid_at) {
        (Some(tub), Some(at)) if at < tub.mixed_at => {
            let mixed = tub.mixed_at.with_timezone(&studio.hours.zone());
            let when = mixed.format("%-d %B, %H:%M");
            Err(format!(
                "{} cannot have been laid before its tub \"{}\" was mixed ({when})",
                step.called(),
                tub.name
            ))
        }
        _ => Ok(()),
    }
}

/// The wet film [um] that was really laid: as said, from the amount or the scale, or as planned.
fn really(
    studio: &Studio,
    picture: &Picture,
    i: usize,
    film: &LaidFilm,
) -> Result<Option<f64>, Fault> {
    let step = &picture.steps[i];
    let said = [film.wet_film_um, film.amount_ml, film.cup_after_g];
    match said.iter().flatten().count() {
        0 => return Ok(step.wet_film_um),
        1 => {}
        _ => {
            let why = "say the thickness, the amount or the weight, not two of them";
            return Err(Fault::new("amount_ml", why));
        }
    }
    if !step.kind.leaves_film() {
        return Err(Fault::new("wet_film_um", format!("{} leaves no film", step.called())));
    }
    let area = picture.area_of_m2(i);
    if let Some(um) = film.wet_film_um {
        let film = WetFilm::try_new(um).map_err(|e| Fault::new("wet_film_um", e))?;
        return Ok(Some(film.get()));
    }
    if let Some(ml) = film.amount_ml {
        let unsound = |e| Fault::new("amount_ml", format!("that amount gives no sound coat: {e}"));
        return film_um(ml, area).map(Some).map_err(unsound);
    }
    let (Some(before), Some(after)) = (step.cup_g, film.cup_after_g) else {
        let why = "the full cup was not weighed before the coat: say the amount instead";
        return Err(Fault::new("cup_after_g", why));
    };
    weighed(area, &step.mix, &studio.materials, (before, after))
        .map(|w| Some(w.wet_film_um))
        .map_err(|e| Fault::new("cup_after_g", e))
}
