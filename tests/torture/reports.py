"""What a trial found: how many it tried, and what failed."""

import contextlib
import signal
import time
from dataclasses import dataclass, field


class HungError(Exception):
    """Something took longer than it may."""


@contextlib.contextmanager
def within(seconds):
    """Raise `HungError` in what takes longer than so many seconds."""

    def over(*_):
        raise HungError(f"more than {seconds} s")

    before = signal.signal(signal.SIGALRM, over)
    signal.setitimer(signal.ITIMER_REAL, seconds)
    try:
        yield
    finally:
        signal.setitimer(signal.ITIMER_REAL, 0)
        signal.signal(signal.SIGALRM, before)


@dataclass
class Report:
    """What one trial found."""

    name: str
    tried: int = 0
    counts: dict = field(default_factory=dict)
    failures: list = field(default_factory=list)
    started: float = field(default_factory=time.monotonic)

    def count(self, what, number=1):
        self.counts[what] = self.counts.get(what, 0) + number

    def fail(self, what):
        self.failures.append(what)
        self.count("failed")

    def show(self):
        counts = ", ".join(f"{number} {what}" for what, number in self.counts.items() if what != "failed")
        seconds = time.monotonic() - self.started
        print(
            f"{self.name}: {self.tried} tried, {counts or '-'}; {len(self.failures)} failed ({seconds:.0f} s)",
            flush=True,
        )
        for failure, number in sorted(_alike(self.failures).items(), key=lambda pair: -pair[1])[:20]:
            print(f"    {number} × {failure}", flush=True)


def _alike(failures):
    found = {}
    for failure in failures:
        found[failure] = found.get(failure, 0) + 1
    return found
