//! Searches that run beside the requests: one for each studio, to be watched and stopped. They live
//! in memory: a reload of the page finds them again, a restart of the application does not.

use crate::routes::season_wire::SearchOut;
use std::collections::HashMap;
use std::sync::atomic::{AtomicBool, Ordering};
use std::sync::{Arc, Mutex, PoisonError};
use tokio::sync::watch;
use uuid::Uuid;

/// One search.
#[derive(Clone)]
struct Search {
    state: watch::Receiver<SearchOut>,
    stop: Arc<AtomicBool>,
}

/// The searches of all studios; cheap to clone.
#[derive(Clone, Default)]
pub struct Searches {
    known: Arc<Mutex<HashMap<Uuid, Search>>>,
}

/// What a running search reports to and asks.
pub struct Reporter {
    /// Where it says how far it is.
    pub state: watch::Sender<SearchOut>,
    stop: Arc<AtomicBool>,
}

impl Reporter {
    /// Whether somebody asked it to stop.
    pub fn is_stopped(&self) -> bool {
        self.stop.load(Ordering::Relaxed)
    }
}

impl Drop for Reporter {
    /// However it ended, nobody waits for it any longer.
    fn drop(&mut self) {
        self.state.send_modify(|s| s.running = false);
    }
}

impl Searches {
    /// Begins a search for `studio`; `None` when one is running.
    pub fn begin(&self, studio: Uuid, first: SearchOut) -> Option<Reporter> {
        let mut known = self.known.lock().unwrap_or_else(PoisonError::into_inner);
        if known.get(&studio).is_some_and(|s| s.state.borrow().running) {
            return None;
        }
        let (sender, state) = watch::channel(first);
        let stop = Arc::new(AtomicBool::new(false));
        known.insert(studio, Search { state, stop: stop.clone() });
        Some(Reporter { state: sender, stop })
    }

    /// The search of `studio`, running or ended.
    pub fn of(&self, studio: Uuid) -> Option<watch::Receiver<SearchOut>> {
        let known = self.known.lock().unwrap_or_else(PoisonError::into_inner);
        known.get(&studio).map(|s| s.state.clone())
    }

    /// Asks the search of `studio` to stop; forgets it when it has ended already.
    pub fn stop(&self, studio: Uuid) {
        let mut known = self.known.lock().unwrap_or_else(PoisonError::into_inner);
        let running = known.get(&studio).is_some_and(|s| {
            s.stop.store(true, Ordering::Relaxed);
            s.state.borrow().running
        });
        if !running {
            known.remove(&studio);
        }
    }

    /// Asks every search to stop: the application ends.
    pub fn stop_all(&self) {
        let known = self.known.lock().unwrap_or_else(PoisonError::into_inner);
        for search in known.values() {
            search.stop.store(true, Ordering::Relaxed);
        }
    }
}
