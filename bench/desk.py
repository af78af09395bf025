"""From a changed dimension to the paint: at every station, on the seed cabinet and on a large one, in both units.

Times are given as they are and as a share of what is wanted, scaled to a machine on which a bare window takes 0.17 s.
These machines are twice as fast in one minute as in the next, so a bare window is started between any two changes, and
scales the changes beside it.
"""

from __future__ import annotations

import random
import statistics
import sys
import tempfile
import time
from dataclasses import replace
from pathlib import Path

from measure import BARE, whole_process

import nullah.desk  # noqa: F401  # before the toolkit, as the program does

#: A bare window takes so long on the machine for which the limits are meant, s.
BARE_THERE = 0.17
WANTED = {"seed cabinet": 33.0, "large cabinet": 50.0}


def large_cabinet():  # type: ignore[no-untyped-def]
    """Return a cabinet of some 200 parts, on 60 boards, with 1500 entries in its book."""
    from nullah.core import actions
    from nullah.core.bench.book import BookEntry, Event
    from nullah.core.lengths import mm
    from nullah.core.project import Piece, Project
    from nullah.demo.seed_cabinet import seed_cabinet

    sample = seed_cabinet()
    chosen = (("rows", "8"), ("columns", "3"), ("drawers", "all"), ("dividers", "frame"), ("back", "8"))
    size = (
        ("case.outside_height", mm(1800)), ("case.outside_width", mm(1500)), ("case.outside_depth", mm(300)),
        ("sides.thickness", mm(22)), ("divider.thickness", mm(18)),
    )  # fmt: skip
    boards = tuple(replace(sample.boards[n % len(sample.boards)], id=str(n), name=f"Ford {n}") for n in range(1, 61))
    note = BookEntry("2026-11-26T18:47", Event.NOTE, "Saw Ford 1", "saw/1", text="it pinches where the knot is")
    project = Project(piece=Piece("case", "large cabinet", chosen, size), boards=boards, book=(note,) * 1500)
    return actions.give(project, "back.rabbet", mm(8))


class Watch:
    """Tells when the bench was painted, and how long the window was busy at a stretch."""

    def __init__(self, window) -> None:  # type: ignore[no-untyped-def]
        from PySide6.QtCore import QEvent, QObject

        class Filter(QObject):
            def eventFilter(self, watched, event):  # type: ignore[no-untyped-def]
                if event.type() == QEvent.Type.UpdateRequest:
                    self.asked = time.perf_counter()
                return False

        self.filter = Filter()
        window.installEventFilter(self.filter)
        self.painted: list[float] = []
        bench = window.bench
        paint = type(bench).paintEvent

        def painted(widget, event):  # type: ignore[no-untyped-def]
            paint(widget, event)
            self.painted.append(time.perf_counter())

        bench.__class__ = type("Watched", (type(bench),), {"paintEvent": painted})


def opened(project):  # type: ignore[no-untyped-def]
    """Return the application, and the window with a piece in it as it is some time after the start."""
    from nullah.desk.application import application
    from nullah.desk.start import make_window, spare_the_collector

    app = application()
    window = make_window(project, Path(tempfile.mkdtemp()))
    window.resize(1280, 800)
    window.show()
    window.document.numbers_ready()
    spare_the_collector()
    return app, window


def act(window, chance: random.Random) -> None:  # type: ignore[no-untyped-def]
    """Do what somebody does at a desk: go elsewhere, take a step back, pick a part, zoom, or type a figure."""
    from PySide6.QtCore import QPointF

    from nullah.core import actions
    from nullah.core.lengths import mm
    from nullah.core.stations import STATIONS

    what, document = chance.randrange(8), window.document
    if what == 0:
        window.show_station(chance.randrange(len(STATIONS)))
    elif what == 1 and document.undo_name:
        document.undo()
    elif what == 2:
        document.pick_part(chance.choice(document.plan.parts).id)
    elif what == 3:
        window.bench.zoom(chance.choice((0.8, 1.25)), QPointF(300, 200))
    else:
        name, least, most = chance.choice((("back.rabbet", 4, 9), ("divider.setback", 0, 4), ("back.gap", 1, 2)))
        figure = mm(f"{chance.randrange(least, most)}.{chance.randrange(1000):04d}")
        document.do("bench", lambda p: actions.give(p, name, figure))


def measure(name: str, project, acts: int) -> None:  # type: ignore[no-untyped-def]
    """Print, for every station, how long a changed dimension takes to the paint; after so many random actions."""
    from PySide6.QtWidgets import QApplication

    from nullah.core import actions
    from nullah.core.lengths import Unit, mm
    from nullah.core.stations import STATIONS

    app, window = opened(project)
    watch = Watch(window)
    chance = random.Random(1)
    for _ in range(acts):
        act(window, chance)
        for _ in range(5):
            app.processEvents()
    window.bench.fit()
    depth = iter(range(1, 4000))
    wanted = WANTED[name]
    print(
        f"\n{name}: {len(window.document.plan.parts)} parts, {len(project.boards)} boards, {len(project.book)} entries"
    )
    if acts:
        print(f"after {acts} random actions")
    print(f"{'':24}{'to the paint':>14}{'scaled':>9}{'wanted':>8}{'longest after':>15}{'a bare window':>15}")
    for unit in (Unit.MM, Unit.INCH):
        window.show_unit(unit)
        for number, station in enumerate(STATIONS):
            window.show_station(number)
            _settle(app, 3.0)
            first, after, there, bare = [], [], [], []
            for _ in range(5):
                bare.append(whole_process(BARE) * 1000)
                watch.painted.clear()
                figure = mm(f"8.{next(depth):04d}")
                start = time.perf_counter()
                window.document.do("bench", lambda p, figure=figure: actions.give(p, "back.rabbet", figure))
                while not watch.painted and time.perf_counter() - start < 20:
                    app.processEvents()
                first.append(((watch.painted or [time.perf_counter()])[0] - start) * 1000)
                while (
                    not window.document.order_ready() and station.id == "daybook" and time.perf_counter() - start < 20
                ):
                    app.processEvents()
                there.append((time.perf_counter() - start) * 1000)
                after.append(_settle(app, 1.5))
            middle, window_there = statistics.median(first), statistics.median(bare)
            scale = BARE_THERE * 1000 / window_there
            print(
                f"{station.title + ', ' + unit.value:24}{middle:11.0f} ms{middle * scale:6.0f} ms{wanted:5.0f} ms"
                f"{statistics.median(after):12.0f} ms{window_there:12.0f} ms",
                flush=True,
            )
            if station.id == "daybook":
                order = statistics.median(there)
                print(f"{'  its order of work':24}{order:11.0f} ms{order * scale:6.0f} ms", flush=True)
    window.close()
    QApplication.processEvents()


def _settle(app, seconds: float) -> float:  # type: ignore[no-untyped-def]
    """Let the window go on for a while; return the longest it was busy at a stretch, ms."""
    longest, end = 0.0, time.perf_counter() + seconds
    while time.perf_counter() < end:
        start = time.perf_counter()
        app.processEvents()
        longest = max(longest, time.perf_counter() - start)
        time.sleep(0.001)
    return longest * 1000


def desk(acts: int = 0) -> None:
    """Measure both cabinets; the large one after a tenth of the actions."""
    from nullah.demo.seed_cabinet import seed_cabinet

    whole_process(BARE)
    for name, project in (("seed cabinet", seed_cabinet()), ("large cabinet", large_cabinet())):
        measure(name, project, acts if name == "seed cabinet" else acts // 10)


if __name__ == "__main__":
    desk(int(sys.argv[1]) if len(sys.argv) > 1 else 0)
