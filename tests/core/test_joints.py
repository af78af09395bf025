from fractions import Fraction

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st
from tests.said import said

from nullah.core.card import Severity
from nullah.core.joints.dovetail import runout
from nullah.core.joints.dovetail.layout import DovetailError, DovetailFigures, lay_out, remarks
from nullah.core.joints.views import between_tails
from nullah.core.lengths import Marks, Slope, mm
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project
from nullah.core.shop import Shop
from nullah.core.wording.facts import error_words


def corner(width=150, tails=4, half_pin=8, pin=5, slope=7, thickness=15, pin_thickness=None, proud="0"):
    return lay_out(
        DovetailFigures(
            mm(width),
            mm(thickness),
            mm(pin_thickness or thickness),
            tails,
            mm(half_pin),
            mm(pin),
            Slope(Fraction(slope)),
            mm(proud),
        )
    )


fractions_ = st.fractions(min_value=1, max_value=20, max_denominator=64)


@given(st.fractions(min_value=60, max_value=400, max_denominator=64), st.integers(1, 9), fractions_, fractions_)
def test_tails_and_pins_fill_the_width_exactly(width, tails, half_pin, pin):
    layout = lay_out(DovetailFigures(mm(width), mm(15), mm(15), tails, mm(half_pin), mm(pin), Slope(Fraction(7))))
    assert layout.tail * tails + mm(pin) * (tails - 1) + 2 * mm(half_pin) == mm(width)
    assert layout.marks[0] == mm(half_pin) and layout.marks[-1] == mm(width) - mm(half_pin)
    # The divider's way: n steps from one half-pin line overshoot the other by the pin.
    assert mm(half_pin) + layout.step * tails == mm(width) - mm(half_pin) + mm(pin)


def test_a_tail_narrows_by_twice_its_length_over_the_slope():
    layout = corner(pin_thickness=21, slope=6)
    assert layout.tail - layout.tail_base == mm(7)
    assert layout.pin_base == mm(12)
    low, high = layout.bases[0]
    assert high - low == layout.tail_base


def test_gauges_follow_the_mate_and_the_school():
    layout = corner(thickness=12, pin_thickness=18, proud="0.5")
    assert layout.gauge_tail_board == mm("18.5"), "the tails are as long as the pin board is thick"
    assert layout.gauge_pin_board == mm("12.5")


@pytest.mark.parametrize("wrong", [{"tails": 0}, {"width": 0}, {"thickness": 0}, {"pin": -1}, {"tails": 1000}])
def test_what_cannot_be_drawn_is_refused_with_a_sentence(wrong):
    with pytest.raises(DovetailError) as refusal:
        corner(**wrong)
    assert error_words(refusal.value).endswith(".")


@pytest.mark.parametrize(
    ("shape", "weight", "words"),
    [
        ({"tails": 30}, Severity.FAILURE, "nothing is left for the tails"),
        ({"tails": 16}, Severity.FAILURE, "run to a point"),
        ({"pin": 1}, Severity.WARNING, "finer than saw"),
        ({"pin": "0.6"}, Severity.WARNING, "finer than saw"),
        ({"pin": "0.59"}, Severity.FAILURE, "finer than saw"),
        ({"half_pin": 2}, Severity.WARNING, "half-pin"),
        ({"slope": 3, "tails": 2}, Severity.WARNING, "crumble"),
        ({"slope": 14}, Severity.WARNING, "straight fingers"),
        ({"proud": "-1"}, Severity.WARNING, "inside flush"),
    ],
)
def test_limits_are_said_in_words_with_the_figure(shape, weight, words):
    found = remarks(corner(**shape), Shop())
    assert any(words in said(remark) and remark.weight is weight for remark in found), found


def test_says_how_many_tails_would_go():
    found = remarks(corner(tails=30), Shop())
    number = int(said(found[0]).split("Up to ")[1].split()[0])
    assert corner(tails=number).tail_base >= mm(5)
    assert corner(tails=number + 1).tail_base < mm(5)


def test_a_good_corner_has_nothing_to_say():
    assert remarks(corner(), Shop()) == ()


def test_no_chisel_for_the_socket_is_said():
    shop = Shop(chisels=(mm(12),))
    assert any("No chisel" in said(remark) for remark in remarks(corner(), shop))
    assert shop.largest_chisel(mm(11)) is None
    assert Shop().largest_chisel(mm(11)) == mm(10)


# --- the groove at the corner ---------------------------------------------------------------------

LAYOUT = corner(width=120, tails=3, half_pin=8, pin=7)


def test_a_groove_inside_a_tail_shows_only_in_the_tail_boards():
    low, high = LAYOUT.bases[0]
    verdict = runout.run_out(LAYOUT, low, high)
    assert (verdict.meets, verdict.tail) == (runout.Meets.TAIL, 1)
    assert verdict.shows_in_tail_board and not verdict.shows_in_pin_board
    words = [said(remark) for remark in runout.remarks(LAYOUT, low, low + mm(6), mm(5), Marks())]
    assert "10 mm from each end" in words[1], "the pin board is 15 thick and the bottom goes 5 in"
    assert len(runout.remarks(LAYOUT, low, low + mm(6), mm(5), Marks(), (True, False))) == 1, "it stops already"


def test_a_groove_against_a_pin_shows_only_in_the_pin_boards():
    thin = mm("0.5")
    low = LAYOUT.marks[1] + mm(3)
    verdict = runout.run_out(LAYOUT, low, low + thin)
    assert verdict.meets is runout.Meets.PIN
    assert verdict.shows_in_pin_board and not verdict.shows_in_tail_board
    told = [runout.remarks(LAYOUT, low, low + thin, mm(5), Marks(), (False, stops)) for stops in (False, True)]
    assert [[remark.weight for remark in each] for each in told] == [[Severity.WARNING], []]


@pytest.mark.parametrize(("grooves", "warned"), [("stopped", False), ("through", True)])
def test_a_corner_says_no_groove_shows_where_the_proof_is_clean(grooves, warned):
    plan = work_out(Project(piece=Piece("box", choices=(("grooves", grooves),))), milling=False)
    warnings = [r for corner in plan.corners for r in corner.remarks if r.weight is not Severity.NOTE]
    assert bool(warnings) is warned and plan.proof.clean is not warned


def test_a_groove_across_the_slope_fails_and_the_mend_puts_it_inside_a_tail():
    low, high = LAYOUT.marks[0] - mm(2), LAYOUT.marks[0] + mm(4)
    found = runout.remarks(LAYOUT, low, high, mm(5), Marks())
    assert found[0].weight is Severity.FAILURE
    moved = found[0].fixes[0].height
    assert runout.run_out(LAYOUT, moved, moved + (high - low)).meets is runout.Meets.TAIL


@given(st.fractions(min_value=0, max_value=114, max_denominator=16))
def test_every_mend_of_a_groove_really_mends_it(low):
    for remark in runout.remarks(LAYOUT, mm(low), mm(low + 6), mm(5), Marks()):
        for fix in remark.fixes:
            moved = fix.height
            assert runout.run_out(LAYOUT, moved, moved + mm(6)).meets is runout.Meets.TAIL


@given(st.integers(1, 6), st.integers(5, 12))
def test_what_stands_between_the_tails_and_the_tails_fill_the_corner(tails, slope):
    layout = corner(tails=tails, slope=slope)
    assume(layout.tail_base.mm > 0)
    area = 0.0
    for shape in between_tails(layout, 15.0):
        (_, a), (_, b), (_, c), (_, d) = shape
        area += ((d - a) + (c - b)) / 2 * 15
    kept = float((layout.tail + layout.tail_base) / 2) * 15 * tails
    assert area + kept == pytest.approx(150 * 15)
