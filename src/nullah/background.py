"""Slow work in processes of its own, so that a window never waits and every core helps.

Each process is given its work through a pipe: it shares nothing with the window, runs whatever program started it,
and ending it ends the work at once, wherever it is.
"""

from __future__ import annotations

import contextlib
import importlib
import io
import os
import pickle
import sys
import threading
import time
import traceback
from collections.abc import Callable, Generator, Iterator, Sequence
from concurrent.futures import ThreadPoolExecutor
from functools import partial
from multiprocessing.connection import Connection, wait
from typing import Any

from nullah.core.breakdown.search import BreakdownError, Layout, LayoutTask, search_task
from nullah.core.laying import reached
from nullah.core.named_tuple import NamedTuple
from nullah.core.wording.facts import error_words
from nullah.forking import Child
from nullah.memory import MUCH_BESIDE, Sparing

#: How often a process tells of its progress, in seconds.
_TELL_EVERY = 0.1
_NO_END = 10**9
#: A process that has had nothing to answer for so long is to be ended, ms: another is begun in no time, and what this
#: one has kept is not worth its memory any more.
IDLE = 45_000
#: How far a piece of work stands behind the window where both want a core: it takes long anyway.
_WORK = 5
#: A process that is ended is waited for so long at most, in seconds.
_ENDS_WITHIN = 2.0


class Refused(NamedTuple):
    """What work that cannot be done returns: the sentence to show."""

    sentence: str


class Finished(NamedTuple):
    """The last that a process tells: what its work returned."""

    result: Any


class Crashed(NamedTuple):
    """The last that a process tells whose work went wrong unexpectedly: how, for the log."""

    details: str


#: Work that can be done aside: it yields what is to be told on the way, and returns its result.
Work = Callable[..., Generator[Any, None, Any]]


class Aside:
    """A piece of work in a process of its own.

    Parameters
    ----------
    work : callable
        A generator function of a module, by which the process finds it.
    arguments
        What it is called with.
    """

    def __init__(self, work: Work, *arguments: Any) -> None:
        takes, gives = os.pipe()
        told, tells = os.pipe()
        self._child = Child(f"{__name__}:work_on", (takes, tells), needs=(work.__module__,), behind=_WORK)
        os.close(takes)
        os.close(tells)
        self.pipe: Connection | None = Connection(told, writable=False)
        task = pickle.dumps((work.__module__, work.__qualname__, arguments))
        # Much to hand over fills the pipe before the process reads it: nobody waits for that.
        threading.Thread(target=_feed, args=(gives, task), daemon=True).start()

    @property
    def running(self) -> bool:
        """Whether it still works, or has told what nobody has heard yet."""
        return self.pipe is not None

    def hear(self) -> Iterator[Any]:
        """Yield what was told since; the last is a `Finished` or a `Crashed`, also where the process was killed."""
        while self.pipe is not None and self.pipe.poll():
            try:
                told = self.pipe.recv()
            except (EOFError, OSError):
                told = Crashed("The process that did the work ended without a word.")
            if isinstance(told, Finished | Crashed):
                self.stop()
            yield told

    def stop(self) -> None:
        """End the process, now."""
        if self.pipe is not None:
            self._child.end()
            _emptied(self.pipe)
            self.pipe.close()
            self.pipe = None


def _feed(gives: int, task: bytes) -> None:
    # A process that is ended while it is fed needs no more.
    with contextlib.suppress(BrokenPipeError), Connection(gives, readable=False) as pipe:
        pipe.send_bytes(task)


def _emptied(pipe: Connection) -> None:
    """Read what a process that is ended still told: when there is no more, it is no more."""
    until = time.monotonic() + _ENDS_WITHIN
    with contextlib.suppress(OSError, EOFError):
        while pipe.poll(max(0.0, until - time.monotonic())):
            if not os.read(pipe.fileno(), 1 << 16):
                return


def work_on(takes: int, tells: int) -> None:
    """Take work from a pipe and do it, telling how it goes through another: what a process of `Aside` runs."""
    pipe = Connection(tells, readable=False)
    with contextlib.suppress(BrokenPipeError), pipe:
        try:
            with Connection(takes, writable=False) as given:
                module, name, arguments = given.recv()
            work: Work = getattr(importlib.import_module(module), name)
            told = work(*arguments)
            while True:
                try:
                    pipe.send(next(told))
                except StopIteration as end:
                    pipe.send(Finished(end.value))
                    return
        except BrokenPipeError:
            raise
        except Exception:
            pipe.send(Crashed(traceback.format_exc()))


# --- one question after another ---


class Answer(NamedTuple):
    """What a question was answered with, by its number; still as it was sent, for reading much of it takes long."""

    number: int
    sent: bytes

    def read(self) -> Any:
        """Return the answer; meanwhile other threads of this process go on."""
        return pickle.Unpickler(_FrameByFrame(self.sent)).load()


#: What reads an answer rests so long after every frame of it, in seconds: with no rest it would be first again.
_REST = 0.001


class _FrameByFrame:
    """What was pickled, read frame by frame: read at once, no other thread could go on until all of it is there."""

    def __init__(self, sent: bytes) -> None:
        self._rest = io.BytesIO(sent)
        self.readline = self._rest.readline

    def read(self, size: int) -> bytes:
        time.sleep(_REST)
        return self._rest.read(size)


class DroppedError(Exception):
    """A question is no longer asked: whoever answers it ends."""


#: What answers: it is given a question that tells whether it is still to be answered, and raises `DroppedError` if not.
Answering = Callable[..., Any]


class Beside:
    """A process that stays and answers one question after another; a new one drops the one before.

    What it keeps by its inputs it still has at the next question.

    Parameters
    ----------
    answering : callable
        A function of a module: called with a function that tells whether the question is dropped, and what was asked.
    needs : sequence of str, optional
        Modules that answering needs beside its own, loaded once for all processes; None: it loads its own for itself.
    behind : int
        How far it stands behind the window where both want a core.
    """

    def __init__(self, answering: Answering, needs: Sequence[str] | None = None, behind: int = 0) -> None:
        asked, asks = os.pipe()
        told, tells = os.pipe()
        name = f"{answering.__module__}:{answering.__qualname__}"
        needs = () if needs is None else (answering.__module__, *needs)
        self._child = Child(f"{__name__}:answer_on", (asked, tells), name, needs=(__name__, *needs), behind=behind)
        os.close(asked)
        os.close(tells)
        self._asks, self.pipe = Connection(asks, readable=False), Connection(told, writable=False)
        # Much to hand over fills the pipe while the process is busy: nobody waits for that.
        self._sender = ThreadPoolExecutor(1)
        self._number = 0
        self.running = True

    def ask(self, *question: Any) -> int:
        """Ask; give the number of the question."""
        self._number += 1
        asked = pickle.dumps((self._number, question))
        self._sender.submit(self._send, asked)
        return self._number

    def _send(self, asked: bytes) -> None:
        with contextlib.suppress(OSError):
            self._asks.send_bytes(asked)

    def hear(self) -> Iterator[Answer | Crashed]:
        """Yield what was answered since; a `Crashed` is the last."""
        while self.running and self.pipe.poll():
            try:
                told = self.pipe.recv()
            except (EOFError, OSError):
                told = Crashed("The process that answers ended without a word.")
            if isinstance(told, Crashed):
                self.stop()
            yield told

    def stop(self) -> None:
        """End the process, now."""
        if self.running:
            self.running = False
            self._child.end()
            _emptied(self.pipe)
            self._sender.shutdown(wait=True, cancel_futures=True)
            self._asks.close()
            self.pipe.close()


def answer_on(asked: int, tells: int, name: str) -> None:
    """Answer questions until nobody asks any more: what a process of `Beside` runs."""
    questions, answers = Connection(asked, writable=False), Connection(tells, readable=False)
    module, _, function = name.partition(":")
    answering: Answering = getattr(importlib.import_module(module), function)
    sparing = Sparing(MUCH_BESIDE)
    with contextlib.suppress(EOFError, BrokenPipeError):
        while True:
            number, question = questions.recv()
            if questions.poll():
                continue
            try:
                answers.send(Answer(number, pickle.dumps(answering(questions.poll, *question))))
                if not questions.poll():
                    sparing.look(partial(answering, questions.poll, *question))
            except DroppedError:
                continue
            except (EOFError, BrokenPipeError):
                raise
            except Exception:
                answers.send(Crashed(traceback.format_exc()))
                return


# --- the breakdown search -------------------------------------------------------------------------


class Progress(NamedTuple):
    """The best layout so far and how many have been tried."""

    best: Layout | None
    tried: int


class _Told(NamedTuple):
    """What a searching process tells."""

    seed: int
    layout: Layout | None
    tried: int


class SearchAside:
    """A search for a layout, running beside whoever asks now and then how it is doing.

    Parameters
    ----------
    task : LayoutTask
    seconds : float
        How long it may take.
    workers : int or None
        How many processes; by default one for each core, at most four.
    first_seed : int
        The process with seed 1 works on the lower bound too.
    """

    def __init__(self, task: LayoutTask, seconds: float, workers: int | None = None, first_seed: int = 1) -> None:
        self._best: Layout | None = None
        self._tried: dict[int, int] = {}
        self.problem = ""
        seeds = range(first_seed, first_seed + (workers or min(4, os.cpu_count() or 1)))
        self._searches = [Aside(search_on, task, seed, seconds) for seed in seeds]

    @property
    def running(self) -> bool:
        """Whether any process still works."""
        return any(search.running for search in self._searches)

    def listen(self, seconds: float = 0.0) -> Progress:
        """Take in what was found, waiting at most so long for news."""
        pipes = [search.pipe for search in self._searches if search.pipe is not None]
        if pipes:
            wait(pipes, seconds)
        for search in self._searches:
            for told in search.hear():
                self._take(told)
        return Progress(self._best, sum(self._tried.values()))

    def _take(self, told: Any) -> None:
        match told:
            case _Told(seed, layout, tried):
                self._tried[seed] = tried
                if layout is not None:
                    self.offer(layout)
            case Finished(Refused(sentence)):
                self.problem = sentence
            case Crashed(details):
                sys.stderr.write(f"A search ended early. {details}\n")

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
        for search in self._searches:
            search.stop()
        return Progress(self._best, sum(self._tried.values()))


def search_on(task: LayoutTask, seed: int, seconds: float) -> Generator[_Told, None, Refused | None]:
    """Search for a layout until the time is over, telling the best now and then."""
    start = time.monotonic()

    def over() -> float:
        return (time.monotonic() - start) / seconds

    last, tried = 0.0, 0
    layout: Layout | None = None
    try:
        for layout in search_task(reached(task), _NO_END, seed, over, prove=seed == 1):
            tried += 1
            now = time.monotonic()
            if now - last > _TELL_EVERY or tried == 1:
                yield _Told(seed, layout, tried)
                last = now
            if now - start > seconds:
                break
    except BreakdownError as error:
        return Refused(error_words(error))
    if layout is not None:
        yield _Told(seed, layout, tried)
    return None
