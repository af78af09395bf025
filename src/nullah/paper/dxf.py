"""Sheets as DXF, for whoever cuts a template by machine or prints from elsewhere: lines on layers, in mm."""

from __future__ import annotations

from io import StringIO

from nullah.core.drawing import Dimension, Element, Fill, Label, Ring, hatch_lines
from nullah.core.drawing import Path as Line
from nullah.core.limits import shown
from nullah.core.sheets.page import Sheet

# Hatches are drawn as lines this far apart, mm.
_HATCH = 2.2


def dxf_of(sheet: Sheet) -> bytes:
    """Return one sheet as DXF; y runs upwards there, from the sheet's lower left corner, mm."""
    # A third of a second, and hardly ever wanted.
    from ezdxf import units
    from ezdxf.enums import TextEntityAlignment as Align
    from ezdxf.filemanagement import new

    anchors = {"start": Align.MIDDLE_LEFT, "middle": Align.MIDDLE_CENTER, "end": Align.MIDDLE_RIGHT}
    document = new("R2010", units=units.MM)
    space = document.modelspace()

    def put(point: tuple[float, float]) -> tuple[float, float]:
        return point[0], sheet.height_mm - point[1]

    def add(element: Element) -> None:
        match element:
            case Line():
                layer = {"layer": element.role.value}
                points = [put(point) for point in element.points]
                space.add_lwpolyline(points, close=element.closed, dxfattribs=layer)
                if element.fill is Fill.WASTE:
                    for start, end in hatch_lines(element.points, _HATCH):
                        space.add_line(put(start), put(end), dxfattribs={"layer": "waste"})
            case Label():
                x, y = put((element.at[0] + element.nudge_mm[0], element.at[1] + element.nudge_mm[1]))
                text = space.add_text(shown(element.text), height=element.size_mm * 0.72, dxfattribs={"layer": "words"})
                text.set_placement((x, y), align=anchors[element.anchor.value])
                text.dxf.rotation = -element.angle
            case Dimension():
                space.add_line(put(element.start), put(element.end), dxfattribs={"layer": "dimension"})
            case Ring():
                space.add_circle(put(element.at), element.radius_mm, dxfattribs={"layer": element.role.value})

    for element in sheet.drawing.elements:
        add(element)
    stream = StringIO()
    document.write(stream)
    return stream.getvalue().encode(document.output_encoding, errors="dxfreplace")
