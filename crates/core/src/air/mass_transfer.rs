//! Heat and mass transfer between a picture and the room.
//!
//! Forced laminar flow over a flat plate, `Nu = 0.664 Re^0.5 Pr^(1/3)`, joined with free
//! convection, `Nu = 0.54 (Gr Pr)^0.25` at 2 K difference, as the cubic mean; mass transfer by
//! the Lewis relation `k = h / (rho cp Le^(2/3))`. Valid up to Re = 5e5 (a 1 m picture in a
//! 7 m/s draught). Source: Incropera & DeWitt, Fundamentals of Heat and Mass Transfer, ch. 6, 7, 9.

use super::moment::Air;
use super::psychrometrics::{KELVIN, vapour_concentration_kg_m3};

/// Density of air [kg/m3] at 20 C; Incropera & DeWitt, table A.4, rounded.
const AIR_DENSITY: f64 = 1.2;
/// Specific heat of air [J/(kg K)]; Incropera & DeWitt, table A.4, rounded.
const AIR_HEAT: f64 = 1006.0;
/// Lewis number of water vapour in air [-]; Incropera & DeWitt, ch. 6.
const LEWIS: f64 = 0.85;
/// Kinematic viscosity of air [m2/s]; Incropera & DeWitt, table A.4, rounded.
const VISCOSITY: f64 = 1.5e-5;
/// Thermal conductivity of air [W/(m K)]; Incropera & DeWitt, table A.4, rounded.
const CONDUCTIVITY: f64 = 0.0257;
/// Prandtl number of air [-]; Incropera & DeWitt, table A.4.
const PRANDTL: f64 = 0.71;
/// Temperature difference that drives free convection [K]. [memory]
const FREE_DIFFERENCE: f64 = 2.0;
/// Acceleration of gravity [m/s2]; standard value.
const GRAVITY: f64 = 9.81;
/// Heat by radiation from the room to the film [W/(m2 K)]. [memory]
const RADIATION: f64 = 5.5;
/// Heat through the back of the canvas [W/(m2 K)]. [memory]
const BACK: f64 = 5.0;
/// Latent heat of evaporation of water [J/kg] near 20 C; steam tables, rounded.
const LATENT_HEAT: f64 = 2.45e6;

/// Heat transfer coefficient `h` [W/(m2 K)] over a plate of `length_m` in air of `speed_m_s` at
/// `celsius`.
pub fn heat_transfer_coefficient(length_m: f64, speed_m_s: f64, celsius: f64) -> f64 {
    let reynolds = speed_m_s * length_m / VISCOSITY;
    let forced = 0.664 * reynolds.sqrt() * PRANDTL.cbrt();
    let grashof =
        GRAVITY / (celsius + KELVIN) * FREE_DIFFERENCE * length_m.powi(3) / (VISCOSITY * VISCOSITY);
    let free = 0.54 * (grashof * PRANDTL).powf(0.25);
    (forced.powi(3) + free.powi(3)).cbrt() * CONDUCTIVITY / length_m
}

/// How close the temperature of a surface is found [K]. [practice]
const CLOSE_K: f64 = 1e-3;

/// What the room does to the surface of one picture while its air stays the same.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Transfer {
    /// Mass transfer coefficient of water vapour, `k` [m/s].
    pub mass_m_s: f64,
    /// Temperature of the room air [C].
    pub air_c: f64,
    /// Water in the room air [kg/m3].
    pub vapour_kg_m3: f64,
    /// Heat that reaches the film per degree it is colder than the room [W/(m2 K)].
    heat: f64,
}

impl Transfer {
    /// The transfer between `air` and a picture whose shorter side is `length_m`.
    pub fn new(air: &Air, length_m: f64) -> Self {
        let h = heat_transfer_coefficient(length_m, air.speed_m_s, air.celsius);
        Self {
            mass_m_s: h / (AIR_DENSITY * AIR_HEAT * LEWIS.powf(2.0 / 3.0)),
            air_c: air.celsius,
            vapour_kg_m3: air.humidity * vapour_concentration_kg_m3(air.celsius),
            heat: h + RADIATION + BACK,
        }
    }

    /// Temperature of the film's surface [C] at which the heat that reaches it balances
    /// evaporation; `evaporation(c_sat)` gives the flux [kg/(m2 s)] for a saturation
    /// concentration [kg/m3] at the surface. `guess` is where the search starts.
    pub fn surface_c(&self, guess: f64, evaporation: impl Fn(f64) -> f64) -> f64 {
        let balance = |t: f64| {
            self.heat * (self.air_c - t) - LATENT_HEAT * evaporation(vapour_concentration_kg_m3(t))
        };
        let mut t = guess;
        // Newton with a one-sided slope: the balance falls nearly straight over these few degrees.
        for _ in 0..6 {
            let here = balance(t);
            // The balance falls by at least this much a degree.
            if here.abs() < CLOSE_K * self.heat {
                break;
            }
            let slope = (balance(t + 0.01) - here) / 0.01;
            let next = (t - here / slope).clamp(self.air_c - 30.0, self.air_c + 30.0);
            let moved = (next - t).abs();
            t = next;
            if moved < CLOSE_K {
                break;
            }
        }
        t
    }
}
