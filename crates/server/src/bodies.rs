//! How much of what is sent may lie in memory at once, and how long one body may be.

use crate::formats::MAX_BYTES;
use crate::problem::Problem;
use axum::extract::{Request, State};
use axum::http::header;
use axum::middleware::Next;
use axum::response::{IntoResponse, Response};
use std::sync::Arc;
use std::time::Duration;
use tokio::sync::{OwnedSemaphorePermit, Semaphore};

/// Bytes of one question at most: its answer is computed and kept, so many of them must not weigh. [practice] a
/// draft of all pictures of a large season
pub const QUESTION_BYTES: usize = 1024 * 1024;
/// Stands on a request that asks something: its body is limited further.
#[derive(Debug, Clone, Copy)]
pub struct Question;

/// What counts as small: a deed, a question [bytes]. [practice]
const SMALL_BYTES: usize = 256 * 1024;
/// All bodies in memory at once, small and large: 256 MB together [kB]. [practice]
const SMALL_KB: usize = 32 * 1024;
const LARGE_KB: usize = 224 * 1024;
/// How long a body waits for room before its sender is asked to come again [s]. [practice]
const PATIENCE_S: u64 = 20;

/// Room for bodies; cheap to clone. Small ones have room of their own, so that they never wait behind large ones.
#[derive(Debug, Clone)]
pub struct Bodies {
    small: Arc<Semaphore>,
    large: Arc<Semaphore>,
}

impl Default for Bodies {
    fn default() -> Self {
        Self {
            small: Arc::new(Semaphore::new(SMALL_KB)),
            large: Arc::new(Semaphore::new(LARGE_KB)),
        }
    }
}

impl Bodies {
    /// Waits until there is room for a body of `length` bytes; one that does not say its length may be as long as
    /// any.
    ///
    /// # Errors
    /// Too large, or no room in time.
    async fn room(&self, length: Option<usize>) -> Result<OwnedSemaphorePermit, Problem> {
        let bytes = length.unwrap_or(MAX_BYTES);
        if bytes > MAX_BYTES {
            return Err(Problem::too_large());
        }
        let room = if bytes <= SMALL_BYTES { &self.small } else { &self.large };
        let kilobytes = u32::try_from(bytes.div_ceil(1024)).unwrap_or(u32::MAX).max(1);
        let turn = room.clone().acquire_many_owned(kilobytes);
        match tokio::time::timeout(Duration::from_secs(PATIENCE_S), turn).await {
            Ok(Ok(room)) => Ok(room),
            _ => Err(Problem::busy()),
        }
    }
}

/// Lets a request with a body in when there is room for it, and holds that room until it is answered.
pub async fn with_room(State(bodies): State<Bodies>, request: Request, next: Next) -> Response {
    if request.method().is_safe() {
        return next.run(request).await;
    }
    let said = request.headers().get(header::CONTENT_LENGTH).and_then(|v| v.to_str().ok());
    let chunked = request.headers().contains_key(header::TRANSFER_ENCODING);
    let length = match said.and_then(|said| said.parse().ok()) {
        None if !chunked => Some(0),
        length => length,
    };
    match bodies.room(length).await {
        Ok(_room) => next.run(request).await,
        Err(problem) => problem.into_response(),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[tokio::test]
    async fn a_small_body_never_waits_behind_large_ones_and_all_together_are_bounded() {
        let bodies = Bodies::default();
        let mut held = Vec::new();
        while let Ok(Ok(room)) =
            tokio::time::timeout(Duration::ZERO, bodies.room(Some(MAX_BYTES))).await
        {
            held.push(room);
        }
        assert!(held.len() * MAX_BYTES <= LARGE_KB * 1024 && held.len() > 10, "{}", held.len());
        assert!(bodies.room(Some(900)).await.is_ok(), "a deed goes in beside them");
        assert_eq!(bodies.room(Some(MAX_BYTES + 1)).await.unwrap_err().status, 413);
        held.pop();
        assert!(
            bodies.room(None).await.is_ok(),
            "one that says no length takes the room of the longest"
        );
    }
}
