//! How fast a what-if is answered while a slider is dragged: the whole way through routes, database
//! and drying model, printed as a ratio to the 30 ms it may take.
#![allow(missing_docs, clippy::unwrap_used, clippy::print_stdout)]

use axum::Router;
use axum::body::Body;
use axum::http::{Method, Request};
use http_body_util::BodyExt;
use serde_json::{Value, json};
use std::path::Path;
use std::time::Instant;
use tower::ServiceExt;
use ulvek_server::database::PrivateDatabase;
use ulvek_server::state::{App, Clock};
use ulvek_server::web::application;
use ulvek_store::MIGRATIONS;

/// What an answer may take at the median [ms].
const MAY_TAKE_MS: f64 = 30.0;
/// Positions of the slider.
const POSITIONS: usize = 200;

/// How long a view that is opened may take to be computed [ms]. [practice] it feels at once
const VIEW_MS: f64 = 1000.0;
/// How often each is asked for.
const GATES: usize = 24;

/// The gate of each picture with what would bring it forward, and the gates of all in short.
fn gates(studio: &Value, outlook: &Value) -> [(&'static str, Vec<String>); 2] {
    let each = outlook["pictures"].as_array().unwrap().iter();
    let one = each.map(|p| format!("/api/pictures/{}/gate", p["id"].as_str().unwrap())).collect();
    let all = format!("/api/studios/{}/gates", studio["id"].as_str().unwrap());
    [("the gate of a picture", one), ("the gates of six pictures", vec![all])]
}

async fn send(router: &Router, method: Method, path: &str, body: Value) -> Value {
    let request = Request::builder()
        .method(method)
        .uri(path)
        .header("host", "127.0.0.1")
        .header("content-type", "application/json")
        .body(Body::from(body.to_string()))
        .unwrap();
    let response = router.clone().oneshot(request).await.unwrap();
    assert!(response.status().is_success(), "{path}: {}", response.status());
    let bytes = response.into_body().collect().await.unwrap().to_bytes();
    serde_json::from_slice(&bytes).unwrap()
}

fn main() {
    tokio::runtime::Runtime::new().unwrap().block_on(run());
}

async fn run() {
    let folder = std::env::temp_dir().join(format!("ulvek-bench-{}", std::process::id()));
    let database = PrivateDatabase::start(&folder, false).await.unwrap();
    let pool = ulvek_store::pool(database.url()).unwrap();
    MIGRATIONS.run(&pool).await.unwrap();
    let app = App::new(pool.clone(), Clock::default());
    let router = application(app, Path::new("/nonexistent"));
    let studio = send(&router, Method::POST, "/api/studios/demo", Value::Null).await;
    let path = format!("/api/studios/{}/outlook", studio["id"].as_str().unwrap());
    let outlook = send(&router, Method::GET, &path, Value::Null).await;
    for picture in outlook["pictures"].as_array().unwrap() {
        let path = format!("/api/pictures/{}/cup", picture["id"].as_str().unwrap());
        let mut times = Vec::with_capacity(POSITIONS);
        for n in 0..POSITIONS {
            let ask = json!({
                "mix": [{ "material": "glazing", "parts": 90 }, { "material": "fluid-pv19", "parts": 10 },
                        { "material": "retarder", "parts": 0 }],
                "turns": [{ "part": 2, "unit": "percent", "value": n as f64 * 15.0 / POSITIONS as f64 }],
                "wet_film_um": 40, "share_of_area": 1, "loss": 0.15, "measure_ml": 0.5 });
            let start = Instant::now();
            send(&router, Method::POST, &path, ask).await;
            times.push(start.elapsed().as_secs_f64() * 1e3);
        }
        times.sort_by(f64::total_cmp);
        let (median, worst) = (times[POSITIONS / 2], times[POSITIONS * 95 / 100]);
        println!(
            "what-if on {}: median {median:.1} ms, 95 % {worst:.1} ms, ratio to {MAY_TAKE_MS} ms 1:{:.1}",
            picture["title"],
            MAY_TAKE_MS / median
        );
    }
    for (what, paths) in gates(&studio, &outlook) {
        let mut times = Vec::new();
        for path in paths.iter().cycle().take(GATES) {
            let start = Instant::now();
            send(&router, Method::GET, path, Value::Null).await;
            times.push(start.elapsed().as_secs_f64() * 1e3);
        }
        times.sort_by(f64::total_cmp);
        let median = times[GATES / 2];
        println!("{what}: median {median:.0} ms, ratio to {VIEW_MS} ms 1:{:.1}", VIEW_MS / median);
    }
    pool.close().await;
    database.stop().await;
    let _ = std::fs::remove_dir_all(&folder);
}
