"""Edges, shapes and tapers by plane."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nullah.core.forms import FORMS
from nullah.core.lengths import Marks, Unit
from nullah.core.milling.edge_facts import EdgeError, EdgeWork
from nullah.core.milling.edge_tasks import KINDS, EdgeTask, tasks_of
from nullah.core.milling.edges import (
    chamfer,
    long_bevel,
    raised_panel,
    round_over,
    square_edge,
    straighten_edge,
    thumbnail,
)
from nullah.core.milling.tapers import taper_plan
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project
from nullah.core.reader import Reader
from nullah.core.wording.edges import edge_step_words
from nullah.core.wording.facts import error_words

sizes = st.floats(0.5, 60)


def test_partial_passes_grow_to_the_full_width():
    found = square_edge(24, 0.6, 0.1)
    assert len(found.partial) == 6 and found.partial[-1] == 24 and found.full == 1
    assert list(found.partial) == sorted(found.partial)
    assert square_edge(24, 0, 0.1).partial == ()


@given(st.floats(5, 60), st.floats(0.01, 3), st.floats(0.02, 0.5))
def test_after_the_passes_an_edge_is_square(thick, error, shaving):
    passes = square_edge(thick, error, shaving).partial
    bite = error / len(passes)
    for place in (0.0, thick / 3, thick * 0.9):
        # How often the place was passed, from the high side at 0; what stands there is error · (1 - place / thick).
        taken = bite * sum(reach >= place for reach in passes)
        assert taken == pytest.approx(error * (1 - place / thick), abs=bite * 1.01)


@given(st.floats(200, 2000), st.floats(0.05, 3), st.floats(0.05, 0.3))
def test_stopped_strokes_take_the_hump_off(length, hump, shaving):
    found = straighten_edge(length, hump, shaving)
    starts = [start for start, _ in found.stopped]
    assert starts == sorted(starts, reverse=True)
    for share in (0.1, 0.3, 0.5):
        x = length * share
        passed = sum(start <= x <= end for start, end in found.stopped)
        stands = hump * (1 - (2 * share - 1) ** 2)
        assert abs(stands - passed * shaving) <= shaving * 1.05 + 0.01


def test_a_hollow_edge_is_planed_at_both_ends():
    found = straighten_edge(600, -0.3, 0.1)
    assert found.stopped and all(start == 0 and end <= 300 for start, end in found.stopped)


@pytest.mark.parametrize("wrong", [
    lambda: square_edge(0, 1, 0.1), lambda: square_edge(10, 20, 0.1), lambda: straighten_edge(0, 1, 0.1),
    lambda: chamfer(0, 3), lambda: round_over(0), lambda: thumbnail(10, 2, 12, 20), lambda: thumbnail(10, 2, 6, 7),
    lambda: thumbnail(0, 2, 6, 7), lambda: raised_panel(40, 14, 14), lambda: raised_panel(0, 4, 14),
    lambda: raised_panel(40, 4, 14, 8), lambda: long_bevel(100, 18, 85), lambda: long_bevel(10, 18, 45),
])  # fmt: skip
def test_what_cannot_be_planed_is_refused_in_a_sentence(wrong):
    with pytest.raises(EdgeError) as refused:
        wrong()
    for unit in Unit:
        said = error_words(refused.value, Reader(Marks(unit)))
        assert said.endswith(".") and (unit is not Unit.INCH or " mm" not in said)


@given(sizes)
def test_flats_of_a_round_touch_its_circle(radius):
    edge = round_over(radius)
    flats = [flat for flats in edge.rounds for flat in flats]
    for flat in flats:
        (x0, y0), (x1, y1) = flat.corners
        # How far the flat's line is from the middle of the circle, which lies a radius in from both sides.
        away = abs((x1 - x0) * (y0 - radius) - (x0 - radius) * (y1 - y0)) / math.hypot(x1 - x0, y1 - y0)
        assert away == pytest.approx(radius, rel=1e-6)
    assert len(flats) == 2 ** len(edge.rounds) - 1


@given(sizes, sizes)
def test_a_chamfer_leans_as_its_lines_say(run, fall):
    (flat,) = chamfer(run, fall).rounds[0]
    assert math.tan(math.radians(flat.degrees)) == pytest.approx(fall / run, rel=1e-6)
    assert flat.depth <= min(run, fall)


def test_a_raised_panel_says_whether_it_enters_its_groove():
    assert raised_panel(40, 6, 14, 10, 8).steps[-1] is EdgeWork.TRY_GROOVE
    eased = raised_panel(20, 8, 14, 8, 8)
    assert "ease it to 8.0 mm" in edge_step_words(eased.steps[-1], Reader())
    assert "ease it to 0.315″" in edge_step_words(eased.steps[-1], Reader(Marks(Unit.INCH)))


@given(st.floats(60, 300), st.floats(10, 40), st.floats(5, 45), st.floats(0, 2))
def test_the_halves_of_a_long_bevel_mate(width, thick, degrees, kerf):
    try:
        cleat = long_bevel(width, thick, degrees, kerf)
    except EdgeError:
        return
    assert cleat.on_face + cleat.on_back == pytest.approx(width)
    assert cleat.on_back - cleat.on_face == pytest.approx(thick * math.tan(math.radians(degrees)))
    # Turned over, the one half is the other: narrow on one face, wide on the other, and the saw's kerf between.
    lost = kerf / math.cos(math.radians(degrees))
    assert cleat.narrow + cleat.wide + lost == pytest.approx(width)


# --- tapers -------------------------------------------------------------------------------------------------


@given(st.floats(200, 900), st.floats(25, 80), st.floats(0.05, 0.6), st.floats(0.05, 0.45), st.floats(0.1, 1.0))
def test_strokes_from_the_toe_back_leave_the_line(length, thick, begins, share, shaving):
    start, off = length * begins, thick * share
    plan = taper_plan(length, thick, start, off, "ABCD", shaving)
    number = len(plan.strokes) + plan.full
    bite = off / number
    assert bite <= shaving + 1e-9
    for place in (0.0, 0.25, 0.5, 0.8):
        x = plan.run * place
        # Each stroke goes from where it starts to the toe, the full ones over the whole run.
        taken = bite * (sum(stroke.start >= x for stroke in plan.strokes) + plan.full)
        assert taken == pytest.approx(off * (1 - place), abs=bite * 1.01)
    assert [stroke.left for stroke in plan.strokes] == pytest.approx(
        [off - bite * (index + 1) for index in range(len(plan.strokes))]
    )


@pytest.mark.parametrize("faces", ["A", "AB", "AC", "ABC", "ABCD", "BD"])
def test_lines_are_always_drawn_on_wood_that_is_there(faces):
    plan = taper_plan(700, 40, 100, 8, faces, 0.5)
    done = set()
    for together in plan.rounds:
        for face in together:
            # Its lines are drawn on its two neighbours before either round touches them again.
            assert face.face not in face.lines_on
            assert not {other.face for other in together} & set(face.lines_on)
        done |= {face.face for face in together}
    assert done == set(faces)


@pytest.mark.parametrize("wrong", [
    lambda: taper_plan(700, 40, 700, 8, "A", 0.5), lambda: taper_plan(700, 40, 100, 20, "ABCD", 0.5),
    lambda: taper_plan(700, 40, 100, 0, "A", 0.5), lambda: taper_plan(700, 40, 100, 8, "", 0.5),
])  # fmt: skip
def test_a_taper_that_leaves_nothing_is_refused(wrong):
    with pytest.raises(EdgeError):
        wrong()


# --- what a piece asks for ------------------------------------------------------------------------------------


def test_the_shapings_of_every_form_that_are_planed_can_be_planned():
    found = []
    for form in FORMS:
        for part in work_out(Project(piece=Piece(form, form)), milling=False, proving=False).parts:
            for task in tasks_of(part):
                assert task.part == part.name
                task.planned()
                found.append(task.kind)
    assert found, "no form has anything to plan"


@pytest.mark.parametrize("kind", KINDS)
def test_the_usual_figures_of_each_kind_can_be_planned(kind):
    EdgeTask(kind, KINDS[kind].usual).planned()
