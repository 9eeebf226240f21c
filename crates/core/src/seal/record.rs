//! The record sheet of a picture: what a buyer or a conservator wants to know of it.

use super::after::removal;

use crate::mix::{Material, Swatch};
use crate::picture::{Step, ground_word};
use crate::studio::Studio;
use chrono::{DateTime, Utc};

/// The record sheet of one picture.
#[derive(Debug, Clone, PartialEq)]
pub struct RecordSheet {
    /// The ground in words.
    pub ground: String,
    /// Steps that are not done.
    pub to_come: Vec<String>,
    /// What was done, in order of time.
    pub work: Vec<WorkDone>,
    /// Every material that is in it, by its place on the shelf.
    pub materials: Vec<usize>,
    /// How the varnish comes off.
    pub removal: String,
    /// Coats that were laid although not everything held.
    pub anyway: Vec<Noted>,
    /// Trouble that was found on sealing coats.
    pub troubles: Vec<Noted>,
    /// Findings of the rules that were set aside.
    pub set_aside: Vec<Noted>,
}

/// One step that was done.
#[derive(Debug, Clone, PartialEq)]
pub struct WorkDone {
    /// When.
    pub at: DateTime<Utc>,
    /// What the painter calls it.
    pub title: String,
    /// Whether it seals the picture.
    pub seals: bool,
    /// Wet film [um], when it left one.
    pub wet_film_um: Option<f64>,
    /// What was in the cup, as shares by volume in words.
    pub mix: String,
    /// Its own colour: dry, alone over a white card; when it left a film that can be computed.
    pub colour: Option<Swatch>,
}

/// A dated note.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Noted {
    /// When.
    pub at: DateTime<Utc>,
    /// On which step, as the painter calls it.
    pub on: String,
    /// What.
    pub what: String,
}

/// The sheet of picture `p`.
pub fn record_sheet(studio: &Studio, p: usize) -> RecordSheet {
    let picture = &studio.pictures[p];
    let mut done: Vec<(&Step, DateTime<Utc>)> =
        picture.steps.iter().filter_map(|s| s.laid_at.map(|at| (s, at))).collect();
    done.sort_by_key(|(_, at)| *at);
    let note = |at, on: &str, what: String| {
        let title =
            picture.place_of(on).map_or_else(|| on.to_owned(), |i| picture.steps[i].called());
        Noted { at, on: title.to_owned(), what }
    };
    let used = |m: &Material| {
        done.iter().any(|(s, _)| s.mix.materials(&studio.materials).any(|x| x.id == m.id))
    };
    let (seal, open) = (&picture.seal, picture.steps.iter().filter(|s| s.laid_at.is_none()));
    let tubes = studio.tubes();
    let work = done.iter().map(|(step, at)| WorkDone {
        colour: step.own_colour(&tubes).ok().flatten(),
        at: *at,
        title: step.called(),
        seals: step.kind.seals(),
        wet_film_um: step.wet_film_um.filter(|_| step.kind.leaves_film()),
        mix: mix_said(studio, step),
    });
    let anyway = seal.anyway.iter().map(|a| {
        let what = format!("Laid although not: {}. Reason: {}", a.against.join("; "), a.reason);
        note(a.at, &a.step, what)
    });
    let troubles = seal.troubles.iter();
    let aside = picture.set_aside.iter();
    RecordSheet {
        ground: ground_word(picture.ground.absorbs_um),
        to_come: open.map(|s| s.called()).collect(),
        work: work.collect(),
        materials: (0..studio.materials.len()).filter(|m| used(&studio.materials[*m])).collect(),
        removal: removal(studio, picture).to_string(),
        anyway: anyway.collect(),
        troubles: troubles
            .map(|t| note(t.at, &t.step, t.trouble.looks_like().to_owned()))
            .collect(),
        set_aside: aside
            .map(|a| note(a.at, &a.step, format!("{} set aside. Reason: {}", a.rule, a.reason)))
            .collect(),
    }
}

/// The mix of a step as shares by volume.
pub fn mix_said(studio: &Studio, step: &Step) -> String {
    let parts = step.mix.materials(&studio.materials).map(|material| {
        let percent = step.mix.share_of(&material.id) * 100.0;
        format!("{percent:.0} % {}", material.name)
    });
    parts.collect::<Vec<_>>().join(", ")
}
