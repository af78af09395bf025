"""Pages read back to be measured."""

import re
import xml.etree.ElementTree as ET

import pytest


def _svg_points(path):
    """Return the corner points of every drawn path of an SVG, in mm, with transforms applied."""
    root = ET.parse(path).getroot()
    width = float(re.match(r"[\d.]+", root.get("width"))[0])
    assert root.get("width").endswith("mm")
    per_mm = float(root.get("viewBox").split()[2]) / width
    found = []

    def walk(node, matrix):
        a, b, c, d, e, f = matrix
        moved = re.match(r"matrix\(([^)]*)\)", node.get("transform", ""))
        if moved:
            p, q, r, s, t, u = (float(x) for x in re.split(r"[ ,]+", moved[1].strip()))
            matrix = (a * p + c * q, b * p + d * q, a * r + c * s, b * r + d * s, a * t + c * u + e, b * t + d * u + f)
        text = node.get("points") or (node.get("d") if "C" not in node.get("d", "C") else None)
        if text:
            numbers = [float(x) for x in re.findall(r"-?[\d.]+(?:e-?\d+)?", text)]
            a, b, c, d, e, f = matrix
            pairs = list(zip(numbers[::2], numbers[1::2], strict=False))
            found.append([((a * x + c * y + e) / per_mm, (b * x + d * y + f) / per_mm) for x, y in pairs])
        for child in node:
            walk(child, matrix)

    walk(root, (1, 0, 0, 1, 0, 0))
    return width, found


@pytest.fixture
def svg_points():
    """A function that gives a page's width and the corner points of every drawn path of an SVG, mm."""
    return _svg_points
