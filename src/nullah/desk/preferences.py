"""Preferences: units, theme, size of text and terms, which belong to the person and to no piece."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QDialog, QDialogButtonBox, QVBoxLayout

from nullah.core.lengths import STYLES
from nullah.desk.settings import AMERICAN_TERMS, BRITISH_TERMS, DAY_THEME, NIGHT_THEME, SYSTEM
from nullah.desk.stations.base import Section, chooser, show_choice, words
from nullah.desk.window_settings import TEXT_SIZES

TYPE_CHECKING = False
if TYPE_CHECKING:
    from nullah.desk.window import Window

_THEMES = [(SYSTEM, "as the system"), (DAY_THEME, "day"), (NIGHT_THEME, "night")]
_TERMS = [
    ("", "as the system"),
    (AMERICAN_TERMS, "American: rabbet, dado, clamp"),
    (BRITISH_TERMS, "British: rebate, housing, cramp"),
]


class Preferences(QDialog):
    """What is chosen holds at once and is remembered."""

    def __init__(self, window: Window) -> None:
        super().__init__(window)
        self.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        self.setWindowTitle("Preferences")
        self.setMinimumWidth(420)
        self._window = window
        whole = QVBoxLayout(self)
        whole.setContentsMargins(20, 14, 20, 14)
        shown = Section("How it looks")
        whole.addLayout(shown)
        self.theme = chooser("theme", _THEMES, window.appearance.choose_theme, shown, "Theme")
        show_choice(self.theme, window.settings.theme)
        sizes = [(str(percent), f"{percent} %") for percent in TEXT_SIZES]
        self.text_size = chooser("size of text and controls", sizes, self._take_text_size, shown, "Text and controls")
        show_choice(self.text_size, str(window.settings.text_size))
        begun = Section("New pieces")
        whole.addLayout(begun)
        units = [(style.name, style.name) for style in STYLES.values()]
        self.unit = chooser("units of new pieces", units, self._take_unit, begun, "Begin in")
        unit = window.settings.unit or window.document.project.marks.unit
        show_choice(self.unit, STYLES[unit].name)
        said = Section("Words")
        whole.addLayout(said)
        self.terms = chooser("terms of the trade", _TERMS, self._take_terms, said, "Terms")
        show_choice(self.terms, window.settings.terms)
        self.told = words("", said)
        for section in (shown, begun, said):
            section.show_heading()
        buttons = QDialogButtonBox(QDialogButtonBox.StandardButton.Close)
        buttons.rejected.connect(self.reject)
        whole.addWidget(buttons)

    def _take_text_size(self, percent: str) -> None:
        self._window.appearance.take_text_size(int(percent))

    def _take_unit(self, name: str) -> None:
        self._window.settings.unit = next(unit for unit, style in STYLES.items() if style.name == name)

    def _take_terms(self, terms: str) -> None:
        self._window.appearance.take_terms(terms)
