"""The proof beside the window: what does not come at once is worked out aside, and the newest wins."""

from __future__ import annotations

import time

from PySide6.QtCore import QObject, QThread, Signal

from nullah.core.plan import Plan, prove_plan

TYPE_CHECKING = False
if TYPE_CHECKING:
    from nullah.core.proof.prove import Proof

#: How long a change may wait for its proof before it is shown without, in ms.
AT_ONCE_MS = 20


class _Run(QThread):
    proved = Signal(object, object)

    def __init__(self, plan: Plan) -> None:
        super().__init__()
        self._plan = plan
        self.stop = False

    def run(self) -> None:
        from nullah.core.proof.prove import StoppedError

        try:
            self.proved.emit(self._plan, prove_plan(self._plan, lambda: self.stop))
        except StoppedError:
            return


class Prover(QObject):
    """Proves plans. `proved` carries a plan and its proof, when that was worked out aside."""

    proved = Signal(object, object)

    def __init__(self) -> None:
        super().__init__()
        self.at_once_ms: float = AT_ONCE_MS
        self._runs: list[_Run] = []

    @property
    def running(self) -> bool:
        """Whether a proof is under way."""
        return bool(self._runs)

    def prove(self, plan: Plan) -> Proof | None:
        """Prove a plan: at once if that is quick, else aside; what was under way is dropped."""
        from nullah.core.proof.prove import StoppedError

        self.drop()
        until = time.monotonic() + self.at_once_ms / 1000
        try:
            return prove_plan(plan, lambda: time.monotonic() > until)
        except StoppedError:
            self._aside(plan)
            return None

    def _aside(self, plan: Plan) -> None:
        run = _Run(plan)
        run.proved.connect(self._arrived)
        run.finished.connect(lambda: self._runs.remove(run) if run in self._runs else None)
        self._runs.append(run)
        run.start()

    def _arrived(self, plan: Plan, proof: Proof | None) -> None:
        sender = self.sender()
        if not (isinstance(sender, _Run) and sender.stop):
            self.proved.emit(plan, proof)

    def drop(self) -> None:
        """Stop what is under way; its answer is no longer wanted."""
        for run in self._runs:
            run.stop = True

    def wait(self) -> None:
        """Stop and wait: for closing the window."""
        self.drop()
        for run in list(self._runs):
            run.wait()
