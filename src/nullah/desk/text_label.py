"""Words on the desk: shown as they are, never taken for markup, and no figure of them broken over two lines."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QLabel, QWidget

from nullah.core.drawing import kept_together


class TextLabel(QLabel):
    """Words.

    Parameters
    ----------
    text : str
    wraps : bool
        Whether they are set in lines as wide as there is room; else all in one.
    quiet : bool
        Whether they stand back behind others.
    weight : str
        What they weigh: ``fails``, ``look``, or nothing.
    holder : QWidget or None
        What they stand on.
    """

    def __init__(
        self,
        text: str = "",
        *,
        wraps: bool = False,
        quiet: bool = False,
        weight: str = "",
        holder: QWidget | None = None,
    ) -> None:
        super().__init__(holder)
        self.setTextFormat(Qt.TextFormat.PlainText)
        self.setWordWrap(wraps)
        if quiet:
            self.setProperty("quiet", "true")
        if weight:
            self.setProperty("weight", weight)
        if text:
            self.setText(text)

    def setText(self, text: str) -> None:
        """Show other words."""
        super().setText(kept_together(text))
