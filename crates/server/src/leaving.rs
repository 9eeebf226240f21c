//! Whoever asked may leave; what they asked for is carried out all the same.
//!
//! A question to the database that is dropped half-way leaves its connection in the middle of an
//! answer: what is asked next on it reads what belonged to the one before, or waits for ever. So a
//! handler is never dropped. It runs to its end, and only what is computed for it is given up.

use crate::problem::Problem;
use axum::extract::Request;
use axum::middleware::Next;
use axum::response::{IntoResponse, Response};
use std::future::Future;
use tokio_util::sync::CancellationToken;
use tracing::Instrument;

tokio::task_local! {
    /// Told when the one who asked has left.
    static LEFT: CancellationToken;
}

/// Carries a request out to its end, whether or not somebody waits for the answer.
pub async fn carry_out(request: Request, next: Next) -> Response {
    let left = CancellationToken::new();
    let _leaves_with_me = left.clone().drop_guard();
    let carried = tokio::spawn(LEFT.scope(left, next.run(request)).in_current_span());
    match carried.await.map_err(tokio::task::JoinError::try_into_panic) {
        Ok(response) => response,
        Err(Ok(panic)) => std::panic::resume_unwind(panic),
        Err(Err(_)) => Problem::busy().into_response(),
    }
}

/// Waits for what is computed as long as the one who asked does.
///
/// # Errors
/// A problem that nobody hears when they have left.
pub async fn unless_left<T>(work: impl Future<Output = T>) -> Result<T, Problem> {
    let Ok(left) = LEFT.try_with(Clone::clone) else {
        return Ok(work.await);
    };
    tokio::select! {
        done = work => Ok(done),
        () = left.cancelled() => Err(Problem::busy()),
    }
}
