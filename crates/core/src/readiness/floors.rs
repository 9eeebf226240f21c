//! Waiting times of the schools: before the first sealing coat, and between sealing coats.

use super::wait::WaitReason;
use crate::mix::MaterialKind;
use crate::picture::{Step, WIPED_UM};
use crate::studio::{Slowed, Studio, Waiting};
use chrono::{DateTime, Duration, Utc};

/// Shortest wait between two varnish coats [min]. [practice] an hour at least
const VARNISH_GAP_MIN: i64 = 60;
/// Shortest wait between two varnish coats. [practice] an hour at least
pub const VARNISH_GAP: Duration = Duration::minutes(VARNISH_GAP_MIN);
/// Shortest wait from a water-borne sealing coat to a solvent varnish over it. [practice] three to
/// four days; three is the floor
pub const SOLVENT_GAP: Duration = Duration::days(3);

/// What was painted below a seal, as far as waiting is concerned: the last paint, and what in all of
/// it makes every school wait longer. The one place that adds it up.
///
/// ```
/// use ulvek_core::readiness::Painted;
/// use ulvek_core::studio::Waiting;
/// assert_eq!(Painted::default().seal_from(Waiting::Brisk), None, "nothing is painted");
/// ```
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Painted {
    last: Option<(DateTime<Utc>, usize)>,
    slowed: Slowed,
}

impl Painted {
    /// Adds step `i` of the picture, done at `at`. What seals is no paint, but what slows the stack in
    /// it counts.
    pub fn add(&mut self, studio: &Studio, (i, step): (usize, &Step), at: DateTime<Utc>) {
        // The veil that is left of a coat that was wiped off makes nobody wait.
        if step.wet_film_um.is_some_and(|um| um <= WIPED_UM) {
            return;
        }
        if step.kind.leaves_film() {
            self.slowed = self.slowed.max(studio.slowed_by(step));
        }
        if step.kind.leaves_film() && !step.kind.seals() {
            self.last = self.last.max(Some((at, i)));
        }
    }

    /// What in it makes every school wait longer.
    pub const fn slowed(&self) -> Slowed {
        self.slowed
    }

    /// When the last paint was laid, and by which step.
    pub const fn last(&self) -> Option<(DateTime<Utc>, usize)> {
        self.last
    }

    /// How long a school waits after the last of it.
    pub fn floor(&self, waiting: Waiting) -> Duration {
        waiting.floor(self.slowed)
    }

    /// From when the school's waiting time is over; `None` when nothing is painted.
    pub fn seal_from(&self, waiting: Waiting) -> Option<DateTime<Utc>> {
        self.last.map(|(last, _)| last + self.floor(waiting))
    }

    /// What decides the length of the wait.
    pub const fn reason(&self) -> WaitReason {
        match self.slowed {
            Slowed::No => WaitReason::School,
            Slowed::Retarder => WaitReason::Retarder,
            Slowed::SlowPaint => WaitReason::SlowPaint,
        }
    }
}

/// From when a varnish coat may follow `below`, laid at `laid`: the brisk school waits an hour, the others until the
/// next day, and on solvent varnish all of them do.
pub fn between_varnish(studio: &Studio, below: &Step, laid: DateTime<Utc>) -> DateTime<Utc> {
    let hour = laid + VARNISH_GAP;
    let solvent = studio.holds(below, &MaterialKind::SolventVarnish);
    match studio.schools.waiting {
        Waiting::Brisk if !solvent => hour,
        _ => hour.max(studio.hours.next_day(laid)),
    }
}

/// Whether `above` is solvent varnish over a water-borne coat.
pub fn solvent_over_water(studio: &Studio, below: &Step, above: &Step) -> bool {
    let solvent = |step| studio.holds(step, &MaterialKind::SolventVarnish);
    solvent(above) && !solvent(below)
}

/// The gap between two sealing coats, in words.
pub fn gap_said(studio: &Studio, below: &Step, above: &Step) -> String {
    if solvent_over_water(studio, below, above) {
        let days = SOLVENT_GAP.num_days();
        return format!("{days} to {} days after the water-borne coat below", days + 1);
    }
    match studio.schools.waiting {
        _ if studio.holds(below, &MaterialKind::SolventVarnish) => {
            "the day after the solvent varnish below, at the earliest".into()
        }
        Waiting::Brisk => "an hour after the coat below, at least".into(),
        Waiting::Standard | Waiting::Patient => {
            "the day after the coat below; an hour at the very least".into()
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::air::{Air, AirSeries};
    use crate::mix::{Mix, starter_shelf};
    use crate::picture::StepKind;
    use crate::studio::StudioHours;

    #[test]
    fn a_coat_that_was_wiped_off_counts_for_no_floor() {
        let hours = StudioHours::try_new(chrono_tz::UTC, vec![], vec![]).unwrap();
        let air = AirSeries::constant(Air::try_new(21.0, 0.5, 0.15).unwrap());
        let mut studio = Studio::new("Room", hours, air);
        studio.materials = starter_shelf().unwrap();
        let at =
            |day: u32| -> DateTime<Utc> { format!("2027-01-{day:02}T10:00:00Z").parse().unwrap() };
        let coat = |material: &str, um| Step {
            mix: Mix::one(material),
            wet_film_um: Some(um),
            ..Step::usual("c", StepKind::Pass)
        };
        let mut painted = Painted::default();
        painted.add(&studio, (0, &coat("heavy-pb29", 80.0)), at(1));
        let before = painted.seal_from(Waiting::Standard);
        painted.add(&studio, (1, &coat("slow-pbr7", WIPED_UM)), at(4));
        assert_eq!(painted.seal_from(Waiting::Standard), before);
        painted.add(&studio, (2, &coat("slow-pbr7", 60.0)), at(4));
        assert!(painted.seal_from(Waiting::Standard) > before);
    }

    #[test]
    fn a_night_lies_between_two_waking_days_and_solvent_varnish_always_takes_one() {
        let hours = StudioHours::try_new(chrono_tz::Europe::Oslo, vec![], vec![]).unwrap();
        let air = AirSeries::constant(Air::try_new(21.0, 0.5, 0.15).unwrap());
        let mut studio = Studio::new("Room", hours, air);
        studio.materials = starter_shelf().unwrap();
        let varnish = |material: &str| Step {
            mix: Mix::one(material),
            ..Step::usual("v", StepKind::Varnish)
        };
        let at = |text: &str| text.parse::<DateTime<Utc>>().unwrap();
        let next =
            |studio: &Studio, material, laid| between_varnish(studio, &varnish(material), at(laid));
        // Laid at half past eleven at night and at half past one: both are of Monday's evening.
        for laid in ["2027-01-04T23:30:00+01:00", "2027-01-05T01:30:00+01:00"] {
            let from = next(&studio, "varnish-gloss", laid);
            assert_eq!(from, at("2027-01-05T04:00:00+01:00"));
        }
        studio.schools.waiting = Waiting::Brisk;
        let laid = "2027-01-04T12:00:00+01:00";
        assert_eq!(next(&studio, "varnish-gloss", laid), at("2027-01-04T13:00:00+01:00"));
        // [memory] its second coat next day at the earliest
        assert_eq!(next(&studio, "solvent-gloss", laid), at("2027-01-05T04:00:00+01:00"));
    }
}
