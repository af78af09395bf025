"""What takes long is asked beside the window: a process of its own works it out, and the newest question wins."""

from __future__ import annotations

import sys
import traceback
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from typing import Any

from PySide6.QtCore import QObject, QSocketNotifier, QTimer, Signal

from nullah.background import IDLE, Answer, Beside, Crashed
from nullah.core.plan import Plan
from nullah.core.project import Project
from nullah.questions import NEEDS


class Asker(QObject):
    """Has something of plans worked out. `answered` carries a plan, even one before the last, and what was asked of it.

    A thread would hold the interpreter's lock, and with it the window, for as long as it works.

    Parameters
    ----------
    question : callable
        A function of a module, by which the process finds it: of whether the question was dropped, and a project.
    here : callable
        The same of a plan, in this process: where the other one cannot.
    behind : int
        How far it stands behind the window, and behind each other, where all want a core.
    """

    answered = Signal(object, object)
    # Which process answered which question, and what was read of its answer.
    _read = Signal(object, object)

    def __init__(
        self, question: Callable[[Callable[[], bool], Project], Any], here: Callable[[Plan], object], behind: int
    ) -> None:
        super().__init__()
        self._question, self._here, self._behind = question, here, behind
        self._process: Beside | None = None
        self._news: QSocketNotifier | None = None
        # The plans that were asked about, by the number of the question; the last is the newest.
        self._asked: dict[int, Plan] = {}
        self._idle = QTimer(self)
        self._idle.setSingleShot(True)
        self._idle.setInterval(IDLE)
        self._idle.timeout.connect(self._end)
        self._reader: ThreadPoolExecutor | None = None
        self._read.connect(self._take)

    @property
    def asked(self) -> Plan | None:
        """The plan that was asked about last; None once it is answered."""
        return next(reversed(self._asked.values()), None)

    def ask(self, plan: Plan) -> None:
        """Ask about a plan; what was under way is dropped."""
        if self._process is None:
            self._begin()
        assert self._process is not None
        self._idle.stop()
        self._asked[self._process.ask(plan.project)] = plan

    def _begin(self) -> None:
        self._process = Beside(self._question, NEEDS, self._behind)
        self._news = QSocketNotifier(self._process.pipe.fileno(), QSocketNotifier.Type.Read, self)
        self._news.activated.connect(self._hear)
        # To read a proof takes so long that the window would be seen to wait.
        self._reader = ThreadPoolExecutor(1)

    def _hear(self) -> None:
        process = self._process
        if process is None or self._reader is None:
            return
        for told in process.hear():
            if isinstance(told, Answer):
                self._reader.submit(self._read_aside, process, told)
            else:
                self._work_out_here(told)

    def _read_aside(self, process: Beside, answer: Answer) -> None:
        try:
            self._read.emit((process, answer.number), answer.read())
        except Exception:
            self._read.emit((process, answer.number), Crashed(traceback.format_exc()))

    def _take(self, answered: tuple[Beside, int], given: object) -> None:
        process, number = answered
        if process is not self._process:
            return  # it was ended meanwhile, and another counts from one again
        if isinstance(given, Crashed):
            self._work_out_here(given)
        elif number in self._asked:
            plan = self._asked[number]
            # Those before it were dropped.
            self._asked = {later: each for later, each in self._asked.items() if later > number}
            if not self._asked:
                self._idle.start()
            self.answered.emit(plan, given)

    def _work_out_here(self, crashed: Crashed) -> None:
        """Work out here what the process cannot do: an error is told here."""
        sys.stderr.write(f"{crashed.details}\n")
        asked, self._asked = self.asked, {}
        self._end()
        if asked is not None:
            self.answered.emit(asked, self._here(asked))

    def _end(self) -> None:
        self._idle.stop()
        if self._news is not None:
            self._news.setEnabled(False)
            self._news.deleteLater()
            self._news = None
        if self._process is not None:
            self._process.stop()
            self._process = None
        if self._reader is not None:
            self._reader.shutdown(cancel_futures=True)
            self._reader = None

    def wait(self) -> None:
        """End: for closing the window."""
        self._asked = {}
        self._end()
