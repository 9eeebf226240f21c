//! The season: pins, daylight, tubs, search, odds, what holds a picture, and ways to its date.

use chrono::{DateTime, Duration, NaiveDate, NaiveTime, Timelike, Utc, Weekday};
use ulvek_core::air::{Air, AirSeries};
use ulvek_core::cancel::Cancel;
use ulvek_core::evening::preparations;
use ulvek_core::mix::{Mix, Part, Stock, starter_shelf};
use ulvek_core::picture::{Picture, ReadyBy, Step, StepKind};
use ulvek_core::planner::{
    Aim, Blocked, DateWayKind, Held, Planner, Request, date_ways, holds, odds, plan, ready,
    wet_session,
};
use ulvek_core::readiness::WaitReason;
use ulvek_core::studio::{
    OpenHours, OrderEntry, Studio, StudioHours, Tightness, Tub, Waiting, daylight,
};

fn utc(text: &str) -> DateTime<Utc> {
    text.parse().unwrap()
}

/// Thursday, before the hours begin.
fn thursday() -> DateTime<Utc> {
    utc("2027-01-14T08:00:00Z")
}

fn part(material: &str, parts: f64) -> Part {
    Part { material: material.into(), parts }
}

fn step(id: &str, kind: StepKind, mix: &[(&str, f64)]) -> Step {
    let mix = mix.iter().map(|(m, p)| part(m, *p)).collect();
    Step { mix, splittable: false, ..Step::usual(id, kind) }
}

/// Hours from `from` to `to` UTC on every day but Monday.
fn studio((from, to): (u32, u32), pictures: Vec<Vec<Step>>) -> Studio {
    use Weekday::{Fri, Sat, Sun, Thu, Tue, Wed};
    let time = |h| NaiveTime::from_hms_opt(h, 0, 0).unwrap();
    let hours =
        [Tue, Wed, Thu, Fri, Sat, Sun].map(|day| OpenHours { day, from: time(from), to: time(to) });
    let pictures = pictures.into_iter().enumerate().map(|(p, steps)| Picture {
        due: NaiveDate::from_ymd_opt(2027, 1, 24),
        ..Picture::new(format!("p{p}"), (30.0, 40.0), steps)
    });
    Studio {
        materials: starter_shelf().unwrap(),
        pictures: pictures.collect(),
        ..Studio::new(
            "Season",
            StudioHours::try_new(chrono_tz::UTC, hours.to_vec(), vec![]).unwrap(),
            AirSeries::constant(Air::try_new(21.0, 0.5, 0.15).unwrap()),
        )
    }
}

/// Tone, glaze, varnish: the glaze with `retarder` parts of retarder.
fn glazed(retarder: f64) -> Vec<Step> {
    let glaze = [("glazing", 85.0), ("fluid-pb15", 10.0), ("retarder", retarder)];
    let mix: Vec<_> = glaze.into_iter().filter(|(_, parts)| *parts > 0.0).collect();
    vec![
        step("tone", StepKind::Tone, &[("heavy-pbr7", 1.0)]),
        step("glaze", StepKind::Glaze, &mix),
        step("varnish", StepKind::Varnish, &[("varnish-gloss", 1.0)]),
    ]
}

fn start_of(studio: &Studio, from: DateTime<Utc>, id: &str) -> DateTime<Utc> {
    let made = plan(Request { studio, from });
    let i = studio.pictures[0].steps.iter().position(|s| s.id == id).unwrap();
    made.steps.iter().find(|s| s.picture == 0 && s.step == i).unwrap().sittings[0].from
}

#[test]
fn a_pinned_step_stands_where_it_is_pinned_and_others_keep_clear_of_it() {
    let mut studio = self::studio((10, 14), vec![glazed(0.0), glazed(0.0)]);
    // Outside the hours: the painter says so.
    let evening = utc("2027-01-15T19:00:00Z");
    studio.pictures[0].steps[1].pinned_at = Some(evening);
    assert_eq!(start_of(&studio, thursday(), "glaze"), evening);
    // Inside them: no other picture takes that time.
    let noon = utc("2027-01-15T12:00:00Z");
    studio.pictures[0].steps[1].pinned_at = Some(noon);
    let made = plan(Request { studio: &studio, from: thursday() });
    let pinned = made.steps.iter().find(|s| s.picture == 0 && s.step == 1).unwrap();
    assert_eq!(pinned.sittings[0].from, noon);
    assert_eq!(pinned.wait.as_ref().unwrap().reason, WaitReason::Pinned);
    let end = pinned.sittings[0].to;
    for other in made.steps.iter().filter(|s| s.picture == 1) {
        assert!(other.sittings.iter().all(|s| s.to <= noon || s.from >= end), "{other:?}");
    }
    // Before the film is ready it is as early as may be instead.
    studio.pictures[0].steps[1].pinned_at = Some(utc("2027-01-14T08:30:00Z"));
    assert!(start_of(&studio, thursday(), "glaze") > utc("2027-01-14T10:00:00Z"));
}

#[test]
fn colour_is_judged_by_daylight_when_the_studio_says_where_it_stands() {
    // In Oslo in January the sun sets before 16:00 UTC (NOAA): evening hours have no light.
    let oslo = daylight::Place::try_new(59.9, 10.7).unwrap();
    let steps = || vec![step("glaze", StepKind::Glaze, &[("heavy-pbr7", 1.0)])];
    let mut studio = self::studio((14, 20), vec![steps()]);
    assert_eq!(start_of(&studio, thursday(), "glaze"), utc("2027-01-14T14:10:00Z"));
    studio.daylight = Some(oslo);
    // The sun of the 14th sets at 14:47, of the 16th at 14:51: the first with 40 minutes of light.
    let lit = start_of(&studio, thursday(), "glaze");
    assert_eq!(lit, utc("2027-01-16T14:10:00Z"));
    let (_, sunset) = oslo.light_of(lit.date_naive());
    assert!((lit + Duration::minutes(40)).timestamp() <= sunset);
    let mut late = self::studio((17, 20), vec![steps()]);
    late.daylight = Some(oslo);
    let made = plan(Request { studio: &late, from: thursday() });
    let first = made.steps[0].sittings.first().map(|s| s.from);
    // The days grow: it waits for an evening that is light enough.
    let lit = first.unwrap();
    assert!(lit > utc("2027-03-01T00:00:00Z") && lit.hour() == 17, "{lit}");
    late.pictures[0].steps[0].hands_on_min = 178.0;
    late.setup_min = 0.0;
    let place = daylight::Place::try_new(0.0, -60.0).unwrap();
    late.daylight = Some(daylight::Place::try_new(0.0, 60.0).unwrap());
    let made = plan(Request { studio: &late, from: thursday() });
    // At 60 degrees east the equator's sun has set by 15:00 UTC on every day of the year.
    assert!(matches!(made.steps[0].blocked, Some(Blocked::TooLittleDaylight { .. })), "{made:?}");
    late.daylight = Some(place);
    let made = plan(Request { studio: &late, from: thursday() });
    assert_eq!(made.steps[0].blocked, None);
}

#[test]
fn a_tub_is_used_before_its_last_good_day_when_the_order_can_see_to_it() {
    let long = || vec![step("detail", StepKind::Detail, &[("heavy-pb29", 1.0)])];
    let mut studio = self::studio((10, 12), vec![long(), long()]);
    studio.pictures[1].steps[0].tub = Some("dusk".into());
    studio.pictures[1].steps[0].mix = Mix::one("heavy-pbr7");
    studio.tubs = vec![Tub {
        id: "dusk".into(),
        name: "Dusk".into(),
        mix: Mix::one("heavy-pbr7"),
        mixed_at: thursday() - Duration::days(6),
        mixed_ml: 50.0,
        level: Stock { ml: 50.0, at: thursday() - Duration::days(6) },
        tightness: Tightness::Airtight,
        keeps_days: Some(6.3),
        checks: vec![],
        archived: false,
    }];
    let mut planner = Planner::new(Request { studio: &studio, from: thursday() });
    assert_eq!(planner.plan().objective.past_tubs, 1, "what comes first is not what lasts least");
    planner.improve(1, 50, |_| true);
    assert_eq!(planner.plan().objective.past_tubs, 0);
}

#[test]
fn the_same_seed_and_tries_give_the_same_plan_and_more_tries_never_a_worse_one() {
    let studio = self::studio((10, 12), vec![glazed(0.0), glazed(5.0), glazed(10.0)]);
    let request = Request { studio: &studio, from: thursday() };
    let searched = |tries| {
        let mut planner = Planner::new(request);
        planner.improve(3, tries, |_| true);
        (planner.order(), planner.plan().objective)
    };
    let (first, again, more) = (searched(80), searched(80), searched(400));
    assert_eq!(first, again);
    let worth = |o: &ulvek_core::planner::Objective| (o.weighted_days_late, o.sum_of_finish_min);
    assert!(worth(&more.1) <= worth(&first.1));
    // The order that was found, kept in the document, is the plan of the document.
    let mut kept = studio.clone();
    kept.order = more.0;
    let from_order = plan(Request { studio: &kept, from: thursday() });
    assert_eq!(worth(&from_order.objective), worth(&more.1));
}

#[test]
fn a_long_wet_session_in_dry_air_is_prepared_an_hour_before() {
    // docs/trade.md [practice]: run a humidifier about an hour before the session; mist the palette.
    let mut pass = step("pass", StepKind::Pass, &[("heavy-pb29", 1.0)]);
    pass.hands_on_min = 90.0;
    let mut studio = self::studio((10, 14), vec![vec![pass]]);
    let reminded = |studio: &Studio| {
        let made = plan(Request { studio, from: thursday() });
        (wet_session(studio, &made, &made.steps[0]), made.steps[0].sittings[0].from)
    };
    let (found, from) = reminded(&studio);
    assert_eq!(found.unwrap().humidifier_on, from - Duration::hours(1));
    let made = plan(Request { studio: &studio, from: thursday() });
    let prepared = preparations(&studio, &made, &[], from - Duration::hours(3));
    assert_eq!(prepared[0].by, from - Duration::hours(1), "{prepared:?}");
    // Begun late it is due at once; when the work has begun it is no preparation any more.
    let late = preparations(&studio, &made, &[], from - Duration::minutes(20));
    assert_eq!(late[0].by, from - Duration::minutes(20));
    assert_eq!(preparations(&studio, &made, &[], from), []);
    studio.air = AirSeries::constant(Air::try_new(21.0, 0.65, 0.15).unwrap());
    assert_eq!(reminded(&studio).0, None, "the air is damp enough");
    studio.air = AirSeries::constant(Air::try_new(21.0, 0.4, 0.15).unwrap());
    studio.pictures[0].steps[0].kind = StepKind::Varnish;
    studio.pictures[0].steps[0].mix = Mix::one("varnish-gloss");
    assert_eq!(reminded(&studio).0, None, "varnish wants no damp air");
}

#[test]
fn a_photograph_is_due_after_the_last_paint_and_before_the_varnish() {
    // docs/trade.md [practice]: photograph before gloss goes on, it glares afterwards.
    let mut paint = step("paint", StepKind::Glaze, &[("heavy-pb29", 1.0)]);
    let painted = thursday() - Duration::days(40);
    paint.laid_at = Some(painted);
    let varnish = step("varnish", StepKind::Varnish, &[("varnish-gloss", 1.0)]);
    let mut studio = self::studio((10, 14), vec![vec![paint, varnish]]);
    let due = |studio: &Studio, taken: &[DateTime<Utc>]| {
        let made = plan(Request { studio, from: thursday() });
        let said = preparations(studio, &made, &[taken.to_vec()], thursday());
        said.iter().any(|p| p.said.starts_with("Photograph it before"))
    };
    assert!(due(&studio, &[]));
    assert!(due(&studio, &[painted - Duration::days(1)]), "one from before the last coat");
    assert!(!due(&studio, &[painted + Duration::days(1)]));
    studio.pictures[0].steps[0].laid_at = None;
    assert!(!due(&studio, &[]), "with paint to come it is too early");
}

#[test]
fn a_search_begins_with_pictures_each_started_a_little_after_the_one_before() {
    // A seal waits less for coats that had days between them, and hours are few: neither one picture after the
    // other nor all at once is good.
    let painted = |p: usize| {
        let coat = |i: usize| {
            let glaze = i % 2 == 1;
            let kind = if glaze { StepKind::Glaze } else { StepKind::Pass };
            let paint = if glaze { "glazing" } else { "heavy-pb29" };
            let hands_on_min = (20 + (p * 7 + i * 13) % 9 * 15) as f64;
            let wet_film_um = Some(if glaze { 40.0 } else { 140.0 });
            Step { hands_on_min, wet_film_um, ..step(&format!("coat-{i}"), kind, &[(paint, 1.0)]) }
        };
        let seal = step("seal", StepKind::Varnish, &[("varnish-gloss", 1.0)]);
        (0..9).map(coat).chain([seal]).collect()
    };
    let mut studio = self::studio((9, 17), (0..8).map(painted).collect());
    for picture in &mut studio.pictures {
        picture.due = None;
    }
    let dated = studio.clone();
    let mut planner = Planner::new(Request { studio: &studio, from: thursday() });
    let first = planner.plan().objective.sum_of_finish_min;
    planner.improve(1, 1, |_| true);
    let begun = planner.plan().objective.sum_of_finish_min;
    assert!(begun < 0.9 * first, "{begun:.0} of {first:.0} min");
    // Where pictures are late because of one another, the first plan begins so. An order that is given is held against
    // what can start first, and nothing else. Ready when the last coat is on, none of them waits on purpose.
    let mut studio = dated;
    for (p, picture) in studio.pictures.iter_mut().enumerate() {
        picture.due = Some((thursday() + Duration::days(10 + 2 * p as i64)).date_naive());
        picture.ready_by = ReadyBy::Sealed;
    }
    let late =
        |studio: &Studio| plan(Request { studio, from: thursday() }).objective.weighted_days_late;
    let first = late(&studio);
    let turn = |p: &Picture| OrderEntry { picture: p.id.clone(), step: p.steps[0].id.clone() };
    studio.order = studio.pictures.iter().map(turn).collect();
    let at_once = late(&studio);
    assert!(first < 0.9 * at_once, "{first:.0} of {at_once:.0} days late");
}

#[test]
fn searches_side_by_side_keep_the_best_that_any_of_them_found() {
    let glazes = [0.0, 5.0, 10.0, 15.0].map(glazed);
    let studio = self::studio((10, 11), glazes.into());
    let request = Request { studio: &studio, from: thursday() };
    let worth = |o: &ulvek_core::planner::Objective| (o.weighted_days_late, o.sum_of_finish_min);
    let mut beside = Planner::new(request);
    let first = worth(&beside.plan().objective);
    let found = std::sync::Mutex::new(first);
    beside.improve_beside(&[3, 4, 5], 300, |progress| {
        let mut found = found.lock().unwrap();
        *found = if worth(&progress.best) < *found { worth(&progress.best) } else { *found };
        true
    });
    let best = worth(&beside.plan().objective);
    assert!(best <= *found.lock().unwrap() && best < first, "{best:?} after {first:?}");
    let mut kept = studio.clone();
    kept.order = beside.order();
    let from_order = plan(Request { studio: &kept, from: thursday() });
    assert_eq!(worth(&from_order.objective), best);
}

#[test]
fn searches_side_by_side_that_are_given_up_keep_what_they_told() {
    let glazes = [0.0, 5.0, 10.0, 15.0].map(glazed);
    let studio = self::studio((10, 11), glazes.into());
    let worth = |o: &ulvek_core::planner::Objective| (o.weighted_days_late, o.sum_of_finish_min);
    let mut beside = Planner::new(Request { studio: &studio, from: thursday() });
    let first = worth(&beside.plan().objective);
    let cancel = Cancel::default();
    let told = std::sync::Mutex::new((0, first));
    let ended = cancel.unless_cancelled(|| {
        beside.improve_beside(&[3, 4], u64::MAX / 2, |progress| {
            let mut told = told.lock().unwrap();
            let best = worth(&progress.best);
            *told = (told.0.max(progress.tried), if best < told.1 { best } else { told.1 });
            if progress.tried > 300 && told.1 < first {
                cancel.cancel();
            }
            true
        });
    });
    let (tried, best) = *told.lock().unwrap();
    assert!(ended.is_none(), "nobody waited for its end");
    assert!(worth(&beside.plan().objective) <= best && best < first, "{best:?} of {first:?}");
    assert!((tried..=tried + 2).contains(&beside.tried()), "{} of {tried}", beside.tried());
}

#[test]
fn a_search_stops_when_it_is_told_to() {
    let studio = self::studio((10, 11), vec![glazed(0.0), glazed(5.0), glazed(10.0), glazed(15.0)]);
    let mut planner = Planner::new(Request { studio: &studio, from: thursday() });
    let mut asked = 0;
    planner.improve(3, u64::MAX / 2, |_| {
        asked += 1;
        asked < 20
    });
    assert_eq!(asked, 20);
    assert!(planner.plan().steps.iter().all(|s| s.blocked.is_none()), "the plan is whole");
}

#[test]
fn a_changed_step_is_planned_as_if_from_the_beginning() {
    let studio = self::studio((10, 14), vec![glazed(0.0), glazed(5.0), glazed(10.0)]);
    let planner = Planner::new(Request { studio: &studio, from: thursday() });
    let mut changed = studio.clone();
    changed.pictures[1].steps[1].wet_film_um = Some(70.0);
    let turned = planner.turn_to(&changed, thursday()).plan();
    let fresh = Planner::new(Request { studio: &changed, from: thursday() }).plan();
    assert_eq!(turned.steps, fresh.steps);
}

#[test]
fn odds_follow_the_air_of_each_future() {
    // Varnish wants at most 65 %. By itself a room at 64 % is fit; of the futures four in ten are too damp for
    // good (their air deviates by 0.06 to either side).
    let varnished = |humidity: f64| {
        let painted = step("paint", StepKind::Pass, &[("heavy-pb29", 1.0)]);
        let seal = step("seal", StepKind::Varnish, &[("varnish-gloss", 1.0)]);
        let mut studio = self::studio((9, 17), vec![vec![painted, seal]]);
        studio.air = AirSeries::constant(Air::try_new(21.0, humidity, 0.15).unwrap());
        studio.pictures[0].due = Some((thursday() + Duration::days(60)).date_naive());
        let request = Request { studio: &studio, from: thursday() };
        let turns = Planner::new(request).order();
        let sampled = odds(request, (&turns, &[]), 5, (60, 2), Aim::Finish, |_| {});
        let due = studio.pictures[0].due.unwrap();
        (sampled[0].by(due), sampled[0].told_by(due))
    };
    let (damp, dry) = (varnished(0.64), varnished(0.45));
    assert!((0.4..0.75).contains(&damp.0), "{damp:?}");
    assert!(dry.0 > 0.95 && dry.1 < 1.0, "never told as certain: {dry:?}");
}

#[test]
fn odds_grow_with_the_day_and_are_the_same_on_any_number_of_threads() {
    let studio = self::studio((10, 14), vec![glazed(0.0), glazed(10.0)]);
    let planner = Planner::new(Request { studio: &studio, from: thursday() });
    let (request, turns) = (Request { studio: &studio, from: thursday() }, planner.order());
    let sampled = odds(request, (&turns, &[]), 5, (60, 1), Aim::Finish, |_| {});
    assert_eq!(sampled, odds(request, (&turns, &[]), 5, (60, 3), Aim::Finish, |_| {}));
    for picture in &sampled {
        let mut before = 0.0;
        for day in 14..=28 {
            let by = picture.by(NaiveDate::from_ymd_opt(2027, 1, day).unwrap());
            assert!((before..=1.0).contains(&by));
            before = by;
        }
        let sure = picture.sure_day().unwrap();
        assert!(picture.by(sure) >= 0.9 && picture.by(sure.pred_opt().unwrap()) < 0.9);
    }
    // Retarder makes the date less sure, not only later.
    let middle = |n: usize| sampled[n].day_of(0.5).unwrap();
    assert!(middle(1) >= middle(0));
}

#[test]
fn whoever_misses_more_of_their_sessions_is_surer_of_a_later_day() {
    let mut studio = self::studio((10, 14), vec![glazed(0.0), glazed(0.0)]);
    let mut day = |missed| {
        studio.missed_sessions = missed;
        let planner = Planner::new(Request { studio: &studio, from: thursday() });
        let request = Request { studio: &studio, from: thursday() };
        odds(request, (&planner.order(), &[]), 5, (60, 2), Aim::Finish, |_| {})[1]
            .sure_day()
            .unwrap()
    };
    let (never, seldom, often) = (day(0.0), day(0.05), day(0.5));
    assert!(never <= seldom && seldom < often, "{never} {seldom} {often}");
}

#[test]
fn what_holds_a_picture_is_one_chain_to_its_end() {
    let studio = self::studio((10, 14), vec![glazed(0.0), glazed(0.0)]);
    let made = plan(Request { studio: &studio, from: thursday() });
    for p in 0..2 {
        let chain = holds(&studio, &made, p, thursday());
        assert_eq!(chain.last().map(|l| l.to), made.pictures[p].finish);
        for pair in chain.windows(2) {
            assert_eq!(pair[1].wait.as_ref().unwrap().of, Some(pair[0].step));
            assert!(pair[1].from >= pair[0].to);
        }
    }
    // The varnish is ready for at night: then the next hours hold it, not the film.
    let chain = holds(&studio, &made, 0, thursday());
    assert!(chain.iter().any(|l| l.held == Held::Hours), "{chain:?}");
}

#[test]
fn ways_to_a_date_gain_what_they_say_and_the_harmless_come_first() {
    let mut studio = self::studio((10, 12), vec![glazed(15.0), glazed(0.0)]);
    studio.schools.waiting = Waiting::Standard;
    studio.pictures[0].due = NaiveDate::from_ymd_opt(2027, 1, 16);
    let planner = Planner::new(Request { studio: &studio, from: thursday() });
    let before = planner.plan();
    assert!(before.pictures[0].days_late.unwrap() > 0);
    let ready_at = |studio, plan: &ulvek_core::planner::Plan| ready(studio, plan, 0).unwrap().at;
    let found = date_ways(&planner, 0, thursday(), |_, _| {});
    assert!(found.iter().any(|w| w.kinds == [DateWayKind::NoRetarder]), "{found:?}");
    for way in &found {
        let alone = plan(Request { studio: &way.studio, from: thursday() });
        assert!(ready_at(&way.studio, &alone) < ready_at(&studio, &before), "{:?}", way.kinds);
        assert!(!way.risk.is_empty() && way.gain_min > 0.0);
    }
    let rank = |w: &ulvek_core::planner::DateWay| (w.days_late > 0, w.others_later > 0.0, w.harm);
    assert!(found.windows(2).all(|pair| rank(&pair[0]) <= rank(&pair[1])));
}
