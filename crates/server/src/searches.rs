//! Searches that run beside the requests: one for each studio, to be watched and stopped. They live
//! in memory: a reload of the page finds them again, a restart of the application does not.

use crate::problem::Problem;
use crate::routes::season::wire::SearchOut;
use std::collections::{HashMap, HashSet};
use std::sync::{Arc, Mutex, MutexGuard, PoisonError};
use tokio::sync::watch;
use ulvek_core::cancel::Cancel;
use uuid::Uuid;

/// Searches that run at once. [practice] each takes all cores but one, up to four
const MOST_RUNNING: usize = 2;

/// One search.
#[derive(Clone)]
struct Search {
    state: watch::Receiver<SearchOut>,
    cancel: Cancel,
}

#[derive(Default)]
struct Known {
    searches: HashMap<Uuid, Search>,
    /// Studios whose search is about to begin or runs.
    taken: HashSet<Uuid>,
}

/// The searches of all studios; cheap to clone.
#[derive(Clone, Default)]
pub struct Searches {
    known: Arc<Mutex<Known>>,
}

/// A place for a search of one studio, free again when it is dropped.
pub struct Place {
    searches: Searches,
    studio: Uuid,
}

/// What a running search reports to and asks.
pub struct Reporter {
    /// Where it says how far it is.
    pub state: watch::Sender<SearchOut>,
    /// Raised when somebody asked it to stop.
    pub cancel: Cancel,
    _place: Place,
}

impl Drop for Reporter {
    /// However it ended, nobody waits for it any longer.
    fn drop(&mut self) {
        self.state.send_modify(|s| s.running = false);
    }
}

impl Drop for Place {
    fn drop(&mut self) {
        self.searches.known().taken.remove(&self.studio);
    }
}

impl Place {
    /// Begins the search.
    pub fn begin(self, first: SearchOut) -> Reporter {
        let (sender, state) = watch::channel(first);
        let cancel = Cancel::default();
        let search = Search { state, cancel: cancel.clone() };
        self.searches.known().searches.insert(self.studio, search);
        Reporter { state: sender, cancel, _place: self }
    }
}

impl Searches {
    fn known(&self) -> MutexGuard<'_, Known> {
        self.known.lock().unwrap_or_else(PoisonError::into_inner)
    }

    /// A place for a search of `studio`.
    ///
    /// # Errors
    /// A conflict when one is running there, or as many as may run at once elsewhere.
    pub fn place(&self, studio: Uuid) -> Result<Place, Problem> {
        let mut known = self.known();
        if known.taken.contains(&studio) {
            let said = "A search is running already; stop it first.";
            return Err(Problem::search_running(said));
        }
        if known.taken.len() >= MOST_RUNNING {
            return Err(Problem::busy());
        }
        known.taken.insert(studio);
        drop(known);
        Ok(Place { searches: self.clone(), studio })
    }

    /// The search of `studio`, running or ended.
    pub fn of(&self, studio: Uuid) -> Option<watch::Receiver<SearchOut>> {
        self.known().searches.get(&studio).map(|s| s.state.clone())
    }

    /// Asks the search of `studio` to stop; forgets it when it has ended already.
    pub fn stop(&self, studio: Uuid) {
        let mut known = self.known();
        let running = known.searches.get(&studio).is_some_and(|s| {
            s.cancel.cancel();
            s.state.borrow().running
        });
        if !running {
            known.searches.remove(&studio);
        }
    }

    /// Asks every search to stop: the application ends.
    pub fn stop_all(&self) {
        for search in self.known().searches.values() {
            search.cancel.cancel();
        }
    }
}
