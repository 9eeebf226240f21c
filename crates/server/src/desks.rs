//! Studios that were looked at lately: as they were read, and with what is known of their films.

use crate::problem::Problem;
use chrono::{DateTime, Utc};
use moka::policy::EvictionPolicy;
use moka::sync::{Cache, CacheBuilder};
use std::hash::Hash;
use std::sync::{Arc, Mutex, PoisonError};
use std::time::Duration;
use ulvek_core::learn::{KnownTimes, Learned};
use ulvek_core::planner::Desk;
use ulvek_core::seal::KnownFilms;
use ulvek_core::studio::Studio;
use ulvek_store::{Photograph, StoredStudio, StudioState};
use uuid::Uuid;

/// Studios of which films are kept. About 10 kB for each coat. [practice]
const MOST_DESKS: u64 = 8;
/// Steps of the studios that are kept as they were read, each version by itself. [practice] sixteen of small ones,
/// three of one with 300 pictures
const MOST_LOADED: u64 = 12_000;
/// What a studio counts beside its steps. [practice]
const AT_LEAST: u32 = 750;
/// How long a studio is kept that nobody looks at [s]. [practice]
const KEPT_S: u64 = 1800;

/// A studio as it was read, with when its photographs were taken.
#[derive(Debug)]
pub struct Loaded {
    /// What it is made of.
    pub state: Arc<StudioState>,
    /// The studio.
    pub stored: StoredStudio,
    /// The same, to be shared.
    pub studio: Arc<Studio>,
    /// What its touch tests teach.
    pub learned: Learned,
    /// Its photographs, without pixels.
    pub photographs: Vec<Photograph>,
}

impl Loaded {
    /// What it counts among the studios that are kept.
    fn weight(&self) -> u32 {
        let steps: usize = self.studio.pictures.iter().map(|p| p.steps.len()).sum();
        AT_LEAST + u32::try_from(steps).unwrap_or(u32::MAX / 2)
    }

    /// When photographs of one picture were taken.
    pub fn taken(&self, picture: Uuid) -> Vec<DateTime<Utc>> {
        self.photographs.iter().filter(|f| f.picture_id == picture).map(|f| f.taken_at).collect()
    }

    /// The place of a picture in the studio.
    ///
    /// # Errors
    /// Not found when it has none.
    pub fn place_of(&self, picture: Uuid) -> Result<usize, Problem> {
        let place = self.stored.pictures.iter().position(|s| s.id == picture);
        place.ok_or_else(|| Problem::not_found("such picture"))
    }
}

/// A desk and what is known of films under seals, with the state of the studio they are of.
#[derive(Clone)]
struct Kept {
    state: Arc<StudioState>,
    desk: Desk,
    seals: KnownFilms,
}

impl Kept {
    fn new(loaded: &Loaded) -> Self {
        let desk = Desk::new(loaded.studio.clone());
        Self { state: loaded.state.clone(), desk, seals: KnownFilms::default() }
    }

    /// Takes over the studio as it was loaded; what did not change stays known.
    fn turn_to(&mut self, loaded: &Loaded) {
        self.seals.turn_to(&self.desk.studio(), &loaded.studio);
        self.desk.turn_to(loaded.studio.clone());
        self.state = loaded.state.clone();
    }
}

type Place = Arc<Mutex<Option<Kept>>>;

/// Studios that were looked at lately; cheap to clone.
#[derive(Clone)]
pub struct Desks {
    desks: Cache<Uuid, Place>,
    pub(crate) loaded: Cache<(Uuid, Arc<StudioState>), Arc<Loaded>>,
    /// Of each studio the version that was read last.
    last: Cache<Uuid, Arc<Loaded>>,
    times: Cache<Uuid, Arc<Mutex<KnownTimes>>>,
}

/// What was looked at last stays: by how often, which is usual otherwise, a version that just came would go first.
fn latest_kept<K, V>(most: u64) -> CacheBuilder<K, V, Cache<K, V>>
where
    K: Eq + Hash + Send + Sync + 'static,
    V: Clone + Send + Sync + 'static,
{
    let idle = Duration::from_secs(KEPT_S);
    Cache::builder().max_capacity(most).eviction_policy(EvictionPolicy::lru()).time_to_idle(idle)
}

impl Default for Desks {
    fn default() -> Self {
        let loaded = latest_kept(MOST_LOADED).weigher(|_, loaded: &Arc<Loaded>| loaded.weight());
        Self {
            desks: latest_kept(MOST_DESKS).build(),
            loaded: loaded.build(),
            last: latest_kept(MOST_DESKS).build(),
            times: latest_kept(MOST_DESKS).build(),
        }
    }
}

impl Desks {
    /// The version of a studio that was read last.
    pub(crate) fn last_loaded(&self, studio: Uuid) -> Option<Arc<Loaded>> {
        self.last.get(&studio)
    }

    /// Keeps a version of a studio that was read.
    pub(crate) fn keep(&self, key: (Uuid, Arc<StudioState>), loaded: &Arc<Loaded>) {
        self.last.insert(key.0, loaded.clone());
        self.loaded.insert(key, loaded.clone());
    }

    /// What was followed of a studio to learn from its touch tests.
    pub(crate) fn times_of(&self, studio: Uuid) -> Arc<Mutex<KnownTimes>> {
        self.times.get_with(studio, Arc::default)
    }

    /// Does `work` at the desk of a studio, which is brought to the studio as it was loaded.
    pub fn at<T>(&self, loaded: &Loaded, work: impl FnOnce(&mut Desk) -> T) -> T {
        self.at_gate(loaded, |desk, _| work(desk))
    }

    /// The same with the films that are known under seals.
    pub fn at_gate<T>(
        &self,
        loaded: &Loaded,
        work: impl FnOnce(&mut Desk, &mut KnownFilms) -> T,
    ) -> T {
        let place = self.desks.get_with(loaded.stored.id, Place::default);
        let mut place = place.lock().unwrap_or_else(PoisonError::into_inner);
        let mut kept = match place.take() {
            Some(mut kept) => {
                if kept.state != loaded.state {
                    kept.turn_to(loaded);
                }
                kept
            }
            None => Kept::new(loaded),
        };
        // A computation that is given up leaves no desk behind.
        let done = work(&mut kept.desk, &mut kept.seals);
        *place = Some(kept);
        done
    }

    /// Does `work` at two desks of a studio: as it was, and as it is. The second one is kept: whoever looks next
    /// finds there what was computed.
    pub fn at_both<T>(
        &self,
        (before, after): (&Loaded, &Loaded),
        work: impl FnOnce(&mut Desk, &mut Desk) -> T,
    ) -> T {
        let place = self.desks.get_with(after.stored.id, Place::default);
        let mut place = place.lock().unwrap_or_else(PoisonError::into_inner);
        let mut was = match place.take() {
            Some(mut kept) => {
                if kept.state != before.state {
                    kept.turn_to(before);
                }
                kept
            }
            None => Kept::new(before),
        };
        let mut is = was.clone();
        is.turn_to(after);
        let done = work(&mut was.desk, &mut is.desk);
        *place = Some(is);
        done
    }
}

#[cfg(test)]
mod tests {
    use super::latest_kept;

    #[test]
    fn what_came_last_stays_where_others_were_asked_for_more_often() {
        let kept = latest_kept::<u32, &str>(2).build();
        for key in [1, 2] {
            kept.insert(key, "a studio");
            for _ in 0..50 {
                kept.get(&key);
            }
        }
        kept.insert(3, "the one that is looked at now");
        kept.run_pending_tasks();
        assert!(kept.contains_key(&3), "it is worked on");
        assert!(!kept.contains_key(&1), "the one that was left longest went");
    }
}
