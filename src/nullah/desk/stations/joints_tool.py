"""Dragging a joint's lines: a tail's edge, the half-pin, a baseline, a wall, a stop; limits are felt and said."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import Qt

from nullah.core import actions
from nullah.core.catalogue import N_
from nullah.core.drawing import Anchor, Drawing, Label, Point, Role, drawing
from nullah.core.joints.channel_dragging import Handle, channel_dragged, handle_at
from nullah.core.joints.dovetail.corners import Corner
from nullah.core.joints.dovetail.dragging import DraggedLine, dragged, line_at
from nullah.core.joints.dragged import Dragged
from nullah.core.joints.kinds import JointGroup
from nullah.core.named_tuple import NamedTuple
from nullah.core.project import Project
from nullah.core.refs import QuantityRef, Ref
from nullah.core.shop import Shop
from nullah.core.wording.dragging import held_words
from nullah.desk.bench import Bench, Tool
from nullah.desk.document import Document
from nullah.language import tr

# How near to a line the pointer takes it, in pixels.
_NEAR_PX = 9.0
_WORDS = {
    "tail": N_("tail below the pin"),
    "half_pin": N_("half-pin"),
    "pin": N_("pin"),
    "proud": N_("end grain proud"),
}


class Taken(NamedTuple):
    """A line that was taken: what it is called, whether it goes up and down, and what a place makes of it."""

    what: str
    upright: bool
    come: Callable[[Point, Shop], Dragged]
    change: Callable[[Dragged], Callable[[Project], Project]]


def _of_corner(corner: Corner, at: Point, near: float) -> Taken | None:
    """Take a line of a tail board, whose end is at x = 0 and whose lower edge is at the bottom."""
    layout = corner.layout
    if at[0] > 3 or layout.tail_base.mm <= 0:
        return None
    high = float(layout.spec.width)
    line: DraggedLine | None = line_at(layout, -at[0], high - at[1], near)
    if line is None or (line.figure == "proud" and not corner.proud):
        return None
    taken = line

    def change(came: Dragged) -> Callable[[Project], Project]:
        if came.widths:
            return lambda project: actions.space_tails(project, corner.prefix, came.widths)
        return lambda project: actions.give(project, f"{corner.prefix}.{came.figure}", came.value)

    return Taken(
        line.figure,
        line.figure != "proud",
        lambda place, shop: dragged(layout, taken, -place[0], high - place[1], shop),
        change,
    )


def _of_channel(kind: JointGroup, at: Point, near: float) -> Taken | None:
    """Take a line of the board a channel is cut into."""
    handle: Handle | None = handle_at(kind, at, near)
    if handle is None:
        return None
    taken = handle
    return Taken(
        handle.what,
        handle.upright,
        lambda place, _: channel_dragged(kind, taken, place),
        lambda came: lambda project: actions.give(project, came.figure, came.value),
    )


class JointsTool(Tool):
    """Drags lines of the joint that is shown: a corner's, or else a channel's."""

    def __init__(
        self,
        document: Document,
        bench: Bench,
        corner: Callable[[], Corner | None],
        kind: Callable[[], JointGroup | None],
    ) -> None:
        self._document, self._bench, self._corner, self._kind = document, bench, corner, kind
        self._taken: Taken | None = None
        self._came: Dragged | None = None

    def _under(self, at: Point) -> Taken | None:
        near = _NEAR_PX / self._bench.scale.per_mm
        corner, kind = self._corner(), self._kind()
        if corner is not None:
            return _of_corner(corner, at, near)
        return _of_channel(kind, at, near) if kind is not None else None

    def press(self, at: Point, ref: Ref | None) -> bool:
        if isinstance(ref, QuantityRef):
            return False  # a figure is typed, not dragged
        self._taken, self._came = self._under(at), None
        return self._taken is not None

    def drag(self, at: Point) -> None:
        if self._taken is None:
            return
        self._came = came = self._taken.come(at, self._document.project.shop)
        self._document.preview(self._taken.change(came))
        what = tr(_WORDS.get(came.figure, self._taken.what))
        said = f"{what} {self._document.project.marks.write_fine(came.value)}"
        words = Label(
            at,
            said if came.held is None else f"{said}  {held_words(came.held, self._document.plan.reader)}",
            3.2,
            Anchor.START,
            Role.WARN if came.held else Role.CHALK,
            bold=True,
            nudge_mm=(4, -4),
        )
        self._bench.overlay = drawing(words)

    def release(self, at: Point) -> None:
        taken, came = self._taken, self._came
        self.cancel()
        if taken is None or came is None:
            return
        said = self._document.project.marks.write_fine(came.value)
        self._document.do(f"{tr(_WORDS.get(came.figure, taken.what))} {said}", taken.change(came))

    def cancel(self) -> None:
        if self._came is not None:
            self._document.preview(None)
        self._taken = self._came = None
        self._bench.overlay = Drawing()

    def cursor(self, at: Point, ref: Ref | None) -> Qt.CursorShape:
        taken = self._under(at)
        if taken is None or isinstance(ref, QuantityRef):
            return Qt.CursorShape.PointingHandCursor if ref is not None else Qt.CursorShape.ArrowCursor
        return Qt.CursorShape.SizeVerCursor if taken.upright else Qt.CursorShape.SizeHorCursor
