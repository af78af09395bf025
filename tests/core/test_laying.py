"""Laying a whole piece out: thickness at a place, staves, resawing, sawing up, what to buy, where a part may go."""

from dataclasses import replace
from fractions import Fraction

import pytest
from tests.said import said

from nullah.core import actions
from nullah.core.breakdown.asks import Rect
from nullah.core.breakdown.buying import Shortage, buying_list
from nullah.core.breakdown.cuts import saw_cuts, taken_apart
from nullah.core.breakdown.facts import FitsOn, FlatteningLeaves, Inseparable, OtherWood, OverFlaw, RoomOn, SawnUp
from nullah.core.breakdown.glue_up import arranged, edge_angles
from nullah.core.breakdown.layout import PlacedPart, Placement, place
from nullah.core.breakdown.legal import nearest_legal
from nullah.core.breakdown.rough import (
    Allowances,
    Resawn,
    RoughPart,
    Staves,
    WoodRequirement,
    as_made,
    equal_staves,
    resawn_blank,
)
from nullah.core.breakdown.saw_order import saw_steps
from nullah.core.breakdown.search import search_task
from nullah.core.laying import offer_staves, reached, resaw_twins, saw_up, take_layout, task_of, with_staves
from nullah.core.lengths import Marks, mm
from nullah.core.milling.forecast import reach, reach_anywhere
from nullah.core.piece.part import Needs
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project
from nullah.core.rack.board import Board, Faces, Flaw, FlawKind, GrainFigure, Surface
from nullah.core.reader import Reader
from nullah.core.season.swelling import growth, seen_on_edge
from nullah.core.stations import STATIONS
from nullah.core.stations.selection import BreakdownSelection, Selection
from nullah.core.wood.movement import GrainCut, coefficient
from nullah.core.wood.species import find_species
from nullah.core.wording.glue_up import arrangement_words
from nullah.core.work.cut_list import cut_list
from nullah.core.work.seasons import stock_of
from nullah.demo.seed_box import seed_box
from nullah.demo.seed_cabinet import seed_cabinet, short_of_wood

BY_ID = {station.id: station for station in STATIONS}
MARKS = Marks()


def rough(name, length, width, thickness=20, **more):
    return RoughPart(name, name, mm(length), mm(width), mm(thickness), Needs.CLEAR, **more)


def last(task, rounds=80):
    return list(search_task(task, rounds))[-1]


# --- thickness at a place -------------------------------------------------------------------------


@pytest.mark.parametrize("x", [0, 200, 550])
def test_what_four_figures_leave_of_a_patch_hangs_only_on_its_size(x):
    twisted = Board("1", "a", "", mm(900), mm(180), mm(27), mm("2.5"), mm(3), mm(4))
    assert reach(twisted, x, x + 300, 30, 150) == reach_anywhere(twisted, 300, 120)


def half_twisted():
    """A board flat for its left half, its far end wound by 8 mm."""
    xs, ys = tuple(range(0, 1001, 100)), (0.0, 90.0, 180.0)
    wind = [[max(0.0, (x - 500) / 500) * 8 * (y / 180) for y in ys] for x in xs]
    top = tuple(tuple(22 + z for z in row) for row in wind)
    return Board(
        "1",
        "wound",
        "black cherry",
        mm(1000),
        mm(180),
        mm(22),
        surface=Surface(tuple(map(float, xs)), ys, top, tuple(map(tuple, wind))),
    )


def test_a_part_is_had_from_the_flat_end_and_not_from_the_twisted_one():
    board = half_twisted()
    # Across 170 of 180 mm the far end loses more than two of the twenty-two millimetres; the near one none.
    part = replace_part(rough("p", 300, 170, 21, finished=mm(20)), wood="black cherry")
    project = replace(seed_box(), boards=(board,), layout=())
    task = reached(replace(task_of(work_out(project, proving=False)), parts=(part,)))
    ((start, end),) = task.reaches["p", "1"]
    assert start == 0 and 200 <= end < 500
    layout = last(task)
    assert layout.placements and layout.placements[0].x <= end
    two = (part, part._replace(id="q"), part._replace(id="r"))
    full = last(replace(task, parts=two, reaches={(p.id, "1"): task.reaches["p", "1"] for p in two}))
    assert full.unplaced and all(item.x <= end for item in full.placements), "the wound end gives none"


def replace_part(part, **more):
    return part._replace(**more)


def test_what_flattening_leaves_too_little_of_is_said_and_not_laid():
    bent = Board("1", "bent", "black cherry", mm(2000), mm(300), mm(19), mm(25), mm(8), mm(12))
    project = actions.accept_layout(replace(seed_box(), boards=(bent,)), ())
    plan = work_out(project, proving=False)
    layout = last(reached(task_of(plan)))
    assert {"front", "left"} <= {item.part.id for item in layout.unplaced}
    why = {item.part.id: item.why for item in plan.unplaced}["front"]
    assert isinstance(why, FlatteningLeaves) and why.board == "bent" and why.most < why.needs


def test_a_board_that_must_be_cut_first_is_planned_so_when_a_layout_is_taken():
    project = replace(seed_cabinet(), cut_first=frozenset())
    layout = last(reached(task_of(work_out(project, proving=False))))
    taken = take_layout(project, layout.placements)
    assert "4" in taken.cut_first
    assert all(item.short.mm <= 0 for item in work_out(taken, proving=False).milling)


# --- staves and resawing --------------------------------------------------------------------------


def test_staves_add_up_to_the_part_and_each_has_its_allowances():
    wide = rough("top", 400, 306)
    made = as_made((wide,), [Staves("top", equal_staves(mm(300), 3))], [], Allowances(edge=mm(6), joint=mm(3)), mm(2))
    assert [piece.id for piece in made] == ["top/1", "top/2", "top/3"]
    assert [float(piece.width) for piece in made] == [106, 103, 106]
    assert all(piece.parts == ("top",) and piece.length == wide.length for piece in made)


def test_the_fewest_staves_that_the_boards_can_give_are_offered():
    narrow = tuple(
        Board(str(i), f"b{i}", "yellow-poplar", mm(1000), mm(width), mm(22), cut=GrainCut.QUARTER)
        for i, width in ((1, 150), (2, 100))
    )
    project = replace(seed_box(), boards=narrow, layout=())
    plan = work_out(project, milling=False, proving=False)
    width = plan.part("bottom").width
    found = offer_staves(plan, "bottom")
    assert len(found.widths) == 2 and sum(each.mm for each in found.widths) == width.mm
    assert not found.alternate, "quarter-sawn staves lie all one way"
    # 150 and 80 wide: two equal ones do not fit the narrower, but one wide and one narrow do.
    uneven = (replace(narrow[0], width=mm(150)), replace(narrow[1], width=mm(80)))
    wider = actions.give(replace(project, boards=uneven), "sides.thickness", mm(16))
    plan = work_out(wider, milling=False, proving=False)
    found = offer_staves(plan, "bottom")
    if found is not None and len(found.widths) == 2:
        assert max(float(each) for each in found.widths) <= 150
    flat = replace(project, boards=tuple(replace(b, cut=GrainCut.FLAT) for b in narrow))
    assert offer_staves(work_out(flat, milling=False, proving=False), "bottom").alternate


def test_a_staved_part_counts_as_laid_only_when_all_of_it_is():
    project = with_staves(seed_box(), "bottom", 2)
    plan = work_out(project, milling=False, proving=False)
    assert not plan.laid("bottom") and {item.part.id for item in plan.unplaced} == {"bottom/1", "bottom/2"}
    one = actions.lay(project, Placement("bottom/1", "4", 0.0, 0.0))
    assert not work_out(one, milling=False, proving=False).laid("bottom")
    two = actions.lay(one, Placement("bottom/2", "4", 450.0, 0.0))
    plan = work_out(two, milling=False, proving=False)
    assert plan.laid("bottom") and not any(board.wrong for board in plan.boards)
    assert [row.part for row in cut_list(plan)].count("bottom") == 1
    whole = actions.make_whole(two, "bottom")
    assert whole.staves == () and not any("/" in item.part for item in whole.layout)


def test_staves_are_told_how_to_lie():
    flat = Board("1", "a", "", mm(1000), mm(220), mm(22), heart=(20.0, -40.0))
    low, high = edge_angles(flat, 0, 200)
    assert high > low, "farther from the heart the rings stand steeper"
    staves = Staves("top", (mm(100), mm(100)))
    laid = [
        (PlacedPart(rough(f"top stave {i + 1}", 400, 105), "1", Rect(0, 108 * i, 400, 105)), flat) for i in range(2)
    ]
    found = arranged(staves, laid)
    assert [stave.heart_up for stave in found] == [False, True]
    assert [stave.straighter_left for stave in found] == [False, True], "the straight grain meets at the seam"
    one_way = arranged(staves._replace(alternate=False), laid)
    assert [stave.heart_up for stave in one_way] == [False, False]
    steps = arrangement_words(staves, found, ["oak"], False, Reader())
    assert "triangle" in steps[0] and "heart side up" in steps[2] and steps[-1].startswith("Arcs alternate")
    assert "still lies nowhere" in arrangement_words(staves, found[:1], ["oak"], False, Reader())[1]
    mixed = arrangement_words(staves, found, ["oak", "beech"], False, Reader())
    assert [line for line in mixed if "oak and beech" in line]
    strips = arrangement_words(staves, found, ["oak"], True, Reader())
    assert "strips" in strips[0] and "thick" in strips[0] and not [line for line in strips if "heart" in line]


def two_woods(**asked):
    """A top of five staves, with boards of two woods for it; each is asked what is given by its number."""
    boards = tuple(
        Board(str(n), f"Ford {n}", "white oak" if n < 4 else "American beech", mm(1200), mm(200), mm(30), cut=cut)
        for n, cut in enumerate([GrainCut.FLAT, GrainCut.QUARTER, GrainCut.FLAT] * 2, start=1)
    )
    project = Project(boards=boards, piece=Piece("top", "top"))
    for stave, ask in asked.items():
        project = actions.ask_of_wood(project, f"panel/{stave[1:]}", ask)
    return project


def laid_by_search(project):
    layout = last(task_of(work_out(project, milling=False, proving=False)))
    project = actions.accept_layout(project, layout.placements)
    return project, work_out(project, milling=False, proving=False)


def test_staves_of_which_no_wood_is_asked_are_all_of_one():
    project, plan = laid_by_search(two_woods())
    on = {item.part.id: board.board.species for board in plan.boards for item in board.placed}
    staves = {on[f"panel/{n}"] for n in range(1, 6) if f"panel/{n}" in on}
    assert len(staves) == 1 and not any(board.wrong for board in plan.boards)
    # Laid by hand, the first says of what they are, and the others are complained of.
    project = two_woods()
    for stave, board in (("panel/1", "1"), ("panel/2", "4")):
        project = actions.lay(project, Placement(stave, board, 0.0, 0.0))
    plan = work_out(project, milling=False, proving=False)
    assert plan.boards[3].wrong == {"panel/2": OtherWood("white oak", "Ford 4", "American beech")}


def test_a_stave_asks_for_itself_and_its_panel_moves_as_each_of_them_does():
    asked = {"s1": WoodRequirement(wood="American beech"), "s5": WoodRequirement(rings=GrainCut.QUARTER)}
    project, plan = laid_by_search(two_woods(**asked))
    pieces = {piece.id: piece for piece in plan.rough}
    assert pieces["panel/1"].wood == "American beech" and pieces["panel/2"].wood != "American beech"
    assert (pieces["panel/4"].rings, pieces["panel/5"].rings) == (None, GrainCut.QUARTER)
    assert plan.laid("panel") and not any(board.wrong for board in plan.boards)
    boards = {item.part.id: board.board for board in plan.boards for item in board.placed}
    part, stock = plan.part("panel"), stock_of(plan, "panel")
    widths = next(made.widths for made in plan.staves if made.part == "panel")
    by_point = sum(
        float(width.mm) * coefficient(find_species(boards[f"panel/{n}"].species), GrainCut(boards[f"panel/{n}"].cut))
        for n, width in enumerate(widths, start=1)
    )
    grown = growth(part, stock, part.across)
    assert max(grown) - min(grown) == pytest.approx(by_point * (max(stock.year) - min(stock.year)))
    assert {wood.species.name for wood in plan.woods_of(part)} == {"white oak", "American beech"}
    # Whole again, nothing of a stave stays behind; a form's own staves keep what is asked of them.
    other = actions.make_of_staves(project, Staves("panel", equal_staves(part.width, 3)))
    assert work_out(actions.make_whole(other, "panel"), milling=False, proving=False).part("panel") is not None


def test_strips_on_edge_move_by_the_rings_on_the_face_of_the_slab():
    project = two_woods()
    boards = tuple(replace(board, thickness=mm(120), cut=GrainCut.QUARTER) for board in project.boards)
    project = replace(project, boards=boards, piece=Piece("top", "top", choices=(("of", "slab"),)))
    project, plan = laid_by_search(project)
    part = plan.part("panel")
    cuts = {board.board.cut for board in plan.boards for item in board.placed if "panel" in item.part.parts}
    assert part.laminated and cuts
    assert {wood.cut for wood in plan.woods_of(part)} == {seen_on_edge(cut) for cut in cuts}


def test_a_panel_is_as_thick_as_its_worst_stave():
    project = two_woods()
    boards = (project.boards[0], replace(project.boards[1], cup=mm(6), cut=GrainCut.FLAT), *project.boards[2:])
    project = replace(project, boards=boards)
    for stave, board in (("panel/1", "1"), ("panel/2", "2")):
        project = actions.lay(project, Placement(stave, board, 0.0, 0.0))
    plan = work_out(project, proving=False)
    found = {item.piece: item.reach for item in plan.milling}
    assert found["panel/2"] < found["panel/1"]
    worst = plan.forecast_of("panel")
    assert (worst.piece, worst.reach) == ("panel/2", found["panel/2"])


def test_a_resawn_blank_holds_both_with_the_kerf_between():
    one, two = rough("a", 300, 80, 11, finished=mm(8)), rough("b", 300, 80, 11, finished=mm(8))
    blank = resawn_blank(one, two, mm("1.5"))
    assert (blank.id, float(blank.thickness), blank.parts) == ("a+b", 23.5, ("a", "b"))
    # Flattening the blank may take no more than the outer faces' allowances: 8 + 8 + 3 and the kerf stay inside.
    assert float(blank.finished) == 8 + 8 + 3 + 1.5
    assert [p.id for p in as_made((one, two), [], [Resawn("a", "b")], Allowances(), mm(1))] == ["a+b"]
    odd = two._replace(width=mm(90))
    assert [p.id for p in as_made((one, odd), [], [Resawn("a", "b")], Allowances(), mm(1))] == ["a", "b"]


def test_twins_that_could_be_resawn_are_known():
    plan = work_out(seed_box(), milling=False, proving=False)
    assert resaw_twins(plan, "left") == ("right",) and resaw_twins(plan, "bottom") == ()


# --- asks -----------------------------------------------------------------------------------------


def test_an_ask_is_kept_until_nothing_is_asked():
    project = actions.ask_of_wood(seed_box(), "front", WoodRequirement(figure=GrainFigure.STRAIGHT))
    assert dict(project.asks)["front"].figure is GrainFigure.STRAIGHT
    assert actions.ask_of_wood(project, "front", WoodRequirement()).asks == ()
    assert work_out(project, milling=False, proving=False).rough_part("front").figure is GrainFigure.STRAIGHT


def test_another_form_forgets_what_was_asked_of_the_old_one():
    project = actions.ask_of_wood(with_staves(seed_box(), "bottom", 2), "front", WoodRequirement(together="s"))
    other = actions.take_form(project, "tray")
    assert other.asks == () and other.staves == () and other.resawn == ()


# --- sawing up ------------------------------------------------------------------------------------


def test_a_sawn_board_keeps_its_parts_and_its_offcuts_are_boards():
    project = saw_up(seed_cabinet(), "2")
    assert project.board("2").sawn and saw_up(project, "2") == project
    (left,) = project.boards[8:]
    assert left.source == "offcut of Ford 2" and left.species == "black cherry"
    assert {flaw.kind for flaw in left.flaws} == {FlawKind.KNOT, FlawKind.SPLIT}
    layout = last(task_of(work_out(project, milling=False, proving=False)))
    on = {item.part for item in layout.placements if item.board == "2"}
    assert on == {item.part for item in project.layout if item.board == "2"}, "nothing more is laid on it"


# --- what to buy ----------------------------------------------------------------------------------


def test_the_buying_list_gives_room_for_every_part():
    parts = tuple(rough(f"p{i}", 500, 140, 22, wood="black walnut") for i in range(10))
    (line,) = buying_list(Shortage(parts, Fraction(0), mm(2)))
    assert line.wood == "black walnut" and float(line.thickness) == 25.4
    assert float(line.width) >= 140 and float(line.length) >= 500
    # As many clear boards of that size really do give the parts.
    boards = tuple(
        Board(str(i), str(i), "black walnut", line.length, line.width, line.thickness) for i in range(line.number)
    )
    from nullah.core.breakdown.search import LayoutTask

    assert not last(LayoutTask(parts, boards, mm(2))).unplaced
    (more,) = buying_list(Shortage(parts, Fraction(2, 5), mm(2)))
    assert more.number > line.number == 3, "four to a board, and two thirds more"
    mixed = (*parts, rough("thick", 400, 60, 40), rough("leg", 700, 60, 22, wood="black walnut", rings=GrainCut.RIFT))
    assert len(buying_list(Shortage(mixed, Fraction(0), mm(2)))) == 3


@pytest.mark.dear
def test_what_to_buy_is_said_on_the_card_and_on_paper():
    from nullah.core.sheets.sheets import all_sheets

    plan = work_out(short_of_wood(), milling=False, proving=False)
    texts = [said(remark) for remark in BY_ID["breakdown"].card(plan, Selection()).mind]
    assert any(text.startswith("To buy, with 20 % over for flaws:") and "black cherry" in text for text in texts)
    sheet = next(sheet for sheet in all_sheets(plan) if sheet.name == "to-buy")
    words = " ".join(getattr(element, "text", "") for element in sheet.drawing.elements)
    assert "board feet" in words and "left side" in words
    enough = work_out(seed_cabinet(), milling=False, proving=False)
    assert not any(sheet.name == "to-buy" for sheet in all_sheets(enough))


@pytest.mark.dear
def test_nothing_is_to_be_bought_for_what_is_only_not_laid_yet():
    from nullah.core.sheets.sheets import all_sheets

    bare = replace(seed_cabinet(), layout=())
    for project, bought in (
        (bare, False),
        (replace(bare, boards=bare.boards[:1]), True),
        (replace(bare, boards=()), True),
    ):
        plan = work_out(project, milling=False, proving=False)
        texts = [said(remark) for remark in BY_ID["breakdown"].card(plan, Selection()).mind]
        assert any(text.startswith("To buy") for text in texts) is bought
        assert any(sheet.name == "to-buy" for sheet in all_sheets(plan)) is bought


# --- where a part may go --------------------------------------------------------------------------


def test_the_nearest_legal_place_is_found_and_the_reason_told():
    knotty = Board(
        "1", "a", "", mm(1000), mm(200), mm(25), flaws=(Flaw(FlawKind.KNOT, mm(400), mm(450), mm(0), mm(200)),)
    )
    part = rough("p", 200, 90)
    spot, why = nearest_legal(part, knotty, [], mm(2), (320.0, 20.0), 300.0, False)
    assert why == OverFlaw(FlawKind.KNOT, Faces.THROUGH, "a", turned=False)
    assert (spot.x, spot.y) == (450.0, 20.0) or (spot.x, spot.y) == (200.0, 20.0)
    held, none = nearest_legal(part, knotty, [], mm(2), (100.0, 30.0), 300.0, False)
    assert (held.x, held.y, none) == (100.0, 30.0, None)
    far, why = nearest_legal(part, knotty, [], mm(2), (350.0, 20.0), 20.0, False)
    assert far is None and why
    sawn, why = nearest_legal(part, replace(knotty, sawn=True), [], mm(2), (0.0, 0.0), 50.0, False)
    assert sawn is None and why == SawnUp("a")


def test_a_place_no_saw_could_free_is_no_place():
    whole = Board("1", "a", "", mm(102), mm(102), mm(25))
    spots = {"a": (0, 0, 60, 40), "b": (62, 0, 40, 60), "c": (42, 62, 60, 40)}
    others = [PlacedPart(rough(n, w, h), "1", Rect(x, y, w, h)) for n, (x, y, w, h) in spots.items()]
    spot, why = nearest_legal(rough("d", 40, 60), whole, others, mm(2), (0.0, 42.0), 10.0, False)
    assert spot is None and why == Inseparable()


# --- the saw order --------------------------------------------------------------------------------


def test_every_step_of_the_saw_order_starts_from_what_the_last_one_left():
    plan = work_out(seed_cabinet(), milling=False, proving=False)
    for board_plan in plan.boards:
        board = board_plan.board
        whole = Rect(0, 0, float(board.length), float(board.width))
        kerf = float(plan.project.shop.kerf)
        steps = saw_steps(board_plan.cuts, board_plan.placed, whole, kerf)
        assert len(steps) == len(board_plan.cuts)
        there = {whole}
        for step in steps:
            assert step.cut.piece in there
            assert {side.piece for side in (*step.aside, *step.hanging)} == there - {step.cut.piece}
            there = (there - {step.cut.piece}) | {step.near.piece, step.beyond.piece}
            held = {
                item.part.id for side in (*step.aside, *step.hanging, step.near, step.beyond) for item in side.parts
            }
            assert held == {item.part.id for item in board_plan.placed}, "no part is sawn through"


def test_what_a_stopped_rip_leaves_hanging_lies_aside_only_when_it_is_free():
    whole, kerf = Rect(0, 0, 1500, 200), 2.0
    placed = [
        place(rough("a", 600, 90), Placement("a", "1", 0.0, 0.0)),
        place(rough("b", 400, 100), Placement("b", "1", 0.0, 92.0)),
    ]
    cuts, _ = taken_apart(whole, placed, kerf, stopped=True)
    rip, short, long, *rest = saw_steps(cuts, placed, whole, kerf)
    assert not rip.hanging and [side.parts[0].part.id for side in short.hanging] == ["a"] and not short.aside
    assert [side.parts for side in long.hanging] == [()] and [side.parts[0].part.id for side in long.aside] == ["b"]
    assert all(not step.hanging for step in rest)


def test_the_card_of_a_step_says_which_side_is_waste():
    plan = work_out(seed_cabinet(), milling=False, proving=False)
    station = BY_ID["breakdown"]
    texts = []
    for step in range(len(plan.boards[5].cuts)):
        card = station.card(plan, Selection(board="6", breakdown=BreakdownSelection(cut=step)))
        assert card.title == f"Ford 6: cut {step + 1} of {len(plan.boards[5].cuts)}"
        texts += card.mark
        assert station.draw(plan, Selection(board="6", breakdown=BreakdownSelection(cut=step))).elements
    assert any(text == "What lies beyond the line is waste." for text in texts)
    assert any(text.startswith("Both sides are kept") for text in texts)
    assert any("Then in hand" in text and "parts" in text for text in texts)


def test_the_cuts_of_a_pinned_layout_part_it():
    parts = [rough(f"p{i}", 200, 60) for i in range(4)]
    placed = [place(part, Placement(part.id, "1", 205.0 * i, 0.0)) for i, part in enumerate(parts)]
    assert [cut.kind.value for cut in saw_cuts(Rect(0, 0, 1000, 60), placed, 2.0)] == ["cross"] * 7


def test_room_that_is_still_there_is_told():
    project = actions.lift(seed_cabinet(), "bottom")
    why = {item.part.id: item.why for item in work_out(project, milling=False, proving=False).unplaced}
    assert why["bottom"] == FitsOn(("Ford 2",))
    beside = actions.lay(project, Placement("bottom", "2", 460.0, 0.0))
    gone = actions.lift(actions.lift(beside, "left"), "right")
    why = {item.part.id: item.why for item in work_out(gone, milling=False, proving=False).unplaced}
    assert why["left"] == RoomOn(("Ford 1",))


def test_milling_shows_a_part_of_staves_and_the_board_each_comes_from():
    project = with_staves(seed_box(), "bottom", 2)
    project = actions.lay(project, Placement("bottom/1", "4", 0.0, 0.0))
    project = actions.lay(project, Placement("bottom/2", "5", 0.0, 0.0))
    plan = work_out(project, proving=False)
    assert {item.board for item in plan.milling if item.part == "bottom"} == {"4", "5"}
    for part in ("bottom", "front"):
        assert BY_ID["milling"].draw(plan, Selection(part=part)).elements
        assert BY_ID["milling"].card(plan, Selection(part=part)).set


def test_where_no_wood_is_chosen_that_of_the_boards_is_bought():
    walnut = Board("1", "w", "black walnut", mm(300), mm(160), mm(25))
    plan = work_out(actions.accept_layout(replace(seed_box(), boards=(walnut,)), ()), milling=False, proving=False)
    texts = [said(remark) for remark in BY_ID["breakdown"].card(plan, Selection()).mind]
    told = next(text for text in texts if "To buy" in text)
    assert "black walnut" in told and "cherry" not in told
