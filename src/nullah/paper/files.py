"""Sheets onto paper: PDF, SVG and PNG, all through the one painter, all at full size."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from pathlib import Path

from PySide6.QtCore import QBuffer, QMarginsF, QSizeF
from PySide6.QtGui import QColor, QImage, QPageLayout, QPageSize, QPainter, QPdfWriter

from nullah.core.drawing import Drawing
from nullah.core.limits import shown
from nullah.core.sheets.page import A4, LETTER, Sheet
from nullah.paper.painter import paint_page
from nullah.paper.palette import INK, Palette
from nullah.paper.svg import SvgPainter
from nullah.writing import why, write_file

#: Dots to the millimetre in PDF files: 0.02 mm a dot, finer than any printer or knife.
_PDF_DPI = 1270
_SVG_PER_MM = 10


class PaperError(OSError):
    """A sheet could not be written; the message says which file and why."""


#: The papers that can be printed on, by name: how wide and how high, mm.
PAPERS = {"A4": A4, "Letter": LETTER}


def write_pdf(sheets: Sequence[Sheet], target: Path, paper: tuple[float, float] = A4) -> None:
    """Write sheets as pages of one PDF at full size.

    Raises
    ------
    PaperError
        If the file cannot be written; whatever stood there before stays.
    """
    _write(target, pdf_of(sheets, paper=paper))


def pdf_of(
    sheets: Sequence[Sheet], painted: Callable[[int], None] = lambda page: None, paper: tuple[float, float] = A4
) -> bytes:
    """Return sheets as pages of one PDF at full size; `painted` is called with each page's number, from 1."""
    buffer = QBuffer()
    buffer.open(QBuffer.OpenModeFlag.WriteOnly)
    writer = QPdfWriter(buffer)
    writer.setResolution(_PDF_DPI)
    writer.setTitle(shown(sheets[0].title))
    writer.setCreator("Nullah")
    per_mm = _PDF_DPI / 25.4
    painter = QPainter()
    writer.setPageLayout(page_layout(paper))
    for number, sheet in enumerate(sheets, start=1):
        if number == 1:
            painter.begin(writer)
        else:
            writer.newPage()
        paint_sheet(painter, sheet, paper, per_mm)
        painted(number)
    painter.end()
    return bytes(buffer.data().data())


def paint_sheet(painter: QPainter, sheet: Sheet, paper: tuple[float, float], per_mm: float) -> None:
    """Paint a sheet at full size on a paper of that size in mm, in the middle across and at its head."""
    painter.save()
    painter.translate((paper[0] - sheet.width_mm) / 2 * per_mm, 0)
    paint_page(painter, sheet.drawing, (sheet.width_mm, sheet.height_mm), per_mm)
    painter.restore()


def page_layout(paper: tuple[float, float]) -> QPageLayout:
    """Return the page of a paper of that size in mm, without margins: sheets bring their own."""
    name = next((name for name, size in PAPERS.items() if size == paper), "")
    size = QPageSize(QSizeF(*paper), QPageSize.Unit.Millimeter, name, QPageSize.SizeMatchPolicy.ExactMatch)
    return QPageLayout(size, QPageLayout.Orientation.Portrait, QMarginsF(0, 0, 0, 0), QPageLayout.Unit.Millimeter)


def write_svg(sheet: Sheet, target: Path) -> None:
    """Write one sheet as SVG, sized in mm, with its type as outlines.

    Raises
    ------
    PaperError
        If the file cannot be written.
    """
    _write(target, svg_of(sheet))


def svg_of(sheet: Sheet) -> str:
    """Return one sheet as SVG, sized in mm, with its type as outlines."""
    painter = SvgPainter(sheet.width_mm, sheet.height_mm, _SVG_PER_MM, sheet.title)
    paint_page(painter, sheet.drawing, (sheet.width_mm, sheet.height_mm), _SVG_PER_MM)
    return painter.text()


def write_png(sheet: Sheet, target: Path, per_mm: float = 5.0) -> None:
    """Write one sheet as PNG, `per_mm` pixels to the millimetre.

    Raises
    ------
    PaperError
        If the file cannot be written.
    """
    write_image(picture(sheet.drawing, sheet.width_mm, sheet.height_mm, per_mm), target)


def write_image(image: QImage, target: Path) -> None:
    """Write an image as PNG.

    Raises
    ------
    PaperError
        If the file cannot be written.
    """
    buffer = QBuffer()
    buffer.open(QBuffer.OpenModeFlag.WriteOnly)
    image.save(buffer, "PNG")  # type: ignore[call-overload]
    _write(target, bytes(buffer.data().data()))


def picture(drawing: Drawing, width_mm: float, height_mm: float, per_mm: float, palette: Palette = INK) -> QImage:
    """Return a drawing as an image of that size."""
    image = QImage(round(width_mm * per_mm), round(height_mm * per_mm), QImage.Format.Format_ARGB32)
    image.fill(QColor(palette.ground))
    painter = QPainter(image)
    paint_page(painter, drawing, (width_mm, height_mm), per_mm, palette)
    painter.end()
    return image


def _write(target: Path, content: bytes | str) -> None:
    try:
        target.parent.mkdir(parents=True, exist_ok=True)
        write_file(target, content)
    except OSError as error:
        raise PaperError(f"{target} cannot be written: {why(error)}.") from error
