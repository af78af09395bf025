"""What the milling station makes of a plan: stock, forecasts with the cut that helps, survey, strokes, edges."""

from dataclasses import replace
from itertools import pairwise

import pytest
from tests.said import said

from nullah.core import actions
from nullah.core.breakdown.layout import FirstCut
from nullah.core.card import Severity
from nullah.core.drawing import Dimension, Label, Path, Ring, Role
from nullah.core.forms import FORMS
from nullah.core.lengths import Marks, Unit, mm
from nullah.core.milling.adjust import usual_readings
from nullah.core.milling.edge_tasks import KINDS
from nullah.core.milling.forecast import best_first_cut, reach
from nullah.core.milling.strokes import StageKind
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project
from nullah.core.rack.board import Board, Rise
from nullah.core.rack.shape_readings import Calliper, Gap, Wind, figure_of, with_figure
from nullah.core.reader import Reader
from nullah.core.refs import ReadingRef
from nullah.core.stations import STATIONS
from nullah.core.stations.milling import VIEWS
from nullah.core.stations.selection import MillingSelection, MillingView, Selection
from nullah.core.stations.stock import selected_board, selected_job, selected_stock, stock_name, stocks_of
from nullah.core.stations.stroke_plan import selected_step
from nullah.core.stations.surveying import as_it_lies
from nullah.core.wording.durations import about_words
from nullah.core.wording.strokes import milling_step_words
from nullah.core.wording.survey import reading_words
from nullah.demo.seed_box import seed_box
from nullah.demo.seed_cabinet import seed_cabinet
from nullah.instruments.shape_gauges import SimulatedGauges

MILLING = next(station for station in STATIONS if station.id == "milling")


@pytest.fixture(scope="module")
def cabinet():
    return work_out(seed_cabinet())


def words(drawing):
    return [e.text for e in drawing.elements if isinstance(e, Label)]


def card_of(project, view):
    return MILLING.card(work_out(project), Selection(milling=MillingSelection(view)))


# --- stock ------------------------------------------------------------------------------------------------


def test_a_board_is_flattened_whole_or_its_parts_are_sawn_out_first(cabinet):
    whole, apart = (stocks_of(cabinet, cabinet.project.board(board)) for board in ("1", "4"))
    assert len(whole) == 1 and set(whole[0].parts) == {"left", "right", "top"} and whole[0].needs == mm(17)
    assert len(apart) == 4 and all(len(stock.parts) == 1 for stock in apart)
    assert stock_name(cabinet, whole[0]) == "Ford 1"
    assert stock_name(cabinet, apart[0]) == "drawer 1 front, out of Ford 4"


@pytest.mark.parametrize(
    ("cut", "names"),
    [
        (FirstCut("2", True, 660.0), ["Ford 2, its left length", "Ford 2, its right length"]),
        (FirstCut("2", False, 70.0), ["Ford 2, its lower width", "Ford 2, its upper width"]),
    ],
)
def test_a_first_cut_makes_two_pieces_of_a_board(cut, names):
    plan = work_out(actions.cut_at(seed_box(), "2", cut))
    found = stocks_of(plan, plan.project.board("2"))
    assert [stock_name(plan, stock) for stock in found] == names
    kerf = float(plan.project.shop.kerf)
    along = [stock.rect.length if cut.crosswise else stock.rect.width for stock in found]
    whole = plan.project.board("2").length if cut.crosswise else plan.project.board("2").width
    assert sum(along) + kerf == pytest.approx(float(whole))


def test_lows_may_stay_on_stock_of_hidden_parts_only():
    plan = work_out(actions.leave_lows(seed_cabinet(), mm("0.5")))
    lows = {board: stocks_of(plan, plan.project.board(board))[0].lows for board in ("1", "7")}
    assert lows == {"1": mm(0), "7": mm("0.5")}


def test_what_is_in_hand_at_the_planing_bench(cabinet):
    assert selected_board(cabinet, Selection(board="3")).id == "3"
    assert selected_board(cabinet, Selection(part="back1")).id == "5"
    assert selected_board(cabinet, Selection()).id == "1"
    assert selected_stock(cabinet, Selection(part="drawer31_front")).parts == ("drawer31_front",)
    assert selected_job(work_out(Project()), Selection()) is None
    alone = work_out(Project(boards=(Board("9", "alone", "black cherry", mm(500), mm(100), mm(20)),)))
    stock, job = selected_job(alone, Selection())
    assert stock.parts == () and stock.needs is None and job.thickness == pytest.approx(20)


# --- the forecast ----------------------------------------------------------------------------------------------


def test_the_first_cut_that_is_offered_is_the_best_there_is():
    plan = work_out(seed_box())
    board = plan.project.board("2")
    placed = next(each.placed for each in plan.boards if each.board.id == "2")
    needs = [(item.rect, mm(16)) for item in placed]
    cut, margin = best_first_cut(board, needs, 1.5)
    # By brute force: every half millimetre across the board that goes through no part.
    clear = [
        at / 2
        for at in range(60, 1900)
        if not any(item.rect.x < at / 2 + 1.5 and at / 2 < item.rect.end for item in placed)
    ]
    wide, long = float(board.width), float(board.length)
    every = [
        min(
            float(reach(board, 0, at, 0, wide)) if item.rect.end <= at else float(reach(board, at + 1.5, long, 0, wide))
            for item in placed
        )
        - 16
        for at in clear
    ]
    assert cut.crosswise and margin == pytest.approx(max(every), abs=0.11)


def test_a_board_that_reaches_far_enough_is_offered_no_cut(cabinet):
    assert all(forecast.better is None for forecast in cabinet.milling)
    short = [forecast for forecast in work_out(seed_box()).milling if forecast.short.mm > 0]
    assert short and all(forecast.better[1] >= forecast.needs for forecast in short)


def test_too_little_known_is_said_before_it_is_sawn():
    project = seed_box()
    close = replace(project.board("3"), thickness=mm(17))
    card = card_of(actions.change_board(project, close), MillingView.FORECAST)
    assert any("survey it before you saw" in said(r) for r in card.mind if r.weight is Severity.WARNING) or any(
        "will not reach" in said(r) for r in card.mind
    )


# --- the survey ----------------------------------------------------------------------------------------------------


BOARD = Board("9", "Nine", "black cherry", mm(800), mm(160), mm(25), mm(1), mm(1), mm(3))


def surveyed(number=28, **changed):
    gauges = SimulatedGauges(5)
    shape = tuple(gauges.read(BOARD, reading) for reading in usual_readings(BOARD)[:number])
    return Project(boards=(replace(BOARD, shape=shape, **changed),))


def test_readings_are_named_in_the_unit_that_is_shown():
    inches = Marks(Unit.INCH)
    gap = Gap(True, (0.0, 50.8), (800.0, 50.8), (400.0, 50.8), mm(1))
    assert reading_words(gap, Reader()) == "straightedge along, 51 mm up, upper face, gap at 400 mm"
    assert reading_words(gap, Reader(inches)).startswith("straightedge along, 2″ up")
    assert reading_words(Wind(False, 0.0, 400.0, mm(300), mm(1)), Reader()) == "sticks at 0 mm and 400 mm, lower face"
    assert reading_words(Calliper((0.0, 160.0), mm(25)), Reader()) == "caliper at 0 mm, upper edge"
    assert reading_words(Gap(True, (0.0, 0.0), (800.0, 160.0), (400.0, 80.0), mm(1)), Reader()).endswith(
        "rising to the right, upper face"
    )


def test_turned_over_about_its_length_only_the_height_changes():
    assert as_it_lies(BOARD, True, (100.0, 30.0)) == (100.0, 130.0)
    assert as_it_lies(BOARD, False, (100.0, 30.0)) == (100.0, 30.0)


def test_every_reading_stands_on_the_face_it_was_taken_from():
    plan = work_out(surveyed())
    shown = {
        upper: MILLING.draw(plan, Selection(milling=MillingSelection(MillingView.SURVEY, upper)))
        for upper in (True, False)
    }
    board = plan.project.boards[0]
    for upper, drawing in shown.items():
        taken = {e.ref for e in drawing.elements if isinstance(e.ref, ReadingRef)}
        wanted = {
            ReadingRef(number)
            for number, reading in enumerate(board.shape)
            if isinstance(reading, Calliper) or reading.upper is upper
        }
        assert taken == wanted
        assert any("turned over" in text for text in words(drawing)) is not upper
        assert any(isinstance(e, Ring) and e.text == "0" for e in drawing.elements), "the lows that set the limit"


def test_the_survey_gives_every_way_of_cutting_and_none_is_worse_than_whole():
    card = card_of(surveyed(), view=MillingView.SURVEY)
    figures = {setting.tool: setting.figure for setting in card.set}

    def least(tool):
        return min(float(text.split(" mm")[0]) for text in figures[tool].split(" and "))

    assert least("Crosscut") >= least("Whole") - 0.15 and least("Ripped") >= least("Whole") - 0.15
    assert least("Both") >= max(least("Crosscut"), least("Ripped")) - 0.35
    assert "strokes" in figures["Each 1.0 mm costs"]


@pytest.mark.parametrize(("number", "known"), [(3, False), (28, True)])
def test_it_says_whether_the_readings_fix_the_faces(number, known):
    texts = [said(remark) for remark in card_of(surveyed(number), view=MillingView.SURVEY).mind]
    assert any(text.startswith("Both faces are known to") for text in texts) is known
    assert any("Take next: " in text for text in texts) is not known


def test_contradicting_readings_are_both_named():
    project = surveyed()
    board = project.boards[0]
    number = next(n for n, reading in enumerate(board.shape) if isinstance(reading, Calliper))
    wrong = with_figure(board.shape[number], figure_of(board.shape[number]) + mm(6))
    texts = [said(r) for r in card_of(actions.take_shape(project, "9", wrong), view=MillingView.SURVEY).mind]
    told = next(text for text in texts if "contradict" in text)
    assert told.count("(") == 2 and reading_words(wrong, Reader()) in told


# --- strokes and edges -------------------------------------------------------------------------------------------


def test_every_step_can_be_drawn_and_told_in_both_units():
    for unit in Unit:
        plan = work_out(actions.show_in(surveyed(rises=Rise.LEFT), Marks(unit)))
        _, job, steps, _ = selected_step(plan, Selection(milling=MillingSelection(MillingView.STROKES)))
        for number, step in enumerate(steps):
            selection = Selection(milling=MillingSelection(MillingView.STROKES, step=number))
            drawing, card = MILLING.draw(plan, selection), MILLING.card(plan, selection)
            told = milling_step_words(step, job, plan.reader)
            assert told.title in words(drawing) and card.mark == told.steps
            text = " ".join((*card.mark, *(setting.figure for setting in card.set)))
            assert (" mm" in text) is (unit is Unit.MM) or "mm" not in text
    assert selected_step(plan, Selection(milling=MillingSelection(step=99)))[3].kind is steps[-1].kind


def test_strokes_are_drawn_with_the_grain():
    for rises, left in ((Rise.LEFT, True), (Rise.RIGHT, False)):
        plan = work_out(surveyed(rises=rises))
        _, _, steps, _ = selected_step(plan, Selection())
        # Along, on whichever face lies up: what is uphill above is downhill below.
        number = next(
            n for n, step in enumerate(steps) if step.stage is not None and step.stage.kind is StageKind.ALONG
        )
        below = steps[number].face.face.value == "lower"
        drawn = MILLING.draw(plan, Selection(milling=MillingSelection(MillingView.STROKES, step=number)))
        strokes = [
            e.points for e in drawn.elements if isinstance(e, Path) and e.role is Role.STROKE and len(e.points) == 2
        ]
        assert strokes and all((end[0] < start[0]) is (left != below) for start, end in strokes)


def test_times_are_told_no_finer_than_they_can_be_known():
    told = [about_words(minutes, Reader()) for minutes in (0.2, 5, 19, 22, 58, 61, 125, 600)]
    assert told == ["1 min", "5 min", "19 min", "20 min", "1 h", "1 h", "2 h", "10 h"]


@pytest.mark.parametrize("kind", KINDS)
def test_edges_are_drawn_with_their_guide_lines(kind):
    usual = KINDS[kind].usual
    selection = Selection(milling=MillingSelection(MillingView.EDGES, edge_task=(kind, usual)))
    plan = work_out(Project())
    drawing, card = MILLING.draw(plan, selection), MILLING.card(plan, selection)
    assert any(isinstance(e, Path) and e.role is Role.KNIFE for e in drawing.elements)
    assert any(isinstance(e, Dimension) for e in drawing.elements)
    assert card.title == KINDS[kind].title and card.set and card.mark and card.mind
    broken = MILLING.card(
        plan, Selection(milling=MillingSelection(MillingView.EDGES, edge_task=(kind, (0.0,) * len(usual))))
    )
    assert broken.mind[0].weight is Severity.FAILURE and said(broken.mind[0], plan).endswith((".", "first."))


def test_a_table_leg_s_own_taper_is_planned():
    plan = work_out(Project(piece=Piece("table", "table")), milling=False, proving=False)
    leg = next(part for part in plan.parts if part.shapings)
    card = MILLING.card(plan, Selection(part=leg.id, milling=MillingSelection(MillingView.EDGES)))
    assert card.title == "Tapered leg" and "from the toe" not in card.set[0].note
    starts = [
        e
        for e in MILLING.draw(plan, Selection(part=leg.id, milling=MillingSelection(MillingView.EDGES))).elements
        if isinstance(e, Ring)
    ]
    assert starts


@pytest.mark.parametrize("view", VIEWS)
@pytest.mark.parametrize("form", [None, *list(FORMS)[:3]])
def test_every_view_stands_an_empty_rack(view, form):
    plan = work_out(Project() if form is None else Project(piece=Piece(form, form)))
    MILLING.draw(plan, Selection(milling=MillingSelection(view)))
    card = MILLING.card(plan, Selection(milling=MillingSelection(view)))
    assert card.title and all(said(remark).endswith((".", "…")) for remark in card.mind)


def test_steps_begin_no_higher_than_the_one_before_left_off(cabinet):
    for board in cabinet.project.boards:
        _, _, steps, _ = selected_step(cabinet, Selection(board=board.id))
        staged = [step for step in steps if step.stage is not None]
        for before, after in pairwise(staged):
            if before.face is after.face:
                assert after.from_height == before.stage.leave
