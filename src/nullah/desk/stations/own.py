"""Boards of one's own on the desk: named, laid, sized, joined and shaped."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

from PySide6.QtWidgets import QLineEdit, QWidget

from nullah.core import actions
from nullah.core.catalogue import N_
from nullah.core.forms.own_boards import OwnBoard, OwnJoint, next_own_joint_id, offers
from nullah.core.piece.joint import Joint
from nullah.core.piece.part import Part
from nullah.core.piece.shaping import Shaping
from nullah.core.project import Project
from nullah.core.stations.placing import neighbours
from nullah.core.wording.piece import offer_words
from nullah.desk.bench import Bench
from nullah.desk.document import Document
from nullah.desk.stations.base import Section, Verb, action, chooser, labelled, reach, show_choice, toggle
from nullah.desk.stations.contours import ContourRow
from nullah.desk.stations.figures import FigureField, FigureFields
from nullah.language import tr, tr_pairs

_FIGURES = (
    FigureField("length", N_("Long"), width=52),
    FigureField("width", N_("wide"), width=48),
    FigureField("thickness", N_("thick"), width=42),
    FigureField("x", N_("left"), width=48),
    FigureField("y", N_("front"), width=48),
    FigureField("z", N_("floor"), width=48),
)
_LIES = dict(
    zip(
        ("xz", "xy", "yz", "yx", "zx", "zy"),
        (
            N_("along, flat"),
            N_("along, on edge"),
            N_("front to back, flat"),
            N_("front to back, on edge"),
            N_("upright, facing a side"),
            N_("upright, facing front"),
        ),
        strict=True,
    )
)
_SEEN = (
    ("", N_("nowhere")),
    ("lrfbut", N_("all round")),
    ("f", N_("in front")),
    ("t", N_("on top")),
    ("ft", N_("in front, on top")),
    ("lft", N_("left, front, top")),
    ("rft", N_("right, front, top")),
)


class OwnRows(QWidget):
    """The choices for the board of one's own in hand: its figures, how it lies, its joints, its contours."""

    def __init__(self, document: Document, bench: Bench, rows: Callable[[str], Section]) -> None:
        super().__init__()
        self._document = document
        first = rows(tr("The board"))
        second, joining, self._shaping = rows(tr("Size and place")), rows(tr("Joints")), rows(tr("Shape"))
        self.name = QLineEdit()
        self.name.setAccessibleName(tr("name of the board"))
        self.name.setMaximumWidth(130)
        self.name.setMinimumHeight(32)
        self.name.editingFinished.connect(self._rename)
        labelled(tr("name"), self.name, first)
        self.lies = chooser(tr("how it lies"), tr_pairs(_LIES.items()), self._lay, first, tr("lies"))
        self.seen = chooser(tr("where it is seen"), tr_pairs(_SEEN), self._show, first, tr("seen"))
        self.away = action(tr("Remove board"), self._remove, first)
        self.figures = FigureFields(document, bench, second, _FIGURES, units=False)
        self.joints = chooser(tr("join it"), [], self._join, joining, tr("Join to"))
        self.shape = toggle(tr("Shape it"), self._shaping, lambda _: self.refresh())
        self._contours: ContourRow | None = None
        self._offers: list[tuple[str, OwnJoint | str]] = []

    @property
    def contours(self) -> ContourRow:
        """The row of contours, made when it is first wanted."""
        if self._contours is None:
            self._contours = ContourRow(self._document, self._shaping, self._reshape)
        return self._contours

    # --- what is shown ---

    @property
    def board(self) -> OwnBoard | None:
        """The board of one's own in hand."""
        selection = self._document.selection.part
        return next((board for board in self._document.project.piece.own if board.id == selection), None)

    @property
    def part(self) -> Part | None:
        """That board as a part of the piece."""
        return self._document.plan.part(self._document.selection.part) if self.board is not None else None

    def refresh(self, shown: bool = True) -> None:
        """Show what the document holds now, or nothing."""
        board, part = (self.board, self.part) if shown else (None, None)
        for widget in (
            self.name.parentWidget(),
            self.lies.parentWidget(),
            self.seen.parentWidget(),
            self.away,
            self.joints.parentWidget(),
            self.shape,
        ):
            if widget is not None:
                widget.setVisible(board is not None)
        self.figures.prefix = f"{board.id}." if board is not None else "no."
        self.figures.refresh()
        shaping = board is not None and part is not None and self.shape.isChecked()
        if shaping or self._contours is not None:
            self.contours.refresh(board if shaping else None, part)
        if board is None:
            return
        if not self.name.hasFocus():
            self.name.setText(board.name)
        show_choice(self.lies, board.lie)
        show_choice(self.seen, board.shows)
        self._fill_joints()

    def _fill_joints(self) -> None:
        plan, part = self._document.plan, self.part
        found: list[tuple[str, OwnJoint | str]] = []
        if part is not None:
            joint_id = next_own_joint_id(plan.project.piece.own_joints)
            for other in neighbours(plan.assembly, part):
                if not any({j.first, j.second} == {part.id, other.id} for j in plan.assembly.joints):
                    found += [
                        (f"{offer_words(offer, self._document.plan.reader)} · {other.name}", offer.joint)
                        for offer in offers(part, other, joint_id)
                    ]
            for joint in plan.assembly.joints:
                if part.id in (joint.first, joint.second) and joint.id in self._own_joint_ids():
                    found.append((tr("take apart: {joint}", joint=self._joint_name(joint)), joint.id))
        self._offers = found
        wanted = ["choose …" if found else tr("nothing beside it"), *(label for label, _ in found)]
        if [self.joints.itemText(i) for i in range(self.joints.count())] != wanted:
            self.joints.clear()
            for index, label in enumerate(wanted):
                self.joints.addItem(label, index - 1)
        self.joints.setCurrentIndex(0)
        self.joints.updateGeometry()

    def _own_joint_ids(self) -> set[str]:
        """Return the ids the plan's joints have that are of one's own: they are named by their parts."""
        return {f"{joint.first}-{joint.second}" for joint in self._document.project.piece.own_joints}

    def _joint_name(self, joint: Joint) -> str:
        plan = self._document.plan
        first, second = plan.part(joint.first), plan.part(joint.second)
        if first is None or second is None:
            return ""
        return tr(
            "{joint}, {first} and {second}",
            joint=tr(joint.type.name(joint, first, second)),
            first=first.name,
            second=second.name,
        )

    def verbs(self) -> tuple[Verb, ...]:
        """Return what can be done with the board in hand where it stands."""
        offered = [(label, index) for index, (label, _) in enumerate(self._offers)]
        return (
            Verb(tr("Lies"), options=tuple((text, partial(self._lay, lie)) for lie, text in tr_pairs(_LIES.items()))),
            Verb(
                tr("Join to"),
                options=tuple((label, partial(self._join, str(index))) for label, index in offered),
                enabled=bool(offered),
            ),
            Verb(tr("Size and place"), partial(reach, self.figures.fields["length"].line)),
            Verb(tr("Shape it"), self.shape.click),
            Verb(tr("Remove board"), self._remove),
        )

    # --- what is done ---

    def _change(self, told: str, changed: OwnBoard) -> None:
        self._document.do(told, lambda p: actions.change_own(p, changed))

    def _rename(self) -> None:
        board, text = self.board, self.name.text().strip()
        if board is not None and text and text != board.name:
            self._change(tr("name it {name}", name=text), board._replace(name=text))

    def _lay(self, lie: str) -> None:
        board = self.board
        if board is not None:
            self._change(tr("lay {name} {way}", name=board.name, way=tr(_LIES[lie])), board._replace(lie=lie))

    def _show(self, sides: str) -> None:
        board = self.board
        if board is not None:
            self._change(
                tr("show {name} {sides}", name=board.name, sides=tr(dict(_SEEN)[sides])), board._replace(shows=sides)
            )

    def _remove(self) -> None:
        board = self.board
        if board is not None:
            self._document.do(tr("take {name} away", name=board.name), lambda p: actions.remove_own(p, board.id))
            self._document.pick_part("")

    def _join(self, chosen: str) -> None:
        index = int(chosen)
        if not 0 <= index < len(self._offers):
            return
        label, what = self._offers[index]
        if isinstance(what, OwnJoint):
            joint = what
            self._document.do(tr("join: {joint}", joint=label), lambda p: actions.join_own(p, joint))
        else:
            pair = what
            self._document.do(label, lambda p: _taken_apart(p, pair))

    def _reshape(self, told: str, shapings: tuple[Shaping, ...]) -> None:
        board = self.board
        if board is not None:
            self._change(told, board._replace(shapings=shapings))


def _taken_apart(project: Project, pair: str) -> Project:
    for joint in project.piece.own_joints:
        if f"{joint.first}-{joint.second}" == pair:
            project = actions.part_own(project, joint.id)
    return project
