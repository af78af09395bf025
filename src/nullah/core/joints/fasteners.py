"""Nails and screws: which, how deep a pilot, how far apart, and what they hold.

Withdrawal from side grain by the formulas of the Wood Handbook (USDA FPL-GTR-282), chapter 8: nails
54.12·G^2.5·D·L, wood screws 108.25·G²·D·L, in N with D and L in mm and G the specific gravity of oven-dry
weight and volume at test; from memory, and checked against their forms in pounds and inches.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

#: What a kilogram weighs, N (standard gravity, exact).
GRAVITY = 9.80665
#: Of what pulls it out, so much may be asked of it for good (the Handbook's usual fraction of test values).
SAFE_SHARE = 1 / 5
#: A nail or screw in end grain holds so much of what it does in side grain (Handbook, about).
END_GRAIN_NAIL, END_GRAIN_SCREW = 0.5, 0.75
#: Wood screws as they are sold: thicknesses and lengths, mm (common sizes, no published source).
SCREW_THICK = (2.5, 3.0, 3.5, 4.0, 4.5, 5.0)
SCREW_LONG = (10.0, 12.0, 16.0, 20.0, 25.0, 30.0, 35.0, 40.0, 45.0, 50.0, 60.0, 70.0, 80.0, 90.0, 100.0)
#: Nails as they are sold: thickness and length, mm (common sizes, no published source).
NAILS = (
    (1.0, 10.0), (1.0, 13.0), (1.0, 15.0), (1.2, 20.0), (1.4, 25.0), (1.6, 30.0), (1.8, 35.0), (2.0, 40.0), (2.2, 45.0),
    (2.5, 50.0), (2.8, 60.0), (3.1, 70.0), (3.4, 80.0), (3.8, 100.0),
)  # fmt: skip


#: So short a row has one place, mm (common practice).
_ONE_HOLDS = 60.0


#: So many times its thickness a nail stays away from an end; a screw, which is bored for, half of that (practice).
NAIL_FROM_END, SCREW_FROM_END = 10, 5
#: A screw is about so many times as long as it is thick (common practice).
_SCREW_SLENDER = 9


class FastenerError(ValueError):
    """Nails or screws that cannot be; the message says why."""


def nail_withdrawal(gravity: float, diameter: float, depth: float) -> float:
    """Return what pulls a plain nail out of side grain, N; diameter and depth in the holding piece in mm.

    Parameters
    ----------
    gravity : float
        Specific gravity of the wood, oven-dry.
    diameter : float
        Of the nail, mm.
    depth : float
        Of the nail in the holding piece, mm.

    Returns
    -------
    float
        Newtons.

    Examples
    --------
    >>> round(nail_withdrawal(0.5, 2.5, 30))
    718
    """
    _check(gravity, diameter, depth)
    return 54.12 * math.pow(gravity, 2.5) * diameter * depth


def screw_withdrawal(gravity: float, diameter: float, depth: float) -> float:
    """Return what pulls a wood screw out of side grain, N; shank diameter and threaded depth in mm.

    Parameters
    ----------
    gravity : float
        Specific gravity of the wood, oven-dry.
    diameter : float
        Of the shank, mm.
    depth : float
        Of the thread in the holding piece, mm.

    Returns
    -------
    float
        Newtons.
    """
    _check(gravity, diameter, depth)
    return 108.25 * gravity**2 * diameter * depth


def _check(gravity: float, diameter: float, depth: float) -> None:
    if not 0.1 <= gravity <= 1.3:
        raise FastenerError(f"A specific gravity of {gravity:g} is no wood's.")
    if diameter <= 0 or depth < 0:
        raise FastenerError("A nail or screw has a thickness, and goes in: give more than nothing.")


@dataclass(frozen=True, slots=True)
class Fastening:
    """A row of nails or screws, mm: `long` and `thick` of each, the `pilot`, how many and where along the row.

    `holds` is what one resists being pulled out, N, and `enters` how deep it goes into the holding piece.
    """

    screws: bool
    long: float
    thick: float
    pilot: float
    places: tuple[float, ...]
    enters: float
    holds: float

    @property
    def from_end_least(self) -> float:
        """How far from an end the first may stand, mm: so many thicknesses, fewer where it is bored for (practice)."""
        return (SCREW_FROM_END if self.screws else NAIL_FROM_END) * self.thick


def fastening(
    screws: bool,
    thickness: float,
    holding: float,
    along: float,
    gravity: float,
    hard: bool,
    end_grain: bool,
    size: tuple[float, float] | None = None,
) -> Fastening:
    """Choose nails or screws for a row.

    Parameters
    ----------
    screws : bool
    thickness : float
        Of the piece that is fastened, mm.
    holding : float
        How deep the piece behind it is, mm.
    along : float
        Length of the row, mm.
    gravity : float
        Specific gravity of the holding piece.
    hard : bool
        Whether it is a hardwood.
    end_grain : bool
        Whether it is entered at its end.
    size : (float, float), optional
        The thickness and length that were chosen, mm.

    Notes
    -----
    Common practice, no published source: the longest that is sold up to two and a half times what the piece is thick,
    not through what holds it; a screw about a quarter of the piece thick; 25 mm from the ends, about 90 mm apart.
    Pilots by the Handbook: a nail 3/4 of its thickness; a screw's root (2/3 of its shank)
    by 0.7 in softwood and 0.9 in hardwood.
    """
    if min(thickness, holding, along) <= 0:
        raise FastenerError("What is fastened has a thickness, and so has what holds it: give more than nothing.")
    thick, long = size or _sold(screws, thickness, min(2.5 * thickness, thickness + holding - 3))
    pilot = thick * 2 / 3 * (0.9 if hard else 0.7) if screws else 0.75 * thick
    enters = long - thickness
    pulled = (screw_withdrawal if screws else nail_withdrawal)(gravity, thick, max(enters, 0.0))
    share = (END_GRAIN_SCREW if screws else END_GRAIN_NAIL) if end_grain else 1.0
    return Fastening(screws, long, thick, pilot, _places(along, thick), enters, pulled * share)


def _sold(screws: bool, thickness: float, most: float) -> tuple[float, float]:
    """Return how thick and how long a screw or nail is that is sold, mm; the shortest where all are too long."""
    if not screws:
        return max((nail for nail in NAILS if nail[1] <= most), key=lambda nail: nail[1], default=NAILS[0])
    thick = min(SCREW_THICK, key=lambda size: abs(size - thickness / 4))
    return thick, max((size for size in SCREW_LONG if size <= most), default=SCREW_LONG[0])


def thickness_sold(screws: bool, long: float) -> float:
    """Return how thick a nail or screw of some length usually is, mm: a nail is sold so, a screw about a ninth."""
    if screws:
        return min(SCREW_THICK, key=lambda size: abs(size - long / _SCREW_SLENDER))
    return min(NAILS, key=lambda nail: abs(nail[1] - long))[0]


def _places(along: float, thick: float) -> tuple[float, ...]:
    """Return where they stand: 25 mm or ten thicknesses from the ends, evenly, no more than 90 mm apart.

    What is short, such as a button, is held by one in its middle.
    """
    if along <= _ONE_HOLDS:
        return (along / 2,)
    from_end = min(max(25.0, 10 * thick), along / 3)
    room = along - 2 * from_end
    gaps = max(1, math.ceil(room / 90 - 1e-9))
    return tuple(from_end + room * step / gaps for step in range(gaps + 1))
