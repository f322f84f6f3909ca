"""Reference tables from general-purpose libraries, read by the tests of crates/formats.

Usage: tables.py FOLDER TABLE, where FOLDER holds what `cargo run -p aptum-formats --example
reference_files` wrote. `make reference` does both. Needs trimesh, scipy, shapely and ezdxf.
"""

import json
import math
import pathlib
import sys

import ezdxf
import ezdxf.path
import numpy
import shapely
import trimesh


def solid(vertices):
    """Area, volume and the turns from face to face of the convex hull of some corners."""
    hull = trimesh.Trimesh(vertices=vertices, process=False).convex_hull
    turns = [math.degrees(angle) for angle in hull.face_adjacency_angles if angle > 1e-6]
    turns = sorted({round(turn, 6) for turn in turns})
    return {"area": hull.area, "volume": hull.volume, "turns": turns}


def ring(sides, side, height):
    radius = side / 2 / math.sin(math.pi / sides)
    turns = [2 * math.pi * k / sides for k in range(sides)]
    return [[radius * math.cos(a), radius * math.sin(a), height] for a in turns]


def solids():
    golden = (1 + math.sqrt(5)) / 2
    signs = (-1, 1)
    cube = [[x, y, z] for x in signs for y in signs for z in signs]
    dodecahedron = cube + [
        corner
        for x in signs
        for y in signs
        for corner in (
            [0, x / golden, y * golden],
            [x / golden, y * golden, 0],
            [x * golden, 0, y / golden],
        )
    ]
    octahedron = [[s * (k == axis) for k in range(3)] for s in signs for axis in range(3)]
    unit = {
        "tetrahedron": ([[1, 1, 1], [1, -1, -1], [-1, 1, -1], [-1, -1, 1]], 2 * math.sqrt(2)),
        "cube": (cube, 2),
        "octahedron": (octahedron, math.sqrt(2)),
        "dodecahedron": (dodecahedron, 2 / golden),
        "icosahedron": (trimesh.creation.icosahedron().vertices.tolist(), None),
    }
    table = []
    for name, (corners, edge) in unit.items():
        corners = numpy.array(corners, dtype=float)
        if edge is None:
            apart = numpy.linalg.norm(corners[:, None] - corners[None, :], axis=2)
            edge = apart[apart > 1e-6].min()
        table.append({"structure": name, "figures": {"edge": 50.0}, **solid(corners * 50.0 / edge)})
    for sides in (3, 4, 5, 6, 8, 12):
        figures = {"sides": sides, "side": 40.0, "height": 70.0}
        prism = ring(sides, 40.0, 0) + ring(sides, 40.0, 70.0)
        table.append({"structure": "prism-net", "figures": figures, **solid(prism)})
        pyramid = ring(sides, 40.0, 0) + [[0, 0, 70.0]]
        table.append({"structure": "pyramid-net", "figures": figures, **solid(pyramid)})
        wide = 40.0 + 2 * 70.0 * math.tan(math.radians(12)) * math.tan(math.pi / sides)
        cup = ring(sides, 40.0, 0) + ring(sides, wide, 70.0)
        figures = {**figures, "flare": 12.0}
        table.append({"structure": "cup", "figures": figures, **solid(cup)})
    return table


def flats(folder):
    table = {}
    for name, rings in json.loads((folder / "outlines.json").read_text()).items():
        polygons = [shapely.Polygon(ring) for ring in rings]
        table[name] = {
            "valid": all(polygon.is_valid for polygon in polygons),
            "areas": [polygon.area for polygon in polygons],
            "perimeters": [polygon.length for polygon in polygons],
        }
    return table


def drawings(folder):
    table = {}
    for file in sorted(folder.glob("*.dxf")):
        document = ezdxf.readfile(file)
        auditor = document.audit()
        fixes = [fix.message for fix in auditor.fixes]
        lengths = {}
        for entity in document.modelspace():
            path = ezdxf.path.make_path(entity)
            points = list(path.flattening(0.001))
            length = sum((b - a).magnitude for a, b in zip(points, points[1:]))
            lengths[entity.dxf.layer] = lengths.get(entity.dxf.layer, 0.0) + length
        table[file.stem] = {
            "errors": len(auditor.errors),
            "fixes": len(fixes),
            "insunits": document.header["$INSUNITS"],
            "lengths": lengths,
        }
    return table


def main():
    folder, target = pathlib.Path(sys.argv[1]), pathlib.Path(sys.argv[2])
    versions = {
        "trimesh": trimesh.__version__,
        "shapely": shapely.__version__,
        "ezdxf": ezdxf.__version__,
        "numpy": numpy.__version__,
    }
    tables = {
        "made with": versions,
        "solids": solids(),
        "flats": flats(folder),
        "drawings": drawings(folder),
    }
    target.write_text(json.dumps(tables, indent=1, sort_keys=True) + "\n")


if __name__ == "__main__":
    main()
