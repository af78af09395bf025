from dataclasses import replace

import pytest
from tests.said import said

from nullah.core import actions
from nullah.core.breakdown.facts import NoBoards, OverPart
from nullah.core.breakdown.layout import Placement
from nullah.core.card import Severity
from nullah.core.lengths import Unit, inch, mm, read_length
from nullah.core.plan import Issue, Stand, Unsettled, thinner_throughout, work_out
from nullah.core.project import Project
from nullah.core.rack.board import Board, BoardError, Flaw, FlawKind, FlawOutside, NoSize, SizeFault
from nullah.core.stations import STATIONS
from nullah.core.stations.selection import Selection
from nullah.core.wording.plan import unsettled_words
from nullah.demo.seed_box import seed_box


def test_the_sample_has_a_board_too_twisted_to_flatten_whole():
    plan = work_out(seed_box())
    short = [item.part for item in plan.milling if item.short.mm > 0]
    assert set(short) == {"front", "left", "right"}
    assert plan.unsettled() == (Unsettled(Issue.TOO_THIN, 3), Unsettled(Issue.TO_MEASURE, 2))
    assert unsettled_words(plan) == ("3 parts too thin", "2 measurements to take")
    assert not plan.unplaced and all(not board.wrong for board in plan.boards)


def test_cutting_first_mends_it():
    plan = work_out(actions.cut_first(seed_box(), "2", True))
    assert all(item.short.mm <= 0 for item in plan.milling)


def test_thinner_throughout_follows_the_ledger_to_what_was_given():
    plan = work_out(seed_box())
    name, thinner = thinner_throughout(plan, plan.part("right"))
    # The ends are as thick as the sides, so it is the sides that change.
    assert (name, thinner) == ("sides.thickness", mm("15.5"))
    mended = work_out(actions.give(seed_box(), name, thinner))
    assert all(item.short.mm <= 0 for item in mended.milling)
    assert mended.part("right").thickness == mm("15.5")


def test_a_measurement_at_the_bench_releases_what_waits_for_it():
    project = seed_box()
    bottom = work_out(project).part("bottom")
    assert work_out(project).state_of(bottom).stand is Stand.WAITS
    for name, value in (("opening.length", "355.2 mm"), ("opening.width", "196 mm")):
        project = actions.measure(project, name, read_length(value))
    plan = work_out(project)
    assert plan.waiting(plan.part("bottom")) == ()
    assert plan.part("bottom").length == mm("354.2")
    assert plan.state_of(plan.part("bottom")).stand is Stand.PLANNED
    back = actions.measure(project, "opening.length", None)
    assert work_out(back).waiting(plan.part("bottom")) == ("opening.length",)


def test_an_empty_project_is_a_state_not_an_error():
    plan = work_out(Project())
    assert len(plan.unplaced) == 5
    assert plan.unplaced[0].why == NoBoards()
    assert {plan.state_of(part).stand for part in plan.parts} == {Stand.NO_WOOD}


@pytest.mark.parametrize("name", ["box.outside_length", "sides.thickness", "tails.pin", "groove.depth"])
@pytest.mark.parametrize("value", ["0 mm", "-5 mm", "0.01 mm", "9 m"])
def test_nothing_a_user_gives_breaks_a_station(name, value):
    project = actions.choose(seed_box(), "sizing", "outside")
    plan = work_out(actions.give(project, name, read_length(value)))
    for station in STATIONS:
        drawing, card = station.draw(plan, Selection("front")), station.card(plan, Selection("front", name))
        assert station.state(plan)
        assert drawing.elements or station.invitation
        assert card.title


@pytest.mark.dear
def test_tails_that_do_not_fit_say_how_many_would():
    plan = work_out(actions.give(seed_box(), "tails.count", 40))
    assert Unsettled(Issue.CORNER) in plan.unsettled()
    assert any("Up to" in said(remark, plan) for remark in plan.corner.remarks if remark.weight is Severity.FAILURE)


def test_placements_of_parts_and_boards_that_are_gone_are_passed_over():
    project = seed_box()
    project = actions.accept_layout(project, (*project.layout, Placement("lid", "1", 0, 0), Placement("x", "99", 0, 0)))
    assert len([i for b in work_out(project).boards for i in b.placed]) == 5
    without = work_out(actions.remove_board(project, "2"))
    assert {item.part.id for item in without.unplaced} == {"front", "left", "right"}


def test_a_part_laid_over_another_is_named_with_the_reason():
    project = actions.lay(seed_box(), Placement("front", "2", 200.0, 0.0))
    plan = work_out(project)
    assert isinstance(next(b for b in plan.boards if b.board.id == "2").wrong["front"], OverPart)
    assert plan.state_of(plan.part("front")).stand.weight is Severity.FAILURE
    assert "front" not in {i.part for i in actions.lift(project, "front").layout}


def test_actions_on_boards_keep_flaws_on_them():
    project = seed_box()
    board = project.board("1")
    short = actions.change_board(project, replace(board, length=mm(950)))
    assert short.board("1").flaws[1].end == mm(950), "cut to the board"
    shorter = actions.change_board(project, replace(board, length=mm(500)))
    assert len(shorter.board("1").flaws) == 1, "gone with the wood"
    with pytest.raises(BoardError) as refused:
        actions.add_flaw(project, "1", Flaw(FlawKind.KNOT, mm(2000), mm(2100), mm(0), mm(10)))
    assert refused.value.fact == FlawOutside(FlawKind.KNOT, board.name)
    backwards = actions.add_flaw(project, "1", Flaw(FlawKind.KNOT, mm(300), mm(200), mm(50), mm(20)))
    assert backwards.board("1").flaws[-1].start == mm(200)
    assert len(actions.remove_flaw(project, "1", 0).board("1").flaws) == 1


@pytest.mark.parametrize(
    ("wrong", "fault"),
    [
        ({"length": mm(0)}, SizeFault.NOT_LONG),
        ({"width": mm(-4)}, SizeFault.NOT_WIDE),
        ({"thickness": mm(0)}, SizeFault.NOT_THICK),
        ({"cup": mm(101)}, SizeFault.CUP),
        ({"bow": mm(-101)}, SizeFault.BOW),
        ({"twist": mm(101)}, SizeFault.TWIST),
    ],
)
def test_boards_that_cannot_be_are_refused(wrong, fault):
    board = Board("9", "nine", "pine", mm(600), mm(100), mm(20))
    with pytest.raises(BoardError) as refused:
        actions.add_board(seed_box(), replace(board, **wrong))
    assert refused.value.fact == NoSize(fault, "nine", *wrong.values())


def test_inches_and_millimetres_mix_in_one_piece():
    project = actions.choose(seed_box(), "sizing", "outside")
    project = actions.give(project, "box.outside_length", inch(14))
    project = actions.show_in(project, replace(project.marks, unit=Unit.INCH))
    plan = work_out(project)
    assert plan.ledger["box.inside_length"] == inch(14).mm - 32
    assert STATIONS[0].state(plan).startswith("14 × ")
