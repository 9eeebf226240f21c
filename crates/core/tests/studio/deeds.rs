//! What painters do to a studio, and what a studio may be: without a database, each refusal at its
//! place. Numbers are common practice of the trade (docs/trade.md) where they are not bounds of the table.

use chrono::{DateTime, Duration, Utc};
use std::sync::Arc;
use ulvek_core::deeds::{
    Draft, Laid, LaidFilm, drafted, edit_picture, log, put_shelf, retouch, save_settings, touch,
    what_moves,
};
use ulvek_core::mix::Mix;
use ulvek_core::picture::{Picture, Step, StepKind, Touch, TouchTest};
use ulvek_core::planner::Desk;
use ulvek_core::quantity::Fault;
use ulvek_core::studio::Studio;
use ulvek_testkit::{at, step, studio};

/// Toned, with a glaze and a varnish to come; 50 cm by 40 cm.
fn toned() -> Studio {
    let tone = Step { laid_at: Some(at()), ..step("s1", StepKind::Tone, "heavy-py42") };
    let glaze = Step { cup_g: Some(120.0), ..step("s2", StepKind::Glaze, "glazing") };
    let varnish = step("s3", StepKind::Varnish, "varnish-gloss");
    studio(vec![Picture::new("p", (50.0, 40.0), vec![tone, glaze, varnish])])
}

fn later(hours: i64) -> DateTime<Utc> {
    at() + Duration::hours(hours)
}

fn laid(step: &str, film: LaidFilm) -> Laid {
    Laid { step: step.into(), at: later(24), film, mix: None, anyway: None }
}

/// The film that logging the glaze so leaves.
fn film_of(film: LaidFilm) -> Result<Option<f64>, Fault> {
    let deed = log(&toned(), 0, &laid("s2", film), &[], later(24))?;
    let other = |p: &Picture| p.steps.iter().filter(|s| s.id != "s2").cloned().collect::<Vec<_>>();
    assert_eq!(other(&deed.picture), other(&toned().pictures[0]), "only the glaze was logged");
    Ok(deed.picture.steps[1].wet_film_um)
}

#[test]
fn a_coat_is_logged_as_planned_or_as_thick_as_was_said() {
    let planned = toned().pictures[0].steps[1].wet_film_um;
    assert_eq!(film_of(LaidFilm::default()).unwrap(), planned);
    let um = LaidFilm { wet_film_um: Some(35.0), ..LaidFilm::default() };
    assert_eq!(film_of(um).unwrap(), Some(35.0));
    // 8 ml over 0.2 m2 are 40 um: the definition of a film.
    let ml = LaidFilm { amount_ml: Some(8.0), ..LaidFilm::default() };
    assert!((film_of(ml).unwrap().unwrap() - 40.0).abs() < 1e-9);
}

#[test]
fn a_film_that_cannot_be_is_refused_at_the_field_it_was_said_in() {
    let place = |film| film_of(film).unwrap_err().place;
    let none = LaidFilm::default();
    assert_eq!(place(LaidFilm { wet_film_um: Some(6000.0), ..none }), "wet_film_um");
    assert_eq!(place(LaidFilm { amount_ml: Some(-1.0), ..none }), "amount_ml");
    // The cup weighs more after the coat than before it.
    assert_eq!(place(LaidFilm { cup_after_g: Some(130.0), ..none }), "cup_after_g");
    let two = LaidFilm { wet_film_um: Some(40.0), amount_ml: Some(8.0), ..none };
    assert_eq!(place(two), "amount_ml");
}

#[test]
fn nothing_is_logged_in_the_future_or_below_what_lies_on_it() {
    let refused = |laid: Laid| log(&toned(), 0, &laid, &[], later(24)).unwrap_err();
    let ahead = Laid { at: later(25), ..laid("s2", LaidFilm::default()) };
    assert_eq!(refused(ahead).to_string(), "at: a coat cannot have been laid in the future");
    let before = Laid { at: later(-1), ..laid("s2", LaidFilm::default()) };
    assert_eq!(refused(before).place, "at");
    assert_eq!(refused(laid("s9", LaidFilm::default())).place, "step");
}

#[test]
fn a_varnish_goes_through_a_closed_gate_with_its_reason_only_and_the_record_keeps_it() {
    let mut glazed = toned();
    glazed.pictures[0].steps[1].laid_at = Some(later(23));
    let early = laid("s3", LaidFilm::default());
    let refused = log(&glazed, 0, &early, &[], later(24)).unwrap_err();
    assert_eq!(refused.place, "anyway");
    let anyway = Laid { anyway: Some("A test board".into()), ..early };
    let deed = log(&glazed, 0, &anyway, &[], later(24)).unwrap();
    let [kept] = &deed.picture.seal.anyway[..] else { panic!("one reason is kept") };
    assert_eq!((kept.reason.as_str(), kept.step.as_str()), ("A test board", "s3"));
    assert!(!kept.against.is_empty());
    // Nor does an edit lay it by the way: whoever seals says so in the log.
    let mut edited = glazed.pictures[0].clone();
    edited.steps[2].laid_at = Some(later(24));
    let refused = edit_picture(&glazed, 0, edited, &[], later(24)).unwrap_err();
    assert_eq!(refused.place, "steps[2].laid_at");
}

#[test]
fn a_shelf_or_settings_that_pictures_lean_on_cannot_be_taken_from_under_them() {
    let before = toned();
    let mut shelf = before.clone();
    shelf.materials.retain(|m| m.id != "glazing");
    assert_eq!(put_shelf(&before, shelf).unwrap_err().place, "materials");
    // Settings bring nothing but settings.
    let other = Studio { materials: vec![], pictures: vec![], flat_places: 5, ..before.clone() };
    let after = save_settings(&before, other).unwrap();
    assert_eq!(after, Studio { flat_places: 5, ..before });
}

#[test]
fn a_draft_names_its_own_place_and_leaves_the_studio_as_it_was() {
    let before = toned();
    let mut picture = before.pictures[0].clone();
    picture.steps[1].mix = Mix::one("moonlight");
    let draft = Draft { pictures: vec![(0, picture)], ..Draft::default() };
    let refused = drafted(&before, &draft, later(1)).unwrap_err();
    assert_eq!(refused.place, "draft.pictures[0].picture.steps[1].mix[0].material");
    let nowhere = Draft { pictures: vec![(7, before.pictures[0].clone())], ..Draft::default() };
    let refused = drafted(&before, &nowhere, later(1)).unwrap_err();
    assert_eq!(refused.to_string(), "draft.pictures[0].id: the studio has no such picture");
}

type Spoil<'a> = &'a dyn Fn(&mut Studio);

#[test]
fn a_studio_is_judged_by_its_values_at_every_place() {
    assert_eq!(toned().check(), Ok(()));
    let refused = |spoil: Spoil<'_>| {
        let mut studio = toned();
        spoil(&mut studio);
        studio.check().unwrap_err().place
    };
    let cases: [(&str, Spoil<'_>); 8] = [
        ("materials[0].density_g_ml", &|s| s.materials[0].density_g_ml = Some(0.0)),
        ("materials[0].slow_volatility", &|s| s.materials[0].slow_volatility = Some(0.0)),
        ("pictures[0].width_cm", &|s| s.pictures[0].width_cm = f64::NAN),
        ("pictures[0].steps[1].wet_film_um", &|s| {
            s.pictures[0].steps[1].wet_film_um = Some(0.5);
        }),
        ("pictures[0].steps[1].mix[0].parts", &|s| {
            s.pictures[0].steps[1].mix = Mix::of(&[("glazing", -1.0)]);
        }),
        ("pictures[0].steps[1]", &|s| {
            s.pictures[0].steps[1].after = Some(vec!["s9".into()]);
        }),
        ("pictures[0].steps[2]", &|s| s.pictures[0].steps[2].id = "s1".into()),
        ("pictures[0].steps[0].laid_at", &|s| {
            s.pictures[0].steps[0].laid_at = Some("2110-01-01T00:00:00Z".parse().unwrap());
        }),
    ];
    for (place, spoil) in cases {
        assert_eq!(refused(spoil), place);
    }
}

/// A fingertip on a coat, minutes after the tone.
fn fingertip(step: &str, minutes: i64, felt: Touch) -> TouchTest {
    TouchTest { at: at() + Duration::minutes(minutes), step: step.into(), felt }
}

#[test]
fn a_touch_is_kept_put_right_and_taken_back_and_says_what_it_moves() {
    let studio = toned();
    let now = later(1);
    let deed = touch(&studio, 0, fingertip("s1", 55, Touch::Tacky), now).unwrap();
    assert_eq!(deed.label, "touch tone");
    let mut felt = studio.clone();
    felt.pictures[0] = deed.picture;
    let learned = felt.learn();
    let [mut before, mut after] = [&studio, &felt].map(|s| Desk::new(Arc::new(s.clone())));
    let test = &felt.pictures[0].tests[0];
    let moves = what_moves(&mut before, &mut after, 0, Some((test, &learned)), now).unwrap();
    assert!(moves[0].starts_with("That is not what was expected"), "{moves:?}");
    assert!(moves.iter().any(|said| said.starts_with("Your room dries in 1.")), "{moves:?}");
    assert!(moves.iter().any(|said| said.contains("is paintable by")), "{moves:?}");
    let (old, new) = (fingertip("s1", 55, Touch::Tacky), fingertip("s1", 20, Touch::Tacky));
    let right = retouch(&felt, 0, (&old, Some(new.clone())), now).unwrap();
    assert_eq!(right.picture.tests, std::slice::from_ref(&new));
    let back = retouch(&felt, 0, (&old, None), now).unwrap();
    assert_eq!(back.picture, studio.pictures[0]);
    assert_eq!(retouch(&felt, 0, (&new, None), now).unwrap_err().place, "test");
    // A coat that is taken out takes its tests with it.
    let mut without = felt.pictures[0].clone();
    without.steps[0].laid_at = None;
    without.steps.remove(0);
    assert_eq!(edit_picture(&felt, 0, without, &[], now).unwrap().tests, []);
}

#[test]
fn a_touch_that_cannot_be_is_refused_at_its_time_with_the_reason() {
    let mut studio = toned();
    studio.pictures[0].steps[1].laid_at = Some(at() + Duration::minutes(40));
    let refused = |test| touch(&studio, 0, test, later(1)).unwrap_err().to_string();
    assert_eq!(
        refused(fingertip("s1", 61 + 2, Touch::Dry)),
        "at: a coat cannot have been touched in the future"
    );
    assert_eq!(refused(fingertip("s1", -1, Touch::Wet)), "at: tone was not on yet at that time");
    assert_eq!(
        refused(fingertip("s1", 50, Touch::Dry)),
        "at: glaze lies on it since: what was felt is glaze itself"
    );
    assert_eq!(
        refused(fingertip("s3", 50, Touch::Dry)),
        "at: varnish is no coat that is on: there is nothing to touch"
    );
    assert_eq!(refused(fingertip("s9", 5, Touch::Dry)), "at: the picture has no step \"s9\"");
}
