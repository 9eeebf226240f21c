//! What is kept of a studio between two questions: after any row of edits a desk answers as one that never saw
//! the studio before.

use chrono::{DateTime, Duration, NaiveTime, Utc, Weekday};
use proptest::prelude::*;
use std::sync::Arc;
use ulvek_core::air::Air;
use ulvek_core::mix::Mix;
use ulvek_core::picture::{Picture, ReadyBy, Step, StepKind};
use ulvek_core::planner::Desk;
use ulvek_core::quantity::Pace;
use ulvek_core::seal::{KnownFilms, gate_with};
use ulvek_core::studio::{OpenHours, OrderEntry, Studio, StudioHours, Waiting};
use ulvek_testkit::{at, step, studio};

/// Three pictures under way, of four coats each; hours in the evening of every day.
fn evenings() -> Studio {
    let time = |h| NaiveTime::from_hms_opt(h, 0, 0).unwrap();
    let hours = (0..7).map(|n| OpenHours {
        day: Weekday::try_from(n).unwrap(),
        from: time(18),
        to: time(21),
    });
    let picture = |p: usize| {
        let laid = |i: i64| Some(at() - Duration::hours(70 + 9 * p as i64 - 24 * i));
        let glaze = Mix::of(&[("glazing", 9.0), ("fluid-pb15", 1.0)]);
        let steps = vec![
            Step { laid_at: laid(0), ..step("s1", StepKind::Tone, "heavy-py42") },
            Step { laid_at: laid(1).filter(|_| p > 0), ..step("s2", StepKind::Pass, "heavy-pb29") },
            Step { mix: glaze, ..step("s3", StepKind::Glaze, "glazing") },
            step("s4", StepKind::Varnish, "varnish-gloss"),
        ];
        Picture {
            due: Some((at() + Duration::days(6 + 5 * p as i64)).date_naive()),
            ..Picture::new(format!("p{p}"), (30.0, 40.0), steps)
        }
    };
    Studio {
        hours: StudioHours::try_new(chrono_tz::UTC, hours.collect(), vec![]).unwrap(),
        ..studio((0..3).map(picture).collect())
    }
}

/// Something that a painter changes.
#[derive(Debug, Clone)]
enum Edit {
    Film(usize, usize, f64),
    Minutes(usize, usize, f64),
    Lays(usize),
    TakesBack(usize),
    Date(usize, i64),
    Means(usize, ReadyBy),
    Calls(usize, usize),
    Leaves(usize),
    Humidity(f64),
    Paint(usize, f64),
    School(Waiting),
    Order,
    Begins,
    TakesAway(usize),
}

fn edit() -> impl Strategy<Value = Edit> {
    let p = 0..3_usize;
    prop_oneof![
        (p.clone(), 2..4_usize, 20.0..90.0).prop_map(|(p, i, um)| Edit::Film(p, i, um)),
        (p.clone(), 0..4_usize, 10.0..170.0).prop_map(|(p, i, m)| Edit::Minutes(p, i, m)),
        p.clone().prop_map(Edit::Lays),
        p.clone().prop_map(Edit::TakesBack),
        (p.clone(), 1..20_i64).prop_map(|(p, days)| Edit::Date(p, days)),
        (p.clone(), any::<bool>())
            .prop_map(|(p, s)| Edit::Means(p, if s { ReadyBy::Sealed } else { ReadyBy::Wrapped })),
        (p.clone(), 0..4_usize).prop_map(|(p, i)| Edit::Calls(p, i)),
        p.clone().prop_map(Edit::Leaves),
        (0.35..0.65).prop_map(Edit::Humidity),
        (0..3_usize, 0.6..1.8).prop_map(|(m, pace)| Edit::Paint(m, pace)),
        prop_oneof![Just(Waiting::Brisk), Just(Waiting::Standard), Just(Waiting::Patient)]
            .prop_map(Edit::School),
        Just(Edit::Order),
        Just(Edit::Begins),
        p.prop_map(Edit::TakesAway),
    ]
}

fn edited(was: &Studio, edit: &Edit) -> Studio {
    let mut studio = was.clone();
    let pictures = studio.pictures.len();
    let of = |p: &usize| p % pictures;
    match edit {
        Edit::Film(p, i, um) => {
            let steps = &mut studio.pictures[of(p)].steps;
            let i = i % steps.len();
            steps[i].wet_film_um = Some(*um);
        }
        Edit::Minutes(p, i, min) => {
            let steps = &mut studio.pictures[of(p)].steps;
            let i = i % steps.len();
            steps[i].hands_on_min = *min;
        }
        Edit::Lays(p) => {
            let steps = &mut studio.pictures[of(p)].steps;
            if let Some(next) = steps.iter_mut().find(|s| s.laid_at.is_none()) {
                next.laid_at = Some(at() - Duration::minutes(7));
            }
        }
        Edit::TakesBack(p) => {
            let steps = &mut studio.pictures[of(p)].steps;
            if let Some(last) = steps.iter_mut().rfind(|s| s.laid_at.is_some()) {
                last.laid_at = None;
            }
        }
        Edit::Date(p, days) => {
            studio.pictures[of(p)].due = Some((at() + Duration::days(*days)).date_naive());
        }
        Edit::Means(p, ready_by) => studio.pictures[of(p)].ready_by = *ready_by,
        Edit::Calls(p, i) => {
            let picture = &mut studio.pictures[of(p)];
            picture.title = format!("{} again", picture.title);
            let i = i % picture.steps.len();
            picture.steps[i].name = Some("a veil".into());
        }
        Edit::Leaves(p) => {
            let steps = &mut studio.pictures[of(p)].steps;
            steps.truncate(3);
        }
        Edit::Humidity(rh) => {
            let usual = *studio.air.usual();
            let air = Air { humidity: *rh, ..usual };
            studio.air = ulvek_core::air::AirSeries::constant(air);
        }
        Edit::Paint(m, pace) => {
            let id = ["heavy-py42", "glazing", "varnish-gloss"][*m];
            let paint = studio.materials.iter_mut().find(|m| m.id == id).unwrap();
            paint.composition = paint.composition.with_pace(Pace::try_new(*pace).unwrap());
        }
        Edit::School(waiting) => studio.schools.waiting = *waiting,
        Edit::Order => {
            let left = |p: &Picture| {
                let open = p.steps.iter().filter(|s| s.laid_at.is_none());
                let entry = |s: &Step| OrderEntry { picture: p.id.clone(), step: s.id.clone() };
                open.map(entry).collect::<Vec<_>>()
            };
            studio.order = studio.pictures.iter().rev().flat_map(left).collect();
        }
        Edit::Begins => {
            if pictures < 4 {
                let tone = step("s1", StepKind::Tone, "heavy-py42");
                let new = format!("n{pictures}");
                let steps = vec![
                    tone,
                    step("s2", StepKind::Pass, "heavy-pb29"),
                    step("s3", StepKind::Glaze, "glazing"),
                ];
                studio.pictures.push(Picture::new(new, (24.0, 30.0), steps));
            }
        }
        Edit::TakesAway(p) => {
            if pictures > 1 {
                let p = of(p);
                studio.pictures.remove(p);
            }
        }
    }
    studio
}

/// Everything that is asked of a desk and of films under seals at `now`, as it prints.
fn answers(
    (desk, seals): (&mut Desk, &mut KnownFilms),
    now: DateTime<Utc>,
) -> Vec<(&'static str, String)> {
    let pictures = desk.studio().pictures.len();
    desk.follow_all(now).unwrap();
    let mut said = vec![
        ("plan", format!("{:?}", desk.plan(now))),
        ("ready", format!("{:?}", desk.ready(now).unwrap())),
        ("order", format!("{:?}", desk.order(now))),
        ("earliest", format!("{:?}", desk.earliest(now))),
    ];
    for p in 0..pictures {
        said.push(("outlook", format!("{:?}", desk.outlook(p, now).unwrap())));
        let until = (now + Duration::days(60)).timestamp() as f64;
        let (studio, mut strata) = (desk.studio(), desk.strata(p, now, (until, 40)).unwrap());
        said.push(("strata", format!("{:?}", strata.drawn(&studio).unwrap())));
        desk.keep_strata(&strata);
        said.push(("slow", format!("{:?}", desk.slow_in_all(p, now).unwrap())));
        let plan = desk.plan(now);
        said.push(("gate", format!("{:?}", gate_with(&studio, p, (&plan, &[]), now, seals))));
    }
    said
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(40))]

    #[test]
    fn a_desk_that_saw_the_studio_before_answers_as_a_new_one(
        edits in prop::collection::vec(edit(), 1..6),
        asked in prop::collection::vec(any::<bool>(), 6),
    ) {
        let mut studio = evenings();
        let mut kept = Desk::new(Arc::new(studio.clone()));
        let mut seals = KnownFilms::default();
        answers((&mut kept, &mut seals), at());
        for (n, edit) in edits.iter().enumerate() {
            studio = edited(&studio, edit);
            seals.turn_to(&kept.studio(), &studio);
            kept.turn_to(Arc::new(studio.clone()));
            // Not every version is looked at.
            if !asked[n] && n + 1 < edits.len() {
                continue;
            }
            let mut new = (Desk::new(Arc::new(studio.clone())), KnownFilms::default());
            let fresh = answers((&mut new.0, &mut new.1), at());
            for (old, new) in answers((&mut kept, &mut seals), at()).into_iter().zip(fresh) {
                prop_assert_eq!(old, new, "after {:?}", &edits[..=n]);
            }
        }
    }
}

#[test]
fn a_plan_holds_until_its_work_begins_and_is_made_anew_then() {
    let mut desk = Desk::new(Arc::new(evenings()));
    let plan = desk.plan(at());
    let begins =
        plan.steps.iter().filter_map(|s| s.sittings.first()).map(|s| s.from).min().unwrap();
    let before = begins - Duration::minutes(desk.studio().setup_min as i64);
    assert!(Arc::ptr_eq(&plan, &desk.plan(before)), "until then it is the same");
    let after = desk.plan(begins + Duration::minutes(1));
    assert!(!Arc::ptr_eq(&plan, &after));
    let first =
        after.steps.iter().filter_map(|s| s.sittings.first()).map(|s| s.from).min().unwrap();
    assert!(first > begins, "what was not begun is planned later");
}
