"""Joints by themselves: two or three boards made up from a few figures, joined, and what it takes to make that.

For practice, and for joints a piece has not got. Every one is parts and joints like those of a piece, so
its solids can be cut and put together.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import NamedTuple

from nullah.core.joints.made_up.boards import JointError, StandaloneJoint
from nullah.core.joints.made_up.crossing import corner_bridle, cross_lap, keyed_mitre
from nullah.core.joints.made_up.dovetails import dovetail, lapped_dovetail, sliding_dovetail, through_dovetail
from nullah.core.joints.made_up.let_in import dado, groove, rabbet
from nullah.core.joints.made_up.tenons import breadboard, drawbored, haunched_tenon, tusk_tenon

__all__ = ["FAMILIES", "Family", "JointError", "StandaloneJoint", "make_up"]


class Family(NamedTuple):
    """A family: its title, what its figures are called with a usual value (mm, or a plain number), its maker."""

    title: str
    figures: tuple[tuple[str, float], ...]
    make: Callable[..., StandaloneJoint]


FAMILIES: dict[str, Family] = {
    "through": Family(
        "Through dovetail",
        (
            ("wide", 50),
            ("tail board", 15),
            ("pin board", 15),
            ("tails", 2),
            ("half-pin", 6),
            ("pin", 5),
            ("slope 1:", 7),
        ),
        through_dovetail,
    ),
    "halfblind": Family(
        "Half-blind dovetail",
        (
            ("wide", 90),
            ("tail board", 12),
            ("pin board", 18),
            ("tails", 3),
            ("half-pin", 6),
            ("pin", 5),
            ("slope 1:", 7),
            ("lap", 5),
        ),
        dovetail,
    ),
    "rabbet": Family("Rabbet", (("wide", 90), ("thick", 18), ("back", 9), ("deep", 8)), rabbet),
    "dado": Family("Dado", (("wide", 150), ("thick", 18), ("shelf", 12), ("deep", 6), ("stop", 10)), dado),
    "groove": Family("Groove", (("wide", 90), ("thick", 14), ("panel", 6), ("deep", 4.5), ("up", 9)), groove),
    "sliding": Family(
        "Sliding dovetail",
        (("board wide", 150), ("thick", 20), ("slid board", 18), ("deep", 7), ("slope 1:", 7)),
        sliding_dovetail,
    ),
    "lapped": Family(
        "Lapped single dovetail",
        (("rail wide", 38), ("rail thick", 18), ("leg", 44), ("half-pin", 6), ("lap", 10), ("slope 1:", 7)),
        lapped_dovetail,
    ),
    "haunched": Family(
        "Haunched tenon",
        (("leg", 44), ("rail wide", 70), ("rail thick", 20), ("tenon", 7), ("long", 28), ("haunch", 16)),
        haunched_tenon,
    ),
    "drawbore": Family(
        "Drawbored tenon",
        (("leg", 44), ("rail wide", 70), ("rail thick", 20), ("tenon", 7), ("long", 34), ("peg", 8), ("offset", 1.5)),
        drawbored,
    ),
    "tusk": Family(
        "Tusk tenon",
        (
            ("post", 60),
            ("bar wide", 60),
            ("bar thick", 24),
            ("tenon", 18),
            ("beyond", 60),
            ("wedge", 14),
            ("slope 1 in", 10),
        ),
        tusk_tenon,
    ),
    "breadboard": Family(
        "Breadboard end",
        (
            ("panel wide", 300),
            ("thick", 20),
            ("end wide", 60),
            ("tongue", 19),
            ("tenons", 3),
            ("tenons long", 40),
            ("moves", 3),
        ),
        breadboard,
    ),
    "cross": Family("Cross lap", (("one wide", 40), ("other wide", 40), ("thick", 20)), cross_lap),
    "bridle": Family("Corner bridle", (("wide", 40), ("thick", 21)), corner_bridle),
    "keyed": Family("Keyed mitre", (("wide", 40), ("thick", 18), ("key", 2), ("in the corner", 20)), keyed_mitre),
}


def make_up(family: str, figures: tuple[float, ...]) -> StandaloneJoint:
    """Make a joint of a family up.

    Raises
    ------
    JointError
        Where it cannot be made so.

    Examples
    --------
    >>> made = make_up("cross", (40, 40, 20))
    >>> [part.name for part in made.assembly.parts]
    ['lower board', 'upper board']
    """
    if any(not math.isfinite(figure) or figure < 0 for figure in figures):
        raise JointError("Every figure must be nothing or more.")
    return FAMILIES[family].make(*figures)
