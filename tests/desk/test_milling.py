"""The milling station as a user works it: surveyed and planned."""

import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtWidgets import QPushButton
from tests.desk.conftest import as_read

from nullah.core.lengths import Unit, mm
from nullah.core.rack.board import Board, Faces, Flaw, FlawKind, Rise
from nullah.core.rack.shape_readings import Calliper, Gap, Wind, figure_of
from nullah.core.refs import ReadingRef, StepRef, WantedReadingRef
from nullah.core.shop import PlaneKind

pytestmark = pytest.mark.usefixtures("practice")


def desk(user):
    return user.window.desk(3)


def board(user):
    return user.project.board("2")


# --- the survey -------------------------------------------------------------------------------------------


@pytest.mark.dear
def test_a_reading_is_entered_at_the_place_where_it_was_taken(miller):
    miller.press("Survey")
    assert miller.reads_on_card("Known by its four figures only")
    miller.click_bench(
        WantedReadingRef(0) if WantedReadingRef(0) in miller.window.bench.targets() else WantedReadingRef(14)
    )
    reading = miller.window.document.selection.milling.reading
    assert isinstance(reading, Gap)
    assert desk(miller).survey.where.text().startswith("here: straightedge along")
    miller.bot.keyClicks(desk(miller).survey.figure.line, "1.4 mm")
    miller.bot.keyClick(desk(miller).survey.figure.line, Qt.Key.Key_Return)
    (taken,) = board(miller).shape
    assert taken.start == reading.start and figure_of(taken).text == "1.4 mm"
    assert miller.reads_on_card("do not fix both faces yet")
    assert miller.reads_on_card("Take next:")
    # Picked again, it can be typed anew or rubbed out.
    miller.click_bench(ReadingRef(0))
    assert desk(miller).survey.figure.line.text() == "1.4 mm"
    miller.press("Delete reading")
    assert board(miller).shape == ()
    miller.press("Undo")
    assert len(board(miller).shape) == 1


@pytest.mark.dear
def test_a_gauge_is_laid_on_by_dragging(miller):
    miller.press("Survey")
    rows = desk(miller).survey
    miller.choose(rows.face, "upper")
    long, wide = float(board(miller).length), float(board(miller).width)
    # From near the left end, some way from the upper edge, nearly along the board.
    miller.drag((long * 0.01, wide * 0.28), (long * 0.7, wide * 0.29))
    reading = miller.window.document.selection.milling.reading
    assert isinstance(reading, Gap) and reading.upper and reading.start[0] == 0 and reading.end[0] > long * 0.6
    assert reading.start[1] == reading.end[1] == pytest.approx(wide * 0.72, abs=3)
    miller.choose(rows.kind, "wind")
    miller.drag((long * 0.25, wide / 2), (long * 0.75, wide / 2))
    reading = miller.window.document.selection.milling.reading
    assert isinstance(reading, Wind) and reading.far - reading.near == pytest.approx(long / 2, abs=5)
    miller.choose(rows.kind, "calliper")
    miller.drag((long * 0.5, wide * 0.2), (long * 0.5, wide * 0.25))
    reading = miller.window.document.selection.milling.reading
    assert isinstance(reading, Calliper) and reading.at[1] == wide
    miller.type_in(rows.figure, "24.6")
    assert [figure_of(each).text for each in board(miller).shape] == ["24.6 mm"]
    # Too short to tell anything: nothing is in hand then.
    miller.choose(rows.kind, "gap")
    miller.drag((long * 0.5, wide * 0.5), (long * 0.505, wide * 0.5))
    assert miller.window.document.selection.milling.reading is None


def test_the_lower_face_is_drawn_as_it_lies_turned_over(miller):
    miller.press("Survey")
    rows = desk(miller).survey
    miller.choose(rows.face, "lower")
    long, wide = float(board(miller).length), float(board(miller).width)
    miller.drag((long * 0.2, wide * 0.3), (long * 0.8, wide * 0.3))
    reading = miller.window.document.selection.milling.reading
    assert not reading.upper
    # Drawn a third below its upper edge, it is a third above the board's lower edge as the rack has it.
    assert reading.start[1] == pytest.approx(wide * 0.3, abs=3)


@pytest.mark.dear
def test_all_that_is_wanted_is_read_and_a_wrong_reading_is_named(miller):
    miller.press("Survey")
    miller.press("Read all that is wanted")
    assert len(board(miller).shape) == 28
    assert miller.reads_on_card("Both faces are known to")
    assert miller.window.document.undo_name == f"survey {board(miller).name}"
    number = next(n for n, each in enumerate(board(miller).shape) if isinstance(each, Calliper))
    miller.click_bench(ReadingRef(number))
    miller.type_in(desk(miller).survey.figure, "30 mm")
    assert miller.reads_on_card("contradict each other")
    assert miller.reads_on_card("Take both again")
    miller.press("Undo")
    assert not miller.reads_on_card("contradict each other")
    miller.press("Delete all readings")
    assert board(miller).shape == ()


def test_what_cannot_have_been_read_is_refused_and_kept(miller):
    miller.press("Survey")
    rows = desk(miller).survey
    for text, words in (("abc", "abc"), ("900 mm", "more than the board is wide")):
        miller.type_in(rows.figure, text)
        assert words in as_read(rows.figure.sentence)
        assert rows.figure.line.text() == text and board(miller).shape == ()


def test_the_survey_says_where_to_begin_and_what_every_way_of_cutting_gives(miller):
    miller.press("Survey")
    texts = miller.card_texts()
    for words in ("Face side", "Whole", "Crosscut", "Ripped", "Both", "Each 1.0 mm costs"):
        assert words in texts
    assert miller.reads_on_card("Begin ") and miller.reads_on_card("best at ")


def test_a_board_with_nothing_left_says_so(miller):
    miller.press("Survey")
    bent = Board("9", "Bent", "black cherry", mm(900), mm(180), mm(20), bow=mm(30))
    from nullah.core import actions

    miller.window.document.do("put a bent board on", lambda p: actions.add_board(p, bent))
    miller.choose(desk(miller).boards, "9")
    assert miller.reads_on_card("Nothing of Bent is left flat at any thickness")
    assert miller.reads_on_card("cut both ways")


def test_without_a_board_every_way_of_looking_says_what_to_do(beginner):
    beginner.go("milling")
    for look in ("Survey", "Strokes", "Plane it"):
        beginner.press(look)
        assert beginner.reads_on_card("Put a board on the rack first.")
    beginner.press("Edges")
    assert beginner.reads_on_card("Draw the lines of A and C")
    beginner.press("Read the sticks")
    assert beginner.reads_on_card("Stand the sticks across both ends")


# --- the forecast ---------------------------------------------------------------------------------------------


def test_the_cut_that_helps_is_one_click_away(user):
    user.go("milling")
    assert user.reads_on_card("if cut at 660 mm first")
    user.press("Cut Ford 2 at 660 mm first")
    (cut,) = user.project.first_cuts
    assert (cut.board, cut.crosswise) == ("2", True) and cut.at == pytest.approx(660, abs=1)
    assert user.window.rod.marks[3].state == "all thick enough"
    # The saw makes that cut first of all, and what it would go through is told.
    first = next(each for each in user.plan.boards if each.board.id == "2").cuts[0]
    assert first.order == 1 and first.at == pytest.approx(cut.at)
    user.press("Undo")
    assert user.project.first_cuts == ()


def test_a_first_cut_is_typed_and_taken_off_again(miller):
    rows = desk(miller).forecast
    miller.type_in(rows.at, "5 m")
    assert "cut it within that" in as_read(rows.at.sentence)
    miller.type_in(rows.at, "655 mm")
    assert [cut.at for cut in miller.project.first_cuts] == [655]
    miller.press("No cut")
    assert miller.project.first_cuts == ()


def test_lows_that_may_stay_count_for_hidden_parts_only(miller):
    rows = desk(miller).forecast
    before = {each.part: each.reach for each in miller.plan.milling}
    miller.type_in(rows.lows, "0.5 mm")
    after = {each.part: each.reach for each in miller.plan.milling}
    assert after["bottom"] == before["bottom"] + mm("0.5") and after["left"] == before["left"]
    miller.type_in(rows.lows, "9 mm")
    assert "Lows of up to 5 mm may stay" in as_read(rows.lows.sentence)


def test_sizes_as_they_went_turn_parts_to_measured_and_all_follows(miller):
    from datetime import date

    rows = desk(miller).forecast
    rows.today = lambda: date(2026, 11, 25)
    miller.window.document.pick_part("left")
    miller.type_in(rows.sizes["thickness"], "15.6 mm")
    name = miller.plan.part("left").quantities[2]
    reading = dict(miller.project.piece.measured)[name]
    assert reading.value.text == "15.6 mm" and reading.on == "2026-11-25"
    assert miller.plan.ledger.quantity(name).origin.value == "measured"
    assert miller.plan.part("left").thickness == mm("15.6")
    miller.press("Read the caliper")
    reading = dict(miller.project.piece.measured)[name]
    assert reading.by == "with the simulated caliper" and abs(float(reading.value) - 15.5) < 0.2
    miller.press("Undo")
    assert dict(miller.project.piece.measured)[name].value.mm == mm("15.6").mm
    miller.type_in(rows.sizes["width"], "0")
    assert as_read(rows.sizes["width"].sentence) == "More than nothing."


# --- strokes and edges ---------------------------------------------------------------------------------------------


@pytest.mark.dear
def test_steps_are_picked_and_the_planes_there_are_are_used(miller):
    miller.press("Strokes")
    assert miller.reads_on_card("fore plane set to 0.5 mm") or miller.reads_on_card("Fore plane set to 0.5 mm")
    gauge = next(ref for ref in miller.window.bench.targets() if isinstance(ref, StepRef))
    assert gauge == StepRef(0)
    edge = next(n for n in range(12) if _step(miller, n) == "Face edge")
    miller.click_bench(StepRef(edge))
    assert miller.reads_on_card("Stopped strokes where it stands high")
    rows = desk(miller).strokes
    miller.type_in(rows.hump, "-0.4 mm")
    assert miller.reads_on_card("Stopped strokes")
    miller.type_in(rows.light, "30 mm")
    assert "Light of up to 10 mm" in as_read(rows.light.sentence)
    with miller.in_shop() as shop:
        fore = shop.planes[PlaneKind.FORE]
        miller.bot.mouseClick(fore.owned, Qt.MouseButton.LeftButton, pos=QPoint(10, fore.owned.height() // 2))
        assert miller.project.shop.plane(PlaneKind.FORE) is None
    miller.click_bench(StepRef(0))
    assert miller.reads_on_card("Jack plane set to")
    with miller.in_shop() as shop:
        miller.bot.mouseClick(fore.owned, Qt.MouseButton.LeftButton, pos=QPoint(10, fore.owned.height() // 2))
        assert len(miller.project.shop.planes) == 4
        miller.type_in(fore.figures["shaving"], "0.3 mm")
        assert miller.project.shop.plane(PlaneKind.FORE).shaving.text == "0.3 mm"
        miller.type_in(fore.figures["sole"], "99 mm")
        assert "From 100 mm to 900 mm" in as_read(fore.figures["sole"].sentence)
        miller.type_in(fore.figures["sole"], "100 mm")
        assert miller.project.shop.plane(PlaneKind.FORE).sole.text == "100 mm"


def _step(user, number):
    labels = [e for e in user.window.bench.drawing.elements if e.ref == StepRef(number)]
    return next((e.text for e in labels if getattr(e, "text", "") and not e.text.isdigit()), "")


@pytest.mark.dear
def test_grain_and_knots_are_marked(miller):
    from nullah.core import actions

    knot = Flaw(FlawKind.KNOT, mm(480), mm(520), mm(60), mm(90), faces=Faces.UP)
    miller.window.document.do("a knot", lambda p: actions.add_flaw(p, "2", knot))
    miller.press("Strokes")
    assert miller.reads_on_card("Look at the edge which way the grain rises")
    miller.choose(desk(miller).strokes.grain, Rise.LEFT.value)
    assert board(miller).rises is Rise.LEFT
    assert not miller.reads_on_card("Look at the edge which way the grain rises")
    words = [e.text for e in miller.window.bench.drawing.elements if hasattr(e, "text")]
    assert any(text.startswith("with the grain: ") for text in words)
    # The knot shows on one face only: that is the second face.
    second = next(n for n in range(12) if _step(miller, n).startswith("Second face"))
    miller.click_bench(StepRef(second))
    assert any("knot: tears" in e.text for e in miller.window.bench.drawing.elements if hasattr(e, "text"))
    assert miller.reads_on_card("Where the grain turns take the finest set")


def test_edges_are_planned_from_typed_figures(miller):
    miller.press("Edges")
    rows = desk(miller).edges
    miller.choose(rows.task, "typed/round")
    assert miller.reads_on_card("Chamfer at 45° to lines 3.5 mm from the corner")
    miller.type_line(rows.fields[0], "10")
    assert miller.reads_on_card("Chamfer at 45° to lines 5.9 mm from the corner")
    miller.type_line(rows.fields[0], "ten")
    assert "“ten” is not a length" in as_read(rows.sentence)
    for kind in ("taper", "chamfer", "thumbnail", "panel", "bevel"):
        miller.choose(rows.task, f"typed/{kind}")
        assert miller.window.bench.drawing.elements
    miller.choose(rows.task, "typed/bevel")
    miller.type_line(rows.fields[2], "89")
    assert miller.reads_on_card("between 0 and 80 degrees")


def test_edges_are_typed_and_told_in_inches(miller):
    miller.press("Edges")
    rows = desk(miller).edges
    miller.choose(rows.task, "typed/round")
    miller.window.show_unit(Unit.INCH)
    assert [field.text() for field in rows.fields[:2]] == ["0.236″", "0.004″"]
    miller.type_line(rows.fields[0], "1/2")
    radius, within = miller.window.document.selection.milling.edge_task[1]
    assert radius == pytest.approx(12.7) and within == 0.1, "what was not touched is as exact as it was"
    assert miller.reads_on_card("Chamfer at 45° to lines 0.293″ from the corner")
    miller.type_line(rows.fields[0], "10 mm")
    assert miller.window.document.selection.milling.edge_task[1][0] == 10
    miller.choose(rows.task, "typed/bevel")
    assert rows.fields[2].text() == "22", "degrees have no unit"
    miller.type_line(rows.fields[2], "steep")
    assert "degrees: “steep” is not a figure" in as_read(rows.sentence)


def test_the_rows_fit_at_the_smallest_window(miller):
    miller.window.resize(900, 640)
    for look in ("Forecast", "Survey", "Strokes", "Edges", "Plane it", "Read the sticks"):
        miller.press(look)
        miller.bot.wait(50)
        line = desk(miller).line
        for button in line.findChildren(QPushButton):
            if button.isVisible():
                assert line.rect().contains(button.rect().translated(button.mapTo(line, QPoint(0, 0)))), look
