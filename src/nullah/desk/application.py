"""The one application object, made before anything of the piece is loaded."""

from __future__ import annotations

import os
import sys

from PySide6.QtWidgets import QApplication


def application(text_size: int = 100) -> QApplication:
    """Return the one application object, made at the first call with text and controls of a size in percent."""
    running = QApplication.instance()
    if isinstance(running, QApplication):
        return running
    if text_size != 100:
        # Everything grows with it, so that no word is cut off; Qt takes it only before the application is made.
        os.environ.setdefault("QT_SCALE_FACTOR", str(text_size / 100))
    # Before the application is made, or it would first make another style and drop it.
    QApplication.setStyle("Fusion")
    app = QApplication(sys.argv[:1])
    app.setApplicationName("Nullah")
    # What Wayland and the panel know the window by: the name of the desktop entry.
    app.setDesktopFileName("nullah")
    return app
