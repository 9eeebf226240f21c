//! What happened beside the coats: entered, put right, taken back. What changes a coat changes its film;
//! what went wrong changes what is planned after it.

use super::Deed;
use super::log::CLOCKS_APART_S;
use super::mend::{lifted_test, mend, next, planned_for};
use crate::colour::{Optics, Untold, usual_cards};
use crate::film::{FilmState, Grid};
use crate::mix::{Drawdown, Material, Mix, Swatch, SwatchSeen};
use crate::picture::{Happening, PaintTrouble, Picture, WIPED_UM, What, meet};
use crate::quantity::{Checked, Fault, WetFilm, at_most, check_line, check_moment, check_text};
use crate::readiness::{Bed, history};
use crate::studio::Studio;
use crate::studio::check::MOST_HAPPENED;
use crate::time;
use chrono::{DateTime, Duration, Utc};

/// What a painter says happened. What the film or the colours were is found out here.
#[derive(Debug, Clone, PartialEq)]
pub struct Told {
    /// When.
    pub at: DateTime<Utc>,
    /// The step it is about.
    pub step: Option<String>,
    /// The material it is about.
    pub material: Option<String>,
    /// Where, in the painter's words.
    pub place: String,
    /// What the painter writes.
    pub words: String,
    /// What.
    pub what: ToldWhat,
}

/// What is said to have happened.
#[derive(Debug, Clone, PartialEq)]
pub enum ToldWhat {
    /// A note.
    Noted,
    /// The palette was misted.
    Misted,
    /// The coat was wiped off.
    WipedOff,
    /// It was sanded: how deep [um, dry], through to the coat below when not said.
    Sanded(Option<f64>),
    /// Something went wrong.
    Trouble(PaintTrouble),
    /// The painter worked in the studio until then.
    Session(DateTime<Utc>),
    /// A swatch was made of a mix, and read.
    Swatch {
        /// The mix.
        mix: Mix,
        /// Its wet film [um].
        wet_film_um: f64,
        /// What was seen over the white and the black card.
        seen: (Swatch, Swatch),
    },
}

/// Keeps what `told` says happened on picture `p`, and changes what it changes; what to do now and what was
/// changed is said in sentences.
///
/// # Errors
/// [`Fault`] naming the field of `told` that does not fit.
pub fn happen(
    studio: &Studio,
    p: usize,
    told: &Told,
    now: DateTime<Utc>,
) -> Result<(Deed, Happening, Vec<String>), Fault> {
    let mut after = studio.clone();
    let at = told.step.as_deref().map(|id| studio.pictures[p].step_called(id)).transpose()?;
    check_told(studio, p, (told, at), now)?;
    let mut said = Vec::new();
    let what = match &told.what {
        ToldWhat::Noted => What::Noted,
        ToldWhat::Misted => What::Misted,
        ToldWhat::WipedOff => wipe(&mut after, p, (laid(studio, p, at)?, told.at), &mut said)?,
        ToldWhat::Sanded(um) => {
            sand(&mut after, p, (laid(studio, p, at)?, told.at, *um), &mut said)?
        }
        ToldWhat::Trouble(trouble) => {
            mend(&mut after, p, (laid(studio, p, at)?, *trouble), &mut said)?;
            What::Trouble(*trouble)
        }
        ToldWhat::Session(_) => {
            return Err(Fault::new(
                "what",
                "a session is entered for the studio, not for a picture",
            ));
        }
        ToldWhat::Swatch { mix, wet_film_um, seen } => {
            What::Swatch(swatch(studio, (mix, *wet_film_um, *seen))?)
        }
    };
    let new = Happening {
        at: told.at,
        step: told.step.clone(),
        material: told.material.clone(),
        place: told.place.clone(),
        words: told.words.clone(),
        what,
    };
    let picture = &mut after.pictures[p];
    let twice = |old: &Happening| {
        (old.at, &old.words, &old.place, &old.material)
            == (new.at, &new.words, &new.place, &new.material)
            && old.is_of(&new)
    };
    if picture.happened.iter().any(twice) {
        return Err(Fault::new("at", "that very entry is kept already"));
    }
    let label = match at.map(|i| studio.pictures[p].steps[i].called()) {
        Some(title) => format!("{} {title}", verb(&new.what)),
        None => verb(&new.what).to_owned(),
    };
    picture.happened.push(new.clone());
    picture.happened.sort_by_key(|h| h.at);
    after.check_picture(p)?;
    Ok((Deed { picture: after.pictures.swap_remove(p), label }, new, said))
}

/// Keeps all of `rows` (a picture and what is told of it), one after the other; each that cannot be kept says
/// why, and the others stand. The studio after them, and what became of each row.
pub fn happen_all(
    studio: &Studio,
    rows: &[(usize, Told)],
    now: DateTime<Utc>,
) -> (Studio, Vec<Result<(), Fault>>) {
    let mut after = studio.clone();
    let kept = rows
        .iter()
        .map(|(p, told)| {
            let (deed, _, _) = happen(&after, *p, told, now)?;
            after.pictures[*p] = deed.picture;
            Ok(())
        })
        .collect();
    (after, kept)
}

/// Puts the words, the place and the time `instead` in the stead of those of entry `n` of picture `p`, or
/// takes the entry back: what its coat was counts again, and a step that was planned because of it goes, unless it was
/// done or changed since.
///
/// # Errors
/// [`Fault`] when there is no such entry, or naming the field that does not fit.
pub fn retell(
    studio: &Studio,
    p: usize,
    (old, instead): (&Happening, Option<&Told>),
    now: DateTime<Utc>,
) -> Result<Deed, Fault> {
    let mut after = studio.clone();
    let picture = &mut after.pictures[p];
    let none = || Fault::new("entry", "that entry is not kept any more");
    let n = picture.happened.iter().position(|h| h == old).ok_or_else(none)?;
    let label = if let Some(told) = instead {
        check_told(studio, p, (told, None), now)?;
        let entry = &mut picture.happened[n];
        entry.at = told.at;
        entry.place.clone_from(&told.place);
        entry.words.clone_from(&told.words);
        entry.material.clone_from(&told.material);
        picture.happened.sort_by_key(|h| h.at);
        "put an entry right".to_owned()
    } else {
        let gone = picture.happened.remove(n);
        let step = gone.step.as_deref().and_then(|id| picture.place_of(id));
        match (&gone.what, step) {
            (What::WipedOff { was_um } | What::Sanded { was_um, .. }, Some(i)) => {
                // An older change of the coat stands in what was before this one.
                picture.steps[i].wet_film_um = Some(*was_um);
            }
            (What::Trouble(PaintTrouble::Lifted), Some(i)) => {
                let told = lifted_test(picture, i);
                picture.tests.retain(|test| Some(test) != told.as_ref());
            }
            _ => {}
        }
        if let Some(planned) = step.and_then(|i| planned_for(&after, p, (i, &gone.what))) {
            after.pictures[p].take_out(planned);
        }
        "take an entry back".to_owned()
    };
    after.check_picture(p)?;
    Ok(Deed { picture: after.pictures.swap_remove(p), label })
}

const fn verb(what: &What) -> &'static str {
    match what {
        What::Noted => "note on",
        What::Misted => "mist the palette for",
        What::WipedOff { .. } => "wipe off",
        What::Sanded { .. } => "sand",
        What::Trouble(_) => "find trouble with",
        What::Swatch(_) => "keep a swatch of",
        What::Session { .. } => "enter a session of",
    }
}

fn check_told(
    studio: &Studio,
    p: usize,
    (told, step): (&Told, Option<usize>),
    now: DateTime<Utc>,
) -> Checked {
    let picture = &studio.pictures[p];
    check_said(studio, told, now)?;
    at_most("happened", picture.happened.len(), MOST_HAPPENED, "entries")?;
    let coat = matches!(told.what, ToldWhat::WipedOff | ToldWhat::Sanded(_) | ToldWhat::Trouble(_));
    let (Some(i), true) = (step, coat) else { return Ok(()) };
    let laid = picture.steps[i].laid_at;
    if laid.is_some_and(|laid| told.at < laid) {
        let why = format!("{} was not on yet at that time", picture.steps[i].called());
        return Err(Fault::new("at", why));
    }
    Ok(())
}

/// What holds for every entry, whatever it is about.
pub(super) fn check_said(studio: &Studio, told: &Told, now: DateTime<Utc>) -> Checked {
    check_moment(told.at).map_err(|e| Fault::new("at", e))?;
    if told.at > now + Duration::seconds(CLOCKS_APART_S) {
        return Err(Fault::new(
            "at",
            "that is still to come: nothing can have happened in the future",
        ));
    }
    if !told.place.is_empty() {
        check_line("place", &told.place)?;
    }
    check_text("words", &told.words)?;
    if told.what == ToldWhat::Noted && told.words.trim().is_empty() {
        return Err(Fault::new("words", "write something: a note without words says nothing"));
    }
    if let Some(id) = told.material.as_deref().filter(|id| studio.material(id).is_none()) {
        return Err(Fault::new("material", format!("no material \"{id}\" is on the shelf")));
    }
    Ok(())
}

/// The coat that an entry is about: one that is on.
fn laid(studio: &Studio, p: usize, step: Option<usize>) -> Result<usize, Fault> {
    let steps = &studio.pictures[p].steps;
    let on = |i: &usize| steps[*i].laid_at.is_some() && steps[*i].wet_film_um.is_some();
    let i = step.filter(on);
    i.ok_or_else(|| Fault::new("step", "say which coat: one that is on"))
}

/// The first coat that was laid on coat `i`.
fn over(picture: &Picture, i: usize) -> Option<usize> {
    let (since, place) = (picture.steps[i].laid_at?, picture.lies_at(i));
    let coats = picture.steps.iter().enumerate();
    coats
        .filter(|(n, _)| meet(place, picture.lies_at(*n)))
        .filter(|(n, s)| {
            *n != i && s.wet_film_um.is_some() && s.laid_at.is_some_and(|at| at > since)
        })
        .min_by_key(|(_, s)| s.laid_at)
        .map(|(n, _)| n)
}

/// When coat `i` reaches `state`, as if nothing lay on it.
fn reaches(
    studio: &Studio,
    p: usize,
    (i, state): (usize, FilmState),
) -> Result<Option<DateTime<Utc>>, Fault> {
    let picture = &studio.pictures[p];
    let until = picture.steps[i].laid_at;
    let mut done = history(picture, std::iter::empty());
    done.retain(|(at, n)| Some(*at) < until || *n == i);
    Ok(Bed::after(studio, p, Grid::PLANNING, &done)?.reaches_under(studio, (i, state))?)
}

/// Takes coat `i` off: nothing of it counts but a veil, and it is planned again.
fn wipe(
    studio: &mut Studio,
    p: usize,
    (i, at): (usize, DateTime<Utc>),
    said: &mut Vec<String>,
) -> Result<What, Fault> {
    let picture = &studio.pictures[p];
    let title = picture.steps[i].called();
    if let Some(above) = over(picture, i) {
        let why = format!("{} lies on it since", picture.steps[above].called());
        return Err(Fault::new("step", why));
    }
    if let Some(dry) = reaches(studio, p, (i, FilmState::TouchDry))?.filter(|dry| *dry < at) {
        let why = format!(
            "{title} was dry to the touch by {}: what is dry is sanded or painted over",
            time::told(dry, studio.hours.zone())
        );
        return Err(Fault::new("at", why));
    }
    let picture = &mut studio.pictures[p];
    let was_um = picture.steps[i].wet_film_um.unwrap_or_default();
    next(picture, i, picture.steps[i].clone());
    picture.steps[i].wet_film_um = Some(WIPED_UM.min(was_um));
    said.push(format!(
        "Nothing of {title} counts but a veil of {WIPED_UM:.0} µm, which the coat below keeps a trace of."
    ));
    said.push(format!("{title} is planned again."));
    Ok(What::WipedOff { was_um })
}

/// Sands coat `i`, dry film `um` deep or through to the coat below.
fn sand(
    studio: &mut Studio,
    p: usize,
    (i, at, dry_um): (usize, DateTime<Utc>, Option<f64>),
    said: &mut Vec<String>,
) -> Result<What, Fault> {
    let step = &studio.pictures[p].steps[i];
    let title = step.called();
    if let Some(above) = over(&studio.pictures[p], i) {
        let why = format!("{} lies on it: sand that one", studio.pictures[p].steps[above].called());
        return Err(Fault::new("step", why));
    }
    let was_um = step.wet_film_um.unwrap_or_default();
    let solids = step.mix.composition(&studio.materials).map(|c| c.solids());
    let solids = solids.map_err(|e| Fault::new("step", e))?;
    let there = was_um * solids;
    let left = match dry_um {
        None => 0.0,
        Some(um) if um.is_nan() || um <= 0.0 => {
            return Err(Fault::new("dry_um", "say how deep in µm, more than nothing"));
        }
        Some(um) if um > there => {
            let why = format!(
                "only {there:.0} µm of {title} are there when dry: say less, or through to the coat below"
            );
            return Err(Fault::new("dry_um", why));
        }
        Some(um) => there - um,
    };
    match reaches(studio, p, (i, FilmState::DryThrough))? {
        Some(dry) if dry <= at => {}
        Some(dry) => said.push(format!(
            "It was not dry through before {}: soft paint rolls up and clogs the paper. Look it over.",
            time::told(dry, studio.hours.zone())
        )),
        None => said.push("It does not dry through: soft paint rolls up under the paper.".into()),
    }
    let step = &mut studio.pictures[p].steps[i];
    step.wet_film_um = Some((left / solids).max(WetFilm::RANGE.min));
    said.push(match dry_um {
        Some(um) => {
            format!("{title} counts as {um:.0} µm thinner. Dust it off before the next coat.")
        }
        None => {
            format!("{title} is off, down to the coat below. Dust it off before the next coat.")
        }
    });
    if step.kind.seals() {
        said.push("The seal is broken there: seal it again before varnish goes on.".into());
    }
    let picture = &studio.pictures[p];
    let place = picture.lies_at(i);
    // Paper reaches through a coat to all that lies under it, and to nothing of another section.
    let toxic = picture
        .steps
        .iter()
        .enumerate()
        .filter(|(n, s)| {
            meet(place, picture.lies_at(*n)) && s.laid_at.is_some_and(|laid| laid <= at)
        })
        .flat_map(|(_, s)| s.mix.materials(&studio.materials).filter_map(Material::toxic_pigment))
        .collect::<std::collections::BTreeSet<_>>();
    let toxic: Vec<String> = toxic.into_iter().collect();
    said.push(if toxic.is_empty() {
        "Sand wet or with a dust mask, and wipe the dust up damp.".to_owned()
    } else {
        format!(
            "{} lie there: their dust is poisonous. Never sand them dry; read the safety data \
             sheets.",
            toxic.join(", ")
        )
    });
    Ok(What::Sanded { dry_um, was_um })
}

/// A swatch beside what is predicted for it.
fn swatch(
    studio: &Studio,
    (mix, wet_film_um, seen): (&Mix, f64, (Swatch, Swatch)),
) -> Result<SwatchSeen, Fault> {
    let film = WetFilm::try_new(wet_film_um).map_err(|e| Fault::new("wet_film_um", e))?.get();
    let tubes = studio.tubes();
    let mixed = tubes.mixed(mix).map_err(|e| Fault::new("mix", e))?;
    let read =
        Drawdown { over_white: seen.0, over_black: seen.1, ..Drawdown::usual(seen.0, seen.1) };
    Optics::told_by(&read).map(|_| ()).or_else(|why| match why {
        // What hides at once still says its colour.
        Untold::Equal => Ok(()),
        why => Err(Fault::new("over_white", why)),
    })?;
    let (white, black) = usual_cards();
    let predicted = [white, black].map(|card| mixed.laid(card, film).seen().swatch());
    let predicted = (predicted[0], predicted[1]);
    Ok(SwatchSeen { mix: mix.clone(), wet_film_um: film, predicted, seen })
}
