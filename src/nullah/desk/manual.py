"""The manual that ships: a page for each station, a glossary, all keys; F1 opens the page of the station in hand."""

from __future__ import annotations

from importlib.resources import files
from typing import TYPE_CHECKING

from PySide6.QtCore import Qt, QUrl
from PySide6.QtGui import QKeySequence, QTextCharFormat, QTextCursor
from PySide6.QtWidgets import QDialog, QHBoxLayout, QListWidget, QListWidgetItem, QTextBrowser

from nullah.core.catalogue import N_
from nullah.core.stations import STATIONS
from nullah.language import locale, tr
from nullah.paper.lettering import typeface
from nullah.paper.palette import Palette

if TYPE_CHECKING:
    from nullah.desk.window import Window

_KEYS = "keys"
#: Room between paragraphs, and the height of headings, pixels.
_BETWEEN, _HEADING, _SUBHEADING = 9, 24, 18
#: Keys of the bench, which stand in no menu.
_BENCH = (
    (N_("Left, Right"), N_("go through what can be picked or typed on the bench")),
    (N_("Return"), N_("take it")),
    ("F4", N_("a pointer that keys move: arrows move it (Shift finely, Ctrl far), Space presses and lets go")),
    (N_("Ctrl and arrows"), N_("move the drawing")),
    (N_("Menu, Shift+F10"), N_("what can be done with it")),
    ("+, −, 0, 1", N_("zoom in, zoom out, fit, true size")),
    (N_("Space and drag, middle button"), N_("move the drawing")),
    (N_("Shift and arrows"), N_("move a board of one's own; Page up and down in depth; with Ctrl ten times as far")),
    (N_("Delete"), N_("delete the flaw or board that is picked")),
    (N_("Escape"), N_("give up what is being dragged or typed")),
    ("Ctrl+Return", N_("the task of the Day Book is done")),
)


class _Page(QTextBrowser):
    """A page of the manual; its pictures are made by the program."""

    def __init__(self, palette: Palette) -> None:
        super().__init__()
        self._palette = palette

    def loadResource(self, kind: int, name: QUrl | str) -> object:
        url = QUrl(name)
        if url.scheme() == "picture":
            from nullah.desk.manual_pictures import picture_of

            return picture_of(url.path(), self._palette)
        return super().loadResource(kind, url)

    def show_page(self, text: str) -> None:
        """Show a page that is written in Markdown, with room between its paragraphs."""
        self.setMarkdown(text)
        cursor = QTextCursor(self.document())
        while True:
            shape = cursor.blockFormat()
            level = shape.headingLevel()
            shape.setBottomMargin(_BETWEEN)
            shape.setTopMargin(_BETWEEN if level else 0)
            cursor.setBlockFormat(shape)
            if level:
                letters = QTextCharFormat()
                letters.setFont(typeface(_HEADING if level == 1 else _SUBHEADING, bold=True))
                cursor.select(QTextCursor.SelectionType.BlockUnderCursor)
                cursor.mergeCharFormat(letters)
            if not cursor.movePosition(QTextCursor.MoveOperation.NextBlock):
                break
        self.moveCursor(QTextCursor.MoveOperation.Start)


class Manual(QDialog):
    """Pages at the left, the page at the right."""

    def __init__(self, window: Window) -> None:
        super().__init__(window)
        self.setWindowTitle(tr("Manual"))
        self.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        self.resize(860, 620)
        self._window = window
        row = QHBoxLayout(self)
        self.pages = QListWidget()
        self.pages.setAccessibleName(tr("Pages of the manual"))
        self.pages.setMaximumWidth(190)
        self.page = _Page(window.appearance.palette)
        self.page.setAccessibleName(tr("Page of the manual"))
        self.page.setOpenLinks(False)
        row.addWidget(self.pages)
        row.addWidget(self.page, 1)
        for name, title in self._titles():
            item = QListWidgetItem(title)
            item.setData(Qt.ItemDataRole.UserRole, name)
            self.pages.addItem(item)
        self.pages.currentItemChanged.connect(lambda item: self._show(str(item.data(Qt.ItemDataRole.UserRole))))

    @staticmethod
    def _titles() -> list[tuple[str, str]]:
        first = ("first-box", tr("A first box"))
        return [
            first,
            *((station.id, tr(station.title)) for station in STATIONS),
            ("glossary", tr("Glossary")),
            (_KEYS, tr("Keys")),
        ]

    @classmethod
    def open_at(cls, window: Window, name: str) -> Manual:
        """Open the manual at a page."""
        manual = cls(window)
        names = [each for each, _ in cls._titles()]
        manual.pages.setCurrentRow(names.index(name) if name in names else 0)
        manual.show()
        manual.page.setFocus()
        return manual

    def _show(self, name: str) -> None:
        self.page.show_page(self._keys() if name == _KEYS else page_text(name))

    def _keys(self) -> str:
        """Return all keys as a page: those of the menus as they are, so that none is told otherwise."""
        lines = ["# Keys", "", tr("| Key | What it does |"), "|---|---|"]
        for action in self._window.menus.actions:
            keys = ", ".join(key.toString(QKeySequence.SequenceFormat.NativeText) for key in action.shortcuts())
            if keys:
                lines.append(f"| {keys} | {action.text().replace('&', '').partition(':')[0]} |")
        lines += [f"| {tr(keys)} | {tr(what)} |" for keys, what in _BENCH]
        return "\n".join(lines)


def page_text(name: str) -> str:
    """Return a page of the manual, as Markdown: in the folder of the language in use, or else as it is written."""
    pages = files("nullah") / "manual"
    page = pages / locale() / f"{name}.md"
    return (page if page.is_file() else pages / f"{name}.md").read_text(encoding="utf-8")
