//! The numerical column against closed solutions of the diffusion equation.
//! J. Crank, The Mathematics of Diffusion, 2nd ed., Oxford 1975, ch. 4.

use std::f64::consts::PI;
use ulvek_core::film::{Bottom, Column, Top};

const CELLS: usize = 64;

/// Desorbs a sheet of half-thickness 1 and D = 1 (sealed below, 1 throughout) to time `t` and
/// returns what has left, as a share of all.
fn left_after(t: f64, drive: f64) -> f64 {
    let dz = vec![1.0 / CELLS as f64; CELLS];
    let mut column = Column::default();
    column.resize(CELLS);
    let mut now = vec![1.0; CELLS];
    let steps = 2000;
    let dt = t / f64::from(steps);
    for _ in 0..steps {
        let known = now.clone();
        column.psi.copy_from_slice(&now);
        column.slope.fill(1.0);
        column.resistance.fill(0.5 / CELLS as f64);
        let top = Top::Transfer { drive, rest: 0.0 };
        column.sweep(&dz, dt, &known, (Bottom::Sealed, 0.0), top, &mut now);
    }
    1.0 - now.iter().sum::<f64>() / CELLS as f64
}

#[test]
fn a_plane_sheet_with_its_surface_held_at_zero_follows_crank_4_18() {
    // Crank: half of it has left at D t / l^2 = 0.197.
    assert!((left_after(0.197, 1e12) - 0.5).abs() < 0.002);
    for t in [0.05, 0.3, 0.8] {
        let series: f64 = (0..200)
            .map(|n| {
                let odd = f64::from(2 * n + 1);
                8.0 / (odd * PI).powi(2) * (-(odd * PI / 2.0).powi(2) * t).exp()
            })
            .sum();
        let (got, want) = (left_after(t, 1e12), 1.0 - series);
        assert!((got - want).abs() < 0.003, "Dt/l2 = {t}: {got} instead of {want}");
    }
}

#[test]
fn a_plane_sheet_with_surface_resistance_follows_crank_4_53() {
    // Roots of beta tan beta = L for L = 1: Crank, table 4.1.
    let roots: [f64; 6] = [0.8603, 3.4256, 6.4373, 9.5293, 12.6453, 15.7713];
    for t in [0.2, 0.5, 1.0, 2.0] {
        let series: f64 =
            roots.iter().map(|b| 2.0 * (-b * b * t).exp() / (b * b * (b * b + 2.0))).sum();
        let (got, want) = (left_after(t, 1.0), 1.0 - series);
        assert!((got - want).abs() < 0.001, "Dt/l2 = {t}: {got} instead of {want}");
    }
}
