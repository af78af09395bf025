"""Blanks taken off boards and laid again: nothing is lost, and what it costs is what lies there."""

from __future__ import annotations

import random
from itertools import combinations

import pytest

from nullah.core.breakdown.packing import Blank, PackedBoard, Packer, Price

_KERF = 2.0


def _case(seed: int) -> tuple[list[Blank], list[PackedBoard]]:
    """Make blanks of all sizes, two kinds of clear wood on each board; some boards are used in part already."""
    chance = random.Random(seed)
    boards = []
    for _ in range(4):
        long, wide, used = chance.randint(600, 1500), chance.randint(120, 260), chance.choice([0, 0, 150])
        flaw = chance.randint(250, 450)
        clear = ((0.0, 0.0, flaw - 30.0, float(wide)), (0.0, 60.0, float(long), float(wide)))
        everything = ((0.0, 0.0, float(long), float(wide)),)
        free = ((used + _KERF if used else 0.0, 0.0, float(long), float(wide)),)
        boards.append(PackedBoard(long, wide, free, used, (everything, clear), chance.choice([1.0, 1.3])))
    kinds = [((0,),) * 4, ((1,),) * 4, ((0,), (), (1,), (0, 1))]
    blanks = [
        Blank(chance.randint(90, 500), chance.randint(30, 110), chance.choice(kinds), chance.choice([1, 3]))
        for _ in range(24)
    ]
    return blanks, boards


def _overlap(one, other) -> bool:
    along = min(one.end, other.end) - max(one.x, other.x)
    across = min(one.top, other.top) - max(one.y, other.y)
    return along > 0 and across > 0


@pytest.mark.parametrize("seed", range(6))
def test_what_a_layout_costs_is_what_lies_there(seed):
    blanks, boards = _case(seed)
    packer = Packer(blanks, boards, _KERF, Price(), seed)
    asked = sum(blank.along * blank.across for blank in blanks)
    rounds = packer.rounds()
    for number in range(800):
        better = next(rounds)
        packer.cool(number / 800)
        if not better:
            continue
        found = packer.best
        assert sorted([*(spot.blank for spot in found.spots), *found.missing]) == list(range(len(blanks)))
        ends = [board.used_to for board in boards]
        for spot in found.spots:
            ends[spot.sheet] = max(ends[spot.sheet], spot.x + blanks[spot.blank].along)
        wood = sum(end * board.width * board.worth for end, board in zip(ends, boards, strict=True))
        assert found.cost == pytest.approx(wood + 4 * asked * sum(blanks[index].holds for index in found.missing))


@pytest.mark.parametrize("price", [Price(), Price(cross=4.0, rip=6.0, beside_flaw=20.0)])
@pytest.mark.parametrize("seed", range(4))
def test_boards_are_as_they_were_when_all_is_taken_off(seed, price):
    blanks, boards = _case(seed)
    packer = Packer(blanks, boards, _KERF, price, seed)
    bare = packer._bare
    now = list(bare)
    packer._lay(now, range(len(blanks)), 0.5, 0.1, float("inf"))
    laid = sorted(item.blank for board in now for item in board.laid)
    off = []
    while any(board.laid for board in now):
        off += packer._taken_off(now)
        on = [item.blank for board in now for item in board.laid]
        assert sorted(off + on) == laid
        for board, first in zip(now, bare, strict=True):
            assert board.used_to == max([first.used_to, *(item.end for item in board.laid)])
            assert board.extra == pytest.approx(sum(item.extra for item in board.laid))
            taken = [*board.laid, *board.free]
            assert not any(_overlap(one, other) for one, other in combinations(taken, 2))
    for board, first in zip(now, bare, strict=True):
        assert board.free == first.free
        assert (board.used_to, board.extra) == (first.used_to, 0.0)
