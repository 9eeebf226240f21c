//! Speed of the drying model, printed as ratios: the planning grid against the fine grid, times that are
//! sure against plain ones, and what a touch test costs.
#![allow(missing_docs, clippy::unwrap_used, clippy::print_stdout)]

use chrono::{DateTime, Duration, Utc};
use std::sync::Arc;
use std::time::Instant;
use ulvek_core::air::{Air, AirSeries};
use ulvek_core::film::{Course, Film, FilmState, Futures, Grid, Ground, HORIZON_S, Habit};
use ulvek_core::mix::{Composition, Mix, starter_shelf};
use ulvek_core::picture::{Picture, Step, StepKind, Touch, TouchTest};
use ulvek_core::quantity::Sure;
use ulvek_core::studio::{Studio, StudioHours};

const DAY: f64 = 86_400.0;

/// Ordinary heavy paint, docs/model/drying.md. [memory]
fn heavy() -> Composition {
    Composition::try_new(0.42, 0.53, 0.05).unwrap()
}

fn room() -> AirSeries {
    AirSeries::constant(Air::try_new(21.0, 0.5, 0.15).unwrap())
}

/// One coat of 100 um followed for ten days.
fn one_coat(grid: Grid) -> f64 {
    let mut film = Film::new(Ground::SEALED, 0.4, grid, 0.0);
    film.lay(100e-6, heavy());
    film.advance(&room(), 10.0 * DAY, None).unwrap();
    film.events().at(FilmState::DryThrough).unwrap()
}

/// Twenty coats of 60 um, one every two days, followed for 60 days.
fn twenty_coats(grid: Grid) -> f64 {
    let mut film = Film::new(Ground::SEALED, 0.4, grid, 0.0);
    for coat in 0..20 {
        film.advance(&room(), f64::from(coat) * 2.0 * DAY, None).unwrap();
        film.lay(60e-6, heavy());
    }
    film.advance(&room(), 60.0 * DAY, None).unwrap();
    film.advance(&room(), HORIZON_S, Some(FilmState::DryThrough)).unwrap();
    film.events().at(FilmState::DryThrough).unwrap()
}

/// The same coats on the planning grid, with the states of each, as `futures` have it.
fn twenty_coats_in(futures: &Arc<Futures>) -> f64 {
    let mut course = Course::bare(futures.clone(), (Ground::SEALED, 0.4), Grid::PLANNING, 0.0);
    let mut last = 0.0;
    for coat in 0..20 {
        let at = f64::from(coat) * 2.0 * DAY;
        course.lay(at, 60e-6, heavy()).unwrap();
        course.advance(at + 2.0 * DAY, Some(FilmState::Paintable)).unwrap();
        last = course.events().unwrap().at(FilmState::Paintable).unwrap();
    }
    last
}

/// A studio of ten pictures with two coats each, both touched twice.
fn touched() -> Studio {
    let hours = StudioHours::try_new(chrono_tz::UTC, vec![], vec![]).unwrap();
    let begin: DateTime<Utc> = "2027-01-04T10:00:00Z".parse().unwrap();
    let coat = |id: &str, hours: i64| Step {
        mix: Mix::one("heavy-pb29"),
        laid_at: Some(begin + Duration::hours(hours)),
        ..Step::usual(id, StepKind::Pass)
    };
    let test = |step: &str, hours: i64, min: i64, felt| TouchTest {
        at: begin + Duration::hours(hours) + Duration::minutes(min),
        step: step.into(),
        felt,
    };
    let picture = |n: i64| Picture {
        tests: vec![
            test("a", 24 * n, 20, Touch::Wet),
            test("a", 24 * n, 45, Touch::Dry),
            test("b", 24 * n + 5, 20, Touch::Tacky),
            test("b", 24 * n + 5, 50, Touch::Dry),
        ],
        ..Picture::new(
            format!("p{n}"),
            (30.0, 40.0),
            vec![coat("a", 24 * n), coat("b", 24 * n + 5)],
        )
    };
    Studio {
        materials: starter_shelf().unwrap(),
        pictures: (0..10).map(picture).collect(),
        ..Studio::new("Bench", hours, room())
    }
}

/// Median of seven runs [ms] and the result.
fn median(run: impl Fn() -> f64) -> (f64, f64) {
    let mut times = Vec::new();
    let mut result = 0.0;
    for _ in 0..7 {
        let start = Instant::now();
        result = run();
        times.push(start.elapsed().as_secs_f64() * 1e3);
    }
    times.sort_by(f64::total_cmp);
    (times[3], result)
}

fn main() {
    for (name, run) in
        [("one coat, 10 days", one_coat as fn(Grid) -> f64), ("20 coats, 60 days", twenty_coats)]
    {
        let (planning, a) = median(|| run(Grid::PLANNING));
        let (fine, b) = median(|| run(Grid::FINE));
        println!(
            "{name}: planning {planning:.2} ms, fine {fine:.1} ms, ratio 1:{:.0}; dry through differs by {:+.1} %",
            fine / planning,
            (a / b - 1.0) * 100.0
        );
    }
    let plain = Arc::new(Futures::plain(room()));
    let sure = Arc::new(Futures::sure(Sure::USUAL, &Habit::BOOK, &room(), None));
    let (a, _) = median(|| twenty_coats_in(&plain));
    let (b, _) = median(|| twenty_coats_in(&sure));
    println!("20 coats with their states: plain {a:.2} ms, sure {b:.2} ms, ratio {:.2}", b / a);
    let studio = touched();
    let (a, _) = median(|| studio.clone().learn().habit.pace.ln);
    println!("learning from 40 tests of 20 coats: {a:.1} ms, {:.2} ms a coat", a / 20.0);
}
