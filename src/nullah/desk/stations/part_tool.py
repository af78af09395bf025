"""Parts under the pointer: dragged from place to place, snapping to where they may lie, with the reason when not."""

from __future__ import annotations

from dataclasses import replace
from typing import Protocol

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent

from nullah.core import actions
from nullah.core.breakdown.facts import Complaint, LiesWrongly
from nullah.core.breakdown.layout import PlacedPart, Placement, place
from nullah.core.breakdown.legal import LegalPlace, nearest_legal
from nullah.core.breakdown.rough import RoughPart
from nullah.core.drawing import Anchor, Drawing, Fill, Label, Point, Role, drawing, rectangle
from nullah.core.lengths import Length
from nullah.core.rack.board import Board
from nullah.core.refs import PieceRef, Ref
from nullah.core.stations.breakdown import place_on_bench, selected_piece
from nullah.core.stations.rack import board_places
from nullah.core.stations.selection import BreakdownSelection
from nullah.core.wording.facts import fact_words
from nullah.core.wording.laying import complaint_words
from nullah.desk.bench import Bench, Tool
from nullah.desk.document import Document
from nullah.desk.search import SearchRunner
from nullah.language import tr

#: How far a part jumps to a legal place, in pixels of the screen.
_REACH = 60.0


class Laying(Protocol):
    """What the tool asks of the station it is used at."""

    document: Document
    bench: Bench
    runner: SearchRunner

    def say(self, sentence: str) -> None:
        """Say something below the choices."""

    def step_key(self, key: Qt.Key) -> bool:
        """Go through the saw order by key."""

    def pin_or_let_go(self) -> None:
        """Pin the piece in hand where it lies, or let it go."""

    def take_swap(self, piece_id: str) -> bool:
        """Let a part change places with the one in hand, if that was asked for."""


class PartTool(Tool):
    """Moves a part on the boards; it snaps to legal places only."""

    def __init__(self, desk: Laying) -> None:
        self._desk = desk
        self._part = ""
        self._grip: Point = (0.0, 0.0)
        self._placement: Placement | None = None
        self._why: Complaint | None = None
        self._off = False
        self._moved = False

    def press(self, at: Point, ref: Ref | None) -> bool:
        document = self._desk.document
        plan = document.plan
        rough = plan.rough_part(ref.piece) if isinstance(ref, PieceRef) else None
        if self._desk.runner.running or rough is None or document.selection.breakdown.cut is not None:
            return False
        if self._desk.take_swap(rough.id):
            return True
        self._part, self._placement, self._off, self._moved, self._why = rough.id, None, False, False, None
        corner = place_on_bench(plan, rough.id)
        self._grip = (at[0] - corner[0], at[1] - corner[1])
        document.select(document.selection._replace(part=rough.parts[0], breakdown=BreakdownSelection(rough.id)))
        board = plan.board_of(rough.id)
        # What lies on a sawn board is cut already.
        if board is not None and board.board.sawn:
            self._part = ""
        return True

    def drag(self, at: Point) -> None:
        plan = self._desk.document.plan
        rough = plan.rough_part(self._part) if self._part else None
        if rough is None:
            return
        left, top = at[0] - self._grip[0], at[1] - self._grip[1]
        start = place_on_bench(plan, rough.id)
        self._moved = self._moved or max(abs(left - start[0]), abs(top - start[1])) > 4
        long, wide = float(rough.along), float(rough.across)
        self._placement, self._off, self._why = None, True, None
        held = drawing(rectangle(left, top, long, wide, Role.HIDDEN, Fill.NONE))
        found = self._board_under(left + long / 2, top + wide / 2)
        if found is None:
            self._desk.bench.overlay = held
            return
        self._off = False
        board, (board_left, board_top) = found
        spot, self._why = self._spot(rough, board, left - board_left, float(board.width) - (top - board_top) - wide)
        reader = self._desk.document.plan.reader
        said = complaint_words(self._why, reader) if self._why is not None else ""
        told = Label((left, top), said, 3.2, Anchor.START, Role.WARN, bold=True, nudge_mm=(0, -3))
        if spot is None:
            self._desk.bench.overlay = held + drawing([told])
            return
        self._placement = self._placed(rough, board, spot)
        y = board_top + float(board.width) - spot.y - wide
        snapped = drawing(
            rectangle(board_left + spot.x, y, long, wide, Role.CHALK, Fill.WOOD, board.species),
            Label((board_left + spot.x + long / 2, y + wide / 2), rough.name, 3.8, bold=True),
        )
        self._desk.bench.overlay = snapped + (held + drawing([told]) if self._why is not None else Drawing())

    def _board_under(self, x: float, y: float) -> tuple[Board, Point] | None:
        project = self._desk.document.project
        for board_id, (left, top) in board_places(project.boards).items():
            board = project.board(board_id)
            if board is not None and 0 <= x - left <= float(board.length) and 0 <= y - top <= float(board.width):
                return board, (left, top)
        return None

    def _spot(self, rough: RoughPart, board: Board, x: float, y: float) -> tuple[LegalPlace | None, Complaint | None]:
        document = self._desk.document
        reach = _REACH / self._desk.bench.scale.per_mm
        kerf = document.project.shop.kerf
        near = 10 / self._desk.bench.scale.per_mm
        others = self._others(board, rough.id)
        # Close to an edge, a neighbour or a flaw is meant to be at it.
        x, y = _snapped(rough, board, others, kerf, (x, y), near)
        return nearest_legal(rough, board, others, kerf, (x, y), reach, self._over(rough))

    def _over(self, rough: RoughPart) -> bool:
        return next((item.over for item in self._desk.document.project.layout if item.part == rough.id), False)

    def _others(self, board: Board, part: str) -> list[PlacedPart]:
        document = self._desk.document
        by_id = {piece.id: piece for piece in document.plan.rough}
        return [
            place(by_id[item.part], item)
            for item in document.project.layout
            if item.board == board.id and item.part != part and item.part in by_id
        ]

    def _placed(self, rough: RoughPart, board: Board, spot: LegalPlace) -> Placement:
        old = next((item for item in self._desk.document.project.layout if item.part == rough.id), None)
        new = Placement(rough.id, board.id, round(spot.x, 3), round(spot.y, 3))
        return new if old is None else replace(old, board=board.id, x=new.x, y=new.y)

    def release(self, at: Point) -> None:
        self.drag(at)
        part, placement, off, moved, why = self._part, self._placement, self._off, self._moved, self._why
        self.cancel()
        document = self._desk.document
        rough = document.plan.rough_part(part) if part else None
        if rough is None or not moved:
            return
        if placement is not None:
            board = document.project.board(placement.board)
            name = board.name if board else placement.board
            document.do(tr("move {name} to {board}", name=rough.name, board=name), lambda p: actions.lay(p, placement))
            self._desk.say("")
        elif off:
            document.do(tr("lift {name}", name=rough.name), lambda p: actions.lift(p, rough.id))
        elif why is not None:
            self._desk.say(fact_words(LiesWrongly(rough.name, why), document.plan.reader))

    def cancel(self) -> None:
        self._part, self._placement = "", None
        self._desk.bench.overlay = Drawing()

    def cursor(self, at: Point, ref: Ref | None) -> Qt.CursorShape:
        held = isinstance(ref, PieceRef) and self._desk.document.selection.breakdown.cut is None
        return Qt.CursorShape.OpenHandCursor if held else Qt.CursorShape.ArrowCursor

    def key(self, event: QKeyEvent) -> bool:
        """Step through the saw order; or move the part in hand with Shift and the arrows, lift it, pin it with P."""
        document = self._desk.document
        key = Qt.Key(event.key())
        if document.selection.breakdown.cut is not None:
            return self._desk.step_key(key)
        rough = selected_piece(document.plan, document.selection)
        placement = next((item for item in document.project.layout if rough and item.part == rough.id), None)
        if placement is None or rough is None:
            return False
        if key in (Qt.Key.Key_Delete, Qt.Key.Key_Backspace):
            document.do(tr("lift {name}", name=rough.name), lambda p: actions.lift(p, rough.id))
            return True
        if key == Qt.Key.Key_P and not event.modifiers():
            self._desk.pin_or_let_go()
            return True
        ways = {Qt.Key.Key_Left: (-1, 0), Qt.Key.Key_Right: (1, 0), Qt.Key.Key_Up: (0, 1), Qt.Key.Key_Down: (0, -1)}
        way = ways.get(key)
        if way is None or not event.modifiers() & Qt.KeyboardModifier.ShiftModifier:
            return False
        step = 10.0 if event.modifiers() & Qt.KeyboardModifier.ControlModifier else 1.0
        moved = replace(placement, x=placement.x + way[0] * step, y=placement.y + way[1] * step)
        document.do(tr("move {name}", name=rough.name), lambda p: actions.lay(p, moved))
        return True


def _snapped(part: RoughPart, board: Board, others: list[PlacedPart], kerf: Length, at: Point, near: float) -> Point:
    """Pull a place to the edges and neighbours that are near it in either direction."""
    long, wide, gap = float(part.along), float(part.across), float(kerf)
    xs, ys = [0.0, float(board.length) - long], [0.0, float(board.width) - wide]
    for item in others:
        xs += [item.rect.end + gap, item.rect.x - gap - long, item.rect.x]
        ys += [item.rect.top + gap, item.rect.y - gap - wide, item.rect.y]
    for flaw in board.flaws:
        xs += [float(flaw.end), float(flaw.start) - long]
        ys += [float(flaw.high), float(flaw.low) - wide]

    def pulled(value: float, marks: list[float]) -> float:
        nearest = min(marks, key=lambda mark: abs(mark - value))
        return nearest if abs(nearest - value) < near else value

    return pulled(at[0], xs), pulled(at[1], ys)
