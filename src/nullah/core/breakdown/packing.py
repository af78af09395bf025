"""Blanks laid on boards by straight cuts, taken apart and laid again: the search's inner loop.

Whatever is laid can be sawn edge to edge, for each blank takes its place out of a rectangle, its region, that such
cuts left. Taking a blank off gives its region back, with all that was laid in what was left of it, so that blanks
may be taken from anywhere. What lies on a board never changes, another `BoardState` takes its place: going back to an
older one costs nothing.

Numbers here are plain floats in mm and mm², rectangles are `Area`s: this runs thousands of
times a second.
"""

from __future__ import annotations

import math
import random
from collections.abc import Iterator, Sequence

from nullah.core.breakdown.asks import TOLERANCE
from nullah.core.breakdown.clear_wood import Area, largest
from nullah.core.named_tuple import NamedTuple

#: A part that lies nowhere counts as this share of all wood asked for: always worse than any layout with it.
_MISSING = 4.0
#: How much worse a layout may be and still be gone on from, as a share of a middling blank: at first, and at last.
_WARM, _COOL = 0.5, 0.025
#: A board is passed over now and then, so that the same order does not always lead to the same layout: how often.
_OVERLOOKED = (0.0, 0.03, 0.03, 0.2)
#: From how many boards blanks are taken in a round, and how many blanks at most; rounds of few are quick, and win more.
_BOARDS_AT_ONCE = (1, 2, 2, 3, 3, 4)
_BLANKS_AT_ONCE = (5, 8, 12, 18, 30)
#: How often it is tried to take no more than that off a board.
_TRIES = 3


class Blank(NamedTuple):
    """A rectangle to be laid, with so many parts in it.

    `kinds` are, by board, the kinds of clear wood it may lie in; empty where none.
    """

    along: float
    across: float
    kinds: tuple[tuple[int, ...], ...]
    holds: int = 1

    @property
    def area(self) -> float:
        """mm²."""
        return self.along * self.across


class PackedBoard(NamedTuple):
    """A board to lay on.

    `free` are the rectangles to begin with, `used_to` how far along it is used already,
    `clear` its clear wood by kind, `worth` what a mm² of it counts as.
    """

    length: float
    width: float
    free: tuple[Area, ...]
    used_to: float
    clear: tuple[tuple[Area, ...], ...]
    worth: float = 1.0


class Price(NamedTuple):
    """What counts besides wood, in mm² of wood: a mm of crosscut, a mm of rip, a mm along a flaw."""

    cross: float = 0.0
    rip: float = 0.0
    beside_flaw: float = 0.0

    @property
    def free(self) -> bool:
        """Whether only wood counts."""
        return not (self.cross or self.rip or self.beside_flaw)


class _Region:
    """A rectangle that straight cuts left, and the clear wood in it by kind; None where all of it is clear.

    `fits` is where each size of blank was found to fit in that clear wood: (x, y, kind).
    """

    __slots__ = ("clear", "end", "fits", "top", "x", "y")

    def __init__(self, x: float, y: float, end: float, top: float, clear: tuple[tuple[Area, ...], ...] | None) -> None:
        self.x, self.y, self.end, self.top = x, y, end, top
        self.clear = clear
        self.fits: dict[int, tuple[float, float, int]] = {}


class _Spot:
    """The place on a board where a blank costs least, and what it costs there; infinitely much where it has none."""

    __slots__ = ("cost", "kind", "region", "x", "y")

    def __init__(self, cost: float, region: _Region | None, kind: int, x: float, y: float) -> None:
        self.cost, self.region, self.kind, self.x, self.y = cost, region, kind, x, y


_NOWHERE = _Spot(math.inf, None, 0, 0.0, 0.0)


class _LaidBlank:
    """A blank on a board, the region it was laid in, and what sawing and risk there count as (mm²)."""

    __slots__ = ("blank", "end", "extra", "kind", "region", "top", "x", "y")

    def __init__(
        self, blank: int, kind: int, x: float, y: float, end: float, top: float, region: _Region, extra: float
    ) -> None:
        self.blank, self.kind, self.region, self.extra = blank, kind, region, extra
        self.x, self.y, self.end, self.top = x, y, end, top


class BoardState:
    """What lies on a board, how far along it is used, and the regions that are free; never changed.

    `spots` are the best places on it that were looked for already, by the size of a blank and the way of laying: most
    boards stay as they are from one layout to the next.
    """

    __slots__ = ("extra", "free", "laid", "spots", "used_to")

    def __init__(self, used_to: float, extra: float, free: list[_Region], laid: list[_LaidBlank]) -> None:
        self.used_to, self.extra, self.free, self.laid = used_to, extra, free, laid
        self.spots: dict[int, _Spot] = {}


class BlankPlace(NamedTuple):
    """Where a blank lies."""

    blank: int
    sheet: int
    kind: int
    x: float
    y: float


class Packing(NamedTuple):
    """A layout: where everything lies, what lies nowhere, and what it counts as in mm²."""

    spots: tuple[BlankPlace, ...]
    missing: tuple[int, ...]
    cost: float


class Packer:
    """Lays blanks on sheets, again and again, and keeps the best it has found.

    Parameters
    ----------
    blanks : sequence of Blank
    sheets : sequence of PackedBoard
    kerf : float
        mm.
    price : Price
    seed : int
        The same seed gives the same layouts.
    """

    def __init__(
        self, blanks: Sequence[Blank], sheets: Sequence[PackedBoard], kerf: float, price: Price, seed: int
    ) -> None:
        self._blanks, self._sheets, self._kerf, self._price = blanks, sheets, kerf, price
        self._chance = random.Random(seed)
        self._least_along = min((blank.along for blank in blanks), default=0.0) - TOLERANCE
        self._least_across = min((blank.across for blank in blanks), default=0.0) - TOLERANCE
        sizes: dict[Blank, int] = {}
        self._size = [sizes.setdefault(blank, len(sizes)) for blank in blanks]
        self._boards_of = [[i for i, kinds in enumerate(blank.kinds) if kinds] for blank in blanks]
        self._areas = [blank.area for blank in blanks]
        self._asked = sum(self._areas) or 1.0
        self._bare = [self._bare_board(sheet) for sheet in sheets]
        self._worth = [sheet.width * sheet.worth for sheet in sheets]
        self._way = 0
        self.best: Packing | None = None

    def _bare_board(self, sheet: PackedBoard) -> BoardState:
        whole = _Region(0.0, 0.0, math.inf, math.inf, sheet.clear)
        regions = [region for area in sheet.free if (region := self._region(whole, *area)) is not None]
        return BoardState(sheet.used_to, 0.0, regions, [])

    # --- one layout after another ---

    def rounds(self) -> Iterator[bool]:
        """Lay everything, then take some boards apart and lay their blanks anew, for ever.

        Yields
        ------
        bool
            Whether the layout of this round is the best so far. Send the share of the time
            that is over, 0 to 1, with `cool`.
        """
        self.cool(0.0)
        now = list(self._bare)
        order = sorted(range(len(self._blanks)), key=lambda index: -self._areas[index])
        cost, left = self._lay(now, order, 0.5, overlooked=0.0, most=math.inf)
        self._keep(now, left, cost)
        yield True
        draw = self._chance.random
        while True:
            tried = list(now)
            loose = [*left, *self._taken_off(tried)]
            # A layout that costs more by d is gone on from with the chance exp(-d / warmth): that is known beforehand.
            most = cost - self._warmth * math.log(1.0 - draw())
            overlooked = _OVERLOOKED[int(draw() * len(_OVERLOOKED))]
            tried_cost, tried_left = self._lay(tried, self._ordered(loose), draw(), overlooked, most)
            if tried_cost <= most:
                now, left, cost = tried, tried_left, tried_cost
                if self.best is None or cost < self.best.cost - 1e-6:
                    self._keep(now, left, cost)
                    yield True
                    continue
            yield False

    def cool(self, share: float) -> None:
        """Say how much of the time is over, 0 to 1: worse layouts are gone on from less and less.

        Parameters
        ----------
        share : float
            Of the time, 0 to 1.
        """
        self._warmth = self._asked / max(1, len(self._blanks)) * _WARM * (_COOL / _WARM) ** min(1.0, max(0.0, share))

    def _keep(self, boards: list[BoardState], left: list[int], cost: float) -> None:
        spots = [
            BlankPlace(item.blank, number, item.kind, item.x, item.y)
            for number, board in enumerate(boards)
            for item in board.laid
        ]
        self.best = Packing(tuple(spots), tuple(sorted(left)), cost)

    def _taken_off(self, boards: list[BoardState]) -> list[int]:
        """Take some blanks off a few boards, each with all that lies in the region it was laid in; give which."""
        draw = self._chance.random
        used = [number for number, board in enumerate(boards) if board.laid]
        most = _BLANKS_AT_ONCE[int(draw() * len(_BLANKS_AT_ONCE))]
        loose: list[int] = []
        for number in self._chance.sample(used, min(_BOARDS_AT_ONCE[int(draw() * len(_BOARDS_AT_ONCE))], len(used))):
            board = boards[number]
            for _ in range(_TRIES):
                region = board.laid[int(draw() * len(board.laid))].region
                off, kept = _parted(board.laid, region)
                if len(loose) + len(off) <= most:
                    loose += [item.blank for item in off]
                    boards[number] = self._without(board, number, region, kept)
                    break
        return loose

    def _without(self, board: BoardState, number: int, region: _Region, kept: list[_LaidBlank]) -> BoardState:
        """Return a board on which only some blanks are left, and a region is free again."""
        used_to, extra = self._sheets[number].used_to, 0.0
        for item in kept:
            if item.end > used_to:
                used_to = item.end
            extra += item.extra
        x, y, end, top = region.x, region.y, region.end, region.top
        free = [
            each for each in board.free if not (each.x >= x and each.y >= y and each.end <= end and each.top <= top)
        ]
        free.append(region)
        return BoardState(used_to, extra, free, kept)

    def _ordered(self, loose: list[int]) -> list[int]:
        """Put blanks in an order to be laid in: by area, length or width, a little shuffled, or anyhow."""
        draw, blanks, chance = self._chance.random, self._blanks, self._chance.random()
        if chance < 0.35:
            keys = [(-self._areas[index] * (1 + 0.3 * draw()), index) for index in loose]
        elif chance < 0.6:
            keys = [(-blanks[index].along * (1 + 0.2 * draw()), index) for index in loose]
        elif chance < 0.85:
            keys = [(-blanks[index].across * (1 + 0.2 * draw()), index) for index in loose]
        else:
            keys = [(draw(), index) for index in loose]
        keys.sort()
        return [index for _, index in keys]

    # --- laying ---

    def _lay(
        self, boards: list[BoardState], order: Sequence[int], across_first: float, overlooked: float, most: float
    ) -> tuple[float, list[int]]:
        """Lay blanks in order, each where it costs least; give what all costs then, and what finds no place.

        `across_first` is how likely the crosscuts beside a blank come before its rips. As soon as it costs more than
        `most` it is given up, and costs infinitely much.
        """
        draw = self._chance.random
        self._way = int(draw() * 3)
        cost = sum([board.used_to * worth + board.extra for board, worth in zip(boards, self._worth, strict=True)])
        left: list[int] = []
        for index in order:
            blank, size = self._blanks[index], self._size[index]
            key = 3 * size + self._way
            best, at, passed_over = _NOWHERE, -1, -1
            for number in self._boards_of[index]:
                spots = boards[number].spots
                spot = spots.get(key)
                if spot is None:
                    spot = spots[key] = self._cheapest(boards[number], number, blank, size)
                if spot.cost < best.cost:
                    if overlooked and draw() < overlooked:
                        passed_over = number
                    else:
                        best, at = spot, number
            if best.region is None and passed_over >= 0:
                best, at = boards[passed_over].spots[key], passed_over
            if best.region is None:
                left.append(index)
                cost += blank.holds * _MISSING * self._asked
            else:
                stretch = self._stretch(best.region, best.x, blank, across_first)
                before = boards[at]
                after = boards[at] = self._put(before, at, index, best, stretch)
                cost += (after.used_to - before.used_to) * self._worth[at] + after.extra - before.extra
            if cost > most:
                return math.inf, left
        return cost, left

    def _cheapest(self, board: BoardState, number: int, blank: Blank, size: int) -> _Spot:
        """Find the place on a board where a blank costs least."""
        along, across = blank.along, blank.across
        long, wide = along - TOLERANCE, across - TOLERANCE
        used_to, worth, way = board.used_to, self._worth[number], self._way
        kinds, risk = blank.kinds[number], self._price.beside_flaw
        least, found, at_x, at_y, of_kind = math.inf, None, 0.0, 0.0, 0
        for region in board.free:
            near, low, end, top = region.x, region.y, region.end, region.top
            if end - near < long or top - low < wide or (near + along - used_to) * worth >= least:
                continue
            x, y, kind = near, low, kinds[0]
            if region.clear is not None:
                fit = region.fits.get(size)
                if fit is None:
                    fit = region.fits[size] = self._fit(region, blank, kinds)
                x, y, kind = fit
                if x == math.inf:
                    continue
            more = (x + along - used_to) * worth
            cost = more if more > 0 else 0.0
            if way == 0:
                cost += 0.02 * (top - low - across) * along
            elif way == 1:
                cost += 0.3 * (top - low - across) * along
            else:
                cost += 0.1 * min((top - low - across) * along, (end - near - along) * across)
            if risk:
                cost += self._risk(number, kind, x, y, x + along, y + across)
            if cost < least:
                least, found, at_x, at_y, of_kind = cost, region, x, y, kind
        return _NOWHERE if found is None else _Spot(least, found, of_kind, at_x, at_y)

    def _fit(self, region: _Region, blank: Blank, kinds: tuple[int, ...]) -> tuple[float, float, int]:
        """Return where a blank lies nearest in the clear wood of a region, and in which kind."""
        assert region.clear is not None
        long, wide = blank.along - TOLERANCE, blank.across - TOLERANCE
        x, y, kind = math.inf, region.y, kinds[0]
        for each in kinds:
            for near, low, end, top in region.clear[each]:
                if end - near >= long and top - low >= wide:
                    if near < x:
                        # Up against the upper edge where the flaw is below.
                        x, kind = near, each
                        y = top - blank.across if low > region.y and top == region.top else low
                        if self._price.beside_flaw and near > region.x and end - near >= blank.along + _CLOSE:
                            x += _CLOSE
                    break
        return x, y, kind

    def _stretch(self, region: _Region, x: float, blank: Blank, across_first: float) -> float:
        """Choose where the region is crosscut behind a blank before it is ripped.

        Just behind it; or at the region's end, which is not at all; or so far behind that some
        other blank fits beside it or after it.
        """
        draw = self._chance.random
        end = x + blank.along
        if draw() < across_first:
            return end
        if draw() < 0.5:
            return region.end
        other = self._blanks[int(draw() * len(self._blanks))].along
        farther = x + other if other > blank.along else end + self._kerf + other
        return farther if farther < region.end - self._least_along else region.end

    def _put(self, board: BoardState, number: int, index: int, spot: _Spot, stretch: float) -> BoardState:
        """Lay a blank in a region; the rest is crosscut at `stretch`, ripped beside the blank, crosscut at it."""
        blank, kerf = self._blanks[index], self._kerf
        region, kind, x, y = spot.region, spot.kind, spot.x, spot.y
        assert region is not None
        end, top = x + blank.along, y + blank.across
        start = region.x if stretch > end else x
        free = [other for other in board.free if other is not region]
        pieces = (
            self._region(region, region.x, region.y, start - kerf, region.top),
            self._region(region, stretch + kerf, region.y, region.end, region.top),
            self._region(region, start, region.y, stretch, y - kerf),
            self._region(region, start, top + kerf, stretch, region.top),
            self._region(region, start, y, x - kerf, top),
            self._region(region, end + kerf, y, stretch, top),
        )
        free += [piece for piece in pieces if piece is not None]
        extra = 0.0
        if not self._price.free:
            extra = self._sawn(region, x, y, end, top, stretch) + self._risk(number, kind, x, y, end, top)
        used_to = end if end > board.used_to else board.used_to
        laid = [*board.laid, _LaidBlank(index, kind, x, y, end, top, region, extra)]
        return BoardState(used_to, board.extra + extra, free, laid)

    def _region(self, within: _Region, near: float, low: float, end: float, top: float) -> _Region | None:
        """Return a rectangle cut out of a region with its clear wood, or None if nothing would fit in it."""
        least_along, least_across = self._least_along, self._least_across
        if end - near < least_along or top - low < least_across:
            return None
        if within.clear is None:
            return _Region(near, low, end, top, None)
        kinds: list[tuple[Area, ...]] = []
        whole = True
        for areas in within.clear:
            cut = []
            for x, y, far, high in areas:
                # Without `max` and `min`, which are called: this runs a million times.
                x = x if x > near else near
                y = y if y > low else low
                far = far if far < end else end
                high = high if high < top else top
                if far - x >= least_along and high - y >= least_across:
                    cut.append((x, y, far, high))
            if len(cut) > 1:
                cut = sorted(largest(cut))
            whole = whole and len(cut) == 1 and cut[0] == (near, low, end, top)
            kinds.append(tuple(cut))
        if not any(kinds):
            return None
        return _Region(near, low, end, top, None if whole else tuple(kinds))

    def _sawn(self, region: _Region, x: float, y: float, end: float, top: float, stretch: float) -> float:
        """Return what the cuts round a blank count as."""
        kerf, price = self._kerf, self._price
        start = region.x if stretch > end else x
        whole = (start - region.x > kerf) + (region.end - stretch > TOLERANCE)
        rips = (y - region.y > kerf) + (region.top - top > TOLERANCE)
        short = (x - start > kerf) + (stretch - end > TOLERANCE)
        across = whole * (region.top - region.y) + short * (top - y)
        return across * price.cross + rips * (stretch - start) * price.rip

    def _risk(self, number: int, kind: int, x: float, y: float, end: float, top: float) -> float:
        """Return what lying hard against spoilt wood counts as: the length of border that does."""
        if not self._price.beside_flaw:
            return 0.0
        sheet = self._sheets[number]
        beside = 0.0
        for area in sheet.clear[kind]:
            if (
                area[0] > x + TOLERANCE
                or area[1] > y + TOLERANCE
                or area[2] < end - TOLERANCE
                or area[3] < top - TOLERANCE
            ):
                continue
            # The board's own edges are no flaws.
            ends = (area[0] > 0 and x - area[0] < _CLOSE) + (area[2] < sheet.length and area[2] - end < _CLOSE)
            edges = (area[1] > 0 and y - area[1] < _CLOSE) + (area[3] < sheet.width and area[3] - top < _CLOSE)
            beside = max(beside, ends * (top - y) + edges * (end - x))
        return beside * self._price.beside_flaw


#: Nearer to a flaw than this, mm, is hard against it.
_CLOSE = 8.0


def _parted(laid: list[_LaidBlank], region: _Region) -> tuple[list[_LaidBlank], list[_LaidBlank]]:
    """Return which blanks lie in a region, and which do not."""
    off: list[_LaidBlank] = []
    kept: list[_LaidBlank] = []
    x, y, end, top = region.x - TOLERANCE, region.y - TOLERANCE, region.end + TOLERANCE, region.top + TOLERANCE
    for item in laid:
        (off if item.x >= x and item.y >= y and item.end <= end and item.top <= top else kept).append(item)
    return off, kept
