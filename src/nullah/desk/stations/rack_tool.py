"""Rack under the pointer: flaws marked and moved, edges drawn in, the heart of the tree found on the end grain."""

from __future__ import annotations

from dataclasses import replace
from typing import Protocol

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QComboBox, QPushButton

from nullah.core import actions
from nullah.core.drawing import Drawing, Fill, Path, Point, Role, drawing, rectangle
from nullah.core.frozen_record import FrozenRecord
from nullah.core.lengths import from_float, mm
from nullah.core.rack.board import Board, EdgePoint, Faces, Flaw, FlawKind, cut_from_heart
from nullah.core.rack.outline import edge_at
from nullah.core.refs import BoardSizeRef, HeartRef, Ref
from nullah.core.stations.rack import board_places, end_rings, end_view
from nullah.core.stations.selection import RackSelection
from nullah.desk.bench import Bench, Tool
from nullah.desk.document import Document
from nullah.desk.stations.base import show_choice
from nullah.language import tr

#: What dragging marks when it is not a flaw: the board's own edge.
EDGE = "edge"
#: A drag shorter than this, in mm on the board, is a click.
_LEAST = 4.0


class Marking(Protocol):
    """What the tool asks of the station it is used at."""

    document: Document
    bench: Bench
    #: Which kind of flaw is marked, or the board's edge.
    kind: QComboBox
    rub_out: QPushButton

    @property
    def chosen_faces(self) -> Faces:
        """On which face the next flaw is."""

    def rub_flaw_out(self) -> None:
        """Delete the flaw in hand."""


class _Grip(FrozenRecord):
    """What of a flaw is held: -1 none; which borders follow the pointer."""

    flaw: int
    start: bool
    end: bool
    low: bool
    high: bool


class RackTool(Tool):
    """Marks flaws on boards, moves their borders, moves them whole."""

    def __init__(self, desk: Marking) -> None:
        self._desk = desk
        self._board: Board | None = None
        self._corner: Point = (0.0, 0.0)
        self._from: Point = (0.0, 0.0)
        self._grip: _Grip | None = None
        self._flaw: Flaw | None = None
        self._heart: tuple[float, float] | None = None
        self._edge: tuple[bool, EdgePoint] | None = None

    def _find(self, at: Point) -> tuple[Board, Point] | None:
        """Return the board under a point and where its upper left corner lies."""
        boards = self._desk.document.project.boards
        for board_id, (left, top) in board_places(boards).items():
            board = next(b for b in boards if b.id == board_id)
            if left <= at[0] <= left + float(board.length) and top <= at[1] <= top + float(board.width):
                return board, (left, top)
        return None

    def _grip_at(self, board: Board, x: float, y: float) -> _Grip | None:
        reach = 7 / self._desk.bench.scale.per_mm
        for index in reversed(range(len(board.flaws))):
            flaw = board.flaws[index]
            start, end, low, high = float(flaw.start), float(flaw.end), float(flaw.low), float(flaw.high)
            # The middle of a small flaw must stay free to take hold of the whole of it.
            near_x, near_y = min(reach, (end - start) / 4), min(reach, (high - low) / 4)
            if start - near_x <= x <= end + near_x and low - near_y <= y <= high + near_y:
                return _Grip(index, x < start + near_x, x > end - near_x, y < low + near_y, y > high - near_y)
        return None

    def press(self, at: Point, ref: Ref | None) -> bool:
        if isinstance(ref, BoardSizeRef):
            return False
        if isinstance(ref, HeartRef):
            return self._press_end(ref.board)
        found = self._find(at)
        if found is None:
            return False
        self._board, self._corner = found
        self._from = _on_board(*found, at)
        self._grip = self._grip_at(self._board, *self._from)
        self._flaw = None
        flaw = self._grip.flaw if self._grip else None
        selection = self._desk.document.selection
        self._desk.document.select(selection._replace(board=self._board.id, rack=RackSelection(flaw)))
        if flaw is not None:
            show_choice(self._desk.kind, self._board.flaws[flaw].kind.value)
        return True

    def _press_end(self, board_id: str) -> bool:
        """Take hold of the end grain of a board."""
        document = self._desk.document
        board = document.project.board(board_id)
        if board is None:
            return False
        self._board, self._corner = board, board_places(document.project.boards)[board_id]
        self._grip = self._flaw = None
        self._heart = board.heart or (float(board.width) / 2, float(board.thickness) / 2)
        document.select(document.selection._replace(board=board_id, rack=RackSelection()))
        return True

    def _drag_heart(self, board: Board, at: Point) -> None:
        """Let the heart follow the pointer; the rings are shown on the end grain."""
        view = end_view(self._desk.document.project.boards, board)
        thick = float(board.thickness)
        self._heart = (round((at[0] - view.left) / view.scale), round(thick - (at[1] - view.top) / view.scale))
        rings = end_rings(replace(board, heart=self._heart))
        self._desk.bench.overlay = drawing(
            Path(
                tuple((view.left + across * view.scale, view.top + (thick - up) * view.scale) for across, up in ring),
                Role.CHALK,
            )
            for ring in rings
        )

    def _drag_edge(self, board: Board, x: float, y: float) -> None:
        """Draw the nearer edge in to the pointer."""
        marks = self._desk.document.project.marks
        high = self._from[1] > float(board.width) / 2
        along = min(max(marks.dragged(x), mm(0)), board.length)
        across = min(max(marks.dragged(y), mm(0)), board.width)
        self._edge = (high, (along, across))
        changed = with_edge_point(board, high, (along, across))
        points = changed.high_edge if high else changed.low_edge
        left, top = self._corner
        line = tuple((left + float(px), top + float(board.width - py)) for px, py in points)
        self._desk.bench.overlay = drawing(Path(line, Role.CHALK))

    def drag(self, at: Point) -> None:
        if self._board is None:
            return
        if self._heart is not None:
            self._drag_heart(self._board, at)
            return
        x, y = _on_board(self._board, self._corner, at)
        if self._grip is None and self._desk.kind.currentData() == EDGE:
            if max(abs(x - self._from[0]), abs(y - self._from[1])) >= _LEAST:
                self._drag_edge(self._board, x, y)
            return
        dx, dy = x - self._from[0], y - self._from[1]
        if max(abs(dx), abs(dy)) < _LEAST:
            self._flaw = None
        elif self._grip is None:
            kind = FlawKind(str(self._desk.kind.currentData()))
            ends, sides = sorted((self._from[0], x)), sorted((self._from[1], y))
            self._flaw = self._cut_to_board(kind, ends[0], ends[1], sides[0], sides[1])
        else:
            self._flaw = self._moved(self._board.flaws[self._grip.flaw], dx, dy)
        self._show()

    def _moved(self, flaw: Flaw, dx: float, dy: float) -> Flaw | None:
        grip = self._grip
        if grip is None:
            return None
        whole = not (grip.start or grip.end or grip.low or grip.high)
        start = float(flaw.start) + (dx if grip.start or whole else 0)
        end = float(flaw.end) + (dx if grip.end or whole else 0)
        low = float(flaw.low) + (dy if grip.low or whole else 0)
        high = float(flaw.high) + (dy if grip.high or whole else 0)
        (start, end), (low, high) = sorted((start, end)), sorted((low, high))
        return self._cut_to_board(flaw.kind, start, end, low, high)

    def _cut_to_board(
        self, kind: FlawKind, start_at: float, end_at: float, low_at: float, high_at: float
    ) -> Flaw | None:
        """Return the flaw to whole marks and on the board, or None if nothing of it is left."""
        if self._board is None:
            return None
        marks = self._desk.document.project.marks
        long, wide = self._board.length, self._board.width
        places = (
            max(marks.dragged(start_at), mm(0)),
            min(marks.dragged(end_at), long),
            max(marks.dragged(low_at), mm(0)),
            min(marks.dragged(high_at), wide),
        )
        if places[0] >= places[1] or places[2] >= places[3]:
            return None
        if self._grip is not None and 0 <= self._grip.flaw < len(self._board.flaws):
            start, end, low, high = places
            held = self._board.flaws[self._grip.flaw]
            return replace(held, kind=kind, start=start, end=end, low=low, high=high)
        return Flaw(kind, *places, faces=self._desk.chosen_faces)

    def _show(self) -> None:
        flaw, board = self._flaw, self._board
        if flaw is None or board is None:
            self._desk.bench.overlay = Drawing()
            return
        left, top = self._corner[0] + float(flaw.start), self._corner[1] + float(board.width - flaw.high)
        wide, high = float(flaw.end - flaw.start), float(flaw.high - flaw.low)
        self._desk.bench.overlay = drawing(rectangle(left, top, wide, high, Role.CHALK, Fill.FLAW))

    def release(self, at: Point) -> None:
        self.drag(at)
        board, flaw, grip = self._board, self._flaw, self._grip
        heart, edge = self._heart, self._edge
        moved = bool(self._desk.bench.overlay.elements)
        self.cancel()
        document = self._desk.document
        if board is not None and heart is not None and moved:
            cut = cut_from_heart(float(board.width), float(board.thickness), heart)
            seen = replace(board, heart=heart, cut=cut)
            document.do(
                tr("{name}: the heart lies there, {cut}-sawn", name=board.name, cut=tr(cut.value)),
                lambda p: actions.change_board(p, seen),
            )
            return
        if board is not None and edge is not None:
            drawn = with_edge_point(board, *edge)
            document.do(tr("{name}: draw its edge in", name=board.name), lambda p: actions.change_board(p, drawn))
            return
        if board is None or flaw is None:
            return
        if grip is None:
            number = len(board.flaws)
            document.do(
                tr("mark a {flaw} on {name}", flaw=tr(flaw.kind.value), name=board.name),
                lambda p: actions.add_flaw(p, board.id, flaw),
            )
            document.select(document.selection._replace(rack=RackSelection(number)))
        else:
            document.do(
                tr("change the {flaw} on {name}", flaw=tr(flaw.kind.value), name=board.name),
                lambda p: actions.change_flaw(p, board.id, grip.flaw, flaw),
            )

    def cancel(self) -> None:
        self._flaw = None
        self._board = None
        self._heart = self._edge = None
        self._desk.bench.overlay = Drawing()

    def cursor(self, at: Point, ref: Ref | None) -> Qt.CursorShape:
        if isinstance(ref, HeartRef):
            return Qt.CursorShape.OpenHandCursor
        found = self._find(at)
        if found is None:
            return Qt.CursorShape.PointingHandCursor if ref is not None else Qt.CursorShape.ArrowCursor
        grip = self._grip_at(found[0], *_on_board(*found, at))
        if grip is None:
            return Qt.CursorShape.CrossCursor
        if (grip.start or grip.end) and (grip.low or grip.high):
            return Qt.CursorShape.SizeAllCursor
        if grip.start or grip.end:
            return Qt.CursorShape.SizeHorCursor
        return Qt.CursorShape.SizeVerCursor if grip.low or grip.high else Qt.CursorShape.SizeAllCursor

    def key(self, event: QKeyEvent) -> bool:
        if event.key() in (Qt.Key.Key_Delete, Qt.Key.Key_Backspace) and self._desk.rub_out.isEnabled():
            self._desk.rub_flaw_out()
            return True
        return False


def _on_board(board: Board, corner: Point, at: Point) -> Point:
    """Return a point of the drawing in the board's own measure: x along, y up from its lower edge."""
    return at[0] - corner[0], float(board.width) - (at[1] - corner[1])


def with_edge_point(board: Board, high: bool, point: EdgePoint) -> Board:
    """Return a board with its upper or lower edge drawn in to a point; near an end, the end itself moves."""
    near = max(12.0, float(board.length) * 0.03)
    straight = board.width if high else mm(0)
    points = board.high_edge if high else board.low_edge
    if not points:
        points = ((mm(0), straight), (board.length, straight))
    x, y = point
    if float(x) < near:
        x = mm(0)
    elif float(board.length - x) < near:
        x = board.length
    kept = [each for each in points if abs(float(each[0] - x)) > near]
    ends = {float(each[0]) for each in kept} | {float(x)}
    kept += [
        (end, from_float(round(edge_at(board, float(end), high))))
        for end in (mm(0), board.length)
        if float(end) not in ends
    ]
    edge = tuple(sorted((*kept, (x, y)), key=lambda each: each[0].mm))
    return replace(board, high_edge=edge) if high else replace(board, low_edge=edge)
