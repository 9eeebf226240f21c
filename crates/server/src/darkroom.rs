//! Where photographs are developed: few at once, small ones beside a large one, none that nobody waits for.

use crate::leaving::unless_left;
use crate::problem::Problem;
use std::sync::Arc;
use tokio::sync::{OwnedSemaphorePermit, Semaphore};

/// Photographs that are developed at once: each may take half a gigabyte. [practice]
const PLACES: usize = 2;
/// A file that is larger takes its turn among the large ones, which leave a place to the others [bytes].
/// [practice] a photograph of two megapixels
const LARGE_BYTES: usize = 2 * 1024 * 1024;

/// The places to develop; cheap to clone.
#[derive(Debug, Clone)]
pub struct Darkroom {
    places: Arc<Semaphore>,
    large: Arc<Semaphore>,
}

impl Default for Darkroom {
    fn default() -> Self {
        Self {
            places: Arc::new(Semaphore::new(PLACES)),
            large: Arc::new(Semaphore::new(PLACES - 1)),
        }
    }
}

/// A place, free again when it is dropped.
#[derive(Debug)]
pub struct Place {
    _place: OwnedSemaphorePermit,
    _large: Option<OwnedSemaphorePermit>,
}

impl Darkroom {
    /// Waits for a place for a file of so many bytes, as long as its sender does.
    ///
    /// # Errors
    /// A problem that nobody hears when the sender has left.
    pub async fn place(&self, bytes: usize) -> Result<Place, Problem> {
        let turn = async {
            let large = if bytes > LARGE_BYTES {
                Some(self.large.clone().acquire_owned().await?)
            } else {
                None
            };
            let place = self.places.clone().acquire_owned().await?;
            Ok::<_, tokio::sync::AcquireError>(Place { _place: place, _large: large })
        };
        unless_left(turn).await?.map_err(|_| Problem::internal())
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use std::time::Duration;

    #[tokio::test]
    async fn a_small_one_finds_a_place_while_forty_large_ones_wait() {
        let room = Darkroom::default();
        let first = room.place(LARGE_BYTES + 1).await.unwrap();
        let waiting: Vec<_> = (0..40)
            .map(|_| {
                let room = room.clone();
                tokio::spawn(async move { room.place(LARGE_BYTES + 1).await.map(drop) })
            })
            .collect();
        tokio::task::yield_now().await;
        let small = tokio::time::timeout(Duration::from_secs(60), room.place(1000)).await;
        assert!(small.is_ok(), "it does not wait behind them");
        drop((first, small));
        for one in waiting {
            one.await.unwrap().unwrap();
        }
    }
}
