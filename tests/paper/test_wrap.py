"""Wrap-round templates: every line where it stands on the piece."""

import pytest

from nullah.core.drawing import Fill, Path
from nullah.core.joints.kinds import kinds_of
from nullah.core.piece.forms import FORMS
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project
from nullah.core.sheets.page import A4, MARGIN
from nullah.core.sheets.wrap import HIGH, bands_of, goes_round, wrap_sheets


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
    wanted = sum(
        goes_round(mate) for kind in kinds_of(plan.assembly) if kind.joint.tails is None
        for mate in (kind.first, kind.second)
    )  # fmt: skip
    sheets = list(wrap_sheets(plan))
    assert len(sheets) == wanted and len({sheet.name for sheet in sheets}) == len(sheets)
    for sheet in sheets:
        left, top, right, bottom = sheet.drawing.bounds()
        assert left >= 0 and top >= 0 and right <= A4[0] - MARGIN + 0.01 and bottom <= A4[1]
        assert any(isinstance(e, Path) and e.fill is Fill.WASTE for e in sheet.drawing.elements)
        assert bottom < 62 + HIGH + 15
