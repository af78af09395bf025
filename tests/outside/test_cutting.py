"""The breakdown search against published cutting problems, an exact solver, and a general packing library."""

import random
from fractions import Fraction
from functools import cache
from itertools import combinations

import pytest
import rectpack

from nullah.core.breakdown.rough import RoughPart
from nullah.core.breakdown.search import LayoutTask, search_task
from nullah.core.lengths import inch, mm
from nullah.core.piece.part import Needs
from nullah.core.rack.board import Board
from nullah.core.rack.sizes import board_feet, quarters, resolve_size

# E. Hopper and B. C. H. Turton, "An empirical investigation of meta-heuristic and heuristic algorithms for a
# 2D packing problem", European Journal of Operational Research 128 (2001), problem C1-P1: sixteen rectangles cut
# from a square of 20 by 20, so the least length of a strip 20 wide is 20. Values from memory; that they fill the
# square is proved again below.
C1_P1 = [
    (2, 12), (7, 12), (8, 6), (3, 6), (3, 5), (5, 5), (3, 12), (3, 7), (5, 7), (2, 6), (3, 2), (4, 2), (3, 4),
    (4, 4), (9, 2), (11, 2),
]  # fmt: skip


def least(parts, boards, kerf, rounds):
    task = LayoutTask(tuple(parts), tuple(boards), mm(kerf))
    return list(search_task(task, rounds))[-1]


def a_part(name, length, width):
    return RoughPart(name, name, mm(length), mm(width), mm(10), Needs.CLEAR)


def a_board(name, length, width):
    return Board(name, name, "", mm(length), mm(width), mm(12))


# --- a published problem --------------------------------------------------------------------------


def fills(sizes, wide, long):
    """Return whether rectangles, none turned, fill a rectangle without a gap: exhaustive search, lowest gap first."""

    def go_on(heights, left):
        if not left:
            return all(height == long for height in heights)
        low = min(heights)
        x = heights.index(low)
        run = next((i for i in range(x, wide) if heights[i] != low), wide) - x
        for size in sorted(set(left), reverse=True):
            across, along = size
            if across <= run and low + along <= long:
                filled = [*heights[:x], *[low + along] * across, *heights[x + across :]]
                rest = list(left)
                rest.remove(size)
                if go_on(filled, rest):
                    return True
        return False

    return go_on([0] * wide, sizes)


def test_the_published_problem_is_what_it_says():
    assert sum(a * b for a, b in C1_P1) == 400
    assert fills(C1_P1, 20, 20), "its optimum of 20 is reached, and no layout can be shorter"


def test_a_published_strip_is_cut_within_a_tenth_of_its_optimum_and_the_bound_is_the_optimum():
    # A unit counts as 10 mm. The optimum is for placing freely; ours can also be sawn edge to edge.
    parts = [a_part(str(i), along * 10, across * 10) for i, (across, along) in enumerate(C1_P1)]
    layout = least(parts, [a_board("strip", 400, 200)], 0, 1500)
    assert not layout.unplaced
    assert layout.bound == pytest.approx(200 * 200, abs=1)
    assert 200 * 200 <= layout.consumed <= 200 * 220


# --- an exact solver ------------------------------------------------------------------------------


def exact_least_length(sizes, width, kerf):
    """Return the least length of a board that yields all rectangles by cuts edge to edge, by going through all ways.

    A set is one rectangle; or it is crosscut in two sets one after the other; or ripped in two
    sets side by side, the first as narrow as some of its widths added up allow.
    """
    everything = tuple(range(len(sizes)))

    @cache
    def length(chosen, wide):
        if len(chosen) == 1:
            along, across = sizes[chosen[0]]
            return along if across <= wide else float("inf")
        best = float("inf")
        first, rest = chosen[0], chosen[1:]
        for count in range(len(rest)):
            for others in combinations(rest, count):
                one = (first, *others)
                two = tuple(i for i in rest if i not in others)
                best = min(best, length(one, wide) + kerf + length(two, wide))
                for narrow in widths(one):
                    if narrow + kerf < wide:
                        best = min(best, max(length(one, narrow), length(two, wide - kerf - narrow)))
        return best

    @cache
    def widths(chosen):
        sums = set()
        for count in range(1, len(chosen) + 1):
            for some in combinations(chosen, count):
                sums.add(sum(sizes[i][1] for i in some) + kerf * (count - 1))
        return tuple(sorted(sums))

    return length(everything, width)


@pytest.mark.sampled(3)
@pytest.mark.parametrize("seed", range(10))
def test_small_boards_are_cut_as_well_as_can_be(seed):
    rng = random.Random(seed)
    sizes = [(rng.randint(8, 40) * 10, rng.randint(4, 12) * 10) for _ in range(6)]
    kerf = rng.choice([0, 2, 5])
    best = exact_least_length(tuple(sizes), 200, kerf)
    parts = [a_part(str(i), *size) for i, size in enumerate(sizes)]
    layout = least(parts, [a_board("a", 2500, 200)], kerf, 8000)
    assert layout.consumed == pytest.approx(best * 200)
    assert layout.bound <= best * 200 + 1e-6


# --- a general packing library --------------------------------------------------------------------


@pytest.mark.parametrize("seed", range(4))
def test_it_needs_no_more_wood_than_a_general_packing_library(seed):
    rng = random.Random(seed)
    boards = [(rng.randint(1200, 2400), rng.randint(150, 260)) for _ in range(8)]
    sizes = [(rng.randint(150, 700), rng.randint(40, 140)) for _ in range(28)]
    kerf = 2
    theirs = float("inf")
    for algorithm in (rectpack.GuillotineBssfSas, rectpack.GuillotineBafLas, rectpack.MaxRectsBl):
        packer = rectpack.newPacker(rotation=False, pack_algo=algorithm, sort_algo=rectpack.SORT_AREA)
        for index, (along, across) in enumerate(sizes):
            packer.add_rect(along + kerf, across + kerf, index)
        for long, wide in boards:
            packer.add_bin(long + kerf, wide + kerf)
        packer.pack()
        laid = packer.rect_list()
        if len(laid) == len(sizes):
            used = [
                max((x + w - kerf for b, x, _, w, _, _ in laid if b == number), default=0)
                for number in range(len(packer))
            ]
            theirs = min(theirs, sum(end * (bin_.height - kerf) for end, bin_ in zip(used, packer, strict=True)))
    parts = [a_part(str(i), *size) for i, size in enumerate(sizes)]
    layout = least(parts, [a_board(str(i), *size) for i, size in enumerate(boards)], kerf, 400)
    assert not layout.unplaced and layout.consumed <= theirs


# --- sizes ----------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("length", "width", "thickness", "feet"),
    [(12, 12, 1, 1), (96, 6, 1, 4), (120, 8, 2, "40/3"), (72, "11/2", "5/4", "55/16")],
)
def test_board_feet_are_144_cubic_inches(length, width, thickness, feet):
    # By definition: a board foot is a square foot of wood an inch thick (NHLA rules, PS 20).
    assert board_feet(inch(length), inch(Fraction(width)), inch(Fraction(thickness))) == Fraction(feet)


def test_a_named_board_holds_less_wood_than_its_name():
    # American Softwood Lumber Standard PS 20: a dry 1x12 is 3/4 by 11 1/4 in (value from memory).
    size = resolve_size("1x12")
    assert size.width is not None
    assert board_feet(inch(96), size.width, size.thickness) / board_feet(inch(96), inch(12), inch(1)) == pytest.approx(
        0.75 * 11.25 / 12
    )


def test_hardwood_is_asked_for_by_the_quarter_above():
    # NHLA rules name rough hardwood in quarters of an inch (value from memory).
    found = [quarters(mm(size)) for size in (20, 26, 33, 40, 52)]
    assert [size.mm / inch(1).mm for size in found] == [1, Fraction(5, 4), Fraction(3, 2), 2, Fraction(5, 2)]
