"""What joints by themselves are made of: boards between two corners, and what refuses them."""

from __future__ import annotations

from fractions import Fraction
from typing import NamedTuple

from nullah.core.joints.bench import Told
from nullah.core.piece.form import Assembly
from nullah.core.piece.part import Needs, Part
from nullah.core.piece.shaping import Shaping
from nullah.core.piece.space import Axis, Box

#: How long a piece of each mate is shown, mm.
LONG = 140.0


class JointError(ValueError):
    """A joint that cannot be made so; the message says why, and what could."""


class StandaloneJoint(NamedTuple):
    """A joint by itself: its parts and joints, and how it is made; None where its family tells that as for a piece."""

    assembly: Assembly
    told: Told | None


def exact(value: float) -> Fraction:
    """Return a length in mm as an exact one, to the nanometre."""
    return Fraction(round(value * 1_000_000), 1_000_000)


def board(
    name: str,
    number: int,
    low: tuple[float, float, float],
    high: tuple[float, float, float],
    lie: str,
    *shapings: Shaping,
) -> Part:
    """Make a part between two corners, mm; `lie` are the axes of its length and of its thickness."""
    if any(b - a <= 0 for a, b in zip(low, high, strict=True)):
        raise JointError(f"Nothing is left of the {name}: give it more than nothing.")
    axes = {"x": Axis.X, "y": Axis.Y, "z": Axis.Z}
    quantities = (f"{name}.length", f"{name}.width", f"{name}.thickness")
    return Part(
        name, number, name, box(low, high), axes[lie[0]], axes[lie[1]], Needs.CLEAR, quantities, name, shapings=shapings
    )


def box(low: tuple[float, float, float], high: tuple[float, float, float]) -> Box:
    """Return the box between two corners, mm."""
    return Box((exact(low[0]), exact(low[1]), exact(low[2])), (exact(high[0]), exact(high[1]), exact(high[2])))


def need(good: bool, sentence: str) -> None:
    """Raise `JointError` with a sentence unless something holds."""
    if not good:
        raise JointError(sentence)


def in_mm(value: float) -> str:
    """Write a length given in mm, to a tenth."""
    return f"{round(value, 1):g} mm"
