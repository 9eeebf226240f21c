//! Varnish plans, the bench and what comes after, against the trade's own numbers.

use super::*;

#[test]
fn two_coats_are_usual_five_and_a_sealer_for_what_is_handled_gloss_first_matte_last() {
    let studio = ready();
    let picture = &studio.pictures[0];
    let choice = |purpose: Purpose| VarnishChoice {
        finish: Finish::Matte,
        purpose,
        coats: purpose.usual_coats(),
        ..choice_of(&studio, picture)
    };
    let finishes = |purpose| {
        let plan = choice(purpose).plan(&studio, picture).unwrap();
        let finish = |s: &Step| studio.material(&s.mix[0].material).unwrap().finish.unwrap();
        plan.coats.iter().map(finish).collect::<Vec<_>>()
    };
    use Finish::{Gloss, Matte};
    assert_eq!(finishes(Purpose::Hung), [Gloss, Matte]);
    assert_eq!(finishes(Purpose::Handled), [Gloss, Gloss, Gloss, Gloss, Gloss, Matte]);
    assert!(finishes(Purpose::HighGloss).len() > 2, "several for a high gloss");
    // Worked by hand: (0.40 x 0.50 m + 2 x 0.90 m x 0.02 m) x 45 um = 10.62 ml, 15 % stay in bowl
    // and brush: 12.49 ml.
    let plan = choice(Purpose::Hung).plan(&studio, picture).unwrap();
    assert!((plan.pour_ml - 12.494).abs() < 1e-3, "{}", plan.pour_ml);
    assert!((plan.edges_ml - 1.906).abs() < 1e-3, "{}", plan.edges_ml);
    let on_face = plan.pour_ml * (1.0 - plan.coats[0].loss.unwrap());
    assert!((on_face - 9.0).abs() < 1e-9, "what the edges take is lost to the face");
}

#[test]
fn crossed_passes_turn_with_every_coat() {
    let studio = ready();
    let picture = &studio.pictures[0];
    let choice = VarnishChoice { strokes: Strokes::Crossed, ..choice_of(&studio, picture) };
    let strokes = choice.plan(&studio, picture).unwrap().strokes;
    assert_ne!(strokes[0], strokes[1]);
}

#[test]
fn a_new_varnish_plan_keeps_what_is_laid_and_what_stands_on_it() {
    let mut studio = ready();
    let picture = &mut studio.pictures[0];
    picture.steps[3].laid_at = Some(now() - Duration::hours(30));
    let wrap = Step { after: Some(vec!["v2".into()]), ..Step::usual("wrap", StepKind::Pack) };
    picture.steps.push(wrap);
    let picture = &studio.pictures[0];
    let choice = VarnishChoice { coats: 3, finish: Finish::Satin, ..choice_of(&studio, picture) };
    let plan = choice.plan(&studio, picture).unwrap();
    let changed = with_varnish(picture, &choice, &plan);
    assert_eq!(changed.steps.iter().filter(|s| s.kind == StepKind::Varnish).count(), 3);
    assert_eq!(changed.steps[3], picture.steps[3], "what is laid stays");
    let last = changed.steps.iter().rfind(|s| s.kind == StepKind::Varnish).unwrap();
    let wrap = changed.steps.last().unwrap();
    assert_eq!(wrap.after.as_deref(), Some(&[last.id.clone()][..]));
    assert_eq!(ulvek_core::picture::check_chain(&changed), Ok(()));
    // What cannot be is refused with its reason.
    let refused = |choice: VarnishChoice| choice.plan(&studio, picture).unwrap_err();
    let base = choice_of(&studio, picture);
    let none = refused(VarnishChoice { coats: 0, ..base.clone() });
    assert_eq!(
        (none.place(), none.to_string().as_str()),
        ("coats", "coats must be from 1 to 10, not 0")
    );
    let late = VarnishChoice { isolation: true, ..base };
    assert_eq!(refused(late), VarnishError::IsolationTooLate);
}

#[test]
fn leaving_the_studios_habit_with_the_isolation_coat_needs_a_reason() {
    let studio = ready();
    let picture = &studio.pictures[0];
    let mut choice =
        VarnishChoice { isolation: true, carrier: Carrier::Solvent, ..choice_of(&studio, picture) };
    assert_eq!(choice.plan(&studio, picture), Err(VarnishError::NoReason(false)));
    choice.isolation_reason = Some("it goes to a damp house".into());
    let plan = choice.plan(&studio, picture).unwrap();
    assert_eq!(plan.coats[0].kind, StepKind::IsolationCoat);
    assert!(plan.gaps[1].starts_with("3 to 4 days"), "{:?}", plan.gaps);
}

#[test]
fn trouble_changes_what_comes_next() {
    let mut studio = ready();
    studio.pictures[0].steps[3].laid_at = Some(now() - Duration::hours(1));
    let picture = &studio.pictures[0];
    // A cloud is left alone, and the sheen that was chosen stays. [practice]
    let (changed, said) = SealTrouble::Cloud.mend(&studio, picture, 3).unwrap();
    assert_eq!((&changed, said.len()), (picture, 1));
    // What ran dries through first.
    let (changed, _) = SealTrouble::Drip.mend(&studio, picture, 3).unwrap();
    assert_eq!(changed.steps[4].needs, Some(Need::DryThrough));
    // The second coat catches what was missed. [practice]
    assert_eq!(SealTrouble::Missed.mend(&studio, picture, 3).unwrap().0, *picture);
    let mut last = picture.clone();
    last.steps[4].laid_at = Some(now());
    let (changed, _) = SealTrouble::Missed.mend(&studio, &last, 4).unwrap();
    assert_eq!(changed.steps.iter().filter(|s| s.kind == StepKind::Varnish).count(), 3);
    assert!(changed.steps[5].laid_at.is_none());
}

#[test]
fn how_a_varnish_comes_off_hangs_on_what_carries_it_and_what_lies_below() {
    let mut studio = ready();
    let of = |d: &Studio| removal(d, &d.pictures[0]);
    assert_eq!(of(&studio), Removal::Unvarnished);
    studio.pictures[0].steps[3].laid_at = Some(now());
    assert_eq!(of(&studio), Removal::Stays);
    studio.pictures[0].steps[3].mix[0].material = "solvent-gloss".into();
    assert_eq!(of(&studio), Removal::Solvent);
    let isolation = coat("iso", StepKind::IsolationCoat, "gloss-medium", Some(100.0));
    studio.pictures[0].steps.insert(3, isolation);
    assert_eq!(of(&studio), Removal::SolventOverIsolation);
}

#[test]
fn the_bench_sheet_warns_of_solvent_where_it_is_used_and_only_there() {
    let mut studio = ready();
    let cautions = |studio: &Studio| {
        let picture = &studio.pictures[0];
        let choice = choice_of(studio, picture);
        let plan = choice.plan(studio, picture).unwrap();
        let sheet = bench_sheet(studio, (picture, 3), (&choice, &plan), &look(studio));
        let all = sheet.preparation.iter().chain(&sheet.application);
        all.filter(|l| l.care).map(|l| l.what.clone()).collect::<Vec<_>>().join(" ")
    };
    let water = cautions(&studio);
    assert!(water.contains("waste") && !water.contains("respirator") && !water.contains("flame"));
    for step in &mut studio.pictures[0].steps[3..] {
        step.mix[0].material = "solvent-gloss".into();
    }
    let solvent = cautions(&studio);
    // docs/trade.md, "Care for people".
    for word in ["respirator", "flame", "spark", "safety data sheet", "waste", "local"] {
        assert!(solvent.contains(word), "{word} in: {solvent}");
    }
}

#[test]
fn a_big_face_is_laid_in_bands_with_a_broader_brush_and_small_edges_can_be_left_out() {
    let studio = ready();
    let of = |size: (f64, f64), edge_cm: f64| {
        let picture = Picture::new("p", size, vec![]);
        let choice = VarnishChoice { edge_cm, ..choice_of(&studio, &picture) };
        choice.plan(&studio, &picture).unwrap()
    };
    let (small, large) = (of((20.0, 20.0), 2.0), of((90.0, 120.0), 2.0));
    assert!(small.brush_cm < large.brush_cm);
    assert!(large.areas.iter().any(|a| a.contains("bands")));
    assert!(!small.areas.iter().any(|a| a.contains("bands")));
    let bare = of((20.0, 20.0), 0.0);
    assert_eq!(bare.edges_ml, 0.0);
    assert!(!bare.areas.iter().any(|a| a.contains("edges")));
}

fn choices() -> impl Strategy<Value = VarnishChoice> {
    let pick = |n: u8| 0..n;
    (pick(2), pick(3), pick(3), 1u8..=10, any::<bool>(), any::<bool>(), 0.0f64..10.0).prop_map(
        |(carrier, finish, purpose, coats, isolation, crossed, edge_cm)| VarnishChoice {
            carrier: [Carrier::WaterBorne, Carrier::Solvent][usize::from(carrier)],
            finish: [Finish::Gloss, Finish::Satin, Finish::Matte][usize::from(finish)],
            purpose: [Purpose::Hung, Purpose::HighGloss, Purpose::Handled][usize::from(purpose)],
            coats,
            isolation,
            isolation_reason: Some("tried".into()),
            strokes: if crossed { Strokes::Crossed } else { Strokes::FollowPaint },
            edge_cm,
        },
    )
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(300))]

    #[test]
    fn whatever_varnish_is_chosen_the_picture_holds_together(
        choice in choices(), laid in 0usize..3, wrapped in any::<bool>(), trouble in 0usize..8,
    ) {
        let mut studio = ready();
        let picture = &mut studio.pictures[0];
        for n in 0..laid {
            picture.steps[3 + n].laid_at = Some(now() - Duration::hours(50 - n as i64));
        }
        if wrapped {
            picture.steps.push(Step {
                after: Some(vec!["v2".into()]),
                ..Step::usual("wrap", StepKind::Pack)
            });
        }
        let picture = &studio.pictures[0];
        let Ok(plan) = choice.plan(&studio, picture) else {
            // Refused is only what comes too late.
            prop_assert!(laid > 0);
            return Ok(());
        };
        let changed = with_varnish(picture, &choice, &plan);
        prop_assert_eq!(ulvek_core::picture::check_chain(&changed), Ok(()));
        let done = |p: &Picture| {
            p.steps.iter().filter(|s| s.laid_at.is_some()).cloned().collect::<Vec<_>>()
        };
        prop_assert_eq!(done(&changed), done(picture), "what is laid stays");
        let varnish: Vec<_> =
            changed.steps.iter().filter(|s| s.kind == StepKind::Varnish).collect();
        let sealer = usize::from(choice.purpose == Purpose::Handled);
        prop_assert_eq!(varnish.len(), usize::from(choice.coats) + sealer);
        // Gloss first, the chosen sheen last, among what is still to come.
        let sheen = |s: &Step| studio.material(&s.mix[0].material).unwrap().finish.unwrap();
        let to_come: Vec<_> = varnish.iter().filter(|s| s.laid_at.is_none()).collect();
        if let Some((last, first)) = to_come.split_last() {
            prop_assert_eq!(sheen(last), choice.finish);
            prop_assert!(first.iter().all(|s| sheen(s) == Finish::Gloss));
        }
        // Chosen again, nothing more changes but the names of steps.
        studio.pictures[0] = changed.clone();
        let again = choice.plan(&studio, &changed).unwrap();
        prop_assert_eq!(again.coats.len(), plan.coats.len());
        prop_assert!((again.pour_ml - plan.pour_ml).abs() < 1e-12);
        // Trouble on any laid sealing coat leaves a picture that holds together as well.
        if let Some(i) = changed.steps.iter().rposition(|s| s.kind.seals() && s.laid_at.is_some()) {
            let (_, trouble) = SealTrouble::WORDS[trouble];
            if let Ok((mended, _)) = trouble.mend(&studio, &changed, i) {
                prop_assert_eq!(ulvek_core::picture::check_chain(&mended), Ok(()));
                prop_assert_eq!(done(&mended), done(&changed));
                prop_assert!(mended.steps.len() >= changed.steps.len());
            }
        }
    }
}

#[test]
fn an_isolation_coat_is_sealed_over_only_after_its_own_gap() {
    let mut studio = ready();
    studio.schools.isolation_coat = true;
    let picture = &studio.pictures[0];
    let choice =
        VarnishChoice { isolation: true, carrier: Carrier::Solvent, ..choice_of(&studio, picture) };
    let varnish = choice.plan(&studio, picture).unwrap();
    studio.pictures[0] = with_varnish(picture, &choice, &varnish);
    let isolation = look(&studio);
    assert_eq!(isolation.stage, Stage::Open, "the isolation coat comes first");
    let i = isolation.step.unwrap();
    assert_eq!(studio.pictures[0].steps[i].kind, StepKind::IsolationCoat);
    studio.pictures[0].steps[i].laid_at = Some(now() - Duration::hours(20));
    studio.pictures[0].seal.inspected_at = Some(now());
    let over = look(&studio);
    let between = over.conditions.iter().find(|c| c.id == ConditionId::Between).unwrap();
    assert_eq!(between.from, Some(now() + Duration::hours(52)), "three days after it was laid");
    let product = over.conditions.iter().find(|c| c.id == ConditionId::Product).unwrap();
    assert!(product.evidence.contains("over the isolation coat"), "{}", product.evidence);
}
