"""Sheets onto paper: PDF, SVG and PNG, all through the one painter, all at full size."""

from __future__ import annotations

import os
import tempfile
from collections.abc import Callable, Sequence
from pathlib import Path

from PySide6.QtCore import QMarginsF, QRectF, QSize, QSizeF
from PySide6.QtGui import QColor, QImage, QPageLayout, QPageSize, QPainter, QPdfWriter

from nullah.core.drawing import Drawing
from nullah.core.sheets.page import Sheet
from nullah.paper.painter import Scale, paint
from nullah.paper.palette import INK, Palette

#: Dots to the millimetre in PDF files: 0.02 mm a dot, finer than any printer or knife.
_PDF_DPI = 1270
_SVG_PER_MM = 10


class PaperError(OSError):
    """A sheet could not be written; the message says which file and why."""


def write_pdf(sheets: Sequence[Sheet], target: Path) -> None:
    """Write sheets as pages of one PDF at full size.

    Raises
    ------
    PaperError
        If the file cannot be written; whatever stood there before stays.
    """
    _into_place(target, lambda beside: _pdf(sheets, beside))


def _pdf(sheets: Sequence[Sheet], beside: Path) -> None:
    writer = QPdfWriter(str(beside))
    writer.setResolution(_PDF_DPI)
    writer.setTitle(sheets[0].title)
    writer.setCreator("Nullah")
    per_mm = _PDF_DPI / 25.4
    painter: QPainter | None = None
    for sheet in sheets:
        writer.setPageLayout(page_layout(sheet))
        if painter is None:
            painter = QPainter(writer)
        else:
            writer.newPage()
        paint(painter, sheet.drawing, Scale(per_mm, per_mm), INK)
    if painter is None or not painter.end():
        raise OSError("nothing was drawn")


def page_layout(sheet: Sheet) -> QPageLayout:
    """Give the page of a sheet, without margins: the sheet brings its own."""
    size = QPageSize(QSizeF(sheet.width_mm, sheet.height_mm), QPageSize.Unit.Millimeter, sheet.name,
                     QPageSize.SizeMatchPolicy.ExactMatch)  # fmt: skip
    return QPageLayout(size, QPageLayout.Orientation.Portrait, QMarginsF(0, 0, 0, 0), QPageLayout.Unit.Millimeter)


def write_svg(sheet: Sheet, target: Path) -> None:
    """Write one sheet as SVG, sized in mm, with its type as outlines.

    Raises
    ------
    PaperError
        If the file cannot be written.
    """
    _into_place(target, lambda beside: _svg(sheet, beside))


def _svg(sheet: Sheet, beside: Path) -> None:
    from PySide6.QtSvg import QSvgGenerator

    generator = QSvgGenerator()
    generator.setFileName(str(beside))
    generator.setTitle(sheet.title)
    generator.setResolution(round(25.4 * _SVG_PER_MM))
    generator.setSize(QSize(round(sheet.width_mm * _SVG_PER_MM), round(sheet.height_mm * _SVG_PER_MM)))
    generator.setViewBox(QRectF(0, 0, sheet.width_mm * _SVG_PER_MM, sheet.height_mm * _SVG_PER_MM))
    painter = QPainter()
    if not painter.begin(generator):
        raise OSError("the file cannot be opened for writing")
    paint(painter, sheet.drawing, Scale(_SVG_PER_MM, _SVG_PER_MM), INK, text_as_paths=True)
    painter.end()


def write_png(sheet: Sheet, target: Path, per_mm: float = 5.0) -> None:
    """Write one sheet as PNG, `per_mm` pixels to the millimetre.

    Raises
    ------
    PaperError
        If the file cannot be written.
    """

    def png(beside: Path) -> None:
        image = picture(sheet.drawing, sheet.width_mm, sheet.height_mm, per_mm)
        if not image.save(str(beside)):
            raise OSError("the file cannot be opened for writing")

    _into_place(target, png)


def picture(drawing: Drawing, width_mm: float, height_mm: float, per_mm: float, palette: Palette = INK) -> QImage:
    """Give a drawing as an image of that size."""
    image = QImage(round(width_mm * per_mm), round(height_mm * per_mm), QImage.Format.Format_ARGB32)
    image.fill(QColor(palette.ground))
    painter = QPainter(image)
    paint(painter, drawing, Scale(per_mm, per_mm), palette)
    painter.end()
    return image


def _into_place(target: Path, write: Callable[[Path], None]) -> None:
    """Write beside the target and then replace it, so that a full disk leaves the old file whole."""
    try:
        target.parent.mkdir(parents=True, exist_ok=True)
        handle, name = tempfile.mkstemp(prefix=f".{target.stem}.", suffix=target.suffix, dir=target.parent)
        os.close(handle)
    except OSError as error:
        raise PaperError(f"{target} cannot be written: {error.strerror or error}.") from error
    beside = Path(name)
    try:
        write(beside)
        if beside.stat().st_size == 0:
            raise OSError("nothing could be written, is the disk full?")
        beside.chmod(0o644)
        beside.replace(target)
    except OSError as error:
        raise PaperError(f"{target} cannot be written: {error.strerror or error}.") from error
    finally:
        beside.unlink(missing_ok=True)
