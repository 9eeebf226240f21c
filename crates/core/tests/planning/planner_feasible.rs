//! Whatever is searched, moved, pinned or sampled: every plan can be carried out. Checked step by
//! step by an independent reading of the rules, on random studios.

use chrono::{DateTime, Duration, NaiveTime, Utc, Weekday};
use proptest::prelude::*;
use ulvek_core::air::{Air, AirSeries};
use ulvek_core::film::{Film, Grid, Ground, HORIZON_S};
use ulvek_core::mix::{Mix, starter_shelf};
use ulvek_core::picture::{Picture, Step, StepKind};
use ulvek_core::planner::{Plan, Planner, Request, plan};
use ulvek_core::studio::{OpenHours, Studio, StudioHours, daylight};

fn start() -> DateTime<Utc> {
    "2027-01-04T08:00:00Z".parse().unwrap()
}

/// A step: its kind, minutes, paint and section.
type Drawn = (usize, f64, usize, Option<&'static str>);

/// What a random studio is made of.
#[derive(Debug, Clone)]
struct Sketch {
    pictures: Vec<Vec<Drawn>>,
    days: Vec<Weekday>,
    hours: u32,
    places: u32,
    by_daylight: bool,
    branches: bool,
    pin: Option<i64>,
}

fn sketch() -> impl Strategy<Value = Sketch> {
    use Weekday::{Fri, Mon, Sat, Sun, Thu, Tue, Wed};
    let section = prop::sample::select(vec![None, None, Some("left"), Some("right")]);
    let step = (0usize..7, 10.0f64..100.0, 0usize..3, section);
    let pictures = prop::collection::vec(prop::collection::vec(step, 1..5), 1..4);
    let days = prop::sample::subsequence(vec![Mon, Tue, Wed, Thu, Fri, Sat, Sun], 2..6);
    (pictures, days, 3u32..8, 1u32..3, any::<bool>(), any::<bool>(), prop::option::of(20i64..400))
        .prop_map(|(pictures, days, hours, places, by_daylight, branches, pin)| Sketch {
            pictures,
            days,
            hours,
            places,
            by_daylight,
            branches,
            pin,
        })
}

fn studio(sketch: &Sketch) -> Studio {
    use StepKind::{Detail, Drawing, Glaze, Pass, Photograph, Tone, Varnish};
    let menu = [Tone, Pass, Drawing, Glaze, Detail, Varnish, Photograph];
    let paints = ["heavy-pbr7", "heavy-pb29", "slow-pbr7"];
    let time = |h| NaiveTime::from_hms_opt(h, 0, 0).unwrap();
    let open = |day: &Weekday| OpenHours { day: *day, from: time(9), to: time(9 + sketch.hours) };
    let step = |n: usize, (kind, minutes, paint, section): Drawn, branches: bool| {
        let kind = menu[kind];
        let material = if kind == Varnish { "varnish-gloss" } else { paints[paint] };
        let mix = Mix::one(material);
        Step {
            hands_on_min: minutes.round(),
            mix: if kind.leaves_film() { mix } else { Mix::default() },
            section: section.filter(|_| kind.has_section()).map(str::to_owned),
            // A small graph: the third step stands on the first, beside the second.
            after: (branches && n == 2).then(|| vec!["s0".to_owned()]),
            ..Step::usual(format!("s{n}"), kind)
        }
    };
    let mut studio = Studio {
        materials: starter_shelf().unwrap(),
        flat_places: sketch.places,
        ..Studio::new(
            "Any",
            StudioHours::try_new(
                chrono_tz::Europe::Oslo,
                sketch.days.iter().map(open).collect(),
                vec![],
            )
            .unwrap(),
            AirSeries::constant(Air::try_new(21.0, 0.5, 0.15).unwrap()),
        )
    };
    studio.pictures = sketch
        .pictures
        .iter()
        .enumerate()
        .map(|(p, steps)| Picture {
            due: Some((start() + Duration::days(6 + p as i64 * 3)).date_naive()),
            // Varnish lies anywhere in these rows.
            paint_over_seal: true,
            weight: 1.0 + p as f64,
            ..Picture::new(
                format!("p{p}"),
                (20.0, 30.0),
                steps.iter().enumerate().map(|(n, s)| step(n, *s, sketch.branches)).collect(),
            )
        })
        .collect();
    // At the equator every session of the morning is light.
    studio.daylight = sketch.by_daylight.then(|| daylight::Place::try_new(0.0, 10.0).unwrap());
    if let (Some(hours), Some(step)) =
        (sketch.pin, studio.pictures[0].steps.iter_mut().find(|s| !s.splittable))
    {
        step.pinned_at = Some(start() + Duration::hours(hours));
    }
    studio
}

/// Reads the plan against the rules; what is wrong with it, if anything is.
fn fault(studio: &Studio, made: &Plan) -> Option<String> {
    let sessions = studio.hours.sessions(start(), start() + Duration::days(900));
    let mut all: Vec<(DateTime<Utc>, DateTime<Utc>)> = Vec::new();
    for planned in &made.steps {
        let picture = &studio.pictures[planned.picture];
        let step = &picture.steps[planned.step];
        let name = format!("{} of {}", step.id, picture.id);
        if let Some(why) = &planned.blocked {
            return Some(format!("{name} is blocked: {why}"));
        }
        let first = planned.sittings.first()?.from;
        let pinned = step.pinned_at == Some(first);
        let worked: i64 = planned.sittings.iter().map(|s| (s.to - s.from).num_seconds()).sum();
        if worked != (step.hands_on_min * 60.0) as i64 {
            return Some(format!("{name} gets {worked} s"));
        }
        if planned.sittings.len() > 1 && !step.splittable {
            return Some(format!("{name} is split"));
        }
        for sitting in &planned.sittings {
            let open = sessions.iter().find(|s| s.from <= sitting.from && sitting.to <= s.to);
            if open.is_none() && !pinned {
                return Some(format!("{name} is outside the hours"));
            }
            let light = studio.daylight.map(|p| p.light_of(studio.hours.day(sitting.from)));
            let dark = |(rise, fall): (i64, i64)| {
                sitting.from.timestamp() < rise || sitting.to.timestamp() > fall
            };
            if step.kind.needs_daylight() && !pinned && light.is_some_and(dark) {
                return Some(format!("{name} is in the dark"));
            }
            all.push((sitting.from, sitting.to));
        }
        for below in picture.stands_on(planned.step) {
            let end = end_of(made, planned.picture, below)?;
            if first < end {
                return Some(format!("{name} comes before what it stands on"));
            }
        }
        if let Some(why) = film_fault(studio, made, planned.picture, planned.step, first) {
            return Some(format!("{name}: {why}"));
        }
    }
    all.sort();
    let overlap = all.windows(2).find(|pair| pair[0].1 > pair[1].0);
    overlap.map(|pair| format!("two sittings at once: {pair:?}"))
}

fn end_of(made: &Plan, p: usize, i: usize) -> Option<DateTime<Utc>> {
    made.steps.iter().find(|s| s.picture == p && s.step == i)?.sittings.last().map(|s| s.to)
}

/// The film at `first`, computed anew coat by coat, against the state that the step needs.
fn film_fault(
    studio: &Studio,
    made: &Plan,
    p: usize,
    i: usize,
    first: DateTime<Utc>,
) -> Option<String> {
    let picture = &studio.pictures[p];
    let mut coats: Vec<(DateTime<Utc>, usize)> = made
        .steps
        .iter()
        .filter(|s| s.picture == p)
        .filter_map(|s| Some((s.sittings.last()?.to, s.step)))
        .filter(|(end, step)| *end <= first && *step != i)
        .collect();
    coats.sort();
    let step = &picture.steps[i];
    let mut places: Vec<Option<&str>> = vec![step.section.as_deref()];
    if step.section.is_none() {
        // What is done all over waits for every place.
        places.extend(picture.steps.iter().map(|s| s.section.as_deref()).filter(Option::is_some));
    }
    places.into_iter().find_map(|place| {
        let lies = |n: usize| {
            let section = picture.steps[n].section.as_deref();
            section.is_none() || section == place
        };
        let there: Vec<_> = coats.iter().filter(|(_, n)| lies(*n)).copied().collect();
        let laid = |(_, s): &&(DateTime<Utc>, usize)| picture.steps[*s].kind.leaves_film();
        let state = picture.needs_on(i, there.iter().rfind(laid).map(|(_, s)| *s)).state()?;
        let mut film = Film::new(Ground::SEALED, picture.shorter_side_m(), Grid::PLANNING, 0.0);
        let mut any = false;
        for (end, step) in there {
            if let Some((um, mix)) = picture.steps[step].coat(&studio.materials).unwrap() {
                film.advance(&studio.air, end.timestamp() as f64, None).unwrap();
                film.lay(um * 1e-6, mix);
                any = true;
            }
        }
        let reached = || {
            let mut ahead = film.clone();
            ahead.advance(&studio.air, first.timestamp() as f64 + HORIZON_S, Some(state)).unwrap();
            ahead.events().at(state)
        };
        // A second for times that are rounded to full seconds.
        let late = any.then(reached).flatten().filter(|at| *at > first.timestamp() as f64 + 1.0);
        late.map(|at| {
            let after = at - first.timestamp() as f64;
            format!("the film on {place:?} is {state:?} only {after:.0} s later")
        })
    })
}

proptest! {
    #![proptest_config(ProptestConfig { failure_persistence: None, ..ProptestConfig::with_cases(40) })]

    #[test]
    fn what_is_searched_can_be_carried_out(sketch in sketch(), seed in 0u64..1000) {
        let studio = studio(&sketch);
        let mut planner = Planner::new(Request { studio: &studio, from: start() });
        let first = planner.plan();
        prop_assert_eq!(fault(&studio, &first), None);
        planner.improve(seed, 120, |_| true);
        let made = planner.plan();
        prop_assert_eq!(fault(&studio, &made), None);
        let worth = |plan: &Plan| (plan.objective.weighted_days_late, plan.objective.sum_of_finish_min);
        prop_assert!(worth(&made) <= worth(&first));
        let bound = planner.bound();
        prop_assert!(bound.weighted_days_late <= made.objective.weighted_days_late);
        prop_assert!(bound.sum_of_finish_min <= worth(&made).1 || bound.weighted_days_late < worth(&made).0);
    }

    /// The order of work that was found, kept in the document, plans the same after a step is done.
    #[test]
    fn an_order_that_is_kept_can_be_carried_out_after_a_step_is_done(sketch in sketch()) {
        let mut studio = studio(&Sketch { pin: None, ..sketch });
        let mut planner = Planner::new(Request { studio: &studio, from: start() });
        planner.improve(1, 60, |_| true);
        let (order, made) = (planner.order(), planner.plan());
        studio.order = order;
        let done = &made.steps[0];
        let at = done.sittings.last().unwrap().to;
        studio.pictures[done.picture].steps[done.step].laid_at = Some(at);
        let rest = plan(Request { studio: &studio, from: at });
        prop_assert!(rest.steps.iter().all(|s| s.blocked.is_none()));
        prop_assert_eq!(rest.steps.len() + 1, made.steps.len());
        prop_assert!(rest.steps.iter().all(|s| s.sittings[0].from >= at));
    }
}
