"""Edges by plane: straight and square, then chamfered, rounded, moulded and bevelled to guide lines.

What is drawn first is what the plane stops at: every shape is a row of flats, each with the
lines between which it is planed.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from nullah.core.milling.edge_facts import (
    BevelTooWide,
    ChamferToLines,
    CornersOff,
    CutRabbet,
    EaseLip,
    EdgeError,
    EdgeStep,
    EdgeTooThick,
    EdgeWork,
    EdgeWrong,
    FallTooDeep,
    GaugeBevel,
    GuideLine,
    RoundTooWide,
    ThumbnailTooDeep,
)

# --- straight and square --------------------------------------------------------------------------


@dataclass(frozen=True, slots=True)
class Squaring:
    """Strokes that bring an edge square: partial passes, each so wide (mm from the high side), then full ones."""

    partial: tuple[float, ...]
    full: int


def square_edge(thickness: float, error: float, shaving: float) -> Squaring:
    """Plan how to square an edge.

    Parameters
    ----------
    thickness : float
        Of the edge, mm.
    error : float
        Light under the square at the low side, mm.
    shaving : float
        Of the plane, mm.

    Notes
    -----
    The plane hangs over the low side, so that only the high side is cut: pass k of n = error ÷ shaving
    reaches (k / n) of the thickness from the high side. Then one over the whole.

    Examples
    --------
    >>> square_edge(40, 0.8, 0.2)
    Squaring(partial=(10.0, 20.0, 30.0, 40.0), full=1)
    """
    if thickness <= 0 or shaving <= 0:
        raise EdgeError(EdgeWrong.NO_EDGE)
    if abs(error) > thickness:
        raise EdgeError(EdgeWrong.IS_A_BEVEL)
    number = math.ceil(abs(error) / shaving - 1e-9)
    return Squaring(tuple(thickness * (k + 1) / number for k in range(number)), 1)


@dataclass(frozen=True, slots=True)
class Straightening:
    """Stopped strokes that take a hump off an edge: where each starts and ends, mm; then full ones."""

    stopped: tuple[tuple[float, float], ...]
    full: int


def straighten_edge(length: float, hump: float, shaving: float, hollow: float = 0.0) -> Straightening:
    """Plan how to straighten an edge that stands `hump` mm high in the middle (less than nothing: hollow there).

    Parameters
    ----------
    length : float
        Of the edge, mm.
    hump : float
        How high its middle stands, mm; less than nothing where it is hollow.
    shaving : float
        Of the plane, mm.
    hollow : float, default 0.0
        What is to be left under the middle, mm.

    Notes
    -----
    The edge is taken as a parabola. Stroke j of n = hump ÷ shaving goes over what stands more than
    n - j shavings above the line, so the shortest comes first and every place is passed as often as
    it needs; through strokes would keep the hump. A hollow edge is planed at both ends (each stroke
    there and mirrored) until they meet. `hollow` is what to leave for a sprung joint, mm.

    Examples
    --------
    >>> straighten_edge(600, 0.3, 0.1).stopped[0]
    (126.8, 473.2)
    """
    if length <= 0 or shaving <= 0:
        raise EdgeError(EdgeWrong.NO_LENGTH)
    height = hump + hollow
    number = math.ceil(abs(height) / shaving - 1e-9)
    found = []
    for stroke in range(1, number + 1):
        reach = length / 2 * math.sqrt((number - stroke) * shaving / abs(height))
        if height > 0:
            half = length / 2 * math.sqrt(1 - (number - stroke) * shaving / height)
            found.append((round(length / 2 - half, 1), round(length / 2 + half, 1)))
        else:
            found.append((0.0, round(length / 2 - reach, 1)))
    return Straightening(tuple(found), 1)


# --- shapes ---------------------------------------------------------------------------------------


@dataclass(frozen=True, slots=True)
class Flat:
    """One flat of a shaped edge: planed between two lines.

    `on_face` is how far from the corner its line stands on the face, `down_edge` on the edge, mm, where
    it reaches them; `depth` what stands above the flat in its middle before it is planed, mm; `degrees` its
    angle to the face; `corners` its two ends in section, (in over the face, down the edge).
    """

    on_face: float | None
    down_edge: float | None
    depth: float
    degrees: float
    corners: tuple[tuple[float, float], tuple[float, float]]


@dataclass(frozen=True, slots=True)
class ShapedEdge:
    """A shaped edge: the rounds of flats in the order in which they are planed, its steps, and its guide lines, mm."""

    rounds: tuple[tuple[Flat, ...], ...]
    steps: tuple[EdgeStep, ...]
    gauge: tuple[tuple[GuideLine, float], ...]


def chamfer(run: float, fall: float) -> ShapedEdge:
    """Plan a chamfer `run` mm over the face and `fall` mm down the edge.

    Parameters
    ----------
    run : float
        Over the face, mm.
    fall : float
        Down the edge, mm.
    """
    if run <= 0 or fall <= 0:
        raise EdgeError(EdgeWrong.NO_CHAMFER)
    flat = Flat(
        run, fall, run * fall / math.hypot(run, fall), math.degrees(math.atan2(fall, run)), ((run, 0.0), (0.0, fall))
    )
    steps = (EdgeWork.PENCIL, EdgeWork.ENDS_FIRST, EdgeWork.TO_BOTH_LINES)
    return ShapedEdge(((flat,),), steps, ((GuideLine.ON_FACE, run), (GuideLine.DOWN_EDGE, fall)))


def round_over(radius: float, within: float = 0.1) -> ShapedEdge:
    """Plan a quarter round of `radius` mm: a chamfer, then the corners it leaves, again and again.

    Parameters
    ----------
    radius : float
        Of the quarter round, mm.
    within : float, default 0.1
        How far the last corners may stand proud, mm.

    Notes
    -----
    Flats touch the circle. After n of them the corners stand r·(1/cos(45°/(n + 1)) − 1) outside it;
    every round planes the corners off once more, until they are less than `within` mm. The first
    flat's lines lie r·(2 − √2) from the corner (exact).

    Examples
    --------
    >>> edge = round_over(10)
    >>> [len(flats) for flats in edge.rounds], round(edge.gauge[0][1], 2)
    ([1, 2, 4], 5.86)
    """
    if radius <= 0:
        raise EdgeError(EdgeWrong.NO_ROUND)
    rounds = [_flats(radius, 1)]
    total = 1
    while _stands_out(radius, total) > within and total < 15:
        total = 2 * total + 1
        rounds.append(_flats(radius, total))
    line = radius * (2 - math.sqrt(2))
    steps: tuple[EdgeStep, ...] = (
        ChamferToLines(line),
        *(CornersOff(len(flats)) for flats in rounds[1:]),
        EdgeWork.ROLL_OVER,
        EdgeWork.ENDS_FIRST,
    )
    return ShapedEdge(tuple(rounds), steps, ((GuideLine.FROM_CORNER, line),))


def _stands_out(radius: float, total: int) -> float:
    # The face and the edge are flats too: neighbours turn by 90° / (total + 1).
    return radius * (1 / math.cos(math.radians(45 / (total + 1))) - 1)


def _flats(radius: float, total: int) -> tuple[Flat, ...]:
    """Return the flats that are new when there are `total` between face and edge: every other one."""
    turn = math.radians(90 / (total + 1))
    reach = radius / math.cos(turn / 2)
    line = radius * (1 - math.tan(turn / 2))
    found = []
    for index in range(1, total + 1, 2):
        # The circle's middle lies a radius in from both sides; turns count from the face.
        ends = (turn * (index - 0.5), turn * (index + 0.5))
        corners = tuple((radius - reach * math.sin(t), radius - reach * math.cos(t)) for t in ends)
        found.append(
            Flat(
                line if index == 1 else None,
                line if index == total else None,
                radius / math.cos(turn) - radius,
                math.degrees(turn * index),
                (corners[0], corners[1]),
            )
        )
    return tuple(found)


def thumbnail(width: float, shoulder: float, radius: float, thickness: float) -> ShapedEdge:
    """Plan a thumbnail: a shallow rabbet `width` mm in and `shoulder` mm deep, then its corner rounded.

    `radius` of the round below the shoulder, `thickness` of the board, mm.

    Parameters
    ----------
    width : float
        Of the rabbet, in from the edge, mm.
    shoulder : float
        Its depth, mm.
    radius : float
        Of the rounded corner, mm.
    thickness : float
        Of the board, mm.
    """
    if min(width, shoulder, radius) <= 0:
        raise EdgeError(EdgeWrong.NO_THUMBNAIL)
    if radius > width:
        raise EdgeError(RoundTooWide(radius, width))
    if shoulder + radius > thickness:
        raise EdgeError(ThumbnailTooDeep(shoulder + radius, thickness))
    moved = tuple(
        tuple(
            Flat(
                flat.on_face,
                None if flat.down_edge is None else flat.down_edge + shoulder,
                flat.depth,
                flat.degrees,
                (
                    (flat.corners[0][0], flat.corners[0][1] + shoulder),
                    (flat.corners[1][0], flat.corners[1][1] + shoulder),
                ),
            )
            for flat in flats
        )
        for flats in round_over(radius).rounds
    )
    steps = (CutRabbet(width, shoulder), EdgeWork.PLANE_RABBET, *round_over(radius).steps[:-1])
    gauge = (
        (GuideLine.RABBET_WIDE, width),
        (GuideLine.RABBET_DEEP, shoulder),
        (GuideLine.ROUND_FROM_CORNER, radius * (2 - math.sqrt(2))),
    )
    return ShapedEdge(moved, steps, gauge)


def raised_panel(width: float, fall: float, thickness: float, groove: float = 0.0, enters: float = 0.0) -> ShapedEdge:
    """Plan a bevel of `width` mm falling `fall` mm round a panel; its edge enters a groove (mm wide, mm deep).

    Parameters
    ----------
    width : float
        Of the bevel, mm.
    fall : float
        How far it falls to the edge, mm.
    thickness : float
        Of the panel, mm.
    groove : float, default 0.0
        Width of the groove that takes the edge, mm.
    enters : float, default 0.0
        How far the edge enters it, mm.
    """
    if width <= 0 or fall <= 0:
        raise EdgeError(EdgeWrong.NO_PANEL)
    if fall >= thickness:
        raise EdgeError(FallTooDeep(fall, thickness))
    edge = thickness - fall
    flat = Flat(
        width,
        fall,
        width * fall / math.hypot(width, fall),
        math.degrees(math.atan2(fall, width)),
        ((width, 0.0), (0.0, fall)),
    )
    steps: list[EdgeStep] = [GaugeBevel(edge, width), EdgeWork.ACROSS_ENDS_FIRST, EdgeWork.CORNERS_TOGETHER]
    if groove > 0:
        thick = edge + enters * fall / width
        if edge > groove:
            raise EdgeError(EdgeTooThick(edge, groove))
        steps.append(EdgeWork.TRY_GROOVE if thick <= groove else EaseLip(thick, groove))
    return ShapedEdge(((flat,),), tuple(steps), ((GuideLine.FROM_BACK, edge), (GuideLine.IN_ON_FACE, width)))


@dataclass(frozen=True, slots=True)
class BevelRip:
    """A rip down a board at an angle that gives two halves: where the saw enters on each face, from one edge, mm."""

    degrees: float
    on_face: float
    on_back: float
    narrow: float
    wide: float


def long_bevel(width: float, thickness: float, degrees: float, kerf: float = 0.0) -> BevelRip:
    """Plan a long bevel down the middle of a board: two mating halves, such as a hanging cleat.

    The line is laid out evenly about the centre: on the face it stands half the slope's reach to one
    side, on the back as far to the other. Each half is `narrow` on one face and `wide` on the other.

    Parameters
    ----------
    width : float
        Of the board, mm.
    thickness : float
        Of the board, mm.
    degrees : float
        Of the bevel, from square.
    kerf : float, default 0.0
        Of the saw, mm.

    Examples
    --------
    >>> cleat = long_bevel(120, 18, 22)
    >>> round(cleat.on_face, 2), round(cleat.on_back, 2)
    (56.36, 63.64)
    """
    if not 0 < degrees < 80:
        raise EdgeError(EdgeWrong.BEVEL_ANGLE)
    reach = thickness * math.tan(math.radians(degrees))
    if reach + kerf >= width:
        raise EdgeError(BevelTooWide(degrees, reach, width))
    half = kerf / math.cos(math.radians(degrees)) / 2
    on_face, on_back = (width - reach) / 2, (width + reach) / 2
    return BevelRip(degrees, on_face, on_back, on_face - half, on_back - half)
