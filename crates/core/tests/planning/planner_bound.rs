//! The bound and the calendar on cases that are worked by hand.

use chrono::{DateTime, Duration, NaiveDate, NaiveTime, Utc, Weekday};
use ulvek_core::air::{Air, AirSeries};
use ulvek_core::picture::{Picture, Step, StepKind};
use ulvek_core::planner::{Blocked, Planner, Request, plan};
use ulvek_core::readiness::WaitReason;
use ulvek_core::studio::{Closed, OpenHours, Studio, StudioHours};

/// Monday, the first of March.
fn monday() -> DateTime<Utc> {
    "2027-03-01T00:00:00Z".parse().unwrap()
}

fn day(n: u32) -> NaiveDate {
    NaiveDate::from_ymd_opt(2027, 3, n).unwrap()
}

/// An hour on every day, no set-up: pictures of one step of `minutes`, due on a day of March.
fn an_hour_a_day(pictures: &[(f64, u32, f64)]) -> Studio {
    use Weekday::{Fri, Mon, Sat, Sun, Thu, Tue, Wed};
    let time = |h| NaiveTime::from_hms_opt(h, 0, 0).unwrap();
    let hours = [Mon, Tue, Wed, Thu, Fri, Sat, Sun].map(|day| OpenHours {
        day,
        from: time(12),
        to: time(13),
    });
    let mut studio = Studio::new(
        "Hand",
        StudioHours::try_new(chrono_tz::UTC, hours.to_vec(), vec![]).unwrap(),
        AirSeries::constant(Air::try_new(21.0, 0.5, 0.15).unwrap()),
    );
    studio.setup_min = 0.0;
    studio.pictures = pictures
        .iter()
        .enumerate()
        .map(|(p, (minutes, due, weight))| {
            let step = Step {
                hands_on_min: *minutes,
                splittable: false,
                ..Step::usual("s", StepKind::Drawing)
            };
            Picture {
                due: Some(day(*due)),
                weight: *weight,
                ..Picture::new(format!("p{p}"), (20.0, 20.0), vec![step])
            }
        })
        .collect();
    studio
}

#[test]
fn pictures_that_crowd_one_day_are_late_by_what_the_hours_say() {
    // Three pictures of an hour, all due on the first: one each on the 1st, 2nd and 3rd. The
    // heaviest goes first: 0 * 3 + 1 * 2 + 2 * 1 = 4 weighted days; finishes at 13, 37, 61 h.
    let studio = an_hour_a_day(&[(60.0, 1, 1.0), (60.0, 1, 3.0), (60.0, 1, 2.0)]);
    let mut planner = Planner::new(Request { studio: &studio, from: monday() });
    let bound = planner.bound();
    assert_eq!(bound.weighted_days_late, 4.0);
    assert_eq!(bound.sum_of_finish_min, 60.0 * (13.0 + 37.0 + 61.0));
    planner.improve(1, 500, |_| true);
    let found = planner.plan().objective;
    assert_eq!((found.weighted_days_late, found.sum_of_finish_min), (4.0, 6660.0));
    assert!(planner.is_at_bound(), "the plan reaches the bound");
}

#[test]
fn short_work_before_long_makes_the_sum_small() {
    // 20 and 40 minutes fit into the first hour, 60 into the second: 12:20, 13:00, 37:00 h. Any
    // other order finishes something later (shortest work first, Smith 1956).
    let studio = an_hour_a_day(&[(60.0, 9, 1.0), (40.0, 9, 1.0), (20.0, 9, 1.0)]);
    let mut planner = Planner::new(Request { studio: &studio, from: monday() });
    planner.improve(1, 500, |_| true);
    let sum = 60.0 * (12.0 + 13.0 + 37.0) + 20.0;
    assert_eq!(planner.plan().objective.sum_of_finish_min, sum);
    assert_eq!(planner.bound().sum_of_finish_min, sum);
}

#[test]
fn days_off_and_pins_are_taken_out_of_the_hours() {
    let mut studio = an_hour_a_day(&[(60.0, 9, 1.0), (30.0, 9, 1.0)]);
    let weekly = studio.hours.weekly().to_vec();
    let off = vec![Closed { from: day(1), to: day(2) }];
    studio.hours = StudioHours::try_new(chrono_tz::UTC, weekly, off).unwrap();
    // The second picture is pinned into the middle of the first free hour: the first one, which
    // needs the whole of an hour, moves on to the fourth.
    let pin = monday() + Duration::hours(2 * 24 + 12) + Duration::minutes(15);
    studio.pictures[1].steps[0].pinned_at = Some(pin);
    let made = plan(Request { studio: &studio, from: monday() });
    let from = |p: usize| made.steps.iter().find(|s| s.picture == p).unwrap().sittings[0].from;
    assert_eq!(from(1), pin);
    assert_eq!(from(0), monday() + Duration::hours(3 * 24 + 12));
}

#[test]
fn the_time_of_a_pinned_step_is_not_counted_twice() {
    // Pinned into the first hour, the other takes the second: finishes at 13 and 37 h.
    let mut studio = an_hour_a_day(&[(60.0, 9, 1.0), (60.0, 9, 1.0)]);
    studio.pictures[0].steps[0].pinned_at = Some(monday() + Duration::hours(12));
    let mut planner = Planner::new(Request { studio: &studio, from: monday() });
    assert_eq!(planner.plan().objective.sum_of_finish_min, 60.0 * (13.0 + 37.0));
    assert!(planner.bound().sum_of_finish_min <= 60.0 * (13.0 + 37.0));
}

#[test]
fn a_step_not_before_a_day_waits_and_a_step_of_61_minutes_fits_no_hour() {
    let mut studio = an_hour_a_day(&[(60.0, 9, 1.0), (61.0, 9, 1.0)]);
    let friday = monday() + Duration::days(4);
    studio.pictures[0].steps[0].not_before = Some(friday);
    let mut second = studio.pictures[0].steps[0].clone();
    second.id = "t".into();
    second.not_before = None;
    second.earliest_gap_min = Some(48.0 * 60.0);
    studio.pictures[0].steps.push(second);
    let mut planner = Planner::new(Request { studio: &studio, from: monday() });
    planner.improve(1, 100, |_| true);
    let made = planner.plan();
    let steps: Vec<_> = made.steps.iter().filter(|s| s.picture == 0).collect();
    assert_eq!(steps[0].sittings[0].from, friday + Duration::hours(12));
    // 48 hours after 13:00 on Friday is 13:00 on Sunday, when that hour is over.
    assert_eq!(steps[1].sittings[0].from, friday + Duration::hours(3 * 24 + 12));
    assert_eq!(steps[1].wait.as_ref().unwrap().reason, WaitReason::Gap);
    let blocked = made.steps.iter().find(|s| s.picture == 1).unwrap().blocked.clone();
    assert_eq!(blocked, Some(Blocked::TooLong { needed: 61.0, longest: 60.0 }));
    assert_eq!(made.pictures[1].finish, None, "and the other picture is planned all the same");
}

#[test]
fn a_long_step_that_may_be_split_takes_the_hours_of_three_days() {
    let mut studio = an_hour_a_day(&[(150.0, 2, 1.0)]);
    studio.pictures[0].steps[0].splittable = true;
    let mut planner = Planner::new(Request { studio: &studio, from: monday() });
    let made = planner.plan();
    let minutes: Vec<i64> =
        made.steps[0].sittings.iter().map(|s| (s.to - s.from).num_minutes()).collect();
    assert_eq!(minutes, [60, 60, 30]);
    assert_eq!(made.pictures[0].days_late, Some(1));
    assert_eq!(planner.bound().weighted_days_late, 1.0);
    assert_eq!(planner.earliest_finish(0), made.pictures[0].finish);
}

#[test]
fn no_plan_that_is_found_is_better_than_the_bound() {
    // Films, floors and few hours: any order of work is a plan, and none may beat what is called a bound.
    use ulvek_core::mix::{Mix, starter_shelf};
    for seed in 0..12_u64 {
        let mut studio = an_hour_a_day(&[]);
        studio.materials = starter_shelf().unwrap();
        let kinds = [
            (StepKind::Pass, "slow-pbr7"),
            (StepKind::Glaze, "glazing"),
            (StepKind::Pass, "heavy-pb29"),
        ];
        let step = |p: u64, i: u64| {
            let (kind, paint) = kinds[((p * 7 + i * 5 + seed) % 3) as usize];
            let hands_on_min = (20 + (p * 13 + i * 11 + seed * 3) % 4 * 10) as f64;
            Step { hands_on_min, mix: Mix::one(paint), ..Step::usual(format!("s{i}"), kind) }
        };
        let seal =
            || Step { mix: Mix::one("varnish-gloss"), ..Step::usual("seal", StepKind::Varnish) };
        studio.pictures = (0..3 + seed % 3)
            .map(|p| Picture {
                due: Some(day(4 + (p * 3) as u32)),
                ..Picture::new(
                    format!("p{p}"),
                    (20.0, 30.0),
                    (0..1 + (p + seed) % 4).map(|i| step(p, i)).chain([seal()]).collect(),
                )
            })
            .collect();
        let mut planner = Planner::new(Request { studio: &studio, from: monday() });
        let bound = planner.bound();
        planner.improve(seed, 400, |_| true);
        let found = planner.plan().objective;
        assert!(bound.weighted_days_late <= found.weighted_days_late, "seed {seed}");
        assert!(bound.sum_of_finish_min <= found.sum_of_finish_min, "seed {seed}");
        assert_eq!(planner.bound(), bound, "what is proved does not hang on what was tried");
    }
}
