//! The gate against the trade's own numbers, and what must hold of any.

use super::*;

#[test]
fn schools_wait_as_the_trade_does() {
    // docs/trade.md: an hour to a day; three to four days; two weeks and more; slow-drying paint two
    // weeks at least, longer with retarder in every school. [practice]
    let days = |school: Waiting, slowed| school.floor(slowed).num_days();
    assert_eq!(days(Waiting::Brisk, Slowed::No), 1);
    assert_eq!(days(Waiting::Standard, Slowed::No), 3);
    assert_eq!(days(Waiting::Patient, Slowed::No), 14);
    for school in [Waiting::Brisk, Waiting::Standard, Waiting::Patient] {
        assert!(days(school, Slowed::SlowPaint) >= 14);
        assert!(days(school, Slowed::Retarder) > days(school, Slowed::No));
        assert!(days(school, Slowed::SlowPaint) >= days(school, Slowed::Retarder));
    }
}

#[test]
fn a_gate_opens_when_everything_holds_and_says_how_long_hands_may_stay() {
    let gate = look(&ready());
    assert_eq!(gate.stage, Stage::Open, "{:?}", gate.against().collect::<Vec<_>>());
    let (from, to) = gate.earliest.unwrap();
    // Ten minutes to set up, 25 of work.
    assert_eq!((from, to), (now() + Duration::minutes(10), now() + Duration::minutes(35)));
    // A thin coat on a sealed face: minutes, not hours, to setting and touch-dry. [practice]
    let (working, dry) = (gate.working_min.unwrap(), gate.touch_dry_min.unwrap());
    assert!((3.0..40.0).contains(&working) && working < dry && dry < 90.0, "{working} {dry}");
}

#[test]
fn each_condition_closes_the_gate_by_itself() {
    use ConditionId as C;
    use Standing::{Against, Waits, Yours};
    let steps = |d: &mut Studio, i: usize| d.pictures[0].steps[i].laid_at = None;
    assert_eq!(closed_by(|d| steps(d, 1))[0], (C::LastCoat, Yours));
    assert!(closed_by(|d| steps(d, 1)).contains(&(C::Signature, Yours)));
    assert_eq!(closed_by(|d| steps(d, 2)), [(C::Photograph, Yours)]);
    assert_eq!(closed_by(|d| d.pictures[0].seal.inspected_at = None), [(C::Surface, Yours)]);
    assert_eq!(closed_by(|d| d.flat_places = 0), [(C::FlatPlace, Against)]);
    // Air: 18-24 C and under 65 %, docs/trade.md. [memory]
    for bad in [air(16.0, 0.5), air(27.0, 0.5), air(20.0, 0.72)] {
        let air = |d: &mut Studio| d.air = AirSeries::constant(bad);
        assert_eq!(closed_by(air), [(C::Air, Against)], "{bad:?}");
    }
    // Three days after the last paint. [practice]
    let fresh = closed_by(|d| {
        let at = now() - Duration::hours(60);
        for (i, minutes) in [0, 30, 60].into_iter().enumerate() {
            d.pictures[0].steps[i].laid_at = Some(at + Duration::minutes(minutes));
        }
    });
    assert!(fresh.contains(&(C::Floor, Waits)), "{fresh:?}");
    let water_over_solvent = closed_by(|d| {
        let steps = &mut d.pictures[0].steps;
        steps[3] = coat("v1", StepKind::Varnish, "solvent-gloss", Some(100.0));
    });
    assert!(water_over_solvent.contains(&(C::Product, Against)));
    let paint = closed_by(|d| d.pictures[0].steps[3].mix[0].material = "heavy-pw6".into());
    assert!(paint.contains(&(C::Product, Against)), "paint is no varnish");
}

#[test]
fn a_photograph_counts_only_between_the_last_paint_and_the_first_gloss() {
    let mut studio = ready();
    studio.pictures[0].steps[2].laid_at = None;
    let plan = plan(Request { studio: &studio, from: now() });
    let at = |hours: i64| {
        let taken = [now() - Duration::hours(hours)];
        standing(&gate(&studio, 0, (&plan, &taken), now()).unwrap(), ConditionId::Photograph)
    };
    assert_eq!(at(450), Standing::Yours, "before it was signed");
    assert_eq!(at(10), Standing::Holds);
    studio.pictures[0].steps[3].laid_at = Some(now() - Duration::hours(20));
    let plan = ulvek_core::planner::plan(Request { studio: &studio, from: now() });
    let at = |hours: i64| {
        let taken = [now() - Duration::hours(hours)];
        standing(&gate(&studio, 0, (&plan, &taken), now()).unwrap(), ConditionId::Photograph)
    };
    assert_eq!(at(10), Standing::Missed, "over gloss");
    assert_eq!(at(30), Standing::Holds);
}

#[test]
fn varnish_coats_lie_an_hour_or_a_day_apart_and_solvent_waits_three_days() {
    // docs/trade.md: an hour at least, next day preferred; three to four days under solvent. [practice]
    let between = |hours: f64, school, second: &str| {
        let mut studio = ready();
        studio.schools.waiting = school;
        let steps = &mut studio.pictures[0].steps;
        steps[3].laid_at = Some(now() - Duration::seconds((hours * 3600.0) as i64));
        steps[4].mix[0].material = second.into();
        let gate = look(&studio);
        gate.conditions.iter().find(|c| c.id == ConditionId::Between).unwrap().from.unwrap()
    };
    let laid = now() - Duration::minutes(30);
    assert_eq!(between(0.5, Waiting::Brisk, "varnish-matte"), laid + Duration::hours(1));
    assert_eq!(between(0.5, Waiting::Standard, "varnish-matte"), utc("2027-01-15T04:00:00Z"));
    assert_eq!(between(0.5, Waiting::Standard, "solvent-matte"), laid + Duration::days(3));
    // The planner keeps to it as well.
    let mut studio = ready();
    studio.pictures[0].steps[3].laid_at = Some(laid);
    studio.pictures[0].steps[4].mix[0].material = "solvent-matte".into();
    let made = plan(Request { studio: &studio, from: now() });
    let wait = made.steps[0].wait.clone().unwrap();
    assert_eq!((wait.reason, wait.until), (WaitReason::SolventOverWater, laid + Duration::days(3)));
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(24))]

    #[test]
    fn at_its_earliest_hour_nothing_is_left_to_wait_for(
        painted_h in 1.0f64..200.0, humid in 0.35f64..0.64, spell in 0i64..200, slow in any::<bool>(),
    ) {
        let mut studio = ready();
        let steps = &mut studio.pictures[0].steps;
        steps[0].laid_at = Some(now() - Duration::seconds((painted_h * 3600.0) as i64));
        steps[1].laid_at = Some(now() - Duration::minutes(40));
        steps[2].laid_at = Some(now() - Duration::minutes(20));
        if slow {
            steps[0].mix[0].material = "slow-pbr7".into();
        }
        studio.pictures[0].seal.inspected_at = Some(now() - Duration::minutes(10));
        let t = |h: i64| (now() + Duration::hours(h)).timestamp() as f64;
        let readings = vec![(t(spell), air(20.0, 0.8)), (t(spell + 20), air(20.0, humid))];
        studio.air = AirSeries::new(air(20.5, humid), readings);
        let made = plan(Request { studio: &studio, from: now() });
        let first = gate(&studio, 0, (&made, &[]), now()).unwrap();
        let (at, to) = first.earliest.unwrap();
        let sessions = studio.hours.sessions(now(), to + Duration::days(1));
        prop_assert!(sessions.iter().any(|s| s.from <= at && to <= s.to));
        // A look over the surface counts for a day.
        studio.pictures[0].seal.inspected_at = Some(at - Duration::minutes(10));
        let then = gate(&studio, 0, (&made, &[]), at).unwrap();
        let closed: Vec<_> = then.against().collect();
        prop_assert!(closed.is_empty(), "{:?}", closed);
        // And a quarter of an hour before it something was, or the studio was not open.
        let before = at - Duration::minutes(15);
        let open = sessions.iter().any(|s| {
            s.from + Duration::minutes(10) <= before && before + (to - at) <= s.to
        });
        if before >= now() && open {
            prop_assert!(gate(&studio, 0, (&made, &[]), before).unwrap().stage == Stage::Closed);
        }
    }
}

#[test]
fn a_place_that_another_wet_varnish_holds_comes_free_when_it_is_touch_dry() {
    let mut studio = ready();
    let mut other = studio.pictures[0].clone();
    other.id = "other".into();
    other.steps[3].laid_at = Some(now() - Duration::minutes(2));
    studio.pictures.push(other);
    let gate_now = look(&studio);
    let place = gate_now.conditions.iter().find(|c| c.id == ConditionId::FlatPlace).unwrap();
    assert_eq!(place.standing, Standing::Waits);
    let free = place.from.unwrap();
    assert!(free > now() && free < now() + Duration::hours(2), "{free}");
    assert!(gate_now.earliest.unwrap().0 >= free);
    studio.flat_places = 2;
    assert_eq!(look(&studio).stage, Stage::Open);
}

#[test]
fn a_shorter_school_brings_it_forward_only_where_the_school_is_what_it_waits_for() {
    let mut studio = ready();
    studio.schools.waiting = Waiting::Patient;
    let steps = &mut studio.pictures[0].steps;
    steps[0].laid_at = Some(now() - Duration::hours(150));
    steps[1].laid_at = Some(now() - Duration::hours(149));
    steps[2].laid_at = Some(now() - Duration::hours(148));
    studio.pictures[0].seal.inspected_at = Some(now());
    let ways = |studio: &Studio| {
        let made = plan(Request { studio, from: now() });
        let present = gate(studio, 0, (&made, &[]), now()).unwrap();
        (
            present.holds_longest(),
            forward(studio, 0, (&made, &[]), &present, now(), &mut KnownFilms::default()).unwrap(),
        )
    };
    let (holds, found) = ways(&studio);
    assert_eq!(holds, Some(ConditionId::Floor));
    let shorter = found.iter().find(|f| f.what.contains("standard school")).unwrap();
    assert!(shorter.risk.contains("cloud") && shorter.gain_min > 7.0 * 1440.0, "{shorter:?}");
    // Where the film itself is not cured, the school changes nothing.
    studio.schools.waiting = Waiting::Standard;
    studio.pictures[0].steps[0].wet_film_um = Some(600.0);
    let (holds, found) = ways(&studio);
    assert_eq!(holds, Some(ConditionId::Cure));
    assert!(!found.iter().any(|f| f.what.contains("school")), "{found:?}");
    assert!(found.iter().any(|f| f.what.contains("°C")), "a warmer room does: {found:?}");
}

#[test]
fn a_sealed_picture_cures_until_it_may_be_wrapped() {
    let mut studio = ready();
    studio.pictures[0].steps[3].laid_at = Some(now() - Duration::hours(30));
    studio.pictures[0].steps[4].laid_at = Some(now() - Duration::hours(1));
    let curing = look(&studio);
    assert_eq!((curing.stage, curing.step), (Stage::Curing, None));
    let wrap = curing.wrap_from.unwrap();
    assert!(wrap > now());
    let made = plan(Request { studio: &studio, from: wrap });
    assert_eq!(gate(&studio, 0, (&made, &[]), wrap).unwrap().stage, Stage::ReadyToWrap);
    let wrapped = done("wrap", StepKind::Pack, 0.0);
    studio.pictures[0].steps.push(wrapped);
    assert_eq!(look(&studio).stage, Stage::Wrapped);
    studio.pictures[0].steps.retain(|s| !s.kind.seals() && s.kind != StepKind::Pack);
    assert_eq!(look(&studio).stage, Stage::Unplanned);
}

#[test]
fn retarder_makes_planner_and_gate_wait_alike() {
    // The floor of retarder is longer than the plain film needs.
    let mut studio = Studio { sure: Sure::BRISK, ..ready() };
    let steps = &mut studio.pictures[0].steps;
    steps[0].mix.push(Part { material: "retarder".into(), parts: 0.1 });
    for (i, hours) in [(0, 100), (1, 99), (2, 98)] {
        steps[i].laid_at = Some(now() - Duration::hours(hours));
    }
    let last_paint = now() - Duration::hours(99);
    let made = plan(Request { studio: &studio, from: now() });
    let first = made.steps.iter().find(|s| s.step == 3).unwrap();
    let wait = first.wait.clone().unwrap();
    assert_eq!((wait.reason, wait.until), (WaitReason::Retarder, last_paint + Duration::days(7)));
    let found = look(&studio);
    let floor = found.conditions.iter().find(|c| c.id == ConditionId::Floor).unwrap();
    assert_eq!(floor.from, Some(wait.until));
    assert!(floor.evidence.contains("because retarder is in the stack"), "{}", floor.evidence);
    // The plan's own sitting is where the gate opens too: same hours, same set-up.
    assert_eq!(found.earliest.unwrap().0, first.sittings[0].from);
}
