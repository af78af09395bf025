"""Cuts, places and reasons of the breakdown against every way there is, each limit just inside and just outside."""

import random
from dataclasses import replace

import pytest
from shapely.geometry import box
from shapely.ops import unary_union

from nullah.core.breakdown.asks import Rect, rules_out
from nullah.core.breakdown.cuts import (
    CutKind,
    NotSawableError,
    Reach,
    cut_through_first,
    left_over,
    saw_cuts,
    taken_apart,
)
from nullah.core.breakdown.facts import FitsOn, NoneLong, NoneWide, RoomOn, StavesDo, TakenUp
from nullah.core.breakdown.layout import Match, PlacedPart, Placement, complaints, consumed, place, set_complaints
from nullah.core.breakdown.reasons import staves_that_do, why_nowhere, widest_clear
from nullah.core.breakdown.rough import RoughPart
from nullah.core.breakdown.sawing import Sawing
from nullah.core.lengths import mm
from nullah.core.piece.part import Needs
from nullah.core.rack.board import Board, Faces, Flaw, FlawKind

KERF = 2.0


def part(name, length, width, thickness=20, **more):
    return RoughPart(name, name, mm(length), mm(width), mm(thickness), Needs.CLEAR, **more)


def lying(*rects):
    """Place parts, each x, y, length, width in mm."""
    return [
        PlacedPart(part(f"p{number}", length, width), "1", Rect(x, y, length, width))
        for number, (x, y, length, width) in enumerate(rects, start=1)
    ]


def board(length=1000, width=200, thickness=25, **more):
    return Board("1", "one", "", mm(length), mm(width), mm(thickness), **more)


# --- cuts ------------------------------------------------------------------------------------------------


def cheapest(piece, rects, sawing):
    """Return the least minutes, less what is kept, over every way of sawing edge to edge: no memory, no short cuts."""
    x, y, long, wide = piece
    if not rects:
        return -sawing.kept(long, wide)
    best = float("inf")
    for across in (True, False):
        at_, size_ = (0, 2) if across else (1, 3)
        start, end = piece[at_], piece[at_] + piece[size_]
        places = {rect[at_] + rect[size_] for rect in rects} | {rect[at_] - KERF for rect in rects}
        for at in places:
            # A cut needs wood to stand in: it may begin with the piece, and must not begin where it ends.
            if not start <= at < end:
                continue
            low = [rect for rect in rects if rect[at_] + rect[size_] <= at]
            high = [rect for rect in rects if rect[at_] >= at + KERF]
            if len(low) + len(high) != len(rects):
                continue
            below = (x, y, at - x, wide) if across else (x, y, long, at - y)
            above = (at + KERF, y, x + long - at - KERF, wide) if across else (x, at + KERF, long, y + wide - at - KERF)
            cost = sawing.minutes(across, wide if across else long)
            best = min(best, cost + cheapest(below, low, sawing) + cheapest(above, high, sawing))
    return 0.0 if best == float("inf") and len(rects) == 1 else best


LAYOUTS = {
    "a row": [(0, 0, 300, 90), (302, 0, 300, 90), (604, 0, 200, 90)],
    "a row in the middle": [(50, 30, 300, 90), (352, 30, 300, 90)],
    "two lanes": [(0, 0, 400, 80), (402, 0, 300, 80), (0, 82, 500, 60)],
    "a stub at the end": [(0, 0, 700, 120), (702, 0, 120, 150)],
    "steps": [(0, 0, 300, 150), (302, 0, 300, 100), (604, 0, 300, 60)],
    "one at its kerf": [(2, 2, 300, 100)],
}


@pytest.mark.parametrize("name", LAYOUTS)
@pytest.mark.parametrize("sawing", [Sawing(), Sawing(kept_by_square_metre=80.0), Sawing(rip_by_metre=12.0)])
def test_no_way_of_sawing_takes_less_than_the_one_told(name, sawing):
    placed = lying(*LAYOUTS[name])
    cuts, left = taken_apart(Rect(0, 0, 1000, 200), placed, KERF, sawing)
    told = sum(sawing.minutes(cut.kind is CutKind.CROSS, cut.length) for cut in cuts)
    told -= sum(sawing.kept(each.rect.length, each.rect.width) for each in left)
    assert told == pytest.approx(cheapest((0, 0, 1000, 200), LAYOUTS[name], sawing), abs=1e-6)
    assert tuple(each.rect for each in left) == left_over(Rect(0, 0, 1000, 200), placed, KERF, sawing)
    # What was in hand is parts, kerfs and what is left.
    sawn = sum(cut.length * KERF for cut in cuts)
    whole = sum(each.rect.length * each.rect.width for each in left) + sum(
        long * wide for _, _, long, wide in LAYOUTS[name]
    )
    assert whole + sawn == pytest.approx(1000 * 200)


# --- rips that stop ---------------------------------------------------------------------------------------


def pieces_of(piece, cuts):
    """Saw a board as the cuts say, no farther; return what then lies apart."""
    kerfs = [
        box(cut.x, cut.y, cut.x + KERF, cut.y + cut.length)
        if cut.kind is CutKind.CROSS
        else box(cut.x, cut.y, cut.x + cut.length, cut.y + KERF)
        for cut in cuts
    ]
    rest = box(piece.x, piece.y, piece.end, piece.top).difference(unary_union(kerfs).buffer(1e-6, join_style="mitre"))
    return list(getattr(rest, "geoms", [rest]))


def of_left(left):
    """Return what is left, with the corner that is sawn out of it taken away."""
    whole = box(left.rect.x, left.rect.y, left.rect.end, left.rect.top)
    gone = left.sawn_out
    return whole if gone is None else whole.difference(box(gone.x, gone.y, gone.end, gone.top))


def side_by_side(first, second, behind, at_right=False, line=90.0):
    """Lay two parts beside each other at an end of a board, with so much behind the longer one."""
    piece = Rect(0, 0, max(first, second) + KERF + behind, 200)
    spots = [(0, 0, first, line), (0, line + KERF, second, 200 - line - KERF)]
    if at_right:
        spots = [(piece.length - long, y, long, wide) for _, y, long, wide in spots]
    return piece, lying(*spots)


@pytest.mark.parametrize("at_right", [False, True])
@pytest.mark.parametrize(("first", "second"), [(600, 400), (400, 600)])
def test_a_rip_stops_at_the_longer_of_two_neighbours_and_one_stepped_offcut_is_left(first, second, at_right):
    piece, placed = side_by_side(first, second, 800, at_right)
    cuts, left = taken_apart(piece, placed, KERF, stopped=True)
    assert [cut.reach for cut in cuts] == [Reach.STOPPED, Reach.TO_RIP, Reach.TO_RIP]
    assert cuts[0].length == 600 + KERF and cuts[1].length == (90 if first < second else 108)
    (offcut,) = left
    found = pieces_of(piece, cuts)
    assert len(found) == 3
    for shape in (*(box(r.x, r.y, r.end, r.top) for r in (item.rect for item in placed)), of_left(offcut)):
        assert min(each.symmetric_difference(shape).area for each in found) < 0.01
    assert taken_apart(piece, placed, KERF)[0][0].reach is Reach.THROUGH, "unless it is asked for, cuts go through"


@pytest.mark.parametrize(
    ("first", "second", "behind", "stops"),
    [(600, 549, 800, True), (600, 550, 800, False), (600, 400, 200, True), (600, 400, 199.5, False)],
)
def test_a_rip_stops_only_where_a_stub_would_be_stranded_and_a_board_is_left(first, second, behind, stops):
    piece, placed = side_by_side(first, second, behind)
    cuts, _ = taken_apart(piece, placed, KERF, stopped=True)
    assert any(cut.reach is Reach.STOPPED for cut in cuts) is stops


def test_no_stopped_rip_where_its_cuts_would_cost_more():
    piece, placed = side_by_side(600, 400, 800)
    dear, cheap = Sawing(cross_by_metre=60.0), Sawing(rip_by_metre=0.0, rip_start=0.0, kept_by_square_metre=0.0)
    for sawing in (Sawing(), dear, cheap):
        sums = []
        for stopped in (False, True):
            cuts, left = taken_apart(piece, placed, KERF, sawing, stopped=stopped)
            kept = sum(
                sawing.kept(each.rect.length, each.rect.width)
                * of_left(each).area
                / (each.rect.length * each.rect.width)
                for each in left
            )
            sums.append(sum(sawing.minutes(cut.kind is CutKind.CROSS, cut.length) for cut in cuts) - kept)
        assert sums[1] <= sums[0] + 1e-9


def lanes_at_random(seed):
    """Lay one part or two in each of some lanes, all against one end."""
    chance = random.Random(seed)
    lanes, placed, y = chance.randint(2, 4), [], 0.0
    long = chance.uniform(700, 1800)
    at_right = chance.random() < 0.5
    for _ in range(lanes):
        wide, x = chance.uniform(50, 110), 0.0
        for _ in range(chance.randint(1, 2)):
            part_long = chance.uniform(100, (long - 200) / 2)
            at = long - x - part_long if at_right else x
            placed.append((at, y, part_long, wide))
            x += part_long + KERF
        y += wide + KERF
    return Rect(0, 0, long, y + chance.choice([-KERF, 60])), lying(*placed)


@pytest.mark.parametrize("seed", range(20))
def test_boards_with_stopped_rips_come_apart_as_told(seed):
    piece, laid = lanes_at_random(seed)
    cuts, left = taken_apart(piece, laid, KERF, stopped=True)
    found = [shape for shape in pieces_of(piece, cuts) if shape.area > 1]
    assert len(found) == len(laid) + len(left)
    for shape in (*(box(r.x, r.y, r.end, r.top) for r in (item.rect for item in laid)), *map(of_left, left)):
        assert min(each.symmetric_difference(shape).area for each in found) < 0.5


def test_many_of_these_boards_have_a_stopped_rip():
    ripped = [taken_apart(*lanes_at_random(seed), KERF, stopped=True)[0] for seed in range(20)]
    assert sum(any(cut.reach is Reach.STOPPED for cut in cuts) for cuts in ripped) >= 5


# --- many parts -------------------------------------------------------------------------------------------


def row(count, length=100.0, end=0.0):
    """Lay parts end to end on a board that is just as long, and as much longer as `end` says."""
    rects = [(n * (length + KERF), 0, length, 60) for n in range(count)]
    return Rect(0, 0, count * (length + KERF) - KERF + end, 200), lying(*rects)


def test_up_to_seven_parts_are_weighed_and_of_more_the_first_cut_that_parts_them_is_taken():
    piece, placed = row(7)
    assert saw_cuts(piece, placed, KERF)[0].kind is CutKind.RIP, "one rip for all, and a board is left"
    piece, placed = row(8)
    first = saw_cuts(piece, placed, KERF)[0]
    assert (first.kind, first.at) == (CutKind.CROSS, 100)
    # Also where waste is to come off behind them.
    piece, placed = row(8, end=300)
    assert saw_cuts(piece, placed, KERF)[0].at == 100


def test_many_strips_beside_each_other_are_crosscut_behind_before_they_are_ripped():
    strips = lying(*[(0, n * 22, 500, 20) for n in range(9)])
    first, second, *_ = saw_cuts(Rect(0, 0, 800, 196), strips, KERF)
    assert (first.kind, first.at, first.keeps_low) == (CutKind.CROSS, 500, True)
    assert (second.kind, second.at) == (CutKind.RIP, 20)
    assert saw_cuts(Rect(0, 0, 500, 196), strips, KERF)[0].kind is CutKind.RIP, "where nothing is behind them"


@pytest.mark.parametrize(("before", "sawn"), [(1.98, False), (2.0, True), (30.0, True)])
def test_a_sliver_before_a_part_thinner_than_the_saw_is_planed_off(before, sawn):
    for across in (True, False):
        rect = (before, 0, 300, 200) if across else (0, before, 1000, 100)
        long, wide = (300 + before, 200) if across else (1000, 100 + before)
        cuts = saw_cuts(Rect(0, 0, long, wide), lying(rect), KERF)
        assert [(cut.at, cut.keeps_low) for cut in cuts] == ([(before - KERF, False)] if sawn else [])


@pytest.mark.parametrize(("behind", "sawn"), [(0.005, False), (0.02, True)])
def test_what_is_a_hair_longer_or_wider_is_sawn_off_and_less_is_not(behind, sawn):
    for piece in (Rect(0, 0, 300 + behind, 100), Rect(0, 0, 300, 100 + behind)):
        assert bool(saw_cuts(piece, lying((0, 0, 300, 100)), KERF)) is sawn


def test_parts_stand_a_kerf_apart_to_be_sawn_apart():
    saw_cuts(Rect(0, 0, 602, 100), lying((0, 0, 300, 100), (302, 0, 300, 100)), KERF)
    with pytest.raises(NotSawableError):
        saw_cuts(Rect(0, 0, 602, 100), lying((0, 0, 300, 100), (301.9, 0, 300, 100)), KERF)


def test_a_cut_through_the_whole_board_parts_what_lies_beside_it_to_a_hair():
    piece, touching = Rect(0, 0, 1000, 200), lying((0, 0, 400, 200), (402, 0, 400, 200))
    for off, through in ((0.005, True), (0.02, False)):
        for at in (400 - off, 400 + off):
            if through:
                cuts, left = cut_through_first(piece, touching, KERF, Sawing(), True, at)
                assert cuts[0].at == at and left[-1].rect.length == pytest.approx(196, abs=0.1)
            else:
                with pytest.raises(NotSawableError):
                    cut_through_first(piece, touching, KERF, Sawing(), True, at)


# --- where parts lie -------------------------------------------------------------------------------------


@pytest.mark.parametrize(("apart", "meets"), [(0.0, False), (-0.005, False), (-0.02, True)])
def test_rectangles_meet_by_more_than_a_hair(apart, meets):
    one = Rect(0, 0, 100, 50)
    assert one.meets(Rect(100 + apart, 0, 100, 50)) is meets
    assert Rect(100 + apart, 0, 100, 50).meets(one) is meets
    assert one.meets(Rect(0, 50 + apart, 100, 50)) is meets
    assert Rect(0, 50 + apart, 100, 50).meets(one) is meets


@pytest.mark.parametrize(("off", "lies"), [(0.005, True), (0.02, False)])
def test_a_part_may_stand_over_its_board_by_a_hair(off, lies):
    for x, y in ((-off, 0), (0, -off), (700 + off, 0), (0, 100 + off)):
        placed = place(part("p", 300, 100), Placement("p", "1", x, y))
        assert (complaints(board(), [placed], mm(2)) == {}) is lies


def test_wood_used_of_a_board_is_its_width_to_the_farthest_end():
    assert consumed(board(), lying((0, 0, 300, 50), (100, 60, 350, 50))) == 450 * 200
    assert consumed(board(), []) == 0


@pytest.mark.parametrize(
    ("at", "match"),
    [
        ((302, 0), None), ((331.9, 0), None), ((332.1, 0), Match.NOT_IN_ORDER), ((299.995, 0), None),
        ((299.9, 0), Match.NOT_IN_ORDER), ((302, 49), None), ((302, 51), Match.NOT_IN_ORDER),
        ((0, 102), Match.NOT_IN_ORDER),
    ],
)  # fmt: skip
def test_parts_in_order_follow_each_other_in_one_lane(at, match):
    pieces = [part(f"p{n}", 300, 100, together="set", in_order=True, number=n) for n in (1, 2)]
    first = place(pieces[0], Placement("p1", "1", 0, 0))
    for turned in (False, True):
        other = place(pieces[1], Placement("p2", "1", *at))
        rects = (other.rect, first.rect) if turned else (first.rect, other.rect)
        placed = [first._replace(rect=rects[0]), other._replace(rect=rects[1])]
        found = set_complaints(pieces, placed, mm(2))
        assert (found["p2"].match if found else None) is match


# --- why they lie nowhere --------------------------------------------------------------------------------


@pytest.mark.parametrize(("wide", "staves"), [(8 * 97, 8), (8 * 97 + 1, None)])
def test_up_to_eight_staves_are_proposed_each_with_room_to_be_jointed(wide, staves):
    boards = (board(width=100),)
    assert (staves_that_do(part("top", 500, wide), boards) or (None,))[0] == staves
    why = why_nowhere(part("top", 500, wide), boards, frozenset())
    assert isinstance(why, NoneWide)
    assert why.staves == (StavesDo(8, mm(100), "one") if staves else None)


@pytest.mark.parametrize(("wide", "staves"), [(2 * 37, 2), (2 * 37 - 1, None)])
def test_no_stave_is_narrower_than_forty(wide, staves):
    assert (staves_that_do(part("rail", 500, wide), (board(width=60),)) or (None,))[0] == staves


def test_the_widest_clear_strip_is_as_long_as_the_part():
    knot = Flaw(FlawKind.KNOT, mm(300), mm(340), mm(80), mm(120))
    spoilt = board(flaws=(knot,))
    assert widest_clear(spoilt, part("p", 600, 50)) == mm(200), "beyond the knot"
    assert widest_clear(spoilt, part("p", 661, 50)) == mm(80), "beside it"
    assert widest_clear(spoilt, part("p", 1001, 50)) == mm(0) and widest_clear(board(), part("p", 1000, 50)) == mm(200)


def test_a_part_that_lies_nowhere_is_offered_boards_with_room_but_none_that_is_sawn_up():
    wanted = part("p", 400, 100)
    one, two = board(), replace(board(), id="2", name="two")
    assert why_nowhere(wanted, (one, two), frozenset("2")) == FitsOn(("two",))
    lies = (("1", ((0.0, 0.0, 590.0, 200.0),)), ("2", ((0.0, 0.0, 601.0, 200.0),)))
    assert why_nowhere(wanted, (one, two), frozenset(), lies) == RoomOn(("one",))
    sawn = replace(one, sawn=True)
    assert why_nowhere(wanted, (sawn, two), frozenset(), lies) == TakenUp(("one", "two"))


def test_the_board_that_is_widest_gives_the_staves():
    boards = (board(width=100), replace(board(width=140), id="2", name="wide"))
    for every in (boards, boards[::-1]):
        count, chosen = staves_that_do(part("top", 500, 180), every)
        assert (count, chosen.name) == (2, "wide")


def test_a_cut_through_the_whole_board_keeps_what_lies_before_it():
    piece, placed = Rect(0, 0, 1000, 200), lying((0, 0, 400, 200), (402, 0, 400, 200))
    cuts, _ = cut_through_first(piece, placed, KERF, Sawing(), True, 400)
    assert cuts[0].keeps_low


@pytest.mark.parametrize("seed", range(20))
def test_a_stopped_rip_ends_within_its_piece(seed):
    piece, placed = lanes_at_random(seed)
    moved = Rect(50, 30, piece.length, piece.width)
    there = tuple(
        each._replace(rect=Rect(each.rect.x + 50, each.rect.y + 30, each.rect.length, each.rect.width))
        for each in placed
    )
    here, away = taken_apart(piece, placed, KERF, stopped=True)[0], taken_apart(moved, there, KERF, stopped=True)[0]
    assert [(cut.x + 50, cut.y + 30, cut.length, cut.reach) for cut in here] == [
        (pytest.approx(cut.x), pytest.approx(cut.y), pytest.approx(cut.length), cut.reach) for cut in away
    ]


def test_of_boards_that_are_all_too_short_the_longest_is_named():
    boards = (board(length=700), board(length=900), board(length=800))
    why = why_nowhere(part("rail", 1000, 50), boards, frozenset())
    assert why == NoneLong(mm(1000), mm(900))


@pytest.mark.parametrize(("deep", "spoils"), [(17.1, True), (16.9, False)])
def test_a_knot_of_the_other_face_spoils_one_clear_face_where_it_nearly_comes_through(deep, spoils):
    # Of 20 mm two are planed off each face, so 16 are left.
    knot = Flaw(FlawKind.KNOT, mm(0), mm(40), mm(0), mm(40), Faces.DOWN, mm(str(deep)))
    shelf = part("shelf", 300, 100, finished=mm(16))._replace(needs=Needs.ONE_FACE)
    assert rules_out(knot, shelf, board(thickness=20), Faces.UP) is spoils
