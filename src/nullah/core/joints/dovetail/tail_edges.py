"""Where the tails of a dovetail stand along the end of their board."""

from __future__ import annotations

from nullah.core.fraction import Fraction


def tail_edges(
    width: Fraction, count: int, half_pin: Fraction, pin: Fraction, widths: tuple[Fraction, ...] = ()
) -> tuple[tuple[Fraction, Fraction], ...]:
    """Return both edges of every tail at the end of its board, from one edge, mm.

    step = (width − 2 half-pins + pin) / n; tail = step − pin (exact). `widths` are the tails'
    against each other, one for each; otherwise they are equal.

    Parameters
    ----------
    width : Fraction
        Of the board, mm.
    count : int
        How many tails.
    half_pin : Fraction
        At either edge, mm.
    pin : Fraction
        At the end of the tail board, mm.
    widths : tuple[Fraction, ...], default ()
        How wide tails are against each other, none for equal ones.

    Returns
    -------
    tuple[tuple[Fraction, Fraction], ...]
        One pair for each tail, from the lower edge.

    Examples
    --------
    >>> [(int(a), int(b)) for a, b in tail_edges(Fraction(150), 2, Fraction(10), Fraction(6))]
    [(10, 72), (78, 140)]
    """
    left = width - 2 * half_pin - (count - 1) * pin
    parts = widths if len(widths) == count and sum(widths) > 0 else (Fraction(1),) * count
    found, low = [], half_pin
    for part in parts:
        tail = left * part / sum(parts)
        found.append((low, low + tail))
        low += tail + pin
    return tuple(found)
