//! The application around the API: the built front end, headers, logs, limits.

use crate::bodies::with_room;
use crate::doors::guard;
use crate::leaving::carry_out;
use crate::openapi;
use crate::problem::Problem;
use crate::routes;
use crate::state::App;
use axum::body::Body;
use axum::extract::{Request, State};
use axum::http::{HeaderName, HeaderValue, StatusCode, header};
use axum::middleware::{Next, from_fn};
use axum::response::{IntoResponse, Response};
use axum::{Json, Router, middleware::from_fn_with_state, routing::get};
use std::path::Path;
use std::sync::Arc;
use std::time::Duration;
use tower_http::CompressionLevel;
use tower_http::catch_panic::CatchPanicLayer;
use tower_http::compression::CompressionLayer;
use tower_http::request_id::{MakeRequestUuid, PropagateRequestIdLayer, SetRequestIdLayer};
use tower_http::services::{ServeDir, ServeFile};
use tower_http::trace::TraceLayer;

/// Longest time for an answer [s]. [practice]
const PATIENCE_S: u64 = 30;
/// Only the application itself: no other host, no inline script. Styles are inline because the
/// component library writes its rules into the page.
const CONTENT_POLICY: &str = "default-src 'none'; script-src 'self'; style-src 'self' 'unsafe-inline'; \
    img-src 'self' data: blob:; font-src 'self'; connect-src 'self'; manifest-src 'self'; \
    base-uri 'none'; form-action 'self'; frame-ancestors 'none'";

/// The whole application; `front` is the folder of the built front end.
pub fn application(app: App, front: &Path) -> Router {
    let (api, document) = routes::api().split_for_parts();
    let document = Arc::new(openapi::completed(document));
    let assets = ServeDir::new(front.join("assets")).precompressed_br().precompressed_gzip();
    let page = ServeFile::new(front.join("index.html"));
    let files = ServeDir::new(front).precompressed_br().precompressed_gzip().fallback(
        Router::new().fallback_service(page).layer(from_fn(only_pages)).into_service::<Body>(),
    );
    let api = api
        .route("/api/openapi.json", get(async move || Json(document.as_ref().clone())))
        .route("/api/{*rest}", axum::routing::any(no_such_route))
        .layer(from_fn(carry_out))
        .layer(from_fn_with_state(app.bodies.clone(), with_room))
        .layer(from_fn_with_state(app.clone(), api_headers))
        .method_not_allowed_fallback(wrong_method);
    let assets = Router::new().fallback_service(assets).layer(from_fn(asset_headers));
    let doors = app.doors.clone();
    Router::new()
        .merge(api)
        .route("/favicon.ico", get(no_such_file))
        .nest_service("/assets", assets)
        .fallback_service(files)
        // The usual level takes thrice the time for a sixth less.
        .layer(CompressionLayer::new().quality(CompressionLevel::Fastest))
        .layer(CatchPanicLayer::custom(|_: Box<dyn std::any::Any + Send>| {
            tracing::error!("a handler panicked");
            Problem::internal().into_response()
        }))
        .layer(from_fn_with_state(Duration::from_secs(PATIENCE_S), give_up_late))
        .layer(from_fn_with_state(doors, guard))
        .layer(from_fn(security_headers))
        .layer(
            TraceLayer::new_for_http()
                .make_span_with(|request: &Request| {
                    let id = request.headers().get("x-request-id").and_then(|v| v.to_str().ok());
                    tracing::info_span!(
                        "request",
                        id = id.unwrap_or_default(),
                        method = %request.method(),
                        path = request.uri().path()
                    )
                })
                .on_response(|response: &Response, took: Duration, _: &tracing::Span| {
                    tracing::info!(
                        status = response.status().as_u16(),
                        ms = took.as_secs_f64() * 1e3,
                        "answered"
                    );
                }),
        )
        .layer(PropagateRequestIdLayer::x_request_id())
        .layer(SetRequestIdLayer::x_request_id(MakeRequestUuid))
        .with_state(app)
}

/// What the application knows of the trade, as JSON.
pub fn catalogue() -> serde_json::Value {
    let known = crate::routes::application::handlers::known();
    known.ok().and_then(|known| serde_json::to_value(known).ok()).unwrap_or_default()
}

/// The OpenAPI document.
pub fn openapi() -> serde_json::Value {
    openapi::completed(routes::api().into_openapi())
}

async fn no_such_route() -> Problem {
    Problem::not_found("such address")
}

/// The page answers for every view, but only to who asks for a page: a program that looks for an address that is
/// not there hears that.
async fn only_pages(request: Request, next: Next) -> Response {
    let wants = request.headers().get(header::ACCEPT).and_then(|v| v.to_str().ok());
    if wants.is_some_and(|wants| wants.contains("text/html")) {
        return next.run(request).await;
    }
    Problem::not_found("such page").into_response()
}

async fn no_such_file() -> Problem {
    Problem::not_found("such file")
}

async fn wrong_method() -> Problem {
    Problem::method_not_allowed()
}

async fn give_up_late(State(patience): State<Duration>, request: Request, next: Next) -> Response {
    tokio::time::timeout(patience, next.run(request))
        .await
        .unwrap_or_else(|_| Problem::timeout().into_response())
}

/// The id that an entry carries.
const ENTRY: HeaderName = HeaderName::from_static("idempotency-key");

async fn api_headers(State(app): State<App>, request: Request, next: Next) -> Response {
    let entry = request.headers().get(ENTRY).cloned();
    let mut response = next.run(request).await;
    if response.status() == StatusCode::SERVICE_UNAVAILABLE
        && let Some(fault) = app.database.as_ref().and_then(crate::database::Condition::fault)
        && let Some(problem) = response.extensions().get::<Problem>()
    {
        response = problem.clone().with_cause(Some(fault)).into_response();
    }
    let now = app.clock.now().to_rfc3339_opts(chrono::SecondsFormat::Millis, true);
    let headers = response.headers_mut();
    // Whoever sent an entry knows its own answer by it: something in between may answer too.
    if let Some(entry) = entry {
        headers.insert(ENTRY, entry);
    }
    // An answer may have been kept; the time is always that of now.
    if let Ok(now) = HeaderValue::from_str(&now) {
        headers.insert(HeaderName::from_static("x-ulvek-now"), now);
    }
    headers.entry(header::CACHE_CONTROL).or_insert(HeaderValue::from_static("no-store"));
    response
}

/// Assets carry a hash in their name: they never change. A missing one is 404, not the page.
async fn asset_headers(request: Request, next: Next) -> Response {
    let mut response = next.run(request).await;
    if response.status() == StatusCode::NOT_FOUND {
        return Problem::not_found("such file").into_response();
    }
    let forever = HeaderValue::from_static("public, max-age=31536000, immutable");
    response.headers_mut().insert(header::CACHE_CONTROL, forever);
    response
}

async fn security_headers(request: Request, next: Next) -> Response {
    let mut response = next.run(request).await;
    let headers = response.headers_mut();
    for (name, value) in [
        (header::CONTENT_SECURITY_POLICY, CONTENT_POLICY),
        (header::X_CONTENT_TYPE_OPTIONS, "nosniff"),
        (header::REFERRER_POLICY, "no-referrer"),
        (header::X_FRAME_OPTIONS, "DENY"),
        (HeaderName::from_static("cross-origin-opener-policy"), "same-origin"),
        (HeaderName::from_static("cross-origin-resource-policy"), "same-origin"),
        (HeaderName::from_static("permissions-policy"), "camera=(), microphone=(), geolocation=()"),
    ] {
        headers.insert(name, HeaderValue::from_static(value));
    }
    headers.entry(header::CACHE_CONTROL).or_insert(HeaderValue::from_static("no-cache"));
    response
}
