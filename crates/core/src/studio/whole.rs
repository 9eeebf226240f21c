//! A whole studio, checked: what the computation works on.

use super::daylight;
use super::hours::StudioHours;
use super::room::{AirSource, RoomAhead};
use super::schools::{Schools, Slowed};
use super::tub::Tub;
use crate::air::AirSeries;
use crate::film::{Futures, Habit};
use crate::mix::{self, Material, MaterialKind, Thinning, find};
use crate::picture::{CoatFault, Happening, LaidCoat, Picture, Step};
use crate::quantity::Sure;
use crate::time::seconds;
use std::sync::Arc;

/// Share of the sessions that do not happen where the painter says nothing [-]: one in twenty, docs/model/drying.md. [memory]
pub const USUALLY_MISSED: f64 = 0.05;

/// A studio with its shelf and its pictures.
#[derive(Debug, Clone, PartialEq)]
pub struct Studio {
    /// Name of the studio.
    pub name: String,
    /// When the painter works.
    pub hours: StudioHours,
    /// Places where wet work can lie flat.
    pub flat_places: u32,
    /// Minutes to set up or mix for a change of picture or mix.
    pub setup_min: f64,
    /// Where the studio stands, when colour is judged by daylight only.
    pub daylight: Option<daylight::Place>,
    /// The painter's schools.
    pub schools: Schools,
    /// In which share of the futures a time that is said must hold.
    pub sure: Sure,
    /// Share of the sessions that do not happen, which the odds of a date count with.
    pub missed_sessions: f64,
    /// How films dry here beside the book.
    pub habit: Habit,
    /// The room's air; times are seconds of the Unix epoch.
    pub air: AirSeries,
    /// How the room is looked ahead at.
    pub room: RoomAhead,
    /// The shelf.
    pub materials: Vec<Material>,
    /// Pre-mixed colour.
    pub tubs: Vec<Tub>,
    /// The painter's own ways of working.
    pub ways: Vec<OwnWay>,
    /// The pictures.
    pub pictures: Vec<Picture>,
    /// The day book: what happened that is about no picture, in the order of time.
    pub happened: Vec<Happening>,
    /// The order of work that was settled on; empty means what can start first. Steps that are not
    /// in it come right after the step before them.
    pub order: Vec<OrderEntry>,
}

/// One entry of an order of work.
#[derive(Debug, Clone, PartialEq, Eq, Hash)]
pub struct OrderEntry {
    /// The picture's name within the studio.
    pub picture: String,
    /// The step's name within the picture.
    pub step: String,
}

/// A way of working that a painter saved.
#[derive(Debug, Clone, PartialEq)]
pub struct OwnWay {
    /// Its name within the studio.
    pub id: String,
    /// What the painter calls it.
    pub name: String,
    /// Why one works like this.
    pub why: String,
    /// Its steps, none of them laid.
    pub steps: Vec<Step>,
}

impl Studio {
    /// The material named `id`.
    pub fn material(&self, id: &str) -> Option<&Material> {
        mix::find(&self.materials, id)
    }

    /// A studio with the usual settings, an empty shelf and no pictures.
    pub fn new(name: impl Into<String>, hours: StudioHours, air: AirSeries) -> Self {
        Self {
            name: name.into(),
            hours,
            flat_places: 1,
            setup_min: 10.0, // [practice] a cup mixed and a brush wetted
            daylight: None,
            schools: Schools::default(),
            sure: Sure::USUAL,
            missed_sessions: USUALLY_MISSED,
            habit: Habit::default(),
            air,
            room: RoomAhead::default(),
            materials: Vec::new(),
            tubs: Vec::new(),
            ways: Vec::new(),
            pictures: Vec::new(),
            happened: Vec::new(),
            order: Vec::new(),
        }
    }

    /// Until when its air is known [s of the epoch]: the last reading, or when one last looked ahead;
    /// nothing in a room that was never measured. A heater that is switched on measures nothing.
    pub(crate) fn air_known(&self) -> Option<f64> {
        let end = self.air.end()?;
        let measured = self.air.measured_until();
        let taken = self.room.taken_at.map(seconds);
        let looked = match self.room.source {
            AirSource::Readings => Some(end),
            AirSource::Forecast => Some(taken.unwrap_or(end)),
            AirSource::Constant => taken.filter(|t| self.air.readings()[0].0 < *t),
        };
        looked.map_or(measured, |looked| Some(measured.map_or(looked, |m| m.max(looked))))
    }

    /// The futures by which every time in it is said.
    pub fn futures(&self) -> Arc<Futures> {
        Arc::new(Futures::sure(self.sure, &self.habit, &self.air, self.air_known()))
    }

    /// The future in which a state is reached by the time by which it is reached in the share `level` of
    /// all (0 to 1, neither included).
    pub fn futures_at(&self, level: f64) -> Arc<Futures> {
        Arc::new(Futures::at(level, &self.habit, &self.air, self.air_known()))
    }

    /// Whether what was computed of films in `other` holds here too: same air, and as much known.
    pub fn dries_like(&self, other: &Self) -> bool {
        self.air == other.air
            && self.air_known() == other.air_known()
            && self.sure == other.sure
            && self.habit == other.habit
    }

    /// Whether everything in the mixes of picture `p` is the same on the shelf of `other`.
    pub fn paints_like(&self, other: &Self, p: usize) -> bool {
        self.materials == other.materials
            || self.pictures[p].steps.iter().flat_map(|step| step.mix.iter()).all(|part| {
                find(&self.materials, &part.material) == find(&other.materials, &part.material)
            })
    }

    /// The school of thinning a picture is judged by: its own, or the studio's.
    pub fn thinning(&self, picture: &Picture) -> Thinning {
        picture.thinning.as_ref().map_or(self.schools.thinning, |own| own.school)
    }

    /// What in the mix of `step` makes the schools wait longer before varnish.
    pub fn slowed_by(&self, step: &Step) -> Slowed {
        let slows = |m: &Material| match (m.is_slow(), m.retards()) {
            (true, _) => Slowed::SlowPaint,
            (_, true) => Slowed::Retarder,
            _ => Slowed::No,
        };
        step.mix.materials(&self.materials).map(slows).max().unwrap_or_default()
    }

    /// Whether anything of `kind` is in the mix of `step`.
    pub fn holds(&self, step: &Step, kind: &MaterialKind) -> bool {
        step.mix.holds(&self.materials, kind)
    }

    /// The coats of picture `p` that are laid, in order of time.
    ///
    /// # Errors
    /// [`CoatFault`] of the first that cannot be computed.
    pub fn laid_coats(&self, p: usize) -> Result<Vec<LaidCoat>, CoatFault> {
        self.pictures[p].laid_coats(&self.materials)
    }

    /// The tub named `id`.
    pub fn tub(&self, id: &str) -> Option<&Tub> {
        self.tubs.iter().find(|t| t.id == id)
    }

    /// Whether a picture, a tub or a way of working names the material `id`.
    pub fn uses(&self, id: &str) -> bool {
        self.pictures.iter().flat_map(|p| &p.steps).any(|s| s.mix.names(id))
            || self.tubs.iter().any(|t| t.mix.names(id))
            || self.ways.iter().flat_map(|w| &w.steps).any(|s| s.mix.names(id))
    }

    /// Whether a picture was or is to be painted from the tub `id`.
    pub fn uses_tub(&self, id: &str) -> bool {
        self.pictures.iter().flat_map(|p| &p.steps).any(|s| s.tub.as_deref() == Some(id))
    }
}
