"""Preferences: units, theme, size of text and terms, which belong to the person and to no piece."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QDialog, QDialogButtonBox, QVBoxLayout

from nullah.core.catalogue import N_
from nullah.core.lengths import STYLES
from nullah.desk.settings import DAY_THEME, NIGHT_THEME, SYSTEM
from nullah.desk.stations.base import Section, chooser, show_choice, words
from nullah.desk.window_settings import TEXT_SIZES
from nullah.files.catalogues import OWN_NAME, load, locales
from nullah.language import tr, tr_pairs

TYPE_CHECKING = False
if TYPE_CHECKING:
    from nullah.desk.window import Window

_THEMES = [(SYSTEM, N_("as the system")), (DAY_THEME, N_("day")), (NIGHT_THEME, N_("night"))]


class Preferences(QDialog):
    """What is chosen holds at once and is remembered."""

    def __init__(self, window: Window) -> None:
        super().__init__(window)
        self.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        self.setWindowTitle(tr("Preferences"))
        self.setMinimumWidth(420)
        self._window = window
        whole = QVBoxLayout(self)
        whole.setContentsMargins(20, 14, 20, 14)
        shown = Section(tr("How it looks"))
        whole.addLayout(shown)
        self.theme = chooser(tr("theme"), tr_pairs(_THEMES), window.appearance.choose_theme, shown, tr("Theme"))
        show_choice(self.theme, window.settings.theme)
        sizes = [(str(percent), f"{percent} %") for percent in TEXT_SIZES]
        self.text_size = chooser(
            tr("size of text and controls"), sizes, self._take_text_size, shown, tr("Text and controls")
        )
        show_choice(self.text_size, str(window.settings.text_size))
        begun = Section(tr("New pieces"))
        whole.addLayout(begun)
        units = tr_pairs((style.name, style.name) for style in STYLES.values())
        self.unit = chooser(tr("units of new pieces"), units, self._take_unit, begun, tr("Begin in"))
        unit = window.settings.unit or window.document.project.marks.unit
        show_choice(self.unit, STYLES[unit].name)
        said = Section(tr("Words"))
        whole.addLayout(said)
        terms = [("", tr("as the system")), *((each, load(each).text(OWN_NAME)) for each in locales())]
        self.terms = chooser(tr("terms of the trade"), terms, self._take_terms, said, tr("Terms"))
        show_choice(self.terms, window.settings.terms)
        self.told = words("", said)
        for section in (shown, begun, said):
            section.show_heading()
        buttons = QDialogButtonBox()
        buttons.addButton(tr("Close"), QDialogButtonBox.ButtonRole.RejectRole)
        buttons.rejected.connect(self.reject)
        whole.addWidget(buttons)

    def _take_text_size(self, percent: str) -> None:
        self._window.appearance.take_text_size(int(percent))

    def _take_unit(self, name: str) -> None:
        self._window.settings.unit = next(unit for unit, style in STYLES.items() if style.name == name)

    def _take_terms(self, terms: str) -> None:
        self._window.appearance.take_terms(terms)
