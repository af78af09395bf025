"""Parts that must lie together, laid as one: sets out of one board in order, pairs as neighbours."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence

from nullah.core.breakdown.rough import RoughPart
from nullah.core.named_tuple import NamedTuple


class BlankOption(NamedTuple):
    """One rectangle to lay, mm, and where its parts lie in it: (part id, along, across)."""

    along: float
    across: float
    parts: tuple[tuple[str, float, float], ...]


def alternatives(parts: Iterable[RoughPart], kerf: float) -> Iterator[tuple[BlankOption, ...]]:
    """Give, for every part or set of parts that lie together, the ways to lay it, the best first.

    Parts in order lie end to end as they are numbered; neighbours may also lie side by side.

    Parameters
    ----------
    parts : Iterable[RoughPart]
        Rough parts, their sizes in mm.
    kerf : float
        Of the saw, mm.

    Returns
    -------
    Iterator[tuple[BlankOption, ...]]
        One tuple for each part or set.
    """
    sets: dict[str, list[RoughPart]] = {}
    for part in parts:
        if part.together:
            sets.setdefault(part.together, []).append(part)
        else:
            yield (BlankOption(float(part.along), float(part.across), ((part.id, 0.0, 0.0),)),)
    for members in sets.values():
        members.sort(key=lambda part: part.number)
        ways = [_end_to_end(members, kerf)]
        if not any(part.in_order for part in members):
            ways.append(_side_by_side(members, kerf))
        yield tuple(ways)


def _end_to_end(members: Sequence[RoughPart], kerf: float) -> BlankOption:
    x, laid = 0.0, []
    for part in members:
        laid.append((part.id, x, 0.0))
        x += float(part.along) + kerf
    return BlankOption(x - kerf, max(float(part.across) for part in members), tuple(laid))


def _side_by_side(members: Sequence[RoughPart], kerf: float) -> BlankOption:
    y, laid = 0.0, []
    for part in members:
        laid.append((part.id, 0.0, y))
        y += float(part.across) + kerf
    return BlankOption(max(float(part.along) for part in members), y - kerf, tuple(laid))
