"""The card: what is carried from the desk to the bench, as data.

Every station fills one; the desk shows it and paper prints it, both as it stands.
"""

from __future__ import annotations

import re
from collections.abc import Callable
from enum import Enum
from fractions import Fraction
from typing import NamedTuple

_PLACE = re.compile("⟦([^⟧]+)⟧")


class Weight(Enum):
    """How much a line under *Mind* matters."""

    NOTE = "note"
    LOOK = "look at this"
    FAILS = "will not work"


class Setting(NamedTuple):
    """A tool and what to set it to, such as ``Marking gauge · 19.5 mm``.

    `note` says what it is for, `of` names the ledger quantity behind it (may be empty).
    """

    tool: str
    figure: str
    note: str = ""
    of: str = ""


class Mend(NamedTuple):
    """A way out that arithmetic knows: a label for the button and the action it names."""

    label: str
    action: str
    subject: str = ""
    value: str = ""


class Remark(NamedTuple):
    """A sentence under *Mind*, with the mends that go with it."""

    text: str
    weight: Weight = Weight.NOTE
    mends: tuple[Mend, ...] = ()
    of: str = ""


def length_mark(millimetres: Fraction) -> str:
    """Give a place for a length in a sentence that is written before anyone knows in what unit it is read."""
    return f"⟦{millimetres}⟧"


def with_lengths(remark: Remark, write: Callable[[Fraction], str]) -> Remark:
    """Put lengths into the places a remark and its mends have for them.

    Examples
    --------
    >>> with_lengths(Remark(f"It is {length_mark(Fraction(5, 2))} short."), lambda mm: f"{float(mm)} mm").text
    'It is 2.5 mm short.'
    """
    if "⟦" not in remark.text and not any("⟦" in mend.label for mend in remark.mends):
        return remark

    def put(text: str) -> str:
        return _PLACE.sub(lambda found: write(Fraction(found.group(1))), text)

    mends = tuple(mend._replace(label=put(mend.label)) for mend in remark.mends)
    return remark._replace(text=put(remark.text), mends=mends)


class Card(NamedTuple):
    """What a station gives to carry away.

    `set` are tools and figures, `mark` the steps in order, `mind` limits and cautions,
    `why` where a figure comes from.
    """

    title: str = ""
    set: tuple[Setting, ...] = ()
    mark: tuple[str, ...] = ()
    mind: tuple[Remark, ...] = ()
    why: tuple[str, ...] = ()
