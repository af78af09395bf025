"""Rack on the desk: adding boards, and marking flaws by dragging on them."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from fractions import Fraction

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QLineEdit

from nullah.core import actions
from nullah.core.drawing import Drawing, Fill, Point, Role, drawing, rectangle
from nullah.core.lengths import Length, Unit, from_float, inch
from nullah.core.rack.board import Board, BoardError, Flaw, FlawKind, read_price, write_price
from nullah.core.rack.sizes import SizeNameError, resolve_size
from nullah.core.stations.rack import board_places, find_board
from nullah.core.wood.movement import Cut
from nullah.core.wood.species import all_species
from nullah.desk.bench import Bench, Tool
from nullah.desk.document import Document
from nullah.desk.fields import ValueField
from nullah.desk.stations.base import StationDesk, action, chooser, labelled, show_choice, words

_KINDS = [
    (FlawKind.KNOT.value, "drag a knot"),
    (FlawKind.CHECK.value, "drag a check"),
    (FlawKind.SPLIT.value, "drag a split"),
    (FlawKind.SAP.value, "drag sap"),
    (FlawKind.WANE.value, "drag wane"),
    (FlawKind.RUNOUT.value, "drag run-out"),
]
_CUTS = [(Cut.FLAT.value, "flat-sawn"), (Cut.RIFT.value, "rift-sawn"), (Cut.QUARTER.value, "quarter-sawn")]
#: A drag shorter than this, in mm on the board, is a click.
_LEAST = 4.0


@dataclass(frozen=True, slots=True)
class _Grip:
    """What of a flaw is held: -1 none; which borders follow the pointer."""

    flaw: int
    start: bool
    end: bool
    low: bool
    high: bool


class RackDesk(StationDesk):
    """Adding boards and marking what is wrong with them."""

    def __init__(self, document: Document, bench: Bench) -> None:
        super().__init__(document, bench)
        self._make_adding()
        self._make_in_hand()
        self.tool = _FlawTool(self)

    def _make_adding(self) -> None:
        row = self.row()
        words("New board", row)
        self.fields = {name: ValueField(name, width=78) for name in ("length", "width", "thickness")}
        self.fields["width"].line.setToolTip("or as the yard names it: 1x12, 2x6, 4/4")
        for name, field in self.fields.items():
            field.line.setPlaceholderText(name)
            field.line.setMaximumWidth(110)
            field.entered.connect(lambda _: self.add_board())
            row.addWidget(field)
        self.species = chooser("species", [(name, name) for name in all_species()], lambda _: None, row)
        action("Put it on the rack", self.add_board, row, main=True)

    def _make_in_hand(self) -> None:
        row = self.row()
        self.name = QLineEdit()
        self.name.setAccessibleName("Name of the board")
        self.name.setMaxLength(40)
        self.name.setFixedWidth(92)
        self.name.editingFinished.connect(self._rename)
        labelled("In hand", self.name, row)
        self.kind = chooser("kind of flaw", _KINDS, self._change_kind, row)
        self.cut = chooser("how the board was cut", _CUTS, self._change_cut, row)
        self.board_species = chooser("species of the board", [(name, name) for name in all_species()],
                                     self._change_species, row)  # fmt: skip
        self.price = ValueField("what the board cost", width=60)
        self.price.line.setMaximumWidth(74)
        self.price.line.setToolTip("What the whole board cost; the cut list shares it out")
        self.price.line.returnPressed.disconnect()
        self.price.line.returnPressed.connect(self._pay)
        labelled("price", self.price, row)
        self.rub_out = action("Rub out", self.rub_flaw_out, row)
        self.take_off = action("Take off", self.remove_board, row)
        self.take_off.setToolTip("Take the board in hand off the rack")

    def refresh(self) -> None:
        unit = self.document.project.marks.unit
        for field in self.fields.values():
            field.set_unit(unit)
        board = self.board
        for widget in (self.cut, self.take_off, self.board_species, self.price):
            widget.setEnabled(board is not None)
        self.rub_out.setEnabled(board is not None and 0 <= self.document.hand.flaw < len(board.flaws))
        self.name.setEnabled(board is not None)
        if board is not None:
            if not self.name.hasFocus():
                self.name.setText(board.name)
                self.name.setCursorPosition(0)
            self.price.show_value(write_price(board.price))
            show_choice(self.cut, board.cut.value)
            show_choice(self.board_species, board.species)

    @property
    def board(self) -> Board | None:
        """The board in hand."""
        return find_board(self.document.plan, self.document.hand)

    def clicked(self, of: str) -> bool:
        kind, _, rest = of.partition("/")
        if kind not in ("board", "flaw"):
            return False
        board_id, _, number = rest.partition("/")
        flaw = int(number) if kind == "flaw" else -1
        self.document.set_hand(self.document.hand._replace(board=board_id, flaw=flaw))
        # A click on a length or width also opens it for typing, which is the frame's work.
        return kind == "flaw" or number == ""

    # --- actions ---

    def add_board(self) -> None:
        """Put the board that was typed on the rack."""
        self._resolve_yard_size()
        sizes = {name: field.length() for name, field in self.fields.items()}
        for name, size in sizes.items():
            if size is not None and size.mm <= 0:
                self.fields[name].complain("It must be more than nothing.")
                sizes[name] = None
        length, width, thickness = sizes["length"], sizes["width"], sizes["thickness"]
        if length is None or width is None or thickness is None:
            return
        number = actions.next_board_id(self.document.project)
        board = Board(number, f"Board {number}", str(self.species.currentData()), length, width, thickness)
        sentence = self.document.do(f"put {board.name} on the rack", lambda p: actions.add_board(p, board))
        if sentence:
            self.fields["length"].complain(sentence)
            return
        for field in self.fields.values():
            field.line.clear()
            field.line.setModified(False)
        self.document.set_hand(self.document.hand._replace(board=number, flaw=-1))
        self.fields["length"].line.setFocus()

    def _resolve_yard_size(self) -> None:
        """Turn a yard's name typed as the width, 1x12 or 4/4, into what it measures."""
        width, thickness = self.fields["width"], self.fields["thickness"]
        try:
            size = resolve_size(width.line.text())
        except SizeNameError:
            return
        if size.width is None:
            # Hardwood is sold in random widths, rough: the name tells only how thick it is.
            thickness.line.setText(size.rough_thickness.as_text())
            width.line.clear()
            return
        width.line.setText(size.width.as_text())
        thickness.line.setText(size.thickness.as_text())

    def remove_board(self) -> None:
        """Take the board in hand off the rack."""
        board = self.board
        if board is not None:
            self.document.do(f"take {board.name} off the rack", lambda p: actions.remove_board(p, board.id))
            self.document.set_hand(self.document.hand._replace(board="", flaw=-1))

    def rub_flaw_out(self) -> None:
        """Rub the flaw in hand out."""
        board, index = self.board, self.document.hand.flaw
        if board is not None and 0 <= index < len(board.flaws):
            kind = board.flaws[index].kind.value
            self.document.do(f"rub out the {kind} on {board.name}", lambda p: actions.remove_flaw(p, board.id, index))
            self.document.set_hand(self.document.hand._replace(flaw=-1))

    def _rename(self) -> None:
        name = self.name.text().strip()
        if self.board is not None and name and name != self.board.name:
            self._change_board(f"call it {name}", lambda board: replace(board, name=name))

    def _pay(self) -> None:
        try:
            price = read_price(self.price.line.text())
        except BoardError as error:
            self.price.complain(str(error))
            return
        self.price.line.setModified(False)
        self._change_board(f"price {write_price(price) or 'none'}", lambda board: replace(board, price=price))
        self.bench.setFocus()

    def _change_cut(self, value: str) -> None:
        self._change_board(f"cut {value}", lambda board: replace(board, cut=Cut(value)))

    def _change_species(self, value: str) -> None:
        self._change_board(f"species {value}", lambda board: replace(board, species=value))

    def _change_kind(self, value: str) -> None:
        """Change the kind of the flaw in hand, if there is one; else only what dragging marks."""
        board, index = self.board, self.document.hand.flaw
        if board is not None and 0 <= index < len(board.flaws) and board.flaws[index].kind.value != value:
            flaw = replace(board.flaws[index], kind=FlawKind(value))
            self.document.do(
                f"call it a {value} on {board.name}", lambda p: actions.change_flaw(p, board.id, index, flaw)
            )

    def _change_board(self, name: str, change: Callable[[Board], Board]) -> None:
        board = self.board
        if board is not None:
            changed = change(board)
            self.document.do(f"{board.name}: {name}", lambda p: actions.change_board(p, changed))


class _FlawTool(Tool):
    """Marks flaws on boards, moves their borders, moves them whole."""

    def __init__(self, desk: RackDesk) -> None:
        self._desk = desk
        self._board: Board | None = None
        self._corner: Point = (0.0, 0.0)
        self._from: Point = (0.0, 0.0)
        self._grip: _Grip | None = None
        self._flaw: Flaw | None = None

    def _find(self, at: Point) -> tuple[Board, Point] | None:
        """Give the board under a point and where its upper left corner lies."""
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

    def press(self, at: Point, of: str) -> bool:
        if of.startswith("board/") and of.count("/") == 2:
            return False
        found = self._find(at)
        if found is None:
            return False
        self._board, self._corner = found
        self._from = _on_board(*found, at)
        self._grip = self._grip_at(self._board, *self._from)
        self._flaw = None
        flaw = self._grip.flaw if self._grip else -1
        hand = self._desk.document.hand
        self._desk.document.set_hand(hand._replace(board=self._board.id, flaw=flaw))
        if flaw >= 0:
            show_choice(self._desk.kind, self._board.flaws[flaw].kind.value)
        return True

    def drag(self, at: Point) -> None:
        if self._board is None:
            return
        x, y = _on_board(self._board, self._corner, at)
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

    def _cut_to_board(self, kind: FlawKind, start: float, end: float, low: float, high: float) -> Flaw | None:
        """Give the flaw to whole marks and on the board, or None if nothing of it is left."""
        if self._board is None:
            return None
        unit = self._desk.document.project.marks.unit
        long, wide = self._board.length, self._board.width
        places = (
            max(_whole(start, unit), Length(long.mm * 0)), min(_whole(end, unit), long),
            max(_whole(low, unit), Length(wide.mm * 0)), min(_whole(high, unit), wide),
        )  # fmt: skip
        if places[0] >= places[1] or places[2] >= places[3]:
            return None
        return Flaw(kind, *places)

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
        self.cancel()
        if board is None or flaw is None:
            return
        document = self._desk.document
        if grip is None:
            number = len(board.flaws)
            document.do(f"mark a {flaw.kind.value} on {board.name}", lambda p: actions.add_flaw(p, board.id, flaw))
            document.set_hand(document.hand._replace(flaw=number))
        else:
            document.do(
                f"change the {flaw.kind.value} on {board.name}",
                lambda p: actions.change_flaw(p, board.id, grip.flaw, flaw),
            )

    def cancel(self) -> None:
        self._flaw = None
        self._board = None
        self._desk.bench.overlay = Drawing()

    def cursor(self, at: Point, of: str) -> Qt.CursorShape:
        found = self._find(at)
        if found is None:
            return Qt.CursorShape.PointingHandCursor if of else Qt.CursorShape.ArrowCursor
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
    """Give a point of the drawing in the board's own measure: x along, y up from its lower edge."""
    return at[0] - corner[0], float(board.width) - (at[1] - corner[1])


def _whole(millimetres: float, unit: Unit) -> Length:
    """Round a place that was dragged to what a hand means: a millimetre, or 1/16 inch."""
    if unit is Unit.INCH:
        return inch(Fraction(round(millimetres / 25.4 * 16), 16))
    return from_float(round(millimetres))
