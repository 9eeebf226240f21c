//! Plans that were wrong or refused, and what holds now.

use super::*;

const PLANS: &[Row] = &[
    (
        "not before was ignored where nothing stands below",
        || {
            let late = Some(now() + Duration::days(5));
            studio(vec![Step { not_before: late, ..paint("paint") }])
        },
        |s| begins(s, "paint") >= now() + Duration::days(5),
    ),
    (
        "two pins shared a minute",
        || {
            let at = Some(now() + Duration::hours(3));
            let pinned = |id| Step { pinned_at: at, after: Some(vec![]), ..paint(id) };
            let mut studio = studio(vec![pinned("a")]);
            studio.pictures.push(Picture::new("q", (30.0, 40.0), vec![pinned("b")]));
            studio
        },
        |s| {
            let made = planned(s);
            let of = |p: usize| made.steps.iter().find(|x| x.picture == p).unwrap();
            let apart = of(1).sittings[0].from >= of(0).sittings[0].to;
            apart
                && of(0).pin == Some(Pin::Kept)
                && of(1).pin == Some(Pin::Shared(0, 0))
                && found(s, "pinned-time")
        },
    ),
    (
        "the gate kept hours free for a pin that gave way to another",
        || {
            let pin = |id, hands_on_min| {
                let pinned_at = Some(now() + Duration::hours(1));
                Step { pinned_at, hands_on_min, after: Some(vec![]), ..paint(id) }
            };
            let mut studio = studio(vec![laid(paint("paint"), 60), varnish("varnish")]);
            for (id, step) in [("q", pin("a", 60.0)), ("r", pin("b", 420.0))] {
                studio.pictures.push(Picture::new(id, (30.0, 40.0), vec![step]));
            }
            studio
        },
        |s| {
            let earliest = look(s, now()).earliest;
            earliest.is_some_and(|(at, _)| at < now() + Duration::hours(4))
        },
    ),
    (
        "a pin outside the hours was kept without a word",
        || {
            let night = Some(now() - Duration::hours(8) + Duration::hours(22));
            studio(vec![Step { pinned_at: night, ..paint("paint") }])
        },
        |s| planned(s).steps[0].pin == Some(Pin::OutsideHours) && found(s, "pinned-time"),
    ),
    (
        "65 minutes of splittable work in 40-minute sessions were no hours left",
        || {
            let mut studio =
                studio(vec![Step { hands_on_min: 65.0, splittable: true, ..paint("paint") }]);
            studio.hours = hours(9, NaiveTime::from_hms_opt(9, 40, 0).unwrap());
            studio
        },
        |s| {
            let made = planned(s);
            let minutes = |x: &ulvek_core::planner::Sitting| (x.to - x.from).num_minutes();
            made.steps[0].sittings.iter().map(minutes).collect::<Vec<_>>() == [25, 20, 20]
        },
    ),
    (
        "24:00 was a second early, and hours did not join over midnight",
        || {
            let mut studio = studio(vec![Step { hands_on_min: 240.0, ..paint("paint") }]);
            let at = |h| NaiveTime::from_hms_opt(h, 0, 0).unwrap();
            let open = vec![
                OpenHours { day: Weekday::Fri, from: at(22), to: MIDNIGHT },
                OpenHours { day: Weekday::Sat, from: at(0), to: at(3) },
            ];
            studio.hours = StudioHours::try_new(chrono_tz::UTC, open, vec![]).unwrap();
            studio
        },
        |s| begins(s, "paint") == utc("2027-01-08T22:10:00Z"),
    ),
    (
        "a locking coat ended the night for fresh eyes",
        || {
            let lock = coat("lock", StepKind::LockingCoat, "glazing");
            let glaze = coat("glaze", StepKind::Glaze, "glazing");
            studio(vec![coat("block", StepKind::Underpainting, "heavy-pb29"), lock, glaze])
        },
        |s| begins(s, "glaze").date_naive() > begins(s, "block").date_naive(),
    ),
    (
        "wet varnish that is on held no flat place",
        || {
            let wet = Step { laid_at: Some(now() + Duration::minutes(65)), ..varnish("v1") };
            let mut studio = studio(vec![laid(paint("paint"), 30), varnish("v1")]);
            studio.pictures.push(Picture::new("q", (30.0, 40.0), vec![laid(paint("q"), 30), wet]));
            studio.flat_places = 1;
            studio
        },
        |s| begins(s, "v1") > now() + Duration::minutes(80),
    ),
];

#[test]
fn no_plan_is_wrong_or_refused() {
    for (seen, studio, holds) in PLANS {
        assert!(holds(&studio()), "{seen}");
    }
}

#[test]
fn a_coat_of_varnish_that_is_left_out_is_never_the_matte_one() {
    let matte = coat("v2", StepKind::Varnish, "varnish-matte");
    let mut studio = studio(vec![laid(paint("paint"), 4), varnish("v1"), matte]);
    studio.pictures[0].due = Some(now().date_naive());
    let planner = Planner::new(Request { studio: &studio, from: now() });
    let ways = date_ways(&planner, 0, now(), |_, _| {});
    let way = ways.iter().find(|w| w.what == "One varnish coat only").unwrap();
    let kept: Vec<&str> = way.studio.pictures[0].steps.iter().map(|s| s.id.as_str()).collect();
    assert_eq!(kept, ["paint", "v2"]);
}

#[test]
fn where_no_single_change_makes_the_date_several_do_together_and_say_what_they_risk() {
    // Retarder, an isolation coat and a date two weeks off: each alone is not enough.
    let glaze = |id: &str| Step {
        mix: Mix::of(&[("glazing", 80.0), ("fluid-pb15", 8.0), ("retarder", 12.0)]),
        ..coat(id, StepKind::Glaze, "glazing")
    };
    let isolation = coat("iso", StepKind::IsolationCoat, "gloss-medium");
    let pack = coat("pack", StepKind::Pack, "");
    let mut studio = studio(vec![
        laid(paint("paint"), 9),
        glaze("g1"),
        glaze("g2"),
        isolation,
        varnish("v1"),
        varnish("v2"),
        pack,
    ]);
    let mut seen = false;
    for days in (6..40).step_by(2) {
        studio.pictures[0].due = Some((now() + Duration::days(days)).date_naive());
        let planner = Planner::new(Request { studio: &studio, from: now() });
        let ways = date_ways(&planner, 0, now(), |_, _| {});
        let single = ways.iter().any(|w| w.kinds.len() == 1 && w.days_late == 0);
        let Some(both) = ways.iter().find(|w| w.kinds.len() > 1) else { continue };
        assert!(!single, "one change is enough on day {days}");
        if both.days_late == 0 {
            seen = true;
            let risks: Vec<&str> = both.kinds.iter().map(|kind| kind.risk()).collect();
            assert_eq!(both.risk, risks.join(" "));
            let again = plan(Request { studio: &both.studio, from: now() });
            assert_eq!(ready(&both.studio, &again, 0).unwrap().at, Some(both.ready));
        }
    }
    assert!(seen, "on no day did several changes make the date that one did not");
}

#[test]
fn an_extra_session_is_never_at_night_in_the_dark_or_on_a_day_off() {
    use ulvek_core::studio::{Closed, daylight};
    let glaze = coat("glaze", StepKind::Glaze, "glazing");
    let mut studio = studio(vec![coat("tone", StepKind::Tone, "heavy-py42"), glaze]);
    // One evening a week; the two days after it are days off.
    let at = |h| NaiveTime::from_hms_opt(h, 0, 0).unwrap();
    let open = vec![OpenHours { day: Weekday::Mon, from: at(10), to: at(11) }];
    let day = |n| (now() + Duration::days(n)).date_naive();
    let off = vec![Closed { from: day(1), to: day(2) }];
    studio.hours = StudioHours::try_new(chrono_tz::UTC, open, off).unwrap();
    let place = daylight::Place::try_new(0.0, 0.0).unwrap();
    studio.daylight = Some(place);
    studio.schools.fresh_eyes = false;
    studio.pictures[0].due = Some(day(3));
    let planner = Planner::new(Request { studio: &studio, from: now() });
    let ways = date_ways(&planner, 0, now(), |_, _| {});
    let way = ways.iter().find(|w| w.kinds == [DateWayKind::ExtraSession]).unwrap();
    let pin = way.studio.pictures[0].steps[1].pinned_at.unwrap();
    let (rise, fall) = place.light_of(pin.date_naive());
    assert!((rise..fall).contains(&pin.timestamp()), "{pin} is in the dark");
    assert!(pin.date_naive() == day(0) || pin.date_naive() > day(2), "{pin} is a day off");
}

#[test]
fn no_room_is_offered_in_which_the_gate_stays_closed() {
    let mut studio = studio(vec![laid(paint("paint"), 1), varnish("v1"), varnish("v2")]);
    studio.air = room(22.5, 0.42);
    studio.pictures[0].due = Some((now() + Duration::days(1)).date_naive());
    let planner = Planner::new(Request { studio: &studio, from: now() });
    for way in date_ways(&planner, 0, now(), |_, _| {}) {
        let made = plan(Request { studio: &way.studio, from: now() });
        let open = gate(&way.studio, 0, (&made, &[]), now()).unwrap().earliest;
        assert!(open.is_some() || way.studio.pictures[0].steps.len() == 1, "{}", way.what);
    }
}
