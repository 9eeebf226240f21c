//! Whose turn it is to be computed.

use super::{Kept, Key, Lane, Named, Problem, Progress};
use std::collections::{HashMap, HashSet, VecDeque};
use std::sync::{Arc, Mutex, MutexGuard, PoisonError};
use std::time::Duration;
use tokio::sync::watch;
use ulvek_core::cancel::Cancel;
use uuid::Uuid;

/// Computations of one studio that may wait. [practice] all its views on several screens
const MOST_OF_STUDIO: usize = 32;
/// Computations that may wait in all. [practice]
const MOST_WAITING: usize = 256;

/// How many times more computations than cores may run, so that every studio has one of its own. [practice]
const BESIDE: usize = 4;

/// What is done: it is told where to say how far it is.
pub(super) type Work = Box<dyn FnOnce(&Progress) -> Kept + Send>;
type Outcome = Option<Result<Kept, Problem>>;

/// One computation that waits or runs.
struct Job {
    id: u64,
    cancel: Cancel,
    askers: usize,
    progress: Progress,
    outcome: watch::Receiver<Outcome>,
}

/// What is needed to run it.
struct Waiting {
    id: u64,
    key: Key,
    name: String,
    lane: Lane,
    cancel: Cancel,
    progress: Progress,
    sender: watch::Sender<Outcome>,
    work: Work,
}

#[derive(Default)]
struct State {
    /// Studios with waiting computations, the next one first.
    turns: VecDeque<Uuid>,
    waiting: HashMap<Uuid, VecDeque<Waiting>>,
    jobs: HashMap<Key, Job>,
    running: usize,
    /// How many of each studio run.
    running_of: HashMap<Uuid, usize>,
    long: usize,
    /// Studios of which a view is computed.
    busy: HashSet<Uuid>,
    last_id: u64,
    ended: bool,
}

/// The computations that wait and run.
pub(super) struct Queue {
    state: Mutex<State>,
    threads: usize,
}

/// Somebody who waits for an answer; going away is what gives a computation up.
pub(super) struct Asker {
    queue: Arc<Queue>,
    id: u64,
    key: Key,
    outcome: watch::Receiver<Outcome>,
    progress: Progress,
}

impl Queue {
    pub(super) fn new(threads: usize) -> Self {
        Self { state: Mutex::default(), threads: threads.max(2) }
    }

    fn state(&self) -> MutexGuard<'_, State> {
        self.state.lock().unwrap_or_else(PoisonError::into_inner)
    }

    /// Whether `key` waits or is computed.
    pub(super) fn goes(&self, key: &Key) -> bool {
        self.state().jobs.get(key).is_some_and(|job| !job.cancel.is_cancelled())
    }

    /// Joins the computation of `key`, or puts `work` into the queue.
    pub(super) fn ask(
        queue: &Arc<Self>,
        Named { key, name }: Named,
        lane: Lane,
        work: Work,
    ) -> Result<Asker, Problem> {
        let mut state = queue.state();
        if state.ended {
            return Err(Problem::busy());
        }
        // One that is being given up gives no answer any more.
        let going = state.jobs.get_mut(&key).filter(|job| !job.cancel.is_cancelled());
        let (id, outcome, progress) = if let Some(job) = going {
            job.askers += 1;
            (job.id, job.outcome.clone(), job.progress.clone())
        } else {
            let of_studio = state.waiting.get(&key.studio).map_or(0, VecDeque::len);
            let all: usize = state.waiting.values().map(VecDeque::len).sum();
            if of_studio >= MOST_OF_STUDIO || all >= MOST_WAITING {
                return Err(Problem::busy());
            }
            let (sender, outcome) = watch::channel(None);
            let (cancel, progress) = (Cancel::default(), Progress::default());
            state.last_id += 1;
            let id = state.last_id;
            let job = Job {
                id,
                cancel: cancel.clone(),
                askers: 1,
                progress: progress.clone(),
                outcome: outcome.clone(),
            };
            state.jobs.insert(key.clone(), job);
            if of_studio == 0 {
                state.turns.push_back(key.studio);
            }
            let waiting = Waiting {
                id,
                key: key.clone(),
                name,
                lane,
                cancel,
                progress: progress.clone(),
                sender,
                work,
            };
            state.waiting.entry(key.studio).or_default().push_back(waiting);
            (id, outcome, progress)
        };
        drop(state);
        queue.go_on();
        Ok(Asker { queue: queue.clone(), id, key, outcome, progress })
    }

    /// Starts what may run now.
    fn go_on(self: &Arc<Self>) {
        let mut state = self.state();
        while let Some(next) = state.take_next(self.threads) {
            let queue = self.clone();
            tokio::task::spawn_blocking(move || queue.run(next));
        }
    }

    fn run(self: Arc<Self>, next: Waiting) {
        let Waiting { id, key, name, lane, cancel, progress, sender, work } = next;
        let done = std::panic::catch_unwind(std::panic::AssertUnwindSafe(|| {
            cancel.unless_cancelled(|| work(&progress))
        }));
        let outcome = match done {
            Ok(Some(kept)) => Ok(kept),
            Ok(None) => Err(Problem::busy()),
            Err(_) => {
                tracing::error!(question = name, "a computation failed");
                Err(Problem::internal())
            }
        };
        let mut state = self.state();
        if state.jobs.get(&key).is_some_and(|job| job.id == id) {
            state.jobs.remove(&key);
        }
        state.running -= 1;
        if let Some(of_studio) = state.running_of.get_mut(&key.studio) {
            *of_studio -= 1;
            if *of_studio == 0 {
                state.running_of.remove(&key.studio);
            }
        }
        match lane {
            Lane::Quick => {}
            Lane::Long => state.long -= 1,
            Lane::View => {
                state.busy.remove(&key.studio);
            }
        }
        drop(state);
        sender.send_replace(Some(outcome));
        self.go_on();
    }

    fn leave(&self, id: u64, key: &Key) {
        let mut state = self.state();
        let mine = state.jobs.get_mut(key).filter(|job| job.id == id);
        let Some(job) = mine else { return };
        job.askers -= 1;
        if job.askers > 0 {
            return;
        }
        job.cancel.cancel();
        // One that waits need not begin; one that runs ends by itself.
        let Some(waiting) = state.waiting.get_mut(&key.studio) else { return };
        let before = waiting.len();
        waiting.retain(|w| w.id != id);
        let (gone, empty) = (waiting.len() < before, waiting.is_empty());
        if empty {
            state.waiting.remove(&key.studio);
            state.turns.retain(|s| *s != key.studio);
        }
        if gone {
            state.jobs.remove(key);
        }
    }

    pub(super) fn end(&self) {
        let mut state = self.state();
        state.ended = true;
        state.waiting.clear();
        state.turns.clear();
        for job in state.jobs.values() {
            job.cancel.cancel();
        }
    }
}

impl State {
    /// The next computation that may run, studio after studio.
    fn take_next(&mut self, threads: usize) -> Option<Waiting> {
        for _ in 0..self.turns.len() {
            let studio = self.turns.pop_front()?;
            let (long_full, busy) = (self.long + 1 >= threads, self.busy.contains(&studio));
            // A studio of which nothing runs need not wait until another one is done, which may take long: they
            // share the cores then.
            let beside = !self.running_of.contains_key(&studio) && self.running < BESIDE * threads;
            let full = self.running >= threads && !beside;
            let crowded = self.running > threads && !beside;
            let fits = |w: &Waiting| match w.lane {
                Lane::Long => !long_full && !full,
                Lane::View => !busy && !full,
                Lane::Quick => !crowded,
            };
            let Some(waiting) = self.waiting.get_mut(&studio) else { continue };
            let next = waiting.iter().position(fits).and_then(|at| waiting.remove(at));
            if waiting.is_empty() {
                self.waiting.remove(&studio);
            } else {
                self.turns.push_back(studio);
            }
            if let Some(next) = next {
                self.running += 1;
                *self.running_of.entry(studio).or_default() += 1;
                match next.lane {
                    Lane::Quick => {}
                    Lane::Long => self.long += 1,
                    Lane::View => {
                        self.busy.insert(studio);
                    }
                }
                return Some(next);
            }
        }
        None
    }
}

impl Asker {
    /// Waits for the answer.
    pub(super) async fn answer(&self) -> Result<Kept, Problem> {
        let mut outcome = self.outcome.clone();
        match outcome.wait_for(Option::is_some).await {
            Ok(outcome) => outcome.clone().unwrap_or_else(|| Err(Problem::internal())),
            // It was given up before it began.
            Err(_) => Err(Problem::busy()),
        }
    }

    /// How far it is.
    pub(super) fn progress(&self) -> Progress {
        self.progress.clone()
    }

    /// Stays a little longer, for whoever asks again.
    pub(super) fn leave_after(self, grace: Duration) {
        tokio::spawn(async move {
            let _ = tokio::time::timeout(grace, self.answer()).await;
            drop(self);
        });
    }
}

impl Drop for Asker {
    fn drop(&mut self) {
        self.queue.leave(self.id, &self.key);
    }
}
