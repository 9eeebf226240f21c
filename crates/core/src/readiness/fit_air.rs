//! Air that is fit for a coat as long as it is wet.

use crate::air::{Air, AirSeries};
use crate::mix::MaterialKind;
use crate::picture::Step;
use crate::studio::Studio;
use crate::time::Stretch;
use std::ops::RangeInclusive;

/// Temperatures for varnishing [C]: about 18-24, docs/trade.md. [memory]
pub const WARM: RangeInclusive<f64> = 18.0..=24.0;
/// Highest relative humidity for varnishing [-]: under about 65-70 %, docs/trade.md; the lower is taken.
/// [memory]
pub const DAMPEST: f64 = 0.65;
/// Lowest relative humidity for varnishing [-]: drier air takes the wet edge away and charges dust.
/// [memory]
pub const DRIEST: f64 = 0.30;
/// Coldest room in which an acrylic dispersion forms a sound film [C]: about 9-10, docs/trade.md; the
/// warmer is taken. [memory]
pub const COLDEST: f64 = 10.0;
/// What is added to the time to touch-dry or paintable, for a room that is not quite as computed [s]:
/// ten minutes. [practice]
pub const MARGIN_S: i64 = 600;

/// What is wrong with the air.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum AirFault {
    /// Colder than is wanted [C].
    Cold(f64),
    /// Warmer [C].
    Hot(f64),
    /// Damper: varnish clouds [-].
    Damp(f64),
    /// Drier: the wet edge is lost [-].
    Dry(f64),
}

impl std::fmt::Display for AirFault {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        match self {
            Self::Cold(c) => write!(f, "{c:.0} °C is too cold"),
            Self::Hot(c) => write!(f, "{c:.0} °C is too warm"),
            Self::Damp(rh) => write!(f, "{:.0} % is too damp", rh * 100.0),
            Self::Dry(rh) => write!(f, "{:.0} % is too dry", rh * 100.0),
        }
    }
}

/// The air that a coat wants as long as it is wet.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum AirWanted {
    /// Any: it leaves no film, or one that forms in the cold too.
    Any,
    /// At least [`COLDEST`], until it is paintable.
    Film,
    /// The range of varnish until it is touch-dry, and like a film until it is paintable.
    Varnish,
    /// The range of varnish until it is touch-dry.
    SolventVarnish,
}

impl AirWanted {
    /// What `step` wants.
    pub fn of(studio: &Studio, step: &Step) -> Self {
        let solvent = studio.holds(step, &MaterialKind::SolventVarnish);
        match step.kind {
            kind if kind.seals() && solvent => Self::SolventVarnish,
            kind if kind.seals() => Self::Varnish,
            kind if kind.leaves_film() && !step.mix.is_empty() && !solvent => Self::Film,
            _ => Self::Any,
        }
    }

    /// Whether it must not be cold before it is paintable.
    pub fn forms_film(self) -> bool {
        matches!(self, Self::Film | Self::Varnish)
    }

    /// What keeps `air` from being fit; nothing when it is.
    pub fn faults(self, air: &Air) -> Vec<AirFault> {
        match self {
            Self::Any => Vec::new(),
            Self::Film if air.celsius < COLDEST => vec![AirFault::Cold(air.celsius)],
            Self::Film => Vec::new(),
            Self::Varnish | Self::SolventVarnish => air_faults(air),
        }
    }

    /// What keeps the room from being fit somewhere in `stretch`; nothing when it is fit throughout.
    pub fn fault_in(self, air: &AirSeries, stretch: Stretch) -> Option<AirFault> {
        let until = stretch.1 as f64;
        let next = |at: &f64| air.next_change(*at).filter(|next| *next < until);
        let mut moments = std::iter::successors(Some(stretch.0 as f64), next);
        moments.find_map(|at| self.faults(air.at(at)).first().copied())
    }

    /// What the air is wanted for, in words.
    pub const fn what(self) -> &'static str {
        match self {
            Self::Any => "it",
            Self::Film => "a sound film of acrylic",
            Self::Varnish | Self::SolventVarnish => "varnish",
        }
    }

    /// What would make the air fit, in words with the numbers that are checked.
    pub fn remedy(self) -> String {
        match self {
            Self::Any => String::new(),
            Self::Film => format!("keep it at {COLDEST:.0} °C at least until it is paintable"),
            Self::Varnish | Self::SolventVarnish => format!(
                "bring it to {:.0}-{:.0} °C and {:.0}-{:.0} %",
                WARM.start(),
                WARM.end(),
                DRIEST * 100.0,
                DAMPEST * 100.0
            ),
        }
    }
}

/// What keeps `air` from being fit for varnish; nothing when it is.
pub fn air_faults(air: &Air) -> Vec<AirFault> {
    let mut found = Vec::new();
    if air.celsius < *WARM.start() {
        found.push(AirFault::Cold(air.celsius));
    }
    if air.celsius > *WARM.end() {
        found.push(AirFault::Hot(air.celsius));
    }
    if air.humidity > DAMPEST {
        found.push(AirFault::Damp(air.humidity));
    }
    if air.humidity < DRIEST {
        found.push(AirFault::Dry(air.humidity));
    }
    found
}

/// The stretches of time in which the room is not fit, for each kind of coat.
#[derive(Debug, Clone, Default)]
pub struct FitAir {
    film: Vec<Unfit>,
    varnish: Vec<Unfit>,
}

/// A stretch [s of the epoch] in which the air is not fit, and what is wrong as it begins.
#[derive(Debug, Clone, Copy, PartialEq)]
struct Unfit {
    stretch: Stretch,
    fault: AirFault,
}

impl FitAir {
    /// The room `air` from `from` [s of the epoch] on.
    pub fn new(air: &AirSeries, from: i64) -> Self {
        Self {
            film: unfit(air, from, AirWanted::Film),
            varnish: unfit(air, from, AirWanted::Varnish),
        }
    }

    /// Whether the room is always fit for what wants `wanted`.
    pub fn always(&self, wanted: AirWanted) -> bool {
        self.of(wanted).is_empty()
    }

    fn of(&self, wanted: AirWanted) -> &[Unfit] {
        match wanted {
            AirWanted::Any => &[],
            AirWanted::Film => &self.film,
            AirWanted::Varnish | AirWanted::SolventVarnish => &self.varnish,
        }
    }

    /// What is wrong in `stretch`, and when that stretch of bad air is over; `None` when the room is
    /// fit throughout.
    pub fn fault(&self, wanted: AirWanted, stretch: Stretch) -> Option<(AirFault, i64)> {
        let all = self.of(wanted);
        let n = all.partition_point(|u| u.stretch.1 <= stretch.0);
        let clash = all.get(n).filter(|u| u.stretch.0 < stretch.1)?;
        Some((clash.fault, clash.stretch.1))
    }
}

/// That the air never becomes fit again.
pub const NEVER: i64 = i64::MAX;

fn unfit(air: &AirSeries, from: i64, wanted: AirWanted) -> Vec<Unfit> {
    let mut found: Vec<Unfit> = Vec::new();
    let mut at = from as f64;
    loop {
        let next = air.next_change(at);
        if let Some(fault) = wanted.faults(air.at(at)).first() {
            // Whole seconds, the stretch never shorter than it is.
            let stretch = (at.floor() as i64, next.map_or(NEVER, |t| t.ceil() as i64));
            match found.last_mut() {
                Some(last) if last.stretch.1 >= stretch.0 => last.stretch.1 = stretch.1,
                _ => found.push(Unfit { stretch, fault: *fault }),
            }
        }
        let Some(next) = next else { return found };
        at = next;
    }
}
