"""A dovetail's lines in the hand."""

from dataclasses import replace
from fractions import Fraction

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from nullah.core.joints.dovetail.dragging import DraggedLine, dragged, line_at
from nullah.core.joints.dovetail.layout import DovetailFigures, lay_out
from nullah.core.joints.dragged import Held
from nullah.core.lengths import Slope, mm
from nullah.core.shop import Shop

CORNER = lay_out(DovetailFigures(mm(150), mm(15), mm(15), 3, mm(8), mm(6), Slope(Fraction(7))))


def test_lines_are_taken_where_they_stand():
    assert line_at(CORNER, 0, 8, 2) == DraggedLine("half_pin", 0)
    assert line_at(CORNER, 0, 142, 2) == DraggedLine("half_pin", 5)
    assert line_at(CORNER, 0, float(CORNER.marks[1]), 2) == DraggedLine("pin", 1)
    assert line_at(CORNER, 15, 75, 2) == DraggedLine("proud")
    # Half way in, a tail's edge has leaned by 7.5 / 7.
    assert line_at(CORNER, 7.5, 8 + 7.5 / 7, 0.3) == DraggedLine("half_pin", 0)
    assert line_at(CORNER, 0, 30, 2) is None and line_at(CORNER, 60, 8, 2) is None


@given(st.integers(1, 7), st.floats(5, 12), st.floats(3.5, 9), st.integers(0, 13), st.floats(0, 14))
def test_a_line_left_where_it_is_stands_for_the_figure_it_has(tails, half, pin, mark, inward):
    spec = DovetailFigures(
        mm(200), mm(16), mm(16), tails, mm(str(round(half, 1))), mm(str(round(pin, 1))), Slope(Fraction(7))
    )
    layout = lay_out(spec)
    mark %= 2 * tails
    assume(layout.tail_base.mm > 5)
    lean = inward / 7
    level = float(layout.marks[mark]) + (lean if mark % 2 == 0 else -lean)
    line = line_at(layout, inward, level, 0.01)
    assert line is not None and line.mark == mark
    found = dragged(layout, line, inward, level, Shop())
    assert found.held is None and float(found.value) == pytest.approx(float(getattr(spec, found.figure)), abs=0.051)


@given(
    st.sampled_from(
        [
            DraggedLine("half_pin", 0),
            DraggedLine("pin", 1),
            DraggedLine("pin", 2),
            DraggedLine("half_pin", 5),
            DraggedLine("proud"),
        ]
    ),
    st.floats(-30, 60),
    st.floats(-40, 200),
)
def test_however_far_it_is_dragged_the_corner_can_be_made(line, inward, level):
    found = dragged(CORNER, line, inward, level, Shop())
    spec = CORNER.spec
    figures = {"half_pin": spec.half_pin, "pin": spec.pin, "proud": spec.proud, found.figure: found.value}
    changed = replace(spec, **figures)
    assert lay_out(changed).tail_base.mm > 2


def test_limits_say_why():
    assert dragged(CORNER, DraggedLine("half_pin", 0), 0, 0.5, Shop()).held is Held.EDGE_BREAKS
    assert dragged(CORNER, DraggedLine("half_pin", 0), 0, 70, Shop()).held is Held.TAILS_POINTED
    assert dragged(CORNER, DraggedLine("pin", 2), 0, float(CORNER.marks[1]), Shop()).held is Held.TOO_FINE
