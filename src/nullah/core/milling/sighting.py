"""Two winding sticks on a board as the eye sees them, and exercises in reading them.

Places: x along the board from its near end, y across it to the right, z up, mm. The eye stands
behind the near end and a little above the sticks; what it sees is drawn in mm on a pane held
at arm's length, y downwards as in all drawings.
"""

from __future__ import annotations

import math
import random
from collections.abc import Sequence
from typing import Protocol

from nullah.core.drawing import Drawing, Element, Fill, Path, Point, Role, drawing
from nullah.core.named_tuple import NamedTuple

#: Height of a winding stick, mm.
STICK_HIGH = 36.0
# The pane is this far from the eye, mm: a picture as large as it would look at arm's length.
_PANE = 900.0


class Eye(NamedTuple):
    """Where the eye is: behind the near end and above the board, mm; `tilt` of the head in degrees."""

    behind: float = 750.0
    above: float = 43.0
    tilt: float = 0.0


class Wound(NamedTuple):
    """A board to be sighted over: size, and how it winds, mm.

    Its far right corner stands `wind` higher than it would on a true board, over its width; up to
    `begins` (a share of its length) it is true. `cup` is how far its middle stands above its edges.
    """

    length: float
    width: float
    wind: float
    begins: float
    cup: float = 0.0

    def slope(self, x: float) -> float:
        """Return the slope across at a place along, rising to the right.

        Parameters
        ----------
        x : float
            From the left end, mm.
        """
        share = (x / self.length - self.begins) / (1 - self.begins)
        return self.wind / self.width * min(max(share, 0.0), 1.0)

    def height(self, x: float, y: float) -> float:
        """Return the height of the face; y counts from the middle of its width.

        Parameters
        ----------
        x : float
            From the left end, mm.
        y : float
            From the middle of its width, mm.
        """
        return self.slope(x) * y + self.cup * (1 - (2 * y / self.width) ** 2)

    def rest(self, x: float) -> tuple[float, float]:
        """Return how a stick rests there, on both edges or on the crown of a hump: height of its middle, slope.

        Parameters
        ----------
        x : float
            From the left end, mm.
        """
        return max(0.0, self.cup), self.slope(x)


class Sighted(Protocol):
    """A face that can be sighted over; y counts from the middle of its width, mm."""

    @property
    def length(self) -> float:
        """Millimetres."""

    @property
    def width(self) -> float:
        """Millimetres."""

    def height(self, x: float, y: float) -> float:
        """Return the height of the face, mm.

        Parameters
        ----------
        x : float
            From the left end, mm.
        y : float
            From the middle of its width, mm.
        """

    def rest(self, x: float) -> tuple[float, float]:
        """Return how a stick rests across it: height of its middle, mm, and slope.

        Parameters
        ----------
        x : float
            From the left end, mm.
        """


def shown_rise(wound: Wound, near: float, far: float, stick: float) -> float:
    """Return how much higher the far stick's right end stands than the near one's, at the ends of sticks, mm.

    A stick longer than the board is wide shows the wind larger in proportion.

    Parameters
    ----------
    wound : Wound
        A face that winds.
    near : float
        Where the near stick lies, mm along.
    far : float
        Where the far one does.
    stick : float
        How long the sticks are, mm.

    Returns
    -------
    float
        Less than nothing where it looks lower, mm.

    Examples
    --------
    >>> round(shown_rise(Wound(900, 180, 2.0, 0.0), 0, 900, 360), 2)
    4.0
    """
    return (wound.slope(far) - wound.slope(near)) * stick


def seen(place: tuple[float, float, float], eye: Eye) -> Point:
    """Return where a place appears on the pane, mm from where the eye looks straight along the board.

    Parameters
    ----------
    place : tuple[float, float, float]
        Along, across and up, mm.
    eye : Eye
        From where one looks.
    """
    x, y, z = place
    away = x + eye.behind
    u, v = _PANE * y / away, -_PANE * (z - eye.above) / away
    turn = math.radians(eye.tilt)
    return u * math.cos(turn) - v * math.sin(turn), u * math.sin(turn) + v * math.cos(turn)


def sight(face: Sighted, near: float, far: float, stick: float, eye: Eye) -> Drawing:
    """Draw what the eye sees: the board's face, the far stick with its pale inlaid edge, and the near one before it.

    Parameters
    ----------
    face : Sighted
        The board.
    near : float
        Place of the near stick, mm from the left end.
    far : float
        Place of the far one.
    stick : float
        Length of a stick, mm.
    eye : Eye
        Where it is.
    """
    elements: list[Element] = [_face(face, eye)]
    elements += _stick(face, far, stick, eye, inlaid=True)
    elements += _stick(face, near, stick, eye, inlaid=False)
    return drawing(elements)


def answered(wound: Wound) -> Drawing:
    """Draw the face alone from higher up, as a net with its heights eight times too large."""
    eye = Eye(behind=wound.length * 0.9, above=wound.length * 0.55)
    return drawing(_face(wound, eye), _net(wound, eye))


def _face(wound: Sighted, eye: Eye) -> Path:
    half = wound.width / 2
    steps = [index / 12 for index in range(13)]
    left = [seen((wound.length * s, -half, wound.height(wound.length * s, -half)), eye) for s in steps]
    right = [seen((wound.length * s, half, wound.height(wound.length * s, half)), eye) for s in steps]
    return Path((*left, *reversed(right)), Role.OUTLINE, closed=True, fill=Fill.WOOD, species="black cherry")


def _net(wound: Wound, eye: Eye) -> list[Element]:
    """Draw lines along and across a face, heights drawn eight times too large."""
    tall = wound._replace(wind=wound.wind * 8, cup=wound.cup * 8)
    found: list[Element] = []
    across = [-0.5 + index / 6 for index in range(7)]
    along = [index / 10 for index in range(11)]
    for x in along:
        points = tuple(
            seen((wound.length * x, wound.width * y, tall.height(wound.length * x, wound.width * y)), eye)
            for y in across
        )
        found.append(Path(points, Role.CHALK))
    for y in across:
        points = tuple(
            seen((wound.length * x, wound.width * y, tall.height(wound.length * x, wound.width * y)), eye)
            for x in along
        )
        found.append(Path(points, Role.PENCIL))
    return found


def _stick(wound: Sighted, x: float, stick: float, eye: Eye, inlaid: bool) -> list[Element]:
    """Draw a stick that stands across the board: on both edges, or on the crown of a hump."""
    rest, slope = wound.rest(x)

    def at(y: float, up: float) -> Point:
        return seen((x, y, slope * y + rest + up), eye)

    half = stick / 2
    body = (at(-half, 0), at(half, 0), at(half, STICK_HIGH), at(-half, STICK_HIGH))
    found: list[Element] = [Path(body, Role.OUTLINE, closed=True, fill=Fill.WOOD, species="black walnut")]
    if inlaid:
        pale = (at(-half, STICK_HIGH - 7), at(half, STICK_HIGH - 7), at(half, STICK_HIGH), at(-half, STICK_HIGH))
        found.append(Path(pale, Role.OUTLINE, closed=True, fill=Fill.PAPER))
    else:
        found.append(Path((at(-half, STICK_HIGH), at(half, STICK_HIGH)), Role.KNIFE))
    return found


# --- exercises ------------------------------------------------------------------------------------

#: Where the wind can begin, as shares of the length.
BEGINS = (0.0, 0.5)
HARDEST = 9


class Exercise(NamedTuple):
    """A board to read: how it winds, the sticks, and where the eye is."""

    wound: Wound
    stick: float
    eye: Eye
    level: int


class Answer(NamedTuple):
    """What somebody read: which far corner stands high (``left``, ``right`` or ``true``), by how much, where it begins.

    `rise` is at the stick's ends, mm; `begins` one of `BEGINS`.
    """

    high: str
    rise: float
    begins: float


class Marked(NamedTuple):
    """How an answer was: what was right of it, and by how much the figure was off, mm."""

    high_right: bool
    rise_off: float
    rise_right: bool
    begins_right: bool

    @property
    def right(self) -> bool:
        """Whether all of it was right."""
        return self.high_right and self.rise_right and self.begins_right


def exercise(level: int, seed: int) -> Exercise:
    """Make an exercise: the higher the level (0 to `HARDEST`), the less wind, the more tilt and cup; always the same.

    Now and then the board is true: to see that is part of the art.

    Parameters
    ----------
    level : int
        0 to `HARDEST`.
    seed : int
        Of its chance.
    """
    chance = random.Random(f"{level} {seed}")
    hard = min(max(level, 0), HARDEST) / HARDEST
    length, width = chance.choice((600.0, 750.0, 900.0)), chance.choice((140.0, 180.0, 220.0))
    true = chance.random() < 0.15
    rise = 0.0 if true else chance.choice((-1, 1)) * round(chance.uniform(0.8, 1.5) * (8.0 * (1 - hard) + 1.2 * hard))
    if not true and rise == 0:
        rise = 1.0
    stick = 2 * width
    begins = chance.choice(BEGINS)
    cup = chance.uniform(-1.5, 1.5) * hard
    tilt = chance.uniform(-1, 1) * (0.5 + 3.0 * hard)
    wound = Wound(length, width, rise / stick * width, begins, cup)
    return Exercise(wound, stick, Eye(chance.uniform(650, 850), chance.uniform(41.0, 46.0), tilt), level)


def mark(given: Answer, of: Exercise) -> Marked:
    """Mark an answer: the figure may be off by a quarter of itself and half a millimetre."""
    rise = shown_rise(of.wound, 0.0, of.wound.length, of.stick)
    high = "true" if abs(rise) < 0.05 else "right" if rise > 0 else "left"
    # With the far left corner high, one reads how high that is.
    said = 0.0 if given.high == "true" else abs(given.rise)
    off = abs(said - abs(rise))
    within = off <= 0.5 + abs(rise) / 4
    begins_right = high == "true" or abs(given.begins - of.wound.begins) < 0.01
    return Marked(given.high == high, off, within, begins_right)


class Try(NamedTuple):
    """One exercise that was answered: the day, its level, what was right, and how far the figure was off, mm."""

    day: str
    level: int
    right: bool
    off: float


def next_level(tries: Sequence[Try]) -> int:
    """Return the level of the next exercise: three right in a row lead up a step, two wrong in a row down one."""
    if not tries:
        return 0
    level = tries[-1].level
    same = 0
    for each in reversed(tries):
        if each.level != level or each.right != tries[-1].right:
            break
        same += 1
    if tries[-1].right and same >= 3:
        return min(level + 1, HARDEST)
    if not tries[-1].right and same >= 2:
        return max(level - 1, 0)
    return level


class Progress(NamedTuple):
    """How it has gone.

    Parameters
    ----------
    read : int
        How many boards were read in all.
    last, right : int
        Of how many of the last ones, how many right.
    off : float
        How far figures were off in the middle of these, mm.
    step : int
        The hardest that was read right, from 1; of `HARDEST` and one more.
    """

    read: int
    last: int
    right: int
    off: float
    step: int


def progress_of(tries: Sequence[Try]) -> Progress | None:
    """Return how it has gone; None where nothing was practiced yet."""
    if not tries:
        return None
    last = tries[-10:]
    off = sorted(each.off for each in last)[len(last) // 2]
    best = max((each.level for each in tries if each.right), default=0)
    return Progress(len(tries), len(last), sum(each.right for each in last), off, best + 1)
