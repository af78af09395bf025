"""Blanks laid on boards by straight cuts, taken apart and laid again: the search's inner loop.

A board being laid is a chain of immutable `Node`s, one for each blank laid, so that taking
the last few off again, or going back to an older state, costs nothing. Whatever is laid can
be sawn edge to edge, for each blank takes its place out of a rectangle that such cuts left.

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
#: How much worse a layout may be and still be gone on from, as a share of all wood asked for: at first, and at last.
_WARM, _COOL = 0.008, 0.0004
#: A board is passed over now and then, so that the same order does not always lead to the same layout: how often.
_OVERLOOKED = (0.0, 0.03, 0.03, 0.2)


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


class _Region(NamedTuple):
    """A rectangle that straight cuts left, and the clear wood in it by kind; None where all of it is clear."""

    x: float
    y: float
    end: float
    top: float
    clear: tuple[tuple[Area, ...], ...] | None


class _Spot(NamedTuple):
    """The place on a board where a blank costs least, and what it costs there; infinitely much where it has none."""

    cost: float
    region: _Region | None = None
    kind: int = 0
    x: float = 0.0
    y: float = 0.0


_NOWHERE = _Spot(math.inf)


class Node(NamedTuple):
    """A board with one more blank on it than its `before` had.

    `spots` are the best places on it that were looked for already, by the size of a blank and the way of laying: most
    boards stay as they are from one layout to the next.
    """

    before: Node | None
    blank: int
    kind: int
    x: float
    y: float
    used_to: float
    free: tuple[_Region, ...]
    laid: int
    extra: float
    spots: dict[int, _Spot]


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
        self._asked = sum(blank.area for blank in blanks) or 1.0
        self._bare = [self._bare_node(sheet) for sheet in sheets]
        self._worth = [sheet.width * sheet.worth for sheet in sheets]
        self._way = 0
        self.best: Packing | None = None

    def _bare_node(self, sheet: PackedBoard) -> Node:
        whole = _Region(0.0, 0.0, math.inf, math.inf, sheet.clear)
        regions = tuple(region for area in sheet.free if (region := self._region(whole, area)) is not None)
        return Node(None, -1, 0, 0.0, 0.0, sheet.used_to, regions, 0, 0.0, {})

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
        order = sorted(range(len(self._blanks)), key=lambda index: -self._blanks[index].area)
        left = self._lay(now, order, 0.5, overlooked=0.0)
        cost = self._cost(now, left)
        self._keep(now, left, cost)
        yield True
        while True:
            tried = list(now)
            loose = [*left, *self._taken_apart(tried)]
            tried_left = self._lay(tried, self._ordered(loose), self._chance.random(), self._chance.choice(_OVERLOOKED))
            tried_cost = self._cost(tried, tried_left)
            if tried_cost < cost or self._chance.random() < math.exp((cost - tried_cost) / self._warmth):
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
        self._warmth = self._asked * _WARM * (_COOL / _WARM) ** min(1.0, max(0.0, share))

    def _keep(self, nodes: list[Node], left: list[int], cost: float) -> None:
        spots = [
            BlankPlace(node.blank, number, node.kind, node.x, node.y)
            for number, last in enumerate(nodes)
            for node in _chain(last)
        ]
        self.best = Packing(tuple(spots), tuple(sorted(left)), cost)

    def _cost(self, nodes: list[Node], left: list[int]) -> float:
        laid = sum(node.used_to * worth + node.extra for node, worth in zip(nodes, self._worth, strict=True))
        return laid + sum(self._blanks[index].holds for index in left) * _MISSING * self._asked

    def _taken_apart(self, nodes: list[Node]) -> list[int]:
        """Take the blanks off a few boards, or the last of them; give which."""
        chance = self._chance
        used = [index for index, node in enumerate(nodes) if node.laid]
        loose: list[int] = []
        for index in chance.sample(used, min(chance.choice((1, 2, 2, 3, 3, 4)), len(used))):
            node = nodes[index]
            keep = 0 if chance.random() < 0.5 else chance.randrange(node.laid)
            while node.laid > keep and node.before is not None:
                loose.append(node.blank)
                node = node.before
            nodes[index] = node
        return loose

    def _ordered(self, loose: list[int]) -> list[int]:
        """Put blanks in an order to be laid in: by area, length or width, a little shuffled, or anyhow."""
        draw, blanks, chance = self._chance.random, self._blanks, self._chance.random()
        if chance < 0.35:
            keys = {index: blanks[index].area * (1 + 0.3 * draw()) for index in loose}
        elif chance < 0.6:
            keys = {index: blanks[index].along * (1 + 0.2 * draw()) for index in loose}
        elif chance < 0.85:
            keys = {index: blanks[index].across * (1 + 0.2 * draw()) for index in loose}
        else:
            keys = {index: draw() for index in loose}
        return sorted(loose, key=lambda index: -keys[index])

    # --- laying ---

    def _lay(self, nodes: list[Node], order: Sequence[int], across_first: float, overlooked: float) -> list[int]:
        """Lay blanks in order, each where it costs least; give what finds no place.

        `across_first` is how likely the crosscuts beside a blank come before its rips.
        """
        self._way, draw = self._chance.randrange(3), self._chance.random
        left: list[int] = []
        for index in order:
            blank, key = self._blanks[index], 3 * self._size[index] + self._way
            best, at, passed_over = _NOWHERE, -1, -1
            for number in self._boards_of[index]:
                spots = nodes[number].spots
                spot = spots.get(key)
                if spot is None:
                    spot = spots[key] = self._cheapest(nodes[number], number, blank)
                if spot.cost < best.cost:
                    if overlooked and draw() < overlooked:
                        passed_over = number
                    else:
                        best, at = spot, number
            if best.region is None and passed_over >= 0:
                best, at = nodes[passed_over].spots[key], passed_over
            if best.region is None:
                left.append(index)
                continue
            stretch = self._stretch(best.region, best.x, blank, across_first)
            nodes[at] = self._put(nodes[at], at, index, best, stretch)
        return left

    def _cheapest(  # noqa: C901 (the innermost loop of the search, where a call costs)
        self, node: Node, number: int, blank: Blank
    ) -> _Spot:
        """Find the place on a board where a blank costs least."""
        along, across = blank.along, blank.across
        long, wide = along - TOLERANCE, across - TOLERANCE
        used_to, worth, way = node.used_to, self._worth[number], self._way
        kinds, risk = blank.kinds[number], self._price.beside_flaw
        found = _NOWHERE
        for region in node.free:
            near, low, end, top, clear = region
            if end - near < long or top - low < wide or (near + along - used_to) * worth >= found.cost:
                continue
            x, y, kind = near, low, kinds[0]
            if clear is not None:
                x = math.inf
                for each in kinds:
                    for area in clear[each]:
                        if area[2] - area[0] >= long and area[3] - area[1] >= wide:
                            if area[0] < x:
                                # Up against the upper edge where the flaw is below.
                                x, kind = area[0], each
                                y = area[3] - across if area[1] > low and area[3] == top else area[1]
                                if risk and area[0] > near and area[2] - area[0] >= along + _CLOSE:
                                    x += _CLOSE
                            break
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
            if cost < found.cost:
                found = _Spot(cost, region, kind, x, y)
        return found

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
        other = self._chance.choice(self._blanks).along
        farther = x + other if other > blank.along else end + self._kerf + other
        return farther if farther < region.end - self._least_along else region.end

    def _put(self, node: Node, number: int, index: int, spot: _Spot, stretch: float) -> Node:
        """Lay a blank in a region; the rest is crosscut at `stretch`, ripped beside the blank, crosscut at it."""
        blank, kerf = self._blanks[index], self._kerf
        _, region, kind, x, y = spot
        assert region is not None
        end, top = x + blank.along, y + blank.across
        start = region.x if stretch > end else x
        pieces = (
            (region.x, region.y, start - kerf, region.top),
            (stretch + kerf, region.y, region.end, region.top),
            (start, region.y, stretch, y - kerf),
            (start, top + kerf, stretch, region.top),
            (start, y, x - kerf, top),
            (end + kerf, y, stretch, top),
        )
        free = [other for other in node.free if other is not region]
        free += [left for piece in pieces if (left := self._region(region, piece)) is not None]
        extra = node.extra
        if not self._price.free:
            extra += self._sawn(region, x, y, end, top, stretch) + self._risk(number, kind, x, y, end, top)
        return Node(node, index, kind, x, y, max(node.used_to, end), tuple(free), node.laid + 1, extra, {})

    def _region(self, within: _Region, piece: Area) -> _Region | None:
        """Return a rectangle cut out of a region with its clear wood, or None if nothing would fit in it."""
        near, low, end, top = piece
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
            whole = whole and len(cut) == 1 and cut[0] == piece
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


def _chain(node: Node) -> Iterator[Node]:
    """Yield the nodes of a board from the first blank laid to the last."""
    found = []
    while node.before is not None:
        found.append(node)
        node = node.before
    yield from reversed(found)
