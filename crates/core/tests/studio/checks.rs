//! What may be in a studio: each thing that may not is refused at its own place, and nothing else is.

use chrono::{Duration, TimeZone, Utc};
use ulvek_core::colour::Lab;
use ulvek_core::mix::{Drawdown, Mix, Stock};
use ulvek_core::picture::{
    Happening, PaintTrouble, Picture, SealTrouble, Step, StepKind, Touch, TouchTest, TroubleFound,
    What,
};
use ulvek_core::quantity::Fault;
use ulvek_core::studio::{OwnWay, Studio, Tightness, Tub};
use ulvek_testkit::{at, step, studio};

/// A small studio with one of everything, which may be.
fn sound() -> Studio {
    let steps = vec![
        Step { laid_at: Some(at()), ..step("s1", StepKind::Tone, "heavy-py42") },
        Step { tub: Some("t1".into()), ..step("s2", StepKind::Glaze, "glazing") },
        step("s3", StepKind::Varnish, "varnish-gloss"),
    ];
    let mut picture = Picture::new("p", (30.0, 40.0), steps);
    picture.tests.push(TouchTest { step: "s1".into(), at: at(), felt: Touch::Dry });
    picture.happened.push(note(What::Trouble(PaintTrouble::Dust)));
    picture.seal.troubles.push(TroubleFound {
        at: at(),
        step: "s3".into(),
        trouble: SealTrouble::Hair,
    });
    let mut studio = studio(vec![picture]);
    studio.tubs.push(Tub {
        id: "t1".into(),
        name: "Glazing, jar".into(),
        mix: Mix::one("glazing"),
        mixed_at: at(),
        mixed_ml: 40.0,
        level: Stock { ml: 40.0, at: at() },
        tightness: Tightness::WORDS[0].1,
        keeps_days: None,
        checks: vec![],
        archived: false,
    });
    let steps =
        vec![step("w1", StepKind::Tone, "heavy-py42"), step("w2", StepKind::Pass, "heavy-pb29")];
    let way = |id: &str| OwnWay {
        id: id.into(),
        name: "Slow".into(),
        why: "Calm.".into(),
        steps: steps.clone(),
    };
    studio.ways.push(way("w"));
    studio
}

fn note(what: What) -> Happening {
    let words = "north light".into();
    Happening { at: at(), step: None, material: None, place: String::new(), words, what }
}

/// Where the studio is refused once it is changed so.
fn refused(change: impl FnOnce(&mut Studio)) -> Fault {
    let mut studio = sound();
    assert_eq!(studio.check(), Ok(()), "before it is changed");
    change(&mut studio);
    studio.check().unwrap_err()
}

fn long_ago() -> chrono::DateTime<Utc> {
    Utc.with_ymd_and_hms(1200, 1, 1, 0, 0, 0).unwrap()
}

type Change = fn(&mut Studio);

#[test]
fn what_a_picture_may_not_be_is_refused_at_its_place() {
    let changes: &[(&str, Change)] = &[
        ("title", |s| s.pictures[0].title = "two\nlines".into()),
        ("width_cm", |s| s.pictures[0].width_cm = 0.0),
        ("height_cm", |s| s.pictures[0].height_cm = f64::NAN),
        ("weight", |s| s.pictures[0].weight = -1.0),
        ("due", |s| s.pictures[0].due = Some(long_ago().date_naive())),
        ("ground.absorbs_um", |s| s.pictures[0].ground.absorbs_um = 1e6),
        ("ground.back", |s| s.pictures[0].ground.back = 1.5),
        ("steps[1].tub", |s| s.pictures[0].steps[1].tub = Some("t9".into())),
        ("steps[1].tub", |s| s.pictures[0].steps[1].mix = Mix::one("gloss-medium")),
        ("steps[0].mix[0].material", |s| s.pictures[0].steps[0].mix = Mix::one("no-such-jar")),
        ("steps[0].hands_on_min", |s| s.pictures[0].steps[0].hands_on_min = -5.0),
        ("steps[0].wet_film_um", |s| s.pictures[0].steps[0].wet_film_um = Some(6000.0)),
        ("steps[0].wet_film_um", |s| s.pictures[0].steps[0].wet_film_um = None),
        ("steps[0].share_of_area", |s| s.pictures[0].steps[0].share_of_area = 1.01),
        ("steps[0].loss", |s| s.pictures[0].steps[0].loss = Some(1.0)),
        ("steps[0].laid_at", |s| s.pictures[0].steps[0].laid_at = Some(long_ago())),
        ("steps[2].section", |s| s.pictures[0].steps[2].section = Some("sky".into())),
        ("tests[0].step", |s| s.pictures[0].tests[0].step = "s9".into()),
        ("tests[0].at", |s| s.pictures[0].tests[0].at = long_ago()),
        ("happened[0].at", |s| s.pictures[0].happened[0].at = long_ago()),
        ("happened[0].what", |s| {
            s.pictures[0].happened[0].what = What::Session { until: at() + Duration::hours(1) };
        }),
        ("happened[0].was_um", |s| {
            s.pictures[0].happened[0].what = What::WipedOff { was_um: -1.0 };
        }),
        ("seal.troubles[0].step", |s| s.pictures[0].seal.troubles[0].step = String::new()),
        ("seal.inspected_at", |s| s.pictures[0].seal.inspected_at = Some(long_ago())),
    ];
    for (place, change) in changes {
        assert_eq!(refused(*change).place, format!("pictures[0].{place}"));
    }
    let twice = refused(|s| s.pictures.push(s.pictures[0].clone()));
    assert_eq!(twice.to_string(), "pictures[1].id: \"p\" is used twice");
}

#[test]
fn what_a_shelf_may_not_be_is_refused_at_its_place() {
    let (light, dark) = (Lab::grey(60.0).on_screen().0, Lab::grey(25.0).on_screen().0);
    let over = |over_white, over_black| Drawdown {
        over_white,
        over_black,
        dry_um: Drawdown::USUAL_DRY_UM,
        cards: Drawdown::CARDS,
    };
    let first =
        |change: fn(&mut ulvek_core::mix::Material)| refused(|s| change(&mut s.materials[0])).place;
    assert_eq!(first(|m| m.name = String::new()), "materials[0].name");
    assert_eq!(first(|m| m.binder = Some(0.99)), "materials[0].binder");
    assert_eq!(first(|m| m.density_g_ml = Some(50.0)), "materials[0].density_g_ml");
    assert_eq!(first(|m| m.pigments = vec!["PW6".into(); 21]), "materials[0].pigments");
    assert_eq!(first(|m| m.pigments = vec!["P\nW".into()]), "materials[0].pigments[0]");
    assert_eq!(first(|m| m.stock = Some(Stock { ml: -1.0, at: at() })), "materials[0].stock.ml");
    // Paint darker over the white card than over the black one was read the wrong way round.
    let turned = refused(|s| s.materials[0].drawdown = Some(over(dark, light)));
    assert_eq!(turned.place, "materials[0].over_white", "{turned}");
    let changes: &[(&str, Change)] = &[
        ("tubs[0].mix[0].material", |s| s.tubs[0].mix = Mix::one("no-such-jar")),
        ("tubs[0].mixed_ml", |s| s.tubs[0].mixed_ml = -1.0),
        ("tubs[0].level.at", |s| s.tubs[0].level.at = long_ago()),
        ("tubs[0].keeps_days", |s| s.tubs[0].keeps_days = Some(-1.0)),
        ("tubs[1].id", |s| s.tubs.push(s.tubs[0].clone())),
        ("ways[0].why", |s| s.ways[0].why = String::new()),
        ("ways[0].steps[0].laid_at", |s| s.ways[0].steps[0].laid_at = Some(at())),
        ("ways[0].steps[1]", |s| s.ways[0].steps[1].after = Some(vec!["w9".into()])),
        ("happened[0].what", |s| s.happened.push(note(What::Trouble(PaintTrouble::Dust)))),
        ("happened[0].what.until", |s| s.happened.push(note(What::Session { until: at() }))),
    ];
    for (place, change) in changes {
        let fault = refused(*change);
        assert!(fault.place.starts_with(place), "{place}: {fault}");
    }
}

#[test]
fn what_pictures_use_is_put_away_and_not_taken_out() {
    let taken = |change: Change| {
        let mut studio = sound();
        assert_eq!(studio.check_shelf(), Ok(()));
        change(&mut studio);
        studio.check_shelf().unwrap_err().to_string()
    };
    let paint = taken(|s| {
        s.ways.clear();
        s.materials.retain(|m| m.id != "heavy-py42");
    });
    assert!(paint.contains("put it away instead of taking it out"), "{paint}");
    let tub = taken(|s| s.tubs.clear());
    assert!(tub.starts_with("tubs: the tub \"t1\" is used in glaze"), "{tub}");
}
