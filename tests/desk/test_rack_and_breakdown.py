import pytest
from PySide6.QtCore import Qt
from PySide6.QtGui import QTextDocumentFragment
from tests.desk.conftest import as_read

from nullah.core.breakdown.facts import NoKerf
from nullah.core.rack.board import FlawKind
from nullah.core.refs import BoardSizeRef
from nullah.core.stations.breakdown import place_on_bench
from nullah.core.stations.rack import board_places


def spot(user, board_id, x, y):
    """Return the place on the bench of a point on a board, measured from its lower left corner."""
    board = user.project.board(board_id)
    return x, board_places(user.project.boards)[board_id][1] + float(board.width) - y


def add_board(user, length, width, thickness):
    desk = user.window.desk(1)
    for name, text in (("length", length), ("width", width), ("thickness", thickness)):
        desk.fields[name].line.setFocus()
        user.bot.keyClicks(desk.fields[name].line, text)
    user.press("Add the board")


def test_a_flaw_is_drawn_by_dragging_and_changed_by_its_border(user):
    user.go("rack")
    user.drag(spot(user, "1", 400, 20), spot(user, "1", 480, 60))
    flaw = user.project.board("1").flaws[-1]
    assert flaw.kind is FlawKind.KNOT
    edges = [float(edge) for edge in (flaw.start, flaw.end, flaw.low, flaw.high)]
    assert all(abs(a - b) < 4 for a, b in zip(edges, (400, 480, 20, 60), strict=True)), edges
    assert user.window.header.undo.toolTip() == "Undo: mark a knot on Ford 1"
    user.drag(spot(user, "1", edges[1], 40), spot(user, "1", 560, 40))
    assert abs(float(user.project.board("1").flaws[-1].end) - 560) < 4
    user.drag(spot(user, "1", 480, 40), spot(user, "1", 580, 90))
    moved = user.project.board("1").flaws[-1]
    assert abs(float(moved.start) - 500) < 6 and abs(float(moved.low) - 70) < 6
    user.bot.keyClick(user.window.bench, Qt.Key.Key_Delete)
    assert len(user.project.board("1").flaws) == 2
    for _ in range(4):
        user.press("Undo")
    assert len(user.project.board("1").flaws) == 2


def test_a_flaw_dragged_over_the_edge_stops_at_the_edge(user):
    user.go("rack")
    user.drag(spot(user, "5", 560, 100), spot(user, "5", 700, 400))
    flaw = user.project.board("5").flaws[-1]
    assert flaw.end == user.project.board("5").length and flaw.high == user.project.board("5").width


def test_a_click_on_a_board_picks_it_and_its_figures_can_be_typed(user):
    user.go("rack")
    user.drag(spot(user, "3", 300, 90), spot(user, "3", 301, 90))
    assert user.reads_on_card("Ford 3")
    user.type_figure(BoardSizeRef("3", "length"), "30 in")
    assert float(user.project.board("3").length) == 762
    user.press("1 mm")
    field = user.window.editor.field
    assert field.line.accessibleName() in ("Ford 3, bow", "Ford 3, twist")
    user.bot.keyClick(field.line, Qt.Key.Key_Escape)


def test_a_board_as_the_yard_names_it(user):
    user.go("rack")
    add_board(user, "8 ft", "1x12", "")
    board = user.project.boards[-1]
    # PS 20: 1x12 is 3/4 by 11 1/4.
    assert (board.width.as_text(), board.thickness.as_text()) == ("11 1/4 in", "3/4 in")
    desk = user.window.desk(1)
    desk.fields["length"].line.setText("900")
    desk.fields["width"].line.setText("5/4")
    user.press("Add the board")
    assert desk.fields["thickness"].line.text() == "1 1/4 in", "hardwood: random widths"
    assert "Type a length" in as_read(desk.fields["width"].sentence)


def test_a_board_is_given_a_name_and_a_species(user):
    user.go("rack")
    user.drag(spot(user, "3", 300, 90), spot(user, "3", 301, 90))
    desk = user.window.desk(1)
    desk.name.setFocus()
    desk.name.selectAll()
    user.bot.keyClicks(desk.name, "<i>Old</i> shelf")
    user.bot.keyClick(desk.name, Qt.Key.Key_Return)
    assert user.project.board("3").name == "<i>Old</i> shelf"
    assert user.reads_on_card("<i>Old</i> shelf")
    user.bot.keyClicks(desk.board_species, "white oak")
    assert user.project.board("3").species == "white oak"
    user.bot.keyClicks(desk.cut, "q")
    assert user.reads_on_card("White oak, quarter-sawn: it stays flat.")
    tip = QTextDocumentFragment.fromHtml(user.window.header.undo.toolTip()).toPlainText()
    assert tip.replace("\u00a0", " ") == "Undo: <i>Old</i> shelf: cut quarter"


def test_boards_are_added_and_taken_off(user):
    user.go("rack")
    add_board(user, "2 ft", "5 1/2 in", "25")
    board = user.project.boards[-1]
    assert (board.name, float(board.length)) == ("Board 6", 609.6)
    user.press("Remove board")
    assert len(user.project.boards) == 5
    desk = user.window.desk(1)
    desk.fields["length"].line.clear()
    user.bot.keyClicks(desk.fields["length"].line, "-4")
    user.press("Add the board")
    assert "more than nothing" in as_read(desk.fields["length"].sentence)
    assert len(user.project.boards) == 5


@pytest.mark.dear
def test_a_beginner_goes_from_nothing_to_a_laid_out_box(beginner):
    user = beginner
    user.go("breakdown")
    assert "Add some on the rack" in user.window.bench.invitation
    assert not user.window.bench.drawing.elements
    user.go("rack")
    assert "rack is empty" in user.window.bench.invitation
    for sizes in (("1500", "150", "22"), ("600", "260", "12")):
        add_board(user, *sizes)
    user.go("breakdown")
    assert user.window.rod.marks[2].state == "5 of 5 without wood"
    user.press("Lay the parts out")
    user.bot.waitUntil(lambda: not user.window.desk(2).runner.running)
    assert not user.plan.unplaced
    assert user.window.document.undo_name == "lay the parts out"
    user.go("milling")
    assert user.window.rod.marks[3].state == "all thick enough"
    user.press("Undo")
    assert len(user.plan.unplaced) == 5


def test_the_search_can_be_stopped_and_keeps_its_best(user):
    user.go("breakdown")
    user.press("Remove all parts")
    user.press("Lay the parts out")
    user.bot.wait(60)
    if user.window.desk(2).runner.running:
        user.press("Stop")
    user.bot.waitUntil(lambda: not user.window.desk(2).runner.running)
    assert not user.plan.unplaced


def test_a_part_is_dragged_to_another_board_and_snaps(user):
    user.go("breakdown")
    x, top = place_on_bench(user.plan, "left")
    target = board_places(user.project.boards)["1"][1]
    user.drag((x + 60, top + 60), (500 + 60, target + 33 + 60))
    placed = next(item for item in user.project.layout if item.part == "left")
    assert placed.board == "1"
    assert placed.y == 0.0, "snapped to the board's edge"
    assert user.window.document.selection.part == "left"
    assert not next(b for b in user.plan.boards if b.board.id == "1").wrong


def test_a_part_dragged_off_the_boards_is_lifted_and_moved_by_keys(user):
    user.go("breakdown")
    x, top = place_on_bench(user.plan, "back")
    user.drag((x + 60, top + 60), (1400, top + 60))
    assert [item.part.id for item in user.plan.unplaced] == ["back"]
    assert user.reads_on_card("lies nowhere")
    user.press("Undo")
    user.window.bench.setFocus()
    user.bot.keyClick(user.window.bench, Qt.Key.Key_Right, Qt.KeyboardModifier.ShiftModifier)
    assert next(item for item in user.project.layout if item.part == "back").x == 1.0


def test_allowances_are_typed_and_a_wrong_one_stays(user):
    user.go("breakdown")
    with user.in_shop() as shop:
        field = shop.figures["end"]
        user.type_in(field, "2 in")
        assert float(user.plan.rough_part("front").length) == 379 + 50.8
        user.type_in(field, "much")
        assert field.line.text() == "much" and "not a length" in as_read(field.sentence)


def test_what_the_saw_takes_is_typed_and_the_layout_is_checked_again(user):
    user.go("breakdown")
    with user.in_shop() as shop:
        user.type_in(shop.figures["kerf"], "5 mm")
    assert isinstance(next(b for b in user.plan.boards if b.board.id == "2").wrong["front"], NoKerf)
    user.press("Undo")
    assert user.window.rod.marks[2].state == "all laid, 8 cuts"
