//! The gate: whether a picture may be sealed, each condition with its evidence and earliest time.

use super::air::first_fault;
use crate::film::{Film, FilmState, Grid, HORIZON_S};
use crate::picture::{LaidCoat, Need, Picture, Step, StepKind};
use crate::planner::{Plan, SOLVENT_GAP, between_varnish, coats_of};
use crate::studio::{MaterialKind, Slowed, StudioDocument, Waiting};
use chrono::{DateTime, Duration, TimeZone, Utc};

/// How far ahead an hour is looked for in which everything holds [days]. [practice] a season
const LOOK_AHEAD_DAYS: i64 = 120;
/// Minutes that are added to what the film model says, for a room that is not quite as computed:
/// the air must stay fit that much longer. [practice]
const MARGIN_MIN: i64 = 10;
/// Rounds in which the time to touch-dry and the hour that depends on it are brought together.
const ROUNDS: usize = 4;

crate::studio::words! {
    /// A condition of the gate.
    ConditionId {
        /// Every coat below is laid.
        LastCoat = "last_coat",
        /// The film is cured, as computed; between varnish coats: the coat below is safe to coat.
        Cure = "cure",
        /// The school's waiting time is over.
        Floor = "floor",
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

crate::studio::words! {
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

crate::studio::words! {
    /// Where a picture stands on its way out of the studio.
    Stage {
        /// No sealing coat is planned.
        Unplanned = "unplanned",
        /// Its next sealing coat must wait, or wants something first.
        Closed = "closed",
        /// Everything holds: the next sealing coat may be laid now.
        Open = "open",
        /// Every sealing coat is on; it must not be touched yet.
        Curing = "curing",
        /// It may be wrapped.
        ReadyToWrap = "ready_to_wrap",
        /// It is wrapped.
        Wrapped = "wrapped",
    }
}

/// The gate of one picture.
#[derive(Debug, Clone, PartialEq)]
pub struct Gate {
    /// Where it stands.
    pub stage: Stage,
    /// Index of the next sealing coat.
    pub step: Option<usize>,
    /// Whether it goes over another sealing coat.
    pub between: bool,
    /// Every condition of it, in the order of work.
    pub conditions: Vec<Condition>,
    /// The first hour within the studio's hours in which all that time brings holds, from the first
    /// stroke to the end of the hands-on work; what wants the painter's hand is taken as done.
    pub earliest: Option<(DateTime<Utc>, DateTime<Utc>)>,
    /// Minutes until the coat must be left alone, laid then.
    pub working_min: Option<f64>,
    /// Minutes until it is touch-dry, laid then.
    pub touch_dry_min: Option<f64>,
    /// When the face may be touched by wrapping, once every sealing coat is on.
    pub wrap_from: Option<DateTime<Utc>>,
}

impl Gate {
    /// The conditions that keep it closed.
    pub fn against(&self) -> impl Iterator<Item = &Condition> {
        self.conditions.iter().filter(|c| c.closes())
    }
}

fn seconds(at: DateTime<Utc>) -> f64 {
    at.timestamp_micros() as f64 / 1e6
}

fn instant(t: f64) -> DateTime<Utc> {
    Utc.timestamp_opt(t.ceil() as i64, 0).single().unwrap_or(DateTime::<Utc>::MAX_UTC)
}

/// The gate of picture `p` at `now`. `photographs` are the times at which pictures of it were taken;
/// `plan` says when the coats below that are still to come would be laid.
pub fn gate(
    document: &StudioDocument,
    p: usize,
    (plan, photographs): (&Plan, &[DateTime<Utc>]),
    now: DateTime<Utc>,
) -> Gate {
    let picture = &document.pictures[p];
    let next = picture.steps.iter().position(|s| s.kind.seals() && s.laid_at.is_none());
    let Some(i) = next else { return past_the_gate(document, p, plan, now) };
    let taken = taken_places(document, p, plan, now);
    Look { document, picture, p, i, plan, photographs, taken, now }.gate()
}

/// The gate when no sealing coat is to come.
fn past_the_gate(document: &StudioDocument, p: usize, plan: &Plan, now: DateTime<Utc>) -> Gate {
    let picture = &document.pictures[p];
    let sealed = picture.steps.iter().any(|s| s.kind.seals());
    let wrapped = picture.steps.iter().any(|s| s.kind == StepKind::Pack && s.laid_at.is_some());
    let coats: Vec<LaidCoat> = coats_of(document, p, plan);
    let film = laid_film(document, picture, &coats);
    let wrap_from = film.and_then(|f| reaches(document, &f, FilmState::ReadyToWrap));
    let stage = match (sealed, wrapped, wrap_from) {
        (_, true, _) => Stage::Wrapped,
        (false, ..) => Stage::Unplanned,
        (true, false, Some(at)) if at <= now => Stage::ReadyToWrap,
        (true, false, _) => Stage::Curing,
    };
    Gate {
        stage,
        step: None,
        between: false,
        conditions: Vec::new(),
        earliest: None,
        working_min: None,
        touch_dry_min: None,
        wrap_from: wrap_from.filter(|_| sealed),
    }
}

/// The film right after the last of `coats`; `None` without any.
fn laid_film(document: &StudioDocument, picture: &Picture, coats: &[LaidCoat]) -> Option<Film> {
    let first = coats.first()?;
    let size = (picture.absorbs_um * 1e-6, picture.shorter_side_m());
    let mut film = Film::new(size.0, size.1, Grid::PLANNING, first.at);
    for coat in coats {
        film.advance(&document.air, coat.at, None);
        film.lay(coat.wet_m, coat.mix);
    }
    Some(film)
}

/// How long ago a varnish coat may have been laid to be looked at as still wet [days]. [practice]
const WET_DAYS: i64 = 3;

/// Stretches in which pictures other than `p` lie flat with wet varnish, as laid and as planned.
fn taken_places(
    document: &StudioDocument,
    p: usize,
    plan: &Plan,
    now: DateTime<Utc>,
) -> Vec<(DateTime<Utc>, DateTime<Utc>)> {
    let mut found = Vec::new();
    for (q, other) in document.pictures.iter().enumerate().filter(|(q, _)| *q != p) {
        let coats = coats_of(document, q, plan);
        for (n, coat) in coats.iter().enumerate() {
            let past = instant(coat.at) + Duration::days(WET_DAYS) < now;
            if !other.steps[coat.step].kind.seals() || past {
                continue;
            }
            let dry = laid_film(document, other, &coats[..=n])
                .and_then(|film| reaches(document, &film, FilmState::TouchDry));
            found.push((instant(coat.at), dry.unwrap_or(DateTime::<Utc>::MAX_UTC)));
        }
    }
    found
}

fn reaches(document: &StudioDocument, film: &Film, state: FilmState) -> Option<DateTime<Utc>> {
    let mut ahead = film.clone();
    ahead.advance(&document.air, film.time() + HORIZON_S, Some(state));
    ahead.events().at(state).map(instant)
}

/// What is looked at: the next sealing coat `i` of a picture.
struct Look<'a> {
    document: &'a StudioDocument,
    picture: &'a Picture,
    p: usize,
    i: usize,
    plan: &'a Plan,
    photographs: &'a [DateTime<Utc>],
    /// Stretches in which other pictures lie flat with wet varnish.
    taken: Vec<(DateTime<Utc>, DateTime<Utc>)>,
    now: DateTime<Utc>,
}

/// A coat to be laid: how long hands are on it, until it sets and until it is touch-dry [s].
#[derive(Clone, Copy)]
struct Laying {
    hands_on: i64,
    setting: i64,
    touch_dry: i64,
}

impl Look<'_> {
    fn gate(&self) -> Gate {
        // Paint that is still to come below the seal, and everything that is already there.
        let coats: Vec<LaidCoat> = coats_of(self.document, self.p, self.plan)
            .into_iter()
            .filter(|c| {
                let step = &self.picture.steps[c.step];
                step.laid_at.is_some() || (c.step < self.i && !step.kind.seals())
            })
            .collect();
        let film = laid_film(self.document, self.picture, &coats);
        let between = self.last_seal().is_some();
        let mut conditions = vec![self.last_coat(), self.cure(film.as_ref(), between)];
        conditions.push(if between { self.between() } else { self.floor() });
        conditions.extend([self.signature(between), self.photograph(between), self.surface()]);
        conditions.push(self.product());

        // The earliest moment by everything but air, place and hours.
        let timed = conditions.iter().filter(|c| c.closes() && c.standing != Standing::Yours);
        let mut ready = Some(self.now);
        for c in timed {
            ready = ready.zip(c.from).map(|(a, b)| a.max(b));
        }
        let undone = self.picture.steps[..self.i].iter().any(|s| s.laid_at.is_none());
        if undone && let Some(planned) = self.planned_below() {
            ready = ready.map(|at| at.max(planned));
        }
        let film = film.as_ref();
        let (air, laying) = self.air(film, ready);
        conditions.push(air);
        conditions.push(self.flat_place(ready, laying));
        let earliest = ready.zip(laying).and_then(|(at, laying)| self.earliest(film, at, laying));
        let (earliest, laying) = earliest.map_or((None, laying), |(at, l)| (Some(at), Some(l)));
        let open = conditions.iter().all(|c| !c.closes());
        Gate {
            stage: if open { Stage::Open } else { Stage::Closed },
            step: Some(self.i),
            between,
            conditions,
            earliest: earliest.zip(laying).map(|(at, l)| (at, at + Duration::seconds(l.hands_on))),
            working_min: laying.map(|l| l.setting as f64 / 60.0),
            touch_dry_min: laying.map(|l| l.touch_dry as f64 / 60.0),
            wrap_from: None,
        }
    }

    fn step(&self) -> &Step {
        &self.picture.steps[self.i]
    }

    fn laid(&self) -> impl Iterator<Item = (&Step, DateTime<Utc>)> {
        self.picture.steps.iter().filter_map(|s| s.laid_at.map(|at| (s, at)))
    }

    /// The latest sealing coat that is on.
    fn last_seal(&self) -> Option<(&Step, DateTime<Utc>)> {
        self.laid().filter(|(s, _)| s.kind.seals()).max_by_key(|(_, at)| *at)
    }

    fn first_seal(&self) -> Option<DateTime<Utc>> {
        self.laid().filter(|(s, _)| s.kind.seals()).map(|(_, at)| at).min()
    }

    /// When the last painted coat was laid.
    fn last_painted(&self) -> Option<DateTime<Utc>> {
        self.laid().filter(|(s, _)| s.kind.leaves_film() && !s.kind.seals()).map(|(_, at)| at).max()
    }

    /// When the plan has everything below the seal done.
    fn planned_below(&self) -> Option<DateTime<Utc>> {
        let mine = |s: &&crate::planner::PlannedStep| s.picture == self.p && s.step < self.i;
        self.plan.steps.iter().filter(mine).filter_map(|s| s.sittings.last()).map(|s| s.to).max()
    }

    fn planned_end(&self, step: usize) -> Option<DateTime<Utc>> {
        let mine = |s: &&crate::planner::PlannedStep| s.picture == self.p && s.step == step;
        self.plan.steps.iter().find(mine)?.sittings.last().map(|s| s.to)
    }

    fn last_coat(&self) -> Condition {
        let films = || {
            self.picture.steps[..self.i].iter().enumerate().filter(|(_, s)| {
                s.kind.leaves_film() && (s.kind.must_leave_film() || s.wet_film_um.is_some())
            })
        };
        let open: Vec<usize> =
            films().filter(|(_, s)| s.laid_at.is_none()).map(|(n, _)| n).collect();
        let all = films().count();
        let id = ConditionId::LastCoat;
        match open.last() {
            None => Condition {
                id,
                standing: Standing::Holds,
                evidence: format!("{all} of {all} coats below it are laid."),
                from: self.laid().filter(|(s, _)| s.kind.leaves_film()).map(|(_, at)| at).max(),
            },
            Some(last) => Condition {
                id,
                standing: Standing::Yours,
                evidence: format!(
                    "{} of {all} coats below it are laid; the last is {}.",
                    all - open.len(),
                    self.picture.steps[*last].title()
                ),
                from: self.planned_end(*last),
            },
        }
    }

    fn timed(&self, id: ConditionId, from: Option<DateTime<Utc>>, evidence: String) -> Condition {
        let standing = match from {
            Some(at) if at <= self.now => Standing::Holds,
            Some(_) => Standing::Waits,
            None => Standing::Against,
        };
        Condition { id, standing, evidence, from }
    }

    fn cure(&self, film: Option<&Film>, between: bool) -> Condition {
        let id = ConditionId::Cure;
        let Some(film) = film else {
            let evidence = "No coat is laid or planned below it.".into();
            return Condition { id, standing: Standing::Against, evidence, from: None };
        };
        let need = self.picture.needs(self.i);
        let coats = film.stack().coats();
        let Some(state) = need.state() else {
            return self.timed(id, Some(self.now), "The plan asks nothing of the film.".into());
        };
        let from = reaches(self.document, film, state);
        let said = match need {
            _ if between => format!(
                "Computed from {coats} coats as laid: the coat below must be {}.",
                need_said(need)
            ),
            Need::ReadyToSeal => format!(
                "Computed from {coats} coats as laid: dry right through, and at most 2 % of slow \
                 solvent left in it."
            ),
            _ => format!(
                "Computed from {coats} coats as laid; the plan asks only that it is {}.",
                need_said(need)
            ),
        };
        let said = match from {
            Some(_) => said,
            None => format!("{said} In this room it does not get there within 400 days."),
        };
        self.timed(id, from, said)
    }

    fn floor(&self) -> Condition {
        let below = &self.picture.steps[..self.i];
        let slowed = below.iter().map(|s| self.document.slowed_by(s)).max().unwrap_or_default();
        let school = self.document.schools.waiting;
        let floor = school.floor(slowed);
        let word = match school {
            Waiting::Brisk => "brisk",
            Waiting::Standard => "standard",
            Waiting::Patient => "patient",
        };
        let why = match slowed {
            Slowed::No => "",
            Slowed::Retarder => ", longer because retarder is in the stack",
            Slowed::SlowPaint => ", longer because slow-drying paint is in the stack",
        };
        let days = floor.num_days();
        let plural = if days == 1 { "" } else { "s" };
        let said = format!(
            "The {word} school waits {days} day{plural} after the last paint{why}. [practice]"
        );
        let undone = self.planned_paint();
        let last = self.last_painted().max(undone);
        self.timed(ConditionId::Floor, last.map(|at| at + floor), said)
    }

    /// When the plan lays the last paint below the seal, if any is to come.
    fn planned_paint(&self) -> Option<DateTime<Utc>> {
        (0..self.i)
            .filter(|n| {
                let s = &self.picture.steps[*n];
                s.laid_at.is_none() && s.kind.leaves_film() && !s.kind.seals()
            })
            .filter_map(|n| self.planned_end(n))
            .max()
    }

    fn between(&self) -> Condition {
        let id = ConditionId::Between;
        let Some((below, laid)) = self.last_seal() else {
            return self.timed(id, Some(self.now), String::new());
        };
        let school = between_varnish(self.document, laid);
        let said = match self.document.schools.waiting {
            Waiting::Brisk => "An hour at least after the coat below. [practice]",
            _ => "The day after the coat below; an hour is the least. [practice]",
        };
        let gap = self.step().earliest_gap_min.map(|min| laid + minutes(min));
        let solvent = |s: &Step| self.document.holds(s, &MaterialKind::SolventVarnish);
        if solvent(self.step()) && !solvent(below) {
            let days = SOLVENT_GAP.num_days();
            let said = format!(
                "Solvent varnish over a water-borne coat: {days} to {} days between. [practice]",
                days + 1
            );
            return self.timed(id, Some(school.max(laid + SOLVENT_GAP)).max(gap), said);
        }
        self.timed(id, Some(school).max(gap), said.into())
    }

    fn signature(&self, between: bool) -> Condition {
        let id = ConditionId::Signature;
        let mut signed = self.picture.steps[..self.i]
            .iter()
            .enumerate()
            .filter(|(_, s)| s.kind == StepKind::Signature);
        let Some((n, step)) = signed.next_back() else {
            let evidence = if between {
                "No signature is planned on the face; it would go on the back now."
            } else {
                "No signature is planned on the face: once it is sealed it is too late for one."
            };
            return Condition {
                id,
                standing: Standing::Holds,
                evidence: evidence.into(),
                from: None,
            };
        };
        let (standing, evidence) = match step.laid_at {
            Some(_) => (Standing::Holds, "Logged."),
            None if between => (Standing::Missed, "The gate closed before it was signed."),
            None => (Standing::Yours, "Sign it before the first sealing coat."),
        };
        let from = step.laid_at.or_else(|| self.planned_end(n));
        Condition { id, standing, evidence: evidence.into(), from }
    }

    fn photograph(&self, between: bool) -> Condition {
        let id = ConditionId::Photograph;
        let after = self.last_painted();
        let until = self.first_seal().unwrap_or(self.now);
        let fits = |at: &DateTime<Utc>| after.is_none_or(|a| *at >= a) && *at <= until;
        let kept = self.photographs.iter().copied().filter(fits).max();
        let logged = self
            .laid()
            .filter(|(s, at)| s.kind == StepKind::Photograph && fits(at))
            .map(|(_, at)| at)
            .max();
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

    fn surface(&self) -> Condition {
        let id = ConditionId::Surface;
        let last = self.laid().filter(|(s, _)| s.kind.leaves_film()).map(|(_, at)| at).max();
        let seen = self.picture.seal.inspected_at;
        let seen = seen.filter(|at| *at <= self.now && last.is_none_or(|l| *at >= l));
        match seen {
            Some(at) => Condition {
                id,
                standing: Standing::Holds,
                evidence: "Dusted and looked over since the last coat.".into(),
                from: Some(at),
            },
            None => Condition {
                id,
                standing: Standing::Yours,
                evidence:
                    "Take dust off with a soft dry brush, look along it in raking light, and \
                           say so here."
                        .into(),
                from: None,
            },
        }
    }

    fn product(&self) -> Condition {
        let step = self.step();
        let holds = |kind| self.document.holds(step, &kind);
        let solvent = holds(MaterialKind::SolventVarnish);
        let water = holds(MaterialKind::Varnish);
        let below = self.last_seal();
        let solvent_below =
            below.is_some_and(|(s, _)| self.document.holds(s, &MaterialKind::SolventVarnish));
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

    /// How the coat would behave, laid at `at` over the film.
    fn laying(&self, film: Option<&Film>, at: DateTime<Utc>) -> Option<Laying> {
        let step = self.step();
        let (um, mix) = self.document.coat(step).ok()??;
        let mut film = film.cloned().unwrap_or_else(|| {
            let size = (self.picture.absorbs_um * 1e-6, self.picture.shorter_side_m());
            Film::new(size.0, size.1, Grid::PLANNING, seconds(at))
        });
        let at = film.time().max(seconds(at));
        film.advance(&self.document.air, at, None);
        film.lay(um * 1e-6, mix);
        film.advance(&self.document.air, at + HORIZON_S, Some(FilmState::TouchDry));
        let after = |state| film.events().at(state).map(|t| (t - at).ceil() as i64);
        Some(Laying {
            hands_on: (step.hands_on_min * 60.0).round() as i64,
            setting: after(FilmState::Setting)?,
            touch_dry: after(FilmState::TouchDry)?,
        })
    }

    /// From the first stroke at `at` until nothing can fall into it any more [s].
    fn span(at: DateTime<Utc>, laying: Laying) -> (f64, f64) {
        let wet = laying.hands_on.max(laying.setting) + laying.touch_dry + MARGIN_MIN * 60;
        (seconds(at), seconds(at) + wet as f64)
    }

    fn air(
        &self,
        film: Option<&Film>,
        ready: Option<DateTime<Utc>>,
    ) -> (Condition, Option<Laying>) {
        let id = ConditionId::Air;
        let at = ready.unwrap_or(self.now).max(self.now);
        let Some(laying) = self.laying(film, at) else {
            let evidence = "What is in the cup gives no film that dries.".into();
            return (Condition { id, standing: Standing::Against, evidence, from: None }, None);
        };
        let air = self.document.air.at(seconds(at));
        let minutes = (Self::span(at, laying).1 - seconds(at)) / 60.0;
        let range = format!(
            "18-24 °C and 30-65 % for the {minutes:.0} minutes until it is touch-dry. [memory]"
        );
        let condition = match first_fault(&self.document.air, Self::span(at, laying)) {
            None => {
                let evidence = format!(
                    "{:.0} °C and {:.0} %; wanted are {range}",
                    air.celsius,
                    air.humidity * 100.0
                );
                let standing = Standing::Holds;
                Condition { id, standing, evidence, from: Some(at) }
            }
            Some((_, fault)) => {
                let from = self.fit_from(at, laying);
                let evidence = format!("{fault}; wanted are {range}");
                let standing = if from.is_some() { Standing::Waits } else { Standing::Against };
                Condition { id, standing, evidence, from }
            }
        };
        (condition, Some(laying))
    }

    /// The first moment from `at` on at which the air is fit for the whole span.
    fn fit_from(&self, at: DateTime<Utc>, laying: Laying) -> Option<DateTime<Utc>> {
        let air = &self.document.air;
        let mut t = seconds(at);
        loop {
            match first_fault(air, Self::span(instant(t), laying)) {
                None => return Some(instant(t)),
                Some((fault_at, _)) => t = air.next_change(fault_at)?,
            }
        }
    }

    fn flat_place(&self, ready: Option<DateTime<Utc>>, laying: Option<Laying>) -> Condition {
        let id = ConditionId::FlatPlace;
        let all = self.document.flat_places as usize;
        if all == 0 {
            let evidence = "The studio has no place where wet work can lie flat.".into();
            return Condition { id, standing: Standing::Against, evidence, from: None };
        }
        let at = ready.unwrap_or(self.now).max(self.now);
        let held = self.taken.iter().filter(|(a, b)| *a <= at && at < *b).count();
        let when = if at > self.now { "then" } else { "now" };
        let evidence = format!("{held} of {all} places hold wet varnish {when}.");
        let from = self.free_from(at, laying);
        let standing = match from {
            Some(free) if free == at => Standing::Holds,
            Some(_) => Standing::Waits,
            None => Standing::Against,
        };
        Condition { id, standing, evidence, from }
    }

    /// The first moment from `at` on at which a place is free for the whole span.
    fn free_from(&self, at: DateTime<Utc>, laying: Option<Laying>) -> Option<DateTime<Utc>> {
        let all = self.document.flat_places as usize;
        let mut at = at;
        loop {
            let until = laying.map_or(at, |l| instant(Self::span(at, l).1));
            // Most places taken at once within the span: counted where one begins to be.
            let overlap: Vec<_> =
                self.taken.iter().filter(|(a, b)| *a < until && *b > at).collect();
            let starts = overlap.iter().map(|(a, _)| (*a).max(at));
            let most = starts
                .map(|s| overlap.iter().filter(|(a, b)| *a <= s && s < *b).count())
                .max()
                .unwrap_or(0);
            if most < all {
                return Some(at);
            }
            at = overlap.iter().map(|(_, b)| *b).min().filter(|b| *b < DateTime::<Utc>::MAX_UTC)?;
        }
    }

    /// The first moment from `ready` on, within the studio's hours, at which air and place hold.
    fn earliest(
        &self,
        film: Option<&Film>,
        ready: DateTime<Utc>,
        laying: Laying,
    ) -> Option<(DateTime<Utc>, Laying)> {
        let ready = ready.max(self.now);
        let until = ready + Duration::days(LOOK_AHEAD_DAYS);
        let sessions = self.document.hours.sessions(self.now, until);
        let set_up = minutes(self.document.setup_min);
        let mut laying = laying;
        let mut found = None;
        for _ in 0..ROUNDS {
            let work = Duration::seconds(laying.hands_on);
            found = sessions.iter().find_map(|s| {
                let mut at = ready.max(s.from + set_up);
                loop {
                    if at + work > s.to {
                        return None;
                    }
                    let fit = self.fit_from(at, laying)?;
                    let free = self.free_from(fit, Some(laying))?;
                    if free == at {
                        return Some(at);
                    }
                    at = free;
                }
            });
            let Some(at) = found else { break };
            let Some(then) = self.laying(film, at) else { break };
            if then.touch_dry <= laying.touch_dry {
                return Some((at, then));
            }
            // It dries more slowly there than was taken: look again with that.
            laying = then;
        }
        found.map(|at| (at, laying))
    }
}

fn minutes(min: f64) -> Duration {
    Duration::seconds((min * 60.0).round() as i64)
}

const fn need_said(need: Need) -> &'static str {
    match need {
        Need::Nothing => "there",
        Need::TouchDry => "touch-dry",
        Need::Paintable => "safe to coat",
        Need::DryThrough => "dry right through",
        Need::ReadyToSeal => "ready to seal",
        Need::ReadyToWrap => "ready to wrap",
    }
}
