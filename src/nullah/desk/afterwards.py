"""What follows a change and is not looked at first: done in steps, so that the window answers between them."""

from __future__ import annotations

from collections import deque
from collections.abc import Callable, Generator, Iterable
from time import perf_counter

from PySide6.QtCore import QObject, QTimer

from nullah.core.bits import Bits, at_once

#: Work that is done bit by bit holds the window up for no longer than this, seconds.
_AT_A_STRETCH = 0.005


class Afterwards(QObject):
    """Steps that are taken one by one while the window goes on; a newer change puts what is left of them away."""

    def __init__(self, owner: QObject) -> None:
        super().__init__(owner)
        self._steps: deque[Callable[[], object]] = deque()
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.timeout.connect(self._step)

    def begin(self, steps: Iterable[Callable[[], object]], rest: int = 0) -> None:
        """Take these steps, and none of those before them, from now on or once nothing newer came for a while, ms.

        One that is a generator is work that is done bit by bit: the window answers between its bits too.
        """
        self._steps = deque(steps)
        self._timer.start(rest)

    def finish(self) -> None:
        """Take all steps that are left now."""
        self._timer.stop()
        while self._steps:
            work = self._steps.popleft()()
            if isinstance(work, Generator):
                at_once(work)

    def _step(self) -> None:
        if not self._steps:
            return
        # Before it is taken: one that fails does not keep the others back.
        self._timer.start(0)
        work = self._steps.popleft()()
        if isinstance(work, Generator) and not _done(work):
            self._steps.appendleft(lambda: work)


def _done(work: Bits[object]) -> bool:
    """Work on for a little; return whether it is done."""
    until = perf_counter() + _AT_A_STRETCH
    while perf_counter() < until:
        try:
            next(work)
        except StopIteration:
            return True
    return False
