"""What is said beside a step of a joint that is carried to the bench."""

from __future__ import annotations

from collections.abc import Sequence

from nullah.core.joints.dovetail.layout import DovetailFigures
from nullah.core.reader import Reader


def step_title(number: int, steps: int, reader: Reader) -> str:
    """Return which of how many steps it is."""
    return reader.text("Step {n} of {steps}", n=str(number), steps=str(steps))


def check_words(check: str, reader: Reader) -> str:
    """Return what is looked at before going on; `check` is a message."""
    said = reader.text(check)
    return reader.text("Check: {check}", check=f"{said[:1].lower()}{said[1:]}")


def lines_kept_words(lines: Sequence[tuple[str, int]], reader: Reader) -> str:
    """Return which lines must stay, each until which step."""
    kept = (reader.text("{line} (until step {n})", line=reader.text(line), n=str(last)) for line, last in lines)
    return reader.text("Leave these lines: {lines}.", lines=", ".join(kept))


def seen_words(part: str, pins: bool, reader: Reader) -> str:
    """Return from where a board is seen: a tail board from outside, a pin board at its end and from inside."""
    return reader.text("{part}: end and inside", part=part) if pins else reader.text("{part}: outside", part=part)


def overshoot_words(spec: DovetailFigures, reader: Reader) -> str:
    """Return how dividers overshoot at the last step."""
    return reader.text("step {n}: over by the pin, {pin}", n=str(spec.tails), pin=reader.marks.write_setting(spec.pin))
