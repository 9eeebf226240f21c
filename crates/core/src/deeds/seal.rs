//! On the way to the seal: a varnish settled on, the surface looked over, trouble found.

use super::Deed;
use crate::picture::{Picture, SealTrouble, TroubleFound, VarnishChoice};
use crate::quantity::Fault;
use crate::seal::{VarnishError, with_varnish};
use crate::studio::Studio;
use chrono::{DateTime, Utc};

fn at_choice(error: &VarnishError) -> Fault {
    Fault::new(error.place(), error).within("choice")
}

/// Settles on a varnish for picture `p`: its coats take the place of the sealing coats to come.
///
/// # Errors
/// [`Fault`] naming the field of the choice that does not fit the picture or the shelf.
pub fn settle_varnish(studio: &Studio, p: usize, choice: &VarnishChoice) -> Result<Deed, Fault> {
    let picture = &studio.pictures[p];
    let plan = choice.plan(studio, picture).map_err(|e| at_choice(&e))?;
    let picture = with_varnish(picture, choice, &plan);
    sound(studio, p, picture, "settle on a varnish".into())
}

/// Says that the surface was dusted and looked over at `now`.
pub fn inspect(picture: &Picture, now: DateTime<Utc>) -> Deed {
    let mut picture = picture.clone();
    picture.seal.inspected_at = Some(now);
    Deed { picture, label: "look the surface over".into() }
}

/// Keeps trouble found at `now` on sealing coat `step` of picture `p`, and changes the coats to come
/// as it asks; what was changed is said in words.
///
/// # Errors
/// [`Fault`] when there is no such coat, or a coat that is wanted cannot be planned.
pub fn find_trouble(
    studio: &Studio,
    p: usize,
    (step, trouble): (&str, SealTrouble),
    now: DateTime<Utc>,
) -> Result<(Deed, Vec<String>), Fault> {
    let picture = &studio.pictures[p];
    let sealed = |i: &usize| picture.steps[*i].laid_at.is_some() && picture.steps[*i].kind.seals();
    let i = picture.place_of(step).filter(sealed).ok_or_else(|| {
        let why = format!("the picture has no sealing coat \"{step}\" that is laid");
        Fault::new("step", why)
    })?;
    let (mut mended, changed) =
        trouble.mend(studio, picture, i).map_err(|e| Fault::new("trouble", e))?;
    mended.seal.troubles.push(TroubleFound { at: now, step: step.to_owned(), trouble });
    let label = format!("find a {} on the varnish", trouble.word());
    Ok((sound(studio, p, mended, label)?, changed))
}

fn sound(studio: &Studio, p: usize, picture: Picture, label: String) -> Result<Deed, Fault> {
    let mut after = studio.clone();
    after.pictures[p] = picture;
    after.check_picture(p)?;
    Ok(Deed { picture: after.pictures.swap_remove(p), label })
}
