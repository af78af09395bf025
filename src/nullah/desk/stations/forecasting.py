"""The forecast on the desk: what is cut before flattening, lows that may stay, and sizes as they really went."""

from __future__ import annotations

from collections.abc import Callable
from datetime import date

from PySide6.QtWidgets import QCheckBox

from nullah.core import actions
from nullah.core.breakdown.layout import FirstCut
from nullah.core.catalogue import N_
from nullah.core.ledger import Measured
from nullah.core.lengths import Length, from_float
from nullah.core.piece.part import Part
from nullah.core.stations.stock import selected_board
from nullah.desk.bench import Bench
from nullah.desk.document import Document
from nullah.desk.fields import ValueField
from nullah.desk.stations.base import Section, action, chooser, labelled, words
from nullah.desk.stations.group import Group
from nullah.instruments.shape_gauges import SimulatedGauges
from nullah.language import tr, tr_pairs

_WAYS = [("cross", N_("crosscut")), ("rip", N_("rip"))]
_SIZES = (N_("length"), N_("width"), N_("thickness"))


class ForecastRows(Group):
    """One tick for each board that has parts on it; a first cut through the board in hand; lows; and measured sizes.

    `today` and `gauges` may be put in the place of the clock and of the simulated calliper.
    """

    def __init__(self, document: Document, bench: Bench, row: Callable[[str], Section]) -> None:
        super().__init__(document, bench)
        self.today: Callable[[], date] = date.today
        self.gauges = SimulatedGauges()
        self._row = row(tr("Cut first, then flatten"))
        self.ticks: dict[str, QCheckBox] = {}
        second = row(tr("Cut before flattening"))
        self.way = chooser(tr("way of the first cut"), tr_pairs(_WAYS), lambda _: None, second, tr("First cut"))
        self.at = ValueField(tr("where the first cut is"), width=64)
        self.at.line.setMaximumWidth(80)
        self.at.entered.connect(self._cut_at)
        labelled(tr("cut at"), self.at, second)
        self.no_cut = action(tr("No cut"), self._no_cut, second)
        self.lows = ValueField(tr("lows that may stay"), width=56)
        self.lows.line.setMaximumWidth(70)
        self.lows.entered.connect(self._leave_lows)
        labelled(tr("Lows left on hidden faces"), self.lows, second)
        self.keep(second)
        third = row(tr("As it went"))
        self.part_name = words("", third)
        self.sizes: dict[str, ValueField] = {}
        for name in _SIZES:
            field = ValueField(tr("measured {name}", name=tr(name)), width=64)
            field.line.setMaximumWidth(80)
            field.entered.connect(lambda value, name=name: self._measured(name, value))
            self.sizes[name] = field
            labelled(tr(name), field, third)
        self.calliper = action(tr("Read the caliper"), self.read_calliper, third)
        self.calliper.setToolTip(tr("The simulated one, about what is planned: to try"))
        self.keep(third)

    def show_group(self, shown: bool) -> None:
        super().show_group(shown)
        for tick in self.ticks.values():
            tick.setVisible(shown)

    def refresh(self) -> None:
        used = {b.board.id: b.board.name for b in self.document.plan.boards if b.placed}
        if list(used) != list(self.ticks):
            for tick in self.ticks.values():
                self._row.removeWidget(tick)
                tick.hide()
                tick.deleteLater()
            self.ticks = {board: self._tick(board, index + 1) for index, board in enumerate(used)}
        for board, tick in self.ticks.items():
            tick.setText(used[board])
            tick.setAccessibleName(tr("Cut {board} first", board=used[board]))
            tick.setChecked(board in self.document.project.cut_first)
        self._show_cut()
        self._show_sizes()

    def _show_cut(self) -> None:
        project = self.document.project
        marks, board = project.marks, selected_board(self.document.plan, self.document.selection)
        cut = project.first_cut(board.id) if board is not None else None
        self.at.set_unit(marks.unit)
        self.at.setEnabled(board is not None)
        self.at.show_value("" if cut is None else marks.write(from_float(cut.at)))
        if cut is not None:
            self.way.setCurrentIndex(0 if cut.crosswise else 1)
        self.no_cut.setEnabled(cut is not None)
        self.lows.set_unit(marks.unit)
        self.lows.show_value(marks.write_to_edit(project.lows_left))

    def _show_sizes(self) -> None:
        part, marks = self._part(), self.document.project.marks
        self.part_name.setText(part.name.capitalize() if part is not None else tr("Pick a part"))
        measured = dict(self.document.project.piece.measured)
        for name, field in self.sizes.items():
            field.set_unit(marks.unit)
            field.setEnabled(part is not None)
            found = measured.get(part.quantities[_SIZES.index(name)]) if part is not None else None
            value = found.value if found is not None else None
            field.show_value(marks.write_to_edit(value) if isinstance(value, Length) else "")
        self.calliper.setEnabled(part is not None)

    def _part(self) -> Part | None:
        return self.document.plan.part(self.document.selection.part)

    # --- what is done ---

    def _tick(self, board: str, place: int) -> QCheckBox:
        tick = QCheckBox()
        tick.setProperty("line", "own")
        tick.clicked.connect(lambda first: self._cut_first(board, first))
        self._row.insert(place - 1, tick)
        return tick

    def _cut_first(self, board: str, first: bool) -> None:
        name = self.ticks[board].text()
        words_for = tr("cut {name} first", name=name) if first else tr("flatten {name} whole", name=name)
        self.document.do(words_for, lambda p: actions.cut_first(p, board, first))

    def _cut_at(self, at: object) -> None:
        board = selected_board(self.document.plan, self.document.selection)
        if board is None or not isinstance(at, Length):
            return
        crosswise = self.way.currentData() == "cross"
        most = board.length if crosswise else board.width
        if not 5 < float(at) < float(most) - 5:
            said = (
                tr("{name} is {length} long: cut it within that.", name=board.name, length=most.as_text())
                if crosswise
                else tr("{name} is {width} wide: cut it within that.", name=board.name, width=most.as_text())
            )
            self.at.complain(said)
            return
        cut = FirstCut(board.id, crosswise, float(at))
        self.at.line.setModified(False)
        verb = tr("crosscut") if crosswise else tr("rip")
        self.document.do(
            tr("{verb} {name} at {at} first", verb=verb, name=board.name, at=at.as_text()),
            lambda p: actions.cut_at(p, board.id, cut),
        )

    def _no_cut(self) -> None:
        board = selected_board(self.document.plan, self.document.selection)
        if board is not None:
            self.document.do(
                tr("no cut through {name} first", name=board.name), lambda p: actions.cut_at(p, board.id, None)
            )

    def _leave_lows(self, lows: object) -> None:
        if isinstance(lows, Length):
            sentence = self.document.do(
                tr("leave lows of {depth}", depth=lows.as_text()), lambda p: actions.leave_lows(p, lows)
            )
            if sentence:
                self.lows.complain(sentence)
            else:
                self.lows.line.setModified(False)
                self.bench.setFocus()

    def _measured(self, name: str, value: object) -> None:
        part = self._part()
        if part is None or not isinstance(value, Length):
            return
        if value.mm <= 0:
            self.sizes[name].complain(tr("More than nothing."))
            return
        self._enter(part, name, value, "")
        self.sizes[name].line.setModified(False)

    def _enter(self, part: Part, name: str, value: Length, tool: str) -> None:
        quantity = part.quantities[_SIZES.index(name)]
        reading = Measured(value, self.today().isoformat(), tool)
        self.document.do(
            tr("{name}: {what} {length}, measured", name=part.name, what=tr(name), length=value.as_text()),
            lambda p: actions.measure(p, quantity, reading),
        )

    def read_calliper(self) -> None:
        """Take the thickness of the part in hand with the simulated calliper: about what it is planed to."""
        part = self._part()
        if part is not None:
            forecast = self.document.plan.forecast_of(part.id)
            true = min(part.thickness, forecast.reach) if forecast is not None else part.thickness
            self._enter(part, "thickness", self.gauges.calliper(true, part.id), N_("with the simulated caliper"))
