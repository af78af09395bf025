"""Story sticks and DXF: full size, read back and measured."""

import ezdxf
import pytest

from nullah.core.drawing import Fill, Label, Path, Ring, Role, drawing, line, rectangle
from nullah.core.joints.kinds import kinds_of
from nullah.core.plan import work_out
from nullah.core.project import Project
from nullah.core.sheets.page import MARGIN, PAGE, Sheet
from nullah.core.sheets.sheets import all_sheets
from nullah.core.sheets.story_stick import STRIP, sticks_of, story_stick_sheets
from nullah.demo.seed_cabinet import seed_cabinet
from nullah.paper.dxf import dxf_of


@pytest.fixture(scope="module")
def plan():
    return work_out(seed_cabinet(), milling=False, proving=False)


def test_there_is_a_stick_for_the_piece_and_for_every_part_with_joints_along_it(plan):
    sticks = {stick.id: stick for stick in sticks_of(plan)}
    assert {"stick-height", "stick-width", "stick-depth", "stick-sides", "stick-divider"} <= set(sticks)
    assert sticks["stick-height"].long == 440 and sticks["stick-width"].long == 360
    dado = next(kind for kind in kinds_of(plan.assembly) if kind.name == "stopped dado")
    # Every dado of a side is pricked off the same stick: both walls of each.
    places = {round(mark.at, 3) for mark in sticks["stick-sides"].marks}
    for joint in dado.all:
        box = joint.channels[0]
        assert {float(box.low[2]), float(box.high[2])} <= places
    for stick in sticks.values():
        assert [mark.at for mark in stick.marks] == sorted(mark.at for mark in stick.marks)
        assert stick.marks[0].at == 0 and stick.marks[-1].at == pytest.approx(stick.long)
    assert sticks_of(work_out(Project(), milling=False)) is not None


def test_marks_stand_on_paper_where_they_stand_on_the_stick(plan):
    for stick in sticks_of(plan):
        sheets = [sheet for sheet in story_stick_sheets(plan) if sheet.title == stick.title]
        lines = [
            (e.points[0][0], e.points[0][1])
            for sheet in sheets
            for e in sheet.drawing.elements
            if isinstance(e, Path) and e.role is Role.KNIFE and not e.closed and e.points[0][0] == e.points[1][0]
        ]
        for mark in stick.marks:
            on_strip = mark.at % STRIP
            assert any(abs(x - (MARGIN + 8 + on_strip)) < 0.001 for x, _ in lines) or on_strip < 1e-6, mark
        # A stick of several strips has its pages joined at crosses.
        if stick.long > STRIP:
            assert any(abs(x - (MARGIN + 8 + STRIP)) < 0.001 for x, _ in lines)


@pytest.mark.dear
def test_dxf_read_back_by_a_general_library_measures_the_same(plan, tmp_path):
    sheet = next(sheet for sheet in all_sheets(plan) if sheet.name == "stick-height")
    (tmp_path / "stick.dxf").write_bytes(dxf_of(sheet))
    document = ezdxf.readfile(tmp_path / "stick.dxf")
    assert document.units == 4, "millimetres"
    flat = [[tuple(point[:2]) for point in entity.get_points()] for entity in document.modelspace().query("LWPOLYLINE")]
    spans = [abs(points[0][0] - points[1][0]) for points in flat if len(points) == 2]
    assert any(span == pytest.approx(100.0, abs=0.1) for span in spans), "the check scale"
    assert any(span == pytest.approx(101.6, abs=0.1) for span in spans), "and in inches"
    drawn = [e for e in sheet.drawing.elements if isinstance(e, Path)]
    assert len(flat) == len(drawn)
    for points, path in zip(flat, drawn, strict=True):
        for (x, y), (a, b) in zip(points, path.points, strict=True):
            assert (x, PAGE[1] - y) == pytest.approx((a, b), abs=1e-6)


def test_every_kind_of_element_is_in_the_dxf(tmp_path):
    elements = drawing(
        rectangle(10, 10, 30, 20, Role.KNIFE, Fill.WASTE),
        line((0, 0), (5, 5), Role.GAUGE),
        Label((20, 50), "word"),
        Ring((60, 60), "1"),
    )
    (tmp_path / "s.dxf").write_bytes(dxf_of(Sheet("s", "s", elements)))
    kinds = {entity.dxftype() for entity in ezdxf.readfile(tmp_path / "s.dxf").modelspace()}
    assert kinds == {"LWPOLYLINE", "LINE", "TEXT", "CIRCLE"}
