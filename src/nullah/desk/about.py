"""What this program is."""

from __future__ import annotations

from importlib.metadata import version

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QDialog, QDialogButtonBox, QVBoxLayout, QWidget

from nullah.core.catalogue import N_
from nullah.desk.text_label import TextLabel
from nullah.desk.theme import BODY, FIGURE
from nullah.language import tr
from nullah.paper.lettering import typeface

_WORDS = N_(
    "Plans small furniture and boxes from rough boards: what to cut next, to what size, out of which bit of which "
    "board, with which settings.\n\n"
    "It ships under the licence in LICENSE; its typeface, Nullah Text, under the SIL Open Font License.\n\n"
    "Sharp tools cut. Follow what the makers of tools and finishes say, and where the law asks for a licensed "
    "person, ask one."
)


def show_about(window: QWidget) -> None:
    """Open a window that says what this is."""
    dialog = QDialog(window)
    dialog.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
    dialog.setWindowTitle(tr("About Nullah"))
    column = QVBoxLayout(dialog)
    column.setContentsMargins(24, 20, 24, 16)
    for text, size, bold in ((f"Nullah {version('nullah')}", FIGURE, True), (tr(_WORDS), BODY, False)):
        label = TextLabel(text, wraps=True)
        label.setFont(typeface(size, bold))
        label.setMinimumWidth(420)
        column.addWidget(label)
    buttons = QDialogButtonBox()
    buttons.addButton(tr("Close"), QDialogButtonBox.ButtonRole.RejectRole)
    buttons.rejected.connect(dialog.reject)
    column.addWidget(buttons)
    dialog.open()
