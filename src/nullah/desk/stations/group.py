"""Choices that are shown or hidden as one: those of one way of looking."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtWidgets import QPushButton, QWidget

from nullah.desk.bench import Bench
from nullah.desk.document import Document
from nullah.desk.stations.base import Section, StationDesk, action


class ViewChoices:
    """The verbs and sections of a page that stands in the place of the drawing; the sections come first of all."""

    def __init__(self, desk: StationDesk) -> None:
        self._desk = desk
        self._sections: list[Section] = []
        self._verbs: list[QWidget] = []

    def section(self, title: str) -> Section:
        """Begin a section of choices under a heading."""
        section = self._desk.section(title, len(self._sections))
        self._sections.append(section)
        return section

    def verb(self, text: str, act: Callable[[], object], main: bool = False) -> QPushButton:
        """Put something to do on the line above the page."""
        button = action(text, act, self._desk.line.verbs, main)
        self._verbs.append(button)
        return button

    def keep_on_line(self, widget: QWidget) -> None:
        """Put anything else on the line above the page."""
        self._desk.line.verbs.addWidget(widget)
        self._verbs.append(widget)

    def show_choices(self, shown: bool) -> None:
        """Show or hide all of it."""
        for widget in (*self._verbs, *(each for section in self._sections for each in section.widgets())):
            widget.setVisible(shown)


class Group:
    """Choices of one view: `widgets` are what is shown or hidden."""

    def __init__(self, document: Document, bench: Bench) -> None:
        self.document, self.bench = document, bench
        self.widgets: list[QWidget] = []

    def keep(self, section: Section) -> None:
        """Take all that stands in a section into the group."""
        self.widgets += section.widgets()

    def show_group(self, shown: bool) -> None:
        """Show or hide it."""
        for widget in self.widgets:
            widget.setVisible(shown)

    def refresh(self) -> None:
        """Show what the document holds now."""
