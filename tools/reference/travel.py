"""Travel of the tool against LKH (elkai): sheets of the demo's cartons as open lines, and segments at random.

LKH knows neither which line comes first nor closed lines that may begin anywhere: lines are open here, and none comes
before another by rule. A line is two places whose way is free; all other ways cost a large number more, so that the
shortest tour takes every line from end to end. Usage: travel.py PROGRAM OUT
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


def ours(program, start, lines):
    asked = json.dumps({"from": start, "lines": lines})
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


main()
