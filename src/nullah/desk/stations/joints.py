"""Joints on the desk: which joint, its figures to be typed, and practice."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

from PySide6.QtWidgets import QComboBox

from nullah.core import actions
from nullah.core.catalogue import N_
from nullah.core.joints.dovetail.corners import Corner
from nullah.core.joints.dovetail.spacing import SPACINGS
from nullah.core.joints.kinds import JointGroup, kinds_of
from nullah.core.ledger import QuantityKind
from nullah.core.refs import PartRef, Ref
from nullah.core.stations.selected_joint import selected_kind
from nullah.core.wording.ledger import refusal
from nullah.core.wording.piece import group_words
from nullah.core.work.joint_work import corner_of_kind
from nullah.desk.bench import Bench
from nullah.desk.document import Document
from nullah.desk.fields import ValueField
from nullah.desk.stations.as_it_is import AsItIs
from nullah.desk.stations.base import Section, StationDesk, Verb, chooser, labelled, reach, show_choice
from nullah.desk.stations.fastening import FasteningFields
from nullah.desk.stations.figures import FigureField, FigureFields
from nullah.desk.stations.joints_tool import JointsTool
from nullah.desk.stations.practising import PracticeRow
from nullah.desk.stations.spacing import SpacingChoice
from nullah.desk.stations.stepping import Stepping
from nullah.language import tr, tr_pairs

_CORNER = (
    FigureField("count", N_("Tails"), QuantityKind.COUNT, 52),
    FigureField("slope", N_("slope"), QuantityKind.SLOPE, 62),
    FigureField("pin", N_("pin")),
    FigureField("half_pin", N_("half-pin")),
    FigureField("proud", N_("end grain proud")),
)


class JointsDesk(StationDesk):
    """Which joint; the figures behind it; the practice joint."""

    def __init__(self, document: Document, bench: Bench) -> None:
        super().__init__(document, bench)
        row = self.section(tr("This joint"))
        self.corners: QComboBox = chooser(tr("joint"), [], self._take_kind, row, tr("Joint"))
        self._figures = FigureFields(document, bench, row, _CORNER)
        self.tool = JointsTool(document, bench, self._shown_corner, self._shown_kind)
        self.fields = self._figures.fields
        self.spacing = SpacingChoice(document, row)
        self.others = _Named(document, bench, row)
        self.fastening = FasteningFields(document, bench, row)
        self.as_it_is = AsItIs(document, bench, row)
        self.steps = Stepping(document, self.line)
        self.practice = PracticeRow(document, self.section(tr("Practice joint")), self.refresh)
        self.offer_shop(tr("Tools and ways of working"))

    def _shown_corner(self) -> Corner | None:
        """Return the dovetailed corner that is drawn; None where something else is."""
        return corner_of_kind(self.document.plan, self._shown_kind())

    def _shown_kind(self) -> JointGroup | None:
        """Return the joint of the piece that is drawn with all its lines; None where something else is."""
        selection = self.document.selection
        if selection.joints.step is not None:
            return None
        return selected_kind(self.document.plan, selection)

    # --- what is picked ---

    def picked(self) -> Ref | None:
        return PartRef(self.document.selection.part) if self._shown_kind() is not None else None

    def verbs(self, ref: Ref) -> tuple[Verb, ...]:
        kind = self._shown_kind()
        if not isinstance(ref, PartRef) or kind is None:
            return ()
        corner, reader = corner_of_kind(self.document.plan, kind), self.document.plan.reader
        found = []
        if corner is not None:
            options = tuple((tr(name), partial(self.spacing.space, name)) for name in SPACINGS)
            found.append(Verb(tr("Spacing of tails"), options=options))
        if len(kind.joint.ways_to_hold) > 1:
            holds = tuple(
                (reader.text(hold.value), partial(self.fastening.hold_by, hold.value))
                for hold in kind.joint.ways_to_hold
            )
            found.append(Verb(tr("Held"), options=holds))
        return (
            *found,
            Verb(tr("Step by step"), self.steps.open.click),
            Verb(tr("Choose"), partial(reach, self.corners)),
        )

    # --- what is done ---

    def _take_kind(self, joint: str) -> None:
        selection = self.document.selection
        kind = next((kind for kind in kinds_of(self.document.plan.assembly) if kind.id == joint), None)
        if kind is None:
            return
        part = selection.part if kind.has(selection.part) else kind.first.part.id
        joints = selection.joints._replace(kind=joint)
        self.document.select(selection._replace(part=part, joints=joints))

    # --- what is shown ---

    def refresh(self) -> None:
        plan = self.document.plan
        kinds = kinds_of(plan.assembly)
        wanted = [(kind.id, group_words(kind, plan.reader)) for kind in kinds]
        shown = [(str(self.corners.itemData(i)), self.corners.itemText(i)) for i in range(self.corners.count())]
        if wanted != shown:
            self.corners.clear()
            for value, text in wanted:
                self.corners.addItem(text, value)
        pair = self.corners.parentWidget()
        if pair is not None:
            pair.setVisible(len(wanted) > 1)
        kind = selected_kind(plan, self.document.selection)
        if kind is not None:
            show_choice(self.corners, kind.id)
        prefix = kind.corner_prefix if kind is not None else ""
        self._figures.prefix = f"{prefix or 'tails'}."
        self._figures.refresh(bool(prefix))
        self.spacing.show_corner(corner_of_kind(plan, kind))
        self.others.show_kind(None if prefix else kind)
        self.fastening.show_kind(kind)
        self.as_it_is.show_kind(kind)
        self.steps.show_kind(kind)
        self.practice.refresh()


class _Named:
    """Fields for the figures of the ledger behind a joint: width, depth, stop, what enters it."""

    _TITLES = (
        ("width", N_("wide")),
        ("depth", N_("deep")),
        ("stop", N_("stopped")),
        ("guest", N_("what enters it")),
        ("notch", N_("notch")),
    )

    def __init__(self, document: Document, bench: Bench, row: Section) -> None:
        self._document, self._bench = document, bench
        self._names: dict[str, str] = {}
        self.fields: dict[str, ValueField] = {}
        self._pairs = {}
        for short, title in tr_pairs(self._TITLES):
            field = ValueField(title, width=66)
            field.line.setMaximumWidth(80)
            field.entered.connect(self._give(short, title))
            self.fields[short] = field
            self._pairs[short] = labelled(title, field, row)

    def show_kind(self, kind: JointGroup | None) -> None:
        """Show the figures of a joint that have a name, or none."""
        ledger, marks = self._document.plan.ledger, self._document.project.marks
        names = kind.joint.names._asdict() if kind is not None else {}
        known = {} if ledger is None else ledger.quantities
        self._names = {short: name for short, name in names.items() if name in known and short in self.fields}
        for short, field in self.fields.items():
            self._pairs[short].setVisible(short in self._names)
            field.set_unit(marks.unit)
            if ledger is not None and short in self._names:
                field.show_value(ledger.quantity(self._names[short]).write(marks))

    def _give(self, short: str, title: str) -> Callable[[object], None]:
        def give(value: object) -> None:
            from nullah.desk.fields import written

            name, ledger = self._names.get(short, ""), self._document.plan.ledger
            if not name or ledger is None or not isinstance(value, type(ledger.length(name))):
                return
            sentence = refusal(name, QuantityKind.LENGTH, value, self._document.plan.reader) or self._document.do(
                f"{title} {written(value)}", lambda p: actions.give(p, name, value)
            )
            if sentence:
                self.fields[short].complain(sentence)
            else:
                self._bench.setFocus()

        return give
