"""Views square to the sides: what is in front hides what is behind, and that comes back dashed."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nullah.core.drawing import Dimension, Fill, Path, Role
from nullah.core.piece.form import View
from nullah.core.piece.sight import hidden, inside, painted, plane_of, seen, spans_inside
from nullah.core.plan import work_out
from nullah.core.project import Project
from nullah.core.stations import STATIONS
from nullah.core.stations.selection import Selection
from nullah.demo.plant_stair import plant_stair
from nullah.demo.seed_box import seed_box
from nullah.demo.seed_cabinet import seed_cabinet

SQUARE = ((0.0, 0.0), (4.0, 0.0), (4.0, 4.0), (0.0, 4.0))


def test_spans_of_a_line_inside_a_face():
    assert spans_inside((-2.0, 2.0), (6.0, 2.0), (SQUARE,)) == [(0.25, 0.75)]
    assert spans_inside((-2.0, 5.0), (6.0, 5.0), (SQUARE,)) == []
    hole = ((1.0, 1.0), (3.0, 1.0), (3.0, 3.0), (1.0, 3.0))
    assert spans_inside((0.0, 2.0), (4.0, 2.0), (SQUARE, hole)) == [(0.0, 0.25), (0.75, 1.0)]
    assert spans_inside((0.0, 0.0), (4.0, 0.0), (SQUARE,)) == [], "along its edge is not inside"


@given(st.floats(-1, 5), st.floats(-1, 5))
def test_inside_is_inside(x, y):
    expected = 0 < x < 4 and 0 < y < 4
    if min(abs(x), abs(x - 4), abs(y), abs(y - 4)) > 1e-9:
        assert inside((SQUARE,), (x, y)) is expected


@pytest.mark.parametrize("project", [seed_box(), seed_cabinet(), plant_stair()], ids=lambda p: p.piece.name)
@pytest.mark.parametrize("view", list(View))
def test_a_view_has_the_size_of_the_piece(project, view):
    plan = work_out(project, milling=False)
    plane = plane_of(plan.parts, view)
    faces = seen(plane, plan.parts, plan.proof.recipes)
    wide, high = plane.size
    points = [point for face in faces for loop in face.loops for point in loop]
    assert min(p[0] for p in points) == pytest.approx(0, abs=1e-6)
    assert max(p[0] for p in points) == pytest.approx(wide, abs=1e-6)
    assert max(p[1] for p in points) == pytest.approx(high, abs=1e-6)
    assert [face.depth for face in faces] == sorted(face.depth for face in faces), "the farthest first"


def test_in_front_of_the_cabinet_stand_its_drawers():
    plan = work_out(seed_cabinet(), milling=False)
    plane = plane_of(plan.parts, View.FRONT)
    faces = seen(plane, plan.parts, plan.proof.recipes)
    front = plan.part("drawer21_front").box
    middle = plane.flat([float(low + high) / 2 for low, high in zip(front.low, front.high, strict=True)])
    top = [face for face in faces if inside(face.loops, middle)][-1]
    assert top.part.id == "drawer21_front"
    dashed = list(hidden(plane, [plan.part("back1")], faces))
    assert dashed and all(element.role is Role.HIDDEN for element in dashed)


def test_the_section_shows_what_it_cuts_and_not_what_is_before_it():
    plan = work_out(seed_cabinet(), milling=False)
    plane = plane_of(plan.parts, View.SECTION)
    ids = {face.part.id for face in seen(plane, plan.parts, plan.proof.recipes)}
    assert "right" not in ids, "the half before the cut is away"
    assert {"top", "bottom", "divider11", "drawer11_bottom"} <= ids
    whole = plane_of(plan.parts, View.SECTION, cut_across=False)
    assert whole.cut is None and whole.title == "From the right"
    assert "right" in {face.part.id for face in seen(whole, plan.parts, plan.proof.recipes)}


def test_boxes_stand_for_solids_until_those_are_cut():
    plan = work_out(seed_cabinet(), milling=False, proving=False)
    plane = plane_of(plan.parts, View.FRONT)
    faces = seen(plane, plan.parts, None)
    assert {"left", "top", "drawer11_front"} <= {face.part.id for face in faces}
    elements = list(painted(faces, plan.species_of))
    assert {element.fill for element in elements if element.fill is not Fill.NONE} <= {Fill.WOOD, Fill.END_GRAIN}


def test_dovetails_show_on_the_drawing_only_where_they_are():
    plan = work_out(seed_box(), milling=False)
    plane = plane_of(plan.parts, View.FRONT)
    faces = [face for face in seen(plane, plan.parts, plan.proof.recipes) if face.part.id == "front"]
    nearest = max(faces, key=lambda face: face.depth)
    corners = len(nearest.loops[0])
    # Three tails at either end: each of the four bays between and beside them adds corners.
    assert corners >= 4 + 2 * 3 * 4


@pytest.mark.parametrize("project", [seed_box(), seed_cabinet(), plant_stair(), Project()], ids=lambda p: p.piece.name)
def test_the_station_draws_three_views_with_every_dimension(project):
    plan = work_out(project, milling=False)
    drawing = STATIONS[0].draw(plan, Selection())
    dimensions = [element for element in drawing.elements if isinstance(element, Dimension)]
    assert len(dimensions) == len(plan.assembly.measures)
    parts = {element.ref.part for element in drawing.elements if isinstance(element, Path) and element.ref}
    everything = {part.id for part in plan.parts}
    # What lies wholly behind something else in all three views is only dashed.
    assert parts <= everything and len(parts) >= 0.6 * len(everything)


def test_patches_in_one_plane_are_all_seen():
    # The wall of a dado lies in the plane of a riser: neither may hide the other, nor be forgotten.
    plan = work_out(plant_stair(), milling=False)
    plane = plane_of(plan.parts, View.FRONT, cut_across=False)
    faces = seen(plane, plan.parts, plan.proof.recipes)
    for height in (60, 200, 330):
        spot = plane.flat((5.0, 0.0, float(height)))
        top = [face.part.id for face in faces if inside(face.loops, spot)]
        assert top and top[-1] == "own1", f"the left side stands there, {height} up"


@pytest.mark.dear
@pytest.mark.sampled(2)
@pytest.mark.parametrize("project", [seed_box(), seed_cabinet(), plant_stair()], ids=lambda p: p.piece.name)
@pytest.mark.parametrize("view", list(View))
def test_leaving_out_what_is_covered_changes_nothing_that_is_seen(project, view, monkeypatch):
    from nullah.core.piece import sight

    plan = work_out(project, milling=False)
    plane = plane_of(plan.parts, view)
    kept = seen(plane, plan.parts, plan.proof.recipes)
    monkeypatch.setattr(sight, "_uncovered", lambda faces: faces)
    everything = seen(plane, plan.parts, plan.proof.recipes)
    assert len(kept) <= len(everything)
    wide, high = plane.size
    for column in range(1, 40):
        for row in range(1, 40):
            spot = (wide * column / 40 + 0.013, high * row / 40 + 0.017)
            shown = [[face.part.id for face in faces if inside(face.loops, spot)] for faces in (kept, everything)]
            assert (shown[0][-1:] or [""]) == (shown[1][-1:] or [""]), spot
