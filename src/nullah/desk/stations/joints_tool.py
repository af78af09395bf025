"""Dragging a dovetail's lines: a tail's edge, the half-pin, the baseline; limits are felt and said."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import Qt

from nullah.core import actions
from nullah.core.drawing import Anchor, Drawing, Label, Point, Role, drawing
from nullah.core.joints.corners import Corner
from nullah.core.joints.dragging import Dragged, Line, dragged, line_at
from nullah.desk.bench import Bench, Tool
from nullah.desk.document import Document

# How near to a line the pointer takes it, in pixels.
_NEAR_PX = 9.0
_WORDS = {"half_pin": "half-pin", "pin": "pin", "proud": "end grain proud"}


class JointsTool(Tool):
    """Drags lines of the tail board of the corner that is shown."""

    def __init__(self, document: Document, bench: Bench, corner: Callable[[], Corner | None]) -> None:
        self._document, self._bench, self._corner = document, bench, corner
        self._line: Line | None = None
        self._shown: Corner | None = None
        self._came: Dragged | None = None

    def _place(self, corner: Corner, at: Point) -> tuple[float, float]:
        """Give how far in from the end of the board, and how far up from its lower edge."""
        return -at[0], float(corner.layout.spec.width) - at[1]

    def _under(self, at: Point) -> Line | None:
        corner = self._corner()
        if corner is None or at[0] > 3 or corner.layout.tail_base.mm <= 0:
            return None
        return line_at(corner.layout, *self._place(corner, at), _NEAR_PX / self._bench.scale.per_mm)

    def press(self, at: Point, of: str) -> bool:
        if of and self._document.plan.part(of) is None:
            return False  # a figure is typed, not dragged
        self._line, self._shown, self._came = self._under(at), self._corner(), None
        return self._line is not None

    def drag(self, at: Point) -> None:
        if self._line is None or self._shown is None:
            return
        corner = self._shown
        self._came = came = dragged(corner.layout, self._line, *self._place(corner, at), self._document.project.shop)
        name = f"{corner.prefix}.{came.figure}"
        self._document.preview(lambda p: actions.give(p, name, came.value))
        said = f"{_WORDS[came.figure]} {self._document.project.marks.write_fine(came.value)}"
        words = Label(at, f"{said}  {came.held}", 3.2, Anchor.START, Role.WARN if came.held else Role.CHALK, bold=True,
                      nudge_mm=(4, -4))  # fmt: skip
        self._bench.overlay = drawing(words)

    def release(self, at: Point) -> None:
        corner, came = self._shown, self._came
        self.cancel()
        if corner is None or came is None:
            return
        name = f"{corner.prefix}.{came.figure}"
        self._document.do(f"{_WORDS[came.figure]} {came.value.as_text()}", lambda p: actions.give(p, name, came.value))

    def cancel(self) -> None:
        if self._came is not None:
            self._document.preview(None)
        self._line = self._shown = self._came = None
        self._bench.overlay = Drawing()

    def cursor(self, at: Point, of: str) -> Qt.CursorShape:
        line = self._under(at)
        if line is None or (of and self._document.plan.part(of) is None):
            return Qt.CursorShape.PointingHandCursor if of else Qt.CursorShape.ArrowCursor
        return Qt.CursorShape.SizeHorCursor if line.figure == "proud" else Qt.CursorShape.SizeVerCursor
