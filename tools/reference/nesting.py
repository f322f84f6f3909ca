"""Compares nesting with spyrrow at equal time on the same machine.

    python tools/reference/nesting.py NEST_SET OUT.md [SECONDS]

NEST_SET is the release build of the example `nest_set`. Two questions are put to both: what length of a
strip does a set take, and how many copies of one shape go onto a window. spyrrow only packs strips, so for
the second it is asked for the length of n copies, for more and more n, each with the same time. The search is
random on both sides, so lengths are medians of three seeds; so are Aptum's counts.
"""

import datetime
import json
import math
import os
import platform
import random
import statistics
import subprocess
import sys
import tempfile
from importlib.metadata import version

import spyrrow


def regular(n, r):
    return [(r * math.cos(2 * math.pi * i / n), r * math.sin(2 * math.pi * i / n)) for i in range(n)]


def carton(length, width, height, tuck=14.0, glue=12.0):
    """A straight-tuck carton as one outline, its panels in a row."""
    x, w, d = glue, length, width
    points = [(0, height * 0.08), (glue, 0)]
    points += [(x, -d), (x + 3, -d - tuck), (x + w - 3, -d - tuck), (x + w, -d), (x + w, 0)]
    x += w
    points += [(x + 2, -d * 0.6), (x + d - 2, -d * 0.6), (x + d, 0)]
    x += d
    points += [(x + w, 0)]
    x += w
    points += [(x + 2, -d * 0.6), (x + d - 2, -d * 0.6), (x + d, 0), (x + d, height)]
    points += [(x + d - 2, height + d * 0.6), (x + 2, height + d * 0.6), (x, height)]
    points += [(x - w, height), (x - w - 2, height + d * 0.6), (x - w - d + 2, height + d * 0.6)]
    x = glue + w
    points += [(x, height), (x, height + d), (x - 3, height + d + tuck), (glue + 3, height + d + tuck)]
    points += [(glue, height + d), (glue, height), (0, height * 0.92)]
    return points


def arch(width, height):
    r = width / 2
    top = [(r - r * math.cos(math.pi * i / 12), r - r * math.sin(math.pi * i / 12)) for i in range(13)]
    return top + [(width, height), (0, height)]


def tee(a, b, t):
    return [(0, 0), (a, 0), (a, t), ((a + t) / 2, t), ((a + t) / 2, b), ((a - t) / 2, b), ((a - t) / 2, t), (0, t)]


def ell(a, b, t):
    return [(0, 0), (a, 0), (a, t), (t, t), (t, b), (0, b)]


def swallow(width, height):
    return [(0, 0), (width, 0), (width, height), (width / 2, height - width * 0.45), (0, height)]


def blob(rng, radius):
    n = rng.randint(8, 14)
    return [
        (radius * rng.uniform(0.45, 1.0) * math.cos(2 * math.pi * i / n),
         radius * rng.uniform(0.45, 1.0) * math.sin(2 * math.pi * i / n))
        for i in range(n)
    ]


def mixed(rng):
    """Thirty pieces of six shapes, five of each, their sizes drawn."""
    u = rng.uniform
    return [
        (carton(u(24, 40), u(12, 20), u(36, 60), tuck=10, glue=9), 5), (arch(u(24, 44), u(50, 90)), 5),
        (swallow(u(20, 34), u(70, 110)), 5), (regular(rng.randint(5, 9), u(12, 22)), 5),
        (tee(u(40, 60), u(30, 50), u(9, 14)), 5), (blob(rng, u(16, 30)), 5),
    ]


rng = random.Random(7)
QUARTERS = [0.0, 90.0, 180.0, 270.0]
SETS = {
    "spring table, 40 pieces": (190.0, 2.0, [
        (carton(38, 18, 60), 6), (arch(38, 72), 10), (swallow(30, 90), 8), (regular(32, 17), 10), (tee(50, 44, 14), 6),
    ]),
    "40 irregular shapes": (200.0, 0.0, [(blob(rng, rng.uniform(14, 32)), 1) for _ in range(40)]),
    "ells and tees, 40 pieces": (180.0, 1.0, [
        (ell(60, 40, 14), 10), (ell(36, 52, 10), 10), (tee(56, 40, 12), 10), (tee(34, 34, 10), 10),
    ]),
    "30 mixed pieces, one draw": (200.0, 2.0, mixed(random.Random(30))),
    "30 mixed pieces, another": (260.0, 1.0, mixed(random.Random(31))),
    "30 mixed pieces, a third": (180.0, 3.0, mixed(random.Random(32))),
}
WINDOW = (190.0, 260.0)
COPIES = {
    "carton 38 × 18 × 60": (carton(38, 18, 60), 2.0),
    "tee 50 × 44": (tee(50, 44, 14), 2.0),
    "ell 60 × 40": (ell(60, 40, 14), 2.0),
    "swallow-tailed bookmark 30 × 90": (swallow(30, 90), 2.0),
    "round of 38.1": (regular(60, 19.05), 1.0),
    "triangle of 48": (regular(3, 28), 2.0),
}


def turned(points):
    return [(-y, x) for x, y in points]


SEEDS = (1, 2, 3)


def strip(width, spacing, items, seconds, seed=1):
    parts = [
        spyrrow.Item(str(at), turned(points), demand=wanted, allowed_orientations=QUARTERS)
        for at, (points, wanted) in enumerate(items)
    ]
    config = spyrrow.StripPackingConfig(
        early_termination=False, total_computation_time=seconds, num_workers=2, seed=seed,
        min_items_separation=spacing if spacing > 0 else None,
    )
    # Its separation also holds from the strip's sides; ours does not.
    instance = spyrrow.StripPackingInstance("set", width + spacing, parts)
    return instance.solve(config).width


def ours(binary, width, height, spacing, items, seconds, seed=1):
    with tempfile.NamedTemporaryFile("w", suffix=".json", delete=False) as file:
        json.dump({
            "width": width, "height": height, "spacing": spacing, "turns": QUARTERS,
            "items": [{"points": points, "wanted": wanted} for points, wanted in items],
        }, file)
    try:
        done = subprocess.run([binary, file.name, str(seconds), str(seed)], capture_output=True, text=True, check=True)
    finally:
        os.unlink(file.name)
    return json.loads(done.stdout)


def main():
    binary, out = sys.argv[1:3]
    seconds = int(sys.argv[3]) if len(sys.argv) > 3 else 10
    lines = [
        "# Nesting against spyrrow",
        "",
        f"spyrrow {version('spyrrow')} with two workers and Aptum's `nest_set` example, {seconds} s each, quarter turns, "
        f"one after the other, medians of the seeds {SEEDS}, on {os.cpu_count()} cores ({platform.machine()}), {datetime.date.today()}. Made by "
        "`tools/reference/nesting.py`; shapes are the script's own.",
        "",
        "## Length that a set takes, mm",
        "",
        "| set | width | spacing | spyrrow | Aptum | difference | first layout after |",
        "|---|---:|---:|---:|---:|---:|---:|",
    ]
    for name, (width, spacing, items) in SETS.items():
        theirs = statistics.median(strip(width, spacing, items, seconds, seed) - spacing for seed in SEEDS)
        runs = [ours(binary, width, 4000.0, spacing, items, seconds, seed) for seed in SEEDS]
        assert all(sum(run["missing"]) == 0 and run["sheets"] == 1 for run in runs)
        length = statistics.median(run["feet"][0] for run in runs)
        found = max(runs, key=lambda run: run["first_after"])
        lines.append(
            f"| {name} | {width:g} | {spacing:g} | {theirs:.1f} | {length:.1f} | {100 * (length / theirs - 1):+.1f} % "
            f"| {1000 * found['first_after']:.0f} ms |"
        )
        print(lines[-1], flush=True)
    lines += [
        "",
        f"## Copies on a window of {WINDOW[0]:g} × {WINDOW[1]:g} mm",
        "",
        "| shape | spacing | spyrrow | Aptum |",
        "|---|---:|---:|---:|",
    ]
    for name, (points, spacing) in COPIES.items():
        runs = [ours(binary, *WINDOW, spacing, [(points, 400)], seconds, seed) for seed in SEEDS]
        found = statistics.median(run["on_first"] for run in runs)
        # From a little below what was found, upwards, until a count takes more than the window.
        count = max(1, found - 2)
        while strip(WINDOW[0], spacing, [(points, count)], seconds) - spacing <= WINDOW[1]:
            count += 1
        while count > 1 and count <= max(1, found - 2):
            count -= 1
            if strip(WINDOW[0], spacing, [(points, count)], seconds) - spacing <= WINDOW[1]:
                count += 1
                break
        lines.append(f"| {name} | {spacing:g} | {count - 1} | {found} |")
        print(lines[-1], flush=True)
    with open(out, "w", encoding="utf-8") as file:
        file.write("\n".join(lines) + "\n")


if __name__ == "__main__":
    main()
