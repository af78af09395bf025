"""How the desk looks to whoever works at it: theme, size of text, terms of the trade. All of it is remembered."""

from __future__ import annotations

import os
from collections.abc import Callable, Iterable
from typing import Protocol, runtime_checkable

from PySide6.QtCore import QObject, Qt, Signal
from PySide6.QtWidgets import QApplication

from nullah.desk.banner import Banner
from nullah.desk.document import Document
from nullah.desk.settings import NIGHT_THEME, SYSTEM, Settings
from nullah.desk.theme import dress
from nullah.desk.window_settings import TEXT_SIZES
from nullah.files.catalogues import catalogue_for, load
from nullah.language import speak, tr
from nullah.paper.palette import DAY, NIGHT, Palette


@runtime_checkable
class HasPalette(Protocol):
    """What takes another theme."""

    def set_palette(self, palette: Palette) -> None:
        """Take it."""


class Appearance(QObject):
    """What is chosen of it, and who wears it: `wearers` gives all that paints in colours of its own.

    `worded` tells that other words are to be shown, `start_wanted` that the program is to start again.
    """

    worded = Signal()
    start_wanted = Signal()

    def __init__(
        self, document: Document, settings: Settings, banner: Banner, wearers: Callable[[], Iterable[object]]
    ) -> None:
        super().__init__()
        self._document, self._settings, self._banner, self._wearers = document, settings, banner, wearers
        self.palette: Palette = DAY

    def choose_theme(self, theme: str) -> None:
        """Take a theme and remember it; `system` follows the desktop."""
        self._settings.theme = theme
        self.follow_theme()

    def follow_theme(self) -> None:
        """Show the theme that was chosen, or that of the desktop."""
        dark = QApplication.styleHints().colorScheme() is Qt.ColorScheme.Dark
        night = self._settings.theme == NIGHT_THEME or (self._settings.theme == SYSTEM and dark)
        self.set_theme(NIGHT if night else DAY)

    def set_theme(self, palette: Palette) -> None:
        """Change between day and night."""
        app = QApplication.instance()
        if isinstance(app, QApplication):
            dress(app, palette)
        self.wear(palette)

    def wear(self, palette: Palette) -> None:
        """Give all that paints in colours of its own those of a theme."""
        self.palette = palette
        for part in self._wearers():
            if isinstance(part, HasPalette):
                part.set_palette(palette)

    def change_text_size(self, way: int) -> None:
        """Make text and controls larger or smaller, from the next start on."""
        here = TEXT_SIZES.index(self._settings.text_size)
        self.take_text_size(TEXT_SIZES[min(max(here + way, 0), len(TEXT_SIZES) - 1)])

    def take_text_size(self, percent: int) -> None:
        """Show text and controls so large from the next start on, and offer to start again."""
        self._settings.text_size = percent
        self._offer_start(tr("Text and controls are {percent} % large from the next start.", percent=percent))

    def _offer_start(self, why: str) -> None:
        self._banner.say(why, (tr("Start again now"), self._start_again))

    def _start_again(self) -> None:
        self._settings.save()
        self.start_wanted.emit()

    def take_terms(self, terms: str) -> None:
        """Show other terms of the trade, and remember them; nothing: those of the system."""
        self._settings.terms = terms
        catalogue = load(terms) if terms else catalogue_for(os.environ)
        speak(catalogue)
        self._document.take_terms(catalogue)
        self.worded.emit()
        self._offer_start(tr("The labels of this window speak so from the next start."))
