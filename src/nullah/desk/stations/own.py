"""Boards of one's own on the desk: added, named, laid, dragged on the drawing, joined and shaped."""

from __future__ import annotations

from collections.abc import Callable
from fractions import Fraction
from functools import partial
from pathlib import Path

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QComboBox, QFileDialog, QLabel, QLineEdit, QPushButton, QWidget

from nullah.core import actions
from nullah.core.drawing import Dimension, Drawing, Point, Role, drawing, rectangle
from nullah.core.lengths import Length, LengthError
from nullah.core.piece.contours import CONTOURS, Place, in_words, shaping_of, traced, usual
from nullah.core.piece.overlap import Joint, name_of_joint
from nullah.core.piece.own import LIES, OwnBoard, OwnJoint, offers
from nullah.core.piece.part import Part
from nullah.core.piece.shaping import Shaping
from nullah.core.plan import next_joint_number
from nullah.core.project import Project
from nullah.core.stations.piece import flat_at, plane_at, point_on
from nullah.core.stations.placing import Grip, added_board, gripped, moved, neighbours
from nullah.desk.bench import Bench, Tool
from nullah.desk.document import Document
from nullah.desk.fields import ValueField
from nullah.desk.stations.base import Flow, action, chooser, labelled, show_choice
from nullah.desk.stations.figures import Figure, FigureFields

_FIGURES = (
    Figure("length", "Long", width=52), Figure("width", "wide", width=48), Figure("thickness", "thick", width=42),
    Figure("x", "left", width=48), Figure("y", "front", width=48), Figure("z", "floor", width=48),
)  # fmt: skip
_LIES = dict(
    zip(
        ("xz", "xy", "yz", "yx", "zx", "zy"),
        ("along, flat", "along, on edge", "front to back, flat", "front to back, on edge", "upright, facing a side",
         "upright, facing front"),
        strict=True,
    )
)  # fmt: skip
_SEEN = (
    ("", "nowhere"), ("lrfbut", "all round"), ("f", "in front"), ("t", "on top"), ("ft", "in front, on top"),
    ("lft", "left, front, top"), ("rft", "right, front, top"),
)  # fmt: skip
_TRACED = "traced"
#: So close, in pixels, the pointer takes an edge, and an edge snaps to another.
_GRIP_PX, _SNAP_PX = 7, 9
assert set(_LIES) == set(LIES)


class OwnRows(QWidget):
    """The rows for the board of one's own in hand: its figures, how it lies, its joints, its contours."""

    def __init__(self, document: Document, bench: Bench, above: Flow, rows: Callable[[], Flow]) -> None:
        super().__init__()
        self._document, self._bench = document, bench
        self._first, self._second, self._third = rows(), rows(), rows()
        self.add = action("Add a board", self._add, above)
        self.name = QLineEdit()
        self.name.setAccessibleName("name of the board")
        self.name.setMaximumWidth(130)
        self.name.setMinimumHeight(32)
        self.name.editingFinished.connect(self._rename)
        self._first.addWidget(self.name)
        self.lies = chooser("how it lies", list(_LIES.items()), self._lay, self._first, "lies")
        self.seen = chooser("where it is seen", list(_SEEN), self._show, self._first, "seen")
        self.away = action("Take it away", self._remove, self._first)
        self.figures = FigureFields(document, bench, self._second, _FIGURES, units=False)
        self.joints = chooser("join it", [], self._join, self._second, "Joint")
        self.shape = QPushButton("Shape it")
        self.shape.setCheckable(True)
        self.shape.setProperty("tab", "true")
        self.shape.setMinimumHeight(32)
        self._second.addWidget(self.shape)
        self._make_contours(self._third)
        self._offers: list[tuple[str, OwnJoint | str]] = []

    def _make_contours(self, row: Flow) -> None:
        kinds = [(c.id, c.title) for c in CONTOURS.values()] + [(_TRACED, "Edge traced from a template")]
        self.kind = chooser("contour", kinds, lambda _: self._fill_places(), row)
        self.place = chooser("where the contour goes", [], lambda _: None, row, "at")
        self.sizes = [ValueField(f"contour figure {number}", width=54) for number in (1, 2, 3)]
        for field in self.sizes:
            field.line.setMaximumWidth(68)
            field.line.returnPressed.connect(self._cut)
        self._size_pairs = [labelled("", field, row) for field in self.sizes]
        self.points = QLineEdit()
        self.points.setAccessibleName("points of the template")
        self.points.setPlaceholderText("along, in; along, in; …")
        self.points.setMinimumWidth(220)
        row.addWidget(self.points)
        self.template = action("Template …", self._read_template, row)
        self.cut = action("Cut it so", self._cut, row, main=True)
        self.off = chooser("take a contour off", [], self._take_off, row, "Contours")
        self.told = QLabel()
        self.told.setProperty("weight", "fails")
        self.told.setTextFormat(Qt.TextFormat.PlainText)
        row.addWidget(self.told)
        self._contour_widgets = [self.kind, self.place.parentWidget(), *self._size_pairs, self.points, self.template,
                                 self.cut, self.off.parentWidget(), self.told]  # fmt: skip
        self._places: tuple[Place, ...] = ()
        self._places_for: tuple[object, ...] = ()

    # --- what is shown ---

    @property
    def board(self) -> OwnBoard | None:
        """The board of one's own in hand."""
        hand = self._document.hand.part
        return next((board for board in self._document.project.piece.own if board.id == hand), None)

    @property
    def part(self) -> Part | None:
        """That board as a part of the piece."""
        return self._document.plan.part(self._document.hand.part) if self.board is not None else None

    def refresh(self, shown: bool = True) -> None:
        """Show what the document holds now, or nothing."""
        self.add.setVisible(shown)
        board, part = (self.board, self.part) if shown else (None, None)
        for widget in (self.name, self.lies.parentWidget(), self.seen.parentWidget(), self.away,
                       self.joints.parentWidget(), self.shape):  # fmt: skip
            if widget is not None:
                widget.setVisible(board is not None)
        self.figures.prefix = f"{board.id}." if board is not None else "no."
        self.figures.refresh()
        shaping = board is not None and part is not None and self.shape.isChecked()
        for widget in self._contour_widgets:
            if widget is not None:
                widget.setVisible(shaping)
        if board is None:
            return
        if not self.name.hasFocus():
            self.name.setText(board.name)
        show_choice(self.lies, board.lie)
        show_choice(self.seen, board.shows)
        self._fill_joints()
        if shaping:
            self._fill_places()
            self._fill_off(board)

    def _fill_joints(self) -> None:
        plan, part = self._document.plan, self.part
        found: list[tuple[str, OwnJoint | str]] = []
        if part is not None:
            number = next_joint_number(plan.project.piece)
            for other in neighbours(plan.assembly, part):
                if not any({j.first, j.second} == {part.id, other.id} for j in plan.assembly.joints):
                    found += [(f"{offer.label} · {other.name}", offer.joint) for offer in offers(part, other, number)]
            for joint in plan.assembly.joints:
                if part.id in (joint.first, joint.second) and joint.id in self._own_joint_ids():
                    found.append((f"take apart: {self._joint_name(joint)}", joint.id))
        self._offers = found
        wanted = ["choose …" if found else "nothing beside it", *(label for label, _ in found)]
        if [self.joints.itemText(i) for i in range(self.joints.count())] != wanted:
            self.joints.clear()
            for index, label in enumerate(wanted):
                self.joints.addItem(label, index - 1)
        self.joints.setCurrentIndex(0)
        self.joints.updateGeometry()

    def _own_joint_ids(self) -> set[str]:
        """Give the ids the plan's joints have that are of one's own: they are named by their parts."""
        return {f"{joint.first}-{joint.second}" for joint in self._document.project.piece.own_joints}

    def _joint_name(self, joint: Joint) -> str:
        plan = self._document.plan
        first, second = plan.part(joint.first), plan.part(joint.second)
        if first is None or second is None:
            return joint.sharing.value
        return f"{name_of_joint(joint, first, second)}, {first.name} and {second.name}"

    def _fill_places(self) -> None:
        part, kind = self.part, str(self.kind.currentData())
        if part is None:
            return
        contour = CONTOURS.get(kind)
        marks = self._document.project.marks
        key = (part.id, part.box, part.grain, part.face, kind, marks.unit)
        if key == self._places_for:
            self._show_sizes(kind)
            return
        self._places_for = key
        self._places = (contour or CONTOURS["notch"]).places(part)
        self.place.clear()
        for index, place in enumerate(self._places):
            self.place.addItem(place.title, index)
        self.place.updateGeometry()
        if contour is not None:
            for field, size in zip(self.sizes, usual(contour, part), strict=False):
                field.set_unit(marks.unit)
                field.line.setText(marks.write(size, unit=False))
        self.told.setText("")
        self._show_sizes(kind)

    def _show_sizes(self, kind: str) -> None:
        contour = CONTOURS.get(kind)
        names = [name for name, _ in contour.figures] if contour is not None else []
        for index, pair in enumerate(self._size_pairs):
            pair.setVisible(index < len(names))
            label = pair.findChild(QLabel)
            if index < len(names) and isinstance(label, QLabel):
                label.setText(names[index])
                label.setMinimumWidth(label.sizeHint().width())
        self.points.setVisible(contour is None)
        self.template.setVisible(contour is None)
        self.told.setVisible(bool(self.told.text()))

    def _fill_off(self, board: OwnBoard) -> None:
        self.off.clear()
        self.off.addItem(f"{len(board.shapings)} cut" if board.shapings else "none", -1)
        for index, shaping in enumerate(board.shapings):
            self.off.addItem(f"take off: {in_words(shaping)}", index)
        self.off.updateGeometry()

    # --- what is done ---

    def _add(self) -> None:
        board = added_board(self._document.plan, self._document.project.piece.own)
        self._document.do(f"add {board.name}", lambda p: actions.add_own(p, board))
        self._document.pick_part(board.id)

    def _change(self, told: str, changed: OwnBoard) -> None:
        self._document.do(told, lambda p: actions.change_own(p, changed))

    def _rename(self) -> None:
        board, text = self.board, self.name.text().strip()
        if board is not None and text and text != board.name:
            self._change(f"name it {text}", board._replace(name=text))

    def _lay(self, lie: str) -> None:
        board = self.board
        if board is not None:
            self._change(f"lay {board.name} {_LIES[lie]}", board._replace(lie=lie))

    def _show(self, sides: str) -> None:
        board = self.board
        if board is not None:
            self._change(f"show {board.name} {dict(_SEEN)[sides]}", board._replace(shows=sides))

    def _remove(self) -> None:
        board = self.board
        if board is not None:
            self._document.do(f"take {board.name} away", lambda p: actions.remove_own(p, board.id))
            self._document.pick_part("")

    def _join(self, chosen: str) -> None:
        index = int(chosen)
        if not 0 <= index < len(self._offers):
            return
        label, what = self._offers[index]
        if isinstance(what, OwnJoint):
            joint = what
            self._document.do(f"join: {label}", lambda p: actions.join_own(p, joint))
        else:
            pair = what
            self._document.do(label, lambda p: _taken_apart(p, pair))

    def _cut(self) -> None:
        part, kind, index = self.part, str(self.kind.currentData()), self.place.currentIndex()
        if part is None or not 0 <= index < len(self._places):
            return
        sides = self._places[index].sides
        try:
            contour = CONTOURS.get(kind)
            if contour is None:
                text = self.points.text().replace(";", "\n")
                shaping: Shaping = traced(part, sides[0], text, self._document.project.marks.unit)
            else:
                sizes = [field.length() for field in self.sizes[: len(contour.figures)]]
                if any(size is None for size in sizes):
                    return
                shaping = shaping_of(contour, part, sides, [size for size in sizes if size is not None])
        except LengthError as error:
            self._tell(str(error))
            return
        self._tell("")
        self._reshape(f"cut: {in_words(shaping)}", lambda old: (*old, shaping))

    def _reshape(self, name: str, change: Callable[[tuple[Shaping, ...]], tuple[Shaping, ...]]) -> None:
        board = self.board
        if board is not None:
            self._change(name, board._replace(shapings=change(board.shapings)))

    def _take_off(self, chosen: str) -> None:
        board, index = self.board, int(chosen)
        if board is not None and 0 <= index < len(board.shapings):
            name = f"take off: {in_words(board.shapings[index])}"
            self._reshape(name, lambda old: (*old[:index], *old[index + 1 :]))

    def _read_template(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self, "A template's points", "", "Tables (*.csv *.txt)")
        if name:
            try:
                self.points.setText("; ".join(Path(name).read_text(encoding="utf-8-sig").splitlines()))
                self._tell("")
            except (OSError, UnicodeDecodeError) as error:
                self._tell(f"{name} cannot be read: {getattr(error, 'strerror', None) or 'it is not text'}.")

    def _tell(self, sentence: str) -> None:
        self.told.setText(sentence)
        self.told.setVisible(bool(sentence))

    def boxes(self) -> tuple[QComboBox, ...]:
        """Give the choices, for whoever looks for one."""
        return self.lies, self.seen, self.joints, self.kind, self.place, self.off


def _taken_apart(project: Project, pair: str) -> Project:
    for joint in project.piece.own_joints:
        if f"{joint.first}-{joint.second}" == pair:
            project = actions.part_own(project, joint.id)
    return project


class OwnTool(Tool):
    """Drags boards of one's own on the views: by their middle to another place, by an edge to another size."""

    def __init__(self, document: Document, bench: Bench) -> None:
        self._document, self._bench = document, bench
        self._grip: Grip | None = None
        self._new: dict[str, Fraction] = {}

    def _grip_at(self, at: Point, of: str) -> Grip | None:
        plan = self._document.plan
        part = plan.part(of)
        if part is None or not of.startswith("own"):
            return None
        found = plane_at(plan, at)
        if found is None:
            return None
        plane, local = found
        near = _GRIP_PX / self._bench.scale.per_mm
        return gripped(plane, part, plane.place(local), near)

    def press(self, at: Point, of: str) -> bool:
        self._grip = self._grip_at(at, of)
        self._new = {}
        if self._grip is None:
            return False
        self._document.pick_part(of)
        return True

    def drag(self, at: Point) -> None:
        plan, grip = self._document.plan, self._grip
        if grip is None:
            return
        plane = grip.plane
        local = point_on(plan, plane.view, at)
        near = _SNAP_PX / self._bench.scale.per_mm
        marks = plan.marks
        self._new, box = moved(plan.assembly, grip, plane.place(local), near,
                               lambda value: marks.to_mark(Length(value)).mm)  # fmt: skip
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
        word = "move" if grip.whole else "size"
        values = {name: Length(value) for name, value in new.items()}
        self._document.do(f"{word} {grip.part.name}", lambda p: actions.give_all(p, dict(values)))

    def cancel(self) -> None:
        self._grip, self._new = None, {}
        self._bench.overlay = Drawing()

    def cursor(self, at: Point, of: str) -> Qt.CursorShape:
        grip = self._grip_at(at, of)
        if grip is None:
            return Qt.CursorShape.ArrowCursor
        if grip.whole:
            return Qt.CursorShape.OpenHandCursor
        flat = grip.side is not None and grip.side.axis is grip.plane.axes[0]
        return Qt.CursorShape.SizeHorCursor if flat else Qt.CursorShape.SizeVerCursor

    def key(self, event: QKeyEvent) -> bool:
        """Move the board in hand with Shift and the arrows (and Page Up, Page Down for depth); Delete takes it away."""
        plan, hand = self._document.plan, self._document.hand.part
        part = plan.part(hand)
        if part is None or not hand.startswith("own") or plan.ledger is None:
            return False
        if event.key() == Qt.Key.Key_Delete:
            self._document.do(f"take {part.name} away", lambda p: actions.remove_own(p, hand))
            return True
        ways = {
            Qt.Key.Key_Left: ("x", -1), Qt.Key.Key_Right: ("x", 1), Qt.Key.Key_Down: ("z", -1), Qt.Key.Key_Up: ("z", 1),
            Qt.Key.Key_PageDown: ("y", -1), Qt.Key.Key_PageUp: ("y", 1),
        }  # fmt: skip
        way = ways.get(Qt.Key(event.key()))
        if way is None or not event.modifiers() & Qt.KeyboardModifier.ShiftModifier:
            return False
        step = 10 if event.modifiers() & Qt.KeyboardModifier.ControlModifier else 1
        name = f"{hand}.{way[0]}"
        to = Length(plan.ledger[name] + step * way[1])
        self._document.do(f"move {part.name}", partial(actions.give, name=name, value=to))
        return True
