//! The planner: every step waits for its film, its floors and the painter's hours.

use chrono::{DateTime, Duration, NaiveTime, Utc, Weekday};
use proptest::prelude::*;
use std::sync::Arc;
use ulvek_core::air::{Air, AirSeries};
use ulvek_core::mix::{Mix, Part, starter_shelf};
use ulvek_core::picture::{Picture, Step, StepKind};
use ulvek_core::planner::{Blocked, Request, as_planned, plan};
use ulvek_core::quantity::Sure;
use ulvek_core::readiness::WaitReason;
use ulvek_core::studio::{OpenHours, Studio, StudioHours};

fn utc(text: &str) -> DateTime<Utc> {
    text.parse().unwrap()
}

fn step(id: &str, kind: StepKind, minutes: f64) -> Step {
    let paint = Part { material: "heavy-pbr7".into(), parts: 1.0 };
    Step {
        hands_on_min: minutes,
        splittable: false,
        mix: if kind.leaves_film() { Mix::from(vec![paint]) } else { Mix::default() },
        ..Step::usual(id, kind)
    }
}

/// A studio open from 10:00 to 16:00 UTC on the days of `week`.
fn studio(week: &[Weekday], pictures: Vec<Vec<Step>>) -> Studio {
    let time = |h| NaiveTime::from_hms_opt(h, 0, 0).unwrap();
    let hours = week.iter().map(|day| OpenHours { day: *day, from: time(10), to: time(16) });
    Studio {
        materials: starter_shelf().unwrap(),
        pictures: pictures
            .into_iter()
            .enumerate()
            .map(|(i, steps)| Picture {
                due: chrono::NaiveDate::from_ymd_opt(2027, 1, 6),
                ..Picture::new(format!("p{i}"), (40.0, 50.0), steps)
            })
            .collect(),
        ..Studio::new(
            "Test room",
            StudioHours::try_new(chrono_tz::UTC, hours.collect(), vec![]).unwrap(),
            AirSeries::constant(Air::try_new(21.0, 0.5, 0.15).unwrap()),
        )
    }
}

pub(super) const EVERY_DAY: [Weekday; 7] = [
    Weekday::Mon,
    Weekday::Tue,
    Weekday::Wed,
    Weekday::Thu,
    Weekday::Fri,
    Weekday::Sat,
    Weekday::Sun,
];

/// Monday, before the hours begin.
const MONDAY: &str = "2027-01-04T08:00:00Z";

#[test]
fn a_chain_waits_for_the_film_then_for_hours() {
    let steps = vec![
        step("tone", StepKind::Tone, 30.0),
        step("pass", StepKind::Pass, 60.0),
        step("photo", StepKind::Photograph, 20.0),
        step("varnish", StepKind::Varnish, 30.0),
        step("varnish-2", StepKind::Varnish, 30.0),
    ];
    let studio = self::studio(&EVERY_DAY, vec![steps]);
    let made = plan(Request { studio: &studio, from: utc(MONDAY) });
    let from = |i: usize| made.steps[i].sittings[0].from;
    assert_eq!(from(0), utc("2027-01-04T10:10:00Z"), "set-up first");
    let wait = made.steps[1].wait.as_ref().unwrap();
    assert_eq!(wait.reason, WaitReason::Film);
    assert!(from(1) >= wait.until && from(1) < utc("2027-01-04T16:00:00Z"));
    // The standard school waits three days after the last painted coat [practice].
    let painted = made.steps[1].sittings[0].to;
    let wait = made.steps[3].wait.as_ref().unwrap();
    assert_eq!(made.steps[3].step, 3);
    assert!(from(3) - painted >= Duration::days(3), "{wait:?}");
    // The second varnish coat comes the next day by default [practice].
    assert_eq!(made.steps[4].wait.as_ref().unwrap().reason, WaitReason::BetweenVarnish);
    assert_eq!(from(4).date_naive(), from(3).date_naive().succ_opt().unwrap());
    // Ready means safe to wrap: days after the last coat, and so late by them too.
    let ready = made.pictures[0].ready.unwrap();
    assert!(ready > made.pictures[0].finish.unwrap() + Duration::days(1), "{ready}");
    assert_eq!(
        made.pictures[0].days_late,
        Some((ready.date_naive() - made.pictures[0].due.unwrap()).num_days())
    );
    assert_eq!(made.objective.weighted_days_late, made.pictures[0].days_late.unwrap() as f64);
}

#[test]
fn what_was_laid_is_history_and_moves_the_rest() {
    let mut steps = vec![step("tone", StepKind::Tone, 30.0), step("pass", StepKind::Pass, 60.0)];
    steps[0].laid_at = Some(utc("2027-01-04T12:00:00Z"));
    let early = self::studio(&EVERY_DAY, vec![steps.clone()]);
    steps[0].laid_at = Some(utc("2027-01-04T13:30:00Z"));
    let late = self::studio(&EVERY_DAY, vec![steps]);
    let from = utc("2027-01-04T13:31:00Z");
    let start = |studio: &Studio| {
        let made = plan(Request { studio, from });
        assert_eq!(made.steps.len(), 1);
        made.steps[0].sittings[0].from
    };
    assert!(start(&late) > start(&early));
}

#[test]
fn what_cannot_be_placed_says_why() {
    let long = step("tone", StepKind::Tone, 400.0);
    let studio = self::studio(&EVERY_DAY, vec![vec![long, step("pass", StepKind::Pass, 30.0)]]);
    let made = plan(Request { studio: &studio, from: utc(MONDAY) });
    assert!(matches!(made.steps[0].blocked, Some(Blocked::TooLong { .. })), "{:?}", made.steps[0]);
    assert_eq!(made.steps[1].blocked, Some(Blocked::Below));
    assert_eq!(made.pictures[0].finish, None);
    let studio = self::studio(&[], vec![vec![step("tone", StepKind::Tone, 30.0)]]);
    let made = plan(Request { studio: &studio, from: utc(MONDAY) });
    assert_eq!(made.steps[0].blocked, Some(Blocked::NoHours));
}

#[test]
fn a_long_step_is_split_only_where_it_may_be() {
    let mut detail = step("detail", StepKind::Detail, 500.0);
    detail.splittable = true;
    let studio = self::studio(&[Weekday::Mon, Weekday::Tue], vec![vec![detail]]);
    let made = plan(Request { studio: &studio, from: utc(MONDAY) });
    let pieces: Vec<i64> =
        made.steps[0].sittings.iter().map(|s| (s.to - s.from).num_minutes()).collect();
    assert_eq!(pieces.iter().sum::<i64>(), 500);
    assert_eq!(pieces.len(), 2);
    assert!(pieces.iter().all(|p| *p >= 20));
}

#[test]
fn two_pictures_never_share_an_hour_or_the_one_flat_place() {
    let steps =
        || vec![step("pass", StepKind::Pass, 60.0), step("varnish", StepKind::Varnish, 30.0)];
    let studio = self::studio(&EVERY_DAY, vec![steps(), steps()]);
    let made = plan(Request { studio: &studio, from: utc(MONDAY) });
    let varnish: Vec<_> =
        made.steps.iter().filter(|s| s.step == 1).map(|s| s.sittings[0]).collect();
    assert!(varnish[1].from > varnish[0].to + Duration::minutes(5), "{varnish:?}");
}

proptest! {
    #![proptest_config(ProptestConfig { failure_persistence: None, ..ProptestConfig::with_cases(48) })]

    /// Whatever is planned: sittings lie in the hours, do not overlap, and wait long enough.
    #[test]
    fn every_plan_is_feasible(
        kinds in prop::collection::vec(prop::collection::vec(0usize..6, 1..5), 1..4),
        minutes in prop::collection::vec(5.0f64..200.0, 20),
        days in prop::sample::subsequence(EVERY_DAY.to_vec(), 1..5),
    ) {
        let menu = [StepKind::Tone, StepKind::Pass, StepKind::Drawing, StepKind::Glaze, StepKind::Detail, StepKind::Varnish];
        let pictures = kinds.iter().enumerate().map(|(p, ks)| {
            ks.iter().enumerate().map(|(i, k)| {
                let mut s = step(&format!("s{i}"), menu[*k], minutes[p * 5 + i].round());
                s.splittable = menu[*k].usually_splittable();
                s
            }).collect()
        }).collect();
        let mut studio = self::studio(&days, pictures);
        // Varnish lies anywhere in these rows.
        studio.pictures.iter_mut().for_each(|p| p.paint_over_seal = true);
        let from = utc(MONDAY);
        let made = plan(Request { studio: &studio, from });
        let sessions = studio.hours.sessions(from, from + Duration::days(800));
        let mut all: Vec<_> = made.steps.iter().flat_map(|s| s.sittings.clone()).collect();
        all.sort_by_key(|s| s.from);
        for s in &all {
            prop_assert!(sessions.iter().any(|open| open.from <= s.from && s.to <= open.to));
        }
        for pair in all.windows(2) {
            prop_assert!(pair[0].to <= pair[1].from);
        }
        for s in &made.steps {
            prop_assert!(s.blocked.is_none());
            let whole: i64 = s.sittings.iter().map(|x| (x.to - x.from).num_seconds()).sum();
            let asked = studio.pictures[s.picture].steps[s.step].hands_on_min;
            prop_assert_eq!(whole, (asked * 60.0) as i64);
            if let Some(wait) = &s.wait {
                prop_assert!(s.sittings[0].from >= wait.until);
            }
        }
    }
}

/// Wait of the step called `id` in the first picture.
fn wait_of(studio: &Studio, id: &str) -> (WaitReason, DateTime<Utc>, DateTime<Utc>) {
    let made = plan(Request { studio, from: utc(MONDAY) });
    let i = studio.pictures[0].steps.iter().position(|s| s.id == id).unwrap();
    let planned = made.steps.iter().find(|s| s.step == i).unwrap();
    let wait = planned.wait.as_ref().unwrap();
    (wait.reason, wait.until, planned.sittings[0].from)
}

/// A pass laid on Sunday noon, then a step of `kind`.
fn after_a_pass(kind: StepKind) -> Studio {
    let mut pass = step("pass", StepKind::Pass, 60.0);
    pass.laid_at = Some(utc("2027-01-03T12:00:00Z"));
    studio(&EVERY_DAY, vec![vec![pass, step("next", kind, 30.0)]])
}

#[test]
fn the_first_glaze_waits_a_night_for_fresh_eyes_unless_that_is_off() {
    let mut studio = after_a_pass(StepKind::Glaze);
    studio.pictures[0].steps[0].laid_at = Some(utc("2027-01-04T10:00:00Z"));
    let (reason, until, _) = wait_of(&studio, "next");
    assert_eq!((reason, until), (WaitReason::FreshEyes, utc("2027-01-05T04:00:00Z")));
    studio.schools.fresh_eyes = false;
    assert_eq!(wait_of(&studio, "next").0, WaitReason::Film);
}

#[test]
fn each_school_has_its_floor_before_varnish_and_slow_paint_two_weeks_in_all() {
    use ulvek_core::studio::Waiting;
    // Floors of docs/trade.md [practice]: a day at most, three to four days, two weeks and more.
    for (waiting, days) in [(Waiting::Standard, 3), (Waiting::Patient, 14)] {
        let mut studio = after_a_pass(StepKind::Varnish);
        studio.schools.waiting = waiting;
        // What is asked for is what the schools add to the film.
        studio.sure = Sure::BRISK;
        let (reason, until, _) = wait_of(&studio, "next");
        assert_eq!(reason, WaitReason::School, "{waiting:?}");
        assert_eq!(until, utc("2027-01-03T12:00:00Z") + Duration::days(days));
    }
    let mut studio = after_a_pass(StepKind::Varnish);
    studio.schools.waiting = Waiting::Brisk;
    let (reason, until, _) = wait_of(&studio, "next");
    assert_eq!(reason, WaitReason::Film, "the computed cure is later than the brisk floor");
    assert!(until > utc("2027-01-04T12:00:00Z"));
    studio.pictures[0].steps[0].mix[0].material = "slow-pbr7".into();
    let (reason, until, _) = wait_of(&studio, "next");
    assert_eq!((reason, until), (WaitReason::SlowPaint, utc("2027-01-17T12:00:00Z")));
}

#[test]
fn the_brisk_school_varnishes_again_after_an_hour() {
    let mut studio = after_a_pass(StepKind::Varnish);
    studio.schools.waiting = ulvek_core::studio::Waiting::Brisk;
    studio.pictures[0].steps.push(step("again", StepKind::Varnish, 30.0));
    let made = plan(Request { studio: &studio, from: utc(MONDAY) });
    let first = made.steps[0].sittings[0].to;
    let second = made.steps[1].sittings[0].from;
    assert!(second - first >= Duration::minutes(60), "an hour at least [practice]");
    assert_eq!(first.date_naive(), second.date_naive());
}

#[test]
fn a_date_and_a_gap_of_the_painters_own_are_kept() {
    let mut studio = after_a_pass(StepKind::Detail);
    studio.pictures[0].steps[1].earliest_gap_min = Some(3.0 * 1440.0);
    let (reason, until, _) = wait_of(&studio, "next");
    assert_eq!((reason, until), (WaitReason::Gap, utc("2027-01-06T12:00:00Z")));
    studio.pictures[0].steps[1].not_before = Some(utc("2027-01-09T00:00:00Z"));
    let (reason, _, from) = wait_of(&studio, "next");
    assert_eq!((reason, from), (WaitReason::NotBefore, utc("2027-01-09T10:10:00Z")));
}

#[test]
fn the_same_mix_on_two_pictures_needs_one_set_up() {
    let glaze = || vec![step("glaze", StepKind::Glaze, 30.0)];
    let studio = self::studio(&EVERY_DAY, vec![glaze(), glaze()]);
    let made = plan(Request { studio: &studio, from: utc(MONDAY) });
    assert_eq!(made.objective.set_ups, 1);
    assert_eq!(made.steps[1].sittings[0].from, made.steps[0].sittings[0].to);
    let mut other = glaze();
    other[0].mix[0].material = "heavy-pb29".into();
    let studio = self::studio(&EVERY_DAY, vec![glaze(), other]);
    let made = plan(Request { studio: &studio, from: utc(MONDAY) });
    assert_eq!(made.objective.set_ups, 2);
    assert_eq!(
        made.steps[1].sittings[0].from - made.steps[0].sittings[0].to,
        Duration::minutes(10)
    );
}

#[test]
fn steps_that_stand_on_two_others_wait_for_both() {
    let mut join = step("join", StepKind::Detail, 30.0);
    join.after = Some(vec!["left".into(), "right".into()]);
    let mut right = step("right", StepKind::Pass, 30.0);
    right.after = Some(vec!["base".into()]);
    let studio = self::studio(
        &EVERY_DAY,
        vec![vec![
            step("base", StepKind::Tone, 20.0),
            step("left", StepKind::Pass, 30.0),
            right,
            join,
        ]],
    );
    let made = plan(Request { studio: &studio, from: utc(MONDAY) });
    let order: Vec<usize> = made.steps.iter().map(|s| s.step).collect();
    assert_eq!(order[0], 0);
    assert_eq!(order[3], 3);
    let ends: Vec<_> = made.steps[..3].iter().map(|s| s.sittings[0].to).collect();
    assert!(made.steps[3].sittings[0].from >= *ends.iter().max().unwrap());
}

#[test]
fn without_a_flat_place_varnish_is_not_placed() {
    let mut studio = after_a_pass(StepKind::Varnish);
    studio.flat_places = 0;
    let made = plan(Request { studio: &studio, from: utc(MONDAY) });
    assert_eq!(made.steps[0].blocked, Some(Blocked::NoFlatPlace));
}

#[test]
fn a_film_that_never_gets_there_is_said() {
    let mut studio = after_a_pass(StepKind::Varnish);
    studio.pictures[0].steps[0].wet_film_um = Some(4000.0);
    let made = plan(Request { studio: &studio, from: utc(MONDAY) });
    let said = made.steps[0].blocked.as_ref().unwrap().to_string();
    assert_eq!(said, "the film below does not become ready to seal within 400 days in this air");
}

#[test]
fn a_finished_picture_keeps_its_day() {
    let mut studio = after_a_pass(StepKind::Detail);
    studio.pictures[0].steps[1].laid_at = Some(utc("2027-01-09T12:00:00Z"));
    let made = plan(Request { studio: &studio, from: utc("2027-02-01T08:00:00Z") });
    assert!(made.steps.is_empty());
    assert_eq!(made.pictures[0].finish, Some(utc("2027-01-09T12:00:00Z")));
    assert_eq!(made.pictures[0].days_late, Some(3));
}

#[test]
fn an_outlook_seals_at_the_later_of_cure_and_school() {
    use ulvek_core::planner::Desk;
    use ulvek_core::studio::Waiting;
    let mut studio = after_a_pass(StepKind::Varnish);
    let seal = |studio: &Studio| {
        let mut desk = Desk::new(Arc::new(studio.clone()));
        let (coats, _) = desk.strata(0, utc(MONDAY), (0.0, 0)).unwrap().drawn(studio).unwrap();
        assert_eq!((coats[0].planned, coats[1].planned), (false, true));
        let cured = coats[0].history.if_left.at(ulvek_core::film::FilmState::ReadyToSeal).unwrap();
        (coats[0].seal_from.unwrap(), cured)
    };
    let laid = utc("2027-01-03T12:00:00Z").timestamp() as f64;
    studio.schools.waiting = Waiting::Patient;
    assert_eq!(seal(&studio).0, laid + 14.0 * 86_400.0);
    studio.schools.waiting = Waiting::Brisk;
    // To the microsecond, as moments are kept.
    let (from, cured) = seal(&studio);
    assert!((from - cured).abs() < 1e-5, "{from} for {cured}");
}

#[test]
fn what_was_planned_is_the_plan_as_it_stood_when_something_was_last_done() {
    let steps = vec![step("a", StepKind::Pass, 30.0), step("b", StepKind::Pass, 30.0)];
    let other = vec![step("c", StepKind::Tone, 10.0)];
    let mut before = studio(&EVERY_DAY, vec![steps, other]);
    let first = utc("2027-01-04T10:40:00Z");
    before.pictures[0].steps[0].laid_at = Some(first);
    let by_plan = |studio: &Studio, from| {
        let plan = plan(Request { studio, from });
        let step = plan.steps.iter().find(|s| (s.picture, s.step) == (0, 1)).unwrap();
        step.sittings[0].from
    };
    // Missed for two days: it was planned for the first of them.
    let done = utc("2027-01-06T11:00:00Z");
    let planned = as_planned(&before, (0, 1), done, None);
    assert_eq!(planned, Some(by_plan(&before, first)));
    assert!(planned.unwrap() < utc("2027-01-05T16:00:00Z"));
    // Since the plan was changed it was for later.
    let changed = utc("2027-01-05T15:58:00Z");
    let since = as_planned(&before, (0, 1), done, Some(changed));
    assert_eq!(since, Some(by_plan(&before, changed)));
    assert!(since > planned);
    // What was entered first but done later says nothing of it, nor what was changed later.
    before.pictures[1].steps[0].laid_at = Some(utc("2027-01-06T12:00:00Z"));
    assert_eq!(
        as_planned(&before, (0, 1), done, Some(done + Duration::hours(3))),
        None.or(as_planned(&before, (0, 1), done, None))
    );
}
