"""Lines on a part: what they are, and where they lie."""

from __future__ import annotations

from enum import Enum

from nullah.core.catalogue import N_
from nullah.core.fraction import Fraction
from nullah.core.named_tuple import NamedTuple
from nullah.core.operations.stock import Surface


class LineKind(Enum):
    """What a line is; the value is what it is called."""

    BASELINE = N_("baseline")
    LAP = N_("lap line")
    BORDER = N_("border of the mate")
    MARK = N_("mark")
    TAILS = N_("tails")
    PINS = N_("pins")
    WALL = N_("first wall")
    SECOND_WALL = N_("second wall")
    DEPTH = N_("depth line")
    STOP = N_("stop")
    ROW = N_("row")
    PLACE = N_("place")
    OUTLINE = N_("outline")
    NOTCH = N_("depth of the notch")
    BEVEL = N_("edge of the bevel")
    CURVE = N_("curve")
    MITRE = N_("miter line")
    CHEEK = N_("cheek")
    SHOULDER = N_("shoulder")
    TENON_EDGE = N_("edge of the tenon")
    MORTISE_END = N_("end of the mortise")
    SLOT_END = N_("end of the longer mortise")
    FINGER = N_("edge of a finger")
    TONGUE = N_("end of the tongue")
    KEY = N_("wall of a key")
    OTHER_KEY = N_("other wall of a key")
    DRAWN_ROW = N_("row nearer to the shoulder")
    HAUNCH = N_("edge of the haunch")
    HAUNCH_END = N_("end of the haunch")
    POST_FACE = N_("face of the post")
    WEDGE_WALL = N_("wall of the wedge")
    WEDGE_CHEEK = N_("cheek of the wedge")
    TAIL_SHOULDER = N_("shoulder of the sliding tail")
    TAIL_FACE = N_("face of the other board")
    NECK = N_("neck of the housing")
    FLOOR = N_("floor")
    THICKNESS = N_("thickness line")
    WIDTH = N_("width line")
    LENGTH = N_("length line")


class Line(NamedTuple):
    """A line on a part.

    Parameters
    ----------
    kind : LineKind
    axis : int, optional
        The axis along which its place is measured; None: a slanted line or an outline.
    at : Fraction
        Its place along that axis, mm; 0 without one.
    on : tuple of Surface
        The surfaces it is drawn on.
    end : Surface, optional
        The surface of the part that it belongs to, where there are several of a kind.
    number : int
        Which of several.
    slope : Fraction, optional
        Of slanted lines: the run of one in so much.
    of : str
        What it is for, where the part has several of a kind: the name of a quantity, or another part.
    radius : Fraction, optional
        Of a curve of arcs, mm.
    offsets : tuple of (Fraction, Fraction)
        Of an outline: places along an edge, and how far in from it, mm.
    """

    kind: LineKind
    axis: int | None = None
    at: Fraction = Fraction(0)
    on: tuple[Surface, ...] = ()
    end: Surface | None = None
    number: int = 0
    of: str = ""
    slope: Fraction | None = None
    radius: Fraction | None = None
    offsets: tuple[tuple[Fraction, Fraction], ...] = ()

    @property
    def name(self) -> str:
        """A name that no other line of the part has."""
        words = [self.kind.value, str(self.number) if self.number else "", self.of, self.end.value if self.end else ""]
        return ", ".join(word for word in words if word)


#: What a cut goes to: a surface of the blank, or a line.
Edge = Surface | Line
