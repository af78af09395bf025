"""The cuts that take a laid-out board apart, each from edge to edge of the piece in hand."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from enum import Enum

from nullah.core.breakdown.facts import NotSawable, SawFact, Struck
from nullah.core.breakdown.layout import TOLERANCE, PlacedPart, Rect
from nullah.core.breakdown.sawing import Sawing, worth_keeping
from nullah.core.errors import FactError
from nullah.core.lengths import Direction
from nullah.core.named_tuple import NamedTuple


class CutKind(Enum):
    """Across the grain or along it."""

    CROSS = "cross"
    RIP = "rip"


class Reach(Enum):
    """How far a cut goes: through the piece in hand, or no farther than it needs to."""

    THROUGH = "through"
    #: A rip as far as the longest of the parts beside it. What it parts still hangs together.
    STOPPED = "stopped"
    #: A crosscut as far as the kerf of a stopped rip.
    TO_RIP = "rip"


class SawCut(NamedTuple):
    """One cut: where it starts, how long it is (mm), and its place in the order.

    The saw takes the kerf beyond the line: from x to x + kerf for a crosscut, y to y + kerf
    for a rip. `piece` is what was in hand. `keeps_low` says that a part ends at the line, so
    that its mark may only be rounded up; otherwise what is kept begins beyond the kerf, and
    the mark may only be rounded down.

    A stopped rip makes two strips of the piece as any rip does, though they hang together at one
    end; the crosscuts to the rip that follow are made in these strips, and what lies beyond them
    is one offcut.
    """

    order: int
    kind: CutKind
    x: float
    y: float
    length: float
    piece: Rect
    keeps_low: bool
    reach: Reach = Reach.THROUGH

    @property
    def at(self) -> float:
        """Where the line is: along the board for a crosscut, across it for a rip, mm."""
        return self.x if self.kind is CutKind.CROSS else self.y

    @property
    def rounding(self) -> Direction:
        """Which way its mark is rounded so that no part comes out short."""
        return Direction.UP if self.keeps_low else Direction.DOWN


class NotSawableError(FactError):
    """A board cannot be sawn into the parts that lie on it; `fact` says why."""

    fact: SawFact


class Left(NamedTuple):
    """What cuts leave besides the parts: a rectangle, with a corner of it sawn out where a rip was stopped. mm."""

    rect: Rect
    sawn_out: Rect | None = None


class _Line(NamedTuple):
    kind: CutKind
    at: float
    parts_below: tuple[PlacedPart, ...]
    parts_above: tuple[PlacedPart, ...]
    #: Of a stopped rip: where it stops, and whether it comes from the left end.
    stop: float | None = None
    from_left: bool = True


#: A rip is stopped only where a crosscut behind both parts would strand a longer stub than this, mm. A guess: shorter
#: ones are nobody's loss, and a board that is crosscut first is lighter to rip.
LEAST_STUB = 50.0

#: With more parts than this on a board, the first cut that parts them is taken.
_MOST_WEIGHED = 7


def saw_cuts(
    board: Rect, placed: Sequence[PlacedPart], kerf: float, sawing: Sawing | None = None
) -> tuple[SawCut, ...]:
    """Return the cuts in order: the cheapest way to take the parts out, rips weighed against crosscuts.

    Wood worth keeping counts against sawing, so that a stub is not stranded where ripping
    through first would leave it on a useful offcut.

    Parameters
    ----------
    board : Rect
        The whole board, mm.
    placed : sequence of PlacedPart
        What lies on it; nothing overlaps.
    kerf : float
        mm.
    sawing : Sawing, optional
        What cuts cost.

    Raises
    ------
    NotSawableError
        If some parts cannot be taken apart by cuts that run edge to edge.
    """
    return taken_apart(board, placed, kerf, sawing)[0]


def left_over(board: Rect, placed: Sequence[PlacedPart], kerf: float, sawing: Sawing | None = None) -> tuple[Rect, ...]:
    """Return what the cuts of `saw_cuts` leave besides the parts, in mm.

    Parameters
    ----------
    board : Rect
        The rectangle that is sawn up, mm.
    placed : Sequence[PlacedPart]
        The parts on it.
    kerf : float
        Of the saw, mm.
    sawing : Sawing, optional
        What a cut costs, or None for no matter.

    Returns
    -------
    tuple[Rect, ...]
        Rectangles, mm.

    Raises
    ------
    NotSawableError
    """
    return tuple(left.rect for left in taken_apart(board, placed, kerf, sawing)[1])


def taken_apart(
    board: Rect, placed: Sequence[PlacedPart], kerf: float, sawing: Sawing | None = None, stopped: bool = False
) -> tuple[tuple[SawCut, ...], tuple[Left, ...]]:
    """Return the cuts in order, and what they leave.

    Parameters
    ----------
    board : Rect
        The rectangle that is sawn up, mm.
    placed : Sequence[PlacedPart]
        The parts on it.
    kerf : float
        Of the saw, mm.
    sawing : Sawing, optional
        What cuts cost.
    stopped : bool
        Whether a rip may stop at the longer of two neighbours, where more than `LEAST_STUB` would else be stranded.

    Raises
    ------
    NotSawableError
        If some parts cannot be taken apart by cuts that run edge to edge.
    """
    return _Sawyer(kerf, sawing or Sawing(), stopped).take_apart(board, tuple(placed))


def cut_through_first(
    board: Rect,
    placed: Sequence[PlacedPart],
    kerf: float,
    sawing: Sawing,
    crosswise: bool,
    at: float,
    stopped: bool = False,
) -> tuple[tuple[SawCut, ...], tuple[Left, ...]]:
    """Return the cuts, and what they leave, where the whole board is cut through once before all else.

    Parameters
    ----------
    board : Rect
        The rectangle that is sawn up, mm.
    placed : Sequence[PlacedPart]
        The parts on it.
    kerf : float
        Of the saw, mm.
    sawing : Sawing
        What a cut costs.
    crosswise : bool
        Whether the first cut goes across the board.
    at : float
        Where it begins, mm along the board, or across it.
    stopped : bool
        Whether rips after it may be stopped, as `taken_apart` says.

    Returns
    -------
    tuple[tuple[SawCut, ...], tuple[Left, ...]]
        Cuts in their order, and what they leave, mm.

    Raises
    ------
    NotSawableError
        Also where the cut that comes first would go through a part.
    """
    low, high = portions(board, crosswise, at, kerf)
    struck = tuple(item.part.name for item in placed if not (within(item.rect, low) or within(item.rect, high)))
    if struck:
        raise NotSawableError(Struck(struck))
    kind = CutKind.CROSS if crosswise else CutKind.RIP
    x, y, long = (at, board.y, board.width) if crosswise else (board.x, at, board.length)
    cuts = [SawCut(1, kind, x, y, long, board, keeps_low=True)]
    left: list[Left] = []
    for portion in (low, high):
        inside = [item for item in placed if within(item.rect, portion)]
        more, empty = taken_apart(portion, inside, kerf, sawing, stopped)
        cuts += [cut._replace(order=len(cuts) + number) for number, cut in enumerate(more, start=1)]
        left += empty
    return tuple(cuts), tuple(left)


def portions(board: Rect, crosswise: bool, at: float, kerf: float) -> tuple[Rect, Rect]:
    """Return the two pieces that a cut through a board leaves.

    Parameters
    ----------
    board : Rect
        The rectangle that is cut, mm.
    crosswise : bool
        Whether the cut goes across it.
    at : float
        Where the cut begins, mm along it, or across it.
    kerf : float
        Of the saw, mm.

    Returns
    -------
    tuple[Rect, Rect]
        What lies before the cut, and what lies beyond it.
    """
    if crosswise:
        return (
            Rect(board.x, board.y, at - board.x, board.width),
            Rect(at + kerf, board.y, board.end - at - kerf, board.width),
        )
    return (
        Rect(board.x, board.y, board.length, at - board.y),
        Rect(board.x, at + kerf, board.length, board.top - at - kerf),
    )


def within(rect: Rect, outer: Rect) -> bool:
    """Return whether a rectangle lies in another, to the tolerance of chalk."""
    return (
        rect.x >= outer.x - TOLERANCE
        and rect.end <= outer.end + TOLERANCE
        and rect.y >= outer.y - TOLERANCE
        and rect.top <= outer.top + TOLERANCE
    )


def sawable(placed: Sequence[PlacedPart], kerf: float) -> bool:
    """Return whether cuts from edge to edge take parts apart at all; which cuts does not matter to that.

    Parameters
    ----------
    placed : Sequence[PlacedPart]
        The parts on one board.
    kerf : float
        Of the saw, mm.
    """
    if len(placed) < 2:
        return True
    line = next(iter(_parting_lines(tuple(placed), kerf)), None)
    return line is not None and sawable(line.parts_below, kerf) and sawable(line.parts_above, kerf)


class _Sawyer:
    """Chooses the cuts of one board; keeps what it has weighed already."""

    def __init__(self, kerf: float, sawing: Sawing, stopped: bool) -> None:
        self._kerf, self._sawing, self._stopped = kerf, sawing, stopped
        self._known: dict[tuple[Rect, tuple[PlacedPart, ...]], tuple[float, _Line | None]] = {}

    def take_apart(self, board: Rect, placed: tuple[PlacedPart, ...]) -> tuple[tuple[SawCut, ...], tuple[Left, ...]]:
        """Return the cuts, and the pieces that hold no part."""
        cuts: list[SawCut] = []
        empty: list[Left] = []

        def cut(piece: Rect, line: _Line, reach: Reach = Reach.THROUGH) -> None:
            cross, keeps_low = line.kind is CutKind.CROSS, bool(line.parts_below)
            at = max(line.at, piece.x if cross else piece.y)
            x, y, long = (at, piece.y, piece.width) if cross else (piece.x, at, piece.length)
            if line.stop is not None:
                x, long = (x, line.stop - x) if line.from_left else (line.stop, piece.end - line.stop)
            cuts.append(SawCut(len(cuts) + 1, line.kind, x, y, long, piece, keeps_low, reach))

        def go_on(piece: Rect, parts: tuple[PlacedPart, ...]) -> None:
            if not parts:
                empty.append(Left(piece))
                return
            line = self._weighed(piece, parts)[1]
            if line is None:
                return
            if line.stop is not None:
                cut(piece, line, Reach.STOPPED)
                freed = self._freed(piece, line)
                for strip, end, _ in freed:
                    cut(strip, end, Reach.TO_RIP)
                empty.append(self._hanging(piece, line))
                for _, end, part in freed:
                    go_on(part, end.parts_below or end.parts_above)
                return
            cut(piece, line)
            go_on(_below(piece, line), line.parts_below)
            go_on(_above(piece, line, self._kerf), line.parts_above)

        go_on(board, placed)
        kept = (left for left in empty if left.rect.length > TOLERANCE and left.rect.width > TOLERANCE)
        return tuple(cuts), tuple(kept)

    def _weighed(self, piece: Rect, parts: tuple[PlacedPart, ...]) -> tuple[float, _Line | None]:
        """Return the minutes it takes to free the parts of a piece, less what is kept, and the first cut."""
        if not parts:
            return -self._sawing.kept(piece.length, piece.width), None
        key = (piece, parts)
        if key not in self._known:
            self._known[key] = self._choose(piece, parts)
        return self._known[key]

    def _choose(self, piece: Rect, parts: tuple[PlacedPart, ...]) -> tuple[float, _Line | None]:
        trims = _trims(piece, parts, self._kerf)
        lines = _parting_lines(parts, self._kerf)
        if len(parts) == 1 and not trims:
            return 0.0, None
        if len(parts) > 1 and not lines:
            raise NotSawableError(NotSawable(tuple(item.part.name for item in parts)))
        if len(parts) > _MOST_WEIGHED:
            # A board is crosscut behind its parts before it is ripped.
            line = trims[0] if trims and lines[0].kind is CutKind.RIP else lines[0]
            return self._cost(piece, line), line
        lines += [*trims, *(found for line in lines for found in self._stops(piece, line))]
        return min(((self._cost(piece, line), line) for line in lines), key=lambda pair: round(pair[0], 6))

    def _cost(self, piece: Rect, line: _Line) -> float:
        if line.stop is not None:
            return self._cost_stopped(piece, line)
        cross = line.kind is CutKind.CROSS
        own = self._sawing.minutes(cross, piece.width if cross else piece.length)
        below = self._weighed(_below(piece, line), line.parts_below)[0]
        return own + below + self._weighed(_above(piece, line, self._kerf), line.parts_above)[0]

    def _stops(self, piece: Rect, line: _Line) -> Iterator[_Line]:
        """Yield the rip of a line stopped at the longer of its neighbours, from the left end and from the right."""
        if not self._stopped or line.kind is CutKind.CROSS:
            return
        for from_left in (True, False):
            ends = [_reach(piece, parts, from_left) for parts in (line.parts_below, line.parts_above)]
            behind = piece.length - max(ends) - self._kerf
            if abs(ends[0] - ends[1]) > LEAST_STUB and worth_keeping(behind, piece.width):
                # It goes through the crosscut that frees the longer one.
                reach = max(ends) + self._kerf
                stop = piece.x + reach if from_left else piece.end - reach
                yield line._replace(stop=stop, from_left=from_left)

    def _cost_stopped(self, piece: Rect, line: _Line) -> float:
        assert line.stop is not None
        left, sawing = self._hanging(piece, line), self._sawing
        cost = sawing.minutes(False, line.stop - piece.x if line.from_left else piece.end - line.stop)
        for strip, end, freed in self._freed(piece, line):
            cost += sawing.minutes(True, strip.width)
            cost += self._weighed(freed, end.parts_below or end.parts_above)[0]
        # It is worth what all of it is: the piece behind both parts is kept anyway.
        gone = left.sawn_out
        assert gone is not None
        share = 1 - gone.length * gone.width / (left.rect.length * left.rect.width)
        return cost - share * sawing.kept(left.rect.length, left.rect.width)

    def _freed(self, piece: Rect, line: _Line) -> tuple[tuple[Rect, _Line, Rect], ...]:
        """Return the strips of a stopped rip, the shorter parts first: each, its crosscut, and what that frees."""
        found = []
        for strip, parts in (
            (_below(piece, line), line.parts_below),
            (_above(piece, line, self._kerf), line.parts_above),
        ):
            if line.from_left:
                end = _Line(CutKind.CROSS, max(item.rect.end for item in parts), parts, ())
                freed = _below(strip, end)
            else:
                end = _Line(CutKind.CROSS, min(item.rect.x for item in parts) - self._kerf, (), parts)
                freed = _above(strip, end, self._kerf)
            found.append((strip, end, freed))
        return tuple(sorted(found, key=lambda each: each[2].length))

    def _hanging(self, piece: Rect, line: _Line) -> Left:
        """Return what hangs together behind the parts of a stopped rip."""
        (short, _, less), (long, _, more) = self._freed(piece, line)
        if line.from_left:
            start, gone = less.end + self._kerf, more.end + self._kerf
            rect, x = Rect(start, piece.y, piece.end - start, piece.width), start
        else:
            end, gone = less.x - self._kerf, more.x - self._kerf
            rect, x = Rect(piece.x, piece.y, end - piece.x, piece.width), gone
        # The kerf of the rip goes with the corner.
        low, high = (long.y, short.y) if long.y < short.y else (short.top, long.top)
        return Left(rect, Rect(x, low, abs(gone - (rect.x if line.from_left else rect.end)), high - low))


def _parting_lines(parts: tuple[PlacedPart, ...], kerf: float) -> list[_Line]:
    """Return every cut that parts the parts, across before along."""
    lines = []
    for kind in (CutKind.CROSS, CutKind.RIP):
        for at in sorted({_far(item.rect, kind) for item in parts}):
            line = _line_at(at, kind, parts, kerf)
            if line is not None and line.parts_below and line.parts_above:
                lines.append(line)
    return lines


def _line_at(at: float, kind: CutKind, parts: tuple[PlacedPart, ...], kerf: float) -> _Line | None:
    below = tuple(item for item in parts if _far(item.rect, kind) <= at + TOLERANCE)
    above = tuple(item for item in parts if _near(item.rect, kind) >= at + kerf - TOLERANCE)
    if len(below) + len(above) != len(parts):
        return None
    return _Line(kind, at, below, above)


def _trims(piece: Rect, parts: tuple[PlacedPart, ...], kerf: float) -> list[_Line]:
    """Return the cuts that take waste off parts without parting them, ends before edges.

    A sliver before them that is thinner than the saw is planed off, not sawn.
    """
    end, top = max(item.rect.end for item in parts), max(item.rect.top for item in parts)
    x, y = min(item.rect.x for item in parts), min(item.rect.y for item in parts)
    lines = []
    if piece.end - end > TOLERANCE:
        lines.append(_Line(CutKind.CROSS, end, parts, ()))
    if x - piece.x >= kerf - TOLERANCE and x - piece.x > TOLERANCE:
        lines.append(_Line(CutKind.CROSS, x - kerf, (), parts))
    if piece.top - top > TOLERANCE:
        lines.append(_Line(CutKind.RIP, top, parts, ()))
    if y - piece.y >= kerf - TOLERANCE and y - piece.y > TOLERANCE:
        lines.append(_Line(CutKind.RIP, y - kerf, (), parts))
    return lines


def _below(piece: Rect, line: _Line) -> Rect:
    if line.kind is CutKind.CROSS:
        return Rect(piece.x, piece.y, line.at - piece.x, piece.width)
    return Rect(piece.x, piece.y, piece.length, line.at - piece.y)


def _above(piece: Rect, line: _Line, kerf: float) -> Rect:
    start = line.at + kerf
    if line.kind is CutKind.CROSS:
        return Rect(start, piece.y, piece.end - start, piece.width)
    return Rect(piece.x, start, piece.length, piece.top - start)


def _reach(piece: Rect, parts: tuple[PlacedPart, ...], from_left: bool) -> float:
    """Return how far from an end of a piece its parts reach, mm."""
    if from_left:
        return max(item.rect.end for item in parts) - piece.x
    return piece.end - min(item.rect.x for item in parts)


def _far(rect: Rect, kind: CutKind) -> float:
    return rect.end if kind is CutKind.CROSS else rect.top


def _near(rect: Rect, kind: CutKind) -> float:
    return rect.x if kind is CutKind.CROSS else rect.y
