"""The row for moisture: readings of the board in hand and of the piece that lives in the room, typed or by meter."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from datetime import date

from PySide6.QtWidgets import QLineEdit, QWidget

from nullah.core import actions
from nullah.core.fraction import Fraction
from nullah.core.project import Project
from nullah.core.rack.board import Board, BoardError, Reading
from nullah.core.rack.drying import Room
from nullah.core.wording.facts import error_words
from nullah.desk.document import Document
from nullah.desk.stations.base import Section, action, entry, labelled, words
from nullah.instruments.moisture_meter import MeterError, MoistureMeter, SimulatedMeter, read_line
from nullah.language import tr


class MoistureRow:
    """Fields for readings and for the room's air; a meter that is plugged in fills them at a press.

    `today` and `meter` may be put in the place of the clock and of the simulated meter.
    """

    def __init__(self, document: Document, rows: Callable[[str], Section], board: Callable[[], Board | None]) -> None:
        self._document, self._board = document, board
        self.today: Callable[[], date] = date.today
        self.meter: MoistureMeter = SimulatedMeter()
        row = rows(tr("Moisture"))
        self.reading = entry(tr("moisture of the board, per cent"), 52, self._read_board)
        self.reference = entry(tr("moisture of the piece that lives in the room, per cent"), 52, self._read_reference)
        self.temperature = entry(tr("temperature of the room"), 52, self._set_air)
        self.humidity = entry(tr("humidity of the room"), 52, self._set_air)
        self._widgets: list[QWidget] = [
            labelled(tr("This board, %"), self.reading, row),
            labelled(tr("piece that lives in the room, %"), self.reference, row),
            action(tr("Read the meter"), self.press_pins, row),
            labelled(tr("or the room's air, °C"), self.temperature, row),
            labelled(tr("and its humidity, %"), self.humidity, row),
        ]
        self.sentence = words("", row)
        self._widgets.append(self.sentence)

    def show_row(self, shown: bool) -> None:
        """Show or hide the row."""
        for widget in self._widgets:
            widget.setVisible(shown)

    def refresh(self) -> None:
        """Show what is known."""
        board, room = self._board(), self._document.project.room
        latest = board.readings[-1].percent if board is not None and board.readings else None
        known = (
            (self.reading, latest),
            (self.reference, room.reference[-1].percent if room.reference else None),
            (self.temperature, room.temperature),
            (self.humidity, room.humidity),
        )
        for field, value in known:
            if not (field.hasFocus() and field.isModified()):
                field.setText("" if value is None else f"{float(value):g}")

    # --- what is entered ---

    def _say(self, sentence: str) -> None:
        self.sentence.setText(sentence)
        self.sentence.setProperty("weight", "fails" if sentence else "")

    def _read_board(self) -> None:
        board = self._board()
        percent = self._number(self.reading)
        if board is not None and percent is not None:
            self._enter_board(board, percent)

    def _enter_board(self, board: Board, percent: Fraction) -> None:
        reading = Reading(self.today().isoformat(), percent)
        self._do(f"{board.name}: {float(percent):g} %", lambda p: actions.read_moisture(p, board.id, reading))

    def _read_reference(self) -> None:
        percent = self._number(self.reference)
        if percent is not None:
            self._enter_reference(percent)

    def _enter_reference(self, percent: Fraction) -> None:
        room = self._document.project.room
        reading = Reading(self.today().isoformat(), percent)
        kept = tuple(old for old in room.reference if old.day != reading.day)
        changed = replace(room, reference=(*kept, reading))
        self._do(
            tr("the room's own piece: {percent:g} %", percent=float(percent)), lambda p: actions.set_room(p, changed)
        )

    def _set_air(self) -> None:
        room = self._document.project.room
        temperature = self._number(self.temperature) if self.temperature.text().strip() else None
        humidity = self._number(self.humidity) if self.humidity.text().strip() else None
        if humidity is not None and not 0 <= humidity <= 100:
            self._say(tr("Humidity runs from 0 to 100 %."))
            return
        changed = Room(temperature, humidity, room.reference)
        self._do(tr("the room's air"), lambda p: actions.set_room(p, changed))

    def press_pins(self) -> None:
        """Read the meter: on the board in hand, and on the room's own piece if that was not read today."""
        board = self._board()
        if board is None:
            return
        today = self.today()
        came = min((date.fromisoformat(reading.day) for reading in board.readings), default=today)
        days = (today - came).days
        room = self._document.project.room
        if not any(reading.day == today.isoformat() for reading in room.reference):
            self._enter_reference(self.meter.read("reference", days))
        self._enter_board(board, self.meter.read(board.name, days))

    def _number(self, field: QLineEdit) -> Fraction | None:
        """Read a field, as it is typed or as a meter types it; say what is wrong with it."""
        try:
            found = read_line(field.text())
        except MeterError as error:
            self._say(error_words(error))
            return None
        field.setModified(False)
        return found

    def _do(self, name: str, act: Callable[[Project], Project]) -> None:
        try:
            self._say(self._document.do(name, act))
        except BoardError as error:
            self._say(error_words(error))
