//! What went wrong with paint, and what is planned because of it.

use crate::mix::{Material, MaterialKind, Mix};
use crate::picture::{
    Need, PaintTrouble, Picture, Step, StepKind, Touch, TouchTest, WIPED_UM, What, meet,
};
use crate::quantity::{Checked, Fault, MOST_LETTERS};
use crate::studio::{Look, MatchAsked, Studio};
use chrono::Duration;

/// Share of the picture that a mend covers [-]. [practice]
const MEND_SHARE: f64 = 0.1;
/// Minutes that one takes [min]. [practice]
const MEND_MIN: f64 = 20.0;
/// How long before the coat that lifted it the one below was found tacky [s]. [practice]
const JUST_BEFORE_S: i64 = 1;

/// Changes what is planned after trouble with coat `i`.
pub(super) fn mend(
    studio: &mut Studio,
    p: usize,
    (i, trouble): (usize, PaintTrouble),
    said: &mut Vec<String>,
) -> Checked {
    let step = studio.pictures[p].steps[i].clone();
    let (title, plain) = (step.called(), step.title().to_owned());
    if step.kind.seals() {
        let why = format!("{title} seals: what goes wrong with it is said on its bench sheet");
        return Err(Fault::new("step", why));
    }
    said.push(trouble.at_once().to_owned());
    let name = |what: &str| Some(format!("{what}: {plain}").chars().take(MOST_LETTERS).collect());
    let small = |kind: StepKind, of: &Step| Step {
        kind,
        share_of_area: MEND_SHARE.min(of.share_of_area),
        hands_on_min: MEND_MIN,
        ..of.clone()
    };
    match trouble {
        PaintTrouble::Lifted => {
            let below = below(&studio.pictures[p], i);
            // Below the first coat there is nothing but the ground.
            let (called, below) = match below {
                Some(n) => ("Mend the coat below", studio.pictures[p].steps[n].clone()),
                None => (
                    "Mend the ground",
                    studio.usual_step(&studio.pictures[p], StepKind::Ground, ""),
                ),
            };
            let with =
                if below.kind == StepKind::Ground { "primer" } else { "the mix of the coat below" };
            let picture = &mut studio.pictures[p];
            if let Some(test) = lifted_test(picture, i)
                && !picture.tests.contains(&test)
            {
                picture.tests.push(test);
                picture.tests.sort();
                let below = below.called();
                said.push(format!(
                    "{below} was still tacky when it was laid: kept as a touch test."
                ));
            }
            let mend = Step {
                name: name(called),
                needs: Some(Need::DryThrough),
                ..small(StepKind::Correction, &below)
            };
            next(picture, i, mend);
            said.push(format!("A mend with {with} is planned, when it is dry through."));
        }
        PaintTrouble::Torn => {
            let mend = Step { name: name("Thin correction"), ..small(StepKind::Correction, &step) };
            next(&mut studio.pictures[p], i, mend);
            said.push("A thin correction is planned, when it may be painted over.".into());
            said.push("Lay the next one in smaller areas, or with a slower medium.".into());
        }
        PaintTrouble::Spots => {
            if to_come(&studio.pictures[p], i).is_empty() {
                next(&mut studio.pictures[p], i, step);
                said.push(format!("{title} is planned once more: it covers them."));
            } else {
                said.push("The next coat goes over them when this one may be painted over.".into());
            }
        }
        PaintTrouble::TooLight if step.kind.is_glaze() => {
            next(&mut studio.pictures[p], i, step);
            said.push(format!("{title} is planned once more: it deepens it."));
        }
        PaintTrouble::TooLight => {
            let glaze = Step {
                name: name("Glaze, deeper"),
                mix: studio.glaze_of(&step.mix),
                share_of_area: step.share_of_area,
                section: step.section.clone(),
                ..studio.usual_step(&studio.pictures[p], StepKind::Glaze, "")
            };
            next(&mut studio.pictures[p], i, glaze);
            said.push("A glaze of the same colour is planned, when it may be painted over.".into());
        }
        PaintTrouble::Streaks => {
            // A thinner film would set sooner, and streak more.
            said.push("Mix the next one with a knife until no streak shows.".into());
            said.push("More medium or a slower one, and smaller areas, keep it open.".into());
        }
        PaintTrouble::Cloudy => {
            // By the law of the picture, as long as the entry stands.
            if let Some(n) = to_come(&studio.pictures[p], i).first() {
                let title = studio.pictures[p].steps[*n].called();
                said.push(format!("{title} waits until this coat is dry right through."));
            }
        }
        PaintTrouble::TooDark | PaintTrouble::WrongCast => correct(studio, p, (i, trouble), said)?,
        PaintTrouble::Dust => {
            let sand = Step {
                name: name("Take the dust off"),
                wet_film_um: None,
                mix: Mix::default(),
                tub: None,
                ..small(StepKind::Sanding, &step)
            };
            next(&mut studio.pictures[p], i, sand);
            said.push(
                "Taking it off with fine paper is planned, when the coat is dry through.".into(),
            );
        }
    }
    Ok(())
}

/// Plans the coat that corrects a colour: a glaze against the cast, a scumble of the opposite in value.
fn correct(
    studio: &mut Studio,
    p: usize,
    (i, trouble): (usize, PaintTrouble),
    said: &mut Vec<String>,
) -> Checked {
    let kind = if trouble == PaintTrouble::TooDark { StepKind::Scumble } else { StepKind::Glaze };
    let step = studio.pictures[p].steps[i].clone();
    let usual = Step::usual("", kind);
    let wet_film_um = usual.wet_film_um.unwrap_or(WIPED_UM);
    let clear = |m: &&Material| {
        m.kind == MaterialKind::Medium && !m.archived && m.composition.solids() > 0.0
    };
    let used =
        step.mix.iter().filter_map(|part| studio.material(&part.material)).find(|m| clear(m));
    let medium = used.or_else(|| studio.materials.iter().find(clear)).map(|m| m.id.clone());
    let asked = MatchAsked { look: Look::Neutral, medium, wet_film_um, step: None };
    let mix = if kind == StepKind::Glaze {
        studio.find_mix(p, &asked).ok().and_then(|m| m.found.into_iter().next()).map(|f| f.mix)
    } else {
        studio.lightest_paint()
    };
    let (mix, found) = mix.map_or_else(|| (step.mix.clone(), false), |mix| (mix, true));
    let name = if kind == StepKind::Glaze { "Glaze against the cast" } else { "Scumble, lighter" };
    let (share_of_area, section) = (step.share_of_area, step.section.clone());
    let new = Step { name: Some(name.into()), mix, share_of_area, section, ..usual };
    next(&mut studio.pictures[p], i, new);
    let kept = if found { "Its cup is a beginning" } else { "Mix it" };
    said.push(format!("“{name}” is planned. {kept}: try it on a swatch first."));
    Ok(())
}

/// The coat right below coat `i`.
fn below(picture: &Picture, i: usize) -> Option<usize> {
    let (since, place) = (picture.steps[i].laid_at?, picture.lies_at(i));
    let coats = picture.steps.iter().enumerate();
    coats
        .filter(|(n, s)| s.wet_film_um.is_some() && meet(place, picture.lies_at(*n)))
        .filter(|(_, s)| s.laid_at.is_some_and(|at| at < since))
        .max_by_key(|(_, s)| s.laid_at)
        .map(|(n, _)| n)
}

/// That coat `i` lifted the one below is a touch test of that one: it was tacky.
pub(super) fn lifted_test(picture: &Picture, i: usize) -> Option<TouchTest> {
    let below = &picture.steps[below(picture, i)?];
    let at = picture.steps[i].laid_at? - Duration::seconds(JUST_BEFORE_S);
    let on = below.laid_at.is_some_and(|laid| laid < at);
    on.then(|| TouchTest { at, step: below.id.clone(), felt: Touch::Tacky })
}

/// Coats that are still to come after step `i`, in order.
fn to_come(picture: &Picture, i: usize) -> Vec<usize> {
    let steps = picture.steps.iter().enumerate().skip(i + 1);
    steps.filter(|(_, s)| s.laid_at.is_none() && s.wet_film_um.is_some()).map(|(n, _)| n).collect()
}

/// The step still to come that was planned because `what` happened to coat `i`, if there is one as it was planned.
pub(super) fn planned_for(studio: &Studio, p: usize, (i, what): (usize, &What)) -> Option<usize> {
    let picture = &studio.pictures[p];
    let coat = &picture.steps[i];
    let planned = match what {
        What::WipedOff { .. } => fresh(coat.clone()),
        // It was planned once more where nothing else was to come.
        What::Trouble(PaintTrouble::Spots) if to_come(picture, i).len() == 1 => fresh(coat.clone()),
        What::Trouble(PaintTrouble::Spots) => return None,
        What::Trouble(trouble) => {
            let mut again = studio.clone();
            mend(&mut again, p, (i, *trouble), &mut Vec::new()).ok()?;
            let new = |s: &&Step| picture.place_of(&s.id).is_none();
            again.pictures[p].steps.iter().find(new)?.clone()
        }
        _ => return None,
    };
    let same = |s: &Step| {
        let planned = Step { id: s.id.clone(), after: s.after.clone(), ..planned.clone() };
        s.laid_at.is_none() && planned == *s
    };
    (i + 1..picture.steps.len()).find(|n| same(&picture.steps[*n]))
}

/// `step` as it is when it is planned anew.
fn fresh(step: Step) -> Step {
    Step {
        laid_at: None,
        pinned_at: None,
        not_before: None,
        cup_g: None,
        slowed: None,
        earliest_gap_min: None,
        ..step
    }
}

/// Plans `step` right after the last thing done on or after step `i`; what was to stand on that stands on it.
pub(super) fn next(picture: &mut Picture, i: usize, step: Step) {
    let last = picture.steps.iter().rposition(|s| s.laid_at.is_some()).map_or(i, |n| n.max(i));
    let Some(id) = picture.free_names("s").next() else { return };
    let on = picture.steps[last].id.clone();
    let open: Vec<usize> =
        (0..picture.steps.len()).filter(|n| picture.steps[*n].laid_at.is_none()).collect();
    for n in open {
        for below in picture.steps[n].after.iter_mut().flatten().filter(|b| **b == on) {
            below.clone_from(&id);
        }
    }
    let after = picture.steps[last].after.is_some().then(|| vec![on]);
    let new = Step { id, after, ..fresh(step) };
    picture.put(last + 1, [new]);
}
