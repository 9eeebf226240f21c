//! Air that is fit for varnish, against a psychrometric chart and by what must hold of any remedy.

use super::*;

#[test]
fn heating_a_damp_room_dries_it_as_the_psychrometric_chart_says() {
    // Air of 16 C and 75 % has 8.5 g/kg; warmed to 20 C it has 58-59 % (ASHRAE psychrometric
    // chart no. 1, read off to a percent).
    let damp = air(16.0, 0.75);
    let remedy = &remedies(&damp)[0];
    let [Action::Heat(to)] = remedy.actions[..] else { panic!("{:?}", remedy.actions) };
    let ratio = |a: &Air| humidity_ratio(a.celsius, a.humidity, 101_325.0);
    assert!((ratio(&damp) * 1000.0 - 8.5).abs() < 0.1);
    assert!((ratio(&remedy.after) - ratio(&damp)).abs() < 1e-9, "no water comes or goes");
    assert!((19.0..=21.0).contains(&to), "{to}");
}

#[test]
fn a_damp_spell_is_marked_and_the_gate_waits_for_its_end() {
    let mut studio = ready();
    let t = |h: i64| (now() + Duration::hours(h)).timestamp() as f64;
    let damp = [(t(0), air(20.0, 0.75)), (t(30), air(20.0, 0.50))];
    studio.air = AirSeries::new(air(20.5, 0.48), damp.into());
    let gate = look(&studio);
    assert_eq!(gate.stage, Stage::Closed);
    assert_eq!(standing(&gate, ConditionId::Air), Standing::Waits);
    // The damp ends on the 15th at 18:00; the studio opens at 10 and sets up for ten minutes.
    assert_eq!(gate.earliest.unwrap().0, utc("2027-01-16T10:10:00Z"));
    let hours = good_hours(&studio, now(), 10);
    assert_eq!(hours.iter().filter(|h| !h.faults.is_empty()).count(), 30);
    assert_eq!(hours.len(), 240);
    let days = varnish_days(&studio, now(), 10);
    assert!(days[1].good.is_empty() && !days[1].remedies.is_empty());
    assert_eq!(days[2].good.len(), 1);
    // A dehumidifier would do it today.
    let made = plan(Request { studio: &studio, from: now() });
    let ways = forward(&studio, 0, (&made, &[]), &gate, now(), &mut KnownFilms::default()).unwrap();
    assert!(
        ways.iter().any(|w| w.what.starts_with("Make the air fit: a dehumidifier to 60 %")
            && w.earliest == now() + Duration::minutes(10)),
        "{ways:?}"
    );
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(200))]

    #[test]
    fn every_remedy_makes_the_air_fit(celsius in -5.0f64..40.0, humidity in 0.02f64..1.0) {
        let before = air(celsius, humidity);
        let found = remedies(&before);
        prop_assert_eq!(found.is_empty(), air_faults(&before).is_empty());
        for remedy in found {
            prop_assert_eq!(air_faults(&remedy.after), []);
            // What is said to be taken out or given is what the air then lacks or has more.
            let moved: f64 = remedy.actions.iter().map(|a| match a {
                Action::Dehumidify(g, _) => -g,
                Action::Humidify(g, _) => *g,
                Action::Heat(_) | Action::Cool(_) => 0.0,
            }).sum();
            let grams = |a: &Air| a.humidity * vapour_concentration_kg_m3(a.celsius) * 1000.0;
            // Warmed air expands: its water per m3 falls with the absolute temperature.
            let spread = (before.celsius + 273.15) / (remedy.after.celsius + 273.15);
            let kept = (grams(&before) * spread).min(
                vapour_concentration_kg_m3(remedy.after.celsius) * 1000.0);
            prop_assert!((grams(&remedy.after) - kept - moved).abs() < 1e-6);
        }
    }
}

#[test]
fn readings_taken_in_leave_the_past_and_end_in_the_usual_room() {
    let usual = air(20.0, 0.5);
    let old = AirSeries::new(usual, vec![(0.0, air(19.0, 0.4)), (7200.0, air(22.0, 0.6))]);
    let taken = old.replaced_from(
        3600.0,
        vec![(3600.0, air(18.0, 0.7)), (7200.0, air(18.5, 0.7))],
        Origin::Forecast,
    );
    assert_eq!(taken.at(1800.0).celsius, 19.0, "what was measured stays");
    assert_eq!(taken.at(5000.0).celsius, 18.0);
    assert_eq!(taken.at(10_700.0).celsius, 18.5, "the last stands as long as the one before");
    assert_eq!(taken.at(10_900.0), &usual);
    let constant = old.replaced_from(3600.0, vec![], Origin::Usual);
    assert_eq!((constant.at(3500.0).celsius, constant.at(3600.0)), (19.0, &usual));
}
