"""Slow work in processes of its own, so that a window never waits and every core helps.

Each process is a Python of its own, given its task on standard input: it shares nothing with
the window, runs whatever program started it, and ending it ends the work at once, wherever it is.
"""

from __future__ import annotations

import contextlib
import os
import pickle
import subprocess
import sys
import threading
import time
from multiprocessing.connection import Connection, wait
from typing import NamedTuple

from nullah.core.breakdown.search import Layout, Task, search_task
from nullah.core.laying import reached

#: How often a process tells of its progress, in seconds.
_TELL_EVERY = 0.1
_NO_END = 10**9


class Progress(NamedTuple):
    """The best layout so far and how many have been tried."""

    best: Layout | None
    tried: int


class _Told(NamedTuple):
    """What a process tells."""

    seed: int
    layout: Layout | None
    tried: int
    problem: str = ""


class SearchAside:
    """A search for a layout, running beside whoever asks now and then how it is doing.

    Parameters
    ----------
    task : Task
    seconds : float
        How long it may take.
    workers : int or None
        How many processes; by default one for each core, at most four.
    first_seed : int
        The process with seed 1 works on the lower bound too.
    """

    def __init__(self, task: Task, seconds: float, workers: int | None = None, first_seed: int = 1) -> None:
        self._best: Layout | None = None
        self._tried: dict[int, int] = {}
        self._problem = ""
        self._pipes: list[Connection] = []
        self._processes: list[subprocess.Popen[bytes]] = []
        for seed in range(first_seed, first_seed + (workers or min(4, os.cpu_count() or 1))):
            self._begin(pickle.dumps((task, seed, seconds)))

    def _begin(self, work: bytes) -> None:
        """Start a process on a piece of work; what it finds comes through a pipe."""
        ours, theirs = os.pipe()
        words = [sys.executable, "-c", f"from nullah.aside import work_on; work_on({theirs})"]
        process = subprocess.Popen(words, stdin=subprocess.PIPE, pass_fds=(theirs,))
        os.close(theirs)
        self._pipes.append(Connection(ours, writable=False))
        self._processes.append(process)
        # A long task fills the pipe before the process reads it: nobody waits for that.
        threading.Thread(target=_feed, args=(process, work), daemon=True).start()

    @property
    def running(self) -> bool:
        """Whether any process still works."""
        return bool(self._pipes)

    @property
    def problem(self) -> str:
        """Why nothing can be laid out, if so."""
        return self._problem

    def listen(self, seconds: float = 0.0) -> Progress:
        """Take in what was found, waiting at most so long for news."""
        ready = wait(self._pipes, seconds) if self._pipes else []
        for pipe in [pipe for pipe in self._pipes if pipe in ready]:
            try:
                told: _Told = pipe.recv()
            except (EOFError, OSError):
                self._pipes.remove(pipe)
                continue
            self._tried[told.seed] = told.tried
            self._problem = told.problem or self._problem
            if told.layout is not None:
                self.offer(told.layout)
        return Progress(self._best, sum(self._tried.values()))

    def offer(self, layout: Layout) -> None:
        """Take a layout in if it is better, and the higher of two bounds in any case."""
        best = self._best
        if best is None:
            self._best = layout
            return
        better = layout if layout.score < best.score else best
        bound = max(best.bound, layout.bound) if len(best.unplaced) == len(layout.unplaced) else better.bound
        self._best = Layout(
            better.placements, better.unplaced, better.consumed, min(bound, better.consumed), better.cost
        )

    def stop(self) -> Progress:
        """End all processes, now; give the best that was told."""
        for process in self._processes:
            process.terminate()
        for process in self._processes:
            process.wait()
        for pipe in self._pipes:
            pipe.close()
        self._pipes = []
        return Progress(self._best, sum(self._tried.values()))


def _feed(process: subprocess.Popen[bytes], work: bytes) -> None:
    assert process.stdin is not None
    # A process that is ended while it is fed needs no more.
    with contextlib.suppress(BrokenPipeError), process.stdin as stream:
        stream.write(work)


def work_on(pipe_number: int) -> None:
    """Take a task from standard input and search until the time is over, telling how it goes through a pipe.

    This is what a process of `SearchAside` runs.
    """
    pipe = Connection(pipe_number, readable=False)
    work: tuple[Task, int, float] = pickle.load(sys.stdin.buffer)
    task, seed, seconds = work
    start = time.monotonic()

    def over() -> float:
        return (time.monotonic() - start) / seconds

    told, tried = 0.0, 0
    layout: Layout | None = None
    try:
        for layout in search_task(reached(task), _NO_END, seed, over, prove=seed == 1):
            tried += 1
            now = time.monotonic()
            if now - told > _TELL_EVERY or tried == 1:
                pipe.send(_Told(seed, layout, tried))
                told = now
            if now - start > seconds:
                break
        if layout is not None:
            pipe.send(_Told(seed, layout, tried))
    except (ValueError, BrokenPipeError) as error:
        if not isinstance(error, BrokenPipeError):
            pipe.send(_Told(seed, None, tried, str(error)))
    finally:
        pipe.close()
