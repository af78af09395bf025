"""Room to move through the year on pieces of three boards, where a few lines of arithmetic say what must come out."""

import math
from fractions import Fraction

import pytest

from nullah.core.joints.butt import BUTT
from nullah.core.joints.let_in import LET_IN
from nullah.core.lengths import mm
from nullah.core.piece.faults import CrossGrain, NoRoom
from nullah.core.piece.form import Assembly, Bearing, Freedom, Mover
from nullah.core.piece.joint import Hold, Joint
from nullah.core.piece.part import Needs, Part
from nullah.core.piece.space import Axis, Box, Side
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project
from nullah.core.proof.finding import ProofInput
from nullah.core.proof.season import cross_grain, no_room, sagging
from nullah.core.rack.board import Board, Reading
from nullah.core.rack.drying import NEAR_ENOUGH, Room, curve, readiness
from nullah.core.season.fits import Verdict, fits_of
from nullah.core.season.strain import strains_of
from nullah.core.season.swelling import WoodMoisture, growth
from nullah.core.wood.climate import USUAL, climate_of, year_of
from nullah.core.wood.finishes import FINISHES, NO_FINISH
from nullah.core.wood.movement import GrainCut, coefficient
from nullah.core.wood.species import find_species
from nullah.core.wood.stiffness import passing_span, sag

CHERRY = find_species("black cherry")
#: Damp in August, dry in February.
YEAR = (7.0, 6.0, 7.0, 8.0, 9.0, 10.0, 11.0, 12.0, 11.0, 10.0, 9.0, 8.0)
STOCK = WoodMoisture(CHERRY, GrainCut.FLAT, 8.0, YEAR)
#: Wider by a point of moisture, share of its width.
BY_POINT = coefficient(CHERRY, GrainCut.FLAT)
_AXES = {"x": Axis.X, "y": Axis.Y, "z": Axis.Z}


def board(name, low, high, lie, **more):
    box = Box(tuple(map(Fraction, low)), tuple(map(Fraction, high)))
    return Part(name, 1, name, box, _AXES[lie[0]], _AXES[lie[1]], Needs.CLEAR, ("", "", ""), name, **more)


def grown(width):
    """Return how much so much cherry is wider in each month, mm."""
    return [width * BY_POINT * (moisture - 8) for moisture in YEAR]


@pytest.fixture(scope="module")
def ledger():
    return work_out(Project(Piece("box")), milling=False, proving=False).ledger


# --- panels ----------------------------------------------------------------------------------------------

#: A panel of two boards, grain along z, in two stiles whose grain runs along z too: 10 mm deep in each.
STILES = board("low", (0, 0, 0), (50, 20, 600), "zy"), board("high", (440, 0, 0), (490, 20, 600), "zy")
PANELS = board("one", (42, 6, 0), (244, 14, 600), "zy"), board("two", (246, 6, 0), (448, 14, 600), "zy")


def test_a_board_is_as_thick_as_planned_in_the_month_it_is_as_damp_as_now():
    (low, _), thick = STILES, grown_in_thickness(20)
    assert growth(low, STOCK, Axis.Y) == pytest.approx(thick)
    assert [month for month, each in zip(YEAR, growth(low, STOCK, Axis.Y), strict=True) if abs(each) < 1e-9] == [8, 8]


def grown_in_thickness(thick):
    """Return how much flat-sawn cherry is thicker in each month, mm: its rings lie along its face."""
    return [thick * coefficient(CHERRY, GrainCut.QUARTER) * (moisture - 8) for moisture in YEAR]


def panel(room, hold=Hold.DRY, quantity="", depth=10, hosts=STILES, panels=PANELS):
    low = Box((Fraction(50 - depth), Fraction(6), Fraction(0)), (Fraction(50), Fraction(14), Fraction(600)))
    high = Box((Fraction(440), Fraction(6), Fraction(0)), (Fraction(440 + depth), Fraction(14), Fraction(600)))
    joints = (
        Joint("a", LET_IN, "low", panels[0].id, hold, channels=(low,)),
        Joint("b", LET_IN, "high", panels[-1].id, hold, channels=(high,)),
    )
    freedom = Freedom(tuple(part.id for part in panels), Fraction(room), quantity)
    return Assembly(parts=(*hosts, *panels), joints=joints, freedoms=(freedom,))


def fit_of(assembly, ledger, stocks=None):
    stocks = {part.id: STOCK for part in assembly.parts} if stocks is None else stocks
    (fit,) = fits_of(assembly, ledger, stocks)
    return fit


def test_a_panel_has_the_room_it_was_given_less_what_all_its_boards_grow(ledger):
    fit = fit_of(panel(6), ledger)
    change = grown(404)
    assert fit.rooms == pytest.approx([6 - each for each in change])
    assert fit.wanted == pytest.approx(max(change) + 0.3)
    assert (fit.size, fit.room, fit.verdict) == (404, 6, Verdict.FITS)
    # Narrowest, its boards leave their room in three gaps: one in each groove, and one between.
    assert fit.hold == pytest.approx(10 - (6 - min(change)) / 3)
    assert (fit.tightest, fit.loosest) == (7, 1)


def test_the_figure_that_sets_the_room_is_offered_in_the_share_that_is_wanted(ledger):
    name = next(name for name in ledger.quantities if ledger[name] > 0)
    fit = fit_of(panel(6, quantity=name), ledger)
    assert float(fit.value) == pytest.approx(float(ledger[name]) * fit.wanted / 6, rel=1e-3)
    assert fit_of(panel(0, quantity=name), ledger).value is None and fit_of(panel(6), ledger).value is None


@pytest.mark.parametrize(
    ("left", "verdict"), [(-0.01, Verdict.BINDS), (0.01, Verdict.TIGHT), (0.24, Verdict.TIGHT), (0.26, Verdict.FITS)]
)
def test_what_is_left_in_the_dampest_month_says_how_it_stands(ledger, left, verdict):
    assert fit_of(panel(Fraction(str(round(max(grown(404)) + left, 6)))), ledger).verdict is verdict


@pytest.mark.parametrize(("over", "verdict"), [(5.99, Verdict.FITS), (6.01, Verdict.RATTLES)])
def test_more_than_three_millimetres_for_each_board_rattle_but_not_what_is_held(ledger, over, verdict):
    room = Fraction(str(round(max(grown(404)) + 0.3 + over, 6)))
    assert fit_of(panel(room), ledger).verdict is verdict
    assert fit_of(panel(room, hold=Hold.SLOTS), ledger).verdict is Verdict.FITS


@pytest.mark.parametrize(("held", "verdict"), [(1.49, Verdict.DROPS), (1.51, Verdict.FITS)])
def test_a_panel_held_by_less_than_a_millimetre_and_a_half_drops_out(ledger, held, verdict):
    room = Fraction(str(round(3 * (10 - held) + min(grown(404)), 6)))
    found = fit_of(panel(room, hold=Hold.SLOTS), ledger)
    assert (found.verdict, found.hold) == (verdict, pytest.approx(held, abs=1e-5))


def test_only_a_groove_that_takes_less_than_half_a_board_holds_it(ledger):
    # A channel as wide as the board is none that it stands in with an edge.
    whole = panel(6)
    through = Box((Fraction(42), Fraction(6), Fraction(0)), (Fraction(244), Fraction(14), Fraction(600)))
    host = board("low", (0, 0, 0), (300, 20, 600), "zy")
    joints = (whole.joints[0]._replace(channels=(through,)), whole.joints[1])
    found = fit_of(whole._replace(parts=(host, *whole.parts[1:]), joints=joints), ledger)
    assert found.hold == pytest.approx(10 - max(found.rooms) / 3), "of the other groove alone"


def test_a_host_that_grows_along_with_a_panel_leaves_it_its_room(ledger):
    # Sides whose grain runs along y: across the panel they are as wide as it, and grow as it does.
    wide = board("low", (42, 0, -20), (448, 20, 10), "yz"), board("high", (42, 0, 590), (448, 20, 620), "yz")
    fit = fit_of(panel(6, hosts=wide), ledger)
    assert fit.rooms == pytest.approx([6.0] * 12)
    # One that is narrower than nine tenths of it carries nothing along.
    for narrower, grows in ((363.7, True), (363.5, False)):
        hosts = tuple(board(each.id, (42, 0, 0), (42 + narrower, 20, 30), "yz") for each in wide)
        rooms = fit_of(panel(6, hosts=hosts), ledger).rooms
        assert (rooms == pytest.approx([6.0] * 12)) is grows
    # Nor one whose grain runs along it, whatever else does.
    mixed = (wide[0], board("high", (42, 0, 590), (448, 20, 620), "xz"))
    assert fit_of(panel(6, hosts=mixed), ledger).rooms[7] == pytest.approx(6 - grown(404)[7])


def test_room_without_end_is_none_and_wood_that_is_not_known_is_left_out(ledger):
    assert len(fits_of(panel(99_999), ledger, {part.id: STOCK for part in STILES + PANELS})) == 1
    assert fits_of(panel(100_000), ledger, {part.id: STOCK for part in STILES + PANELS}) == ()
    assert fits_of(panel(6), ledger, {"low": STOCK, "one": STOCK}) == ()


# --- drawers ---------------------------------------------------------------------------------------------


def drawer(gap, sides="xy"):
    """A front 120 mm high between two rails, `gap` mm above it; sides carry the rails."""
    rails = board("under", (0, 0, 0), (300, 40, 20), "xz"), board("over", (0, 0, 140 + gap), (300, 40, 160 + gap), "xz")
    carrier = board("side", (-20, 0, 0), (0, 40, 400), sides)
    front = board("front", (2, 0, 20), (298, 20, 140), "xy", group="drawer")
    joints = tuple(Joint(rail.id, LET_IN, "side", rail.id) for rail in rails)
    mover = Mover("drawer", "drawer", Side.FRONT, Fraction(400))
    return Assembly(parts=(*rails, carrier, front), joints=joints, movers=(mover,))


def test_a_drawer_has_the_room_of_its_opening_less_what_its_front_grows(ledger):
    (fit,) = [
        each for each in fits_of(drawer(3, "zy"), ledger, {"front": STOCK, "side": STOCK}) if each.mover[1] is Axis.Z
    ]
    change = grown(120)
    assert fit.rooms == pytest.approx([3 - each for each in change])
    assert (fit.room, fit.size, fit.parts) == (3, 120, ("front",))
    assert fit.wanted == pytest.approx(max(change) + 0.3) and fit.value is None


def test_an_opening_in_sides_that_lie_across_grows_with_them(ledger):
    (fit,) = [
        each for each in fits_of(drawer(3, "yx"), ledger, {"front": STOCK, "side": STOCK}) if each.mover[1] is Axis.Z
    ]
    # The opening is 123 mm of the sides' width; the front has 120 of its own.
    assert fit.rooms == pytest.approx([3 - a + b for a, b in zip(grown(120), grown(123), strict=True)])


@pytest.mark.parametrize(("high", "counts"), [(108, True), (107, False)])
def test_what_is_nine_tenths_as_high_as_the_whole_decides(ledger, high, counts):
    made = drawer(3, "zy")
    tall = board("tall", (10, 20, 20), (290, 40, 20 + high), "xy", group="drawer")
    knob = board("knob", (140, -20, 20), (160, 0, 140), "zy", group="drawer")  # grain up: it does not grow
    parts = tuple(part for part in made.parts if part.id != "front")
    (fit,) = [
        each for each in fits_of(made._replace(parts=(*parts, tall, knob)), ledger, {"tall": STOCK, "knob": STOCK})
        if each.mover[1] is Axis.Z
    ]  # fmt: skip
    assert fit.parts == (("tall", "knob") if counts else ("knob",))
    assert fit.rooms[7] == pytest.approx(3 - (grown(high)[7] if counts else 0))


# --- held across the grain -------------------------------------------------------------------------------


def batten(width, hold=Hold.GLUE, glued=None):
    panel_ = board("panel", (0, 0, 0), (400, width, 20), "xz")
    across = board("batten", (180, 0, 20), (220, width, 40), "yz")
    return Assembly(parts=(panel_, across), joints=(Joint("j", BUTT, "panel", "batten", hold, glued=glued),))


def test_a_batten_holds_a_panel_over_its_width():
    (strain,) = strains_of(batten(300), {"panel": STOCK, "batten": STOCK})
    assert (strain.moving.id, strain.held, strain.month) == ("panel", 300, 7)
    assert strain.moves == pytest.approx(grown(300)[7]) and strain.percent == pytest.approx(grown(300)[7] / 3)
    (part,) = strains_of(batten(300, glued=Fraction(80)), {"panel": STOCK, "batten": STOCK})
    assert (part.held, part.cracks) == (80, False)
    # Where the panel's wood is not known, there is still the batten's own width along the panel.
    (other,) = strains_of(batten(300), {"batten": STOCK})
    assert (other.moving.id, other.still.id, other.held) == ("batten", "panel", 40)


@pytest.mark.parametrize(("wide", "cracks"), [(100, False), (101, True)])
def test_more_than_a_hundred_millimetres_held_fast_crack(wide, cracks):
    (strain,) = strains_of(batten(wide), {"panel": STOCK, "batten": STOCK})
    assert strain.cracks is cracks
    (screwed,) = strains_of(batten(wide, Hold.DRY), {"panel": STOCK, "batten": STOCK})
    assert not screwed.cracks


def case_of(assembly, ledger, **more):
    woods = {part.id: STOCK for part in assembly.parts}
    plan = work_out(Project(Piece("box")), milling=False, proving=False)
    return ProofInput(assembly, ledger, plan.project.shop, plan.marks, woods)


@pytest.mark.parametrize(("wide", "told"), [(100, False), (101, True)])
def test_the_proof_says_so_too_and_shows_where_they_touch(ledger, wide, told):
    made = batten(wide)
    found = list(cross_grain(case_of(made, ledger), made.joints[0]))
    assert bool(found) is told
    if told:
        fact = found[0].remark.fact
        assert isinstance(fact, CrossGrain) and fact.moving == "panel"
        assert float(fact.change) == pytest.approx(wide * BY_POINT * (max(STOCK.year) - min(STOCK.year)), abs=1e-3)
        # A face that two boards share is flat: drawn a millimetre into both.
        assert found[0].place == Box(
            (Fraction(180), Fraction(0), Fraction(19)), (Fraction(220), Fraction(wide), Fraction(21))
        )


def test_a_shelf_without_a_load_is_not_looked_at(ledger):
    shelf = board("shelf", (0, 0, 0), (3000, 200, 10), "xz")
    case = case_of(Assembly(parts=(shelf,)), ledger)
    assert list(sagging(case, Bearing("shelf", Fraction(3000), 0))) == []
    (found,) = sagging(case, Bearing("shelf", Fraction(3000), 1))
    assert found.remark.fact.span == mm(3000)


# --- wet and dry -----------------------------------------------------------------------------------------


def test_a_drying_board_keeps_one_part_in_e_of_its_difference_after_each_time_constant():
    damp = Board("1", "a", "", mm(1000), mm(150), mm(25), readings=(Reading("2026-03-01", Fraction(14)),))
    found = readiness(damp, Room(reference=(Reading("2026-03-01", Fraction(9)),)))
    days = [0.0, found.time_constant, 2 * found.time_constant]
    assert curve(found, days) == pytest.approx([found.start, found.start / math.e, found.start / math.e**2])


def test_air_in_fahrenheit_or_celsius_is_the_same_air():
    assert climate_of("x", [(20, 50)] * 12).moisture == pytest.approx([9.2] * 12, abs=0.3)
    assert growth(PANELS[0], STOCK, Axis.Z) == (0.0,) * 12


@pytest.mark.parametrize("days", [0.5, 1.0])
def test_wood_without_a_day_of_delay_is_as_its_air_and_with_any_it_is_not(days):
    assert year_of(USUAL, 0.0) == USUAL.moisture
    assert year_of(USUAL, days) != USUAL.moisture


def test_bare_wood_follows_its_room_at_its_own_pace_and_finished_wood_more_slowly():
    bare = FINISHES[NO_FINISH]
    assert (bare.slows, bare.coats) == (1.0, 0)
    assert all(each.slows > 1 and each.coats > 0 for name, each in FINISHES.items() if name != NO_FINISH)


def test_how_far_a_shelf_sags_is_told_to_a_tenth_and_where_it_would_not_to_a_millimetre(ledger):
    shelf = board("shelf", (0, 0, 0), (1200, 200, 15), "xz")
    (found,) = sagging(case_of(Assembly(parts=(shelf,)), ledger), Bearing("shelf", Fraction(1200), 20))
    fact = found.remark.fact
    assert float(fact.drop) == pytest.approx(sag(1200, 20, 200, 15, CHERRY), abs=0.0501)
    assert float(fact.passing) == int(passing_span(20 / 1200, 200, 15, CHERRY))


@pytest.mark.parametrize("room", ["1", "0.7"])
def test_what_has_no_room_is_told_to_a_tenth(ledger, room):
    made = panel(Fraction(room))
    (found,) = no_room(case_of(made, ledger))
    fact = found.remark.fact
    assert isinstance(fact, NoRoom) and fact.room == mm(room)
    assert float(fact.change) == pytest.approx(max(grown(404)), abs=0.0501)


@pytest.mark.parametrize("off", [0, 1])
def test_a_board_is_dry_when_it_is_as_near_as_counts(off):
    near = Fraction(str(NEAR_ENOUGH)) + Fraction(off, 1000)
    damp = Board("1", "a", "", mm(1000), mm(150), mm(25), readings=(Reading("2026-03-01", 9 + near),))
    assert readiness(damp, Room(reference=(Reading("2026-03-01", Fraction(9)),))).ready is not bool(off)
