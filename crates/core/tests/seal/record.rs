//! The record that goes with a picture: what was done in its order of time, what went against the gate, and
//! how the varnish comes off.

use super::*;
use ulvek_core::picture::{SealAnyway, SetAside, TroubleFound};
use ulvek_core::seal::{mix_said, record_sheet};

#[test]
fn the_record_tells_what_was_done_in_order_of_time_and_what_is_to_come() {
    let mut studio = ready();
    studio.pictures[0].ground = ulvek_core::picture::FIRST_GROUND;
    let steps = &mut studio.pictures[0].steps;
    // Logged late: it was done before the signature all the same.
    steps[2].laid_at = Some(now() - Duration::hours(450));
    steps[0].mix = Mix::of(&[("glazing", 9.0), ("heavy-pbr7", 3.0)]);
    steps[3].laid_at = Some(now());
    let sheet = record_sheet(&studio, 0);
    let titles: Vec<_> = sheet.work.iter().map(|w| w.title.clone()).collect();
    let called = |i: usize| studio.pictures[0].steps[i].called();
    assert_eq!(titles, [0, 2, 1, 3].map(called));
    assert_eq!(sheet.to_come, [called(4)]);
    assert_eq!(sheet.work[0].mix, "75 % Glazing liquid, 25 % Burnt earth PBr7, heavy");
    assert_eq!(sheet.work[0].mix, mix_said(&studio, &studio.pictures[0].steps[0]));
    // A photograph leaves no film, no colour and nothing in a cup.
    let photograph = &sheet.work[1];
    assert_eq!((photograph.wet_film_um, photograph.colour, photograph.seals), (None, None, false));
    assert!(photograph.mix.is_empty() && sheet.work[0].colour.is_some() && sheet.work[3].seals);
    // Each material once, and only what was really used: not the matte varnish that is to come.
    let used: Vec<_> = sheet.materials.iter().map(|m| studio.materials[*m].id.as_str()).collect();
    for (id, is_used) in
        [("glazing", true), ("heavy-pbr7", true), ("varnish-gloss", true), ("varnish-matte", false)]
    {
        assert_eq!(used.contains(&id), is_used, "{id} of {used:?}");
    }
    assert_eq!(sheet.ground, "primed canvas");
}

#[test]
fn what_was_done_against_a_rule_stands_in_the_record_with_its_reason() {
    let mut studio = ready();
    let picture = &mut studio.pictures[0];
    picture.steps[3].laid_at = Some(now() - Duration::hours(2));
    picture.seal.anyway.push(SealAnyway {
        at: now() - Duration::hours(2),
        step: "v1".into(),
        reason: "the van comes at five".into(),
        against: vec!["the room is too damp".into(), "no photograph".into()],
    });
    picture.seal.troubles.push(TroubleFound {
        at: now(),
        step: "v1".into(),
        trouble: SealTrouble::Cloud,
    });
    picture.set_aside.push(SetAside {
        rule: "fat-over-lean".into(),
        step: "gone".into(),
        reason: "a test piece".into(),
        at: now(),
    });
    let sheet = record_sheet(&studio, 0);
    let [anyway] = &sheet.anyway[..] else { panic!("{:?}", sheet.anyway) };
    assert_eq!(anyway.on, studio.pictures[0].steps[3].called());
    assert_eq!(
        anyway.what,
        "Laid although not: the room is too damp; no photograph. Reason: the van comes at five"
    );
    assert_eq!(sheet.troubles[0].what, SealTrouble::Cloud.looks_like());
    // A step that is gone keeps the name it had in the document.
    assert_eq!((sheet.set_aside[0].on.as_str(), sheet.set_aside[0].at), ("gone", now()));
    assert!(sheet.set_aside[0].what.ends_with("Reason: a test piece"));
}

#[test]
fn each_trouble_is_told_apart_and_says_what_to_do_while_wet_and_when_set() {
    let mut looks: Vec<_> = SealTrouble::WORDS.iter().map(|(_, t)| t.looks_like()).collect();
    looks.sort_unstable();
    looks.dedup();
    assert_eq!(looks.len(), SealTrouble::WORDS.len(), "two troubles look alike");
    for (word, trouble) in SealTrouble::WORDS {
        let (wet, set) = (trouble.while_wet(), trouble.when_set());
        assert!(wet != set && wet.ends_with('.') && set.ends_with('.'), "{word}");
        // Nobody goes over wet varnish more than once (common practice).
        let brushes = wet.contains("Draw") || wet.contains("Touch") || wet.contains("Take it up");
        assert!(!brushes || wet.contains("once"), "{word}: {wet}");
        assert!(!set.contains("brush"), "{word}: a coat that has set is left alone: {set}");
    }
}

#[test]
fn whatever_is_found_on_a_coat_what_is_planned_after_it_can_be_done() {
    for (word, trouble) in SealTrouble::WORDS {
        for laid in [1, 2] {
            let mut studio = ready();
            let steps = &mut studio.pictures[0].steps;
            for (n, step) in steps[3..3 + laid].iter_mut().enumerate() {
                step.laid_at = Some(now() - Duration::hours(40 - 30 * n as i64));
            }
            let picture = &studio.pictures[0];
            let (mended, said) = trouble.mend(&studio, picture, 2 + laid).unwrap();
            assert_eq!(ulvek_core::picture::check_chain(&mended), Ok(()), "{word}");
            assert_eq!(mended.steps[..3 + laid], picture.steps[..3 + laid], "{word}: laid is laid");
            assert!(!said.is_empty() || mended == *picture, "{word}: changed without a word");
            studio.pictures[0] = mended;
            let plan = plan(Request { studio: &studio, from: now() });
            assert!(plan.steps.iter().all(|s| s.blocked.is_none()), "{word}: {:?}", plan.steps);
        }
    }
}
