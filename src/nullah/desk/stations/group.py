"""Sections of choices that are shown or hidden as one: the choices of one way of looking."""

from __future__ import annotations

from PySide6.QtWidgets import QWidget

from nullah.desk.bench import Bench
from nullah.desk.document import Document
from nullah.desk.stations.base import Section


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
