"""The story of the piece: every line of its book, to be searched; photographs where they are still there."""

from __future__ import annotations

from datetime import datetime
from pathlib import Path

from PySide6.QtCore import QSize
from PySide6.QtGui import QIcon, QPixmap
from PySide6.QtWidgets import QLineEdit, QListWidget, QListWidgetItem, QVBoxLayout, QWidget

from nullah.core.bench.book import BookEntry, Event, found
from nullah.core.reader import Reader
from nullah.core.wording.dates import clock, day_of
from nullah.core.wording.durations import time_words
from nullah.desk.document import Document
from nullah.desk.text_label import TextLabel
from nullah.language import tr, tr_count

_PICTURE = 96


class BookPage(QWidget):
    """A search line over the list of entries, the newest first."""

    def __init__(self, document: Document) -> None:
        super().__init__()
        self._document = document
        column = QVBoxLayout(self)
        column.setContentsMargins(14, 10, 14, 10)
        self.search = QLineEdit()
        self.search.setAccessibleName(tr("search the book"))
        self.search.setPlaceholderText(tr("search: words of a task, a note, a part …"))
        self.search.setMinimumHeight(32)
        self.search.textChanged.connect(lambda _: self.refresh())
        self.list = QListWidget()
        self.list.setAccessibleName(tr("the book"))
        self.list.setWordWrap(True)
        self.list.setIconSize(QSize(_PICTURE, _PICTURE))
        self.told = TextLabel(wraps=True, quiet=True)
        for widget in (self.search, self.list, self.told):
            column.addWidget(widget)

    def refresh(self) -> None:
        """Show what is found."""
        book = self._document.project.book
        entries = found(book, self.search.text())
        self.list.clear()
        for entry in entries:
            item = QListWidgetItem(line_of(entry, self._document.plan.reader))
            if entry.event is Event.PHOTO:
                picture = QPixmap(entry.file)
                if not picture.isNull():
                    item.setIcon(QIcon(picture))
            self.list.addItem(item)
        whole = tr_count(len(book), "{n} line", "{n} lines")
        self.told.setText(
            tr("Nothing stands in the book yet.")
            if not book
            else whole
            if len(entries) == len(book)
            else tr("{entries} of {whole}", entries=len(entries), whole=whole)
        )


def line_of(entry: BookEntry, reader: Reader) -> str:
    """Write an entry as a line of the book."""
    when = datetime.fromisoformat(entry.at)
    words = f"{day_of(when, reader)}, {clock(when)} · {reader.text(entry.event.value)}"
    words += f": {entry.title}" if entry.title else ""
    if entry.event is Event.DONE:
        words += f" · {time_words(entry.minutes, reader)}" if entry.minutes else tr(" · not timed")
    if entry.text:
        words += f"\n{entry.text}"
    if entry.event is Event.PHOTO:
        there = Path(entry.file).is_file()
        words += f"\n{entry.file}" + ("" if there else tr(": the photograph is gone from there; the line stays."))
    return words
