"""How much memory this process has, and letting go what was kept when that has become much."""

from __future__ import annotations

import gc
import resource
from collections.abc import Callable
from pathlib import Path

from nullah.core.identity import let_go

#: What is kept of earlier plans may take so much, MB, beside what the last one needs.
_MORE = 24.0


def collect_seldom() -> None:
    """Have the collector pass over what there is now, and look at young things less often.

    Otherwise it goes through all modules and tables in the middle of the work, which takes up to twice as long.
    """
    gc.freeze()
    gc.set_threshold(20_000, 20, 20)


def resident() -> float:
    """Return how much memory this process holds, MB; 0 where the system does not tell."""
    try:
        pages = int(Path("/proc/self/statm").read_text(encoding="ascii").split()[1])
    except OSError:
        return 0.0
    return pages * resource.getpagesize() / 2**20


def _give_back() -> None:
    """Give memory that is free back to the system, where its C library can: else it keeps it for later."""
    import ctypes  # commands that keep nothing need not wait for it

    trim = getattr(ctypes.CDLL(None), "malloc_trim", None)
    if trim is not None:
        trim(0)


class Sparing:
    """Lets go what is kept by its inputs once much of it is of plans that are no more.

    Stores are large enough for large pieces, so that many changes of a small one fill them with what nobody asks for.

    """

    def __init__(self) -> None:
        self._needed = 0.0

    def look(self, again: Callable[[], object]) -> None:
        """Let go where this process holds much more than it did when all was let go last.

        Parameters
        ----------
        again : callable
            It works out anew what is most likely wanted next, so that nobody waits for it.
        """
        held = resident()
        if not self._needed:
            self._needed = held
        if held - self._needed < _MORE:
            return
        let_go()
        gc.collect()
        _give_back()
        again()
        self._needed = resident()
