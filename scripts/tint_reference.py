"""Writes crates/core/testdata/tints.csv: paints in white and in clear medium, told by three readings apart from the
application.

Needs what scripts/colour_reference.py needs, whose observer, reflectances and films it takes. Absorption and scattering
of each band are found by SciPy's bounded least squares over the tint (three times), the white and the black card, in the
square root of reflectance, each known to half a step of 8 bits and 3 %.

    python3 scripts/tint_reference.py > crates/core/testdata/tints.csv
"""

import numpy as np
from colour_reference import CARDS, TO_XYZ, WHITE_XY, X, colour, film, inside, least_squares, seen, smoothest, told

HEAVY, FLUID, GLAZING = 0.42, 0.36, 0.32  # solids by volume of the starter shelf
TITANIUM = ((243, 243, 239), (222, 224, 226))
PAINTS = {  # solids, hardly scatters, over white, over black, one part in ten of titanium white
    "PBk7": (FLUID, False, "1f1f20", "1b1b1c", "717477"),
    "PB15:3": (FLUID, True, "041c3c", "021526", "5b9bd0"),
    "PV19": (FLUID, True, "680d2a", "391020", "dd8aaa"),
    "PB29": (HEAVY, True, "211b60", "151a36", "93a2d6"),
    "PY42": (HEAVY, False, "b58839", "aa8039", "dcc59a"),
    "PR254": (HEAVY, False, "b02023", "a31f22", "e48b84"),
    "PY74": (HEAVY, False, "f8ae08", "6c642c", "f6e07e"),
}


def rgb(text):
    return tuple(int(text[i : i + 2], 16) for i in (0, 2, 4))


def known(r):
    shown = np.where(r <= 0.0031308, 12.92 * r, 1.055 * np.maximum(r, 1e-9) ** (1 / 2.4) - 0.055)
    slope = np.where(r <= 0.0031308, 1 / 12.92, 2.4 / 1.055 * ((shown + 0.055) / 1.055) ** 1.4)
    return np.hypot(0.5 / 255 * slope, 0.03 * r) / (2 * np.sqrt(r))


def hides(k, s):
    ratio = k / s
    return 1 + ratio - np.sqrt(ratio * ratio + 2 * ratio)


def strength(paint, white):
    solids, clear, *read = paint
    tint, over_white, over_black = (smoothest(rgb(text)) for text in (read[2], read[0], read[1]))
    gw, gb = (inside(smoothest(c)) for c in CARDS)
    share = solids / (solids + 10 * HEAVY)
    k, s = np.zeros(36), np.zeros(36)
    for i in range(36):
        r = np.array([tint[i], over_white[i], over_black[i]])
        kw, sw = white[0][i], white[1][i]

        def miss(p):
            a, b = np.exp(p)
            own = hides(share * a + (1 - share) * kw, share * b + (1 - share) * sw)
            shown = np.array([seen(own), seen(film(a, b, gw[i], X)), seen(film(a, b, gb[i], X))])
            return np.array([3, 1, 1]) * (np.sqrt(shown) - np.sqrt(r)) / known(r)

        most = np.log(sw * (0.1 if clear else 1.0))
        starts = ([9, 7], [11, 9], [13, 9], [14, 10], [9, 10], [12, 7], [12, 3])
        fits = [least_squares(miss, [a, min(b, most - 0.1)], bounds=([0, 0], [17.7, most]), xtol=1e-14, ftol=1e-14, gtol=1e-14) for a, b in starts]
        k[i], s[i] = np.exp(min(fits, key=lambda f: f.cost).x)
    return k, s


def main():
    white = told(*TITANIUM)
    gw = inside(smoothest(CARDS[0]))
    print("# Written by scripts/tint_reference.py; see there how.")
    print("# paint, parts of titanium white to one where it hides (or tenths in glazing liquid, um wet on white), L*, a*, b*")
    for name, paint in PAINTS.items():
        k, s = strength(paint, white)
        say = lambda what, r: print(
            f"{name}, {what}, " + ", ".join(f"{v:.3f}" for v in colour.XYZ_to_Lab(TO_XYZ @ seen(r), WHITE_XY))
        )
        for parts in (3, 10, 30):
            share = paint[0] / (paint[0] + parts * HEAVY)
            say(f"white {parts}", hides(share * k + (1 - share) * white[0], share * s + (1 - share) * white[1]))
        for tenths in (1, 10):
            solids = paint[0] * tenths / 10 + GLAZING * (1 - tenths / 10)
            share = paint[0] * tenths / 10 / solids
            say(f"glaze {tenths}", np.array([film(share * k[i], share * s[i], gw[i], 40e-6 * solids) for i in range(36)]))


if __name__ == "__main__":
    main()
