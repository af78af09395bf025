"""Surveying on the desk: readings picked or drawn on the board, typed, or taken by the gauges."""

from __future__ import annotations

import math
from collections.abc import Callable
from functools import partial

from PySide6.QtCore import Qt

from nullah.core import actions
from nullah.core.catalogue import N_
from nullah.core.drawing import Drawing, Point, Role, drawing, line
from nullah.core.lengths import mm
from nullah.core.milling.adjust import adjust, usual_readings
from nullah.core.milling.best_ways import whole_job
from nullah.core.milling.decide import BoardFace
from nullah.core.rack.board import Board
from nullah.core.rack.shape_readings import Calliper, Gap, ShapeReading, Wind, figure_of, shape_place, with_figure
from nullah.core.refs import BoardRef, ReadingRef, Ref, WantedReadingRef
from nullah.core.stations.selection import MillingSelection, MillingView
from nullah.core.stations.stock import face_up, selected_board
from nullah.core.stations.surveying import as_it_lies
from nullah.core.wording.survey import reading_words
from nullah.desk.bench import Bench, Tool
from nullah.desk.document import Document
from nullah.desk.fields import ValueField
from nullah.desk.stations.base import Section, Verb, action, chooser, labelled, reach, show_choice, words
from nullah.desk.stations.group import Group
from nullah.instruments.shape_gauges import ShapeGauge, SimulatedGauges
from nullah.language import tr, tr_pairs

#: Which face lies up: whether it is the upper one, its value in the choice, and its words.
_FACES = (
    (None, "", N_("face side")),
    (True, BoardFace.UPPER.value, N_("upper face")),
    (False, BoardFace.LOWER.value, N_("lower face")),
)
_TOOLS = [("gap", N_("straightedge")), ("wind", N_("winding sticks")), ("calliper", N_("caliper"))]
# Readings taken in one go are no more than this.
_MOST = 40
# How near to a border or to straight a drag is meant to be there, as a share of the width and in degrees.
_SNAP, _STRAIGHT = 0.12, 6.0


class SurveyRows(Group):
    """The face that lies up, the gauge, the figure that was read; all readings at once from the gauges.

    `gauges` may be put in the place of the simulated ones.
    """

    def __init__(self, document: Document, bench: Bench, row: Callable[[str], Section]) -> None:
        super().__init__(document, bench)
        self.gauges: ShapeGauge = SimulatedGauges()
        first = row(tr("Reading"))
        self.face = chooser(
            tr("which face lies up"),
            [(value, tr(words)) for _, value, words in _FACES],
            self._turn,
            first,
            tr("Face up"),
        )
        self.kind = chooser(tr("gauge"), tr_pairs(_TOOLS), lambda _: None, first, tr("Draw with the"))
        self.kind.setToolTip(tr("Drag on the board where you lay it, or pick one of the rings"))
        self.figure = ValueField(tr("what was read"), width=70)
        self.figure.line.setMaximumWidth(84)
        # A gap may be less than nothing, so what is refused is left to the action.
        self.figure.entered.connect(lambda _: self.enter())
        labelled(tr("It reads"), self.figure, first)
        self.enter_button = action(tr("Enter"), self.enter, first, main=True)
        self.rub_out = action(tr("Delete reading"), self.rub, first)
        self.keep(first)
        second = row(tr("By the gauges"))
        self.one = action(tr("Read this one"), self.read_one, second)
        self.all = action(tr("Read all that is wanted"), self.read_all, second)
        for button in (self.one, self.all):
            button.setToolTip(tr("With the simulated gauges, on a board made up about its four figures: to try"))
        self.clear = action(tr("Delete all readings"), self.rub_all, second)
        self.where = words("", second)
        self.keep(second)

    @property
    def board(self) -> Board | None:
        """The board in hand."""
        return selected_board(self.document.plan, self.document.selection)

    @property
    def upper(self) -> bool:
        """Whether the upper face lies up."""
        board = self.board
        usual = whole_job(board, self.document.project.shop).first.face if board is not None else BoardFace.UPPER
        return face_up(self.document.selection, usual) is BoardFace.UPPER

    def refresh(self) -> None:
        selection, board = self.document.selection, self.board
        show_choice(self.face, next(value for upper, value, _ in _FACES if upper is selection.milling.upper))
        self.figure.set_unit(self.document.project.marks.unit)
        self.rub_out.setEnabled(self._taken() is not None)
        self.one.setEnabled(board is not None)
        self.clear.setEnabled(bool(board and board.shape))
        asked = selection.milling.reading or self._next()
        text = "" if asked is None else f"{'here' if selection.milling.reading else 'next'}: {self._named(asked)}"
        if board is not None and board.surface is not None:
            text = tr("A grid of heights from a file overrules readings.")
        self.where.setText(text)

    # --- what is picked ---

    def clicked(self, ref: Ref | None) -> bool:
        """Take a click on a reading, taken or wanted."""
        board = self.board
        if board is None:
            return False
        if isinstance(ref, WantedReadingRef):
            self.pick(usual_readings(board)[ref.number])
        elif isinstance(ref, ReadingRef):
            self.pick(board.shape[ref.number])
            figure = figure_of(board.shape[ref.number])
            self.figure.show_value(self.document.project.marks.write_to_edit(figure))
            self.figure.line.selectAll()
        else:
            return isinstance(ref, BoardRef)
        return True

    def picked(self) -> Ref | None:
        """Return the reading in hand, where it was taken already."""
        board, number = self.board, self._taken()
        return ReadingRef(number) if board is not None and number is not None else None

    def verbs(self, ref: Ref) -> tuple[Verb, ...]:
        """Return what can be done with a reading, or with a place where one is wanted."""
        if isinstance(ref, ReadingRef):
            return (
                Verb(tr("Type another"), partial(reach, self.figure.line)),
                Verb(tr("Read it again"), self.read_one),
                Verb(tr("Delete reading"), self.rub),
            )
        return (Verb(tr("Read this one"), self.read_one),) if isinstance(ref, WantedReadingRef) else ()

    def pick(self, reading: ShapeReading) -> None:
        """Take a place for a reading in hand, ready for its figure."""
        self._select(self.document.selection.milling._replace(reading=reading))
        self.figure.line.setModified(False)
        self.figure.show_value("")
        reach(self.figure.line)

    def _select(self, selection: MillingSelection) -> None:
        self.document.select(self.document.selection._replace(milling=selection))

    def _taken(self) -> int | None:
        """Return the number of the reading in hand among those taken."""
        board, reading = self.board, self.document.selection.milling.reading
        if board is None or reading is None:
            return None
        places = [shape_place(each) for each in board.shape]
        return places.index(shape_place(reading)) if shape_place(reading) in places else None

    def _next(self) -> ShapeReading | None:
        """Return what to read next: what tells most, or the first of the usual ones."""
        board = self.board
        if board is None or board.surface is not None:
            return None
        taken = {shape_place(reading) for reading in board.shape}
        if board.shape:
            best = adjust(board).next_reading
            if best is not None and shape_place(best) not in taken:
                return best
            return None
        return usual_readings(board)[0]

    def _named(self, reading: ShapeReading) -> str:
        return reading_words(reading, self.document.plan.reader)

    def _turn(self, face: str) -> None:
        upper = next(upper for upper, value, _ in _FACES if value == face)
        self._select(self.document.selection.milling._replace(upper=upper, reading=None))

    # --- what is entered ---

    def enter(self) -> None:
        """Enter what was read at the place in hand, or at the one that is asked for next."""
        board, reading = self.board, self.document.selection.milling.reading or self._next()
        figure = self.figure.length()
        if board is None or figure is None:
            return
        if reading is None:
            self.figure.complain(tr("Pick a ring on the board, or drag where it was read."))
            return
        taken = with_figure(reading, figure)
        sentence = self.document.do(
            f"{board.name}: {self._named(reading)} {figure.as_text()}", lambda p: actions.take_shape(p, board.id, taken)
        )
        self._entered(sentence)

    def _entered(self, sentence: str) -> None:
        if sentence:
            self.figure.complain(sentence)
            return
        self.figure.line.setModified(False)
        self.figure.show_value("")
        self._select(self.document.selection.milling._replace(reading=None))
        self.refresh()

    def read_one(self) -> None:
        """Let the gauges take the reading in hand, or the next."""
        board, reading = self.board, self.document.selection.milling.reading or self._next()
        if board is None:
            return
        if reading is None:
            self.figure.complain(tr("Both faces are known. Drag on the board to read somewhere else."))
            return
        taken = self.gauges.read(board, reading)
        self._entered(
            self.document.do(
                f"{board.name}: {self._named(reading)} {figure_of(taken).as_text()}",
                lambda p: actions.take_shape(p, board.id, taken),
            )
        )

    def read_all(self) -> None:
        """Let the gauges take every usual reading that is missing, and go on until both faces are known."""
        board = self.board
        if board is None:
            return
        there = {shape_place(reading) for reading in board.shape}
        wanted = [each for each in usual_readings(board)[:_SHOWN] if shape_place(each) not in there]
        taken = [self.gauges.read(board, reading) for reading in wanted][:_MOST]
        self._entered(
            self.document.do(tr("survey {name}", name=board.name), lambda p: actions.take_shapes(p, board.id, taken))
        )

    def rub(self) -> None:
        """Rub the reading in hand out."""
        board, index = self.board, self._taken()
        if board is not None and index is not None:
            reading = board.shape[index]
            self._entered(
                self.document.do(
                    tr("rub out {reading}", reading=self._named(reading)),
                    lambda p: actions.drop_shape(p, board.id, index),
                )
            )

    def rub_all(self) -> None:
        """Rub all readings of the board in hand out."""
        board = self.board
        if board is not None:
            self._entered(
                self.document.do(
                    tr("rub out the survey of {name}", name=board.name), lambda p: actions.drop_shapes(p, board.id)
                )
            )


# The usual readings of both faces; those in between come only where there is doubt.
_SHOWN = 28


class SurveyTool(Tool):
    """Lays the gauge that is chosen on the board: from where it is pressed to where it is let go."""

    def __init__(self, rows: SurveyRows) -> None:
        self._rows = rows
        self._start: Point | None = None
        self._end: Point = (0.0, 0.0)

    def press(self, at: Point, ref: Ref | None) -> bool:
        if (
            not isinstance(ref, BoardRef)
            or self._rows.board is None
            or self._rows.document.selection.milling.view is not MillingView.SURVEY
        ):
            return False
        self._start = self._end = at
        return True

    def drag(self, at: Point) -> None:
        self._end = at
        reading, board = self._reading(), self._rows.board
        self._rows.bench.overlay = Drawing()
        if reading is None or board is None:
            return
        upper = self._rows.upper
        wide = float(board.width)
        ends: list[tuple[Point, Point]] = []
        if isinstance(reading, Gap):
            ends = [(as_it_lies(board, upper, reading.start), as_it_lies(board, upper, reading.end))]
        elif isinstance(reading, Wind):
            ends = [((x, 0.0), (x, wide)) for x in (reading.near, reading.far)]
        self._rows.bench.overlay = drawing([line(*pair, Role.CHALK) for pair in ends])

    def release(self, at: Point) -> None:
        self._end = at
        reading = self._reading()
        self.cancel()
        if reading is not None:
            self._rows.pick(reading)

    def cancel(self) -> None:
        self._start = None
        self._rows.bench.overlay = Drawing()

    def cursor(self, at: Point, ref: Ref | None) -> Qt.CursorShape:
        if isinstance(ref, BoardRef):
            return Qt.CursorShape.CrossCursor
        return Qt.CursorShape.ArrowCursor if ref is None else Qt.CursorShape.PointingHandCursor

    def _reading(self) -> ShapeReading | None:
        """Return the reading that is being laid on; None while it is too short to tell anything."""
        board = self._rows.board
        if self._start is None or board is None:
            return None
        upper, long = self._rows.upper, float(board.length)
        start, end = (self._on(board, upper, place) for place in (self._start, self._end))
        kind = str(self._rows.kind.currentData())
        if kind == "calliper":
            edge = 0.0 if end[1] < float(board.width) / 2 else float(board.width)
            return Calliper((end[0], edge), board.thickness)
        if kind == "wind":
            near, far = sorted((start[0], end[0]))
            stick = mm(round(max(1.5 * float(board.width), 300.0)))
            return Wind(upper, near, far, stick, mm(0)) if far - near > long / 20 else None
        start, end = _straight(start, end)
        if math.dist(start, end) < 30:
            return None
        middle = (start[0] + end[0]) / 2, (start[1] + end[1]) / 2
        return Gap(upper, start, end, middle, mm(0))

    def _on(self, board: Board, upper: bool, place: Point) -> Point:
        """Return a place of the board, on its border where it is near that, to the millimetre."""
        long, wide = float(board.length), float(board.width)
        x, y = as_it_lies(board, upper, place)
        near = wide * _SNAP

        def held(at: float, most: float) -> float:
            return 0.0 if at < near else most if at > most - near else float(round(at))

        return held(x, long), held(y, wide)


def _straight(start: Point, end: Point) -> tuple[Point, Point]:
    """Lay a straightedge that is nearly along or across the board just so."""
    dx, dy = abs(end[0] - start[0]), abs(end[1] - start[1])
    limit = math.tan(math.radians(_STRAIGHT))
    if dx and dy / dx < limit:
        return start, (end[0], start[1])
    if dy and dx / dy < limit:
        return start, (start[0], end[1])
    return start, end
