"""Breakdown on the desk: laying the parts out, by search and by hand."""

from __future__ import annotations

from dataclasses import replace

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent

from nullah.core import actions
from nullah.core.breakdown.layout import Placement, flaw_rect
from nullah.core.breakdown.search import Layout
from nullah.core.drawing import Drawing, Fill, Point, Role, drawing, rectangle
from nullah.core.lengths import Length
from nullah.core.stations.breakdown import place_on_bench
from nullah.core.stations.rack import board_places
from nullah.desk.bench import Bench, Tool
from nullah.desk.document import Document
from nullah.desk.fields import ValueField
from nullah.desk.search import SearchRunner
from nullah.desk.stations.base import StationDesk, action, labelled, words

_ALLOWANCES = (("end", "ends"), ("edge", "edges"), ("thickness", "faces"))


class BreakdownDesk(StationDesk):
    """The search, and what is left for saw and plane."""

    def __init__(self, document: Document, bench: Bench) -> None:
        super().__init__(document, bench)
        self.runner = SearchRunner()
        row = self.row()
        self.lay_out = action("Lay the parts out", self._start_or_stop, row, main=True)
        self.clear = action("Lift them all", self._lift_all, row)
        self.fields: dict[str, ValueField] = {}
        for name, title in _ALLOWANCES:
            field = ValueField(f"allowance, both {title}", width=66)
            field.line.setMaximumWidth(84)
            field.entered.connect(lambda value, n=name: self._allow(n, value))
            labelled(f"leave at {title}" if name == "end" else title, field, row)
            self.fields[name] = field
        self.kerf = ValueField("what the saw takes", width=66)
        self.kerf.line.setMaximumWidth(84)
        self.kerf.entered.connect(self._saw_takes)
        labelled("saw takes", self.kerf, row)
        self.progress = words("", row)
        self.runner.progress.connect(self._tell)
        self.runner.found.connect(self._found)
        self.tool = _PartTool(self)

    def refresh(self) -> None:
        project = self.document.project
        self.lay_out.setText("Stop" if self.runner.running else "Lay the parts out")
        self.lay_out.setEnabled(bool(project.boards and self.document.plan.rough))
        self.clear.setEnabled(bool(project.layout))
        self.kerf.set_unit(project.marks.unit)
        self.kerf.show_value(project.shop.kerf.as_text())
        for name, field in self.fields.items():
            field.set_unit(project.marks.unit)
            field.show_value(project.marks.write_entered(getattr(project.allowances, name)))

    def leave(self) -> None:
        self.runner.wait()

    def _start_or_stop(self) -> None:
        if self.runner.running:
            self.runner.stop()
        else:
            self.runner.start(self.document.plan)
            self.refresh()

    def _tell(self, text: str) -> None:
        self.progress.setText(text)
        self.updateGeometry()

    def _found(self, layout: Layout) -> None:
        """Take the best layout into the project, as one step that can be undone."""
        self.document.do("lay the parts out", lambda p: actions.accept_layout(p, layout.placements))
        self.refresh()

    def _lift_all(self) -> None:
        self.document.do("lift all parts", lambda p: actions.accept_layout(p, ()))
        self.progress.setText("")

    def _saw_takes(self, kerf: Length) -> None:
        if kerf.mm < 0:
            self.kerf.complain("It must be 0 or more.")
            return
        self.document.do(f"the saw takes {kerf.as_text()}", lambda p: actions.set_shop(p, replace(p.shop, kerf=kerf)))
        self.bench.setFocus()

    def _allow(self, name: str, value: Length) -> None:
        if value.mm < 0:
            self.fields[name].complain("It must be 0 or more.")
            return
        sizes = {name: value}
        self.document.do(
            f"leave {value.as_text()} at {dict(_ALLOWANCES)[name]}",
            lambda p: actions.set_allowances(p, replace(p.allowances, **sizes)),
        )
        self.bench.setFocus()


class _PartTool(Tool):
    """Moves a part on the boards; it snaps to edges, flaws and neighbours."""

    def __init__(self, desk: BreakdownDesk) -> None:
        self._desk = desk
        self._part = ""
        self._grip: Point = (0.0, 0.0)
        self._placement: Placement | None = None
        self._off = False
        self._moved = False

    def press(self, at: Point, of: str) -> bool:
        plan = self._desk.document.plan
        if self._desk.runner.running or plan.rough_part(of) is None:
            return False
        self._part, self._placement, self._off, self._moved = of, None, False, False
        corner = place_on_bench(plan, of)
        self._grip = (at[0] - corner[0], at[1] - corner[1])
        self._desk.document.pick_part(of)
        return True

    def drag(self, at: Point) -> None:
        plan = self._desk.document.plan
        rough = plan.rough_part(self._part)
        if rough is None:
            return
        left, top = at[0] - self._grip[0], at[1] - self._grip[1]
        start = place_on_bench(plan, self._part)
        self._moved = self._moved or max(abs(left - start[0]), abs(top - start[1])) > 4
        long, wide = float(rough.along), float(rough.across)
        self._placement, self._off = None, True
        for board_id, (board_left, board_top) in board_places(plan.project.boards).items():
            board = plan.project.board(board_id)
            if board is None:
                continue
            middle_x, middle_y = left + long / 2 - board_left, top + wide / 2 - board_top
            if 0 <= middle_x <= float(board.length) and 0 <= middle_y <= float(board.width):
                y = float(board.width) - (top - board_top) - wide
                self._placement = self._snapped(board_id, left - board_left, y, long, wide)
                self._off = False
                # Found: what comes now is only where it is shown.
                left, top = board_left + self._placement.x, board_top + float(board.width) - self._placement.y - wide
                break
        role = Role.CHALK if self._placement is not None else Role.HIDDEN
        self._desk.bench.overlay = drawing(rectangle(left, top, long, wide, role, Fill.LIT))

    def _snapped(self, board_id: str, x: float, y: float, long: float, wide: float) -> Placement:
        plan = self._desk.document.plan
        board_plan = next(b for b in plan.boards if b.board.id == board_id)
        board, kerf = board_plan.board, float(plan.project.shop.kerf)
        xs, ys = [0.0, float(board.length) - long], [0.0, float(board.width) - wide]
        for item in board_plan.placed:
            if item.part.id != self._part:
                xs += [item.rect.end + kerf, item.rect.x - kerf - long, item.rect.x]
                ys += [item.rect.top + kerf, item.rect.y - kerf - wide, item.rect.y]
        for flaw in board.flaws:
            rect = flaw_rect(flaw)
            xs += [rect.end, rect.x - long]
            ys += [rect.top, rect.y - wide]
        near = 12 / self._desk.bench.scale.per_mm
        return Placement(self._part, board_id, round(_snap(x, xs, near), 3), round(_snap(y, ys, near), 3))

    def release(self, at: Point) -> None:
        self.drag(at)
        part, placement, off, moved = self._part, self._placement, self._off, self._moved
        self.cancel()
        document = self._desk.document
        rough = document.plan.rough_part(part)
        if rough is None or not moved:
            return
        if placement is not None:
            board = document.project.board(placement.board)
            name = board.name if board else placement.board
            document.do(f"move {rough.name} to {name}", lambda p: actions.lay(p, placement))
        elif off:
            document.do(f"lift {rough.name}", lambda p: actions.lift(p, part))

    def cancel(self) -> None:
        self._part, self._placement = "", None
        self._desk.bench.overlay = Drawing()

    def cursor(self, at: Point, of: str) -> Qt.CursorShape:
        held = self._desk.document.plan.rough_part(of) is not None
        return Qt.CursorShape.OpenHandCursor if held else Qt.CursorShape.ArrowCursor

    def key(self, event: QKeyEvent) -> bool:
        """Move the part in hand with Shift and the arrows, by the smallest mark or ten; Delete lifts it."""
        document = self._desk.document
        part = document.hand.part
        placement = next((item for item in document.project.layout if item.part == part), None)
        rough = document.plan.rough_part(part)
        if placement is None or rough is None:
            return False
        if event.key() in (Qt.Key.Key_Delete, Qt.Key.Key_Backspace):
            document.do(f"lift {rough.name}", lambda p: actions.lift(p, part))
            return True
        ways = {
            Qt.Key.Key_Left: (-1, 0), Qt.Key.Key_Right: (1, 0), Qt.Key.Key_Up: (0, 1), Qt.Key.Key_Down: (0, -1),
        }  # fmt: skip
        way = ways.get(Qt.Key(event.key()))
        if way is None or not event.modifiers() & Qt.KeyboardModifier.ShiftModifier:
            return False
        step = 10.0 if event.modifiers() & Qt.KeyboardModifier.ControlModifier else 1.0
        moved = replace(placement, x=placement.x + way[0] * step, y=placement.y + way[1] * step)
        document.do(f"move {rough.name}", lambda p: actions.lay(p, moved))
        return True


def _snap(value: float, marks: list[float], near: float) -> float:
    nearest = min(marks, key=lambda mark: abs(mark - value))
    return nearest if abs(nearest - value) < near else value
