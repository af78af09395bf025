"""What follows a change and is not looked at first: done in steps, so that the window answers between them."""

from __future__ import annotations

from collections import deque
from collections.abc import Callable, Iterable

from PySide6.QtCore import QObject, QTimer


class Afterwards(QObject):
    """Steps that are taken one by one while the window goes on; a newer change puts what is left of them away."""

    def __init__(self, owner: QObject) -> None:
        super().__init__(owner)
        self._steps: deque[Callable[[], object]] = deque()
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.timeout.connect(self._step)

    def begin(self, steps: Iterable[Callable[[], object]], rest: int = 0) -> None:
        """Take these steps, and none of those before them, from now on or once nothing newer came for a while, ms."""
        self._steps = deque(steps)
        self._timer.start(rest)

    def finish(self) -> None:
        """Take all steps that are left now."""
        self._timer.stop()
        while self._steps:
            self._steps.popleft()()

    def _step(self) -> None:
        if self._steps:
            step = self._steps.popleft()
            if self._steps:
                self._timer.start(0)
            step()
