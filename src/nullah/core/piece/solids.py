"""Parts as solids: the box, less what its joints give to others, less its shapings.

Booleans are manifold3d's; nothing here is exact beyond floating point, and nothing that is
decided here is finer than a hundredth of a millimetre. Solids are kept by their inputs, so
only what changed is cut again.
"""

from __future__ import annotations

import atexit
import math
from collections.abc import Iterable, Mapping
from typing import TypeAlias

import manifold3d
import numpy as np
from numpy.typing import NDArray

from nullah.core.identity import kept_by_value, let_go
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.cuts import Block, Floats, Removal, RoundHole, block_of
from nullah.core.piece.joint import Joint
from nullah.core.piece.part import Part
from nullah.core.piece.shaping import Prism, Shaping, prisms
from nullah.core.piece.space import Axis, Box

Solid: TypeAlias = manifold3d.Manifold
Points = NDArray[np.float64]

#: Corners of a round hole: a circle to 0.05 mm at 10 mm.
ROUND = 24


class Recipe(NamedTuple):
    """All that makes a solid: its box, what joints take, and its shapings with the exact box they refer to."""

    block: Block
    cuts: tuple[Removal, ...]
    shapings: tuple[Shaping, ...]


def recipe(part: Part, joints: Iterable[Joint], parts: Mapping[str, Part]) -> Recipe:
    """Gather what makes a part's solid.

    Parameters
    ----------
    joints : iterable of Joint
        Those the part takes part in; others are passed over.
    parts : mapping of id to Part
    """
    cuts = []
    for joint in joints:
        if part.id not in (joint.first, joint.second) or joint.first not in parts or joint.second not in parts:
            continue
        cut = joint.type.cut(joint, parts[joint.first], parts[joint.second], part.id == joint.first)
        if cut is not None:
            cuts.append(cut)
    if part.built != part.box:
        cuts.append(Removal((block_of(part.box),), keeps=(block_of(part.built),)))
    return Recipe(block_of(part.box), tuple(cuts), part.shapings)


# --- building -------------------------------------------------------------------------------------


#: So far prisms take beyond their lines, mm: a film would stay where two share a line, or one lies in a surface.
HAIR = 1e-4
#: What is taken from a surface goes on beyond it, mm.
_PAST = 1.0


#: Figures of a recipe at the origin are kept to so many decimals of a millimetre: moving leaves the last ones astray.
_KEPT = 9


@kept_by_value(4096)
def at_origin(made: Recipe) -> Recipe:
    """Return a recipe with its low corner at the origin: equal parts, and parts that only moved, have the same."""
    return shifted(made, (-made.block[0][0], -made.block[0][1], -made.block[0][2]))


def shifted(made: Recipe, by: Floats) -> Recipe:
    """Return a recipe moved by so many millimetres along the three axes, its figures to a billionth of one.

    Parameters
    ----------
    made : Recipe
        What is cut from what.
    by : Floats
        Shape (3,), mm.
    """

    def point(at: Floats) -> Floats:
        x, y, z = (round(place + way, _KEPT) + 0.0 for place, way in zip(at, by, strict=True))
        return x, y, z

    def block(each: Block) -> Block:
        return point(each[0]), point(each[1])

    def flat(at: tuple[float, float], axis: Axis) -> tuple[float, float]:
        one, two = by[(axis.value + 1) % 3], by[(axis.value + 2) % 3]
        return round(at[0] + one, _KEPT) + 0.0, round(at[1] + two, _KEPT) + 0.0

    def along(at: float, axis: Axis) -> float:
        return round(at + by[axis.value], _KEPT) + 0.0

    def prism(each: Prism) -> Prism:
        points = tuple(flat(at, each.along) for at in each.points)
        return Prism(each.along, points, along(each.low, each.along), along(each.high, each.along))

    def hole(each: RoundHole) -> RoundHole:
        low, high = along(each.low, each.along), along(each.high, each.along)
        return each._replace(centre=flat(each.centre, each.along), low=low, high=high)

    cuts = tuple(
        Removal(
            tuple(map(block, cut.blocks)),
            tuple(map(prism, cut.prisms)),
            tuple(map(block, cut.keeps)),
            tuple(map(prism, cut.kept_prisms)),
            tuple(map(hole, cut.holes)),
            tuple(tuple(map(point, hull)) for hull in cut.hulls),
        )
        for cut in made.cuts
    )
    return Recipe(block(made.block), cuts, made.shapings)


@kept_by_value(2048)
def build(made: Recipe, hair: float = HAIR) -> Solid:
    """Cut a part's solid.

    Parameters
    ----------
    made : Recipe
    hair : float
        How far prisms take beyond their lines, mm; 0: to the lines, where films may stay.
    """
    return cut_at_origin(at_origin(made), hair).translate(made.block[0])


@kept_by_value(2048)
def cut_at_origin(made: Recipe, hair: float) -> Solid:
    """Cut a part's solid whose low corner is at the origin.

    Parameters
    ----------
    made : Recipe
        What is cut from what.
    hair : float
        Cuts are made larger by so much where they come out, mm.
    """
    solid = block_solid(made.block)
    for cut in made.cuts:
        taken = [block_solid(_past(block, made.block)) for block in cut.blocks]
        taken += [prism_solid(_prism_past(prism, made.block), hair) for prism in cut.prisms]
        taken += [manifold3d.Manifold.hull_points(np.array(points)) for points in cut.hulls]
        holes = [hole_solid(hole) for hole in cut.holes]
        kept = [block_solid(_past(block, made.block)) for block in cut.keeps]
        kept += [prism_solid(_prism_past(prism, made.block)) for prism in cut.kept_prisms]
        if taken:
            away = joined(taken)
            solid = solid - (away - joined(kept) if kept else away)
        if holes:
            solid = solid - joined(holes)
    exact = Box(*made.block)  # type: ignore[arg-type]
    shaped = [prism for shaping in made.shapings for prism in prisms(shaping, exact)]
    # One by itself shares no line with another.
    grown = hair if len(made.shapings) > 1 else 0.0
    return solid - joined([prism_solid(prism, grown) for prism in shaped]) if shaped else solid


def _past(block: Block, part: Block) -> Block:
    """Return a block that ends at a part's surface, going on beyond it, so that no film stays there."""
    (low, high), (part_low, part_high) = block, part
    if not all(one < other for one, other in zip(low, high, strict=True)):
        return block
    return (
        tuple(at - _PAST if at == end else at for at, end in zip(low, part_low, strict=True)),  # type: ignore[return-value]
        tuple(at + _PAST if at == end else at for at, end in zip(high, part_high, strict=True)),
    )


def _prism_past(prism: Prism, part: Block) -> Prism:
    """Return a prism whose ends are at a part's surfaces, going on beyond them."""
    axis = prism.along.value
    low = prism.low - _PAST if prism.low == part[0][axis] else prism.low
    high = prism.high + _PAST if prism.high == part[1][axis] else prism.high
    return prism._replace(low=low, high=high) if prism.low < prism.high else prism


# The library complains of solids that are still kept when the interpreter has gone.
atexit.register(let_go)


def joined(solids: list[Solid]) -> Solid:
    """Return the union of some solids."""
    if len(solids) == 1:
        return solids[0]
    return manifold3d.Manifold.batch_boolean(solids, manifold3d.OpType.Add)


def block_solid(block: Block) -> Solid:
    """Return a box as a solid; empty if it has no volume."""
    low, high = block
    size = (high[0] - low[0], high[1] - low[1], high[2] - low[2])
    if min(size) <= 0:
        return manifold3d.Manifold()
    return manifold3d.Manifold.cube(size).translate(low)


def prism_solid(prism: Prism, grown: float = 0.0) -> Solid:
    """Return a prism as a solid, its sides that much further out, mm; empty if it has no volume.

    Parameters
    ----------
    prism : Prism
        In the piece.
    grown : float
        mm.
    """
    if prism.high <= prism.low or len(prism.points) < 3:
        return manifold3d.Manifold()
    points = np.array(prism.points, dtype=np.float64)
    if _area(points) < 0:
        points = points[::-1]
    section = manifold3d.CrossSection([points])
    if grown:
        section = section.offset(grown, manifold3d.JoinType.Miter)
    solid = manifold3d.Manifold.extrude(section, prism.high - prism.low).translate((0.0, 0.0, prism.low))
    if not grown:
        # Sections are kept in steps of about 4e-9 mm; a film would stay wherever a prism ends in another surface.
        solid = solid.warp_batch(lambda corners: _at_nearest(corners, points))
    return turned(solid, prism.along.value)


def _at_nearest(corners: Points, points: Points) -> Points:
    """Return corners (n, 3) moved, along and across, to the nearest of some points (m, 2)."""
    apart = np.linalg.norm(corners[:, None, :2] - points[None], axis=2)
    return np.column_stack([points[np.argmin(apart, axis=1)], corners[:, 2]])


def hole_solid(hole: RoundHole) -> Solid:
    """Return a round hole, a cone or a slot as a solid."""
    radii = hole.diameter / 2, hole.to_diameter / 2
    solid = manifold3d.Manifold.cylinder(hole.high - hole.low, *radii, ROUND)
    if any(hole.travel):
        a, b = (each / 2 for each in hole.travel)
        solid = manifold3d.Manifold.batch_hull([solid.translate((-a, -b, 0.0)), solid.translate((a, b, 0.0))])
    return turned(solid.translate((*hole.centre, hole.low)), hole.along.value)


def turned(solid: Solid, axis: int) -> Solid:
    """Return what was made in two axes and along the third, in cyclic order, as it lies along an axis (0, 1 or 2).

    Parameters
    ----------
    solid : Solid
        Made in two axes and along the third.
    axis : int
        0, 1 or 2.
    """
    if axis == 2:
        return solid
    matrix = np.zeros((3, 4))
    for column, row in enumerate(((axis + 1) % 3, (axis + 2) % 3, axis)):
        matrix[row, column] = 1.0
    return solid.transform(matrix)


def _area(points: Points) -> float:
    x, y = points[:, 0], points[:, 1]
    return float(np.dot(x, np.roll(y, -1)) - np.dot(y, np.roll(x, -1))) / 2


# --- faces ----------------------------------------------------------------------------------------


class PlanarFace(NamedTuple):
    """What a solid has in one plane: its outward normal and its loops (outlines and holes), the longest first, mm."""

    normal: Floats
    loops: tuple[tuple[Floats, ...], ...]


@kept_by_value(2048)
def faces(made: Recipe) -> tuple[PlanarFace, ...]:
    """Return the flat faces of a part's solid, triangles in one plane put together."""
    x, y, z = made.block[0]
    return tuple(
        PlanarFace(face.normal, tuple(tuple((a + x, b + y, c + z) for a, b, c in loop) for loop in face.loops))
        for face in _faces_at_origin(at_origin(made))
    )


@kept_by_value(2048)
def _faces_at_origin(made: Recipe) -> tuple[PlanarFace, ...]:
    return flat_faces(build(made))


@kept_by_value(512)
def faces_below(made: Recipe, axis: Axis, level: float) -> tuple[tuple[PlanarFace, ...], tuple[PlanarFace, ...]]:
    """Cut a part's solid at a level: faces of what lies below it, and those made by the cut.

    Parameters
    ----------
    made : Recipe
        What is cut from what.
    axis : Axis
        It is cut across.
    level : float
        Along the axis, mm.
    """
    low, high = made.block[0][axis.value], made.block[1][axis.value]
    if high <= level:
        return faces(made), ()
    if low >= level:
        return (), ()
    normal = [0.0, 0.0, 0.0]
    normal[axis.value] = -1.0
    all_faces = flat_faces(build(made).trim_by_plane(normal, -level))
    cut = tuple(f for f in all_faces if f.normal[axis.value] > 0.999 and abs(f.loops[0][0][axis.value] - level) < 1e-6)
    return tuple(f for f in all_faces if f not in cut), cut


def flat_faces(solid: Solid) -> tuple[PlanarFace, ...]:
    """Return the flat faces of any solid."""
    if solid.is_empty():
        return ()
    points, triangles = mesh_of(solid)
    corners = points[triangles]
    normals = np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0])
    lengths = np.linalg.norm(normals, axis=1)
    good = lengths > 1e-9
    triangles, normals, lengths, corners = triangles[good], normals[good], lengths[good], corners[good]
    normals = normals / lengths[:, None]
    offsets = np.einsum("ij,ij->i", normals, corners[:, 0])
    groups: dict[tuple[float, ...], list[int]] = {}
    keys = np.round(np.column_stack([normals, offsets / 10]), 4) + 0.0
    for index, key in enumerate(map(tuple, keys.tolist())):
        groups.setdefault(key, []).append(index)
    listed = points.tolist()
    found = []
    for key, members in groups.items():
        loops = _loops(triangles[members].tolist())
        if len(loops) > 1:
            loops.sort(key=lambda loop: -_round([listed[i] for i in loop]))
        found.append(PlanarFace((key[0], key[1], key[2]), tuple(tuple((*listed[i],) for i in loop) for loop in loops)))
    return tuple(found)


def _round(corners: list[list[float]]) -> float:
    """Return the length of a closed line, mm."""
    return sum(math.dist(a, b) for a, b in zip(corners, (*corners[1:], corners[0]), strict=True))


#: What is thinner than these is left out of a mesh that rounding opens, one after the other, mm.
_THINNEST = (1e-5, 1e-4, 1e-3, 5e-3)


def mesh_of(solid: Solid) -> tuple[Points, NDArray[np.int64]]:
    """Return a solid's points (n, 3), mm, and triangles (m, 3), counter-clockwise from outside.

    It is closed also in the shorter numbers of a file: where rounding opens it, what is thinner than that is left out.
    """
    points, triangles = _rounded(solid)
    for thinner in _THINNEST:
        if _closed(triangles):
            break
        without = solid.simplify(thinner)
        # What is thin may hang on what is not: the wood stays what it is.
        if abs(without.volume() - solid.volume()) < thinner * solid.surface_area():
            points, triangles = _rounded(without)
    return points, triangles


def _closed(triangles: NDArray[np.int64]) -> bool:
    """Return whether every edge has one triangle on either side."""
    edges = np.concatenate([triangles[:, pair] for pair in ((0, 1), (1, 2), (2, 0))])
    ahead, counts = np.unique(edges, axis=0, return_counts=True)
    return bool((counts == 1).all()) and np.array_equal(ahead, np.unique(edges[:, ::-1], axis=0))


def _rounded(solid: Solid) -> tuple[Points, NDArray[np.int64]]:
    """Return points and triangles, corners that are one in single precision taken as one."""
    mesh = solid.to_mesh64()
    points, triangles = np.asarray(mesh.vert_properties[:, :3], np.float64), np.asarray(mesh.tri_verts, np.int64)
    # Corners that are one in a file's shorter numbers are one, and so are those apart by less than any number
    # near nought can be; a triangle between two of them is none.
    near = points.astype(np.float32).round(5)
    _, first, one = np.unique(near, axis=0, return_index=True, return_inverse=True)
    joined = one.reshape(-1)[triangles]
    whole = (joined != np.roll(joined, 1, axis=1)).all(axis=1)
    return points[first], joined[whole]


def _loops(triangles: list[list[int]]) -> list[list[int]]:
    """Chain the edges that only one triangle of a plane has into closed loops."""
    edges: set[tuple[int, int]] = set()
    for a, b, c in triangles:
        for edge in ((a, b), (b, c), (c, a)):
            back = (edge[1], edge[0])
            if back in edges:
                edges.remove(back)
            else:
                edges.add(edge)
    after: dict[int, list[int]] = {}
    for start, end in edges:
        after.setdefault(start, []).append(end)
    found = []
    while after:
        start = next(iter(after))
        loop, at = [start], after[start].pop()
        if not after[start]:
            del after[start]
        while at != start and at in after:
            loop.append(at)
            following = after[at].pop()
            if not after[at]:
                del after[at]
            at = following
        if len(loop) > 2:
            found.append(loop)
    return found
