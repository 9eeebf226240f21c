//! Trying an edit again that another one stood in the way of.

use crate::formats::MAX_BYTES;
use crate::problem::Problem;
use axum::body::Body;
use axum::extract::Request;
use axum::middleware::Next;
use axum::response::{IntoResponse, Response};

/// An edit that another one stood in the way of is tried once more before anyone hears of it: it was
/// taken back whole.
pub async fn once_more(request: Request, next: Next) -> Response {
    if request.method().is_safe() {
        return next.run(request).await;
    }
    let (parts, body) = request.into_parts();
    let bytes = match axum::body::to_bytes(body, MAX_BYTES).await {
        Ok(bytes) => bytes,
        Err(cause) if is_too_large(&cause) => return Problem::too_large().into_response(),
        Err(_) => return Problem::cut_off().into_response(),
    };
    let again = Request::from_parts(parts.clone(), Body::from(bytes.clone()));
    let response = next.clone().run(Request::from_parts(parts, Body::from(bytes))).await;
    match response.extensions().get::<Problem>() {
        Some(problem) if problem.again => next.run(again).await,
        _ => response,
    }
}

fn is_too_large(error: &axum::Error) -> bool {
    let mut cause: Option<&dyn std::error::Error> = Some(error);
    while let Some(one) = cause {
        if one.is::<http_body_util::LengthLimitError>() {
            return true;
        }
        cause = one.source();
    }
    false
}
