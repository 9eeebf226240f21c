"""Writes crates/core/testdata/colour.csv: colours of coats over coats, computed apart from the application.

Needs numpy, scipy and colour-science 0.4.7 (`pip install colour-science`). What is done another way than in
crates/core/src/colour: the observer, the illuminant, sRGB and Lab are the library's; the smoothest reflectance is
found by SciPy's constrained minimiser; absorption and scattering are found by solving for the two readings with
the two-flux equations integrated as a matrix exponential, never by Kubelka's formulas.

    python3 scripts/colour_reference.py > crates/core/testdata/colour.csv
"""

import warnings

import numpy as np

warnings.simplefilter("ignore")
import colour  # noqa: E402
from scipy.linalg import expm  # noqa: E402
from scipy.optimize import least_squares, minimize  # noqa: E402

PAINTS = {  # sRGB over the white and over the black card at 30 um dry, from memory
    "PB29": ((38, 52, 150), (18, 20, 48)),
    "PB15:3": ((10, 60, 130), (10, 18, 34)),
    "PV19": ((170, 20, 70), (52, 14, 24)),
    "PBr7": ((128, 60, 34), (58, 34, 26)),
    "PY42": ((196, 146, 62), (160, 120, 56)),
    "PY74": ((250, 206, 30), (110, 96, 36)),
    "PW6": ((243, 243, 239), (222, 224, 226)),
    "PW4": ((243, 243, 240), (120, 124, 132)),
    "PR254": ((196, 32, 34), (150, 30, 32)),
    "PY150": ((214, 150, 20), (52, 42, 24)),
}
CARDS = ((244, 243, 240), (28, 28, 30))
K1, K2, X = 0.04, 0.6, 30e-6
SHAPE = colour.SpectralShape(380, 730, 10)
CMFS = colour.MSDS_CMFS["CIE 1931 2 Degree Standard Observer"].copy().align(SHAPE).values
D65 = colour.SDS_ILLUMINANTS["D65"].copy().align(SHAPE).values
TO_XYZ = CMFS.T * D65 / (CMFS[:, 1] @ D65)
WHITE = TO_XYZ.sum(axis=1)
WHITE_XY = WHITE[:2] / WHITE.sum()


def xyz_of(rgb):
    """XYZ of an 8-bit sRGB colour, its white being that of the table."""
    linear = colour.cctf_decoding(np.array(rgb) / 255.0, function="sRGB")
    published = colour.RGB_COLOURSPACES["sRGB"].matrix_RGB_to_XYZ
    return (published @ linear) * WHITE / published.sum(axis=1)


def smoothest(rgb):
    wanted = xyz_of(rgb)
    reflectance = lambda z: (np.tanh(z) + 1) / 2
    found = minimize(
        lambda z: np.sum(np.diff(z) ** 2),
        np.full(36, np.arctanh(2 * wanted[1] - 1)),
        jac=lambda z: 2 * (np.append(0, np.diff(z)) - np.append(np.diff(z), 0)),
        constraints={
            "type": "eq",
            "fun": lambda z: 100 * (TO_XYZ @ reflectance(z) - wanted),
            "jac": lambda z: 50 * TO_XYZ * (1 - np.tanh(z) ** 2),
        },
        method="SLSQP",
        options={"maxiter": 2000, "ftol": 1e-12},
    )
    return reflectance(found.x)


def inside(seen):
    return seen / ((1 - K1) * (1 - K2) + K2 * seen)


def seen(r):
    return (1 - K1) * (1 - K2) * r / (1 - K2 * r)


def film(k, s, g, x):
    """Reflectance over g: down flux i, up flux j; di/dx = -(k+s) i + s j, dj/dx = (k+s) j - s i."""
    m = expm(np.array([[-(k + s), s], [-s, k + s]]) * x)
    # At the bottom j = g i; at the top i = 1, j = R.
    return (g * m[0, 0] - m[1, 0]) / (m[1, 1] - g * m[0, 1])


def told(over_white, over_black):
    gw, gb = (inside(smoothest(c)) for c in CARDS)
    rw, rb = (inside(smoothest(c)) for c in (over_white, over_black))
    k, s = np.zeros(36), np.zeros(36)
    for i in range(36):
        miss = lambda p: [
            film(np.exp(p[0]), np.exp(p[1]), gw[i], X) - rw[i],
            film(np.exp(p[0]), np.exp(p[1]), gb[i], X) - rb[i],
        ]
        starts = ([9, 9], [11, 9], [9, 11], [7, 11], [11, 7], [5, 10])
        fits = [least_squares(miss, s0, bounds=(-8, 15), xtol=1e-14, ftol=1e-14, gtol=1e-14) for s0 in starts]
        k[i], s[i] = np.exp(min(fits, key=lambda f: f.cost).x)
    return k, s


def main():
    paints = {name: told(*readings) for name, readings in PAINTS.items()}
    grounds = {"#f4f3f0": CARDS[0], "#808080": (128, 128, 128), "#2c3a52": (44, 58, 82)}
    grounds = {name: inside(smoothest(rgb)) for name, rgb in grounds.items()}
    rng = np.random.default_rng(20270104)
    print("# Written by scripts/colour_reference.py; see there how.")
    print("# ground, coats (paint:share of solids, the rest clear, at dry um; first coat first), L*, a*, b*")
    for n in range(60):
        ground = list(grounds)[n % len(grounds)]
        r, spoken = grounds[ground], []
        for _ in range(rng.integers(1, 5)):
            names = rng.choice(list(paints), rng.integers(1, 4), replace=False)
            shares = np.round(rng.dirichlet(np.ones(len(names) + 1))[:-1], 3)
            dry = round(float(np.exp(rng.uniform(np.log(4), np.log(60)))), 1)
            k = sum(share * paints[name][0] for name, share in zip(names, shares))
            s = sum(share * paints[name][1] for name, share in zip(names, shares))
            r = np.array([film(k[i], s[i], r[i], dry * 1e-6) for i in range(36)])
            spoken.append(" ".join(f"{a}={b:.3f}" for a, b in zip(names, shares)) + f" @ {dry}")
        lab = colour.XYZ_to_Lab(TO_XYZ @ seen(r), WHITE_XY)
        print(f"{ground}, {'; '.join(spoken)}, " + ", ".join(f"{v:.3f}" for v in lab))


if __name__ == "__main__":
    main()
