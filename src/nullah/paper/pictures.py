"""Drawings as small pictures, as large as there is room for them."""

from __future__ import annotations

from PySide6.QtGui import QColor, QImage, QPainter

from nullah.core.drawing import Drawing
from nullah.paper.painter import extent, paint
from nullah.paper.palette import Palette
from nullah.paper.scale import Scale


def fitted_picture(
    shown: Drawing, size: tuple[int, int], palette: Palette, paper: float = 4.5, margin: int = 12, ground: str = ""
) -> QImage:
    """Paint a drawing as large as a picture holds, type and dimensions with it.

    Parameters
    ----------
    shown : Drawing
    size : (width, height)
        Of the picture, pixels.
    palette : Palette
    paper : float
        Pixels for a millimetre of paper: of type, pens and offsets.
    margin : int
        Left free all round, pixels.
    ground : str, optional
        Its colour; that of a sheet, if left out.
    """
    image = QImage(*size, QImage.Format.Format_RGB32)
    image.fill(QColor(ground or palette.sheet))
    if not shown.elements:
        return image
    left, top, right, bottom = shown.bounds()
    wide, high = max(right - left, 1.0), max(bottom - top, 1.0)
    room = (size[0] - 2 * margin, size[1] - 2 * margin)
    per_mm = min(room[0] / wide, room[1] / high)
    taken = extent(shown, Scale(per_mm, paper))
    # Type and dimensions do not shrink with the drawing: leave them the room they take.
    fixed_wide, fixed_high = taken.width() - wide * per_mm, taken.height() - high * per_mm
    per_mm = max(min((room[0] - fixed_wide) / wide, (room[1] - fixed_high) / high), 0.01)
    taken = extent(shown, Scale(per_mm, paper))
    shift = (size[0] / 2 - taken.center().x(), size[1] / 2 - taken.center().y())
    painter = QPainter(image)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    paint(painter, shown, Scale(per_mm, paper, shift), palette)
    painter.end()
    return image
