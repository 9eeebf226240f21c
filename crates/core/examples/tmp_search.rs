#![allow(missing_docs, clippy::all)]
use chrono::{DateTime, Duration, NaiveTime, Utc, Weekday};
use rand::{Rng, SeedableRng};
use rand_pcg::Pcg64Mcg;
use std::time::Instant;
use ulvek_core::air::{Air, AirSeries};
use ulvek_core::mix::{Mix, starter_shelf};
use ulvek_core::picture::{Picture, Step, StepKind};
use ulvek_core::planner::{Planner, Request};
use ulvek_core::studio::{OpenHours, Studio, StudioHours};
fn start() -> DateTime<Utc> {
    "2027-01-04T08:00:00Z".parse().unwrap()
}
fn studio(seed: u64, pics: usize, most: usize) -> Studio {
    let mut d = Pcg64Mcg::seed_from_u64(seed);
    let t = |h| NaiveTime::from_hms_opt(h, 0, 0).unwrap();
    let mut hours: Vec<OpenHours> = [Weekday::Mon, Weekday::Wed, Weekday::Fri]
        .map(|day| OpenHours { day, from: t(17), to: t(20) })
        .to_vec();
    hours.push(OpenHours { day: Weekday::Sat, from: t(10), to: t(15) });
    let mut s = Studio {
        materials: starter_shelf().unwrap(),
        flat_places: 2,
        ..Studio::new(
            "B",
            StudioHours::try_new(chrono_tz::Europe::Oslo, hours, vec![]).unwrap(),
            AirSeries::constant(Air::try_new(21.0, 0.5, 0.15).unwrap()),
        )
    };
    s.pictures = (0..pics)
        .map(|p| {
            let n = d.random_range(3..=most);
            let steps = (0..n)
                .map(|i| {
                    let varnish = i + 1 == n && d.random_bool(0.5);
                    let kind = if varnish {
                        StepKind::Varnish
                    } else if i == 0 {
                        StepKind::Tone
                    } else {
                        [StepKind::Pass, StepKind::Glaze, StepKind::Scumble][d.random_range(0..3)]
                    };
                    let mix = if varnish {
                        Mix::one("varnish-gloss")
                    } else if kind == StepKind::Glaze {
                        Mix::of(&[("glazing", 9.0), ("fluid-pb15", 1.0)])
                    } else {
                        Mix::one(["heavy-pb29", "heavy-pbr7"][d.random_range(0..2)])
                    };
                    Step {
                        hands_on_min: [20.0, 30.0, 40.0, 60.0, 90.0][d.random_range(0..5)],
                        splittable: false,
                        mix,
                        wet_film_um: Some(d.random_range(30.0..100.0)),
                        ..Step::usual(format!("s{i}"), kind)
                    }
                })
                .collect();
            Picture {
                weight: f64::from(d.random_range(1..=3)),
                due: Some((start() + Duration::days(d.random_range(3..25))).date_naive()),
                ..Picture::new(format!("p{p}"), (30.0, 40.0), steps)
            }
        })
        .collect();
    s
}
fn main() {
    let arg = |n: usize| std::env::args().nth(n).unwrap().parse::<f64>().unwrap();
    let (pics, most, short, long, seeds) =
        (arg(1) as usize, arg(2) as usize, arg(3), arg(4), arg(5) as u64);
    for seed in (arg(6) as u64)..seeds {
        let s = studio(seed, pics, most);
        let run = |seconds: f64, seed: u64| {
            let mut p = Planner::new(Request { studio: &s, from: start() });
            let begun = Instant::now();
            p.improve(seed, u64::MAX / 2, |_| begun.elapsed().as_secs_f64() < seconds);
            let (tried, steps, best, films) =
                (p.tried(), p.steps_left(), p.plan().objective, p.progress().films);
            (tried, steps, best, p.bound(), films)
        };
        let a = run(short, 1);
        let b = run(long, 77);
        println!(
            "seed {seed} steps {} tried {} films {} late {} / {} (bound {}) sum ratio {:.4} bound ratio {:.3}",
            a.1,
            a.0,
            a.4,
            a.2.weighted_days_late,
            b.2.weighted_days_late,
            b.3.weighted_days_late,
            a.2.sum_of_finish_min / b.2.sum_of_finish_min,
            a.2.sum_of_finish_min / b.3.sum_of_finish_min
        );
    }
}
