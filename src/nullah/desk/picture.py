"""The drawing on the bench as it is painted: at once where little changed, in steps where there is time."""

from __future__ import annotations

from collections.abc import Iterator

from PySide6.QtCore import QRectF, QSize
from PySide6.QtGui import QColor, QPainter, QPixmap

from nullah.core.named_tuple import NamedTuple
from nullah.paper.painter import paint_in_steps
from nullah.paper.palette import DAY, Palette
from nullah.paper.scale import Scale
from nullah.paper.tiles import Painting, Tiles, changed_tiles

#: Where more than this share of a picture is another one, all of it is painted: to look for what is in it takes longer.
_MOST = 0.5


class Place(NamedTuple):
    """Where a picture is painted: how the drawing lies on it, its size, dots to the pixel, and the colours."""

    scale: Scale
    size: QSize
    ratio: float
    palette: Palette

    def differs_only_in_scale(self, other: Place) -> bool:
        """Return whether a picture painted for another place can stand in for one of this."""
        return self._replace(scale=other.scale) == other


class Picture:
    """A painted drawing: what lies over it comes and goes without painting it anew."""

    def __init__(self) -> None:
        self._pixmap = QPixmap()
        self._of: Painting | None = None
        self._at = Place(Scale(1.0, 1.0), QSize(), 1.0, DAY)

    def can_stand_in(self, at: Place) -> bool:
        """Return whether the last picture may be shown, moved and stretched, until the next is painted."""
        return self._of is not None and at.differs_only_in_scale(self._at)

    def paint(self, of: Painting, at: Place) -> None:
        """Paint a drawing now: only what is another one since the last, where that is little."""
        tiles = None
        if self._of is not None and at == self._at:
            tiles = changed_tiles(self._of, of, at.scale, (at.size.width(), at.size.height()))
        if tiles is None or tiles.share > _MOST:
            for _ in self.steps(of, at):
                pass
            return
        painter = QPainter(self._pixmap)
        painter.setClipRegion(tiles.region())
        for _ in _paint(painter, of, at, tiles):
            pass
        painter.end()
        self._of = of

    def steps(self, of: Painting, at: Place) -> Iterator[None]:
        """Paint a drawing aside, resting again and again; once it is whole it takes the place of the last picture."""
        pixmap = QPixmap(at.size * at.ratio)
        pixmap.setDevicePixelRatio(at.ratio)
        painter = QPainter(pixmap)
        try:
            yield from _paint(painter, of, at, None)
        finally:
            painter.end()
        self._pixmap, self._of, self._at = pixmap, of, at

    def show(self, painter: QPainter, scale: Scale) -> None:
        """Show the last picture as it lies at a scale."""
        before = self._at.scale
        if scale == before:
            painter.drawPixmap(0, 0, self._pixmap)
            return
        by = scale.per_mm / before.per_mm
        left, top = scale.origin[0] - before.origin[0] * by, scale.origin[1] - before.origin[1] * by
        wide, high = self._at.size.width() * by, self._at.size.height() * by
        painter.fillRect(QRectF(0, 0, self._at.size.width(), self._at.size.height()), QColor(self._at.palette.sheet))
        painter.drawPixmap(QRectF(left, top, wide, high), self._pixmap, QRectF(self._pixmap.rect()))


def _paint(painter: QPainter, of: Painting, at: Place, tiles: Tiles | None) -> Iterator[None]:
    painter.fillRect(0, 0, at.size.width(), at.size.height(), QColor(at.palette.sheet))
    yield from paint_in_steps(painter, of, at.scale, at.palette, tiles)
