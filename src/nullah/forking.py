"""Children for slow work, forked from one process that has loaded what they need.

A Python of its own takes a second to load what a proof needs, and as much memory as the window. One process beside the
window, the nursery, loads it once; every child has it at once and shares its memory. It has one thread and no window,
so that forking is safe, and ends with all its children when whoever began it ends.
"""

from __future__ import annotations

import atexit
import contextlib
import importlib
import json
import os
import select
import signal
import socket
import subprocess
import sys
import threading
from collections.abc import Sequence
from typing import Any

from nullah.memory import collect_seldom

#: So long is the number that tells the length of a message.
_HEAD = 8
#: The nursery is waited for so long at most, in seconds: whoever ends is not held up.
_ENDS_WITHIN = 0.05
#: The nursery itself ends when it has had no child for so long, in seconds; who wants one later begins another.
_RESTS_FOR = 300.0
#: A child is given no more open files than this.
_MOST_FILES = 8


class Child:
    """A child that runs a function of a module with some open files.

    Parameters
    ----------
    function : str
        ``module:name``; it is called with the numbers of the open files, then with `arguments`.
    files : sequence of int
        Files that the child is given; the caller closes its own.
    arguments : str
        What else it is called with.
    needs : sequence of str
        Modules that are loaded before, for this child and those that come after it.
    behind : int
        How far it stands behind the window where both want a core: its niceness.
    """

    def __init__(
        self, function: str, files: Sequence[int], *arguments: str, needs: Sequence[str] = (), behind: int = 0
    ) -> None:
        wanted = {"run": function, "with": arguments, "needs": list(needs), "behind": behind, "in": os.getcwd()}
        self._nursery, self._number = _begin(wanted, files)

    def end(self) -> None:
        """End it, now, wherever it is; a child that has ended is not minded."""
        self._nursery.end(self._number)


class _Nursery:
    """The process that forks, seen from whoever began it."""

    def __init__(self, rests_for: float = _RESTS_FOR) -> None:
        ours, theirs = socket.socketpair()
        words = [sys.executable, "-c", f"from nullah.forking import serve; serve({theirs.fileno()}, {rests_for})"]
        # Libraries that would begin threads of their own must not: only a process with one thread is forked.
        alone = {"OPENBLAS_NUM_THREADS": "1", "OMP_NUM_THREADS": "1"}
        # In a group of its own: Ctrl+C in the terminal is for the desk, which ends what runs beside it.
        self.process = subprocess.Popen(
            words, pass_fds=(theirs.fileno(),), stdin=subprocess.DEVNULL, start_new_session=True, env=os.environ | alone
        )
        theirs.close()
        self._socket = ours
        self._lock = threading.Lock()
        self._count = 0
        atexit.register(self._close)

    def begin(self, wanted: dict[str, Any], files: Sequence[int]) -> int:
        """Have a child begun; return its number."""
        with self._lock:
            self._count += 1
            self._send(wanted | {"begin": self._count}, files)
            return self._count

    def end(self, number: int) -> None:
        """Have a child ended."""
        with self._lock, contextlib.suppress(OSError):
            self._send({"end": number}, ())

    def _close(self) -> None:
        """Let it end: it does when nobody can ask any more, unless it is still loading."""
        self._socket.close()
        try:
            self.process.wait(_ENDS_WITHIN)
        except subprocess.TimeoutExpired:
            self.process.kill()
            self.process.wait()

    def _send(self, wanted: dict[str, Any], files: Sequence[int]) -> None:
        body = json.dumps(wanted).encode()
        sent = socket.send_fds(self._socket, [len(body).to_bytes(_HEAD, "big")], list(files))
        assert sent == _HEAD
        self._socket.sendall(body)


_LOCK = threading.Lock()
_NURSERIES: list[_Nursery] = []


def _begin(wanted: dict[str, Any], files: Sequence[int]) -> tuple[_Nursery, int]:
    """Have a child begun by the nursery there is, or by a new one where that has ended."""
    with _LOCK:
        if _NURSERIES:
            with contextlib.suppress(OSError):
                return _NURSERIES[-1], _NURSERIES[-1].begin(wanted, files)
        _NURSERIES[:] = [_Nursery()]
        return _NURSERIES[-1], _NURSERIES[-1].begin(wanted, files)


# --- in the nursery -------------------------------------------------------------------------------


def serve(number: int, rests_for: float) -> None:
    """Begin and end children as they are asked for until nobody asks any more: what the nursery runs.

    Parameters
    ----------
    number : int
        Of the open socket through which it is asked.
    rests_for : float
        So long without a child it takes as not being wanted any more, s.
    """
    asked = socket.socket(fileno=number)
    # Children that end leave nothing to be waited for.
    signal.signal(signal.SIGCHLD, signal.SIG_IGN)
    children: dict[int, int] = {}
    while True:
        if not children and not select.select([asked], (), (), rests_for)[0]:
            break
        wanted, files = _received(asked)
        if wanted is None:
            break
        if "end" in wanted:
            _end(children.pop(wanted["end"], None))
            continue
        for name in wanted["needs"]:
            # What cannot be loaded is told by the child, which tries again.
            with contextlib.suppress(Exception):
                importlib.import_module(name)
        # What is loaded stays: children need not copy it to count references to it.
        collect_seldom()
        child = os.fork()
        if child == 0:
            asked.close()
            _run(wanted, files)
        with contextlib.suppress(OSError):
            children[wanted["begin"]] = os.pidfd_open(child)
        for file in files:
            os.close(file)
    for handle in children.values():
        _end(handle)


def _received(asked: socket.socket) -> tuple[dict[str, Any] | None, list[int]]:
    """Return the next message and the files that came with it; None where nobody asks any more."""
    head, files, _, _ = socket.recv_fds(asked, _HEAD, _MOST_FILES)
    if len(head) < _HEAD:
        return None, files
    body = b""
    while len(body) < (length := int.from_bytes(head, "big")):
        more = asked.recv(length - len(body))
        if not more:
            return None, files
        body += more
    return json.loads(body), files


def _end(handle: int | None) -> None:
    if handle is not None:
        with contextlib.suppress(OSError):
            signal.pidfd_send_signal(handle, signal.SIGKILL)
        os.close(handle)


def _run(wanted: dict[str, Any], files: Sequence[int]) -> None:
    """Run what a child is for, and end."""
    signal.signal(signal.SIGCHLD, signal.SIG_DFL)
    code = 1
    try:
        with contextlib.suppress(OSError):
            os.chdir(wanted["in"])
        os.nice(wanted["behind"])
        module, _, name = wanted["run"].partition(":")
        getattr(importlib.import_module(module), name)(*files, *wanted["with"])
        code = 0
    except BaseException:
        sys.excepthook(*sys.exc_info())
    finally:
        sys.stdout.flush()
        sys.stderr.flush()
        # Nothing of the nursery's own end is a child's business.
        os._exit(code)
