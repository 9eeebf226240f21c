//! What happens beside the coats: what it changes, and that taking it back gives back what was.
//! What is said and planned is common practice of the trade (docs/trade.md, "When it goes wrong with paint").

use chrono::{DateTime, Duration, Utc};
use proptest::prelude::*;
use ulvek_core::air::{Air, AirSeries};
use ulvek_core::deeds::{Laid, LaidFilm, Told, ToldWhat, happen, retell, too_early};
use ulvek_core::mix::{MaterialKind, Mix};
use ulvek_core::picture::{
    Need, PaintTrouble, Picture, Step, StepKind, Touch, TouchTest, WIPED_UM,
};
use ulvek_core::quantity::Fault;
use ulvek_core::studio::Studio;
use ulvek_testkit::{at, step, studio};

/// A tone, a pass a day later, a glaze and another one to come.
fn worked() -> Studio {
    let tone = Step { laid_at: Some(at()), ..step("s1", StepKind::Tone, "heavy-py42") };
    let pass = Step { laid_at: Some(hours(24)), ..step("s2", StepKind::Pass, "heavy-pb29") };
    let glaze = step("s3", StepKind::Glaze, "glazing");
    let second = step("s4", StepKind::Glaze, "glazing");
    studio(vec![Picture::new("p", (30.0, 40.0), vec![tone, pass, glaze, second])])
}

fn hours(hours: i64) -> DateTime<Utc> {
    at() + Duration::hours(hours)
}

fn told(what: ToldWhat, at: DateTime<Utc>) -> Told {
    let (place, words) = ("sky".into(), String::new());
    Told { at, step: Some("s2".into()), material: None, place, words, what }
}

fn tell(studio: &Studio, told: &Told) -> Result<(Picture, Vec<String>), Fault> {
    happen(studio, 0, told, hours(2000)).map(|(deed, _, said)| (deed.picture, said))
}

fn place(studio: &Studio, told: &Told) -> String {
    tell(studio, told).unwrap_err().place
}

#[test]
fn what_is_wiped_off_wet_no_longer_counts_and_is_planned_again() {
    let wet = told(ToldWhat::WipedOff, hours(24) + Duration::minutes(2));
    let (after, _) = tell(&worked(), &wet).unwrap();
    assert_eq!(after.steps[1].wet_film_um, Some(WIPED_UM));
    let again = &after.steps[2];
    let before = &worked().pictures[0].steps[1];
    assert_eq!((again.kind, again.laid_at), (StepKind::Pass, None));
    assert_eq!((again.wet_film_um, &again.mix), (before.wet_film_um, &before.mix));
    // What is dry cannot be wiped off, nor what lies under another coat.
    assert_eq!(place(&worked(), &told(ToldWhat::WipedOff, hours(30))), "at");
    let under = Told { step: Some("s1".into()), ..wet };
    assert_eq!(place(&worked(), &under), "step");
}

#[test]
fn sanding_takes_what_it_is_told_and_no_more_than_there_is() {
    let film = worked().pictures[0].steps[1].wet_film_um.unwrap();
    let solids =
        worked().pictures[0].steps[1].mix.composition(&worked().materials).unwrap().solids();
    let depth = 10.0;
    let (after, said) = tell(&worked(), &told(ToldWhat::Sanded(Some(depth)), hours(300))).unwrap();
    let left = after.steps[1].wet_film_um.unwrap() * solids;
    assert!((film * solids - left - depth).abs() < 1e-9);
    assert!(said.iter().any(|s| s.contains("dust mask")), "{said:?}");
    let (after, _) = tell(&worked(), &told(ToldWhat::Sanded(None), hours(300))).unwrap();
    assert!(after.steps[1].wet_film_um.unwrap() * solids < 1.0, "through to the coat below");
    for depth in [film * solids + 1.0, 0.0, f64::NAN] {
        assert_eq!(place(&worked(), &told(ToldWhat::Sanded(Some(depth)), hours(300))), "dry_um");
    }
    // Soft paint clogs the paper; cadmium dust is poisonous.
    let (_, said) = tell(&worked(), &told(ToldWhat::Sanded(None), hours(25))).unwrap();
    assert!(said[0].contains("not dry through"), "{said:?}");
    let mut toxic = worked();
    toxic.materials[0].hazards = Some("cadmium".into());
    toxic.pictures[0].steps[0].mix = Mix::one(toxic.materials[0].id.as_str());
    let (_, said) = tell(&toxic, &told(ToldWhat::Sanded(None), hours(300))).unwrap();
    assert!(said.iter().any(|s| s.contains("poisonous")), "{said:?}");
    // The paper does not reach what lies beside.
    toxic.pictures[0].steps[0].section = Some("left".into());
    toxic.pictures[0].steps[1].section = Some("right".into());
    let (_, said) = tell(&toxic, &told(ToldWhat::Sanded(None), hours(300))).unwrap();
    assert!(said.iter().all(|s| !s.contains("poisonous")), "{said:?}");
}

#[test]
fn a_coat_that_lifted_the_one_below_is_a_touch_test_and_a_mend_when_all_is_dry() {
    let lifted = told(ToldWhat::Trouble(PaintTrouble::Lifted), hours(24));
    let (after, _) = tell(&worked(), &lifted).unwrap();
    let mend = &after.steps[2];
    assert_eq!((mend.kind, mend.needs), (StepKind::Correction, Some(Need::DryThrough)));
    assert_eq!(mend.mix, worked().pictures[0].steps[0].mix, "the mix of the coat below");
    let test =
        TouchTest { at: hours(24) - Duration::seconds(1), step: "s1".into(), felt: Touch::Tacky };
    assert_eq!(after.tests, [test]);
    // Taken back, the test goes with it.
    let mut since = worked();
    since.pictures[0] = after;
    let entry = since.pictures[0].happened[0].clone();
    assert_eq!(retell(&since, 0, (&entry, None), hours(30)).unwrap().picture.tests, []);
}

#[test]
fn streaks_change_no_coat_and_a_cloud_waits_until_it_is_dry_through() {
    let mut glazed = worked();
    glazed.pictures[0].steps[2].laid_at = Some(hours(60));
    let of =
        |trouble| Told { step: Some("s3".into()), ..told(ToldWhat::Trouble(trouble), hours(61)) };
    // A thinner film sets sooner: common practice is to mix better, with more medium, in smaller areas.
    let (after, said) = tell(&glazed, &of(PaintTrouble::Streaks)).unwrap();
    assert_eq!(after.steps, glazed.pictures[0].steps);
    assert!(said.iter().any(|s| s.contains("until no streak shows")), "{said:?}");
    let (after, _) = tell(&glazed, &of(PaintTrouble::Cloudy)).unwrap();
    assert_eq!((after.needs(3), after.steps[3].needs), (Need::DryThrough, None));
    // Taken back, it waits no longer.
    let since = Studio { pictures: vec![after.clone()], ..glazed };
    let back = retell(&since, 0, (&after.happened[0], None), hours(62)).unwrap().picture;
    assert_eq!(back.needs(3), Need::Paintable);
}

#[test]
fn too_light_is_deepened_by_a_glaze_and_a_first_coat_that_lifted_mends_the_ground() {
    let mut painted = worked();
    painted.pictures[0].steps[1].mix = Mix::of(&[("heavy-pb29", 3.0), ("heavy-pw6", 1.0)]);
    let (after, _) =
        tell(&painted, &told(ToldWhat::Trouble(PaintTrouble::TooLight), hours(30))).unwrap();
    let glaze = &after.steps[2];
    assert_eq!(glaze.kind, StepKind::Glaze);
    assert_eq!(glaze.mix, Mix::of(&[("glazing", 9.0), ("heavy-pb29", 1.0)]), "not more white");
    let first =
        Told { step: Some("s1".into()), ..told(ToldWhat::Trouble(PaintTrouble::Lifted), at()) };
    painted.pictures[0].steps[1].laid_at = None;
    let (after, said) = tell(&painted, &first).unwrap();
    let mend = after.steps.iter().find(|s| s.kind == StepKind::Correction).unwrap();
    assert!(mend.name.as_deref().unwrap().starts_with("Mend the ground"), "{mend:?}");
    let primer = painted.material(&mend.mix[0].material).unwrap();
    assert_eq!(primer.kind, MaterialKind::Primer);
    assert!(said.iter().any(|s| s.contains("with primer")), "{said:?}");
}

#[test]
fn what_cannot_have_happened_is_refused_at_its_field() {
    let studio = worked();
    let streaks = |at| told(ToldWhat::Trouble(PaintTrouble::Streaks), at);
    assert_eq!(place(&studio, &streaks(hours(2001))), "at");
    assert_eq!(place(&studio, &streaks(hours(23))), "at");
    let of = |step: Option<&str>| Told { step: step.map(Into::into), ..streaks(hours(25)) };
    assert_eq!(place(&studio, &of(Some("s9"))), "step");
    assert_eq!(place(&studio, &of(Some("s3"))), "step");
    assert_eq!(place(&studio, &of(None)), "step");
    assert_eq!(place(&studio, &told(ToldWhat::Noted, hours(25))), "words");
    let unknown = Told { material: Some("moonlight".into()), ..streaks(hours(25)) };
    assert_eq!(place(&studio, &unknown), "material");
    let mut since = studio;
    let note = Told { words: "colder".into(), ..told(ToldWhat::Noted, hours(25)) };
    since.pictures[0] = tell(&since, &note).unwrap().0;
    assert_eq!(place(&since, &note), "at", "twice the same");
    // Trouble with varnish has its own list.
    since.pictures[0].steps[1].kind = StepKind::Varnish;
    assert_eq!(place(&since, &streaks(hours(25))), "step");
}

#[test]
fn a_coat_on_a_wet_one_is_said_before_it_is_kept() {
    let laid = |step: &str, at| Laid {
        step: step.into(),
        at,
        film: LaidFilm::default(),
        mix: None,
        anyway: None,
    };
    let said = |entry: &Laid| too_early(&worked(), 0, entry).unwrap();
    let early = said(&laid("s3", hours(24) + Duration::minutes(3)));
    assert!(early[0].contains("is ready for it from"), "{early:?}");
    assert!(early[1].contains("fresh eyes") && early.len() == 2, "{early:?}");
    assert_eq!(said(&laid("s3", hours(200))), Vec::<String>::new());
    // The tone, put right to a minute before the pass: that one lies on it too early.
    let moved = said(&laid("s1", hours(24) - Duration::minutes(1)));
    assert!(moved.iter().any(|s| s.contains("would lie on")), "{moved:?}");
    assert_eq!(said(&laid("s1", at() + Duration::hours(1))), Vec::<String>::new());
}

#[test]
fn a_coat_before_its_waiting_time_or_in_the_cold_is_said_before_it_is_kept() {
    let entry = Laid {
        step: "s3".into(),
        at: hours(200),
        film: LaidFilm::default(),
        mix: None,
        anyway: None,
    };
    let mut studio = worked();
    studio.pictures[0].steps[2].not_before = Some(hours(300));
    studio.air = AirSeries::constant(Air::try_new(6.0, 0.5, 0.15).unwrap());
    let said = too_early(&studio, 0, &entry).unwrap();
    assert!(said.iter().any(|s| s.contains("the date you set, until")), "{said:?}");
    assert!(said.iter().any(|s| s.starts_with("6 °C is too cold")), "{said:?}");
}

#[test]
fn what_was_planned_for_an_entry_goes_with_it_unless_it_was_changed() {
    use PaintTrouble::{Dust, Lifted, Spots, TooDark, TooLight, Torn, WrongCast};
    let troubles = [Dust, Lifted, Spots, TooDark, TooLight, Torn, WrongCast].map(ToldWhat::Trouble);
    let titles = |studio: &Studio| -> Vec<(String, Option<Vec<String>>)> {
        studio.pictures[0].steps.iter().map(|s| (s.id.clone(), s.after.clone())).collect()
    };
    for what in troubles.into_iter().chain([ToldWhat::WipedOff]) {
        let mut studio = worked();
        if what == ToldWhat::Trouble(Spots) {
            studio.pictures[0].steps.truncate(2);
        }
        let before = titles(&studio);
        studio.pictures[0] =
            tell(&studio, &told(what.clone(), hours(24) + Duration::minutes(2))).unwrap().0;
        assert_eq!(titles(&studio).len(), before.len() + 1, "{what:?}");
        let entry = studio.pictures[0].happened[0].clone();
        let back = |studio: &Studio| {
            let picture = retell(studio, 0, (&entry, None), hours(30)).unwrap().picture;
            titles(&Studio { pictures: vec![picture], ..studio.clone() })
        };
        assert_eq!(back(&studio), before, "{what:?}");
        // What the painter made of it is the painter's.
        studio.pictures[0].steps[2].hands_on_min += 5.0;
        assert_eq!(back(&studio).len(), before.len() + 1, "{what:?}");
    }
}

fn any_what() -> impl Strategy<Value = ToldWhat> {
    let trouble = prop::sample::select(PaintTrouble::WORDS).prop_map(|(_, t)| ToldWhat::Trouble(t));
    prop_oneof![
        trouble,
        Just(ToldWhat::WipedOff),
        Just(ToldWhat::Misted),
        (1.0..20.0f64).prop_map(|um| ToldWhat::Sanded(Some(um))),
    ]
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(24))]

    /// Whatever happens leaves a picture that may be, and taken back, the coats that are on are as they were.
    #[test]
    fn what_is_taken_back_in_turn_leaves_the_coats_as_they_were(
        all in prop::collection::vec((any_what(), 1..2000i64), 1..5),
    ) {
        let mut studio = worked();
        for (what, minutes) in all {
            let told = told(what, hours(24) + Duration::minutes(minutes));
            if let Ok((picture, _)) = tell(&studio, &told) {
                studio.pictures[0] = picture;
                prop_assert_eq!(studio.check_picture(0), Ok(()));
            }
        }
        // The last entered is taken back first.
        let on = |studio: &Studio| -> Vec<(String, Option<f64>)> {
            let done = studio.pictures[0].steps.iter().filter(|s| s.laid_at.is_some());
            done.map(|s| (s.id.clone(), s.wet_film_um)).collect()
        };
        let mut entries = studio.pictures[0].happened.clone();
        // A film only ever becomes thinner: the thinner it was before, the later it was entered.
        entries.sort_by(|a, b| was(a).total_cmp(&was(b)));
        for entry in entries {
            studio.pictures[0] = retell(&studio, 0, (&entry, None), hours(2000)).unwrap().picture;
        }
        prop_assert_eq!(on(&studio), on(&worked()));
        prop_assert!(studio.pictures[0].tests.is_empty() && studio.pictures[0].happened.is_empty());
    }
}

fn was(entry: &ulvek_core::picture::Happening) -> f64 {
    match entry.what {
        ulvek_core::picture::What::WipedOff { was_um }
        | ulvek_core::picture::What::Sanded { was_um, .. } => was_um,
        _ => 0.0,
    }
}
