//! The search beside brute force: every order of a few steps is tried, with films, shared mixes and
//! set-ups that the constraint model of `planner_optimum.rs` leaves out.

use chrono::{DateTime, Duration, NaiveTime, Utc, Weekday};
use rand::{Rng, SeedableRng};
use rand_pcg::Pcg64Mcg;
use ulvek_core::air::{Air, AirSeries};
use ulvek_core::mix::{Mix, starter_shelf};
use ulvek_core::picture::{Picture, ReadyBy, Step, StepKind};
use ulvek_core::planner::{Planner, Request, plan};
use ulvek_core::studio::{OpenHours, OrderEntry, Studio, StudioHours};

fn start() -> DateTime<Utc> {
    "2027-01-04T08:00:00Z".parse().unwrap()
}

/// Three pictures of two or three coats from two cups, in few hours; every second time ready when safe to wrap.
fn studio(seed: u64) -> Studio {
    let mut draw = Pcg64Mcg::seed_from_u64(seed);
    let time = |h| NaiveTime::from_hms_opt(h, 0, 0).unwrap();
    let hours = [Weekday::Mon, Weekday::Wed, Weekday::Sat].map(|day| OpenHours {
        day,
        from: time(10),
        to: time(12),
    });
    let mut studio = Studio {
        materials: starter_shelf().unwrap(),
        flat_places: 1,
        ..Studio::new(
            "Brute",
            StudioHours::try_new(chrono_tz::UTC, hours.to_vec(), vec![]).unwrap(),
            AirSeries::constant(Air::try_new(21.0, 0.5, 0.15).unwrap()),
        )
    };
    studio.pictures = (0..3)
        .map(|p| {
            let coats = draw.random_range(2..=3);
            let steps = (0..coats)
                .map(|i| {
                    let cup = ["heavy-pbr7", "heavy-pb29"][draw.random_range(0..2)];
                    let kind = if i == 2 { StepKind::Glaze } else { StepKind::Pass };
                    Step {
                        hands_on_min: f64::from(draw.random_range(4..=11)) * 5.0,
                        splittable: false,
                        mix: Mix::one(cup),
                        wet_film_um: Some(f64::from(draw.random_range(30..=90))),
                        ..Step::usual(format!("s{i}"), kind)
                    }
                })
                .collect();
            Picture {
                ready_by: if seed.is_multiple_of(2) { ReadyBy::Sealed } else { ReadyBy::Wrapped },
                weight: f64::from(draw.random_range(1..=3)),
                due: Some((start() + Duration::days(draw.random_range(0..7))).date_naive()),
                ..Picture::new(format!("p{p}"), (20.0, 30.0), steps)
            }
        })
        .collect();
    studio
}

/// Every order in which the pictures can take their turns.
fn orders(left: &mut Vec<usize>, so_far: &mut Vec<usize>, all: &mut Vec<Vec<usize>>) {
    if left.iter().all(|n| *n == 0) {
        all.push(so_far.clone());
        return;
    }
    for p in 0..left.len() {
        if left[p] > 0 {
            left[p] -= 1;
            so_far.push(p);
            orders(left, so_far, all);
            so_far.pop();
            left[p] += 1;
        }
    }
}

#[test]
fn no_order_of_a_few_steps_is_better_than_the_one_that_is_found() {
    for seed in 0..5 {
        let mut studio = studio(seed);
        let mut all = Vec::new();
        let mut left: Vec<usize> = studio.pictures.iter().map(|p| p.steps.len()).collect();
        orders(&mut left, &mut Vec::new(), &mut all);
        assert!(all.len() >= 90);
        let mut planner = Planner::new(Request { studio: &studio, from: start() });
        planner.improve(1, 3000, |_| true);
        let found = planner.plan().objective;
        let mut best = (f64::INFINITY, f64::INFINITY);
        for order in &all {
            let mut next = [0; 3];
            studio.order = order
                .iter()
                .map(|p| {
                    next[*p] += 1;
                    OrderEntry { picture: format!("p{p}"), step: format!("s{}", next[*p] - 1) }
                })
                .collect();
            let made = plan(Request { studio: &studio, from: start() }).objective;
            let worth = (made.weighted_days_late, made.sum_of_finish_min);
            if worth < best {
                best = worth;
            }
        }
        // When a film is safe to wrap hangs on each minute between its coats.
        let spare = if seed.is_multiple_of(2) { 1.0 } else { 1.0005 };
        assert_eq!(found.weighted_days_late, best.0, "seed {seed}");
        assert!(found.sum_of_finish_min <= best.1 * spare, "seed {seed}: {found:?}, {best:?}");
    }
}
