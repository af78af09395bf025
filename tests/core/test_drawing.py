import math
import pickle
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nullah.core.drawing import Drawing, Label, Path, Role, drawing, grain_lines, hatch_lines, line, rectangle
from nullah.core.refs import PartRef
from nullah.core.sheets.page import cut_to_band, paragraph


def area(points):
    closed = [*points, points[0]]
    return abs(sum(a[0] * b[1] - b[0] * a[1] for a, b in pairwise(closed))) / 2


@given(st.floats(1, 200), st.floats(1, 200), st.floats(0.5, 5))
def test_hatching_covers_its_area_evenly(width, height, spacing):
    lines = hatch_lines([(0, 0), (width, 0), (width, height), (0, height)], spacing)
    total = sum(math.dist(a, b) for a, b in lines)
    # Total length of hatch times spacing is the area, to within the lines at the border.
    assert total * spacing == pytest.approx(width * height, abs=2.1 * spacing * (width + height))
    assert all(-1e-6 <= p[0] <= width + 1e-6 and -1e-6 <= p[1] <= height + 1e-6 for seg in lines for p in seg)


@given(st.floats(-50, 150), st.floats(1, 100))
def test_bands_of_a_drawing_add_up_to_the_whole(top, high):
    shape = Path(((0, 0), (80, 20), (100, 100), (10, 70)), closed=True)
    bands = [(-100, top), (top, top + high), (top + high, 400)]
    parts = [p for low, up in bands for p in cut_to_band(Drawing((shape,)), low, up).elements]
    assert sum(area(p.points) for p in parts) == pytest.approx(area(shape.points), rel=1e-9)


def test_a_band_keeps_lines_and_words_inside_it():
    shown = drawing(line((0, 0), (0, 100)), Label((5, 90), "far"), Label((5, 10), "near"))
    kept = cut_to_band(shown, 0, 50).elements
    assert kept[0].points == ((0, 0), (0, 50)) and [e.text for e in kept[1:]] == ["near"]


def test_moving_scales_first():
    moved = drawing(rectangle(1, 2, 3, 4, ref=PartRef("a")), Label((1, 1), "x")).moved(10, 20, 2)
    assert moved.bounds() == (12, 22, 18, 32)


def test_grain_is_the_same_for_the_same_board_and_stays_on_it():
    one, two = grain_lines(0, 0, 900, 150, "Ford 1"), grain_lines(0, 0, 900, 150, "Ford 1")
    assert one == two != grain_lines(0, 0, 900, 150, "Ford 2")
    assert all(0 <= y <= 150 for path in one for _, y in path.points)
    assert all(path.role is Role.GRAIN for path in one)


def test_paragraphs_lose_no_word():
    text = "The groove runs inside tail 1, counted from the lower edge, and comes out in a socket."
    words, end = paragraph(text, 0, 0, 40)
    assert " ".join(label.text for label in words) == text
    assert end > len(words) * 4


@pytest.mark.parametrize("width", range(24, 130, 2))
def test_no_figure_is_broken_in_lines_of_any_width(width):
    """“15 | 1/32″” is read as another figure, and “12.5 | mm” as none."""
    text = "Set the gauge to 15 1/32″ from 7/8″ at 12.5 mm, once more to 1 15/16″: 40 % of 3 ft, 2 kg in 3 places."
    words, _ = paragraph(text, 0, 0, width)
    lines = [label.text for label in words]
    assert " ".join(lines) == text and "\u00a0" not in text
    for figure in ("15 1/32″", "12.5 mm", "1 15/16″", "40 %", "3 ft", "2 kg"):
        assert any(figure in line for line in lines), lines


@pytest.mark.parametrize("width", range(24, 130, 2))
def test_no_numbered_name_is_broken_in_lines_of_any_width(width):
    """“2 front.” at the head of a line is taken for the second of a list."""
    text = "That frees drawer 2 front, at 13 25/32″ from divider 12; slips 1 to 3 go to board 4."
    words, _ = paragraph(text, 0, 0, width)
    lines = [label.text for label in words]
    assert " ".join(lines) == text
    for name in ("drawer 2", "divider 12", "slips 1", "to 3", "board 4."):
        assert any(name in line for line in lines), lines


def test_what_is_moved_to_where_it_was_stays_the_very_same():
    shown = drawing(line((0, 0), (0, 100)), Label((5, 90), "far"))
    first = shown.moved(10, 20, 0.5)
    assert first.elements[0].points == ((10, 20), (10, 70)) and first.elements[1].at == (12.5, 65)
    assert shown.moved(10, 20, 0.5) is first
    assert shown.moved(0, 0, 0.5).bounds() == (0, 0, 2.5, 50) and shown.bounds() == (0, 0, 5, 100)


def test_a_drawing_that_is_sent_takes_nothing_along_but_its_elements():
    shown = drawing(line((0, 0), (0, 100)))
    fresh = pickle.dumps(shown)
    shown.moved(10, 20).bounds(), shown.bounds()
    assert pickle.dumps(shown) == fresh and pickle.loads(fresh) == shown
