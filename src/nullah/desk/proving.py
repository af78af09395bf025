"""The proof beside the window: a process of its own works it out, and the newest wins."""

from __future__ import annotations

import sys
from collections.abc import Callable

from PySide6.QtCore import QObject, QSocketNotifier, Signal

from nullah.background import Answer, Beside, DroppedError
from nullah.core.plan import Plan, prove_plan, work_out
from nullah.core.project import Project

TYPE_CHECKING = False
if TYPE_CHECKING:
    from nullah.core.proof.prove import Proof


def prove_project(dropped: Callable[[], bool], project: Project) -> Proof | None:
    """Prove a project: what the process beside the window answers."""
    from nullah.core.proof.prove import StoppedError

    try:
        return prove_plan(work_out(project, milling=False, proving=False), dropped)
    except StoppedError as stopped:
        raise DroppedError from stopped


class Prover(QObject):
    """Proves plans. `proved` carries a plan and its proof, when that was worked out aside.

    A thread would hold the interpreter's lock, and with it the window, for as long as solids are cut. Where `patient`
    every proof is waited for: for pictures and tests.
    """

    proved = Signal(object, object)

    def __init__(self, patient: bool = False) -> None:
        super().__init__()
        self.patient = patient
        self._process: Beside | None = None
        self._news: QSocketNotifier | None = None
        self._asked: tuple[int, Plan] | None = None

    @property
    def running(self) -> bool:
        """Whether a proof is under way."""
        return self._asked is not None

    def prove(self, plan: Plan) -> Proof | None:
        """Prove a plan: at once where patient, else aside; what was under way is dropped."""
        if self.patient:
            return prove_plan(plan)
        if self._process is None:
            self._begin()
        assert self._process is not None
        self._asked = (self._process.ask(plan.project), plan)
        return None

    def _begin(self) -> None:
        self._process = Beside(prove_project)
        self._news = QSocketNotifier(self._process.pipe.fileno(), QSocketNotifier.Type.Read, self)
        self._news.activated.connect(self._hear)

    def _hear(self) -> None:
        process = self._process
        if process is None:
            return
        for told in process.hear():
            if isinstance(told, Answer):
                if self._asked is not None and told.number == self._asked[0]:
                    _, plan = self._asked
                    self._asked = None
                    self.proved.emit(plan, told.given)
                continue
            # What the process cannot do is done here, where an error is told.
            sys.stderr.write(f"{told.details}\n")
            asked, self._asked = self._asked, None
            self._end()
            if asked is not None:
                self.proved.emit(asked[1], prove_plan(asked[1]))

    def _end(self) -> None:
        if self._news is not None:
            self._news.setEnabled(False)
            self._news.deleteLater()
            self._news = None
        if self._process is not None:
            self._process.stop()
            self._process = None

    def wait(self) -> None:
        """End: for closing the window."""
        self._asked = None
        self._end()
