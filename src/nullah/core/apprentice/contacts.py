"""Where the parts of a piece touch, or nearly do, by their solids as designed."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from itertools import combinations

import manifold3d
import numpy as np

from nullah.core.apprentice.made_part import Floats, cross
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.solids import PlanarFace, Recipe, build, flat_faces

#: Surfaces that are planned to stand so near to each other are looked at, mm.
NEAR = 2.5
#: What is less than this apart touches, mm.
TOUCHES = 0.02
#: What is smaller than this is no surface that bears, mm².
_SMALL = 6.0
#: How far inside its border a contact is felt, mm: as far as it is wide enough, for borders come out otherwise too;
#: what is narrower than twice the last bears nothing.
_INSIDE = (2.0, 1.2, 0.6, 0.3)


Points = tuple[tuple[float, float, float], ...]


class Contact(NamedTuple):
    """Two surfaces that face each other.

    Parameters
    ----------
    first, second : str
        The parts.
    normal : tuple of float
        Out of the first.
    points : tuple of points
        On the first, within its border, mm.
    border : tuple of points
        On its border, mm.
    room : float
        How far the second is planned to be away, mm.
    """

    first: str
    second: str
    normal: tuple[float, float, float]
    points: Points
    border: Points
    room: float

    @property
    def axis(self) -> int:
        """The axis of the piece to which it is most nearly square."""
        return int(np.argmax(np.abs(self.normal)))


class _Flat(NamedTuple):
    """A face of a part: its plane, and what it covers of it."""

    normal: Floats
    offset: float
    low: Floats
    high: Floats
    face: PlanarFace


def contacts(recipes: Mapping[str, Recipe]) -> tuple[Contact, ...]:
    """Return where any two parts touch or nearly do.

    Parameters
    ----------
    recipes : mapping of part id to Recipe
        All in the same frame.
    """
    flats = {part: tuple(_flats(made)) for part, made in recipes.items()}
    found: list[Contact] = []
    for first, second in combinations(recipes, 2):
        (a, b), (c, d) = recipes[first].block, recipes[second].block
        if all(a[i] < d[i] + NEAR and c[i] < b[i] + NEAR for i in range(3)):
            found += _between(first, flats[first], second, flats[second])
    return tuple(found)


def _flats(made: Recipe) -> Iterator[_Flat]:
    for face in flat_faces(build(made, 0.0)):
        corners = np.array([corner for loop in face.loops for corner in loop])
        # The face's own normal is rounded; over a long board that would be some hundredths of a millimetre.
        outline = np.array(face.loops[0])
        normal = np.cross(outline - outline[0], np.roll(outline, -1, axis=0) - outline[0]).sum(axis=0)
        normal /= np.linalg.norm(normal)
        yield _Flat(normal, float(normal @ corners[0]), corners.min(axis=0), corners.max(axis=0), face)


def _between(first: str, ones: tuple[_Flat, ...], second: str, others: tuple[_Flat, ...]) -> Iterator[Contact]:
    for index, number in _facing(ones, others):
        one, other = ones[index], others[number]
        patch = _patch(one, other)
        if patch is not None:
            room = -other.offset - one.offset
            x, y, z = (float(each) for each in one.normal)
            yield Contact(first, second, (x, y, z), *patch, room if room > TOUCHES else 0.0)


def _facing(ones: tuple[_Flat, ...], others: tuple[_Flat, ...]) -> list[tuple[int, int]]:
    """Return which faces of one part and of another face each other so near that they may touch."""
    normals, offsets, low, high = _stacked(ones)
    other_normals, other_offsets, other_low, other_high = _stacked(others)
    room = -other_offsets[None, :] - offsets[:, None]
    near = (normals @ other_normals.T <= -0.9999) & (room > -TOUCHES) & (room < NEAR)
    slack = (room + TOUCHES)[:, :, None]
    near &= (low[:, None] <= other_high[None, :] + slack).all(axis=2)
    near &= (other_low[None, :] <= high[:, None] + slack).all(axis=2)
    return [(int(index), int(number)) for index, number in np.argwhere(near)]


def _stacked(flats: tuple[_Flat, ...]) -> tuple[Floats, Floats, Floats, Floats]:
    """Return normals (n, 3), offsets (n,), and lowest and highest corners (n, 3) of faces."""
    columns = [[flat[column] for flat in flats] for column in range(4)]
    normals, offsets, low, high = map(np.array, columns)
    return normals, offsets, low, high


def _patch(one: _Flat, other: _Flat) -> tuple[Points, Points] | None:
    """Return some points of what two faces share of a plane, far from each other: within its border, and on it."""
    along = np.zeros(3)
    along[int(np.argmin(np.abs(one.normal)))] = 1.0
    u = cross(one.normal, along)
    u /= np.linalg.norm(u)
    v = cross(one.normal, u)
    shared = _section(one, u, v) ^ _section(other, u, v)
    if shared.area() < _SMALL:
        return None
    insets = (shared.offset(-inside, manifold3d.JoinType.Miter) for inside in _INSIDE)
    inner = next((each for each in insets if each.area() > 0.01), None)
    if inner is None:
        return None

    def corners(section: manifold3d.CrossSection) -> Points:
        flat = np.concatenate([np.asarray(polygon) for polygon in section.to_polygons()])
        chosen = {int(np.argmax(flat @ np.array(way))) for way in ((1, 1), (1, -1), (-1, 1), (-1, -1))}
        points = (flat[index, 0] * u + flat[index, 1] * v + one.normal * one.offset for index in sorted(chosen))
        return tuple((float(a), float(b), float(c)) for a, b, c in points)

    return corners(inner), corners(shared)


def _section(flat: _Flat, u: Floats, v: Floats) -> manifold3d.CrossSection:
    loops = [np.column_stack([np.array(loop) @ u, np.array(loop) @ v]) for loop in flat.face.loops]
    return manifold3d.CrossSection(loops, manifold3d.FillRule.EvenOdd)
