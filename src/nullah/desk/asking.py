"""What takes long is asked beside the window: a process of its own works it out, and the newest question wins."""

from __future__ import annotations

import sys
from collections.abc import Callable
from typing import Any, NamedTuple

from PySide6.QtCore import QObject, QSocketNotifier, QTimer, Signal

from nullah.background import IDLE, Answer, Beside, DroppedError
from nullah.core.drawing import Drawing
from nullah.core.plan import Plan, prove_plan, work_out
from nullah.core.project import Project
from nullah.core.stations.piece import views

TYPE_CHECKING = False
if TYPE_CHECKING:
    from nullah.core.proof.prove import Proof
    from nullah.core.work.order_of_work import OrderOfWork


#: What the questions below load when they are asked.
_NEEDS = ("nullah.core.proof.prove", "nullah.core.apprentice.carrying_out", "nullah.core.work.order_of_work")


class Proved(NamedTuple):
    """A proof, and the piece as it is drawn with it: to cut its solids in the window would hold that up."""

    proof: Proof | None
    views: Drawing | None


def prove_project(dropped: Callable[[], bool], project: Project) -> Proved:
    """Prove a project: what a process beside the window answers."""
    from nullah.core.proof.prove import StoppedError

    plan = work_out(project, milling=False, proving=False)
    try:
        proof = prove_plan(plan, dropped)
    except StoppedError as stopped:
        raise DroppedError from stopped
    if dropped():
        raise DroppedError
    return Proved(proof, views(plan.with_proof(proof)) if proof is not None else None)


def proof_of_plan(plan: Plan) -> Proved:
    """Prove a plan, here and now."""
    return Proved(prove_plan(plan), None)


def order_project(dropped: Callable[[], bool], project: Project) -> OrderOfWork:
    """Derive the order of work of a project: what a process beside the window answers."""
    if dropped():
        raise DroppedError
    return order_of_plan(work_out(project, milling=False, proving=False))


def order_of_plan(plan: Plan) -> OrderOfWork:
    """Derive the order of work of a plan, here and now."""
    from nullah.core.work.order_of_work import order_of_work

    return order_of_work(plan)


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
        self._process = Beside(self._question, _NEEDS, self._behind)
        self._news = QSocketNotifier(self._process.pipe.fileno(), QSocketNotifier.Type.Read, self)
        self._news.activated.connect(self._hear)

    def _hear(self) -> None:
        process = self._process
        if process is None:
            return
        for told in process.hear():
            if isinstance(told, Answer):
                plan = self._asked[told.number]
                # Those before it were dropped.
                self._asked = {number: each for number, each in self._asked.items() if number > told.number}
                if not self._asked:
                    self._idle.start()
                self.answered.emit(plan, told.given)
                continue
            # What the process cannot do is done here, where an error is told.
            sys.stderr.write(f"{told.details}\n")
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

    def wait(self) -> None:
        """End: for closing the window."""
        self._asked = {}
        self._end()
