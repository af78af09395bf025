"""Tool tips of what people named: shown as plain text, whatever it looks like."""

from __future__ import annotations

from PySide6.QtGui import Qt


def plain_tip(text: str) -> str:
    """Return text that a tool tip shows as it stands, though it look like markup.

    Examples
    --------
    >>> plain_tip("left side"), "<b>" in plain_tip("<b>x</b>")
    ('left side', False)
    """
    return Qt.convertFromPlainText(text) if Qt.mightBeRichText(text) else text
