//! Steps that wait on purpose: it pays by half a day at least, and the wait says so.

use chrono::{DateTime, Duration, NaiveTime, Utc, Weekday};
use rand::{Rng, SeedableRng};
use rand_pcg::Pcg64Mcg;
use ulvek_core::air::{Air, AirSeries};
use ulvek_core::mix::{Mix, starter_shelf};
use ulvek_core::picture::{GROUNDS, Picture, ReadyBy, Step, StepKind};
use ulvek_core::planner::{Plan, Request, plan, ready};
use ulvek_core::studio::{OpenHours, Studio, StudioHours};

fn start() -> DateTime<Utc> {
    "2027-01-04T08:00:00Z".parse().unwrap()
}

/// What a coat is: its kind, its cup and its wet film [um].
type Cup = (StepKind, &'static [(&'static str, f64)], f64);

/// One picture: coats with and without retarder and slow paint, thin and thick, and one or two of varnish.
fn drawn(seed: u64) -> Studio {
    let draw = &mut Pcg64Mcg::seed_from_u64(seed);
    let cups: [Cup; 5] = [
        (StepKind::Pass, &[("heavy-pb29", 1.0)], 80.0),
        (StepKind::Pass, &[("heavy-pb29", 1.0)], 140.0),
        (StepKind::Glaze, &[("glazing", 9.0), ("heavy-pb29", 1.0)], 40.0),
        (StepKind::Glaze, &[("glazing", 8.0), ("heavy-pb29", 1.0), ("retarder", 1.0)], 40.0),
        (StepKind::Pass, &[("slow-pbr7", 2.0), ("heavy-pb29", 1.0)], 60.0),
    ];
    let step = |n: usize, (kind, cup, um): Cup| Step {
        mix: Mix::of(cup),
        wet_film_um: Some(um),
        ..Step::usual(format!("s{n}"), kind)
    };
    let coats = draw.random_range(2..=6);
    let mut steps: Vec<Step> =
        (0..coats).map(|n| step(n, cups[draw.random_range(0..cups.len())])).collect();
    for n in 0..draw.random_range(1..=2) {
        steps.push(step(coats + n, (StepKind::Varnish, &[("varnish-gloss", 1.0)], 45.0)));
    }
    let time = |h| NaiveTime::from_hms_opt(h, 0, 0).unwrap();
    let open = |n| OpenHours { day: Weekday::try_from(n).unwrap(), from: time(9), to: time(17) };
    let hours = StudioHours::try_new(chrono_tz::UTC, (0..7).map(open).collect(), vec![]).unwrap();
    let (c, rh) = (draw.random_range(19.0..23.0), draw.random_range(0.35..0.60));
    let ground = GROUNDS[draw.random_range(0..GROUNDS.len())].0;
    let due = Some((start() + Duration::days(60)).date_naive());
    Studio {
        materials: starter_shelf().unwrap(),
        pictures: vec![Picture { due, ground, ..Picture::new("p", (30.0, 40.0), steps) }],
        ..Studio::new("Room", hours, AirSeries::constant(Air::try_new(c, rh, 0.15).unwrap()))
    }
}

fn planned(studio: &Studio) -> (Plan, DateTime<Utc>) {
    let made = plan(Request { studio, from: start() });
    let at = ready(studio, &made, 0).unwrap().at.unwrap();
    (made, at)
}

#[test]
fn what_waits_on_purpose_makes_the_picture_ready_sooner() {
    let mut held = 0;
    for seed in 0..16 {
        let studio = drawn(seed);
        let (made, at) = planned(&studio);
        let days = |sooner: DateTime<Utc>| (at - sooner).num_minutes() as f64 / 1440.0;
        for back in &made.held {
            let step = made.steps.iter().find(|s| s.step == back.step).unwrap();
            let wait = step.wait.as_ref().unwrap();
            assert!(wait.said(&studio.pictures[0]).starts_with("Waits on purpose: "), "{wait:?}");
            held += 1;
        }
        // Whoever only wants it sealed has nothing to wait for.
        let mut sealed = studio.clone();
        sealed.pictures[0].ready_by = ReadyBy::Sealed;
        let (without, _) = planned(&sealed);
        assert_eq!(without.held, []);
        // The same work without waiting is ready later, as soon as anything waits at all.
        let last = |plan: &Plan| plan.pictures[0].finish.unwrap();
        assert!(made.held.is_empty() || last(&without) < last(&made), "seed {seed}");
        if !made.held.is_empty() {
            let by_wrap = ready(&studio, &without, 0).unwrap().at.unwrap();
            assert!(days(by_wrap) < -0.5, "seed {seed}: {:.2}", days(by_wrap));
        }
    }
    assert!(held >= 5, "{held}");
}
