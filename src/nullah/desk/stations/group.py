"""A group of widgets in rows that is shown or hidden as one: the choices of one way of looking."""

from __future__ import annotations

from PySide6.QtWidgets import QWidget

from nullah.desk.bench import Bench
from nullah.desk.document import Document
from nullah.desk.stations.base import Flow


class Group:
    """Rows of one view: `widgets` are what is shown or hidden."""

    def __init__(self, document: Document, bench: Bench) -> None:
        self.document, self.bench = document, bench
        self.widgets: list[QWidget] = []

    def keep(self, row: Flow) -> None:
        """Take all that stands in a row into the group."""
        found = [row.itemAt(index) for index in range(row.count())]
        self.widgets += [widget for item in found if item is not None and (widget := item.widget()) is not None]

    def show_group(self, shown: bool) -> None:
        """Show or hide it."""
        for widget in self.widgets:
            widget.setVisible(shown)

    def refresh(self) -> None:
        """Show what the document holds now."""
