//! What holds a picture most is what it would be ready soonest without.

use super::planner::EVERY_DAY;
use chrono::{DateTime, Duration, NaiveTime, Utc, Weekday};
use ulvek_core::air::{Air, AirSeries};
use ulvek_core::mix::{Mix, starter_shelf};
use ulvek_core::picture::{Picture, ReadyBy, Step, StepKind};
use ulvek_core::planner::{Request, cause, plan};
use ulvek_core::studio::{OpenHours, Studio, StudioHours, Waiting};

fn start() -> DateTime<Utc> {
    "2027-01-04T08:00:00Z".parse().unwrap()
}

fn coat(id: &str, kind: StepKind, material: &str) -> Step {
    Step { mix: Mix::one(material), ..Step::usual(id, kind) }
}

fn picture(id: &str, paint: &str) -> Picture {
    let steps = vec![
        coat("pass", StepKind::Pass, paint),
        coat("varnish-1", StepKind::Varnish, "varnish-gloss"),
        coat("varnish-2", StepKind::Varnish, "varnish-gloss"),
    ];
    let due = Some((start() + Duration::days(5)).date_naive());
    Picture { due, ready_by: ReadyBy::Sealed, ..Picture::new(id, (30.0, 40.0), steps) }
}

fn studio(days: &[Weekday], pictures: Vec<Picture>) -> Studio {
    let time = |h| NaiveTime::from_hms_opt(h, 0, 0).unwrap();
    let open = |day: &Weekday| OpenHours { day: *day, from: time(9), to: time(17) };
    let hours =
        StudioHours::try_new(chrono_tz::UTC, days.iter().map(open).collect(), vec![]).unwrap();
    let air = AirSeries::constant(Air::try_new(21.0, 0.5, 0.15).unwrap());
    Studio { materials: starter_shelf().unwrap(), pictures, ..Studio::new("Room", hours, air) }
}

/// What holds the first picture, and by how many days.
fn held(studio: &Studio) -> (String, f64) {
    let made = plan(Request { studio, from: start() });
    let found = cause(studio, &made, 0, start()).unwrap();
    assert!(found.said().contains(&found.what), "{}", found.said());
    (found.what, found.sooner_days)
}

#[test]
fn a_picture_is_held_by_what_it_would_be_ready_soonest_without() {
    // Slow-drying paint waits two weeks and more for its varnish, ordinary paint three or four days (common practice):
    // the wait before varnish is not what holds it.
    let (what, days) = held(&studio(&EVERY_DAY, vec![picture("a", "slow-pbr7")]));
    assert_eq!(what, "slow-drying paint and retarder");
    assert!(days > 7.0, "{days}");
    // One day a week: three coats take three weeks.
    let (what, _) = held(&studio(&[Weekday::Wed], vec![picture("a", "heavy-pb29")]));
    assert_eq!(what, "your hours");
    let mut later = studio(&EVERY_DAY, vec![picture("a", "heavy-pb29")]);
    later.pictures[0].steps[0].not_before = Some(start() + Duration::days(40));
    let (what, days) = held(&later);
    assert_eq!((what.as_str(), days.round()), ("the days you set for its steps", 40.0));
    // Where nothing else holds it, it is the wrapping that every picture waits for.
    let mut wrapped = studio(&EVERY_DAY, vec![picture("a", "heavy-pb29")]);
    wrapped.pictures[0].ready_by = ReadyBy::Wrapped;
    wrapped.pictures[0].steps.truncate(1);
    assert_eq!(held(&wrapped).0, "the wait until it is safe to wrap");
    // Where it only waits for its own coats, nothing is named that would not help.
    let mut alone = studio(&EVERY_DAY, vec![picture("a", "heavy-pb29")]);
    alone.pictures[0].steps.truncate(1);
    let made = plan(Request { studio: &alone, from: start() });
    assert_eq!(cause(&alone, &made, 0, start()), None);
}

#[test]
fn a_place_to_lie_flat_and_other_pictures_hold_it_where_they_are_short() {
    // All varnishes come due at once, and each keeps the only flat place.
    let pictures = |n: usize| (0..n).map(|p| picture(&format!("p{p}"), "heavy-pb29")).collect();
    let mut short = studio(&EVERY_DAY, pictures(10));
    (short.flat_places, short.schools.waiting) = (1, Waiting::Brisk);
    short.setup_min = 0.0;
    for step in short.pictures.iter_mut().flat_map(|p| &mut p.steps) {
        step.hands_on_min = 5.0;
    }
    short.pictures[0].weight = 0.5;
    short.pictures[0].due = Some((start() + Duration::days(60)).date_naive());
    let (what, days) = held(&short);
    assert_eq!(what, "too few places to lie flat", "{days}");
    // A pass of a whole day each: the painter comes to it last.
    let mut busy = studio(&EVERY_DAY, pictures(10));
    for picture in &mut busy.pictures {
        picture.steps.truncate(1);
        picture.steps[0].hands_on_min = 400.0;
    }
    busy.pictures[0].due = Some((start() + Duration::days(60)).date_naive());
    let (what, days) = held(&busy);
    assert!(what == "your other pictures" && days > 5.0, "{what} {days}");
}
