//! The one place that computes.
//!
//! A question is known by the studio, what the studio is made of, the minute, and its words. Who asks
//! the same thing while it is computed waits for the same answer; what was answered is kept, within
//! bounds. About as many computations run as there are cores, long ones never take all of them,
//! studios take turns, and what nobody waits for any more is given up.

mod key;
mod queue;

pub use key::{Key, Named};

use crate::leaving::unless_left;
use crate::problem::Problem;
use moka::policy::EvictionPolicy;
use queue::{Asker, Queue};
use std::any::Any;
use std::sync::Arc;
use std::sync::atomic::{AtomicU64, Ordering};
use std::time::Duration;

/// Answers kept [bytes]. [practice] ten views of a studio of 300 pictures, hundreds of a usual one
const KEPT_BYTES: u64 = 32 * 1024 * 1024;
/// What one of them takes besides its own bytes: key, table, counts [bytes]. [practice]
const EACH_BYTES: u32 = 256;
/// How long an answer that is not asked for is kept [s]. [practice]
const KEPT_S: u64 = 600;
/// How long a long computation goes on after the last one who asked has gone, so that they can ask
/// how far it is [s]. [practice]
const GRACE_S: u64 = 3;

/// How long a computation may take, and so how many of them run at once.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Lane {
    /// What a hand waits for that turns something: milliseconds.
    Quick,
    /// What a view waits for; one at a time for each studio, which shares what was computed before.
    View,
    /// Futures and ways, which take seconds.
    Long,
}

/// How far a long computation is; cheap to clone.
#[derive(Debug, Clone, Default)]
pub struct Progress(Arc<(AtomicU64, AtomicU64)>);

impl Progress {
    /// Says that `done` of `of` parts are done.
    pub fn tell(&self, done: u64, of: u64) {
        self.0.0.store(done, Ordering::Relaxed);
        self.0.1.store(of, Ordering::Relaxed);
    }

    /// Says that one more of `of` parts is done.
    pub fn one_more(&self, of: u64) {
        self.0.0.fetch_add(1, Ordering::Relaxed);
        self.0.1.store(of, Ordering::Relaxed);
    }

    /// Parts done, and parts in all; 0 before that is known.
    pub fn of(&self) -> (u64, u64) {
        (self.0.0.load(Ordering::Relaxed), self.0.1.load(Ordering::Relaxed))
    }
}

/// An answer, kept as it is sent.
pub type Kept = Arc<dyn Any + Send + Sync>;

/// Computes, for everybody; cheap to clone.
#[derive(Clone)]
pub struct Computer {
    queue: Arc<Queue>,
    kept: moka::sync::Cache<Key, (u32, Kept)>,
}

impl Default for Computer {
    fn default() -> Self {
        let threads = ulvek_core::planner::threads();
        Self {
            queue: Arc::new(Queue::new(threads)),
            kept: moka::sync::Cache::builder()
                .max_capacity(KEPT_BYTES)
                .eviction_policy(EvictionPolicy::lru())
                .weigher(|_, (bytes, _): &(u32, Kept)| bytes.saturating_add(EACH_BYTES))
                .time_to_idle(Duration::from_secs(KEPT_S))
                .build(),
        }
    }
}

/// What became of a question within the time that one wanted to wait.
pub enum Answer<T> {
    /// The answer.
    Ready(Arc<T>),
    /// It is still computed.
    Going(Progress),
}

impl Computer {
    /// The answer to `key`, kept, joined or computed by `work`, which says how many bytes it takes: what takes
    /// none (a refusal) is told to those who wait and not kept.
    ///
    /// # Errors
    /// A problem: busy, or a fault of the computation.
    pub async fn ask<T: Send + Sync + 'static>(
        &self,
        key: Named,
        lane: Lane,
        work: impl FnOnce() -> (u32, T) + Send + 'static,
    ) -> Result<Arc<T>, Problem> {
        match self.begin(key, lane, |_| work())? {
            Begun::Kept(known) => Ok(known),
            Begun::Going(asker) => known(unless_left(asker.answer()).await??),
        }
    }

    /// Whether the answer to `key` is kept or being computed.
    pub fn knows(&self, key: &Key) -> bool {
        self.kept.contains_key(key) || self.queue.goes(key)
    }

    /// As [`ask`](Self::ask), but after `patience` it says how far it is; asking again goes on.
    ///
    /// # Errors
    /// As there.
    pub async fn ask_within<T: Send + Sync + 'static>(
        &self,
        patience: Duration,
        key: Named,
        work: impl FnOnce(&Progress) -> (u32, T) + Send + 'static,
    ) -> Result<Answer<T>, Problem> {
        let asker = match self.begin(key, Lane::Long, work)? {
            Begun::Kept(known) => return Ok(Answer::Ready(known)),
            Begun::Going(asker) => asker,
        };
        match unless_left(tokio::time::timeout(patience, asker.answer())).await? {
            Ok(answer) => Ok(Answer::Ready(known(answer?)?)),
            Err(_) => {
                let progress = asker.progress();
                asker.leave_after(Duration::from_secs(GRACE_S));
                Ok(Answer::Going(progress))
            }
        }
    }

    /// As [`ask_within`](Self::ask_within), but what was begun is carried out when nobody waits any more: whoever
    /// looks next finds what it left.
    ///
    /// # Errors
    /// As there.
    pub async fn ask_or_leave<T: Send + Sync + 'static>(
        &self,
        patience: Duration,
        (key, lane): (Named, Lane),
        work: impl FnOnce(&Progress) -> (u32, T) + Send + 'static,
    ) -> Result<Answer<T>, Problem> {
        let asker = match self.begin(key, lane, work)? {
            Begun::Kept(known) => return Ok(Answer::Ready(known)),
            Begun::Going(asker) => asker,
        };
        match tokio::time::timeout(patience, asker.answer()).await {
            Ok(answer) => Ok(Answer::Ready(known(answer?)?)),
            Err(_) => {
                let progress = asker.progress();
                tokio::spawn(async move { asker.answer().await.map(|_| ()) });
                Ok(Answer::Going(progress))
            }
        }
    }

    fn begin<T: Send + Sync + 'static>(
        &self,
        key: Named,
        lane: Lane,
        work: impl FnOnce(&Progress) -> (u32, T) + Send + 'static,
    ) -> Result<Begun<T>, Problem> {
        if let Some((_, kept)) = self.kept.get(&key.key) {
            return Ok(Begun::Kept(known(kept)?));
        }
        let (keep, under) = (self.kept.clone(), key.key.clone());
        let run = move |progress: &Progress| -> Kept {
            let (bytes, answer) = work(progress);
            let answer: Kept = Arc::new(answer);
            if bytes > 0 {
                keep.insert(under, (bytes, answer.clone()));
            }
            answer
        };
        let asker = Queue::ask(&self.queue, key, lane, Box::new(run))?;
        Ok(Begun::Going(asker))
    }

    /// Gives everything up: the application ends.
    pub fn end(&self) {
        self.queue.end();
    }
}

enum Begun<T> {
    Kept(Arc<T>),
    Going(Asker),
}

fn known<T: Send + Sync + 'static>(kept: Kept) -> Result<Arc<T>, Problem> {
    kept.downcast().map_err(|_| {
        tracing::error!("one question had answers of two kinds");
        Problem::internal()
    })
}

#[cfg(test)]
mod tests;
