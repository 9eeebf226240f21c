//! The API against a real MariaDB: one database of its own for each test.
#![allow(clippy::unwrap_used, clippy::panic)]

mod bad_input;
mod colour;
mod computed;
mod cup;
mod doors;
mod edits;
mod fuzz;
mod headers;
mod instruments;
mod log;
mod safe;
mod seal;
mod season;
mod shelf;
mod sound;

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
        Self::with_app(pool).0
    }

    fn with_app(pool: MySqlPool) -> (Self, App) {
        let clock = Clock::starting_at(NOW.parse::<DateTime<Utc>>().unwrap());
        let app = App::new(pool, clock);
        (Self { router: application(app.clone(), Path::new("/nonexistent")) }, app)
    }

    async fn send(&self, method: Method, path: &str, body: Body) -> Answer {
        self.ask(method, path, &[("content-type", "application/json")], body).await
    }

    /// A request with headers of its own; it is for this machine unless they say another host.
    async fn ask(
        &self,
        method: Method,
        path: &str,
        headers: &[(&str, &str)],
        body: Body,
    ) -> Answer {
        let mut request = Request::builder().method(method).uri(path);
        if headers.iter().all(|(name, _)| *name != "host") {
            request = request.header("host", "127.0.0.1");
        }
        for (name, value) in headers {
            request = request.header(*name, *value);
        }
        let request = request.body(body).unwrap();
        let response = self.router.clone().oneshot(request).await.unwrap();
        let (status, headers) = (response.status(), response.headers().clone());
        let bytes = response.into_body().collect().await.unwrap().to_bytes();
        Answer { status, headers, bytes }
    }

    /// Sends a file.
    async fn bring(&self, path: &str, bytes: Vec<u8>) -> Answer {
        self.ask(Method::POST, path, &[("content-type", "image/png")], Body::from(bytes)).await
    }

    async fn get(&self, path: &str) -> Answer {
        self.send(Method::GET, path, Body::empty()).await
    }

    async fn post(&self, path: &str, body: &Value) -> Answer {
        self.send(Method::POST, path, Body::from(body.to_string())).await
    }

    /// Asks for what takes a while, until it is done; meanwhile it says how far it is.
    async fn post_long(&self, path: &str, body: &Value) -> Answer {
        loop {
            let answer = self.post(path, body).await;
            if answer.status != 202 {
                return answer;
            }
            let going = answer.json();
            assert!(going["done"].as_u64() <= going["of"].as_u64(), "{going}");
        }
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
