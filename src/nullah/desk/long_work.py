"""Work that takes longer than a blink: in a process of its own, with progress in words and a way to stop it."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from PySide6.QtCore import QObject, QSocketNotifier, Signal

from nullah.desk.banner import Banner, Urgency
from nullah.language import tr

TYPE_CHECKING = False
if TYPE_CHECKING:
    # Not needed before the window stands.
    from nullah.background import Aside, Work


class LongWork(QObject):
    """Does one piece of work at a time, and tells of it on the banner.

    `ended` follows the end of each, however it ended.
    """

    ended = Signal()

    def __init__(self, banner: Banner, failed: Callable[[str], None]) -> None:
        super().__init__()
        self._banner, self._failed = banner, failed
        self._aside: Aside | None = None
        self._news: QSocketNotifier | None = None
        self._then: Callable[[Any], None] = lambda result: None
        self._stopped = ""

    @property
    def running(self) -> bool:
        """Whether there is work under way."""
        return self._aside is not None

    def start(self, said: str, stopped: str, work: Work, *arguments: Any, then: Callable[[Any], None]) -> None:
        """Start a piece of work.

        Parameters
        ----------
        said, stopped : str
            What to say while it is done, until it tells itself; and when it was stopped.
        work : callable
            As `Aside` takes it; every text it yields is shown.
        arguments
            What it is called with.
        then : callable
            Called with what it returned, unless that is a `Refused`, which is said.
        """
        if self._aside is not None:
            self._banner.say(
                tr("One thing at a time: wait for what is being written, or stop it."), urgency=Urgency.ERROR
            )
            return
        from nullah.background import Aside

        self._then, self._stopped = then, stopped
        self._aside = Aside(work, *arguments)
        assert self._aside.pipe is not None
        self._news = QSocketNotifier(self._aside.pipe.fileno(), QSocketNotifier.Type.Read, self)
        self._news.activated.connect(self._hear)
        self._banner.say(said, (tr("Stop"), self.stop), urgency=Urgency.QUESTION, dismiss=False)

    def stop(self) -> None:
        """Stop the work, now; what it has written already is whole."""
        if self._aside is not None:
            self._end()
            self._banner.say(self._stopped)
            self.ended.emit()

    def wait(self) -> None:
        """Stop without a word: for closing the window."""
        if self._aside is not None:
            self._end()

    def _end(self) -> None:
        if self._news is not None:
            self._news.setEnabled(False)
            self._news.deleteLater()
            self._news = None
        if self._aside is not None:
            self._aside.stop()
            self._aside = None
        self._banner.forget(Urgency.QUESTION)

    def _hear(self) -> None:
        from nullah.background import Crashed, Finished, Refused

        for told in self._aside.hear() if self._aside is not None else ():
            match told:
                case Finished(result):
                    self._end()
                    if isinstance(result, Refused):
                        self._banner.say(result.sentence, urgency=Urgency.ERROR)
                    else:
                        self._then(result)
                    self.ended.emit()
                    return
                case Crashed(details):
                    self._end()
                    self._failed(details)
                    self.ended.emit()
                    return
                case str():
                    self._banner.tell(told, Urgency.QUESTION)
