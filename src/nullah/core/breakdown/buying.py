"""What to ask the yard for when the rack is not enough: sizes and numbers, with something over for flaws."""

from __future__ import annotations

import math
from collections.abc import Sequence

from nullah.core.breakdown.rough import RoughPart
from nullah.core.breakdown.search import LayoutTask, search_task
from nullah.core.fraction import Fraction
from nullah.core.identity import RecentResults
from nullah.core.lengths import Length, inch, mm
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.part import Needs
from nullah.core.rack.board import Board, GrainFigure
from nullah.core.rack.sizes import quarters
from nullah.core.wood.movement import GrainCut

#: Boards are asked for this long where the parts allow it: what a hand can carry and a rack holds.
_USUAL_LENGTH = mm(2400)
#: Widths that yards have, mm, as common practice goes.
_WIDTHS = (120, 150, 180, 210, 240, 280, 320)
_ROUNDS = 6


class BuyingLine(NamedTuple):
    """One line of the buying list: so many boards of a wood, at least so thick, wide and long."""

    wood: str
    thickness: Length
    width: Length
    length: Length
    number: int
    parts: tuple[str, ...]
    asks: str

    @property
    def volume(self) -> Fraction:
        """mm³."""
        return self.thickness.mm * self.width.mm * self.length.mm * self.number


class Shortage(NamedTuple):
    """What there is no wood for: all that a buying list hangs on.

    Parameters
    ----------
    parts : tuple of RoughPart
        That lie nowhere.
    flawed : Fraction
        The share of bought wood that flaws will take, as the user expects it.
    kerf : Length
    """

    parts: tuple[RoughPart, ...]
    flawed: Fraction
    kerf: Length


_KNOWN: RecentResults[tuple[BuyingLine, ...]] = RecentResults(8)


def known_buying_list(shortage: Shortage) -> tuple[BuyingLine, ...] | None:
    """Return a buying list if it was worked out lately: that takes long."""
    return _KNOWN.found(shortage)


def keep_buying_list(shortage: Shortage, lines: tuple[BuyingLine, ...]) -> None:
    """Keep what was worked out, here or in another process."""
    _KNOWN.keep(shortage, lines)


def buying_list(shortage: Shortage) -> tuple[BuyingLine, ...]:
    """Say what boards would give the parts that find no wood.

    Returns
    -------
    tuple of BuyingLine
        One line for each wood, thickness and kind of grain. Boards are as wide as the widest
        part needs, or wider where that takes less wood; they are laid out by the same search
        as those on the rack, and then so many more are asked for as flaws will spoil.
    """
    known = known_buying_list(shortage)
    if known is not None:
        return known
    kinds: dict[tuple[str, Length, GrainFigure | None, GrainCut | None], list[RoughPart]] = {}
    for part in shortage.parts:
        kinds.setdefault((part.wood, quarters(part.thickness), part.figure, part.rings), []).append(part)
    lines = tuple(
        _line(wood, thickness, tuple(alike), shortage.flawed, shortage.kerf, figure, rings)
        for (wood, thickness, figure, rings), alike in kinds.items()
    )
    keep_buying_list(shortage, lines)
    return lines


def _line(
    wood: str,
    thickness: Length,
    parts: tuple[RoughPart, ...],
    flawed: Fraction,
    kerf: Length,
    figure: GrainFigure | None,
    rings: GrainCut | None,
) -> BuyingLine:
    widest = max(part.across for part in parts)
    longest = max(part.along for part in parts)
    length = max(_USUAL_LENGTH, Length(Fraction(math.ceil(longest.mm / 100) * 100)))
    widths = [mm(width) for width in _WIDTHS if width >= widest.mm] or [
        Length(Fraction(math.ceil(widest.mm / 10) * 10))
    ]
    best: tuple[Fraction, int, Length] | None = None
    for width in widths[:3]:
        count, used = _boards_wanted(parts, width, length, thickness, kerf)
        # Flaws take their share of the wood that is wanted, not of whole boards.
        with_flaws = max(count, math.ceil(used / (1 - min(flawed, Fraction(9, 10))) - Fraction(1, 100)))
        wood_used = width.mm * length.mm * with_flaws
        if best is None or wood_used < best[0]:
            best = (wood_used, with_flaws, width)
    assert best is not None
    asks = " ".join(each.value for each in (figure, rings) if each is not None)
    return BuyingLine(wood, thickness, best[2], length, best[1], tuple(part.name for part in parts), asks)


def _boards_wanted(
    parts: Sequence[RoughPart], width: Length, length: Length, thickness: Length, kerf: Length
) -> tuple[int, Fraction]:
    """Count the clear boards of one size that parts need, as the search lays them, and how many they use up."""
    plain = tuple(
        part._replace(wood="", needs=Needs.CLEAR, figure=None, rings=None, thickness=min(part.thickness, thickness))
        for part in parts
    )
    area = sum(part.length.mm * part.width.mm for part in plain)
    for count in range(max(1, math.ceil(area / (width.mm * length.mm))), len(plain) + 1):
        boards = tuple(Board(str(i), str(i), "", length, width, max(thickness, inch(1))) for i in range(count))
        found = list(search_task(LayoutTask(plain, boards, kerf), _ROUNDS, prove=False))[-1]
        if not found.unplaced:
            return count, Fraction(round(found.consumed)) / (width.mm * length.mm)
    return len(plain), Fraction(len(plain))
