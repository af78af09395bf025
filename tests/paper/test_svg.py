"""SVG read back: the same page as the painter makes, its type whole and small."""

import re
import xml.etree.ElementTree as ET

import pytest
from PySide6.QtCore import QByteArray
from PySide6.QtGui import QColor, QImage, QPainter
from PySide6.QtSvg import QSvgRenderer

from nullah.core.drawing import Dimension, Fill, Label, Ring, Role, drawing, line, rectangle
from nullah.core.plan import work_out
from nullah.core.sheets.page import Sheet
from nullah.core.sheets.sheets import all_sheets
from nullah.demo.seed_box import seed_box
from nullah.demo.seed_cabinet import seed_cabinet
from nullah.paper.files import picture, svg_of

PER_MM = 4.0


@pytest.fixture(autouse=True)
def _app(qapp):
    return qapp


def rendered(text, sheet):
    """Return the SVG as an independent reader of SVG draws it."""
    renderer = QSvgRenderer(QByteArray(text.encode()))
    assert renderer.isValid()
    image = QImage(round(sheet.width_mm * PER_MM), round(sheet.height_mm * PER_MM), QImage.Format.Format_ARGB32)
    image.fill(QColor("#ffffff"))
    painter = QPainter(image)
    renderer.render(painter)
    painter.end()
    return image


def ink(image, step=1):
    dark = 0
    for y in range(0, image.height(), step):
        for x in range(0, image.width(), step):
            dark += 255 - QColor(image.pixel(x, y)).lightness()
    return dark


@pytest.mark.parametrize(
    "element",
    [
        Label((30, 20), "Gauge 7/8″ × 19.5 — Säge", 5), Label((30, 20), "turned", 5, angle=30, bold=True),
        Ring((30, 20), "12"), Dimension((10, 20), (50, 20), "1 7/8"),
        rectangle(10, 10, 40, 20, Role.OUTLINE, Fill.WASTE),
        rectangle(10, 10, 40, 20, Role.OUTLINE, Fill.WOOD, species="cherry"), line((5, 5), (55, 35), Role.HIDDEN),
        line((5, 5), (55, 35), Role.GAUGE), line((5, 5), (55, 35), Role.KNIFE),
    ],
    ids=lambda element: type(element).__name__,
)  # fmt: skip
def test_every_kind_of_element_leaves_the_same_ink(element):
    sheet = Sheet("s", "s", drawing(element if isinstance(element, list) else [element]), width_mm=60, height_mm=40)
    svg, own = rendered(svg_of(sheet), sheet), picture(sheet.drawing, 60, 40, PER_MM)
    assert ink(own) > 500
    assert ink(svg) == pytest.approx(ink(own), rel=0.08)


def test_a_whole_page_is_the_page_that_the_painter_makes():
    sheet = next(each for each in all_sheets(work_out(seed_box())) if each.name == "corner-template")
    svg = rendered(svg_of(sheet), sheet)
    own = picture(sheet.drawing, sheet.width_mm, sheet.height_mm, PER_MM)
    assert ink(svg, 3) == pytest.approx(ink(own, 3), rel=0.05)


def test_each_glyph_stands_in_a_file_once():
    text = svg_of(
        Sheet("s", "s", drawing([Label((30, 10 * n), "aaaa 7/8", 5) for n in range(1, 5)]), width_mm=60, height_mm=60)
    )
    root = ET.fromstring(text)
    ids = [node.get("id") for node in root.iter() if node.get("id")]
    used = [value[1:] for node in root.iter() for name, value in node.attrib.items() if name.endswith("href")]
    # a, the raised 7, the bar, the lowered 8: a real fraction, not the figures of a line.
    assert len(ids) == len(set(ids)) == 4 and len(used) == 4 * 7 and set(used) == set(ids)


@pytest.mark.dear
def test_a_hundred_sheets_are_under_eight_megabytes():
    sheets = list(all_sheets(work_out(seed_cabinet())))
    assert len(sheets) >= 100
    assert sum(len(svg_of(sheet).encode()) for sheet in sheets[:100]) < 8_000_000


def test_the_title_is_text_whatever_it_holds():
    text = svg_of(Sheet("s", "<b>&\x00\x1b</b> ]]>", drawing([line((0, 0), (5, 5))]), width_mm=60, height_mm=40))
    assert ET.fromstring(text).find("{http://www.w3.org/2000/svg}title").text == "<b>&␀␛</b> ]]>"
    assert re.search(r'width="60mm" height="40mm" viewBox="0 0 600 400"', text)


@pytest.mark.parametrize(
    "before", [Ring((30, 20), "12", role=Role.CHALK), Dimension((10, 20), (50, 20), "1 7/8")], ids=["ring", "dimension"]
)
@pytest.mark.parametrize("role", [Role.CHALK, Role.KNIFE, Role.DIMENSION])
def test_a_line_is_as_thick_whatever_was_drawn_before_it(before, role):
    one = line((5, 5), (55, 35), role)
    alone, after = (svg_of(Sheet("s", "s", drawing(elements), 60, 40)) for elements in ([one], [before, one]))
    assert widths(after, one) == widths(alone, one) != []


def widths(svg, line_of):
    """Return how thick the lines are that go from where to where a line goes."""
    root = ET.fromstring(svg)
    styles = dict(re.findall(r"\.(\w+)\{([^}]*)\}", "".join(root.itertext())))
    ends = "L".join(" ".join(f"{c * 10:g}" for c in point) for point in line_of.points)
    paths = [each for each in root.iter("{http://www.w3.org/2000/svg}path") if each.get("d") == f"M{ends}"]
    return [re.search("stroke-width:([0-9.]+)", styles[each.get("class")])[1] for each in paths]
