"""How this piece is worked at, on the desk: its glue, the day to begin; and the calendar as a file."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from datetime import datetime
from pathlib import Path

from PySide6.QtWidgets import QComboBox, QFileDialog, QWidget

from nullah.core.bench.working import GLUES, Working
from nullah.core.limits import quoted, read_day
from nullah.core.project import Project
from nullah.core.wording.facts import error_words
from nullah.core.work.day_book import WorkState
from nullah.desk.document import Document
from nullah.desk.stations.base import Section, action, chooser, entry, labelled, show_choice, words
from nullah.language import tr, tr_pairs


class WorkingRow:
    """The glue and the day to begin."""

    def __init__(
        self,
        document: Document,
        rows: Callable[[str], Section],
        stand: Callable[[], WorkState],
        clock: Callable[[], datetime],
        offer_shop: Callable[[str], QWidget],
    ) -> None:
        self._document, self._stand, self._clock = document, stand, clock
        row = rows(tr("Glue-ups and days"))
        self.glue: QComboBox = chooser(
            tr("glue"), tr_pairs((name, name) for name in GLUES), self._take_glue, row, tr("Glue")
        )
        pair = self.glue.parentWidget()
        self.begin = entry(tr("day to begin"), 104, self._take_begin)
        self.begin.setPlaceholderText("2026-12-05")
        self._widgets: list[QWidget] = [
            *([pair] if pair is not None else []),
            labelled(tr("day to begin"), self.begin, row),
            action(tr("Export the calendar …"), self._ask_calendar, row),
        ]
        self.said = words("", row)
        self._widgets += [self.said, offer_shop(tr("Hours, clamps and people"))]

    def show_row(self, shown: bool) -> None:
        """Show the rows with how one works now, or hide them."""
        for widget in self._widgets:
            widget.setVisible(shown)
        working = self._document.project.working
        if not (self.begin.hasFocus() and self.begin.isModified()):
            self.begin.setText(working.begin)
        show_choice(self.glue, working.glue)

    def _change(self, name: str, working: Working) -> None:
        self._say("")

        def changed(project: Project) -> Project:
            return replace(project, working=working)

        self._document.do(name, changed)

    def _take_glue(self, glue: str) -> None:
        self._change(tr("glue with {glue}", glue=tr(glue)), self._document.project.working._replace(glue=tr(glue)))

    def _take_begin(self) -> None:
        text = self.begin.text().strip()
        try:
            day = read_day(text).isoformat() if text else ""
        except ValueError:
            self._say(tr("{typed} is not a day, such as 2026-12-05.", typed=quoted(text)))
            return
        self.begin.setModified(False)
        self._change(tr("day to begin"), self._document.project.working._replace(begin=day))

    def _ask_calendar(self) -> None:
        start = str(Path.home() / "day-book.ics")
        name, _ = QFileDialog.getSaveFileName(self.begin, tr("Write the calendar"), start, tr("Calendars (*.ics)"))
        if name:
            self.write_calendar(Path(name))

    def write_calendar(self, path: Path) -> None:
        """Write the sessions at the bench as iCalendar, and say so."""
        from nullah.files.calendar import CalendarError, write_calendar

        calendar = self._stand().calendar
        if calendar is None or not calendar.stints:
            self._say(tr("There is nothing to put into a calendar."))
            return
        try:
            piece = self._document.project.piece
            identity = f"{piece.form} {self._document.file or ''}"
            count = write_calendar(
                path, piece.name, calendar.stints, self._clock(), self._document.plan.reader, identity
            )
        except CalendarError as error:
            self._say(error_words(error))
            return
        self._say(tr("{count} sessions are in {name}.", count=count, name=path.name))

    def _say(self, sentence: str) -> None:
        self.said.setText(sentence)
        self.said.setMinimumWidth(0)
