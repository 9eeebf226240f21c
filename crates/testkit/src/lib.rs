//! What tests of core, store and formats share: builders of small studios, and one full random
//! studio. A test that wants less changes what a builder gives.
#![allow(clippy::unwrap_used, reason = "a test ends where something is not as it should be")]

mod full;
pub mod stacks;

pub use full::{full_picture, full_studio};

use chrono::{DateTime, Utc};
use ulvek_core::air::{Air, AirSeries};
use ulvek_core::mix::{Mix, starter_shelf};
use ulvek_core::picture::{Picture, Step, StepKind};
use ulvek_core::studio::{Studio, StudioHours};

/// A moment of January 2027, with microseconds.
pub fn at() -> DateTime<Utc> {
    "2027-01-14T16:34:00.123456Z".parse().unwrap()
}

/// A step of `kind` as it usually is, painted with `material`; without a mix where it leaves no film.
pub fn step(id: &str, kind: StepKind, material: &str) -> Step {
    let mix = if kind.leaves_film() { Mix::one(material) } else { Mix::default() };
    Step { mix, ..Step::usual(id, kind) }
}

/// A picture with one laid glaze.
pub fn picture(id: &str) -> Picture {
    let glaze = Step {
        name: Some("Glaze — première \"bleue\" 🜄".into()),
        mix: Mix::of(&[("glazing", 1.0 / 3.0)]),
        laid_at: Some(at()),
        after: Some(vec![]),
        ..Step::usual("s1", StepKind::Glaze)
    };
    Picture { due: at().date_naive().succ_opt(), ..Picture::new(id, (24.5, 30.0), vec![glaze]) }
}

/// A studio with the starter shelf, no hours, and a reading of its air.
pub fn studio(pictures: Vec<Picture>) -> Studio {
    let air = Air::try_new(20.4, 0.47, 0.15).unwrap();
    let hours = StudioHours::try_new(chrono_tz::Europe::Oslo, vec![], vec![]).unwrap();
    Studio {
        flat_places: 2,
        materials: starter_shelf().unwrap(),
        pictures,
        ..Studio::new("Test room", hours, AirSeries::new(air, vec![(1.5e9, air)]))
    }
}
