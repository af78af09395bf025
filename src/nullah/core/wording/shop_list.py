"""The shop list in words."""

from __future__ import annotations

from typing import assert_never

from nullah.core.catalogue import N_
from nullah.core.lengths import Length, Slope, write_bought
from nullah.core.named_tuple import NamedTuple
from nullah.core.reader import Reader, sentence
from nullah.core.work.shop_list import (
    ClampsNeeded,
    FastenersNeeded,
    FinishNeeded,
    GlueNeeded,
    LayoutTools,
    PlaneNeeded,
    RagsNeeded,
    SawsNeeded,
    ShopList,
    ToolFact,
    ToolNeeded,
    UsedFact,
)

TOOLS, USED_UP = N_("Tools"), N_("Used up")
#: So many kinds of joint are named beside a tool.
_MOST = 3


class Need(NamedTuple):
    """Something to have at hand, in words: what, how much, and what for."""

    what: str
    much: str
    why: str = ""


def shop_list_words(found: ShopList, reader: Reader) -> tuple[tuple[str, tuple[Need, ...]], ...]:
    """Return what is needed, under headings."""
    parts = ((TOOLS, found.tools), (USED_UP, found.used))
    return tuple(
        (reader.text(title), tuple(need_words(each, reader) for each in facts)) for title, facts in parts if facts
    )


def need_words(fact: ToolFact | UsedFact, reader: Reader) -> Need:
    """Return what is needed, how much of it, and what for."""
    match fact:
        case PlaneNeeded(kind, shaving):
            much = reader.text("shaving {thick}", thick=reader.marks.write_thin(shaving))
            return Need(sentence(reader.text(kind)), much, reader.text("milling"))
        case SawsNeeded(kerf):
            much = reader.text("kerf {kerf}", kerf=reader.fine(kerf))
            return Need(reader.text("Rip saw and crosscut saw"), much, reader.text("sawing out"))
        case ToolNeeded(tool, size, joints):
            named = ", ".join(reader.text(joint) for joint in joints[:_MOST]) + (" …" if len(joints) > _MOST else "")
            return Need(sentence(reader.text(tool.value)), _size(size), named)
        case LayoutTools():
            what = reader.text("Square, straightedge, winding sticks, marking knife")
            return Need(what, "", reader.text("all of it"))
        case FastenersNeeded(screws, number, long, thick, gauge):
            what = reader.text("Screws") if screws else reader.text("Nails")
            wide = gauge or reader.text("{size} thick", size=write_bought(thick))
            return Need(what, str(number), f"{write_bought(long)}, {wide}")
        case GlueNeeded(glue, grams):
            why = reader.text("a guess; what is spread thin is enough")
            return Need(sentence(reader.text(glue)), f"{grams} g", why)
        case ClampsNeeded(number, short):
            why = (
                reader.text("{n} more than there are", n=str(short))
                if short
                else reader.text("for the largest glue-up")
            )
            return Need(reader.text("Clamps"), str(number), why)
        case FinishNeeded(finish, millilitres, coats, area):
            write = reader.marks.write_area
            why = reader.count(coats, "one coat on {area}; a guess", "{n} coats on {area}; a guess", area=write(area))
            return Need(sentence(reader.text(finish)), f"{millilitres} ml", why)
        case RagsNeeded():
            why = reader.text("dry them flat outdoors: soaked with oil they can ignite by themselves")
            return Need(reader.text("Rags"), reader.text("a few"), why)
        case _:
            assert_never(fact)


def _size(size: Length | Slope | None) -> str:
    match size:
        case Length():
            return write_bought(size)
        case Slope():
            return size.as_text()
        case None:
            return ""
