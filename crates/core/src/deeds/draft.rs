//! Drafts: changes that are tried on a copy of the studio, and kept together or not at all.

use super::edit::{check_edited, save_settings};
use super::touch::tests_left;
use crate::air::RoomChange;
use crate::picture::Picture;
use crate::quantity::{Checked, Fault};
use crate::studio::Studio;
use crate::time::seconds;
use chrono::{DateTime, Utc};

/// Changes that are tried.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Draft {
    /// Other settings; of it only hours, places, schools and the order of work count.
    pub settings: Option<Studio>,
    /// What is done to the room from now on.
    pub room: Option<RoomChange>,
    /// Other pictures, by their place in the studio.
    pub pictures: Vec<(usize, Picture)>,
}

/// `studio` with the changes of `draft` made at `now`.
///
/// # Errors
/// [`Fault`] of the first place in the draft that does not fit.
pub fn drafted(studio: &Studio, draft: &Draft, now: DateTime<Utc>) -> Result<Studio, Fault> {
    let mut after = studio.clone();
    if let Some(settings) = &draft.settings {
        after = save_settings(&after, settings.clone()).map_err(|f| f.within("draft.studio"))?;
    }
    if let Some(room) = &draft.room {
        room.check().map_err(|f| f.within("draft.room"))?;
        after.air = after.air.changed_from(seconds(now), room);
        after.check_air().map_err(|f| f.within("draft.room"))?;
    }
    for (n, (p, picture)) in draft.pictures.iter().enumerate() {
        let base = format!("draft.pictures[{n}]");
        let before = studio
            .pictures
            .get(*p)
            .ok_or_else(|| Fault::new(format!("{base}.id"), "the studio has no such picture"))?;
        // The record of sealing has deeds of its own.
        after.pictures[*p] = Picture {
            id: before.id.clone(),
            seal: before.seal.clone(),
            tests: tests_left(before, picture),
            happened: before.happened.clone(),
            ..picture.clone()
        };
        after.check_picture(*p).map_err(|f| f.within(&format!("{base}.picture")))?;
    }
    Ok(after)
}

/// Holds that a draft may be kept: `after` is `studio` with its changes, `photographs` tells when
/// pictures of a picture were taken.
///
/// # Errors
/// [`Fault`] of the first place that does not fit.
pub fn keep_draft(
    studio: &Studio,
    after: &Studio,
    draft: &Draft,
    photographs: impl Fn(usize) -> Vec<DateTime<Utc>>,
    now: DateTime<Utc>,
) -> Checked {
    for (p, _) in &draft.pictures {
        check_edited(&studio.pictures[*p], after, *p, (&photographs(*p), now))?;
    }
    after.check()
}
