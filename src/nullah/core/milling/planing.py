"""The planing simulator: a stiff sole rides on the surface there is, the iron takes what stands above its line.

Seen along the stroke, the sole is a straight line pressed down at the mouth: it rests on the
highest points in front of the mouth and behind it, so at the mouth it stands as high as the
concave envelope of the surface under it. Seen across, it does the same once more. What an iron
of given camber and set reaches below that is cut, and nothing else is. All else that planes do
(bridging hollows, keeping humps, leaving a cup) follows.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from nullah.core.named_tuple import NamedTuple
from nullah.core.shop import Plane

Grid = NDArray[np.float64]

#: The sole is this much wider than its iron, mm.
SOLE_BEYOND_IRON = 12.0
#: A stroke that begins or ends on the board is let down and lifted over this way, mm.
LIFT = 40.0
#: The sole is felt for at this spacing along, mm, and at these shares of its width across.
_FEEL = 15.0
_COLUMNS = np.array([-0.5, -0.25, 0.0, 0.25, 0.5])
# Each column with each to its right.
_PAIRS = np.triu_indices(len(_COLUMNS), 1)
# Where there is no wood, nothing is felt.
_NOTHING = -1e6
# How far along toe and heel the hands press as the plane comes onto the board and leaves it.
_ON_HANDLES = 0.6
# How often the heel is set anew on what was just cut; each time leaves a third of the error, which is
# a third of the shaving to begin with.
_SETTLINGS = 1
# The steps by which the slope of a sole is bettered: more change nothing (a test says so). Fewer do, where
# the hands are at the heel and the iron has left a step under the sole.
_STEPS = 5


@dataclass(frozen=True, slots=True, eq=False)
class Work:
    """A face being planed.

    Parameters
    ----------
    heights : array, shape (n, m)
        Of the face, mm; `heights[i, j]` stands at x = i·spacing_x, y = j·spacing_y.
    spacing_x, spacing_y : float
        mm.
    """

    heights: Grid
    spacing_x: float
    spacing_y: float

    @property
    def length(self) -> float:
        """Along, mm."""
        return float(self.heights.shape[0] - 1) * self.spacing_x

    @property
    def width(self) -> float:
        """Across, mm."""
        return float(self.heights.shape[1] - 1) * self.spacing_y

    @property
    def x(self) -> Grid:
        """Stations along, mm, shape (n,)."""
        return np.arange(self.heights.shape[0], dtype=np.float64) * self.spacing_x

    @property
    def y(self) -> Grid:
        """Stations across, mm, shape (m,)."""
        return np.arange(self.heights.shape[1], dtype=np.float64) * self.spacing_y

    def at(self, x: Grid, y: Grid) -> Grid:
        """Return the heights at places, mm, by bilinear interpolation; beyond the border as it stands there."""
        n, m = self.heights.shape
        i, j = np.clip(x / self.spacing_x, 0, n - 1), np.clip(y / self.spacing_y, 0, m - 1)
        i0, j0 = np.minimum(i.astype(int), n - 2), np.minimum(j.astype(int), m - 2)
        fi, fj = i - i0, j - j0
        flat, at = self.heights.ravel(), i0 * m + j0
        near = flat[at] * (1 - fj) + flat[at + 1] * fj
        far = flat[at + m] * (1 - fj) + flat[at + m + 1] * fj
        return np.asarray(near * (1 - fi) + far * fi, dtype=np.float64)

    @property
    def volume(self) -> float:
        """Wood above the datum, mm³: each station stands for one cell."""
        return float(self.heights.sum()) * self.spacing_x * self.spacing_y


@dataclass(frozen=True, slots=True)
class Stroke:
    """One push of a plane: its mouth goes from `start` to `end` (x, y in mm), its iron `depth` mm below the sole."""

    start: tuple[float, float]
    end: tuple[float, float]
    plane: Plane
    depth: float


@dataclass(frozen=True, slots=True)
class Shaving:
    """What a stroke took: volume in mm³, the thickest place and the length cut in mm."""

    volume: float
    thickest: float
    length: float


def plane_stroke(work: Work, stroke: Stroke) -> tuple[Work, Shaving]:
    """Push the plane once.

    Returns
    -------
    (Work, Shaving)
        The face after it, and the shaving as measured in the mouth: its section, added up along the way.
    """
    way = math.dist(stroke.start, stroke.end)
    if way < 1e-6 or stroke.depth <= 0:
        return work, Shaving(0.0, 0.0, 0.0)
    frame = _Frame(stroke, way)
    s, sole, roll, deep = _ride(work, stroke, frame)
    return _cut(work, stroke, frame, s, sole, roll, deep)


@dataclass(frozen=True, slots=True)
class _Frame:
    """Along and across a stroke, from where it starts."""

    stroke: Stroke
    way: float

    @property
    def along(self) -> tuple[float, float]:
        """The direction of the stroke, a unit vector."""
        (x0, y0), (x1, y1) = self.stroke.start, self.stroke.end
        return (x1 - x0) / self.way, (y1 - y0) / self.way


def _ride(work: Work, stroke: Stroke, frame: _Frame) -> tuple[Grid, Grid, Grid, Grid]:
    """Give, for places of the mouth along the stroke, how high the sole stands there, its roll, and the iron's set."""
    plane = stroke.plane
    toe = float(plane.sole) * plane.mouth
    ahead, behind = max(2, round(toe / _FEEL)), max(2, round((float(plane.sole) - toe) / _FEEL))
    # The last place of the mouth may lie beyond the end of the stroke; nothing is cut there.
    places = max(2, math.ceil(frame.way / _FEEL) + 1)
    # Felt ahead past the toe as far as the hands must know where the board ends: see `_pressed`.
    beyond = max(ahead, math.ceil(_ON_HANDLES * behind))
    s: Grid = np.arange(-behind, places + beyond, dtype=np.float64) * _FEEL
    mouth = slice(behind, behind + places)
    across = _COLUMNS * (float(plane.iron) + SOLE_BEYOND_IRON)
    felt = _sample(work, stroke, frame, s, across)
    deep = _set(work, stroke, frame, s[mouth])
    sole = _Sole(behind, _FEEL, _under(behind, ahead, places), _pressed(felt, behind, ahead, places))
    under = felt[:, sole.under]
    slopes = np.zeros((len(across), places))
    height, roll = _across(_lines(sole, under, slopes), across)
    rounded = _camber(plane, across)[:, None]
    cut_by_iron = np.abs(across)[:, None] <= float(plane.iron) / 2
    for _ in range(_SETTLINGS):
        # The heel comes after the iron: it rides on what that has left.
        iron = height + roll * across[:, None] - deep + rounded
        after = felt.copy()
        after[:, mouth] = np.where(cut_by_iron, np.minimum(felt[:, mouth], iron), felt[:, mouth])
        under[:, :, :behind] = after[:, sole.under[:, :behind]]
        height, roll = _across(_lines(sole, under, slopes), across)
    return s[mouth], height, roll, deep


class _Sole(NamedTuple):
    """A sole felt at places: how many reach behind its mouth, and mm between them.

    For each place of the mouth, `under` are the places felt that lie under the sole, from heel
    to toe, shape (places, reach), and `pressed` the one where the hands press it down.
    """

    behind: int
    spacing: float
    under: NDArray[np.int64]
    pressed: NDArray[np.int64]


def _under(behind: int, ahead: int, places: int) -> NDArray[np.int64]:
    return np.arange(places)[:, None] + np.arange(behind + 1 + ahead)[None, :]


def _pressed(felt: Grid, behind: int, ahead: int, places: int) -> NDArray[np.int64]:
    """Return where the hands press: at the mouth, but on the toe as it comes on, on the heel as it leaves."""
    mouth = np.arange(behind, behind + places)
    wood = np.flatnonzero((felt > _NOTHING / 2).any(axis=0))
    if not len(wood):
        return mouth
    first, last = int(wood[0]), int(wood[-1])
    on_toe, on_heel = _ON_HANDLES * ahead, _ON_HANDLES * behind
    # On a board shorter than the plane both hands meet between.
    share = min(1.0, (last - first) / (on_toe + on_heel))
    low, high = round(first + on_toe * share), round(last - on_heel * share)
    return np.clip(np.clip(mouth, low, max(low, high)), mouth - behind + 1, mouth + ahead - 1)


def _lines(sole: _Sole, under: Grid, slopes: Grid) -> Grid:
    """Lay a line the length of the sole on each column, for each place of the mouth; give its height at the mouth.

    The lowest line, where it is pressed, over all points that stand behind and ahead of there,
    by slope: its height is convex in its slope, and the best slope joins one point behind with
    one ahead. From any slope the two points that stop it give the next; that ends in a few steps.
    `under` are the heights under the sole, shape (columns, places, reach); `slopes` are where to
    begin, and are bettered. A column without wood where it is pressed carries nothing.
    """
    columns, places = slopes.shape
    column, place = np.indices((columns, places))
    away = np.multiply(sole.under - sole.pressed[:, None], sole.spacing, dtype=np.float64)
    heels = under + np.where(away < 0, 0.0, 2 * _NOTHING)
    toes = under + np.where(away > 0, 0.0, 2 * _NOTHING)
    at = under[:, np.arange(places), sole.pressed - np.arange(places)]
    height = at
    for _ in range(_STEPS):
        line = slopes[..., None] * away
        behind, ahead = (heels - line).argmax(axis=2), (toes - line).argmax(axis=2)
        z_behind, to_behind = heels[column, place, behind], away[place, behind]
        chord = (toes[column, place, ahead] - z_behind) / (away[place, ahead] - to_behind)
        height = np.maximum(height, z_behind - chord * to_behind)
        # Where there is nothing to rest on, a chord would stand upright.
        slopes[:] = np.clip(chord, -1.0, 1.0)
    tipped = (np.arange(places) + sole.behind - sole.pressed) * sole.spacing
    ends = np.flatnonzero(tipped)
    if len(ends):
        tilt = _tilt(heels[:, ends], toes[:, ends], height[:, ends], away[ends])
        height[:, ends] += tilt * tipped[ends]
    return np.where(at > _NOTHING / 2, height, _NOTHING)


def _tilt(heels: Grid, toes: Grid, height: Grid, away: Grid) -> Grid:
    """Return the slope of a sole that rests on `height` where it is pressed: of all it can have, the one between."""
    near: Grid = 1 / np.where(away == 0, np.inf, away)
    rising = ((toes - height[..., None]) * near).max(axis=2, where=away > 0, initial=_NOTHING)
    falling = ((heels - height[..., None]) * near).min(axis=2, where=away < 0, initial=-_NOTHING)
    steep = 100.0
    one_side = np.where(np.abs(rising) < steep, rising, np.where(np.abs(falling) < steep, falling, 0.0))
    both = (np.abs(rising) < steep) & (np.abs(falling) < steep)
    return np.asarray(np.where(both, (rising + falling) / 2, one_side), dtype=np.float64)


def _set(work: Work, stroke: Stroke, frame: _Frame, s: Grid) -> Grid:
    """Return the iron's set along the stroke, mm: let down and lifted where the stroke begins or ends on the board."""
    deep = np.full(len(s), stroke.depth)
    if _on(work, stroke.start):
        deep *= np.clip(s / LIFT, 0.0, 1.0)
    if _on(work, stroke.end):
        deep *= np.clip((frame.way - s) / LIFT, 0.0, 1.0)
    return deep


def _on(work: Work, place: tuple[float, float]) -> bool:
    return 1.0 < place[0] < work.length - 1.0 and 1.0 < place[1] < work.width - 1.0


def _camber(plane: Plane, across: Grid) -> Grid:
    """Return how far the edge of the iron stands back, mm: a parabola that is `plane.camber` at the corners."""
    return np.asarray(float(plane.camber) * (2 * across / float(plane.iron)) ** 2, dtype=np.float64)


def _sample(work: Work, stroke: Stroke, frame: _Frame, s: Grid, across: Grid) -> Grid:
    """Return the heights under the sole, shape (columns, places): bilinear, and nothing where the board ends."""
    ax, ay = frame.along
    x = stroke.start[0] + s[None, :] * ax - across[:, None] * ay
    y = stroke.start[1] + s[None, :] * ay + across[:, None] * ax
    # A border lies between two places felt: the face goes on to the first one beyond, as the board leans on the whole.
    beyond_x, beyond_y = x - np.clip(x, 0, work.length), y - np.clip(y, 0, work.width)
    on = (np.abs(beyond_x) < _FEEL) & (np.abs(beyond_y) < _FEEL)
    lean_x = float((work.heights[-1] - work.heights[0]).mean()) / work.length
    lean_y = float((work.heights[:, -1] - work.heights[:, 0]).mean()) / work.width
    return np.where(on, work.at(x, y) + lean_x * beyond_x + lean_y * beyond_y, _NOTHING)


def _across(lines: Grid, across: Grid) -> tuple[Grid, Grid]:
    """Lay the sole across its columns: how high its middle line stands, and its roll, for each place of the mouth.

    It is pressed down in the middle of what wood there is under it: where it hangs over a side,
    that is not its own middle. Where there is no wood at all, it goes on as it came.
    """
    wood = lines > _NOTHING / 2
    there = wood.any(axis=0)
    if not there.any():
        return np.full(lines.shape[1], _NOTHING), np.zeros(lines.shape[1])
    pressed = (wood * across[:, None]).sum(axis=0) / np.maximum(wood.sum(axis=0), 1)
    away = across[:, None] - pressed
    height = np.where(np.abs(away) < 1e-6, lines, _NOTHING).max(axis=0)
    one, two = _PAIRS
    share = -away[one] / (across[two] - across[one])[:, None]
    chords = lines[one] + (lines[two] - lines[one]) * share
    height = np.maximum(height, np.where((share > 0) & (share < 1), chords, _NOTHING).max(axis=0))
    # Of all rolls that leave the sole on no less than that height, the one between the extremes.
    with np.errstate(divide="ignore", invalid="ignore"):
        slopes = (lines - height) / away
    most = np.where(wood & (away < -1e-6), slopes, np.inf).min(axis=0)
    least = np.where(wood & (away > 1e-6), slopes, -np.inf).max(axis=0)
    held = np.isfinite(most) & np.isfinite(least)
    both = (np.where(held, most, 0.0) + np.where(held, least, 0.0)) / 2
    roll = np.where(held, both, np.where(np.isfinite(most), most, np.where(np.isfinite(least), least, 0.0)))
    sole = height - roll * pressed
    if not there.all():
        place = np.arange(lines.shape[1])
        sole, roll = np.interp(place, place[there], sole[there]), np.interp(place, place[there], roll[there])
    return sole, roll


def _cut(
    work: Work, stroke: Stroke, frame: _Frame, s: Grid, sole: Grid, roll: Grid, deep: Grid
) -> tuple[Work, Shaving]:
    """Take what stands above the iron, station by station."""
    ax, ay = frame.along
    half = float(stroke.plane.iron) / 2
    rows, columns = _swath(work, stroke, half)
    x = work.x[rows][:, None] - stroke.start[0]
    y = work.y[columns][None, :] - stroke.start[1]
    along, across = x * ax + y * ay, y * ax - x * ay
    reached = (np.abs(across) <= half) & (along >= -1e-9) & (along <= frame.way + 1e-9)
    before = work.heights[rows, columns]
    height = np.interp(along, s, sole)
    # How far the iron stands out of the sole; corners of much camber do not.
    out = np.interp(along, s, deep) - _camber(stroke.plane, across)
    line = height + np.interp(along, s, roll) * across - out
    # Wood that stands above the sole between the places where it is felt has lifted it: no more goes through the mouth.
    line = np.maximum(line, before - out)
    after = np.where(reached & (height > _NOTHING / 2), np.minimum(before, line), before)
    taken = before - after
    if not taken.any():
        return work, Shaving(0.0, 0.0, 0.0)
    heights = work.heights.copy()
    heights[rows, columns] = after
    cut = along[taken > 0]
    volume = float(taken.sum()) * work.spacing_x * work.spacing_y
    return Work(heights, work.spacing_x, work.spacing_y), Shaving(volume, float(taken.max()), float(np.ptp(cut)))


def _swath(work: Work, stroke: Stroke, half: float) -> tuple[slice, slice]:
    """Return the rows and columns of stations that the iron may pass over."""

    def between(one: float, two: float, spacing: float, count: int) -> slice:
        low, high = min(one, two) - half, max(one, two) + half
        return slice(max(0, math.floor(low / spacing)), min(count, math.ceil(high / spacing) + 1))

    n, m = work.heights.shape
    return (
        between(stroke.start[0], stroke.end[0], work.spacing_x, n),
        between(stroke.start[1], stroke.end[1], work.spacing_y, m),
    )
