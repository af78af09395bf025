from dataclasses import replace
from itertools import combinations

import pytest
from tests.said import said

from nullah.core import actions
from nullah.core.breakdown.facts import OverPart
from nullah.core.breakdown.layout import flaw_rect
from nullah.core.card import Severity
from nullah.core.drawing import Dimension, Fill, Label, Path, Ring, Role
from nullah.core.lengths import Marks, Unit, mm, read_length
from nullah.core.plan import Stand, work_out
from nullah.core.project import Piece, Project
from nullah.core.refs import FlawRef, PieceRef
from nullah.core.stations import STATIONS
from nullah.core.stations.breakdown import place_on_bench
from nullah.core.stations.rack import board_places, rack_layout
from nullah.core.stations.selection import RackSelection, Selection
from nullah.core.wording.facts import fact_words
from nullah.core.wording.fixes import fix_words
from nullah.core.work.seasons import part_movement
from nullah.demo.seed_box import seed_box
from nullah.demo.seed_cabinet import seed_cabinet

BY_ID = {station.id: station for station in STATIONS}


def shown(station, project=None, selection=None):
    plan = work_out(project or seed_box())
    return plan, BY_ID[station].draw(plan, selection or Selection()).elements


def figures(card):
    return {setting.tool: setting.figure for setting in card.set}


def test_stations_stand_in_the_order_of_work():
    assert [station.title for station in STATIONS] == [
        "Piece",
        "Rack",
        "Breakdown",
        "Milling",
        "Joints",
        "Season",
        "Day Book",
    ]


@pytest.mark.parametrize("station", STATIONS, ids=lambda station: station.id)
@pytest.mark.parametrize("project", [seed_box(), Project()], ids=["sample", "empty"])
def test_every_station_has_something_to_say(station, project):
    for unit in Unit:
        plan = work_out(actions.show_in(project, replace(project.marks, unit=unit)))
        for selection in (
            Selection(),
            Selection(part="bottom"),
            Selection(part="left", quantity="tails.pin", board="3", rack=RackSelection(0)),
        ):
            drawing, card = station.draw(plan, selection), station.card(plan, selection)
            assert drawing.elements or station.invitation
            assert card.title and station.state(plan)
            for setting in card.set:
                assert setting.figure and setting.tool
            for remark in card.mind:
                assert said(remark, plan).endswith((".", "…")), said(remark, plan)


def test_without_milling_the_stations_wait_for_it_in_words():
    plan = work_out(seed_box(), milling=False)
    assert BY_ID["milling"].state(plan) == "working it out"
    assert "Working out" in said(BY_ID["milling"].card(plan, Selection()).mind[0], plan)
    assert plan.state_of(plan.part("front")).stand is Stand.PLANNED


def test_every_dimension_of_the_piece_is_true_to_its_length():
    plan, elements = shown("piece")
    scale_free = [e for e in elements if isinstance(e, Dimension)]
    assert len(scale_free) >= 14
    for dimension in scale_free:
        (x0, y0), (x1, y1) = dimension.start, dimension.end
        drawn = abs(x1 - x0) + abs(y1 - y0)
        assert drawn == pytest.approx(float(plan.ledger[dimension.ref.name])), dimension.ref.name


def test_a_dimension_carries_its_state():
    project = actions.measure(seed_box(), "opening.width", read_length("195.5 mm"))
    project = actions.give(project, "ends.thickness", mm(18))
    _, elements = shown("piece", project)
    states = {e.ref.name: e.state for e in elements if isinstance(e, Dimension) and e.ref}
    assert states["opening.width"] == "measured"
    assert states["ends.thickness"] == "overruled"
    assert states["contents.length"] == "given"
    assert states["box.inside_length"] == "worked out"


def test_boards_are_drawn_with_their_flaws_in_their_places():
    plan, elements = shown("rack")
    board = plan.project.board("1")
    knot = next(e for e in elements if isinstance(e, Path) and e.ref == FlawRef("1", 1) and e.fill is Fill.FLAW)
    xs, ys = {x for x, _ in knot.points}, {y for _, y in knot.points}
    flaw = board.flaws[1]
    assert (min(xs), max(xs)) == (float(flaw.start), float(flaw.end))
    # The board stands first, its upper edge at 0: heights are measured down from its width.
    assert (min(ys), max(ys)) == (float(board.width - flaw.high), float(board.width - flaw.low))


def test_cuts_are_ringed_in_order_on_every_board():
    plan, elements = shown("breakdown")
    rings = [e.text for e in elements if isinstance(e, Ring)]
    assert rings == [str(cut.order) for board in plan.boards for cut in board.cuts]
    parts = {e.ref.piece for e in elements if isinstance(e, Path) and e.role is Role.CHALK and e.ref}
    assert parts == {"front", "back", "left", "right", "bottom"}


def test_the_card_of_the_breakdown_tells_the_cuts_of_the_board_in_hand():
    plan = work_out(seed_box())
    card = BY_ID["breakdown"].card(plan, Selection(part="back"))
    assert card.title == "Breaking down Ford 3"
    assert card.mark[0] == "Crosscut the board at 409 mm from its left end, the saw beyond the line."
    assert card.mark[1].startswith("Rip the piece with back at 136 mm from its lower edge, 409 mm long")
    assert figures(card)["Out of"] == "Ford 3"


def test_a_cut_is_never_marked_so_that_a_part_comes_out_short():
    project = actions.show_in(seed_box(), replace(seed_box().marks, unit=Unit.INCH))
    plan = work_out(project)
    card = BY_ID["breakdown"].card(plan, Selection(part="back"))
    # 136 mm is 5.354 in: the rip is marked at 5 3/8, as the rough size says, not at 5 11/32.
    assert figures(card)["Rough back"].endswith("× 5 3/8″")
    assert card.mark[1].startswith("Rip the piece with back at 5 3/8″ from its lower edge")


def test_parts_without_wood_are_drawn_below_the_boards():
    plan = work_out(actions.accept_layout(seed_box(), ()))
    bottoms = [place_on_bench(plan, part.id)[1] for part in plan.rough]
    places = board_places(plan.project.boards)
    lowest_board = max(places[board.id][1] + float(board.width) for board in plan.project.boards)
    assert min(bottoms) > lowest_board
    places = {part.id: place_on_bench(plan, part.id) for part in plan.rough}
    assert places["front"] == places["back"] and places["left"] == places["right"], "equal ones on one another"
    assert len(set(places.values())) == 3, "others beside each other"
    text = " ".join(e.text for e in BY_ID["breakdown"].draw(plan, Selection()).elements if isinstance(e, Label))
    assert "drag them onto a board" in text and "front and back" in text
    shown = [e.ref for e in BY_ID["breakdown"].draw(plan, Selection(part="right")).elements if isinstance(e, Label)]
    assert PieceRef("right") in shown and PieceRef("left") not in shown, "the one in hand is on top"


def test_all_that_lies_nowhere_for_one_reason_is_told_at_once():
    plan = work_out(replace(seed_box(), boards=(), layout=()))
    (fail,) = [each for each in BY_ID["breakdown"].card(plan, Selection()).mind if each.weight is Severity.FAILURE]
    assert fact_words(fail.fact, plan.reader) == (
        "Front, back, left end, right end, and bottom lie nowhere. There is no board on the rack."
    )
    unlike = work_out(actions.accept_layout(seed_box(), ()))
    told = [each for each in BY_ID["breakdown"].card(unlike, Selection()).mind if each.weight is Severity.FAILURE]
    assert len(told) == len({(type(item.why), item.why) for item in unlike.unplaced}) > 1, "each reason by itself"


def test_two_that_lie_over_one_another_are_told_once():
    project = seed_box()
    first = project.layout[0]
    other = next(each for each in project.layout[1:] if each.part != first.part)
    plan = work_out(actions.lay(project, replace(other, board=first.board, x=first.x, y=first.y)))
    board = next(each for each in plan.boards if each.board.id == first.board)
    assert {first.part, other.part} <= set(board.wrong), "both are wrong"
    pairs = [frozenset((item.part.name, why.other)) for item, why in board.told_wrong() if isinstance(why, OverPart)]
    assert pairs and len(pairs) == len(set(pairs))
    words = [e.text for e in BY_ID["breakdown"].draw(plan, Selection()).elements if isinstance(e, Label)]
    assert sum("lies over" in text for text in words) == sum(len(list(each.told_wrong())) for each in plan.boards)


@pytest.mark.parametrize("unit", list(Unit))
def test_a_part_is_named_clear_of_the_flaws_in_it(unit):
    project = actions.show_in(seed_cabinet(), replace(Marks(), unit=unit))
    plan = work_out(project)
    drawn = BY_ID["breakdown"].draw(plan, Selection())
    names = {e.ref: e.at for e in drawn.elements if isinstance(e, Label) and e.bold and isinstance(e.ref, PieceRef)}
    met = 0
    for board_plan in plan.boards:
        left, top = board_places(project.boards)[board_plan.board.id]
        for item in board_plan.placed:
            x, y = names[PieceRef(item.part.id)]
            for flaw in board_plan.board.flaws:
                met += flaw_rect(flaw).meets(item.rect)
                inside = float(flaw.start) < x - left < float(flaw.end)
                low = top + float(board_plan.board.width)
                assert not (inside and float(flaw.low) < low - y < float(flaw.high)), item.part.name
    assert met, "there are parts with flaws in them"


@pytest.mark.parametrize("number", [1, 5, 6, 20, 21, 60])
def test_boards_stand_in_as_many_columns_as_make_them_large(number):
    sample = seed_cabinet().boards
    boards = tuple(replace(sample[n % len(sample)], id=str(n), name=f"Ford {n}") for n in range(number))
    layout = rack_layout(boards)
    boxes = [
        (x, y, x + float(board.length), y + float(board.width))
        for board in boards
        for x, y in [layout.places[board.id]]
    ]
    for one, two in combinations(boxes, 2):
        apart = one[2] <= two[0] or two[2] <= one[0] or one[3] <= two[1] or two[3] <= one[1]
        assert apart, "none over another"
    assert max(box[3] for box in boxes) == layout.height and max(box[2] for box in boxes) <= layout.width
    assert (layout.columns == 1) == (number <= 5)
    if number >= 20:
        assert 0.9 < layout.width / layout.height < 2, "about the shape of the room there is"
    drawn = BY_ID["rack"].draw(work_out(Project(boards=boards)), Selection())
    told = [e.text for e in drawn.elements if isinstance(e, Label)]
    assert ("Ford 0" in told) == (number > 20), "of many boards only the names"


def test_milling_draws_what_is_needed_against_what_is_reached():
    plan, elements = shown("milling", selection=Selection(part="front"))
    needs = [e for e in elements if isinstance(e, Path) and e.role is Role.WARN]
    assert len(needs) == 3, "a line for each part that falls short"
    card = BY_ID["milling"].card(plan, Selection(part="front"))
    assert figures(card) == {"Needs": "16 mm", "Will reach": "15.5 mm", "Gauge": "16 mm"}
    fails = [remark for remark in card.mind if remark.weight is Severity.FAILURE]
    assert len(fails) == 1 and "right end, front, and left end" in said(fails[0])
    assert [fix_words(fix, plan.reader) for fix in fails[0].fixes] == [
        "Cut Ford 2 first",
        "Cut Ford 2 at 660 mm first",
        "Make them all 15.5 mm thick",
    ]


def test_joints_gives_settings_for_every_tool():
    plan = work_out(seed_box())
    card = BY_ID["joints"].card(plan, Selection())
    assert figures(card) == {
        "Baseline": "16 mm",
        "Proud": "0.5 mm",
        "Half-pin": "8 mm",
        "Dividers": "40.3 mm",
        "Pin": "7 mm",
        "Bevel": "1:7",
        "Chisel": "25 mm",
    }
    assert [setting.figure for setting in card.set if setting.tool == "Chisel"] == ["6 mm", "25 mm"]
    assert len(card.mark) == 6


def test_a_single_tail_needs_no_chisel_between_tails():
    plan = work_out(actions.give(seed_box(), "tails.count", 1))
    assert [each.tool for each in BY_ID["joints"].card(plan, Selection()).set].count("Chisel") == 1
    assert BY_ID["joints"].state(plan) == "1 tail, 1:7"


def test_tails_on_the_ends_turn_the_corner_round():
    plan = work_out(actions.choose(seed_box(), "tails_on", "ends"))
    assert plan.corner.tail_boards == ("left", "right")
    words = [e.text for e in BY_ID["joints"].draw(plan, Selection()).elements if isinstance(e, Label)]
    assert "left end: tails, outside face" in words and "front: end" in words


def test_why_goes_back_to_what_was_given_and_says_what_hangs_on_it():
    plan = work_out(seed_box())
    why = BY_ID["piece"].card(plan, Selection(quantity="sides.thickness")).why
    assert why[0] == "Thickness of front and back: 16 mm, given."
    assert why[-1].startswith("On it hang: outside length") and "more" in why[-1]


def test_movement_follows_the_board_a_part_lies_on():
    plan = work_out(seed_box())
    change, species = part_movement(plan, "bottom")
    # Yellow-poplar, flat-sawn, 195 wide, over the swing of a heated house: 195 × 0.00289 × about 3.
    assert species == "yellow-poplar"
    assert float(change) == pytest.approx(195 * 0.00289 * 3, rel=0.05)
    odd = actions.change_board(seed_box(), replace(seed_box().board("4"), species="driftwood"))
    assert part_movement(work_out(odd), "bottom") is None
    card = BY_ID["rack"].card(work_out(odd), Selection(board="4"))
    assert any("not in the table" in said(remark) for remark in card.mind)


def test_the_rack_tells_how_hard_and_heavy_a_wood_is_and_from_where():
    card = next(s for s in STATIONS if s.id == "rack").card(work_out(seed_box()), Selection(board="1"))
    words = [said(remark) for remark in card.mind]
    # 1450 × 165 × 22 mm of black cherry at 560 kg/m³.
    assert "Medium wood; the board weighs about 2.9 kg." in words
    (why,) = card.why
    assert "0.248 %" in why and "560 kg/m³" in why and why.count("value from memory") == 2


def test_movement_needs_a_wood_but_no_board():
    bare = Project(Piece("table", woods=(("shown", "white oak"),)))
    change, species = part_movement(work_out(bare, milling=False, proving=False), "top")
    assert species == "white oak" and float(change) == pytest.approx(380 * 0.00365 * 3, rel=0.05)
    assert part_movement(work_out(Project(), milling=False, proving=False), "bottom") is None


def test_only_what_must_be_free_is_said_to_be():
    season = next(s for s in STATIONS if s.id == "season")
    box, stand = (work_out(Project(Piece(form)), milling=False, proving=False) for form in ("box", "stand"))
    texts = [said(remark, box) for remark in season.card(box, Selection()).mind]
    assert "Bottom must be free to move: never glue them in." in texts
    assert not any("never glue" in said(remark, stand) for remark in season.card(stand, Selection()).mind)
