//! How long a log of 20 000 entries takes to be listed and searched, and a year of minute readings to be
//! plotted: printed with the ratio to what it may take, 100 ms.
#![allow(missing_docs, clippy::unwrap_used, clippy::print_stdout)]

use axum::Router;
use axum::body::Body;
use axum::http::{Method, Request};
use chrono::{DateTime, Duration, Utc};
use http_body_util::BodyExt;
use serde_json::{Value, json};
use sqlx::MySqlPool;
use std::path::Path;
use std::time::Instant;
use tower::ServiceExt;
use ulvek_core::air::{Air, InstrumentKind, Measured};
use ulvek_server::database::PrivateDatabase;
use ulvek_server::instruments::{Behaviour, measure};
use ulvek_server::state::{App, Clock};
use ulvek_server::web::application;
use ulvek_store::{Instrument, MIGRATIONS, add_instrument, keep_measured, make_hours};
use uuid::Uuid;

const NOW: &str = "2027-01-04T08:00:00Z";
const PICTURES: usize = 50;
const ENTRIES: usize = 400;
/// What an answer may take [s].
const AIM: f64 = 0.1;
const PLACES: [&str; 5] = ["sky", "lower left glass", "lamp", "quay wall", "window bars"];

async fn ask(router: &Router, method: Method, path: &str, body: &Value) -> Value {
    let request = Request::builder()
        .method(method)
        .uri(path)
        .header("host", "127.0.0.1")
        .header("content-type", "application/json")
        .body(Body::from(body.to_string()))
        .unwrap();
    let response = router.clone().oneshot(request).await.unwrap();
    let status = response.status();
    let bytes = response.into_body().collect().await.unwrap().to_bytes();
    assert!(status.is_success(), "{path}: {}", String::from_utf8_lossy(&bytes));
    serde_json::from_slice(&bytes).unwrap()
}

/// A studio in which much was noted.
fn studio(materials: &Value) -> Value {
    let now: DateTime<Utc> = NOW.parse().unwrap();
    let picture = |p: usize| {
        let happened: Vec<Value> = (0..ENTRIES)
            .map(|n| {
                json!({
                    "at": now - Duration::hours((n * PICTURES + p) as i64),
                    "what": { "kind": "noted" }, "material": "heavy-pb29",
                    "place": PLACES[(n + p) % PLACES.len()],
                    "words": format!("evening {n}: deeper by one glaze, picture {p}"),
                })
            })
            .collect();
        json!({
            "id": format!("p{p}"), "title": format!("Lamp {p}"), "width_cm": 30, "height_cm": 40,
            "steps": [], "happened": happened,
        })
    };
    json!({
        "format": "ulvek.studio/1",
        "studio": { "name": "Log", "time_zone": "Europe/Oslo", "hours": [] },
        "air": { "temperature_c": 21.0, "relative_humidity": 0.5, "air_speed_m_s": 0.15 },
        "materials": materials,
        "pictures": (0..PICTURES).map(picture).collect::<Vec<_>>(),
    })
}

/// The answer of `path`, and how long it takes: the median of nine [s].
async fn timed(router: &Router, path: &str) -> (Value, f64) {
    let mut took = [0.0; 9];
    let mut answer = Value::Null;
    for slot in &mut took {
        let begun = Instant::now();
        answer = ask(router, Method::GET, path, &Value::Null).await;
        *slot = begun.elapsed().as_secs_f64();
    }
    took.sort_by(f64::total_cmp);
    (answer, took[took.len() / 2])
}

/// A hygrometer that has sent each minute for a year.
async fn measure_a_year(pool: &MySqlPool, studio: Uuid) {
    let now: DateTime<Utc> = NOW.parse().unwrap();
    let instrument = Instrument {
        id: Uuid::now_v7(),
        studio,
        kind: InstrumentKind::Hygrometer,
        name: "North wall".into(),
        heard_at: None,
        refused: None,
        simulated: None,
    };
    let mut conn = pool.acquire().await.unwrap();
    add_instrument(&mut conn, &instrument, [7; 32], now).await.unwrap();
    let usual = Air::try_new(21.0, 0.5, 0.15).unwrap();
    for week in 0..52 {
        let from = now - Duration::days(7 * (52 - week));
        let minutes: Vec<Measured> = (0..7 * 1440)
            .filter_map(|m| measure(&usual, (Behaviour::Works, now), from + Duration::minutes(m)))
            .collect();
        keep_measured(&mut conn, instrument.id, &minutes).await.unwrap();
        let span = (from, from + Duration::days(7) - Duration::minutes(1));
        make_hours(&mut conn, studio, span, now).await.unwrap();
    }
}

fn main() {
    tokio::runtime::Runtime::new().unwrap().block_on(run());
}

async fn run() {
    let folder = std::env::temp_dir().join(format!("ulvek-log-{}", std::process::id()));
    let database = PrivateDatabase::start(&folder, false).await.unwrap();
    let pool = ulvek_store::pool(database.url()).unwrap();
    MIGRATIONS.run(&pool).await.unwrap();
    let clock = Clock::starting_at(NOW.parse().unwrap());
    let router = application(App::new(pool.clone(), clock), Path::new("/nonexistent"));
    let demo = ask(&router, Method::POST, "/api/studios/demo", &Value::Null).await;
    let begun = Instant::now();
    let whole = studio(&demo["materials"]);
    let made = ask(&router, Method::POST, "/api/studios/import", &whole).await;
    println!("{} entries brought in {:.1} s", PICTURES * ENTRIES, begun.elapsed().as_secs_f64());
    let log = format!("/api/studios/{}/log", made["id"].as_str().unwrap());
    for (what, query) in [
        ("the last fifty", "?take=50"),
        ("the fifty after 15 000", "?take=50&skip=15000"),
        ("one place of five", "?words=quay"),
        ("two words", "?words=glass%20evening"),
        ("a rare word", "?words=picture%20evening%20399"),
        ("no entry has all", "?words=quay%20moonlight"),
        ("with a material", "?material=heavy-pb29"),
        ("a week", "?from=2026-12-01T00:00:00Z&to=2026-12-08T00:00:00Z"),
    ] {
        let (of, took) = timed(&router, &format!("{log}{query}")).await;
        println!(
            "{what:<24} {:>6} found in {:>6.1} ms, ratio to the aim 1:{:.1}",
            of["of"],
            took * 1e3,
            AIM / took
        );
    }
    let id: Uuid = made["id"].as_str().unwrap().parse().unwrap();
    let begun = Instant::now();
    measure_a_year(&pool, id).await;
    println!("a year of minute readings taken in {:.1} s", begun.elapsed().as_secs_f64());
    let now: DateTime<Utc> = NOW.parse().unwrap();
    for (what, days) in [("a day plotted", 1), ("a month plotted", 30), ("a year plotted", 365)] {
        let from = (now - Duration::days(days)).to_rfc3339().replace("+00:00", "Z");
        let past = format!("/api/studios/{id}/air/past?from={from}");
        let (past, took) = timed(&router, &past).await;
        let points = past["points"].as_array().unwrap().len();
        println!(
            "{what:<24} {points:>6} points in {:>6.1} ms, ratio to the aim 1:{:.1}",
            took * 1e3,
            AIM / took
        );
    }
    pool.close().await;
    database.stop().await;
    let _ = std::fs::remove_dir_all(&folder);
}
