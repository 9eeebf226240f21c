//! How long the first answer after an edit takes, and the next one, in studios of 6, 50 and 300
//! pictures of 15 steps: printed with the ratio to what it may take, and how it grows.
#![allow(missing_docs, clippy::unwrap_used, clippy::print_stdout)]

use axum::Router;
use axum::body::Body;
use axum::http::{Method, Request, StatusCode};
use chrono::{DateTime, Duration, Utc};
use http_body_util::BodyExt;
use serde_json::{Value, json};
use std::path::Path;
use std::time::Instant;
use tower::ServiceExt;
use ulvek_server::database::PrivateDatabase;
use ulvek_server::state::{App, Clock};
use ulvek_server::web::application;
use ulvek_store::MIGRATIONS;

const NOW: &str = "2027-01-04T08:00:00Z";

/// What is asked: name, aim for the first answer and the next at each size [s] (0: none set).
const ASKED: [(&str, [f64; 3], [f64; 3]); 6] = [
    ("outlook", [0.15, 0.6, 4.0], [0.03, 0.05, 0.3]),
    ("season", [0.15, 0.6, 4.0], [0.03, 0.05, 0.3]),
    ("gate", [0.1, 0.6, 4.0], [0.0; 3]),
    ("gates", [0.1, 0.6, 4.0], [0.0; 3]),
    ("odds", [0.5, 4.0, 30.0], [0.0; 3]),
    ("ways", [0.5, 4.0, 30.0], [0.0; 3]),
];
const SIZES: [usize; 3] = [6, 50, 300];
const STEPS: usize = 15;

fn now() -> DateTime<Utc> {
    NOW.parse().unwrap()
}

/// A studio of `pictures` pictures of 15 steps, a third of them laid on every other picture.
fn studio(materials: &Value, pictures: usize) -> Value {
    let step = |p: usize, i: usize| {
        let mix = |parts: &[(&str, u32)]| -> Value {
            parts.iter().map(|(m, parts)| json!({ "material": m, "parts": parts })).collect()
        };
        let (kind, film, mix) = match i {
            0 => ("tone", json!(40), mix(&[("heavy-pbr7", 1)])),
            14 => ("varnish", json!(45), mix(&[("varnish-gloss", 1)])),
            13 => ("photograph", Value::Null, json!([])),
            i if i % 2 == 1 => (
                "glaze",
                json!(40),
                mix(&[("glazing", 7 + ((p + i) % 3) as u32), ("fluid-pb15", 1)]),
            ),
            _ => ("pass", json!(70), mix(&[("heavy-pb29", 1)])),
        };
        let mut step =
            json!({ "id": format!("s{i}"), "kind": kind, "hands_on_min": 30, "mix": mix });
        if !film.is_null() {
            step["wet_film_um"] = film;
        }
        if p.is_multiple_of(2) && i < STEPS / 3 {
            let at = now() - Duration::days(30 - i as i64) + Duration::minutes(p as i64);
            step["laid_at"] = json!(at);
        }
        step
    };
    let hours = ["mon", "tue", "wed", "thu", "fri", "sat"]
        .map(|day| json!({ "day": day, "from": "09:00", "to": "17:00" }));
    json!({
        "format": "ulvek.studio/1",
        "studio": { "name": "Grown", "time_zone": "Europe/Oslo", "flat_places": 2, "setup_min": 10,
                    "hours": hours },
        "air": { "temperature_c": 21.0, "relative_humidity": 0.5, "air_speed_m_s": 0.15 },
        "materials": materials,
        "pictures": (0..pictures).map(|p| json!({
            "id": format!("p{p}"), "title": format!("Picture {p}"), "width_cm": 30, "height_cm": 40,
            "weight": 1, "due": (now() + Duration::days(21 + (p * 8 % 330) as i64)).date_naive(),
            "ground": { "absorbs_um": 20 },
            "steps": (0..STEPS).map(|i| step(p, i)).collect::<Vec<_>>() })).collect::<Vec<_>>(),
    })
}

async fn send(router: &Router, method: Method, path: &str, body: &Value) -> (StatusCode, Value) {
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
    (status, serde_json::from_slice(&bytes).unwrap_or_default())
}

/// Asks until the answer is whole; seconds, and the status when it was refused.
async fn timed(router: &Router, key: &str, picture: &str, what: &str) -> Result<f64, StatusCode> {
    let begun = Instant::now();
    loop {
        let studio = format!("/api/studios/{key}");
        let (status, _) = match what {
            "gate" => {
                send(router, Method::GET, &format!("/api/pictures/{picture}/gate"), &Value::Null)
                    .await
            }
            "odds" => {
                send(router, Method::POST, &format!("{studio}/season/odds"), &json!({})).await
            }
            "ways" => {
                let ask = json!({ "picture": picture });
                send(router, Method::POST, &format!("{studio}/season/ways"), &ask).await
            }
            view => send(router, Method::GET, &format!("{studio}/{view}"), &Value::Null).await,
        };
        match status {
            StatusCode::OK => return Ok(begun.elapsed().as_secs_f64()),
            StatusCode::ACCEPTED => {}
            other => return Err(other),
        }
    }
}

async fn edit(router: &Router, picture: &str, n: usize) {
    let path = format!("/api/pictures/{picture}");
    let (_, stored) = send(router, Method::GET, &path, &Value::Null).await;
    let mut edit =
        json!({ "version": stored["version"], "label": "thinner", "picture": stored["picture"] });
    let steps = edit["picture"]["steps"].as_array_mut().unwrap();
    let open = steps.iter_mut().rev().find(|s| s["kind"] == "glaze").unwrap();
    open["wet_film_um"] = json!(40 + n % 5);
    let (status, answer) = send(router, Method::PUT, &path, &edit).await;
    assert_eq!(status, 200, "{answer}");
}

fn main() {
    tokio::runtime::Runtime::new().unwrap().block_on(run());
}

async fn run() {
    let folder = std::env::temp_dir().join(format!("ulvek-growth-{}", std::process::id()));
    let database = PrivateDatabase::start(&folder, false).await.unwrap();
    let pool = ulvek_store::pool(database.url()).unwrap();
    MIGRATIONS.run(&pool).await.unwrap();
    let app = App::new(pool.clone(), Clock::starting_at(now()));
    let router = application(app, Path::new("/nonexistent"));
    let (_, demo) = send(&router, Method::POST, "/api/studios/demo", &Value::Null).await;
    let mut firsts: Vec<[f64; 6]> = Vec::new();
    let most =
        std::env::var("ULVEK_SIZES").ok().and_then(|n| n.parse().ok()).unwrap_or(SIZES.len());
    for (n, size) in SIZES.iter().enumerate().take(most) {
        let whole = studio(&demo["materials"], *size);
        let (status, made) = send(&router, Method::POST, "/api/studios/import", &whole).await;
        assert_eq!(status, 201, "{made}");
        let key = made["id"].as_str().unwrap().to_owned();
        let cold = timed(&router, &key, "", "outlook").await;
        println!("{size} pictures: the very first outlook {cold:.2?} s");
        let (_, outlook) =
            send(&router, Method::GET, &format!("/api/studios/{key}/outlook"), &Value::Null).await;
        let picture = outlook["pictures"][size / 2]["id"].as_str().unwrap().to_owned();
        let mut row = [f64::NAN; 6];
        for (a, (what, first_aim, next_aim)) in ASKED.iter().enumerate() {
            // What a painter does between edits: the views that are open are known.
            let _ = timed(&router, &key, &picture, what).await;
            edit(&router, &picture, a).await;
            let first = timed(&router, &key, &picture, what).await;
            let next = timed(&router, &key, &picture, what).await;
            row[a] = *first.as_ref().unwrap_or(&f64::NAN);
            println!(
                "{size:>4} pictures, {what:<8} first {first:.3?} s (aim {}), then {next:.4?} s (aim {}), ratio to the aim 1:{:.2}",
                first_aim[n],
                next_aim[n],
                first_aim[n] / row[a]
            );
        }
        firsts.push(row);
    }
    for (a, (what, ..)) in ASKED.iter().enumerate() {
        let grown: Vec<String> =
            firsts.windows(2).map(|w| format!("x{:.1}", w[1][a] / w[0][a])).collect();
        println!("{what}: from size to size {}", grown.join(", "));
    }
    pool.close().await;
    database.stop().await;
    let _ = std::fs::remove_dir_all(&folder);
}
