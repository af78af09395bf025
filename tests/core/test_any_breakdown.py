"""Whatever is done at the rack and the breakdown, in whatever order: it can be shown, saved, searched, undone."""

from datetime import date
from fractions import Fraction

import pytest
from hypothesis import HealthCheck
from hypothesis import strategies as st
from hypothesis.stateful import RuleBasedStateMachine, initialize, invariant, rule
from tests.examples import examples
from tests.same import untyped

from nullah.core import actions
from nullah.core.breakdown.rough import Resawn, WoodRequirement
from nullah.core.breakdown.search import BreakdownError, search_task
from nullah.core.breakdown.wishes import SearchWeights
from nullah.core.laying import reached, resaw_twins, saw_up, take_layout, task_of, with_staves
from nullah.core.lengths import mm
from nullah.core.piece.part import Needs
from nullah.core.plan import work_out
from nullah.core.rack.board import BoardError, Faces, Flaw, FlawKind, GrainFigure, Reading, cut_from_heart
from nullah.core.rack.drying import Room
from nullah.core.reader import Reader
from nullah.core.sheets.sheets import all_sheets
from nullah.core.stations import STATIONS
from nullah.core.stations.selection import BreakdownSelection, Selection
from nullah.core.wood.movement import GrainCut
from nullah.core.wording.facts import error_words
from nullah.demo.seed_box import seed_box
from nullah.files.project_file import parse_project, project_text

BY_ID = {station.id: station for station in STATIONS}
parts = st.sampled_from(["front", "back", "left", "right", "bottom"])
places = st.integers(-20, 1500).map(mm)
days = st.dates(min_value=date(2026, 1, 1), max_value=date(2030, 1, 1)).map(lambda day: day.isoformat())


class AnyBreakdown(RuleBasedStateMachine):
    """A rack and a layout under any sequence of actions."""

    def __init__(self):
        super().__init__()
        self.project = seed_box()
        self.before = []

    def do(self, action):
        try:
            after = action(self.project)
        except (BoardError, BreakdownError) as error:
            assert error_words(error, Reader()).endswith(".")
            return
        self.before.append(self.project)
        self.project = after

    def board(self, data):
        return data.draw(st.sampled_from(self.project.boards)) if self.project.boards else None

    @initialize(bare=st.booleans())
    def start(self, bare):
        if bare:
            self.project = actions.accept_layout(seed_box(), ())

    @rule(part=parts, needs=st.none() | st.sampled_from(Needs), figure=st.none() | st.sampled_from(GrainFigure),
          rings=st.none() | st.sampled_from(GrainCut), together=st.sampled_from(["", "a", "b"]),
          in_order=st.booleans())  # fmt: skip
    def ask(self, part, needs, figure, rings, together, in_order):
        self.do(lambda p: actions.ask_of_wood(p, part, WoodRequirement(needs, figure, rings, together, in_order)))

    @rule(part=parts, count=st.integers(0, 7))
    def staves(self, part, count):
        self.do(lambda p: with_staves(p, part, count) if count else actions.make_whole(p, part))

    @rule(part=parts)
    def resaw(self, part):
        twins = resaw_twins(work_out(self.project, milling=False, proving=False), part)
        if twins:
            self.do(lambda p: actions.resaw(p, Resawn(part, twins[0])))

    @rule(data=st.data(), how=st.sampled_from(["pin", "let go", "flip", "turn over", "swap", "lift"]))
    def handle(self, data, how):
        laid = [item.part for item in self.project.layout]
        if not laid:
            return
        piece, other = data.draw(st.sampled_from(laid)), data.draw(st.sampled_from(laid))
        self.do(
            {
                "pin": lambda p: actions.pin(p, piece, True),
                "let go": lambda p: actions.pin(p, piece, False),
                "flip": lambda p: actions.flip(p, piece),
                "turn over": lambda p: actions.turn_over(p, piece),
                "swap": lambda p: actions.swap(p, piece, other),
                "lift": lambda p: actions.lift(p, piece),
            }[how]
        )

    @rule()
    def lift_all(self):
        self.do(actions.lift_all)

    @rule(data=st.data())
    def saw_up(self, data):
        board = self.board(data)
        if board is not None and len(self.project.boards) < 12:
            self.do(lambda p: saw_up(p, board.id))

    @rule(data=st.data(), high=st.booleans(), points=st.lists(st.tuples(places, places), max_size=4))
    def outline(self, data, high, points):
        board = self.board(data)
        if board is not None:
            edge = {"high_edge" if high else "low_edge": tuple(sorted(points, key=lambda point: point[0].mm))}
            self.do(lambda p: actions.change_board(p, actions.replace(board, **edge)))

    @rule(data=st.data(), heart=st.tuples(st.integers(-500, 700), st.integers(-500, 500)))
    def heart(self, data, heart):
        board = self.board(data)
        if board is not None:
            cut = cut_from_heart(float(board.width), float(board.thickness), heart)
            seen = actions.replace(board, heart=tuple(map(float, heart)), cut=cut)
            self.do(lambda p: actions.change_board(p, seen))

    @rule(data=st.data(), kind=st.sampled_from(FlawKind), faces=st.sampled_from(Faces), at=st.tuples(*[places] * 4),
          depth=st.none() | st.integers(1, 30))  # fmt: skip
    def flaw(self, data, kind, faces, at, depth):
        board = self.board(data)
        if board is not None:
            deep = None if depth is None or faces is Faces.THROUGH else mm(depth)
            self.do(lambda p: actions.add_flaw(p, board.id, Flaw(kind, *at, faces=faces, depth=deep)))

    @rule(data=st.data(), day=days, percent=st.integers(-5, 60))
    def read(self, data, day, percent):
        board = self.board(data)
        if board is not None:
            self.do(lambda p: actions.read_moisture(p, board.id, Reading(day, Fraction(percent))))

    @rule(day=days, percent=st.integers(0, 30), air=st.none() | st.integers(0, 120))
    def room(self, day, percent, air):
        reference = (Reading(day, Fraction(percent)),) if air is None else ()
        humidity = None if air is None else Fraction(air)
        self.do(lambda p: actions.set_room(p, Room(Fraction(21), humidity, reference)))

    @rule(sawing=st.sampled_from([0.0, 0.5, 1.0]), value=st.sampled_from([0.0, 1.0]), risk=st.sampled_from([0.0, 1.0]))
    def wish(self, sawing, value, risk):
        self.do(lambda p: actions.wish(p, SearchWeights(sawing, value, risk)))

    @rule(share=st.fractions(0, 1, max_denominator=10))
    def expect(self, share):
        self.do(lambda p: actions.expect_flaws(p, share))

    @rule()
    def search(self):
        def laid_out(project):
            plan = work_out(project, milling=False, proving=False)
            layout = list(search_task(reached(task_of(plan)), 6, prove=False))
            return take_layout(project, layout[-1].placements) if layout else project

        self.do(laid_out)
        plan = work_out(self.project, milling=False, proving=False)
        free = {item.part for item in self.project.layout if not item.pinned}
        sawn = {board.id for board in self.project.boards if board.sawn}
        for board in plan.boards:
            if board.board.id not in sawn and not any(item.pinned for item in board.placed):
                assert not set(board.wrong) & free, board.wrong
                assert not board.not_sawable

    @rule()
    def undo(self):
        if self.before:
            self.project = self.before.pop()

    @invariant()
    def it_can_be_shown_and_comes_back_from_its_file(self):
        plan = work_out(self.project, proving=False)
        for station in (BY_ID["rack"], BY_ID["breakdown"], BY_ID["milling"]):
            for board in ("1", "3"):
                selection = Selection(
                    part="bottom", board=board, breakdown=BreakdownSelection(cut=1 if board == "3" else None)
                )
                assert station.state(plan) and station.card(plan, selection).title
                assert station.draw(plan, selection).elements or station.invitation
        assert untyped(parse_project(project_text(self.project), "x")) == untyped(self.project)

    def teardown(self):
        for sheet in all_sheets(work_out(self.project, proving=False)):
            assert sheet.drawing.elements and sheet.name


AnyBreakdown.TestCase.settings = examples(
    12, stateful_step_count=10, suppress_health_check=[HealthCheck.too_slow, HealthCheck.data_too_large]
)
TestAnyBreakdown = pytest.mark.sampled(1)(AnyBreakdown.TestCase)
