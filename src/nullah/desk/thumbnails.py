"""Little true drawings of pieces, painted from the pieces themselves beside the window."""

from __future__ import annotations

from contextlib import suppress
from dataclasses import replace
from functools import lru_cache

from PySide6.QtCore import QObject, QRunnable, QThreadPool, Signal, Slot
from PySide6.QtGui import QImage

from nullah.core.project import Piece, Project
from nullah.paper.palette import Palette

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


class _Told(QObject):
    #: The run, and what it painted.
    painted = Signal(object, QImage)


class _Run(QRunnable):
    """One picture, painted beside the window."""

    def __init__(self, key: object, project: Project, size: tuple[int, int], palette: Palette) -> None:
        super().__init__()
        self.setAutoDelete(False)
        self.told = _Told()
        self.key = key
        self._project, self._size, self._palette = project, size, palette

    def run(self) -> None:
        image = thumbnail(self._project, self._size, self._palette)
        # A desk that was killed has nobody left to hand it to.
        with suppress(RuntimeError):
            self.told.painted.emit(self, image)


class Thumbnails(QObject):
    """Paints pictures one after the other; `painted` hands each over under its key."""

    painted = Signal(object, QImage)

    def __init__(self, owner: QObject) -> None:
        super().__init__(owner)
        self._pool = QThreadPool(self)
        self._pool.setMaxThreadCount(1)
        self._wanted: dict[object, _Run] = {}
        self._alive: set[_Run] = set()

    @property
    def busy(self) -> bool:
        """Whether anything is still to be painted."""
        return bool(self._wanted)

    def ask(self, key: object, project: Project, size: tuple[int, int], palette: Palette) -> None:
        """Have a piece painted; what was asked for under the same key before is not wanted any more."""
        run = _Run(key, project, size, palette)
        run.told.painted.connect(self._take)
        self._wanted[key] = run
        self._alive.add(run)
        self._pool.start(run)

    @Slot(object, QImage)
    def _take(self, run: _Run, image: QImage) -> None:
        self._alive.discard(run)
        if self._wanted.get(run.key) is run:
            del self._wanted[run.key]
            self.painted.emit(run.key, image)

    def drop(self, wait: bool = False) -> None:
        """Drop all that waits; `wait` for what is being painted, for closing the window."""
        self._wanted.clear()
        # One that the pool has taken up already must live until it is done.
        self._alive = {run for run in self._alive if not self._pool.tryTake(run)}
        if wait:
            self._pool.waitForDone()


def with_choice(project: Project, name: str, option: str) -> Project:
    """Return a project with another option of a choice, for a picture of it."""
    from nullah.core import actions

    return actions.choose(replace(project, layout=()), name, option)
