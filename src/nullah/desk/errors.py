"""What goes wrong unexpectedly: kept in a log, said on the banner, and the work kept at once."""

from __future__ import annotations

import sys
import threading
from pathlib import Path
from types import TracebackType

from PySide6.QtCore import QObject, Qt, Signal
from PySide6.QtGui import QGuiApplication
from PySide6.QtWidgets import QMainWindow

from nullah.desk.banner import Urgency
from nullah.language import tr

#: A log is so long in bytes before a new one is begun, and so many old ones stay.
_LONGEST, _OLD_LOGS = 200_000, 3


def log_file(state: Path) -> Path:
    """Return where the log stands under the state folder."""
    return state / "log" / "nullah.log"


def write_log(state: Path, details: str) -> None:
    """Write what went wrong into the log under the state folder; without one where it cannot be written."""
    # Loaded when something goes wrong: the window does not wait for it.
    import logging
    from logging.handlers import RotatingFileHandler

    file = log_file(state)
    try:
        file.parent.mkdir(parents=True, exist_ok=True)
        handler = RotatingFileHandler(file, maxBytes=_LONGEST, backupCount=_OLD_LOGS, encoding="utf-8", delay=True)
    except OSError:
        return
    handler.setFormatter(logging.Formatter("%(asctime)s %(levelname)s %(message)s"))
    handler.emit(logging.LogRecord("nullah", logging.ERROR, "", 0, details, None, None))
    handler.close()


class _Reports(QObject):
    """Carries what went wrong in any thread to the window."""

    came = Signal(str)


class ErrorWatch:
    """Takes every error that nothing else takes, as long as the window stands.

    Parameters
    ----------
    window : QMainWindow
        With a `document` whose work is kept, and a `banner` to say it on.
    state : Path
        The folder under which the log stands.
    """

    def __init__(self, window: QMainWindow, state: Path) -> None:
        self._window, self._state = window, state
        self._reports = _Reports()
        self._reports.came.connect(self._say, Qt.ConnectionType.AutoConnection)
        self._before = sys.excepthook, threading.excepthook
        sys.excepthook = self._took
        threading.excepthook = lambda args: self._took(args.exc_type, args.exc_value, args.exc_traceback)

    def end(self) -> None:
        """Let errors go where they went before."""
        sys.excepthook, threading.excepthook = self._before

    def _took(self, kind: type[BaseException], error: BaseException | None, where: TracebackType | None) -> None:
        if issubclass(kind, KeyboardInterrupt):
            return
        import traceback

        # Line by line of the program, and the error's own words; nothing of what its variables held.
        self._reports.came.emit("".join(traceback.format_exception(kind, error, where, limit=-12)))

    def _say(self, details: str) -> None:
        report(details, self._window, self._state)


def report(details: str, window: QMainWindow, state: Path) -> None:
    """Write details into the log, keep the work, and say on the banner that something went wrong."""
    line = _last_line(details)
    sys.stderr.write(f"nullah: {line}\n")
    write_log(state, details)
    window.document.keep()  # type: ignore[attr-defined]
    window.banner.say(  # type: ignore[attr-defined]
        tr(
            "Something went wrong that should not have: {error} Your work is kept. If it comes again, "
            "undo the last step.",
            error=line,
        ),
        (tr("Copy details"), lambda: QGuiApplication.clipboard().setText(details)),
        urgency=Urgency.ERROR,
    )


def _last_line(details: str) -> str:
    lines = [line for line in details.strip().splitlines() if line.strip()]
    line = lines[-1][:120] if lines else tr("an unknown error")
    return line if line.endswith((".", "!", "?")) else f"{line}."
