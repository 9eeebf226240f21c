//! Editing: pictures, settings and the shelf as a whole.

use super::log::{CLOCKS_APART_S, check_tub};
use super::touch::tests_left;
use crate::picture::Picture;
use crate::quantity::{Checked, Fault};
use crate::seal::{against, closed_gate};
use crate::studio::Studio;
use crate::studio::check::MOST_PICTURES;
use chrono::{DateTime, Duration, NaiveDate, Utc};

/// A date that is newly set must not be past; one that has passed meanwhile may stay.
fn check_due(
    studio: &Studio,
    due: Option<NaiveDate>,
    was: Option<NaiveDate>,
    now: DateTime<Utc>,
) -> Checked {
    let today = studio.hours.day(now);
    match due {
        Some(day) if due != was && day < today => {
            let (day, today) = (day.format("%-d %B %Y"), today.format("%-d %B"));
            Err(Fault::new("due", format!("{day} is in the past; today is {today}")))
        }
        _ => Ok(()),
    }
}

/// Nothing can have been done in the future.
fn check_laid(picture: &Picture, now: DateTime<Utc>) -> Checked {
    let latest = now + Duration::seconds(CLOCKS_APART_S);
    let ahead = picture.steps.iter().position(|s| s.laid_at.is_some_and(|at| at > latest));
    ahead.map_or(Ok(()), |i| {
        let why = format!("{} cannot have been done in the future", picture.steps[i].called());
        Err(Fault::new(format!("steps[{i}].laid_at"), why))
    })
}

/// Holds that no coat was newly laid before its tub was mixed.
fn check_tubs(before: &Picture, studio: &Studio, p: usize) -> Checked {
    for (i, step) in studio.pictures[p].steps.iter().enumerate() {
        let known = before.steps.iter().any(|s| s.id == step.id && s.laid_at == step.laid_at);
        if !known {
            check_tub(studio, step)
                .map_err(|why| Fault::new(format!("steps[{i}].laid_at"), why))?;
        }
    }
    Ok(())
}

/// Holds that no sealing coat of picture `p` was newly laid through a closed gate.
fn check_gates(
    before: &Picture,
    studio: &Studio,
    p: usize,
    photographs: &[DateTime<Utc>],
) -> Checked {
    let after = &studio.pictures[p];
    for (i, step) in after.steps.iter().enumerate().filter(|(_, s)| s.kind.seals()) {
        let Some(at) = step.laid_at else { continue };
        if before.steps.iter().any(|s| s.id == step.id && s.kind.seals() && s.laid_at.is_some()) {
            continue;
        }
        let against = against(studio, (p, i), photographs, at)?;
        if !against.is_empty() {
            let why = format!("{}, where the coat is logged", closed_gate(&against));
            return Err(Fault::new(format!("steps[{i}].laid_at"), why));
        }
    }
    Ok(())
}

/// Holds what a picture must be that was `before` and is now that of `studio`.
pub(super) fn check_edited(
    before: &Picture,
    studio: &Studio,
    p: usize,
    (photographs, now): (&[DateTime<Utc>], DateTime<Utc>),
) -> Checked {
    studio.check_picture(p)?;
    check_due(studio, studio.pictures[p].due, before.due, now)?;
    check_laid(&studio.pictures[p], now)?;
    check_tubs(before, studio, p)?;
    check_gates(before, studio, p, photographs)
}

/// Replaces picture `p` of `studio` by `picture`. What was seen and decided on the way to the seal
/// stays: it has deeds of its own.
///
/// # Errors
/// [`Fault`] of the first place that does not fit, or that no deed may bring about.
pub fn edit_picture(
    studio: &Studio,
    p: usize,
    picture: Picture,
    photographs: &[DateTime<Utc>],
    now: DateTime<Utc>,
) -> Result<Picture, Fault> {
    let before = &studio.pictures[p];
    let mut after = studio.clone();
    after.pictures[p] = Picture {
        id: before.id.clone(),
        seal: before.seal.clone(),
        tests: tests_left(before, &picture),
        happened: before.happened.clone(),
        ..picture
    };
    check_edited(before, &after, p, (photographs, now))?;
    Ok(after.pictures.swap_remove(p))
}

/// Holds that a studio of `pictures` pictures can take one more and still be exported and imported.
///
/// # Errors
/// [`Fault`] when it cannot.
pub fn has_place(pictures: usize) -> Checked {
    if pictures >= MOST_PICTURES {
        return Err(Fault::new("", format!("a studio holds at most {MOST_PICTURES} pictures")));
    }
    Ok(())
}

/// Begins `picture` in `studio`.
///
/// # Errors
/// [`Fault`] of the first place that does not fit.
pub fn begin_picture(
    studio: &Studio,
    picture: Picture,
    now: DateTime<Utc>,
) -> Result<Picture, Fault> {
    has_place(studio.pictures.len())?;
    let nothing = Picture::new(picture.id.clone(), (picture.width_cm, picture.height_cm), vec![]);
    let mut after = studio.clone();
    after.pictures.push(picture);
    let p = after.pictures.len() - 1;
    check_edited(&nothing, &after, p, (&[], now))?;
    Ok(after.pictures.swap_remove(p))
}

/// `studio` with the settings (hours, places, schools, order of work) of `settings`; its air, shelf
/// and pictures stay.
///
/// # Errors
/// [`Fault`] of the first place that does not fit.
pub fn save_settings(studio: &Studio, settings: Studio) -> Result<Studio, Fault> {
    let after = Studio {
        air: studio.air.clone(),
        room: studio.room,
        habit: studio.habit,
        materials: studio.materials.clone(),
        tubs: studio.tubs.clone(),
        ways: studio.ways.clone(),
        pictures: studio.pictures.clone(),
        ..settings
    };
    after.check_settings()?;
    Ok(after)
}

/// `studio` with the shelf (materials, tubs, ways) of `shelf`.
///
/// # Errors
/// [`Fault`] of the first place that does not fit, also in a picture that leans on the shelf.
pub fn put_shelf(studio: &Studio, shelf: Studio) -> Result<Studio, Fault> {
    let after =
        Studio { materials: shelf.materials, tubs: shelf.tubs, ways: shelf.ways, ..studio.clone() };
    after.check_shelf()?;
    Ok(after)
}
