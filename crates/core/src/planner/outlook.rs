//! What becomes of a picture's coats, laid and planned: the numbers behind strata and verdict.

use super::Plan;
use super::readiness::seconds;
use crate::film::{FilmState, Grid};
use crate::picture::{CoatHistory, Frame, LaidCoat, Timeline, follow};
use crate::rules::laid_coats;
use crate::studio::{Slowed, StudioDocument};

/// A coat, laid or planned, with what it allows and when.
#[derive(Debug, Clone, PartialEq)]
pub struct CoatOutlook {
    /// The coat and the states it reaches.
    pub history: CoatHistory,
    /// Whether it is only planned.
    pub planned: bool,
    /// From when the stack may be sealed if nothing more is laid [s]: the later of the computed
    /// cure and the school's floor.
    pub seal_from: Option<f64>,
    /// Index of the material that is drawn for the coat.
    pub material: Option<usize>,
}

/// The whole film of a picture at one moment.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct FilmMoment {
    /// The moment [s of the epoch].
    pub at: f64,
    /// Thickness of all coats, with what is still in them [m].
    pub thickness_m: f64,
    /// What the stack allows: the state of its least dry coat.
    pub state: FilmState,
}

/// The film of picture `p` as a line through time, up to `until` [s], in up to `frames` moments.
pub fn film_line(
    document: &StudioDocument,
    p: usize,
    plan: &Plan,
    (until, frames): (f64, usize),
) -> Vec<FilmMoment> {
    let picture = &document.pictures[p];
    let coats = coats_of(document, p, plan);
    let size = (picture.absorbs_um * 1e-6, picture.shorter_side_m());
    let line = follow(size, &coats, &document.air, Grid::DRAWN, (until, frames), |_| false);
    line.frames
        .iter()
        .filter_map(|frame| {
            Some(FilmMoment {
                at: frame.at,
                thickness_m: frame.coats.iter().map(|c| c.thickness_m).sum(),
                state: frame.coats.iter().map(|c| c.state).min()?,
            })
        })
        .collect()
}

/// The coats of picture `p` in order of time: those laid and those of `plan`.
pub(crate) fn coats_of(document: &StudioDocument, p: usize, plan: &Plan) -> Vec<LaidCoat> {
    let picture = &document.pictures[p];
    let mut coats = laid_coats(document, picture);
    coats.extend(plan.steps.iter().filter(|s| s.picture == p).filter_map(|s| {
        let at = seconds(s.sittings.last()?.to);
        let (um, mix) = document.coat(&picture.steps[s.step]).ok()??;
        Some(LaidCoat { step: s.step, at, wet_m: um * 1e-6, mix })
    }));
    coats.sort_by(|a, b| a.at.total_cmp(&b.at));
    coats
}

/// Follows the coats of picture `p`, those laid and those of `plan`, up to `until` [s], keeping up
/// to `frames` moments of the film. Without frames only the last laid coat is followed on its own:
/// it alone can be asked about now.
pub fn outlook(
    document: &StudioDocument,
    p: usize,
    plan: &Plan,
    (until, frames): (f64, usize),
) -> (Vec<CoatOutlook>, Vec<Frame>) {
    let picture = &document.pictures[p];
    let laid = laid_coats(document, picture).len();
    let coats = coats_of(document, p, plan);
    let size = (picture.absorbs_um * 1e-6, picture.shorter_side_m());
    let line = follow(size, &coats, &document.air, Grid::PLANNING, (until, frames), |n| {
        frames > 0 || n + 1 == laid
    });
    let frames = line.frames.clone();
    (decorate(document, p, line, laid), frames)
}

/// What the coats of picture `p`, of which `laid` are laid, allow and when.
pub(super) fn decorate(
    document: &StudioDocument,
    p: usize,
    line: Timeline,
    laid: usize,
) -> Vec<CoatOutlook> {
    let picture = &document.pictures[p];
    let mut slowed = Slowed::No;
    let mut painted = None;
    let outlooks = line.coats.into_iter().enumerate().map(|(n, history)| {
        let step = &picture.steps[history.coat.step];
        if !step.kind.seals() {
            painted = Some(history.coat.at);
            slowed = slowed.max(document.slowed_by(step));
        }
        let floor = document.schools.waiting.floor(slowed).num_seconds() as f64;
        let cured = history.if_left.at(FilmState::ReadyToSeal);
        let seal_from = cured.map(|at| painted.map_or(at, |painted| at.max(painted + floor)));
        CoatOutlook {
            planned: n >= laid,
            seal_from,
            material: drawn_material(document, &step.mix),
            history,
        }
    });
    outlooks.collect()
}

/// The material a coat is drawn with: the paint with the most parts, or else the largest part.
fn drawn_material(document: &StudioDocument, mix: &[crate::picture::Part]) -> Option<usize> {
    use crate::studio::MaterialKind::{Paint, Primer};
    mix.iter()
        .filter_map(|part| {
            let i = document.materials.iter().position(|m| m.id == part.material)?;
            Some((matches!(document.materials[i].kind, Paint | Primer), part.parts, i))
        })
        .max_by(|a, b| a.0.cmp(&b.0).then(a.1.total_cmp(&b.1)))
        .map(|(.., i)| i)
}
