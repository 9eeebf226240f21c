//! The day book, and the air that a painter types or takes in: each refusal at its place, and what is
//! known of other times stays.

use chrono::{DateTime, Duration, Utc};
use ulvek_core::air::{Air, Origin, Room, RoomHour};
use ulvek_core::deeds::daybook::{enter, put_right};
use ulvek_core::deeds::{AirAhead, Told, ToldWhat, take_in_air, type_reading};
use ulvek_core::picture::{Happening, PaintTrouble, What};
use ulvek_core::studio::{AirSource, Studio};
use ulvek_testkit::{at, picture, studio};

fn told(what: ToldWhat) -> Told {
    let words = "cold by the window".into();
    Told { at: hours(-1), step: None, material: None, place: String::new(), words, what }
}

fn hours(n: i64) -> DateTime<Utc> {
    at() + Duration::hours(n)
}

fn seconds(at: DateTime<Utc>) -> f64 {
    at.timestamp_micros() as f64 / 1e6
}

#[test]
fn notes_misting_and_sessions_are_entered_as_they_are_told() {
    let room = studio(vec![picture("p")]);
    let entered = |what| enter(&room, &told(what), at()).unwrap();
    assert_eq!(entered(ToldWhat::Noted).words, "cold by the window");
    assert_eq!(entered(ToldWhat::Misted).what, What::Misted);
    let session = entered(ToldWhat::Session(at()));
    assert_eq!((session.at, session.what), (hours(-1), What::Session { until: at() }));
    let jar = Told { material: Some("glazing".into()), ..told(ToldWhat::Noted) };
    assert_eq!(enter(&room, &jar, at()).unwrap().material.as_deref(), Some("glazing"));
}

#[test]
fn what_does_not_belong_into_the_day_book_is_refused_at_its_place() {
    let room = studio(vec![picture("p")]);
    let field = |told: Told| enter(&room, &told, at()).unwrap_err().place;
    let session = |from, until| Told { at: from, ..told(ToldWhat::Session(until)) };
    for (wrong, place) in [
        (told(ToldWhat::WipedOff), "what"),
        (told(ToldWhat::Trouble(PaintTrouble::Streaks)), "what"),
        (Told { step: Some("s1".into()), ..told(ToldWhat::Noted) }, "step"),
        (Told { place: "lower left".into(), ..told(ToldWhat::Noted) }, "step"),
        (Told { material: Some("no-such-jar".into()), ..told(ToldWhat::Noted) }, "material"),
        (Told { words: String::new(), ..told(ToldWhat::Noted) }, "words"),
        (Told { at: hours(1), ..told(ToldWhat::Noted) }, "at"),
        (session(hours(-2), hours(-2)), "until"),
        (session(hours(-2), hours(-3)), "until"),
        (session(hours(-2), hours(1)), "until"),
        (session(hours(-30), hours(-5)), "until"),
    ] {
        assert_eq!(field(wrong.clone()), place, "{wrong:?}");
    }
    // A clock that is a little fast is no future.
    let fast = session(hours(-2), at() + Duration::seconds(20));
    assert!(enter(&room, &fast, at()).is_ok());
}

#[test]
fn the_same_entry_is_kept_once_and_put_right_where_it_is_kept() {
    let mut room = studio(vec![picture("p")]);
    let note: Happening = enter(&room, &told(ToldWhat::Noted), at()).unwrap();
    let other = Told { words: "warm by the stove".into(), ..told(ToldWhat::Noted) };
    assert_eq!(put_right(&room, &note, &other, at()).unwrap_err().place, "entry");
    room.happened.push(note.clone());
    assert_eq!(enter(&room, &told(ToldWhat::Noted), at()).unwrap_err().place, "at");
    assert_eq!(put_right(&room, &note, &other, at()).unwrap().words, "warm by the stove");
    let later = Told { at: hours(2), ..other };
    assert_eq!(put_right(&room, &note, &later, at()).unwrap_err().place, "at");
}

#[test]
fn a_typed_reading_stands_for_an_hour_and_is_of_what_was() {
    let room = studio(vec![picture("p")]);
    let after = type_reading(&room, hours(-3), (17.5, 0.62), at()).unwrap();
    let air = |studio: &Studio, h| *studio.air.at(seconds(hours(h)));
    let typed = air(&after, -3);
    assert_eq!((typed.celsius, typed.humidity), (17.5, 0.62));
    assert_eq!(after.air.origin(seconds(hours(-3))), Origin::Typed);
    for other in [-4, -2, 0] {
        assert_eq!(air(&after, other), air(&room, other), "{other} h");
    }
    let field = |when, reading| type_reading(&room, when, reading, at()).unwrap_err().place;
    assert_eq!(field(hours(1), (17.5, 0.62)), "at");
    assert_eq!(field(hours(-1), (90.0, 0.62)), "temperature_c");
    assert_eq!(field(hours(-1), (17.5, 62.0)), "relative_humidity");
    assert_eq!(field(hours(-1), (17.5, f64::NAN)), "relative_humidity");
}

/// Outside air of each hour from `from` on for a day.
fn outside(from: DateTime<Utc>) -> Vec<RoomHour> {
    let hour = |n: i64| RoomHour {
        at: seconds(from + Duration::hours(n)),
        outside: Air::try_new(-4.0, 0.85, 3.0).unwrap(),
    };
    (0..24).map(hour).collect()
}

#[test]
fn air_to_come_takes_the_place_of_what_is_to_come_alone() {
    let room = type_reading(&studio(vec![picture("p")]), hours(-3), (17.5, 0.62), at()).unwrap();
    let taken = |ahead| take_in_air(&room, Room::default(), ahead, at()).unwrap();
    let forecast = taken(AirAhead::Forecast(outside(hours(-2))));
    let air = |studio: &Studio, h| *studio.air.at(seconds(hours(h)));
    assert_eq!(air(&forecast, -3), air(&room, -3), "what was read stays");
    assert_eq!(forecast.air.origin(seconds(hours(5))), Origin::Forecast);
    assert_eq!(forecast.room.source, AirSource::Forecast);
    // Frosty air that is warmed is dry: a heated room falls far below the usual half.
    assert!(air(&forecast, 15).humidity < 0.35 && air(&forecast, 15).celsius > 15.0);
    // Kept as usual, nothing of the forecast is left.
    let usual = take_in_air(&forecast, Room::default(), AirAhead::Constant, at()).unwrap();
    assert_eq!(air(&usual, 5), *usual.air.usual());
    assert_eq!(air(&usual, -3), air(&room, -3));
}

#[test]
fn a_log_of_the_room_says_what_was_in_its_own_span() {
    let room = studio(vec![picture("p")]);
    let read = |h: i64| (seconds(hours(h)), Air::try_new(16.0, 0.6, 0.15).unwrap());
    let log = AirAhead::Readings((-10..-4).map(read).collect());
    let after = take_in_air(&room, Room::default(), log, at()).unwrap();
    let air = |studio: &Studio, h| *studio.air.at(seconds(hours(h)));
    assert_eq!((air(&after, -7).celsius, after.room.source), (16.0, AirSource::Readings));
    assert_eq!(air(&after, -12), air(&room, -12));
    assert_eq!(air(&after, 2), air(&room, 2));
    // A log of the outside goes through the room first.
    let out = AirAhead::Outside(outside(hours(-30)));
    let through = take_in_air(&room, Room::default(), out, at()).unwrap();
    assert!(air(&through, -10).celsius > 10.0, "the room is heated, the street is not");
    assert_eq!(through.air.origin(seconds(hours(-10))), Origin::Table);
}

#[test]
fn a_room_that_cannot_be_is_blamed_and_not_its_air() {
    let room = studio(vec![picture("p")]);
    let wrong = Room { changes_per_h: -1.0, ..Room::default() };
    let ahead = AirAhead::Forecast(outside(at()));
    let fault = take_in_air(&room, wrong, ahead, at()).unwrap_err();
    assert!(fault.place.contains("changes_per_h"), "{fault}");
}
