"""The drying of one coat by a general stiff solver: the same cells and equations as crates/core/src/film, written apart
from them, followed by SciPy's BDF.

Prints the states it finds, which crates/core/tests/film/drying_reference.rs holds the film against, and how long it took;
`cargo bench -p ulvek-core --bench drying` prints how long the film takes. Needs numpy and scipy (`pip install scipy`).

    python3 scripts/stiff_solver.py

All constants stand in docs/model/drying.md, by the same names and in SI units; those of the film are from memory there.
"""

import time

import numpy as np
from scipy.integrate import solve_ivp

R, KELVIN = 8.314462618, 273.15  # J/(mol K), K
CELSIUS, HUMIDITY, SPEED, SIDE_M = 21.0, 0.5, 0.15, 0.4  # C, -, m/s, m: the room of the reference table
SOLIDS, WATER, SLOW, WET_M = 0.42, 0.53, 0.05, 100e-6  # ordinary heavy paint, docs/model/drying.md
DAYS = 10.0
DAY_S = 86_400.0


def saturated(celsius):
    """Water in saturated air [kg/m3]; vapour pressure after Buck 1981."""
    pascal = 611.21 * np.exp((18.678 - celsius / 234.5) * celsius / (257.14 + celsius))
    return pascal * 0.018015 / (R * (celsius + KELVIN))


def transfer():
    """Heat and mass transfer over a flat plate [W/(m2 K), m/s]; Incropera & DeWitt."""
    forced = 0.664 * np.sqrt(SPEED * SIDE_M / 1.5e-5) * 0.71 ** (1 / 3)
    grashof = 9.81 / (CELSIUS + KELVIN) * 2.0 * SIDE_M**3 / 1.5e-5**2
    free = 0.54 * (grashof * 0.71) ** 0.25
    heat = (forced**3 + free**3) ** (1 / 3) * 0.0257 / SIDE_M
    return heat, heat / (1.2 * 1006.0 * 0.85 ** (2 / 3))


HEAT, MASS = transfer()


def cells(count, grading):
    """Dry thickness of the cells [m], each `grading` times as thick as its neighbour nearer to a face."""
    weight = grading ** np.minimum(np.arange(count), count - 1 - np.arange(count))
    return WET_M * SOLIDS * weight / weight.sum()


def resistance(dz, slope, q_all, dry, wet):
    """Half a cell's resistance [s/m]; a coat that only dries is as closed as it ever was."""
    bulk = 1.0 + q_all
    x = np.clip((1.0 - 1.0 / bulk) / (1.0 - 0.64), 0.0, 1.0)
    warmth = np.exp(-(65_000.0 / R) * (1.0 / (CELSIUS + KELVIN) - 1.0 / 294.15) * (1.0 - x))
    return 0.5 * dz * slope * bulk**2 / (dry * (wet / dry) ** x * warmth)


def rates(_, state, dz):
    w, g = np.maximum(np.split(state, 2), 0.0)
    holds = 0.03 + 0.45 * g
    psi_w = 1.0 - np.exp(-w / holds) + 0.001 * w
    r_w = resistance(dz, np.exp(-w / holds) / holds + 0.001, w + g, 2e-12, 2e-10)
    moles = g / 73.5 + w / 18.0 + 1e-15
    share, left = (g / 73.5) / moles, np.exp(-g / 0.2)
    psi_g = share * (1.0 - left) + 0.001 * g
    slope = (w / 18.0 + 1e-15) / moles**2 / 73.5 * (1.0 - left) + share * left / 0.2 + 0.001
    r_g = resistance(dz, slope, w + g, 4e-15, 5e-11)
    # The surface: its activity follows from the half cell below, its temperature from the heat it gets.
    rest = MASS * HUMIDITY * saturated(CELSIUS) / 998.0

    def leaves(celsius):
        drive = MASS * saturated(celsius) / 998.0
        return drive * min((psi_w[-1] + r_w[-1] * rest) / (1.0 + drive * r_w[-1]), 1.0) - rest

    low, high = CELSIUS - 20.0, CELSIUS + 5.0
    for _ in range(40):
        middle = 0.5 * (low + high)
        gains = (HEAT + 10.5) * (CELSIUS - middle) > 2.45e6 * 998.0 * leaves(middle)
        low, high = (middle, high) if gains else (low, middle)
    kelvin = low + KELVIN
    vapour = 10.6 * np.exp(-(67_000.0 / R) * (1.0 / kelvin - 1.0 / 293.15))
    drive_g = 0.5 * MASS * vapour * 0.07609 / (R * kelvin) / 1036.0
    top_g = drive_g * min(psi_g[-1] / (1.0 + drive_g * r_g[-1]), 1.0)
    out = []
    for psi, r, top in ((psi_w, r_w, leaves(low)), (psi_g, r_g, top_g)):
        flows = np.concatenate(([0.0], (psi[:-1] - psi[1:]) / (r[:-1] + r[1:]), [top]))
        out.append((flows[:-1] - flows[1:]) / dz)
    return np.concatenate(out)


def states(solution, dz):
    """Minutes at which each state begins."""
    t = np.unique(np.concatenate((np.geomspace(1.0, DAYS * DAY_S, 200_000), [DAYS * DAY_S])))
    w, g = np.split(solution.sol(t), 2)
    phi, firm = 1.0 / (1.0 + w + g), 1.0 / (1.0 + w + 0.5 * g)
    slow = (g * dz[:, None]).sum(axis=0) / dz.sum()
    through = phi.min(axis=0) >= 0.90
    conditions = {
        "setting": phi[-1] >= 0.58,
        "touch_dry": firm[-1] >= 0.70,
        "paintable": firm.min(axis=0) >= 0.80,
        "dry_through": through,
        "ready_to_seal": through & (slow <= 0.04),
        "ready_to_wrap": through & (slow <= 0.02),
    }
    return {name: t[met.argmax()] / 60.0 for name, met in conditions.items() if met.any()}


def follow(dz, rtol, atol):
    begin = np.repeat([WATER / SOLIDS, SLOW / SOLIDS], len(dz))
    clock = time.perf_counter()
    found = solve_ivp(
        rates, (0.0, DAYS * DAY_S), begin, "BDF", args=(dz,), rtol=rtol, atol=atol, dense_output=True
    )
    took = (time.perf_counter() - clock) * 1e3
    print(f"BDF on {len(dz)} cells: {took:.0f} ms, {found.nfev} evaluations, {len(found.t)} steps")
    for name, minutes in states(found, dz).items():
        print(f"  {name:14} {minutes:8.1f} min")


if __name__ == "__main__":
    follow(cells(8, 1.5), 1e-4, 1e-7)  # the planning grid
    follow(cells(32, 1.0), 1e-6, 1e-9)  # the fine grid
