//! The varnish plan: which varnish, how many coats, how much, with what and in which order.

use crate::cup::{CupError, Pour, USUAL_LOSS, loss_of, pour_ml};
use crate::mix::{Finish, Material, MaterialKind, Mix};
use crate::picture::{
    Carrier, MOST_COATS, Picture, Purpose, Step, StepKind, Strokes, USUAL_EDGE_CM, VarnishChoice,
};
use crate::quantity::Fault;
use crate::readiness::gap_said;
use crate::studio::Studio;
use crate::studio::check::check_choice;
use thiserror::Error;

/// Varnish coats for a picture that hangs. [practice] two as a rule
const HUNG_COATS: u8 = 2;
/// Varnish coats for a high gloss. [practice] several; four are taken
const HIGH_GLOSS_COATS: u8 = 4;
/// Varnish coats for what is handled, before its sealer. [practice] about five
const HANDLED_COATS: u8 = 5;
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

    const fn borne(self) -> &'static str {
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

/// Why a varnish plan cannot be made.
#[derive(Debug, Clone, PartialEq, Error)]
pub enum VarnishError {
    /// The shelf has none.
    #[error("no {} {} varnish is on the shelf", .0.borne(), .1.word())]
    NotOnShelf(Carrier, Finish),
    /// The shelf has no clear medium for an isolation coat.
    #[error("no clear gloss medium for an isolation coat is on the shelf")]
    NoMedium,
    /// A number or a text of it cannot be.
    #[error("{}", .0.why)]
    Cannot(#[from] Fault),
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

impl VarnishError {
    /// The field of the choice that it is about; empty for the whole.
    pub fn place(&self) -> &str {
        match self {
            Self::NotOnShelf(..) => "finish",
            Self::NoMedium | Self::IsolationTooLate => "isolation",
            Self::NoReason(_) => "isolation_reason",
            Self::FewerThanLaid { .. } => "coats",
            Self::WaterOverSolvent => "carrier",
            Self::Cannot(fault) => &fault.place,
            Self::Cup(_) => "",
        }
    }
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
pub fn choice_of(studio: &Studio, picture: &Picture) -> VarnishChoice {
    if let Some(choice) = &picture.seal.choice {
        return choice.clone();
    }
    let varnish: Vec<&Step> =
        picture.steps.iter().filter(|s| s.kind == StepKind::Varnish).collect();
    let last = varnish.last();
    let carrier = match last {
        Some(step) if studio.holds(step, &MaterialKind::SolventVarnish) => Carrier::Solvent,
        _ => Carrier::WaterBorne,
    };
    let finish = last
        .and_then(|s| s.mix.iter().find_map(|p| studio.material(&p.material)?.finish))
        .unwrap_or(Finish::Gloss);
    let coats = u8::try_from(varnish.len()).unwrap_or(MOST_COATS).clamp(1, MOST_COATS);
    let planned = picture.steps.iter().any(|s| s.kind == StepKind::IsolationCoat);
    VarnishChoice {
        carrier,
        finish,
        purpose: Purpose::Hung,
        coats: if varnish.is_empty() { HUNG_COATS } else { coats },
        isolation: planned || (varnish.is_empty() && studio.schools.isolation_coat),
        isolation_reason: None,
        strokes: Strokes::FollowPaint,
        edge_cm: USUAL_EDGE_CM,
    }
}

impl VarnishChoice {
    /// Checks the choice against what is already on the picture and the studio's habit.
    fn check(&self, studio: &Studio, picture: &Picture) -> Result<(), VarnishError> {
        check_choice(self)?;
        let laid = || picture.steps.iter().filter(|s| s.laid_at.is_some());
        let varnish = laid().filter(|s| s.kind == StepKind::Varnish).count();
        let isolated = laid().any(|s| s.kind == StepKind::IsolationCoat);
        if varnish > usize::from(self.coats) {
            return Err(VarnishError::FewerThanLaid { laid: varnish, asked: self.coats });
        }
        if self.isolation && varnish > 0 && !isolated {
            return Err(VarnishError::IsolationTooLate);
        }
        let solvent = laid().any(|s| studio.holds(s, &MaterialKind::SolventVarnish));
        if solvent && self.carrier == Carrier::WaterBorne {
            return Err(VarnishError::WaterOverSolvent);
        }
        let habit = studio.schools.isolation_coat;
        let said = self.isolation_reason.as_deref().is_some_and(|r| !r.trim().is_empty());
        let settled = isolated || varnish > 0;
        if self.isolation != habit && !said && !settled {
            return Err(VarnishError::NoReason(habit));
        }
        Ok(())
    }

    /// The choice as it stands: one that nobody has made yet owes no reason.
    #[must_use]
    pub fn as_it_stands(&self) -> Self {
        let reason = self.isolation_reason.clone();
        let reason = reason.unwrap_or_else(|| "as it is planned".into());
        Self { isolation_reason: Some(reason), ..self.clone() }
    }

    /// The plan of this choice for `picture`: what is laid stays, what is to come is made anew.
    ///
    /// # Errors
    /// [`VarnishError`].
    pub fn plan(&self, studio: &Studio, picture: &Picture) -> Result<VarnishPlan, VarnishError> {
        self.check(studio, picture)?;
        let film = StepKind::Varnish.usual_film_um().unwrap_or_default();
        let edges_m2 = 2.0 * (picture.width_cm + picture.height_cm) * self.edge_cm / 10_000.0;
        let pour =
            |area_m2| Pour { area_m2, share_of_area: 1.0, wet_film_um: film, loss: USUAL_LOSS };
        let total = pour_ml(&pour(picture.area_m2() + edges_m2))?;
        let face = pour_ml(&pour(picture.area_m2()))?;
        // The step speaks of the face alone; what the edges take is lost to it.
        let loss = loss_of(&pour(picture.area_m2()), total)?;
        let coats = self.steps(studio, picture, loss)?;
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
            gaps: Self::gaps(studio, picture, &coats),
            coats,
        })
    }

    fn steps(
        &self,
        studio: &Studio,
        picture: &Picture,
        loss: f64,
    ) -> Result<Vec<Step>, VarnishError> {
        let on_shelf = |finish: Finish| {
            let fits = |m: &&Material| {
                !m.archived && m.kind == self.carrier.kind() && m.finish == Some(finish)
            };
            let found = studio.materials.iter().find(fits);
            found.ok_or(VarnishError::NotOnShelf(self.carrier, finish))
        };
        let laid =
            |kind| picture.steps.iter().filter(|s| s.kind == kind && s.laid_at.is_some()).count();
        let mut found: Vec<Step> = Vec::new();
        let mut names = picture.free_names(STEM);
        let mut coat = |kind, name: String, material: &Material| {
            let (mix, loss) = (Mix::one(&material.id), Some(loss));
            let id = names.next().unwrap_or_default();
            found.push(Step { name: Some(name), mix, loss, ..Step::usual(id, kind) });
        };
        if self.isolation && laid(StepKind::IsolationCoat) == 0 {
            let clear = |m: &&Material| {
                !m.archived && m.kind == MaterialKind::Medium && m.finish == Some(Finish::Gloss)
            };
            let medium = studio.materials.iter().find(clear).ok_or(VarnishError::NoMedium)?;
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
    fn gaps(studio: &Studio, picture: &Picture, coats: &[Step]) -> Vec<String> {
        let laid = |s: &&Step| s.kind.seals() && s.laid_at.is_some();
        let mut below = picture.steps.iter().filter(laid).max_by_key(|s| s.laid_at);
        let mut found = Vec::new();
        for step in coats {
            let first = || "when the gate is open".to_owned();
            found.push(below.map_or_else(first, |below| gap_said(studio, below, step)));
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

/// What new steps are called within their picture.
const STEM: &str = "seal";

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

/// `picture` with the sealing coats of `plan` in place of those it still had to come. A picture
/// that has no photograph before its first sealing coat gets one.
pub fn with_varnish(picture: &Picture, choice: &VarnishChoice, plan: &VarnishPlan) -> Picture {
    let mut changed = picture.clone();
    let to_come = |s: &Step| s.kind.seals() && s.laid_at.is_none();
    let wraps = |s: &Step| s.kind == StepKind::Pack;
    let sealed = picture.steps.iter().any(|s| s.kind.seals() && s.laid_at.is_some());
    // Behind everything that is painted, before it is wrapped.
    let at =
        picture.steps.iter().position(to_come).or_else(|| picture.steps.iter().position(wraps));
    let at = at.unwrap_or(picture.steps.len());
    let mut coats = plan.coats.clone();
    let shot = picture.steps[..at].iter().any(|s| s.kind == StepKind::Photograph);
    if !shot && !sealed && !coats.is_empty() {
        let taken = |name: &String| coats.iter().any(|c| c.id == *name);
        let name = picture.free_names(STEM).find(|name| !taken(name));
        coats.splice(0..0, name.map(|name| Step::usual(name, StepKind::Photograph)));
    }
    changed.replace(to_come, (at, coats));
    changed.seal.choice = Some(choice.clone());
    changed
}
