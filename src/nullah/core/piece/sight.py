"""The piece as it is seen square to its sides: what is in front, what is hidden, and the cut across.

Faces are painted from the farthest to the nearest, which is exact for what is square to the
view; edges that something nearer covers come back dashed. Until the solids are cut, the
boxes stand for them.
"""

from __future__ import annotations

from bisect import bisect_right
from collections import Counter
from collections.abc import Callable, Iterable, Iterator, Mapping
from itertools import pairwise
from typing import TYPE_CHECKING

from nullah.core.catalogue import N_
from nullah.core.drawing import Element, Fill, Path, Point, Role, grain_lines, line
from nullah.core.identity import SameAgain, kept_by_identity, kept_by_value, runs
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.form import View
from nullah.core.piece.part import Part
from nullah.core.piece.space import Axis, Box, Corner, around
from nullah.core.refs import PartRef

if TYPE_CHECKING:  # solids bring numpy and the booleans: only where they have been cut already
    from nullah.core.piece.solids import PlanarFace, Recipe

# A face turned further from the eye than this is seen edge-on.
_EDGE_ON = 0.02
# A face smaller than this, mm², is not asked what it covers.
_COVERS = 400.0
_Span = tuple[float, float]
_PLANE_AXES = {
    View.ABOVE: (Axis.X, Axis.Y, Axis.Z),
    View.FRONT: (Axis.X, Axis.Z, Axis.Y),
    View.SECTION: (Axis.Y, Axis.Z, Axis.X),
}


class ViewPlane(NamedTuple):
    """How a view looks at a piece that fills `room`: to the right, up, and towards the eye.

    `cut` is the level along the axis of sight where the piece is cut across, or None; `at` where its upper left
    corner stands on the drawing, mm.
    """

    view: View
    room: Box
    cut: float | None = None
    at: Point = (0.0, 0.0)

    @property
    def axes(self) -> tuple[Axis, Axis, Axis]:
        """The axes to the right, up the drawing, and of sight."""
        return _PLANE_AXES[self.view]

    @property
    def towards(self) -> int:
        """1 if what lies higher along the axis of sight is nearer, else -1."""
        return -1 if self.view is View.FRONT else 1

    def flat(self, point: Iterable[float]) -> Point:
        """Return a place of the piece on the drawing, mm: the low left corner of the room at `at` and its height.

        Parameters
        ----------
        point : Iterable[float]
            Shape (3,), of the piece, mm.
        """
        place = tuple(point)
        right, up, _ = self.axes
        return (
            self.at[0] + float(place[right.value]) - float(self.room.low[right.value]),
            self.at[1] + float(self.room.high[up.value]) - float(place[up.value]),
        )

    def place(self, point: Point) -> Point:
        """Return where a point of the drawing lies in the piece: along the axis to the right, and up, mm.

        Parameters
        ----------
        point : Point
            Of the drawing, mm.
        """
        right, up, _ = self.axes
        return (
            float(self.room.low[right.value]) + point[0] - self.at[0],
            float(self.room.high[up.value]) - point[1] + self.at[1],
        )

    @property
    def title(self) -> str:
        """What is written under the view."""
        return N_("From the right") if self.view is View.SECTION and self.cut is None else self.view.value

    def depth(self, point: Iterable[float]) -> float:
        """Return how near a place is: the larger, the nearer.

        Parameters
        ----------
        point : Iterable[float]
            Shape (3,), of the piece, mm.
        """
        return self.towards * float(tuple(point)[self.axes[2].value])

    @property
    def size(self) -> Point:
        """Width and height of the drawing, mm."""
        right, up, _ = self.axes
        return float(self.room.size(right)), float(self.room.size(up))


class Seen(NamedTuple):
    """A face on the drawing: whose it is, its loops, how near, whether it shows end grain, which way that runs."""

    part: Part
    loops: tuple[tuple[Point, ...], ...]
    depth: float
    end_grain: bool
    outlined: bool
    along_x: bool


def plane_of(parts: tuple[Part, ...], view: View, cut_across: bool = True) -> ViewPlane:
    """Return the plane of a view of some parts; the section is cut in the middle of their length, if it is."""
    room = _room_of(parts)
    cut = None
    if view is View.SECTION and cut_across:
        middle = float(room.low[0] + room.high[0]) / 2
        # Not along a seam: a board that ends just there would be neither cut nor whole.
        ends = [float(end) for part in parts for end in (part.box.low[0], part.box.high[0])]
        cut = middle + 0.37 if any(abs(end - middle) < 0.2 for end in ends) else middle
    return _PLANES(view, ViewPlane(view, room, cut))


def placed(plane: ViewPlane, at: Point) -> ViewPlane:
    """Return a plane with its upper left corner somewhere on a drawing.

    Parameters
    ----------
    plane : ViewPlane
    at : Point
        mm.
    """
    return _PLANES((plane.view, "placed"), plane._replace(at=at))


@kept_by_identity(8)
def _room_of(parts: tuple[Part, ...]) -> Box:
    return around(tuple(_room_of_run(*run) for run in runs(parts)))


@kept_by_identity(1024)
def _room_of_run(*run: Part) -> Box:
    return around(tuple(part.box for part in run))


#: What is seen on a plane is kept by the very plane.
_PLANES: SameAgain[ViewPlane] = SameAgain(16)


#: The faces that were seen last: what they cover is kept by all of them.
_FACES: SameAgain[tuple[Seen, ...]] = SameAgain(16)


def seen(plane: ViewPlane, parts: Iterable[Part], recipes: Mapping[str, Recipe] | None) -> tuple[Seen, ...]:
    """Return the faces seen, the farthest first."""
    found: list[Seen] = []
    for run in runs(tuple(parts)):
        if recipes is None:
            found += _faces_of_boxes(plane, *run)
            continue
        for part in run:
            known = part.id in recipes
            found += _faces_of_solid(plane, part, recipes[part.id]) if known else _face_of_box(plane, part)
    found.sort(key=lambda face: face.depth)
    return _FACES(plane.view, _uncovered(found))


def _uncovered(faces: list[Seen]) -> tuple[Seen, ...]:
    """Leave out faces that lie wholly behind one nearer rectangle: in a full case that is most of them."""
    kept: list[Seen] = []
    over: list[tuple[float, float, float, float]] = []
    for face in reversed(faces):
        left, top, right, bottom = box = _bounds(face)
        for a, b, c, d in over:
            if a <= left and right <= c and b <= top and bottom <= d:
                break
        else:
            kept.append(face)
            if (right - left) * (bottom - top) > _COVERS and _rectangle(face) is not None:
                over.append(box)
    kept.reverse()
    return tuple(kept)


@kept_by_identity(8192)
def _rectangle(face: Seen) -> tuple[float, float, float, float] | None:
    """Return the box of a face that is an upright rectangle; None of any other."""
    left, top, right, bottom = box = _bounds(face)
    loop = face.loops[0]
    upright = (
        len(face.loops) == 1 and len(loop) == 4 and all(x in (left, right) and y in (top, bottom) for x, y in loop)
    )
    return box if upright and len(loop) == 4 and len(face.loops) == 1 else None


@kept_by_identity(1024)
def _faces_of_boxes(plane: ViewPlane, *run: Part) -> tuple[Seen, ...]:
    return tuple(face for part in run for face in _face_of_box(plane, part))


@kept_by_identity(4096)
def _face_of_box(plane: ViewPlane, part: Part) -> tuple[Seen, ...]:
    """Return the side of a part's box that is nearest; nothing where it lies before the cut."""
    right, up, sight = plane.axes
    box = part.box
    near = float(box.high[sight.value] if plane.towards > 0 else box.low[sight.value])
    if plane.cut is not None:
        if float(box.low[sight.value]) >= plane.cut:
            return ()
        near = min(near, plane.cut)
    corners = []
    for at_right, at_up in ((0, 0), (1, 0), (1, 1), (0, 1)):
        corner = [0.0, 0.0, 0.0]
        corner[right.value] = float((box.low, box.high)[at_right][right.value])
        corner[up.value] = float((box.low, box.high)[at_up][up.value])
        corners.append(plane.flat(corner))
    return (Seen(part, (tuple(corners),), plane.towards * near, part.grain is sight, True, part.grain is right),)


@kept_by_value(1024)
def _faces_of_solid(plane: ViewPlane, part: Part, recipe: Recipe) -> tuple[Seen, ...]:
    from nullah.core.piece.solids import faces, faces_below

    sight = plane.axes[2]
    if plane.cut is None:
        ordinary = faces(recipe)
        cut: tuple[PlanarFace, ...] = ()
    else:
        ordinary, cut = faces_below(recipe, sight, plane.cut)
    turned = ((face, face.normal[sight.value] * plane.towards) for face in (*ordinary, *cut))
    return tuple(_seen_face(plane, part, face, towards) for face, towards in turned if towards > _EDGE_ON)


def _seen_face(plane: ViewPlane, part: Part, face: PlanarFace, towards: float) -> Seen:
    loops = tuple(tuple(plane.flat(point) for point in loop) for loop in face.loops)
    depths = [plane.depth(point) for loop in face.loops for point in loop]
    end_grain = abs(face.normal[part.grain.value]) > 0.7
    # The facets of a curve are painted, but their seams are no edges.
    curved = max(abs(c) for c in face.normal) < 0.999 and len(face.loops[0]) <= 4 and _narrow(loops[0])
    return Seen(
        part, loops, sum(depths) / len(depths), end_grain, not curved or towards > 0.999, part.grain is plane.axes[0]
    )


def _narrow(loop: tuple[Point, ...]) -> bool:
    xs, ys = [p[0] for p in loop], [p[1] for p in loop]
    return min(max(xs) - min(xs), max(ys) - min(ys)) < 6


def painted(faces: Iterable[Seen], species_of: Callable[[Part], str]) -> Iterator[Element]:
    """Paint faces in their order, each with its grain and its outline."""
    faces = list(faces)
    rims = _rims(faces)
    for face in faces:
        yield from _wood(face, species_of(face.part))
        if not face.outlined:
            for start, end in _edges(face):
                if rims[_edge_key(face, start, end)] == 1:
                    yield line(start, end, Role.OUTLINE, ref=PartRef(face.part.id))


@kept_by_identity(8192)
def _wood(face: Seen, species: str) -> tuple[Path, ...]:
    """Return a face of wood with its grain, and with its outline where it has one."""
    ref = PartRef(face.part.id)
    fill = Fill.END_GRAIN if face.end_grain else Fill.WOOD
    area = Path(_one_path(face.loops), Role.BARE, closed=True, fill=fill, species=species, ref=ref)
    grain = () if face.end_grain else tuple(_grain_lines(face))
    loops = face.loops if face.outlined else ()
    return area, *grain, *(Path(loop, Role.OUTLINE, closed=True, ref=ref) for loop in loops)


def _rims(faces: list[Seen]) -> Counter[tuple[str, frozenset[Point]]]:
    """Count how many of a part's faces have each edge: where a curve turns away from the eye, only one has."""
    curved = {face.part.id for face in faces if not face.outlined}
    found: Counter[tuple[str, frozenset[Point]]] = Counter()
    for face in faces:
        if face.part.id in curved:
            found.update(_edge_key(face, start, end) for start, end in _edges(face))
    return found


def _edges(face: Seen) -> Iterator[tuple[Point, Point]]:
    for loop in face.loops:
        yield from zip(loop, (*loop[1:], loop[0]), strict=True)


def _edge_key(face: Seen, start: Point, end: Point) -> tuple[str, frozenset[Point]]:
    ends = ((round(x, 3), round(y, 3)) for x, y in (start, end))
    return face.part.id, frozenset(ends)


def _one_path(loops: tuple[tuple[Point, ...], ...]) -> tuple[Point, ...]:
    """Put outline and holes into one line, coming back to the first point: filled even-odd, holes stay open."""
    if len(loops) == 1:
        return loops[0]
    points: list[Point] = []
    start = loops[0][0]
    for loop in loops:
        points += [*loop, loop[0], start]
    return tuple(points)


def _grain_lines(face: Seen) -> Iterator[Path]:
    loop = face.loops[0]
    xs, ys = [p[0] for p in loop], [p[1] for p in loop]
    x, y, wide, high = min(xs), min(ys), max(xs) - min(xs), max(ys) - min(ys)
    if min(wide, high) < 9:
        return
    plain = len(face.loops) == 1 and len(loop) == 4
    for path in grain_lines(x, y, wide, high, face.part.name, along_x=face.along_x, ref=PartRef(face.part.id)):
        if plain:
            yield path
            continue
        run: list[Point] = []
        for point in (*path.points, None):
            if point is not None and inside(face.loops, point):
                run.append(point)
                continue
            if len(run) > 1:
                yield path._replace(points=tuple(run))
            run = []


# --- hidden lines ---------------------------------------------------------------------------------


def hidden(plane: ViewPlane, parts: Iterable[Part], faces: tuple[Seen, ...]) -> Iterator[Element]:
    """Give, dashed, the outlines of parts where something nearer covers them; faces as `seen` gives them."""
    for run in runs(tuple(parts)):
        yield from _hidden_of_run(plane, faces, *run)


@kept_by_identity(1024)
def _hidden_of_run(plane: ViewPlane, faces: tuple[Seen, ...], *run: Part) -> tuple[Path, ...]:
    return tuple(path for part in run for own in _face_of_box(plane, part) for path in _hidden_by(own, faces))


@kept_by_identity(4096)
def _hidden_by(own: Seen, faces: tuple[Seen, ...]) -> tuple[Path, ...]:
    """Return, dashed, the outline of a face where any nearer one of all that are seen covers it."""
    left, top, right, bottom = _bounds(own)
    # Only what lies over the part can cover an edge of it: that is little, and soon told.
    first = bisect_right(faces, own.depth + 0.01, key=_depth)
    nearer = [
        face
        for face, (a, b, c, d) in _with_bounds(faces)[first:]
        if a < right and left < c and b < bottom and top < d and face.part is not own.part
    ]
    return _hidden_behind(own, *nearer)


@kept_by_identity(8)
def _with_bounds(faces: tuple[Seen, ...]) -> tuple[tuple[Seen, tuple[float, float, float, float]], ...]:
    return tuple((face, _bounds(face)) for face in faces)


def _depth(face: Seen) -> float:
    return face.depth


@kept_by_identity(4096)
def _hidden_behind(own: Seen, *nearer: Seen) -> tuple[Path, ...]:
    """Return, dashed, the outline of a face where one of those nearer covers it."""
    boxed = [(face, _bounds(face)) for face in nearer]
    found: list[Path] = []
    loop = own.loops[0]
    for start, end in zip(loop, (*loop[1:], loop[0]), strict=True):
        x0, x1 = min(start[0], end[0]), max(start[0], end[0])
        y0, y1 = min(start[1], end[1]), max(start[1], end[1])
        over = [f for f, b in boxed if b[0] <= x1 and x0 <= b[2] and b[1] <= y1 and y0 <= b[3]]
        for low, high in _covered(start, end, over):
            found.append(line(_along(start, end, low), _along(start, end, high), Role.HIDDEN))
    return tuple(found)


@kept_by_identity(8192)
def _bounds(face: Seen) -> tuple[float, float, float, float]:
    """Return the box round all of a face: what lies in one plane can be several patches."""
    xs = [p[0] for loop in face.loops for p in loop]
    ys = [p[1] for loop in face.loops for p in loop]
    return min(xs), min(ys), max(xs), max(ys)


def _along(start: Point, end: Point, share: float) -> Point:
    return start[0] + share * (end[0] - start[0]), start[1] + share * (end[1] - start[1])


def _covered(start: Point, end: Point, faces: Iterable[Seen]) -> list[_Span]:
    """Return the stretches of a line that lie inside any of the faces, as shares of its length."""
    spans: list[_Span] = []
    for face in faces:
        box = _rectangle(face)
        spans += spans_inside(start, end, face.loops) if box is None else _through_rectangle(start, end, box)
    spans.sort()
    joined: list[_Span] = []
    for low, high in spans:
        if joined and low <= joined[-1][1] + 1e-6:
            joined[-1] = (joined[-1][0], max(joined[-1][1], high))
        else:
            joined.append((low, high))
    length = abs(end[0] - start[0]) + abs(end[1] - start[1])
    return [(low, high) for low, high in joined if (high - low) * length > 0.5]


def spans_inside(start: Point, end: Point, loops: tuple[tuple[Point, ...], ...]) -> list[_Span]:
    """Return the stretches of a line strictly inside loops (even-odd), as shares of its length.

    Parameters
    ----------
    start : Point
        mm.
    end : Point
        mm.
    loops : tuple[tuple[Point, ...], ...]
        Closed, their points in mm.

    Examples
    --------
    >>> square = ((0.0, 0.0), (4.0, 0.0), (4.0, 4.0), (0.0, 4.0))
    >>> spans_inside((-2.0, 2.0), (6.0, 2.0), (square,))
    [(0.25, 0.75)]
    """
    (x0, y0), (x1, y1) = start, end
    xs, ys = [p[0] for loop in loops for p in loop], [p[1] for loop in loops for p in loop]
    left, right, top, bottom = min(xs), max(xs), min(ys), max(ys)
    if max(x0, x1) < left or min(x0, x1) > right or max(y0, y1) < top or min(y0, y1) > bottom:
        return []
    dx, dy = x1 - x0, y1 - y0
    cuts = [0.0, 1.0]
    for loop in loops:
        for (ax, ay), (bx, by) in zip(loop, (*loop[1:], loop[0]), strict=True):
            cross = dx * (by - ay) - dy * (bx - ax)
            if abs(cross) < 1e-12:
                continue
            t = ((ax - x0) * (by - ay) - (ay - y0) * (bx - ax)) / cross
            s = ((ax - x0) * dy - (ay - y0) * dx) / cross
            if -1e-9 <= s <= 1 + 1e-9 and 0 < t < 1:
                cuts.append(t)
    cuts.sort()
    found = []
    for low, high in pairwise(cuts):
        if high - low > 1e-9 and inside(loops, _along(start, end, (low + high) / 2), 1e-7):
            found.append((low, high))
    return found


def _through_rectangle(start: Point, end: Point, box: tuple[float, float, float, float]) -> list[_Span]:
    """Return the stretch of a line strictly inside an upright rectangle."""
    low, high = 0.0, 1.0
    for at, to, near, far in ((start[0], end[0], box[0], box[2]), (start[1], end[1], box[1], box[3])):
        by = to - at
        if abs(by) < 1e-12:
            if at <= near + 1e-7 or at >= far - 1e-7:
                return []
            continue
        one, two = sorted(((near - at) / by, (far - at) / by))
        low, high = max(low, one), min(high, two)
    return [(low, high)] if high - low > 1e-9 else []


def inside(loops: tuple[tuple[Point, ...], ...], point: Point, edge: float = 0.0) -> bool:
    """Return whether a point lies inside loops (even-odd); closer to an edge than `edge` is outside.

    Parameters
    ----------
    loops : tuple[tuple[Point, ...], ...]
        Outlines and holes, mm.
    point : Point
        mm.
    edge : float, default 0.0
        mm.
    """
    x, y = point
    odd = False
    for loop in loops:
        for (ax, ay), (bx, by) in zip(loop, (*loop[1:], loop[0]), strict=True):
            if (ay > y) != (by > y) and x < (bx - ax) * (y - ay) / (by - ay) + ax:
                odd = not odd
    if odd and edge:
        for loop in loops:
            for (ax, ay), (bx, by) in zip(loop, (*loop[1:], loop[0]), strict=True):
                if min(ax, bx) - edge > x or max(ax, bx) + edge < x or min(ay, by) - edge > y or max(ay, by) + edge < y:
                    continue
                if _near(point, (ax, ay), (bx, by), edge):
                    return False
    return odd


def _near(point: Point, start: Point, end: Point, reach: float) -> bool:
    dx, dy = end[0] - start[0], end[1] - start[1]
    length = dx * dx + dy * dy
    if length == 0:
        return False
    share = min(1.0, max(0.0, ((point[0] - start[0]) * dx + (point[1] - start[1]) * dy) / length))
    px, py = start[0] + share * dx - point[0], start[1] + share * dy - point[1]
    return px * px + py * py < reach * reach


def flat_box(plane: ViewPlane, box: Box) -> tuple[Point, Point]:
    """Return the upper left and lower right corner of a box on a drawing."""
    corners: list[Corner] = [box.low, box.high]
    points = [plane.flat(float(c) for c in corner) for corner in corners]
    return (
        (min(p[0] for p in points), min(p[1] for p in points)),
        (max(p[0] for p in points), max(p[1] for p in points)),
    )
