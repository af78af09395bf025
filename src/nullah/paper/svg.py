"""A drawing as SVG: what the one painter draws, written down briefly, each glyph of the typeface once a file.

`SvgPainter` takes the few calls of a `QPainter` that the painter makes. Pens are named once; type is
outlines, each of which stands in the file once and is used by its number, so that a page reads the
same where the typeface is not.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from functools import cache

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QBrush, QColor, QFont, QPainterPath, QPen, QPolygonF, QRawFont, QTextLayout

from nullah.core.limits import shown

#: Glyphs are written in this many units to the height of type.
_EM = 1000


class SvgPainter:
    """Writes down what is painted, in units of the drawing's device.

    Parameters
    ----------
    width_mm, height_mm : float
        Of the page.
    per_mm : float
        Units to the millimetre.
    title : str
    """

    def __init__(self, width_mm: float, height_mm: float, per_mm: float, title: str) -> None:
        self._size = (width_mm, height_mm)
        self._per_mm = per_mm
        self._title = title
        self._pen = QPen()
        self._fill = ""
        self._turns: list[str] = [""]
        self._styles: dict[str, str] = {}
        self._glyphs: dict[tuple[str, int], tuple[str, str]] = {}
        self._shapes: list[str] = []

    # --- the state of a painter ---

    def save(self) -> None:
        """Remember how things are turned."""
        self._turns.append(self._turns[-1])

    def restore(self) -> None:
        """Turn things back to what was remembered."""
        self._turns.pop()

    def translate(self, to: QPointF) -> None:
        """Move the origin."""
        self._turns[-1] += f"translate({_number(to.x())} {_number(to.y())})"

    def rotate(self, degrees: float) -> None:
        """Turn what follows about the origin."""
        if degrees:
            self._turns[-1] += f"rotate({_number(degrees)})"

    def setRenderHint(self, hint: object) -> None:
        """Take no heed: a file has no pixels."""

    def setPen(self, pen: QPen | Qt.PenStyle | QColor) -> None:
        """Take a pen."""
        self._pen = QPen(pen)

    def pen(self) -> QPen:
        """Return the pen in hand, a copy."""
        return QPen(self._pen)

    def setBrush(self, brush: QBrush | QColor | Qt.BrushStyle) -> None:
        """Take what areas are filled with."""
        made = QBrush(brush)
        self._fill = "" if made.style() is Qt.BrushStyle.NoBrush else made.color().name()

    # --- shapes ---

    def drawLine(self, start: QPointF, end: QPointF) -> None:
        """Draw a line."""
        self._draw(_through([start, end]), "")

    def drawPolylines(self, lines: Iterable[QPolygonF]) -> None:
        """Draw lines through points, all as one shape."""
        self._draw("".join(map(_through, lines)), "")

    def drawPolygon(self, points: Sequence[QPointF] | QPolygonF) -> None:
        """Draw and fill a closed outline."""
        self._draw(f"{_through(points)}z", self._fill)

    def drawRect(self, room: QRectF) -> None:
        """Draw and fill a rectangle."""
        self.drawPolygon([room.topLeft(), room.topRight(), room.bottomRight(), room.bottomLeft()])

    def drawEllipse(self, middle: QPointF, across: float, up: float) -> None:
        """Draw and fill an ellipse with these half-axes."""
        size = f'rx="{_number(across)}" ry="{_number(up)}"'
        place = f'cx="{_number(middle.x())}" cy="{_number(middle.y())}"'
        self._shapes.append(f'<ellipse class="{self._style(self._fill)}" {place} {size}{self._turn()}/>')

    def words(self, at: QPointF, text: str, font: QFont, colour: str) -> None:
        """Write one line of words from a point on its base line."""
        pixels = font.pixelSize()
        uses = [f'<use xlink:href="#{name}" x="{_number(x / pixels * _EM, 0)}"/>' for name, x in self._run(text, font)]
        turns = f"{self._turns[-1]}translate({_point(at)})scale({_number(pixels / _EM, 5)})"
        self._shapes.append(f'<g class="{self._named(f"fill:{colour}")}" transform="{turns}">{"".join(uses)}</g>')

    def _run(self, text: str, font: QFont) -> list[tuple[str, float]]:
        """Return the glyphs of a line by their names, each with its place along the line in pixels."""
        found = []
        for raw, index, x in _glyphs(text, font):
            key = (f"{raw.familyName()}{raw.styleName()}", index)
            if key not in self._glyphs:
                self._glyphs[key] = (f"g{len(self._glyphs):x}", _outline(raw, key))
            if self._glyphs[key][1]:
                found.append((self._glyphs[key][0], x))
        return found

    # --- writing it down ---

    def text(self) -> str:
        """Return the whole file."""
        # The painter of the window does without.
        from html import escape

        width, height = self._size
        room = f"0 0 {_number(width * self._per_mm)} {_number(height * self._per_mm)}"
        styles = "".join(f".{name}{{{style}}}" for style, name in self._styles.items())
        glyphs = "".join(f'<path id="{name}" d="{outline}"/>' for name, outline in self._glyphs.values() if outline)
        return (
            '<?xml version="1.0" encoding="UTF-8"?>\n'
            f'<svg width="{_number(width)}mm" height="{_number(height)}mm" viewBox="{room}" version="1.1" '
            'xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink">\n'
            f"<title>{escape(shown(self._title))}</title>\n"
            f"<style>path,ellipse{{stroke-linejoin:miter}}{styles}</style>\n<defs>{glyphs}</defs>\n"
            + "\n".join(self._shapes)
            + "\n</svg>\n"
        )

    def _draw(self, path: str, fill: str) -> None:
        self._shapes.append(f'<path class="{self._style(fill)}" d="{path}"{self._turn()}/>')

    def _turn(self) -> str:
        return f' transform="{self._turns[-1]}"' if self._turns[-1] else ""

    def _style(self, fill: str) -> str:
        words = [f"fill:{fill or 'none'}"]
        if self._pen.style() is not Qt.PenStyle.NoPen:
            width = self._pen.widthF()
            words += [f"stroke:{self._pen.color().name()}", f"stroke-width:{_number(width)}"]
            if self._pen.style() is Qt.PenStyle.CustomDashLine:
                dashes = " ".join(_number(dash * width) for dash in self._pen.dashPattern())
                words.append(f"stroke-dasharray:{dashes}")
        return self._named(";".join(words))

    def _named(self, style: str) -> str:
        return self._styles.setdefault(style, f"s{len(self._styles):x}")


def _glyphs(text: str, font: QFont) -> list[tuple[QRawFont, int, float]]:
    """Return the glyphs of a line with their fonts and places, as the typeface sets them (real fractions and all)."""
    layout = QTextLayout(text, font)
    layout.beginLayout()
    layout.createLine()
    layout.endLayout()
    return [
        (run.rawFont(), index, place.x())
        for run in layout.glyphRuns()
        for index, place in zip(run.glyphIndexes(), run.positions(), strict=True)
    ]


#: Outlines written already, by font and glyph.
_outlines: dict[tuple[str, int], str] = {}


def _outline(raw: QRawFont, key: tuple[str, int]) -> str:
    """Return a glyph's outline as a path, in thousandths of the height of type."""
    if key not in _outlines:
        large = QRawFont(raw)
        large.setPixelSize(_EM)
        _outlines[key] = _path(large.pathForGlyph(key[1]))
    return _outlines[key]


def _path(path: QPainterPath) -> str:
    """Return an outline of straight lines and curves as path data, closed shape by shape."""
    kinds = QPainterPath.ElementType
    written: list[str] = []
    corners: list[str] = []
    for number in range(path.elementCount()):
        element = path.elementAt(number)
        point = f"{_number(element.x, 0)} {_number(element.y, 0)}"
        match element.type:
            case kinds.MoveToElement:
                written.append(f"{'z' if written else ''}M{point}")
            case kinds.LineToElement:
                written.append(f"L{point}")
            case _:
                corners.append(point)
                if len(corners) == 3:
                    written.append(f"C{' '.join(corners)}")
                    corners = []
    return "".join(written) + ("z" if written else "")


def _through(points: Sequence[QPointF] | QPolygonF) -> str:
    listed = points.toList() if isinstance(points, QPolygonF) else points
    return "M" + "L".join(map(_point, listed))


def _point(point: QPointF) -> str:
    return f"{_number(point.x())} {_number(point.y())}"


@cache
def _form(places: int) -> str:
    return f"%.{places}f"


def _number(value: float, places: int = 2) -> str:
    """Write a number to so many places, without needless noughts."""
    text = _form(places) % value
    if places:
        text = text.rstrip("0").rstrip(".")
    return "0" if text in ("-0", "") else text
