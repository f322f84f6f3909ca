"""Travel of the tool against LKH (elkai): sheets of the demo's cartons as open lines, and segments at random.

LKH knows neither which line comes first nor closed lines that may begin anywhere: lines are open there, and none comes
before another by rule. Sheets where what lies inside comes before what goes around it are held against the best of ten
runs of Aptum's own, each ten times as long. A line is two places whose way is free; all other ways cost a large number
more, so that the shortest tour takes every line from end to end. Usage: travel.py PROGRAM OUT
"""

import json
import math
import random
import subprocess
import sys
from importlib.metadata import version

import elkai

FAR = 2_000
SCALE = 100  # LKH counts in whole numbers: hundredths of a millimetre.


def ours(program, start, lines, runs=0):
    asked = json.dumps({"from": start, "lines": lines, "runs": runs})
    done = subprocess.run([program], input=asked, capture_output=True, text=True, check=True)
    return json.loads(done.stdout)


def lkh(start, lines, runs):
    places = [p for line in lines for p in (line[0], line[-1])]
    count = len(places) + 2  # the start, and a place beside it through which the tour closes
    way = [[0] * count for _ in range(count)]
    for a in range(count):
        for b in range(a + 1, count):
            if a == 0 and b == 1:
                cost = 0
            elif a == 0:
                cost = FAR * SCALE  # from the last line back: free
            elif a == 1:
                cost = FAR * SCALE + round(SCALE * math.dist(start, places[b - 2]))
            elif a % 2 == 0 and b == a + 1:
                cost = 0
            else:
                cost = FAR * SCALE + round(SCALE * math.dist(places[a - 2], places[b - 2]))
            way[a][b] = way[b][a] = cost
    tour = elkai.DistanceMatrix(way).solve_tsp(runs=runs)
    total = sum(way[a][b] for a, b in zip(tour, tour[1:]))
    return (total - (len(lines) + 1) * FAR * SCALE) / SCALE


def sheets(dice):
    """Creases and cut-up outlines of cartons in rows and columns, each sheet another."""
    for number in range(30):
        side, depth, height = (dice.uniform(15, 40) for _ in range(3))
        across, down = dice.randint(1, 4), dice.randint(1, 5)
        lines = []
        for column in range(across):
            for row in range(down):
                x, y = column * (2 * (side + depth) + 14), row * (height + 2 * depth + 6)
                edges = [0, side, side + depth, 2 * side + depth, 2 * (side + depth)]
                lines += [[[x + e, y], [x + e, y + height]] for e in edges]
                for a, b in zip(edges, edges[1:]):
                    lines += [[[x + a, y], [x + b, y]], [[x + b, y + height], [x + a, y + height]]]
                    flap = dice.uniform(0.5, 1.0) * depth
                    lines.append([[x + a, y], [x + a + 1, y - flap], [x + b - 1, y - flap], [x + b, y]])
        yield f"sheet {number + 1}", lines


def ring(x, y, width, height):
    return [[x, y], [x + width, y], [x + width, y + height], [x, y + height], [x, y]]


def nested(dice):
    """Pieces with windows, and holes in these' pieces: closed lines, what is inside first. With the lines, for each line
    those around it."""
    for number in range(12):
        across, down = dice.randint(2, 6), dice.randint(2, 7)
        lines, around = [], []
        for column in range(across):
            for row in range(down):
                x, y = column * 32 + dice.uniform(0, 2), row * 38 + dice.uniform(0, 2)
                outer = len(lines)
                lines.append(ring(x, y, 28, 34))
                around.append([])
                for window in range(dice.randint(0, 3)):
                    left, top = x + 2 + 8 * window, y + dice.uniform(2, 12)
                    middle = len(lines)
                    lines.append(ring(left, top, 7, 16))
                    around.append([outer])
                    if dice.random() < 0.5:
                        lines.append(ring(left + 2, top + 3, 2.5, 2.5))
                        around.append([outer, middle])
        mixed = list(range(len(lines)))
        dice.shuffle(mixed)
        place = {old: new for new, old in enumerate(mixed)}
        yield f"nested {number + 1}", [lines[at] for at in mixed], [[place[o] for o in around[at]] for at in mixed]


def main():
    program, out = sys.argv[1:3]
    dice = random.Random(20261129)
    rows = []
    for name, lines in sheets(dice):
        rows.append((name, lines))
    for number in range(3):
        place = lambda: [dice.uniform(0, 200), dice.uniform(0, 280)]
        rows.append((f"500 segments at random, {number + 1}", [[place(), place()] for _ in range(500)]))
    told = []
    for name, lines in rows:
        start = [0.0, 0.0]
        own = ours(program, start, lines)
        best = lkh(start, lines, 1 if len(lines) > 300 else 3)
        assert sorted(own["order"]) == list(range(len(lines)))
        told.append((name, len(lines), best, own["travel"], own["travel"] / best, own["ms"]))
        print(f"{name}: {len(lines)} lines, {best:.0f}, {own['travel']:.0f}, {own['travel'] / best:.4f}, {own['ms']:.0f} ms", flush=True)
    ratios = [row[4] for row in told]
    with open(out, "w", encoding="utf-8") as text:
        text.write("# Travel of the tool against LKH\n\n")
        text.write(
            f"elkai {version('elkai')} (LKH) and Aptum's `order_lines` example, lines open and in no order by rule, from the "
            f"sheet's corner. Made by `tools/reference/travel.py`; the lines are the script's own. At most {max(ratios):.3f} "
            f"times as long, {sum(ratios) / len(ratios):.3f} on average.\n\n"
        )
        text.write("| what | lines | LKH, mm | Aptum, mm | ratio | ms |\n|---|---:|---:|---:|---:|---:|\n")
        for name, count, best, own, ratio, ms in told:
            text.write(f"| {name} | {count} | {best:.0f} | {own:.0f} | {ratio:.4f} | {ms:.0f} |\n")
        within(program, text)


def within(program, text):
    rows = []
    for name, lines, around in nested(random.Random(20261130)):
        own = ours(program, [0.0, 0.0], lines, runs=10)
        place = {line: at for at, line in enumerate(own["order"])}
        assert sorted(place) == list(range(len(lines)))
        assert all(place[line] < place[outer] for line, outers in enumerate(around) for outer in outers)
        rows.append((name, len(lines), own["best"], own["travel"], own["travel"] / own["best"], own["ms"]))
        print(f"{name}: {len(lines)} lines, {own['best']:.0f}, {own['travel']:.0f}, {own['travel'] / own['best']:.4f}", flush=True)
    ratios = [row[4] for row in rows]
    text.write(
        "\n## What is inside first\n\nClosed lines within others, each worked before what goes around it (looked at by the "
        "script), against the best of ten runs with other seeds and ten times the work. At most "
        f"{max(ratios):.3f} times as long, {sum(ratios) / len(ratios):.3f} on average.\n\n"
    )
    text.write("| what | lines | best of ten, mm | Aptum, mm | ratio | ms |\n|---|---:|---:|---:|---:|---:|\n")
    for name, count, best, own, ratio, ms in rows:
        text.write(f"| {name} | {count} | {best:.0f} | {own:.0f} | {ratio:.4f} | {ms:.0f} |\n")


main()
