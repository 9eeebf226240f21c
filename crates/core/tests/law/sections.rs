//! Sections of a picture are stacks of their own, and the picture waits for the slowest of them.

use super::*;
use ulvek_core::film::{FilmState, Futures, HORIZON_S};
use ulvek_core::picture::{Timeline, follow};

fn on(section: &str, step: Step) -> Step {
    Step { section: Some(section.to_owned()), ..step }
}

fn at_hour(step: Step, hours_ago: i64) -> Step {
    Step { laid_at: Some(now() - Duration::hours(hours_ago)), ..step }
}

/// A thick slow coat on the left, laid just now, over a tone that is days old; and what is to come.
fn left_wet(to_come: Vec<Step>) -> Studio {
    let tone = laid(coat("tone", StepKind::Tone, "heavy-py42"), 9);
    let slow = Step { wet_film_um: Some(120.0), ..coat("slow", StepKind::Pass, "slow-pb29") };
    let mut steps = vec![tone, at_hour(on("left", slow), 1)];
    steps.extend(to_come);
    let mut studio = studio(steps);
    // A night for fresh eyes is one for the whole picture.
    studio.schools.fresh_eyes = false;
    studio
}

#[test]
fn one_section_does_not_wait_for_the_wet_one_beside_it_and_all_over_waits_for_both() {
    let glaze = |id: &str| coat(id, StepKind::Glaze, "glazing");
    let right = left_wet(vec![on("right", glaze("right"))]);
    let left = left_wet(vec![on("left", glaze("over"))]);
    let whole = left_wet(vec![glaze("whole")]);
    assert_eq!(begins(&right, "right"), utc("2027-01-04T09:10:00Z"), "as soon as there are hours");
    assert!(begins(&left, "over") > begins(&right, "right") + Duration::hours(12));
    assert_eq!(begins(&whole, "whole"), begins(&left, "over"), "the picture is its slowest place");
    let made = planned(&whole);
    let wait = made.steps[0].wait.as_ref().unwrap();
    assert_eq!((wait.reason, wait.of), (WaitReason::Film, Some(1)), "and says which coat it is");
    assert!(wait.said(&whole.pictures[0]).contains("pass (left)"), "and where it lies");
    // A quick coat on the right meanwhile hides nothing of that.
    let both = left_wet(vec![at_hour(on("right", glaze("quick")), 0), glaze("whole")]);
    let made = planned(&both);
    assert_eq!(made.steps[0].wait.as_ref().unwrap().of, Some(1));
    assert_eq!(made.steps[0].sittings[0].from, begins(&whole, "whole"));
}

#[test]
fn a_varnish_waits_for_the_slowest_section_and_has_none_itself() {
    let alone = left_wet(vec![varnish("v1")]);
    let beside = left_wet(vec![
        at_hour(on("right", coat("quick", StepKind::Glaze, "glazing")), 0),
        varnish("v1"),
    ]);
    assert_eq!(begins(&alone, "v1"), begins(&beside, "v1"));
    let gate = look(&beside, now());
    assert_eq!(gate.earliest.unwrap().0, begins(&beside, "v1"), "the gate says the same");
    let wrong = left_wet(vec![on("left", varnish("v1"))]);
    let said = wrong.check().unwrap_err();
    assert_eq!(said.place, "pictures[0].steps[2].section");
    assert_eq!(said.why, "a step of the kind varnish is done all over: take the section out");
}

#[test]
fn paint_beside_wet_paint_is_no_fault_and_on_it_is_one() {
    let next = |section: &str| {
        let step = on(section, coat("next", StepKind::Pass, "heavy-pb29"));
        left_wet(vec![at_hour(step, 0)])
    };
    assert!(found(&next("left"), "laid-on-wet") && !found(&next("right"), "laid-on-wet"));
    // Whole over wet on one side only.
    let whole = at_hour(coat("next", StepKind::Pass, "heavy-pb29"), 0);
    assert!(found(&left_wet(vec![whole]), "laid-on-wet"));
}

/// Random coats, each all over or on one of two sections, hours apart.
fn coats() -> impl Strategy<Value = Vec<Step>> {
    let menu = ["heavy-pb29", "slow-pb29", "glazing", "matte-medium"];
    let section = prop::sample::select(vec![None, Some("left"), Some("right")]);
    let coat_of = (prop::sample::select(menu.to_vec()), 20.0f64..110.0, section, 1i64..40);
    prop::collection::vec(coat_of, 1..6).prop_map(|rows| {
        let mut hours = 300;
        let step = |(n, (material, film, section, gap)): (usize, (_, f64, Option<&str>, i64))| {
            hours -= gap;
            Step {
                wet_film_um: Some(film),
                section: section.map(str::to_owned),
                ..at_hour(coat(&format!("s{n}"), StepKind::Pass, material), hours)
            }
        };
        rows.into_iter().enumerate().map(step).collect()
    })
}

fn followed(studio: &Studio) -> Timeline {
    let picture = &studio.pictures[0];
    let coats = studio.laid_coats(0).unwrap();
    let until = coats.last().unwrap().at + HORIZON_S;
    let plain = std::sync::Arc::new(Futures::plain(studio.air.clone()));
    follow(picture, &coats, &plain, Grid::PLANNING, (until, 0), |_| false).unwrap()
}

proptest! {
    #![proptest_config(ProptestConfig { failure_persistence: None, ..ProptestConfig::with_cases(40) })]

    /// Each place dries as a picture of its own does that has only what lies there.
    #[test]
    fn a_section_dries_like_a_picture_without_the_other_sections(steps in coats()) {
        let mixed = studio(steps.clone());
        let line = followed(&mixed);
        let mut slowest = None;
        for stack in &line.stacks {
            let name = mixed.pictures[0].section_at(stack.place);
            let lies = |s: &&Step| s.section.is_none() || s.section.as_deref() == name;
            let there = steps.iter().filter(lies);
            let alone = studio(there.map(|s| Step { section: None, ..s.clone() }).collect());
            let events = |line: &Timeline| line.coats.iter().map(|c| c.events.clone()).collect::<Vec<_>>();
            let own: Vec<_> = stack.coats.iter().map(|c| c.events.clone()).collect();
            prop_assert_eq!(own, events(&followed(&alone)));
            let mut bed = Bed::new(&alone, 0, Grid::PLANNING).unwrap();
            slowest = slowest.max(bed.reaches(&alone, FilmState::ReadyToSeal).unwrap());
        }
        let mut bed = Bed::new(&mixed, 0, Grid::PLANNING).unwrap();
        prop_assert_eq!(bed.reaches(&mixed, FilmState::ReadyToSeal).unwrap(), slowest);
    }
}
