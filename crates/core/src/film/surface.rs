//! What the room does to the faces of a film: how water, slow volatile and spirit leave it.

use super::column::Top;
use super::law::Law;
use crate::air::{Air, GAS_CONSTANT, KELVIN, Transfer, vapour_concentration_kg_m3};

/// Density of water at 21 C [kg/m3]; steam tables.
const WATER_DENSITY: f64 = 998.0;
/// Mass transfer of a heavy vapour relative to water [-]. [memory]
const HEAVY_TRANSFER: f64 = 0.5;
/// Temperature that the vapour pressures below hold for [K], 20 C.
const REFERENCE_K: f64 = 293.15;

/// A volatile that the room holds none of.
struct Vapour {
    /// Vapour pressure at 20 C [Pa].
    pressure: f64,
    /// Heat of evaporation [J/mol].
    heat: f64,
    /// Molar mass [kg/mol].
    molar_mass: f64,
    /// Density of the liquid [kg/m3].
    density: f64,
}

/// The slow volatile: propylene glycol; docs/model/drying.md. [memory]
const GLYCOL: Vapour =
    Vapour { pressure: 10.6, heat: 67_000.0, molar_mass: 0.076_09, density: 1036.0 };
/// Spirit; docs/model/drying.md. [memory]
const SPIRIT: Vapour = Vapour { pressure: 60.0, heat: 48_000.0, molar_mass: 0.142, density: 770.0 };

/// The room's effect while its air stays the same.
#[derive(Debug, Clone)]
pub(super) struct Surroundings {
    pub air: Air,
    pub law: Law,
    transfer: Transfer,
}

impl Surroundings {
    /// `air` over a picture whose shorter side is `length_m` [m].
    pub fn new(air: &Air, length_m: f64) -> Self {
        Self { air: *air, transfer: Transfer::new(air, length_m), law: Law::new(air.celsius) }
    }

    /// Evaporation of water over a film whose top cell has `psi` behind `resistance`, `pace` times as
    /// slow as the model; finds the surface temperature on the way.
    pub fn water_leaves(
        &self,
        (psi, resistance): (f64, f64),
        pace: f64,
        surface_c: &mut f64,
    ) -> Top {
        // A pace stretches time as a whole, so the heat balance sees the flux of the unstretched film.
        let k = self.transfer.mass_m_s / pace;
        let rest = k * self.transfer.vapour_kg_m3 / WATER_DENSITY;
        let activity =
            |drive: f64| ((psi + resistance * rest) / (1.0 + drive * resistance)).min(1.0);
        *surface_c = self.transfer.surface_c(*surface_c, |c_sat| {
            let drive = k * c_sat / WATER_DENSITY;
            (drive * activity(drive) - rest) * WATER_DENSITY * pace
        });
        let drive = k * vapour_concentration_kg_m3(*surface_c) / WATER_DENSITY;
        if activity(drive) >= 1.0 { Top::Flux(drive - rest) } else { Top::Transfer { drive, rest } }
    }

    /// Evaporation from the back of a ground with `share` of the free one: the flux per unit of its
    /// activity, and what the room sends back [m/s].
    pub fn ground_dries(&self, share: f64) -> (f64, f64) {
        let full = vapour_concentration_kg_m3(self.air.celsius);
        let drive = share * self.transfer.mass_m_s * full / WATER_DENSITY;
        (drive, drive * self.air.humidity)
    }

    /// Evaporation of the slow volatile at the surface temperature found for water, `slower` times as
    /// slow as that of propylene glycol.
    pub fn glycol_leaves(&self, cell: (f64, f64), slower: f64, surface_c: f64) -> Top {
        self.leaves(&GLYCOL, cell, slower, surface_c)
    }

    /// Evaporation of spirit, `pace` times as slow as the model.
    pub fn spirit_leaves(&self, cell: (f64, f64), pace: f64, surface_c: f64) -> Top {
        self.leaves(&SPIRIT, cell, pace, surface_c)
    }

    fn leaves(
        &self,
        vapour: &Vapour,
        (psi, resistance): (f64, f64),
        slower: f64,
        surface_c: f64,
    ) -> Top {
        let kelvin = surface_c + KELVIN;
        let pressure = vapour.pressure
            * (-(vapour.heat / GAS_CONSTANT) * (1.0 / kelvin - 1.0 / REFERENCE_K)).exp();
        let c_sat = pressure * vapour.molar_mass / (GAS_CONSTANT * kelvin);
        let drive = HEAVY_TRANSFER * self.transfer.mass_m_s / slower * c_sat / vapour.density;
        if psi / (1.0 + drive * resistance) >= 1.0 {
            Top::Flux(drive)
        } else {
            Top::Transfer { drive, rest: 0.0 }
        }
    }
}
