"""How much memory the desk takes with all that runs beside it, and whether that stays so over many actions.

Memory that several processes share counts once (the proportional share that Linux tells).
"""

from __future__ import annotations

import random
import sys
import time
from pathlib import Path

from desk import act, large_cabinet, opened  # which loads the desk before the toolkit, as the program does

#: What is wanted at most, MB.
WANTED = {"seed cabinet": 150.0, "large cabinet": 250.0}


def share(process: int) -> float:
    """Return the proportional share of memory of a process, MB."""
    text = Path(f"/proc/{process}/smaps_rollup").read_text(encoding="ascii")
    return int(next(line.split()[1] for line in text.splitlines() if line.startswith("Pss:"))) / 1024


def below(process: int) -> list[int]:
    """Return the processes that one has begun, and those that they have begun."""
    found: list[int] = []
    for task in Path(f"/proc/{process}/task").iterdir():
        for child in map(int, (task / "children").read_text(encoding="ascii").split()):
            found += [child, *below(child)]
    return found


def taken() -> tuple[float, float]:
    """Return the memory of the window, and of all that runs beside it, MB."""
    import os

    beside = 0.0
    for each in below(os.getpid()):
        try:
            beside += share(each)
        except OSError:  # it has just ended
            continue
    return share(os.getpid()), beside


def measure(name: str, project, actions: int) -> None:  # type: ignore[no-untyped-def]
    """Print the memory of a desk when all is answered, and again after so many changes, looks and undone steps."""
    from PySide6.QtWidgets import QApplication

    from nullah.background import IDLE

    _, window = opened(project)
    _settle(20.0)
    _tell(name, "when all is answered")
    chance = random.Random(1)
    for number in range(1, actions + 1):
        act(window, chance)
        for _ in range(5):
            _pass_events()
        if number in (actions // 3, actions):
            _settle(10.0)
            _tell(name, f"after {number} actions")
    _settle(IDLE / 1000 + 5)
    _tell(name, "after a minute's rest")
    window.close()
    QApplication.processEvents()


def _tell(name: str, when: str) -> None:
    own, beside = taken()
    print(
        f"{name}, {when}: the window {own:.0f} MB, beside it {beside:.0f} MB, {(own + beside) / WANTED[name]:.2f} of "
        f"the {WANTED[name]:.0f} wanted",
        flush=True,
    )


def _settle(seconds: float) -> None:
    end = time.perf_counter() + seconds
    while time.perf_counter() < end:
        _pass_events()
        time.sleep(0.005)


def _pass_events() -> None:
    """Let the window answer, and delete what it is done with: outside a loop of its own nothing else does."""
    from PySide6.QtCore import QEvent
    from PySide6.QtWidgets import QApplication

    QApplication.processEvents()
    QApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete.value)


if __name__ == "__main__":
    from nullah.demo.seed_cabinet import seed_cabinet

    number = int(sys.argv[1]) if len(sys.argv) > 1 else 300
    measure("seed cabinet", seed_cabinet(), number)
    measure("large cabinet", large_cabinet(), number // 10)
