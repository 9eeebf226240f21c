//! The cup of a studio: how much goes in, what a hand turns, what is refused and where, and on what it
//! will lie. Volumes follow from the definition of a film: 1 um over 1 m2 is 1 ml.

use chrono::{DateTime, Duration, NaiveTime, Utc, Weekday};
use proptest::prelude::*;
use std::sync::Arc;
use ulvek_core::cup::Unit;
use ulvek_core::mix::{LimitKind, Mix, Stock};
use ulvek_core::picture::{Picture, Step, StepKind};
use ulvek_core::planner::{Plan, Request, cup_place, plan};
use ulvek_core::quantity::Fault;
use ulvek_core::studio::{
    CupAsked, CupPlace, Cupful, OpenHours, SeriesAsked, Studio, StudioHours, Turn,
};
use ulvek_testkit::{at, step, studio};

const GLAZE: [(&str, f64); 2] = [("glazing", 9.0), ("fluid-pb15", 1.0)];

/// 50 cm by 40 cm, toned a week ago, with two glazes and a varnish to come; hours on every day.
fn toned() -> Studio {
    let tone = Step {
        laid_at: Some(at() - Duration::days(7)),
        ..step("s1", StepKind::Tone, "heavy-py42")
    };
    let glaze = |id| Step { mix: Mix::of(&GLAZE), ..step(id, StepKind::Glaze, "glazing") };
    let varnish = step("s4", StepKind::Varnish, "varnish-gloss");
    let time = |h| NaiveTime::from_hms_opt(h, 0, 0).unwrap();
    let hours = (0..7).map(|n| OpenHours {
        day: Weekday::try_from(n).unwrap(),
        from: time(9),
        to: time(21),
    });
    let steps = vec![tone, glaze("s2"), glaze("s3"), varnish];
    Studio {
        hours: StudioHours::try_new(chrono_tz::UTC, hours.collect(), vec![]).unwrap(),
        ..studio(vec![Picture::new("p", (50.0, 40.0), steps)])
    }
}

fn asked() -> CupAsked {
    CupAsked::coat(Mix::of(&GLAZE), 40.0)
}

fn cup(asked: &CupAsked) -> Result<Cupful, Fault> {
    let studio = toned();
    let place = CupPlace::now(&studio, 0, Some(1), at()).unwrap();
    studio.cupful(0, asked, &place)
}

#[test]
fn a_cup_holds_the_film_and_what_stays_in_cup_and_brush() {
    // 40 um over 0.2 m2 are 8 ml; with 15 % lost (common practice) 9.41 are mixed, a tenth of it paint.
    let full = cup(&asked()).unwrap();
    assert!((full.on_picture_ml - 8.0).abs() < 1e-9 && (full.total_ml - 8.0 / 0.85).abs() < 1e-9);
    assert!(
        (full.amounts[1].ml - 0.8 / 0.85).abs() < 1e-9 && full.amounts[1].counted() == Some(19)
    );
    // Half of the picture takes half; a cup that is poured as a whole says what is lost of it.
    let half = cup(&CupAsked { share_of_area: 0.5, ..asked() }).unwrap();
    assert!((half.total_ml - full.total_ml / 2.0).abs() < 1e-9);
    let whole = cup(&CupAsked { total_ml: Some(10.0), ..asked() }).unwrap();
    assert!((whole.loss - 0.2).abs() < 1e-9 && whole.total_ml == 10.0);
    // What is short says how far it goes: 0.4 ml of paint are half of what a whole coat takes of it.
    let short = CupAsked { have: Some(("fluid-pb15".into(), 0.4 / 0.85)), ..asked() };
    assert!((cup(&short).unwrap().short.unwrap().share_of_area - 0.5).abs() < 1e-9);
}

#[test]
fn limits_are_judged_on_the_cup_as_it_is_measured() {
    // 14 % retarder is within the 15 % of common practice; in half millilitres 5.5 ml take 1 ml of it, 17 %.
    let mix = Mix::of(&[("glazing", 80.0), ("fluid-pb15", 6.0), ("retarder", 14.0)]);
    let small = CupAsked { total_ml: Some(5.5), ..CupAsked::coat(mix, 20.0) };
    let retarder = |asked: &CupAsked| {
        let found = cup(asked).unwrap().limits;
        found.into_iter().find(|l| l.kind == LimitKind::Retarder).unwrap()
    };
    assert!(retarder(&small).kept);
    let coarse = retarder(&CupAsked { measure_ml: 0.5, ..small.clone() });
    assert!(!coarse.kept && coarse.share.is_some_and(|share| share > 0.16), "{coarse:?}");
    // A cup at the limit is not broken by the last drop.
    let mix = Mix::of(&[("glazing", 79.0), ("fluid-pb15", 6.0), ("retarder", 15.0)]);
    let edge = CupAsked { mix, total_ml: Some(4.9), ..small };
    let ml = cup(&edge).unwrap().rounded.ml;
    assert!(ml[2] / ml.iter().sum::<f64>() > 0.15 && retarder(&edge).kept, "{ml:?}");
}

#[test]
fn what_a_cup_cannot_be_is_refused_at_its_field() {
    let place = |asked: CupAsked| cup(&asked).unwrap_err().place;
    let turn = |part, unit, value| CupAsked {
        turns: vec![Turn { part, unit, value, of_ml: None }],
        ..asked()
    };
    for (wrong, field) in [
        (CupAsked { wet_film_um: 6000.0, ..asked() }, "wet_film_um"),
        (CupAsked { share_of_area: 1.2, ..asked() }, "share_of_area"),
        (CupAsked { loss: 1.0, ..asked() }, "loss"),
        (CupAsked { total_ml: Some(7.9), ..asked() }, "total_ml"),
        (CupAsked { measure_ml: 0.0, ..asked() }, "measure_ml"),
        (CupAsked { have: Some(("heavy-pw6".into(), 3.0)), ..asked() }, "have"),
        (CupAsked { have: Some(("glazing".into(), 0.0)), ..asked() }, "have"),
        (CupAsked { mix: Mix::of(&[("glazing", -1.0)]), ..asked() }, "mix[0].parts"),
        (CupAsked { mix: Mix::one("no-such-jar"), ..asked() }, "mix"),
        (turn(1, Unit::Ml, 10.0), "mix[1]"),
        (turn(2, Unit::Percent, 10.0), "mix[2]"),
    ] {
        assert_eq!(place(wrong.clone()), field, "{wrong:?}");
    }
}

#[test]
fn a_school_that_thins_with_medium_only_allows_no_water_in_a_glaze() {
    let watered = CupAsked {
        mix: Mix::of(&[("glazing", 8.0), ("fluid-pb15", 1.0), ("water", 1.0)]),
        ..asked()
    };
    let water = |cup: Cupful| cup.limits.into_iter().find(|l| l.kind == LimitKind::Water).unwrap();
    let found = water(cup(&watered).unwrap());
    assert!(!found.kept && found.limit == 0.0 && found.why().contains("medium only"), "{found:?}");
    assert!(water(cup(&asked()).unwrap()).kept);
}

#[test]
fn a_cup_knows_where_it_will_lie_and_what_is_left_for_it() {
    let mut studio = toned();
    let stock = Stock { ml: 10.0, at: at() };
    studio.materials.iter_mut().find(|m| m.id == "fluid-pb15").unwrap().stock = Some(stock);
    let plan = Arc::new(plan(Request { studio: &studio, from: at() }));
    let place = |i| cup_place(&studio, || plan.clone(), (0, i), at()).unwrap();
    let begins = |plan: &Plan, i| plan.steps.iter().find(|s| s.step == i).unwrap().sittings[0].from;
    // The first glaze may be laid now: the tone is a week old.
    let first = place(1);
    assert_eq!((first.at, first.coats.len(), first.because.clone()), (at(), 1, None));
    // The second lies on the first, when the plan has it, and says why not before.
    let second = place(2);
    assert_eq!((second.at, second.coats.len()), (begins(&plan, 2), 2));
    assert!(second.because.is_some() && second.coats[1].step == 1);
    // What the first takes of the paint is gone then: a tenth of 8 ml and what is lost of it.
    let left = |place: &CupPlace| studio.cupful(0, &asked(), place).unwrap().left_ml;
    let taken = ulvek_core::studio::taken_ml(&studio.pictures[0], &studio.pictures[0].steps[1]);
    assert_eq!(left(&first), [None, Some(10.0)]);
    let after = left(&second)[1].unwrap();
    assert!((after - (10.0 - taken.unwrap() / 10.0)).abs() < 1e-9, "{after}");
    // What is laid already is looked at as it lies now, and needs no plan.
    let laid = cup_place(&studio, || panic!("no plan is asked for"), (0, 0), at()).unwrap();
    assert_eq!((laid.at, laid.before.len()), (at(), 0));
}

#[test]
fn on_a_wet_coat_a_cup_waits() {
    let mut studio = toned();
    studio.pictures[0].steps[1].laid_at = Some(at() - Duration::minutes(2));
    let now = CupPlace::now(&studio, 0, Some(2), at()).unwrap();
    let laid = studio.laid_at(0, (&Mix::of(&GLAZE), 40.0), &now).unwrap().unwrap();
    let full = studio.cupful(0, &asked(), &now).unwrap();
    assert!(full.waits && laid.at > seconds(at()), "the glaze below is wet");
    assert!(!cup(&asked()).unwrap().waits, "a week after the tone nothing is waited for");
    // Retarder is there to keep it open: it can be worked longer.
    let retarded = Mix::of(&[("glazing", 8.0), ("fluid-pb15", 1.0), ("retarder", 1.0)]);
    let slow = studio.laid_at(0, (&retarded, 40.0), &now).unwrap().unwrap();
    assert!(slow.working_min().unwrap() > laid.working_min().unwrap());
}

fn seconds(at: DateTime<Utc>) -> f64 {
    at.timestamp_micros() as f64 / 1e6
}

#[test]
fn a_series_rises_evenly_and_refuses_what_is_none() {
    let studio = toned();
    let place = CupPlace::now(&studio, 0, Some(1), at()).unwrap();
    let asked = SeriesAsked {
        strong: "fluid-pb15".into(),
        thin: "glazing".into(),
        from: 0.05,
        to: 0.30,
        cups: 6,
        ml: 2.0,
        wet_film_um: 40.0,
    };
    let row = studio.series(0, &asked, &place).unwrap();
    let strong: Vec<f64> = row.iter().map(|cup| cup.amounts[1].ml).collect();
    for (n, ml) in strong.iter().enumerate() {
        // 95:5 to 70:30 in steps of five (common practice), 2 ml each.
        assert!((ml - (0.1 + 0.1 * n as f64)).abs() < 1e-9, "{strong:?}");
    }
    assert!(row.iter().all(|cup| cup.laid.is_some() && !cup.limits.is_empty()));
    let field = |wrong: SeriesAsked| studio.series(0, &wrong, &place).unwrap_err().place;
    assert_eq!(field(SeriesAsked { cups: 0, ..asked.clone() }), "cups");
    assert_eq!(field(SeriesAsked { cups: 13, ..asked.clone() }), "cups");
    assert_eq!(field(SeriesAsked { ml: 0.0, ..asked.clone() }), "ml");
    assert_eq!(field(SeriesAsked { thin: "fluid-pb15".into(), ..asked.clone() }), "thin");
    assert_eq!(field(SeriesAsked { to: 1.1, ..asked }), "from");
}

fn turns() -> impl Strategy<Value = Vec<Turn>> {
    let unit =
        prop_oneof![Just(Unit::Percent), Just(Unit::Ml), Just(Unit::Drops), Just(Unit::Parts)];
    let turn = (0_usize..3, unit, 0.001_f64..1.0).prop_map(|(part, unit, share)| {
        let value = match unit {
            Unit::Percent => share * 100.0,
            Unit::Drops => share * 100.0,
            _ => share * 5.0,
        };
        Turn { part, unit, value, of_ml: Some(10.0) }
    });
    prop::collection::vec(turn, 0..6)
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(200))]

    /// However a hand turns, the parts fill the cup, whole measures are no further off than half a measure,
    /// and the last number that was set is what it was set to.
    #[test]
    fn whatever_is_turned_the_parts_fill_the_cup(turns in turns(), um in 10.0_f64..200.0) {
        let mix = Mix::of(&[("glazing", 6.0), ("fluid-pb15", 1.0), ("heavy-pw6", 3.0)]);
        let asked = CupAsked { turns: turns.clone(), wet_film_um: um, ..CupAsked::coat(mix, um) };
        let full = cup(&asked).unwrap();
        let sum: f64 = full.amounts.iter().map(|a| a.ml).sum();
        prop_assert!((sum - full.total_ml).abs() < 1e-9 * full.total_ml);
        prop_assert!((full.total_ml * (1.0 - full.loss) - full.on_picture_ml).abs() < 1e-9);
        for (exact, whole) in full.amounts.iter().zip(&full.rounded.ml) {
            let steps = whole / asked.measure_ml;
            prop_assert!((steps - steps.round()).abs() < 1e-6, "{whole} ml");
            // A part that is in the mix never disappears from it.
            let near = (exact.ml - whole).abs() <= asked.measure_ml / 2.0 + 1e-9;
            prop_assert!(near || (exact.ml < asked.measure_ml && *whole > 0.0), "{exact:?} {whole}");
        }
        if let Some(Turn { part, unit, value, .. }) = turns.last() {
            let share = full.mix.in_percent().unwrap()[*part].parts / 100.0;
            let was = match unit {
                Unit::Percent => value / 100.0,
                Unit::Ml => value / 10.0,
                Unit::Drops => value * 0.05 / 10.0,
                _ => value / full.mix.whole(),
            };
            prop_assert!((share - was).abs() < 1e-9, "{share} of {was}");
        }
    }
}
