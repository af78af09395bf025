"""Planes and grain on the desk: what is owned and how it is set, which way the grain rises, what the edge reads."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from nullah.core import actions
from nullah.core.lengths import Length
from nullah.core.milling.job import EdgeRead
from nullah.core.rack.board import Rise
from nullah.core.shop import USUAL_PLANES, Plane, PlaneKind
from nullah.core.stations.stock import selected_board
from nullah.desk.bench import Bench
from nullah.desk.document import Document
from nullah.desk.fields import ValueField
from nullah.desk.stations.base import Section, action, chooser, labelled, show_choice
from nullah.desk.stations.group import Group

_RISES = [(Rise.UNKNOWN.value, "not looked at"), (Rise.RIGHT.value, "to the right"), (Rise.LEFT.value, "to the left")]
_FIGURES = ("sole", "iron", "camber", "shaving")


class PlaneRows(Group):
    """Which planes there are with their figures; the grain of the board in hand; hump and light at its edge."""

    def __init__(self, document: Document, bench: Bench, row: Callable[[str], Section]) -> None:
        super().__init__(document, bench)
        first = row("Grain and edge")
        self.grain = chooser("which way the grain rises", _RISES, self._rises, first, "Grain rises to the upper face")
        self.hump = self._field("edge: hump in the middle", self._edge)
        labelled("Edge: hump", self.hump, first)
        self.light = self._field("edge: light under the square", self._edge)
        labelled("light under the square", self.light, first)
        self.keep(first)
        second = row("Planes")
        kinds = [(kind.value, kind.value) for kind in PlaneKind]
        self.kind = chooser("plane", kinds, lambda _: self.refresh(), second, "Plane")
        self.figures = {name: self._field(f"{name} of the plane", self._change) for name in _FIGURES}
        for name, field in self.figures.items():
            labelled(name, field, second)
        self.owned = action("", self._own, second)
        self.keep(second)

    def _field(self, name: str, entered: Callable[[], None]) -> ValueField:
        field = ValueField(name, width=52)
        field.line.setMaximumWidth(64)
        field.entered.connect(lambda _: entered())
        return field

    @property
    def _plane(self) -> Plane | None:
        return self.document.project.shop.plane(PlaneKind(str(self.kind.currentData())))

    def refresh(self) -> None:
        document, marks = self.document, self.document.project.marks
        board = selected_board(document.plan, document.selection)
        show_choice(self.grain, board.rises.value if board is not None else Rise.UNKNOWN.value)
        self.grain.setEnabled(board is not None)
        edge = EdgeRead(*document.selection.milling.edge) if document.selection.milling.edge is not None else EdgeRead()
        for field, value in ((self.hump, edge.hump), (self.light, edge.error)):
            field.set_unit(marks.unit)
            field.show_value(marks.write_short(value))
        plane = self._plane
        for name, field in self.figures.items():
            field.set_unit(marks.unit)
            field.setEnabled(plane is not None)
            field.show_value(marks.write_short(float(getattr(plane, name))) if plane is not None else "")
        self.owned.setText("I have none" if plane is not None else "I have one")
        self.owned.updateGeometry()

    # --- what is entered ---

    def _rises(self, value: str) -> None:
        board = selected_board(self.document.plan, self.document.selection)
        if board is not None:
            changed = replace(board, rises=Rise(value))
            self.document.do(
                f"{board.name}: grain rises {dict(_RISES)[value]}", lambda p: actions.change_board(p, changed)
            )

    def _edge(self) -> None:
        hump, light = self.hump.length(), self.light.length()
        if hump is None or light is None:
            return
        if light.mm < 0 or light.mm > 10:
            self.light.complain("Light of 0 to 10 mm.")
            return
        if abs(hump.mm) > 30:
            self.hump.complain("That wants a saw: up to 30 mm.")
            return
        self.hump.line.setModified(False)
        self.light.line.setModified(False)
        milling = self.document.selection.milling._replace(edge=(float(hump), float(light)))
        self.document.select(self.document.selection._replace(milling=milling))

    def _change(self) -> None:
        plane = self._plane
        values = {name: field.length() for name, field in self.figures.items()}
        given = {name: value for name, value in values.items() if value is not None}
        if plane is None or len(given) < len(values):
            return
        wrong = _wrong(given)
        if wrong:
            self.figures[wrong[0]].complain(wrong[1])
            return
        for field in self.figures.values():
            field.line.setModified(False)
        changed = plane._replace(
            sole=given["sole"], iron=given["iron"], camber=given["camber"], shaving=given["shaving"]
        )
        self._put(changed, f"change the {plane.kind.value}")

    def _own(self) -> None:
        kind = PlaneKind(str(self.kind.currentData()))
        if self._plane is None:
            self._put(next(plane for plane in USUAL_PLANES if plane.kind is kind), f"a {kind.value} is there")
            return
        kept = tuple(plane for plane in self.document.project.shop.planes if plane.kind is not kind)
        self.document.do(f"no {kind.value}", lambda p: actions.set_shop(p, replace(p.shop, planes=kept)))

    def _put(self, plane: Plane, name: str) -> None:
        there = {each.kind: each for each in self.document.project.shop.planes} | {plane.kind: plane}
        planes = tuple(there[kind] for kind in PlaneKind if kind in there)
        self.document.do(name, lambda p: actions.set_shop(p, replace(p.shop, planes=planes)))


def _wrong(values: dict[str, Length]) -> tuple[str, str] | None:
    """Say which figure of a plane cannot be, and why."""
    for name, least, most in (("sole", 100, 900), ("iron", 20, 80), ("camber", 0, 5), ("shaving", 0.005, 2)):
        if not least <= float(values[name]) <= most:
            return name, f"From {least:g} to {most:g} mm."
    return None
