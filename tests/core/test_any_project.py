"""Whatever a user does, in whatever order, the plan can be worked out, shown, saved and taken back."""

from dataclasses import replace
from datetime import datetime, timedelta
from fractions import Fraction

import pytest
from hypothesis import HealthCheck
from hypothesis import strategies as st
from hypothesis.stateful import RuleBasedStateMachine, initialize, invariant, rule
from tests.examples import examples
from tests.same import untyped

from nullah.core import actions
from nullah.core.breakdown.layout import FirstCut, Placement
from nullah.core.breakdown.rough import Allowances
from nullah.core.forms import FORMS
from nullah.core.forms.own_boards import LIES, OwnBoard
from nullah.core.joints.dovetail.spacing import SPACINGS, graded
from nullah.core.joints.kinds import kinds_of
from nullah.core.ledger import QuantityKind
from nullah.core.lengths import LengthError, Marks, Slope, Unit, mm
from nullah.core.milling.adjust import usual_readings
from nullah.core.piece.contours import CONTOURS, shaping_of, usual
from nullah.core.plan import join_as_offered, work_out
from nullah.core.project import Project
from nullah.core.rack.board import Board, BoardError, Flaw, FlawKind, Rise
from nullah.core.rack.shape_readings import Calliper, Gap, Wind
from nullah.core.sheets.sheets import all_sheets
from nullah.core.shop import USUAL_PLANES
from nullah.core.stations import STATIONS
from nullah.core.stations.milling import VIEWS
from nullah.core.stations.selection import JointsSelection, MillingSelection, Selection
from nullah.core.wood.climate import PRESETS
from nullah.core.wood.finishes import FINISHES
from nullah.core.wording.facts import error_words
from nullah.core.wording.plan import state_words
from nullah.core.wording.task_titles import task_title
from nullah.core.work import recording
from nullah.core.work.cut_list import cut_list
from nullah.core.work.order_of_work import order_of_work
from nullah.demo.seed_box import seed_box
from nullah.files.project_file import parse_project, project_text
from nullah.instruments.shape_gauges import SimulatedGauges

lengths = st.fractions(min_value=-20, max_value=2000, max_denominator=64).map(mm)
places = st.tuples(st.floats(-5, 2500), st.floats(-5, 500))
positive = st.fractions(min_value=1, max_value=2500, max_denominator=64).map(mm)
quantities = st.sampled_from(
    [
        "box.outside_length",
        "box.outside_width",
        "box.outside_height",
        "box.inside_length",
        "contents.height",
        "sides.thickness",
        "ends.thickness",
        "bottom.thickness",
        "groove.height",
        "groove.depth",
        "bottom.clearance",
        "tails.half_pin",
        "tails.pin",
        "tails.proud",
        "opening.length",
        "bottom.width",
    ]
)
parts = st.sampled_from(["front", "back", "left", "right", "bottom", "lid"])


class AnyProject(RuleBasedStateMachine):
    """A project under any sequence of actions."""

    def __init__(self):
        super().__init__()
        self.project = Project()
        self.before: list[Project] = []

    def do(self, action):
        try:
            after = action(self.project)
        except (BoardError, LengthError) as error:
            assert error_words(error).endswith(".")
            return
        self.before.append(self.project)
        self.project = after

    @initialize(sample=st.booleans())
    def start(self, sample):
        self.project = seed_box() if sample else Project()

    @rule(name=quantities, value=lengths)
    def give(self, name, value):
        self.do(lambda p: actions.give(p, name, value))

    @rule(name=quantities, value=lengths | st.none())
    def measure(self, name, value):
        self.do(lambda p: actions.measure(p, name, value))

    @rule(name=quantities)
    def take_back(self, name):
        self.do(lambda p: actions.give(p, name, None))

    @rule(count=st.integers(0, 60), run=st.integers(2, 20))
    def corner(self, count, run):
        self.do(lambda p: actions.give(actions.give(p, "tails.count", count), "tails.slope", Slope(Fraction(run))))

    @rule(sizing=st.sampled_from(["outside", "inside", "contents"]), tails=st.sampled_from(["sides", "ends"]))
    def choose(self, sizing, tails):
        self.do(lambda p: actions.choose(actions.choose(p, "sizing", sizing), "tails_on", tails))

    @rule(form=st.sampled_from([form for form in FORMS if form != "box"]))
    def take_form(self, form):
        self.do(lambda p: actions.take_form(p, form))

    @rule(data=st.data())
    def choose_anything(self, data):
        choices = FORMS[self.project.piece.form].choices
        if choices:
            choice = data.draw(st.sampled_from(choices))
            option = data.draw(st.sampled_from([option for option, _ in choice.options[:4]]))
            self.do(lambda p: actions.choose(p, choice.name, option))

    @rule(data=st.data(), value=lengths, measured=st.booleans())
    def change_anything(self, data, value, measured):
        ledger = work_out(self.project, milling=False, proving=False).ledger
        if ledger is not None and ledger.quantities:
            name = data.draw(st.sampled_from(sorted(ledger.quantities)))
            if ledger.quantity(name).definition.kind is QuantityKind.LENGTH:
                self.do(lambda p: (actions.measure if measured else actions.give)(p, name, value))

    @rule(size=st.tuples(positive, positive, positive), at=st.tuples(lengths, lengths, lengths),
          lie=st.sampled_from(LIES))  # fmt: skip
    def add_own(self, size, at, lie):
        self.do(lambda p: actions.add_own(p, OwnBoard("", "own board", size, at, lie, "ft")))

    @rule(data=st.data(), index=st.integers(0, 3))
    def join(self, data, index):
        plan = work_out(self.project, milling=False, proving=False)
        own = [part.id for part in plan.parts if part.id.startswith("own")]
        if own and len(plan.parts) > 1:
            first = data.draw(st.sampled_from(own))
            second = data.draw(st.sampled_from([part.id for part in plan.parts if part.id != first]))
            self.do(lambda p: join_as_offered(p, first, second, index))

    @rule(data=st.data())
    def shape(self, data):
        plan = work_out(self.project, milling=False, proving=False)
        if self.project.piece.own:
            board = data.draw(st.sampled_from(self.project.piece.own))
            part, contour = plan.part(board.id), data.draw(st.sampled_from(list(CONTOURS.values())))
            if part is not None:
                place = data.draw(st.sampled_from(contour.places(part)))
                self.do(
                    lambda p: actions.change_own(
                        p, board._replace(shapings=(shaping_of(contour, part, place.sides, usual(contour, part)),))
                    )
                )

    @rule()
    def remove_own(self):
        if self.project.piece.own:
            self.do(lambda p: actions.remove_own(p, p.piece.own[0].id))

    @rule(role=st.sampled_from(["shown", "inside"]), wood=st.sampled_from(["", "teak", "white oak"]))
    def make_of(self, role, wood):
        self.do(lambda p: actions.make_of(p, role, wood))

    @rule(length=positive, width=positive, thickness=positive, twist=lengths, bow=lengths)
    def add_board(self, length, width, thickness, twist, bow):
        number = actions.next_board_id(self.project)
        board = Board(number, f"Board {number}", "black cherry", length, width, thickness, twist=twist, bow=bow)
        self.do(lambda p: actions.add_board(p, board))

    @rule(upper=st.booleans(), start=places, end=places, at=places, figure=lengths, what=st.integers(0, 2))
    def read_shape(self, upper, start, end, at, figure, what):
        if self.project.boards:
            board = self.project.boards[-1].id
            reading = (
                Gap(upper, start, end, at, figure),
                Wind(upper, start[0], end[0], mm(300), figure),
                Calliper(at, figure),
            )[what]
            self.do(lambda p: actions.take_shape(p, board, reading))

    @rule(count=st.integers(1, 28), seed=st.integers(0, 50))
    def survey(self, count, seed):
        if self.project.boards:
            board, gauges = self.project.boards[-1], SimulatedGauges(seed)
            readings = [gauges.read(board, reading) for reading in usual_readings(board)[:count]]
            self.do(lambda p: actions.take_shapes(p, board.id, readings))

    @rule(crosswise=st.booleans(), at=st.floats(-10, 2500), drop=st.booleans(), lows=lengths)
    def cut_through_first(self, crosswise, at, drop, lows):
        if self.project.boards:
            board = self.project.boards[-1].id
            cut = None if drop else FirstCut(board, crosswise, at)
            self.do(lambda p: actions.leave_lows(actions.cut_at(p, board, cut), lows))

    @rule(kept=st.sets(st.sampled_from(USUAL_PLANES)), rises=st.sampled_from(Rise))
    def planes_and_grain(self, kept, rises):
        shop = replace(self.project.shop, planes=tuple(kept))
        self.do(lambda p: replace(p, shop=shop))
        if self.project.boards:
            board = replace(self.project.boards[-1], rises=rises)
            self.do(lambda p: actions.change_board(p, board))

    @rule(kind=st.sampled_from(FlawKind), start=lengths, end=lengths, low=lengths, high=lengths)
    def add_flaw(self, kind, start, end, low, high):
        if self.project.boards:
            board = self.project.boards[-1].id
            self.do(lambda p: actions.add_flaw(p, board, Flaw(kind, start, end, low, high)))

    @rule()
    def remove_board(self):
        if self.project.boards:
            self.do(lambda p: actions.remove_board(p, p.boards[0].id))

    @rule(part=parts, x=st.floats(-50, 2000), y=st.floats(-50, 400))
    def lay(self, part, x, y):
        if self.project.boards:
            self.do(lambda p: actions.lay(p, Placement(part, p.boards[-1].id, x, y)))

    @rule(part=parts)
    def lift(self, part):
        self.do(lambda p: actions.lift(p, part))

    @rule(first=st.booleans())
    def cut_first(self, first):
        if self.project.boards:
            self.do(lambda p: actions.cut_first(p, p.boards[-1].id, first))

    @rule(end=positive, edge=positive, thickness=positive)
    def allow(self, end, edge, thickness):
        self.do(lambda p: replace(p, allowances=Allowances(end, edge, thickness)))

    @rule(spacing=st.sampled_from(SPACINGS), number=st.integers(1, 6))
    def space_tails(self, spacing, number):
        self.do(lambda p: actions.space_tails(p, "tails", graded(spacing, number)))

    @rule(climate=st.sampled_from(PRESETS), finish=st.sampled_from(sorted(FINISHES)))
    def live_elsewhere(self, climate, finish):
        self.do(lambda p: actions.finish_with(actions.live_in(p, climate), finish))

    @rule(number=st.integers(0, 30), minutes=st.none() | st.floats(0, 500), days=st.integers(-3, 3))
    def do_a_task(self, number, minutes, days):
        """Any task, ready or not, at whatever the clock says."""
        plan = work_out(self.project, milling=False, proving=False)
        tasks = order_of_work(plan).tasks
        if tasks:
            now, task = datetime(2026, 3, 4, 19) + timedelta(days=days), tasks[number % len(tasks)]
            self.do(lambda p: recording.finish(plan, task, task_title(task, plan.reader), now, minutes).project)

    @rule(part=parts, days=st.integers(-3, 3))
    def make_again(self, part, days):
        plan = work_out(self.project, milling=False, proving=False)
        self.do(
            lambda p: (
                recording.remake(plan, part, "spoilt", datetime(2026, 3, 4, 19) + timedelta(days=days), str).project
            )
        )

    @invariant()
    def the_order_of_work_is_sound(self):
        order = order_of_work(work_out(self.project, milling=False, proving=False))
        assert order.faults == ()

    @rule(unit=st.sampled_from(Unit))
    def show_in(self, unit):
        self.do(lambda p: actions.show_in(p, Marks(unit)))

    @rule()
    def undo(self):
        if self.before:
            self.project = self.before.pop()

    @invariant()
    def everything_can_be_shown(self):
        plan = work_out(self.project)
        for station in STATIONS:
            selection = Selection(part="front", quantity="sides.thickness")
            assert station.state(plan)
            assert station.draw(plan, selection).elements or station.invitation
            assert station.card(plan, selection).title
        for part in plan.parts:
            assert state_words(plan.state_of(part), plan.reader)
        assert len(cut_list(plan)) == len(plan.parts)
        assert {part for item in plan.unplaced for part in item.part.parts} <= {part.id for part in plan.parts}

    @invariant()
    def it_comes_back_from_its_file(self):
        again = parse_project(project_text(self.project), "x")
        assert untyped(again) == untyped(self.project)
        assert work_out(again, milling=False).unsettled() == work_out(self.project, milling=False).unsettled()

    def teardown(self):
        plan = work_out(self.project)
        milling = next(station for station in STATIONS if station.id == "milling")
        for view in VIEWS:
            for step in (0, 4, 99):
                selection = Selection(
                    milling=MillingSelection(view, (None, True, False)[step % 3], step=step),
                    joints=JointsSelection(step=step),
                )
                milling.draw(plan, selection)
                assert milling.card(plan, selection).title
        joints = next(station for station in STATIONS if station.id == "joints")
        for kind in kinds_of(plan.assembly):
            joints.draw(plan, Selection(joints=JointsSelection(kind.id)))
            assert joints.card(plan, Selection(joints=JointsSelection(kind.id))).title
        for sheet in all_sheets(work_out(self.project)):
            assert sheet.drawing.elements and sheet.name


AnyProject.TestCase.settings = examples(
    12, stateful_step_count=12, suppress_health_check=[HealthCheck.too_slow, HealthCheck.data_too_large]
)
TestAnyProject = pytest.mark.sampled(1)(AnyProject.TestCase)
