"""Times of general-purpose libraries on what `cargo bench` measures in core: the outline of a picture of twelve megapixels
(OpenCV) and the border of an outline of ten thousand nodes (Clipper). Prints medians."""

import math
import statistics
import time

import cv2
import numpy
import pyclipper


def blot():
    """The picture of the bench: a blot in the middle of a light ground with a grain."""
    width, height = 4000, 3000
    at = numpy.arange(width * height, dtype=numpy.uint64)
    x = (at % width).astype(float) - 2000.0
    y = (at // width).astype(float) - 1500.0
    grain = ((at * numpy.uint64(2_654_435_761)) >> numpy.uint64(7) & numpy.uint64(7)).astype(numpy.uint8)
    inside = (x / 1400.0) ** 2 + (y / 1000.0) ** 2 < 1.0 + 0.1 * numpy.sin(x / 90.0)
    pixels = numpy.empty((width * height, 3), numpy.uint8)
    for channel, (ink, ground) in enumerate([(40, 244), (110, 240), (60, 232)]):
        pixels[:, channel] = numpy.where(inside, ink, ground)
    pixels[:, 1] += grain
    pixels[:, 0] += numpy.where(inside, 0, grain).astype(numpy.uint8)
    return pixels.reshape(height, width, 3)


def outline(pixels):
    """What differs from the ground, its outer contours, and these in few corners half a pixel off at most."""
    apart = cv2.absdiff(pixels, numpy.full_like(pixels, pixels[0, 0])).max(axis=2)
    _, inside = cv2.threshold(apart, 0, 255, cv2.THRESH_BINARY + cv2.THRESH_OTSU)
    found, _ = cv2.findContours(inside, cv2.RETR_CCOMP, cv2.CHAIN_APPROX_NONE)
    return [cv2.approxPolyDP(own, 0.5, True) for own in found]


def ring(jagged):
    """The outlines of the benches, 100 mm across, in micrometres."""
    points = []
    for at in range(10_000):
        angle = at / 10_000.0 * math.tau
        reach = 45.0 + 3.0 * math.sin(9.0 * angle) + 0.2 * math.sin(140.0 * angle)
        if jagged:
            reach += ((at * 2_654_435_761 >> 7) & 7) / 10.0
        points.append((round(1000 * (50 + reach * math.cos(angle))), round(1000 * (50 + reach * math.sin(angle)))))
    return points


def border(points):
    """Two millimetres around, round at corners, arcs within two micrometres."""
    own = pyclipper.PyclipperOffset(arc_tolerance=2.0)
    own.AddPath(points, pyclipper.JT_ROUND, pyclipper.ET_CLOSEDPOLYGON)
    return own.Execute(2000)


def show(what, act, times=12):
    took = []
    for _ in range(times):
        since = time.perf_counter()
        act()
        took.append(time.perf_counter() - since)
    print(f"{what:<48} {1000 * statistics.median(took):9.1f} ms")


def main():
    pixels = blot()
    show(f"OpenCV {cv2.__version__}, outline of 12 megapixels", lambda: outline(pixels))
    for name, jagged in [("wavy", False), ("jagged", True)]:
        points = ring(jagged)
        show(f"Clipper, border of 10,000 nodes, {name}", lambda: border(points))


main()
