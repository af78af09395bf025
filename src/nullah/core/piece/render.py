"""The piece shaded and turned: a picture in numbers, by the processor alone.

Triangles are laid out in rows of pixels all at once, the nearest wins, and each pixel gets
its wood: tone by species, light by the way its face looks, grain along the part.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.order import AssemblyStep, Order
from nullah.core.piece.part import Part
from nullah.core.piece.solids import Points, Recipe, build, mesh_of

Colour = tuple[float, float, float]
_Ints = NDArray[np.int64]

# Where the light comes from, in the frame of the eye: right, away, up.
_LIGHT = np.array([-0.42, -0.72, 0.55])
_AMBIENT = 0.58


@dataclass(frozen=True, eq=False)
class Scene:
    """Triangles of all parts in one list.

    Parameters
    ----------
    points : array, shape (n, 3), mm
    triangles : array, shape (m, 3)
    part_of : array, shape (m,)
        Which part each triangle belongs to.
    creases : array, shape (m,)
        Triangles of one number meet smoothly; an edge is drawn between different ones.
    normals : array, shape (m, 3)
    parts : tuple of Part
    offsets : array, shape (p, 3)
        How far each part is drawn out of its place, mm.
    """

    points: Points
    triangles: _Ints
    part_of: _Ints
    creases: _Ints
    normals: Points
    parts: tuple[Part, ...]
    offsets: Points

    @property
    def middle(self) -> Points:
        """The middle of all points."""
        middle: Points = (self.points.min(axis=0) + self.points.max(axis=0)) / 2
        return middle

    @property
    def reach(self) -> float:
        """How far the farthest point is from the middle, mm."""
        return float(np.linalg.norm(self.points - self.middle, axis=1).max())


class Viewpoint(NamedTuple):
    """From where one looks: degrees turned about the upright, and tilted from level."""

    turn: float = -32.0
    tilt: float = 24.0

    def matrix(self) -> Points:
        """Return the rotation into the frame of the eye: right, away from the eye, up."""
        a, b = math.radians(self.turn), math.radians(self.tilt)
        about = np.array([[math.cos(a), -math.sin(a), 0], [math.sin(a), math.cos(a), 0], [0, 0, 1]])
        over = np.array([[1, 0, 0], [0, math.cos(b), -math.sin(b)], [0, math.sin(b), math.cos(b)]])
        turned: Points = over @ about
        return turned


class Picture(NamedTuple):
    """Pixels (h, w, 3) and, for each, the number of the part it shows, or -1 (h, w)."""

    pixels: NDArray[np.uint8]
    parts: _Ints


class Look(NamedTuple):
    """Colours, each from 0 to 1: the ground, edges, and what the part in hand is tinted with."""

    ground: Colour
    edge: Colour
    lit: Colour


def offsets_of(parts: Sequence[Part], order: Order, opened: float, only: str = "") -> Points:
    """Return how far each part is drawn out along the way it goes in, mm.

    Parameters
    ----------
    opened : float
        0 is put together, 1 fully opened.
    only : str
        Open only the step at which this part goes in, with what it is then joined to; empty: all.
    """
    index = {part.id: number for number, part in enumerate(parts)}
    found = np.zeros((len(parts), 3))
    if opened <= 0 or not parts:
        return found
    lows = np.array([[float(c) for c in part.box.low] for part in parts])
    highs = np.array([[float(c) for c in part.box.high] for part in parts])
    for step in _steps_of(order, only):
        axis = step.way.axis.value
        members = [index[part_id] for part_id in step.parts]
        onto = [index[part_id] for part_id in step.onto]
        deep = min(highs[members, axis].max(), highs[onto, axis].max()) - max(
            lows[members, axis].min(), lows[onto, axis].min()
        )
        # Far enough to see the joint whole, never so far that the piece is lost.
        span = float(highs[:, axis].max() - lows[:, axis].min())
        far = min(max(deep, 0.0) + 0.12 * span + 20, 0.75 * span + 40)
        found[members, axis] += opened * far * (-1 if step.way.high else 1)
    return found


def _steps_of(order: Order, only: str) -> tuple[AssemblyStep, ...]:
    if not only:
        return order.steps
    own = [step for step in order.steps if only in step.parts]
    # The part every other goes to has no step of its own: then the first that comes to it.
    own = own or [step for step in order.steps if only in step.onto][:1]
    return (min(own, key=lambda step: len(step.parts)),) if own else ()


def scene(parts: tuple[Part, ...], recipes: Mapping[str, Recipe], offsets: Points) -> Scene:
    """Gather the solids of some parts into one scene."""
    points, triangles, part_of = [], [], []
    first = 0
    for number, part in enumerate(parts):
        own, corners = mesh_of(build(recipes[part.id]))
        points.append(own + offsets[number])
        triangles.append(corners + first)
        part_of.append(np.full(len(corners), number))
        first += len(own)
    all_points, all_triangles = np.concatenate(points), np.concatenate(triangles)
    owners = np.concatenate(part_of)
    corners_of = all_points[all_triangles]
    normals = np.cross(corners_of[:, 1] - corners_of[:, 0], corners_of[:, 2] - corners_of[:, 0])
    lengths = np.linalg.norm(normals, axis=1)
    good = lengths > 1e-12
    all_triangles, owners, normals = all_triangles[good], owners[good], normals[good] / lengths[good, None]
    return Scene(all_points, all_triangles, owners, _creases(normals, owners), normals, parts, offsets)


def _creases(normals: Points, owners: _Ints) -> _Ints:
    """Return a number for each face, so that the facets of a curve share a number and flat faces have their own."""
    flat = np.abs(normals).max(axis=1) > 0.9995
    rounded = np.where(flat[:, None], np.round(normals) * 2, np.round(normals * 0.99))
    keys = np.column_stack([owners, flat, rounded]).astype(np.int64)
    _, numbers = np.unique(keys, axis=0, return_inverse=True)
    return np.asarray(numbers, dtype=np.int64).reshape(-1)


def fitted(shown: Scene, eye: Viewpoint, size: tuple[int, int], share: float) -> tuple[float, tuple[float, float]]:
    """Return how large a scene fills a share of a picture, and how it is moved to stand in its middle.

    Parameters
    ----------
    shown : Scene
    eye : Viewpoint
    size : (width, height)
        In pixels.
    share : float
        Of the width or the height, whichever is filled first.

    Returns
    -------
    (float, (x, y))
        Pixels for a millimetre, and the shift in pixels, as `picture` takes them.
    """
    turned = (shown.points - shown.middle) @ eye.matrix().T
    low, high = turned.min(axis=0), turned.max(axis=0)
    per_mm = float(min(share * size[0] / (high[0] - low[0]), share * size[1] / (high[2] - low[2])))
    return per_mm, (float(-(low[0] + high[0]) / 2 * per_mm), float((low[2] + high[2]) / 2 * per_mm))


def picture(
    shown: Scene,
    eye: Viewpoint,
    size: tuple[int, int],
    per_mm: float,
    tones: Sequence[Colour],
    look: Look,
    lit: int = -1,
    shift: tuple[float, float] = (0.0, 0.0),
) -> Picture:
    """Paint a scene.

    Parameters
    ----------
    shown : Scene
    eye : Viewpoint
    size : (width, height)
        In pixels.
    per_mm : float
        Pixels for a millimetre.
    tones : sequence of Colour
        The wood of each part.
    look : Look
    lit : int
        The part in hand, or -1.
    shift : (x, y)
        By how many pixels the middle is moved.
    """
    wide, high = size
    turned = (shown.points - shown.middle) @ eye.matrix().T
    x = turned[:, 0] * per_mm + wide / 2 + shift[0]
    y = high / 2 - turned[:, 2] * per_mm + shift[1]
    nearness = -turned[:, 1]
    winner, depth = _nearest(x, y, nearness, shown.triangles, wide, high)
    hit = winner >= 0
    part_of = np.where(hit, shown.part_of[winner], -1)
    pixels = _coloured(shown, eye, per_mm, tones, look, lit, shift, (wide, high), winner, depth)
    _edges(pixels, np.where(hit, shown.creases[winner], -1), part_of, depth, look, per_mm)
    return Picture((np.clip(pixels, 0, 1) * 255 + 0.5).astype(np.uint8), part_of)


def _nearest(x: Points, y: Points, nearness: Points, triangles: _Ints, wide: int, high: int) -> tuple[_Ints, Points]:
    """Give, for every pixel, the triangle nearest to the eye (-1 for none) and how near it is."""
    tx, ty, tz = x[triangles], y[triangles], nearness[triangles]
    area = (tx[:, 1] - tx[:, 0]) * (ty[:, 2] - ty[:, 0]) - (tx[:, 2] - tx[:, 0]) * (ty[:, 1] - ty[:, 0])
    facing = np.flatnonzero(area < -1e-9)
    tx, ty, tz, area = tx[facing], ty[facing], tz[facing], area[facing]
    top = np.clip(np.ceil(ty.min(axis=1) - 0.5), 0, high).astype(np.int64)
    bottom = np.clip(np.ceil(ty.max(axis=1) - 0.5), 0, high).astype(np.int64)
    rows = np.maximum(bottom - top, 0)
    of_span = np.repeat(np.arange(len(facing)), rows)
    row = _counted(rows) + np.repeat(top, rows)
    left, right = _crossings(tx[of_span], ty[of_span], row + 0.5)
    start = np.clip(np.ceil(left - 0.5), 0, wide).astype(np.int64)
    end = np.clip(np.ceil(right - 0.5), 0, wide).astype(np.int64)
    counts = np.maximum(end - start, 0)
    column = _counted(counts) + np.repeat(start, counts)
    of_pixel = np.repeat(of_span, counts)
    at = np.repeat(row * wide, counts) + column
    # Nearness is linear over the face of a triangle.
    slope_x = ((tz[:, 1] - tz[:, 0]) * (ty[:, 2] - ty[:, 0]) - (tz[:, 2] - tz[:, 0]) * (ty[:, 1] - ty[:, 0])) / area
    slope_y = ((tx[:, 1] - tx[:, 0]) * (tz[:, 2] - tz[:, 0]) - (tx[:, 2] - tx[:, 0]) * (tz[:, 1] - tz[:, 0])) / area
    base = tz[:, 0] - slope_x * (tx[:, 0] - 0.5) - slope_y * (ty[:, 0] - 0.5)
    near = base[of_pixel] + slope_x[of_pixel] * column + slope_y[of_pixel] * np.repeat(row, counts)
    depth = np.full(wide * high, -np.inf)
    np.maximum.at(depth, at, near)
    won = near >= depth[at]
    winner = np.full(wide * high, -1, dtype=np.int64)
    winner[at[won]] = facing[of_pixel[won]]
    return winner.reshape(high, wide), depth.reshape(high, wide)


def _counted(counts: _Ints) -> _Ints:
    """Return 0, 1, … within each run of so many: for 2, 3 it is 0 1 0 1 2."""
    total = int(counts.sum())
    starts = np.repeat(np.cumsum(counts) - counts, counts)
    return np.arange(total) - starts


def _crossings(tx: Points, ty: Points, level: Points) -> tuple[Points, Points]:
    """Return where a level line enters and leaves each triangle."""
    left = np.full(len(level), np.inf)
    right = np.full(len(level), -np.inf)
    for a, b in ((0, 1), (1, 2), (2, 0)):
        crosses = (ty[:, a] <= level) != (ty[:, b] <= level)
        rise = np.where(crosses, ty[:, b] - ty[:, a], 1.0)
        at = tx[:, a] + (level - ty[:, a]) * (tx[:, b] - tx[:, a]) / rise
        left = np.where(crosses, np.minimum(left, at), left)
        right = np.where(crosses, np.maximum(right, at), right)
    return np.where(np.isfinite(left), left, 0.0), np.where(np.isfinite(right), right, 0.0)


def _coloured(
    shown: Scene,
    eye: Viewpoint,
    per_mm: float,
    tones: Sequence[Colour],
    look: Look,
    lit: int,
    shift: tuple[float, float],
    size: tuple[int, int],
    winner: _Ints,
    depth: Points,
) -> Points:
    wide, high = size
    pixels = np.empty((high, wide, 3))
    pixels[:] = look.ground
    rows, columns = np.nonzero(winner >= 0)
    faces = winner[rows, columns]
    owners = shown.part_of[faces]
    light = _AMBIENT + (1 - _AMBIENT) * np.maximum(0.0, (shown.normals @ eye.matrix().T) @ _LIGHT)
    wood = np.array([*tones], dtype=np.float64).reshape(-1, 3)
    if lit >= 0:
        wood[lit] = 0.45 * wood[lit] + 0.55 * np.array(look.lit)
    places = np.column_stack(
        [
            (columns + 0.5 - wide / 2 - shift[0]) / per_mm,
            -depth[rows, columns],
            (high / 2 + shift[1] - rows - 0.5) / per_mm,
        ]
    )
    # Single precision is a hundredth of a millimetre here, and half the time.
    places = places.astype(np.float32) @ eye.matrix().astype(np.float32)
    places += (shown.middle - shown.offsets).astype(np.float32)[owners]
    shade = light[faces] * _grain(shown, places, owners, faces, per_mm)
    pixels[rows, columns] = wood[owners] * shade[:, None]
    return pixels


def _grain(shown: Scene, places: NDArray[np.float32], owners: _Ints, faces: _Ints, per_mm: float) -> Points:
    """Return how light the wood is at each place: streaks along the grain, rings on its ends."""
    order = np.array([[part.grain.value, part.across.value, part.face.value] for part in shown.parts])
    lows = np.array([[float(c) for c in part.box.low] for part in shown.parts], dtype=np.float32)
    local = places - lows[owners]
    at = np.arange(len(places))
    along = local[at, order[owners, 0]]
    across = local[at, order[owners, 1]]
    deep = local[at, order[owners, 2]]
    phases = (np.arange(len(shown.parts)) * 2.399) % 6.283
    phase = phases.astype(np.float32)[owners]
    aside, depth = (40 * np.sin(phases)).astype(np.float32)[owners], (9 * np.cos(phases)).astype(np.float32)[owners]
    # Rings as they lie in a flat-sawn board: flat arcs, seen as lines on its faces and arcs on its ends.
    wander = 3.5 * np.sin(along / 140 + phase) + 1.5 * np.sin(along / 47 + 2 * phase)
    ring = np.sqrt((across - aside + wander) ** 2 + (deep + 46 + depth) ** 2)
    fine = np.clip(per_mm * 1.4, 0.0, 1.0)
    ends = np.abs(shown.normals[faces, order[owners, 0]]) > 0.7
    darker = np.where(ends, 0.88, 1.0)
    shaded: Points = darker * (1 + fine * 0.05 * np.sin(ring * (2 * math.pi / 6.5)) + 0.02 * np.sin(across / 9 + phase))
    return shaded


def _edges(pixels: Points, creases: _Ints, parts: _Ints, depth: Points, look: Look, per_mm: float) -> None:
    """Draw a line wherever the face changes, or a nearer one of the same kind ends."""
    jump = 2.5 / max(per_mm, 0.2) + 0.8
    near = np.where(np.isfinite(depth), depth, -1e6)
    strong = np.zeros(parts.shape, dtype=bool)
    for ahead, behind in (
        ((slice(None), slice(1, None)), (slice(None), slice(None, -1))),
        ((slice(1, None), slice(None)), (slice(None, -1), slice(None))),
    ):
        differs = (creases[ahead] != creases[behind]) | (parts[ahead] != parts[behind])
        steps = (np.abs(near[ahead] - near[behind]) > jump) & (creases[ahead] >= 0)
        mark = differs | steps
        # The line lies on the nearer of the two.
        forward = mark & (near[ahead] >= near[behind])
        strong[ahead] |= forward
        strong[behind] |= mark & ~forward
    pixels[strong] = 0.3 * pixels[strong] + 0.7 * np.array(look.edge)


__all__ = ["Colour", "Look", "Picture", "Scene", "Viewpoint", "offsets_of", "picture", "scene"]
