//! What the first plan and short searches come to beside ten simple rules and a long search, over random studios of
//! four to twelve pictures; weighted days late, and the sum of finishes as ratios. `LONG_S` is how long the long
//! search takes [s]. With `LESS` it says instead how often less of something (a lost week, shorter hours) makes plans
//! better, which it should not, in `STUDIOS` studios; with `FIRST` of first plans alone.
#![allow(missing_docs, clippy::unwrap_used, clippy::print_stdout)]

use chrono::{DateTime, Duration, NaiveTime, Utc, Weekday};
use rand::{Rng, SeedableRng};
use rand_pcg::Pcg64Mcg;
use std::time::Instant;
use ulvek_core::air::{Air, AirSeries};
use ulvek_core::mix::{Part, starter_shelf};
use ulvek_core::picture::{Picture, Step, StepKind};
use ulvek_core::planner::{Objective, Plan, Planner, Request, plan};
use ulvek_core::studio::daylight::Place;
use ulvek_core::studio::{Closed, OpenHours, OrderEntry, Schools, Studio, StudioHours, Waiting};

/// Studios that are drawn.
const STUDIOS: u64 = 12;

fn from() -> DateTime<Utc> {
    "2027-01-04T08:00:00Z".parse().unwrap()
}

/// A studio of a few pictures with dates that lie close, a few hours a day and one or two flat places.
fn drawn(draw: &mut Pcg64Mcg) -> Studio {
    type Cup<'a> = (StepKind, &'a [(&'a str, f64)], f64);
    let cups: [Cup<'_>; 5] = [
        (StepKind::Pass, &[("heavy-pb29", 1.0)], 80.0),
        (StepKind::Pass, &[("heavy-pb29", 1.0)], 140.0),
        (StepKind::Glaze, &[("glazing", 9.0), ("heavy-pb29", 1.0)], 40.0),
        (StepKind::Glaze, &[("matte-medium", 9.0), ("fluid-pb15", 1.0)], 40.0),
        (StepKind::Glaze, &[("glazing", 8.0), ("heavy-pb29", 1.0), ("retarder", 1.0)], 40.0),
    ];
    let varnish: Cup<'_> = (StepKind::Varnish, &[("varnish-gloss", 1.0)], 45.0);
    let pictures = draw.random_range(4..=12);
    let mut picture = |p: usize| {
        let coats = draw.random_range(4..=9);
        let mut step = |n: usize| {
            let (kind, cup, um) = if n < coats { cups[draw.random_range(0..5)] } else { varnish };
            let part = |(m, parts): &(&str, f64)| Part { material: (*m).into(), parts: *parts };
            Step {
                mix: cup.iter().map(part).collect(),
                wet_film_um: Some(um),
                hands_on_min: f64::from(draw.random_range(2..=10) * 15),
                ..Step::usual(format!("s{n}"), kind)
            }
        };
        let steps = (0..=coats).map(&mut step).collect();
        let due = from() + Duration::days(draw.random_range(12..=40));
        Picture {
            due: Some(due.date_naive()),
            weight: f64::from(draw.random_range(1..=3)),
            ..Picture::new(format!("p{p}"), (30.0, 40.0), steps)
        }
    };
    let pictures: Vec<Picture> = (0..pictures).map(&mut picture).collect();
    let time = |h| NaiveTime::from_hms_opt(h, 0, 0).unwrap();
    let to = draw.random_range(12..=15);
    let open = |n| OpenHours { day: Weekday::try_from(n).unwrap(), from: time(9), to: time(to) };
    let hours = StudioHours::try_new(chrono_tz::UTC, (0..5).map(open).collect(), vec![]).unwrap();
    Studio {
        materials: starter_shelf().unwrap(),
        pictures,
        flat_places: draw.random_range(1..=2),
        ..Studio::new("Bench", hours, AirSeries::constant(Air::try_new(21.0, 0.5, 0.15).unwrap()))
    }
}

/// The order of pictures in turn, or of their steps in turn.
fn order(studio: &Studio, pictures: &[usize], in_turn: bool) -> Vec<OrderEntry> {
    let most = studio.pictures.iter().map(|p| p.steps.len()).max().unwrap_or(0);
    let entry = |p: usize, i: usize| {
        let picture = &studio.pictures[p];
        let step = picture.steps.get(i)?;
        Some(OrderEntry { picture: picture.id.clone(), step: step.id.clone() })
    };
    if in_turn {
        pictures.iter().flat_map(|p| (0..most).filter_map(move |i| entry(*p, i))).collect()
    } else {
        (0..most).flat_map(|i| pictures.iter().filter_map(move |p| entry(*p, i))).collect()
    }
}

/// The best of ten simple rules: five rankings of the pictures, each picture in turn or step by step.
fn by_rules(studio: &Studio) -> Objective {
    let all = 0..studio.pictures.len();
    let work = |p: usize| studio.pictures[p].steps.iter().map(|s| s.hands_on_min).sum::<f64>();
    let due = |p: usize| (studio.pictures[p].due.unwrap() - from().date_naive()).num_days() as f64;
    let keys: [&dyn Fn(usize) -> f64; 5] = [
        &due,
        &work,
        &|p| -studio.pictures[p].weight / work(p),
        &|p| due(p) - 3.0 * studio.pictures[p].steps.len() as f64,
        &|p| due(p) / studio.pictures[p].weight,
    ];
    let plans = keys.iter().flat_map(|key| {
        let mut turns: Vec<usize> = all.clone().collect();
        turns.sort_by(|a, b| key(*a).total_cmp(&key(*b)));
        [true, false].map(|in_turn| {
            let ordered = Studio { order: order(studio, &turns, in_turn), ..studio.clone() };
            let made = plan(Request { studio: &ordered, from: from() });
            made.objective
        })
    });
    plans.min_by(|a, b| key(a).partial_cmp(&key(b)).unwrap()).unwrap()
}

fn key(o: &Objective) -> (f64, f64) {
    (o.weighted_days_late, o.sum_of_finish_min)
}

fn searched(studio: &Studio, seconds: f64) -> Plan {
    let start = Instant::now();
    let mut planner = Planner::new(Request { studio, from: from() });
    let seeds = [1, 2];
    planner.improve_beside(&seeds, u64::MAX / 2, |_| start.elapsed().as_secs_f64() < seconds);
    planner.plan()
}

/// The studio with less of what it has: a lost week, hours that end one earlier, a patient school, daylight only,
/// one step more.
fn with_less(studio: &Studio) -> Vec<(&'static str, Studio)> {
    let hours = |earlier: i64, closed: Vec<Closed>| {
        let open = studio.hours.weekly().iter();
        let open = open.map(|o| OpenHours { to: o.to - Duration::hours(earlier), ..*o });
        StudioHours::try_new(chrono_tz::UTC, open.collect(), closed).unwrap()
    };
    let week = |n| from().date_naive() + Duration::days(n);
    let lost = Closed { from: week(7), to: week(13) };
    let mut longer = studio.clone();
    let steps = &mut longer.pictures[0].steps;
    let more = Step { id: "more".into(), ..steps[0].clone() };
    steps.insert(0, more);
    let patient = Schools { waiting: Waiting::Patient, ..studio.schools };
    // North and east [deg]: long nights in January.
    let light = Place::try_new(54.0, 10.0).unwrap();
    vec![
        ("lost week", Studio { hours: hours(0, vec![lost]), ..studio.clone() }),
        ("an hour less", Studio { hours: hours(1, vec![]), ..studio.clone() }),
        ("patient", Studio { schools: patient, ..studio.clone() }),
        ("daylight", Studio { daylight: Some(light), ..studio.clone() }),
        ("a step more", longer),
    ]
}

/// By how much the finishes must be sooner to count [-]. [practice]
const SOONER: f64 = 0.005;
/// How long each search takes that is compared [s]. [practice]
const SEARCH_S: f64 = 2.0;

/// How often less of something made the plan better, and by how much, of first plans and after a search.
fn compare_less() {
    let most: u64 = std::env::var("STUDIOS").ok().and_then(|s| s.parse().ok()).unwrap_or(STUDIOS);
    let by: [&dyn Fn(&Studio) -> Plan; 2] =
        [&|s| plan(Request { studio: s, from: from() }), &|s| searched(s, SEARCH_S)];
    let by = if std::env::var_os("FIRST").is_some() { &by[..1] } else { &by[..] };
    for (n, made) in by.iter().enumerate() {
        let mut table = std::collections::BTreeMap::<&str, (u32, u32, f64, f64)>::new();
        for seed in 0..most {
            let studio = drawn(&mut Pcg64Mcg::seed_from_u64(seed));
            let whole = made(&studio).objective;
            for (what, less) in with_less(&studio) {
                let less = made(&less);
                // What does not fit into shorter hours is not late, it is not there.
                if less.pictures.iter().any(|p| p.ready.is_none()) {
                    continue;
                }
                let less = less.objective;
                let row = table.entry(what).or_default();
                let days = whole.weighted_days_late - less.weighted_days_late;
                let finish = 1.0 - less.sum_of_finish_min / whole.sum_of_finish_min;
                if days > 0.0 {
                    row.0 += 1;
                    row.2 = row.2.max(days);
                }
                if days == 0.0 && finish > SOONER {
                    row.1 += 1;
                    row.3 = row.3.max(finish);
                }
            }
        }
        println!("{}", ["first plan", "searched"][n]);
        for (what, (late, soon, days, share)) in table {
            println!(
                "  {what}: {late} less late (by {days} at most), {soon} sooner by over {SOONER} ({share:.3}) of {most}"
            );
        }
    }
}

fn main() {
    if std::env::var_os("LESS").is_some() {
        compare_less();
        return;
    }
    let long: f64 = std::env::var("LONG_S").ok().and_then(|s| s.parse().ok()).unwrap_or(60.0);
    println!(
        "pictures, steps: late by the first plan (s), the best rule, 1 s, 5 s, {long} s; finishes beside the last"
    );
    let mut sums = [0.0; 5];
    let one: Option<u64> = std::env::var("ONE").ok().and_then(|s| s.parse().ok());
    for seed in (0..STUDIOS).filter(|n| one.is_none_or(|one| one == *n)) {
        let studio = drawn(&mut Pcg64Mcg::seed_from_u64(seed));
        let start = Instant::now();
        let first = plan(Request { studio: &studio, from: from() }).objective;
        let took = start.elapsed().as_secs_f64();
        let rest = [1.0, 5.0, long].map(|s| searched(&studio, s).objective);
        let all = [first, by_rules(&studio), rest[0], rest[1], rest[2]];
        let steps: usize = studio.pictures.iter().map(|p| p.steps.len()).sum();
        let late = all.map(|o| o.weighted_days_late);
        let ratio = all.map(|o| o.sum_of_finish_min / rest[2].sum_of_finish_min);
        println!(
            "{:2}, {steps:2}: {:5} ({took:.2}) {:5} {:5} {:5} {:5}; {:.3} {:.3} {:.3} {:.3}",
            studio.pictures.len(),
            late[0],
            late[1],
            late[2],
            late[3],
            late[4],
            ratio[0],
            ratio[1],
            ratio[2],
            ratio[3]
        );
        for (sum, late) in sums.iter_mut().zip(late) {
            *sum += late;
        }
    }
    println!("in all: {sums:?}");
}
