"""What words a widget paints, and where: read off the painting itself, not off what was meant to be painted."""

from __future__ import annotations

import math
from collections.abc import Callable

from PySide6.QtCore import QPoint, QPointF, QRect, QRectF
from PySide6.QtGui import QFontMetricsF, QPaintDevice, QPaintEngine, QPaintEngineState, QPainter, QRegion, QTextItem
from PySide6.QtWidgets import QAbstractScrollArea, QHeaderView, QTableView, QWidget

from nullah.core.named_tuple import NamedTuple


class PaintedText(NamedTuple):
    """A line of words: its box in pixels of the widget, by how much it is turned, and whether part of it is cut off."""

    text: str
    box: QRectF
    turned: float
    cut_off: bool


class _Engine(QPaintEngine):
    """Paints nothing, and keeps the words."""

    def __init__(self) -> None:
        super().__init__(QPaintEngine.PaintEngineFeature.AllFeatures)
        self.found: list[tuple[str, QRectF, float, QRectF | None]] = []

    def begin(self, device: QPaintDevice) -> bool:
        self.setActive(True)
        return True

    def end(self) -> bool:
        self.setActive(False)
        return True

    def type(self) -> QPaintEngine.Type:
        return QPaintEngine.Type.User

    def updateState(self, state: QPaintEngineState) -> None:
        pass

    def drawTextItem(self, at: QPointF, item: QTextItem) -> None:  # type: ignore[override]
        painter = self.painter()
        turn = painter.transform()
        # The ink's own height: a line of capitals reaches nowhere below it.
        ink = QFontMetricsF(item.font()).tightBoundingRect(item.text())
        flat = QRectF(at.x(), at.y() + ink.top(), item.width(), ink.height())
        clip = turn.mapRect(painter.clipBoundingRect()) if painter.hasClipping() else None
        angle = math.degrees(math.atan2(turn.m12(), turn.m11()))
        self.found.append((item.text(), turn.mapRect(flat), angle, clip))

    def drawPath(self, *_: object) -> None:
        pass

    def drawPixmap(self, *_: object) -> None:
        pass

    def drawImage(self, *_: object) -> None:
        pass

    def drawTiledPixmap(self, *_: object) -> None:
        pass

    def drawPolygon(self, *_: object) -> None:
        pass

    def drawRects(self, *_: object) -> None:
        pass

    def drawLines(self, *_: object) -> None:
        pass

    def drawPoints(self, *_: object) -> None:
        pass

    def drawEllipse(self, *_: object) -> None:
        pass


class _Device(QPaintDevice):
    """As large as a widget, at one dot to a pixel."""

    def __init__(self, wide: int, high: int) -> None:
        super().__init__()
        self.engine = _Engine()
        self._wide, self._high = wide, high

    def paintEngine(self) -> QPaintEngine:
        return self.engine

    def metric(self, metric: QPaintDevice.PaintDeviceMetric) -> int:
        kinds = QPaintDevice.PaintDeviceMetric
        known = {
            kinds.PdmWidth: self._wide,
            kinds.PdmHeight: self._high,
            kinds.PdmWidthMM: round(self._wide * 25.4 / 96),
            kinds.PdmHeightMM: round(self._high * 25.4 / 96),
            kinds.PdmNumColors: 1 << 24,
            kinds.PdmDepth: 32,
            kinds.PdmDevicePixelRatio: 1,
            kinds.PdmDevicePixelRatioScaled: 0x10000,
        }
        return known.get(metric, 96)


def painted_texts(whole: QWidget) -> list[PaintedText]:
    """Return every line of words that a widget and all that stands on it paint.

    A line is cut off where it reaches out of what is seen of its own widget, or was shortened with an ellipsis.
    """
    found: list[PaintedText] = []
    for widget in (whole, *whole.findChildren(QWidget)):
        if not widget.isVisibleTo(whole.parentWidget() or whole) and widget is not whole:
            continue
        seen = widget.visibleRegion().boundingRect()
        if seen.isEmpty():
            continue
        at = widget.mapTo(whole, QPoint(0, 0))
        for text, box, angle, clip in _painted_by(widget):
            shown = QRectF(seen) if clip is None else QRectF(seen).intersected(clip)
            if not text.strip() or not shown.intersects(box) or _scrolled_out(widget, box):
                continue
            out = not shown.adjusted(-1, -1, 1, 1).contains(box)
            # A sign of its own stands after a blank: "12 …" waits for a measurement, "Seed cab…" is cut short.
            short = text.endswith("…") and not text.endswith(" …") and text != "…"
            found.append(PaintedText(text, box.translated(QPointF(at)), angle, out or short))
    return found


def _scrolled_out(widget: QWidget, box: QRectF) -> bool:
    """Return whether a line lies over an edge beyond which it can be scrolled to."""
    area = widget.parentWidget()
    if isinstance(widget, QHeaderView) or isinstance(area, QHeaderView):
        area = area if isinstance(area, QTableView) else area.parentWidget() if area is not None else None
    elif not isinstance(area, QAbstractScrollArea) or area.viewport() is not widget:
        return False
    if not isinstance(area, QAbstractScrollArea):
        return False
    down, along = area.verticalScrollBar().maximum() > 0, area.horizontalScrollBar().maximum() > 0
    return (down and (box.top() < 0 or box.bottom() > widget.height())) or (
        along and (box.left() < 0 or box.right() > widget.width())
    )


def _painted_by(widget: QWidget) -> list[tuple[str, QRectF, float, QRectF | None]]:
    """Return the words that one widget paints, without those of its children."""
    whole = QRegion(QRect(0, 0, widget.width(), widget.height()))

    def paint(painter: QPainter) -> None:
        widget.render(painter, QPoint(0, 0), whole, QWidget.RenderFlag(0))

    return _painting((widget.width(), widget.height()), paint)


def _painting(
    size: tuple[int, int], paint: Callable[[QPainter], None]
) -> list[tuple[str, QRectF, float, QRectF | None]]:
    device = _Device(*size)
    painter = QPainter(device)
    paint(painter)
    painter.end()
    return device.engine.found


def texts_of(size: tuple[int, int], paint: Callable[[QPainter], None]) -> list[PaintedText]:
    """Return every line of words that a painting has on a page of so many pixels; what reaches over it is cut off."""
    page = QRectF(0, 0, *size)
    return [
        PaintedText(text, box, angle, not page.contains(box))
        for text, box, angle, _ in _painting(size, paint)
        if text.strip()
    ]


def overlaps(texts: list[PaintedText], least: float = 0.5) -> list[tuple[PaintedText, PaintedText]]:
    """Return pairs of lines that lie over each other by more than `least` pixels each way."""
    pairs = []
    order = sorted(texts, key=lambda text: text.box.left())
    for index, one in enumerate(order):
        for other in order[index + 1 :]:
            if other.box.left() >= one.box.right() - least:
                break
            common = one.box.intersected(other.box)
            if common.width() > least and common.height() > least:
                pairs.append((one, other))
    return pairs
