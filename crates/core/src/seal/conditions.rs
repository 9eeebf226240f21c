//! The conditions of a gate, and how those that hang on the picture itself stand.

use super::look::{Judged, Look, last_painted, open_below};
use crate::film::{HORIZON_S, SEAL_SLOW, SEALED_DEPTH_M};
use crate::mix::MaterialKind;
use crate::picture::{Need, Picture, Step, StepKind};
use crate::readiness::{SOLVENT_GAP, WaitReason};
use crate::studio::{Slowed, Waiting};
use crate::time::DAY_S;
use crate::words::words;
use chrono::{DateTime, Duration, Utc};

words! {
    /// A condition of the gate.
    ConditionId {
        /// Every coat below is laid.
        LastCoat = "last_coat",
        /// The film is cured, as computed; between varnish coats: the coat below is safe to coat.
        Cure = "cure",
        /// The school's waiting time is over.
        Floor = "floor",
        /// What the painter asked for is over.
        Asked = "asked",
        /// Varnish coats lie far enough apart.
        Between = "between",
        /// It is signed.
        Signature = "signature",
        /// It is photographed or scanned.
        Photograph = "photograph",
        /// The surface is clean and was looked at.
        Surface = "surface",
        /// The product may go over what is there.
        Product = "product",
        /// The air is in range until it is touch-dry.
        Air = "air",
        /// A flat place is free until it is touch-dry.
        FlatPlace = "flat_place",
    }
}

/// How long a look over the surface counts: dust settles. [practice] a day
const LOOK_HOLDS: Duration = Duration::days(1);

words! {
    /// How a condition stands.
    Standing {
        /// It holds.
        Holds = "holds",
        /// Time alone brings it.
        Waits = "waits",
        /// It wants the painter's hand.
        Yours = "yours",
        /// Waiting does not bring it.
        Against = "against",
        /// It did not hold when it should have, and no longer can; it keeps nothing closed.
        Missed = "missed",
    }
}

impl ConditionId {
    /// What is asked, in a few words.
    pub const fn asks(self) -> &'static str {
        match self {
            Self::LastCoat => "The last coat is on",
            Self::Cure => "The film is cured",
            Self::Floor => "The school's waiting time is over",
            Self::Asked => "The time you asked for has come",
            Self::Between => "The coat below has lain long enough",
            Self::Signature => "It is signed",
            Self::Photograph => "It is photographed or scanned",
            Self::Surface => "The surface is clean and looked over",
            Self::Product => "The varnish suits what it goes on",
            Self::Air => "The air is fit until it is touch-dry",
            Self::FlatPlace => "A flat place is free",
        }
    }
}

impl ConditionId {
    /// What is missing when it does not hold, as a part of a sentence.
    pub const fn lacks(self) -> &'static str {
        match self {
            Self::LastCoat => "the last coat is not on",
            Self::Cure => "the film is not cured",
            Self::Floor => "the school's waiting time is not over",
            Self::Asked => "the time you asked for has not come",
            Self::Between => "the coat below has not lain long enough",
            Self::Signature => "it is not signed",
            Self::Photograph => "it is not photographed after the last paint",
            Self::Surface => "the surface was not looked over within a day",
            Self::Product => "the varnish does not suit what it goes on",
            Self::Air => "the air is not fit until it is touch-dry",
            Self::FlatPlace => "no flat place is free",
        }
    }
}

/// One condition.
#[derive(Debug, Clone, PartialEq)]
pub struct Condition {
    /// Which.
    pub id: ConditionId,
    /// How it stands now.
    pub standing: Standing,
    /// What it is judged by, in words without times.
    pub evidence: String,
    /// From when it holds: past when it does, `None` when time does not bring it.
    pub from: Option<DateTime<Utc>>,
}

impl Condition {
    /// Whether it keeps the gate closed.
    pub fn closes(&self) -> bool {
        !matches!(self.standing, Standing::Holds | Standing::Missed)
    }
}

/// When a picture was last photographed after its last paint and not after `until`, as a photograph that
/// is kept and as a step that is logged. `shown` are the picture, its next sealing coat, and when
/// photographs of it were taken.
fn photographed(
    (picture, i, photographs): (&Picture, usize, &[DateTime<Utc>]),
    until: DateTime<Utc>,
) -> (Option<DateTime<Utc>>, Option<DateTime<Utc>>) {
    // With paint still to come none can have been taken after the last of it.
    let (after, open) = (last_painted(picture), !open_below(picture, i).is_empty());
    let fits = |at: &DateTime<Utc>| !open && after.is_none_or(|a| *at >= a) && *at <= until;
    let steps = picture.steps.iter().filter(|s| s.kind == StepKind::Photograph);
    let logged = steps.filter_map(|s| s.laid_at).filter(fits).max();
    (photographs.iter().copied().filter(fits).max(), logged)
}

/// The sealing coat before which a picture is to be photographed: all its paint is on, nothing is sealed
/// yet, and no photograph was taken since.
pub fn photograph_due(
    picture: &Picture,
    photographs: &[DateTime<Utc>],
    now: DateTime<Utc>,
) -> Option<usize> {
    let seals = |s: &Step| s.kind.seals();
    if picture.steps.iter().any(|s| seals(s) && s.laid_at.is_some()) {
        return None;
    }
    let i = picture.steps.iter().position(seals)?;
    let painted = last_painted(picture).is_some() && open_below(picture, i).is_empty();
    let none = photographed((picture, i, photographs), now) == (None, None);
    (painted && none).then_some(i)
}

impl Look<'_> {
    pub(super) fn last_coat(&self) -> Condition {
        let open = self.open_below();
        let laid = self.laid().filter(|(s, _)| s.kind.leaves_film());
        let laid: Vec<DateTime<Utc>> = laid.map(|(_, at)| at).collect();
        let all = laid.len() + open.len();
        let id = ConditionId::LastCoat;
        match open.last() {
            None => Condition {
                id,
                standing: Standing::Holds,
                evidence: format!("{all} of {all} coats below it are laid."),
                from: laid.into_iter().max(),
            },
            Some(last) => Condition {
                id,
                standing: Standing::Yours,
                evidence: format!(
                    "{} of {all} coats below it are laid; the last is {}.",
                    laid.len(),
                    self.picture.steps[*last].called()
                ),
                from: self.planned_end(*last),
            },
        }
    }

    pub(super) fn timed(
        &self,
        id: ConditionId,
        from: Option<DateTime<Utc>>,
        evidence: String,
    ) -> Condition {
        let standing = match from {
            Some(at) if at <= self.now => Standing::Holds,
            Some(_) => Standing::Waits,
            None => Standing::Against,
        };
        Condition { id, standing, evidence, from }
    }

    pub(super) fn cure(&self, judged: &Judged) -> Condition {
        let id = ConditionId::Cure;
        let Some(film) = judged.of(&[WaitReason::Film]) else {
            let evidence = "No coat is laid or planned below it.".into();
            return Condition { id, standing: Standing::Against, evidence, from: None };
        };
        let need = self.picture.needs_on(self.i, judged.top);
        let coats = judged.coats;
        let lie = if self.open_below().is_empty() { "as laid" } else { "as laid and as planned" };
        let said = match need {
            Need::ReadyToSeal => format!(
                "Computed from {coats} coats {lie}: dry right through, and at most {:.0} % of slow \
                 solvent left in its upper {:.0} µm.",
                SEAL_SLOW * 100.0,
                SEALED_DEPTH_M * 1e6
            ),
            _ => format!("Computed from {coats} coats {lie}: it must be {}.", need.word()),
        };
        let said = match film.until {
            Some(_) => said,
            None => {
                let days = HORIZON_S / DAY_S;
                format!("{said} In this room it does not get there within {days:.0} days.")
            }
        };
        self.timed(id, film.until, said)
    }

    /// The school's waiting time after paint; nothing where none is painted.
    pub(super) fn floor(&self, judged: &Judged) -> Option<Condition> {
        let floor =
            judged.of(&[WaitReason::School, WaitReason::Retarder, WaitReason::SlowPaint])?;
        let school = self.studio.schools.waiting;
        let word = match school {
            Waiting::Brisk => "brisk",
            Waiting::Standard => "standard",
            Waiting::Patient => "patient",
        };
        let (slowed, why) = match floor.what {
            WaitReason::Retarder => (Slowed::Retarder, ", longer because retarder is in the stack"),
            WaitReason::SlowPaint => {
                (Slowed::SlowPaint, ", longer because slow-drying paint is in the stack")
            }
            _ => (Slowed::No, ""),
        };
        let days = school.floor(slowed).num_days();
        let plural = if days == 1 { "" } else { "s" };
        let said = format!(
            "The {word} school waits {days} day{plural} after the last paint{why}. [practice]"
        );
        Some(self.timed(ConditionId::Floor, floor.until, said))
    }

    /// The gap after the sealing coat below; nothing where paint is below.
    pub(super) fn between(&self, judged: &Judged) -> Option<Condition> {
        let gap = judged.of(&[WaitReason::BetweenVarnish, WaitReason::SolventOverWater])?;
        let said = match (gap.what, self.studio.schools.waiting) {
            (WaitReason::SolventOverWater, _) => {
                let days = SOLVENT_GAP.num_days();
                format!(
                    "Solvent varnish over a water-borne coat: {days} to {} days between. [practice]",
                    days + 1
                )
            }
            (_, Waiting::Brisk) => "An hour at least after the coat below. [practice]".into(),
            _ => "The day after the coat below; an hour is the least. [practice]".into(),
        };
        Some(self.timed(ConditionId::Between, gap.until, said))
    }

    /// What the painter asked for beside it; nothing when that is over or was never asked.
    pub(super) fn asked(&self, judged: &Judged) -> Option<Condition> {
        let asked = judged.of(&[WaitReason::NotBefore, WaitReason::Gap])?;
        let said = match asked.what {
            WaitReason::Gap => "You asked for a gap after what it stands on.",
            _ => "You asked for it not before that.",
        };
        let asked = self.timed(ConditionId::Asked, asked.until, said.into());
        Some(asked).filter(Condition::closes)
    }

    pub(super) fn signature(&self, between: bool) -> Condition {
        let id = ConditionId::Signature;
        let signs = |(_, s): &(usize, &Step)| s.kind == StepKind::Signature;
        let Some((n, step)) = self.picture.steps.iter().enumerate().rfind(signs) else {
            let evidence = if between {
                "No signature is planned on the face; it would go on the back now."
            } else {
                "No signature is planned on the face: once it is sealed it is too late for one."
            };
            let evidence = evidence.into();
            return Condition { id, standing: Standing::Holds, evidence, from: None };
        };
        let (standing, evidence) = match step.laid_at {
            Some(_) => (Standing::Holds, "Logged."),
            None if between => (Standing::Missed, "The gate closed before it was signed."),
            None => (Standing::Yours, "Sign it before the first sealing coat."),
        };
        let from = step.laid_at.or_else(|| self.planned_end(n));
        Condition { id, standing, evidence: evidence.into(), from }
    }

    pub(super) fn photograph(&self, between: bool) -> Condition {
        let id = ConditionId::Photograph;
        let shown = (self.picture, self.i, self.photographs);
        let (kept, logged) = photographed(shown, self.first_seal().unwrap_or(self.now));
        let (standing, evidence, from) = match (kept, logged) {
            (Some(at), _) => {
                (Standing::Holds, "A picture of it is kept, taken after the last paint.", Some(at))
            }
            (None, Some(at)) => (
                Standing::Holds,
                "Logged after the last paint; no picture of it is kept.",
                Some(at),
            ),
            (None, None) if between => (
                Standing::Missed,
                "None was taken after the last paint and before the varnish: gloss glares.",
                None,
            ),
            (None, None) => (
                Standing::Yours,
                "Take one after the last paint and before the first gloss: varnish glares.",
                None,
            ),
        };
        Condition { id, standing, evidence: evidence.into(), from }
    }

    pub(super) fn surface(&self) -> Condition {
        let id = ConditionId::Surface;
        let last = self.laid().filter(|(s, _)| s.kind.leaves_film()).map(|(_, at)| at).max();
        let seen = self.picture.seal.inspected_at.filter(|at| *at <= self.now);
        let since = seen.filter(|at| last.is_none_or(|l| *at >= l));
        let fresh = since.filter(|at| *at + LOOK_HOLDS > self.now);
        if fresh.is_some() && self.open_below().is_empty() {
            let evidence = "Dusted and looked over since the last coat.".into();
            return Condition { id, standing: Standing::Holds, evidence, from: fresh };
        }
        let said = match since {
            Some(_) => "It was looked over more than a day ago, and dust settles since: take it",
            None => "Take dust",
        };
        let evidence = format!(
            "{said} off with a soft dry brush, look along it in raking light, and say so here."
        );
        Condition { id, standing: Standing::Yours, evidence, from: None }
    }

    pub(super) fn product(&self) -> Condition {
        let step = self.step();
        let holds = |kind| self.studio.holds(step, &kind);
        let solvent = holds(MaterialKind::SolventVarnish);
        let water = holds(MaterialKind::Varnish);
        let below = self.last_seal();
        let solvent_below =
            below.is_some_and(|(s, _)| self.studio.holds(s, &MaterialKind::SolventVarnish));
        let varnish_below = below.is_some_and(|(s, _)| s.kind == StepKind::Varnish);
        let isolation = step.kind == StepKind::IsolationCoat;
        let over = match below {
            None => "paint",
            Some(_) if solvent_below => "solvent varnish",
            Some((s, _)) if s.kind == StepKind::IsolationCoat => "the isolation coat",
            Some(_) => "water-borne varnish",
        };
        let (standing, evidence) = if solvent && water {
            (Standing::Against, "Water-borne and solvent varnish do not mix in one cup.".into())
        } else if solvent_below && !solvent {
            let said =
                "A water-borne coat does not bond to the solvent varnish that is there. [practice]";
            (Standing::Against, said.into())
        } else if isolation && varnish_below {
            let said = "An isolation coat belongs below the varnish, and varnish is there.";
            (Standing::Against, said.into())
        } else if isolation && solvent {
            (Standing::Against, "An isolation coat must not come off with solvent varnish.".into())
        } else if isolation {
            (Standing::Holds, format!("A clear permanent coat over {over}."))
        } else if solvent {
            (Standing::Holds, format!("Solvent-borne, removable, over {over}."))
        } else if water {
            (Standing::Holds, format!("Water-borne, permanent, over {over}."))
        } else {
            (Standing::Against, "What is in the cup is no varnish of your shelf.".into())
        };
        let from = (standing == Standing::Holds).then_some(self.now);
        Condition { id: ConditionId::Product, standing, evidence, from }
    }
}
