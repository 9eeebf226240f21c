//! The varnish plan: which varnish, how many coats, how much, with what and in which order.

use crate::cup::{CupError, Pour, USUAL_LOSS, loss_of, pour_ml};
use crate::picture::{Part, Picture, Step, StepKind};
use crate::planner::SOLVENT_GAP;
use crate::studio::{Finish, Material, MaterialKind, StudioDocument, Waiting};
use thiserror::Error;

crate::studio::words! {
    /// What carries the varnish.
    Carrier {
        /// Water-borne acrylic: bonds with the paint and stays.
        WaterBorne = "water_borne",
        /// Carried in solvent: can be taken off again.
        Solvent = "solvent",
    }
}

crate::studio::words! {
    /// What the sealed thing is for; it decides how many coats are usual.
    Purpose {
        /// It hangs on a wall.
        Hung = "hung",
        /// It hangs, and shines.
        HighGloss = "high_gloss",
        /// It is handled: furniture, boxes, trays.
        Handled = "handled",
    }
}

crate::studio::words! {
    /// The direction of strokes: two schools.
    Strokes {
        /// As the paint was put on.
        FollowPaint = "follow_paint",
        /// Even passes, each coat across the last one.
        Crossed = "crossed",
    }
}

/// Varnish coats for a picture that hangs. [practice] two as a rule
const HUNG_COATS: u8 = 2;
/// Varnish coats for a high gloss. [practice] several; four are taken
const HIGH_GLOSS_COATS: u8 = 4;
/// Varnish coats for what is handled, before its sealer. [practice] about five
const HANDLED_COATS: u8 = 5;
/// The most coats that can be asked for. [practice]
pub const MOST_COATS: u8 = 10;
/// Depth of a stretcher's or panel's edge [cm]. [practice]
pub const USUAL_EDGE_CM: f64 = 2.0;
/// The deepest edge [cm]. [practice]
pub const DEEPEST_EDGE_CM: f64 = 10.0;
/// Share of the shorter side that a varnish brush is wide [-]. [practice] about the brush it was
/// painted with: some six strokes across
const BRUSH_SHARE: f64 = 1.0 / 6.0;
/// Widths that soft flat brushes are sold in [cm]. [practice]
const BRUSHES_CM: [f64; 6] = [2.5, 4.0, 5.0, 6.0, 7.5, 10.0];
/// Side from which a face is varnished in bands, since its edge sets before the far side is reached
/// [cm]. [practice]
const BANDS_FROM_CM: f64 = 60.0;

impl Purpose {
    /// The usual number of varnish coats, without the sealer of handled things.
    pub const fn usual_coats(self) -> u8 {
        match self {
            Self::Hung => HUNG_COATS,
            Self::HighGloss => HIGH_GLOSS_COATS,
            Self::Handled => HANDLED_COATS,
        }
    }
}

impl Carrier {
    fn kind(self) -> MaterialKind {
        match self {
            Self::WaterBorne => MaterialKind::Varnish,
            Self::Solvent => MaterialKind::SolventVarnish,
        }
    }

    const fn said(self) -> &'static str {
        match self {
            Self::WaterBorne => "water-borne",
            Self::Solvent => "solvent-borne",
        }
    }

    /// What it does to the picture, for good or not.
    pub const fn effect(self) -> &'static str {
        match self {
            Self::WaterBorne => {
                "It bonds with the paint and stays: it cannot be taken off again without harm."
            }
            Self::Solvent => {
                "It can be taken off again with its solvent, when it yellows or dulls; its vapour \
                 harms people and catches fire."
            }
        }
    }
}

impl Finish {
    /// What it does to darks and lights.
    pub const fn effect(self) -> &'static str {
        match self {
            Self::Gloss => {
                "Darks become deeper and colours saturated; lamps and windows show in it."
            }
            Self::Satin => "Darks stay nearly as deep as under gloss; reflections are soft.",
            Self::Matte => {
                "Light is scattered: darks become lighter and greyer, lights hardly change; no \
                 reflections. More than one coat of it clouds darks."
            }
        }
    }
}

/// What the painter settled on.
#[derive(Debug, Clone, PartialEq)]
pub struct VarnishChoice {
    /// What carries it.
    pub carrier: Carrier,
    /// The sheen of the last coat.
    pub finish: Finish,
    /// What the thing is for.
    pub purpose: Purpose,
    /// Varnish coats in all, laid ones included, without the sealer of handled things.
    pub coats: u8,
    /// Whether an isolation coat goes between paint and varnish.
    pub isolation: bool,
    /// Why, or why not, when it is not the studio's habit.
    pub isolation_reason: Option<String>,
    /// The direction of strokes.
    pub strokes: Strokes,
    /// Depth of the edges that are varnished too [cm]; 0 leaves them out.
    pub edge_cm: f64,
}

/// Why a varnish plan cannot be made.
#[derive(Debug, Clone, PartialEq, Error)]
pub enum VarnishError {
    /// The shelf has none.
    #[error("no {} {} varnish is on the shelf", .0.said(), .1.word())]
    NotOnShelf(Carrier, Finish),
    /// The shelf has no clear medium for an isolation coat.
    #[error("no clear gloss medium for an isolation coat is on the shelf")]
    NoMedium,
    /// Too many coats, or none.
    #[error("coats must be from 1 to {MOST_COATS}, not {0}")]
    Coats(u8),
    /// An edge of no depth that can be.
    #[error("the edge must be from 0 to {DEEPEST_EDGE_CM} cm deep, not {0} cm")]
    Edge(f64),
    /// Fewer coats than are already there.
    #[error("{laid} varnish coats are already laid; {asked} in all cannot be planned")]
    FewerThanLaid {
        /// Coats there are.
        laid: usize,
        /// Coats asked for.
        asked: u8,
    },
    /// An isolation coat after the varnish.
    #[error("varnish is already laid: an isolation coat can no longer go below it")]
    IsolationTooLate,
    /// Water-borne varnish over solvent varnish.
    #[error("a water-borne varnish does not bond to the solvent varnish that is there")]
    WaterOverSolvent,
    /// The isolation choice is not the studio's habit and says no reason.
    #[error("say why: {}", if *.0 { "your studio lays an isolation coat" } else { "your studio lays no isolation coat" })]
    NoReason(bool),
    /// The amount cannot be computed.
    #[error(transparent)]
    Cup(#[from] CupError),
}

/// A varnish plan for one picture.
#[derive(Debug, Clone, PartialEq)]
pub struct VarnishPlan {
    /// The sealing coats still to lay, in order.
    pub coats: Vec<Step>,
    /// To pour into the bowl for each [ml]: face, edges and what stays in bowl and brush.
    pub pour_ml: f64,
    /// Of it on the edges [ml].
    pub edges_ml: f64,
    /// Width of the brush [cm].
    pub brush_cm: f64,
    /// Order of areas, edges included.
    pub areas: Vec<String>,
    /// The direction of strokes, coat by coat.
    pub strokes: Vec<String>,
    /// For and against the isolation coat, as it was chosen.
    pub isolation: &'static str,
    /// What each gap is, in words.
    pub gaps: Vec<String>,
}

/// What was settled on for a picture; where nothing was, what its steps and the studio's habits say.
pub fn choice_of(document: &StudioDocument, picture: &Picture) -> VarnishChoice {
    if let Some(choice) = &picture.seal.choice {
        return choice.clone();
    }
    let varnish: Vec<&Step> =
        picture.steps.iter().filter(|s| s.kind == StepKind::Varnish).collect();
    let last = varnish.last();
    let carrier = match last {
        Some(step) if document.holds(step, &MaterialKind::SolventVarnish) => Carrier::Solvent,
        _ => Carrier::WaterBorne,
    };
    let finish = last
        .and_then(|s| s.mix.iter().find_map(|p| document.material(&p.material)?.finish))
        .unwrap_or(Finish::Gloss);
    let coats = u8::try_from(varnish.len()).unwrap_or(MOST_COATS).clamp(1, MOST_COATS);
    let planned = picture.steps.iter().any(|s| s.kind == StepKind::IsolationCoat);
    VarnishChoice {
        carrier,
        finish,
        purpose: Purpose::Hung,
        coats: if varnish.is_empty() { HUNG_COATS } else { coats },
        isolation: planned || (varnish.is_empty() && document.schools.isolation_coat),
        isolation_reason: None,
        strokes: Strokes::FollowPaint,
        edge_cm: USUAL_EDGE_CM,
    }
}

impl VarnishChoice {
    /// Checks the choice against what is already on the picture and the studio's habit.
    fn check(&self, document: &StudioDocument, picture: &Picture) -> Result<(), VarnishError> {
        if !(1..=MOST_COATS).contains(&self.coats) {
            return Err(VarnishError::Coats(self.coats));
        }
        if !self.edge_cm.is_finite() || !(0.0..=DEEPEST_EDGE_CM).contains(&self.edge_cm) {
            return Err(VarnishError::Edge(self.edge_cm));
        }
        let laid = || picture.steps.iter().filter(|s| s.laid_at.is_some());
        let varnish = laid().filter(|s| s.kind == StepKind::Varnish).count();
        let isolated = laid().any(|s| s.kind == StepKind::IsolationCoat);
        if varnish > usize::from(self.coats) {
            return Err(VarnishError::FewerThanLaid { laid: varnish, asked: self.coats });
        }
        if self.isolation && varnish > 0 && !isolated {
            return Err(VarnishError::IsolationTooLate);
        }
        let solvent = laid().any(|s| document.holds(s, &MaterialKind::SolventVarnish));
        if solvent && self.carrier == Carrier::WaterBorne {
            return Err(VarnishError::WaterOverSolvent);
        }
        let habit = document.schools.isolation_coat;
        let said = self.isolation_reason.as_deref().is_some_and(|r| !r.trim().is_empty());
        let settled = isolated || varnish > 0;
        if self.isolation != habit && !said && !settled {
            return Err(VarnishError::NoReason(habit));
        }
        Ok(())
    }

    /// The plan of this choice for `picture`: what is laid stays, what is to come is made anew.
    ///
    /// # Errors
    /// [`VarnishError`].
    pub fn plan(
        &self,
        document: &StudioDocument,
        picture: &Picture,
    ) -> Result<VarnishPlan, VarnishError> {
        self.check(document, picture)?;
        let film = StepKind::Varnish.usual_film_um().unwrap_or_default();
        let edges_m2 = 2.0 * (picture.width_cm + picture.height_cm) * self.edge_cm / 10_000.0;
        let pour =
            |area_m2| Pour { area_m2, share_of_area: 1.0, wet_film_um: film, loss: USUAL_LOSS };
        let total = pour_ml(&pour(picture.area_m2() + edges_m2))?;
        let face = pour_ml(&pour(picture.area_m2()))?;
        // The step speaks of the face alone; what the edges take is lost to it.
        let loss = loss_of(&pour(picture.area_m2()), total)?;
        let coats = self.steps(document, picture, loss)?;
        let laid = picture
            .steps
            .iter()
            .filter(|s| s.kind == StepKind::Varnish && s.laid_at.is_some())
            .count();
        Ok(VarnishPlan {
            pour_ml: total,
            edges_ml: total - face,
            brush_cm: brush_cm(picture),
            areas: areas(picture, self.edge_cm),
            strokes: (0..coats.len()).map(|n| self.stroke_of(picture, laid + n)).collect(),
            isolation: if self.isolation { ISOLATION_FOR } else { ISOLATION_AGAINST },
            gaps: Self::gaps(document, picture, &coats),
            coats,
        })
    }

    fn steps(
        &self,
        document: &StudioDocument,
        picture: &Picture,
        loss: f64,
    ) -> Result<Vec<Step>, VarnishError> {
        let on_shelf = |finish: Finish| {
            let fits = |m: &&Material| {
                !m.archived && m.kind == self.carrier.kind() && m.finish == Some(finish)
            };
            let found = document.materials.iter().find(fits);
            found.ok_or(VarnishError::NotOnShelf(self.carrier, finish))
        };
        let laid =
            |kind| picture.steps.iter().filter(|s| s.kind == kind && s.laid_at.is_some()).count();
        let mut found: Vec<Step> = Vec::new();
        let mut names = FreeNames::of(picture);
        let mut coat = |kind, name: String, material: &Material| {
            let mix = vec![Part { material: material.id.clone(), parts: 1.0 }];
            let loss = Some(loss);
            found.push(Step { name: Some(name), mix, loss, ..Step::usual(names.next(), kind) });
        };
        if self.isolation && laid(StepKind::IsolationCoat) == 0 {
            let clear = |m: &&Material| {
                !m.archived && m.kind == MaterialKind::Medium && m.finish == Some(Finish::Gloss)
            };
            let medium = document.materials.iter().find(clear).ok_or(VarnishError::NoMedium)?;
            coat(StepKind::IsolationCoat, "Isolation coat".into(), medium);
        }
        let sealer = usize::from(self.purpose == Purpose::Handled);
        let all = usize::from(self.coats) + sealer;
        for n in laid(StepKind::Varnish)..all {
            let last = n + 1 == all;
            let finish = if last { self.finish } else { Finish::Gloss };
            let name = match (last && sealer > 0, finish) {
                (true, finish) => format!("Sealer, {}", finish.word()),
                (false, finish) => format!("Varnish {} of {all}, {}", n + 1, finish.word()),
            };
            coat(StepKind::Varnish, name, on_shelf(finish)?);
        }
        Ok(found)
    }

    /// The direction of strokes of coat `n`, counted from 0.
    pub(super) fn stroke_of(&self, picture: &Picture, n: usize) -> String {
        // The first coat goes along the shorter way: its wet edge stays open.
        let upright = picture.height_cm >= picture.width_cm;
        match self.strokes {
            Strokes::FollowPaint => "along the painted strokes".into(),
            Strokes::Crossed if n.is_multiple_of(2) == upright => {
                "across the picture, edge to edge, each pass half over the last one".into()
            }
            Strokes::Crossed => {
                "up and down, edge to edge, each pass half over the last one".into()
            }
        }
    }

    /// What each of `coats` waits for, in words.
    fn gaps(document: &StudioDocument, picture: &Picture, coats: &[Step]) -> Vec<String> {
        let solvent = |step: &Step| document.holds(step, &MaterialKind::SolventVarnish);
        let laid = |s: &&Step| s.kind.seals() && s.laid_at.is_some();
        let mut below = picture.steps.iter().filter(laid).max_by_key(|s| s.laid_at);
        let mut found = Vec::new();
        for step in coats {
            found.push(match below {
                None => "when the gate is open".into(),
                Some(below) if solvent(step) && !solvent(below) => {
                    let days = SOLVENT_GAP.num_days();
                    format!("{days} to {} days after the water-borne coat below", days + 1)
                }
                Some(_) if document.schools.waiting == Waiting::Brisk => {
                    "an hour after the coat below, at least".into()
                }
                Some(_) => "the day after the coat below; an hour at the very least".into(),
            });
            below = Some(step);
        }
        found
    }
}

/// For the isolation coat.
const ISOLATION_FOR: &str = "For: a removable varnish can be taken off later without touching the \
    paint, and an uneven sheen is evened. Against: it stays for good, and a fault in it stays too.";
/// Against it.
const ISOLATION_AGAINST: &str = "Left out: one film less between eye and paint, and nothing that \
    can go wrong for good. Against: whoever takes the varnish off later touches the paint.";

/// The width of brush for a picture [cm].
fn brush_cm(picture: &Picture) -> f64 {
    let wanted = picture.width_cm.min(picture.height_cm) * BRUSH_SHARE;
    let nearest =
        BRUSHES_CM.into_iter().min_by(|a, b| (a - wanted).abs().total_cmp(&(b - wanted).abs()));
    nearest.unwrap_or(wanted)
}

/// The order in which areas are varnished.
fn areas(picture: &Picture, edge_cm: f64) -> Vec<String> {
    let mut found = Vec::new();
    if edge_cm > 0.0 {
        found.push("the four edges first, so that drips over the face are caught".to_owned());
    }
    found.push("the face from the far side towards you, so that no sleeve crosses wet work".into());
    if picture.width_cm.max(picture.height_cm) > BANDS_FROM_CM {
        found.push("in bands of a forearm's width, each laid into the wet edge of the last".into());
    }
    if edge_cm > 0.0 {
        found.push("last the rims: take up what hangs at edges and corners".into());
    }
    found
}

/// Names for new steps that the picture does not use.
struct FreeNames {
    taken: Vec<String>,
    n: usize,
}

impl FreeNames {
    fn of(picture: &Picture) -> Self {
        Self { taken: picture.steps.iter().map(|s| s.id.clone()).collect(), n: 0 }
    }

    fn next(&mut self) -> String {
        loop {
            self.n += 1;
            let name = format!("seal{}", self.n);
            if !self.taken.contains(&name) {
                return name;
            }
        }
    }
}

/// `picture` with the sealing coats of `plan` in place of those it still had to come. A picture
/// that has no photograph before its first sealing coat gets one.
pub fn with_varnish(picture: &Picture, choice: &VarnishChoice, plan: &VarnishPlan) -> Picture {
    let mut changed = picture.clone();
    let to_come = |s: &Step| s.kind.seals() && s.laid_at.is_none();
    let wraps = |s: &Step| s.kind == StepKind::Pack;
    let sealed = picture.steps.iter().any(|s| s.kind.seals() && s.laid_at.is_some());
    let at = picture.steps.iter().position(to_come).or_else(|| {
        // Behind everything that is painted, before it is wrapped.
        picture.steps.iter().position(wraps)
    });
    let at = at.unwrap_or(picture.steps.len());
    let gone: Vec<String> =
        picture.steps.iter().filter(|s| to_come(s)).map(|s| s.id.clone()).collect();
    let mut coats = plan.coats.clone();
    let shot = picture.steps[..at].iter().any(|s| s.kind == StepKind::Photograph);
    if !shot && !sealed && !coats.is_empty() {
        let mut names = FreeNames::of(&Picture {
            steps: picture.steps.iter().chain(&coats).cloned().collect(),
            ..picture.clone()
        });
        coats.insert(0, Step::usual(names.next(), StepKind::Photograph));
    }
    let last = coats.last().map(|s| s.id.clone());
    changed.steps.splice(at..at, coats);
    changed.steps.retain(|s| !gone.contains(&s.id));
    for step in &mut changed.steps {
        let Some(after) = &mut step.after else { continue };
        if after.iter().any(|id| gone.contains(id)) {
            after.retain(|id| !gone.contains(id));
            after.extend(last.clone());
        }
        if after.is_empty() {
            step.after = None;
        }
    }
    changed.seal.choice = Some(choice.clone());
    changed
}
