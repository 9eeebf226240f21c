//! The films of all pictures as trees: each bed is what a picture becomes by one more step done at some time, and
//! what was followed once serves every plan that does the same at the same times.

use super::parallel::in_parallel;
use super::problem::{Known, Problem};
use crate::film::{FilmState, Grid};
use crate::picture::CoatFault;
use crate::readiness::{Bed, Blocked, FOREVER, NotReady, Ready, Stretch, history};
use crate::studio::Studio;
use crate::time::{whole_instant, whole_seconds};
use chrono::{DateTime, Utc};
use std::collections::HashMap;
use std::sync::Arc;

/// Most beds kept; then all but the beginnings are forgotten. About 15 kB each. [practice]
const MOST_BEDS: usize = 8_000;

pub(super) type BedId = u32;

/// A picture as it is, with the stretch in which it lies flat with wet varnish.
type Begun = Result<(Bed, Option<Stretch>), CoatFault>;

/// A bed, and from when it is ready for steps that were asked for.
#[derive(Debug, Clone)]
pub(super) struct Node {
    pub bed: Bed,
    pub ready: Vec<(usize, Result<Ready, Blocked>)>,
    /// When it is safe to wrap, once that was asked; nothing when it never is.
    pub wrap: Option<Option<DateTime<Utc>>>,
}

/// Beds by what was done on them, all on one grid; a copy shares them until one of the two learns more of a bed.
#[derive(Debug, Clone)]
pub(super) struct Beds {
    grid: Grid,
    nodes: Vec<Arc<Node>>,
    roots: Vec<Known<BedId>>,
    after: HashMap<(BedId, u32, i64), Known<BedId>>,
    /// Beds that were computed, forgotten ones too.
    pub made: u64,
}

impl Beds {
    /// No picture yet.
    pub fn none(grid: Grid) -> Self {
        let (nodes, roots, after) = (Vec::new(), Vec::new(), HashMap::new());
        Self { grid, nodes, roots, after, made: 0 }
    }

    /// Forgets everything and begins with the pictures as they are, followed on so many `threads`; says for
    /// each from when to when it lies flat with wet varnish.
    pub fn begin(&mut self, studio: &Studio, threads: usize) -> Vec<Option<Stretch>> {
        self.nodes.clear();
        self.after.clear();
        self.roots.clear();
        let grid = self.grid;
        let begun = in_parallel(studio.pictures.len(), threads, |p| Some(begun(studio, p, grid)));
        let rooted = |begun| {
            let (root, held) = self.rooted(begun);
            self.roots.push(root);
            held
        };
        begun.into_iter().map(rooted).collect()
    }

    /// Begins with picture `p` alone; the others are left out.
    pub fn begin_one(&mut self, studio: &Studio, p: usize) -> Vec<Option<Stretch>> {
        self.roots = vec![Err((0, Blocked::Below)); studio.pictures.len()];
        let mut held = vec![None; studio.pictures.len()];
        held[p] = self.begin_again(studio, p);
        held
    }

    /// Makes room for `pictures`: those that come are begun by [`Self::begin_again`].
    pub fn make_room(&mut self, pictures: usize) {
        self.roots.resize(pictures, Err((0, Blocked::Below)));
    }

    /// Begins anew with picture `p`, which changed.
    pub fn begin_again(&mut self, studio: &Studio, p: usize) -> Option<Stretch> {
        let (root, held) = self.rooted(begun(studio, p, self.grid));
        self.roots[p] = root;
        held
    }

    fn rooted(&mut self, begun: Begun) -> (Known<BedId>, Option<Stretch>) {
        match begun {
            Ok((bed, held)) => (Ok(self.keep(bed)), held),
            Err(fault) => (Err(cannot(fault)), None),
        }
    }

    fn keep(&mut self, bed: Bed) -> BedId {
        self.made += 1;
        self.put(Arc::new(Node { bed, ready: Vec::new(), wrap: None }))
    }

    /// Whether there are more than should be kept.
    pub const fn is_full(&self) -> bool {
        self.nodes.len() > MOST_BEDS
    }

    /// How many there are.
    pub const fn count(&self) -> usize {
        self.nodes.len()
    }

    /// Forgets all but the beginnings and what follows on them as `planned` says (end and step, in order, by picture).
    /// No id from before holds after.
    pub fn keep_along(&mut self, planned: impl Fn(usize) -> Vec<(DateTime<Utc>, usize)>) {
        let mut old: Vec<Option<Arc<Node>>> =
            std::mem::take(&mut self.nodes).into_iter().map(Some).collect();
        let after = std::mem::take(&mut self.after);
        for p in 0..self.roots.len() {
            let Ok(mut was) = self.roots[p] else { continue };
            let Some(root) = old[was as usize].take() else { continue };
            let mut is = self.put(root);
            self.roots[p] = Ok(is);
            for (end, i) in planned(p) {
                let done = (i as u32, whole_seconds(end));
                let Some(Ok(next)) = after.get(&(was, done.0, done.1)) else { break };
                let Some(node) = old[*next as usize].take() else { break };
                let kept = self.put(node);
                self.after.insert((is, done.0, done.1), Ok(kept));
                (was, is) = (*next, kept);
            }
        }
    }

    fn put(&mut self, node: Arc<Node>) -> BedId {
        self.nodes.push(node);
        (self.nodes.len() - 1) as BedId
    }

    /// For how many pictures it has a beginning.
    pub const fn pictures(&self) -> usize {
        self.roots.len()
    }

    /// Picture `p` as it is.
    pub fn root(&self, p: usize) -> Known<BedId> {
        self.roots[p].clone()
    }

    /// A bed with what is known of it.
    pub fn node(&self, bed: BedId) -> &Node {
        &self.nodes[bed as usize]
    }

    /// The same, to learn more of it.
    pub fn node_mut(&mut self, bed: BedId) -> &mut Node {
        Arc::make_mut(&mut self.nodes[bed as usize])
    }

    pub fn bed(&self, bed: BedId) -> &Bed {
        &self.node(bed).bed
    }

    /// What `bed` becomes when step `i` is done on it at `end` [s of the epoch].
    pub fn follow(
        &mut self,
        problem: &Problem<'_>,
        bed: BedId,
        (i, end): (usize, i64),
    ) -> Known<BedId> {
        let key = (bed, i as u32, end);
        if let Some(known) = self.after.get(&key) {
            return known.clone();
        }
        let mut next = self.bed(bed).clone();
        let made = next.finish(problem.studio, i, whole_instant(end));
        let made = made.map(|()| self.keep(next)).map_err(cannot);
        self.after.insert(key, made.clone());
        made
    }

    /// The beds of picture `p` as it is now and after each of `planned` (end and step, in order), as far as
    /// they were followed.
    pub fn along(&self, p: usize, planned: &[(DateTime<Utc>, usize)]) -> Vec<&Bed> {
        let Some(Ok(mut at)) = self.roots.get(p).cloned() else { return Vec::new() };
        let mut beds = vec![self.bed(at)];
        for (end, i) in planned {
            let Some(Ok(next)) = self.after.get(&(at, *i as u32, whole_seconds(*end))) else {
                break;
            };
            at = *next;
            beds.push(self.bed(at));
        }
        beds
    }

    /// The bed of picture `p` after all of `planned` (end and step, in order); what was followed is not
    /// followed again.
    ///
    /// # Errors
    /// [`CoatFault`] when a coat cannot be computed.
    pub fn bed_after(
        &self,
        studio: &Studio,
        p: usize,
        planned: &[(DateTime<Utc>, usize)],
    ) -> Result<Bed, CoatFault> {
        let beds = self.along(p, planned);
        let Some(last) = beds.last() else {
            let all = history(&studio.pictures[p], planned.iter().copied());
            return Bed::after(studio, p, self.grid, &all);
        };
        let mut bed = (*last).clone();
        for (at, i) in &planned[beds.len() - 1..] {
            bed.finish(studio, *i, *at)?;
        }
        Ok(bed)
    }
}

/// Picture `p` as it is, and how long it lies flat with wet varnish.
fn begun(studio: &Studio, p: usize, grid: Grid) -> Begun {
    let mut bed = Bed::new(studio, p, grid)?;
    let sealed = |i: &usize| studio.pictures[p].steps[*i].kind.seals();
    let Some(top) = bed.done.last_coat().filter(sealed) else { return Ok((bed, None)) };
    let dry = bed.reaches(studio, FilmState::TouchDry)?.map_or(FOREVER, whole_seconds);
    let held = bed.done.end_of(top).map(|laid| (whole_seconds(laid), dry));
    Ok((bed, held))
}

/// A coat that cannot be computed holds its picture up, and says why.
pub(super) fn cannot(fault: CoatFault) -> (usize, Blocked) {
    (fault.step, Blocked::Coat(fault.why.to_string()))
}

/// A film that is not ready holds its picture up, and says why.
pub(super) fn not_ready(why: NotReady) -> Blocked {
    match why {
        NotReady::Never(need) => Blocked::NeverReady(need),
        NotReady::Fault(fault) => cannot(fault).1,
    }
}
