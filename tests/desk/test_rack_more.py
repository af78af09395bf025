"""More of the rack: lists, faces and depths, edges, the heart of the tree, moisture."""

from datetime import date
from fractions import Fraction

import pytest
from PySide6.QtCore import Qt
from tests.desk.conftest import as_read
from tests.same import untyped

from nullah.core.lengths import mm
from nullah.core.rack.board import Board, Faces, GrainFigure
from nullah.core.refs import HeartRef
from nullah.core.stations.rack import board_places, end_view
from nullah.core.wood.movement import GrainCut
from nullah.instruments.moisture_meter import SimulatedMeter

RACK = 1


@pytest.fixture
def rack(user):
    user.go("rack")
    return user.window.desk(RACK)


def pick(user, board):
    left, top = board_places(user.project.boards)[board]
    size = user.project.board(board)
    user.drag(
        (left + float(size.length) * 0.8, top + float(size.width) * 0.3),
        (left + float(size.length) * 0.8 + 1, top + float(size.width) * 0.3),
    )
    assert user.window.document.selection.board == board


def type_lines(user, page, *lines):
    for number, line in enumerate(lines):
        if number:
            user.bot.keyClick(page.text, Qt.Key.Key_Return)
        user.bot.keyClicks(page.text, line)


# --- lists ----------------------------------------------------------------------------------------


def test_ten_boards_are_typed_at_once(user, rack):
    before = len(user.project.boards)
    user.press("Add several")
    page = rack.typing
    assert page.isVisible() and not page.put.isEnabled()
    type_lines(user, page, "2400 x 200 x 27 black walnut *6", "1800, 165, 34, Ford 1", "8' 1x12 *3 shelf stock")
    assert as_read(page.sentence) == "10 boards."
    user.press("Put them on the rack")
    assert not page.isVisible() and len(user.project.boards) == before + 10
    names = [board.name for board in user.project.boards]
    assert len(set(names)) == len(names), "names that were taken got the next free number"
    assert user.project.boards[-1].width.as_text() == "11 1/4 in"
    assert user.window.document.undo_name == "put 10 boards on the rack"
    user.press("Undo")
    assert len(user.project.boards) == before


def test_a_line_that_cannot_be_read_is_named_and_nothing_is_lost(user, rack):
    user.press("Add several")
    page = rack.typing
    type_lines(user, page, "2400 x 200 x 27", "1500 by 160")
    assert as_read(page.sentence).startswith("Line 2, “1500 by 160”: three sizes are needed")
    assert not page.put.isEnabled() and "2400" in page.text.toPlainText()
    user.bot.keyClick(page, Qt.Key.Key_Escape)
    assert not page.isVisible() and "2400" in page.text.toPlainText()


def test_the_rack_goes_out_as_a_list_and_comes_back(user, rack, tmp_path):
    papers = user.window.papers
    papers.exports.write_rack(tmp_path / "rack.csv")
    assert "their flaws in rack flaws.csv" in as_read(user.window.banner.words)
    before = user.project.boards
    assert papers.exports.bring_boards(tmp_path / "rack.csv")
    assert as_read(user.window.banner.words).endswith("are on the rack."), "and nothing was passed over"
    came = user.project.boards[len(before) :]
    for old, new in zip(before, came, strict=True):
        assert untyped((new.name, new.length, new.width, new.flaws, new.cut, new.twist)) == untyped(
            (old.name, old.length, old.width, old.flaws, old.cut, old.twist)
        )
    (tmp_path / "bad.csv").write_text("board,length,width,thickness\na,1000,0,20\n")
    assert not papers.exports.bring_boards(tmp_path / "bad.csv")
    assert "bad.csv, line 2: width is 0" in as_read(user.window.banner.words)
    assert len(user.project.boards) == 2 * len(before)
    (tmp_path / "more.csv").write_text("board,length,width,thickness,color,shelf\na,1000,100,20,red,3\n")
    assert papers.exports.bring_boards(tmp_path / "more.csv")
    assert "Nothing is taken of the columns “color” and “shelf” of more.csv." in as_read(user.window.banner.words)


def test_a_survey_is_brought_in_for_the_board_in_hand(user, rack, tmp_path):
    table = tmp_path / "survey.csv"
    rows = [f"{x},{y},{24 - x / 500},{x * y / 100000}" for x in (0, 500, 1000) for y in (0, 100)]
    table.write_text("x,y,top,bottom\n" + "\n".join(rows))
    papers = user.window.papers
    assert not papers.exports.bring_survey(table) and "in hand first" in as_read(user.window.banner.words)
    pick(user, "1")
    assert papers.exports.bring_survey(table)
    surface = user.project.board("1").surface
    assert surface.xs == (0, 500, 1000) and surface.top[2] == (22, 22)
    table.write_text("x,y,top,bottom\n0,0,1,2\n")
    assert not papers.exports.bring_survey(table) and user.project.board("1").surface == surface


# --- what is known of a board ---------------------------------------------------------------------


def test_a_flaw_is_said_to_be_on_one_face_and_so_deep(user, rack):
    user.choose(rack.faces, "lower")
    left, top = board_places(user.project.boards)["3"]
    count = len(user.project.board("3").flaws)
    user.drag((left + 300, top + 30), (left + 360, top + 60))
    flaw = user.project.board("3").flaws[count]
    assert flaw.faces is Faces.DOWN and flaw.depth is None
    assert rack.flaw_depth.isEnabled()
    user.type_in(rack.flaw_depth, "4")
    assert user.project.board("3").flaws[count].depth.text == "4 mm"
    user.type_in(rack.flaw_depth, "400")
    assert "no more than the board" in as_read(rack.flaw_depth.sentence)
    assert user.project.board("3").flaws[count].depth.text == "4 mm"
    user.choose(rack.faces, "through")
    assert user.project.board("3").flaws[count].depth is None


def test_the_heart_is_dragged_on_the_end_grain_and_the_cut_follows(user, rack):
    pick(user, "1")
    board = user.project.board("1")
    view = end_view(user.project.boards, board)
    inside = (view.left + float(board.width) / 2 * view.scale, view.top + float(board.thickness) / 2 * view.scale)
    user.drag(inside, (view.left - 1.2 * float(board.width) * view.scale, inside[1]))
    assert user.project.board("1").cut is GrainCut.QUARTER
    assert user.project.board("1").heart[0] < 0
    assert "quarter-sawn" in user.window.document.undo_name
    user.press("Undo")
    assert user.project.board("1").heart is None


def test_an_edge_is_drawn_in_and_made_straight_again(user, rack):
    user.choose(rack.kind, "edge")
    left, top = board_places(user.project.boards)["2"]
    board = user.project.board("2")
    wide = float(board.width)
    # From near the lower edge up to 30 mm in, in the middle of its length.
    user.drag((left + 600, top + wide - 5), (left + 600, top + wide - 30))
    points = user.project.board("2").low_edge
    assert len(points) == 3 and float(points[1][1]) == pytest.approx(30, abs=2)
    user.press("Straight edges")
    assert user.project.board("2").straight


def test_words_and_figure_of_a_board(user, rack):
    pick(user, "1")
    user.bot.keyClicks(rack.colour, "dark streak")
    user.bot.keyClick(rack.colour, Qt.Key.Key_Return)
    user.choose(rack.figure, "figured")
    user.bot.keyClick(rack.dressed, Qt.Key.Key_Space)
    board = user.project.board("1")
    assert board.colour == "dark streak" and board.figure is GrainFigure.FIGURED and board.dressed
    assert user.reads_on_card("Dark streak")


# --- moisture -------------------------------------------------------------------------------------


def test_readings_are_typed_and_the_day_it_is_ready_is_told(user, rack):
    pick(user, "1")
    row = rack.moisture
    days = iter([date(2026, 3, 1), date(2026, 3, 1), date(2026, 3, 15)])
    row.today = lambda: next(days)
    for field, text in ((row.reference, "9"), (row.reading, "14"), (row.reading, "11,5 %")):
        field.setFocus()
        field.selectAll()
        user.bot.keyClicks(field, text)
        user.bot.keyClick(field, Qt.Key.Key_Return)
    assert [float(reading.percent) for reading in user.project.board("1").readings] == [14, 11.5]
    assert user.reads_on_card("11.5 % on 2026-03-15, 2.5 points above the room")
    assert user.reads_on_card("Ready about 2026-0")
    assert user.window.rod.marks[RACK].state.endswith("1 not ready")
    row.reading.setFocus()
    row.reading.selectAll()
    user.bot.keyClicks(row.reading, "wet")
    user.bot.keyClick(row.reading, Qt.Key.Key_Return)
    assert as_read(row.sentence) == "“wet” is not a reading: one number is wanted."
    assert len(user.project.board("1").readings) == 2


def test_the_meter_is_read_at_a_press(user, rack):
    pick(user, "1")
    rack.moisture.meter = SimulatedMeter(start=13, room=8.5, scatter=0.0)
    rack.moisture.today = lambda: date(2026, 4, 1)
    user.press("Read the meter")
    assert user.project.board("1").readings[0].percent == 13
    assert user.project.room.reference[0].percent == Fraction(17, 2)
    rack.moisture.today = lambda: date(2026, 4, 13)
    user.press("Read the meter")
    assert float(user.project.board("1").readings[1].percent) == pytest.approx(8.5 + 4.5 / 2.71828, abs=0.3)


def test_the_air_of_the_room_stands_in_for_its_own_piece(user, rack):
    pick(user, "1")
    row = rack.moisture
    for field, text in ((row.temperature, "21"), (row.humidity, "50")):
        field.setFocus()
        field.selectAll()
        user.bot.keyClicks(field, text)
        user.bot.keyClick(field, Qt.Key.Key_Return)
    assert user.project.room.target == pytest.approx(9.2, abs=0.05)
    row.humidity.setFocus()
    row.humidity.selectAll()
    user.bot.keyClicks(row.humidity, "140")
    user.bot.keyClick(row.humidity, Qt.Key.Key_Return)
    assert as_read(row.sentence) == "Humidity runs from 0 to 100 %."
    assert user.project.room.humidity == 50


def test_a_crowded_rack_shows_details_only_of_the_board_in_hand(open_window, qtbot):
    from nullah.core.project import Project
    from nullah.core.stations import STATIONS
    from nullah.core.stations.selection import Selection

    boards = tuple(Board(str(i), f"b{i}", "black cherry", mm(1500), mm(180), mm(25)) for i in range(1, 15))
    window = open_window(Project(boards=boards))
    plan = window.document.plan
    bare, held = STATIONS[RACK].draw(plan, Selection()), STATIONS[RACK].draw(plan, Selection(board="9"))
    assert bare.bounds() == held.bounds(), "taking a board in hand moves nothing"
    assert any(element.ref == HeartRef("9") for element in held.elements)
