"""Sizing a piece by its outside, its inside, or around its contents: one set of rules for every form."""

from __future__ import annotations

from nullah.core.catalogue import N_, Phrase
from nullah.core.ledger import Definition, Snap
from nullah.core.lengths import mm
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.form import Choice

SIZING = Choice(
    "sizing", "Sized", (("outside", N_("outside")), ("inside", N_("inside")), ("contents", N_("around its contents")))
)


class SizeRule(NamedTuple):
    """One of the three sizes: `walls` is the rule for what stands between inside and outside."""

    walls: str
    default: int
    clear_sides: int = 2
    inside_title: str = ""


def sizes(prefix: str, sizing: str, ways: dict[str, SizeRule], clearance: str = "3") -> tuple[Definition, ...]:
    """Declare outside and inside sizes, whichever of them is given.

    Parameters
    ----------
    prefix : str
        Of the names: ``box`` gives ``box.outside_length`` and so on.
    sizing : str
        ``outside``, ``inside`` or ``contents``.
    ways : mapping of name to SizeRule
        ``length``, ``width``, ``height`` as the form has them.
    clearance : str
        Usual clearance round the contents, mm.
    """
    found: list[Definition] = []
    if sizing == "contents":
        found.append(Definition("contents.clearance", N_("clearance round the contents"), default=mm(clearance)))
    # Their names are marked for the catalogue here, as titles use them.
    known = (N_("length"), N_("width"), N_("height"), N_("depth"))
    assert set(ways) <= set(known), ways
    for name, way in ways.items():
        inside, outside = f"{prefix}.inside_{name}", f"{prefix}.outside_{name}"
        inside_title = way.inside_title or Phrase("inside {size}", size=name)
        if sizing == "outside":
            found.append(
                Definition(outside, Phrase("outside {size}", size=name), default=mm(way.default), snap=Snap.MARK)
            )
            found.append(Definition(inside, inside_title, f"{outside} - {way.walls}"))
            continue
        if sizing == "contents":
            found.append(
                Definition(
                    f"contents.{name}",
                    Phrase("{size} of the contents", size=name),
                    default=mm(way.default),
                    snap=Snap.MARK,
                )
            )
            rule = f"contents.{name} + {way.clear_sides} * contents.clearance"
            found.append(Definition(inside, inside_title, rule))
        else:
            found.append(Definition(inside, inside_title, default=mm(way.default), snap=Snap.MARK))
        found.append(Definition(outside, Phrase("outside {size}", size=name), f"{inside} + {way.walls}"))
    return tuple(found)
