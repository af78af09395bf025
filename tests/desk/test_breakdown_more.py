"""More of the breakdown: what parts ask, how they are had, pins and swaps, the saw order, another board."""

import pytest
from PySide6.QtCore import Qt
from tests.desk.conftest import as_read

from nullah.core import actions
from nullah.core.breakdown.facts import SawnOtherwise
from nullah.core.lengths import mm
from nullah.core.rack.board import Board
from nullah.core.refs import PieceRef
from nullah.core.stations.breakdown import place_on_bench
from nullah.core.stations.rack import board_places
from nullah.core.wood.movement import GrainCut

BREAKDOWN = 2


@pytest.fixture
def desk(user):
    user.go("breakdown")
    return user.window.desk(BREAKDOWN)


def take(user, part):
    user.window.document.pick_part(part)


def lay_out(user, desk):
    user.press("Lay the parts out")
    user.bot.waitUntil(lambda: not desk.runner.running)


def at(user, part):
    return next(item for item in user.project.layout if item.part == part)


def test_the_keyboard_stays_with_what_is_shown_when_what_was_pressed_rests(user, desk):
    desk.lay_out.setFocus()
    user.press("Lay the parts out")
    assert desk.runner.running and user.window.focusWidget() is user.window.bench
    user.press("Stop")
    user.bot.waitUntil(lambda: not desk.runner.running)
    assert user.window.focusWidget() is not user.window.header.name


# --- what is asked --------------------------------------------------------------------------------


@pytest.mark.dear
def test_what_is_asked_of_the_wood_is_kept_and_held(user, desk):
    take(user, "front")
    user.choose(desk.asked.rings, "quarter")
    board = user.plan.board_of("front")
    assert board.wrong["front"] == SawnOtherwise(GrainCut.QUARTER, board.board.name, GrainCut.FLAT)
    lay_out(user, desk)
    assert user.plan.unplaced[0].part.id == "front"
    assert user.reads_on_card("Front lies nowhere. It asks for quarter-sawn wood")
    user.choose(desk.asked.rings, "")
    assert user.project.asks == ()
    lay_out(user, desk)
    assert not user.plan.unplaced


@pytest.mark.dear
def test_a_stave_asks_for_its_own_wood_and_the_others_of_its_part_do_not(user, desk):
    take(user, "bottom")
    user.choose(desk.asked.made, "2")
    lay_out(user, desk)
    user.click_bench(PieceRef("bottom/2"), beside=True)
    user.choose(desk.asked.wood, "teak")
    assert dict(user.project.asks)["bottom/2"].wood == "teak"
    asked = {piece.id: piece.wood for piece in user.plan.pieces_of("bottom")}
    assert asked["bottom/2"] == "teak" != asked["bottom/1"]
    assert user.reads_on_card("is to be teak")
    user.choose(desk.asked.made, "")
    assert user.project.asks == ()


@pytest.mark.dear
def test_two_parts_are_matched_and_then_lie_end_to_end(user, desk):
    take(user, "front")
    user.choose(desk.asked.together, "new set")
    take(user, "back")
    user.choose(desk.asked.together, "set 1")
    assert user.reads_on_card("is to come from one board with front (set 1)")
    lay_out(user, desk)
    one, two = at(user, "front"), at(user, "back")
    assert one.board == two.board and one.y == two.y
    long = float(user.plan.rough_part("front").length)
    assert abs(two.x - one.x) == pytest.approx(long + float(user.project.shop.kerf))


# --- how parts are had ----------------------------------------------------------------------------


@pytest.mark.dear
def test_a_part_is_made_of_staves_and_each_is_laid(user, desk):
    take(user, "bottom")
    user.choose(desk.asked.made, "2")
    pieces = [piece.id for piece in user.plan.pieces_of("bottom")]
    assert pieces == ["bottom/1", "bottom/2"]
    assert user.chip("bottom").told == "no wood yet"
    lay_out(user, desk)
    assert user.plan.laid("bottom")
    take(user, "bottom")
    assert user.reads_on_card("2 staves, finished")
    assert user.reads_on_card("Glue them all at one go:")
    user.choose(desk.asked.made, "")
    assert [piece.id for piece in user.plan.pieces_of("bottom")] == ["bottom"]
    assert not any("/" in item.part for item in user.project.layout)


def test_a_part_too_wide_for_any_board_is_offered_staves_at_a_click(user, desk):
    narrow = tuple(Board(str(i), f"strip {i}", "yellow-poplar", mm(1200), mm(130), mm(22)) for i in (21, 22))
    project = actions.accept_layout(user.project, ())
    user.window.document.do("narrow boards", lambda _: actions.replace(project, boards=narrow))
    assert user.reads_on_card("2 staves of about")
    user.press("Make it of 2 staves")
    made = user.project.staves[0]
    assert len(made.widths) == 2 and sum(width.mm for width in made.widths) == user.plan.part(made.part).width.mm


def test_parts_that_lie_nowhere_for_one_reason_are_said_once_and_mended_with_one_click(user, desk):
    strip = Board("21", "strip", "yellow-poplar", mm(1200), mm(60), mm(22))
    project = actions.accept_layout(user.project, ())
    user.window.document.do("a narrow board", lambda _: actions.replace(project, boards=(strip,)))
    assert user.reads_on_card("Front, back, left end, and right end lie nowhere. Each is 136 mm wide rough;")
    user.press("Make each of 3 staves")
    assert sorted(made.part for made in user.project.staves) == ["back", "front", "left", "right"]
    assert not user.reads_on_card("Each is")
    user.ctrl(Qt.Key.Key_Z)
    assert user.project.staves == ()


@pytest.mark.dear
def test_two_thin_parts_come_out_of_one_blank(user, desk):
    thick = Board("9", "plank", user.project.board("1").species, mm(1500), mm(200), mm(50))
    user.window.document.do("plank", lambda p: actions.add_board(p, thick))
    take(user, "front")
    user.choose(desk.asked.made, "back")
    blank = user.plan.rough_part("front")
    assert blank.id == "front+back" and blank.name == "front and back, resawn"
    lay_out(user, desk)
    assert at(user, "front+back").board == "9"
    assert user.plan.laid("front") and user.plan.laid("back")


# --- by hand --------------------------------------------------------------------------------------


@pytest.mark.dear
def test_a_pinned_part_stays_when_the_rest_is_laid_out(user, desk):
    take(user, "left")
    where = at(user, "left")
    user.press("Keep it there")
    assert desk.asked.pin.text() == "Let it move"
    user.press("Remove all parts")
    assert [item.part for item in user.project.layout] == ["left"]
    lay_out(user, desk)
    assert (at(user, "left").x, at(user, "left").y, at(user, "left").board) == (where.x, where.y, where.board)
    user.bot.keyClick(user.window.bench, Qt.Key.Key_P)
    assert not at(user, "left").pinned


def test_parts_are_laid_end_for_end_and_turned_over(user, desk):
    take(user, "left")
    user.press("End for end")
    user.press("Turn over")
    assert at(user, "left").flipped and at(user, "left").over
    drawn = [getattr(element, "text", "") for element in user.window.bench.drawing.elements]
    assert "end for end and face down" in drawn
    user.press("Undo")
    assert at(user, "left").flipped and not at(user, "left").over


def test_how_a_part_lies_is_chosen_by_its_drawing(user, desk):
    take(user, "left")
    before = at(user, "left")
    for value, flipped, over in (("flip", True, False), ("both", True, True), ("over", False, True)):
        user.choose(desk.asked.lies, value)
        assert (at(user, "left").flipped, at(user, "left").over) == (flipped, over)
        assert desk.asked.lies.value == value
    user.choose(desk.asked.lies, "")
    assert at(user, "left") == before
    assert len({drawn for drawn, _ in desk.asked.lies._drawn.values()}) == 4, "no two look alike"
    user.press("Undo")
    assert desk.asked.lies.value == "over", "one step for each choice"


def test_two_parts_change_places_or_it_is_said_why_not(user, desk):
    one, two = at(user, "left"), at(user, "right")
    take(user, "left")
    user.press("Swap with …")
    assert "Click the part" in as_read(desk.progress)
    user.click_bench("right", beside=True)
    assert (at(user, "left").x, at(user, "left").y) == (two.x, two.y)
    assert (at(user, "right").x, at(user, "right").y) == (one.x, one.y)
    before = user.project.layout
    take(user, "front")
    user.press("Swap with …")
    user.click_bench("bottom", beside=True)
    assert user.project.layout == before and "cannot change places" in as_read(desk.progress)


def test_a_part_goes_only_where_it_may_lie_and_is_told_why_not(user, desk):
    before = at(user, "left")
    x, top = place_on_bench(user.plan, "left")
    knot = next(f for f in user.project.board("1").flaws if f.kind.value == "knot")
    left, board_top = board_places(user.project.boards)["1"]
    height = float(user.project.board("1").width)
    target = (left + float(knot.start) - 80, board_top + height - float(knot.high) - 40)
    bench = user.window.bench
    a, b = (bench.scale.put(point).toPoint() for point in ((x + 60, top + 60), (target[0] + 60, target[1] + 60)))
    user.bot.mousePress(bench, Qt.MouseButton.LeftButton, pos=a)
    user.bot.mouseMove(bench, pos=b)
    said = [element.text for element in bench.overlay.elements if getattr(element, "text", "")]
    assert any("knot on" in text for text in said)
    user.bot.mouseRelease(bench, Qt.MouseButton.LeftButton, pos=b)
    assert not any(board.wrong or board.not_sawable for board in user.plan.boards)
    assert at(user, "left") == before or at(user, "left").board == "1"


# --- the search, watched --------------------------------------------------------------------------


def test_the_best_so_far_is_shown_while_it_is_looked_for_and_stopping_keeps_it(user, desk):
    user.press("Remove all parts")
    steps = len(user.window.document._undo)
    user.press("Lay the parts out")
    assert desk.runner.running and not user.plan.unplaced, "the first answer is there at once"
    assert not user.project.layout, "and is only shown"
    user.press("Stop")
    assert not desk.runner.running and len(user.project.layout) == 5
    assert len(user.window.document._undo) == steps + 1, "one step to undo"
    assert "all laid" in as_read(desk.progress)


def test_what_is_wished_for_is_kept(user, desk):
    user.choose(desk.wishes["sawing"], "1.0")
    user.choose(desk.wishes["risk"], "0.5")
    assert (user.project.wishes.sawing, user.project.wishes.risk) == (1.0, 0.5)
    user.choose(desk.flawed, "3/10")
    assert float(user.project.flawed_share) == 0.3
    with user.in_shop() as shop:
        user.type_in(shop.figures["joint"], "4")
    assert user.project.allowances.joint.text == "4 mm"


@pytest.mark.dear
def test_another_board_is_tried_before_it_is_bought(user, desk):
    short = actions.remove_board(actions.remove_board(user.project, "1"), "2")
    user.window.document.do("short", lambda _: short)
    assert user.plan.unplaced and user.reads_on_card("To buy, with 20 % over for flaws:")
    board = next(each for each in user.plan.boards if each.placed).board.id
    user.window.document.select(user.window.document.selection._replace(board=board, part=""))
    user.press("Try one more like it")
    user.bot.waitUntil(lambda: not desk.runner.running)
    assert user.project.boards == short.boards, "nothing is bought yet"
    assert "With one more like" in as_read(desk.progress)
    user.press("Add it to the rack")
    assert len(user.project.boards) == len(short.boards) + 1


# --- the saw order --------------------------------------------------------------------------------


def test_the_cuts_are_gone_through_one_by_one(user, desk):
    user.press("Saw order")
    board = desk._board
    assert board is not None and user.window.document.selection.breakdown.cut == 0
    seen = []
    for number, cut in enumerate(board.cuts):
        seen.append(user.card_texts())
        assert as_read(desk.where) == f"cut {number + 1} of {len(board.cuts)}"
        kind = "Crosscut the" if cut.kind.value == "cross" else "Rip the"
        assert user.reads_on_card(kind) and user.reads_on_card("Then in hand:")
        user.bot.keyClick(user.window.bench, Qt.Key.Key_Space)
    assert len({tuple(texts) for texts in seen}) == len(board.cuts)
    assert not desk.next.isEnabled()
    user.bot.keyClick(user.window.bench, Qt.Key.Key_Left)
    assert user.window.document.selection.breakdown.cut == len(board.cuts) - 2
    user.bot.keyClick(user.window.bench, Qt.Key.Key_Escape)
    assert user.window.document.selection.breakdown.cut is None and desk.looks[False].isChecked()


@pytest.mark.dear
def test_a_board_that_is_sawn_up_keeps_its_parts_and_gives_its_offcuts_to_the_rack(user, desk):
    user.click_bench("back", beside=True)
    board = user.plan.board_of("back")
    before = len(user.project.boards)
    user.press("Mark as sawn")
    assert user.project.board(board.board.id).sawn
    came = user.project.boards[before:]
    assert came and all(each.source == f"offcut of {board.board.name}" for each in came)
    assert all(float(each.length) >= 200 and float(each.width) >= 40 for each in came)
    where = at(user, "back")
    x, top = place_on_bench(user.plan, "back")
    user.drag((x + 60, top + 60), (x + 260, top + 60))
    assert at(user, "back") == where, "what is sawn out is not moved"
    user.press("Remove all parts")
    lay_out(user, desk)
    assert at(user, "back") == where
    user.window.document.undo()
    assert user.project.board(board.board.id).sawn
