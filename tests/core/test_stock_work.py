"""Sawing out and milling as operations: what is told is carried out, on boards and on blanks."""

import random
from dataclasses import replace
from datetime import datetime
from fractions import Fraction

import pytest
from tests.told import each_choice, planned

from nullah.core import actions
from nullah.core.bench.trades import Trade
from nullah.core.breakdown.layout import FirstCut, Placement
from nullah.core.breakdown.rough import Allowances, Resawn
from nullah.core.forms import FORMS
from nullah.core.forms.own_boards import OwnBoard
from nullah.core.laying import saw_up
from nullah.core.lengths import Length, Marks, Unit, mm
from nullah.core.operations.milling import FlattenBoard, LeaveOver, PlaneTrue, Resaw, WorkTo
from nullah.core.operations.sawing import SawThrough
from nullah.core.operations.stock import Surface
from nullah.core.plan import Issue, Unsettled, work_out
from nullah.core.project import Piece, Project
from nullah.core.rack.board import Board
from nullah.core.stations import STATIONS
from nullah.core.wording.operations import operation_words
from nullah.core.work.bench_work import blank_of
from nullah.core.work.order_of_work import order_of_work
from nullah.core.work.recording import finish
from nullah.core.work.sawing import saw_operations
from nullah.demo.seed_box import seed_box
from nullah.demo.seed_cabinet import seed_cabinet

MARKS = [Marks(), Marks(mm_mark=Fraction(1)), Marks(Unit.INCH, Fraction(1, 16)), Marks(Unit.INCH, Fraction(1, 64))]


def sawn(board, cuts):
    """Saw a board by what each cut says alone; return the pieces by the cuts that made them: x, y, length, width."""
    pieces = {(): (Fraction(0), Fraction(0), board.length.mm, board.width.mm)}
    for cut in cuts:
        x, y, long, wide = pieces.pop(cut.hand)
        size, origin = (long, wide)[not cut.across], cut.setting.origin
        assert 0 < cut.setting.figure < size, "it is measured on the piece in hand"
        line = size - cut.setting.figure if origin.high else cut.setting.figure
        away = cut.saw_beyond is not origin.high
        low, high = (line, line + cut.kerf) if away else (line - cut.kerf, line)
        near, beyond = (*cut.hand, (cut.order, False)), (*cut.hand, (cut.order, True))
        if cut.across:
            pieces[near], pieces[beyond] = (x, y, low, wide), (x + high, y, long - high, wide)
        else:
            pieces[near], pieces[beyond] = (x, y, long, low), (x, y + high, long, wide - high)
    return list(pieces.values())


def carried_out(plan):
    """Return how many parts come out of their boards as large as they are wanted, all of them or the test fails."""
    count = 0
    mark = plan.marks.smallest.mm
    for board_plan in plan.boards:
        cuts = saw_operations(plan, board_plan)
        assert len(cuts) == len(board_plan.cuts)
        pieces = sawn(board_plan.board, cuts)
        for item in board_plan.placed if cuts else ():
            middle = item.rect.x + item.rect.length / 2, item.rect.y + item.rect.width / 2
            (mine,) = [p for p in pieces if p[0] <= middle[0] <= p[0] + p[2] and p[1] <= middle[1] <= p[1] + p[3]]
            # Marks add up over the cuts of a board; what is left for planing is far more.
            slack = len(cuts) * mark
            assert mine[2] >= item.part.along.mm - slack and mine[3] >= item.part.across.mm - slack
            count += 1
    return count


@pytest.mark.parametrize("marks", MARKS, ids=lambda marks: str(marks.smallest.mm))
@pytest.mark.parametrize("sample", [seed_cabinet, seed_box])
def test_boards_sawn_as_told_give_their_parts(sample, marks):
    plan = work_out(actions.show_in(sample(), marks), milling=False, proving=False)
    assert carried_out(plan) >= 5
    freed = [part for b in plan.boards for cut in saw_operations(plan, b) for part in cut.frees]
    laid = [part for b in plan.boards for item in b.placed for part in item.part.parts]
    assert sorted(freed) == sorted(laid), "each part is freed once"


def _random_board(chance, kerf):
    """Return a board and placements on it that saw cuts can part."""
    found = []

    def split(x, y, long, wide, deep):
        if deep == 0 or long < 300 or wide < 120:
            found.append((x + chance.choice((0, 5, 40)), y + chance.choice((0, 3)), long - 60, wide - 8))
            return
        if chance.random() < 0.5:
            at = chance.uniform(0.35, 0.65) * long
            split(x, y, at, wide, deep - 1)
            split(x + at + kerf, y, long - at - kerf, wide, deep - 1)
        else:
            at = chance.uniform(0.4, 0.6) * wide
            split(x, y, long, at, deep - 1)
            split(x, y + at + kerf, long, wide - at - kerf, deep - 1)

    long, wide = chance.randrange(900, 2400), chance.randrange(150, 420)
    split(0.0, 0.0, float(long), float(wide), chance.randrange(1, 4))
    return Board("1", "Ford 1", "", mm(long), mm(wide), mm(24)), found


def _less(size, allowance):
    return Length(Fraction(str(round(size, 1))) - allowance.mm)


@pytest.mark.parametrize("seed", range(12))
def test_boards_laid_at_random_are_sawn_as_told(seed):
    chance = random.Random(seed)
    board, places = _random_board(chance, 1.5)
    project = Project(boards=(board,), marks=chance.choice(MARKS))
    allowances = project.allowances
    own = tuple(
        OwnBoard(
            f"own{number}",
            f"board {number}",
            (_less(long, allowances.end), _less(wide, allowances.edge), mm(12)),
            (mm(0), mm(0), mm(0)),
            "xz",
        )
        for number, (_, _, long, wide) in enumerate(places, start=1)
    )
    project = replace(project, piece=Piece("own", "boards", own=own))
    for number, (x, y, _, _) in enumerate(places, start=1):
        project = actions.lay(project, Placement(f"own{number}", "1", x, y))
    plan = work_out(project, milling=False, proving=False)
    assert not plan.boards[0].wrong, plan.boards[0].wrong
    if plan.boards[0].not_sawable is None:
        assert carried_out(plan) == len(places)


@pytest.mark.parametrize(("marks", "stop", "line"), [
    (MARKS[0], "601.5 mm", "400 mm"), (MARKS[2], "23 11/16″", "15 3/4″"),
])  # fmt: skip
def test_a_rip_is_told_to_stop_and_the_crosscuts_to_end_in_it(marks, stop, line):
    board = Board("1", "Ford 1", "", mm(1500), mm(202), mm(24))
    project = replace(Project(boards=(board,), marks=marks), allowances=Allowances(mm(0), mm(0), mm(0)))
    own = tuple(
        OwnBoard(f"own{number}", name, (mm(long), mm(wide), mm(12)), (mm(0), mm(0), mm(0)), "xz")
        for number, (name, long, wide) in enumerate((("long side", 600, 90), ("short side", 400, 100)), start=1)
    )
    project = replace(project, piece=Piece("own", "boards", own=own))
    project = actions.lay(project, Placement("own1", "1", 0.0, 0.0))
    project = actions.lay(project, Placement("own2", "1", 0.0, 92.0))
    plan = work_out(project, milling=False, proving=False)
    assert carried_out(plan) == 2
    rip, short, long, *_ = saw_operations(plan, plan.boards[0])
    assert (rip.stop is not None, short.to_rip, long.to_rip) == (True, True, True)
    told = operation_words([rip], plan.reader)
    assert told.endswith(f"the saw beyond the line; stop {stop} from the left end."), told
    told = operation_words([short], plan.reader)
    assert "as far as the rip" in told and "short side" in told and line in told, told
    # The rip is no shorter than the part beside it, and what is left is one board with a step.
    assert rip.stop.figure >= 600 and float(rip.long) == float(rip.stop.figure)
    (left,) = saw_up(project, "1").boards[1:]
    assert left.high_edge == () and len(left.low_edge) == 4 and float(left.length) >= 1090


@pytest.mark.dear
@pytest.mark.sampled(3)
@pytest.mark.parametrize("form", [form for form in FORMS if form != "own"])
def test_milling_as_told_makes_the_blank(form):
    for chosen in each_choice(form):
        plan = planned(form, chosen)
        sizes = {part.id: {} for part in plan.parts}
        for task in order_of_work(plan).tasks:
            if task.trade is Trade.MILL:
                made = [each for each in task.operations if isinstance(each, WorkTo | LeaveOver | PlaneTrue)]
                for each in made:
                    true = sizes[each.part].setdefault("true", [])
                    if isinstance(each, PlaneTrue):
                        true.append(each.surface)
                        continue
                    assert each.setting.origin in true, "it is gauged from what is true already"
                    sizes[each.part][each.setting.origin.axis] = each.setting.figure
        mark = plan.marks.smallest.mm
        for part in plan.parts:
            blank = blank_of(plan, part)
            for axis in range(3):
                over = sizes[part.id][axis] - blank[axis]
                assert -mark / 2 <= over < mark, (chosen, part.id, axis)
            assert sizes[part.id]["true"][0] is Surface.FACE_SIDE


@pytest.mark.parametrize(("long", "buttons", "strips"), [(150, 8, 1), (150.5, 8, 0), (43, 8, 1)])
def test_short_equal_parts_come_out_of_one_strip(long, buttons, strips):
    plan = planned("table", (), given=(("button.length", mm(long)),))
    ids = {part.id for part in plan.parts if part.id.startswith("button")}
    pieces = [piece for piece in plan.rough if set(piece.parts) & ids]
    assert len(ids) == buttons and sum(piece.strip for piece in pieces) == strips
    assert {part for piece in pieces for part in piece.parts} == ids
    if not strips:
        assert len(pieces) == buttons
        return
    (strip,) = pieces
    kerf = plan.project.shop.kerf.mm
    assert strip.length.mm > buttons * (plan.part("button1").cut_length.mm + kerf)
    project = replace(plan.project, boards=(Board("1", "Ford 1", "", mm(2000), mm(200), mm(30)),))
    project = actions.lay(project, Placement(strip.id, "1", 0.0, 0.0))
    laid = work_out(project, proving=False)
    assert all(laid.laid(part) and laid.forecast_of(part) is not None for part in ids)
    assert not any(task.id.startswith("resaw/") for task in order_of_work(laid).tasks)
    (mill,) = [task for task in order_of_work(laid).tasks if task.id == "mill/button"]
    told = operation_words([each for each in mill.operations if isinstance(each, PlaneTrue)][:1], laid.reader)
    assert "the strip for" in told and dict(mill.work)["true"] == 1.0


@pytest.mark.parametrize("form", sorted(FORMS.keys() - {"own"}))
def test_only_short_equal_parts_come_out_of_strips(form):
    plan = planned(form, ())
    for piece in plan.rough:
        parts = [plan.part(part) for part in piece.parts]
        if piece.strip:
            assert len(parts) >= 3 and len({part.alike for part in parts}) == 1
            assert all(float(part.cut_length) <= 150 for part in parts)
        else:
            assert len(parts) == 1


# --- what the forecast takes to be so ---------------------------------------------------------------


def _tasks(project, board):
    plan = work_out(project, proving=False)
    tasks = order_of_work(plan).tasks
    return [task for task in tasks if task.id.split("/")[0] in ("saw", "flatten") and task.id.split("/")[1] == board]


def test_a_crooked_board_is_flattened_whole_or_sawn_first_as_was_chosen():
    project = seed_cabinet()
    assert [task.id for task in _tasks(project, "1")] == ["flatten/1", "saw/1"]
    (flat,) = _tasks(project, "1")[0].operations
    assert isinstance(flat, FlattenBoard) and flat.setting.figure == 17
    assert [task.id for task in _tasks(actions.cut_first(project, "1", True), "1")] == ["saw/1"]
    straight = replace(project, boards=tuple(
        replace(b, cup=mm(0), bow=mm(0), twist=mm(0), surface=None, shape=()) for b in project.boards))  # fmt: skip
    assert [task.id for task in _tasks(straight, "1")] == ["saw/1"]


def test_a_first_cut_comes_before_the_flattening_and_the_rest_after():
    project = replace(seed_cabinet(), first_cuts=(FirstCut("1", True, 1370.0),))
    tasks = _tasks(project, "1")
    assert [task.id for task in tasks] == ["saw/1/first", "flatten/1", "saw/1"]
    assert [len(task.operations) for task in tasks[:2]] == [1, 1] and tasks[1].operations[0].portions
    orders = [cut.order for task in (tasks[0], tasks[2]) for cut in task.operations if isinstance(cut, SawThrough)]
    assert orders == list(range(1, len(orders) + 1))
    plan = work_out(project, proving=False)
    after = finish(plan, tasks[0], "sawn", datetime(2026, 11, 28, 9, 0), 10.0).project
    assert not after.board("1").sawn, "most of it is still whole"


def test_what_is_resawn_is_gauged_round_sawn_and_left_to_lie():
    project = seed_cabinet()
    parts = [
        part for part in work_out(project, milling=False, proving=False).parts if part.name.startswith("back board")
    ]
    one, two = parts[0].id, parts[1].id
    project = replace(project, resawn=(Resawn(one, two),), boards=(*project.boards, Board(
        "9", "Ford 9", "", mm(900), mm(160), mm(40))))  # fmt: skip
    project = actions.lay(project, Placement(f"{one}+{two}", "9", 0.0, 0.0))
    plan = work_out(project, milling=False, proving=False)
    tasks = {task.id: task for task in order_of_work(plan).tasks}
    resaw = tasks[f"resaw/{one}+{two}"]
    (made,) = resaw.operations
    assert isinstance(made, Resaw) and {made.part, made.other} == {one, two}
    kerf = plan.project.shop.kerf.mm
    assert abs(2 * made.setting.figure + kerf - made.stock.thickness) <= plan.marks.smallest.mm
    assert made.setting.figure > plan.part(one).thickness.mm, "both are planed after"
    assert resaw.waits >= 24 and "saw/9" in resaw.after
    mill = next(task for task in tasks.values() if task.trade is Trade.MILL and one in task.parts and "mill" in task.id)
    assert resaw.id in mill.after


def test_parts_without_wood_are_counted_as_parts_not_as_pieces():
    plan = planned("table", ())
    station = next(each for each in STATIONS if each.id == "breakdown")
    count = len(plan.parts)
    assert len(plan.rough) < count and Unsettled(Issue.NO_WOOD, count) in plan.unsettled()
    assert station.state(plan) == f"{count} of {count} without wood"


def test_short_parts_that_lie_by_themselves_already_stay_so():
    boards = (Board("1", "Ford 1", "", mm(2000), mm(200), mm(30), sawn=True),)
    layout = tuple(Placement(f"button{n}", "1", 100.0 * n, 0.0) for n in range(1, 6))
    plan = planned("table", (), boards=boards, layout=layout)
    assert all(plan.laid(f"button{n}") for n in range(1, 6)) and not plan.boards[0].wrong
    (strip,) = [piece for piece in plan.rough if piece.strip]
    assert strip.parts == ("button6", "button7", "button8")
