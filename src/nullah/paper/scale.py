"""How a drawing lies on a device."""

from __future__ import annotations

from PySide6.QtCore import QPointF

from nullah.core.drawing import Point
from nullah.core.named_tuple import NamedTuple


class Scale(NamedTuple):
    """How a drawing lies on a device.

    `per_mm` is device pixels for a millimetre of the drawing, `paper` for a millimetre of
    paper (type, pens, offsets); `origin` is where the drawing's (0, 0) comes to lie.
    """

    per_mm: float
    paper: float
    origin: tuple[float, float] = (0.0, 0.0)

    def put(self, point: Point) -> QPointF:
        """Return the device point of a drawing point."""
        return QPointF(self.origin[0] + point[0] * self.per_mm, self.origin[1] + point[1] * self.per_mm)

    def back(self, x: float, y: float) -> Point:
        """Return the drawing point of a device point."""
        return (x - self.origin[0]) / self.per_mm, (y - self.origin[1]) / self.per_mm
