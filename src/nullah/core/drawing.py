"""A drawing as data: what is drawn and what it means, in millimetres.

Core makes drawings; paper decides pens, hatches and type. x runs to the right and y
downwards. Every element refers to what it shows in `ref`, so that the desk can
point at it. Sizes of type, offsets of dimensions and radii of rings are *paper*
millimetres: they stay the same at every scale.
"""

from __future__ import annotations

import math
import operator
import re
import textwrap
from collections.abc import Callable, Iterable, Sequence
from enum import Enum
from functools import cached_property
from itertools import chain

from nullah.core.frozen_record import FrozenRecord
from nullah.core.identity import kept_by_identity, runs
from nullah.core.named_tuple import NamedTuple
from nullah.core.refs import Ref

Point = tuple[float, float]


class Role(Enum):
    """What a line or a word means at the bench."""

    OUTLINE = "outline"
    HIDDEN = "hidden"
    KNIFE = "knife"
    GAUGE = "gauge"
    PENCIL = "pencil"
    WASTE = "waste"
    DIMENSION = "dimension"
    LABEL = "label"
    GRAIN = "grain"
    FLAW = "flaw"
    CHALK = "chalk"
    STROKE = "plane stroke"
    FAINT = "faint"
    WARN = "warn"
    BARE = "bare"


class Fill(Enum):
    """What an area is. The wood itself is told apart by `Path.species`."""

    NONE = "none"
    WOOD = "wood"
    END_GRAIN = "end grain"
    WASTE = "waste"
    FLAW = "flaw"
    LIT = "lit"
    PAPER = "paper"
    #: Pencil strokes over what is there.
    PENCIL = "pencilled"


class Anchor(Enum):
    """Which point of a word stands at `Label.at`."""

    START = "start"
    MIDDLE = "middle"
    END = "end"


class Path(NamedTuple):
    """A line, or an area where `closed`. `points` are (x, y) pairs in mm."""

    points: tuple[Point, ...]
    role: Role = Role.OUTLINE
    closed: bool = False
    fill: Fill = Fill.NONE
    species: str = ""
    ref: Ref | None = None


class Label(NamedTuple):
    """Words at a place. `size_mm` is the height of type, `nudge_mm` a shift, both in paper mm.

    `angle` is in degrees, clockwise. `running`: it is a line of running text or of a list, and stands where it is
    set; other words give way where they would touch. `minor`: it is left out where it finds no room at its place.
    """

    at: Point
    text: str
    size_mm: float = 3.2
    anchor: Anchor = Anchor.MIDDLE
    role: Role = Role.LABEL
    angle: float = 0.0
    bold: bool = False
    ref: Ref | None = None
    nudge_mm: Point = (0.0, 0.0)
    running: bool = False
    minor: bool = False


class Dimension(NamedTuple):
    """A dimension between two points, its line `offset_mm` (paper mm) to the left of start → end."""

    start: Point
    end: Point
    text: str
    offset_mm: float = 7.0
    state: str = ""
    ref: Ref | None = None


class Ring(NamedTuple):
    """A short word in a ring: the order of a cut, a part's number. `radius_mm` in paper mm.

    `running`: it numbers a line of a list, and stands where it is set.
    """

    at: Point
    text: str
    radius_mm: float = 3.0
    role: Role = Role.CHALK
    ref: Ref | None = None
    nudge_mm: Point = (0.0, 0.0)
    running: bool = False


Element = Path | Label | Dimension | Ring


class Drawing(FrozenRecord):
    """Elements in the order in which they are painted."""

    elements: tuple[Element, ...] = ()

    def __add__(self, other: Drawing) -> Drawing:
        return Drawing(self.elements + other.elements)

    def bounds(self) -> tuple[float, float, float, float]:
        """Return (left, top, right, bottom) of all points in mm; paper-sized things count as points.

        Raises
        ------
        ValueError
            For a drawing with nothing on it.
        """
        return self._bounds

    @cached_property
    def _bounds(self) -> tuple[float, float, float, float]:
        lefts, tops, rights, bottoms = zip(*(_reach(*run) for run in runs(self.elements)), strict=True)
        return min(lefts), min(tops), max(rights), max(bottoms)

    def like(self, before: Drawing) -> Drawing:
        """Return the drawing with the very elements of one before it, where equal ones stand at its beginning or end.

        Where both have as many elements, they are compared one by one.
        """
        old, new = before.elements, list(self.elements)
        ways = [(1, 0)] if len(old) == len(new) else [(1, 0), (-1, -1)]
        for way, first in ways:
            for at in range(min(len(old), len(new))):
                place = first + way * at
                if new[place] is old[place]:
                    continue
                if new[place] == old[place]:
                    new[place] = old[place]
                elif len(old) != len(new):
                    break
        same = len(old) == len(new) and all(map(operator.is_, old, new))
        return before if same else Drawing(tuple(new))

    def moved(self, dx: float, dy: float, scale: float = 1.0) -> Drawing:
        """Return the drawing scaled about the origin, then moved by (dx, dy) mm.

        Parameters
        ----------
        dx : float
            mm.
        dy : float
            mm.
        scale : float
            About the origin, before it is moved.
        """
        kept = self._last_moved.get((dx, dy, scale))
        if kept is None:
            self._last_moved.clear()
            kept = self._last_moved[dx, dy, scale] = self._at(dx, dy, scale)
        return kept

    @cached_property
    def _last_moved(self) -> dict[tuple[float, float, float], Drawing]:
        """Where it was moved to last: what stays in its place stays the very same, and is not worked out again."""
        return {}

    def __getstate__(self) -> dict[str, object]:
        return {"elements": self.elements}

    def _at(self, dx: float, dy: float, scale: float) -> Drawing:
        def put(point: Point) -> Point:
            return point[0] * scale + dx, point[1] * scale + dy

        return Drawing(tuple(_mapped(element, put) for element in self.elements))


@kept_by_identity(4096)
def _reach(*run: Element) -> tuple[float, float, float, float]:
    """Return (left, top, right, bottom) of some elements, mm."""
    xs, ys = zip(*chain.from_iterable(map(_points, run)), strict=True)
    return min(xs), min(ys), max(xs), max(ys)


def drawing(*groups: Element | Iterable[Element]) -> Drawing:
    """Gather single elements and groups of them into one drawing, first at the bottom."""
    gathered: list[Element] = []
    for group in groups:
        if isinstance(group, Path | Label | Dimension | Ring):
            gathered.append(group)
        else:
            gathered.extend(group)
    return Drawing(tuple(gathered))


def rectangle(
    x: float,
    y: float,
    width: float,
    height: float,
    role: Role = Role.OUTLINE,
    fill: Fill = Fill.NONE,
    species: str = "",
    ref: Ref | None = None,
) -> Path:
    """Draw a rectangle from its upper left corner; all in mm.

    Parameters
    ----------
    x : float
        Left, mm.
    y : float
        Top, mm.
    width : float
        To the right, mm.
    height : float
        Down, mm.
    role : Role, default Role.OUTLINE
        What the line is.
    fill : Fill, default Fill.NONE
        What the inside is.
    species : str, default ''
        Of wood that is seen, if any.
    ref : Ref, optional
        What it shows.
    """
    corners = ((x, y), (x + width, y), (x + width, y + height), (x, y + height))
    return Path(corners, role, closed=True, fill=fill, species=species, ref=ref)


_UNIT = r"(?:mm|cm|m|in|ft|bd ft|kg|lb|ml|%|°)(?!\w)"
#: Where no line may end: between whole inches and their fraction, between a figure and its unit, and between a name and
#: its number: “2 front” at the head of a line is taken for the second of a list.
_IN_A_FIGURE = re.compile(rf"(?<=\d) (?=\d+/\d)|(?<=\d) (?={_UNIT})")
_IN_A_NAME = re.compile(rf"(?<=[^\W\d_]) (?=\d{{1,3}}(?!\s?{_UNIT}|\s\d|[./,]?\d|[″′])(?:\W|$))")
_NO_BREAK = "\u00a0"


def kept_together(text: str) -> str:
    r"""Return words of which no figure is broken where they are set in lines: “15” and “1/32” are two other figures.

    Nor is a numbered name.

    Examples
    --------
    >>> kept_together("Set it to 15 1/32 in, 4 times").split(" ")[3]
    '15\xa01/32\xa0in,'
    >>> kept_together("drawer 2 front at 13 1/2 in").split(" ")
    ['drawer\xa02', 'front', 'at', '13\xa01/2\xa0in']
    """
    return _IN_A_NAME.sub(_NO_BREAK, _IN_A_FIGURE.sub(_NO_BREAK, text))


def wrapped(text: str, most: int, cut: bool = False) -> list[str]:
    """Return words in lines of at most so many letters, and no figure broken.

    Parameters
    ----------
    text : str
        The words.
    most : int
        Letters of a line.
    cut : bool, default False
        Whether a word that is longer than a line is cut; else it stands over its end.

    Examples
    --------
    >>> wrapped("Mill the left side and the right side", 20)
    ['Mill the left side', 'and the right side']
    >>> wrapped("Mill it to 19 1/32 in wide", 14)
    ['Mill it to', '19 1/32 in', 'wide']
    """
    lines = textwrap.wrap(kept_together(text), most, break_long_words=cut)
    return [line.replace(_NO_BREAK, " ") for line in lines] or [""]


def line(start: Point, end: Point, role: Role = Role.OUTLINE, ref: Ref | None = None) -> Path:
    """Draw a straight line; points in mm.

    Parameters
    ----------
    start : Point
        mm.
    end : Point
        mm.
    role : Role
        What it is.
    ref : Ref or None
        What it shows.
    """
    return Path((start, end), role, ref=ref)


def grain_lines(
    x: float, y: float, width: float, height: float, seed: str, along_x: bool = True, ref: Ref | None = None
) -> tuple[Path, ...]:
    """Draw grain along a board, always the same for the same `seed` (its name); all in mm.

    The lines waver gently and are spaced unevenly, as growth rings meet a flat-sawn face.

    Parameters
    ----------
    x : float
        Left edge, mm.
    y : float
        Upper edge, mm.
    width : float
        mm.
    height : float
        mm.
    seed : str
        Such as the part's name.
    along_x : bool
        Whether the grain runs across the page.
    ref : Ref or None
        What it shows.
    """
    across = height if along_x else width
    along = width if along_x else height
    phase = sum(ord(letter) * (index + 3) for index, letter in enumerate(seed)) % 97 / 97 * 2 * math.pi
    count = max(2, min(9, round(across / 22)))
    # Rings waver over hundreds of millimetres: a short piece shows only part of a wave.
    waves = min(2.6, along / max(across, 1.0) * 0.9)
    reach = across * 0.2 / count
    lines = []
    for index in range(count):
        share = (index + 0.5 + 0.22 * math.sin(phase + 2.1 * index)) / count
        points = []
        for step in range(17):
            t = step / 16
            wave = math.sin(phase + 0.7 * index + waves * t * math.pi) * reach
            wave += 0.4 * reach * math.sin(2 * phase + 2 * waves * t * math.pi)
            u, v = t * along, min(across, max(0.0, share * across + wave))
            points.append((x + u, y + v) if along_x else (x + v, y + u))
        lines.append(Path(tuple(points), Role.GRAIN, ref=ref))
    return tuple(lines)


def hatch_lines(polygon: Sequence[Point], spacing: float) -> list[tuple[Point, Point]]:
    """Return the 45° hatch of a polygon (even-odd rule) as segments.

    Parameters
    ----------
    polygon : sequence of (x, y)
        Corners in any one unit; closed by itself.
    spacing : float
        Distance between neighbouring lines, same unit, measured square to them.

    Returns
    -------
    list of (start, end)
        Segments with end to the upper right of start.

    Examples
    --------
    >>> len(hatch_lines([(0, 0), (10, 0), (10, 10), (0, 10)], 10 / 2**0.5))
    1
    """
    if spacing <= 0 or len(polygon) < 3:
        return []
    step = spacing * math.sqrt(2)
    # Along a hatch line x + y is constant.
    sums = [x + y for x, y in polygon]
    first = math.floor(min(sums) / step) + 1
    segments: list[tuple[Point, Point]] = []
    level = first * step
    while level < max(sums) - 1e-9:
        crossings: list[Point] = []
        for (x1, y1), (x2, y2) in zip(polygon, [*polygon[1:], polygon[0]], strict=True):
            low, high = x1 + y1 - level, x2 + y2 - level
            if (low < 0) != (high < 0):
                t = low / (low - high)
                crossings.append((x1 + t * (x2 - x1), y1 + t * (y2 - y1)))
        crossings.sort()
        segments.extend(zip(crossings[::2], crossings[1::2], strict=False))
        level += step
    return segments


def _points(element: Element) -> tuple[Point, ...]:
    if isinstance(element, Path):
        return element.points
    if isinstance(element, Dimension):
        return element.start, element.end
    return (element.at,)


def _mapped(element: Element, put: Callable[[Point], Point]) -> Element:
    if isinstance(element, Path):
        return element._replace(points=tuple(put(point) for point in element.points))
    if isinstance(element, Dimension):
        return element._replace(start=put(element.start), end=put(element.end))
    return element._replace(at=put(element.at))
