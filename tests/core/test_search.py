"""The search: what it must keep to, what it must find, and what its bound may never say."""

import random
from dataclasses import replace
from fractions import Fraction
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st
from tests.examples import tried

from nullah.core.breakdown.asks import Rect
from nullah.core.breakdown.bound import Plank, WidthGroup, lower_bounds
from nullah.core.breakdown.cuts import CutKind, left_over, saw_cuts
from nullah.core.breakdown.facts import BoardNotSawable, GrainNowhere, Match, NotSawable, OverFlaw, Unmatched
from nullah.core.breakdown.layout import PlacedPart, Placement, complaints, place, set_complaints
from nullah.core.breakdown.rough import RoughPart
from nullah.core.breakdown.sawing import Sawing
from nullah.core.breakdown.search import BreakdownError, LayoutTask, search_task
from nullah.core.breakdown.wishes import SearchWeights
from nullah.core.lengths import mm
from nullah.core.piece.part import Needs
from nullah.core.rack.board import Board, Faces, Flaw, FlawKind, GrainFigure
from nullah.core.wood.movement import GrainCut

KERF = mm(2)


def part(name, length, width, thickness=20, needs=Needs.CLEAR, **more):
    return RoughPart(name, name, mm(length), mm(width), mm(thickness), needs, **more)


def board(name="a", length=1000, width=200, thickness=22, flaws=(), **more):
    return Board(name, name, "black cherry", mm(length), mm(width), mm(thickness), flaws=tuple(flaws), **more)


def flaw(kind, start, end, low, high, faces=Faces.THROUGH, depth=None):
    return Flaw(kind, mm(start), mm(end), mm(low), mm(high), faces, None if depth is None else mm(depth))


def laid_out(parts, boards, rounds=60, **more):
    return list(search_task(LayoutTask(tuple(parts), tuple(boards), KERF, **more), rounds))[-1]


def rects(layout, parts):
    by_id = {p.id: p for p in parts}
    return {item.part: (item, place(by_id[item.part], item).rect) for item in layout.placements}


# --- what is pinned, matched, or asked ------------------------------------------------------------


def test_pinned_parts_stay_and_the_rest_is_laid_round_them():
    parts = [part(f"p{i}", 300, 90) for i in range(6)]
    pinned = (Placement("p3", "a", 402.0, 55.0, pinned=True),)
    layout = laid_out(parts, [board(), board("b")], pinned=pinned)
    assert pinned[0] in layout.placements and not layout.unplaced
    assert layout.bound <= layout.consumed
    for each in (board(), board("b")):
        on = [place(next(p for p in parts if p.id == i.part), i) for i in layout.placements if i.board == each.id]
        assert not complaints(each, on, KERF)
        saw_cuts(Rect(0, 0, 1000, 200), on, 2.0)


def test_pinned_parts_that_no_saw_can_part_are_refused_with_their_names():
    spots = {"a": (0, 0, 60, 40), "b": (62, 0, 40, 60), "c": (42, 62, 60, 40), "d": (0, 42, 40, 60)}
    parts = [part(n, w, h) for n, (_, _, w, h) in spots.items()]
    pinned = tuple(Placement(n, "x", x, y, pinned=True) for n, (x, y, *_) in spots.items())
    with pytest.raises(BreakdownError) as refusal:
        laid_out(parts, [board("x", 102, 102)], pinned=pinned)
    assert refusal.value.fact == BoardNotSawable("x", NotSawable(("a", "b", "c", "d")))


def test_a_set_in_order_follows_one_another_in_one_board():
    fronts = [part(f"front {n}", 250, 80 + 5 * n, together="fronts", in_order=True, number=n) for n in range(4)]
    others = [part(f"o{n}", 200, 60) for n in range(8)]
    parts = [*fronts, *others]
    layout = laid_out(parts, [board(), board("b", 1200, 150), board("c", 700, 220)])
    assert not layout.unplaced
    at = rects(layout, parts)
    assert len({at[f.id][0].board for f in fronts}) == 1
    starts = [at[f.id][1].x for f in fronts]
    assert starts == sorted(starts) and all(b - a == pytest.approx(252) for a, b in pairwise(starts))
    placed = [PlacedPart(p, at[p.id][0].board, at[p.id][1]) for p in parts]
    assert not set_complaints(parts, placed, KERF)
    moved = [item._replace(board="elsewhere") if item.part.id == "front 2" else item for item in placed]
    said = set_complaints(parts, moved, KERF)
    assert said["front 2"] == Unmatched(Match.OTHER_BOARD, "front 1", "fronts")


def test_neighbours_lie_side_by_side_where_end_to_end_does_not_fit():
    pair = [part(n, 600, 90, together="doors", number=i) for i, n in enumerate(("left", "right"))]
    layout = laid_out(pair, [board(length=900)])
    at = rects(layout, pair)
    assert not layout.unplaced
    assert at["left"][1].x == at["right"][1].x and abs(at["left"][1].y - at["right"][1].y) == pytest.approx(92)
    assert not set_complaints(pair, [PlacedPart(p, "a", at[p.id][1]) for p in pair], KERF)


@pytest.mark.parametrize(
    ("ask", "right"),
    [
        ({"figure": GrainFigure.STRAIGHT}, "straight"),
        ({"figure": GrainFigure.FIGURED}, "figured"),
        ({"rings": GrainCut.QUARTER}, "quarter"),
    ],
)
def test_grain_that_is_asked_for_is_given_or_its_lack_is_said(ask, right):
    boards = [
        board("plain"),
        board("straight", figure=GrainFigure.STRAIGHT, length=2000),
        board("figured", figure=GrainFigure.FIGURED, length=2000),
        board("quarter", cut=GrainCut.QUARTER, figure=GrainFigure.FIGURED, length=3000),
    ]
    if right == "straight":
        boards.pop()
    if right == "figured":
        boards.pop()
    wanted = [part("leg", 400, 60, **ask)]
    assert laid_out(wanted, boards).placements[0].board == right
    left = laid_out(wanted, boards[:1])
    assert isinstance(left.unplaced[0].why, GrainNowhere)


def test_a_part_with_one_clear_face_is_turned_over_to_the_clear_side():
    knots = (flaw(FlawKind.KNOT, 0, 1000, 60, 140, Faces.UP, 5),)
    shown = [part("shelf", 800, 150, needs=Needs.ONE_FACE, finished=mm(18))]
    layout = laid_out(shown, [board(flaws=knots)])
    assert layout.placements[0].over
    placed = place(shown[0], layout.placements[0])
    assert not complaints(board(flaws=knots), [placed], KERF)
    wrong = complaints(board(flaws=knots), [placed._replace(over=False)], KERF)
    assert wrong["shelf"] == OverFlaw(FlawKind.KNOT, Faces.UP, "a", turned=True)
    through = (flaw(FlawKind.KNOT, 0, 1000, 60, 140, Faces.UP, 30),)
    assert laid_out(shown, [board(flaws=through)]).unplaced, "a knot that comes through spoils both faces"


@pytest.mark.parametrize(
    ("needs", "kind", "depth", "thickness", "may"),
    [
        # 22 rough, 18 left: 2 from each face; 1 mm must stay between.
        (Needs.CLEAR, FlawKind.KNOT, 1, 22, True),
        (Needs.CLEAR, FlawKind.KNOT, 2, 22, False),
        (Needs.CLEAR, FlawKind.CHECK, 3, 26, True),
        (Needs.CLEAR, FlawKind.KNOT, None, 40, False),
        (Needs.ANY, FlawKind.KNOT, 9, 22, True),
        (Needs.ANY, FlawKind.WANE, 4, 22, False),
        (Needs.HIDDEN, FlawKind.WANE, 7, 22, True),
        (Needs.HIDDEN, FlawKind.WANE, 12, 22, False),
        (Needs.HIDDEN, FlawKind.SPLIT, 4, 22, False),
    ],
)
def test_how_deep_a_flaw_may_go_hangs_on_what_is_asked(needs, kind, depth, thickness, may):
    flaws = (flaw(kind, 0, 500, 0, 200, Faces.DOWN, depth),)
    wanted = [part("p", 480, 150, thickness=20, needs=needs, finished=mm(18))]
    layout = laid_out(wanted, [board(length=500, thickness=thickness, flaws=flaws)])
    assert bool(layout.placements) is may


def test_nothing_lies_over_a_crooked_edge():
    crooked = board(
        low_edge=((mm(0), mm(0)), (mm(500), mm(45)), (mm(1000), mm(10))),
        high_edge=((mm(0), mm(200)), (mm(1000), mm(120))),
    )
    parts = [part(f"p{i}", 180, 40) for i in range(12)]
    layout = laid_out(parts, [crooked])
    assert len(layout.placements) >= 6
    for item, rect in rects(layout, parts).values():
        assert item.board == "a"
        for x in (rect.x, (rect.x + rect.end) / 2, rect.end):
            low = 45 * x / 500 if x <= 500 else 45 - 35 * (x - 500) / 500
            assert rect.y >= low - 0.01 and rect.top <= 200 - 80 * x / 1000 + 0.01


def test_a_part_lies_only_where_the_board_is_thick_enough():
    parts = [part("p", 300, 100, finished=mm(18)), part("q", 300, 100, finished=mm(18))]
    reaches = {("p", "a"): ((620.0, 700.0),), ("q", "a"): ()}
    layout = laid_out(parts, [board()], reaches=reaches)
    assert [item.part for item in layout.placements] == ["p"]
    assert 620 <= layout.placements[0].x <= 700


# --- what is weighed ------------------------------------------------------------------------------


def test_dear_boards_are_kept_where_value_is_wished_for():
    boards = [board("dear", 1000, 200, price=Fraction(90)), board("cheap", 1000, 210, price=Fraction(20))]
    parts = [part(f"p{i}", 300, 95) for i in range(6)]
    thrifty = laid_out(parts, boards)
    assert {item.board for item in thrifty.placements} == {"dear"}, "least wood, whatever it cost"
    careful = laid_out(parts, boards, wishes=SearchWeights(value=1.0))
    assert {item.board for item in careful.placements} == {"cheap"}
    assert careful.consumed > thrifty.consumed


def test_where_no_price_is_known_the_figured_board_is_kept():
    boards = [board("figured", 1000, 200, figure=GrainFigure.FIGURED), board("plain", 1000, 210)]
    parts = [part(f"p{i}", 300, 95) for i in range(6)]
    assert {item.board for item in laid_out(parts, boards).placements} == {"figured"}
    assert {item.board for item in laid_out(parts, boards, wishes=SearchWeights(value=1.0)).placements} == {"plain"}


def test_parts_keep_away_from_flaws_where_risk_is_wished_against():
    knotty = board("knotty", 400, 100, flaws=[flaw(FlawKind.KNOT, 200, 240, 0, 100)])
    clear = board("clear", 400, 105)
    wanted = [part("p", 198, 95)]
    assert laid_out(wanted, [knotty, clear]).placements[0].board == "knotty"
    assert laid_out(wanted, [knotty, clear], wishes=SearchWeights(risk=1.0)).placements[0].board == "clear"


def test_less_sawing_is_found_where_it_is_wished_for():
    rng = random.Random(4)
    parts = [part(f"p{i}", rng.choice([200, 300, 400]), rng.choice([50, 66, 98])) for i in range(16)]
    boards = [board(str(i), 1300, 202) for i in range(3)]

    def minutes(layout):
        total = 0.0
        for each in boards:
            on = [
                PlacedPart(p, each.id, rects(layout, parts)[p.id][1])
                for p in parts
                if rects(layout, parts)[p.id][0].board == each.id
            ]
            cuts = saw_cuts(Rect(0, 0, 1300, 202), on, 2.0)
            total += sum(Sawing().minutes(cut.kind is CutKind.CROSS, cut.length) for cut in cuts)
        return total

    easy = laid_out(parts, boards, 400, wishes=SearchWeights(sawing=1.0))
    thrifty = laid_out(parts, boards, 400)
    assert not easy.unplaced and minutes(easy) <= minutes(thrifty)


# --- the cuts -------------------------------------------------------------------------------------


def test_a_rip_goes_first_where_a_crosscut_would_strand_a_stub():
    # Two neighbours of different lengths at the end of a short board: ripped through, the longer rest stays useful.
    placed = [
        PlacedPart(part("long", 500, 98), "x", Rect(0, 0, 500, 98)),
        PlacedPart(part("short", 280, 98), "x", Rect(0, 100, 280, 98)),
    ]
    cuts = saw_cuts(Rect(0, 0, 520, 198), placed, 2.0)
    assert cuts[0].kind is CutKind.RIP and cuts[0].length == 520
    left = left_over(Rect(0, 0, 520, 198), placed, 2.0)
    assert max(piece.length * piece.width for piece in left) == pytest.approx((520 - 282) * 98)
    # On a long board the rip is not worth it.
    assert saw_cuts(Rect(0, 0, 2600, 198), placed, 2.0)[0].kind is CutKind.CROSS


@tried(40)
@given(st.integers(0, 10**6))
def test_parts_kerfs_and_what_is_left_make_up_the_board(seed):
    rng = random.Random(seed)
    parts = [part(f"p{i}", rng.randint(60, 400), rng.randint(20, 120)) for i in range(rng.randint(1, 12))]
    layout = laid_out(parts, [board()], 10)
    placed = [
        PlacedPart(p, "a", rect) for p in parts for i, rect in [rects(layout, parts).get(p.id, (None, None))] if i
    ]
    whole = Rect(0, 0, 1000, 200)
    left = left_over(whole, placed, 2.0)
    cuts = saw_cuts(whole, placed, 2.0)
    # A cut at the very end of a piece takes less than its kerf, so the sum is an upper bound by the kerfs.
    area = sum(r.length * r.width for r in left) + sum(i.rect.length * i.rect.width for i in placed)
    assert area <= 200_000 + 1e-6 and area >= 200_000 - sum(cut.length * 2 for cut in cuts) - 4 * len(placed) * 400
    for one in left:
        assert not any(one.meets(item.rect) for item in placed)


# --- the bound ------------------------------------------------------------------------------------


def last_bound(*args):
    return list(lower_bounds(*args))[-1]


def test_the_bound_knows_that_widths_do_not_go_into_a_board():
    # Parts 120 wide on boards 200 wide: never two side by side, so all of each board's width is consumed.
    strips = [WidthGroup(120.0, 8 * 302.0, 8, frozenset({0, 1, 2}))]
    planks = [Plank(1000.0, 200.0)] * 3
    bound = last_bound(strips, planks, 2.0)
    # 3 + 3 + 2 parts: 904 + 904 + 602 mm of board, with the kerfs between; the bound may lack a kerf a part.
    assert 200 * 8 * 299.9 <= bound <= 200 * (904 + 904 + 602)
    layout = laid_out([part(f"p{i}", 300, 120) for i in range(8)], [board(str(i)) for i in range(3)])
    assert layout.consumed == 200 * (904 + 904 + 602) and bound <= layout.consumed


@tried(30)
@given(st.integers(0, 10**6))
def test_no_layout_is_ever_better_than_the_bound(seed):
    rng = random.Random(seed)
    boards = [board(str(i), rng.randint(300, 900), rng.randint(90, 220)) for i in range(rng.randint(1, 3))]
    parts = [part(f"p{i}", rng.randint(50, 280), rng.randint(25, 120)) for i in range(rng.randint(1, 8))]
    layout = laid_out(parts, boards, 120)
    if not layout.unplaced:
        assert layout.bound <= layout.consumed + 1e-6
        where = {p.id: [i for i, b in enumerate(boards) if p.along <= b.length and p.across <= b.width] for p in parts}
        strips = [WidthGroup(float(p.across), float(p.along) + 2.0, 1, frozenset(where[p.id])) for p in parts]
        planks = [Plank(float(b.length), float(b.width)) for b in boards]
        assert last_bound(strips, planks, 2.0) <= layout.consumed + 1e-6


def test_a_bad_first_part_of_a_board_counts_in_the_bound():
    checked = board(flaws=[flaw(FlawKind.CHECK, 0, 100, 0, 200)])
    layout = laid_out([part("p", 300, 198)], [checked])
    assert layout.consumed == 400 * 200 and 300 * 198 < layout.bound <= layout.consumed


def test_the_search_repeats_by_its_seed_and_gets_better():
    rng = random.Random(2)
    parts = [part(f"p{i}", rng.randint(150, 500), rng.randint(40, 110)) for i in range(24)]
    boards = [board(str(i), 1200, 190) for i in range(4)]
    task = LayoutTask(tuple(parts), tuple(boards), KERF)
    first = [layout.consumed for layout in search_task(task, 150)]
    assert first == [layout.consumed for layout in search_task(task, 150)]
    assert first[-1] < first[0] and all(b <= a for a, b in pairwise(first))


def test_boards_of_another_wood_are_left_alone():
    walnut = replace(board("w"), species="black walnut")
    layout = laid_out([part("p", 300, 100, wood="black walnut")], [board(), walnut])
    assert layout.placements[0].board == "w"


# --- all of it together ---------------------------------------------------------------------------


@st.composite
def real_racks(draw):
    """Boards with crooked edges, flaws on one face or through, of every cut; parts that ask, match, or are pinned."""
    rng = random.Random(draw(st.integers(0, 10**6)))
    boards = []
    for number in range(rng.randint(1, 4)):
        length, width = rng.randint(500, 1600), rng.randint(100, 260)
        flaws = []
        for _ in range(rng.randint(0, 5)):
            x, y = rng.randint(0, length - 80), rng.randint(0, width - 50)
            faces = rng.choice(list(Faces))
            depth = None if faces is Faces.THROUGH or rng.random() < 0.3 else rng.randint(1, 12)
            flaws.append(
                flaw(rng.choice(list(FlawKind)), x, x + rng.randint(5, 80), y, y + rng.randint(5, 50), faces, depth)
            )
        edge = (
            (mm(0), mm(rng.randint(0, 20))),
            (mm(length // 2), mm(rng.randint(0, 20))),
            (mm(length), mm(rng.randint(0, 20))),
        )
        boards.append(
            board(
                str(number),
                length,
                width,
                rng.choice([22, 26]),
                flaws,
                cut=rng.choice(list(GrainCut)),
                figure=rng.choice(list(GrainFigure)),
                low_edge=edge if rng.random() < 0.4 else (),
            )
        )
    parts = []
    for number in range(rng.randint(1, 12)):
        group = rng.choice(["", "", "", "one", "two"])
        parts.append(
            part(
                f"p{number}",
                rng.randint(60, 400),
                rng.randint(25, 110),
                20,
                rng.choice(list(Needs)),
                finished=mm(rng.choice([14, 18])),
                figure=rng.choice([None, None, None, GrainFigure.STRAIGHT]),
                rings=rng.choice([None, None, None, GrainCut.FLAT]),
                together=group,
                in_order=group == "one",
                number=number,
            )
        )
    return parts, boards


@tried(60)
@given(real_racks(), st.sampled_from([SearchWeights(), SearchWeights(1, 1, 1), SearchWeights(risk=1.0)]))
def test_whatever_is_asked_what_is_laid_may_lie_there_and_can_be_sawn(rack, wishes):
    parts, boards = rack
    layout = laid_out(parts, boards, 12, wishes=wishes)
    held_to(layout, parts, boards)
    # Some of it pinned, the rest laid again: the pinned stays, and the same holds.
    loose = [item for item in layout.placements if not next(p for p in parts if p.id == item.part).together]
    pinned = tuple(replace(item, pinned=True) for item in loose[:2])
    again = laid_out(parts, boards, 12, wishes=wishes, pinned=pinned)
    assert set(pinned) <= set(again.placements)
    held_to(again, parts, boards)


def held_to(layout, parts, boards):
    by_id = {p.id: p for p in parts}
    assert sorted([i.part for i in layout.placements] + [u.part.id for u in layout.unplaced]) == sorted(by_id)
    placed = [place(by_id[item.part], item) for item in layout.placements]
    assert not set_complaints(parts, placed, KERF)
    for each in boards:
        on = [item for item in placed if item.board == each.id]
        assert not complaints(each, on, KERF)
        saw_cuts(Rect(0, 0, float(each.length), float(each.width)), on, float(KERF))
    assert layout.bound <= layout.consumed + 1e-6


def test_flaws_across_a_board_count_in_the_bound():
    # A check over half the width for 600 of 1000 mm: beside it only one part at a time, beyond it two.
    half = board(flaws=[flaw(FlawKind.CHECK, 0, 600, 100, 200)])
    parts = [part(f"p{i}", 190, 95) for i in range(6)]
    layout = laid_out(parts, [half], 200)
    # Three beside the check, then two and one beyond it: no layout ends before 600 + 190.
    assert not layout.unplaced and layout.consumed >= 200 * 790
    assert layout.bound > 200 * 700 > 6 * 190 * 95
    assert layout.bound <= layout.consumed
