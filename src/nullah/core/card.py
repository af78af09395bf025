"""The card: what is carried from the desk to the bench, as data.

Every station fills one; the desk shows it and paper prints it, both as it stands.
"""

from __future__ import annotations

from enum import Enum
from typing import NamedTuple


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
