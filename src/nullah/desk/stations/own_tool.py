"""Dragging boards of one's own on the views, and moving them by keys."""

from __future__ import annotations

from functools import partial

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent

from nullah.core import actions
from nullah.core.drawing import Dimension, Drawing, Point, Role, drawing, rectangle
from nullah.core.fraction import Fraction
from nullah.core.lengths import Length
from nullah.core.refs import PartRef, Ref
from nullah.core.stations.piece import flat_at, plane_at, point_on
from nullah.core.stations.placing import Grip, gripped, moved
from nullah.desk.bench import Bench, Tool
from nullah.desk.document import Document
from nullah.language import tr

#: So close, in pixels, the pointer takes an edge, and an edge snaps to another.
_GRIP_PX, _SNAP_PX = 7, 9


class OwnTool(Tool):
    """Drags boards of one's own on the views: by their middle to another place, by an edge to another size."""

    def __init__(self, document: Document, bench: Bench) -> None:
        self._document, self._bench = document, bench
        self._grip: Grip | None = None
        self._new: dict[str, Fraction] = {}

    def _grip_at(self, at: Point, ref: Ref | None) -> Grip | None:
        plan = self._document.plan
        part = plan.part(ref.part) if isinstance(ref, PartRef) else None
        if part is None or not part.own:
            return None
        found = plane_at(plan, at)
        if found is None:
            return None
        plane, local = found
        near = _GRIP_PX / self._bench.scale.per_mm
        return gripped(plane, part, plane.place(local), near)

    def press(self, at: Point, ref: Ref | None) -> bool:
        self._grip = self._grip_at(at, ref)
        self._new = {}
        if self._grip is None:
            return False
        self._document.pick_part(self._grip.part.id)
        return True

    def drag(self, at: Point) -> None:
        plan, grip = self._document.plan, self._grip
        if grip is None:
            return
        plane = grip.plane
        local = point_on(plan, plane.view, at)
        near = _SNAP_PX / self._bench.scale.per_mm
        marks = plan.marks
        self._new, box = moved(
            plan.assembly, grip, plane.place(local), near, lambda value: marks.to_mark(Length(value)).mm
        )
        (left, top), (right, bottom) = flat_at(plan, plane.view, box)
        wide, high = right - left, bottom - top
        across, up, _ = plane.axes
        self._bench.overlay = drawing(
            rectangle(left, top, wide, high, Role.CHALK),
            Dimension((left, top), (right, top), marks.write(Length(box.size(across)), unit=False), 5),
            Dimension((left, bottom), (left, top), marks.write(Length(box.size(up)), unit=False), 5),
        )

    def release(self, at: Point) -> None:
        self.drag(at)
        grip, new = self._grip, self._new
        self.cancel()
        if grip is None:
            return
        ledger = self._document.plan.ledger
        if ledger is None or all(ledger[name] == value for name, value in new.items()):
            return
        word = tr("move") if grip.whole else tr("size")
        values = {name: Length(value) for name, value in new.items()}
        self._document.do(f"{word} {grip.part.name}", lambda p: actions.give_all(p, dict(values)))

    def cancel(self) -> None:
        self._grip, self._new = None, {}
        self._bench.overlay = Drawing()

    def cursor(self, at: Point, ref: Ref | None) -> Qt.CursorShape:
        grip = self._grip_at(at, ref)
        if grip is None:
            return Qt.CursorShape.ArrowCursor
        if grip.whole:
            return Qt.CursorShape.OpenHandCursor
        flat = grip.side is not None and grip.side.axis is grip.plane.axes[0]
        return Qt.CursorShape.SizeHorCursor if flat else Qt.CursorShape.SizeVerCursor

    def key(self, event: QKeyEvent) -> bool:
        """Move the board in hand with Shift and the arrows (and Page Up, Page Down for depth); Delete takes it away."""
        plan, selection = self._document.plan, self._document.selection.part
        part = plan.part(selection)
        if part is None or not part.own or plan.ledger is None:
            return False
        if event.key() == Qt.Key.Key_Delete:
            self._document.do(tr("take {name} away", name=part.name), lambda p: actions.remove_own(p, selection))
            return True
        ways = {
            Qt.Key.Key_Left: ("x", -1),
            Qt.Key.Key_Right: ("x", 1),
            Qt.Key.Key_Down: ("z", -1),
            Qt.Key.Key_Up: ("z", 1),
            Qt.Key.Key_PageDown: ("y", -1),
            Qt.Key.Key_PageUp: ("y", 1),
        }
        way = ways.get(Qt.Key(event.key()))
        if way is None or not event.modifiers() & Qt.KeyboardModifier.ShiftModifier:
            return False
        step = 10 if event.modifiers() & Qt.KeyboardModifier.ControlModifier else 1
        name = f"{part.id}.{way[0]}"
        to = Length(plan.ledger[name] + step * way[1])
        self._document.do(tr("move {name}", name=part.name), partial(actions.give, name=name, value=to))
        return True
