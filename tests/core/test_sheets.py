from dataclasses import replace
from datetime import datetime

from nullah.core import actions
from nullah.core.drawing import Label, Path, Role
from nullah.core.lengths import Unit, inch, mm
from nullah.core.plan import work_out
from nullah.core.sheets.page import PAGE
from nullah.core.sheets.sheets import all_sheets, template_sheets
from nullah.core.work.cut_list import cut_list
from nullah.demo.seed_box import seed_box


def texts(sheet):
    return [e.text for e in sheet.drawing.elements if isinstance(e, Label)]


def test_there_is_a_sheet_for_everything_that_is_needed_at_the_bench():
    plan = work_out(seed_box())
    names = [sheet.name for sheet in all_sheets(plan)]
    assert names == [
        "cut-list",
        "board-2",
        "board-3",
        "board-4",
        "milling-2-1",
        "milling-3-1",
        "milling-4-1",
        "part-1-front",
        "part-2-back",
        "part-3-left",
        "part-4-right",
        "part-5-bottom",
        "joint-1-groove",
        "joint-2-groove",
        "stick-height",
        "stick-width",
        "stick-depth",
        "stick-sides",
        "stick-ends",
        "corner-template",
        "shop-list",
        "day",
    ]


def test_everything_stands_on_the_page():
    for project in (seed_box(), actions.show_in(seed_box(), replace(seed_box().marks, unit=Unit.INCH))):
        for sheet in all_sheets(work_out(project)):
            left, top, right, bottom = sheet.drawing.bounds()
            assert left >= 0 and top >= 0 and right <= PAGE[0] and bottom <= PAGE[1], sheet.name


def test_a_part_that_waits_has_no_figure_to_cut_to():
    sheet = next(s for s in all_sheets(work_out(seed_box())) if s.name == "part-5-bottom")
    assert texts(sheet).count("wait") == 2
    assert any("Leave it long and wide: measure groove to groove, along" in text for text in texts(sheet))


def test_the_template_is_drawn_at_full_size_with_its_marks():
    plan = work_out(seed_box())
    (sheet,) = template_sheets(plan)
    knife = [e for e in sheet.drawing.elements if isinstance(e, Path) and e.role is Role.KNIFE]
    scale = [e for e in knife if len(e.points) == 2 and e.points[0][1] == e.points[1][1]]
    assert any(abs(e.points[1][0] - e.points[0][0] - 100) < 1e-9 for e in scale)
    assert any(abs(e.points[1][0] - e.points[0][0] - 101.6) < 1e-9 for e in scale)
    # Hand arithmetic: (130 - 16 + 7) / 3 = 40.33; tails 33.33, from 8 on.
    assert {"8.0", "41.3", "48.3", "81.7", "88.7", "122.0"} <= set(texts(sheet))


def test_a_tall_corner_goes_over_several_pages_and_loses_nothing():
    project = actions.give(seed_box(), "contents.height", mm(420))
    plan = work_out(project)
    sheets = template_sheets(plan)
    assert len(sheets) == 3
    marks = {text for sheet in sheets for text in texts(sheet)}
    assert {f"{float(mark):.1f}" for mark in plan.corner.layout.marks} <= marks
    for sheet in sheets:
        assert sheet.drawing.bounds()[3] <= PAGE[1]


def test_a_piece_that_cannot_be_made_has_a_sheet_that_says_why():
    project = actions.give(actions.choose(seed_box(), "sizing", "outside"), "box.outside_length", inch(1))
    (sheet,) = all_sheets(work_out(project))
    assert any("inside length" in text for text in texts(sheet))


def test_the_cut_list_has_every_part_once_with_its_board():
    rows = cut_list(work_out(seed_box()))
    assert [row.part for row in rows] == ["front", "back", "left end", "right end", "bottom"]
    assert [row.board for row in rows] == ["Ford 2", "Ford 3", "Ford 2", "Ford 2", "Ford 4"]
    assert rows[4].waits and not rows[0].waits


def test_a_milling_sheet_has_every_step_with_its_test():
    sheet = next(sheet for sheet in all_sheets(work_out(seed_box())) if sheet.name == "milling-2-1")
    words = texts(sheet)
    assert sheet.title == "Milling Ford 2"
    for step in ("Face edge", "Gauge the thickness", "Second edge", "Ends"):
        assert step in words
    # It needs 16 and reaches 15.5: the gauge is set to what there is.
    assert "gauge at 15.5 mm" in words
    assert any("Winding sticks after each set" in text for text in words)
    assert any(text.startswith("in all about ") for text in words)


def test_the_day_begins_when_it_is_printed():
    plan = work_out(seed_box())
    (sheet, *_) = [each for each in all_sheets(plan, datetime(2026, 12, 5, 9, 0)) if each.name.startswith("day")]
    assert sheet.title == "Saturday, December 5"
