"""The end from outside: a signal, or the end of the session. Work is kept first."""

from __future__ import annotations

import contextlib
import os
import signal
import sys
from collections.abc import Callable
from types import FrameType

from PySide6.QtCore import QObject, QSocketNotifier
from PySide6.QtWidgets import QApplication

#: What asks a program to end: from a terminal, from the system, from a terminal that is closed.
SIGNALS = (signal.SIGINT, signal.SIGTERM, signal.SIGHUP)


class ShutdownWatch(QObject):
    """Keeps the work when somebody asks the program to end, and then ends it.

    Python hears of a signal only between two of its own steps, and an idle window makes none: so the
    signal writes its number into a pipe, which wakes the window.

    Parameters
    ----------
    keep : callable
        Keeps the work; says whether all is safe.
    """

    def __init__(self, keep: Callable[[], bool]) -> None:
        super().__init__()
        self._keep = keep
        self._hears, self._tells = os.pipe()
        for end in (self._hears, self._tells):
            os.set_blocking(end, False)
        self._before_wakeup = signal.set_wakeup_fd(self._tells, warn_on_full_buffer=False)
        self._before = {each: signal.signal(each, _heard) for each in SIGNALS}
        self._news = QSocketNotifier(self._hears, QSocketNotifier.Type.Read, self)
        self._news.activated.connect(self._came)
        app = QApplication.instance()
        assert isinstance(app, QApplication)
        self._app = app
        # The session manager asks before it ends the session; it does not wait for an answer by hand.
        app.commitDataRequest.connect(lambda _: self._keep())
        # Once more at the very last: what was done between the signal and the end of the window's own work.
        app.aboutToQuit.connect(self._keep)

    def _came(self) -> None:
        number = 0
        with contextlib.suppress(BlockingIOError):
            number = os.read(self._hears, 64)[-1]
        if number not in SIGNALS:
            return
        if not self._kept():
            sys.stderr.write("nullah: the work could not be kept.\n")
        # As a shell counts the end by a signal.
        self._app.exit(128 + number)

    def _kept(self) -> bool:
        """Keep the work, and once more if that fails in a way that nobody foresaw: the end was asked for, and comes."""
        for _ in range(2):
            try:
                return self._keep()
            except Exception as error:  # whatever it is, the program is to end
                sys.stderr.write(f"nullah: {type(error).__name__}: {error}\n")
        return False

    def end(self) -> None:
        """Let signals do what they did before."""
        self._news.setEnabled(False)
        self._app.aboutToQuit.disconnect(self._keep)
        signal.set_wakeup_fd(self._before_wakeup)
        for each, before in self._before.items():
            signal.signal(each, before)
        os.close(self._hears)
        os.close(self._tells)


def _heard(number: int, frame: FrameType | None) -> None:
    """Take a signal: what is to be done, the window does when it wakes."""
