"""What processes there are, as the system tells."""

import os
import time


def _stat(process):
    """Return the state and the parent of a process."""
    with open(f"/proc/{process}/stat", encoding="ascii") as stat:
        state, above, *_ = stat.read().rpartition(")")[2].split()
    return state, int(above)


def alive(process):
    try:
        return _stat(process)[0] != "Z"
    except OSError:
        return False


def gone(process):
    """Return whether a process that was told to end has: its files are closed a moment before it is gone."""
    for _ in range(1000):
        if not alive(process):
            return True
        time.sleep(0.01)
    return False


def parent(process):
    return _stat(process)[1]


def children_of(process):
    """Return the processes that one has begun and that run."""
    there = [int(entry) for entry in os.listdir("/proc") if entry.isdecimal()]
    return {each for each in there if _runs_below(each, process)}


def _runs_below(process, above):
    try:
        state, begun_by = _stat(process)
    except OSError:
        # It ended between two looks.
        return False
    return state != "Z" and begun_by == above


def below(process):
    """Return all that run below a process."""
    found = children_of(process)
    return found.union(*map(below, found))
