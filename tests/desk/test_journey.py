"""From nothing to a printed template, as a newcomer does it: another box, other wood, in inches."""

import re
import unicodedata

import pypdfium2 as pdfium
import pytest
from PySide6.QtCore import Qt
from tests.desk.conftest import User
from tests.same import untyped

from nullah.core.lengths import inch
from nullah.core.project import Project
from nullah.core.stations.rack import board_places
from nullah.files.project_file import read_project


def add_board(user, length, width, thickness, species):
    desk = user.window.desk(1)
    desk.species.setCurrentIndex(desk.species.findText(species))
    for name, text in (("length", length), ("width", width), ("thickness", thickness)):
        desk.fields[name].line.setFocus()
        user.bot.keyClicks(desk.fields[name].line, text)
    user.press("Add the board")


#: The box as the first test of a run made it by hand; those that need no history open it.
_MADE = []


@pytest.fixture
def tool_box(qtbot, open_window):
    """The box, made and at its corner."""
    if not _MADE:
        _MADE.append(by_hand(User(qtbot, open_window(Project()))).project)
    user = User(qtbot, open_window(_MADE[0]))
    user.go("joints")
    return user


def by_hand(user):
    """Size the box, put boards up, lay the parts out and set the corner."""
    user.press("inches")
    user.window.header.name.setFocus()
    user.window.header.name.selectAll()
    user.bot.keyClicks(user.window.header.name, "Twine box")
    user.bot.keyClick(user.window.header.name, Qt.Key.Key_Return)
    user.bot.keyClicks(user.window.desk(0).boxes["sizing"], "o")
    for name, text in (
        ("box.outside_length", "14"),
        ("box.outside_width", "8 1/2"),
        ("box.outside_height", "6"),
        ("sides.thickness", "9/16"),
        ("groove.depth", "3/16"),
        ("bottom.thickness", "1/4"),
    ):
        user.type_figure(name, text)
    user.go("rack")
    add_board(user, "4 ft", "7 1/4", "7/8", "black walnut")
    add_board(user, "30", "6 3/4", "13/16", "black walnut")
    add_board(user, "2'", "9 1/2", "1/2", "eastern white pine")
    top = board_places(user.project.boards)["1"][1]
    user.drag((500, top + 20), (560, top + 70))
    user.go("breakdown")
    user.press("Lay the parts out")
    user.bot.waitUntil(lambda: not user.window.desk(2).runner.running)
    user.go("joints")
    fields = user.window.desk(4).fields
    for name, text in (("count", "4"), ("slope", "1:8"), ("pin", "1/4"), ("half_pin", "3/8"), ("proud", "1/64")):
        user.type_in(fields[name], text)
    return user


@pytest.mark.dear
def test_the_plan_agrees_with_hand_arithmetic(tool_box):
    user = tool_box
    assert user.project.piece.name == "Twine box"
    assert not user.plan.unplaced and not any(board.wrong for board in user.plan.boards)
    assert all(item.short.mm <= 0 for item in user.plan.milling)
    # 6 - 2 × 3/8 + 1/4 = 5 1/2, in four steps of 1 3/8; tails 1 1/8.
    layout = user.plan.corner.layout
    assert (layout.step, layout.tail) == (inch("11/8"), inch("9/8"))
    marks = ("3/8", "3/2", "7/4", "23/8", "25/8", "17/4", "9/2", "45/8")
    assert layout.marks == tuple(inch(mark) for mark in marks)
    assert user.reads_on_card("1 3/8″") and user.reads_on_card("7.1° from square")
    # 14 in, and 1/64 proud at each end.
    assert user.plan.part("front").cut_length == inch("449/32")


def test_the_groove_is_moved_where_it_does_not_show(tool_box):
    user = tool_box
    assert user.reads_on_card("shows in both boards")
    (mend,) = [text for text in user.card_texts() if text.startswith("Put the groove at")]
    user.press(mend)
    low = user.plan.ledger.length("groove.height")
    base_low, base_high = user.plan.corner.layout.bases[0]
    assert base_low <= low and low + inch("1/4") <= base_high
    assert user.window.rod.marks[4].state == "4 tails, 1:8"


@pytest.mark.dear
def test_what_is_printed_is_what_was_worked_out(tool_box, tmp_path):
    user = tool_box
    user.window.papers.exports.write_sheets(tmp_path / "paper")
    user.wait_for_files()
    document = pdfium.PdfDocument(tmp_path / "paper" / "sheets.pdf")
    text = "\n".join(page.get_textpage().get_text_range() for page in document)
    for mark in ("0.375", "1.500", "1.750", "2.875", "3.125", "4.250", "4.500", "5.625"):
        assert mark in text
    assert "Twine box" in text and "1:8" in text
    # The step of the dividers as it stands on the template, its real fraction read back.
    pages = [page.get_textpage().get_text_range() for page in document]
    template = next(page for page in pages if "Corner template" in page)
    whole, top, bottom = re.search(r"Dividers\s+(\d+)\s*([⁰¹²³⁴-⁹]+)⁄([₀-₉]+)″", template).groups()
    figures = [int(unicodedata.normalize("NFKC", part)) for part in (whole, top, bottom)]
    assert figures == [1, 3, 8]
    rows = (tmp_path / "paper" / "cut-list.csv").read_text().splitlines()
    assert rows[1].startswith("1,front,355.6,152.4,14.2875,356.394")


def test_it_is_saved_with_every_figure_as_typed_and_opens_the_same(tool_box, tmp_path):
    user = tool_box
    assert user.window.papers.save_path(tmp_path / "twine.nullah")
    text = (tmp_path / "twine.nullah").read_text()
    for typed in ('"8 1/2 in"', '"9/16 in"', '"4 ft"', '"2\'"', '"30 in"', '"1:8"'):
        assert typed in text
    assert untyped(read_project(tmp_path / "twine.nullah")) == untyped(user.project)
    before = [station.state for station in user.window.rod.marks]
    assert user.window.open_path(tmp_path / "twine.nullah")
    assert [station.state for station in user.window.rod.marks] == before


@pytest.mark.dear
def test_every_step_can_be_taken_back_to_nothing_and_done_again(beginner):
    user = by_hand(beginner)
    end = user.project
    steps = 0
    while user.window.header.undo.isEnabled():
        user.press("Undo")
        steps += 1
    assert steps >= 16
    assert user.project.boards == () and user.project.piece.given == ()
    while user.window.header.redo.isEnabled():
        user.press("Redo")
    assert user.project == end
