"""Fits through marks by scipy's least squares: five unknowns (shift, turn, two scales) through three marks, six (skew too)
through four. Usage: fits.py OUT
"""

import json
import random
import sys
from importlib.metadata import version

import numpy as np
from scipy.optimize import least_squares

MARKS = [(6.35, 273.05), (6.35, 6.35), (209.55, 6.35), (209.55, 273.05)]


def placed(x, points):
    dx, dy, turn, across, along, *skew = x
    lean = skew[0] if skew else 0.0
    c, s = np.cos(turn), np.sin(turn)
    linear = np.array([[c, -s], [s, c]]) @ np.diag([across, along]) @ np.array([[1, -np.tan(lean)], [0, 1]])
    # The scale across belongs to the first column, which no lean changes.
    return points @ linear.T + [dx, dy]


def fitted(points, seen, count):
    start = [0, 0, 0, 1, 1] + [0] * (count - 5)
    found = least_squares(lambda x: (placed(x, points) - seen).ravel(), start, xtol=1e-15, ftol=1e-15, gtol=1e-15)
    return found.x


def main(out):
    rng = random.Random(14)
    cases = []
    for number in range(60):
        count = 3 if number % 2 else 4
        points = np.array(MARKS[:count])
        x = [rng.uniform(-3, 3), rng.uniform(-3, 3), rng.uniform(-0.035, 0.035), rng.uniform(0.995, 1.005), rng.uniform(0.995, 1.005)]
        seen = placed(x, points) + np.array([[rng.gauss(0, 0.05), rng.gauss(0, 0.05)] for _ in range(count)])
        own = fitted(points, seen, 5 if count == 3 else 6)
        cases.append({"seen": seen.tolist(), "places": placed(own, points).tolist(), "turn": float(np.degrees(own[2]))})
    table = {"by": f"scipy {version('scipy')}", "marks": MARKS, "cases": cases}
    with open(out, "w", encoding="utf-8") as file:
        json.dump(table, file, indent=1)
        file.write("\n")


main(sys.argv[1])
