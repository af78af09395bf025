"""Figures held against the same arithmetic done another way, each just inside and just outside its limits."""

from fractions import Fraction
from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from nullah.core import actions
from nullah.core.apply_fix import action_of
from nullah.core.bench.rates import RATES, Learned, minutes_of
from nullah.core.breakdown.asks import can_supply, refusal
from nullah.core.breakdown.cuts import cut_through_first
from nullah.core.breakdown.facts import StavesDo, TooThin
from nullah.core.breakdown.layout import PlacedPart, Rect
from nullah.core.breakdown.reasons import why_nowhere
from nullah.core.breakdown.rough import RoughPart
from nullah.core.breakdown.sawing import Sawing
from nullah.core.forms.own_boards import OwnBoard, OwnJoint
from nullah.core.joints import meeting
from nullah.core.joints.dovetail import facts, runout
from nullah.core.joints.dovetail.frame import tail_frame
from nullah.core.joints.dovetail.joint_type import DOVETAIL
from nullah.core.joints.dovetail.layout import DovetailError, DovetailFigures, lay_out, remarks
from nullah.core.joints.dovetail.tails import Tails
from nullah.core.joints.fasteners import fastening
from nullah.core.lengths import Length, Marks, Slope, Unit, mm, read_length
from nullah.core.milling.slab import thickest_slab
from nullah.core.milling.survey import Survey
from nullah.core.piece.faults import ButtGap, Channel, FaultKind
from nullah.core.piece.overlap import channel_of
from nullah.core.piece.part import Needs, Part
from nullah.core.piece.space import Axis, Box
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project
from nullah.core.rack.board import Board
from nullah.core.rack.drying import usual_days
from nullah.core.season.fits import Verdict
from nullah.core.season.swelling import growth, part_year
from nullah.core.shop import Shop
from nullah.core.wood.moisture import ClimateError, equilibrium_moisture
from nullah.core.wood.species import find_species
from nullah.core.wood.stiffness import passing_span, sag
from nullah.core.work.seasons import season_of, stock_of

TENTH = Fraction(1, 10)


def test_the_swing_of_a_part_is_what_its_months_are_apart():
    plan = work_out(Project(Piece("box")), milling=False, proving=False)
    part, stock = plan.part("bottom"), stock_of(plan, "bottom")
    year = part_year(part, stock)
    assert year.swing == pytest.approx(max(year.change) - min(year.change)) and year.swing > 0.5
    wet, dry = max(stock.year), min(stock.year)
    assert year.swing == pytest.approx(
        (wet - dry) * (growth(part, stock, part.across, 1000)[0] / 1000) / (stock.year[0] - stock.now) * year.width
    )


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
    used = sum(each.rect.length * each.rect.width for each in placed) + sum(
        rest.rect.length * rest.rect.width for rest in left
    )
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
        return lay_out(
            DovetailFigures(**{**sizes, name: size}, tails=2, half_pin=mm(0), pin=mm(0), slope=Slope(Fraction(7)))
        )

    assert corner(mm("0.1")).step.mm > 0
    with pytest.raises(DovetailError):
        corner(mm(0))


def test_no_tails_are_refused_one_is_laid_out_and_so_are_two_hundred():
    def corner(tails):
        return lay_out(DovetailFigures(mm(4000), mm(15), mm(15), tails, mm(8), mm(6), Slope(Fraction(7))))

    assert [corner(number).spec.tails for number in (1, 200)] == [1, 200]
    for number in (0, 201):
        with pytest.raises(DovetailError):
            corner(number)


def test_the_thickness_offered_to_a_sagging_shelf_is_enough_and_hardly_more():
    board = actions.give_all(Project(Piece("wall shelf")), {"shelf.load": 45, "shelf.outside_width": mm(1000)})

    def sagging(project):
        return [f for f in work_out(project, milling=False).findings if f.trouble is FaultKind.SAG]

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


# --- boxes that meet ------------------------------------------------------------------------------


def a_box(low, high):
    return Box(tuple(map(Fraction, low)), tuple(map(Fraction, high)))


@pytest.mark.parametrize(
    ("guest", "bridle", "open_edge"),
    [
        # The end of a rail in the end of a stile, face on face, through it: a bridle.
        ((Axis.X, a_box((0, 0, 0), (300, 60, 20))), True, True),
        # The same in the middle of the stile: it is entered, but not at its end.
        ((Axis.X, a_box((0, 100, 0), (300, 160, 20))), False, False),
        # Standing 5 mm short of the far edge: it goes not through.
        ((Axis.X, a_box((5, 0, 0), (300, 60, 20))), False, True),
        # Running on past it both ways: no end of it lies there.
        ((Axis.X, a_box((-100, 0, 0), (300, 60, 20))), False, True),
    ],
)
def test_a_bridle_is_where_both_end_in_a_corner_and_the_one_goes_through_the_other(guest, bridle, open_edge):
    stile = board("stile", a_box((0, 0, 0), (60, 400, 20)), Axis.Y, Axis.Z)
    grain, box = guest
    rail = board("rail", box, grain, Axis.Z)
    overlap = stile.box.overlap(rail.box)
    assert meeting.is_bridle(stile, rail, overlap) is bridle
    along = board("along", box, Axis.Y, Axis.Z)
    assert not meeting.is_bridle(stile, along, overlap), "grain the same way"
    edge_on = board("edge on", box, grain, Axis.Y)
    assert not meeting.is_bridle(stile, edge_on, overlap), "face to edge"


def test_a_tongue_lies_in_the_middle_between_its_shoulders():
    rail = board("rail", a_box((0, 0, 0), (300, 24, 30)), Axis.X, Axis.Z)
    whole = a_box((0, 0, 0), (40, 24, 30))
    assert meeting.in_the_middle(whole, rail, Fraction(10), Fraction(0)) == a_box((0, 0, 10), (40, 24, 20))
    assert meeting.in_the_middle(whole, rail, Fraction(6), Fraction(4)) == a_box((0, 4, 12), (40, 20, 18))


@pytest.mark.parametrize(
    ("thick", "wide", "tenon", "shoulder"),
    [(20, 60, 6, 6), (27, 60, 10, 6), (16, 24, 6, 4), (24, 21, 6, Fraction(7, 2)), (25, 90, 10, 6)],
)
def test_a_tenon_of_ones_own_is_a_third_to_a_chisel_and_its_shoulders_a_sixth_at_the_most_6_mm(
    thick, wide, tenon, shoulder
):
    post = OwnBoard("own1", "post", (mm(400), mm(120), mm(40)), (mm(0), mm(0), mm(0)), "zx")
    rail = OwnBoard("own2", "rail", (mm(200), mm(wide), mm(thick)), (mm(20), mm(15), mm(100)), "xz")
    joint = OwnJoint("ownjoint1", "mortise and tenon", "own1", "own2")
    plan = work_out(Project(Piece("own", own=(post, rail), own_joints=(joint,))), milling=False, proving=False)
    assert plan.ledger["ownjoint1_tenon.thickness"] == tenon and plan.ledger["ownjoint1_tenon.shoulder"] == shoulder
    (share,) = plan.assembly.joints[0].shares
    assert share.size(Axis.Z) == tenon and share.size(Axis.Y) == wide - 2 * shoulder


@given(st.integers(1, 400), st.sampled_from(list(Axis)))
def test_a_gap_between_two_boards_is_said_as_wide_as_it_is(gap, axis):
    at = [mm(0), mm(0), mm(0)]
    sizes = {Axis.X: 300, Axis.Y: 20, Axis.Z: 120}
    at[axis.value] = mm(sizes[axis] + gap)
    own = (
        OwnBoard("own1", "one", (mm(300), mm(120), mm(20)), (mm(0),) * 3, "xy"),
        OwnBoard("own2", "two", (mm(300), mm(120), mm(20)), tuple(at), "xy"),
    )
    joints = (OwnJoint("ownjoint1", "butt", "own1", "own2"),)
    findings = work_out(Project(Piece("own", own=own, own_joints=joints)), milling=False).findings
    facts = [finding.remark.fact for finding in findings]
    assert ButtGap("own1", "own2", mm(gap)) in facts


# --- nails, screws, shelves, glue -----------------------------------------------------------------


@pytest.mark.parametrize(
    ("screws", "thickness", "holding", "long", "thick"),
    [(False, 12, 40, 30, 1.6), (False, 12, 10, 15, 1.0), (False, 24, 60, 60, 2.8), (False, 16, 60, 40, 2.0),
     (True, 8, 60, 20, 2.5), (True, 12, 60, 30, 3.0), (True, 30, 90, 70, 5.0), (True, 13, 12, 20, 3.0)],
)  # fmt: skip
def test_a_fastening_is_as_long_as_the_piece_allows_and_as_thick_as_is_usual(screws, thickness, holding, long, thick):
    row = fastening(screws, thickness, holding, 300, 0.5, True, False)
    assert (row.long, row.thick, row.enters) == pytest.approx((long, thick, long - thickness))
    assert row.pilot == pytest.approx(thick * (0.6 if screws else 0.75))
    gaps = [b - a for a, b in pairwise(row.places)]
    assert row.places[0] == pytest.approx(max(25, 10 * thick)) and row.places[0] + row.places[-1] == pytest.approx(300)
    assert max(gaps) <= 90 + 1e-9 and (len(gaps) == 1 or (300 - 2 * row.places[0]) / (len(gaps) - 1) > 90)


def test_a_screw_in_softwood_has_a_finer_pilot_and_in_end_grain_holds_three_quarters():
    hard, soft, end = (fastening(True, 12, 60, 300, 0.5, *how) for how in ((True, False), (False, False), (True, True)))
    assert (hard.pilot, soft.pilot) == pytest.approx((1.8, 1.4))
    assert end.holds == pytest.approx(0.75 * hard.holds) and hard.holds == pytest.approx(108.25 * 0.25 * 3 * 18)
    nail, into_end = (fastening(False, 12, 60, 300, 0.5, True, grain) for grain in (False, True))
    assert into_end.holds == pytest.approx(0.5 * nail.holds) and nail.holds == pytest.approx(
        54.12 * 0.5**2.5 * 1.6 * 18
    )


def test_the_sag_of_a_shelf_is_that_of_a_beam_with_its_own_weight():
    oak = find_species("white oak")
    weight = (20 / 900 + oak.density * 1e-9 * 250 * 19) * 9.80665
    stiff = oak.stiffness * 1000 * 250 * 19**3 / 12
    assert sag(900, 20, 250, 19, oak) == pytest.approx(5 * weight * 900**4 / (384 * stiff), rel=1e-9)
    longest = passing_span(20 / 900, 250, 19, oak)
    assert sag(longest, 20 / 900 * longest, 250, 19, oak) == pytest.approx(longest / 600, rel=1e-9)


def test_a_strain_is_a_percentage_of_what_is_held():
    side = OwnBoard("own1", "panel", (mm(400), mm(250), mm(18)), (mm(0),) * 3, "xz")
    rail = OwnBoard("own2", "rail", (mm(250), mm(60), mm(20)), (mm(50), mm(0), mm(18)), "yz")
    joints = (OwnJoint("ownjoint1", "butt", "own1", "own2"),)
    (strain,) = season_of(work_out(Project(Piece("own", own=(side, rail), own_joints=joints)), milling=False)).strains
    assert (
        strain.held == 250 and strain.percent == pytest.approx(100 * abs(strain.moves) / 250) and strain.percent > 0.3
    )


@pytest.mark.parametrize(("temperature", "fits"), [(-20, True), (-20.1, False), (110, True), (110.1, False)])
def test_the_formula_of_moisture_is_asked_only_for_air_that_it_covers(temperature, fits):
    if fits:
        assert equilibrium_moisture(temperature, 50) > 0
    else:
        with pytest.raises(ClimateError):
            equilibrium_moisture(temperature, 50)


def test_the_minutes_of_work_are_amount_times_guess_times_what_was_learned():
    work = (("rip", 3.0), ("lay out", 2.0))
    guess = 3 * RATES["rip"].minutes + 2 * RATES["lay out"].minutes
    assert minutes_of(work) == pytest.approx(guess)
    twice = {"rip": Learned(2.0, 0.1, 5)}
    assert minutes_of(work, twice) == pytest.approx(guess + 3 * RATES["rip"].minutes)


def test_staves_told_of_have_room_to_be_jointed():
    wide = rough("top", 500, 300)
    board_ = Board("1", "plank", "", mm(900), mm(160), mm(25))
    why = why_nowhere(wide, (board_,), frozenset())
    assert why.staves == StavesDo(2, mm(153), "plank")
    assert why_nowhere(rough("top", 500, 480), (board_,), frozenset()).staves == StavesDo(4, mm(123), "plank")


# --- what is only just good enough ----------------------------------------------------------------

_GOOD = {
    "width": "150",
    "tail_thickness": "15",
    "pin_thickness": "15",
    "tails": 3,
    "half_pin": "8",
    "pin": "6",
    "slope": 7,
}


def minded(shop=None, **more):
    """Return which facts a corner brings up."""
    given_ = {**_GOOD, **more}
    spec = DovetailFigures(
        *(mm(given_[name]) for name in ("width", "tail_thickness", "pin_thickness")),
        given_["tails"],
        mm(given_["half_pin"]),
        mm(given_["pin"]),
        Slope(Fraction(given_["slope"])),
        mm(given_.get("proud", 0)),
    )
    return {type(remark.fact) for remark in remarks(lay_out(spec), shop or Shop())}


@pytest.mark.parametrize(
    ("fact", "inside", "outside"),
    [
        (facts.SlopeCrumbles, {"slope": 5}, {"slope": Fraction(499, 100)}),
        (facts.SlopeSlips, {"slope": 10}, {"slope": Fraction(1001, 100)}),
        (facts.HalfPinWeak, {"half_pin": "5"}, {"half_pin": "4.99"}),
        (facts.PinsTooFine, {"pin": "3"}, {"pin": "2.99"}),
        (facts.BaselineInside, {"proud": "0"}, {"proud": "-0.01"}),
        # A slope of 1:7 takes 30/7 of each tail; where a third is left it is 6.43 wide at the end.
        (facts.TailsBreakOff, {"width": "34.86", "tails": 2}, {"width": "34.85", "tails": 2}),
    ],
)  # fmt: skip
def test_what_is_minded_begins_where_it_is_said_to(fact, inside, outside):
    assert fact not in minded(**inside) and fact in minded(**outside)


def test_a_tail_that_comes_to_nothing_at_the_baseline_cannot_be_made_and_a_hair_more_can():
    # Two tails in 150 − 16 with a pin of 6 are 64 each; a slope of 1:s takes 30/s.
    def corner(slope):
        return lay_out(DovetailFigures(mm(150), mm(15), mm(15), 2, mm(8), mm(6), Slope(Fraction(slope))))

    exact = corner(Fraction(30, 64))
    assert exact.tail_base.mm == 0 and facts.TailsRunToPoint in {type(r.fact) for r in remarks(exact, Shop())}
    hair = corner(Fraction(30, 64) + Fraction(1, 1000))
    assert hair.tail_base.mm > 0 and facts.TailsRunToPoint not in {type(r.fact) for r in remarks(hair, Shop())}


def test_a_square_channel_is_named_along_the_grain():
    side = board("side", a_box((0, 0, 0), (400, 200, 20)), Axis.X, Axis.Z)
    square = a_box((100, 50, 14), (130, 80, 20))
    assert channel_of(side, square) is Channel.GROOVE
    assert channel_of(side, square.set(Axis.Y, Fraction(50), Fraction(80) + TENTH)) is Channel.DADO
    assert channel_of(side, square.set(Axis.X, Fraction(0), Fraction(30))) is Channel.GROOVE


# --- lengths, boards, slabs -----------------------------------------------------------------------


@pytest.mark.parametrize(
    ("text", "millimetres"),
    [("1 mm", 1), ("1 cm", 10), ("1 m", 1000), ("1 in", "25.4"), ("1 inch", "25.4"), ("2 inches", "50.8"),
     ('1"', "25.4"), ("1 ft", "304.8"), ("2 feet", "609.6"), ("1 foot", "304.8"), ("1'", "304.8")],
)  # fmt: skip
def test_every_unit_that_is_read_is_as_long_as_it_is(text, millimetres):
    assert read_length(text).mm == Fraction(millimetres)


def test_a_board_as_thick_as_a_part_is_rough_gives_it_and_a_hair_thinner_does_not():
    part = rough("part", 300, 80)
    assert can_supply(part, Board("1", "plank", "", mm(900), mm(160), mm(20)))
    thin = Board("1", "plank", "", mm(900), mm(160), mm("19.99"))
    assert not can_supply(part, thin) and refusal(part, thin) == TooThin(mm(20), "plank", mm("19.99"))


@pytest.mark.dear
@given(st.integers(0, 140))
def test_a_groove_that_shows_is_offered_the_nearest_place_inside_a_tail(low):
    layout = lay_out(DovetailFigures(mm(150), mm(15), mm(15), 3, mm(8), mm(6), Slope(Fraction(7))))
    wide = mm(6)
    found = runout.remarks(layout, mm(low), mm(low) + wide, mm(5), Marks())
    moves = [fix.height for remark in found for fix in remark.fixes]
    # Every place to half a millimetre at which the groove lies inside a tail at its base.
    halves = [mm(Fraction(n, 2)) for n in range(300)]
    places = [place for place in halves if any(lo <= place and place + wide <= hi for lo, hi in layout.bases)]
    if mm(low) in places:
        assert not moves
    else:
        nearest = min(abs(place.mm - low) for place in places)
        assert [abs(move.mm - low) for move in moves] == [nearest] and moves[0] in places


@pytest.mark.parametrize(("lean_along", "lean_across"), [(0.01, 0.0), (0.0, 0.02), (-0.004, 0.015)])
def test_the_lower_face_of_the_slab_lies_as_the_board_lies_and_inside_it(lean_along, lean_across):
    x, y = np.linspace(0, 900, 11), np.linspace(30, 210, 7)
    plane = lean_along * x[:, None] + lean_across * y[None, :]
    # Standing 40 above the datum, with a hump under its lower face: many tilts give the same thickness.
    bottom = 40 + plane + 1.5 * np.exp(-((x[:, None] - 450) ** 2) / 2e4) * np.ones((1, 7))
    top = 62 + plane
    slab = thickest_slab(Survey(x, y, top, bottom))
    assert slab.thickness == pytest.approx(20.5, abs=0.01)
    lower = slab.a * x[:, None] + slab.b * y[None, :] + slab.c
    assert (lower >= bottom - 1e-6).all() and (lower + slab.thickness <= top + 1e-6).all()
    assert (slab.a, slab.b) == pytest.approx((lean_along, lean_across), abs=1e-3)


def test_a_panel_drops_out_where_its_shallower_groove_holds_it_less_than_a_millimetre_and_a_half():
    def verdict(depth):
        box = Project(Piece("box", given=(("bottom.clearance", mm("0.5")), ("groove.depth", mm(depth)))))
        fit = season_of(work_out(box, milling=False, proving=False)).fit_of("bottom")
        return fit.hold, fit.verdict

    hold, _ = verdict("4")
    just = 4 - hold + 1.5
    assert verdict(str(round(just + 0.02, 3)))[1] is not Verdict.DROPS
    assert verdict(str(round(just - 0.02, 3)))[1] is Verdict.DROPS
