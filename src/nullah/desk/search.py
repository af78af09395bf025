"""The breakdown search beside the window: progress in words, better layouts as they are found, stopped at once."""

from __future__ import annotations

from PySide6.QtCore import QObject, QTimer, Signal

from nullah.background import SearchAside
from nullah.core.breakdown.search import BreakdownError, Layout, LayoutTask, search_task
from nullah.core.lengths import Marks
from nullah.core.wording.facts import error_words
from nullah.language import tr

#: How long the desk lets the search run, in seconds, and how often it asks how that is doing, in ms.
_SECONDS, _ASK_EVERY = 10.0, 100


class SearchRunner(QObject):
    """Runs one search at a time.

    `progress` carries words, `better` a layout that is better than the last, `found` the best at
    the end, `failed` why nothing can be laid out.
    """

    progress = Signal(str)
    better = Signal(object)
    found = Signal(object)
    failed = Signal(str)

    def __init__(self) -> None:
        super().__init__()
        self.seconds = _SECONDS
        self._aside: SearchAside | None = None
        self._best: Layout | None = None
        self._first: Layout | None = None
        self._tried = 0
        self._marks = Marks()
        self._timer = QTimer(self)
        self._timer.setInterval(_ASK_EVERY)
        self._timer.timeout.connect(self._ask)

    @property
    def running(self) -> bool:
        """Whether a search is under way."""
        return self._aside is not None

    def start(self, task: LayoutTask, marks: Marks) -> None:
        """Search for a layout, told in `marks`: the first answer comes at once, better ones as they are found."""
        if self._aside is not None:
            return
        self._best = self._first = None
        self._tried, self._marks = 1, marks
        self.progress.emit(tr("Looking …"))
        try:
            # It does not know yet where boards are thick enough, so any answer from beside takes its place.
            self._first = next(search_task(task, 1, prove=False), None)
        except BreakdownError as error:
            self.failed.emit(error_words(error))
            return
        if self._first is not None:
            self.better.emit(self._first)
            self.progress.emit(self._words(self._first))
        self._aside = SearchAside(task, self.seconds)
        self._timer.start()

    def stop(self) -> None:
        """Stop, now, and keep the best so far."""
        if self._aside is not None:
            self._finish()

    def wait(self) -> None:
        """Stop without a word: for closing the window."""
        self._timer.stop()
        if self._aside is not None:
            self._aside.stop()
            self._aside = None

    def _ask(self) -> None:
        if self._aside is None:
            return
        told = self._aside.listen()
        self._tried = max(self._tried, told.tried)
        self._take(told.best)
        if not self._aside.running:
            self._finish()

    def _take(self, layout: Layout | None) -> None:
        if layout is None:
            return
        if self._best is None or layout.score < self._best.score:
            self._best = layout
            self.better.emit(layout)
        elif layout.score == self._best.score:
            self._best = layout
        self.progress.emit(self._words(self._best))

    def _words(self, best: Layout) -> str:
        used = self._marks.write_area(best.consumed)
        if best.unplaced:
            return tr(
                "{tried} layouts tried: {unplaced} without wood, {used} used",
                tried=self._tried,
                unplaced=len(best.unplaced),
                used=used,
            )
        gap = best.over * 100
        proven = (
            tr("nothing can be better")
            if gap < 0.05
            else tr("at most {gap:.1f} % over the least there can be", gap=gap)
        )
        return tr("{tried} layouts tried: all laid, {used} used, {proven}", tried=self._tried, used=used, proven=proven)

    def _finish(self) -> None:
        self._timer.stop()
        if self._aside is not None:
            told = self._aside.stop()
            problem = self._aside.problem
            self._aside = None
            self._take(told.best)
            if problem:
                self.failed.emit(problem)
        best = self._best or self._first
        if best is not None:
            self.found.emit(best)
