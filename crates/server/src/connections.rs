//! Connections: how many, how long a header may take, and how they end.

use crate::streams::Client;
use axum::Router;
use axum::extract::Request;
use hyper::body::Incoming;
use hyper::server::conn::http1;
use hyper_util::rt::{TokioIo, TokioTimer};
use hyper_util::server::graceful::GracefulShutdown;
use std::future::Future;
use std::sync::Arc;
use std::time::Duration;
use tokio::net::TcpListener;
use tokio::sync::Semaphore;
use tower::Service;

/// Connections that are served at once. [practice] some browsers, each with a handful, many times over
pub const MOST_CONNECTIONS: usize = 1024;
/// How long the head of a request may take, also the next one on a kept connection [s]. [practice]
pub const HEADER_S: u64 = 5;
/// How long answers may go on after the application was told to stop [s]. [practice]
pub const LAST_ANSWERS_S: u64 = 10;
/// Pause when the system has no more room for a connection [ms]. [practice]
const NO_ROOM_MS: u64 = 100;

/// Serves `app` on `listener` until `stop`, then lets what is being answered go on for a while.
pub async fn serve_connections(listener: TcpListener, app: Router, stop: impl Future<Output = ()>) {
    let places = Arc::new(Semaphore::new(MOST_CONNECTIONS));
    let graceful = GracefulShutdown::new();
    tokio::pin!(stop);
    loop {
        let place = tokio::select! {
            place = places.clone().acquire_owned() => place,
            () = &mut stop => break,
        };
        let accepted = tokio::select! {
            accepted = listener.accept() => accepted,
            () = &mut stop => break,
        };
        let (stream, peer) = match accepted {
            Ok(accepted) => accepted,
            Err(error) => {
                // One that hung up while it waited, or no file handle left: others may yet come.
                tracing::warn!(%error, "a connection could not be taken");
                tokio::time::sleep(Duration::from_millis(NO_ROOM_MS)).await;
                continue;
            }
        };
        // Small answers leave at once instead of waiting for more.
        let _ = stream.set_nodelay(true);
        let app = app.clone();
        let client = Client(peer.ip());
        let service = hyper::service::service_fn(move |mut request: Request<Incoming>| {
            request.extensions_mut().insert(client);
            app.clone().call(request.map(axum::body::Body::new))
        });
        let connection = http1::Builder::new()
            .timer(TokioTimer::new())
            .header_read_timeout(Duration::from_secs(HEADER_S))
            .serve_connection(TokioIo::new(stream), service);
        let watched = graceful.watch(connection);
        tokio::spawn(async move {
            // A client that hangs up or is too slow is no fault of the application.
            if let Err(error) = watched.await {
                tracing::debug!(%error, "a connection ended");
            }
            drop(place);
        });
    }
    drop(listener);
    let deadline = Duration::from_secs(LAST_ANSWERS_S);
    if tokio::time::timeout(deadline, graceful.shutdown()).await.is_err() {
        tracing::warn!("some connections did not end in time and are cut off");
    }
}
