"""Templates of curves at full size: what is hatched is what the solid loses, and the page is true to scale."""

import pytest
from tests.told import choices_of, planned

from nullah.core.drawing import Fill, Label, Path
from nullah.core.forms.own_boards import OwnBoard
from nullah.core.lengths import mm
from nullah.core.piece.shaping import Arch, OgeeFoot, RoundOver, Traced
from nullah.core.piece.solids import build, recipe
from nullah.core.piece.space import Axis, Side
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project
from nullah.core.sheets.page import MARGIN, PAGE
from nullah.core.sheets.shape_templates import shape_templates
from nullah.core.sheets.sheets import all_sheets

CURVED = (Arch, OgeeFoot, RoundOver, Traced)


def _area(points):
    return abs(sum(a * d - b * c for (a, b), (c, d) in zip(points, [*points[1:], points[0]], strict=True))) / 2


def _hatched(sheets):
    return sum(
        _area(e.points) for s in sheets for e in s.drawing.elements if isinstance(e, Path) and e.fill is Fill.WASTE
    )


def _lost(part):
    """Return what a part's curves take off it, by its solid, mm³."""
    part = part._replace(shapings=tuple(each for each in part.shapings if isinstance(each, CURVED)))
    plain = build(recipe(part._replace(shapings=()), (), {part.id: part})).volume()
    return plain - build(recipe(part, (), {part.id: part})).volume()


@pytest.mark.parametrize("form", ["chest", "wall shelf", "tray"])
def test_what_is_hatched_is_what_the_solid_loses(form):
    count = 0
    for chosen in choices_of(form):
        plan = planned(form, chosen)
        made = {}
        for sheet in shape_templates(plan):
            made.setdefault("-".join(sheet.name.split("-")[2:]).partition("-page")[0], []).append(sheet)
        for name, sheets in made.items():
            part = plan.part(name)
            if part.spare:
                continue  # what stands proud goes too
            count += 1
            assert _hatched(sheets) * float(part.thickness) == pytest.approx(_lost(part), rel=2e-3), (chosen, name)
    assert count


def _traced(points, size=("500 mm", "300 mm", "12 mm")):
    from nullah.core.lengths import read_length

    shaped = Traced(Side.BACK, Axis.Z, points)
    board = OwnBoard("own1", "shelf", tuple(map(read_length, size)), (mm(0), mm(0), mm(0)), "xz", shapings=(shaped,))
    return work_out(Project(piece=Piece("own", "shelf", own=(board,))), milling=False, proving=False)


def test_an_outline_as_long_as_a_board_goes_over_pages_and_stands_on_every_one():
    plan = _traced(((0.0, 5.0), (120.0, 40.0), (260.0, 12.0), (500.0, 30.0)))
    sheets = list(shape_templates(plan))
    assert len(sheets) > 2
    assert _hatched(sheets) * 12 == pytest.approx(_lost(plan.parts[0]), rel=1e-3)
    for sheet in sheets:
        places = [x for e in sheet.drawing.elements if isinstance(e, Path) for x, _ in e.points]
        assert max(places) <= PAGE[0] and min(places) >= MARGIN - 5
    assert all(sheet in all_sheets(plan) for sheet in sheets)


def test_a_straight_board_has_no_template_and_equal_boards_share_theirs():
    assert not list(shape_templates(planned("box", choices_of("box")[0])))
    sheets = list(shape_templates(planned("chest", choices_of("chest")[0])))
    assert len({sheet.name.split("-")[1] for sheet in sheets}) == 1, "both ends"
    words = [each.text for sheet in sheets for each in sheet.drawing.elements if isinstance(each, Label)]
    assert any("left end and right end" in text and "from the reference end" in text for text in words)
