"""Small figures said outright: what a changed sign, limit or constant would alter."""

from dataclasses import replace
from datetime import datetime
from fractions import Fraction

import numpy as np
import pytest

from nullah.core.bench.hours import Hours, plan_days, write_hours
from nullah.core.bench.tasks import Task, in_order
from nullah.core.bench.trades import Trade
from nullah.core.breakdown.cuts import portions
from nullah.core.breakdown.layout import Rect
from nullah.core.card import Severity
from nullah.core.joints import fasteners
from nullah.core.joints.dovetail.layout import DovetailFigures, lay_out, most_tails, remarks
from nullah.core.joints.dovetail.runout import Meets, run_out
from nullah.core.joints.dovetail.tail_edges import tail_edges
from nullah.core.joints.fasteners import metric_sizes
from nullah.core.joints.let_in import LET_IN
from nullah.core.ledger import Definition, Origin, Quantity
from nullah.core.lengths import Direction, Length, LengthError, LengthFault, Marks, Slope, Unit, inch, mm, read_length
from nullah.core.lengths.exact import from_float, plain
from nullah.core.milling.decide import BoardFace, Corner, twist_of
from nullah.core.milling.edge_facts import EdgeError, TaperTooDeep
from nullah.core.milling.survey import Survey
from nullah.core.milling.tapers import taper_plan
from nullah.core.piece.faults import Channel, ThinBetween
from nullah.core.piece.form import Assembly
from nullah.core.piece.joint import Joint
from nullah.core.piece.overlap import channel_of, contact
from nullah.core.piece.part import Needs, Part
from nullah.core.piece.space import Axis, Box
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project
from nullah.core.proof.finding import ProofInput
from nullah.core.proof.walls import thin_walls
from nullah.core.rack.board import Board
from nullah.core.rack.outline import missing
from nullah.core.season.fits import Fit, Verdict
from nullah.core.shop import Shop
from nullah.core.work.seasons import season_of
from nullah.demo.seed_cabinet import seed_cabinet


def test_lengths_compare_as_numbers_do():
    one, same, more = mm(3), mm("3.0"), mm("3.001")
    assert one <= same and one >= same and not one < same and not one > same
    assert one <= more and more >= one and one < more and more > one
    assert not more <= one and not one >= more


def test_a_box_is_moved_along_each_axis_by_itself():
    box = Box((Fraction(1), Fraction(2), Fraction(3)), (Fraction(5), Fraction(7), Fraction(11)))
    assert box.moved((Fraction(10), Fraction(20), Fraction(40))) == Box((11, 22, 43), (15, 27, 51))


def test_the_usual_week_is_four_evenings_and_two_mornings():
    assert [write_hours(span) for span in Hours().week] == ["18:30-21:00"] * 4 + [""] + ["9:00-13:00"] * 2
    assert Hours().minutes_a_week == 4 * 150 + 2 * 240


def test_a_channel_as_long_as_it_is_wide_is_a_groove():
    board = Box((Fraction(0),) * 3, (Fraction(300), Fraction(100), Fraction(20)))
    part = Part("p", 1, "p", board, Axis.X, Axis.Z, Needs.ANY, ("", "", ""), "p")
    square = Box((Fraction(50), Fraction(30), Fraction(14)), (Fraction(62), Fraction(42), Fraction(20)))
    assert channel_of(part, square) is Channel.GROOVE
    assert channel_of(part, square.set(Axis.X, Fraction(50), Fraction(61))) is Channel.DADO


def test_unequal_tails_share_what_is_between_the_pins():
    edges = tail_edges(Fraction(100), 2, Fraction(10), Fraction(8), (Fraction(1), Fraction(3)))
    assert edges == ((10, 28), (36, 90))


def test_what_a_groove_meets_at_a_corner_and_where_it_shows():
    layout = lay_out(DovetailFigures(mm(150), mm(16), mm(16), 2, mm(10), mm(6), Slope(Fraction(7))))
    (low, high), _ = layout.bases
    inside = run_out(layout, low, high)
    assert inside == (Meets.TAIL, True, False, 1)
    # At either wall just outside the tail's narrow side it cuts the slope; beside every tail it meets a pin.
    assert run_out(layout, low - mm("0.01"), high) == (Meets.BOTH, True, True, None)
    assert run_out(layout, low, high + mm("0.01")) == (Meets.BOTH, True, True, None)
    assert run_out(layout, mm(1), layout.marks[0]) == (Meets.PIN, False, True, None)


def test_a_cut_leaves_what_lies_before_it_and_beyond_its_kerf():
    board = Rect(100, 20, 1000, 200)
    assert portions(board, True, 400, 3) == (Rect(100, 20, 300, 200), Rect(403, 20, 697, 200))
    assert portions(board, False, 90, 3) == (Rect(100, 20, 1000, 70), Rect(100, 93, 1000, 127))


@pytest.mark.parametrize(
    ("across", "found"),
    [
        ([0, 0, 0, 1, 2], (2, 500, 900, (Corner(upper=True, right=True),))),
        ([0, 1, 2, 2, 2], (2, 100, 500, (Corner(upper=False, right=False),))),
        ([1, 1, 2, 2, 2], (1, 300, 500, (Corner(upper=False, right=False), Corner(upper=True, right=True)))),
        ([2, 1, 0, 0, 0], (-2, 100, 500, (Corner(upper=True, right=False),))),
    ],
)
def test_a_twist_is_where_it_happens_and_at_the_corner_that_is_high(across, found):
    x, y = np.array([100.0, 300, 500, 700, 900]), np.array([0.0, 50, 100])
    top = 25 + np.outer(np.array(across, dtype=float), (y - 50) / 100)
    twist = twist_of(Survey(x, y, top, np.zeros_like(top)), BoardFace.UPPER)
    assert (round(twist.wind, 6), twist.start, twist.end, twist.high) == found


def test_a_face_true_within_the_limit_does_not_wind():
    x, y = np.array([0.0, 500, 1000]), np.array([0.0, 100])
    for across, winds in ((0.29, False), (0.31, True)):
        top = 25 + np.outer(np.array([0.0, 0.0, across]), (y - 50) / 100)
        assert (twist_of(Survey(x, y, top, np.zeros_like(top)), BoardFace.UPPER) is not None) is winds


def test_a_drawer_has_the_room_that_was_planned_round_its_front():
    plan = work_out(seed_cabinet(), milling=False, proving=False)
    reveal = float(plan.ledger["drawer.reveal"])
    rooms = [fit.room for fit in season_of(plan).fits if fit.mover is not None and fit.mover[0].startswith("drawer")]
    assert rooms and rooms == pytest.approx([2 * reveal] * len(rooms))


def test_the_tightest_and_the_loosest_month_of_a_fit():
    rooms = (3.0, 2.0, 1.0, 0.5, 1.0, 2.0, 3.0, 4.0, 5.0, 6.0, 5.0, 4.0)
    fit = Fit(None, ("p",), 300.0, 3.0, rooms, 1.0, "", None, Verdict.FITS)
    assert (fit.tightest, fit.loosest) == (3, 9)


def days(tasks, minutes, spans):
    week = tuple(spans.get(day) for day in range(7))
    return plan_days(in_order(tasks), minutes, Hours(week), datetime(2026, 3, 2, 9))  # a Monday


def test_what_has_the_longest_way_behind_it_is_done_first():
    tasks = [
        Task("b", "b", Trade.JOINT, ()), Task("b1", "b1", Trade.JOINT, (), ("b",)),
        Task("a", "a", Trade.JOINT, ()), Task("a1", "a1", Trade.JOINT, (), ("a",)),
        Task("a2", "a2", Trade.JOINT, (), ("a",)),
    ]  # fmt: skip
    minutes = {"a": 10, "a1": 10, "a2": 400, "b": 10, "b1": 200}
    calendar = days(tasks, minutes, dict.fromkeys(range(7), (540, 1020)))
    assert calendar.stints[0].task.id == "a"


def test_what_must_not_be_left_half_done_waits_for_a_session_that_is_long_enough():
    whole = [Task("g", "glue", Trade.GLUE, (), whole=True)]
    monday_and_tuesday = {0: (540, 600), 1: (540, 660)}
    (stint,) = days(whole, {"g": 100}, monday_and_tuesday).stints
    assert stint.begin == datetime(2026, 3, 3, 9)
    # Just as long as the session is long enough.
    (stint,) = days(whole, {"g": 60}, {0: (540, 600)}).stints
    assert (stint.begin, stint.end) == (datetime(2026, 3, 2, 9), datetime(2026, 3, 2, 10))


def test_of_two_waits_the_shorter_is_over_first():
    tasks = [
        Task("long", "a", Trade.FINISH, (), waits=30), Task("short", "b", Trade.GLUE, (), waits=2),
        Task("after long", "c", Trade.JOINT, (), ("long",)), Task("after short", "d", Trade.JOINT, (), ("short",)),
    ]  # fmt: skip
    minutes = {"long": 0, "short": 0, "after long": 10, "after short": 10}
    stints = days(tasks, minutes, dict.fromkeys(range(7), (540, 1020))).stints
    assert [(each.task.id, each.begin) for each in stints] == [
        ("after short", datetime(2026, 3, 2, 11)), ("after long", datetime(2026, 3, 3, 15)),
    ]  # fmt: skip


def test_what_is_typed_is_edited_in_its_own_unit_and_drawn_without_the_one_shown():
    definition = Definition("a.width", "width")
    typed = Quantity(definition, Fraction(12), Origin.GIVEN, read_length("12 mm"))
    assert typed.write_to_edit(Marks()) == "12 mm" and typed.write_to_edit(Marks(), unit=False) == "12"
    abroad = Quantity(definition, inch("1/2").mm, Origin.GIVEN, read_length("1/2 in"))
    assert "1/2" in abroad.write_to_edit(Marks(), unit=False)


@pytest.mark.parametrize(
    ("off", "flat"), [((100, 0, 0), Axis.X), ((100, 40, 0), None), ((101, 0, 0), None), ((99, 0, 0), "")]
)
def test_boards_touch_on_a_face_and_not_only_at_an_edge(off, flat):
    def at(x, y, z):
        box = Box((Fraction(x), Fraction(y), Fraction(z)), (Fraction(x + 100), Fraction(y + 40), Fraction(z + 20)))
        return Part("a", 1, "a", box, Axis.X, Axis.Z, Needs.CLEAR, ("", "", ""), "a")

    found = contact(at(0, 0, 0), at(*off))
    assert (found is None) is (flat is None)
    assert found is None or [axis for axis in Axis if found.size(axis) == 0] == ([flat] if flat else [])


# --- lengths and rules -----------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("value", "text"),
    [("0.05", "0.05"), ("-0.05", "-0.05"), ("12.5", "12.5"), ("1/3", "1/3"), ("-7/3", "-2 1/3"), ("40", "40")],
)
def test_figures_are_written_exactly(value, text):
    assert plain(Fraction(value)) == text
    assert plain(Fraction("5/2"), prefer_fraction=True) == "2 1/2"


def test_places_are_kept_to_the_micrometre():
    assert from_float(1.23456).mm == Fraction(1235, 1000) and from_float(-0.0004).mm == 0


@pytest.mark.parametrize(("metres", "fits"), [(50, True), (51, False)])
def test_nothing_is_longer_than_a_fifty_metres(metres, fits):
    if fits:
        assert read_length(f"{metres} m").mm == metres * 1000
    else:
        with pytest.raises(LengthError) as refused:
            read_length(f"{metres} m")
        assert refused.value.fact.fault is LengthFault.TOO_LONG


def test_settings_go_to_a_tenth_and_say_what_is_full_or_bare():
    assert Marks().write_setting(mm("6.32")) == "6.3 mm" and Marks(Unit.INCH).write_setting(mm("6.35")) == "1/4″"
    # A twentieth counts, a hair less does not.
    assert Marks().off_true(mm("6.05"), Direction.DOWN) == "0.1 mm bare"
    assert Marks().off_true(mm("6.049"), Direction.DOWN) == ""


# --- crooked boards, tapers ------------------------------------------------------------------------------


def test_only_where_an_edge_runs_in_is_wood_missing():
    points = ((mm(0), mm(0)), (mm(400), mm(0)), (mm(1000), mm(30)))
    low = Board("1", "one", "", mm(1000), mm(200), mm(25), low_edge=points)
    found = missing(low)
    assert min(start for start, *_ in found) == 400 and all(bottom == 0 for _, bottom, *_ in found)
    # A step covers little of the edge, or much sound wood would be lost.
    assert max(end - start for start, _, end, _ in found) <= 60
    assert [round(top, 3) for *_, top in found] == [round((end - 400) / 600 * 30, 3) for _, _, end, _ in found]
    high = replace(low, low_edge=(), high_edge=tuple((x, mm(200) - y) for x, y in points))
    assert [(start, round(200 - bottom, 3), end) for start, bottom, end, _ in missing(high)] == [
        (start, round(top, 3), end) for start, _, end, top in found
    ]


@pytest.mark.parametrize(("faces", "most"), [("AC", 19), ("AB", 38), ("ABD", 19)])
def test_a_taper_leaves_something_at_the_toe(faces, most):
    assert min(taper_plan(720, 38, 120, most - 0.01, faces, 0.5).toe) == pytest.approx(0.01 * (2 if most == 19 else 1))
    with pytest.raises(EdgeError) as refused:
        taper_plan(720, 38, 120, most, faces, 0.5)
    assert refused.value.fact == TaperTooDeep(most)


# --- walls and corners -----------------------------------------------------------------------------------


def findings_of_channels(one, two, host_size=(18, 200, 400)):
    """Let two boards into a third and return what the proof finds of the wood between."""
    box = Box((Fraction(0),) * 3, tuple(map(Fraction, host_size)))
    host = Part("host", 1, "host", box, Axis.Z, Axis.X, Needs.ANY, ("", "", ""), "host")
    guests, joints = [], []
    for name, (low, high) in (("a", one), ("b", two)):
        channel = Box(tuple(map(Fraction, low)), tuple(map(Fraction, high)))
        guests.append(host._replace(id=name, name=name, alike=name, box=channel, grain=Axis.X, face=Axis.Z))
        joints.append(Joint(name, LET_IN, "host", name, channels=(channel,)))
    plan = work_out(Project(Piece("box")), milling=False, proving=False)
    case = ProofInput(Assembly((host, *guests), tuple(joints)), plan.ledger, plan.project.shop, plan.marks, {})
    return list(thin_walls(case, host))


def channels(one, two, host_size=(18, 200, 400)):
    """Return the facts of it."""
    return [finding.remark.fact for finding in findings_of_channels(one, two, host_size)]


def between(facts):
    return [fact for fact in facts if isinstance(fact, ThinBetween)]


@pytest.mark.parametrize(("depth", "thin"), [(6, False), (Fraction(61, 10), True)])
def test_a_third_stays_between_channels_in_both_faces(depth, thin):
    one = (0, 0, 100), (6, 200, 116)
    found = between(channels(one, ((18 - depth, 0, 108), (18, 200, 124))))
    assert bool(found) is thin and (not thin or found[0].left == Length(Fraction(59, 10)))
    # Beside each other, edge to edge, they face nothing.
    assert between(channels(one, ((18 - depth, 0, 116), (18, 200, 132)))) == []
    assert between(channels(((0, 0, 100), (6, 90, 116)), ((18 - depth, 90, 100), (18, 200, 116)))) == []


@pytest.mark.parametrize(("width", "tails", "most"), [(145, 9, 8), (144, 9, 7)])
def test_as_many_tails_fit_as_keep_a_base_as_wide_as_the_pin(width, tails, most):
    # Each takes its base, 6, what it narrows by, 30/7, and a pin, 6: the ends are a pin short of it.
    spec = DovetailFigures(mm(width), mm(15), mm(15), tails, mm(10), mm(6), Slope(Fraction(7)))
    assert most_tails(spec) == int((width - 20 + 6) / (6 + Fraction(30, 7) + 6)) == most


@pytest.mark.parametrize(
    ("change", "fact"),
    [
        ({"half_pin": mm(5)}, None), ({"half_pin": mm("4.9")}, "HalfPinWeak"), ({"slope": Slope(Fraction(5))}, None),
        ({"slope": Slope(Fraction("4.9"))}, "SlopeCrumbles"), ({"slope": Slope(Fraction(10))}, None),
        ({"slope": Slope(Fraction("10.1"))}, "SlopeSlips"), ({"proud": mm(0)}, None),
        ({"proud": mm("-0.1")}, "BaselineInside"),
    ],
)  # fmt: skip
def test_what_makes_a_corner_hard_begins_where_it_is_said_to(change, fact):
    spec = DovetailFigures(mm(150), mm(15), mm(15), 3, mm(8), mm(8), Slope(Fraction(7)))
    spec = replace(spec, **change)
    found = {type(remark.fact).__name__ for remark in remarks(lay_out(spec), Shop())}
    assert found & {"HalfPinWeak", "SlopeCrumbles", "SlopeSlips", "BaselineInside"} == ({fact} if fact else set())


@pytest.mark.parametrize(("gap", "weight"), [(1, Severity.WARNING), (0, Severity.FAILURE)])
def test_channels_that_meet_through_a_board_are_more_than_thin(gap, weight):
    one, other = ((0, 0, 100), (9, 200, 116)), ((9 + gap, 0, 100), (18, 200, 116))
    found = [each for each in findings_of_channels(one, other) if isinstance(each.remark.fact, ThinBetween)]
    assert [each.remark.weight for each in found] == [weight]


@pytest.mark.parametrize("text", ["5' 3", "5 ft 3"])
def test_what_follows_feet_without_a_unit_is_inches_whatever_is_shown(text):
    assert read_length(text, Unit.MM).mm == read_length(text, Unit.INCH).mm == inch(63).mm


def test_screws_are_as_thick_for_their_length_as_is_usual():
    # A ninth of their length, as they are sold: 2.5 to 5 mm.
    for long, thick in ((16, "2.5"), (30, "3.5"), (36, "4"), (50, "5")):
        assert fasteners.size_sold(metric_sizes(), True, mm(long), None).thick.mm == mm(thick).mm


def test_the_first_nail_stands_ten_thicknesses_from_the_end_but_no_more_than_a_third_of_the_row():
    assert fasteners._places(200.0, 3.0)[0] == pytest.approx(30)
    assert fasteners._places(63.0, 3.0) == pytest.approx((21, 42))
    assert fasteners._places(60.0, 3.0) == (30.0,)


def test_where_every_screw_is_too_long_the_shortest_is_taken():
    assert fasteners._sold(metric_sizes(), True, 20.0, 1.0).long.mm == 10
    assert fasteners._sold(metric_sizes(), True, 20.0, 21.0).long.mm == 20


@pytest.mark.parametrize(("screws", "share"), [(True, fasteners.SCREW_FROM_END), (False, fasteners.NAIL_FROM_END)])
def test_how_near_an_end_it_may_stand_goes_with_its_thickness(screws, share):
    thin, thick = (
        fasteners.Fastening(screws, fasteners.SoldSize(mm(each), mm(30)), 1.0, (), 10.0, 100.0) for each in (2, 4)
    )
    assert thin.from_end_least == 2 * share and thick.from_end_least == 4 * share
