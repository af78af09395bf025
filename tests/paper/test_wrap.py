"""Wrap-round templates: every line where it stands on the piece."""

import pytest

from nullah.core.drawing import Fill, Label, Path
from nullah.core.forms import FORMS
from nullah.core.joints.kinds import kind_of, kinds_of
from nullah.core.joints.mate_views import shown_part
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project
from nullah.core.sheets.face_templates import face_templates
from nullah.core.sheets.page import MARGIN, PAGE
from nullah.core.sheets.wrap import HIGH, LONG, bands_of, wrap_sheets, wrapped_parts
from nullah.demo.seed_cabinet import seed_cabinet
from nullah.paper.files import write_svg


def plan_of(form):
    return work_out(Project(piece=Piece(form, form)), milling=False, proving=False)


def test_the_sides_follow_one_another_round_the_piece():
    tenoned = next(kind for kind in kinds_of(plan_of("stand").assembly) if kind.name == "mortise and tenon")
    rail = tenoned.second
    bands = bands_of(rail)
    assert [band.name for band in bands] == ["face", "far edge", "back", "edge"]
    assert sum(band.high for band in bands) == pytest.approx(2 * float(rail.sizes.across + rail.sizes.through))
    # A tenon with shoulders all round has waste on all four sides, as long as the tenon each.
    for band in bands:
        assert band.waste, band.name
        assert {along for along, _ in band.waste} == {rail.cutouts[0].along}
    # Face and back have the same waste as seen from outside, one the mirror of the other.
    heights = [sorted((float(a), float(b)) for _, (a, b) in band.waste) for band in (bands[0], bands[2])]
    across = float(rail.sizes.across)
    assert heights[0] == sorted((across - b, across - a) for a, b in heights[1])


def test_a_mortise_is_on_one_side_only():
    tenoned = next(kind for kind in kinds_of(plan_of("stand").assembly) if kind.name == "mortise and tenon")
    waste = [band.name for band in bands_of(tenoned.first) if band.waste]
    assert len(waste) == 1


@pytest.mark.parametrize("form", FORMS)
def test_templates_are_full_size_and_stay_on_the_page(form):
    plan = plan_of(form)
    sheets = list(wrap_sheets(plan))
    assert len(sheets) == sum(len(wrapped.pages) for wrapped in wrapped_parts(plan))
    assert len({sheet.name for sheet in sheets}) == len(sheets)
    for sheet in sheets:
        left, top, right, bottom = sheet.drawing.bounds()
        assert left >= 0 and top >= 0 and right <= PAGE[0] - MARGIN + 3.01 and bottom <= PAGE[1]
        assert any(isinstance(e, Path) and e.fill is Fill.WASTE for e in sheet.drawing.elements)
        assert bottom < 62 + HIGH + 15


def test_a_leg_has_all_its_joints_on_one_template():
    plan = plan_of("table")
    leg = next(wrapped for wrapped in wrapped_parts(plan) if "leg" in wrapped.mate.part.name)
    joined = [j for kind in kinds_of(plan.assembly) for j in kind.all if leg.mate.part.id in (j.first, j.second)]
    assert len(joined) > 1
    sides = [band.name for band in bands_of(leg.mate) if band.waste]
    assert len(sides) >= 2, "two aprons meet at a leg, each on a side of its own"


def test_a_long_part_goes_on_over_pages_that_are_joined_at_crosses():
    made = [wrapped for form in FORMS for wrapped in wrapped_parts(plan_of(form)) if len(wrapped.pages) > 1]
    assert made, "no part of any form is longer than a page"
    for wrapped in made:
        for low, high in wrapped.pages:
            assert 0 <= low < high <= float(wrapped.mate.sizes.along) + 1e-6 and high - low <= LONG + 1e-6
        # Every cut is on some page.
        for cut in wrapped.mate.cutouts:
            assert any(low <= float(cut.along[0]) < high for low, high in wrapped.pages)


# --- faces too large to be wrapped -----------------------------------------------------------------------------------


def test_the_faces_of_the_cabinet_are_tiled_at_full_size_with_crosses(qapp, tmp_path, svg_points):
    plan = work_out(seed_cabinet(), milling=False, proving=False)
    sheets = [sheet for sheet in face_templates(plan) if "left" in sheet.name]
    assert len(sheets) > 1
    dado = next(kind for kind in kinds_of(plan.assembly) if kind.name == "stopped dado")
    mate = kind_of(plan.assembly, dado.all, dado.first.part.id).first
    shown, cut = shown_part(mate), mate.cutouts[0]
    first = next(s for s in sheets if any(isinstance(e, Label) and "dado" in e.text for e in s.drawing.elements))
    write_svg(first, tmp_path / "face.svg")
    _, paths = svg_points(tmp_path / "face.svg")
    wide = max(x for points in paths for x, _ in points)
    assert wide <= PAGE[0]
    # Read back from the page: both walls of the dado stand as far from each other as the dado is wide.
    wanted = [MARGIN + 5 + float(at) - shown.low for at in cut.along]
    places = sorted({round(x, 2) for points in paths for x, _ in points})
    for x in wanted:
        assert any(abs(x - place) < 0.05 for place in places), (x, places)


def test_no_face_template_is_made_where_a_wrap_round_does():
    plan = work_out(seed_cabinet(), milling=False, proving=False)
    wrapped = {wrapped.mate.part.id for wrapped in wrapped_parts(plan)}
    assert not any(sheet.name.split("-")[2] in wrapped for sheet in face_templates(plan))
