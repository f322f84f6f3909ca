"""Pictures to trace with what is true of them, and borders as shapely and pyclipper draw them.

Usage: tracing.py FOLDER BORDERS: the folder of the reference tables of crates/formats, which gets the pictures too, and
the table of borders. `make reference` does it. Needs shapely, pyclipper, scikit-image and Pillow.
"""

import io
import json
import math
import pathlib
import random
import sys

import numpy
import pyclipper
import shapely
import skimage
from PIL import Image
from shapely.geometry import Point, Polygon
from skimage import data, filters, measure

# Sub-rows at whose middles a pixel's coverage is measured; along them it is exact.
ROWS = 32


def rings(shape):
    parts = shape.geoms if hasattr(shape, "geoms") else [shape]
    return [numpy.array(ring.coords) for part in parts for ring in [part.exterior, *part.interiors]]


def coverage(shape, side):
    """The share of each pixel that a shape covers."""
    lines = numpy.vstack([numpy.hstack([ring[:-1], ring[1:]]) for ring in rings(shape)])
    out = numpy.zeros((side, side))
    for row in range(side):
        for sub in range(ROWS):
            y = row + (sub + 0.5) / ROWS
            own = lines[(lines[:, 1] > y) != (lines[:, 3] > y)]
            hits = numpy.sort(own[:, 0] + (y - own[:, 1]) * (own[:, 2] - own[:, 0]) / (own[:, 3] - own[:, 1]))
            for start, end in hits.reshape(-1, 2):
                first, last = int(start), int(end)
                if first == last:
                    out[row, first] += end - start
                else:
                    out[row, first] += first + 1 - start
                    out[row, first + 1 : last] += 1
                    out[row, last] += end - last
    return out / ROWS


def star(count, outer, inner, at, turn):
    radii = [outer if index % 2 == 0 else inner for index in range(2 * count)]
    angles = [turn + index * math.pi / count for index in range(2 * count)]
    return Polygon([(at[0] + r * math.cos(a), at[1] + r * math.sin(a)) for r, a in zip(radii, angles)])


def gear(count, outer, inner, at, turn):
    points = []
    for tooth in range(count):
        for share, radius in ((0, inner), (0.08, outer), (0.42, outer), (0.5, inner)):
            angle = turn + 2 * math.pi * (tooth + share) / count
            points.append((at[0] + radius * math.cos(angle), at[1] + radius * math.sin(angle)))
    return Polygon(points)


def shapes(side):
    """Name, shape, corners."""
    middle = (side / 2 + 0.2, side / 2 + 0.1)
    disc = Point(middle).buffer(side * 0.45, quad_segs=120)
    yield "circle", disc, 0
    yield "ring", disc.difference(Point(side / 2, side / 2).buffer(side * 0.3, quad_segs=120)), 0
    yield "ellipse", shapely.affinity.rotate(shapely.affinity.scale(disc, 1, 0.4), 33), 0
    yield "star", star(5, side * 0.47, side * 0.2, middle, 0.13), 10
    yield "burst", star(12, side * 0.47, side * 0.36, middle, 0.13), 24
    yield "thorns", star(9, side * 0.47, side * 0.165, middle, 0.13), 18
    # Two circles that meet at 30°.
    angle = math.radians(15)
    radius, apart = side * 0.45 / math.sin(angle), side * 0.45 / math.tan(angle)
    one, other = (Point(middle[0], middle[1] + way * apart).buffer(radius, quad_segs=500) for way in (1, -1))
    yield "leaf", shapely.affinity.rotate(one.intersection(other), 21), 2
    yield "gear", gear(10, side * 0.47, side * 0.36, middle, 0.07), 40
    corners = [(-0.3, -0.3), (0.3, -0.3), (0.3, 0.3), (-0.3, 0.3)]
    square = Polygon([(middle[0] + x * side, middle[1] + y * side) for x, y in corners])
    yield "square", shapely.affinity.rotate(square, 11.3), 4


def coded(pixels, kind, quality=None):
    out = io.BytesIO()
    Image.fromarray(pixels).save(out, kind, **({"quality": quality} if quality else {"optimize": True}))
    return out.getvalue()


def pictures(folder):
    cases = []
    for side in (112, 300):
        for name, shape, corners in shapes(side):
            covered = coverage(shape, side)
            case = {"name": name, "side": side, "area": shape.area, "holes": len(shape.interiors), "corners": corners}
            case["outline"] = [[round(x, 4), round(y, 4)] for x, y in shape.exterior.coords[:-1]]
            clear = numpy.zeros((side, side, 4), numpy.uint8)
            clear[..., :3] = (40, 60, 50)
            clear[..., 3] = numpy.round(covered * 255)
            noisy = 245 + covered[..., None] * (numpy.array((60, 90, 70)) - 245)
            noisy = noisy + numpy.random.default_rng(side).normal(0, 7, noisy.shape)
            noisy = numpy.clip(numpy.round(noisy), 0, 255).astype(numpy.uint8)
            for sort, bytes_ in (("clear.png", coded(clear, "PNG")), ("noisy.jpg", coded(noisy, "JPEG", 75))):
                file = f"{name}-{side}-{sort}"
                (folder / "traced" / file).write_bytes(bytes_)
                cases.append({**case, "file": file, "is_clean": sort == "clear.png"})
    return cases


def found(folder):
    """Pictures that scikit-image ships: what is dark, as its threshold has it, and how many points its contours take."""
    cases = []
    sources = {"horse": numpy.where(data.horse(), 255, 0).astype(numpy.uint8), "clock": data.clock(), "coins": 255 - data.coins()}
    for name, grey in sources.items():
        (folder / "traced" / f"{name}.png").write_bytes(coded(grey, "PNG"))
        threshold = filters.threshold_otsu(grey) if name != "horse" else 127
        mask = grey <= threshold
        points = sum(len(line) for line in measure.find_contours(mask.astype(float), 0.5))
        cases.append({"file": f"{name}.png", "threshold": int(threshold), "inside": int(mask.sum()), "points": points})
    return cases


def borders():
    """Random areas, grown and shrunk."""
    draw = random.Random(11)
    cases = []
    while len(cases) < 200:
        parts = []
        for _ in range(draw.randint(1, 5)):
            at = draw.uniform(0, 70), draw.uniform(0, 70)
            count = draw.randint(3, 12)
            ring = []
            for index in range(count):
                angle, reach = 2 * math.pi * index / count, draw.uniform(4, 14)
                ring.append((at[0] + reach * math.cos(angle), at[1] + reach * math.sin(angle)))
            parts.append(Polygon(ring).buffer(0))
        area = shapely.set_precision(shapely.unary_union(parts), 1e-4)
        if hasattr(area, "geoms") and any(part.area < 1 for part in area.geoms):
            continue
        distance = round(draw.uniform(-2, 8), 3)
        grown = area.buffer(distance, quad_segs=64)
        offset = pyclipper.PyclipperOffset(arc_tolerance=0.001 * 2**20)
        offset.AddPaths(
            [[(round(x * 2**20), round(y * 2**20)) for x, y in ring[:-1]] for ring in rings(area)],
            pyclipper.JT_ROUND,
            pyclipper.ET_CLOSEDPOLYGON,
        )
        clipped = offset.Execute(distance * 2**20)
        count = lambda shape: 0 if shape.is_empty else len(getattr(shape, "geoms", [shape]))
        # The least distance at which all are one, by bisection.
        low, high = 0.0, 60.0
        if count(area) > 1:
            for _ in range(40):
                middle = (low + high) / 2
                if count(area.buffer(middle, quad_segs=64)) > 1:
                    low = middle
                else:
                    high = middle
        cases.append(
            {
                "rings": [
                    [[[round(x, 6), round(y, 6)] for x, y in ring.coords[:-1]] for ring in [part.exterior, *part.interiors]]
                    for part in getattr(area, "geoms", [area])
                ],
                "distance": distance,
                "area": grown.area,
                "clipped": abs(sum(pyclipper.Area(path) for path in clipped)) / 2**40,
                "outlines": count(grown),
                "one_from": high if count(area) > 1 else None,
            }
        )
    return cases


def main(folder, table):
    (folder / "traced").mkdir(exist_ok=True)
    told = {"scikit_image": skimage.__version__, "drawn": pictures(folder), "found": found(folder)}
    (folder / "tracing.json").write_text(json.dumps(told) + "\n")
    told = {"shapely": shapely.__version__, "pyclipper": pyclipper.__version__, "cases": borders()}
    table.write_text(json.dumps(told) + "\n")


main(pathlib.Path(sys.argv[1]), pathlib.Path(sys.argv[2]))
