"""Advances of shaped words from HarfBuzz, read by the tests of crates/core.

Usage: shaping.py FONTS TABLE, where FONTS is crates/core/fonts. `make reference` runs it. Needs uharfbuzz.
"""

import json
import pathlib
import sys

import uharfbuzz as harfbuzz

# Typeface of the shelf, its file, and words: kerning, ligatures, accents, from right to left, other scripts.
WORDS = [
    ("plain", "AtkinsonHyperlegibleNext-Regular", ["AVAVA To Ty", "Seed bulbs"]),
    ("sturdy", "Rubik-Medium", ["Wave", "שלום", "זרעים לאביב", "Семена", "مرحبا"]),
    ("round", "Fredoka-SemiBold", ["Tomato", "זרעים"]),
    ("narrow", "BarlowCondensed-SemiBold", ["Sow thinly, in sun"]),
    ("bookish", "Lora-Regular", ["AVATAR", "Tomate früh", "Семена"]),
    ("fine", "CormorantGaramond-SemiBold", ["office waffle fjord", "Th"]),
    ("slab", "ZillaSlab-SemiBold", ["fluffy fig"]),
    ("poster", "AbrilFatface-Regular", ["Seed bulbs", "AV"]),
    ("typed", "CourierPrime-Regular", ["WWW iii"]),
    ("hand", "PatrickHand-Regular", ["plant by October"]),
    ("tall-hand", "AmaticSC-Bold", ["BEETROOT"]),
    ("script", "DancingScript-Bold", ["for you", "When to sow"]),
    ("stencil", "SairaStencilOne-Regular", ["LOT 42"]),
]


def advance(font, words):
    """The advance in ems."""
    buffer = harfbuzz.Buffer()
    buffer.add_str(words)
    buffer.guess_segment_properties()
    harfbuzz.shape(font, buffer)
    return sum(place.x_advance for place in buffer.glyph_positions) / font.face.upem


def main(fonts, table):
    rows = []
    for typeface, name, words in WORDS:
        face = harfbuzz.Face(harfbuzz.Blob.from_file_path(str(fonts / f"{name}.ttf")))
        font = harfbuzz.Font(face)
        rows += [{"typeface": typeface, "words": word, "advance": advance(font, word)} for word in words]
    made_with = f"HarfBuzz {harfbuzz.version_string()}, uharfbuzz {harfbuzz.__version__}"
    text = json.dumps({"made_with": made_with, "rows": rows}, indent=2, ensure_ascii=False)
    table.write_text(text + "\n")


main(pathlib.Path(sys.argv[1]), pathlib.Path(sys.argv[2]))
