"""How one works, on the desk: hours of the week, glue, clamps, hands, the day to begin; and the calendar as a file."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from datetime import datetime
from functools import partial
from pathlib import Path

from PySide6.QtWidgets import QComboBox, QFileDialog, QLineEdit, QWidget

from nullah.core.bench.hours import DAYS, Hours, HoursError, read_hours, write_hours
from nullah.core.bench.working import GLUES, Working
from nullah.core.limits import quoted, read_count, read_day
from nullah.core.project import Project
from nullah.core.wording.facts import error_words
from nullah.core.work.day_book import WorkState
from nullah.desk.document import Document
from nullah.desk.stations.base import Section, action, chooser, entry, labelled, show_choice, words


class WorkingRow:
    """Fields for hours of each weekday, and what a glue-up has to reckon with."""

    def __init__(
        self,
        document: Document,
        rows: Callable[[str], Section],
        stand: Callable[[], WorkState],
        clock: Callable[[], datetime],
    ) -> None:
        self._document, self._stand, self._clock = document, stand, clock
        row = rows("Hours at the bench")
        self.hours: list[QLineEdit] = []
        self._widgets: list[QWidget] = []
        for number, day in enumerate(DAYS):
            field = entry(f"hours on {day}", 104, partial(self._take_hours, number))
            field.setPlaceholderText("none")
            self.hours.append(field)
            self._widgets.append(labelled(day, field, row))
        second = rows("Glue-ups and days")
        self.glue: QComboBox = chooser("glue", [(name, name) for name in GLUES], self._take_glue, second, "Glue")
        pair = self.glue.parentWidget()
        self.clamps = entry("clamps there are", 46, partial(self._take_number, "clamps"))
        self.people = entry("people glueing up", 46, partial(self._take_number, "people"))
        self.begin = entry("day to begin", 104, self._take_begin)
        self.begin.setPlaceholderText("2026-12-05")
        self._widgets += [
            *([pair] if pair is not None else []),
            labelled("clamps", self.clamps, second),
            labelled("people", self.people, second),
            labelled("begin", self.begin, second),
            action("Export the calendar …", self._ask_calendar, second),
        ]
        self.said = words("", second)
        self._widgets.append(self.said)

    def show_row(self, shown: bool) -> None:
        """Show the rows with how one works now, or hide them."""
        for widget in self._widgets:
            widget.setVisible(shown)
        working = self._document.project.working
        known = [
            *zip(self.hours, (write_hours(span) for span in working.hours.week), strict=True),
            (self.clamps, str(working.clamps)),
            (self.people, str(working.people)),
            (self.begin, working.begin),
        ]
        for field, text in known:
            if not (field.hasFocus() and field.isModified()):
                field.setText(text)
        show_choice(self.glue, working.glue)

    def _change(self, name: str, working: Working) -> None:
        self._say("")

        def changed(project: Project) -> Project:
            return replace(project, working=working)

        self._document.do(name, changed)

    def _take_hours(self, day: int) -> None:
        working = self._document.project.working
        try:
            span = read_hours(self.hours[day].text())
        except HoursError as error:
            self._say(error_words(error))
            return
        week = [span if number == day else each for number, each in enumerate(working.hours.week)]
        self.hours[day].setModified(False)
        self._change(f"hours on {DAYS[day]}", working._replace(hours=Hours(tuple(week))))

    def _take_glue(self, glue: str) -> None:
        self._change(f"glue with {glue}", self._document.project.working._replace(glue=glue))

    def _take_number(self, name: str) -> None:
        field = {"clamps": self.clamps, "people": self.people}[name]
        least, most = (1, 20) if name == "people" else (0, 999)
        number = read_count(field.text())
        if number is None or not least <= number <= most:
            self._say(f"{quoted(field.text())} {name}: from {least} to {most}.")
            return
        field.setModified(False)
        self._change(name, self._document.project.working._replace(**{name: number}))  # type: ignore[arg-type]

    def _take_begin(self) -> None:
        text = self.begin.text().strip()
        try:
            day = read_day(text).isoformat() if text else ""
        except ValueError:
            self._say(f"{quoted(text)} is not a day, such as 2026-12-05.")
            return
        self.begin.setModified(False)
        self._change("day to begin", self._document.project.working._replace(begin=day))

    def _ask_calendar(self) -> None:
        start = str(Path.home() / "day-book.ics")
        name, _ = QFileDialog.getSaveFileName(self.begin, "Write the calendar", start, "Calendars (*.ics)")
        if name:
            self.write_calendar(Path(name))

    def write_calendar(self, path: Path) -> None:
        """Write the sessions at the bench as iCalendar, and say so."""
        from nullah.files.calendar import CalendarError, write_calendar

        calendar = self._stand().calendar
        if calendar is None or not calendar.stints:
            self._say("There is nothing to put into a calendar.")
            return
        try:
            piece = self._document.project.piece
            identity = f"{piece.form} {self._document.file or ''}"
            count = write_calendar(path, piece.name, calendar.stints, self._clock(), identity)
        except CalendarError as error:
            self._say(error_words(error))
            return
        self._say(f"{count} sessions are in {path.name}.")

    def _say(self, sentence: str) -> None:
        self.said.setText(sentence)
        self.said.setMinimumWidth(0)
