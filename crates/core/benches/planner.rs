//! Speed and quality of the planner, printed as ratios to the aims of docs/planning.md.
#![allow(missing_docs, clippy::unwrap_used, clippy::print_stdout)]

use chrono::{DateTime, Duration, NaiveTime, Utc, Weekday};
use std::time::Instant;
use ulvek_core::air::{Air, AirSeries};
use ulvek_core::mix::{Mix, Part, starter_shelf};
use ulvek_core::picture::{Picture, Step, StepKind};
use ulvek_core::planner::{Aim, Planner, Request, odds};
use ulvek_core::studio::{OpenHours, Studio, StudioHours};

fn from() -> DateTime<Utc> {
    "2027-01-04T08:00:00Z".parse().unwrap()
}

/// `pictures` of `steps` steps each: tone, passes and glazes, photograph, varnish; hours on six
/// days of the week, due dates over the year.
fn studio(pictures: usize, steps: usize) -> Studio {
    use Weekday::{Fri, Mon, Sat, Thu, Tue, Wed};
    let time = |h| NaiveTime::from_hms_opt(h, 0, 0).unwrap();
    let hours =
        [Mon, Tue, Wed, Thu, Fri, Sat].map(|day| OpenHours { day, from: time(9), to: time(17) });
    let mix = |parts: &[(&str, f64)]| {
        parts.iter().map(|(m, parts)| Part { material: (*m).into(), parts: *parts }).collect()
    };
    let step = |p: usize, i: usize| {
        let (kind, cup): (_, Mix) = match i {
            0 => (StepKind::Tone, mix(&[("heavy-pbr7", 1.0)])),
            i if i + 1 == steps => (StepKind::Varnish, mix(&[("varnish-gloss", 1.0)])),
            i if i + 2 == steps => (StepKind::Photograph, Mix::default()),
            i if i % 2 == 1 => {
                let parts = 7.0 + ((p + i) % 3) as f64;
                (StepKind::Glaze, mix(&[("glazing", parts), ("fluid-pb15", 1.0)]))
            }
            _ => (StepKind::Pass, mix(&[("heavy-pb29", 1.0)])),
        };
        Step { mix: cup, splittable: false, ..Step::usual(format!("s{i}"), kind) }
    };
    Studio {
        materials: starter_shelf().unwrap(),
        flat_places: 2,
        pictures: (0..pictures)
            .map(|p| Picture {
                weight: 1.0 + (p % 3) as f64,
                due: Some((from() + Duration::days(21 + (p * 8 % 330) as i64)).date_naive()),
                ..Picture::new(
                    format!("p{p}"),
                    (30.0, 40.0),
                    (0..steps).map(|i| step(p, i)).collect(),
                )
            })
            .collect(),
        ..Studio::new(
            "Bench",
            StudioHours::try_new(chrono_tz::Europe::Oslo, hours.to_vec(), vec![]).unwrap(),
            AirSeries::constant(Air::try_new(21.0, 0.5, 0.15).unwrap()),
        )
    }
}

/// Seconds that `run` takes, and what it makes.
fn timed<T>(run: impl FnOnce() -> T) -> (f64, T) {
    let start = Instant::now();
    let made = run();
    (start.elapsed().as_secs_f64(), made)
}

fn main() {
    let studio = self::studio(40, 15);
    let (first, planner) = timed(|| Planner::new(Request { studio: &studio, from: from() }));
    println!("40 pictures, 600 steps: first plan {first:.2} s, ratio to 1 s 1:{:.1}", 1.0 / first);

    // One step in each of several pictures: what moves with it differs much.
    let mut again: Vec<f64> = (0..8)
        .map(|n| {
            let mut changed = studio.clone();
            changed.pictures[5 * n].steps[12].wet_film_um = Some(44.0);
            let copy = planner.clone();
            timed(|| copy.turn_to(&changed, from()).plan()).0
        })
        .collect();
    again.sort_by(f64::total_cmp);
    println!(
        "a change of one step: planned again in {:.0} to {:.0} ms, ratio of the median to 100 ms 1:{:.1}",
        again[0] * 1e3,
        again[7] * 1e3,
        0.1 / again[4]
    );

    let mut searched = planner.clone();
    let start = Instant::now();
    // SEARCH_S=120 searches longer.
    let seconds: f64 = std::env::var("SEARCH_S").ok().and_then(|s| s.parse().ok()).unwrap_or(20.0);
    searched.improve(1, u64::MAX / 2, |_| start.elapsed().as_secs_f64() < seconds);
    let (was, is, bound) = (planner.plan().objective, searched.plan().objective, searched.bound());
    println!(
        "{seconds} s of search, {} orders: days late {} to {} (bound {}), sum of finishes to {:.3} of the first \
         plan's, {:.3} of the bound",
        searched.tried(),
        was.weighted_days_late,
        is.weighted_days_late,
        bound.weighted_days_late,
        is.sum_of_finish_min / was.sum_of_finish_min,
        is.sum_of_finish_min / bound.sum_of_finish_min
    );

    let one = self::studio(1, 14);
    let planner = Planner::new(Request { studio: &one, from: from() });
    let (futures, _) = timed(|| {
        let request = Request { studio: &one, from: from() };
        odds(request, (&planner.order(), &[]), 1, (400, 2), Aim::Finish, |_| {})
    });
    println!(
        "400 futures of a 12-coat picture on two threads: {futures:.2} s, ratio to 1 s 1:{:.1}",
        1.0 / futures
    );

    let mut base = 0.0;
    for pictures in [5, 10, 20, 40, 80] {
        let studio = self::studio(pictures, 15);
        let (took, _) = timed(|| Planner::new(Request { studio: &studio, from: from() }));
        if pictures == 5 {
            base = took;
        }
        println!(
            "{pictures} pictures: first plan {took:.2} s, {:.1} times that of 5, {:.2} of it a picture",
            took / base,
            took / base / pictures as f64 * 5.0
        );
    }
}
