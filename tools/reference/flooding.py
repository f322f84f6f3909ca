"""Backgrounds and specks as scikit-image finds them, on pictures that its package ships.

Usage: flooding.py FOLDER, the folder of the reference tables of crates/formats; it gets the pictures too.
`make reference` does it. Needs scikit-image.
"""

import hashlib
import json
import pathlib
import shutil
import sys

import numpy
import skimage
from skimage.morphology import remove_small_objects
from skimage.segmentation import flood

PICTURES = {"moon.png": [(10, 10), (256, 256), (400, 120)], "chessboard_RGB.png": [(3, 3), (60, 90), (199, 0)]}
TOLERANCES = [0, 4, 12, 40, 120]
SPECKS = [2, 30, 400]


def told(mask):
    """How many pixels, and the SHA-256 of a byte, 0 or 1, for each, row after row."""
    bytes_ = mask.astype(numpy.uint8).tobytes()
    return {"count": int(mask.sum()), "sha256": hashlib.sha256(bytes_).hexdigest()}


def main(folder):
    data = pathlib.Path(skimage.__file__).parent / "data"
    cases = []
    for name, seeds in PICTURES.items():
        shutil.copy(data / name, folder / name)
        pixels = skimage.io.imread(data / name).astype(int)
        pixels = pixels.reshape(*pixels.shape[:2], -1)[:, :, :3]
        for x, y in seeds:
            off = numpy.abs(pixels - pixels[y, x]).max(axis=2)
            for tolerance in TOLERANCES:
                case = {"picture": name, "seed": [x, y], "tolerance": tolerance}
                joined = flood(off, (y, x), tolerance=tolerance, connectivity=1)
                case["joined"] = told(joined)
                case["everywhere"] = told(off <= tolerance)
                case["specks"] = [
                    {"under": under, **told(remove_small_objects(~joined, max_size=under - 1, connectivity=2))}
                    for under in SPECKS
                ]
                cases.append(case)
    table = {"scikit_image": skimage.__version__, "cases": cases}
    (folder / "flooding.json").write_text(json.dumps(table, indent=1) + "\n")


main(pathlib.Path(sys.argv[1]))
