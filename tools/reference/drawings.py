"""Drawings by general libraries, and what these say is in them: the length by layer, the box around it, the count.

ezdxf writes and measures DXF; svgpathtools measures SVG. Usage: drawings.py OUT, a folder for the files and the table.
"""

import json
import math
import sys
from pathlib import Path

import ezdxf
from ezdxf.disassemble import recursive_decompose
import numpy as np
import svgpathtools

out = Path(sys.argv[1])
out.mkdir(parents=True, exist_ok=True)
table = {"ezdxf": ezdxf.__version__, "files": []}


def runs(entity):
    """Points on the entity itself, so fine that their distances are its length to a ten-thousandth."""
    kind = entity.dxftype()
    if kind in ("LWPOLYLINE", "POLYLINE"):
        for part in entity.virtual_entities():
            yield from runs(part)
    elif kind in ("CIRCLE", "ARC"):
        yield list(entity.flattening(1e-6))
    elif kind in ("ELLIPSE", "SPLINE"):
        yield list(entity.flattening(1e-6, 64))
    else:
        yield [entity.dxf.start, entity.dxf.end]


def told(doc, name, unit):
    """Length by layer and box in the file's units, from ezdxf's own finest flattening."""
    length = {}
    low, high = [math.inf] * 2, [-math.inf] * 2
    count = 0
    for entity in recursive_decompose(doc.modelspace()):
        if entity.dxftype() in ("TEXT", "MTEXT"):
            continue
        count += 1
        layer = entity.dxf.layer
        for points in runs(entity):
            length[layer] = length.get(layer, 0) + sum(a.distance(b) for a, b in zip(points, points[1:]))
            for point in points:
                for axis in (0, 1):
                    low[axis] = min(low[axis], point[axis])
                    high[axis] = max(high[axis], point[axis])
    table["files"].append(
        {
            "file": name,
            "unit": unit,
            "count": count,
            "length": {layer: round(own, 6) for layer, own in sorted(length.items())},
            "size": [round(high[axis] - low[axis], 6) for axis in (0, 1)],
        }
    )
    doc.saveas(out / name)


def everything(version, insunits, name, unit):
    doc = ezdxf.new(version)
    doc.header["$INSUNITS"] = insunits
    for layer, colour in (("Rand", 1), ("Falz", 5), ("Block", 3)):
        doc.layers.add(layer, color=colour)
    msp = doc.modelspace()
    own = {"layer": "Rand"}
    msp.add_line((0, 0), (40, 25), dxfattribs=own)
    msp.add_circle((60, 20), 15, dxfattribs=own)
    msp.add_arc((100, 20), 12, 350, 80, dxfattribs=own)
    msp.add_polyline2d([(0, 90), (30, 100), (60, 90)], dxfattribs=own)
    own = {"layer": "Falz"}
    if version != "R12":
        msp.add_ellipse((20, 60), (18, 6), 0.4, 0.3, 4.5, dxfattribs=own)
        msp.add_ellipse((60, 60), (0, 15), 0.5, dxfattribs=own)
        msp.add_lwpolyline(
            [(90, 50, 0.5), (120, 50, 0), (120, 80, -0.3), (90, 80, 1.0)], format="xyb", close=True, dxfattribs=own
        )
        msp.add_open_spline([(0, 120), (20, 150), (50, 100), (80, 140), (110, 120)], degree=3, dxfattribs=own)
        msp.add_rational_spline(
            [(120, 120), (140, 160), (170, 100), (190, 130)], weights=[1, 3, 0.5, 1], degree=3, dxfattribs=own
        )
    inner = doc.blocks.new("INNER", base_point=(2, 1))
    inner.add_line((0, 0), (10, 0), dxfattribs={"layer": "Block"})
    inner.add_arc((5, 0), 5, 0, 180, dxfattribs={"layer": "Block"})
    outer = doc.blocks.new("OUTER")
    outer.add_blockref("INNER", (3, 4), dxfattribs={"rotation": 30, "xscale": 2, "yscale": 2, "layer": "Block"})
    outer.add_lwpolyline([(0, 0), (8, 0), (8, 6)], dxfattribs={"layer": "Block"}) if version != "R12" else None
    msp.add_blockref("OUTER", (150, 20), dxfattribs={"rotation": 45, "layer": "Block"})
    msp.add_blockref("OUTER", (180, 60), dxfattribs={"xscale": -1.5, "yscale": 1.5, "layer": "Block"})
    # Seen from below: left and right change places.
    msp.add_circle((20, 200), 8, dxfattribs={"layer": "Rand", "extrusion": (0, 0, -1)})
    if version != "R12":
        msp.add_text("Fennel", dxfattribs={"layer": "Rand"})
    told(doc, name, unit)


everything("R2010", 4, "millimetres.dxf", 1.0)
everything("R2000", 1, "inches.dxf", 25.4)
everything("R2018", 0, "unitless.dxf", None)
everything("R12", 0, "old.dxf", None)

svgs = {
    "transforms.svg": """<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="100mm" height="80mm" viewBox="0 0 200 160">
<style>.f { stroke: #0000ff; fill: none }</style>
<defs><path id="leaf" d="M0 0C10 -10 30 -10 40 0S30 20 0 0z"/></defs>
<g id="Rand" fill="none" stroke="#ff0000"><rect x="10" y="10" width="60" height="40" rx="5"/>
<circle cx="120" cy="40" r="20"/><ellipse cx="170" cy="40" rx="20" ry="10" transform="rotate(20 170 40)"/></g>
<g id="Falz" class="f"><line x1="10" y1="80" x2="60" y2="120"/><polyline points="70,80 90,120 110,80"/>
<polygon points="120,80 150,80 135,120"/><path d="M10 130q20 -20 40 0t40 0a10 15 30 1 1 20 10"/></g>
<g id="Blatt" fill="none" stroke="#00aa00" transform="translate(120 140) scale(.5) skewX(20)"><use xlink:href="#leaf"/><use href="#leaf" x="50" transform="rotate(-15)"/></g>
</svg>""",
}
for name, text in svgs.items():
    (out / name).write_text(text)
    # svgpathtools flattens groups and their transforms; uses are resolved by hand.
    doc = svgpathtools.Document(str(out / name))
    length = {}
    boxes = []
    leaf = svgpathtools.parse_path("M0 0C10 -10 30 -10 40 0S30 20 0 0z")
    for layer in ("Rand", "Falz"):
        group = [node for node in doc.tree.iter() if node.get("id") == layer][0]
        own = svgpathtools.document.flattened_paths(group)
        length[layer] = sum(path.length(error=1e-7) for path in own)
        boxes += [path.bbox() for path in own]
    def matrix(*rows):
        return np.array(rows, float)
    skew = math.tan(math.radians(20))
    turn = math.radians(-15)
    to = matrix([1, 0, 120], [0, 1, 140], [0, 0, 1]) @ np.diag([0.5, 0.5, 1]) @ matrix([1, skew, 0], [0, 1, 0], [0, 0, 1])
    second = to @ matrix([math.cos(turn), -math.sin(turn), 0], [math.sin(turn), math.cos(turn), 0], [0, 0, 1]) @ matrix([1, 0, 50], [0, 1, 0], [0, 0, 1])
    leaves = [svgpathtools.path.transform(leaf, each) for each in (to, second)]
    length["Blatt"] = sum(path.length(error=1e-7) for path in leaves)
    boxes += [path.bbox() for path in leaves]
    size = [max(b[1] for b in boxes) - min(b[0] for b in boxes), max(b[3] for b in boxes) - min(b[2] for b in boxes)]
    # A unit of the view box is half a millimetre; the file's own units are pixels of 96 to the inch.
    pixel = 96 / 25.4 / 2
    table["files"].append({"file": name, "unit": 25.4 / 96, "count": None,
                           "length": {layer: round(own * pixel, 6) for layer, own in sorted(length.items())},
                           "size": [round(side * pixel, 6) for side in size]})
table["svgpathtools"] = __import__("importlib.metadata").metadata.version("svgpathtools")
(out / "drawings.json").write_text(json.dumps(table, indent=1) + "\n")
