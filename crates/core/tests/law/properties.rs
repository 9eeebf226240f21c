//! What must hold of the law in every studio.

use super::*;

/// What the law says of step `i` of the first picture at `at`, its plan `made` until then.
fn verdict(studio: &Studio, made: &Plan, i: usize, at: DateTime<Utc>) -> Verdict {
    let picture = &studio.pictures[0];
    let under = picture.all_below(i);
    let done = made.steps.iter().filter(|s| s.picture == 0 && s.step != i).filter_map(|s| {
        let end = s.sittings.last()?.to;
        (under.contains(&s.step) || end <= at).then_some((end, s.step))
    });
    let mut bed = Bed::after(studio, 0, Grid::PLANNING, &history(picture, done)).unwrap();
    let task = Task::of(studio, (0, i), (1, under));
    let from = at.timestamp();
    let calendar = Calendar::new(&studio.hours, studio.daylight, (from, from + 900 * 86_400), 600);
    let held: Vec<Stretch> = Vec::new();
    let air = FitAir::new(&studio.air, from);
    let places = studio.flat_places as usize;
    let around = Around { calendar: &calendar, held: &held, places, air: &air };
    may_lay(studio, (&mut bed, i, &task), &around, at).unwrap()
}

/// A random picture in a random room.
fn any_studio() -> impl Strategy<Value = Studio> {
    let menu = [
        (StepKind::Tone, "heavy-py42"),
        (StepKind::Pass, "heavy-pb29"),
        (StepKind::Glaze, "glazing"),
        (StepKind::Pass, "slow-pb29"),
        (StepKind::Drawing, ""),
        (StepKind::SealDrawing, "matte-medium"),
    ];
    let section = prop::sample::select(vec![None, None, Some("left"), Some("right")]);
    let paints =
        prop::collection::vec((prop::sample::select(menu.to_vec()), 20.0f64..90.0, section), 1..5);
    let seals =
        prop::collection::vec(prop::sample::select(vec!["varnish-gloss", "solvent-gloss"]), 0..3);
    let asked = prop::option::of(prop::sample::select(Need::ALL.to_vec()));
    let air =
        (16.0f64..26.0, 0.3f64..0.7, prop::collection::vec((3.0f64..26.0, 0.3f64..0.85), 0..6));
    let schools = (prop::sample::select(Waiting::ALL.to_vec()), any::<bool>());
    (paints, seals, asked, air, schools, 0usize..3).prop_map(
        |(paints, seals, asked, air, schools, done)| {
            let mut steps: Vec<Step> = Vec::new();
            for (n, ((kind, material), film, section)) in paints.into_iter().enumerate() {
                let wet_film_um = kind.leaves_film().then_some(film);
                let section = section.filter(|_| kind.has_section()).map(str::to_owned);
                let step = coat(&format!("s{n}"), kind, material);
                steps.push(Step { wet_film_um, section, ..step });
            }
            for (n, step) in steps.iter_mut().enumerate().take(done) {
                step.laid_at = Some(now() - Duration::days(20 - n as i64));
            }
            for (n, material) in seals.into_iter().enumerate() {
                let step = coat(&format!("v{n}"), StepKind::Varnish, material);
                steps.push(Step { needs: asked, ..step });
            }
            let (celsius, humidity, hours) = air;
            let mut studio = studio(steps);
            let reading = |(n, (celsius, humidity)): (usize, (f64, f64))| {
                let at = (now() + Duration::hours(n as i64 * 20)).timestamp() as f64;
                (at, Air::try_new(celsius, humidity, 0.15).unwrap())
            };
            let usual = Air::try_new(celsius, humidity, 0.15).unwrap();
            studio.air =
                AirSeries::new(usual, hours.into_iter().enumerate().map(reading).collect());
            studio.schools.waiting = schools.0;
            studio.schools.fresh_eyes = schools.1;
            studio
        },
    )
}

proptest! {
    #![proptest_config(ProptestConfig { failure_persistence: None, ..ProptestConfig::with_cases(60) })]

    #[test]
    fn whatever_is_placed_may_be_laid_and_a_quarter_of_an_hour_before_the_earliest_it_may_not(
        studio in any_studio(),
    ) {
        let made = planned(&studio);
        for step in &made.steps {
            let name = &studio.pictures[0].steps[step.step].id;
            let Some(first) = step.sittings.first() else {
                // What the planner does not place the law does not allow either.
                let said = verdict(&studio, &made, step.step, now());
                prop_assert!(said.earliest.is_err(), "{name}: {:?} but {said:?}", step.blocked);
                continue;
            };
            let then = verdict(&studio, &made, step.step, first.from);
            prop_assert!(then.allows(first.from), "{name} at {}: {then:?}", first.from);
            // Alone the painter could not begin sooner: hours aside, the earliest is where it is placed.
            let at_first = verdict(&studio, &made, step.step, now());
            let (earliest, _) = at_first.earliest.clone().unwrap();
            prop_assert!(earliest <= first.from, "{name}: {earliest} after {}", first.from);
            let before = earliest - Duration::minutes(15);
            if before > now() {
                let said = verdict(&studio, &made, step.step, before);
                let hours = studio.hours.sessions(before, before + Duration::minutes(21));
                let open = hours.iter().any(|s| s.from <= before && s.to >= before + Duration::minutes(20));
                prop_assert!(!said.allows(before) || !open || said.earliest.unwrap().0 > before, "{name}");
            }
        }
    }

    #[test]
    fn what_a_desk_shows_is_what_is_followed_from_the_bare_ground(studio in any_studio()) {
        let mut desk = Desk::new(Arc::new(studio.clone()));
        let (made, line) = (desk.plan(now()), desk.line(0, now()).unwrap());
        let end = |s: &PlannedStep| Some((s.step, s.sittings.last()?.to.timestamp() as f64));
        let picture = &studio.pictures[0];
        let coats =
            picture.coats(&studio.materials, made.steps.iter().filter_map(end)).unwrap();
        let horizon = (coats.last().map_or(0.0, |c| c.at) + HORIZON_S, 0);
        let tops = |n: usize| line.coats[n].followed;
        let whole = follow(picture, &coats, &studio.futures(), Grid::PLANNING, horizon, tops).unwrap();
        prop_assert_eq!(line.coats.len(), whole.coats.len());
        for (shown, followed) in line.stacks.iter().zip(&whole.stacks) {
            for (n, (a, b)) in shown.coats.iter().zip(&followed.coats).enumerate() {
                prop_assert_eq!(a.coat, b.coat);
                // The last planned coat may be shown for two days only.
                let end = shown.coats.get(n + 1).map_or(a.coat.at + 2.0 * DAY_S, |next| next.coat.at);
                for state in FilmState::REACHED {
                    let times = [(a.events.at(state), b.events.at(state)), (a.if_left.at(state), b.if_left.at(state))];
                    for (is, was) in times {
                        let [is, was] = [is, was].map(|at| at.unwrap_or(end).min(end) - a.coat.at);
                        // Steps that land elsewhere are other steps: as far apart as the grid may be (docs/model/drying.md).
                        prop_assert!((is - was).abs() <= f64::max(0.12 * was, 300.0), "{:?}: {} for {}", state, is, was);
                    }
                }
            }
        }
    }

    #[test]
    fn whatever_the_gate_opens_the_planner_could_have_placed(
        studio in any_studio(), hour in 0i64..900,
    ) {
        let mut studio = studio;
        let at = now() + Duration::hours(hour);
        // Everything below is on, signed, photographed and looked over.
        for (n, step) in studio.pictures[0].steps.iter_mut().enumerate() {
            if !step.kind.seals() {
                step.laid_at = Some(now() - Duration::days(20 - n as i64));
            }
        }
        studio.pictures[0].seal.inspected_at = Some(at - Duration::hours(1));
        studio.hours = hours(0, MIDNIGHT);
        studio.setup_min = 0.0;
        let made = plan(Request { studio: &studio, from: at });
        let shots = [at - Duration::minutes(30)];
        let found = gate(&studio, 0, (&made, &shots), at).unwrap();
        let Some(i) = found.step else { return Ok(()) };
        let step = made.steps.iter().find(|s| s.step == i).unwrap();
        let first = step.sittings.first().map(|s| s.from);
        if found.stage == Stage::Open {
            prop_assert_eq!(first, Some(at), "{:?}", step);
        }
        // And where it is closed by time, both name the same minute.
        prop_assert_eq!(found.earliest.map(|(from, _)| from), first, "{:?} {:?}", step, found);
        prop_assert_eq!(found.planned.map(|(from, _)| from), first);
        if let Some(wait) = step.wait.as_ref().filter(|w| w.reason == WaitReason::Air) {
            let air = found.conditions.iter().find(|c| c.id == ConditionId::Air);
            prop_assert!(air.is_some_and(|c| c.closes()), "{wait:?} {:?}", found.conditions);
        }
    }
}

/// A room of 100 % holds every film wet for ever: 400 days of each were followed for every order of work
/// that was tried, and half a minute was gone.
#[test]
fn what_must_not_be_begun_in_this_air_is_not_followed_to_its_end() {
    let mut studio = studio(vec![varnish("v1")]);
    studio.air = room(21.0, 1.0);
    let task = Task::of(&studio, (0, 0), (1, vec![]));
    let from = now().timestamp();
    let calendar = Calendar::new(&studio.hours, studio.daylight, (from, from + 900 * 86_400), 600);
    let air = FitAir::new(&studio.air, from);
    let around = Around { calendar: &calendar, held: &[], places: 2, air: &air };
    let at_once = Ready { need: Need::Nothing, at: None, wait: None };
    let found = first_place(&task, &around, (from, at_once), |_, _| panic!("it was followed"));
    assert!(matches!(found, Err(Blocked::Air { .. })), "{found:?}");
}
