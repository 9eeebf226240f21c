//! What is seen of a picture before it is painted, and which mix to take for a colour. Opaque paint hides
//! and a glaze does not: common practice of the trade; differences are CIEDE2000, of which one is just seen.

use ulvek_core::colour::{Lab, Patch};
use ulvek_core::mix::{Finish, Mix, Swatch};
use ulvek_core::picture::{Picture, Step, StepKind};
use ulvek_core::studio::{
    ColourAsked, CupColours, LADDER_COATS, LADDER_ROWS, Look, MatchAsked, StringAsked, Studio,
};
use ulvek_testkit::{at, step, studio};

const GLAZE: [(&str, f64); 2] = [("glazing", 29.0), ("fluid-pb15", 1.0)];

fn coat(id: &str, kind: StepKind, parts: &[(&str, f64)]) -> Step {
    Step {
        mix: Mix::of(parts),
        wet_film_um: Some(60.0),
        share_of_area: 1.0,
        ..step(id, kind, "glazing")
    }
}

/// White paint on the ground, laid; a glaze, another and a varnish to come.
fn white() -> Studio {
    let white = Step { laid_at: Some(at()), ..coat("s1", StepKind::Pass, &[("heavy-pw6", 1.0)]) };
    let steps = vec![
        white,
        coat("s2", StepKind::Glaze, &GLAZE),
        coat("s3", StepKind::Glaze, &GLAZE),
        coat("s4", StepKind::Varnish, &[("varnish-matte", 1.0)]),
    ];
    studio(vec![Picture::new("p", (50.0, 40.0), steps)])
}

fn asked(parts: &[(&str, f64)]) -> ColourAsked {
    ColourAsked { mix: Mix::of(parts), wet_film_um: 60.0, step: None, wanted: None }
}

fn colours(asked: &ColourAsked) -> CupColours {
    white().cup_colours(0, asked).unwrap()
}

fn apart(a: Swatch, b: Swatch) -> f64 {
    Lab::of(a).apart(Lab::of(b))
}

#[test]
fn opaque_paint_hides_at_once_and_a_glaze_by_and_by() {
    let pass = colours(&asked(&[("heavy-pw6", 1.0)]));
    let glaze = colours(&asked(&GLAZE));
    assert!(pass.covers > 0.7 && glaze.covers < 0.1, "{} {}", pass.covers, glaze.covers);
    assert!(pass.hides_in.is_some_and(|n| n <= 2), "{:?}", pass.hides_in);
    assert!(glaze.hides_in.is_none_or(|n| n > LADDER_COATS), "{:?}", glaze.hides_in);
    // Each glaze darkens white, the first most; the ladder goes from dark to light and keeps that order.
    let light: Vec<f64> = glaze.face.seen.iter().map(|s| Lab::of(*s).l).collect();
    assert_eq!(light.len(), LADDER_COATS + 1);
    let darker: Vec<f64> = light.windows(2).map(|w| w[0] - w[1]).collect();
    assert!(darker.iter().all(|d| *d > 0.0) && darker[0] > darker[LADDER_COATS - 1], "{light:?}");
    assert_eq!(glaze.ladder.len(), LADDER_ROWS);
    for coats in 0..=LADDER_COATS {
        let rows: Vec<f64> = glaze.ladder.iter().map(|r| Lab::of(r.seen[coats]).l).collect();
        assert!(rows.is_sorted(), "after {coats}: {rows:?}");
    }
}

#[test]
fn so_many_coats_come_nearest_to_what_they_look_like() {
    for coats in [0, 2, 5] {
        let wanted = Some(colours(&asked(&GLAZE)).face.seen[coats]);
        let found = colours(&ColourAsked { wanted, ..asked(&GLAZE) }).nearest.unwrap();
        // Colours of a screen are whole numbers of 255.
        assert!(found.0 == coats && found.1 < 0.5, "{coats}: {found:?}");
    }
}

#[test]
fn a_coat_lies_on_what_comes_before_it_and_not_on_what_is_small_or_comes_after() {
    let mut studio = white();
    let under = |studio: &Studio, step: Option<&str>| {
        let asked = ColourAsked { step: step.map(Into::into), ..asked(&GLAZE) };
        studio.cup_colours(0, &asked).unwrap().face.seen[0]
    };
    let (on_white, on_glaze) = (under(&studio, Some("s2")), under(&studio, Some("s3")));
    assert_eq!(under(&studio, None), on_white, "what is laid is the white alone");
    // The second lies on what the first looks like.
    let ladder = studio.cup_colours(0, &asked(&GLAZE)).unwrap().face.seen;
    assert!(apart(on_glaze, ladder[1]) < 0.1 && apart(on_glaze, on_white) > 5.0);
    // Of a glaze on a tenth of the picture most of the next knows nothing.
    studio.pictures[0].steps[1].share_of_area = 0.1;
    assert_eq!(under(&studio, Some("s3")), on_white);
    let wrong = ColourAsked { step: Some("s9".into()), ..asked(&GLAZE) };
    assert_eq!(studio.cup_colours(0, &wrong).unwrap_err().place, "step");
}

#[test]
fn a_matte_varnish_veils_darks_and_paint_over_it_is_gloss_again() {
    let mut studio = white();
    studio.pictures[0].steps[0].mix = Mix::one("heavy-pbk9");
    let seen = |studio: &Studio, coats: &[usize]| {
        let picture = &studio.pictures[0];
        let face = picture.face(&studio.tubes(), coats, &picture.ground_inside()).unwrap();
        face.last().unwrap().seen.lab().l
    };
    let finish = studio.material("varnish-matte").unwrap().finish;
    assert_eq!(finish, Some(Finish::Matte));
    let (dark, veiled) = (seen(&studio, &[0]), seen(&studio, &[0, 3]));
    assert!(veiled > dark + 2.0, "{veiled} over {dark}: a matte surface scatters over darks");
    let (over, without) = (seen(&studio, &[0, 3, 0]), seen(&studio, &[0, 0]));
    assert!((over - without).abs() < 1.0, "{over} for {without}");
}

#[test]
fn the_underpainting_is_seen_in_its_lights_and_in_its_darks() {
    let mut studio = white();
    studio.pictures[0].steps[0].kind = StepKind::Underpainting;
    let places = |studio: &Studio| studio.pictures[0].places(&studio.tubes(), &[0, 1, 2]).unwrap();
    let [light, dark] = &places(&studio)[..] else { panic!("lights and darks") };
    assert!(light.value > dark.value && light.seen.len() == 3 && dark.seen.len() == 3);
    assert_ne!(light.seen[0], dark.seen[0]);
    // A glaze over lights shows its colour, over darks hardly.
    let chroma = |s: Swatch| Lab::of(s).a.hypot(Lab::of(s).b);
    assert!(chroma(light.seen[2]) > 2.0 * chroma(dark.seen[2]));
    studio.pictures[0].steps[0].kind = StepKind::Pass;
    assert!(matches!(&places(&studio)[..], [only] if only.value.is_none()), "only the stack");
}

#[test]
fn a_mix_is_found_for_what_a_mix_looks_like() {
    let studio = white();
    // What paint looks like that hides, so that what lies under it does not matter.
    let of = Mix::of(&[("heavy-pw6", 3.0), ("heavy-py42", 1.0)]);
    let wet_film_um = 150.0;
    let cup = ColourAsked { mix: of, wet_film_um, step: None, wanted: None };
    let colour = studio.cup_colours(0, &cup).unwrap().face.seen[1];
    let look = |look| MatchAsked { look, medium: None, wet_film_um, step: None };
    let found = studio.find_mix(0, &look(Look::Colour(colour))).unwrap().found;
    assert!(found[0].apart < 1.5, "{:?}", found[0]);
    assert!(found.is_sorted_by(|a, b| a.apart <= b.apart), "nearest first");
    // A stand-in is never what it stands in for, and a paint that is put away is not offered.
    let mut studio = studio;
    let like = look(Look::Like("heavy-py42".into()));
    let holds = |studio: &Studio, id: &str| {
        let found = studio.find_mix(0, &like).unwrap().found;
        assert!(!found.is_empty());
        found.iter().any(|f| f.mix.iter().any(|part| part.material == id))
    };
    assert!(!holds(&studio, "heavy-py42"));
    let first = studio.find_mix(0, &like).unwrap().found[0].mix[0].material.clone();
    studio.materials.iter_mut().find(|m| m.id == first).unwrap().archived = true;
    assert!(!holds(&studio, &first));
    let refused = |asked| studio.find_mix(0, &asked).unwrap_err().place;
    assert_eq!(refused(look(Look::Like("no-such-jar".into()))), "like");
    assert_eq!(
        refused(MatchAsked { medium: Some("heavy-pw6".into()), ..look(Look::Neutral) }),
        "medium"
    );
    assert_eq!(refused(MatchAsked { wet_film_um: 0.0, ..look(Look::Neutral) }), "wet_film_um");
    studio.materials.retain(|m| m.id == "glazing" || m.id == "heavy-pw6" || m.id == "fluid-pb15");
    studio.pictures[0].steps.truncate(3);
    studio.materials.iter_mut().for_each(|m| m.archived = true);
    assert!(studio.find_mix(0, &look(Look::Neutral)).is_err(), "no paint is left to mix");
}

#[test]
fn a_string_of_values_rises_evenly_from_the_dark_end_to_the_light_one() {
    let studio = white();
    let asked = StringAsked {
        dark: Mix::one("heavy-pbk9"),
        light: Mix::default(),
        count: 5,
        patches: None,
        wet_film_um: 150.0,
        step: None,
    };
    let string = studio.value_string(0, &asked).unwrap();
    let light: Vec<f64> = string.iter().map(|v| v.value.seen.l).collect();
    let steps: Vec<f64> = light.windows(2).map(|w| w[1] - w[0]).collect();
    let even = (light[4] - light[0]) / 4.0;
    assert!(steps.iter().all(|s| (s - even).abs() < 4.0), "{light:?}");
    assert!(string.iter().all(|v| v.reached && v.ml.is_none()));
    // The light end is the lightest paint of the shelf where none is said.
    assert_eq!(string[4].value.mix[0].material, studio.lightest_paint().unwrap()[0].material);
    // With a reference picture each value comes with how much of it: 150 um on a quarter of 0.2 m2 are
    // 7.5 ml, and 15 % is lost.
    let grey = |l: f64, share| Patch { l, colour: Lab::grey(l).on_screen().0, share, early: false };
    let patches = Some(vec![grey(40.0, 0.75), grey(70.0, 0.25)]);
    let string = studio.value_string(0, &StringAsked { patches, ..asked.clone() }).unwrap();
    assert!((string[1].ml.unwrap() - 7.5 / 0.85).abs() < 1e-9);
    assert!(string.iter().all(|v| (v.value.seen.l - v.value.wanted).abs() < 2.0));
    let field = |wrong: StringAsked| studio.value_string(0, &wrong).unwrap_err().place;
    assert_eq!(field(StringAsked { count: 2, ..asked.clone() }), "count");
    assert_eq!(field(StringAsked { dark: Mix::one("no-such-jar"), ..asked.clone() }), "dark");
    assert_eq!(field(StringAsked { light: Mix::one("no-such-jar"), ..asked.clone() }), "light");
    assert_eq!(field(StringAsked { wet_film_um: -1.0, ..asked }), "wet_film_um");
}
