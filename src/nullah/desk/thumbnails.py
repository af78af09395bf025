"""Little true drawings of pieces, painted from the pieces themselves beside the window."""

from __future__ import annotations

import atexit
import sys
from collections import deque
from collections.abc import Callable
from contextlib import suppress
from dataclasses import replace
from functools import cache, lru_cache

from PySide6.QtCore import QObject, QSocketNotifier, QTimer, Signal
from PySide6.QtGui import QImage

from nullah.core.named_tuple import NamedTuple
from nullah.core.project import Piece, Project
from nullah.paper.palette import Palette

TYPE_CHECKING = False
if TYPE_CHECKING:
    from nullah.background import Beside

#: The process that paints has the toolkit in memory: it ends soon when nothing is to be painted, ms.
_IDLE = 5_000
#: Pieces are drawn so much finer than they are shown: edges come out smooth.
_FINE = 2
#: A joint by itself is drawn so far open: put together nothing of it is seen.
_OPENED = 0.5
#: Share of its picture that a piece fills.
_FILLED = 0.92


def thumbnail(project: Project, size: tuple[int, int], palette: Palette) -> QImage:
    """Paint a piece as it is designed, from its front corner; a joint by itself opened.

    Parameters
    ----------
    project : Project
    size : (width, height)
        In pixels.
    palette : Palette
        Colours of the ground and of edges.
    """
    return _painted(project.piece, size, palette).copy()


@lru_cache(maxsize=256)
def _painted(piece: Piece, size: tuple[int, int], palette: Palette) -> QImage:
    import numpy as np

    from nullah.core.piece.render import Look, Viewpoint, fitted, offsets_of, picture, scene
    from nullah.core.piece.solids import recipe
    from nullah.core.plan import work_out
    from nullah.desk.turning import floats_of, tone_of

    opened = _OPENED if piece.form == "joint" else 0.0
    plan = work_out(Project(piece=piece), milling=False, proving=bool(opened))
    parts, joints = plan.assembly.parts, plan.assembly.joints
    image = QImage(*size, QImage.Format.Format_RGB888)
    image.fill(palette.raised)
    if not parts:
        return image
    by_id = {part.id: part for part in parts}
    offsets = np.zeros((len(parts), 3))
    if opened and plan.proof is not None:
        offsets = offsets_of(parts, plan.proof.order, opened, "")
    shown = scene(parts, {part.id: recipe(part, joints, by_id) for part in parts}, offsets)
    wide, high = size[0] * _FINE, size[1] * _FINE
    per_mm, shift = fitted(shown, Viewpoint(), (wide, high), _FILLED)
    look = Look(floats_of(palette.raised), floats_of(palette.wood_line), floats_of(palette.accent))
    tones = tuple(tone_of(plan.species_of(part), palette) for part in parts)
    dots = picture(shown, Viewpoint(), (wide, high), per_mm, tones, look, -1, shift).pixels
    small = dots.reshape(size[1], _FINE, size[0], _FINE, 3).astype(np.uint16).sum(axis=(1, 3)) // _FINE**2
    kept = np.ascontiguousarray(small.astype(np.uint8))
    return QImage(kept.tobytes(), size[0], size[1], 3 * size[0], QImage.Format.Format_RGB888).copy()


def paint_bytes(
    dropped: Callable[[], bool], project: Project, size: tuple[int, int], palette: Palette
) -> tuple[int, int, bytes]:
    """Paint a piece: what the process beside the window answers. Returns width, height, and the dots row by row."""
    from nullah.background import DroppedError

    if dropped():
        raise DroppedError
    image = thumbnail(project, size, palette).convertToFormat(QImage.Format.Format_RGB32)
    return image.width(), image.height(), bytes(image.constBits())


class _Wanted(NamedTuple):
    """A picture that is to be painted: for whom, under which key, and of what."""

    owner: Thumbnails
    key: object
    question: tuple[Project, tuple[int, int], Palette]


class _Painter(QObject):
    """One process that paints for all windows, one picture after the other: a thread would hold the window up."""

    def __init__(self) -> None:
        super().__init__()
        self._process: Beside | None = None
        self._news: QSocketNotifier | None = None
        self._wanted: deque[_Wanted] = deque()
        self._under_way: tuple[int, _Wanted] | None = None
        self._idle = QTimer(self)
        self._idle.setSingleShot(True)
        self._idle.setInterval(_IDLE)
        self._idle.timeout.connect(self._rest)

    def ask(self, wanted: _Wanted) -> None:
        """Have a picture painted after those that were asked for."""
        self._wanted.append(wanted)
        self._go_on()

    def drop(self, owner: Thumbnails) -> None:
        """Paint nothing more for somebody."""
        self._wanted = deque(each for each in self._wanted if each.owner is not owner)
        if self._under_way is not None and self._under_way[1].owner is owner:
            self._under_way = (0, self._under_way[1])

    def _go_on(self) -> None:
        if self._under_way is not None or not self._wanted:
            if self._process is not None:
                self._idle.start()
            return
        self._idle.stop()
        if self._process is None:
            from nullah.background import Beside

            # It loads the toolkit by itself: what proves and plans does without.
            self._process = Beside(paint_bytes, behind=3)
            atexit.register(self._process.stop)
            self._news = QSocketNotifier(self._process.pipe.fileno(), QSocketNotifier.Type.Read, self)
            self._news.activated.connect(self._hear)
        wanted = self._wanted.popleft()
        self._under_way = self._process.ask(*wanted.question), wanted

    def _hear(self) -> None:
        from nullah.background import Answer

        for told in self._process.hear() if self._process is not None else ():
            number, wanted = self._under_way or (0, None)
            self._under_way = None
            if isinstance(told, Answer):
                if wanted is not None and told.number == number:
                    wide, high, dots = told.read()
                    image = QImage(dots, wide, high, QImage.Format.Format_RGB32).copy()
                    # Whoever wanted it may be gone.
                    with suppress(RuntimeError):
                        wanted.owner.painted.emit(wanted.key, image)
                continue
            # One picture less; the next begins a process anew.
            sys.stderr.write(f"{told.details}\n")
            self._end()
        self._go_on()

    def _rest(self) -> None:
        """End the process: nothing was to be painted for long."""
        if self._process is not None and self._under_way is None:
            process = self._process
            self._end()
            process.stop()

    def _end(self) -> None:
        if self._process is not None:
            atexit.unregister(self._process.stop)
        if self._news is not None:
            self._news.setEnabled(False)
            self._news.deleteLater()
        self._process = self._news = None


@cache
def _painter() -> _Painter:
    return _Painter()


class Thumbnails(QObject):
    """Has pictures painted beside the window; `painted` hands each over under its key."""

    painted = Signal(object, QImage)

    def ask(self, key: object, project: Project, size: tuple[int, int], palette: Palette) -> None:
        """Have a piece painted."""
        _painter().ask(_Wanted(self, key, (Project(piece=project.piece), size, palette)))

    def drop(self) -> None:
        """Drop all that was asked for."""
        _painter().drop(self)


def with_choice(project: Project, name: str, option: str) -> Project:
    """Return a project with another option of a choice, for a picture of it."""
    from nullah.core import actions

    return actions.choose(replace(project, layout=()), name, option)
