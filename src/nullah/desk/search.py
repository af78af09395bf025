"""The breakdown search beside the window: progress in words, stopped at once, best so far kept."""

from __future__ import annotations

import time

from PySide6.QtCore import QObject, QThread, Signal

from nullah.core.breakdown.search import Layout, search
from nullah.core.lengths import Marks
from nullah.core.plan import Plan

#: How long the desk lets the search run, in seconds, and how often it tells of progress.
_SECONDS, _TELL_EVERY = 4.0, 0.1


class _Run(QThread):
    better = Signal(object, int)

    def __init__(self, plan: Plan) -> None:
        super().__init__()
        self._plan = plan
        self.stop = False

    def run(self) -> None:
        plan, told, best = self._plan, 0.0, None
        start = time.monotonic()
        rounds = 0
        shop, boards = plan.project.shop, plan.project.boards
        for best in search(plan.rough, boards, shop.kerf, plan.marks, rounds=2000):
            rounds += 1
            now = time.monotonic()
            if self.stop or now - start > _SECONDS:
                break
            if now - told > _TELL_EVERY:
                told = now
                self.better.emit(best, rounds)
        if best is not None:
            self.better.emit(best, rounds)


class SearchRunner(QObject):
    """Runs one search at a time. `progress` carries words, `found` the best layout at the end."""

    progress = Signal(str)
    found = Signal(object)

    def __init__(self) -> None:
        super().__init__()
        self._run: _Run | None = None
        self._best: Layout | None = None
        self._marks = Marks()

    @property
    def running(self) -> bool:
        """Whether a search is under way."""
        return self._run is not None

    def start(self, plan: Plan) -> None:
        """Search for a layout of this plan's parts."""
        if self._run is not None:
            return
        self._best, self._marks = None, plan.marks
        self._run = _Run(plan)
        self._run.better.connect(self._better)
        self._run.finished.connect(self._finished)
        self._run.start()
        self.progress.emit("Looking …")

    def stop(self) -> None:
        """Stop at the next round and keep the best so far."""
        if self._run is not None:
            self._run.stop = True

    def wait(self) -> None:
        """Stop and wait for the thread: for closing the window."""
        if self._run is not None:
            self._run.stop = True
            self._run.wait()

    def _better(self, best: Layout, rounds: int) -> None:
        self._best = best
        left = f"{len(best.unplaced)} without wood" if best.unplaced else "all laid"
        self.progress.emit(f"{rounds} layouts tried: {left}, {self._marks.write_area(best.consumed)} used")

    def _finished(self) -> None:
        self._run = None
        if self._best is not None:
            self.found.emit(self._best)
