"""How tails stand beside each other: graduated, each by itself, or as on a corner that exists."""

from dataclasses import replace
from fractions import Fraction
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nullah.core import actions
from nullah.core.joints.dovetail.dragging import DraggedLine, dragged
from nullah.core.joints.dovetail.layout import DovetailFigures, lay_out
from nullah.core.joints.dovetail.solid import tail_prisms
from nullah.core.joints.dovetail.spacing import (
    BY_HAND,
    SPACINGS,
    SpacingError,
    SpacingFault,
    graded,
    matched,
    pin_moved,
    spacing_of,
)
from nullah.core.joints.dovetail.tail_edges import tail_edges
from nullah.core.joints.dragged import Held
from nullah.core.lengths import Slope, mm
from nullah.core.plan import work_out
from nullah.core.shop import Shop
from nullah.core.stations import STATIONS
from nullah.core.stations.selection import Selection
from nullah.demo.seed_box import seed_box

F = Fraction
JOINTS = next(station for station in STATIONS if station.id == "joints")


@given(st.sampled_from(SPACINGS), st.integers(1, 9), st.integers(40, 400), st.integers(0, 4))
def test_tails_pins_and_half_pins_always_fill_the_board(spacing, number, wide, pin):
    edges = tail_edges(F(wide), number, F(5), F(pin), graded(spacing, number))
    assert len(edges) == number and edges[0][0] == 5 and edges[-1][1] == wide - 5
    assert all(low - high == pin for (_, high), (low, _) in pairwise(edges))


@given(st.sampled_from(SPACINGS), st.integers(2, 12))
def test_a_spacing_is_known_again_by_its_widths(spacing, number):
    # With two tails the middle has none wider than the other: that row is equal, each by itself.
    widths = graded(spacing, number)
    found = spacing_of(widths, number)
    assert found == spacing or (len(set(widths)) == 1 and found in SPACINGS)


def test_graduated_tails_are_widest_where_they_are_said_to_be():
    below = [high - low for low, high in tail_edges(F(200), 4, F(8), F(6), graded("wider below", 4))]
    assert below == sorted(below, reverse=True) and below[0] == below[-1] * F(8, 5)
    middle = [high - low for low, high in tail_edges(F(200), 5, F(8), F(6), graded("wider in the middle", 5))]
    assert middle == middle[::-1] and max(middle) == middle[2] == min(middle) * F(8, 5)


def test_widths_of_another_number_are_not_asked():
    assert tail_edges(F(150), 3, F(10), F(6), (F(1), F(2))) == tail_edges(F(150), 3, F(10), F(6))


def test_the_layout_tells_the_narrowest_tail_for_that_is_what_breaks():
    spec = DovetailFigures(mm(200), mm(16), mm(16), 4, mm(8), mm(6), Slope(F(7)), widths=graded("wider below", 4))
    layout = lay_out(spec)
    assert not spec.equal
    assert layout.tail == min((high - low for low, high in layout.tails), key=lambda length: length.mm)
    # The mean of all tails with a pin each is still the step of equal ones.
    assert layout.step == lay_out(replace(spec, widths=())).step


# --- matching a row that exists -----------------------------------------------------------------------------------


def test_a_row_is_taken_over_by_count_and_in_proportion():
    # 86 mm there, 172 here: everything doubles.
    row = matched([F(8), F(40), F(46), F(78)], F(86), F(172))
    assert (row.number, row.half_pin, row.pin, row.widths) == (2, 16, 12, ())


def test_a_row_that_is_not_equal_keeps_its_widths():
    row = matched([F(6), F(26), F(30), F(70), F(74), F(94)], F(100), F(100))
    assert row.widths == (1, 2, 1) and row.pin == 4 and row.half_pin == 6


@pytest.mark.parametrize(
    ("edges", "here", "fault"),
    [
        ([8], 86, SpacingFault.ODD_MARKS),
        ([40, 8], 86, SpacingFault.MARKS_BACKWARDS),
        ([8, 40, 46, 90], 86, SpacingFault.MARKS_BACKWARDS),
        ([0, 40], 86, SpacingFault.MARKS_BACKWARDS),
        ([8, 40], 0, SpacingFault.NO_WIDTH),
    ],
)
def test_marks_that_are_no_row_are_refused(edges, here, fault):
    with pytest.raises(SpacingError) as refused:
        matched([F(edge) for edge in edges], F(86), F(here))
    assert refused.value.fact is fault


def test_a_matched_row_is_laid_out_so_on_the_piece():
    row = matched([F(6), F(26), F(30), F(70), F(74), F(94)], F(100), F(130))
    plan = work_out(actions.match_tails(seed_box(), "tails", row))
    layout = plan.corner.layout
    sizes = [float(high - low) for low, high in layout.tails]
    assert sizes[1] == pytest.approx(2 * sizes[0]) and sizes[0] == pytest.approx(sizes[2])
    card = JOINTS.card(plan, Selection())
    figures = [setting.figure for setting in card.set if setting.tool.startswith("Mark ")]
    assert figures == [plan.marks.write(mark) for mark in layout.marks]
    assert "Dividers" not in {setting.tool for setting in card.set}


def test_the_solids_have_the_same_tails_as_the_layout():
    plan = work_out(actions.space_tails(seed_box(), "tails", graded("wider below", plan_tails(seed_box()))))
    joint = next(joint for joint in plan.assembly.joints if joint.figures)
    tail, pin = plan.part(joint.first), plan.part(joint.second)
    found = tail_prisms(joint, tail, pin)
    layout = plan.corner.layout
    assert len(found) == layout.spec.tails
    # They are marked at the ends of the blanks, which stand proud: at the corner's outside they have leaned a little.
    wide = sorted(float(high - low) for low, high in layout.tails_at(layout.spec.proud))
    seen = sorted(max(abs(a[1] - b[1]) for a in prism.points for b in prism.points) for prism in found)
    other = sorted(max(abs(a[0] - b[0]) for a in prism.points for b in prism.points) for prism in found)
    assert seen == pytest.approx(wide) or other == pytest.approx(wide)
    assert plan.failing == 0


def plan_tails(project):
    return work_out(project, milling=False, proving=False).corner.layout.spec.tails


# --- one pin dragged --------------------------------------------------------------------------------------------------


def layout_by_hand():
    return lay_out(DovetailFigures(mm(150), mm(16), mm(16), 3, mm(8), mm(6), Slope(F(7)), widths=(F(1),) * 3))


def test_a_pin_of_a_row_by_hand_goes_alone():
    layout = layout_by_hand()
    edge = float(layout.marks[2])
    came = dragged(layout, DraggedLine("pin", 2), 0, edge + 5, Shop())
    before = [(high - low).mm for low, high in layout.tails]
    assert came.figure == "tail" and came.widths == (before[0] + 5, before[1] - 5, before[2]) and not came.held


def test_it_stops_where_the_tail_beside_it_would_run_to_a_point():
    layout = layout_by_hand()
    came = dragged(layout, DraggedLine("pin", 1), 0, 140, Shop())
    assert came.held is Held.TAIL_BESIDE_POINTED
    base = 2 * 16 / 7 + 3
    assert float(min(came.widths)) == pytest.approx(base, abs=0.02)


@given(st.lists(st.integers(10, 60), min_size=2, max_size=6), st.data())
def test_moving_a_pin_never_changes_the_sum(tails, data):
    place = data.draw(st.integers(0, len(tails) - 2))
    by = data.draw(st.integers(-80, 80))
    widths, _ = pin_moved([F(tail) for tail in tails], place, F(by), F(8))
    assert sum(widths) == sum(tails) and min(widths) >= min(8, *tails)


def test_dragged_widths_are_each_by_itself():
    project = actions.space_tails(seed_box(), "tails", (F(21), F(20), F(22)))
    layout = work_out(project, milling=False, proving=False).corner.layout
    assert spacing_of(layout.spec.widths, layout.spec.tails) == (BY_HAND if layout.spec.tails == 3 else "equal")
