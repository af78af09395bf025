"""Figures held against the same arithmetic done another way, each just inside and just outside its limits."""

from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nullah.core import actions
from nullah.core.apply_fix import action_of
from nullah.core.breakdown.cuts import cut_through_first
from nullah.core.breakdown.layout import PlacedPart, Rect
from nullah.core.breakdown.rough import RoughPart
from nullah.core.breakdown.sawing import Sawing
from nullah.core.joints.dovetail import DOVETAIL
from nullah.core.joints.dovetail.frame import tail_frame
from nullah.core.joints.dovetail.layout import Dovetail, DovetailError, lay_out
from nullah.core.lengths import Length, Slope, Unit, mm
from nullah.core.piece.faults import Trouble
from nullah.core.piece.joint import Tails
from nullah.core.piece.part import Needs, Part
from nullah.core.piece.space import Axis, Box
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project
from nullah.core.rack.drying import usual_days
from nullah.core.season.growing import growth, part_year
from nullah.core.work.seasons import stock_of


def test_the_swing_of_a_part_is_what_its_months_are_apart():
    plan = work_out(Project(Piece("box")), milling=False, proving=False)
    part, stock = plan.part("bottom"), stock_of(plan, "bottom")
    year = part_year(part, stock)
    assert year.swing == pytest.approx(max(year.change) - min(year.change)) and year.swing > 0.5
    wet, dry = max(stock.year), min(stock.year)
    assert year.swing == pytest.approx((wet - dry) * (growth(part, stock, part.across, 1000)[0] / 1000)
                                       / (stock.year[0] - stock.now) * year.width)  # fmt: skip


def rough(name, along, across):
    return RoughPart(name, name, mm(along), mm(across), mm(20), Needs.ANY)


@pytest.mark.parametrize("crosswise", [True, False])
def test_a_cut_through_first_is_the_first_and_the_others_are_numbered_after_it(crosswise):
    board = Rect(0, 0, 1000, 200)
    placed = [
        PlacedPart(rough("a", 300, 80), "1", Rect(10, 5, 300, 80)),
        PlacedPart(rough("b", 300, 80), "1", Rect(10, 110, 300, 80)),
        PlacedPart(rough("c", 300, 80), "1", Rect(600, 5, 300, 80)),
        PlacedPart(rough("d", 300, 80), "1", Rect(600, 110, 300, 80)),
    ]
    cuts, left = cut_through_first(board, placed, 2.0, Sawing(), crosswise, 450.0 if crosswise else 95.0)
    assert [cut.order for cut in cuts] == list(range(1, len(cuts) + 1))
    assert cuts[0].piece == board and all(cut.piece != board for cut in cuts[1:])
    used = sum(each.rect.length * each.rect.width for each in placed) + sum(rest.length * rest.width for rest in left)
    kerfs = sum(cut.length for cut in cuts) * 2.0
    assert used <= 200 * 1000 and used + kerfs == pytest.approx(200 * 1000, rel=0.02)


def board(name, box, grain, face):
    return Part(name, 1, name, box, grain, face, Needs.ANY, ("", "", ""), name)


@given(st.integers(0, 5000), st.booleans())
def test_tails_point_to_the_end_at_which_the_corner_is_wherever_the_boards_stand(start, far):
    start = Fraction(start)
    low = (start, Fraction(0), Fraction(0))
    tail = board("tail", Box(low, (start + 300, Fraction(100), Fraction(15))), Axis.X, Axis.Z)
    at = start + 300 - 18 if far else start
    pin = board("pin", Box((at, Fraction(0), Fraction(-85)), (at + 18, Fraction(100), Fraction(15))), Axis.Z, Axis.X)
    tails = Tails("tails", 2, Fraction(8), Fraction(6), Slope(Fraction(7)))
    _, along, across, through, high = tail_frame(DOVETAIL.corner("c", tail, pin, tails), tail, pin)
    assert (along, across, through, high) == (Axis.X, Axis.Y, Axis.Z, far)


@pytest.mark.parametrize("name", ["width", "tail_thickness", "pin_thickness"])
def test_boards_of_a_corner_need_a_size_and_no_more(name):
    sizes = {"width": mm(150), "tail_thickness": mm(15), "pin_thickness": mm(15)}

    def corner(size):
        return lay_out(Dovetail(**{**sizes, name: size}, tails=2, half_pin=mm(0), pin=mm(0), slope=Slope(Fraction(7))))

    assert corner(mm("0.1")).step.mm > 0
    with pytest.raises(DovetailError):
        corner(mm(0))


def test_no_tails_are_refused_one_is_laid_out_and_so_are_two_hundred():
    def corner(tails):
        return lay_out(Dovetail(mm(4000), mm(15), mm(15), tails, mm(8), mm(6), Slope(Fraction(7))))

    assert [corner(number).spec.tails for number in (1, 200)] == [1, 200]
    for number in (0, 201):
        with pytest.raises(DovetailError):
            corner(number)


def test_the_thickness_offered_to_a_sagging_shelf_is_enough_and_hardly_more():
    board = actions.give_all(Project(Piece("wall shelf")), {"shelf.load": 45, "shelf.outside_width": mm(1000)})

    def sagging(project):
        return [f for f in work_out(project, milling=False).findings if f.trouble is Trouble.SAG]

    (finding,) = sagging(board)
    (fix,) = finding.remark.fixes
    assert not sagging(action_of(fix, Unit.MM)(board))
    assert sagging(actions.give(board, fix.quantity, Length(fix.value.mm - Fraction(1, 2)))), (
        "half a millimetre less, and it still sags"
    )


def test_the_wait_of_a_piece_goes_with_the_square_of_how_deep_it_is():
    def deep(length, width, thick):
        return length * width * thick / (2 * (length * width + length * thick) + 2 * 10 * width * thick)

    assert usual_days(2000, 200, 25) == pytest.approx(14)
    for size in ((2000, 200, 50), (400, 90, 25), (900, 40, 40)):
        assert usual_days(*size) == pytest.approx(14 * (deep(*size) / deep(2000, 200, 25)) ** 2)
