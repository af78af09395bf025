"""What the desk remembers of its window: all that is asked before anything of the piece is loaded."""

from __future__ import annotations

from pathlib import Path

from PySide6.QtCore import QByteArray, QSettings

#: How large text and controls may be, percent.
TEXT_SIZES = (100, 115, 130, 150, 175, 200)


class WindowSettings:
    """Settings of the window, in the file of all settings."""

    def __init__(self, file: Path) -> None:
        self.file = file
        self._store = QSettings(str(file), QSettings.Format.IniFormat)

    @property
    def text_size(self) -> int:
        """How large text and controls are, percent: one of `TEXT_SIZES`."""
        found = str(self._store.value("text_size", "100"))
        return int(found) if found in map(str, TEXT_SIZES) else 100

    @text_size.setter
    def text_size(self, percent: int) -> None:
        self._store.setValue("text_size", percent)

    def window(self, part: str) -> QByteArray:
        """Return how a part of the window was left; empty where it never was."""
        found = self._store.value(f"window/{part}")
        return found if isinstance(found, QByteArray) else QByteArray()

    def leave_window(self, part: str, state: QByteArray) -> None:
        """Remember how a part of the window is left."""
        self._store.setValue(f"window/{part}", state)
