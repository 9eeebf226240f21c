//! The API against a real MariaDB: one database of its own for each test.
#![allow(clippy::unwrap_used, clippy::panic)]

mod bad_input;
mod computed;
mod cup;
mod edits;
mod headers;
mod seal;
mod season;
mod shelf;

use axum::Router;
use axum::body::{Body, Bytes};
use axum::http::{HeaderMap, Method, Request, StatusCode};
use chrono::{DateTime, Utc};
use http_body_util::BodyExt;
use serde_json::Value;
use sqlx::MySqlPool;
use std::path::Path;
use tower::ServiceExt;
use ulvek_server::state::{App, Clock};
use ulvek_server::web::application;

/// The moment these tests happen at.
const NOW: &str = "2027-01-14T16:34:00Z";

/// The application on a database of its own.
struct Studio {
    router: Router,
}

/// An answer, read to its end.
struct Answer {
    status: StatusCode,
    headers: HeaderMap,
    bytes: Bytes,
}

impl Answer {
    fn json(&self) -> Value {
        serde_json::from_slice(&self.bytes).unwrap()
    }

    fn text(&self) -> String {
        String::from_utf8(self.bytes.to_vec()).unwrap()
    }

    /// The sentence of a problem document with that status.
    fn problem(&self, status: u16) -> String {
        assert_eq!(self.status.as_u16(), status, "{}", self.text());
        assert_eq!(self.headers["content-type"], "application/problem+json");
        assert_eq!(self.json()["status"], status);
        self.json()["detail"].as_str().unwrap().to_owned()
    }
}

impl Studio {
    fn on(pool: MySqlPool) -> Self {
        let clock = Clock::starting_at(NOW.parse::<DateTime<Utc>>().unwrap());
        Self { router: application(App::new(pool, clock), Path::new("/nonexistent")) }
    }

    async fn send(&self, method: Method, path: &str, body: Body) -> Answer {
        let request = Request::builder()
            .method(method)
            .uri(path)
            .header("content-type", "application/json")
            .body(body)
            .unwrap();
        let response = self.router.clone().oneshot(request).await.unwrap();
        let (status, headers) = (response.status(), response.headers().clone());
        let bytes = response.into_body().collect().await.unwrap().to_bytes();
        Answer { status, headers, bytes }
    }

    async fn get(&self, path: &str) -> Answer {
        self.send(Method::GET, path, Body::empty()).await
    }

    async fn post(&self, path: &str, body: &Value) -> Answer {
        self.send(Method::POST, path, Body::from(body.to_string())).await
    }

    async fn put(&self, path: &str, body: &Value) -> Answer {
        self.send(Method::PUT, path, Body::from(body.to_string())).await
    }

    /// A fresh demo studio; its key.
    async fn demo(&self) -> String {
        let made = self.post("/api/studios/demo", &Value::Null).await;
        assert_eq!(made.status, 201, "{}", made.text());
        made.json()["id"].as_str().unwrap().to_owned()
    }

    /// Key of the demo's picture whose title begins so.
    async fn picture(&self, studio: &str, title: &str) -> String {
        let outlook = self.get(&format!("/api/studios/{studio}/outlook")).await.json();
        let found = outlook["pictures"]
            .as_array()
            .unwrap()
            .iter()
            .find(|p| p["title"].as_str().unwrap().starts_with(title));
        found.unwrap()["id"].as_str().unwrap().to_owned()
    }
}
