"""How much this process holds, and letting go what was kept when that has become much."""

from __future__ import annotations

import gc
import sys
from collections.abc import Callable

from nullah.core.identity import grow_old, let_go

#: So much more than the last plan needs, as a share of that, and what nobody asks for any more is let go; so much more,
#: and all is: in the window, where the next change then takes longer, and beside it.
SOME, MUCH, MUCH_BESIDE = 0.15, 0.7, 0.3


def collect_seldom() -> None:
    """Have the collector pass over what there is now, look at young things seldom, and at few of them at a time.

    Otherwise it goes through all modules and tables in the middle of the work, which takes up to twice as long; and a
    window that waits for it to look at a hundred thousand young things is seen to wait.
    """
    gc.freeze()
    gc.set_threshold(2_000, 5, 800)


def _give_back() -> None:
    """Give memory that is free back to the system, where its C library can: else it keeps it for later."""
    import ctypes  # commands that keep nothing need not wait for it

    trim = getattr(ctypes.CDLL(None), "malloc_trim", None)
    if trim is not None:
        trim(0)


class Sparing:
    """Lets go what is kept by its inputs once much of it is of plans that are no more.

    Stores are large enough for large pieces, so that many changes of a small one fill them with what nobody asks for.
    Blocks of memory are counted, not the memory of the process: that keeps what it had at its fullest, in pieces.
    """

    def __init__(self, much: float = MUCH) -> None:
        self._much = much
        # What was held when all was let go last, and when what was old was.
        self._needed = self._then = 0

    def look(self, again: Callable[[], object] | None) -> None:
        """Let go where this process holds much more than it did when all was let go last.

        Parameters
        ----------
        again : callable or None
            It works out anew what is most likely wanted next, so that nobody waits for it; None where there is no time
            for that: then not all is let go.
        """
        held = sys.getallocatedblocks()
        if not self._needed:
            self._needed = self._then = held
        elif held >= self._needed * (1 + self._much) and again is not None:
            let_go()
            gc.collect()
            _give_back()
            again()
            self._needed = self._then = sys.getallocatedblocks()
        elif held >= self._then + self._needed * SOME:
            grow_old()
            self._then = sys.getallocatedblocks()
