//! The planner beside an independent solver: pumpkin-solver 0.5 (crates.io), a general constraint
//! solver that proves its optimum, on a seeded family of small instances with fixed waits.

use chrono::{DateTime, Duration, NaiveTime, Utc, Weekday};
use pumpkin_conflict_resolvers::resolvers::ResolutionResolver;
use pumpkin_solver::Solver;
use pumpkin_solver::core::constraints::Constraint;
use pumpkin_solver::core::optimisation::OptimisationDirection;
use pumpkin_solver::core::optimisation::linear_sat_unsat::LinearSatUnsat;
use pumpkin_solver::core::predicate;
use pumpkin_solver::core::results::{OptimisationResult, ProblemSolution, SolutionReference};
use pumpkin_solver::core::termination::Indefinite;
use pumpkin_solver::core::variables::{AffineView, DomainId, TransformableVariable};
use rand::{Rng, SeedableRng};
use rand_pcg::Pcg64Mcg;
use ulvek_core::air::{Air, AirSeries};
use ulvek_core::mix::Mix;
use ulvek_core::picture::{Picture, Step, StepKind};
use ulvek_core::planner::{Planner, Request};
use ulvek_core::studio::{OpenHours, Studio, StudioHours};

/// Unit of time of the model [min].
const UNIT: i64 = 5;
/// Length of the model's time [d].
const DAYS: i64 = 35;
const SET_UP_MIN: f64 = 10.0;
/// A weighted day late is worse than any sum of finishes.
const DAY_LATE: i32 = 60_000;

fn start() -> DateTime<Utc> {
    "2027-01-04T00:00:00Z".parse().unwrap()
}

/// Pictures in a row of steps without film, each with a mix of its own and a wait after the step
/// before; hours on four days of the week.
fn instance(seed: u64) -> Studio {
    let mut draw = Pcg64Mcg::seed_from_u64(seed);
    let time = |h| NaiveTime::from_hms_opt(h, 0, 0).unwrap();
    let hours = [Weekday::Mon, Weekday::Tue, Weekday::Thu, Weekday::Sat].map(|day| OpenHours {
        day,
        from: time(10),
        to: time(13),
    });
    let pictures = draw.random_range(2..=4);
    let steps = draw.random_range(2..=20 / pictures);
    let mut studio = Studio::new(
        "Bench",
        StudioHours::try_new(chrono_tz::UTC, hours.to_vec(), vec![]).unwrap(),
        AirSeries::constant(Air::try_new(21.0, 0.5, 0.15).unwrap()),
    );
    studio.setup_min = SET_UP_MIN;
    studio.pictures = (0..pictures)
        .map(|p| {
            let steps = (0..steps)
                .map(|i| Step {
                    hands_on_min: 5.0 * f64::from(draw.random_range(4..=20)),
                    splittable: false,
                    mix: Mix::of(&[("m", f64::from(p * 100 + i + 1))]),
                    earliest_gap_min: Some(5.0 * f64::from(draw.random_range(0..=400))),
                    ..Step::usual(format!("s{i}"), StepKind::Drawing)
                })
                .collect();
            Picture {
                weight: f64::from(draw.random_range(1..=3)),
                due: Some((start() + Duration::days(draw.random_range(2..14))).date_naive()),
                ..Picture::new(format!("p{p}"), (40.0, 50.0), steps)
            }
        })
        .collect();
    studio
}

/// Weighted days late and the sum of finishes [min] of the proved optimum, which is looked for up to
/// the plan `known`: the solver then either finds a better one or proves that there is none.
fn optimum(studio: &Studio, known: (f64, f64)) -> (f64, f64) {
    let mut solver = Solver::default();
    let tag = solver.new_constraint_tag();
    let units = |min: f64| (min / UNIT as f64).round() as i32;
    let set_up = units(SET_UP_MIN);
    let sessions = studio.hours.sessions(start(), start() + Duration::days(DAYS));
    let at = |t: DateTime<Utc>| ((t - start()).num_minutes() / UNIT) as i32;
    let mut tasks: Vec<(DomainId, i32)> = Vec::new();
    let mut terms: Vec<AffineView<DomainId>> = Vec::new();
    for picture in &studio.pictures {
        let mut before: Option<(DomainId, i32)> = None;
        for step in &picture.steps {
            let length = set_up + units(step.hands_on_min);
            let starts: Vec<i32> =
                sessions.iter().flat_map(|s| at(s.from)..=at(s.to) - length).collect();
            let begin = solver.new_sparse_integer(starts);
            if let Some((below, long)) = before {
                let wait = units(step.earliest_gap_min.unwrap());
                // Its own set-up may be done while it waits.
                let rhs = -(long + wait - set_up);
                let row = vec![below.scaled(1), begin.scaled(-1)];
                let post = pumpkin_constraints::less_than_or_equals(row, rhs, tag);
                solver.add_constraint(post).post();
                let order = pumpkin_constraints::less_than_or_equals(
                    vec![below.scaled(1), begin.scaled(-1)],
                    -long,
                    tag,
                );
                solver.add_constraint(order).post();
            }
            tasks.push((begin, length));
            before = Some((begin, length));
        }
        let (last, length) = before.unwrap();
        terms.push(last.scaled(1));
        // One day late for each midnight after the due day that passes before the end.
        let due = studio.hours.end_of(picture.due.unwrap());
        for day in 0..DAYS {
            let midnight = at(due + Duration::days(day));
            if midnight > (DAYS * 24 * 60 / UNIT) as i32 {
                break;
            }
            let late = solver.new_literal_for_predicate(predicate![last >= midnight - length], tag);
            terms.push(late.get_integer_variable().scaled(DAY_LATE * picture.weight as i32));
        }
    }
    for (n, (a, long)) in tasks.iter().enumerate() {
        for (b, other) in &tasks[n + 1..] {
            let first = solver.new_literal();
            for (x, y, length, literal) in [(a, b, long, first), (b, a, other, !first)] {
                pumpkin_constraints::less_than_or_equals(
                    vec![x.scaled(1), y.scaled(-1)],
                    -length,
                    tag,
                )
                .implied_by(&mut solver, literal);
            }
        }
    }
    let lengths: i32 =
        studio.pictures.iter().map(|p| set_up + units(p.steps.last().unwrap().hands_on_min)).sum();
    let most = known.0 as i32 * DAY_LATE + units(known.1) - lengths;
    let cost = solver.new_bounded_integer(0, most);
    terms.push(cost.scaled(-1));
    solver.add_constraint(pumpkin_constraints::equals(terms, 0, tag)).post();
    let mut brancher = solver.default_brancher();
    let seen =
        |_: &Solver, _: SolutionReference<'_>, _: &_, _: &_| std::ops::ControlFlow::Continue(());
    let found = solver.optimise(
        &mut brancher,
        &mut Indefinite,
        &mut ResolutionResolver::default(),
        LinearSatUnsat::new(OptimisationDirection::Minimise, cost, seen),
    );
    let OptimisationResult::<()>::Optimal(solution) = found else {
        panic!("the solver holds the plan for impossible")
    };
    let whole = solution.get_integer_value(cost);
    let sum = i64::from(whole % DAY_LATE + lengths) * UNIT;
    (f64::from(whole / DAY_LATE), sum as f64)
}

#[test]
fn the_search_finds_the_proved_optimum_of_every_small_instance() {
    for seed in 0..20 {
        let studio = instance(seed);
        let mut planner = Planner::new(Request { studio: &studio, from: start() });
        planner.improve(1, 20_000, |_| true);
        let made = planner.plan().objective;
        let found = (made.weighted_days_late, made.sum_of_finish_min);
        assert_eq!(found, optimum(&studio, found), "seed {seed}");
        let bound = planner.bound();
        assert!(bound.weighted_days_late <= found.0 && bound.sum_of_finish_min <= found.1);
    }
}
