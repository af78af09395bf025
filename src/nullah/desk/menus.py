"""The menu bar: everything that can be done from anywhere, with its key."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from typing import Protocol

from PySide6.QtGui import QAction, QActionGroup, QKeySequence
from PySide6.QtWidgets import QMenu, QMenuBar

from nullah.core.catalogue import N_
from nullah.core.named_tuple import NamedTuple
from nullah.core.stations import STATIONS
from nullah.desk.appearance import Appearance
from nullah.desk.bench import Bench
from nullah.desk.column import CARD, CHOOSE
from nullah.desk.document import Document
from nullah.desk.papers import Papers
from nullah.desk.picked import Picked
from nullah.desk.settings import DAY_THEME, NIGHT_THEME, SYSTEM, Settings
from nullah.language import tr, tr_pairs

_THEMES = ((SYSTEM, N_("As the system")), (DAY_THEME, N_("Day")), (NIGHT_THEME, N_("Night")))


class Desk(Protocol):
    """What the menus ask of the window."""

    document: Document
    settings: Settings
    papers: Papers
    bench: Bench
    appearance: Appearance
    picked: Picked

    def menuBar(self) -> QMenuBar:
        """Return the menu bar."""

    def show_start(self) -> None:
        """Show the start page."""

    def close(self) -> bool:
        """Close the window."""

    def copy_drawing(self) -> None:
        """Copy what is shown."""

    def show_shop(self) -> None:
        """Show the tools and habits."""

    def show_preferences(self) -> None:
        """Show the preferences."""

    def show_station(self, number: int) -> None:
        """Go to a station."""

    def turn_column(self, side: int) -> None:
        """Show a side of the column."""

    def fold_column(self) -> None:
        """Fold the column away, or out."""

    def take_pointer(self) -> None:
        """Put a pointer that keys move on what is shown."""

    def go_to_choices(self) -> None:
        """Put the keyboard on the first choice."""

    def change_full_screen(self) -> None:
        """Fill the screen, or no longer."""

    def rename(self) -> None:
        """Put the keyboard on the name."""

    def add_board(self) -> None:
        """Add a board of one's own."""

    def show_manual(self, page: str = "") -> None:
        """Open the manual."""

    def show_tour(self) -> None:
        """Walk through a first box."""

    def show_about(self) -> None:
        """Say what this is."""


class Entry(NamedTuple):
    """A line of a menu: its words with a mnemonic, its key, and what it does."""

    text: str
    keys: str
    act: Callable[[], object]


class Menus:
    """Fills the menu bar of a window; what depends on the work is shown as it stands when a menu opens."""

    def __init__(self, window: Desk) -> None:
        self._window = window
        self.actions: list[QAction] = []
        self.entries: list[Entry] = []
        self._file()
        self._edit()
        self._view()
        self._piece()
        self._help()

    def _menu(self, title: str) -> QMenu:
        return self._window.menuBar().addMenu(title)

    def _add(self, menu: QMenu, *entries: Entry | None) -> list[QAction]:
        """Put entries into a menu; None is a line between them."""
        made: list[QAction] = []
        for entry in entries:
            if entry is None:
                menu.addSeparator()
                continue
            action = menu.addAction(entry.text)
            if entry.keys:
                action.setShortcuts([QKeySequence(keys) for keys in entry.keys.split("|")])
            action.triggered.connect(lambda _=False, act=entry.act: act())
            made.append(action)
            self.entries.append(entry)
        self.actions += made
        return made

    def _file(self) -> None:
        window, papers = self._window, self._window.papers
        exports = papers.exports
        menu = self._menu(tr("&File"))
        self._add(
            menu,
            Entry(tr("&New piece …"), "Ctrl+N", window.show_start),
            Entry(tr("&Open …"), "Ctrl+O", papers.ask_open),
        )
        self._recent = menu.addMenu(tr("Open &recent"))
        self._recent.aboutToShow.connect(self._fill_recent)
        self._add(
            menu,
            Entry(tr("Open the sa&mple piece"), "", papers.open_sample),
            None,
            Entry(tr("&Save"), "Ctrl+S", papers.save),
            Entry(tr("Save &as …"), "Ctrl+Shift+S", papers.ask_save),
            Entry(tr("Earlier &versions …"), "", papers.show_versions),
            Entry(tr("&Unsaved work …"), "", papers.show_kept),
            None,
        )
        self._add(
            menu.addMenu(tr("&Import")),
            Entry(tr("&Boards from a list …"), "", exports.ask_boards),
            Entry(tr("&Survey of the board in hand …"), "", exports.ask_survey),
        )
        self._add(
            menu.addMenu(tr("&Export")),
            Entry(tr("&What is shown …"), "", exports.ask_write_shown),
            Entry(tr("&All sheets into a folder …"), "Ctrl+E", exports.ask_sheets),
            Entry(tr("S&olids …"), "", exports.ask_solids),
            Entry(tr("&Rack as a list …"), "", exports.ask_rack),
        )
        self._add(
            menu,
            None,
            Entry(tr("&Print …"), "Ctrl+P", exports.ask_print),
            Entry(tr("Print what is s&hown …"), "Ctrl+Shift+P", exports.ask_print_shown),
            None,
            Entry(tr("&Quit"), "Ctrl+Q", window.close),
        )

    def _fill_recent(self) -> None:
        self._recent.clear()
        found = [path for path in self._window.settings.recent if path.is_file()]
        for path in found:
            action = self._recent.addAction(path.name.replace("&", "&&"))
            action.setToolTip(str(path))
            action.triggered.connect(lambda _=False, path=path: self._window.papers.open_path(path))
        if not found:
            self._recent.addAction(tr("Nothing yet")).setEnabled(False)

    def _edit(self) -> None:
        window = self._window
        menu = self._menu(tr("&Edit"))
        self._undo, self._redo = self._add(
            menu,
            Entry(tr("&Undo"), "Ctrl+Z", window.document.undo),
            Entry(tr("&Redo"), "Ctrl+Shift+Z|Ctrl+Y", window.document.redo),
        )
        self._add(
            menu,
            None,
            Entry(tr("&Copy the drawing"), "Ctrl+Shift+C", window.copy_drawing),
            None,
            Entry(tr("&My shop …"), "Ctrl+M", window.show_shop),
            Entry(tr("&Preferences …"), "Ctrl+,", window.show_preferences),
        )

    def name_steps(self) -> None:
        """Say in the menu what would be undone and done again."""
        document = self._window.document
        steps = ((self._undo, tr("&Undo"), document.undo_name), (self._redo, tr("&Redo"), document.redo_name))
        for action, word, name in steps:
            # An ampersand of a name is no mnemonic.
            action.setText(f"{word}: {name.replace('&', '&&')}" if name else word)

    def _view(self) -> None:
        window = self._window
        menu = self._menu(tr("&View"))
        self._add(
            menu,
            *(
                Entry(f"&{number + 1}  {tr(station.title)}", f"Ctrl+{number + 1}", partial(window.show_station, number))
                for number, station in enumerate(STATIONS)
            ),
            None,
            Entry(tr("&Card"), "F7", partial(window.turn_column, CARD)),
            Entry(tr("C&hoose"), "F8", partial(window.turn_column, CHOOSE)),
            Entry(tr("&Fold the column"), "F9", window.fold_column),
            Entry(tr("&Go to the first choice"), "F6", window.go_to_choices),
            Entry(tr("&Pointer moved by keys"), "F4", window.take_pointer),
            None,
            Entry(tr("Zoom &in"), "", partial(window.bench.zoom_middle, 1.25)),
            Entry(tr("Zoom &out"), "", partial(window.bench.zoom_middle, 0.8)),
            Entry(tr("Fi&t"), "Ctrl+0", window.bench.fit),
            Entry(tr("T&rue size"), "", window.bench.true_size),
            None,
        )
        self._add(
            menu,
            Entry(tr("&Larger text"), "Ctrl++|Ctrl+=", partial(window.appearance.change_text_size, 1)),
            Entry(tr("S&maller text"), "Ctrl+-", partial(window.appearance.change_text_size, -1)),
        )
        themes = menu.addMenu(tr("Th&eme"))
        self._themes = QActionGroup(themes)
        for theme, text in tr_pairs(_THEMES):
            action = themes.addAction(text)
            action.setCheckable(True)
            action.setData(theme)
            self._themes.addAction(action)
            action.triggered.connect(lambda _=False, theme=theme: window.appearance.choose_theme(theme))
        themes.aboutToShow.connect(self._check_theme)
        self._add(menu, Entry(tr("F&ull screen"), "F11", window.change_full_screen))

    def _check_theme(self) -> None:
        for action in self._themes.actions():
            action.setChecked(action.data() == self._window.settings.theme)

    def _piece(self) -> None:
        window = self._window
        self._picked = self._menu(tr("&Piece"))
        self._picked.aboutToShow.connect(self._fill_piece)
        self._piece_entries = self._add(
            self._picked, Entry(tr("&Rename"), "F2", window.rename), Entry(tr("Add a &board"), "", window.add_board)
        )
        self._of_picked: list[QAction] = []

    def _fill_piece(self) -> None:
        """Show, below what is always there, what can be done with what is picked."""
        for action in self._of_picked:
            self._picked.removeAction(action)
        before = len(self._picked.actions())
        self._window.picked.fill_picked(self._picked)
        self._of_picked = self._picked.actions()[before:]

    def _help(self) -> None:
        window = self._window
        self._add(
            self._menu(tr("&Help")),
            Entry(tr("A &first box in ten minutes"), "", window.show_tour),
            Entry(tr("&Manual"), "F1", window.show_manual),
            Entry(tr("&Glossary"), "", partial(window.show_manual, "glossary")),
            Entry(tr("&Keys"), "?", partial(window.show_manual, "keys")),
            None,
            Entry(tr("&About Nullah"), "", window.show_about),
        )
