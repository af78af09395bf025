"""How long a frame takes while something follows the pointer: from a move of the mouse to the paint, at every station.

Times are given as they are and scaled to a machine on which a bare window takes 0.17 s, as in `desk.py`.
"""

from __future__ import annotations

import statistics
import time
from collections.abc import Iterator

from measure import BARE, whole_process

from desk import BARE_THERE, Watch, _settle, large_cabinet, opened

#: What a frame may take, ms: sixty of them fit into a second.
WANTED = 1000 / 60
#: So many moves are measured of each.
_MOVES = 40


class Hand:
    """Moves the mouse over the bench of a window, and takes the time of each move until it is painted."""

    def __init__(self, app, window) -> None:  # type: ignore[no-untyped-def]
        self.app, self.window, self.bench = app, window, window.bench
        self.watch = Watch(window)

    def go(self, station: int) -> None:
        self.window.show_station(station)
        _settle(self.app, 2.5)

    def frames(self, places: Iterator, button) -> list[float]:  # type: ignore[no-untyped-def]
        """Press at the first place, move through the others, and let go at the last."""
        from PySide6.QtCore import QEvent, QPointF, Qt
        from PySide6.QtGui import QMouseEvent
        from PySide6.QtWidgets import QApplication

        none, found, held = Qt.MouseButton.NoButton, [], Qt.MouseButton.NoButton

        def send(kind, at: QPointF, of, held) -> None:  # type: ignore[no-untyped-def]
            there = self.bench.mapToGlobal(at)
            QApplication.sendEvent(self.bench, QMouseEvent(kind, at, there, of, held, Qt.KeyboardModifier.NoModifier))

        at = next(places)
        if button is not none:
            held = button
            send(QEvent.Type.MouseButtonPress, at, button, button)
        for at in places:
            self.watch.painted.clear()
            start = time.perf_counter()
            send(QEvent.Type.MouseMove, at, none, held)
            self.app.processEvents()
            # A move that changes nothing paints nothing.
            found.append((time.perf_counter() - start) * 1000)
        if held is not none:
            send(QEvent.Type.MouseButtonRelease, at, button, none)
        return found


def _line(start, by) -> Iterator:  # type: ignore[no-untyped-def]
    from PySide6.QtCore import QPointF

    return iter([start + QPointF(*by) * number for number in range(_MOVES + 1)])


def measure(name: str, project, scale: float) -> None:  # type: ignore[no-untyped-def]
    """Print the frames of all that is dragged, moved, or pointed at."""
    from PySide6.QtCore import QPointF, Qt
    from PySide6.QtWidgets import QApplication

    import nullah.files.schema  # noqa: F401  # as the desk has loaded it by then
    from nullah.core.drawing import Path as Line
    from nullah.core.refs import BoardRef, PieceRef

    app, window = opened(project)
    hand, bench = Hand(app, window), window.bench
    left, middle, no = Qt.MouseButton.LeftButton, Qt.MouseButton.MiddleButton, Qt.MouseButton.NoButton
    print(f"\n{name}\n{'':40}{'a frame':>12}{'scaled':>9}{'worst':>9}{'wanted':>9}")

    def told(what: str, frames: list[float]) -> None:
        middle_one, worst = statistics.median(frames), sorted(frames)[int(len(frames) * 0.95)]
        print(
            f"{what:40}{middle_one:9.1f} ms{middle_one * scale:6.1f} ms{worst * scale:6.1f} ms{WANTED:6.1f} ms",
            flush=True,
        )

    def middle_of(kind) -> QPointF:  # type: ignore[no-untyped-def]
        return bench.place_of(next(ref for ref in bench.targets() if isinstance(ref, kind)))

    hand.go(0)
    told("Piece, the pointer goes over it", hand.frames(_line(QPointF(40, 60), (18, 10)), no))
    told("Piece, a view is moved", hand.frames(_line(QPointF(300, 300), (4, 2)), middle))
    _settle(app, 1.0)
    hand.go(1)
    told("Rack, a flaw is drawn", hand.frames(_line(middle_of(BoardRef), (2, 0.2)), left))
    _settle(app, 1.0)
    told("Rack, a view is moved", hand.frames(_line(QPointF(300, 300), (4, 2)), middle))
    hand.go(2)
    if any(isinstance(ref, PieceRef) for ref in bench.targets()):
        told("Breakdown, a part is moved", hand.frames(_line(middle_of(PieceRef), (2, 3)), left))
    hand.go(4)
    if window.document.plan.corner is not None:
        lines = [each for each in bench.drawing.elements if isinstance(each, Line)]
        told("Joints, a line is dragged", _dragged_line(hand, lines, left))
    window.close()
    QApplication.processEvents()


def _dragged_line(hand: Hand, lines: list, button) -> list[float]:  # type: ignore[no-untyped-def]
    """Drag the line of a corner that can be taken, to and fro."""
    from PySide6.QtCore import QPointF

    corner, bench = hand.window.document.plan.corner, hand.bench
    spec = corner.layout.spec
    start = bench.scale.put((-1.0, float(spec.width) - float(spec.half_pin)))
    return hand.frames(iter([start + QPointF(0, -(number % 12)) for number in range(_MOVES + 1)]), button)


def frames() -> None:
    """Measure both cabinets."""
    from nullah.demo.seed_cabinet import seed_cabinet

    whole_process(BARE)
    bare = statistics.median(whole_process(BARE) for _ in range(5))
    print(f"a bare window takes {bare:.3f} s here")
    for name, project in (("seed cabinet", seed_cabinet()), ("large cabinet", large_cabinet())):
        measure(name, project, BARE_THERE / bare)


if __name__ == "__main__":
    frames()
