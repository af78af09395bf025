"""The layout and its cuts, held against the rules a sawyer would check, worked out here a second time."""

import random
from dataclasses import replace
from itertools import combinations, pairwise

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from nullah.core import actions
from nullah.core.breakdown.cuts import CutKind, NotSawableError, saw_cuts
from nullah.core.breakdown.facts import (
    FitsOn,
    NoKerf,
    NotSawable,
    NoWood,
    OtherWood,
    OverEdge,
    OverFlaw,
    OverPart,
    TooManyParts,
)
from nullah.core.breakdown.layout import PlacedPart, Placement, Rect, complaints, consumed, flaw_rect, place
from nullah.core.breakdown.reasons import why_nowhere
from nullah.core.breakdown.rough import Allowances, RoughPart, rough_part
from nullah.core.breakdown.search import BreakdownError, search
from nullah.core.lengths import mm
from nullah.core.piece.part import Needs
from nullah.core.plan import work_out
from nullah.core.rack.board import TOLERABLE, Board, Faces, Flaw, FlawKind
from nullah.core.reader import Reader
from nullah.core.wording.laying import nowhere_words
from nullah.demo.seed_box import seed_box
from nullah.demo.seed_cabinet import seed_cabinet

KERF = 2.0


def part(name, length, width, thickness=20, needs=Needs.CLEAR, turned=False):
    return RoughPart(name, name, mm(length), mm(width), mm(thickness), needs, turned)


def a_board(name="a", length=1000, width=200, thickness=22, flaws=()):
    return Board(name, name, "black cherry", mm(length), mm(width), mm(thickness), flaws=flaws)


def a_flaw(kind, start, end, low, high):
    return Flaw(kind, mm(start), mm(end), mm(low), mm(high))


def last(layouts):
    best = None
    for layout in layouts:
        best = layout
    return best


def check_cuts(board: Board, placed: list[PlacedPart], kerf: float) -> None:
    """Saw the board as told and see that every part comes out whole, each cut edge to edge."""
    pieces = [Rect(0, 0, float(board.length), float(board.width))]
    cuts = saw_cuts(pieces[0], placed, kerf)
    assert [cut.order for cut in cuts] == list(range(1, len(cuts) + 1))
    for cut in cuts:
        piece = next(
            p
            for p in pieces
            if p.x - 0.02 <= cut.x <= p.end + 0.02
            and p.y - 0.02 <= cut.y <= p.top + 0.02
            and (
                (cut.kind is CutKind.CROSS and abs(p.y - cut.y) < 0.02 and abs(p.width - cut.length) < 0.02)
                or (cut.kind is CutKind.RIP and abs(p.x - cut.x) < 0.02 and abs(p.length - cut.length) < 0.02)
            )
        )
        pieces.remove(piece)
        if cut.kind is CutKind.CROSS:
            pieces.append(Rect(piece.x, piece.y, cut.x - piece.x, piece.width))
            pieces.append(Rect(cut.x + kerf, piece.y, piece.end - cut.x - kerf, piece.width))
        else:
            pieces.append(Rect(piece.x, piece.y, piece.length, cut.y - piece.y))
            pieces.append(Rect(piece.x, cut.y + kerf, piece.length, piece.top - cut.y - kerf))
    for item in placed:
        r = item.rect
        assert any(
            abs(p.x - r.x) < kerf + 0.02
            and abs(p.end - r.end) < 0.05
            and abs(p.y - r.y) < kerf + 0.02
            and abs(p.top - r.top) < 0.05
            for p in pieces
        ), f"{item.part.name} does not come out whole"


sizes = st.integers(30, 500)


@st.composite
def racks(draw):
    rng = random.Random(draw(st.integers(0, 10**6)))
    boards = []
    for name in range(draw(st.integers(1, 4))):
        length, width = rng.randint(300, 1500), rng.randint(80, 260)
        flaws = []
        for _ in range(rng.randint(0, 4)):
            x, y = rng.randint(0, length - 30), rng.randint(0, width - 20)
            kind = rng.choice(list(FlawKind))
            flaws.append(a_flaw(kind, x, x + rng.randint(5, 120), y, y + rng.randint(5, 60)))
        board = a_board(str(name), length, width, rng.choice([15, 22, 30]))
        boards.append(replace(board, flaws=tuple(f for f in flaws if f.end <= board.length and f.high <= board.width)))
    parts = [
        part(
            f"p{i}",
            rng.randint(40, 600),
            rng.randint(20, 180),
            rng.choice([12, 20, 28]),
            rng.choice(list(Needs)),
            rng.random() < 0.2,
        )
        for i in range(draw(st.integers(1, 14)))
    ]
    return boards, parts


@settings(max_examples=60, deadline=None)
@given(racks())
def test_any_layout_is_legal_and_can_be_sawn(case):
    boards, parts = case
    layout = last(search(parts, boards, mm(KERF), rounds=12))
    by_id = {p.id: p for p in parts}
    placed = {item.part for item in layout.placements}
    left = {item.part.id for item in layout.unplaced}
    assert placed | left == set(by_id) and not placed & left, "every part is accounted for, once"
    used = 0.0
    for board in boards:
        on = [place(by_id[i.part], i) for i in layout.placements if i.board == board.id]
        for item in on:
            r = item.rect
            assert r.x >= -0.01 and r.y >= -0.01
            assert r.end <= float(board.length) + 0.01 and r.top <= float(board.width) + 0.01
            assert item.part.thickness <= board.thickness
            for flaw in board.flaws:
                if item.part.needs is Needs.CLEAR or flaw.kind not in TOLERABLE:
                    f = flaw_rect(flaw)
                    over = min(r.end, f.end) - max(r.x, f.x), min(r.top, f.top) - max(r.y, f.y)
                    assert min(over) <= 0.01, f"{item.part.name} lies over a {flaw.kind.value}"
        for one, two in combinations(on, 2):
            gap_x = max(two.rect.x - one.rect.end, one.rect.x - two.rect.end)
            gap_y = max(two.rect.y - one.rect.top, one.rect.y - two.rect.top)
            assert max(gap_x, gap_y) >= KERF - 0.02, "neighbours stand a kerf apart"
        assert not complaints(board, on, mm(KERF))
        check_cuts(board, on, KERF)
        used += consumed(board, on)
    assert layout.consumed == pytest.approx(used)
    assert layout.bound <= layout.consumed + 1e-6
    assert all(nowhere_words(item.why, Reader()).endswith(".") for item in layout.unplaced)


def test_layouts_only_get_better_and_seeds_repeat():
    boards = [a_board(str(i), 1200, 180) for i in range(3)]
    parts = [part(f"p{i}", 150 + 37 * i % 300, 60 + 11 * i % 100) for i in range(14)]
    ranks = [layout.rank for layout in search(parts, boards, mm(KERF), rounds=40)]
    assert all(later <= earlier for earlier, later in pairwise(ranks))
    again = [layout.rank for layout in search(parts, boards, mm(KERF), rounds=40)]
    assert ranks == again


def test_a_sliver_thinner_than_the_saw_is_planed_not_sawn():
    placed = [place(part("a", 200, 80), Placement("a", "a", 1.0, 30.0))]
    cuts = saw_cuts(Rect(0, 0, 300, 120), placed, 2.0)
    assert [(cut.kind.value, cut.x, cut.y) for cut in cuts] == [("cross", 201, 0), ("rip", 0, 110), ("rip", 0, 28)]
    check_cuts(a_board(length=300, width=120), placed, 2.0)


def test_a_turned_part_lies_across_the_board():
    layout = last(search([part("t", 180, 60, turned=True)], [a_board(length=70, width=190)], mm(2), rounds=1))
    assert layout.placements and not layout.unplaced


@pytest.mark.parametrize(
    ("boards", "wanted", "words"),
    [
        ([], part("x", 100, 50), "no board on the rack"),
        ([a_board(thickness=15)], part("x", 100, 50), "thickest board is 15 mm"),
        ([a_board(width=120)], part("x", 100, 150), "30 mm too narrow"),
        ([a_board(length=300)], part("x", 400, 50), "longest board"),
        ([a_board(width=100, flaws=(a_flaw(FlawKind.KNOT, 0, 1000, 40, 60),))], part("x", 300, 60),
         "widest clear strip"),
        ([a_board()], part("x", 300, 60), "One more board"),
    ],
)  # fmt: skip
def test_says_why_a_part_lies_nowhere(boards, wanted, words):
    assert words in nowhere_words(why_nowhere(wanted, tuple(boards), frozenset()), Reader())


def test_a_board_on_which_nothing_lies_is_never_said_to_be_full():
    boards = [a_board()]
    assert why_nowhere(part("x", 300, 60), tuple(boards), frozenset({boards[0].id})) == FitsOn((boards[0].name,))


def test_knots_may_lie_under_hidden_parts_but_never_a_split():
    knotty = a_board(width=60, length=300, flaws=(a_flaw(FlawKind.KNOT, 100, 130, 20, 40),))
    split = a_board(width=60, length=300, flaws=(a_flaw(FlawKind.SPLIT, 100, 130, 20, 40),))
    hidden, shown = part("b", 290, 55, needs=Needs.ANY), part("b", 290, 55)
    assert last(search([hidden], [knotty], mm(1), rounds=1)).placements
    assert not last(search([shown], [knotty], mm(1), rounds=1)).placements
    assert not last(search([hidden], [split], mm(1), rounds=1)).placements


def test_parts_round_a_pinwheel_cannot_be_sawn_and_it_says_so():
    # Four rectangles round a middle: no straight cut from edge to edge.
    spots = {"a": (0, 0, 60, 40), "b": (62, 0, 40, 60), "c": (42, 62, 60, 40), "d": (0, 42, 40, 60)}
    placed = [PlacedPart(part(n, w, h), "x", Rect(x, y, w, h)) for n, (x, y, w, h) in spots.items()]
    with pytest.raises(NotSawableError) as refusal:
        saw_cuts(Rect(0, 0, 102, 102), placed, 2.0)
    assert refusal.value.fact == NotSawable(("a", "b", "c", "d"))


def test_wrong_places_are_named():
    board = a_board(flaws=(a_flaw(FlawKind.CHECK, 0, 40, 0, 200),))
    shapes = {"over edge": (950, 0), "on check": (20, 60), "one": (100, 0), "two": (150, 0), "near": (301, 0)}
    placed = [place(part(n, 100, 50), Placement(n, "a", x, y)) for n, (x, y) in shapes.items()]
    found = complaints(board, placed, mm(2))
    assert found["over edge"] == OverEdge(board.name, crooked=False)
    assert found["on check"] == OverFlaw(FlawKind.CHECK, Faces.THROUGH, board.name, turned=False)
    assert found["one"] == OverPart("two")
    assert "near" not in found
    close = [place(part(n, 100, 50), Placement(n, "a", x, 0)) for n, x in (("l", 100.0), ("r", 201.0))]
    assert complaints(board, close, mm(2))["r"] == NoKerf("l")


def test_too_many_parts_are_a_slip_of_the_key():
    with pytest.raises(BreakdownError) as refusal:
        next(search([part("p", 10, 10)] * 5001, [a_board()], mm(1)))
    assert refusal.value.fact == TooManyParts(5001, 5000)


def test_rough_sizes_are_finished_sizes_with_their_allowances():
    from nullah.core.plan import work_out

    plan = work_out(seed_box(), milling=False)
    front, rough = plan.part("front"), rough_part(plan.parts[0], Allowances(mm(40), mm(5), mm(2)))
    assert rough.length == front.cut_length + mm(40)
    assert rough.width == front.width + mm(5)
    assert rough.thickness == front.thickness + mm(2)


def test_parts_lie_only_on_boards_of_their_wood():
    project = seed_cabinet()
    plan = work_out(project, milling=False, proving=False)
    assert not plan.unplaced and all(not board.wrong for board in plan.boards)
    last = list(search(plan.rough, project.boards, project.shop.kerf, rounds=3))[-1]
    woods = {board.id: board.species for board in project.boards}
    for placement in last.placements:
        assert woods[placement.board] == plan.species_of(plan.part(placement.part))
    wrong = work_out(actions.lay(project, Placement("back1", "2", 500.0, 0.0)), milling=False, proving=False)
    said = next(board for board in wrong.boards if board.board.id == "2").wrong["back1"]
    assert said == OtherWood("yellow-poplar", "Ford 2", "black cherry")
    walnut = work_out(actions.make_of(project, "shown", "black walnut"), milling=False, proving=False)
    bare = work_out(actions.lift(walnut.project, "left"), milling=False, proving=False)
    assert bare.unplaced[0].why == NoWood("black walnut")
