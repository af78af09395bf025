"""Parts as solids: the box, less what its joints give to others, less its shapings.

Booleans are manifold3d's; nothing here is exact beyond floating point, and nothing that is
decided here is finer than a hundredth of a millimetre. Solids are kept by their inputs, so
only what changed is cut again.
"""

from __future__ import annotations

import atexit
import math
from collections.abc import Iterable, Iterator, Mapping
from fractions import Fraction
from functools import lru_cache
from typing import NamedTuple, TypeAlias

import manifold3d
import numpy as np
from numpy.typing import NDArray

from nullah.core.piece.overlap import Joint, Sharing, lines, tail_edges, tail_frame
from nullah.core.piece.part import Part
from nullah.core.piece.shaping import Prism, Shaping, prisms
from nullah.core.piece.space import Axis, Box

Solid: TypeAlias = manifold3d.Manifold
Floats = tuple[float, float, float]
#: A box as floats: (low corner, high corner), mm.
Block = tuple[Floats, Floats]
Points = NDArray[np.float64]


class Cut(NamedTuple):
    """What a joint takes from a part: blocks and prisms, except what lies in `keeps`."""

    blocks: tuple[Block, ...] = ()
    prisms: tuple[Prism, ...] = ()
    keeps: tuple[Block, ...] = ()
    kept_prisms: tuple[Prism, ...] = ()


class Recipe(NamedTuple):
    """All that makes a solid: its box, what joints take, and its shapings with the exact box they refer to."""

    block: Block
    cuts: tuple[Cut, ...]
    shapings: tuple[Shaping, ...]


def block_of(box: Box) -> Block:
    """Give a box in floats."""
    return (
        (float(box.low[0]), float(box.low[1]), float(box.low[2])),
        (float(box.high[0]), float(box.high[1]), float(box.high[2])),
    )


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
        cut = _cut(part, joint, parts[joint.first], parts[joint.second])
        if cut is not None:
            cuts.append(cut)
    return Recipe(block_of(part.box), tuple(cuts), part.shapings)


def _cut(part: Part, joint: Joint, first: Part, second: Part) -> Cut | None:
    is_first = part.id == joint.first
    match joint.sharing:
        case Sharing.BUTT:
            return None
        case Sharing.DOVETAIL:
            return _dovetail_cut(joint, first, second, is_first)
        case Sharing.MITRE:
            return _mitre_cut(first, second, is_first)
        case _:
            shared = lines(joint, first, second)
            if is_first:
                return Cut(tuple(block_of(box) for box in shared.first_loses))
            if shared.overlap is None or shared.second_keeps == (shared.overlap,):
                return None
            return Cut((block_of(shared.overlap),), keeps=tuple(block_of(box) for box in shared.second_keeps))


def _dovetail_cut(joint: Joint, tail: Part, pin: Part, is_tail: bool) -> Cut | None:
    frame = tail_frame(joint, tail, pin)
    if frame is None or joint.tails is None:
        return None
    overlap = frame[0]
    tails = tail_prisms(joint, tail, pin)
    block = block_of(overlap)
    # Where an edge is mitred, the tail board keeps its half of the corner and the pin board loses it.
    tails = (*tails, *_mitred_edges(joint.tails.mitres, overlap, frame[2], tail, pin))
    if is_tail:
        return Cut((block,), kept_prisms=tails)
    return Cut(prisms=tails)


def _mitred_edges(
    mitres: tuple[Fraction, Fraction], overlap: Box, across: Axis, tail: Part, pin: Part
) -> Iterator[Prism]:
    """Give the tail board's half of a corner along its edges that are mitred."""
    whole = _mitre_cut(tail, pin, is_first=False)
    low, high = float(overlap.low[across.value]), float(overlap.high[across.value])
    if whole is None or whole.prisms[0].along is not across:
        return
    for wide, span in ((mitres[0], (low, low + float(mitres[0]))), (mitres[1], (high - float(mitres[1]), high))):
        if wide > 0:
            yield whole.prisms[0]._replace(low=span[0], high=span[1])


def tail_prisms(joint: Joint, tail: Part, pin: Part) -> tuple[Prism, ...]:
    """Give the tails of a dovetail as prisms in the piece; none where they come to nothing."""
    frame = tail_frame(joint, tail, pin)
    spec = joint.tails
    if frame is None or spec is None:
        return ()
    overlap, along, across, through, high = frame
    depth = overlap.size(along)
    lean = depth / spec.slope.run
    end, base = (
        (overlap.high[along.value], overlap.low[along.value])
        if high
        else (overlap.low[along.value], overlap.high[along.value])
    )
    edge = overlap.low[across.value]
    found = []
    u = Axis((through.value + 1) % 3)
    for low, top in tail_edges(overlap.size(across), spec.number, spec.half_pin, spec.pin, spec.widths):
        if top - low <= 0 or top - low - 2 * lean <= 0:
            continue
        corners = ((end, edge + low), (end, edge + top), (base, edge + top - lean), (base, edge + low + lean))
        flat = tuple((float(a), float(c)) if along is u else (float(c), float(a)) for a, c in corners)
        found.append(Prism(through, flat, float(overlap.low[through.value]), float(overlap.high[through.value])))
    return tuple(found)


def _mitre_cut(first: Part, second: Part, is_first: bool) -> Cut | None:
    """Split the overlap along the diagonal from the corner next to both bodies to the one away from both."""
    overlap = first.box.overlap(second.box)
    if overlap is None or first.grain is second.grain:
        return None
    a, b = first.grain, second.grain
    through = next(axis for axis in Axis if axis not in (a, b))

    def near_far(part: Part, axis: Axis) -> tuple[float, float]:
        low, high = float(overlap.low[axis.value]), float(overlap.high[axis.value])
        below = float(overlap.low[axis.value] - part.box.low[axis.value])
        above = float(part.box.high[axis.value] - overlap.high[axis.value])
        return (low, high) if below >= above else (high, low)

    near_a, far_a = near_far(first, a)
    near_b, far_b = near_far(second, b)
    u = Axis((through.value + 1) % 3)

    def flat(at_a: float, at_b: float) -> tuple[float, float]:
        return (at_a, at_b) if a is u else (at_b, at_a)

    inner, outer = flat(near_a, near_b), flat(far_a, far_b)
    # The first loses the half next to the second's body, and the other way round.
    other = flat(far_a, near_b) if is_first else flat(near_a, far_b)
    low, high = float(overlap.low[through.value]), float(overlap.high[through.value])
    return Cut(prisms=(Prism(through, (inner, outer, other), low, high),))


# --- building -------------------------------------------------------------------------------------


@lru_cache(maxsize=2048)
def build(made: Recipe) -> Solid:
    """Cut a part's solid."""
    solid = block_solid(made.block)
    for cut in made.cuts:
        taken = [block_solid(block) for block in cut.blocks] + [prism_solid(prism) for prism in cut.prisms]
        kept = [block_solid(block) for block in cut.keeps] + [prism_solid(prism) for prism in cut.kept_prisms]
        if not taken:
            continue
        away = joined(taken)
        if kept:
            away = away - joined(kept)
        solid = solid - away
    exact = Box(*made.block)  # type: ignore[arg-type]
    for shaping in made.shapings:
        for prism in prisms(shaping, exact):
            solid = solid - prism_solid(prism)
    return solid


# The library complains of solids that are still kept when the interpreter has gone.
atexit.register(build.cache_clear)


def joined(solids: list[Solid]) -> Solid:
    """Give the union of some solids."""
    if len(solids) == 1:
        return solids[0]
    return manifold3d.Manifold.batch_boolean(solids, manifold3d.OpType.Add)


def block_solid(block: Block) -> Solid:
    """Give a box as a solid; empty if it has no volume."""
    low, high = block
    size = (high[0] - low[0], high[1] - low[1], high[2] - low[2])
    if min(size) <= 0:
        return manifold3d.Manifold()
    return manifold3d.Manifold.cube(size).translate(low)


def prism_solid(prism: Prism) -> Solid:
    """Give a prism as a solid; empty if it has no volume."""
    if prism.high <= prism.low or len(prism.points) < 3:
        return manifold3d.Manifold()
    points = np.array(prism.points, dtype=np.float64)
    if _area(points) < 0:
        points = points[::-1]
    section = manifold3d.CrossSection([points])
    solid = manifold3d.Manifold.extrude(section, prism.high - prism.low).translate((0.0, 0.0, prism.low))
    match prism.along:
        case Axis.Z:
            return solid
        case Axis.X:  # drawn in Y, Z; extruded along X
            matrix = [[0, 0, 1, 0], [1, 0, 0, 0], [0, 1, 0, 0]]
        case _:  # drawn in Z, X; extruded along Y
            matrix = [[0, 1, 0, 0], [0, 0, 1, 0], [1, 0, 0, 0]]
    return solid.transform(np.array(matrix, dtype=np.float64))


def _area(points: Points) -> float:
    x, y = points[:, 0], points[:, 1]
    return float(np.dot(x, np.roll(y, -1)) - np.dot(y, np.roll(x, -1))) / 2


# --- faces ----------------------------------------------------------------------------------------


class Face(NamedTuple):
    """What a solid has in one plane: its outward normal and its loops (outlines and holes), the longest first, mm."""

    normal: Floats
    loops: tuple[tuple[Floats, ...], ...]


@lru_cache(maxsize=2048)
def faces(made: Recipe) -> tuple[Face, ...]:
    """Give the flat faces of a part's solid, triangles in one plane put together."""
    return flat_faces(build(made))


@lru_cache(maxsize=512)
def faces_below(made: Recipe, axis: Axis, level: float) -> tuple[tuple[Face, ...], tuple[Face, ...]]:
    """Cut a part's solid at a level: faces of what lies below it, and those made by the cut."""
    low, high = made.block[0][axis.value], made.block[1][axis.value]
    if high <= level:
        return faces(made), ()
    if low >= level:
        return (), ()
    normal = [0.0, 0.0, 0.0]
    normal[axis.value] = -1.0
    all_faces = flat_faces(build(made).trim_by_plane(normal, -level))
    cut = tuple(
        f for f in all_faces
        if f.normal[axis.value] > 0.999 and abs(f.loops[0][0][axis.value] - level) < 1e-6
    )  # fmt: skip
    return tuple(f for f in all_faces if f not in cut), cut


def flat_faces(solid: Solid) -> tuple[Face, ...]:
    """Give the flat faces of any solid."""
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
        found.append(Face((key[0], key[1], key[2]), tuple(tuple((*listed[i],) for i in loop) for loop in loops)))
    return tuple(found)


def _round(corners: list[list[float]]) -> float:
    """Give the length of a closed line, mm."""
    return sum(math.dist(a, b) for a, b in zip(corners, (*corners[1:], corners[0]), strict=True))


def mesh_of(solid: Solid) -> tuple[Points, NDArray[np.int64]]:
    """Give a solid's points (n, 3), mm, and triangles (m, 3), counter-clockwise from outside."""
    mesh = solid.to_mesh64()
    return np.asarray(mesh.vert_properties[:, :3], dtype=np.float64), np.asarray(mesh.tri_verts, dtype=np.int64)


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
