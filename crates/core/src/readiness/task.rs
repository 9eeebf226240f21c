//! A step still to do, as the law sees it, and what lies on the bench.

use super::blocked::Blocked;
use super::fit_air::AirWanted;
use crate::mix::{MaterialKind, Mix};
use crate::picture::{Picture, Step, StepKind};
use crate::studio::Studio;
use crate::time::{minutes_s, whole_seconds};

/// What was last on the bench: picture and mix (0 = nothing mixed).
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Bench {
    /// Index of the picture.
    pub picture: u32,
    /// Number of the mix.
    pub mix: u32,
}

impl Bench {
    /// Whether `next` can go on without a set-up: the same mix, or the same picture without one.
    pub fn serves(self, next: Bench) -> bool {
        self.mix == next.mix && (self.mix != 0 || self.picture == next.picture)
    }
}

/// A step still to do.
#[derive(Debug, Clone, PartialEq)]
pub struct Task {
    /// Hands-on work [s].
    pub hands_on: i64,
    /// Whether it may be split over sessions.
    pub splittable: bool,
    /// What lies on the bench for it.
    pub bench: Bench,
    /// The air it wants as long as it is wet.
    pub air: AirWanted,
    /// Whether it leaves a film.
    pub lays: bool,
    /// Whether it holds a flat place while wet.
    pub seals: bool,
    /// Whether it is only done by daylight.
    pub by_daylight: bool,
    /// End of its tub's last good day [s of the epoch].
    pub last_good: Option<i64>,
    /// Where the painter pinned it [s of the epoch].
    pub pinned: Option<i64>,
    /// How long it waits on purpose after it could be done [s].
    pub held_back: i64,
    /// Whether no other step still to do could share its set-up.
    pub own_set_up: bool,
    /// Why it may never be done as things are.
    pub refused: Option<Blocked>,
    /// The steps of its picture it stands on.
    pub below: Vec<usize>,
}

/// Numbers of the mixes that were seen: two steps of one mix share it.
#[derive(Debug, Clone, Default)]
pub struct Mixes<'a>(Vec<&'a Mix>);

impl<'a> Mixes<'a> {
    /// The number of `mix`; 0 when nothing is mixed.
    pub fn number(&mut self, mix: &'a Mix) -> u32 {
        if mix.is_empty() {
            return 0;
        }
        let known = self.0.iter().position(|seen| *seen == mix);
        let n = known.unwrap_or_else(|| {
            self.0.push(mix);
            self.0.len() - 1
        });
        n as u32 + 1
    }
}

impl Task {
    /// Step `i` of picture `p` of `studio`, with `mix` the number of its mix, standing on `below`.
    pub fn of(studio: &Studio, (p, i): (usize, usize), (mix, below): (u32, Vec<usize>)) -> Self {
        let step = &studio.pictures[p].steps[i];
        let tub = step.tub.as_deref().and_then(|id| studio.tub(id));
        Self {
            hands_on: minutes_s(step.hands_on_min),
            splittable: step.splittable,
            bench: Bench { picture: p as u32, mix },
            air: AirWanted::of(studio, step),
            lays: step.coat(&studio.materials).is_ok_and(|coat| coat.is_some()),
            seals: step.kind.seals(),
            by_daylight: studio.daylight.is_some() && step.kind.needs_daylight(),
            last_good: tub.map(|t| t.last_good().timestamp()),
            pinned: step.pinned_at.map(whole_seconds),
            held_back: 0,
            own_set_up: false,
            refused: refused(studio, p, i),
            below,
        }
    }
}

/// Why step `i` of picture `p` may never be done as things are: it would be painted over a sealing coat
/// without that being meant, or what is in the cup may not go over what is there.
fn refused(studio: &Studio, p: usize, i: usize) -> Option<Blocked> {
    let picture = &studio.pictures[p];
    if let Some(seal) = picture.over_seal(i).filter(|_| !picture.paint_over_seal) {
        return Some(Blocked::OverSeal { seal: picture.steps[seal].called() });
    }
    let title = |below: usize| picture.steps[below].called();
    if let Some(below) = unbonded(studio, picture, i) {
        let said =
            format!("it is water-borne and does not bond to {}, a solvent varnish", title(below));
        return Some(Blocked::Product(said));
    }
    let isolates = picture.steps[i].kind == StepKind::IsolationCoat;
    let varnish =
        under(picture, i).into_iter().rfind(|b| picture.steps[*b].kind == StepKind::Varnish);
    varnish.filter(|_| isolates).map(|below| {
        Blocked::Product(format!(
            "an isolation coat belongs below the varnish, not over {}",
            title(below)
        ))
    })
}

/// The solvent varnish that step `i` of `picture`, a water-borne coat, would lie over, if it would.
pub fn unbonded(studio: &Studio, picture: &Picture, i: usize) -> Option<usize> {
    let solvent = |step: &Step| studio.holds(step, &MaterialKind::SolventVarnish);
    let step = &picture.steps[i];
    let none = !picture.steps.iter().any(solvent);
    if none || !step.kind.leaves_film() || step.mix.is_empty() || solvent(step) {
        return None;
    }
    under(picture, i).into_iter().rfind(|below| solvent(&picture.steps[*below]))
}

/// The steps that step `i`, still to do, would lie over: those it stands on, and all that is laid.
fn under(picture: &Picture, i: usize) -> Vec<usize> {
    let below = picture.all_below(i);
    let laid = |n: &usize| picture.steps[*n].laid_at.is_some();
    (0..picture.steps.len()).filter(|n| *n != i && (laid(n) || below.contains(n))).collect()
}
